"""Joints of the faces: joints, seams and screws with trim, tape and sealant; sections that are built apart; panels with the tilt of the saw."""

from __future__ import annotations

from functools import partial
from typing import Any, Literal

import msgspec

from uncle_sled.core.document.edits import add_to, fresh_id, remove, set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import SeamMade
from uncle_sled.core.drawing.cut.water_line import Row, made_words, rows_of, water_line
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell import unfolded
from uncle_sled.core.drawing.shell.screw_drawn import screw_drawn
from uncle_sled.core.studies.cut.within_faces import WithinSeam, usual_within, within_faces
from uncle_sled.core.studies.shell.bought_panels import PanelCut, joined, panels
from uncle_sled.core.studies.shell.built_sections import BuiltSection, sections_of, usual_splits
from uncle_sled.core.studies.shell.screws import ScrewJoint, screw_joints, screw_size
from uncle_sled.core.studies.shell.seams import Seam, usual_seams
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, Drawing, Listed, Own, Says, one_of
from uncle_sled.desk.kit.table import Column, Table

Mode = Literal["Seams", "Sections", "Panels", "Screws"]
LONGEST_M = 3.0
WIDE_PX = 420  # of the table of screws: where there is less, least and number are read on the drawing and in Buy


class JointsPanel(Panel):
    mode: Mode = "Seams"

    def laid(self) -> Group:
        modes: tuple[tuple[Mode, str, str], ...] = (
            ("Seams", "Seams", "Every joint, and the seams, screws and flanges within faces: how they are kept dry and tight"),
            ("Sections", "Sections", "Faces built apart, with weight, picks and the order of setting"),
            ("Panels", "Panels", "Bought panels: sizes inside and outside, tilts of the saw"),
            ("Screws", "Screws", "Of each pair of layers: how long, how long at most, how many"),
        )
        seam: tuple[Column[Row], ...] = (
            Column("Joint", lambda seam: seam.name),
            Column("Long", lambda seam: self.words.m(seam.length_m), right=True, sort=lambda seam: seam.length_m),
            Column("Made", self._made),
            Column("Bare", self._bare, right=True, tip="Of a seam of sheets: how much has no stick behind", from_px=WIDE_PX),
            Column("Water", lambda seam: "kept out" if seam.water else "gets in", ink=lambda seam: "" if seam.water else "primer"),
            Column("Air", lambda seam: "tight" if seam.air else "gets by", ink=lambda seam: "" if seam.air else "primer", from_px=WIDE_PX),
        )
        section: tuple[Column[BuiltSection], ...] = (
            Column("", lambda section: str(section.order), right=True, sort=lambda section: section.order),
            Column("Section", lambda section: section.name),
            Column("Size", lambda section: f"{self.words.m(section.size_m[0])} × {self.words.m(section.size_m[1])}", right=True),
            Column("Weighs", lambda section: self.words.kg(section.mass_kg) if section.mass_kg is not None else "not known", right=True),
            Column("Bolts", lambda section: str(section.bolts) if section.bolts else "", right=True, tip="To the section behind it"),
        )
        panel: tuple[Column[PanelCut], ...] = (
            Column("Panel", lambda panel: panel.id),
            Column("Outside", lambda panel: self._size(panel.outside_m), right=True),
            Column("Inside", lambda panel: self._size(panel.inside_m), right=True),
            Column("Weighs", lambda panel: self.words.kg(panel.mass_kg) if panel.mass_kg is not None else "not known", right=True),
            Column("Cannot be", lambda panel: self.session.told(panel.fault), ink=lambda _panel: "primer"),
        )
        screw: tuple[Column[ScrewJoint], ...] = (
            Column("Face", lambda joint: joint.face),
            Column("Joint", lambda joint: joint.name),
            Column("Take", self._screw, ink=lambda joint: "" if joint.bites else "primer"),
            Column(
                "Least", lambda joint: self.words.thick(joint.least_m), right=True, tip="The shortest that bites enough", from_px=WIDE_PX
            ),
            Column("Most", lambda joint: self.words.thick(joint.most_m), right=True, tip="The longest that stays inside"),
            Column("Screws", lambda joint: str(joint.many), right=True, sort=lambda joint: joint.many, from_px=WIDE_PX),
        )
        picked = lambda _: self.refresh()
        self.tables: dict[Mode, Table[Any]] = {
            "Seams": self.put(
                Listed[Row](
                    "Joints and seams of the faces",
                    seam,
                    lambda: rows_of(self.studied),
                    lambda seam: seam.id,
                    picked,
                    when=partial(self._is, "Seams"),
                    share=1,
                )
            ),
            "Sections": self.put(
                Listed[BuiltSection](
                    "Sections in the order of setting",
                    section,
                    lambda: sections_of(self.studied).sections,
                    lambda section: section.id,
                    picked,
                    when=partial(self._is, "Sections"),
                    share=1,
                )
            ),
            "Panels": self.put(
                Listed[PanelCut](
                    "Panels", panel, lambda: panels(self.studied), lambda panel: panel.id, picked, when=partial(self._is, "Panels"), share=1
                )
            ),
        }
        self.tables["Screws"] = self.put(
            Listed[ScrewJoint](
                "Screws by joint",
                screw,
                lambda: screw_joints(self.studied),
                lambda joint: joint.id,
                picked,
                when=partial(self._is, "Screws"),
                share=1,
            )
        )
        self.longest = self.put(Own(self._longest, wide=84, when=partial(self._is, "Sections")))
        seamed, parted = partial(self._is, "Seams"), partial(self._is, "Sections")
        return rows(
            tools(
                *one_of(modes, lambda: self.mode, self.show_mode),
                Gap(6),
                *(self._choice(field) for field in ("trim", "tape", "sealant")),
                Act("Usual seams", "What is usual on every joint that nobody said anything of", self.take_usual, when=seamed),
                self.longest,
                Act("Part the faces", "Lines at even places, moved off the openings", self.part_faces, when=parted),
                Act("Make whole", "Take the lines of the chosen face away", self.make_whole, self._parted, when=parted),
                gap=5,
            ),
            across(
                *self.tables.values(),
                Drawing("The body unfolded", self._shapes, "", "Nothing is joined yet: draw a body with its width on Profile.", share=1),
                gap=8,
                share=1,
            ),
            Says(self._told, face="small"),
            gap=5,
        )

    def _is(self, mode: Mode) -> bool:
        return self.mode == mode

    def _choice(self, name: str) -> Choice:
        """Trim, tape or sealant of the chosen joint."""
        about = field_of(SeamMade, name)
        return Choice(
            about.about.title,
            about.choices,
            partial(self.make, name),
            partial(self._stands, name),
            about.about.tip,
            8,
            when=partial(self._is, "Seams"),
            may=self._can_be_made,
        )

    def _stands(self, name: str) -> str:
        found_ = self.chosen()
        return str(getattr(found_.made or SeamMade(found_.id), name)) if isinstance(found_, Seam | WithinSeam) else ""

    def _can_be_made(self) -> bool:
        found_ = self.chosen()
        return isinstance(found_, Seam | WithinSeam) and not found_.whole

    def _parted(self) -> bool:
        found_ = self.chosen()
        return isinstance(found_, BuiltSection) and any(split.face == found_.face for split in self.session.build.shell.splits)

    def _longest(self) -> QuantityField:
        made = QuantityField(Length, "Longest section", lambda: self.session.shown)
        made.setToolTip("Faces longer than that are parted, beside their openings")
        made.show_value(Length(LONGEST_M))
        return made

    def _size(self, size: tuple[float, float]) -> str:
        return f"{self.words.cut(size[0])} × {self.words.cut(size[1])}"

    def _made(self, seam: Row) -> str:
        return self.session.told(made_words(seam))

    def _bare(self, seam: Row) -> str:
        return self.words.m(seam.bare_m) if isinstance(seam, WithinSeam) and seam.bare_m > 0 else ""

    # what is shown
    def show_mode(self, mode: Mode) -> None:
        self.mode = mode
        self.refresh()

    def chosen(self) -> Seam | WithinSeam | BuiltSection | PanelCut | None:
        made: Seam | WithinSeam | BuiltSection | PanelCut | None = self.tables[self.mode].row()
        return made

    # edits
    def make(self, field: str, value: str) -> None:
        """Trim, tape or sealant of the chosen joint."""
        seam = self.chosen()
        if not isinstance(seam, Seam | WithinSeam):
            return
        said = self.session.build.shell.seams
        made = next((x for x in said if x.id == seam.id), SeamMade(seam.id))
        new = msgspec.to_builtins(msgspec.structs.replace(made, **{field: value}))
        others = [msgspec.to_builtins(x) for x in said if x.id != seam.id]
        self.session.edit(f"{seam.name}: {value or f'no {field}'}", [set_to("shell.seams", [*others, new])], "Shell")

    def take_usual(self) -> None:
        s = self.session.studied
        made = {each.id: each for each in usual_seams(s)}
        for seam in within_faces(s.build, s.facts):
            usual = usual_within(seam)
            if usual is not None:
                made.setdefault(seam.id, usual)
        made_so = [msgspec.to_builtins(each) for each in made.values()]
        self.session.edit("Usual seams on every joint", [set_to("shell.seams", made_so)], "Shell")

    def part_faces(self) -> None:
        value = self.longest.value
        longest = value.si if isinstance(value, Length) and value.si > 0 else LONGEST_M
        wanted = usual_splits(self.session.studied, longest)
        if not wanted:
            self.session.said.emit(f"No side, roof or floor is longer than {self.words.m(longest)}.", "note")
            return
        ids: list[str] = []
        made = []
        for face, at in wanted:
            ids.append(fresh_id("sp", ids))
            made.append({"id": ids[-1], "face": face, "at": {"si": at, "typed": None}})
        self.session.edit("Part the faces", [set_to("shell.splits", made)], "Shell")

    def make_whole(self) -> None:
        found_ = self.chosen()
        if isinstance(found_, BuiltSection):
            ops = [remove(f"shell.splits.{x.id}") for x in self.session.build.shell.splits if x.face == found_.face]
            self.session.edit(f"Make the {found_.face} whole", ops, "Shell")

    def part_at(self, face: str, at_m: float) -> None:
        """One more line across a face."""
        id = fresh_id("sp", [x.id for x in self.session.build.shell.splits])
        self.session.edit(f"Part the {face}", [add_to("shell.splits", {"id": id, "face": face, "at": {"si": at_m}})], "Shell")

    # the drawing
    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, found_ = self.session.studied, self.chosen()
        id = found_.id if found_ is not None else ""
        if self.mode == "Seams":
            return water_line(s, id, width, height)
        if self.mode == "Sections":
            return unfolded.sections_drawn(s, sections_of(s), id, self.words, width, height)
        if self.mode == "Screws":
            joints = screw_joints(s)
            shown = found_ if isinstance(found_, ScrewJoint) else joints[0] if joints else None
            return screw_drawn(shown, self.words, width, height) if shown is not None else ()
        return unfolded.panels_drawn(s, panels(s), id, self.words, width, height)

    def _told(self) -> str:
        s, words = self.session.studied, self.words
        if self.mode == "Seams":
            made = rows_of(s)
            wet, drafty = [row for row in made if not row.water], [row for row in made if not row.air]
            if not made:
                return ""
            bare = sum(row.bare_m for row in made if isinstance(row, WithinSeam))
            gets_in = (
                f"Nothing keeps water out of {len(wet)}, {words.m(sum(row.length_m for row in wet))}" if wet else "Water is kept out of all"
            )
            counted = f"{len(made)} joints, seams and rows of screws. {gets_in}; air goes by {len(drafty) or 'none'}. Red: water; ochre: air; dotted: screws."
            return f"{counted} {words.m(bare)} of seams have no stick behind (dashed)." if bare > 0 else counted
        if self.mode == "Sections":
            made_of = sections_of(s)
            told = [words.told(fault) for fault in made_of.faults]
            if made_of.joints:
                told.append(
                    f"Slack of {made_of.joints} joints in a row: {words.thick(made_of.worst_m)} at worst, {words.thick(made_of.likely_m)} likely."
                )
            if made_of.true_sizes:
                told.append(
                    "Measure on the real trailer first: " + ", ".join(f"{name} {words.cut(m)}" for name, m in made_of.true_sizes) + "."
                )
            return " ".join([*told, "Triangles: where to pick it up; a qualified lifter decides."]) if made_of.sections else ""
        if self.mode == "Screws":
            return self._screws_told()
        held = joined(s)
        if held.profile_m <= 0:
            return ""
        return f"{words.m(held.profile_m)} of corner profile, {held.rivets} rivets in two rows, {words.m2(held.bond_m2)} of bond. Blue: the saw is tilted; ochre: cut back for the panel that runs over it. Test-cut a corner first."

    def _screw(self, joint: ScrewJoint) -> str:
        if joint.long_m is None:
            return "none is short enough"
        size = screw_size(joint.thick_m, joint.long_m, self.words)
        return size if joint.bites else f"{size}, bites too little"

    def _screws_told(self) -> str:
        joints = screw_joints(self.studied)
        if not joints:
            return "Nothing is screwed to sticks here: what is bonded, or not framed yet, wants no screws."
        short = sum(1 for joint in joints if not joint.bites)
        told = f"{sum(joint.many for joint in joints)} screws in {len(joints)} kinds of joint, in Buy by their lengths."
        if short:
            told += f" In {short} no length bites enough and stays inside: glue as well, or take thicker sticks."
        return f"{told} No wire or hose behind a screw: look before you drive it."
