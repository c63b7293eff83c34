"""One drawing for every medium: primitives become calls of a small backend, and what is tricky is worked out here once.

Screen, print, SVG, PDF and DXF each are a backend of a few plain methods. Anchors of words, the ground behind them,
hatches and bands need nobody else's care. Coordinates are those of the primitives, y up.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol

import msgspec

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Raster, Text, hatch_lines

ANCHOR = {"left": 0.0, "middle": 0.5, "right": 1.0}
BASELINE = 0.34  # of a text's size: how far its baseline is under its middle
GROUND_ASIDE, GROUND_HIGH = 2.0, 0.6  # what is laid behind words: points beside them, and half its height in sizes


class Look(msgspec.Struct, frozen=True):
    """Inks by name of the ink table; nothing where the name is empty. Widths and dashes in points of the medium."""

    stroke: str = ""
    width: float = 1.0
    dash: tuple[float, ...] = ()
    fill: str = ""
    tint: float = 1.0  # share of the fill over the paper
    id: str = ""  # of the part


class Backend(Protocol):
    """What a medium can do. ``per_point``: drawing units to a point of the medium (1 on a page)."""

    per_point: float
    hatch_pitch: float  # points between the strokes of a hatch; 0: this medium has none

    def area(self, points: tuple[Point, ...], closed: bool, look: Look) -> None:
        """An outline or an open chain, painted as ``look`` says."""

    def circle(self, centre: Point, radius: float, look: Look) -> None:
        """A circle about its middle."""

    def hatch(self, outline: tuple[Point, ...], strokes: list[tuple[Point, Point]], ink: str) -> None:
        """Strokes of a hatch, cut off at an outline."""

    def band(self, outline: tuple[Point, ...], thick: float) -> None:
        """A band of a thickness along the inside of an outline."""

    def ground(self, left: float, low: float, wide: float, high: float, ink: str) -> None:
        """A patch under words, so that no line runs through them."""

    def raster(self, picture: Raster) -> None:
        """Pixels in their place; where a medium has none, the frame about them."""

    def words(self, left: float, baseline: float, text: Text) -> None:
        """A text that begins there, on its baseline."""


def draw(shapes: Iterable[Primitive], to: Backend) -> None:
    """Draw primitives on a medium, in their order."""
    for shape in shapes:
        if isinstance(shape, Poly):
            _poly(shape, to)
        elif isinstance(shape, Text):
            _text(shape, to)
        elif isinstance(shape, Raster):
            to.raster(shape)
        else:
            look = Look(shape.stroke, shape.width, shape.dash, shape.fill, id=shape.id)
            to.circle(shape.centre, shape.radius, look)


def _poly(shape: Poly, to: Backend) -> None:
    line = Look(shape.stroke, shape.width, shape.dash, id=shape.id)
    if not shape.closed:
        to.area(shape.points, closed=False, look=line)
        return
    whole = Look(shape.stroke, shape.width, shape.dash, shape.fill, shape.tint, shape.id)
    hatched = bool(shape.hatch) and to.hatch_pitch > 0
    if not (shape.band or hatched):
        to.area(shape.points, closed=True, look=whole)
        return
    if shape.fill:
        to.area(shape.points, closed=True, look=Look(fill=shape.fill, tint=shape.tint, id=shape.id))
    if shape.band:
        to.band(shape.points, shape.band)
    else:
        xs, ys = [p[0] for p in shape.points], [p[1] for p in shape.points]
        pitch = to.hatch_pitch * to.per_point
        to.hatch(shape.points, hatch_lines(shape.hatch, min(xs), min(ys), max(xs), max(ys), pitch), shape.stroke)
    to.area(shape.points, closed=True, look=line)


def _text(shape: Text, to: Backend) -> None:
    per = to.per_point
    left = shape.at[0] - shape.width * ANCHOR[shape.anchor] * per
    if shape.ground:
        half, aside = GROUND_HIGH * shape.size * per, GROUND_ASIDE * per
        to.ground(left - aside, shape.at[1] - half, shape.width * per + 2 * aside, 2 * half, shape.ground)
    to.words(left, shape.at[1] - BASELINE * shape.size * per, shape)
