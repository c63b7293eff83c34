"""The Balance bench driven: the axle dragged on its chart, moves tried and kept, doubt and limits drawn."""

import pytest
from benchmarks.big_build import big_project
from PySide6.QtCore import QPointF, Qt

from tests.builders import a_project
from tests.desk.driving import button_on, drag, drawing, key, told
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.remedies.move_sets import move_sets
from uncle_sled.desk.kit.working import Working
from uncle_sled.exchange.demos import DEMOS, demo

CTRL = Qt.KeyboardModifier.ControlModifier


def balance(open_on, name="marsh-heron", view=None):
    window = open_on(demo(name), judged=False)
    window.session.worker = None
    window.session.go_to("Balance")
    bench = window.bench("Balance")
    if view:
        bench.show_view(view)
    window.grab()
    return window, window.session, bench


def axle_spot(bench):
    sheet = bench.panel("Axle").axle_sheet
    field = sheet.field(float(sheet.width()), float(sheet.height()))
    return QPointF(field.x(sheet.session.studied.support.mean_axle_m), sheet.height() / 2), field


def test_the_axle_is_dragged_on_its_chart_as_one_step(open_on):
    _window, session, bench = balance(open_on)
    start = session.project
    spot, field = axle_spot(bench)
    per_m = field.x(field.x0 + 1.0) - field.x(field.x0)
    before = session.studied.support.mean_axle_m
    drag(bench.panel("Axle").axle_sheet, spot, (0.1 * per_m, 0))

    assert session.studied.support.mean_axle_m == pytest.approx(before + 0.1, abs=0.006)
    assert len(session.history.done) == 1 and session.history.done[0].says == "Move the axle"
    session.undo()
    assert session.project == start
    session.go_to("Balance")
    key(bench.panel("Axle").axle_sheet, Qt.Key.Key_Right)
    assert session.studied.support.mean_axle_m == pytest.approx(before + 0.01, abs=1e-6)


def test_a_welded_axle_says_so(open_on):
    _, session, bench = balance(open_on, "rosin-box")
    said = []
    session.said.connect(lambda text, _: said.append(text))
    spot, _ = axle_spot(bench)
    drag(bench.panel("Axle").axle_sheet, spot, (60, 0))

    assert "fixed" in said[-1] and not session.history.done


def test_the_best_place_is_tried_and_put_back(open_on):
    _, session, bench = balance(open_on, "orchard-keeper")
    before = session.project
    bench.panel("Axle").best_button.click()
    assert session.ghost is not None and session.project is before
    tried = session.ghost_studied
    light = [r for r in tried.towing_rows if tried.readings.tongue_kg[r] < tried.readings.band_kg[r, 0]]
    assert light == []
    session.put_back()
    assert session.project is before and session.ghost is None


def test_the_balance_point_way_is_tried_for_the_shown_case(open_on):
    _window, session, bench = balance(open_on, view="Axle")
    session.show_case("coming-home")
    row = session.row
    point = float(session.studied.readings.cg_m[row, 0])
    assert f"{bench.panel('Axle').words.m(point)} from the ball" in told(bench.panel("Axle"))
    bench.panel("Axle").point_button.click()
    tried = session.ghost_studied
    assert float(tried.readings.share[row]) == pytest.approx(0.06, abs=0.004)  # the axle's own mass goes along
    session.put_back()
    assert session.ghost is None and not session.history.done


def test_moves_are_found_tried_and_kept(open_on):
    _window, session, bench = balance(open_on, view="Moves")
    button_on(bench.panel("Moves"), "Find moves").click()
    assert bench.panel("Moves").offers.count() >= 1 and "settles every case" in told(bench.panel("Moves"))
    bench.panel("Moves").offer(bench.panel("Moves").offers.item(0))
    assert session.ghost is not None and button_on(bench.panel("Moves"), "Keep").isEnabled()
    bench.panel("Moves").ghost_chart.grab()
    assert any("to" in w.text for w in bench.panel("Moves").ghost_chart.written)
    button_on(bench.panel("Moves"), "Keep").click()
    assert session.ghost is None and len(session.history.done) == 1
    low = [r for r in session.studied.towing_rows if session.studied.readings.tongue_kg[r] < session.studied.readings.band_kg[r, 0]]
    assert low == [] and bench.panel("Moves").offers.count() == 0
    session.undo()
    bench.find_moves()
    session.go_to("Balance")
    assert bench.panel("Moves").found is not None


def test_moves_are_found_beside_the_desk_and_a_change_says_that_they_are_late(open_on, qtbot, worker):
    window = open_on(demo("marsh-heron"), judged=False, worker=worker)
    session, moves = window.session, window.bench("Balance").panel("Moves")
    session.go_to("Balance")
    window.bench("Balance").show_view("Moves")
    button_on(moves, "Find moves").click()  # the first search is the one to be late
    session.edit("move", [set_to("stow.things.t2.x", {"si": 3.9})])
    assert "changed meanwhile" in told(moves) and button_on(moves, "Find moves").isEnabled()
    session.undo()
    button_on(moves, "Find moves").click()  # at once, while the hand's rest is still counted
    assert "Looking for slides" in told(moves)

    qtbot.waitUntil(lambda: moves.found is not None, timeout=60_000)

    assert [m.items for m in moves.found.moves] == [m.items for m in move_sets(session.studied).moves]
    assert moves.offers.count() == len(moves.found.moves)


def test_a_search_can_be_stopped_and_says_so(open_on, qtbot, worker):
    window = open_on(big_project(400), judged=False, worker=worker)
    session = window.session
    session.go_to("Balance")
    window.bench("Balance").find_moves()
    moves = window.bench("Balance").panel("Moves")
    qtbot.waitUntil(moves.findChild(Working).isVisible, timeout=60_000)
    assert moves.findChild(Working).words.full
    moves.findChild(Working).stop_button.click()

    assert "Nothing was changed" in told(moves) and not moves.findChild(Working).isVisible()
    assert not session.history.modified


@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("view", ["Axle", "Moves", "Sure", "Limits", "Driving"])
def test_every_view_of_every_demo_speaks(open_on, name, view):
    _window, _session, bench = balance(open_on, name, view)
    chart = {
        "Axle": drawing(bench.panel("Axle"), "Front and rear axle by case") if name == "dark-sky" else bench.panel("Axle").axle_sheet,
        "Moves": bench.panel("Moves").ghost_chart,
        "Sure": drawing(bench.panel("Sure"), "Every case with its doubt"),
        "Limits": bench.panel("Limits").chart,
        "Driving": bench.panel("Driving").cards["A firm stop"],
    }[view]
    chart.grab()

    assert chart.written
    if view == "Limits":
        assert "Screening only" in told(bench.panel("Limits"))


@pytest.mark.parametrize("view", ["Axle", "Moves", "Sure", "Limits", "Driving"])
def test_an_empty_build_says_what_is_missing(open_on, view):
    window = open_on(a_project([]), judged=False)
    window.session.worker = None
    window.session.go_to("Balance")
    bench = window.bench("Balance")
    bench.show_view(view)
    bench.find_moves()
    window.grab()

    assert bench.panel("Moves").found is not None and (bench.panel("Moves").found.why or bench.panel("Moves").found.moves)
