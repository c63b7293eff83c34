"""A question with words of its own, asked of the worker; answered in place where there is none. What was known stays until it changes."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QObject, Signal

from uncle_sled.core.errors import SledError
from uncle_sled.core.slow import by_name, nobody
from uncle_sled.core.words import lower_first
from uncle_sled.desk.session import Session


class Job(QObject):
    """``name`` is module:function, taking project, tell and what is asked. One at a time; a new question takes the place of the last."""

    changed = Signal()

    def __init__(self, session: Session, name: str, lane: str) -> None:
        super().__init__()
        self.session, self.name, self.lane = session, name, lane
        self.value: Any = None
        self.of: object = None  # the build that it was answered for
        self.words, self.share, self.fault = "", None, ""
        self.working = False
        self._number = 0
        if session.worker is not None:
            session.worker.answered.connect(self._came)
            session.worker.told.connect(self._going)
        session.changed.connect(self._moved)

    share: float | None

    @property
    def fresh(self) -> bool:
        """Whether the answer is of the build as it is."""
        return self.value is not None and self.of is self.session.project.build

    @property
    def doing(self) -> str:
        """What is being done, how far, or what went wrong; "" while it rests."""
        if self.working:
            share = f" {self.share * 100:.0f} %" if self.share is not None else ""
            return f"Reckoning{share}: {lower_first(self.words)} …" if self.words else "Reckoning …"
        return self.fault

    def ask(self, *args: Any) -> None:
        """Ask anew. What cannot be understood stands in ``fault``."""
        self.fault, self.words, self.share = "", "", None
        self._asked = self.session.project.build
        worker = self.session.worker
        if worker is None:
            try:
                self.value, self.of = by_name(self.name)(self.session.project, nobody, *args), self._asked
            except SledError as fault:
                self.fault = str(fault)
        else:
            self.working = True
            self._number = worker.ask(self.lane, self.name, self.session.project, args=args, job=True)
        self.changed.emit()

    def stop(self) -> None:
        """Nobody waits any more; what was known stays."""
        if self.working and self.session.worker is not None:
            self.session.worker.drop(self.lane)
        self.working, self._number, self.words = False, 0, "Stopped. Nothing was changed."
        self.changed.emit()

    def _moved(self) -> None:
        if self.working and self.session.project.build is not self._asked:
            self.stop()
            self.words = "Something changed meanwhile; ask again."
            self.changed.emit()

    def _going(self, number: int, share: float | None, words: str) -> None:
        if number == self._number and self.working:
            self.share, self.words = share, words
            self.changed.emit()

    def _came(self, number: int, value: object, fault: str) -> None:
        if number != self._number or not self.working:
            return
        self.working, self.words = False, ""
        if fault:
            self.fault = fault.partition(": ")[2] or fault
        else:
            self.value, self.of = value, self._asked
        self.changed.emit()
