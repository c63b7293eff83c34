"""A tank's own outline, seen from its left: pull a corner, double-click for one more, Delete takes the chosen one out."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.stow import TankPoint, Thing
from uncle_sled.core.geometry.vessel import outline_fault, vessel_of
from uncle_sled.core.units import distance, show
from uncle_sled.desk.hand import Hand
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import canvas, focus_ring, lay_paper, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

EDGE, HIGH, GRAB = 18.0, 150, 12.0
SQUARE = (TankPoint(0.0, 0.0), TankPoint(1.0, 0.0), TankPoint(1.0, 1.0), TankPoint(0.0, 1.0))
STEP = 0.01  # of a side
ARROWS = {Qt.Key.Key_Left: (-STEP, 0.0), Qt.Key.Key_Right: (STEP, 0.0), Qt.Key.Key_Up: (0.0, STEP), Qt.Key.Key_Down: (0.0, -STEP)}
Grabbed = tuple[Hand, int]


class OutlinePad(Guarded, QWidget):
    """Draws what the corners in the form say; each pull is one step that can be undone."""

    def __init__(self, session: Session, id: str) -> None:
        super().__init__()
        self.session, self.id = session, id
        self.chosen: int | None = None
        self.grabbed: Grabbed | None = None
        self.setFixedHeight(HIGH)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Outline of the tank, seen from its left")
        self.setToolTip("Pull a corner; double-click an edge for one more; Delete takes the chosen one out; arrows step it")
        session.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(220, HIGH)

    def thing(self) -> Thing | None:
        return next((t for t in self.session.build.stow.things if t.id == self.id and t.tank is not None), None)

    def corners(self) -> tuple[TankPoint, ...]:
        thing = self.thing()
        return (thing.tank.outline if thing is not None and thing.tank is not None else ()) or SQUARE

    def box(self) -> QRectF:
        """Where the tank's box lies on the widget, in its own proportions."""
        thing = self.thing()
        long, high = (thing.length.si, thing.height.si) if thing is not None else (1.0, 1.0)
        wide, tall = self.width() - 2 * EDGE, self.height() - 2 * EDGE - 8
        scale = min(wide / max(long, 1e-3), tall / max(high, 1e-3))
        size = QSize(max(round(long * scale), 8), max(round(high * scale), 8))
        return QRectF((self.width() - size.width()) / 2, EDGE, size.width(), size.height())

    def spot(self, corner: TankPoint) -> QPointF:
        box = self.box()
        return QPointF(box.left() + corner.u * box.width(), box.bottom() - corner.v * box.height())

    def share(self, at: QPointF) -> TankPoint:
        """The place under a point, held to hundredths and to the box."""
        box = self.box()
        u, v = (at.x() - box.left()) / box.width(), (box.bottom() - at.y()) / box.height()
        return TankPoint(*(round(min(max(s, 0.0), 1.0) / STEP) * STEP for s in (u, v)))

    # hands
    def _near(self, at: QPointF) -> int | None:
        far = [(self.spot(c) - at).manhattanLength() for c in self.corners()]
        best = min(range(len(far)), key=lambda k: far[k])
        return best if far[best] <= GRAB else None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.chosen = self._near(event.position())
        if self.chosen is not None and event.button() == Qt.MouseButton.LeftButton:
            self.grabbed = (self.session.take_up("Shape the tank", (self.id,)), self.chosen)
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.grabbed is not None:
            hand, at = self.grabbed
            corners = [*self.corners()]
            corners[at] = self.share(event.position())
            hand.put(self._ops(corners))

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        if self.grabbed is not None:
            self.grabbed[0].let_go()
            self.grabbed = None

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.add(event.position())

    def add(self, at: QPointF) -> None:
        """One more corner, on the edge that is nearest."""
        corners, new = [*self.corners()], self.share(at)
        spots = [self.spot(c) for c in corners]

        def detour(k: int) -> float:
            a, b = spots[k], spots[(k + 1) % len(spots)]
            return float((at - a).manhattanLength() + (b - at).manhattanLength() - (b - a).manhattanLength())

        place = min(range(len(corners)), key=detour) + 1
        corners.insert(place, new)
        self.chosen = place
        self._take(corners, None)

    def event(self, event: QEvent) -> bool:
        # with a corner chosen, Delete takes the corner and not the tank
        taken = isinstance(event, QKeyEvent) and Qt.Key(event.key()) in (Qt.Key.Key_Delete, *ARROWS)
        if event.type() == QEvent.Type.ShortcutOverride and self.chosen is not None and taken:
            event.accept()
            return True
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = ARROWS.get(Qt.Key(event.key()))
        corners = [*self.corners()]
        if self.chosen is None or self.chosen >= len(corners):
            super().keyPressEvent(event)
        elif event.key() == Qt.Key.Key_Delete and len(corners) > 3:
            del corners[self.chosen]
            self.chosen = None
            self._take(corners, None)
        elif step is not None:
            c, times = corners[self.chosen], 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            u, v = (round(min(max(s + d * times, 0.0), 1.0), 4) for s, d in ((c.u, step[0]), (c.v, step[1])))
            corners[self.chosen] = TankPoint(u, v)
            self._take(corners, f"outline-step-{self.id}")
        else:
            super().keyPressEvent(event)

    def _ops(self, corners: list[TankPoint]) -> list[Op]:
        points = [{"u": round(c.u, 4), "v": round(c.v, 4)} for c in corners]
        return [set_to(f"stow.things.{self.id}.tank.outline", points)]

    def _take(self, corners: list[TankPoint], merge: str | None) -> None:
        self.session.edit("Shape the tank", self._ops(corners), "Stow", (self.id,), merge)

    # paint
    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            lay_paper(painter, self)
            thing = self.thing()
            if thing is None or thing.tank is None:
                return
            painter.setPen(QPen(colour("pencil"), 1, Qt.PenStyle.DashLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(self.box())
            fault = outline_fault(thing.tank)
            painter.setPen(QPen(colour("primer" if fault else "ink"), 1.6))
            painter.setBrush(colour("fresh", 0.25))
            painter.drawPolygon(QPolygonF([self.spot(c) for c in self.corners()]))
            for at, corner in enumerate(self.corners()):
                spot, here = self.spot(corner), at == self.chosen
                painter.fillRect(QRectF(spot.x() - 4, spot.y() - 4, 8, 8), colour("chalk" if here else "ink"))
            vessel, shown = vessel_of(thing), self.session.shown
            says = fault or (show(vessel.volume_m3, "volume", shown.volume) if vessel is not None else "")
            write(painter, QPointF(8, self.height() - 10), "front", 11, "pencil")
            write(painter, QPointF(self.width() - 8, self.height() - 10), "rear", 11, "pencil", anchor="right")
            if self.chosen is not None and self.chosen < len(self.corners()):
                c = self.corners()[self.chosen]
                says = f"{distance(c.u * thing.length.si, shown)} aft, {distance(c.v * thing.height.si, shown)} up"
            write(painter, QPointF(self.width() / 2, self.height() - 10), says, 11, "primer" if fault else "ink", anchor="middle")
            focus_ring(painter, self)
