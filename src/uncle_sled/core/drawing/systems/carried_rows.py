"""What fills up and what is carried: a bar of days each beside the days that are wanted, and how often, how heavy, where to. In points."""

from __future__ import annotations

from uncle_sled.core.drawing.bar_rows import Scale, named, unchecked_bar
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.parts.from_stow import GROUP_OF_CONTENTS
from uncle_sled.core.studies.systems.carried_out import HAND_KG, CarriedOut, Fills
from uncle_sled.core.words import Words, count_of

NAMES = {"fresh": "Fresh water", "grey": "Grey water", "black": "Toilet", "urine": "Urine", "solids": "Solids, with cover"}
WHERE = {
    "fresh": "from a tap for drinking water",
    "grey": "to a drain or dump point, not on the ground",
    "black": "to a dump point or a toilet",
    "urine": "to a toilet or a dump point",
    "solids": "bagged, or composted where that is allowed",
}
HEAD, PITCH, LEAST_DAYS, LEAST_BAR = 44.0, 50.0, 7.0, 50.0
LINE = 14.0


def carried_words(fills: Fills, words: Words) -> tuple[str, ...]:
    """What is told of one kind: litres and days; then, where something goes by hand, how often and how heavy, and where to."""
    if fills.unsaid:
        first = f"how much {fills.unsaid[0]} holds nobody said: not checked"
    elif fills.day_l is None:
        first = "who sleeps here is not said: not checked"
    elif fills.days is None:
        first = "nothing comes"
    else:
        until = "dry" if fills.kind == "fresh" else "full"
        first = f"{words.m3(fills.day_l / 1000)} a day, {until} after {fills.days:.1f} days"
    if not fills.carries:
        return (first,)
    many = [carry.times for carry in fills.carries]
    heavy = max(carry.kg for carry in fills.carries)
    times = f"{count_of(sum(n or 0 for n in many), 'time', 'times')}, " if None not in many else ""
    return first, f"carried {times}{words.fine_kg(heavy)} when full,", WHERE[fills.kind]


def carried_rows(made: CarriedOut, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """A row a kind; nothing where nothing aboard holds water."""
    if not made.fills:
        return ()
    most = max([fills.days or 0.0 for fills in made.fills] + [made.wanted_days or 0.0, 1.0])
    names = max(text_width(NAMES[fills.kind], 12) for fills in made.fills)
    told = max(text_width(text, 11) for fills in made.fills for text in carried_words(fills, words))
    left = 12 + min(names, width * 0.26) + 10
    high = min(most, max(2 * (made.wanted_days or LEAST_DAYS), LEAST_DAYS))
    scale = Scale(left, left + max(width - left - told - 34, LEAST_BAR), high)
    room = width - scale.right - 24
    shapes: list[Primitive] = []
    if made.wanted_days:
        says = f"{made.wanted_days:g} days wanted"
        at = min(scale.x(made.wanted_days) + text_width(says, 10) / 2, scale.right + 4)  # never over what is told beside the bars
        shapes.append(Text((at, height - HEAD + 16), says, 10, "spruce", anchor="right"))
    y = height - HEAD - 8
    fits = max(int((height - HEAD) / PITCH), 1)
    for fills in made.fills[:fits]:
        shapes += _row(fills, made, scale, y, room, words)
        y -= PITCH
    if len(made.fills) > fits:
        shapes.append(Text((12.0, 8.0), f"and {len(made.fills) - fits} more", 11, "pencil", anchor="left"))
    return tuple(shapes)


def _row(fills: Fills, made: CarriedOut, scale: Scale, y: float, room: float, words: Words) -> list[Primitive]:
    short = fills.days is not None and made.wanted_days is not None and fills.days < made.wanted_days - 1e-6
    shapes: list[Primitive] = [named(scale.left - 10, y, NAMES[fills.kind], scale.left - 20, 12, anchor="right", id=fills.ids[0])]
    if fills.days is None:
        shapes.append(unchecked_bar(scale.left, y, scale.room))
    else:
        shapes.append(scale.whole(y))
        shapes.append(scale.bar(y, min(fills.days, scale.high), GROUP_OF_CONTENTS[fills.kind], id=fills.ids[0]))
    if made.wanted_days and made.wanted_days <= scale.high:
        shapes.append(scale.post(y, made.wanted_days, "primer" if short else "spruce"))
    ink = "ochre word" if fills.days is None else "primer" if short and fills.fixed else "ink"
    heavy = any(carry.kg > HAND_KG for carry in fills.carries)
    told = carried_words(fills, words)
    for at, text in enumerate(told):
        shown = ink if not at else "ochre word" if heavy and at == 1 else "pencil"
        shapes.append(Text((scale.right + 14, y + LINE * ((len(told) - 1) / 2 - at)), elided(text, 11, room), 11, shown, anchor="left"))
    return shapes
