"""How far is it from each class of registration: its weight and its size on the road against the builder's own rows.

Gross is the plate's where one is typed, since that is what is registered; else the heaviest towing case. Nothing is asserted
of any country: every figure is the builder's.
"""

from __future__ import annotations

from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.document.rig import Threshold
from uncle_sled.core.engine import keep
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.road_size import WAYS, worst_size
from uncle_sled.core.words import Words

What = Literal["gross", "length", "width", "height"]


class Against(msgspec.Struct, frozen=True):
    """One measure against a class. value: kg or m, None where it is not known; left: how much is left, below nothing: over."""

    what: What
    value: float | None
    most: float

    @property
    def left(self) -> float | None:
        """What is left up to the threshold [kg or m]."""
        return None if self.value is None else self.most - self.value


class Standing(msgspec.Struct, frozen=True):
    """Where the rig stands by one class."""

    threshold: Threshold
    rows: tuple[Against, ...]

    @property
    def over(self) -> tuple[Against, ...]:
        """What is over it."""
        return tuple(row for row in self.rows if row.left is not None and row.left < -1e-9)

    @property
    def unknown(self) -> tuple[Against, ...]:
        """What could not be held against it."""
        return tuple(row for row in self.rows if row.value is None)

    @property
    def under(self) -> bool:
        """Whether all of it is known and under; a class without a figure is none."""
        return bool(self.rows) and not self.over and not self.unknown


def heaviest_kg(s: Studied) -> float | None:
    """The heaviest towing case [kg]; None where nothing is read."""
    towing = [k for k, case in enumerate(s.table.cases) if case.mode.towing]
    if not towing or s.support is None or not len(s.readings.total_kg):
        return None
    return float(np.max(s.readings.total_kg[towing]))


def gross_kg(s: Studied) -> float | None:
    """What is registered [kg]: the plate's weight, else the heaviest towing case; None where neither is known."""
    if s.build.rig.carrier == "ball" and s.build.rig.gross_total is not None:
        return s.build.rig.gross_total.si
    if s.build.rig.carrier != "ball" and s.build.rig.bed.gross_rating is not None:
        return s.build.rig.bed.gross_rating.si
    return heaviest_kg(s)


@keep(most=4)
def standings(s: Studied) -> tuple[Standing, ...]:
    """Every class, in the order of the rows."""
    sizes = {way: worst_size(s, way) for way in WAYS}
    made = []
    for threshold in s.build.rig.thresholds:
        rows: list[Against] = []
        if threshold.gross is not None:
            rows.append(Against("gross", gross_kg(s), threshold.gross.si))
        for way in ("length", "width", "height"):
            most, size = getattr(threshold, way), sizes[way]  # type: ignore[index]
            if most is not None:
                rows.append(Against(way, size.value_m if size is not None else None, most.si))
        made.append(Standing(threshold, tuple(rows)))
    return tuple(made)


def _left(row: Against, words: Words) -> str:
    left = row.left or 0.0
    much = words.kg(abs(left)) if row.what == "gross" else words.cut(abs(left))
    return f"{row.what} {much} {'over' if left < 0 else 'under'}"


def standing_words(standing: Standing, words: Words) -> str:
    """How far it is from one class: what is over first, then what is not known, then what is left."""
    name = standing.threshold.name or "A class without a name"
    if not standing.rows:
        return f"{name}: no figure is typed yet."
    told = [_left(row, words) for row in standing.over]
    told += [f"{row.what} not checked" for row in standing.unknown]
    told += [_left(row, words) for row in standing.rows if row not in standing.over and row not in standing.unknown]
    fee = f"; costs {standing.threshold.fee:g} a year" if standing.threshold.fee is not None else ""
    return f"{name}: {', '.join(told)}{fee}."
