"""A lift drawn to scale with hook, legs, centre of gravity and lines, its numbers with their limits, and who stands where."""

from __future__ import annotations

from uncle_sled.core.drawing.page import Page
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.primitives import Circle, Primitive, Text, line, rect
from uncle_sled.core.drawing.sheets import Sheets
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


def lift_drawn(made: Lifted, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """The picture alone, as large as it fits."""
    if made.why or made.size_m[0] <= 0:
        return ()
    return _crane(made, words, wide, high) if made.lift.way == "crane" else _other(made, words, wide, high)


def _crane(made: Lifted, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    long, tall = made.size_m
    lift = made.lift
    cg = made.cg_m[0]
    a = lift.pick_front.si if lift.pick_front is not None else max(cg - long / 4, long / 8)
    b = lift.pick_rear.si if lift.pick_rear is not None else max(long * 3 / 4 - cg, long / 8)
    hook = max(lift.hook.si if lift.hook is not None else a + b, 0.1)
    scale = min((wide - 150) / long, (high - 64) / (tall + hook + 0.2))
    left, foot = (wide - long * scale) / 2, 40.0
    x, top = left + cg * scale, foot + tall * scale
    peak = (x, top + hook * scale)
    ends = ((left + (cg - a) * scale, top), (left + (cg + b) * scale, top))
    ink = "primer" if made.refusals else "ink"
    shapes: list[Primitive] = [rect(left, foot, long * scale, tall * scale, stroke="ink", fill="wood", hatch="wood", width=1.6, tint=0.35)]
    shapes += [line(end, peak, ink, 2.0) for end in ends]
    if lift.spreader:
        shapes.append(line((ends[0][0], top + 14), (ends[1][0], top + 14), "zinc", 4.0))
    shapes += [line(peak, (x, high - 6), "ink", 1.4), Circle(peak, 6, "ink", "paper", 2.0)]
    shapes += [line((x, peak[1]), (x, foot), "chalk", 1.0, (4.0, 3.0))]
    shapes += [
        Circle((x, foot + made.cg_m[1] * scale), 6, "chalk", "chalk"),
        Text((x + 10, foot + made.cg_m[1] * scale), "centre of gravity", 10, "chalk", anchor="left", ground="paper"),
    ]
    for end, side, name in ((left, -1, "tag line"), (left + long * scale, 1, "tag line")):
        shapes.append(line((end, foot + 6), (end + side * 52, 22), "spruce", 1.4))
        shapes += [Circle((end + side * 56, 24), 5, "ink", "cargo"), Text((end + side * 56, 10), name, 10, "pencil")]
    for tie, reach in ((ends[0], a), (ends[1], b)):
        shapes.append(Text(((tie[0] + x) / 2, top - 10), words.m(reach), 10, "ink", ground="paper"))
    shapes.append(Text((peak[0] + 12, (peak[1] + top) / 2), words.m(hook), 10, "pencil", anchor="left", ground="paper"))
    return tuple(shapes)


def _other(made: Lifted, _words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Tilted up, carried or turned: as it starts and as it stands."""
    long, tall = made.size_m
    foot = 36.0
    if made.lift.way == "by hand":
        scale = min((wide - 80) / long, (high - 90) / tall)
        left = (wide - long * scale) / 2
        shapes: list[Primitive] = [
            rect(left, foot + 16, long * scale, tall * scale, stroke="ink", fill="wood", hatch="wood", width=1.6, tint=0.35)
        ]
        for k in range(made.hands):
            x = left + long * scale * (k + 0.5) / max(made.hands, 1)
            shapes.append(Circle((x, foot + 4 if k % 2 else foot + 28 + tall * scale), 6, "ink", "cargo"))
        return tuple(shapes)
    reach = tall if made.lift.way == "tilt up" else made.size_m[1]
    scale = min((wide - 120) / (2 * reach), (high - 70) / reach)
    pivot = (wide / 2 - reach * scale / 2, foot)
    shapes = [line((20, foot - 4), (wide - 20, foot - 4), "pencil", 1.4)]
    for degrees, dash in ((20.0, ()), (60.0, (5.0, 4.0)), (88.0, (3.0, 4.0))):
        import math

        c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
        end = (pivot[0] + reach * scale * c, pivot[1] + reach * scale * s)
        shapes.append(line(pivot, end, "ink", 5.0 if not dash else 2.0, dash))
        if not dash:
            at = made.lift.hands_at.si if made.lift.hands_at is not None else min(tall, 1.9)
            share = min(at / reach, 1.0) if made.lift.way == "tilt up" else 1.0
            spot = (pivot[0] + reach * scale * c * share, pivot[1] + reach * scale * s * share)
            shapes += [
                Circle(spot, 7, "ink", "cargo"),
                Text(
                    (spot[0] + 12, spot[1] - 12),
                    "hands" if made.lift.way == "tilt up" else "hoist",
                    10,
                    "pencil",
                    anchor="left",
                    ground="paper",
                ),
            ]
            shapes.append(Circle((pivot[0] + made.cg_m[1] * scale * c, pivot[1] + made.cg_m[1] * scale * s), 6, "chalk", "chalk"))
    shapes += [line((pivot[0] - 70, foot), (pivot[0] + reach * scale * 0.02, foot + reach * scale * 0.9), "spruce", 1.6)]
    shapes.append(Text((pivot[0] - 70, foot + 12), "line the other way", 10, "spruce", anchor="middle", ground="paper"))
    shapes.append(Circle(pivot, 5, "ink", "paper", 1.6))
    return tuple(shapes)


def crew_pages(lifts: tuple[Lifted, ...], words: Words, paper: Paper, name: str, day: str) -> tuple[Page, ...]:
    """A sheet a lift: what is lifted, how sure, order, who, stop sign."""
    pages: list[Page] = []
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
        sheets.picture(tall, lift_drawn(made, words, wide, tall))
        sheets.head("Who stands where")
        for text in made.crew:
            sheets.words(text, 12)
        sheets.head("Numbers")
        for said in made.said:
            sheets.words(said_words(said, words), 12, INKS[said.verdict])
        pages += sheets.done()
    return tuple(pages)
