"""The QPainter that draws core primitives, and text that remembers where it was put."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from functools import lru_cache, wraps
from traceback import clear_frames, format_exc, print_exc
from typing import Any

import msgspec
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import (
    QBrush,
    QColor,
    QFontMetricsF,
    QImage,
    QPaintDevice,
    QPainter,
    QPainterPath,
    QPen,
    QPolygonF,
    QStaticText,
    QTransform,
)
from PySide6.QtWidgets import QWidget

from uncle_sled.core.drawing.backend import Look, draw
from uncle_sled.core.drawing.primitives import Point, Primitive, Raster, Text
from uncle_sled.core.drawing.text_width import text_width, wrapped
from uncle_sled.desk.theme.theme import colour, font, theme_name

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


def write(  # noqa: PLR0913  a text has so many sides, and three dozen places say them
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


@contextmanager
def canvas(target: QPaintDevice) -> Iterator[QPainter]:
    """A painter of a widget, picture or printer that ends whatever happens: one that outlives what it paints on takes the program down."""
    painter = QPainter(target)
    try:
        yield painter
    finally:
        if painter.isActive():
            painter.end()


STRICT = False  # tests want the fault itself


def said_if_it_fails(paint_event: Callable[[Any, Any], None]) -> Callable[[Any, Any], None]:
    """A paint event whose fault is written on its widget: an exception that leaves one would take the program down."""

    @wraps(paint_event)
    def run(widget: Any, event: Any) -> None:
        try:
            paint_event(widget, event)
            return
        except Exception as fault:
            if STRICT:
                said = format_exc()
                clear_frames(fault.__traceback__)  # or its painter would outlive what it paints on
                raise AssertionError(said) from None
            says = f"This could not be drawn ({type(fault).__name__}: {fault}). Undo what changed last; nothing is lost."
            print_exc(file=sys.stderr)
        # the painter of the failed drawing ended with its frame
        with canvas(widget) as painter:
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
    draw(shapes, _Painted(painter, frame, kept, ground, stroke))


class _Painted:
    """A painter as the medium of a drawing: metres fall on pixels by the frame."""

    hatch_pitch = HATCH_PX

    def __init__(self, painter: QPainter, frame: Frame, kept: list[Written] | None, ground: str, stroke: str | None) -> None:
        self.painter, self.frame, self.kept, self.paper, self.ghost = painter, frame, kept, ground, stroke
        self.per_point = 1 / frame.scale
        self.theme = theme_name()

    def _points(self, points: tuple[Point, ...]) -> QPolygonF:
        scale, x0, y0 = self.frame.scale, self.frame.x0, self.frame.y0
        return QPolygonF([QPointF(x0 + x * scale, y0 - y * scale) for x, y in points])

    def _take(self, look: Look) -> None:
        self.painter.setPen(_pen_of(look.stroke, look.width, look.dash, self.ghost, self.theme))
        if look.fill and self.ghost is None:
            self.painter.setBrush(_brush_of(look.fill, look.tint, "body" if look.tint < 1 else self.paper, self.theme))
        else:
            self.painter.setBrush(Qt.BrushStyle.NoBrush)

    def area(self, points: tuple[Point, ...], closed: bool, look: Look) -> None:
        if self.ghost is not None and not look.stroke and look.fill:
            return  # an inside; its outline comes by itself
        self._take(look)
        if closed:
            self.painter.drawPolygon(self._points(points))
        else:
            self.painter.drawPolyline(self._points(points))

    def circle(self, centre: Point, radius: float, look: Look) -> None:
        self._take(look)
        r = radius * self.frame.scale
        self.painter.drawEllipse(self.frame.point(centre), r, r)

    def hatch(self, outline: tuple[Point, ...], strokes: list[tuple[Point, Point]], ink: str) -> None:
        if self.ghost is None:
            point = self.frame.point
            self._clip(outline)
            self.painter.setPen(QPen(_faint(colour(ink)), 0.8))
            self.painter.drawLines([QLineF(point(a), point(b)) for a, b in strokes])
            self.painter.restore()

    def band(self, outline: tuple[Point, ...], thick: float) -> None:
        """A wall inside an outline: a stroke twice as wide, clipped to the outline."""
        if self.ghost is None:
            path = self._clip(outline)
            pen = QPen(colour("wood"), 2 * thick * self.frame.scale)
            pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
            self.painter.strokePath(path, pen)
            self.painter.restore()

    def _clip(self, outline: tuple[Point, ...]) -> QPainterPath:
        path = QPainterPath()
        path.addPolygon(self._points(outline))
        path.closeSubpath()
        self.painter.save()
        self.painter.setClipPath(path, Qt.ClipOperation.IntersectClip)
        return path

    def ground(self, left: float, low: float, wide: float, high: float, ink: str) -> None:
        corner, scale = self.frame.point((left, low + high)), self.frame.scale
        self.painter.fillRect(QRectF(corner.x(), corner.y(), wide * scale, high * scale), _veil(ink))

    def raster(self, picture: Raster) -> None:
        kind = QImage.Format.Format_Grayscale8 if picture.grey else QImage.Format.Format_RGB888
        wide, high = picture.size
        image = QImage(picture.pixels, wide, high, wide * (1 if picture.grey else 3), kind)
        corner, scale = self.frame.point((picture.at[0], picture.at[1] + picture.high)), self.frame.scale
        self.painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        self.painter.drawImage(QRectF(corner.x(), corner.y(), picture.wide * scale, picture.high * scale), image)

    def words(self, _left: float, _baseline: float, text: Text) -> None:
        where = self.frame.point(text.at)
        write(self.painter, where, text.text, text.size, self.ghost or text.ink, text.face, text.anchor, self.kept, self.paper)


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


@lru_cache(maxsize=512)
def _pen_of(ink: str, width: float, dash: tuple[float, ...], stroke: str | None, _theme: str) -> QPen:
    if not ink and not stroke:
        return QPen(Qt.PenStyle.NoPen)
    pen = QPen(colour(stroke or ink), max(width, 1.6 if stroke else 0))
    if dash or stroke:
        pen.setDashPattern([d / max(width, 0.5) for d in (dash or (5, 3))])
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    return pen


@lru_cache(maxsize=512)
def _brush_of(fill: str, tint: float, ground: str, _theme: str) -> QBrush:
    return QBrush(colour(fill, tint, ground))


def _faint(ink: QColor) -> QColor:
    made = QColor(ink)
    made.setAlphaF(0.38)
    return made


def _veil(ground: str) -> QColor:
    """Behind words: hatching fades, what lies under still shows a little."""
    made = QColor(colour(ground))
    made.setAlphaF(1.0 if ground == "paper" else 0.72)
    return made
