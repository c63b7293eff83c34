"""What the vehicle in front feels, and what may still be loaded, case by case.

Moments about the car's front axle: rear axle = empty + T (wheelbase + overhang) / wheelbase. Source: any statics text.
"""

from __future__ import annotations

from collections.abc import Callable

import msgspec
import numpy as np

from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.reading.band import vehicles_of
from uncle_sled.core.reading.limits import Riding, front_axle_of, rear_axle_of, riding_in_car
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied


class CarAxle(msgspec.Struct, frozen=True):
    """What one axle of a car carries, and what it is rated for [kg]."""

    kg: float
    rating_kg: float | None


def rear_axle(s: Studied, row: int) -> CarAxle | None:
    """The rear axle of the first vehicle that tells it, in a case; None in a standing mode or where nothing is known."""
    return _first_known(s, row, rear_axle_of, lambda car: car.rear_axle_rating)


def front_axle(s: Studied, row: int) -> CarAxle | None:
    """The front axle of the first vehicle that tells it, in a case; None in a standing mode or where nothing is known."""
    return _first_known(s, row, front_axle_of, lambda car: car.front_axle_rating)


def _first_known(
    s: Studied, row: int, axle_of: Callable[[Vehicle, Floats, Riding], Floats | None], rating_of: Callable[[Vehicle], Mass | None]
) -> CarAxle | None:
    if not s.table.cases[row].mode.towing:
        return None
    for car in vehicles_of(s.build.brief, s.facts):
        load = axle_of(car, s.readings.tongue_kg, riding_in_car(s.build))
        if load is not None and not np.isnan(load[row]):
            rating = rating_of(car)
            return CarAxle(float(load[row]), rating.si if rating else None)
    return None


def most_total_kg(s: Studied) -> float | None:
    """What the whole may weigh by its plate and the cars that tow it [kg]; None where nothing says."""
    rig = s.build.rig
    plate = rig.bed.gross_rating if rig.carrier == "vehicle bed" else rig.gross_total
    cars = vehicles_of(s.build.brief, s.facts) if rig.carrier == "ball" else ()
    return min((m.si for m in (plate, *(car.tow_limit for car in cars)) if m and m.si > 0), default=None)


def payload_left_kg(s: Studied, row: int) -> float | None:
    """What may still be loaded before the plate, the axle group or the axles are full [kg]; less than nothing when over.

    Whatever is nearest counts: gross and what a vehicle may tow against the whole, axle ratings against the wheels.
    """
    b, rig = s.readings, s.build.rig
    total, left = float(b.total_kg[row]), []
    axles = [float(kg) for kg in b.axle_kg[row]] if b.axle_kg.shape[1] else []
    if rig.carrier == "vehicle bed":
        bed = rig.bed
        left += [bed.gross_rating.si - total] if bed.gross_rating else []
        ratings = [bed.front_rating, bed.rear_rating]
    else:
        left += [rig.gross_total.si - total] if rig.gross_total else []
        wheels = sum(axles)
        left += [rig.axle_group.si - wheels] if rig.axle_group and axles else []
        left += [car.tow_limit.si - total for car in vehicles_of(s.build.brief, s.facts) if car.tow_limit]
        ratings = [axle.rating for axle in sorted(rig.axles, key=lambda a: a.station.si)]
    if axles and all(ratings) and not any(np.isnan(axles)):
        left.append(sum(r.si for r in ratings if r) - sum(axles))
    return min(left) if left else None
