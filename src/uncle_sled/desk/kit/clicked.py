"""A chart whose shapes can be clicked by their id."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QMouseEvent

from uncle_sled.core.drawing.pick import id_at
from uncle_sled.desk.kit.chart import Chart


class Clicked(Chart):
    """``picked`` carries the id of what was clicked, or nothing where nothing is."""

    picked = Signal(str)

    def id_at(self, x: float, up: float) -> str:
        """What is drawn there, the topmost first."""
        return id_at(self.make(float(self.width()), float(self.height())), (x, up))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.picked.emit(self.id_at(event.position().x(), self.height() - event.position().y()))
