"""A sheet that paints what a function makes of its size, in points with y up."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent, QPoint, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.text_width import wrapped
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, Written, canvas, focus_ring, lay_paper, paint, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour, theme_name

Maker = Callable[[float, float], tuple[Primitive, ...]]
Reader = Callable[[float, float, float, float], str]  # place from the left and the foot, width, height


class Chart(Guarded, QWidget):
    """``make(width, height)`` gives the shapes; ``empty()`` what to say where there are none."""

    def __init__(self, session: Session, name: str, make: Maker, title: str = "", empty: Callable[[], str] = lambda: "") -> None:
        super().__init__()
        self.session, self.make, self.title, self.empty = session, make, title, empty
        self.written: list[Written] = []
        self.read: Reader | None = None  # what the pointer reads off
        self.pointed: float | None = None
        self._painted: tuple[object, tuple[Primitive, ...], QPixmap, list[Written]] | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(name)
        for signal in (session.changed, session.case_changed):
            signal.connect(self.update)

    def reads(self, read: Reader) -> Chart:
        """Let the pointer read values off: an upright line under it, and their words beside it."""
        self.read = read
        self.setMouseTracking(True)
        return self

    def renew(self) -> None:
        """Something of what it draws is another one."""
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.read is None:
            return
        at = event.position()
        says = self.read(at.x(), self.height() - at.y(), float(self.width()), float(self.height()))
        self._point(at.x() if says else None)
        if says:
            QToolTip.showText(event.globalPosition().toPoint() + QPoint(14, 10), says, self)
        else:
            QToolTip.hideText()

    def leaveEvent(self, _event: QEvent) -> None:
        self._point(None)

    def _point(self, x: float | None) -> None:
        if x != self.pointed:
            self.pointed = x
            self.update()

    def sizeHint(self) -> QSize:
        return QSize(600, 220)

    def minimumSizeHint(self) -> QSize:
        return QSize(300, 110)

    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            lay_paper(painter, self)
            self.written = []
            shapes = self.make(float(self.width()), float(self.height()))
            if not shapes:
                for at, says in enumerate(wrapped(self.session.told(self.empty()), 13, self.width() - 28)):
                    write(painter, QPointF(14, 42 + 18 * at if self.title else 22 + 18 * at), says, 13, "pencil", kept=self.written)
                if self.title:
                    write(painter, QPointF(12, 15), self.title, 13, "ink", "strong", kept=self.written)
            else:
                picture, words = self._picture(shapes)
                painter.drawPixmap(0, 0, picture)
                painter.setClipRect(QRectF(1, 1, self.width() - 2, self.height() - 2))
                self.written = list(words)
                if self.title:
                    write(painter, QPointF(12, 15), self.title, 13, "ink", "strong", kept=self.written)
                if self.pointed is not None:
                    painter.setPen(QPen(colour("pencil"), 1, Qt.PenStyle.DashLine))
                    painter.drawLine(QPointF(self.pointed, 26), QPointF(self.pointed, self.height() - 4))
            painter.setClipping(False)
            focus_ring(painter, self)

    def _picture(self, shapes: tuple[Primitive, ...]) -> tuple[QPixmap, list[Written]]:
        """The shapes, and their words, as they were painted last, while they are the same at the same size by the same light."""
        ratio = self.devicePixelRatioF()
        key = (self.size(), ratio, theme_name())
        if self._painted is None or self._painted[0] != key or self._painted[1] != shapes:
            picture = QPixmap(round(self.width() * ratio), round(self.height() * ratio))
            picture.setDevicePixelRatio(ratio)
            picture.fill(Qt.GlobalColor.transparent)
            words: list[Written] = []
            with canvas(picture) as painter:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                painter.setClipRect(QRectF(1, 1, self.width() - 2, self.height() - 2))
                paint(painter, shapes, Frame(1.0, 0.0, float(self.height())), words)
            self._painted = (key, shapes, picture, words)
        return self._painted[2:]
