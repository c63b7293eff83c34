"""State of charge over the stay under three skies, what comes in and goes out under it, and the day's loads. In points, y up."""

from __future__ import annotations

import numpy as np

from uncle_sled.core.drawing.plot import Plot, axes, level, ticks
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, line, rect
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.studies.systems.stay import ARRIVES_H, Stay, String
from uncle_sled.core.studies.systems.sun import HOURS
from uncle_sled.core.words import Words

LEFT, RIGHT, HEAD, FOOT, GAP = 62.0, 104.0, 44.0, 30.0, 26.0
FLOWS_SHARE = 0.36  # of the height, for what comes in and goes out
SKY_INK = {"clear": "ochre", "mixed": "chalk", "dull": "zinc"}
SKY_DASH: dict[str, tuple[float, ...]] = {"clear": (), "mixed": (7, 3), "dull": (2, 3)}
IN = (("sun_wh", "ochre", "sun"), ("car_wh", "vehicle", "car"), ("generator_wh", "fuel", "generator"), ("mains_wh", "zinc", "hookup"))
NIGHT_FROM, NIGHT_TO = 20, 6


def fields(stay: Stay, width: float, height: float) -> tuple[Plot, Plot]:
    """Where state of charge and flows fall."""
    hours = stay.nights * HOURS
    assert stay.bank is not None
    low = FOOT + FLOWS_SHARE * (height - HEAD - FOOT - GAP)
    full = max(stay.bank.cold_wh, 1.0)
    top = max([float(string.out_wh.max(initial=0.0)) for string in stay.strings] + [1.0])
    for string in stay.strings:
        top = max(top, float((string.sun_wh + string.car_wh + string.generator_wh + string.mains_wh).max(initial=0.0)))
    right = width - RIGHT
    return (
        Plot(0.0, float(hours), y0=0.0, y1=full * 1.06, left=LEFT, low=low + GAP, right=right, top=height - HEAD),
        Plot(0.0, float(hours), y0=0.0, y1=top * 1.1, left=LEFT, low=FOOT, right=right, top=low),
    )


def stay_chart(stay: Stay, sky: str, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """The chart. Args: sky: whose flows are stacked under it."""
    if not stay.strings or stay.bank is None:
        return ()
    upper, lower = fields(stay, width, height)
    shapes = _nights(stay, upper, lower)
    shapes += _axes(stay, upper, lower, words)
    if stay.reserve_wh > 0:
        shapes += level(upper, stay.reserve_wh, "reserve for what must run", "primer", 1.2, (4.0, 3.0))
    ends: list[tuple[float, String]] = []
    for string in stay.strings:
        xs = np.arange(len(string.soc_wh) + 1, dtype=float)
        ys = np.concatenate([[stay.bank.cold_wh], string.soc_wh])
        shapes += upper.curve(xs, ys, SKY_INK[string.id], 2.4 if string.id == sky else 1.6, SKY_DASH[string.id])
        ends.append((upper.at(0.0, float(ys[-1]))[1], string))
    shapes += _names(ends, upper, sky)
    shapes += _dark(stay, upper)
    chosen = stay.of(sky) or stay.strings[0]
    return (*shapes, *_flows(chosen, lower))


def _nights(stay: Stay, upper: Plot, lower: Plot) -> list[Primitive]:
    """Night hours shaded through both fields."""
    shapes: list[Primitive] = []
    hours = stay.nights * HOURS
    for day in range(stay.nights + 2):
        a, b = day * HOURS + NIGHT_FROM - ARRIVES_H - HOURS, day * HOURS + NIGHT_TO - ARRIVES_H
        a, b = max(a, 0), min(b, hours)
        if b > a:
            x0, _ = upper.at(float(a), 0.0)
            x1, _ = upper.at(float(b), 0.0)
            for plot in (upper, lower):
                shapes.append(rect(x0, plot.low, x1 - x0, plot.top - plot.low, stroke="", fill="rule", width=0.0, tint=0.35))
    return shapes


def _axes(stay: Stay, upper: Plot, lower: Plot, words: Words) -> list[Primitive]:
    shapes: list[Primitive] = []
    for plot, title in ((upper, "in the battery"), (lower, "in and out, by the hour")):
        shapes += axes(plot, (), ticks(plot.y0, plot.y1, 4), str, words.wh if plot is upper else lambda y: f"{y:.0f} W")
        shapes.append(Text((plot.left, plot.top + 9), title, 11, "pencil", anchor="left"))
    room = (lower.right - lower.left) / max(stay.nights, 1)
    for day in range(stay.nights):
        x, _ = lower.at(float(day * HOURS), 0.0)
        shapes.append(line((x, lower.low - 4), (x, lower.low), "pencil"))
        said = f"day {day + 1}" if room > 44 else str(day + 1)
        shapes.append(Text((x + room / 2, lower.low - 13), said, 11, "pencil"))
    return shapes


def _names(ends: list[tuple[float, String]], upper: Plot, sky: str) -> list[Primitive]:
    """Names at the right edge, pushed apart where they would touch."""
    shapes: list[Primitive] = []
    under = 1e9
    for y, string in sorted(ends, key=lambda pair: -pair[0]):
        at = min(max(y, upper.low + 6), under - 14)
        under = at
        shapes += [
            line((upper.right + 2, y), (upper.right + 10, at), "rule"),
            line((upper.right + 12, at), (upper.right + 30, at), SKY_INK[string.id], 2.0, SKY_DASH[string.id]),
            Text((upper.right + 34, at), string.name.lower(), 12, "ink", "strong" if string.id == sky else "text", "left"),
        ]
    return shapes


def _dark(stay: Stay, upper: Plot) -> list[Primitive]:
    """Where each string first leaves something dark, and what: words step down where they would touch."""
    shapes: list[Primitive] = []
    taken: list[tuple[float, float, float]] = []
    for string in stay.strings:
        if string.first_dark_h is None:
            continue
        x, y = upper.at(float(string.first_dark_h), float(string.soc_wh[string.first_dark_h]))
        says = elided(f"{string.first_dark} dark, hour {string.first_dark_h}", 11, 190)
        wide = text_width(says, 11) + 8
        right = x + wide < upper.right
        left = x if right else x - wide
        up = upper.top - 8
        while any(abs(up - at) < 15 and left < b and left + wide > a for a, b, at in taken):
            up -= 15
        taken.append((left, left + wide, up))
        shapes += [
            line((x, y), (x, up), "primer", 1.0, (2.0, 2.0)),
            Circle((x, y), 4, "primer", "paper", 1.8),
            Text((x + (4 if right else -4), up), says, 11, "primer", anchor="left" if right else "right", ground="paper"),
        ]
    return shapes


def _flows(string: String, lower: Plot) -> list[Primitive]:
    """What comes in stacked as areas, what goes out as a line over it."""
    shapes: list[Primitive] = []
    hours = len(string.soc_wh)
    edges = np.repeat(np.arange(hours + 1, dtype=float), 2)[1:-1]
    base = np.zeros(hours)
    told: list[tuple[str, str]] = []
    for field, ink, name in IN:
        values = getattr(string, field)
        if not values.any():
            continue
        told.append((ink, name))
        top = base + values
        xs, up = lower.at(edges, np.repeat(top, 2))
        _, down = lower.at(edges, np.repeat(base, 2))
        ring = (*zip(xs.tolist(), up.tolist(), strict=True), *zip(xs[::-1].tolist(), down[::-1].tolist(), strict=True))
        shapes.append(Poly(tuple(ring), ink, ink, 0.8, tint=0.45))
        base = top
    xs, out = lower.at(edges, np.repeat(string.out_wh, 2))
    shapes.append(Poly(tuple(zip(xs.tolist(), out.tolist(), strict=True)), "ink", "", 1.6, closed=False))
    y = lower.top - 6
    for ink, name in told:
        shapes += [
            rect(lower.right + 12, y - 4, 14, 8, stroke=ink, fill=ink, width=0.8, tint=0.45),
            Text((lower.right + 32, y), name, 11, "ink", anchor="left"),
        ]
        y -= 15
    shapes += [
        line((lower.right + 12, y), (lower.right + 26, y), "ink", 1.8),
        Text((lower.right + 32, y), "goes out", 11, "ink", anchor="left"),
    ]
    return shapes


def stay_words(stay: Stay, x: float, words: Words, width: float, height: float) -> str:
    """What stands under a point of the chart: the hour, and the battery under every sky; "" beside the field."""
    if not stay.strings or stay.bank is None:
        return ""
    upper, _ = fields(stay, width, height)
    if not upper.left <= x <= upper.right:
        return ""
    hour = min(int((x - upper.left) / (upper.right - upper.left) * stay.nights * HOURS), stay.nights * HOURS - 1)
    clock = (ARRIVES_H + hour + 1) % HOURS
    lines = [f"Day {hour // HOURS + 1}, {clock}:00 by the sun"]
    for string in stay.strings:
        share = string.soc_wh[hour] / max(stay.bank.cold_wh, 1e-9)
        comes = sum(float(getattr(string, field)[hour]) for field, _, _ in IN)
        lines.append(
            f"{string.name}: {words.wh(float(string.soc_wh[hour]))} ({share * 100:.0f} %), in {comes:.0f} W, out {string.out_wh[hour]:.0f} W"
        )
    return "\n".join(lines)


def day_chart(stay: Stay, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Watt hours a day of every load at the battery, the largest first, as bars."""
    demand = stay.demand
    rows = [(float(demand.wh[k].sum()), load.name, load.must_run, load.id) for k, load in enumerate(demand.loads)]
    if demand.idle_wh.any():
        rows.append((float(demand.idle_wh.sum()), "Inverter idling", False, ""))
    rows = sorted([row for row in rows if row[0] > 0], key=lambda row: -row[0])
    if not rows:
        return ()
    pitch = min(24.0, (height - 44) / max(len(rows), 1))
    fits = max(int((height - 44) / max(pitch, 14.0)), 1)
    pitch = max(pitch, 14.0)
    name_w, number_w = min(width * 0.42, 150.0), 62.0
    room = max(width - name_w - number_w - 34, 20.0)
    most = rows[0][0]
    shapes: list[Primitive] = []
    y = height - 36
    for wh, name, must, id in rows[:fits]:
        shapes.append(Text((14 + name_w, y), elided(name, 12, name_w), 12, "ink", anchor="right", id=id))
        long = max(room * wh / most, 1.5)
        shapes.append(
            rect(
                22 + name_w,
                y - 5,
                long,
                10,
                stroke="power",
                fill="power",
                width=0.8,
                tint=0.75 if must else 0.3,
                hatch="power" if must else "",
                id=id,
            )
        )
        shapes.append(Text((22 + name_w + long + 5, y), words.wh(wh), 11, "pencil", anchor="left"))
        y -= pitch
    if len(rows) > fits:
        shapes.append(Text((14 + name_w, y), f"and {len(rows) - fits} more", 11, "pencil", anchor="right"))
    return tuple(shapes)
