"""What is to be cut and what there is to cut it from, apart from any build; and what is wrong with either.

Lengths are metres; inside the layouts they are whole hundredths of a millimetre, a piece rounded up and stock down,
so that sums of cuts are exact and nothing comes out too long.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import Literal

import msgspec

CutKind = Literal["sheet", "bar"]
Grain = Literal["along", "across", "any"]
UNIT_M = 1e-5
LONGEST_M = 100.0
MOST_PIECES = 5000


class Wanted(msgspec.Struct, frozen=True):
    """So many equal pieces of a material. width_m: 0 for bars. grain: of a sheet piece's length against the sheet's long side.

    outline: true outline [m] from a corner of its box, for sheet pieces that are no rectangles; what is cut off edge to
    edge is its box.
    """

    id: str
    kind: CutKind
    material: str
    length_m: float
    width_m: float = 0.0
    qty: int = 1
    grain: Grain = "any"
    outline: tuple[tuple[float, float], ...] = ()
    metal: bool = False  # a bar that is sold in the lengths of a mill
    sold_m: tuple[float, float] | None = None  # of a sheet that is sold in a size of its own: long and wide


class Stock(msgspec.Struct, frozen=True):
    """A size to buy or a board of the rack. qty: None means as many as are wanted. price: None where nobody has said."""

    id: str
    kind: CutKind
    material: str
    length_m: float
    width_m: float = 0.0
    qty: int | None = None
    price: float | None = None


class Wrong(msgspec.Struct, frozen=True):
    """Something that cannot be cut as it is written. of: the id of the piece or the stock; '' for what is wrong with all."""

    of: str
    says: str


NO_STOCK = Wrong("", "there is nothing in stock; a line with a size to buy would be right.")


def costs_of(stocks: Sequence[Stock]) -> tuple[bool, tuple[float, ...]]:
    """Whether all prices are known, and what one of each counts in the search: its price, else its length or area [m, m2].

    Where a price is missing the least material is sought; what is there for nothing counts nothing either way.
    """
    priced = all(stock.price is not None for stock in stocks)
    if priced:
        return True, tuple(stock.price or 0.0 for stock in stocks)
    return False, tuple(0.0 if stock.price == 0 else stock.length_m * (stock.width_m if stock.kind == "sheet" else 1.0) for stock in stocks)


def units_up(metres: float) -> int:
    """Metres as hundredths of a millimetre, rounded up past rounding noise."""
    return math.ceil(round(metres / UNIT_M, 3))


def units_down(metres: float) -> int:
    """Metres as hundredths of a millimetre, rounded down past rounding noise."""
    return math.floor(round(metres / UNIT_M, 3))


def by_material(pieces: Iterable[Wanted]) -> dict[tuple[CutKind, str], tuple[Wanted, ...]]:
    """Pieces that are cut from the same kind and material of stock, in the order of the list."""
    made: dict[tuple[CutKind, str], tuple[Wanted, ...]] = {}
    for piece in pieces:
        key = piece.kind, piece.material
        made[key] = (*made.get(key, ()), piece)
    return made


def qty_by_id(pieces: Iterable[Wanted]) -> dict[str, int]:
    """How many of each piece, lines of the same id together, in the order of the list."""
    sums: dict[str, int] = {}
    for piece in pieces:
        sums[piece.id] = sums.get(piece.id, 0) + piece.qty
    return sums


def ring_area_m2(ring: Sequence[tuple[float, float]]) -> float:
    """Area that a ring of corners encloses [m2], whichever way round; the first is not repeated."""
    return abs(sum(a[0] * b[1] - a[1] * b[0] for a, b in zip(ring, (*ring[1:], ring[0]), strict=True))) / 2


def wrong_pieces(pieces: Iterable[Wanted], kerf_m: float) -> tuple[Wrong, ...]:
    """What is wrong with a list of pieces, for a saw that takes so much."""
    pieces = tuple(pieces)
    found = [Wrong(piece.id, says) for piece in pieces for says in _of_the_kerf(piece, kerf_m)]
    seen: dict[str, Wanted] = {}
    for piece in pieces:
        found += [Wrong(piece.id, says) for says in _of_a_piece(piece)]
        before = seen.setdefault(piece.id, piece)
        if before is not piece and msgspec.structs.replace(before, qty=piece.qty) != piece:
            found.append(Wrong(piece.id, f"“{piece.id}” stands twice with other sizes; one id, one size."))
    if sum(max(piece.qty, 0) for piece in pieces) > MOST_PIECES:
        found.append(Wrong("", f"over {MOST_PIECES} pieces; cut the list into several."))
    return tuple(found)


def wrong_stocks(stocks: Iterable[Stock], trim_m: float) -> tuple[Wrong, ...]:
    """What is wrong with a list of stock of which so much is trimmed off every edge."""
    found: list[Wrong] = []
    kept: dict[str, Stock] = {}
    for stock in stocks:
        found += [Wrong(stock.id, says) for says in _of_a_stock(stock, trim_m)]
        if kept.setdefault(stock.id, stock) is not stock:
            found.append(Wrong(stock.id, f"“{stock.id}” stands twice in the stock; give each its own id."))
    return tuple(found)


def wrong_saw(kerf_m: float, trim_m: float) -> tuple[Wrong, ...]:
    """What is wrong with the saw as it was said."""
    return tuple(
        Wrong("", f"the {what} is below 0; 0 or more millimetres would be right.")
        for what, metres in (("kerf", kerf_m), ("trim", trim_m))
        if not 0 <= metres < math.inf
    )


def _of_the_kerf(piece: Wanted, kerf_m: float) -> list[str]:
    least = min(piece.length_m, piece.width_m) if piece.kind == "sheet" else piece.length_m
    return ["the saw takes more than the piece is; a smaller kerf would be right."] if 0 < least <= kerf_m else []


def _of_a_piece(piece: Wanted) -> list[str]:
    says = _sizes(piece.kind, piece.length_m, piece.width_m)
    if piece.qty < 1:
        says.append("qty is below 1; a whole number from 1 up would be right.")
    if piece.kind == "bar" and piece.grain != "any":
        says.append("grain is for sheets; leave it empty for a bar.")
    if piece.outline:
        says += [] if says else _of_an_outline(piece)
    return says


def _of_an_outline(piece: Wanted) -> list[str]:
    from shapely import Polygon

    if piece.kind == "bar":
        return ["an outline is for sheets; leave it empty for a bar."]
    if len(piece.outline) < 3:
        return ["the outline has fewer than three corners."]
    shape = Polygon(piece.outline)
    if not shape.is_valid:
        return ["the outline crosses or touches itself; go around it once."]
    if shape.area < 1e-8:
        return ["the outline encloses nothing; three corners that do not lie on a line would be right."]
    x0, y0, x1, y1 = shape.bounds
    if abs(x1 - x0 - piece.length_m) > 1e-4 or abs(y1 - y0 - piece.width_m) > 1e-4:
        return [
            f"the outline is {(x1 - x0) * 1e3:.1f} by {(y1 - y0) * 1e3:.1f} mm, but {piece.length_m * 1e3:.1f} by"
            f" {piece.width_m * 1e3:.1f} mm is written; the two must agree."
        ]
    return []


def _of_a_stock(stock: Stock, trim_m: float) -> list[str]:
    says = _sizes(stock.kind, stock.length_m, stock.width_m)
    if stock.qty is not None and stock.qty < 0:
        says.append("qty is below 0; leave it empty for as many as are wanted.")
    if stock.price is not None and not 0 <= stock.price < math.inf:
        says.append("price is below 0; 0 or more would be right, or empty where it is not known.")
    least = min(stock.length_m, stock.width_m) if stock.kind == "sheet" else stock.length_m
    if not says and 2 * trim_m >= least:
        says.append("the trim takes all of it; a smaller trim would be right.")
    return says


def _sizes(kind: str, length_m: float, width_m: float) -> list[str]:
    says = [
        f"{name} is {value * 1e3:g} mm; over 0 and up to {LONGEST_M:.0f} m would be right."
        for name, value in (("length", length_m), *((("width", width_m),) if kind == "sheet" else ()))
        if not 0 < value <= LONGEST_M
    ]
    if kind == "bar" and width_m:
        says.append("a bar has no width; leave it empty.")
    return says
