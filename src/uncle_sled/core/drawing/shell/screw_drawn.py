"""One joint cut through: the layers to scale, the screw that is taken, where it must end at least and at most. Points."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, dimension, line, rect
from uncle_sled.core.studies.shell.screws import ScrewJoint
from uncle_sled.core.words import Words

SIDE, TOP, FOOT = 24.0, 64.0, 52.0
SHANK_M, HEAD_M = 0.004, 0.008


def screw_drawn(joint: ScrewJoint, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The layers from the head of the screw on, left to right; nothing where there is no room."""
    whole = joint.held_m + joint.into_m
    long, high = width - 2 * SIDE, height - TOP - FOOT
    if whole <= 0 or long < 80 or high < 30:
        return ()
    scale = long / max(whole, 0.02)
    middle = FOOT + high / 2
    shapes: list[Primitive] = []
    x = SIDE
    last = len(joint.layers) - 1
    for at, (name, thick) in enumerate(joint.layers):
        wide = thick * scale
        shapes.append(
            rect(
                x,
                FOOT,
                wide,
                high,
                stroke="ink",
                fill="wood",
                width=1.0,
                hatch="wood" if at == last else "",
                tint=0.3 if at == last else 0.5,
            )
        )
        row = FOOT + high + 8 + 13 * (at % 3)
        shapes += [line((x + wide / 2, FOOT + high), (x + wide / 2, row - 5), "pencil", 0.6)]
        shapes.append(
            Text(
                (min(x + wide / 2, width - 8), row),
                f"{words.material(name)} {words.layer(thick)}",
                10,
                "ink",
                anchor="left" if x + wide / 2 < width / 2 else "right",
            )
        )
        x += wide
    if joint.long_m is not None:
        shapes += _screw(SIDE, middle, joint.long_m * scale, scale)
    ink = "spruce" if joint.bites else "primer"
    for value, said, row in ((joint.least_m, "bites from", 30.0), (joint.most_m, "stays inside to", 16.0)):
        if value <= whole + 1e-9:
            shapes.append(line((SIDE + value * scale, FOOT - 6), (SIDE + value * scale, FOOT + high), ink, 1.2, dash=(4, 3)))
        shapes += dimension((SIDE, FOOT - row), (SIDE + min(value, whole) * scale, FOOT - row), f"{said} {words.thick(value)}", 3.0, 10)
    return tuple(shapes)


def _screw(x: float, y: float, long: float, scale: float) -> list[Primitive]:
    shank, head = max(SHANK_M * scale / 2, 2.0), max(HEAD_M * scale / 2, 4.0)
    deep = min(head, long / 3)
    body = (
        (x, y - head),
        (x + deep, y - shank),
        (x + long - 2 * shank, y - shank),
        (x + long, y),
        (x + long - 2 * shank, y + shank),
        (x + deep, y + shank),
        (x, y + head),
    )
    return [Poly(body, "ink", "zinc", 1.2, tint=0.9)]
