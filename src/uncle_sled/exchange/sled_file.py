"""The .sled file: one project as ordered, human-readable JSON.

Reading says every fault with its place in the file; saving is atomic and keeps the last
good file beside the new one.
"""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import msgspec

from uncle_sled.core.document.bounds import inner_fields, look_over
from uncle_sled.core.document.edits import field_types
from uncle_sled.core.document.project import FORMAT, VERSION, Project
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.document.sense import of_no_sense
from uncle_sled.core.errors import FileError
from uncle_sled.core.materials import materials
from uncle_sled.exchange.mending import STRANGE_SIGNS, mended, with_flames_said, with_limits_given
from uncle_sled.exchange.roles_guessed import with_roles_said
from uncle_sled.exchange.sled_schema import MOST_FAULTS, schema_faults
from uncle_sled.exchange.typed_pairs import PairsDisagree, read_as_meant
from uncle_sled.exchange.whole_file import IsAFolder, read_plain, write_whole

LARGEST_BYTES = 64 * 1024 * 1024
APART = "\x1f"  # between the steps of a place; no key or id holds it


class Opened(msgspec.Struct, frozen=True):
    """A build as read, and what in its file was read otherwise than it stood there, each in words with its place."""

    project: Project
    said: tuple[str, ...] = ()


def read_bytes(data: bytes, name: str) -> Project:
    """The project in the bytes of a .sled file; ``opened_bytes`` also tells what was read as meant.

    Raises: FileError; PairsDisagree.
    """
    return opened_bytes(data, name).project


def opened_bytes(data: bytes, name: str) -> Opened:
    """The project in the bytes of a .sled file, and what was mended in it on reading.

    Args:
        data: The whole file.
        name: What to call it in messages.
    Raises:
        FileError: damaged, foreign, newer, beyond what a build can be or of no sense, with every place.
        PairsDisagree: words and numbers that say different things; it carries the build and the pairs.
    """
    if len(data) > LARGEST_BYTES:
        raise FileError(f"{name} is {len(data) // 1_000_000} MB; a build file is never over 64 MB. It was left alone.")
    raw = _raw(data, name)
    body = {key: value for key, value in raw.items() if key not in ("format", "version", "unknown")}
    flames = with_flames_said(body)
    thin = with_roles_said(body, raw["version"])
    try:
        project = msgspec.convert(body, Project, strict=True)
    except (msgspec.ValidationError, RecursionError):
        raise FileError(
            f"{name} has values that do not belong there:", schema_faults({"format": FORMAT, "version": VERSION, **body})
        ) from None
    project, unlimited = with_limits_given(project)
    faults: list[str] = []
    typed: list[tuple[str, Quantity]] = []
    look_over(project, "", faults, typed)
    faults += of_no_sense(project, materials())
    if faults:
        raise FileError(f"{name} disagrees with itself:", tuple(faults[:MOST_FAULTS]))
    unknown: dict[str, msgspec.Raw] = {}
    _collect_unknown(body, Project, "", unknown)
    project = msgspec.structs.replace(project, unknown=unknown) if unknown else project
    project, said = mended(project, STRANGE_SIGNS.search(data) is not None)
    project, spelled, pairs = read_as_meant(project, typed)
    if pairs:
        raise PairsDisagree(name, project, pairs)
    return Opened(project, (*flames, *thin, *unlimited, *said, *spelled))


def _raw(data: bytes, name: str) -> dict[str, Any]:
    """The file as it stands there, of a version that this program reads. Raises: FileError."""
    try:
        raw = msgspec.json.decode(data)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as fault:
        raise FileError(
            f"{name} is damaged: {_where(data, str(fault))}. The file before the last save is beside it, ending in .bak."
        ) from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        raise FileError(f'{name} is not a build file: it does not begin with "format": "{FORMAT}".')
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise FileError(f'{name} names no version: "version" should be a whole number from 1 to {VERSION}.')
    if version > VERSION:
        raise FileError(
            f"{name} was made by a newer Uncle Sled (file version {version}, this one reads up to {VERSION}). It was left alone."
        )
    return raw


def read(path: Path) -> Project:
    """The project in a file. Raises: FileError."""
    return opened(path).project


def opened(path: Path) -> Opened:
    """The project in a file, and what was mended in it on reading. Raises: FileError, PairsDisagree."""
    return opened_bytes(file_bytes(path), path.name)


def file_bytes(path: Path) -> bytes:
    """The bytes of a build file. Raises: FileError: no such file, no rights, no plain file, or one over 64 MB."""
    try:
        data = read_plain(path, LARGEST_BYTES)
    except FileNotFoundError:
        raise FileError(f"There is no file {_short(path)}.") from None
    except (OSError, ValueError) as fault:
        if isinstance(fault, IsAFolder):
            raise FileError(f"{path} is a folder, not a build file. Choose the .sled file inside it.") from None
        says = getattr(fault, "strerror", None) or fault
        raise FileError(f"{_short(path)} could not be read: {says}.") from None
    if len(data) > LARGEST_BYTES:
        raise FileError(f"{path.name} is over 64 MB; a build file never is. It was left alone.")
    return data


def _short(path: Path) -> str:
    """A path for a sentence, its middle left out where it is endless."""
    word = str(path)
    return word if len(word) <= 200 else f"{word[:90]}…{word[-90:]}"


def to_bytes(project: Project) -> bytes:
    """The project as the bytes of a .sled file, keys in the order of the model."""
    body = msgspec.to_builtins(msgspec.structs.replace(project, unknown={}), order=None)
    body.pop("unknown", None)
    body = {"format": FORMAT, "version": VERSION, **body}
    for place, value in project.unknown.items():
        _put_back(body, place, msgspec.json.decode(value))
    plain = json.dumps(body, ensure_ascii=False, allow_nan=False).encode()  # with an indent it would be written by Python, far slower
    return msgspec.json.format(plain, indent=1) + b"\n"


def save(project: Project, path: Path) -> None:
    """Write the file whole or not at all; the file that was there stays beside it as .bak.

    Raises: FileError: in words (disk full, read-only folder), the old file untouched.
    """
    try:
        write_whole(path, to_bytes(project), backup=True)
    except OSError as fault:
        raise FileError(
            f"{path.name[:120]} could not be saved in {_short(path.parent)}: {fault.strerror or fault}. What was there is untouched; save it somewhere else."
        ) from None


def _where(data: bytes, fault: str) -> str:
    newline = b"\n"
    at = re.search(r"byte (\d+)", fault)
    if at:
        before = data[: int(at.group(1))]
        line = before.count(newline) + 1
        return f"line {line}, column {len(before) - (before.rfind(newline) + 1) + 1} cannot be read"
    if "truncated" in fault:
        return f"it ends too soon, at line {data.count(newline) + 1}"
    return fault.rstrip(".")


def _collect_unknown(raw: dict[str, Any], kind: Any, place: str, into: dict[str, msgspec.Raw]) -> None:
    """Remember keys that this version has no field for, by their place."""
    types = field_types(kind)
    if not raw.keys() <= types.keys():
        for key in raw.keys() - types.keys():
            into[f"{place}{_guarded(key)}"] = msgspec.Raw(msgspec.json.encode(raw[key]))
    for name, what, model in inner_fields(kind):
        value = raw.get(name)
        if not value or what == "words":
            continue
        if what == "list":
            named = "id" in field_types(model)  # else an id in it is an unknown key like others
            for at, item in enumerate(value):
                step = item.get("id", at) if named else at
                _collect_unknown(item, model, f"{place}{name}{APART}{step}{APART}", into)
        elif what == "model" or len(value) > 2:  # a quantity has two keys of its own
            _collect_unknown(value, model, f"{place}{name}{APART}", into)


def _guarded(key: str) -> str:
    """A key as the last step of a place, whatever signs it holds."""
    return key.replace("\\", "\\\\").replace(APART, "\\-")


def _bare_key(step: str) -> str:
    return re.sub(r"\\([\\-])", lambda match: APART if match.group(1) == "-" else "\\", step)


def _put_back(body: Any, place: str, value: Any) -> None:
    node = body
    *way, last = place.split(APART)
    last = _bare_key(last)
    for step in way:
        if isinstance(node, (list, tuple)):
            node = next((item for at, item in enumerate(node) if isinstance(item, dict) and item.get("id", str(at)) == step), None)
        elif isinstance(node, dict):
            node = node.get(step)
        if node is None:
            return  # what it stood in was removed by the user
    if isinstance(node, dict):
        node.setdefault(last, value)
