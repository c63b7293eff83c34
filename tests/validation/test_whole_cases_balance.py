"""Whole cases of the balance by hand: doubt and its sharing, limits, the axle's place, tanks used up, what turns and hangs.

Each says its sum beside it; every figure in it is typed here.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
import pytest

from tests.builders import a_bed, a_body, a_build, a_rig, a_tank, a_thing
from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.engine import forget
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.axle_conflicts import conflicts
from uncle_sled.core.studies.balance.axle_placing import balance_points
from uncle_sled.core.studies.balance.emptying import emptying
from uncle_sled.core.studies.balance.frame_beam import frame_under
from uncle_sled.core.studies.balance.road_checks import Nose, gap_m, nearest_m
from uncle_sled.core.studies.balance.road_size import low_tail, road_sizes
from uncle_sled.core.studies.balance.sureness import owners
from uncle_sled.core.studies.balance.tow_vehicle import payload_left_kg

NA = Brief(region="North American")


def test_faces_that_are_wrong_together_pull_ball_and_total_the_same_way() -> None:
    """A floor of 40 kg and a roof of 30, computed: 6 % each by itself, 4 % of both together; the axle 3.0 from the ball.

    All ahead of the axle, so that more weight is more on the ball: with arms a = 1 - x/3 the covariance of ball and total is
    sum a (6 % m)^2 + (sum a 4 % m)(sum 4 % m), and what the rest of the rig adds, which is there without them as well.
    """
    faces = (Face("floor", "floor", "Floor", Mass(40.0), "computed"), Face("roof", "roof", "Roof", Mass(30.0), "computed"))
    body = a_body(faces=faces)
    bare = study(a_build(shell=msgspec.structs.replace(body, faces=())), Facts())
    s = study(a_build(shell=body), Facts())
    at = [k for k, id in enumerate(s.table.ids) if id in ("floor", "roof")]
    assert len(at) == 2
    m, x = s.table.mass_kg[0, at], s.table.x_m[0, at]
    assert m.tolist() == [40.0, 30.0]
    arm = 1 - x / 3.0
    together = float((arm * 0.04 * m).sum() * (0.04 * m).sum())
    others = [k for k, id in enumerate(s.table.ids) if k not in at]
    own = float(((1 - s.table.x_m[0] / 3.0) * s.table.sigma_kg[0] ** 2).sum())
    assert [tuple(columns) for _, columns in s.table.bias] == [tuple(at)] and others
    assert float(s.readings.covariance_kg2[0]) == pytest.approx(own + together)
    assert s.table.sigma_kg[0, at].tolist() == pytest.approx([2.4, 1.8])
    assert bare.table.bias == ()


def test_the_whole_of_a_bed_is_as_unsure_as_what_rides_on_it() -> None:
    """Its axles 1400 and 1000 kg by a data sheet: 3 %; 20 kg estimated: 15 %, 40 weighed: 1 %: the root of 42, 30, 3.0, 0.4 squared."""
    s = study(a_build([a_thing("a", 20.0, 2.0), a_thing("b", 40.0, 3.0, source="weighed")], a_bed()), Facts())
    row = s.towing_rows[0]
    assert float(s.readings.total_sigma_kg[row]) == pytest.approx(math.hypot(42.0, 30.0, 3.0, 0.4))


def test_of_three_ratings_of_the_ball_the_least_counts() -> None:
    car = Vehicle("v", "Car", tongue_limit=Mass(90.0))
    s = study(a_build([a_thing()], a_rig(coupler_rating=Mass(100.0), hitch_rating=Mass(80.0))), Facts(vehicles=(car,)))
    assert (s.band.limit_kg, s.band.limit_says) == (80.0, "hitch")


def test_a_tank_that_is_pulled_along_is_as_unsure_as_one_that_always_stood_there() -> None:
    """60 L of water are 60 kg by 3 %: 1.8 kg, laid anew by itself under a hand or all at once."""
    first = a_build([a_tank("w", 60.0, x=1.8), a_thing("t", 30.0, 2.4)])
    full = next(r for r, c in enumerate(study(first, Facts()).table.cases) if c.case.id == "going-out")
    later = apply(first, [set_to("stow.things.w.x", {"si": 2.1, "typed": None})])
    after = study(later, Facts())
    forget()
    fresh = study(later, Facts())
    at = after.table.ids.index("w/contents")
    assert after.table.mass_kg[full, at] == pytest.approx(60.0) and after.table.sigma_kg[full, at] == pytest.approx(1.8)
    assert np.array_equal(after.table.sigma_kg, fresh.table.sigma_kg)


def test_what_the_car_may_tow_is_held_against_the_whole_trailer() -> None:
    """500 kg of which 465.3 on the wheels; a car that may tow 510 leaves 10 kg."""
    s = study(a_build([a_thing("t", 240.0, 2.7)]), Facts(vehicles=(Vehicle("v", "Car", tow_limit=Mass(510.0)),)))
    row = s.towing_rows[0]
    assert float(s.readings.total_kg[row]) == pytest.approx(500.0)
    assert payload_left_kg(s, row) == pytest.approx(10.0)


def test_the_old_way_puts_the_axle_for_the_middle_of_the_band() -> None:
    """460 kg: 200 at 2.6, 60 at 3.0, 200 at 2.9: it balances at 2.7826; North American 10 to 15 %: 2.7826 / 0.875 = 3.180."""
    s = study(a_build([a_thing("t", 200.0, 2.7)], brief=NA), Facts())
    point = (200 * 2.6 + 60 * 3.0 + 200 * 2.9) / 460
    made = {name: (at, axle) for at, axle, name in balance_points(s)}
    assert made["Going out"] == (pytest.approx(point), pytest.approx(point / 0.875))


def test_an_axle_may_stand_no_nearer_to_the_frames_end_than_its_hangers_reach() -> None:
    """A frame of 4.2 m whose spring hangers reach the same way aft of the axle as forward of the drawbar's end at 1.2."""
    found = [one for one in conflicts(study(a_build([a_thing()]), Facts())) if one.id == "frame"]
    end = next(one for one in found if one.high_m > 100)
    nose = next(one for one in found if one.low_m < -100)
    reach = nose.high_m - 1.2
    assert 0.2 < reach < 0.6 and end.low_m == pytest.approx(4.2 - reach)


def test_of_two_tanks_the_one_behind_the_axle_is_emptied_first() -> None:
    """Two of 40 L in the middle at 2.0 and 4.0, the axle at 3.0, 200 kg at 2.6: the ball has 26.67 of 348 kg, 8.13 under 10 %.

    The rear one first: at once at the start it is furthest out. The front one first: 13.33 of 308 kg, 17.47 under 30.8.
    """
    tanks = [a_tank("a", 40.0, x=1.8), a_tank("b", 40.0, x=3.8)]
    (made,) = emptying(study(a_build(tanks, brief=NA), Facts()))
    assert made.best.tanks == ("b", "a") and made.worst.tanks == ("a", "b")
    assert made.best.out_kg == pytest.approx(0.10 * 348 - 200 * 0.4 / 3)
    assert made.worst.out_kg == pytest.approx(0.10 * 308 - (200 * 0.4 - 40 * 1.0) / 3)
    assert made.worst.load_kg == pytest.approx(40.0 / 3)


def test_a_frames_tail_may_sink_by_twice_its_length_over_five_hundred() -> None:
    """Parked on jack and axle the tail of 4.2 - 3.0 m may sink 2 x 1.2 / 500 = 4.8 mm, the 2.5 m between them 5 mm."""
    rig = a_rig(rail="tube-60x40x3", cross="tube-40x40x2", drawbar="tube-60x40x3")
    s = study(a_build([a_thing("heavy", 400.0, 3.6)], rig), Facts())
    under = frame_under(s)
    assert under.why == ""
    tail = [one.sinks_limit_m for one in under.beams if one.how == "parked"]
    assert tail == [pytest.approx(2 * 1.2 / 500)]


def test_a_corner_beside_the_car_is_as_far_from_it_as_it_stands_out() -> None:
    """The ball 0.2 behind a car 1.8 wide. A nose 0.5 behind it and 2.4 wide, straight: 0.7 back and 1.2 - 0.9 out: 0.7616 m."""
    car = Vehicle("v", "Car", width=Length(1.8), bumper=Length(0.2))
    nose = Nose("n", "the nose", 0.5, 1.2, 3.0)
    assert gap_m(nose, car, 0.0) == pytest.approx(math.hypot(0.7, 0.3))
    least, at = nearest_m(nose, car)
    assert least == pytest.approx(min(gap_m(nose, car, d) for d in range(91))) and at > 0


def test_what_stands_out_on_one_side_is_counted_on_both() -> None:
    """A box 0.4 wide with its middle 1.0 right of the middle line: 2 x 1.2 = 2.4 m that the road has to be wide."""
    s = study(a_build([a_thing("t", y=1.0)], a_rig(track=Length(1.6), frame_width=Length(1.4))), Facts())
    width = next(one for one in road_sizes(s) if one.way == "width")
    assert (width.value_m, width.by) == (pytest.approx(2.4), "Box t")


def test_what_hangs_against_the_wheel_is_no_corner_that_drags() -> None:
    """A step whose lower rear edge lies within the wheel's circle cannot touch before it does: 90 degrees."""
    step = a_thing("s", 5.0, 2.9, z=0.25, size=(0.25, 0.4, 0.1), outside=True)
    s = study(a_build([step], shell=Shell()), Facts())
    found = low_tail(s)
    assert found is not None and (found.id, found.degrees) == ("s", 90.0)


def test_what_the_axles_own_place_owns_of_the_doubt_is_no_masss() -> None:
    """200 kg weighed at 2.6 and 60 at 3.0, a box of 20 at 2.2: what the wheels carry, by 5 mm of 3 m, is a part of the variance."""
    s = study(a_build([a_thing("t", 20.0, 2.0, source="weighed")]), Facts())
    row = s.towing_rows[0]
    wheels = float(s.readings.total_kg[row] - s.readings.tongue_kg[row])
    variance = float(s.readings.tongue_sigma_kg[row]) ** 2
    axle = (wheels / 3.0 * 0.005) ** 2
    arm, table = 1 - s.table.x_m[row] / 3.0, s.table
    masses = float(((arm * table.sigma_kg[row]) ** 2).sum() + ((table.mass_kg[row] * table.sigma_x_m / 3.0) ** 2).sum())
    assert variance == pytest.approx(masses + axle) and axle > 0.02 * variance
    first = owners(s, row, 3)
    weighed_already = next(one for one in first if one.id in ("t", "frame"))
    assert weighed_already.left_weighed_kg == pytest.approx(math.sqrt(masses + axle))  # weighing it again takes nothing away
