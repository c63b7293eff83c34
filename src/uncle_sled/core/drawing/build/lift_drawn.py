"""A lift to scale: the real thing that is lifted, hook, legs and lines, its centre of gravity, people at their places. Points."""

from __future__ import annotations

import math

from uncle_sled.core.drawing.build.hung import hung, top_m
from uncle_sled.core.drawing.person import SHOULDER, tallest_m, upright
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.sections import sections
from uncle_sled.core.studies.build.lifting import Lifted, hand_loads_kg, hands_up_m, picks_m
from uncle_sled.core.words import Words

EDGE = 16.0
WALL_M = 0.09  # a wall from its edge, where its sticks do not say
RAIL_M = 0.10
BY, WAY = 0.9, 0.75  # a person beside what hangs; how far apart they stand [m]


def lift_drawn(s: Studied, made: Lifted, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """The picture alone, as large as it fits. Nothing where nothing is known, or no room is."""
    if made.why or made.size_m[0] <= 0 or min(wide, high) < 120:
        return ()
    draw = {"crane": _crane, "tilt up": _tilt, "by hand": _carry, "turn over": _turn}[made.lift.way]
    return tuple(draw(s, made, words, wide, high))


def _ground(wide: float, y: float) -> list[Primitive]:
    return [rect(6, y - 5, wide - 12, 5, stroke="", fill="wood", tint=0.5), line((6, y), (wide - 6, y), "ink", 1.4)]


def _centre(at: Point) -> list[Primitive]:
    return [Circle(at, 6, "chalk", "chalk"), Text((at[0] + 10, at[1]), "centre of gravity", 11, "chalk", anchor="left", ground="paper")]


def _crane(s: Studied, made: Lifted, words: Words, wide: float, high: float) -> list[Primitive]:
    """On its legs, just off the ground; two on tag lines, one signaller."""
    (long, tall), lift, cg, person = made.size_m, made.lift, made.cg_m[0], tallest_m(s.facts)
    shown = hung(s, lift.what, made.size_m)
    tall = max(tall, top_m(shown))
    a, b, hook = picks_m(lift, long, cg)
    hook = max(hook, 0.1)
    off = 0.35  # over the ground
    scale = min((wide - 2 * EDGE) / (long + 2 * (BY + 0.5) + WAY), (high - 44) / (tall + hook + off + 0.2))
    left, ground = (wide - (long + WAY) * scale) / 2, 20.0
    foot = ground + off * scale
    x, top = left + cg * scale, foot + tall * scale
    peak = (x, top + hook * scale)
    ends = ((left + (cg - a) * scale, top), (left + (cg + b) * scale, top))
    ink = "primer" if made.refusals else "ink"
    shapes = _ground(wide, ground)
    shapes += placed(shown, scale, left, foot)
    shapes += [line(end, peak, ink, 2.0) for end in ends]
    if lift.spreader:
        shapes.append(line((ends[0][0], top + 14), (ends[1][0], top + 14), "zinc", 4.0))
    shapes += [line(peak, (x, high - 6), "ink", 1.4), Circle(peak, 6, "ink", "paper", 2.0)]
    shapes += [line((x, peak[1]), (x, foot), "chalk", 1.0, (4.0, 3.0)), *_centre((x, foot + made.cg_m[1] * scale))]
    hand = ground + SHOULDER * person * scale * 0.75
    for end, side, name in ((left, -1, "tag line"), (left + long * scale, 1, "tag line")):
        at = end + side * BY * scale
        shapes += upright(at, ground, person * scale, hand=(at - side * 0.22 * person * scale, hand))
        shapes.append(line((at - side * 0.22 * person * scale, hand), (end, foot + 6), "spruce", 1.8))
        shapes.append(Text((at, ground - 11), name, 11, "pencil"))
    at = left + (long + BY + WAY) * scale
    shapes += upright(at, ground, person * scale, hand=(at + 0.06 * person * scale, ground + 1.12 * person * scale))
    shapes.append(Text((at, ground + 1.2 * person * scale), "signals", 11, "pencil", ground="paper"))
    for tie, reach in ((ends[0], a), (ends[1], b)):
        shapes.append(Text(((tie[0] + x) / 2, top - 10), words.m(reach), 11, "ink", ground="paper"))
    shapes.append(Text((peak[0] + 12, (peak[1] + top) / 2), words.m(hook), 11, "pencil", anchor="left", ground="paper"))
    return shapes


def _carry(s: Studied, made: Lifted, words: Words, wide: float, high: float) -> list[Primitive]:
    """Carried on edge: everybody at the edge they hold."""
    (long, tall), person = made.size_m, tallest_m(s.facts)
    held = 0.42 * person  # of its foot, over the ground
    scale = min((wide - 2 * EDGE) / (long + 1.0), (high - 48) / max(tall + held, person))
    left, ground = (wide - long * scale) / 2, 24.0
    foot = ground + held * scale
    shapes = _ground(wide, ground)
    loads = hand_loads_kg(made.taken_kg, made.cg_m[0], long, max(made.hands, 1))
    people = [left + x * scale for x, _ in loads]
    for x in people[1::2]:  # on the far side
        shapes += upright(x, ground, person * scale, hand=(x + 0.1 * person * scale, foot))
    shapes += placed(hung(s, made.lift.what, made.size_m), scale, left, foot)
    for x in people[::2]:
        shapes += upright(x, ground, person * scale, hand=(x + 0.1 * person * scale, foot))
    shapes += _centre((left + made.cg_m[0] * scale, foot + made.cg_m[1] * scale))
    room = long * scale / max(made.hands, 1)
    for x, (_, kg) in zip(people, loads, strict=True):
        told = words.kg(kg)
        if text_width(told, 11) < room - 4:
            shapes.append(Text((x, high - 10), told, 11, "ink", "strong", ground="paper"))
    shapes.append(Text((wide / 2, ground - 13), f"{made.hands} at its edges, one counts", 11, "pencil"))
    return shapes


def _tilt(s: Studied, made: Lifted, words: Words, wide: float, high: float) -> list[Primitive]:
    """From its end: lying, half way and standing, hands where they hold; beside it the wall itself with its people."""
    person, (long, tall) = tallest_m(s.facts), made.size_m
    beside = wide > 520
    room = wide * 0.5 if beside else wide
    at_m = hands_up_m(made.lift, tall)
    shapes = _ground(wide, 24.0)
    scale = min((room - 2 * EDGE) / (tall + 2.4), (high - 60) / max(tall, person + 0.2))
    pivot = (EDGE + 1.3 * scale, 24.0)
    deep = max((stick.section_m[1] for stick in s.framed.on(made.lift.what)), default=WALL_M)
    for degrees, ghost in ((88.0, True), (60.0, True), (24.0, False)):
        shapes.append(_turned_bar(pivot, tall * scale, max(deep * scale, 3.0), degrees, "body" if ghost else "wood", ghost))
    c, z = math.cos(math.radians(24)), math.sin(math.radians(24))
    grip = (pivot[0] + at_m * scale * c, pivot[1] + at_m * scale * z)
    shapes += upright(grip[0] + 0.18 * scale, 24.0, person * scale, hand=grip)
    shapes.append(Text((grip[0] + 0.18 * scale, 11), "hands", 11, "pencil"))
    shapes.append(Circle((pivot[0] + made.cg_m[1] * scale * c, pivot[1] + made.cg_m[1] * scale * z), 5, "chalk", "chalk"))
    rope = (pivot[0] - 0.95 * scale, 24.0 + SHOULDER * 0.7 * person * scale)
    up = (pivot[0] + tall * scale * math.cos(math.radians(60)), pivot[1] + tall * scale * math.sin(math.radians(60)))
    shapes += upright(pivot[0] - 1.1 * scale, 24.0, person * scale, hand=rope)
    shapes += [line(rope, up, "spruce", 1.8), Text((pivot[0] - 0.9 * scale, 11), "holds back", 11, "spruce")]
    shapes.append(rect(pivot[0] - 0.06 * scale, 24.0, 0.05 * scale, 0.09 * scale, stroke="ink", fill="zinc"))
    if beside:
        size = min((wide - room - 2 * EDGE) / (long + 0.4), (high - 60) / max(tall + 0.2, person))
        left = room + (wide - room - long * size) / 2
        shapes += placed(hung(s, made.lift.what, made.size_m), size, left, 24.0)
        shapes += _centre((left + made.cg_m[0] * size, 24.0 + made.cg_m[1] * size))
        many = max(made.hands - 1, 1)
        for k in range(many):
            x = left + long * size * (k + 0.5) / many
            shapes.append(Circle((x, 24.0 + at_m * size), 6, "ink", "cargo"))
        shapes.append(line((left, 24.0 + at_m * size), (left + long * size, 24.0 + at_m * size), "cargo", 1.0, (5, 4)))
        shapes.append(Text((left + long * size / 2, 11), f"{many} along it, {words.m(at_m)} up", 11, "pencil"))
    return shapes


def _turn(s: Studied, made: Lifted, words: Words, wide: float, high: float) -> list[Primitive]:
    """The frame from its end, rails and cross bars, going over one rail; one at the hoist, one at the second line."""
    person, across = tallest_m(s.facts), made.size_m[1]
    section = sections().get(s.build.rig.rail)
    deep = section.deep if section is not None else RAIL_M
    beam = max(across + 0.7, person + 0.3)
    scale = min((wide - 2 * EDGE) / (across + 4.4), (high - 56) / (beam + 0.25))
    ground = 24.0
    pivot = ((wide - across * scale) / 2, ground)
    tilt = 20.0
    c, z = math.cos(math.radians(tilt)), math.sin(math.radians(tilt))
    shapes = _ground(wide, ground)
    shapes.append(
        Poly(  # where it falls
            (
                (max(pivot[0] - across * scale, 6.0), ground),
                (pivot[0], ground),
                (pivot[0], ground + 0.35 * scale),
                (max(pivot[0] - across * scale, 6.0), ground + 0.12 * scale),
            ),
            "primer",
            "primer",
            0.8,
            tint=0.12,
            dash=(4, 3),
        )
    )
    for degrees, ghost in ((88.0, True), (55.0, True), (tilt, False)):
        shapes += _end_view(pivot, across * scale, max(deep * scale, 4.0), degrees, ghost)
    grip = (pivot[0] + across * scale * c, pivot[1] + across * scale * z)
    peak = (pivot[0] + across * scale * 0.72, ground + beam * scale)
    legs = (grip[0] + 0.35 * scale, pivot[0] + across * scale * 0.35)
    shapes += [line((leg, ground), peak, "zinc", 3.0) for leg in legs]
    shapes += [
        line(peak, grip, "ink", 1.6),
        Circle(peak, 5, "ink", "zinc"),
        Text((peak[0], peak[1] + 13), "hoist", 11, "pencil", ground="paper"),
    ]
    shapes += upright(legs[0] + 0.55 * scale, ground, person * scale, hand=(peak[0] + 4, peak[1] - 0.35 * scale))
    shapes += [Text((legs[0] + 0.55 * scale, 11), "at the hoist", 11, "pencil")]
    far = pivot[0] + across * scale + 1.9 * scale
    rope = (far - 0.3 * scale, ground + 0.6 * person * scale)
    top = (pivot[0] + across * scale * math.cos(math.radians(88)), pivot[1] + across * scale * math.sin(math.radians(88)))
    shapes += [line(rope, top, "spruce", 1.6, (6, 3)), *upright(far, ground, person * scale, hand=rope)]
    shapes += [Text((far, 11), "second line", 11, "spruce"), Circle(pivot, 4, "ink", "paper", 1.6)]
    shapes.append(Text((pivot[0] - across * scale / 2, ground + 0.5 * scale), "nobody here", 11, "primer", ground="paper"))
    shapes.append(Text((pivot[0] + across * scale / 2, ground - 13), f"{words.m(across)} wide", 11, "pencil"))
    return shapes


def _turned_bar(pivot: Point, long: float, thick: float, degrees: float, fill: str, ghost: bool) -> Poly:
    """A wall from its edge, its foot at a pivot."""
    c, z = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    corners = ((0.0, 0.0), (long, 0.0), (long, thick), (0.0, thick))
    points = tuple((pivot[0] + u * c - v * z, pivot[1] + u * z + v * c) for u, v in corners)
    return Poly(
        points,
        "pencil" if ghost else "ink",
        fill,
        1.0 if ghost else 1.6,
        dash=(5, 4) if ghost else (),
        hatch="" if ghost else "wood",
        tint=0.5,
    )


def _end_view(pivot: Point, across: float, deep: float, degrees: float, ghost: bool) -> list[Primitive]:
    """A frame from its end: two rails and the bar between them, turned about the first rail."""
    c, z = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))

    def turned(u: float, v: float, w: float, h: float) -> Poly:
        corners = ((u, v), (u + w, v), (u + w, v + h), (u, v + h))
        points = tuple((pivot[0] + a * c - b * z, pivot[1] + a * z + b * c) for a, b in corners)
        return Poly(
            points, "pencil" if ghost else "ink", "" if ghost else "zinc", 1.0 if ghost else 1.4, dash=(5, 4) if ghost else (), tint=0.7
        )

    rail = deep * 0.55
    return [turned(0.0, deep * 0.25, across, deep * 0.5), turned(0.0, 0.0, rail, deep), turned(across - rail, 0.0, rail, deep)]
