"""Trips against the plan: nights, litres, watt hours and gas a day, and what they teach the use figures."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.road import Trip
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.systems.gas import gas_of
from uncle_sled.core.studies.systems.stay import demand_of
from uncle_sled.core.studies.systems.water import need_l

WORTH = 0.15  # off the plan, from which on it is worth a word


class Taken(msgspec.Struct, frozen=True):
    """One figure a day: what it is, its unit, the plan and what all trips took on average; None: not known."""

    name: str
    unit: str
    plan: float | None
    took: float | None

    @property
    def ratio(self) -> float | None:
        """What it took over what was planned; None where one of them is not known."""
        return self.took / self.plan if self.plan and self.took is not None else None


def nights_of(trips: tuple[Trip, ...]) -> int:
    """Nights of all trips together."""
    return sum(trip.nights for trip in trips)


def taken(s: Studied) -> tuple[Taken, ...]:
    """Figures a day over all trips that say them."""
    trips = s.build.road.trips

    def mean(name: str, a_person: bool = False) -> float | None:
        told = [trip for trip in trips if getattr(trip, name) is not None and trip.nights > 0]
        days = sum(trip.nights * (trip.people if a_person else 1) for trip in told)
        return sum(getattr(trip, name) for trip in told) / days if days else None

    modes = [mode.id for mode in s.build.stow.modes if not mode.towing] or [mode.id for mode in s.build.stow.modes]
    power = demand_of(s.build, modes[0], mains=False).daily_wh if modes else None
    gas = gas_of(s.build)
    return (
        Taken("water a person", "L", need_l(s.build, 1) or None, mean("water_l", a_person=True)),
        Taken("power", "Wh", power or None, mean("power_wh")),
        Taken("gas", "kg", gas.kg_day.get("gas") or None, mean("gas_kg")),
    )
