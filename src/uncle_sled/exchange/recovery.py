"""Autosaves that outlive a crash: one file an open project, beside a note of whose it is.

An autosave is written whole or not at all, by a worker, and removed when its project was saved
or closed. One whose writer is gone is offered again.
"""

from __future__ import annotations

import json
import os
import time
import uuid
from pathlib import Path

import msgspec

from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import FileError
from uncle_sled.core.slow import Tell
from uncle_sled.exchange.places import recovery_folder, this_host
from uncle_sled.exchange.sled_file import to_bytes, write_whole


class Autosave(msgspec.Struct, frozen=True):
    """An autosave on disk: the project's bytes, the file it belongs to (None: never saved), and its writer."""

    path: Path
    name: str
    of: Path | None
    pid: int
    host: str
    when: float

    @property
    def note(self) -> Path:
        return self.path.with_suffix(".json")


def new_autosave(of: Path | None, name: str) -> Autosave:
    """A place for a project's autosaves; nothing is written yet."""
    return Autosave(recovery_folder() / f"{uuid.uuid4().hex}.sled", name, of, os.getpid(), this_host(), time.time())


def write_autosave(autosave: Autosave, data: bytes) -> None:
    """Write the project's bytes. Raises: FileError: in words; the last autosave stays."""
    try:
        autosave.path.parent.mkdir(parents=True, exist_ok=True)
        write_whole(autosave.path, data)
        note = {
            "name": autosave.name,
            "of": str(autosave.of) if autosave.of else None,
            "pid": autosave.pid,
            "host": autosave.host,
            "when": time.time(),
        }
        write_whole(autosave.note, json.dumps(note).encode())
    except OSError as fault:
        raise FileError(
            f"The autosave could not be written: {fault.strerror or fault}. Save to a file yourself."
        ) from None


class NotWritten(msgspec.Struct, frozen=True):
    """An autosave that failed, in words."""

    says: str


def autosave_job(project: Project, tell: Tell, autosave: Autosave) -> NotWritten | None:
    """Write a project's autosave, in the worker."""
    try:
        write_autosave(autosave, to_bytes(project))
    except FileError as fault:
        return NotWritten(str(fault))
    return None


def drop_autosave(autosave: Autosave) -> None:
    for path in (autosave.note, autosave.path):
        path.unlink(missing_ok=True)


def left_behind() -> list[Autosave]:
    """Autosaves whose writer is gone, newest first. Notes that cannot be read are passed over, not removed."""
    found = []
    try:
        notes = sorted(recovery_folder().glob("*.json"))
    except OSError:
        return []
    for note in notes:
        try:
            raw = json.loads(note.read_text())
            one = Autosave(
                note.with_suffix(".sled"),
                str(raw["name"]),
                Path(raw["of"]) if raw["of"] else None,
                int(raw["pid"]),
                str(raw["host"]),
                float(raw["when"]),
            )
        except (OSError, ValueError, KeyError, TypeError):
            continue
        if one.path.exists() and not is_running(one.pid, one.host):
            found.append(one)
    return sorted(found, key=lambda one: -one.when)


def is_running(pid: int, host: str) -> bool:
    """Whether a process still runs; on another machine nobody can tell, so it is taken to."""
    if host != this_host():
        return True
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return not _is_zombie(pid)


def _is_zombie(pid: int) -> bool:
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] == "Z"
    except (OSError, IndexError):
        return False
