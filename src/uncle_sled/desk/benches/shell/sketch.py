"""A picture laid under the profile, as the document keeps it."""

from __future__ import annotations

import base64
from pathlib import Path
from typing import Any

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, Qt
from PySide6.QtGui import QImage, QImageWriter

from uncle_sled.core.document.shell import Shell

SKETCH_PX = 1600


def sketch_record(path: Path, shell: Shell) -> dict[str, Any] | None:
    """The picture of a file, as wide as the body for a start; None where it is no picture that can be read."""
    image = QImage(str(path))
    if image.isNull():
        return None
    if max(image.width(), image.height()) > SKETCH_PX:
        image = image.scaled(SKETCH_PX, SKETCH_PX, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation)
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QImageWriter(buffer, QByteArray(b"jpeg"))
    writer.setQuality(80)
    writer.write(image.convertToFormat(QImage.Format.Format_RGB32))
    return {
        "picture": base64.b64encode(bytes(buffer.data().data())).decode(),
        "x": {"si": shell.front.si if shell.front else 1.2},
        "z": {"si": shell.floor.si if shell.floor else 0.5},
        "m_per_px": (shell.length.si if shell.length else 3.0) / image.width(),
    }
