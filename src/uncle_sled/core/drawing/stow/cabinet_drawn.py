"""A cabinet as it is built in: from the front, from its side, from above and in three directions, with its measures. Points.

Boards that the body's curve or a wheel box cuts are ochre; doors and drawers stand out of the carcass in three directions.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable

import numpy as np
from shapely.geometry import Polygon

from uncle_sled.core.document.joinery import Cabinet
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, dimension, dimension_up, line, rect
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.drawing.three_ways import depth, flat
from uncle_sled.core.parts.cabinet import ACROSS, Board, polygons
from uncle_sled.core.parts.cabinet_cut import Fitted
from uncle_sled.core.parts.cabinet_edges import seen_edges
from uncle_sled.core.words import Words

EDGE, GAP, TITLE = 14.0, 26.0, 18.0
FLAT = 0.56  # of the width for the flat views
PULLED_M = 0.22  # doors and drawers before the carcass, in three directions
VIEWS = (("Front", 0, 2), ("Side", 1, 2), ("Above", 0, 1))  # which of w, d, h run across and up
Shapes = list[Primitive]
On = Callable[[float, float], Point]


def cabinet_fit(board: Fitted, wide: float, high: float) -> float:
    """Points a metre at which the flat views just fit; not positive where they cannot."""
    w, d, h = board.carcass.size
    return min((wide * FLAT - 2 * EDGE - GAP - 40) / (w + d), (high - 2 * EDGE - 2 * TITLE - GAP - 40) / (h + d))


def cabinet_drawn(
    board: Fitted, cabinet: Cabinet, words: Words, wide: float, high: float, points_per_m: float = 0.0
) -> tuple[Primitive, ...]:
    """Four views in one frame, all flat ones to one scale, the largest that fits where none is given. Nothing where it cannot be built."""
    if not board.good or min(wide, high) < 120:
        return ()
    w, d, h = board.carcass.size
    left = wide * FLAT
    scale = points_per_m or cabinet_fit(board, wide, high)
    if scale <= 4:
        return ()
    cut = {id for id, _ in board.by}
    shapes: Shapes = []
    foot = high - EDGE - TITLE - h * scale
    spots = {
        "Front": (EDGE + 20, foot),
        "Side": (EDGE + 20 + w * scale + GAP, foot),
        "Above": (EDGE + 20, foot - GAP - TITLE - 20 - d * scale),
    }
    for name, a, b in VIEWS:
        x, y = spots[name]
        shapes.append(Text((x, y + board.carcass.size[b] * scale + 9), name, 11, "pencil", "strong", "left"))
        shapes += _view(board, cabinet, name, a, b, (x, y), scale, cut)
    x, y = spots["Front"]
    shapes += dimension((x, y - 14), (x + w * scale, y - 14), words.cut(w), 3.0)
    sx, _ = spots["Side"]
    shapes += dimension((sx, y - 14), (sx + d * scale, y - 14), words.cut(d), 3.0)
    shapes += dimension_up((x - 14, y), h * scale, words.cut(h))
    shapes += _three(board, wide - left - EDGE, high - 2 * EDGE, left, EDGE, cut)
    return tuple(shapes)


def _view(fitted: Fitted, cabinet: Cabinet, name: str, a: int, b: int, at: Point, scale: float, cut: set[str]) -> Shapes:
    """Boards from far to near: outlines where they lie in the view, edges as filled strips where they are cut through."""
    x0, y0 = at
    normal = 3 - a - b

    def on(u: float, v: float) -> Point:
        return x0 + u * scale, y0 + v * scale

    shapes: Shapes = []
    far_first = sorted(fitted.boards, key=lambda board: _near(board, name), reverse=True)
    for board in far_first:
        low, high = board.box
        if name != "Front" and board.moves and board.kind != "lid":
            continue  # the section shows the carcass
        ink = "ochre" if board.id in cut else "ink"
        if board.normal == normal:
            if (name == "Side" and board.id == "left end") or (name == "Above" and board.kind == "top"):
                continue  # cut open, to look in
            if name == "Above" and board.kind in ("worktop", "lid"):
                ring, *holes = [whole for shape in polygons(board.shape) for whole in (shape.exterior, *shape.interiors)]
                shapes += [
                    Poly(tuple(on(x, y) for x, y in list(r.coords)[:-1]), ink, "", 1.3, dash=(6, 3), id=board.id) for r in (ring, *holes)
                ]
                continue
            fill = "wood" if name == "Front" and board.moves else "paper"
            tint = 0.35 if fill == "wood" else 1.0
            p, q = ACROSS[board.normal]
            for whole in polygons(board.shape):
                shapes += _outline(whole, (p, q) == (a, b), on, ink, fill, tint, board.id)
        else:
            shapes.append(
                rect(
                    *on(low[a], low[b]),
                    (high[a] - low[a]) * scale,
                    (high[b] - low[b]) * scale,
                    stroke=ink,
                    fill="wood",
                    width=0.8,
                    tint=0.6,
                    id=board.id,
                )
            )
    if name == "Front":
        shapes += _fronts(fitted, cabinet, on)
    return shapes


def _outline(shape: Polygon, straight: bool, on: On, ink: str, fill: str, tint: float, id: str) -> Shapes:
    def ring(points: Iterable[Point]) -> tuple[Point, ...]:
        return tuple(on(x, y) if straight else on(y, x) for x, y in list(points)[:-1])

    made: Shapes = [Poly(ring(shape.exterior.coords), ink, fill, 1.1, tint=tint, id=id)]
    made += [Poly(ring(hole.coords), ink, "paper", 0.9, id=id) for hole in shape.interiors]
    return made


def _near(board: Board, name: str) -> float:
    """How far a board is from whoever looks."""
    low, high = board.box
    return {"Front": low[1], "Side": low[0], "Above": -high[2]}[name]


def _fronts(fitted: Fitted, cabinet: Cabinet, on: On) -> Shapes:
    """How fronts open: a line from the free corner to the hinge, grips of drawers, arrows of sliding doors."""
    kinds = {bay.id: bay.front for bay in cabinet.bays}
    shapes: Shapes = []
    for board in fitted.boards:
        if board.kind not in ("door", "drawer face", "sliding door"):
            continue
        (w0, _, h0), (w1, _, h1) = board.box
        front = kinds.get(board.bay, "open")
        p = on
        if board.kind == "drawer face":
            m = (w0 + w1) / 2
            grip = min(0.06, (w1 - w0) / 4)
            shapes.append(line(p(m - grip, h1 - 0.025), p(m + grip, h1 - 0.025), "ink", 2.0, id=board.id))
        elif board.kind == "sliding door":
            m = (h0 + h1) / 2
            shapes.append(line(p(w0 + 0.05, m), p(w1 - 0.05, m), "pencil", 0.8, (4, 3), id=board.id))
        else:
            side = "left" if front == "hinged left" or board.id.endswith(" left") else "right"
            hinge = w0 if side == "left" else w1
            free = w1 if side == "left" else w0
            if front == "lift-up":
                shapes += [line(p(x, h0), p((w0 + w1) / 2, h1), "pencil", 0.8, (4, 3), id=board.id) for x in (w0, w1)]
            elif front == "drop-down":
                shapes += [line(p(x, h1), p((w0 + w1) / 2, h0), "pencil", 0.8, (4, 3), id=board.id) for x in (w0, w1)]
            else:
                shapes += [line(p(free, y), p(hinge, (h0 + h1) / 2), "pencil", 0.8, (4, 3), id=board.id) for y in (h0, h1)]
    return shapes


BAND_PT = 2.0  # an edge that is seen is drawn so thick
APART = 0.55  # how far boards stand apart in the exploded view, as a share of how far they are from the middle


def exploded(fitted: Fitted, numbers: dict[str, str], wide: float, high: float) -> tuple[Primitive, ...]:
    """All boards pulled apart from the middle, each with its number. Args: numbers: by the board's id."""
    if not fitted.good or min(wide, high) < 60:
        return ()
    return tuple(_three(fitted, wide, high, 0.0, 0.0, {id for id, _ in fitted.by}, APART, numbers))


def _three(
    fitted: Fitted, wide: float, high: float, x0: float, y0: float, cut: set[str], apart: float = 0.0, numbers: dict[str, str] | None = None
) -> Shapes:
    """All boards as they stand, seen from before and above; what moves stands before the carcass."""
    middle = np.array(fitted.carcass.size) / 2
    made: list[tuple[float, list[tuple[float, float, float]], str, float, str]] = []
    banded: list[bool] = []  # of each face that is drawn: whether it is an edge that is seen
    for board in fitted.boards:
        (w0, d0, h0), (w1, d1, h1) = board.box
        ahead = PULLED_M if board.moves and board.kind != "lid" else 0.0
        lift = PULLED_M if board.kind == "lid" else 0.0
        # as one stands before it: x across, y toward the viewer's left is depth, so that its front shows
        low = np.array([w0, -(d1 - ahead), h0 + lift])
        top = np.array([w1, -(d0 - ahead), h1 + lift])
        away = apart * ((np.array(board.box[0]) + np.array(board.box[1])) / 2 - middle) * [1, -1, 1]
        low, top = low + away, top + away
        ink = "ochre" if board.id in cut else "ink"
        x_a, y_a, z_a = low
        x_b, y_b, z_b = top
        sides = (
            ([(x_a, -y_b, z_b), (x_b, -y_b, z_b), (x_b, -y_a, z_b), (x_a, -y_a, z_b)], 0.25),
            ([(x_a, -y_b, z_a), (x_b, -y_b, z_a), (x_b, -y_b, z_b), (x_a, -y_b, z_b)], 0.5),
            ([(x_b, -y_b, z_a), (x_b, -y_a, z_a), (x_b, -y_a, z_b), (x_b, -y_b, z_b)], 0.7),
        )
        centre = (low + top) / 2
        near = depth((centre[0], -centre[1], centre[2]))
        seen = {edge.side for edge in seen_edges(board, fitted.boards)} if numbers else set()
        for side, (points, tint) in zip(("top", "front", "right"), sides, strict=True):
            made.append((near, points, ink, tint, board.id))
            banded.append(side in seen)
    if not made:
        return []
    flats = [[flat(p) for p in points] for _, points, _, _, _ in made]
    spread = np.array([p for points in flats for p in points])
    low2, top2 = spread.min(axis=0), spread.max(axis=0)
    scale = min(wide / max(top2[0] - low2[0], 1e-6), (high - 8) / max(top2[1] - low2[1], 1e-6)) * 0.94
    dx = x0 + (wide - (top2[0] - low2[0]) * scale) / 2 - low2[0] * scale
    dy = y0 + (high - (top2[1] - low2[1]) * scale) / 2 - low2[1] * scale
    order = sorted(range(len(made)), key=lambda k: made[k][0])
    drawn: Shapes = [
        Poly(
            tuple((float(x * scale + dx), float(y * scale + dy)) for x, y in flats[k]),
            made[k][2],
            "wood",
            BAND_PT if banded[k] else 0.7,
            tint=made[k][3],
            id=made[k][4],
        )
        for k in order
    ]
    taken: list[Point] = []
    for k in range(1, len(made), 3) if numbers else ():  # the face of each that looks at whoever reads
        x, y = (float(v) for v in np.mean(flats[k], axis=0) * scale + [dx, dy])
        while any(abs(x - u) < 30 and abs(y - v) < 10 for u, v in taken):
            y += 10
        taken.append((x, y))
        drawn.append(Text((x, y), (numbers or {}).get(made[k][4], ""), 8, "ink", "strong", ground="paper"))
    return drawn


def piece_lines(fitted: Fitted, words: Words, most: int) -> list[str]:
    """Boards alike together: how many, what, length and width as cut, thickness."""
    alike: dict[tuple[str, float, float, float], int] = {}
    for board in fitted.boards:
        for shape in polygons(board.shape):
            x0, y0, x1, y1 = shape.bounds
            sides = sorted((round(x1 - x0, 4), round(y1 - y0, 4)), reverse=True)
            key = (board.kind, sides[0], sides[1], board.thick)
            alike[key] = alike.get(key, 0) + 1
    lines = [
        f"{many} × {name} {words.cut(long)} × {words.cut(wide)}, {words.layer(thick)}" for (name, long, wide, thick), many in alike.items()
    ]
    return [elided(text, 11, 400) for text in lines[:most]] + ([f"and {len(lines) - most} more"] if len(lines) > most else [])
