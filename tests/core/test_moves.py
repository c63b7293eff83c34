"""The search for remedies, piece by piece: free places against brute force, linear statics against whole studies."""

import msgspec
import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import a_bed, a_build, a_rig, a_shell, a_tank, a_thing
from tests.judging import settled_one
from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.placing import Stand
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass, Stiffness
from uncle_sled.core.document.rig import Axle
from uncle_sled.core.document.stow import Mode, Place
from uncle_sled.core.parts.from_rig import frame_cg_m
from uncle_sled.core.parts.from_stow import part_of_thing, standing_size_m
from uncle_sled.core.reading.studied import length_m, study, tail_m
from uncle_sled.core.remedies.linear_moves import moves_of, rows_judged, shift_of, state
from uncle_sled.core.studies.balance.moves import ball_per_100_mm_kg
from uncle_sled.core.studies.stow.free_places import box_at, free_places, neighbours
from uncle_sled.core.studies.stow.room import room_of

FLOOR = 0.59
TANDEM = {"axles": (Axle("a1", Length(2.6)), Axle("a2", Length(3.4))), "spring_rate": Stiffness(5e4), "level_load": Mass(500.0)}


def rigs():
    return {
        "single": a_rig(),
        "equalised": a_rig(suspension="equalised", **TANDEM),
        "independent": a_rig(suspension="independent", **TANDEM),
        "bed": a_bed(),
    }


@pytest.mark.parametrize("kind", ["single", "equalised", "independent", "bed"])
def test_linear_statics_agree_with_the_whole_study(kind):
    things = [a_thing("t1", 60.0, x=1.6, z=FLOOR), a_tank("w1", 40.0, x=3.2, z=FLOOR)]
    build = a_build(things, rig=rigs()[kind], shell=a_shell())
    s = study(build, Facts())
    move = moves_of(s, build.stow.things[1], room_of(build, Facts()))
    after = state(s, *shift_of(s, move))
    for at in range(0, len(move.x), max(1, len(move.x) // 7)):
        there = apply(build, [set_to("stow.things.w1.x", {"si": float(move.x[at])}), set_to("stow.things.w1.y", {"si": float(move.y[at])})])
        full = study(there, Facts()).readings
        rows = rows_judged(s)

        assert after.axles[at] == pytest.approx(full.axle_kg[rows], abs=1e-6)
        if kind != "bed":
            assert after.tongue[at] == pytest.approx(full.tongue_kg[rows], abs=1e-6)


@settings(max_examples=25, deadline=None)
@given(
    st.lists(st.tuples(st.floats(1.3, 3.6), st.floats(-0.6, 0.6), st.floats(0.1, 0.6)), min_size=1, max_size=6), st.sampled_from([0, 90])
)
def test_free_places_touch_nothing_and_lie_inside(others, turn):
    things = [a_thing(f"t{at}", x=x, y=y, z=FLOOR, size=(side, side, 0.3)) for at, (x, y, side) in enumerate(others)]
    mover = a_thing("m1", x=2.0, y=0.0, z=FLOOR, size=(0.4, 0.2, 0.3), turn=turn)
    build = a_build([*things, mover], shell=a_shell())
    inner = room_of(build, Facts())
    found = free_places(build, mover, inner)
    size = np.array(standing_size_m(mover, turn))
    own = box_at(Stand(2.0, 0.0, FLOOR, turn, standing_size_m(mover, turn)))
    for x, y, z in zip(found.x_m, found.y_m, found.z_m, strict=True):
        low = np.array([x, y - size[1] / 2, z])
        high = low + size
        if np.allclose(low, own[0]):
            continue
        assert abs(y) + size[1] / 2 <= inner.half_m + 1e-9
        assert inner.side.covers(shapely.box(x, z, x + size[0], z + size[2]).buffer(-0.003))
        for id, (lo, hi) in neighbours(build, mover):
            already = bool(((own[0] < hi - 0.002) & (own[1] > lo + 0.002)).all())
            assert already or not ((low < hi - 0.003) & (high > lo + 0.003)).all(), id


def test_what_is_in_the_way_in_another_mode_counts():
    wall = a_thing("t2", x=1.3, z=FLOOR, size=(0.3, 1.5, 1.0))
    camp = Mode("camp", "Camp", False, (Place("t2", Length(3.0), Length(0.0), Length(FLOOR)),), ())
    build = a_build([a_thing("t1", x=2.0, z=FLOOR), wall], shell=a_shell())
    free = free_places(build, build.stow.things[0], room_of(build, Facts()))
    moved = apply(build, [set_to("stow.modes", msgspec.to_builtins((build.stow.modes[0], camp)))])
    fewer = free_places(moved, moved.stow.things[0], room_of(moved, Facts()))
    absent = Mode("camp", "Camp", False, camp.places, ("t2",))
    gone = apply(build, [set_to("stow.modes", msgspec.to_builtins((build.stow.modes[0], absent)))])

    assert any(abs(x - 3.0) < 0.2 for x in free.x_m) and not any(abs(x - 3.0) < 0.2 for x in fewer.x_m)
    assert len(free_places(gone, gone.stow.things[0], room_of(gone, Facts())).x_m) == len(free.x_m)


def test_a_thing_rests_on_floor_or_furniture_and_never_floats():
    shelf = a_thing("t2", x=2.8, z=FLOOR, size=(0.8, 1.0, 0.4))
    box = a_thing("t1", x=3.0, z=FLOOR + 0.4, size=(0.2, 0.2, 0.2))
    build = a_build([box, shelf], shell=a_shell())
    found = free_places(build, box, room_of(build, Facts()))

    for x, y, z in zip(found.x_m, found.y_m, found.z_m, strict=True):
        on_shelf = abs(z - FLOOR - 0.4) < 0.03 and 2.8 <= x + 0.1 <= 3.6 and abs(y) <= 0.5
        assert on_shelf or abs(z - FLOOR) < 0.03


def test_outside_things_stay_on_the_drawbar():
    box = a_thing("t1", x=0.6, z=0.5, size=(0.3, 0.3, 0.3), outside=True)
    build = a_build([box, a_thing("t2", x=0.95, z=0.5, size=(0.2, 0.3, 0.3), outside=True)], shell=a_shell())
    found = free_places(build, box, room_of(build, Facts()))

    assert len(found.x_m) and found.x_m.min() >= 0.35 and (found.x_m + 0.3).max() <= 0.95 + 0.003
    assert set(found.y_m) == {0.0}


def test_what_stays_or_weighs_nothing_is_not_moved():
    build = a_build(
        [a_thing("t1", stays=True), a_thing("t2", mass=0.5), a_thing("t3", taken_out=True), a_thing("t4", size=(0, 0, 0))], shell=a_shell()
    )
    s = study(build, Facts())

    assert [moves_of(s, thing, room_of(build, Facts())) for thing in build.stow.things] == [None] * 4


def test_two_moves_are_found_where_one_is_not_enough():
    """Two heavy boxes at the tail that are each too heavy to leave there, in a body with room ahead."""
    things = [
        a_thing("t1", 55.0, x=3.55, y=-0.35, z=FLOOR, size=(0.4, 0.4, 0.3)),
        a_thing("t2", 55.0, x=3.55, y=0.35, z=FLOOR, size=(0.4, 0.4, 0.3)),
    ]
    rig = a_rig(axle=2.78, frame=260.0, frame_cg=2.57, stabiliser_station=Length(4.0))
    one = settled_one(study(a_build(things, rig=rig, shell=a_shell()), Facts()), "ball-light")

    assert one.remedy is not None
    assert len({op.path.split(".")[2] for op in one.remedy.ops}) in (1, 2)


def test_a_turned_thing_keeps_its_weight_where_it_was_put():
    thing = a_thing("t1", size=(0.8, 0.4, 0.3), x=1.0, cg_dx=Length(0.1), turn=90)
    part = part_of_thing(thing)

    assert part.size_m == (0.4, 0.8, 0.3)
    assert (part.x_m, part.y_m) == (pytest.approx(1.2), pytest.approx(0.1))


def test_the_plain_frame_s_centre_by_hand():
    """Rails 2 x 3.0 m at 2.7, six cross-members of 1.4 m there too, legs 2 x hypot(1.2, 0.7) at 0.6."""
    legs = 2 * np.hypot(1.2, 0.7)
    steel = 6.0 + 6 * 1.4

    assert frame_cg_m(msgspec.structs.replace(a_rig(), frame_cg=None)) == pytest.approx(
        (steel * 2.7 + legs * 0.6) / (steel + legs), rel=1e-9
    )


def test_what_a_hand_s_width_forward_does():
    s = study(a_build([a_thing("t1", 30.0)]), Facts())

    assert ball_per_100_mm_kg(s, "t1", 0) == pytest.approx(1.0)
    assert ball_per_100_mm_kg(study(a_build([a_thing()], rig=a_bed()), Facts()), "t1", 0) is None


def test_the_car_s_rear_axle_and_train_by_hand():
    car = Vehicle("v1", "Car", Mass(75.0), Mass(1500.0), Mass(3000.0), Mass(1000.0), Mass(900.0), Mass(700.0), Length(2.7), Length(1.0))
    facts = Facts(vehicles=(car,))
    s = study(a_build([a_thing("t1", 100.0, x=1.8)]), facts)
    found = {limit.id: limit for limit in s.limits}
    tongue = float(s.readings.tongue_kg.max())

    assert found["car-rear/v1"].value == pytest.approx(700 + tongue * 3.7 / 2.7)
    assert found["train/v1"].value == pytest.approx(1600 + 360)
    assert found["ball/v1"].limit == 75.0 and found["towed/v1"].value == pytest.approx(360)


def test_the_jack_by_hand():
    """360 kg, axle 3.0, jack at 0.5: J = T a / (a - x_j), and a person of 100 kg 1.2 m behind the axle takes 48 kg off it."""
    s = study(a_build([a_thing("t1", 100.0, x=1.8)]), Facts())
    tongue = float(s.readings.tongue_kg[0])

    assert s.at_rest.jack_kg[0] == pytest.approx(tongue * 3.0 / 2.5)
    assert s.at_rest.jack_tail_loaded_kg[0] == pytest.approx(tongue * 1.2 - 100 * 1.2 / 2.5)
    assert tail_m(s.build) == 4.2 and length_m(s.build) == 4.2
