"""The body in the round as one picture, by words that say how it is seen: "around 35", "over 25", "day 40", "off roof", "apart 0.5"."""

from __future__ import annotations

from collections.abc import Sequence
from typing import get_args

from msgspec.structs import replace

from uncle_sled.core.drawing.build.round_look import OFF, Colours, RoundLook, moved_of, shown_of, tones_of
from uncle_sled.core.drawing.primitives import Raster
from uncle_sled.core.errors import FileError
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.round.round_pieces import round_pieces, scene
from uncle_sled.core.round.seen import Sight, fitting, seen
from uncle_sled.core.round.shaded import halved, shaded
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.build.standing import done_by, order_of

SIZE_PX, FINE = (1600, 1000), 2
NUMBERS = {"around": (-360.0, 720.0), "over": (-89.0, 89.0), "apart": (0.0, 1.0), "day": (0.0, 36500.0)}


def picture_asked(s: Studied, asked: Sequence[str], theme: str = "light") -> Raster | None:
    """None where nothing is drawn. Raises: FileError: names the word that is not understood, and what would be right."""
    pieces = round_pieces(s.build, s.facts)
    sight, look, day = read_look(asked)
    schedule = schedule_of(s.build, s.facts)
    if day is not None:
        look = replace(look, done=done_by(schedule, day))
    shown = shown_of(pieces, look)
    if not pieces or not shown.any():
        return None
    whole = scene(pieces)
    size = (SIZE_PX[0] * FINE, SIZE_PX[1] * FINE)
    moved = moved_of(pieces, look)
    picture = seen(whole, fitting(whole, sight, size, shown, moved), size, shown, moved)
    rgb = halved(shaded(whole, picture, tones_of(pieces, look, order_of(schedule), theme)), FINE)
    return Raster((0.0, 0.0), float(SIZE_PX[0]), float(SIZE_PX[1]), rgb.tobytes(), SIZE_PX, grey=False)


def read_look(asked: Sequence[str]) -> tuple[Sight, RoundLook, float | None]:
    """From where, how, and on which day since the first; what is not said is as usual. Raises: FileError."""
    numbers: dict[str, float] = {}
    look = RoundLook()
    for words in asked:
        name, _, value = words.partition(" ")
        if name == "off" and value in dict(OFF):
            look = replace(look, off=(*look.off, value))
        elif name == "colours" and value in get_args(Colours):
            look = replace(look, colours=value)  # type: ignore[arg-type]
        elif name in NUMBERS and _number(value) is not None and NUMBERS[name][0] <= float(value) <= NUMBERS[name][1]:
            numbers[name] = float(value)
        else:
            raise FileError(
                f"“{words}” says nothing of how it is seen: around 35, over 25, apart 0.5, day 40, "
                f"off {' or '.join(kind for kind, _ in OFF)}, colours {' or '.join(get_args(Colours))} would be right."
            )
    usual = Sight()
    sight = replace(usual, around_deg=numbers.get("around", usual.around_deg), over_deg=numbers.get("over", usual.over_deg))
    return sight, replace(look, apart=numbers.get("apart", 0.0)), numbers.get("day")


def _number(text: str) -> float | None:
    try:
        return float(text)
    except ValueError:
        return None
