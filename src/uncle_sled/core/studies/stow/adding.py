"""Things put aboard: each on its next free place, one after another, and what goes with them by what they are."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

import msgspec

from uncle_sled.core.document.edits import Op, add_to, apply, fresh_id
from uncle_sled.core.document.placing import rolled_out
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.roles import Role
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.studies.stow.next_place import next_place

OWN_M, OWN_KG = 0.3, 5.0  # of a thing that nobody has measured or weighed yet
Test = Callable[[Thing], bool]


def add_ops(build: Build, facts: Facts, framed: Framed, things: Iterable[Thing]) -> tuple[list[Op], tuple[str, ...]]:
    """Ops that put things of a shelf aboard, and their ids; one finds its place with those before it there already."""
    ops: list[Op] = []
    ids: list[str] = []
    for thing in things:
        id = fresh_id("t", [aboard.id for aboard in build.stow.things])
        somewhere = msgspec.structs.replace(thing, id=id, x=Length(0.0), y=Length(0.0), z=Length(0.0))
        x, y, z = (round(v, 3) for v in next_place(build, facts, framed, somewhere))
        made = msgspec.structs.replace(somewhere, x=Length(x), y=Length(y), z=Length(z))
        mine = [add_to("stow.things", msgspec.to_builtins(made)), *rolled_out(build, made)]
        build = apply(build, mine)
        ops += mine
        ids.append(id)
    return ops, tuple(ids)


def own_thing(name: str) -> Thing:
    """A thing of one's own by its name: a box of a guessed size and weight, to be measured and weighed."""
    side = Length(OWN_M)
    nowhere = Length(0.0)
    return Thing("own", name[:80], "gear", side, side, side, nowhere, nowhere, nowhere, Mass(OWN_KG), "guessed")


def _unit(*units: str) -> Test:
    return lambda thing: thing.figures is not None and thing.figures.unit in units


def _does(*roles: Role) -> Test:
    return lambda thing: any(role in thing.roles for role in roles)


def _holds(*contents: str) -> Test:
    return lambda thing: thing.tank is not None and thing.tank.contents in contents


def _burns(*fuels: str) -> Test:
    return lambda thing: thing.burns in fuels


def _takes_water(thing: Thing) -> bool:
    return _does("tap or sink", "shower")(thing)


# What a thing wants beside it: of which things, what the shelf has for it, and what aboard serves already.
GOES_WITH: tuple[tuple[Test, str, Test], ...] = (
    (_burns("gas"), "gas-5", _holds("gas")),
    (_burns("gas"), "gas-alarm", _does("gas alarm")),
    (_burns("gas", "spirit", "wood", "diesel"), "co-alarm", _does("CO alarm")),
    (_burns("wood", "spirit"), "smoke-alarm", _does("smoke alarm")),
    (_burns("gas", "spirit", "wood"), "extinguisher", _does("extinguisher")),
    (_burns("diesel"), "diesel-can-10", _holds("diesel")),
    (_does("runs on petrol"), "petrol-can-5", _holds("petrol")),
    (_unit("panel"), "charger-solar-20", _unit("solar charger", "station")),
    (_unit("panel", "solar charger", "car charger", "inverter"), "lfp-100", _unit("battery", "station")),
    (_unit("battery"), "fuse-board", _unit("fuse box", "station")),
    (_unit("mains charger", "inverter charger"), "hookup-inlet", _unit("inlet")),
    (_takes_water, "water-jug-20", _holds("fresh")),
    (_takes_water, "grey-jug-20", _holds("grey")),
    (_takes_water, "pump-12", _does("pumps water", "pumps by foot")),
)


def goes_with(thing: Thing, aboard: Sequence[Thing], shelf: Sequence[Thing]) -> tuple[Thing, ...]:
    """What a thing wants beside it that is not aboard yet, from a shelf. Source: systems notes, what each device needs."""
    there = {entry.id: entry for entry in shelf}
    wanted = [id for wants, id, serves in GOES_WITH if wants(thing) and not any(serves(other) for other in aboard)]
    return tuple(there[id] for id in dict.fromkeys(wanted) if id in there)
