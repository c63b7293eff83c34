"""Which way does a wire go through the body? Along walls, edges, trays and posts, the shortest of the usual ways.

From its first end sideways to a wall, up or down beside a post to the edge of floor or ceiling (or to a tray), along it,
and the same way to its other end; ends near each other, and rigs without a body, are joined straight along the three axes.
A wire that was pulled by hand goes through its bends instead. Length is the route with its rises, one way.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from shapely.geometry import Polygon

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.systems import Bend, Tray
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import UNCUT, Body
from uncle_sled.core.geometry.tops import edges_of, top_m

Spot = tuple[float, float, float]
NEAR_M = 0.6  # ends nearer than this are joined straight
POST_M = 0.3  # a rise goes beside a post that is no further than this
AT_WALL_M = 0.03  # off the inside of a wall, floor or ceiling
SAMPLES = 41


class Inside(msgspec.Struct, frozen=True, eq=False):
    """What a body offers to wires [m]: its inside from front to rear, both walls, floor, ceiling by station, trays."""

    front: float
    rear: float
    side: float  # of a wall from the middle, inside
    floor: float
    stations: tuple[float, ...]
    ceiling: tuple[float, ...]
    trays: tuple[Tray, ...]
    thick: float = 0.0  # of the walls
    half: float = 0.0  # of the width outside
    under: float = 0.0  # underside of the body

    def top(self, x: float) -> float:
        """Height of the ceiling at a station [m]."""
        return float(np.interp(x, self.stations, self.ceiling))


class Ways(msgspec.Struct, frozen=True, eq=False):
    """The inside of a body, and the stations of the posts of its walls [m], beside which a wire rises."""

    inside: Inside
    posts: tuple[float, ...]

    def rises(self, start: Spot, end: Spot) -> tuple[float, float]:
        """Where a wire between two spots goes up or down, at either end: beside a post that is near [m]."""
        return self._beside_post(_brought_in(start, self.inside)[-1][0]), self._beside_post(_brought_in(end, self.inside)[-1][0])

    def _beside_post(self, x: float) -> float:
        near = min(self.posts, key=lambda post: abs(post - x), default=x)
        return near if abs(near - x) <= POST_M else x


@keep("build.shell", "framed", "build.systems.trays", most=4)
def ways_of(build: Build, framed: Framed) -> Ways | None:
    """What the body offers; None where there is no body."""
    inside = _inside(build.shell, framed.body, build.systems.trays) if framed.body is not None else None
    return Ways(inside, _posts(framed)) if inside is not None else None


@keep("body", "trays", *UNCUT, most=4)
def _inside(shell: Shell, body: Body, trays: tuple[Tray, ...]) -> Inside | None:
    if not shell.width:
        return None
    wall = shell.wall.si if shell.wall else 0.0
    front, rear = body.front + wall, body.front + body.length - wall
    if rear - front < 0.1:
        return None
    stations = np.linspace(front, rear, SAMPLES)
    floor = body.under + wall + AT_WALL_M
    tops = [max(top - wall - AT_WALL_M, floor) for top in _tops(body, stations)]
    half = max(body.width / 2 - wall - AT_WALL_M, 0.05)
    return Inside(
        front,
        rear,
        side=half,
        floor=floor,
        stations=tuple(stations.tolist()),
        ceiling=tuple(tops),
        trays=trays,
        thick=wall,
        half=body.width / 2,
        under=body.under,
    )


def _tops(body: Body, stations: np.ndarray) -> list[float]:
    edges = edges_of(Polygon(body.side.polygon))
    highest = float(edges[:, [1, 3]].max())
    tops = [top_m(edges, float(x), 0.0) for x in stations]
    return [top if top is not None else highest for top in tops]


def _posts(framed: Framed) -> tuple[float, ...]:
    """Stations of the uprights of the left wall [m]."""
    return tuple(sorted({round(member.at_m[0], 3) for member in framed.on("left side") if not member.along_s}))


def length_m(points: tuple[Spot, ...]) -> float:
    """Length of a way from spot to spot [m]."""
    return sum(math.dist(a, b) for a, b in itertools.pairwise(points))


def route(
    start: Spot, end: Spot, bends: tuple[Bend, ...], inside: Inside | None, rises: tuple[float, float] | None = None
) -> tuple[Spot, ...]:
    """The points of a wire from end to end, those that a hand set in between. Args: rises: where it goes up or down (`Ways.rises`)."""
    if bends:
        return _clean((start, *((b.x.si, b.y.si, b.z.si) for b in bends), end))
    if inside is None or rises is None or sum(abs(a - b) for a, b in zip(start, end, strict=True)) < NEAR_M:
        return _clean((start, (end[0], start[1], start[2]), (end[0], start[1], end[2]), end))
    tried = [_clean(candidate) for candidate in _candidates(start, end, inside, rises)]
    return min(tried, key=lambda one: (round(length_m(one), 4), len(one)))


def _candidates(start: Spot, end: Spot, inside: Inside, rises: tuple[float, float]) -> list[tuple[Spot, ...]]:
    outer, inner = _brought_in(start, inside), _brought_in(end, inside)
    a, b = outer[-1], inner[-1]
    made: list[tuple[Spot, ...]] = []
    xa, xb = rises
    for s in (-inside.side, inside.side):
        for t in (-inside.side, inside.side):
            if s == t:
                made.append((*outer, (a[0], s, a[2]), (b[0], s, a[2]), (b[0], s, b[2]), *reversed(inner)))
            made.append(_over(outer, inner, s, t, ((xa, inside.floor), (xb, inside.floor))))
            made.append(_over(outer, inner, s, t, _ceiling(xa, xb, inside)))
    for tray in inside.trays:
        low, high = min(tray.front.si, tray.rear.si), max(tray.front.si, tray.rear.si)
        ta, tb = min(max(a[0], low), high), min(max(b[0], low), high)
        y, z = tray.y.si, tray.z.si
        made.append((*outer, (ta, a[1], a[2]), (ta, a[1], z), (ta, y, z), (tb, y, z), (tb, b[1], z), (tb, b[1], b[2]), *reversed(inner)))
    return made


def _over(outer: tuple[Spot, ...], inner: tuple[Spot, ...], s: float, t: float, along: tuple[tuple[float, float], ...]) -> tuple[Spot, ...]:
    """To the wall at s, beside a post to the edge, along it, and at its end over to the wall at t.

    Args: along: stations and heights of the edge, from the first post to the last.
    """
    a, b = outer[-1], inner[-1]
    (xa, _), (xb, zb) = along[0], along[-1]
    to_edge = ((a[0], s, a[2]), (xa, s, a[2]))
    across = ((xb, t, zb),) if s != t else ()
    return (*outer, *to_edge, *((x, s, z) for x, z in along), *across, (xb, t, b[2]), (b[0], t, b[2]), *reversed(inner))


def _ceiling(xa: float, xb: float, inside: Inside) -> tuple[tuple[float, float], ...]:
    """The edge of the ceiling from one station to another."""
    between = [x for x in inside.stations if min(xa, xb) < x < max(xa, xb)]
    stations = (xa, *(between if xb >= xa else reversed(between)), xb)
    return tuple((x, inside.top(x)) for x in stations)


def _brought_in(spot: Spot, inside: Inside) -> tuple[Spot, ...]:
    """From an end outside of the body along it to where it goes in; the end itself where it is inside."""
    x = min(max(spot[0], inside.front), inside.rear)
    z = min(max(spot[2], inside.floor), inside.top(x))
    y = min(max(spot[1], -inside.side), inside.side)
    return tuple(dict.fromkeys((spot, (x, spot[1], spot[2]), (x, y, z))))


def _clean(points: tuple[Spot, ...]) -> tuple[Spot, ...]:
    """Without points that stand twice, or in the middle of a straight run along one axis."""
    made: list[Spot] = []
    for point in points:
        if made and math.dist(made[-1], point) < 1e-6:
            continue
        if len(made) > 1 and _straight(made[-2], made[-1], point):
            made[-1] = point
        else:
            made.append(point)
    return tuple(made) if len(made) > 1 else (points[0], points[-1])


def _straight(a: Spot, b: Spot, c: Spot) -> bool:
    moved = [k for k in range(3) if abs(b[k] - a[k]) > 1e-9 or abs(c[k] - b[k]) > 1e-9]
    return len(moved) == 1 and (b[moved[0]] - a[moved[0]]) * (c[moved[0]] - b[moved[0]]) > 0
