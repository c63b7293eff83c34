"""Arrangements side by side from above: as drawn and those that were found, what moved marked, with the readings under each.

In points, y up; the background of each has its number as id, so that a click takes it.
"""

from __future__ import annotations

from collections.abc import Sequence

from uncle_sled.core.drawing.primitives import Primitive, Text, placed, rect
from uncle_sled.core.drawing.rig.rig_views import plan_body
from uncle_sled.core.drawing.rig.things_placed import Placed, things_in
from uncle_sled.core.drawing.text_width import elided, wrapped
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.reading.studied import Studied

EDGE, GAP, LINE = 10.0, 8.0, 14.0
WORD_PX = 22.0  # so wide a box has room for a word
MOVED_M = 0.005
LINES = 4


def arranged_plans(
    s: Studied, tried: Sequence[tuple[str, Studied, tuple[str, ...]]], row: int, picked: int, width: float, height: float
) -> tuple[Primitive, ...]:
    """Plans side by side, two rows of them where they are many for the width; () while nothing is aboard.

    Args: tried: of each its heading, its build and the lines under it, the first as it is drawn; picked: which has the frame.
    """
    if not s.table.cases or not s.build.stow.things:
        return ()
    front = s.framed.body.front if s.framed.body is not None else 0.0
    long = s.framed.body.length if s.framed.body is not None else 5.0
    wide = s.framed.body.width if s.framed.body is not None else 2.0
    n = len(tried)
    columns = max((k for k in range(1, n + 1)), key=lambda k: _scale(k, n, long, wide, width, height))
    rows = -(-n // columns)
    cell = ((width - 2 * EDGE - GAP * (columns - 1)) / columns, (height - 2 * EDGE - GAP * (rows - 1)) / rows)
    scale = max(_scale(columns, n, long, wide, width, height), 2.0)
    made: list[Primitive] = []
    before = {p.thing.id: p for p in things_in(s, row)}
    for at, (heading, one, lines) in enumerate(tried):
        left = EDGE + (at % columns) * (cell[0] + GAP)
        low = height - EDGE - (at // columns + 1) * cell[1] - (at // columns) * GAP
        here = at == picked
        made.append(
            rect(
                left,
                low,
                *cell,
                stroke="chalk" if here else "rule",
                fill="chalk wash" if here else "paper",
                width=2.0 if here else 1.0,
                id=str(at),
            )
        )
        made.append(Text((left + 8, low + cell[1] - 13), elided(heading, 12, cell[0] - 16), 12, "ink", "strong", "left"))
        middle = low + LINES * LINE + 6 + (cell[1] - LINES * LINE - 26) / 2
        x0 = left + (cell[0] - long * scale) / 2 - front * scale
        made += placed(_plan(one, before if at else {}, min(row, len(one.table.cases) - 1), scale), scale, x0, middle)
        words = [part for line in lines for part in wrapped(line, 11, cell[0] - 16)][:LINES]
        made += [Text((left + 8, low + LINES * LINE - 5 - k * LINE), word, 11, "ink", "text", "left") for k, word in enumerate(words)]
    return tuple(made)


def _scale(columns: int, n: int, long: float, wide: float, width: float, height: float) -> float:
    """Points a metre with so many columns of n plans."""
    rows = -(-n // columns)
    cell = ((width - 2 * EDGE - GAP * (columns - 1)) / columns, (height - 2 * EDGE - GAP * (rows - 1)) / rows)
    return min((cell[0] - 16) / max(long, 0.1), (cell[1] - LINES * LINE - 32) / max(wide, 0.1))


def _plan(s: Studied, before: dict[str, Placed], row: int, scale: float) -> list[Primitive]:
    """What moved lies on top, also where it stands under something: else nobody saw what is meant."""
    shapes: list[Primitive] = [*plan_body(s.build)]
    here = sorted((p for p in things_in(s, row) if not p.thing.outside and p.thing.inside is None), key=lambda p: p.z)
    moved = {p.thing.id for p in here if p.thing.id in before and _off(before[p.thing.id], p) > MOVED_M}
    for p in sorted(here, key=lambda p: p.thing.id in moved):
        box = (p.x, p.y - p.size[1] / 2, *p.size[:2])
        on = p.thing.id in moved
        shapes.append(
            rect(*box, stroke="chalk" if on else "pencil", fill=group_of(p.thing), width=1.8 if on else 0.7, tint=0.7 if on else 0.15)
        )
    taken: list[tuple[float, float]] = []
    for p in sorted(here, key=lambda p: (p.thing.id not in moved, -p.size[0] * p.size[1])):
        room, at = p.size[0] * scale - 4, (p.x + p.size[0] / 2, p.y)
        free = all(abs(at[0] - x) * scale > 46 or abs(at[1] - y) * scale > 11 for x, y in taken)
        if room > WORD_PX and p.size[1] * scale > 11 and free and (p.thing.id in moved or not before):
            taken.append(at)
            shapes.append(Text(at, elided(p.thing.name, 9, room), 9, "ink"))
    return shapes


def _off(was: Placed, now: Placed) -> float:
    return max(abs(was.x - now.x), abs(was.y - now.y), abs(was.z - now.z))
