"""Survey and Reline on the Shell bench, by real fields and buttons."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.desk.driving import bench_on, button_on, drag, drawing, enter, forms_on, named, press, told
from uncle_sled.core.document.edits import set_to
from uncle_sled.desk.kit.fields import QuantityField


def field_of(panel, title):
    return next(field for form in forms_on(panel) for row, _, field in form.rows if row.title == title)


def test_a_measured_width_takes_the_place_of_the_planned_one(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Shell", "Survey")
    assert session.build.shell.survey is None
    enter(field_of(bench.panel("Survey"), "Width, middle"), "1.60 m")
    shell = session.build.shell
    assert shell.survey.width_middle.typed == "1.60 m" and shell.width.si == pytest.approx(1.60)
    assert shell.survey.planned_width.si == pytest.approx(1.62)
    assert "Planned on the old size" in told(bench.panel("Survey"))
    session.judge_now()
    one = next(f for f in session.findings if f.code == "planned-on-old")
    session.pointed.emit(one)
    session.undo()
    assert session.build.shell.survey is None and session.build.shell.width.si == pytest.approx(1.62)


def test_diagonals_draw_the_plan_out_of_square_and_are_said(open_on):
    window, session, bench = bench_on(open_on, "rosin-box", "Shell", "Survey")
    enter(field_of(bench.panel("Survey"), "From left front"), "14' 3\"")
    drawing(bench.panel("Survey"), "The survey from above").grab()
    assert any("out of square" in one.text for one in drawing(bench.panel("Survey"), "The survey from above").written)
    session.judge_now()
    found = {f.code for f in session.findings}
    assert "survey-racked" in found
    window.says.refresh()
    one = next(f for f in session.findings if f.code == "survey-racked")
    session.go_to("Balance")
    window.says.cards[one.key].point_button.click()
    assert session.stop == "Shell" and bench.view == "Survey"
    enter(field_of(bench.panel("Survey"), "From left front"), "40'")
    session.judge_now()
    assert "survey-impossible" in {f.code for f in session.findings}


def test_a_lining_is_tried_kept_put_back_and_taken_off(open_on):
    _, session, bench = bench_on(open_on, "rosin-box", "Shell", "Reline")
    session.edit("As bought", [set_to("shell.relined", [])], "Shell")
    panel, before = bench.panel("Reline"), session.project
    total = float(session.studied.readings.total_kg[0])
    effect = panel.effect()
    assert effect.then.total_kg > effect.now.total_kg and effect.bays
    button_on(panel, "Try it").click()
    assert session.project is before and session.ghost is not None and button_on(panel, "Keep").isVisible()
    tried = float(session.ghost_studied.readings.total_kg[0])
    assert tried - total == pytest.approx(sum(f.in_kg - f.out_kg for f in effect.faces))
    button_on(panel, "Put back").click()
    assert session.ghost is None and session.project is before
    button_on(panel, "Try it").click()
    button_on(panel, "Keep").click()
    assert {one.face for one in session.build.shell.relined} == {"left side", "right side"}
    assert float(session.studied.readings.total_kg[0]) == pytest.approx(tried)
    panel.refresh()
    button_on(panel, "As bought").click()
    assert not session.build.shell.relined
    session.undo()
    session.undo()
    assert session.project == before


def test_what_is_typed_wrong_on_reline_is_said_and_nothing_is_tried(open_on):
    _, session, bench = bench_on(open_on, "rosin-box", "Shell", "Reline")
    panel = bench.panel("Reline")
    enter(named(panel, QuantityField, "Foam thick"), "9 in")
    assert "does not go" in told(panel)
    button_on(panel, "Try it").click()
    assert session.ghost is None
    enter(named(panel, QuantityField, "Foam thick"), "1 in")
    enter(named(panel, QuantityField, "Heap weighed"), "9000 lb")
    assert "whole trailer" in told(panel)
    enter(named(panel, QuantityField, "Heap weighed"), "80 lb")
    assert "whole trailer" not in told(panel) and panel.effect().faces[0].out_weighed
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
    assert "no such face" in told(window.bench("Shell").panel("Reline"))


def test_walls_are_added_dragged_typed_and_taken_out(open_on):
    window, session, bench = bench_on(open_on, "orchard-keeper", "Shell", "Walls")
    panel, before = bench.panel("Walls"), session.project
    button_on(panel, "Wall across").click()
    button_on(panel, "Loft").click()
    wall = session.build.shell.partitions[-1]
    QApplication.processEvents()
    session.select((wall.id,))
    assert window.in_hand.form is not None and "reckoned" not in window.in_hand.note.text()
    box = next(b for b, one in panel.plan.boxes() if one.id == wall.id)
    drag(panel.plan, box.center(), (-60, 0))
    now = session.build.shell.partitions[-1]
    assert now.at.si < wall.at.si - 0.2 and len(session.history.done) == 3
    # a number typed while it is in the hand is where it stands
    box = next(b for b, one in panel.plan.boxes() if one.id == wall.id)
    press(panel.plan, box.center())
    QTest.keyClicks(panel.plan, "12 ft")
    panel.plan.grab()
    assert any("stands at 12 ft" in one.text for one in panel.plan.written)
    QTest.keyClick(panel.plan, Qt.Key.Key_Return)
    assert session.build.shell.partitions[-1].at.si == pytest.approx(12 * 0.3048)
    assert "sole" in told(panel) and "dB" in told(panel)
    row = next(field for row, _, field in window.in_hand.form.rows if row.title == "Door")
    row.setCurrentIndex(4)
    row.activated.emit(4)
    QApplication.processEvents()
    assert session.build.shell.partitions[-1].door == "pocket" and any(one.door == "pocket" for one in panel.table.rows)
    button_on(panel, "Take it out").click()
    assert [one.id for one in session.build.shell.partitions] == ["pt1"]
    for _ in range(len(session.history.done)):
        session.undo()
    assert session.project == before
    session.go_to("Stow")
    window.grab()


def test_walls_show_in_every_view_of_what_stands_inside(open_on):
    window, session, bench = bench_on(open_on, "orchard-keeper", "Shell", "Walls")
    button_on(bench.panel("Walls"), "Wall across").click()
    button_on(bench.panel("Walls"), "Wall along").click()
    button_on(bench.panel("Walls"), "Loft").click()
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
