"""Whose a lock or an autosave is: a process, told from another one that has its number by now."""

from __future__ import annotations

import os
from functools import cache
from pathlib import Path
from typing import Annotated

import msgspec

from uncle_sled.exchange.places import this_host

LARGEST_NOTE = 64 * 1024
Seconds = Annotated[float, msgspec.Meta(ge=-4e9, le=3e10)]  # a time that a calendar can tell


class Mark(msgspec.Struct, frozen=True):
    """A process: its number, and what tells it from a later one of that number or from one of another computer."""

    pid: Annotated[int, msgspec.Meta(ge=1, le=2**31 - 1)]
    host: str
    machine: str = ""
    boot: str = ""
    began: str = ""  # ticks after the computer was started, and the name of the program

    def runs(self) -> bool:
        """Whether the process still runs; on another computer nobody can tell, so it is taken to."""
        if not self.is_here():
            return True
        if self.boot and self.boot != _boot():
            return False  # the computer was started again since
        if not is_running(self.pid):
            return False
        state, began = _state_of(self.pid)
        return state != "Z" and (not self.began or not began or began == self.began)

    def is_here(self) -> bool:
        """Whether it is of this computer, whatever that is called by now."""
        same = (self.host == this_host(), self.machine and self.machine == _machine(), self.boot and self.boot == _boot())
        return any(same)

    @property
    def is_me(self) -> bool:
        return self.pid == os.getpid() and self.is_here() and self.runs()


def me() -> Mark:
    """This process."""
    return Mark(os.getpid(), this_host(), _machine(), _boot(), _state_of(os.getpid())[1])


def is_running(pid: int) -> bool:
    """Whether a process of this number runs on this computer, whosever it is."""
    try:
        os.kill(pid, 0)
    except (ProcessLookupError, OverflowError):
        return False
    except PermissionError:
        return True
    return True


def note_bytes(path: Path) -> bytes:
    """The bytes of a small note. Raises: OSError."""
    with path.open("rb") as file:
        return file.read(LARGEST_NOTE)


@cache
def _machine() -> str:
    return _line(Path("/etc/machine-id"))


@cache
def _boot() -> str:
    return _line(Path("/proc/sys/kernel/random/boot_id"))


def _line(path: Path) -> str:
    try:
        return path.read_text().strip()
    except (OSError, ValueError):
        return ""


def _state_of(pid: int) -> tuple[str, str]:
    """A process's state, and when it began with what it runs, as the kernel tells them; empty where it does not."""
    fields = _line(Path(f"/proc/{pid}/stat")).rpartition(")")[2].split()
    if len(fields) <= 19:
        return "", ""
    try:
        program = Path(os.readlink(f"/proc/{pid}/exe").removesuffix(" (deleted)")).name
    except OSError:
        program = ""
    return fields[0], f"{fields[19]} {program}"
