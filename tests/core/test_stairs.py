"""Stairs of sheets over a size: against a full plan at each length, and what holds of them when only the size changes."""

import msgspec
import pytest

from tests.builders import a_body, a_build
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.drawing.cut import stair_chart as drawn
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.cut_from_stock import QUESTIONS, plan_of
from uncle_sled.core.studies.cut.stairs import STAIRS, Stair, at_size, stair_of
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

WORDS = Words(Shown("mm", "kg", "L"))


def skinned(length=2.6):
    """A box of which floor and roof are one sheet of ply each while it is no longer than 2.44 m, and two when it is."""
    faces = tuple(Face(kind, kind, kind.capitalize(), layers=(Layer("l1", "light-ply", Length(0.012)),)) for kind in ("floor", "roof"))
    return a_build(shell=a_body(length=Length(length), width=Length(1.2), faces=faces))


def sized(build, length):
    return apply(build, [set_to("shell.length", {"si": length, "typed": None})])


def test_the_stair_is_the_full_plan_at_each_length():
    build = skinned()
    stair = stair_of(build, Facts(), "shell.length", "Body's length")
    assert len({one.sheets for one in stair.at}) >= 2
    for one in stair.at:
        made = plan_of(sized(build, one.size_m), Facts(), QUESTIONS)
        assert one.sheets == sum(plan.used for plan in made.plan.sheets)
        assert one.least == sum(plan.bound for plan in made.plan.sheets) <= one.sheets
        assert one.unplaced == sum(many for _, many in made.plan.unplaced)


def test_the_edge_of_a_step_is_where_one_millimetre_more_takes_another_sheet():
    build = skinned()
    stair = stair_of(build, Facts(), "shell.length", "Body's length")
    edge = stair.steps[0]
    beyond = next(one for one in stair.at if one.size_m > edge.size_m)

    assert beyond.sheets > edge.sheets
    assert beyond.size_m - edge.size_m == pytest.approx(0.002)
    assert stair.under(edge.size_m) == edge
    assert stair.under(5.0) is None
    assert [one.sheets for one in stair.steps] == sorted({one.sheets for one in stair.steps})


def test_a_step_tells_what_it_saves():
    stair = stair_of(skinned(), Facts(), "shell.length", "Body's length")
    now, edge = stair.under(stair.now_m), stair.steps[0]
    says = drawn.step_words(stair, edge, WORDS)
    by = round((stair.now_m - edge.size_m) * 1000)
    assert says == f"{edge.sheets} at {by} mm less, saves {now.money - edge.money:.0f}"
    assert f"{now.sheets} sheet" in drawn.at_words(now)
    shapes = drawn.stair_chart(stair, stair.now_m, WORDS, 700.0, 400.0)
    assert any(says == getattr(shape, "text", "") for shape in shapes)


def test_a_stair_holds_while_only_its_size_changes():
    build = skinned()
    stair = stair_of(build, Facts(), "shell.length", "Body's length", 0.06, 0.0)

    assert stair.holds_for(build)
    assert stair.holds_for(apply(build, [set_to("shell.length", {"si": 2.5, "typed": None})]))
    assert not stair.holds_for(apply(build, [set_to("shell.width", {"si": 1.21, "typed": None})]))
    assert not stair.holds_for(apply(build, [set_to("shell.faces.floor.layers.l1.thickness", {"si": 0.009})]))


def test_sizes_at_which_nothing_can_be_drawn_are_told_and_nothing_is_said_of_none():
    assert stair_of(a_build(), Facts(), "shell.length", "Body's length") is None
    assert STAIRS["shell.width"](study(a_build(), Facts())) is None
    small = stair_of(skinned(0.2), Facts(), "shell.length", "Body's length")
    assert min(one.size_m for one in small.at) > 0
    empty = Stair("shell.length", "Body's length", 1.0, (), a_build(), ())
    assert drawn.stair_chart(empty, 1.0, WORDS, 400.0, 300.0) == ()
    assert msgspec.structs.replace(empty, at=small.at).steps


def test_where_the_plan_is_not_proven_least_the_bound_stands_beside_it():
    project = demo("orchard-keeper")
    now = project.build.shell.length.si
    one = at_size(project.build, project.facts, "shell.length", now)
    made = plan_of(project.build, project.facts, QUESTIONS)

    assert one.least == sum(plan.bound for plan in made.plan.sheets) < one.sheets
    assert f"{one.least} at least" in drawn.at_words(one)
