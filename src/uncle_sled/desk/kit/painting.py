"""The QPainter that draws core primitives, and text that remembers where it was put."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterable
from functools import lru_cache, wraps
from traceback import print_exc
from typing import Any

import msgspec
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFontMetricsF,
    QPainter,
    QPainterPath,
    QPen,
    QPolygonF,
    QStaticText,
    QTransform,
)
from PySide6.QtWidgets import QWidget

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, hatch_lines
from uncle_sled.core.drawing.text_width import text_width, wrapped
from uncle_sled.desk.theme.theme import colour, font

HATCH_PX = 7.0


class Frame(msgspec.Struct, frozen=True):
    """Where a drawing's metres fall on a widget: pixels a metre, and the pixel of its origin."""

    scale: float
    x0: float
    y0: float

    def point(self, at: tuple[float, float]) -> QPointF:
        return QPointF(self.x0 + at[0] * self.scale, self.y0 - at[1] * self.scale)

    def metres(self, at: QPointF) -> tuple[float, float]:
        return (at.x() - self.x0) / self.scale, (self.y0 - at.y()) / self.scale


class Written(msgspec.Struct, frozen=True):
    """A text that was painted, for tests of clipping, overlap and contrast."""

    text: str
    rect: QRectF
    ink: str
    ground: str


_again: dict[tuple[str, float, str], None] = {}


@lru_cache(maxsize=1024)
def _laid(text: str, size: float, face: str) -> tuple[QStaticText, float]:
    """A text laid out once, and how far its baseline is under its top [px]."""
    made = QStaticText(text)
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setPerformanceHint(QStaticText.PerformanceHint.AggressiveCaching)
    made.prepare(QTransform(), font(size, face))
    return made, QFontMetricsF(font(size, face)).ascent()


def write(
    painter: QPainter,
    at: QPointF,
    text: str,
    size: float,
    ink: str,
    face: str = "text",
    anchor: str = "left",
    kept: list[Written] | None = None,
    ground: str = "paper",
) -> QRectF:
    """Paint a text with the middle of its height at a point; returns (and keeps) where it stands."""
    width = text_width(text, size, face)
    left = at.x() - width * {"left": 0.0, "middle": 0.5, "right": 1.0}[anchor]
    rect = QRectF(left, at.y() - size * 0.62, width, size * 1.24)
    painter.setFont(font(size, face))
    painter.setPen(colour(ink))
    key = (text, size, face)
    laid = _laid(*key) if key in _again else None
    if laid is None:  # most numbers are written once; what is written again is laid out and kept
        _again[key] = None
        while len(_again) > 2048:
            del _again[next(iter(_again))]
        painter.drawText(QPointF(left, at.y() + size * 0.35), text)
    else:
        painter.drawStaticText(QPointF(left, at.y() + size * 0.35 - laid[1]), laid[0])
    if kept is not None and text:
        kept.append(Written(text, rect, ink, ground))
    return rect


STRICT = False  # tests want the fault itself


def said_if_it_fails(paint_event: Callable[[Any, Any], None]) -> Callable[[Any, Any], None]:
    """A paint event whose fault is written on its widget: an exception that leaves one would take the program down."""

    @wraps(paint_event)
    def run(widget: Any, event: Any) -> None:
        if STRICT:
            paint_event(widget, event)
            return
        try:
            paint_event(widget, event)
            return
        except Exception as fault:
            says = (
                f"This could not be drawn ({type(fault).__name__}: {fault}). Undo what changed last; nothing is lost."
            )
            print_exc(file=sys.stderr)
        # the painter of the failed drawing ended with its frame
        painter = QPainter(widget)
        painter.fillRect(widget.rect(), colour("paper"))
        for at, row in enumerate(wrapped(says, 13, max(widget.width() - 28, 60))):
            write(painter, QPointF(14, 22 + 18 * at), row, 13, "primer")

    return run


def paint(
    painter: QPainter,
    shapes: Iterable[Primitive],
    frame: Frame,
    kept: list[Written] | None = None,
    ground: str = "paper",
    stroke: str | None = None,
) -> None:
    """Paint core primitives. Args: stroke: one ink for every outline (a ghost), fills left out."""
    for shape in shapes:
        if isinstance(shape, Text):
            where = frame.point(shape.at)
            if shape.ground:
                width = shape.width
                left = where.x() - width * {"left": 0.0, "middle": 0.5, "right": 1.0}[shape.anchor]
                painter.fillRect(
                    QRectF(left - 2, where.y() - shape.size * 0.6, width + 4, shape.size * 1.2), _veil(shape.ground)
                )
            write(painter, where, shape.text, shape.size, stroke or shape.ink, shape.face, shape.anchor, kept, ground)
        elif isinstance(shape, Circle):
            painter.setPen(_pen(shape, stroke))
            painter.setBrush(_brush(shape.fill, 1.0, ground) if not stroke else Qt.BrushStyle.NoBrush)
            painter.drawEllipse(frame.point(shape.centre), shape.radius * frame.scale, shape.radius * frame.scale)
        else:
            _paint_poly(painter, shape, frame, ground, stroke)


def lay_paper(painter: QPainter, widget: QWidget) -> None:
    """The ground of every drawing: paper with a ruled edge."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(colour("rule"), 1))
    painter.setBrush(colour("paper"))
    painter.drawRoundedRect(QRectF(0.5, 0.5, widget.width() - 1, widget.height() - 1), 5, 5)


def focus_ring(painter: QPainter, widget: QWidget) -> None:
    """The edge of a drawing that has the keys."""
    if widget.hasFocus():
        painter.setPen(QPen(colour("chalk"), 2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(QRectF(1, 1, widget.width() - 2, widget.height() - 2), 5, 5)


def _pen(shape: Poly | Circle, stroke: str | None) -> QPen:
    if not shape.stroke and not stroke:
        return QPen(Qt.PenStyle.NoPen)
    pen = QPen(colour(stroke or shape.stroke), max(shape.width, 1.6 if stroke else 0))
    if shape.dash or stroke:
        pen.setDashPattern([d / max(shape.width, 0.5) for d in (shape.dash or (5, 3))])
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    return pen


def _brush(fill: str, tint: float, ground: str) -> QBrush | Qt.BrushStyle:
    return QBrush(colour(fill, tint, ground)) if fill else Qt.BrushStyle.NoBrush


def _paint_poly(painter: QPainter, shape: Poly, frame: Frame, ground: str, stroke: str | None) -> None:
    points = QPolygonF([frame.point(p) for p in shape.points])
    if not shape.closed:
        painter.setPen(_pen(shape, stroke))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawPolyline(points)
        return
    if stroke is None and not (shape.band or shape.hatch):
        painter.setPen(_pen(shape, None))
        painter.setBrush(_brush(shape.fill, shape.tint, "body" if shape.tint < 1 else ground))
        painter.drawPolygon(points)
        return
    if stroke is None and shape.fill:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(_brush(shape.fill, shape.tint, "body" if shape.tint < 1 else ground))
        painter.drawPolygon(points)
    if stroke is None and (shape.band or shape.hatch):
        painter.save()
        path = QPainterPath()
        path.addPolygon(points)
        path.closeSubpath()
        painter.setClipPath(path, Qt.ClipOperation.IntersectClip)
        if shape.band:
            _band(painter, path, shape.band * frame.scale)
        else:
            painter.setPen(QPen(_faint(colour(shape.stroke)), 0.8))
            painter.drawLines(_strokes(shape, points.boundingRect()))
        painter.restore()
    painter.setPen(_pen(shape, stroke))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawPolygon(points)


def _band(painter: QPainter, path: QPainterPath, thick: float) -> None:
    """A wall inside an outline: a stroke twice as wide, clipped to the outline, with wood grain over it."""
    pen = QPen(colour("wood"), 2 * thick)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    painter.strokePath(path, pen)


def _faint(ink: QColor) -> QColor:
    made = QColor(ink)
    made.setAlphaF(0.38)
    return made


def _veil(ground: str) -> QColor:
    """Behind words: hatching fades, what lies under still shows a little."""
    made = QColor(colour(ground))
    made.setAlphaF(1.0 if ground == "paper" else 0.72)
    return made


def _strokes(shape: Poly, box: QRectF) -> list[QLineF]:
    return [
        QLineF(x0, y0, x1, y1)
        for (x0, y0), (x1, y1) in hatch_lines(shape.hatch, box.left(), box.top(), box.right(), box.bottom(), HATCH_PX)
    ]
