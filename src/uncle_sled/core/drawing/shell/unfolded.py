"""The body unfolded, face beside face to one scale; joints, sections or panels drawn on it. Points, y up."""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.drawing.primitives import Circle, Point, Poly, Primitive, Text, line
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.geometry.laid import laid
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bought_panels import PanelCut
from uncle_sled.core.studies.shell.built_sections import Sections
from uncle_sled.core.studies.shell.seams import Seam, joints, runs_over
from uncle_sled.core.words import Words

EDGE, GAP, TITLE = 12.0, 18.0, 15.0
NAME = 40.0  # the least that a face's name has
Box = tuple[float, float, float, float]


class Unfolded(msgspec.Struct, frozen=True):
    """Where every surface lies: points a metre, and the place of its origin."""

    scale: float
    surfaces: dict[str, Surface]
    places: dict[str, Point]
    corners: dict[str, Point]  # left top, under its name

    def on(self, id: str, p: tuple[float, ...]) -> Point:
        """Where a place of a face lies on the drawing [points]. Raises: KeyError: no such face."""
        a, b = laid(self.surfaces[id]).point((float(p[0]), float(p[1])))
        dx, dy = self.places[id]
        return a * self.scale + dx, b * self.scale + dy


def unfold(s: Studied, wide: float, high: float) -> Unfolded | None:
    """The faces in rows, as large as they fit; None without a body or without room."""
    body = s.framed.body
    if body is None or body.width <= 0:
        return None
    boxes = {face.id: laid(face).bounds(face.polygon.bounds) for face in body.surfaces}
    low, top = 0.0, 400.0
    for _ in range(22):
        scale = (low + top) / 2
        low, top = (scale, top) if _rows(boxes, scale, wide, high) is not None else (low, scale)
    corners = _rows(boxes, low, wide, high) if low > 0.5 else None
    if corners is None:
        return None
    places = {
        id: (x - boxes[id][0] * low, y - TITLE - (boxes[id][3] - boxes[id][1]) * low - boxes[id][1] * low) for id, (x, y) in corners.items()
    }
    return Unfolded(low, {face.id: face for face in body.surfaces}, places, corners)


def _rows(boxes: dict[str, Box], scale: float, wide: float, high: float) -> dict[str, Point] | None:
    """Left top corner of each at a scale; None where they do not fit."""
    x, y, tall = EDGE, high - EDGE, 0.0
    made: dict[str, Point] = {}
    for id, (a, b, c, d) in boxes.items():
        w, h = max((c - a) * scale, NAME), (d - b) * scale + TITLE
        if x + w > wide - EDGE and x > EDGE:
            x, y, tall = EDGE, y - tall - GAP, 0.0
        if x + w > wide - EDGE or y - h < EDGE:
            return None
        made[id] = (x, y)
        x, tall = x + w + GAP, max(tall, h)
    return made


def _faces(s: Studied, at: Unfolded) -> list[Primitive]:
    shapes: list[Primitive] = []
    for id, face in at.surfaces.items():
        x, y = at.corners[id]
        box = laid(face).bounds(face.polygon.bounds)
        shapes.append(Text((x, y - 7), elided(id, 11, max((box[2] - box[0]) * at.scale, NAME)), 11, "pencil", anchor="left"))
        shapes.append(Poly(tuple(at.on(id, p) for p in face.polygon.exterior.coords), "rule", "paper", 1.0))
        for hole in s.framed.holes_in(id):
            shapes.append(Poly(tuple(at.on(id, p) for p in hole.exterior.coords), "pencil", "", 0.8))
    return shapes


def ink_of(seam: Seam) -> str:
    """The ink of a seam: by what it keeps out, and whether it is made."""
    if runs_over(seam.joint):
        return "rule"
    return "primer" if not seam.water else "ochre" if not seam.air else "chalk"


def seams_drawn(s: Studied, made: tuple[Seam, ...], chosen: str, wide: float, high: float) -> tuple[Primitive, ...]:
    """Every joint on both faces that it parts: red where nothing keeps water out, ochre where air gets by."""
    at = unfold(s, wide, high)
    if at is None:
        return ()
    shapes = _faces(s, at)
    for seam in sorted(made, key=lambda seam: seam.id == chosen):
        for id, runs in ((seam.joint.a, seam.joint.on_a), (seam.joint.b, seam.joint.on_b)):
            for run in runs if id in at.surfaces else ():
                points = tuple(at.on(id, p) for p in run)
                shapes.append(Poly(points, ink_of(seam), "", 5.0 if seam.id == chosen else 2.4, closed=False, id=seam.id))
    return tuple(shapes)


def sections_drawn(s: Studied, made: Sections, chosen: str, words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Every section with its order, weight, centre of gravity and picks."""
    at = unfold(s, wide, high)
    if at is None:
        return ()
    shapes = _faces(s, at)
    for section in made.sections:
        on = section.id == chosen
        points = tuple(at.on(section.face, p) for p in section.shape.exterior.coords)
        shapes.append(Poly(points, "chalk" if on else "ink", "chalk" if on else "", 2.6 if on else 1.4, tint=0.12, id=section.id))
        x, y = at.on(section.face, section.centre)
        room = min(section.size_m[0], section.size_m[1]) * at.scale
        shapes.append(Circle((x, y), 2.5, "primer", "primer"))
        shapes.append(Text((x, y + (10 if room > 30 else 0)), str(section.order), 11, "ink", "strong", ground="paper" if room > 30 else ""))
        if section.mass_kg is not None and room > 46:
            shapes.append(Text((x, y - 12), words.kg(section.mass_kg), 10, "ink", ground="paper"))
        for pick in section.picks if room > 30 else ():
            a, b = at.on(section.face, pick)
            shapes.append(Poly(((a, b), (a - 4, b - 7), (a + 4, b - 7)), "chalk", "chalk", 1.0))
    return tuple(shapes)


def panels_drawn(s: Studied, made: tuple[PanelCut, ...], chosen: str, _words: Words, wide: float, high: float) -> tuple[Primitive, ...]:
    """Every panel with the saw's tilt at its edges; what is cut back is dashed inside."""
    at = unfold(s, wide, high)
    if at is None:
        return ()
    shapes = _faces(s, at)
    tilts = {(panel.id, edge.other): edge for panel in made for edge in panel.edges}
    for joint in joints(s):
        for id, other, runs in ((joint.a, joint.b, joint.on_a), (joint.b, joint.a, joint.on_b)):
            edge = tilts.get((id, other))
            if edge is None or id not in at.surfaces:
                continue
            for run in runs:
                points = tuple(at.on(id, p) for p in run)
                ink = "chalk" if edge.tilt_deg > 0.5 else "ochre" if edge.narrower_m > 0 else "ink"
                shapes.append(Poly(points, ink, "", 4.0 if id == chosen else 2.2, closed=False))
                a, b = points[0], points[-1]
                left, low, right, high = at.surfaces[id].polygon.bounds
                roomy = min(right - left, high - low) * at.scale > 34 and math.dist(a, b) > 44
                if edge.tilt_deg > 0.5 and roomy:
                    shapes.append(
                        Text(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), f"{edge.tilt_deg:.1f}°", 10, "chalk", "strong", ground="paper")
                    )
    for panel in made:
        if panel.fault and panel.id in at.surfaces:
            x, y = at.on(panel.id, at.surfaces[panel.id].polygon.centroid.coords[0])
            shapes.append(line((x - 8, y - 8), (x + 8, y + 8), "primer", 2.0))
            shapes.append(line((x - 8, y + 8), (x + 8, y - 8), "primer", 2.0))
    return tuple(shapes)
