"""Screws by joint: what bites, what stays inside, how many, and the boxes they are bought in."""

import math

import pytest

from tests.builders import IMPERIAL, METRIC, a_body, a_build, a_rig
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.shell.screw_drawn import screw_drawn
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.buying import shopping
from uncle_sled.core.studies.cut.consumables import bases
from uncle_sled.core.studies.cut.cut_from_stock import plan_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.screws import least_m, length_m, screw_joints, screw_size, screws_by_size
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words


def layer(id, material, mm, **more):
    return Layer(id, material, Length(mm / 1000), **more)


def a_wall(*layers, kind="left side"):
    return a_build(rig=a_rig(), shell=a_body("box", "stick timber", faces=(Face("f", kind, "Face", layers=layers),)))


PLAIN = (layer("o", "birch-ply", 6), layer("s", "xps", 70, framing=0.15), layer("i", "light-ply", 4))
CLAD = (
    layer("b", "board-siding", 18),
    layer("g", "gap-vented", 22, battens="level"),
    layer("m", "membrane", 0),
    layer("p", "softwood-ply", 9),
    layer("s", "mineral-wool", 95, framing=0.15),
    layer("i", "softwood-ply", 9),
)


@pytest.mark.parametrize(("held", "least"), [(0.006, 0.021), (0.018, 0.0405), (0.040, 0.080), (0.004, 0.019)])
def test_a_screw_bites_a_quarter_deeper_than_it_holds(held, least):
    assert least_m(held) == pytest.approx(least)


def test_the_shortest_that_bites_and_stays_inside_is_taken():
    assert length_m(0.006, 0.045) == (0.025, True)  # 21 at least, 48 at most
    assert length_m(0.015, 0.012) == (0.020, False)  # 33.75 at least, 24 at most
    assert length_m(0.015, 0.002) == (None, False)  # 14 at most: it would hold nothing


def test_each_face_has_its_joints_from_outside_in_with_as_many_as_its_sticks_are_long():
    s = study(a_wall(*PLAIN), Facts())
    outer, inner = screw_joints(s)
    run = sum(member.length_m for member in s.framed.on("left side"))

    assert (outer.name, inner.name) == ("outer skin", "inner skin")
    assert (outer.held_m, outer.into_m, outer.least_m, outer.most_m) == pytest.approx((0.006, 0.070, 0.021, 0.073))
    assert (outer.long_m, inner.long_m) == (0.025, 0.020) and outer.bites and inner.bites
    assert outer.many == inner.many == math.ceil(run / 0.15)
    assert screws_by_size((outer, inner)) == {(0.004, 0.020): inner.many, (0.004, 0.025): outer.many}


def test_boards_go_into_battens_and_battens_through_the_sheathing_into_the_sticks():
    joints = {joint.name: joint for joint in screw_joints(study(a_wall(*CLAD), Facts()))}

    assert list(joints) == ["sheathing", "battens", "boards", "inner skin"]
    # 9 mm of ply; 22 + 9 through; 18 into 22
    assert [joints[name].held_m for name in joints] == pytest.approx([0.009, 0.031, 0.018, 0.009])
    assert joints["battens"].least_m == pytest.approx(0.031 * 2.25) and joints["battens"].long_m == 0.070
    assert joints["boards"].most_m == pytest.approx(0.037) and not joints["boards"].bites and joints["boards"].long_m == 0.035
    assert joints["battens"].thick_m == 0.005


def test_what_is_bonded_or_not_framed_has_none():
    assert screw_joints(study(a_wall(layer("a", "aluminium", 1), layer("s", "xps", 70, framing=0.15), layer("g", "grp", 2)), Facts())) == ()
    assert screw_joints(study(a_wall(layer("o", "birch-ply", 18)), Facts())) == ()
    assert screw_joints(study(a_build(rig=a_rig()), Facts())) == ()


def test_they_are_bought_by_the_box_and_not_a_second_time_by_the_rule_of_thumb():
    build, facts = a_wall(*PLAIN), Facts()
    s, off = study(build, facts), take_off(build, facts)
    lines = shopping(build, facts, s.framed, plan_of(build, facts), wired_of(build, s.framed), 0.0)
    boxes = {line.name: line for line in lines if line.name.startswith("Screws 4 ×")}
    outer, inner = screw_joints(s)

    assert boxes["Screws 4 × 25 mm"].need == pytest.approx(outer.many * 1.1)
    assert boxes["Screws 4 × 25 mm"].packs == math.ceil(outer.many * 1.1 / 200)
    assert "Screws 4 × 20 mm" in boxes and inner.many
    assert bases(build, facts, off)["ply_m2"] == 0.0
    unframed = a_wall(layer("o", "birch-ply", 18))
    assert bases(unframed, facts, take_off(unframed, facts))["ply_m2"] > 5


def test_a_joint_is_drawn_with_both_limits_and_told_in_its_units():
    joint = screw_joints(study(a_wall(*PLAIN), Facts()))[0]
    told = [shape.text for shape in screw_drawn(joint, Words(METRIC), 320.0, 300.0) if isinstance(shape, Text)]

    assert "bites from 21 mm" in told and "stays inside to 73 mm" in told and "Birch plywood 6 mm" in told
    assert screw_drawn(joint, Words(METRIC), 60.0, 40.0) == ()
    assert screw_size(0.004, 0.025, Words(METRIC)) == "4 × 25 mm" and screw_size(0.005, 0.0635, Words(IMPERIAL)).startswith("#10 × 2")
