"""The faces view's lower half: what each face weighs or is made of, its layers, and ways compared."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.assemblies import ways_for
from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.shell import Face
from uncle_sled.core.drawing.shell.shell_views import layer_words
from uncle_sled.core.parts.face_build import FaceBuild, library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.studies.shell.compare_ways import way_ops
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.layers_dialog import LayersDialog
from uncle_sled.desk.benches.shell.section_picture import SectionPicture
from uncle_sled.desk.kit.fields import ChoiceField
from uncle_sled.desk.kit.form import Row
from uncle_sled.desk.kit.panel import Panel, Part, across, card
from uncle_sled.desk.kit.parts import Act, Cards, Choice, Fields, Own, Remade, Says


def _warm(build: FaceBuild, words: Words) -> str:
    """R and U of a face; where metal goes through it both bounds, of which the lower counts."""
    if build.warmth.trusted:
        return f"{words.resistance(build.r_m2k_w)}, U {words.of(build.u_w_m2k, 'W/m2K', 2)}"
    low, high = words.resistance(build.warmth.lower_m2k_w), words.resistance(build.warmth.upper_m2k_w)
    return f"{low} to {high}: its tubes bridge it, go by the lower"


class FacesPanel(Panel):
    which: ChoiceField | None = None

    def laid(self) -> Remade:
        return Remade(
            lambda: (
                tuple((face.id, face.made_of, face.name, bool(face.layers)) for face in self.session.build.shell.faces),
                self.session.facts.ways,
            ),
            self._cards,
            share=1,
        )

    def _cards(self) -> Cards:
        faces = self.session.build.shell.faces
        if not faces:
            return Cards(
                [
                    card(
                        "What each face weighs",
                        Says("No face yet. Take a profile, or add a face; a shell that was bought is weighed with the trailer."),
                    )
                ]
            )
        typed = [face for face in faces if not face.layers]
        self.which = self.put(Choice("Face cut through", [(face.id, face.name) for face in faces], lambda _: self.refresh(), share=1))
        self.picture = self.put(Own(lambda: SectionPicture(self.session), lambda picture: picture.show_face(self.face), share=1))
        weighs = [Row(f"shell.faces.{face.id}.mass", title=face.name, tip=f"{face.name} with its fittings and fasteners") for face in typed]
        known = [Row(f"shell.faces.{face.id}.source", title=face.name) for face in typed]
        warm = [Row(f"shell.faces.{face.id}.u_w_m2k", title=face.name) for face in typed]
        cards: list[Part[Any]] = [
            Fields("Made of", [self._way_row(face) for face in faces], "Shell", 84),
            card(
                "",
                across(
                    self.which,
                    Act("Layers…", "Change this face's layers one by one, or add a material of your own", self.open_layers, plain=True),
                ),
                self.picture,
                Says(self._section, face="small"),
            ),
            card("What each face weighs", Fields("", weighs, "Shell", bare=True), Says(self._by_layers, "pencil", "small", hides=True)),
        ]
        if typed:
            cards += [Fields("Known by", known, "Shell"), Fields("U of its data sheet", warm, "Shell")]
        return Cards(cards)

    def _by_layers(self) -> str:
        layered = {face.id for face in self.session.build.shell.faces if face.layers}
        told = [f"{part.name} {self.words.kg(part.mass_kg)}" for part in self.studied.parts if part.id in layered]
        return f"By their layers, sticks apart: {', '.join(told)}" if told else ""

    def _way_row(self, face: Face) -> Row:
        words = self.words
        ways = ways_for(self.session.facts.ways, face.kind == "floor")
        known: list[tuple[object, str]] = [("", "as typed"), *((name, words.material(name)) for name in ways)]
        if face.made_of and face.made_of not in ways:
            known.append((face.made_of, face.made_of))

        def ops(name: object) -> list[Op]:
            layers = face.layers if name == face.made_of else ways.get(str(name), ())
            return list(way_ops((face.id,), str(name), layers))

        return Row(f"shell.faces.{face.id}.made_of", title=face.name, kind=known, ops=ops)

    @property
    def face(self) -> Face | None:
        id = self.which.currentData() if self.which is not None else None
        return next((f for f in self.session.build.shell.faces if f.id == id), None)

    def open_layers(self) -> None:
        if self.face is None:
            self.session.said.emit("There is no face yet; add one first.", "note")
            return
        LayersDialog(self.session, self.face, self).open()

    def _section(self) -> str:
        """What the chosen face is made of, what it is net of openings, and how warm."""
        face, s, words = self.face, self.studied, self.words
        if face is None or not face.layers or s.framed.body is None:
            return "Weight as typed; give it layers to see them cut through." if face is not None else ""
        library = library_of(self.session.facts.materials)
        sums = face_sums(face, s.build.shell, s.framed, library)
        text = "\n".join(layer_words(face, library, words))
        if sums.build is not None:
            sticks = f", {words.share(sums.sticks, 0)} of it sticks" if sums.sticks is not None else ""
            text += f"\n{words.m2(sums.area_m2, 2)} net of openings{sticks}; {_warm(sums.build, words)}"
        return text
