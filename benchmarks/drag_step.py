"""One drag step on 300 things and 12 cases: mouse event to end of paint, offscreen 1280x800, remedies excluded.

Prints the median and 95th percentile, and their ratio to the bare NumPy products of the same masses.
Run: .venv/bin/python -m benchmarks.drag_step [steps] [--profile]
"""

from __future__ import annotations

import cProfile
import os
import pstats
import sys
import time

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
from PySide6.QtCore import QEvent, QPointF, Qt
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QApplication

from benchmarks.big_build import big_project
from uncle_sled.desk.app import application, open_window, settle_memory
from uncle_sled.desk.sheet.gestures import DragThings


def mouse(kind: QEvent.Type, at: QPointF, button: Qt.MouseButton, buttons: Qt.MouseButton) -> QMouseEvent:
    return QMouseEvent(kind, at, at, button, buttons, Qt.KeyboardModifier.NoModifier)


def main() -> None:
    steps = int(sys.argv[1]) if len(sys.argv) > 1 and sys.argv[1].isdigit() else 200
    app = application()
    window = open_window(big_project())
    window.show()
    app.processEvents()
    settle_memory()
    session, sheet = window.session, window.bench("Stow").sheet
    assert sheet is not None
    s = session.studied
    print(f"{len(session.build.stow.things)} things, {len(s.table.cases)} cases, {len(session.findings)} findings")
    placed = next(p for p in sheet.placed() if p.thing.id == "t1")
    start = sheet.box_of(placed, "side").center()
    left, none = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
    QApplication.sendEvent(sheet, mouse(QEvent.Type.MouseButtonPress, start, left, left))
    session.select(("t1",))  # whatever lies on top of it there
    sheet.gesture = DragThings(sheet, "side", start, "t1")
    times = []

    def step(at: int) -> None:
        spot = QPointF(start.x() + 30 + 3 * (at % 50) + at * 0.01, start.y())
        QApplication.sendEvent(sheet, mouse(QEvent.Type.MouseMove, spot, none, left))
        app.processEvents()

    for at in range(10):
        step(at)
    profile = cProfile.Profile() if "--profile" in sys.argv else None
    if profile:
        profile.enable()
    for at in range(10, steps + 10):
        begin = time.perf_counter()
        step(at)
        times.append((time.perf_counter() - begin) * 1000)
    if profile:
        profile.disable()
        pstats.Stats(profile).sort_stats("cumulative").print_stats(45)
    table = session.studied.table
    axle = 2.9
    bare = []
    for _ in range(300):
        begin = time.perf_counter()
        total = table.mass_kg.sum(axis=1)
        _ = (
            total - (table.mass_kg * table.x_m).sum(axis=1) / axle,
            (table.mass_kg * table.y_m).sum(axis=1),
            (table.mass_kg * table.z_m).sum(axis=1),
        )
        bare.append((time.perf_counter() - begin) * 1000)
    median, p95, base = np.median(times), np.percentile(times, 95), np.median(bare)
    print(
        f"drag step: median {median:.1f} ms, 95th percentile {p95:.1f} ms; bare products {base:.3f} ms; ratio {median / base:.0f}"
    )
    QApplication.sendEvent(sheet, mouse(QEvent.Type.MouseButtonRelease, start, left, none))
    session.history = session.history.was_saved()
    window.close()


if __name__ == "__main__":
    main()
