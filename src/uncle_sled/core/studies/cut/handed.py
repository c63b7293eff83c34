"""Which piece of the drawing lies where: equal pieces of a plan are given their numbers one after the other."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.cut.bars import BarPattern, BarPlan
from uncle_sled.core.studies.cut.cut_from_stock import BuildPlan
from uncle_sled.core.studies.cut.layouts import Layout, SheetPlan
from uncle_sled.core.studies.cut.numbers import Named, numbers_of
from uncle_sled.core.studies.cut.wanted import Wanted


class OnSheet(msgspec.Struct, frozen=True):
    """One sheet of the plan: its place among those of its material, from 1, and its pieces in the order of the layout."""

    plan: SheetPlan
    number: int
    layout: Layout
    named: tuple[Named, ...]

    @property
    def id(self) -> str:
        """Its material and number, by which it is known."""
        return f"{self.plan.material}/{self.number}"


class OnBars(msgspec.Struct, frozen=True):
    """Bars that are cut alike. named: of every place of the pattern the pieces of all these bars."""

    plan: BarPlan
    pattern: BarPattern
    named: tuple[tuple[Named, ...], ...]


class Handed(msgspec.Struct, frozen=True):
    """A plan whose pieces have their names: sheets, bars and what is held."""

    sheets: tuple[OnSheet, ...]
    bars: tuple[OnBars, ...]
    wanted: dict[str, Wanted]


@keep("made", "build.cut.numbers", "build.cut.pins", most=2)
def handed(made: BuildPlan, build: Build, facts: Facts) -> Handed:
    """The plan with its pieces by name; a held piece is the one that was held."""
    of = numbers_of(build, facts).of
    pins = {(pin.stock, round(pin.x.si, 5), round(pin.y.si, 5)): pin.piece for pin in build.cut.pins}
    held = set(pins.values())
    free = {lot.wanted.id: [piece.key for piece in lot.pieces if piece.key not in held] for lot in made.lots}
    spare = {lot.wanted.id: [piece.key for piece in lot.pieces if piece.key in held] for lot in made.lots}

    def next_of(id: str) -> Named:
        return of[free[id].pop(0) if free[id] else spare[id].pop(0)]

    sheets = []
    for plan in made.plan.sheets:
        for number, layout in enumerate(plan.layouts, 1):
            named = []
            for lying in layout.pieces:
                key = pins.get((layout.stock, round(lying.x_m, 5), round(lying.y_m, 5))) if lying.pinned else None
                if key is not None and key in spare[lying.piece]:
                    spare[lying.piece].remove(key)
                    named.append(of[key])
                else:
                    named.append(next_of(lying.piece))
            sheets.append(OnSheet(plan, number, layout, tuple(named)))
    bars = []
    for bar in made.plan.bars:
        for pattern in bar.patterns:
            cut = tuple(tuple(next_of(id) for _ in range(pattern.times)) for id in pattern.pieces)
            bars.append(OnBars(bar, pattern, cut))
    return Handed(tuple(sheets), tuple(bars), {lot.wanted.id: lot.wanted for lot in made.lots})
