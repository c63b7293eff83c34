"""A bed base from above: its board or slats, the bearers under them, spans measured; what is too weak in red. Points."""

from __future__ import annotations

import math

from msgspec.structs import replace

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.primitives import Primitive, Text, dimension, dimension_up, line, rect
from uncle_sled.core.drawing.text_width import text_width, wrapped
from uncle_sled.core.studies.stow.carries import Carry
from uncle_sled.core.words import Words

EDGE, MOST_SLATS = 44.0, 80


def bed_fit(thing: Thing, wide: float, high: float) -> float:
    """Points a metre at which the base just fits; 0 where it has no size."""
    long, deep = max(thing.length.si, thing.width.si), min(thing.length.si, thing.width.si)
    return min((wide - 2 * EDGE) / long, (high - 2 * EDGE - 34) / deep) if deep > 0 else 0.0


def bed_drawn(
    thing: Thing, checks: tuple[Carry, ...], words: Words, wide: float, high: float, points_per_m: float = 0.0
) -> tuple[Primitive, ...]:
    """The bed's long side across the paper, as large as fits where no scale is given; bearers run across it, a span apart.

    Nothing without a base or a size.
    """
    base = thing.base
    long, deep = max(thing.length.si, thing.width.si), min(thing.length.si, thing.width.si)
    if base is None or min(long, deep) <= 0 or min(wide, high) < 100:
        return ()
    scale = points_per_m or bed_fit(thing, wide, high)
    x, y = (wide - long * scale) / 2, (high - deep * scale) / 2 - 4
    weak = {check.id.split("/")[1] for check in checks if check.use is not None and check.use > 1}
    shapes: list[Primitive] = []
    span = base.span.si if base.span is not None and base.span.si > 0 else None
    stick = base.bearer_thick.si if base.bearer_thick is not None else 0.045
    ink = "primer" if "bearer" in weak else "wood"
    under = [
        rect(x + at * scale, y, stick * scale, deep * scale, stroke=ink, fill=ink, tint=0.55, id=thing.id)
        for at in _bearers(long, base.bearers, stick)
    ]
    over = "primer" if "base" in weak else "ink"
    if base.kind == "slats":
        shapes += under
        step = max(base.slat.si + base.gap.si, 1e-3)
        for k in range(min(math.floor((deep + base.gap.si) / step), MOST_SLATS)):
            shapes.append(
                rect(x, y + k * step * scale, long * scale, base.slat.si * scale, stroke=over, fill="wood", tint=0.2, id=thing.id)
            )
        told = f"slats {words.section((base.slat.si, base.thick.si))}, {words.cut(base.gap.si)} apart"
    else:
        shapes.append(rect(x, y, long * scale, deep * scale, stroke=over, fill="wood", width=1.6, tint=0.2, id=thing.id))
        shapes += [replace(shape, dash=(5, 3), fill="") for shape in under]  # hidden by the board: their edges dashed
        told = f"board {words.layer(base.thick.si)} thick"
    shapes += dimension((x, y - 14), (x + long * scale, y - 14), words.cut(long), 3.0)
    shapes += dimension_up((x + long * scale + 14, y), deep * scale, words.cut(deep))
    places = _bearers(long, base.bearers, stick)
    if len(places) > 1:
        a, b, between = x + (places[0] + stick) * scale, x + places[1] * scale, words.cut(places[1] - places[0] - stick)
        if long * scale > 4 * text_width(between, 11):
            shapes += dimension((a, y + deep * scale * 0.25), (b, y + deep * scale * 0.25), between, 3.0)
        else:
            told += f"; {between} between bearers"
    if span is None:
        told += "; how far it spans is not said"
    elif len(places) > 1 and places[1] - places[0] - stick > span + 0.005:
        told += f"; {base.bearers} bearers leave more than the {words.cut(span)} that are said"
    for k, says in enumerate(wrapped(told, 11, wide - 20)[:2]):
        shapes.append(Text((10.0, high - 14 - 14 * k), says, 11, over, anchor="left"))
    shapes.append(line((x, y), (x, y + deep * scale), "pencil", 0.8))
    return tuple(shapes)


def _bearers(long: float, many: int, stick: float) -> list[float]:
    """Left edges of bearers spread over the bed, the outer ones at its ends."""
    if many < 1:
        return []
    if many == 1:
        return [(long - stick) / 2]
    return [k * (long - stick) / (many - 1) for k in range(min(many, 40))]
