"""Shop mode: one bench's answer over the whole screen, read from two metres, with targets for gloves; one key there and back."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QKeyEvent, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.shop_card import shop_card
from uncle_sled.core.trail import TRAIL
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, Written, canvas, lay_paper, paint
from uncle_sled.desk.session import Session
from uncle_sled.exchange.clock import today

BUTTON_PX, WORDS_PX = 88, 30


class _Card(Guarded, QWidget):
    """The page as large as it fits."""

    def __init__(self, screen: ShopScreen) -> None:
        super().__init__()
        self.screen_of = screen
        self.written: list[Written] = []
        self.setAccessibleName("The answer in large type")

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            lay_paper(painter, self)
            page = self.screen_of.page()
            scale = min(self.width() / page.width, self.height() / page.height)
            painter.translate((self.width() - page.width * scale) / 2, (self.height() - page.height * scale) / 2)
            painter.scale(scale, scale)
            painter.setClipRect(QRectF(0, 0, page.width, page.height))
            self.written = []
            paint(painter, page.shapes, Frame(1.0, 0.0, page.height), self.written)


class ShopScreen(Dialog):
    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(parent)
        self.session = session
        self.stop = session.stop if session.stop in TRAIL else TRAIL[0]
        self.setWindowTitle("Shop mode")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(10, 10, 10, 10)
        self.card = _Card(self)
        rows.addWidget(self.card, 1)
        keys = QHBoxLayout()
        self.buttons: list[QPushButton] = []
        for words, tip, does in (
            ("Before", "The stop before on the trail", lambda: self.step(-1)),
            ("Close", "Back to the bench (F8 or Esc)", self.close),
            ("Next", "The next stop of the trail", lambda: self.step(1)),
        ):
            button = QPushButton(words)
            button.setToolTip(tip)
            button.setStyleSheet(
                f"font-size: {WORDS_PX}px; padding: 8px; min-height: {BUTTON_PX - 16}px;"
            )  # for gloves, over the theme's own size
            button.clicked.connect(lambda _=False, does=does: does())
            keys.addWidget(button, 1)
            self.buttons.append(button)
        rows.addLayout(keys)
        self.resize(parent.size())
        session.changed.connect(self.card.update)

    def page(self) -> Page:
        s = self.session
        return shop_card(self.stop, s.studied, s.findings, s.project.name, today())

    def step(self, by: int) -> None:
        self.stop = TRAIL[(TRAIL.index(self.stop) + by) % len(TRAIL)]
        self.card.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Right, Qt.Key.Key_Left):
            self.step(1 if event.key() == Qt.Key.Key_Right else -1)
        elif event.key() == Qt.Key.Key_F8:
            self.close()
        else:
            super().keyPressEvent(event)
