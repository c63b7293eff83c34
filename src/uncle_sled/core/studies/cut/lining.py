"""What a face of a bought shell is lined with again, as pieces: furring across the posts, foam bay by bay, the liner in sheets.

Furring is cut by openings; foam that is no board, and a liner that comes on rolls, count by area. Source: shop notes, take-off; a
liner's seams stand on furring where there is any, else on posts.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec
from shapely.geometry import LineString, Polygon

from uncle_sled.core.document.shell import Relining
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.surfaces import Surface, net
from uncle_sled.core.materials import TIMBER
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.relining import furring_rows
from uncle_sled.core.studies.cut.piece import Piece, Spread, bar_piece, flat_piece, polygons_of
from uncle_sled.core.studies.cut.skins import LEAST_FILL_M2, LEAST_SKIN_M2, bays_between, panels_of


def lining_pieces(relining: Relining, framed: Framed, library: Library, sheet: tuple[float, float]) -> tuple[list[Piece], list[Spread]]:
    """Pieces and areas of one relining; nothing of a face that is not there or of a stuff that nobody knows."""
    pieces: list[Piece] = []
    spreads: list[Spread] = []
    for surface in framed.body.of(relining.face) if framed.body is not None else ():
        shape = net(surface.polygon, framed.holes_in(surface.id))
        rows = furring_rows(relining, surface, shape)
        pieces += _furring(relining, surface, rows, library)
        made, areas = _foam(relining, surface, shape, framed, library, sheet)
        pieces, spreads = [*pieces, *made], [*spreads, *areas]
        made, areas = _liner(relining, surface, shape, rows, framed, library, sheet)
        pieces, spreads = [*pieces, *made], [*spreads, *areas]
    return [msgspec.structs.replace(piece, lining=True) for piece in pieces], spreads


def _furring(relining: Relining, surface: Surface, rows: Sequence[LineString], library: Library) -> list[Piece]:
    if relining.furring is None:
        return []
    wood, half = library.get(TIMBER), relining.furring.thick.si / 2
    stuff, sides = (wood.name if wood is not None else "Softwood", TIMBER), (relining.furring.thick.si, relining.furring.deep.si)
    made = []
    for k, row in enumerate(rows, 1):
        (left, y), (right, _) = row.coords[0], row.coords[-1]
        place = ((left, y - half), (right, y - half), (right, y + half), (left, y + half))
        made.append(
            bar_piece(f"{surface.id}/{relining.id}-furring/{k}", "furring", surface.id, stuff, sides, float(row.length), place=place)
        )
    return made


def _foam(
    relining: Relining, surface: Surface, shape: Polygon, framed: Framed, library: Library, sheet: tuple[float, float]
) -> tuple[list[Piece], list[Spread]]:
    material = library.get(relining.foam)
    thick = relining.foam_thickness.si if relining.foam_thickness is not None else 0.0
    if material is None or thick <= 0:
        return [], []
    posts = list(framed.on(surface.id))
    bays = bays_between(shape, posts) if posts else [shape]
    if material.form != "fill":
        return [], [Spread(surface.id, material.name, material.form, sum(bay.area for bay in bays), material.id, thick)]
    parts = [part for bay in bays for part, _ in panels_of(bay, sheet, (), ()) if part.area >= LEAST_FILL_M2]
    key = f"{surface.id}/{relining.id}-foam"
    return [
        flat_piece(f"{key}/{k}", f"{surface.id} fill {k}", surface.id, "fill", (material, thick), part, "any")
        for k, part in enumerate(parts, 1)
    ], []


def _liner(
    relining: Relining,
    surface: Surface,
    shape: Polygon,
    rows: Sequence[LineString],
    framed: Framed,
    library: Library,
    sheet: tuple[float, float],
) -> tuple[list[Piece], list[Spread]]:
    material = library.get(relining.liner)
    thick = relining.liner_thickness.si if relining.liner_thickness is not None else 0.0
    if material is None or shape.area <= LEAST_SKIN_M2:
        return [], []
    if material.form != "sheet":
        return [], [Spread(surface.id, material.name, material.form, float(shape.area), material.id, thick)]
    posts = tuple(sorted({round(m.shape.centroid.x, 4) for m in framed.on(surface.id) if not m.along_s}))
    level = tuple(sorted({round(row.coords[0][1], 4) for row in rows}))
    parts = [part for whole in polygons_of(shape) for part, _ in panels_of(whole, sheet, posts, level) if part.area >= LEAST_SKIN_M2]
    key = f"{surface.id}/{relining.id}-liner"
    return [
        flat_piece(f"{key}/{k}", f"{surface.id} liner {k}", surface.id, "sheet", (material, thick), part, "any")
        for k, part in enumerate(parts, 1)
    ], []
