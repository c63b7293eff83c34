"""Hours written into the log beside the hours of the plan, both added up day by day. Points."""

from __future__ import annotations

from datetime import date, timedelta

import numpy as np

from uncle_sled.core.document.work import LogEntry
from uncle_sled.core.drawing.build.plan_chart import day_of
from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Primitive, Text, line
from uncle_sled.core.studies.build.days import parsed
from uncle_sled.core.studies.build.schedule import Schedule


def hours_chart(schedule: Schedule, log: tuple[LogEntry, ...], wide: float, high: float) -> tuple[Primitive, ...]:
    """Both lines over the days from the first of either to the last. Nothing without hours in either, or without room."""
    if min(wide, high) < 110:
        return ()
    planned = sorted((schedule.begin + timedelta(days=int(placed.end)), placed.task.likely) for placed in schedule.placed)
    written = sorted((when, entry.hours) for entry in log if entry.hours and (when := parsed(entry.on)) is not None)
    if not planned and not written:
        return ()
    first = min([when for when, _ in (*planned[:1], *written[:1])] + ([schedule.begin] if planned else []))
    last = max(when for when, _ in (*planned[-1:], *written[-1:]))
    most = max(sum(h for _, h in planned), sum(h for _, h in written), 1.0) * 1.06
    days = max((last - first).days, 1)
    plot = Plot(0.0, float(days), y0=0.0, y1=most, left=44.0, low=42.0, right=wide - 38, top=high - 58)
    shapes: list[Primitive] = axes(
        plot,
        ticks(0.0, days, max(int((plot.right - plot.left) / 90), 1)),
        ticks(0.0, most, 5),
        lambda day: day_of(first, day),
        lambda value: f"{value:.0f}",
        "",
        "h",
    )
    for rows, ink, dash, says in ((planned, "pencil", (5.0, 4.0), "planned"), (written, "chalk", (), "written down")):
        x, y = _steps(rows, first)
        shapes += plot.curve(x, y, ink, 1.4 if dash else 2.2, dash)
        told = f"{says} {round(float(y[-1]), 1):g} h" if rows else f"nothing {says}"
        up = high - (34.0 if dash else 48.0)
        shapes += [line((plot.left, up), (plot.left + 20, up), ink, 1.6, dash), Text((plot.left + 26, up), told, 11, "ink", anchor="left")]
    return tuple(shapes)


def _steps(rows: list[tuple[date, float]], first: date) -> tuple[np.ndarray, np.ndarray]:
    """The sum over the days, rising where something is added."""
    x, y, total = [0.0], [0.0], 0.0
    for when, hours in rows:
        day = float((when - first).days)
        x += [day, day]
        y += [total, total + hours]
        total += hours
    return np.array(x), np.array(y)
