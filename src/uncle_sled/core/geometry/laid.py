"""A surface laid on paper: bent noses and tails stand upright, as they are seen; everything else lies as it is."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.geometry.surfaces import Surface

Point = tuple[float, float]
Bounds = tuple[float, float, float, float]
Edge = Literal["left", "low", "right", "high"]


class Laid(msgspec.Struct, frozen=True):
    """How (s, t) of a surface [m] goes to paper (right, up) [m].

    turned: s runs up the paper and t to the right; top: s runs down it, from here. ``dx`` and ``dy`` shift the whole.
    """

    turned: bool = False
    top: float | None = None
    dx: float = 0.0
    dy: float = 0.0

    def point(self, p: Point) -> Point:
        """A place of the surface [m] on paper [m]."""
        s, t = p
        x, y = (t, s if self.top is None else self.top - s) if self.turned else (s, t)
        return x + self.dx, y + self.dy

    def points(self, points: tuple[Point, ...] | list[Point]) -> tuple[Point, ...]:
        """The same of several places."""
        return tuple([self.point(p) for p in points])

    def back(self, p: Point) -> Point:
        """(s, t) of a point of the paper."""
        x, y = p[0] - self.dx, p[1] - self.dy
        if not self.turned:
            return x, y
        return (y if self.top is None else self.top - y), x

    def shift(self, dx: float, dy: float) -> Point:
        """(ds, dt) of a move on the paper."""
        if not self.turned:
            return dx, dy
        return (dy if self.top is None else -dy), dx

    def bounds(self, bounds: Bounds) -> Bounds:
        """Left, low, right, high on the paper of a rectangle of the surface."""
        left, low, right, high = bounds
        (a, b), (c, d) = self.point((left, low)), self.point((right, high))
        return min(a, c), min(b, d), max(a, c), max(b, d)

    def line(self, axis: str, at: float) -> tuple[str, float]:
        """A line of constant s ("x") or t ("z"): its axis on the paper and where it is there."""
        on_s = axis == "x"
        x, y = self.point((at, 0.0) if on_s else (0.0, at))
        return ("x", x) if on_s != self.turned else ("z", y)

    def edge(self, edge: Edge) -> Edge:
        """Which edge of a rectangle in (s, t) an edge on the paper is."""
        if not self.turned:
            return edge
        up: dict[Edge, Edge] = {"left": "low", "right": "high", "low": "left", "high": "right"}
        down: dict[Edge, Edge] = {**up, "low": "right", "high": "left"}
        return (up if self.top is None else down)[edge]


def laid(surface: Surface, dx: float = 0.0, dy: float = 0.0) -> Laid:
    """A bent nose's run begins at its foot, a bent tail's at the roof: both are turned so that up is up."""
    if not (surface.swept and surface.kind in ("front", "rear")):
        return Laid(dx=dx, dy=dy)
    return Laid(turned=True, top=float(surface.polygon.bounds[2]) if surface.kind == "rear" else None, dx=dx, dy=dy)


def laid_title(surface: Surface) -> str:
    """What a face laid flat is called."""
    name = surface.id[:1].upper() + surface.id[1:]
    if surface.swept and surface.kind in ("front", "rear"):
        return f"{name}, left edge at the left, laid flat along the skin"
    return name + (", laid flat along the skin" if surface.swept else "")
