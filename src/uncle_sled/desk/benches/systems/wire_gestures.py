"""Hands on the wires: one is pulled to a bend, a device is moved."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, Qt

from uncle_sled.core.document.edits import fresh_id, set_to
from uncle_sled.core.document.systems import Device
from uncle_sled.core.drawing.systems.wire_views import flat
from uncle_sled.core.wiring.route import Spot
from uncle_sled.core.wiring.wired import Laid
from uncle_sled.core.words import lower_first
from uncle_sled.desk.sheet.gestures import TREMBLE_PX, Gesture, Paper

NEAR_PX = 8.0


def nearest(points: tuple[Spot, ...], pane: str, at: tuple[float, float]) -> tuple[float, int, float]:
    """How far a place is from a wire in a view [m], on which part of it, and how far along that, 0 to 1."""
    best = (math.inf, 0, 0.0)
    for k in range(len(points) - 1):
        (ax, ay), (bx, by) = flat(points[k], pane), flat(points[k + 1], pane)
        dx, dy = bx - ax, by - ay
        long = dx * dx + dy * dy
        share = 0.0 if long < 1e-12 else min(max(((at[0] - ax) * dx + (at[1] - ay) * dy) / long, 0.0), 1.0)
        gap = math.hypot(at[0] - ax - share * dx, at[1] - ay - share * dy)
        if gap < best[0] - 1e-9:
            best = (gap, k, share)
    return best


def bends_of(points: list[Spot]) -> list[dict[str, object]]:
    made: list[dict[str, object]] = []
    for spot in points:
        id = fresh_id("b", [str(one["id"]) for one in made])
        made.append({"id": id, **{axis: {"si": round(v, 3), "typed": None} for axis, v in zip("xyz", spot, strict=True)}})
    return made


class BendWire(Gesture[Paper]):
    """Pulls a wire where it was taken: a bend that is there, or a new one; all else of its way stays."""

    def __init__(self, view: Paper, pane: str, at: QPointF, wire: Laid, name: str, step_m: float) -> None:
        super().__init__(view, pane, at)
        self.wire, self.step_m = wire, step_m
        place = view.frame(pane).metres(at)
        _, part, share = nearest(wire.points, pane, place)
        inner = list(wire.points[1:-1])
        old = next((k for k, spot in enumerate(inner) if math.dist(flat(spot, pane), place) * view.scale <= NEAR_PX), None)
        a, b = wire.points[part], wire.points[part + 1]
        taken: Spot = (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share)
        self.lead = inner[old] if old is not None else taken
        self.before = inner[: part if old is None else old]
        self.after = inner[part:] if old is None else inner[old + 1 :]
        self.hand = view.session.take_up(f"Bend {lower_first(name)}", (wire.id,))

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if not self.hand.moved and (at - self.start).manhattanLength() < TREMBLE_PX:
            return
        dx, up = (at.x() - self.start.x()) / self.view.scale, -(at.y() - self.start.y()) / self.view.scale
        free = bool(keys & Qt.KeyboardModifier.ControlModifier)

        def put(value: float) -> float:
            return value if free else round(value / self.step_m) * self.step_m

        x, y, z = self.lead
        spot: Spot = (put(x + dx), put(y + up) if self.pane == "plan" else y, max(put(z + up), 0.0) if self.pane == "side" else z)
        self.hand.put([set_to(f"systems.wires.{self.wire.id}.bends", bends_of([*self.before, spot, *self.after]))])

    def finished(self) -> None:
        self.hand.let_go()

    def cancelled(self) -> None:
        self.hand.give_back()


class MoveDevice(Gesture[Paper]):
    """Moves a device along and up in the side view, along and across in the plan."""

    def __init__(self, view: Paper, pane: str, at: QPointF, device: Device, step_m: float) -> None:
        super().__init__(view, pane, at)
        self.device, self.step_m = device, step_m
        self.hand = view.session.take_up(f"Move the {lower_first(device.name)}", (device.id,))

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if not self.hand.moved and (at - self.start).manhattanLength() < TREMBLE_PX:
            return
        dx, up = (at.x() - self.start.x()) / self.view.scale, -(at.y() - self.start.y()) / self.view.scale
        free = bool(keys & Qt.KeyboardModifier.ControlModifier)

        def put(value: float) -> dict[str, float | None]:
            return {"si": round(value if free else round(value / self.step_m) * self.step_m, 4), "typed": None}

        path, device = f"systems.devices.{self.device.id}", self.device
        ops = [set_to(f"{path}.x", put(device.x.si + dx))]
        if self.pane == "side":
            ops.append(set_to(f"{path}.z", put(max(device.z.si + up, 0.0))))
        else:
            ops.append(set_to(f"{path}.y", put(device.y.si + up)))
        self.hand.put(ops)

    def finished(self) -> None:
        self.hand.let_go()

    def cancelled(self) -> None:
        self.hand.give_back()
