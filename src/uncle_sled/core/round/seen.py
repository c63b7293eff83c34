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
    """Many pieces as arrays of flat convex parts with four corners, the last twice in a triangle.

    at: (4, m, 3) corners of each part; part: (m,) its piece; face: (m,) number of the face that it is of, among all; way: (m, 3) which
    way it looks, unit vectors; solid: (f,) piece of every face; normal: (f, 3) of its shade; boxes: (n, 8, 3) corners of every piece.
    """

    at: Floats
    part: Ints
    face: Ints
    way: Floats
    solid: Ints
    normal: Floats
    boxes: Floats


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
    points, triangles, face, solid = [], [], [], []
    boxes = np.zeros((len(pieces), 8, 3))
    base = faces = 0
    for k, each in enumerate(pieces):
        mesh = each.mesh
        if not len(mesh.triangles):
            continue
        ends = np.stack([mesh.points.min(axis=0), mesh.points.max(axis=0)])
        boxes[k] = ends[CORNERS, (0, 1, 2)]
        points.append(mesh.points)
        triangles.append(mesh.triangles + base)
        face.append(mesh.planes + faces)
        many = int(mesh.planes.max()) + 1
        solid.append(np.full(many, k))
        base, faces = base + len(mesh.points), faces + many
    if not points:
        none = np.zeros(0, dtype=np.int64)
        return Scene(np.zeros((4, 0, 3)), none, none, np.zeros((0, 3)), none, np.zeros((0, 3)), boxes)
    all_points, all_triangles, all_faces = np.concatenate(points), np.concatenate(triangles), np.concatenate(face)
    a, b, c = (all_points[all_triangles[:, k]] for k in range(3))
    across = np.cross(b - a, c - a)
    normal = np.zeros((faces, 3))
    for k in range(3):  # a bent face is shaded by the mean of its parts
        normal[:, k] = np.bincount(all_faces, across[:, k], faces)
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12)
    corners, face_of = _quads(all_points, all_triangles, all_faces)
    at = np.ascontiguousarray(all_points[corners].transpose(1, 0, 2))
    way = np.cross(at[2] - at[0], at[3] - at[1])  # of a quad by its diagonals, of a triangle by two of its sides
    way /= np.maximum(np.linalg.norm(way, axis=1, keepdims=True), 1e-12)
    of = np.concatenate(solid)
    return Scene(at, of[face_of], face_of, way, of, normal, boxes)


CORNERS = np.array([[i, j, k] for i in (0, 1) for j in (0, 1) for k in (0, 1)])


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
    """The same look with the boxes of everything that is shown in the picture. Args: size: width and height [pixels]."""
    boxes = scene.boxes if moved is None else scene.boxes + moved[:, None, :]
    if shown is not None:
        boxes = boxes[shown]
    if not len(boxes):
        return sight
    axes = sight.axes
    flat = boxes.reshape(-1, 3) @ axes.T
    low, high = flat.min(axis=0), flat.max(axis=0)
    span = np.maximum(high - low, 0.05)
    scale = float(min(size[0] * 0.92 / span[0], size[1] * 0.9 / span[1]))
    at = (low + high) / 2 @ axes
    return msgspec.structs.replace(sight, scale=scale, at=(float(at[0]), float(at[1]), float(at[2])))


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
    facing = scene.way @ axes[2]
    use = facing > EDGE_ON
    if shown is not None and len(use):
        use &= shown[scene.part]
    at = scene.at[:, use]
    if moved is not None:
        at = at + moved[scene.part[use]]
    flat = (at - np.array(sight.at)) @ axes.T
    x, y, z = wide / 2 + flat[..., 0] * sight.scale, high / 2 - flat[..., 1] * sight.scale, flat[..., 2]
    far, span = (float(z.min()), max(float(np.ptp(z)), 1e-6)) if z.size else (0.0, 1.0)
    steps = STEPS / span
    level = (z - far) * steps  # the nearer the larger
    # over the picture a part's level is p x + q y + r, by which way it looks
    way = scene.way[use] @ axes.T
    p, q = -way[:, 0] / way[:, 2] / sight.scale * steps, way[:, 1] / way[:, 2] / sight.scale * steps
    plane = np.stack([p, q, level[0] - p * x[0] - q * y[0]])
    face, front = scene.face[use], _most(level)
    order = np.argsort(-front, kind="stable")
    passes = PASSES if len(order) > FEW and wide * high > FEW_PX else 1
    for turn, chosen in enumerate(np.array_split(order, passes)):  # from near to far: what is hidden need not be laid
        if turn:
            chosen = chosen[_not_hidden(nearest, x[:, chosen], y[:, chosen], front[chosen], wide, high)]
        for spans in _portions(_spans(x[:, chosen], y[:, chosen], wide, high)):
            _lay(nearest, spans, plane[:, chosen], face[chosen], wide)
            yield Picture(NO_FACE, NO_DEPTH, sight, done=False)
    yield _picture(nearest, sight, (wide, high), far, span)


EDGE_ON = 1e-6  # what looks less towards the viewer is seen as a line


def _most(of: Floats) -> Floats:
    """The largest of four rows."""
    return np.asarray(np.maximum(np.maximum(of[0], of[1]), np.maximum(of[2], of[3])))


def _least(of: Floats) -> Floats:
    return np.asarray(np.minimum(np.minimum(of[0], of[1]), np.minimum(of[2], of[3])))


def _not_hidden(nearest: Ints, x: Floats, y: Floats, front: Floats, wide: int, high: int) -> NDArray[np.bool_]:
    """Parts that may be seen before what is laid already; those over many tiles are not looked at closer, and stay.

    A tile keeps the farthest of what its pixels show: what lies behind that in all its tiles is hidden.
    """
    across, down = -(-wide // TILE_PX), -(-high // TILE_PX)
    whole = np.full((down * TILE_PX, across * TILE_PX), np.iinfo(np.int64).max)
    whole[:high, :wide] = nearest.reshape(high, wide)
    farthest = whole.reshape(down, TILE_PX, across, TILE_PX).min(axis=(1, 3)) >> 24
    left, right = (np.clip(edge / TILE_PX, 0, across - 1).astype(np.int64) for edge in (_least(x), _most(x)))
    top, low = (np.clip(edge / TILE_PX, 0, down - 1).astype(np.int64) for edge in (_least(y), _most(y)))
    made = (right - left >= MOST_TILES) | (low - top >= MOST_TILES)
    asked = np.flatnonzero(~made)
    left, right, top, low, front = left[asked], right[asked], top[asked], low[asked], front[asked]
    seen_ = np.zeros(len(asked), dtype=bool)
    for j in range(MOST_TILES):
        for i in range(MOST_TILES):
            seen_ |= front >= farthest[np.minimum(top + j, low), np.minimum(left + i, right)]
    made[asked] = seen_
    return np.asarray(made)


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


def _spans(x: Floats, y: Floats, wide: int, high: int) -> Spans:
    """Every part's pixels row by row: those whose middle lies inside. Args: x, y: (4, k) its corners, against the clock.

    From its highest corner on its edges run down on the left, then up on the right.
    """
    first = np.argmin(y, axis=0)
    turned = (first + np.arange(4)[:, None]) % 4
    part = np.arange(x.shape[1])
    x, y = x[turned, part], y[turned, part]
    x1, y1 = np.concatenate([x[1:], x[:1]]), np.concatenate([y[1:], y[:1]])
    rows_at = np.clip(np.ceil(y - 0.5), 0, high).astype(np.int64)
    rows_to = np.concatenate([rows_at[1:], rows_at[:1]])
    rise = np.where(y1 == y, 1.0, y1 - y)
    slope = (x1 - x) / rise
    base = x - y * slope
    of, edge = np.nonzero((rows_to > rows_at).T)
    left = _followed(of, rows_at[edge, of], rows_to[edge, of], base[edge, of], slope[edge, of])
    of, edge = np.nonzero((rows_to < rows_at)[::-1].T)
    edge = 3 - edge
    right = _followed(of, rows_to[edge, of], rows_at[edge, of], base[edge, of], slope[edge, of])
    begin = np.clip(np.ceil(left[2] - 0.5), 0, wide).astype(np.int64)
    end = np.clip(np.ceil(right[2] - 0.5), 0, wide).astype(np.int64)
    there = end > begin
    return left[0][there], left[1][there], begin[there], (end - begin)[there]


def _followed(of: Ints, first: Ints, last: Ints, base: Floats, slope: Floats) -> tuple[Ints, Ints, Floats]:
    """Edges row by row: of which part, which row, and where the edge crosses its middle."""
    rows = last - first
    row = np.arange(int(rows.sum())) - np.repeat(np.cumsum(rows) - rows - first, rows)
    return np.repeat(of, rows), row, np.repeat(base, rows) + (row + 0.5) * np.repeat(slope, rows)


def _portions(spans: Spans) -> Iterator[Spans]:
    many = np.cumsum(spans[3])
    begin = 0
    while begin < len(many):
        before = int(many[begin - 1]) if begin else 0
        end = max(int(np.searchsorted(many, before + AT_ONCE, side="right")), begin + 1)
        yield tuple([each[begin:end] for each in spans])  # type: ignore[misc]
        begin = end


def _lay(nearest: Ints, spans: Spans, plane: Floats, face: Ints, wide: int) -> None:
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
