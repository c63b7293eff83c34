"""The Systems bench by its real fields, tables, wires and diagram."""

import pytest
from msgspec import to_builtins
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton

from tests.builders import a_body, a_project, a_thing
from tests.desk.driving import bench_on, button_on, double_click, drag, drawing, enter, form_on, move, press, release, told
from tests.judging import judged_once
from uncle_sled.core.document.edits import add_to, set_to
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.drawing.systems.wire_views import flat
from uncle_sled.core.studies.systems.sun import skies
from uncle_sled.core.studies.systems.supply import supplies
from uncle_sled.core.studies.systems.year import all_year
from uncle_sled.desk.benches.systems.charge_panel import ChargePanel
from uncle_sled.desk.benches.systems.sizes_panel import SizesPanel
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField
from uncle_sled.desk.kit.form import Form
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.sled_file import read_bytes, to_bytes


def cell(panel, row, column):
    at = [c.title for c in panel.table.model().columns].index(column)
    return panel.table.model().index(row, at)


def field_of(where, title):
    return next(f for form in where.findChildren(Form) for row, _, f in form.rows if row.title == title)


def row_of(panel, name):
    return next(k for k, one in enumerate(panel.table.rows) if one.name == name)


# loads
def test_loads_are_typed_in_their_table_and_undone(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Loads")
    panel, start = bench.made["Loads"], session.project
    before = panel.stay().demand.daily_wh
    at = row_of(panel, "Lamps")
    assert panel.table.model().setData(cell(panel, at, "Watts"), "24")
    assert session.build.systems.loads[0].power_w == 24.0 and panel.stay().demand.daily_wh == pytest.approx(before + 36)
    assert panel.table.model().setData(cell(panel, at, "Watts"), "2 A") and session.build.systems.loads[0].amps == 2.0
    assert panel.table.model().setData(cell(panel, at, "Duty"), "50 %") and session.build.systems.loads[0].duty == 0.5
    assert panel.table.model().setData(cell(panel, at, "When"), "day") and panel.table.model().setData(cell(panel, at, "From"), "mains")
    cool = row_of(panel, "Cool box 30 L")
    assert panel.table.model().setData(cell(panel, cool, "Hours"), "9")
    assert next(t for t in session.build.stow.things if t.id == "t7").figures.hours_day == 9.0
    while session.history.done:
        session.undo()
    assert session.project == start


@pytest.mark.parametrize(
    ("column", "text", "says"),
    [
        ("Watts", "-5", "0 to"),
        ("Hours", "30", "24"),
        ("Duty", "140", "100"),
        ("When", "dusk", "night"),
        ("From", "gas", "battery"),
        ("Watts", "lots", "number"),
    ],
)
def test_what_no_load_can_be_is_said_and_changes_nothing(open_on, column, text, says):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Loads")
    panel, start = bench.made["Loads"], session.project
    assert not panel.table.model().setData(cell(panel, row_of(panel, "Lamps"), column), text)
    assert session.project is start and says in panel.complaint.text() and not panel.complaint.isHidden()


def test_a_battery_of_its_own_is_typed_drawn_and_undone(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Loads")
    panel, start = bench.made["Loads"], session.project
    at, load = row_of(panel, "Lamps"), lambda: session.build.systems.loads[0]
    alone = next(chart for chart in panel.findChildren(Chart) if chart.accessibleName().startswith("Things with a battery"))
    assert not alone.isVisible()
    assert panel.table.model().setData(cell(panel, at, "Own Wh, W"), "18 Wh, 10 W")
    assert (load().store_wh, load().charge_w) == (18.0, 10.0)
    QApplication.processEvents()
    assert alone.isVisible()
    assert cell(panel, at, "Own Wh, W").data() == "18 Wh, 10 W"
    assert panel.table.model().setData(cell(panel, at, "When"), "home") and load().filled == "home"
    assert not panel.table.model().setData(cell(panel, at, "When"), "any")
    assert "driving" in panel.complaint.text()
    assert not panel.table.model().setData(cell(panel, at, "Own Wh, W"), "1 2 3")
    assert "18 Wh, 10 W" in panel.complaint.text()
    assert not panel.table.model().setData(cell(panel, at, "Own Wh, W"), "full")
    assert panel.table.model().setData(cell(panel, at, "Own Wh, W"), "") and load().store_wh is None
    while session.history.done:
        session.undo()
    assert session.project == start


def test_a_load_is_added_left_off_made_a_must_and_taken_off(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Loads")
    panel, whole = bench.made["Loads"], bench.made["Loads"].stay().demand.daily_wh
    button_on(panel, "Add a load").click()
    (id,) = session.selection
    assert panel.table.selectionModel().selectedRows()
    button_on(panel, "Must run").click()
    assert session.build.systems.loads[-1].must_run and button_on(panel, "Must run").isChecked()
    session.show_mode("camp")
    button_on(panel, "Off in this mode").click()
    assert session.build.systems.off[0].modes == ("camp",) and panel.stay().demand.daily_wh == pytest.approx(whole)
    button_on(panel, "Off in this mode").click()
    button_on(panel, "Off for the stay").click()
    assert session.build.systems.off[0].stay and not session.build.systems.off[0].modes
    bench.take_off()
    assert all(one.id != id for one in session.build.systems.loads) and session.build.systems.off == ()
    session.select(("t7",))
    assert not button_on(panel, "Take it off").isEnabled()


# charge and sizes
def test_the_stay_is_set_shaded_and_read_off(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Charge")
    panel = bench.made["Charge"]
    assert "Dull: Cool box 30 L dark on the third day" in told(panel)
    enter(field_of(panel, "Nights off grid"), "2")
    assert session.build.brief.nights_off == 2 and "Dull: nothing goes dark" in told(panel)
    enter(field_of(panel, "Nights off grid"), "40")
    assert session.build.brief.nights_off == 2 and "1 to 14" in form_on(panel).complaint.text()
    enter(field_of(panel, "Driven a day"), "30")
    assert "0 to 24" in form_on(panel).complaint.text()
    button_on(panel, "Clear sky").click()
    assert panel.sky == "clear"
    pad, sun = panel.shade, float(panel.stay().of("clear").sun_wh.sum())
    step = (pad.width() - 24) / 24
    drag(pad, QPointF(12 + 12.5 * step, pad.height() - 22), (0, -(pad.height() - 50)))
    assert session.build.systems.shade[12] > 0.8 and float(panel.stay().of("clear").sun_wh.sum()) < sun
    assert session.history.done[-1].says == "Shade on the panels"
    move(panel.chart, QPointF(panel.chart.width() / 2, panel.chart.height() / 2))
    assert panel.chart.pointed is not None
    panel.chart.grab()
    assert any("in the battery" in one.text for one in panel.chart.written)


def test_shade_is_put_on_one_panel_and_taken_off_it(open_on):
    _, session, bench = bench_on(open_on, "ferry-bell", "Systems", "Charge")
    panel, start = bench.made["Charge"], session.project
    pad, whose = panel.shade, next(field for field in panel.findChildren(ChoiceField) if field.accessibleName() == "Shade of")
    units = [thing for thing in session.build.stow.things if thing.figures and thing.figures.unit == "panel"]
    assert whose.isVisible() == (len(units) > 1)
    whose.entered.emit(units[0].id)
    pad.setFocus()
    for key in (Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_Up):
        QTest.keyClick(pad, key)
    (own,) = session.build.systems.shaded
    assert own.id == units[0].id and own.shade[11] == pytest.approx(0.2) and len(own.shade) == 24 and session.build.systems.shade == ()
    pad.grab()
    whose.entered.emit(units[1].id)
    assert pad.shade()[11] == 0.0
    whose.entered.emit(units[0].id)
    QApplication.processEvents()
    button_on(panel, "as all panels").click()
    assert session.build.systems.shaded == ()
    while session.history.done:
        session.undo()
    assert session.project == start


def test_a_size_is_tried_as_a_ghost_and_kept(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Sizes")
    panel = bench.made["Sizes"]
    button_on(panel, "dull sky").click()
    buttons = [one for one in panel.findChildren(QPushButton) if one.text() == "Try it" and not one.isHidden()]
    assert buttons and panel.table.rows and "W are enough" in told(panel)
    start = session.project
    buttons[-1].click()
    assert session.ghost is not None and session.project is start
    session.put_back()
    assert session.ghost is None
    buttons[-1].click()
    session.keep()
    panel.refresh()
    assert session.project is not start
    assert drawing(panel, "What is needed under each sky, beside what is there").make(400.0, 160.0)


def test_pairs_are_clicked_in_the_matrix(open_on):
    _, session, bench = bench_on(open_on, "orchard-keeper", "Systems", "Together")
    panel = bench.made["Together"]
    shapes = panel.chart.make(float(panel.chart.width()), float(panel.chart.height()))
    square = next(s for s in shapes if getattr(s, "id", "").count("\n") == 1 and s.id.split("\n")[0] != s.id.split("\n")[1])
    x = sum(p[0] for p in square.points) / 4
    y = panel.chart.height() - sum(p[1] for p in square.points) / 4
    press(panel.chart, QPointF(x, y))
    assert panel.chosen == tuple(square.id.split("\n")) and "hookup" in told(panel)
    assert set(session.selection) == set(panel.chosen)


# wires
def test_a_wire_is_picked_bent_and_laid_again(open_on):
    window, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Wires")
    panel = bench.made["Wires"]
    sheet = panel.sheet
    wire = next(w for w in panel.wired().wires if len(w.points) > 3)
    k = max(range(len(wire.points) - 1), key=lambda k: abs(wire.points[k + 1][0] - wire.points[k][0]))
    a, b = (sheet.frame("plan").point(flat(p, "plan")) for p in wire.points[k : k + 2])
    at = QPointF(a * 0.6 + b * 0.4)
    session.select((wire.id,))
    drag(sheet, at, (6, -30))
    told = next(w for w in session.build.systems.wires if w.id == wire.id)
    assert session.selection == (wire.id,) and told.bends and session.history.done[-1].says == f"Bend wire {wire.number}"
    longer = panel.wired().wire(wire.id)
    assert longer.length_m > wire.length_m and len(session.history.done) == 1
    window.in_hand.refresh()
    assert "one way (route)" in window.in_hand.note.text()
    bends = len(told.bends)
    middle = max(told.bends, key=lambda bend: abs(bend.y.si - wire.points[k][1]))
    double_click(sheet, sheet.frame("plan").point((middle.x.si, middle.y.si)))
    assert len(next(w for w in session.build.systems.wires if w.id == wire.id).bends) == bends - 1
    session.undo()
    session.undo()
    assert next(w for w in session.build.systems.wires if w.id == wire.id).bends == ()


def test_a_device_is_moved_and_its_wires_follow(open_on):
    _, session, bench = bench_on(open_on, "dark-sky", "Systems", "Wires")
    panel = bench.made["Wires"]
    device = session.build.systems.devices[0]
    at = panel.sheet.frame("side").point((device.x.si, device.z.si))
    before = panel.wired()
    press(panel.sheet, at)
    move(panel.sheet, at + QPointF(40, -20))
    move(panel.sheet, at + QPointF(60, -30))
    release(panel.sheet, at + QPointF(60, -30))
    moved = next(d for d in session.build.systems.devices if d.id in session.selection)
    assert moved.x.si > device.x.si + 0.2 or moved.id != device.id
    assert any(a.length_m != b.length_m for a, b in zip(before.wires, panel.wired().wires, strict=True))


def test_wires_and_devices_are_added_sized_in_hand_and_taken_off(open_on):
    window, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Wires")
    panel = bench.made["Wires"]
    many = len(session.build.systems.wires)
    panel.add_device("switch", "Switch")
    (device,) = session.selection
    window.in_hand.refresh()
    assert field_of(window.in_hand, "Parts") is not None
    panel.refresh()
    for field, id in ((panel.start, "t16"), (panel.end, device)):
        field.setCurrentIndex(next(k for k, (have, _) in enumerate(field.choices) if have == id))
    button_on(panel, "Add a wire").click()
    assert len(session.build.systems.wires) == many + 1
    (wire,) = session.selection
    window.in_hand.refresh()
    enter(field_of(window.in_hand, "Amps"), "12")
    enter(field_of(window.in_hand, "Measured"), "4 m")
    laid = panel.wired().wire(wire)
    assert laid.current_a == 12.0 and laid.length_m == 4.0 and laid.length_face == "measured" and laid.mm2 > 2
    assert "12.0 A" in window.in_hand.note.text()
    enter(field_of(window.in_hand, "Copper"), "0")
    assert next(w for w in session.build.systems.wires if w.id == wire).area_mm2 is None
    session.select((device,))
    bench.take_off()
    assert len(session.build.systems.wires) == many and all(d.id != device for d in session.build.systems.devices)
    panel.start.setCurrentIndex(0)
    panel.end.setCurrentIndex(0)
    panel.add_wire()
    assert len(session.build.systems.wires) == many


def test_a_dragged_thing_takes_its_wires_along_in_every_frame(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Wires")
    total = float(session.studied.readings.total_kg[0])
    hand = session.take_up("Move it", ("t7",))
    for step in range(1, 6):
        hand.put([set_to("stow.things.t7.x", {"si": 3.5 - 0.2 * step, "typed": None})])
    wired = bench.made["Wires"].wired()
    assert float(session.studied.readings.total_kg[0]) != total
    parts = sum(p.mass_kg for p in session.studied.parts if p.id.startswith("wiring/wr"))
    assert parts == pytest.approx(sum(w.mass_kg for w in wired.wires))
    hand.give_back()
    assert float(session.studied.readings.total_kg[0]) == pytest.approx(total)


# the diagram
def test_a_click_on_the_diagram_takes_the_wire_and_shows_it_in_the_body(open_on):
    window, session, bench = bench_on(open_on, "rosin-box", "Systems", "Diagram")
    panel = bench.made["Diagram"]
    shapes = panel.chart.make(float(panel.chart.width()), float(panel.chart.height()))
    line = next(s for s in shapes if getattr(s, "id", "") == "wr4" and not getattr(s, "closed", True))
    (ax, ay), (bx, by) = line.points[-2:]
    press(panel.chart, QPointF((ax + bx) / 2, panel.chart.height() - (ay + by) / 2))
    assert session.selection == ("wr4",)
    bench.show_view("Wires")
    bench.made["Wires"].sheet.grab()
    assert bench.made["Wires"].table.selectionModel().selectedRows()
    assert "Power station" in window.in_hand.note.text()
    bench.show_view("Diagram")
    before = panel.scale(panel.diagram())
    panel.zoom_by(1.25)
    assert panel.scale(panel.diagram()) > before
    panel.zoom_by(0.0)
    assert panel.scale(panel.diagram()) == pytest.approx(before)


def test_the_strip_of_states_draws_what_is_live_and_says_what_charges(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Diagram")
    panel, start = bench.made["Diagram"], session.project
    whole = panel.chart.make(900.0, 500.0)
    told = {}
    for id in ("hookup", "driving", "day", "night", "generator", "stored"):
        panel.show_state(id)
        told[id] = " ".join(panel._supply_told())
        assert told[id] and len(panel.chart.make(900.0, 500.0)) == len(whole)
        assert (panel.supply() is None) == ("nothing is wired" in told[id])
    assert "charges" in told["day"] and "charges" not in told["night"] and len(set(told.values())) >= 4
    panel.show_state("night")
    assert panel.chart.make(900.0, 500.0) != whole
    panel.show_state("")
    assert panel.chart.make(900.0, 500.0) == whole and session.project == start


def test_the_year_is_drawn_under_the_stay_and_says_what_carries_it(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Systems", "Charge")
    panel = bench.made["Charge"]
    panel.show_sky("dull")
    QApplication.processEvents()
    made = session.answers.now(all_year)
    told = panel._year_told()
    assert made is not None and "Worst under a dull sky: Dec" in told and "would carry the year" in told
    squares = [shape for shape in panel._year(700.0, 130.0) if getattr(shape, "text", "") in ("all", "2", "1", "0")]
    assert len(squares) == 36
    session.edit("Longer", [set_to("brief.nights_off", 1)], "Brief")
    assert session.answers.now(all_year) is not None and "The night holds in every month" in panel._year_told()
    session.undo()


def test_frost_says_when_and_takes_a_colder_night(open_on):
    _, session, bench = bench_on(open_on, "orchard-keeper", "Systems", "Frost")
    panel = bench.made["Frost"]
    before = panel.told()
    assert "hose first" in before[0] and any("keep" in line for line in before)
    enter(field_of(panel, "Coldest night"), "-22 F")
    assert session.build.brief.coldest.si == pytest.approx(-30.0) and panel.told() != before
    enter(field_of(panel, "Coldest night"), "5 C")
    assert "No frost" in panel.told()[0] and panel._drains() == ["Nothing to empty."]
    session.undo()
    session.undo()
    assert panel.told() == before


def test_every_stop_finding_of_rosin_box_is_tried_kept_and_undone(open_on):
    window = open_on(demo("rosin-box"))
    session, start = window.session, window.session.project
    for code in ("charger-loop", "socket-over"):
        one = next(f for f in session.findings if f.code == code)
        session.try_it(one.remedy)
        session.keep()
        session.judge(judged_once(session.studied))
        assert code not in {f.code for f in session.findings}
    assert not [f for f in session.findings if f.stop == "Systems" and f.severity == "stop"]
    while session.history.done:
        session.undo()
    assert session.project == start


# from empty to paper
def test_from_an_empty_build_to_a_printed_diagram(open_on, tmp_path):
    window, session, bench = bench_on(open_on, a_project(shell=a_body("box")), "Systems", "Loads")
    for view in ("Loads", "Charge", "Sizes", "Together", "Wires", "Diagram"):
        bench.show_view(view)
        bench.grab()
    assert not bench.wire_up() and session.build.systems.wires == ()
    figures = {
        "t1": Figures(unit="battery", chemistry="LFP", amp_hours=100.0, volts=12.8, cold_cut=True),
        "t2": Figures(unit="panel", solar_wp=160.0, voc_v=22.5),
        "t4": Figures(power_w=45.0, hours_day=8.0, surge=3.0),
    }
    for at, (id, f) in enumerate(figures.items()):
        session.edit("Add", [add_to("stow.things", to_builtins(a_thing(id, x=1.6 + 0.6 * at, z=0.7, figures=f)))])
    session.go_to("Brief")
    brief = window.bench("Brief")
    place = field_of(brief, "Region")
    place.entered.emit("Northern plains")
    enter(field_of(brief, "Nights off grid"), "3")
    field_of(brief, "From month").entered.emit(11)
    field_of(brief, "To month").entered.emit(2)
    enter(field_of(brief, "Coldest night"), "-4")
    assert session.build.brief.latitude_deg == 52.0 and session.build.brief.months == (11, 12, 1, 2)
    assert session.build.brief.coldest.si == -4.0 and session.build.brief.coldest.typed == "-4 °C"
    enter(field_of(brief, "Latitude"), "36 S")
    assert session.build.brief.latitude_deg == -36.0
    enter(field_of(brief, "Latitude"), "95")
    assert session.build.brief.latitude_deg == -36.0 and "90 at the most" in told(brief)
    session.go_to("Systems")
    bench.show_view("Loads")
    bench.add_load()
    bench.show_view("Diagram")
    heard = []
    session.said.connect(lambda says, _how: heard.append(says))
    assert bench.wire_up() and len(session.build.systems.wires) >= 7
    assert "solar charge controller 20 A is put aboard" in heard[-1] and session.build.stow.things[-1].figures.unit == "solar charger"
    session.undo()
    assert session.build.systems.wires == () and len(session.build.stow.things) == 3  # one step
    session.redo()
    session.edit(
        "Larger",
        [set_to(f"stow.things.{session.build.stow.things[-1].id}.name", "Controller"), set_to("stow.things.t1.name", "Bank 100 Ah")],
    )
    session.edit("Larger", [set_to("stow.things.t1.figures.amp_hours", 120.0)])
    assert session.build.stow.things[0].name == "Bank 120 Ah"
    for kind in ("wiring-pdf", "wiring-svg"):
        data = export_bytes(kind, session.project.name, session.studied, session.findings)
        (tmp_path / kind).write_bytes(data)
        assert len(data) > 2000
    states = supplies(session.studied)
    assert [one.live.state.id for one in states] == ["day", "night", "stored"], "no hookup, no car"
    assert (tmp_path / "wiring-pdf").read_bytes().count(b"/Type /Page\n") == 3 + len(states)
    again = read_bytes(to_bytes(session.project), "x")
    assert again == session.project and again.build.systems.wires == session.build.systems.wires
    bench.show_view("Charge")
    assert "dark" in told(bench.made["Charge"]) or "nothing goes dark" in told(bench.made["Charge"])


def test_one_sky_is_pressed_on_either_view(open_on):
    _, _, bench = bench_on(open_on, "marsh-heron", "Systems", "Charge")
    for view in ("Charge", "Sizes"):
        bench.show_view(view)
        panel = bench.findChild(ChargePanel if view == "Charge" else SizesPanel)
        buttons = {
            sky.id: next(one for one in panel.findChildren(QPushButton) if one.text().lower() == f"{sky.name.lower()} sky")
            for sky in skies()
        }
        for id, pressed in buttons.items():
            pressed.click()
            QApplication.processEvents()
            assert panel.sky == id and [one.isChecked() for one in buttons.values()].count(True) == 1
