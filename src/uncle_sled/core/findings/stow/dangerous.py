"""Judgements on what must not lie beside what, and what must not be in the sleepers' air."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from msgspec.structs import replace

from uncle_sled.core.document.edits import Op, add_to, fresh_id
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.finding import Finding, Severity
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.beds import Bed, beds_in
from uncle_sled.core.studies.stow.dangers import CLOTH_M, WATER_M, Danger, dangers
from uncle_sled.core.studies.stow.free_places import free_places
from uncle_sled.core.studies.stow.room import Room, room_of
from uncle_sled.core.words import Words, lower_first, upper_first

SOURCE = "the usual habit with flames, gas and mains; licensed people decide"  # of every rule here, said after its reason

ALARM_M = (0.10, 0.12, 0.04)
OVER_BED_M = 0.45  # over what one lies on, at the bed's head
NOUGHT = Length(0.0)
ALARM = Thing(
    "new alarm",
    "CO alarm",
    kind="gear",
    length=Length(ALARM_M[0]),
    width=Length(ALARM_M[1]),
    height=Length(ALARM_M[2]),
    x=NOUGHT,
    y=NOUGHT,
    z=NOUGHT,
    mass=Mass(0.2),
)


def _hang_alarm(s: Studied, _finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """A CO alarm over the bed in whose air it burns, where nothing else is in any mode; None where no such place is."""
    build = s.build
    room = room_of(build, s.facts)
    for mode in build.stow.modes:
        for bed in beds_in(build, s.facts, mode) if not mode.towing else ():
            hung = _over(s, bed, room)
            if hung is None:
                continue
            at = {"x": hung[0], "y": hung[1], "z": hung[2]}
            sizes = dict(zip(("length", "width", "height"), ALARM_M, strict=True))
            record = {
                "id": fresh_id("t", [t.id for t in build.stow.things]),
                "name": ALARM.name,
                "kind": "gear",
                "roles": ["CO alarm"],
                "mass": {"si": 0.2},
                "source": "estimated",
                "hold": {"kind": "bolt", "many": 2, "rated": {"si": 10.0}},
                **{k: {"si": round(v, 4)} for k, v in {**sizes, **at}.items()},
            }
            return (add_to("stow.things", record),), f"Hang a CO alarm over {lower_first(bed.name)}"
    return None


def _over(s: Studied, bed: Bed, room: Room | None) -> tuple[float, float, float] | None:
    """A free place over a bed [m], front edge, middle and underside: as high as it goes, then nearest the bed's front end."""
    low, high = bed.solid.low, bed.solid.high
    head = bed.head_room_m if bed.head_room_m is not None else OVER_BED_M + ALARM_M[2]
    for share in (1.0, 0.75, 0.5, 0.25):
        z = round(high[2] + max(min(OVER_BED_M, head - 2 * ALARM_M[2]) * share, 0.05), 4)
        there = replace(ALARM, x=Length(low[0] + 0.1), y=Length((low[1] + high[1]) / 2), z=Length(z))
        free = free_places(s.build, there, room, keeps_clear=True)
        over = (free.x_m >= low[0]) & (free.x_m + ALARM_M[0] <= high[0]) & (np.abs(free.y_m - there.y.si) < (high[1] - low[1]) / 2)
        spots = np.stack([free.x_m, free.y_m, free.z_m], axis=1)[over & (np.abs(free.z_m - z) < 1e-6)]
        if len(spots):
            near = spots[np.argmin(np.abs(spots[:, 0] - there.x.si) + np.abs(spots[:, 1] - there.y.si))]
            return float(near[0]), float(near[1]), float(near[2])
    return None


CAUTION = "Screening only: makers, gas and electrical fitters and local rules decide."
APART = "Move one of the two, or part them by a closed bulkhead."
BAD_AIR = Rule(
    "bad-air",
    "stop",
    stop="Stow",
    when="Petrol, a generator or an open gas cylinder in the sleepers' air",
    why="Vapour and gas gather along the floor and find a spark; fumes are not smelt asleep.",
    caution=CAUTION,
    why_none="Stow it outside, in a locker that drains outside, or behind a closed bulkhead.",
)
NO_ALARM = Rule(
    "no-alarm",
    "stop",
    "Stow",
    "Something that burns where people sleep, and no CO alarm",
    "Carbon monoxide is not smelt; who sleeps does not wake.",
    CAUTION,
    helps="edit",
    cure=lambda s, finding: _hang_alarm(s, finding),
    after=lambda _s, _finding: "it warns where they sleep",
)
GAS_AND_FLAME = Rule(
    "gas-and-flame",
    "mind",
    stop="Stow",
    when="Gas and a flame in one air",
    why="What leaks or is vented lights at the flame.",
    caution=CAUTION,
    why_none=APART,
)
VAPOUR_AND_FLAME = Rule(
    "vapour-and-flame",
    "stop",
    stop="Stow",
    when="Petrol or its fumes and a flame in one air",
    why="Vapour creeps along the floor to the flame.",
    caution=CAUTION,
    why_none=APART,
)
FLAME_AND_CLOTH = Rule(
    "flame-and-cloth",
    "mind",
    stop="Stow",
    when="Cloth nearer than half a metre to a flame",
    why="It falls, blows or scorches.",
    caution=CAUTION,
    why_none=APART,
)
MAINS_AND_WATER = Rule(
    "mains-and-water",
    "mind",
    stop="Stow",
    when="Mains, battery or charging gear nearer than {0.3 m} to water, or under a sink",
    why="A tank that splits, a trap or a tap that drips wets it.",
    caution=CAUTION,
    why_none=APART,
)
HOUSE_FLAME = Rule(
    "house-flame",
    "mind",
    stop="Stow",
    when="A lived-in room with a flame lacks what a house would have",
    why="One who lives there sleeps beside it every night.",
    caution=CAUTION,
    why_none="Put it in, each on its place.",
)
BY_KIND = {
    "bad air": BAD_AIR,
    "no alarm": NO_ALARM,
    "no alarm, sealed": NO_ALARM,
    "gas and flame": GAS_AND_FLAME,
    "vapour and flame": VAPOUR_AND_FLAME,
    "flame and cloth": FLAME_AND_CLOTH,
    "mains and water": MAINS_AND_WATER,
    "house": HOUSE_FLAME,
}


def danger_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Each once, with the modes it is so in."""
    met: dict[tuple[str, str, str], list[Danger]] = {}
    beside: dict[str, list[Danger]] = {}
    for mode in s.build.stow.modes:
        for danger in dangers(s.build, s.facts, mode, s.framed.body):
            if danger.kind == "mains and water":
                beside.setdefault(danger.a, []).append(danger)
                continue
            met.setdefault((danger.kind, danger.a, danger.b), []).append(danger)
    names = {mode.id: mode.name for mode in s.build.stow.modes}
    for of in met.values():
        modes = " and ".join(lower_first(names[each_danger.mode]) for each_danger in of)
        yield _finding(of[0], modes, words)
    for wet in beside.values():
        yield _beside_water(s, wet, words)


def _beside_water(s: Studied, wet: list[Danger], words: Words) -> Finding:
    """One for each that must stay dry, with all that is wet near it."""
    danger, cabinets = wet[0], {t.id for t in s.build.stow.things if t.kind == "cabinet" and t.tank is None}
    near: dict[str, Danger] = {}
    for other in wet:
        if other.b not in near or other.apart_m < near[other.b].apart_m:
            near[other.b] = other
    apart = [o for o in near.values() if o.b not in cabinets]
    told = [
        f"{lower_first(o.b_name)} is {words.m(o.apart_m)} from it" if o.apart_m >= 0.005 else f"it touches {lower_first(o.b_name)}"
        for o in apart
    ]
    told += [f"it stands in or under {lower_first(o.b_name)}, where taps and traps drip" for o in near.values() if o.b in cabinets]
    want = f"; want {words.m(WATER_M)}, or a wall between" if apart else ""
    return MAINS_AND_WATER.found(
        f"{upper_first(danger.a_name)} stands beside water", f"{upper_first(' and '.join(told))}{want}.", (danger.a, *near)
    )


def _finding(danger: Danger, modes: str, words: Words) -> Finding:
    a, b = danger.a_name, lower_first(danger.b_name)
    title, says = {
        "bad air": (f"{a} in the sleepers' air", f"It shares the air of {b} in {modes}."),
        "no alarm": (f"{a} burns where people sleep", f"In {modes} no CO alarm warns them."),
        "no alarm, sealed": (
            f"{a} burns beside the sleepers",
            f"It is room-sealed; a pipe that cracks is not, and in {modes} no CO alarm warns them.",
        ),
        "gas and flame": (
            f"{a} shares its air with a flame",
            f"{lower_first(danger.b_name)} burns in the same room in {modes}, {words.m(danger.apart_m)} away.",
        ),
        "vapour and flame": (
            f"{a} shares its air with a flame",
            f"{lower_first(danger.b_name)} burns in the same room in {modes}, {words.m(danger.apart_m)} away.",
        ),
        "flame and cloth": (
            f"{a} burns beside cloth",
            f"{danger.b_name} is {words.m(danger.apart_m)} from it in {modes}, want {words.m(CLOTH_M)} at least.",
        ),
        "house": (f"{a} wants {danger.b_name}", f"Lived in as a house, a room with a flame wants {danger.b_name}."),
    }[danger.kind]
    where = (danger.a,) if danger.kind in ("no alarm", "no alarm, sealed", "house") else (danger.a, danger.b)
    extra = (danger.b,) if danger.kind == "house" else ()
    severity: Severity | None = "mind" if danger.kind == "no alarm, sealed" else None
    return BY_KIND[danger.kind].found(upper_first(title), upper_first(says), (*where, *extra), severity=severity)
