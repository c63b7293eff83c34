"""Rows of panels as bars of volts, from a hot noon to a cold morning, between what the bank wants and what the controller takes."""

from __future__ import annotations

from collections.abc import Iterable

from uncle_sled.core.drawing.bar_rows import Scale, named
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.studies.systems.panel_strings import UNLIKE, VOLTS_IN_HAND, PanelRow, Strung
from uncle_sled.core.words import Words, lower_first

HEAD, PITCH, EDGE = 40.0, 42.0, 12.0


def strings_chart(made: tuple[Strung, ...], width: float, height: float) -> tuple[Primitive, ...]:
    """A bar a row, its controller's two limits as posts; rows whose volts nobody said are told so."""
    lines = [(one, row) for one in made for row in one.rows]
    if not lines:
        return ()
    highs = [v for one, row in lines for v in (row.open_v, one.most_v, one.needs_v) if v is not None]
    scale = Scale(EDGE, width - EDGE - 34, max(highs) * 1.06)
    shapes: list[Primitive] = []
    y = height - HEAD
    for at, (one, row) in enumerate(lines):
        if y < 28 and at < len(lines) - 1:
            return (*shapes, Text((EDGE, y + 6), f"and {len(lines) - at} rows more", 11, "pencil", anchor="left"))
        shapes += _row(one, row, scale, y, width)
        y -= PITCH
    return tuple(shapes)


def _row(one: Strung, row: PanelRow, scale: Scale, y: float, width: float) -> list[Primitive]:
    shapes: list[Primitive] = [named(EDGE, y + 9, row.name, width - 2 * EDGE - 50, 11, id=row.panels[0])]
    if row.open_v is None or row.runs_v is None:
        return [*shapes, Text((EDGE, y - 6), "open volts not said", 11, "ochre word", anchor="left")]
    high = one.most_v is not None and row.open_v * VOLTS_IN_HAND > one.most_v
    low = row.runs_v < one.needs_v
    sure = one.most_v is not None and one.cold_said
    ink = "primer" if high or low else "spruce" if sure else "ochre"
    shapes += [
        line((scale.left, y - 6), (scale.right, y - 6), "rule"),
        scale.span(y - 6, row.runs_v, row.open_v, half=4.0, stroke=ink, fill=ink, width=0.8, tint=0.5, id=row.panels[0]),
        scale.post(y - 6, one.needs_v, "pencil", half=7, width=1.4),
        Text((width - EDGE, y - 6), f"{row.open_v:.0f} V", 11, "primer" if high else "ink", anchor="right"),
    ]
    wants = f"{one.needs_v:.0f} wanted"
    shapes.append(Text((max(scale.x(one.needs_v), EDGE + text_width(wants, 10) / 2), y - 20), wants, 10, "pencil"))
    if one.most_v is not None:
        shapes.append(scale.post(y - 6, one.most_v, "ink", half=7))
        shapes.append(Text((min(scale.x(one.most_v) + 14, width - EDGE), y - 20), f"{one.most_v:.0f} at most", 10, "ink", anchor="right"))
    return shapes


def strung_words(made: Iterable[Strung], words: Words) -> list[str]:
    """A sentence a controller: its volts both ways, and what unlike panels cost."""
    told = []
    for one in made:
        if one.open_v is None:
            told.append("Panel volts not checked: open volts from the plate are wanted of every panel.")
            continue
        limit = f"{lower(one.name)} takes {one.most_v:.0f} V" if one.most_v is not None else "no limit said at the controller"
        cold = f"at {words.degrees(one.coldest_c)}" + ("" if one.cold_said else " (how cold it gets nobody said)")
        told.append(
            f"{one.rows[0].name}: {one.open_v:.1f} V open {cold}, {one.open_v * VOLTS_IN_HAND:.1f} V with 5 % in hand; {limit}. Hot it runs at {min(row.runs_v or 0.0 for row in one.rows):.0f} V; the bank wants {one.needs_v:.1f} V."
        )
        if one.lost_w is not None and one.plate_w and one.lost_w > UNLIKE * one.plate_w:
            told.append(f"Unlike panels or rows: {one.lost_w:.0f} W of {one.plate_w:.0f} W are lost.")
    return told


def lower(name: str) -> str:
    """A controller's name within a sentence; "the controller" where none is aboard."""
    return lower_first(name) if name else "the controller"
