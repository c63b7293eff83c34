"""Does each alarm hang where what it warns of comes first?

Propane and butane lie along the floor, smoke gathers under the ceiling, carbon monoxide is told where one lies: the usual rules put a gas
alarm's top within 300 mm of the floor, a smoke alarm's within 300 mm of the ceiling over it, a CO alarm no lower than those who sleep.
"""

from __future__ import annotations

import msgspec
from shapely.geometry import LineString

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.beds import beds_in

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
    body = s.framed.body
    if body is None:
        return ()
    shape = inside_of(s.build.shell, body)
    lowest_bed = _lowest_bed_m(s)
    made = []
    for thing in s.build.stow.things:
        if thing.taken_out or thing.outside:
            continue
        along = thing.length.si if thing.turn % 180 == 0 else thing.width.si
        x = thing.x.si + along / 2
        column = shape.intersection(LineString(((x, -10.0), (x, 20.0))))
        if column.is_empty:
            continue
        _, floor, _, ceiling = column.bounds
        made += [place for role in thing.roles if (place := _place(thing, role, floor, ceiling, lowest_bed)) is not None]
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
