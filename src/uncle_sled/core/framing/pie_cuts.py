"""Where a square tube is sawn and folded so that it runs outside along a curve, and how wide each cut is.

The straight ends run on as tangents, so the folds lie outside the arc and stand proud of it by R (1/cos(alpha/2) - 1), held
to a tolerance; facets between folds are 2 R tan(alpha/2) long. A curve that is no arc is parted where its turning, each
bit of it over what a fold there may take, comes to equal shares. Source: shop notes, pie cuts with their corrections.
Check: 30 x 30 x 2, 90 deg on R 0.600 within 1.0 mm: 13.61, so 14 folds of 6.429 deg, facets 67.39 mm, ends 33.70, proud
0.945 mm, 3.14 mm wide, 3.26 by the mid-plane; plain 2 mm cuts close 3.950 deg each: 23, facets 40.99 mm.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.errors import GeometryError

Floats = NDArray[np.float64]
TOLERANCE_M, LEAST_TOLERANCE_M, MOST_FOLDS = 0.001, 1e-4, 300
KINK_RAD = math.radians(18.0)  # turned at one point by more: a mitred joint, not a bend
LEAST_TURN_RAD = math.radians(0.6)  # less than that a tube is pulled into place
STRAIGHT_M = 25.0  # a radius over this counts as straight
KERF_M = 0.002  # of a saw for tube, where nobody said another


class PieCut(msgspec.Struct, frozen=True):
    """One fold. at_m: along the outer face from the bar's start; turn in degrees; widths at the sawn face [m].

    inside: the sawn face is that towards the body, as on a roof that rounds over; else it is the outer.
    """

    at_m: float
    turn_deg: float
    width_m: float
    width_mid_m: float
    radius_m: float
    inside: bool = True


class Hoop(msgspec.Struct, frozen=True):
    """A bar that is folded along a curve: its corners on the outer face [m], its length there, and its cuts."""

    points: tuple[tuple[float, float], ...]
    length_m: float
    cuts: tuple[PieCut, ...]


def most_turn_rad(radius_m: float, tolerance_m: float) -> float:
    """How much one fold may turn [rad] and its corner stand proud by no more than the tolerance."""
    return 2 * math.acos(radius_m / (radius_m + tolerance_m))


def cut_widths_m(turn_rad: float, deep_m: float, wall_m: float) -> tuple[float, float]:
    """Width of a cut at the sawn face, the outer wall left whole; and by the fold's mid-plane, which closes it really."""
    half = math.tan(turn_rad / 2)
    return 2 * (deep_m - wall_m) * half, 2 * (deep_m - wall_m / 2) * half


def plain_turn_rad(kerf_m: float, deep_m: float, wall_m: float) -> float:
    """What a parallel kerf closes by, and no further [rad]. Check 2 mm in 30 x 2: 3.950 deg."""
    return 2 * math.atan(kerf_m / (2 * (deep_m - wall_m / 2)))


def hoops(points: Floats, deep_m: float, wall_m: float, tolerance_m: float = TOLERANCE_M) -> list[Hoop]:
    """Bars along a curve, one between any two kinks. Args: points: (n, 2) of the outer face, the body on the right hand.

    Raises: GeometryError: a radius under the tube's depth, a cut wider than half a facet, a wall as thick as half the tube.
    """
    if wall_m * 2 >= deep_m:
        raise GeometryError(f"A tube {{{deep_m * 1000:.0f} mm}} deep has no hollow with a wall of {{{wall_m * 1000:.1f} mm}}.")
    tolerance_m = max(tolerance_m, LEAST_TOLERANCE_M)
    made = []
    for part in parted_at_kinks(points):
        made.append(_hoop(part, deep_m, wall_m, tolerance_m))
    return made


def parted_at_kinks(points: Floats) -> list[Floats]:
    """The curve in runs that nowhere turn by more than a kink at one point."""
    points = _without_doubles(points)
    if len(points) < 2:
        return []
    ways = np.diff(points, axis=0)
    angles = np.unwrap(np.arctan2(ways[:, 1], ways[:, 0]))
    kinks = [k + 1 for k in range(len(angles) - 1) if abs(angles[k + 1] - angles[k]) > KINK_RAD]
    ends = [0, *kinks, len(points) - 1]
    return [points[a : b + 1] for a, b in itertools.pairwise(ends)]


def _without_doubles(points: Floats) -> Floats:
    keep = np.concatenate([[True], np.hypot(*np.diff(points, axis=0).T) > 1e-6])
    return np.asarray(points[keep])


def _hoop(points: Floats, deep_m: float, wall_m: float, tolerance_m: float) -> Hoop:
    ways = np.diff(points, axis=0)
    long = np.hypot(*ways.T)
    angles = np.unwrap(np.arctan2(ways[:, 1], ways[:, 0]))
    run = np.concatenate([[0.0], np.cumsum(long)])
    middles = (run[:-1] + run[1:]) / 2
    turns = np.diff(angles)
    spans = np.diff(middles)
    radius = np.where(np.abs(turns) > 1e-12, spans / np.maximum(np.abs(turns), 1e-12), np.inf)
    bent = radius < STRAIGHT_M
    corners: list[tuple[float, float]] = [(float(points[0, 0]), float(points[0, 1]))]
    folded: list[tuple[int, float, float]] = []  # corner's index, turn with its sign, radius
    at = 0
    while at < len(turns):
        if not bent[at]:
            at += 1
            continue
        end = at
        while end < len(turns) and bent[end] and (turns[end] > 0) == (turns[at] > 0):
            end += 1
        _bend(points, run, middles, angles, (at, end), tolerance_m, corners, folded)
        at = end
    corners.append((float(points[-1, 0]), float(points[-1, 1])))
    return _with_cuts(corners, folded, deep_m, wall_m)


def _bend(
    points: Floats,
    run: Floats,
    middles: Floats,
    angles: Floats,
    between: tuple[int, int],
    tolerance_m: float,
    corners: list[tuple[float, float]],
    folded: list[tuple[int, float, float]],
) -> None:
    """Folds of one bend between the middles of two edges."""
    at, end = between
    turn = angles[at + 1 : end + 1] - angles[at:end]
    span = middles[at + 1 : end + 1] - middles[at:end]
    total = float(turn.sum())
    if abs(total) < LEAST_TURN_RAD:
        return
    radius = span / np.maximum(np.abs(turn), 1e-12)
    share = np.abs(turn) / np.array([most_turn_rad(float(r), tolerance_m) for r in radius])
    grown = np.concatenate([[0.0], np.cumsum(share)])
    if grown[-1] > MOST_FOLDS:
        raise GeometryError(
            f"It would take over {MOST_FOLDS} folds; a wider tolerance than {{{tolerance_m * 1000:.1f} mm}} would be right."
        )
    many = max(math.ceil(grown[-1] - 1e-9), 1)
    marks = np.linspace(0.0, grown[-1], many + 1)
    place = np.interp(marks, grown, middles[at : end + 1])
    way = np.interp(marks, grown, angles[at : end + 1])
    for k in range(many):
        a, b = _on(points, run, place[k]), _on(points, run, place[k + 1])
        corner = _meet(a, way[k], b, way[k + 1])
        folded.append((len(corners), float(way[k + 1] - way[k]), float(radius.min())))
        corners.append(corner)


def _on(points: Floats, run: Floats, at: float) -> tuple[float, float]:
    return float(np.interp(at, run, points[:, 0])), float(np.interp(at, run, points[:, 1]))


def _meet(a: tuple[float, float], way_a: float, b: tuple[float, float], way_b: float) -> tuple[float, float]:
    """Where the tangents at two points of a curve meet; the middle between them where it hardly turns."""
    ca, sa, cb, sb = math.cos(way_a), math.sin(way_a), math.cos(way_b), math.sin(way_b)
    det = ca * sb - sa * cb
    if abs(det) < 1e-9:
        return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
    u = ((b[0] - a[0]) * sb - (b[1] - a[1]) * cb) / det
    return a[0] + u * ca, a[1] + u * sa


def _with_cuts(corners: list[tuple[float, float]], folded: list[tuple[int, float, float]], deep_m: float, wall_m: float) -> Hoop:
    sides = [math.dist(a, b) for a, b in itertools.pairwise(corners)]
    run = np.concatenate([[0.0], np.cumsum(sides)])
    cuts = []
    for k, turn, radius in folded:
        if radius < deep_m:
            raise GeometryError(
                f"A tube {{{deep_m * 1000:.0f} mm}} deep does not go round a radius of {{{radius * 1000:.0f} mm}}; a rounder profile or a smaller tube would be right."
            )
        width, mid = cut_widths_m(abs(turn), deep_m, wall_m)
        facet = min(sides[k - 1], sides[k])
        if mid > facet / 2:
            raise GeometryError(
                f"Cuts of {{{mid * 1000:.1f} mm}} every {{{facet * 1000:.0f} mm}} leave no tube between them; a rounder profile, a smaller tube or a wider tolerance would be right."
            )
        cuts.append(PieCut(float(run[k]), math.degrees(abs(turn)), width, mid, radius, turn < 0))
    return Hoop(tuple(corners), float(run[-1]), tuple(cuts))
