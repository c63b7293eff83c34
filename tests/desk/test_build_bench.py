"""The Build bench, driven: bars dragged with a ghost before they are kept, tasks typed, lifts, checklists, the log."""

from __future__ import annotations

import re

import numpy as np
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication, QPushButton

from tests.desk.driving import bench_on, button_on, drag, drawing, enter, form_on, in_place, key, move, named, press, release, told
from uncle_sled.core.document.edits import add_to, set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.studies.build import schedule
from uncle_sled.desk.benches.build.week_card import WeekCard
from uncle_sled.desk.frame.shop_screen import ShopScreen
from uncle_sled.desk.kit.fields import TextField
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo

VIEWS = ("Calendar", "Today", "Chance", "Round", "Lift", "Glue", "Checks", "Log")


@pytest.fixture()
def on(open_on, monkeypatch):
    monkeypatch.setattr(schedule, "MOVED", 1)  # what its orders are worth is tested on its own

    def opened(view, what="marsh-heron", **more):
        return bench_on(open_on, what, "Build", view, **more)

    return opened


def bar_of(chart, id):
    shapes = chart.make(float(chart.width()), float(chart.height()))
    ring = next(one.points for one in shapes if isinstance(one, Poly) and one.id == id)
    return QPointF(sum(p[0] for p in ring) / len(ring), chart.height() - sum(p[1] for p in ring) / len(ring))


def said(session):
    heard: list[str] = []
    session.said.connect(lambda words, how: heard.append(words))
    return heard


def words_of(chart):
    return [one.text for one in chart.make(800.0, 500.0) if isinstance(one, Text)]


@pytest.mark.parametrize("view", VIEWS)
def test_an_empty_build_says_what_is_missing_on_every_view(on, view) -> None:
    _, session, bench = on(view, empty_project())
    bench.made[view].refresh()
    bench.turn_done()
    bench.keep()
    assert session.build.work == empty_project().build.work


def test_a_dragged_bar_shows_what_follows_before_it_is_kept(on) -> None:
    _, session, bench = on("Calendar")
    panel = bench.made["Calendar"]
    at = bar_of(panel.chart, "floor-sticks")
    before = session.build.work
    drag(panel.chart, at, (120, 0))
    assert session.build.work is before and panel.ghost is not None and panel.tried is not None
    assert "becomes" in told(panel) and not button_on(panel, "Keep").isHidden()
    assert any(isinstance(one, Poly) and one.dash and one.stroke == "chalk" for one in panel.chart.make(800.0, 700.0))
    bench.keep()
    change = next(one for one in session.build.work.changes if one.id == "floor-sticks")
    assert change.not_before > "2027-03-21" and panel.ghost is None
    session.undo()
    assert all(one.id != "floor-sticks" for one in session.build.work.changes)


def test_a_dragged_bar_is_given_back_by_escape_and_by_its_button(on) -> None:
    _, session, bench = on("Calendar")
    panel = bench.made["Calendar"]
    at = bar_of(panel.chart, "floor-sticks")
    press(panel.chart, at)
    move(panel.chart, at + QPointF(90, 0))
    key(panel.chart, Qt.Key.Key_Escape)
    release(panel.chart, at + QPointF(90, 0))
    assert panel.tried is None and panel.ghost is None
    drag(panel.chart, at, (90, 0))
    button_on(panel, "Give back").click()
    assert panel.tried is None
    heard = said(session)
    bench.keep()
    assert any("Drag a bar first" in words for words in heard)


def test_a_task_is_typed_into_and_faults_are_said(on) -> None:
    _, session, bench = on("Calendar")
    panel = bench.made["Calendar"]
    card = panel.task_card
    panel.pick("foam")
    enter(named(card, TextField, "Task likely"), "12")
    change = next(one for one in session.build.work.changes if one.id == "foam")
    assert change.likely == 12.0 and change.low < 12.0 < change.high
    enter(named(card, TextField, "Task low"), "30")
    assert "low must not be over likely" in card.complaint.text()
    enter(named(card, TextField, "Task hands"), "two")
    assert "number of hands" in card.complaint.text()
    enter(named(card, TextField, "Task not_before"), "31.12.2027")
    assert "year-month-day" in card.complaint.text()
    enter(named(card, TextField, "Task not_before"), "2026-01-01")
    assert "before the first day" in card.complaint.text()
    enter(named(card, TextField, "Task not_before"), "2027-09-01")
    assert card.task().ready == "2027-09-01"
    card.turn_fixed()
    assert card.task().fixed
    card.turn_wait("templates")
    assert "templates" in card.task().after
    card.turn_wait("templates")
    assert "templates" not in card.task().after
    bench.turn_done()
    assert card.task().done
    bench.turn_done()
    assert not card.task().done
    card.leave_out()
    assert card.task() is None
    card.take_in("foam")
    assert card.task() is not None


def test_a_task_of_ones_own_is_added_named_and_taken_off_and_a_ring_is_said(on) -> None:
    _, session, bench = on("Calendar")
    bench.add_task()
    panel = bench.made["Calendar"]
    own = bench.chosen
    enter(named(panel.task_card, TextField, "Task name"), "Invite the neighbours")
    assert bench.name_of(own) == "Invite the neighbours"
    panel.task_card.turn_wait("first-tow")
    panel.pick("frame-paint")
    panel.task_card.turn_wait(own)
    assert bench.schedule().loop and "waits for" in in_place(panel)
    panel.pick(own)
    panel.task_card.leave_out()
    assert not bench.schedule().loop and all(one.id != own for one in session.build.work.changes)


def test_whose_days_are_turned_on_and_off(on) -> None:
    _, session, bench = on("Calendar")
    week = bench.made["Calendar"].findChild(WeekCard)
    buttons = [one for one in week.findChildren(QPushButton) if one.accessibleName() == "You, Monday"]
    buttons[-1].click()
    assert 0 in session.build.work.days
    week.add()
    assert len(session.build.work.helpers) == 2
    for day_ in tuple(session.build.work.days):
        week.turn("", day_)
    QApplication.processEvents()
    assert "no day of the week" in in_place(bench.made["Calendar"]) or bench.schedule().never
    assert session.build.work.days == ()


def test_today_shows_three_and_chance_its_dates(on) -> None:
    _, _, bench = on("Today")
    drawn = words_of(drawing(bench.made["Today"], "The next three things"))
    assert {"1", "2", "3"} <= set(drawn) and any("At hand" in one for one in drawn)
    assert "To roll" in told(bench.made["Today"])
    bench.show_view("Chance")
    drawn = words_of(drawing(bench.made["Chance"], "Chance of the finish"))
    assert any(one.startswith("80 % by") for one in drawn) and any("deadline:" in one for one in drawn)
    assert any("What moves it most" in one for one in drawn)


def test_a_lift_is_planned_changed_refused_and_done(on) -> None:
    _, session, bench = on("Lift", demo("orchard-keeper"))
    panel = bench.made["Lift"]
    assert "Not like this: gusts" in told(panel) and "Who stands where" in told(panel)
    assert drawing(panel, "The lift to scale").make(600.0, 400.0)
    bench.add_lift()
    assert len(session.build.work.lifts) == 3 and panel.chosen == session.build.work.lifts[-1].id
    for way in ("tilt up", "by hand", "turn over", "crane"):
        session.edit("way", [_set(f"work.lifts.{panel.chosen}.way", way)], "Build")
        panel.refresh()
        assert panel.made() is not None and drawing(panel, "The lift to scale").make(600.0, 400.0)
    panel.turn_done()
    assert session.build.work.lifts[-1].done
    panel.take_off()
    assert len(session.build.work.lifts) == 2


def _set(path, value):
    from uncle_sled.core.document.edits import set_to

    return set_to(path, value)


def test_lists_are_ticked_with_date_and_who(on) -> None:
    _, session, bench = on("Checks")
    panel = bench.made["Checks"]
    panel.who.show_value("Ann")
    panel.who.setText("Ann")
    panel.boxes["First tow/hubs"][0].click()
    tick = session.build.work.ticks[0]
    assert tick.id == "First tow/hubs" and tick.who == "Ann" and tick.on
    assert "Ann" in panel.boxes["First tow/hubs"][1].text()
    panel.list.show_value("First tow")
    panel.add("Mirrors set")
    assert session.build.work.lines[0].says == "Mirrors set" and "Mirrors set" in told(panel)
    panel.clear()
    assert not session.build.work.ticks
    session.undo()
    assert session.build.work.ticks


def test_the_log_is_written_and_moves_the_plan(on, tmp_path) -> None:
    _, session, bench = on("Log")
    panel = bench.made["Log"]
    before = bench.schedule().finish_day
    bench.chosen = "templates"
    bench.write_log()
    entry = panel.entry()
    assert entry is not None and entry.of == "templates"
    fields = {row.title: field for row, _, field in form_on(panel).rows}
    enter(fields["Day"], "2027-05-02")
    enter(fields["Hours"], "3")
    assert panel.entry().hours == 3.0 and bench.schedule().now > 50
    assert before is not None and bench.schedule().finish_day > before
    enter(fields["Hours"], "lots")
    assert "Hours" in form_on(panel).complaint.text() and panel.entry().hours == 3.0
    enter(fields["Photo"], "../up.jpg")
    assert "climbs out" in form_on(panel).complaint.text() and panel.entry().photo == ""
    enter(fields["Photo"], "photos/a.jpg")
    assert "Save the build first" in told(panel)
    session.edit("kind", [_set(f"work.log.{panel.chosen}.kind", "measure")], "Build")
    fields = {row.title: field for row, _, field in form_on(panel).rows}
    fields["Of"].entered.emit("m-ball")
    assert panel.entry().of == "m-ball" and panel.entry().plan == pytest.approx(39, abs=1)
    enter({row.title: field for row, _, field in form_on(panel).rows}["Measured"], "44")
    assert any("on the ball" in one for one in words_of(drawing(panel, "Plan against fact")))
    path = tmp_path / "b.sled"
    sled_file.save(session.project, path)
    assert sled_file.read(path).build.work == session.build.work
    panel.take_off()
    assert all(one.id != entry.id for one in session.build.work.log)


def test_the_card_of_a_task_says_what_stands_there_then(on):
    _, _, bench = on("Calendar")
    panel = bench.panel("Calendar")
    bench.chosen = "frame"
    panel.refresh()
    assert "104 kg stand there, without wheels" in told(panel)
    bench.chosen = "box"
    panel.refresh()
    assert "on the ball" in told(panel) and "too heavy to be towed so" in told(panel)
    bench.chosen = ""
    panel.refresh()
    assert "stand there" not in told(panel)


def pixel_of(view, number):
    """The middle of a piece as it is seen, in the widget."""
    picture = view.picture
    of = np.where(picture.face >= 0, view.shown.scene.solid[np.maximum(picture.face, 0)], -1)
    rows, columns = np.nonzero(of == number)
    near = int(np.argmin((rows - rows.mean()) ** 2 + (columns - columns.mean()) ** 2))
    h, w = picture.face.shape
    return QPointF((columns[near] + 0.5) / w * view.width(), (rows[near] + 0.5) / h * view.height())


def seen_numbers(view):
    faces = view.picture.face[view.picture.face >= 0]
    return np.bincount(view.shown.scene.solid[faces], minlength=len(view.shown.visible))


def test_the_body_is_turned_by_hand_and_keys_and_a_click_on_a_piece_is_a_click_everywhere(on) -> None:
    _, session, bench = on("Round", "rosin-box")
    panel = bench.made["Round"]
    view = panel.view
    view.finish()
    assert view.fine and view.image is not None
    first = view.sight
    drag(view, QPointF(200, 150), (60, 0))
    assert view.sight.around_deg == pytest.approx((first.around_deg - 30) % 360, abs=2) and view.sight.over_deg == first.over_deg
    key(view, Qt.Key.Key_Up)
    assert view.sight.over_deg == pytest.approx(first.over_deg + 15)
    key(view, Qt.Key.Key_Plus)
    assert view.zoom > 1
    drag(view, QPointF(200, 150), (40, 10), keys=Qt.KeyboardModifier.ShiftModifier)
    assert view.off != (0.0, 0.0)
    key(view, Qt.Key.Key_Home)
    assert (view.zoom, view.off, view.sight.around_deg) == (1.0, (0.0, 0.0), first.around_deg)
    view.finish()
    pieces = panel.pieces()
    counts = seen_numbers(view)
    number = max(
        (k for k, piece in enumerate(pieces) if piece.stop == "stow" and counts[k] > 300),
        key=lambda k: counts[k],
        default=int(np.argmax(counts)),
    )
    at = pixel_of(view, number)
    press(view, at)
    release(view, at)
    assert session.selection == (pieces[number].id,) and panel.picked is pieces[number]
    assert pieces[number].what.capitalize() in told(panel)


def test_walls_go_off_colours_change_and_a_piece_comes_with_another_task(on) -> None:
    _, session, bench = on("Round", "marsh-heron")
    panel = bench.made["Round"]
    pieces = panel.pieces()
    button_on(panel, "Roof").click()
    assert panel.seen_as.off == ("roof",) and not any(pieces[k].of == "roof" for k in np.flatnonzero(panel.view.shown.visible))
    button_on(panel, "Task").click()
    assert panel.seen_as.colours == "task" and any(text == "Close the roof" for text in words_of(panel.legend))
    panel.draw_apart(100)
    assert panel.view.shown.moved is not None
    panel.look_from("left side")
    assert panel.view.sight.over_deg == 0
    foam = next(k for k, piece in enumerate(pieces) if piece.what == "insulation" and piece.of == "left side")
    panel.pick(foam)
    assert panel.picked.by == "foam"
    panel.comes_with("liner")
    assert panel.picked.by == "liner" and [own.task for own in session.build.work.brings] == ["liner"]
    panel.comes_with("foam")
    assert [own.task for own in session.build.work.brings] == ["foam"]
    session.undo()
    session.undo()
    assert session.build.work.brings == ()


def test_a_day_is_looked_at_on_the_strip_the_calendar_and_under_the_sled_line(on, qtbot) -> None:
    window, session, bench = on("Round", "marsh-heron")
    panel = bench.made["Round"]
    whole = int(panel.view.shown.visible.sum())
    x = panel.strip.scale.x(60.0) if panel.strip.scale else None
    panel.strip.make(float(panel.strip.width()), float(panel.strip.height()))
    x = panel.strip.scale.x(60.0)
    press(panel.strip, QPointF(x, 40))
    release(panel.strip, QPointF(x, 40))
    assert session.day == pytest.approx(60.0, abs=0.5) and 0 < int(panel.view.shown.visible.sum()) < whole
    assert re.search(r"On \d+ May 2027, tanks empty: \d+ kg stand there", told(panel))
    window.sled_line.grab()
    assert any("2027" in each.text for each in window.sled_line.written) and any(
        "not to be towed" in each.text for each in window.sled_line.written
    )
    track = window.sled_line.day_track()
    press(window.sled_line, QPointF(track.left() + track.width() * 0.9, track.center().y()))
    release(window.sled_line, QPointF(track.left() + track.width() * 0.9, track.center().y()))
    later = session.day
    assert later > 100
    key(panel.strip, Qt.Key.Key_Left)
    assert session.day == pytest.approx(later - 1)
    bench.show_view("Calendar")
    calendar = bench.made["Calendar"]
    assert any("2027" in text and "May" not in text for text in words_of(calendar.chart))
    press(calendar.chart, QPointF(calendar.chart.width() * 0.5, 20))
    release(calendar.chart, QPointF(calendar.chart.width() * 0.5, 20))
    assert session.day < later and "stand there" in told(calendar)
    bench.show_view("Round")
    button_on(bench.made["Round"], "Whole").click()
    assert session.day is None
    session.show_day(30.0)
    session.go_to("Cut")
    assert session.day is None


def test_the_book_is_turned_by_the_space_bar_in_shop_mode(on) -> None:
    window, session, _ = on("Calendar", "rosin-box")
    screen = ShopScreen(session, window)
    screen.show()
    card = screen.page().title
    button_on(screen, "The book").click()
    first = screen.page().title
    assert first.startswith("1. ") and first != card and not screen.to_book.isVisible()
    key(screen, Qt.Key.Key_Space, " ")
    assert screen.page().title.startswith("2. ")
    key(screen, Qt.Key.Key_Backspace)
    key(screen, Qt.Key.Key_Backspace)
    assert screen.page().title == card
    screen.turn(1)
    for _ in range(40):
        screen.turn(1)
    assert screen.at == len(screen.steps()) - 1
    screen.close()


def test_a_picture_as_it_is_seen_is_asked_for(on, monkeypatch) -> None:
    _, session, bench = on("Round", "rosin-box")
    panel = bench.made["Round"]
    asked = []
    monkeypatch.setattr(panel, "export", lambda *words: asked.append(words))
    panel.turn_off("rear")
    session.show_day(20.0)
    panel.save_picture()
    kind, (words, _) = asked[0]
    assert kind == "round-png" and "off rear" in words and "day 20.00" in words and "around 35.0" in words


def test_a_photo_is_put_to_a_task_and_lies_beside_the_build(on, tmp_path) -> None:
    build, elsewhere = tmp_path / "build", tmp_path / "camera"
    build.mkdir()
    elsewhere.mkdir()
    picture = QImage(64, 48, QImage.Format.Format_RGB32)
    picture.fill(0xFF3355)
    assert picture.save(str(elsewhere / "roof.png"))
    _, session, bench = on("Calendar", "rosin-box")
    heard = said(session)
    assert not bench.add_photo(elsewhere / "roof.png") and "Save the build first" in heard[-1]
    assert session.save(build / "mine.sled")
    bench.chosen = next(placed.task.id for placed in session.schedule().placed)
    assert bench.add_photo(elsewhere / "roof.png")
    entry = session.build.work.log[-1]
    assert (entry.kind, entry.of, entry.photo) == ("photo", bench.chosen, "photos/roof.png") and (build / "photos" / "roof.png").exists()
    picture.fill(0x00FF00)
    picture.save(str(elsewhere / "roof.png"))
    assert bench.add_photo(elsewhere / "roof.png") and session.build.work.log[-1].photo == "photos/roof-2.png"
    bench.refresh()
    assert "2 photos" in told(bench.made["Calendar"].task_card)
    for wrong in (elsewhere / "notes.txt", elsewhere / "gone.jpg"):
        if wrong.suffix == ".txt":
            wrong.write_text("no picture")
        assert not bench.add_photo(wrong)
    assert len(session.build.work.log) == 2 and sorted(p.name for p in (build / "photos").iterdir()) == ["roof-2.png", "roof.png"]
    bench.show_view("Log")
    panel = bench.made["Log"]
    panel.choose(session.build.work.log[0].id)
    assert panel.photo.isVisible() and panel.photo.image.width() == 64
    panel.photo.grab()
    (build / "photos" / "roof.png").unlink()
    panel.refresh()
    assert not panel.photo.isVisible() and "is not there" in told(panel)


def test_a_lift_takes_a_machine_and_what_is_there_on_the_day(on) -> None:
    _, session, bench = on("Lift", "orchard-keeper")
    panel = bench.made["Lift"]
    lift = panel.lift()
    whole = panel.made().mass_kg
    session.edit("after", [set_to(f"work.lifts.{lift.id}.after", "frame-walls")], "Build")
    assert panel.made().mass_kg < 0.8 * whole
    assert "on the hook with its slings" in told(panel) and "not checked" in told(panel)
    session.edit(
        "machine", [set_to(f"work.lifts.{lift.id}.machine", "loader"), set_to(f"work.lifts.{lift.id}.reach", {"si": 4.0})], "Build"
    )
    panel.refresh()
    assert "machine at" in told(panel)
    panel.type_chart("2 m 3000 kg, 4 m 90 kg")
    assert any("the machine lifts" in refusal for refusal in panel.made().refusals)
    before = session.build.work.lifts
    panel.type_chart("four")
    assert session.build.work.lifts == before and "would be right" in told(panel)
    panel.type_chart("")
    assert panel.lift().chart == ()


def test_today_says_the_least_to_roll_and_what_is_measured_first(on) -> None:
    _, session, bench = on("Today", "marsh-heron")
    panel = bench.made["Today"]
    assert [trip.least for trip in panel.trips()] == ["roll", "sleep"] and len(panel.to_measure()) >= 4
    assert "It lacks: " in told(panel)
    session.edit("trip", [set_to("work.first_trip", "2027-06-01")], "Build")
    assert all(trip.by is not None for trip in panel.trips())
    done = [
        add_to("work.changes", {"id": id, "done": "2027-03-06"})
        for id in ("axle", "floor-on")
        if id not in {c.id for c in session.build.work.changes}
    ]
    session.edit("done", done, "Build")
    assert panel.to_measure() == ()
