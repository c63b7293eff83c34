"""A piece of the build as a closed solid: its corners in space and the triangles of its skin, which look outward.

Stations aft of the ball, sides to the right, heights up [m]. Triangles of one ``plane`` are one flat or smoothly bent face: no
edge is drawn between them. Source: prisms and the divergence theorem (any solid geometry text).
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Sequence
from functools import lru_cache

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely import constrained_delaunay_triangles
from shapely.geometry import Polygon

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Place = Callable[[Floats, Floats, float], Floats]  # s, t of n points and a depth -> (n, 3)
SMOOTH_COS = math.cos(math.radians(25.0))  # sides that turn by less are one bent face
LEAST_M2 = 1e-9


class Mesh(msgspec.Struct, frozen=True, eq=False):
    """points: (n, 3) [m]; triangles: (m, 3) of their indices, outward; planes: (m,) number of the face that each is of."""

    points: Floats
    triangles: Ints
    planes: Ints

    @property
    def volume_m3(self) -> float:
        """By the divergence theorem; right for what is closed."""
        a, b, c = (self.points[self.triangles[:, k]] for k in range(3))
        return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6.0)

    @property
    def middle(self) -> Floats:
        """Of its box [m], shape (3,)."""
        return np.asarray((self.points.min(axis=0) + self.points.max(axis=0)) / 2)


NO_MESH = Mesh(np.zeros((0, 3)), np.zeros((0, 3), dtype=np.int64), np.zeros(0, dtype=np.int64))


def joined(meshes: Sequence[Mesh]) -> Mesh:
    """Several as one; their faces stay their own."""
    found = [mesh for mesh in meshes if len(mesh.triangles)]
    if len(found) <= 1:
        return found[0] if found else NO_MESH
    points, planes = 0, 0
    triangles, faces = [], []
    for mesh in found:
        triangles.append(mesh.triangles + points)
        faces.append(mesh.planes + planes)
        points += len(mesh.points)
        planes += int(mesh.planes.max()) + 1
    return Mesh(np.concatenate([mesh.points for mesh in found]), np.concatenate(triangles), np.concatenate(faces))


def block(low: Sequence[float], high: Sequence[float]) -> Mesh:
    """A box along the axes. Args: low, high: corners, either way round [m]."""
    (x0, y0, z0), (x1, y1, z1) = np.minimum(low, high).tolist(), np.maximum(low, high).tolist()
    return prism(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), _level, (z0, z1))


def _level(s: Floats, t: Floats, depth: float) -> Floats:
    return np.stack([s, t, np.full(len(s), depth)], axis=1)


def plank(a: Sequence[float], b: Sequence[float], wide_m: float, high_m: float) -> Mesh:
    """A bar between two places, along its upper middle line, lying or leaning in plan [m]."""
    begin, end = np.array(a, dtype=float), np.array(b, dtype=float)
    run = end - begin
    long = float(np.hypot(run[0], run[1]))
    if long < 1e-6:
        return NO_MESH
    side = np.array([-run[1], run[0], 0.0]) / long * wide_m / 2

    def place(s: Floats, t: Floats, depth: float) -> Floats:
        return np.asarray(begin + np.outer(s, run) + np.outer(t, side) - np.array([0.0, 0.0, depth]))

    return prism(((0.0, -1.0), (1.0, -1.0), (1.0, 1.0), (0.0, 1.0)), place, (0.0, high_m))


def wheel(at: Sequence[float], radius_m: float, wide_m: float, corners: int = 28) -> Mesh:
    """A cylinder across the rig. Args: at: its middle [m]."""
    x, y, z = (float(v) for v in at)
    turn = [2 * math.pi * k / corners for k in range(corners)]

    def place(s: Floats, t: Floats, depth: float) -> Floats:
        return np.stack([x + s, np.full(len(s), y + depth), z + t], axis=1)

    return prism([(radius_m * math.cos(w), radius_m * math.sin(w)) for w in turn], place, (-wide_m / 2, wide_m / 2))


def prism(ring: Sequence[tuple[float, float]], place: Place, span: tuple[float, float]) -> Mesh:
    """An outline without holes from one depth to another. Args: ring: (s, t), either way round; span: both depths [m]."""
    corners = np.array(ring, dtype=float)
    if len(corners) > 1 and np.allclose(corners[0], corners[-1]):
        corners = corners[:-1]
    if len(corners) < 3:
        return NO_MESH
    if _area(corners) < 0:
        corners = corners[::-1]
    if not _convex(corners):
        return prism_of(Polygon(corners), place, span)
    k = np.arange(1, len(corners) - 1)
    fan = np.stack([np.zeros_like(k), k, k + 1], axis=1)
    return _closed(corners, fan, [corners], place, span)


def prism_of(shape: Polygon, place: Place, span: tuple[float, float], stops: Sequence[float] = ()) -> Mesh:
    """The same of any outline with holes. Args: stops: s at which its face bends: every flat strip between them is its own."""
    meshes = []
    for part in _polygons(shape):
        rings = [_followed(ring, stops) for ring in (part.exterior, *part.interiors)]
        rings = [ring if (_area(ring) > 0) == (k == 0) else ring[::-1] for k, ring in enumerate(rings)]
        flat: list[Floats] = []
        for strip in _strips(part, stops):
            flat += [np.array(triangle.exterior.coords)[:3, :2] for triangle in getattr(constrained_delaunay_triangles(strip), "geoms", ())]
        if not flat:
            continue
        points = np.concatenate([triangle if _area(triangle) > 0 else triangle[::-1] for triangle in flat])
        meshes.append(_closed(points, np.arange(len(points)).reshape(-1, 3), rings, place, span))
    return joined(meshes)


def _closed(caps: Floats, triangles: Ints, rings: Sequence[Floats], place: Place, span: tuple[float, float]) -> Mesh:
    """Two caps and the walls between them. Args: caps, triangles: of one cap, counterclockwise; rings: the outer one likewise."""
    low, high = min(span), max(span)
    if high - low <= 0:
        return NO_MESH
    points = [place(caps[:, 0], caps[:, 1], low), place(caps[:, 0], caps[:, 1], high)]
    many = len(caps)
    made = [triangles[:, ::-1], triangles + many]
    planes = [np.zeros(len(triangles), dtype=np.int64), np.ones(len(triangles), dtype=np.int64)]
    base, face = 2 * many, 2
    for ring in rings:
        n = len(ring)
        points += [place(ring[:, 0], ring[:, 1], low), place(ring[:, 0], ring[:, 1], high)]
        here = np.arange(n)
        after = _after(n)
        made += [
            np.stack([base + here, base + after, base + n + after], axis=1),
            np.stack([base + here, base + n + after, base + n + here], axis=1),
        ]
        numbers = face + _sides(ring)
        planes += [numbers, numbers]
        base, face = base + 2 * n, int(numbers.max()) + 1
    corners, parts = np.concatenate(points), np.concatenate(made)
    # the upper cap turns to its left: where it looks back to the lower one, the place is a mirror and all is turned
    first, second, third = (corners[triangles[:, k] + many] for k in range(3))
    across = np.cross(second - first, third - first)
    mirrored = float(np.einsum("ij,ij->", across, first - corners[triangles[:, 0]])) < 0
    return Mesh(corners, parts[:, ::-1] if mirrored else parts, np.concatenate(planes))


@lru_cache(maxsize=256)
def _after(many: int) -> Ints:
    return np.concatenate([np.arange(1, many), [0]])


@lru_cache(maxsize=256)
def _before(many: int) -> Ints:
    return np.concatenate([[many - 1], np.arange(many - 1)])


def _sides(ring: Floats) -> Ints:
    """The number of the side that each edge of a ring belongs to: edges that hardly turn are one."""
    run = ring[_after(len(ring))] - ring
    run /= np.maximum(np.hypot(run[:, 0], run[:, 1]), 1e-12)[:, None]
    turns = np.einsum("ij,ij->i", run, run[_before(len(ring))]) < SMOOTH_COS  # at the edge's beginning
    if not turns.any():
        return np.zeros(len(ring), dtype=np.int64)
    return np.asarray((np.cumsum(turns) - 1) % int(turns.sum()), dtype=np.int64)


def _area(ring: Floats) -> float:
    other = ring[_after(len(ring))]
    return float(ring[:, 0] @ other[:, 1] - other[:, 0] @ ring[:, 1]) / 2


def _convex(ring: Floats) -> bool:
    run = ring[_after(len(ring))] - ring
    after = run[_after(len(ring))]
    return bool((run[:, 0] * after[:, 1] - run[:, 1] * after[:, 0] >= -1e-12).all())


def _followed(ring: object, stops: Sequence[float]) -> Floats:
    """A ring's corners, with one more wherever it crosses a stop."""
    corners = [(float(x), float(y)) for x, y, *_ in ring.coords]  # type: ignore[attr-defined]
    made: list[tuple[float, float]] = []
    for (ax, ay), (bx, by) in itertools.pairwise(corners):
        made.append((ax, ay))
        between = [at for at in stops if min(ax, bx) + 1e-9 < at < max(ax, bx) - 1e-9]
        for at in sorted(between, reverse=bx < ax):
            made.append((at, ay + (by - ay) * (at - ax) / (bx - ax)))
    return np.array(made)


def _strips(part: Polygon, stops: Sequence[float]) -> list[Polygon]:
    left, low, right, high = part.bounds
    inside = [at for at in stops if left + 1e-9 < at < right - 1e-9]
    if not inside:
        return [part]
    found: list[Polygon] = []
    for a, b in itertools.pairwise([left - 1.0, *inside, right + 1.0]):
        band = Polygon([(a, low - 1), (b, low - 1), (b, high + 1), (a, high + 1)])
        found += _polygons(part.intersection(band))
    return found


def _polygons(shape: object) -> list[Polygon]:
    return [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and part.area > LEAST_M2]
