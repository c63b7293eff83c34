"""Reading and writing a whole file: at every moment the old or the new one stands there, and nothing else is touched."""

from __future__ import annotations

import contextlib
import errno
import hashlib
import os
import re
import secrets
import stat
import time
from pathlib import Path

from uncle_sled.exchange.process_mark import is_running

DAY_S = 86_400.0
FOLDER = "a folder"


class NoFile(OSError):
    """What stands there is no plain file; its text says what it is."""

    def __init__(self, says: str) -> None:
        super().__init__(errno.EINVAL, says)


class IsAFolder(NoFile):
    """A folder stands there."""


def what_is(mode: int) -> str:
    """The kind of thing at a path in words; "" for a plain file. Args: mode: as ``os.stat`` tells it."""
    kinds = ((stat.S_ISDIR, FOLDER), (stat.S_ISFIFO, "a pipe"), (stat.S_ISSOCK, "a socket"))
    devices = ((stat.S_ISCHR, "a device"), (stat.S_ISBLK, "a device"))
    return next((word for test, word in (*kinds, *devices) if test(mode)), "")


def read_plain(path: Path, most_bytes: int) -> bytes:
    """The bytes of a plain file, one more than ``most_bytes`` at the most.

    Raises: OSError; NoFile: a folder, a pipe or a device, which could be waited on for ever.
    """
    handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC)
    kind = what_is(os.fstat(handle).st_mode)
    if kind:
        os.close(handle)
        raise (IsAFolder if kind == FOLDER else NoFile)(f"it is {kind}, not a file")
    with os.fdopen(handle, "rb") as file:
        return file.read(most_bytes + 1)


def write_whole(path: Path, data: bytes, backup: bool = False) -> None:
    """Write a file so that at every moment the old or the new one stands there whole.

    A symbolic link stays one: what it points at is written. A new file heeds the umask, an old one keeps its rights.

    Args:
        backup: Keep what stood there as the file's name with ``.bak``; once there is one, there always is.
    Raises: OSError; NoFile: a folder, a pipe or a device stands there.
    """
    path = _pointed_at(path)
    try:
        mode: int | None = path.stat().st_mode
    except FileNotFoundError:
        mode = None
    if mode is not None and (kind := what_is(mode)):
        raise NoFile(f"{kind} of that name stands there")
    _clear(path)
    temporary = path.with_name(f"{_mark(path)}{os.getpid()}-{secrets.token_hex(4)}.part")
    rights = 0o666 if mode is None else stat.S_IMODE(mode) & 0o777
    try:
        handle = os.open(temporary, os.O_CREAT | os.O_EXCL | os.O_WRONLY | os.O_CLOEXEC, rights)
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            if mode is not None:
                os.fchmod(handle, rights)
            os.fsync(handle)
        if backup and mode is not None:
            _keep_backup(path)
        os.replace(temporary, path)
    except BaseException:
        temporary.unlink(missing_ok=True)
        raise
    _settle(path.parent)


def _pointed_at(path: Path) -> Path:
    if not path.is_symlink():
        return path
    try:
        return path.resolve()
    except RuntimeError:
        raise NoFile("a link that leads to itself stands there") from None


def _keep_backup(path: Path) -> None:
    """A second name for the last good file, put in the backup's place in one step."""
    backup = path.with_name(path.name + ".bak")
    fresh = path.with_name(f"{_mark(path)}{os.getpid()}-{secrets.token_hex(4)}.part")
    try:
        try:
            os.link(path, fresh)
        except OSError:  # a file system without hard links, or a file of somebody else
            handle = os.open(fresh, os.O_CREAT | os.O_EXCL | os.O_WRONLY, stat.S_IMODE(path.stat().st_mode) & 0o777)
            with os.fdopen(handle, "wb") as file:
                file.write(path.read_bytes())
                file.flush()
                os.fsync(handle)
        os.replace(fresh, backup)
    finally:
        fresh.unlink(missing_ok=True)  # two names of one file are not moved over each other


def _mark(path: Path) -> str:
    """How the temporaries of a file begin: short, whatever the length of its name, and of this computer."""
    of = hashlib.blake2s(path.name.encode(errors="surrogateescape"), digest_size=6).hexdigest()
    host = hashlib.blake2s(os.uname().nodename.encode(), digest_size=3).hexdigest()
    return f".{of}-{host}-"


def _clear(path: Path) -> None:
    """Take away what a save of this file left when it was killed: its writer is gone, or it is over a day old."""
    mark = re.compile(re.escape(_mark(path).rpartition("-")[0].rpartition("-")[0]) + r"-([0-9a-f]{6})-(\d{1,10})-[0-9a-f]{8}\.part")
    older = re.compile(re.escape(f".{path.name}.") + r"[a-z0-9_]{8}")
    here = _mark(path).split("-")[1]
    try:
        names = [entry.name for entry in os.scandir(path.parent) if entry.name.startswith(".")]
    except OSError:
        return
    for name in names:
        match = mark.fullmatch(name)
        gone = match is not None and match.group(1) == here and not is_running(int(match.group(2)))
        with contextlib.suppress(OSError):
            lying = path.with_name(name)
            if gone or ((match or older.fullmatch(name)) and lying.lstat().st_mtime < time.time() - DAY_S):
                lying.unlink()


def _settle(folder: Path) -> None:
    """Have the new name outlast a loss of power, where the file system can promise it."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)
