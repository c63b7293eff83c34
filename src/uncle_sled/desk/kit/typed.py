"""What is typed into the tables: days and plain numbers, each with what would be right."""

from __future__ import annotations

from datetime import date

from uncle_sled.core.errors import EntryError


def day(text: str) -> str:
    """A typed day as year-month-day; nothing for nothing. Raises: EntryError."""
    body = text.strip()
    if not body:
        return ""
    try:
        return date.fromisoformat(body).isoformat()
    except ValueError:
        raise EntryError(f"“{text}” is no day; year-month-day such as 2027-03-31 would be right.") from None


def number(text: str, what: str, most: float = 1e6, least: float = 0.0) -> float | None:
    """A typed figure, None for nothing. Raises: EntryError."""
    body = text.replace(",", ".").strip().rstrip("hH%°C ").strip()
    if not body:
        return None
    try:
        value = float(body)
    except ValueError:
        raise EntryError(f"“{text}” is no {what}; a number from {least:g} to {most:g} would be right.") from None
    if not least <= value <= most:
        raise EntryError(f"“{text}” cannot be {what}; {least:g} to {most:g} would be right.")
    return value
