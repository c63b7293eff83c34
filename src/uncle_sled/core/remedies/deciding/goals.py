"""A wish typed in words as a goal that can be reckoned: more nights, kilograms less, a thing more, a day by which it is done."""

from __future__ import annotations

import re
from datetime import date
from typing import Literal

import msgspec

from uncle_sled.core.errors import EntryError
from uncle_sled.core.remedies.deciding.points import MOST_NIGHTS

LB_KG = 0.45359237
MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
WORDS = {
    "a": 1.0,
    "an": 1.0,
    "one": 1.0,
    "two": 2.0,
    "three": 3.0,
    "four": 4.0,
    "five": 5.0,
    "six": 6.0,
    "seven": 7.0,
    "eight": 8.0,
    "nine": 9.0,
    "ten": 10.0,
}
TWINS = (
    ("battery", "one more battery"),
    ("panel", "one more panel"),
    ("tank", "more water"),
    ("jug", "more water"),
    ("station", "one more station"),
)
SAYS = (
    "“10 nights”, “200 kg less”, “400 lb less”, “a second battery”, “500 less money”, “100 W warmer” or “rolls by May” would be understood"
)


class Goal(msgspec.Struct, frozen=True):
    """measure: by which it is judged, and what it must reach: ``least`` at least, ``most`` at the most, ``less`` under what is now.

    change: the id of a change that must be among those taken, "" none.
    """

    says: str
    measure: str
    kind: Literal["least", "most", "less", "with"]
    value: float
    change: str = ""
    by: date | None = None


def goal_of(text: str, begin: date) -> Goal:
    """What was typed. Args: begin: the first day of work, after which a month without a year is looked for. Raises: EntryError."""
    said = " ".join(text.lower().split())
    if not said:
        raise EntryError(f"Type what you want: {SAYS}.")
    number = re.search(r"\d[\d.,]*", said)
    value = (
        _number(number.group(), text)
        if number is not None
        else next((v for word, v in WORDS.items() if re.search(rf"\b{word}\b", said)), None)
    )
    if re.search(r"\bnights?\b", said) and value is not None:
        if not 0 < value <= MOST_NIGHTS:
            raise EntryError(f"{value:g} nights: a stay of 1 to {MOST_NIGHTS} nights is reckoned.")
        more = re.search(r"\bmore\b", said) is not None
        return Goal(
            f"{value:g} nights{' more' if more else ''} off the grid", "nights", "less" if more else "least", -value if more else value
        )
    weight = re.search(r"\b(kg|kilos?|kilograms?|lbs?|pounds?)\b", said)
    if weight is not None and value is not None:
        kg = value * (LB_KG if weight.group().startswith(("lb", "pound")) else 1.0)
        under = re.search(r"\b(under|at most|no more than)\b", said) is not None
        return Goal(f"{value:g} {weight.group()} {'at most' if under else 'less'}", "kg", "most" if under else "less", kg)
    if re.search(r"\b(w|watts?)\b", said) and value is not None:
        return Goal(f"{value:g} W less heat lost", "loss", "less", value)
    if re.search(r"\b(money|cheaper|cost)\b", said) and value is not None:
        return Goal(f"{value:g} less money", "money", "less", value)
    if re.search(r"\bsheets?\b", said) and value is not None:
        return Goal(f"{value:g} sheets less", "sheets", "less", value)
    day = _day(said, begin)
    if day is not None:
        rolls = re.search(r"\broll", said) is not None
        return Goal(
            f"{'it rolls' if rolls else 'done'} by {day.isoformat()}", "rolls" if rolls else "weeks", "most", (day - begin).days / 7, by=day
        )
    for word, change in TWINS:
        if word in said:
            return Goal(f"one more {word}", "", "with", 0.0, change)
    raise EntryError(f"“{text.strip()}” is not understood; {SAYS}.")


def _number(text: str, whole: str) -> float:
    try:
        return float(
            text.replace(",", ".") if text.count(",") == 1 and "." not in text and len(text.split(",")[1]) != 3 else text.replace(",", "")
        )
    except ValueError:
        raise EntryError(f"“{whole.strip()}” holds no number that can be read; {SAYS}.") from None


def _day(said: str, begin: date) -> date | None:
    """A day by year-month-day, or the first of a month after work begins."""
    plain = re.search(r"(\d{4})-(\d{1,2})-(\d{1,2})", said)
    if plain is not None:
        try:
            return date(*(int(part) for part in plain.groups()))  # type: ignore[arg-type]
        except ValueError:
            raise EntryError(f"{plain.group()} is no day; year-month-day would be right.") from None
    for k, month in enumerate(MONTHS, 1):
        found = re.search(rf"\bby (?:the )?(?:\d+(?:st|nd|rd|th)? (?:of )?)?{month}[a-z]*\b(?: (\d{{4}}))?", said)
        if found is not None:
            year = int(found.group(1)) if found.group(1) else begin.year + (k <= begin.month)
            return date(year, k, 1)
    return None
