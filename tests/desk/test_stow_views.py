"""A journey through modes, cases, fit and holding in the real window, and what a hurried hand types there."""

import itertools

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtWidgets import QApplication

from tests.builders import a_project, a_rig, a_shell, a_tank, a_thing
from tests.desk.driving import button_on, drag, enter, key, middle_of, press, told
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.quantity import Length, Volume
from uncle_sled.core.document.stow import Tank
from uncle_sled.core.drawing.stow.case_lines import read_level
from uncle_sled.core.drawing.stow.fan import field_of
from uncle_sled.core.drawing.stow.isometric import PEELS
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.desk.benches.stow.thing_rows import equal_grey
from uncle_sled.desk.benches.stow.verdict_card import VerdictCard
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.sheet.gestures import DragThings
from uncle_sled.exchange.catalogue_csv import read_catalogue
from uncle_sled.exchange.demos import demo

CTRL = Qt.KeyboardModifier.ControlModifier


def opened(open_on, name="marsh-heron", view=None, **size):
    window = open_on(demo(name), judged=False, **size)
    window.session.go_to("Stow")
    bench = window.bench("Stow")
    if view:
        bench.show_view(view)
    window.grab()
    return window, window.session, bench


def thing(session, id):
    return next(t for t in session.build.stow.things if t.id == id)


def mode(session, id):
    return next(m for m in session.build.stow.modes if m.id == id)


def test_a_journey_through_modes(open_on):
    window, session, bench = opened(open_on, "rosin-box")
    start = session.project
    bench.modes["camp"].click()
    assert session.mode.id == "camp" and session.studied.table.cases[session.row].mode.id == "camp"

    # what is moved here stays at home on the road
    home = thing(session, "t9").x.si
    session.select(("t2",))
    drag(bench.sheet, middle_of(bench.sheet, "t2", "plan"), (0.4 * bench.sheet.scale, 0), CTRL)
    there = stand_of(thing(session, "t2"), mode(session, "camp"))
    assert there.x == pytest.approx(thing(session, "t2").x.si + 0.4, abs=0.02)
    bench.modes["road"].click()
    assert session.mode.id == "road" and thing(session, "t9").x.si == home
    assert stand_of(thing(session, "t2"), session.mode).x == thing(session, "t2").x.si

    # a bunk that folds: its state and its being left out are edits of the mode in hand
    bench.modes["cargo"].click()
    window.in_hand.open = {"In this mode"}
    session.select(("t4",))
    rows = {row.title: field for form in window.in_hand.sections for row, _, field in form.rows}
    assert rows["It is"].currentText() == "folded up"
    rows["It is"].activated.emit(0)
    assert session.build.stow.modes[2].states == () and clashes(session.build, session.facts)["cargo"]
    rows = {row.title: field for form in window.in_hand.sections for row, _, field in form.rows}
    rows["Left out of this mode"].click()
    assert "t4" in mode(session, "cargo").absent
    while session.history.done:
        session.undo()
    assert session.project == start


def test_clashes_follow_the_hand_and_are_marked(open_on):
    _window, session, bench = opened(open_on)
    sheet = bench.sheet
    before = {f.key for f in session.findings}
    spot = middle_of(sheet, "t16", "side")
    press(sheet, spot)
    session.select(("t16",))
    sheet.gesture = DragThings(sheet, "side", spot, "t16")
    sheet.gesture.moved(spot + QPointF(0.4 * sheet.scale, 0), CTRL)
    assert session.dragging
    new = {f.key for f in session.findings} - before
    assert any(code == "clash" for code, _ in new)
    sheet.gesture.finished()
    sheet.gesture = None
    assert not session.dragging and set(session.findings) == set(findings(session.studied))


def test_the_strip_shows_every_mode_and_a_click_goes_there(open_on):
    _window, session, bench = opened(open_on, "rosin-box", "Modes")
    strip = bench.panel("Modes")
    strip.sheet.grab()
    assert set(strip.sheet.cards) == {"road", "camp", "cargo"}
    press(strip.sheet, strip.sheet.cards["cargo"].center() + QPointF(0, -100))
    assert session.mode.id == "cargo"

    strip.make("Rainy day")
    assert [m.name for m in session.build.stow.modes][-1] == "Rainy day" and session.mode.id == "rainy-day"
    strip.turn()
    assert not session.mode.towing
    strip.drop(session.mode)
    assert len(session.build.stow.modes) == 3 and session.mode.id in {"road", "camp", "cargo"}
    said = []
    session.said.connect(lambda text, _: said.append(text))
    session.show_mode("road")
    one = open_on(a_project([a_thing()], shell=a_shell()), judged=False)
    one.session.go_to("Stow")
    one.bench("Stow").show_view("Modes")
    one.session.said.connect(lambda text, _: said.append(text))
    one.bench("Stow").panel("Modes").turn()
    assert "One mode has to drive" in said[-1]


def test_a_mode_that_weighs_as_another_can_still_be_worked_in(open_on):
    _, session, bench = opened(open_on)
    bench.show_view("Modes")
    bench.panel("Modes").make("Ferry")
    ferry = session.mode
    bench.show_view("Drawing")

    assert ferry.name == "Ferry" and bench.modes["ferry"].isChecked()
    drag(bench.sheet, middle_of(bench.sheet, "t12", "plan"), (0.1 * bench.sheet.scale, 0), CTRL)
    assert [p.id for p in mode(session, "ferry").places] == ["t12"]
    assert any(c.mode.id == "ferry" for c in session.studied.table.cases)


def typed_in(cases, row, column, *what):
    """Into the cell of a line and a case; the first column of the table says what the line is."""
    model = cases.table.model()
    return model.setData(model.index(row, column + 1), *what)


def test_cases_are_edited_in_place_and_given_back(open_on):
    _window, session, bench = opened(open_on, view="Cases")
    cases = bench.panel("Cases")
    lines = lambda: cases.table.rows
    row = next(k for k, line in enumerate(lines()) if line.kind == "level" and line.key == "t1")
    column = next(k for k, c in enumerate(cases.cases) if c.id == "coming-home")
    before = float(session.studied.readings.tongue_kg[session.studied.table.row("coming-home")])

    assert typed_in(cases, row, column, "half")
    after = float(session.studied.readings.tongue_kg[session.studied.table.row("coming-home")])
    assert after > before and cases.table.model().headerData(column + 1, Qt.Orientation.Horizontal).endswith("•")
    session.show_case("coming-home")
    assert button_on(cases, "Give back").isEnabled()
    cases.give_back()
    assert session.build.stow.cases == ()
    assert float(session.studied.readings.tongue_kg[session.studied.table.row("coming-home")]) == pytest.approx(before)

    line = next(k for k, line in enumerate(lines()) if line.kind == "aboard" and line.key == "t12")
    checked = Qt.CheckState.Unchecked.value
    assert typed_in(cases, line, column, checked, Qt.ItemDataRole.CheckStateRole)
    assert "t12" not in [m for m in session.studied.table.ids if session.studied.table.mass_kg[column][session.studied.table.ids.index(m)]]
    cases.add("Half full")
    assert any(c.name == "Half full" for c in session.build.stow.cases)


@pytest.mark.parametrize(
    ("text", "level"),
    [("50", 0.5), ("50 %", 0.5), ("full", 1.0), ("empty", 0.0), ("12,5", 0.125), ("130 %", None), ("-1", None), ("lots", None)],
)
def test_a_level_is_read_or_refused(text, level):
    assert read_level(text) == level


def test_a_level_of_130_percent_is_said_and_nothing_changes(open_on):
    _, session, bench = opened(open_on, view="Cases")
    said = []
    session.said.connect(lambda text, _: said.append(text))
    cases, before = bench.panel("Cases"), session.project
    row = next(k for k, line in enumerate(cases.table.rows) if line.kind == "level")

    assert not typed_in(cases, row, 0, "130 %") and session.project is before
    assert "130 %" in said[-1] and "0 to 100" in said[-1]


def inks(cases, title):
    line = next(one for one in cases.table.rows if one.title == title)
    return [column.ink(line) for column in cases.table.columns[1:]]


def test_each_load_is_red_over_its_own_limit_and_in_every_case(open_on):
    _window, session, bench = opened(open_on, "orchard-keeper", "Cases")
    model, b = bench.panel("Cases"), session.studied.readings
    assert "primer" in inks(model, "Axle 2") and "primer" not in inks(model, "Axle 1")
    assert inks(model, "Axle 2") == ["primer" if kg > 2721.55422 else "" for kg in b.axle_kg[:, 1]]
    assert "primer" not in inks(model, "Car's rear axle")
    session.edit("A lighter car", [set_to("facts.vehicles.v1.rear_axle_rating", {"si": 1500.0, "typed": None})], whole_project=True)
    assert "primer" in inks(model, "Car's rear axle") and "primer" not in inks(model, "Car's front axle")
    session.edit("A low plate", [set_to("rig.gross_total", {"si": 5400.0, "typed": None})])
    assert inks(model, "Whole weight") == ["primer" if kg > 5400 else "" for kg in b.total_kg]
    _bed, truck, other = opened(open_on, "dark-sky", "Cases")
    row = truck.studied.table.row("cargo")
    assert inks(other.panel("Cases"), "Rear axle")[row] == "primer"
    assert inks(other.panel("Cases"), "Chance within")[row] == "ochre word"


def test_the_sweep_is_drawn_or_says_why_not(open_on):
    _window, session, bench = opened(open_on, view="Cases")
    cases = bench.panel("Cases")
    cases.fan.grab()
    assert "combinations" in told(cases) and any("kg:" in w.text for w in cases.fan.written)
    _truck, bed, other = opened(open_on, "dark-sky", "Cases")
    other.panel("Cases").fan.grab()
    assert any("rear axle" in w.text for w in other.panel("Cases").fan.written)
    assert "within both axles" in told(other.panel("Cases"))
    bed.show_case("cargo")
    assert "too much on the rear axle with" in told(other.panel("Cases"))
    chart = cases.fan
    found = sweep(session.studied, session.row)
    at = field_of(found, chart.width(), chart.height()).at(float(found.total_kg[0]), float(found.load_kg[0]))
    assert "Fresh jug empty" in chart.read(*at, chart.width(), chart.height()) and chart.read(0, 0, 300, 200) == ""


def test_fit_and_holding_speak_and_point(open_on):
    _window, session, bench = opened(open_on, view="Fits")
    fits = bench.panel("Fits")
    cards = {card.title: card for card in fits.findChildren(VerdictCard)}
    said = [line.text for card in cards.values() for line in card.said]
    assert any("Tall watcher" in text for text in said) and any("Door" in text for text in said)
    card = cards["In bed"]
    card.lines[0][2].click()
    assert session.selection == ("t5",)

    bench.show_view("Held")
    held = bench.panel("Held")
    assert {one.fault for one in held.table.rows} == {"", "unrated"} and not button_on(held, "Strap what is loose").isEnabled()
    session.edit("Loose", [set_to("stow.things.t1.hold", None)])
    session.edit("Loose", [set_to("stow.things.t1.held_by", "")])
    assert button_on(held, "Strap what is loose").isEnabled() and held.table.rows[0].fault == "loose"
    held.strap()
    assert thing(session, "t1").hold.many == 2 and {one.fault for one in held.table.rows} == {"", "unrated"}


def test_solid_view_picks_and_peels(open_on):
    _window, session, bench = opened(open_on, view="Solid")
    solid = bench.panel("Solid")
    shown = []
    for peel in PEELS:
        button_on(solid.bar, peel.capitalize()).click()
        shown.append(tuple(solid.sheet.panes()[1].shapes))
    assert all(a != b for a, b in itertools.combinations(shown, 2)) and len(shown[-1]) < len(shown[0])
    pane = solid.sheet.panes()[1]
    shape = next(s for s in reversed(pane.shapes) if getattr(s, "id", "") == "t15")
    xs, ys = zip(*shape.points, strict=True)
    press(solid.sheet, pane.frame.point((sum(xs) / len(xs), sum(ys) / len(ys))))
    assert session.selection == ("t15",)
    key(solid.sheet, Qt.Key.Key_Right)
    assert len(session.selection) == 1 and session.selection != ("t15",)


def test_in_hand_takes_a_tank_s_shape_and_refuses_nonsense(open_on):
    window = open_on(a_project([a_tank("w1", 30, z=0.6)], shell=a_shell(), rig=a_rig()), judged=False)
    session = window.session
    session.go_to("Stow")
    session.select(("w1",))
    forms = {row.title: (form, row) for form in window.in_hand.sections for row, _, _ in form.rows}
    form, row = forms["Shape"]
    form.take(row, "outline")
    form, row = forms["Corners"]
    before = session.build
    form.take(row, "0,0 100,0 banana")
    assert session.build is before and "is no corner" in form.complaint.text()
    form.take(row, "0,0 100,0 100,60 0,100")
    assert len(thing(session, "w1").tank.outline) == 4
    form, row = forms["Held by"]
    form.take(row, "strap")
    assert thing(session, "w1").hold.kind == "strap"
    field = next(f for form in window.in_hand.sections for row, _, f in form.rows if row.path.endswith(".power_w"))
    enter(field, "45")
    enter(field, "-3")
    assert thing(session, "w1").figures.power_w == 45.0


def rows_of(window):
    return {row.title: (form, row) for form in window.in_hand.sections for row, _, _ in form.rows}


def take(window, title, value=None):
    form, row = rows_of(window)[title]
    form.take(row, value)


def test_a_toilet_is_said_to_hold_something_and_is_then_told_drawn_and_weighed(open_on):
    window = open_on(demo("ferry-bell"), judged=False)
    session, start = window.session, window.session.project
    session.go_to("Stow")
    session.select(("t9",))
    assert any(found.code == "toilet-holds" for found in session.findings)
    take(window, "It holds something")
    tank = thing(session, "t9").tank
    assert tank.contents == "black" and tank.carried and tank.volume is None
    form = window.in_hand.form
    form.take(next(row for row, _, _ in form.rows if row.path == "stow.things.t9.tank.volume"), Volume(0.012))
    session.judge_now()
    assert not any(found.code == "toilet-holds" for found in session.findings)
    case = next(row for row, one in enumerate(session.studied.table.cases) if one.id == "coming-home")
    at = session.studied.table.ids.index("t9/contents")
    assert session.studied.table.mass_kg[case, at] == pytest.approx(12.0)
    session.go_to("Systems")
    bench = window.bench("Systems")
    bench.show_view("Water")
    QApplication.processEvents()
    chart = next(c for c in bench.made["Water"].findChildren(Chart) if c.accessibleName() == "What fills up and what is carried")
    chart.grab()
    assert any("3.5 L a day, full after 3.4 days" in text.text for text in chart.written)
    while session.history.done:
        session.undo()
    assert session.project == start


def test_other_forms_and_room_are_added_typed_and_taken_away(open_on):
    window = open_on(a_project([a_thing("t", z=0.6)], shell=a_shell(), rig=a_rig()), judged=False)
    session = window.session
    session.go_to("Stow")
    session.select(("t",))
    take(window, "Add another form")
    (state,) = thing(session, "t").states
    assert state.name == "folded" and state.length == thing(session, "t").length
    take(window, "Folded length", Length(1.9))
    take(window, "Folded, right", Length(0.3))
    take(window, "It is", state.id)
    assert session.mode.states[0].state == state.id and thing(session, "t").states[0].dy.si == 0.3
    take(window, "Called", "made up")
    assert "Made up length" in rows_of(window) and "Folded length" not in rows_of(window)
    take(window, "Add room that it wants")
    take(window, "Room for", "heat")
    take(window, "At its", "top")
    take(window, "Deep", Length(0.3))
    take(window, "Add room that it wants")
    first, second = thing(session, "t").clear
    assert (first.kind, first.side, first.deep.si, second.kind) == ("heat", "top", 0.3, "door")
    take(window, "Take away room 1")
    assert thing(session, "t").clear == (second,)
    take(window, "Take away made up")
    assert thing(session, "t").states == ()
    while session.history.done:
        session.undo()
    assert thing(session, "t") == a_thing("t", z=0.6)


def test_an_outline_is_pulled_cornered_and_undone(open_on):
    tank = Tank(Volume(0.03), "fresh", "outline")
    window = open_on(a_project([a_tank("w1", tank=tank, z=0.6, size=(0.6, 0.4, 0.3))], shell=a_shell()), judged=False)
    session = window.session
    session.go_to("Stow")
    session.select(("w1",))
    window.in_hand.open.add("Shape of the tank")
    window.in_hand._drop_form()
    window.in_hand.refresh()
    pad = window.in_hand.pad
    pad.resize(220, 150)
    corner = pad.spot(pad.corners()[2])  # top rear
    drag(pad, corner, (0, pad.box().height() / 2))
    pulled = thing(session, "w1").tank.outline
    assert len(pulled) == 4 and pulled[2].v == pytest.approx(0.5, abs=0.02) and len(session.history.done) == 1
    pad.add(pad.box().center() + QPointF(0, pad.box().height()))
    assert len(thing(session, "w1").tank.outline) == 5 and thing(session, "w1").tank.outline[pad.chosen].v == 0.0
    key(pad, Qt.Key.Key_Up)
    assert thing(session, "w1").tank.outline[pad.chosen].v == 0.01
    key(pad, Qt.Key.Key_Delete)
    assert thing(session, "w1").tank.outline == pulled
    pad.grab()
    while session.history.done:
        session.undo()
    assert thing(session, "w1").tank.outline == ()


def test_equal_jugs(open_on):
    window = open_on(a_project([a_tank("w1", 30, z=0.6)], shell=a_shell(), rig=a_rig()), judged=False)
    session = window.session
    assert equal_grey(session, thing(session, "w1"))
    grey = session.build.stow.things[1]
    assert grey.tank.contents == "grey" and grey.tank.volume == thing(session, "w1").tank.volume
    assert clashes(session.build, session.facts)["road"] == () or all(
        "w1" not in (c.a, c.b) or c.kind != "things" for c in clashes(session.build, session.facts)["road"]
    )


def test_the_shelf_keeps_brings_in_and_writes_out(open_on, tmp_path):
    _window, session, bench = opened(open_on)
    session.select(("t12",))
    bench.open_shelf()
    shelf = bench.shelf
    shelf.keep()
    assert [t.name for t in session.facts.things] == ["Wet waders box"]
    shelf.search.setText("waders")
    assert shelf.list.item(0).text().startswith("mine")
    shelf.write(tmp_path / "out.csv")
    assert len(read_catalogue(tmp_path / "out.csv").things) == len(shelf.shown())

    bad = tmp_path / "bad.csv"
    bad.write_text("name,length_mm,width_mm,height_mm,mass_kg\nGood,1,1,1,1\nBad,x,1,1,1\n")
    said = []
    session.said.connect(lambda text, _: said.append(text))
    shelf.bring(bad)
    assert len(session.facts.things) == 2 and "line 3" in said[-1]
    wrong = tmp_path / "wrong.csv"
    wrong.write_text("name,length_lb\nA,1\n")
    shelf.bring(wrong)
    assert len(session.facts.things) == 2 and "no unit that fits" in said[-1]
    shelf.search.setText("")
    shelf.kind.setCurrentIndex(1)
    shelf.list.setCurrentRow(0)
    shelf.drop()
    assert len(session.facts.things) == 1 and len(entries()) > 150


def test_dragging_a_container_takes_along_what_is_in_it(open_on):
    things = [a_thing("l", x=2.0, z=0.6, size=(0.6, 0.5, 0.5)), a_thing("i", x=2.1, z=0.7, size=(0.2, 0.2, 0.2), inside="l")]
    window = open_on(a_project(things, shell=a_shell(), rig=a_rig()), judged=False)
    window.session.go_to("Stow")
    sheet = window.bench("Stow").sheet
    window.session.select(("l",))
    spot = middle_of(sheet, "l", "side") + QPointF(0.2 * sheet.scale, -0.2 * sheet.scale)
    drag(sheet, spot, (0.3 * sheet.scale, 0), CTRL)

    assert thing(window.session, "l").x.si == pytest.approx(2.3, abs=0.02)
    assert thing(window.session, "i").x.si - thing(window.session, "l").x.si == pytest.approx(0.1, abs=1e-6)


@pytest.mark.parametrize("view", ["Drawing", "Solid", "Modes", "Cases", "Fits", "Held", "Table"])
def test_an_empty_build_says_what_each_view_is_for(open_on, view):
    window = open_on(a_project([]), judged=False)
    window.session.go_to("Stow")
    window.bench("Stow").show_view(view)
    window.grab()

    assert window.bench("Stow").view == view
