"""Opening a file of 2,000 things to its first reading, against reading the JSON with the standard library
plus a bare window; and what an autosave costs the window's own process. Run: .venv/bin/python -m benchmarks.open_big"""

from __future__ import annotations

import os
import pickle
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from benchmarks.big_build import big_project
from uncle_sled.core.document.delta import changes
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.exchange import sled_file

CACHE = tempfile.mkdtemp()
BARE = """
import json, sys, numpy
from PySide6.QtWidgets import QApplication, QMainWindow
json.load(open(sys.argv[1]))
app = QApplication([]); w = QMainWindow(); w.resize(1280, 800); w.show(); app.processEvents(); w.grab()
"""
OURS = """
import sys
from pathlib import Path
from uncle_sled.desk.app import application, open_window
from uncle_sled.exchange.sled_file import read
app = application(); w = open_window(read(Path(sys.argv[1]))); w.show(); app.processEvents(); w.grab()
"""


def seconds(code: str, path: Path) -> float:
    # as a user has it: bytecode is kept between starts, whatever this shell says of it
    env = {key: value for key, value in os.environ.items() if key != "PYTHONDONTWRITEBYTECODE"}
    env |= {"QT_QPA_PLATFORM": "offscreen", "PYTHONPYCACHEPREFIX": CACHE}
    begin = time.perf_counter()
    subprocess.run([sys.executable, "-c", code, str(path)], check=True, env=env)
    return time.perf_counter() - begin


def opening(things: int = 2000, times: int = 5) -> tuple[float, float]:
    """Seconds of a bare window that reads the JSON, and of the first reading, turn by turn."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "big.sled"
        sled_file.save(big_project(things, 5), path)
        seconds(BARE, path), seconds(OURS, path)
        turns = [(seconds(BARE, path), seconds(OURS, path)) for _ in range(times)]
    return statistics.median(bare for bare, _ in turns), statistics.median(ours for _, ours in turns)


def main() -> None:
    bare, ours = opening()
    project, times = big_project(2000, 5), []
    thing = project.build.stow.things[7]
    moved = apply(project.build, [set_to(f"stow.things.{thing.id}.x", {"si": 1.9, "typed": None})])
    for _ in range(20):
        begin = time.perf_counter()
        pickle.dumps(tuple(changes(project, project.with_build(moved))))
        times.append((time.perf_counter() - begin) * 1000)
    print(f"JSON and a bare window {bare:.2f} s, first reading {ours:.2f} s, ratio {ours / bare:.2f} (target 2.5)")
    print(f"what one edit costs the window to hand over to its helper's process: {statistics.median(times):.1f} ms")


if __name__ == "__main__":
    main()
