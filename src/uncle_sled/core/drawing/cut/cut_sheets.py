"""Pages for the saw: every sheet to scale with its cuts in their order and its pieces, every bar with its stops. Points, lying."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.drawing.cut.miss_words import miss_words
from uncle_sled.core.drawing.cut.sheet_drawn import bar_drawn, bar_long_m, sheet_drawn
from uncle_sled.core.drawing.cut.work_words import board_work, ends_words, sold_words, work_words
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.as_built import misses_of
from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.cut_from_stock import RACK, BuildPlan, plan_of
from uncle_sled.core.studies.cut.handed import Handed, OnBars, OnSheet, handed
from uncle_sled.core.studies.cut.layouts import Layout, SheetPlan
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.sawing import Step, offcuts_of, steps_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words, lower_first, upper_first

CAUTION = "Saws maim and dust harms: guards on, eyes, ears and lungs kept; the saw's own papers decide. Check each piece on the body before it is cut."
BAR_HIGH, BAR_ROW = 16.0, 38.0
NO_BREAK = "\u00a0"
DRAWN = 0.55  # of the page that a sheet may take


def cut_sheets(s: Studied, name: str, day: str, made: BuildPlan | None = None) -> tuple[Page, ...]:
    """What is cut from what, then every sheet, then bars; none where nothing is drawn that could be cut. Args: made: a plan there is."""
    made = plan_of(s.build, s.facts) if made is None else made
    if not made.lots:
        return ()
    whose = f"{name}, {s.build.name}, {day}"
    hand = handed(made, s.build, s.facts)
    pages = [*_first_pages(s, made, whose)]
    for on in hand.sheets:
        pages += _sheet_pages(s, on, hand, whose)
    for bars in made.plan.bars:
        pages += _bar_pages(s, bars, [on_bars for on_bars in hand.bars if on_bars.plan is bars], hand, whose)
    return tuple(pages)


def _new(s: Studied, title: str, whose: str) -> Sheets:
    return Sheets(paper_of(s.build).lying, title, whose, CAUTION)


def _words(s: Studied) -> Words:
    return Words(s.build.brief.reading.shown())


def _first_pages(s: Studied, made: BuildPlan, whose: str) -> tuple[Page, ...]:
    """How much of what, what fits nowhere, what changed since the last print, and seams that no stick backs."""
    sheets = _new(s, "What is cut from what", whose)
    sheets.stops(stop_words(s, ("Cut",)))
    own = "Own sizes and the rack first; else sizes that are sold nearly everywhere."
    sold = "Sizes that are sold nearly everywhere; neither your rack nor prices are counted."
    sheets.words(f"{own if s.build.cut.sizes else sold} Parts inside of the frame are cut to fit.", ink="pencil")
    sheets.gap()
    for text in _lines(s, made, _words(s)):
        sheets.words(text, 11, "primer" if text.startswith(("Not placed", "Changed", "No longer", "Cut already")) else "ink")
    return sheets.done()


def _lines(s: Studied, made: BuildPlan, words: Words) -> Iterator[str]:
    off, numbers = take_off(s.build, s.facts), numbers_of(s.build, s.facts)
    plan, kerf = made.plan, s.build.cut.kerf.si
    cuts: list[SheetPlan | BarPlan] = [*plan.sheets, *plan.bars]
    for cut in cuts:
        yield f"{words.material(cut.material)}: {told(cut, words, kerf)}"
    for name, many in plan.unplaced:
        yield f"Not placed: {many} of {name}; larger than what is sold: join it over a stick."
    for name, why in made.let_go:
        yield f"Not placed where it was held: {name}, {why}."
    if numbers.changed:
        yield f"Changed since print {s.build.cut.prints}: {', '.join(numbered.label for numbered in numbers.changed)}"
    for miss in misses_of(s.build, s.facts):
        if miss.state in ("too short", "too long"):
            yield f"Cut already and off: {miss.named.label}, {miss_words(miss, words)}"
    if numbers.gone:
        yield f"No longer wanted: {', '.join(numbers.gone)}"
    for unbacked in off.unbacked:
        yield f"{unbacked.surface}: a seam at {words.cut(unbacked.at_m)} has no stick behind; add one there."
    yield from off.unsaid
    for spread in off.spreads:
        yield f"{spread.of}, {lower_first(spread.material)}: {words.m2(spread.area_m2)} and what the laps take"
    filled: dict[str, list[float]] = {}
    for piece in off.pieces:
        if piece.kind == "fill":
            filled.setdefault(piece.material, []).append(piece.area_m2)
    for material, areas in filled.items():
        yield f"{words.material(material)}: {len(areas)} {'bay' if len(areas) == 1 else 'bays'} by knife, {words.m2(sum(areas))}"


def told(plan: SheetPlan | BarPlan, words: Words, kerf_m: float) -> str:
    """How many, how good, how much is lost, in one line."""
    waste = f"{words.share(plan.waste_share, 0)} is offcut; kerf {words.thick(kerf_m)}"
    if isinstance(plan, BarPlan):
        how = f"within {words.share(plan.over)} of the least there can be" if plan.over else "the least there can be"
        tied = ", slanted ends in pairs" if plan.tied else ""
        return f"{plan.used} {'bar' if plan.used == 1 else 'bars'}{tied}, {how}; {waste}"
    gap = "there can be no fewer" if plan.gap <= 0 else f"at least {plan.bound} are needed, {plan.gap} between not settled"
    return f"{plan.used} {'sheet' if plan.used == 1 else 'sheets'}, {gap}; {waste}"


def _alike(on: OnSheet) -> str:
    """Which sheet before it is cut the same way: fence and stop can stay."""

    def cuts(layout: Layout) -> object:
        return layout.stock, layout.cuts, tuple((piece.x_m, piece.y_m, piece.w_m, piece.h_m) for piece in layout.pieces)

    for number, other in enumerate(on.plan.layouts[: on.number - 1], 1):
        if cuts(other) == cuts(on.layout):
            return f", cut like sheet {number}"
    return ""


def _sheet_pages(s: Studied, on: OnSheet, hand: Handed, whose: str) -> tuple[Page, ...]:
    """One sheet as large as the page allows; its cuts in their order; every piece with its place and turn; what goes to the rack."""
    words, cut, layout, plan = _words(s), s.build.cut, on.layout, on.plan
    sheets = _new(s, f"{words.material(plan.material)}, sheet {on.number} of {len(plan.layouts)}", whose)
    source = "From the rack, " if layout.stock.startswith(RACK) else ""
    wide, high = sheets.room
    n = scale_for(layout.length_m, layout.width_m, (wide - 4, high * DRAWN))
    scale = POINTS_PER_M / n
    sheets.words(f"{source}{words.cut(layout.length_m)} × {words.cut(layout.width_m)}, drawn 1 : {n}{_alike(on)}. White is left over.")
    keep = offcuts_of(layout, cut.kerf.si, cut.keep_m2)
    sheets.picture(layout.width_m * scale + 4, sheet_drawn(on, hand.wanted, words, scale, (2.0, 2.0), keep=keep))
    kg_m2 = next((numbered.piece.kg_m2 for numbered in on.named if numbered.piece.kg_m2), None)
    steps = steps_of(layout, cut.kerf.si, cut.carry_m2, cut.carry.si, kg_m2)
    if steps:
        sheets.head("Cuts, in this order")
        rows = [(str(k), step_words(step, words)) for k, step in enumerate(steps, 1)]
        sheets.table((Column("Cut", right=True), Column("What is in hand, which way, where the fence stands", wraps=True)), rows)
    else:
        sheets.words("Cut along the lines, inner ones first.")
    sheets.head("Pieces, from the sheet's low left corner")
    heads = (Column("No."), Column("What", wraps=True), Column("Size", right=True), Column("Along", right=True), Column("Up", right=True))
    sheets.table((*heads, Column("Turned", right=True), Column("Work", wraps=True)), _pieces_on(on, words))
    for offcut in keep:
        size = f"{words.cut(offcut.w_m)} × {words.cut(offcut.h_m)}"
        sheets.words(f"To the rack: {size}, from {words.cut(offcut.x_m)} along and {words.cut(offcut.y_m)} up")
    return sheets.done()


def _pieces_on(on: OnSheet, words: Words) -> list[tuple[str, ...]]:
    rows: list[tuple[str, ...]] = []
    for lying, numbered in zip(on.layout.pieces, on.named, strict=True):
        piece = numbered.piece
        size = f"{words.cut(piece.length_m)} × {words.cut(piece.width_m)}"
        turn = f"{lying.turn_deg}°"
        mind = (board_work(piece, words), "held there" if lying.pinned else "", "changed" if numbered.standing == "changed" else "")
        place = (words.cut(lying.x_m), words.cut(lying.y_m))
        rows.append((numbered.label, f"{piece.of}, {piece.name}", size, *place, turn, "; ".join(text for text in mind if text)))
    return rows


def step_words(step: Step, words: Words) -> str:
    """What is in hand, which way, where the fence or stop stands, and what to mind."""
    part = f"{words.cut(step.cut.part[2])} x {words.cut(step.cut.part[3])}"
    way = "across" if step.cut.along == "x" else "along"
    mind = "; two carry it" if step.heavy else "; short, not on a table saw" if step.short else ""
    return f"{part}: {way} at {words.cut(step.cut.fence_m)}{mind}"


def _bar_pages(s: Studied, plan: BarPlan, mine: list[OnBars], hand: Handed, whose: str) -> tuple[Page, ...]:
    """Bars as they are cut, then every stop once with all that is cut at it."""
    words, kerf = _words(s), s.build.cut.kerf.si
    sheets = _new(s, f"{words.material(plan.material)}, bars", whose)
    sheets.words(f"{told(plan, words, kerf)}. The longest first, so that the stop is moved inwards only.")
    sold = next((sold_words(cuts[0].piece, s.build, words) for on in mine for cuts in on.named), "")
    if sold:
        sheets.words(f"{upper_first(sold)}.", face="strong")
    longest = max((bar_long_m(on, hand.wanted, kerf) for on in mine), default=1.0)
    scale = (sheets.room[0] - 6) / longest
    for k, on in enumerate(mine, 1):
        long = words.cut(bar_long_m(on, hand.wanted, kerf))
        left = f", {words.cut(on.pattern.left_m)} left over" if on.pattern.left_m > 0 else ""
        sheets.needs(BAR_ROW + 20)
        sheets.words(f"Bar {k}: {on.pattern.times} × {long}{left}", face="strong")
        sheets.picture(BAR_ROW, bar_drawn(on, hand.wanted, words, scale, (2.0, BAR_ROW / 2 + 4), BAR_HIGH, kerf))
    sheets.head("Stops")
    heads = (Column("Stop at", right=True), Column("Many", right=True), Column("No.", wraps=True), Column("What", wraps=True))
    sheets.table(
        (*heads, Column("Ends off square", right=True), Column("Bars", wraps=True), Column("Work", wraps=True)), _stops(mine, words)
    )
    return sheets.done()


def _stops(mine: list[OnBars], words: Words) -> list[tuple[str, ...]]:
    """Pieces cut alike together: length, how many, their numbers, ends, which bars they come from, what else is done to them."""
    alike: dict[tuple[float, str, str, str], list[tuple[str, int, str]]] = {}
    for bar, on in enumerate(mine, 1):
        for cuts in on.named:
            for numbered in cuts:
                piece = numbered.piece
                worked = work_words(piece, words)
                key = (-round(piece.length_m, 4), words.cut(piece.length_m), ends_words(piece.ends_deg), worked)
                alike.setdefault(key, []).append((numbered.label, bar, piece.name))
    rows: list[tuple[str, ...]] = []
    for key in sorted(alike):
        some, (_, long, ends, worked) = alike[key], key
        names = ", ".join(dict.fromkeys(name for _, _, name in some))
        bars = ", ".join(str(bar) for bar in dict.fromkeys(bar for _, bar, _ in some))
        rows.append((long, str(len(some)), ", ".join(label.replace(" ", NO_BREAK) for label, _, _ in some), names, ends, bars, worked))
    return rows
