"""Trades and what it would take: the front against every pair, goals out of words, sets against every set, whole builds after all."""

import itertools
from datetime import date

import pytest

from tests.builders import a_body, a_build, a_rig, a_tank, a_thing
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.drawing.takes_chart import takes_chart
from uncle_sled.core.drawing.trade_chart import Dot, trade_chart
from uncle_sled.core.errors import EntryError
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.deciding.changes import changes_of
from uncle_sled.core.remedies.deciding.goals import goal_of
from uncle_sled.core.remedies.deciding.points import BY_ID, Point, front, known_builds, told, values_of
from uncle_sled.core.remedies.deciding.takes import what_it_takes
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words

BEGIN = date(2027, 3, 6)
METRIC = Words(Shown("m", "kg", "L"))


def loaded():
    """Three chests of 90, 60 and 30 kg, water and a battery in a box."""
    things = [
        a_thing("a", 90.0, x=2.6, y=0.5, z=0.62, size=(0.5, 0.5, 0.5)),
        a_thing("b", 60.0, x=3.2, y=0.5, z=0.62, size=(0.5, 0.5, 0.5)),
        a_thing("c", 30.0, x=2.6, y=-0.5, z=0.62, size=(0.5, 0.5, 0.5)),
        a_tank("w", 40.0, x=3.2, y=-0.5, z=0.62, size=(0.4, 0.4, 0.4)),
        a_thing(
            "bt", 13.0, x=3.8, y=-0.5, z=0.62, kind="battery", figures=Figures(unit="battery", amp_hours=100.0, chemistry="LFP", volts=12.0)
        ),
    ]
    return Project("Loaded", (a_build(things, rig=a_rig(axle=3.2, frame_cg=2.95), shell=a_body()),), "as-drawn")


def point(id, nights, kg, stops=0):
    return Point(id, id, (), "", {"nights": nights, "kg": kg}, stops)


def test_the_front_is_what_no_other_is_better_than_in_both():
    values = [(1.0, 500.0), (2.0, 520.0), (2.0, 510.0), (3.0, 600.0), (2.5, 600.0), (None, 400.0), (4.0, 610.0)]
    points = tuple(point(str(k), *value, stops=k == 6) for k, value in enumerate(values))
    assert [p.id for p in front(points, "nights", "kg")] == ["0", "2", "3"]  # the last brings something to stop for
    known = [p for p in points if p.value("nights") is not None and not p.stops]
    for p in known:
        better = [q for q in known if q.value("nights") >= p.value("nights") and q.value("kg") <= p.value("kg") and q.values != p.values]
        assert (p.id in {"0", "2", "3"}) == (not better)
    assert {p.id for p in front(points, "kg", "nights")} == {"0", "2", "3"}


@pytest.mark.parametrize(
    ("text", "measure", "kind", "value"),
    [
        ("10 nights", "nights", "least", 10.0),
        ("two nights more", "nights", "less", -2.0),
        ("200 kg less", "kg", "less", 200.0),
        ("100 lb lighter", "kg", "less", 45.359237),
        ("at most 700 kg", "kg", "most", 700.0),
        ("1,500 less money", "money", "less", 1500.0),
        ("100 W warmer", "loss", "less", 100.0),
        ("3 sheets less", "sheets", "less", 3.0),
        ("a second battery", "", "with", 0.0),
        ("rolls by May", "rolls", "most", (date(2027, 5, 1) - BEGIN).days / 7),
        ("done by February", "weeks", "most", (date(2028, 2, 1) - BEGIN).days / 7),
        ("done by 2027-09-15", "weeks", "most", (date(2027, 9, 15) - BEGIN).days / 7),
    ],
)
def test_a_wish_in_words(text, measure, kind, value):
    goal = goal_of(text, BEGIN)
    assert (goal.measure, goal.kind) == (measure, kind)
    assert goal.value == pytest.approx(value)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "Type what you want"),
        ("make it nice", "is not understood"),
        ("40 nights", "1 to 14 nights"),
        ("done by 2027-13-45", "is no day"),
        ("0 nights", "1 to 14"),
    ],
)
def test_what_is_not_understood_is_asked_back(text, says):
    with pytest.raises(EntryError, match=says):
        goal_of(text, BEGIN)


def test_every_change_is_one_step_that_can_be_drawn_and_says_what_it_does():
    project = loaded()
    s = study(project.build, Facts())
    changes = {change.id: change for change in changes_of(s)}

    assert {"one more battery", "more water", "shell.length", "shell.height", "leave a", "one more day"} <= set(changes)
    for change in changes_of(s):
        assert isinstance(apply(project.build, change.ops), Build)
    without = apply(project.build, changes["leave a"].ops)
    assert values_of(project.build, Facts())["kg"] - values_of(without, Facts())["kg"] == pytest.approx(90.0)
    twin = apply(project.build, changes["one more battery"].ops)
    assert sum(thing.kind == "battery" for thing in twin.stow.things) == 2


def test_known_builds_are_the_open_one_its_variants_and_the_steps():
    project = loaded()
    known = known_builds(project)

    assert known.points[0].id == "" and known.points[0].says == "as drawn"
    assert len({p.id for p in known.points}) == len(known.points)
    for p in known.points[1:4]:
        assert p.values == values_of(apply(project.build, p.ops), Facts())
    assert all(p.stops == 0 for p in known.points[:1])


def test_the_cheapest_set_is_that_of_every_set_of_up_to_three():
    """130 kg less, by chests of 90, 60 and 30 kg that stay at home and what else is known: every set tried by brute force."""
    project = loaded()
    takes = what_it_takes(project, text="130 kg less")
    now = values_of(project.build, Facts())["kg"]

    assert takes.now == pytest.approx(now)
    assert takes.found
    changes = [c for c in changes_of(study(project.build, Facts())) if c.id.startswith("leave ")]
    reach = set()
    for many in (1, 2, 3):
        for some in itertools.combinations(changes, many):
            build = project.build
            for change in some:
                build = apply(build, change.ops)
            if values_of(build, Facts())["kg"] <= now - 130 + 1e-6:
                reach.add(frozenset(c.id for c in some))
    assert reach == {frozenset({"leave a", "leave b"}), frozenset({"leave a", "leave b", "leave c"})}
    for one in takes.found:
        after = values_of(apply(project.build, one.ops), Facts())
        assert one.value == pytest.approx(after["kg"]) and after["kg"] <= now - 130 + 1e-6
        assert one.stops == 0
    costs = [one.costs or 0.0 for one in takes.found]
    assert costs == sorted(costs)
    assert not any(set(a.says) < set(b.says) for a in takes.found for b in takes.found)


def test_what_cannot_be_had_says_how_far_it_gets():
    project = loaded()
    takes = what_it_takes(project, text="900 kg less")
    assert not takes.found and takes.best is not None
    assert not takes.best.reaches
    assert f"brings it to {told('kg', takes.best.value, Words(project.build.brief.reading.shown()))}: not 900 kg less" in takes.why
    assert what_it_takes(project, text="at most 5000 kg").why == "It is so already."
    nothing = Project("Nothing", (a_build(),), "as-drawn")
    assert "are not known" in what_it_takes(nothing, text="4 nights").why
    assert "one more could be taken" in what_it_takes(nothing, text="a second battery").why
    with_it = what_it_takes(project, text="a second battery")
    assert with_it.found and with_it.found[0].kg == pytest.approx(13.0, abs=1.0)


def test_pictures_have_every_build_and_nothing_where_there_is_too_little():
    dots = [
        Dot("", "as drawn", 2.0, 600.0, here=True, best=False, good=True),
        Dot("x", "One more battery", 5.0, 613.0, here=False, best=True, good=True),
    ]
    says = (lambda v: f"{v:.0f}", lambda v: f"{v:.0f} kg")
    shapes = trade_chart(dots, ("Nights", "Weight"), says, "x", 700.0, 400.0)
    assert {getattr(shape, "id", "") for shape in shapes} >= {"now", "x"}
    assert any(getattr(shape, "text", "") == "One more battery" for shape in shapes)
    assert trade_chart(dots[:1], ("Nights", "Weight"), says, "", 700.0, 400.0) == ()
    assert takes_chart([], 1.0, 2.0, says[0], 500.0, 200.0) == ()
    assert any("wanted 5" in getattr(shape, "text", "") for shape in takes_chart([("A", 6.0, True)], 2.0, 5.0, says[0], 500.0, 200.0))
    assert told("nights", 14.0, METRIC) == "14 or more nights" and told("money", None, METRIC) == "–"
    assert set(BY_ID) == {"nights", "kg", "room", "sheets", "money", "weeks", "rolls", "loss"}
