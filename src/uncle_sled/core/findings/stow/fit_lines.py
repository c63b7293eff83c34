"""Who fits, who gets out, what is at hand: one line each with its number, limit and verdict."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.findings.stow.fit_words import kit_words, passing_words, size_words
from uncle_sled.core.findings.stow.said import MOST_LINES, Said, Verdict
from uncle_sled.core.parts.part import Part
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow import at_hand
from uncle_sled.core.studies.stow.beds import STAND_OVER_M, beds_in, narrow, sleepers_in, standing_room_m, tallest_m
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.ways_out import least_m, ways_out
from uncle_sled.core.words import Words, lower_first, upper_first


def beds_lines(s: Studied, mode: Mode, words: Words) -> Iterator[Said]:
    """Who lies where, how wide, and with how much room over it."""
    build, facts = s.build, s.facts
    sleepers, beds = sleepers_in(build, facts, mode), beds_in(build, facts, mode)
    names = {bed.id: bed for bed in beds}
    for sleeper in sleepers:
        if sleeper.fits and sleeper.bed:
            bed = names[sleeper.bed]
            yield Said(
                "good", f"{sleeper.name}, {words.m(sleeper.tall_m or 0)}: {lower_first(bed.name)}, {words.m(bed.long_m)} long", (bed.id,)
            )
        elif sleeper.tall_m is None:
            yield Said("none", f"{sleeper.name}: no height yet; type it on the Brief")
        else:
            longest = max((bed.long_m for bed in beds), default=0.0)
            why = (
                f"the longest bed is {words.m(longest)}, {words.m(sleeper.tall_m + 0.1)} is wanted"
                if beds and longest < sleeper.tall_m + 0.1
                else sleeper.why
            )
            yield Said("bad", f"{sleeper.name}: {why}")
    if not sleepers:
        yield Said("none", "Nobody sleeps in it yet; add them on the Brief.")
    for bed in beds:
        each = narrow(bed, sleepers)
        if each is not None:
            yield Said("mind", f"{bed.name}: {words.m(each)} each; {words.m(0.6)} is good", (bed.id,))
        if bed.head_room_m is not None:
            fits = bed.head_room_m >= 0.9
            verdict: Verdict = "good" if fits else "mind" if build.brief.sits_up else "none"
            yield Said(verdict, f"{words.m(bed.head_room_m)} over the {lower_first(bed.name)}; {words.m(0.9)} to sit up", (bed.id,))


def ways_lines(s: Studied, mode: Mode, words: Words) -> Iterator[Said]:
    """Every way out, whether it is large enough and free."""
    build, facts = s.build, s.facts
    ways = ways_out(build, facts, mode)
    if not ways:
        yield Said("none", "No door, hatch or window is drawn yet; cut them in on the Shell stop.")
    for way in ways[: MOST_LINES - 1]:
        size = f"{words.m(way.clear_m[0])} × {words.m(way.clear_m[1])}"
        if way.good:
            past = f", past the {way.through}" if way.through else ""
            yield Said("mind" if way.through else "good", f"{way.name}, {size}{past}")
        else:
            why = f"too small, {size}" if way.small else way.why
            yield Said("none", words.told(f"{way.name}: {why}"))
    if ways:
        yield Said("none", f"Two are wanted, {size_words(least_m(s.build.brief.lived_in), words)} clear at least.")


def arrival_lines(s: Studied, words: Words) -> Iterator[Said]:
    """What is wanted first on arrival, and whether it can be got at."""
    build, facts = s.build, s.facts
    road = next((mode for mode in build.stow.modes if mode.towing), build.stow.modes[0])
    kit = at_hand.arrival_kit(build, facts, road)
    for reached in kit[: MOST_LINES - 1]:
        yield Said(
            "good" if reached.good else "bad",
            f"{reached.name}: {kit_words(reached, words)}",
            (reached.id, *([reached.behind] if reached.behind else [])),
        )
    if not kit:
        yield Said("none", "Nothing is marked as wanted first: blocks, cord, hose, gloves.")


def doors_lines(s: Studied, mode: Mode, words: Words) -> Iterator[Said]:
    """What comes and goes through the doors, and the way from door to bed."""
    build, facts = s.build, s.facts
    going = sorted(at_hand.passing(build, facts), key=lambda each_passing: each_passing.good)
    for passing in going[: MOST_LINES - 1]:
        yield Said(
            "good" if passing.good else "bad",
            f"{passing.name} {passing_words(passing, words)}" if not passing.good else f"{passing.name} goes through",
            (passing.id,),
        )
    if not going:
        yield Said("none", "Nothing that comes and goes is aboard, or no door is drawn.")
    wide = at_hand.aisle_m(build, facts, mode)
    if wide is not None:
        verdict: Verdict = "good" if wide >= at_hand.GOOD_AISLE_M - 0.005 else "mind" if wide >= at_hand.AISLE_M - 0.005 else "bad"
        yield Said(verdict, f"Way from door to bed {words.m(wide)} wide; {words.m(0.5)} least, {words.m(0.6)} good")


def upright_lines(s: Studied, mode: Mode, words: Words) -> Iterator[Said]:
    """Standing, sitting and cooking heights."""
    build, facts = s.build, s.facts
    tallest, room = tallest_m(build, facts), standing_room_m(build, facts, mode)
    if room is not None and tallest is not None:
        want = tallest + STAND_OVER_M
        verdict: Verdict = "good" if room >= want else "bad" if build.brief.stands else "none"
        yield Said(verdict, f"{words.m(room)} to stand in; the tallest wants {words.m(want)}")
    elif room is None and room_of(build, facts) is None:
        yield Said("none", "There is no body yet to stand in.")
    sit, want_seats = at_hand.seats(build, mode), build.brief.eats_inside
    if sit or want_seats:
        yield Said("good" if sit >= want_seats else "bad", f"{sit} can sit; {want_seats} eat inside")
    for each_height in at_hand.heights(build, facts, mode):
        low, high = each_height.span_m
        yield Said(
            "good" if each_height.good else "mind",
            f"{upper_first(each_height.name)}, {each_height.role}: {words.m(each_height.height_m)} up; {words.m(low)} to {words.m(high)}",
            (each_height.id,),
        )
    for id, name, height in at_hand.hatch_head_m(build, facts):
        if tallest is not None:
            yield Said(
                "good" if height >= tallest else "mind",
                f"{words.m(height)} under the open {lower_first(name)}; the tallest is {words.m(tallest)}",
                (id,),
            )


def sides_lines(s: Studied, row: int, words: Words) -> Iterator[Said]:
    """What the left and the right wheels carry, and what owns the difference."""
    left, right = float(s.readings.left_kg[row]), float(s.readings.right_kg[row])
    if left != left or left + right <= 0:
        yield Said("none", "No wheels or track yet, so no left and right.")
        return
    lean = (right - left) / (left + right)
    side = "right" if lean > 0 else "left"
    verdict: Verdict = "good" if abs(lean) <= 0.05 else "mind"
    yield Said(verdict, f"{words.kg(left)} left, {words.kg(right)} right: {words.share(abs(lean))} heavy {side}; 5 % is the most")
    track = s.support.track_m if s.support else None
    if track:
        yield from _owners(s, row, track, 1.0 if lean > 0 else -1.0, words)


def _owners(s: Studied, row: int, track: float, sign: float, words: Words) -> Iterator[Said]:
    """What pulls to the heavier side most, by its difference between the wheels."""
    table = s.table
    sums: dict[str, float] = {}
    for at, id in enumerate(table.ids):
        sums[id.split("/")[0]] = sums.get(id.split("/")[0], 0.0) + float(table.mass_kg[row, at] * table.y_m[row, at])
    parts: dict[str, Part] = {part.id: part for part in s.parts}
    for id, moment in sorted(sums.items(), key=lambda pair: -sign * pair[1])[:3]:
        if sign * moment > 0.5 and id in parts:
            yield Said(
                "none", f"{parts[id].name} puts {words.kg(2 * sign * moment / track)} more on the {'right' if sign > 0 else 'left'}", (id,)
            )
