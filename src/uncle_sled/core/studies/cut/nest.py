"""Free layouts for router and jigsaw: pieces by their true outlines, turned where the grain allows, a kerf apart.

Method: no-fit polygons (Art 1966; Bennell and Oliveira 2008): where the corner of a piece must not come, as the Minkowski
sum of what lies there and the piece turned over; among the corners of what is left the one furthest to the front of the
sheet and lowest is taken. Orders of the pieces are tried, the best is shuffled further (Burke and others 2006), until
the bound by area is reached or nobody waits any longer. Every outline grows by half a kerf first.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache

import msgspec
import numpy as np
from shapely import affinity, box, convex_hull, get_coordinates, multipoints, union_all
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import triangulate
from shapely.prepared import prep

from uncle_sled.core.geometry.ring import corners_of
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, costs_of, qty_by_id, ring_area_m2

Ring = tuple[tuple[float, float], ...]
SMOOTH_M = 0.0002  # curves may grow by so much, so that they have few corners
HAIR_M = 1e-6
SLACK_M = 5e-6  # what exactly fits shall fit
ORDERS = 400  # shuffles at the most
TOO_MANY = 700  # pieces that are still laid by their outlines


class Spot(msgspec.Struct, frozen=True):
    """A piece on a sheet: the corner of its box as it lies [m], turned by a quarter, and its outline there."""

    piece: str
    x_m: float
    y_m: float
    w_m: float
    h_m: float
    deg: int
    ring: Ring


class Nested(msgspec.Struct, frozen=True):
    """One sheet. stock: its place in the list of stocks."""

    stock: int
    spots: tuple[Spot, ...]


class Shape(msgspec.Struct, frozen=True, dict=True):
    """An outline as it is laid: grown by half the kerf, few corners, its box's corner at 0, 0; and as it is.

    ways: the same turned by quarters, whether it may lie so or not.
    """

    piece: str
    deg: int
    true: Ring
    grown: Ring
    w_m: float
    h_m: float
    ways: dict[int, Shape] = {}


def turned(ring: Ring, deg: int) -> Ring:
    """An outline turned by quarters, its box's corner at 0, 0."""
    c, s = {0: (1, 0), 90: (0, 1), 180: (-1, 0), 270: (0, -1)}[deg % 360]
    made = [(x * c - y * s, x * s + y * c) for x, y in ring]
    left, low = min(x for x, _ in made), min(y for _, y in made)
    return tuple((round(x - left, 7), round(y - low, 7)) for x, y in made)


@lru_cache(maxsize=4096)
def _grown(ring: Ring, half_m: float) -> Ring:
    """The outline half a kerf larger, smoothed outwards, its true box's corner at 0, 0."""
    shape = Polygon(ring)
    most = len(ring)
    if most > 8:
        shape = shape.buffer(SMOOTH_M, join_style="mitre").simplify(SMOOTH_M)
    if half_m - SLACK_M > 0:
        shape = shape.buffer(half_m - SLACK_M, join_style="mitre", mitre_limit=2.0)
    return corners_of(shape.exterior)


@lru_cache(maxsize=4096)
def _convex(ring: Ring) -> tuple[tuple[tuple[float, float], ...], ...]:
    """The outline in convex parts: itself, or triangles put together as far as they stay convex."""
    shape = Polygon(ring)
    if shape.convex_hull.area - shape.area < 1e-9:
        return (corners_of(shape.exterior),)
    inside = shape.buffer(1e-9)
    parts = [one for one in triangulate(shape) if inside.contains(one)]
    if sum(part.area for part in parts) < shape.area * (1 - 1e-6):  # not every corner was joined along its edges
        from shapely import constrained_delaunay_triangles

        parts = list(constrained_delaunay_triangles(shape).geoms)
    merged = True
    while merged and len(parts) > 1:
        merged = False
        for i in range(len(parts)):
            for j in range(i + 1, len(parts)):
                if parts[i].intersection(parts[j]).length < 1e-9:
                    continue
                both = union_all([parts[i], parts[j]])
                if isinstance(both, Polygon) and both.convex_hull.area - both.area < 1e-9:
                    parts[i] = both.convex_hull
                    del parts[j]
                    merged = True
                    break
            if merged:
                break
    return tuple(corners_of(part.exterior) for part in parts)


@lru_cache(maxsize=60000)
def _no_fit(still: Ring, moving: Ring) -> BaseGeometry:
    """Where the moving piece's corner must not come, for the still piece with its corner at 0, 0."""
    stack, index, at = [], [], 0
    for a in _convex(still):
        for b in _convex(moving):
            corners = (np.array(a)[:, None, :] - np.array(b)[None, :, :]).reshape(-1, 2)
            stack.append(corners)
            index.append(np.full(len(corners), at))
            at += 1
    sums = convex_hull(multipoints(np.concatenate(stack), indices=np.concatenate(index)))
    return union_all(sums) if at > 1 else sums[0]


def _corner(shape: Shape, deg: int) -> tuple[float, float]:
    """Where the corner of its box comes when a shape is turned by quarters about 0, 0."""
    wide, high = shape.w_m, shape.h_m
    return {0: (0.0, 0.0), 90: (-high, 0.0), 180: (-wide, -high), 270: (0.0, -wide)}[deg]


def _barred(still: Shape, moving: Shape, x: float, y: float) -> BaseGeometry:
    """Where the moving piece's corner must not come, for the still piece at x, y.

    Worked out once for the still piece unturned: turning both together turns the answer.
    """
    base, other = still.ways[0], moving.ways[(moving.deg - still.deg) % 360]
    bar = _no_fit(base.grown, other.grown)
    c, s = {0: (1, 0), 90: (0, 1), 180: (-1, 0), 270: (0, -1)}[still.deg]
    (ox, oy), (sx, sy) = _corner(other, still.deg), _corner(base, still.deg)
    return affinity.affine_transform(bar, (c, -s, s, c, ox - sx + x, oy - sy + y))


class _Sheet:
    """What lies on one sheet, and where each shape must not come any more."""

    def __init__(self, stock: int, room: tuple[float, float], low: float) -> None:
        self.stock, self.room, self.low = stock, room, low
        self.laid: list[tuple[Shape, float, float]] = []
        self.left_m2 = room[0] * room[1]
        self.free: dict[Ring, tuple[int, BaseGeometry]] = {}

    def best(self, shape: Shape) -> tuple[float, float] | None:
        """The furthest front and lowest place of a shape; None where it fits nowhere."""
        wide, high = self.room[0] - shape.w_m, self.room[1] - shape.h_m
        if wide < -1e-7 or high < -1e-7:
            return None
        if not self.laid:
            return 0.0, 0.0
        known, free = self.free.get(shape.grown, (0, None))
        if free is None:  # a hair of room, so that an exact fit leaves something to stand on
            free = box(-HAIR_M, -HAIR_M, max(wide, 0.0) + HAIR_M, max(high, 0.0) + HAIR_M)
        for each_shape, x, y in self.laid[known:]:
            if free.is_empty:
                break
            free = free.difference(_barred(each_shape, shape, x, y))
        self.free[shape.grown] = (len(self.laid), free)
        if free.is_empty:
            return None
        corners = get_coordinates(free)
        corners = np.clip(corners, 0.0, (max(wide, 0.0), max(high, 0.0)))
        at = int(np.lexsort((corners[:, 1], corners[:, 0] + 0.15 * corners[:, 1]))[0])
        return float(corners[at, 0]), float(corners[at, 1])

    def put(self, shape: Shape, x: float, y: float) -> None:
        self.laid.append((shape, x, y))
        self.left_m2 -= ring_area_m2(shape.true)


def shapes_of(piece: Wanted, kerf_m: float) -> tuple[Shape, ...]:
    """A piece the ways that it may lie, without those that look the same."""
    ring = piece.outline or ((0.0, 0.0), (piece.length_m, 0.0), (piece.length_m, piece.width_m), (0.0, piece.width_m))
    quarters = {"along": (0, 180), "across": (90, 270), "any": (0, 90, 180, 270)}[piece.grain]
    shapes = _all_ways(piece.id, ring, kerf_m)
    made: dict[tuple[tuple[float, float], ...], Shape] = {}
    for deg in quarters:
        shape = shapes[deg]
        made.setdefault(tuple(sorted((round(x, 5), round(y, 5)) for x, y in shape.true)), shape)
    return tuple(made.values())


def _all_ways(piece: str, ring: Ring, kerf_m: float, first_deg: int = 0) -> dict[int, Shape]:
    """A piece turned by quarters. Args: first_deg: how the outline that is given is turned already."""
    made: dict[int, Shape] = {}
    for deg in (0, 90, 180, 270):
        true = turned(ring, deg - first_deg)
        wide, high = max(x for x, _ in true), max(y for _, y in true)
        made[deg] = Shape(piece, deg, true=true, grown=_turned_as_grown(ring, kerf_m / 2, deg - first_deg), w_m=wide, h_m=high, ways=made)
    return made


def _turned_as_grown(ring: Ring, half_m: float, deg: int) -> Ring:
    """The grown outline of a turned piece: the turned outline of the grown one, so that all ways agree."""
    base = turned(ring, 0)
    wide, high = max(x for x, _ in base), max(y for _, y in base)
    grown = _grown(base, half_m)
    deg %= 360
    c, s = {0: (1, 0), 90: (0, 1), 180: (-1, 0), 270: (0, -1)}[deg]
    ox, oy = {0: (0.0, 0.0), 90: (high, 0.0), 180: (wide, high), 270: (0.0, wide)}[deg]
    return tuple((round(x * c - y * s + ox, 9), round(x * s + y * c + oy, 9)) for x, y in grown)


def nest(
    pieces: Sequence[Wanted],
    stocks: Sequence[Stock],
    kerf_m: float,
    trim_m: float,
    enough: Callable[[], bool],
    fixed: Sequence[Nested] = (),
) -> tuple[tuple[Nested, ...], dict[str, int]]:
    """Sheets with pieces by their outlines, and how many of each fit nowhere.

    Args: fixed: sheets that hold pieces in their places already, which are not among the wanted; they are filled first.
    """
    want = qty_by_id(pieces)
    by_id = {piece.id: piece for piece in pieces}
    ways = {id: shapes_of(by_id[id], kerf_m) for id in want}
    area = {id: ring_area_m2(ways[id][0].true) for id in want}
    sides = [sorted((s.length_m - 2 * trim_m, s.width_m - 2 * trim_m)) for s in stocks]
    rooms = [(long, short) for short, long in sides]
    list_of = [id for id, many in want.items() for _ in range(many)]
    rank = {id: max(ways[id][0].w_m, ways[id][0].h_m) * min(ways[id][0].w_m, ways[id][0].h_m) for id in want}
    order = sorted(list_of, key=lambda id: (-rank[id], id))
    _, price = costs_of(stocks)
    by_price = sorted(range(len(stocks)), key=lambda k: (price[k] > 0, price[k] / max(rooms[k][0] * rooms[k][1], 1e-9)))
    rng = np.random.default_rng(20)
    need = sum(area[id] for id in list_of)
    largest = max((wide * high for wide, high in rooms), default=0.0)
    least = int(np.ceil(need / largest - 1e-9)) if largest else 0

    def lay(turn: list[str]) -> tuple[list[_Sheet], dict[str, int]]:
        left: dict[str, int] = {}
        sheets: list[_Sheet] = [_with(nested, rooms, kerf_m) for nested in fixed]
        used = [sum(1 for nested in fixed if nested.stock == k) for k in range(len(stocks))]
        full: dict[str, int] = {}
        for id in turn:
            at = None
            for k in range(full.get(id, 0), len(sheets)):
                at = _place(sheets[k], ways[id]) if sheets[k].left_m2 >= area[id] - 1e-9 else None
                if at is not None:
                    break
                full[id] = k + 1  # no later piece of its kind finds room there either
            while at is None:
                size = next((n for n in by_price if _left(stocks[n], used[n]) and _fits(ways[id], rooms[n])), None)
                if size is None:
                    left[id] = left.get(id, 0) + 1
                    break
                used[size] += 1
                sheets.append(_Sheet(size, rooms[size], kerf_m / 2))
                at = _place(sheets[-1], ways[id])
        return sheets, left

    def worth(answer: tuple[list[_Sheet], dict[str, int]]) -> tuple[float, ...]:
        sheets, left = answer
        short = sum(area[id] * many for id, many in left.items())
        money = sum(price[sheet.stock] for sheet in sheets)
        last = min((sum(ring_area_m2(s.true) for s, _, _ in sheet.laid) for sheet in sheets), default=0.0)
        return short, round(money, 9), last  # the emptier the emptiest, the nearer to one fewer

    best = lay(order)
    score = worth(best)
    orders = [sorted(list_of, key=lambda id: (-area[id], id)), sorted(list_of, key=lambda id: (-max(ways[id][0].w_m, ways[id][0].h_m), id))]
    for turn in range(ORDERS):
        if enough() or len(list_of) > TOO_MANY or (not score[0] and len(best[0]) <= least):
            break
        if turn < len(orders):
            tried = orders[turn]
        else:
            tried = list(order)
            for _ in range(int(rng.integers(1, 4))):
                i = int(rng.integers(len(tried)))
                j = min(len(tried) - 1, max(0, i + int(rng.integers(-max(len(tried) // 4, 2), max(len(tried) // 4, 2) + 1))))
                tried.insert(j, tried.pop(i))
        answer = lay(tried)
        new = worth(answer)
        if new <= score:
            best, score, order = answer, new, tried
    sheets, left = best
    return tuple(Nested(sheet.stock, tuple(_spot(*two) for two in sheet.laid)) for sheet in sheets if sheet.laid), left


def _with(nested: Nested, rooms: Sequence[tuple[float, float]], kerf_m: float) -> _Sheet:
    sheet = _Sheet(nested.stock, (rooms[nested.stock][0], rooms[nested.stock][1]), kerf_m / 2)
    for spot in nested.spots:
        shape = _all_ways(spot.piece, turned(spot.ring, 0), kerf_m, spot.deg)[spot.deg]
        sheet.put(shape, spot.x_m, spot.y_m)
    return sheet


def _left(stock: Stock, used: int) -> bool:
    return stock.qty is None or used < stock.qty


def _fits(ways: tuple[Shape, ...], room: tuple[float, float]) -> bool:
    return any(shape.w_m <= room[0] + 1e-7 and shape.h_m <= room[1] + 1e-7 for shape in ways)


def _place(sheet: _Sheet, ways: tuple[Shape, ...]) -> Spot | None:
    """Put a piece where its far end comes furthest to the front; None where it fits no way."""
    best: tuple[float, float, Shape, float, float] | None = None
    for shape in ways:
        at = sheet.best(shape)
        if at is not None:
            key = (at[0] + shape.w_m, at[1] + shape.h_m)
            if best is None or key < best[:2]:
                best = (*key, shape, *at)
    if best is None:
        return None
    sheet.put(*best[2:])
    return _spot(*best[2:])


def _spot(shape: Shape, x: float, y: float) -> Spot:
    ring = tuple((px + x, py + y) for px, py in shape.true)
    return Spot(shape.piece, x, y_m=y, w_m=shape.w_m, h_m=shape.h_m, deg=shape.deg, ring=ring)


def overlaps(spots: Sequence[Spot], kerf_m: float) -> list[tuple[str, str]]:
    """Pieces that lie nearer to each other than the saw takes: what a layout is checked by."""
    found = []
    shapes = [Polygon(spot.ring) for spot in spots]
    for i, shape in enumerate(shapes):
        near = prep(shape.buffer(max(kerf_m - 4 * SLACK_M, 0.0), join_style="mitre"))
        for j in range(i + 1, len(shapes)):
            if (near.intersects(shapes[j]) and shape.distance(shapes[j]) < kerf_m - 4 * SLACK_M - 1e-9) or (
                kerf_m == 0 and shape.intersection(shapes[j]).area > 1e-8
            ):
                found.append((spots[i].piece, spots[j].piece))
    return found
