"""Does each alarm hang where what it warns of comes first?

Propane and butane lie along the floor, smoke gathers under the ceiling, carbon monoxide is told where one lies: the usual rules put a gas
alarm's top within 300 mm of the floor, a smoke alarm's within 300 mm of the ceiling over it, a CO alarm no lower than those who sleep.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.roles import ALARMS
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.beds import beds_in
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.solids import TOUCH_M

LOW_M, HIGH_M = 0.30, 0.30
OFF_M = 0.02  # of floor and ceiling, where it is moved to


class AlarmPlace(msgspec.Struct, frozen=True):
    """An alarm that hangs amiss. off_m: how far; z_m: its underside where it would be right [m over the ground]."""

    id: str
    name: str
    role: str
    off_m: float
    z_m: float


def misplaced(s: Studied) -> tuple[AlarmPlace, ...]:
    """Alarms inside that hang too high or too low; none without a body."""
    room = room_of(s.build, s.facts)
    if room is None:
        return ()
    lowest_bed = _lowest_bed_m(s)
    made = []
    for thing in s.build.stow.things:
        if thing.taken_out or thing.outside:
            continue
        ceiling = room.ceiling_m(thing.x.si + standing_size_m(thing, thing.turn)[0] / 2, thing.y.si)
        if ceiling is None or ALARMS.isdisjoint(thing.roles):
            continue
        # a room's outline is larger by a touch than what is really there
        made += [place for role in thing.roles if (place := _place(thing, role, room.floor_m, ceiling - TOUCH_M, lowest_bed)) is not None]
    return tuple(made)


def _place(thing: Thing, role: str, floor_m: float, ceiling_m: float, bed_m: float | None) -> AlarmPlace | None:
    high = thing.z.si + thing.height.si
    if role == "gas alarm" and high - floor_m > LOW_M:
        return AlarmPlace(thing.id, thing.name, role, high - floor_m - LOW_M, floor_m + LOW_M - thing.height.si - OFF_M)
    if role == "smoke alarm" and ceiling_m - high > HIGH_M:
        return AlarmPlace(thing.id, thing.name, role, ceiling_m - high - HIGH_M, ceiling_m - thing.height.si - OFF_M)
    if role == "CO alarm" and bed_m is not None and high < bed_m:
        return AlarmPlace(thing.id, thing.name, role, bed_m - high, bed_m + OFF_M)
    return None


def _lowest_bed_m(s: Studied) -> float | None:
    """The lowest that anybody lies on in a mode in which one stands [m]; None where nobody lies."""
    tops = [bed.solid.high[2] for mode in s.build.stow.modes if not mode.towing for bed in beds_in(s.build, s.facts, mode)]
    return min(tops, default=None)
