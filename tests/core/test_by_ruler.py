"""A weigh-in with a ruler: each sum by hand, its doubt, and how it joins the tickets of a scale."""

import math

import msgspec
import pytest

from tests.builders import a_build, a_rig, a_thing
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass, Stiffness
from uncle_sled.core.document.road import Reading, Ticket
from uncle_sled.core.drawing.road.weigh_picture import weigh_picture
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.road.by_ruler import print_kg, spring_kg, tilted_ball_kg
from uncle_sled.core.studies.road.reconcile import reconcile
from uncle_sled.core.studies.road.weighing import weighed

RULER = Ticket("tk1", "2027-06-01", "ruler", (Reading("jack", 30.0),), step_kg=0.1, grade=0.005)
SPRUNG = msgspec.structs.replace(RULER, sag_left=Length(0.030), sag_right=Length(0.034), rate=Stiffness(60e3))
PRINTED = {"print_left": Length(0.12), "print_right": Length(0.13), "print_wide": Length(0.11), "pressure_kpa": 150.0}


def built():
    return study(a_build([a_thing(x=2.6, mass=150.0)], rig=a_rig()), Facts())


def test_springs_and_jack_by_hand():
    what = weighed(SPRUNG, built())
    # 60 kN/m over 30 and 34 mm, and half of the axle's 60 kg on each side; 30 kg under a jack 0.5 of 3.0 m from the ball
    left, right = 60e3 * 0.030 / 9.80665 + 30, 60e3 * 0.034 / 9.80665 + 30
    assert (what.left_kg, what.right_kg) == pytest.approx((left, right))
    assert what.total_kg == pytest.approx(left + right + 30)
    assert what.tongue_kg == pytest.approx(30 * 2.5 / 3.0)
    jack = math.hypot(0.1 / math.sqrt(12), 0.005 * 30)
    assert what.sigma_tongue_kg == pytest.approx(math.hypot(jack * 2.5 / 3, 30 * 0.01 / 3))
    springs = math.hypot(0.08 * (left + right - 60), math.sqrt(2) * 60e3 * 0.002 / 9.80665)
    assert what.sigma_total_kg == pytest.approx(math.hypot(springs, jack))
    assert what.cov_kg2 == pytest.approx(2.5 / 3 * jack**2)
    assert what.faults == ()


def test_checks_of_the_method():
    assert spring_kg(60e3, 0.045) == pytest.approx(275.3, abs=0.1)
    assert print_kg(250.0, 0.130, 0.110) == pytest.approx(364.5, abs=0.1)
    # 700 kg, centre 0.45 m over the hubs, 3.0 m, 12 degrees: 22.3 kg less with the nose up
    assert tilted_ball_kg(38.0, 700.0, 0.45, 3.0, 12.0) == pytest.approx(60.3, abs=0.05)


def test_prints_by_hand_and_of_both_the_surer_counts_for_more():
    s = built()
    prints = weighed(msgspec.structs.replace(RULER, **PRINTED), s)
    left = 150e3 * 0.12 * 0.11 / 9.80665
    assert prints.left_kg == pytest.approx(left)
    assert prints.sigma_total_kg > 0.125 * (prints.left_kg + prints.right_kg)
    both = weighed(msgspec.structs.replace(SPRUNG, **PRINTED), s)
    springs = weighed(SPRUNG, s)
    inner = sorted((springs.total_kg, prints.total_kg))
    assert inner[0] < both.total_kg < inner[1]
    assert abs(both.total_kg - springs.total_kg) < abs(both.total_kg - prints.total_kg)  # a ruler at the spring is surer
    assert both.sigma_total_kg < min(springs.sigma_total_kg, prints.sigma_total_kg)
    far = weighed(msgspec.structs.replace(SPRUNG, **{**PRINTED, "pressure_kpa": 400.0}), s)
    assert any("springs and prints are" in mind for mind in far.minds)


def test_a_nose_that_was_not_level_is_mended_and_leaves_half_open():
    s = built()
    level, up = weighed(SPRUNG, s), weighed(msgspec.structs.replace(SPRUNG, tilt_deg=2.0, wheel_radius=Length(0.3)), s)
    high = float(s.readings.cg_m[s.towing_rows[0], 2])
    more = level.total_kg * (high - 0.3) * math.tan(math.radians(2.0)) / 3.0
    assert up.tongue_kg - level.tongue_kg == pytest.approx(more)
    assert up.sigma_tongue_kg == pytest.approx(math.hypot(level.sigma_tongue_kg, more / 2))


@pytest.mark.parametrize(
    ("changes", "wants"),
    [
        ({"readings": ()}, "bathroom scale under the jack"),
        ({"sag_left": None, "sag_right": None}, "sag of both springs with their rate, or prints"),
        ({"rate": None}, "the springs' rate of one wheel is not known"),
        ({"sag_left": None, "print_left": Length(0.1)}, "of the prints both lengths"),
    ],
)
def test_what_is_still_wanted_is_named(changes, wants):
    what = weighed(msgspec.structs.replace(SPRUNG, **changes), built())
    assert what.total_kg is None
    assert any(wants in fault for fault in what.faults)


def test_the_rigs_own_rate_is_taken_and_the_picture_has_a_ruler():
    s = study(a_build([a_thing(x=2.6, mass=150.0)], rig=a_rig(spring_rate=Stiffness(60e3))), Facts())
    own = weighed(msgspec.structs.replace(SPRUNG, rate=None, unsprung=Mass(60.0)), s)
    assert own.total_kg == pytest.approx(weighed(SPRUNG, s).total_kg)
    shapes = weigh_picture(s, "ruler", 0, 700.0, 300.0, own)
    assert any("In all" in getattr(shape, "text", "") for shape in shapes)
    assert any("Unhitched on its jack" in getattr(shape, "text", "") for shape in shapes)


def test_it_is_joined_to_a_scale_by_the_sums_of_taught_and_teaches_by_its_doubt():
    """A coarse ruler moves the groups less than a scale that reads the same, and both together less open than either."""
    s = built()
    case = s.table.cases[s.towing_rows[0]].id
    ruler = msgspec.structs.replace(SPRUNG, case=case)
    read = weighed(ruler, s)
    readings = (Reading("total", round(read.total_kg, 1)), Reading("ball", round(read.tongue_kg, 1)))
    scale = Ticket("tk2", "2027-06-02", "total and ball", readings, step_kg=0.5, grade=0.0005, case=case)

    def doubt(*tickets):
        made = reconcile(s, list(tickets))
        return sum(group.sigma_kg for group in made.groups), sum(abs(group.after_kg - group.before_kg) for group in made.groups)

    before = sum(group.sigma_before_kg for group in reconcile(s, [ruler]).groups)
    (by_ruler, moved), (by_scale, scale_moved) = doubt(ruler), doubt(scale)
    assert by_scale < by_ruler < before
    assert moved < scale_moved
    assert doubt(ruler, scale)[0] <= by_scale + 1e-9
