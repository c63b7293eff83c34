"""Answers of slow studies: what is known, whether it is still fresh, how far the work is, and Stop.

A shown bench or the desk at rest asks; nobody else. While its inputs are the same objects an answer is fresh; a stale one
is still handed out, marked so. Without a worker a study is run in place.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar

import msgspec
from PySide6.QtCore import QObject, Signal

from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import SledError
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Slow
from uncle_sled.desk.worker import Worker

R = TypeVar("R")


class Answer(msgspec.Struct, Generic[R], frozen=True):
    """``value`` is None while nothing is known; ``words`` say what is being done, or what went wrong (``fault``)."""

    value: R | None = None
    fresh: bool = False
    working: bool = False
    share: float | None = None
    words: str = ""
    fault: bool = False


class _State:
    """What is kept of one study."""

    def __init__(self) -> None:
        self.value: Any = None
        self.read: tuple[object, ...] | None = None  # what the value was worked out from
        self.asked: tuple[int, tuple[object, ...]] | None = None  # what runs, and from what
        self.share: float | None = None
        self.words = ""
        self.fault = False


class Answers(QObject):
    changed = Signal(object)  # of a study: asked, answered, stopped
    told = Signal(object)  # of a study: how far it is, and nothing else

    def __init__(self, worker: Worker | None, project: Callable[[], Project], studied: Callable[[], Studied], parent: QObject) -> None:
        super().__init__(parent)
        self._worker, self._project, self._studied = worker, project, studied
        self._states: dict[str, _State] = {}
        self._studies: dict[str, Slow[Studied, Any]] = {}
        if worker is not None:
            worker.answered.connect(self._answered)
            worker.told.connect(self._told)

    @property
    def in_place(self) -> bool:
        """Whether studies run here, in the window's thread."""
        return self._worker is None

    def of(self, study: Slow[Studied, R]) -> Answer[R]:
        """What is known of a study for the build as it is."""
        state = self._states.get(study.name)
        if state is None:
            return Answer()
        return Answer(
            state.value, _same(state.read, study.reads(self._studied())), state.asked is not None, state.share, state.words, state.fault
        )

    def ask(self, study: Slow[Studied, Any]) -> None:
        """Have it worked out for the build as it is, unless it is known or under way already."""
        state = self._state(study)
        read = study.reads(self._studied())
        if _same(state.read, read) or (state.asked is not None and _same(state.asked[1], read)):
            return
        state.share, state.words, state.fault = None, "", False
        if self._worker is None:
            self._in_place(study, state, read)
        else:
            state.asked = (self._worker.ask(study.lane, study.name, self._project()), read)
        self.changed.emit(study)

    def now(self, study: Slow[Studied, R]) -> R | None:
        """Its value, worked out here where studies run in place; else the newest there is, perhaps stale."""
        if self._worker is None:
            state, read = self._state(study), study.reads(self._studied())
            if not _same(state.read, read):
                self._in_place(study, state, read)
        return self.of(study).value

    def _in_place(self, study: Slow[Studied, Any], state: _State, read: tuple[object, ...]) -> None:
        try:
            state.value, state.read, state.asked = study(self._studied()), read, None
        except SledError as fault:
            state.words, state.fault = str(fault), True

    def stop(self, study: Slow[Studied, Any]) -> None:
        """Nobody waits for it any more; what was known stays."""
        state = self._state(study)
        if state.asked is not None and self._worker is not None:
            self._worker.drop(study.lane)
        state.asked, state.words, state.share = None, "Stopped. Nothing was changed.", None
        self.changed.emit(study)

    def take(self, study: Slow[Studied, R], value: R) -> None:
        """An answer for the build as it is that was worked out elsewhere."""
        state = self._state(study)
        state.value, state.read, state.asked = value, study.reads(self._studied()), None
        self.changed.emit(study)

    def build_changed(self) -> None:
        """What runs for a build that is no more is stopped; it is not asked again by itself."""
        for name, state in self._states.items():
            study = self._studies[name]
            if state.asked is not None and not _same(state.asked[1], study.reads(self._studied())):
                if self._worker is not None:
                    self._worker.drop(study.lane)
                state.asked, state.words, state.share = None, "Something changed meanwhile; look again.", None
                self.changed.emit(study)

    def forget(self) -> None:
        """Another project is open."""
        self.build_changed()
        self._states.clear()
        if self._worker is not None:
            self._worker.forget()

    def _state(self, study: Slow[Studied, Any]) -> _State:
        self._studies[study.name] = study
        return self._states.setdefault(study.name, _State())

    def _asked(self, number: int) -> tuple[str, _State] | None:
        return next((state for state in self._states.items() if state[1].asked and state[1].asked[0] == number), None)

    def _answered(self, number: int, value: object, fault: str) -> None:
        found = self._asked(number)
        if found is None:
            return
        name, state = found
        assert state.asked is not None
        read, state.asked, state.share = state.asked[1], None, None
        if fault:
            state.words, state.fault = fault, True
        else:
            state.value, state.read, state.words = value, read, ""
        self.changed.emit(self._studies[name])

    def _told(self, number: int, share: float | None, words: str) -> None:
        found = self._asked(number)
        if found is not None:
            found[1].share, found[1].words = share if share is not None else found[1].share, words
            self.told.emit(self._studies[found[0]])


def _same(a: tuple[object, ...] | None, b: tuple[object, ...]) -> bool:
    return a is not None and len(a) == len(b) and all(x is y for x, y in zip(a, b, strict=True))
