"""What was typed beside the number it was read as: pairs that say the same, that can be read so, and that disagree."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from functools import partial
from typing import Literal, TypeVar, cast

import msgspec

from uncle_sled.core import units
from uncle_sled.core.document.edits import Op, apply, get, set_to
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.errors import EditError, EntryError, FileError
from uncle_sled.core.measures import Dimension
from uncle_sled.core.units import FACTORS

T = TypeVar("T")
# The units that a bare number may have been typed in: what fields show.
SHOWN = {
    "length": ("in", "mm", "m"),
    "mass": ("lb", "kg"),
    "volume": ("gal", "L"),
    "stiffness": ("lb/in", "N/mm"),
    "temperature": ("degF", "degC"),
}
_FACTORS = {of: {unit: float(factor) for unit, factor in all_of.items()} for of, all_of in FACTORS.items()}
_SIMPLE = re.compile(r"(-?\d+(?:\.\d+)?) ?(mm|m|kg|lb|L|in|\")$")


class Pair(msgspec.Struct, frozen=True):
    """Words and a number at one place that say different things; ``said_si`` is what the words say, if anything."""

    place: str
    dimension: str
    typed: str
    si: float
    said_si: float | None

    def says(self) -> str:
        unit = {"length": "m", "mass": "kg", "volume": "m3", "stiffness": "N/m", "temperature": "degC"}[self.dimension]
        words = f"that is {self.said_si:g} {unit}" if self.said_si is not None else f"which is no {self.dimension}"
        return f"{self.place}: typed “{self.typed[:60]}”, {words}, but the number beside it is {self.si:g} {unit}."


class PairsDisagree(FileError):
    """A file whose words and numbers say different things; the build is carried, to be settled by asking."""

    def __init__(self, name: str, project: Project, pairs: tuple[Pair, ...]) -> None:
        self.project, self.pairs = project, pairs
        more = (f"and {len(pairs) - 12} more",) if len(pairs) > 12 else ()
        says = f"{name} disagrees with itself: the two of each pair must say the same. Opened in a window it asks which to take."
        super().__init__(says, (*(pair.says() for pair in pairs[:12]), *more))


def settled(project: Project, takes: Iterable[tuple[Pair, Literal["typed", "number"]]]) -> Project:
    """The project with one of each pair taken; a pair whose words say nothing gives its number."""
    ops: list[Op] = []
    for pair, take in takes:
        typed = take == "typed" and pair.said_si is not None
        ops.append(set_to(pair.place, {"si": pair.said_si, "typed": pair.typed} if typed else {"si": pair.si}))
    return apply(project, ops)


def read_as_meant(project: Project, typed_at: Iterable[tuple[str, Quantity]]) -> tuple[Project, tuple[str, ...], tuple[Pair, ...]]:
    """The project with bare numbers given the unit that their number proves, what was done in words, and what disagrees.

    Args: typed_at: every quantity that was typed, with its place.
    """
    ops: list[Op] = []
    said: list[str] = []
    pairs: list[Pair] = []
    for place, value in typed_at:
        if _says(value) or not _stands(project, place):
            continue
        typed = cast(str, value.typed)
        unit = _unit_meant(value)
        if unit:
            kept = units.keep_typed(typed, cast(Dimension, value.dimension), unit)
            ops.append(set_to(place, {"si": value.si, "typed": kept}))
            said.append(f"{place}: “{typed}” was read as {kept}, which its number says.")
        else:
            pairs.append(Pair(place, value.dimension, typed, value.si, _or_none(value.said_si)))
    return apply(project, ops), tuple(said), tuple(pairs)


def _stands(project: Project, place: str) -> bool:
    """Whether the place is still there; what named nothing was left out."""
    try:
        return get(project, place) is not None
    except EditError:
        return False


def _says(value: Quantity) -> bool:
    """Whether the words say the number; plainly typed ones are compared at once, others are read properly."""
    match = _SIMPLE.match(value.typed or "")
    factor = _FACTORS[value.dimension].get(match.group(2).lower()) if match else None
    if match is not None and factor is not None:
        said = float(match.group(1)) * factor
        if abs(said - value.si) <= 1e-9 * max(1.0, abs(value.si)):
            return True
    return _or_none(value.agrees) or False


def _unit_meant(value: Quantity) -> str:
    """The shown unit in which the words say the number, where they carry none of their own."""
    dimension = cast(Dimension, value.dimension)
    for unit in SHOWN[value.dimension]:
        said = _or_none(partial(units.parse, cast(str, value.typed), dimension, unit))
        if said is not None and abs(said - value.si) <= 1e-9 * max(1.0, abs(value.si)):
            return unit
    return ""


def _or_none(read: Callable[[], T]) -> T | None:
    try:
        return read()
    except EntryError:
        return None
