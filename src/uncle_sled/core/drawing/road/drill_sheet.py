"""Drills as they are drawn: the trailer with what is asked about, a gauge to point at, wires to choose from. Points, y up."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec

from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, dimension, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import heights_m, side_body, side_rig, side_wheels, thing_shapes
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.road.drills import BallDrill, FiveDrill, WireDrill
from uncle_sled.core.words import Words

EDGE, GAUGE_AT, ROW = 26.0, 58.0, 58.0
HEAD = 34.0


class Frame(msgspec.Struct, frozen=True):
    """Where the side view stands in the sheet: points a metre, and its origin."""

    scale: float
    x0: float
    y0: float

    def x(self, metres: float) -> float:
        """Where a distance stands on the drawing [points]."""
        return self.x0 + metres * self.scale

    def metres(self, x: float) -> float:
        """Which distance stands there: ``x`` turned round."""
        return (x - self.x0) / self.scale


def frame_of(s: Studied, wide: float, high: float, foot: float) -> Frame:
    """The side view between the head of the sheet and so much at its foot."""
    top, _ = heights_m(s.build)
    left, right = -0.4, length_m(s.build) + 0.4
    scale = max(min((wide - 2 * EDGE) / (right - left), (high - foot - HEAD) / (top + 0.15)), 4.0)
    return Frame(scale, (wide - (right - left) * scale) / 2 - left * scale, foot)


def _trailer(s: Studied, frame: Frame, row: int, lit: Sequence[str], hide: Sequence[str] = ()) -> list[Primitive]:
    """The side view with a few things lit and the rest faint."""
    shapes: list[Primitive] = [*side_rig(s.build), *side_body(s.build)]
    for task in things_in(s, row):
        if task.thing.id in hide:
            continue
        drawn = thing_shapes(task, "side", task.thing.id in lit)
        if task.thing.id not in lit:
            drawn = tuple(msgspec.structs.replace(d, stroke="rule", fill="", hatch="") if isinstance(d, Poly) else d for d in drawn[:1])
        shapes += drawn
    shapes += side_wheels(s.build)
    return list(placed(tuple(shapes), frame.scale, frame.x0, frame.y0))


# the ball
def gauge_x(drill: BallDrill, kg: float, wide: float) -> float:
    """Where a load on the ball [kg] falls on the gauge [points]."""
    return EDGE + (kg - drill.low) / (drill.high - drill.low) * (wide - 2 * EDGE)


def gauge_kg(drill: BallDrill, x: float, wide: float) -> float:
    """What a place on the gauge says [kg], within its ends."""
    share = min(max((x - EDGE) / max(wide - 2 * EDGE, 1.0), 0.0), 1.0)
    return drill.low + share * (drill.high - drill.low)


def ball_drawn(
    drill: BallDrill, s: Studied, guess_kg: float, answered: bool, words: Words, wide: float, high: float
) -> tuple[Primitive, ...]:
    """The trailer with what changes, its distances, and the gauge with the pointer; the truth where it was answered."""
    frame = frame_of(s, wide, high, GAUGE_AT + 104)
    shapes = _trailer(s, frame, drill.row, (drill.id,))
    low = frame.y0 - 14
    shapes += dimension((frame.x(0.0), low), (frame.x(drill.axle_m), low), f"ball to axle {words.m(drill.axle_m)}", 4)
    off = drill.at_m - drill.axle_m
    if drill.change == "moved":
        a, b = sorted((drill.at_m, drill.to_m))
        told = f"moves {words.m(abs(drill.to_m - drill.at_m))} {'aft' if drill.to_m > drill.at_m else 'forward'}"
    else:
        a, b = sorted((drill.at_m, drill.axle_m))
        told = f"{words.m(abs(off))} {'behind' if off > 0 else 'ahead of'} the axle"
    shapes += [line((frame.x(a), low - 22), (frame.x(b), low - 22), "chalk", 1.4)]
    shapes += [line((frame.x(m), low - 28), (frame.x(m), low - 16), "chalk", 1.4) for m in (a, b)]
    shapes.append(Text(((frame.x(a) + frame.x(b)) / 2, low - 36), told, 11, "chalk", "strong", ground="paper"))
    band = s.readings.band_kg[drill.row]
    y = GAUGE_AT
    shapes.append(rect(EDGE, y - 5, wide - 2 * EDGE, 10, stroke="pencil", fill="rule", tint=0.5))
    if band[0] == band[0]:
        a_x, b_x = gauge_x(drill, float(band[0]), wide), gauge_x(drill, float(band[1]), wide)
        shapes.append(rect(a_x, y - 5, b_x - a_x, 10, stroke="spruce", fill="spruce", tint=0.6))
    for kg in _ticks(drill, words):
        x = gauge_x(drill, kg, wide)
        shapes += [line((x, y - 9), (x, y - 5), "pencil"), Text((x, y - 20), words.bare_kg(kg), 10, "pencil")]
    x = gauge_x(drill, drill.before_kg, wide)
    shapes += [line((x, y - 8), (x, y + 8), "ink", 2.0), Text((x, y - 34), f"now {words.kg(drill.before_kg)}", 10, "ink")]
    shapes += _pointer(gauge_x(drill, guess_kg, wide), y + 7, "chalk", words.kg(guess_kg))
    if answered:
        x = gauge_x(drill, drill.after_kg, wide)
        shapes += [line((x, y - 12), (x, y + 12), "primer", 3.0)]
        shapes.append(Text((x, y + 46), f"it says {words.kg(drill.after_kg)}", 12, "primer", "strong", ground="paper"))
    return tuple(shapes)


def _ticks(drill: BallDrill, words: Words) -> list[float]:
    """Round marks of the gauge in the builder's unit [kg]."""
    unit = 0.45359237 if words.shown.mass == "lb" else 1.0
    span = (drill.high - drill.low) / unit
    step = next((one for one in (5, 10, 20, 50, 100, 200, 500) if span / one <= 9), 1000)
    first = int(drill.low / unit // step) + 1
    return [k * step * unit for k in range(first, first + 12) if k * step * unit < drill.high]


def _pointer(x: float, y: float, ink: str, told: str) -> list[Primitive]:
    return [
        Poly(((x, y), (x - 9, y + 16), (x + 9, y + 16)), ink, ink, 1.0, tint=0.9),
        Text((x, y + 26), told, 12, ink, "strong", ground="paper"),
    ]


def ball_why(drill: BallDrill, words: Words) -> str:
    """The sum behind the answer: moments about the axle."""
    axle = words.m(drill.axle_m)
    by = drill.after_kg - drill.before_kg
    how = f"{words.signed_kg(by)} on the ball"
    if drill.change == "moved":
        way = "aft" if drill.to_m > drill.at_m else "forward"
        return f"{words.fine_kg(drill.kg)} × {words.m(abs(drill.to_m - drill.at_m))} {way} ÷ {axle} = {how}."
    off = drill.at_m - drill.axle_m
    where = "behind" if off > 0 else "ahead of"
    return f"{words.fine_kg(drill.kg)} × {words.m(abs(off))} {where} the axle ÷ {axle} = {how}."


# the wire
def wire_at(drill: WireDrill, y: float, high: float) -> str | None:
    """The id of the wire at a height of the sheet."""
    k = int((high - HEAD - y) // _row(drill, high)) if y <= high - HEAD else -1
    return drill.wires[k].id if 0 <= k < len(drill.wires) else None


def _row(drill: WireDrill, high: float) -> float:
    return min((high - HEAD - 8) / max(len(drill.wires), 1), ROW * 1.6)


def wires_drawn(drill: WireDrill, chosen: str, answered: bool, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """A line a wire, as thick as it is, with its amperes, way and size; what it drops where it was answered."""
    shapes: list[Primitive] = []
    row = _row(drill, high)
    for k, wire in enumerate(drill.wires):
        y = high - HEAD - (k + 0.5) * row
        thin = wire.id == drill.thin
        ink = ("primer" if thin else "spruce") if answered else "chalk" if wire.id == chosen else "ink"
        if wire.id == chosen:
            shapes.append(rect(10, y - row / 2 + 3, wide - 20, row - 6, stroke="chalk", fill="chalk", width=1.4, tint=0.08))
        shapes.append(line((26, y - 8), (wide - 26, y - 8), ink, max(1.2 * wire.mm2**0.5, 1.0), id=wire.id))
        shapes.append(Text((26, y + 9), elided(wire.name, 13, wide * 0.5), 13, "ink", "strong", "left"))
        told = f"{wire.current_a:.1f} A, {words.m(wire.length_m)}, {wire.volts:.0f} V, {wire.size}"
        shapes.append(Text((wide - 26, y + 9), told, 12, "ink", anchor="right"))
        if answered:
            drop = f"drops {wire.drop * 100:.1f} % and may {wire.allowed * 100:.0f} %"
            shapes.append(Text((wide - 26, y - 22), drop, 11, ink, anchor="right"))
    return tuple(shapes)


# five things
def five_drawn(
    drill: FiveDrill, s: Studied, at_m: Sequence[float], judged: bool, held: str, words: Words, wide: float, high: float
) -> tuple[Primitive, ...]:
    """The trailer with the things where they were put. Args: s: of the build with them there; judged: whether cases are told."""
    frame = frame_of(s, wide, high, 150.0)
    row = s.towing_rows[0]
    shapes = _trailer(s, frame, row, drill.ids)
    tall = {task.thing.id: task for task in things_in(s, row)}
    for k, id in enumerate(drill.ids):
        placed = tall.get(id)
        if placed is None:
            continue
        x, ink = frame.x(at_m[k]), "chalk" if id == held else "ink"
        y = frame.y0 + placed.z * frame.scale
        shapes.append(rect(x, y, placed.size[0] * frame.scale, placed.size[2] * frame.scale, stroke=ink, fill="", width=2.4, id=id))
        shapes.append(
            Text(
                (x + placed.size[0] * frame.scale / 2, y + placed.size[2] * frame.scale + 8 + 11 * (k % 2)),
                elided(f"{placed.thing.name}, {words.kg(placed.thing.mass.si)}", 10, 150),
                10,
                ink,
                ground="paper",
            )
        )
    if judged:
        shapes += _cases(s, words, wide)
    else:
        shapes.append(Text((wide / 2, 70), "Drag the five along the body, then Answer.", 12, "pencil"))
    return tuple(shapes)


def _cases(s: Studied, words: Words, wide: float) -> list[Primitive]:
    """Every towing case: its band as a bar, its ball as a mark."""
    b, rows = s.readings, s.towing_rows
    most = max(max(float(b.tongue_kg[r]), float(b.band_kg[r, 1])) for r in rows) * 1.1
    least = min(min(float(b.tongue_kg[r]) for r in rows), 0.0)
    each = min(118.0 / len(rows), 22.0)
    shapes: list[Primitive] = []

    def x(kg: float) -> float:
        return 190 + (kg - least) / max(most - least, 1e-9) * (wide - 290)

    for k, r in enumerate(rows):
        y = 126 - k * each
        kg, low, high = float(b.tongue_kg[r]), float(b.band_kg[r, 0]), float(b.band_kg[r, 1])
        good = low - 1e-9 <= kg <= high + 1e-9
        shapes.append(Text((12, y), elided(s.table.cases[r].name, 10, 168), 10, "ink", anchor="left"))
        shapes.append(rect(x(low), y - 4, x(high) - x(low), 8, stroke="spruce", fill="spruce", tint=0.5))
        shapes.append(line((x(kg), y - 6), (x(kg), y + 6), "ink" if good else "primer", 3.0))
        shapes.append(Text((wide - 12, y), words.kg(kg), 10, "ink" if good else "primer", anchor="right"))
    return shapes


def thing_at(drill: FiveDrill, s: Studied, at_m: Sequence[float], x: float, y: float, wide: float, high: float) -> str | None:
    """Which of the five stands at a place of the sheet; the smallest where they overlap."""
    frame = frame_of(s, wide, high, 150.0)
    tall = {task.thing.id: task for task in things_in(s, s.towing_rows[0])}
    hit = []
    for k, id in enumerate(drill.ids):
        placed = tall.get(id)
        if placed is None:
            continue
        left, low = frame.x(at_m[k]), frame.y0 + placed.z * frame.scale
        if left - 3 <= x <= left + placed.size[0] * frame.scale + 3 and low - 3 <= y <= low + placed.size[2] * frame.scale + 3:
            hit.append((placed.size[0] * placed.size[2], id))
    return min(hit)[1] if hit else None
