"""How long does what has a battery of its own run alone, what does filling it take, and when is that best done?

Alone: what it holds over what it draws. From empty: what it holds over ``PACK_ETA`` over its charger's watts. A day puts in what
its hours of filling let; where that is less than a day's use it is empty when the difference has eaten what it held. The bank
from empty by each source: what it holds over what it stores of a source's watts; lead takes its last fifth at a fifth of them.
Source: energy over power; efficiencies are estimates and are said.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.systems.bank import TAPER, TAPER_FROM, Bank
from uncle_sled.core.studies.systems.stay import ARRIVES_H, Stay, given_w, power_key, stay_of
from uncle_sled.core.studies.systems.sun import HOURS
from uncle_sled.core.wiring.appliances import INVERTER_ETA, PACK_ETA, OwnBattery, Runs, all_that_runs, filling_hours, left_off, units_of


class OnItsOwn(msgspec.Struct, frozen=True):
    """One thing with a battery of its own; None where nobody said what it hangs on (``unsaid``).

    alone_h: hours of running on one filling; fill_h: of its charger from empty; day_fill_h: for a day's use; there_h: hours a day
    in which it can be filled; fill_wh: at its plug, from empty; bank_wh: that at the battery, an inverter's loss with it;
    empty_days: after how many it is empty, None where it never is or where nobody knows.
    """

    id: str
    name: str
    battery: OwnBattery
    ac: bool
    alone_h: float | None
    fill_h: float | None
    day_fill_h: float | None
    there_h: float
    fill_wh: float
    bank_wh: float
    empty_days: float | None
    unsaid: str


class BankFills(msgspec.Struct, frozen=True):
    """The bank's own figures. alone_days: at what runs, with nothing coming in; None where nothing runs.

    from_empty_h: each source by its name and the hours it takes, with nothing running; sun_days: of the sky that is shown;
    sun_known: False where there are panels and nobody can tell what they bring.
    """

    station: bool
    alone_days: float | None
    from_empty_h: tuple[tuple[str, float], ...]
    sun_days: float | None
    sun_known: bool


class OwnBatteries(msgspec.Struct, frozen=True):
    """All of them, the bank where there is one, and the hours of a clear first day in which sun is over."""

    things: tuple[OnItsOwn, ...]
    bank: BankFills | None
    over_h: tuple[int, ...]


@keep(power_key, "mode", "sky", most=6)
def own_batteries(build: Build, mode: str, sky: str) -> OwnBatteries:
    """Of a build in a mode under a sky. Never raises: what nobody said stands at each thing."""
    off = left_off(build.systems, mode, stay=True)
    things = tuple([_alone(run, build) for run in all_that_runs(build) if run.battery is not None and run.id not in off])
    stay = stay_of(build, mode)
    return OwnBatteries(things, _bank(build, stay, sky), hours_over(stay, sky))


def _alone(run: Runs, build: Build) -> OnItsOwn:
    own = run.battery
    assert own is not None
    fill_wh = own.holds_wh / PACK_ETA
    charge = own.charge_w or 0.0
    use = own.use_wh
    there = filling_hours(own.filled, build.systems)
    return OnItsOwn(
        run.id,
        run.name,
        battery=own,
        ac=run.ac,
        alone_h=own.holds_wh / own.use_w if own.use_w else None,
        fill_h=fill_wh / charge if charge > 0 else None,
        day_fill_h=use / PACK_ETA / charge if charge > 0 and use is not None else None,
        there_h=there,
        fill_wh=fill_wh,
        bank_wh=fill_wh / (INVERTER_ETA if run.ac else 1.0),
        empty_days=empty_after(own, there) if not run.unsaid else None,
        unsaid=run.unsaid,
    )


def empty_after(own: OwnBattery, there_h: float) -> float | None:
    """Days until a battery of its own is empty, full at the start; None where it never is.

    Check 60 Wh, 20 Wh a day, never filled: 3 days; 60 Wh, 80 Wh a day however it is filled: 0.75 days.
    """
    use = own.use_wh or 0.0
    if use <= 0:
        return None
    if use > own.holds_wh:
        return own.holds_wh / use
    missing = use - there_h * (own.charge_w or 0.0) * PACK_ETA
    return own.holds_wh / missing if missing > 1e-9 else None


def hours_over(stay: Stay, sky: str) -> tuple[int, ...]:
    """Hours of the first whole day, by the sun, in which the panels give more than all that is drawn."""
    string = stay.of(sky)
    if string is None:
        return ()
    over = (string.sun_wh - string.out_wh)[:HOURS] > 0
    return tuple(sorted([(ARRIVES_H + h) % HOURS for h in range(len(over)) if over[h]]))


def from_empty_h(bank: Bank, watts: float) -> float | None:
    """Hours from empty to full on so many watts, with nothing running; None where nothing comes in.

    Check LFP of 1000 Wh on 400 W: 1000 / 0.95 / 400 = 2.63 h; AGM of 600 Wh on 240 W: 600 x (0.8 + 0.2 / 0.2) / 0.85 / 240 = 5.29 h.
    """
    most = min(watts, bank.charge_w) if bank.charge_w is not None else watts
    if most <= 0:
        return None
    lead = bank.chemistry in ("AGM", "lead")
    slow = TAPER_FROM + (1 - TAPER_FROM) / TAPER if lead else 1.0
    return bank.cold_wh * slow / bank.stores / most


def _bank(build: Build, stay: Stay, sky: str) -> BankFills | None:
    bank = stay.bank
    if bank is None or bank.unknown:
        return None
    gives = given_w(build)
    told = (("the hookup", gives.hookup_w), ("the car", gives.car_w), ("the generator", gives.generator_w))
    hours = [(name, from_empty_h(bank, watts)) for name, watts in told]
    string = stay.of(sky)
    a_day = float(string.sun_wh.sum()) / max(stay.nights, 1) if string is not None else 0.0
    daily = stay.demand.daily_wh
    return BankFills(
        station=bool(units_of(build, "station")),
        alone_days=bank.cold_wh / daily if daily > 0 and not stay.demand.unknown else None,
        from_empty_h=tuple([(name, each) for name, each in hours if each is not None]),
        sun_days=bank.cold_wh / bank.stores / a_day if a_day > 0 else None,
        sun_known=string is not None or stay.panels_wp <= 0,
    )
