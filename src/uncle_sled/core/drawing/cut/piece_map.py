"""The body with its faces laid flat, to find a piece on: every face in its colour, chosen pieces in chalk."""

from __future__ import annotations

from collections.abc import Container
from functools import partial

from uncle_sled.core.drawing.cut.look import look_of_face
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.laid import Laid, laid
from uncle_sled.core.studies.cut.numbers import Numbers

GAP, TITLE, EDGE = 14.0, 14.0, 10.0
Point = tuple[float, float]


def piece_map(
    framed: Framed, numbers: Numbers, marked: Container[str], wide: float, high: float, kinds: Container[str] = ("bar", "sheet", "trim")
) -> tuple[Primitive, ...]:
    """Faces in rows, as large as they fit. Args: marked: keys of pieces; kinds: which pieces lie there to be pointed at."""
    if framed.body is None:
        return ()
    surfaces = framed.body.surfaces
    sizes = {}
    for surface in surfaces:
        left, low, right, top = laid(surface).bounds(surface.polygon.bounds)
        sizes[surface.id] = (left, low, right - left, top - low)
    order = sorted(surfaces, key=lambda face: -sizes[face.id][3])
    scale, rows = _packed([(face.id, sizes[face.id][2], sizes[face.id][3]) for face in order], wide - 2 * EDGE, high - 2 * EDGE)
    pieces: dict[str, list[tuple[str, tuple[tuple[float, float], ...], str]]] = {}
    for named in numbers.named:
        piece = named.piece
        if piece.kind in kinds or piece.key in marked:
            kind = "board" if piece.cladding else piece.kind
            pieces.setdefault(piece.of, []).append((piece.key, piece.place, kind))
    shapes: list[Primitive] = []
    by_id = {surface.id: surface for surface in surfaces}
    y = high - EDGE
    for row in rows:
        tallest = max(sizes[id][3] for id in row) * scale
        x = EDGE
        for id in row:
            left, low, w, _ = sizes[id]
            at = partial(_at, laid(by_id[id]), (left, low), (x, y - TITLE - tallest), scale)
            ink, hatch = look_of_face(id)
            ring = tuple((float(a), float(b)) for a, b in list(by_id[id].polygon.exterior.coords)[:-1])
            shapes.append(Text((x, y - 6), elided(id, 10, max(w * scale + GAP, 40)), 10, "pencil", anchor="left"))
            shapes.append(Poly(at(ring), "ink", ink, 1.2, hatch=hatch, tint=0.14))
            lit = []
            for key, place, kind in sorted(pieces.get(id, []), key=lambda one: {"board": 0, "sheet": 0, "fill": 1}.get(one[2], 2)):
                if len(place) < 2:
                    continue
                if key in marked:
                    lit.append(Poly(at(place), "chalk", "chalk" if len(place) > 2 else "", 2.4, len(place) > 2, id=key, tint=0.45))
                elif kind == "bar" and len(place) > 2:
                    shapes.append(Poly(at(place), "pencil", "body", 0.7, id=key))
                elif kind == "board":
                    shapes.append(Poly(at(place), "rule", "", 0.5, id=key))
                elif kind == "sheet":
                    shapes.append(Poly(at(place), "pencil", "", 0.6, id=key))
            shapes += lit
            x += w * scale + GAP
        y -= tallest + TITLE + 4
    return tuple(shapes)


def _at(on: Laid, corner: Point, foot: Point, scale: float, points: tuple[Point, ...]) -> tuple[Point, ...]:
    """Where points of a face lie on the map: its corner at this foot."""
    return tuple((foot[0] + (px - corner[0]) * scale, foot[1] + (py - corner[1]) * scale) for px, py in on.points(list(points)))


def _packed(boxes: list[tuple[str, float, float]], wide: float, high: float) -> tuple[float, list[list[str]]]:
    """The largest scale at which boxes stand in rows, and the rows; found by halving."""
    low, top = 1.0, 400.0
    best = (low, [[id for id, _, _ in boxes]])
    for _ in range(24):
        scale = (low + top) / 2
        rows, need = _rows(boxes, scale, wide)
        if rows is not None and need <= high:
            best, low = (scale, rows), scale
        else:
            top = scale
    return best


def _rows(boxes: list[tuple[str, float, float]], scale: float, wide: float) -> tuple[list[list[str]] | None, float]:
    rows: list[list[str]] = []
    need, x, tallest = 0.0, wide + 1, 0.0
    for id, w, h in boxes:
        if w * scale > wide:
            return None, 0.0
        if x + w * scale > wide:
            need += tallest + TITLE + 4 if rows else 0.0
            rows.append([])
            x, tallest = 0.0, 0.0
        rows[-1].append(id)
        x += w * scale + GAP
        tallest = max(tallest, h * scale)
    return rows, need + tallest + TITLE + 4
