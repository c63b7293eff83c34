"""A hand at work in the real window: mouse moves at a pace, the event loop running between them.

Counts what matters: CPU of this process a step (with all that follows later, timers included), and how long the window's
thread was held by each move. Every step must change the build, or it is no step.
"""

from __future__ import annotations

import os
import time

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
from PySide6.QtCore import QEvent, QEventLoop, QPointF, Qt, QTimer
from PySide6.QtGui import QMouseEvent
from PySide6.QtWidgets import QApplication, QWidget

from uncle_sled.desk.session import Session

LEFT, NONE = Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton
PACE_MS = 10  # of the event loop between two moves
LEAST_CHANGED = 0.95


def mouse(widget: QWidget, kind: QEvent.Type, at: QPointF) -> None:
    buttons = NONE if kind == QEvent.Type.MouseButtonRelease else LEFT
    button = NONE if kind == QEvent.Type.MouseMove else LEFT
    QApplication.sendEvent(widget, QMouseEvent(kind, at, at, button, buttons, Qt.KeyboardModifier.NoModifier))


def drag(widget: QWidget, session: Session, start: QPointF, steps: int, px: float) -> tuple[float, float, float]:
    """CPU a step, median and 95th percentile of a move [ms]; the button is down already.

    To and fro by ``px`` a step, never twice to one place. Raises: SystemExit: where steps changed nothing.
    """
    app, loop = QApplication.instance(), QEventLoop()
    assert app is not None
    held: list[float] = []
    changed = 0

    def step(at: int) -> None:
        nonlocal changed
        turn = at % 60
        along = 20 + px * (turn if turn < 30 else 60 - turn) + 0.37 * (at % 7)
        before, begin = session.project, time.perf_counter()
        mouse(widget, QEvent.Type.MouseMove, QPointF(start.x() + along, start.y()))
        app.processEvents()
        held.append((time.perf_counter() - begin) * 1000)
        changed += session.project is not before
        QTimer.singleShot(PACE_MS, loop.quit)
        loop.exec()

    for at in range(10):
        step(at)
    held.clear()
    changed = 0
    begin = time.process_time()
    for at in range(10, steps + 10):
        step(at)
    cpu = (time.process_time() - begin) / steps * 1000
    if changed < LEAST_CHANGED * steps:
        raise SystemExit(f"only {changed} of {steps} steps changed anything: this measures nothing")
    return cpu, float(np.median(held)), float(np.percentile(held, 95))
