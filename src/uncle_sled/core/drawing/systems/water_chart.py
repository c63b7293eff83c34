"""Litres over the days, and the way of the water from fill point to grey tank. In points, y up."""

from __future__ import annotations

import math

from uncle_sled.core.document.project import Build
from uncle_sled.core.drawing.plot import Plot, axes, names_at_ends, ticks, upright
from uncle_sled.core.drawing.primitives import Circle, Poly, Primitive, Text, rect
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.systems.water import Water
from uncle_sled.core.units import FACTORS
from uncle_sled.core.words import Words

LEFT, RIGHT, HEAD, FOOT = 58.0, 92.0, 46.0, 34.0
BOX_W, BOX_H = 92.0, 40.0


def litres_chart(made: Water, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """Fresh going down, grey coming up, by the day; where one runs out and the other is full."""
    if made.need_l_day <= 0 or (made.fresh_l <= 0 and made.grey_room_l <= 0):
        return ()
    days = len(made.left_l) - 1
    most = max(made.fresh_l, made.grey_room_l, 1.0)
    plot = Plot(0.0, float(days), y0=0.0, y1=most * 1.12, left=LEFT, low=FOOT, right=width - RIGHT, top=height - HEAD)
    per = 1000 * float(FACTORS["volume"]["gal"]) if words.shown.volume == "gal" else 1.0
    shapes = axes(
        plot,
        ticks(0.0, float(days), min(days, 10)),
        ticks(0.0, most * 1.12, 4, per),
        lambda day: f"{day:.0f}",
        lambda litres: f"{litres / per:.0f} {words.shown.volume}",
        "days",
    )
    if made.wanted_days is not None and 0 < made.wanted_days <= days:
        shapes += upright(plot, made.wanted_days, "wanted", "spruce", 1.2)
    ends = []
    for room, day, ink, name in ((made.fresh_l, made.need_l_day, "fresh", "fresh"), (made.grey_room_l, made.grey_l_day, "grey", "grey")):
        if room <= 0 or day <= 0:
            continue
        end = min(room / day, float(days))
        corners = ((0.0, room), (end, room - day * end)) if ink == "fresh" else ((0.0, 0.0), (end, day * end))
        pts = [plot.at(*c) for c in corners]
        if end < days:
            pts.append(plot.at(float(days), corners[1][1]))
        shapes.append(Poly(tuple(pts), ink, "", 2.6, closed=False, dash=() if ink == "fresh" else (6.0, 3.0)))
        if end < days:
            bad = made.wanted_days is not None and end < made.wanted_days - 1e-6
            says = f"{'dry' if ink == 'fresh' else 'full'} after {room / day:.1f} days"
            x, y = pts[1]
            shapes += [
                Circle((x, y), 4, "primer" if bad else ink, "paper", 1.8),
                Text(
                    (min(x + 8, plot.right - 90), y + (12 if ink == "fresh" else -12)),
                    says,
                    11,
                    "primer" if bad else "ink",
                    anchor="left",
                    ground="paper",
                ),
            ]
        ends.append((corners[1][1], name, "ink"))
    return (*shapes, *names_at_ends(plot, ends))


def water_line(build: Build, made: Water, words: Words, width: float, height: float) -> tuple[Primitive, ...]:
    """From the fill point to the grey tank: what is aboard in boxes, what is missing dashed, with what it comes to."""
    things = build.stow.things
    w = build.systems.water

    def doing(role: str) -> str:
        return next((t.name for t in things if role in t.roles and not t.taken_out), "")

    heater, tap = doing("warms water"), doing("tap or sink")
    pump = doing("pumps water") or doing("pumps by foot")
    own_pump = next((load.name for load in build.systems.loads if "pumps water" in load.roles), "")
    steps: list[tuple[str, str, str, bool]] = [
        ("Fill point", "vent: " + {"": "not said", "yes": "yes", "no": "none"}[w.vented], "fresh", True),
        ("Fresh", words.m3(made.fresh_l / 1000) if made.fresh_l > 0 else "none aboard", "fresh", made.fresh_l > 0),
        (
            pump or own_pump or "Pump",
            f"{made.pump_kpa:.0f} kPa, {made.pump_w:.0f} W"
            if made.pump_kpa is not None and made.pump_w is not None
            else "by hand, or not aboard",
            "fresh",
            bool(pump or own_pump),
        ),
        (heater or "Water heater", f"{made.heat_wh:.0f} Wh a shower" if made.heat_wh else "cold", "gas", bool(heater)),
        (tap or "Tap", f"{words.m3(made.need_l_day / 1000)} a day", "fresh", bool(tap)),
        ("Trap and drain", _drain(made, w.trap.si if w.trap is not None else None, words), "grey", made.fall_ok is not False),
        ("Grey", words.m3(made.grey_room_l / 1000) if made.grey_room_l > 0 else "none aboard", "grey", made.grey_room_l > 0),
    ]
    gap = 22.0
    per_row = max(int((width - 24 + gap) / (BOX_W + gap)), 1)
    step = min(BOX_H + 18, (height - 34) / math.ceil(len(steps) / per_row))  # where it is low the boxes are
    high = min(BOX_H, step - 9)
    shapes: list[Primitive] = []
    last: tuple[float, float] | None = None
    for at, (name, says, ink, there) in enumerate(steps):
        row, col = divmod(at, per_row)
        x, y = 12 + col * (BOX_W + gap), height - 30 - high - row * step
        if last is not None:
            to = (x, y + high / 2)
            points = (
                (last, to)
                if col
                else (
                    last,
                    (last[0] + 8, last[1]),
                    (last[0] + 8, y + high + (step - high) / 2),
                    (x - 6, y + high + (step - high) / 2),
                    (x - 6, to[1]),
                    to,
                )
            )
            shapes.append(Poly(points, ink, "", 2.2, closed=False))
        shapes.append(
            rect(
                x,
                y,
                BOX_W,
                high,
                stroke=ink if there else "pencil",
                fill="body",
                width=1.6 if there else 1.0,
                dash=() if there else (4.0, 3.0),
            )
        )
        shapes.append(
            Text((x + BOX_W / 2, y + high * 0.68), elided(name, 12, BOX_W - 8, "strong"), 12, "ink" if there else "pencil", "strong")
        )
        shapes.append(Text((x + BOX_W / 2, y + high * 0.27), elided(says, 10, BOX_W - 6), 10, "pencil"))
        last = (x + BOX_W, y + high / 2)
    return tuple(shapes)


def _drain(made: Water, trap_m: float | None, words: Words) -> str:
    fall = {None: "fall not said", True: "falls enough", False: "too flat"}[made.fall_ok]
    return fall if trap_m is None else f"{fall}, trap {words.thick(trap_m)}"
