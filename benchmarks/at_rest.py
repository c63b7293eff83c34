"""What a hand waits for when it does not drag: edits, stops, sizes, day and night, a report; and what all that leaves in memory."""

from __future__ import annotations

import gc
import os
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import NamedTuple

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QEvent
from PySide6.QtWidgets import QApplication

from benchmarks.big_build import big_project
from benchmarks.pace import Timed
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.project import Project
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.kit.dress import wear
from uncle_sled.desk.window import Window
from uncle_sled.desk.worker import Worker
from uncle_sled.exchange.demos import demo

TIMES = 7


def _opened(project: Project, worker: Worker | None = None) -> Window:
    application()
    window = open_window(project, None, worker)
    window.show()
    settle()
    return window


def settle(seconds: float = 0.0) -> None:
    end = time.monotonic() + seconds
    while True:
        QApplication.processEvents()
        if time.monotonic() >= end:
            return
        time.sleep(0.02)


def edited(many: int) -> tuple[float, float]:
    """An edit of one thing among many on Stow, with the worker beside it, and its picture [ms at the usual pace]."""
    worker = Worker()
    window = _opened(big_project(many), worker)
    session = window.session
    settle(2.0)
    thing = session.build.stow.things[many // 2].id
    edits, paints = [], []
    with Timed() as took:
        for turn in range(TIMES):
            begin = time.process_time()
            session.edit("moved", [set_to(f"stow.things.{thing}.x", {"si": 1.0 + turn / 10, "typed": None})], "Stow")
            edits.append(time.process_time() - begin)
            begin = time.process_time()
            QApplication.processEvents()
            paints.append(time.process_time() - begin)
            settle(1.0)
    worker.stop()
    session.history = session.history.was_saved()
    window.close()
    return 1000 * statistics.median(edits) / took.pace, 1000 * statistics.median(paints) / took.pace


class Walked(NamedTuple):
    """By stop: shown first, shown again, resized; and day to night with all views seen [ms at the usual pace]."""

    first_ms: dict[str, float]
    again_ms: dict[str, float]
    resized_ms: dict[str, float]
    night_ms: float


def walked(name: str = "orchard-keeper") -> Walked:
    """A walk over all stops of a demo, twice; then each in another size; then all views, and the other theme."""
    worker = Worker()
    window = _opened(demo(name), worker)
    window.session.judge_now()
    settle(3.0)
    stops = [about.stop for about in abouts()]
    turns: list[dict[str, float]] = []
    for _ in range(2):
        turn = {}
        for stop in [*stops[1:], stops[0]]:
            with Timed() as took:
                window.session.go_to(stop)
                QApplication.processEvents()
            turn[stop] = 1000 * took.s
            settle(1.0)  # what the worker answers comes when it is done
        turns.append(turn)
    resized = {}
    for stop in stops:
        window.session.go_to(stop)
        settle()
        with Timed() as took:
            window.resize(window.width() - 40, window.height() - 30)
            QApplication.processEvents()
        resized[stop] = 1000 * took.s
        window.resize(1280, 800)
        settle()
    for about in abouts():
        window.session.go_to(about.stop)
        for view in about.views:
            window.bench(about.stop).show_view(view.name)
            settle()
    app, night = application(), []
    for theme in ("dark", "light", "dark", "light"):
        with Timed() as took:
            wear(app, theme)
            QApplication.processEvents()
        night.append(1000 * took.s)
    worker.stop()
    window.close()
    return Walked(turns[0], turns[1], resized, statistics.median(night))


def reported_s(name: str) -> tuple[float, float]:
    """CPU seconds of ``report --json`` in a process of its own, at the usual pace: told for the first time, and again."""
    found = []
    file = next((Path(__file__).parents[1] / "src/uncle_sled/demo").glob(f"{name}.sled"))
    with tempfile.TemporaryDirectory() as cache:
        for _ in range(2):
            begin = resource.getrusage(resource.RUSAGE_CHILDREN)
            with Timed() as took:
                subprocess.run(
                    [sys.executable, "-m", "uncle_sled", "report", "--json", str(file)],
                    check=True,
                    capture_output=True,
                    env={**os.environ, "XDG_CACHE_HOME": cache},
                )
            end = resource.getrusage(resource.RUSAGE_CHILDREN)
            found.append((end.ru_utime + end.ru_stime - begin.ru_utime - begin.ru_stime) / took.pace)
    return found[0], found[1]


def _resident_mb() -> float:
    gc.collect()
    for line in Path("/proc/self/status").read_text().splitlines():
        if line.startswith("VmRSS"):
            return int(line.split()[1]) / 1024
    raise SystemExit("the system does not tell how much memory is held")


def grown_mb(drags: int, builds: int) -> tuple[float, float]:
    """What drags, and builds opened and closed, leave in memory [MB], after a tenth of them went before."""
    window = _opened(demo("marsh-heron"))
    session = window.session
    session.judge_now()
    thing = session.build.stow.things[1].id

    def drag(many: int) -> None:
        hand = session.take_up("moved", (thing,))
        for at in range(many):
            hand.put([set_to(f"stow.things.{thing}.x", {"si": 2.0 + at % 50 / 100, "typed": None})])
            QApplication.processEvents()
        hand.let_go()
        session.undo()
        settle()

    drag(drags // 10)
    before = _resident_mb()
    drag(drags)
    after_drags = _resident_mb() - before
    session.history = session.history.was_saved()

    def change(many: int) -> None:
        for at in range(many):
            window.open_demo(("rosin-box", "marsh-heron")[at % 2])
            QApplication.processEvents()
            application().sendPostedEvents(None, QEvent.Type.DeferredDelete)

    change(builds // 5)
    before = _resident_mb()
    change(builds)
    return after_drags, _resident_mb() - before
