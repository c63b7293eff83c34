"""A drawing that fills its widget, on which one thing at a time is dragged, by hand or by a typed number."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Written, canvas, focus_ring, lay_paper, said_if_it_fails
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.gestures import TypedDrag, drag_key


class DragPaper(Guarded, QWidget):
    """Who is drawn gives ``fit``, ``draw`` and, for its gestures, ``frame``; the paper keeps the hand and the keys."""

    least_px = (220, 120)

    def __init__(self, session: Session, name: str) -> None:
        super().__init__()
        self.session = session
        self.scale = 50.0
        self.gesture: TypedDrag[Any] | None = None
        self.written: list[Written] = []
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(name)
        session.changed.connect(self._changed)
        session.selected.connect(self.update)

    def fit(self) -> None:
        """The scale at which all of it is seen, and a new picture."""
        raise NotImplementedError

    def draw(self, painter: QPainter) -> None:
        """What stands on the paper, but for the gesture over it."""
        raise NotImplementedError

    def rest_key(self, event: QKeyEvent) -> None:
        """A key while nothing is dragged."""
        QWidget.keyPressEvent(self, event)

    def sizeHint(self) -> QSize:
        return QSize(420, 220)

    def minimumSizeHint(self) -> QSize:
        return QSize(*self.least_px)

    # what a gesture asks of its view
    def hold(self, ids: tuple[str, ...]) -> None: ...

    def release(self) -> None:
        self.fit()

    def _changed(self) -> None:
        if self.gesture is None:
            self.fit()
        else:
            self.update()

    def resizeEvent(self, _event: QResizeEvent) -> None:
        self.fit()

    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            lay_paper(painter, self)
            painter.setClipRect(QRectF(1, 1, self.width() - 2, self.height() - 2))
            self.written = []
            self.draw(painter)
            if self.gesture is not None:
                self.gesture.paint(painter)
            painter.setClipping(False)
            focus_ring(painter, self)

    def pressed(self, at: QPointF) -> None:
        """The left button goes down."""
        raise NotImplementedError

    def hovered(self, event: QMouseEvent) -> None:
        """The pointer goes over the paper with nothing in hand."""

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.pressed(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.gesture is not None:
            self.gesture.moved(event.position(), event.modifiers())
        else:
            self.hovered(event)

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        if self.gesture is not None:
            done, self.gesture = self.gesture, None
            done.finished()
            self.fit()

    def event(self, event: QEvent) -> bool:
        # what is typed while dragging is a number with its unit, not the key of an action
        if event.type() == QEvent.Type.ShortcutOverride and self.gesture is not None:
            event.accept()
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.gesture is None:
            self.rest_key(event)
        else:
            drag_key(self, event)
