"""Where each wish is in the build: its number on what meets it, from the side and from above. Points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, placed
from uncle_sled.core.drawing.rig.rig_views import (
    heights_m,
    plan_body,
    plan_rig,
    plan_wheels,
    side_body,
    side_rig,
    side_wheels,
    thing_shapes,
)
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.road.wishes import Traced

EDGE, MARK = 14.0, 8.0


def wish_map(s: Studied, wishes: tuple[Traced, ...], wide: float, high: float) -> tuple[Primitive, ...]:
    """Side view over plan, each in its half; wishes are numbered as in their table. Nothing where nothing is drawn."""
    top, half = heights_m(s.build)
    left, right = -0.4, length_m(s.build) + 0.4
    room = high - 3 * EDGE
    scale = min((wide - 2 * EDGE) / (right - left), room / (top + 2 * half + 0.3))
    if scale <= 2 or right - left < 1.0:
        return ()
    x0 = (wide - (right - left) * scale) / 2 - left * scale
    plan_y, side_y = EDGE + half * scale, 2 * EDGE + 2 * half * scale
    met = {traced.wish.where for traced in wishes if traced.met}
    shapes: list[Primitive] = []
    rigs = {"side": (*side_rig(s.build), *side_body(s.build)), "plan": (*plan_rig(s.build), *plan_wheels(s.build), *plan_body(s.build))}
    for view, y0 in (("side", side_y), ("plan", plan_y)):
        drawn: list[Primitive] = list(rigs[view])
        for task in things_in(s, 0) if s.table.cases else ():
            lit = task.thing.id in met
            drawn += [shape if lit or not isinstance(shape, Poly) else _faint(shape) for shape in thing_shapes(task, view, lit)[:1]]
        if view == "side":
            drawn += side_wheels(s.build)
        shapes += placed(tuple(drawn), scale, x0, y0)
    spots = {part.id: (part.x_m, part.y_m, part.z_m) for part in s.parts}
    taken: dict[tuple[int, int], int] = {}
    for k, traced in enumerate(wishes, 1):
        at = spots.get(traced.wish.where) if traced.met else None
        if at is None:
            continue
        for a, b in ((x0 + at[0] * scale, side_y + at[2] * scale), (x0 + at[0] * scale, plan_y + at[1] * scale)):
            key = (round(a / (2 * MARK)), round(b / (2 * MARK)))
            a += taken.get(key, 0) * 2 * MARK
            taken[key] = taken.get(key, 0) + 1
            shapes += [Circle((a, b), MARK, "chalk", "paper", 1.6), Text((a, b), str(k), 10, "chalk", "strong")]
    return tuple(shapes)


def _faint(shape: Poly) -> Poly:
    return Poly(shape.points, "rule", "", 1.0, shape.closed)
