"""A page as PDF by ReportLab, with the shipped fonts embedded."""

from __future__ import annotations

import io
from importlib import resources
from typing import Any

from uncle_sled.core.drawing.inks import LIGHT, mixed
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.primitives import Circle, Poly, Text, hatch_lines
from uncle_sled.exchange.svg import FACES


def pdf_bytes(*pages: Page) -> bytes:
    """The pages as a PDF document at their true size. Raises: ValueError: without a page."""
    if not pages:
        raise ValueError("a document needs a page")
    from reportlab.pdfbase import pdfmetrics  # half a second to load, and only a print needs it
    from reportlab.pdfbase.ttfonts import TTFont
    from reportlab.pdfgen.canvas import Canvas

    for face, file in FACES.items():
        if f"sled-{face}" not in pdfmetrics.getRegisteredFontNames():
            pdfmetrics.registerFont(
                TTFont(f"sled-{face}", io.BytesIO(resources.files("uncle_sled.fonts").joinpath(file).read_bytes()))
            )
    out = io.BytesIO()
    canvas = Canvas(out, invariant=True)
    canvas.setTitle(pages[0].title)
    for page in pages:
        canvas.setPageSize((page.width, page.height))
        for shape in page.shapes:
            _write(canvas, shape)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _ink(name: str, tint: float = 1.0) -> str:
    return LIGHT[name] if tint >= 1 else mixed(LIGHT[name], "#FFFFFF", tint)


def _write(canvas: Any, shape: Poly | Circle | Text) -> None:
    if isinstance(shape, Text):
        x, y = shape.at[0], shape.at[1] - shape.size * 0.34
        if shape.ground:
            left = x - shape.width * {"left": 0, "middle": 0.5, "right": 1}[shape.anchor]
            canvas.setFillColor("#FFFFFF")
            canvas.rect(left - 3, y - 2, shape.width + 6, shape.size * 1.2, stroke=0, fill=1)
        canvas.setFillColor(_ink(shape.ink))
        canvas.setFont(f"sled-{shape.face}", shape.size)
        {"left": canvas.drawString, "middle": canvas.drawCentredString, "right": canvas.drawRightString}[shape.anchor](
            x, y, shape.text
        )
        return
    canvas.saveState()
    canvas.setLineWidth(shape.width)
    canvas.setDash(*([list(shape.dash)] if shape.dash else [[]]))
    if shape.fill:
        canvas.setFillColor(_ink(shape.fill, getattr(shape, "tint", 1.0)))
    if shape.stroke:
        canvas.setStrokeColor(_ink(shape.stroke))
    stroke, fill = int(bool(shape.stroke)), int(bool(shape.fill))
    if isinstance(shape, Circle):
        canvas.circle(*shape.centre, shape.radius, stroke=stroke, fill=fill)
        canvas.restoreState()
        return
    canvas.drawPath(_path(canvas, shape), stroke=stroke, fill=fill)
    if shape.hatch or shape.band:
        canvas.saveState()
        canvas.clipPath(_path(canvas, shape), stroke=0, fill=0)
        if shape.band:
            canvas.setLineWidth(2 * shape.band)
            canvas.setStrokeColor(_ink("wood"))
            canvas.drawPath(_path(canvas, shape), stroke=1, fill=0)
        else:
            canvas.setLineWidth(0.35)
            xs, ys = [p[0] for p in shape.points], [p[1] for p in shape.points]
            for (x0, y0), (x1, y1) in hatch_lines(shape.hatch, min(xs), min(ys), max(xs), max(ys), 5.0):
                canvas.line(x0, y0, x1, y1)
        canvas.restoreState()
        if shape.band and stroke:
            canvas.drawPath(_path(canvas, shape), stroke=1, fill=0)
    canvas.restoreState()


def _path(canvas: Any, shape: Poly) -> Any:
    path = canvas.beginPath()
    path.moveTo(*shape.points[0])
    for point in shape.points[1:]:
        path.lineTo(*point)
    if shape.closed:
        path.close()
    return path
