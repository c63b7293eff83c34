"""The framing view's lower half: the school with its sizes, and each face laid flat."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QScrollArea, QSlider, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell.skeleton import near_faces, skeleton
from uncle_sled.core.framing.by_hand import add_ops, left_out
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.framing.pie_cuts import KERF_M
from uncle_sled.core.framing.school import Sizes, sizes_for
from uncle_sled.core.studies.shell.shell_measures import bolts
from uncle_sled.core.studies.shell.welds import CAUTION as WELD_CAUTION
from uncle_sled.core.studies.shell.welds import weld_words, welds
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.flat_view import FlatView
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import QuantityField, label
from uncle_sled.desk.kit.form import Form, Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

FACES = ("left side", "right side", "front", "rear", "roof", "floor")
STICKS = (("stick", "Stick"), ("rib", "Spar, rafter"), ("joist", "Joist"))


def _of_school(school: str) -> Callable[[Any], bool]:
    return lambda build: bool(build.shell.framing.school == school)


class FramingPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        rows = plain("shell.framing", "school pitch")
        for key, title in STICKS:
            for side, word in (("thick", "thick"), ("deep", "deep")):
                rows.append(
                    Row(
                        f"shell.framing.{key}.{side}",
                        title=f"{title} {word}",
                        kind=Length,
                        tip=f"{'Seen in the face' if side == 'thick' else 'Through the wall'}; empty: the school's own",
                        least=0.001,
                        ops=self._section(key, side),
                    )
                )
        rows += [
            *plain("shell.framing", "tube_wall fold_tolerance saw_kerf", when=_of_school("welded tube")),
            Row("shell.framing.strip", when=_of_school("strip ribs")),
            *plain("shell.framing", "sheet_width sheet_length"),
        ]
        self.form = Form(session, "", rows, "Shell", label_px=92)
        self.sums = label("", "small", "pencil", wrap=True)
        self.form.whole.addWidget(self.sums)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(self.form)
        scroll.setFixedWidth(284)
        row.addWidget(scroll)
        column = QVBoxLayout()
        column.setSpacing(5)
        faces = QHBoxLayout()
        faces.setSpacing(3)
        self.group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        for name in FACES:
            button = act_button(name.removesuffix(" side").capitalize(), "", partial(self.show_face, name), down=False)
            button.setAccessibleName(f"Lay the {name} flat")
            self.group.addButton(button)
            faces.addWidget(button)
            self.buttons[name] = button
        peels = "All sticks in three directions; peel the faces off with the slider"
        self.round = act_button("Whole", peels, self.show_round, down=False)
        self.group.addButton(self.round)
        faces.addWidget(self.round)
        self.peel = QSlider(Qt.Orientation.Horizontal)
        self.peel.setAccessibleName("Faces peeled off")
        self.peel.setToolTip("How many faces are peeled off, the nearest first")
        self.peel.setPageStep(1)
        self.peel.hide()
        faces.addStretch(1)
        self.add = QPushButton("Add a stick")
        self.add.setToolTip("One more upright in the middle of the face that is shown; it stays through every reframing")
        self.add.clicked.connect(self.add_stick)
        self.restore = QPushButton("")
        self.restore.setToolTip("Put back the sticks that were left out by hand")
        self.restore.clicked.connect(self.put_back)
        self.form.whole.addWidget(self.restore)
        self.form.whole.addWidget(self.add)
        column.addLayout(faces)
        self.flat = FlatView(session)
        column.addWidget(self.flat, 1)
        self.solid = Chart(session, "All sticks in three directions", self._solid, "", lambda: "No body is drawn yet.")
        self.solid.hide()
        column.addWidget(self.solid, 1)
        self.peel.valueChanged.connect(lambda _: self.solid.update())
        column.addWidget(self.peel)
        row.addLayout(column, 1)
        self.buttons["left side"].setChecked(True)

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

    def show_round(self) -> None:
        """All sticks at once, the faces peeled off as far as the slider says."""
        self.round.setChecked(True)
        near = len(near_faces(self.session.studied))
        if self.peel.maximum() != near:
            self.peel.setRange(0, near)
            self.peel.setValue(near)
        for widget, on in ((self.flat, False), (self.solid, True), (self.peel, True)):
            widget.setVisible(on)

    def show_face(self, kind: str) -> None:
        self.buttons[kind].setChecked(True)
        for widget, on in ((self.flat, True), (self.solid, False), (self.peel, False)):
            widget.setVisible(on)
        self.flat.show_kind(kind)

    def refresh(self) -> None:
        self.form.refresh()
        usual, words = self._usual(), Words(self.session.shown)
        if usual is not None:
            for row, _, field in self.form.rows:
                if isinstance(field, QuantityField) and field.value is None:
                    field.setPlaceholderText(self._placeholder(row.path, usual))
        s = self.session.studied
        mass = sum(m.mass_kg for m in s.framed.members)
        by_hand = len(s.build.shell.framing.changes)
        says = "No sticks yet: take a school." if not s.framed.members else f"{len(s.framed.members)} sticks, {words.kg(mass)}."
        if by_hand:
            says += f" {by_hand} {'change' if by_hand == 1 else 'changes'} by hand kept."
        made = welds(s)
        if made is not None:
            says += f" {weld_words(made, words.m(made.run_m), words.kg(made.metal_kg))}. {WELD_CAUTION}"
        down = bolts(s) if s.framed.members else None
        if down is not None:
            says += f" Bolted down by {down.many} of M10, {words.cut(down.pitch_m)} apart at most ({words.newtons(down.shear_n)} braking, {words.newtons(down.uplift_n)} wind). Screening only: local code and a licensed engineer decide."
        self.sums.setText(says)
        out = left_out(s.build.shell)
        self.restore.setVisible(bool(out))
        self.restore.setText(f"Put back {len(out)} left out")
        self.add.setEnabled(bool(s.framed.members))
        self.flat.fit()
        self.solid.update()

    def _placeholder(self, path: str, usual: Sizes) -> str:
        *_, key, side = path.split(".")
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
