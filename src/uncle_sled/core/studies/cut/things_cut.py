"""Boards of cabinets and beds, and what a door or hatch of one's own is made of."""

from __future__ import annotations

from shapely import box
from shapely.geometry import Polygon

from uncle_sled.core.document.joinery import BedBase
from uncle_sled.core.document.shell import Opening
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.materials import TIMBER, Material
from uncle_sled.core.parts.cabinet import polygons
from uncle_sled.core.parts.cabinet_cut import Fitted
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.studies.cut.piece import Piece, bar_piece, flat_piece
from uncle_sled.core.studies.cut.skins import panels_of, panels_one_way
from uncle_sled.core.studies.cut.wanted import Grain

MOST_SLATS = 80  # of one bed


def carcass(thing: Thing, material: Material | None, thick_m: float) -> list[Piece]:
    """A cabinet of one's own: two ends, bottom, top, back and front, ends running through.

    Source: shop rule; shelves and how a front is parted into doors is for the builder.
    """
    if material is None:
        return []
    long, deep, high = thing.length.si, thing.width.si, thing.height.si
    inner = long - 2 * thick_m
    sizes = (
        ("end", deep, high, 2),
        ("bottom", inner, deep, 1),
        ("top", inner, deep, 1),
        ("back", inner, high - 2 * thick_m, 1),
        ("front", long, high, 1),
    )
    made = []
    for name, wide, tall, many in sizes:
        for k in range(many):
            if min(wide, tall) > thick_m:
                key = f"{thing.id}/{name}" + (f"/{k + 1}" if many > 1 else "")
                shape = box(0, 0, wide, tall)
                made.append(flat_piece(key, f"{thing.name} {name}", thing.id, "sheet", (material, thick_m), shape, "any", ()))
    return made


def bed_pieces(thing: Thing, base: BedBase, library: Library, sheet: tuple[float, float]) -> list[Piece]:
    """What carries a mattress: its board or slats along the bed, and the bearers across under them where their size is said.

    Slats and bearers are of softwood; a board is of the sheet that was said.
    """
    long, deep = max(thing.length.si, thing.width.si), min(thing.length.si, thing.width.si)
    material, wood = library.get(base.material), library.get(TIMBER)
    if min(long, deep) <= 0:
        return []
    made: list[Piece] = []

    def sticks(role: str, many: int, length_m: float, section_m: tuple[float, float]) -> None:
        stuff = (wood.name if wood is not None else "Softwood", TIMBER)
        name = f"{thing.name} {role}"
        made.extend(bar_piece(f"{thing.id}/{role}/{k + 1}", name, thing.id, stuff, section_m, length_m) for k in range(many))

    if base.kind == "slats":
        many = int((deep + base.gap.si) / max(base.slat.si + base.gap.si, 1e-3))
        sticks("slat", min(many, MOST_SLATS), long, (base.slat.si, base.thick.si))
    elif material is not None:
        parts = [part for part, _ in panels_of(box(0, 0, long, deep), sheet, (), ())]  # a board larger than a sheet is parted
        for k, part in enumerate(parts, 1):
            key, name = (
                (f"{thing.id}/base", f"{thing.name} base") if len(parts) == 1 else (f"{thing.id}/base/{k}", f"{thing.name} base {k}")
            )
            made.append(flat_piece(key, name, thing.id, "sheet", (material, base.thick.si), part, "any", ()))
    if base.bearer_thick is not None and base.bearer_deep is not None and base.bearers:
        sticks("bearer", base.bearers, deep, (base.bearer_deep.si, base.bearer_thick.si))
    return made


def cabinet_boards(id: str, fitted: Fitted, library: Library) -> list[Piece]:
    """Every board of a cabinet as it is built in; what a wheel box parts is two pieces."""
    made = []
    for board in fitted.boards:
        whole = polygons(board.shape)
        for k, shape in enumerate(whole, 1):
            key = f"{id}/{board.id}" + (f"/{k}" if len(whole) > 1 else "")
            made.append(flat_piece(key, f"{fitted.name} {board.kind}", id, "sheet", (library[board.material], board.thick), shape, "any"))
    return made


def leaf_pieces(framed: Framed, opening: Opening, library: Library, sheet: tuple[float, float]) -> list[Piece]:
    """A door or hatch of one's own: its sticks, ribs, skins and foam. A skin larger than a sheet is parted over its sticks."""
    made = leaf_in(framed, opening, library)
    pieces: list[Piece] = []
    for piece in made.pieces if made is not None else ():
        material = library[piece.material]
        for k in range(piece.many):
            key = f"{opening.id}/{piece.name}" + (f"/{k + 1}" if piece.many > 1 else "")
            name = f"{opening.name} {piece.name}"
            if piece.kind == "bar":
                section_m, stuff = (piece.width_m, piece.thick_m), (material.name, material.id)
                area_m2 = piece.length_m * piece.width_m
                pieces.append(bar_piece(key, name, opening.id, stuff, section_m, piece.length_m, area_m2=area_m2))
            else:
                kind = "sheet" if piece.kind == "sheet" else "fill"
                shape = Polygon(piece.outline) if piece.outline else box(0, 0, piece.length_m, piece.width_m)
                bends = piece.backed_m is not None
                # a bent skin has its grain across the curve: so far along the curve as a sheet is wide, and across as it is long
                parts = panels_one_way(shape, min(sheet), max(sheet), *(piece.backed_m or ((), ()))) if bends else [shape]
                grain: Grain = "across" if bends else "any"  # skins bend the easy way, across their grain
                for n, part in enumerate(parts, 1):
                    at = (key, name) if len(parts) == 1 else (f"{key}/part {n}", f"{name}, part {n}")
                    pieces.append(_leaf_sheet(*at, opening.id, kind, (material, piece.thick_m), part, grain))
    return pieces


def _leaf_sheet(key: str, name: str, of: str, kind: str, stuff: tuple[Material, float], shape: Polygon, across: Grain) -> Piece:
    """A sheet of a leaf; the grain of a bent skin runs across the curve, which lies along x."""
    left, low, right, high = shape.bounds
    turned = high - low > right - left  # it is laid along its longer side
    grain: Grain = across if across == "any" else "along" if turned else "across"
    return flat_piece(key, name, of, kind, stuff, shape, grain, ())
