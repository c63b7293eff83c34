"""What one variant says otherwise than another, field by field, in the order of the trail.

Records with an id are found again by it, so that a thing that was moved in a list is not a new one.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.trail import STOPS
from uncle_sled.core.units import Shown, plain_number

SILENT = ("id", "parent")


class Difference(msgspec.Struct, frozen=True):
    """One field. where: the thing, face or opening, nothing for the stop itself; kind: of another value, only here, or gone."""

    stop: str
    where: str
    what: str
    was: Any
    now: Any
    kind: str  # changed, new, gone


def differences(a: Build, b: Build) -> tuple[Difference, ...]:
    """What the second says otherwise than the first; nothing where both say the same."""
    made: list[Difference] = []
    for stop in STOPS:
        for root in stop.owns:
            if hasattr(a, root):
                made += _between(stop.name, "", "", getattr(a, root), getattr(b, root))
    return tuple(made)


def _between(stop: str, where: str, what: str, a: Any, b: Any) -> Iterator[Difference]:
    if a is b or a == b:
        return
    if type(a) is type(b) and isinstance(a, msgspec.Struct) and not isinstance(a, Quantity):
        for name in a.__struct_fields__:
            if name not in SILENT:
                yield from _between(stop, where, _joined(what, name), getattr(a, name), getattr(b, name))
    elif isinstance(a, tuple) and isinstance(b, tuple) and _named(a) and _named(b):
        yield from _lists(stop, where, what, a, b)
    elif isinstance(a, Quantity) and isinstance(b, Quantity) and abs(a.si - b.si) < 1e-9:
        return  # the same measure, typed in other words
    else:
        yield Difference(stop, where, what, a, b, "changed")


def _lists(stop: str, where: str, what: str, a: tuple[Any, ...], b: tuple[Any, ...]) -> Iterator[Difference]:
    old, new = {one.id: one for one in a}, {one.id: one for one in b}
    for id, one in new.items():
        if id in old:
            yield from _between(stop, _name(one, where), "", old[id], one)
        else:
            yield Difference(stop, _name(one, where), what, None, one, "new")
    for id, one in old.items():
        if id not in new:
            yield Difference(stop, _name(one, where), what, one, None, "gone")


def _named(some: tuple[Any, ...]) -> bool:
    return all(hasattr(one, "id") for one in some)


def _name(one: Any, where: str) -> str:
    """What a record is called, with that which it is part of."""
    kind = type(one).__name__.lower()
    name = str(getattr(one, "name", "") or getattr(one, "says", "") or getattr(one, "material", "") or f"{kind} {one.id}")
    return f"{where}, {name}" if where else name


def _joined(what: str, name: str) -> str:
    word = name.removesuffix("_").replace("_", " ")
    return f"{what}, {word}" if what else word


def in_words(difference: Difference, shown: Shown) -> str:
    """A difference as a line: ``length: 3.2 m, was 3 m``."""
    name = f"{difference.where}: " if difference.where else ""
    if difference.kind == "new":
        return f"{name}only here"
    if difference.kind == "gone":
        return f"{name}not here"
    return f"{name}{difference.what} {_value(difference.now, shown)}, was {_value(difference.was, shown)}"


def _value(value: Any, shown: Shown) -> str:
    if value is None or value == "" or value == ():
        return "nothing"
    if isinstance(value, Quantity):
        return value.text(shown)
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float | int):
        return plain_number(value)
    if isinstance(value, tuple):
        return f"{len(value)} of them" if len(value) > 3 or not all(isinstance(v, str) for v in value) else " and ".join(value)
    return f"“{value[:40]}”" if isinstance(value, str) and " " in value else str(value) if isinstance(value, str) else "set"
