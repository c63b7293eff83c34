"""Frost in words: where water stands, when it freezes, what heat keeps it, and in which order it is emptied."""

from __future__ import annotations

from collections.abc import Callable

from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.frost import KEPT_C, Drain, Freezing, Frost
from uncle_sled.core.words import Words, all_of, lower_first

ASIDE_KG = 10.0  # less on one side nobody feels
STEPS: dict[str, Callable[[str], str]] = {
    "heater off": lambda names: f"{names}: off, and cold, before its water goes. Dry it burns out.",
    "empty fresh": lambda names: f"{names}: empty it, the pump with it, and leave its lid open.",
    "taps open": lambda _names: "All taps open, warm and cold, until no water comes.",
    "heater": lambda names: f"{names}: open its own drain.",
    "trap": lambda names: f"{names}: blow it out, or a cup of what is sold against frost in drinking water.",
    "empty grey": lambda names: f"{names}: empty it where that may be done.",
    "empty black": lambda names: f"{names}: empty and rinse it where that may be done.",
}
CAUTION = "At the soonest, by usual figures, full and still: half full it takes half as long. A burst pipe is found at the thaw."


def hours_words(told: Freezing, words: Words) -> str:
    """When it stands at nought and when it is ice."""
    if told.zero_h is None:
        return "no frost reaches it"
    ice = f", ice after {_h(told.solid_h)}" if told.solid_h is not None else ""
    return f"{words.degrees(0)} after {_h(told.zero_h)}{ice}"


def _h(hours: float) -> str:
    return f"{hours / 24:.0f} days" if hours >= 72 else f"{hours:.1f} h" if hours < 10 else f"{hours:.0f} h"


def frost_words(made: Frost, words: Words) -> tuple[str, ...]:
    """What it comes to, the soonest first."""
    if made.why or made.outside_c is None:
        return tuple(words.told(one) for one in made.why)
    told = []
    first = made.first
    if first is not None and first.unheated is not None and first.unheated.zero_h is not None:
        told.append(
            f"{words.degrees(made.outside_c)} outside and no heat: {lower_first(first.name)} first, at {words.degrees(0)} after {_h(first.unheated.zero_h)}."
        )
    if made.body_h is None:
        told.append("What stands inside is not checked: what a wall is made of is not said (Shell, Faces).")
    elif made.soonest:
        told.append("What the walls hold is not known, so the room counts as cold at once.")
    else:
        told.append(f"The room loses two thirds of its warmth in {_h(made.body_h)}.")
    if made.least_w is not None and made.least_c is not None and made.least_w > 0:
        at_least = "" if made.least_sure else "At least "
        has = f"; the heater holds {words.degrees(made.held_c)}" if made.held_c is not None else ""
        told.append(f"{at_least}{words.heat(made.least_w)} keep {words.degrees(made.least_c)} inside and all water in it from frost{has}.")
    told += [
        f"A pad of {wet.own_w:.0f} W of its own keeps {lower_first(wet.name)} at {words.degrees(KEPT_C)}."
        for wet in made.wets
        if wet.own_w is not None and wet.kind != "hose"
    ]
    heavy = max((wet for wet in made.wets if wet.aside_kg is not None), key=lambda wet: abs(wet.aside_kg or 0.0), default=None)
    if heavy is not None and heavy.aside_kg is not None and abs(heavy.aside_kg) >= ASIDE_KG:
        side, other = ("right", "left") if heavy.aside_kg > 0 else ("left", "right")
        told.append(f"Full, {lower_first(heavy.name)} puts {words.kg(abs(heavy.aside_kg))} on the {side} wheels and off the {other} ones.")
    return tuple(told)


def drain_words(s: Studied, made: Frost) -> tuple[str, ...]:
    """The steps of emptying, each in a sentence with its number."""
    names = {thing.id: thing.name for thing in s.build.stow.things}
    return tuple(f"{at}. {_step(drain, names)}" for at, drain in enumerate(made.drains, 1))


def _step(drain: Drain, names: dict[str, str]) -> str:
    told = [f"Trap of the {lower_first(names[id])}" if drain.step == "trap" else names.get(id, id) for id in dict.fromkeys(drain.ids)]
    return STEPS[drain.step](all_of(told))
