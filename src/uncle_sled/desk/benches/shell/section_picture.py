"""A face's layers cut through, to scale."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from uncle_sled.core.document.shell import Face
from uncle_sled.core.drawing.shell.shell_views import layer_section
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, Written, canvas, paint
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour


class SectionPicture(Guarded, QWidget):
    """A face's layers cut through, to scale."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.face: Face | None = None
        self.written: list[Written] = []
        self.setAccessibleName("Section through the layers")

    def sizeHint(self) -> QSize:
        return QSize(250, 120)

    def minimumSizeHint(self) -> QSize:
        return QSize(200, 110)

    def show_face(self, face: Face | None) -> None:
        self.face = face
        self.update()

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(colour("paper"))
            painter.drawRoundedRect(self.rect(), 5, 5)
            self.written = []
            if self.face is None or not self.face.layers:
                return
            library = library_of(self.session.facts.materials)
            thick = max(sum(layer.thickness.si for layer in self.face.layers), 0.003)
            scale = min(2400.0, (self.width() - 84) / thick)
            words = Words(self.session.shown)
            high = max(self.height() - 44.0, 40.0)
            shapes = layer_section(self.face, library, (14.0, 0.0), high, scale, words)
            paint(painter, shapes, Frame(1.0, 0.0, self.height() - 22.0), self.written)
