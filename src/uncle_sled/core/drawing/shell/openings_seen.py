"""Doors and windows as they show on a drawing of what stands inside: quiet outlines, and gaps in the walls in plan."""

from __future__ import annotations

from collections.abc import Iterator

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, line, rect
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Cut
from uncle_sled.core.geometry.surfaces import SIDES, Body
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.reading.studied import Studied

LEAST_M = 0.03  # of a wall whose thickness nobody gave


@keep("s.framed", "s.build.shell", "view", most=4)
def openings_seen(s: Studied, view: str) -> tuple[Primitive, ...]:
    """What is cut into the body, seen from the left (``side``) or from above (``plan``); metres as the rig's."""
    body = s.framed.body
    if body is None:
        return ()
    cuts = [cut for cut in s.framed.cuts if cut.kind != "wheel box"]
    if view == "side":
        return (*_sides(body, cuts), *skin_openings(s))
    return tuple(_plan(s, body, cuts))


def skin_openings(s: Studied) -> tuple[Primitive, ...]:
    """Vents and hatches in roof, nose and tail, as a thick line along the skin."""
    body = s.framed.body
    if body is None:
        return ()
    surfaces = {face.id: face for face in body.surfaces}
    shapes: list[Primitive] = []
    for cut in s.framed.cuts:
        surface = surfaces[cut.surface]
        if cut.kind == "wheel box" or surface.kind not in ("roof", "front", "rear"):
            continue
        left, low, right, high = cut.shape.bounds
        if surface.swept or abs(surface.along[0]) > 0.5:
            points = [surface.place(left + (right - left) * k / 12, (low + high) / 2) for k in range(13)]
        else:
            points = [surface.place((left + right) / 2, t) for t in (low, high)]
        shapes.append(Poly(tuple((p[0], p[2]) for p in points), "zinc" if cut.good else "primer", "", 4.5, closed=False, id=cut.id))
    return tuple(shapes)


def _sides(body: Body, cuts: list[Cut]) -> Iterator[Primitive]:
    for cut in cuts:
        if cut.surface in SIDES:
            points = tuple((body.front + x, body.under + z) for x, z in list(cut.shape.exterior.coords)[:-1])
            far = cut.surface == "right side"
            yield Poly(points, "pencil", "", 0.9, dash=(5, 4) if far else (), id=cut.id)


def _plan(s: Studied, body: Body, cuts: list[Cut]) -> Iterator[Primitive]:
    surfaces = {face.id: face for face in body.surfaces}
    for cut in cuts:
        left, low, right, high = cut.shape.bounds
        surface = surfaces[cut.surface]
        deep = max(thickness_m(s.build.shell, surface.kind), LEAST_M)
        if surface.kind == "roof":
            corners = [surface.place(x, t) for x in (left, right) for t in (low, high)]
            xs, ys = [p[0] for p in corners], [p[1] for p in corners]
            wide, tall = max(xs) - min(xs), max(ys) - min(ys)
            yield rect(min(xs), min(ys), wide, tall, stroke="pencil", fill="", width=0.9, dash=(6, 3), id=cut.id)
        elif surface.swept:  # a bent nose or tail: at the foot of the opening, square to the body
            a, b = surface.place(left, low), surface.place(left, high)
            inward = deep if surface.kind == "front" else -deep
            yield from _gap(cut, (a[0], a[1]), (b[0], b[1]), (inward, 0.0))
        elif surface.kind != "floor":
            a, b = surface.place(left, low), surface.place(right, low)
            yield from _gap(cut, (a[0], a[1]), (b[0], b[1]), (surface.inward[0] * deep, surface.inward[1] * deep))


def _gap(cut: Cut, a: Point, b: Point, inward: Point) -> Iterator[Primitive]:
    """A wall left out between two jambs; a window has its pane, a door nothing."""
    c, d = (b[0] + inward[0], b[1] + inward[1]), (a[0] + inward[0], a[1] + inward[1])
    yield Poly((a, b, c, d), "", "paper", 1.0, id=cut.id)
    yield line(a, d, "ink", 1.8, id=cut.id)
    yield line(b, c, "ink", 1.8, id=cut.id)
    if cut.kind == "window":
        half = (inward[0] / 2, inward[1] / 2)
        yield line((a[0] + half[0], a[1] + half[1]), (b[0] + half[0], b[1] + half[1]), "fresh", 1.6, id=cut.id)
