"""What has to be cut for the body as it is drawn: sticks, sheets of every layer, fill bay by bay, and areas of what comes on rolls.

A skin is parted where a whole sheet does not reach, at the middle of a stick; where none stands there, that is said.
Skins inside of the frame are taken at the outer outline, as they are cut to fit. Source: shop notes, take-off.
"""

from __future__ import annotations

from collections.abc import Sequence

import msgspec
import numpy as np
from shapely import affinity, box, get_coordinates
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Layer
from uncle_sled.core.engine import Same, keep_keyed
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.bought_shell import BOUGHT, come_in_since
from uncle_sled.core.framing.frame_body import Framed, framed_depth_m
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import Surface, net
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import Library, library_of, material_of
from uncle_sled.core.studies.cut.wanted import Grain, Wanted, ring_area_m2

SHEET_M = {False: (2.44, 1.22), True: (2.4384, 1.2192)}  # what is sold nearly everywhere; imperial: 8 by 4 feet
OVER_M = 0.003  # fill is cut larger than its bay, to stay by itself
LEAST_FILL_M2 = 0.0009
LEAST_PANEL_M = 0.1
LEAST_SKIN_M2 = 1e-4
SAME_M2 = 2e-5


class Piece(msgspec.Struct, frozen=True):
    """Something to cut. kind: bar, sheet (saw) or fill (knife). of: the face; ends_deg: of a bar, off square.

    outline: [m], its length along x, from a corner of its box; pair: key of the piece whose mirror image it is.
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


class Spread(msgspec.Struct, frozen=True):
    """What comes on rolls, in tins or as boards: by area."""

    of: str
    material: str
    form: str
    area_m2: float


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


@keep_keyed(
    lambda build, facts: (Same(build.shell), Same(facts.materials), Same(framed_of(build, facts)), build.brief.region),
    4,
)
def take_off(build: Build, facts: Facts) -> TakeOff:
    """Everything to cut for a build's body; empty where no body is drawn yet. Of a bought shell only what comes in."""
    shell, framed = build.shell, framed_of(build, facts)
    library = library_of(facts.materials)
    members = come_in_since(shell, framed.members) if shell.framing.school == BOUGHT.name else framed.members
    pieces = [_stick(member, library) for member in members]
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
                shape = net(surface.polygon, framed.holes_in(surface.id))
                if material.form == "fill":
                    pieces += _fill(surface, layer, material, shape, framed, framed_depth_m(face, 0.0), sheet)
                elif material.form == "sheet":
                    made, seams = _skin(surface, layer, material, shape, framed.on(surface.id), sheet)
                    pieces += made
                    unbacked += seams
                elif shape.area > LEAST_SKIN_M2:
                    spreads.append(Spread(surface.id, material.name, material.form, float(shape.area)))
    return TakeOff(tuple(_paired(pieces)), tuple(spreads), tuple(unbacked), tuple(unsaid))


def _stick(member: Member, library: Library) -> Piece:
    material = library.get(member.material)
    name = material.name if material is not None else member.material
    if material is not None and material.form == "sheet":  # a rib cut out of a sheet
        return _flat(member.id, member.kind, member.face, "sheet", material, member.section_m[1], member.shape, "any")
    wide, thin = sorted(member.section_m, reverse=True)
    return Piece(
        member.id,
        member.kind,
        member.face,
        "bar",
        f"{name} {wide * 1e3:.4g} x {thin * 1e3:.4g} mm",
        thin,
        member.length_m,
        wide,
        "any",
        ring_area_m2(member.outline),
        ends_deg=member.ends_deg,
    )


def _flat(
    key: str, name: str, of: str, kind: str, material: Material, thickness_m: float, shape: BaseGeometry, grain: Grain
) -> Piece:
    """A flat piece, its length along x from the corner of its box."""
    ring = get_coordinates(shape.exterior if isinstance(shape, Polygon) else shape.convex_hull.exterior)[:-1]
    if np.ptp(ring[:, 1]) > np.ptp(ring[:, 0]):
        ring = np.stack([ring[:, 1], -ring[:, 0]], axis=1)
    ring = np.round(ring - ring.min(axis=0), 6)
    length, width = (float(v) for v in ring.max(axis=0))
    corners = tuple((float(x), float(y)) for x, y in ring)
    plain = abs(ring_area_m2(corners) - length * width) < 1e-7
    thick = thickness_m > 0 and material.kg_m2 is None  # what comes in one thickness has it in its name
    label = f"{material.name} {thickness_m * 1e3:.4g} mm" if thick else material.name
    outline = () if plain else corners
    return Piece(key, name, of, kind, label, thickness_m, length, width, grain, float(shape.area), outline)


def _fill(
    surface: Surface,
    layer: Layer,
    material: Material,
    shape: Polygon,
    framed: Framed,
    depth_m: float,
    sheet: tuple[float, float],
) -> list[Piece]:
    """Fill between the sticks of a framed layer, or over the whole of the face where it has none."""
    sticks = [m.shape for m in framed.on(surface.id) if m.section_m[1] > 0.5 * depth_m] if layer.framing > 0 else []
    open_ = shape.difference(unary_union(sticks)) if sticks else shape
    bays: list[Piece] = []
    for bay in _polygons(open_):
        larger = bay.buffer(OVER_M / 2, join_style="mitre") if sticks else bay
        for part, *_ in _panels(larger, sheet, (), ()):
            if part.area >= LEAST_FILL_M2:
                key = f"{surface.id}/{layer.id}/{len(bays) + 1}"
                name = f"{surface.id} fill {len(bays) + 1}"
                bays.append(_flat(key, name, surface.id, "fill", material, layer.thickness.si, part, "any"))
    return bays


def _skin(
    surface: Surface,
    layer: Layer,
    material: Material,
    shape: Polygon,
    sticks: Sequence[Member],
    sheet: tuple[float, float],
) -> tuple[list[Piece], list[Unbacked]]:
    """Panels of a skin, seams at the middle of sticks."""
    upright = tuple(sorted({round(m.shape.centroid.x, 4) for m in sticks if not m.along_s}))
    level = tuple(sorted({round(m.shape.centroid.y, 4) for m in sticks if m.along_s}))
    made: list[Piece] = []
    seams: dict[tuple[str, float], None] = {}
    for part, bare in _panels(shape, sheet, upright, level):
        seams.update(dict.fromkeys(bare))
        if part.area < LEAST_SKIN_M2:
            continue
        key, name = f"{surface.id}/{layer.id}/{len(made) + 1}", f"{surface.id} {len(made) + 1}"
        grain: Grain = "along" if material.bends == "plywood" and surface.swept else "any"
        made.append(_flat(key, name, surface.id, "sheet", material, layer.thickness.si, part, grain))
    return made, [Unbacked(surface.id, layer.id, along, at) for along, at in seams]


def _panels(
    shape: BaseGeometry, sheet: tuple[float, float], upright: Sequence[float], level: Sequence[float]
) -> list[tuple[Polygon, tuple[tuple[str, float], ...]]]:
    """A shape in parts that a sheet holds, laid the way that wants fewer parts; with its seams that no stick backs."""
    if shape.is_empty:
        return []
    s0, t0, s1, t1 = shape.bounds
    if min(s1 - s0, t1 - t0) <= min(sheet) and max(s1 - s0, t1 - t0) <= max(sheet):
        return [(part, ()) for part in _polygons(shape)]
    ways = []
    for along_s, along_t in (sheet, sheet[::-1]):
        cuts_s, bare_s = _stops(s0, s1, along_s, upright)
        cuts_t, bare_t = _stops(t0, t1, along_t, level)
        bare = (*(("s", at) for at in bare_s), *(("t", at) for at in bare_t))
        ways.append((len(cuts_s) * len(cuts_t), len(bare), cuts_s, cuts_t, bare))
    _, _, cuts_s, cuts_t, bare = min(ways, key=lambda way: way[:2])
    out = []
    for a, b in cuts_s:
        for c, d in cuts_t:
            out += [(part, bare) for part in _polygons(shape.intersection(box(a, c, b, d)))]
    return out


def _stops(
    low: float, high: float, most: float, lines: Sequence[float]
) -> tuple[list[tuple[float, float]], list[float]]:
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
    return [one for one in getattr(shape, "geoms", [shape]) if isinstance(one, Polygon) and not one.is_empty]


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
            other = next((one for one in others if _mirrored(piece, one)), None)
            if other is not None:
                others.remove(other)
                pairs[piece.key], pairs[other.key] = other.key, piece.key
    return [msgspec.structs.replace(one, pair=pairs[one.key]) if one.key in pairs else one for one in pieces]


def _alike(piece: Piece) -> tuple[str, str, str, float]:
    role = piece.name if piece.kind == "bar" else ""
    return piece.kind, role, piece.material, round(piece.length_m, 3)


def _mirrored(one: Piece, other: Piece) -> bool:
    if abs(one.area_m2 - other.area_m2) > SAME_M2 or abs(one.width_m - other.width_m) > 1e-4:
        return False
    if not one.outline or not other.outline:
        return one.outline == other.outline
    a, b = Polygon(one.outline), Polygon(other.outline)
    turned = (
        affinity.scale(a, -1, 1, origin=(one.length_m / 2, 0)),
        affinity.scale(a, 1, -1, origin=(0, one.width_m / 2)),
    )
    return min(float(b.symmetric_difference(way).area) for way in (a, *turned)) < SAME_M2


def wanted_of(off: TakeOff) -> tuple[Wanted, ...]:
    """Pieces as a list to be cut: what is cut with a saw, equal ones together, in the order in which they were taken off."""
    found: dict[tuple[object, ...], list[Piece]] = {}
    for piece in off.pieces:
        if piece.kind == "fill":
            continue
        width = piece.width_m if piece.kind == "sheet" else 0.0
        size = (piece.kind, piece.material, round(piece.length_m, 4), round(width, 4), piece.grain, piece.outline)
        found.setdefault(size, []).append(piece)
    out: list[Wanted] = []
    taken: dict[str, int] = {}
    for same in found.values():
        first = same[0]
        word = f"{first.of} {first.name}" if first.kind == "bar" else first.name
        taken[word] = taken.get(word, 0) + 1
        id = word if taken[word] == 1 else f"{word} ({taken[word]})"
        width = first.width_m if first.kind == "sheet" else 0.0
        kind = "sheet" if first.kind == "sheet" else "bar"
        out.append(Wanted(id, kind, first.material, first.length_m, width, len(same), first.grain, first.outline))  # type: ignore[arg-type]
    return tuple(out)
