"""Judged of air that is led about: free air behind fridges, the hot side of air conditioners, noise beside heads."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.findings.rule import Rule
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.fridge_slots import Slots, fridge_slots
from uncle_sled.core.studies.systems.noise import DOUBT_DB, SLEEPS_DB, AtHead, noise_at_heads
from uncle_sled.core.studies.systems.wall_cooler import Cooler, wall_coolers
from uncle_sled.core.words import Words, all_of, lower_first

SOURCE = "stack effect, heat of evaporation, room acoustics"
CAUTION = "What its papers ask goes first; a gas fridge's slots are air for its flame as well, and its flue leads outside."


def _wider(s: Studied, finding: Finding) -> tuple[tuple[Op, ...], str] | None:
    """Openings as large as it wants."""
    slots = next((each for each in fridge_slots(s.build, s.framed) if each.id == finding.where[0]), None)
    if slots is None or slots.wanted_cm2 is None or slots.there_cm2 is None:
        return None
    wanted = float(-(-slots.wanted_cm2 // 10) * 10)
    words = Words(s.build.brief.reading.shown())
    return (set_to(f"stow.things.{slots.id}.figures.slot_cm2", wanted),), f"Open {words.of(wanted, 'cm2', 0)} low and as much high"


FRIDGE_AIR = Rule(
    "fridge-air",
    "mind",
    "Systems",
    "A built-in fridge with less free air behind it than its heat wants, or of which nobody said how much",
    "A fridge that cannot be rid of its heat runs all day, takes half as much again, and dies young.",
    CAUTION,
    helps="edit",
    cure=_wider,
    after=lambda _tried, _finding: "it is rid of its heat",
    why_none="Holes low and high behind it, in the floor and the wall or in its front (In hand, Free air).",
)
HOT_SIDE = Rule(
    "cooler-hot-side",
    "note",
    "Systems",
    "An air conditioner inside of whose hot side no hole is drawn",
    "What it takes out of the room has to leave it: without a hole it heats the room by what it draws.",
    why_none="Draw the hole behind it on Shell, or set it on the roof or outside.",
)
BACK_IN = Rule(
    "cooler-back-in",
    "note",
    "Systems",
    "An opening beside the hot side of an air conditioner",
    "Its warm air comes in again where a window stands open beside it.",
    why_none="Keep it shut while it runs, or put the two further apart.",
)
LOUD = Rule(
    "noise-at-head",
    "note",
    "Systems",
    "More noise at a head by night than most sleep through",
    "What hums and clicks beside an ear is switched off, and then it is cold, or the food is warm.",
    why_none="The head at the other end, a quieter one, further off, or behind a wall.",
)


def air_findings(s: Studied, words: Words) -> Iterator[Finding]:
    """Silent where there is neither fridge nor cooler, and where nobody lies near what is known to be loud."""
    for slots in fridge_slots(s.build, s.framed):
        if slots.built_in and (slots.short or slots.there_cm2 is None):
            yield _of_fridge(slots, words)
    for cooler in wall_coolers(s.build, s.facts):
        yield from _of_cooler(cooler, words)
    yield from _of_noise(noise_at_heads(s))


def _of_fridge(slots: Slots, words: Words) -> Finding:
    name = slots.name
    if slots.wanted_cm2 is None:
        says = "It is built in, and neither its watts nor its free air are said."
    else:
        says = (
            f"{words.of(slots.heat_w or 0.0, 'W heat', 0)} while it runs want {words.of(slots.wanted_cm2, 'cm2', 0)} low and as much high"
        )
        there = "nobody said what is open" if slots.there_cm2 is None else f"{words.of(slots.there_cm2, 'cm2', 0)} are open"
        says = f"{says}; {there}."
    if slots.there_cm2 is None:
        return FRIDGE_AIR.found(f"Air behind {lower_first(name)}: nobody said", says, (slots.id,), severity="note")
    return FRIDGE_AIR.found(f"{name}: too little air behind it", says, (slots.id,), number=(slots.wanted_cm2 or 0.0) - slots.there_cm2)


def _of_cooler(cooler: Cooler, words: Words) -> Iterator[Finding]:
    if not cooler.hot:
        watts = "what its plate says" if cooler.rejects_w is None else words.of(cooler.rejects_w, "W heat", 0)
        yield HOT_SIDE.found(
            f"{cooler.name}: where does its hot side blow?", f"No hole behind it is drawn; {watts} have to leave by one.", (cooler.id,)
        )
    if cooler.back_in:
        yield BACK_IN.found(
            f"{cooler.name} beside {lower_first(cooler.back_in[0])}",
            f"Its warm air comes back in by {all_of(cooler.back_in)}.",
            (cooler.id,),
        )


def _of_noise(heads: tuple[AtHead, ...]) -> Iterator[Finding]:
    """Of each bed its quieter end: one may lie the other way round."""
    best: dict[str, AtHead] = {}
    for head in heads:
        if head.db is not None and (head.bed not in best or head.db < (best[head.bed].db or 0.0)):
            best[head.bed] = head
    for head in best.values():
        loudest = head.loudest
        if loudest is not None and (head.db or 0.0) > SLEEPS_DB:
            yield LOUD.found(
                f"{head.db:.0f} dB at a head",
                f"{head.name}, head to the {head.end}, the quieter end: {loudest.name} most of all; most sleep through {SLEEPS_DB:.0f} dB. Give or take {DOUBT_DB:.0f} dB.",
                (head.bed, loudest.id),
                number=(head.db or 0.0) - SLEEPS_DB,
            )
