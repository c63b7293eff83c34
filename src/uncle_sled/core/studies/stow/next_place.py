"""Where does a new thing go first: by its kind, and on nobody's toes?

Inside on the floor, cabinets along the emptier wall, water by the axle, the stove of a low body at its tail, the others
nearest the middle; on the roof one behind the other; awnings along the wall under the roof's edge; the rest of what is outside on the drawbar. Where nothing is free the
usual place is given, and the clash is said like any other.
"""

from __future__ import annotations

import numpy as np
from msgspec.structs import replace

from uncle_sled.core.document.placing import on_roof
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.roles import ALARMS
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import Body, section_points, sectioned
from uncle_sled.core.parts.all_parts import axle_middle_m
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.parts.heights import frame_top_m
from uncle_sled.core.studies.stow.alarm_places import OFF_M
from uncle_sled.core.studies.stow.at_hand import WALK_IN_M
from uncle_sled.core.studies.stow.free_places import free_places
from uncle_sled.core.studies.stow.room import Room, floor_m, room_of
from uncle_sled.core.studies.stow.solids import TOUCH_M, solids_in

AT_WALLS = ("cabinet", "appliance", "bed", "tank", "furniture")
STEP_M = 0.05
LARGER_M = 0.1  # a mattress may be larger than its bed by so much
CLEAR_M = 0.1  # between a tyre and what hangs beside it

OVER_M, AT_HAND_M = 0.30, 0.70  # over who lies; where nobody lies yet

Spot = tuple[float, float, float]


def reaches_out(thing: Thing) -> float:
    """Which way its other form reaches out from the wall, -1 left or +1 right, as an awning does; 0 where none does."""
    aside = [state.dy.si for state in thing.states if state.dy is not None and state.dy.si]
    return float(np.sign(aside[0])) if thing.outside and aside else 0.0


def usual_place(build: Build, framed: Framed, thing: Thing) -> Spot:
    """Front edge, middle and underside [m] without a look at what stands there."""
    long, _, _ = standing_size_m(thing, thing.turn)
    body = framed.body
    if on_roof(thing) and body is not None:
        return body.front + (body.length - long) / 2, 0.0, body.under + body.height
    if "hangs at the tail" in thing.roles and body is not None:
        return body.front + body.length, 0.0, body.under
    if "hangs under the floor" in thing.roles and body is not None:
        return _under_the_floor(build, body, thing)
    if thing.outside:
        return 0.6, 0.0, frame_top_m(build)
    middle = body.front + body.length / 2 if body is not None else (build.rig.axles[0].station.si if build.rig.axles else 2.0)
    return middle - long / 2, 0.0, floor_m(build)


def next_place(build: Build, facts: Facts, framed: Framed, thing: Thing) -> Spot:
    """The next free place of a new thing: front edge, middle and underside [m]."""
    usual = usual_place(build, framed, thing)
    if on_roof(thing):
        return _on_the_roof(build, framed, thing, usual)
    if reaches_out(thing) and framed.body is not None:
        return _along_the_wall(build, facts, framed.body, thing)
    room = room_of(build, facts)
    if room is not None and not thing.outside:
        long = standing_size_m(thing, thing.turn)[0]
        axle = axle_middle_m(build.rig)
        if axle is not None and thing.tank is not None and thing.tank.contents not in ("gas", "petrol", "diesel"):
            usual = (axle - long / 2, *usual[1:])  # full or empty it changes the ball least there
        elif _in_galley(thing, room):
            usual = (room.span_m[1] - long, *usual[1:])
        usual = (*usual[:2], _hangs_m(build, thing, room, usual))
    base = _free_base(build, thing)
    if base is not None:
        return base
    if thing.outside and {"hangs at the tail", "hangs under the floor"} & {*thing.roles}:
        return _beside_all(build, thing, usual)
    there = _at(thing, usual)
    free = free_places(build, there, room, keeps_clear=True)
    if not len(free.x_m):
        return _beside_all(build, thing, usual) if room is None or thing.outside else _within(framed.body, build, thing, usual)
    far = np.abs(free.x_m - usual[0]) + np.abs(free.y_m - usual[1]) + 3 * np.abs(free.z_m - usual[2])
    if not thing.outside and (thing.kind in AT_WALLS or not ALARMS.isdisjoint(thing.roles)):
        side = _emptier_side(build)
        # as near the wall as it goes on that side; the middle of the body first
        far = np.abs(free.x_m - usual[0]) - 4.0 * side * free.y_m + 3 * np.abs(free.z_m - usual[2])
    at = int(np.argmin(far))
    return float(free.x_m[at]), float(free.y_m[at]), float(free.z_m[at])


def _hangs_m(build: Build, thing: Thing, room: Room, usual: Spot) -> float:
    """Underside [m]: an alarm for smoke under the ceiling, for carbon monoxide over those who lie, all else where it is usual."""
    ceiling = room.ceiling_m(usual[0])
    high = thing.height.si
    if ceiling is None or ALARMS.isdisjoint(thing.roles):
        return usual[2]
    top = ceiling - high - OFF_M
    if "smoke alarm" in thing.roles:
        return top
    if "CO alarm" in thing.roles:
        lie = [other.z.si + other.height.si for other in build.stow.things if other.kind == "bed" or "mattress" in other.roles]
        return min(max([*lie, room.floor_m + AT_HAND_M]) + OVER_M, top)
    return usual[2]


def _free_base(build: Build, thing: Thing) -> Spot | None:
    """On a bed that has no mattress yet and is as large, a mattress lies."""
    if "mattress" not in thing.roles:
        return None
    lie = [aboard for aboard in build.stow.things if "mattress" in aboard.roles]
    for bed in build.stow.things:
        if bed.kind != "bed" or "mattress" in bed.roles or bed.outside or bed.taken_out:
            continue
        top = bed.z.si + bed.height.si
        covered = any(abs(m.z.si - top) < 0.1 and abs(m.x.si - bed.x.si) < 0.3 and abs(m.y.si - bed.y.si) < 0.3 for m in lie)
        if not covered and bed.length.si >= thing.length.si - LARGER_M and bed.width.si >= thing.width.si - LARGER_M:
            return bed.x.si + (bed.length.si - thing.length.si) / 2, bed.y.si, top
    return None


def _under_the_floor(build: Build, body: Body, thing: Thing) -> Spot:
    """Beside the frame behind the wheels, its top at the body's underside; before them where there is no room behind."""
    long, wide, high = standing_size_m(thing, thing.turn)
    last = max((axle.station.si for axle in build.rig.axles), default=body.front)
    first = min((axle.station.si for axle in build.rig.axles), default=body.front)
    wheel = (build.rig.tyre.diameter.si if build.rig.tyre.diameter is not None else 0.65) / 2 + CLEAR_M
    behind = last + wheel + long <= body.front + body.length
    x = last + wheel if behind else max(first - wheel - long, body.front)
    return x, -(body.width - wide) / 2, max(body.under - high, 0.0)


def _within(body: Body | None, build: Build, thing: Thing, usual: Spot) -> Spot:
    """Where nothing is free: still between the walls, in the way of something, which is said; never through a wall."""
    if body is None:
        return usual
    long, wide, _ = standing_size_m(thing, thing.turn)
    wall = build.shell.wall.si if build.shell.wall is not None else 0.0
    front, rear = body.front + wall, body.front + body.length - wall
    side = max(body.width / 2 - wall - wide / 2, 0.0)
    x = min(max(usual[0], front), max(rear - long, front))
    return x, min(max(usual[1], -side), side), usual[2]


def _in_galley(thing: Thing, room: Room) -> bool:
    """In a body too low to stand in one cooks from outside, at the tail."""
    left, right = room.span_m
    top = room.ceiling_m((left + right) / 2)
    low = top is not None and top - room.floor_m < WALK_IN_M
    return low and (thing.burns != "none" or (thing.kind == "appliance" and thing.figures is not None))


def _at(thing: Thing, spot: Spot) -> Thing:
    x, y, z = spot
    return replace(thing, x=Length(x), y=Length(y), z=Length(z))


def _emptier_side(build: Build) -> float:
    """+1 for right, -1 for left: the side that carries less, the left where they are even."""
    roll = sum(thing.mass.si * thing.y.si for thing in build.stow.things if not thing.outside and not thing.taken_out)
    return 1.0 if roll < -1e-6 else -1.0


def _taken(build: Build) -> list[tuple[tuple[float, float, float], tuple[float, float, float]]]:
    mode = next((mode for mode in build.stow.modes if mode.towing), build.stow.modes[0])
    return [(solid.low, solid.high) for solid in solids_in(build.stow, mode)]


def _free(box: tuple[Spot, Spot], taken: list[tuple[Spot, Spot]]) -> bool:
    return not any(all(box[0][k] < high[k] - TOUCH_M and box[1][k] > low[k] + TOUCH_M for k in range(3)) for low, high in taken)


def _on_the_roof(build: Build, framed: Framed, thing: Thing, usual: Spot) -> Spot:
    """On the roof's height, in the middle first and then in steps to front and rear."""
    long, wide, high = standing_size_m(thing, thing.turn)
    body, taken = framed.body, _taken(build)
    if body is None:
        return usual
    run = np.arange(body.front, max(body.front + body.length - long, body.front) + 1e-9, STEP_M)
    for x in sorted(run.tolist(), key=lambda x: abs(x - usual[0])):
        if _free(((x, -wide / 2, usual[2]), (x + long, wide / 2, usual[2] + high)), taken):
            return x, 0.0, usual[2]
    return usual


def _along_the_wall(build: Build, facts: Facts, body: Body, thing: Thing) -> Spot:
    """Outside on the wall that it reaches out from, as high as the roof's edge lets it, in the middle first."""
    long, wide, high = standing_size_m(thing, thing.turn)
    room, taken = room_of(build, facts), _taken(build)
    y = reaches_out(thing) * (body.width / 2 + wide / 2)
    last = max(body.front + body.length - long, body.front)
    middle = body.front + (body.length - long) / 2

    def under(x: float) -> float:
        if sectioned(build.shell):
            points = section_points(build.shell, body)
            return body.under + (points[1] if y < 0 else points[-2])[1]
        ends = [room.roof_m(at) for at in (x, x + long / 2, x + long)] if room is not None else []
        known = [end for end in ends if end is not None]
        return min(known) if known else body.under + body.height

    run = np.arange(body.front, last + 1e-9, STEP_M).tolist()
    for x in sorted(run, key=lambda x: abs(x - middle)):
        z = under(x) - high
        if _free(((x, y - wide / 2, z), (x + long, y + wide / 2, z + high)), taken):
            return x, y, z
    return middle, y, under(middle) - high


def _beside_all(build: Build, thing: Thing, usual: Spot) -> Spot:
    """Without a room to look at: behind whatever stands in the way, in the same row."""
    long, wide, high = standing_size_m(thing, thing.turn)
    taken, x = _taken(build), usual[0]
    for _ in range(200):
        if _free(((x, -wide / 2, usual[2]), (x + long, wide / 2, usual[2] + high)), taken):
            return x, 0.0, usual[2]
        x += STEP_M
    return usual
