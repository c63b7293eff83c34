"""What holds every thing on the road, in each direction, and is it enough?

Design pulls: 1.0 g forward and aft, 0.8 g sideways, 1.0 g up beyond its own weight; what is built into or stands
in a thing leans on its holding too. A vehicle aboard is tied with twice its mass, fore and aft.
A strap holds along its own direction only: elevation a over the floor, b in plan from the trailer's axis.
Source: direct lashing, EN 12195-1, and cargo practice for light trailers (docs/methods.md); screening only.
"""

from __future__ import annotations

import msgspec
import numpy as np

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Hold, Thing
from uncle_sled.core.engine import from_last
from uncle_sled.core.parts.holding import FRICTION, HOLDS_DOWN, WAYS, Way, capacities_n
from uncle_sled.core.reading.load_cases import MassTable, owners_of
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
    fault: str  # what is wrong, in one word: none, weak, loose, unrated, jumps, skin

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


class _Held(msgspec.Struct, frozen=True):
    """The restraints of things by what they are, what leans on them [kg] and whether what they stand in is there."""

    things: tuple[Thing, ...]
    kg: tuple[float, ...]
    within: tuple[bool, ...]
    made: tuple[Restraint, ...]


def _held_again(old: _Held, things: tuple[Thing, ...], kg: tuple[float, ...], within: tuple[bool, ...]) -> _Held | None:
    """The same with those anew that changed; None where there are more or fewer."""
    if len(things) != len(old.things):
        return None
    pairs = zip(things, old.things, kg, old.kg, within, old.within, old.made, strict=True)
    made = [r if a is b and m == n and i == j else _restraint(a, m, within=i) for a, b, m, n, i, j, r in pairs]
    return _Held(things, kg, within, tuple(made))


@from_last(_held_again)
def _held(things: tuple[Thing, ...], kg: tuple[float, ...], within: tuple[bool, ...]) -> _Held:
    made = [_restraint(thing, mass, within=here) for thing, mass, here in zip(things, kg, within, strict=True)]
    return _Held(things, kg, within, tuple(made))


def restraints(build: Build, table: MassTable) -> tuple[Restraint, ...]:
    """Every thing over 3 kg that rides, in the order of the build."""
    leans, inside = _heaviest(table), {thing.id: thing.inside for thing in build.stow.things if thing.inside is not None}
    there = {thing.id for thing in build.stow.things} if inside else frozenset()
    weighs = dict(leans) if inside else leans
    for id, holder in inside.items():
        at: str | None = holder
        seen = {id}
        while at is not None and at in there and at not in seen:
            leans[at] = leans.get(at, 0.0) + weighs.get(id, 0.0)
            seen.add(at)
            at = inside.get(at)
    heavy = [thing for thing in build.stow.things if leans.get(thing.id, 0.0) > LEAST_KG and not thing.taken_out]
    return _held(tuple(heavy), tuple([leans[thing.id] for thing in heavy]), tuple([thing.inside in there for thing in heavy])).made


def _heaviest(table: MassTable) -> dict[str, float]:
    """Of each part with its contents, the most it weighs on any way [kg]."""
    rows = [row for row, case in enumerate(table.cases) if case.mode.towing] or list(range(len(table.cases)))
    owners = owners_of(table.ids)
    most = np.zeros(len(owners.ids))
    for row in rows:
        most = np.maximum(most, owners.sums(table.mass_kg[row]))
    return dict(zip(owners.ids, most.tolist(), strict=True))


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
        thing.id,
        thing.name,
        mass_kg=mass_kg,
        hold=hold,
        in_thing=inside,
        wanted_n=wanted,
        directions=directions,
        vehicle=vehicle,
        fault="" if inside is not None else _fault(hold, directions, vehicle=vehicle),
    )


def _fault(hold: Hold | None, directions: tuple[Direction, ...], *, vehicle: bool) -> str:
    if hold is None:
        return "loose"
    if hold.kind not in HOLDS_DOWN:
        return "jumps"
    if vehicle and hold.into == "skin":
        return "skin"
    if not directions:
        return "unrated"
    return "" if all(direction.enough for direction in directions) else "weak"


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
