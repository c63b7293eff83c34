"""Sway: damping over the speed for every case, the swing after a gust, and car and trailer from above at one moment. Points."""

from __future__ import annotations

import math

import numpy as np

from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.balance.sway import GOOD, POOR, SPEEDS_KMH, Sway, Swaying, Trace, Train
from uncle_sled.core.words import Words

LEFT, FOOT, HEAD, RIGHT = 48.0, 40.0, 34.0, 14.0
KMH_MPH = 1.609344
CAR_AHEAD_M, CAR_HALF_M, TRAILER_HALF_M = 0.9, 0.9, 0.85
SHOWN = 6.0  # the swing is drawn larger by that


def sway_chart(made: Sway, chosen: str, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """A line a case, the chosen one heavy; 0.1, 0.05 and nought as limits; the speed that is asked about. Nothing without cases."""
    if not made.cases or wide < 120 or high < 80:
        return ()
    per = KMH_MPH if words.shown.imperial else 1.0
    top = max(0.3, *(float(case_.damping.max()) for case_ in made.cases)) * 1.08
    low = min(-0.07, *(float(case_.damping.min()) for case_ in made.cases))
    plot = Plot(float(SPEEDS_KMH[0]), float(SPEEDS_KMH[-1]), y0=low, y1=top, left=LEFT, low=FOOT, right=wide - RIGHT, top=high - HEAD)
    unit = "mph" if words.shown.imperial else "km/h"
    shapes: list[Primitive] = axes(
        plot,
        ticks(plot.x0, plot.x1, 6, per),
        ticks(low, top, max(min(int((plot.top - plot.low) / 20), 6), 1)),
        lambda x: f"{x / per:.0f}",
        lambda y: f"{y:.2g}",
        unit,
        "damping",
    )
    for value, text, up in ((GOOD, "over 0.1 it settles soon", 8.0), (POOR, "", 0.0), (0.0, "under nought it grows", -8.0)):
        left, y = plot.at(plot.x0, value)
        shapes.append(line((left, y), (plot.right, y), "primer", 1.3 if value == 0 else 1.0, () if value == 0 else (6, 4)))
        if text and plot.low + 7 < y + up < plot.top - 8:
            shapes.append(Text((left + 6, y + up), text, 10, "primer", anchor="left", ground="paper"))
    x, _ = plot.at(min(max(made.at_kmh, plot.x0), plot.x1), 0.0)
    whose = "fastest, by the brief" if made.said else "taken, nobody said"
    shapes += [
        line((x, plot.low), (x, plot.top), "chalk", 1.2, (5, 3)),
        Text(
            (x + (4 if x < wide * 0.6 else -4), plot.top - 6),
            f"{words.kmh(made.at_kmh)} {whose}",
            10,
            "chalk",
            anchor="left" if x < wide * 0.6 else "right",
            ground="paper",
        ),
    ]
    for swaying in sorted(made.cases, key=lambda c: c.case_id == chosen):
        on = swaying.case_id == chosen
        shapes += plot.curve(SPEEDS_KMH, swaying.damping, "ink" if on else "pencil", 2.6 if on else 1.0)
    swaying = next((c for c in made.cases if c.case_id == chosen), made.cases[0])
    _, y = plot.at(plot.x0, float(swaying.damping[0]))
    shapes.append(
        Text(
            (plot.left + 8, min(y + 10, plot.top - 6)),
            elided(swaying.name, 11, 150),
            size=11,
            ink="ink",
            face="strong",
            anchor="left",
            ground="paper",
        )
    )
    return tuple(shapes)


def trace_chart(got: Trace, at: int, _words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """The bend between car and trailer over the seconds, with a mark at one moment."""
    if len(got.t_s) < 2 or min(wide, high) < 90:
        return ()
    bend = np.degrees(got.bend_rad)
    most = max(float(np.abs(bend).max()), 0.2) * 1.15
    plot = Plot(0.0, max(float(got.t_s[-1]), 1.0), y0=-most, y1=most, left=LEFT, low=34.0, right=wide - RIGHT, top=high - 26.0)
    shapes: list[Primitive] = axes(
        plot,
        ticks(0.0, plot.x1, 6),
        ticks(-most, most, max(min(int((plot.top - plot.low) / 20), 4), 1)),
        lambda x: f"{x:g} s",
        lambda y: f"{y:.2g}°",
        "",
        "bend at the ball",
    )
    shapes.append(line(plot.at(0.0, 0.0), plot.at(plot.x1, 0.0), "rule", 1.0))
    shapes += plot.curve(got.t_s, bend, "ink", 1.8)
    k = min(max(at, 0), len(bend) - 1)
    shapes.append(Circle(plot.at(float(got.t_s[k]), float(bend[k])), 4.0, "chalk", "chalk", 1.0))
    return tuple(shapes)


def swing_plan(train: Train, got: Trace, at: int, tail_m: float, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Car and trailer from above, driving to the left, angles six times as large; dashed as they went before the gust."""
    if len(got.t_s) < 1 or min(wide, high) < 60:
        return ()
    k = min(max(at, 0), len(got.t_s) - 1)
    front = train.a1 + train.d + CAR_AHEAD_M  # ahead of the ball
    long = front + tail_m
    scale = min((wide - 40) / long, (high - 36) / 3.6)
    y0 = high / 2 + 6
    car = SHOWN * float(got.car_rad[k])
    trailer = SHOWN * float(got.car_rad[k] - got.bend_rad[k])
    most = 0.45
    car, trailer = max(min(car, most), -most), max(min(trailer, most), -most)
    ball = (20 + front * scale, y0 + max(min(SHOWN * float(got.ball_m[k]), 0.9), -0.9) * scale)
    still = (ball[0], y0)
    shapes: list[Primitive] = [line((8, y0), (wide - 8, y0), "rule", 1.0, (8, 3, 2, 3))]
    for place, a, b, dash, ink in ((still, 0.0, 0.0, (4.0, 3.0), "rule"), (ball, car, trailer, (), "ink")):
        shapes.append(
            Poly(
                _box(place, -front, -(train.d - train.b1) * 0.35, CAR_HALF_M, a, scale),
                ink,
                "vehicle" if not dash else "",
                1.4,
                dash=dash,
                tint=0.25,
            )
        )
        shapes.append(line(place, _turn(place, (0.9, 0.0), b, scale), ink, 2.0, dash))
        shapes.append(Poly(_box(place, 0.9, tail_m, TRAILER_HALF_M, b, scale), ink, "body" if not dash else "", 1.4, dash=dash))
        for x, half, turn in ((-train.d - train.a1, 0.75, a), (-(train.d - train.b1), 0.75, a), (train.l, 0.95, b)):
            if not dash:
                shapes += [
                    line(_turn(place, (x - 0.28, y), turn, scale), _turn(place, (x + 0.28, y), turn, scale), "ink", 4.0)
                    for y in (-half, half)
                ]
    shapes.append(Circle(ball, 3.5, "ink", "zinc", 1.2))
    cg = _turn(ball, (train.e, 0.0), trailer, scale)
    shapes += [
        Circle(cg, 5.0, "ink", "paper", 1.4),
        line((cg[0] - 5, cg[1]), (cg[0] + 5, cg[1])),
        line((cg[0], cg[1] - 5), (cg[0], cg[1] + 5)),
    ]
    pushed = (
        f"a gust from the side, {words.fine_newtons(got.gust_n)} for half a second"
        if got.gust_n is not None
        else "bent by 2° and let go: no body to blow at is drawn"
    )
    shapes.append(
        Text(
            (10, high - 12),
            elided(f"{got.t_s[k]:.1f} s after {pushed}; angles six times as large", 11, wide - 20),
            11,
            "pencil",
            anchor="left",
        )
    )
    return tuple(shapes)


def _turn(place: Point, p: Point, angle: float, scale: float) -> Point:
    """A point aft and right of a place, turned; forward is to the left of the paper and turning left goes down."""
    x, y = p
    return place[0] + (x * math.cos(angle) - y * math.sin(angle)) * scale, place[1] + (x * math.sin(angle) + y * math.cos(angle)) * scale


def _box(place: Point, x0: float, x1: float, half: float, angle: float, scale: float) -> tuple[Point, ...]:
    return tuple(_turn(place, p, angle, scale) for p in ((x0, -half), (x1, -half), (x1, half), (x0, half)))


def critical_words(swaying: Swaying, words: Words) -> str:
    """What a case's critical speed is, never as safe."""
    if swaying.critical_kmh is not None:
        return f"swings grow from {words.kmh(swaying.critical_kmh)}"
    return f"none under {words.kmh(200.0)}"
