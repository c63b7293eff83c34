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
    """Many solids as arrays. of: (p,) solid of every point; corners (m, 4) of flat convex parts, the last twice in a triangle.

    face: (m,) number of the face that each part is of, among all.

    solid: (f,) of every face; normals: (f,) of its first triangle, for its shade, shape (f, 3).
    """

    points: Floats
    of: Ints
    corners: Ints
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
        return Scene(np.zeros((0, 3)), none, np.zeros((0, 4), dtype=np.int64), none, none, np.zeros((0, 3)), len(pieces))
    all_points, all_triangles, all_faces = np.concatenate(points), np.concatenate(triangles), np.concatenate(face)
    a, b, c = (all_points[all_triangles[:, k]] for k in range(3))
    across = np.cross(b - a, c - a)
    normal = np.zeros((faces, 3))
    for k in range(3):  # a bent face is shaded by the mean of its parts
        normal[:, k] = np.bincount(all_faces, across[:, k], faces)
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12)
    corners, face_of = _quads(all_points, all_triangles, all_faces)
    return Scene(all_points, np.concatenate(of), corners, face_of, np.concatenate(solid), normal, len(pieces))


def _quads(points: Floats, triangles: Ints, face: Ints) -> tuple[Ints, Ints]:
    """Faces of two triangles as one part with four corners, where it is convex; all others triangle by triangle."""
    many = np.bincount(face, minlength=int(face.max()) + 1)
    order = np.argsort(face, kind="stable")
    pair = order[many[face[order]] == 2].reshape(-1, 2)
    one, other = triangles[pair[:, 0]], triangles[pair[:, 1]]
    away = (one[:, :, None] != other[:, None, :]).all(axis=2)  # its corner that the other has not
    joins = away.sum(axis=1) == 1
    pair, one, other, away = pair[joins], one[joins], other[joins], away[joins]
    k = np.argmax(away, axis=1)
    row = np.arange(len(k))
    fourth = other[(other[:, :, None] != one[:, None, :]).all(axis=2)]
    quad = np.stack([one[row, k], one[row, (k + 1) % 3], fourth, one[row, (k + 2) % 3]], axis=1)
    at = points[quad]
    run = np.roll(at, -1, axis=1) - at
    bends = np.cross(run, np.roll(run, -1, axis=1))
    convex = (np.einsum("ijk,ik->ij", bends, bends.sum(axis=1)) >= 0).all(axis=1)
    flat = np.abs(np.einsum("ij,ij->i", at[:, 3] - at[:, 0], bends.sum(axis=1))) < 1e-9
    good = convex & flat
    left = np.ones(len(triangles), dtype=bool)
    left[pair[good].ravel()] = False
    single = triangles[left]
    return np.concatenate([quad[good], single[:, [0, 1, 2, 2]]]), np.concatenate([face[pair[good, 0]], face[left]])


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
    return list(painting(scene, sight, size, shown, moved))[-1]


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
    number = np.arange(len(scene.corners))
    if shown is not None and len(number):
        number = number[shown[scene.of[scene.corners[:, 0]]]]
    corners = scene.corners[number]
    a, b, c = corners[:, 0], corners[:, 1], corners[:, 2]
    across = (x[b] - x[a]) * (y[c] - y[a]) - (x[c] - x[a]) * (y[b] - y[a])
    front = across < -1e-9  # y runs down: what looks here turns the other way
    number, corners = number[front], corners[front]
    order = np.argsort(-level[corners].max(axis=1), kind="stable")
    passes = PASSES if len(order) > FEW and wide * high > FEW_PX else 1
    for turn, chosen in enumerate(np.array_split(order, passes)):  # from near to far: what is hidden need not be laid
        mine, face = corners[chosen], scene.face[number[chosen]]
        if turn:
            open_ = _not_hidden(nearest, x, y, level, mine, wide, high)
            mine, face = mine[open_], face[open_]
        for spans in _portions(_spans(x, y, mine, wide, high)):
            _lay(nearest, spans, _planes(x, y, level, mine), face, wide)
            yield Picture(NO_FACE, NO_DEPTH, sight, done=False)
    yield _picture(nearest, sight, (wide, high), far, span)


def _not_hidden(nearest: Ints, x: Floats, y: Floats, level: Floats, corners: Ints, wide: int, high: int) -> NDArray[np.bool_]:
    """Triangles that may be seen before what is laid already; those over many tiles are not looked at closer, and stay.

    A tile keeps the farthest of what its pixels show: what lies behind that in all its tiles is hidden.
    """
    across, down = -(-wide // TILE_PX), -(-high // TILE_PX)
    whole = np.full((down * TILE_PX, across * TILE_PX), np.iinfo(np.int64).max)
    whole[:high, :wide] = nearest.reshape(high, wide)
    farthest = whole.reshape(down, TILE_PX, across, TILE_PX).min(axis=(1, 3)) >> 24
    xs, ys = x[corners], y[corners]
    left = np.clip(xs.min(axis=1) // TILE_PX, 0, across - 1).astype(np.int64)
    right = np.clip(xs.max(axis=1) // TILE_PX, 0, across - 1).astype(np.int64)
    top = np.clip(ys.min(axis=1) // TILE_PX, 0, down - 1).astype(np.int64)
    low = np.clip(ys.max(axis=1) // TILE_PX, 0, down - 1).astype(np.int64)
    front = level[corners].max(axis=1)
    made = np.zeros(len(corners), dtype=bool)
    for j in range(MOST_TILES):
        for i in range(MOST_TILES):
            made |= front >= farthest[np.minimum(top + j, low), np.minimum(left + i, right)]
    return np.asarray(made | (right - left >= MOST_TILES) | (low - top >= MOST_TILES))


TILE_PX, MOST_TILES = 8, 4
PASSES, FEW, FEW_PX = 4, 800, 40_000
STEPS = float(1 << 28)
FACES = 1 << 24


def _picture(nearest: Ints, sight: Sight, size: tuple[int, int], far: float, span: float) -> Picture:
    there = nearest >= 0
    face = np.where(there, nearest & (FACES - 1), -1).astype(np.int32)
    depth = np.where(there, (nearest >> 24) / STEPS * span + far, -np.inf).astype(np.float32)
    return Picture(face.reshape(size[1], size[0]), depth.reshape(size[1], size[0]), sight)


Spans = tuple[Ints, Ints, Ints, Ints]  # triangle, row, first column, how many pixels


def _spans(x: Floats, y: Floats, corners: Ints, wide: int, high: int) -> Spans:
    """Every part's pixels row by row: those whose middle lies inside. Of what looks here edges run down on the left and up on the right."""
    after = np.roll(corners, -1, axis=1)
    x0, y0, x1, y1 = x[corners], y[corners], x[after], y[after]
    up = y1 < y0
    part = np.broadcast_to(np.arange(len(corners))[:, None], corners.shape)
    sides = []
    for way in (up, y1 > y0):
        top, low = np.minimum(y0, y1)[way], np.maximum(y0, y1)[way]
        slope = ((x1 - x0)[way]) / ((y1 - y0)[way])
        base = x0[way] - y0[way] * slope
        of, edge_top = part[way], np.ceil(top - 0.5)
        order = np.lexsort((edge_top, of))
        first = np.clip(edge_top, 0, high).astype(np.int64)[order]
        rows = np.clip(np.ceil(low - 0.5), 0, high).astype(np.int64)[order] - first
        row = np.arange(int(rows.sum())) - np.repeat(np.cumsum(rows) - rows - first, rows)
        sides.append((np.repeat(of[order], rows), row, np.repeat(base[order], rows) + (row + 0.5) * np.repeat(slope[order], rows)))
    (_, _, right), (of, row, left) = sides
    begin = np.clip(np.ceil(left - 0.5), 0, wide).astype(np.int64)
    end = np.clip(np.ceil(right - 0.5), 0, wide).astype(np.int64)
    there = end > begin
    return of[there], row[there], begin[there], (end - begin)[there]


def _planes(x: Floats, y: Floats, level: Floats, corners: Ints) -> tuple[Floats, Floats, Floats]:
    """Depth over the picture, as level = p x + q y + r of every triangle."""
    a, b, c = corners[:, 0], corners[:, 1], corners[:, 2]
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
