"""What fits and what does not, in words of the build's own units; the studies' own reasons are in metres."""

from __future__ import annotations

from uncle_sled.core.studies.stow.at_hand import ARM_M, InReach, Passing
from uncle_sled.core.studies.stow.ways_out import WayOut
from uncle_sled.core.words import Words


def size_words(size_m: tuple[float, float], words: Words) -> str:
    """Two sides of a thing in the build's units."""
    return f"{words.m(size_m[0])} × {words.m(size_m[1])}"


def kit_words(reached: InReach, words: Words) -> str:
    """Where a thing of the arrival kit is, seen from outside."""
    if reached.far_m is None:
        return reached.why
    return f"{words.m(reached.far_m)} in from {reached.opening}; an arm reaches {words.m(ARM_M)}"


def passing_words(passing: Passing, words: Words) -> str:
    """What a thing wants of a door, and what the best one has."""
    clear = size_words(passing.clear_m, words)
    return f"wants {size_words(passing.need_m, words)}; {passing.opening_name} is {clear} clear"


def way_words(way: WayOut, words: Words) -> str:
    """Why an opening is no way out."""
    if not way.small:
        return way.why
    area = f" with {words.m2(way.least_m2, 2)} clear" if way.least_m2 is not None else ""
    return f"is {size_words(way.clear_m, words)}, and {size_words(way.least_m, words)}{area} is the least"
