"""The process beside the desk: it knows no Qt, keeps the last project, and runs what it is asked for by name."""

from __future__ import annotations

import time
from contextlib import suppress
from typing import Any, Protocol

from msgspec.msgpack import decode

from uncle_sled.core.document.delta import put_on
from uncle_sled.core.document.project import Project
from uncle_sled.core.slow import Stopped, by_name

TELL_S = 0.05


class Pipe(Protocol):
    """What the desk is spoken with through."""

    def send(self, what: Any, /) -> None: ...

    def recv(self) -> Any: ...


def serve(pipe: Pipe, stopped: Any) -> None:
    """The loop of the process. Args: stopped: shared number of the request that nobody wants any more."""
    import signal

    signal.signal(signal.SIGINT, signal.SIG_IGN)
    project: Project | None = None
    with suppress(OSError):  # the desk is gone and nobody hears: no more is said, and the loop ends
        pipe.send(("free", 0, None, ""))
    while True:
        try:
            request = pipe.recv()
        except (EOFError, OSError):
            return
        if request is None:
            return
        number, name, job, args, made = request
        project = decode(made, type=Project) if isinstance(made, bytes) else put_on(project, made)
        assert project is not None
        value, fault = _worked(pipe, stopped, number, name, job, args, project)
        try:
            pipe.send(("done", number, value, fault))
        except (TypeError, AttributeError, ValueError) as odd:
            pipe.send(("done", number, None, f"its answer cannot be handed over: {odd}"))
        except OSError:
            return  # the desk went while this was worked out


def _worked(pipe: Pipe, stopped: Any, number: int, name: str, job: bool, args: tuple[Any, ...], project: Project) -> tuple[Any, str]:
    told = 0.0

    def tell(share: float | None, words: str) -> None:
        nonlocal told
        if stopped.value == number:
            raise Stopped("Stopped.")
        now = time.monotonic()
        if now - told > TELL_S:
            told = now
            pipe.send(("told", number, share, words))

    try:
        run = by_name(name)
        if job:
            return run(project, tell, *args), ""
        from uncle_sled.core.reading.studied import study

        return run(study(project.build, project.facts), tell, *args), ""
    except Stopped:
        return None, "stopped"
    except Exception as fault:  # the desk says it; a process that dies would say nothing
        return None, f"{type(fault).__name__}: {fault}"
