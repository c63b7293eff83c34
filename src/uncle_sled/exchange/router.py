"""Templates for a router or a saw that follows lines: DXF with a layer a tool, SVG in millimetres at full size; all in a row.

Layers: CUT_OUTSIDE (the tool runs outside of the line), CUT_INSIDE (openings and holes), MARK (pencil or a fine bit), FOLD (both
sides of a cut in a tube), WORDS.
"""

from __future__ import annotations

import io
from collections.abc import Iterator

from uncle_sled.core.drawing.cut.templates import Template
from uncle_sled.core.drawing.primitives import Point
from uncle_sled.exchange.dxf_library import TextEntityAlignment, document, units

MM, GAP_MM = 1000.0, 60.0
LAYERS = {"CUT_OUTSIDE": 7, "CUT_INSIDE": 1, "MARK": 30, "FOLD": 6, "WORDS": 3}
COLOURS = {"CUT_OUTSIDE": "#000000", "CUT_INSIDE": "#c00000", "MARK": "#7a5a20", "FOLD": "#a000a0"}


def _placed(templates: tuple[Template, ...]) -> Iterator[tuple[Template, float]]:
    """Every template with where its left end is in the row [mm]."""
    x = 0.0
    for template in templates:
        yield template, x
        x += template.drawn.wide * MM + GAP_MM


def _lines(template: Template) -> Iterator[tuple[str, tuple[Point, ...], bool]]:
    """Layer, points [m] and whether the line is closed, the outline first."""
    first = True
    for points, ink, _ in template.drawn.lines:
        closed = len(points) > 3 and points[0] == points[-1]
        layer = "MARK" if ink == "wood" else "FOLD" if ink == "primer" else "CUT_OUTSIDE" if first else "CUT_INSIDE"
        first = first and ink in ("wood", "primer")
        yield layer, points[:-1] if closed else points, closed


def router_dxf(templates: tuple[Template, ...]) -> bytes:
    """Millimetres; an empty drawing where there is none."""
    drawing = document.Drawing.new("AC1024")
    drawing.units = units.MM
    for name, colour in LAYERS.items():
        drawing.layers.add(name, color=colour)
    space = drawing.modelspace()
    for template, x in _placed(templates):
        for layer, points, closed in _lines(template):
            space.add_lwpolyline([(a * MM + x, b * MM) for a, b in points], close=closed, dxfattribs={"layer": layer})
        words = space.add_text(template.title, height=12.0, dxfattribs={"layer": "WORDS"})
        words.set_placement((x, template.drawn.high * MM + 12.0), align=TextEntityAlignment.LEFT)
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8")


def router_svg(templates: tuple[Template, ...]) -> bytes:
    """One picture, a unit a millimetre, y down as SVG has it."""
    from xml.etree import ElementTree as Tree

    high = max((each_template.drawn.high for each_template in templates), default=0.1) * MM + 40.0
    wide = sum(each_template.drawn.wide * MM + GAP_MM for each_template in templates) or 100.0
    root = Tree.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "width": f"{wide:.3f}mm",
            "height": f"{high:.3f}mm",
            "viewBox": f"0 0 {wide:.3f} {high:.3f}",
        },
    )
    groups = {
        name: Tree.SubElement(root, "g", {"id": name, "fill": "none", "stroke": colour, "stroke-width": "0.2"})
        for name, colour in COLOURS.items()
    }
    for template, x in _placed(templates):
        for layer, points, closed in _lines(template):
            told = " ".join(f"{a * MM + x:.3f},{high - b * MM:.3f}" for a, b in points)
            Tree.SubElement(groups[layer], "polygon" if closed else "polyline", {"points": told})
        name = Tree.SubElement(root, "text", {"x": f"{x:.3f}", "y": "14", "font-size": "12"})
        name.text = template.title
    return bytes(Tree.tostring(root, encoding="utf-8", xml_declaration=True))
