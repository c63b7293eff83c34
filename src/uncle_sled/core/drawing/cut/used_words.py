"""How much of a consumable is wanted, as it is measured out: metres, square metres, kilograms, litres, or as it comes."""

from __future__ import annotations

from collections.abc import Callable

from uncle_sled.core.studies.cut.consumables import Used
from uncle_sled.core.words import Words


def much_of(used: Used, words: Words) -> str:
    """What a build or a step wants of it, in the build's own units."""
    known: dict[str, Callable[[float], str]] = {
        "m": words.m,
        "m²": words.m2,
        "kg": words.fine_kg,
        "L": lambda litres: words.m3(litres / 1000),
    }
    if used.rule.unit in known:
        return known[used.rule.unit](used.need)
    return f"{used.need:.3g} {used.rule.unit}" if used.need < 100 else f"{used.need:.0f} {used.rule.unit}"
