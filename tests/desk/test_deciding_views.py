"""Trade and Takes on the bench: reckon, click a dot, ask in words, try, keep, undo; faults in words."""

import pytest

from tests.core.test_deciding import loaded
from tests.desk.driving import bench_on, button_on, told
from uncle_sled.core.document.project import empty_project


@pytest.fixture
def on(open_on):
    def make(view, project=None):
        return bench_on(open_on, project or loaded(), "Brief", view)

    return make


def test_a_dot_is_tried_kept_and_undone(on):
    _, session, bench = on("Trade")
    panel = bench.panel("Trade")
    before = session.build
    button_on(panel, "Reckon them").click()
    known = panel.known
    assert known is not None and "builds by" in told(panel)
    panel._choose("a", "room")
    panel._choose("b", "kg")
    step = next(p for p in known.points if p.says.startswith("Leave"))
    panel.pick(step.id)

    assert session.ghost is not None and session.build is before
    assert step.says in told(panel) and "weight" in told(panel)
    button_on(panel, "Keep").click()
    assert session.build is not before
    assert panel.known is None  # another build is open: it is reckoned anew
    session.undo()
    assert session.build == before
    panel.pick("now")
    panel.pick("")
    assert session.ghost is None


def test_a_wish_is_typed_and_a_set_tried(on):
    _, session, bench = on("Takes")
    panel = bench.panel("Takes")
    panel.ask("80 kg less")
    assert panel.takes is not None and panel.takes.found
    assert "way" in told(panel) and "reckoned whole" in told(panel)
    panel.try_it(panel.table.rows[0])
    assert session.ghost is not None
    button_on(panel, "Put back").click()
    assert session.ghost is None
    panel.ask("something nice")
    assert "is not understood" in told(panel) and not panel.table.rows
    panel.ask("")
    assert "Type what you want" in told(panel)


def test_an_empty_build_has_nothing_to_trade(on):
    _, session, bench = on("Trade", empty_project())
    panel = bench.panel("Trade")
    button_on(panel, "Reckon them").click()
    assert panel.known is not None
    assert panel.chart.make(600.0, 400.0) == ()
    bench.show_view("Takes")
    bench.panel("Takes").ask("10 nights")
    assert "are not known" in told(bench.panel("Takes"))
    bench.show_view("Asked")
    assert session.history.done == ()
