"""How a stick is worked to its outline: its length, the saw at both ends, what is notched out of it, and to what width it is ripped.

An end is what can be seen of it along the stick; its slant is that of its longest straight part. What a plain stick of that
length and those ends has over the outline is notched out of it. Source: plane geometry.
"""

from __future__ import annotations

import itertools
import math

import msgspec
from shapely.geometry import Polygon

Point2 = tuple[float, float]
LEAST_NOTCH_M2, LEAST_NOTCH_M = 2e-5, 0.0015  # less is a rounding, or the saw's
SQUARE_M = 1e-6
RIPPED_SHARE, SQUARE_SHARE = 0.97, 0.9  # of its length; of its box


class Notch(msgspec.Struct, frozen=True):
    """What is sawn out of a stick [m]. at_m: from its beginning; side: 0 its low edge, 1 its high one, 2 through from edge to edge."""

    at_m: float
    long_m: float
    deep_m: float
    side: int


class Worked(msgspec.Struct, frozen=True):
    """length_m: longest edge to longest edge; ends_deg: off square, signed; wide_m: across, as it is left.

    corners: of a stick whose end is no straight cut and no square notch, along and across from its beginning [m]; else none.
    """

    length_m: float
    ends_deg: tuple[float, float]
    wide_m: float
    notches: tuple[Notch, ...] = ()
    corners: tuple[Point2, ...] = ()


def worked(ring: list[Point2], direction: Point2) -> Worked:
    """A stick by its outline [m]. Args: ring: not closed; direction: unit vector of its run."""
    dx, dy = direction
    points = [(x * dx + y * dy, y * dx - x * dy) for x, y in ring]
    long, across = [a for a, _ in points], [b for _, b in points]
    begin, low = min(long), min(across)
    length, wide = max(long) - begin, max(max(across) - low, 1e-9)
    points = [(a - begin, b - low) for a, b in points]
    if len(points) == 4:  # a plain stick, as nearly all are
        on_low, on_high = [a for a, b in points if b < wide / 4], [a for a, b in points if b > wide * 0.75]
        if on_low and on_high:
            ends = (_deg(min(on_high) - min(on_low), wide), _deg(max(on_high) - max(on_low), wide))
            return Worked(length, ends, wide)
    slants = (_end(points, wide, first=True), _end(points, wide, first=False))
    ends = _deg(slants[0], 1.0), _deg(slants[1], 1.0)
    rest = _rest(points, wide, slants)
    whole = next((part for part in rest if part.bounds[2] - part.bounds[0] > RIPPED_SHARE * length), None)
    if whole is not None and len(rest) == 1 and not _is_through(whole, wide):  # all along one edge: ripped
        return Worked(length, ends, wide - (whole.bounds[3] - whole.bounds[1]))
    if all(part.area > SQUARE_SHARE * part.envelope.area for part in rest):
        return Worked(length, ends, wide, tuple(sorted((_notch(part, wide) for part in rest), key=lambda notch: (notch.at_m, notch.side))))
    return Worked(length, ends, wide, corners=tuple((round(a, 6), round(b, 6)) for a, b in points))


def _deg(run: float, rise: float) -> float:
    return round(math.degrees(math.atan2(run, rise)), 1) + 0.0


def _end(points: list[Point2], wide: float, first: bool) -> float:
    """Slant of an end: how far it runs along the stick over a metre across, of the longest straight part that is seen there."""
    edges = list(itertools.pairwise([*points, points[0]]))
    best, slant = 0.0, 0.0
    for (a0, b0), (a1, b1) in edges:
        high = abs(b1 - b0)
        if high <= best + 1e-9 or high < 0.02 * wide:
            continue
        middle, at = (b0 + b1) / 2, (a0 + a1) / 2
        there = [p + (q - p) * (middle - r) / (s - r) for (p, r), (q, s) in edges if min(r, s) <= middle <= max(r, s) and r != s]
        if abs((min(there) if first else max(there)) - at) < SQUARE_M:
            best, slant = high, (a1 - a0) / (b1 - b0)
    return slant


def _rest(points: list[Point2], wide: float, slants: tuple[float, float]) -> list[Polygon]:
    """What a plain stick with these ends has over the outline, in parts that are worth sawing."""
    begin = min(a - slants[0] * b for a, b in points)
    end = max(a - slants[1] * b for a, b in points)
    corners = [(begin, 0.0), (end, 0.0), (end + slants[1] * wide, wide), (begin + slants[0] * wide, wide)]
    plain, outline = Polygon(corners), Polygon(points)
    if not plain.is_valid or not outline.is_valid:
        return []
    rest = plain.difference(outline)
    parts = [part for part in getattr(rest, "geoms", [rest]) if isinstance(part, Polygon) and part.area > LEAST_NOTCH_M2]
    return [p for p in parts if min(p.bounds[2] - p.bounds[0], p.bounds[3] - p.bounds[1]) > LEAST_NOTCH_M]


def _is_through(part: Polygon, wide: float) -> bool:
    return bool(part.bounds[1] < 1e-4 and part.bounds[3] > wide - 1e-4)


def _notch(part: Polygon, wide: float) -> Notch:
    left, low, right, high = part.bounds
    side = 2 if _is_through(part, wide) else 0 if low < 1e-4 else 1
    return Notch(round(max(left, 0.0), 6), round(right - left, 6), round(high - low, 6), side)
