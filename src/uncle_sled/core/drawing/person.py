"""A plain figure to scale, as people stand beside, under and in what is built.

Proportions as shares of the height (any drawing book): head 0.13, shoulders at 0.82.
"""

from __future__ import annotations

from uncle_sled.core.document.project import Facts
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, line

HEAD, SHOULDER = 0.065, 0.80
USUAL_M = 1.75  # where nobody said how tall they are
OUTLINE: tuple[Point, ...] = (
    (-0.13, 0.82),
    (-0.03, 0.87),
    (0.03, 0.87),
    (0.13, 0.82),
    (0.09, 0.48),
    (0.07, 0.0),
    (0.015, 0.0),
    (0.0, 0.44),
    (-0.015, 0.0),
    (-0.07, 0.0),
    (-0.09, 0.48),
)


def tallest_m(facts: Facts) -> float:
    """Height of the tallest whose height is known [m]; a usual one where it is nobody's."""
    return max((p.height.si for p in facts.people if p.height is not None and 0.3 < p.height.si < 2.6), default=USUAL_M)


def upright(
    x: float,
    z: float,
    tall: float,
    *,
    ink: str = "pencil",
    fill: str = "kit",
    dash: tuple[float, ...] = (),
    hand: Point | None = None,
    id: str = "",
) -> list[Primitive]:
    """Somebody who stands with the feet at a place. Args: hand: what is held. All lengths [m], or points on a page."""
    shapes: list[Primitive] = [
        Poly(tuple((x + u * tall, z + v * tall) for u, v in OUTLINE), ink, fill, 1.0 if fill else 1.2, tint=0.5, dash=dash, id=id),
        Circle((x, z + tall * (1 - HEAD)), HEAD * tall, ink, "body" if fill else "", 1.0 if fill else 1.2, dash=dash, id=id),
    ]
    if hand is not None:
        shapes.append(line((x, z + SHOULDER * tall), hand, ink, 2.0, id=id))
    return shapes
