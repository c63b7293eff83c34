"""Where may the axle be welded so that every towing case stands in its band?

T is linear in 1/a for a single or equalised axle whose own mass moves with it, so every case
gives one interval of stations in closed form; independent axles are judged on a grid of 5 mm.
Source: moments about the axle, solved for its station.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.engine import keep
from uncle_sled.core.parts.support import independent_axle_loads_kg
from uncle_sled.core.reading.band import band_kg
from uncle_sled.core.reading.limits import axle_ratings_kg
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.units import plain_number

GRID_M = 0.005
MOST_STATIONS = 6000


class AxlePlacing(msgspec.Struct, frozen=True):
    """Stations of the axle group's middle [m]: the window that serves every case, and the best in or out of it."""

    window_m: tuple[float, float] | None
    best_m: float
    worst_violation_kg: float
    fighting_cases: tuple[str, str] | None


@keep(most=3)
def axle_placing(s: Studied) -> AxlePlacing | None:
    """The window of an own axle, or None where there is no axle, no mass or no ball."""
    rows = s.towing_rows
    if s.support is None or s.support.carrier != "ball" or not rows or s.readings.total_kg[rows].min() <= 0:
        return None
    now = s.support.mean_axle_m
    reach = max(6.0, 2.0 * now)
    # an axle typed a kilometre away is judged on a coarser grid, not on a million stations
    stations = np.arange(max(0.2, now - reach / 2), now + reach / 2, max(GRID_M, reach / MOST_STATIONS))
    violation, light = violations_kg(s, stations)
    judged = set(s.towed_rows)
    violation[:, [row not in judged for row in rows]] = -np.inf  # an empty body that nobody tows asks for no place
    worst = np.maximum(violation, 0).max(axis=1)
    # among equals (all in band) the deepest inside, else the least bad
    depth = violation.max(axis=1)
    best = int(np.argmin(depth))
    window = None
    fighting = None
    if worst[best] <= 0:
        low = high = best
        while low > 0 and worst[low - 1] <= 0:
            low -= 1
        while high + 1 < len(worst) and worst[high + 1] <= 0:
            high += 1
        window = (float(stations[low]), float(stations[high]))
    else:
        at = violation[best]
        lightest = rows[int(np.argmax(np.where(light[best], at, -np.inf)))]
        heaviest = rows[int(np.argmax(np.where(~light[best], at, -np.inf)))]
        fighting = (s.table.cases[lightest].id, s.table.cases[heaviest].id)
    return AxlePlacing(window, float(stations[best]), float(max(worst[best], 0.0)), fighting)


def balance_points(s: Studied) -> tuple[tuple[float, float, str], ...]:
    """Balance point, axle place for the middle of the band [m] and name of each towing case.

    The old way of the shop: load it, find the point where it balances, put the axle a little behind:
    a = x_cg / (1 - p), which is the same as welding for a share p.
    """
    made = []
    share = (s.band.low + s.band.high) / 2
    for row in s.towed_rows:
        point, total = float(s.readings.cg_m[row, 0]), float(s.readings.total_kg[row])
        aim = min(share, 0.9 * s.band.limit_kg / total) if s.band.limit_kg and total > 0 else share
        if np.isfinite(point) and point > 0 and aim < 1:
            made.append((point, point / (1 - aim), s.table.cases[row].name))
    return tuple(made)


class OwnLimit(msgspec.Struct, frozen=True):
    """One end of what a case may have on the ball [kg], and whose it is."""

    kg: float
    says: str


def own_limits(s: Studied, case_id: str) -> tuple[OwnLimit, OwnLimit]:
    """Least and most on the ball that a case's own limits allow: where they cross, no station can serve it."""
    row = s.table.row(case_id)
    total = float(s.readings.total_kg[row])
    low, _ = band_kg(s.band, np.array([total]))
    least = OwnLimit(float(low[0]), f"{plain_number(s.band.low * 100)} % of {s.band.says}")
    if s.band.limit_kg is not None and total > s.band.cut_at_kg():
        least = OwnLimit(float(low[0]), f"as near as can be to the limit of {s.band.limit_says or 'the lowest rating'}")
    share = float(s.band.least_kg(total))
    if share > least.kg:
        least = OwnLimit(share, "what sways under it")
    wheels = _wheels_kg(s)
    if wheels is not None and total - wheels > least.kg:
        least = OwnLimit(total - wheels, "what the axles cannot carry")
    most = OwnLimit(s.band.high * total, f"{plain_number(s.band.high * 100)} %")
    if s.band.limit_kg is not None and s.band.limit_kg < most.kg:
        most = OwnLimit(s.band.limit_kg, s.band.limit_says or "the lowest rating")
    return least, most


def _wheels_kg(s: Studied) -> float | None:
    """What the wheels may carry [kg]: the group's plate, or the axles' ratings together; None where not known."""
    rig = s.build.rig
    if rig.axle_group and rig.axle_group.si > 0:
        return rig.axle_group.si
    ratings = axle_ratings_kg(rig)
    known = [kg for kg in ratings if kg is not None]
    return sum(known) if known and len(known) == len(ratings) else None


def violations_kg(s: Studied, stations_m: Floats) -> tuple[Floats, NDArray[np.bool_]]:
    """How far out of its band each towing case is [kg on the ball], negative inside, for axles at the stations.

    Returns: (k, cases) of violation, and whether it is the light side that is nearer.
    """
    tongue, total = tongue_at_stations(s, stations_m)
    low, high = band_kg(s.band, total)
    low = np.maximum(low, s.band.least_kg(total))  # where that is over the most, no station serves
    wheels = _wheels_kg(s)
    if wheels is not None:
        low = np.maximum(low, total - wheels)
    return np.maximum(low - tongue, tongue - high), (low - tongue) > (tongue - high)


def tongue_at_stations(s: Studied, stations_m: Floats) -> tuple[Floats, Floats]:
    """Ball load and total [kg] of every towing case with the axles' middle at each station, shape (k, cases)."""
    loads = axles_at_stations(s, stations_m)
    total = s.table.mass_kg[s.towing_rows].sum(axis=1)
    tongue = total[None, :] - loads.sum(axis=2)
    return tongue, np.broadcast_to(total, tongue.shape)


def axles_at_stations(s: Studied, stations_m: Floats) -> Floats:
    """Load of every axle [kg] in every towing case with the axles' middle at each station, shape (k, cases, axles)."""
    rows = s.towing_rows
    table, support = s.table, s.support
    assert support is not None
    axles = {axle.id for axle in s.build.rig.axles}
    moving = np.array([id in axles for id in table.ids], dtype=bool)
    shift = stations_m - support.mean_axle_m
    moments = (table.mass_kg[rows] * table.x_m[rows]).sum(axis=1)
    with_axle = table.mass_kg[rows][:, moving].sum(axis=1)
    if s.build.rig.base == "as bought":  # weighed as one; what its axles weigh moves with them
        with_axle = sum(axle.mass.si for axle in s.build.rig.axles if axle.mass)
    moment = moments[None, :] + shift[:, None] * with_axle
    many = len(support.axles_m)
    if support.independent:
        return independent_axle_loads_kg(moment, support, shift[:, None, None] + np.array(support.axles_m))
    return np.repeat((moment / stations_m[:, None] / many)[:, :, None], many, axis=2)


class AxleOver(msgspec.Struct, frozen=True):
    """An axle that is over its rating in the window: which one, in which case, by how much at least [kg], and from
    where on it keeps its rating [m], or None where it does nowhere in the window."""

    number: int
    case_id: str
    least_over_kg: float
    kept_from_m: float | None


def axles_over(s: Studied, placing: AxlePlacing) -> tuple[AxleOver, ...]:
    """Axles of a group whose own rating the window does not keep; the window itself judges ball and group."""
    if s.support is None or len(s.support.axles_m) < 2:
        return ()
    low, high = placing.window_m or (placing.best_m, placing.best_m)
    stations = np.linspace(low, high, 41)
    loads = axles_at_stations(s, stations)
    made = []
    for at, rating in enumerate(axle_ratings_kg(s.build.rig)):
        if rating is None:
            continue
        over = loads[:, :, at] - rating
        worst = over.max(axis=1)
        if (worst <= 0).all():
            continue
        best = int(np.argmin(worst))
        kept = float(stations[int(np.argmax(worst <= 0))]) if (worst <= 0).any() else None
        case = s.table.cases[s.towing_rows[int(np.argmax(over[best]))]]
        made.append(AxleOver(at + 1, case.id, float(worst[best]), kept))
    return tuple(made)
