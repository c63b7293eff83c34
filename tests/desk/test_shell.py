from tests.desk.walk import faults_of
from uncle_sled.desk.compare_ways import CompareWays
from uncle_sled.exchange.demos import demo


def test_a_face_is_made_of_layers_and_given_back(open_on):
    window = open_on(demo("dark-sky"), judged=False)
    session = window.session
    session.go_to("Shell")
    bench = window.bench("Shell")
    before = session.build
    row, _, _ = next(r for r in bench.made.rows if "roof" in r[0].path)
    bench.made._take(row, "aluminium and foam")

    face = next(f for f in session.build.shell.faces if f.id == "roof")
    assert face.made_of and len(face.layers) == 3
    assert "Roof" in bench.by_layers.text() and faults_of(window) == []
    row = next(r[0] for r in bench.made.rows if "roof" in r[0].path)
    bench.made._take(row, "")
    assert session.build == before


def test_ways_are_compared_and_one_is_kept(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    session = window.session
    session.go_to("Shell")
    before = session.project
    dialog = CompareWays(session, window)
    dialog.show()
    assert dialog.table.rowCount() >= 4 and not dialog.keep.isEnabled() and faults_of(dialog) == []
    assert session.project is before
    dialog.which.setCurrentIndex(1)
    dialog.refresh()
    dialog.table.selectRow(3)
    dialog.keep.click()

    sides = [f for f in session.build.shell.faces if f.kind in ("left side", "right side")]
    assert all(f.made_of == dialog.ways[3].name for f in sides) and len(session.history.done) == 1
    session.undo()
    assert session.project == before
