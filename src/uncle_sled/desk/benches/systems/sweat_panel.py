"""What sweats on that night: the body coloured, the list from the coldest, and a face in section."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.sweat_views import face_section, sweat_picture
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.glaser import Profile, profiles_of
from uncle_sled.core.studies.systems.sweat import Night, Surface
from uncle_sled.core.studies.systems.systems_as_built import the_night
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.systems.clicked import ClickedWires
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Gap, Panel, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, Drawing, DrawingOf, Fields, Listed, Says, Split
from uncle_sled.desk.kit.table import Column

SIDE_PX = 262
PRICE_PX, AIR_PX = 430, 360


class SweatPanel(Panel):
    chosen = ""
    face = ""

    def laid(self) -> Split:
        self.picture = self.put(
            DrawingOf(
                "The body by the warmth of its inner surfaces", self._picture, "", self._why, least=(0, 170), kind=ClickedWires, share=1
            )
        )
        self.picture.picked.connect(self._pick)
        columns: tuple[Column[Surface], ...] = (
            Column("Surface", lambda face: face.name, ink=lambda face: "primer" if face.sweats else ""),
            Column("There", lambda face: self.words.degrees(face.t_c, 1), right=True, sort=lambda face: face.t_c),
            Column(
                "That night",
                lambda face: ("sweats" if face.sweats else "dry") + (", about" if face.rough else ""),
                ink=lambda face: "primer" if face.sweats else "",
            ),
            Column(
                "Air to stop it",
                lambda face: "no air will" if face.vent_m3h is None else self.words.of(face.vent_m3h, "m3/h", 0),
                right=True,
                tip="Air change under which it stays dry",
                from_px=AIR_PX,
            ),
            Column(
                "Price",
                lambda face: "" if face.price_w is None else f"{face.price_w:.0f} W",
                right=True,
                tip="Heat that this air takes along",
                from_px=PRICE_PX,
            ),
        )
        self.table = self.put(
            Listed[Surface](
                "Surfaces from the coldest",
                columns,
                lambda: self.night().surfaces,
                lambda face: face.id,
                self._picked,
                lambda face: face.id == self.chosen,
            )
        )
        night = Fields("That night", [*plain("brief", "inside coldest humidity_out wet_gear_g_h"), Row("systems.air.vent_m3h")], "Systems")
        side = rows(night, Says(lambda: self._told(self.night(), self.profiles())), Gap(), wide=SIDE_PX)
        self.section = self.put(Drawing("Temperature and dew point through a face", self._section, "", self._no_section, share=1))
        within = rows(
            tools(
                Says("Through the", "pencil"),
                Choice(
                    "Face",
                    lambda: [(p.id, p.name) for p in self.profiles()],
                    self._show_face,
                    self._face_shown,
                    "Which face is shown in section",
                    12,
                ),
                Act("Wettest", "The face that gets most wet inside", self._show_wettest),
            ),
            self.section,
            gap=4,
        )
        return Split((across(self.picture, side, gap=8), Split((self.table, within), (430, 380), upright=False)), (350, 220), share=1)

    @property
    def studied(self) -> Studied:
        return self.session.ghost_studied or self.session.studied

    def night(self) -> Night:
        return the_night(self.studied)

    def profiles(self) -> tuple[Profile, ...]:
        s = self.studied
        return profiles_of(s.build, s.facts, s.framed)

    def _picture(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.studied
        faces: dict[str, str] = {f.kind: f.id for f in s.build.shell.faces}
        return sweat_picture(self.night(), s.framed, faces, self.words, width, height, frozenset({self.chosen}))

    def _why(self) -> str:
        return " ".join(self.night().why) or "Nothing to draw yet."

    def _section(self, width: float, height: float) -> tuple[Primitive, ...]:
        profile = next((p for p in self.profiles() if p.id == self.face), None)
        return face_section(profile, self.words, width, height) if profile is not None else ()

    def _no_section(self) -> str:
        if self.night().inside_rh is None:
            return "Not known yet: " + " ".join(self.night().why)
        return "No face with layers of known materials: give faces their layers on Shell, Faces."

    def _pick(self, id: str) -> None:
        self.chosen = id
        self._follow(id)
        self.refresh()

    def _picked(self, face: Surface) -> None:
        self.chosen = face.id
        self._follow(self.chosen)
        self.picture.update()

    def _follow(self, id: str) -> None:
        """The section shows the face that was chosen; a thing before it is taken in hand."""
        face, _, thing = id.partition("/")
        if any(p.id == face for p in self.profiles()):
            self._show_face(face)
        s = self.session
        known = {t.id for t in s.build.stow.things} | {o.id for o in s.build.shell.openings}
        s.select(tuple(one for one in (thing, face) if one in known)[:1])

    def _show_face(self, id: object) -> None:
        self.face = str(id)
        self.refresh()

    def _face_shown(self) -> str:
        known = [p.id for p in self.profiles()]
        if self.face not in known:
            self.face = known[0] if known else ""
        return self.face

    def _show_wettest(self) -> None:
        wettest = max(self.profiles(), key=lambda p: p.condenses_g_m2, default=None)
        if wettest is not None:
            self._show_face(wettest.id)

    def _told(self, night: Night, profiles: tuple[Profile, ...]) -> list[str]:
        words = self.words
        if night.inside_rh is None or night.dew_c is None:
            return []
        guess = "" if night.air_said else " (a guess)"
        told = [
            f"{min(night.inside_rh, 1.0) * 100:.0f} % damp inside at {words.of(night.air_m3h, 'm3/h', 0)}{guess}; dew at {words.degrees(night.dew_c, 1)}."
        ]
        wet = night.wet
        told.append(
            "Nothing sweats."
            if not wet and not night.unknown
            else f"{len(wet)} sweat, the worst {lower_first(wet[0].name)}."
            if wet
            else "Nothing that was checked sweats."
        )
        if night.unknown:
            told.append(f"{len(night.unknown)} not checked: what they are made of is not said.")
        inside = [p for p in profiles if p.condenses_g_m2 > 0.05]
        if inside:
            worst = max(inside, key=lambda p: p.condenses_g_m2)
            dries = "dries by day" if worst.dries else "does not dry by day"
            told.append(f"Inside the {lower_first(worst.name)}: {words.of(worst.condenses_g_m2, 'g/m2 water', 1)} a night, {dries}.")
        told.append("Air against sweat is not the air that a flame wants.")
        return told
