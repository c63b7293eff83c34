"""Autosaves that outlive a crash: one file an open project, beside a note of whose it is.

An autosave is written whole or not at all, by a worker, and removed when its project was saved
or closed. One whose writer is gone is offered again.
"""

from __future__ import annotations

import json
import time
import uuid
from pathlib import Path

import msgspec

from uncle_sled.core.document.project import Project
from uncle_sled.core.errors import FileError
from uncle_sled.core.slow import Tell
from uncle_sled.exchange.places import recovery_folder
from uncle_sled.exchange.process_mark import Mark, me, note_bytes
from uncle_sled.exchange.sled_file import to_bytes
from uncle_sled.exchange.whole_file import DAY_S, write_whole


class Autosave(msgspec.Struct, frozen=True):
    """An autosave on disk: the project's bytes, the file it belongs to (None: never saved), and its writer."""

    path: Path
    name: str
    of: Path | None
    by: Mark
    when: float

    @property
    def note(self) -> Path:
        return self.path.with_suffix(".json")


def new_autosave(of: Path | None, name: str) -> Autosave:
    """A place for a project's autosaves; nothing is written yet."""
    return Autosave(recovery_folder() / f"{uuid.uuid4().hex}.sled", name, of, me(), time.time())


def write_autosave(autosave: Autosave, data: bytes) -> None:
    """Write the project's bytes. Raises: FileError: in words; the last autosave stays."""
    try:
        autosave.path.parent.mkdir(parents=True, exist_ok=True)
        write_whole(autosave.path, data)
        note = {
            "name": autosave.name,
            "of": str(autosave.of) if autosave.of else None,
            "when": time.time(),
            **msgspec.to_builtins(autosave.by),
        }
        write_whole(autosave.note, json.dumps(note).encode())
    except OSError as fault:
        raise FileError(f"The autosave could not be written: {fault.strerror or fault}. Save to a file yourself.") from None


class NotWritten(msgspec.Struct, frozen=True):
    """An autosave that failed, in words."""

    says: str


def autosave_job(project: Project, _tell: Tell, autosave: Autosave) -> NotWritten | None:
    """Write a project's autosave, in the worker."""
    try:
        write_autosave(autosave, to_bytes(project))
    except FileError as fault:
        return NotWritten(str(fault))
    return None


def drop_autosave(autosave: Autosave) -> None:
    for path in (autosave.note, autosave.path):
        path.unlink(missing_ok=True)


class _Note(Mark, frozen=True, kw_only=True):
    name: str
    of: str | None = None
    when: float


def left_behind() -> list[Autosave]:
    """Autosaves whose writer is gone, newest first. Notes that cannot be read are passed over, not removed."""
    found = []
    try:
        notes = sorted(recovery_folder().glob("*.json"))
    except OSError:
        return []
    for note in notes:
        try:
            autosave = _autosave(note)
        except (OSError, ValueError, RecursionError):
            continue
        # a computer that writes there does so every few seconds; one silent for a day is gone, or was given another name
        silent = not autosave.by.is_here() and autosave.when < time.time() - DAY_S
        if autosave.path.exists() and (silent or not autosave.by.runs()):
            found.append(autosave)
    return sorted(found, key=lambda each_autosave: -each_autosave.when)


def _autosave(note: Path) -> Autosave:
    """The autosave of a note. One that names no process there can be is nobody's. Raises: OSError, ValueError."""
    raw = msgspec.json.decode(note_bytes(note))
    if isinstance(raw, dict) and not (isinstance(raw.get("pid"), int) and 0 < raw["pid"] < 2**31):
        raw = {**raw, "pid": 2**31 - 1}
    read = msgspec.convert(raw, _Note)
    by = Mark(read.pid, read.host, read.machine, read.boot, read.began)
    return Autosave(note.with_suffix(".sled"), read.name, Path(read.of) if read.of else None, by, read.when)
