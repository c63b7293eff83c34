"""Solids seen from one side: which face is the nearest under every pixel, by a depth buffer, without a graphics card.

Triangles that look away are left out, the others laid line by line into spans and pixels, all at once in arrays; of those over one
pixel the nearest stays. Parallel sight lines: what is parallel is drawn so and lengths keep their scale. Source: depth buffer and
scan conversion (any computer graphics text).
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.round.mesh import Floats, Ints
from uncle_sled.core.round.round_piece import RoundPiece

Bytes = NDArray[np.uint8]
NOTHING = -1
AT_ONCE = 400_000  # pixels that are laid in one go, so that memory stays small
LIGHT = np.array([-0.35, 0.45, 0.82])  # where it comes from, as the viewer sees it: right, up, towards him
STEEPEST_DEG = 89.0


class Sight(msgspec.Struct, frozen=True):
    """Where one looks from. around_deg: 0 from behind, 90 from the left side, 180 from before it; over_deg: up from level.

    scale: pixels a metre; at: what is in the middle [m], shape (3,).
    """

    around_deg: float = 35.0
    over_deg: float = 25.0
    scale: float = 100.0
    at: tuple[float, float, float] = (0.0, 0.0, 0.0)

    @property
    def axes(self) -> Floats:
        """Right, up and towards the viewer as rows, unit vectors."""
        w, e = math.radians(self.around_deg), math.radians(max(min(self.over_deg, STEEPEST_DEG), -STEEPEST_DEG))
        toward = np.array([math.cos(w) * math.cos(e), -math.sin(w) * math.cos(e), math.sin(e)])
        right = np.array([math.sin(w), math.cos(w), 0.0])
        return np.stack([right, np.cross(toward, right), toward])


NO_FACE, NO_DEPTH = np.zeros((0, 0), dtype=np.int32), np.zeros((0, 0), dtype=np.float32)


class Scene(msgspec.Struct, frozen=True, eq=False):
    """Many solids as arrays. of: (p,) solid of every point; triangles (m, 3); face: (m,) number of its face among all.

    solid: (f,) of every face; normals: (f,) of its first triangle, for its shade, shape (f, 3).
    """

    points: Floats
    of: Ints
    triangles: Ints
    face: Ints
    solid: Ints
    normal: Floats
    many: int


class Picture(msgspec.Struct, frozen=True, eq=False):
    """What is seen; done: False while it is still painted, and then empty. face: (h, w) number of the nearest face, -1 where there is nothing; depth: (h, w) towards the viewer [m]."""

    face: NDArray[np.int32]
    depth: NDArray[np.float32]
    sight: Sight
    done: bool = True

    def at(self, x: float, y: float) -> int:
        """Face under a pixel, -1 for none; x from the left, y from the top."""
        h, w = self.face.shape
        return int(self.face[int(y), int(x)]) if 0 <= x < w and 0 <= y < h else NOTHING


def scene_of(pieces: Sequence[RoundPiece]) -> Scene:
    """All of them in one; their order is the numbers of ``solid``."""
    points, of, triangles, face, solid = [], [], [], [], []
    base = faces = 0
    for k, each in enumerate(pieces):
        mesh = each.mesh
        if not len(mesh.triangles):
            continue
        points.append(mesh.points)
        of.append(np.full(len(mesh.points), k))
        triangles.append(mesh.triangles + base)
        face.append(mesh.planes + faces)
        many = int(mesh.planes.max()) + 1
        solid.append(np.full(many, k))
        base, faces = base + len(mesh.points), faces + many
    if not points:
        none = np.zeros(0, dtype=np.int64)
        return Scene(np.zeros((0, 3)), none, np.zeros((0, 3), dtype=np.int64), none, none, np.zeros((0, 3)), len(pieces))
    all_points, all_triangles, all_faces = np.concatenate(points), np.concatenate(triangles), np.concatenate(face)
    a, b, c = (all_points[all_triangles[:, k]] for k in range(3))
    across = np.cross(b - a, c - a)
    normal = np.zeros((faces, 3))
    for k in range(3):  # a bent face is shaded by the mean of its parts
        normal[:, k] = np.bincount(all_faces, across[:, k], faces)
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12)
    return Scene(all_points, np.concatenate(of), all_triangles, all_faces, np.concatenate(solid), normal, len(pieces))


def fitting(
    scene: Scene, sight: Sight, size: tuple[int, int], shown: NDArray[np.bool_] | None = None, moved: Floats | None = None
) -> Sight:
    """The same look with everything that is shown in the picture. Args: size: width and height [pixels]."""
    points = _moved(scene, moved)
    if shown is not None:
        points = points[shown[scene.of]]
    if not len(points):
        return sight
    axes = sight.axes
    flat = points @ axes[:2].T
    low, high = flat.min(axis=0), flat.max(axis=0)
    span = np.maximum(high - low, 0.05)
    scale = float(min(size[0] * 0.92 / span[0], size[1] * 0.9 / span[1]))
    middle = (low + high) / 2
    toward = float((points @ axes[2]).mean())
    at = middle @ axes[:2] + toward * axes[2]
    return msgspec.structs.replace(sight, scale=scale, at=(float(at[0]), float(at[1]), float(at[2])))


def _moved(scene: Scene, moved: Floats | None) -> Floats:
    return scene.points if moved is None else scene.points + moved[scene.of]


def seen(scene: Scene, sight: Sight, size: tuple[int, int], shown: NDArray[np.bool_] | None = None, moved: Floats | None = None) -> Picture:
    """The picture, all at once. Args: shown: (n,) which solids; moved: (n, 3) by how much each is drawn away [m]."""
    for picture in painting(scene, sight, size, shown, moved):
        done = picture
    return done


def painting(
    scene: Scene, sight: Sight, size: tuple[int, int], shown: NDArray[np.bool_] | None = None, moved: Floats | None = None
) -> Iterator[Picture]:
    """The picture in steps, so that a hand that moves meanwhile need not wait; the last one is the whole."""
    wide, high = max(int(size[0]), 1), max(int(size[1]), 1)
    nearest = np.full(wide * high, -1, dtype=np.int64)
    axes = sight.axes
    flat = (_moved(scene, moved) - np.array(sight.at)) @ axes.T
    x, y, z = wide / 2 + flat[:, 0] * sight.scale, high / 2 - flat[:, 1] * sight.scale, flat[:, 2]
    far, span = (float(z.min()), max(float(np.ptp(z)), 1e-6)) if len(z) else (0.0, 1.0)
    level = (z - far) / span * STEPS  # the nearer the larger
    triangles = scene.triangles
    number = np.arange(len(triangles))
    if shown is not None and len(triangles):
        number = number[shown[scene.of[triangles[:, 0]]]]
    a, b, c = (triangles[number, k] for k in range(3))
    across = (x[b] - x[a]) * (y[c] - y[a]) - (x[c] - x[a]) * (y[b] - y[a])
    front = across < -1e-9  # y runs down: what looks here turns the other way
    number, a, b, c = number[front], a[front], b[front], c[front]
    spans = _spans(x, y, (a, b, c), wide, high)
    plane = _planes(x, y, level, (a, b, c))
    for span_at in _portions(spans):
        _lay(nearest, span_at, plane, scene.face[number], wide)
        yield Picture(NO_FACE, NO_DEPTH, sight, done=False)
    yield _picture(nearest, sight, (wide, high), far, span)


STEPS = float(1 << 28)
FACES = 1 << 24


def _picture(nearest: Ints, sight: Sight, size: tuple[int, int], far: float, span: float) -> Picture:
    there = nearest >= 0
    face = np.where(there, nearest & (FACES - 1), -1).astype(np.int32)
    depth = np.where(there, (nearest >> 24) / STEPS * span + far, -np.inf).astype(np.float32)
    return Picture(face.reshape(size[1], size[0]), depth.reshape(size[1], size[0]), sight)


Spans = tuple[Ints, Ints, Ints, Ints]  # triangle, row, first column, how many pixels


def _spans(x: Floats, y: Floats, corners: tuple[Ints, Ints, Ints], wide: int, high: int) -> Spans:
    """Every triangle's pixels row by row: those whose middle lies inside."""
    xs, ys = np.stack([x[k] for k in corners], axis=1), np.stack([y[k] for k in corners], axis=1)
    order = np.argsort(ys, axis=1)
    xs, ys = np.take_along_axis(xs, order, axis=1), np.take_along_axis(ys, order, axis=1)
    top = np.clip(np.ceil(ys[:, 0] - 0.5), 0, high).astype(np.int64)
    low = np.clip(np.ceil(ys[:, 2] - 0.5), 0, high).astype(np.int64)
    rows = np.maximum(low - top, 0)
    of = np.repeat(np.arange(len(rows)), rows)
    row = np.arange(len(of)) - np.repeat(np.cumsum(rows) - rows, rows) + top[of]
    at = row + 0.5

    def edge(i: int, j: int) -> Floats:
        rise = ys[:, j] - ys[:, i]
        slope = np.where(np.abs(rise) > 1e-12, (xs[:, j] - xs[:, i]) / np.where(np.abs(rise) > 1e-12, rise, 1.0), 0.0)
        return np.asarray(xs[of, i] + (at - ys[of, i]) * slope[of])

    long, short = edge(0, 2), np.where(at < ys[of, 1], edge(0, 1), edge(1, 2))
    begin = np.clip(np.ceil(np.minimum(long, short) - 0.5), 0, wide).astype(np.int64)
    end = np.clip(np.ceil(np.maximum(long, short) - 0.5), 0, wide).astype(np.int64)
    some = end > begin
    return of[some], row[some], begin[some], (end - begin)[some]


def _planes(x: Floats, y: Floats, level: Floats, corners: tuple[Ints, Ints, Ints]) -> tuple[Floats, Floats, Floats]:
    """Depth over the picture, as level = p x + q y + r of every triangle."""
    a, b, c = corners
    dx1, dy1, dz1 = x[b] - x[a], y[b] - y[a], level[b] - level[a]
    dx2, dy2, dz2 = x[c] - x[a], y[c] - y[a], level[c] - level[a]
    whole = dx1 * dy2 - dx2 * dy1
    p, q = (dz1 * dy2 - dz2 * dy1) / whole, (dx1 * dz2 - dx2 * dz1) / whole
    return p, q, level[a] - p * x[a] - q * y[a]


def _portions(spans: Spans) -> Iterator[Spans]:
    many = np.cumsum(spans[3])
    begin = 0
    while begin < len(many):
        before = int(many[begin - 1]) if begin else 0
        end = max(int(np.searchsorted(many, before + AT_ONCE, side="right")), begin + 1)
        yield tuple([each[begin:end] for each in spans])  # type: ignore[misc]
        begin = end


def _lay(nearest: Ints, spans: Spans, plane: tuple[Floats, Floats, Floats], face: Ints, wide: int) -> None:
    """The pixels of some spans, each only where it is nearer than what is there."""
    of, row, begin, many = spans
    p, q, r = plane
    before = np.cumsum(many) - many
    total = int(many.sum())
    step = np.arange(total)
    pixel = step + np.repeat(row * wide + begin - before, many)
    first = p[of] * (begin + 0.5) + q[of] * (row + 0.5) + r[of]
    level = np.repeat(first - p[of] * before, many) + np.repeat(p[of], many) * step
    key = (np.clip(level, 0.0, STEPS).astype(np.int64) << 24) | np.repeat(face[of], many)
    np.maximum.at(nearest, pixel, key)
