"""Where the surfaces of a body meet: every joint with its length, how far it turns, and where it lies on both, laid flat.

Edges are followed in short straight pieces in space; a piece belongs to a piece of another surface with the same ends, or,
where a surface reaches over (a roof past its wall), to the surface in whose middle it lies. Pieces of one pair are one joint.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Point

from uncle_sled.core.geometry.surfaces import Body, Surface, lengths

Floats = NDArray[np.float64]
NEAR_M = 0.012
SHORT_M = 0.03
PIECE_M, MOST_PIECES = 0.25, 120  # straight edges are followed in pieces no longer than this, and no more of them
AT_ONCE = 256  # pieces that are held against all others in one go
LONGEST_M = 60.0  # a body typed longer than any is not looked at


class Joint(msgspec.Struct, frozen=True):
    """Between two surfaces. turn_deg: by how much the skin turns there, 0 flat, 90 a square corner; b nothing: an open edge.

    on_a, on_b: runs of points on the surfaces laid flat [m]; on_b is empty where a's edge lies in the middle of b.
    """

    a: str
    b: str
    kinds: tuple[str, str]
    length_m: float
    turn_deg: float
    on_a: tuple[tuple[tuple[float, float], ...], ...]
    on_b: tuple[tuple[tuple[float, float], ...], ...]

    @property
    def id(self) -> str:
        """The two faces it joins; ``open`` where nothing meets the first."""
        return f"{self.a}|{self.b}" if self.b else f"{self.a}|open"


class _Piece(msgspec.Struct, frozen=True):
    surface: Surface
    flat: tuple[tuple[float, float], tuple[float, float]]
    start: Floats
    end: Floats
    inward: Floats

    @property
    def length(self) -> float:
        return float(np.linalg.norm(self.end - self.start))


def joints_of(body: Body) -> tuple[Joint, ...]:
    """All joints, in the order of the surfaces; none where the body has no width."""
    if max(body.length, body.width, body.height) > LONGEST_M:
        return ()
    pieces = [piece for surface in body.surfaces for piece in _pieces(surface)]
    if not pieces:
        return ()
    starts, ends = np.array([p.start for p in pieces]), np.array([p.end for p in pieces])
    owner = np.array([next(k for k, face in enumerate(body.surfaces) if face.id == p.surface.id) for p in pieces])
    met: dict[tuple[str, str], list[tuple[_Piece, _Piece | None, Surface | None]]] = {}
    done = np.zeros(len(pieces), dtype=bool)
    first, apart = -AT_ONCE, np.empty((0, 0))
    for at, piece in enumerate(pieces):
        if done[at]:
            continue
        if at >= first + AT_ONCE:
            first = at
            apart = _apart_m(starts, ends, owner, slice(first, first + AT_ONCE))
        same = np.where(done, np.inf, apart[at - first])
        other = int(np.argmin(same))
        if same[other] < 2 * NEAR_M:
            done[[at, other]] = True
            met.setdefault((piece.surface.id, pieces[other].surface.id), []).append((piece, pieces[other], None))
            continue
        done[at] = True
        under = _lies_on(piece, body)
        met.setdefault((piece.surface.id, under.id if under is not None else ""), []).append((piece, None, under))
    return tuple(_joint(body, pair, some) for pair, some in met.items() if sum(p.length for p, _, _ in some) > SHORT_M)


def _apart_m(starts: Floats, ends: Floats, owner: NDArray[np.int64], some: slice) -> Floats:
    """How far the ends of some pieces are from those of each other piece, either way round (m, n) [m]; inf on one surface."""
    there = [_between_m(a[some], b) for a, b in ((starts, starts), (ends, ends), (starts, ends), (ends, starts))]
    return np.where(owner[some, None] == owner[None], np.inf, np.minimum(there[0] + there[1], there[2] + there[3]))


def _between_m(a: Floats, b: Floats) -> Floats:
    """How far each of some points is from each of others, along the axes (m, n) [m]: axis by axis, not point by point."""
    far = np.abs(a[:, None, 0] - b[None, :, 0])
    for axis in (1, 2):
        far += np.abs(a[:, None, axis] - b[None, :, axis])
    return far


def _joint(body: Body, pair: tuple[str, str], some: list[tuple[_Piece, _Piece | None, Surface | None]]) -> Joint:
    kinds = {face.id: face.kind for face in body.surfaces}
    turns, weights = [], []
    for piece, other, under in some:
        inward = other.inward if other is not None else _inward(under, np.zeros(1))[0] if under is not None else None
        if inward is not None:
            turns.append(math.degrees(math.acos(min(max(float(piece.inward @ inward), -1.0), 1.0))))
            weights.append(piece.length)
    turn = float(np.average(turns, weights=weights)) if turns else 90.0
    on_b = _runs([other.flat for _, other, _ in some if other is not None])
    return Joint(
        pair[0],
        pair[1],
        kinds=(kinds[pair[0]], kinds.get(pair[1], "")),
        length_m=sum(p.length for p, _, _ in some),
        turn_deg=turn,
        on_a=_runs([p.flat for p, _, _ in some]),
        on_b=on_b,
    )


def _runs(flats: list[tuple[tuple[float, float], tuple[float, float]]]) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Pieces one after another as runs of points."""
    made: list[list[tuple[float, float]]] = []
    for a, b in flats:
        if made and math.dist(made[-1][-1], a) < 1e-6:
            made[-1].append(b)
        elif made and math.dist(made[-1][-1], b) < 1e-6:
            made[-1].append(a)
        elif made and math.dist(made[-1][0], a) < 1e-6:
            made[-1].insert(0, b)
        elif made and math.dist(made[-1][0], b) < 1e-6:
            made[-1].insert(0, a)
        else:
            made.append([a, b])
    return tuple(tuple(run) for run in made)


def _pieces(surface: Surface) -> list[_Piece]:
    """The edge of a surface in pieces that are straight in space."""
    ring = [(float(x), float(y)) for x, y in surface.polygon.exterior.coords]
    marks = lengths(surface.chain) if surface.chain is not None else np.array([])
    made = []
    for a, b in itertools.pairwise(ring):
        if math.dist(a, b) < 1e-6:
            continue
        if surface.chain is not None:
            shares = _where_bent(a, b, marks)
        else:
            many = _many(math.dist(a, b))
            shares = [k / many for k in range(many + 1)]
        points = [(a[0] + (b[0] - a[0]) * k, a[1] + (b[1] - a[1]) * k) for k in shares]
        s, t = np.array(points).T
        at, inward = surface.places(s, t), _inward(surface, (s[:-1] + s[1:]) / 2)
        for k in np.flatnonzero(np.linalg.norm(np.diff(at, axis=0), axis=1) > 1e-4):
            made.append(_Piece(surface, (points[k], points[k + 1]), at[k], at[k + 1], inward[k]))
    return made


def _many(long_m: float) -> int:
    return min(max(math.ceil(long_m / PIECE_M), 1), MOST_PIECES)


def _where_bent(a: tuple[float, float], b: tuple[float, float], marks: Floats) -> list[float]:
    """Shares of an edge at which the skin under it bends; along a level of the run, in pieces."""
    if abs(b[0] - a[0]) < 1e-9:
        many = _many(abs(b[1] - a[1]))
        return [k / many for k in range(many + 1)]
    shares = [(float(m) - a[0]) / (b[0] - a[0]) for m in marks]
    inside = sorted(k for k in shares if 1e-6 < k < 1 - 1e-6)
    made = [0.0, *inside, 1.0]
    long = abs(b[0] - a[0])
    fine = [0.0]
    for p, q in itertools.pairwise(made):  # long straight runs of a skin as well in pieces
        many = _many((q - p) * long)
        fine += [p + (q - p) * k / many for k in range(1, many + 1)]
    return fine


def _inward(surface: Surface, s: Floats) -> Floats:
    """The way into the body at some places of a surface: unit vectors (n, 3)."""
    if surface.chain is None:
        return np.tile(surface.inward, (len(s), 1))
    way = surface.places(s, 0.0 * s, 0.01) - surface.places(s, 0.0 * s)
    return np.asarray(way / np.maximum(np.linalg.norm(way, axis=1), 1e-12)[:, None])


def _lies_on(piece: _Piece, body: Body) -> Surface | None:
    """The flat surface in whose middle a piece of an edge lies."""
    middle = (piece.start + piece.end) / 2
    for face in body.surfaces:
        if face.chain is not None or face.id == piece.surface.id:
            continue
        off = middle - np.array(face.origin)
        if abs(float(off @ np.array(face.inward))) > NEAR_M:
            continue
        at = Point(float(off @ np.array(face.along)), float(off @ np.array(face.up)))
        if face.polygon.distance(at) < NEAR_M:
            return face
    return None
