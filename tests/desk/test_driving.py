"""Driving and limits on the Balance bench, the pointer on charts, and drawings that fail."""

import msgspec
import pytest
from PySide6.QtCore import QEvent, QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QApplication, QToolTip

from tests.builders import a_build, a_project, a_thing
from tests.desk.driving import drawing, told
from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.edits import add_to, set_to
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.drawing.balance.axle_chart import axle_words, hitch_words
from uncle_sled.core.studies.balance.hitch_height import hitch_curve
from uncle_sled.desk.benches.stow.verdict_card import VerdictCard
from uncle_sled.desk.kit import painting
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.exchange.demos import demo


def balance(open_on, project, view):
    window = open_on(project, judged=False)
    window.session.worker = None
    window.session.go_to("Balance")
    bench = window.bench("Balance")
    bench.show_view(view)
    window.grab()
    return window, window.session, bench


def words_of(chart):
    chart.grab()
    return " ".join(w.text for w in chart.written)


def test_driving_follows_the_case_and_says_what_is_missing(open_on):
    window, session, bench = balance(open_on, demo("marsh-heron"), "Driving")
    panel = bench.panel("Driving")
    cards = panel.cards
    first = words_of(cards["A firm stop"])
    assert "Going out" in told(panel) and all(words_of(card) for card in cards.values())
    session.show_case("coming-home")
    assert words_of(cards["A firm stop"]) != first and "Coming home" in told(panel)

    session.edit("No jack", [set_to("rig.jack_station", None)])
    assert "jack's place" in words_of(cards["Somebody on the tail"])
    session.undo()
    assert "jack's place" not in words_of(cards["Somebody on the tail"])
    assert bench.panel("Driving").columns == 3
    window.resize(1100, 700)
    window.grab()
    assert bench.panel("Driving").columns == 2


def test_on_a_bed_driving_says_that_there_is_no_ball(open_on):
    _window, _session, bench = balance(open_on, demo("dark-sky"), "Driving")

    panel = bench.panel("Driving")
    assert "no ball" in told(panel) and not any(card.isVisible() for card in panel.cards.values())
    bench.show_view("Limits")
    assert not bench.panel("Limits").cars.isVisible() and "Rear axle" in words_of(bench.panel("Limits").chart)


def test_a_second_car_stands_beside_the_first_and_goes_with_undo(open_on):
    _window, session, bench = balance(open_on, demo("marsh-heron"), "Limits")
    assert "Estate car" in words_of(bench.panel("Limits").cars)
    van = Vehicle("v9", "Little van", Mass(30.0), Mass(700.0))
    record = msgspec.to_builtins(van)
    assert session.edit("A second car", [add_to("facts.vehicles", record)], "Brief", ("v9",), whole_project=True)
    told = words_of(bench.panel("Limits").cars)
    assert "Estate car" in told and "Little van" in told and "of 30 kg" in told
    session.undo()
    assert "Little van" not in words_of(bench.panel("Limits").cars)


def test_an_empty_build_is_told_what_each_card_wants(open_on):
    _window, _session, bench = balance(open_on, a_project([]), "Driving")
    empty = a_project()
    _w, _s, bare = balance(open_on, empty.with_build(msgspec.structs.replace(empty.build, rig=type(empty.build.rig)())), "Driving")

    assert all(words_of(card) for card in (*bench.panel("Driving").cards.values(), *bare.panel("Driving").cards.values()))
    bare.show_view("Limits")
    assert "add one on Brief" in words_of(bare.panel("Limits").cars) and "not checked" in words_of(bare.panel("Limits").chart)


def point(chart, x, y):
    at = QPointF(x, y)
    none = Qt.MouseButton.NoButton
    event = QMouseEvent(QEvent.Type.MouseMove, at, at, none, none, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(chart, event)


def test_the_pointer_reads_every_case_off_the_axle_chart(open_on):
    _window, session, bench = balance(open_on, demo("orchard-keeper"), "Axle")
    sheet = bench.panel("Axle").axle_sheet
    field = sheet.field(float(sheet.width()), float(sheet.height()))
    now = field.x(session.studied.support.mean_axle_m)
    told = axle_words(session.studied, field, now, bench.panel("Axle").words)
    ball = float(session.studied.readings.tongue_kg[session.row])

    assert f"Going out: {bench.panel('Axle').words.kg(ball)}" in told and told.startswith("Axle at")
    point(sheet, now, 60)
    assert sheet.pointed == now and "Going out" in QToolTip.text()
    point(sheet, 2, 60)
    assert sheet.pointed is None and axle_words(session.studied, field, 2, bench.panel("Axle").words) == ""
    curve = hitch_curve(session.studied, session.row)
    read = hitch_words(curve, 300.0, bench.panel("Axle").words, 460.0)
    assert "Axle 2" in read and "On the ball" in read and hitch_words(curve, 5.0, bench.panel("Axle").words, 460.0) == ""


def test_a_move_is_drawn_from_above_while_it_is_tried(open_on):
    _window, session, bench = balance(open_on, demo("rosin-box"), "Moves")
    before = words_of(drawing(bench.panel("Moves"), "Where things would go, from above"))
    bench.panel("Moves").try_first()
    text = bench.panel("Moves").offers.item(0).text()

    assert "to the right" in text and "back" in text
    assert "Bench vice" in words_of(drawing(bench.panel("Moves"), "Where things would go, from above")) and "Bench vice" not in before
    session.keep()
    left, right = (float(v[session.row]) for v in (session.studied.readings.left_kg, session.studied.readings.right_kg))
    assert abs(right - left) / (left + right) < 0.05 and len(session.history.done) == 1


def test_the_fit_from_above_outlines_what_is_chosen_and_the_plan_follows(open_on):
    window = open_on(demo("rosin-box"), judged=False)
    session, bench = window.session, window.bench("Stow")
    session.go_to("Stow")
    session.show_mode("camp")
    bench.show_view("Fits")
    window.grab()
    panel = bench.panel("Fits")
    assert "the way to bed is" in words_of(panel.plan)
    before = panel.plan.grab().toImage()
    show = next(
        show for _, _, show in next(one for one in panel.findChildren(VerdictCard) if one.title == "In bed").lines if show.isVisible()
    )
    show.click()

    assert session.selection and panel.plan.grab().toImage() != before


def test_a_drawing_that_fails_says_so_and_the_window_lives(open_on, monkeypatch, capfd):
    window = open_on(a_project([a_thing("t")]), judged=False)

    def broken(width, height):
        raise ValueError("no such shape")

    chart = Chart(window.session, "Broken", broken)
    chart.resize(400, 200)
    with pytest.raises(AssertionError, match="no such shape"):
        painting.said_if_it_fails(lambda widget, event: widget.make(1.0, 1.0))(chart, None)
    monkeypatch.setattr(painting, "STRICT", False)
    picture = chart.grab().toImage()
    assert "no such shape" in capfd.readouterr().err
    assert any(picture.pixelColor(x, 22).name() != picture.pixelColor(2, 2).name() for x in range(14, 200))
    assert window.session.build == a_build([a_thing("t")])


def test_room_at_the_tyres_is_typed_on_the_rig_and_told(open_on):
    window, session, bench = balance(open_on, demo("orchard-keeper"), "Axle")
    assert "measure both sides" in told(bench.panel("Axle"))
    session.edit("Measured", [set_to("rig.tyre.gap_left", {"si": 0.010, "typed": "10 mm"})], "Rig")
    now = told(bench.panel("Axle"))
    assert "left" in now and "measure both sides" not in now
    assert any(one.code == "tyre-rubs" for one in session.findings)
    session.go_to("Rig")
    window.grab()
    assert session.build.rig.tyre.gap_left == Length(0.010, "10 mm")
    session.undo()
    assert not any(one.code == "tyre-rubs" for one in session.findings)


def test_wheels_of_another_height_are_looked_at_and_change_nothing(open_on):
    _window, session, bench = balance(open_on, demo("marsh-heron"), "Driving")
    before = session.project
    field = bench.panel("Driving").swap
    field.setFocus()
    field.setText("0.70 m")
    field.setModified(True)
    field.editingFinished.emit()

    assert "higher" in bench.panel("Driving").swap_says.text() and "coupler" in bench.panel("Driving").swap_says.text()
    assert session.project is before


def test_the_limits_count_what_was_not_checked(open_on):
    _window, _session, bench = balance(open_on, demo("orchard-keeper"), "Limits")

    assert "limits checked" in told(bench.panel("Limits")) and "computed (blue)" in told(bench.panel("Limits"))
    assert "not checked: its limit is not given" in words_of(bench.panel("Limits").chart)


def test_a_car_and_a_size_are_drawn_once_they_are_known(open_on):
    window, session, bench = balance(open_on, demo("marsh-heron"), "Driving")
    session.edit("limits", [set_to("brief.road_height", {"si": 1.5, "typed": None})], "Brief")
    loads = [{"id": "boot", "at": {"si": 3.1, "typed": None}, "mass": {"si": 60.0, "typed": None}}]
    session.edit("loads", [set_to("facts.vehicles.v1.loads", loads)], "Brief", whole_project=True)
    window.grab()

    size, car = (words_of(bench.panel("Driving").cards[name]) for name in ("Size on the road", "What the car carries"))
    assert "1.50 m is the limit" in size and "boot 60 kg" in car and "Rear axle" in car
    session.edit("no overhang", [set_to("facts.vehicles.v1.ball_overhang", None)], "Brief", whole_project=True)
    window.grab()
    assert "Wants the car's empty axles" in words_of(bench.panel("Driving").cards["What the car carries"])
