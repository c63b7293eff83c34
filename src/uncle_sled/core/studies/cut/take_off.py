"""What has to be cut for the body as it is drawn: sticks, sheets of every layer, fill bay by bay, and areas of what comes on rolls.

A skin is parted where a whole sheet does not reach, at the middle of a stick; where none stands there, that is said.
Skins inside of the frame are taken at the outer outline, as they are cut to fit. Source: shop notes, take-off.
"""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from itertools import pairwise

import msgspec
import numpy as np
from shapely import affinity, box, get_coordinates
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.joinery import BedBase
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Layer, Opening, Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.bought_shell import BOUGHT, come_in_since
from uncle_sled.core.framing.frame_body import Framed, framed_depth_m
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.sandwich_panels import ALUMINIUM, PANELS, angle_kg_m
from uncle_sled.core.framing.worked import Notch
from uncle_sled.core.geometry.surfaces import SIDES, Body, Surface, net
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.all_parts import cabinets_of, framed_of
from uncle_sled.core.parts.cabinet import polygons
from uncle_sled.core.parts.cabinet_cut import Fitted
from uncle_sled.core.parts.face_build import Library, library_of, material_of
from uncle_sled.core.parts.frame_steel import bars_of
from uncle_sled.core.parts.leaf import leaf_of
from uncle_sled.core.sections import tube_kg_m
from uncle_sled.core.studies.cut.boards import board_ends, strips
from uncle_sled.core.studies.cut.wanted import CutKind, Grain, Wanted, ring_area_m2

SHEET_M = {False: (2.44, 1.22), True: (2.4384, 1.2192)}  # what is sold nearly everywhere; imperial: 8 by 4 feet
OVER_M = 0.003  # fill is cut larger than its bay, to stay by itself
LEAST_FILL_M2 = 0.0009
LEAST_PANEL_M = 0.1
LEAST_SKIN_M2 = 1e-4
SAME_M2 = 2e-5
METAL_M = {False: (6.0,), True: (6.096, 7.3152)}  # imperial: 20 and 24 feet
STRIP_OVER_M = 0.05  # a strip is cut longer by that at each end, and trimmed when the rib is glued
BARS_M = {False: (2.4, 3.0, 3.6, 4.8), True: (2.4384, 3.048, 3.6576, 4.8768)}  # imperial: 8, 10, 12, 16 feet
SCARF = 8.0  # of the thickness
LEAST_TRIM_M = 0.1
LEAST_COVER_M = 0.02
MOST_SLATS = 80  # of one bed
SAME_LONG_M = 0.0005
LEAST_PART_M = 0.05  # of a stick past the line between two sections
SLIVER_M = 0.02  # of fill: narrower, and foam from the can does it
GAP_M = 0.08  # between a stick's end and what it stands against, where fill would run through


class Piece(msgspec.Struct, frozen=True):
    """Something to cut. kind: bar, sheet (saw) or fill (knife). of: the face; ends_deg: of a bar, off square.

    outline: [m], its length along x, from a corner of its box; pair: key of the piece whose mirror image it is.
    place: where it lies on the face laid flat [m]; kg_m2: of a sheet, for lifting it; joined: of how many it is put
    together, as nothing so long is sold.
    """

    key: str
    name: str
    of: str
    kind: str
    material: str
    thickness_m: float
    length_m: float
    width_m: float
    grain: Grain
    area_m2: float
    outline: tuple[tuple[float, float], ...] = ()
    ends_deg: tuple[float, float] = (0.0, 0.0)
    pair: str | None = None
    place: tuple[tuple[float, float], ...] = ()
    kg_m2: float | None = None
    joined: str = ""
    kg_m: float | None = None  # of a bar of metal
    cladding: bool = False  # a board that a face is clad with
    holes: tuple[tuple[tuple[float, float], ...], ...] = ()  # sawn out of the middle of it, as its outline [m]
    notches: tuple[Notch, ...] = ()  # of a bar
    corners: tuple[tuple[float, float], ...] = ()  # of a bar whose end is no straight cut: along and across it
    rip_m: float | None = None  # of a bar: what is left of its width
    own_number: str = ""  # that it has elsewhere already, as a wire has on its diagram
    made_of: str = ""  # id of its material; "" of an edge trim, whose material is for the builder

    @property
    def whole(self) -> str:
        """Id of the stick that it is a part or a strip of; else its own key."""
        return self.key.partition("/part ")[0].partition("/strip ")[0]

    @property
    def stuff(self) -> str:
        """What it is cut from, by its material's id and the section that is sold; "" where no material is said."""
        if not self.made_of:
            return ""
        across = "" if self.kind == "sheet" else " clad" if self.cladding else f" x {self.width_m * 1e3:.1f}"
        return f"{self.made_of} {self.thickness_m * 1e3:.1f}{across}"


class Spread(msgspec.Struct, frozen=True):
    """What comes on rolls, in tins or as boards: by area."""

    of: str
    material: str
    form: str
    area_m2: float
    made_of: str = ""  # id of its material
    thickness_m: float = 0.0


class Unbacked(msgspec.Struct, frozen=True):
    """A seam of a skin with no stick behind: where [m] along s or t of which surface."""

    surface: str
    layer: str
    along: str
    at_m: float


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


def _bars(build: Build) -> Hashable:
    return bars_of(build.rig)


@keep(
    *("build.shell", "facts.materials", "build.brief.region"),
    *("build.cut.joint", "build.cut.board.si", by_value("build.cut.made"), by_value("build.cut.made_of"), "build.cut.made_thick.si"),
    framed_of,
    _of_boards,
    by_value(_bars),
    most=4,
)
def take_off(build: Build, facts: Facts) -> TakeOff:
    """Everything to cut for a build's body; empty where no body is drawn yet. Of a bought shell only what comes in."""
    shell, framed = build.shell, framed_of(build, facts)
    library = library_of(facts.materials)
    members = come_in_since(shell, framed.members) if shell.framing.school == BOUGHT.name else framed.members
    cut = build.cut
    imperial = build.brief.region == "North American"
    pieces = [piece for member in members for piece in _sticks(member, library)]
    spreads: list[Spread] = []
    unbacked: list[Unbacked] = []
    unsaid: list[str] = []
    sheet = SHEET_M[build.brief.region == "North American"]
    for face in shell.faces:
        surfaces = framed.body.of(face.kind) if framed.body is not None else ()
        for layer in face.layers:
            try:
                material = material_of(layer, library)
            except GeometryError as fault:
                unsaid.append(str(fault))
                continue
            if not material.form:
                unsaid.append(f"{face.kind}, {material.name}: nobody said whether it comes as sheets, rolls or boards.")
                continue
            for surface in surfaces:
                sheet_like = material.form in ("sheet", "board")
                shape = net(surface.polygon, framed.sawn_in(surface.id) if sheet_like else framed.holes_in(surface.id))
                if material.form == "fill":
                    pieces += _fill(surface, layer, material, shape, framed, framed_depth_m(face, 0.0), sheet)
                elif material.form == "sheet":
                    count = 0
                    for section in _by_sections(shell, surface, shape):  # skins end with their section
                        made, seams = _skin(surface, layer, material, section, framed.on(surface.id), sheet, cut.joint, count)
                        pieces += made
                        unbacked += seams
                        count += len(made)
                elif material.form == "board" and shape.area > LEAST_SKIN_M2:
                    pieces += _boards(surface, layer, material, shape, cut.board.si)
                elif shape.area > LEAST_SKIN_M2:
                    spreads.append(Spread(surface.id, material.name, material.form, float(shape.area), material.id, layer.thickness.si))
    if shell.framing.school not in (BOUGHT.name, PANELS.name) and framed.body is not None and pieces:
        pieces += _trims(framed.body)
    pieces += _frame(build)
    for opening in shell.openings:
        pieces += _leaf(opening, library)
    made_up = cabinets_of(build, facts)
    for id, cabinet in made_up.items():
        pieces += _boards_of(id, cabinet, library)
    for thing in build.stow.things:
        if thing.base is not None and not thing.taken_out:
            pieces += _bed(thing, thing.base, library, sheet)
        if thing.id in cut.made and thing.id not in made_up:
            pieces += _carcass(thing, library.get(cut.made_of), cut.made_thick.si)
    marks = _section_marks(shell, framed)
    whole = [
        part
        for piece in _paired(pieces)
        for part in _parted(piece, max(bars_sold_m(piece.kg_m is not None, imperial)), cut.joint, marks.get(piece.key, ()))
    ]
    there = {piece.key: piece.length_m for piece in whole}  # one that is parted elsewhere than its mirror image is no pair with it
    alike = [piece.pair is None or abs(there.get(piece.pair, -1.0) - piece.length_m) < SAME_LONG_M for piece in whole]
    whole = [piece if same else msgspec.structs.replace(piece, pair=None) for piece, same in zip(whole, alike, strict=True)]
    return TakeOff(tuple(whole), tuple(spreads), tuple(unbacked), tuple(unsaid))


def _parted(piece: Piece, longest_m: float, joint: str, at_m: Sequence[float] = ()) -> list[Piece]:
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
    return _ring(part) if isinstance(part, Polygon) and not part.is_empty else place


def _by_sections(shell: Shell, surface: Surface, shape: BaseGeometry) -> list[BaseGeometry]:
    """A face less its holes, parted where its sections meet."""
    left, low, right, high = surface.polygon.bounds
    lines = sorted(left + split.at.si for split in shell.splits if split.face == surface.id)
    inside = [line for line in lines if left + LEAST_PART_M < line < right - LEAST_PART_M]
    if not inside:
        return [shape]
    return [shape.intersection(box(a, low - 1, b, high + 1)) for a, b in pairwise((left - 1, *inside, right + 1))]


def _section_marks(shell: Shell, framed: Framed) -> dict[str, tuple[float, ...]]:
    """Of sticks that lie along a face that is parted into sections: where those meet, from the stick's beginning [m]."""
    marks: dict[str, tuple[float, ...]] = {}
    for surface in framed.body.surfaces if framed.body is not None and shell.splits else ():
        lines = [surface.polygon.bounds[0] + split.at.si for split in shell.splits if split.face == surface.id]
        for member in framed.on(surface.id) if lines else ():
            begin, _, end, _ = member.shape.bounds
            there = tuple(sorted(line - begin for line in lines if begin + LEAST_PART_M < line < end - LEAST_PART_M))
            if there and member.along_s and not member.cuts and not member.strips:
                marks[member.id] = there
    return marks


def _boards(surface: Surface, layer: Layer, material: Material, shape: Polygon, cover_m: float) -> list[Piece]:
    """Cladding board by board: upright on walls, along the length on floors and roofs."""
    lying = surface.swept or surface.kind in ("floor", "roof", "ceiling")
    turned = affinity.rotate(shape, 90, origin=(0, 0)) if lying else shape
    made: list[Piece] = []
    for board in strips(turned, max(cover_m, LEAST_COVER_M)):
        for part in _polygons(board):
            if part.area < LEAST_SKIN_M2:
                continue
            wide, long = part.bounds[2] - part.bounds[0], part.bounds[3] - part.bounds[1]
            at = affinity.rotate(part, -90, origin=(0, 0)) if lying else part
            made.append(
                Piece(
                    f"{surface.id}/{layer.id}/board {len(made) + 1}",
                    "board",
                    of=surface.id,
                    kind="bar",
                    material=f"{material.name}, cover {cover_m * 1e3:.4g} mm",
                    thickness_m=layer.thickness.si,
                    length_m=long,
                    width_m=wide,
                    grain="any",
                    area_m2=float(part.area),
                    ends_deg=board_ends(part),
                    place=_ring(at),
                    cladding=True,
                    made_of=material.id,
                )
            )
    return made


def _trims(body: Body) -> list[Piece]:
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


def _carcass(thing: Thing, material: Material | None, thick_m: float) -> list[Piece]:
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
                made.append(_flat(key, f"{thing.name} {name}", thing.id, "sheet", (material, thick_m), shape, "any", ()))
    return made


def _bed(thing: Thing, base: BedBase, library: Library, sheet: tuple[float, float]) -> list[Piece]:
    """What carries a mattress: its board or slats along the bed, and the bearers across under them where their size is said.

    Slats and bearers are of softwood; a board is of the sheet that was said.
    """
    long, deep = max(thing.length.si, thing.width.si), min(thing.length.si, thing.width.si)
    material, wood = library.get(base.material), library.get("softwood")
    if min(long, deep) <= 0:
        return []
    made: list[Piece] = []

    def sticks(role: str, many: int, length_m: float, section: tuple[float, float]) -> None:
        wide, thin = max(section), min(section)
        name = wood.name if wood is not None else "Softwood"
        made.extend(
            Piece(
                f"{thing.id}/{role}/{k + 1}",
                f"{thing.name} {role}",
                of=thing.id,
                kind="bar",
                material=f"{name} {wide * 1e3:.4g} x {thin * 1e3:.4g} mm",
                thickness_m=thin,
                length_m=length_m,
                width_m=wide,
                grain="any",
                area_m2=length_m * wide,
                made_of="softwood",
            )
            for k in range(many)
        )

    if base.kind == "slats":
        many = int((deep + base.gap.si) / max(base.slat.si + base.gap.si, 1e-3))
        sticks("slat", min(many, MOST_SLATS), long, (base.slat.si, base.thick.si))
    elif material is not None:
        parts = [part for part, _ in _panels(box(0, 0, long, deep), sheet, (), ())]  # a board larger than a sheet is parted
        for k, part in enumerate(parts, 1):
            key, name = (
                (f"{thing.id}/base", f"{thing.name} base") if len(parts) == 1 else (f"{thing.id}/base/{k}", f"{thing.name} base {k}")
            )
            made.append(_flat(key, name, thing.id, "sheet", (material, base.thick.si), part, "any", ()))
    if base.bearer_thick is not None and base.bearer_deep is not None and base.bearers:
        sticks("bearer", base.bearers, deep, (base.bearer_deep.si, base.bearer_thick.si))
    return made


def _boards_of(id: str, fitted: Fitted, library: Library) -> list[Piece]:
    """Every board of a cabinet as it is built in; what a wheel box parts is two pieces."""
    made = []
    for board in fitted.boards:
        whole = polygons(board.shape)
        for k, shape in enumerate(whole, 1):
            key = f"{id}/{board.id}" + (f"/{k}" if len(whole) > 1 else "")
            made.append(_flat(key, f"{fitted.name} {board.kind}", id, "sheet", (library[board.material], board.thick), shape, "any"))
    return made


def _leaf(opening: Opening, library: Library) -> list[Piece]:
    """A door or hatch of one's own: its sticks, skins and foam."""
    made = leaf_of(opening, library)
    pieces: list[Piece] = []
    for piece in made.pieces if made is not None else ():
        material = library[piece.material]
        for k in range(piece.many):
            key = f"{opening.id}/{piece.name}" + (f"/{k + 1}" if piece.many > 1 else "")
            name = f"{opening.name} {piece.name}"
            if piece.kind == "bar":
                wide, thin = max(piece.width_m, piece.thick_m), min(piece.width_m, piece.thick_m)
                label = f"{material.name} {wide * 1e3:.4g} x {thin * 1e3:.4g} mm"
                pieces.append(
                    Piece(
                        key,
                        name,
                        of=opening.id,
                        kind="bar",
                        material=label,
                        thickness_m=thin,
                        length_m=piece.length_m,
                        width_m=wide,
                        grain="any",
                        area_m2=piece.length_m * piece.width_m,
                        made_of=material.id,
                    )
                )
            else:
                kind = "sheet" if piece.kind == "sheet" else "fill"
                shape = box(0, 0, piece.length_m, piece.width_m)
                pieces.append(_flat(key, name, opening.id, kind, (material, piece.thick_m), shape, "any", ()))
    return pieces


def _ring(shape: BaseGeometry) -> tuple[tuple[float, float], ...]:
    ring = get_coordinates(shape.exterior if isinstance(shape, Polygon) else shape.convex_hull.exterior)[:-1]
    return tuple((float(x), float(y)) for x, y in ring)


def bars_sold_m(metal: bool, imperial: bool) -> tuple[float, ...]:
    """Lengths that bars are sold in [m], of metal or of wood."""
    return (METAL_M if metal else BARS_M)[imperial]


def _frame(build: Build) -> list[Piece]:
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
                ends_deg=(bar.ends_deg[0], round(bar.ends_deg[1], 1)),
                kg_m=section.kg_m,
                made_of=section.metal,
            )
            for k in range(bar.many)
        ]
    return made


def _sticks(member: Member, library: Library) -> list[Piece]:
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
        return _flat(member.id, member.kind, member.face, "sheet", (material, member.section_m[1]), member.shape, "any", member.outline)
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
    name = "Steel tube" if tube else name
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
        kg_m=tube_kg_m(wide, thin, member.wall_m) if tube else None,
        made_of=member.material,
    )


def _flat(
    key: str,
    name: str,
    of: str,
    kind: str,
    stuff: tuple[Material, float],
    shape: BaseGeometry,
    grain: Grain,
    place: tuple[tuple[float, float], ...] | None = None,
) -> Piece:
    """A flat piece, its length along x from the corner of its box. Args: stuff: what it is of, and how thick [m]."""
    material, thickness_m = stuff
    whole = shape if isinstance(shape, Polygon) else shape.convex_hull
    rings = [get_coordinates(ring)[:-1] for ring in (whole.exterior, *whole.interiors)]
    if np.ptp(rings[0][:, 1]) > np.ptp(rings[0][:, 0]):
        rings = [np.stack([ring[:, 1], -ring[:, 0]], axis=1) for ring in rings]
    low = rings[0].min(axis=0)
    length, width = (float(v) for v in np.round(rings[0] - low, 6).max(axis=0))
    corners, *holes = (tuple((float(x), float(y)) for x, y in np.round(ring - low, 6)) for ring in rings)
    plain = abs(ring_area_m2(corners) - length * width) < 1e-7
    thick = thickness_m > 0 and material.kg_m2 is None  # what comes in one thickness has it in its name
    label = f"{material.name} {thickness_m * 1e3:.4g} mm" if thick else material.name
    outline = () if plain else corners
    return Piece(
        key,
        name,
        of=of,
        kind=kind,
        material=label,
        thickness_m=thickness_m,
        length_m=length,
        width_m=width,
        grain=grain,
        area_m2=float(shape.area),
        outline=outline,
        holes=tuple(holes),
        place=_ring(shape) if place is None else place,
        kg_m2=material.weight_kg_m2(thickness_m) or None,
        made_of=material.id,
    )


def _fill(
    surface: Surface, layer: Layer, material: Material, shape: Polygon, framed: Framed, depth_m: float, sheet: tuple[float, float]
) -> list[Piece]:
    """Fill between the sticks of a framed layer, or over the whole of the face where it has none."""
    sticks = [_run_on(m) for m in framed.on(surface.id) if m.section_m[1] > 0.5 * depth_m] if layer.framing > 0 else []
    open_ = shape.difference(unary_union(sticks)) if sticks else shape
    bays: list[Piece] = []
    for bay in _polygons(open_):
        larger = bay.buffer(OVER_M / 2, join_style="mitre") if sticks else bay
        for part, *_ in _panels(larger, sheet, (), ()):
            sides = part.minimum_rotated_rectangle.exterior.length / 2  # long and short side together
            if part.area >= LEAST_FILL_M2 and part.area / max(sides / 2, 1e-9) >= SLIVER_M / 2:
                key = f"{surface.id}/{layer.id}/{len(bays) + 1}"
                name = f"{surface.id} fill {len(bays) + 1}"
                bays.append(_flat(key, name, surface.id, "fill", (material, layer.thickness.si), part, "any"))
    return bays


def _run_on(member: Member) -> BaseGeometry:
    """A stick and the gap at its ends: fill is cut bay by bay, and no comb is sawn for what an offcut fills."""
    left, low, right, high = member.shape.bounds
    ends = box(left - GAP_M, low, right + GAP_M, high) if member.along_s else box(left, low - GAP_M, right, high + GAP_M)
    straight = member.shape.area > 0.8 * (right - left) * (high - low)
    return member.shape.union(ends) if straight else member.shape


def _skin(
    surface: Surface,
    layer: Layer,
    material: Material,
    shape: Polygon,
    sticks: Sequence[Member],
    sheet: tuple[float, float],
    joint: str,
    before: int,
) -> tuple[list[Piece], list[Unbacked]]:
    """Panels of a skin, seams at the middle of sticks; scarfed ones lap there by eight times their thickness.

    Args: before: how many panels of this skin there are already.
    """
    upright = tuple(sorted({round(m.shape.centroid.x, 4) for m in sticks if not m.along_s}))
    level = tuple(sorted({round(m.shape.centroid.y, 4) for m in sticks if m.along_s}))
    made: list[Piece] = []
    seams: dict[tuple[str, float], None] = {}
    lap = SCARF * layer.thickness.si if joint == "scarf" and material.bends in ("", "plywood") else 0.0
    for part, bare in _panels(shape, sheet, upright, level, lap):
        seams.update(dict.fromkeys(bare))
        if part.area < LEAST_SKIN_M2:
            continue
        number = before + len(made) + 1
        key, name = f"{surface.id}/{layer.id}/{number}", f"{surface.id} {number}"
        grain: Grain = "along" if material.bends == "plywood" and surface.swept else "any"
        made.append(_flat(key, name, surface.id, "sheet", (material, layer.thickness.si), part, grain))
    return made, [Unbacked(surface.id, layer.id, along, at) for along, at in seams]


def _panels(
    shape: BaseGeometry, sheet: tuple[float, float], upright: Sequence[float], level: Sequence[float], lap_m: float = 0.0
) -> list[tuple[Polygon, tuple[tuple[str, float], ...]]]:
    """A shape in parts that a sheet holds, laid the way that wants fewer parts; with its seams that no stick backs."""
    if shape.is_empty:
        return []
    s0, t0, s1, t1 = shape.bounds
    if min(s1 - s0, t1 - t0) <= min(sheet) and max(s1 - s0, t1 - t0) <= max(sheet):
        return [(part, ()) for part in _polygons(shape)]
    ways = []
    for along_s, along_t in ((a - lap_m, b - lap_m) for a, b in (sheet, sheet[::-1])):
        cuts_s, bare_s = _stops(s0, s1, along_s, upright)
        cuts_t, bare_t = _stops(t0, t1, along_t, level)
        bare = (*(("s", at) for at in bare_s), *(("t", at) for at in bare_t))
        ways.append((len(cuts_s) * len(cuts_t), len(bare), cuts_s, cuts_t, bare))
    _, _, cuts_s, cuts_t, bare = min(ways, key=lambda way: way[:2])
    out = []
    for a, b in cuts_s:
        for c, d in cuts_t:
            lapped = box(a, c, b + (lap_m if b < s1 - 1e-9 else 0.0), d + (lap_m if d < t1 - 1e-9 else 0.0))
            out += [(part, bare) for part in _polygons(shape.intersection(lapped))]
    return out


def _stops(low: float, high: float, most: float, lines: Sequence[float]) -> tuple[list[tuple[float, float]], list[float]]:
    """Parts of a length, none over `most`, parted at lines as far on as there are; and where there was no line."""
    at, parts, bare = low, [], []
    while high - at > most + 1e-6:
        backed = [line for line in lines if at + LEAST_PANEL_M < line <= at + most]
        to = max(backed) if backed else at + most
        if not backed:
            bare.append(round(to, 6))
        parts.append((at, to))
        at = to
    return [*parts, (at, high)], bare


def _polygons(shape: BaseGeometry) -> list[Polygon]:
    return [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and not part.is_empty]


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


class Lot(msgspec.Struct, frozen=True):
    """Equal pieces as one line of the list to be cut, and which pieces they are."""

    wanted: Wanted
    pieces: tuple[Piece, ...]


def wanted_of(off: TakeOff) -> tuple[Wanted, ...]:
    """What is to be cut, pieces that are alike in one line."""
    return tuple(lot.wanted for lot in lots_of(off))


def lots_of(off: TakeOff) -> tuple[Lot, ...]:
    """Pieces as a list to be cut: what is cut with a saw, equal ones together, in the order in which they were taken off."""
    found: dict[tuple[object, ...], list[Piece]] = {}
    for piece in off.pieces:
        if piece.kind == "fill":
            continue
        width = piece.width_m if piece.kind == "sheet" else 0.0
        ends = piece.ends_deg if piece.kind == "bar" else ()
        size = (piece.kind, piece.material, round(piece.length_m, 4), round(width, 4), piece.grain, piece.outline, ends)
        found.setdefault(size, []).append(piece)
    out: list[Lot] = []
    taken: dict[str, int] = {}
    for same in found.values():
        first = same[0]
        word = f"{first.of} {first.name}" if first.kind == "bar" else first.name
        taken[word] = taken.get(word, 0) + 1
        id = word if taken[word] == 1 else f"{word} ({taken[word]})"
        width = first.width_m if first.kind == "sheet" else 0.0
        kind: CutKind = "sheet" if first.kind == "sheet" else "bar"
        wanted = Wanted(
            id,
            kind,
            material=first.material,
            length_m=first.length_m,
            width_m=width,
            qty=len(same),
            grain=first.grain,
            outline=first.outline,
            metal=first.kg_m is not None,
        )
        out.append(Lot(wanted, tuple(same)))
    return tuple(out)
