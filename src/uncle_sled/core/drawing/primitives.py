"""What every drawing is made of: a few neutral shapes in metres (or points, on a page), y up.

Each carries the id of the part that it draws. Colours are names of the ink table; widths and
text sizes are in points of the medium and do not scale with the drawing.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import cached_property
from typing import Literal

import msgspec
from msgspec.structs import replace

from uncle_sled.core.drawing.text_width import text_width

Hatch = Literal["", "wood", "foam", "metal", "water", "gas", "power", "cargo", "kit", "outside"]
Point = tuple[float, float]


class Poly(msgspec.Struct, frozen=True, dict=True):
    """A chain of points: a line, an outline, a filled and hatched area, or a band inside its outline."""

    points: tuple[Point, ...]
    stroke: str = "ink"
    fill: str = ""
    width: float = 1.0
    closed: bool = True
    hatch: Hatch = ""
    dash: tuple[float, ...] = ()
    band: float = 0.0  # thickness of a hatched wall inside the outline, in drawing units
    id: str = ""
    tint: float = 1.0  # share of the fill over the paper

    @cached_property
    def box(self) -> tuple[float, float, float, float]:
        """Its least x and y, its greatest x and y; asked for thousands of shapes in a frame."""
        xs, ys = [p[0] for p in self.points], [p[1] for p in self.points]
        return min(xs), min(ys), max(xs), max(ys)


class Circle(msgspec.Struct, frozen=True):
    """A circle in the units of its drawing; ``id`` is the thing that a click on it means."""

    centre: Point
    radius: float
    stroke: str = "ink"
    fill: str = ""
    width: float = 1.0
    dash: tuple[float, ...] = ()
    id: str = ""


class Text(msgspec.Struct, frozen=True):
    """Words at a place, ``size`` in points whatever the drawing's units; ``ground`` clears what lies under them."""

    at: Point
    text: str
    size: float = 11.0
    ink: str = "ink"
    face: Literal["text", "strong", "head"] = "text"
    anchor: Literal["left", "middle", "right"] = "middle"
    ground: str = ""  # painted behind the words, so that no line runs through them
    id: str = ""

    @property
    def width(self) -> float:
        """In points."""
        return text_width(self.text, self.size, self.face)


class Raster(msgspec.Struct, frozen=True):
    """A picture of pixels at a place, in drawing units. pixels: rows from the top, a byte each where it is grey, else three."""

    at: Point  # its low left corner
    wide: float
    high: float
    pixels: bytes
    size: tuple[int, int]
    grey: bool = True
    id: str = ""


Primitive = Poly | Circle | Text | Raster


def line(a: Point, b: Point, stroke: str = "ink", width: float = 1.0, dash: tuple[float, ...] = (), id: str = "") -> Poly:
    """A straight line between two points."""
    return Poly((a, b), stroke, "", width, closed=False, hatch="", dash=dash, band=0.0, id=id)


def rect(x: float, y: float, w: float, h: float, **style: object) -> Poly:
    """A rectangle by its low left corner, width and height; ``style`` as of ``Poly``."""
    return Poly(((x, y), (x + w, y), (x + w, y + h), (x, y + h)), **style)  # type: ignore[arg-type]


def dimension(a: Point, b: Point, words: str, tick: float, size: float = 11.0) -> tuple[Primitive, ...]:
    """A measured distance along x with ticks at its ends and its words on the line; tick in drawing units."""
    middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    ends = tuple(line((p[0] - tick, p[1] - tick), (p[0] + tick, p[1] + tick), "pencil") for p in (a, b))
    return (line(a, b, "pencil"), *ends, Text(middle, words, size, "ink", ground="paper"))


def dimension_up(foot: Point, long: float, words: str, tick: float = 3.0, size: float = 11.0) -> tuple[Primitive, ...]:
    """A measured height upward from its foot, as ``dimension``."""
    x, y = foot
    ends = tuple(line((x - tick, p - tick), (x + tick, p + tick), "pencil") for p in (y, y + long))
    return (line((x, y), (x, y + long), "pencil"), *ends, Text((x, y + long / 2), words, size, "ink", ground="paper"))


def placed(shapes: Iterable[Primitive], scale: float, dx: float, dy: float) -> tuple[Primitive, ...]:
    """The shapes scaled and shifted onto a page; widths and text sizes stay."""
    moved: list[Primitive] = []
    for shape in shapes:
        if isinstance(shape, Poly):
            moved.append(replace(shape, points=tuple((x * scale + dx, y * scale + dy) for x, y in shape.points), band=shape.band * scale))
        elif isinstance(shape, Circle):
            moved.append(replace(shape, centre=(shape.centre[0] * scale + dx, shape.centre[1] * scale + dy), radius=shape.radius * scale))
        elif isinstance(shape, Raster):
            at = (shape.at[0] * scale + dx, shape.at[1] * scale + dy)
            moved.append(replace(shape, at=at, wide=shape.wide * scale, high=shape.high * scale))
        else:
            moved.append(replace(shape, at=(shape.at[0] * scale + dx, shape.at[1] * scale + dy)))
    return tuple(moved)


def hatch_lines(kind: Hatch, left: float, low: float, right: float, high: float, pitch: float) -> list[tuple[Point, Point]]:
    """Strokes that cover a rectangle in the manner of a kind; whoever paints clips them to the shape."""
    strokes: list[tuple[Point, Point]] = []
    width, height = right - left, high - low
    if pitch <= 0 or width <= 0 or height <= 0 or (width + height) / pitch > 4000:
        return strokes

    def slanted(lean: float, step: float) -> None:
        at = left - (height * abs(lean))
        while at < right + height * abs(lean):
            strokes.append(((at, low), (at + height * lean, high)))
            at += step

    if kind in ("wood", "cargo"):
        slanted(1.0, pitch)
    if kind in ("foam", "kit"):
        slanted(1.0, pitch * 1.6)
        slanted(-1.0, pitch * 1.6)
    if kind in ("metal", "outside"):
        slanted(-1.0, pitch)
    if kind == "power":
        slanted(0.0, pitch)
    if kind in ("water", "gas"):
        y = low + pitch / 2
        step = pitch if kind == "water" else pitch * 0.7
        while y < high:
            strokes.append(((left, y), (right, y)))
            y += step
    return strokes


HATCH_OF_GROUP: dict[str, Hatch] = {
    "frame": "metal",
    "shell": "wood",
    "fresh": "water",
    "grey": "water",
    "gas": "gas",
    "fuel": "gas",
    "power": "power",
    "cargo": "cargo",
    "kit": "kit",
    "outside": "outside",
    "vehicle": "metal",
}
