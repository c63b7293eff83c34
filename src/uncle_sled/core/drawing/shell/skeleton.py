"""The body's sticks in three directions, with its faces peeled off one by one from the viewer's side. Points, y up."""

from __future__ import annotations

import itertools
import math

from uncle_sled.core.drawing.primitives import Poly, Primitive, placed
from uncle_sled.core.drawing.three_ways import depth, flat
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied

EDGE = 14.0
MOST_STEPS = 80
STEP_M = 0.12  # a stick or face that is bent is followed in steps as long
Space = tuple[float, float, float]


def near_faces(s: Studied) -> tuple[Surface, ...]:
    """Faces that the viewer sees from outside, the nearest first: the order in which they are peeled off."""
    body = s.framed.body
    if body is None or body.width <= 0:
        return ()
    seen = []
    for face in body.surfaces:
        middle = face.polygon.centroid
        out, inside = face.place(middle.x, middle.y), face.place(middle.x, middle.y, 0.05)
        if depth(out) > depth(inside) + 1e-6 and face.kind != "floor":
            seen.append((depth(out), face))
    return tuple(surface for _, surface in sorted(seen, key=lambda pair: -pair[0]))


def skeleton(s: Studied, peeled: int, wide: float, high: float, chosen: str = "") -> tuple[Primitive, ...]:
    """Far faces as outlines, sticks from the far to the near ones, near faces but the first ``peeled`` over them."""
    body = s.framed.body
    if body is None or body.width <= 0:
        return ()
    near = near_faces(s)
    off = {surface.id for surface in near[:peeled]}
    hides = {surface.id for surface in near} - off
    shapes: list[Primitive] = [
        Poly(tuple(flat(p) for p in ring_of(surface, 0.0)), "rule", "", 1.0) for surface in body.surfaces if surface not in near
    ]
    sticks = [(m, surface) for surface in body.surfaces for m in s.framed.on(surface.id)]
    for member, surface in sorted(sticks, key=lambda pair: depth(pair[0].at_m)):
        shapes += _stick(member, surface, member.id == chosen)
    for face in reversed(near):
        if face.id in hides:
            shapes.append(Poly(tuple(flat(p) for p in ring_of(face, 0.0)), "ink", "paper", 1.2, tint=0.93))
            for hole in s.framed.holes_in(face.id):
                ring = [face.place(float(x), float(y)) for x, y in hole.exterior.coords]
                shapes.append(Poly(tuple(flat(p) for p in ring), "pencil", "", 0.9))
    return fitted(shapes, wide, high)


def fitted(shapes: list[Primitive], wide: float, high: float) -> tuple[Primitive, ...]:
    """A drawing in space as large as its room allows, in its middle. Args: wide, high: of the room [points]."""
    points = [p for shape in shapes if isinstance(shape, Poly) for p in shape.points]
    if not points:
        return ()
    left, right = min(x for x, _ in points), max(x for x, _ in points)
    low, top = min(y for _, y in points), max(y for _, y in points)
    scale = min((wide - 2 * EDGE) / max(right - left, 0.1), (high - 2 * EDGE) / max(top - low, 0.1))
    if scale <= 0:
        return ()
    x0 = (wide - (right - left) * scale) / 2 - left * scale
    return placed(shapes, scale, x0, (high - (top - low) * scale) / 2 - low * scale)


def ring_of(surface: Surface, deep_m: float) -> list[Space]:
    """A face's outline in space [m]. Args: deep_m: moved inward."""
    return _followed(surface, [(float(x), float(y)) for x, y in surface.polygon.exterior.coords], deep_m)


def _followed(surface: Surface, ring: list[tuple[float, float]], deep_m: float) -> list[Space]:
    """A ring of a face in space; where the face is bent in short steps."""
    made: list[Space] = []
    for a, b in itertools.pairwise(ring):
        many = min(max(math.ceil(abs(b[0] - a[0]) / STEP_M), 1), MOST_STEPS) if surface.swept else 1
        made += [surface.place(a[0] + (b[0] - a[0]) * k / many, a[1] + (b[1] - a[1]) * k / many, deep_m) for k in range(many)]
    return made


def _stick(member: Member, surface: Surface, chosen: bool) -> list[Primitive]:
    """A stick as a block: its sides that are seen, then its outer face."""
    ring = [*member.outline, member.outline[0]]
    outer, inner = _followed(surface, list(ring), 0.0), _followed(surface, list(ring), member.section_m[1])
    ink, fill = ("chalk", "chalk") if chosen else ("ink", "zinc" if member.wall_m > 0 else "wood")
    shapes: list[Primitive] = [Poly(tuple(flat(p) for p in inner), ink, fill, 0.6, tint=0.35, id=member.id)]
    n = len(outer)
    quads = [(outer[k], outer[(k + 1) % n], inner[(k + 1) % n], inner[k]) for k in range(n)]
    for quad in sorted(quads, key=lambda q: sum(depth(p) for p in q)):
        shapes.append(Poly(tuple(flat(p) for p in quad), ink, fill, 0.6, tint=0.5, id=member.id))
    front, back = sum(depth(p) for p in outer), sum(depth(p) for p in inner)
    last = outer if front >= back else inner
    shapes.append(Poly(tuple(flat(p) for p in last), ink, fill, 0.8, tint=0.7, id=member.id))
    return shapes
