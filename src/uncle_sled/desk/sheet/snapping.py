"""Where a dragged box likes to stop: faces of others, the walls inside and outside, floor, ceiling and roof, the frame,
the axle, round numbers."""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.drawing.rig.things_placed import Placed
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.studies.stow.room import Room, floor_m, room_of
from uncle_sled.core.studies.stow.solids import TOUCH_M
from uncle_sled.core.units import Shown

HOLD_PX = 7.0


class Snaps(msgspec.Struct, frozen=True):
    """Lines [m] that an edge (or a middle) may meet, by axis."""

    edges: dict[str, tuple[float, ...]]
    middles: dict[str, tuple[float, ...]]
    round_m: float
    room: Room | None = None

    def over_m(self, x: float, long: float, y: float) -> tuple[float, ...]:
        """Heights of ceiling and roof [m] that a box from ``x`` can reach at both its ends without going through."""
        if self.room is None:
            return ()
        ends = (x + TOUCH_M, x + long - TOUCH_M)
        inside = [self.room.ceiling_m(at, y) for at in ends]
        made = [min(one for one in inside if one is not None) - TOUCH_M] if None not in inside else []
        roofs = [self.room.roof_m(at) for at in ends]
        if None not in roofs:
            made.append(max(roof for roof in roofs if roof is not None))
        return tuple(made)


def snaps_for(build: Build, facts: Facts, others: list[Placed], shown: Shown) -> Snaps:
    xs, ys, zs = [], [], []
    for p in others:
        xs += [p.x, p.x + p.size[0]]
        ys += [p.y - p.size[1] / 2, p.y + p.size[1] / 2]
        zs += [p.z, p.z + p.size[2]]
    shell = build.shell
    if shell.form != "none" and shell.front and shell.length and shell.width:
        for kinds, ends in ((("front", "rear"), xs), (("left side", "right side"), ys)):
            low, high = (shell.front.si, shell.front.si + shell.length.si) if ends is xs else (-shell.width.si / 2, shell.width.si / 2)
            ends += [low, high, low + thickness_m(shell, kinds[0]), high - thickness_m(shell, kinds[1])]
        zs.append(floor_m(build))
    if build.rig.carrier == "ball":
        xs += [length.si for length in (build.rig.frame_length, build.rig.drawbar_length) if length is not None]
        half = build.rig.frame_width.si / 2 if build.rig.frame_width else None
        ys += [-half, half] if half is not None else []
        zs += [build.rig.frame_top.si] if build.rig.frame_top else []
    axles = tuple(a.station.si for a in build.rig.axles)
    return Snaps({"x": tuple(xs), "y": tuple(ys), "z": tuple(zs)}, {"x": axles, "y": (0.0,), "z": ()}, shown.step_m, room_of(build, facts))


@keep(most=8)
def lines_of(lines: tuple[float, ...]) -> NDArray[np.float64]:
    return np.array(lines, dtype=float)


def snapped(
    snaps: Snaps, axis: str, low_m: float, size_m: float, px_per_m: float, more: tuple[float, ...] = ()
) -> tuple[float, float | None]:
    """The low edge after snapping [m], and the line that it met, if any. ``more``: lines that hold just here [m]."""
    hold = HOLD_PX / px_per_m
    best: tuple[float, float, float] | None = None
    lines = lines_of(snaps.edges[axis] + more)
    if len(lines):
        off = lines[:, None] - np.array((low_m, low_m + size_m))
        nearest = int(np.argmin(np.abs(off)))
        far = float(off.flat[nearest])
        if abs(far) < hold:
            # from the line alone, not from the hand: or the last bit of the hand's place would flicker over a rounding
            line = float(lines[nearest // 2])
            best = (abs(far), line - size_m if nearest % 2 else line, line)
    for line in snaps.middles[axis]:
        off = line - (low_m + size_m / 2)
        if abs(off) < hold and (best is None or abs(off) < best[0]):
            best = (abs(off), line - size_m / 2, line)
    if best is not None:
        return best[1], best[2]
    return round(low_m / snaps.round_m) * snaps.round_m, None
