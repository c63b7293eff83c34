"""Pictures show what is meant: the real faces and frames, people at their places, wheels off the ground, a leaf on its body."""

import pytest
from msgspec.structs import replace

from uncle_sled.core.document.work import Lift, LogEntry
from uncle_sled.core.drawing.build.hours_chart import hours_chart
from uncle_sled.core.drawing.build.hung import hung
from uncle_sled.core.drawing.build.lift_drawn import lift_drawn
from uncle_sled.core.drawing.person import tallest_m
from uncle_sled.core.drawing.primitives import Circle, Poly, Text
from uncle_sled.core.drawing.road.stand_drawn import FREE_M, standing_drawn
from uncle_sled.core.drawing.stow.lid_around import lid_around
from uncle_sled.core.drawing.stow.lid_drawn import lid_drawn
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.lifting import lifted
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.road.standing import stands, usual_blocks
from uncle_sled.core.studies.stow.hinged import hinged
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

WIDE, HIGH = 640.0, 480.0


def looked_at(name):
    project = demo(name)
    s = study(project.build, project.facts)
    return s, Words(project.build.brief.reading.shown())


def people(shapes):
    """Heights of the figures, from a body's feet to its head [points]."""
    bodies = [one for one in shapes if isinstance(one, Poly) and len(one.points) == 11]
    heads = [one for one in shapes if isinstance(one, Circle) and one.fill in ("body", "")]
    feet = {round(min(y for _, y in one.points), 3): one for one in bodies}
    tops = [head.centre[1] + head.radius for head in heads if any(abs(head.centre[0] - body.points[7][0]) < 1e-6 for body in bodies)]
    return bodies, feet, tops


@pytest.mark.parametrize(("what", "way", "many"), [("left side", "crane", 3), ("rear", "tilt up", 2), ("frame", "turn over", 2)])
def test_a_lift_shows_the_real_thing_and_everybody_as_tall_as_they_are(what, way, many):
    s, words = looked_at("orchard-keeper")
    made = lifted(s, Lift("l", what=what, way=way, people=20))
    shapes = lift_drawn(s, made, words, WIDE, HIGH)

    bodies, feet, tops = people(shapes)
    assert len(bodies) == many and len(feet) == 1
    sticks = {one.id for one in shapes if isinstance(one, Poly)} & {stick.id for stick in s.framed.on(what)}
    assert len(sticks) == len(s.framed.on(what))
    points = [p for one in shapes if isinstance(one, Poly) for p in one.points]
    assert all(0 <= x <= WIDE and 0 <= y <= HIGH for x, y in points)
    if what == "left side":  # the face and the people on one scale
        outline = next(one for one in shapes if isinstance(one, Poly) and one.id == what)
        scale = (max(x for x, _ in outline.points) - min(x for x, _ in outline.points)) / made.size_m[0]
        assert tops[0] - next(iter(feet)) == pytest.approx(tallest_m(s.facts) * scale)


def test_as_many_carry_as_are_wanted_and_a_face_is_as_large_as_it_was_reckoned():
    s, words = looked_at("marsh-heron")
    made = lifted(s, Lift("l", what="left side", way="by hand", people=4))
    assert len(people(lift_drawn(s, made, words, WIDE, HIGH))[0]) == made.hands == 3
    points = [p for one in hung(s, "left side", made.size_m) if isinstance(one, Poly) for p in one.points]
    assert (max(x for x, _ in points), max(y for _, y in points)) == pytest.approx(made.size_m)
    assert lift_drawn(s, made, words, 60, 60) == () and lift_drawn(s, replace(made, why="nothing"), words, WIDE, HIGH) == ()
    gone = hung(s, "nowhere", (2.0, 1.0))
    assert len(gone) == 1 and gone[0].points[2] == (2.0, 1.0)


def test_the_wheels_are_free_and_every_block_reaches_from_the_ground_to_the_frame():
    s, words = looked_at("marsh-heron")
    standing = replace(usual_blocks(s, 3), fall=type(s.build.shell.length)(0.06))
    s = study(replace(s.build, road=replace(s.build.road, standing=standing)), s.facts)
    made = stands(s)
    shapes = standing_drawn(made, s, words, WIDE, HIGH)

    axle = s.build.rig.axles[0].id
    tyre = next(one for one in shapes if isinstance(one, Circle) and one.id == axle)
    level = next(one for one in shapes if isinstance(one, Poly) and not one.closed and one.width == 1.6)
    body = next(one for one in shapes if isinstance(one, Poly) and one.id == "shell")
    scale = (max(x for x, _ in body.points) - min(x for x, _ in body.points)) / s.framed.body.length
    front = min(x for x, _ in body.points)
    (x0, y0), (x1, y1) = level.points
    assert (y0 - y1) / (x1 - x0) == pytest.approx(5 * 0.06 / s.framed.body.length)  # drawn five times as steep
    before = y0 - (front - x0) * (y0 - y1) / (x1 - x0)  # the ground under the front of the body
    assert tyre.centre[1] - tyre.radius == pytest.approx(before + FREE_M * scale)
    tops = []
    for k, block in enumerate(made.blocks):
        parts = [one for one in shapes if isinstance(one, Poly) and one.id == f"block {k}"]
        low = min(y for one in parts for _, y in one.points)
        assert low == pytest.approx(before - 5 * block.up_m * scale)
        tops.append(max(y for one in parts for _, y in one.points))
    assert max(tops) - min(tops) < 1e-6  # the frame is level
    assert [one.text for one in shapes if isinstance(one, Text)].count("level") == 0
    assert standing_drawn(made, s, words, 100, 100) == ()


def test_a_hatch_turns_on_its_body_with_somebody_beside_it():
    s, words = looked_at("marsh-heron")
    (leaf,) = [one for one in hinged(s) if one.turning is not None]
    around = lid_around(s, leaf)
    # the hinge stands as high over the ground as the drawing's ground lies under it
    ground = min(y for one in around if isinstance(one, Poly) for _, y in one.points)
    cut = next(one for one in s.framed.cuts if one.id == leaf.id)
    face = next(one for one in s.framed.body.surfaces if one.id == cut.surface)
    left, low, right, high = cut.shape.bounds
    assert -ground == pytest.approx(max(face.place(x, (low + high) / 2)[2] for x in (left, right)))
    bodies, _, _ = people(around)
    assert len(bodies) == 1 and min(x for x, _ in bodies[0].points) > max(x for x, _ in leaf.outline)
    drawn = lid_drawn(leaf, words, 300, 400, around=around)
    assert all(-1 <= x <= 301 and -1 <= y <= 401 for one in drawn if isinstance(one, Poly) for x, y in one.points)
    assert lid_around(s, replace(leaf, turning=None)) == () and lid_around(s, replace(leaf, id="gone")) == ()


def test_hours_add_up_to_the_plan_and_to_the_log():
    s, _ = looked_at("marsh-heron")
    schedule = schedule_of(s.build, s.facts)
    log = (LogEntry("a", "2027-03-10", hours=3.5), LogEntry("b", "2027-03-12", hours=4.0), LogEntry("c", "no day", hours=9.0))
    shapes = hours_chart(schedule, log, 300, 300)
    told = [one.text for one in shapes if isinstance(one, Text)]
    assert "written down 7.5 h" in told
    planned = sum(placed.task.likely for placed in schedule.placed)
    assert f"planned {round(planned, 1):g} h" in told
    curve = next(one for one in shapes if isinstance(one, Poly) and one.stroke == "chalk" and len(one.points) > 2)
    steps = [b - a for (_, a), (_, b) in zip(curve.points, curve.points[1:], strict=False) if b > a]
    assert steps[1] / steps[0] == pytest.approx(4.0 / 3.5)
    assert hours_chart(replace(schedule, placed=()), (), 300, 300) == () == hours_chart(schedule, log, 60, 60)
