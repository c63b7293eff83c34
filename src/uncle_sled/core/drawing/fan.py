"""The ball over the whole weight for every level of every tank: dots over the band, which opens like a fan."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line
from uncle_sled.core.findings.words import Words
from uncle_sled.core.studies.reading import Studied
from uncle_sled.core.studies.sweep import Spot, Sweep

LEFT, RIGHT, LOW, TOP = 62.0, 16.0, 34.0, 22.0  # points round the field
MOST_DOTS = 700


def fan(s: Studied, found: Sweep, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The sweep in a field of width by height points, y up: band, limit, a dot a combination, the two worst named."""
    total, tongue = found.total_kg, found.tongue_kg
    pad = max(float(np.ptp(total)) * 0.12, 8.0)
    x0, x1 = float(total.min()) - pad, float(total.max()) + pad
    edges = [float(tongue.min()), float(tongue.max()), float(found.low_kg.min()), float(found.high_kg.max())]
    reach = max(max(edges) - min(edges), 5.0)
    y0, y1 = min(edges) - 0.4 * reach, max(edges) + 0.2 * reach

    def at(total_kg: float, tongue_kg: float) -> Point:
        return (
            LEFT + (total_kg - x0) / (x1 - x0) * (width - LEFT - RIGHT),
            LOW + (tongue_kg - y0) / (y1 - y0) * (height - LOW - TOP),
        )

    shapes = _band(s, x0, x1, y0, y1, at)
    shapes += _axes(words, x0, x1, y0, y1, at)
    step = max(len(total) // MOST_DOTS, 1)
    inside = (tongue >= found.low_kg) & (tongue <= found.high_kg)
    for k in range(0, len(total), step):
        shapes.append(Circle(at(total[k], tongue[k]), 2.2, "", "spruce" if inside[k] else "primer", 0.0))
    named = [(found.worst_low, -1.0)] + ([(found.worst_high, 1.0)] if found.worst_high != found.worst_low else [])
    for spot, way in named:
        shapes += _named(s, spot, words, at(spot.total_kg, spot.tongue_kg), way, width)
    return tuple(shapes)


def _band(s: Studied, x0: float, x1: float, y0: float, y1: float, at) -> list[Primitive]:  # type: ignore[no-untyped-def]
    """The advised share between its two lines, cut by the limit; clipped to the field."""
    xs = np.linspace(x0, x1, 24)
    limit = np.inf if s.band.limit_kg is None else s.band.limit_kg
    low = np.clip(s.band.low * xs, y0, y1)
    high = np.clip(np.minimum(s.band.high * xs, limit), y0, y1)
    ring = [at(x, y) for x, y in zip(xs, low, strict=True)] + [
        at(x, y) for x, y in zip(xs[::-1], np.maximum(high, low)[::-1], strict=True)
    ]
    shapes: list[Primitive] = [Poly(tuple(ring), "spruce", "spruce wash", 1.0)]
    if y0 < limit < y1:
        shapes.append(line(at(x0, limit), at(x1, limit), "primer", 1.4))
    return shapes


def _axes(words: Words, x0: float, x1: float, y0: float, y1: float, at) -> list[Primitive]:  # type: ignore[no-untyped-def]
    corner = at(x0, y0)
    shapes: list[Primitive] = [line(corner, at(x1, y0), "pencil"), line(corner, at(x0, y1), "pencil")]
    for share in (0.04, 0.5, 0.96):
        x = x0 + share * (x1 - x0)
        shapes.append(Text((at(x, y0)[0], corner[1] - 11), words.kg(x), 11, "pencil"))
    for share in (0.05, 0.5, 0.95):
        y = y0 + share * (y1 - y0)
        shapes.append(Text((corner[0] - 5, at(x0, y)[1]), words.kg(y), 11, "pencil", anchor="right"))
    shapes.append(Text((at((x0 + x1) / 2, y0)[0], corner[1] - 25), "the whole weight", 11, "pencil"))
    shapes.append(Text((corner[0] - 56, at(x0, y1)[1] + 12), "on the ball", 11, "pencil", anchor="left"))
    return shapes


def _named(s: Studied, spot: Spot, words: Words, at: Point, way: float, width: float) -> list[Primitive]:
    text = f"{words.kg(spot.tongue_kg)}: {levels_words(s, spot)}"
    label = Text((0.0, 0.0), text, 11, "ink", "strong")
    half = label.width / 2
    x = min(max(at[0], LEFT + half), max(width - RIGHT - half, LEFT + half))
    y = max(at[1] + way * 15, LOW + 9)
    return [
        Circle(at, 5, "ink", "primer" if spot.out_kg > 0 else "spruce", 1.4),
        Text((x, y), text, 11, "ink", "strong", ground="paper"),
    ]


def levels_words(s: Studied, spot: Spot) -> str:
    """The levels of a combination in words: fresh empty, grey full."""
    names = {t.id: t.name for t in s.build.stow.things}
    words = [f"{names.get(id, id)} {_level(level)}" for id, level in spot.levels]
    return ", ".join(words[:4]) + (f" and {len(words) - 4} more" if len(words) > 4 else "")


def _level(level: float) -> str:
    return "full" if level > 0.995 else "empty" if level < 0.005 else f"{level * 100:.0f} %"
