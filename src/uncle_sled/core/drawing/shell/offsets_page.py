"""A drawn side with its offsets: how high it is at every step along, to be marked on a sheet and joined by a batten."""

from __future__ import annotations

import math

import msgspec
from shapely.geometry import LineString
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, placed
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import INCH_M, Shown
from uncle_sled.core.words import Words

WIDTH, HEIGHT, EDGE = 842.0, 595.0, 34.0
CAUTION = "Screening only: measure the real frame first; local code and a licensed engineer decide. Mask against dust and resin."
STEP_M, STEP_IMPERIAL_M = 0.1, 4 * INCH_M
ROW, SIZE, GAP = 11.5, 8.5, 7.0
HEADS = ("no", "along", "from", "to")


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
    stations = [left + k * step for k in range(math.ceil((right - left) / step))] + [right]
    made = []
    for at in stations:
        x = min(max(at, left + 1e-6), right - 1e-6)
        cut: BaseGeometry = surface.polygon.intersection(LineString([(x, low - 1), (x, high + 1)]))
        if not cut.is_empty:
            _, under, _, top = cut.bounds
            made.append(Offset(at - left, under, top))
    return tuple(made)


def head(title: str, right: str) -> list[Primitive]:
    """Title, scale and date over a page, and the caution at its foot."""
    return [
        Text((EDGE, HEIGHT - EDGE - 6), elided(title, 16, 560, "head"), 16, "ink", "head", "left"),
        Text((WIDTH - EDGE, HEIGHT - EDGE - 6), right, 10, "pencil", "text", "right"),
        line((EDGE, HEIGHT - EDGE - 18), (WIDTH - EDGE, HEIGHT - EDGE - 18), "rule"),
        Text((EDGE, EDGE - 12), CAUTION, 8, "pencil", "text", "left"),
    ]


def offsets_page(s: Studied, surface: Surface, name: str, printed: str) -> Page:
    """The side with an ordinate at every step, and the same as a table. Both sides are cut from it, the right mirrored."""
    shown = s.build.brief.reading.shown()
    words, found = Words(shown), offsets(surface, shown)
    left, low, right, high = surface.polygon.bounds
    scale = scale_for(right - left, high - low, (WIDTH - 2 * EDGE - 20, 250.0))
    per_m = POINTS_PER_M / scale
    x0 = (WIDTH - (right - left) * per_m) / 2 - left * per_m
    y0 = HEIGHT - EDGE - 34 - high * per_m
    outline = tuple((float(x), float(y)) for x, y in list(surface.polygon.exterior.coords)[:-1])
    inside: list[Primitive] = [Poly(outline, "ink", "body", 1.4, id=surface.id)]
    inside += [
        line((left + each_offset.along, each_offset.low), (left + each_offset.along, each_offset.high), "chalk", 0.6)
        for each_offset in found
    ]
    shapes = head(f"{name}: side, offsets for marking out", f"1 : {scale} on A4, {printed}")
    shapes += placed(tuple(inside), per_m, x0, y0)
    foot = low * per_m + y0
    for at, offset in enumerate(found):
        x = (left + offset.along) * per_m + x0
        near_last = (left + found[-1].along) * per_m + x0 - x < 14
        if at == len(found) - 1 or (at % 5 == 0 and not near_last):
            shapes += [line((x, foot), (x, foot - 5), "pencil"), Text((x, foot - 11), str(at), 8, "pencil")]
    every = "4 in" if shown.imperial else "100 mm"
    shapes.append(
        Text(
            (EDGE, foot - 28),
            f"Every {every} from the front end, upward from the body's underside. Drive a nail at each, bend a batten along them, and draw. The right side is its mirror.",
            9,
            "ink",
            "text",
            "left",
        )
    )
    shapes += _table(found, words, foot - 46)
    return Page(WIDTH, HEIGHT, tuple(shapes), f"{name}: side, offsets")


def _table(found: tuple[Offset, ...], words: Words, top: float) -> list[Primitive]:
    """Columns of number, along, lower and upper edge; the lower only where it is not the straight foot."""
    per_column = max(int((top - EDGE - 14) // ROW), 1)
    shapes: list[Primitive] = []
    cells = [(str(at), words.cut(offset.along), words.cut(offset.low), words.cut(offset.high)) for at, offset in enumerate(found)]
    rights, right = [], 0.0
    for at, name in enumerate(HEADS):
        right += max(text_width(text, SIZE) for text in (name, *(row[at] for row in cells))) + GAP
        rights.append(right)
    for column in range(math.ceil(len(found) / per_column)):
        x = EDGE + column * (right + 3 * GAP)
        shapes += [Text((x + dx, top), text, 8, "pencil", "text", "right") for text, dx in zip(HEADS, rights, strict=True)]
        for at, row in enumerate(cells[column * per_column : (column + 1) * per_column]):
            y = top - ROW * (at + 1)
            shapes += [Text((x + dx, y), text, SIZE, "ink", "text", "right") for text, dx in zip(row, rights, strict=True)]
    return shapes
