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
from typing import Any

import msgspec

from uncle_sled.core.errors import EntryError
from uncle_sled.core.measures import FOOT, GALLON, INCH, KEPT, MEASURES, POUND, SIGNS, Dimension, G, awg_mm2, awg_name, plain_unit

INCH_M, FOOT_M = float(INCH), float(FOOT)
POUND_KG, GALLON_M3 = float(POUND), float(GALLON)
FIRM_STOP_G = 0.4  # one figure for ball, surge and grade; holding things down keeps 1.0 g
GRAVITY = float(G)  # standard acceleration of fall [m/s2]
POUND_FORCE_N = float(POUND * G)

FACTORS = {dimension: measure.factors for dimension, measure in MEASURES.items()}
PLAIN = {dimension: measure.plain for dimension, measure in MEASURES.items()}
EXAMPLE = {dimension: measure.example for dimension, measure in MEASURES.items()}
_VULGAR = {"½": " 1/2", "¼": " 1/4", "¾": " 3/4", "⅛": " 1/8", "⅜": " 3/8", "⅝": " 5/8", "⅞": " 7/8"}
_NUMBER = r"(?:\d+(?:\s+|-)\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
# A length's unit holds no digit, so that 12ft6 reads as twelve foot six.
_UNIT = {"length": "[a-z°]+", "mass": "[a-z]+", "volume": "[a-z]+3?"}
_TERM = {
    dimension: re.compile(rf"\s*({_NUMBER})\s*-?\s*(['\"]|{_UNIT.get(dimension, '[a-z°][a-z0-9°./]*')})?\s*-?", re.IGNORECASE)
    for dimension in FACTORS
}
# The unit that a bare trailing number is in, after a term in the first unit: 6ft 4-1/2.
_NEXT_DOWN = {"ft": "in", "lb": "oz"}
IMPERIAL = frozenset({"ft-in", *(measure.imperial for measure in MEASURES.values() if measure.imperial != measure.metric)})
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
        measure = MEASURES[dimension]
        return measure.imperial if (self.mass == "lb" if measure.by_mass else self.imperial) else measure.metric

    @property
    def thin(self) -> Shown:
        """For thicknesses and small sizes: millimetres in a build of metres, inches in one of feet."""
        small = {"m": "mm", "cm": "mm", "ft-in": "in"}.get(self.length)
        return Shown(small, self.mass, self.volume) if small else self


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
            raise EntryError(f"“{text}” goes from small to large: write the larger unit first, like {EXAMPLE[dimension]}.")
        value = number * factor
        if dimension == "temperature" and unit.lower().endswith("f"):
            value = (number * (-1 if negative else 1) - 32) * Fraction(5, 9) * (-1 if negative else 1)
        total += value
        last = unit
    if total > MEASURES[dimension].most:
        raise EntryError(f"“{text}” is more than any build can hold; {PLAIN[dimension]} such as {EXAMPLE[dimension]} would be right.")
    return float(-total if negative else total)


def _spelled(text: str) -> str:
    """What was typed with the marks of feet, inches, fractions and less-than-nothing in their plain writing."""
    body = text.strip().replace("−", "-").replace("′", "'").replace("″", '"').replace("''", '"')
    body = body.replace("’", "'").replace("”", '"').replace("“", '"')
    body = body.replace("²", "2").replace("³", "3").replace("·°", ".").replace("·", ".").replace("fl oz", "fl.oz")
    for sign, spelled in _VULGAR.items():
        body = body.replace(sign, spelled)
    return body.strip()


def _terms(body: str, text: str, dimension: str) -> list[tuple[Fraction, str | None]]:
    found: list[tuple[Fraction, str | None]] = []
    at = 0
    while at < len(body):
        match = _TERM[dimension].match(body, at)
        if not match or match.end() == at:
            raise EntryError(f"“{text}” cannot be read as {PLAIN[dimension]}; {EXAMPLE[dimension]} would be right.")
        found.append((_number(match.group(1), text), match.group(2)))
        at = match.end()
    return found


MOST_POWER = 300  # of ten
BEYOND = "“{}” is beyond any measure; a number such as 12 would be right."


def _number(word: str, text: str) -> Fraction:
    if re.fullmatch(r"\d{1,3},\d{3}", word):
        raise EntryError(f"“{text}”: {word} could be a thousand or a decimal; write {word.replace(',', '')} or {word.replace(',', '.')}.")
    word = word.replace(",", ".")
    power = re.search(r"[eE]([+-]?\d+)", word)
    if power is not None and (len(power[1]) > 4 or abs(int(power[1])) > MOST_POWER):  # written out it would fill the memory
        raise EntryError(BEYOND.format(text[:40] + "…" * (len(text) > 40)))
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
            raise EntryError(f"“{text}” is {PLAIN[other]}; here {PLAIN[dimension]} such as {EXAMPLE[dimension]} would be right.")
    return _rare_factor(unit, text, dimension)


def _rare_factor(unit: str, text: str, dimension: str) -> Fraction:
    """A unit outside the short table (fathom, stone, cubic inch), by Pint."""
    factor = _looked_up(unit, dimension) if MEASURES[dimension].pint and len(unit) <= 40 else None
    if factor is None:
        raise EntryError(
            f"“{unit[:40]}” in “{text[:80]}” is not a unit of {PLAIN[dimension].split(' ', 1)[1]}: write it like {EXAMPLE[dimension]}."
        )
    return factor


@lru_cache(2000)
def _looked_up(unit: str, dimension: str) -> Fraction | None:
    from pint.errors import PintError

    try:
        return Fraction(_registry().Quantity(1, unit).to(MEASURES[dimension].pint).magnitude).limit_denominator(10**12)
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
    bare = '"' if bare_unit in ("in", "ft-in") else SIGNS.get(bare_unit, bare_unit)
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
    if 0 < abs(metres) < 0.1 * INCH_M:  # a skin of sheet metal is not nought
        return inches(metres)
    parts = round(abs(metres) / INCH_M * denominator)
    whole, fraction = divmod(parts, denominator)
    feet, over = divmod(whole, 12)
    small = str(Fraction(fraction, denominator)) if fraction else ""
    words = [f"{feet}'"] if feet else []
    if over or small or not feet:
        words.append(" ".join(w for w in (str(over) if over or not small else "", small) if w) + '"')
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
    if unit == "in" and places is None:
        return inches(si)
    factor = float(FACTORS[dimension][unit.lower()])
    if unit == "degF":
        return f"{_decimals(si / factor + 32, places or 0)} °F"
    value = si / factor
    if places is None and unit == "m" and 0 < abs(value) < 0.01 and abs(value - round(value, 3)) > 1e-6:
        places = 4  # a wall of 1.5 mm is not one of 2
    if places is None and unit == "mm" and abs(value) < 10 and abs(value - round(value)) > 0.02:
        return f"{figures(value, 2)} mm"
    if places is None and 0 < abs(value) < SMALL.get(unit, 0.0):
        return f"{figures(value, 2 if SMALL[unit] == 1 else 3)} {SIGNS.get(unit, unit)}"  # 27 g of screws are not 0 kg
    if places is None and unit in PLACES:
        places = 0 if unit in ("kg", "lb", "L", "gal") and abs(value) >= 100 else PLACES[unit]
    if places is None:
        word = figures(value)
    else:
        word = _decimals(value, places)
        if "." in word and unit in ("kg", "lb", "L", "gal", "N/mm"):
            word = word.rstrip("0").rstrip(".")
    return f'{word}"' if unit == "in" else f"{word} {SIGNS.get(unit, unit)}"


# Decimals that the trade reads a unit with; other units are told to four figures.
PLACES = {
    "m": 3,
    "mm": 0,
    "cm": 1,
    "in": 2,
    "ft": 2,
    "kg": 1,
    "lb": 1,
    "L": 1,
    "gal": 1,
    "N/mm": 1,
    "lb/in": 0,
    "psi": 0,
    "degC": 0,
    "W": 0,
    "mi": 0,
    "km": 0,
}


# What is under so much is told to its figures, not to the decimals of the trade.
SMALL = {"kg": 1.0, "lb": 1.0, "L": 1.0, "gal": 1.0, "W": 10.0, "psi": 10.0, "mi": 10.0, "km": 10.0}


def figures(value: float, many: int = 4) -> str:
    """A number to so many figures, never in powers of ten and without noughts that say nothing."""
    if value == 0:
        return "0"
    word = _decimals(value, max(many - 1 - math.floor(math.log10(abs(value))), 0))
    return word.rstrip("0").rstrip(".") if "." in word else word


def inches(metres: float) -> str:
    """Inches to a sixteenth, under one inch to a thirty-second; what is thinner than a tenth in thousandths."""
    value = metres / INCH_M
    parts = 32 if abs(value) < 1 else 16
    near = abs(value * parts - round(value * parts)) <= 0.02 and (round(value * parts) != 0 or abs(value) < 0.0005)
    return f'{_decimals(value, 3)}"' if abs(value) < 0.1 and not near else f'{_fractions(value, parts)}"'


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
    return feet_inches(metres) if shown.length == "ft-in" else inches(metres)


def shop_measure(metres: float, shown: Shown) -> str:
    """A length to cut to: whole millimetres, or feet and inches (or inches) to a sixteenth."""
    if not shown.imperial:
        return f"{metres * 1000:.0f} mm".replace("-", "−")
    return feet_inches(metres) if shown.length == "ft-in" else inches(metres)


def _fractions(inches: float, parts: int) -> str:
    whole, rest = divmod(round(abs(inches) * parts), parts)
    sign = "−" if inches < 0 and (whole or rest) else ""
    if not rest:
        return f"{sign}{whole}"
    by = math.gcd(rest, parts)
    return f"{sign}{f'{whole} ' if whole else ''}{rest // by}/{parts // by}"


_METRIC_SIZE = re.compile(r"(\d+(?:\.\d+)?) (mm|m|L|kg)\b")


def name_in_units(name: str, shown: Shown) -> str:
    """The name of a generic thing with its size in the units of the build: "Fresh tank 20 L" as "Fresh tank 5 gal"."""
    wants = {"mm": shown.imperial, "m": shown.imperial, "L": shown.volume == "gal", "kg": shown.mass == "lb"}

    def other(match: re.Match[str]) -> str:
        unit = match.group(2)
        if not wants[unit]:
            return match.group(0)
        value = float(match.group(1))
        by, name = {"mm": (0.001 / INCH_M, "in"), "m": (1 / FOOT_M, "ft"), "L": (1 / 3.785411784, "gal"), "kg": (1 / POUND_KG, "lb")}[unit]
        made = value * by
        return f"{made:.0f} {name}" if made >= 4 else f"{plain_number(round(made * 2) / 2 or round(made, 1))} {name}"

    return _METRIC_SIZE.sub(other, name)


MILE_KM = 1.609344


def kept_text(value: float, kept: str, shown: Shown, places: int | None = None) -> str:
    """A figure that is kept in some unit (kPa, m/s, cm2), as the build reads it, with its unit.

    Args: kept: the unit it is kept in; one that is no measure (W, A, h) stands as it is. places: decimals where the build
        reads it in the very unit it is kept in; in another it gets three figures, or four where nothing is asked.
    """
    if kept not in KEPT:
        return f"{plain_number(value) if places is None else _decimals(value, places)} {kept}".rstrip()
    dimension, factor = KEPT[kept]
    unit = shown.unit(dimension)
    if unit == "AWG":
        return awg_name(value) if value > 0 else "0 kcmil"
    if places is not None and unit == MEASURES[dimension].metric and dimension not in ("length", "mass", "volume"):
        return f"{_decimals(value, places)} {SIGNS.get(plain_unit(kept), plain_unit(kept))}"
    if places is not None and dimension not in ("length", "temperature") and unit not in PLACES:
        per = float(FACTORS[dimension][unit.lower()])
        return f"{figures(value * factor / per, 3)} {SIGNS.get(unit, unit)}"
    return show(value * factor, dimension, unit)


_GAUGE = re.compile(r"(AWG|#)?\s*(\d{1,2})(/0)?\s*(?:AWG|GAUGE)?")
_MARKED = re.compile(r"\{(-?[0-9.]+(?: × -?[0-9.]+)*) ([^{}]+)\}")
_ALIKE = {"°C": "degC", "°": "deg"}


def in_units(text: str, shown: Shown) -> str:
    """A sentence with its marked figures, ``{12 mm}`` or ``{2.0 × 1.5 m}``, in the units of the build.

    A build that reads what is marked in the very family it is written in gets it as it is written.
    """
    if "{" not in text:
        return text
    return _MARKED.sub(lambda found: " × ".join(_marked(found[1].split(" × "), found[2], shown)), text)


def _marked(numbers: list[str], unit: str, shown: Shown) -> list[str]:
    kept = _ALIKE.get(unit, unit)
    dimension = KEPT[kept][0] if kept in KEPT else None
    if dimension is None or shown.unit(dimension) not in IMPERIAL:
        return [*(number.replace("-", "−") for number in numbers[:-1]), f"{numbers[-1].replace('-', '−')} {SIGNS.get(unit, unit)}"]
    if kept == "m":
        return [distance(float(number), shown) for number in numbers]
    return [kept_text(float(number), kept, shown.thin if kept == "mm" else shown, 1) for number in numbers]


def read_kept(text: str, kept: str, shown: Shown) -> float:
    """What was typed for a figure that is kept in a unit, in that unit. Raises: EntryError: says what would be right."""
    if kept in KEPT:
        dimension, factor = KEPT[kept]
        unit = shown.unit(dimension)
        gauge = _GAUGE.fullmatch(text.strip().upper()) if dimension == "copper" else None
        if gauge is not None and (gauge[1] or gauge[3] or unit == "AWG"):
            return awg_mm2(1 - int(gauge[2]) if gauge[3] else int(gauge[2]))
        return float(f"{parse(text, dimension, 'kcmil' if unit == 'AWG' else unit) / factor:.12g}")
    body = text.strip().replace("−", "-")
    for end in dict.fromkeys((kept, kept.replace("²", "2"))):
        if end and body.lower().endswith(end.lower()):
            body = body[: -len(end)].strip()
    negative = body.startswith("-")
    try:
        return float(_number(body.lstrip("+-").strip(), text)) * (-1 if negative else 1)
    except OverflowError:
        raise EntryError(BEYOND.format(text[:40] + "…" * (len(text) > 40))) from None
    except EntryError as fault:
        if "beyond any measure" in str(fault):
            raise
        if re.fullmatch(r"\d{1,3},\d{3}", body):
            raise
        right = f"a number, as in “12 {kept}”," if kept else "a number such as 12"
        raise EntryError(f"“{text}” is no number; {right} would be right.") from None
