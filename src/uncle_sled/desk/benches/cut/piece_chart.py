"""A drawing of pieces: pointing at one lights it up wherever it is drawn, a click keeps it lit."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QMouseEvent

from uncle_sled.core.drawing.pick import id_at
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.desk.kit.chart import Chart, Maker
from uncle_sled.desk.session import Session

NOT_PLACED = "Where a piece goes on the body shows here once something is cut for it."
NO_CUTS = "The cuts of a sheet stand here in their order, with fence and stop, once one is laid out."


class PieceChart(Chart):
    """``over`` and ``picked`` carry the key of the piece, or nothing."""

    over = Signal(str)
    picked = Signal(str)

    def __init__(self, session: Session, name: str, make: Maker, title: str, empty: Callable[[], str] = lambda: "") -> None:
        super().__init__(session, name, self._kept, title, empty)
        self._fresh = make
        self._shapes: tuple[tuple[float, float], tuple[Primitive, ...]] | None = None
        self.setMouseTracking(True)

    def renew(self) -> None:
        self._shapes = None
        self.update()

    def _kept(self, width: float, height: float) -> tuple[Primitive, ...]:
        if self._shapes is None or self._shapes[0] != (width, height):
            self._shapes = (width, height), self._fresh(width, height)
        return self._shapes[1]

    def key_at(self, event: QMouseEvent) -> str:
        at = event.position()
        return id_at(self.make(float(self.width()), float(self.height())), (at.x(), self.height() - at.y()))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self.over.emit(self.key_at(event))

    def leaveEvent(self, _event: QEvent) -> None:
        self.over.emit("")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.picked.emit(self.key_at(event))
