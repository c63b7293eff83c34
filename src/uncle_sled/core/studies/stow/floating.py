"""Which things stand over nothing on the road: their underside on no floor and no other thing, and nothing holds them."""

from __future__ import annotations

import msgspec

from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.solids import Solid, solids_in

LEAST_M = 0.05  # air under a thing that is no rounding
HANGS = {"solar", "cabinet", "charger"}  # what is screwed to a wall or roof as a rule


class Floating(msgspec.Struct, frozen=True):
    """A thing, and how high it is over the nearest that could carry it [m]."""

    id: str
    name: str
    over_m: float


def floating(s: Studied) -> tuple[Floating, ...]:
    """Things inside the body in the first towing mode. What is held, built in or outside is carried by that."""
    mode = next((mode for mode in s.build.stow.modes if mode.towing), None)
    body = s.framed.body
    if mode is None or body is None:
        return ()
    floor = body.under + thickness_m(s.build.shell, "floor")
    solids = solids_in(s.build.stow, mode)
    things = {thing.id: thing for thing in s.build.stow.things}
    made = []
    for solid in solids:
        thing = things[solid.id]
        if solid.outside or thing.inside or thing.hold or thing.held_by or thing.stays or thing.kind in HANGS:
            continue
        air = solid.low[2] - max([floor, *(other.high[2] for other in solids if _under(other, solid))])
        if air > LEAST_M and solid.low[2] > floor + LEAST_M:
            made.append(Floating(solid.id, solid.name, air))
    return tuple(made)


def _under(other: Solid, solid: Solid) -> bool:
    """Whether another thing could carry this one: it overlaps it in plan and does not end over its underside."""
    if other is solid or other.high[2] > solid.low[2] + LEAST_M:
        return False
    return all(min(solid.high[k], other.high[k]) - max(solid.low[k], other.low[k]) > 0.01 for k in (0, 1))
