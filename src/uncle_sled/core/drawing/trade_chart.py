"""Builds as points of two wishes that fight, the front of the best as a line, the open one on it. In points, y up."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import msgspec

from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, rect
from uncle_sled.core.drawing.text_width import elided, text_width


class Dot(msgspec.Struct, frozen=True):
    """One build: where it is, what it is called, whether it is the open one, on the front, and brings nothing to stop for."""

    id: str
    says: str
    x: float
    y: float
    here: bool
    best: bool
    good: bool


def trade_chart(
    dots: Sequence[Dot],
    names: tuple[str, str],
    says: tuple[Callable[[float], str], Callable[[float], str]],
    picked: str,
    width: float,
    height: float,
) -> tuple[Primitive, ...]:
    """Every build as a dot with an id to click; names beside those of the front, none over another. () for fewer than two."""
    if len(dots) < 2:
        return ()
    xs, ys = [dot.x for dot in dots], [dot.y for dot in dots]
    px, py = max((max(xs) - min(xs)) * 0.08, abs(max(xs)) * 0.01, 1e-6), max((max(ys) - min(ys)) * 0.12, abs(max(ys)) * 0.01, 1e-6)
    plot = Plot(min(xs) - px, max(xs) + px, y0=min(ys) - py, y1=max(ys) + py, left=86.0, low=46.0, right=width - 24.0, top=height - 40.0)
    shapes: list[Primitive] = axes(plot, ticks(plot.x0, plot.x1, 6), ticks(plot.y0, plot.y1, 6), says[0], says[1], names[0], names[1])
    best = sorted((dot for dot in dots if dot.best), key=lambda dot: dot.x)
    if len(best) > 1:
        shapes.append(Poly(tuple(plot.at(dot.x, dot.y) for dot in best), "chalk", "", 1.6, closed=False, dash=(6.0, 3.0)))
    taken: list[tuple[float, float, float]] = []
    for dot in sorted(dots, key=lambda dot: (not dot.here, not dot.best)):
        at = plot.at(dot.x, dot.y)
        ink = "primer" if dot.here else "chalk" if dot.good else "ochre"
        size = 7.0 if dot.here else 5.0 if dot.best else 3.5
        shapes.append(Circle(at, size, ink, ink if dot.best or dot.here else "paper", 1.6))
        shapes.append(rect(at[0] - 8, at[1] - 8, 16, 16, stroke="chalk" if dot.id == picked else "", width=1.6, id=dot.id or "now"))
        if dot.best or dot.here:
            name = elided(dot.says, 11, 210)
            half = text_width(name, 11) / 2
            x = min(max(at[0], plot.left + half + 8), plot.right - half)
            for step in (14.0, -14.0, 28.0, -28.0, 42.0, -42.0):
                if all(abs(x - a) > half + b + 4 or abs(at[1] + step - c) > 12 for a, b, c in taken):
                    taken.append((x, half, at[1] + step))
                    shapes.append(Text((x, at[1] + step), name, 11, "ink", "strong" if dot.here else "text", ground="paper"))
                    break
    return tuple(shapes)
