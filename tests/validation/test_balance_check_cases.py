"""The check cases of the trade's balance arithmetic, and closed forms computed here.

Source: moments about the axle, any statics text; expected values are worked by hand.
"""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import a_bed, a_build, a_rig, a_tank, a_thing
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass, Stiffness
from uncle_sled.core.document.rig import Axle
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.parts.support import Support, independent_axle_loads_kg, support_of
from uncle_sled.core.reading.balance import balance
from uncle_sled.core.reading.load_cases import mass_table
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.axle_placing import axle_placing, tongue_at_stations
from uncle_sled.core.studies.balance.moves import slide_window_m


def test_check_case_1_two_masses_through_a_whole_build():
    rig = a_rig(axle=3.0, frame=500.0, frame_cg=2.0, axles=(Axle("a1", Length(3.0)),))
    s = study(a_build([a_thing(mass=300.0, x=3.8)], rig=rig), Facts())

    assert s.readings.tongue_kg[0] == pytest.approx(66.6667, abs=1e-4)
    assert s.readings.axle_kg[0, 0] == pytest.approx(733.3333, abs=1e-4)
    assert s.readings.share[0] == pytest.approx(0.08333, abs=1e-5)
    assert s.readings.cg_m[0, 0] == pytest.approx(2.75)


def test_check_case_2_axle_for_a_share():
    """a = x_cg / (1 - p) for masses that do not move with the axle."""
    rig = a_rig(axle=3.0, frame=500.0, frame_cg=2.0, axles=(Axle("a1", Length(3.0)),))
    s = study(a_build([a_thing(mass=300.0, x=3.8)], rig=rig), Facts())

    tongue, total = tongue_at_stations(s, np.array([3.125]))

    assert tongue[0, 0] / total[0, 0] == pytest.approx(0.12)


def test_check_case_3_left_and_right():
    """60 kg at +0.5 and 40 kg at -0.2 over a track of 1.5: right minus left is 29.333 kg."""
    rig = a_rig(axle=2.0, frame=0.0, axles=(Axle("a1", Length(2.0)),), track=Length(1.5))
    things = [a_thing("t1", 60.0, x=1.6, y=0.5), a_thing("t2", 40.0, x=1.6, y=-0.2)]
    b = study(a_build(things, rig=rig), Facts()).readings

    assert b.right_kg[0] - b.left_kg[0] == pytest.approx(29.3333, abs=1e-3)


def test_the_frame_that_moves_with_its_axle_follows_the_closed_form():
    """a = (M0 + m_f off) / (W (1 - p) - m_f), here for p = 6 % and off = 0."""
    s = study(a_build([a_thing(mass=100.0, x=2.0)]), Facts())
    m_f, total = 60.0, 360.0
    m0 = 200.0 * 2.6 + 100.0 * 2.2
    station = m0 / (total * 0.94 - m_f)

    tongue, _ = tongue_at_stations(s, np.array([station]))

    assert tongue[0, 0] / total == pytest.approx(0.06, rel=1e-9)


def test_the_axle_window_puts_every_case_in_band_and_its_ends_are_tight():
    s = study(a_build([a_tank("w1", 10.0, x=2.9, size=(0.3, 0.3, 0.3))], rig=a_rig(axle=2.9, axle_place="to be placed")), Facts())
    placing = axle_placing(s)

    assert placing is not None and placing.window_m is not None
    low, high = placing.window_m
    for station, inside in ((low, True), (high, True), (low - 0.02, False), (high + 0.02, False)):
        tongue, total = tongue_at_stations(s, np.array([station]))
        judged = [row in s.towed_rows for row in s.towing_rows]  # the bare shell asks for no place
        shares = (tongue[0] / total[0])[judged]
        assert bool(((shares >= 0.05 - 1e-9) & (shares <= 0.07 + 1e-9)).all()) is inside


def test_cases_that_fight_are_named_where_no_station_serves():
    s = study(a_build([a_tank("w1", 150.0, x=0.8, size=(0.6, 0.6, 0.5))], rig=a_rig(axle_place="to be placed")), Facts())
    placing = axle_placing(s)

    assert placing is not None and placing.window_m is None
    assert placing.worst_violation_kg > 0
    assert placing.fighting_cases is not None and placing.fighting_cases[0] != placing.fighting_cases[1]


def test_equalised_tandem_acts_at_its_middle_and_shares_evenly():
    rig = a_rig(axles=(Axle("a1", Length(2.6)), Axle("a2", Length(3.4))), suspension="equalised", frame=600.0, frame_cg=2.7)
    b = study(a_build(rig=rig), Facts()).readings

    assert b.tongue_kg[0] == pytest.approx(600 * 0.3 / 3.0)
    assert b.axle_kg[0] == pytest.approx([270.0, 270.0])


def test_independent_tandem_by_hand():
    """Both wheels down: theta from sum of 2 k c_k x_k = g M; k = 50 N/mm, axles 4 and 5 m, 3,000 kg at 4.2 m."""
    g, k, load = 9.80665, 50_000.0, 2800.0
    c0 = load * g / (2 * k * 2)
    theta = (3000 * 4.2 * g / (2 * k) - c0 * 9.0) / (16 + 25)
    by_hand = [2 * k * (c0 + theta * x) / g for x in (4.0, 5.0)]

    got = independent_axle_loads_kg(np.array(3000 * 4.2), Support("ball", (4.0, 5.0), True, 1.8, k, load))

    assert got == pytest.approx(by_hand, rel=1e-9)
    assert (got * [4.0, 5.0]).sum() == pytest.approx(3000 * 4.2)


def test_a_nose_high_hitch_loads_the_rear_axle_and_the_ball():
    support = Support("ball", (4.0, 5.0), True, 1.8, 50_000.0, 2800.0)
    high = Support("ball", (4.0, 5.0), True, 1.8, 50_000.0, 2800.0, 0.05)
    moment = np.array(3000 * 4.2)

    level, up = independent_axle_loads_kg(moment, support), independent_axle_loads_kg(moment, high)

    assert up[1] > level[1] and up[0] < level[0]
    assert 3000 - up.sum() > 3000 - level.sum()


def test_a_lifted_wheel_carries_nothing_and_moments_still_close():
    got = independent_axle_loads_kg(np.array([900.0, 3000.0]), Support("ball", (4.0, 5.0), True, 1.8, 50_000.0, 600.0, 0.25))

    assert got.min() == 0.0
    assert (got @ [4.0, 5.0]) == pytest.approx([900.0, 3000.0])


def test_vehicle_bed_by_hand():
    s = study(a_build([a_thing(mass=500.0, x=2.8)], rig=a_bed()), Facts())
    b = s.readings

    assert b.axle_kg[0] == pytest.approx([1400 + 500 * (1 - 3.0 / 3.4), 1000 + 500 * 3.0 / 3.4])
    assert np.isnan(b.tongue_kg[0])
    assert b.axle_kg[0].sum() == pytest.approx(b.total_kg[0])


def test_a_bought_trailer_gives_back_its_weighing():
    rig = a_rig(base="as bought", bought_total=Mass(900.0), bought_ball=Mass(70.0), axles=(Axle("a1", Length(3.2), Mass(99.0)),))
    b = study(a_build(rig=rig), Facts()).readings

    assert b.total_kg[0] == pytest.approx(900.0)
    assert b.tongue_kg[0] == pytest.approx(70.0)


def test_what_was_taken_out_counts_negative():
    rig = a_rig(base="as bought", bought_total=Mass(900.0), bought_ball=Mass(70.0))
    b = study(a_build([a_thing(mass=100.0, taken_out=True)], rig=rig), Facts()).readings

    assert b.total_kg[0] == pytest.approx(800.0)


def test_first_order_doubt_agrees_with_monte_carlo():
    """20,000 seeded draws of masses, stations, axle place and shared bias."""
    things = [a_thing("t1", 120.0, x=1.2), a_thing("t2", 90.0, x=3.0), a_tank("w1", 60.0, x=2.0)]
    rig = a_rig(frame_source="computed", frame=260.0)
    s = study(a_build(things, rig=rig), Facts())
    t, b, rng = s.table, s.readings, np.random.default_rng(7)
    n = 20_000
    mass = t.mass_kg[0] + rng.normal(size=(n, len(t.ids))) * t.sigma_kg[0]
    for _, columns in t.bias:
        mass[:, columns] += 0.04 * t.mass_kg[0, columns] * rng.normal(size=(n, 1))
    x = t.x_m[0] + rng.normal(size=mass.shape) * t.sigma_x_m
    axle = 3.0 + rng.normal(size=n) * 0.005
    tongue = mass.sum(axis=1) - (mass * x).sum(axis=1) / axle
    total = mass.sum(axis=1)
    inside = (tongue >= 0.05 * total) & (tongue <= 0.07 * total)

    assert b.tongue_sigma_kg[0] == pytest.approx(tongue.std(), rel=0.03)
    assert b.total_sigma_kg[0] == pytest.approx(total.std(), rel=0.03)
    assert b.chance[0] == pytest.approx(inside.mean(), abs=0.015)


def test_the_limit_cuts_the_chance():
    from uncle_sled.core.reading.band import Band

    s = study(a_build([a_thing(mass=100.0, x=2.2)]), Facts())
    tongue = float(s.readings.tongue_kg[0])
    wide = balance(s.table, s.support, Band(0.0, 1.0, 0.0, "", None, ""))
    cut = balance(s.table, s.support, Band(0.0, 1.0, 0.0, "", tongue, ""))

    assert wide.chance[0] == pytest.approx(1.0, abs=1e-4)
    assert cut.chance[0] == pytest.approx(0.5, abs=0.01)


@settings(max_examples=40)
@given(st.lists(st.tuples(st.floats(0, 400), st.floats(-1, 8), st.floats(-1, 1)), min_size=1, max_size=8), st.floats(0.5, 7))
def test_masses_sum_to_the_total_and_their_moments_to_the_ball(masses, axle):
    things = [a_thing(f"t{at}", m, x=x, y=y) for at, (m, x, y) in enumerate(masses)]
    s = study(a_build(things, rig=a_rig(axle=axle)), Facts())
    t, b = s.table, s.readings

    for row in range(len(t.cases)):
        assert t.mass_kg[row].sum() == pytest.approx(b.total_kg[row])
        assert (t.mass_kg[row] * (axle - t.x_m[row])).sum() / axle == pytest.approx(b.tongue_kg[row], abs=1e-6)
        assert b.axle_kg[row].sum() == pytest.approx(b.left_kg[row] + b.right_kg[row], abs=1e-6)
        assert b.axle_kg[row].sum() == pytest.approx(b.total_kg[row] - b.tongue_kg[row], abs=1e-6)


def test_the_slide_window_is_the_brute_force_one():
    s = study(a_build([a_thing("t1", 40.0, x=2.2), a_tank("w1", 15.0, x=2.6)], rig=a_rig(axle=2.8)), Facts())
    low, high = slide_window_m(s, "t1")

    for by in np.arange(-3, 3, 0.05):
        moved = study(a_build([a_thing("t1", 40.0, x=2.2 + by), a_tank("w1", 15.0, x=2.6)], rig=a_rig(axle=2.8)), Facts())
        # the cases without it are judged by the window too, so only those that carry it are compared
        inside = all(
            moved.readings.band_kg[row, 0] - 1e-6 <= moved.readings.tongue_kg[row] <= moved.readings.band_kg[row, 1] + 1e-6
            for row in moved.towing_rows
        )
        assert inside == (low - 1e-6 <= by <= high + 1e-6)


@pytest.mark.parametrize(
    ("rig", "says"),
    [(a_rig(axle=-0.5), "ahead of the ball"), (a_rig(axle=0.0), "ahead of the ball"), (a_bed(wheelbase=Length(0.0)), "wheelbase")],
)
def test_geometry_that_forbids_a_reading_says_why(rig, says):
    with pytest.raises(GeometryError, match=says):
        support_of(rig)


def test_a_default_spring_rate_stands_in_for_torsion_axles():
    rig = a_rig(axles=(Axle("a1", Length(2.6), None, Mass(800.0)), Axle("a2", Length(3.4), None, Mass(800.0))), suspension="independent")
    support = support_of(rig)

    assert support is not None and support.stiffness_n_m == pytest.approx(800 * 9.80665 / 2 / 0.06)
    assert support_of(a_rig(axles=rig.axles, suspension="independent", spring_rate=Stiffness(5e4))).stiffness_n_m == 5e4


def test_contents_stand_as_high_as_their_level():
    build = a_build([a_tank("w1", 40.0, z=0.5, size=(0.4, 0.4, 0.4))])
    s = study(build, Facts())
    column = s.table.ids.index("w1/contents")

    assert s.table.z_m[s.table.row("going-out"), column] == pytest.approx(0.7)
    assert s.table.mass_kg[s.table.row("going-out"), column] == pytest.approx(40.0)
    assert s.table.mass_kg[s.table.row("coming-home"), column] == 0.0
    assert not math.isnan(s.readings.tongue_kg[s.table.row("bare-shell")])
    assert mass_table(build, s.parts) is s.table
