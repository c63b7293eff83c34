"""Where does the hot side of an air conditioner blow, how much water does it take out of the air, and what comes back in?

Rejected: what it cools and what it draws. Condensate: three tenths of its cooling is water at 681 Wh a kilogram, in warm damp air.
Its hot side is outside where it stands outside or on the roof, or where a hole in the wall, roof or floor that it lies against is behind
it. Source: heat of evaporation; the share of water is usual of damp summers.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.studies.stow.room import Hole, room_of
from uncle_sled.core.studies.systems.bank import stands_outside
from uncle_sled.core.wiring.appliances import figures_of

COOLS = "cools the room"
OUTSIDE_ROLES = ("rides on the roof", "hangs under the floor", "hangs at the tail")
WET_SHARE, WATER_WH_KG = 0.3, 681.0
BESIDE_M = 0.10  # a hole so near to its box is behind it
BACK_M = 0.60  # an opening so near to the hot side's hole takes its warm air in again


class Cooler(msgspec.Struct, frozen=True):
    """One of them. hot: "outside", "hole" (through ``hole``), or "" where no hole of it is drawn.

    rejects_w: at its hot side, None where its figures are not known; water_l_h: while it runs, water_l_day: by its hours.
    back_in: names of openings by which the warm air comes back in.
    """

    id: str
    name: str
    hot: str
    hole: str
    rejects_w: float | None
    water_l_h: float | None
    water_l_day: float | None
    back_in: tuple[str, ...]


def wall_coolers(build: Build, facts: Facts) -> tuple[Cooler, ...]:
    """Every air conditioner aboard, in the order of the file."""
    room = room_of(build, facts)
    holes = room.holes if room is not None else ()
    made = []
    for thing in build.stow.things:
        if COOLS not in thing.roles or thing.taken_out:
            continue
        f = figures_of(thing)
        outside = stands_outside(build, thing) or bool(set(OUTSIDE_ROLES) & set(thing.roles))
        hole = None if outside else _behind(thing, holes)
        litres = f.cool_w * WET_SHARE / WATER_WH_KG if f.cool_w is not None else None
        hours = None if f.hours_day is None else f.hours_day * (1.0 if f.duty is None else f.duty)
        made.append(
            Cooler(
                thing.id,
                thing.name,
                hot="outside" if outside else "hole" if hole is not None else "",
                hole=hole.opening.name if hole is not None else "",
                rejects_w=f.cool_w + f.power_w if f.cool_w is not None and f.power_w is not None else None,
                water_l_h=litres,
                water_l_day=litres * hours if litres is not None and hours is not None else None,
                back_in=_back_in(hole, holes) if hole is not None else (),
            )
        )
    return tuple(made)


def _behind(thing: Thing, holes: tuple[Hole, ...]) -> Hole | None:
    """The hole in a wall, roof or floor that lies behind its box; None where none does. A hole's own box goes through the wall."""
    low, high = home_of(thing).corners
    for hole in holes:
        if all(high[k] > hole.low[k] - BESIDE_M and low[k] < hole.high[k] + BESIDE_M for k in range(3)):
            return hole
    return None


def _back_in(hot: Hole, holes: tuple[Hole, ...]) -> tuple[str, ...]:
    """Openings in the same face, or round its corner, within reach of the warm air."""
    return tuple(
        each.opening.name
        for each in holes
        if each is not hot and each.opening.opens and math.dist(each.mid, hot.mid) < BACK_M + (each.clear_m[0] + hot.clear_m[0]) / 2
    )
