"""What sweats on that night: the body coloured, the list from the coldest, and a face in section."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QSplitter, QVBoxLayout, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.sweat_views import face_section, sweat_picture
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.glaser import Profile, profiles_of
from uncle_sled.core.studies.systems.of_the_build import the_night
from uncle_sled.core.studies.systems.sweat import Night, Surface
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.benches.systems.clicked import Clicked
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

SIDE_PX = 262
PRICE_PX, AIR_PX = 430, 360


class SweatPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.chosen = ""
        self.face = ""
        self._filling = False
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        self.picture = Clicked(session, "The body by the warmth of its inner surfaces", self._picture, "", self._why)
        self.picture.picked.connect(self._pick)
        self.picture.setMinimumHeight(170)
        self.model = TableModel[Surface](
            (
                Column("Surface", lambda one: one.name, ink=lambda one: "primer" if one.sweats else ""),
                Column("There", lambda one: Words(session.shown).degrees(one.t_c, 1), right=True, sort=lambda one: one.t_c),
                Column(
                    "That night",
                    lambda one: ("sweats" if one.sweats else "dry") + (", about" if one.rough else ""),
                    ink=lambda one: "primer" if one.sweats else "",
                ),
                Column(
                    "Air to stop it",
                    lambda one: "no air will" if one.vent_m3h is None else Words(session.shown).of(one.vent_m3h, "m3/h", 0),
                    right=True,
                    tip="Air change under which it stays dry",
                ),
                Column(
                    "Price",
                    lambda one: "" if one.price_w is None else f"{one.price_w:.0f} W",
                    right=True,
                    tip="Heat that this air takes along",
                ),
            )
        )
        self.table = Table(self.model, "Surfaces from the coldest")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.table.selectionModel().selectionChanged.connect(self._picked)
        side = QWidget()
        beside = QVBoxLayout(side)
        beside.setContentsMargins(0, 0, 0, 0)
        beside.setSpacing(6)
        self.form = Form(
            session, "That night", [*plain("brief", "inside coldest humidity_out wet_gear_g_h"), Row("systems.air.vent_m3h")], "Systems"
        )
        beside.addWidget(self.form)
        self.says = label("", wrap=True)
        self.says.setAlignment(Qt.AlignmentFlag.AlignTop)
        beside.addWidget(self.says, 1)
        side.setFixedWidth(SIDE_PX)
        inner = QWidget()
        within = QVBoxLayout(inner)
        within.setContentsMargins(0, 0, 0, 0)
        within.setSpacing(4)
        bar = QHBoxLayout()
        bar.addWidget(label("Through the", "", "pencil"))
        self.faces = ChoiceField("Face", [])
        self.faces.setToolTip("Which face is shown in section")
        self.faces.setMinimumContentsLength(12)
        self.faces.entered.connect(self._show_face)
        bar.addWidget(self.faces)
        self.wet = act_button("Wettest", "The face that gets most wet inside", self._show_wettest)
        bar.addWidget(self.wet)
        bar.addStretch(1)
        within.addLayout(bar)
        self.section = Chart(session, "Temperature and dew point through a face", self._section, "", self._no_section)
        within.addWidget(self.section, 1)
        low = QSplitter()
        low.addWidget(self.table)
        low.addWidget(inner)
        low.setChildrenCollapsible(False)
        low.setSizes([430, 380])
        low.splitterMoved.connect(lambda *_: self._give_way())
        self.low = low
        upper = QWidget()
        over = QHBoxLayout(upper)
        over.setContentsMargins(0, 0, 0, 0)
        over.setSpacing(8)
        over.addWidget(self.picture, 1)
        over.addWidget(side)
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(upper)
        split.addWidget(low)
        split.setChildrenCollapsible(False)
        split.setSizes([350, 220])
        rows.addWidget(split, 1)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Where there is little room, air and price are read from Uncle."""
        self._give_way()

    def _give_way(self) -> None:
        wide = self.table.width()
        self.table.give_way({4: wide < PRICE_PX, 3: wide < AIR_PX})

    def studied(self) -> Studied:
        return self.session.ghost_studied or self.session.studied

    def night(self) -> Night:
        return the_night(self.studied())

    def profiles(self) -> tuple[Profile, ...]:
        s = self.studied()
        return profiles_of(s.build, s.facts, s.framed)

    def _picture(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.studied()
        faces: dict[str, str] = {f.kind: f.id for f in s.build.shell.faces}
        return sweat_picture(self.night(), s.framed, faces, Words(self.session.shown), width, height, frozenset({self.chosen}))

    def _why(self) -> str:
        return " ".join(self.night().why) or "Nothing to draw yet."

    def _section(self, width: float, height: float) -> tuple[Primitive, ...]:
        one = next((p for p in self.profiles() if p.id == self.face), None)
        return face_section(one, Words(self.session.shown), width, height) if one is not None else ()

    def _no_section(self) -> str:
        if self.night().inside_rh is None:
            return "Not known yet: " + " ".join(self.night().why)
        return "No face with layers of known materials: give faces their layers on Shell, Faces."

    def _pick(self, id: str) -> None:
        self.chosen = id
        self._follow(id)
        self.refresh()

    def _picked(self) -> None:
        at = self.table.marked()
        if not self._filling and at >= 0:
            self.chosen = self.model.rows[at].id
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
        self.faces.show_value(self.face)
        self.section.update()

    def _show_wettest(self) -> None:
        wettest = max(self.profiles(), key=lambda p: p.condenses_g_m2, default=None)
        if wettest is not None:
            self._show_face(wettest.id)

    def refresh(self) -> None:
        self._give_way()
        self.form.refresh()
        night, profiles = self.night(), self.profiles()
        self._filling = True
        self.model.set_rows(night.surfaces, lambda a, b: a.id == b.id)
        at = next((k for k, one in enumerate(self.model.rows) if one.id == self.chosen), -1)
        self.table.selectRow(at) if at >= 0 else self.table.clearSelection()
        told = [(p.id, p.name) for p in profiles]
        if told != self.faces.choices:
            self.faces.clear()
            self.faces.choices = list(told)
            for id, name in told:
                self.faces.addItem(name, id)
            self.faces.setMaxVisibleItems(max(len(told), 10))
        if not any(p.id == self.face for p in profiles):
            self.face = profiles[0].id if profiles else ""
        self.faces.show_value(self.face)
        self._filling = False
        self.picture.update()
        self.section.update()
        self.says.setText("\n".join(self._told(night, profiles)))

    def _told(self, night: Night, profiles: tuple[Profile, ...]) -> list[str]:
        words = Words(self.session.shown)
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
