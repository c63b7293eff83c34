"""A stair on which the size itself is dragged: it is the body's or the thing's own, and all else follows it."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.edits import get, set_to
from uncle_sled.core.drawing.cut.stair_chart import field_of, stair_chart
from uncle_sled.core.drawing.plot import Plot
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import SledError
from uncle_sled.core.studies.cut.stairs import Stair
from uncle_sled.core.words import Words
from uncle_sled.desk.hand import Hand
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.session import Session

HOLDS_PX, ROUND_M = 9.0, 0.001


class StairSheet(Chart):
    """Drag the size along its stair; it holds at a step's edge, Ctrl: it does not. Arrows go from step to step."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Sheets over the size", self._shapes, empty=lambda: self.why)
        self.stair: Stair | None = None
        self.why = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.grabbed: tuple[Plot, Hand] | None = None

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        if self.stair is None:
            return ()
        return stair_chart(self.stair, self.size_m(self.stair), Words(self.session.shown), width, height)

    def size_m(self, stair: Stair) -> float:
        """The size as it is now."""
        try:
            return float(get(self.session.build, stair.path).si)
        except (SledError, AttributeError):
            return stair.now_m

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() != Qt.MouseButton.LeftButton or self.stair is None:
            return
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        plot = field_of(self.stair, float(self.width()), float(self.height()))
        if plot is not None:
            self.grabbed = (plot, self.session.take_up(f"Pull the {self.stair.name[:1].lower()}{self.stair.name[1:]}"))
            self._pull(event)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.grabbed is not None:
            self._pull(event)

    def _pull(self, event: QMouseEvent) -> None:
        assert self.grabbed is not None and self.stair is not None
        plot, hand = self.grabbed
        size = min(max(plot.value(event.position().x()), plot.x0), plot.x1)
        if not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            size = held(self.stair, plot, size)
        self._put(hand, size)

    def _put(self, hand: Hand, size: float) -> None:
        assert self.stair is not None
        try:
            hand.put([set_to(self.stair.path, {"si": round(size / ROUND_M) * ROUND_M, "typed": None})])
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
        self.update()

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        if self.grabbed is not None:
            (_, hand), self.grabbed = self.grabbed, None
            hand.let_go()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.grabbed is not None:
            (_, hand), self.grabbed = self.grabbed, None
            hand.give_back()
        elif event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self.grabbed is None:
            self.to_step(-1 if event.key() == Qt.Key.Key_Left else 1)
        else:
            super().keyPressEvent(event)

    def to_step(self, way: int) -> None:
        """The size goes to the next step's edge. Args: way: -1: smaller, 1: larger."""
        if self.stair is None:
            return
        now = self.size_m(self.stair)
        edges = [one.size_m for one in self.stair.steps]
        beyond = [edge for edge in edges if (edge - now) * way > 0.0015]
        if not beyond:
            self.session.said.emit(f"There is no step {'under' if way < 0 else 'over'} this size among those that were laid out.", "note")
            return
        edge = max(beyond) if way < 0 else min(beyond)
        hand = self.session.take_up(f"{self.stair.name} to its step")
        self._put(hand, edge)
        hand.let_go()


def held(stair: Stair, plot: Plot, size_m: float) -> float:
    """A size, or the edge of a step that is near enough to hold it."""
    edges = [one.size_m for one in stair.steps]
    nearest = min(edges, key=lambda edge: abs(edge - size_m), default=size_m)
    return nearest if abs(plot.x(nearest) - plot.x(size_m)) < HOLDS_PX else size_m
