"""Lengths, weights and volumes as people write them, and back again.

Everything inside is SI. Factors are exact rationals (the international yard and pound of 1959,
the US gallon of 231 cubic inches), so that 6' 4 1/2" is 1.9431 m and not nearly so. A unit that
is not in the short table is looked up in Pint, which is loaded only then.
"""

from __future__ import annotations

import math
import re
from fractions import Fraction
from functools import cache, lru_cache
from typing import Any, Literal

import msgspec

from uncle_sled.core.errors import EntryError

Dimension = Literal["length", "mass", "volume", "pressure", "temperature", "power", "resistance", "stiffness"]

_INCH = Fraction(254, 10000)
_POUND = Fraction(45359237, 100000000)
_GALLON = Fraction(3785411784, 10**12)
_G = Fraction(980665, 100000)
_PSI = _POUND * _G / (_INCH * _INCH)
_BTU_H = Fraction(29307107017, 10**11)

INCH_M, FOOT_M = float(_INCH), float(12 * _INCH)
POUND_KG, GALLON_M3 = float(_POUND), float(_GALLON)
FIRM_STOP_G = 0.4  # one figure for ball, surge and grade; holding things down keeps 1.0 g
GRAVITY = float(_G)  # standard acceleration of fall [m/s2]
POUND_FORCE_N = float(_POUND * _G)

# Factor to SI by dimension and by every spelling that is understood at once.
FACTORS: dict[str, dict[str, Fraction]] = {
    "length": {
        "m": Fraction(1),
        "metre": Fraction(1),
        "metres": Fraction(1),
        "meter": Fraction(1),
        "meters": Fraction(1),
        "mm": Fraction(1, 1000),
        "cm": Fraction(1, 100),
        "in": _INCH,
        "inch": _INCH,
        "inches": _INCH,
        '"': _INCH,
        "ft": 12 * _INCH,
        "foot": 12 * _INCH,
        "feet": 12 * _INCH,
        "'": 12 * _INCH,
        "yd": 36 * _INCH,
    },
    "mass": {
        "kg": Fraction(1),
        "kilo": Fraction(1),
        "kilos": Fraction(1),
        "g": Fraction(1, 1000),
        "t": Fraction(1000),
        "lb": _POUND,
        "lbs": _POUND,
        "pound": _POUND,
        "pounds": _POUND,
        "oz": _POUND / 16,
    },
    "volume": {
        "l": Fraction(1, 1000),
        "litre": Fraction(1, 1000),
        "litres": Fraction(1, 1000),
        "liter": Fraction(1, 1000),
        "liters": Fraction(1, 1000),
        "ml": Fraction(1, 10**6),
        "m3": Fraction(1),
        "gal": _GALLON,
        "gallon": _GALLON,
        "gallons": _GALLON,
        "qt": _GALLON / 4,
    },
    "pressure": {"pa": Fraction(1), "kpa": Fraction(1000), "bar": Fraction(100000), "psi": _PSI},
    "temperature": {"degc": Fraction(1), "c": Fraction(1), "degf": Fraction(5, 9), "f": Fraction(5, 9)},
    "power": {"w": Fraction(1), "kw": Fraction(1000), "btu/h": _BTU_H},
    "resistance": {"m2.k/w": Fraction(1), "ft2.f.h/btu": (12 * _INCH) ** 2 * Fraction(5, 9) / _BTU_H},
    "stiffness": {"n/m": Fraction(1), "n/mm": Fraction(1000), "kn/m": Fraction(1000), "lb/in": _POUND * _G / _INCH},
}

PLAIN = {
    "length": "a length",
    "mass": "a weight",
    "volume": "a volume",
    "pressure": "a pressure",
    "temperature": "a temperature",
    "power": "a power",
    "resistance": "an R value",
    "stiffness": "a spring rate",
}
EXAMPLE = {
    "length": "1.95 m, 1950 mm or 6' 4 1/2\"",
    "mass": "42 kg or 93 lb",
    "volume": "38 L or 10 gal",
    "pressure": "350 kPa or 51 psi",
    "temperature": "18 degC or 64 degF",
    "power": "900 W or 3070 Btu/h",
    "resistance": "1.8 m2.K/W or 10 ft2.F.h/Btu",
    "stiffness": "60 N/mm or 340 lb/in",
}
_VULGAR = {"½": " 1/2", "¼": " 1/4", "¾": " 3/4", "⅛": " 1/8", "⅜": " 3/8", "⅝": " 5/8", "⅞": " 7/8"}
_NUMBER = r"(?:\d+(?:\s+|-)\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
# A length's unit holds no digit, so that 12ft6 reads as twelve foot six.
_UNIT = {"length": "[a-z°]+", "mass": "[a-z]+", "volume": "[a-z]+3?"}
_TERM = {
    dimension: re.compile(
        rf"\s*({_NUMBER})\s*-?\s*(['\"]|{_UNIT.get(dimension, '[a-z°][a-z0-9°./]*')})?\s*-?", re.IGNORECASE
    )
    for dimension in FACTORS
}
# The unit that a bare trailing number is in, after a term in the first unit: 6ft 4-1/2.
_NEXT_DOWN = {"ft": "in", "lb": "oz"}
# No value of this trade is larger, in its SI unit; the file's models carry the same limits.
MOST = {"length": 100.0, "mass": 1e6, "volume": 1e3, "stiffness": 1e9, "temperature": 100.0}
MOST_OF_OTHERS = 1e7
DEGREES = {"degC": "°C", "degF": "°F"}
LONGEST = 200  # signs that a value takes to write, and to spare


class Shown(msgspec.Struct, frozen=True):
    """The unit each dimension is shown and read in, when a bare number is typed."""

    length: str = "mm"
    mass: str = "kg"
    volume: str = "L"

    @property
    def imperial(self) -> bool:
        """Whether lengths are in inches, or in feet and inches."""
        return self.length in ("in", "ft-in")

    @property
    def step_m(self) -> float:
        """How far an arrow key moves something, and what a drag rounds to: half an inch or 10 mm [m]."""
        return INCH_M / 2 if self.imperial else 0.01

    def unit(self, dimension: str) -> str:
        """The unit that a bare number of this dimension is in; feet-and-inches reads as inches."""
        chosen = {"length": self.length, "mass": self.mass, "volume": self.volume}.get(dimension)
        if chosen:
            return chosen
        imperial = self.imperial
        return {
            "pressure": "psi" if imperial else "kPa",
            "temperature": "degF" if imperial else "degC",
            "power": "W",
            "resistance": "ft2.F.h/Btu" if imperial else "m2.K/W",
            "stiffness": "lb/in" if imperial else "N/mm",
        }[dimension]


def parse(text: str, dimension: Dimension, bare_unit: str) -> float:
    """Read what was typed as a value in SI.

    Args:
        text: What was typed, such as ``6ft 4-1/2``, ``1.95m`` or ``30 gal``.
        dimension: Which kind of value the field holds.
        bare_unit: The unit of a number without one; ``ft-in`` means inches.
    Raises: EntryError: says what would be right.
    """
    bare = "in" if bare_unit == "ft-in" else bare_unit
    if len(text) > LONGEST:
        raise EntryError(f"“{text[:40]}…” is too long to be {PLAIN[dimension]}: write it like {EXAMPLE[dimension]}.")
    body = _spelled(text)
    if not body:
        raise EntryError(f"Nothing was typed: {PLAIN[dimension]} such as {EXAMPLE[dimension]} would be right.")
    negative = body.startswith("-")
    terms = _terms(body[1:].strip() if body[0] in "+-" else body, text, dimension)
    if not terms:
        raise EntryError(f"“{text}” holds no number: write it like {EXAMPLE[dimension]}.")
    total = Fraction(0)
    last: str | None = None
    for at, (number, unit) in enumerate(terms):
        if unit is None:
            unit = _NEXT_DOWN.get(_plain_unit(last), bare) if last is not None else bare
            # after “1 950” nobody knows whether a thousand was meant; after “6 ft 4” everybody knows inches
            if last is not None and (terms[at - 1][1] is None or _plain_unit(last) not in _NEXT_DOWN):
                raise EntryError(f"“{text}” has a number without a unit in it: write it like {EXAMPLE[dimension]}.")
        factor = _factor(unit, text, dimension)
        if at and factor >= _factor(last or unit, text, dimension):
            raise EntryError(
                f"“{text}” goes from small to large: write the larger unit first, like {EXAMPLE[dimension]}."
            )
        value = number * factor
        if dimension == "temperature" and unit.lower().endswith("f"):
            value = (number * (-1 if negative else 1) - 32) * Fraction(5, 9) * (-1 if negative else 1)
        total += value
        last = unit
    if total > MOST.get(dimension, MOST_OF_OTHERS):
        raise EntryError(
            f"“{text}” is more than any build can hold; {PLAIN[dimension]} such as {EXAMPLE[dimension]} would be right."
        )
    return float(-total if negative else total)


def _spelled(text: str) -> str:
    """What was typed with the marks of feet, inches, fractions and less-than-nothing in their plain writing."""
    body = text.strip().replace("−", "-").replace("′", "'").replace("″", '"').replace("''", '"')
    body = body.replace("’", "'").replace("”", '"').replace("“", '"')
    for sign, spelled in _VULGAR.items():
        body = body.replace(sign, spelled)
    return body.strip()


def _terms(body: str, text: str, dimension: str) -> list[tuple[Fraction, str | None]]:
    found: list[tuple[Fraction, str | None]] = []
    at = 0
    while at < len(body):
        match = _TERM[dimension].match(body, at)
        if not match or match.end() == at:
            raise EntryError(f"“{text}” cannot be read as {PLAIN[dimension]}: write it like {EXAMPLE[dimension]}.")
        found.append((_number(match.group(1), text), match.group(2)))
        at = match.end()
    return found


def _number(word: str, text: str) -> Fraction:
    if re.fullmatch(r"\d{1,3},\d{3}", word):
        raise EntryError(
            f"“{text}”: {word} could be a thousand or a decimal; write {word.replace(',', '')} or {word.replace(',', '.')}."
        )
    word = word.replace(",", ".")
    try:
        if "/" in word:
            whole, _, fraction = word.replace("-", " ").rpartition(" ")
            return Fraction(fraction) + (Fraction(whole) if whole.strip() else 0)
        return Fraction(word)
    except (ValueError, ZeroDivisionError):
        raise EntryError(f"“{text}” has a fraction that is no number: {word}.") from None


def _plain_unit(unit: str | None) -> str:
    return {"'": "ft", "foot": "ft", "feet": "ft", "lbs": "lb", "pound": "lb", "pounds": "lb"}.get(
        (unit or "").lower(), (unit or "").lower()
    )


def _factor(unit: str, text: str, dimension: str) -> Fraction:
    table = FACTORS[dimension]
    key = unit.lower().replace("°", "deg").rstrip(".")
    if key in table:
        return table[key]
    for other, units in FACTORS.items():
        if key in units:
            raise EntryError(
                f"“{text}” is {PLAIN[other]}; here {PLAIN[dimension]} such as {EXAMPLE[dimension]} would be right."
            )
    return _rare_factor(unit, text, dimension)


_BASE = {
    "length": "meter",
    "mass": "kilogram",
    "volume": "meter**3",
    "pressure": "pascal",
    "power": "watt",
    "stiffness": "newton/meter",
}


def _rare_factor(unit: str, text: str, dimension: str) -> Fraction:
    """A unit outside the short table (fathom, stone, cubic inch), by Pint."""
    factor = _looked_up(unit, dimension) if dimension in _BASE and len(unit) <= 40 else None
    if factor is None:
        raise EntryError(
            f"“{unit[:40]}” in “{text[:80]}” is not a unit of {PLAIN[dimension].split(' ', 1)[1]}: write it like {EXAMPLE[dimension]}."
        )
    return factor


@lru_cache(2000)
def _looked_up(unit: str, dimension: str) -> Fraction | None:
    from pint.errors import PintError

    try:
        return Fraction(_registry().Quantity(1, unit).to(_BASE[dimension]).magnitude).limit_denominator(10**12)
    except (PintError, AttributeError, ValueError, TypeError, AssertionError, OverflowError, RecursionError):
        return None


@cache
def _registry() -> Any:
    import pint  # 0.4 s to load, and hardly anyone types a fathom

    return pint.UnitRegistry(cache_folder=None)


def keep_typed(text: str, dimension: Dimension, bare_unit: str) -> str:
    """What was typed, made to stand alone: a number without a unit gets the one it was read in.

    What comes back says the same value whatever unit is shown later. Raises: EntryError: it cannot be read at all.
    """
    body = " ".join(text.split())
    bare = '"' if bare_unit in ("in", "ft-in") else DEGREES.get(bare_unit, bare_unit)
    terms = _terms(_spelled(body).lstrip("+-").strip(), text, dimension)
    if len(terms) != 1 or terms[0][1] is not None:
        return body  # a bare number after another term is in the next unit down, whatever is shown
    return f"{body.rstrip('- ')}{bare if bare == chr(34) else ' ' + bare}"


def family(unit_or_text: str) -> str:
    """Whether a unit, or a typed value, is of the imperial or the metric family."""
    return (
        "imperial"
        if re.search(
            r"['\"′″]|\b(in|inch|inches|ft|foot|feet|yd|lbs?|pounds?|oz|gal|gallons?|qt|psi|btu|degf|f)\b|°f|ft-in",
            re.sub(r"(\d)([a-zA-Z])", r"\1 \2", unit_or_text.lower()),
        )
        else "metric"
    )


def feet_inches(metres: float, denominator: int = 16) -> str:
    """Feet and inches to the nearest fraction, carried properly: 6' 4 1/2"."""
    parts = round(abs(metres) / float(_INCH) * denominator)
    inches, fraction = divmod(parts, denominator)
    feet, inches = divmod(inches, 12)
    small = str(Fraction(fraction, denominator)) if fraction else ""
    words = [f"{feet}'"] if feet else []
    if inches or small or not feet:
        words.append(" ".join(w for w in (str(inches) if inches or not small else "", small) if w) + '"')
    return ("−" if metres < 0 and parts else "") + " ".join(words)


def _decimals(value: float, places: int) -> str:
    shown = f"{value:.{places}f}"
    if float(shown) == 0:
        shown = shown.lstrip("-")
    return shown.replace("-", "−")


def show(si: float, dimension: Dimension, unit: str, places: int | None = None) -> str:
    """A value in the unit asked for, with its unit, rounded as the trade reads it."""
    if unit == "ft-in":
        return feet_inches(si)
    factor = float(FACTORS[dimension][unit.lower()])
    if unit == "degF":
        return f"{_decimals(si / factor + 32, places or 0)} °F"
    value = si / factor
    if places is None and unit == "m" and 0 < abs(value) < 0.01 and abs(value - round(value, 3)) > 1e-6:
        places = 4  # a wall of 1.5 mm is not one of 2
    if places is None:
        places = {"m": 3, "mm": 0, "cm": 1, "in": 2, "kg": 1, "lb": 1, "L": 1, "gal": 1, "N/mm": 1}.get(unit, 0)
        if unit in ("kg", "lb", "L", "gal") and abs(value) >= 100:
            places = 0
    word = _decimals(value, places)
    if "." in word and unit in ("kg", "lb", "L", "gal", "N/mm"):
        word = word.rstrip("0").rstrip(".")
    return f'{word}"' if unit == "in" else f"{word} {DEGREES.get(unit, unit)}"


def plain_number(value: float) -> str:
    """A number for a sentence, to six figures and never in powers of ten."""
    word = f"{value:.6g}"
    return word if "e" not in word else _decimals(value, 0 if abs(value) >= 1 else 6)


def weight(kg: float, shown: Shown) -> str:
    """A weight as people read it off a scale: whole kilograms or pounds."""
    return show(kg, "mass", shown.mass, 0)


def fine_weight(kg: float, shown: Shown) -> str:
    """A doubt or a small excess, finer than a scale: one decimal, always shown."""
    return f"{_decimals(kg / float(FACTORS['mass'][shown.mass]), 1)} {shown.mass}"


def volume(cubic_metres: float, shown: Shown) -> str:
    """A volume for a sentence: litres or gallons to a tenth, whole from a hundred on."""
    return show(cubic_metres, "volume", shown.volume)


def distance(metres: float, shown: Shown) -> str:
    """A length for a sentence: metres to the centimetre, or feet and inches."""
    if shown.length in ("mm", "m", "cm"):
        return f"{_decimals(metres, 2)} m"
    return feet_inches(metres, 8) if shown.length == "ft-in" else show(metres, "length", "in", 1)


def shop_measure(metres: float, shown: Shown) -> str:
    """A length to cut to: whole millimetres, or feet and inches (or inches) to a sixteenth."""
    if not shown.imperial:
        return f"{metres * 1000:.0f} mm".replace("-", "−")
    return feet_inches(metres, 16) if shown.length == "ft-in" else f'{_sixteenths(metres / INCH_M)}"'


def _sixteenths(inches: float) -> str:
    whole, rest = divmod(round(abs(inches) * 16), 16)
    sign = "−" if inches < 0 and (whole or rest) else ""
    if not rest:
        return f"{sign}{whole}"
    by = math.gcd(rest, 16)
    return f"{sign}{f'{whole} ' if whole else ''}{rest // by}/{16 // by}"


_METRIC_SIZE = re.compile(r"(\d+(?:\.\d+)?) (mm|m|L|kg)\b")


def name_in_units(name: str, shown: Shown) -> str:
    """The name of a generic thing with its size in the units of the build: "Fresh tank 20 L" as "Fresh tank 5 gal"."""
    wants = {"mm": shown.imperial, "m": shown.imperial, "L": shown.volume == "gal", "kg": shown.mass == "lb"}

    def other(match: re.Match[str]) -> str:
        unit = match.group(2)
        if not wants[unit]:
            return match.group(0)
        value = float(match.group(1))
        by, name = {
            "mm": (0.001 / INCH_M, "in"),
            "m": (1 / FOOT_M, "ft"),
            "L": (1 / 3.785411784, "gal"),
            "kg": (1 / POUND_KG, "lb"),
        }[unit]
        made = value * by
        return f"{made:.0f} {name}" if made >= 4 else f"{plain_number(round(made * 2) / 2 or round(made, 1))} {name}"

    return _METRIC_SIZE.sub(other, name)


MILE_KM = 1.609344


def read_speed_kmh(text: str, imperial: bool) -> float | None:
    """A speed as typed, bare numbers in the units of the build; None for nothing. Raises: EntryError."""
    body = text.strip().lower().replace(",", ".")
    if not body:
        return None
    match = re.fullmatch(r"([0-9]+(?:\.[0-9]+)?)\s*(km/h|kmh|kph|mph|)", body)
    if not match:
        raise EntryError(f"“{text}” is no speed; 100 km/h or 62 mph would be right.")
    miles = match.group(2) == "mph" or (not match.group(2) and imperial)
    kmh = float(match.group(1)) * (MILE_KM if miles else 1.0)
    if not 5 <= kmh <= 300:
        raise EntryError(f"“{text}” is no speed on a road; 5 to 300 km/h (3 to 186 mph) would be right.")
    return kmh
