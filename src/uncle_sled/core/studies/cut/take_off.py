"""What has to be cut for the body as it is drawn: sticks, sheets of every layer, fill bay by bay, and areas of what comes on rolls.

A skin is parted where a whole sheet does not reach, at the middle of a stick; where none stands there, that is said.
Skins inside of the frame are taken at the outer outline, as they are cut to fit. Source: shop notes, take-off.
"""

from __future__ import annotations

from collections.abc import Hashable

import msgspec
from shapely import affinity
from shapely.geometry import Polygon

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.bought_shell import BOUGHT, come_in_since
from uncle_sled.core.framing.frame_body import Framed, framed_depth_m
from uncle_sled.core.framing.no_sticks import WITHOUT_STICKS
from uncle_sled.core.framing.sandwich_panels import PANELS
from uncle_sled.core.geometry.surfaces import net
from uncle_sled.core.materials import TIMBER
from uncle_sled.core.parts.all_parts import cabinets_of, framed_of
from uncle_sled.core.parts.face_build import library_of, material_of
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.parts.panel_glue import glued_up
from uncle_sled.core.parts.ridge_sticks import ridge_sticks
from uncle_sled.core.parts.rising import risen_of
from uncle_sled.core.studies.cut.inner_pieces import inner_pieces
from uncle_sled.core.studies.cut.lining import lining_pieces
from uncle_sled.core.studies.cut.panel_pieces import largest_sold_m, layer_pieces, panel_pieces
from uncle_sled.core.studies.cut.piece import Piece, Spread, bar_piece
from uncle_sled.core.studies.cut.skins import LEAST_SKIN_M2, Unbacked, batten_pieces, cladding, fill_pieces, ribbed_pieces, skin_pieces
from uncle_sled.core.studies.cut.sticks import bars_sold_m, frame_bars, parted_bar, stick_pieces, strip_trims, trims_of
from uncle_sled.core.studies.cut.things_cut import bed_pieces, cabinet_boards, carcass, leaf_pieces
from uncle_sled.core.studies.shell.bought_panels import blank_of, sandwiched
from uncle_sled.core.studies.shell.seams import joints_kept
from uncle_sled.core.studies.shell.section_lines import section_lines

SHEET_M = {False: (2.44, 1.22), True: (2.4384, 1.2192)}  # what is sold nearly everywhere; imperial: 8 by 4 feet


SAME_M2 = 2e-5


SAME_LONG_M = 0.0005


LEAST_PART_M = 0.05  # of a stick past the line between two sections


class TakeOff(msgspec.Struct, frozen=True):
    """All of it. unsaid: layers that could not be taken off, and why."""

    pieces: tuple[Piece, ...]
    spreads: tuple[Spread, ...]
    unbacked: tuple[Unbacked, ...]
    unsaid: tuple[str, ...]


def _of_boards(build: Build) -> tuple[Thing, ...]:
    return tuple(
        [thing for thing in build.stow.things if thing.id in build.cut.made or thing.cabinet is not None or thing.base is not None]
    )


def _panel_sizes(build: Build) -> Hashable:
    """Sizes of one's own that a face of panels is parted by."""
    of_panels = build.shell.framing.school == PANELS.name
    return tuple([(size.stuff, size.material, size.length, size.width) for size in build.cut.sizes if of_panels and size.kind == "sheet"])


def _bars(build: Build) -> Hashable:
    return bars_of(build.rig)


@keep(
    *("build.shell", "facts.materials", "build.brief.region"),
    *("build.cut.joint", "build.cut.board.si", by_value("build.cut.made"), by_value("build.cut.made_of"), "build.cut.made_thick.si"),
    framed_of,
    _of_boards,
    by_value(_bars),
    by_value(_panel_sizes),
    most=4,
)
def take_off(build: Build, facts: Facts) -> TakeOff:
    """Everything to cut for a build's body; empty where no body is drawn yet. Of a bought shell only what comes in."""
    shell, framed = build.shell, framed_of(build, facts)
    library = library_of(facts.materials)
    members = come_in_since(shell, framed.members)
    cut = build.cut
    imperial = build.brief.region == "North American"
    pieces = [piece for member in members for piece in stick_pieces(member, library)]
    spreads: list[Spread] = []
    unbacked: list[Unbacked] = []
    unsaid: list[str] = []
    sheet = SHEET_M[build.brief.region == "North American"]
    of_panels, own = shell.framing.school == PANELS.name, {material.id for material in facts.materials}
    met = joints_kept(framed.body) if of_panels and framed.body is not None and framed.body.width > 0 else ()
    for face in shell.faces:
        surfaces = framed.body.of(face.kind) if framed.body is not None else ()
        if of_panels and framed.sizes is not None and sandwiched(face, own):
            try:
                sold = largest_sold_m(face, library, cut, (framed.sizes.sheet_length, framed.sizes.sheet_width))
                for surface in surfaces:
                    blank = blank_of(shell, surface, met)
                    if glued_up(shell):
                        made, areas = layer_pieces(face, surface, blank, library, sheet)
                        pieces, spreads = [*pieces, *made], [*spreads, *areas]
                        continue
                    pieces += panel_pieces(face, surface, framed, blank, library, sold)
            except GeometryError as fault:
                unsaid.append(str(fault))
            continue
        for layer in face.layers:
            try:
                material = material_of(layer, library)
            except GeometryError as fault:
                unsaid.append(str(fault))
                continue
            if material.air:
                for surface in surfaces:
                    pieces += batten_pieces(layer, net(surface.polygon, framed.holes_in(surface.id)), surface.id, library)
                continue
            if not material.form:
                unsaid.append(f"{face.kind}, {material.name}: nobody said whether it comes as sheets, rolls or boards.")
                continue
            for surface in surfaces:
                sheet_like = material.form in ("sheet", "board")
                shape = net(surface.polygon, framed.sawn_in(surface.id) if sheet_like else framed.holes_in(surface.id))
                lines = section_lines(shell, framed, surface)  # skins and fill end with their section
                if material.form == "fill":
                    pieces += fill_pieces(layer, material, lines.parted(shape), framed, framed_depth_m(face, 0.0), sheet, surface.id)
                elif material.form == "sheet" and material.cover_mm is not None:
                    for section in lines.parted(shape):
                        pieces += ribbed_pieces(
                            surface, layer, material, section, sum(p.key.startswith(f"{surface.id}/{layer.id}/") for p in pieces)
                        )
                elif material.form == "sheet":
                    count = 0
                    for section in lines.parted(shape):
                        made, seams = skin_pieces(surface, layer, material, section, framed.on(surface.id), sheet, cut.joint, count)
                        pieces += made
                        unbacked += seams
                        count += len(made)
                elif material.form == "board" and shape.area > LEAST_SKIN_M2:
                    pieces += cladding(surface, layer, material, shape, cut.board.si)
                elif shape.area > LEAST_SKIN_M2:
                    spreads.append(Spread(surface.id, material.name, material.form, float(shape.area), material.id, layer.thickness.si))
    if shell.framing.school not in (BOUGHT.name, PANELS.name, *WITHOUT_STICKS) and framed.body is not None and pieces:
        pieces += [*trims_of(framed.body), *strip_trims(shell, framed.body, pieces, library)]
    for relining in shell.relined:
        lined, areas = lining_pieces(relining, framed, library, sheet)
        pieces += lined
        spreads += areas
    if framed.body is not None and shell.partitions:
        pieces += inner_pieces(shell, framed.body, library, sheet)
    for stick in ridge_sticks(shell, framed.body) if framed.body is not None else ():
        wood = library[TIMBER]
        pieces.append(bar_piece(f"roof/{stick.id}", stick.name.lower(), "roof", (wood.name, TIMBER), stick.section_m, stick.length_m))
    risen = risen_of(shell, framed.body)
    if risen is not None and shell.rising is not None and risen.cloth_m2 > 0 and shell.rising.cloth in library:
        cloth = library[shell.rising.cloth]
        spreads.append(Spread("rising", cloth.name, cloth.form, risen.cloth_m2, cloth.id))
    pieces += frame_bars(build)
    for opening in shell.openings:
        pieces += leaf_pieces(framed, opening, library, sheet)
    made_up = cabinets_of(build, facts)
    for id, cabinet in made_up.items():
        pieces += cabinet_boards(id, cabinet, library)
    for thing in build.stow.things:
        if thing.base is not None and not thing.taken_out:
            pieces += bed_pieces(thing, thing.base, library, sheet)
        if thing.id in cut.made and thing.id not in made_up:
            pieces += carcass(thing, library.get(cut.made_of), cut.made_thick.si)
    marks = _section_marks(shell, framed)
    whole = [
        part
        for piece in _paired(pieces)
        for part in parted_bar(piece, max(bars_sold_m(piece.kg_m is not None, imperial)), cut.joint, marks.get(piece.key, ()))
    ]
    there = {piece.key: piece.length_m for piece in whole}  # one that is parted elsewhere than its mirror image is no pair with it
    alike = [piece.pair is None or abs(there.get(piece.pair, -1.0) - piece.length_m) < SAME_LONG_M for piece in whole]
    whole = [piece if same else msgspec.structs.replace(piece, pair=None) for piece, same in zip(whole, alike, strict=True)]
    return TakeOff(tuple(whole), tuple(spreads), tuple(unbacked), tuple(unsaid))


def _section_marks(shell: Shell, framed: Framed) -> dict[str, tuple[float, ...]]:
    """Of sticks that lie along a face that is parted into sections: where those meet, from the stick's beginning [m]."""
    marks: dict[str, tuple[float, ...]] = {}
    for surface in framed.body.surfaces if framed.body is not None and shell.splits else ():
        lines = section_lines(shell, framed, surface)
        for member in framed.on(surface.id) if lines.at_m else ():
            begin, _, end, _ = member.shape.bounds
            there = lines.along(begin, end, LEAST_PART_M)
            if there and member.along_s and not member.cuts and not member.strips:
                marks[member.id] = there
    return marks


def _paired(pieces: list[Piece]) -> list[Piece]:
    """Pieces of the left and right side that are each other's mirror image know each other, one of one and one of the other."""
    free: dict[tuple[str, str, str, float], list[Piece]] = {}
    for piece in pieces:
        if piece.of == "right side":
            free.setdefault(_alike(piece), []).append(piece)
    pairs: dict[str, str] = {}
    for piece in pieces:
        if piece.of == "left side":
            others = free.get(_alike(piece), [])
            other = next((cut_piece for cut_piece in others if _mirrored(piece, cut_piece)), None)
            if other is not None:
                others.remove(other)
                pairs[piece.key], pairs[other.key] = other.key, piece.key
    return [msgspec.structs.replace(piece, pair=pairs[piece.key]) if piece.key in pairs else piece for piece in pieces]


def _alike(piece: Piece) -> tuple[str, str, str, float]:
    role = piece.name if piece.kind == "bar" else ""
    return piece.kind, role, piece.material, round(piece.length_m, 3)


def _mirrored(piece: Piece, other: Piece) -> bool:
    if abs(piece.area_m2 - other.area_m2) > SAME_M2 or abs(piece.width_m - other.width_m) > 1e-4:
        return False
    if not piece.outline or not other.outline:
        return piece.outline == other.outline
    a, b = Polygon(piece.outline), Polygon(other.outline)
    turned = (affinity.scale(a, -1, 1, origin=(piece.length_m / 2, 0)), affinity.scale(a, 1, -1, origin=(0, piece.width_m / 2)))
    return min(float(b.symmetric_difference(way).area) for way in (a, *turned)) < SAME_M2
