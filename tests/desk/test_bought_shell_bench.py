"""Survey and Reline on the Shell bench, by real fields and buttons."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.desk.driving import bench_on, drag, enter, press


def field_of(panel, title):
    return next(field for form in panel.forms for row, _, field in form.rows if row.title == title)


def test_a_measured_width_takes_the_place_of_the_planned_one(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Shell", "Survey")
    assert session.build.shell.survey is None
    enter(field_of(bench.survey, "Width, middle"), "1.60 m")
    shell = session.build.shell
    assert shell.survey.width_middle.typed == "1.60 m" and shell.width.si == pytest.approx(1.60)
    assert shell.survey.planned_width.si == pytest.approx(1.62)
    assert "Planned on the old size" in bench.survey.says.text()
    session.judge_now()
    one = next(f for f in session.findings if f.code == "planned-on-old")
    session.pointed.emit(one)
    session.undo()
    assert session.build.shell.survey is None and session.build.shell.width.si == pytest.approx(1.62)


def test_diagonals_draw_the_plan_out_of_square_and_are_said(open_on):
    window, session, bench = bench_on(open_on, "rosin-box", "Shell", "Survey")
    enter(field_of(bench.survey, "From left front"), "14' 3\"")
    bench.survey.plan.grab()
    assert any("out of square" in one.text for one in bench.survey.plan.written)
    session.judge_now()
    found = {f.code for f in session.findings}
    assert "survey-racked" in found
    window.says.refresh()
    one = next(f for f in session.findings if f.code == "survey-racked")
    session.go_to("Balance")
    window.says.cards[one.key].point_button.click()
    assert session.stop == "Shell" and bench.view == "Survey"
    enter(field_of(bench.survey, "From left front"), "40'")
    session.judge_now()
    assert "survey-impossible" in {f.code for f in session.findings}


def test_a_lining_is_tried_kept_put_back_and_taken_off(open_on):
    _, session, bench = bench_on(open_on, "rosin-box", "Shell", "Reline")
    panel, before = bench.reline, session.project
    total = float(session.studied.readings.total_kg[0])
    effect = panel.effect()
    assert effect.then.total_kg > effect.now.total_kg and effect.bays
    panel.try_button.click()
    assert session.project is before and session.ghost is not None and panel.keep_button.isVisible()
    tried = float(session.ghost_studied.readings.total_kg[0])
    assert tried - total == pytest.approx(sum(f.in_kg - f.out_kg for f in effect.faces))
    panel.back_button.click()
    assert session.ghost is None and session.project is before
    panel.try_button.click()
    panel.keep_button.click()
    assert {one.face for one in session.build.shell.relined} == {"left side", "right side"}
    assert float(session.studied.readings.total_kg[0]) == pytest.approx(tried)
    panel.refresh()
    panel.off_button.click()
    assert not session.build.shell.relined
    session.undo()
    session.undo()
    assert session.project == before


def test_what_is_typed_wrong_on_reline_is_said_and_nothing_is_tried(open_on):
    _, session, bench = bench_on(open_on, "rosin-box", "Shell", "Reline")
    panel = bench.reline
    enter(panel.sizes["foam"], "9 in")
    assert "does not go" in panel.complaint.text()
    panel.try_button.click()
    assert session.ghost is None
    enter(panel.sizes["foam"], "1 in")
    enter(panel.heap, "9000 lb")
    assert "whole trailer" in panel.complaint.text()
    enter(panel.heap, "80 lb")
    assert panel.complaint.text() == "" and panel.effect().faces[0].out_weighed
    off = sum(one.out_kg for one in panel.effect().faces)
    assert off == pytest.approx(80 * 0.45359237, abs=1e-3)


def test_reline_without_a_body_says_what_to_do(open_on):
    from tests.builders import a_project

    window = open_on(a_project([]), judged=False)
    window.session.go_to("Shell")
    for view in ("Survey", "Reline"):
        window.bench("Shell").show_view(view)
        QApplication.processEvents()
        window.grab()
    assert "no such face" in window.bench("Shell").reline.complaint.text()


def test_walls_are_added_dragged_typed_and_taken_out(open_on):
    window, session, bench = bench_on(open_on, "orchard-keeper", "Shell", "Walls")
    panel, before = bench.walls, session.project
    panel.across.click()
    panel.loft.click()
    wall = session.build.shell.partitions[0]
    QApplication.processEvents()
    session.select((wall.id,))
    assert window.in_hand.form is not None and "reckoned" not in window.in_hand.note.text()
    box = next(b for b, one in panel.plan._boxes() if one.id == wall.id)
    drag(panel.plan, box.center(), (-60, 0))
    now = session.build.shell.partitions[0]
    assert now.at.si < wall.at.si - 0.2 and len(session.history.done) == 3
    # a number typed while it is in the hand is where it stands
    box = next(b for b, one in panel.plan._boxes() if one.id == wall.id)
    press(panel.plan, box.center())
    QTest.keyClicks(panel.plan, "12 ft")
    panel.plan.grab()
    assert any("stands at 12 ft" in one.text for one in panel.plan.written)
    QTest.keyClick(panel.plan, Qt.Key.Key_Return)
    assert session.build.shell.partitions[0].at.si == pytest.approx(12 * 0.3048)
    assert "sole" in panel.sticks.text() and "dB" in panel.sticks.text()
    row = next(field for row, _, field in window.in_hand.form.rows if row.title == "Door")
    row.setCurrentIndex(4)
    row.activated.emit(4)
    QApplication.processEvents()
    assert session.build.shell.partitions[0].door == "pocket" and panel.model.rows[0].door == "pocket"
    panel.off.click()
    assert not session.build.shell.partitions
    for _ in range(len(session.history.done)):
        session.undo()
    assert session.project == before
    session.go_to("Stow")
    window.grab()


def test_walls_show_in_every_view_of_what_stands_inside(open_on):
    window, session, bench = bench_on(open_on, "orchard-keeper", "Shell", "Walls")
    bench.walls.across.click()
    bench.walls.along.click()
    bench.walls.loft.click()
    session.go_to("Stow")
    stow = window.bench("Stow")
    ids = {one.id for one in session.build.shell.inner}
    for view in ("Drawing", "Solid", "Modes", "Fits"):
        stow.show_view(view)
        QApplication.processEvents()
        window.grab()
    drawn = {shape.id for leaf in stow.sheet.leaves() for shape in leaf.shapes}
    assert ids <= drawn
    session.judge_now()
    one = next(f for f in session.findings if f.code == "loft-no-climb")
    session.pointed.emit(one)
    assert session.stop == "Shell" and bench.view == "Walls" and session.selection == one.where
