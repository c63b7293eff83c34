"""Where two sequences of the same things differ: of thousands that stayed, only those that did not are looked at."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import compress, count
from operator import is_not


def places_changed(before: Sequence[object], now: Sequence[object]) -> list[int]:
    """Places at which two sequences of one length hold another object."""
    return list(compress(count(), map(is_not, before, now)))
