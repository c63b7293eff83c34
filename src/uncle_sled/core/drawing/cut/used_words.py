"""How much of a consumable is wanted, as it is measured out: metres, square metres, kilograms, litres, or as it comes."""

from __future__ import annotations

import math
from collections.abc import Callable

from uncle_sled.core.studies.cut.consumables import Used
from uncle_sled.core.words import Words

LITTLE_KG, OUNCE_KG = 0.1, 0.028349523


def _grams(kg: float, words: Words) -> str:
    """Less than a tenth of a kilogram."""
    return f"{kg / OUNCE_KG:.1f} oz" if words.shown.imperial else f"{kg * 1000:.0f} g"


def much_of(used: Used, words: Words) -> str:
    """What a build or a step wants of it, in the build's own units."""
    known: dict[str, Callable[[float], str]] = {
        "m": words.m,
        "m²": words.m2,
        "kg": lambda kg: words.fine_kg(kg) if kg >= LITTLE_KG else _grams(kg, words),
        "L": lambda litres: words.m3(litres / 1000),
    }
    if used.rule.unit in known:
        return known[used.rule.unit](used.need)
    if used.rule.unit == "pieces":
        return f"{math.ceil(used.need - 1e-9)} pieces"
    return f"{used.need:.2g} {used.rule.unit}" if used.need < 10 else f"{used.need:.0f} {used.rule.unit}"
