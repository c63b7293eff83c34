"""Which loads may run together, as a small matrix: a square a pair, with its mark and word. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.systems.together import Meeting, Together

NAME_W, HEAD, LEAST, MOST = 150.0, 40.0, 22.0, 60.0


def cell_of(together: Together, width: float, height: float) -> float:
    """Side of one square of the matrix [points], for the room there is."""
    many = max(len(together.loads), 1)
    return max(min((width - NAME_W - 90) / many, (height - HEAD - 30) / many, MOST), LEAST)


def together_chart(together: Together, chosen: tuple[str, str] | None, width: float, height: float) -> tuple[Primitive, ...]:
    """Rows and columns are the loads, the largest first; the diagonal is one alone with how long the bank runs it."""
    loads = together.loads
    if not loads:
        return ()
    cell = cell_of(together, width, height)
    shapes: list[Primitive] = []
    top = height - HEAD
    for at, load in enumerate(loads):
        y = top - (at + 0.5) * cell
        watts = "? W" if load.power_w is None else f"{load.power_w:.0f} W"
        shapes.append(Text((NAME_W - 8, y + (5 if cell > 26 else 0)), elided(load.name, 12, NAME_W - 16), 12, "ink", anchor="right"))
        if cell > 26:
            shapes.append(Text((NAME_W - 8, y - 8), f"{watts}{' mains' if load.ac else ''}", 10, "pencil", anchor="right"))
        for to in range(at + 1):
            other = loads[to]
            pair = together.of(load.id, other.id)
            if pair is None:
                continue
            x = NAME_W + to * cell
            shapes += _cell(
                pair, x, y - cell / 2, cell, chosen is not None and {pair.one, pair.other} == set(chosen), f"{load.id}\n{other.id}"
            )
        lasts = together.lasts_h[at]
        says = "" if lasts is None else "alone: days" if lasts > 96 else f"alone {lasts:.1f} h" if lasts < 10 else f"alone {lasts:.0f} h"
        shapes.append(Text((NAME_W + (at + 1) * cell + 8, y), says, 11, "pencil", anchor="left"))
    return tuple(shapes)


def _cell(pair: Meeting, x: float, low: float, cell: float, chosen: bool, id: str) -> list[Primitive]:
    ink = {True: "spruce", False: "primer", None: "pencil"}[pair.fits]
    wash = {True: "spruce wash", False: "primer wash", None: "kraft"}[pair.fits]
    inner, r = cell - 3, cell * 0.18
    cx, cy = x + cell / 2, low + cell / 2
    shapes: list[Primitive] = [
        rect(x + 1.5, low + 1.5, inner, inner, stroke="chalk" if chosen else ink, fill=wash, width=2.4 if chosen else 1.0, id=id)
    ]
    if pair.fits is True:
        shapes += [
            line((cx - r, cy), (cx - r * 0.2, cy - r * 0.8), ink, 2.0),
            line((cx - r * 0.2, cy - r * 0.8), (cx + r, cy + r * 0.8), ink, 2.0),
        ]
    elif pair.fits is False:
        shapes += [line((cx - r, cy - r), (cx + r, cy + r), ink, 2.0), line((cx - r, cy + r), (cx + r, cy - r), ink, 2.0)]
    else:
        shapes.append(Text((cx, cy), "?", 12, ink, "strong"))
    return shapes
