"""Start to first painted reading, as a ratio to a bare PySide6 + NumPy window. Run: .venv/bin/python -m benchmarks.start"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time

CACHE = tempfile.mkdtemp()
BARE = """
import numpy
from PySide6.QtWidgets import QApplication, QMainWindow
app = QApplication([]); w = QMainWindow(); w.resize(1280, 800); w.show(); app.processEvents(); w.grab()
"""
OURS = """
from uncle_sled.desk.app import application, open_window
from uncle_sled.exchange.demos import demo
app = application(); w = open_window(demo("marsh-heron")); w.show(); app.processEvents(); w.grab()
"""


def seconds(code: str) -> float:
    # as a user has it: bytecode is kept between starts, whatever this shell says of it
    env = {key: value for key, value in os.environ.items() if key != "PYTHONDONTWRITEBYTECODE"}
    env |= {"QT_QPA_PLATFORM": "offscreen", "PYTHONPYCACHEPREFIX": CACHE}
    begin = time.perf_counter()
    subprocess.run([sys.executable, "-c", code], check=True, env=env)
    return time.perf_counter() - begin


def first_reading(times: int = 7) -> tuple[float, float]:
    """Seconds of a bare window and of the first reading, turn by turn."""
    for code in (BARE, OURS):
        seconds(code)
    turns = [(seconds(BARE), seconds(OURS)) for _ in range(times)]
    return statistics.median(bare for bare, _ in turns), statistics.median(ours for _, ours in turns)


def main() -> None:
    bare, ours = first_reading()
    print(f"bare window {bare:.2f} s, first reading {ours:.2f} s, ratio {ours / bare:.2f} (target 1.8)")


if __name__ == "__main__":
    main()
