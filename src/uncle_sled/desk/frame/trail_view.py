"""The trail: nine stops as a path drawn down the left edge, each knot with its state."""

from __future__ import annotations

import itertools

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from uncle_sled.core.trail import HOME, TRAIL
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Written, canvas, write
from uncle_sled.desk.theme.theme import colour


class Trail(Guarded, QWidget):
    """Emits the stop that was chosen. States are given by ``show_states``: words and how bad."""

    chosen = Signal(str)
    WIDE, NARROW = 132, 48

    def __init__(self) -> None:
        super().__init__()
        self.current = HOME
        self.states: dict[str, tuple[str, str]] = {}
        self.hovered = -1
        self.folded = False
        self.written: list[Written] = []
        self.setFixedWidth(self.WIDE)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # it fills all of itself
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Trail of nine stops")
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Expanding)

    def sizeHint(self) -> QSize:
        return QSize(self.WIDE, 500)

    def fold(self, folded: bool) -> None:
        self.folded = folded
        self.setFixedWidth(self.NARROW if folded else self.WIDE)
        self.update()

    def show_states(self, states: dict[str, tuple[str, str]], current: str) -> None:
        if (states, current) != (self.states, self.current):
            self.states, self.current = states, current
            self.update()

    def _pitch(self) -> float:
        return min(66.0, (self.height() - 8) / len(TRAIL))

    def stop_at(self, y: float) -> int:
        at = int((y - 4) // self._pitch())
        return at if 0 <= at < len(TRAIL) else -1

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = self.stop_at(event.position().y())
        if at != self.hovered:
            self.hovered = at
            if at >= 0:
                words, _ = self.states.get(TRAIL[at], ("", ""))
                self.setToolTip(f"{TRAIL[at]}: {words}. Ctrl+{at + 1}")
            self.update()

    def leaveEvent(self, _event: object) -> None:
        self.hovered = -1
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = self.stop_at(event.position().y())
        if at >= 0:
            self.chosen.emit(TRAIL[at])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()), 0)
        if step:
            self.chosen.emit(TRAIL[(TRAIL.index(self.current) + step) % len(TRAIL)])
        else:
            super().keyPressEvent(event)

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.fillRect(self.rect(), colour("trail"))
            self.written = []
            pitch = self._pitch()
            knots = [QPointF(24, 4 + pitch * (at + 0.5)) for at in range(len(TRAIL))]
            path = QPainterPath(knots[0])
            for at, (a, b) in enumerate(itertools.pairwise(knots)):
                lean = 7 if at % 2 else -7
                path.cubicTo(QPointF(a.x() + lean, a.y() + pitch * 0.35), QPointF(b.x() + lean, b.y() - pitch * 0.35), b)
            painter.setPen(QPen(colour("pencil"), 1.4, Qt.PenStyle.DashLine))
            painter.drawPath(path)
            for at, (stop, knot) in enumerate(zip(TRAIL, knots, strict=True)):
                words, state = self.states.get(stop, ("", "none"))
                here = stop == self.current
                ground = "trail"
                if here or at == self.hovered:
                    ground = "paper" if here else "kraft"
                    painter.setPen(Qt.PenStyle.NoPen)
                    painter.setBrush(colour(ground))
                    painter.drawRoundedRect(QRectF(6, knot.y() - pitch / 2 + 4, self.width() - 2, pitch - 8), 5, 5)
                if here:
                    painter.fillRect(QRectF(6, knot.y() - pitch / 2 + 4, 3, pitch - 8), colour("chalk"))
                if self.hasFocus() and here:
                    painter.setPen(QPen(colour("chalk"), 1.5, Qt.PenStyle.DotLine))
                    painter.setBrush(Qt.BrushStyle.NoBrush)
                    painter.drawRoundedRect(QRectF(11, knot.y() - pitch / 2 + 6, self.width() - 15, pitch - 12), 4, 4)
                knot_mark(painter, knot, state)
                if not self.folded:
                    write(painter, QPointF(42, knot.y() - 8), stop, 15, "ink", "head", "left", self.written, ground)
                    ink = {"stop": "primer", "mind": "ochre word"}.get(state, "pencil")
                    write(painter, QPointF(42, knot.y() + 9), words, 12, ink, "text", "left", self.written, ground)


def knot_mark(painter: QPainter, at: QPointF, state: str, size: float = 6.5) -> None:
    """A state by shape and colour: square stop, diamond mind, disc good, ring for nothing yet."""
    painter.setPen(QPen(colour("paper"), 1.6))
    if state == "stop":
        painter.setBrush(colour("primer"))
        painter.drawRect(QRectF(at.x() - size, at.y() - size, 2 * size, 2 * size))
    elif state == "mind":
        painter.setBrush(colour("ochre"))
        r = size * 1.25
        painter.drawPolygon(
            QPolygonF([QPointF(at.x(), at.y() - r), QPointF(at.x() + r, at.y()), QPointF(at.x(), at.y() + r), QPointF(at.x() - r, at.y())])
        )
    elif state == "good":
        painter.setBrush(colour("spruce"))
        painter.drawEllipse(at, size, size)
    else:
        painter.setPen(QPen(colour("pencil"), 1.6))
        painter.setBrush(colour("trail"))
        painter.drawEllipse(at, size, size)
