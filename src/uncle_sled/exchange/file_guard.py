"""Two windows on one file, and a file that another program changed: told before anything is lost."""

from __future__ import annotations

import fcntl
import getpass
import json
import os
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import msgspec

from uncle_sled.exchange.clock import moment_words
from uncle_sled.exchange.process_mark import LARGEST_NOTE, Mark, Seconds, me, note_bytes
from uncle_sled.exchange.sled_file import LARGEST_BYTES
from uncle_sled.exchange.whole_file import read_plain


class Holder(Mark, frozen=True, kw_only=True):
    """Who has a file open."""

    user: str
    when: Seconds

    def says(self) -> str:
        return f"{self.user[:60]} on {self.host[:60]} since {moment_words(self.when)}"


def lock_path(path: Path) -> Path:
    return path.with_name(f".{path.name}.lock")


def holder_of(path: Path) -> Holder | None:
    """Who holds a file now, other than this process; None where nobody does, its holder is gone or the lock is garbage."""
    try:
        return _other(note_bytes(lock_path(path)))
    except OSError:
        return None


def _other(note: bytes) -> Holder | None:
    holder = _read(note)
    return holder if holder is not None and not holder.is_me and holder.runs() else None


def _read(note: bytes) -> Holder | None:
    try:
        return msgspec.json.decode(note, type=Holder)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError):
        return None


def take(path: Path, over: bool = False) -> bool:
    """Take a file for this window; False where another holds it. ``over`` takes it from whoever does.

    Looking and writing are one step: of two windows at the same moment one has it. A folder that cannot
    be written needs no lock: nobody can save there either.
    """
    try:
        with _alone(lock_path(path)) as handle:
            if not over and _other(os.pread(handle, LARGEST_NOTE, 0)) is not None:
                return False
            mine = {**msgspec.to_builtins(me()), "user": _user(), "when": time.time()}
            os.ftruncate(handle, 0)
            os.pwrite(handle, json.dumps(mine).encode(), 0)
            return True
    except OSError:
        return True


@contextmanager
def _alone(lock: Path) -> Iterator[int]:
    """The lock's file, opened so that no other process looks at it or writes it meanwhile. Raises: OSError."""
    while True:
        handle = os.open(lock, os.O_RDWR | os.O_CREAT | os.O_NONBLOCK | os.O_CLOEXEC, 0o644)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX)
            try:
                same = os.path.samestat(os.fstat(handle), os.stat(lock))
            except FileNotFoundError:
                same = False
            if same:
                yield handle
                return
        finally:
            os.close(handle)  # given back by another meanwhile: open the one that stands there now


def still_mine(path: Path) -> bool:
    """Whether nobody took the file over since."""
    return holder_of(path) is None


def release(path: Path) -> None:
    """Give a file back, if this process holds it."""
    lock = lock_path(path)
    try:
        if not lock.exists():
            return
        with _alone(lock) as handle:
            holder = _read(os.pread(handle, LARGEST_NOTE, 0))
            if holder is not None and holder.is_me:
                lock.unlink(missing_ok=True)
    except OSError:
        return


def _user() -> str:
    try:
        return getpass.getuser()
    except (KeyError, OSError):
        return "somebody"


def stamp(path: Path) -> str | None:
    """What a file holds now, in a few letters; None where it cannot be read or something else stands in its place.

    A pipe put there is opened without waiting for somebody who writes into it.
    """
    import hashlib  # a stamp is taken when a file is opened, not at start

    try:
        return hashlib.sha256(read_plain(path, LARGEST_BYTES)).hexdigest()
    except OSError:
        return None
