"""What several schools lay alike: uprights on a grid, backing at sheet joints, ribs around holes."""

from __future__ import annotations

import numpy as np
from msgspec.structs import replace

from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.member import Point2
from uncle_sled.core.framing.school import Hole

MOST_STATIONS = 400


def name_at(station: float) -> str:
    """A station on a face as the anchor of a key."""
    return f"{station:.3f}"


def stations(low: float, high: float, pitch: float) -> list[float]:
    """Grid stations from the low end on, the ends left out. Also where sheets of that size meet."""
    many = min(int((high - low) / pitch + 1e-6), MOST_STATIONS)
    return [at for k in range(1, many + 1) if (at := low + pitch * k) < high - 1e-6]


def uprights(cut: Cutter, section: Point2, pitch: float, sheet: float, role: str, ends: bool = True) -> None:
    """Uprights at both ends, at the sheet joints and on the grid."""
    left, low, right, high = cut.region.bounds
    b = section[0]
    if ends:
        for s in (left + b / 2, right - b / 2):
            cut.upright(s, "end", name_at(s), section, low, high)
    meet = stations(left, right, sheet)
    for s in meet:
        cut.upright(s, role, name_at(s), section, low, high, joint=True)
    for s in stations(left, right, pitch):
        if all(abs(s - other) >= 1.02 * b for other in meet):
            cut.upright(s, role, name_at(s), section, low, high)


def blocking(cut: Cutter, section: Point2, sheet: float) -> None:
    """Short pieces between the uprights where one sheet stands on another."""
    left, low, right, high = cut.region.bounds
    for t in stations(low, high, sheet):
        cut.level(t, "blocking", name_at(t), section, left, right)


def name_cripples(cut: Cutter, role: str, holes: list[Hole]) -> None:
    """What stands under a sill or over a header is a cripple."""
    for at, member in enumerate(cut.members):
        if member.role == role:
            left, _, right, _ = cut.bounds[at]
            if any(hole.left - 1e-6 < (left + right) / 2 < hole.right + 1e-6 for hole in holes):
                cut.members[at] = replace(member, kind="cripple")


def rib_stations(left: float, right: float, b: float, pitch: float) -> list[float]:
    """First and last rib flush with the ends, the rest shared evenly at no more than the pitch."""
    first, last = left + b / 2, right - b / 2
    if last <= first:
        return [(left + right) / 2]
    gaps = min(max(1, int(np.ceil((last - first) / pitch - 1e-6))), MOST_STATIONS)
    return [float(at) for at in np.linspace(first, last, gaps + 1)]


def ribs(cut: Cutter, section: Point2, pitch: float, sheet: tuple[float, float], holes: list[Hole], role: str, rims: bool) -> None:
    """Ribs across a floor, roof or swept skin, boxed around its holes; sheets lie with their length across.

    rims: sticks along both edges; without them the edges lie on cut sides.
    """
    left, low, right, high = cut.region.bounds
    b = section[0]
    for hole in holes:  # headers before trimmers: they span the hole only
        if hole.low > low + 1e-6:
            cut.level(hole.low - b / 2, "header", f"{hole.id}/low", section, hole.left, hole.right)
        if hole.high < high - 1e-6:
            cut.level(hole.high + b / 2, "header", f"{hole.id}/high", section, hole.left, hole.right)
    if rims:
        cut.level(low + b / 2, "rim", "low", section, left, right)
        cut.level(high - b / 2, "rim", "high", section, left, right)
    for hole in holes:
        if hole.left > left + 1e-6:
            cut.upright(hole.left - b / 2, "trimmer", f"{hole.id}/front", section, low, high)
        if hole.right < right - 1e-6:
            cut.upright(hole.right + b / 2, "trimmer", f"{hole.id}/rear", section, low, high)
    wide, long = sheet
    meet = stations(left, right, wide)
    for s in meet:
        cut.upright(s, role, name_at(s), section, low, high, joint=True)
    for s in rib_stations(left, right, b, pitch):
        if all(abs(s - other) >= 1.02 * b for other in meet):
            cut.upright(s, role, name_at(s), section, low, high)
    for t in stations(low, high, long):
        cut.level(t, "blocking", name_at(t), section, left, right)
