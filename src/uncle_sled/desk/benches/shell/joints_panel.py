"""Joints of the faces: seams with trim, tape and sealant; sections that are built apart; panels with the tilt of the saw."""

from __future__ import annotations

from functools import partial
from typing import Literal

import msgspec
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import add_to, fresh_id, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import SeamMade
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell import unfolded
from uncle_sled.core.studies.shell.panels import PanelCut, joined, panels
from uncle_sled.core.studies.shell.seams import Seam, runs_over, seams, usual_seams
from uncle_sled.core.studies.shell.sections import BuiltSection, sections_of, usual_splits
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

Mode = Literal["Seams", "Sections", "Panels"]
TRIMS: list[tuple[object, str]] = [("", "no trim"), ("angle", "angle"), ("drip edge", "drip edge"), ("cap", "cap")]
TAPES: list[tuple[object, str]] = [
    ("", "no tape"),
    ("butyl", "butyl"),
    ("foam", "foam"),
    ("acrylic", "acrylic"),
    ("cloth and resin", "cloth, resin"),
]
SEALANTS: list[tuple[object, str]] = [("", "no sealant"), ("bead", "bead"), ("fillet", "fillet")]
LONGEST_M = 3.0


class JointsPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.mode: Mode = "Seams"
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(5)
        tools = QHBoxLayout()
        tools.setSpacing(5)
        group = QButtonGroup(self)
        self.modes: dict[Mode, QPushButton] = {}
        names: tuple[tuple[Mode, str], ...] = (
            ("Seams", "Every joint: how it is kept dry and tight"),
            ("Sections", "Faces built apart, with weight, picks and the order of setting"),
            ("Panels", "Bought panels: sizes inside and outside, tilts of the saw"),
        )
        for name, tip in names:
            button = act_button(name, tip, partial(self.show_mode, name), down=name == self.mode)
            group.addButton(button)
            tools.addWidget(button)
            self.modes[name] = button
        tools.addSpacing(6)
        self.trim = self._choice("Trim", TRIMS, "trim")
        self.tape = self._choice("Tape", TAPES, "tape")
        self.sealant = self._choice("Sealant", SEALANTS, "sealant")
        self.usual = act_button("Usual seams", "What is usual on every joint that nobody said anything of", self.take_usual)
        self.longest = QuantityField(Length, "Longest section", lambda: session.shown)
        self.longest.setFixedWidth(84)
        self.longest.setToolTip("Faces longer than that are parted, beside their openings")
        self.longest.show_value(Length(LONGEST_M))
        self.part = act_button("Part the faces", "Lines at even places, moved off the openings", self.part_faces)
        self.whole = act_button("Make whole", "Take the lines of the chosen face away", self.make_whole)
        for widget in (self.trim, self.tape, self.sealant, self.usual, self.longest, self.part, self.whole):
            tools.addWidget(widget)
        tools.addStretch(1)
        rows.addLayout(tools)
        across = QHBoxLayout()
        across.setSpacing(8)
        self.seam_model = TableModel[Seam](
            (
                Column("Joint", lambda one: one.name),
                Column("Long", lambda one: self._words().m(one.joint.length_m), right=True, sort=lambda one: one.joint.length_m),
                Column("Made", self._made),
                Column("Water", lambda one: "kept out" if one.water else "gets in", ink=lambda one: "" if one.water else "primer"),
                Column("Air", lambda one: "tight" if one.air else "gets by", ink=lambda one: "" if one.air else "primer"),
            )
        )
        self.section_model = TableModel[BuiltSection](
            (
                Column("", lambda one: str(one.order), right=True, sort=lambda one: one.order),
                Column("Section", lambda one: one.name),
                Column("Size", lambda one: f"{self._words().m(one.size_m[0])} × {self._words().m(one.size_m[1])}", right=True),
                Column("Weighs", lambda one: self._words().kg(one.mass_kg) if one.mass_kg is not None else "not known", right=True),
                Column("Bolts", lambda one: str(one.bolts) if one.bolts else "", right=True, tip="To the section behind it"),
            )
        )
        self.panel_model = TableModel[PanelCut](
            (
                Column("Panel", lambda one: one.id),
                Column("Outside", lambda one: self._size(one.outside_m), right=True),
                Column("Inside", lambda one: self._size(one.inside_m), right=True),
                Column("Weighs", lambda one: self._words().kg(one.mass_kg) if one.mass_kg is not None else "not known", right=True),
                Column("Cannot be", lambda one: self.session.told(one.fault), ink=lambda one: "primer"),
            )
        )
        self.tables: dict[Mode, Table] = {
            "Seams": Table(self.seam_model, "Joints of the faces"),
            "Sections": Table(self.section_model, "Sections in the order of setting"),
            "Panels": Table(self.panel_model, "Panels"),
        }
        for table in self.tables.values():
            across.addWidget(table, 1)
            table.selectionModel().selectionChanged.connect(lambda *_: self._chosen_changed())
        self.chart = Chart(session, "The body unfolded", self._shapes, "", self._why)
        across.addWidget(self.chart, 1)
        rows.addLayout(across, 1)
        self.says = label("", "small", "ink", wrap=True)
        rows.addWidget(self.says)
        self._show_mode()

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _size(self, size: tuple[float, float]) -> str:
        return f"{self._words().cut(size[0])} × {self._words().cut(size[1])}"

    def _choice(self, name: str, choices: list[tuple[object, str]], field: str) -> ChoiceField:
        made = ChoiceField(name, choices)
        made.setMinimumContentsLength(8)
        made.setToolTip(f"{name} of the chosen joint")
        made.entered.connect(lambda value, field=field: self.make(field, str(value)))
        return made

    def _made(self, one: Seam) -> str:
        if runs_over(one.joint):
            return "no joint"
        if one.made is None:
            return "not said"
        return ", ".join(part for part in (one.made.trim, one.made.tape, one.made.sealant) if part) or "nothing"

    # what is shown
    def show_mode(self, mode: Mode) -> None:
        self.mode = mode
        self.modes[mode].setChecked(True)
        self._show_mode()
        self.refresh()

    def _show_mode(self) -> None:
        for mode, table in self.tables.items():
            table.setVisible(mode == self.mode)
        for widget in (self.trim, self.tape, self.sealant, self.usual):
            widget.setVisible(self.mode == "Seams")
        for other in (self.longest, self.part, self.whole):
            other.setVisible(self.mode == "Sections")

    def chosen(self) -> Seam | BuiltSection | PanelCut | None:
        at = self.tables[self.mode].marked()
        model: TableModel[Seam] | TableModel[BuiltSection] | TableModel[PanelCut] = {
            "Seams": self.seam_model,
            "Sections": self.section_model,
            "Panels": self.panel_model,
        }[self.mode]  # type: ignore[assignment]
        return model.rows[at] if at >= 0 else None

    def _chosen_changed(self) -> None:
        one = self.chosen()
        if isinstance(one, Seam):
            made = one.made or SeamMade(one.id)
            for field, value in ((self.trim, made.trim), (self.tape, made.tape), (self.sealant, made.sealant)):
                field.show_value(value)
        can = isinstance(one, Seam) and not runs_over(one.joint)
        for field in (self.trim, self.tape, self.sealant):
            field.setEnabled(can)
        self.whole.setEnabled(isinstance(one, BuiltSection) and any(x.face == one.face for x in self.session.build.shell.splits))
        self.chart.update()

    # edits
    def make(self, field: str, value: str) -> None:
        """Trim, tape or sealant of the chosen joint."""
        one = self.chosen()
        if not isinstance(one, Seam):
            return
        said = self.session.build.shell.seams
        made = next((x for x in said if x.id == one.id), SeamMade(one.id))
        new = msgspec.to_builtins(msgspec.structs.replace(made, **{field: value}))
        others = [msgspec.to_builtins(x) for x in said if x.id != one.id]
        self.session.edit(f"{one.name}: {value or f'no {field}'}", [set_to("shell.seams", [*others, new])], "Shell")

    def take_usual(self) -> None:
        made = [msgspec.to_builtins(one) for one in usual_seams(self.session.studied)]
        self.session.edit("Usual seams on every joint", [set_to("shell.seams", made)], "Shell")

    def part_faces(self) -> None:
        value = self.longest.value
        longest = value.si if isinstance(value, Length) and value.si > 0 else LONGEST_M
        wanted = usual_splits(self.session.studied, longest)
        if not wanted:
            self.session.said.emit(f"No side, roof or floor is longer than {self._words().m(longest)}.", "note")
            return
        ids: list[str] = []
        made = []
        for face, at in wanted:
            ids.append(fresh_id("sp", ids))
            made.append({"id": ids[-1], "face": face, "at": {"si": at, "typed": None}})
        self.session.edit("Part the faces", [set_to("shell.splits", made)], "Shell")

    def make_whole(self) -> None:
        one = self.chosen()
        if isinstance(one, BuiltSection):
            ops = [remove(f"shell.splits.{x.id}") for x in self.session.build.shell.splits if x.face == one.face]
            self.session.edit(f"Make the {one.face} whole", ops, "Shell")

    def part_at(self, face: str, at_m: float) -> None:
        """One more line across a face."""
        id = fresh_id("sp", [x.id for x in self.session.build.shell.splits])
        self.session.edit(f"Part the {face}", [add_to("shell.splits", {"id": id, "face": face, "at": {"si": at_m}})], "Shell")

    # the drawing
    def _why(self) -> str:
        return "Nothing is joined yet: draw a body with its width on Profile."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, one = self.session.studied, self.chosen()
        id = one.id if one is not None else ""
        if self.mode == "Seams":
            return unfolded.seams_drawn(s, seams(s), id, width, height)
        if self.mode == "Sections":
            return unfolded.sections_drawn(s, sections_of(s), id, self._words(), width, height)
        return unfolded.panels_drawn(s, panels(s), id, self._words(), width, height)

    def refresh(self) -> None:
        s = self.session.studied
        if self.mode == "Seams":
            self.seam_model.set_rows(seams(s), lambda a, b: a.id == b.id)
        elif self.mode == "Sections":
            self.section_model.set_rows(sections_of(s).sections, lambda a, b: a.id == b.id)
        else:
            self.panel_model.set_rows(panels(s), lambda a, b: a.id == b.id)
        self.says.setText(self._told())
        self._chosen_changed()

    def _told(self) -> str:
        s, words = self.session.studied, self._words()
        if self.mode == "Seams":
            made = seams(s)
            wet, drafty = [one for one in made if not one.water], [one for one in made if not one.air]
            if not made:
                return ""
            return f"{len(made)} joints, {words.m(sum(one.joint.length_m for one in made))}. Nothing keeps water out of {len(wet)}, air goes by {len(drafty)}. Red: water; ochre: air."
        if self.mode == "Sections":
            made_of = sections_of(s)
            told = [words.told(one) for one in made_of.faults]
            if made_of.joints:
                told.append(
                    f"Slack of {made_of.joints} joints in a row: {words.thick(made_of.worst_m)} at worst, {words.thick(made_of.likely_m)} likely."
                )
            if made_of.true_sizes:
                told.append(
                    "Measure on the real trailer first: " + ", ".join(f"{name} {words.cut(m)}" for name, m in made_of.true_sizes) + "."
                )
            return " ".join([*told, "Triangles: where to pick it up; a qualified lifter decides."]) if made_of.sections else ""
        held = joined(s)
        if held.profile_m <= 0:
            return ""
        return f"{words.m(held.profile_m)} of corner profile, {held.rivets} rivets in two rows, {words.m2(held.bond_m2)} of bond. Blue: the saw is tilted; ochre: cut back for the panel that runs over it. Test-cut a corner first."
