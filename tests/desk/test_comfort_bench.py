"""Water, gas, warmth and sweat on the Systems bench, by real fields, tables and pictures."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.builders import a_body, a_project, a_thing
from tests.desk.driving import bench_on, button_on, charts_on, drawing, enter, form_on, in_place, press, told
from tests.judging import judged_once
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.stow import Figures
from uncle_sled.desk.kit.form import Form
from uncle_sled.exchange.demos import demo


def panel_on(open_on, what, view, **more):
    window, session, bench = bench_on(open_on, what, "Systems", view, **more)
    return window, session, bench.made[view]


def enter_at(panel, title, text):
    field = next(f for form in panel.findChildren(Form) for row, _, f in form.rows if row.title == title)
    enter(field, text)
    return field


def test_water_is_typed_and_drawn_to_the_day_it_runs_out(open_on):
    _, session, panel = panel_on(open_on, "marsh-heron", "Water")
    panel.grab()
    assert "16 L a day" in told(panel)
    enter_at(panel, "Showers a day", "2")
    assert "36 L a day" in told(panel)
    enter_at(panel, "Days wanted", "4")
    session.judge_now()
    charts_on(panel)[0].grab()
    assert any("dry after 0.5 days" in one.text for one in charts_on(panel)[0].written)
    enter_at(panel, "Drain falls", "10 mm")
    enter_at(panel, "Drain long", "1.6 m")
    found = {f.code for f in session.findings}
    assert {"water-short", "drain-flat"} <= found
    enter_at(panel, "Drain falls", "32 mm")
    assert "drain-flat" not in {f.code for f in session.findings}


def test_gas_says_how_long_and_how_cold(open_on):
    _, session, panel = panel_on(open_on, "marsh-heron", "Gas")
    panel.grab()
    assert any("coldest" in one.text for one in charts_on(panel)[0].written)
    session.judge_now()
    assert "flame-air" in {f.code for f in session.findings}
    enter_at(panel, "Open high", "150")
    enter_at(panel, "Open low", "150")
    assert "flame-air" not in {f.code for f in session.findings}
    session.edit(
        "Cold", [set_to("brief.coldest", {"si": -25.0, "typed": None}), set_to("brief.nights_off", 14), set_to("systems.water.days", None)]
    )
    session.edit("Hot", [set_to("stow.things.t8.figures.hours_day", 8.0)])
    session.judge(judged_once(session.studied))
    codes = {f.code: f for f in session.findings}
    assert "gas-cold" in codes and codes["fuel-short"].where[-1] in ("gas", "diesel")
    gas = next(f for f in session.findings if f.code == "fuel-short" and f.where[-1] == "gas")
    assert gas.remedy is None or "second cylinder" in gas.remedy.says


def test_warmth_counts_what_is_known_and_says_what_is_not(open_on):
    _, session, panel = panel_on(open_on, "rosin-box", "Warmth")
    panel.grab()
    assert "not checked" in told(panel)
    assert any(one.text == "not checked" for one in charts_on(panel)[0].written)
    _, session, panel = panel_on(open_on, "orchard-keeper", "Warmth")
    before = told(panel)
    enter_at(panel, "Through", "120")
    assert told(panel) != before and session.build.systems.air.vent_m3h == pytest.approx(120 / 0.588578, rel=1e-4)
    enter_at(panel, "Wished inside", "100 F")
    assert session.build.brief.inside.si == pytest.approx(37.78, abs=0.01)
    enter_at(panel, "Heater blows", "90")
    enter_at(panel, "Duct inside", '3"')
    assert "Holes to drill" in told(panel)


def test_see_it_sweat_try_a_vent_keep_it(open_on):
    window, session, panel = panel_on(open_on, "marsh-heron", "Sweat")
    panel.picture.grab()
    assert any("Tail hatch" in one.text for one in panel.picture.written)
    assert panel.table.rows[0].name == "Tail hatch" and panel.table.rows[0].sweats and "1 sweat" in told(panel)
    session.judge_now()
    session.judge(judged_once(session.studied))
    one = next(f for f in session.findings if f.code == "sweats")
    session.go_to("Balance")
    window.says.refresh()
    window.says.cards[one.key].point_button.click()
    assert session.stop == "Systems" and window.bench("Systems").view == "Sweat"
    window.says.cards[one.key].try_button.click()
    assert session.ghost is not None
    panel.refresh()
    assert not panel.night().wet and "Nothing sweats" in told(panel)
    session.put_back()
    panel.refresh()
    assert panel.night().wet
    start = session.project
    enter_at(panel, "Through", "36")
    assert not panel.night().wet
    session.undo()
    assert session.project == start and panel.night().wet


def test_surfaces_are_picked_in_picture_and_table_and_shown_in_section(open_on):
    _, _, panel = panel_on(open_on, "marsh-heron", "Sweat")
    width, height = float(panel.picture.width()), float(panel.picture.height())
    shapes = drawing(panel, "The body by the warmth of its inner surfaces").make(width, height)
    roof = next(s for s in shapes if getattr(s, "id", "").startswith("roof") and getattr(s, "closed", False))
    x = sum(p[0] for p in roof.points) / len(roof.points)
    y = max(p[1] for p in roof.points) - 4
    press(panel.picture, QPointF(x, height - y))
    assert panel.chosen
    row = next(k for k, one in enumerate(panel.table.rows) if one.id == "left")
    panel.table.selectRow(row)
    assert panel.face == "left"
    panel.section.grab()
    assert any(one.text == "dew point" for one in panel.section.written)
    button_on(panel, "Wettest").click()
    assert panel.face in {p.id for p in panel.profiles()}


def test_an_empty_build_is_asked_and_nothing_is_drawn_as_dry(open_on):
    for view in ("Water", "Gas", "Warmth", "Sweat"):
        window, session, panel = panel_on(open_on, a_project(), view)
        window.grab()
        assert not [f for f in session.findings if f.stop == "Systems"]
    heater = a_thing("h1", name="Heater", figures=Figures(heat_w=500.0), burns="gas")
    _, session, panel = panel_on(open_on, a_project([heater], shell=a_body("box")), "Sweat")
    enter_at(panel, "Wished inside", "20")
    enter_at(panel, "Coldest night", "30")
    enter_at(panel, "Damp outside", "130")
    assert session.build.brief.humidity_out is None and "0 % to 100 %" in form_on(panel).complaint.text()
    enter_at(panel, "Damp outside", "80")
    enter_at(panel, "Wet gear", "80")
    assert "warmer" in in_place(panel) and not panel.table.rows
    enter_at(panel, "Coldest night", "-5")
    assert "not checked" in told(panel) and "Nothing sweats" not in told(panel)


def test_glass_and_u_values_are_typed_in_hand_and_on_faces(open_on):
    weighed = [set_to("shell.faces.floor.layers", []), set_to("shell.faces.floor.mass", {"si": 105.0, "typed": None})]
    project = demo("dark-sky")
    window = open_on(project.with_build(apply(project.build, weighed)), judged=False)
    session = window.session
    session.go_to("Shell")
    bench = window.bench("Shell")
    bench.show_view("Faces")
    QApplication.processEvents()
    form = next(f for f in bench.findChildren(Form) if f.rows and f.rows[0][0].path.endswith("u_w_m2k"))
    field = form.rows[0][2]
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "0.4")
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert session.build.shell.faces[0].u_w_m2k == 0.4
    session.select(("fan",))
    window.in_hand.refresh()
    glass = next(f for f in window.in_hand.findChildren(Form) for row, _, f in f.rows if row.title == "Glass")
    glass.entered.emit("single")
    assert next(o for o in session.build.shell.openings if o.id == "fan").glazing == "single"
