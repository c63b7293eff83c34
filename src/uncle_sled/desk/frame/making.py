"""A large file in the making: what is being drawn, how far, and Stop; written when it is whole."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QProgressBar, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.words import upper_first
from uncle_sled.desk.frame.written import written
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session

JOB, PAGES_JOB = "uncle_sled.exchange.export:export_job", "uncle_sled.exchange.export:pages_job"
LANE = "export"


class Making(Dialog):
    """To a file, or where there is no path pages to look at, by ``came``."""

    said = Signal(str, str)  # what to say, how bad
    came = Signal(object)  # pages

    def __init__(self, session: Session, kind: str, path: Path | None, more: tuple[object, ...], parent: QWidget) -> None:
        super().__init__(parent)
        self.session, self.path = session, path
        self.setWindowTitle("Drawing")
        self.setMinimumWidth(420)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        self.words = label(f"Drawing {path.name if path is not None else 'the pages'} …", wrap=True)
        rows.addWidget(self.words)
        self.bar = QProgressBar()
        self.bar.setRange(0, 0)
        self.bar.setTextVisible(False)
        self.bar.setAccessibleName("How much is done")
        rows.addWidget(self.bar)
        keys = QHBoxLayout()
        keys.addStretch(1)
        self.stop_button = QPushButton("Stop")
        self.stop_button.setToolTip("Leave off; no file is written")
        self.stop_button.clicked.connect(lambda _=False: self.reject())
        keys.addWidget(self.stop_button)
        rows.addLayout(keys)
        worker = session.worker
        assert worker is not None
        worker.answered.connect(self._came)
        worker.told.connect(self._going)
        self.finished.connect(lambda _: self._leave())
        self._number = worker.ask(LANE, JOB if path is not None else PAGES_JOB, session.project, (kind, *more), job=True)

    def _going(self, number: int, share: float | None, words: str) -> None:
        if number != self._number:
            return
        self.words.setText(f"{upper_first(words)} …")
        if share is not None:
            self.bar.setRange(0, 100)
            self.bar.setValue(round(100 * share))

    def _came(self, number: int, value: object, fault: str) -> None:
        if number != self._number:
            return
        if self.path is None and isinstance(value, tuple) and not fault:
            self.accept()
            self.came.emit(value)
            return
        if fault or not isinstance(value, bytes) or self.path is None:
            self.said.emit(fault or "It could not be drawn.", "stop")
        else:
            self.said.emit(*written(self.path, lambda: value))
        self.accept()

    def _leave(self) -> None:
        worker = self.session.worker
        if worker is not None:
            worker.drop(LANE)
            worker.answered.disconnect(self._came)
            worker.told.disconnect(self._going)
