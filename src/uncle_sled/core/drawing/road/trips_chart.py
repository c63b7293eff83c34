"""What the trips took a day beside what was planned: two bars a figure. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import bar, named
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.studies.road.trips import Taken
from uncle_sled.core.words import Words

LEFT, ROW, FOOT, NUMBERS = 140.0, 46.0, 4.0, 190.0


def trips_chart(figures: tuple[Taken, ...], words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A row a figure that is planned or was taken; each on its own scale, for they have nothing in common."""
    shapes: list[Primitive] = []
    known = [each_taken for each_taken in figures if each_taken.took is not None or each_taken.plan is not None]
    row = min(ROW, (height - 36) / max(len(known), 1))
    off, half = row * 8 / ROW, row * 5.5 / ROW
    for k, taken in enumerate(known):
        y = height - 32 - (k + 0.5) * row
        top = max(taken.took or 0.0, taken.plan or 0.0) or 1.0
        room = width - LEFT - NUMBERS
        shapes.append(Text((12, y), taken.name, 12, "ink", "strong", "left"))
        for by, value, ink in ((off, taken.took, "chalk"), (-off, taken.plan, "pencil")):
            if value is not None:
                shapes.append(bar(LEFT, y + by, room * value / top, ink, half=half, least=2.0, stroke="ink", tint=0.5))
        plan = "no plan" if taken.plan is None else f"planned {_figure(taken.plan, taken.unit, words)}"
        ratio = f", {taken.ratio:.2f} times" if taken.ratio is not None else ""
        took = "not said yet" if taken.took is None else _figure(taken.took, taken.unit, words)
        shapes.append(named(width - 10, y, f"{took}, {plan}{ratio}", NUMBERS - 10, 11, anchor="right"))
    return (*shapes, line((LEFT, FOOT), (LEFT, height - 30), "rule")) if shapes else ()


def _figure(value: float, unit: str, words: Words) -> str:
    """A figure of a day in the builder's units."""
    if unit == "L":
        return words.m3(value / 1000)
    return words.fine_kg(value) if unit == "kg" else f"{value:.0f} {unit}"
