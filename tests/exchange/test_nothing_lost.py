"""Kills, crashes, two windows, full disks: what was saved stays whole."""

import json
import os
import random
import signal
import subprocess
import sys
import time

import pytest

from tests.builders import a_project, a_thing
from uncle_sled.core.errors import FileError
from uncle_sled.exchange import file_guard, recovery, sled_file
from uncle_sled.exchange.desktop_entry import install_desktop

SAVER = """
import sys
from pathlib import Path
from uncle_sled.exchange import sled_file
from tests.builders import a_project, a_thing
projects = [a_project([a_thing(f"t{k}") for k in range(n)]) for n in (5, 400)]
print("ready", flush=True)
while True:
    for project in projects:
        sled_file.save(project, Path(sys.argv[1]))
"""


def test_killed_while_saving_the_file_is_always_whole(tmp_path):
    """The process is killed at forty random moments; file and backup read back each time."""
    path, rng = tmp_path / "heron.sled", random.Random(5)
    sled_file.save(a_project(), path)
    for _ in range(40):
        child = subprocess.Popen([sys.executable, "-c", SAVER, str(path)], stdout=subprocess.PIPE)
        child.stdout.readline()
        time.sleep(rng.uniform(0.0, 0.03))
        child.send_signal(signal.SIGKILL)
        child.wait()
        child.stdout.close()

        assert len(sled_file.read(path).build.stow.things) in (0, 5, 400)
        backup = path.with_name("heron.sled.bak")
        if backup.exists():
            assert len(sled_file.read(backup).build.stow.things) in (0, 5, 400)


def test_an_autosave_is_offered_only_when_its_writer_is_gone(tmp_path):
    mine = recovery.new_autosave(tmp_path / "heron.sled", "Heron")
    recovery.write_autosave(mine, sled_file.to_bytes(a_project([a_thing()])))
    assert recovery.left_behind() == []

    note = json.loads(mine.note.read_text())
    done = subprocess.run([sys.executable, "-c", "import os; print(os.getpid())"], capture_output=True, text=True)
    mine.note.write_text(json.dumps({**note, "pid": int(done.stdout)}))
    left = recovery.left_behind()
    assert [one.name for one in left] == ["Heron"] and left[0].of == tmp_path / "heron.sled"
    assert sled_file.read(left[0].path).build.stow.things[0].id == "t1"
    recovery.drop_autosave(left[0])
    assert recovery.left_behind() == []


def test_notes_that_cannot_be_read_are_passed_over():
    folder = recovery.recovery_folder()
    folder.mkdir(parents=True)
    for at, text in enumerate(
        ("{", "[]", '{"name": 1}', '{"name": "x", "of": null, "pid": "?", "host": "h", "when": 1}')
    ):
        (folder / f"{at}.json").write_text(text)

    assert recovery.left_behind() == []
    assert len(list(folder.iterdir())) == 4


def test_an_autosave_that_cannot_be_written_is_said(monkeypatch, tmp_path):
    (tmp_path / "file").write_text("")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "file"))

    with pytest.raises(FileError, match="could not be written"):
        recovery.write_autosave(recovery.new_autosave(None, "x"), b"{}")


def test_a_lock_keeps_a_second_window_out_until_it_is_taken_over_or_gone(tmp_path):
    path = tmp_path / "heron.sled"
    code = "import sys, time; from pathlib import Path; from uncle_sled.exchange import file_guard; print(file_guard.take(Path(sys.argv[1])), flush=True); time.sleep(60)"
    other = subprocess.Popen([sys.executable, "-c", code, str(path)], stdout=subprocess.PIPE, text=True)
    assert other.stdout.readline().strip() == "True"

    assert file_guard.take(path) is False
    assert "since" in file_guard.holder_of(path).says()
    assert file_guard.take(path, over=True) and file_guard.still_mine(path)
    file_guard.release(path)
    assert not file_guard.lock_path(path).exists()

    lock = {"pid": other.pid, "host": __import__("socket").gethostname(), "user": "u", "when": 1.0}
    file_guard.lock_path(path).write_text(json.dumps(lock))
    assert not file_guard.still_mine(path)
    other.kill()
    other.wait()
    other.stdout.close()
    assert file_guard.still_mine(path) and file_guard.take(path)


def test_a_damaged_lock_and_a_folder_without_rights_do_not_stop_anyone(tmp_path):
    path = tmp_path / "heron.sled"
    file_guard.lock_path(path).write_text("{")
    assert file_guard.take(path)
    assert file_guard.take(tmp_path / "no" / "such.sled")
    assert file_guard.stamp(tmp_path / "gone") is None


def test_the_desktop_learns_of_the_application(tmp_path):
    files = install_desktop(tmp_path / "with space")
    entry = next(p for p in files if p.suffix == ".desktop").read_text()

    assert all(p.exists() for p in files) and len(files) == 4
    assert "MimeType=application/x-uncle-sled;" in entry and "open %f" in entry
    assert os.linesep + "Exec=" in entry
