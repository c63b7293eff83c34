"""A lift drawn to scale with hook, legs, centre of gravity and lines, its numbers with their limits, and who stands where."""

from __future__ import annotations

from uncle_sled.core.drawing.build.lift_drawn import lift_drawn
from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.sheets import Sheets
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.lifting import Lifted, Said
from uncle_sled.core.words import Words

CAUTION = "Screening only. A qualified lifter decides. Stop sign: both arms up, everybody stops. Nobody under it, nobody between it and the way it falls."
INKS = {"good": "ink", "told": "ink", "warn": "ochre word", "refuse": "primer", "not checked": "ochre word"}


def said_words(said: Said, words: Words) -> str:
    """A number with its unit, and its limit where it has one."""

    def told(value: float) -> str:
        if said.unit == "N":
            return words.newtons(value) if value >= 10000 else words.fine_newtons(value)
        return {
            "m": words.m(value),
            "deg": f"{value:.0f}°",
            "kg": words.kg(value),
            "m/s": words.kmh(value * 3.6) if words.shown.imperial else words.of(value, "m/s", 1),
            "N m": words.of(value, "N m", 0),
            "people": f"{value:.0f}",
        }[said.unit]

    limit = f" of {told(said.limit)}" if said.limit is not None else ", not checked" if said.verdict == "not checked" else ""
    return f"{said.name}: {told(said.value)}{limit}"


def crew_pages(s: Studied, lifts: tuple[Lifted, ...], paper: Paper, name: str, day: str) -> tuple[Page, ...]:
    """A sheet a lift: what is lifted, how sure, order, who, stop sign."""
    pages: list[Page] = []
    words = Words(s.build.brief.reading.shown())
    for number, made in enumerate(lifts, 1):
        sheets = Sheets(paper.lying, f"Lift {number}: {made.name}, {made.lift.way}", f"{name[:60]}, {day}", CAUTION)
        if made.why:
            sheets.stops([f"not known: {made.why}"])
            pages += sheets.done()
            continue
        sheets.stops(f"NOT LIKE THIS: {text}" for text in made.refusals)
        mass = f"{words.kg(made.mass_kg)}, give or take {words.kg(2 * made.sigma_kg)}; all by {words.kg(made.taken_kg)} (mean and two sigma, computed)"
        sheets.words(mass, 13, face="strong")
        wide, high = sheets.room
        tall = min(high * 0.62, 330.0)
        sheets.picture(tall, lift_drawn(s, made, words, wide, tall))
        sheets.head("Who stands where")
        for text in made.crew:
            sheets.words(text, 12)
        sheets.head("Numbers")
        for said in made.said:
            sheets.words(said_words(said, words), 12, INKS[said.verdict])
        pages += sheets.done()
    return tuple(pages)
