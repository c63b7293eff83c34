"""Pieces that are held in their place on a sheet, and the rest laid out around them: by true outline, or edge to edge.

Edge to edge a piece is added only where the sheet can still be cut apart: some line crosses no piece, and so on in each
half. Source: shop notes, "a layout is checked by cutting it".
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

import msgspec
import numpy as np

from uncle_sled.core.studies.cut.bars import never
from uncle_sled.core.studies.cut.cut_tree import Block, Leaf, Node, Saw
from uncle_sled.core.studies.cut.layouts import Cut, Layout, Lies, SheetPlan, plan_with
from uncle_sled.core.studies.cut.nest import Nested, Spot, nest, turned
from uncle_sled.core.studies.cut.sheets import sheet_plan
from uncle_sled.core.studies.cut.wanted import UNIT_M, Stock, Wanted, qty_by_id, ring_area_m2, units_down, units_up

Box = tuple[int, int, int, int]  # x, y, w, h in units
MOST_TRIED = 4000  # places in one sheet


class Held(msgspec.Struct, frozen=True):
    """One of the wanted pieces in its place: from the corner of its sheet [m]; sheet: pieces of one number share one."""

    piece: str
    stock: str
    sheet: int
    x_m: float
    y_m: float
    turned: bool


def plan_around(
    pieces: Sequence[Wanted],
    stocks: Sequence[Stock],
    kerf_m: float,
    trim_m: float,
    free: bool,
    held: Sequence[Held] = (),
    enough: Callable[[], bool] = never,
) -> SheetPlan:
    """Sheets of one material, those with held pieces first; the held ones stay exactly where they are.

    Held pieces that lie on no such sheet, beyond its edge or on each other are let go (``faults_of`` says which).
    """
    good = [stock for stock in held if stock.piece not in {name for name, _ in faults_of(pieces, stocks, kerf_m, trim_m, free, held)}]
    by_id = {piece.id: piece for piece in pieces}
    left = qty_by_id(pieces)
    for each_stock in good:
        left[each_stock.piece] -= 1
    sheets = sorted({(stock.sheet, stock.stock) for stock in good})
    if free:
        rest = [msgspec.structs.replace(by_id[id], qty=many) for id, many in left.items() if many > 0]
        index = {stock.id: k for k, stock in enumerate(stocks)}
        fixed = [
            Nested(
                index[stock],
                tuple(
                    _spot(one, by_id[one.piece], stocks[index[stock]], trim_m) for one in good if (one.sheet, one.stock) == (number, stock)
                ),
            )
            for number, stock in sheets
        ]
        nested, short = nest(rest, stocks, kerf_m, trim_m, enough, fixed)
        layouts = [_nested_layout(each_nested, stocks[each_nested.stock], trim_m, good) for each_nested in nested]
        area = sum(ring_area_m2(_ring(by_id[piece.piece])) for layout in layouts for piece in layout.pieces)
        largest = max(((s.length_m - 2 * trim_m) * (s.width_m - 2 * trim_m) for s in stocks), default=1.0)
        bound = int(np.ceil(area / largest - 1e-9)) if layouts else 0
        return plan_with(pieces, layouts, bound, _cost(layouts, stocks), tuple(short.items()))
    layouts = []
    stock_of = {stock.id: stock for stock in stocks}
    taken: dict[str, int] = {}
    for number, name in sheets:
        mine = [stock for stock in good if (stock.sheet, stock.stock) == (number, name)]
        layouts.append(_filled(stock_of[name], mine, by_id, left, units_up(kerf_m), trim_m))
        taken[name] = taken.get(name, 0) + 1
    rest = [msgspec.structs.replace(by_id[id], qty=many) for id, many in left.items() if many > 0]
    fewer = [
        msgspec.structs.replace(stock, qty=None if stock.qty is None else max(stock.qty - taken.get(stock.id, 0), 0)) for stock in stocks
    ]
    bound = sheet_plan(pieces, stocks, kerf_m, trim_m, lambda: True).bound if layouts else 0
    if not rest:
        return plan_with(pieces, layouts, bound, _cost(layouts, stocks), ())
    more = sheet_plan(rest, fewer, kerf_m, trim_m, enough)
    if not layouts:
        return more
    layouts += more.layouts
    return plan_with(pieces, layouts, bound, _cost(layouts, stocks), more.unplaced)


def faults_of(
    pieces: Sequence[Wanted], stocks: Sequence[Stock], kerf_m: float, trim_m: float, free: bool, held: Sequence[Held]
) -> list[tuple[str, str]]:
    """Held pieces that cannot stay, each with the reason in words; the first of two that collide stays."""
    found: list[tuple[str, str]] = []
    by_id, stock_of = {piece.id: piece for piece in pieces}, {stock.id: stock for stock in stocks}
    kerf = units_up(kerf_m)
    lies: dict[tuple[int, str], list[tuple[Box, Spot]]] = {}
    for each_stock in held:
        piece, stock = by_id.get(each_stock.piece), stock_of.get(each_stock.stock)
        if piece is None or stock is None:
            found.append((each_stock.piece, "there is no such piece or sheet any more"))
            continue
        box, room = _box(each_stock, piece, trim_m), _room(stock, trim_m)
        if piece.grain == ("along" if each_stock.turned else "across"):
            found.append((each_stock.piece, "its grain does not allow it to lie so"))
        elif box[0] < 0 or box[1] < 0 or box[0] + box[2] > room[0] or box[1] + box[3] > room[1]:
            found.append((each_stock.piece, "it reaches over the edge of the sheet"))
        else:
            spot = _spot(each_stock, piece, stock, trim_m)
            others = lies.setdefault((each_stock.sheet, each_stock.stock), [])
            if any(_meet(box, spot, other, spot_2, kerf, kerf_m, free) for other, spot_2 in others):
                found.append((each_stock.piece, "it lies on another, or nearer to it than the saw takes"))
            elif not free and parted([*(other for other, _ in others), box], (0, 0, *room), kerf) is None:
                found.append((each_stock.piece, "the sheet cannot be cut apart edge to edge with it there"))
            else:
                others.append((box, spot))
    return found


def _meet(a: Box, sa: Spot, b: Box, sb: Spot, kerf: int, kerf_m: float, free: bool) -> bool:
    near = a[0] < b[0] + b[2] + kerf and b[0] < a[0] + a[2] + kerf and a[1] < b[1] + b[3] + kerf and b[1] < a[1] + a[3] + kerf
    if not near or not free:
        return near
    from uncle_sled.core.studies.cut.nest import overlaps

    return bool(overlaps((sa, sb), kerf_m))


def parted(boxes: Sequence[Box], room: Box, kerf: int) -> Block | None:
    """The tree of cuts that parts boxes in a room edge to edge; None where there is none. Leaves number the boxes."""
    return _parted(tuple(enumerate(boxes)), room, kerf)


def _parted(boxes: tuple[tuple[int, Box], ...], room: Box, kerf: int) -> Block | None:
    if len(boxes) == 1:
        at, (_, _, w, h) = boxes[0]
        return Leaf(at, w, h, turned=False)
    for axis in (0, 1):
        for cut in sorted({box[axis] + box[axis + 2] for _, box in boxes}):
            low = tuple(box for box in boxes if box[1][axis] + box[1][axis + 2] <= cut)
            high = tuple(box for box in boxes if box[1][axis] >= cut + kerf)
            if low and high and len(low) + len(high) == len(boxes):
                a, b = _parted(low, room, kerf), _parted(high, room, kerf)
                if a is not None and b is not None:
                    return Node("xy"[axis], 0, 0, a, b)
                return None
    return None


def _cuts(boxes: Sequence[Box], room: Box, kerf: int, level: int = 0) -> list[Saw]:
    """Cuts that take the room down to its boxes, wherever they lie in it: parted first, then trimmed on four sides."""
    x, y, w, h = room
    if len(boxes) == 1:
        bx, by, bw, bh = boxes[0]
        made: list[Saw] = []
        for along, at, far in (("x", bx - x, bw), ("y", by - y, bh)):
            if at > 0:  # what lies before it goes first
                made.append(Saw(along, max(at - kerf, 0), x=x, y=y, w=w, h=h, level=level))
                if along == "x":
                    x, w = bx, w - at
                else:
                    y, h = by, h - at
                level += 1
            if far < (w if along == "x" else h):
                made.append(Saw(along, far, x=x, y=y, w=w, h=h, level=level))
                if along == "x":
                    w = far
                else:
                    h = far
                level += 1
        return made
    for axis in (0, 1):
        for cut in sorted({box[axis] + box[axis + 2] for box in boxes}):
            low = [box for box in boxes if box[axis] + box[axis + 2] <= cut]
            high = [box for box in boxes if box[axis] >= cut + kerf]
            if low and high and len(low) + len(high) == len(boxes):
                fence = cut - room[axis]
                if axis == 0:
                    first, second = (x, y, fence, h), (x + fence + kerf, y, w - fence - kerf, h)
                else:
                    first, second = (x, y, w, fence), (x, y + fence + kerf, w, h - fence - kerf)
                here = Saw("xy"[axis], fence, x=x, y=y, w=w, h=h, level=level)
                return [here, *_cuts(low, first, kerf, level + 1), *_cuts(high, second, kerf, level + 1)]
    return []


def _filled(stock: Stock, held: Sequence[Held], by_id: dict[str, Wanted], left: dict[str, int], kerf: int, trim_m: float) -> Layout:
    """A sheet with its held pieces and as much of the rest as it takes; ``left`` is counted down."""
    room = _room(stock, trim_m)
    boxes = [_box(stock, by_id[stock.piece], trim_m) for stock in held]
    names = [stock.piece for stock in held]
    turns = [stock.turned for stock in held]
    order = sorted(left, key=lambda id: -(by_id[id].length_m * by_id[id].width_m))
    tried = 0
    for id in order:
        piece = by_id[id]
        while left[id] > 0:
            found = None
            for w, h, turn in _ways(piece):
                for x, y in sorted(
                    {(x, y) for x in (0, *(b[0] + b[2] + kerf for b in boxes)) for y in (0, *(b[1] + b[3] + kerf for b in boxes))}
                ):
                    tried += 1
                    box = (x, y, w, h)
                    if tried > MOST_TRIED or x + w > room[0] or y + h > room[1]:
                        continue
                    if any(
                        x < b[0] + b[2] + kerf and b[0] < x + w + kerf and y < b[1] + b[3] + kerf and b[1] < y + h + kerf for b in boxes
                    ):
                        continue
                    if parted([*boxes, box], (0, 0, *room), kerf) is not None:
                        found = box, turn
                        break
                if found is not None:
                    break
            if found is None:
                break
            boxes.append(found[0])
            names.append(id)
            turns.append(found[1])
            left[id] -= 1
    lies = tuple(
        Lies(name, x * UNIT_M + trim_m, y * UNIT_M + trim_m, w * UNIT_M, h * UNIT_M, turn, pinned=k < len(held))
        for k, ((x, y, w, h), name, turn) in enumerate(zip(boxes, names, turns, strict=True))
    )
    cuts = tuple(
        Cut(saw.along, saw.fence * UNIT_M, (saw.x * UNIT_M + trim_m, saw.y * UNIT_M + trim_m, saw.w * UNIT_M, saw.h * UNIT_M), saw.level)
        for saw in _cuts(boxes, (0, 0, *room), kerf)
    )
    return Layout(stock.id, stock.length_m, stock.width_m, lies, cuts)


def _ways(piece: Wanted) -> list[tuple[int, int, bool]]:
    w, h = units_up(piece.length_m), units_up(piece.width_m)
    ways = [(w, h, False)] if piece.grain != "across" else []
    return ways + ([(h, w, True)] if piece.grain != "along" and (w != h or not ways) else [])


def _room(stock: Stock, trim_m: float) -> tuple[int, int]:
    return units_down(stock.length_m - 2 * trim_m), units_down(stock.width_m - 2 * trim_m)


def _box(stock: Held, piece: Wanted, trim_m: float) -> Box:
    w, h = units_up(piece.length_m), units_up(piece.width_m)
    return round((stock.x_m - trim_m) / UNIT_M), round((stock.y_m - trim_m) / UNIT_M), *((h, w) if stock.turned else (w, h))


def _ring(piece: Wanted) -> tuple[tuple[float, float], ...]:
    return piece.outline or ((0.0, 0.0), (piece.length_m, 0.0), (piece.length_m, piece.width_m), (0.0, piece.width_m))


def _spot(each_stock: Held, piece: Wanted, stock: Stock, trim_m: float) -> Spot:
    """As the free layout sees it, the sheet's long side along x."""
    x, y, turn = each_stock.x_m - trim_m, each_stock.y_m - trim_m, each_stock.turned
    if stock.width_m > stock.length_m:
        w, h = (piece.width_m, piece.length_m) if turn else (piece.length_m, piece.width_m)
        x, y, turn = y, stock.length_m - 2 * trim_m - x - w, not turn
    ring = turned(_ring(piece), 90 if turn else 0)
    w, h = max(a for a, _ in ring), max(b for _, b in ring)
    return Spot(each_stock.piece, x, y_m=y, w_m=w, h_m=h, deg=90 if turn else 0, ring=tuple((a + x, b + y) for a, b in ring))


def _nested_layout(nested: Nested, stock: Stock, trim_m: float, held: Sequence[Held]) -> Layout:
    upright = stock.width_m > stock.length_m
    lies = []
    for spot in nested.spots:
        ring = tuple((a + trim_m, b + trim_m) for a, b in spot.ring)
        x, y, w, h, turn = spot.x_m, spot.y_m, spot.w_m, spot.h_m, spot.deg in (90, 270)
        if upright:  # seen from above either way: the sheet is turned by a quarter
            wide = stock.length_m
            ring = tuple((wide - b, a) for a, b in ring)
            x, y, w, h, turn = wide - trim_m - trim_m - y - h, x, h, w, not turn
        pinned = any(h_.piece == spot.piece and abs(h_.x_m - x - trim_m) < 1e-6 and abs(h_.y_m - y - trim_m) < 1e-6 for h_ in held)
        lies.append(
            Lies(
                spot.piece,
                x + trim_m,
                y_m=y + trim_m,
                w_m=w,
                h_m=h,
                turned=turn,
                ring=ring,
                pinned=pinned,
                deg=(spot.deg + 90 * upright) % 360,
            )
        )
    return Layout(stock.id, stock.length_m, stock.width_m, tuple(lies), ())


def _cost(layouts: Sequence[Layout], stocks: Sequence[Stock]) -> float | None:
    price = {stock.id: stock.price for stock in stocks}
    costs = [price[layout.stock] for layout in layouts]
    return None if any(one is None for one in price.values()) else float(sum(cost or 0.0 for cost in costs))
