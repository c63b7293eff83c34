"""Judgements on what must not lie beside what, and what must not be in the sleepers' air."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.dangers import CLOTH_M, WATER_M, Danger, dangers
from uncle_sled.core.words import Words, lower_first

CAUTION = "Screening only: makers, gas and electrical fitters and local rules decide."
APART = "Move one of the two, or part them by a closed bulkhead."
BAD_AIR = Rule(
    "bad-air",
    "stop",
    "Stow",
    "Petrol, a generator or an open gas cylinder in the sleepers' air",
    "Vapour and gas gather along the floor and find a spark; fumes are not smelt asleep.",
    CAUTION,
    "Stow it outside, in a locker that drains outside, or behind a closed bulkhead.",
)
NO_ALARM = Rule(
    "no-alarm",
    "stop",
    "Stow",
    "A flame where people sleep, with neither CO alarm nor fixed vents",
    "Carbon monoxide is not smelt; who sleeps does not wake.",
    CAUTION,
    "A CO alarm where they sleep, vents that cannot be shut, or a room-sealed heater.",
)
GAS_AND_FLAME = Rule(
    "gas-and-flame", "mind", "Stow", "Gas and a flame in one air", "What leaks or is vented lights at the flame.",
    CAUTION, APART,
)  # fmt: skip
VAPOUR_AND_FLAME = Rule(
    "vapour-and-flame", "stop", "Stow", "Petrol or its fumes and a flame in one air",
    "Vapour creeps along the floor to the flame.", CAUTION, APART,
)  # fmt: skip
FLAME_AND_CLOTH = Rule(
    "flame-and-cloth", "mind", "Stow", "Cloth nearer than half a metre to a flame",
    "It falls, blows or scorches.", CAUTION, APART,
)  # fmt: skip
MAINS_AND_WATER = Rule(
    "mains-and-water", "mind", "Stow", "Mains equipment nearer than 0.3 m to a water tank",
    "A tank that splits or is overfilled wets it.", CAUTION, APART,
)  # fmt: skip
HOUSE_FLAME = Rule(
    "house-flame",
    "mind",
    "Stow",
    "A lived-in room with a flame lacks what a house would have",
    "One who lives there sleeps beside it every night.",
    CAUTION,
    "Put it in, each on its place.",
)
BY_KIND = {
    "bad air": BAD_AIR,
    "no alarm": NO_ALARM,
    "gas and flame": GAS_AND_FLAME,
    "vapour and flame": VAPOUR_AND_FLAME,
    "flame and cloth": FLAME_AND_CLOTH,
    "mains and water": MAINS_AND_WATER,
    "house": HOUSE_FLAME,
}


def danger_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Each once, with the modes it is so in."""
    met: dict[tuple[str, str, str], list[Danger]] = {}
    for mode in s.build.stow.modes:
        for one in dangers(s.build, s.facts, mode, s.framed.body):
            met.setdefault((one.kind, one.a, one.b), []).append(one)
    names = {mode.id: mode.name for mode in s.build.stow.modes}
    for of in met.values():
        modes = " and ".join(lower_first(names[one.mode]) for one in of)
        yield _finding(of[0], modes, words)


def _finding(one: Danger, modes: str, words: Words) -> Finding:
    a, b = one.a_name, lower_first(one.b_name)
    title, says = {
        "bad air": (f"{a} in the sleepers' air", f"It shares the air of {b} in {modes}."),
        "no alarm": (f"{a} burns where people sleep", f"In {modes} nothing warns or airs: no CO alarm and no fixed vent."),
        "gas and flame": (f"{a} shares its air with a flame", f"{lower_first(one.b_name)} burns in the same room in {modes}, {words.m(one.apart_m)} away."),
        "vapour and flame": (f"{a} shares its air with a flame", f"{lower_first(one.b_name)} burns in the same room in {modes}, {words.m(one.apart_m)} away."),
        "flame and cloth": (f"{a} burns beside cloth", f"{one.b_name} is {words.m(one.apart_m)} from it in {modes}, want {words.m(CLOTH_M)} at least."),
        "mains and water": (f"{a} stands beside water", f"{one.b_name} is {words.m(one.apart_m)} from it in {modes}, want {words.m(WATER_M)} at least."),
        "house": (f"{a} wants {one.b_name}", f"Lived in as a house, a room with a flame wants {one.b_name}."),
    }[one.kind]  # fmt: skip
    where = (one.a,) if one.kind in ("no alarm", "house") else (one.a, one.b)
    extra = (one.b,) if one.kind == "house" else ()
    return BY_KIND[one.kind].found(title[:1].upper() + title[1:], says[:1].upper() + says[1:], (*where, *extra))


RULES = tuple(BY_KIND.values())
