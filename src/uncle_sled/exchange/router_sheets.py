"""The sheets of the cut plan for a router: a DXF a sheet, in millimetres, packed as a ZIP; round holes are circles.

Layers: SHEET (what is clamped), CUT_OUTSIDE (the tool runs outside of the line), CUT_INSIDE (holes), WORDS (numbers). The kerf
that the pieces lie apart by is in the text of every file: the tool must be no wider.
"""

from __future__ import annotations

import io
import math
import zipfile

from uncle_sled.core.drawing.cut.sheet_drawn import hole_on, ring_of
from uncle_sled.core.drawing.primitives import Point
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Tell, nobody
from uncle_sled.core.studies.cut.cut_from_stock import BuildPlan, plan_of
from uncle_sled.core.studies.cut.handed import Handed, OnSheet, handed
from uncle_sled.exchange.dxf_library import TextEntityAlignment, document, units
from uncle_sled.exchange.file_names import file_stem

MM = 1000.0
LAYERS = {"SHEET": 8, "CUT_OUTSIDE": 7, "CUT_INSIDE": 1, "WORDS": 3}
ROUND_M, LEAST_POINTS = 0.0003, 8  # of a ring that is a circle: how far it may be off, and how many points it has at the least
ALWAYS = (1980, 1, 1, 0, 0, 0)


def sheets_zip(s: Studied, made: BuildPlan | None = None, tell: Tell = nobody) -> bytes:
    """All sheets that anything is cut from; nothing where there is none. Args: made: a plan there is."""
    made = plan_of(s.build, s.facts) if made is None else made
    hand = handed(made, s.build, s.facts)
    if not hand.sheets:
        return b""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for at, on in enumerate(hand.sheets):
            tell(0.9 * at / len(hand.sheets), f"drawing {on.plan.material}, sheet {on.number}")
            name = f"{file_stem(on.plan.material)}-sheet-{on.number:02d}.dxf"
            packed.writestr(zipfile.ZipInfo(name, ALWAYS), _sheet(on, hand, s.build.cut.kerf.si))
    return out.getvalue()


def _sheet(on: OnSheet, hand: Handed, kerf_m: float) -> bytes:
    drawing = document.Drawing.new("AC1024")
    drawing.units = units.MM
    for name, colour in LAYERS.items():
        drawing.layers.add(name, color=colour)
    space = drawing.modelspace()

    def ring(points: tuple[Point, ...], layer: str) -> None:
        circle = _circle(points)
        if circle is not None:
            (x, y), r = circle
            space.add_circle((x * MM, y * MM), r * MM, dxfattribs={"layer": layer})
        else:
            space.add_lwpolyline([(x * MM, y * MM) for x, y in points], close=True, dxfattribs={"layer": layer})

    def words(text: str, at: Point, high: float) -> None:
        made = space.add_text(text, height=high, dxfattribs={"layer": "WORDS"})
        made.set_placement((at[0] * MM, at[1] * MM), align=TextEntityAlignment.MIDDLE_CENTER)

    layout = on.layout
    ring(((0.0, 0.0), (layout.length_m, 0.0), (layout.length_m, layout.width_m), (0.0, layout.width_m)), "SHEET")
    words(f"{on.plan.material}, sheet {on.number}; kerf {kerf_m * MM:.1f} mm", (layout.length_m / 2, layout.width_m + 0.03), 20.0)
    for lying, named in zip(layout.pieces, on.named, strict=True):
        ring(ring_of(lying, hand.wanted[lying.piece]), "CUT_OUTSIDE")
        for hole in named.piece.holes:
            ring(hole_on(hole, named.piece, lying), "CUT_INSIDE")
        words(named.label, (lying.x_m + lying.w_m / 2, lying.y_m + lying.h_m / 2), max(min(14.0, lying.h_m * MM / 4), 3.0))
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8")


def _circle(points: tuple[Point, ...]) -> tuple[Point, float] | None:
    """Middle and radius [m] of a ring that is round; None of any other."""
    if len(points) < LEAST_POINTS:
        return None
    x, y = sum(p[0] for p in points) / len(points), sum(p[1] for p in points) / len(points)
    far = [math.dist(p, (x, y)) for p in points]
    return ((x, y), max(far)) if max(far) - min(far) < ROUND_M else None
