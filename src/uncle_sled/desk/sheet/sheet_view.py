"""The paper sheet: side view over plan, to scale, with the station ruler under them.

Everything that rests is painted once into a picture that is kept; a drag repaints only what
moves over it, so that the hand never waits for the paper.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any

from PySide6.QtCore import QEvent, QPoint, QPointF, QRect, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap, QPolygonF, QRegion, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.placing import place_ops
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, dimension
from uncle_sled.core.drawing.rig import rig_views
from uncle_sled.core.drawing.rig.things_placed import Placed, things_in
from uncle_sled.core.drawing.shell.inner_views import inner_view
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.drawing.stow.people import people_view, under_sleepers
from uncle_sled.core.drawing.stow.rising_drawn import rising_view
from uncle_sled.core.drawing.stow.swings import clash_view, swings_view
from uncle_sled.core.engine import Same
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.units import FOOT_M, distance, feet_inches, weight
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, Written, canvas, focus_ring, lay_paper, paint, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.gestures import DragAxle, DragThings, Gesture, Marquee, Measure, Pan, TypedDrag, drag_key, paint_tape
from uncle_sled.desk.sheet.layer import Layer, Leaf, box_px
from uncle_sled.desk.theme.theme import colour, theme_name

RULER_PX, GUTTER_PX, TOP_PX = 22, 40, 14
MEASURED = 0.42  # of the gutter: how far under the ground the line from ball to axle is
WORDS_PX = 12  # from it down to the foot of its words
LEFT_PX = 76  # room for the gauge of the Sled line under the sheet's left edge


class SheetView(Guarded, QWidget):
    """A drawing of the build. ``things`` may be dragged, ``axle`` too, as the bench allows."""

    view_changed = Signal()
    above_px = 0  # room over the drawing that a bench writes in
    below_px = 0.0  # and under it

    def __init__(self, session: Session, plan: bool = True, things: bool = False, axle: bool = False) -> None:
        super().__init__()
        self.session, self.with_plan, self.drag_things, self.drag_axle = session, plan, things, axle
        self.scale, self.x0, self.side_y, self.plan_y = 100.0, 80.0, 200.0, 400.0
        self.shows_use = things and plan  # what opens, who lies in it, what clashes
        self.people = True
        self.gesture: Gesture[Any] | None = None
        self.measuring = False
        self.tape: tuple[str, tuple[float, float], tuple[float, float]] | None = None
        self.extra: tuple[Primitive, ...] = ()  # of the bench, in the side view
        self.last_pane = "side"
        self.written: list[Written] = []
        self._layer = Layer()
        self._leaves: tuple[object, tuple[Leaf, ...]] | None = None  # what rests, and what it was drawn for
        self._held: tuple[str, ...] = ()
        self._fitted = True
        self._flashing: tuple[str, ...] = ()
        self._pointing = False  # what flashes stays until the next click
        self._placed_for: tuple[Studied, int, Mode, tuple[Placed, ...]] | None = None
        self._some_for: tuple[tuple[Studied, int, Mode, frozenset[str]], tuple[Placed, ...]] | None = None
        self._dirty = QRegion()  # what the last frame of a drag painted over
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)  # it fills all of itself
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("Drawing, left side" + (" and plan from above" if plan else ""))
        session.changed.connect(self._on_change)
        session.selected.connect(self.update)
        session.judged.connect(self.update)
        session.case_changed.connect(self._on_change)

    def sizeHint(self) -> QSize:
        return QSize(800, 540 if self.with_plan else 280)

    def minimumSizeHint(self) -> QSize:
        return QSize(360, 300 if self.with_plan else 170)

    # where things fall
    def frame(self, pane: str) -> Frame:
        return Frame(self.scale, self.x0, self.side_y if pane == "side" else self.plan_y)

    def panes(self) -> tuple[str, ...]:
        return ("side", "plan") if self.with_plan else ("side",)

    def fit(self) -> None:
        """Show all of it."""
        self._fitted = True
        build = self.session.build
        mode = self.session.mode
        top, half = rig_views.heights_m(build, mode)
        reach = min(max([rig_views.reach_m(build, mode), *self._extra_reach()]), 40.0) + 0.25
        left = self.left_m()
        wide = max(self.width() - LEFT_PX - 22, 100)
        under = self.below_px + (GUTTER_PX if self.with_plan else 12)
        high = max(self.height() - RULER_PX - TOP_PX - self.above_px - under, 60)
        all_m = top + 0.1 + (2 * half + 0.12 if self.with_plan else 0.3)
        tall = high / all_m
        if not self.with_plan:  # the measured line under the ground keeps its words over the ruler, however small a metre is
            tall = min(tall, max(high + under - self.below_px - GUTTER_PX * MEASURED - WORDS_PX, 40) / (top + 0.1))
        self.scale = max(min(wide / (reach - left), tall), 4.0)
        spare = max(wide - self.scale * (reach - left), 0)
        self.x0 = LEFT_PX - left * self.scale + spare / 2
        slack = max(high - self.scale * all_m, 0) / 2
        self.side_y = TOP_PX + self.above_px + slack + self.scale * (top + 0.1)
        self.plan_y = self.side_y + GUTTER_PX + half * self.scale
        self._moved_view()

    def left_m(self) -> float:
        """How far ahead of the ball (or a bed vehicle's front axle) is shown [m]."""
        return -0.95 if self.session.build.rig.carrier == "vehicle bed" else 0.0

    def _extra_reach(self) -> list[float]:
        return [x for shape in self.extra if isinstance(shape, Poly) for x, _ in shape.points]

    def set_extra(self, extra: tuple[Primitive, ...]) -> None:
        """Shapes of the bench in the side view."""
        if extra != self.extra:
            self.extra = extra
            if self._fitted:
                self.fit()
            self.update()

    def _moved_view(self) -> None:
        self.view_changed.emit()
        self.update()

    def pan_by(self, delta: QPointF) -> None:
        self._fitted = False
        self.x0 += delta.x()
        self.side_y += delta.y()
        self.plan_y += delta.y()
        self._moved_view()

    def zoom_at(self, at: QPointF, factor: float) -> None:
        new = min(max(self.scale * factor, 8.0), 4000.0)
        factor = new / self.scale
        self._fitted = False
        self.scale = new
        self.x0 = at.x() + (self.x0 - at.x()) * factor
        self.side_y = at.y() + (self.side_y - at.y()) * factor
        self.plan_y = at.y() + (self.plan_y - at.y()) * factor
        self._moved_view()

    def resizeEvent(self, _event: QResizeEvent) -> None:
        if self._fitted:
            self.fit()
        else:
            self._moved_view()

    def pane_at(self, at: QPointF) -> str:
        if not self.with_plan:
            return "side"
        return "side" if at.y() < self.side_y + GUTTER_PX / 2 else "plan"

    def placed(self) -> tuple[Placed, ...]:
        studied, row, mode = self.session.studied, self.session.row, self.session.mode
        kept = self._placed_for
        if kept is None or kept[0] is not studied or kept[1] != row or kept[2] is not mode:
            made = things_in(studied, row, mode) if studied.table.cases else ()
            self._placed_for = kept = (studied, row, mode, made)
        return kept[3]

    def placed_of(self, ids: set[str]) -> tuple[Placed, ...]:
        """Some of them: a frame of a drag needs no more."""
        key = (self.session.studied, self.session.row, self.session.mode, frozenset(ids))
        kept = self._some_for
        if kept is None or kept[0][0] is not key[0] or kept[0][2] is not key[2] or kept[0][1::2] != key[1::2]:
            made = things_in(key[0], key[1], key[2], key[3]) if key[0].table.cases else ()
            self._some_for = kept = (key, made)
        return kept[1]

    def _over(self) -> QRegion:
        """Where a held drag paints over what rests: boxes and frames, marks of clashes, snap lines, typed words."""
        session, chosen = self.session, set(self.session.selection) | set(self._held)
        region = QRegion()
        for p in self.placed_of(chosen):
            for pane in self.panes():
                region += self.box_of(p, pane).adjusted(-6, -6, 6, 6).toAlignedRect()
        if self.shows_use:
            for pane in self.panes():
                frame = self.frame(pane)
                for shape in clash_view(session.build, session.facts, session.mode, pane):
                    if isinstance(shape, Poly):
                        box = QPolygonF([frame.point(p) for p in shape.points]).boundingRect()
                        region += box.adjusted(-3, -3, 3, 3).toAlignedRect()
        if self.gesture is not None:
            for line in self.gesture.lines_px():
                region += line
        return region

    def thing_at(self, at: QPointF, among: tuple[str, ...] | None = None) -> str | None:
        """The topmost thing under a point, of all or only some; small ones lie over big ones."""
        pane = self.pane_at(at)
        x, up = self.frame(pane).metres(at)
        reach = 5 / self.scale
        found: list[tuple[float, str]] = []
        for p in self.placed():
            if among is not None and p.thing.id not in among:
                continue
            low, high = (p.z, p.z + p.size[2]) if pane == "side" else (p.y - p.size[1] / 2, p.y + p.size[1] / 2)
            if p.x - reach <= x <= p.x + p.size[0] + reach and low - reach <= up <= high + reach:
                found.append((p.size[0] * (high - low), p.thing.id))
        return min(found)[1] if found else None

    def things_within(self, box: QRectF, pane: str) -> tuple[str, ...]:
        return tuple(p.thing.id for p in self.placed() if box.intersects(self.box_of(p, pane)))

    def box_of(self, p: Placed, pane: str) -> QRectF:
        frame = self.frame(pane)
        low, high = (p.z, p.z + p.size[2]) if pane == "side" else (p.y - p.size[1] / 2, p.y + p.size[1] / 2)
        return QRectF(frame.point((p.x, high)), frame.point((p.x + p.size[0], low)))

    def _axle_at(self, at: QPointF) -> bool:
        rig = self.session.build.rig
        if rig.carrier != "ball":
            return False
        wheel = wheel_radius_m(rig)
        x, z = self.frame("side").metres(at)
        return self.pane_at(at) == "side" and any(math.hypot(x - a.station.si, z - wheel) <= max(wheel, 14 / self.scale) for a in rig.axles)

    # holding things while they are dragged
    def hold(self, ids: tuple[str, ...]) -> None:
        self._held = ids
        self._dirty = QRegion(self.rect())  # the first frame makes its picture anew

    def release(self) -> None:
        self._held = ()
        self.update()

    def _on_change(self) -> None:
        if self._held and self.session.ghost is None and self.tape is None and not self._flashing:
            before, self._dirty = self._dirty, self._over()
            self.update(before + self._dirty)
            return
        if not self._held and self._fitted and self.gesture is None:
            self.fit()
        self.update()

    def flash(self, ids: tuple[str, ...]) -> None:
        """Point at things for a moment."""
        self._flashing, self._pointing = ids, False
        self.update()
        QTimer.singleShot(900, self, self._flashed)

    def point(self, ids: tuple[str, ...]) -> None:
        """Point at what is drawn until the next click."""
        self._flashing, self._pointing = ids, bool(ids)
        self.update()

    def _flashed(self) -> None:
        if not self._pointing:
            self._flashing = ()
            self.update()

    # mouse and keys
    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._pointing:
            self.point(())
        self.last_pane = pane = self.pane_at(at)
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        if event.button() == Qt.MouseButton.MiddleButton or (event.button() == Qt.MouseButton.LeftButton and self._space):
            self.gesture = Pan(self, pane, at)
            return
        if event.button() != Qt.MouseButton.LeftButton:
            return
        if self.measuring:
            self.gesture = Measure(self, pane, at)
            return
        self.tape = None
        id = self.thing_at(at)
        if id is not None:
            more = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            chosen = self.session.selection
            if more:
                self.session.select(tuple(one for one in chosen if one != id) if id in chosen else (*chosen, id))
            elif self.drag_things and (held := self.thing_at(at, chosen)) is not None:
                # what is selected keeps the drag; a click alone takes what lies over it
                self.gesture = DragThings(self, pane, at, held, click=id)
                return
            else:
                self.session.select((id,))
            if self.drag_things and id in self.session.selection:
                self.gesture = DragThings(self, pane, at, id)
        elif self._axle_at(at):
            axles = tuple(a.id for a in self.session.build.rig.axles)
            self.session.select(axles[:1])
            if self.drag_axle and self.session.build.rig.axle_place == "to be placed":
                self.gesture = DragAxle(self, pane, at)
            elif self.drag_axle:
                self.session.said.emit(
                    "The axle is fixed. Say on the Rig stop that it is still to be placed, and it can be dragged.", "note"
                )
        else:
            self.gesture = Marquee(self, pane, at)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.gesture is not None:
            self.gesture.moved(event.position(), event.modifiers())
            return
        id = self.thing_at(event.position())
        self.setCursor(
            Qt.CursorShape.CrossCursor
            if self.measuring
            else Qt.CursorShape.SizeAllCursor
            if id and self.drag_things
            else Qt.CursorShape.ArrowCursor
        )
        if id:
            p = next(p for p in self.placed() if p.thing.id == id)
            QToolTip.showText(
                event.globalPosition().toPoint() + QPoint(12, 12), f"{p.thing.name}, {weight(p.mass_kg, self.session.shown)}", self
            )
        else:
            QToolTip.hideText()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self.gesture is not None and event.button() in (Qt.MouseButton.LeftButton, Qt.MouseButton.MiddleButton):
            done, self.gesture = self.gesture, None
            done.finished()

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.zoom_at(event.position(), 1.0015 ** event.angleDelta().y())

    def event(self, event: QEvent) -> bool:
        # what is typed while dragging is a number with its unit, not the key of an action
        if event.type() == QEvent.Type.ShortcutOverride and isinstance(self.gesture, TypedDrag):
            event.accept()
            return True
        return super().event(event)

    _space = False

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Space and not event.isAutoRepeat():
            self._space = False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if isinstance(self.gesture, TypedDrag) and drag_key(self, event):
            return
        arrows = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}
        if key == Qt.Key.Key_Space:
            self._space = True
        elif key in arrows and self.session.selection and self.drag_things:
            times = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            self.nudge(*(step * times for step in arrows[Qt.Key(key)]))
        elif key == Qt.Key.Key_Escape and (self.tape or self.measuring or self.session.selection) and self.session.ghost is None:
            self.tape, self.measuring = None, False
            self.session.select(())
            self.update()
        else:
            super().keyPressEvent(event)

    def nudge(self, along: int, across: int) -> None:
        """Arrow keys: 10 mm or half an inch; up and down is height in the side view, sideways in the plan."""
        session = self.session
        by = session.shown.step_m
        ops: list[Op] = []
        mode = session.mode
        for p in self.placed():
            if p.thing.id in session.selection:
                spot = (
                    p.x + along * by,
                    p.y + (across * by if self.last_pane == "plan" else 0.0),
                    p.z + (across * by if self.last_pane == "side" else 0.0),
                )
                ops += place_ops(session.build, mode, p.thing, spot)
        if ops:
            session.edit(
                "Nudge " + (f"{len(session.selection)} things" if len(session.selection) > 1 else "a thing"),
                ops,
                ids=session.selection,
                merge=f"nudge-{'-'.join(session.selection)}",
            )

    leave: Callable[[bool], bool] | None = None  # where Tab goes from the drawing

    def focusNextPrevChild(self, forward: bool) -> bool:
        return (self.leave is not None and self.leave(forward)) or super().focusNextPrevChild(forward)

    # paint
    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.drawPixmap(0, 0, self._rested())
            if self._layer.unfinished:
                QTimer.singleShot(0, self, self.update)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            self.written = list(self._layer.written)
            clip = QRectF(1, 1, self.width() - 2, self.height() - RULER_PX - 1)
            painter.setClipRect(clip)
            if self._held:
                held = [p for p in self.placed_of(set(self.session.selection) | set(self._held)) if p.thing.id in self._held]
                for pane in self.panes():
                    for p in held:
                        paint(painter, rig_views.thing_shapes(p, pane), self.frame(pane), None, "body")
                        paint(
                            painter,
                            rig_views.thing_label(p, pane, self.scale, weight(p.mass_kg, self.session.shown)),
                            self.frame(pane),
                            None,
                            "body",
                        )
            if self.shows_use and not self.session.reading_first:
                self._paint_clashes(painter)
            self._paint_selection(painter)
            self._paint_ghost(painter)
            if self.tape:
                frame = self.frame(self.tape[0])
                paint_tape(painter, self, frame.point(self.tape[1]), frame.point(self.tape[2]), math.dist(self.tape[1], self.tape[2]))
            if self.gesture is not None:
                self.gesture.paint(painter)
            painter.setClipping(False)
            focus_ring(painter, self)

    def _rested(self) -> QPixmap:
        """What rests, with whatever changed of it painted anew."""
        drawn_for = (
            Same(self.session.studied if not self._held else None),
            self.session.row,
            self._held,
            self.extra,
            self.people,
            Same(self.session.mode),
            self.size(),
            tuple(self.frame(pane) for pane in self.panes()),
            self._shown(),
        )
        if self._leaves is None or self._leaves[0] != drawn_for:
            self._leaves = (drawn_for, tuple(self.leaves()))
        room = QRect(1, 1, self.width() - 2, self.height() - RULER_PX - 1)
        return self._layer.show(
            (theme_name(), tuple(self.frame(pane) for pane in self.panes())),
            self.size(),
            self.devicePixelRatioF(),
            room,
            self._leaves[1],
            self._ground,
            self._ruler,
        )

    def _shown(self) -> object:
        """Whatever else the leaves depend on."""
        return self.session.shown

    def _ground(self, painter: QPainter) -> None:
        painter.fillRect(self.rect(), colour("kraft"))
        lay_paper(painter, self)
        painter.setClipRect(QRect(1, 1, self.width() - 2, self.height() - RULER_PX - 1), Qt.ClipOperation.IntersectClip)
        self._grid(painter)

    def leaves(self) -> Iterator[Leaf]:
        """What rests of the drawing, in the order it lies."""
        s, row, build = self.session.studied, self.session.row, self.session.build
        things: Sequence[Placed] = self.placed()
        if self._held:
            things = [p for p in things if p.thing.id not in self._held]
        rigs = {
            "side": (*rig_views.side_rig(build), *rig_views.side_body(build)),
            "plan": (*rig_views.plan_rig(build), *rig_views.plan_wheels(build), *rig_views.plan_body(build)),
        }
        named: set[str] = set()
        labels = {pane: rig_views.Labels([], named, self._room(pane)) for pane in self.panes()}
        if self.with_plan:  # the measured line under the ground keeps its words
            low, high = (-GUTTER_PX * share / self.scale for share in (0.72, 0.1))
            for pane in self.panes():
                up = [self.frame(pane).metres(self.frame("side").point((0.0, y)))[1] for y in (low, high)]
                labels[pane].taken.append((-1.0, up[0], length_m(build) + 1.0, up[1]))
        for pane in self.panes():
            frame = self.frame(pane)
            yield Leaf(rigs[pane], frame)
            if self.drag_things:
                yield Leaf((*openings_seen(s, pane), *inner_view(s, pane, named=False)), frame, told=False)
            aboard = rig_views.things_view(s, row, pane, self.scale, things, labels[pane], self._under(pane))
            yield Leaf(aboard, frame, "body")
            if self.shows_use:
                yield Leaf(rig_views.clear_of(self._in_use(pane), labels[pane], self.scale), frame, "body")
        yield Leaf(rig_views.side_wheels(build), self.frame("side"), told=False)
        if self.with_plan:  # a name in one of the views is enough
            for pane in self.panes():
                beside = rig_views.names_beside(s, pane, self.scale, things, labels[pane])
                yield Leaf(beside, self.frame(pane), "body")
        yield Leaf(self.extra, self.frame("side"))
        if self.with_plan:
            half, plan = rig_views.heights_m(build, self.session.mode)[1], self.frame("plan")
            sides = ((half - 8 / self.scale, "right"), (8 / self.scale - half, "left"))
            x = plan.metres(QPointF(12, 0))[0]
            yield Leaf(tuple([Text((x, y), word, 11.0, "pencil", anchor="left") for y, word in sides]), plan)
        yield Leaf(self._ball_to_axle(), self.frame("side"))

    def _under(self, pane: str) -> frozenset[str]:
        """What lies under those who sleep."""
        if not (self.shows_use and self.people and pane == "plan"):
            return frozenset()
        return under_sleepers(self.session.build, self.session.facts, self.session.mode)

    def _in_use(self, pane: str) -> tuple[Primitive, ...]:
        """What opens in this mode, and who lies, sits and stands in it."""
        build, facts, mode = self.session.build, self.session.facts, self.session.mode
        return (
            *rising_view(build, facts, mode, pane),
            *swings_view(build, facts, mode, pane),
            *(people_view(build, facts, mode, pane) if self.people else ()),
        )

    def _paint_clashes(self, painter: QPainter) -> None:
        """Follows the hand: what stands in what, at this moment."""
        for pane in self.panes():
            shapes = clash_view(self.session.build, self.session.facts, self.session.mode, pane)
            paint(painter, shapes, self.frame(pane), None, "body")

    def _room(self, pane: str) -> tuple[float, float, float, float]:
        left, high = self.frame(pane).metres(QPointF(6, 6))
        right, low = self.frame(pane).metres(QPointF(self.width() - 6, self.height() - RULER_PX - 2))
        return left, low, right, high

    def _ball_to_axle(self) -> tuple[Primitive, ...]:
        support = self.session.studied.support
        if support is None:
            return ()
        bed = support.carrier == "vehicle bed"
        to = support.axles_m[1] if bed else support.mean_axle_m
        words = f"{'wheelbase' if bed else 'ball to axle' if len(support.axles_m) == 1 else 'ball to middle of axles'} {distance(to, self.session.shown)}"
        low = -GUTTER_PX * MEASURED / self.scale
        return dimension((0.0, low), (to, low), words, 4 / self.scale)

    def _grid(self, painter: QPainter) -> None:
        painter.setPen(QPen(colour("rule", 0.45), 1))
        for x, major in self._ticks():
            if major:
                painter.drawLine(QPointF(x, TOP_PX), QPointF(x, self.height() - RULER_PX))

    def _ticks(self) -> list[tuple[float, bool]]:
        imperial = self.session.shown.imperial
        unit = FOOT_M if imperial else 0.5
        while unit * self.scale < 44:
            unit *= 2
        fine = unit / (4 if imperial else 5)
        first = math.ceil((0 - self.x0) / self.scale / fine)
        last = math.floor((self.width() - self.x0) / self.scale / fine)
        per = 4 if imperial else 5
        return [(self.x0 + at * fine * self.scale, at % per == 0) for at in range(first, last + 1)][:2000]

    def _ruler(self, painter: QPainter, written: list[Written]) -> None:
        painter.setClipRect(QRectF(1, 1, self.width() - 2, self.height() - 2))
        top = self.height() - RULER_PX
        painter.fillRect(QRectF(1, top, self.width() - 2, RULER_PX - 1), colour("kraft", 0.5))
        painter.setPen(QPen(colour("rule"), 1))
        painter.drawLine(QPointF(1, top), QPointF(self.width() - 1, top))
        imperial = self.session.shown.imperial
        from_what = "from front axle" if self.session.build.rig.carrier == "vehicle bed" else "from ball"
        title = write(painter, QPointF(8, top + 12), f"{'ft' if imperial else 'm'} {from_what}", 11, "pencil", kept=written)
        for x, major in self._ticks():
            painter.setPen(QPen(colour("pencil"), 1))
            painter.drawLine(QPointF(x, top), QPointF(x, top + (7 if major else 4)))
            if major and x > title.right() + 14 and x < self.width() - 18:
                metres = (x - self.x0) / self.scale
                words = feet_inches(metres, 1) if imperial else f"{metres:.1f}".replace("-", "−")
                write(painter, QPointF(x, top + 14), words, 11, "pencil", anchor="middle", kept=written)

    def _paint_selection(self, painter: QPainter) -> None:
        chosen = set(self.session.selection) | set(self._flashing)
        if not chosen:
            return
        for p in self.placed_of(chosen | set(self._held)):
            if p.thing.id not in chosen:
                continue
            for pane in self.panes():
                box = self.box_of(p, pane)
                painter.setPen(QPen(colour("chalk"), 2.2))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(box.adjusted(-1.5, -1.5, 1.5, 1.5))
                for corner in (box.topLeft(), box.topRight(), box.bottomLeft(), box.bottomRight()):
                    painter.fillRect(QRectF(corner.x() - 3, corner.y() - 3, 6, 6), colour("chalk"))
        if self._pointing:
            self._paint_pointed(painter)
        for axle in self.session.build.rig.axles:
            if axle.id in chosen and self.session.build.rig.carrier == "ball":
                x = self.frame("side").point((axle.station.si, 0)).x()
                painter.setPen(QPen(colour("chalk"), 1.6, Qt.PenStyle.DashLine))
                painter.drawLine(QPointF(x, TOP_PX), QPointF(x, self.height() - RULER_PX))

    def _paint_pointed(self, painter: QPainter) -> None:
        """What was pointed at that is no thing: ball, wheels, frame, jack, body."""
        build, frame = self.session.build, self.frame("side")
        painter.setPen(QPen(colour("chalk"), 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for shape in (*rig_views.side_rig(build), *rig_views.side_wheels(build), *rig_views.side_body(build)):
            if shape.id in self._flashing and not isinstance(shape, Text):
                painter.drawRoundedRect(box_px(shape, frame).adjusted(-3, -3, 3, 3), 5, 5)

    def _tried_mode(self, tried: Studied) -> Mode:
        """The shown mode as what is tried would have it."""
        return next((m for m in tried.build.stow.modes if m.id == self.session.mode.id), tried.build.stow.modes[0])

    def _paint_ghost(self, painter: QPainter) -> None:
        tried = self.session.ghost_studied
        if tried is None or not tried.table.cases:
            return
        row = min(self.session.row, len(tried.table.cases) - 1)
        now = {p.thing.id: p for p in self.placed()}
        for p in things_in(tried, row, self._tried_mode(tried)):
            old = now.get(p.thing.id)
            if old is not None and (old.x, old.y, old.z, old.turn) == (p.x, p.y, p.z, p.turn):
                continue
            for pane in self.panes():
                box = self.box_of(p, pane)
                painter.fillRect(box, colour("chalk", 0.22))
                painter.setPen(QPen(colour("chalk"), 2, Qt.PenStyle.DashLine))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(box)
                if old is not None:
                    painter.drawLine(self.box_of(old, pane).center(), box.center())
        if tried.build.rig.axles != self.session.build.rig.axles:
            paint(painter, rig_views.side_wheels(tried.build), self.frame("side"), stroke="chalk")
