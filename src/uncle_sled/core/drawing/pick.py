"""What is drawn at a point: the topmost closed shape with an id that holds it, else the nearest line within reach."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive


def id_at(shapes: Sequence[Primitive], at: Point, reach: float = 5.0) -> str:
    """The id there, or nothing. Args: at: in the units of the shapes, points on a bench."""
    for shape in reversed(shapes):
        if isinstance(shape, Poly) and shape.id and shape.closed and inside(shape.points, at):
            return shape.id
    found, best = "", reach
    for shape in shapes:
        if isinstance(shape, Poly) and shape.id and not shape.closed:
            for a, b in itertools.pairwise(shape.points):
                gap = _off(at, a, b)
                if gap < best:
                    found, best = shape.id, gap
    return found


def inside(ring: Sequence[Point], at: Point) -> bool:
    """Whether a point lies in a ring, by crossings."""
    x, y = at
    odd = False
    for (ax, ay), (bx, by) in zip(ring, (*ring[1:], ring[0]), strict=True):
        if (ay > y) != (by > y) and x < ax + (y - ay) / (by - ay) * (bx - ax):
            odd = not odd
    return odd


def _off(p: Point, a: Point, b: Point) -> float:
    dx, dy = b[0] - a[0], b[1] - a[1]
    long = dx * dx + dy * dy
    share = 0.0 if long <= 0 else min(max(((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / long, 0.0), 1.0)
    return math.hypot(a[0] + share * dx - p[0], a[1] + share * dy - p[1])
