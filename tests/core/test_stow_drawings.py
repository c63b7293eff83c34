"""Stow's drawings: what is painted over what, figures to scale, swings outward, marks where things meet, true gauges."""

import itertools
import math

import msgspec
import numpy as np
import pytest

from tests.builders import METRIC, a_body, a_build, a_hole, a_rig, a_shell, a_tank, a_thing
from uncle_sled.core.document.brief import Brief, Person
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Volume
from uncle_sled.core.document.stow import Clear, InState, Mode, Place, State, Tank
from uncle_sled.core.drawing.balance import balance_bars
from uncle_sled.core.drawing.balance.axle_chart import hitch_chart
from uncle_sled.core.drawing.page import POINTS_PER_M
from uncle_sled.core.drawing.person import upright
from uncle_sled.core.drawing.primitives import Circle, Poly, Text
from uncle_sled.core.drawing.rig.rig_views import Labels, clear_of, heights_m, reach_m, thing_shapes
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.stow.fan import fan, levels_words
from uncle_sled.core.drawing.stow.gauge_strips import gauge_strips, step_m3
from uncle_sled.core.drawing.stow.isometric import PEELS, _far_to_near, bounds_of, isometric
from uncle_sled.core.drawing.stow.people import people_view, sitting, under_sleepers
from uncle_sled.core.drawing.stow.rear_view import rear_size_m, rear_view
from uncle_sled.core.drawing.stow.swings import clash_view, swings_view
from uncle_sled.core.drawing.three_ways import VIEWER, flat
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.hitch_height import hitch_curve
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.core.studies.stow.solids import box_solid
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

FLOOR = 0.62
WORDS = Words(METRIC)
ROAD, CAMP = Mode("road", "Road", True), Mode("camp", "Camp", False)


def built(*things, modes=(ROAD, CAMP), **changes):
    build = a_build(things, shell=changes.pop("shell", a_body()), **changes)
    return msgspec.structs.replace(build, stow=msgspec.structs.replace(build.stow, modes=modes))


def people(*tall):
    return Facts(tuple(Person(f"p{k}", f"Sleeper {k}", Length(h)) for k, h in enumerate(tall)))


def bed(**changes):
    return a_thing("bed", 15, x=2.0, y=0.0, z=1.0, size=(1.95, 1.3, 0.1), kind="bed", **changes)


def points_of(shapes):
    return np.array([p for s in shapes if isinstance(s, Poly) for p in s.points])


# three directions
def test_the_three_axes_fall_as_in_any_drawing_book():
    """In an isometric drawing the three axes are as long as each other and 120 degrees apart."""
    axes = [np.array(flat(v)) for v in np.eye(3)]

    assert [np.hypot(*a) for a in axes] == pytest.approx([math.sqrt(2 / 3)] * 3)
    for a, b in itertools.combinations(axes, 2):
        cosine = float(a @ b) / (2 / 3)
        assert abs(cosine) == pytest.approx(0.5)
    assert flat((0.0, 0.0, 0.0))[0] < flat((3.0, 0.0, 0.0))[0]  # the ball at the left, as in the side view


def test_no_box_is_painted_over_one_that_stands_before_it():
    rng = np.random.default_rng(4)
    for _ in range(20):
        solids = []
        for k in range(14):
            low = rng.uniform(0, 4, 3)
            solids.append(box_solid(f"b{k}", "b", tuple(low), tuple(low + rng.uniform(0.1, 0.5, 3))))
        order = _far_to_near(solids)
        assert {s.id for s in order} == {s.id for s in solids}
        at = {s.id: k for k, s in enumerate(order)}
        for a, b in itertools.permutations(solids, 2):
            ahead = [a.high[0] <= b.low[0], a.low[1] >= b.high[1], a.high[2] <= b.low[2]]
            behind = [b.high[0] <= a.low[0], b.low[1] >= a.high[1], b.high[2] <= a.low[2]]
            if any(ahead) and not any(behind) and _laps(a, b):
                assert at[a.id] < at[b.id]


def _laps(a, b):
    """Whether two boxes cover some of the same paper."""
    boxes = []
    for s in (a, b):
        corners = np.array([flat(c) for c in itertools.product(*zip(s.low, s.high, strict=True))])
        boxes.append((corners.min(axis=0), corners.max(axis=0)))
    return bool(((boxes[0][0] < boxes[1][1]) & (boxes[0][1] > boxes[1][0])).all())


@pytest.mark.parametrize("name", DEMOS)
def test_every_demo_is_drawn_in_every_peel_and_bounded(name):
    project = demo(name)
    s = study(project.build, project.facts)
    things = things_in(s, 0)
    seen = []
    for peel in PEELS:
        shapes = isometric(s, things, peel)
        left, low, right, high = bounds_of(shapes)
        assert math.isfinite(left + low + right + high) and right - left > 2 and high - low > 1
        seen.append({shape.id for shape in shapes if shape.id})
    aboard = {p.thing.id for p in things if not p.thing.outside}
    assert not aboard & seen[0] and aboard <= seen[-1]  # closed shows nothing of the inside, bare all of it
    assert float(VIEWER @ VIEWER) == pytest.approx(1.0)


# from behind
def test_from_behind_left_is_left_and_the_centre_is_where_it_is():
    build = built(a_thing("l", 80, y=-0.5, z=FLOOR), a_thing("r", 20, y=0.5, z=FLOOR))
    s = study(build, Facts())
    things = things_in(s, 0)
    shapes = rear_view(s, 0, things, 150)
    spans = {id: points_of([x for x in shapes if x.id == id]) for id in ("l", "r")}

    assert spans["l"][:, 0].max() < 0 < spans["r"][:, 0].min()
    cg = next(x for x in shapes if isinstance(x, Circle) and x.id == "cg")
    assert cg.centre == (pytest.approx(float(s.readings.cg_m[0, 1])), pytest.approx(float(s.readings.cg_m[0, 2])))
    half, top = rear_size_m(s, things)
    assert half >= 1.0 and top >= 2.6


def test_a_gable_from_behind_has_its_ridge():
    s = study(built(shell=a_body("gable", eaves=Length(1.4))), Facts())
    shell = next(x for x in rear_view(s, 0, (), 100) if isinstance(x, Poly) and x.id == "shell")

    assert max(shell.points, key=lambda p: p[1])[0] == pytest.approx(0.0, abs=1e-6)


# people
def test_people_lie_at_their_length_and_only_where_it_stands():
    build, facts = built(bed()), people(1.8, 1.6)
    plan = people_view(build, facts, CAMP, "plan")
    for id, tall in (("p0", 1.8), ("p1", 1.6)):
        body = [x for x in plan if x.id == id]
        xs = [p[0] for x in body if isinstance(x, Poly) for p in x.points]
        head = next(x for x in body if isinstance(x, Circle))
        assert max(xs) - (head.centre[0] - head.radius) == pytest.approx(tall, abs=1e-6)
    sides = sorted(x.centre[1] for x in plan if isinstance(x, Circle))
    assert sides[1] - sides[0] == pytest.approx(0.65)
    assert people_view(build, facts, ROAD, "plan") == () and people_view(build, people(2.2), CAMP, "plan") == ()


def test_a_bed_across_lays_them_across():
    build = built(bed(turn=90), shell=a_body(width=Length(2.4)))
    plan = people_view(build, people(1.7), CAMP, "plan")
    body = next(x for x in plan if isinstance(x, Poly))
    spread = np.ptp(np.array(body.points), axis=0)

    assert spread[1] > 2 * spread[0]


def test_standing_and_sitting_are_as_tall_as_they_are():
    up, seat = upright(1.0, 0.5, 1.8, ink="ink", id="p"), sitting(1.0, 0.9, 1.8, "ink", "p")

    assert max(c.centre[1] + c.radius for c in up if isinstance(c, Circle)) == pytest.approx(0.5 + 1.8)
    assert max(c.centre[1] + c.radius for c in seat if isinstance(c, Circle)) == pytest.approx(0.9 + 0.52 * 1.8)
    asks = built(bed(), brief=Brief(stands=True, sits_up=True))
    inks = {x.stroke for x in people_view(asks, people(1.7), CAMP, "side")}
    assert "spruce" in inks


def test_what_lies_under_a_sleeper_is_hidden_from_above():
    build = built(bed(), a_thing("u", x=2.2, z=0.62), a_thing("f", x=4.5, z=0.62), a_thing("o", x=2.2, z=1.3))

    assert under_sleepers(build, people(1.8), CAMP) == {"u"} and under_sleepers(build, people(1.8), ROAD) == frozenset()


# swings and marks
def test_doors_open_outward_and_only_where_they_are_used():
    shell = a_body(
        openings=(
            a_hole("d", "right side", 2.0, 0.2, 0.7, 1.6, "door", hung="front"),
            a_hole("h", "rear", 0.3, 0.4, 1.4, 0.8, "hatch", hung="top", open_deg=90),
        )
    )
    build = built(shell=shell)
    plan = [x for x in swings_view(build, Facts(), CAMP, "plan") if x.id == "d"]
    leaf = next(x for x in plan if len(x.points) == 2)

    assert leaf.points[0] == (pytest.approx(3.2), pytest.approx(1.0))
    assert leaf.points[1] == (pytest.approx(3.2), pytest.approx(1.7))  # at right angles, to the outside
    side = next(x for x in swings_view(build, Facts(), CAMP, "side") if x.id == "h" and len(x.points) == 2)
    assert side.points[0][1] == pytest.approx(0.5 + 1.2) and side.points[1] == (pytest.approx(6.0), pytest.approx(1.7))
    assert swings_view(build, Facts(), ROAD, "plan") == ()
    shut = msgspec.structs.replace(CAMP, shut=("d", "h"))
    assert swings_view(built(shell=shell, modes=(ROAD, shut)), Facts(), shut, "plan") == ()


@pytest.mark.parametrize("side", ["front", "rear", "left", "right"])
def test_a_small_door_s_quarter_starts_at_its_hinge(side):
    thing = a_thing("f", x=2.5, y=0.0, z=FLOOR, size=(0.5, 0.5, 0.8), clear=(Clear("d", "door", side, Length(0.4)),))
    arc = next(x for x in swings_view(built(thing), Facts(), CAMP, "plan") if x.id == "f" and len(x.points) > 3)
    spots = np.array(arc.points)
    out = {
        "front": spots[:, 0].min() - 2.1,
        "rear": spots[:, 0].max() - 3.4,
        "left": spots[:, 1].min() + 0.65,
        "right": spots[:, 1].max() - 0.65,
    }

    assert out[side] == pytest.approx(0.0, abs=1e-6)


def test_a_thing_in_another_state_shows_where_it_comes_from():
    slide = a_thing(
        "k", x=3.0, z=FLOOR, size=(0.8, 0.5, 0.4), states=(State("out", "out", Length(0.8), Length(0.5), Length(0.4), Length(0.6)),)
    )
    camp = Mode("camp", "Camp", False, (), (), (InState("k", "out"),))
    shapes = [x for x in swings_view(built(slide, modes=(ROAD, camp)), Facts(), camp, "side") if x.id == "k"]
    rest = next(x for x in shapes if x.closed)

    assert min(p[0] for p in rest.points) == pytest.approx(3.0)
    shaft = next(x for x in shapes if not x.closed and len(x.points) == 2)
    assert shaft.points[1][0] - shaft.points[0][0] == pytest.approx(0.6)


def test_marks_stand_exactly_where_things_meet():
    build = built(a_thing("a", x=2.0, z=FLOOR), a_thing("b", x=2.3, z=FLOOR), a_thing("w", x=1.25, y=0.5, z=FLOOR))
    marks = clash_view(build, Facts(), ROAD, "side")
    both = next(x for x in marks if x.id == "a")
    wall = next(x for x in marks if x.id == "w")

    assert np.array(both.points).min(axis=0) == pytest.approx([2.3, FLOOR]) and np.array(both.points).max(axis=0)[0] == pytest.approx(2.4)
    assert np.array(wall.points).max(axis=0)[0] == pytest.approx(1.32, abs=0.003)
    assert clash_view(built(a_thing("a", x=2.0, z=FLOOR)), Facts(), ROAD, "plan") == ()


def test_tanks_are_drawn_in_their_true_shape_with_their_level():
    wedge = Tank(Volume(0.02), "fresh", "wedge", thin_height=Length(0.0))
    s = study(built(a_tank("w", 20, x=2.0, z=FLOOR, size=(0.6, 0.4, 0.3), tank=wedge)), Facts())
    placed = next(p for p in things_in(s, s.table.row("going-out")) if p.thing.id == "w")
    outline, *_pencil, wet = thing_shapes(placed, "side")

    assert len({tuple(np.round(p, 6)) for p in outline.points}) == 3 and max(p[1] for p in wet.points) == pytest.approx(
        FLOOR + 0.3, abs=0.002
    )
    half = thing_shapes(msgspec.structs.replace(placed, level=0.25), "side")[-1]
    assert max(p[1] for p in half.points) < FLOOR + 0.1


def test_the_sheet_reaches_to_what_is_set_out():
    camp = Mode("camp", "Camp", False, (Place("t", Length(7.0), Length(2.0), Length(0.0)),))
    build = built(a_thing("t", x=2.0), modes=(ROAD, camp))

    assert reach_m(build, camp) == pytest.approx(7.4) and reach_m(build, ROAD) < 6
    assert heights_m(build, camp)[1] >= 2.2 > heights_m(build, ROAD)[1]


def test_what_is_set_on_the_ground_weighs_nothing_on_the_rig():
    camp = Mode(
        "camp", "Camp", False, (Place("t", Length(7.0), Length(2.0), Length(0.0)), Place("w", Length(6.0), Length(2.0), Length(0.0)))
    )
    s = study(built(a_thing("t", 30, x=2.0), a_tank("w", 40, x=2.6), modes=(ROAD, camp)), Facts())
    road, stood = s.table.row("going-out"), s.table.row("camp")

    assert s.readings.total_kg[road] - s.readings.total_kg[stood] == pytest.approx(30 + 4 + 40)
    shown = next(p for p in things_in(s, stood) if p.thing.id == "t")
    assert shown.aboard and shown.mass_kg == 30  # it is drawn whole, with what it weighs


def test_words_over_words_are_left_out():
    labels = Labels([(0.0, 0.0, 1.0, 1.0)], set())
    kept = clear_of([Text((0.5, 0.5), "under", 11), Text((5.0, 5.0), "free", 11), Circle((0.5, 0.5), 0.1)], labels, 100)

    assert [getattr(x, "text", "circle") for x in kept] == ["free", "circle"] and len(labels.taken) == 2


# gauges and bars
def test_a_gauge_strip_is_at_full_size():
    tube = Tank(Volume(0.03), "fresh", "cylinder", "along")
    s = study(built(a_tank("w", 30, size=(0.8, 0.25, 0.25), tank=tube), a_tank("n", 0), a_thing("t")), Facts())
    pages = gauge_strips(s, "Build", "today")

    assert len(pages) == 1 and "gauge strip" in pages[0].title
    strip = next(x for x in pages[0].shapes if isinstance(x, Poly) and x.fill == "" and len(x.points) == 4)
    assert np.ptp(np.array(strip.points)[:, 1]) == pytest.approx(0.25 * POINTS_PER_M)
    half = next(x for x in pages[0].shapes if isinstance(x, Text) and x.text == "1/2")
    assert half.at[1] - min(p[1] for p in strip.points) == pytest.approx(0.125 * POINTS_PER_M, abs=0.5)
    assert step_m3(0.03, METRIC) == pytest.approx(0.002) and step_m3(0.2, METRIC) == pytest.approx(0.01)


def texts_apart(shapes):
    boxes = []
    for t in (x for x in shapes if isinstance(x, Text)):
        left = t.at[0] - t.width * {"left": 0.0, "middle": 0.5, "right": 1.0}[t.anchor]
        boxes.append((left, t.at[1] - t.size * 0.5, left + t.width, t.at[1] + t.size * 0.5, t.text))
    return [
        (a[4], b[4])
        for a, b in itertools.combinations(boxes, 2)
        if min(a[2], b[2]) - max(a[0], b[0]) > 2 and min(a[3], b[3]) - max(a[1], b[1]) > 2
    ]


@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("size", [(820, 330), (640, 190)])
def test_bars_and_fans_keep_their_words_apart_and_inside(name, size):
    project = demo(name)
    s = study(project.build, project.facts)
    words = Words(project.build.brief.reading.shown())
    drawn = [balance_bars.limit_bars(s, s.limits, s.unchecked, words, *size)]
    if project.build.rig.carrier == "ball":
        drawn += [balance_bars.sure_bars(s, 0, words, *size), balance_bars.car_bars(s, words, *size)]
    else:
        drawn.append(balance_bars.bed_bars(s, words, *size))
    drawn.append(fan(s, sweep(s, 0), words, *size))
    curve = hitch_curve(s, 0)
    if curve is not None:
        drawn.append(hitch_chart(curve, (2000.0, 2721.0), words, *size))
    for shapes in drawn:
        assert shapes and texts_apart(shapes) == []
        for t in (x for x in shapes if isinstance(x, Text)):
            left = t.at[0] - t.width * {"left": 0.0, "middle": 0.5, "right": 1.0}[t.anchor]
            assert left >= -1 and left + t.width <= size[0] + 1 and 0 <= t.at[1] <= size[1], t.text


def test_levels_are_told_in_words():
    s = study(built(a_tank("a", 70, x=1.6), a_tank("b", 50, contents="grey", x=4.0)), Facts())
    found = sweep(s, 0)

    assert levels_words(s, found.worst_low).count(",") == 1
    assert any(word in levels_words(s, found.worst_low) for word in ("full", "empty"))


def test_no_reading_draws_no_bars():
    s = study(built(rig=a_rig(axles=())), Facts())

    assert balance_bars.sure_bars(s, 0, WORDS, 400, 200) == () and balance_bars.bed_bars(s, WORDS, 400, 200) == ()
    assert balance_bars.ghost_rows((), {}, {}, WORDS, 400, 200) == () and balance_bars.owner_bars((), 1.0, WORDS, 400, 200) == ()
    assert study(a_build(shell=a_shell()), Facts()) is not None
