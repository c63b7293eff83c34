"""A catalogue of one's own, from a CSV or XLSX file: every faulty line by its number, nothing taken half."""

from __future__ import annotations

from pathlib import Path

import msgspec

from uncle_sled.core.document.catalogue_line import COLUMNS, NEEDED, heading, thing_of
from uncle_sled.core.document.edits import fresh_id
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.errors import EntryError, FileError
from uncle_sled.exchange.roles_guessed import with_roles_guessed
from uncle_sled.exchange.weight_list import Fault, read_sheet

KNOWN = {heading(column)[0] for column in COLUMNS} | {"role"}


class Read(msgspec.Struct, frozen=True):
    """Things of a file, the lines that could not be read, and the columns that were left out."""

    things: tuple[Thing, ...]
    faults: tuple[Fault, ...]
    left_out: tuple[str, ...]


def read_catalogue(path: Path, taken_ids: tuple[str, ...] = ()) -> Read:
    """Things of a CSV or XLSX file. Raises: FileError: no such columns, a wrong unit, or no file of the kind."""
    sheet = read_sheet(path)
    fields: dict[int, str] = {}
    bare: dict[str, str] = {}
    left_out = []
    for at, word in enumerate(sheet.headings):
        try:
            field, unit = heading(word)
        except EntryError as fault:
            raise FileError(f"{path.name}: the heading {fault}") from None
        if field in KNOWN and field not in fields.values():
            fields[at] = field
            bare[field] = unit
        elif word:
            left_out.append(word)
    missing = [field for field in NEEDED if field not in fields.values()]
    if missing:
        raise FileError(f"{path.name} has no column for {', '.join(missing)}. Headings such as {', '.join(COLUMNS[1:7])} would be right.")
    things: list[Thing] = []
    faults: list[Fault] = []
    taken = list(taken_ids)
    for line, cells in sheet.rows:
        try:
            thing = thing_of({field: cells[at] for at, field in fields.items()}, bare)
        except EntryError as fault:
            faults.append(Fault(line, str(fault)))
            continue
        id = thing.id if thing.id not in taken and thing.id != "t0" and "." not in thing.id else fresh_id("own", taken)
        taken.append(id)
        if not {"roles", "role"} & set(fields.values()):  # a list that cannot say what they do gets the guess
            thing = with_roles_guessed(thing)
        things.append(msgspec.structs.replace(thing, id=id))
    return Read(tuple(things), tuple(faults), tuple(left_out))
