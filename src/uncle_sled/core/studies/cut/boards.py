"""Cladding by run: boards side by side over a face, each cut to what it covers; the cut at their ends and the jig for it.

Boards n = ceil(L / cover). A last strip under a third of the cover is shared with the first: both ends get the same.
Source: shop notes. Check: 3,000 wide, 2,000 rising 450, cover 135: 23 boards, 8.531 degrees, first 2,020, last 2,450.
"""

from __future__ import annotations

import itertools
import math

from shapely import box
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.geometry.ring import corners_of

LEAST_SHARE = 1 / 3


def edges_m(long_m: float, cover_m: float) -> tuple[float, ...]:
    """Where boards meet over a run [m], from 0 to its end."""
    many = max(math.ceil(long_m / cover_m - 1e-9), 1)
    last = long_m - (many - 1) * cover_m
    first = cover_m
    if many > 2 and last < LEAST_SHARE * cover_m - 1e-9:
        first = (long_m - (many - 2) * cover_m) / 2
    at = [0.0, *(first + k * cover_m for k in range(many - 1)), long_m]
    return tuple(min(one, long_m) for one in at)


def strips(shape: BaseGeometry, cover_m: float, *, even: bool = True) -> list[BaseGeometry]:
    """A face in upright strips of one board each, from its left to its right [m]. Args: even: a narrow rest is shared with the one before."""
    x0, y0, x1, y1 = shape.bounds
    plain = [min(k * cover_m, x1 - x0) for k in range(math.ceil((x1 - x0) / cover_m - 1e-9) + 1)]
    at = [x0 + one for one in (edges_m(x1 - x0, cover_m) if even else plain)]
    return [shape.intersection(box(a, y0 - 1, b, y1 + 1)) for a, b in itertools.pairwise(at) if b - a > 1e-6]


def board_ends(part: Polygon) -> tuple[float, float]:
    """How far the foot and the head of an upright board are off square [degrees], by its corners at both edges."""
    x0, _, x1, _ = part.bounds
    wide = x1 - x0
    if wide < 1e-6:
        return 0.0, 0.0
    ring = corners_of(part.exterior)
    left = [y for x, y in ring if abs(x - x0) < 1e-6]
    right = [y for x, y in ring if abs(x - x1) < 1e-6]
    foot = math.degrees(math.atan2(min(right) - min(left), wide))
    head = math.degrees(math.atan2(max(right) - max(left), wide))
    return round(foot, 1) + 0.0, round(head, 1) + 0.0
