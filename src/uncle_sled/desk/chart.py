"""A sheet that paints what a function makes of its size, in points with y up."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.desk.painting import Frame, Written, focus_ring, lay_paper, paint, write
from uncle_sled.desk.session import Session

Maker = Callable[[float, float], tuple[Primitive, ...]]


class Chart(QWidget):
    """``make(width, height)`` gives the shapes; ``empty()`` what to say where there are none."""

    def __init__(
        self, session: Session, name: str, make: Maker, title: str = "", empty: Callable[[], str] = lambda: ""
    ) -> None:
        super().__init__()
        self.session, self.make, self.title, self.empty = session, make, title, empty
        self.written: list[Written] = []
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(name)
        for signal in (session.changed, session.case_changed):
            signal.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(600, 220)

    def minimumSizeHint(self) -> QSize:
        return QSize(300, 110)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        lay_paper(painter, self)
        self.written = []
        shapes = self.make(float(self.width()), float(self.height()))
        if not shapes:
            write(painter, QPointF(14, 22), self.empty(), 13, "pencil", kept=self.written)
        else:
            painter.setClipRect(QRectF(1, 1, self.width() - 2, self.height() - 2))
            paint(painter, shapes, Frame(1.0, 0.0, float(self.height())), self.written)
            if self.title:
                write(painter, QPointF(12, 15), self.title, 13, "ink", "strong", kept=self.written)
        painter.setClipping(False)
        focus_ring(painter, self)
