"""Looking for something by what it is called anywhere: the trade's words of three regions, and the nearest where nothing is."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from difflib import SequenceMatcher
from functools import lru_cache
from typing import TypeVar

import msgspec

from uncle_sled.core.tables import table

T = TypeVar("T")
NEAREST, NEAR = 5, 0.55  # of two words: the share of their letters that agree


class Saying(msgspec.Struct, frozen=True):
    """What people say, in one word or several, and what that is called here; alternatives with an upright bar between."""

    said: str
    means: str


@lru_cache(maxsize=1)
def sayings() -> dict[tuple[str, ...], tuple[tuple[str, ...], ...]]:
    """The shipped table: words said, and the words of each thing that is meant."""
    rows = table("catalogue/said.csv", Saying)
    return {tuple(row.said.split()): tuple(tuple(way.split()) for way in row.means.split("|")) for row in rows}


Wanted = tuple[tuple[tuple[str, ...], ...], ...]  # for each part of what was typed: the ways it may be said


@lru_cache(maxsize=64)
def wanted(text: str) -> Wanted:
    """What was typed, part by part: a phrase of the table as one part, each in its own words first and then in ours."""
    words = text.lower().split()
    known = sayings()
    parts: list[tuple[tuple[str, ...], ...]] = []
    at = 0
    while at < len(words):
        for many in range(min(3, len(words) - at), 0, -1):
            said = tuple(words[at : at + many])
            if said in known or many == 1:
                parts.append((said, *known.get(said, ())))
                at += many
                break
    return tuple(parts)


def fits(text: str, typed: str) -> bool:
    """Whether every part of what was typed stands in a text, as it was said or as it is called here."""
    told = text.lower()
    return all(any(all(word in told for word in way) for way in ways) for ways in wanted(typed))


def begins(text: str, typed: str) -> bool:
    """Whether every word begins one of the text's: “60” means 60 L before 160 L."""
    told = text.lower().split()
    return all(any(all(any(one.startswith(word) for one in told) for word in way) for way in ways) for ways in wanted(typed))


def in_own_words(text: str, typed: str) -> bool:
    """Whether the words that were typed stand there themselves."""
    told = text.lower()
    return all(word in told for word in typed.lower().split())


def ranked(found: Iterable[T], typed: str, said: Callable[[T], str]) -> list[T]:
    """What fits, best first: its words begun by what was typed, in the words that were typed, then by other words for it."""
    fitting = [one for one in found if fits(said(one), typed)]
    return sorted(fitting, key=lambda one: (not begins(said(one), typed), not in_own_words(said(one), typed)))


def nearest(pool: Sequence[T], typed: str, said: Callable[[T], str], many: int = NEAREST) -> list[T]:
    """What is written most like what was typed, where nothing fits: by its likest word; nothing where none is near."""
    low = typed.lower().strip()
    if len(low) < 2:
        return []
    scored = []
    for at, one in enumerate(pool):
        words = [word.strip(".,:…()") for word in said(one).lower().split()]
        best = max((_alike(part, word) for part in low.split() for word in words if word), default=0.0)
        if best >= NEAR:
            scored.append((-best, at))
    return [pool[at] for _, at in sorted(scored)[:many]]


@lru_cache(maxsize=8192)
def _alike(a: str, b: str) -> float:
    if a[0] != b[0] and abs(len(a) - len(b)) > 1:
        return 0.0
    return SequenceMatcher(None, a, b).ratio()
