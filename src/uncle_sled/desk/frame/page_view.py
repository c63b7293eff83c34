"""Pages before they are printed: one at a time as large as the window, on to the next, sent to a printer or written down."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.drawing.page import Page
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, canvas, paint
from uncle_sled.desk.theme.theme import colour, paper_colours

ROUND_PX = 10


class PageSheet(Guarded, QWidget):
    """One page in the middle, in the day's colours as it is printed."""

    def __init__(self, page: Page) -> None:
        super().__init__()
        self.page = page
        self.setMinimumSize(320, 240)

    def show_page(self, page: Page) -> None:
        self.page = page
        self.setAccessibleName(page.title)
        self.update()

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.fillRect(self.rect(), colour("rule"))
            page = self.page
            scale = min((self.width() - 2 * ROUND_PX) / page.width, (self.height() - 2 * ROUND_PX) / page.height)
            wide, high = page.width * scale, page.height * scale
            left, top = (self.width() - wide) / 2, (self.height() - high) / 2
            painter.translate(left, top)
            painter.scale(scale, scale)
            painter.fillRect(QRectF(0, 0, page.width, page.height), QColor("#FFFFFF"))
            painter.setClipRect(QRectF(0, 0, page.width, page.height))
            with paper_colours():
                paint(painter, page.shapes, Frame(1.0, 0.0, page.height), None, "paper")


class PageView(Dialog):
    """Back and Next, or the arrow keys; Print sends all of them; the file is asked for by whoever opened it."""

    said = Signal(str, str)

    def __init__(self, pages: tuple[Page, ...], write: Callable[[], None], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.pages, self.at = pages, 0
        self.setWindowTitle("Pages")
        self.resize(1000, 740)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(14, 12, 14, 12)
        self.sheet = PageSheet(pages[0])
        rows.addWidget(self.sheet, 1)
        keys = QHBoxLayout()
        self.told = label("", wrap=False)
        keys.addWidget(self.told, 1)
        self.back = self._key("Page before", "The page before this one (arrow left)", lambda: self.go(self.at - 1))
        self.on = self._key("Next page", "The next page (arrow right)", lambda: self.go(self.at + 1))
        self.one = self._key(
            "Print this page…", "At full size, through the printer's own window", lambda: self.send((self.pages[self.at],))
        )
        self.all = self._key("Print all…", "Every page at full size, through the printer's own window", lambda: self.send(self.pages))
        self.file = self._key("As a file…", "Write them down as PDF", write)
        for key in (self.back, self.on, self.one, self.all, self.file):
            keys.addWidget(key)
        rows.addLayout(keys)
        self.go(0)

    def _key(self, words: str, tip: str, does: Callable[[], None]) -> QPushButton:
        made = QPushButton(words)
        made.setToolTip(tip)
        made.setAutoDefault(False)
        made.clicked.connect(lambda _=False: does())
        return made

    def go(self, at: int) -> None:
        """Show a page by its number, from 0; past the ends nothing happens."""
        if not 0 <= at < len(self.pages):
            return
        self.at = at
        self.sheet.show_page(self.pages[at])
        self.told.setText(f"{at + 1} of {len(self.pages)}: {self.pages[at].title}")
        self.back.setEnabled(at > 0)
        self.on.setEnabled(at < len(self.pages) - 1)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Right: 1, Qt.Key.Key_PageDown: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_PageUp: -1}.get(Qt.Key(event.key()), 0)
        if step:
            self.go(self.at + step)
        else:
            super().keyPressEvent(event)

    def send(self, pages: tuple[Page, ...]) -> None:
        from uncle_sled.desk.kit.printing import choose_printer, page_printer, print_pages

        printer = page_printer(pages[0])
        if choose_printer(printer, self):
            print_pages(pages, printer)
            self.said.emit(f"Sent to the printer: {len(pages)} {'page' if len(pages) == 1 else 'pages'}.", "note")
