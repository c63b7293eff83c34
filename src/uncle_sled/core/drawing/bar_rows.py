"""Rows of bars in a drawing: a name, its bar on a scale, posts at limits, and words beside it. In points, y up."""

from __future__ import annotations

from typing import Any, Literal

import msgspec

from uncle_sled.core.drawing.primitives import Poly, Text, line, rect
from uncle_sled.core.drawing.text_width import elided

DASHED = (3.0, 3.0)


class Scale(msgspec.Struct, frozen=True):
    """Values from low to high over the room between two edges [points]; no value falls before its left edge."""

    left: float
    right: float
    high: float
    low: float = 0.0

    @property
    def room(self) -> float:
        """How wide the bars may be [points]."""
        return self.right - self.left

    def x(self, value: float) -> float:
        """Where a value falls."""
        return self.left + (value - self.low) / (self.high - self.low) * self.room

    def bar(self, y: float, value: float, ink: str, *, half: float = 6.0, least: float = 1.0, **style: Any) -> Poly:
        """A bar from the left edge to a value, drawn so long at least. Args: half: of its height; style: as of ``Poly``."""
        return bar(self.left, y, self.x(value) - self.left, ink, half=half, least=least, **style)

    def span(self, y: float, low: float, high: float, *, half: float, least: float = 1.0, **style: Any) -> Poly:
        """What lies between two values."""
        return rect(self.x(low), y - half, max(self.x(high) - self.x(low), least), 2 * half, **style)

    def whole(self, y: float, ink: str = "rule", *, half: float = 6.0) -> Poly:
        """The ground that a bar lies on: all of the scale."""
        return bar(self.left, y, self.room, ink, half=half)

    def post(self, y: float, value: float, ink: str = "ink", *, half: float = 10.0, width: float = 2.0) -> Poly:
        """An upright mark at a value, such as a limit."""
        return line((self.x(value), y - half), (self.x(value), y + half), ink, width)


def bar(left: float, y: float, long: float, ink: str, *, half: float = 6.0, least: float = 1.0, **style: Any) -> Poly:
    """A bar from an edge on, so long at least that it is seen; filled and without a line where ``style`` names none."""
    return rect(left, y - half, max(long, least), 2 * half, **{"stroke": "", "fill": ink, **style})


def unchecked_bar(left: float, y: float, long: float, *, half: float = 6.0) -> Poly:
    """An empty dashed bar: neither kept nor broken."""
    corners = ((left, y - half), (left + long, y - half), (left + long, y + half), (left, y + half))
    return Poly(corners, "pencil", width=0.8, dash=DASHED)


def named(x: float, y: float, name: str, room: float, size: float = 13.0, *, strong: bool = False, **style: Any) -> Text:
    """A name in the room it has, cut short in its middle; from the left where ``style`` does not say otherwise."""
    face: Literal["strong", "text"] = "strong" if strong else "text"
    return Text((x, y), elided(name, size, room, face), size, face=face, **{"anchor": "left", **style})
