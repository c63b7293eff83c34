"""Sticks, strips, steel and edge trims as bars to cut, parted where sections meet and where no bar that is sold is as long."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import msgspec
import numpy as np
from shapely import box
from shapely.geometry import Polygon

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.framing.member import Member, steel_share
from uncle_sled.core.framing.sandwich_panels import ALUMINIUM, angle_kg_m
from uncle_sled.core.geometry.surfaces import SIDES, Body
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.sections import KG_M3, tube_kg_m
from uncle_sled.core.studies.cut.piece import SCARF, Piece, flat_piece, ring_of
from uncle_sled.core.studies.cut.sheet_seams import line_of, long_m, runs_between, seam_id, sheets_of
from uncle_sled.core.studies.cut.wanted import ring_area_m2

METAL_M = {False: (6.0,), True: (6.096, 7.3152)}  # imperial: 20 and 24 feet


STRIP_OVER_M = 0.05  # a strip is cut longer by that at each end, and trimmed when the rib is glued


BARS_M = {False: (2.4, 3.0, 3.6, 4.8), True: (2.4384, 3.048, 3.6576, 4.8768)}  # imperial: 8, 10, 12, 16 feet


LEAST_TRIM_M = 0.1


def parted_bar(piece: Piece, longest_m: float, joint: str, at_m: Sequence[float] = ()) -> list[Piece]:
    """A stick that runs over into the next section is parted there; one longer than any bar that is sold into equal parts.

    Scarfed ones lap by eight times their thickness, where no section ends. Args: at_m: from its beginning, where sections meet.
    Source: shop rule, 8 to 1 scarf. A butt is to be backed by a plate of the same wood, eight times as long as thick a side.
    """
    if piece.kind not in ("bar", "trim") or (piece.length_m <= longest_m and not at_m):
        return [piece]
    joint = "butt" if piece.kg_m is not None or at_m else joint  # metal is welded end to end
    lap = SCARF * piece.thickness_m if joint == "scarf" and piece.kind == "bar" else 0.0
    spans: list[tuple[float, float]] = []  # beginning and length of every part
    for low, high in pairwise((0.0, *at_m, piece.length_m)):
        many = max(int(np.ceil((high - low - lap) / (longest_m - lap) - 1e-9)), 1)
        each = (high - low + lap * (many - 1)) / many
        spans += [(low + k * (each - lap), each) for k in range(many)]
    told = f"{joint} of {len(spans)}" if piece.kind == "bar" else f"in {len(spans)}"
    made = []
    for k, (begin, each) in enumerate(spans):
        last = k == len(spans) - 1
        mine = [notch for notch in piece.notches if begin - 1e-6 <= notch.at_m < (np.inf if last else begin + each)]
        made.append(
            msgspec.structs.replace(
                piece,
                key=f"{piece.key}/part {k + 1}",
                length_m=each,
                ends_deg=(piece.ends_deg[0] if k == 0 else 0.0, piece.ends_deg[1] if last else 0.0),
                pair=f"{piece.pair}/part {k + 1}" if piece.pair else None,
                joined=told,
                area_m2=piece.area_m2 * each / sum(long for _, long in spans),
                notches=tuple(msgspec.structs.replace(notch, at_m=round(max(notch.at_m - begin, 0.0), 6)) for notch in mine),
                place=_place_of(piece.place, begin, each),
            )
        )
    return made


def _place_of(place: tuple[tuple[float, float], ...], begin_m: float, long_m: float) -> tuple[tuple[float, float], ...]:
    """Where a part of a straight stick lies; of one that is bent or slanted the whole stick's place."""
    if len(place) < 3:
        return place
    whole = Polygon(place)
    left, low, right, high = whole.bounds
    if not whole.is_valid or whole.area < 0.6 * (right - left) * (high - low):
        return place
    upright = high - low > right - left
    a, b = (low, high) if upright else (left, right)
    window = (
        box(left, a + begin_m, right, min(a + begin_m + long_m, b))
        if upright
        else box(a + begin_m, low, min(a + begin_m + long_m, b), high)
    )
    part = whole.intersection(window)
    return ring_of(part) if isinstance(part, Polygon) and not part.is_empty else place


def trims_of(body: Body) -> list[Piece]:
    """Edge profiles over the joints that rain runs over: along the roof's edges and down the upright corners."""
    made: list[Piece] = []
    for surface in body.surfaces:
        if surface.kind not in SIDES:
            continue
        for k, edge in enumerate(surface.roof_edges, 1):
            ring = tuple((float(x), float(y)) for x, y in edge.coords)
            made.append(_trim(f"{surface.id}/trim/roof {k}", surface.id, float(edge.length), ring))
        x0, y0, x1, y1 = surface.polygon.bounds
        for k, x in enumerate((x0, x1), 1):
            run = surface.polygon.exterior.intersection(box(x - 1e-6, y0 - 1, x + 1e-6, y1 + 1))
            if run.length > LEAST_TRIM_M:
                made.append(_trim(f"{surface.id}/trim/corner {k}", surface.id, run.bounds[3] - run.bounds[1], ((x, y0), (x, y1))))
    return made


def _trim(key: str, of: str, length_m: float, ring: tuple[tuple[float, float], ...]) -> Piece:
    return Piece(
        key,
        "edge trim",
        of=of,
        kind="trim",
        material="Edge trim",
        thickness_m=0.0,
        length_m=length_m,
        width_m=0.0,
        grain="any",
        area_m2=0.0,
        place=ring,
    )


def bars_sold_m(metal: bool, imperial: bool) -> tuple[float, ...]:
    """Lengths that bars are sold in [m], of metal or of wood."""
    return (METAL_M if metal else BARS_M)[imperial]


def frame_bars(build: Build) -> list[Piece]:
    """Bars of an own frame whose sections are said; brackets are not among them."""
    made = []
    for bar in bars_of(build.rig):
        section = bar.section
        label = (
            f"{section.metal.capitalize()} {section.kind} {section.deep * 1e3:.4g} x {section.wide * 1e3:.4g} x {section.wall * 1e3:.3g} mm"
        )
        made += [
            Piece(
                f"frame/{bar.role}/{k + 1}",
                bar.role,
                of="frame",
                kind="bar",
                material=label,
                thickness_m=section.wide,
                length_m=bar.cut_m,
                width_m=section.deep,
                grain="any",
                area_m2=bar.length_m * section.wide,
                ends_deg=(round(bar.ends_deg[0], 1), round(bar.ends_deg[1], 1)),
                kg_m=section.kg_m,
                made_of=section.metal,
            )
            for k in range(bar.many)
        ]
    return made


def stick_pieces(member: Member, library: Library) -> list[Piece]:
    """What a member is cut from: one bar, or the strips that a rib is glued up of."""
    if member.strips < 2:
        return [_stick(member, library)]
    across = member.section_m if member.face_kind not in SIDES else member.section_m[::-1]  # which side the strips lie in
    wide, deep = across
    thin = deep / member.strips
    material = library.get(member.material)
    name = material.name if material is not None else member.material
    long = member.length_m + 2 * STRIP_OVER_M
    return [
        Piece(
            f"{member.id}/strip {k + 1}",
            "strip",
            of=member.face,
            kind="bar",
            material=f"{name} {wide * 1e3:.4g} x {thin * 1e3:.3g} mm",
            thickness_m=thin,
            length_m=long,
            width_m=wide,
            grain="any",
            area_m2=long * wide,
            place=member.outline,
            made_of=member.material,
        )
        for k in range(member.strips)
    ]


def _stick(member: Member, library: Library) -> Piece:
    material = library.get(member.material)
    name = ALUMINIUM.name if member.material == ALUMINIUM.id else material.name if material is not None else member.material
    if material is not None and material.form == "sheet":  # a rib cut out of a sheet
        return flat_piece(
            member.id, member.kind, member.face, "sheet", (material, member.section_m[1]), member.shape, "any", member.outline
        )
    wide, thin = sorted(member.section_m, reverse=True)
    if member.role == "corner profile":
        return Piece(
            member.id,
            member.kind,
            of=member.face,
            kind="bar",
            material=f"{name} {wide * 1e3:.4g} x {thin * 1e3:.4g} x {member.wall_m * 1e3:.3g} mm",
            thickness_m=thin,
            length_m=member.length_m,
            width_m=wide,
            grain="any",
            area_m2=ring_area_m2(member.outline),
            place=member.outline,
            kg_m=angle_kg_m(member.section_m, member.wall_m),
            made_of=member.material,
        )
    tube = member.wall_m > 0
    size = f"{wide * 1e3:.4g} x {thin * 1e3:.4g}" + (f" x {member.wall_m * 1e3:.3g}" if tube else "")
    if tube:
        name = "Light steel C" if member.channel else "Steel tube"
    return Piece(
        member.id,
        member.kind,
        of=member.face,
        kind="bar",
        material=f"{name} {size} mm",
        thickness_m=thin,
        length_m=member.length_m,
        width_m=wide,
        grain="any",
        area_m2=ring_area_m2(member.outline),
        ends_deg=member.ends_deg,
        notches=member.notches,
        corners=member.corners,
        rip_m=member.rip_m,
        place=member.outline,
        kg_m=(_c_kg_m if member.channel else tube_kg_m)(wide, thin, member.wall_m) if tube else None,
        made_of=member.material,
    )


def strip_trims(shell: Shell, body: Body, pieces: Sequence[Piece], library: Library) -> list[Piece]:
    """Strips over the seams of a face's outer sheets, where they were said."""
    made: list[Piece] = []
    said = {seam.id for seam in shell.seams if seam.trim == "strip"}
    for face in shell.faces if said else ():
        layer, _ = line_of(face, library)
        for surface in body.of(face.kind) if layer is not None else ():
            if seam_id(surface.id, "sheets") in said and layer is not None:
                for k, run in enumerate(runs_between(sheets_of(pieces, surface.id, layer.id)), 1):
                    made.append(_trim(f"{surface.id}/trim/strip {k}", surface.id, long_m((run,)), run))
    return made


def _c_kg_m(deep_m: float, wide_m: float, wall_m: float) -> float:
    """Of a C folded of sheet [kg/m]. Check 100 x 40 x 1.2: 7850 x 0.0012 x (0.100 + 2 x 0.0388) = 1.673."""
    return KG_M3["steel"] * deep_m * wide_m * steel_share((wide_m, deep_m), wall_m, channel=True)
