"""Strip and reline: what goes off which faces and what comes in, its effect before and after, tried as a ghost."""

from __future__ import annotations

from functools import partial
from typing import Any

from PySide6.QtWidgets import QWidget

from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import CutFace, Relining, Section
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell.reline_card import reline_card
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.studies.shell.relining_effect import RelineEffect, as_bought_ops, relining_effect, relining_fault, relining_ops
from uncle_sled.core.units import INCH_M
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.panel import Gap, Group, Panel, Part, across, card, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, Drawing, Own, Says, note
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


class RelinePanel(Panel):
    follows = ("changed",)
    heap_value: Mass | None = None
    wrong = ""

    def laid(self) -> Group:
        self.faces = self.put(self._choice("Faces", FACES, "Which faces of the shell are stripped and lined again"))
        self.old = self.put(
            self._choice("Old liner was", [NOTHING, *OLD], "What comes off, by what it was; the weighed heap goes before it")
        )
        self.foam = self.put(
            self._choice("Foam between posts", [NOTHING, *FOAMS], "Between the posts; deeper than the posts only under furring")
        )
        self.liner = self.put(self._choice("New liner", [NOTHING, *LINERS], "What shows inside"))
        for choice, first in ((self.old, "light-ply"), (self.foam, "xps"), (self.liner, "birch-ply")):
            choice.show_value(first)
        furring = "Wide and deep, laid across the posts; empty: none"
        card_ = card(
            "Strip and reline",
            self._line("Faces", self.faces),
            self._line(
                "Old liner",
                self.old,
                self._size("out", "Old liner thick", "What comes off, by what it was; the weighed heap goes before it"),
            ),
            self._line("Heap weighed", self._heap()),
            self._line("Foam", self.foam, self._size("foam", "Foam thick", "Between the posts; deeper than the posts only under furring")),
            self._line("Furring", self._size("thick", "Furring wide", furring), self._size("deep", "Furring deep", furring)),
            self._line("Furring apart", self._size("pitch", "Furring apart", "Middle to middle")),
            self._line("New liner", self.liner, self._size("liner", "New liner thick", "What shows inside")),
            Says(lambda: self.wrong or self.fault(), "primer", "small", hides=True),
            tools(
                Act(
                    "Try it",
                    "Shows the lining on the drawing and in the reading; nothing changes yet",
                    self.try_it,
                    main=True,
                    when=lambda: not self._tried(),
                ),
                Act("Keep", "The faces are lined so (Ctrl+Enter)", self.session.keep, main=True, when=self._tried),
                Act(
                    "Line them so",
                    "At once, without trying it first",
                    self.line_so,
                    plain=True,
                    when=lambda: not self._tried() and not self.fault(),
                ),
                Act("Put back", "As it was (Esc)", self.session.put_back, plain=True, when=self._tried),
                Act("As bought", "Takes the lining of these faces off the record", self.as_bought, plain=True, when=self._is_lined),
            ),
            Gap(),
            gap=4,
            share=5,
        )
        return across(card_, rows(Drawing("Before and after", self._drawn, empty=self._why_none, share=1), note(CAUTION), share=6), gap=8)

    def _choice(self, name: str, choices: Choices, tip: str) -> Choice:
        return Choice(name, choices, lambda _: self._changed(), tip=tip, share=4)

    def _line(self, title: str, *parts: Part[Any] | QWidget) -> Group:
        return across(Says(title, "pencil", wide=88), *parts, gap=4)

    def _size(self, key: str, title: str, tip: str) -> Own[QuantityField]:
        def made() -> QuantityField:
            field = QuantityField(Length, title, lambda: self.session.shown)
            field.setMinimumWidth(64)
            field.explain(tip)
            field.entered.connect(partial(self._sized, key))
            field.wrong.connect(self._complain)
            return field

        return Own(made, lambda field: field.show_value(self.values[key]), share=2)

    def _heap(self) -> Own[QuantityField]:
        def made() -> QuantityField:
            field = QuantityField(Mass, "Heap weighed", lambda: self.session.shown)
            field.explain("What came off these faces, weighed; shared by their areas")
            field.entered.connect(self._heaped)
            field.wrong.connect(self._complain)
            return field

        return Own(made, lambda field: field.show_value(self.heap_value), share=1)

    def _tried(self) -> bool:
        return self.session.ghost is not None

    def _is_lined(self) -> bool:
        faces = set(self.faces.currentData() or ())
        return any(relining.face in faces for relining in self.session.build.shell.relined)

    def _sized(self, key: str, value: Length | None) -> None:
        self.values[key] = value
        self._changed()

    def __init__(self, session: Session) -> None:
        begin = {key: inches * INCH_M for key, inches in FIRST_IN.items()} if session.shown.imperial else FIRST
        self.values: dict[str, Length | None] = {key: Length(si) for key, si in begin.items()}
        super().__init__(session)

    # what was typed
    def _complain(self, says: str) -> None:
        """What is wrong with a field; what is wrong with all of them together is found anew."""
        self.wrong = says
        self.refresh()

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
        areas = {face: sum(surface.area_m2 for surface in body.of(face)) if body is not None else 0.0 for face in faces}
        whole = sum(areas.values()) or 1.0
        furring = Section(v["thick"], v["deep"]) if v["thick"] is not None and v["deep"] is not None else None
        return tuple(
            Relining(
                f"draft-{face}",
                face,
                out_mass=Mass(round(self.heap_value.si * areas[face] / whole, 4)) if self.heap_value is not None else None,
                out_material=str(self.old.currentData() or ""),
                out_thickness=v["out"] if self.old.currentData() else None,
                foam=str(self.foam.currentData() or ""),
                foam_thickness=v["foam"] if self.foam.currentData() else None,
                furring=furring,
                furring_pitch=v["pitch"] if furring is not None else None,
                liner=str(self.liner.currentData() or ""),
                liner_thickness=v["liner"] if self.liner.currentData() else None,
            )
            for face in faces
            if areas[face] > 0
        )

    def fault(self) -> str:
        """What is wrong with the fields; nothing where they can be."""
        drafts = self.drafts()
        if not drafts:
            return "There is no such face yet: take a form and its sizes on Profile."
        return self.session.told(relining_fault(self.session.studied, self.session.facts, drafts))

    def line_so(self) -> None:
        """The faces are lined as the fields say."""
        drafts = self.drafts()
        if drafts and not self.fault():
            self.session.edit("Line again", relining_ops(self.session.build.shell, drafts), "Shell")

    # what comes of it
    def effect(self) -> RelineEffect | None:
        s = self.session.studied
        return None if self.fault() else relining_effect(s, self.session.facts, self.drafts())

    def _drawn(self, width: float, height: float) -> tuple[Primitive, ...]:
        found = self.effect()
        return reline_card(found, self.words, width, height) if found is not None else ()

    def _why_none(self) -> str:
        return self.fault() or "Nothing to line."

    def try_it(self) -> None:
        if not (self.wrong or self.fault()):
            ops = tuple(relining_ops(self.session.build.shell, self.drafts()))
            self.session.try_it(Remedy(f"Reline {self.faces.currentText()}", ops, ()))
        self.refresh()

    def as_bought(self) -> None:
        ops = as_bought_ops(self.session.build.shell, self.faces.currentData() or ())
        if ops:
            self.session.put_back()
            self.session.edit(f"As bought: {self.faces.currentText()}", ops, "Shell")
        else:
            self.session.said.emit("These faces are as they were bought.", "note")
