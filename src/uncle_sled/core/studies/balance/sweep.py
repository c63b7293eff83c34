"""The ball at every level of every tank: which combination is the worst?

T = sum m (1 - x / a) is summed for every combination at once; only what the tanks hold differs. With few tanks
the levels are fine, with many only empty and full are taken: the ball is linear in each of them but for tanks
whose centre wanders. Source: statics, enumerated.
"""

from __future__ import annotations

import itertools
from functools import cached_property
from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.from_stow import contents_of
from uncle_sled.core.parts.support import independent_axle_loads_kg
from uncle_sled.core.reading.band import band_kg
from uncle_sled.core.reading.limits import least_front_kg
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied

MOST = 4096


class Spot(msgspec.Struct, frozen=True):
    """One combination: the level of each tank, the load on the ball (a bed: on the rear axle), of how much, and how far
    out of its span [kg]."""

    levels: tuple[tuple[str, float], ...]
    load_kg: float
    total_kg: float
    out_kg: float  # under (low) or over (high) the band; negative inside


class Sweep(msgspec.Struct, frozen=True, dict=True):
    """All combinations of one case's cargo: arrays of shape (k,), and the levels of each, shape (k, tanks)."""

    case_id: str
    tanks: tuple[str, ...]
    left_out: int  # tanks that are kept at their level of the case: too many to try all
    of: Literal["ball", "rear axle"]
    load_kg: Floats
    total_kg: Floats
    low_kg: Floats
    high_kg: Floats
    grid: Floats

    def spot(self, at: int, out_kg: float = 0.0) -> Spot:
        """One place of the sweep: the levels of its tanks and how far the ball is out of the band."""
        levels = tuple((id, float(level)) for id, level in zip(self.tanks, self.grid[at], strict=True))
        return Spot(levels, float(self.load_kg[at]), float(self.total_kg[at]), out_kg)

    @cached_property
    def worst_low(self) -> Spot:
        """The combination that is furthest under its span."""
        return self._worst(self.low_kg - self.load_kg)

    @cached_property
    def worst_high(self) -> Spot:
        """The combination that is furthest over it."""
        return self._worst(self.load_kg - self.high_kg)

    def _worst(self, out_kg: Floats) -> Spot:
        at = int(np.argmax(out_kg))
        return self.spot(at, float(out_kg[at]))


def steps_for(tanks: int) -> int:
    """Levels tried for each of so many tanks, so that a few hundred combinations are looked at."""
    return {0: 1, 1: 21, 2: 15, 3: 7, 4: 5, 5: 3, 6: 3}.get(tanks, 2)


def span_kg(s: Studied, total_kg: Floats) -> tuple[Floats, Floats]:
    """Least and most load that totals may have [kg]: on the ball its band; on a bed's rear axle what both axles allow."""
    if s.build.rig.carrier == "ball":
        return band_kg(s.band, total_kg)
    bed = s.build.rig.bed
    low = total_kg - bed.front_rating.si if bed.front_rating else np.full(total_kg.shape, -np.inf)
    high = total_kg - least_front_kg(bed, total_kg)
    return low, np.minimum(high, bed.rear_rating.si) if bed.rear_rating else high


@keep(most=4)
def sweep(s: Studied, row: int) -> Sweep | None:
    """Every level of every tank in a towing case. None without a reading or a case.

    Tanks beyond twelve stay at their level of the case, the smallest first.
    """
    if s.support is None or not 0 <= row < len(s.table.cases):
        return None
    case = s.table.cases[row]
    if not case.mode.towing:
        return None
    aboard = {id for at, id in enumerate(s.table.ids) if s.table.mass_kg[row, at] != 0 or "/contents" in id}
    made = []
    for thing in s.build.stow.things:
        if thing.tank is None or thing.id in case.mode.absent or thing.id not in aboard:
            continue
        contents = contents_of(thing, stand_of(thing, case.mode))
        if contents is not None:
            made.append((thing.id, contents))
    made.sort(key=lambda pair: -pair[1].full_kg)
    most = 12
    tried, left_out = made[:most], max(len(made) - most, 0)
    moving = {f"{id}/contents" for id, _ in tried}
    rest = np.array([id not in moving for id in s.table.ids], dtype=bool)
    mass, x = s.table.mass_kg[row, rest], s.table.x_m[row, rest]
    base, moment = float(mass.sum()), float((mass * x).sum())
    level = np.linspace(0.0, 1.0, steps_for(len(tried)))
    combinations = list(itertools.islice(itertools.product(level, repeat=len(tried)), MOST))
    grid = np.array(combinations, dtype=float).reshape(len(combinations), len(tried))
    total, moments = np.full(len(grid), base), np.full(len(grid), moment)
    for at, (_, contents) in enumerate(tried):
        stations = np.broadcast_to(np.asarray(contents.centres_m(level)[0]), level.shape)
        held = contents.full_kg * grid[:, at]
        total = total + held
        moments = moments + held * np.interp(grid[:, at], level, stations)
    if s.support.carrier == "vehicle bed":
        load = moments / s.support.axles_m[1]
    elif s.support.independent:
        load = total - independent_axle_loads_kg(moments, s.support).sum(axis=1)
    else:
        load = total - moments / s.support.mean_axle_m
    low, high = span_kg(s, total)
    return Sweep(
        case.id,
        tuple(id for id, _ in tried),
        left_out=left_out,
        of="ball" if s.support.carrier == "ball" else "rear axle",
        load_kg=load,
        total_kg=total,
        low_kg=low,
        high_kg=high,
        grid=grid,
    )
