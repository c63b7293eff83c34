"""Pages for the saw: every sheet to scale with its cuts in their order, every bar with its pieces. Pages in points, landscape."""

from __future__ import annotations

from collections.abc import Mapping

from uncle_sled.core.drawing.page import POINTS_PER_M, Page, scale_for
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.of_the_build import KERF_M, plan_of
from uncle_sled.core.studies.cut.plan import CutPlan
from uncle_sled.core.studies.cut.sheets import Layout, Lies, SheetPlan
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.cut.wanted import Wanted
from uncle_sled.core.words import Words, lower_first, upper_first

EDGE, ROW, LIST_WIDE = 40.0, 12.0, 200.0
SIZES = {True: (792.0, 612.0), False: (841.89, 595.28)}
CAUTION = "Saws maim and dust harms: guards on, eyes, ears and lungs kept; the saw's own papers decide. Check each piece on the body before it is cut."
SMALL, BAR_HIGH, BAR_ROW = 8.0, 16.0, 34.0


def cut_sheets(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """A page for each sheet and pages of bars; none where nothing is drawn that could be cut."""
    plan, pieces = plan_of(s.build, s.facts)
    if not pieces:
        return ()
    words, size = Words(s.build.brief.reading.shown()), SIZES[s.build.brief.region == "North American"]
    by_id = {piece.id: piece for piece in pieces}
    whose = f"{name}, {s.build.name}, {day}"
    pages = [_first_page(s, plan, words, size, whose)]
    for sheets in plan.sheets:
        alike = _alike(sheets.layouts)
        for begin in range(0, len(alike), 2):
            pages.append(_sheets_page(sheets, alike[begin : begin + 2], by_id, words, size, whose))
    for bars in plan.bars:
        pages += _bar_pages(bars, by_id, words, size, whose)
    return tuple(pages)


def _alike(layouts: tuple[Layout, ...]) -> list[tuple[str, Layout]]:
    """Layouts that are cut alike, once each, with the numbers of their sheets."""
    groups: dict[Layout, list[int]] = {}
    for number, layout in enumerate(layouts, 1):
        groups.setdefault(layout, []).append(number)
    out = []
    for layout, numbers in groups.items():
        several = f"sheets {numbers[0]} to {numbers[-1]}, cut alike"
        if numbers[-1] - numbers[0] + 1 != len(numbers):
            several = f"sheets {', '.join(str(n) for n in numbers)}, cut alike"
        out.append((f"sheet {numbers[0]}" if len(numbers) == 1 else several, layout))
    return out


def _first_page(s: Studied, plan: CutPlan, words: Words, size: tuple[float, float], whose: str) -> Page:
    """How much of what, what fits nowhere, and seams that no stick backs."""
    wide, high = size
    title = "What is cut from what"
    under = "Sizes that are sold nearly everywhere; neither your rack nor prices are counted. Parts inside of the frame are cut to fit."
    shapes = _head(title, under, whose, size)
    off = take_off(s.build, s.facts)
    lines = [f"{one.material}: {told(one, words)}" for one in plan.sheets]
    lines += [f"{one.material}: {told(one, words)}" for one in plan.bars]
    lines += [
        f"Not placed: {many} of {name}; larger than what is sold: join it over a stick." for name, many in plan.unplaced
    ]
    lines += [
        f"{one.surface}: a seam at {words.cut(one.at_m)} has no stick behind; add one there." for one in off.unbacked
    ]
    lines += list(off.unsaid)
    for spread in off.spreads:
        lines.append(f"{spread.of}, {lower_first(spread.material)}: {words.m2(spread.area_m2)} and what the laps take")
    filled: dict[str, list[float]] = {}
    for piece in off.pieces:
        if piece.kind == "fill":
            filled.setdefault(piece.material, []).append(piece.area_m2)
    lines += [f"{material}: {len(areas)} bays by knife, {words.m2(sum(areas))}" for material, areas in filled.items()]
    y = high - EDGE - 50
    most = int((y - EDGE - ROW) // 15)
    if len(lines) > most:
        lines = [*lines[: most - 1], f"and {len(lines) - most + 1} lines more, in the report"]
    for text in lines:
        ink = "primer" if text.startswith("Not placed") else "ink"
        shapes.append(Text((EDGE, y), elided(text, 11, wide - 2 * EDGE), 11, ink, anchor="left"))
        y -= 15
    return Page(wide, high, tuple(shapes), title)


def told(plan: SheetPlan | BarPlan, words: Words) -> str:
    """How many, how good, how much is lost, in one line."""
    waste = f"{words.share(plan.waste_share, 0)} is offcut; kerf {words.cut(KERF_M)}"
    if isinstance(plan, BarPlan):
        how = f"within {words.share(plan.over)} of the least length" if plan.over else "the least length there can be"
        return f"{plan.used} {'bar' if plan.used == 1 else 'bars'}, {how}; {waste}"
    gap = (
        "there can be no fewer"
        if plan.gap <= 0
        else f"at least {plan.bound} are needed, {plan.gap} between not settled"
    )
    return f"{plan.used} {'sheet' if plan.used == 1 else 'sheets'} of the usual size, {gap}; {waste}"


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
    plan: SheetPlan,
    alike: list[tuple[str, Layout]],
    by_id: Mapping[str, Wanted],
    words: Words,
    size: tuple[float, float],
    whose: str,
) -> Page:
    """Two sheets, one above the other."""
    wide, high = size
    title = f"{plan.material}, {alike[0][0]}"
    shapes = _head(f"{plan.material} sheets", told(plan, words), whose, size)
    half = (high - 2 * EDGE - 46) / 2
    for k, (named, layout) in enumerate(alike):
        shapes += _sheet(named, layout, by_id, words, wide, high - EDGE - 44 - k * half, half)
    return Page(wide, high, tuple(shapes), title)


def _sheet(
    named: str, layout: Layout, by_id: Mapping[str, Wanted], words: Words, wide: float, top: float, half: float
) -> list[Primitive]:
    room = (wide - 2 * EDGE - LIST_WIDE - 24, half - 34)
    scale = POINTS_PER_M / scale_for(layout.length_m, layout.width_m, room)
    left, low = EDGE, top - 18 - layout.width_m * scale

    def at(x: float, y: float) -> Point:
        return left + x * scale, low + y * scale

    ratio = round(POINTS_PER_M / scale)
    under = f"{words.cut(layout.length_m)} x {words.cut(layout.width_m)}, 1 : {ratio}; white is left over"
    shapes: list[Primitive] = [Text((left, top - 8), f"{upper_first(named)}: {under}", 10, "ink", "strong", "left")]
    shapes.append(
        rect(left, low, layout.length_m * scale, layout.width_m * scale, stroke="ink", fill="body", width=1.4)
    )
    for one in layout.pieces:
        shapes += _piece(one, by_id[one.piece], at, scale, words)
    x, y = wide - EDGE - LIST_WIDE, top - 8
    shapes.append(Text((x, y), "Cuts, in this order", 11, "ink", "strong", "left"))
    for step, cut in enumerate(layout.cuts, 1):
        y -= ROW
        if y < top - half + 2 * ROW and step < len(layout.cuts):
            shapes.append(
                Text((x, y), f"and {len(layout.cuts) - step + 1} more, piece by piece", 9, "pencil", anchor="left")
            )
            break
        part = f"{words.cut(cut.part[2])} x {words.cut(cut.part[3])}"
        way = "across" if cut.along == "x" else "along"
        text = elided(f"{step}  {part}: {way} at {words.cut(cut.fence_m)}", 9, LIST_WIDE)
        shapes.append(Text((x, y), text, 9, anchor="left"))
    return shapes


def _piece(one: Lies, piece: Wanted, at, scale: float, words: Words) -> list[Primitive]:  # type: ignore[no-untyped-def]
    """A piece as it lies, its true outline in its box, and as many words as fit it."""
    box = tuple(at(one.x_m + dx, one.y_m + dy) for dx, dy in ((0, 0), (one.w_m, 0), (one.w_m, one.h_m), (0, one.h_m)))
    ring = box
    if piece.outline:
        turned = tuple((piece.width_m - y, x) for x, y in piece.outline) if one.turned else piece.outline
        ring = tuple(at(one.x_m + x, one.y_m + y) for x, y in turned)
    shapes: list[Primitive] = [Poly(ring, "ink", "wood", 1.0, hatch="wood", id=one.piece, tint=0.35)]
    if piece.outline:
        shapes.append(Poly(box, "pencil", "", 0.6, dash=(3.0, 2.0)))
    wide, high = one.w_m * scale - 6, one.h_m * scale
    middle = at(one.x_m + one.w_m / 2, one.y_m + one.h_m / 2)
    name = elided(one.piece, SMALL + 1, wide)
    lines = [name] if text_width(name, SMALL + 1) <= wide and len(name) > 2 else []
    sizes = f"{words.cut(piece.length_m)} x {words.cut(piece.width_m)}"
    if text_width(sizes, SMALL) <= wide:
        lines.append(sizes)
    lines = lines[: max(int(high // 11), 0)]
    for k, text in enumerate(lines):
        y = middle[1] + (len(lines) - 1) * 5.5 - k * 11
        shapes.append(Text((middle[0], y), text, SMALL + 1 - k, "ink", ground="paper"))
    return shapes


def _bar_pages(
    plan: BarPlan, by_id: Mapping[str, Wanted], words: Words, size: tuple[float, float], whose: str
) -> list[Page]:
    wide, high = size
    rows = int((high - 2 * EDGE - 60) // BAR_ROW)
    longest = max((_long(pattern.pieces, pattern.left_m, by_id) for pattern in plan.patterns), default=1.0)
    scale = (wide - 2 * EDGE - 90) / longest
    pages = []
    for begin in range(0, len(plan.patterns), rows):
        title = f"{plan.material}, bars" + (f", page {begin // rows + 1}" if len(plan.patterns) > rows else "")
        shapes = _head(title, told(plan, words), whose, size)
        y = high - EDGE - 62
        for pattern in plan.patterns[begin : begin + rows]:
            long = _long(pattern.pieces, pattern.left_m, by_id)
            shapes.append(Text((EDGE, y), f"{pattern.times} x {words.cut(long)}", 10, "ink", "strong", "left"))
            x = EDGE + 90.0
            shapes.append(rect(x, y - BAR_HIGH / 2, long * scale, BAR_HIGH, stroke="ink", fill="body"))
            for name in pattern.pieces:
                run = by_id[name].length_m * scale
                shapes.append(
                    rect(
                        x, y - BAR_HIGH / 2, run, BAR_HIGH, stroke="ink", fill="wood", hatch="wood", id=name, tint=0.35
                    )
                )
                text = words.cut(by_id[name].length_m)
                if text_width(text, SMALL) < run - 4:
                    shapes.append(Text((x + run / 2, y), text, SMALL, "ink", ground="paper"))
                label = elided(name, SMALL - 1, run - 2)
                if len(label) > 3 and text_width(label, SMALL - 1) <= run:
                    shapes.append(Text((x + run / 2, y - BAR_HIGH / 2 - 5), label, SMALL - 1, "pencil"))
                x += run + KERF_M * scale
            y -= BAR_ROW
        pages.append(Page(wide, high, tuple(shapes), title))
    return pages


def _long(pieces: tuple[str, ...], left_m: float, by_id: Mapping[str, Wanted]) -> float:
    return sum(by_id[name].length_m for name in pieces) + KERF_M * (len(pieces) - 1) + left_m
