"""Drills from one's own build: answers are the reading's, the same seed asks the same, and nothing is changed."""

from __future__ import annotations

import pytest

from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.core.document.project import Facts, empty_project
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.road import drill_sheet
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.road import drills
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

TOWED = [name for name in DEMOS if demo(name).build.rig.carrier == "ball"]


def studied(name: str):
    project = demo(name)
    return study(project.build, project.facts)


@pytest.mark.parametrize("name", TOWED)
def test_the_ball_answers_as_the_build_itself_would(name) -> None:
    s = studied(name)
    asked = set()
    for seed in range(12):
        one = drills.ball_drill(s, seed)
        assert one is not None and one == drills.ball_drill(s, seed)
        asked.add((one.change, one.id))
        case = s.table.cases[one.row]
        assert one.low < min(one.before_kg, one.after_kg) and max(one.before_kg, one.after_kg) < one.high
        if one.change == "moved":
            thing = next(t for t in s.build.stow.things if t.id == one.id)
            to = thing.x.si + one.to_m - one.at_m
            after = study(apply(s.build, [set_to(f"stow.things.{one.id}.x", {"si": to, "typed": None})]), s.facts)
            assert float(after.readings.tongue_kg[after.table.row(case.id)]) == pytest.approx(one.after_kg, abs=0.5)  # its wires go with it
        elif not s.support.independent:  # by moments about the axle
            by = one.kg * (1 - one.at_m / one.axle_m) * (1 if one.change == "filled" else -1)
            assert one.after_kg - one.before_kg == pytest.approx(by, abs=0.6)
        assert drills.ball_score(one, one.after_kg + 1.5) == 100
        assert drills.ball_score(one, one.after_kg + 500) == 0
        near, far = drills.ball_score(one, one.after_kg + 4), drills.ball_score(one, one.after_kg + 7)
        assert 100 > near > far
    assert len(asked) > 2


def test_the_thin_wire_is_the_only_one_that_drops_too_much() -> None:
    thin = set()
    for name in DEMOS:
        s = studied(name)
        for seed in range(8):
            one = drills.wire_drill(s, seed)
            assert one is not None
            over = [wire.id for wire in one.wires if wire.drop > wire.allowed]
            assert over == [one.thin] and 3 <= len(one.wires) <= drills.MANY
            thin.add((name, one.thin))
    assert len(thin) > len(DEMOS)
    bare = apply(demo("marsh-heron").build, [set_to("systems.wires", [])])
    assert drills.wire_drill(study(bare, Facts()), 1) is None


@pytest.mark.parametrize("name", TOWED)
def test_five_things_can_be_put_and_the_build_stays(name) -> None:
    s = studied(name)
    before = s.build
    one = drills.five_drill(s, 2)
    assert one is not None and 2 <= len(one.ids) <= 5 and 0 < one.best <= one.cases
    assert drills.in_band(s, one.ids, one.begin_m) < one.best  # it is not solved already
    shares = [k / 32 for k in range(33)]
    best = max(shares, key=lambda f: drills.in_band(s, one.ids, tuple(a + f * (b - a) for a, b in one.spans_m)))
    solved = tuple(a + best * (b - a) for a, b in one.spans_m)
    assert drills.five_score(s, one, solved) == 100 > drills.five_score(s, one, one.begin_m)
    assert s.build is before


def test_drawn_with_the_question_and_the_answer_only_when_it_was_given() -> None:
    s, words = studied("marsh-heron"), Words(demo("marsh-heron").build.brief.reading.shown())
    one = drills.ball_drill(s, 1)
    assert one is not None
    told = {
        answered: " ".join(t.text for t in drill_sheet.ball_drawn(one, s, one.before_kg, answered, words, 800, 500) if isinstance(t, Text))
        for answered in (False, True)
    }
    assert "it says" not in told[False] and f"it says {words.kg(one.after_kg)}" in told[True]
    assert drill_sheet.gauge_kg(one, drill_sheet.gauge_x(one, 31.0, 800), 800) == pytest.approx(31.0)
    wires = drills.wire_drill(s, 1)
    assert wires is not None
    for answered in (False, True):
        drawn = drill_sheet.wires_drawn(wires, "", answered, words, 800, 500)
        reds = [p for p in drawn if isinstance(p, Poly) and p.stroke == "primer"]
        assert len(reds) == answered and any("drops" in t.text for t in drawn if isinstance(t, Text)) == answered
    rows = [drill_sheet.wire_at(wires, 500 - drill_sheet.HEAD - (k + 0.5) * 92, 500) for k in range(5)]
    assert rows[0] == wires.wires[0].id and drill_sheet.wire_at(wires, 499, 500) is None


def test_a_build_without_anything_asks_nothing() -> None:
    s = study(empty_project().build, Facts())
    assert drills.ball_drill(s, 1) is None and drills.wire_drill(s, 1) is None and drills.five_drill(s, 1) is None
    bare = demo("marsh-heron").build
    gone = apply(bare, [remove(f"stow.things.{thing.id}") for thing in bare.stow.things])
    left = study(gone, demo("marsh-heron").facts)
    assert drills.ball_drill(left, 1) is None and drills.five_drill(left, 1) is None
