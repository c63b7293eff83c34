"""How many nights does it last off the grid, what goes dark first, and what comes in and goes out by the hour?

Step by step: SOC(h+1) = SOC(h) + what is stored - what is drawn. What comes in is used at once as far as it goes; only what
is over is stored, with the battery's loss. All that comes in and was there is served, left, lost or clipped (to 0.1 %).
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.document.systems import Systems
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.systems.arriving import BY_MAINS, by_mains_ids, charging_ids, strings_arriving
from uncle_sled.core.studies.systems.bank import PEUKERT, RATED_H, TAPER, TAPER_FROM, Bank, bank_of, stands_outside, temperatures_c
from uncle_sled.core.studies.systems.panel_strings import Strung, lit_w, strung
from uncle_sled.core.studies.systems.sun import HOURS, Sky, darkest_day, on_panel_hours, skies
from uncle_sled.core.wiring.appliances import (
    CHARGER_ETA,
    INVERTER_ETA,
    Runs,
    electric_key,
    figures_of,
    left_off,
    loads_of,
    mains_v,
    units_of,
)
from uncle_sled.core.wiring.network import HOOKUP_A

Floats = NDArray[np.float64]
DIRT_AND_HEAT = 0.75
ARRIVES_H = 18  # the stay begins in the evening, with the battery full
USUAL_NIGHTS, MOST_NIGHTS = 7, 14
DAY_H = range(8, 20)
DRIVES_FROM_H, GENERATOR_FROM_H = 10, 9
RESERVE_MOST = 0.5  # of what the bank holds
TINY_WH = 1e-6


class Demand(msgspec.Struct, frozen=True, eq=False):
    """What runs by the hour of the sun, at the battery [Wh]: shape (n, 24), in the order of ``loads``; idle (24,)."""

    loads: tuple[Runs, ...]
    wh: Floats
    idle_wh: Floats

    @property
    def unknown(self) -> tuple[str, ...]:
        """Names of loads without watts or hours."""
        return tuple([run.name for run in self.loads if run.unsaid])

    @property
    def daily_wh(self) -> float:
        """What is drawn in a day [Wh], the inverter's own need with it."""
        return float(self.wh.sum() + self.idle_wh.sum())


class String(msgspec.Struct, frozen=True, eq=False):
    """The stay under one string of weather.

    soc_wh: at the end of each hour, shape (h,); sun_wh, car_wh, generator_wh, mains_wh: what came in, before clipping;
    out_wh: what was asked for. first_dark: hour of the stay in which something was not served, and what by name.
    """

    id: str
    name: str
    soc_wh: Floats
    sun_wh: Floats
    car_wh: Floats
    generator_wh: Floats
    mains_wh: Floats
    out_wh: Floats
    unserved_wh: float
    clipped_wh: float  # no room in the battery, too much at once for it, or held back by the controller
    held_back_wh: float  # of that, by the controller
    lost_wh: float
    end_wh: float
    hours_to_empty: int | None
    first_dark_h: int | None
    first_dark: str
    frost_wh: float  # not taken because the battery was below freezing

    @property
    def nights(self) -> float | None:
        """Days until something goes dark; None where nothing does."""
        return None if self.first_dark_h is None else self.first_dark_h / HOURS


class Stay(msgspec.Struct, frozen=True, eq=False):
    """The stay under every string. ``why``: what nobody said, so that it is not known; then there are no strings."""

    bank: Bank | None
    demand: Demand
    reserve_wh: float
    nights: int
    nights_said: bool
    day: int | None
    panels_wp: float
    strings: tuple[String, ...]
    why: tuple[str, ...]

    def of(self, id: str) -> String | None:
        """One of its skies by its id; None of any other."""
        return next((string for string in self.strings if string.id == id), None)


def demand_of(build: Build, mode: str, mains: bool) -> Demand:
    """What the loads of a mode draw by the hour. Args: mains: plugged in, so that what runs on mains costs no battery."""
    off = left_off(build.systems, mode, stay=True)
    loads = tuple(run for run in loads_of(build) if run.id not in off)
    made = np.zeros((len(loads), HOURS))
    for row, appliance in enumerate(loads):
        if appliance.power_w is None or appliance.hours_day is None or (appliance.ac and mains):
            continue
        made[row] = appliance.power_w * appliance.duty * _by_hour(appliance, build.systems) / (INVERTER_ETA if appliance.ac else 1.0)
    idle = np.zeros(HOURS)
    ac_hours = sum(run.hours_day or 0.0 for run in loads if run.ac and run.power_w)
    if ac_hours > 0 and not mains:
        for thing in units_of(build, "inverter", "inverter charger", "station")[:1]:
            f = figures_of(thing)
            idle += (f.idle_w or 0.0) * _hours(f.hours_day if f.hours_day is not None else min(ac_hours, 24.0), "any")
    return Demand(loads, made, idle)


def _by_hour(run: Runs, systems: Systems) -> Floats:
    """Share of each hour that a load runs, shape (24,): what is filled while driving runs in the hours of driving."""
    hours = run.hours_day or 0.0
    if run.when != "driving":
        return _hours(hours, run.when)
    drives = _from(DRIVES_FROM_H, systems.drive_hours)
    return np.asarray(drives * (hours / systems.drive_hours if systems.drive_hours > 0 else 0.0))


def _hours(hours: float, when: str) -> Floats:
    """Share of each hour that it runs, shape (24,), summing to the hours: by day 8 to 20, by night the rest."""
    day = np.array([h in DAY_H for h in range(HOURS)])
    wanted = np.ones(HOURS, dtype=bool) if when == "any" else day if when == "day" else ~day
    first = min(hours, float(wanted.sum()))
    shares = np.where(wanted, first / wanted.sum(), 0.0)
    rest = hours - first
    return np.asarray(shares + (np.where(~wanted, rest / max((~wanted).sum(), 1), 0.0) if rest > 0 else 0.0))


def panels_wp(build: Build) -> float:
    """All panels aboard by their plates [W]."""
    return sum(figures_of(t).solar_wp or 0.0 for t in units_of(build, "panel"))


def power_key(build: Build) -> tuple[object, ...]:
    """All that the stay reads of a build: of places only whether a battery stands outside."""
    stores = tuple([(t.id, stands_outside(build, t)) for t in units_of(build, "battery", "station")])
    return build.systems, build.brief, build.stow.modes, electric_key(build), stores


def _unsaid(build: Build, demand: Demand) -> Iterator[str]:
    """What draws or gives nobody knows how much: no day off the grid is told from it."""
    systems = build.systems
    missing = next((run for run in demand.loads if run.unsaid), None)
    if missing is not None:
        yield f"What {missing.name} draws a day is not said ({missing.unsaid})."
    blank = next((t for t in units_of(build, "panel") if figures_of(t).solar_wp is None), None)
    if blank is not None:
        yield f"{blank.name} has no watts, so what the sun brings is not known."
    if systems.drive_hours > 0 and any(figures_of(t).charge_w is None for t in units_of(build, "car charger")):
        yield "What the charger from the car gives is not said."
    if systems.generator_hours > 0 and systems.generator_w is None:
        yield "What the generator gives is not said (watts)."
    makers = units_of(build, "mains charger", "inverter charger") or units_of(build, "station")
    if (systems.plugged or systems.generator_hours > 0) and any(figures_of(t).charge_w is None for t in makers):
        yield "What the charger on the mains gives is not said."


@keep(power_key, "mode", "sky", most=8)
def stay_of(build: Build, mode: str, sky: str = "") -> Stay:
    """The stay in a mode, under all skies or under one. Never raises: what it cannot answer it says in ``why``."""
    return stay_tried(build, mode, sky)


def stay_tried(build: Build, mode: str, sky: str = "") -> Stay:
    """As ``stay_of``, for many builds that are tried once: nothing is kept of them."""
    brief, systems = build.brief, build.systems
    bank = bank_of(build)
    demand = demand_of(build, mode, systems.plugged)
    nights = min(max(brief.nights_off or USUAL_NIGHTS, 1), MOST_NIGHTS)
    why = []
    if bank is None:
        why.append("There is no battery or power station aboard yet.")
    elif bank.unknown:
        why.append(f"{bank.unknown[0]} has neither amp hours nor watt hours.")
    wp = panels_wp(build)
    if wp > 0 and (brief.latitude_deg is None or not brief.months):
        why.append("Where and when is not said: place and months on Brief tell how much sun there is.")
    if not demand.loads:
        why.append("Nothing aboard runs on power yet.")
    why += _unsaid(build, demand)
    day = darkest_day(brief.latitude_deg, brief.months) if brief.latitude_deg is not None and brief.months else None
    strings: tuple[String, ...] = ()
    reserve = 0.0
    if bank is not None and not why:
        must = np.array([appliance.must_run for appliance in demand.loads])
        if must.any() and not must.all():
            reserve = min(float(demand.wh[must].sum()), RESERVE_MOST * bank.cold_wh)
        strings = tuple([_string(build, bank, demand, reserve, nights, day, each) for each in skies() if sky in ("", each.id)])
    return Stay(
        bank,
        demand,
        reserve_wh=reserve,
        nights=nights,
        nights_said=brief.nights_off is not None,
        day=day,
        panels_wp=wp,
        strings=strings,
        why=tuple(why),
    )


def _string(build: Build, bank: Bank, demand: Demand, reserve: float, nights: int, day: int | None, sky: Sky) -> String:
    hours = nights * HOURS
    clock = (ARRIVES_H + np.arange(hours)) % HOURS
    sun, clipped_sun = _sun(build, day, sky, hours)
    car, generator, mains = _others(build, clock)
    into = sun - clipped_sun + car + generator + mains
    must = np.array([appliance.must_run for appliance in demand.loads], dtype=bool)
    must_wh = demand.wh[must].sum(axis=0)[clock]
    other_wh = demand.wh[~must].sum(axis=0)[clock] + demand.idle_wh[clock]
    coldest = build.brief.coldest
    frost = np.zeros(HOURS, dtype=bool)
    if bank.chemistry == "LFP" and coldest is not None:
        frost = np.array(temperatures_c(coldest.si, bank.outside)) < 0
    run = _run(bank, into, must_wh, other_wh, frost[clock], reserve)
    soc, unserved, clipped, lost, frosted, dark, empty = run
    name = _goes_dark(demand, must, int(clock[dark]), soc[dark] <= TINY_WH) if dark is not None else ""
    return String(
        sky.id,
        sky.name,
        soc_wh=soc,
        sun_wh=sun,
        car_wh=car,
        generator_wh=generator,
        mains_wh=mains,
        out_wh=must_wh + other_wh,
        unserved_wh=unserved,
        clipped_wh=clipped + float(clipped_sun.sum()),
        held_back_wh=float(clipped_sun.sum()),
        lost_wh=lost,
        end_wh=float(soc[-1]),
        hours_to_empty=empty,
        first_dark_h=dark,
        first_dark=name,
        frost_wh=frosted,
    )


def _run(
    bank: Bank, into: Floats, must: Floats, other: Floats, frost: NDArray[np.bool_], reserve: float
) -> tuple[Floats, float, float, float, float, int | None, int | None]:
    """Hour by hour: state of charge [Wh], what was not served, clipped, lost, not taken in frost; first dark and first empty hour."""
    full = bank.cold_wh
    lead = bank.chemistry in ("AGM", "lead")
    most = bank.charge_w if bank.charge_w is not None else float("inf")
    hourly_w = bank.capacity_ah * bank.volts / RATED_H if lead and bank.capacity_ah else 0.0
    soc, unserved, clipped, lost, frosted = full, 0.0, 0.0, 0.0, 0.0
    dark: int | None = None
    empty: int | None = None
    made = []
    for h, (came, wants_must, wants_other, cold) in enumerate(
        zip(into.tolist(), must.tolist(), other.tolist(), frost.tolist(), strict=True)
    ):
        need_must = max(wants_must - came, 0.0)
        left = max(came - wants_must, 0.0)
        need_other = max(wants_other - left, 0.0)
        left = max(left - wants_other, 0.0)
        if need_must + need_other > 0:
            need = need_must + need_other
            hard = (need / hourly_w) ** (PEUKERT - 1) if lead and need > hourly_w > 0 else 1.0
            gives = soc / hard
            must_served = min(need_must, gives)
            other_served = min(need_other, max(gives - must_served - reserve / hard, 0.0))
            missing = need - must_served - other_served
            drawn = (must_served + other_served) * hard
            lost += drawn - must_served - other_served
            soc = max(soc - drawn, 0.0)
            if missing > TINY_WH:
                unserved += missing
                dark = h if dark is None else dark
            if empty is None and soc <= TINY_WH:
                empty = h
        if left > 0:
            if cold:
                frosted += left
                lost += left
            else:
                takes = min(left, most * (TAPER if lead and soc >= TAPER_FROM * full else 1.0))
                stored = min(takes * bank.stores, full - soc)
                used = stored / bank.stores
                soc += stored
                lost += used - stored
                clipped += left - used
        made.append(soc)
    return np.array(made), unserved, clipped, lost, frosted, dark, empty


def _goes_dark(demand: Demand, must: NDArray[np.bool_], hour: int, _all_of_it: bool) -> str:
    """What of all that runs in an hour is missed first: the largest that need not run, or the largest of all."""
    order = sorted(range(len(demand.loads)), key=lambda row: -float(demand.wh[row, hour]))
    running = [row for row in order if demand.wh[row, hour] > 0]
    first = [row for row in running if not must[row]]
    chosen = first or running
    return demand.loads[chosen[0]].name if chosen else ""


def _sun(build: Build, day: int | None, sky: Sky, hours: int) -> tuple[Floats, Floats]:
    """What the panels that reach a battery give by the hour of the stay, and what the controllers cannot pass on [Wh]."""
    latitude = build.brief.latitude_deg
    nothing = np.zeros(hours)
    if day is None or latitude is None:
        return nothing, nothing
    clock = (ARRIVES_H + np.arange(hours)) % HOURS
    of_day = (ARRIVES_H + np.arange(hours)) // HOURS
    given, held = np.zeros(hours), np.zeros(hours)
    skies_of = [sky.of_day(n) for n in range(int(of_day[-1]) + 1)]
    rows = strung(build)
    for string in strings_arriving(build):
        by_k = {k: _of_a_day(build, string.panels, rows, latitude, day, k) for k in set(skies_of)}
        gives = np.array([by_k[skies_of[n]][hour] for n, hour in zip(of_day.tolist(), clock.tolist(), strict=True)])
        given += gives
        if string.limit_w is not None:
            held += np.maximum(gives - string.limit_w, 0.0)
    return given, held


def _of_a_day(build: Build, panels: tuple[Thing, ...], rows: tuple[Strung, ...], latitude: float, day: int, k: float) -> Floats:
    """What panels give in the hours of a day under one sky [Wh], shape (24,)."""
    lit = {
        thing.id: np.array(on_panel_hours(latitude, day, k, f.tilt_deg or 0.0, f.azimuth_deg or 0.0)) * (1 - shade_on(build, thing))
        for thing, f in ((thing, figures_of(thing)) for thing in panels)
    }
    return np.asarray(lit_w(panels, rows, lit) * DIRT_AND_HEAT)


def own_shade(build: Build, id: str) -> tuple[float, ...] | None:
    """The shade that a panel has of its own, by the hour; None where it has that of all."""
    return next((each.shade for each in build.systems.shaded if each.id == id), None)


def shade_on(build: Build, panel: Thing) -> Floats:
    """Shade on a panel by the hour of the sun, shape (24,), 0 to 1: its own where it has one, else that of all."""
    own, common = own_shade(build, panel.id), build.systems.shade
    told = own if own is not None and len(own) == HOURS else common
    return np.array(told, dtype=float) if len(told) == HOURS else np.zeros(HOURS)


def _others(build: Build, clock: NDArray[np.int64]) -> tuple[Floats, Floats, Floats]:
    """What comes from the car, a generator and a hookup by the hour of the stay [Wh]."""
    systems, gives = build.systems, given_w(build)
    car = gives.car_w * _from(DRIVES_FROM_H, systems.drive_hours)[clock]
    generator = gives.generator_w * _from(GENERATOR_FROM_H, systems.generator_hours)[clock]
    mains = np.full(len(clock), gives.hookup_w if systems.plugged else 0.0)
    return car, generator, mains


class Given(msgspec.Struct, frozen=True):
    """What each source but the sun puts into the batteries while it is there [W]; 0 where it has no way to them."""

    car_w: float
    generator_w: float
    hookup_w: float


def given_w(build: Build) -> Given:
    """What car, generator and hookup put in, each by its chargers and by what it has itself."""
    systems = build.systems
    car_ids = charging_ids(build, ("car charger",))
    car = sum((figures_of(t).charge_w or 0.0) for t in units_of(build, "car charger") if t.id in car_ids)
    fed = by_mains_ids(build)
    chargers = sum(figures_of(t).charge_w or 0.0 for t in units_of(build, *BY_MAINS) if t.id in fed)
    volts = mains_v(build.brief)
    hookup = (systems.hookup_a or HOOKUP_A["120" if volts < 200 else "230"]) * volts
    return Given(car, min((systems.generator_w or 0.0) * CHARGER_ETA, chargers), min(chargers, hookup * CHARGER_ETA))


def _from(hour: int, hours: float) -> Floats:
    """Share of each hour that is run from an hour of the day on, shape (24,)."""
    shares = np.clip(hours - (np.arange(HOURS) - hour) % HOURS, 0.0, 1.0)
    return np.asarray(shares)


def lasts_h(bank: Bank, watts: float, ac: bool, idle_w: float) -> float:
    """How long the bank alone runs one load [h]. Source: Peukert for lead, else energy over power."""
    drawn = watts / INVERTER_ETA + idle_w if ac else watts
    if drawn <= 0:
        return float("inf")
    hours = bank.cold_wh / drawn
    if bank.chemistry in ("AGM", "lead") and bank.capacity_ah:
        hourly_w = bank.capacity_ah * bank.volts / RATED_H
        if drawn > hourly_w:
            hours /= (drawn / hourly_w) ** (PEUKERT - 1)
    return hours
