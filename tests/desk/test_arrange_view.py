"""Arrange on the bench: ask, click a picture, lock a piece, look again, keep, and undo through all of it."""

import msgspec
import pytest
from PySide6.QtCore import QPoint

from tests.core.test_arranging import four
from tests.desk.driving import button_on, press
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import Project
from uncle_sled.core.remedies.arranging.arrange import arrangements


@pytest.fixture
def bench(open_on, monkeypatch):
    monkeypatch.setattr("uncle_sled.core.remedies.arranging.places.MOST_PLACES", 300)  # a coarse grid does here
    window = open_on(Project("Four", (four(),), "as-drawn"))
    window.session.go_to("Stow")
    made = window.bench("Stow")
    made.show_view("Arrange")
    return made


def test_an_arrangement_is_found_tried_locked_kept_and_undone(bench):
    panel, session = bench.panel("Arrange"), bench.session
    before = session.build
    button_on(panel, "Arrange it").click()
    found = panel.found
    assert found is not None and len(found.found) >= 1
    assert session.build is before  # nothing moves by looking

    panel.plans.resize(900, 260)
    shapes = panel.plans.make(900.0, 260.0)
    ring = next(shape.points for shape in shapes if getattr(shape, "id", "") == "1")
    x, up = ring[0][0] + 4, ring[0][1] + 4
    press(panel.plans, QPoint(int(x), int(260 - up)))
    assert session.ghost is not None and panel.picked == 1
    assert session.build is before

    put = next(put for put in panel.table.rows if put.moved)
    assert panel._lock(put, True)
    assert [place.id for place in session.build.stow.arranging.locked] == [put.id]
    assert panel.found is found  # what was found is still there, and says that something changed
    assert "look again" in panel._told()
    button_on(panel, "Arrange it").click()
    again = panel.found
    assert again is not None and again is not found
    spots = {one.now for one in (p for a in again.found for p in a.puts if p.id == put.id)}
    assert spots == {put.now}

    panel.try_it(1)
    button_on(panel, "Keep").click()
    assert session.ghost is None
    moved = {thing.id: thing for thing in session.build.stow.things}
    for one in again.found[0].puts:
        assert (moved[one.id].x.si, moved[one.id].y.si, moved[one.id].turn) == pytest.approx((one.now[0], one.now[1], one.now[3]))
    button_on(panel, "Unlock all").click()
    assert not session.build.stow.arranging.locked
    for _ in range(3):
        session.undo()
    assert msgspec.to_builtins(session.build) == msgspec.to_builtins(before)
    assert panel.found is not None or panel._told()


def test_wishes_are_typed_and_one_that_cannot_be_kept_is_named(bench):
    panel, session = bench.panel("Arrange"), bench.session
    session.edit("Toilet behind a door", [set_to("stow.arranging.toilet", True)], "Stow")
    button_on(panel, "Arrange it").click()

    assert "It cannot be so that the toilet is behind a door" in panel._told()
    assert not panel.table.rows
    panel.try_it(3)  # there is none
    assert session.ghost is None
    session.edit("Away", [set_to("stow.things.chest.mass", {"si": 46.0})], "Stow")
    assert panel.found is None
    assert not session.answers.of(arrangements).fresh
