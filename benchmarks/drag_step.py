"""One drag step on 300 things and 12 cases (and on 2,000), offscreen 1280x800, the event loop running.

Prints CPU a step, how long a move holds the window's thread, and the ratio to the bare NumPy products of the same masses.
Run: .venv/bin/python -m benchmarks.drag_step [steps] [things] [cabinets] [--profile]
"""

from __future__ import annotations

import cProfile
import pstats
import sys
import time
from typing import NamedTuple

import numpy as np
from PySide6.QtCore import QEvent

from benchmarks.big_build import big_project
from benchmarks.hand import drag, mouse
from uncle_sled.desk.app import application, open_window
from uncle_sled.desk.memory_at_rest import settle_memory
from uncle_sled.desk.sheet.gestures import DragThings


class Dragged(NamedTuple):
    """Of a step: CPU, median and 95th percentile of how long the window's thread is held; the bare products of its masses [ms]."""

    cpu_ms: float
    median_ms: float
    p95_ms: float
    bare_ms: float
    says: str


def dragged(steps: int = 200, things: int = 300, cabinets: int = 0, profile: cProfile.Profile | None = None) -> Dragged:
    """One thing of many dragged on Stow."""
    app = application()
    window = open_window(big_project(things, cabinets=cabinets))
    window.show()
    app.processEvents()
    window.session.judge_now()
    settle_memory()
    session, sheet = window.session, window.bench("Stow").sheet
    assert sheet is not None
    s = session.studied
    says = f"{len(session.build.stow.things)} things, {len(s.table.cases)} cases, {len(session.findings)} findings"
    start = sheet.box_of(next(p for p in sheet.placed() if p.thing.id == "t1"), "side").center()
    mouse(sheet, QEvent.Type.MouseButtonPress, start)
    session.select(("t1",))  # whatever lies on top of it there
    sheet.gesture = DragThings(sheet, "side", start, "t1")
    if profile:
        profile.enable()
    cpu, median, p95 = drag(sheet, session, start, steps, 9.3)
    if profile:
        profile.disable()
    table, axle, bare = session.studied.table, 2.9, []
    for _ in range(300):
        begin = time.perf_counter()
        total = table.mass_kg.sum(axis=1)
        _ = (
            total - (table.mass_kg * table.x_m).sum(axis=1) / axle,
            (table.mass_kg * table.y_m).sum(axis=1),
            (table.mass_kg * table.z_m).sum(axis=1),
        )
        bare.append((time.perf_counter() - begin) * 1000)
    mouse(sheet, QEvent.Type.MouseButtonRelease, start)
    session.history = session.history.was_saved()
    window.close()
    return Dragged(cpu, median, p95, float(np.median(bare)), says)


def main() -> None:
    numbers = [int(word) for word in sys.argv[1:] if word.isdigit()]
    profile = cProfile.Profile() if "--profile" in sys.argv else None
    steps, things, cabinets = (numbers + [200, 300, 0][len(numbers) :])[:3]
    cpu, median, p95, base, says = dragged(steps, things, cabinets, profile)
    if profile:
        pstats.Stats(profile).sort_stats("cumulative").print_stats(45)
    print(says)
    print(
        f"drag step: CPU {cpu:.1f} ms, median {median:.1f} ms, 95th percentile {p95:.1f} ms (target 16); "
        f"bare products {base:.3f} ms; ratio {median / base:.0f}"
    )


if __name__ == "__main__":
    main()
