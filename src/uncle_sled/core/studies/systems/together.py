"""May two loads run together? Against inverter, its start, the battery, the breaker and the hookup."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.studies.systems.bank import bank_of, inverter_a
from uncle_sled.core.studies.systems.stay import lasts_h
from uncle_sled.core.wiring.appliances import INVERTER_ETA, Runs, figures_of, left_off, loads_of, mains_v, units_of
from uncle_sled.core.wiring.network import HOOKUP_A

SMALL_W = 100.0  # direct current under this troubles nobody
MOST = 12


class Meeting(msgspec.Struct, frozen=True):
    """Two loads (or one alone, both the same): whether they go together, None where not known, and by what."""

    one: str
    other: str
    fits: bool | None
    why: str


class Together(msgspec.Struct, frozen=True):
    """Loads that matter, the largest first, and all their pairs; lasts_h: how long the bank alone runs each."""

    loads: tuple[Runs, ...]
    pairs: tuple[Meeting, ...]
    lasts_h: tuple[float | None, ...]
    source: str  # what mains comes from: hookup, inverter, station or nothing

    def of(self, one: str, other: str) -> Meeting | None:
        """What two loads do at once; None where one of them does not matter."""
        wanted = {one, other}
        return next((pair for pair in self.pairs if {pair.one, pair.other} == wanted), None)


def together_of(build: Build, mode: str) -> Together:
    """All pairs of the loads that matter: what runs on mains, and direct current over 100 W."""
    off = left_off(build.systems, mode, stay=True)
    loads = [run for run in loads_of(build) if run.id not in off and (run.ac or (run.power_w or 0.0) >= SMALL_W or run.power_w is None)]
    loads = sorted(loads, key=lambda run: (-(run.power_w or 0.0), run.id))[:MOST]
    bank = bank_of(build)
    idle = next((figures_of(t).idle_w or 0.0 for t in units_of(build, "inverter", "inverter charger", "station")), 0.0)
    source = _source(build)
    pairs = []
    for at, appliance in enumerate(loads):
        for other in loads[at:]:
            both = (appliance,) if appliance is other else (appliance, other)
            pairs.append(_meeting(build, both, source))
    lasts = tuple(None if bank is None or run.power_w is None else lasts_h(bank, run.power_w * run.duty, run.ac, idle) for run in loads)
    return Together(tuple(loads), tuple(pairs), lasts, source)


def _source(build: Build) -> str:
    if build.systems.plugged:
        return "hookup"
    if units_of(build, "inverter", "inverter charger"):
        return "inverter"
    return "station" if units_of(build, "station") else ""


def _meeting(build: Build, both: tuple[Runs, ...], source: str) -> Meeting:
    appliance, other = both[0], both[-1]

    def says(fits: bool | None, why: str) -> Meeting:
        return Meeting(appliance.id, other.id, fits, why)

    unknown = next((load for load in both if load.power_w is None), None)
    if unknown is not None:
        return says(None, f"{unknown.name} has no watts")
    ac = [load for load in both if load.ac]
    watts = sum(load.power_w or 0.0 for load in ac)
    if ac and not source:
        return says(fits=False, why="nothing aboard makes mains")
    if ac and source == "hookup":
        volts = mains_v(build.brief)
        limit = build.systems.hookup_a or HOOKUP_A["120" if volts < 200 else "230"]
        amps = watts / volts
        if amps > limit + 1e-9:
            return says(fits=False, why=f"{amps:.1f} A of the hookup's {limit:g} A")
        return says(fits=True, why=f"{amps:.1f} A of the hookup's {limit:g} A")
    why = ""
    if ac:
        makers = [figures_of(t) for t in units_of(build, "inverter", "inverter charger", "station")]
        rating = max((f.power_w for f in makers if f.power_w is not None), default=None)
        if rating is None:
            return says(None, "the inverter has no rating")
        if watts > rating + 1e-9:
            return says(fits=False, why=f"{watts:.0f} W of the inverter's {rating:.0f} W")
        surge = max((f.surge or 1.0 for f in makers if f.power_w == rating), default=1.0) * rating
        hardest = max(ac, key=lambda load: (load.power_w or 0.0) * (load.surge - 1))
        start = watts + (hardest.power_w or 0.0) * (hardest.surge - 1)
        if start > surge + 1e-9:
            return says(fits=False, why=f"{hardest.name} starts: {start:.0f} W of {surge:.0f} W for a moment")
        why = f"{watts:.0f} W of the inverter's {rating:.0f} W"
    bank = bank_of(build)
    if bank is not None and bank.limit_a is not None and source != "station":
        direct = sum(load.power_w or 0.0 for load in both if not load.ac)
        amps = inverter_a(watts, bank.volts, bank.chemistry, INVERTER_ETA) + direct / bank.volts
        if amps > bank.limit_a + 1e-9:
            return says(fits=False, why=f"{amps:.0f} A of the battery's {bank.limit_a:.0f} A")
        why = why or f"{amps:.0f} A of the battery's {bank.limit_a:.0f} A"
    return says(fits=True, why=why or "nothing stands against it")
