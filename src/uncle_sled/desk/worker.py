"""Slow work in one warm process of its own, so that it never delays a frame.

A busy Python thread beside Qt was measured to turn a 3 ms frame into 100 ms; hence a process. It keeps the last project
and is given only what changed, so that results kept by identity are found again there. Nothing is written into the pipe
before the process says that it is free: the newest request of each lane waits here, and the desk never blocks.
"""

from __future__ import annotations

import time
from typing import TYPE_CHECKING, Any, NamedTuple

from msgspec.msgpack import encode
from PySide6.QtCore import QObject, QSocketNotifier, QTimer, Signal

from uncle_sled.core.document.delta import changes
from uncle_sled.core.document.project import Project
from uncle_sled.desk.helper import serve

if TYPE_CHECKING:
    from multiprocessing.connection import Connection

GRACE_MS = 2000  # for a solver that cannot be told to stop; after that the process is started anew
MOST_TRIES = 2  # a request whose process died under it is asked once more


class Asked(NamedTuple):
    """One request: what stands under ``name`` is run on the project (a job) or on its study."""

    number: int
    lane: str
    name: str
    job: bool
    project: Project
    args: tuple[Any, ...]
    urgent: bool
    tries: int = 0


class Worker(QObject):
    """Asks the process and hands its answers over: (number, value, fault)."""

    answered = Signal(int, object, str)
    told = Signal(int, object, str)  # (number, share done or None, what it does)
    replaced = Signal(str)  # the process died and another was started

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._process: Any = None
        self._stopped: Any = None
        self._pipe: Connection | None = None
        self._notifier: QSocketNotifier | None = None
        self._free = False
        self._sent: Project | None = None
        self._numbers = 0
        self._busy: Asked | None = None
        self._waiting: dict[str, Asked] = {}  # by lane
        self._grace = QTimer(self)
        self._grace.setSingleShot(True)
        self._grace.setInterval(GRACE_MS)
        self._grace.timeout.connect(self._out_of_patience)

    # asking
    def ask(self, lane: str, name: str, project: Project, args: tuple[Any, ...] = (), job: bool = False, urgent: bool = False) -> int:
        """Ask; the answer carries the number returned. What waits or runs in the lane gives way.

        Args: urgent: it is done before all others; a study that runs is stopped and begun again after it.
        """
        self._numbers += 1
        asked = Asked(self._numbers, lane, name=name, job=job, project=project, args=args, urgent=urgent)
        self._waiting.pop(lane, None)
        self._waiting[lane] = asked
        busy = self._busy
        if busy is not None and not busy.urgent and (busy.lane == lane or urgent):
            if busy.lane != lane and busy.lane not in self._waiting:
                self._waiting[busy.lane] = busy
            self._stop_running()
        self._go_on()
        return asked.number

    def drop(self, lane: str) -> None:
        """Nobody wants the lane's answer any more."""
        self._waiting.pop(lane, None)
        if self._busy is not None and self._busy.lane == lane:
            self._stop_running()

    def forget(self) -> None:
        """Another project is open: the next request hands it over whole."""
        self._sent = None

    def settle(self, seconds: float) -> None:
        """Wait until what runs is done, before the desk closes; bounded."""
        end, busy = time.monotonic() + seconds, self._busy
        while busy is not None and self._busy is busy and self._pipe is not None and time.monotonic() < end:
            if self._pipe.poll(0.02):
                self._read()

    @property
    def running(self) -> Asked | None:
        return self._busy

    def start(self) -> None:
        """Start the process; it takes about a second to warm up, beside the desk."""
        if self._process is not None:
            return
        import multiprocessing  # 15 ms, after the first reading is on the screen

        context = multiprocessing.get_context("spawn")
        self._stopped = context.Value("l", 0)
        self._pipe, theirs = context.Pipe()
        self._process = context.Process(target=serve, args=(theirs, self._stopped), daemon=True)
        self._process.start()
        theirs.close()
        self._free, self._sent = False, None
        self._notifier = QSocketNotifier(self._pipe.fileno(), QSocketNotifier.Type.Read, self)
        self._notifier.activated.connect(self._read)

    def _go_on(self) -> None:
        """Send the next request, where the process is free to read it."""
        if not self._waiting:
            return
        self.start()
        if not self._free or self._busy is not None or self._pipe is None:
            return
        asked = next((asked for asked in self._waiting.values() if asked.urgent), None)
        asked = asked or next(iter(self._waiting.values()))
        del self._waiting[asked.lane]
        # a whole project packs tenfold faster by its fields than object by object
        made = encode(asked.project) if self._sent is None else tuple(changes(self._sent, asked.project))
        self._busy = asked
        if self._stopped.value == asked.number:  # it was stopped for something urgent and is begun again
            self._stopped.value = 0
        try:
            self._pipe.send((asked.number, asked.name, asked.job, asked.args, made))
        except OSError:
            self._lost()
            return
        self._sent = asked.project

    def _stop_running(self) -> None:
        if self._busy is not None and self._stopped is not None:
            self._stopped.value = self._busy.number
            if not self._grace.isActive():
                self._grace.start()

    def _out_of_patience(self) -> None:
        """What cannot be told to stop is ended with its process."""
        busy = self._busy
        if busy is not None and self._stopped is not None and self._stopped.value == busy.number:
            self._end()
            self._go_on()

    # answers
    def _read(self) -> None:
        try:
            while self._pipe is not None and self._pipe.poll():
                word, number, value, words = self._pipe.recv()
                if word == "free":
                    self._free = True
                elif word == "told":
                    if self._stopped.value != number:
                        self.told.emit(number, value, words)
                    continue
                else:
                    self._busy = None
                    self._grace.stop()
                    if words != "stopped" and self._stopped.value != number:
                        self.answered.emit(number, value, words)
                self._go_on()
        except (EOFError, OSError):
            self._lost()

    def _lost(self) -> None:
        """The process died: another takes over, and is asked once more what it died of."""
        busy = self._busy
        self._end()
        if busy is not None and busy.tries + 1 < MOST_TRIES and busy.lane not in self._waiting:
            self._waiting = {busy.lane: busy._replace(tries=busy.tries + 1), **self._waiting}  # before what came after it
            busy = None
        goes_on = "another one goes on with its work" if self._waiting else "another one starts with the next work"
        self.replaced.emit(f"The helper beside the desk stopped by itself; {goes_on}.")
        if busy is not None:
            self.answered.emit(busy.number, None, "the helper stopped twice over it")
        self._go_on()

    def _end(self) -> None:
        self._grace.stop()
        self._busy = None
        if self._notifier is not None:
            self._notifier.setEnabled(False)
            self._notifier.deleteLater()
            self._notifier = None
        if self._pipe is not None:
            self._pipe.close()
            self._pipe = None
        if self._process is not None:
            self._process.kill()
            self._process.join(2)
            self._process = None
        self._free, self._sent = False, None

    def stop(self) -> None:
        """End the process; whatever waits is dropped."""
        self._waiting.clear()
        self._end()
