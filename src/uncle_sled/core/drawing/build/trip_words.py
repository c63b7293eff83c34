"""The least that must be done for a first trip, in words."""

from __future__ import annotations

from collections.abc import Callable

from uncle_sled.core.drawing.build.standing_words import there_words
from uncle_sled.core.studies.build.least_trip import LeastTrip
from uncle_sled.core.words import Words, lower_first

MOST_LACKS = 8


def trip_words(trip: LeastTrip, name_of: Callable[[str], str], words: Words, on_vehicle: bool) -> str:
    """Args: name_of: of a task by its id."""
    told = f"To {'roll' if trip.least == 'roll' else 'sleep in it'} with the least of it."
    if trip.lacks:
        more = f" and {len(trip.lacks) - MOST_LACKS} more" if len(trip.lacks) > MOST_LACKS else ""
        told += f" It lacks: {', '.join(lower_first(name_of(id)) for id in trip.lacks[:MOST_LACKS])}{more}."
    if trip.stands is not None:
        told += f" Then, tanks empty, {there_words(trip.stands, words, on_vehicle)}"
    return told
