"""Checklists made of what this build has: a build without gas never asks about gas. Ticked with date and who, own lines kept."""

from __future__ import annotations

from functools import lru_cache

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.work import Tick
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.studies.build.tasks import quantities
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.tables import table


class Check(msgspec.Struct, frozen=True):
    """A line of a list. tick: when and by whom it was done last; None: not yet."""

    id: str  # list/line
    says: str
    own: bool
    tick: Tick | None


class Checklist(msgspec.Struct, frozen=True):
    """One list of the trade: its name and its lines."""

    name: str
    lines: tuple[Check, ...]

    @property
    def done(self) -> int:
        """How many lines are ticked."""
        return sum(1 for check in self.lines if check.tick is not None)


class Line(msgspec.Struct, frozen=True):
    """A shipped line of a list, and what a build must have for it."""

    list: str
    line: str
    when: str
    says: str


@lru_cache(maxsize=1)
def _shipped() -> tuple[Line, ...]:
    return table("catalogue/checklists.csv", Line)


def has(build: Build, facts: Facts) -> set[str]:
    """What a build has that a line may ask for."""
    amount = quantities(build, facts)
    aboard = [thing for thing in build.stow.things if not thing.taken_out]
    off = take_off(build, facts)
    found = {name for name in ("gas", "water", "openings", "wired", "rolls") if amount[name] > 0}
    if amount["frame"]:
        found.add("welded")
    if amount["cloth_m2"] > 0:
        found.add("cloth")
    library = library_of(facts.materials)
    if any(piece.kind == "sheet" and piece.made_of in library and not library[piece.made_of].screwed for piece in off.pieces):
        found.add("bonded")
    if any(wire.kind in ("AC", "earth") for wire in build.systems.wires) or build.systems.hookup_a:
        found.add("mains")
    if aboard:
        found.add("things")
    if any(thing.kind == "battery" for thing in aboard):
        found.add("battery")
    if any(thing.burns not in ("none", "") for thing in aboard):
        found.add("burns")
    if any("keeps food cold" in thing.roles for thing in aboard):
        found.add("fridge")
    return found


def checklists(build: Build, facts: Facts) -> tuple[Checklist, ...]:
    """Every list that has a line for this build, in the order of the work, one's own lines at their ends."""
    here = has(build, facts)
    ticks = {tick.id: tick for tick in build.work.ticks}
    lists: dict[str, list[Check]] = {}
    for each_line in _shipped():
        name, line, when, says = each_line.list, each_line.line, each_line.when, each_line.says
        if when in here:
            id = slug(name, line)
            lists.setdefault(name, []).append(Check(id, says, own=False, tick=ticks.get(id)))
    for own in build.work.lines:
        id = slug(own.list, own.id)
        lists.setdefault(own.list, []).append(Check(id, own.says, own=True, tick=ticks.get(id)))
    return tuple(Checklist(name, tuple(lines)) for name, lines in lists.items())


def slug(name: str, line: str) -> str:
    """The id under which a line is ticked."""
    return f"{name}/{line}".replace(".", "_")
