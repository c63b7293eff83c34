"""A hatch or lid turning on its struts, and the hand's force over the angle at three temperatures. Points."""

from __future__ import annotations

import math

import numpy as np

from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line, placed
from uncle_sled.core.studies.stow.hinged import Hinged
from uncle_sled.core.studies.stow.struts import CLOSE_N, RAISE_N
from uncle_sled.core.words import Words

SHARES = (1.0, 0.5, 0.0)  # of the opening at which the leaf is drawn, the open one first
INKS = ("chalk", "ink", "primer")  # cold, mild, hot
DASHES: tuple[tuple[float, ...], ...] = ((), (6, 3), (2, 2))


def _reach(leaf: Hinged, opens_deg: float, around: tuple[Primitive, ...] = ()) -> tuple[tuple[float, float], tuple[float, float]]:
    """Least and largest x, z [m] of all that the drawing shows, from the hinge."""
    points = [p for share in SHARES for p in _turned(leaf.outline, share * opens_deg)]
    if leaf.strut is not None:
        points.append((leaf.strut.body_x.si, leaf.strut.body_z.si))
    for shape in around:
        if isinstance(shape, Poly):
            points += shape.points
        elif isinstance(shape, Circle):
            points.append((shape.centre[0], shape.centre[1] + shape.radius))
    every = np.array([*points, (0.0, 0.0), (-0.12, 0.0)])
    low, top = every.min(axis=0), every.max(axis=0)
    return (float(low[0]), float(low[1])), (float(top[0]), float(top[1]))


def lid_fit(leaf: Hinged, wide: float, high: float, around: tuple[Primitive, ...] = ()) -> float:
    """Points a metre at which the leaf just fits, open and shut, with what stands about it; 0 where it does not turn."""
    if leaf.turning is None or not leaf.outline:
        return 0.0
    low, top = _reach(leaf, leaf.turning.opens_deg, around)
    return min((wide - 60) / max(top[0] - low[0], 0.1), (high - 60) / max(top[1] - low[1], 0.1))


def lid_drawn(
    leaf: Hinged, _words: Words, wide: float, high: float, points_per_m: float = 0.0, around: tuple[Primitive, ...] = ()
) -> tuple[Primitive, ...]:
    """The leaf shut, half way and open with its struts; hinge as a ring, centre of gravity, the hand's end.

    Args: points_per_m: 0: as large as it fits; around: what stands about it, metres from its hinge.
    """
    if leaf.turning is None or not leaf.outline or min(wide, high) < 80:
        return ()
    turns = [(share, _turned(leaf.outline, share * leaf.turning.opens_deg)) for share in SHARES]
    low, top = _reach(leaf, leaf.turning.opens_deg, around)
    scale = points_per_m or lid_fit(leaf, wide, high, around)
    dx = 30 + (wide - 60 - (top[0] - low[0]) * scale) / 2 - low[0] * scale
    dy = 30 + (high - 60 - (top[1] - low[1]) * scale) / 2 - low[1] * scale

    def on(p: Point) -> Point:
        return p[0] * scale + dx, p[1] * scale + dy

    shapes: list[Primitive] = list(placed(around, scale, dx, dy))
    if not around:
        shapes.append(line(on((-0.12, 0.0)), on((0.0, 0.0)), "pencil", 1.0, (4, 3)))
    for share, outline in turns:
        ink = "ink" if share in (0.0, 1.0) else "pencil"
        shapes.append(
            Poly(
                tuple(on(p) for p in outline),
                ink,
                "",
                3.0 if share == 0.0 else 1.8,
                closed=False,
                dash=() if share == 0 else (7, 4),
                id=leaf.id,
            )
        )
        turn = math.radians(share * leaf.turning.opens_deg + leaf.turning.shut_deg)
        centre = on((leaf.turning.r_m * math.cos(turn), leaf.turning.r_m * math.sin(turn)))
        shapes.append(Circle(centre, 3.2, "primer", "primer" if share == 0.0 else "", 1.2, id=leaf.id))
        if leaf.strut is not None and share in (0.0, 1.0):
            foot = on((leaf.strut.body_x.si, leaf.strut.body_z.si))
            head = on(_at((leaf.strut.lid_x.si, leaf.strut.lid_z.si), share * leaf.turning.opens_deg))
            shapes += [
                line(foot, head, "zinc", 5.0 if share == 0.0 else 3.0, id=leaf.id),
                *(Circle(p, 3.0, "ink", "paper", 1.2, id=leaf.id) for p in (foot, head)),
            ]
    shapes.append(Circle(on((0.0, 0.0)), 5.0, "ink", "paper", 1.6, id=leaf.id))
    end = turns[0][1][-1]
    shapes.append(Text(on((end[0], end[1] + 12 / scale)), f"open {leaf.turning.opens_deg:.0f}°", 11, "pencil", ground="paper"))
    return tuple(shapes)


def _at(p: Point, beta_deg: float) -> Point:
    turn = math.radians(beta_deg)
    return p[0] * math.cos(turn) - p[1] * math.sin(turn), p[0] * math.sin(turn) + p[1] * math.cos(turn)


def _turned(outline: tuple[Point, ...], beta_deg: float) -> tuple[Point, ...]:
    return tuple(_at(p, beta_deg) for p in outline)


def hand_chart(leaf: Hinged, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Force of the hand over the angle: to raise over the line, to shut under it, with both limits. Nothing without struts."""
    if not leaf.swings:
        return ()
    most = max(RAISE_N, *(float(s.raise_n.max()) for s in leaf.swings)) * 1.12
    least = -max(CLOSE_N, *(float(s.close_n.max()) for s in leaf.swings)) * 1.12
    opens = float(leaf.swings[0].beta_deg[-1])
    pound = 4.4482216 if words.shown.mass == "lb" else 1.0
    if min(wide, high) < 110:
        return ()
    plot = Plot(0.0, opens, y0=least, y1=most, left=48.0, low=40.0, right=wide - 14, top=high - 40)
    shapes: list[Primitive] = axes(
        plot,
        ticks(0.0, opens, 7),
        ticks(least, most, 7, pound),
        lambda x: f"{x:.0f}°",
        lambda y: f"{y / pound:.0f}",
        "opened",
        f"hand, {'lbf' if pound > 1 else 'N'}",
    )
    for value, text in ((RAISE_N, "to raise, at most"), (-CLOSE_N, "to shut, at most")):
        left, y = plot.at(0.0, value)
        shapes += [
            line((left, y), (plot.right, y), "primer", 1.2, (6, 4)),
            Text((plot.right - 4, y + (8 if value > 0 else -8)), text, 10, "primer", anchor="right", ground="paper"),
        ]
    shapes.append(line(plot.at(0.0, 0.0), plot.at(opens, 0.0), "ink", 1.0))
    for at, (got, ink, dash) in enumerate(zip(leaf.swings, INKS, DASHES, strict=True)):
        for values in (got.raise_n, -got.close_n):
            shapes += plot.curve(got.beta_deg, values, ink, 1.8, dash)
        x, y = plot.left + 10, plot.at(0.0, RAISE_N)[1] - 14 - 13 * at
        if x + 60 > plot.right:
            continue
        shapes += [line((x, y), (x + 20, y), ink, 1.8, dash), Text((x + 25, y), words.degrees(got.t_c), 11, "ink", anchor="left")]
    return tuple(shapes)
