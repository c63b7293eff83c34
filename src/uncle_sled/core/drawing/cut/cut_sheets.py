"""Pages for the saw: every sheet to scale with its cuts in their order, every bar with its pieces. Pages in points, landscape."""

from __future__ import annotations

from uncle_sled.core.drawing.cut.sheet_drawn import bar_drawn, bar_long_m, sheet_drawn
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.cut_from_stock import RACK, BuildPlan, plan_of
from uncle_sled.core.studies.cut.handed import Handed, OnBars, OnSheet, handed
from uncle_sled.core.studies.cut.layouts import Layout, SheetPlan
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.sawing import Step, offcuts_of, steps_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words, lower_first, upper_first

EDGE, ROW, LIST_WIDE = 40.0, 12.0, 216.0
SIZES = {True: (792.0, 612.0), False: (841.89, 595.28)}
CAUTION = "Saws maim and dust harms: guards on, eyes, ears and lungs kept; the saw's own papers decide. Check each piece on the body before it is cut."
BAR_HIGH, BAR_ROW = 16.0, 38.0


def cut_sheets(s: Studied, name: str, day: str, made: BuildPlan | None = None) -> tuple[Page, ...]:
    """A page for two sheets and pages of bars; none where nothing is drawn that could be cut. Args: made: a plan there is."""
    made = plan_of(s.build, s.facts) if made is None else made
    if not made.lots:
        return ()
    words, size = Words(s.build.brief.reading.shown()), SIZES[s.build.brief.region == "North American"]
    whose = f"{name}, {s.build.name}, {day}"
    hand = handed(made, s.build, s.facts)
    pages = [_first_page(s, made, words, size, whose)]
    for plan in made.plan.sheets:
        mine = [on_sheet for on_sheet in hand.sheets if on_sheet.plan is plan]
        for begin in range(0, len(mine), 2):
            pages.append(_sheets_page(s, plan, mine[begin : begin + 2], hand, words, size, whose))
    for bars in made.plan.bars:
        pages += _bar_pages(s, bars, [on_bars for on_bars in hand.bars if on_bars.plan is bars], hand, words, size, whose)
    return tuple(pages)


def _first_page(s: Studied, made: BuildPlan, words: Words, size: tuple[float, float], whose: str) -> Page:
    """How much of what, what fits nowhere, what changed since the last print, and seams that no stick backs."""
    wide, high = size
    title = "What is cut from what"
    own = bool(s.build.cut.sizes)
    under = (
        "Own sizes and the rack first; else sizes that are sold nearly everywhere. Parts inside of the frame are cut to fit."
        if own
        else "Sizes that are sold nearly everywhere; neither your rack nor prices are counted. Parts inside of the frame are cut to fit."
    )
    shapes = _head(title, under, whose, size)
    off, numbers = take_off(s.build, s.facts), numbers_of(s.build, s.facts)
    plan, kerf = made.plan, s.build.cut.kerf.si
    lines = [f"{words.material(sheet.material)}: {told(sheet, words, kerf)}" for sheet in plan.sheets]
    lines += [f"{words.material(bar_plan.material)}: {told(bar_plan, words, kerf)}" for bar_plan in plan.bars]
    lines += [f"Not placed: {many} of {name}; larger than what is sold: join it over a stick." for name, many in plan.unplaced]
    lines += [f"Not placed where it was held: {name}, {why}." for name, why in made.let_go]
    if numbers.changed:
        lines.append(f"Changed since print {s.build.cut.prints}: {', '.join(numbered.label for numbered in numbers.changed)}")
    if numbers.gone:
        lines.append(f"No longer wanted: {', '.join(numbers.gone)}")
    lines += [f"{unbacked.surface}: a seam at {words.cut(unbacked.at_m)} has no stick behind; add one there." for unbacked in off.unbacked]
    lines += list(off.unsaid)
    for spread in off.spreads:
        lines.append(f"{spread.of}, {lower_first(spread.material)}: {words.m2(spread.area_m2)} and what the laps take")
    filled: dict[str, list[float]] = {}
    for piece in off.pieces:
        if piece.kind == "fill":
            filled.setdefault(piece.material, []).append(piece.area_m2)
    lines += [f"{words.material(material)}: {len(areas)} bays by knife, {words.m2(sum(areas))}" for material, areas in filled.items()]
    y = high - EDGE - 50
    most = int((y - EDGE - ROW) // 15)
    if len(lines) > most:
        lines = [*lines[: most - 1], f"and {len(lines) - most + 1} lines more, in the report"]
    for text in lines:
        ink = "primer" if text.startswith(("Not placed", "Changed", "No longer")) else "ink"
        shapes.append(Text((EDGE, y), elided(text, 11, wide - 2 * EDGE), 11, ink, anchor="left"))
        y -= 15
    return Page(wide, high, tuple(shapes), title)


def told(plan: SheetPlan | BarPlan, words: Words, kerf_m: float) -> str:
    """How many, how good, how much is lost, in one line."""
    waste = f"{words.share(plan.waste_share, 0)} is offcut; kerf {words.thick(kerf_m)}"
    if isinstance(plan, BarPlan):
        how = f"within {words.share(plan.over)} of the least there can be" if plan.over else "the least there can be"
        tied = ", slanted ends in pairs" if plan.tied else ""
        return f"{plan.used} {'bar' if plan.used == 1 else 'bars'}{tied}, {how}; {waste}"
    gap = "there can be no fewer" if plan.gap <= 0 else f"at least {plan.bound} are needed, {plan.gap} between not settled"
    return f"{plan.used} {'sheet' if plan.used == 1 else 'sheets'}, {gap}; {waste}"


def _head(title: str, under: str, whose: str, size: tuple[float, float]) -> list[Primitive]:
    wide, high = size
    return [
        Text((EDGE, high - EDGE), title, 16, "ink", "head", "left"),
        Text((wide - EDGE, high - EDGE), elided(whose, 11, wide / 2), 11, "pencil", anchor="right"),
        line((EDGE, high - EDGE - 12), (wide - EDGE, high - EDGE - 12), "rule"),
        Text((EDGE, high - EDGE - 26), elided(under, 11, wide - 2 * EDGE), 11, "pencil", anchor="left"),
        Text((EDGE, EDGE - 14), CAUTION, 9, "pencil", anchor="left"),
    ]


def _sheets_page(
    s: Studied, plan: SheetPlan, mine: list[OnSheet], hand: Handed, words: Words, size: tuple[float, float], whose: str
) -> Page:
    """Two sheets, one above the other."""
    wide, high = size
    shapes = _head(f"{words.material(plan.material)} sheets", told(plan, words, s.build.cut.kerf.si), whose, size)
    half = (high - 2 * EDGE - 46) / 2
    for k, on in enumerate(mine):
        shapes += _sheet(s, on, hand, words, wide, high - EDGE - 44 - k * half, half)
    return Page(wide, high, tuple(shapes), f"{words.material(plan.material)}, sheet {mine[0].number}")


def _alike(on: OnSheet) -> str:
    """Which sheet before it is cut the same way: fence and stop can stay."""

    def cuts(layout: Layout) -> object:
        return layout.stock, layout.cuts, tuple((piece.x_m, piece.y_m, piece.w_m, piece.h_m) for piece in layout.pieces)

    for number, other in enumerate(on.plan.layouts[: on.number - 1], 1):
        if cuts(other) == cuts(on.layout):
            return f", cut like sheet {number}"
    return ""


def _sheet(s: Studied, on: OnSheet, hand: Handed, words: Words, wide: float, top: float, half: float) -> list[Primitive]:
    layout, cut = on.layout, s.build.cut
    room = (wide - 2 * EDGE - LIST_WIDE - 24, half - 34)
    scale = POINTS_PER_M / scale_for(layout.length_m, layout.width_m, room)
    left, low = EDGE, top - 18 - layout.width_m * scale
    ratio = round(POINTS_PER_M / scale)
    keep = offcuts_of(layout, cut.kerf.si, cut.keep_m2)
    under = f"{words.cut(layout.length_m)} x {words.cut(layout.width_m)}, 1 : {ratio}; white is left over"
    source = "from the rack, " if layout.stock.startswith(RACK) else ""
    title = f"{upper_first(f'sheet {on.number}')}{_alike(on)}: {source}{under}"
    shapes: list[Primitive] = [
        Text((left, top - 8), elided(title, 10, room[0], "strong"), 10, "ink", "strong", "left"),
        *sheet_drawn(on, hand.wanted, words, scale, left, low, keep=keep),
    ]
    x, y = wide - EDGE - LIST_WIDE, top - 8
    kg_m2 = next((numbered.piece.kg_m2 for numbered in on.named if numbered.piece.kg_m2), None)
    steps = steps_of(layout, cut.kerf.si, cut.carry_m2, cut.carry.si, kg_m2)
    head = "Cuts, in this order" if steps else "Cut along the lines, inner ones first"
    shapes.append(Text((x, y), head, 11, "ink", "strong", "left"))
    for number, step in enumerate(steps, 1):
        y -= ROW
        if y < top - half + 2 * ROW and number < len(steps):
            more = f"and {len(steps) - number + 1} more, piece by piece"
            shapes.append(Text((x, y), more, 9, "pencil", anchor="left"))
            break
        shapes.append(Text((x, y), elided(f"{number}  {step_words(step, words)}", 9, LIST_WIDE), 9, anchor="left"))
    return shapes


def step_words(step: Step, words: Words) -> str:
    """What is in hand, which way, where the fence or stop stands, and what to mind."""
    part = f"{words.cut(step.cut.part[2])} x {words.cut(step.cut.part[3])}"
    way = "across" if step.cut.along == "x" else "along"
    mind = "; two carry it" if step.heavy else "; short, not on a table saw" if step.short else ""
    return f"{part}: {way} at {words.cut(step.cut.fence_m)}{mind}"


def _bar_pages(
    s: Studied, plan: BarPlan, mine: list[OnBars], hand: Handed, words: Words, size: tuple[float, float], whose: str
) -> list[Page]:
    wide, high = size
    kerf = s.build.cut.kerf.si
    rows = int((high - 2 * EDGE - 60) // BAR_ROW)
    longest = max((bar_long_m(on, hand.wanted, kerf) for on in mine), default=1.0)
    scale = (wide - 2 * EDGE - 90) / longest
    pages = []
    for begin in range(0, len(mine), rows):
        title = f"{words.material(plan.material)}, bars" + (f", page {begin // rows + 1}" if len(mine) > rows else "")
        shapes = _head(title, told(plan, words, kerf), whose, size)
        y = high - EDGE - 62
        for on in mine[begin : begin + rows]:
            long = words.cut(bar_long_m(on, hand.wanted, kerf))
            shapes.append(Text((EDGE, y), f"{on.pattern.times} x {long}", 10, "ink", "strong", "left"))
            shapes += bar_drawn(on, hand.wanted, words, scale, EDGE + 90.0, y, BAR_HIGH, kerf)
            y -= BAR_ROW
        pages.append(Page(wide, high, tuple(shapes), title))
    return pages
