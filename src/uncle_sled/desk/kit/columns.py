"""Cards side by side in as many columns as have room, scrolling by themselves.

The cards are placed by hand: nested box layouts keep the heights that cards had before their words wrapped.
"""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, QTimer
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QScrollArea, QWidget

COLUMN_PX, GAP_PX, RIGHT_PX = 252, 8, 6


class Columns(QScrollArea):
    def __init__(self, cards: list[QWidget]) -> None:
        super().__init__()
        self.cards = cards
        self.setWidgetResizable(False)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.inside = QWidget()
        self.setWidget(self.inside)
        self.columns: list[list[QWidget]] = []
        self._wanted: list[int] = []
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(0)
        self._later.timeout.connect(self.settle)
        for card in cards:
            card.setParent(self.inside)
            card.installEventFilter(self)
            card.show()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """A card whose rows come or go, or whose words change, wants another height."""
        if event.type() == QEvent.Type.LayoutRequest:
            self._later.start()
        return super().eventFilter(watched, event)

    def settle(self) -> None:
        """Place every card at the height that it wants at its width, column by column."""
        wide = self.viewport().width()
        many = max(1, min(len(self.cards), wide // COLUMN_PX))
        each = (wide - RIGHT_PX - GAP_PX * (many - 1)) // many
        heights = [self._height(card, each) for card in self.cards]
        if len(self.columns) != many:
            self._share_out(many, heights)
        low = 0
        for at, column in enumerate(self.columns):
            y = 0
            for card in column:
                high = heights[self.cards.index(card)]
                card.setGeometry(at * (each + GAP_PX), y, each, high)
                y += high + GAP_PX
            low = max(low, y)
        self.inside.resize(wide, max(low, self.viewport().height()))

    def _share_out(self, many: int, heights: list[int]) -> None:
        """Each card goes to the shortest column; it stays there while their number stays."""
        self.columns, low = [[] for _ in range(many)], [0] * many
        for card, high in zip(self.cards, heights, strict=True):
            at = low.index(min(low))
            self.columns[at].append(card)
            low[at] += high + GAP_PX

    def _height(self, card: QWidget, wide: int) -> int:
        if hasattr(card, "fit_width"):
            card.fit_width(wide)
        layout = card.layout()
        if layout is None:
            return max(card.sizeHint().height(), 1)
        layout.invalidate()
        need = layout.heightForWidth(wide) if layout.hasHeightForWidth() else 0
        return max(need, layout.sizeHint().height(), layout.minimumSize().height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.settle()

    def showEvent(self, event: object) -> None:
        self.settle()
