"""Slow work in progress, shown the same way everywhere: what is being done, how far, and Stop."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QRectF, QSize, Qt, QTimer
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSizePolicy, QWidget

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Slow
from uncle_sled.core.words import upper_first
from uncle_sled.desk.answers import Answers
from uncle_sled.desk.kit.elided import ElidedLabel
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import canvas
from uncle_sled.desk.theme.theme import colour

SHOWN_AFTER_MS = 400  # what is done sooner needs no word


class Working(Guarded, QWidget):
    """A row that comes when a study takes its time and goes with it."""

    def __init__(self, answers: Answers, study: Slow[Studied, Any]) -> None:
        super().__init__()
        self.answers, self.study = answers, study
        row = QHBoxLayout(self)
        row.setContentsMargins(4, 2, 14, 4)
        row.setSpacing(8)
        self.bar = _Bar()
        self.words = ElidedLabel("small", "pencil")
        self.words.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.stop_button = QPushButton("Stop")
        self.stop_button.setToolTip("Leave off looking; nothing is changed")
        self.stop_button.clicked.connect(lambda: self.answers.stop(self.study))
        row.addWidget(self.bar)
        row.addWidget(self.words, 1)
        row.addWidget(self.stop_button)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SHOWN_AFTER_MS)
        self._soon.timeout.connect(self._show_now)
        self.hide()
        answers.changed.connect(self._changed)
        answers.told.connect(self._changed)

    def _changed(self, study: object) -> None:
        if study is not self.study:
            return
        answer = self.answers.of(self.study)
        if not answer.working:
            self._soon.stop()
            self.hide()
        elif self.isHidden() and not self._soon.isActive():
            self._soon.start()
        elif not self.isHidden():
            self._show_now()

    def _show_now(self) -> None:
        answer = self.answers.of(self.study)
        if answer.working:
            self.words.show_text(upper_first(answer.words) or "Waiting for the helper")
            self.bar.show_share(answer.share)
            self.show()


class _Bar(Guarded, QWidget):
    """How much is done; a chalk line half drawn where nobody knows."""

    def __init__(self) -> None:
        super().__init__()
        self.share: float | None = None
        self.setFixedSize(QSize(64, 8))
        self.setAccessibleName("How much is done")

    def show_share(self, share: float | None) -> None:
        if share != self.share:
            self.share = share
            self.update()

    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            painter.setPen(Qt.PenStyle.NoPen)
            whole = QRectF(0, 2, self.width(), 4)
            painter.setBrush(colour("rule"))
            painter.drawRect(whole)
            painter.setBrush(colour("chalk"))
            done = whole.width() * (self.share if self.share is not None else 0.5)
            painter.setOpacity(1.0 if self.share is not None else 0.5)
            painter.drawRect(QRectF(0, 2, done, 4))
