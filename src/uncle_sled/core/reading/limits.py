"""Which plate, axle, tyre, coupler, vehicle or jack is nearest to its limit, and in which case?

Ratings are the user's own from plates and papers; tyre loads by the standard load index,
never rounded up.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
import numpy as np

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.document.rig import BedVehicle, Rig
from uncle_sled.core.reading.balance import Balance
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.load_cases import Bools, Floats, MassTable
from uncle_sled.core.reading.parked import Parked

# Load index to kg. Source: the tyre trade's standard load index table.
TYRE_KG = {
    62: 265,
    66: 300,
    70: 335,
    74: 375,
    78: 425,
    82: 475,
    84: 500,
    86: 530,
    88: 560,
    90: 600,
    91: 615,
    92: 630,
    94: 670,
    95: 690,
    96: 710,
    98: 750,
    99: 775,
    100: 800,
    102: 850,
    103: 875,
    104: 900,
    106: 950,
    108: 1000,
    110: 1060,
    112: 1120,
    114: 1180,
    115: 1215,
    116: 1250,
    118: 1320,
    120: 1400,
    121: 1450,
}
TYRE_RESERVE = 0.85
JACK_FACTOR = 1.5
LEAST_FRONT_SHARE, LEAST_FRONT_OF_EMPTY = 0.30, 0.90


class Limit(msgspec.Struct, frozen=True):
    """A value against its limit in its worst case; utilisation over 1 is over the limit."""

    id: str
    name: str
    case_id: str
    vehicle_id: str | None
    value: float
    limit: float
    unit: str
    severity: str | None


def tyre_capacity_kg(load_index: int | None) -> float | None:
    """Load of a tyre by its index [kg]; the next lower listed one where the table has a gap."""
    if load_index is None:
        return None
    lower = [index for index in TYRE_KG if index <= load_index]
    return float(TYRE_KG[max(lower)]) if lower else None


def rear_axle_of(car: Vehicle, tongue_kg: Floats) -> Floats | None:
    """Load of a car's rear axle with so much on its ball [kg], or None where its papers are not filled in."""
    if not (car.rear_empty and car.wheelbase and car.ball_overhang and car.wheelbase.si > 0):
        return None
    return car.rear_empty.si + tongue_kg * (car.wheelbase.si + car.ball_overhang.si) / car.wheelbase.si


def front_axle_of(car: Vehicle, tongue_kg: Floats) -> Floats | None:
    """Load of a car's front axle with so much on its ball [kg]: the ball behind the rear axle lifts it."""
    if not (car.front_empty and car.wheelbase and car.ball_overhang and car.wheelbase.si > 0):
        return None
    return car.front_empty.si - tongue_kg * car.ball_overhang.si / car.wheelbase.si


def least_front_kg(bed: BedVehicle, total_kg: Floats) -> Floats:
    """What a bed vehicle's front axle should carry at least [kg], for totals: a share of the whole, and of itself empty."""
    least = LEAST_FRONT_SHARE * total_kg
    return np.maximum(least, LEAST_FRONT_OF_EMPTY * bed.front_empty.si) if bed.front_empty else least


def axle_ratings_kg(rig: Rig) -> tuple[float | None, ...]:
    """The axles' ratings front to rear [kg]; None where one is not known or nothing."""
    if rig.carrier == "vehicle bed":
        masses = [rig.bed.front_rating, rig.bed.rear_rating]
    else:
        masses = [axle.rating for axle in sorted(rig.axles, key=lambda a: a.station.si)]
    return tuple(mass.si if mass and mass.si > 0 else None for mass in masses)


def limits(
    build: Build, facts: Facts, table: MassTable, readings: Balance, at_rest: Parked | None
) -> tuple[Limit, ...]:
    """Every limit that is known, worst case first within each; nearest to its limit first."""
    towing = np.array([case.mode.towing for case in table.cases], dtype=bool)
    if build.rig.carrier == "vehicle bed":
        found = [*_worst(list(_bed(build, table, readings)), table), *_front_share(table, readings)]
    else:
        found = [*_worst(list(_trailer(build, facts, readings, at_rest, towing)), table)]
    return tuple(sorted(found, key=lambda lim: -use(lim)))


def _si(mass: Mass | None) -> float | None:
    return mass.si if mass else None


def use(limit: Limit) -> float:
    """Value as a share of its limit; a floor (front axle) counts the other way round."""
    if limit.id.startswith("least-"):
        return limit.limit / max(limit.value, 1e-9)
    return limit.value / max(limit.limit, 1e-9)


class _Asked(msgspec.Struct):
    """One limit to be held against its values in every case."""

    id: str
    name: str
    values: Floats
    limit: float | None
    where: Bools  # cases that count
    vehicle: str | None = None
    mind_at: float = 1.0
    floor: bool = False
    over: str = "stop"


def _worst(asked: list[_Asked], table: MassTable) -> Iterator[Limit]:
    """Each limit that is known in its worst case; all at once, since an array of few cases costs as much as of many."""
    known = [one for one in asked if one.limit is not None and one.limit > 0]
    if not known:
        return
    sign = np.array([-1.0 if one.floor else 1.0 for one in known])[:, None]
    shown = np.where([one.where for one in known], sign * np.array([one.values for one in known]), -np.inf)
    rows = np.argmax(shown, axis=1)
    values = shown[np.arange(len(known)), rows] * sign[:, 0]
    finite = np.asarray(np.isfinite(shown).any(axis=1))
    for one, row, value, some in zip(known, rows.tolist(), values.tolist(), finite.tolist(), strict=True):
        if not some or one.limit is None:
            continue
        beyond = value < one.limit if one.floor else value > one.limit
        severity = one.over if beyond else "mind" if not one.floor and value > one.mind_at * one.limit else None
        yield Limit(one.id, one.name, table.cases[row].id, one.vehicle, value, float(one.limit), "kg", severity)


def _trailer(build: Build, facts: Facts, b: Balance, at_rest: Parked | None, towing: Bools) -> Iterator[_Asked]:
    rig = build.rig
    group = b.total_kg - b.tongue_kg
    known = towing & ~np.isnan(b.tongue_kg)
    yield _Asked("gross", "Whole trailer", b.total_kg, _si(rig.gross_total), towing)
    yield _Asked("axle-group", "Axle group", group, _si(rig.axle_group), known)
    for at, axle in enumerate(sorted(rig.axles, key=lambda a: a.station.si)):
        if axle.rating and b.axle_kg.shape[1]:
            yield _Asked(
                f"axle/{axle.id}",
                "Axle" if len(rig.axles) == 1 else f"Axle {at + 1}",
                b.axle_kg[:, at],
                axle.rating.si,
                known,
            )
    capacity = tyre_capacity_kg(rig.tyre.load_index)
    if capacity and rig.axles and b.axle_kg.shape[1]:
        side = np.fmax(np.fmax(b.left_kg, b.right_kg), group / 2) / np.where(group > 0, group, np.nan)
        per_tyre = side * b.axle_kg.max(axis=1)
        yield _Asked(
            "tyre", "Tyre, heavier side", per_tyre, capacity, known & ~np.isnan(per_tyre), mind_at=TYRE_RESERVE
        )
    yield _Asked("coupler", "Coupler", b.tongue_kg, _si(rig.coupler_rating), known)
    yield _Asked("hitch", "Hitch", b.tongue_kg, _si(rig.hitch_rating), known)
    for car in vehicles_of(build.brief, facts):
        yield _Asked(f"ball/{car.id}", f"Ball, {car.name}", b.tongue_kg, _si(car.tongue_limit), known, car.id)
        yield _Asked(f"towed/{car.id}", f"Towed, {car.name}", b.total_kg, _si(car.tow_limit), towing, car.id)
        rear = rear_axle_of(car, b.tongue_kg)
        if car.rear_axle_rating and rear is not None:
            yield _Asked(f"car-rear/{car.id}", f"Rear axle, {car.name}", rear, car.rear_axle_rating.si, known, car.id)
        nose = front_axle_of(car, b.tongue_kg)
        if car.front_axle_rating and nose is not None:
            yield _Asked(
                f"car-front/{car.id}", f"Front axle, {car.name}", nose, car.front_axle_rating.si, known, car.id
            )
        if car.train_limit and car.front_empty and car.rear_empty:
            train = b.total_kg + car.front_empty.si + car.rear_empty.si
            yield _Asked(f"train/{car.id}", f"Train, {car.name}", train, car.train_limit.si, towing, car.id)
    yield _Asked("chains", "Safety chain, each", b.total_kg, _si(rig.chain_rating), towing)
    if at_rest is not None and rig.stabiliser_station is not None and rig.jack_station is not None:
        # wound snug they take what the tail's load would lift off the jack, shared by two
        behind = rig.stabiliser_station.si - b.effective_axle_m
        over = np.maximum(-at_rest.jack_tail_loaded_kg, 0.0) * (b.effective_axle_m - rig.jack_station.si)
        each = np.where(behind > 0.05, over / np.maximum(behind, 0.05) / 2, 0.0)
        yield _Asked(
            "stabiliser",
            "Stabiliser, tail loaded",
            each,
            _si(rig.stabiliser_rating),
            np.ones_like(towing),
            over="mind",
        )
    if at_rest is not None:
        yield _Asked(
            "jack",
            "Jack",
            at_rest.jack_kg * JACK_FACTOR,
            _si(rig.jack_rating),
            np.ones_like(towing),
            over="mind",
        )


def _bed(build: Build, table: MassTable, b: Balance) -> Iterator[_Asked]:
    bed = build.rig.bed
    every = np.ones(len(table.cases), dtype=bool)
    if not b.axle_kg.shape[1]:
        return
    front, rear = b.axle_kg[:, 0], b.axle_kg[:, 1]
    yield _Asked("front-axle", "Front axle", front, _si(bed.front_rating), every)
    yield _Asked("rear-axle", "Rear axle", rear, _si(bed.rear_rating), every)
    yield _Asked("gross", "Whole vehicle", b.total_kg, _si(bed.gross_rating), every)
    capacity = tyre_capacity_kg(build.rig.tyre.load_index)
    if capacity:
        yield _Asked("tyre", "Tyre, rear", rear / 2, capacity, every, mind_at=TYRE_RESERVE)
    if bed.front_empty is not None and bed.front_empty.si > 0:
        yield _Asked(
            "least-front",
            "Front axle, least",
            front,
            bed.front_empty.si * LEAST_FRONT_OF_EMPTY,
            every,
            floor=True,
            over="mind",
        )


def _front_share(table: MassTable, b: Balance) -> Iterator[Limit]:
    """What a bed vehicle's front axle carries of the whole, in the case in which it is least."""
    if not b.axle_kg.shape[1]:
        return
    front = b.axle_kg[:, 0]
    share = front - LEAST_FRONT_SHARE * b.total_kg
    if np.isfinite(share).any():
        row = int(np.argmin(share))
        yield Limit(
            "least-front-share",
            "Front axle, share",
            table.cases[row].id,
            None,
            float(front[row]),
            float(LEAST_FRONT_SHARE * b.total_kg[row]),
            "kg",
            "mind" if share[row] < 0 else None,
        )
