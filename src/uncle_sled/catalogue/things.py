"""The catalogue of generic things: plausible sizes, weights and figures, every one an estimate to be replaced."""

from __future__ import annotations

import csv
from functools import lru_cache
from importlib import resources

import msgspec

from uncle_sled.core.document.catalogue_line import COLUMNS, heading, line_of, thing_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing


@lru_cache(maxsize=1)
def entries() -> tuple[Thing, ...]:
    """The shipped things, at no place yet; their ids are those of the catalogue."""
    text = resources.files("uncle_sled.catalogue").joinpath("things.csv").read_text(encoding="utf-8")
    lines = csv.DictReader(text.splitlines())
    fields = {word: heading(word) for word in lines.fieldnames or ()}
    bare = dict(fields.values())
    return tuple(thing_of({fields[word][0]: cell for word, cell in line.items()}, bare) for line in lines)


def placed(entry: Thing, id: str, x_m: float, y_m: float, z_m: float) -> Thing:
    """A thing of the catalogue with its front edge, middle and underside where they are given."""
    return msgspec.structs.replace(entry, id=id, x=Length(x_m), y=Length(y_m), z=Length(z_m))


def matches(entry: Thing, text: str) -> bool:
    """Whether every word that is looked for stands in the name, kind, contents or use of a thing."""
    contents = (
        f"{entry.tank.contents} water" if entry.tank and entry.tank.contents in ("fresh", "grey", "black") else ""
    )
    told = f"{entry.name} {entry.kind} {contents} {entry.tank.contents if entry.tank else ''} {entry.role}".lower()
    return all(word in told for word in text.lower().split())


def csv_text(things: tuple[Thing, ...]) -> str:
    """Things as a table that can be read back, in millimetres, kilograms and litres."""
    rows = [COLUMNS, *(tuple(line_of(thing)[column] for column in COLUMNS) for thing in things)]
    return "".join(",".join(_cell(cell) for cell in row) + "\n" for row in rows)


def _cell(text: str) -> str:
    # a cell that begins like a formula would be run by a spreadsheet
    text = f"'{text}" if text[:1] in "=+@" and text[:1] else text
    return '"' + text.replace('"', '""') + '"' if any(sign in text for sign in ',"\n;') else text
