"""A page as SVG, with the shipped fonts named and embedded so that it prints the same elsewhere."""

from __future__ import annotations

import base64
from importlib import resources
from xml.etree import ElementTree as Tree

from uncle_sled.core.drawing.inks import LIGHT, mixed
from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, hatch_lines, placed

FACES = {
    "text": "IBMPlexSansCondensed-Regular.ttf",
    "strong": "IBMPlexSansCondensed-SemiBold.ttf",
    "head": "BarlowSemiCondensed-SemiBold.ttf",
}


def stacked(pages: tuple[Page, ...]) -> Page:
    """Pages below each other as one."""
    high = sum(page.height for page in pages)
    shapes: list[Primitive] = []
    top = high
    for page in pages:
        top -= page.height
        shapes += placed(page.shapes, 1.0, 0.0, top)
    return Page(max(page.width for page in pages), high, tuple(shapes), pages[0].title)


def svg_bytes(*pages: Page) -> bytes:
    """The pages as one SVG document, below each other, one user unit a point."""
    page = pages[0] if len(pages) == 1 else stacked(pages)
    root = Tree.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "viewBox": f"0 0 {page.width:g} {page.height:g}",
            "width": f"{page.width / POINTS_PER_M * 1000:.1f}mm",
            "height": f"{page.height / POINTS_PER_M * 1000:.1f}mm",
        },
    )
    Tree.SubElement(root, "title").text = page.title
    style = Tree.SubElement(root, "style")
    style.text = "".join(_font_face(face, file) for face, file in FACES.items())
    defs = Tree.SubElement(root, "defs")
    Tree.SubElement(root, "rect", {"width": "100%", "height": "100%", "fill": "#FFFFFF"})
    for at, shape in enumerate(page.shapes):
        _write(root, defs, shape, page.height, at)
    return b'<?xml version="1.0" encoding="UTF-8"?>\n' + Tree.tostring(root)


def _font_face(face: str, file: str) -> str:
    data = base64.b64encode(resources.files("uncle_sled.fonts").joinpath(file).read_bytes()).decode()
    return f"@font-face{{font-family:'sled-{face}';src:url(data:font/ttf;base64,{data})}}"


def _colour(name: str, tint: float = 1.0) -> str:
    if not name:
        return "none"
    return LIGHT[name] if tint >= 1 else mixed(LIGHT[name], "#FFFFFF", tint)


def _write(root: Tree.Element, defs: Tree.Element, shape: Poly | Circle | Text, height: float, at: int) -> None:
    if isinstance(shape, Text):
        x, y = shape.at[0], height - shape.at[1] + shape.size * 0.34
        if shape.ground:
            left = x - shape.width * {"left": 0, "middle": 0.5, "right": 1}[shape.anchor] - 3
            Tree.SubElement(
                root,
                "rect",
                {
                    "x": f"{left:.2f}",
                    "y": f"{y - shape.size:.2f}",
                    "width": f"{shape.width + 6:.2f}",
                    "height": f"{shape.size * 1.3:.2f}",
                    "fill": "#FFFFFF",
                },
            )
        text = Tree.SubElement(
            root,
            "text",
            {
                "x": f"{x:.2f}",
                "y": f"{y:.2f}",
                "font-family": f"sled-{shape.face}",
                "font-size": f"{shape.size:g}",
                "fill": _colour(shape.ink),
                "text-anchor": {"left": "start", "middle": "middle", "right": "end"}[shape.anchor],
            },
        )
        text.text = shape.text
        return
    look = {
        "fill": _colour(shape.fill, getattr(shape, "tint", 1.0)),
        "stroke": _colour(shape.stroke),
        "stroke-width": f"{shape.width:g}",
    }
    if shape.dash:
        look["stroke-dasharray"] = " ".join(f"{d:g}" for d in shape.dash)
    if shape.id:
        look["data-part"] = shape.id
    if isinstance(shape, Circle):
        Tree.SubElement(
            root,
            "circle",
            {
                "cx": f"{shape.centre[0]:.2f}",
                "cy": f"{height - shape.centre[1]:.2f}",
                "r": f"{shape.radius:.2f}",
                **look,
            },
        )
        return
    points = " ".join(f"{x:.2f},{height - y:.2f}" for x, y in shape.points)
    kind = "polygon" if shape.closed else "polyline"
    Tree.SubElement(root, kind, {"points": points, **look})
    if shape.hatch or shape.band:
        clip = Tree.SubElement(defs, "clipPath", {"id": f"c{at}"})
        Tree.SubElement(clip, "polygon", {"points": points})
        inside = Tree.SubElement(root, "g", {"clip-path": f"url(#c{at})"})
        if shape.band:
            Tree.SubElement(
                inside,
                "polygon",
                {"points": points, "fill": "none", "stroke": _colour("wood"), "stroke-width": f"{2 * shape.band:.2f}"},
            )
        else:
            xs, ys = [p[0] for p in shape.points], [p[1] for p in shape.points]
            for (x0, y0), (x1, y1) in hatch_lines(shape.hatch, min(xs), min(ys), max(xs), max(ys), 5.0):
                Tree.SubElement(
                    inside,
                    "line",
                    {
                        "x1": f"{x0:.1f}",
                        "y1": f"{height - y0:.1f}",
                        "x2": f"{x1:.1f}",
                        "y2": f"{height - y1:.1f}",
                        "stroke": _colour(shape.stroke),
                        "stroke-width": "0.35",
                    },
                )
        if shape.band:
            Tree.SubElement(root, "polygon", {"points": points, **{**look, "fill": "none"}})
