"""Water, frost, gas, warmth and sweat on paper, a page each for the wall of the workshop. Pages in points."""

from __future__ import annotations

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
from uncle_sled.core.drawing.systems.own_battery_rows import PACK_CAUTION, bank_words, over_words, own_battery_rows
from uncle_sled.core.drawing.systems.sweat_views import sweat_picture
from uncle_sled.core.drawing.systems.warmth_chart import loss_bars, summer_bars
from uncle_sled.core.drawing.systems.water_chart import litres_chart, water_line
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


def comfort_sheets(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """A page for each that has something to show; none where nothing is known."""
    words, build = Words(s.build.brief.reading.shown()), s.build
    size = paper_of(build).upright
    w, half = size[0] - 2 * EDGE, (size[1] - 150) / 2
    coldest = build.brief.coldest.si if build.brief.coldest is not None else None
    faces: dict[str, str] = {f.kind: f.id for f in build.shell.faces}
    water = the_water(s)
    frost = frost_of(s)
    wet = litres_chart(water, words, w, half)
    carried = carried_out(s)
    alone = own_batteries(build, stay_mode(build), "mixed")
    pages: list[tuple[str, Shapes, Shapes]] = [
        ("On a battery of their own", own_battery_rows(alone, words, w, half), ()),
        ("Water", wet, water_line(build, water, words, w, half) if wet else ()),
        ("Gas and flames", boil_chart(the_gas(s), coldest, words, w, half), fuel_bars(the_gas(s), words, w, half)),
        ("Warmth", loss_bars(the_losses(s), words, w, half), summer_bars(the_gains(s), words, w, half)),
        ("Walls beside what burns", hot_walls_chart(hot_walls(build, s.facts, s.framed), words, w, half), ()),
        ("Air and noise", slots_chart(fridge_slots(build, s.framed), words, w, half), noise_chart(noise_at_heads(s), w, half)),
        ("Frost, and what to empty", frost_bars(frost, words, w, half), ()),
        ("What sweats on the coldest night", sweat_picture(the_night(s), s.framed, faces, words, w, half), ()),
    ]
    made: list[Page] = []
    for title, upper, lower in pages:
        if upper or lower:
            sheets = Sheets(size, title, f"{f'{name}, {build.name}'[:60]}, {day}", CAUTION)
            if title.startswith("Gas"):
                sheets.stops(stop_words(s, ("Systems",), where=[thing.id for thing in build.stow.things if thing.burns != "none"]))
            for picture in (upper, lower):
                if picture:
                    sheets.picture(half, picture)
            if title == "Water":
                sheets.head("Filled and carried out")
                for fills in carried.fills:
                    first, *rest = carried_words(fills, words)
                    sheets.words(f"{NAMES[fills.kind]}: {'; '.join([first, *([' '.join(rest)] if rest else [])])}.", 11)
            if title.startswith("On a battery"):
                for line in (over_words(alone), bank_words(alone.bank) if alone.bank is not None else ""):
                    sheets.words(line, 12)
                sheets.words(PACK_CAUTION, 10, "pencil")
            if title.startswith("Air"):
                for line in (*cooler_words(wall_coolers(build, s.facts, s.framed), words), *alarm_words(s, words)):
                    sheets.words(line, 11)
            if title.startswith("Frost"):
                sheets.head("Empty it in this order")
                for line in drain_words(s, frost):
                    sheets.words(line, 12)
                sheets.gap()
                for line in (*frost_words(frost, words), FROST_CAUTION):
                    sheets.words(line, 10, "pencil")
            made += sheets.done()
    return tuple(made)
