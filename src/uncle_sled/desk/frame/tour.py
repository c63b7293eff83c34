"""A first walk over one's own build: six cards, each beside what it tells of; it can be left at any time and never comes back unasked."""

from __future__ import annotations

from collections.abc import Callable

import msgspec
from PySide6.QtCore import QEvent, QObject, QPoint, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import canvas, said_if_it_fails
from uncle_sled.desk.theme.theme import colour

CARD_PX, GAP_PX, RING_PX = 330, 12, 3.0


class Step(msgspec.Struct, frozen=True):
    """One card. shown: what it tells of, as it stands in the window."""

    title: str
    says: str
    shown: Callable[[], QWidget | None]


class Ring(Guarded, QWidget):
    """A frame round what a card tells of; clicks go through it."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setAccessibleName("What the card tells of")

    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(colour("chalk"), RING_PX))
            half = RING_PX / 2
            painter.drawRoundedRect(QRectF(half, half, self.width() - RING_PX, self.height() - RING_PX), 5, 5)


class Tour(Guarded, QFrame):
    """The card and its ring. ``left`` says that it is over, at its end or before."""

    left = Signal()

    def __init__(self, window: QWidget, steps: tuple[Step, ...]) -> None:
        super().__init__(window)
        self.steps, self.at, self.over = steps, 0, window
        self.setObjectName("popup")
        self.setAccessibleName("A first walk")
        self.setFixedWidth(CARD_PX)
        self.ring = Ring(window)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(14, 12, 14, 12)
        self.title, self.says, self.count = label("", "head", wrap=True), label("", wrap=True), label("", "small", "pencil")
        for words in (self.title, self.says):
            rows.addWidget(words)
        keys = QHBoxLayout()
        self.leave_button, self.next_button = QPushButton("Leave it"), QPushButton("Next")
        self.leave_button.setToolTip("Esc; View, A first walk shows it again")
        self.next_button.setProperty("kind", "main")
        self.leave_button.clicked.connect(self.leave)
        self.next_button.clicked.connect(self.go_on)
        keys.addWidget(self.count)
        keys.addStretch(1)
        keys.addWidget(self.leave_button)
        keys.addWidget(self.next_button)
        rows.addLayout(keys)
        window.installEventFilter(self)
        self.show_step()

    def show_step(self) -> None:
        """The card at its place; a step whose part is not in sight is told in the middle of the window."""
        step = self.steps[self.at]
        self.title.setText(step.title)
        self.says.setText(step.says)
        self.count.setText(f"{self.at + 1} of {len(self.steps)}")
        self.next_button.setText("Done" if self.at + 1 == len(self.steps) else "Next")
        self.setFixedHeight(self.layout().totalHeightForWidth(CARD_PX))  # type: ignore[union-attr]
        window = self.over
        part = step.shown()
        seen = part is not None and part.isVisible()
        box = (
            QRect(part.mapTo(window, QPoint(0, 0)), part.size())
            if part is not None and seen
            else QRect(window.rect().center(), window.rect().center())
        )
        self.ring.setGeometry(box)
        self.ring.setVisible(seen)
        self.ring.raise_()
        self.move(self._beside(box, window.rect()))
        self.raise_()
        self.show()
        self.next_button.setFocus()

    def _beside(self, box: QRect, room: QRect) -> QPoint:
        """Right of it, else left, else over or under it; always whole in the window."""
        wide, high = self.width(), self.height()
        for x, y in (
            (box.right() + GAP_PX, box.top()),
            (box.left() - wide - GAP_PX, box.top()),
            (box.left(), box.top() - high - GAP_PX),
            (box.left(), box.bottom() + GAP_PX),
        ):
            if room.contains(QRect(x, min(y, room.bottom() - high), wide, high)):
                return QPoint(x, min(y, room.bottom() - high))
        return QPoint(max(room.center().x() - wide // 2, 0), max(room.center().y() - high // 2, 0))

    def go_on(self) -> None:
        """The next card; after the last it is over."""
        if self.at + 1 == len(self.steps):
            self.leave()
        else:
            self.at += 1
            self.show_step()

    def leave(self) -> None:
        self.over.removeEventFilter(self)
        self.ring.hide()
        self.ring.deleteLater()
        self.hide()
        self.deleteLater()
        self.left.emit()

    def eventFilter(self, _of: QObject, event: QEvent) -> bool:
        if event.type() == QEvent.Type.Resize:
            self.show_step()
        return False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.leave()
        else:
            super().keyPressEvent(event)
