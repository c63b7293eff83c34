"""What was thought and what was learnt, a row each: pencil before, chalk after, each with two sigmas. In points, y up."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from uncle_sled.core.drawing.bar_rows import Scale, named
from uncle_sled.core.drawing.primitives import Primitive, Text

LEFT, RIGHT, HEAD, MOST_PITCH, LEAST_PITCH = 150.0, 120.0, 44.0, 56.0, 30.0


class Learnt(msgspec.Struct, frozen=True):
    """A row. told: before and after in words; change: what that makes, with its doubt."""

    name: str
    before: float
    sigma_before: float
    after: float
    sigma: float
    told: str
    change: str
    id: str = ""


def before_after(made: Sequence[Learnt], wide: float, high: float) -> tuple[Primitive, ...]:
    """As many rows as have room; the rest is counted."""
    if not made:
        return ()
    top = max(max(row.before + 2 * row.sigma_before, row.after + 2 * row.sigma) for row in made) or 1.0
    scale = Scale(min(LEFT, wide * 0.34), wide - RIGHT, top)
    pitch = min(max((high - HEAD - 6) / len(made), LEAST_PITCH), MOST_PITCH)
    fits = max(int((high - HEAD) / pitch), 1)
    shapes: list[Primitive] = []
    for k, row in enumerate(made[:fits]):
        y = high - HEAD - k * pitch - pitch / 2
        shapes.append(named(10, y, row.name, scale.left - 20, 12, strong=True, id=row.id))
        for off, value, sigma, ink in ((7.0, row.before, row.sigma_before, "pencil"), (-7.0, row.after, row.sigma, "chalk")):
            least, most = max(value - 2 * sigma, 0.0), max(value + 2 * sigma, 0.0)
            shapes += [
                scale.span(y + off, least, most, half=4.0, least=2.0, stroke=ink, fill=ink, width=0.8, tint=0.25),
                scale.post(y + off, max(value, 0.0), ink, half=6.0, width=2.4),
            ]
        shapes.append(Text((wide - 8, y + 6), row.told, 11, "ink", anchor="right"))
        shapes.append(Text((wide - 8, y - 8), row.change, 10, "chalk", anchor="right"))
    if len(made) > fits:
        shapes.append(Text((10, 8), f"and {len(made) - fits} more", 11, "pencil", anchor="left"))
    return tuple(shapes)
