"""The axle's chart with the axle to be dragged, and what there is to say beside it."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.placing import axle_shift_ops
from uncle_sled.core.drawing.balance.axle_chart import axle_chart, axle_words, field_of
from uncle_sled.core.drawing.plot import Plot
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.balance.axle_conflicts import conflicts
from uncle_sled.core.studies.balance.axle_placing import axle_placing
from uncle_sled.core.words import Words
from uncle_sled.desk.hand import Hand
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.session import Session

STEP_M, NUDGE_M = 0.005, 0.01


class AxleSheet(Chart):
    """Drag the axle, or step it with the arrow keys, while it is still to be placed."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Share on the ball over the axle's place", self._shapes, empty=self._why_none)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.reads(self._read)
        self.grabbed: tuple[Plot, float, Hand] | None = None

    def field(self, width: float, height: float) -> Plot | None:
        s = self.session.studied
        if s.support is None or s.support.carrier != "ball" or not s.towing_rows:
            return None
        if self.grabbed is not None:
            return self.grabbed[0]  # the field stays put under the hand
        return field_of(s, axle_placing(s), s.support.mean_axle_m, width, height)

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, field = self.session.studied, self.field(width, height)
        if field is None or s.support is None or s.readings.total_kg[s.towing_rows].min() <= 0:
            return ()
        tried = self.session.ghost_studied
        at = tried.support.mean_axle_m if tried is not None and tried.support is not None else None
        return axle_chart(s, axle_placing(s), conflicts(s), field, Words(self.session.shown), at)

    def _read(self, x: float, _y: float, width: float, height: float) -> str:
        field = self.field(width, height)
        return axle_words(self.session.studied, field, x, Words(self.session.shown)) if field is not None else ""

    def _why_none(self) -> str:
        s = self.session.studied
        if s.build.rig.carrier == "vehicle bed":
            return "A vehicle's axles stand where they stand."
        return s.trouble or "Give the rig an axle and something to carry, and its place is drawn here."

    # hands
    def _may_move(self) -> bool:
        if self.session.build.rig.axle_place == "to be placed":
            return True
        self.session.said.emit("The axle is fixed. Say on the Rig stop that it is still to be placed, and it can be dragged.", "note")
        return False

    def mousePressEvent(self, event: QMouseEvent) -> None:
        s, field = self.session.studied, self.field(float(self.width()), float(self.height()))
        if event.button() != Qt.MouseButton.LeftButton or field is None or s.support is None:
            return
        if abs(event.position().x() - field.x(s.support.mean_axle_m)) > 24 or not self._may_move():
            return
        axles = tuple(a.id for a in s.build.rig.axles)
        self.grabbed = (field, s.support.mean_axle_m, self.session.take_up("Move the axle", axles))
        self.session.select(axles[:1])

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.grabbed is None:
            super().mouseMoveEvent(event)
            return
        field, start, hand = self.grabbed
        station = field.value(event.position().x())
        if not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            station = round(station / STEP_M) * STEP_M
        hand.put(axle_shift_ops(hand.build, station - start))

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        if self.grabbed is not None:
            self.grabbed[2].let_go()
            self.grabbed = None
            self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        if event.key() == Qt.Key.Key_Escape and self.grabbed is not None:
            self.grabbed[2].give_back()
            self.grabbed = None
        elif step is not None and self._may_move():
            times = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            build = self.session.build
            ops = axle_shift_ops(build, step * times * NUDGE_M)
            self.session.edit("Move the axle", ops, ids=tuple(a.id for a in build.rig.axles), merge="nudge-axle")
        else:
            super().keyPressEvent(event)
