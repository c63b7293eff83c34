"""The helper process: nothing blocks the desk, nothing is lost, and late answers are no answers."""

import os
import signal
import time

import msgspec
import pytest
from benchmarks.big_build import big_project
from msgspec.msgpack import decode, encode
from PySide6.QtWidgets import QApplication

from tests.builders import a_project, a_thing
from uncle_sled.core.document.delta import changes, put_on
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import Project
from uncle_sled.core.findings.all_findings import at_rest, findings
from uncle_sled.core.remedies.move_sets import move_sets
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.core.studies.build.schedule import best_schedule
from uncle_sled.desk.frame.keeper import AUTOSAVE_JOB
from uncle_sled.desk.helper import serve
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.recovery import new_autosave

NAPS = "tests.desk.naps"


def moved(project, x):
    build = project.build
    thing = msgspec.structs.replace(build.stow.things[0], x=msgspec.structs.replace(build.stow.things[0].x, si=x))
    stow = msgspec.structs.replace(build.stow, things=(thing, *build.stow.things[1:]))
    return project.with_build(msgspec.structs.replace(build, stow=stow))


def test_remedies_come_from_the_worker_and_late_ones_are_dropped(qtbot, open_on, worker):
    session = open_on(demo("marsh-heron"), judged=False, worker=worker).session
    session.ask_at_rest()
    assert session.remedies_pending
    session.edit("move", [set_to("stow.things.t2.x", {"si": 3.9})])  # the first answer is late now

    qtbot.waitUntil(lambda: not session.remedies_pending and session.answers.of(at_rest).fresh, timeout=120_000)

    assert any(one.remedy is not None for one in session.findings)
    assert session.answers.of(with_remedies).value == with_remedies(session.studied)
    assert {f.key for f in session.findings} == {f.key for f in findings(session.studied)}


def test_the_answer_of_the_process_is_the_one_found_here_also_when_only_changes_are_sent(qtbot, worker):
    project, got = demo("rosin-box"), {}
    worker.answered.connect(lambda number, value, fault: got.update({number: (value, fault)}))
    for x in (1.2, 1.7):
        project = moved(project, x)
        number = worker.ask("remedies", with_remedies.name, project)
        qtbot.waitUntil(lambda number=number: number in got, timeout=60_000)
        from uncle_sled.core.reading.studied import study

        assert got[number] == (with_remedies(study(project.build, project.facts)), "")


def test_a_full_pipe_never_holds_the_desk(qtbot, worker):
    """A hundred autosaves of a big build while a search runs: the desk only notes the newest."""
    project = big_project(600)
    worker.ask("moves", move_sets.name, project)
    qtbot.waitUntil(lambda: worker.running is not None, timeout=60_000)
    autosave, done = new_autosave(None, "big"), []
    worker.answered.connect(lambda number, value, fault: done.append(number))
    before = time.process_time()
    for x in range(100):
        last = worker.ask("autosave", AUTOSAVE_JOB, moved(project, x / 50), (autosave,), job=True, urgent=True)
    spent = time.process_time() - before
    qtbot.waitUntil(lambda: last in done, timeout=60_000)

    assert sled_file.read(autosave.path).build.stow.things[0].x.si == 1.98
    assert spent < 5.0  # of this process's own time: no waiting is hidden in it
    assert len(done) < 10


def test_an_urgent_job_goes_first_and_the_search_goes_on_after_it(qtbot, worker):
    project, order = demo("marsh-heron"), []
    search = worker.ask("nap", f"{NAPS}:nap", project, (4.0,), job=True)
    worker.answered.connect(lambda number, value, fault: order.append((number, value, fault)))
    qtbot.waitUntil(lambda: worker.running is not None, timeout=60_000)
    autosave = new_autosave(None, "first")
    saved = worker.ask("autosave", AUTOSAVE_JOB, project, (autosave,), job=True, urgent=True)
    qtbot.waitUntil(lambda: len(order) == 2, timeout=60_000)

    assert order == [(saved, None, ""), (search, "slept", "")]


def test_two_lanes_wait_for_each_other_and_the_newest_of_a_lane_wins(qtbot, worker):
    project, got = demo("marsh-heron"), []
    worker.answered.connect(lambda number, value, fault: got.append((number, value)))
    worker.ask("a", f"{NAPS}:echo", project, ("old",), job=True)
    first = worker.ask("a", f"{NAPS}:echo", project, ("new",), job=True)
    second = worker.ask("b", f"{NAPS}:echo", project, ("other",), job=True)
    qtbot.waitUntil(lambda: len(got) == 2, timeout=60_000)

    assert got == [(first, "new"), (second, "other")]


def test_a_worker_killed_in_the_middle_is_replaced_said_and_its_work_done(qtbot, worker):
    project, got, said = demo("marsh-heron"), [], []
    worker.answered.connect(lambda number, value, fault: got.append((value, fault)))
    worker.replaced.connect(said.append)
    worker.ask("nap", f"{NAPS}:nap", project, (1.0,), job=True)
    qtbot.waitUntil(lambda: worker.running is not None, timeout=60_000)
    os.kill(worker._process.pid, signal.SIGKILL)
    qtbot.waitUntil(lambda: bool(got), timeout=60_000)

    assert got == [("slept", "")] and len(said) == 1 and "another one" in said[0]


def test_what_kills_the_worker_twice_is_said_and_not_tried_for_ever(qtbot, worker):
    got, said = [], []
    worker.answered.connect(lambda number, value, fault: got.append(fault))
    worker.replaced.connect(said.append)
    worker.ask("bad", f"{NAPS}:die", demo("marsh-heron"), (), job=True)
    qtbot.waitUntil(lambda: bool(got), timeout=60_000)

    assert got == ["the helper stopped twice over it"] and len(said) == 2
    assert "goes on with its work" in said[0] and "with the next work" in said[1]  # nothing was left to go on with


def test_what_was_killed_goes_on_before_what_waits(qtbot, worker):
    project, got = demo("marsh-heron"), []
    worker.answered.connect(lambda number, value, fault: got.append((value, fault)))
    worker.ask("first", f"{NAPS}:nap", project, (0.5,), job=True)
    worker.ask("second", f"{NAPS}:nap", project, (0.0,), job=True)
    qtbot.waitUntil(lambda: worker.running is not None, timeout=60_000)
    for _ in range(2):
        qtbot.waitUntil(lambda: worker.running is not None, timeout=60_000)
        assert worker.running.lane == "first"
        dead = worker._process.pid
        os.kill(dead, signal.SIGKILL)
        qtbot.waitUntil(lambda dead=dead: worker._process is None or worker._process.pid != dead, timeout=60_000)
    qtbot.waitUntil(lambda: len(got) == 2, timeout=60_000)
    assert got == [(None, "the helper stopped twice over it"), ("slept", "")]


def test_what_does_not_listen_is_ended_with_its_process(qtbot, worker):
    got = []
    worker._grace.setInterval(200)
    worker.answered.connect(lambda number, value, fault: got.append(value))
    worker.ask("deaf", f"{NAPS}:deaf", demo("marsh-heron"), (120.0,), job=True)
    qtbot.waitUntil(lambda: worker.running is not None, timeout=60_000)
    worker.drop("deaf")
    worker.ask("a", f"{NAPS}:echo", demo("marsh-heron"), ("on",), job=True)
    qtbot.waitUntil(lambda: bool(got), timeout=60_000)

    assert got == ["on"]


def test_a_fault_in_a_study_is_told_and_the_worker_lives(qtbot, worker):
    got = []
    worker.answered.connect(lambda number, value, fault: got.append(fault))
    worker.ask("a", f"{NAPS}:breaks", demo("marsh-heron"), (), job=True)
    worker.ask("b", f"{NAPS}:echo", demo("marsh-heron"), (1,), job=True)
    qtbot.waitUntil(lambda: len(got) == 2, timeout=60_000)

    assert got == ["ValueError: it broke", ""]


def test_progress_is_told(qtbot, worker):
    told = []
    worker.told.connect(lambda number, share, words: told.append((share, words)))
    with qtbot.waitSignal(worker.answered, timeout=60_000):
        worker.ask("nap", f"{NAPS}:nap", demo("marsh-heron"), (0.5,), job=True)

    assert told and all(words == "napping" and 0 <= share <= 1 for share, words in told)


def test_the_keeper_writes_in_the_worker_and_drops_what_is_under_way(open_on, qtbot, worker):
    window = open_on(a_project([a_thing()]), judged=False, worker=worker)
    window.session.edit("Track", [set_to("rig.track", {"si": 1.9})])
    with qtbot.waitSignal(worker.answered, timeout=60_000):
        window.keeper.keep()
    path = window.keeper.autosave.path
    assert sled_file.read(path).build.rig.track.si == 1.9
    window.keeper.keep()
    window.keeper.drop()

    assert not path.exists()


def test_rest_tier_findings_are_not_judged_in_the_windows_thread(open_on, qtbot, worker, monkeypatch):
    from uncle_sled.core.findings.stow import fitting

    window = open_on(demo("marsh-heron"), judged=False, worker=worker)
    monkeypatch.setattr(fitting, "fitting_findings", lambda *a: pytest.fail("judged in the window's thread"))
    window.session.edit("move", [set_to("stow.things.t2.x", {"si": 3.9})])
    QApplication.processEvents()
    qtbot.waitUntil(lambda: window.session.answers.of(at_rest).fresh, timeout=60_000)

    assert window.session.findings


@pytest.mark.parametrize("name", ["marsh-heron", "orchard-keeper"])
def test_a_copy_kept_in_step_keeps_what_did_not_change(name):
    old = demo(name)
    new = moved(old, 1.23)
    less = new.with_build(
        msgspec.structs.replace(new.build, stow=msgspec.structs.replace(new.build.stow, things=new.build.stow.things[2:]))
    )
    copy = msgspec.json.decode(msgspec.json.encode(old), type=type(old))
    first = put_on(copy, tuple(changes(old, new)))
    second = put_on(first, tuple(changes(new, less)))

    assert first == new and second == less
    assert first.build.shell is copy.build.shell and first.build.stow.things[1] is copy.build.stow.things[1]
    assert second.build.stow.things[0] is copy.build.stow.things[2]
    assert put_on(copy, tuple(changes(old, demo("dark-sky")))) == demo("dark-sky")


@pytest.mark.parametrize("name", DEMOS)
def test_a_project_handed_over_whole_arrives_as_it_is(name):
    assert decode(encode(demo(name)), type=Project) == demo(name)


def test_another_project_is_handed_over_whole(open_on, worker, qtbot):
    window = open_on(demo("marsh-heron"), judged=False, worker=worker)
    answers = window.session.answers
    answers.ask(at_rest)
    qtbot.waitUntil(lambda: answers.of(at_rest).fresh, timeout=60_000)
    window.session.open(demo("rosin-box"), None)
    assert worker._sent is None
    answers.ask(at_rest)
    qtbot.waitUntil(lambda: answers.of(at_rest).fresh, timeout=60_000)

    assert answers.of(at_rest).value == at_rest(window.session.studied)


class Gone:
    """A pipe whose other end is closed: at once, or when an answer is ready."""

    def __init__(self, asked=(), hears=0):
        self.asked, self.hears = list(asked), hears

    def send(self, _what):
        if self.hears <= 0:
            raise BrokenPipeError(32, "Broken pipe")
        self.hears -= 1

    def recv(self):
        if not self.asked:
            raise EOFError
        return self.asked.pop(0)


@pytest.mark.parametrize("hears", [0, 1, 2])
def test_a_helper_whose_desk_went_ends_without_a_word(hears, monkeypatch):
    monkeypatch.setattr(signal, "signal", lambda *_: None)
    whole = encode(demo("rosin-box"))
    pipe = Gone([(1, "uncle_sled.core.findings.all_findings:at_rest", False, (), whole)], hears)
    stopped = type("Number", (), {"value": 0})()
    assert serve(pipe, stopped) is None


def test_how_far_a_search_is_is_told_apart_from_what_it_found(open_on, worker, qtbot):
    """Whoever shows an answer is not called for each step on the way to it."""
    answers = open_on(demo("marsh-heron"), judged=False, worker=worker).session.answers
    changed, told = [], []
    answers.changed.connect(changed.append)
    answers.told.connect(told.append)
    answers.ask(best_schedule)
    qtbot.waitUntil(lambda: answers.of(best_schedule).fresh, timeout=60_000)

    assert changed.count(best_schedule) == 2 and told.count(best_schedule) >= 1
