"""Money over the stages of the work: what it adds up to, likely and with its range, what is spent, and the budget."""

from __future__ import annotations

from uncle_sled.core.drawing.plot import Plot, ticks, y_axis
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.studies.cut.bought_line import Line
from uncle_sled.core.studies.cut.money import Money


def sum_words(value: float) -> str:
    """A sum in one's own money: whole, thousands apart."""
    return f"{value:,.0f}".replace(",", "\u00a0")


def money_chart(money: Money, lines: tuple[Line, ...], wide: float, high: float) -> tuple[Primitive, ...]:
    """Stages from left to right; the bar is the stage's own, the line what it adds up to, the band low to P80."""
    if not money.stages:
        return ()
    top = max(money.stages[-1][2].p80, money.budget or 0.0, 1.0) * 1.08
    plot = Plot(0.0, float(len(money.stages)), y0=0.0, y1=top, left=62.0, low=44.0, right=wide - 16.0, top=high - 40.0)
    shapes: list[Primitive] = [line((plot.left, plot.low), (plot.right, plot.low), "pencil")]
    shapes += y_axis(plot, ticks(0.0, top, 5), sum_words, across=True)
    step = (plot.right - plot.left) / len(money.stages)
    likely, low, p80 = [plot.at(0.0, 0.0)], [plot.at(0.0, 0.0)], [plot.at(0.0, 0.0)]
    for k, (name, own, upto) in enumerate(money.stages):
        left, base = plot.at(float(k), 0.0)
        _, up = plot.at(0.0, own.mean)
        paid = sum(line.spent or 0.0 for line in lines if line.stage == name)
        shapes.append(
            rect(left + step * 0.2, base, step * 0.6, up - base, stroke="ink", fill="wood", hatch="wood", tint=0.4, id=f"stage {name}")
        )
        if paid > 0:
            _, paid_up = plot.at(0.0, min(paid, top))
            shapes.append(rect(left + step * 0.2, base, step * 0.6, paid_up - base, stroke="ink", fill="spruce", tint=0.7))
        shapes.append(Text((left + step / 2, base - 12), elided(name, 11, step), 11, "ink"))
        told = sum_words(own.mean) + ("" if not own.unknown else f" + {own.unknown}?")
        shapes.append(Text((left + step / 2, base - 26), elided(told, 11, step), 11, "pencil"))
        likely.append(plot.at(k + 1.0, upto.mean))
        low.append(plot.at(k + 1.0, upto.low))
        p80.append(plot.at(k + 1.0, min(upto.p80, top)))
    shapes.insert(1, Poly((*low, *reversed(p80)), "", "chalk", 0.0, tint=0.14))
    shapes.append(Poly(tuple(p80), "chalk", "", 1.2, closed=False, dash=(5.0, 3.0)))
    shapes.append(Poly(tuple(likely), "chalk", "", 2.2, closed=False))
    shapes += _words(likely[-1], f"{sum_words(money.total.mean)} likely", "chalk", -14.0)
    shapes += _words(p80[-1], f"{sum_words(money.total.p80)} in four of five", "chalk", 8.0)
    if money.budget:
        _, up = plot.at(0.0, money.budget)
        over = money.total.p80 > money.budget
        ink = "primer" if money.total.mean > money.budget else "ochre word" if over else "spruce"
        shapes.append(line((plot.left, up), (plot.right, up), ink, 1.8, (8.0, 4.0)))
        shapes.append(
            Text(
                (plot.left + 8, up + 9), f"budget {sum_words(money.budget)}", size=11, ink=ink, face="strong", anchor="left", ground="paper"
            )
        )
    return tuple(shapes)


def _words(at: tuple[float, float], text: str, ink: str, up: float) -> list[Primitive]:
    x = at[0] - 6
    return [Text((max(x, text_width(text, 11) + 70), at[1] + up), text, size=11, ink=ink, face="strong", anchor="right", ground="paper")]
