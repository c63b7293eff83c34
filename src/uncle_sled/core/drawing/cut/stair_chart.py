"""Sheets over a size as a stair, the size as it is on it, and what each step saves. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.cut.money_chart import sum_words
from uncle_sled.core.drawing.plot import Plot, axes, ticks, upright
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.studies.cut.stairs import At, Stair
from uncle_sled.core.words import Words, count_of

FOUR_INCHES_M = 0.1016
LEFT, RIGHT, LOW, TOP = 46.0, 24.0, 44.0, 52.0


def field_of(stair: Stair, width: float, height: float) -> Plot | None:
    """The field of a stair; None where nothing was laid out."""
    if len(stair.at) < 2:
        return None
    most, least = max(one.sheets for one in stair.at), min(one.least for one in stair.at)
    low = max(min(least, min(one.sheets for one in stair.at)) - 1, 0)
    return Plot(
        stair.at[0].size_m, stair.at[-1].size_m, y0=float(low), y1=most + 1.0, left=LEFT, low=LOW, right=width - RIGHT, top=height - TOP
    )


def stair_chart(stair: Stair, size_m: float, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The stair in ink, the least there can be dashed under it, the size as it is upright. Args: size_m: as it is now [m]."""
    plot = field_of(stair, width, height)
    if plot is None:
        return ()
    per = FOUR_INCHES_M if words.shown.imperial else 1.0
    every = max(int((plot.y1 - plot.y0) / 8), 1)
    shapes: list[Primitive] = axes(
        plot,
        ticks(plot.x0, plot.x1, 6, per),
        [float(k) for k in range(int(plot.y0), int(plot.y1) + 1, every)],
        words.m,
        lambda y: f"{y:.0f}",
        stair.name,
        "sheets",
    )
    shapes.append(Poly(_line(plot, stair, "least"), "pencil", "", 1.2, closed=False, dash=(4.0, 3.0)))
    ring = _line(plot, stair, "sheets")
    shapes.append(Poly((*ring, (ring[-1][0], plot.low), (ring[0][0], plot.low)), "", "wood", 0.0, tint=0.25))
    shapes.append(Poly(ring, "ink", "", 2.0, closed=False))
    here = stair.under(size_m)
    taken: list[tuple[float, float]] = []
    for one in stair.steps:
        at = plot.at(one.size_m, float(one.sheets))
        shapes.append(Circle(at, 4.0, "chalk", "chalk", 1.0))
        says = step_words(stair, one, words)
        half = text_width(says, 11) / 2
        x = min(max(at[0], plot.left + half), plot.right - half)
        up = at[1] + 13.0
        while any(abs(x - a) < half + b and abs(up - c) < 13 for a, b, c in _boxes(taken)):
            up += 14.0
        taken += [(x, half), (up, 0.0)]
        shapes.append(Text((x, up), elided(says, 11, width - 20), 11, "chalk", ground="paper"))
    if here is not None:
        size = min(max(size_m, plot.x0), plot.x1)
        shapes += upright(plot, size, "", "primer", 1.6)
        shapes.append(Circle(plot.at(size, float(here.sheets)), 6.0, "primer", "paper", 2.0))
        shapes.append(Text((plot.left, plot.top + 32), f"{words.cut(size_m)}: {at_words(here)}", 13, "ink", "strong", "left"))
    return tuple(shapes)


def _boxes(taken: list[tuple[float, float]]) -> list[tuple[float, float, float]]:
    return [(x, half, up) for (x, half), (up, _) in zip(taken[::2], taken[1::2], strict=True)]


def _line(plot: Plot, stair: Stair, of: str) -> tuple[tuple[float, float], ...]:
    """The stair's line: each size holds to half way to the next."""
    points: list[tuple[float, float]] = []
    for k, one in enumerate(stair.at):
        left = one.size_m if k == 0 else (stair.at[k - 1].size_m + one.size_m) / 2
        right = one.size_m if k == len(stair.at) - 1 else (stair.at[k + 1].size_m + one.size_m) / 2
        value = float(getattr(one, of))
        points += [plot.at(left, value), plot.at(right, value)]
    return tuple(points)


def at_words(one: At) -> str:
    """What a size takes, in words."""
    said = f"{count_of(one.sheets, 'sheet')}" + (f", {one.least} at least" if one.least < one.sheets else ", proven least")
    said += f", {count_of(one.bars, 'bar')}, all to buy {sum_words(one.money)}" + (f" + {one.unknown}?" if one.unknown else "")
    return said + (f"; {count_of(one.unplaced, 'piece')} on nothing that is sold" if one.unplaced else "")


def step_words(stair: Stair, one: At, words: Words) -> str:
    """A step against the size as it was laid out."""
    now = stair.under(stair.now_m)
    by = one.size_m - stair.now_m
    where = "as drawn" if abs(by) < 0.0015 else f"{words.cut(abs(by))} {'less' if by < 0 else 'more'}"
    if now is None or one.sheets == now.sheets:
        return f"{one.sheets}: up to {where}"
    saves = now.money - one.money
    return f"{one.sheets} at {where}" + (f", saves {sum_words(saves)}" if saves > 0.5 else "")
