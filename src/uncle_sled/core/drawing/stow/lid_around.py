"""What stands about a hatch or lid: the body it is cut into or the thing it lies on, ground or floor, and somebody under it.

Metres from the hinge, x the way that the leaf opens.
"""

from __future__ import annotations

import math

from shapely import box
from shapely.geometry import MultiPolygon, Polygon

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.person import tallest_m, upright
from uncle_sled.core.drawing.primitives import Poly, Primitive, line, rect
from uncle_sled.core.drawing.stow.people import sitting
from uncle_sled.core.parts.leaf_side import SLOPING
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.beds import standing_room_m
from uncle_sled.core.studies.stow.hinged import Hinged
from uncle_sled.core.studies.stow.room import room_of

BEHIND_M, AHEAD_M, BESIDE_M = 0.9, 0.5, 0.55  # of the body that is shown, of the ground, and where one stands


def lid_around(s: Studied, leaf: Hinged) -> tuple[Primitive, ...]:
    """All of it; nothing where the leaf does not turn."""
    if leaf.turning is None or not leaf.outline:
        return ()
    opening = next((one for one in s.build.shell.openings if one.id == leaf.id), None)
    if opening is not None:
        return tuple(_hatch(s, leaf, opening))
    thing = next((one for one in s.build.stow.things if one.id == leaf.id), None)
    return tuple(_lid(s, leaf, thing)) if thing is not None else ()


def _hatch(s: Studied, leaf: Hinged, opening: Opening) -> list[Primitive]:
    body = s.framed.body
    cut = next((one for one in s.framed.cuts if one.id == opening.id and one.good), None)
    if body is None or cut is None:
        return []
    surface = next(face for face in body.surfaces if face.id == cut.surface)
    s0, t0, s1, t1 = cut.shape.bounds
    if surface.chain is not None:
        ends = [surface.place(s0, (t0 + t1) / 2), surface.place(s1, (t0 + t1) / 2)]
        head, foot = max(ends, key=lambda p: p[2]), min(ends, key=lambda p: p[2])
    else:
        head, foot = surface.place((s0 + s1) / 2, t1), surface.place((s0 + s1) / 2, t0)
    outer, inner = (surface.place((s0 + s1) / 2, (t0 + t1) / 2, deep) for deep in (0.0, 0.01))
    outward = ((outer[0] - inner[0]) / 0.01, (outer[1] - inner[1]) / 0.01)
    way = outward if math.hypot(*outward) > SLOPING else (foot[0] - head[0], foot[1] - head[1])
    lengthways = surface.swept or abs(way[0]) >= abs(way[1])
    sign = math.copysign(1.0, way[0] if lengthways else way[1])
    origin = head[0] if lengthways else head[1]
    if lengthways:
        whole = Polygon([((float(x) - origin) * sign, float(z) - head[2]) for x, z in body.side.polygon])
    else:  # from the end: as wide as it is, as high as its highest
        half, top = body.width / 2, max(float(z) for _, z in body.side.polygon)
        left, right = sorted(((-half - origin) * sign, (half - origin) * sign))
        whole = box(left, body.under - head[2], right, top - head[2])
    reach = max(x for x, _ in leaf.outline)
    near = whole.buffer(0).intersection(box(-BEHIND_M, -head[2], reach + 10.0, 10.0))
    parts = list(near.geoms) if isinstance(near, MultiPolygon) else [near]
    shapes: list[Primitive] = [
        Poly(tuple((float(x), float(z)) for x, z in list(part.exterior.coords)[:-1]), "pencil", "body", 1.2, hatch="", tint=1.0)
        for part in parts
        if isinstance(part, Polygon) and not part.is_empty
    ]
    edge = max([reach, *(float(p.bounds[2]) for p in parts if not p.is_empty)])
    shapes.append(line((-BEHIND_M, -head[2]), (edge + BESIDE_M + AHEAD_M, -head[2]), "ink", 1.4))
    shapes += upright(edge + BESIDE_M * 0.6, -head[2], tallest_m(s.facts))
    return shapes


def _lid(s: Studied, leaf: Hinged, thing: Thing) -> list[Primitive]:
    long = max(x for x, _ in leaf.outline)
    high = thing.height.si
    room = room_of(s.build, s.facts)
    floor = room.floor_m - (thing.z.si + high) if room is not None else -high
    shapes: list[Primitive] = [
        rect(0.0, -high, long, high, stroke="pencil", fill="body", width=1.2),
        line((-BEHIND_M / 2, floor), (long + BESIDE_M + AHEAD_M, floor), "ink", 1.4),
    ]
    tall, free = tallest_m(s.facts), standing_room_m(s.build, s.facts)
    at = long + BESIDE_M * 0.7
    return [*shapes, *(upright(at, floor, tall) if free is None or free >= tall * 0.9 else sitting(at, floor, tall, "pencil", ""))]
