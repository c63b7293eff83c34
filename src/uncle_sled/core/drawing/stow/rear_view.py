"""The rig seen from behind, cut open: what stands left and right, how high, and between which wheels.

The left side is at the left. Height up from the ground, across from the middle [m].
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from uncle_sled.core.drawing.primitives import HATCH_OF_GROUP, Circle, Point, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.rig.rig_views import LABEL, LEADING, Box, figure_shapes, tank_outline
from uncle_sled.core.drawing.rig.things_placed import Placed
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.room import room_of

MOST_LABELS = 24


def rear_view(s: Studied, row: int, things: Sequence[Placed], px_per_m: float) -> tuple[Primitive, ...]:
    """Wheels, section of the body, things from front to rear, and the centre of gravity over the track."""
    half = _track_half(s)
    shapes: list[Primitive] = [line((-half - 0.5, 0.0), (half + 0.5, 0.0), "pencil", 1.4)]
    shapes += _wheels(s, half)
    shapes += _body(s)
    order = sorted(things, key=lambda p: p.x + p.size[0])
    for p in order:
        shapes += _thing(p)
    shapes += _labels(order, px_per_m)
    cg = s.readings.cg_m[row] if len(s.readings.cg_m) else np.full(3, np.nan)
    if not np.isnan(cg).any():
        at = (float(cg[1]), float(cg[2]))
        shapes += [
            line((0.0, 0.0), (0.0, at[1] + 0.25), "rule", 1.0, (6, 3)),
            Circle(at, 7 / px_per_m, "ink", "paper", 1.6, id="cg"),
            line((at[0] - 7 / px_per_m, at[1]), (at[0] + 7 / px_per_m, at[1]), "ink", 1.4),
            line((at[0], at[1] - 7 / px_per_m), (at[0], at[1] + 7 / px_per_m), "ink", 1.4),
        ]
    return tuple(shapes)


def _track_half(s: Studied) -> float:
    rig = s.build.rig
    track = rig.bed.track if rig.carrier == "vehicle bed" else rig.track
    return (track.si if track and track.si > 0 else 1.6) / 2


def _wheels(s: Studied, half: float) -> list[Primitive]:
    rig = s.build.rig
    radius, wide = wheel_radius_m(rig), rig.tyre.width.si if rig.tyre.width else 0.17
    shapes: list[Primitive] = [
        rect(side * half - wide / 2, 0.0, wide, 2 * radius, stroke="ink", fill="tyre", id="wheels") for side in (-1, 1)
    ]
    shapes.append(rect(-half, radius - 0.03, 2 * half, 0.06, stroke="zinc", fill="zinc", id="frame"))
    return shapes


def _body(s: Studied) -> list[Primitive]:
    room, body = room_of(s.build, s.facts), s.framed.body
    if room is None or body is None:
        return []
    if room.outer_section is not None:
        outer = tuple(room.outer_section.exterior.coords)[:-1]
    else:
        _, low, _, high = room.outer.bounds
        outer = ((-body.width / 2, low), (body.width / 2, low), (body.width / 2, high), (-body.width / 2, high))
    wall = thickness_m(s.build.shell, "left side")
    points = tuple((float(x), float(y)) for x, y in outer)
    shapes: list[Primitive] = [Poly(points, "ink", "body", 1.6, band=wall, hatch="wood" if wall else "", id="shell")]
    for box in (*room.wheel_boxes, *room.walls):
        size = box.high[1] - box.low[1], box.high[2] - box.low[2]
        shapes.append(rect(box.low[1], box.low[2], *size, stroke="ink", fill="wood", tint=0.4, id=box.id))
    return shapes


def _thing(p: Placed) -> list[Primitive]:
    left, wide, high = p.y - p.size[1] / 2, p.size[1], p.size[2]
    if wide <= 0 or high <= 0:
        return [Circle((p.y, p.z), 0.03, group_of(p.thing), group_of(p.thing), 1.2, id=p.thing.id)]
    group = group_of(p.thing)
    outline = tank_outline(p, "rear")
    box: tuple[Point, ...] = ((left, p.z), (left + wide, p.z), (left + wide, p.z + high), (left, p.z + high))
    points = tuple((float(y), float(z)) for y, z in outline.exterior.coords)[:-1] if outline is not None else box
    hatch = HATCH_OF_GROUP[group] if p.thing.tank is None and p.aboard else ""
    dash: tuple[float, ...] = () if p.aboard else (4, 3)
    made: list[Primitive] = [Poly(points, group, group if p.aboard else "", 1.2, hatch=hatch, dash=dash, tint=0.5, id=p.thing.id)]
    return made + figure_shapes(p, "rear", left, p.z, wide, high)


def _labels(order: Sequence[Placed], px_per_m: float) -> list[Primitive]:
    """Names where they fit: the rearmost first, for they are seen whole."""
    taken: list[Box] = []
    shapes: list[Primitive] = []
    for at, p in reversed(list(enumerate(order))):
        wide = p.size[1] * px_per_m - 6
        if wide < 30 or p.size[2] * px_per_m < LABEL * LEADING + 2 or len(shapes) >= MOST_LABELS:
            continue
        name = elided(p.thing.name, LABEL, wide)
        half, tall = (text_width(name, LABEL) + 4) / 2 / px_per_m, LABEL * LEADING / 2 / px_per_m
        for share in (0.5, 0.2, 0.8):
            y, z = p.y, p.z + p.size[2] * share
            spot = (y - half, z - tall, y + half, z + tall)
            over = [(q.y - q.size[1] / 2, q.z, q.y + q.size[1] / 2, q.z + q.size[2]) for q in order[at + 1 :]]
            if not any(spot[0] < o[2] and spot[2] > o[0] and spot[1] < o[3] and spot[3] > o[1] for o in (*taken, *over)):
                taken.append(spot)
                shapes.append(Text((y, z), name, LABEL, "ink", ground="body", id=p.thing.id))
                break
    return shapes


def rear_size_m(s: Studied, things: Sequence[Placed]) -> tuple[float, float]:
    """Half the width and the height that the view takes [m]."""
    body = s.framed.body
    halves = [_track_half(s) + 0.35, *(abs(p.y) + p.size[1] / 2 + 0.1 for p in things if abs(p.y) < 6)]
    tops = [1.2, *(p.z + p.size[2] for p in things if p.z + p.size[2] < 8)]
    if body is not None:
        halves.append(body.width / 2 + 0.2)
        tops.append(body.under + body.height)
    return max(halves), max(tops) + 0.15
