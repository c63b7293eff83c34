"""What forbids an axle's place, whatever the ball says: wheel boxes against things and openings, the frame's ends.

Wheel boxes stay over the wheels, so a thing beside the wall forbids the stations at which they would meet.
Source: plan geometry; hangers want 0.30 m of rail on either side of the axle.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.placing import is_home
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.axle_placing import AxlePlacing
from uncle_sled.core.studies.stow.solids import TOUCH_M, solids_in

HANGER_M = 0.30
BUMP_M, SPARE_M = 0.06, 0.025  # full travel of a light axle, and what stays clear after it


class Conflict(msgspec.Struct, frozen=True):
    """Stations of the axle group's middle [m] that are forbidden, and by what."""

    low_m: float
    high_m: float
    says: str
    id: str


class TyreGap(msgspec.Struct, frozen=True):
    """Room round the tyres [m]: beside the left and the right ones, over them at full travel, ahead and behind; None unknown."""

    left_m: float | None
    right_m: float | None
    over_m: float | None
    along_m: float | None
    measured: bool  # beside them, on one side at least

    @property
    def least_m(self) -> float | None:
        """The narrowest of what is known; None where nothing is."""
        known = [v for v in (self.left_m, self.right_m, self.over_m, self.along_m) if v is not None]
        return min(known, default=None)


def conflicts(s: Studied) -> tuple[Conflict, ...]:
    """Forbidden spans, front to rear. An own frame forbids places off its rails."""
    made = list(_of_frame(s))
    body, boxes = s.framed.body, s.build.shell.wheel_boxes
    if body is None or boxes is None or min(boxes.length.si, boxes.width.si, boxes.height.si) <= 0:
        return tuple(sorted(made, key=lambda c: c.low_m))
    half, high = boxes.length.si / 2, body.under + boxes.height.si
    inner = body.width / 2 - boxes.width.si
    home = next((mode for mode in s.build.stow.modes if is_home(s.build, mode)), s.build.stow.modes[0])
    for solid in solids_in(s.build.stow, home):
        meets = max(abs(solid.low[1]), abs(solid.high[1])) > inner + TOUCH_M and solid.low[2] < high - TOUCH_M
        if meets and not solid.outside:
            says = f"a wheel box meets {solid.name[:1].lower()}{solid.name[1:]}"
            made.append(Conflict(solid.low[0] - half, solid.high[0] + half, says, solid.id))
    for cut in s.framed.cuts:
        left, low, right, _ = cut.shape.bounds
        if cut.good and cut.kind != "wheel box" and cut.surface in ("left side", "right side") and low < boxes.height.si:
            made.append(Conflict(body.front + left - half, body.front + right + half, f"a wheel box meets {cut.name}", cut.id))
    return tuple(sorted(made, key=lambda c: c.low_m))


def _of_frame(s: Studied) -> list[Conflict]:
    rig = s.build.rig
    if rig.carrier != "ball" or not rig.axles or rig.base != "own frame" or not rig.frame_length:
        return []
    stations = [axle.station.si for axle in rig.axles]
    reach = (max(stations) - min(stations)) / 2 + HANGER_M
    made = [Conflict(rig.frame_length.si - reach, 1e3, "the hangers run off the frame's end", "frame")]
    if rig.drawbar_length:
        made.append(Conflict(-1e3, rig.drawbar_length.si + reach, "the hangers stand on the drawbar", "frame"))
    return made


def clear_best_m(placing: AxlePlacing, found: tuple[Conflict, ...]) -> float | None:
    """The best station that nothing forbids, in the window where there is one [m]; None where all of it is forbidden."""
    low, high = placing.window_m or (placing.best_m, placing.best_m)
    stations = np.union1d(np.arange(low, high + 1e-9, 0.005), [placing.best_m])
    free = [float(x) for x in stations if not any(conflict.low_m < x < conflict.high_m for conflict in found)]
    return min(free, key=lambda x: abs(x - placing.best_m), default=None)


def tyre_gap(s: Studied) -> TyreGap | None:
    """Room round the tyres: as measured where somebody did, else as drawn, the same on both sides."""
    rig, body, boxes = s.build.rig, s.framed.body, s.build.shell.wheel_boxes
    left, right = (gap.si if gap else None for gap in (rig.tyre.gap_left, rig.tyre.gap_right))
    measured = left is not None or right is not None
    if rig.carrier != "ball" or not rig.axles:
        return None
    if body is None or boxes is None:
        return TyreGap(left, right, None, None, measured=True) if measured else None
    radius, wide = wheel_radius_m(rig), rig.tyre.width.si if rig.tyre.width else None
    inner = body.width / 2 - boxes.width.si
    stations = [axle.station.si for axle in rig.axles]
    spread = max(stations) - min(stations)
    drawn = rig.track.si / 2 - wide / 2 - inner if rig.track and wide else None
    return TyreGap(
        drawn if left is None else left,
        drawn if right is None else right,
        body.under + boxes.height.si - 2 * radius - BUMP_M,
        (boxes.length.si - spread) / 2 - radius,
        measured,
    )
