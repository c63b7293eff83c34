"""Faces of bought sandwich panels as what is cut: one piece of the panel's whole thickness, with its holes.

Nothing of what the panel is made of is bought beside it. A face larger than the panel that is sold is put together of parts;
a strip of aluminium goes over each such joint, outside and inside. Source: shell notes, bought panels.
"""

from __future__ import annotations

import math

import msgspec
from shapely import affinity
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.cut import Cut
from uncle_sled.core.document.shell import Face
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.framing.sandwich_panels import ALUMINIUM
from uncle_sled.core.geometry.surfaces import Surface, net
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.face_build import Library, material_of
from uncle_sled.core.studies.cut.piece import Piece, Spread, bar_piece, flat_piece
from uncle_sled.core.studies.cut.skins import LEAST_SKIN_M2, panels_of

STRIP_M = (0.060, 0.002)  # over a joint within a face
LEAST_SHEET_M, MOST_PARTS = 0.3, 200
BOND_H_M = 0.15  # sawing, degreasing, gluing and riveting a metre of edge


def panel_material(face: Face, library: Library) -> tuple[Material, float]:
    """The panel of a face as one material in one thickness, and that thickness [m].

    Raises: GeometryError: a layer of no known material, or of no thickness where it wants one.
    """
    of = [(material_of(layer, library), layer.thickness.si) for layer in face.layers]
    thick = sum(thickness for _, thickness in of)
    outer = of[0][0]
    core = max(of[1:-1] or of, key=lambda pair: pair[1])[0]
    name = f"{outer.name} and {core.name} panel {thick * 1e3:.4g} mm" if len(of) > 1 else outer.name
    made = msgspec.structs.replace(
        outer,
        name=name,
        density_kg_m3=None,
        kg_m2=sum(material.weight_kg_m2(thickness) for material, thickness in of),
        money_m2=sum(material.price_m2(thickness) for material, thickness in of),
        form="sheet",
        bends="sandwich",
    )
    return made, thick


def largest_sold_m(face: Face, library: Library, cut: Cut, usual_m: tuple[float, float]) -> tuple[float, float]:
    """Long and wide of the largest panel of a face's make: as it is sold, or as the builder has it or can buy it."""
    material, thick = panel_material(face, library)
    stuff = f"{material.id} {thick * 1e3:.1f}"
    sizes = [
        (size.length.si, size.width.si)
        for size in cut.sizes
        if size.kind == "sheet" and size.width is not None and (size.stuff == stuff if size.stuff else size.material == material.name)
    ]
    return max(sizes, key=lambda size: size[0] * size[1], default=usual_m)


def panel_pieces(
    face: Face, surface: Surface, framed: Framed, blank: Polygon, library: Library, sold_m: tuple[float, float]
) -> list[Piece]:
    """One face's panel, in parts where none so large is sold. Args: blank: as it is cut outside; sold_m: long and wide of one as sold.

    Raises: GeometryError: panels so small that nobody would build of them.
    """
    material, thick = panel_material(face, library)
    left, low, right, high = blank.bounds
    many = math.ceil((right - left) / max(min(sold_m), 1e-9)) * math.ceil((high - low) / max(max(sold_m), 1e-9))
    if min(sold_m) < LEAST_SHEET_M or many > MOST_PARTS:
        sold = f"{{{sold_m[0] * 1e3:.0f} mm}} x {{{sold_m[1] * 1e3:.0f} mm}}"
        raise GeometryError(f"{surface.id}: panels of {sold} would make over {MOST_PARTS} parts of it, or are too small to build of.")
    shape: BaseGeometry = net(blank, framed.sawn_in(surface.id))
    if shape.area < LEAST_SKIN_M2:
        return []
    parts = [part for part, _ in panels_of(shape, sold_m, (), ()) if part.area > LEAST_SKIN_M2]
    made: list[Piece] = []
    for k, part in enumerate(parts, 1):
        key, name = (
            (f"{surface.id}/panel", f"{surface.id} panel") if len(parts) == 1 else (f"{surface.id}/panel {k}", f"{surface.id} panel {k}")
        )
        piece = flat_piece(key, name, surface.id, "sheet", (material, thick), part, "any")
        bond = BOND_H_M * part.exterior.length
        made.append(msgspec.structs.replace(piece, sold_m=sold_m, money_m2=material.money_m2, hours=bond))
    return made + _strips(surface, parts)


def _strips(surface: Surface, parts: list[Polygon]) -> list[Piece]:
    """A strip over each joint of two parts, outside and inside."""
    made: list[Piece] = []
    for k, first in enumerate(parts):
        for second in parts[k + 1 :]:
            long = first.intersection(second).length
            if long > STRIP_M[0]:
                for side in ("outside", "inside"):
                    key = f"{surface.id}/joining strip/{len(made) + 1}"
                    strip = bar_piece(key, f"joining strip {side}", surface.id, ("Aluminium strip", ALUMINIUM.id), STRIP_M, long)
                    made.append(msgspec.structs.replace(strip, kg_m=2700.0 * STRIP_M[0] * STRIP_M[1]))
    return made


def layer_pieces(
    face: Face, surface: Surface, blank: Polygon, library: Library, sheet: tuple[float, float]
) -> tuple[list[Piece], list[Spread]]:
    """Skins and core of a panel that is glued up by oneself, layer by layer, rolls by area; holes are sawn when it has cured.

    Seams of one layer never lie over those of the next: every second layer is parted from its other end.
    Raises: GeometryError: a layer of no known material.
    """
    made: list[Piece] = []
    spreads: list[Spread] = []
    left, low, right, high = blank.bounds
    for number, layer in enumerate(face.layers):
        material = material_of(layer, library)
        if material.form not in ("sheet", "fill", "board"):
            spreads.append(Spread(surface.id, material.name, material.form, float(blank.area), material.id, layer.thickness.si))
            continue
        turned = affinity.rotate(blank, 180, origin=((left + right) / 2, (low + high) / 2)) if number % 2 else blank
        parts = [part for part, _ in panels_of(turned, sheet, (), ()) if part.area > LEAST_SKIN_M2]
        kind = "fill" if material.form == "fill" else "sheet"
        for k, part in enumerate(parts, 1):
            back = affinity.rotate(part, 180, origin=((left + right) / 2, (low + high) / 2)) if number % 2 else part
            name = f"{surface.id} {'core' if kind == 'fill' else 'skin'} {number + 1}, {k}"
            made.append(flat_piece(f"{surface.id}/{layer.id}/{k}", name, surface.id, kind, (material, layer.thickness.si), back, "any"))
    return made, spreads
