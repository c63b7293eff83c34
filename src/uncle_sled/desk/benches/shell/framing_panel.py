"""The framing view's lower half: the school with its sizes, and each face laid flat."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QSlider

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell.rafter_drawn import rafter_words
from uncle_sled.core.drawing.shell.skeleton import near_faces, skeleton
from uncle_sled.core.framing.by_hand import add_ops, left_out
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.framing.no_sticks import WITHOUT_STICKS
from uncle_sled.core.framing.pie_cuts import KERF_M
from uncle_sled.core.framing.sandwich_panels import PANELS
from uncle_sled.core.framing.school import Sizes, sizes_for
from uncle_sled.core.parts.fillets import RADIUS_M
from uncle_sled.core.parts.panel_glue import LINE_G_M2, glued_up
from uncle_sled.core.studies.shell.bought_panels import sizes_from_panel
from uncle_sled.core.studies.shell.rafters import rafter_cuts
from uncle_sled.core.studies.shell.shell_measures import bolts
from uncle_sled.core.studies.shell.welds import CAUTION as WELD_CAUTION
from uncle_sled.core.studies.shell.welds import weld_words, welds
from uncle_sled.desk.benches.shell.flat_view import FlatView
from uncle_sled.desk.kit.fields import TypedField
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, card, rows, tools
from uncle_sled.desk.kit.parts import Act, Drawing, Fields, Own, Says, Scrolled, one_of

FACES = ("left side", "right side", "front", "rear", "roof", "floor")
STICKS = (("stick", "Stick"), ("rib", "Spar, rafter"), ("joist", "Joist"))


def _of_school(*schools: str) -> Callable[[Any], bool]:
    return lambda build: bool(build.shell.framing.school in schools)


class FramingPanel(Panel):
    kind = "left side"  # the face that is laid flat; nothing: all of them

    def laid(self) -> Group:
        faces = tuple((name, name.removesuffix(" side").capitalize(), f"Lay the {name} flat") for name in FACES)
        whole = ("", "All sticks", "All sticks in three directions; peel the faces off with the slider")
        flat, round_ = (lambda: bool(self.kind)), (lambda: not self.kind)
        self.form = self.put(Fields("", self._rows(), "Shell", 92, bare=True))
        self.flat = self.put(Own(lambda: FlatView(self.session), FlatView.fit, when=flat, share=1))
        self.solid = self.put(Drawing("All sticks in three directions", self._solid, "", "No body is drawn yet.", when=round_, share=1))
        self.peel = self.put(Own(self._peel, self._reach, when=round_))
        school = card(
            "",
            self.form,
            Says(self._told, "pencil", "small"),
            Act(
                "Take the body's sizes from the panel",
                "As long and wide as one panel, walls as high as it is wide: no wall and no roof has a joint",
                self.take_panel_sizes,
                plain=True,
                when=lambda: _of_school(PANELS.name)(self.session.build) and self.session.build.shell.form == "box",
            ),
            Act(
                "Put back what was left out",
                "Sticks that were left out by hand",
                self.put_back,
                plain=True,
                when=lambda: bool(left_out(self.session.build.shell)),
            ),
            Act(
                "Add a stick",
                "One more upright in the middle of the face that is shown; it stays through every reframing",
                self.add_stick,
                lambda: bool(self.studied.framed.members),
                plain=True,
            ),
            Gap(),
        )
        shown = rows(
            tools(*one_of((*faces, whole), lambda: self.kind, self.show_face), gap=3), self.flat, self.solid, self.peel, gap=5, share=1
        )
        return across(Scrolled(school, wide=284), shown, gap=8)

    def _rows(self) -> list[Row]:
        made = plain("shell.framing", "school pitch")
        for key, title in STICKS:
            for side, seen in (("thick", "Seen in the face"), ("deep", "Through the wall")):
                made.append(
                    Row(
                        f"shell.framing.{key}.{side}",
                        title=f"{title} {side}",
                        kind=Length,
                        tip=f"{seen}; empty: the school's own",
                        least=0.001,
                        ops=self._section(key, side),
                    )
                )
        return [
            *made,
            Row("shell.framing.tube_wall", when=_of_school("welded tube", "light steel")),
            *plain("shell.framing", "fold_tolerance saw_kerf", when=_of_school("welded tube")),
            Row("shell.framing.fillet", when=_of_school(*WITHOUT_STICKS)),
            Row("shell.framing.strip", when=_of_school("strip ribs")),
            *plain("shell.framing", "panels", when=_of_school(PANELS.name)),
            *plain("shell.framing", "glue_line_g_m2", when=lambda build: glued_up(build.shell)),
            *plain("shell.framing", "sheet_width sheet_length"),
        ]

    def take_panel_sizes(self) -> None:
        sizes = self.studied.framed.sizes
        if sizes is not None:
            self.session.edit("Sizes from the panel", list(sizes_from_panel(self.session.build.shell, sizes)), "Shell")

    def _peel(self) -> QSlider:
        made = QSlider(Qt.Orientation.Horizontal)
        made.setAccessibleName("Faces peeled off")
        made.setToolTip("How many faces are peeled off, the nearest first")
        made.setPageStep(1)
        made.valueChanged.connect(lambda _: self.solid.update())
        return made

    def _reach(self, peel: QSlider) -> None:
        """As many steps as faces are near; all of them peeled for a start."""
        near = len(near_faces(self.studied))
        if peel.maximum() != near:
            peel.setRange(0, near)
            peel.setValue(near)

    def _section(self, key: str, side: str) -> Callable[[object], list[Op]]:
        def ops(value: object) -> list[Op]:
            framing = self.session.build.shell.framing
            now = getattr(framing, key)
            if value is None:
                return [set_to(f"shell.framing.{key}", None)]
            usual = self._usual()
            pair = getattr(usual, key) if usual is not None else (0.045, 0.045)
            sides = {"thick": {"si": pair[0]}, "deep": {"si": pair[1]}}
            if now is not None:
                sides = msgspec.to_builtins(now)
            sides[side] = msgspec.to_builtins(value)
            return [set_to(f"shell.framing.{key}", sides)]

        return ops

    def _usual(self) -> Sizes | None:
        """The school's own sizes, for what was not typed."""
        build = self.session.build
        school = SCHOOLS.get(build.shell.framing.school)
        if school is None:
            return None
        return sizes_for(
            school,
            msgspec.structs.replace(build.shell.framing, pitch=None, stick=None, rib=None, joist=None, sheet_width=None, sheet_length=None),
            build.brief.region == "North American",
        )

    def _solid(self, width: float, height: float) -> tuple[Primitive, ...]:
        chosen = self.session.selection[0] if self.session.selection else ""
        return skeleton(self.session.studied, self.peel.value(), width, height, chosen)

    def show_face(self, kind: str) -> None:
        """A face laid flat; nothing: all sticks at once."""
        self.kind = kind
        if kind:
            self.flat.show_kind(kind)
        self.refresh()

    def refreshed(self) -> None:
        usual = self._usual()
        for row, _, field in self.form.rows if usual is not None else ():
            if isinstance(field, TypedField) and field.value is None and usual is not None:
                field.setPlaceholderText(self._placeholder(row.path, usual))

    def _told(self) -> str:
        s, words = self.studied, self.words
        if not s.framed.members:
            return "No sticks yet: take a school."
        says = f"{len(s.framed.members)} sticks, {words.kg(sum(m.mass_kg for m in s.framed.members))}."
        by_hand = len(s.build.shell.framing.changes)
        if by_hand:
            says += f" {by_hand} {'change' if by_hand == 1 else 'changes'} by hand kept."
        made = welds(s)
        if made is not None:
            says += f" {weld_words(made, words.m(made.run_m), words.kg(made.metal_kg))}. {WELD_CAUTION}"
        sawn = [cuts for cuts in rafter_cuts(s) if self.kind == "roof"]
        if sawn:
            says += f" {rafter_words(sawn[0], words)}"
        down = bolts(s)
        if down is not None:
            says += f" Bolted down by {down.many} of M10, {words.cut(down.pitch_m)} apart at most ({words.newtons(down.shear_n)} braking, {words.newtons(down.uplift_n)} wind). Screening only: local code and a licensed engineer decide."
        return says

    def _placeholder(self, path: str, usual: Sizes) -> str:
        *_, key, side = path.split(".")
        if side == "fillet":
            return self.words.cut(RADIUS_M)
        if side == "glue_line_g_m2":
            return self.words.of(LINE_G_M2, "g/m2", 0)
        if side == "strip":
            return "what bends"
        if key in ("stick", "rib", "joist"):
            value = getattr(usual, key)[0 if side == "thick" else 1]
        else:
            value = {
                "pitch": usual.pitch,
                "tube_wall": usual.wall,
                "fold_tolerance": usual.tolerance,
                "saw_kerf": KERF_M,
                "sheet_width": usual.sheet_width,
                "sheet_length": usual.sheet_length,
            }[side]
        return f"{Length(value).text(self.session.shown)}, usual"

    def add_stick(self) -> None:
        surfaces = self.flat.surfaces()
        if surfaces:
            left, _, right, _ = surfaces[0].polygon.bounds
            self.session.edit(
                f"Add a stick to the {surfaces[0].id}", add_ops(self.session.build.shell, surfaces[0].id, (left + right) / 2), "Shell"
            )

    def put_back(self) -> None:
        self.session.edit(
            "Put back what was left out", [remove(f"shell.framing.changes.{c.id}") for c in left_out(self.session.build.shell)], "Shell"
        )
