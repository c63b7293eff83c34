"""A drawn side with its offsets: how high it is at every step along and at its corners, to be marked and joined by a batten."""

from __future__ import annotations

import math

import msgspec
from shapely.geometry import LineString
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, placed
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.geometry.turns import turns_deg
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import INCH_M, Shown
from uncle_sled.core.words import Words

STEP_M, STEP_IMPERIAL_M = 0.1, 4 * INCH_M
CORNER_DEG = 12.0  # what turns by more is no chord of a curve


class Offset(msgspec.Struct, frozen=True):
    """At a station [m] from the side's front end: how high its lower and upper edge are [m]."""

    along: float
    low: float
    high: float


def offsets(surface: Surface, shown: Shown) -> tuple[Offset, ...]:
    """Offsets every 100 mm or 4 in from the front end, and at the rear end.

    The two ends are read just inside, where an upright edge begins.
    """
    left, low, right, high = surface.polygon.bounds
    step = STEP_IMPERIAL_M if shown.imperial else STEP_M
    stations = sorted(
        {round(x, 6) for x in [*(left + k * step for k in range(math.ceil((right - left) / step))), *_corners(surface), right]}
    )
    made = []
    for at in stations:
        x = min(max(at, left + 1e-6), right - 1e-6)
        cut: BaseGeometry = surface.polygon.intersection(LineString([(x, low - 1), (x, high + 1)]))
        if not cut.is_empty:
            _, under, _, top = cut.bounds
            made.append(Offset(at - left, under, top))
    return tuple(made)


def _corners(surface: Surface) -> list[float]:
    """Stations of the sharp corners of a side [m]."""
    ring = [(float(x), float(y)) for x, y in surface.polygon.exterior.coords[:-1]]
    return [at[0] for at, deg in zip(ring, turns_deg(ring), strict=True) if deg > CORNER_DEG]


def offsets_pages(s: Studied, surface: Surface, name: str, printed: str) -> tuple[Page, ...]:
    """The side with an ordinate at every step, and the same as a table. Both sides are cut from it, the right mirrored."""
    shown, size = s.build.brief.reading.shown(), paper_of(s.build).lying
    words, found = Words(shown), offsets(surface, shown)
    left, low, right, high = surface.polygon.bounds
    n = scale_for(right - left, high - low, (size[0] - 88, size[1] - 190))
    per_m = POINTS_PER_M / n
    sheets = Sheets(size, f"{name}: side, offsets", f"for marking out, 1 : {n}, {printed}")
    outline = tuple((float(x) - left, float(y) - low) for x, y in list(surface.polygon.exterior.coords)[:-1])
    inside: list[Primitive] = [Poly(outline, "ink", "body", 1.4, id=surface.id)]
    inside += [line((o.along, o.low - low), (o.along, o.high - low), "chalk", 0.6) for o in found]
    shapes = list(placed(tuple(inside), per_m, 10.0, 22.0))
    last = -1e9
    for at, offset in enumerate(found):
        x = offset.along * per_m + 10.0
        if x - last > 14:
            shapes += [line((x, 22), (x, 17), "pencil"), Text((x, 10), str(at), 8, "pencil")]
            last = x
    sheets.picture((high - low) * per_m + 26, shapes)
    every = "4 in" if shown.imperial else "100 mm"
    sheets.words(
        f"Every {every} and at every corner, along from the front end, upward from the body's underside. Drive a nail at each, bend a batten along them, and draw. The right side is its mirror."
    )
    rows = [(str(at), words.cut(o.along), words.cut(o.low), words.cut(o.high)) for at, o in enumerate(found)]
    half = -(-len(rows) // 3)  # three beside each other
    blank = ("",) * 4
    beside = [
        (*a, "", *b, "", *c)
        for a, b, c in ((rows[k], *(rows[j] if j < len(rows) else blank for j in (k + half, k + 2 * half))) for k in range(half))
    ]
    heads = (Column("No.", right=True), Column("Along", right=True), Column("From", right=True), Column("To", right=True))
    sheets.table((*heads, Column(" "), *heads, Column(" "), *heads), beside)
    return sheets.done()
