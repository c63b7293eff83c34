"""Two windows on one file, and a file that another program changed: told before anything is lost."""

from __future__ import annotations

import getpass
import json
import os
import time
from pathlib import Path

import msgspec

from uncle_sled.exchange.places import this_host
from uncle_sled.exchange.recovery import is_running


class Holder(msgspec.Struct, frozen=True):
    """Who has a file open."""

    pid: int
    host: str
    user: str
    when: float

    def says(self) -> str:
        return f"{self.user} on {self.host} since {time.strftime('%H:%M on %d %B', time.localtime(self.when))}"


def lock_path(path: Path) -> Path:
    return path.with_name(f".{path.name}.lock")


def holder_of(path: Path) -> Holder | None:
    """Who holds a file now, other than this process; None where nobody does or its holder is gone."""
    try:
        raw = json.loads(lock_path(path).read_text())
        holder = Holder(int(raw["pid"]), str(raw["host"]), str(raw["user"]), float(raw["when"]))
    except (OSError, ValueError, KeyError, TypeError):
        return None
    if holder.pid == os.getpid() and holder.host == this_host():
        return None
    return holder if is_running(holder.pid, holder.host) else None


def take(path: Path, over: bool = False) -> bool:
    """Take a file for this window; False where another holds it. ``over`` takes it from whoever does.

    A folder that cannot be written needs no lock: nobody can save there either.
    """
    if holder_of(path) is not None and not over:
        return False
    me = {"pid": os.getpid(), "host": this_host(), "user": _user(), "when": time.time()}
    lock = lock_path(path)
    try:
        lock.unlink(missing_ok=True)
        handle = os.open(lock, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o644)
    except FileExistsError:
        return False  # somebody was faster
    except OSError:
        return True
    with os.fdopen(handle, "w") as file:
        json.dump(me, file)
    return True


def still_mine(path: Path) -> bool:
    """Whether nobody took the file over since."""
    return holder_of(path) is None


def release(path: Path) -> None:
    """Give a file back, if this process holds it."""
    try:
        raw = json.loads(lock_path(path).read_text())
        if raw.get("pid") == os.getpid() and raw.get("host") == this_host():
            lock_path(path).unlink(missing_ok=True)
    except (OSError, ValueError):
        return


def _user() -> str:
    try:
        return getpass.getuser()
    except (KeyError, OSError):
        return "somebody"


def stamp(path: Path) -> str | None:
    """What a file holds now, in a few letters; None where it cannot be read."""
    try:
        import hashlib  # a stamp is taken when a file is opened, not at start

        return hashlib.sha256(path.read_bytes()).hexdigest()
    except OSError:
        return None
