"""A battery's record by the hour, and what it teaches of the loads: by hand, against a solver of another kind, on paper and back."""

import msgspec
import numpy as np
import pytest

from tests.builders import METRIC
from tests.core.test_systems import a_plant
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.road import HourDrawn, Road, Trip
from uncle_sled.core.document.systems import Load, Systems
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.road.loads_taught_chart import hours_plot, loads_rows, loads_taught_words
from uncle_sled.core.studies.road.loads_taught import loads_taught, measured_w, taught_ops
from uncle_sled.core.studies.systems.stay import demand_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.battery_record import read_record


def a_build_with(*drawn, loads=None):
    lines = loads or (Load("a", "All day", power_w=24.0, hours_day=24.0), Load("n", "By night", power_w=20.0, hours_day=6.0, when="night"))
    build = msgspec.structs.replace(a_plant(systems=Systems(loads=lines)), stow=msgspec.structs.replace(a_plant().stow, things=()))
    trips = (Trip("t1", "Trip", drawn=tuple(HourDrawn(*cell) for cell in drawn)),)
    return msgspec.structs.replace(build, road=Road(trips=trips))


def taught(build):
    return loads_taught(build, build.stow.modes[0].id)


def test_one_load_and_one_hour_by_hand():
    """24 W all day, recorded 36 W at noon. Prior 1 with 0.3; the meter 3.6 + 5 = 8.6 W. Gain 0.09 x 24 / (24^2 x 0.09 + 8.6^2) = 0.01717;
    factor 1 + 0.01717 x 12 = 1.206; its doubt 0.3 sqrt(1 - 0.01717 x 24) = 0.2300. 576 Wh a day become 694.7 with 132.5 of doubt.
    """
    build = a_build_with((12, 36.0, 1.0), loads=(Load("a", "All day", power_w=24.0, hours_day=24.0),))
    made = taught(build)
    (load,) = made.loads
    gain = 0.09 * 24 / (576 * 0.09 + 8.6**2)
    assert gain == pytest.approx(0.01717, abs=2e-5)
    assert load.factor == pytest.approx(1 + gain * 12)
    assert load.after_wh == pytest.approx(576 * (1 + gain * 12))
    assert load.sigma_wh == pytest.approx(576 * 0.3 * np.sqrt(1 - gain * 24))
    assert load.sigma_before_wh == pytest.approx(576 * 0.3)
    assert made.after_w == pytest.approx(np.full(24, 24 * load.factor))


def test_hours_tell_apart_what_runs_at_other_times_and_say_what_they_cannot():
    """By day 24 W, by night 24 + 10 W planned; recorded 24 and 54: the night's load is thrice what was said, the other as it was."""
    night = [hour for hour in range(24) if hour not in range(8, 20)]
    cells = [(hour, 54.0 if hour in night else 24.0, 40.0) for hour in range(24)]
    made = taught(a_build_with(*cells))
    by = {load.id: load for load in made.loads}
    assert by["a"].factor == pytest.approx(1.0, abs=0.2)
    assert by["n"].factor > 1.8
    assert made.apart == ()
    same = (Load("a", "First", power_w=24.0, hours_day=24.0), Load("b", "Second", power_w=20.0, hours_day=24.0))
    twins = taught(a_build_with(*[(hour, 60.0, 40.0) for hour in range(24)], loads=same))
    assert twins.apart == (("First", "Second"),)
    assert any("First and Second" in line for line in loads_taught_words(twins))
    assert sum(load.after_wh for load in twins.loads) == pytest.approx(60 * 24, rel=0.05)


def test_the_factors_are_the_least_of_the_same_sum_of_squares():
    """Against a descent of the same sum by a solver of another kind: gradient steps from 1."""
    rng = np.random.default_rng(3)
    cells = [(hour, float(rng.uniform(15, 70)), 10.0) for hour in range(24)]
    build = a_build_with(*cells)
    demand = demand_of(build, build.stow.modes[0].id, mains=False)
    saw = np.array([watts for _, watts, _ in cells])
    a, sigma = demand.wh.T, 0.1 * saw + 5.0
    factors = np.ones(len(demand.loads))
    for _ in range(20_000):
        slope = (factors - 1) / 0.09 + a.T @ ((a @ factors - saw) / sigma**2)
        factors = factors - 2e-3 * slope
    assert [load.factor for load in taught(build).loads] == pytest.approx(factors.tolist(), abs=1e-4)


def test_taking_the_hours_makes_the_plan_what_was_taught_and_teaches_little_more():
    cells = [(hour, 40.0, 100.0) for hour in range(24)]
    build = a_build_with(*cells)
    made = taught(build)
    after = apply(build, taught_ops(build, made))
    again = taught(after)
    assert [load.before_wh for load in again.loads] == pytest.approx([load.after_wh for load in made.loads], rel=2e-3)
    error = lambda one: float(np.abs(one.planned_w - 40.0).max())
    assert error(again) < error(made)
    assert after.systems.loads[1].hours_day < 6.0
    assert after.systems.loads[0].hours_day == 24.0
    assert after.systems.loads[0].power_w > 30.0
    halves = (Load("a", "All day", power_w=24.0, hours_day=24.0, duty=0.5),)
    busy = a_build_with(*[(hour, 20.0, 100.0) for hour in range(24)], loads=halves)
    now = apply(busy, taught_ops(busy, taught(busy))).systems.loads[0]
    assert now.hours_day == 24.0
    assert now.duty > 0.5


def test_what_an_inverter_draws_idle_is_none_of_the_loads():
    """An inverter idles at 12 W for as long as the kettle boils, spread over the day: recorded is all of that and the loads, so nothing is taught."""
    build = a_plant()
    mode = build.stow.modes[0].id
    demand = demand_of(build, mode, mains=False)
    assert demand.idle_wh.sum() > 0
    whole = demand.wh.sum(axis=0) + demand.idle_wh
    trip = Trip("t1", "Trip", drawn=tuple(HourDrawn(hour, float(whole[hour]), 5.0) for hour in range(24)))
    made = loads_taught(msgspec.structs.replace(build, road=Road(trips=(trip,))), mode)
    assert [load.factor for load in made.loads] == pytest.approx([1.0] * len(made.loads))


def test_what_is_missing_is_said():
    assert "No trip" in taught(a_build_with()).why
    blank = a_build_with((12, 30.0, 1.0), loads=(Load("a", "Lamp", power_w=5.0),))
    assert "Lamp has no watts or hours" in taught(blank).why
    assert taught_ops(blank, taught(blank)) == ()
    trips = (Trip("t1", "One", drawn=(HourDrawn(3, 10.0, 1.0),)), Trip("t2", "Two", drawn=(HourDrawn(3, 40.0, 3.0),)))
    both = msgspec.structs.replace(a_build_with(), road=Road(trips=trips))
    assert measured_w(both)[3] == pytest.approx(32.5)
    assert np.isfinite(measured_w(both)).sum() == 1
    none = taught(a_build_with((12, 0.0, 1.0)))
    assert all(load.factor > 0 for load in none.loads)


def test_a_record_is_read_by_the_hour_without_the_hours_that_charge(tmp_path):
    """Every ten minutes: 30 W through the night, at nine the sun puts 50 W in, from ten on 60 W are drawn; watts change evenly between."""
    lines = ["time,watts"]
    for day in (1, 2):
        for step in range(6 * 12):
            hour = step // 6
            watts = 30 if hour < 9 else -50 if hour == 9 else 60
            lines.append(f"2027-05-0{day} {hour:02d}:{10 * (step % 6):02d},{watts}")
    file = tmp_path / "record.csv"
    file.write_text("\n".join(lines))
    read = read_record(file)
    told = {hour: (watts, hours) for hour, watts, hours in read.drawn}
    assert told[3] == (pytest.approx(30.0), pytest.approx(2.0))
    assert told[11] == (pytest.approx(60.0), pytest.approx(10 / 6, abs=1e-3))
    assert 9 not in told
    assert 8 not in told  # its last ten minutes run over into the sun
    assert 10 in told
    assert 15 not in told
    assert "hours of the day without charging are known" in read.says()


def test_drawings_show_every_load_every_hour_and_their_doubt():
    made = taught(a_build_with(*[(hour, 50.0, 9.0) for hour in range(12)]))
    texts = [shape.text for shape in loads_rows(made, Words(METRIC), 400, 200) if isinstance(shape, Text)]
    assert {"All day", "By night"} <= set(texts)
    assert any("→" in text for text in texts)
    assert any("±" in text for text in texts)
    assert hours_plot(made, 400, 200)
    assert hours_plot(taught(a_build_with()), 400, 200) == ()
    assert loads_rows(taught(a_build_with()), Words(METRIC), 400, 200) == ()
    assert "12 hours of the day are recorded" in loads_taught_words(made)[0]
