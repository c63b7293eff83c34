"""What does a record of the battery, hour by hour, teach about how long each load runs?

Each known hour of the day is a sum of loads: measured = idle + sum of factor x planned. Factors begin at 1 with 30 % of doubt (hours a day
are guessed), a record's hour has a tenth of itself and 5 W; both normal, solved at once: C' = (C^-1 + A^T S^-1 A)^-1,
f' = f + C' A^T S^-1 (measured - A f). Loads that run in the same hours cannot be told apart, and that is said. Source: least squares.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.edits import Op, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.document.systems import Load
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.systems.stay import demand_of, power_key
from uncle_sled.core.studies.systems.sun import HOURS
from uncle_sled.core.wiring.appliances import loads_of

Floats = NDArray[np.float64]
HOURS_DOUBT, METER_SHARE, METER_W = 0.3, 0.1, 5.0
LEAST_FACTOR = 0.02
SAME_HOURS = -0.8  # correlation from which on two loads are one to the record
WORTH = 0.03  # a factor nearer to 1 is not worth an edit


class LoadTaught(msgspec.Struct, frozen=True):
    """One load, watt hours a day at the battery before and after, with one sigma each."""

    id: str
    name: str
    before_wh: float
    sigma_before_wh: float
    after_wh: float
    sigma_wh: float
    factor: float


class LoadsTaught(msgspec.Struct, frozen=True, eq=False):
    """planned_w, after_w: by the hour, shape (24,); measured_w: not a number where no record tells; apart: pairs of names that are one to it.

    why: what is missing for it to teach; then loads is empty.
    """

    loads: tuple[LoadTaught, ...]
    planned_w: Floats
    after_w: Floats
    measured_w: Floats
    apart: tuple[tuple[str, str], ...]
    why: str


def measured_w(build: Build) -> Floats:
    """Mean watts by the hour over all trips that have a record, each by its hours, shape (24,); not a number where none tells."""
    watts, hours = np.zeros(HOURS), np.zeros(HOURS)
    for trip in build.road.trips:
        for cell in trip.drawn:
            watts[cell.hour] += cell.watts * cell.hours
            hours[cell.hour] += cell.hours
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(watts / hours)


@keep(power_key, "build.road.trips", "mode", most=4)
def loads_taught(build: Build, mode: str) -> LoadsTaught:
    """Of all records of the build's trips. Never raises."""
    demand, measured = demand_of(build, mode, mains=False), measured_w(build)
    rows = [k for k in range(len(demand.loads)) if demand.wh[k].sum() > 0]
    planned = demand.wh.sum(axis=0) + demand.idle_wh if len(demand.loads) else np.zeros(HOURS)
    known = np.flatnonzero(np.isfinite(measured))
    why = ""
    if not len(known):
        why = "No trip has a record of the battery yet."
    elif demand.unknown:
        why = f"{demand.unknown[0]} has no watts or hours, so no hour is known whole."
    elif not rows:
        why = "Nothing that runs from the battery is planned."
    if why:
        return LoadsTaught((), planned, planned, measured, (), why)
    a = demand.wh[rows][:, known].T
    saw = measured[known] - demand.idle_wh[known]
    weight = 1 / (METER_SHARE * measured[known] + METER_W) ** 2
    covariance: Floats = np.asarray(np.linalg.inv(np.eye(len(rows)) / HOURS_DOUBT**2 + a.T @ (weight[:, None] * a)), dtype=np.float64)
    factors = np.maximum(1.0 + covariance @ a.T @ (weight * (saw - a.sum(axis=1))), LEAST_FACTOR)
    sigma: Floats = np.asarray(np.sqrt(np.diag(covariance)), dtype=np.float64)
    daily = demand.wh[rows].sum(axis=1)
    loads = tuple(
        LoadTaught(
            demand.loads[k].id,
            demand.loads[k].name,
            before_wh=float(daily[at]),
            sigma_before_wh=float(daily[at]) * HOURS_DOUBT,
            after_wh=float(daily[at] * factors[at]),
            sigma_wh=float(daily[at] * sigma[at]),
            factor=float(factors[at]),
        )
        for at, k in enumerate(rows)
    )
    after = factors @ demand.wh[rows] + demand.idle_wh
    return LoadsTaught(loads, planned, np.asarray(after), measured, _apart(covariance, sigma, loads), "")


def _apart(covariance: Floats, sigma: Floats, loads: tuple[LoadTaught, ...]) -> tuple[tuple[str, str], ...]:
    together = covariance / np.outer(sigma, sigma)
    return tuple((loads[i].name, loads[j].name) for i in range(len(loads)) for j in range(i + 1, len(loads)) if together[i, j] < SAME_HOURS)


def taught_ops(build: Build, made: LoadsTaught) -> tuple[Op, ...]:
    """Ops that give each load the hours that the record taught; where a day has not so many, more of them in earnest (duty), then more watts."""
    figures: dict[str, Figures | Load | None] = {thing.id: thing.figures for thing in build.stow.things}
    figures |= {load.id: load for load in build.systems.loads}
    paths = {run.id: run.path for run in loads_of(build)}
    ops: list[Op] = []
    for load in made.loads:
        said, path = figures.get(load.id), paths.get(load.id)
        if said is None or path is None or said.hours_day is None or abs(load.factor - 1) < WORTH:
            continue
        hours, duty = said.hours_day * load.factor, 1.0 if said.duty is None else said.duty
        ops.append(set_to(f"{path}.hours_day", round(min(hours, 24.0), 3)))
        if hours > 24.0:
            wanted = duty * hours / 24.0
            ops.append(set_to(f"{path}.duty", round(min(wanted, 1.0), 4)))
            figure = "power_w" if said.power_w is not None else "amps"
            value = getattr(said, figure)
            if wanted > 1.0 and value is not None:
                ops.append(set_to(f"{path}.{figure}", round(value * wanted, 3)))
    return tuple(ops)
