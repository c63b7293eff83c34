"""The photo of a log's entry, as large as it fits; read once, and small in memory."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QImage, QImageReader, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import canvas, lay_paper, said_if_it_fails

MOST_PX = 1200


class PhotoView(Guarded, QWidget):
    """``path()`` gives the file, or nothing."""

    def __init__(self, path: Callable[[], Path | None]) -> None:
        super().__init__()
        self.path = path
        self.image = QImage()
        self._of: tuple[Path, float] | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(120)
        self.setAccessibleName("The photo of this entry")

    def sizeHint(self) -> QSize:
        return QSize(260, 180)

    def renew(self) -> None:
        """Another entry is chosen, or its file is another one."""
        path = self.path()
        try:
            of = (path, path.stat().st_mtime) if path is not None else None
        except OSError:
            of = None
        if of != self._of:
            self._of = of
            self.image = _read(of[0]) if of is not None else QImage()
        self.setVisible(not self.image.isNull())
        self.update()

    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            lay_paper(painter, self)
            if self.image.isNull():
                return
            size = self.image.size().scaled(self.width() - 8, self.height() - 8, Qt.AspectRatioMode.KeepAspectRatio)
            painter.setRenderHint(painter.RenderHint.SmoothPixmapTransform)
            x, y = (self.width() - size.width()) / 2, (self.height() - size.height()) / 2
            painter.drawImage(QRectF(x, y, size.width(), size.height()), self.image)


def _read(path: Path) -> QImage:
    """No larger than it is ever shown; nothing of what cannot be read."""
    reader = QImageReader(str(path))
    reader.setAutoTransform(True)  # as the camera was held
    size = reader.size()
    if size.isValid() and max(size.width(), size.height()) > MOST_PX:
        reader.setScaledSize(size.scaled(MOST_PX, MOST_PX, Qt.AspectRatioMode.KeepAspectRatio))
    return reader.read()
