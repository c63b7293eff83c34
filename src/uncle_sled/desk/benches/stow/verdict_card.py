"""A card of lines with their verdicts, in signs and words; a line that points at something shows it."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QGridLayout, QLabel, QPushButton, QVBoxLayout

from uncle_sled.core.findings.stow.said import MOST_LINES, Said
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.panel import Panel, Part
from uncle_sled.desk.session import Session

MARKS = {"good": ("✓", "spruce"), "mind": ("!", "ochre word"), "bad": ("✗", "primer"), "none": ("–", "pencil")}


class VerdictCard(Guarded, QFrame):
    """A heading and its lines; a line that points at something is a link."""

    def __init__(self, session: Session, title: str) -> None:
        super().__init__()
        self.session, self.title = session, title
        self.setObjectName("card")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(12, 8, 12, 10)
        rows.setSpacing(4)
        rows.addWidget(label(title, "title"))
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(8)
        self.grid.setVerticalSpacing(3)
        self.grid.setColumnStretch(1, 1)
        rows.addLayout(self.grid)
        self.lines: list[tuple[QLabel, QLabel, QPushButton]] = []
        for at in range(MOST_LINES):
            mark, text, show = label("", "strong"), label("", wrap=True), QPushButton("show")
            show.setProperty("kind", "link")
            mark.setAlignment(Qt.AlignmentFlag.AlignTop)
            text.setAlignment(Qt.AlignmentFlag.AlignTop)
            show.clicked.connect(lambda _=False, at=at: self._show(at))
            for column, widget in enumerate((mark, text, show)):
                self.grid.addWidget(widget, at, column, Qt.AlignmentFlag.AlignTop)
                widget.hide()
            self.lines.append((mark, text, show))
        self.said: list[Said] = []

    def show_lines(self, said: list[Said]) -> bool:
        """Returns whether anything changed."""
        if said == self.said:
            return False
        self.said = said
        for (mark, text, show), each_said in zip(self.lines, [*said[:MOST_LINES], *[None] * MOST_LINES], strict=False):
            for widget in (mark, text, show):
                widget.setVisible(each_said is not None)
            if each_said is None:
                continue
            sign, ink = MARKS[each_said.verdict]
            mark.setText(sign)
            if mark.property("ink") != ink:
                mark.setProperty("ink", ink)
                mark.style().unpolish(mark)
                mark.style().polish(mark)
            text.setText(each_said.text)
            show.setVisible(bool(each_said.ids))
        return True

    def _show(self, at: int) -> None:
        ids = self.said[at].ids if at < len(self.said) else ()
        self.session.select(ids)
        self.session.flash.emit(ids)

    def fit_width(self, wide: int) -> None:
        """Give every line the height that its words want at a width."""
        room = wide - 24 - 22 - (56 if any(said.ids for said in self.said) else 0)
        for _, (_, text, _show) in zip(self.said, self.lines, strict=False):
            high = text.heightForWidth(max(room, 80))
            if high > 0 and high != text.minimumHeight():
                text.setFixedHeight(high)


class Verdicts(Part[VerdictCard], frozen=True):
    """Such a card in a panel."""

    title: str
    lines: Callable[[], Iterable[Said]]

    def made(self, panel: Panel) -> VerdictCard:
        return VerdictCard(panel.session, self.title)

    def keep(self, _panel: Panel, widget: VerdictCard) -> None:
        widget.show_lines(list(self.lines()))
