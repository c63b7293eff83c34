"""Built on the bench: tick what is cut, type a measure, see what misses, undo."""

from tests.core.test_as_built import framed
from tests.desk.driving import bench_on, button_on, enter, told
from uncle_sled.core.document.project import Project, empty_project


def test_a_measure_is_typed_and_what_is_cut_turns_red(open_on):
    _, session, bench = bench_on(open_on, Project("Box", (framed(),), "as-drawn"), "Cut", "Built")
    panel = bench.panel("Built")
    before = session.build
    button_on(panel, "All shown are cut").click()
    assert "0 pieces still to cut" in told(panel)
    panel._choose("shell.height")
    enter(panel.field, "2107 mm")
    button_on(panel, "Take it down").click()

    assert session.build.shell.height.si == 2.107
    assert session.build.work.log[-1].plan == 2.1
    assert "too short" in told(panel)
    row = panel.table.rows[0]
    assert row.state == "too short"
    assert panel._saw(row, False)
    assert next(miss for miss in panel.table.rows if miss.named.piece.key == row.named.piece.key).state == "to cut"
    enter(panel.field, "9 m")
    button_on(panel, "Take it down").click()
    assert session.build.shell.height.si == 2.107  # a slip changes nothing
    for _ in range(3):
        session.undo()
    assert session.build.shell == before.shell and session.build.cut == before.cut and session.build.work == before.work


def test_an_empty_build_has_nothing_to_measure(open_on):
    _, session, bench = bench_on(open_on, empty_project(), "Cut", "Built")
    panel = bench.panel("Built")
    button_on(panel, "All shown are cut").click()
    panel.take_down()

    assert session.history.done == ()
    assert "Nothing to cut yet" in told(panel)
