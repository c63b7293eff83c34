"""What holds every thing on the road, in each direction, and is it enough?

Design pulls: 1.0 g forward and aft, 0.8 g sideways, 1.0 g up beyond its own weight; what is built into or stands
in a thing leans on its holding too. A vehicle aboard is tied with twice its mass, fore and aft.
A strap holds along its own direction only: elevation a over the floor, b in plan from the trailer's axis.
Source: direct lashing, EN 12195-1, and cargo practice for light trailers (docs/methods.md); screening only.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Hold, Stow, Thing
from uncle_sled.core.parts.holding import FRICTION, HOLDS_DOWN, WAYS, Way, capacities_n
from uncle_sled.core.reading.load_cases import MassTable, columns_of
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words

LEAST_KG = 3.0
ALONG_G, ACROSS_G, UP_G, VEHICLE_G = 1.0, 0.8, 1.0, 2.0
WAY_WORDS = {"fore": "forward", "aft": "aft", "side": "sideways", "up": "upward"}


class Direction(msgspec.Struct, frozen=True):
    """What holds a thing in one direction, and what it must hold there [N]."""

    way: Way
    capacity_n: float
    wanted_n: float

    @property
    def enough(self) -> bool:
        """Whether what holds it holds what pulls."""
        return self.capacity_n >= self.wanted_n - 0.5


class Restraint(msgspec.Struct, frozen=True):
    """One thing's holding: what it must take with all that leans on it, and what holds it each way; () where not rated."""

    id: str
    name: str
    mass_kg: float  # the thing at its heaviest, and all that is in it
    hold: Hold | None
    in_thing: str | None  # held by the thing it is in
    wanted_n: dict[Way, float]
    directions: tuple[Direction, ...]
    vehicle: bool

    @property
    def along_n(self) -> float:
        """What pulls it forward in a firm stop [N]."""
        return self.wanted_n["fore"]

    @property
    def weakest(self) -> Direction | None:
        """The direction in which least is left over."""
        return min(self.directions, key=lambda direction: direction.capacity_n / max(direction.wanted_n, 1e-9), default=None)

    @property
    def assumed(self) -> bool:
        """Whether a strap's angles stand for ones that nobody measured."""
        hold = self.hold
        return hold is not None and hold.kind == "strap" and (hold.elevation_deg is None or hold.plan_deg is None)

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
        if not self.directions:
            return "unrated"
        return "" if all(direction.enough for direction in self.directions) else "weak"


def restraints(build: Build, table: MassTable) -> tuple[Restraint, ...]:
    """Every thing over 3 kg that rides, in the order of the build."""
    weighs = _heaviest(build.stow, table)
    holder = {thing.id: thing.inside for thing in build.stow.things}
    leans = dict(weighs)
    for id, at in holder.items():
        seen = {id}
        while at is not None and at in leans and at not in seen:
            leans[at] += weighs[id]
            seen.add(at)
            at = holder.get(at)
    return tuple(
        [
            _restraint(thing, leans[thing.id], within=thing.inside in holder)
            for thing in build.stow.things
            if leans[thing.id] > LEAST_KG and not thing.taken_out
        ]
    )


def _heaviest(stow: Stow, table: MassTable) -> dict[str, float]:
    """Of each thing with its contents, the most it weighs on any way [kg]."""
    rows = [row for row, case in enumerate(table.cases) if case.mode.towing] or list(range(len(table.cases)))
    columns, kg = columns_of(table.ids), table.mass_kg[rows]
    one = kg.max(axis=0, initial=0.0).tolist()  # most things have one column
    made = {}
    for thing in stow.things:
        at = columns.get(thing.id, ())
        made[thing.id] = one[at[0]] if len(at) == 1 else float(kg[:, list(at)].sum(axis=1).max(initial=0.0))
    return made


def _restraint(thing: Thing, mass_kg: float, *, within: bool) -> Restraint:
    """Args: within: whether what it is said to stand in is there."""
    vehicle, weight, hold = thing.kind == "vehicle aboard", mass_kg * GRAVITY, thing.hold
    along = weight * (VEHICLE_G if vehicle else ALONG_G)
    wanted: dict[Way, float] = {"fore": along, "aft": along, "side": weight * ACROSS_G, "up": weight * UP_G}
    directions: tuple[Direction, ...] = ()
    if hold is not None and hold.rated and hold.rated.si > 0:
        has = capacities_n(hold, weight, FRICTION[thing.floor])
        directions = tuple(Direction(way, has[way], wanted[way]) for way in WAYS)
    # what has its own holding needs none of the thing that it stands in
    inside = thing.inside if within and hold is None else None
    return Restraint(
        thing.id, thing.name, mass_kg=mass_kg, hold=hold, in_thing=inside, wanted_n=wanted, directions=directions, vehicle=vehicle
    )


WHERE = {"frame": "to the frame", "framing": "to framing", "skin": "to the skin"}


def held_words(thing: Thing, things: dict[str, Thing], words: Words) -> str:
    """What holds a thing, in a few words; its builder's own where no hold is on record."""
    hold = thing.hold
    if hold is not None:
        each = f", {words.kg(hold.rated.si)} each," if hold.rated else ""
        return f"{hold.many} {_kinds(hold)}{each} {WHERE[hold.into]}" if hold.kind != "built in" else "built in"
    if thing.inside in things:
        return f"in {things[thing.inside].name}"
    return thing.held_by or "nothing"


def _kinds(hold: Hold) -> str:
    return hold.kind if hold.many == 1 else {"latch": "latches"}.get(hold.kind, f"{hold.kind}s")
