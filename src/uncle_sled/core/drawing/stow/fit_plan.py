"""Who fits, from above: those who sleep, what opens, the ways out with their arrows, and the floor that one walks over.

In points, y up, in a field of width by height; the right side is up, the front at the left.
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import plan_body, plan_rig, plan_wheels, thing_shapes
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.stow.people import people_view, under_sleepers
from uncle_sled.core.drawing.stow.swings import swings_view
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.findings.stow.fit_words import size_words
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.at_hand import walkway
from uncle_sled.core.studies.stow.room import Hole, room_of
from uncle_sled.core.studies.stow.ways_out import WayOut, ways_out
from uncle_sled.core.words import Words

EDGE, ARROW_M, NAME_PX = 12.0, 0.42, 150.0
UP = 2  # the axis that holes in roof and floor face along


def fit_plan(s: Studied, mode: Mode, chosen: tuple[str, ...], words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The plan of a mode; what is chosen is outlined. () without a body."""
    build, facts = s.build, s.facts
    room = room_of(build, facts, mode)
    if room is None:
        return ()
    shapes: list[Primitive] = [*plan_rig(build), *plan_wheels(build), *plan_body(build)]
    walk = walkway(build, facts, mode)
    hidden = under_sleepers(build, facts, mode)
    things = things_in(s, 0, mode) if s.table.cases else ()
    for p in things:
        if p.thing.id not in hidden:
            shapes += thing_shapes(p, "plan", hatched=False)
    if walk is not None:
        for part in getattr(walk[1], "geoms", [walk[1]]):
            if not part.is_empty:
                shapes.append(Poly(tuple(part.exterior.coords)[:-1], "spruce", "spruce wash", 0.8, dash=(2, 3), tint=0.7))
    shapes += swings_view(build, facts, mode, "plan")
    shapes += people_view(build, facts, mode, "plan")
    for p in things:
        if p.thing.id in chosen:
            box = (p.x, p.y - p.size[1] / 2, p.size[0], p.size[1])
            shapes.append(rect(*box, stroke="chalk", fill="", width=2.4, id=p.thing.id))
    left, right = room.span_m
    span = [left - ARROW_M - 0.1, right + ARROW_M + 0.3]
    half = room.outer_half_m + ARROW_M + 0.12
    reach = [x for shape in shapes if isinstance(shape, Poly) and shape.id for x, _ in shape.points]
    span = [max(min([span[0], *reach]), span[0] - 1.5), min(max([span[1], *reach]), span[1] + 1.5)]
    room_px = (width - 2 * EDGE - 2 * NAME_PX, height - 2 * EDGE - 28)
    scale = max(min(room_px[0] / (span[1] - span[0]), room_px[1] / (2 * half)), 4.0)
    at = (width / 2 - scale * (span[0] + span[1]) / 2, height / 2)
    made = list(placed(shapes, scale, *at))
    ways = {way.id: way for way in ways_out(build, facts, mode)}
    taken: list[tuple[float, float, float, float]] = []
    for hole in room.holes:
        if hole.opening.id in ways:
            made += _way(hole, ways[hole.opening.id], hole.opening.id in chosen, words, scale, at, taken, width)
    middle = at[1]
    made += [
        Text((EDGE, middle + half * scale * 0.8), "right", 11, "pencil", anchor="left"),
        Text((EDGE, middle - half * scale * 0.8), "left", 11, "pencil", anchor="left"),
    ]
    if walk is not None:
        made.append(
            Text(
                (EDGE, EDGE + 2), f"the way to bed is {words.m(walk[0])} wide", 11, "spruce" if walk[0] >= 0.5 else "primer", anchor="left"
            )
        )
    return tuple(made)


def _way(
    hole: Hole,
    way: WayOut,
    chosen: bool,
    words: Words,
    scale: float,
    at: Point,
    taken: list[tuple[float, float, float, float]],
    width: float,
) -> list[Primitive]:
    """An arrow out through an opening: green and named where a sleeper gets out, thin where not."""
    ink = ("ochre" if way.through else "spruce") if way.good else "pencil"
    x, y = at[0] + hole.mid[0] * scale, at[1] + hole.mid[1] * scale
    if hole.normal == UP:
        size = [(hole.high[k] - hole.low[k]) * scale for k in (0, 1)]
        shapes: list[Primitive] = [
            rect(x - size[0] / 2, y - size[1] / 2, *size, stroke=ink, fill="", width=1.8 if way.good else 0.9, dash=(4, 3), id=way.id)
        ]
        tip, to = (x, y), (0.0, 0.0)
    else:
        out = [0.0, 0.0]
        out[hole.normal] = float(hole.out)
        to = (out[0], out[1])
        tip = (x + to[0] * ARROW_M * scale, y + to[1] * ARROW_M * scale)
        back = (x - to[0] * 0.12 * scale, y - to[1] * 0.12 * scale)
        shapes = [line(back, tip, ink, 2.4 if way.good else 1.0, () if way.good else (3, 3), id=way.id)]
        if way.good:
            wing = np.array(to) * 7
            side = np.array([-to[1], to[0]]) * 5
            ends = [np.array(tip) - wing + side, np.array(tip) - wing - side]
            shapes.append(Poly((tuple(map(float, ends[0])), tip, tuple(map(float, ends[1]))), ink, ink, 1.0))  # type: ignore[arg-type]
    if chosen:
        shapes.append(Circle(tip, 7, "chalk", "", 2.0))
    if way.good and hole.normal != UP:
        text = elided(f"{way.name}, {size_words(way.clear_m, words)}", 11, NAME_PX + 40)
        wide = Text((0, 0), text, 11).width
        if to[0]:
            spot = (tip[0] + to[0] * (wide / 2 + 6), tip[1])
        else:
            spot = (tip[0], tip[1] + to[1] * 9)
        spot = (min(max(spot[0], wide / 2 + 4), width - wide / 2 - 4), spot[1])
        box = (spot[0] - wide / 2, spot[1] - 8, spot[0] + wide / 2, spot[1] + 8)
        if not any(box[0] < o[2] and box[2] > o[0] and box[1] < o[3] and box[3] > o[1] for o in taken):
            taken.append(box)
            shapes.append(Text(spot, text, 11, "ink", ground="paper", id=way.id))
    return shapes
