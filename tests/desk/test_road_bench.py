"""The Road bench, driven: a ticket typed and taken from a scale, accepted and taken back, wishes, trips and blocks."""

from __future__ import annotations

import threading

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.desk.driving import bench_on, button_on, drawing, enter, form_on, forms_on, named, told, type_in
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.road import drill_sheet
from uncle_sled.core.studies.road import drills
from uncle_sled.core.studies.road.weighing import READINGS
from uncle_sled.desk.benches.road.pad_scale import PadScale
from uncle_sled.desk.frame.sled_reading import reading
from uncle_sled.desk.kit.table import Table
from uncle_sled.exchange.stand_in_scale import Load, serve

VIEWS = ("Weigh", "Taught", "Papers", "Trips", "Stand", "Drills")


@pytest.fixture()
def on(open_on):
    def opened(view, what="marsh-heron", **more):
        return bench_on(open_on, what, "Road", view, **more)

    return opened


def field(panel, title):
    return next(widget for row, _, widget in form_on(panel).rows if row.title == title)


@pytest.mark.parametrize("view", VIEWS)
def test_an_empty_build_says_what_is_missing_on_every_view(on, view) -> None:
    _, session, bench = on(view, empty_project())
    bench.made[view].refresh()
    assert not bench.accept()
    bench.forget()
    assert session.build.road == empty_project().build.road


def test_a_ticket_is_typed_and_every_way_is_drawn(on) -> None:
    _, session, bench = on("Weigh")
    panel = bench.made["Weigh"]
    bench.add_ticket()
    assert "Still wanted" in told(panel)
    for id, kg in (
        ("Car, front", "1180"),
        ("Car, rear", "1420"),
        ("Trailer wheels", "760"),
        ("Car alone, front", "1225"),
        ("Car alone, rear", "1290"),
    ):
        enter(field(panel, id), kg)
    assert "85 kg" in told(panel) and "What was aboard?" in told(panel) and "Like " not in told(panel)
    assert session.build.road.tickets[-1].case == ""  # nobody guesses it
    asked = named(panel, Table, "What was aboard: the cases, and what the ticket has more")
    first = asked.rows[0]
    asked.selectRow(0)
    assert session.build.road.tickets[-1].case == session.studied.table.cases[first.row].id
    assert "Like " in told(panel) and "What was aboard?" not in told(panel)
    assert "not enough" in told(panel)
    enter(field(panel, "Trailer wheels"), "-5")
    assert "below nothing" in form_on(panel).complaint.text()
    enter(field(panel, "Trailer wheels"), "1675 lb")
    assert next(one.kg for one in panel.ticket().readings if one.id == "trailer") == pytest.approx(759.8, abs=0.1)
    for way in READINGS:
        session.edit("way", [set_to(f"road.tickets.{panel.ticket().id}.way", way)], "Road")
        for stage in (0, 1):
            shapes = panel.picture(stage, 600.0, 260.0)
            assert any(isinstance(one, Poly) and one.stroke == "chalk" for one in shapes) or way == "platform with the car"
            assert any(isinstance(one, Text) for one in shapes)
    panel.take_off()
    assert len(session.build.road.tickets) == 1


def test_what_tickets_taught_is_accepted_carried_and_taken_back(on) -> None:
    _, session, bench = on("Taught")
    panel = bench.made["Taught"]
    before = session.studied.readings.total_kg[0]
    assert drawing(panel, "Groups before and after").make(700.0, 300.0) and drawing(panel, "Estimate against ticket").make(700.0, 200.0)
    assert bench.accept()
    after = session.studied.readings.total_kg[0]
    assert after > before + 15 and "Every case carries it" in told(panel)
    assert not bench.accept() and len(session.build.road.corrections) == 1
    bench.show_view("Weigh")
    heard: list[str] = []
    session.said.connect(lambda words, how: heard.append(words))
    bench.made["Weigh"].take_off()
    assert any("accepted" in one for one in heard) and session.build.road.tickets
    bench.forget()
    assert session.studied.readings.total_kg[0] == before
    session.undo()
    session.undo()
    assert session.build.road.corrections == ()


def test_a_reading_comes_from_a_scale_and_its_faults_are_said(on, qtbot) -> None:
    _, _, bench = on("Weigh")
    panel = bench.made["Weigh"]
    ports: list[str] = []
    ready = threading.Event()

    def said(words: str) -> None:
        ports.append(words)
        ready.set()

    loads = (Load(212.4, 9.0),)
    thread = threading.Thread(target=serve, args=(loads, 0, said, 0.05, True), daemon=True)
    thread.start()
    assert ready.wait(5)
    panel.port.setText(ports[0].split("port ")[1].split(";")[0])
    panel.listen.click()
    qtbot.waitUntil(lambda: panel.scale.steady_kg() is not None, timeout=20_000)
    assert "steady" in panel.live.text()
    panel.into.show_value("left")
    panel.take_reading()
    assert next(one.kg for one in panel.ticket().readings if one.id == "left") == pytest.approx(212.4, abs=0.5)
    assert panel.into.currentData() == "right"
    panel.listen.click()
    assert panel.scale.socket is None
    for text, words in (("", "no port"), ("70000", "no port"), ("1", "Nothing answers")):
        panel.port.setText(text)
        panel.listen.click()
        assert words in panel.live.text(), text
    thread.join(15)


def test_rubbish_half_lines_and_silence_of_a_scale_are_said(qapp) -> None:
    scale = PadScale()
    heard: list[tuple[str, bool, bool]] = []
    scale.told.connect(lambda *told: heard.append(told))
    scale.feed(b"12")
    scale.feed(b".5\nOVERLOAD\n\xff\xfe\n13")
    assert scale.held.last() == 12.5 and scale.rubbish == 2 and "2 lines were no numbers" in heard[-1][0]
    scale.feed(b"x" * 100_000 + b"\n")
    assert scale.held.last() == 12.5 and len(scale._rest) < 1000
    QApplication.processEvents()
    scale.stop()


def test_a_scale_that_floods_stutters_and_falls_silent_is_read_all_the_same(qapp, monkeypatch) -> None:
    """Ten thousand lines a second in blocks that end anywhere, then single letters, then nothing."""
    clock = [0.0]
    monkeypatch.setattr("uncle_sled.desk.benches.road.pad_scale.time.monotonic", lambda: clock[0])
    scale, heard = PadScale(), []
    scale.told.connect(lambda *told: heard.append(told))
    flood = b"212.4\n" * 70_000
    for block in range(700):
        clock[0] = block / 100
        scale.feed(flood[block * 599 : (block + 1) * 599])  # no end of a line is an end of a block
    assert len(scale.held.readings) < 2000 and len(scale._rest) < 64
    assert scale.held.steady_kg() == pytest.approx(212.4, abs=0.1) and heard[-1][1] and scale.rubbish == 0
    # among thousands one that is far off is not lost
    scale.feed(b"212.4\n" * 50 + b"300\n" + b"212.4\n" * 50)
    assert scale.held.steady_kg() is None
    for letter in b"99.5\n" * 40:
        clock[0] += 0.05
        scale.feed(bytes([letter]))
    assert scale.held.last() == 99.5 and scale.held.steady_kg() == pytest.approx(99.5)
    scale.socket = object()  # type: ignore[assignment]
    scale._silent()
    assert "silent" in heard[-1][0]
    scale.socket = None
    scale.stop()


def test_wishes_point_at_what_meets_them(on) -> None:
    _, session, bench = on("Papers")
    panel = bench.made["Papers"]
    bench.add_wish()
    row = len(panel.table.rows) - 1
    assert type_in(panel.table, panel.table.rows[row], "Wish", "A shelf for the scope")
    panel.table.selectRow(row)
    panel.meet("t10")
    assert panel.table.rows[row].met and panel.table.rows[row].where_name == "Galley cupboards"
    panel.table.selectRow(row)
    panel.take_off()
    assert len(session.build.road.wishes) == 3


def test_trips_are_typed_drawn_and_read_from_a_record(on, tmp_path) -> None:
    _, session, bench = on("Trips")
    panel = bench.made["Trips"]
    bench.add_trip()
    assert type_in(panel.table, panel.table.rows[-1], "Nights", "3") and type_in(panel.table, panel.table.rows[-1], "Water", "31,5")
    assert not type_in(panel.table, panel.table.rows[-1], "Power, Wh", "lots") and "cannot be taken" in panel.complaint.text()
    assert not type_in(panel.table, panel.table.rows[-1], "Water", "-3") and panel.complaint.text()
    assert not type_in(panel.table, panel.table.rows[-1], "Coldest", "cold") and panel.complaint.text()
    assert type_in(panel.table, panel.table.rows[-1], "Coldest", "-4") and session.build.road.trips[-1].coldest_c == -4.0
    assert session.build.road.trips[-1].water_l == 31.5 and session.build.road.trips[-1].nights == 3
    path = tmp_path / "b.csv"
    path.write_text("time,watts\n2027-05-01 20:00,60\n2027-05-01 21:00,60\n")
    panel.table.selectRow(len(panel.table.rows) - 1)
    panel.record(str(path))
    assert session.build.road.trips[-1].power_wh == 60.0
    (cell,) = session.build.road.trips[-1].drawn
    assert (cell.hour, cell.watts, cell.hours) == (20, 60.0, 1.0)
    QApplication.processEvents()
    before = {load.id: load.hours_day for load in session.build.systems.loads}
    assert "1 hour of the day is recorded" in told(panel)
    assert drawing(panel, "Watts by the hour").make(400.0, 240.0) and drawing(panel, "Loads before and after").make(400.0, 240.0)
    button_on(panel, "Take these hours").click()
    assert before != {load.id: load.hours_day for load in session.build.systems.loads}
    session.undo()
    assert before == {load.id: load.hours_day for load in session.build.systems.loads}
    panel.record(str(tmp_path / "none.csv"))
    assert drawing(panel, "Taken against the plan").make(700.0, 300.0)


def test_blocks_are_typed_and_stand_on_their_levels(on) -> None:
    _, session, bench = on("Stand", "orchard-keeper")
    panel = bench.made["Stand"]
    assert "blocks" in told(panel) and drawing(panel, "The body on its blocks").make(700.0, 400.0)
    panel.usual(4)
    assert len(session.build.road.standing.blocks) == 4
    form = forms_on(panel)[0]
    blocks = next(widget for row, _, widget in form.rows if row.title == "Blocks from front")
    enter(blocks, "2 ft; 10 ft; 20 ft")
    assert [round(one.si, 2) for one in session.build.road.standing.blocks] == [0.61, 3.05, 6.1]
    enter(blocks, "far")
    assert form.complaint.text() and len(session.build.road.standing.blocks) == 3


def test_a_weighed_case_says_so_until_it_is_changed(on) -> None:
    _window, session, bench = on("Taught")
    assert bench.accept()
    s = session.studied
    row = next(row for row, case in enumerate(s.table.cases) if case.id == session.build.road.corrections[0].seen[0].case)
    assert s.measured.ball[row] and s.measured.total[row] and s.measured.total.sum() == 1
    session.show_case(s.table.cases[row].id)
    assert reading(s, row).title.endswith("weighed")
    other = next(r for r in s.towing_rows if r != row)
    assert not reading(s, other).title.endswith("weighed")
    coupler = {one.id: one for one in s.limits}["coupler"]
    assert (coupler.face == "measured") == (coupler.case_id == s.table.cases[row].id)
    thing = next(t for t in session.build.stow.things if t.mass.si > 3 and not t.tank)
    session.edit("Heavier", [set_to(f"stow.things.{thing.id}.mass", {"si": thing.mass.si + 12, "typed": None})], "Stow")
    assert not session.studied.measured.ball.any()
    session.undo()
    assert session.studied.measured.ball[row]


def test_wishes_are_numbered_where_they_are_and_papers_show_the_trailer(on) -> None:
    _, session, bench = on("Papers")
    panel = bench.made["Papers"]
    drawn = [one.text for one in drawing(panel, "Where each wish is").make(600.0, 400.0) if isinstance(one, Text)]
    met = [k for k, one in enumerate(panel.table.rows, 1) if one.met and one.mass_kg is not None]
    assert sorted(drawn) == sorted(str(k) for k in met for _ in range(2))
    session.edit("Bare", [set_to("road.wishes", [])], "Road")
    assert not [one for one in drawing(panel, "Where each wish is").make(600.0, 400.0) if isinstance(one, Text)]


def test_drills_are_pointed_at_answered_and_scored(on, qtbot) -> None:
    _, session, bench = on("Drills")
    panel = bench.made["Drills"]
    build = session.build
    sheet = panel.sheet
    one = panel.ball
    x = drill_sheet.gauge_x(one, one.after_kg, float(sheet.width()))
    spot = QPoint(round(x), sheet.height() - 58)
    qtbot.mousePress(sheet, Qt.MouseButton.LeftButton, pos=QPoint(30, spot.y()))
    QTest.mouseMove(sheet, spot)
    panel.drag(x, 58.0)
    qtbot.mouseRelease(sheet, Qt.MouseButton.LeftButton, pos=spot)
    assert panel.guess_kg == pytest.approx(one.after_kg, abs=0.5) and session.build is build
    qtbot.keyClick(sheet, Qt.Key.Key_Right)
    qtbot.keyClick(sheet, Qt.Key.Key_Return)
    assert panel.answered and panel.scores["ball"] > 60 and "of 100" in told(panel) and "÷" in told(panel)
    held = panel.guess_kg
    panel.nudge(3)
    assert panel.guess_kg == held  # an answer stays
    panel.another()
    assert not panel.answered and "Nothing of the build is changed" in told(panel)

    panel.take("wire")
    panel.answer()
    assert "Choose a wire first." in told(panel)
    k = next(k for k, wire in enumerate(panel.wire.wires) if wire.id == panel.wire.thin)
    row = drill_sheet._row(panel.wire, float(sheet.height()))
    qtbot.mousePress(sheet, Qt.MouseButton.LeftButton, pos=QPoint(200, round(drill_sheet.HEAD + (k + 0.5) * row)))
    assert panel.chosen == panel.wire.thin
    panel.answer()
    assert panel.scores["wire"] == 100 and "drops" in told(panel)

    panel.take("five")
    five = panel.five
    wide, high = float(sheet.width()), float(sheet.height())
    s = drills.put(session.studied, five.ids, panel.at_m)
    frame = drill_sheet.frame_of(s, wide, high, 150.0)
    shape = next(p for p in sheet.make(wide, high) if isinstance(p, Poly) and p.id == five.ids[0] and p.width > 2)
    a = shape.points[0]
    panel.press(a[0] + 3, a[1] + 3)
    assert panel.held
    at = panel.at_m[five.ids.index(panel.held)]
    panel.drag(a[0] + 3 + 0.2 * frame.scale, a[1] + 3)
    _low, top = five.spans_m[five.ids.index(panel.held)]
    assert panel.at_m[five.ids.index(panel.held)] == pytest.approx(min(at + 0.2, top), abs=0.01)
    panel.place(five.ids[0], 99.0)
    assert panel.at_m[0] == five.spans_m[0][1]
    panel.answer()
    assert "cases are in the band" in told(panel)
    assert session.build.road.best_drill > 0 and "Best of all three" in told(panel)
    assert panel.answered  # keeping the best asks nothing anew
    session.undo()
    assert session.build == build


def test_drills_of_an_empty_build_say_what_they_want(on) -> None:
    _, _, bench = on("Drills", empty_project())
    panel = bench.made["Drills"]
    for kind in ("ball", "wire", "five"):
        panel.take(kind)
        panel.press(100, 100)
        panel.nudge(1)
        panel.answer()
        assert not panel.go.isEnabled() and "Wants" in panel.why_none() and not panel.answered
