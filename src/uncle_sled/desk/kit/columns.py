"""Cards side by side in as many columns as have room, scrolling by themselves.

The cards are placed by hand: nested box layouts keep the heights that cards had before their words wrapped.
"""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, QTimer
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QScrollArea, QWidget

from uncle_sled.desk.kit.guarded import Guarded

COLUMN_PX, GAP_PX, RIGHT_PX = 252, 8, 6


class Columns(Guarded, QScrollArea):
    def __init__(self, cards: list[QWidget]) -> None:
        super().__init__()
        self.cards = cards
        self.setWidgetResizable(False)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.inside = QWidget()
        self.setWidget(self.inside)
        self.columns: list[list[QWidget]] = []
        self._shared = False
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

    def settle_soon(self) -> None:
        """Place the cards, and once more when whatever changes them now is done."""
        if self.isVisible():
            self.settle()
        self._later.start()

    def settle(self) -> None:
        """Place every card at the height that it wants at its width, column by column."""
        wide = self.viewport().width()
        shown = [card for card in self.cards if not card.isHidden()]  # what does not apply takes no room
        many = max(1, min(len(shown), wide // COLUMN_PX))
        each = (wide - RIGHT_PX - GAP_PX * (many - 1)) // many
        heights = [self._height(card, each) for card in shown]
        if len(self.columns) != many or not self._shared or shown != [card for column in self.columns for card in column]:
            self._share_out(shown, many, heights)
            self._shared = self.isVisible()  # before it is seen cards have no heights yet
        low = 0
        for at, column in enumerate(self.columns):
            y = 0
            for card in column:
                high = heights[shown.index(card)]
                card.setGeometry(at * (each + GAP_PX), y, each, high)
                y += high + GAP_PX
            low = max(low, y)
        self.inside.resize(wide, max(low, self.viewport().height()))

    def _share_out(self, shown: list[QWidget], many: int, heights: list[int]) -> None:
        """Cards keep their order: down the first column, then down the next, cut where the tallest is lowest."""
        ends, at = split(heights, many), 0
        self.columns = []
        for end in ends:
            self.columns.append(shown[at:end])
            at = end

    def _height(self, card: QWidget, wide: int) -> int:
        if hasattr(card, "fit_width"):
            card.fit_width(wide)
        layout = card.layout()
        if layout is None:  # words by themselves
            return max(card.heightForWidth(wide) if card.hasHeightForWidth() else card.sizeHint().height(), 1)
        layout.invalidate()
        edge = card.contentsMargins()  # the line round a card is no room for words
        need = layout.heightForWidth(wide - edge.left() - edge.right()) if layout.hasHeightForWidth() else 0
        return max(need, layout.sizeHint().height(), layout.minimumSize().height()) + edge.top() + edge.bottom()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.settle()

    def showEvent(self, _event: object) -> None:
        self.settle()


def split(heights: list[int], many: int) -> tuple[int, ...]:
    """Where a row of cards is cut into so many columns that the tallest is as low as can be: the end of each.

    Source: the linear partition problem, by the least tallest of the first cards for every number of columns.
    """
    many = max(min(many, len(heights)), 1)
    sums = [0]
    for high in heights:
        sums.append(sums[-1] + high + GAP_PX)
    best: list[tuple[int, tuple[int, ...]]] = [(total, (end,)) for end, total in enumerate(sums)]
    for column in range(1, many):  # every column has a card
        best = [
            min((max(best[cut][0], sums[end] - sums[cut]), (*best[cut][1], end)) for cut in range(min(column, end), end + 1))
            for end in range(len(sums))
        ]
    return best[-1][1]
