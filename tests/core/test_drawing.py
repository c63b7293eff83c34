"""Drawings as data: everything on its page, no words over words, the same parts in every view."""

import itertools

import pytest

from tests.builders import a_bed, a_build, a_rig, a_shell, a_tank, a_thing
from tests.judging import judged_once
from uncle_sled.core.document.brief import Person
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.balance.balance_sheet import balance_sheet
from uncle_sled.core.drawing.page import POINTS_PER_M
from uncle_sled.core.drawing.paper import PAPERS
from uncle_sled.core.drawing.primitives import Circle, Poly, Text, dimension, hatch_lines, placed, rect
from uncle_sled.core.drawing.rig.people import standing_people
from uncle_sled.core.drawing.rig.rig_views import Labels, heights_m, names_beside, side_rig, things_view, whole_view
from uncle_sled.core.drawing.rig.scale_sheet import scale_sheet
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.text_width import wrapped
from uncle_sled.core.parts.heights import ball_height_m
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange.demos import DEMOS, demo


def studied(name):
    project = demo(name)
    return study(project.build, project.facts)


def box_of(text):
    left = text.at[0] - text.width * {"left": 0.0, "middle": 0.5, "right": 1.0}[text.anchor]
    return left, text.at[1] - text.size * 0.45, left + text.width, text.at[1] + text.size * 0.45


def over_each_other(texts):
    found = []
    for a, b in itertools.combinations(texts, 2):
        (al, ab, ar, at), (bl, bb, br, bt) = box_of(a), box_of(b)
        if min(ar, br) - max(al, bl) > 2 and min(at, bt) - max(ab, bb) > 2:
            found.append((a.text, b.text))
    return found


@pytest.mark.parametrize("name", DEMOS)
def test_the_balance_sheet_keeps_to_its_page_and_its_words_apart(name):
    s = studied(name)
    page = balance_sheet(s, judged_once(s), "A build with a name of forty characters!", "2026-11-23")
    texts = [shape for shape in page.shapes if isinstance(shape, Text)]

    for text in texts:
        left, low, right, top = box_of(text)
        assert left >= 20 and right <= page.width - 20 and low >= 8 and top <= page.height - 8, text.text
    assert over_each_other(texts) == []
    told = {text.text for text in texts}
    assert all(case.name in told for case in s.table.cases if case.mode.towing)


@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("paper", PAPERS)
def test_the_drawing_to_scale_fits_its_paper_at_a_scale_of_the_ruler(name, paper):
    project = demo(name)
    build = apply(project.build, [set_to("brief.paper", paper)])
    s = study(build, project.facts)
    page = scale_sheet(s, 0, name, "today")

    assert (page.width, page.height) == PAPERS[paper].lying
    for shape in page.shapes:
        if isinstance(shape, Poly):
            assert all(-1 <= x <= page.width + 1 and -1 <= y <= page.height + 1 for x, y in shape.points), shape.id
    scale = int(page.title.split("1 : ")[1])
    wheels = [shape for shape in page.shapes if isinstance(shape, Circle) and shape.fill == "tyre"]
    tyre = s.build.rig.tyre.diameter
    assert wheels[0].radius * 2 == pytest.approx(tyre.si / scale * POINTS_PER_M)


@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("view", ["side", "plan"])
@pytest.mark.parametrize("px_per_m", [60.0, 120.0, 400.0])
def test_labels_never_lie_on_each_other(name, view, px_per_m):
    s = studied(name)
    things, labels = things_in(s, 0), Labels([], set())
    shapes = (*things_view(s, 0, view, px_per_m, things, labels), *names_beside(s, view, px_per_m, things, labels))
    texts = [shape for shape in placed(shapes, px_per_m, 0, 0) if isinstance(shape, Text)]
    by_thing = {}
    for text in texts:
        by_thing.setdefault(text.id, []).append(text)

    for a, b in itertools.combinations(by_thing, 2):
        for one, other in itertools.product(by_thing[a], by_thing[b]):
            assert over_each_other([one, other]) == []
    assert {t.id for t in texts} <= {t.id for t in s.build.stow.things}


def test_every_thing_is_drawn_in_both_views_with_its_id():
    s = study(a_build([a_thing("t1"), a_tank("w1", x=2.6), a_thing("t2", size=(0, 0, 0))], shell=a_shell()), Facts())
    for view in ("side", "plan"):
        assert {"t1", "w1", "t2", "shell", "a1"} <= {shape.id for shape in whole_view(s, 0, view, 100)}


def test_a_full_tank_shows_its_level_in_the_side_view_only():
    s = study(a_build([a_tank("w1", size=(0.5, 0.4, 0.4), z=0.6)]), Facts())
    row = s.table.row("going-out")
    water = [p for p in things_view(s, row, "side", 100, things_in(s, row)) if isinstance(p, Poly) and p.hatch == "water" and p.id == "w1"]
    plan = [p for p in things_view(s, row, "plan", 100, things_in(s, row)) if isinstance(p, Poly) and p.hatch == "water" and p.id == "w1"]

    assert max(y for _, y in water[0].points) == pytest.approx(1.0) and plan == []


def test_the_left_side_is_down_in_the_plan():
    s = study(a_build([a_thing("t1", y=-0.5, size=(0.4, 0.2, 0.3))], shell=a_shell()), Facts())
    box = next(p for p in whole_view(s, 0, "plan", 100) if p.id == "t1")

    assert max(y for _, y in box.points) == pytest.approx(-0.4)


def test_a_truck_has_a_cab_and_no_ball():
    ids = {shape.id for shape in side_rig(a_build(rig=a_bed()))}

    assert {"vehicle", "bed"} <= ids and "ball" not in ids
    assert heights_m(a_build(rig=a_bed()))[0] >= 2.0


def test_heights_follow_what_is_there():
    low, high = heights_m(a_build(rig=a_rig()))[0], heights_m(a_build([a_thing(z=2.0)], rig=a_rig()))[0]

    assert high == pytest.approx(2.3) and low < high
    assert ball_height_m(a_build(rig=a_rig(ball_height=Length(0.44)))) == 0.44


def test_people_stand_behind_the_tail_to_scale():
    people = (Person("p1", "Tall", Length(1.9)), Person("p2", "No height"), Person("p3", "Short", Length(1.5)))
    shapes = standing_people(a_build(shell=a_shell()), Facts(people))
    heads = [shape for shape in shapes if isinstance(shape, Circle)]

    assert [round(h.centre[1] + h.radius, 6) for h in heads] == [1.9, 1.5]
    assert all(h.centre[0] > 4.2 for h in heads)


@pytest.mark.parametrize("kind", ["wood", "foam", "metal", "water", "gas", "power", "cargo", "kit", "outside"])
def test_hatches_cover_their_rectangle_and_stay_countable(kind):
    strokes = hatch_lines(kind, 0.0, 0.0, 100.0, 40.0, 7.0)

    assert strokes and all(-0.001 <= y <= 40.001 for stroke in strokes for _, y in stroke)
    assert hatch_lines(kind, 0, 0, 1e9, 1e9, 7.0) == [] and hatch_lines(kind, 0, 0, 10, 0, 7.0) == []


def test_a_dimension_has_two_ticks_and_its_words_on_paper():
    shapes = dimension((0.0, 1.0), (3.0, 1.0), "3.00 m", 0.05)
    words = next(s for s in shapes if isinstance(s, Text))

    assert len(shapes) == 4 and words.at == (1.5, 1.0) and words.ground == "paper"


def test_placing_scales_shapes_but_not_words_or_widths():
    line_, words = placed((rect(1, 1, 2, 1, stroke="ink", width=1.5, band=0.1), Text((1.0, 2.0), "x", 11.0)), 50, 10, 20)

    assert line_.points[0] == (60, 70) and line_.width == 1.5 and line_.band == pytest.approx(5)
    assert words.at == (60, 120) and words.size == 11.0


def test_text_is_wrapped_at_words():
    lines = wrapped("Set the grey jug beside the fresh jug, further forward", 10, 90)

    assert " ".join(lines) == "Set the grey jug beside the fresh jug, further forward" and len(lines) > 2
