"""How far an outline turns at each of its corners: what parts a curve's chords from real corners."""

from __future__ import annotations

import math
from collections.abc import Sequence

Point = tuple[float, float]


def turns_deg(ring: Sequence[Point]) -> list[float]:
    """Change of way at every corner, 0 to 180 [degrees]. Args: ring: not closed; corners that coincide turn by nothing."""
    made = []
    for before, at, after in zip([ring[-1], *ring[:-1]], ring, [*ring[1:], ring[0]], strict=True):
        (ax, ay), (bx, by) = (at[0] - before[0], at[1] - before[1]), (after[0] - at[0], after[1] - at[1])
        made.append(abs(math.degrees(math.atan2(ax * by - ay * bx, ax * bx + ay * by))))
    return made
