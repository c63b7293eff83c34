"""Which plate, axle, tyre, coupler, vehicle or jack is nearest to its limit, and in which case?

Ratings are the user's own from plates and papers; tyre loads by the standard load index,
never rounded up.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

import msgspec
import numpy as np

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.document.rig import BedVehicle, Rig
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.part import DENSITY
from uncle_sled.core.parts.unknown import Unknown
from uncle_sled.core.reading.balance import Balance
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.learnt import Measured
from uncle_sled.core.reading.load_cases import Bools, Floats, MassTable
from uncle_sled.core.reading.parked import Parked

# Load index to kg. Source: the tyre trade's standard load index table.
TYRE_KG = dict(
    zip(
        range(60, 127),
        (
            250,
            257,
            265,
            272,
            280,
            290,
            300,
            307,
            315,
            325,
            335,
            345,
            355,
            365,
            375,
            387,
            400,
            412,
            425,
            437,
            450,
            462,
            475,
            487,
            500,
            515,
            530,
            545,
            560,
            580,
            600,
            615,
            630,
            650,
            670,
            690,
            710,
            730,
            750,
            775,
            800,
            825,
            850,
            875,
            900,
            925,
            950,
            975,
            1000,
            1030,
            1060,
            1090,
            1120,
            1150,
            1180,
            1215,
            1250,
            1285,
            1320,
            1360,
            1400,
            1450,
            1500,
            1550,
            1600,
            1650,
            1700,
        ),
        strict=True,
    )
)
TYRE_RESERVE = 0.85
BOTH = ("total", "ball")
JACK_FACTOR = 1.5
LEAST_FRONT_SHARE, LEAST_FRONT_OF_EMPTY = 0.30, 0.90


Face = Literal["measured", "computed", "not checked"]


class Limit(msgspec.Struct, frozen=True):
    """A value against its limit in its worst case; utilisation over 1 is over the limit.

    face: measured where every mass in it was weighed, else computed.
    """

    id: str
    name: str
    case_id: str
    vehicle_id: str | None
    value: float
    limit: float
    unit: str
    severity: str | None
    face: Face = "computed"


class Unchecked(msgspec.Struct, frozen=True):
    """A limit that nothing could be held against, and why, as the middle of a sentence; ``field``: where it is given."""

    id: str
    name: str
    vehicle_id: str | None
    why: str
    field: str = ""


class Held(msgspec.Struct, frozen=True):
    """Every limit of a build: those that were checked, nearest first, and those that could not be."""

    limits: tuple[Limit, ...]
    unchecked: tuple[Unchecked, ...]


def tyre_capacity_kg(load_index: int | None) -> float | None:
    """Load of a tyre by its index [kg]; None for an index that is not in the table."""
    return None if load_index is None or load_index not in TYRE_KG else float(TYRE_KG[load_index])


Riding = tuple[tuple[str, float], ...]  # row of a car, and what rides there beside its own loads [kg]


def riding_in_car(build: Build) -> Riding:
    """Things that ride in the car and not in the trailer, by row [kg]; a tank among them full."""
    return tuple((thing.rides, thing_mass_kg(thing)) for thing in build.stow.things if thing.rides and not thing.taken_out)


def rear_axle_of(car: Vehicle, tongue_kg: Floats, riding: Riding = ()) -> Floats | None:
    """Load of a car's rear axle with so much on its ball [kg], or None where its papers are not filled in.

    Its empty load, what its rows carry by their place over the wheelbase L, and ball and hook behind it by (L + o) / L.
    Source: moments about the front axle (any statics text).
    """
    arms = _arms(car, riding)
    if arms is None or not car.rear_empty:
        return None
    base, behind, loads = arms
    carried = sum(kg * at for kg, at in loads) / base
    hung = tongue_kg + (car.hook.si if car.hook else 0.0)
    return np.asarray(car.rear_empty.si + carried + hung * (base + behind) / base)


def front_axle_of(car: Vehicle, tongue_kg: Floats, riding: Riding = ()) -> Floats | None:
    """Load of a car's front axle with so much on its ball [kg]: the ball behind the rear axle lifts it."""
    arms = _arms(car, riding)
    if arms is None or not car.front_empty:
        return None
    base, behind, loads = arms
    carried = sum(kg * (base - at) for kg, at in loads) / base
    hung = tongue_kg + (car.hook.si if car.hook else 0.0)
    return np.asarray(car.front_empty.si + carried - hung * behind / base)


def row_loads_kg(car: Vehicle, riding: Riding = ()) -> dict[str, float]:
    """What each row of a car carries [kg]: as typed, and the things that ride there."""
    loads = {load.id: load.mass.si for load in car.loads if load.mass and load.mass.si > 0}
    made: dict[str, float] = {str(id): kg for id, kg in loads.items()}
    for row, kg in riding:
        made[row] = made.get(row, 0.0) + kg
    return made


def _arms(car: Vehicle, riding: Riding) -> tuple[float, float, list[tuple[float, float]]] | None:
    """Wheelbase, overhang of the ball [m], and what each row carries [kg] where [m]; None where any is not known."""
    if not (car.wheelbase and car.ball_overhang and car.wheelbase.si > 0):
        return None
    places: dict[str, float] = {load.id: load.at.si for load in car.loads if load.at}
    loads = row_loads_kg(car, riding)
    if any(row not in places for row in loads):
        return None
    return car.wheelbase.si, car.ball_overhang.si, [(kg, places[row]) for row, kg in loads.items()]


def own_weight_kg(car: Vehicle, riding: Riding = ()) -> float | None:
    """A car with what it carries and its hook [kg]; None where its empty axles were not given."""
    if not (car.front_empty and car.rear_empty):
        return None
    carried = sum(row_loads_kg(car, riding).values())
    return car.front_empty.si + car.rear_empty.si + carried + (car.hook.si if car.hook else 0.0)


def thing_mass_kg(thing: Thing) -> float:
    """What a thing weighs with its tank full [kg]."""
    held = thing.tank.volume.si * DENSITY[thing.tank.contents] if thing.tank and thing.tank.volume else 0.0
    return thing.mass.si + held


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


def held_limits(
    build: Build,
    facts: Facts,
    table: MassTable,
    readings: Balance,
    at_rest: Parked | None,
    unknown: tuple[Unknown, ...],
    measured: Measured,
) -> Held:
    """Every limit, worst case first within each; nearest to its limit first.

    Args:
        unknown: What nobody gave. What is over without it is over; the rest stays unchecked.
        measured: What of every case was on a scale.
    """
    towing = np.array([case.mode.towing for case in table.cases], dtype=bool)
    bed = build.rig.carrier == "vehicle bed"
    asked = list(_bed(build, table, readings) if bed else _trailer(build, facts, readings, at_rest, towing))
    found = [*_worst(asked, table, measured), *(_front_share(table, readings) if bed else ())]
    lacking = next((f"{each_unknown.says} is not known" for each_unknown in unknown if each_unknown.hides != "axles"), "")
    if any(each_unknown.hides == "total" for each_unknown in unknown):
        found = [one for one in found if one.severity == "stop"]
    level = next((f"{each_unknown.says} is not known" for each_unknown in unknown if each_unknown.hides == "axles"), "")
    if level:
        found = [one for one in found if not _by_axle(one.id)]
    told = {one.id for one in found}
    unchecked = [
        Unchecked(
            ask.id,
            ask.name,
            ask.vehicle,
            ask.none or (NOT_GIVEN if not _given(ask) else (level if _by_axle(ask.id) else "") or lacking or NO_VALUE),
            ask.field,
        )
        for ask in asked
        if ask.id not in told
    ]
    if not bed and not vehicles_of(build.brief, facts):
        unchecked.append(Unchecked("car", "Tow vehicle", None, "no tow vehicle is named", "facts.vehicles"))
    return Held(tuple(sorted(found, key=lambda lim: -use(lim))), tuple(unchecked))


NO_TRACK = "the track is not known, so how a lean parts the load is not"
NOT_GIVEN = "its limit is not given"
NO_VALUE = "there is no reading yet"
ALTERED = "it was altered since it was made, so no plate holds"


def _by_axle(id: str) -> bool:
    """Whether a limit hangs on how independent axles share the load."""
    return id == "tyre" or id.startswith("axle/")


def _given(asked: _Asked) -> bool:
    return asked.limit is not None and asked.limit > 0


def _si(mass: Mass | None) -> float | None:
    return mass.si if mass else None


def use(limit: Limit) -> float:
    """Value as a share of its limit; a floor (front axle) counts the other way round."""
    if limit.id.startswith("least-"):
        return limit.limit / max(limit.value, 1e-9)
    return limit.value / max(limit.limit, 1e-9)


class _Asked(msgspec.Struct):
    """One limit to be held against its values in every case; ``none``: why there is no limit, where it is not just empty."""

    id: str
    name: str
    values: Floats
    limit: float | None
    where: Bools  # cases that count
    vehicle: str | None = None
    mind_at: float = 1.0
    floor: bool = False
    over: str = "stop"
    field: str = ""
    none: str = ""
    by: tuple[str, ...] = ()  # which readings of a scale it is made of: total, ball; none: only all the parts


def _worst(asked: list[_Asked], table: MassTable, measured: Measured) -> Iterator[Limit]:
    """Each limit that is known in its worst case; all at once, since an array of few cases costs as much as of many."""
    known = [each_ask for each_ask in asked if _given(each_ask)]
    if not known:
        return
    sign = np.array([-1.0 if each_ask.floor else 1.0 for each_ask in known])[:, None]
    shown = np.where([each_ask.where for each_ask in known], sign * np.array([each_ask.values for each_ask in known]), -np.inf)
    shown = np.where(np.isnan(shown), -np.inf, shown)
    rows = np.argmax(shown, axis=1)
    values = shown[np.arange(len(known)), rows] * sign[:, 0]
    finite = np.asarray(np.isfinite(shown).any(axis=1))
    for ask, row, value, some in zip(known, rows.tolist(), values.tolist(), finite.tolist(), strict=True):
        if not some or ask.limit is None:
            continue
        beyond = value < ask.limit if ask.floor else value > ask.limit
        severity = ask.over if beyond else "mind" if not ask.floor and value > ask.mind_at * ask.limit else None
        seen = measured.parts[row] or (ask.by and all(getattr(measured, name)[row] for name in ask.by))
        face: Face = "measured" if seen else "computed"
        yield Limit(
            ask.id,
            ask.name,
            case_id=table.cases[row].id,
            vehicle_id=ask.vehicle,
            value=value,
            limit=float(ask.limit),
            unit="kg",
            severity=severity,
            face=face,
        )


def _trailer(build: Build, facts: Facts, b: Balance, at_rest: Parked | None, towing: Bools) -> Iterator[_Asked]:
    rig = build.rig
    group = b.total_kg - b.tongue_kg
    known, none = towing & ~np.isnan(b.tongue_kg), np.full(len(towing), np.nan)
    altered = ALTERED if rig.frame_altered else ""
    plate = None if altered else _si(rig.gross_total)
    yield _Asked("gross", "Whole trailer", b.total_kg, plate, towing, field="rig.gross_total", none=altered, by=("total",))
    plate = None if altered else _si(rig.axle_group)
    yield _Asked("axle-group", "Axle group", group, plate, known, field="rig.axle_group", none=altered, by=BOTH)
    for at, axle in enumerate(sorted(rig.axles, key=lambda a: a.station.si)):
        yield _Asked(
            f"axle/{axle.id}",
            "Axle" if len(rig.axles) == 1 else f"Axle {at + 1}",
            b.axle_kg[:, at] if b.axle_kg.shape[1] > at else none,
            None if axle.altered else _si(axle.rating),
            known,
            field=f"rig.axles.{axle.id}.rating",
            none=ALTERED if axle.altered else "",
            by=BOTH if len(rig.axles) == 1 else (),
        )
    if rig.axles:
        # without the track nobody knows how a lean parts the load: NaN, and never half
        side = np.maximum(b.left_kg, b.right_kg) / np.where(group > 0, group, np.nan)
        per_tyre = side * b.axle_kg.max(axis=1) if b.axle_kg.shape[1] else none
        yield _tyre(rig, "Tyre, heavier side", per_tyre, known & ~np.isnan(per_tyre), NO_TRACK if not rig.track else "")
    yield _Asked("coupler", "Coupler", b.tongue_kg, _si(rig.coupler_rating), known, field="rig.coupler_rating", by=("ball",))
    yield _Asked("hitch", "Hitch", b.tongue_kg, _si(rig.hitch_rating), known, field="rig.hitch_rating", by=("ball",))
    for car in vehicles_of(build.brief, facts):
        yield from _car(car, build, b, towing, known)
    yield _Asked("chains", "Safety chain, each", b.total_kg, _si(rig.chain_rating), towing, field="rig.chain_rating", by=("total",))
    everywhere = np.ones_like(towing)
    if rig.stabiliser_station is not None:
        each = none
        if at_rest is not None and rig.jack_station is not None:
            # wound snug they take at least what the tail's load would lift off the jack, shared by two
            behind = rig.stabiliser_station.si - b.effective_axle_m
            over = np.maximum(-at_rest.jack_tail_loaded_kg, 0.0) * (b.effective_axle_m - rig.jack_station.si)
            each = np.where(behind > 0.05, over / np.maximum(behind, 0.05) / 2, 0.0)
        rating = _si(rig.stabiliser_rating)
        yield _Asked("stabiliser", "Stabiliser, at least", each, rating, everywhere, over="mind", field="rig.stabiliser_rating")
    if rig.jack_station is not None:
        jack = at_rest.jack_kg if at_rest is not None else none
        yield _Asked("jack", "Jack", jack, _si(rig.jack_rating), everywhere, mind_at=1 / JACK_FACTOR, field="rig.jack_rating")


def _tyre(rig: Rig, name: str, per_tyre: Floats, where: Bools, lacks: str) -> _Asked:
    """Args: lacks: what keeps the heavier side from being known."""
    index = rig.tyre.load_index
    capacity = tyre_capacity_kg(index)
    none = lacks if index is None or capacity is not None else f"load index {index} is not in the table"
    if index is None:
        none = ""
    return _Asked("tyre", name, per_tyre, capacity, where, mind_at=TYRE_RESERVE, field="rig.tyre.load_index", none=none)


def _car(car: Vehicle, build: Build, b: Balance, towing: Bools, known: Bools) -> Iterator[_Asked]:
    """What a car's papers allow, and what its axles carry."""
    none, rig, riding = np.full(len(towing), np.nan), build.rig, riding_in_car(build)
    bare = "" if row_loads_kg(car, riding) else ", car empty"

    def asked(key: str, name: str, values: Floats | None, field: str, where: Bools, by: tuple[str, ...] = ()) -> _Asked:
        mass = getattr(car, field)
        why = "its empty axles, wheelbase, overhang or the place of a loaded row are not given" if values is None else ""
        return _Asked(
            f"{key}/{car.id}",
            f"{name}, {car.name}",
            none if values is None else values,
            _si(mass),
            where,
            car.id,
            field=f"facts.vehicles.{car.id}.{field}",
            none=why if mass is not None else "",
            by=by,
        )

    yield asked("ball", "Ball", b.tongue_kg, "tongue_limit", known, ("ball",))
    yield asked("towed", "Towed", b.total_kg, "tow_limit", towing, ("total",))
    if rig.brakes in ("", "none"):
        said = "nobody said yet whether the trailer has brakes" if not rig.brakes else ""
        limit = None if said else _si(car.unbraked_limit)
        field = f"facts.vehicles.{car.id}.unbraked_limit"
        name = f"Without brakes, {car.name}"
        yield _Asked(f"unbraked/{car.id}", name, b.total_kg, limit, towing, car.id, field=field, none=said, by=("total",))
    yield asked("car-rear", f"Rear axle{bare}", rear_axle_of(car, b.tongue_kg, riding), "rear_axle_rating", known)
    yield asked("car-front", f"Front axle{bare}", front_axle_of(car, b.tongue_kg, riding), "front_axle_rating", known)
    own = own_weight_kg(car, riding)
    yield asked("train", f"Train{bare}", None if own is None else b.total_kg + own, "train_limit", towing)


def _bed(build: Build, table: MassTable, b: Balance) -> Iterator[_Asked]:
    bed = build.rig.bed
    every, none = np.ones(len(table.cases), dtype=bool), np.full(len(table.cases), np.nan)
    read = b.axle_kg.shape[1] == 2
    front, rear = (b.axle_kg[:, 0], b.axle_kg[:, 1]) if read else (none, none)
    altered = ALTERED if build.rig.frame_altered else ""

    def plate(id: str, name: str, values: Floats, field: str) -> _Asked:
        mass = None if altered else getattr(bed, field)
        return _Asked(id, name, values, _si(mass), every, field=f"rig.bed.{field}", none=altered)

    yield plate("front-axle", "Front axle", front, "front_rating")
    yield plate("rear-axle", "Rear axle", rear, "rear_rating")
    yield plate("gross", "Whole vehicle", b.total_kg if read else none, "gross_rating")
    # each side carries its half and the lean's couple over the track
    sides = np.maximum(b.left_kg, b.right_kg) / np.where(b.total_kg > 0, b.total_kg, np.nan)
    per_tyre = sides * np.fmax(front, rear)
    yield _tyre(build.rig, "Tyre, heavier side", per_tyre, every & ~np.isnan(per_tyre), NO_TRACK if not bed.track else "")
    if bed.front_empty is not None and bed.front_empty.si > 0:
        yield _Asked("least-front", "Front axle, least", front, bed.front_empty.si * LEAST_FRONT_OF_EMPTY, every, floor=True, over="mind")


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
            case_id=table.cases[row].id,
            vehicle_id=None,
            value=float(front[row]),
            limit=float(LEAST_FRONT_SHARE * b.total_kg[row]),
            unit="kg",
            severity="mind" if share[row] < 0 else None,
        )
