"""A page as PDF by ReportLab, with the shipped fonts embedded."""

from __future__ import annotations

import io
from typing import Any

from uncle_sled.core.drawing.backend import Look, draw
from uncle_sled.core.drawing.inks import LIGHT, mixed
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.primitives import Point, Raster, Text
from uncle_sled.exchange.svg import FACES, image_of
from uncle_sled.shipped import shipped


def pdf_bytes(*pages: Page, title: str = "", author: str = "", day: str = "") -> bytes:
    """The pages as a PDF document at their true size, a bookmark a page.

    Args: title, author: of the document; day: year-month-day that it says it was made on, so that the same is written twice alike.
    Raises: ValueError: without a page.
    """
    if not pages:
        raise ValueError("a document needs a page")
    from reportlab.pdfbase import pdfmetrics  # half a second to load, and only a print needs it
    from reportlab.pdfbase.ttfonts import TTFont
    from reportlab.pdfgen.canvas import Canvas

    for face, file in FACES.items():
        if f"sled-{face}" not in pdfmetrics.getRegisteredFontNames():
            pdfmetrics.registerFont(TTFont(f"sled-{face}", io.BytesIO(shipped(f"fonts/{file}"))))
    out = io.BytesIO()
    canvas = Canvas(out, invariant=True)
    canvas.setTitle(title or pages[0].title)
    canvas.setCreator("Uncle Sled")
    if author:
        canvas.setAuthor(author)
    if day[:4].isdigit():
        canvas.setDateFormatter(lambda *_: f"D:{day.replace('-', '')}000000Z")
    for number, page in enumerate(pages):
        canvas.setPageSize((page.width, page.height))
        canvas.bookmarkPage(str(number))
        canvas.addOutlineEntry(page.title, str(number))
        draw(page.shapes, _Pdf(canvas))
        canvas.showPage()
    if len(pages) > 1:
        canvas.showOutline()
    canvas.save()
    return out.getvalue()


def _ink(name: str, tint: float = 1.0) -> str:
    return LIGHT[name] if tint >= 1 else mixed(LIGHT[name], "#FFFFFF", tint)


class _Pdf:
    """Shapes on a canvas of ReportLab."""

    per_point, hatch_pitch = 1.0, 5.0

    def __init__(self, canvas: Any) -> None:
        self.canvas = canvas

    def _take(self, look: Look) -> dict[str, int]:
        """Set line and fill; what is drawn of them."""
        self.canvas.setLineWidth(look.width)
        self.canvas.setDash(list(look.dash))
        if look.fill:
            self.canvas.setFillColor(_ink(look.fill, look.tint))
        if look.stroke:
            self.canvas.setStrokeColor(_ink(look.stroke))
        return {"stroke": int(bool(look.stroke)), "fill": int(bool(look.fill))}

    def area(self, points: tuple[Point, ...], closed: bool, look: Look) -> None:
        self.canvas.saveState()
        self.canvas.drawPath(self._path(points, closed), **self._take(look))
        self.canvas.restoreState()

    def circle(self, centre: Point, radius: float, look: Look) -> None:
        self.canvas.saveState()
        self.canvas.circle(*centre, radius, **self._take(look))
        self.canvas.restoreState()

    def hatch(self, outline: tuple[Point, ...], strokes: list[tuple[Point, Point]], ink: str) -> None:
        self._clipped(outline, Look(ink, 0.35))
        for (x0, y0), (x1, y1) in strokes:
            self.canvas.line(x0, y0, x1, y1)
        self.canvas.restoreState()

    def band(self, outline: tuple[Point, ...], thick: float) -> None:
        self._clipped(outline, Look("wood", 2 * thick))
        self.canvas.drawPath(self._path(outline, closed=True), stroke=1, fill=0)
        self.canvas.restoreState()

    def _clipped(self, outline: tuple[Point, ...], look: Look) -> None:
        self.canvas.saveState()
        self._take(look)
        self.canvas.clipPath(self._path(outline, closed=True), stroke=0, fill=0)

    def ground(self, left: float, low: float, wide: float, high: float, _ink: str) -> None:
        self.canvas.setFillColor("#FFFFFF")
        self.canvas.rect(left, low, wide, high, stroke=0, fill=1)

    def raster(self, picture: Raster) -> None:
        from reportlab.lib.utils import ImageReader

        self.canvas.drawImage(ImageReader(image_of(picture)), *picture.at, picture.wide, picture.high)

    def words(self, left: float, baseline: float, text: Text) -> None:
        self.canvas.setFillColor(_ink(text.ink))
        self.canvas.setFont(f"sled-{text.face}", text.size)
        self.canvas.drawString(left, baseline, text.text)

    def _path(self, points: tuple[Point, ...], closed: bool) -> Any:
        path = self.canvas.beginPath()
        path.moveTo(*points[0])
        for point in points[1:]:
            path.lineTo(*point)
        if closed:
            path.close()
        return path
