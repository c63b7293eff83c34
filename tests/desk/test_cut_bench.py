"""The Cut bench, driven: pieces found on the body and back, cuts step by step, held pieces, stock, shopping and money."""

from __future__ import annotations

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtWidgets import QApplication

from tests.desk.driving import bench_on, drag, drawing, enter, key, move, named, press, release, told, type_in
from uncle_sled.core.document.edits import add_to, set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.studies.cut import cut_from_stock
from uncle_sled.desk.kit.fields import ChoiceField
from uncle_sled.desk.kit.form import Form
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo

VIEWS = ("Pieces", "Sheets", "Bars", "Stock", "Buy", "Money")


@pytest.fixture()
def on(open_on, monkeypatch):
    monkeypatch.setattr(cut_from_stock, "QUESTIONS", 8)  # what a plan is good for is tested on its own

    def opened(view, what="marsh-heron", **more):
        return bench_on(open_on, what, "Cut", view, **more)

    return opened


def middle(chart, key_):
    """A point of the widget over a piece."""
    shapes = chart.make(float(chart.width()), float(chart.height()))
    ring = next(one.points for one in shapes if isinstance(one, Poly) and one.id == key_)
    x, y = sum(p[0] for p in ring) / len(ring), sum(p[1] for p in ring) / len(ring)
    return QPointF(x, chart.height() - y)


def texts(chart):
    return [one.text for one in chart.make(float(chart.width()), float(chart.height())) if isinstance(one, Text)]


def said(session):
    heard: list[str] = []
    session.said.connect(lambda words, how: heard.append(words))
    return heard


@pytest.mark.parametrize("view", VIEWS)
def test_an_empty_build_says_what_is_missing_on_every_view(on, view) -> None:
    _, session, bench = on(view, empty_project())
    panel = bench.made[view]
    panel.refresh()
    for shown in ("number_and_print", "lay_out", "hold", "keep_offcuts"):
        getattr(bench, shown)()
    bench.step(1)
    assert session.project.build.cut == empty_project().build.cut


def test_numbers_are_printed_once_and_undone(on) -> None:
    _, session, bench = on("Pieces")
    panel = bench.made["Pieces"]
    assert "drafts" in told(panel)
    assert bench.number_and_print() and session.build.cut.prints == 1
    assert not bench.number_and_print()  # nothing changed since
    assert {one.standing for one in panel.table.rows} == {"as printed"}
    session.edit("Wider", [set_to("shell.openings.window.width", {"si": 0.9})], "Shell")
    QApplication.processEvents()
    assert "changed since print 1" in told(panel)
    assert any("changed" in panel.note(one) for one in panel.table.rows)
    session.undo()
    session.undo()
    assert session.build.cut.prints == 0


def test_a_row_lights_the_body_and_the_body_its_row(on) -> None:
    _, _, bench = on("Pieces")
    panel = bench.made["Pieces"]
    panel.table.selectRow(7)
    chosen = panel.table.rows[7].piece.key
    assert bench.marked == (chosen,)
    lit = [one for one in panel.map.make(800.0, 260.0) if isinstance(one, Poly) and one.stroke == "chalk"]
    assert [one.id for one in lit] == [chosen]
    other = next(one.piece.key for one in panel.table.rows if one.piece.kind == "bar" and one.piece.of == "left side")
    move(panel.map, middle(panel.map, other), button=Qt.MouseButton.NoButton)
    assert bench.marked and bench.marked[0].startswith("left side")
    rows = panel.table.selectionModel().selectedRows()
    assert panel.table.rows[rows[0].row()].piece.key == bench.marked[0]
    panel.of.entered.emit("floor")
    panel.of.show_value("floor")
    panel.refresh()
    assert {one.piece.of for one in panel.table.rows} == {"floor"}


def test_a_cabinet_is_made_here_and_bought_again(on) -> None:
    _, session, bench = on("Pieces")
    panel = bench.made["Pieces"]
    before = len(panel.table.rows)
    panel.make_here("t10")
    assert session.build.cut.made == ("t10",) and len(panel.table.rows) == before + 6
    panel.make_here("t10")
    assert session.build.cut.made == () and len(panel.table.rows) == before


def test_cuts_are_stepped_through_and_pieces_found(on) -> None:
    _, _, bench = on("Sheets")
    panel = bench.made["Sheets"]
    many = len(panel.sheets())
    assert many > 4
    panel.turn(-1)
    assert panel.at == many - 1
    panel.at = max(range(many), key=lambda k: len(panel.sheets()[k].layout.pieces))
    panel.refresh()
    steps = panel.steps()
    for k in range(1, len(steps) + 1):
        bench.step(1)
        assert f"Cut {k} of {len(steps)}:" in told(panel)
        assert sum(one.id == "" and one.stroke == "chalk" for one in panel.chart.make(800.0, 400.0) if isinstance(one, Poly)) == 1
    bench.step(1)
    assert panel.cut == len(steps)
    bench.step(-1)
    assert panel.cut == len(steps) - 1
    key_ = panel.on().named[0].piece.key
    move(panel.chart, middle(panel.chart, key_), button=Qt.MouseButton.NoButton)
    assert bench.marked == (key_,)
    far = panel.sheets()[0].named[0].piece.key
    panel.picked(far)
    assert panel.at == 0 and bench.marked == (far,)


def test_a_dragged_piece_is_held_the_rest_laid_out_around_it_and_a_bad_place_refused(on) -> None:
    _, session, bench = on("Sheets")
    panel = bench.made["Sheets"]
    heard = said(session)
    panel.at = max(range(len(panel.sheets())), key=lambda k: len(panel.sheets()[k].layout.pieces))
    panel.refresh()
    on_sheet = panel.on()
    small = min(range(len(on_sheet.named)), key=lambda k: on_sheet.layout.pieces[k].w_m * on_sheet.layout.pieces[k].h_m)
    key_ = on_sheet.named[small].piece.key
    scale, _, _ = panel.scale(float(panel.chart.width()), float(panel.chart.height()))
    lies = on_sheet.layout.pieces[small]
    far = on_sheet.layout.length_m - lies.x_m - lies.w_m
    drag(panel.chart, middle(panel.chart, key_), (far * scale + 30, 0))
    assert [pin.piece for pin in session.build.cut.pins] == [key_]
    assert panel.on().layout.pieces[[one.piece.key for one in panel.on().named].index(key_)].pinned
    assert session.build.cut.pins[0].x.si == pytest.approx(on_sheet.layout.length_m - lies.w_m, abs=1e-4)
    bench.mark((key_,))
    bench.hold()
    assert not session.build.cut.pins
    session.undo()
    assert session.build.cut.pins
    # onto another one that is held on the same sheet: refused, with the reason
    other = next(k for k, one in enumerate(panel.on().named) if one.piece.key != key_)
    bench.mark((panel.on().named[other].piece.key,))
    bench.hold()
    assert len(session.build.cut.pins) == 2
    mine = next(k for k, one in enumerate(panel.on().named) if one.piece.key == key_)
    a, b = panel.on().layout.pieces[mine], panel.on().layout.pieces[other]
    scale, _, _ = panel.scale(float(panel.chart.width()), float(panel.chart.height()))
    panel.drop(key_, (b.x_m + b.w_m / 3 - a.x_m) * scale, (b.y_m + b.h_m / 3 - a.y_m) * scale)
    assert any("stays where it was" in words for words in heard)
    assert len(session.build.cut.pins) == 2
    panel.let_all_go()
    assert not session.build.cut.pins


def test_escape_gives_a_dragged_piece_back(on) -> None:
    _, session, bench = on("Sheets")
    panel = bench.made["Sheets"]
    at = middle(panel.chart, panel.on().named[0].piece.key)
    press(panel.chart, at)
    move(panel.chart, at + QPointF(40, 0))
    key(panel.chart, Qt.Key.Key_Escape)
    release(panel.chart, at + QPointF(40, 0))
    assert not session.build.cut.pins


def test_the_saw_is_changed_and_outlines_have_no_cuts(on) -> None:
    _, session, bench = on("Sheets")
    panel = bench.made["Sheets"]
    named(panel, ChoiceField, "Saw").entered.emit("free")
    assert session.build.cut.saw == "free"
    QApplication.processEvents()
    assert panel.sheets() and not panel.steps() and any("outlines" in one for one in texts(panel.list))
    assert any(one.ring for on_sheet in panel.sheets() for one in on_sheet.layout.pieces)


def test_bars_light_up_together_and_another_material_is_found_from_the_body(on) -> None:
    _, _, bench = on("Bars")
    panel = bench.made["Bars"]
    first = panel.bars()[0]
    bench.mark((first.named[0][0].piece.key,))
    assert any(isinstance(one, Poly) and one.stroke == "chalk" for one in panel.chart.make(800.0, 400.0))
    other = next(one for one in bench.hand_out().bars if one.plan.material != panel.material)
    panel.find_piece(other.named[0][0].piece.key)
    assert panel.material == other.plan.material
    assert "the least there can be" in told(panel) or "within" in told(panel)


def test_stock_is_added_typed_into_and_taken_off(on) -> None:
    _, session, bench = on("Stock")
    panel = bench.made["Stock"]
    panel.add(True)
    before = session.build.cut.sizes[:-1]
    rack = session.build.cut.sizes[-1]
    assert rack.rack and rack.qty == 1
    row = next(one for one in panel.table.rows if one.id == rack.id)
    assert type_in(panel.table, row, "Length", "1.9 m")
    assert session.build.cut.sizes[-1].length.si == pytest.approx(1.9)
    row = next(one for one in panel.table.rows if one.id == rack.id)
    assert not type_in(panel.table, row, "Length", "0") and "more than 0" in panel.complaint.text()
    assert not type_in(panel.table, row, "How many", "two") and "number of boards" in panel.complaint.text()
    assert type_in(panel.table, row, "How many", "3") and session.build.cut.sizes[-1].qty == 3
    panel.add(False)
    sold = next(one for one in panel.table.rows if one.id == session.build.cut.sizes[-1].id)
    assert not type_in(panel.table, sold, "Price", "dear") and "no price" in panel.complaint.text()
    assert type_in(panel.table, sold, "Price", "92,50")
    assert session.build.cut.sizes[-1].price == 92.5
    usual = next(one for one in panel.table.rows if one.size is None)
    assert not type_in(panel.table, usual, "Price", "4") and "Usual sizes" in panel.complaint.text()
    at = next(k for k, one in enumerate(panel.table.rows) if one.id == rack.id)
    panel.table.selectRow(at)
    panel.take_off()
    assert session.build.cut.sizes[:-1] == before
    form = next(one for one in panel.findChildren(Form) if any(row.path == "cut.kerf" for row, _, _ in one.rows))
    field = next(widget for row, _, widget in form.rows if row.path == "cut.kerf")
    enter(field, "2.5 mm")
    assert session.build.cut.kerf.si == pytest.approx(0.0025)
    enter(field, "3000 m")
    assert session.build.cut.kerf.si == pytest.approx(0.0025)


def test_a_saw_that_takes_more_than_a_piece_is_said_and_the_rest_is_cut(on) -> None:
    _, session, bench = on("Sheets")
    session.edit("Kerf", [set_to("cut.kerf", {"si": 0.2})], "Cut")
    QApplication.processEvents()
    made = bench.plan()
    assert made is not None and made.wrong and made.plan.unplaced
    assert bench.made["Sheets"].sheets() is not None


def test_offcuts_go_to_the_rack_in_one_step(on) -> None:
    _, session, bench = on("Sheets")
    before = session.build.cut.sizes
    bench.keep_offcuts()
    sizes = session.build.cut.sizes[len(before) :]
    assert sizes and all(one.rack and one.length.si * one.width.si >= 0.1 for one in sizes)
    session.undo()
    assert session.build.cut.sizes == before


def test_the_shopping_list_is_typed_into_ordered_and_filtered(on, tmp_path) -> None:
    _, session, bench = on("Buy")
    panel = bench.made["Buy"]
    heard = said(session)
    row = next(one for one in panel.table.rows if one.name == "Coupling")
    assert type_in(panel.table, row, "Quote", "410") and type_in(panel.table, row, "Until", "2020-01-31")
    row = next(one for one in panel.table.rows if one.name == "Coupling")
    assert (row.sure, row.each) == ("quoted", 410.0) and panel.lapsed(row) == "primer"
    assert not type_in(panel.table, row, "Until", "31.1.2020") and "year-month-day" in panel.complaint.text()
    assert not type_in(panel.table, row, "Likely", "-4")
    assert not type_in(panel.table, row, "What", "Other")
    panel.table.selectRow(next(k for k, one in enumerate(panel.table.rows) if one.name == "Coupling"))
    panel.mark("ordered")
    assert next(one for one in session.build.cut.bought if one.id == row.id).ordered
    panel.table.selectRow(next(k for k, one in enumerate(panel.table.rows) if one.name == "Coupling"))
    panel.mark("ordered")
    assert not next(one for one in session.build.cut.bought if one.id == row.id).ordered
    panel.add()
    own = next(one for one in panel.table.rows if one.own)
    assert own.sure == "not known" and "without a price" in told(panel)
    assert type_in(panel.table, own, "What", "Brush")
    panel.table.selectRow(next(k for k, one in enumerate(panel.table.rows) if one.own))
    panel.take_off()
    assert not any(one.own for one in panel.table.rows)
    panel.table.clearSelection()
    panel.mark("arrived")
    assert any("Choose one line" in words for words in heard)
    path = tmp_path / "p.csv"
    path.write_text("name,price\nLights and reflectors,88\nJack,much\n")
    panel.bring(path)
    assert any("1 prices came in" in words and "line 3" in words for words in heard)
    panel.bring(tmp_path / "none.csv")
    panel.shop.show_value("trailer supplier")
    panel.refresh()
    assert {one.shop for one in panel.table.rows} == {"trailer supplier"}


def test_money_says_its_range_keeps_a_budget_and_prices_for_a_customer(on) -> None:
    _, session, bench = on("Money")
    panel = bench.made["Money"]
    assert "four builds of five" in told(panel)
    session.edit("b", [set_to("brief.budget", 3000.0)], "Cut")
    assert "over" in told(panel) and any("budget" in one for one in texts(drawing(panel, "Money over the stages of the work")))
    session.edit("h", [set_to("cut.hours", 200.0), set_to("cut.hour_price", 25.0)], "Cut")
    assert "To a customer" in told(panel)
    assert type_in(panel.used, panel.used.rows[0], "Rate", "9") and session.build.cut.rules[0].rate == 9.0
    assert not type_in(panel.used, panel.used.rows[0], "Pack", "0") and not type_in(panel.used, panel.used.rows[0], "Rate", "lots")
    assert panel.used.rows[0].rule.changed


def test_a_build_with_its_cutting_comes_back_from_its_file(on, tmp_path) -> None:
    _, session, bench = on("Sheets")
    bench.number_and_print()
    bench.keep_offcuts()
    panel = bench.made["Sheets"]
    bench.mark((panel.on().named[0].piece.key,))
    bench.hold()
    session.edit("b", [add_to("cut.bought", {"id": "rig jack", "quote": 40.0})], "Cut")
    path = tmp_path / "cut.sled"
    sled_file.save(session.project, path)
    project = sled_file.read(path)
    assert project.build.cut == session.build.cut and project.build.cut.numbers


def test_pieces_of_a_drawing_are_known_on_a_demo_in_feet(on) -> None:
    _, _, bench = on("Sheets", demo("orchard-keeper"))
    panel = bench.made["Sheets"]
    assert any("'" in one for one in texts(panel.chart)) and not any(" mm x" in one for one in texts(panel.list))
