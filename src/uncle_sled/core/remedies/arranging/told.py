"""Arrangements in words: the readings of each, how good it could be at best, which wishes fight."""

from __future__ import annotations

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.arranging.arrange import Arranged, Arrangement, Put
from uncle_sled.core.remedies.arranging.fights import Fight
from uncle_sled.core.words import Words, all_of, count_of, lower_first, upper_first

LOOKS_FOR = (
    "Looks for three arrangements that differ in kind: every case within its limits, nothing in another, doors and ways free, wires, "
    "hoses and gas pipes short. Nothing moves until you keep it."
)
CAUTION = "Screening by boxes and rules: look at it in the body before you cut; wires, gas and ways out belong to local rules and licensed people."

LEFT = {
    "as level as now": "leans no more than now",
    "as it is, an axle over": "an axle stays over",
}  # by what was asked, where that was less


def heading(at: int, one: Arrangement) -> str:
    """Its number and where the two pieces stand by which one tells it from the others."""
    named = [put for put in one.puts if put.id in one.keys and put.part]
    far = [put for put in named if put.moved] or named
    return f"{at}: " + ", ".join(f"{lower_first(put.name)} {put.part}" for put in far[:2])


def lines(one: Arrangement, words: Words) -> tuple[str, ...]:
    """What it gives, a line each: the balance, the runs, what moves."""
    told = ["every case within its limits" if one.settled else LEFT.get(one.asked, "not every case is settled")]
    if one.least_chance is not None:
        told.append(f"{one.least_chance * 100:.0f} % sure")
    if one.most_lean is not None:
        told.append(f"leans {one.most_lean * 100:.1f} %")
    runs = f"Wire, hose, pipe {words.m(one.run_m)}, drawn {words.m(one.run_before_m)}{_best(one, words)}"
    moved = sum(put.moved for put in one.puts)
    return (upper_first(", ".join(told)), runs, f"{count_of(moved, 'piece moves', 'pieces move')} of {len(one.puts)}")


def _best(one: Arrangement, words: Words) -> str:
    """How far it may be from the best on the grid."""
    if one.bound_m is None:
        return "; at best: not worked out"
    if one.run_m - one.bound_m < 0.01:
        return "; proven least here"
    return f"; none here under {words.m(one.bound_m)}"


def summary(found: Arranged, words: Words) -> str:
    """What was found, in a sentence or two."""
    told = []
    if found.found:
        told.append(
            f"{count_of(len(found.found), 'arrangement')} out of {found.tried} judged as whole builds, on a grid of {found.places} places. "
            "Click one to try it; tick what stays where it puts it, and look again around that."
        )
    if found.fight is not None:
        told.append(fight_words(found.fight))
    if found.why:
        told.append(upper_first(found.why))
    return words.told(" ".join(told))


def fight_words(fight: Fight) -> str:
    """Which wishes cannot be had together, and how sure that is."""
    if not fight.says:
        return f"There is no arrangement at all: {fight.why}."
    if len(fight.says) == 1:
        return f"It cannot be so that {fight.says[0]}: {fight.why}."
    smallest = " No fewer of them fight." if fight.smallest else " Perhaps fewer of them fight already."
    return f"These cannot be had together {fight.why}: that {' and that '.join(fight.says)}.{smallest}"


def moved_words(put: Put, words: Words) -> str:
    """How a piece goes, in words."""
    ways = []
    for by, more, less in (
        (put.now[0] - put.was[0], "aft", "forward"),
        (put.now[1] - put.was[1], "to the right", "to the left"),
        (put.now[2] - put.was[2], "up", "down"),
    ):
        if abs(by) > 0.004:
            ways.append(f"{words.m(abs(by))} {more if by > 0 else less}")
    if put.was[3] != put.now[3]:
        turned = (put.now[3] - put.was[3]) % 360
        ways.append("turned round" if turned == 180 else "a quarter turn")
    return all_of(ways) if ways else "stays"


def offer(at: int, one: Arrangement) -> str:
    """What trying it is called."""
    return f"Arrangement {at}: {count_of(sum(put.moved for put in one.puts), 'piece')} elsewhere"


def stays_words(found: Arranged, s: Studied) -> str:
    """What was left where it is, and why, the reasons together."""
    by_why: dict[str, list[str]] = {}
    things: dict[str, Thing] = {thing.id: thing for thing in s.build.stow.things}
    for stays in found.stays:
        if stays.id in things:
            by_why.setdefault(stays.why, []).append(lower_first(stays.name))
    return "; ".join(f"{all_of(names)}: {why}" for why, names in by_why.items())
