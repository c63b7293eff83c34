"""Every face laid flat beside the others at full size, for a saw or a router: outlines, sticks, openings and their names."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.laid import Laid, laid
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

GAP_M = 0.6
NAME_MM, TITLE_MM = 30.0, 60.0  # sizes of words: the medium's points are millimetres here


def cut_sheet(s: Studied) -> tuple[Primitive, ...]:
    """The faces in a row [m], left ends on one line. Nothing where there is no body."""
    shapes: list[Primitive] = []
    x, words = 0.0, Words(s.build.brief.reading.shown())
    for surface in s.framed.body.surfaces if s.framed.body else ():
        left, low, right, _ = laid(surface).bounds(surface.polygon.bounds)
        shapes += _face(s.framed, surface, laid(surface, x - left, -low), words)
        x += right - left + GAP_M
    return tuple(shapes)


def _face(framed: Framed, surface: Surface, on: Laid, words: Words) -> Iterator[Primitive]:
    def ring(points: list[Point], ink: str) -> Poly:
        return Poly(on.points(points), ink, id=surface.id)

    def write(text: str, at: Point, size: float) -> Text:
        return Text(at, text, size, anchor="left", id=surface.id)

    left, low, right, high = on.bounds(surface.polygon.bounds)
    yield ring([(float(x), float(y)) for x, y in list(surface.polygon.exterior.coords)[:-1]], "ink")
    for member in framed.on(surface.id):
        yield ring(list(member.outline), "wood")
    for cut in framed.cuts:
        if cut.surface == surface.id and cut.good:
            corners = [(float(x), float(y)) for x, y in list(cut.shape.exterior.coords)[:-1]]
            yield ring(corners, "zinc" if cut.kind == "wheel box" else "primer")
            corner = on.bounds(cut.shape.bounds)
            yield write(cut.name, (corner[0] + 0.02, corner[1] + 0.02), NAME_MM)
    yield write(f"{surface.id}, {words.cut(right - left)} x {words.cut(high - low)}", (left, high + 0.08), TITLE_MM)
