"""Every face laid flat beside the others at full size, for a saw or a router: outlines, sticks, openings and their names.

Where a school has more: lines that part faces into sections, the inside edges of panels by saw tilt and cut back, and under
the faces the outer face of every folded tube with both sides of each cut.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from shapely.geometry import LineString

from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, Text, rect
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.laid import Laid, laid
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.bought_panels import panels
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.studies.shell.seams import joints
from uncle_sled.core.words import Words

GAP_M = 0.6
NAME_MM, TITLE_MM = 30.0, 60.0  # sizes of words: the medium's points are millimetres here


def cut_sheet(s: Studied) -> tuple[Primitive, ...]:
    """The faces in a row [m], left ends on one line. Nothing where there is no body."""
    shapes: list[Primitive] = []
    x, words = 0.0, Words(s.build.brief.reading.shown())
    for surface in s.framed.body.surfaces if s.framed.body else ():
        left, low, right, _ = laid(surface).bounds(surface.polygon.bounds)
        shapes += _face(s.framed, surface, laid(surface, x - left, -low), words)
        x += right - left + GAP_M
    return (*shapes, *_parted(s), *_panel_edges(s), *_tubes(s, words))


def _places(s: Studied) -> dict[str, Laid]:
    """How every face lies in the row."""
    places, x = {}, 0.0
    for surface in s.framed.body.surfaces if s.framed.body else ():
        left, low, right, _ = laid(surface).bounds(surface.polygon.bounds)
        places[surface.id] = laid(surface, x - left, -low)
        x += right - left + GAP_M
    return places


def _parted(s: Studied) -> Iterator[Primitive]:
    """Outlines of the sections."""
    places = _places(s) if s.build.shell.splits else {}
    for section in sections_of(s).sections if places else ():
        points = [(float(x), float(y)) for x, y in list(section.shape.exterior.coords)[:-1]]
        yield Poly(places[section.face].points(points), "ochre", id=section.id)


def _panel_edges(s: Studied) -> Iterator[Primitive]:
    """Where the inner skin of a panel ends, along every edge that is tilted or cut back."""
    if s.build.shell.framing.school != "sandwich panels" or s.framed.body is None:
        return
    places, surfaces = _places(s), {face.id: face for face in s.framed.body.surfaces}
    edges = {(panel.id, edge.other): (edge, panel.thick_m) for panel in panels(s) for edge in panel.edges}
    for joint in joints(s):
        for id, other, runs in ((joint.a, joint.b, joint.on_a), (joint.b, joint.a, joint.on_b)):
            if (id, other) not in edges or id not in surfaces:
                continue
            edge, thick = edges[id, other]
            back = edge.narrower_m + thick * math.tan(math.radians(edge.tilt_deg))
            middle = surfaces[id].polygon.centroid
            for run in runs if back > 0 else ():
                sides = [LineString(run).offset_curve(d) for d in (back, -back)]
                inner = min(sides, key=lambda side: side.distance(middle))
                points = [(float(x), float(y)) for x, y in inner.coords]
                yield Poly(places[id].points(points), "chalk", closed=False, id=id)


def _tubes(s: Studied, words: Words) -> Iterator[Primitive]:
    """The outer face of each folded tube laid straight, under the row of faces; left and right are sawn from one."""
    seen: set[object] = set()
    y = -GAP_M
    for member in s.framed.members:
        if not member.cuts or member.cuts in seen:
            continue
        seen.add(member.cuts)
        wide = member.section_m[0]
        y -= wide
        yield rect(0.0, y, member.length_m, wide, stroke="pencil")
        for cut in member.cuts:
            for at in (cut.at_m - cut.width_mid_m / 2, cut.at_m + cut.width_mid_m / 2):
                yield Poly(((at, y), (at, y + wide)), "pencil", closed=False, id=member.id)
        yield Text((0.0, y + wide + 0.02), f"{member.id}: {words.cut(member.length_m)}, {len(member.cuts)} folds", NAME_MM, anchor="left")
        y -= GAP_M / 2


def _face(framed: Framed, surface: Surface, on: Laid, words: Words) -> Iterator[Primitive]:
    def ring(points: list[Point], ink: str) -> Poly:
        return Poly(on.points(points), ink, id=surface.id)

    def write(text: str, at: Point, size: float) -> Text:
        return Text(at, text, size, anchor="left", id=surface.id)

    left, low, right, high = on.bounds(surface.polygon.bounds)
    yield ring([(float(x), float(y)) for x, y in list(surface.polygon.exterior.coords)[:-1]], "ink")
    for member in framed.on(surface.id):
        yield ring(list(member.outline), "wood")
    for cut in framed.cuts:
        if cut.surface == surface.id and cut.good:
            corners = [(float(x), float(y)) for x, y in list(cut.skin.exterior.coords)[:-1]]
            yield ring(corners, "zinc" if cut.kind == "wheel box" else "primer")
            corner = on.bounds(cut.shape.bounds)
            yield write(cut.name, (corner[0] + 0.02, corner[1] + 0.02), NAME_MM)
    yield write(f"{surface.id}, {words.cut(right - left)} x {words.cut(high - low)}", (left, high + 0.08), TITLE_MM)
