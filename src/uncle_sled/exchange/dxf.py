"""Drawings as DXF, in millimetres at full size: one layer a kind of line, for a saw, a router or another drawing program."""

from __future__ import annotations

import io

from ezdxf import document, units
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts.layout import Modelspace

from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.words import Words

MM = 1000.0
GAP_M = 0.6
# Layer name to colour index of the format's own palette.
LAYERS = {"OUTLINE": 7, "STICKS": 30, "OPENINGS": 1, "WHEEL_BOXES": 8, "WORDS": 3}


def dxf_bytes(s: Studied) -> bytes:
    """Every face laid flat in a row, left ends on one line. An empty drawing where there is no body."""
    drawing = document.Drawing.new("AC1024")
    drawing.units = units.MM
    for name, colour in LAYERS.items():
        drawing.layers.add(name, color=colour)
    space = drawing.modelspace()
    x = 0.0
    words = Words(s.build.brief.reading.shown())
    for surface in s.framed.body.surfaces if s.framed.body else ():
        left, low, right, _ = surface.polygon.bounds
        _face(space, s.framed, surface, x - left, -low, words)
        x += right - left + GAP_M
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8")


def _face(space: Modelspace, framed: Framed, surface: Surface, dx: float, dy: float, words: Words) -> None:
    def ring(points: list[tuple[float, float]], layer: str) -> None:
        space.add_lwpolyline(
            [((x + dx) * MM, (y + dy) * MM) for x, y in points], close=True, dxfattribs={"layer": layer}
        )

    def write(text: str, at: tuple[float, float], high: float) -> None:
        space.add_text(text, height=high * MM, dxfattribs={"layer": "WORDS"}).set_placement(
            ((at[0] + dx) * MM, (at[1] + dy) * MM), align=TextEntityAlignment.LEFT
        )

    left, low, right, high = surface.polygon.bounds
    ring([(float(x), float(y)) for x, y in list(surface.polygon.exterior.coords)[:-1]], "OUTLINE")
    for member in framed.on(surface.id):
        ring(list(member.outline), "STICKS")
    for cut in framed.cuts:
        if cut.surface == surface.id and cut.good:
            corners = [(float(x), float(y)) for x, y in list(cut.shape.exterior.coords)[:-1]]
            ring(corners, "WHEEL_BOXES" if cut.kind == "wheel box" else "OPENINGS")
            write(cut.name, (cut.shape.bounds[0] + 0.02, cut.shape.bounds[1] + 0.02), 0.03)
    write(f"{surface.id}, {words.m(right - left)} x {words.m(high - low)}", (left, high + 0.08), 0.06)
