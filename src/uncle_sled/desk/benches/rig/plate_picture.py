"""Which number is on the plate: everything, or what the wheels carry when it is hitched."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Written, canvas, write
from uncle_sled.desk.theme.theme import colour


class PlatePicture(Guarded, QWidget):
    """Two small trailers: an arrow under hook and wheels for the whole, one under the wheels for the axle group."""

    def __init__(self) -> None:
        super().__init__()
        self.written: list[Written] = []
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("Whole trailer is hook and wheels together; axle group is the wheels alone")

    def sizeHint(self) -> QSize:
        return QSize(200, 70)

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self.written = []
            half = self.width() / 2
            for left, words, hook in ((0.0, "whole trailer", True), (half, "axle group", False)):
                self._trailer(painter, left + half / 2 - 44, words, hook)

    def _trailer(self, painter: QPainter, x: float, words: str, hook: bool) -> None:
        painter.setPen(QPen(colour("zinc"), 2))
        painter.drawLine(QPointF(x, 34), QPointF(x + 30, 30))
        painter.setPen(QPen(colour("pencil"), 1.2))
        painter.setBrush(colour("wood"))
        painter.drawRoundedRect(QRectF(x + 26, 8, 60, 23), 6, 6)
        painter.setBrush(colour("tyre"))
        painter.drawEllipse(QPointF(x + 60, 34), 7, 7)
        painter.setPen(QPen(colour("chalk"), 2.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for at in ([x + 1] if hook else []) + [x + 60]:
            painter.drawLine(QPointF(at, 54), QPointF(at, 44))
            painter.drawLine(QPointF(at, 43), QPointF(at - 4, 47))
            painter.drawLine(QPointF(at, 43), QPointF(at + 4, 47))
        write(painter, QPointF(x + 44, 62), words, 11, "pencil", anchor="middle", kept=self.written)
