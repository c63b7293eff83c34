"""Everything that is to be cut, material by material: bars and sheets with their bounds, and what fits nowhere.

Edge to edge an outline is cut out of its box. Each material is a search of its own; while nobody has had enough, each runs to its end.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

import msgspec

from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.held_pieces import Held, plan_around
from uncle_sled.core.studies.cut.layouts import SheetPlan
from uncle_sled.core.studies.cut.mitres import Slanted, mitred_plan
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, by_material


class CutPlan(msgspec.Struct, frozen=True):
    """What is cut from what: bars, sheets, what fits nowhere, and how far it can be from the least."""

    bars: tuple[BarPlan, ...]
    sheets: tuple[SheetPlan, ...]
    unplaced: tuple[tuple[str, int], ...]

    @property
    def cost(self) -> float | None:
        """Money of all that is taken from stock; None where some price is not known."""
        costs = [plan.cost for plan in self.bars] + [sheet.cost for sheet in self.sheets]
        return None if any(cost is None for cost in costs) else float(sum(cost or 0.0 for cost in costs))


def _never(_: float) -> bool:
    return False


def cut_plan(
    pieces: Sequence[Wanted],
    stocks: Sequence[Stock],
    kerf_m: float = 0.0,
    trim_m: float = 0.0,
    enough: Callable[[float], bool] = _never,
    free: bool = False,
    held: Sequence[Held] = (),
    slanted: Sequence[Slanted] = (),
) -> CutPlan:
    """Pieces without faults (`wrong_pieces`) out of stock of their own kind and material.

    Args: kerf_m, trim_m: of the saw, and cut off every edge or end of stock first [m]; enough: asked with the share of all
    patience that may be spent by now, so that the first material leaves some to the last; True ends the search in hand.
    free: sheets are cut along the outlines (router, jigsaw) instead of edge to edge; held: pieces that stay in their place;
    slanted: sticks whose slanted ends may lie into each other.
    """
    bars: list[BarPlan] = []
    sheets: list[SheetPlan] = []
    groups = by_material(pieces)
    for k, ((kind, material), mine) in enumerate(groups.items()):
        by_now = partial(enough, (k + 1) / len(groups))
        from_ = [stock for stock in stocks if (stock.kind, stock.material) == (kind, material)]
        if kind == "bar":
            names = {piece.id for piece in mine}
            slants = [each_slanted for each_slanted in slanted if each_slanted.piece in names]
            bars.append(mitred_plan(mine, slants, from_, kerf_m, trim_m, by_now))
        else:
            mine_held = [stock for stock in held if stock.piece in {piece.id for piece in mine}]
            sheets.append(plan_around(mine, from_, kerf_m, trim_m, free, mine_held, by_now))
    left = tuple(one for bar in bars for one in bar.unplaced) + tuple(one for sheet in sheets for one in sheet.unplaced)
    return CutPlan(tuple(bars), tuple(sheets), left)
