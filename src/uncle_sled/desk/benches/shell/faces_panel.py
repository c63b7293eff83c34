"""The faces view's lower half: what each face weighs or is made of, its layers, and ways compared."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.shell import Face
from uncle_sled.core.drawing.shell.shell_views import layer_words
from uncle_sled.core.parts.face_build import FaceBuild, library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.studies.shell.compare_ways import way_ops
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.layers_dialog import LayersDialog, SectionPicture
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.form import Form, Row
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.session import Session


def _warm(build: FaceBuild, words: Words) -> str:
    """R and U of a face; where metal goes through it both bounds, of which the lower counts."""
    if build.warmth.trusted:
        return f"{words.resistance(build.r_m2k_w)}, U {words.of(build.u_w_m2k, 'W/m2K', 2)}"
    low, high = words.resistance(build.warmth.lower_m2k_w), words.resistance(build.warmth.upper_m2k_w)
    return f"{low} to {high}: its tubes bridge it, go by the lower"


class FacesPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(0, 0, 0, 0)
        self.faces: Form | None = None
        self.made: Form | None = None
        self.sources: Form | None = None
        self.warmth: Form | None = None
        self.columns: Columns | None = None
        self.face_ids: tuple[tuple[str, str, str], ...] = ()
        self.cut = QFrame()
        self.cut.setObjectName("card")
        self.cut.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        card = QVBoxLayout(self.cut)
        card.setContentsMargins(12, 8, 12, 10)
        top = QHBoxLayout()
        self.which = ChoiceField("Face cut through", [])
        self.which.activated.connect(lambda _: self._section())
        top.addWidget(self.which, 1)
        self.layers_button = QPushButton("Layers…")
        self.layers_button.setToolTip("Change this face's layers one by one, or add a material of your own")
        self.layers_button.clicked.connect(self.open_layers)
        top.addWidget(self.layers_button)
        card.addLayout(top)
        self.picture = SectionPicture(session)
        card.addWidget(self.picture, 1)
        self.words = label("", "small", wrap=True)
        card.addWidget(self.words)
        self._make()

    def _key(self) -> tuple[tuple[str, str, str], ...]:
        return tuple((face.id, face.made_of, face.name) for face in self.session.build.shell.faces)

    def _make(self) -> None:
        faces = self.session.build.shell.faces
        self.face_ids = self._key()
        self.faces = Form(
            self.session,
            "What each face weighs",
            [
                Row(
                    f"shell.faces.{face.id}.mass",
                    title=face.name,
                    tip=f"{face.name} with its fittings and fasteners",
                    when=self._typed(face.id),
                )
                for face in faces
            ],
            "Shell",
        )
        self.by_layers = label("", "small", "pencil", wrap=True)
        self.by_layers.setMinimumHeight(18)
        self.faces.whole.addWidget(self.by_layers)
        self.made = Form(self.session, "Made of", [self._way_row(face) for face in faces], "Shell", label_px=84)
        self.sources = Form(
            self.session,
            "Known by",
            [Row(f"shell.faces.{face.id}.source", title=face.name, when=self._typed(face.id)) for face in faces],
            "Shell",
        )
        self.warmth = Form(
            self.session,
            "U of its data sheet",
            [Row(f"shell.faces.{face.id}.u_w_m2k", title=face.name, when=self._typed(face.id)) for face in faces],
            "Shell",
        )
        if not faces:
            text = "No face yet. Take a profile, or add a face; a shell that was bought is weighed with the trailer."
            none_yet = label(text, wrap=True)
            none_yet.setMinimumHeight(56)
            self.faces.whole.addWidget(none_yet)
        self.which.blockSignals(True)
        now = self.which.currentData()
        self.which.clear()
        self.which.choices = [(face.id, face.name) for face in faces]
        for id, name in self.which.choices:
            self.which.addItem(name, id)
        self.which.blockSignals(False)
        if now is not None:
            self.which.show_value(now)
        if self.columns is not None:
            self.cut.setParent(None)
            self.rows.removeWidget(self.columns)
            self.columns.hide()
            self.columns.setParent(None)
            self.columns.deleteLater()
        self.columns = Columns(list[QWidget]([self.made, self.cut, self.faces, self.sources, self.warmth]))
        self.rows.addWidget(self.columns)

    def _typed(self, id: str) -> Callable[[Any], bool]:
        """Whether a face's weight is typed; one that is made of layers weighs what they weigh."""
        return lambda build: not any(face.id == id and face.layers for face in build.shell.faces)

    def _way_row(self, face: Face) -> Row:
        words = Words(self.session.shown)
        ways = [name for name in WAYS if name.startswith("floor") is (face.kind == "floor") or "bare" in name]
        known: list[tuple[object, str]] = [("", "as typed"), *((name, words.material(name)) for name in ways)]
        if face.made_of and face.made_of not in ways:
            known.append((face.made_of, face.made_of))

        def ops(name: object) -> list[Op]:
            layers = face.layers if name == face.made_of else WAYS.get(str(name), ())
            return list(way_ops((face.id,), str(name), layers))

        return Row(f"shell.faces.{face.id}.made_of", kind=known, ops=ops)

    @property
    def face(self) -> Face | None:
        id = self.which.currentData()
        return next((f for f in self.session.build.shell.faces if f.id == id), None)

    def open_layers(self) -> None:
        if self.face is None:
            self.session.said.emit("There is no face yet; add one first.", "note")
            return
        LayersDialog(self.session, self.face, self).open()

    def _section(self) -> None:
        face, s = self.face, self.session.studied
        self.picture.show_face(face)
        if face is None or not face.layers or s.framed.body is None:
            self.words.setText("Weight as typed; give it layers to see them cut through." if face is not None else "")
            return
        library = library_of(self.session.facts.materials)
        words = Words(self.session.shown)
        sums = face_sums(face, s.build.shell, s.framed, library)
        text = "\n".join(layer_words(face, library, words))
        if sums.build is not None:
            sticks = f", {words.share(sums.sticks, 0)} of it sticks" if sums.sticks is not None else ""
            text += f"\n{words.m2(sums.area_m2, 2)} net of openings{sticks}; {_warm(sums.build, words)}"
        self.words.setText(text)
        self.words.setMinimumHeight(self.words.heightForWidth(max(self.words.width(), 200)))

    def refresh(self) -> None:
        if self._key() != self.face_ids:
            with focus_kept(self):
                self._make()
        assert self.faces is not None and self.made is not None and self.sources is not None and self.warmth is not None
        self.faces.refresh()
        self.sources.refresh()
        self.warmth.refresh()
        self.made.refresh()
        self.made.setVisible(bool(self.face_ids))
        self.cut.setVisible(bool(self.face_ids))
        words = Words(self.session.shown)
        layered = {face.id for face in self.session.build.shell.faces if face.layers}
        told = [f"{part.name} {words.kg(part.mass_kg)}" for part in self.session.studied.parts if part.id in layered]
        self.by_layers.setText(f"By their layers, sticks apart: {', '.join(told)}" if told else "")
        self.by_layers.setVisible(bool(told))
        typed = len(layered) < len(self.face_ids)
        self.sources.setVisible(typed)
        self.warmth.setVisible(typed)
        self._section()
        if self.columns is not None:
            self.columns.settle()
