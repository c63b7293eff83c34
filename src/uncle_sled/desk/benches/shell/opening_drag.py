"""Dragging what is cut into the body, or one edge of it, on the side view or on a face laid flat."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtCore import QPointF, QRectF, Qt

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.geometry.laid import Bounds, Edge, Laid
from uncle_sled.core.geometry.surfaces import Surface, place_after
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.painting import Frame
from uncle_sled.desk.sheet.gestures import Paper, TypedDrag
from uncle_sled.desk.sheet.snapping import Snaps, snapped


class FacePaper(Paper, Protocol):
    """A sheet on which surfaces of the body lie: seen from the side, or laid flat."""

    def laid_of(self, surface: Surface) -> Laid: ...


LIFT_PX = 8  # a little tremble does not lift a door off its sill


EDGE_PX = 5  # near an edge of the chosen opening the hand takes the edge
LEAST_M = 0.02  # that an opening can be pulled together to
CURSORS: dict[Edge, Qt.CursorShape] = {
    "left": Qt.CursorShape.SizeHorCursor,
    "right": Qt.CursorShape.SizeHorCursor,
    "low": Qt.CursorShape.SizeVerCursor,
    "high": Qt.CursorShape.SizeVerCursor,
}


def edge_near(bounds: Bounds, at: QPointF, frame: Frame, on: Laid) -> Edge | None:
    """The edge of a rectangle, as it is seen, that a point [px] is on: left, right, low or high; None on none."""
    left, low, right, high = on.bounds(bounds)
    box = QRectF(frame.point((left, high)), frame.point((right, low)))
    reach = min(EDGE_PX, max(min(box.width(), box.height()) / 4, 1.0))
    if not box.adjusted(-EDGE_PX, -EDGE_PX, EDGE_PX, EDGE_PX).contains(at):
        return None
    far: dict[Edge, float] = {
        "left": abs(at.x() - box.left()),
        "right": abs(at.x() - box.right()),
        "high": abs(at.y() - box.top()),
        "low": abs(at.y() - box.bottom()),
    }
    side = min(far, key=lambda key: far[key])
    return side if far[side] <= reach else None


class OfOpening(TypedDrag[FacePaper]):
    """What both ways of dragging an opening share: where it is cut, and what its edges like to meet."""

    def __init__(self, view: FacePaper, pane: str, at: QPointF, id: str, surface: Surface, verb: str) -> None:
        s = view.session.studied
        self.opening = next(o for o in s.build.shell.openings if o.id == id)
        super().__init__(view, pane, at, view.session.take_up(f"{verb} the {lower_first(self.opening.name)}", (id,)))
        self.id, self.surface = id, surface
        self.body = s.framed.body
        cut = next(c for c in s.framed.cuts if c.id == id)
        self.box = cut.shape.bounds
        self.laid = view.laid_of(surface)
        self.snaps = self._snaps()

    def place_ops(self, ds: float, dt: float) -> list[Op]:
        """Ops that move the near corner over its surface [m]."""
        if self.body is None:
            return []
        along, up = place_after(self.body, self.opening, self.surface, ds, dt)
        path = f"shell.openings.{self.id}"
        ops: list[Op] = []
        for name, now, was in (("along", along, self.opening.along.si), ("up", up, self.opening.up.si)):
            if abs(now - was) > 1e-6:
                ops.append(set_to(f"{path}.{name}", {"si": round(now, 4), "typed": None}))
        return ops

    def _snaps(self) -> Snaps:
        """Faces of what is fixed on this surface, and the other openings."""
        s = self.session.studied
        xs, zs = [], []
        for member in s.framed.on(self.surface.id):
            if self.id not in member.anchor and not member.along_s:
                xs += [p[0] for p in member.outline]
        for cut in s.framed.cuts:
            if cut.surface == self.surface.id and cut.id != self.id:
                left, low, right, high = cut.shape.bounds
                xs += [left, right]
                zs += [low, high]
        left, low, right, high = self.surface.polygon.bounds
        return Snaps(
            {"x": tuple(dict.fromkeys(xs)), "z": tuple(zs)},
            {"x": ((left + right) / 2,), "z": ((low + high) / 2,) if self.surface.kind in ("roof", "floor") else ()},
            self.session.shown.step_m,
        )


class DragOpening(OfOpening):
    """Moves one opening over its face; the face reframes itself around it."""

    def __init__(self, view: FacePaper, pane: str, at: QPointF, id: str, surface: Surface) -> None:
        super().__init__(view, pane, at, id, surface, "Move")
        self.lifted = False

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if self.words or not self.begins(at):
            return
        scale = self.view.scale
        right, up = at.x() - self.start.x(), self.start.y() - at.y()
        ds, dt = self.laid.shift(right / scale, up / scale)
        left, low, high_s, high_t = self.box
        self.lines = []
        if not keys & Qt.KeyboardModifier.ControlModifier:
            new, line = snapped(self.snaps, "x", left + ds, high_s - left, scale)
            ds = new - left
            if line is not None:
                self.lines.append(self.laid.line("x", line))
        self.lifted = self.lifted or self.laid.turned or abs(up) > LIFT_PX
        if not self.lifted:
            dt = 0.0
        elif not keys & Qt.KeyboardModifier.ControlModifier:
            new, line = snapped(self.snaps, "z", low + dt, high_t - low, scale)
            dt = new - low
            if line is not None:
                self.lines.append(self.laid.line("z", line))
        self._put(ds, dt)

    def place(self, si: float) -> None:
        """A typed number is the distance of the near edge from the body's front (or the face's left end)."""
        self.lines = [self.laid.line("x", si)]
        self._put(si - self.box[0], 0.0)

    def _put(self, ds: float, dt: float) -> None:
        self.hand.put(self.place_ops(ds, dt) if abs(ds) > 1e-9 or abs(dt) > 1e-9 else [])


class StretchOpening(OfOpening):
    """Pulls one edge of an opening; a typed number is its new width or height."""

    def __init__(self, view: FacePaper, pane: str, at: QPointF, id: str, surface: Surface, seen: Edge) -> None:
        super().__init__(view, pane, at, id, surface, "Size")
        self.edge = edge = self.laid.edge(seen)
        self.axis = "x" if edge in ("left", "right") else "z"
        # on a bent nose or tail the skin runs up, and an opening's height along it
        turned = surface.swept and self.opening.face in ("front", "rear")
        self.field = "width" if (self.axis == "x") != turned else "height"
        self.typed_is = self.field

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if self.words or not self.begins(at):
            return
        scale = self.view.scale
        ds, dt = self.laid.shift((at.x() - self.start.x()) / scale, (self.start.y() - at.y()) / scale)
        by = ds if self.axis == "x" else dt
        where = self.box[{"left": 0, "low": 1, "right": 2, "high": 3}[self.edge]]
        self.lines = []
        if keys & Qt.KeyboardModifier.ControlModifier:
            new = where + by
        else:
            new, line = snapped(self.snaps, self.axis, where + by, 0.0, scale)
            if line is not None:
                self.lines.append(self.laid.line(self.axis, line))
        self._put(new - where)

    def place(self, si: float) -> None:
        left, low, right, high = self.box
        more = si - (right - left if self.axis == "x" else high - low)
        self._put(more if self.edge in ("right", "high") else -more)

    def _put(self, by: float) -> None:
        left, low, right, high = self.box
        size = right - left if self.axis == "x" else high - low
        outward = self.edge in ("right", "high")
        grown = max(size + (by if outward else -by), LEAST_M)
        by = (grown - size) * (1.0 if outward else -1.0)
        # the corner that along and up are measured to: the lower one of a bent tail is where its run ends
        tail = self.surface.swept and self.opening.face == "rear"
        moves = (self.edge == "right" if tail else self.edge == "left") if self.axis == "x" else self.edge == "low"
        ops = self.place_ops(*((by, 0.0) if self.axis == "x" else (0.0, by))) if moves else []
        if abs(grown - size) > 1e-6:
            path = f"shell.openings.{self.id}.{self.field}"
            ops.append(set_to(path, {"si": round(grown, 4), "typed": None}))
        self.hand.put(ops)
