"""What fills up besides the grey tank, after how many days, and what is carried where, how often and how heavy?

A person and day: urine 1.4 L; solids 0.15 L, with their cover 0.35 L; a rinsed toilet both, and five times its flush. Each times
how much of it goes into the toilet aboard. What is carried is filled in turn, the first first; what is not is emptied where it
stands. Fresh water in jugs is carried the other way. Source: litres over litres a day; 1.4 and 0.15 L are usual of adults.
"""

from __future__ import annotations

import math
from typing import Literal

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.part import DENSITY
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.sweat import sleepers
from uncle_sled.core.studies.systems.water import WARMS, flushed_l, holds, water_of

URINE_L, SOLIDS_L, COVER_L = 1.4, 0.15, 0.2
TOILET = "toilet"
HAND_KG = 25.0  # the most for one person
Out = Literal["black", "urine", "solids"]
Kind = Literal["fresh", "grey"] | Out
OUT: tuple[Out, ...] = ("black", "urine", "solids")  # what a toilet's tank, bottle or bin holds
MOST_TRIPS = 400


class Carry(msgspec.Struct, frozen=True):
    """A thing that is carried. kg: full; times: over the days that are wanted, None where nobody said how many."""

    id: str
    name: str
    kg: float
    times: int | None


class Fills(msgspec.Struct, frozen=True):
    """One kind. room_l: of all that holds it; day_l: that comes a day, None where nobody sleeps here; days: until full (or empty).

    carries: what of it goes by hand; fixed: whether some of it does not; unsaid: names of what holds nobody knows how much.
    """

    kind: Kind
    ids: tuple[str, ...]
    room_l: float
    day_l: float | None
    days: float | None
    carries: tuple[Carry, ...]
    fixed: bool
    unsaid: tuple[str, ...]


class CarriedOut(msgspec.Struct, frozen=True):
    """All kinds aboard. holdless: ids of toilets with nothing aboard that catches what goes in."""

    fills: tuple[Fills, ...]
    wanted_days: float | None
    people: int
    holdless: tuple[str, ...]

    def of(self, kind: str) -> Fills | None:
        """One kind; None where nothing aboard holds it."""
        return next((fills for fills in self.fills if fills.kind == kind), None)


def is_carried(thing: Thing) -> bool:
    """Whether a tank is taken out by hand: said so, or a jug."""
    return thing.tank is not None and (thing.tank.carried or thing.tank.shape == "jug")


def day_l(build: Build, people: int, kind: Out) -> float:
    """Litres a day of what goes into the toilet aboard.

    Check two people who use the toilet aboard only, flush 0.4 L: urine 2.8, solids 0.7, black 2 x (1.4 + 0.15 + 2.0) = 7.1 L.
    """
    black = (0.0 if holds(build, "urine") else URINE_L) + SOLIDS_L + flushed_l(build)
    each = {"urine": URINE_L, "solids": SOLIDS_L + COVER_L, "black": black}
    return people * build.systems.water.toilet_share * each[kind]


def carried_out(s: Studied) -> CarriedOut:
    """Of a build and those who sleep in it."""
    return carried_of(s.build, sleepers(s.build, s.facts))


def carried_of(build: Build, people: int) -> CarriedOut:
    """The same for some people. Never raises: what nobody said stands at each kind."""
    water = water_of(build, people)
    comes: dict[Kind, float] = {"fresh": water.need_l_day, "grey": water.grey_l_day}
    comes |= {kind: day_l(build, people, kind) for kind in OUT}
    aboard = [t for t in build.stow.things if t.tank is not None and WARMS not in t.roles and not t.taken_out]
    made = []
    for kind, litres in comes.items():
        mine = [t for t in aboard if t.tank is not None and t.tank.contents == kind]
        if mine:
            made.append(_fills(kind, mine, litres if people else None, water.wanted_days))
    held = {fills.kind for fills in made}
    toilets = tuple(t.id for t in build.stow.things if TOILET in t.roles and not t.taken_out)
    return CarriedOut(tuple(made), water.wanted_days, people, () if held & {*OUT} else toilets)


def _litres(thing: Thing) -> float:
    return thing.tank.volume.si * 1000 if thing.tank is not None and thing.tank.volume is not None else 0.0


def _fills(kind: Kind, mine: list[Thing], daily: float | None, wanted: float | None) -> Fills:
    unsaid = tuple(t.name for t in mine if _litres(t) <= 0)
    room = sum(_litres(t) for t in mine)
    days = room / daily if daily and room > 0 and not unsaid else None
    carried = [t for t in mine if is_carried(t) and _litres(t) > 0]
    fixed_l = room - sum(_litres(t) for t in carried)
    times = (
        _times([_litres(t) for t in carried], fixed_l, daily * wanted) if daily is not None and wanted is not None and not unsaid else None
    )
    return Fills(
        kind,
        ids=tuple(t.id for t in mine),
        room_l=room,
        day_l=daily,
        days=days,
        carries=tuple(
            Carry(t.id, t.name, t.mass.si + _litres(t) / 1000 * DENSITY[kind], None if times is None else times[at])
            for at, t in enumerate(carried)
        ),
        fixed=len(carried) < len([t for t in mine if _litres(t) > 0]),
        unsaid=unsaid,
    )


def _times(each_l: list[float], fixed_l: float, all_l: float) -> list[int]:
    """How often each is carried until all of it is gone, filled in turn after what stays aboard is full; the last not quite full too."""
    times, left = [0] * len(each_l), all_l - fixed_l
    turn = sum(each_l)
    if turn <= 0 or left <= 1e-9:
        return times
    whole = min(math.floor(left / turn + 1e-9), MOST_TRIPS)
    times = [whole] * len(each_l)
    left -= whole * turn
    for at, litres in enumerate(each_l):
        if left <= 1e-9:
            break
        times[at] += 1
        left -= litres
    return times
