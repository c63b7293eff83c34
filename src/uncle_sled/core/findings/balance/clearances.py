"""Judgements on room outside: the nose against the car in a bend, the tyres in their boxes."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.axle_conflicts import SPARE_M, tyre_gap
from uncle_sled.core.studies.balance.road_checks import turning
from uncle_sled.core.studies.balance.thresholds import standing_words, standings
from uncle_sled.core.words import Words, upper_first

SOURCE = "plane geometry of rig, ground and car"  # of every rule here, said after its reason

BACKS_DEG = 60.0  # as sharp as one backs on purpose; sharper the car cannot push it straight again
CAUTION = "Screening only: try it slowly in an empty yard, somebody watching, before the road."


def clearance_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Do tyres, hangers and the car's tail have their room? Yields what has not."""
    yield from _bend(s, words)
    yield from _tyres(s, words)
    yield from _classes(s, words)


OVER_CLASS = Rule(
    "over-class",
    "mind",
    "Rig",
    "Over a class of registration that one wants to stay under",
    "Another class has other papers, another test, another fee, perhaps another licence.",
    why_none="Lighter, lower, narrower or shorter; or untick that you want to stay under it (Rig).",
)
CLASS_UNCHECKED = Rule(
    "class-unchecked",
    "note",
    "Rig",
    "A class of registration that could not be held against",
    "What is not known may be over it.",
    why_none="Type what is missing: the body's sizes, or what makes the weight.",
)


def _classes(s: Studied, words: Words) -> Iterator[Finding]:
    for standing in standings(s):
        threshold = standing.threshold
        if not threshold.wanted:
            continue
        if standing.over:
            worst = max(-(row.left or 0.0) / max(row.most, 1e-9) for row in standing.over)
            yield OVER_CLASS.found(f"Over {threshold.name}", standing_words(standing, words), (threshold.id,), number=worst)
        elif standing.unknown:
            yield CLASS_UNCHECKED.found(f"Is it in {threshold.name}?", standing_words(standing, words), (threshold.id,))


NOSE_MEETS_CAR = Rule(
    "nose-meets-car",
    "mind",
    "Rig",
    "In a tight bend the nose reaches the car",
    "Backing round a corner folds car and trailer sharply; nobody feels the nose come.",
    caution=CAUTION,
    why_none="A longer drawbar, a narrower nose, or never that sharp.",
)


def _bend(s: Studied, _words: Words) -> Iterator[Finding]:
    for each_turning in turning(s):
        if each_turning.from_deg is not None and each_turning.from_deg < BACKS_DEG:
            yield NOSE_MEETS_CAR.found(
                f"{upper_first(each_turning.nose)} meets the car",
                f"{each_turning.name}: from {each_turning.from_deg:.0f}° on {each_turning.nose} stands in its tail; backing round a corner wants {BACKS_DEG:.0f}°.",
                (each_turning.nose_id, each_turning.vehicle_id),
                number=BACKS_DEG - each_turning.from_deg,
            )


TYRE_RUBS = Rule(
    "tyre-rubs",
    "mind",
    "Rig",
    "A tyre comes nearer to its box than {40 mm}",
    "A tyre that rubs in a pothole is cut; fenders get welded off centre, so both sides are measured.",
    why_none="Another track or tyre, or larger wheel boxes.",
)


def _tyres(s: Studied, words: Words) -> Iterator[Finding]:
    gap = tyre_gap(s)
    if gap is None or gap.least_m is None or gap.least_m >= SPARE_M - 1e-6:
        return
    spots = {
        "beside the left tyre": gap.left_m,
        "beside the right tyre": gap.right_m,
        "over the tyre at full travel": gap.over_m,
        "ahead of and behind it": gap.along_m,
    }
    where, room = min(((at, room) for at, room in spots.items() if room is not None), key=lambda one: one[1])
    left = f"{words.thick(room)} is left" if room >= 0 else f"it lacks {words.thick(-room)}"
    yield TYRE_RUBS.found(
        "A tyre has no room" if room < 0 else "A tyre is close",
        f"{upper_first(where)} {left}, want {words.thick(SPARE_M)} at least.",
        ("wheels",),
        number=SPARE_M - room,
    )
