"""The catalogue of generic things: plausible sizes, weights and figures, every one an estimate to be replaced."""

from __future__ import annotations

import csv
from functools import lru_cache

import msgspec

from uncle_sled.catalogue.search import fits
from uncle_sled.core.document.catalogue_line import heading, thing_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.shipped import shipped


@lru_cache(maxsize=1)
def entries() -> tuple[Thing, ...]:
    """The shipped things, at no place yet; their ids are those of the catalogue."""
    text = shipped("catalogue/things.csv").decode()
    lines = csv.DictReader(text.splitlines())
    fields = {word: heading(word) for word in lines.fieldnames or ()}
    bare = dict(fields.values())
    return tuple(thing_of({fields[word][0]: cell for word, cell in line.items()}, bare) for line in lines)


def placed(entry: Thing, id: str, x_m: float, y_m: float, z_m: float) -> Thing:
    """A thing of the catalogue with its front edge, middle and underside where they are given."""
    return msgspec.structs.replace(entry, id=id, x=Length(x_m), y=Length(y_m), z=Length(z_m))


def told_of(entry: Thing) -> str:
    """All words a thing may be looked for by: its name, kind, contents and use."""
    contents = f"{entry.tank.contents} water" if entry.tank and entry.tank.contents in ("fresh", "grey", "black") else ""
    return f"{entry.name} {entry.kind} {contents} {entry.tank.contents if entry.tank else ''} {' '.join(entry.roles)}"


def matches(entry: Thing, text: str) -> bool:
    """Whether every part of what is looked for stands in the words of a thing, or other words for it do."""
    return fits(told_of(entry), text)
