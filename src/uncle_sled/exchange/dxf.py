"""Drawings as DXF, in millimetres at full size: one layer a kind of line, for a saw, a router or another drawing program."""

from __future__ import annotations

import io

from uncle_sled.core.drawing.backend import BASELINE, Look, draw
from uncle_sled.core.drawing.primitives import Point, Raster, Text
from uncle_sled.core.drawing.shell.cut_sheet import cut_sheet
from uncle_sled.core.reading.studied import Studied
from uncle_sled.exchange.dxf_library import Modelspace, TextEntityAlignment, document, units

MM = 1000.0
# Layer name to colour index of the format's own palette, and the layer of each ink.
LAYERS = {"OUTLINE": 7, "STICKS": 30, "OPENINGS": 1, "WHEEL_BOXES": 8, "WORDS": 3, "SECTIONS": 5, "TILTS": 4, "FOLDS": 6}
LAYER_OF_INK = {"wood": "STICKS", "primer": "OPENINGS", "zinc": "WHEEL_BOXES", "ochre": "SECTIONS", "chalk": "TILTS", "pencil": "FOLDS"}


def dxf_bytes(s: Studied) -> bytes:
    """Every face laid flat in a row. An empty drawing where there is no body."""
    drawing = document.Drawing.new("AC1024")
    drawing.units = units.MM
    for name, colour in LAYERS.items():
        drawing.layers.add(name, color=colour)
    draw(cut_sheet(s), _Dxf(drawing.modelspace()))
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8")


class _Dxf:
    """Lines and words in model space; a saw wants no hatch, no band and no paper behind words."""

    per_point, hatch_pitch = 1 / MM, 0.0

    def __init__(self, space: Modelspace) -> None:
        self.space = space

    def _on(self, ink: str) -> dict[str, str]:
        return {"layer": LAYER_OF_INK.get(ink, "OUTLINE")}

    def area(self, points: tuple[Point, ...], closed: bool, look: Look) -> None:
        corners = [(x * MM, y * MM) for x, y in points]
        self.space.add_lwpolyline(corners, close=closed, dxfattribs=self._on(look.stroke or look.fill))

    def circle(self, centre: Point, radius: float, look: Look) -> None:
        self.space.add_circle((centre[0] * MM, centre[1] * MM), radius * MM, dxfattribs=self._on(look.stroke or look.fill))

    def hatch(self, outline: tuple[Point, ...], strokes: list[tuple[Point, Point]], ink: str) -> None: ...
    def band(self, outline: tuple[Point, ...], thick: float) -> None: ...
    def ground(self, left: float, low: float, wide: float, high: float, ink: str) -> None: ...

    def raster(self, picture: Raster) -> None: ...

    def words(self, left: float, baseline: float, text: Text) -> None:
        made = self.space.add_text(text.text, height=text.size, dxfattribs={"layer": "WORDS"})
        low = baseline * MM + BASELINE * text.size  # a drawing's words stand on their place here
        made.set_placement((left * MM, low), align=TextEntityAlignment.LEFT)
