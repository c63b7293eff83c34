"""A page of paper, in points, y up; every writer takes the same one."""

from __future__ import annotations

import msgspec

from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.units import INCH_M

POINTS_PER_M = 72 / INCH_M
# steps between the usual ones, for what is read by its figures and wants to be large
FINE = (5, 6, 8, 10, 12, 15, 18, 20, 22, 25, 30, 35, 40, 45, 50, 60, 75, 100, 200)
SCALES = (5, 10, 15, 20, 25, 30, 40, 50, 75, 100, 200)


def scale_for(wide_m: float, high_m: float, room: tuple[float, float], scales: tuple[int, ...] = SCALES) -> int:
    """The largest standard scale, as 1 : n, at which a drawing fits a room in points; the smallest where none does."""
    return next((n for n in scales if wide_m / n * POINTS_PER_M <= room[0] and high_m / n * POINTS_PER_M <= room[1]), scales[-1])


def standard_under(points_per_m: float) -> int:
    """The largest standard scale, as 1 : n, that is no larger than a drawing that just fits; the smallest where none is."""
    return next((n for n in SCALES if POINTS_PER_M / n <= points_per_m), SCALES[-1])


class Page(msgspec.Struct, frozen=True):
    """One sheet of paper [points, y up], with what its footer and its bookmark call it."""

    width: float
    height: float
    shapes: tuple[Primitive, ...]
    title: str


BAR_M = 0.1


def bar_of_100_mm(x: float = 0.0, y: float = 8.0, says: str = "100 mm: print at 100 % and measure it before you cut") -> list[Primitive]:
    """What a print at full size is checked by: a bar with an upright at both ends, from a point on."""
    far = x + BAR_M * POINTS_PER_M
    return [
        line((x, y), (far, y), "ink", 1.4),
        line((x, y - 4), (x, y + 4)),
        line((far, y - 4), (far, y + 4)),
        Text((far + 6, y), says, 9, "pencil", anchor="left"),
    ]
