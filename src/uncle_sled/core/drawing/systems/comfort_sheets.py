"""Water, frost, gas, warmth and sweat on paper, a page each for the wall of the workshop. Pages in points."""

from __future__ import annotations

from typing import NamedTuple

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.sheets import EDGE, Sheets
from uncle_sled.core.drawing.stops import stop_words
from uncle_sled.core.drawing.systems.air_rows import alarm_words, cooler_words, noise_chart, slots_chart
from uncle_sled.core.drawing.systems.carried_rows import NAMES, carried_words
from uncle_sled.core.drawing.systems.frost_chart import frost_bars
from uncle_sled.core.drawing.systems.frost_words import CAUTION as FROST_CAUTION
from uncle_sled.core.drawing.systems.frost_words import drain_words, frost_words
from uncle_sled.core.drawing.systems.gas_chart import boil_chart, fuel_bars
from uncle_sled.core.drawing.systems.hot_walls_chart import hot_walls_chart
from uncle_sled.core.drawing.systems.own_battery_rows import bank_words, over_words, own_battery_rows, rows_high
from uncle_sled.core.drawing.systems.sweat_views import sweat_picture
from uncle_sled.core.drawing.systems.warmth_chart import loss_bars, summer_bars
from uncle_sled.core.drawing.systems.water_chart import litres_chart, water_line
from uncle_sled.core.findings.systems.own_battery_rules import CAUTION as PACK_CAUTION
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.carried_out import carried_out
from uncle_sled.core.studies.systems.fridge_slots import fridge_slots
from uncle_sled.core.studies.systems.frost import frost_of
from uncle_sled.core.studies.systems.hot_walls import hot_walls
from uncle_sled.core.studies.systems.noise import noise_at_heads
from uncle_sled.core.studies.systems.own_batteries import own_batteries
from uncle_sled.core.studies.systems.systems_as_built import stay_mode, the_gains, the_gas, the_losses, the_night, the_water
from uncle_sled.core.studies.systems.wall_cooler import wall_coolers
from uncle_sled.core.words import Words

CAUTION = (
    "Screening only, by typed figures. Gas and flames are for licensed people where the law says so; makers' papers and local rules decide."
)
Shapes = tuple[Primitive, ...]
WAY, HEADED, ROW = 150.0, 60.0, 36.0  # points: the way of the water; the head and a row of what is listed as bars


class Picture(NamedTuple):
    """A picture on a page, as high as it was drawn [points], with a heading where its page has several that do not say it themselves."""

    shapes: Shapes
    high: float
    head: str = ""


class Leaf(NamedTuple):
    """A page for the wall: its pictures, then what is told under them. stops_of: ids whose stops stand over all, where there are any."""

    title: str
    pictures: tuple[Picture, ...]
    head: str = ""
    lines: tuple[tuple[str, float, str], ...] = ()
    stops_of: tuple[str, ...] = ()


def comfort_sheets(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """A page for each that has something to show; none where nothing is known."""
    words, build = Words(s.build.brief.reading.shown()), s.build
    size = paper_of(build).upright
    w, half = size[0] - 2 * EDGE, (size[1] - 150) / 2
    coldest = build.brief.coldest.si if build.brief.coldest is not None else None
    faces: dict[str, str] = {f.kind: f.id for f in build.shell.faces}
    water = the_water(s)
    frost = frost_of(s)
    carried, alone = carried_out(s), own_batteries(build, stay_mode(build), "mixed")
    slots, heads = fridge_slots(build, s.framed), noise_at_heads(s)
    wet = litres_chart(water, words, w, half)
    way_high, rows_of, slots_of, heads_of = WAY, rows_high(alone) or 1.0, HEADED + ROW * len(slots), HEADED + ROW * len(heads)
    leaves = (
        Leaf(
            "On a battery of their own",
            (Picture(own_battery_rows(alone, words, w, rows_of), rows_of),),
            lines=(
                *((text, 12.0, "ink") for text in (over_words(alone), bank_words(alone.bank) if alone.bank is not None else "") if text),
                (PACK_CAUTION, 10.0, "pencil"),
            ),
        ),
        Leaf(
            "Water",
            (Picture(wet, half), Picture(water_line(build, water, words, w, way_high) if wet else (), way_high)),
            "Filled and carried out" if carried.fills else "",
            tuple((f"{NAMES[fills.kind]}: {_in_one(carried_words(fills, words))}.", 11.0, "ink") for fills in carried.fills),
        ),
        Leaf(
            "Gas and flames",
            (Picture(boil_chart(the_gas(s), coldest, words, w, half), half), Picture(fuel_bars(the_gas(s), words, w, half), half)),
            stops_of=tuple(thing.id for thing in build.stow.things if thing.burns != "none"),
        ),
        Leaf("Warmth", (Picture(loss_bars(the_losses(s), words, w, half), half), Picture(summer_bars(the_gains(s), words, w, half), half))),
        Leaf("Walls beside what burns", (Picture(hot_walls_chart(hot_walls(build, s.facts, s.framed), words, w, half), half),)),
        Leaf(
            "Air and noise",
            (
                Picture(slots_chart(slots, words, w, slots_of), slots_of, "Free air behind fridges, of each of two openings"),
                Picture(noise_chart(heads, w, heads_of), heads_of, "Noise at each end of the beds, by night"),
            ),
            lines=tuple((text, 11.0, "ink") for text in (*cooler_words(wall_coolers(build, s.facts), words), *alarm_words(s, words))),
        ),
        Leaf(
            "Frost, and what to empty",
            (Picture(frost_bars(frost, words, w, half), half),),
            "Empty it in this order",
            (
                *((text, 12.0, "ink") for text in drain_words(s, frost)),
                *((text, 10.0, "pencil") for text in (*frost_words(frost, words), FROST_CAUTION)),
            ),
        ),
        Leaf("What sweats on the coldest night", (Picture(sweat_picture(the_night(s), s.framed, faces, words, w, half), half),)),
    )
    right = f"{f'{name}, {build.name}'[:60]}, {day}"
    return tuple([page for leaf in leaves for page in _pages(s, leaf, size, right)])


def _in_one(told: tuple[str, ...]) -> str:
    """What is told in lines beside a bar as one sentence."""
    first, *rest = told
    return "; ".join([first, " ".join(rest)] if rest else [first])


def _pages(s: Studied, leaf: Leaf, size: tuple[float, float], right: str) -> tuple[Page, ...]:
    """A leaf on as many pages as it wants; none where none of its pictures shows anything."""
    if not any(picture.shapes for picture in leaf.pictures):
        return ()
    sheets = Sheets(size, leaf.title, right, CAUTION)
    if leaf.stops_of:
        sheets.stops(stop_words(s, ("Systems",), where=list(leaf.stops_of)))
    for picture in leaf.pictures:
        if picture.shapes:
            if picture.head:
                sheets.head(picture.head)
            sheets.picture(picture.high, picture.shapes)
    if leaf.head and leaf.lines:
        sheets.head(leaf.head)
    for text, points, ink in leaf.lines:
        sheets.words(text, points, ink)
    return tuple(sheets.done())
