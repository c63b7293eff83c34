"""A disk that is full, a home that cannot be written, a clock that is wrong, a place far away: nothing is lost, and it is said."""

import json
import os
import subprocess
import sys
import time
from pathlib import Path

import msgspec
import pytest

from tests.builders import a_project, a_thing
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange import clock, recovery, sled_file
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import export_bytes

# a file may grow to so many bytes: the write that goes over it fails in the middle, as on a full disk
FULL = """
import resource, signal, sys
from pathlib import Path
from msgspec.structs import replace
from uncle_sled.core.errors import FileError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange import recovery, sled_file
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.export import KINDS, export_bytes, write_file

folder, room = Path(sys.argv[1]), int(sys.argv[2])
project = demo("marsh-heron")
s = study(project.build, project.facts)
found = findings(s)
path, kept = folder / "heron.sled", recovery.new_autosave(None, "heron")
sled_file.save(replace(project, name="as it was"), path)
recovery.write_autosave(kept, b"as it was")
signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
resource.setrlimit(resource.RLIMIT_FSIZE, (room, room))
said = 0
for work in (lambda: sled_file.save(project, path), lambda: recovery.write_autosave(kept, sled_file.to_bytes(project))):
    try:
        work()
    except FileError as fault:
        assert "too large" in str(fault), fault
        said += 1
assert said == 2
assert sled_file.read(path).name == "as it was" and kept.path.read_bytes() == b"as it was"
written = 0
for kind in ("csv", "svg", "pdf", "things", "ics", "dxf", "framing-svg", "report-json"):
    if kind not in KINDS:
        continue
    out = folder / f"out.{kind}"
    try:
        write_file(out, export_bytes(kind, project.name, s, found))
        written += 1
        assert out.stat().st_size <= room
    except FileError as fault:
        said += 1
        assert not out.exists(), kind
assert said > 3 and not [one for one in folder.iterdir() if one.name.startswith(".")]
print("kept", said, written)
"""

HOMELESS = """
from PySide6.QtWidgets import QApplication
from uncle_sled.core.document.edits import set_to
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.settings import Settings
from uncle_sled.exchange.demos import demo
application()
said = []
window = open_window(demo("rosin-box"), settings=Settings())
window.session.said.connect(lambda words, kind: said.append(words))
window.show()
window.session.edit("longer", [set_to("brief.notes", "kept")], "Brief")
window.keeper.keep()
window.keeper.keep()
QApplication.processEvents()
try:
    window.settings.set("theme", "dark")
except Exception as fault:
    said.append(str(fault))
window.show_first_page()
QApplication.processEvents()
window.grab()
print("|".join(said))
"""


def run(script, *words, **env):
    around = {**os.environ, "QT_QPA_PLATFORM": "offscreen", **env}
    done = subprocess.run([sys.executable, "-c", script, *words], capture_output=True, text=True, env=around, timeout=300)
    assert done.returncode == 0 and "Traceback" not in done.stderr, done.stdout + done.stderr
    return done.stdout.strip()


def test_a_full_disk_leaves_what_was_there_and_says_so(tmp_path):
    told = run(FULL, str(tmp_path), "9000", XDG_STATE_HOME=str(tmp_path / "state"))
    assert told.startswith("kept ")


def test_a_home_that_cannot_be_written_is_said_and_the_work_goes_on(tmp_path):
    (tmp_path / "file").write_text("")
    homes = ("HOME", "XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME")
    told = run(HOMELESS, **{name: str(tmp_path / "file" / "home") for name in homes})
    assert "autosave could not be written" in told and "settings could not be kept" in told
    assert told.count("autosave could not be written") == 1  # once is enough


def test_a_clock_that_went_back_loses_no_autosave(monkeypatch, tmp_path):
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path))
    kept = recovery.new_autosave(None, "heron")
    recovery.write_autosave(kept, sled_file.to_bytes(a_project([a_thing()])))
    note = json.loads(kept.note.read_text())
    for when in (time.time() + 40 * 365 * 86400, 0.0, -1e9, 1e300):
        kept.note.write_text(json.dumps({**note, "pid": 2**22 + 17, "when": when}))
        (again,) = recovery.left_behind()
        assert again.path == kept.path and clock.moment_words(again.when)
    # a save while the clock says last year leaves nothing lying, and takes nothing that lives
    monkeypatch.setattr(time, "time", lambda: 1e9)
    path = tmp_path / "heron.sled"
    for name in ("one", "two", "three"):
        sled_file.save(msgspec.structs.replace(a_project([a_thing()]), name=name), path)
    assert sled_file.read(path).name == "three"
    assert sorted(one.name for one in tmp_path.iterdir() if one.name.startswith((".", "heron"))) == ["heron.sled", "heron.sled.bak"]


@pytest.mark.parametrize("kind", ["ics", "today", "pdf", "csv", "hand-over"])
def test_a_paper_is_the_same_wherever_the_clock_stands(kind, monkeypatch):
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    made = set()
    try:
        for zone in ("Pacific/Kiritimati", "Pacific/Pago_Pago", "UTC"):
            monkeypatch.setenv("TZ", zone)
            time.tzset()
            monkeypatch.setattr("uncle_sled.exchange.export.today", lambda: "2027-03-31")
            made.add(export_bytes(kind, project.name, s, findings(s)))
    finally:
        monkeypatch.undo()
        time.tzset()
    assert len(made) == 1


def test_the_day_is_that_where_the_builder_is(monkeypatch):
    days = set()
    try:
        for zone in ("Etc/GMT-14", "Etc/GMT+12"):  # 26 hours apart
            monkeypatch.setenv("TZ", zone)
            time.tzset()
            days.add(clock.today())
    finally:
        monkeypatch.undo()
        time.tzset()
    assert len(days) == 2 and Path(__file__).exists()
    assert clock.moment_words(1e300) == "nobody knows when"
