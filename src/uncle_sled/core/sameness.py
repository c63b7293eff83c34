"""Where two sequences of the same things differ: of thousands that stayed, only those that did not are looked at."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import compress, count
from operator import is_not


def places_changed(before: Sequence[object], now: Sequence[object]) -> list[int]:
    """Places at which two sequences of one length hold another object."""
    return list(compress(count(), map(is_not, before, now)))


def places_anew(before: Sequence[object], now: Sequence[object]) -> list[int]:
    """Places in ``now`` of objects that were not there before; where nothing came or went only what changed is looked at."""
    if len(before) != len(now):
        same = set(map(id, before))
        return [at for at, item in enumerate(now) if id(item) not in same]
    places = places_changed(before, now)
    same = {id(before[at]) for at in places}
    return [at for at in places if id(now[at]) not in same]
