"""Cards side by side in as many columns as have room, scrolling by themselves."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

COLUMN_PX = 252


class Columns(QScrollArea):
    def __init__(self, cards: list[QWidget]) -> None:
        super().__init__()
        self.cards = cards
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.inside = QWidget()
        self.row = QHBoxLayout(self.inside)
        self.row.setContentsMargins(0, 0, 6, 0)
        self.row.setSpacing(8)
        self.setWidget(self.inside)
        self.many = 0
        self._lay(3)

    def _lay(self, many: int) -> None:
        if many == self.many:
            return
        self.many = many
        for card in self.cards:
            card.setParent(self.inside)
        while self.row.count():
            gone = self.row.takeAt(0)
            if gone is not None and gone.layout() is not None:
                gone.layout().deleteLater()
        rows = [QVBoxLayout() for _ in range(many)]
        heights = [0] * many
        for card in self.cards:
            at = heights.index(min(heights))
            rows[at].addWidget(card)
            heights[at] += card.sizeHint().height() + 8
            card.show()
        for column in rows:
            column.setSpacing(8)
            column.addStretch(1)
            self.row.addLayout(column, 1)
        self.settle()

    def settle(self) -> None:
        """Lay the cards again after one of them changed its height."""
        for at in range(self.row.count()):
            column = self.row.itemAt(at).layout()
            if column is not None:
                column.invalidate()
        self.row.invalidate()
        self.row.activate()
        self.row.setGeometry(self.inside.rect())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._lay(max(1, min(len(self.cards), self.viewport().width() // COLUMN_PX)))
