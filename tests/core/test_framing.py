"""Framing by both schools: nothing overlaps, every sheet edge is backed, hand changes live through regeneration."""

from typing import Any

import msgspec
import pytest
import shapely
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from shapely import unary_union
from shapely.geometry import LineString

from tests.builders import a_body, a_hole
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Framing, HandChange, Section, WheelBoxes
from uncle_sled.core.framing.by_hand import add_ops, as_generated_ops, change_ops, changes_of, left_out
from uncle_sled.core.framing.frame_body import FASTENERS, frame_body
from uncle_sled.core.framing.laying import stations
from uncle_sled.core.materials import materials
from uncle_sled.core.reading.studied import study
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

STICK: Any
STICK, PLY, TUBE, RIBS = "stick timber", "cut plywood sides", "welded tube", "strip ribs"
SECTIONED = ("gable", "butterfly", "bevelled")
SLACK_M = 0.05  # a gap shorter than the shortest stick that anybody screws in

METRIC = Words(Shown())


def framed(shell, axle=4.0, imperial=False):
    return frame_body(shell, axle, imperial, materials())


def uncovered_m(line, covered):
    """Longest stretch of a line that lies over no stick [m]."""
    left = line.difference(covered)
    return max((g.length for g in getattr(left, "geoms", [left])), default=0.0)


def check_sound(made, school):
    """No stick over another, an opening or a wheel box; sheet joints and openings' edges are backed."""
    for surface in made.body.surfaces:
        shapes = [m.shape for m in made.on(surface.id)]
        holes = made.holes_in(surface.id)
        if not shapes:
            continue
        total = sum(s.area for s in shapes)
        assert total == pytest.approx(unary_union(shapes).area, abs=1e-6), surface.id
        for hole in holes:
            assert sum(shapely.area(shapely.intersection(shapes, hole))) < 1e-6, surface.id
        proud = 2.1e-3 if school == TUBE else 1e-6  # folds stand outside of their curve by up to 1 mm
        assert shapely.contains(surface.polygon.buffer(proud), shapes).all()
        if surface.kind in ("left side", "right side"):
            check_backed(made, surface, shapes, holes, school)


def check_backed(made, surface, shapes, holes, school):
    region = unary_union(shapes).convex_hull
    left, low, right, high = region.bounds
    covered = unary_union([s.buffer(1e-5) for s in shapes])
    wide, tall = made.sizes.sheet_width, made.sizes.sheet_length
    if school in (PLY, RIBS):
        wide, tall = tall, wide
    free = region
    for hole in holes:
        free = free.difference(hole)
    for x in stations(left, right, wide):
        assert uncovered_m(LineString([(x, low), (x, high)]).intersection(free), covered) < SLACK_M, ("joint", x)
    for y in stations(low, high, tall):
        assert uncovered_m(LineString([(left, y), (right, y)]).intersection(free), covered) < SLACK_M, ("joint", y)
    for cut in made.cuts:
        if cut.surface == surface.id and cut.good and cut.kind in ("window", "door"):
            around = cut.shape.buffer(0.002, join_style="mitre").exterior.intersection(free.buffer(-0.001))
            assert uncovered_m(around, covered) < SLACK_M, cut.id


@pytest.mark.parametrize("school", [STICK, PLY, TUBE, RIBS])
@pytest.mark.parametrize("form", ["profile", "box", "flat", "shed", "gable", "butterfly", "bevelled"])
def test_every_form_is_framed_soundly_or_told_why_not(form, school):
    made = framed(a_body(form, school, height=Length(2.9), openings=(a_hole("door", "right side", 1.4, 0.15, 0.7, 1.2, kind="door"),)))

    if school != STICK and form in SECTIONED:
        assert [f.code for f in made.faults] == ["school-form"] and not made.members
    else:
        assert made.faults == () and {m.face_kind for m in made.members} >= {"floor", "left side", "right side", "roof"}
        check_sound(made, school)


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(
    school=st.sampled_from([STICK, PLY, TUBE, RIBS]),
    form=st.sampled_from(["box", "profile", "shed"]),
    places=st.lists(
        st.tuples(st.floats(-0.3, 3.9), st.floats(-0.2, 1.9), st.floats(0.05, 1.6), st.floats(0.05, 1.7), st.booleans()),
        min_size=1,
        max_size=4,
    ),
    boxes=st.booleans(),
)
def test_random_openings_never_meet_a_stick_and_their_edges_are_backed(school, form, places, boxes):
    openings = tuple(
        a_hole(f"o{at}", "left side" if left else "right side", *(round(v, 3) for v in (x, z, w, h)))
        for at, (x, z, w, h, left) in enumerate(places)
    )
    wheel = WheelBoxes(Length(0.9), Length(0.25), Length(0.3)) if boxes else None
    made = framed(a_body(form, school, openings=openings, wheel_boxes=wheel), axle=3.2)
    told = {id for fault in made.faults for id in fault.where}

    for cut in made.cuts:
        assert cut.good != (cut.id in told) or cut.kind == "wheel box" or cut.good
    for surface in made.body.surfaces:
        shapes = [m.shape for m in made.on(surface.id)]
        if shapes:
            assert sum(s.area for s in shapes) == pytest.approx(unary_union(shapes).area, abs=1e-6)
            for hole in made.holes_in(surface.id):
                assert sum(s.intersection(hole).area for s in shapes) < 1e-6


@settings(max_examples=25, deadline=None)
@given(x=st.floats(0.5, 2.4), z=st.floats(0.4, 0.8), w=st.floats(0.3, 1.1), h=st.floats(0.3, 0.9))
def test_one_window_anywhere_is_framed_all_round(x, z, w, h):
    for school in (STICK, PLY, TUBE):
        made = framed(a_body("box", school, openings=(a_hole("o", "left side", x, z, w, h),)))

        assert made.faults == ()
        check_sound(made, school)


def test_a_stick_weighs_its_cut_shape_and_knows_its_end_cuts():
    made = framed(a_body("gable", STICK))
    stud = next(m for m in made.on("front") if m.kind == "stud")

    assert stud.mass_kg == pytest.approx(stud.shape.area * stud.section_m[1] * 450 * (1 + FASTENERS))
    rise, half = 2.1 * 0.3, 1.0  # eaves at 0.7 of the height over half the width
    import math

    assert max(abs(e) for e in stud.ends_deg) == pytest.approx(math.degrees(math.atan2(rise, half)), abs=0.2)


def test_a_window_by_hand():
    """Box 4.0 long, window 0.8 wide: header 0.8 + 2 jacks, sill 0.8, jacks to the window's head, two kings."""
    made = framed(a_body("box", STICK, openings=(a_hole("o", "left side", 1.5, 0.8, 0.8, 0.6),)))
    mine = {m.kind: m for m in made.on("left side") if m.anchor.startswith("o")}

    assert mine["header"].length_m == pytest.approx(0.8 + 2 * 0.045) and mine["sill"].length_m == pytest.approx(0.8)
    floor = 0.070  # joists are as deep; the wall stands on the floor
    assert mine["jack"].length_m == pytest.approx(1.4 - floor - 0.045)
    assert sum(1 for m in made.on("left side") if m.kind == "king") == 2
    assert all(m.ends_deg == (0.0, 0.0) for m in mine.values())


def test_moving_an_opening_reframes_its_own_face_only():
    shell = a_body("box", STICK, openings=(a_hole("o", "left side", 1.5, 0.8, 0.8, 0.6),))
    before = framed(shell)
    after = framed(msgspec.structs.replace(shell, openings=(a_hole("o", "left side", 1.7, 0.8, 0.8, 0.6),)))

    assert before.on("left side") != after.on("left side")
    assert before.on("right side") == after.on("right side") and before.on("roof") == after.on("roof")


BAD = [
    (
        {"openings": (a_hole("a", "left side", 1.0, 0.5, 0.8, 0.6), a_hole("b", "left side", 1.5, 0.6, 0.8, 0.6))},
        "openings-meet",
        "lies over",
    ),
    ({"openings": (a_hole("a", "left side", 3.6, 0.5, 0.8, 0.6),)}, "opening-over-edge", "by up to 400 mm"),
    ({"openings": (a_hole("a", "roof", 1.0, 1.9, 0.4, 0.4),)}, "opening-over-edge", "over the edge"),
    ({"framing": Framing(STICK, pitch=Length(0.0))}, "no-pitch", "0 mm"),
    ({"framing": Framing(STICK, stick=Section(Length(0.0), Length(0.07)))}, "no-section", "side of nothing"),
    ({"framing": Framing(STICK, stick=Section(Length(0.045), Length(0.3)))}, "stick-too-deep", "300 mm deep"),
    ({"framing": Framing(STICK, sheet_width=Length(0.1))}, "no-sheet", "300 mm"),
    ({"framing": Framing(STICK, material="moon")}, "no-material", "moon"),
    ({"height": Length(0.2)}, "wall-too-low", "least"),
    ({"length": Length(29.0), "width": Length(25.0), "framing": Framing(STICK, pitch=Length(0.1))}, "too-many-sticks", "wider pitch"),
    ({"length": Length(1e6)}, "body-too-big", "30 m"),
]


@pytest.mark.parametrize(("changes", "code", "says"), BAD)
def test_what_cannot_be_built_is_said_with_its_place(changes, code, says):
    made = framed(msgspec.structs.replace(a_body("box", STICK), **changes))
    one = next(f for f in made.faults if f.code == code)

    assert says in METRIC.told(one.says) and one.where
    check_sound(made, STICK)


def test_a_profile_that_crosses_itself_is_told_where():
    from uncle_sled.core.document.shell import ProfileNode

    nodes = tuple(ProfileNode(u, v, u, v, u, v) for u, v in ((0, 0), (0.8, 1.0), (0.2, 1.0), (1, 0)))
    made = framed(a_body("profile", PLY, profile=nodes))

    assert made.faults[0].code == "profile-crosses" and "from the body's front" in made.faults[0].says
    assert made.members == ()


def test_hand_changes_survive_a_moved_opening_and_go_loose_when_their_stick_is_gone():
    hole = a_hole("o", "left side", 2.4, 0.8, 0.8, 0.6)
    build = Build("b", "b", shell=a_body("box", STICK, openings=(hole,)))
    made = framed(build.shell)
    stud = next(m for m in made.on("left side") if m.role == "stud" and m.anchor == "0.800")
    build = apply(build, change_ops(build.shell, stud, "move", Length(0.05)))
    king = next(m for m in made.on("left side") if m.role == "king")
    build = apply(build, change_ops(build.shell, king, "section", None, Section(Length(0.06), Length(0.07))))
    moved = framed(build.shell)
    now = next(m for m in moved.on("left side") if m.anchor == "0.800" and m.role == "stud")
    assert now.by_hand and min(p[0] for p in now.outline) == pytest.approx(0.8 + 0.05 - 0.0225)
    check_sound(moved, STICK)

    # the opening moves: both changes hold
    shifted = apply(build, [msgspec_set("shell.openings.o.along", 2.2)])
    again = framed(shifted.shell)
    assert sum(m.by_hand for m in again.members) == 2 and again.loose == ()
    # another pitch: the stud at 0.80 is gone, the nearest within half a pitch takes the change
    other = framed(apply(shifted, [msgspec_set("shell.framing.pitch", 0.43)]).shell)
    taken = [m for m in other.members if m.by_hand and m.role == "stud"]
    assert [m.anchor for m in taken] == ["0.860"] and changes_of(shifted.shell, taken[0])
    # the opening is closed up: the king's change waits
    closed = framed(msgspec.structs.replace(shifted.shell, openings=()))
    assert [c.role for c in closed.loose] == ["king"]


def msgspec_set(path, si):
    from uncle_sled.core.document.edits import set_to

    return set_to(path, {"si": si, "typed": None})


def test_left_out_added_and_given_back():
    build = Build("b", "b", shell=a_body("box", STICK))
    made = framed(build.shell)
    stud = next(m for m in made.on("left side") if m.role == "stud")
    without = apply(build, change_ops(build.shell, stud, "leave out"))
    assert stud.id not in {m.id for m in framed(without.shell).members} and len(left_out(without.shell)) == 1
    more = apply(build, add_ops(build.shell, "left side", 1.0))
    added = next(m for m in framed(more.shell).on("left side") if m.role == "added")

    assert added.by_hand and added.at_m[0] == pytest.approx(1.2 + 1.0)
    assert apply(more, as_generated_ops(more.shell, added)) == build
    check_sound(framed(more.shell), STICK)


def test_changing_the_school_parks_its_changes():
    build = Build("b", "b", shell=a_body("box", STICK))
    stud = next(m for m in framed(build.shell).on("left side") if m.role == "stud")
    build = apply(build, change_ops(build.shell, stud, "leave out"))
    ply = msgspec.structs.replace(build.shell, framing=msgspec.structs.replace(build.shell.framing, school=PLY))

    assert framed(ply).loose == () and not any(m.by_hand for m in framed(ply).members)
    back = msgspec.structs.replace(ply, framing=build.shell.framing)
    assert framed(back).members == framed(build.shell).members


def test_a_change_for_a_face_that_is_gone_waits():
    change = HandChange("h1", STICK, "roof left", "rafter", "1.000", "leave out")
    shell = a_body("gable", STICK)
    shell = msgspec.structs.replace(shell, framing=msgspec.structs.replace(shell.framing, changes=(change,)))
    assert framed(shell).loose == () or framed(shell).loose == (change,)
    box = msgspec.structs.replace(shell, form="box")

    assert framed(box).loose == (change,)


def test_a_bare_sheet_or_a_sandwich_holds_no_sticks():
    from uncle_sled.core.document.assemblies import WAYS

    shell = a_body("box", STICK)
    faces = (Face("l", "left side", "Left", layers=WAYS["laminate sandwich"]),)
    made = framed(msgspec.structs.replace(shell, faces=faces))

    assert made.on("left side") == () and made.on("right side") != () and made.faults == ()


def test_imperial_sizes_are_the_schools_own_in_north_america():
    made = framed(a_body("box", STICK), imperial=True)

    assert made.sizes.pitch == pytest.approx(0.4064) and made.sizes.stick == pytest.approx((0.0381, 0.0889))


def test_an_inch_goes_into_twenty_five_millimetres_and_two_more_do_not() -> None:
    project = demo("marsh-heron")
    for deep, fits in ((0.0254, True), (0.027, False)):
        section = {"thick": {"si": 0.03}, "deep": {"si": deep}}
        build = apply(project.build, [set_to(f"shell.framing.{one}", section) for one in ("stick", "rib", "joist")])
        faults = {one.code for one in study(build, project.facts).framed.faults}
        assert ("stick-too-deep" in faults) is not fits, (deep, faults)
