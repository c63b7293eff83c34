"""Studies that take longer than a frame: marked with what they read, told how far they are, stopped when unwanted.

A slow study is a plain function that also takes ``tell``; anybody may call it. The desk hands it to its worker process
by name (``by_name``), so it stands at the top of a module and its result can be pickled.
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import Any, Generic, TypeVar

from uncle_sled.core.errors import SledError

S = TypeVar("S")
R = TypeVar("R")

Tell = Callable[[float | None, str], None]  # how much is done (0..1, None where nobody knows) and what is being done


class Stopped(SledError):
    """Nobody wants the answer any more."""


def nobody(share: float | None, words: str) -> None:
    """Told to nobody: a study that is simply called."""


class Slow(Generic[S, R]):
    """``reads`` gives the frozen objects that the answer depends on: while they are the same, it stays fresh."""

    def __init__(self, run: Callable[[S, Tell], R], reads: Callable[[S], tuple[object, ...]], lane: str) -> None:
        self.run, self.reads, self.lane = run, reads, lane
        self.name = f"{run.__module__}:{run.__name__}"
        self.__doc__ = run.__doc__

    def __call__(self, s: S, tell: Tell = nobody) -> R:
        return self.run(s, tell)

    def __repr__(self) -> str:
        return f"<slow study {self.name}>"


def slow(reads: Callable[[S], tuple[object, ...]], lane: str = "") -> Callable[[Callable[[S, Tell], R]], Slow[S, R]]:
    """Mark a study as slow. Args: lane: studies of one lane replace each other; each has its own where none is named."""

    def around(run: Callable[[S, Tell], R]) -> Slow[S, R]:
        return Slow(run, reads, lane or run.__name__)

    return around


def by_name(name: str) -> Callable[..., Any]:
    """What stands under ``module:name``: in the worker the study or job is found so, and loaded only then."""
    module, _, word = name.partition(":")
    found: Callable[..., Any] = getattr(import_module(module), word)
    return found
