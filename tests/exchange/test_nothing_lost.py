"""Kills, crashes, two windows, full disks: what was saved stays whole."""

import hashlib
import json
import os
import socket
import subprocess
import sys
from pathlib import Path

import pytest

from tests.builders import a_project, a_thing
from tests.exchange.kills import kill_autosaves, kill_saves
from uncle_sled.core.errors import FileError
from uncle_sled.exchange import file_guard, recovery, sled_file, whole_file
from uncle_sled.exchange.desktop_entry import install_desktop
from uncle_sled.exchange.places import recovery_folder


def test_killed_while_saving_the_file_is_always_whole(tmp_path):
    """The process is killed at forty random moments; file and backup read back each time."""
    assert kill_saves(tmp_path / "heron.sled", 40, seed=5) >= 20


def test_killed_while_autosaving_what_is_left_behind_is_whole():
    wrote, left = kill_autosaves(20, seed=6)

    assert left >= wrote >= 10


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
    folder = recovery_folder()
    folder.mkdir(parents=True)
    for at, text in enumerate(("{", "[]", '{"name": 1}', '{"name": "x", "of": null, "pid": "?", "host": "h", "when": 1}')):
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

    lock = {"pid": other.pid, "host": HERE, "user": "u", "when": 1.0}
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


def test_what_no_file_is_has_no_stamp_and_nobody_waits_for_it(tmp_path):
    pipe, folder, file = tmp_path / "pipe", tmp_path / "folder", tmp_path / "file"
    os.mkfifo(pipe)
    folder.mkdir()
    file.write_bytes(b"abc")
    assert file_guard.stamp(pipe) is None and file_guard.stamp(folder) is None
    assert file_guard.stamp(file) == hashlib.sha256(b"abc").hexdigest()


def test_the_desktop_learns_of_the_application(tmp_path):
    files = install_desktop(tmp_path / "with space")
    entry = next(p for p in files if p.suffix == ".desktop").read_text()

    assert all(p.exists() for p in files) and len(files) == 4
    assert "MimeType=application/x-uncle-sled;" in entry and "open %f" in entry
    assert os.linesep + "Exec=" in entry


def test_a_link_stays_a_link_and_its_file_is_written(tmp_path):
    real, link = tmp_path / "real.sled", tmp_path / "link.sled"
    sled_file.save(a_project(), real)
    link.symlink_to(real)
    sled_file.save(a_project([a_thing()]), link)

    assert link.is_symlink() and len(sled_file.read(real).build.stow.things) == 1
    assert sled_file.read(real.with_name("real.sled.bak")).build.stow.things == ()


def test_a_new_file_heeds_the_umask(tmp_path):
    old = os.umask(0o077)
    try:
        sled_file.save(a_project(), tmp_path / "mine.sled")
    finally:
        os.umask(old)
    assert (tmp_path / "mine.sled").stat().st_mode & 0o077 == 0


def test_what_is_no_plain_file_is_said_at_once(tmp_path):
    pipe, device = tmp_path / "pipe.sled", Path("/dev/zero")
    os.mkfifo(pipe)
    with pytest.raises(FileError, match="it is a pipe, not a file"):
        sled_file.read(pipe)
    with pytest.raises(FileError, match="a pipe of that name stands there"):
        sled_file.save(a_project(), pipe)
    with pytest.raises(FileError, match="it is a device, not a file"):
        sled_file.read(device)
    with pytest.raises(FileError, match="could not be read"):
        sled_file.read(tmp_path / ("n" * 300))
    loop = tmp_path / "loop.sled"
    loop.symlink_to(loop)
    with pytest.raises(FileError, match="leads to itself"):
        sled_file.save(a_project(), loop)


def test_what_a_killed_save_left_is_cleared_and_a_living_one_is_not(tmp_path):
    path = tmp_path / "heron.sled"
    sled_file.save(a_project(), path)
    dead = path.with_name(f"{whole_file._mark(path)}{2**22 + 5}-0a0b0c0d.part")
    living = path.with_name(f"{whole_file._mark(path)}{os.getppid()}-0a0b0c0d.part")
    other = path.with_name(f"{whole_file._mark(path.with_name('x'))}{2**22 + 5}-0a0b0c0d.part")
    for one in (dead, living, other):
        one.write_text("{")
    sled_file.save(a_project([a_thing()]), path)

    assert [one.exists() for one in (dead, living, other)] == [False, True, True]


def test_of_two_windows_at_the_same_moment_one_has_the_file(tmp_path):
    path = tmp_path / "taken.sled"
    for _ in range(25):
        file_guard.lock_path(path).unlink(missing_ok=True)
        go, start = os.pipe()
        done, end = os.pipe()
        answers = []
        children = []
        for _ in range(2):
            back, tell = os.pipe()
            child = os.fork()
            if child == 0:
                os.read(go, 1)
                os.write(tell, b"y" if file_guard.take(path) else b"n")
                os.close(end)
                os.read(done, 1)  # until both have answered: a process that is gone holds nothing
                os._exit(0)
            children.append(child)
            answers.append((back, tell))
        os.write(start, b"gg")
        said = sorted(os.read(back, 1) for back, _ in answers)
        os.write(end, b"ee")
        for one in children:
            os.waitpid(one, 0)
        for one in (go, start, done, end, *[end for pair in answers for end in pair]):
            os.close(one)
        assert said == [b"n", b"y"]


HERE = socket.gethostname()
GARBAGE = [
    b"\xff\x00\xfe",
    b"",
    b"[]",
    b"1",
    b"[" * 100_000,
    b'{"pid": 1e999}',
    json.dumps({"pid": 10**30, "host": HERE, "user": "u", "when": 1.0}).encode(),
    json.dumps({"pid": 1, "host": HERE, "user": "u", "when": 1e300}).encode(),
    b'{"pid": 0, "host": "h", "user": "u", "when": 1}',
]


@pytest.mark.parametrize("garbage", GARBAGE)
def test_a_lock_of_garbage_is_nobodys(tmp_path, garbage):
    path = tmp_path / "heron.sled"
    lock = file_guard.lock_path(path)
    lock.write_bytes(garbage)
    assert file_guard.holder_of(path) is None
    file_guard.release(path)
    assert lock.exists()
    assert file_guard.take(path) and file_guard.still_mine(path)
    file_guard.release(path)
    assert not lock.exists()


@pytest.mark.parametrize(
    "change",
    [{"pid": 1}, {"pid": 2**22 + 9, "host": "old-name"}, {"pid": 10**30}, {"pid": 2**22 + 9, "when": 1e300}, {"boot": "an earlier one"}],
)
def test_an_autosave_whose_writer_is_gone_is_offered(tmp_path, monkeypatch, change):
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path))
    one = recovery.new_autosave(None, "heron")
    recovery.write_autosave(one, sled_file.to_bytes(a_project()))
    assert recovery.left_behind() == []
    one.note.write_text(json.dumps({**json.loads(one.note.read_text()), **change}))

    assert [left.name for left in recovery.left_behind()] == ["heron"]
