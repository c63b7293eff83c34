"""Pointed noses and clipped corners: lengths, areas and centres by closed forms, walls that meet, and what follows them."""

import math
import random
from typing import Any

import pytest
from msgspec.structs import replace
from shapely import box
from shapely.geometry import Polygon

from tests.builders import a_body, a_build, a_thing
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Opening
from uncle_sled.core.drawing.rig.rig_views import plan_body
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.drawing.stow.isometric import PEELS, isometric
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.geometry.footprint import corners_m, plan_of
from uncle_sled.core.parts.from_shell import net_area
from uncle_sled.core.parts.partitions import inner_shape
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.core.studies.stow.free_places import free_places
from uncle_sled.core.studies.stow.room import room_of

F = Facts()


def L(metres):
    return Length(metres)


def a_nose(p=0.6, clip=None, across=None, side="right", form="box", **more):
    """4.0 x 2.0 x 2.1 in a wall 120 mm thick, 1.2 from the ball and 0.5 up."""
    return a_body(
        form,
        nose_point=L(p) if p else None,
        tail_clip=L(clip) if clip else None,
        tail_clip_across=L(across) if across else None,
        clipped=side,
        **more,
    )


def studied(shell, things=(), **more):
    return study(a_build(things, shell=shell, **more), F)


def test_check_case_of_a_pointed_nose():
    """1.80 wide, 0.60 deep: walls 1.0817 m at 33.69 degrees, 0.54 m2 of floor, its centre a third of the depth ahead."""
    shell = replace(a_nose(0.6), width=L(1.8))
    s = studied(shell)
    walls = s.framed.body.of("front")
    assert [round(one.polygon.bounds[2], 4) for one in walls] == [1.0817, 1.0817]
    assert math.degrees(math.atan2(abs(walls[0].along[0]), walls[0].along[1])) == pytest.approx(33.69, abs=0.005)
    floor = s.framed.body.of("floor")
    area, centre = net_area(s.framed, floor)
    nose = 1.8 * 0.6 / 2
    assert area == pytest.approx(3.4 * 1.8 + nose) and nose == pytest.approx(0.54)
    by_hand = (3.4 * 1.8 * (1.2 + 0.6 + 1.7) + nose * (1.2 + 0.6 - 0.2)) / area
    assert centre[0] == pytest.approx(by_hand) and centre[1] == pytest.approx(0.0)


@pytest.mark.parametrize("side", ["left", "right"])
def test_six_corners_by_closed_forms(side):
    p, c, d, long, wide, high = 0.6, 0.5, 0.4, 4.0, 2.0, 2.1
    s = studied(a_nose(p, c, d, side))
    body = s.framed.body
    assert len(corners_m(s.build.shell)) == 6
    whole = (long - p) * wide + wide * p / 2 - c * d / 2
    assert body.of("floor")[0].area_m2 == pytest.approx(whole)
    assert body.of("roof")[0].area_m2 == pytest.approx(whole)
    walls = {one.id: one for one in body.surfaces}
    runs = {name: one.polygon.bounds[2] - one.polygon.bounds[0] for name, one in walls.items()}
    other = "left" if side == "right" else "right"
    assert runs[f"{side} side"] == pytest.approx(long - p - c) and runs[f"{other} side"] == pytest.approx(long - p)
    tail = [runs[one.id] for one in body.of("rear")]
    corner, straight = (tail[1], tail[0]) if side == "right" else (tail[0], tail[1])
    assert corner == pytest.approx(math.hypot(c, d)) and straight == pytest.approx(wide - d)
    around = sum(runs[one.id] for one in body.surfaces if one.kind not in ("floor", "roof"))
    assert around == pytest.approx(plan_of(s.build.shell).length)
    assert all(one.area_m2 == pytest.approx(runs[one.id] * high) for one in body.surfaces if one.kind not in ("floor", "roof"))
    # the centre of the floor: rectangle, nose and the corner taken off
    y = (1 if side == "right" else -1) * (wide / 2 - d / 3)
    parts = (((long - p) * wide, p + (long - p) / 2, 0.0), (wide * p / 2, p * 2 / 3, 0.0), (-c * d / 2, long - c / 3, y))
    _, centre = net_area(s.framed, body.of("floor"))
    assert centre[0] - 1.2 == pytest.approx(sum(a * x for a, x, _ in parts) / whole)
    assert centre[1] == pytest.approx(sum(a * yy for a, _, yy in parts) / whole)


@pytest.mark.parametrize("form", ["box", "flat", "shed"])
def test_walls_meet_foot_to_foot_and_look_inward(form):
    s = studied(a_nose(0.7, 0.5, 0.3, "left", form))
    body, plan = s.framed.body, plan_of(s.build.shell)
    feet = []
    for one in body.surfaces:
        if one.kind in ("floor", "roof"):
            continue
        left, _, right, _ = one.polygon.bounds
        a, b = one.place(left, 0.0), one.place(right, 0.0)
        feet += [(round(a[0], 6), round(a[1], 6)), (round(b[0], 6), round(b[1], 6))]
        mid, inside = one.place((left + right) / 2, 0.5), one.place((left + right) / 2, 0.5, 0.05)
        assert plan.exterior.distance(Polygon([mid[:2], mid[:2], mid[:2]]).centroid) < 1e-6
        from shapely.geometry import Point

        assert plan.contains(Point(inside[:2])), one.id
        # as high as the roof over both its feet
        for s_at in (left + 1e-6, right - 1e-6):
            x, _, _ = one.place(s_at, 0.0)
            top = max(t for ss, t in one.polygon.exterior.coords if abs(ss - round(s_at, 5)) < 1e-3)
            roof = body.side.chain("roof")
            import numpy as np

            assert top == pytest.approx(float(np.interp(x, roof[:, 0], roof[:, 1])) - body.under, abs=1e-4)
    assert all(feet.count(foot) == 2 for foot in feet)


def test_a_door_in_the_slanted_wall():
    door = Opening("d", "door", "Door", "front", L(0.2), L(0.1), L(0.6), L(1.7))
    s = studied(a_nose(0.6, openings=(door,)))
    cut = s.framed.cuts[0]
    assert cut.surface == "front left" and cut.good and cut.shape.bounds[0] == pytest.approx(0.2)
    run = math.hypot(0.6, 1.0)
    far = studied(a_nose(0.6, openings=(replace(door, along=L(run + 0.2)),)))
    assert far.framed.cuts[0].surface == "front right" and far.framed.cuts[0].shape.bounds[0] == pytest.approx(0.2)
    over = studied(a_nose(0.6, openings=(replace(door, along=L(run - 0.3)),)))
    assert [f.code for f in over.framed.faults] == ["opening-over-edge"]
    gap = [p for p in openings_seen(s, "plan") if p.id == "d"]
    assert len(gap) == 3
    part = next(p for p in s.parts if p.id == "d")
    assert (part.x_m - 1.2) / 0.6 == pytest.approx(1 - (part.y_m + 1.0) / 1.0, abs=1e-6)  # on the slanted line
    hole = room_of(s.build, F).holes[0]
    assert hole.clear_m == (pytest.approx(0.6), pytest.approx(1.7))


@pytest.mark.parametrize("school", ["stick timber", "bought shell"])
def test_slanted_walls_are_framed_and_weigh_by_their_area(school):
    kinds: list[Any] = ["floor", "left side", "right side", "roof", "front", "rear"]
    faces = tuple(Face(f"f{k}", kind, kind, layers=()) for k, kind in enumerate(kinds))
    s = studied(a_nose(0.6, 0.5, 0.4, framing=replace(a_body().framing, school=school), faces=faces))
    assert not s.framed.faults
    for one in s.framed.body.surfaces:
        if one.kind in ("front", "rear", "left side", "right side"):
            assert s.framed.on(one.id), one.id
            for member in s.framed.on(one.id):
                assert one.polygon.buffer(1e-6).contains(member.shape)


def inner_by_hand(shell, plan, thick):
    return plan.buffer(-thick, join_style="mitre", mitre_limit=10)


def test_the_room_is_the_footprint_less_its_walls():
    s = studied(a_nose(0.6, 0.5, 0.4))
    shape = inner_shape(s.build.shell, s.framed.body)
    by_hand = inner_by_hand(s.build.shell, plan_of(s.build.shell), 0.120)
    assert shape.symmetric_difference(by_hand).area < 1e-6


def test_clashes_in_nose_and_corner_by_brute_force():
    rng = random.Random(7)
    seen = 0
    for _ in range(150):
        size = (rng.uniform(0.2, 0.7), rng.uniform(0.2, 0.7), 0.4)
        x, y = rng.choice([rng.uniform(1.2, 2.0), rng.uniform(4.3, 4.9)]), rng.uniform(-0.7, 0.7)
        s = studied(a_nose(0.8, 0.6, 0.6), [a_thing("t", x=x, y=y, z=0.7, size=size)])
        room = inner_by_hand(s.build.shell, plan_of(s.build.shell), 0.120)
        ground = box(x, y - size[1] / 2, x + size[0], y + size[1] / 2)
        out = ground.difference(room.buffer(0.002, join_style="mitre")).area * size[2]
        found = [c for c in clashes(s.build, F)["road"] if c.kind == "body"]
        if out > 2e-4:
            assert found and found[0].overlap_m3 == pytest.approx(out, rel=0.02, abs=2e-4), (x, y, size)
            seen += 1
        elif ground.within(room):
            assert not found
    assert seen > 40


def test_what_stands_beside_a_pointed_nose_outside_is_free():
    bottle = a_thing("g", x=1.25, y=0.75, z=0.6, size=(0.3, 0.3, 0.5), outside=True)
    assert not clashes(studied(a_nose(0.8), [bottle]).build, F)["road"]
    assert [c.kind for c in clashes(studied(a_nose(0), [bottle]).build, F)["road"]] == ["outside"]


def test_free_places_keep_inside_the_footprint():
    thing = a_thing("t", x=3.0, y=0.0, z=0.62, size=(0.5, 0.5, 0.4))
    s = studied(a_nose(0.8, 0.6, 0.6), [thing])
    free = free_places(s.build, thing, room_of(s.build, F), keeps_clear=True)
    room = inner_by_hand(s.build.shell, plan_of(s.build.shell), 0.120).buffer(0.003, join_style="mitre")
    assert len(free.x_m) > 20
    for x, y in zip(free.x_m, free.y_m, strict=True):
        assert box(x, y - 0.25, x + 0.5, y + 0.25).within(room)


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"nose_point": L(4.5)}, "leave no side"),
        ({"nose_point": L(2.5), "tail_clip": L(1.6)}, "leave no side"),
        ({"tail_clip": L(0.5), "tail_clip_across": L(2.2)}, "across"),
        ({"nose_point": L(0.5), "form": "gable"}, "Only a box"),
    ],
)
def test_a_footprint_that_cannot_be_is_said_and_the_body_stays_square(changes, says):
    s = studied(replace(a_nose(0), **changes))
    one = next(f for f in findings(s) if f.code == "footprint-wrong")
    assert says in one.says and len(s.framed.body.of("front")) == 1


def test_every_drawing_follows():
    s = studied(a_nose(0.6, 0.5, 0.4), [a_thing("t", x=3.0)])
    assert len(plan_body(s.build)[0].points) == 6
    from uncle_sled.core.drawing.rig.things_placed import things_in

    for peel in PEELS:
        assert isometric(s, things_in(s, 0), peel)
    square = study(apply(s.build, [set_to("shell.nose_point", None), set_to("shell.tail_clip", None)]), F)
    assert len(plan_body(square.build)[0].points) == 4
