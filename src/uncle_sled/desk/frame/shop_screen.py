"""Shop mode: one bench's answer over the whole screen, read from two metres, with targets for gloves; one key there and back.

On Build the space bar goes through the book, a step a screen, from the first that is not done.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from PySide6.QtCore import QRectF, Qt, QTimer
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

if TYPE_CHECKING:
    from uncle_sled.core.studies.build.steps import Step

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
        self.at: int | None = None  # a step of the book, from 0
        self._cards: dict[int, Page] = {}
        self._ahead = QTimer(self)
        self._ahead.setSingleShot(True)
        self._ahead.setInterval(60)
        self._ahead.timeout.connect(self._draw_ahead)
        self.setWindowTitle("Shop mode")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(10, 10, 10, 10)
        self.card = _Card(self)
        rows.addWidget(self.card, 1)
        keys = QHBoxLayout()
        made: dict[str, QPushButton] = {}
        for words, tip, does in (
            ("Before", "The stop before on the trail", lambda: self.step(-1)),
            ("The book", "Step by step; the space bar turns its pages", lambda: self.turn(1)),
            ("Close", "Back to the bench (F8 or Esc)", self.close),
            ("Next", "The next stop of the trail", lambda: self.step(1)),
        ):
            button = QPushButton(words)
            button.setToolTip(tip)
            button.setStyleSheet(
                f"font-size: {WORDS_PX}px; padding: 8px; min-height: {BUTTON_PX - 16}px;"
            )  # for gloves, over the theme's own size
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # the space bar turns pages
            button.clicked.connect(lambda _=False, does=does: does())
            keys.addWidget(button, 1)
            made[words] = button
        self.to_book = made.pop("The book")  # on one stop only
        self.buttons = list(made.values())
        self.to_book.setVisible(self.stop == "Build")
        rows.addLayout(keys)
        self.resize(parent.size())
        session.changed.connect(self._again)

    def _again(self) -> None:
        self._cards.clear()
        self.card.update()

    def steps(self) -> tuple[Step, ...]:
        """The steps of the book as the plan stands; of sheets and bars only where a plan of cuts is there already."""
        from uncle_sled.core.studies.build.steps import steps
        from uncle_sled.core.studies.cut.cut_from_stock import laid_out

        plan = self.session.answers.of(laid_out)
        return steps(self.session.studied, self.session.schedule(), plan.value if plan.fresh else None)

    def _step_page(self, at: int) -> Page:
        from uncle_sled.core.drawing.build.step_card import step_card

        if at not in self._cards:
            made = self.steps()
            self._cards[at] = step_card(self.session.studied, made[at], made, self.session.schedule())
        return self._cards[at]

    def _draw_ahead(self) -> None:
        """The next step while this one is read, so that the space bar does not wait."""
        if self.at is not None and self.at + 1 < len(self.steps()):
            self._step_page(self.at + 1)

    def turn(self, by: int) -> None:
        """A step of the book on or back; before its first one the answer of the stop again."""
        made = self.steps()
        if not made:
            return
        self.stop = "Build"
        if self.at is None:
            undone = next((k for k, step in enumerate(made) if not step.placed.task.done), 0)
            self.at = undone if by > 0 else None
        else:
            self.at = self.at + by if self.at + by >= 0 else None
            self.at = min(self.at, len(made) - 1) if self.at is not None else None
        self.card.update()
        self._ahead.start()

    def page(self) -> Page:
        s = self.session
        self.to_book.setVisible(self.stop == "Build" and self.at is None)
        if self.at is not None and (self.at in self._cards or self.at < len(self.steps())):
            return self._step_page(self.at)
        return shop_card(self.stop, s.studied, s.findings, s.project.name, today())

    def step(self, by: int) -> None:
        if self.at is not None:  # within the book the large buttons turn its pages
            self.turn(by)
            return
        self.stop = TRAIL[(TRAIL.index(self.stop) + by) % len(TRAIL)]
        self.card.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Space, Qt.Key.Key_Backspace) and self.stop == "Build":
            self.turn(1 if event.key() == Qt.Key.Key_Space else -1)
        elif event.key() in (Qt.Key.Key_Right, Qt.Key.Key_Left):
            self.step(1 if event.key() == Qt.Key.Key_Right else -1)
        elif event.key() == Qt.Key.Key_F8:
            self.close()
        else:
            super().keyPressEvent(event)
