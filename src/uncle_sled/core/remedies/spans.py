"""What every load case leaves for moves: how much moment may be added along and across until it is out of its limits."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from uncle_sled.core.findings.balance.ball import LEAN_SHARE
from uncle_sled.core.reading.band import band_kg
from uncle_sled.core.reading.limits import axle_ratings_kg
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.least_moves import Allowed
from uncle_sled.core.remedies.linear_moves import rows_judged, state
from uncle_sled.core.studies.balance.sweep import span_kg

INSET = 0.05
SURE_SIGMAS, MOST_INSET = 0.9, 0.4  # inside an edge by so many sigmas: a chance of four in five and a little more


def spans_of(s: Studied, ball_only: bool = False, sure: bool = False) -> tuple[Floats, Floats]:
    """Least and most of the moment that may be added aft in each judged case [kg m] so that all is within its limits.

    ``ball_only``: whatever each axle of a trailer is rated for. ``sure``: so far inside the band that the chance to be
    in it is good, where the band is wide enough for that.
    """
    now, rows = state(s), rows_judged(s)
    total = now.total[0]
    if s.support is None:
        return np.full(len(rows), -np.inf), np.full(len(rows), np.inf)
    if s.build.rig.carrier == "vehicle bed":
        base, rear = s.support.axles_m[1], now.axles[0, :, 1]
        low, high = span_kg(s, total)
        return (low - rear) * base, (high - rear) * base
    low, high = band_kg(s.band, total)
    group = s.build.rig.axle_group
    if group and group.si > 0:
        low = np.maximum(low, total - group.si)
    wide = np.maximum(high - low, 0.0)
    inset = INSET * wide
    if sure:
        inset = np.clip(SURE_SIGMAS * s.readings.tongue_sigma_kg[rows], inset, MOST_INSET * wide)
    # slopes are constant for one or an equalised axle, and near enough for independent ones
    one_more = state(s, np.ones((1, len(rows))))
    slope = (one_more.tongue - now.tongue)[0]
    slope = np.where(np.abs(slope) > 1e-9, slope, -1e-9)
    ends = np.stack([(low + inset - now.tongue[0]) / slope, (high - inset - now.tongue[0]) / slope])
    least, most = ends.min(axis=0), ends.max(axis=0)
    for k, rating in enumerate(() if ball_only else axle_ratings_kg(s.build.rig)):
        if rating is not None:
            load = now.axles[0, :, k]
            rate = one_more.axles[0, :, k] - load
            end = (rating - load) / np.where(np.abs(rate) > 1e-9, rate, 1e-9)
            least, most = (np.where(rate < 0, np.maximum(least, end), least), np.where(rate > 0, np.minimum(most, end), most))
    return least, most


def allowed_of(s: Studied, as_it_leans: bool = False, ball_only: bool = False, sure: bool = False) -> Allowed:
    """What every judged case leaves for moves; ``as_it_leans``: it may lean as much as it does now, where that is more."""
    now, rows, t = state(s), rows_judged(s), s.table
    low, high = spans_of(s, ball_only, sure)
    roll = (t.mass_kg[rows] * t.y_m[rows]).sum(axis=1)
    wheels = now.axles[0].sum(axis=1)
    more = state(s, np.ones((1, len(rows)))).axles[0].sum(axis=1) - wheels
    share = np.maximum(LEAN_SHARE, now.lean[0]) if as_it_leans else np.full(len(rows), LEAN_SHARE)
    track = s.support.track_m if s.support is not None else None
    arm = share * track / 2 if track else np.full(len(rows), np.inf)
    return Allowed(low, high, roll, arm, wheels, more)


def asks_of(s: Studied) -> Iterator[tuple[str, Allowed]]:
    """What is asked of moves, the most first, in words: sure of the band; in it; level no worse than now; an axle may stay over."""
    yield "sure of the band", allowed_of(s, sure=True)
    yield "within the band", allowed_of(s)
    if (state(s).lean > LEAN_SHARE).any():
        yield "as level as now", allowed_of(s, as_it_leans=True)
    yield "as it is, an axle over", allowed_of(s, as_it_leans=True, ball_only=True)
