"""Where a dragged box likes to stop: faces of others, the walls, the floor, the axle, round numbers."""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build
from uncle_sled.core.drawing.rig.rig_views import Placed
from uncle_sled.core.engine import keep_last
from uncle_sled.core.studies.stow.room import floor_m
from uncle_sled.core.units import Shown

HOLD_PX = 7.0


class Snaps(msgspec.Struct, frozen=True):
    """Lines [m] that an edge (or a middle) may meet, by axis."""

    edges: dict[str, tuple[float, ...]]
    middles: dict[str, tuple[float, ...]]
    round_m: float


def snaps_for(build: Build, others: list[Placed], shown: Shown) -> Snaps:
    xs, ys, zs = [], [], []
    for p in others:
        xs += [p.x, p.x + p.size[0]]
        ys += [p.y - p.size[1] / 2, p.y + p.size[1] / 2]
        zs += [p.z, p.z + p.size[2]]
    shell = build.shell
    if shell.form != "none" and shell.front and shell.length and shell.width:
        wall = shell.wall.si if shell.wall else 0.0
        xs += [shell.front.si + wall, shell.front.si + shell.length.si - wall]
        ys += [-shell.width.si / 2 + wall, shell.width.si / 2 - wall]
        zs.append(floor_m(build))
    axles = tuple(a.station.si for a in build.rig.axles)
    return Snaps(
        {"x": tuple(xs), "y": tuple(ys), "z": tuple(zs)},
        {"x": axles, "y": (0.0,), "z": ()},
        shown.step_m,
    )


@keep_last(8)
def lines_of(lines: tuple[float, ...]) -> NDArray[np.float64]:
    return np.array(lines, dtype=float)


def snapped(snaps: Snaps, axis: str, low_m: float, size_m: float, px_per_m: float) -> tuple[float, float | None]:
    """The low edge after snapping [m], and the line that it met, if any."""
    hold = HOLD_PX / px_per_m
    best: tuple[float, float, float] | None = None
    lines = lines_of(snaps.edges[axis])
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
