"""Strip and reline: what goes off which faces and what comes in, its effect before and after, tried as a ghost."""

from __future__ import annotations

from PySide6.QtWidgets import QFrame, QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import CutFace, Relining, Section
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell.reline_card import reline_card
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.relining import why_not
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.shell.relining_effect import RelineEffect, as_bought_ops, relining_effect, relining_ops
from uncle_sled.core.units import INCH_M
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

FACES: list[tuple[object, str]] = [
    (("left side", "right side"), "both sides"),
    (("left side", "right side", "roof"), "sides and roof"),
    (("left side", "right side", "roof", "front"), "sides, roof, nose"),
    *(((name,), name) for name in ("left side", "right side", "roof", "front", "rear", "floor")),
]
NOTHING = ("", "nothing")
Choices = list[tuple[object, str]]
OLD: Choices = [
    ("light-ply", "light plywood"),
    ("softwood-ply", "softwood ply"),
    ("birch-ply", "birch plywood"),
    ("osb", "OSB"),
    ("aluminium", "aluminium"),
    ("profiled-steel", "profiled steel"),
    ("grp", "laminate"),
]
FOAMS: Choices = [
    ("xps", "XPS foam"),
    ("pir", "PIR foam"),
    ("eps", "EPS foam"),
    ("spray-closed", "spray foam"),
    ("wool", "sheep's wool"),
    ("mineral-wool", "mineral wool"),
    ("cork", "cork"),
]
LINERS: Choices = [
    ("birch-ply", "birch plywood"),
    ("light-ply", "light plywood"),
    ("softwood-ply", "softwood ply"),
    ("grp", "laminate"),
    ("aluminium", "aluminium"),
]
FIRST = {"out": 0.006, "foam": 0.025, "thick": 0.045, "deep": 0.020, "pitch": 0.40, "liner": 0.006}
FIRST_IN = {"out": 0.25, "foam": 1.0, "thick": 1.5, "deep": 0.75, "pitch": 16.0, "liner": 0.25}  # inches
CAUTION = "Old glue, wool and paint make dust: mask and gloves. Metal through foam: go by the lower warmth."


class RelinePanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        card = QFrame()
        card.setObjectName("card")
        rows = QVBoxLayout(card)
        rows.setContentsMargins(12, 8, 12, 8)
        rows.setSpacing(4)
        rows.addWidget(label("Strip and reline", "title"))
        self.faces = ChoiceField("Faces", FACES)
        self.old, self.foam, self.liner = (
            ChoiceField(title, [NOTHING, *keys])
            for title, keys in (("Old liner was", OLD), ("Foam between posts", FOAMS), ("New liner", LINERS))
        )
        shown = lambda: session.shown
        self.heap = QuantityField(Mass, "Heap weighed", shown)
        self.sizes = {
            key: QuantityField(Length, title, shown)
            for key, title in (
                ("out", "Old liner thick"),
                ("foam", "Foam thick"),
                ("thick", "Furring wide"),
                ("deep", "Furring deep"),
                ("pitch", "Furring apart"),
                ("liner", "New liner thick"),
            )
        }
        tips = {
            "Faces": "Which faces of the shell are stripped and lined again",
            "Old liner": "What comes off, by what it was; the weighed heap goes before it",
            "heap": "What came off these faces, weighed; shared by their areas",
            "Foam": "Between the posts; deeper than the posts only under furring",
            "Furring": "Wide and deep, laid across the posts; empty: none",
            "apart": "Middle to middle",
            "New liner": "What shows inside",
        }
        grid = QGridLayout()
        grid.setVerticalSpacing(4)
        grid.setColumnStretch(1, 4)
        grid.setColumnStretch(2, 2)
        grid.setColumnMinimumWidth(2, 64)
        table: tuple[tuple[str, QWidget, QWidget | None, str], ...] = (
            ("Faces", self.faces, None, tips["Faces"]),
            ("Old liner", self.old, self.sizes["out"], tips["Old liner"]),
            ("Heap weighed", self.heap, None, tips["heap"]),
            ("Foam", self.foam, self.sizes["foam"], tips["Foam"]),
            ("Furring", self.sizes["thick"], self.sizes["deep"], tips["Furring"]),
            ("Furring apart", self.sizes["pitch"], None, tips["apart"]),
            ("New liner", self.liner, self.sizes["liner"], tips["New liner"]),
        )
        for at, (title, first, second, tip) in enumerate(table):
            words = label(title, "", "pencil")
            for widget in (words, first, second):
                if isinstance(widget, QuantityField):
                    widget.explain(tip)
                elif widget is not None:
                    widget.setToolTip(tip)
            grid.addWidget(words, at, 0)
            grid.addWidget(first, at, 1, 1, 1 if second is not None else 2)
            if second is not None:
                grid.addWidget(second, at, 2)
        rows.addLayout(grid)
        self.complaint = label("", "small", "primer", wrap=True)
        rows.addWidget(self.complaint)
        keys = QHBoxLayout()
        self.try_button, self.keep_button, self.back_button, self.off_button = (
            QPushButton(text) for text in ("Try it", "Keep", "Put back", "As bought")
        )
        self.try_button.setToolTip("Shows the lining on the drawing and in the reading; nothing changes yet")
        self.keep_button.setToolTip("The faces are lined so (Ctrl+Enter)")
        self.back_button.setToolTip("As it was (Esc)")
        self.off_button.setToolTip("Takes the lining of these faces off the record")
        self.try_button.setProperty("kind", "main")
        self.keep_button.setProperty("kind", "main")
        for button, run in (
            (self.try_button, self.try_it),
            (self.keep_button, session.keep),
            (self.back_button, session.put_back),
            (self.off_button, self.as_bought),
        ):
            button.clicked.connect(lambda _=False, run=run: run())
            keys.addWidget(button)
        keys.addStretch(1)
        rows.addLayout(keys)
        rows.addStretch(1)
        self.chart = Chart(session, "Before and after", self._drawn, empty=self._why_none)
        right = QVBoxLayout()
        right.addWidget(self.chart, 1)
        right.addWidget(label(CAUTION, "small", "pencil", wrap=True))
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(card, 5)
        row.addLayout(right, 6)
        begin = {key: inches * INCH_M for key, inches in FIRST_IN.items()} if session.shown.imperial else FIRST
        self.values: dict[str, Length | None] = {key: Length(si) for key, si in begin.items()}
        self.heap_value: Mass | None = None
        self.wrong = ""
        self.old.show_value("light-ply")
        self.foam.show_value("xps")
        self.liner.show_value("birch-ply")
        for choice in (self.faces, self.old, self.foam, self.liner):
            choice.entered.connect(lambda _: self._changed())
        for key, field in self.sizes.items():
            field.entered.connect(lambda value, key=key: self._size(key, value))
            field.wrong.connect(self._complain)
        self.heap.entered.connect(self._heaped)
        self.heap.wrong.connect(self._complain)
        session.changed.connect(self.refresh)

    # what was typed
    def _complain(self, says: str) -> None:
        """What is wrong with a field, or else with all of them together."""
        self.complaint.setText(says or self.fault())

    def _size(self, key: str, value: Length | None) -> None:
        self.values[key] = value
        self._changed()

    def _heaped(self, value: Mass | None) -> None:
        self.heap_value = value
        self._changed()

    def _changed(self) -> None:
        if self.session.ghost is not None:
            self.try_it()
        self.refresh()

    def drafts(self) -> tuple[Relining, ...]:
        """What the fields say, a face each; a weighed heap is shared by their areas."""
        faces: tuple[CutFace, ...] = self.faces.currentData() or ("left side",)
        body, v = self.session.studied.framed.body, self.values
        areas = {face: sum(one.area_m2 for one in body.of(face)) if body is not None else 0.0 for face in faces}
        whole = sum(areas.values()) or 1.0
        furring = Section(v["thick"], v["deep"]) if v["thick"] is not None and v["deep"] is not None else None
        return tuple(
            Relining(
                f"draft-{face}",
                face,
                Mass(round(self.heap_value.si * areas[face] / whole, 4)) if self.heap_value is not None else None,
                str(self.old.currentData() or ""),
                v["out"] if self.old.currentData() else None,
                str(self.foam.currentData() or ""),
                v["foam"] if self.foam.currentData() else None,
                furring,
                v["pitch"] if furring is not None else None,
                str(self.liner.currentData() or ""),
                v["liner"] if self.liner.currentData() else None,
            )
            for face in faces
            if areas[face] > 0
        )

    def fault(self) -> str:
        """What is wrong with the fields; nothing where they can be."""
        s, rig = self.session.studied, self.session.build.rig
        drafts = self.drafts()
        if not drafts:
            return "There is no such face yet: take a form and its sizes on Profile."
        whole = rig.bought_total.si if rig.base == "as bought" and rig.bought_total else None
        after = study(apply(s.build, relining_ops(s.build.shell, drafts)), self.session.facts)
        for one in after.build.shell.relined:
            wrong = why_not(one, after.build.shell, after.framed, library_of(self.session.facts.materials), whole)
            if wrong:
                return self.session.told(wrong)
        return ""

    # what comes of it
    def effect(self) -> RelineEffect | None:
        s = self.session.studied
        return None if self.fault() else relining_effect(s, self.session.facts, self.drafts())

    def _drawn(self, width: float, height: float) -> tuple[Primitive, ...]:
        found = self.effect()
        return reline_card(found, Words(self.session.shown), width, height) if found is not None else ()

    def _why_none(self) -> str:
        return self.fault() or "Nothing to line."

    def try_it(self) -> None:
        wrong = self.fault()
        self._complain(wrong)
        if not wrong:
            faces = self.faces.currentText()
            ops = tuple(relining_ops(self.session.build.shell, self.drafts()))
            self.session.try_it(Remedy(f"Reline {faces}", ops, ()))

    def as_bought(self) -> None:
        ops = as_bought_ops(self.session.build.shell, self.faces.currentData() or ())
        if ops:
            self.session.put_back()
            self.session.edit(f"As bought: {self.faces.currentText()}", ops, "Shell")
        else:
            self.session.said.emit("These faces are as they were bought.", "note")

    def refresh(self) -> None:
        if not self.isVisible():
            return
        for key, field in self.sizes.items():
            field.show_value(self.values[key])
        self.heap.show_value(self.heap_value)
        self._complain(self.fault())
        tried = self.session.ghost is not None
        self.try_button.setVisible(not tried)
        self.keep_button.setVisible(tried)
        self.back_button.setVisible(tried)
        faces = set(self.faces.currentData() or ())
        self.off_button.setVisible(any(one.face in faces for one in self.session.build.shell.relined))
        self.chart.update()

    def showEvent(self, event: object) -> None:
        self.refresh()
