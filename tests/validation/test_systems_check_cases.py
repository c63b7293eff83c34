"""The trade's check cases of power and wiring.

Sun: Duffie and Beckman, Solar Engineering of Thermal Processes. Wire: Ohm's law with copper of 0.0175 ohm mm2/m. Lead: Peukert.
"""

import math
from typing import Any

import numpy as np
import pytest

from tests.builders import a_build, a_thing
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.quantity import Temperature
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.document.systems import Load, Systems
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.studies.systems import sun
from uncle_sled.core.studies.systems.bank import bank_of, cold_share, fault_a, inverter_a
from uncle_sled.core.studies.systems.panel_strings import VOLTS_IN_HAND, string_v, strung
from uncle_sled.core.studies.systems.stay import lasts_h, stay_of
from uncle_sled.core.wiring.conductors import AWG, METRIC, Run, breaking_type, choose, derating, drop_v, fuse_for

WHEN: list[Any] = ["any", "day", "night"]
LFP_100 = Figures(unit="battery", chemistry="LFP", amp_hours=100.0, volts=12.8)


@pytest.mark.parametrize(
    ("latitude", "day", "kwh"), [(52, 105, 8.534), (45, 172, 11.648), (45, 355, 2.898), (-36, 15, 12.061), (60, 355, 0.586)]
)
def test_daily_sum_outside_the_air(latitude, day, kwh):
    assert sun.outside_kwh_m2(latitude, day) == pytest.approx(kwh, abs=0.001)


def day_kwh_m2(*where):
    return sum(sun.on_panel_hours(*where))


def test_a_flat_panel_under_three_skies():
    flat = [160 * 0.75 * day_kwh_m2(52, 105, k) for k in (0.70, 0.45, 0.20)]

    assert flat == pytest.approx([717, 461, 205], abs=1.5)


CLEAR = (  # an independent clear-sky model's range on the flat and 60 degrees to the equator [kWh/m2 a day]
    (35, 355, (2.79, 3.09), (5.2, 6.3)),
    (35, 172, (8.2, 8.7), (5.1, 5.2)),
    (45, 355, (1.53, 1.75), (3.7, 4.9)),
    (45, 80, (4.95, 5.35), (6.4, 7.1)),
    (45, 172, (8.1, 8.6), (6.0, 6.2)),
    (52, 355, (0.75, 0.91), (2.3, 3.4)),
    (52, 80, (4.2, 4.5), (6.1, 7.0)),
    (52, 172, (8.0, 8.5), (6.5, 6.8)),
)


@pytest.mark.parametrize("latitude, day, flat, steep", CLEAR)
def test_a_clear_day_lies_within_an_independent_clear_sky_model(latitude, day, flat, steep):
    assert flat[0] <= day_kwh_m2(latitude, day, 0.70) <= flat[1]
    assert steep[0] <= day_kwh_m2(latitude, day, 0.70, 60) <= steep[1]
    south = (day + 182) % 365  # the same sun in the other half of the world, half a year on
    assert day_kwh_m2(-latitude, south, 0.70, 60) == pytest.approx(day_kwh_m2(latitude, day, 0.70, 60), rel=0.09)


def test_a_panel_turned_away_gives_less_and_later():
    midday, evening, away = (np.array(sun.on_panel_hours(45, 80, 0.70, 60, turn)) for turn in (0, 90, 180))
    assert midday.sum() > evening.sum() > away.sum() > 0
    assert midday == pytest.approx(midday[::-1]) and evening[13:].sum() > 2 * evening[:11].sum()
    assert sun.on_panel_hours(45, 80, 0.70, 60, -90) == pytest.approx(tuple(evening[::-1]))


def test_the_hours_of_a_day_sum_to_it_and_are_symmetric_about_noon():
    for latitude, day in ((52, 105), (-36, 15), (0, 80), (66, 172)):
        shares = sun.hour_shares(latitude, day)
        assert shares.sum() == pytest.approx(1.0) and shares[:12] == pytest.approx(shares[:11:-1])
    assert sun.hour_shares(80, 355).sum() == 0.0  # it does not rise
    assert sun.outside_kwh_m2(80, 355) == 0.0
    with pytest.raises(GeometryError, match="95"):
        sun.outside_kwh_m2(95, 10)
    with pytest.raises(GeometryError, match=r"0\.8"):
        day_kwh_m2(45, 10, 0.9)


def test_a_wire_by_drop_then_by_its_fuse():
    assert drop_v(5, 10, 4.86, 36) == pytest.approx(0.36, abs=0.0005)
    assert drop_v(5, 10, 5.6, 15) == pytest.approx(0.36, abs=0.004)  # warm, for it is loaded over half
    metric = choose(Run(5, 10, 12, 0.03), "building", 1.0, METRIC)
    american = choose(Run(5, 10, 12, 0.03), "building", 1.0, AWG)

    assert metric.size.name == "6 mm²" and metric.drop_v == pytest.approx(0.292, abs=0.001)
    assert metric.drop_v / 12 == pytest.approx(0.0243, abs=0.0001) and metric.fuse_a == 15.0
    assert american.size.name == "AWG 10" and american.fuse_a == 15.0


def test_a_wire_loaded_over_half_is_warmer():
    assert drop_v(5, 10, 6, 36) == pytest.approx(2 * 5 * 10 * 0.0175 / 6)
    assert drop_v(5, 20, 6, 36) == pytest.approx(2 * 5 * 20 * 0.0203 / 6)


def test_an_inverter_at_the_low_battery():
    amps = inverter_a(2000, 12, "LFP", 0.88)
    assert amps == pytest.approx(207, abs=0.5) and 1.25 * amps == pytest.approx(258, abs=1)
    made = choose(Run(1.0, amps, 12, 0.03), "vehicle", 1.0, METRIC)
    assert made.size.name == "70 mm²" and made.fuse_a == 300.0
    assert choose(Run(1.0, amps, 12, 0.03), "building", 1.0, METRIC).size is None  # on the cautious table there is no answer
    double = inverter_a(2000, 24, "LFP", 0.88)
    assert double == pytest.approx(103, abs=0.5) and fuse_for(double, math.inf, False) == 150.0


def test_fuses_derating_and_what_breaks_a_short():
    assert fuse_for(10, 36, False) == 15.0 and fuse_for(10, 36, True) == 15.0 and fuse_for(11, 36, True) == 20.0
    assert fuse_for(30, 36, False) is None  # 40 A is over the wire
    assert derating(5, 0.0, False) == 0.7 and derating(10, 0.1, True) == pytest.approx(0.6 * 0.78 * 0.85)
    assert derating(1, 0.3, False) == pytest.approx(0.57) and derating(1, 3.0, False) == 0.5
    short = fault_a(100, "LFP", 12, 1.0, 35)
    assert short == pytest.approx(2560, abs=10) and breaking_type(short) == "terminal block, 10 kA"
    assert breaking_type(900) == "blade" and breaking_type(50_000) == ""


@pytest.mark.parametrize(("watts", "hours"), [(60, 10.0), (240, 1.895), (600, 0.631)])
def test_lead_at_a_hard_draw(watts, hours):
    """100 Ah of lead at 12 V, half of it to use: 600 Wh; its rating is for 60 W over 20 hours, P times as much lasts P^0.2 less long."""
    lead = Figures(unit="battery", amp_hours=100.0, volts=12.0, chemistry="lead", depth=0.5)
    bank = bank_of(a_build([a_thing("b1", figures=lead)], brief=Brief(coldest=Temperature(25.0))))
    assert lasts_h(bank, watts, False, 0.0) == pytest.approx(hours, abs=0.001)


def test_batteries_in_the_cold():
    assert [cold_share("LFP", t) for t in (20, 0, -10, -20)] == [1.0, 0.9, 0.8, 0.6]
    assert cold_share("lead", 25) == 1.0 and cold_share("AGM", 0) == pytest.approx(0.8)


def test_cold_panels_pass_the_controller():
    assert string_v(41, 2, 0.29, -15) == pytest.approx(91.5, abs=0.05)
    assert string_v(41, 2, 0.29, -15) * VOLTS_IN_HAND == pytest.approx(96.1, abs=0.1)
    things = [
        a_thing("p1", figures=Figures(unit="panel", solar_wp=400, voc_v=41, beta_pct_k=0.29)),
        a_thing("c1", figures=Figures(unit="solar charger", charge_w=400, most_v=85)),
    ]
    (found,) = strung(a_build(things, brief=Brief(coldest=Temperature(-15.0)), systems=Systems(panels_in_series=2)))
    assert found.open_v == pytest.approx(91.5, abs=0.05) and found.fits is False


CHECK = tuple(
    Load(f"ld{at}", f"Load {at}", power_w=watts, hours_day=hours)
    for at, (watts, hours) in enumerate(((45, 8), (12, 4), (20, 6), (60, 0.2), (15, 3)), 1)
)


def test_the_day_of_the_check_case_and_how_long_it_lasts():
    brief = Brief(latitude_deg=52, months=(4,), nights_off=14)
    things = [a_thing("b1", figures=LFP_100), a_thing("p1", figures=Figures(unit="panel", solar_wp=160))]
    build = a_build(things, brief=brief, systems=Systems(loads=CHECK))
    stay = stay_of(build, "camp")

    assert stay.demand.daily_wh == pytest.approx(585) and stay.bank.usable_wh == pytest.approx(1152)
    daily = 160 * 0.75 * day_kwh_m2(52, 105, 0.45)
    assert 1152 / (585 - daily) == pytest.approx(9.3, abs=0.05)
    dark = {one.id: one.first_dark_h for one in stay.strings}
    assert dark["clear"] is None
    assert 2.5 * 24 < dark["dull"] < 3.7 * 24  # 3.0 days by the sums, through the nights
    assert 5 * 24 < dark["mixed"] < 9.3 * 24  # sooner than the sums: dull days come first, and storing loses


def test_a_kettle_and_an_inverter_that_idles():
    kettle = Load("ld9", "Kettle", power_w=600, hours_day=0.25, current="AC")
    things = [a_thing("b1", figures=LFP_100), a_thing("i1", figures=Figures(unit="inverter", power_w=1000, idle_w=12, hours_day=4))]
    build = a_build(things, brief=Brief(nights_off=3), systems=Systems(loads=(*CHECK, kettle)))
    stay = stay_of(build, "camp")

    assert stay.demand.daily_wh - 585 == pytest.approx(218, abs=0.5)
    assert stay.strings[0].hours_to_empty / 24 == pytest.approx(1.43, abs=0.05)


def test_an_air_conditioner_on_two_kilowatt_hours():
    things = [a_thing("b1", figures=Figures(unit="station", chemistry="LFP", store_wh=2000, power_w=2000))]
    bank = bank_of(a_build(things))
    hours = lasts_h(bank, 650, True, 12)
    assert hours == pytest.approx(2000 / (650 / 0.88 + 12)) == pytest.approx(2.66, abs=0.01)
    assert 0.9 * hours == pytest.approx(2.4, abs=0.01)  # of 2 kWh as sold, nine tenths are used


def test_a_wire_from_the_car_alone_does_not_fill_a_battery():
    assert drop_v(7, 15, 2.5, 1e9) == pytest.approx(1.47, abs=0.005)  # cool copper
    assert pytest.approx(707, abs=1) == 20 * 3 * 0.92 * 12.8


@pytest.mark.parametrize("seed", range(30))
def test_all_energy_is_accounted_for_over_random_stays(seed):
    """In and what was there = served, left, lost and clipped, to 0.1 %."""
    random = np.random.default_rng(seed)
    chemistry: Any = str(random.choice(["LFP", "AGM", "lead"]))
    battery = Figures(
        unit="battery", chemistry=chemistry, amp_hours=float(random.uniform(40, 400)), volts=12.0, charge_w=float(random.uniform(100, 900))
    )
    things = [
        a_thing("b1", figures=battery),
        a_thing("p1", figures=Figures(unit="panel", solar_wp=float(random.uniform(50, 900)))),
        a_thing("c1", figures=Figures(unit="solar charger", charge_w=float(random.uniform(80, 600)))),
        a_thing("c2", figures=Figures(unit="car charger", charge_w=240.0)),
    ]
    loads = tuple(
        Load(
            f"ld{k}",
            f"Load {k}",
            power_w=float(random.uniform(5, 300)),
            hours_day=float(random.uniform(0.2, 12)),
            when=random.choice(WHEN),
            must_run=bool(random.random() < 0.3),
        )
        for k in range(int(random.integers(1, 9)))
    )
    systems = Systems(loads=loads, drive_hours=float(random.uniform(0, 4)), shade=tuple(random.uniform(0, 0.6, 24)))
    brief = Brief(
        latitude_deg=float(random.uniform(-60, 60)),
        months=(int(random.integers(1, 13)),),
        nights_off=int(random.integers(1, 14)),
        coldest=Temperature(float(random.uniform(-15, 15))),
    )
    stay = stay_of(a_build(things, brief=brief, systems=systems), "camp")

    assert len(stay.strings) == 3
    for one in stay.strings:
        came = float((one.sun_wh + one.car_wh + one.generator_wh + one.mains_wh).sum())
        served = float(one.out_wh.sum()) - one.unserved_wh
        start = stay.bank.cold_wh
        assert came + start == pytest.approx(served + one.end_wh + one.lost_wh + one.clipped_wh, rel=1e-3)
        assert (one.soc_wh >= -1e-9).all() and (one.soc_wh <= start + 1e-9).all()
        assert (one.unserved_wh > 1e-6) == (one.first_dark_h is not None)
