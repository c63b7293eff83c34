"""Room round the tyres, axles over their own rating, and what a case's own limits leave."""

import inspect

import msgspec
import pytest

from tests.builders import a_body, a_build, a_rig, a_shell, a_thing
from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.placing import axle_shift_ops
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass, Stiffness
from uncle_sled.core.document.rig import Axle, Tyre
from uncle_sled.core.document.shell import WheelBoxes
from uncle_sled.core.engine import by_value, keep, keep_each
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.axle_conflicts import tyre_gap
from uncle_sled.core.studies.balance.axle_placing import axle_placing, axles_over, own_limits

BOXES = WheelBoxes(Length(0.9), Length(0.25), Length(0.40))


def boxed(width_m=0.18, **tyre):
    rig = a_rig(tyre=Tyre(84, "N", Length(0.6), Length(width_m), **tyre), track=Length(1.75))
    return study(a_build([a_thing("t", 50)], rig=rig, shell=a_body(wheel_boxes=BOXES)), Facts())


def rubbing(s):
    return next((one for one in findings(s) if one.code == "tyre-rubs"), None)


def test_a_tyre_too_wide_for_its_box_is_told_with_what_it_lacks():
    good = boxed(0.16)
    assert tyre_gap(good).left_m == pytest.approx(0.875 - 0.08 - 0.75) and not tyre_gap(good).measured

    wide = rubbing(boxed(0.26))
    assert wide.severity == "mind" and "lacks 5 mm" in wide.says and wide.number == pytest.approx(0.030)
    assert "20 mm is left" in rubbing(boxed(0.21)).says and rubbing(good) is None


def test_what_was_measured_counts_before_what_is_drawn():
    s = boxed(0.16, gap_left=Length(0.012))
    gap = tyre_gap(s)

    assert gap.measured and gap.left_m == 0.012 and gap.right_m == pytest.approx(0.045) and gap.least_m == 0.012
    assert rubbing(s).says.startswith("Beside the left tyre 12 mm")
    bare = study(a_build(rig=a_rig(tyre=Tyre(gap_right=Length(0.03)))), Facts())
    assert tyre_gap(bare).right_m == 0.03 and tyre_gap(bare).over_m is None and rubbing(bare) is None
    assert tyre_gap(study(a_build(), Facts())) is None


def test_an_axle_of_a_group_that_the_window_leaves_over_is_named():
    axles = (Axle("a1", Length(2.8), Mass(60.0), Mass(900.0)), Axle("a2", Length(3.6), Mass(60.0), Mass(300.0)))
    rig = a_rig(
        axles=axles,
        suspension="independent",
        spring_rate=Stiffness(5e4),
        level_load=Mass(600.0),
        ball_height=Length(0.55),
        reference_height=Length(0.45),
    )
    s = study(a_build([a_thing("t", 300, x=3.2)], rig=rig, shell=a_shell(), brief=Brief("North American")), Facts())
    placing = axle_placing(s)
    (over,) = axles_over(s, placing)

    assert over.number == 2 and over.least_over_kg > 0 and over.kept_from_m is None
    low, high = placing.window_m or (placing.best_m, placing.best_m)
    for station in (low, high):  # judged again as a whole build
        there = study(apply(s.build, axle_shift_ops(s.build, station - s.support.mean_axle_m)), Facts())
        assert float(there.readings.axle_kg[there.towing_rows, 1].max()) - 300 >= over.least_over_kg - 1e-6
    one = study(a_build([a_thing("t", 300)]), Facts())
    assert axles_over(one, axle_placing(one)) == ()


def test_a_case_that_no_station_serves_names_its_own_two_limits():
    car = Vehicle("v", "Small car", Mass(40.0))
    brief = msgspec.structs.replace(Brief("North American"), band_low=0.10, band_high=0.12)
    s = study(a_build([a_thing("t", 900, x=3.0)], brief=brief), Facts(vehicles=(car,)))
    placing = axle_placing(s)
    case = s.table.cases[s.towing_rows[0]]
    least, most = own_limits(s, case.id)

    # the car's limit lies under the least share: what sways under it and what the car allows exclude one another
    total = float(s.readings.total_kg[s.towing_rows[0]])
    assert placing.window_m is None and most.kg == 40.0 and most.says == "Small car"
    assert least.kg == pytest.approx(0.08 * total) and "sways" in least.says
    # under the band and over the least share, the aim is just under the limit
    near = study(a_build([a_thing("t", 200, x=3.0)], brief=brief), Facts(vehicles=(msgspec.structs.replace(car, tongue_limit=Mass(42.0)),)))
    least, _ = own_limits(near, case.id)
    assert least.kg == pytest.approx(0.9 * 42.0) and "Small car" in least.says
    weak = study(a_build([a_thing("t", 2000, x=3.0)], brief=brief), Facts())
    least, _ = own_limits(weak, weak.table.cases[weak.towing_rows[0]].id)
    assert "axles cannot carry" in least.says
    assert least.kg == pytest.approx(float(weak.readings.total_kg[weak.towing_rows[0]]) - 1300)


def test_results_are_kept_item_by_item_and_by_what_is_read():
    made = []
    twice = keep_each(lambda one: made.append(one) or (one, len(made)))
    a, b, c = ["a"], ["b"], ["c"]
    first = twice((a, b))

    assert twice((a, b)) == first and len(made) == 2
    later = twice((b, c, a))
    assert later[0] is first[1] and later[2] is first[0] and len(made) == 3
    assert twice(()) == () and twice((c,))[0][0] is c


def test_a_study_says_what_it_reads_and_is_found_again_by_that():
    calls = []

    def study(build, row=0):
        calls.append((build, row))
        return len(calls)

    a, b = a_build(), a_build()
    all_of_it = keep(most=2)(study)
    assert all_of_it(a) == all_of_it(a, 0) == 1 and all_of_it(a, 1) == 2 and all_of_it(b) == 3  # objects by identity
    some = keep("build.rig")(study)
    assert some(a) == some(msgspec.structs.replace(a, name="renamed"), 7) == 4 and some(b) == 5
    named = keep(by_value(lambda build: build.name), "row")(study)
    assert named(a, 1) == named(b, 1) == 6 and named(a, 2) == 7
    wired = keep(lambda build: (build.stow.things, "a word"))(study)
    assert wired(a) == wired(a, 5) == 8 and inspect.unwrap(wired) is study
    with pytest.raises(ValueError, match="no input"):
        keep("facts.materials")(study)
