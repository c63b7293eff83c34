"""Gauge strips at full size, to print, cut out and stick to the side of each tank: a mark a step, by its true shape."""

from __future__ import annotations

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.page import POINTS_PER_M, Page, bar_of_100_mm
from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.geometry.vessel import gauge_marks, vessel_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import GALLON_M3, Shown, show

WIDTH, LEAST_HIGH, EDGE = 595.0, 842.0, 48.0
STRIP, FOOT = 120.0, 130.0
MOST_MARKS = 26
LONGEST_M = 3.0


def gauge_strips(s: Studied, project_name: str, today: str) -> tuple[Page, ...]:
    """A page for each tank that has a size and a volume; taller than paper where the tank is."""
    shown = s.build.brief.reading.shown()
    made = [_page(thing, shown, project_name, today) for thing in s.build.stow.things]
    return tuple(page for page in made if page is not None)


def step_m3(volume_m3: float, shown: Shown) -> float:
    """A round step that gives at most some two dozen marks."""
    unit = GALLON_M3 if shown.volume == "gal" else 0.001
    for step in (0.25, 0.5, 1, 2, 5, 10, 20, 50, 100):
        if volume_m3 / (step * unit) <= MOST_MARKS:
            return step * unit
    return volume_m3 / MOST_MARKS


def _page(thing: Thing, shown: Shown, project_name: str, today: str) -> Page | None:
    vessel = vessel_of(thing)
    if thing.tank is None or thing.tank.volume is None or vessel is None or vessel.size[2] > LONGEST_M:
        return None
    volume = thing.tank.volume.si
    marks = gauge_marks(vessel, volume, step_m3(volume, shown))
    if not marks:
        return None
    tall = vessel.size[2] * POINTS_PER_M
    high = max(LEAST_HIGH, tall + FOOT + 90)
    x, low = EDGE + 60, FOOT
    shapes: list[Primitive] = [
        Text((EDGE, high - 46), elided(thing.name, 22, WIDTH - 2 * EDGE, "head"), 22, "ink", "head", "left"),
        Text(
            (EDGE, high - 68),
            f"{show(volume, 'volume', shown.volume)} in a {thing.tank.shape}; {project_name}, {today}",
            10,
            "pencil",
            "text",
            "left",
        ),
        rect(x, low, STRIP, tall, stroke="ink", fill="", width=1.2),
    ]
    before = -100.0
    for at, (held, up) in enumerate(marks):
        y = low + up * POINTS_PER_M
        major = (at + 1) % 5 == 0 or held >= volume - 1e-9
        shapes.append(line((x, y), (x + (STRIP if major else STRIP * 0.45), y), "ink", 1.4 if major else 0.8))
        if y - before > 11:
            words = show(held, "volume", shown.volume)
            shapes.append(Text((x + STRIP + 8, y), words, 11 if major else 9, "ink", "strong" if major else "text", "left"))
            before = y
    for share, words in ((0.25, "1/4"), (0.5, "1/2"), (0.75, "3/4"), (1.0, "full")):
        y = low + vessel.fill(share).height_m * POINTS_PER_M
        shapes += [line((x - 16, y), (x, y), "ink", 2.0), Text((x - 22, y), words, 13, "ink", "strong", "right")]
    shapes += [
        *bar_of_100_mm(EDGE, 58),
        Text(
            (EDGE, 32),
            "By its outside; a thick wall holds a little less. Stick its foot level with the tank's underside.",
            9,
            "pencil",
            "text",
            "left",
        ),
    ]
    return Page(WIDTH, high, tuple(shapes), f"{thing.name}: gauge strip")
