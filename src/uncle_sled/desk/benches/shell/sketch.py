"""A picture laid under the profile: a file beside the build, read, drawn or straightened for the sheet."""

from __future__ import annotations

import base64
import math
from pathlib import Path
from typing import Any

import numpy as np
from PySide6.QtCore import QPointF, QRect, Qt
from PySide6.QtGui import QImage, QPainter, QPen, QPolygonF, QTransform

from uncle_sled.core.document.file_beside import MOST_BYTES, sketch_fault
from uncle_sled.core.document.shell import Shell, Sketch
from uncle_sled.core.errors import FileError
from uncle_sled.desk.kit.painting import canvas

SKETCH_PX, MOST_PX, LEAST_PX = 1600, 6000, 8
AROUND = (0.6, 0.2, 0.0)  # how much of the picture round the rectangle is straightened with it, the most that has room


def sketch_record(path: str, shell: Shell, image: QImage, m_per_px: float | None) -> dict[str, Any]:
    """What a build keeps of it, as wide as the body for a start where its scale is not known."""
    return {
        "file": path,
        "x": {"si": shell.front.si if shell.front else 1.2},
        "z": {"si": shell.floor.si if shell.floor else 0.5},
        "m_per_px": m_per_px if m_per_px is not None else (shell.length.si if shell.length else 3.0) / image.width(),
    }


def picture_of(path: Path) -> tuple[QImage, float | None]:
    """A file as a picture, and metres a pixel where the file says it. Raises: FileError: it cannot be read."""
    ending = path.suffix.lower()
    if ending == ".dxf":
        return _of_lines(path)
    image = _of_svg(path) if ending == ".svg" else QImage(str(path))
    if image.isNull() or min(image.width(), image.height()) < LEAST_PX:
        raise FileError(f"{path.name} is not a picture that can be read; a PNG, JPEG, SVG or DXF would be right.")
    if max(image.width(), image.height()) > SKETCH_PX:
        image = image.scaled(SKETCH_PX, SKETCH_PX, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation)
    return image, None


def _of_svg(path: Path) -> QImage:
    from PySide6.QtSvg import QSvgRenderer  # not on the first screen

    drawn = QSvgRenderer(str(path))
    size = drawn.defaultSize()
    if not drawn.isValid() or min(size.width(), size.height()) <= 0:
        return QImage()
    scale = SKETCH_PX / max(size.width(), size.height())
    image = QImage(max(round(size.width() * scale), 1), max(round(size.height() * scale), 1), QImage.Format.Format_ARGB32)
    image.fill(Qt.GlobalColor.white)
    with canvas(image) as painter:
        drawn.render(painter)
    return image


def _of_lines(path: Path) -> tuple[QImage, float]:
    """The lines of a DXF, its scale by the units it says."""
    from uncle_sled.exchange.dxf_outlines import lines_in  # the library of drawings is large

    lines, unit = lines_in(path)
    every = np.concatenate([np.array(points) for points in lines])
    (left, low), (right, high) = every.min(axis=0), every.max(axis=0)
    wide, tall = max(right - left, 1e-9), max(high - low, 1e-9)
    scale = (SKETCH_PX - 8) / max(wide, tall)
    image = QImage(math.ceil(wide * scale) + 8, math.ceil(tall * scale) + 8, QImage.Format.Format_ARGB32)
    image.fill(Qt.GlobalColor.white)
    with canvas(image) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(Qt.GlobalColor.black, 2.0))
        for points in lines:
            painter.drawPolyline([QPointF(4 + (x - left) * scale, image.height() - 4 - (y - low) * scale) for x, y in points])
    return image, float(unit / scale)


def read_sketch(sketch: Sketch, build: Path | None) -> tuple[QImage, str]:
    """The picture as it lies in the build's folder (or, of older files, in the build), and why there is none."""
    if sketch.picture:
        image = QImage()
        try:
            image.loadFromData(base64.b64decode(sketch.picture))
        except ValueError:
            return QImage(), "The picture in this file cannot be read."
        return image, "" if not image.isNull() else "The picture in this file cannot be read."
    fault = sketch_fault(sketch.file)
    if fault is not None or build is None:
        return QImage(), fault or "Save the build first: pictures lie beside its file."
    at = build.parent / sketch.file
    try:
        if not at.is_file():
            return QImage(), f"{sketch.file} is not there."
        if at.stat().st_size > MOST_BYTES:
            return QImage(), f"{sketch.file} is over 20 MB; a smaller one would be right."
        return picture_of(at)[0], ""
    except (FileError, OSError) as wrong:
        return QImage(), str(wrong)


def straightened(image: QImage, sketch: Sketch) -> tuple[QImage, float | None]:
    """The picture seen square on, so that its four corners are a rectangle, and metres a pixel; as it is where nobody marked four."""
    if len(sketch.corners) != 8 or sketch.true_wide is None or sketch.true_high is None:
        return image, None
    points = [QPointF(sketch.corners[k] * image.width(), sketch.corners[k + 1] * image.height()) for k in range(0, 8, 2)]
    wide, high = sketch.true_wide.si, sketch.true_high.si
    scale = max(_apart(points[0], points[1]) / wide, _apart(points[0], points[3]) / high)
    to = [QPointF(0, 0), QPointF(wide * scale, 0), QPointF(wide * scale, high * scale), QPointF(0, high * scale)]
    turn = QTransform.quadToQuad(QPolygonF(points), QPolygonF(to))
    if not isinstance(turn, QTransform):
        return image, None
    box = QPolygonF(points).boundingRect()
    for more in AROUND:  # far from the rectangle a picture taken aslant runs to the horizon
        part = box.adjusted(-more * box.width(), -more * box.height(), more * box.width(), more * box.height())
        cut = part.toAlignedRect().intersected(QRect(0, 0, image.width(), image.height()))
        here = QTransform.fromTranslate(cut.x(), cut.y()) * turn
        size = here.mapRect(QRect(0, 0, cut.width(), cut.height()))
        if 0 < size.width() <= MOST_PX and 0 < size.height() <= MOST_PX:
            made = image.copy(cut).transformed(here, Qt.TransformationMode.SmoothTransformation)
            return made, 1.0 / scale
    return image, None


def corners_fault(shares: tuple[float, ...]) -> str:
    """Why four points are no rectangle seen aslant: two on one spot, or not going round; nothing where they are."""
    points = [(shares[k], shares[k + 1]) for k in range(0, 8, 2)]
    turns = []
    for k in range(4):
        (ax, ay), (bx, by), (cx, cy) = points[k], points[(k + 1) % 4], points[(k + 2) % 4]
        turns.append((bx - ax) * (cy - by) - (by - ay) * (cx - bx))
    if min(turns) <= 1e-5:
        return "Set the four corners one after another clockwise, from the upper left on; those do not go round."
    return ""


def _apart(a: QPointF, b: QPointF) -> float:
    return max(math.hypot(a.x() - b.x(), a.y() - b.y()), 1e-6)
