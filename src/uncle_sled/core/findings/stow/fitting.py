"""Judgements on the layout: who fits, how one gets out, in and past."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.findings.stow.clash import in_modes
from uncle_sled.core.findings.stow.fit_words import kit_words, passing_words, size_words, way_words
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow import at_hand
from uncle_sled.core.studies.stow.beds import LEAST_OVER_M, SIT_UP_M, STAND_OVER_M, beds_in, narrow, sleepers_in, standing_room_m, tallest_m
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.ways_out import least_m, second_way_missing, ways_out
from uncle_sled.core.words import Words, lower_first

SOURCE = "layout practice for beds, aisles and ways out"  # of every rule here, said after its reason


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


MODE_EMPTY = Rule(
    "mode-empty",
    "note",
    "Stow",
    "A mode without a thing in it",
    "A mode is for what stands elsewhere, not for an empty body.",
    why_none="Bring something back into it, or take the mode away.",
)
MODE_STRAY = Rule(
    "mode-stray",
    "note",
    "Stow",
    "A mode names things that are gone",
    "Nothing is lost: they come back with the things.",
    why_none="Bring the things back, or leave it.",
)


def _empty_modes(build: Build) -> Iterator[Finding]:
    things = [t.id for t in build.stow.things if not t.taken_out]
    if not things:
        return
    for mode in build.stow.modes:
        if set(things) <= set(mode.absent):
            yield MODE_EMPTY.found(
                f"Nothing is in {lower_first(mode.name)}",
                f"Every thing is left out of {lower_first(mode.name)}, so there is nothing to look at in it.",
                (mode.id,),
            )
        gone = sorted(mode.touched - {t.id for t in build.stow.things})
        if gone:
            yield MODE_STRAY.found(
                f"{mode.name} names things that are gone",
                f"{mode.name} keeps places for {len(gone)} things that the build has not.",
                (mode.id, *gone),
            )


SLEEPER_NO_BED = Rule(
    "sleeper-no-bed",
    "mind",
    "Stow",
    "A sleeper without a bed long or wide enough",
    "Tallest sleeper and {100 mm} over, {600 mm} wide each, {550 mm} at least.",
    why_none="A longer or wider bed, or lying the other way.",
)
BED_NARROW = Rule("bed-narrow", "note", "Stow", "A bed under {600 mm} for each", "Two shoulders side by side.", why_none="A wider bed.")
NO_SITTING_UP = Rule(
    "no-sitting-up",
    "mind",
    "Stow",
    "Less height over the bed than sitting up wants",
    "The brief asks to sit up in bed.",
    why_none="A lower bed or a higher roof.",
)


BED_UNDER = Rule(
    "bed-under",
    "mind",
    "Stow",
    "A bed with another bed or a locker close over it",
    "Who wakes there knocks a head, and is not out quickly.",
    why_none="Lift what is over it, lower the bed, or sleep the other way round.",
)


def _sleep(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    for mode in standing:
        sleepers, beds = sleepers_in(build, facts, mode), beds_in(build, facts, mode)
        if not beds:
            continue
        for sleeper in sleepers:
            if sleeper.fits or sleeper.tall_m is None:
                continue
            longest = max(bed.long_m for bed in beds)
            says = (
                f"{words.m(sleeper.tall_m)} tall wants {words.m(sleeper.tall_m + 0.1)} to lie; the longest bed is {words.m(longest)}."
                if longest < sleeper.tall_m + 0.1
                else f"No place is left {in_modes([mode.name], 2)}: each wants {words.m(0.55)} of width at least."
            )
            yield SLEEPER_NO_BED.found(f"{sleeper.name} does not fit in bed", says, (sleeper.id,), number=sleeper.tall_m)
        for bed in beds:
            each = narrow(bed, sleepers)
            if each is not None:
                yield BED_NARROW.found(
                    f"{bed.name} is narrow",
                    f"{words.m(each)} for each who lies on it; {words.m(0.6)} is good, {words.m(0.55)} the least.",
                    (bed.id,),
                    number=-each,
                )
            if bed.under and bed.least_over_m is not None and bed.least_over_m < LEAST_OVER_M:
                name = next((lower_first(t.name) for t in build.stow.things if t.id == bed.under[0]), "something")
                yield BED_UNDER.found(
                    f"Close over {lower_first(bed.name)}",
                    f"{words.m(bed.least_over_m)} under {name}; {words.m(LEAST_OVER_M)} is the least to turn over in.",
                    (bed.id, bed.under[0]),
                    number=-bed.least_over_m,
                )
            if build.brief.sits_up and bed.head_room_m is not None and bed.head_room_m < SIT_UP_M:
                yield NO_SITTING_UP.found(
                    f"Nobody sits up on {lower_first(bed.name)}",
                    f"{words.m(bed.head_room_m)} over it at most; {words.m(SIT_UP_M)} is promised.",
                    (bed.id,),
                    number=-bed.head_room_m,
                )


WAYS_NOT_DRAWN = Rule(
    "ways-not-drawn",
    "note",
    "Stow",
    "Beds, and no opening drawn",
    "Every sleeper wants two ways out, one not past stove or garage.",
    why_none="Cut the doors and windows in on the Shell stop.",
)
NO_SECOND_WAY_OUT = Rule(
    "no-second-way-out",
    "stop",
    "Stow",
    "A sleeper without a second way out",
    "Smoke and fire leave seconds. Local rules may ask for more.",
    caution="A screening only: local fire rules and those who apply them decide.",
    why_none="Cut in or enlarge a window or hatch that opens, away from the stove.",
)


def _get_out(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    if room_of(build, facts) is None or not any(beds_in(build, facts, mode) for mode in standing):
        return
    if not build.shell.openings:
        yield WAYS_NOT_DRAWN.found(
            "No way out is drawn yet",
            "No door, hatch or window is drawn, so nobody can say how a sleeper gets out. Two ways are wanted.",
            ("shell",),
        )
        return
    for mode in standing:
        if not beds_in(build, facts, mode):
            continue
        ways = ways_out(build, facts, mode)
        missing = second_way_missing(ways)
        if missing is not None:
            bad = next((way for way in ways if not way.good and way.why), None)
            yield NO_SECOND_WAY_OUT.found(
                f"{missing[:1].upper() + missing[1:]}",
                f"Every sleeper wants two, {size_words(least_m(build.brief.lived_in), words)} clear, one not past stove or garage."
                + (f" {bad.name} {way_words(bad, words)}." if bad else ""),
                ("shell", *(way.id for way in ways if way.good)),
            )


NO_STANDING = Rule(
    "no-standing",
    "mind",
    "Stow",
    "Less height than the tallest wants",
    "The brief asks to stand inside: tallest and {50 mm}.",
    why_none="A higher roof, or a drop in the floor.",
)
HATCH_LOW = Rule(
    "hatch-low",
    "note",
    "Stow",
    "The open hatch is lower than the tallest",
    "One cooks under it, also in the dark.",
    why_none="Let it open further, pad its edge, or raise the hinge.",
)


def _upright(build: Build, facts: Facts, words: Words) -> Iterator[Finding]:
    tallest = tallest_m(build, facts)
    if build.brief.stands and tallest is not None:
        heights = (standing_room_m(build, facts, mode) for mode in build.stow.modes if mode.id in modes_in_use(build))
        has = max((high for high in heights if high is not None), default=None)
        if has is not None and has < tallest + STAND_OVER_M:
            yield NO_STANDING.found(
                "Nobody tall stands upright",
                f"{words.m(has)} over the floor; the tallest wants {words.m(tallest + STAND_OVER_M)}.",
                ("shell",),
                number=-has,
            )
    if tallest is None:
        return
    for id, name, height in at_hand.hatch_head_m(build, facts):
        if height < tallest:
            yield HATCH_LOW.found(
                f"Heads meet the open {lower_first(name)}",
                f"{words.m(height)} over the ground under it; the tallest is {words.m(tallest)}.",
                (id,),
                number=-height,
            )


HEIGHTS = {
    role: Rule(f"{role}-height", "note", "Stow", f"A {role} that is low or high", "Knees and backs.", why_none="Raise or lower it.")
    for role in ("seat", "counter")
}
TOO_FEW_SEATS = Rule(
    "too-few-seats",
    "mind",
    "Stow",
    "More eat inside than can sit",
    "Everyone who eats inside sits somewhere.",
    why_none="Another seat, or say how many sit on the one there is.",
)
NO_PET_PLACE = Rule("no-pet-place", "note", "Stow", "A pet without a place", "It will take yours.", why_none="Put a pet's place in.")


def _sit_and_cook(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    most = max((at_hand.seats(build, mode) for mode in standing), default=0)
    if build.brief.eats_inside > most:
        yield TOO_FEW_SEATS.found(
            f"{build.brief.eats_inside} eat inside, {most} can sit",
            f"Seats for {most} are aboard; the brief asks for {build.brief.eats_inside}.",
            ("brief",),
        )
    beds_for_pets = sum(t.places or 1 for t in build.stow.things if "pet place" in t.roles)
    if build.brief.pets > beds_for_pets:
        yield NO_PET_PLACE.found(
            "A pet has no place", f"{build.brief.pets} come along, {beds_for_pets} have a place of their own.", ("brief",)
        )
    for mode in standing[:1]:
        for height in at_hand.heights(build, facts, mode):
            if not height.good:
                low, high = height.span_m
                yield HEIGHTS[height.role].found(
                    f"{height.name} is {'low' if height.height_m < low else 'high'} for a {height.role}",
                    f"{words.m(height.height_m)} up; {words.m(low)} to {words.m(high)} is usual.",
                    (height.id,),
                    number=abs(height.height_m - (low + high) / 2),
                )


DOOR_TOO_SMALL = Rule(
    "door-too-small",
    "mind",
    "Stow",
    "What comes and goes passes no door",
    "What comes and goes passes a door or hatch, wheeled or tipped.",
    why_none="A wider door or hatch, or a place outside.",
)
AISLE_NARROW = Rule(
    "aisle-narrow",
    "mind",
    "Stow",
    "The way from door to bed is narrow",
    "A person with a cup in the hand.",
    why_none="Set furniture apart, or make one piece narrower.",
)
ARRIVAL_BURIED = Rule(
    "arrival-buried",
    "mind",
    "Stow",
    "The arrival kit cannot be reached from outside",
    "Blocks, cord and hose are wanted first, in the rain, from outside.",
    why_none="Bring it to the edge of a door or hatch, or outside.",
)


def _come_and_go(build: Build, facts: Facts, standing: tuple[Mode, ...], words: Words) -> Iterator[Finding]:
    for passing in at_hand.passing(build, facts):
        if not passing.good:
            yield DOOR_TOO_SMALL.found(
                f"{passing.name} goes through no door", f"It {passing_words(passing, words)}, the best there is.", (passing.id,)
            )
    for mode in standing[:1]:
        wide = at_hand.aisle_m(build, facts, mode)
        if wide is not None and wide < at_hand.GOOD_AISLE_M - 0.005:
            yield AISLE_NARROW.found(
                "The way from door to bed is narrow" if wide > 0 else "There is no way from door to bed",
                f"{words.m(wide)} at its narrowest; {words.m(at_hand.AISLE_M)} is the least, {words.m(at_hand.GOOD_AISLE_M)} good.",
                ("shell",),
                number=-wide,
                severity="mind" if wide < at_hand.AISLE_M - 0.005 else "note",
            )
    road = next((mode for mode in build.stow.modes if mode.towing), None)
    for kit in at_hand.arrival_kit(build, facts, road) if road else ():
        if not kit.good:
            yield ARRIVAL_BURIED.found(
                f"{kit.name} is out of reach on arrival",
                f"It {'lies' if kit.behind else 'is'} {kit_words(kit, words)}.",
                (kit.id, *([kit.behind] if kit.behind else [])),
            )
