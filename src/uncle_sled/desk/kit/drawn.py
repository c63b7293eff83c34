"""A sheet of core primitives that can be looked at and picked from, but not dragged."""

from __future__ import annotations

import msgspec
from PySide6.QtCore import QPoint, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive
from uncle_sled.core.units import weight
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, Written, canvas, focus_ring, lay_paper, paint, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour


class Pane(msgspec.Struct, frozen=True):
    """One drawing on the sheet: where it falls, what is on it, and its title."""

    frame: Frame
    room: QRectF
    shapes: tuple[Primitive, ...]
    title: str = ""


class Drawn(Guarded, QWidget):
    """Paints panes; a click picks the thing under it in every linked view."""

    def __init__(self, session: Session, name: str) -> None:
        super().__init__()
        self.session = session
        self.written: list[Written] = []
        self._panes: tuple[Pane, ...] | None = None
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(name)
        session.changed.connect(self.renew)
        session.case_changed.connect(self.renew)
        session.selected.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(800, 520)

    def minimumSizeHint(self) -> QSize:
        return QSize(320, 200)

    def make_panes(self) -> tuple[Pane, ...]:
        """What is drawn at the present size."""
        raise NotImplementedError

    def renew(self) -> None:
        self._panes = None
        self.update()

    def resizeEvent(self, _event: object) -> None:
        self._panes = None

    def panes(self) -> tuple[Pane, ...]:
        if self._panes is None:
            self._panes = self.make_panes()
        return self._panes

    # painting
    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            lay_paper(painter, self)
            self.written = []
            for pane in self.panes():
                painter.setClipRect(pane.room)
                paint(painter, pane.shapes, pane.frame, self.written, "body")
                self._mark(painter, pane)
                if pane.title:
                    at = QPointF(pane.room.left() + 10, pane.room.top() + 12)
                    write(painter, at, pane.title, 11, "pencil", kept=self.written)
            painter.setClipping(False)
            focus_ring(painter, self)

    def _mark(self, painter: QPainter, pane: Pane) -> None:
        chosen = set(self.session.selection)
        if not chosen:
            return
        painter.setPen(QPen(colour("chalk"), 2.2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for shape in pane.shapes:
            if isinstance(shape, Poly) and shape.id in chosen and shape.closed:
                painter.drawPolygon(_polygon(shape, pane.frame))

    # picking
    def thing_at(self, at: QPointF) -> str | None:
        """The topmost thing under a point."""
        things = {t.id for t in self.session.build.stow.things}
        for pane in self.panes():
            if not pane.room.contains(at):
                continue
            for shape in reversed(pane.shapes):
                if getattr(shape, "id", "") not in things:
                    continue
                if isinstance(shape, Poly) and shape.closed:
                    if _polygon(shape, pane.frame).containsPoint(at, Qt.FillRule.OddEvenFill):
                        return shape.id
                elif isinstance(shape, Circle):
                    gap = pane.frame.point(shape.centre) - at
                    if gap.manhattanLength() < max(shape.radius * pane.frame.scale, 8):
                        return shape.id
        return None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() != Qt.MouseButton.LeftButton:
            return
        id = self.thing_at(event.position())
        if id is None:
            self.session.select(())
        elif event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            chosen = self.session.selection
            self.session.select(tuple(one for one in chosen if one != id) if id in chosen else (*chosen, id))
        else:
            self.session.select((id,))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        id = self.thing_at(event.position())
        thing = next((t for t in self.session.build.stow.things if t.id == id), None)
        if thing is None:
            QToolTip.hideText()
            return
        words = f"{thing.name}, {weight(thing.mass.si, self.session.shown)}"
        QToolTip.showText(event.globalPosition().toPoint() + QPoint(12, 12), words, self)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Left and right go through the things from front to rear."""
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()))
        order = [t.id for t in sorted(self.session.build.stow.things, key=lambda t: t.x.si)]
        if step is None or not order:
            super().keyPressEvent(event)
            return
        now = next((k for k, id in enumerate(order) if id in self.session.selection), -step if step > 0 else 0)
        self.session.select((order[(now + step) % len(order)],))


def _polygon(shape: Poly, frame: Frame) -> QPolygonF:
    return QPolygonF([frame.point(p) for p in shape.points])
