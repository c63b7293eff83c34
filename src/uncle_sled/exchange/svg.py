"""A page as SVG, with the shipped fonts named and embedded so that it prints the same elsewhere."""

from __future__ import annotations

import base64
import io
from typing import Any
from xml.etree import ElementTree as Tree

from uncle_sled.core.document.bounds import STRANGE
from uncle_sled.core.drawing.backend import Look, draw
from uncle_sled.core.drawing.inks import LIGHT, mixed
from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.primitives import Point, Primitive, Raster, Text, placed
from uncle_sled.shipped import shipped

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
    Tree.SubElement(root, "title").text = STRANGE.sub(" ", page.title)
    style = Tree.SubElement(root, "style")
    style.text = "".join(_font_face(face, file) for face, file in FACES.items())
    defs = Tree.SubElement(root, "defs")
    Tree.SubElement(root, "rect", {"width": "100%", "height": "100%", "fill": "#FFFFFF"})
    draw(page.shapes, _Svg(root, defs, page.height))
    return b'<?xml version="1.0" encoding="UTF-8"?>\n' + Tree.tostring(root)


def image_of(picture: Raster) -> Any:
    """Its pixels as an image of the imaging library, which loads when a page has one."""
    from PIL import Image

    return Image.frombytes("L" if picture.grey else "RGB", picture.size, picture.pixels)


def png_bytes(picture: Raster) -> bytes:
    """Its pixels as a PNG; the same pixels are written twice alike."""
    out = io.BytesIO()
    image_of(picture).save(out, "PNG", optimize=True)
    return out.getvalue()


def _font_face(face: str, file: str) -> str:
    data = base64.b64encode(shipped(f"fonts/{file}")).decode()
    return f"@font-face{{font-family:'sled-{face}';src:url(data:font/ttf;base64,{data})}}"


def _colour(name: str, tint: float = 1.0) -> str:
    if not name:
        return "none"
    return LIGHT[name] if tint >= 1 else mixed(LIGHT[name], "#FFFFFF", tint)


class _Svg:
    """A page's shapes as elements; y goes down here."""

    per_point, hatch_pitch = 1.0, 5.0

    def __init__(self, root: Tree.Element, defs: Tree.Element, height: float) -> None:
        self.root, self.defs, self.height = root, defs, height
        self.clips = 0

    def _points(self, points: tuple[Point, ...]) -> str:
        return " ".join(f"{x:.2f},{self.height - y:.2f}" for x, y in points)

    def _look(self, look: Look) -> dict[str, str]:
        made = {"fill": _colour(look.fill, look.tint), "stroke": _colour(look.stroke), "stroke-width": f"{look.width:g}"}
        if look.dash:
            made["stroke-dasharray"] = " ".join(f"{d:g}" for d in look.dash)
        if look.id:
            made["data-part"] = look.id
        return made

    def _inside(self, outline: tuple[Point, ...]) -> Tree.Element:
        """A group that shows only within an outline."""
        self.clips += 1
        clip = Tree.SubElement(self.defs, "clipPath", {"id": f"c{self.clips}"})
        Tree.SubElement(clip, "polygon", {"points": self._points(outline)})
        return Tree.SubElement(self.root, "g", {"clip-path": f"url(#c{self.clips})"})

    def area(self, points: tuple[Point, ...], closed: bool, look: Look) -> None:
        kind = "polygon" if closed else "polyline"
        Tree.SubElement(self.root, kind, {"points": self._points(points), **self._look(look)})

    def circle(self, centre: Point, radius: float, look: Look) -> None:
        at = {"cx": f"{centre[0]:.2f}", "cy": f"{self.height - centre[1]:.2f}", "r": f"{radius:.2f}"}
        Tree.SubElement(self.root, "circle", {**at, **self._look(look)})

    def hatch(self, outline: tuple[Point, ...], strokes: list[tuple[Point, Point]], ink: str) -> None:
        inside = self._inside(outline)
        way = " ".join(f"M{a[0]:.1f} {self.height - a[1]:.1f}L{b[0]:.1f} {self.height - b[1]:.1f}" for a, b in strokes)
        Tree.SubElement(inside, "path", {"d": way, "stroke": _colour(ink), "stroke-width": "0.35", "fill": "none"})

    def band(self, outline: tuple[Point, ...], thick: float) -> None:
        look = {"fill": "none", "stroke": _colour("wood"), "stroke-width": f"{2 * thick:.2f}"}
        Tree.SubElement(self._inside(outline), "polygon", {"points": self._points(outline), **look})

    def ground(self, left: float, low: float, wide: float, high: float, _ink: str) -> None:
        top = self.height - low - high
        spot = {"x": f"{left:.2f}", "y": f"{top:.2f}", "width": f"{wide:.2f}", "height": f"{high:.2f}"}
        Tree.SubElement(self.root, "rect", {**spot, "fill": "#FFFFFF"})

    def raster(self, picture: Raster) -> None:
        x, top = picture.at[0], self.height - picture.at[1] - picture.high
        spot = {"x": f"{x:.2f}", "y": f"{top:.2f}", "width": f"{picture.wide:.2f}", "height": f"{picture.high:.2f}"}
        data = base64.b64encode(png_bytes(picture)).decode()
        Tree.SubElement(self.root, "image", {**spot, "href": f"data:image/png;base64,{data}"})

    def words(self, left: float, baseline: float, text: Text) -> None:
        look = {
            "x": f"{left:.2f}",
            "y": f"{self.height - baseline:.2f}",
            "font-family": f"sled-{text.face}",
            "font-size": f"{text.size:g}",
            "fill": _colour(text.ink),
        }
        Tree.SubElement(self.root, "text", look).text = STRANGE.sub(" ", text.text)
