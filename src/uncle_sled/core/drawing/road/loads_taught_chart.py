"""What a record of the battery teaches: by the hour, recorded beside planned; and each load before and after. In points, y up."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.before_after import Learnt, before_after
from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text
from uncle_sled.core.studies.road.loads_taught import LoadsTaught
from uncle_sled.core.studies.systems.sun import HOURS
from uncle_sled.core.words import Words, all_of, count_of

LEFT, RIGHT, HEAD, FOOT = 52.0, 14.0, 52.0, 30.0


def loads_rows(made: LoadsTaught, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """A row a load, the largest first."""
    rows = [
        Learnt(
            load.name,
            load.before_wh,
            load.sigma_before_wh,
            load.after_wh,
            load.sigma_wh,
            told=f"{load.before_wh:.0f} → {words.wh(load.after_wh)}",
            change=f"× {load.factor:.2f} ± {2 * load.sigma_wh / max(load.before_wh, 1e-9):.2f}",
            id=load.id,
        )
        for load in sorted(made.loads, key=lambda load: -load.before_wh)
    ]
    return before_after(rows, wide, high)


def hours_plot(made: LoadsTaught, wide: float, high: float) -> tuple[Primitive, ...]:
    """Watts by the hour: planned in pencil, as taught in chalk, recorded as dots."""
    known = np.flatnonzero(np.isfinite(made.measured_w))
    if not len(known):
        return ()
    top = max(float(np.nanmax(made.measured_w)), float(made.planned_w.max(initial=0.0)), float(made.after_w.max(initial=0.0)), 1.0) * 1.15
    plot = Plot(0.0, float(HOURS), y0=0.0, y1=top, left=LEFT, low=FOOT, right=wide - RIGHT, top=high - HEAD)
    shapes = list(
        axes(plot, (0.0, 6.0, 12.0, 18.0, 24.0), ticks(0.0, top, 4), lambda hour: f"{hour:.0f}:00", lambda watts: f"{watts:.0f} W")
    )
    edges = np.repeat(np.arange(HOURS + 1, dtype=float), 2)[1:-1]
    for values, ink, width in ((made.planned_w, "pencil", 1.4), (made.after_w, "chalk", 2.0)):
        xs, ys = plot.at(edges, np.repeat(values, 2))
        shapes.append(Poly(tuple(zip(xs.tolist(), ys.tolist(), strict=True)), ink, "", width, closed=False))
    for hour in known.tolist():
        shapes.append(Circle(plot.at(hour + 0.5, float(made.measured_w[hour])), 3.5, "ink", "paper", 1.6))
    y = high - HEAD + 14
    for x, text, ink in ((LEFT, "planned", "pencil"), (LEFT + 62, "as taught", "chalk"), (LEFT + 134, "recorded, nothing charging", "ink")):
        shapes.append(Text((x, y), text, 11, ink, anchor="left"))
    return tuple(shapes)


def loads_taught_words(made: LoadsTaught) -> list[str]:
    """What it tells and what it cannot."""
    if made.why:
        return [made.why]
    known = int(np.isfinite(made.measured_w).sum())
    told = [f"{count_of(known, 'hour of the day is', 'hours of the day are')} recorded with nothing charging."]
    if made.apart:
        told.append(f"{all_of(made.apart[0])} run in the same hours: together they are known, apart they are not.")
    if known < HOURS:
        told.append("What runs only in the other hours keeps its doubt.")
    return told
