"""What a face is made of, layer by layer from outside in, with its section drawn; and materials of one's own."""

from __future__ import annotations

from typing import cast

import msgspec
from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QCheckBox, QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import add_to, fresh_id, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.project import OwnMaterial
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.drawing.shell.shell_views import layer_section, layer_words
from uncle_sled.core.errors import EntryError, GeometryError
from uncle_sled.core.material_words import FAMILIES, FORM_WORDS, FORMS
from uncle_sled.core.parts.face_build import face_build, library_of
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, TextField, TypedField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, Written, paint
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour
from uncle_sled.exchange.clock import today

USUAL_FRAMING = 0.15
MOST_LAYERS = 10


class SectionPicture(Guarded, QWidget):
    """A face's layers cut through, to scale."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.face: Face | None = None
        self.written: list[Written] = []
        self.setAccessibleName("Section through the layers")

    def sizeHint(self) -> QSize:
        return QSize(250, 120)

    def minimumSizeHint(self) -> QSize:
        return QSize(200, 110)

    def show_face(self, face: Face | None) -> None:
        self.face = face
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour("paper"))
        painter.drawRoundedRect(self.rect(), 5, 5)
        self.written = []
        if self.face is None or not self.face.layers:
            return
        library = library_of(self.session.facts.materials)
        thick = max(sum(layer.thickness.si for layer in self.face.layers), 0.003)
        scale = min(2400.0, (self.width() - 84) / thick)
        words = Words(self.session.shown)
        high = max(self.height() - 44.0, 40.0)
        shapes = layer_section(self.face, library, (14.0, 0.0), high, scale, words)
        paint(painter, shapes, Frame(1.0, 0.0, self.height() - 22.0), self.written)


class LayersDialog(Dialog):
    """Edits a copy; the face changes in one step when it is kept."""

    def __init__(self, session: Session, face: Face, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session, self.face = session, face
        self.layers = list(face.layers)
        self.setWindowTitle(f"What the {lower_first(face.name)} is made of")
        self.resize(820, 430)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(18, 14, 18, 14)
        middle = QHBoxLayout()
        middle.setSpacing(14)
        left = QVBoxLayout()
        left.addWidget(label("Layers from outside in", "title"))
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(6)
        self.grid.setVerticalSpacing(4)
        left.addLayout(self.grid)
        buttons = QHBoxLayout()
        self.more = QPushButton("Add a layer inside")
        self.more.clicked.connect(self.add_layer)
        own = QPushButton("New material…")
        own.setToolTip("A material of your own, with where its figures are from")
        own.clicked.connect(self.new_material)
        buttons.addWidget(self.more)
        buttons.addWidget(own)
        buttons.addStretch(1)
        left.addLayout(buttons)
        self.complaint = label("", "small", "primer", wrap=True)
        left.addWidget(self.complaint)
        left.addStretch(1)
        middle.addLayout(left, 3)
        right = QVBoxLayout()
        self.picture = SectionPicture(session)
        right.addWidget(self.picture, 1)
        self.names = label("", "small", wrap=True)
        right.addWidget(self.names)
        self.sums = label("", "", wrap=True)
        right.addWidget(self.sums)
        middle.addLayout(right, 2)
        whole.addLayout(middle, 1)
        keys = QHBoxLayout()
        keys.addWidget(label("Parallel paths flatter metal framing. Dust and resin: mask and gloves.", "small", "pencil"))
        keys.addStretch(1)
        leave = QPushButton("Leave it as it is")
        leave.clicked.connect(self.reject)
        self.keep_button = QPushButton("Keep these layers")
        self.keep_button.setProperty("kind", "main")
        self.keep_button.clicked.connect(self.keep)
        keys.addWidget(leave)
        keys.addWidget(self.keep_button)
        whole.addLayout(keys)
        self._rows()

    def _rows(self) -> None:
        while self.grid.count():
            gone = self.grid.takeAt(0)
            old = gone.widget() if gone is not None else None
            if old is not None:
                old.hide()
                old.deleteLater()
        known: list[tuple[object, str]] = sorted(
            ((m.id, Words(self.session.shown).material(m.name)) for m in library_of(self.session.facts.materials).values()),
            key=lambda pair: pair[1],
        )
        for at, layer in enumerate(self.layers):
            material = ChoiceField(f"Material of layer {at + 1}", known)
            material.setMinimumWidth(170)
            material.show_value(layer.material)
            material.entered.connect(lambda value, at=at: self._change(at, material=str(value)))
            thick = QuantityField(Length, f"Thickness of layer {at + 1}", lambda: self.session.shown, may_be_empty=False)
            thick.setFixedWidth(84)
            thick.show_value(layer.thickness)
            thick.entered.connect(lambda value, at=at: self._change(at, thickness=value))
            thick.wrong.connect(self.complaint.setText)
            sticks = QCheckBox("sticks in it")
            sticks.setChecked(layer.framing > 0)
            sticks.clicked.connect(lambda on, at=at: self._change(at, framing=USUAL_FRAMING if on else 0.0))
            up, out = QPushButton("out"), QPushButton("remove")
            up.setToolTip("One place further outside")
            up.setEnabled(at > 0)
            up.clicked.connect(lambda _=False, at=at: self._swap(at))
            out.clicked.connect(lambda _=False, at=at: self._remove(at))
            for column, widget in enumerate((label(str(at + 1), "", "pencil"), material, thick, sticks, up, out)):
                self.grid.addWidget(widget, at, column)
        self.more.setEnabled(len(self.layers) < MOST_LAYERS)
        self.refresh()

    def _change(self, at: int, **changes: object) -> None:
        self.layers[at] = msgspec.structs.replace(self.layers[at], **changes)
        self.refresh()

    def _swap(self, at: int) -> None:
        self.layers[at - 1], self.layers[at] = self.layers[at], self.layers[at - 1]
        self._rows()

    def _remove(self, at: int) -> None:
        del self.layers[at]
        self._rows()

    def add_layer(self) -> None:
        id = fresh_id("l", [layer.id for layer in self.layers])
        self.layers.append(Layer(id, "light-ply", Length(0.003)))
        self._rows()

    def new_material(self) -> None:
        OwnMaterialDialog(self.session, self).exec()
        self._rows()

    def refresh(self) -> None:
        library = library_of(self.session.facts.materials)
        words = Words(self.session.shown)
        trial = msgspec.structs.replace(self.face, layers=tuple(self.layers))
        self.picture.show_face(trial)
        self.names.setText("\n".join(layer_words(trial, library, words)))
        try:
            made = face_build(tuple(self.layers), self.face.kind, library)
        except GeometryError as fault:
            self.sums.setText(words.told(str(fault)))
            self.keep_button.setEnabled(False)
            return
        self.keep_button.setEnabled(True)
        bend = "any curve" if made.tightest_m <= 0 else words.m(made.tightest_m)
        self.sums.setText(
            f"{made.kg_m2:.1f} kg/m², {words.thick(made.thickness_m)}, {words.resistance(made.r_m2k_w)}, "
            f"U {made.u_w_m2k:.2f} W/m²K; money {made.money_m2:.0f} and {made.hours_m2:.1f} h a m²; goes round {bend}."
        )

    def keep(self) -> None:
        name = self.face.made_of if tuple(self.layers) == self.face.layers else "own layers"
        done = self.session.edit(
            f"Layers of the {lower_first(self.face.name)}",
            [
                set_to(f"shell.faces.{self.face.id}.layers", msgspec.to_builtins(tuple(self.layers))),
                set_to(f"shell.faces.{self.face.id}.made_of", name),
            ],
            "Shell",
            (self.face.id,),
        )
        if done or tuple(self.layers) == self.face.layers:
            self.accept()


class OwnMaterialDialog(Dialog):
    """A material of one's own: by density, or by weight over an area."""

    FIELDS = ("density_kg_m3", "conductivity_w_mk", "mu", "kg_m2", "r_m2k_w", "heat_j_kgk", "money_m2", "hours_m2")

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle("A material of your own")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        grid = QGridLayout()
        grid.setColumnMinimumWidth(1, 200)
        self.complaint = label("", "small", "primer", wrap=True)
        self.name, self.source = TextField("Name"), TextField("Where its figures are from", may_be_empty=True)
        self.which = ChoiceField("Which", [("", "a new one"), *((one.id, one.name) for one in session.facts.materials)])
        self.which.entered.connect(lambda value: self._show(str(value or "")))
        self.family = ChoiceField("What it is", [("", "nobody said"), *((one, one) for one in FAMILIES if one)])
        self.form = ChoiceField("Bought as", [(one, FORM_WORDS[one]) for one in FORMS])
        first: tuple[tuple[str, QWidget], ...] = (
            ("Which", self.which),
            ("Name", self.name),
            ("What it is", self.family),
            ("Bought as", self.form),
        )
        for at, (title, widget) in enumerate(first):
            grid.addWidget(label(title, "", "pencil"), at, 0)
            grid.addWidget(widget, at, 1)
        self.which.setVisible(bool(session.facts.materials))
        if not session.facts.materials and (word := grid.itemAtPosition(0, 0)) is not None:
            cast(QWidget, word.widget()).hide()
        self.numbers: dict[str, TypedField] = {}
        for at, key in enumerate(self.FIELDS, len(first)):
            field = TypedField(field_of(OwnMaterial, key), lambda: session.shown)
            field.show_value(None)
            field.wrong.connect(self.complaint.setText)
            grid.addWidget(label(field.name, "", "pencil"), at, 0)
            grid.addWidget(field, at, 1)
            self.numbers[key] = field
        self.bends = ChoiceField(
            "Bends like",
            [("", "does not bend, or always"), *((k, k) for k in ("plywood", "polycarbonate", "acrylic", "aluminium", "grp", "sandwich"))],
        )
        at = len(self.FIELDS) + len(first)
        grid.addWidget(label("Bends like", "", "pencil"), at, 0)
        grid.addWidget(self.bends, at, 1)
        grid.addWidget(label("Source", "", "pencil"), at + 1, 0)
        grid.addWidget(self.source, at + 1, 1)
        rows.addLayout(grid)
        rows.addWidget(self.complaint)
        keys = QHBoxLayout()
        keys.addStretch(1)
        leave = QPushButton("Leave it")
        leave.clicked.connect(self.reject)
        keep = QPushButton("Keep the material")
        keep.setProperty("kind", "main")
        keep.clicked.connect(self.keep)
        keys.addWidget(leave)
        keys.addWidget(keep)
        rows.addLayout(keys)

    def _show(self, id: str) -> None:
        """What is known of one of one's own; empty for a new one."""
        one = next((one for one in self.session.facts.materials if one.id == id), None)
        self.name.setText(one.name if one is not None else "")
        self.source.setText(one.source if one is not None else "")
        for key, field in self.numbers.items():
            field.show_value(getattr(one, key, None))
        for name, choice in (("bends", self.bends), ("family", self.family), ("form", self.form)):
            choice.show_value(getattr(one, name, ""))

    def keep(self) -> None:
        made: dict[str, object] = {}
        for key, field in self.numbers.items():
            try:
                value = field.about.read(field.text(), self.session.shown) if field.text().strip() else None
            except EntryError as fault:
                self.complaint.setText(str(fault))
                return
            if value is not None:
                made[key] = value
        name = self.name.text().strip()
        if not name:
            self.complaint.setText("It needs a name.")
            return
        if "density_kg_m3" not in made and "kg_m2" not in made:
            self.complaint.setText("Say its density, or its weight over an area.")
            return
        mine = {one.id: one for one in self.session.facts.materials}
        id = str(self.which.currentData() or "") or fresh_id("own", list(mine))
        record: dict[str, object] = {
            "bends": self.bends.currentData() or "",
            "family": self.family.currentData() or "",
            "form": self.form.currentData() or "",
            "source": self.source.text().strip() or "own",
            "date": today(),
            "name": name,
            **made,
        }
        if id in mine:  # what was emptied is not known any more
            record = {**{key: None for key in self.FIELDS if key != "hours_m2"}, **record}
            ops = [set_to(f"facts.materials.{id}.{key}", value) for key, value in record.items()]
        else:
            ops = [add_to("facts.materials", {"id": id, **record})]
        if self.session.edit(f"A material of one's own: {name}", ops, "Shell", (), whole_project=True):
            self.accept()
