"""Judgements on the layout: what stands in what, who fits, how one gets out, in and past."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.stow.fit_words import kit_words, passing_words, size_words, way_words
from uncle_sled.core.findings.stow.held import hold_remedy
from uncle_sled.core.findings.stow.tanks import tank_remedy
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow import at_hand
from uncle_sled.core.studies.stow.beds import (
    SIT_UP_M,
    STAND_OVER_M,
    beds_in,
    narrow,
    sleepers_in,
    standing_room_m,
    tallest_m,
)
from uncle_sled.core.studies.stow.clashes import Clash, clashes, modes_in_use
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.ways_out import LEAST_M, second_way_missing, ways_out
from uncle_sled.core.words import Words, lower_first

# Codes that a move of one party may settle, and those that one plain edit does.
IN_THE_WAY = {"clash", "clash-body", "clash-wheel-box", "covers", "no-room-to-open", "door-blocked"}
STOWED_BY_EDIT = {"stands-outside", "level-odd", "grey-small", "held-loose", "held-weak", "held-jumps"}
OUTSIDE_SHARE = 0.98
MOST_TOLD, MOST_SORTED_OUT = 12, 200


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
        yield _clash(build, kind, first, said, sticks, _in_modes(modes, len(names)), where, words)
    more = max(len(told), pairs) - MOST_TOLD
    if more > 0:
        yield Finding(
            "clash-many",
            "mind",
            "Stow",
            f"{more} more stand in each other",
            f"{more + MOST_TOLD} pairs overlap in all; the largest are named one by one.",
            "So many at once is a layout not yet laid out.",
            ("stow",),
            number=float(more),
            why_none="Set the named ones apart first.",
        )


def fitting_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Who fits and how one gets about: judged again when the hand rests."""
    build, facts = s.build, s.facts
    yield from _empty_modes(build)
    used = modes_in_use(build)
    standing = tuple(mode for mode in build.stow.modes if mode.id in used)
    yield from _sleep(build, facts, standing, words)
    yield from _get_out(build, facts, standing, words)
    yield from _upright(build, facts, words)
    yield from _sit_and_cook(build, facts, standing, words)
    yield from _come_and_go(build, facts, standing, words)


# clashes ------------------------------------------------------------------------------------------------
def _in_modes(modes: list[str], many: int) -> str:
    if len(modes) == many:
        return "in every mode" if many > 1 else "as it stands"
    return f"in {' and '.join(lower_first(mode) for mode in modes)}"


def _clash(
    build: Build,
    kind: str,
    clash: Clash,
    worst: Clash,
    sticks: list[str],
    when: str,
    where: tuple[str, ...],
    words: Words,
) -> Finding:
    a, b, litres = clash.a_name, clash.b_name, words.m3(worst.overlap_m3)
    why = "Two things cannot stand in one place."
    if kind == "things":
        return Finding(
            "clash",
            "mind",
            "Stow",
            f"{a} stands in {lower_first(b)}",
            f"They share {litres} {when}; {words.m(clash.by_m)} apart and both are free. "
            "Or say that one is built into the other.",
            why,
            where,
            number=worst.overlap_m3,
        )
    if kind == "body":
        thing = next((t for t in build.stow.things if t.id == clash.a), None)
        if thing is not None and clash.kind == "body" and clash.b == "shell" and _all_out(thing, worst):
            return Finding(
                "stands-outside",
                "mind",
                "Stow",
                f"{a} stands outside the body",
                f"All of it is outside {when}, but it is not said to stand there.",
                "What stands outside is judged by other walls.",
                where,
            )
        through = f", through {' and '.join(sticks[:2])}" if sticks else ""
        what = "the ground" if clash.b == "ground" else "the wall or roof"
        return Finding(
            "clash-body",
            "mind",
            "Stow",
            f"{a} reaches into {what}",
            f"By {words.m(clash.by_m)} {when}{through}.",
            "Its box, or its tank's true outline, against the inside of the body as its faces are built.",
            where,
            number=worst.overlap_m3,
        )
    if kind == "outside":
        return Finding(
            "clash-outside",
            "mind",
            "Stow",
            f"{a} stands in the body from outside",
            f"{litres} of it are in the body {when}.",
            why,
            where,
            number=worst.overlap_m3,
            why_none="Move it off the body, or say that it stands inside.",
        )
    if kind == "wheel box":
        return Finding(
            "clash-wheel-box",
            "mind",
            "Stow",
            f"{a} runs into {b}",
            f"By {words.m(clash.by_m)}, {litres}, {when}.",
            "A wheel box stays where the wheel is; a cabinet over it is built around it.",
            where,
            number=worst.overlap_m3,
        )
    if kind == "opening":
        return Finding(
            "covers",
            "mind",
            "Stow",
            f"{a} covers {lower_first(b)}",
            f"It stands before it {when}, {litres} of the room that opening it wants.",
            "A window, vent or door that is covered gives no light, air or way.",
            where,
            number=worst.overlap_m3,
        )
    return Finding(
        "no-room-to-open",
        "mind",
        "Stow",
        f"No room beside {lower_first(a)}",
        f"{b[:1].upper() + b[1:]} is in its way {when}, {litres} of what it wants.",
        "Doors, drawers, lids, service and air need the room that is said with the thing.",
        where,
        number=worst.overlap_m3,
    )


def _all_out(thing: Thing, clash: Clash) -> bool:
    size = thing.length.si * thing.width.si * thing.height.si
    return bool(clash.kind == "body" and clash.overlap_m3 >= OUTSIDE_SHARE * size)


def _empty_modes(build: Build) -> Iterator[Finding]:
    things = [t.id for t in build.stow.things if not t.taken_out]
    if not things:
        return
    for mode in build.stow.modes:
        if set(things) <= set(mode.absent):
            yield Finding(
                "mode-empty",
                "note",
                "Stow",
                f"Nothing is in {lower_first(mode.name)}",
                f"Every thing is left out of {lower_first(mode.name)}, so there is nothing to look at in it.",
                "A mode is for what stands elsewhere, not for an empty body.",
                (mode.id,),
                why_none="Bring something back into it, or take the mode away.",
            )
        gone = sorted(mode.touched - {t.id for t in build.stow.things})
        if gone:
            yield Finding(
                "mode-stray",
                "note",
                "Stow",
                f"{mode.name} names things that are gone",
                f"{mode.name} keeps places for {len(gone)} things that the build has not.",
                "Nothing is lost: they come back with the things.",
                (mode.id, *gone),
                why_none="Bring the things back, or leave it.",
            )


# who fits ---------------------------------------------------------------------------------------------------
def _sleep(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    for mode in standing:
        sleepers, beds = sleepers_in(build, facts, mode), beds_in(build, facts, mode)
        if not beds:
            continue
        for one in sleepers:
            if one.fits or one.tall_m is None:
                continue
            longest = max(bed.long_m for bed in beds)
            says = (
                f"{words.m(one.tall_m)} tall wants {words.m(one.tall_m + 0.1)} to lie; the longest bed is {words.m(longest)}."
                if longest < one.tall_m + 0.1
                else f"No place is left {_in_modes([mode.name], 2)}: each wants {words.m(0.55)} of width at least."
            )
            yield Finding(
                "sleeper-no-bed",
                "mind",
                "Stow",
                f"{one.name} does not fit in bed",
                says,
                "Tallest sleeper and 100 mm over, 600 mm wide each, 550 at least.",
                (one.id,),
                number=one.tall_m,
                why_none="A longer or wider bed, or lying the other way.",
            )
        for bed in beds:
            each = narrow(bed, sleepers)
            if each is not None:
                yield Finding(
                    "bed-narrow",
                    "note",
                    "Stow",
                    f"{bed.name} is narrow",
                    f"{words.m(each)} for each who lies on it; {words.m(0.6)} is good, {words.m(0.55)} the least.",
                    "Two shoulders side by side.",
                    (bed.id,),
                    number=-each,
                    why_none="A wider bed.",
                )
            if build.brief.sits_up and bed.head_room_m is not None and bed.head_room_m < SIT_UP_M:
                yield Finding(
                    "no-sitting-up",
                    "mind",
                    "Stow",
                    f"Nobody sits up on {lower_first(bed.name)}",
                    f"{words.m(bed.head_room_m)} over it at most; {words.m(SIT_UP_M)} is promised.",
                    "The brief asks to sit up in bed.",
                    (bed.id,),
                    number=-bed.head_room_m,
                    why_none="A lower bed or a higher roof.",
                )


def _get_out(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    if room_of(build, facts) is None or not any(beds_in(build, facts, mode) for mode in standing):
        return
    if not build.shell.openings:
        yield Finding(
            "ways-not-drawn",
            "note",
            "Stow",
            "No way out is drawn yet",
            "No door, hatch or window is drawn, so nobody can say how a sleeper gets out. Two ways are wanted.",
            "Every sleeper wants two ways out, one not past stove or garage.",
            ("shell",),
            why_none="Cut the doors and windows in on the Shell stop.",
        )
        return
    for mode in standing:
        if not beds_in(build, facts, mode):
            continue
        ways = ways_out(build, facts, mode)
        missing = second_way_missing(ways)
        if missing is not None:
            bad = next((way for way in ways if not way.good and way.why), None)
            yield Finding(
                "no-second-way-out",
                "stop",
                "Stow",
                f"{missing[:1].upper() + missing[1:]}",
                f"Every sleeper wants two, {size_words(LEAST_M, words)} clear, one not past stove or garage."
                + (f" {bad.name} {way_words(bad, words)}." if bad else ""),
                "Smoke and fire leave seconds. Local rules may ask for more.",
                ("shell", *(way.id for way in ways if way.good)),
                caution="A screening only: local fire rules and those who apply them decide.",
                why_none="Cut in or enlarge a window or hatch that opens, away from the stove.",
            )


def _upright(build: Build, facts: Facts, words: Words) -> Iterator[Finding]:
    tallest = tallest_m(build, facts)
    if build.brief.stands and tallest is not None:
        has = standing_room_m(build, facts)
        if has is not None and has < tallest + STAND_OVER_M:
            yield Finding(
                "no-standing",
                "mind",
                "Stow",
                "Nobody tall stands upright",
                f"{words.m(has)} over the floor; the tallest wants {words.m(tallest + STAND_OVER_M)}.",
                "The brief asks to stand inside: tallest and 50 mm.",
                ("shell",),
                number=-has,
                why_none="A higher roof, or a drop in the floor.",
            )
    if tallest is None:
        return
    for id, name, height in at_hand.hatch_head_m(build, facts):
        if height < tallest:
            yield Finding(
                "hatch-low",
                "note",
                "Stow",
                f"Heads meet the open {lower_first(name)}",
                f"{words.m(height)} over the ground under it; the tallest is {words.m(tallest)}.",
                "One cooks under it, also in the dark.",
                (id,),
                number=-height,
                why_none="Let it open further, pad its edge, or raise the hinge.",
            )


def _sit_and_cook(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    most = max((at_hand.seats(build, mode) for mode in standing), default=0)
    if build.brief.eats_inside > most:
        yield Finding(
            "too-few-seats",
            "mind",
            "Stow",
            f"{build.brief.eats_inside} eat inside, {most} can sit",
            f"Seats for {most} are aboard; the brief asks for {build.brief.eats_inside}.",
            "Everyone who eats inside sits somewhere.",
            ("brief",),
            why_none="Another seat, or say how many sit on the one there is.",
        )
    beds_for_pets = sum(t.places or 1 for t in build.stow.things if t.role == "pet place")
    if build.brief.pets > beds_for_pets:
        yield Finding(
            "no-pet-place",
            "note",
            "Stow",
            "A pet has no place",
            f"{build.brief.pets} come along, {beds_for_pets} have a place of their own.",
            "It will take yours.",
            ("brief",),
            why_none="Put a pet's place in.",
        )
    for mode in standing[:1]:
        for one in at_hand.heights(build, facts, mode):
            if not one.good:
                low, high = one.span_m
                yield Finding(
                    f"{one.role}-height",
                    "note",
                    "Stow",
                    f"{one.name} is {'low' if one.height_m < low else 'high'} for a {one.role}",
                    f"{words.m(one.height_m)} up; {words.m(low)} to {words.m(high)} is usual.",
                    "Knees and backs.",
                    (one.id,),
                    number=abs(one.height_m - (low + high) / 2),
                    why_none="Raise or lower it.",
                )


def _come_and_go(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    for one in at_hand.passing(build, facts):
        if not one.good:
            yield Finding(
                "door-too-small",
                "mind",
                "Stow",
                f"{one.name} goes through no door",
                f"It {passing_words(one, words)}, the best there is.",
                "What comes and goes passes a door or hatch, wheeled or tipped.",
                (one.id,),
                why_none="A wider door or hatch, or a place outside.",
            )
    for mode in standing[:1]:
        wide = at_hand.aisle_m(build, facts, mode)
        if wide is not None and wide < at_hand.GOOD_AISLE_M - 0.005:
            yield Finding(
                "aisle-narrow",
                "mind" if wide < at_hand.AISLE_M - 0.005 else "note",
                "Stow",
                "The way from door to bed is narrow" if wide > 0 else "There is no way from door to bed",
                f"{words.m(wide)} at its narrowest; {words.m(at_hand.AISLE_M)} is the least, {words.m(at_hand.GOOD_AISLE_M)} good.",
                "A person with a cup in the hand.",
                ("shell",),
                number=-wide,
                why_none="Set furniture apart, or make one piece narrower.",
            )
    road = next((mode for mode in build.stow.modes if mode.towing), None)
    for kit in at_hand.arrival_kit(build, facts, road) if road else ():
        if not kit.good:
            yield Finding(
                "arrival-buried",
                "mind",
                "Stow",
                f"{kit.name} is out of reach on arrival",
                f"It {'lies' if kit.behind else 'is'} {kit_words(kit, words)}.",
                "Blocks, cord and hose are wanted first, in the rain, from outside.",
                (kit.id, *([kit.behind] if kit.behind else [])),
                why_none="Bring it to the edge of a door or hatch, or outside.",
            )


def stow_remedy(s: Studied, one: Finding) -> tuple[tuple[Op, ...], str] | None:
    """Ops that settle a finding of the layout by one plain edit, and what they do in words."""
    if one.code == "stands-outside":
        name = next((t.name for t in s.build.stow.things if t.id == one.where[0]), "")
        return (
            set_to(f"stow.things.{one.where[0]}.outside", True),
        ), f"Say that the {lower_first(name)} stands outside"
    if one.code.startswith("held-"):
        return hold_remedy(s, one)
    return tank_remedy(s, one)
