"""A build from somebody else: opening and exporting it runs nothing, reads nothing beside it, and writes in its folder alone."""

import json
import os
import subprocess
import sys

from uncle_sled.core.document.edits import add_to, apply
from uncle_sled.core.document.work import LogEntry
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo

WATCHED = """
import json, os, sys
from pathlib import Path
seen = {"read": [], "written": [], "ran": []}
RUNS = ("subprocess.Popen", "os.system", "os.exec", "os.posix_spawn", "os.fork", "socket.connect", "socket.getaddrinfo", "urllib.Request")

def watch(event, args):
    if event == "open" and isinstance(args[0], (str, bytes)):
        writes = isinstance(args[2], int) and args[2] & (os.O_WRONLY | os.O_RDWR | os.O_CREAT)
        seen["written" if writes else "read"].append(os.path.abspath(os.fsdecode(args[0])))
    elif event in ("os.remove", "os.rename", "os.mkdir", "os.rmdir", "os.truncate", "os.chmod"):
        seen["written"].append(os.path.abspath(os.fsdecode(args[0])))
    elif event in RUNS:
        seen["ran"].append(event)

sys.addaudithook(watch)
from uncle_sled import cli
from uncle_sled.exchange.exports import EXPORTS
source, out = sys.argv[1], Path(sys.argv[2])
for words in (["report", source], ["check", source], *(["export", source, "--to", kind, "--out", str(out / kind)] for kind in EXPORTS)):
    cli.main(words)
Path(sys.argv[3]).write_text(json.dumps(seen))
"""
BAIT = ("bait.jpg", "bait.csv", "bait.py", "conftest.py", "uncle_sled.py", "json.py", ".uncle-sled", "catalogue/things.csv")


def test_a_build_of_somebody_else_touches_nothing_beside_it(tmp_path):
    folder, out, told = tmp_path / "theirs", tmp_path / "mine", tmp_path / "told.json"
    folder.mkdir()
    out.mkdir()
    own = tmp_path / "own"  # scratch of libraries and what is kept from run to run
    own.mkdir()
    around = {
        **os.environ,
        "TMPDIR": str(own),
        "HOME": str(own),
        **{f"XDG_{kind}_HOME": str(own) for kind in ("CACHE", "CONFIG", "STATE", "DATA")},
    }
    script = tmp_path / "bin" / "run"  # as the installed command is run: from a folder of its own, wherever one stands
    script.parent.mkdir()
    script.write_text(WATCHED)
    for name in BAIT:
        (folder / name).parent.mkdir(exist_ok=True)
        (folder / name).write_text("raise SystemExit('it was run')\n")
    (tmp_path / "outside.jpg").write_bytes(b"not theirs")
    project = demo("rosin-box")
    entries = [LogEntry(f"lx{k}", "2027-09-01", "photo", photo=path) for k, path in enumerate(("../outside.jpg", "bait.jpg"))]
    project = project.with_build(apply(project.build, [add_to("work.log", entry) for entry in entries]))
    source = folder / "build.sled"
    source.write_bytes(sled_file.to_bytes(project))
    before = {path: path.read_bytes() for path in folder.rglob("*") if path.is_file()}

    done = subprocess.run(
        [sys.executable, str(script), str(source), str(out), str(told)],
        cwd=folder,
        env=around,
        capture_output=True,
        text=True,
        timeout=300,
        check=False,
    )

    assert told.exists(), done.stderr[-2000:]
    seen = json.loads(told.read_text())
    assert seen["ran"] == []
    theirs = {path for path in seen["read"] if path.startswith(str(tmp_path)) and not path.startswith((str(out), str(own), str(script)))}
    assert theirs == {str(source)}
    elsewhere = {path for path in seen["written"] if not path.startswith((str(out), str(told), str(own))) and not path.endswith(".pyc")}
    assert elsewhere == set() and seen["written"]
    assert {path: path.read_bytes() for path in folder.rglob("*") if path.is_file()} == before
    assert len(list(out.iterdir())) > 20
