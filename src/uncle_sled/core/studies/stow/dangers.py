"""What must not lie beside what: flames, gas, fumes, mains and cloth, room by room in every mode.

A bulkhead or a wall without a doorway parts the air; everything else inside the body shares it. Reads what a thing says of itself
(what it burns and how it breathes, what its tank holds, what it does and is in the wiring), never its name or its gas figure. Distances are screening figures (docs/methods.md).
"""

from __future__ import annotations

import math
from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Opening
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.studies.stow.beds import beds_in
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.rooms import rooms_of
from uncle_sled.core.studies.stow.solids import Solid, corners_in, solids_in
from uncle_sled.core.wiring.appliances import figures_of

DRY_UNITS = frozenset(
    {"battery", "station", "solar charger", "mains charger", "car charger", "inverter", "inverter charger", "fuse box", "inlet"}
)
WET_ROLES = frozenset({"tap or sink", "shower", "pumps water", "pumps by foot", "warms water"})
WATERS = ("fresh", "grey", "black", "urine")
CLOTH_M, WATER_M, EXTINGUISHER_M = 0.5, 0.3, 1.0

Kind = Literal[
    "bad air", "no alarm", "no alarm, sealed", "gas and flame", "vapour and flame", "flame and cloth", "mains and water", "house"
]


class Danger(msgspec.Struct, frozen=True):
    """Two things that must not be so, or one in the sleepers' air; ``says``: what of them, and how near [m]."""

    kind: Kind
    mode: str
    a: str
    b: str
    a_name: str
    b_name: str
    apart_m: float = 0.0


def is_flame(thing: Thing) -> bool:
    """Whether it burns and gives its smoke into the room it stands in."""
    return thing.burns != "none" and not thing.room_sealed


def gives_fumes(thing: Thing) -> bool:
    """Petrol in a can or in a machine's own tank, a generator, or what is said to give off fumes."""
    holds = thing.tank is not None and thing.tank.contents == "petrol"
    return thing.fumes or holds or "runs on petrol" in thing.roles or figures_of(thing).unit == "generator"


def wants_dry(thing: Thing) -> bool:
    """Mains gear, and what of the battery's volts a splash shorts: batteries, controllers, chargers, inverters, breakers."""
    return thing.near == "mains" or figures_of(thing).unit in DRY_UNITS


def is_wet(thing: Thing) -> bool:
    """Water that may run over or splash: its tanks and jugs, taps, sinks, showers and pumps."""
    holds = thing.tank is not None and thing.tank.contents in WATERS
    return holds or bool(WET_ROLES & set(thing.roles))


def stays_open(opening: Opening) -> bool:
    """An opening for air that nobody can shut."""
    return opening.kind == "vent" and opening.stays_open


def gives_gas(thing: Thing) -> bool:
    """A cylinder of gas that stands in no locker of its own."""
    return thing.tank is not None and thing.tank.contents == "gas" and not thing.room_sealed


@keep(most=12)
def dangers(build: Build, facts: Facts, mode: Mode, body: Body | None) -> tuple[Danger, ...]:
    """Everything that must not be so in a mode, the worst kinds first. Args: body: the body framed; None without one."""
    if body is None:
        return ()
    things = {thing.id: thing for thing in build.stow.things}
    inside = [solid for solid in solids_in(build.stow, mode) if _is_inside(solid, body)]
    # what leaks goes under a door; what warns is not heard through a shut one
    air, shut = rooms_of(build.shell, body, shut=False), rooms_of(build.shell, body, shut=True)
    rooms = {solid.id: air.of_solid(solid) for solid in inside}
    sleepers = [bed.solid for bed in beds_in(build, facts, mode)] if not mode.towing else []
    beds = {air.of_solid(bed): bed for bed in sleepers}
    sleep_in = {shut.of_solid(bed) for bed in sleepers}
    alarm = any("CO alarm" in things[solid.id].roles and shut.of_solid(solid) in sleep_in for solid in inside)
    found = _in_the_air(mode, inside, things, rooms, beds, build, alarm)
    found += _pairs(mode, inside, things, rooms)
    if build.brief.lived_in and not mode.towing:
        found += _as_a_house(mode, inside, things, build, facts)
    return tuple(found)


def _is_inside(solid: Solid, body: Body) -> bool:
    middle = (solid.low[0] + solid.high[0]) / 2
    return not solid.outside and body.front < middle < body.front + body.length and solid.high[2] > body.under


def _in_the_air(
    mode: Mode, inside: list[Solid], things: dict[str, Thing], rooms: dict[str, int], beds: dict[int, Solid], _build: Build, alarm: bool
) -> list[Danger]:
    """Fumes, gas and flames where people sleep. Args: alarm: whether one warns in the room of a bed."""
    found = []
    for solid in inside:
        bed = beds.get(rooms[solid.id])
        if bed is None:
            continue
        thing = things[solid.id]
        if gives_fumes(thing) or gives_gas(thing):
            found.append(Danger("bad air", mode.id, solid.id, bed.id, solid.name, bed.name))
        if thing.burns != "none" and not alarm:
            kind: Kind = "no alarm" if is_flame(thing) else "no alarm, sealed"
            found.append(Danger(kind, mode.id, solid.id, bed.id, solid.name, bed.name))
    return found


def _pairs(mode: Mode, inside: list[Solid], things: dict[str, Thing], rooms: dict[str, int]) -> list[Danger]:
    """Two things too near, or in one air."""
    found = []
    flames = [box for box in inside if things[box.id].burns != "none"]
    wet = [box for box in inside if is_wet(things[box.id])]
    corners = corners_in(tuple(wet))
    for solid in inside:
        thing = things[solid.id]
        gas, fumes, cloth = thing.vents_gas or gives_gas(thing), gives_fumes(thing), thing.near == "cloth"
        for flame in flames if gas or fumes or cloth else ():
            if flame is solid or rooms[flame.id] != rooms[solid.id]:
                continue
            far = apart_m(solid, flame)
            if gas and not things[flame.id].room_sealed:
                found.append(Danger("gas and flame", mode.id, a=solid.id, b=flame.id, a_name=solid.name, b_name=flame.name, apart_m=far))
            if fumes:
                found.append(Danger("vapour and flame", mode.id, a=solid.id, b=flame.id, a_name=solid.name, b_name=flame.name, apart_m=far))
            if cloth and far < CLOTH_M and not things[flame.id].room_sealed:
                found.append(Danger("flame and cloth", mode.id, a=flame.id, b=solid.id, a_name=flame.name, b_name=solid.name, apart_m=far))
        if wants_dry(thing):
            clear = np.maximum(corners[:, 0] - np.array(solid.high), np.array(solid.low) - corners[:, 1]).max(axis=1, initial=0.0)
            for other in [wet[at] for at in np.flatnonzero(clear <= WATER_M).tolist()]:  # of hundreds those that may be near
                if other is solid or rooms[other.id] != rooms[solid.id]:
                    continue
                far, source = apart_m(solid, other), things[other.id]
                # where in a cabinet its sink is nobody said: only what stands in it is under it
                near = far <= 0.0 if source.kind == "cabinet" and source.tank is None else far < WATER_M
                if near:
                    found.append(
                        Danger("mains and water", mode.id, a=solid.id, b=other.id, a_name=solid.name, b_name=other.name, apart_m=far)
                    )
    return found


def _as_a_house(mode: Mode, inside: list[Solid], things: dict[str, Thing], build: Build, facts: Facts) -> list[Danger]:
    """What a lived-in room with a flame wants beside it: an alarm, air low and high, an extinguisher at the way out."""
    flame = next((solid for solid in inside if is_flame(things[solid.id])), None)
    if flame is None:
        return []
    wants = []
    if not any("CO alarm" in things[solid.id].roles for solid in inside):
        wants.append("a CO alarm")
    air = build.systems.air
    if sum(stays_open(opening) for opening in build.shell.openings) < 2 and not (air.high_cm2 and air.low_cm2):
        wants.append("an opening low and one high that stay open")
    room = room_of(build, facts, mode)
    doors = [hole.mid for hole in room.holes if hole.opening.kind == "door"] if room is not None else []
    at_hand = [
        solid
        for solid in inside
        if "extinguisher" in things[solid.id].roles and any(math.dist(_middle(solid)[:2], door[:2]) < EXTINGUISHER_M for door in doors)
    ]
    if not at_hand:
        wants.append("an extinguisher within {1 m} of the door")
    return [Danger("house", mode.id, flame.id, want, flame.name, want) for want in wants]


def _middle(solid: Solid) -> tuple[float, float, float]:
    x, y, z = ((solid.low[k] + solid.high[k]) / 2 for k in range(3))
    return x, y, z


def apart_m(a: Solid, b: Solid) -> float:
    """Distance of two boxes [m], 0 where they touch or overlap."""
    return math.hypot(*(max(a.low[k] - b.high[k], b.low[k] - a.high[k], 0.0) for k in range(3)))
