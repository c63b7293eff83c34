"""The load over the whole weight for every level of every tank: dots over what is allowed, which opens like a fan.

On a trailer the load is that on the ball, on a vehicle's bed that on the rear axle.
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.plot import Plot, axes, kg_ticks, ticks, unit_kg
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sweep import Spot, Sweep, span_kg
from uncle_sled.core.words import Words

LEFT, RIGHT, LOW, TOP = 62.0, 16.0, 34.0, 22.0  # points round the field
MOST_DOTS = 700
NEAR = 14.0  # how near the pointer has to be to a dot


def field_of(found: Sweep, width: float, height: float) -> Plot:
    """The field round all the dots and what is allowed near them."""
    total, load = found.total_kg, found.load_kg
    pad = max(float(np.ptp(total)) * 0.12, 8.0)
    edges = [float(load.min()), float(load.max())]
    reach = max(edges[1] - edges[0], 5.0)
    for ends in (found.low_kg, found.high_kg):
        edges += [float(v) for v in (ends.min(), ends.max()) if np.isfinite(v) and edges[0] - 3 * reach < v < edges[1] + 3 * reach]
    reach = max(max(edges) - min(edges), 5.0)
    return Plot(
        float(total.min()) - pad,
        float(total.max()) + pad,
        y0=min(edges) - 0.4 * reach,
        y1=max(edges) + 0.2 * reach,
        left=LEFT,
        low=LOW,
        right=max(width - RIGHT, LEFT + 40),
        top=max(height - TOP, LOW + 20),
    )


def fan(s: Studied, found: Sweep, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The sweep in a field of width by height points, y up: what is allowed, a dot a combination, the two worst named."""
    plot = field_of(found, width, height)
    shapes = _allowed(s, plot)
    # one tick less than there is room for: the foot of the field belongs to the names of the worst
    shapes += axes(
        plot,
        ticks(plot.x0, plot.x1, 5, unit_kg(words)),
        kg_ticks(plot, words, 4),
        words.kg,
        words.kg,
        "the whole weight",
        f"on the {found.of}",
    )
    step = max(len(found.total_kg) // MOST_DOTS, 1)
    inside = (found.load_kg >= found.low_kg) & (found.load_kg <= found.high_kg)
    for k in range(0, len(found.total_kg), step):
        at = plot.at(float(found.total_kg[k]), float(found.load_kg[k]))
        shapes.append(Circle(at, 2.2, "", "spruce" if inside[k] else "primer", 0.0))
    named = [(found.worst_low, -1.0)] + ([(found.worst_high, 1.0)] if found.worst_high != found.worst_low else [])
    for spot, way in named:
        shapes += _named(s, spot, words, plot.at(spot.total_kg, spot.load_kg), way, width)
    return tuple(shapes)


def read_off(s: Studied, found: Sweep, words: Words, at: Point, width: float, height: float) -> str:
    """The combination under the pointer in words; "" where there is none."""
    plot = field_of(found, width, height)
    across, up = plot.at(found.total_kg, found.load_kg)
    far = np.hypot(across - at[0], up - at[1])
    if not len(far) or far.min() > NEAR:
        return ""
    spot = found.spot(int(far.argmin()))
    return f"{words.kg(spot.load_kg)} on the {found.of}, {words.kg(spot.total_kg)} in all\n{levels_words(s, spot)}"


def _allowed(s: Studied, plot: Plot) -> list[Primitive]:
    """What is advised or allowed between its two lines, clipped to the field; the ball's limit as a red one."""
    xs = np.linspace(plot.x0, plot.x1, 24)
    low, high = (np.clip(ends, plot.y0, plot.y1) for ends in span_kg(s, xs))
    ring = [plot.at(float(x), float(y)) for x, y in zip(xs, low, strict=True)] + [
        plot.at(float(x), float(y)) for x, y in zip(xs[::-1], np.maximum(high, low)[::-1], strict=True)
    ]
    shapes: list[Primitive] = [Poly(tuple(ring), "spruce", "spruce wash", 1.0)]
    bed = s.build.rig.carrier == "vehicle bed"
    limit = (s.build.rig.bed.rear_rating.si if s.build.rig.bed.rear_rating else None) if bed else s.band.limit_kg
    if limit is not None and plot.y0 < limit < plot.y1:
        shapes.append(line(plot.at(plot.x0, limit), plot.at(plot.x1, limit), "primer", 1.4))
    return shapes


def _named(s: Studied, spot: Spot, words: Words, at: Point, way: float, width: float) -> list[Primitive]:
    text = f"{words.kg(spot.load_kg)}: {levels_words(s, spot)}"
    label = Text((0.0, 0.0), text, 11, "ink", "strong")
    half = label.width / 2
    x = min(max(at[0], LEFT + half), max(width - RIGHT - half, LEFT + half))
    y = max(at[1] + way * 15, LOW + 9)
    return [Circle(at, 5, "ink", "primer" if spot.out_kg > 0 else "spruce", 1.4), Text((x, y), text, 11, "ink", "strong", ground="paper")]


def levels_words(s: Studied, spot: Spot) -> str:
    """The levels of a combination in words: fresh empty, grey full."""
    names = {t.id: t.name for t in s.build.stow.things}
    words = [f"{names.get(id, id)} {_level(level)}" for id, level in spot.levels]
    return ", ".join(words[:4]) + (f" and {len(words) - 4} more" if len(words) > 4 else "")


def _level(level: float) -> str:
    return "full" if level > 0.995 else "empty" if level < 0.005 else f"{level * 100:.0f} %"
