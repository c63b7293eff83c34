"""Dragging what is cut into the body, on the side view or on a face laid flat."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtCore import QPointF, Qt

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.geometry.surfaces import Surface, place_after
from uncle_sled.core.words import lower_first
from uncle_sled.desk.sheet.gestures import Paper, TypedDrag
from uncle_sled.desk.sheet.snapping import Snaps, snapped


class FacePaper(Paper, Protocol):
    """A sheet on which surfaces of the body lie: seen from the side, or laid flat."""

    def origin_of(self, surface: Surface) -> tuple[float, float]: ...


LIFT_PX = 8  # a little tremble does not lift a door off its sill


class DragOpening(TypedDrag[FacePaper]):
    """Moves one opening over its face; the face reframes itself around it."""

    def __init__(self, view: FacePaper, pane: str, at: QPointF, id: str, surface: Surface) -> None:
        s = view.session.studied
        self.opening = next(o for o in s.build.shell.openings if o.id == id)
        says = f"Move the {lower_first(self.opening.name)}"
        super().__init__(view, pane, at, view.session.take_up(says, (id,)))
        self.id, self.surface = id, surface
        self.body = s.framed.body
        cut = next(c for c in s.framed.cuts if c.id == id)
        self.box = cut.shape.bounds
        self.origin = view.origin_of(surface)
        self.snaps = self._snaps()
        self.lifted = False

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

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if self.words or not self.begins(at):
            return
        scale = self.view.scale
        ds, dt = (at.x() - self.start.x()) / scale, -(at.y() - self.start.y()) / scale
        left, low, right, high = self.box
        self.lines = []
        if not keys & Qt.KeyboardModifier.ControlModifier:
            new, line = snapped(self.snaps, "x", left + ds, right - left, scale)
            ds = new - left
            if line is not None:
                self.lines.append(("x", self.origin[0] + line))
        self.lifted = self.lifted or abs(at.y() - self.start.y()) > LIFT_PX
        if not self.lifted:
            dt = 0.0
        elif not keys & Qt.KeyboardModifier.ControlModifier:
            new, line = snapped(self.snaps, "z", low + dt, high - low, scale)
            dt = new - low
            if line is not None:
                self.lines.append(("z", self.origin[1] + line))
        self._put(ds, dt)

    def place(self, si: float) -> None:
        """A typed number is the distance of the near edge from the body's front (or the face's left end)."""
        self.lines = [("x", self.origin[0] + si)]
        self._put(si - self.box[0], 0.0)

    def _put(self, ds: float, dt: float) -> None:
        ops = []
        if self.body is not None and (abs(ds) > 1e-9 or abs(dt) > 1e-9):
            along, up = place_after(self.body, self.opening, self.surface, ds, dt)
            path = f"shell.openings.{self.id}"
            if abs(along - self.opening.along.si) > 1e-6:
                ops.append(set_to(f"{path}.along", {"si": round(along, 4), "typed": None}))
            if abs(up - self.opening.up.si) > 1e-6:
                ops.append(set_to(f"{path}.up", {"si": round(up, 4), "typed": None}))
        self.hand.put(ops)
