"""The pieces of a build, cut from what the builder has and can buy: sheets and bars with their bounds.

Sizes of one's own for a material take the place of those that are usually sold; boards of the rack are beside either and
go first. Where a price is missing the least material is sought, and nothing is said of money.
"""

from __future__ import annotations

import math
from functools import partial
from typing import NamedTuple

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.cut import Cut, StockSize
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody, slow
from uncle_sled.core.studies.cut.cut_plan import CutPlan, cut_plan
from uncle_sled.core.studies.cut.held_pieces import Held, faults_of
from uncle_sled.core.studies.cut.lots import Lot, lots_of
from uncle_sled.core.studies.cut.mitres import LEAST_DEG, Slanted
from uncle_sled.core.studies.cut.sticks import bars_sold_m
from uncle_sled.core.studies.cut.take_off import SHEET_M, TakeOff, take_off
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, Wrong, by_material, wrong_pieces, wrong_saw, wrong_stocks

QUESTIONS = 120  # of each search, whether to go on: the same plan on a fast and a slow machine
RACK = "rack: "


class Patience:
    """Has enough after so many questions, each search from the beginning; tells how far it is."""

    def __init__(self, many: int = QUESTIONS, tell: Tell = nobody) -> None:
        self.many, self.left, self.tell = many, many, tell

    def __call__(self, _share: float = 1.0) -> bool:
        self.left -= 1
        self.tell(1 - max(self.left, 0) / max(self.many, 1), "")
        return self.left < 0


class BuildPlan(msgspec.Struct, frozen=True):
    """The plan with what it was made from. let_go: held pieces that cannot stay, and why; wrong: what kept a line out."""

    plan: CutPlan
    lots: tuple[Lot, ...]
    stocks: tuple[Stock, ...]
    let_go: tuple[tuple[str, str], ...]
    wrong: tuple[Wrong, ...]

    @property
    def pieces(self) -> tuple[Wanted, ...]:
        """What was asked for, equal pieces together."""
        return tuple(lot.wanted for lot in self.lots)


def sizes_sold(pieces: tuple[Wanted, ...], imperial: bool, trim_m: float = 0.0) -> tuple[Stock, ...]:
    """The usual sizes of every material that is wanted, as many as are needed, prices not known.

    Args: trim_m: cut off every edge first: what is sold to size is not trimmed, and counts as larger by that.
    """
    made = []
    for (kind, material), same in by_material(pieces).items():
        if kind == "sheet":
            sold = sorted({wanted.sold_m for wanted in same if wanted.sold_m is not None}, reverse=True)
            several = len(sold) > 1
            for length, width in sold or [SHEET_M[imperial]]:
                name = f"{material}, sheet {length:.4g} x {width:.4g} m" if several else f"{material}, sheet"
                off = 2 * trim_m if several else 0.0
                made.append(Stock(name, "sheet", material, length + off, width + off))
        else:
            made += [
                Stock(f"{material}, {length:.3g} m", "bar", material, length)
                for length in bars_sold_m(any(wanted.metal for wanted in same), imperial)
            ]
    return tuple(made)


def sizes_now(cut: Cut, off: TakeOff) -> Cut:
    """The cut with its own sizes called as the pieces of the same stuff are called now: a new name parts nothing."""
    called = {piece.stuff: piece.material for piece in off.pieces if piece.stuff}
    sizes = tuple([replace(size, material=called.get(size.stuff, size.material)) if size.stuff else size for size in cut.sizes])
    return cut if sizes == cut.sizes else replace(cut, sizes=sizes)


def stocks_of(cut: Cut, pieces: tuple[Wanted, ...], imperial: bool) -> tuple[Stock, ...]:
    """One's own sizes and the rack, and the usual sizes of materials of which nobody gave any to buy."""
    made: list[Stock] = []
    usual = sizes_sold(pieces, imperial, cut.trim.si)
    for (kind, material), _ in by_material(pieces).items():
        mine = [size for size in cut.sizes if (size.kind, size.material) == (kind, material)]
        sold = [_stock(size) for size in mine if not size.rack]
        sold = sold or [stock for stock in usual if (stock.kind, stock.material) == (kind, material)]
        rack = [_stock(size) for size in mine if size.rack]
        made += rack + sold
    return tuple(made)


def _stock(size: StockSize) -> Stock:
    width = size.width.si if size.width is not None and size.kind == "sheet" else 0.0
    name = f"{RACK if size.rack else ''}{size.id}"
    return Stock(
        name,
        size.kind,
        material=size.material,
        length_m=size.length.si,
        width_m=width,
        qty=size.qty,
        price=0.0 if size.rack else size.price,
    )


def held_of(cut: Cut, lots: tuple[Lot, ...]) -> tuple[Held, ...]:
    """Pins as held pieces of the list; those of pieces that are gone are left out."""
    line = {piece.key: lot.wanted.id for lot in lots for piece in lot.pieces}
    return tuple(Held(line[pin.piece], pin.stock, pin.sheet, pin.x.si, pin.y.si, pin.turned) for pin in cut.pins if pin.piece in line)


def slants_of(lots: tuple[Lot, ...]) -> tuple[Slanted, ...]:
    """Sticks with a slanted end, by its angle and how wide they are across it."""
    made = []
    for lot in lots:
        piece = lot.pieces[0]
        for deg in {abs(one) for one in piece.ends_deg if LEAST_DEG <= abs(one) <= 75.0}:
            if piece.kind == "bar" and piece.width_m > 0:
                made.append(Slanted(lot.wanted.id, _across_m(piece.width_m, piece.thickness_m, piece.place, deg), deg))
    return tuple(made)


def _across_m(wide_m: float, thin_m: float, place: tuple[tuple[float, float], ...], _deg: float) -> float:
    """Which side of a stick shows in the face, that is across a slant seen there."""
    if len(place) < 3:
        return thin_m
    area = abs(sum(a[0] * b[1] - a[1] * b[0] for a, b in zip(place, (*place[1:], place[0]), strict=True))) / 2
    long = max(math.dist(a, b) for a, b in zip(place, (*place[1:], place[0]), strict=True))
    seen = area / max(long, 1e-9)
    return thin_m if abs(seen - thin_m) < abs(seen - wide_m) else wide_m


@keep(
    take_off, "build.cut.kerf", "build.cut.trim", "build.cut.sizes", "build.cut.pins", "build.cut.saw", "build.brief.region", "many", most=4
)
def plan_of(build: Build, facts: Facts, many: int = QUESTIONS, tell: Tell = nobody) -> BuildPlan:
    """What is cut from what; nothing where no body is drawn.

    Args: many: how often every material's search asks whether to go on; tell: how far it is.
    """
    cut = build.cut
    lots = lots_of(take_off(build, facts))
    every = tuple(lot.wanted for lot in lots)
    stocks = stocks_of(sizes_now(cut, take_off(build, facts)), every, build.brief.region == "North American")
    kerf, trim = cut.kerf.si, cut.trim.si
    wrong = (*wrong_saw(kerf, trim), *wrong_pieces(every, kerf), *wrong_stocks(stocks, trim))
    if any(not each_wrong.of for each_wrong in wrong):
        return BuildPlan(CutPlan((), (), ()), lots, stocks, (), wrong)
    bad = {each_wrong.of for each_wrong in wrong}
    pieces = tuple(wanted for wanted in every if wanted.id not in bad)
    stocks = tuple(stock for stock in stocks if stock.id not in bad)
    held, slants, free = held_of(cut, lots), slants_of(lots), cut.saw == "free"
    let_go: list[tuple[str, str]] = []
    plans = []
    groups = by_material(pieces)
    for k, ((_, material), mine) in enumerate(groups.items()):
        tell(k / len(groups), f"laying out {material}")
        told = partial(_told, tell, (k / len(groups), (k + 1) / len(groups)), f"laying out {material}")
        names = {wanted.id for wanted in mine}
        here = [stock for stock in held if stock.piece in names]
        from_ = [stock for stock in stocks if stock.material == material]
        let_go += faults_of(mine, from_, kerf, trim, free, here)
        mine_slants = tuple(slanted for slanted in slants if slanted.piece in names)
        plans.append(_laid(tuple(mine), tuple(from_), _Saw(kerf, trim, free), tuple(here), mine_slants, many, told))
    bars = tuple(bar_plan for plan in plans for bar_plan in plan.bars)
    sheets = tuple(sheet for plan in plans for sheet in plan.sheets)
    missing = tuple((wanted.id, wanted.qty) for wanted in every if wanted.id in bad)
    unplaced = (*(one for plan in plans for one in plan.unplaced), *missing)
    return BuildPlan(CutPlan(bars, sheets, unplaced), lots, stocks, tuple(let_go), wrong)


def _told(tell: Tell, between: tuple[float, float], words: str, share: float | None, _: str) -> None:
    """How far one material is, as a share of all of them."""
    tell(between[0] + (between[1] - between[0]) * (share or 0.0), words)


class _Saw(NamedTuple):
    kerf_m: float
    trim_m: float
    free: bool


@keep(by_value("mine"), by_value("from_"), by_value("saw"), by_value("here"), by_value("slants"), "many", most=160)
def _laid(
    mine: tuple[Wanted, ...],
    from_: tuple[Stock, ...],
    saw: _Saw,
    here: tuple[Held, ...],
    slants: tuple[Slanted, ...],
    many: int,
    tell: Tell,
) -> CutPlan:
    """The plan of one material: kept by what it is made from, so that an edit lays out what it changes."""
    return cut_plan(mine, from_, saw.kerf_m, saw.trim_m, Patience(many, tell), saw.free, here, slants)


def reads(s: Studied) -> tuple[object, ...]:
    """What the plan depends on."""
    cut = s.build.cut
    return take_off(s.build, s.facts), cut.kerf, cut.trim, cut.sizes, cut.pins, cut.saw, s.build.brief.region


@slow(reads)
def laid_out(s: Studied, tell: Tell) -> BuildPlan:
    """The plan with all its patience: takes seconds."""
    return plan_of(s.build, s.facts, QUESTIONS, tell)


QUICK = 0  # a plan at once: what first fit and one pricing give


@slow(reads)
def first_laid(s: Studied, tell: Tell) -> BuildPlan:
    """A plan that is there before anybody waits: each search's first answer."""
    return plan_of(s.build, s.facts, QUICK, tell)
