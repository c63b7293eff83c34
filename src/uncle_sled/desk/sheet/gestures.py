"""Mouse gestures on a sheet, each its own small class: moved, finished, cancelled."""

from __future__ import annotations

import math
from typing import Any, Generic, Protocol, TypeVar

from PySide6.QtCore import QPointF, QRect, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QPainter, QPen

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.placing import axle_shift_ops, place_ops, with_inner
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.rig.things_placed import Placed
from uncle_sled.core.errors import EntryError
from uncle_sled.core.units import distance
from uncle_sled.core.words import lower_first
from uncle_sled.desk.hand import Hand
from uncle_sled.desk.kit.painting import Frame, Written, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.snapping import snapped, snaps_for
from uncle_sled.desk.theme.theme import colour

TREMBLE_PX = 4
AXLE_STEP_M = 0.01


class Paper(Protocol):
    """What a gesture needs of the sheet it is made on."""

    session: Session
    scale: float  # px per metre
    written: list[Written]

    def frame(self, pane: str) -> Frame: ...
    def hold(self, ids: tuple[str, ...]) -> None: ...
    def release(self) -> None: ...
    def update(self) -> None: ...
    def width(self) -> int: ...
    def height(self) -> int: ...


class ThingsPaper(Paper, Protocol):
    """A sheet that things stand on and a tape is laid over."""

    tape: tuple[str, tuple[float, float], tuple[float, float]] | None

    def pan_by(self, delta: QPointF) -> None: ...
    def placed(self) -> tuple[Placed, ...]: ...
    def things_within(self, box: QRectF, pane: str) -> tuple[str, ...]: ...


P = TypeVar("P", bound=Paper)


class Gesture(Generic[P]):
    """What the mouse is doing. ``view`` is the sheet, ``pane`` the view it began in: side or plan."""

    def __init__(self, view: P, pane: str, at: QPointF) -> None:
        self.view, self.pane, self.start = view, pane, at

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None: ...
    def finished(self) -> None: ...
    def cancelled(self) -> None: ...
    def typed(self, _text: str) -> bool:
        return False

    def paint(self, painter: QPainter) -> None: ...

    def lines_px(self) -> list[QRect]:
        """Where it paints while it holds something [px]."""
        return []


class Pan(Gesture[ThingsPaper]):
    def moved(self, at: QPointF, _keys: Qt.KeyboardModifier) -> None:
        self.view.pan_by(at - self.start)
        self.start = at


class Stretch(Gesture[P]):
    """Pulled from where it began to where the pointer is ``now``."""

    def __init__(self, view: P, pane: str, at: QPointF) -> None:
        super().__init__(view, pane, at)
        self.now = at

    def moved(self, at: QPointF, _keys: Qt.KeyboardModifier) -> None:
        self.now = at
        self.view.update()


class Marquee(Stretch[ThingsPaper]):
    """A rectangle pulled over things picks them."""

    def finished(self) -> None:
        box = QRectF(self.start, self.now).normalized()
        if box.width() < 4 and box.height() < 4:
            self.view.session.select(())
        else:
            self.view.session.select(self.view.things_within(box, self.pane))
        self.view.update()

    def paint(self, painter: QPainter) -> None:
        painter.setPen(QPen(colour("chalk"), 1.2, Qt.PenStyle.DashLine))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(QRectF(self.start, self.now).normalized())


class Measure(Stretch[ThingsPaper]):
    """A tape between two points, read in the build's units; it stays until the next one."""

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if keys & Qt.KeyboardModifier.ShiftModifier:  # keep it level or plumb
            flat = abs(at.x() - self.start.x()) >= abs(at.y() - self.start.y())
            at = QPointF(at.x(), self.start.y()) if flat else QPointF(self.start.x(), at.y())
        super().moved(at, keys)

    def finished(self) -> None:
        self.view.tape = (self.pane, self.view.frame(self.pane).metres(self.start), self.view.frame(self.pane).metres(self.now))
        self.view.update()

    def paint(self, painter: QPainter) -> None:
        frame = self.view.frame(self.pane)
        paint_tape(painter, self.view, self.start, self.now, math.dist(frame.metres(self.start), frame.metres(self.now)))


def paint_tape(painter: QPainter, view: Paper, a: QPointF, b: QPointF, metres: float) -> None:
    painter.setPen(QPen(colour("primer"), 1.6))
    painter.drawLine(a, b)
    for end in (a, b):
        painter.drawLine(QPointF(end.x(), end.y() - 6), QPointF(end.x(), end.y() + 6))
    middle = (a + b) / 2
    text = distance(metres, view.session.shown) if view.session.shown.length != "mm" else f"{metres * 1000:.0f} mm"
    painter.fillRect(QRectF(middle.x() - 4 - 3.4 * len(text), middle.y() - 10, 8 + 6.8 * len(text), 20), colour("paper"))
    write(painter, middle, text, 13, "primer", "strong", "middle", view.written)


class TypedDrag(Gesture[P]):
    """A drag during which a number can be typed that places the front edge exactly."""

    typed_is = "front edge at"  # what the typed number is

    def __init__(self, view: P, pane: str, at: QPointF, hand: Hand) -> None:
        super().__init__(view, pane, at)
        self.session, self.hand = view.session, hand
        self.lines: list[tuple[str, float]] = []
        self.words = ""
        self.complaint = ""

    def place(self, si: float) -> None:
        """Put the front edge at a typed length [m]."""
        raise NotImplementedError

    def begins(self, at: QPointF) -> bool:
        """Whether the hand drags by now; a tremble does not begin a drag."""
        if not self.hand.moved and (at - self.start).manhattanLength() < TREMBLE_PX:
            return False
        self.take_along()
        return True

    def take_along(self) -> None:
        """What is in the hand is painted apart from what rests."""
        if not self.hand.moved:
            self.hand.moves()
            self.view.hold(self.hand.ids)

    def typed(self, text: str) -> bool:
        self.words = self.words[:-1] if text == "\b" else self.words + text
        self.complaint = ""
        if self.words:
            try:
                value = Length.read(self.words, self.session.shown)
                self.take_along()
                self.place(value.si)
            except EntryError:
                self.complaint = "not a length yet"
        self.view.update()
        return True

    def finished(self) -> None:
        self.view.release()
        self.hand.let_go()

    def cancelled(self) -> None:
        """Esc: everything goes back to where it was taken up, and no step is left."""
        self.hand.give_back()
        self.view.release()

    def lines_px(self) -> list[QRect]:
        made, wide, high = [], self.view.width(), self.view.height()
        for axis, line in self.lines:
            at = self.view.frame(self.pane).point((line, line))
            if axis == "x":
                made.append(QRect(math.floor(at.x()) - 1, 0, 4, high))
            else:
                made.append(QRect(0, math.floor(at.y()) - 1, wide, 4))
        return [*made, QRect(wide // 2 - 134, 4, 268, 34)] if self.words else made

    def paint(self, painter: QPainter) -> None:
        painter.setPen(QPen(colour("chalk"), 1.0, Qt.PenStyle.DashLine))
        for axis, line in self.lines:
            if axis == "x":
                x = self.view.frame(self.pane).point((line, 0)).x()
                painter.drawLine(QPointF(x, 0), QPointF(x, self.view.height()))
            else:
                y = self.view.frame(self.pane).point((0, line)).y()
                painter.drawLine(QPointF(0, y), QPointF(self.view.width(), y))
        if self.words:
            text = f"{self.typed_is} {self.words}{'  ' + self.complaint if self.complaint else ''}"
            spot = QRectF(self.view.width() / 2 - 130, 8, 260, 26)
            painter.setPen(QPen(colour("chalk"), 1.6))
            painter.setBrush(colour("field"))
            painter.drawRoundedRect(spot, 4, 4)
            write(painter, spot.center(), text, 15, "ink", "strong", "middle", self.view.written, "field")


class HasDrag(Protocol):
    """A view on which something may be dragged."""

    gesture: Any


def drag_key(view: HasDrag, event: QKeyEvent) -> bool:
    """A key during a drag: Escape gives back, Enter takes, digits and units place exactly. False: it is none of these."""
    gesture, key, text = view.gesture, event.key(), event.text()
    if key == Qt.Key.Key_Escape:
        view.gesture = None
        gesture.cancelled()
    elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
        view.gesture = None
        gesture.finished()
    elif key == Qt.Key.Key_Backspace:
        gesture.typed("\b")
    elif text and (text in "0123456789.,'\"/- " or (gesture.words and text.isalpha())):
        gesture.typed(text)
    else:
        return False
    return True


class DragThings(TypedDrag[ThingsPaper]):
    """Moves the selected things; the one under the hand snaps, a typed number places it exactly."""

    def __init__(self, view: ThingsPaper, pane: str, at: QPointF, id: str, click: str = "") -> None:
        """``click``: what is selected instead where the hand only clicked."""
        session = view.session
        self.click = click
        held = with_inner(session.build.stow, session.selection)
        self.lead, self.mode = id, session.mode
        self.first = {p.thing.id: p for p in view.placed() if p.thing.id in held}
        others = [p for p in view.placed() if p.thing.id not in held]
        self.snaps = snaps_for(session.build, session.facts, others, session.shown)
        self.lifted = False
        name = lower_first(self.first[id].thing.name) if len(self.first) == 1 else f"{len(self.first)} things"
        super().__init__(view, pane, at, session.take_up(f"Move the {name}", tuple(self.first)))

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if self.words or not self.begins(at):
            return
        scale = self.view.scale
        free = bool(keys & Qt.KeyboardModifier.ControlModifier)
        dx, up = (at.x() - self.start.x()) / scale, -(at.y() - self.start.y()) / scale
        lead = self.first[self.lead]
        self.lines = []
        x, line = (lead.x + dx, None) if free else snapped(self.snaps, "x", lead.x + dx, lead.size[0], scale)
        if line is not None:
            self.lines.append(("x", line))
        axis = "z" if self.pane == "side" else "y"
        size = lead.size[2] if axis == "z" else lead.size[1]
        low = lead.z if axis == "z" else lead.y - size / 2
        # a little tremble does not lift a thing off the floor
        self.lifted = self.lifted or abs(at.y() - self.start.y()) > 8
        across = 0.0
        if self.lifted:
            over = () if axis != "z" else self.snaps.over_m(x, lead.size[0], lead.y)
            new, line = (low + up, None) if free else snapped(self.snaps, axis, low + up, size, scale, over)
            across = new - low
            if line is not None:
                self.lines.append((axis, line))
        self._put(x - lead.x, across)

    def finished(self) -> None:
        still = not self.hand.moved
        super().finished()
        if still and self.click:
            self.session.select((self.click,))

    def _put(self, dx: float, across: float) -> None:
        # always from where it was taken up, so that a drag back to its start leaves the build as it was typed
        build = self.hand.build
        ops: list[Op] = []
        for id, p in self.first.items():
            thing = next(t for t in build.stow.things if t.id == id)
            spot = (p.x + dx, p.y + (across if self.pane == "plan" else 0.0), max(p.z + (across if self.pane == "side" else 0.0), 0.0))
            ops += place_ops(build, self.mode, thing, spot)
        self.hand.put(ops)

    def place(self, si: float) -> None:
        self.lines = [("x", si)]
        self._put(si - self.first[self.lead].x, 0.0)


class DragAxle(Gesture[Paper]):
    """Slides the whole axle group along the frame while it is not welded."""

    def __init__(self, view: Paper, pane: str, at: QPointF) -> None:
        super().__init__(view, pane, at)
        axles = view.session.build.rig.axles
        self.lead_m = axles[0].station.si
        self.hand = view.session.take_up("Move the axle", tuple(axle.id for axle in axles))

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        dx = (at.x() - self.start.x()) / self.view.scale
        if not keys & Qt.KeyboardModifier.ControlModifier:
            dx = round((self.lead_m + dx) / AXLE_STEP_M) * AXLE_STEP_M - self.lead_m
        self.hand.put(axle_shift_ops(self.hand.build, dx))

    def finished(self) -> None:
        self.hand.let_go()

    def cancelled(self) -> None:
        self.hand.give_back()
