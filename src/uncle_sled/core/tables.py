"""Shipped tables as records: one call a table, its columns the fields of the record."""

from __future__ import annotations

import csv
from typing import Any, Literal, TypeVar, get_origin

import msgspec

from uncle_sled.core.errors import FileError
from uncle_sled.shipped import shipped

Line = TypeVar("Line", bound=msgspec.Struct)


def table(name: str, kind: type[Line]) -> tuple[Line, ...]:
    """A shipped table as records of a kind: a column for each field, yes for true, words of a list parted by blanks.

    An empty cell is the field's default, no words, or None. Raises: FileError: names the line and what is wrong with it.
    """
    fields = {field.name: field for field in msgspec.structs.fields(kind)}
    made = []
    for number, line in enumerate(csv.DictReader(shipped(name).decode().splitlines()), 2):
        record = {key: _cell(cell or "", fields[key]) for key, cell in line.items() if key in fields}
        try:
            kept = {key: value for key, value in record.items() if value is not msgspec.UNSET}
            made.append(msgspec.convert(kept, kind, strict=False))
        except msgspec.ValidationError as fault:
            raise FileError(f"{name}, line {number}: {fault}.") from None
    return tuple(made)


def _cell(text: str, field: Any) -> Any:
    if not text:
        words = field.type is str or get_origin(field.type) is Literal
        return msgspec.UNSET if field.default is not msgspec.NODEFAULT else "" if words else () if get_origin(field.type) is tuple else None
    if get_origin(field.type) is tuple:
        return text.split()
    return text == "yes" if field.type is bool else text
