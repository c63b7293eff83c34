"""What wires, pipes and gas want besides themselves: fuses with holders, breakers by their poles, lugs, clips, conduit, glands, clamps.

Counted from what is laid: a fuse where one sits, a lug at each core that ends on a bolt, a clip every 300 mm, conduit where a wire runs
under the floor, a gland where one goes out of the body. Usual counts of the trade; a licensed person says what the place wants.
"""

from __future__ import annotations

import itertools
import math
from collections import Counter

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.studies.systems.bank import stands_outside
from uncle_sled.core.studies.systems.water import TAP, WARMS
from uncle_sled.core.wiring.wired import CORES, Laid, Wired, spots_of
from uncle_sled.core.words import count_of

CLIP_M, SHRINK_M, PIPE_CLIP_M = 0.30, 0.04, 0.50
BLADE_MOST_A = 40.0
BOLTED = ("battery", "bus bar", "main switch", "shunt", "inverter", "inverter charger", "earth stud")  # ends with a bolt for each core
MORE = 1.1
THICK_MM2 = 10.0  # from here on every end is a lug
SPARE = 1  # of each blade fuse


class SmallPart(msgspec.Struct, frozen=True):
    """Something to buy. of: its line of the price table; need in ``unit``, sold in packs of so many; why: what it is counted from."""

    id: str
    name: str
    of: str
    unit: str
    need: float
    pack: float
    why: str


def small_parts(build: Build, wired: Wired) -> tuple[SmallPart, ...]:
    """All of them; none where nothing is wired, holds water or burns gas."""
    return (*_guards(wired), *_ends(wired), *_ways(build, wired), *_water(build), *_gas(build))


def _guards(wired: Wired) -> list[SmallPart]:
    """Fuses by size, with a holder where they do not sit in a fuse box; breakers of mains by size and poles."""
    blades: Counter[tuple[float, bool]] = Counter()
    holders = 0
    bolted: Counter[float] = Counter()
    breakers: Counter[tuple[float, int]] = Counter()
    poles = 2 if wired.net.mains >= 200 else 1
    for wire in wired.wires:
        sides = {"start": (wire.start,), "end": (wire.end,), "both": (wire.start, wire.end)}.get(wire.fused, ())
        if wire.fuse_a is None or wire.kind == "earth":
            continue
        for side in sides:
            if wire.kind == "AC":
                breakers[wire.fuse_a, poles] += 1
            elif wire.fuse_a <= BLADE_MOST_A:
                blades[wire.fuse_a, wire.slow] += 1
                holders += wired.net.ends[side].kind != "fuse box"
            else:
                bolted[wire.fuse_a] += 1
    made = [
        SmallPart(
            f"fuse {amps:g}{' slow' if slow else ''}",
            f"Blade fuses {amps:g} A{', slow' if slow else ''}",
            "fuse",
            "pieces",
            many + SPARE,
            1.0,
            f"{many} laid, and a spare",
        )
        for (amps, slow), many in sorted(blades.items())
    ]
    if holders:
        made.append(
            SmallPart("fuse holders", "Holders for blade fuses, in line", "fuse holder", "pieces", holders, 1.0, "not in a fuse box")
        )
    made += [
        SmallPart(
            f"fuse bolted {amps:g}",
            f"Bolt-down fuse {amps:g} A",
            "fuse bolted",
            "pieces",
            many,
            1.0,
            "its type by what a short draws, see Sizes",
        )
        for amps, many in sorted(bolted.items())
    ]
    if bolted:
        made.append(
            SmallPart(
                "fuse holders bolted",
                "Covered holders for bolt-down fuses",
                "fuse holder bolted",
                "pieces",
                bolted.total(),
                1.0,
                "one each",
            )
        )
    made += [
        SmallPart(
            f"breaker {amps:g} {pole}",
            f"Breaker {amps:g} A, {pole} {'poles' if pole > 1 else 'pole'}",
            "breaker",
            "pieces",
            many,
            1.0,
            "parts line and neutral" if pole > 1 else "of the hot wire",
        )
        for (amps, pole), many in sorted(breakers.items())
    ]
    return made


def _ends(wired: Wired) -> list[SmallPart]:
    """Ring lugs for ends on a bolt and sleeves for all others, by the wire's size; heat-shrink over every lug."""
    rings: Counter[tuple[float, str]] = Counter()
    sleeves: Counter[tuple[float, str]] = Counter()
    for wire in wired.wires:
        if wire.mm2 is None:
            continue
        for side in (wire.start, wire.end):
            kind = wired.net.ends[side].kind
            if kind == "panel":
                continue  # comes with its own plugs
            (rings if kind in BOLTED or wire.mm2 >= THICK_MM2 else sleeves)[wire.mm2, wire.gauge] += CORES.get(wire.kind, 2)
    made = [
        SmallPart(f"lugs {gauge}", f"Ring lugs {gauge}", "lug", "pieces", many, 10.0 if mm2 <= 6.0 else 1.0, "a core's end on a bolt")
        for (mm2, gauge), many in sorted(rings.items())
    ]
    made += [
        SmallPart(
            f"sleeves {gauge}", f"Sleeves {gauge}", "sleeve", "pieces", many, 20.0, "sleeves or push-on ends: a core’s end in a clamp"
        )
        for (_, gauge), many in sorted(sleeves.items())
    ]
    many = sum(rings.values())
    if many:
        made.append(
            SmallPart("shrink", "Heat-shrink with glue", "shrink", "m", many * SHRINK_M * MORE, 1.0, f"over {count_of(many, 'lug')}")
        )
    return made


def under_floor_m(wire: Laid, floor_m: float) -> float:
    """How much of a wire's way lies under the floor [m]."""
    return sum(math.dist(a, b) for a, b in itertools.pairwise(wire.points) if (a[2] + b[2]) / 2 < floor_m - 1e-6)


def _ways(build: Build, wired: Wired) -> list[SmallPart]:
    """Clips along all of it, conduit under the floor, glands where one end is outside and the other is not."""
    made = []
    long = sum(wire.length_m for wire in wired.wires)
    if long > 0:
        made.append(SmallPart("clips", "Clips for wires", "clip", "pieces", math.ceil(long / CLIP_M), 50.0, "one in {300 mm}"))
    floor = build.shell.floor
    if floor is not None and build.shell.form != "none":
        under = sum(under_floor_m(wire, floor.si) for wire in wired.wires)
        if under > 0.05:
            made.append(SmallPart("conduit", "Conduit", "conduit", "m", under * MORE, 2.0, "wires under the floor, a tenth more"))
        out = {thing.id for thing in build.stow.things if stands_outside(build, thing)}
        crossing = sum((wire.start in out) != (wire.end in out) for wire in wired.wires)
        cut = sum(opening.kind == "gland" for opening in build.shell.openings)
        if crossing > cut:
            made.append(
                SmallPart("glands", "Glands through the wall", "gland", "pieces", crossing - cut, 1.0, "wires from inside to outside")
            )
    return made


def _water(build: Build) -> list[SmallPart]:
    """Hose clamps at both sides of every piece of hose, a trap under each sink."""
    wet = [
        thing
        for thing in build.stow.things
        if not thing.taken_out
        and ((thing.tank is not None and thing.tank.contents == "fresh") or {TAP, WARMS, "pumps water", "pumps by foot"} & set(thing.roles))
    ]
    made = []
    if len(wet) > 1:
        clamps = 2 * (len(wet) - 1)
        made.append(
            SmallPart("hose clamps", "Hose clamps", "hose clamp", "pieces", clamps, 10.0, f"both ends of {count_of(len(wet) - 1, 'hose')}")
        )
    sinks = sum(TAP in thing.roles and not thing.taken_out for thing in build.stow.things)
    drain = build.systems.water.drain_length
    if sinks and drain is not None:
        made.append(SmallPart("traps", "Traps with waste", "trap", "pieces", sinks, 1.0, "one under each sink"))
        made.append(SmallPart("drain hose", "Drain hose", "hose", "m", drain.si * MORE, 1.0, "sink to grey, a tenth more"))
    return made


def _gas(build: Build) -> list[SmallPart]:
    """A regulator with its hose for the cylinders, a valve and pipe for each that burns; a licensed person fits and tests them."""
    things = [thing for thing in build.stow.things if not thing.taken_out]
    bottles = [thing for thing in things if thing.tank is not None and thing.tank.contents == "gas"]
    burners = [thing for thing in things if thing.burns == "gas"]
    if not bottles or not burners:
        return []

    spots = spots_of(build)
    pipe = sum(sum(abs(a - b) for a, b in zip(spots[bottles[0].id], spots[burner.id], strict=True)) for burner in burners)
    by = "a licensed person fits and tests it"
    return [
        SmallPart("gas regulator", "Gas regulator with hose", "gas regulator", "pieces", 1.0, 1.0, by),
        SmallPart("gas valves", "Gas valves", "gas valve", "pieces", float(len(burners)), 1.0, f"one for each that burns; {by}"),
        SmallPart(
            "gas pipe", "Gas pipe", "gas pipe", "m", pipe * MORE, 1.0, f"cylinder to each burner along the walls, a tenth more; {by}"
        ),
        SmallPart("gas clips", "Clips for gas pipe", "clip", "pieces", math.ceil(pipe * MORE / PIPE_CLIP_M), 10.0, "one in {500 mm}"),
    ]
