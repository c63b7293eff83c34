"""The body in paper at 1 : 20 or 1 : 25: every face laid flat with tabs, packed on A4 or Letter, what is glued to what named.

A tab is put on one of the two faces that meet along a joint, so that every joint has one. Openings are drawn to be cut or
coloured. Source: first principles; tabs 7 mm with slanted ends.
"""

from __future__ import annotations

import itertools
import math
from functools import partial

import msgspec
from shapely import unary_union
from shapely.geometry import LineString, Polygon

from uncle_sled.core.drawing.page import POINTS_PER_M, Page
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.geometry.body_joints import joints_of
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.reading.studied import Studied

SCALES = (20, 25, 30, 40, 50, 75, 100)
EDGE_M, TAB_M, GAP_M, BAR_M = 0.010, 0.007, 0.006, 0.100
HEAD_M, FOOT_M = 0.018, 0.016


class Face(msgspec.Struct, frozen=True):
    """One face in paper [m of the model]: outline, its tabs with the face that each is glued under, holes."""

    id: str
    outline: Polygon
    tabs: tuple[tuple[Polygon, str], ...]
    holes: tuple[Polygon, ...]

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, low, right, high of the face with its tabs [m of the model]."""
        left, low, right, high = unary_union([self.outline, *(tab for tab, _ in self.tabs)]).bounds
        return float(left), float(low), float(right), float(high)


def scale_of(body: Body, wide_m: float, high_m: float) -> int | None:
    """The largest scale at which every face goes on a page, tabs and all; None where none does."""
    for n in SCALES:
        if all(_fits(surface.polygon, n, wide_m, high_m) for surface in body.surfaces):
            return n
    return None


def _fits(shape: Polygon, n: int, wide_m: float, high_m: float) -> bool:
    left, low, right, high = shape.bounds
    sides = sorted(((right - left) / n + 2 * TAB_M, (high - low) / n + 2 * TAB_M))
    room = sorted((wide_m, high_m))
    return bool(sides[0] <= room[0] and sides[1] <= room[1])


def model_faces(s: Studied, n: int) -> tuple[Face, ...]:
    """Every face of the body at 1 : n, with a tab along each joint on the face that comes first."""
    body = s.framed.body
    if body is None or body.width <= 0:
        return ()
    tabs: dict[str, list[tuple[Polygon, str]]] = {surface.id: [] for surface in body.surfaces}
    of = {surface.id: surface for surface in body.surfaces}
    for joint in joints_of(body):
        if not joint.b or joint.a not in of or joint.b not in of:
            continue
        id, runs, other = (joint.a, joint.on_a, joint.b) if not of[joint.a].swept else (joint.b, joint.on_b, joint.a)
        if of[id].swept and not of[other].swept:  # tabs on the stiff flat side
            id, runs, other = other, joint.on_b if other == joint.b else joint.on_a, id
        for run in runs:
            for a, b in itertools.pairwise(run):
                tab = _tab(a, b, of[id].polygon, n)
                if tab is not None:
                    tabs[id].append((tab, other))
    made = []
    for surface in body.surfaces:
        outline = _scaled(surface.polygon, n)
        holes = tuple(_scaled(hole, n) for hole in s.framed.holes_in(surface.id))
        made.append(Face(surface.id, outline, tuple(tabs[surface.id]), holes))
    return tuple(made)


def _scaled(shape: Polygon, n: int) -> Polygon:
    return Polygon([(x / n, y / n) for x, y in shape.exterior.coords])


def _tab(a: Point, b: Point, shape: Polygon, n: int) -> Polygon | None:
    """A trapezium outside of an edge."""
    (ax, ay), (bx, by) = (a[0] / n, a[1] / n), (b[0] / n, b[1] / n)
    long = math.hypot(bx - ax, by - ay)
    if long < 0.002:
        return None
    tx, ty = (bx - ax) / long, (by - ay) / long
    cut = min(TAB_M * 0.6, long / 3)
    small = _scaled(shape, n)
    for sign in (1.0, -1.0):
        nx, ny = -ty * sign, tx * sign
        middle = LineString([((ax + bx) / 2, (ay + by) / 2), ((ax + bx) / 2 + nx * TAB_M / 2, (ay + by) / 2 + ny * TAB_M / 2)])
        if small.buffer(-1e-5).intersection(middle).length < 1e-4:
            return Polygon(
                [
                    (ax, ay),
                    (bx, by),
                    (bx - tx * cut + nx * TAB_M, by - ty * cut + ny * TAB_M),
                    (ax + tx * cut + nx * TAB_M, ay + ty * cut + ny * TAB_M),
                ]
            )
    return None


def paper_model(s: Studied, name: str, printed: str, on: Paper) -> tuple[Page, ...]:
    """Its pages; none without a body. A body too large for 1 : 100 gives none either."""
    body = s.framed.body
    if body is None or body.width <= 0:
        return ()
    paper = (on.wide / POINTS_PER_M, on.high / POINTS_PER_M)
    wide, high = paper[0] - 2 * EDGE_M, paper[1] - 2 * EDGE_M - HEAD_M - FOOT_M
    n = scale_of(body, wide, high)
    if n is None:
        return ()
    faces = model_faces(s, n)
    pages: list[list[tuple[Face, float, float, bool]]] = []
    x = y = row = 0.0
    for face in sorted(faces, key=lambda face: -(face.bounds[3] - face.bounds[1])):
        left, low, right, top = face.bounds
        w, h = right - left, top - low
        turned = w > wide or (h < w and h > high)
        if turned:
            w, h = h, w
        if not pages or x + w > wide + 1e-9:
            x, y, row = 0.0, y + row + GAP_M, 0.0
        if not pages or y + h > high + 1e-9:
            pages.append([])
            x = y = row = 0.0
        pages[-1].append((face, x, y, turned))
        x, row = x + w + GAP_M, max(row, h)
    title = f"{name}: paper model 1 : {n}"
    return tuple(_page(placed, title, printed, paper, k + 1, len(pages)) for k, placed in enumerate(pages))


def _on_page(bounds: tuple[float, float, float, float], at: Point, turned: bool, paper_high: float, p: tuple[float, ...]) -> Point:
    """A point of a face on its page [points]; ``at`` is its left top corner in the room of the page."""
    left, low, right, top = bounds
    u, v = (float(p[0]) - left, float(p[1]) - low) if not turned else (top - float(p[1]), float(p[0]) - left)
    high = right - left if turned else top - low
    return (EDGE_M + at[0] + u) * POINTS_PER_M, (paper_high - EDGE_M - HEAD_M - at[1] - high + v) * POINTS_PER_M


def _page(placed: list[tuple[Face, float, float, bool]], title: str, printed: str, paper: tuple[float, float], at: int, of: int) -> Page:
    wide, high = paper[0] * POINTS_PER_M, paper[1] * POINTS_PER_M
    edge = EDGE_M * POINTS_PER_M
    bar = BAR_M * POINTS_PER_M
    shapes: list[Primitive] = [
        Text((edge, high - edge - 8), elided(title, 14, wide - 180), 14, "ink", "head", "left"),
        Text((wide - edge, high - edge - 8), f"{at} of {of}, {printed}", 9, "pencil", anchor="right"),
        Text(
            (edge, high - edge - 24),
            "Cut along full lines, fold along dashed ones, glue each tab under the face named on it.",
            9,
            "pencil",
            anchor="left",
        ),
        line((edge, edge + 6), (edge + bar, edge + 6), "ink", 1.2),
        Text((edge + bar + 6, edge + 6), "100 mm: print at 100 %", 8, "pencil", anchor="left"),
    ]
    for face, x, y, turned in placed:
        on = partial(_on_page, face.bounds, (x, y), turned, paper[1])
        for tab, other in face.tabs:
            shapes.append(Poly(tuple(on(p) for p in tab.exterior.coords), "pencil", "", 0.6))
            a, b = on(tab.exterior.coords[0]), on(tab.exterior.coords[1])
            shapes.append(line(a, b, "ink", 0.8, (4, 3)))
            c = on((tab.centroid.x, tab.centroid.y))
            if math.dist(a, b) > 40:
                shapes.append(Text(c, elided(other, 6, math.dist(a, b) - 10), 6, "pencil"))
        shapes.append(Poly(tuple(on(p) for p in face.outline.exterior.coords), "ink", "", 1.0, id=face.id))
        for hole in face.holes:
            shapes.append(Poly(tuple(on(p) for p in hole.exterior.coords), "ink", "fresh", 0.8, tint=0.25))
        shapes.append(Text(on((face.outline.centroid.x, face.outline.centroid.y)), face.id, 10, "ink", "strong", ground="paper"))
    return Page(wide, high, tuple(shapes), f"{title}, page {at}")
