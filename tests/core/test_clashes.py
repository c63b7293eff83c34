"""What stands in what: pairs against brute force, walls, wheel boxes, sticks, openings and swings against hand sums."""

import itertools

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import a_body, a_build, a_hole, a_rig, a_shell, a_tank, a_thing
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.placing import place_ops, stand_of, state_ops, with_inner
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Volume
from uncle_sled.core.document.shell import WheelBoxes
from uncle_sled.core.document.stow import Clear, InState, Mode, Place, State, Tank
from uncle_sled.core.studies.stow.clashes import clashes, modes_in_use
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.solids import TOUCH_M, overlap_m3, side_of, solids_in

# a_body stands from 1.2 to 5.2, 2.0 wide, from 0.5 to 2.6 high, in a wall of 0.12
FLOOR = 0.62
ROAD, CAMP = Mode("road", "Road", True), Mode("camp", "Camp", False)


def of(build, mode="road", kind=None):
    return [c for c in clashes(build, Facts())[mode] if kind in (None, c.kind)]


def boxed(*things, shell=None, modes=(ROAD, CAMP), **changes):
    build = a_build(things, shell=shell or a_body(), **changes)
    return msgspec.structs.replace(build, stow=msgspec.structs.replace(build.stow, modes=modes))


SPOTS = st.tuples(st.floats(1.5, 4.5), st.floats(-0.8, 0.8), st.floats(0.7, 2.0), st.floats(0.05, 0.8))


@settings(max_examples=40, deadline=None)
@given(st.lists(SPOTS, min_size=2, max_size=14), st.integers(0, 13), st.floats(-0.5, 0.5))
def test_pairs_are_those_of_brute_force_also_after_one_moved(spots, which, by):
    things = [a_thing(f"t{k}", x=x, y=y, z=z, size=(s, s / 2 + 0.05, s)) for k, (x, y, z, s) in enumerate(spots)]
    for _ in range(2):
        build = boxed(*things)
        found = {frozenset((c.a, c.b)): c.overlap_m3 for c in of(build, kind="things")}
        wanted = {}
        for a, b in itertools.combinations(things, 2):
            low = np.maximum(*[np.array([t.x.si, t.y.si - t.width.si / 2, t.z.si]) for t in (a, b)])
            high = np.minimum(*[np.array([t.x.si + t.length.si, t.y.si + t.width.si / 2, t.z.si + t.height.si]) for t in (a, b)])
            if (high - low > TOUCH_M).all() and (high - low).prod() > 1e-6:
                wanted[frozenset((a.id, b.id))] = float((high - low).prod())

        assert found.keys() == wanted.keys()
        assert all(found[key] == pytest.approx(volume) for key, volume in wanted.items())
        at = which % len(things)
        things[at] = msgspec.structs.replace(things[at], x=Length(things[at].x.si + by))


def test_three_hundred_things_are_the_same_by_index_and_by_brute_force():
    rng = np.random.default_rng(7)
    things = [
        a_thing(f"t{k}", x=1.4 + 3 * rng.random(), y=1.6 * (rng.random() - 0.5), z=0.7 + rng.random(), size=(0.2, 0.2, 0.2))
        for k in range(300)
    ]
    solids = solids_in(boxed(*things).stow, ROAD)
    wanted = {frozenset((a.id, b.id)) for a, b in itertools.combinations(solids, 2) if overlap_m3(a, b) > 1e-6}

    assert {frozenset((c.a, c.b)) for c in of(boxed(*things), kind="things")} == wanted and len(wanted) > 100


def test_what_is_built_in_does_not_clash_and_goes_along():
    galley = a_thing("g", x=2.0, z=FLOOR, size=(1.0, 0.5, 0.9))
    sink = a_thing("s", x=2.2, z=1.3, size=(0.4, 0.3, 0.2), inside="g")
    tap = a_thing("p", x=2.3, z=1.35, size=(0.1, 0.1, 0.3), inside="s")
    build = boxed(galley, sink, tap)

    assert of(build, kind="things") == []
    assert with_inner(build.stow, ("g",)) == ("g", "s", "p")
    loose = boxed(galley, msgspec.structs.replace(sink, inside=None), tap)
    assert {(c.a, c.b) for c in of(loose, kind="things")} == {("g", "s"), ("g", "p")}


def test_walls_floor_and_curve_are_met_by_true_outlines():
    inside = a_thing("a", x=1.32, y=-0.78, z=FLOOR, size=(0.5, 0.2, 0.5))
    out = a_thing("b", x=1.30, y=0.0, z=FLOOR, size=(0.5, 0.2, 0.5))
    side = a_thing("c", x=3.0, y=0.80, z=FLOOR, size=(0.5, 0.24, 0.5))
    assert {c.a for c in of(boxed(inside, out, side))} == {"b", "c"}
    by = {c.a: c.by_m for c in of(boxed(inside, out, side))}
    assert by["b"] == pytest.approx(0.02, abs=0.003) and by["c"] == pytest.approx(0.04, abs=0.003)

    # under a round nose a box does not fit, and a wedge of the same size does
    shell = a_shell()
    box = a_tank("w", 20, x=1.30, y=0.0, z=0.60, size=(0.5, 0.6, 0.66))
    wedge = msgspec.structs.replace(box, tank=Tank(Volume(0.02), "fresh", "wedge", thin_height=Length(0.20)))
    assert [c.kind for c in of(boxed(box, shell=shell))] == ["body"]
    assert of(boxed(wedge, shell=shell)) == []


def test_outside_things_stand_clear_of_the_body_and_inside_ones_of_the_ground():
    rack = a_thing("r", x=0.4, z=0.5, size=(0.6, 0.6, 0.4), outside=True)
    deep = a_thing("d", x=1.0, z=0.7, size=(0.6, 0.6, 0.4), outside=True)
    low = a_thing("l", x=2.0, z=-0.2, size=(0.3, 0.3, 0.3))
    found = of(boxed(rack, deep, low))

    assert {(c.a, c.kind, c.b) for c in found} == {("d", "outside", "shell"), ("l", "body", "ground")}


def test_a_gable_is_met_by_its_slope():
    shell = a_body("gable", eaves=Length(1.4))
    tall = a_thing("t", x=2.5, y=0.75, z=FLOOR, size=(0.4, 0.2, 1.4))
    middle = a_thing("m", x=3.5, y=0.0, z=FLOOR, size=(0.4, 0.2, 1.4))

    assert {c.a for c in of(boxed(tall, middle, shell=shell))} == {"t"}


def test_wheel_boxes_and_sticks_are_named():
    shell = a_body("box", "stick timber", wheel_boxes=WheelBoxes(Length(0.8), Length(0.3), Length(0.4)))
    cabinet = a_thing("c", x=2.8, y=-0.75, z=FLOOR, size=(0.5, 0.24, 0.6))
    into = a_thing("w", x=4.5, y=0.88, z=1.2, size=(0.5, 0.16, 0.5))
    found = of(boxed(cabinet, into, shell=shell, rig=a_rig(axle=3.0)))

    assert ("c", "wheel-box-left") in {(c.a, c.b) for c in found if c.kind == "wheel box"}
    # 0.17 m of the box over 0.24 wide and 0.28 high stand in the wheel box, from 2.8 to 3.3
    assert next(c.overlap_m3 for c in found if c.kind == "wheel box") == pytest.approx(0.5 * 0.17 * 0.28, rel=0.01)
    sticks = [c for c in found if c.kind == "stick" and c.a == "w"]
    assert sticks and all("right side" in c.b_name for c in sticks)


def test_windows_doors_and_swings_want_room_where_they_are_used():
    shell = a_body(openings=(a_hole("win", "left side", 1.0, 0.8, 0.6, 0.4), a_hole("gate", "right side", 2.0, 0.2, 0.7, 1.6, "door")))
    locker = a_thing("l", x=2.3, y=-0.75, z=1.2, size=(0.5, 0.24, 0.6))
    chest = a_thing("c", x=3.2, y=0.70, z=FLOOR, size=(0.7, 0.3, 1.2))
    fridge = a_thing("f", x=2.0, y=0.2, z=FLOOR, size=(0.5, 0.5, 0.8), clear=(Clear("d", "door", "front", Length(0.5)),))
    table = a_thing("t", x=1.6, y=0.2, z=FLOOR, size=(0.35, 0.5, 0.7))
    build = boxed(locker, chest, fridge, table, shell=shell)

    assert {(c.a, c.b) for c in of(build, "camp", "opening")} == {("l", "win"), ("c", "gate")}
    assert [(c.a, c.b) for c in of(build, "camp", "swing")] == [("f", "t")]
    assert of(build, "road") == []  # on the road nothing is opened
    assert modes_in_use(boxed(modes=(ROAD,))) == {"road"}


def test_a_mode_has_its_own_places_and_states():
    bunk = a_thing("b", x=2.0, y=0.4, z=1.0, size=(1.9, 0.7, 0.1), kind="bed")
    bunk = msgspec.structs.replace(bunk, states=(State("up", "folded", Length(1.9), Length(0.1), Length(0.7), None, Length(0.3)),))
    moped = a_thing("v", x=2.2, y=0.2, z=FLOOR, size=(1.5, 0.6, 1.0), kind="vehicle aboard")
    cargo = Mode("cargo", "Cargo", True, (Place("v", Length(2.2), Length(0.2), Length(FLOOR)),), (), (InState("b", "up"),))
    build = boxed(bunk, moped, modes=(ROAD, cargo))

    assert [(c.a, c.b) for c in of(build, "road", "things")] == [("b", "v")] and of(build, "cargo", "things") == []
    stand = stand_of(bunk, cargo)
    assert (stand.y, stand.size, stand.state) == (pytest.approx(0.7), (1.9, 0.1, 0.7), "up")
    # dragging it in that state moves the place, not the shift of the state
    moved = apply(build, place_ops(build, cargo, bunk, (2.1, 0.72, 1.0)))
    assert stand_of(bunk, moved.stow.modes[1]).spot == (pytest.approx(2.1), pytest.approx(0.72), pytest.approx(1.0))
    back = apply(build, state_ops(cargo, bunk, None))
    assert back.stow.modes[1].states == () and stand_of(bunk, back.stow.modes[1]).size == (1.9, 0.7, 0.1)


def test_outlines_that_cross_are_summed_right():
    tube = a_tank("a", 30, x=2.0, z=1.0, size=(0.8, 0.4, 0.4), tank=Tank(Volume(0.03), "fresh", "cylinder", "along"))
    across = a_tank("b", 30, x=2.2, z=1.0, size=(0.4, 0.8, 0.4), tank=Tank(Volume(0.03), "fresh", "cylinder", "across"))
    one, other = (next(s for s in solids_in(boxed(tube, across).stow, ROAD) if s.id == id) for id in "ab")

    # two equal cylinders crossing at right angles share 16 r^3 / 3 (Archimedes)
    assert overlap_m3(one, other) == pytest.approx(16 * 0.2**3 / 3, rel=0.01)


def test_a_turned_wedge_turns_its_outline():
    wedge = a_tank("w", 20, x=2.0, z=1.0, size=(0.6, 0.4, 0.3), tank=Tank(Volume(0.02), "fresh", "wedge", thin_height=Length(0.0)))
    deep = {0: 2.6, 180: 2.0}
    for turn, end in deep.items():
        solid = solids_in(boxed(msgspec.structs.replace(wedge, turn=turn)).stow, ROAD)[0]
        assert abs(solid.shape.centroid.x - end) == pytest.approx(0.2, abs=1e-3) and solid.plane == "xz"
    turned = solids_in(boxed(msgspec.structs.replace(wedge, turn=90)).stow, ROAD)[0]
    assert turned.plane == "yz" and turned.shape.centroid.x > 0  # the rear goes right
    assert side_of("front", 90) == "left" and side_of("rear", 270) == "left" and side_of("top", 180) == "top"


def test_things_without_a_size_and_no_body_are_no_trouble():
    build = boxed(a_thing("z", size=(0.0, 0.3, 0.3)), a_thing("y"), shell=a_body("none"))

    assert of(build) == [] and room_of(build, Facts()) is None
    assert clashes(a_build(), Facts()).keys() == {"road", "camp"}
