"""Variants over everything, and what one says otherwise than another."""

from __future__ import annotations

import pytest

from tests.builders import a_project
from uncle_sled.core.document import variants
from uncle_sled.core.document.differences import differences, in_words
from uncle_sled.core.document.edits import add_to, apply, remove, set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.beside import beside
from uncle_sled.core.findings.finding import to_settle
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.schedule import schedule_of
from uncle_sled.core.studies.systems.systems_as_built import the_losses, the_water
from uncle_sled.core.units import Shown
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.variants_report import variants_report


def changed(project, *ops, name="another way"):
    kept = variants.keep_as(project, name)
    return kept.with_build(apply(kept.build, ops))


@pytest.mark.parametrize("name", DEMOS)
def test_a_demo_stands_with_what_each_study_says(name) -> None:
    project = demo(name)
    s = study(project.build, project.facts)
    one, *others = beside(project)
    assert len(others) == len(project.variants) - 1
    v = one.standing
    assert v.days_of_water == the_water(s).days_fresh
    assert v.loss_w == (the_losses(s).loss_w if not the_losses(s).unknown else None)
    schedule = schedule_of(project.build, project.facts)
    assert v.hours == pytest.approx(sum(t.task.mean_h for t in schedule.placed))
    assert v.finish is not None and (v.finish - schedule.begin).days == schedule.finish_day
    assert one.settle == to_settle(findings(s)) and set(one.same) >= {"Brief", "Rig", "Shell", "Stow", "Cut", "Road"}
    if v.money is not None:
        assert v.money_low < v.money < v.money_high
    heaviest = max(float(s.readings.total_kg[r]) for r in s.towing_rows)
    assert v.total_kg == pytest.approx(heaviest)
    assert not v.total_measured or project.build.road.corrections


def test_an_empty_project_stands_with_nothing_known_and_no_zero_for_it() -> None:
    (one,) = beside(empty_project())
    v = one.standing
    assert v.money is v.loss_w is v.r_m2k_w is v.worst_ball_kg is v.days_off_grid is v.axle_kg is v.inside_height_m is None
    assert v.off_grid_says == "nothing draws"


def test_what_is_changed_is_told_field_by_field_and_nothing_else() -> None:
    project = demo("marsh-heron")
    thing, gone = project.build.stow.things[0], project.build.stow.things[1]
    assert differences(project.build, project.build) == ()
    two = changed(
        project,
        set_to("shell.height", {"si": 1.2, "typed": None}),
        set_to(f"stow.things.{thing.id}.mass", {"si": 7.5, "typed": None}),
        remove(f"stow.things.{gone.id}"),
        add_to("road.wishes", {"id": "w77", "says": "A step at the door"}),
        set_to("cut.kerf", {"si": project.build.cut.kerf.si, "typed": "other words for the same"}),
    )
    made = differences(two.variants[0], two.build)
    told = [f"{one.stop}: {in_words(one, Shown('mm'))}" for one in made]
    assert "Shell: height 1200 mm, was 1280 mm" in told or any(t.startswith("Shell: height 1200 mm") for t in told)
    assert any(t.startswith(f"Stow: {thing.name}: mass 7.5 kg, was") for t in told)
    assert f"Stow: {gone.name}: not here" in told and "Road: A step at the door: only here" in told
    assert {one.stop for one in made} <= {"Shell", "Stow", "Systems", "Road"}
    back = [f"{one.stop}: {in_words(one, Shown('mm'))}" for one in differences(two.build, two.variants[0])]
    assert f"Stow: {gone.name}: only here" in back and len(back) == len(told)


def test_an_edit_moves_what_it_should_and_the_report_says_both() -> None:
    project = changed(demo("marsh-heron"), set_to("shell.height", {"si": 1.2, "typed": None}))
    first, *_, second = beside(project)
    assert second.standing.inside_height_m < first.standing.inside_height_m
    assert second.standing.body_kg < first.standing.body_kg and second.standing.loss_w < first.standing.loss_w
    assert "Shell" not in second.same and "Rig" in second.same
    told = variants_report(project)
    assert [one["name"] for one in told][:: len(told) - 1] == ["as drawn", "another way"]
    assert told[0]["differences"] == [] and told[-1]["differences"][0]["stop"] == "Shell"
    assert told[-1]["money"] is not None and isinstance(told[-1]["finish"], str)


def test_where_no_price_and_no_axle_are_known_it_says_so() -> None:
    project = a_project()
    (one,) = beside(project)
    assert one.standing.money is None or one.standing.unpriced >= 0
    assert one.standing.finish is None or one.standing.hours
