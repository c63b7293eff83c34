"""How true each measure must be, as spans about it on one scale, the truest first; what must come right beside. Points, y up."""

from __future__ import annotations

import math

from uncle_sled.core.drawing.bar_rows import named
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.studies.balance.tolerances import LEVELS_M, Dimension, Outcome, Tolerances
from uncle_sled.core.units import INCH_M
from uncle_sled.core.words import Words

NAME, VALUE, EDGE, ROW, HEAD = 250.0, 86.0, 12.0, 20.0, 34.0
MARKS_M = (0.001, 0.003, 0.010, 0.030, 0.100)


def true_words(tolerance_m: float, words: Words) -> str:
    """A tolerance beside its measure: ±3 mm, or the fraction of an inch that is no looser."""
    return f"±{words.thick(fair_m(tolerance_m, words))}"


def fair_m(tolerance_m: float, words: Words) -> float:
    """A tolerance as a tape has it [m]: of inches 32nds, from a quarter on 16ths, from one on eighths, never looser."""
    if not words.shown.imperial:
        return tolerance_m
    value = tolerance_m / INCH_M
    part = 32 if value < 0.25 else 16 if value < 1.0 else 8
    return max(math.floor(value * part + 1e-9), 1) / part * INCH_M


def true_rows(found: Tolerances, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A row each, as many as have room; () where nothing is measured."""
    if not found.dimensions:
        return ()
    name = min(NAME, width * 0.36)
    left, right = EDGE + name + VALUE, width - EDGE - 76
    span = math.log(LEVELS_M[-1] / LEVELS_M[0])
    half = (right - left) / 2
    middle = left + half

    def wide(t: float) -> float:
        return max(half * (0.06 + 0.94 * math.log(t / LEVELS_M[0]) / span), 3.0)

    room = max(int((height - HEAD - 24) / ROW), 1)
    shown = found.dimensions[:room]
    top = height - HEAD
    shapes: list[Primitive] = []
    taken = -1e9
    for mark in MARKS_M:
        for side in (-1.0, 1.0):
            x = middle + side * wide(mark)
            shapes.append(line((x, top), (x, top - ROW * len(shown)), "rule", 0.7))
        says = words.thick(fair_m(mark, words))
        if middle + wide(mark) - text_width(says, 9) / 2 > taken + 4:  # it would touch the one before
            shapes.append(Text((middle + wide(mark), top + 8), says, 9, "pencil"))
            taken = middle + wide(mark) + text_width(says, 9) / 2
    for k, one in enumerate(shown):
        y = top - ROW * (k + 0.5)
        t = one.tolerance_m
        shapes.append(named(EDGE, y, one.name, name - 8, 12))
        shapes.append(Text((EDGE + name + VALUE - 10, y), words.cut(one.value_m), 12, "ink", "text", "right"))
        ink = "primer" if not found.reached and t == LEVELS_M[0] else "chalk"
        shapes.append(rect(middle - wide(t), y - 5, 2 * wide(t), 10, stroke="", fill=ink, tint=0.55 if t <= 0.005 else 0.3))
        shapes.append(line((middle, y - 7), (middle, y + 7), "ink", 1.0))
        shapes.append(Text((width - EDGE, y), true_words(t, words), 12, "ink", "strong" if t <= 0.005 else "text", "right"))
    if len(shown) < len(found.dimensions):
        more = len(found.dimensions) - len(shown)
        shapes.append(
            Text(
                (EDGE, 12),
                f"and {more} more that may be {true_words(shown[-1].tolerance_m, words)} or looser",
                11,
                "pencil",
                "text",
                "left",
            )
        )
    return tuple(shapes)


def short_words(outcomes: tuple[Outcome, ...]) -> str:
    """Outcomes that no measuring mends."""
    short = [outcome.says for outcome in outcomes if outcome.short]
    return (
        f"Not counted, for as drawn they are out of their limits already and no measuring mends that: {'; '.join(short)}." if short else ""
    )


def of_ids(dimensions: tuple[Dimension, ...]) -> tuple[str, ...]:
    """Ids of things among measures, for pointing at them."""
    return tuple(one.id.split(".")[2] for one in dimensions if one.id.startswith("stow.things."))
