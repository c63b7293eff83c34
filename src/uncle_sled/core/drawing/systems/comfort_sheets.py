"""Water, gas, warmth and sweat on paper, a page each for the wall of the workshop. Pages in points."""

from __future__ import annotations

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import paper_of
from uncle_sled.core.drawing.primitives import Primitive, Text, line, placed
from uncle_sled.core.drawing.systems.gas_chart import boil_chart, fuel_bars
from uncle_sled.core.drawing.systems.sweat_views import sweat_picture
from uncle_sled.core.drawing.systems.warmth_chart import loss_bars, summer_bars
from uncle_sled.core.drawing.systems.water_chart import litres_chart, water_line
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.systems_as_built import the_gains, the_gas, the_losses, the_night, the_water
from uncle_sled.core.words import Words

EDGE = 40.0
CAUTION = (
    "Screening only, by typed figures. Gas and flames are for licensed people where the law says so; makers' papers and local rules decide."
)
Shapes = tuple[Primitive, ...]


def comfort_sheets(s: Studied, name: str, day: str) -> tuple[Page, ...]:
    """A page for each that has something to show; none where nothing is known."""
    words, build = Words(s.build.brief.reading.shown()), s.build
    wide, high = paper_of(build).upright
    w, half = wide - 2 * EDGE, (high - 2 * EDGE - 70) / 2
    coldest = build.brief.coldest.si if build.brief.coldest is not None else None
    faces: dict[str, str] = {f.kind: f.id for f in build.shell.faces}
    water = the_water(s)
    wet = litres_chart(water, words, w, half)
    pages: list[tuple[str, Shapes, Shapes]] = [
        ("Water", wet, water_line(build, water, words, w, half) if wet else ()),
        ("Gas and flames", boil_chart(the_gas(s), coldest, words, w, half), fuel_bars(the_gas(s), words, w, half)),
        ("Warmth", loss_bars(the_losses(s), words, w, half), summer_bars(the_gains(s), words, w, half)),
        ("What sweats on the coldest night", sweat_picture(the_night(s), s.framed, faces, words, w, half), ()),
    ]
    told = f"{name}, {build.name}"
    return tuple([_page(title, upper, lower, (wide, high), half, told, day) for title, upper, lower in pages if upper or lower])


def _page(title: str, upper: Shapes, lower: Shapes, size: tuple[float, float], half: float, whose: str, day: str) -> Page:
    wide, high = size
    y = high - EDGE
    shapes: list[Primitive] = [
        Text((EDGE, y), title, 16, "ink", "head", "left"),
        Text((wide - EDGE, y), f"{elided(whose, 11, wide / 2)}, {day}", 11, "pencil", anchor="right"),
        line((EDGE, y - 14), (wide - EDGE, y - 14), "rule"),
        *placed(upper, 1.0, EDGE, EDGE + 30 + half),
        *placed(lower, 1.0, EDGE, EDGE + 20),
    ]
    foot = wrapped(CAUTION, 9, wide - 2 * EDGE)
    shapes += [Text((EDGE, EDGE - 8 - 11 * at), one, 9, "pencil", anchor="left") for at, one in enumerate(foot)]
    return Page(wide, high, tuple(shapes), title)
