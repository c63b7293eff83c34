"""Judged of the toilet and of what is carried out: full before the days are over, held by nothing, too heavy for one pair of hands."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.carried_out import HAND_KG, OUT, Fills, carried_out
from uncle_sled.core.words import Words, count_of

SOURCE = "litres a day against what is aboard"
NAMES = {"black": "The toilet's tank", "urine": "The urine", "solids": "The dry toilet"}
CAUTION = "Empty it where that is meant to be done, with gloves; wash your hands. Local rules decide what may go where."
LIFTING = "Full and at arm's length: two people, or half full."


FULL = Rule(
    "toilet-full",
    "mind",
    "Systems",
    "A toilet's tank, bottle or bin that is full before the days are over",
    "What is full is full at night, and far from where it may be emptied.",
    CAUTION,
    why_none="A larger one, a second one, or somewhere to empty it on the way.",
)
HOLDLESS = Rule(
    "toilet-holds",
    "note",
    "Systems",
    "A toilet of which nobody said what it holds",
    "How many days it lasts and what it weighs on the way home is not checked until that is said.",
    CAUTION,
    why_none="In hand, Use: It holds something; its plate says how much.",
)
HEAVY = Rule(
    "carried-heavy",
    "note",
    "Systems",
    "Something carried out by hand that is too heavy for one person when it is full",
    "It is carried over steps and wet grass, and what it spills is what one does not want to spill.",
    LIFTING,
    why_none="Smaller ones, or empty it sooner.",
)


def toilet_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Silent where there is neither toilet nor jug."""
    made = carried_out(s)
    for id in made.holdless:
        name = next(t.name for t in s.build.stow.things if t.id == id)
        yield HOLDLESS.found(f"What does {name} hold?", "Nobody said; its days and its weight are not counted.", (id,))
    for fills in made.fills:
        if fills.kind in OUT and fills.days is not None and made.wanted_days is not None and fills.days < made.wanted_days - 1e-6:
            yield FULL.found(
                f"{NAMES[fills.kind]}: full after {fills.days:.1f} days",
                _says(fills, made.people, made.wanted_days, words),
                (fills.ids[0],),
                number=made.wanted_days - fills.days,
                severity="mind" if fills.fixed else "note",
            )
        for carry in fills.carries:
            if carry.kg > HAND_KG + 1e-9:
                yield HEAVY.found(
                    f"{carry.name}: {words.kg(carry.kg)} when full",
                    f"One person carries {words.kg(HAND_KG)} at the most.",
                    (carry.id,),
                    number=carry.kg - HAND_KG,
                )


def _says(fills: Fills, people: int, wanted: float, words: Words) -> str:
    first = f"{count_of(people, 'person fills', 'people fill')} {words.m3((fills.day_l or 0.0) / 1000)} a day; {words.m3(fills.room_l / 1000)} have room, and {wanted:.0f} days are wanted."
    trips = sum(carry.times or 0 for carry in fills.carries)
    return f"{first} Carried out {count_of(trips, 'time', 'times')}." if trips else first
