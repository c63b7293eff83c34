"""What the colours of the body in the round mean."""

from __future__ import annotations

from collections.abc import Sequence

from uncle_sled.core.drawing.build.round_look import HEAVY_KG, INK_OF_STOP, RoundLook, mass_colour, task_colour
from uncle_sled.core.drawing.inks import THEMES, rgb_of
from uncle_sled.core.drawing.primitives import Primitive, Raster, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.studies.build.what_it_is import START
from uncle_sled.core.words import Words

ROW, BOX = 17.0, 11.0
Line = tuple[str, str]  # a colour and what it means
STEPS_KG = (0.5, 2.0, 8.0, 20.0, HEAVY_KG)
STUFF = (
    ("wood", "wood and board"),
    ("zinc", "metal"),
    ("foam", "insulation, floor covering"),
    ("body", "lining, panes"),
    ("fresh", "water"),
    ("gas", "gas"),
    ("power", "electric"),
)


def legend(
    pieces: Sequence[RoundPiece], look: RoundLook, names: dict[str, str], order: Sequence[str], words: Words, theme: str
) -> tuple[Line, ...]:
    """Lines of the legend, in order. Args: names: of tasks by id; order: tasks as the calendar ends them."""
    inks = THEMES[theme]
    if look.colours == "stuff":
        return tuple((inks[ink], told) for ink, told in STUFF)
    if look.colours == "stop":
        return tuple((inks[ink], stop.capitalize()) for stop, ink in INK_OF_STOP.items() if any(piece.stop == stop for piece in pieces))
    if look.colours == "mass":
        steps = [(mass_colour(kg, inks), f"{words.fine_kg(kg)}{' and more' if kg >= HEAVY_KG else ''}") for kg in STEPS_KG]
        return (*steps, (mass_colour(None, inks), "known with others only"))
    brings = {piece.by for piece in pieces}
    made = [(task_colour(task, order, inks), names.get(task, task)) for task in order if task in brings]
    return (*([(task_colour(START, order, inks), "there from the start")] if START in brings else []), *made)


def legend_drawn(lines: Sequence[Line], wide: float, high: float) -> tuple[Primitive, ...]:
    """The lines under each other; of what has no room how many there are more [points]."""
    room = int((high - 8) // ROW)
    shown = lines if len(lines) <= room else lines[: max(room - 1, 0)]
    shapes: list[Primitive] = []
    y = high - 6 - ROW / 2
    for colour, told in shown:
        shapes.append(Raster((8, y - BOX / 2), BOX, BOX, bytes(rgb_of(colour)), (1, 1), grey=False))
        shapes.append(Text((8 + BOX + 6, y), elided(told, 11, wide - BOX - 22), 11, "ink", anchor="left"))
        y -= ROW
    if len(shown) < len(lines):
        shapes.append(Text((8 + BOX + 6, y), f"and {len(lines) - len(shown)} more", 11, "pencil", anchor="left"))
    return tuple(shapes)
