"""Frost as bars: each piece of water, the hours until it stands at nought and until it is ice, a night marked. In points, y up."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import Scale, named
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.drawing.systems.frost_words import hours_words
from uncle_sled.core.drawing.text_width import text_width
from uncle_sled.core.studies.systems.frost import NIGHT_H, Freezing, Frost, Wet
from uncle_sled.core.words import Words

NAME_W, NAME_SHARE, HEAD, FOOT = 172.0, 0.29, 54.0, 22.0
LEAST_PITCH, MOST_PITCH, SHOWN_H = 34.0, 72.0, 48.0
LEAST_ROOM = 110.0  # points, for a mark every twelve hours
MARKS_H = (0.0, 12.0, 24.0, 36.0, 48.0)


def in_order(made: Frost) -> tuple[Wet, ...]:
    """What stands at nought first, first; what cannot be told before all, since nobody knows."""
    return tuple(sorted(made.wets, key=lambda wet: (-1.0 if wet.unheated is None else wet.unheated.soon_h, wet.name)))


def frost_bars(made: Frost, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Two days of hours: pale until it stands at nought, strong while it turns to ice; a thin bar under it with the heater on."""
    if not made.wets:
        return ()
    wets = in_order(made)
    room = height - HEAD - FOOT
    pitch = min(max(room / len(wets), LEAST_PITCH), MOST_PITCH)
    fits = max(int(room / pitch), 1)
    name_w = min(NAME_W, width * NAME_SHARE)
    says_w = max(text_width(says, 11) for wet in wets for says, _ in _says(wet, words)) + 22
    scale = Scale(name_w + 8, max(width - says_w, name_w + 40), SHOWN_H)
    low = height - HEAD - min(fits, len(wets)) * pitch
    shapes: list[Primitive] = []
    for hour in MARKS_H if scale.room > LEAST_ROOM else MARKS_H[::2]:
        shapes.append(line((scale.x(hour), low), (scale.x(hour), height - HEAD), "rule", 0.8))
        shapes.append(Text((scale.x(hour), height - HEAD + 10), f"{hour:.0f}", 11, "pencil"))
    shapes.append(line((scale.x(NIGHT_H), low), (scale.x(NIGHT_H), height - HEAD + 2), "pencil", 1.2))
    shapes.append(Text((scale.x(SHOWN_H) + 10, height - HEAD + 10), "hours of frost", 11, "pencil", anchor="left"))
    shapes.append(Text((scale.x(NIGHT_H), height - HEAD + 24), "a night", 11, "ink"))
    y = height - HEAD - pitch / 2
    for wet in wets[:fits]:
        shapes += _row(wet, scale, y, words)
        y -= pitch
    if len(wets) > fits:
        shapes.append(Text((name_w, low - 12), f"and {len(wets) - fits} more", 11, "pencil", anchor="right"))
    return tuple(shapes)


def _row(wet: Wet, scale: Scale, y: float, words: Words) -> list[Primitive]:
    right = scale.left - 8
    shapes: list[Primitive] = [
        named(right, y + 7, wet.name, right - 10, 12, strong=True, anchor="right", id=wet.id),
        named(right, y - 8, wet.stands, right - 10, 11, anchor="right", ink="pencil", id=wet.id),
    ]
    if wet.unheated is not None:
        shapes += _bar(wet.unheated, scale, y + 5, 6.0, wet.id)
    if wet.heated is not None and wet.heated.zero_h is not None and not wet.in_open_air:
        shapes += _bar(wet.heated, scale, y - 7, 2.5, wet.id)
    for at, (says, ink) in enumerate(_says(wet, words)):
        shapes.append(Text((scale.right + 10, y + 6 - 14 * at), says, 11, ink, anchor="left"))
    return shapes


def _says(wet: Wet, words: Words) -> list[tuple[str, str]]:
    """The words beside a row and their inks: when, and what the heater does for it."""
    if wet.unheated is None:
        return [("not checked:", "ochre word"), (wet.why, "ochre word")]
    bad = wet.unheated.soon_h < NIGHT_H
    made = [(hours_words(wet.unheated, words), "primer" if bad else "ink")]
    if wet.in_open_air:
        return made
    if wet.heated is None:
        return [*made, ("with heat: not checked", "ochre word")]
    if wet.heated.zero_h is None:
        return [*made, ("the heater keeps it", "spruce")]
    return [*made, (f"heated, at {words.degrees(0)} after {wet.heated.zero_h:.0f} h", "primer")]


def _bar(told: Freezing, scale: Scale, y: float, half: float, id: str) -> list[Primitive]:
    """Pale to nought, strong to ice; open at its end where it goes on beyond the scale."""
    zero = min(told.zero_h if told.zero_h is not None else scale.high, scale.high)
    solid = min(told.solid_h if told.solid_h is not None else scale.high, scale.high)
    shapes: list[Primitive] = [scale.span(y, 0.0, zero, half=half, stroke="fresh", fill="fresh", width=0.8, tint=0.2, id=id)]
    if solid > zero:
        shapes.append(scale.span(y, zero, solid, half=half, stroke="fresh", fill="fresh", width=0.8, tint=0.75, id=id))
    return shapes
