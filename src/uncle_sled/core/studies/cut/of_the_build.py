"""The pieces of a build, cut from the sizes that are sold: sheets and bars with their bounds.

Until a builder says what stands in the rack and what a shop charges, the usual sizes without a price are taken, and the
least material is sought.
"""

from __future__ import annotations

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.studies.cut.plan import CutPlan, cut_plan
from uncle_sled.core.studies.cut.take_off import SHEET_M, take_off, wanted_of
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, by_material

BARS_M = {False: (2.4, 3.0, 3.6, 4.8), True: (2.4384, 3.048, 3.6576, 4.8768)}  # imperial: 8, 10, 12, 16 feet
KERF_M = 0.0032
QUESTIONS = 120  # of each search, whether to go on: the same plan on a fast and a slow machine


class Patience:
    """Has enough after so many questions, each search from the beginning."""

    def __init__(self, many: int = QUESTIONS) -> None:
        self.many, self.left = many, many

    def __call__(self, share: float = 1.0) -> bool:
        self.left -= 1
        return self.left < 0


def sizes_sold(pieces: tuple[Wanted, ...], imperial: bool) -> tuple[Stock, ...]:
    """The usual sizes of every material that is wanted, as many as are needed, prices not known."""
    made = []
    for kind, material in by_material(pieces):
        if kind == "sheet":
            length, width = SHEET_M[imperial]
            made.append(Stock(f"{material}, sheet", "sheet", material, length, width))
        else:
            made += [Stock(f"{material}, {length:.3g} m", "bar", material, length) for length in BARS_M[imperial]]
    return tuple(made)


def plan_of(build: Build, facts: Facts) -> tuple[CutPlan, tuple[Wanted, ...]]:
    """What is cut from what, and the pieces that were asked for; nothing where no body is drawn."""
    pieces = wanted_of(take_off(build, facts))
    stocks = sizes_sold(pieces, build.brief.region == "North American")
    plans = [cut_plan(mine, stocks, KERF_M, 0.0, Patience()) for mine in by_material(pieces).values()]
    bars = tuple(one for plan in plans for one in plan.bars)
    sheets = tuple(one for plan in plans for one in plan.sheets)
    return CutPlan(bars, sheets, tuple(one for plan in plans for one in plan.unplaced)), pieces
