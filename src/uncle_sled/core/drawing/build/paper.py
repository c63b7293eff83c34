"""Pages of the work: checklists to tick by hand, and "what I would do again" from what was measured. Points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.build.checklists import Checklist
from uncle_sled.core.studies.build.log import Again, Pair
from uncle_sled.core.words import Words

CAUTION = "Screening only: the makers' papers, local rules and licensed people decide."


def checklist_pages(lists: tuple[Checklist, ...], paper: Paper, whose: str) -> tuple[Page, ...]:
    """Lists one under the other, a box a line, ticked ones with date and who."""
    if not lists:
        return ()
    sheets = Sheets(paper.upright, "Checklists", whose[:70], CAUTION)
    for checklist in lists:
        sheets.head(checklist.name)
        rows = [
            ("[x]" if check.tick else "[  ]", check.says, f"{check.tick.on} {check.tick.who}".strip() if check.tick else "." * 30)
            for check in checklist.lines
        ]
        sheets.table((Column(""), Column("", wraps=True), Column("Done on, by", right=True)), rows, size=11)
    return sheets.done()


def value_words(pair: Pair, value: float, words: Words) -> str:
    """A number of a pair in the builder's units."""
    if pair.unit == "kg":
        return words.kg(value)
    if pair.unit == "degC":
        return words.degrees(value)
    if pair.unit == "L":
        return words.m3(value / 1000)
    return words.of(value, pair.unit, 1) if pair.unit != "money" else f"{value:.0f}"


def pair_words(pair: Pair, words: Words) -> str:
    """Planned, found and what it means, of one pair of the log, in the build's units."""
    plan = "no plan" if pair.plan is None else f"planned {value_words(pair, pair.plan, words)}"
    ratio = f" ({pair.ratio:.2f} times)" if pair.ratio is not None else ""
    return f"{pair.name}: {value_words(pair, pair.fact, words)}, {plan}{ratio}"


def pairs_chart(pairs: tuple[Pair, ...], words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Fact over plan as bars about one: what took more lies to the right."""
    known = [each_pair for each_pair in pairs if each_pair.ratio is not None][: max(int((high - 50) // 22), 1)]
    if not known:
        return ()
    name = min(210.0, wide * 0.4)
    middle = name + (wide - name - 70) / 2
    reach = max(max(abs((each_pair.ratio or 1) - 1) for each_pair in known), 0.25)
    shapes: list[Primitive] = [line((middle, 14), (middle, high - 34), "pencil"), Text((middle, high - 28), "as planned", 10, "pencil")]
    for k, pair in enumerate(known):
        y = high - 54 - k * 22
        off = ((pair.ratio or 1) - 1) / reach * (wide - name - 110) / 2
        left, long = (middle, off) if off >= 0 else (middle + off, -off)
        shapes.append(Text((8, y + 5), elided(pair.name, 11, name - 12), 11, "ink", anchor="left"))
        shapes.append(rect(left, y, max(long, 1.5), 11, stroke="ink", fill="primer" if off > 0 else "spruce", tint=0.5))
        told = f"{value_words(pair, pair.fact, words)} for {value_words(pair, pair.plan or 0.0, words)}"
        shapes.append(Text((wide - 8, y + 5), elided(told, 10, 150), 10, "pencil", anchor="right", ground="paper"))
    return tuple(shapes)


def again_pages(again: Again, words: Words, paper: Paper, whose: str) -> tuple[Page, ...]:
    """What I would do again: numbers off their plan, problems and cures, decisions, wishes."""
    lines: list[tuple[str, str, str]] = []
    for title, told in (
        ("Planned and measured", [pair_words(pair, words) for pair in again.pairs]),
        (
            "What went wrong, and what helped",
            [
                f"{entry.on}: {entry.says}" + (f" Cure: {entry.cure}" if entry.cure else " No cure was written down.")
                for entry in again.problems
            ],
        ),
        (
            "What was decided, and against what",
            [
                f"{entry.on}: {entry.says}"
                + (f" Chosen: {entry.cure}." if entry.cure else "")
                + (f" Against: {entry.others}." if entry.others else "")
                for entry in again.decisions
            ],
        ),
        ("Wishes for the next season", [f"{entry.on}: {entry.says}" for entry in again.wishes]),
    ):
        if told:
            lines.append((title, "strong", "ink"))
            lines += [(text, "text", "ink") for text in told]
    if not lines:
        return ()
    sheets = Sheets(paper.upright, "What I would do again", whose[:70], CAUTION)
    for text, face, _ in lines:
        if face == "strong":
            sheets.head(text)
        else:
            sheets.words(text, 11)
            sheets.gap(4)
    return sheets.done()
