"""Share on the ball over the axle's station, a line a case; band, window, conflicts and the axle as it stands.

In points, y up, in a field of width by height.
"""

from __future__ import annotations

from typing import Literal

import numpy as np

from uncle_sled.core.drawing.plot import Plot, axes, kg_ticks, ticks
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.axle_conflicts import Conflict
from uncle_sled.core.studies.balance.axle_placing import AxlePlacing, tongue_at_stations
from uncle_sled.core.studies.balance.hitch_height import HitchCurve
from uncle_sled.core.units import INCH_M
from uncle_sled.core.words import Words, lower_first

LEFT, RIGHT, LOW, TOP = 52.0, 150.0, 36.0, 30.0
SPAN_M, STEPS = 0.34, 69
DASHES: tuple[tuple[float, ...], ...] = ((), (6, 3), (2, 3), (8, 3, 2, 3), (4, 2), (10, 4))


def field_of(s: Studied, placing: AxlePlacing | None, middle_m: float, width: float, height: float) -> Plot:
    """The field round a station; it reaches to the window where that is near."""
    low, high = middle_m - SPAN_M, middle_m + SPAN_M
    if placing is not None and placing.window_m is not None:
        low, high = min(low, placing.window_m[0] - 0.08), max(high, placing.window_m[1] + 0.08)
    low = max(low, 0.3)
    high = min(max(high, low + 0.3), low + 3.0)
    top = max(s.band.high * 1.5 + 0.015, 0.1)
    return Plot(low, high, -0.02, top, LEFT, LOW, max(width - RIGHT, LEFT + 40), max(height - TOP, LOW + 20))


def axle_chart(
    s: Studied, placing: AxlePlacing | None, found: tuple[Conflict, ...], field: Plot, words: Words, tried_m: float | None = None
) -> tuple[Primitive, ...]:
    """The chart. A case that leaves its band at the present station is red and named so. Args: tried_m: a ghost's station."""
    assert s.support is not None
    now = s.support.mean_axle_m
    shapes: list[Primitive] = [*_band(s, field, words), *_window(placing, field), *_conflicts(found, field)]
    shapes += _axes(field, words)
    stations = np.linspace(field.x0, field.x1, STEPS)
    tongue, total = tongue_at_stations(s, stations)
    share = tongue / np.where(total > 0, total, np.nan)
    names: list[tuple[float, str, str, tuple[float, ...]]] = []
    for column, row in enumerate(s.towing_rows):
        points = [
            (field.x(float(x)), field.y(float(p))) for x, p in zip(stations, share[:, column], strict=True) if field.y0 <= p <= field.y1
        ]
        if len(points) < 2:
            continue
        low, high = s.readings.band_kg[row]
        bad = not low <= s.readings.tongue_kg[row] <= high
        ink = "primer" if bad else "ink"
        shapes.append(Poly(tuple(points), ink, "", 2.2 if bad else 1.3, closed=False, dash=DASHES[column % len(DASHES)]))
        # by where it would be at the right edge: what leaves the field at its top keeps its order
        names.append((field.y(float(share[-1, column])), s.table.cases[row].name, ink, DASHES[column % len(DASHES)]))
    shapes += _names(names, field)
    if tried_m is not None and abs(tried_m - now) > 1e-6 and field.x0 <= tried_m <= field.x1:
        ghost = field.x(tried_m)
        far = field.top + (28 if abs(ghost - field.x(now)) < 110 else 14)
        shapes += [
            line((ghost, LOW), (ghost, field.top + 6), "chalk", 2.0, (6.0, 4.0)),
            Circle((ghost, LOW), 7, "chalk", "paper", 2.0),
            Text((ghost, min(far, field.top + TOP - 8)), f"tried {words.m(tried_m)}", 12, "chalk", ground="paper"),
        ]
    x = field.x(now)
    shapes += [
        line((x, LOW), (x, field.top + 6), "chalk", 2.4, id="axle"),
        Circle((x, LOW), 7, "chalk", "chalk", 1.0, id="axle"),
        Text((x, field.top + 14), f"axle {words.m(now)}", 13, "chalk", "strong"),
    ]
    return tuple(shapes)


def axle_words(s: Studied, field: Plot, x: float, words: Words) -> str:
    """What every case would have on the ball with the axle under a point of the chart; "" beside the field."""
    if not LEFT <= x <= field.right:
        return ""
    station = field.value(x)
    tongue, total = tongue_at_stations(s, np.array([station]))
    lines = [f"Axle at {words.m(station)}"]
    for column, row in enumerate(s.towing_rows):
        share = tongue[0, column] / total[0, column] if total[0, column] > 0 else 0.0
        lines.append(f"{s.table.cases[row].name}: {words.kg(float(tongue[0, column]))}, {words.share(float(share))}")
    return "\n".join(lines)


def _band(s: Studied, field: Plot, words: Words) -> list[Primitive]:
    low, high = field.y(max(s.band.low, field.y0)), field.y(min(s.band.high, field.y1))
    right = field.right
    says = f"{words.share(s.band.low, 0)} to {words.share(s.band.high, 0)}"
    return [
        rect(LEFT, low, right - LEFT, high - low, stroke="", fill="spruce wash", id="band"),
        Text((LEFT + 6 + text_width(says, 11) / 2, high - 9), says, 11, "spruce"),
    ]


def _window(placing: AxlePlacing | None, field: Plot) -> list[Primitive]:
    if placing is None or placing.window_m is None:
        return []
    a, b = (min(max(field.x(at), LEFT), field.right) for at in placing.window_m)
    if b - a < 0.5:
        return []
    box = rect(a, LOW, b - a, field.top - LOW, stroke="spruce", fill="spruce wash", width=1.2, dash=(4, 3), tint=0.6)
    return [box, *([Text(((a + b) / 2, LOW + 9), "window", 11, "spruce")] if b - a > 46 else [])]


def _conflicts(found: tuple[Conflict, ...], field: Plot) -> list[Primitive]:
    """Forbidden spans, hatched; the words of each in a row of its own."""
    shapes: list[Primitive] = []
    row = 0
    for conflict in found:
        a, b = (min(max(field.x(at), LEFT), field.right) for at in (conflict.low_m, conflict.high_m))
        if b - a < 1.0 or row > 3:
            continue
        high = field.top
        shapes.append(Poly(((a, LOW), (b, LOW), (b, high), (a, high)), "pencil", "", 0.6, hatch="metal", id=conflict.id))
        words = elided(conflict.says, 11, max(field.right - field.left - 10, 60))
        half = text_width(words, 11) / 2
        x = min(max((a + b) / 2, LEFT + half + 4), field.right - half - 4)
        shapes.append(Text((x, LOW + 24 + 15 * row), words, 11, "pencil", ground="paper", id=conflict.id))
        row += 1
    return shapes


def _axes(field: Plot, words: Words) -> list[Primitive]:
    shares = ticks(field.y0, field.y1, 9, 0.01)
    stations = ticks(field.x0, field.x1, 8, INCH_M if words.shown.imperial else 0.01)
    return axes(
        field, stations, shares, words.m, lambda share: words.share(share, 0), "the axle's middle, from the ball", "share on the ball"
    )


def _names(names: list[tuple[float, str, str, tuple[float, ...]]], field: Plot) -> list[Primitive]:
    """What each line is, at the right with a piece of it, in the order that the lines have there."""
    shapes: list[Primitive] = []
    left, y = field.right + 8, field.top + 8
    for at, name, ink, dash in sorted(names, reverse=True):
        y = min(at, y - 15)
        face: Literal["text", "strong"] = "strong" if ink == "primer" else "text"
        shapes += [
            line((left, y), (left + 20, y), ink, 1.8, dash),
            Text((left + 26, y), elided(lower_first(name), 11, RIGHT - 40, face), 11, ink, face, "left"),
        ]
    return shapes


def _hitch_plot(curve: HitchCurve, ratings_kg: tuple[float | None, ...], width: float, height: float) -> Plot:
    top = max(float(curve.axle_kg.max()), *(r for r in ratings_kg if r), float(curve.tongue_kg.max()), 1.0) * 1.08
    ends = float(curve.height_m[0]), float(curve.height_m[-1])
    return Plot(*ends, 0.0, top, LEFT, LOW, max(width - RIGHT, LEFT + 40), max(height - TOP, LOW + 20))


def hitch_words(curve: HitchCurve, x: float, words: Words, width: float) -> str:
    """Ball and axles at the hitch height under a point of the hitch's chart."""
    share = (x - LEFT) / max(width - LEFT - RIGHT, 1.0)
    if not 0 <= share <= 1:
        return ""
    height = float(curve.height_m[0] + share * (curve.height_m[-1] - curve.height_m[0]))
    loads = [float(np.interp(height, curve.height_m, curve.axle_kg[:, k])) for k in range(curve.axle_kg.shape[1])]
    ball = float(np.interp(height, curve.height_m, curve.tongue_kg))
    axles = "\n".join(f"Axle {k + 1}: {words.kg(load)}" for k, load in enumerate(loads))
    return f"Hitch at {words.m(height)}\nOn the ball: {words.kg(ball)}\n{axles}"


def hitch_chart(
    curve: HitchCurve, ratings_kg: tuple[float | None, ...], words: Words, width: float, height: float
) -> tuple[Primitive, ...]:
    """Both axles and the ball over the hitch's height, with the axles' ratings; drawn in the same manner."""
    plot = _hitch_plot(curve, ratings_kg, width, height)
    heights = ticks(plot.x0, plot.x1, 4, INCH_M if words.shown.imperial else 0.01)
    shapes: list[Primitive] = axes(plot, heights, kg_ticks(plot, words, 4), words.m, words.bare_kg, "height of the ball", words.shown.mass)
    names: list[tuple[float, str, str, tuple[float, ...]]] = []
    for k in range(curve.axle_kg.shape[1]):
        rating = ratings_kg[k] if k < len(ratings_kg) else None
        over = rating is not None and float(np.interp(curve.now_m, curve.height_m, curve.axle_kg[:, k])) > rating
        ink, dash = "primer" if over else "ink", DASHES[k % len(DASHES)]
        shapes += plot.curve(curve.height_m, curve.axle_kg[:, k], ink, 2.0, dash)
        names.append((plot.at(plot.x1, float(curve.axle_kg[-1, k]))[1], f"axle {k + 1}", ink, dash))
        if rating:
            shapes.append(line(plot.at(plot.x0, rating), plot.at(plot.x1, rating), "primer", 1.0, (5, 3)))
            told = (plot.at(plot.x1, rating)[1], f"rated {words.kg(rating)}", "primer", (5.0, 3.0))
            names += [told] if told not in names else []
    shapes += plot.curve(curve.height_m, curve.tongue_kg, "chalk", 2.0)
    names.append((plot.at(plot.x1, float(curve.tongue_kg[-1]))[1], "on the ball", "chalk", ()))
    shapes += _names(names, plot)
    now = plot.at(curve.now_m, 0.0)[0]
    shapes += [
        line((now, plot.low), (now, plot.top), "chalk", 1.6, (4, 3)),
        Text((now, plot.top + 12), f"hitch {words.m(curve.now_m)}", 12, "chalk", "strong"),
    ]
    return tuple(shapes)
