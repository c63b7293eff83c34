"""A field with two axes in a drawing: where values fall, round ticks in the shown unit, lines clipped to it.

In points, y up.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import TypeVar

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.units import FACTORS
from uncle_sled.core.words import Words

Floats = NDArray[np.float64]
Number = TypeVar("Number", float, Floats)
STEPS = (1.0, 2.0, 2.5, 5.0, 10.0)


class Plot(msgspec.Struct, frozen=True):
    """Data x0 to x1 and y0 to y1 over a rectangle of points."""

    x0: float
    x1: float
    y0: float
    y1: float
    left: float
    low: float
    right: float
    top: float

    def at(self, x: Number, y: Number) -> tuple[Number, Number]:
        """Where a value falls, or many at a time."""
        return (
            self.left + (x - self.x0) / (self.x1 - self.x0) * (self.right - self.left),
            self.low + (y - self.y0) / (self.y1 - self.y0) * (self.top - self.low),
        )

    def x(self, value: float) -> float:
        """How far right a value stands [points]."""
        return self.at(value, self.y0)[0]

    def y(self, value: float) -> float:
        """How high a value stands [points]."""
        return self.at(self.x0, value)[1]

    def value(self, x: float) -> float:
        """The value under a point of the drawing."""
        return self.x0 + (x - self.left) / max(self.right - self.left, 1.0) * (self.x1 - self.x0)

    def curve(self, xs: Floats, ys: Floats, ink: str, width: float = 1.8, dash: tuple[float, ...] = ()) -> list[Primitive]:
        """The line through some points, as far as it lies in the field."""
        inside = (ys >= self.y0 - 1e-9) & (ys <= self.y1 + 1e-9)
        across, up = self.at(xs[inside], ys[inside])
        points = tuple(zip(across.tolist(), up.tolist(), strict=True))
        return [Poly(points, ink, "", width, closed=False, dash=dash)] if len(points) > 1 else []


def ticks(low: float, high: float, most: int = 6, per: float = 1.0) -> list[float]:
    """Round values between two ends, at most so many and two at least where there is room; ``per``: size of the shown unit."""
    span = (high - low) / per
    if not math.isfinite(span) or span <= 0:
        return []
    rough = span / max(most, 1)
    power = 10.0 ** math.floor(math.log10(rough))
    step = next(power * s for s in STEPS if power * s >= rough * (1 - 1e-9))
    first = math.ceil(low / per / step - 1e-9)
    return [k * step * per for k in range(first, math.floor(high / per / step + 1e-9) + 1)]


def axes(
    plot: Plot,
    x_ticks: Sequence[float],
    y_ticks: Sequence[float],
    x_says: Callable[[float], str],
    y_says: Callable[[float], str],
    x_title: str = "",
    y_title: str = "",
) -> list[Primitive]:
    """Both axes with ticks and what they are; words that would touch the one before are left out."""
    shapes: list[Primitive] = [
        line((plot.left, plot.low), (plot.right, plot.low), "pencil"),
        line((plot.left, plot.low), (plot.left, plot.top), "pencil"),
    ]
    shapes += [*x_axis(plot, x_ticks, x_says), *y_axis(plot, y_ticks, y_says)]
    if x_title:
        shapes.append(Text((plot.right, plot.low - 27), x_title, 11, "pencil", anchor="right"))
    if y_title:
        shapes.append(Text((8, plot.top + 12), y_title, 11, "pencil", anchor="left"))
    return shapes


def x_axis(plot: Plot, x_ticks: Sequence[float], says: Callable[[float], str]) -> list[Primitive]:
    """Ticks along the foot with their values; words that would touch the one before are left out."""
    shapes: list[Primitive] = []
    taken = -1e9
    for x in x_ticks:
        at = plot.x(x)
        shapes.append(line((at, plot.low - 4), (at, plot.low), "pencil"))
        half = text_width(says(x), 11) / 2
        if at - half > taken + 6:
            shapes.append(Text((at, plot.low - 13), says(x), 11, "pencil"))
            taken = at + half
    return shapes


def y_axis(plot: Plot, y_ticks: Sequence[float], says: Callable[[float], str], *, across: bool = False) -> list[Primitive]:
    """Ticks up the left side with their values. Args: across: each as a faint line through the field."""
    shapes: list[Primitive] = []
    for y in y_ticks:
        _, up = plot.at(plot.x0, y)
        shapes.append(
            line((plot.left, up), (plot.right, up), "rule", 0.7) if across else line((plot.left - 3, up), (plot.left, up), "pencil")
        )
        shapes.append(Text((plot.left - 6, up), says(y), 11, "pencil", anchor="right"))
    return shapes


def level(plot: Plot, y: float, says: str, ink: str, width: float = 1.2, dash: tuple[float, ...] = ()) -> list[Primitive]:
    """A line across the field at a value, such as a limit, with its words over its beginning."""
    left, up = plot.at(plot.x0, y)
    shapes: list[Primitive] = [line((left, up), (plot.right, up), ink, width, dash)]
    return [*shapes, Text((left + 6, up + 9), says, 11, ink, anchor="left", ground="paper")] if says else shapes


def upright(plot: Plot, x: float, says: str, ink: str, width: float = 1.2, told: str = "") -> list[Primitive]:
    """A dashed line up the field at a value, with its words over its head. Args: told: ink of the words, else the line's."""
    at, _ = plot.at(x, plot.y0)
    return [line((at, plot.low), (at, plot.top), ink, width, (5.0, 3.0)), Text((at, plot.top + 9), says, 11, told or ink)]


def names_at_ends(plot: Plot, ends: Sequence[tuple[float, str, str]], size: float = 11.0) -> list[Primitive]:
    """Names of lines beside their right ends. Args: ends: last value, name, ink. Those that would touch move apart, none past the field."""
    shapes: list[Primitive] = []
    room = size + 2
    floor = plot.low + 4
    for value, says, ink in sorted(ends):
        _, up = plot.at(plot.x1, min(max(value, plot.y0), plot.y1))
        floor = max(up, floor)
        shapes.append(Text((plot.right + 6, floor), says, size, ink, anchor="left"))
        floor += room
    return shapes


def unit_kg(words: Words) -> float:
    """One of the shown unit of weight [kg]."""
    return float(FACTORS["mass"][words.shown.mass])


def kg_ticks(plot: Plot, words: Words, most: int = 5) -> list[float]:
    """Round weights on the y axis, in kilograms."""
    return ticks(plot.y0, plot.y1, most, unit_kg(words))
