"""Where things would go, from above: what stands still in pencil, what moves as it stands and as it would, an arrow between.

In points, y up, in a field of width by height; the right side is up.
"""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import plan_body, plan_rig, plan_wheels
from uncle_sled.core.drawing.rig.things_placed import Placed, things_in
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.reading.studied import Studied, length_m

EDGE = 12.0
ENDS_M = 0.35


def moves_plan(s: Studied, tried: Studied | None, row: int, width: float, height: float) -> tuple[Primitive, ...]:
    """The plan of a case's mode, with what a tried move shifts; () while there is nothing to draw."""
    if not s.table.cases or not s.build.stow.things:
        return ()
    now = things_in(s, row)
    then = {p.thing.id: p for p in things_in(tried, min(row, len(tried.table.cases) - 1))} if tried is not None else {}
    shapes: list[Primitive] = [*plan_rig(s.build), *plan_wheels(s.build), *plan_body(s.build)]
    moved: list[tuple[Placed, Placed]] = []
    for p in now:
        other = then.get(p.thing.id)
        if other is not None and (abs(other.x - p.x) > 1e-6 or abs(other.y - p.y) > 1e-6):
            moved.append((p, other))
        else:
            shapes.append(_box(p, "pencil", group_of(p.thing), 0.8, 0.35))
    for p, other in moved:
        shapes += [_box(p, "pencil", "", 1.2, 1.0, (4, 3)), _box(other, "chalk", "chalk wash", 2.0, 1.0)]
        shapes.append(line(_middle(p), _middle(other), "chalk", 1.8, id=p.thing.id))
    reach = min(max(length_m(s.build), *(p.x + p.size[0] for p in (*now, *then.values()))), 40.0) + ENDS_M
    halves = [1.0, *(min(abs(p.y) + p.size[1] / 2, 4.0) for p in (*now, *then.values()))]
    wide = s.build.shell.width.si / 2 if s.build.shell.width else 0.8
    half = max(wide, min(max(halves), wide + 1.0)) + 0.15
    left = -0.9 if s.build.rig.carrier == "vehicle bed" else -0.1
    scale = max(min((width - 2 * EDGE - 50) / (reach - left), (height - 2 * EDGE) / (2 * half)), 4.0)
    at = (width / 2 - scale * (reach + left) / 2, height / 2)
    made = list(placed(shapes, scale, *at))
    for _, other in moved:
        x, y = _middle(other)
        name = elided(other.thing.name, 11, 120)
        made.append(Text((at[0] + x * scale, at[1] + y * scale), name, 11, "ink", ground="chalk wash", id=other.thing.id))
    top = half * scale * 0.8
    made += [Text((EDGE, at[1] + side * top), word, 11, "pencil", anchor="left") for side, word in ((1, "right"), (-1, "left"))]
    return tuple(made)


def _middle(p: Placed) -> tuple[float, float]:
    return p.x + p.size[0] / 2, p.y


def _box(p: Placed, stroke: str, fill: str, width: float, tint: float, dash: tuple[float, ...] = ()) -> Poly:
    return rect(p.x, p.y - p.size[1] / 2, p.size[0], p.size[1], stroke=stroke, fill=fill, width=width, tint=tint, dash=dash, id=p.thing.id)
