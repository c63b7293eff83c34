"""How far is the reading to be trusted: which few masses own its doubt, and what would weighing each of them leave?

The reading is the ball of a trailer, or the rear axle of a vehicle with a bed. First order: a weighing leaves 1 % of
the mass as doubt, its balance point 15 mm of place. Source: propagation of errors (any statistics text).
"""

from __future__ import annotations

import math

import msgspec
import numpy as np

from uncle_sled.core.document.rig import BedVehicle
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.from_wiring import WIRING
from uncle_sled.core.parts.part import AXLE_M, PLACED_M, SURENESS
from uncle_sled.core.parts.support import springs_kg2, wheels_per_kg_m
from uncle_sled.core.reading.balance import chance_between, joint_doubt
from uncle_sled.core.reading.limits import LEAST_FRONT_OF_EMPTY, LEAST_FRONT_SHARE
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied


class Owner(msgspec.Struct, frozen=True):
    """One mass: its share of the reading's variance, and the doubt left once it is weighed, and balanced too [kg]."""

    id: str
    name: str
    share: float
    left_weighed_kg: float
    left_kg: float


class Lever(msgspec.Struct, frozen=True):
    """What a kilogram of each mass does to the reading, and a metre of its station for each kilogram; doubt of the axle."""

    of_mass: Floats
    of_place: float
    axle_kg2: float


def lever(s: Studied, row: int) -> Lever | None:
    """The lever of the ball (1 - x/a, 1/a) or of a bed's rear axle (x/L, 1/L); None without a reading."""
    if s.support is None or not 0 <= row < len(s.table.cases):
        return None
    if s.support.carrier == "vehicle bed":
        base = s.support.axles_m[1]
        return Lever(s.table.x_m[row] / base, 1 / base, 0.0)
    axle = float(s.readings.effective_axle_m[row])
    if not math.isfinite(axle) or axle <= 0:
        return None
    group = float(s.readings.total_kg[row] - s.readings.tongue_kg[row])
    placed = (group / axle * AXLE_M) ** 2
    if not s.support.independent:
        return Lever(1 - s.table.x_m[row] / axle, 1 / axle, placed)
    moment = np.array((s.table.mass_kg[row] * s.table.x_m[row]).sum())
    per_m = float(wheels_per_kg_m(moment, s.support))
    return Lever(1 - s.table.x_m[row] * per_m, per_m, placed + float(springs_kg2(moment, s.support)))


def load_kg(s: Studied) -> Floats:
    """The reading of every case [kg]: on the ball, or on a bed's rear axle."""
    bed = s.support is not None and s.support.carrier == "vehicle bed"
    return s.readings.axle_kg[:, 1] if bed else s.readings.tongue_kg


@keep(most=4)
def _bed_doubt_kg2(s: Studied) -> tuple[Floats, Floats, Floats]:
    """Variances of a bed's rear axle and of the whole, and their covariance [kg2], of every case."""
    assert s.support is not None
    base, none = s.support.axles_m[1], np.zeros(len(s.table.cases))
    return joint_doubt(s.table, s.table.x_m / base, none + 1 / base, none)


def load_sigma_kg(s: Studied) -> Floats:
    """Its doubt, one sigma [kg], shape (c,); NaN where there is no reading."""
    if s.support is None or s.support.carrier == "ball":
        return s.readings.tongue_sigma_kg
    return np.asarray(np.sqrt(_bed_doubt_kg2(s)[0]))


@keep(most=4)
def chances(s: Studied) -> Floats:
    """Chance of every case to be within its limits: the ball in its band, or both axles of a bed's vehicle."""
    if s.support is None or s.support.carrier == "ball":
        return s.readings.chance
    bed, total = s.build.rig.bed, s.readings.total_kg
    most = bed.rear_rating.si if bed.rear_rating else np.inf
    return chance_between(load_kg(s), total, _bed_doubt_kg2(s), most, lambda rear: _ends(bed, rear)[0], lambda rear: _ends(bed, rear)[1])


def _ends(bed: BedVehicle, rear_kg: Floats) -> tuple[Floats, Floats]:
    """Least and most total [kg] that go with a rear axle's load: the front keeps its least and its rating."""
    least = rear_kg / (1 - LEAST_FRONT_SHARE)
    if bed.front_empty:
        least = np.maximum(least, rear_kg + LEAST_FRONT_OF_EMPTY * bed.front_empty.si)
    most = rear_kg + bed.front_rating.si if bed.front_rating else np.full_like(rear_kg, np.inf)
    return least, np.minimum(most, bed.gross_rating.si) if bed.gross_rating else most


def doubt_shares(s: Studied, row: int) -> Floats:
    """Share of the reading's variance that each mass owns in one case, shape (n,), summing to at most 1."""
    arm = lever(s, row)
    if arm is None:
        return np.zeros(len(s.table.ids))
    table = s.table
    own = (arm.of_mass * table.sigma_kg[row]) ** 2 + (table.mass_kg[row] * arm.of_place * table.sigma_x_m) ** 2
    for at, part in table.together():
        biased = arm.of_mass[at] * part * table.mass_kg[row, at]
        own[at] += biased.sum() * biased
    return np.asarray(own / max(own.sum(), 1e-12))


def weigh_first(s: Studied, row: int, most: int) -> list[tuple[str, str, float]]:
    """Ids, names and shares of the masses that own the reading's doubt in one case, largest first."""
    shares = doubt_shares(s, row)
    order = [int(at) for at in np.argsort(-shares)[:most] if shares[at] > 0.01]
    ids = s.table.ids  # contents are weighed with their tank, a wire by itself
    own = [ids[at] if ids[at].startswith(f"{WIRING}/") else ids[at].split("/")[0] for at in order]
    return [(id, s.table.names[at], float(shares[at])) for id, at in zip(own, order, strict=True)]


def owners(s: Studied, row: int, most: int) -> tuple[Owner, ...]:
    """The masses that own the doubt of one case, each with what weighing it would leave."""
    if lever(s, row) is None or not math.isfinite(sigma := float(load_sigma_kg(s)[row])):
        return ()
    made = []
    for id, name, share in weigh_first(s, row, most):
        column = [s.table.ids.index(id)]
        weighed, balanced = (_doubt_kg(s, row, column, found) for found in (False, True))
        made.append(Owner(id, name, share, min(weighed, sigma), min(balanced, sigma)))
    return tuple(made)


def _doubt_kg(s: Studied, row: int, weighed: list[int], balanced: bool) -> float:
    """Doubt of the reading once some columns are weighed, and their balance points found too [kg].

    A weighed mass has no part in its group's shared bias any more.
    """
    arm, table = lever(s, row), s.table
    if arm is None:
        return math.nan
    sigma, place = table.sigma_kg[row].copy(), table.sigma_x_m.copy()
    biased = table.mass_kg[row].copy()
    sigma[weighed] = np.minimum(sigma[weighed], SURENESS["weighed"] * np.abs(table.mass_kg[row, weighed]))
    biased[weighed] = 0.0
    if balanced:
        place[weighed] = np.minimum(place[weighed], PLACED_M)
    variance = float(((arm.of_mass * sigma) ** 2).sum() + ((table.mass_kg[row] * arm.of_place * place) ** 2).sum())
    variance += sum(float((arm.of_mass[at] * part * biased[at]).sum()) ** 2 for at, part in table.together())
    return math.sqrt(variance + arm.axle_kg2)


def doubt_of_all_weighed_kg(s: Studied, row: int, first: tuple[Owner, ...]) -> float:
    """The doubt that is left once all of those are weighed, and their balance points found [kg]."""
    columns = [s.table.ids.index(owner.id) for owner in first]
    return min(_doubt_kg(s, row, columns, balanced=True), float(load_sigma_kg(s)[row]))
