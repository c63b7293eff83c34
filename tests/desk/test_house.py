"""The house: a stop more is a folder and a line, drawings are painted in part as they are painted whole, nothing stays."""

import gc
import os
import random
import re
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication, QDialog, QMenu, QWidget

from tests.builders import a_project, a_thing
from tests.desk.driving import drag, key, middle_of, move, press, release
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.findings.all_findings import RULES, table_of_codes
from uncle_sled.core.trail import STOPS, TRAIL, stop_of
from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.sheet import layer
from uncle_sled.desk.sheet.layer import Layer
from uncle_sled.exchange.demos import demo

SRC = Path(__file__).parents[2] / "src/uncle_sled"

TENTH = """
from uncle_sled.desk.benches.about import About, Deed, View

ABOUT = About(
    "Tenth", "uncle_sled.desk.benches.tenth.bench:TenthBench", lambda project, s: ("as it should", "good"),
    views=(View("One", "the one view"), View("Two", "the other")),
    deeds=(Deed("ring", "Ring the bell", "B", lambda bench: bench.ring()),),
    mouse=("Nothing to drag",),
)
"""
TENTH_BENCH = """
from uncle_sled.desk.benches.bench import Bench

class TenthBench(Bench):
    rung = 0
    def __init__(self, session, stop):
        super().__init__(session, stop)
        self.add_views()
        self.end_top("")
    def ring(self):
        self.rung += 1
"""
TENTH_USE = """
import sys
import uncle_sled.core.trail as trail
trail.STOPS += (trail.Stop("Tenth", ("tenth",)),)  # the one line
trail.TRAIL = tuple(stop.name for stop in trail.STOPS)
from uncle_sled.exchange import exports
exports._ALL += (exports.Export("tenth", "csv", "Masses again as CSV", "trying", exports._masses, "Tenth"),)
import uncle_sled.desk
import uncle_sled.desk.benches as benches
benches.__path__.append(sys.argv[1])  # the one folder
from uncle_sled.desk.benches import about
about.abouts.cache_clear()
from PySide6.QtWidgets import QApplication
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.frame.dialogs import Keys
from uncle_sled.exchange.demos import demo
application()
window = open_window(demo("marsh-heron"))
window.show()
window.session.judge_now()
window.acts.qt["stop-tenth"].trigger()
QApplication.processEvents()
assert window.session.stop == "Tenth" and window.stack.currentWidget() is window.benches["Tenth"]
assert window.acts.key_of("stop-tenth") == "Ctrl+10" and window.trail.states["Tenth"] == ("as it should", "good")
window.acts.qt["ring"].trigger()
assert window.benches["Tenth"].rung == 1
window.acts.qt["tenth-two"].trigger()
window.find_anything()
assert any("Ring the bell" in title for title, _ in window.finder.everything())
assert Keys(window.acts, window.settings, "Tenth", window).edits["ring"]
assert any(act.text() == "Masses again as CSV…" for menu in window.file_menu().actions() if menu.menu()
           for act in menu.menu().actions())
from tests.desk.walk import walk
window.session.judge(())
assert walk(window, stops=("Tenth", "Balance")) == []  # the others are walked with nine
print("nine and one")
"""


def test_a_tenth_stop_is_one_folder_and_one_line(tmp_path):
    (tmp_path / "tenth").mkdir()
    (tmp_path / "tenth" / "__init__.py").write_text("")
    (tmp_path / "tenth" / "about.py").write_text(TENTH)
    (tmp_path / "tenth" / "bench.py").write_text(TENTH_BENCH)
    done = subprocess.run(
        [sys.executable, "-c", TENTH_USE, str(tmp_path)],
        capture_output=True,
        text=True,
        env={**os.environ, "PYTHONPATH": str(SRC.parents[1])},
    )

    assert done.stdout.strip() == "nine and one", done.stderr[-3000:]


def test_nobody_but_its_own_bench_knows_a_stop_by_name():
    """Window, session, remedies, dialogs and pictures ask the trail and what stops say of themselves."""
    places = ["desk/window.py", "desk/session.py", "desk/hand.py", "desk/shots.py", "desk/frame/dialogs.py"]
    places += [str(f.relative_to(SRC)) for f in (SRC / "core/remedies").glob("*.py")]
    for place in places:
        text = (SRC / place).read_text()
        assert not [stop for stop in TRAIL if f'"{stop}"' in text], place
    walk = (Path(__file__).parent / "walk.py").read_text()
    assert not [stop for stop in TRAIL if f'"{stop}"' in walk]


def test_stops_say_of_themselves_what_is_there(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    assert tuple(said.stop for said in abouts()) == TRAIL == tuple(stop.name for stop in STOPS)
    for said in abouts():
        words, state = said.standing(window.session.project, window.session.studied)
        assert len(words) <= 16 and state in ("good", "none"), said.stop
        assert all(not shot.view or said.view(shot.view) for shot in said.shots)
        bench = window.bench(said.stop)
        for view in said.views:
            bench.show_view(view.name)
            picks = view.picks(window.session.build, window.session.studied) if view.picks else ()
            assert isinstance(picks, tuple)


def test_a_change_belongs_to_the_stop_of_its_root_and_to_the_bench_that_made_it(open_on):
    assert stop_of(["rig.axles.a1.station"]) == "Rig" and stop_of(["facts.people"]) == "Brief"
    assert stop_of(["nothing.at.all"]) is None and stop_of(["rig.track"], "Balance") == "Balance"
    session = open_on(demo("marsh-heron"), judged=False).session
    session.edit("Track", [set_to("rig.track", {"si": 1.5, "typed": None})])
    assert session.history.done[-1].stop == "Rig"
    session.go_to("Balance")
    session.edit("Track", [set_to("rig.track", {"si": 1.6, "typed": None})])
    session.undo()

    assert session.stop == "Balance"  # what was done here is undone here


def test_the_table_of_codes_is_the_one_in_the_docs():
    assert table_of_codes() in (SRC.parents[1] / "docs/findings.md").read_text()
    assert len(RULES) > 60 and all(rule.when and rule.stop in TRAIL for rule in RULES.values())
    assert all(rule.helps == "edit" for rule in RULES.values() if rule.cure)


def test_no_banner_comments_and_no_memory_outside_the_engine():
    banner = re.compile(r"^\s*# .*-{8,}\s*$", re.M)
    remembers = re.compile(r"^_[A-Za-z_]+(: [^=]+)? = (\{\}|\[\]|dict\(\)|list\(\))$", re.M)
    for file in SRC.rglob("*.py"):
        text = file.read_text()
        assert not banner.search(text), file
        if "core" in file.parts and file.name != "engine.py":
            assert not remembers.search(text), file


# hands
def test_a_hand_that_is_lost_lets_go(open_on):
    """A press on the Sled line whose release never comes: another hand, an edit or another window ends it."""
    window = open_on(demo("marsh-heron"), judged=False)
    session, line = window.session, window.sled_line
    line.grab()
    bob = next(h for h in line.hung if set(h.bob.ids) & {t.id for t in session.build.stow.things})
    spot = next(QPointF(bob.x, y) for y in range(20, 140) if line.bob_at(QPointF(bob.x, y)) is bob)
    press(line, spot)
    move(line, spot + QPointF(30, 0))
    assert session.dragging
    key(window, Qt.Key.Key_A, "a")
    session.edit("Track", [set_to("rig.track", {"si": 1.5, "typed": None})])
    assert not session.dragging and session.hand is None
    before = session.project
    move(line, spot + QPointF(60, 0))  # the old hand holds nothing any more
    release(line, spot)

    assert session.project is before
    press(line, spot)
    move(line, spot + QPointF(30, 0))
    QApplication.sendEvent(window, QEvent(QEvent.Type.WindowDeactivate))
    session.go_to("Rig")
    assert not session.dragging


def test_a_pulled_profile_is_a_drag_like_any_other(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    session = window.session
    session.go_to("Shell")
    QApplication.processEvents()
    sheet = window.bench("Shell").sheet
    _, _, spot = sheet.handles()[3]
    press(sheet, spot)
    move(sheet, spot + QPointF(3, 6))
    move(sheet, spot + QPointF(6, 12))
    assert session.dragging and session._rested is not None
    release(sheet, spot + QPointF(6, 12))

    assert not session.dragging and [step.says for step in session.history.done] == ["Pull the profile"]


def test_a_snapped_edge_does_not_flicker(open_on):
    """Many places of the hand near a line give one place of the thing."""
    window = open_on(a_project([a_thing("t1", x=2.0), a_thing("t2", x=3.27025)]), judged=False)
    session, sheet = window.session, window.bench("Stow").sheet
    start = middle_of(sheet, "t1")
    press(sheet, start)
    at = set()
    rng = random.Random(4)
    for _ in range(40):
        move(sheet, start + QPointF((3.27025 - 2.0) * sheet.scale + rng.uniform(-3, 3), 0))
        at.add(session.build.stow.things[0].x.si)
    release(sheet, start)

    assert len(at) == 1


# pictures
def test_a_sheet_painted_in_part_is_the_one_painted_whole(open_on):
    window = open_on(demo("rosin-box"), judged=False)
    session, rng = window.session, random.Random(8)
    for stop in ("Stow", "Shell"):
        session.go_to(stop)
        QApplication.processEvents()
        sheet = window.bench(stop).sheet
        if stop == "Shell":
            window.bench(stop).show_view("Framing")
        sheet.grab(), sheet.grab()  # every text is laid out by now
        part = sheet._layer.whole_paints
        for _ in range(12):
            thing = rng.choice(session.build.stow.things)
            if stop == "Stow":
                by = thing.x.si + rng.uniform(-0.1, 0.1)
                session.edit("x", [set_to(f"stow.things.{thing.id}.x", {"si": round(by, 4), "typed": None})])
            else:
                one = rng.choice(session.build.shell.openings)
                by = one.along.si + rng.uniform(-0.1, 0.1)
                session.edit("x", [set_to(f"shell.openings.{one.id}.along", {"si": round(by, 4), "typed": None})])
            sheet.grab()
            in_part, told = (sheet._rested().toImage(), {(w.text, w.rect.center().toTuple()) for w in sheet._layer.written})
            kept, sheet._layer = sheet._layer, Layer()
            whole = sheet._rested().toImage()
            assert {(w.text, w.rect.center().toTuple()) for w in sheet._layer.written} == told
            sheet._layer = kept
            assert np.abs(pixels(whole) - pixels(in_part)).max() <= 30, stop  # edges are smoothed a shade differently inside a clip
        assert sheet._layer.whole_paints - part < 12


def test_a_picture_painted_in_turns_is_the_one_painted_at_once(open_on, monkeypatch):
    """Of very many shapes some are painted at a time, whole or in part; the hand gets through in between."""
    window = open_on(demo("rosin-box"), judged=False)
    session, sheet = window.session, window.bench("Stow").sheet
    session.go_to("Stow")
    QApplication.processEvents()
    thing = session.build.stow.things[0]

    def pictures():
        sheet._layer, found = Layer(), []
        for x in (thing.x.si, thing.x.si + 0.2):
            session.edit("x", [set_to(f"stow.things.{thing.id}.x", {"si": x, "typed": None})])
            turns = 1
            while (sheet._rested(), sheet._layer.unfinished)[1]:
                turns += 1
            found.append((turns, pixels(sheet._rested().toImage()), {w.text for w in sheet._layer.written}))
        session.undo()
        return found

    at_once = pictures()
    monkeypatch.setattr(layer, "AT_ONCE", 20)
    monkeypatch.setattr(layer, "A_TURN", 7)
    in_turns = pictures()

    assert [turns for turns, _, _ in at_once] == [1, 1] and all(turns > 2 for turns, _, _ in in_turns)
    for (_, once, words), (_, turned, same_words) in zip(at_once, in_turns, strict=True):
        assert np.abs(once - turned).max() <= 30 and words == same_words


def test_a_picture_in_turns_begins_anew_where_it_is_seen_otherwise(open_on, monkeypatch):
    window = open_on(demo("rosin-box"), judged=False)
    window.session.go_to("Stow")
    sheet = window.bench("Stow").sheet
    monkeypatch.setattr(layer, "AT_ONCE", 20)
    monkeypatch.setattr(layer, "A_TURN", 7)
    sheet._layer = Layer()
    sheet._rested()
    window.resize(window.width() - 60, window.height())
    QApplication.processEvents()
    while sheet._layer.unfinished:
        QApplication.processEvents()
    turned = pixels(sheet._rested().toImage())
    monkeypatch.setattr(layer, "AT_ONCE", 10_000)
    sheet._layer = Layer()

    assert np.abs(pixels(sheet._rested().toImage()) - turned).max() <= 30


def pixels(image):
    """Shades of all pixels, shape (height, width, 4)."""
    plain = image.convertToFormat(QImage.Format.Format_RGBA8888)
    return np.frombuffer(plain.constBits(), np.uint8).reshape(plain.height(), plain.width(), 4).astype(int)


# nothing stays
def test_dialogs_and_menus_are_gone_when_they_are_closed(open_on, qapp):
    window = open_on(demo("marsh-heron"), judged=False)

    def settle():
        for _ in range(3):
            QApplication.processEvents()
            qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        gc.collect()

    def widgets():
        settle()
        return len(window.findChildren(QWidget)) + len(window.findChildren(QMenu))

    def open_and_close():
        for show in (window.keys, window.show_settings, window.side_by_side, window.new):
            show()
            for dialog in window.findChildren(QDialog):
                dialog.close()
        menu = window.file_menu()
        menu.popup(QPoint(0, 0))
        menu.close()
        window.find_anything()
        window.finder.hide()

    open_and_close()
    before = widgets()
    for _ in range(4):
        open_and_close()

    assert widgets() <= before + 2
    settle()
    assert window.findChildren(QDialog) == []


@pytest.mark.lets_go
@pytest.mark.parametrize("many", [6])
def test_drags_undone_and_builds_closed_leave_memory_level(open_on, qapp, many):
    window = open_on(demo("marsh-heron"), judged=False)
    session, sheet = window.session, window.bench("Stow").sheet

    def round_trip():
        start = middle_of(sheet, "t2")
        drag(sheet, start, (30, 0))
        session.undo()
        window.open_demo("rosin-box")
        window.open_demo("marsh-heron")

    def objects():
        QApplication.processEvents()
        qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        gc.collect()
        return len(gc.get_objects())

    for _ in range(4):
        round_trip()
    before = objects()
    for _ in range(many):
        round_trip()

    assert objects() < before * 1.02 + 500
