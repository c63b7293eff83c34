"""The cut list that learns: pieces follow what was built, what is cut misses by the difference, the ball is that of the new drawing."""

import pytest

from tests.builders import a_body, a_build, a_hole
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.drawing.cut.miss_words import miss_words
from uncle_sled.core.errors import EditError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.log import pairs_of
from uncle_sled.core.studies.cut.as_built import STICK, built_ops, edge_m, gone, measures_of, misses_of, sawn_ops
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.pieces_list import pieces_report

DAY = "2027-05-01"
WORDS = Words(Shown("mm", "kg", "L"))


def framed(**changes):
    return a_build(shell=a_body(school="stick timber", openings=(a_hole("win", "left side", 1.6, 0.9, 0.6, 0.4),), **changes))


def measured(build, id, value):
    s = study(build, Facts())
    measure = next(one for one in measures_of(s) if one.id == id)
    return apply(build, built_ops(s, measure, value, DAY))


def lengths(build):
    return {piece.key: (piece.length_m, piece.width_m) for piece in take_off(build, Facts()).pieces}


def test_what_is_not_cut_is_cut_to_what_was_built_and_what_is_cut_misses_by_the_difference():
    build = framed()
    before = lengths(build)
    studs = [key for key in before if key.startswith("left side/stud/")][:2]
    assert len(studs) == 2
    build = apply(build, sawn_ops(build, Facts(), tuple(studs), sawn=True, day=DAY))
    after = measured(build, "shell.height", 2.088)
    drawn = lengths(apply(framed(), [set_to("shell.height", {"si": 2.088, "typed": None})]))

    assert lengths(after) == drawn  # as if it had been drawn so from the beginning
    misses = {miss.named.piece.key: miss for miss in misses_of(after, Facts())}
    for key in studs:
        assert misses[key].long_m == pytest.approx(before[key][0] - drawn[key][0]) == pytest.approx(0.012)
        assert misses[key].state == "too long"
        assert miss_words(misses[key], WORDS) == "12 mm too long: trim it"
        assert misses[key].sawn_on == DAY
    assert all(miss.state == "to cut" for key, miss in misses.items() if key not in studs)
    taller = {miss.named.piece.key: miss for miss in misses_of(measured(build, "shell.height", 2.107), Facts())}
    assert taller[studs[0]].state == "too short"
    found = {f.code: f for f in findings(study(measured(build, "shell.height", 2.107), Facts()))}
    assert found["cut-short"].title == "2 pieces are cut too short" and "by 7 mm" in found["cut-short"].says
    assert "cut-short" not in {f.code for f in findings(study(after, Facts()))}  # what is too long is only trimmed
    assert miss_words(taller[studs[0]], WORDS) == "7 mm too short: cut it anew"
    assert [miss.state for miss in misses_of(measured(build, "shell.height", 2.107), Facts())][:2] == ["too short", "too short"]


def test_the_ball_and_the_log_follow():
    build = framed()
    after = measured(build, "shell.length", 4.05)
    fresh = study(apply(build, [set_to("shell.length", {"si": 4.05, "typed": None})]), Facts())
    now, was = study(after, Facts()), study(build, Facts())

    assert now.readings.tongue_kg == pytest.approx(fresh.readings.tongue_kg)
    assert now.readings.total_kg[0] > was.readings.total_kg[0]
    entry = after.work.log[-1]
    assert (entry.kind, entry.value, entry.plan, entry.on) == ("measure", 4.05, 4.0, DAY)
    assert [(pair.name, pair.plan, pair.fact) for pair in pairs_of(now)] == [("Body, long, in metres", 4.0, 4.05)]


def test_an_upright_that_stands_elsewhere_moves_there_and_moves_again_from_there():
    build = framed()
    s = study(build, Facts())
    stick = [one for one in measures_of(s) if one.id.startswith(f"{STICK}left side")][2]
    once = measured(build, stick.id, stick.drawn_m + 0.015)
    member = next(m for m in study(once, Facts()).framed.members if m.face == "left side" and m.by_hand)
    assert edge_m(member) == pytest.approx(stick.drawn_m + 0.015, abs=1e-4)

    again = next(one for one in measures_of(study(once, Facts())) if one.id == f"{STICK}{member.id}")
    twice = measured(once, again.id, stick.drawn_m + 0.020)
    member = next(m for m in study(twice, Facts()).framed.members if m.face == "left side" and m.by_hand)
    assert edge_m(member) == pytest.approx(stick.drawn_m + 0.020, abs=1e-4)
    assert len(twice.shell.framing.changes) == 1


def test_a_slip_is_asked_about_and_nothing_changes():
    s = study(framed(), Facts())
    length = next(one for one in measures_of(s) if one.id == "shell.length")
    with pytest.raises(EditError, match=r"far from the 4\.000 m that are drawn; check the unit"):
        built_ops(s, length, 4050.0, DAY)
    with pytest.raises(EditError, match="more than nothing"):
        built_ops(s, length, 0.0, DAY)


def test_what_is_cut_and_no_longer_drawn_is_told_and_the_report_says_it():
    build = framed()
    key = next(key for key in lengths(build) if key.startswith("left side/"))
    build = apply(build, sawn_ops(build, Facts(), (key,), sawn=True, day=DAY))
    told = next(piece for piece in pieces_report(study(build, Facts())) if piece["key"] == key)
    assert told["sawn"] == {"on": DAY, "state": "right", "long_by_m": 0.0, "wide_by_m": 0.0}
    bare = apply(build, [set_to("shell.framing.school", "none")])

    assert gone(build, Facts()) == ()
    assert gone(bare, Facts()) == (key,)
    assert not apply(build, sawn_ops(build, Facts(), (key,), sawn=False, day=DAY)).cut.sawn
    assert measures_of(study(a_build(), Facts())) == ()
