"""A label that gives up the middle of its words."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QFontMetrics, QResizeEvent
from PySide6.QtWidgets import QLabel, QSizePolicy

from uncle_sled.desk.kit.guarded import Guarded


class ElidedLabel(Guarded, QLabel):
    """A label that gives up the middle of its words, with all of them in its tip."""

    def __init__(self, face: str = "", ink: str = "") -> None:
        super().__init__()
        self.setProperty("face", face)
        self.setProperty("ink", ink)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.full = ""
        self.setMinimumWidth(20)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)

    def show_text(self, text: str) -> None:
        self.full = text
        self._fit()

    def resizeEvent(self, _event: QResizeEvent) -> None:
        self._fit()

    def sizeHint(self) -> QSize:
        size = super().sizeHint()
        size.setWidth(QFontMetrics(self.font()).horizontalAdvance(self.full) + 4)
        return size

    def _fit(self) -> None:
        short = QFontMetrics(self.font()).elidedText(self.full, Qt.TextElideMode.ElideMiddle, max(self.width() - 2, 10))
        if short != self.text():
            self.setText(short)
        self.setToolTip(self.full if short != self.full else "")
