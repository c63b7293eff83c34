"""What holds every thing on the road, and is it enough?

Design pulls: 1.0 g forward and aft, 0.8 g sideways, 1.0 g up beyond its own weight; what is built into or stands
in a thing leans on its holding too. A vehicle aboard is tied with twice its mass, fore and aft.
Source: cargo securing practice for light trailers (docs/methods.md); screening only.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Hold, Stow, Thing
from uncle_sled.core.reading.load_cases import MassTable
from uncle_sled.core.units import GRAVITY

LEAST_KG = 3.0
ALONG_G, ACROSS_G, UP_G, VEHICLE_G = 1.0, 0.8, 1.0, 2.0
HOLDS_DOWN = {"strap", "bolt", "latch", "built in"}  # a lip or a rail lets a thing jump


class Restraint(msgspec.Struct, frozen=True):
    """One thing's holding: what it must take [N] with all that leans on it, and what it is rated for."""

    id: str
    name: str
    mass_kg: float  # the thing at its heaviest, and all that is in it
    along_n: float
    across_n: float
    up_n: float
    hold: Hold | None
    in_thing: str | None  # held by the thing it is in
    capacity_n: float | None
    vehicle: bool

    @property
    def fault(self) -> str:
        """What is wrong, in one word: none, weak, loose, unrated, jumps, skin."""
        if self.in_thing is not None:
            return ""
        if self.hold is None:
            return "loose"
        if self.hold.kind not in HOLDS_DOWN:
            return "jumps"
        if self.vehicle and self.hold.into == "skin":
            return "skin"
        if self.hold.kind == "built in":
            return ""
        if self.capacity_n is None:
            return "unrated"
        return "weak" if self.capacity_n < self.along_n - 0.5 else ""


def restraints(build: Build, table: MassTable) -> tuple[Restraint, ...]:
    """Every thing over 3 kg that rides, in the order of the build."""
    weighs = _heaviest(build.stow, table)
    holder = {thing.id: thing.inside for thing in build.stow.things}
    leans = dict(weighs)
    for thing in build.stow.things:
        at, seen = holder.get(thing.id), {thing.id}
        while at is not None and at in leans and at not in seen:
            leans[at] += weighs[thing.id]
            seen.add(at)
            at = holder.get(at)
    return tuple(
        _restraint(thing, leans[thing.id], holder)
        for thing in build.stow.things
        if not thing.taken_out and leans[thing.id] > LEAST_KG
    )


def _heaviest(stow: Stow, table: MassTable) -> dict[str, float]:
    rows = [row for row, case in enumerate(table.cases) if case.mode.towing] or list(range(len(table.cases)))
    sums = {thing.id: table.mass_kg[rows][:, []].sum(axis=1) for thing in stow.things}
    for at, one in enumerate(table.ids):
        id = one.split("/")[0]
        if id in sums:
            sums[id] = sums[id] + table.mass_kg[rows, at]
    return {id: float(kg.max(initial=0.0)) for id, kg in sums.items()}


def _restraint(thing: Thing, mass_kg: float, holder: dict[str, str | None]) -> Restraint:
    vehicle = thing.kind == "vehicle aboard"
    weight = mass_kg * GRAVITY
    hold = thing.hold
    rated = hold.many * hold.rated.si * GRAVITY if hold and hold.rated and hold.rated.si > 0 else None
    # what has its own holding needs none of the thing that it stands in
    inside = thing.inside if thing.inside in holder and hold is None else None
    return Restraint(
        thing.id,
        thing.name,
        mass_kg,
        weight * (VEHICLE_G if vehicle else ALONG_G),
        weight * ACROSS_G,
        weight * UP_G,
        hold,
        inside,
        rated,
        vehicle,
    )
