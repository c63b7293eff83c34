"""Small pieces of the desk on their own: snapping, bobs, gauge words, fields, cards, keys, shots."""

import os
import subprocess
import sys

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtWidgets import QApplication

from tests.builders import IMPERIAL, METRIC, a_bed, a_build, a_project, a_rig, a_shell, a_tank, a_thing
from tests.desk.driving import key
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.drawing.rig.bobs import bobs, hang, single_bobs
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.reading.studied import study
from uncle_sled.core.trail import TRAIL
from uncle_sled.core.units import Shown
from uncle_sled.desk.frame.says import told_in_order
from uncle_sled.desk.frame.sled_reading import reading
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, TextField
from uncle_sled.desk.sheet.snapping import snapped, snaps_for
from uncle_sled.desk.shots import nobodys_home
from uncle_sled.exchange import recovery, sled_file
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.places import recovery_folder


def test_snaps_prefer_the_nearest_face_and_else_round():
    s = study(a_build([a_thing("t1", x=2.0, size=(0.5, 0.4, 0.3))], shell=a_shell()), Facts())
    snaps = snaps_for(s.build, Facts(), list(things_in(s, 0)), Shown())

    assert snapped(snaps, "x", 2.503, 0.3, 100.0) == (pytest.approx(2.5), pytest.approx(2.5))
    assert snapped(snaps, "x", 1.716, 0.3, 100.0) == (pytest.approx(1.7), pytest.approx(2.0))
    assert snapped(snaps, "x", 2.836, 0.3, 100.0) == (pytest.approx(2.85), 3.0)  # its middle over the axle
    assert snapped(snaps, "x", 3.3331, 0.3, 1000.0) == (pytest.approx(3.33), None)
    assert snapped(snaps_for(s.build, Facts(), [], Shown("ft-in", "lb", "gal")), "y", 0.2, 0.3, 5000.0)[0] % 0.0127 == pytest.approx(
        0, abs=1e-9
    )


@pytest.mark.parametrize("most", [14, 10, 5, 3])
def test_bobs_keep_all_the_weight_and_its_moment(most):
    project = demo("orchard-keeper")
    s = study(project.build, project.facts)
    made = bobs(single_bobs(s, 0), most)

    assert len(made) <= most
    assert sum(b.mass_kg for b in made) == pytest.approx(s.readings.total_kg[0])
    assert sum(b.mass_kg * b.x_m for b in made) == pytest.approx(float((s.table.mass_kg[0] * s.table.x_m[0]).sum()))
    assert {id for b in made for id in b.ids} == {id for of in single_bobs(s, 0).ids for id in of}


def test_hung_labels_keep_clear_of_bobs_and_each_other():
    project = demo("dark-sky")
    s = study(project.build, project.facts)
    made = bobs(single_bobs(s, 0))
    hung = hang(made, 300.0, 110.0, 200.0, 960.0, 116.0, {b: b.name for b in made})

    assert {h.bob for h in hung} <= set(made) and len(hung) >= 8
    assert all(0 < h.drop < 116 for h in hung) and hang((), 0, 1, 0, 1, 1, {}) == ()


@pytest.mark.parametrize(
    ("build", "title", "state"),
    [
        (a_build(rig=a_rig(axle=2.8)), "On the ball", "good"),
        (a_build(rig=a_rig(axle=3.3)), "On the ball", "mind"),
        (a_build(rig=a_rig(axle=2.5)), "On the ball", "stop"),
        (a_build(rig=a_rig(axle=2.8, weight_distributing=True)), "On the ball, bars slack", "good"),
        (a_build(rig=a_bed()), "Rear axle", "good"),
        (a_build(rig=a_bed(rear_rating=Mass(700.0))), "Rear axle", "stop"),
        (a_build(rig=Rig()), "On the ball", "none"),
        (a_build(rig=Rig(carrier="vehicle bed")), "Rear axle", "none"),
        (a_build(rig=a_rig(axle=-1.0)), "On the ball", "none"),
    ],
)
def test_what_the_gauge_says(build, title, state):
    said = reading(study(build, Facts()), 0)

    assert (said.title, said.state) == (title, state)
    assert (said.kg is None) is (state == "none")


def test_without_a_track_the_level_says_so():
    assert reading(study(a_build(rig=a_rig(track=None)), Facts()), 0).lean_words == "no track width yet"


def test_a_field_says_what_it_understood_and_an_empty_one_what_is_unknown(qapp):
    field = QuantityField(Length, "Long", lambda: IMPERIAL)
    field.show_value(None)
    assert field.placeholderText() == "not known" and "inches" in field.toolTip()
    field.setText("1.95 m")
    field.textEdited.emit("1.95 m")
    assert "Understood: 6' 4 3/4\"" in field.toolTip()
    must = QuantityField(Length, "Long", lambda: METRIC, may_be_empty=False)
    must.show_value(Length(1.0))
    said = []
    must.wrong.connect(said.append)
    must.setText("")
    must.setModified(True)
    key(must, Qt.Key.Key_Return)
    assert "cannot be empty" in said[-1]


def test_words_are_given_back_where_they_may_not_be_empty(qapp):
    field, took = TextField("Name"), []
    field.entered.connect(took.append)
    field.show_value("Jug")
    field.setText("   ")
    field.commit()
    assert field.text() == "Jug" and took == []
    field.setText("Can")
    key(field, Qt.Key.Key_Escape)
    assert field.text() == "Jug"
    field.setText("Can ")
    field.commit()
    assert took == ["Can"]


def test_a_wheel_over_a_choice_changes_nothing(qapp):
    field, took = ChoiceField("Which", [(1, "one"), (2, "two")]), []
    field.entered.connect(took.append)
    event = QWheelEvent(
        QPointF(5, 5),
        QPointF(5, 5),
        QPoint(),
        QPoint(0, -120),
        Qt.MouseButton.NoButton,
        Qt.KeyboardModifier.NoModifier,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QApplication.sendEvent(field, event)

    assert field.currentData() == 1 and took == []


def test_the_trail_walks_by_arrow_and_click(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    chosen = []
    window.trail.chosen.connect(chosen.append)
    key(window.trail, Qt.Key.Key_Down)
    assert chosen == ["Balance"] and window.session.stop == "Balance"
    assert window.trail.stop_at(10) == 0 and window.trail.stop_at(10_000) == -1 and len(TRAIL) == 9


def test_more_findings_than_cards_are_counted(open_on):
    things = [a_tank(f"w{at}", 0.0, x=1.4 + at / 10) for at in range(20)]
    window = open_on(a_project(things, shell=a_shell()), judged=False)

    says, found = window.says, window.session.findings
    behind = [card for card in says.cards.values() if not card.like_button.isHidden()]
    shown = len(says.cards) + sum(int(card.like_button.text().split()[1]) for card in behind)
    left = len(found) - shown
    assert behind and left == (int(says.over.text().split()[1]) if not says.over.isHidden() else 0)  # every finding is told or counted
    many = len(says.cards)
    behind[0].like_button.click()
    assert len(says.cards) > many or not says.over.isHidden()


def test_what_concerns_this_stop_comes_first_and_the_others_are_counted(open_on):
    window = open_on(demo("orchard-keeper"), judged=False)
    session, says = window.session, window.says
    for stop in ("Shell", "Balance", "Road"):
        session.go_to(stop)
        told = told_in_order(session.findings, stop)
        assert all(finding.stop == stop for finding, _ in told.here) and all(finding.stop != stop for finding, _ in told.elsewhere)
        everything = sum(1 + like for finding, like in (*told.here, *told.elsewhere)) + len(told.aside)
        assert everything == len(session.findings)
        stops = sum(1 for finding in session.findings if finding.stop != stop and finding.severity == "stop")
        assert f"{stops} to stop for" in says.elsewhere.text() and ("Nothing here" in says.elsewhere.text()) is (not told.here)


def test_nothing_in_hand_gives_its_room_to_uncle(open_on):
    window = open_on(demo("orchard-keeper"), judged=False)
    QApplication.processEvents()
    empty = window.in_hand.height()
    window.session.select((window.session.build.stow.things[0].id,))
    QApplication.processEvents()
    assert empty < 100 < window.in_hand.height()


def test_the_card_opens_its_why_and_points(open_on):
    window = open_on(a_project([a_tank("w1", 45.0, x=1.3, size=(0.5, 0.5, 0.4))], shell=a_shell()), judged=False)
    card = next(c for k, c in window.says.cards.items() if k[0] == "tank-far")
    assert not card.why.isVisible()
    card.why_button.click()
    assert card.why.isVisible() and card.why_button.text() == "less"
    card.point_button.click()
    assert window.session.stop == "Stow" and window.session.selection == ("w1",)
    window.grab()


def test_menus_list_cases_steps_and_files(open_on):
    window = open_on(demo("marsh-heron"), judged=False)

    def words(menu):
        return [act.text() for act in menu.actions()]

    assert len(words(window.header.case_menu())) == 8
    assert words(window.header.step_menu()) == ["Nothing was changed yet"]
    window.session.edit("Track", [set_to("rig.track", {"si": 1.7})])
    steps = window.header.step_menu()
    assert "Track   (Rig)" in words(steps)
    steps.actions()[0].menu().actions()[1].trigger()
    assert window.session.history.done == () and "Do again: Track" in words(window.header.step_menu())
    assert {"Save", "Recent", "Settings…", "Export", "Demos"} <= set(words(window.file_menu()))


def test_a_profile_preset_begins_a_body_from_nothing(open_on):
    window = open_on(a_project(), judged=False)
    window.session.go_to("Shell")
    window.bench("Shell").take_profile("classic round nose")
    window.grab()

    shell = window.session.build.shell
    assert shell.form == "profile" and shell.length.si == 3.0 and shell.floor.si == 0.5


def test_pictures_show_nothing_of_whoever_makes_them(tmp_path):
    recovery.write_autosave(recovery.new_autosave(None, "Mine"), sled_file.to_bytes(demo("rosin-box")))
    for note in recovery_folder().glob("*.json"):
        note.write_bytes(note.read_bytes().replace(str(os.getpid()).encode(), b"999999999"))
    assert [left.name for left in recovery.left_behind()] == ["Mine"]
    before = dict(os.environ)
    with nobodys_home():
        assert recovery.left_behind() == []
    assert dict(os.environ) == before and recovery.left_behind()


def test_shots_are_pictures_of_every_view(tmp_path):
    words = [sys.executable, "-m", "uncle_sled.cli", "shots"]
    env = {k: v for k, v in os.environ.items() if k != "QT_QPA_PLATFORM"}
    done = subprocess.run([*words, str(tmp_path / "p"), "--demo", "dark-sky"], capture_output=True, text=True, timeout=120, env=env)
    names = sorted(p.name for p in (tmp_path / "p").iterdir())

    assert done.returncode == 0, done.stderr
    assert len(names) == 15 and all((tmp_path / "p" / n).read_bytes().startswith(b"\x89PNG") for n in names)
    (tmp_path / "file").write_text("")
    assert subprocess.run([*words, str(tmp_path / "file" / "x")], capture_output=True, timeout=120, env=env).returncode == 2
