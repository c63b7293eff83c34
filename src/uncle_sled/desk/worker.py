"""Slow work in one warm process of its own, so that it never delays a frame.

A busy Python thread beside Qt was measured to turn a 3 ms frame into 100 ms; hence a process.
Requests carry a number; a later request makes the running one stop early, and late results
are dropped.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Any

import msgspec
from PySide6.QtCore import QObject, QSocketNotifier, Signal

from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.recovery import Autosave, drop_autosave, write_autosave

if TYPE_CHECKING:
    from multiprocessing.connection import Connection

    from uncle_sled.core.remedies.move_sets import MoveSets


def serve(pipe: Connection, newest: Any) -> None:
    """The loop of the worker process: remedies of the newest build asked about."""
    import signal

    signal.signal(signal.SIGINT, signal.SIG_IGN)
    forgotten: set[Path] = set()
    while True:
        try:
            request = pipe.recv()
        except (EOFError, OSError):
            return
        if request is None:
            return
        kind, number, *given = request
        if kind == "autosave":
            pipe.send(_autosave(forgotten, *given))
        elif kind == "forget":
            forgotten.add(given[0].path)
            drop_autosave(given[0])
        elif number == newest.value:
            work = solve_moves if kind == "moves" else solve
            answer, fault = _worked(work, number, newest, *given)
            if fault or number == newest.value:
                pipe.send(("moved" if kind == "moves" else "judged", number, answer, fault))


def _autosave(forgotten: set[Path], autosave: Autosave, data: bytes) -> tuple[str, int, None, str]:
    if autosave.path in forgotten:
        return ("autosaved", 0, None, "")
    try:
        write_autosave(autosave, sled_file.to_bytes(msgspec.json.decode(data, type=Project)))
    except SledError as fault:
        return ("autosaved", 0, None, str(fault))
    return ("autosaved", 0, None, "")


def _worked(work: Callable[..., Any], number: int, newest: Any, build: bytes, facts: bytes) -> tuple[Any, str]:
    try:
        return work(build, facts, lambda: number != newest.value), ""
    except Exception as fault:  # the desk says it; a worker that dies would say nothing
        return None, f"{type(fault).__name__}: {fault}"


def solve(build: bytes, facts: bytes, stopped: Callable[[], bool] = lambda: False) -> tuple[Finding, ...]:
    """Findings with remedies of a serialised build."""
    # loaded here, in the worker: the search needs Shapely, and the window's start does not wait for it
    from uncle_sled.core.remedies.remedies import with_remedies

    s = study(msgspec.json.decode(build, type=Build), msgspec.json.decode(facts, type=Facts))
    return with_remedies(s, stopped)


def solve_moves(build: bytes, facts: bytes, stopped: Callable[[], bool] = lambda: False) -> MoveSets:
    """What to move in a serialised build."""
    from uncle_sled.core.remedies.move_sets import move_sets

    s = study(msgspec.json.decode(build, type=Build), msgspec.json.decode(facts, type=Facts))
    return move_sets(s, stopped)


class Worker(QObject):
    """Asks for remedies and hands them over when they come."""

    answered = Signal(int, object, str)
    moved = Signal(object, str)  # what to move, or what went wrong
    autosaved = Signal(str)  # what went wrong, if anything

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
        import multiprocessing  # 15 ms, after the first reading is on the screen

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
        self._send(("judge", self.number, msgspec.json.encode(build), msgspec.json.encode(facts)))
        return self.number

    def ask_moves(self, build: Build, facts: Facts) -> None:
        """Ask what to move; a change of the build drops the answer, as it drops remedies."""
        self.start()
        self._newest.value = self.number
        self._send(("moves", self.number, msgspec.json.encode(build), msgspec.json.encode(facts)))

    def autosave(self, autosave: Autosave, project: Project) -> None:
        self.start()
        self._send(("autosave", 0, autosave, msgspec.json.encode(project)))

    def forget(self, autosave: Autosave) -> None:
        """An autosave that is on its way must not appear after its project was saved."""
        if self._pipe is not None:
            self._send(("forget", 0, autosave))

    def _send(self, request: tuple[Any, ...]) -> None:
        assert self._pipe is not None
        try:
            self._pipe.send(request)
        except OSError:  # it was killed from outside: one more try with a fresh one
            self.stop()
            self.start()
            self._newest.value = self.number
            self._pipe.send(request)

    def cancel(self) -> None:
        """What is running stops early and its answer is dropped."""
        self.number += 1
        if self._newest is not None:
            self._newest.value = self.number

    def _read(self) -> None:
        try:
            while self._pipe is not None and self._pipe.poll():
                kind, number, answer, fault = self._pipe.recv()
                if kind == "autosaved":
                    self.autosaved.emit(fault)
                elif kind == "moved":
                    if number == self.number:
                        self.moved.emit(answer, fault)
                elif number == self.number:
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
