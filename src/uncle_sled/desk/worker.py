"""Slow work in one warm process of its own, so that it never delays a frame.

A busy Python thread beside Qt was measured to turn a 3 ms frame into 100 ms; hence a process.
Requests carry a number; a later request makes the running one stop early, and late results
are dropped.
"""

from __future__ import annotations

import multiprocessing
from collections.abc import Callable
from multiprocessing.connection import Connection
from typing import Any

import msgspec
from PySide6.QtCore import QObject, QSocketNotifier, Signal

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.studies.reading import study


def serve(pipe: Connection, newest: Any) -> None:
    """The loop of the worker process: remedies of the newest build asked about."""
    import signal

    signal.signal(signal.SIGINT, signal.SIG_IGN)
    while True:
        try:
            request = pipe.recv()
        except (EOFError, OSError):
            return
        if request is None:
            return
        number, build, facts = request
        if number != newest.value:
            continue
        stopped: Callable[[], bool] = lambda n=number: n != newest.value  # noqa: E731
        try:
            answer = solve(build, facts, stopped)
        except Exception as fault:  # the desk says it; a worker that dies would say nothing
            pipe.send((number, None, f"{type(fault).__name__}: {fault}"))
            continue
        if not stopped():
            pipe.send((number, answer, ""))


def solve(build: bytes, facts: bytes, stopped: Callable[[], bool] = lambda: False) -> tuple[Finding, ...]:
    """Findings with remedies of a serialised build."""
    # loaded here, in the worker: the search needs Shapely, and the window's start does not wait for it
    from uncle_sled.core.findings.remedies import with_remedies

    s = study(msgspec.json.decode(build, type=Build), msgspec.json.decode(facts, type=Facts))
    return with_remedies(s, stopped)


class Worker(QObject):
    """Asks for remedies and hands them over when they come."""

    answered = Signal(int, object, str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._process: Any = None
        self._newest: Any = None
        self._pipe: Connection | None = None
        self._notifier: QSocketNotifier | None = None
        self.number = 0

    def start(self) -> None:
        """Start the process; it takes about a second to warm up, beside the desk."""
        if self._process is not None and self._process.is_alive():
            return
        context = multiprocessing.get_context("spawn")
        self._newest = context.Value("l", self.number)
        self._pipe, theirs = context.Pipe()
        self._process = context.Process(target=serve, args=(theirs, self._newest), daemon=True)
        self._process.start()
        theirs.close()
        self._notifier = QSocketNotifier(self._pipe.fileno(), QSocketNotifier.Type.Read, self)
        self._notifier.activated.connect(self._read)

    def ask(self, build: Build, facts: Facts) -> int:
        """Ask about a build; the answer carries the number returned."""
        self.start()
        self.number += 1
        self._newest.value = self.number
        assert self._pipe is not None
        try:
            self._pipe.send((self.number, msgspec.json.encode(build), msgspec.json.encode(facts)))
        except OSError:  # it was killed from outside: one more try with a fresh one
            self.stop()
            self.start()
            self._newest.value = self.number
            self._pipe.send((self.number, msgspec.json.encode(build), msgspec.json.encode(facts)))
        return self.number

    def cancel(self) -> None:
        """What is running stops early and its answer is dropped."""
        self.number += 1
        if self._newest is not None:
            self._newest.value = self.number

    def _read(self) -> None:
        try:
            while self._pipe is not None and self._pipe.poll():
                number, answer, fault = self._pipe.recv()
                if number == self.number:
                    self.answered.emit(number, answer, fault)
        except (EOFError, OSError):
            self.stop()

    def stop(self) -> None:
        if self._notifier is not None:
            self._notifier.setEnabled(False)
            self._notifier.deleteLater()
            self._notifier = None
        if self._pipe is not None:
            self._pipe.close()
            self._pipe = None
        if self._process is not None:
            self._process.terminate()
            self._process.join(2)
            self._process = None
