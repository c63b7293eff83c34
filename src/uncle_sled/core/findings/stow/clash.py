"""Judgements on what stands in what: things, walls, wheel boxes, openings and the room that doors want."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.clashes import MOST_MEASURED, Clash, clashes
from uncle_sled.core.words import Words, lower_first

SOURCE = "volumes of what overlaps"  # of every rule here, said after its reason

OUTSIDE_SHARE = 0.98
MOST_TOLD, MOST_SORTED_OUT = 12, 200


def in_modes(modes: list[str], many: int) -> str:
    """In which modes something is so, for the end of a sentence; nothing where it is so in all of them."""
    if len(modes) == many:
        return "in every mode" if many > 1 else "as it stands"
    return f"in {' and '.join(lower_first(mode) for mode in modes)}"


CLASH_MANY = Rule(
    "clash-many",
    "mind",
    "Stow",
    "More overlaps than are named",
    "So many at once is a layout not yet laid out.",
    why_none="Set the named ones apart first.",
)


def _say_outside(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    name = next((t.name for t in s.build.stow.things if t.id == finding.where[0]), "")
    return (set_to(f"stow.things.{finding.where[0]}.outside", value=True),), f"Say that the {lower_first(name)} stands outside"


def clash_findings(s: Studied, words: Words, only: str | None = None) -> Iterator[Finding]:
    """What stands in what, the largest first; of one mode where a hand drags in it."""
    build, facts = s.build, s.facts
    names = {mode.id: mode.name for mode in build.stow.modes}
    met: dict[tuple[str, str, str], list[Clash]] = {}
    pairs = 0
    for found in clashes(build, facts, only).values():
        pairs = max(pairs, len(found))
        for clash in found[:MOST_SORTED_OUT]:
            # one line for a thing in a wall, whatever sticks it meets there
            other = "shell" if clash.kind == "stick" else clash.b
            met.setdefault((clash.kind if clash.kind != "stick" else "body", clash.a, other), []).append(clash)
    told = list(met.items())
    for (kind, a, _), of in told[:MOST_TOLD]:
        modes = list(dict.fromkeys(names[clash.mode] for clash in of))
        said = max(of, key=lambda clash: clash.overlap_m3)
        first = next((clash for clash in of if clash.kind != "stick"), of[0])
        sticks = list(dict.fromkeys(clash.b_name for clash in of if clash.kind == "stick"))
        where = (a,) if kind in ("body", "outside") else (a, first.b)
        yield _clash(build, kind, first, said, sticks, in_modes(modes, len(names)), where, words)
    more = max(len(told), pairs) - MOST_TOLD
    if more > 0:
        least = "at least " if pairs >= MOST_MEASURED // 4 else ""
        yield CLASH_MANY.found(
            f"{least}{more} more stand in each other".capitalize(),
            f"{least}{more + MOST_TOLD} pairs overlap in all; the largest are named one by one.".capitalize(),
            ("stow",),
            number=float(more),
        )


CLASH = Rule("clash", "mind", "Stow", "Two things in one place", "Two things cannot stand in one place.", helps="free place")
STANDS_OUTSIDE = Rule(
    "stands-outside",
    "mind",
    "Stow",
    "A thing lies wholly outside and is not said to",
    "What stands outside is judged by other walls.",
    helps="edit",
    cure=_say_outside,
)
CLASH_BODY = Rule(
    "clash-body",
    "mind",
    "Stow",
    "A thing in the wall, the roof or the ground",
    "Its box, or its tank's true outline, against the inside of the body as its faces are built.",
    helps="free place",
)
CLASH_OUTSIDE = Rule(
    "clash-outside",
    "mind",
    "Stow",
    "A thing outside reaches into the body",
    "Two things cannot stand in one place.",
    why_none="Move it off the body, or say that it stands inside.",
)
CLASH_WHEEL_BOX = Rule(
    "clash-wheel-box",
    "mind",
    "Stow",
    "A thing in a wheel box",
    "A wheel box stays where the wheel is; a cabinet over it is built around it.",
    helps="free place",
)
CLASH_WALL = Rule(
    "clash-wall",
    "mind",
    "Stow",
    "A thing in a wall or loft of the inside",
    "Where a wall stands nothing else does; what is built into it is said to be.",
    helps="free place",
)
COVERS = Rule(
    "covers",
    "mind",
    "Stow",
    "A thing covers an opening",
    "A window, vent or door that is covered gives no light, air or way.",
    helps="free place",
)
NO_ROOM_TO_OPEN = Rule(
    "no-room-to-open",
    "mind",
    "Stow",
    "Something stands in the room that a door, drawer or lid wants",
    "Doors, drawers, lids, service and air need the room that is said with the thing.",
    helps="free place",
)


def _clash(
    build: Build, kind: str, clash: Clash, worst: Clash, sticks: list[str], when: str, where: tuple[str, ...], words: Words
) -> Finding:
    a, b, litres = clash.a_name, clash.b_name, words.m3(worst.overlap_m3)
    if kind == "things":
        return CLASH.found(
            f"{a} stands in {lower_first(b)}",
            f"They share {litres} {when}; {words.cut(clash.by_m)} apart and both are free. Or say that one is built into the other.",
            where,
            number=worst.overlap_m3,
        )
    if kind == "body":
        thing = next((t for t in build.stow.things if t.id == clash.a), None)
        if thing is not None and clash.kind == "body" and clash.b == "shell" and _all_out(thing, worst):
            return STANDS_OUTSIDE.found(
                f"{a} stands outside the body", f"All of it is outside {when}, but it is not said to stand there.", where
            )
        through = f", through {' and '.join(sticks[:2])}" if sticks else ""
        what = "the ground" if clash.b == "ground" else "the wall or roof"
        return CLASH_BODY.found(f"{a} reaches into {what}", f"By {words.cut(clash.by_m)} {when}{through}.", where, number=worst.overlap_m3)
    if kind == "outside":
        return CLASH_OUTSIDE.found(
            f"{a} stands in the body from outside", f"{litres} of it are in the body {when}.", where, number=worst.overlap_m3
        )
    if kind == "wall":
        return CLASH_WALL.found(f"{a} stands in {b}", f"By {words.cut(clash.by_m)}, {litres}, {when}.", where, number=worst.overlap_m3)
    if kind == "wheel box":
        return CLASH_WHEEL_BOX.found(f"{a} runs into {b}", f"By {words.cut(clash.by_m)}, {litres}, {when}.", where, number=worst.overlap_m3)
    if kind == "opening":
        return COVERS.found(
            f"{a} covers {lower_first(b)}",
            f"It stands before it {when}, {litres} of the room that opening it wants.",
            where,
            number=worst.overlap_m3,
        )
    return NO_ROOM_TO_OPEN.found(
        f"No room beside {lower_first(a)}",
        f"{b[:1].upper() + b[1:]} is in its way {when}, {litres} of what it wants.",
        where,
        number=worst.overlap_m3,
    )


def _all_out(thing: Thing, clash: Clash) -> bool:
    size = thing.length.si * thing.width.si * thing.height.si
    return bool(clash.kind == "body" and clash.overlap_m3 >= OUTSIDE_SHARE * size)
