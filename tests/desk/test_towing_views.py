"""Sway and Frame in the real window: the curve, the swing stepped and paused, sections tried, and what cannot be answered."""

from __future__ import annotations

import numpy as np
import pytest
from PySide6.QtWidgets import QApplication

from tests.desk.driving import button_on, enter, forms_on, in_place, told
from tests.desk.walk import faults_of
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import empty_project
from uncle_sled.core.drawing.balance.frame_drawn import frame_drawn
from uncle_sled.core.drawing.balance.sway_drawn import critical_words, sway_chart, swing_plan, trace_chart
from uncle_sled.core.drawing.primitives import Circle, Text
from uncle_sled.core.studies.balance.frame_beam import frame_under
from uncle_sled.core.studies.balance.sway import sway, trace
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

IMPERIAL = set_to("brief.reading", {"length": "ft-in", "mass": "lb", "volume": "gal"})


def opened(open_on, view, name="marsh-heron", **size):
    window = open_on(demo(name), judged=False, **size)
    window.session.go_to("Balance")
    bench = window.bench("Balance")
    bench.show_view(view)
    window.grab()
    return window, window.session, bench.panel(view)


def test_the_curve_and_what_would_change_it(open_on) -> None:
    window, session, panel = opened(open_on, "Sway")
    made = sway(session.studied)
    assert "not said" in told(panel) and "none under 200 km/h" in told(panel)
    assert next(row.says for row in panel.ifs.rows) == "as it is" and len(panel.ifs.rows) >= 5
    gains = [row.gain for row in panel.table.rows]
    assert gains == sorted(gains, reverse=True) and gains[0] > 0
    panel.table.selectRow(0)
    assert session.selection == (panel.table.rows[0].id.split("/")[0],)
    session.edit("Fast", [set_to("brief.fastest_kmh", 120.0)], "Brief")
    assert sway(session.studied).said and "at 120 km/h" in told(panel)
    assert sway(session.studied).cases[0].damping_at < made.cases[0].damping_at
    assert faults_of(window) == []
    assert not panel.try_button.isEnabled()
    at = next(k for k, row in enumerate(panel.ifs.rows) if "drawbar" in row.says)
    panel.ifs.selectRow(at)
    panel.try_button.click()
    assert session.ghost is not None and session.ghost_studied.build.rig.axles[0].station.si > 3.4
    session.put_back()


def test_the_swing_is_stepped_played_and_paused(open_on) -> None:
    _window, _session, panel = opened(open_on, "Sway")
    assert panel.at == 0 and panel.slider.maximum() > 100
    button_on(panel, "Step").click()
    assert panel.at == 5 and panel.slider.value() == 5
    panel.play.click()
    assert panel.timer.isActive() and panel.play.text() == "Pause"
    panel.tick()
    assert panel.at == 7
    panel.play.click()
    assert not panel.timer.isActive() and panel.play.text() == "Play"
    panel.slider.setValue(panel.slider.maximum())
    panel.timer.start()
    panel.tick()
    assert not panel.timer.isActive()  # at its end it stops by itself
    panel.play.click()
    assert panel.at == 0 and panel.timer.isActive()  # and begins anew
    panel.timer.stop()
    panel.show_at(10**9)
    assert panel.at == panel.slider.maximum()


def test_it_says_why_where_nothing_can_be_answered(open_on) -> None:
    window, session, panel = opened(open_on, "Sway", "dark-sky")
    assert "bed does not sway" in in_place(panel) and panel.swing() is None
    assert not panel.play.isVisible() and "damping" not in told(panel) and faults_of(window) == []
    window.bench("Balance").show_view("Frame")
    frame = window.bench("Balance").panel("Frame")
    assert "maker built the frame" in in_place(frame) and not frame.side.isVisible()
    empty = open_on(empty_project(), judged=False)
    empty.session.go_to("Balance")
    for view in ("Sway", "Frame"):
        empty.bench("Balance").show_view(view)
        assert "cannot be answered" in in_place(empty.bench("Balance").panel(view))
        assert faults_of(empty) == []
    assert session is not empty.session


def test_a_section_is_tried_as_a_ghost_and_kept(open_on) -> None:
    window, session, panel = opened(open_on, "Frame")
    before = frame_under(session.studied).utilisation
    assert "of yield" in told(panel) and panel.how == "worst"
    lighter = next(k for k, row in enumerate(panel.table.rows) if row.section.id == "tube-60x40x3")
    panel.table.selectRow(lighter)
    panel.try_button.click()
    assert session.ghost is not None and session.ghost_studied.build.rig.rail == "tube-60x40x3"
    session.keep()
    assert session.build.rig.rail == "tube-60x40x3" and frame_under(session.studied).utilisation > before
    for how in ("road", "parked", "lifted at its ends", "lifted at a fifth"):
        panel.ways.entered.emit(how)
        assert panel.beam().how == how
        assert faults_of(window) == []
    session.undo()
    assert session.build.rig.rail != "tube-60x40x3"


def test_rails_are_asked_for_and_a_mended_crack_is_typed_on_rig(open_on) -> None:
    window, session, panel = opened(open_on, "Frame")
    session.edit("No rails", [set_to("rig.rail", "")], "Rig")
    assert "no section yet" in in_place(panel)
    window.session.go_to("Rig")
    bench = window.bench("Rig")
    field = next(f for form in forms_on(bench) for row, _, f in form.rows if row.path == "rig.frame_mended")
    enter(field, "2.1 m")
    assert session.build.rig.frame_mended.si == pytest.approx(2.1)


@pytest.mark.parametrize("view", ["Sway", "Frame"])
@pytest.mark.parametrize("size", [(1280, 800), (1100, 700)])
def test_the_views_are_clean_in_feet_and_metres(open_on, view, size) -> None:
    window, session, _panel = opened(open_on, view, size=size)
    assert faults_of(window) == []
    session.edit("Feet", [IMPERIAL], "Brief")
    for _ in range(4):
        QApplication.processEvents()
    assert faults_of(window) == []


@pytest.mark.parametrize("size", [(480.0, 200.0), (330.0, 130.0), (900.0, 420.0)])
def test_drawings_stay_on_their_paper(open_on, size) -> None:
    _window, session, _ = opened(open_on, "Sway")
    s, words, (wide, high) = session.studied, Words(session.shown), size
    made = sway(s)
    one = made.cases[0]
    got = trace(one.train, made.at_kmh, 450.0, 2.9)
    drawn = [
        sway_chart(made, one.case_id, words, wide, high),
        trace_chart(got, 60, words, wide, high),
        *(swing_plan(one.train, got, k, 4.3, words, wide, high) for k in (0, 40, 400)),
    ]
    under = frame_under(s)
    if min(size) >= 200:
        drawn += [frame_drawn(s, under, beam, words, wide, high + 260) for beam in under.beams]
    for shapes in drawn:
        assert shapes
        for shape in shapes:
            if isinstance(shape, Text):
                assert -2 <= shape.at[0] <= wide + 2 and -2 <= shape.at[1] <= high + 262, shape.text
            if isinstance(shape, Circle):
                assert np.isfinite(shape.centre).all()
    assert sway_chart(made, "", words, 20.0, 20.0) == () and frame_drawn(s, under, under.beams[0], words, 50.0, 50.0) == ()
    assert critical_words(one, words).startswith("none under 200")
