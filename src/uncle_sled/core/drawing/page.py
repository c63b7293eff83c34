"""A page of paper, in points, y up; every writer takes the same one."""

from __future__ import annotations

from dataclasses import dataclass

from uncle_sled.core.drawing.primitives import Primitive

POINTS_PER_M = 72 / 0.0254
SCALES = (5, 10, 15, 20, 25, 30, 40, 50, 75, 100, 200)


@dataclass(frozen=True)
class Page:
    width: float
    height: float
    shapes: tuple[Primitive, ...]
    title: str
