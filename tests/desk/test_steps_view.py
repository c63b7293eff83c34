"""Steps on the bench: find, drag the size along the stair, hold at an edge, step, and undo."""

from PySide6.QtCore import QPoint, Qt

from tests.core.test_stairs import skinned
from tests.desk.driving import bench_on, button_on, move, press, release, told
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import Project, empty_project
from uncle_sled.core.drawing.cut.stair_chart import field_of


def test_the_size_is_dragged_on_its_stair_and_holds_at_the_edge_of_a_step(open_on):
    _, session, bench = bench_on(open_on, Project("Box", (skinned(),), "as-drawn"), "Cut", "Steps")
    panel = bench.panel("Steps")
    assert not panel.sheet.stair
    button_on(panel, "Find the steps").click()
    stair = panel.stair
    assert stair is not None and "Fewer sheets" in told(panel)

    sheet = panel.sheet
    sheet.resize(700, 400)
    plot = field_of(stair, 700.0, 400.0)
    edge = stair.steps[0].size_m
    press(sheet, QPoint(int(plot.x(2.6)), 200))
    move(sheet, QPoint(int(plot.x(edge)) + 5, 200))
    assert session.build.shell.length.si == edge  # near enough, it holds
    move(sheet, QPoint(int(plot.x(edge)) + 5, 200), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier)
    assert session.build.shell.length.si > edge
    move(sheet, QPoint(int(plot.x(edge)), 200))
    release(sheet, QPoint(int(plot.x(edge)), 200))
    assert session.build.shell.length.si == edge
    assert panel.stair is stair  # only its own size has changed

    button_on(panel, "Step up").click()
    assert session.build.shell.length.si > edge
    button_on(panel, "Step down").click()
    assert session.build.shell.length.si == edge
    for _ in range(3):
        session.undo()
    assert session.build.shell.length.si == 2.6
    panel.sheet.to_step(1)
    session.undo()
    session.edit("wider", [set_to("shell.width", {"si": 1.3})])
    assert panel.stair is None
    session.go_to("Cut")
    bench.refresh()
    assert not panel.sheet.stair


def test_an_empty_build_has_no_edges(open_on):
    _, session, bench = bench_on(open_on, empty_project(), "Cut", "Steps")
    panel = bench.panel("Steps")
    button_on(panel, "Find the steps").click()
    panel.sheet.to_step(-1)
    assert session.history.done == ()
    assert "No body" in panel.sheet.why
