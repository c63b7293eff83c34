"""What a lift takes up, as it really is: a face with its sticks and openings, the whole body, the frame. Metres, from its foot."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Poly, Primitive, placed, rect
from uncle_sled.core.drawing.rig.rig_views import plan_rig, side_body
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.geometry.ring import corners_of
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.build.lifting import ROOF
from uncle_sled.core.studies.shell.built_sections import sections_of


def hung(s: Studied, what: str, size_m: tuple[float, float]) -> tuple[Primitive, ...]:
    """The thing with its low left corner at nought. Args: what: as of ``liftable``; size_m: as it was reckoned."""
    body = s.framed.body
    if what == "body" and body is not None:
        return placed((*side_body(s.build), *openings_seen(s, "side")), 1.0, -body.front, -body.under)
    if what == "frame":
        rails = [shape for shape in plan_rig(s.build) if getattr(shape, "id", "") in ("frame", "ball")]
        return placed(rails, 1.0, 0.0, size_m[1] / 2)
    if what == ROOF and body is not None:
        slopes = [[surface.place(float(a), float(b)) for a, b in surface.polygon.exterior.coords] for surface in body.of("roof")]
        left, low = min(p[0] for ring in slopes for p in ring), min(p[2] for ring in slopes for p in ring)
        return tuple(Poly(tuple((p[0] - left, p[2] - low) for p in ring[:-1]), "ink", "body", 1.4, id="roof") for ring in slopes)
    section = next((each for each in sections_of(s).sections if each.id == what), None) if body is not None else None
    if section is not None and section.id != section.face and body is not None:
        left, low, _, _ = section.shape.bounds
        sticks = [stick for stick in s.framed.on(section.face) if stick.id in section.members]
        shapes = [Poly(corners_of(section.shape.exterior), "ink", "body", 1.6, id=section.face)]
        shapes += [Poly(stick.outline, "ink", "zinc" if stick.wall_m > 0 else "wood", 0.7, tint=0.5, id=stick.id) for stick in sticks]
        inside = [hole for hole in s.framed.holes_in(section.face) if section.shape.covers(hole.centroid)]
        shapes += [Poly(corners_of(hole.exterior), "ink", "paper", 1.2) for hole in inside]
        return placed(shapes, 1.0, -left, -low)
    surface = next((face for face in body.surfaces if face.id == what), None) if body is not None else None
    return _face(s, surface) if surface is not None else (rect(0.0, 0.0, *size_m, stroke="ink", fill="wood", tint=0.35),)


def _face(s: Studied, surface: Surface) -> tuple[Primitive, ...]:
    shapes: list[Primitive] = [Poly(corners_of(surface.polygon.exterior), "ink", "body", 1.6, id=surface.id)]
    shapes += [
        Poly(stick.outline, "ink", "zinc" if stick.wall_m > 0 else "wood", 0.7, tint=0.5, id=stick.id) for stick in s.framed.on(surface.id)
    ]
    for hole in s.framed.holes_in(surface.id):
        shapes.append(Poly(corners_of(hole.exterior), "ink", "paper", 1.2))
    left, low, _, _ = surface.polygon.bounds
    return placed(shapes, 1.0, -left, -low)


def top_m(shapes: tuple[Primitive, ...]) -> float:
    """How far up it reaches [m]."""
    return max((shape.box[3] for shape in shapes if isinstance(shape, Poly)), default=0.0)
