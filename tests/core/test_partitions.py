"""Walls and lofts inside: outline, sticks and weight by hand; what they keep out, and what they part."""

import random

import pytest
from msgspec.structs import replace
from shapely import box

from tests.builders import a_body, a_build, a_shell, a_thing
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import add_to, apply
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Loft, Opening, Partition
from uncle_sled.core.document.walling import first_loft, first_partition
from uncle_sled.core.findings.all_findings import RULES, findings
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inner_doors import leaf_room
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.parts.partitions import decks_of, walls_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.screws import screw_joints
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.core.studies.stow.dangers import dangers
from uncle_sled.core.studies.stow.free_places import free_places
from uncle_sled.core.studies.stow.inner_doors import leaves_hit
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.rooms import rooms_of
from uncle_sled.core.studies.stow.ways_out import ways_out
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words

F = Facts()


def L(metres):
    return Length(metres)


def a_wall(way="across", at=2.0, thick=0.05, id="i1", **changes):
    return replace(Partition(id, f"Wall {id}", way, L(at), L(thick)), **changes)


def built(*walls, shell=None, things=(), lofts=(), **more):
    """A box 4.0 x 2.0 x 2.1 in a wall 120 mm thick, 1.2 from the ball and 0.5 up."""
    body = shell or a_body("box")
    build = a_build(things, shell=replace(body, partitions=tuple(walls), lofts=tuple(lofts)), **more)
    return study(build, F)


def one_of(s):
    return walls_of(s.build.shell, s.framed.body, library_of(()))[0]


# inside of the box: x 1.32 to 5.08, y -0.88 to 0.88, z 0.62 to 2.48
HIGH, WIDE, LONG = 2.1 - 0.24, 2.0 - 0.24, 4.0 - 0.24


def test_a_wall_across_is_as_wide_and_high_as_the_room_and_weighs_its_sticks_and_skins():
    wall = one_of(built(a_wall()))
    assert wall.fault == "" and wall.outline.area == pytest.approx(HIGH * WIDE)
    assert (wall.low[0], wall.high[0]) == (pytest.approx(3.2), pytest.approx(3.25))
    kinds = {}
    for stick in wall.sticks:
        kinds.setdefault(stick.kind, []).append(stick)
    assert kinds["sole"][0].length_m == pytest.approx(WIDE) and kinds["plate"][0].length_m == pytest.approx(WIDE)
    # ends at 22 mm, then every 400 mm from the left
    assert [s.u_m for s in kinds["upright"]] == pytest.approx([-0.88 + 0.0225, -0.48, -0.08, 0.32, 0.72, 0.88 - 0.0225])
    assert all(s.length_m == pytest.approx(HIGH - 0.09) for s in kinds["upright"])
    wood = (2 * WIDE + 6 * (HIGH - 0.09)) * 0.045 * (0.05 - 0.008) * 450
    skins = 2 * 0.004 * 540 * HIGH * WIDE
    assert wall.mass_kg == pytest.approx((wood + skins) * 1.04)
    assert wall.centre_m == pytest.approx((3.225, 0.0, 0.62 + HIGH / 2))


def test_a_wall_along_follows_the_profile():
    s = built(a_wall("along", at=0.5, start=L(0.3), end=L(2.0)), shell=a_shell())
    wall, body = one_of(s), s.framed.body
    side = inside_of(s.build.shell, body)
    front = side.bounds[0]
    by_hand = side.intersection(box(front + 0.3, 0, front + 2.0, 9))
    assert wall.outline.symmetric_difference(by_hand).area < 1e-9
    assert max(z for _, z in wall.outline.exterior.coords) <= side.bounds[3] + 1e-9


def test_a_wall_across_a_gable_is_cut_to_the_slopes():
    s = built(a_wall(), shell=a_body("gable"))
    wall = one_of(s)
    _, low, _, high = wall.outline.bounds
    assert len(wall.outline.exterior.coords) - 1 == 5 and wall.outline.area < (high - low) * WIDE
    room = room_of(s.build, F)
    for y in (-0.8, -0.3, 0.0, 0.4, 0.85):
        top = wall.outline.intersection(box(y - 1e-4, -9, y + 1e-4, 9)).bounds[3]
        assert top == pytest.approx(room.ceiling_m(3.2, y), abs=0.004)


def test_a_door_is_cut_out_and_its_leaf_weighs():
    door = a_wall(door="hinged", door_from=L(0.5), door_width=L(0.6), door_height=L(1.7))
    wall, plain = one_of(built(door)), one_of(built(a_wall()))
    assert plain.outline.area - wall.outline.area == pytest.approx(0.6 * 1.7)
    assert not [s for s in wall.sticks if s.kind == "upright" and -0.38 < s.u_m < 0.22]
    opening = one_of(built(replace(door, door="opening")))
    # 594 x 1694 mm: two stiles, three rails of 504 mm, 45 x 14; two skins of 4 mm; 4 % of fasteners; hinges and latch 0.6 kg
    wood = (2 * 1.694 + 3 * 0.504) * 0.045 * 0.014 * 450
    skins = 2 * 0.594 * 1.694 * 0.004 * 540
    assert wall.mass_kg - opening.mass_kg == pytest.approx((wood + skins) * 1.04 + 0.6)
    typed = one_of(built(replace(door, mass=Mass(31.0))))
    assert typed.mass_kg == 31.0


def test_no_stud_stands_in_a_pocket():
    pocket = a_wall(thick=0.09, door="pocket", hung="end", door_from=L(0.1), door_width=L(0.6), door_height=L(1.7), pitch=L(0.2))
    wall = one_of(built(pocket))
    assert wall.fault == "" and wall.pocket == (pytest.approx(-0.18), pytest.approx(0.44))
    assert not [s for s in wall.sticks if s.kind == "upright" and wall.pocket[0] < s.u_m < wall.pocket[1]]


def modes_and_hits(s):
    return leaves_hit(s.build, F, s.framed.body, s.build.stow.modes)


SLIDES = a_wall(door="sliding", hung="end", opens="rear or right", door_from=L(0.1), door_width=L(0.6), door_height=L(1.7))


def test_a_sliding_leaf_wants_a_strip_along_its_wall_and_the_place_where_it_parks():
    """Wall 3.20 to 3.25: leaf 22 mm thick 10 mm off its rear face, 3.26 to 3.282; opening from -0.78 to -0.18, parked to 0.42."""
    s = built(SLIDES)
    wanted = leaf_room(one_of(s), s.build.shell.partitions[0])
    assert wanted.shape.bounds == pytest.approx((3.26, -0.78, 3.282, 0.42))
    assert wanted.parks.bounds == pytest.approx((3.26, -0.18, 3.282, 0.42))
    # a post at 0.12 to 0.18 across: 0.30 of 0.60 m are free, six twelfths
    post = a_thing("post", x=3.25, y=0.15, z=0.62, size=(0.06, 0.06, 1.0))
    (hit,) = modes_and_hits(built(SLIDES, things=[post]))
    assert (hit.thing, hit.turns, hit.free) == ("post", False, pytest.approx(0.5))
    for free in (replace(SLIDES, opens="front or left"), replace(SLIDES, door="none"), replace(SLIDES, hung="start", door_from=L(0.7))):
        assert not modes_and_hits(built(free, things=[replace(post, x=L(3.255), y=L(0.8))]))
    offered = built(SLIDES, things=[post])
    places = free_places(offered.build, post, room_of(offered.build, F), keeps_clear=True)
    low, high = wanted.shape.bounds[:2], wanted.shape.bounds[2:]
    in_the_way = [
        (x, y)
        for x, y, z in zip(places.x_m, places.y_m, places.z_m, strict=True)
        if z < 2.3 and low[0] - 0.058 < x < high[0] - 0.002 and low[1] - 0.028 < y < high[1] + 0.028
    ]
    assert places.x_m.size > 1000 and not in_the_way


def test_leaves_meet_the_body_other_walls_and_each_other():
    hinged = a_wall(door="hinged", hung="start", door_from=L(0.5), door_width=L(0.6), door_height=L(1.7))
    # its quarter reaches 0.6 m aft: a wall 0.3 m behind stops it at asin(275/600) = 27.3 degrees, told to a twelfth: 22.5
    hits = modes_and_hits(built(hinged, a_wall(at=2.30, id="i2")))
    assert [(hit.thing, 90 * hit.free) for hit in hits] == [("i2", pytest.approx(22.5))]
    (hit,) = modes_and_hits(built(replace(hinged, at=L(3.5))))  # 0.36 m before the body's rear wall
    assert hit.thing == "" and hit.thing_name == "the body's own wall"
    other = a_wall(
        "along",
        at=1.3,
        id="i2",
        start=L(2.0),
        door="hinged",
        door_from=L(0.2),
        door_width=L(0.6),
        door_height=L(1.7),
        opens="front or left",
    )
    (hit,) = modes_and_hits(built(hinged, other))
    assert {hit.wall, hit.thing} == {"i1", "i2"} and "open door" in hit.thing_name


POCKET = a_wall(thick=0.09, door="pocket", hung="end", door_from=L(0.1), door_width=L(0.6), door_height=L(1.7))


def test_no_screw_is_longer_than_the_skin_and_the_air_over_a_pocket():
    """4 mm of skin and 8 mm of air less 3 mm: 9 mm. What is sold begins at 16."""
    shelf = a_thing("shelf", x=3.29, y=0.2, z=1.2, size=(0.2, 0.3, 0.2))
    s = built(POCKET, things=[shelf])
    (found,) = [finding for finding in findings(s) if finding.code == "screws-over-pocket"]
    assert found.where == ("i1", "shelf") and "9 mm" in found.says
    assert not [f for f in findings(built(replace(POCKET, door="hinged"), things=[shelf])) if f.code == "screws-over-pocket"]
    joints = {joint.name: joint for joint in screw_joints(s)}
    assert joints["over the pocket"].most_m == pytest.approx(0.009) and joints["over the pocket"].long_m is None
    assert joints["both skins"].held_m == 0.004 and joints["both skins"].into_m == pytest.approx(0.082)


def test_walls_and_their_doors_are_cut_and_come_out_at_what_they_weigh():
    for wall in (
        a_wall(door="hinged", door_width=L(0.6), door_height=L(1.7)),
        POCKET,
        SLIDES,
        a_wall("along", at=0.8),
        a_wall(made="panel", thick=0.012),
    ):
        s = built(wall)
        made, pieces = one_of(s), [piece for piece in take_off(s.build, F).pieces if piece.of == "i1"]
        assert all(piece.inner for piece in pieces)
        sheets = sum(piece.area_m2 for piece in pieces if piece.kind == "sheet")
        leaf = made.leaf.wide_m * made.leaf.high_m * made.leaf.skins if made.leaf else 0.0
        assert sheets == pytest.approx((1 if wall.made == "panel" else 2) * made.outline.area + leaf, rel=1e-6)
        wood = sum(piece.length_m * piece.width_m * piece.thickness_m * 450 for piece in pieces if piece.kind == "bar")
        skins = sum(piece.area_m2 * piece.thickness_m * 540 for piece in pieces if piece.kind == "sheet")
        fittings = {"": 0.0, "hinged": 0.6}.get(wall.door if made.leaf else "", 0.8 + 1.5 * 1.2)
        assert made.mass_kg == pytest.approx((wood + skins) * 1.04 + fittings, rel=1e-6)
    hours = {task.id: task for task in tasks_of(s.build, F)}
    assert "inner-walls" in hours and "inner-doors" not in hours


@pytest.mark.parametrize(
    ("wall", "says"),
    [
        (a_wall(door="sliding", hung="end", door_from=L(0.8), door_width=L(0.6), door_height=L(1.7)), "slides 240 mm past its end"),
        (a_wall(at=0.05), "out of the room"),
        (a_wall(at=9.0), "out of the room"),
        (a_wall(thick=0.0), "no thickness"),
        (a_wall(start=L(1.0), end=L(0.5)), "ends before it begins"),
        (a_wall(door="hinged", door_height=L(2.2)), "over its edge"),
        (a_wall(door="hinged", door_from=L(1.5), door_width=L(0.6)), "over its edge"),
        (a_wall(thick=0.09, door="pocket", hung="end", door_from=L(0.6), door_width=L(0.7), door_height=L(1.7)), "pocket 260 mm longer"),
        (a_wall(thick=0.04, door="pocket", hung="end", door_from=L(0.0), door_width=L(0.6), door_height=L(1.7)), "pocket wants 46 mm"),
        (a_wall(made="panel", thick=0.09, door="pocket", hung="end", door_from=L(0.0), door_width=L(0.6), door_height=L(1.7)), "two skins"),
    ],
)
def test_a_wall_that_cannot_be_is_said_and_left_out(wall, says):
    s = built(wall)
    assert says in Words(Shown()).told(one_of(s).fault)
    assert says in next(f for f in findings(s) if f.code == "wall-wrong").says
    assert not [p for p in s.parts if p.id == "i1"] and not room_of(s.build, F).walls


def test_clashes_with_walls_by_brute_force():
    rng = random.Random(15)
    door = a_wall(door="hinged", door_from=L(0.5), door_width=L(0.6), door_height=L(1.7))
    for _ in range(120):
        size = tuple(rng.uniform(0.1, 0.6) for _ in range(3))
        x, y, z = rng.uniform(2.7, 3.4), rng.uniform(-0.5, 0.5), rng.uniform(0.62, 1.8)
        thing = a_thing("t", x=x, y=y, z=z, size=size)
        s = built(door, things=[thing])
        wall = one_of(s)
        found = [c for c in clashes(s.build, F)["road"] if c.kind == "wall"]
        deep = min(x + size[0], wall.high[0]) - max(x, wall.low[0])
        seen = box(y - size[1] / 2, z, y + size[1] / 2, z + size[2]).intersection(wall.outline).area
        volume = deep * seen if deep > 0 else 0.0
        if volume > 2e-3:
            assert sum(c.overlap_m3 for c in found) == pytest.approx(volume, rel=0.02)
        elif volume == 0:
            assert not found


def test_free_places_keep_out_of_walls():
    thing = a_thing("t", x=1.5, y=0.0, z=0.62, size=(0.5, 0.4, 0.4))
    s = built(a_wall(), things=[thing])
    free = free_places(s.build, thing, room_of(s.build, F), keeps_clear=True)
    assert len(free.x_m) and not [x for x in free.x_m if x < 3.25 - 0.002 and x + 0.5 > 3.2 + 0.002]


def test_rooms_by_their_doors():
    s = built(a_wall(door="hinged"))
    body = s.framed.body
    assert len(rooms_of(s.build.shell, body, True).plans) == 2
    assert len(rooms_of(s.build.shell, body, False).plans) == 1
    solid = built(a_wall())
    parted = rooms_of(solid.build.shell, solid.framed.body, False)
    assert len(parted.plans) == 2 and parted.of(2.0, 0.0) == 0 and parted.of(4.5, 0.0) == 1
    short = built(a_wall(end=L(1.0)))
    assert len(rooms_of(short.build.shell, short.framed.body, True).plans) == 1
    low = built(a_wall(height=L(0.9)))
    assert len(rooms_of(low.build.shell, low.framed.body, True).plans) == 1
    corner = built(a_wall(end=L(0.9)), a_wall("along", at=0.85, start=L(1.88), id="i2"))
    assert len(rooms_of(corner.build.shell, corner.framed.body, True).plans) == 2


BED = a_thing("bed", x=1.5, y=0.0, z=0.62, size=(1.6, 0.7, 0.4), kind="bed", name="Bed", places=1)
STOVE = a_thing("stove", x=4.2, y=0.5, z=0.62, size=(0.4, 0.4, 0.6), name="Stove", burns="wood")
ALARM = a_thing("alarm", x=4.5, y=0.0, z=1.8, size=(0.1, 0.1, 0.05), name="Alarm", roles=("CO alarm",))


def kinds_in_camp(s):
    mode = next(m for m in s.build.stow.modes if not m.towing)
    return {d.kind for d in dangers(s.build, s.facts, mode, s.framed.body)}


def sleeping(*walls, things):
    from uncle_sled.core.document.brief import Person

    facts = Facts(people=(Person("p1", "One", Length(1.5)),))
    build = a_build(things, shell=replace(a_body("box"), partitions=tuple(walls)))
    return study(replace(build, brief=Brief(sleepers=("p1",))), facts)


def test_a_wall_parts_the_air_and_a_door_does_not_but_nobody_hears_through_it():
    assert "no alarm" in kinds_in_camp(sleeping(things=[BED, STOVE]))
    assert "no alarm" not in kinds_in_camp(sleeping(a_wall(), things=[BED, STOVE]))
    assert "no alarm" in kinds_in_camp(sleeping(a_wall(door="hinged"), things=[BED, STOVE]))
    assert "no alarm" not in kinds_in_camp(sleeping(things=[BED, STOVE, ALARM]))
    assert "no alarm" in kinds_in_camp(sleeping(a_wall(door="hinged"), things=[BED, STOVE, ALARM]))
    assert "no alarm" not in kinds_in_camp(sleeping(a_wall(door="opening"), things=[BED, STOVE, ALARM]))


def test_a_way_out_behind_a_wall_without_a_door_is_none():
    door = Opening("d", "door", "Door", "rear", L(0.6), L(0.1), L(0.7), L(1.7))
    for wall, good in ((a_wall(), False), (a_wall(door="hinged"), True)):
        s = sleeping(wall, things=[BED])
        build = replace(s.build, shell=replace(s.build.shell, openings=(door,)))
        mode = next(m for m in build.stow.modes if not m.towing)
        way = ways_out(build, s.facts, mode)[0]
        assert way.good is good and (good or "without a door" in way.why)


def test_a_loft_is_guarded_climbed_and_takes_its_room():
    loft = Loft("l1", "Loft", L(0.12), L(1.6), L(1.2), L(0.09))
    s = built(lofts=[loft])
    deck = decks_of(s.build.shell, s.framed.body)[0]
    assert deck.fault == "" and deck.high[2] == pytest.approx(0.62 + 1.2)
    assert deck.mass_kg == pytest.approx(17.0 * 1.48 * WIDE)
    codes = {f.code: f for f in findings(s)}
    assert {"loft-no-climb", "loft-guard", "loft-low"} <= codes.keys()
    ops, _ = RULES["loft-guard"].cure(s, codes["loft-guard"])
    after = study(apply(s.build, ops), F)
    assert "loft-guard" not in {f.code for f in findings(after)}
    assert after.build.shell.lofts[0].guard.si == pytest.approx((HIGH - 1.2) / 2, abs=1e-3)  # half of what is over it
    thing = a_thing("t", x=1.5, y=0.0, z=1.6, size=(0.4, 0.4, 0.4))
    assert [c.kind for c in clashes(built(lofts=[loft], things=[thing]).build, F)["road"] if c.b == "l1"] == ["wall"]


@pytest.mark.parametrize(
    ("loft", "says"),
    [
        (Loft("l1", "Loft", L(0.1), L(9.0), L(1.2), L(0.09)), "out of the room"),
        (Loft("l1", "Loft", L(1.0), L(0.5), L(1.2), L(0.09)), "ends before"),
        (Loft("l1", "Loft", L(0.2), L(1.5), L(3.0), L(0.09)), "higher than the ceiling"),
        (Loft("l1", "Loft", L(0.2), L(1.5), L(0.05), L(0.09)), "lies on the floor"),
    ],
)
def test_a_loft_that_cannot_be_is_said(loft, says):
    s = built(lofts=[loft])
    assert says in next(f for f in findings(s) if f.code == "loft-wrong").says and not room_of(s.build, F).walls


@pytest.mark.parametrize("form", ["profile", "box", "gable", "shed", "bevelled", "flat"])
def test_first_walls_stand_in_bodies_of_every_form(form):
    build = a_build(shell=a_body(form))
    for way in ("across", "along"):
        build = apply(build, [add_to("shell.partitions", first_partition(build.shell, way))])
    build = apply(build, [add_to("shell.lofts", first_loft(build.shell))])
    s = study(build, F)
    assert [w.fault for w in walls_of(build.shell, s.framed.body, library_of(()))] == ["", ""]
    assert decks_of(build.shell, s.framed.body)[0].fault == ""
