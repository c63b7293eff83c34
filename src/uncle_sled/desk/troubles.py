"""What goes wrong in the program itself: said in the window, kept in the state folder, and said at the next start.

A fault of ours is never the end of the build that is open. Of a hard stop inside a library only a trace of this program's
own calls is left; it holds nothing of a build.
"""

from __future__ import annotations

import faulthandler
import os
import sys
import traceback
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from types import TracebackType
from typing import IO

from uncle_sled.exchange.places import traces_folder
from uncle_sled.exchange.process_mark import is_running

MOST_KEPT = 200_000  # bytes of told faults; older ones go
Say = Callable[[str, str], None]


class Troubles:
    """Made once by who starts the application; ``watch`` once there is a window to say it in."""

    def __init__(self, folder: Path | None = None) -> None:
        self.folder = folder or traces_folder()
        self.last = self._left_behind()
        self._trace: IO[str] | None = None
        with suppress(OSError):  # no place for it: faults are still said and printed
            self.folder.mkdir(parents=True, exist_ok=True)
            self._trace = (self.folder / f"running-{os.getpid()}.txt").open("w", encoding="utf-8")
            faulthandler.enable(self._trace)

    def watch(self, say: Say) -> None:
        """From now on faults are said. What the last hard stop left is said once."""
        self._say = say
        sys.excepthook = self._fault
        if self.last is not None:
            say(f"It stopped hard last time. What it was at, without anything of a build, is kept in {self.last}.", "note")

    def end(self) -> None:
        """A proper end leaves nothing behind."""
        sys.excepthook = sys.__excepthook__
        if self._trace is not None:
            faulthandler.disable()
            self._trace.close()
            with suppress(OSError):
                Path(self._trace.name).unlink()
            self._trace = None

    def _fault(self, kind: type[BaseException], fault: BaseException, where: TracebackType | None) -> None:
        sys.__excepthook__(kind, fault, where)
        kept = self.folder / "faults.txt"
        with suppress(OSError):
            if kept.exists() and kept.stat().st_size > MOST_KEPT:
                kept.replace(self.folder / "faults-before.txt")
            with kept.open("a", encoding="utf-8") as file:
                file.writelines(traceback.format_exception(kind, fault, where))
        self._say(
            f"Something went wrong in the program ({kind.__name__}: {str(fault)[:120]}). Nothing that was saved is "
            f"touched; undo if something looks odd. What it was at is kept in {kept}.",
            "stop",
        )

    def _left_behind(self) -> Path | None:
        """The newest trace of a run that ended hard, moved aside; empty ones of runs that are over go."""
        newest: tuple[float, Path] | None = None
        with suppress(OSError):
            for path in self.folder.glob("running-*.txt"):
                number = path.stem.removeprefix("running-")
                if number.isdigit() and is_running(int(number)) and int(number) != os.getpid():
                    continue
                with suppress(OSError):
                    told = path.stat()
                    if not told.st_size:
                        path.unlink()
                    elif newest is None or told.st_mtime > newest[0]:
                        if newest is not None:
                            newest[1].unlink()
                        newest = (told.st_mtime, path)
                    else:
                        path.unlink()
            if newest is not None:
                return newest[1].replace(self.folder / "last-hard-stop.txt")
        return None
