"""How much free air does the back of a built-in fridge want, low and high, to be rid of its heat?

While it runs it gives off what it takes and what it lifts: P (1 + COP), with 1.3 of a small compressor and 0.2 of an absorber, whose
P is its burner's or its heating rod's. Air rises through two equal openings h apart: Q = 0.61 A/sqrt 2 x sqrt(2 g h dT/T), carries
rho cp Q dT, and may be 10 K warmer where it leaves. Source: stack effect; what its papers ask goes first.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.studies.systems.bank import stands_outside
from uncle_sled.core.studies.systems.by_walls import gaps_m
from uncle_sled.core.studies.systems.gas import KWH_KG
from uncle_sled.core.studies.systems.heat import AIR_WH_M3K
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.wiring.appliances import figures_of

COLD = "keeps food cold"
COP_COMPRESSOR, COP_ABSORBER = 1.3, 0.2
RISE_K, ROOM_K = 10.0, 293.0
AIR_J_M3K = AIR_WH_M3K * 3600
FLOWS = 0.61  # of an opening
CLOSE_M, SIDES_SHUT, COVERED = 0.06, 3, 0.5  # nearer than this a side is shut; so many shut make it built in; over so much of it
LEAST_HIGH_M = 0.2


class Slots(msgspec.Struct, frozen=True):
    """A fridge. heat_w: while it runs, None where its power is not known; wanted_cm2: of each opening; there_cm2: typed, None: nobody said.

    built_in: whether three of its sides are shut by walls or other things; absorber: its heat is a flame's or a rod's.
    """

    id: str
    name: str
    heat_w: float | None
    high_m: float
    wanted_cm2: float | None
    there_cm2: float | None
    built_in: bool
    absorber: bool

    @property
    def short(self) -> bool:
        """Whether less is open than it wants."""
        return self.wanted_cm2 is not None and self.there_cm2 is not None and self.there_cm2 < self.wanted_cm2 - 0.5


def heat_w(thing: Thing) -> tuple[float | None, bool]:
    """What it gives off while it runs [W], and whether it is an absorber. Check 45 W compressor: 103.5 W; 9 g/h of gas: 139 W."""
    f = figures_of(thing)
    absorber = thing.burns == "gas" or bool(f.gas_g_h)
    taken = max([watts for watts in (f.power_w, f.gas_g_h * KWH_KG["gas"] if f.gas_g_h else None) if watts is not None], default=None)
    if taken is None:
        return None, absorber
    return taken * (1 + (COP_ABSORBER if absorber else COP_COMPRESSOR)), absorber


def wanted_cm2(heat: float, high_m: float) -> float:
    """Of each of two equal openings [cm2]. Check 103.5 W, 0.5 m: 345 cm2; four times the height halves it."""
    speed = FLOWS / math.sqrt(2) * math.sqrt(2 * GRAVITY * high_m * RISE_K / ROOM_K)
    return heat / (AIR_J_M3K * RISE_K * speed) * 1e4


def fridge_slots(build: Build, framed: Framed) -> tuple[Slots, ...]:
    """Every fridge and cool box with a machine that stands inside."""
    made = []
    for thing in build.stow.things:
        f = figures_of(thing)
        runs = f.power_w is not None or f.amps is not None or bool(f.gas_g_h) or thing.burns == "gas"
        if COLD not in thing.roles or thing.taken_out or stands_outside(build, thing) or not runs:
            continue
        heat, absorber = heat_w(thing)
        high = max(thing.height.si, LEAST_HIGH_M)
        made.append(
            Slots(
                thing.id,
                thing.name,
                heat_w=heat,
                high_m=high,
                wanted_cm2=wanted_cm2(heat, high) if heat is not None else None,
                there_cm2=f.slot_cm2,
                built_in=f.slot_cm2 is not None or is_built_in(build, framed, thing),
                absorber=absorber,
            )
        )
    return tuple(made)


def is_built_in(build: Build, framed: Framed, thing: Thing) -> bool:
    """Whether it is built into something, or three of its upright sides are shut by walls or by what stands beside it."""
    if thing.inside is not None:
        return True
    shut = {face for face, gap in gaps_m(build.shell, framed, thing).items() if gap < CLOSE_M}
    low, high = home_of(thing).corners
    size = [high[k] - low[k] for k in range(3)]
    for other in build.stow.things:
        if other.id == thing.id or other.taken_out or other.outside or other.inside == thing.id:
            continue
        least, most = home_of(other).corners
        over = [(min(high[k], most[k]) - max(low[k], least[k])) / max(size[k], 1e-9) for k in range(3)]  # share of its side that is covered
        if over[2] < COVERED:
            continue
        for axis, before, behind in ((0, "front", "rear"), (1, "left side", "right side")):
            if over[1 - axis] < COVERED:
                continue
            if abs(low[axis] - most[axis]) < CLOSE_M:
                shut.add(before)
            if abs(least[axis] - high[axis]) < CLOSE_M:
                shut.add(behind)
    return len(shut) >= SIDES_SHUT
