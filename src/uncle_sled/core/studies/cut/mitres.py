"""Slanted ends laid into each other: two sticks of one angle are cut out of one length with one slanted cut between them.

The second is turned end for end, so that both slants agree; together they take w tan(a) less, and the slanted cut takes
kerf / cos(a). Longest with shortest (shop notes: board i with n - 1 - i). The plan with pairs counts only where it is better.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import msgspec

from uncle_sled.core.studies.cut.bars import BarPattern, BarPlan, bar_plan, never
from uncle_sled.core.studies.cut.wanted import Stock, Wanted

LEAST_DEG = 2.0
LEAST_M = 0.003
TIE = " & "


class Slanted(msgspec.Struct, frozen=True):
    """A kind of stick with a slanted end. wide_m: across the slant; deg: off square."""

    piece: str
    wide_m: float
    deg: float


def overlap_m(wide_m: float, deg: float, kerf_m: float) -> float:
    """What two sticks save by one slanted cut between them against two cuts and a square one [m]."""
    angle = math.radians(deg)
    return wide_m * math.tan(angle) - kerf_m / math.cos(angle) + kerf_m


def tied(
    pieces: Sequence[Wanted], slanted: Sequence[Slanted], longest_m: float, kerf_m: float
) -> tuple[list[Wanted], dict[str, tuple[str, str, float]]]:
    """The list with slanted ones two by two, and of which two each pair is and how much they overlap [m]."""
    by_id = {piece.id: piece for piece in pieces}
    left = {piece.id: piece.qty for piece in pieces}
    pairs: dict[str, tuple[str, str, float]] = {}
    many: dict[str, int] = {}
    for key in sorted({(round(each_slanted.deg, 1), round(each_slanted.wide_m, 4)) for each_slanted in slanted}):
        saved = overlap_m(key[1], key[0], kerf_m)
        if saved < LEAST_M:
            continue
        row = [each_slanted.piece for each_slanted in slanted if (round(each_slanted.deg, 1), round(each_slanted.wide_m, 4)) == key]
        row = sorted((id for id in dict.fromkeys(row) for _ in range(left.get(id, 0))), key=lambda id: (-by_id[id].length_m, id))
        while len(row) > 1:
            first = row.pop(0)
            room = longest_m - by_id[first].length_m + saved - kerf_m
            at = next((k for k in range(len(row) - 1, -1, -1) if by_id[row[k]].length_m <= room), None)
            if at is None:
                continue
            second = row.pop(at)
            id = f"{first}{TIE}{second}"
            pairs[id] = (first, second, saved)
            many[id] = many.get(id, 0) + 1
            left[first] -= 1
            left[second] -= 1
    made = [msgspec.structs.replace(piece, qty=left[piece.id]) for piece in pieces if left[piece.id] > 0]
    for id, (first, second, saved) in pairs.items():
        long = by_id[first].length_m + by_id[second].length_m + kerf_m - saved
        made.append(msgspec.structs.replace(by_id[first], id=id, length_m=long, qty=many[id]))
    return made, pairs


def mitred_plan(
    pieces: Sequence[Wanted],
    slanted: Sequence[Slanted],
    stocks: Sequence[Stock],
    kerf_m: float,
    trim_m: float,
    enough: Callable[[], bool] = never,
) -> BarPlan:
    """Bars of one material with slanted ends laid into each other where that takes less stock.

    Without pairs nothing is searched where even the least that it can take is more.
    """
    longest = max((stock.length_m - 2 * trim_m for stock in stocks), default=0.0)
    made, pairs = tied(pieces, slanted, longest, kerf_m)
    if not pairs:
        return bar_plan(pieces, stocks, kerf_m, trim_m, enough)
    nested = bar_plan(made, stocks, kerf_m, trim_m, enough)
    quick = bar_plan(pieces, stocks, kerf_m, trim_m, lambda: True)
    if not nested.unplaced and not quick.unplaced and _metres(nested, stocks) < _least(quick, stocks) - 1e-6:
        return _with_pairs(nested, pairs)
    plain = bar_plan(pieces, stocks, kerf_m, trim_m, enough)
    if sum(many for _, many in nested.unplaced) > sum(many for _, many in plain.unplaced):
        return plain
    if _metres(nested, stocks) > _metres(plain, stocks) + 1e-9:
        return plain
    if abs(_metres(nested, stocks) - _metres(plain, stocks)) < 1e-9 and nested.used >= plain.used:
        return plain
    return _with_pairs(nested, pairs)


def _with_pairs(nested: BarPlan, pairs: dict[str, tuple[str, str, float]]) -> BarPlan:
    return msgspec.structs.replace(nested, patterns=tuple(_untied(pattern, pairs) for pattern in nested.patterns), tied=True)


def _least(plan: BarPlan, stocks: Sequence[Stock]) -> float:
    """The least of what is sought that there can be, by a plan's own bound."""
    return plan.cost_bound if plan.cost_bound is not None else _metres(plan, stocks) / (1 + plan.over)


def _metres(plan: BarPlan, stocks: Sequence[Stock]) -> float:
    """What is sought: money where every stock has a price, else metres."""
    if plan.cost is not None:
        return plan.cost
    long = {stock.id: stock.length_m for stock in stocks}
    return sum(pattern.times * long[pattern.stock] for pattern in plan.patterns)


def _untied(pattern: BarPattern, pairs: dict[str, tuple[str, str, float]]) -> BarPattern:
    """A pattern with its pairs as two pieces again."""
    pieces: list[str] = []
    overlaps: list[tuple[int, float]] = []
    for name in pattern.pieces:
        if name in pairs:
            first, second, saved = pairs[name]
            pieces += [first, second]
            overlaps.append((len(pieces) - 1, saved))
        else:
            pieces.append(name)
    return msgspec.structs.replace(pattern, pieces=tuple(pieces), overlaps=tuple(overlaps))
