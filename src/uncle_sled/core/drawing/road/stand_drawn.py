"""A trailer that stands for good, from its side: the rig as it is, wheels free, on its pads and blocks. Points."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, placed, rect
from uncle_sled.core.drawing.rig.rig_views import side_body
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.drawing.shell.trailer_side import trailer_side
from uncle_sled.core.parts.heights import frame_top_m
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.road.standing import Stands
from uncle_sled.core.words import Words

FREE_M = 0.06  # the wheels over the ground
RAIL_M = 0.07  # deep, as the rig is drawn
STEEPER = 5.0  # a fall is drawn so many times
ROWS_HIGH, HEAD_HIGH, EDGE = 62.0, 40.0, 16.0
MOST_FALL = 60.0


def standing_drawn(made: Stands, s: Studied, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """The trailer on its blocks, levels exaggerated five times; load, pad and height written under each. Nothing without a body."""
    body = s.framed.body
    if body is None or not made.blocks or min(wide, high) < 160:
        return ()
    on_bed = s.build.rig.carrier == "vehicle bed"  # a box that is lifted off stands on its own floor
    shown = (*side_body(s.build), *openings_seen(s, "side")) if on_bed else trailer_side(s)
    rests = body.under if on_bed else min(frame_top_m(s.build) - RAIL_M, body.under)
    left, right, top = _reach(shown)
    fall = s.build.road.standing.fall.si if s.build.road.standing.fall is not None else 0.0
    room = high - ROWS_HIGH - HEAD_HIGH
    scale = min((wide - 2 * EDGE) / max(right - left, 0.1), room / (top + FREE_M + STEEPER * min(fall, 0.4)))
    if scale <= 0:
        return ()
    drop = max(min(STEEPER * fall * scale, MOST_FALL), -MOST_FALL)
    x0 = (wide - (right - left) * scale) / 2 - left * scale
    foot = ROWS_HIGH + max(drop, 0.0) + max(room - (top + FREE_M) * scale - abs(drop), 0.0) / 2
    slope = drop / (body.length * scale)

    def ground(x: float) -> float:
        return foot - (x - x0 - body.front * scale) * slope

    under = foot + (rests + FREE_M) * scale
    shapes: list[Primitive] = [
        Poly(
            ((4, ground(4)), (wide - 4, ground(wide - 4)), (wide - 4, ground(wide - 4) - 5), (4, ground(4) - 5)), "", "wood", 0.0, tint=0.5
        ),
        line((4, ground(4)), (wide - 4, ground(wide - 4)), "ink", 1.6),
    ]
    for k, block in enumerate(made.blocks):
        x = x0 + (body.front + block.at_m) * scale
        low, side = ground(x), max(block.pad_m * scale, 12.0)
        ink = "primer" if block.load_n < 0 else "ink"
        shapes.append(rect(x - side / 2, low, side, 5, stroke=ink, fill="zinc", tint=0.6, id=f"block {k}"))
        many = max(round((under - low - 5) / 9), 1)
        for at in range(many):  # laid crosswise, as blocks are
            each = (under - low - 5) / many
            shapes.append(rect(x - 8, low + 5 + at * each, 16, each, stroke=ink, fill="kit", width=0.9, tint=0.5, id=f"block {k}"))
    shapes += placed(shown, scale, x0, foot + FREE_M * scale)
    words_at = min(ground(x0 + (body.front + block.at_m) * scale) for block in made.blocks) - 22
    for k, block in enumerate(made.blocks):
        x = x0 + (body.front + block.at_m) * scale
        ink = "primer" if block.load_n < 0 else "ink"
        load = words.newtons(block.load_n) if block.load_n > 9999 else words.fine_newtons(block.load_n)
        told = (
            Text((x, words_at), load, 12, ink, "strong", id=f"block {k}"),
            Text((x, words_at - 15), f"pad {words.cut(block.pad_m)}", 11, "pencil"),
            Text((x, words_at - 30), f"{words.cut(block.up_m)} higher" if block.up_m else "level", 11, "chalk"),
        )
        shapes += [
            line((x, words_at + 8), (x, ground(x) - 6), "pencil", 0.8, (2, 2)),
            *(
                Text(
                    (min(max(x, one.width / 2 + 4), wide - one.width / 2 - 4), one.at[1]), one.text, one.size, one.ink, one.face, id=one.id
                )
                for one in told
            ),
        ]
    return tuple(shapes)


def _reach(shapes: tuple[Primitive, ...]) -> tuple[float, float, float]:
    """Least and largest station, and the top [m]."""
    xs, top = [0.0], 0.5
    for shape in shapes:
        if isinstance(shape, Poly):
            xs += [x for x, _ in shape.points]
            top = max(top, *(z for _, z in shape.points))
        elif isinstance(shape, Circle):
            xs += [shape.centre[0] - shape.radius, shape.centre[0] + shape.radius]
    return min(xs), max(xs), top
