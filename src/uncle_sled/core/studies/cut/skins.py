"""Skins, boards and fill of a face's layers, parted where a whole sheet does not reach and where sections meet.

A skin is parted at the middle of a stick; where none stands there, that is said. Skins inside of the frame are taken at the
outer outline, as they are cut to fit. Source: shop notes, take-off.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec
import numpy as np
import shapely
from shapely import STRtree, affinity, box
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.shell import Layer
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.materials import TIMBER, Material
from uncle_sled.core.parts.face_build import Library, battens_m
from uncle_sled.core.studies.cut.boards import board_ends, strips
from uncle_sled.core.studies.cut.piece import SCARF, Piece, bar_piece, flat_piece, polygons_of, ring_of
from uncle_sled.core.studies.cut.wanted import Grain

OVER_M = 0.003  # fill is cut larger than its bay, to stay by itself


LEAST_FILL_M2 = 0.0009


LEAST_PANEL_M = 0.1


LEAST_SKIN_M2 = 1e-4


LEAST_COVER_M = 0.02
MOST_BATTENS = 400  # of one layer of one face


SLIVER_M = 0.02  # of fill: narrower, and foam from the can does it


CLOSED = 0.5  # of a face that its sticks go round, at the least
TOUCH_M = 0.001
GAP_M = 0.08  # between a stick's end and what it stands against, where fill would run through


class Unbacked(msgspec.Struct, frozen=True):
    """A seam of a skin with no stick behind: where [m] along s or t of which surface."""

    surface: str
    layer: str
    along: str
    at_m: float


def cladding(surface: Surface, layer: Layer, material: Material, shape: Polygon, cover_m: float) -> list[Piece]:
    """Cladding board by board: upright on walls, along the length on floors and roofs."""
    lying = surface.swept or surface.kind in ("floor", "roof", "ceiling")
    turned = affinity.rotate(shape, 90, origin=(0, 0)) if lying else shape
    made: list[Piece] = []
    for board in strips(turned, max(cover_m, LEAST_COVER_M)):
        for part in polygons_of(board):
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
                    place=ring_of(at),
                    cladding=True,
                    made_of=material.id,
                )
            )
    return made


def batten_pieces(layer: Layer, shape: BaseGeometry, of: str, library: Library) -> list[Piece]:
    """The battens of a gap, from the low or front edge on, the last one at the other edge; as thick as the gap."""
    if not layer.battens or shape.is_empty or layer.thickness.si <= 0:
        return []
    left, low, right, high = shape.bounds
    wide, pitch = battens_m(layer)
    level = layer.battens == "level"
    begin, end = (low, high) if level else (left, right)
    if end - begin <= wide or pitch <= 0:
        return []
    many = min(int((end - begin - wide) / pitch), MOST_BATTENS)
    at = [begin + wide / 2 + k * pitch for k in range(many + 1)]
    if end - wide / 2 - at[-1] > wide:
        at.append(end - wide / 2)
    wood = library[TIMBER]
    made: list[Piece] = []
    for middle in at:
        strip = box(left, middle - wide / 2, right, middle + wide / 2) if level else box(middle - wide / 2, low, middle + wide / 2, high)
        for part in polygons_of(shape.intersection(strip)):
            a, b, c, d = part.bounds
            long = c - a if level else d - b
            if long < LEAST_PANEL_M:
                continue
            key = f"{of}/{layer.id}/batten {len(made) + 1}"
            batten = bar_piece(key, "batten", of, (wood.name, TIMBER), (wide, layer.thickness.si), long)
            made.append(msgspec.structs.replace(batten, place=ring_of(part)))
    return made


def fill_pieces(
    layer: Layer, material: Material, shapes: Sequence[BaseGeometry], framed: Framed, depth_m: float, sheet: tuple[float, float], of: str
) -> list[Piece]:
    """Fill between the sticks of a framed layer, or over the whole of the face where it has none.

    Args: shapes: the face less its holes, section by section; of: the face.
    """
    sticks = [m for m in framed.on(of) if m.section_m[1] > 0.5 * depth_m] if layer.framing > 0 else []
    taken = _run_on(sticks, unary_union(shapes)) if sticks else Polygon()
    bays: list[Piece] = []
    for bay in (bay for shape in shapes for bay in polygons_of(_between(shape, taken) if sticks else shape)):
        larger = bay.buffer(OVER_M / 2, join_style="mitre") if sticks else bay
        for part, *_ in panels_of(larger, sheet, (), ()):
            sides = part.minimum_rotated_rectangle.exterior.length / 2  # long and short side together
            if part.area >= LEAST_FILL_M2 and part.area / max(sides / 2, 1e-9) >= SLIVER_M / 2:
                key = f"{of}/{layer.id}/{len(bays) + 1}"
                bays.append(flat_piece(key, f"{of} fill {len(bays) + 1}", of, "fill", (material, layer.thickness.si), part, "any"))
    return bays


def bays_between(shape: BaseGeometry, sticks: Sequence[Member]) -> list[Polygon]:
    """What lies between sticks of a face, each as large as fill for it is cut."""
    taken = _run_on(sticks, shape)
    bays = [bay for bay in polygons_of(_between(shape, taken)) if bay.area >= LEAST_FILL_M2]
    return [part for bay in bays for part in polygons_of(bay.buffer(OVER_M / 2, join_style="mitre"))]


def _between(shape: BaseGeometry, taken: BaseGeometry) -> BaseGeometry:
    """What lies between the sticks; where they go all round, nothing outside of them: there the next face stands."""
    whole = unary_union([Polygon(part.exterior) for part in polygons_of(taken)])
    inside = shape.intersection(whole)
    return (inside if inside.area > CLOSED * shape.area else shape).difference(taken)


def _run_on(sticks: Sequence[Member], shape: BaseGeometry) -> BaseGeometry:
    """Sticks, each lengthened to what its ends nearly reach: a gap of so much is no way for fill, an offcut goes in there."""
    shapes = np.array([member.shape for member in sticks], dtype=object)
    left, low, right, high = shapely.bounds(shapes).T
    plain = np.flatnonzero(shapely.area(shapes) >= 0.8 * (right - left) * (high - low))  # neither bent nor slanted
    x, y, wide, tall = left[plain], low[plain], right[plain], high[plain]
    along = np.array([member.along_s for member in sticks], dtype=bool)[plain]
    before = shapely.box(np.where(along, x - GAP_M, x), np.where(along, y, y - GAP_M), np.where(along, x, wide), np.where(along, tall, y))
    after = shapely.box(
        np.where(along, wide, x), np.where(along, y, tall), np.where(along, wide + GAP_M, wide), np.where(along, tall, tall + GAP_M)
    )
    ends, of = np.concatenate([before, after]), np.concatenate([plain, plain])
    at, other = STRtree(shapes).query(ends, "dwithin", TOUCH_M)
    at, other = at[other != of[at]], other[other != of[at]]
    touches = shapely.distance(shapes[other], shapes[of[at]]) <= TOUCH_M
    free = ~np.isin(np.arange(len(ends)), at[touches])
    near: dict[int, list[BaseGeometry]] = {}
    for end, reached in zip(at, other, strict=True):
        if free[end]:
            near.setdefault(int(end), []).append(shapes[reached])
    shapely.prepare(shape)
    alone = free & ~np.isin(np.arange(len(ends)), at) & ~shapely.covers(shape, ends)
    run = [_up_to(ends[end], shapes[of[end]], others) for end, others in near.items()]
    return shapely.union_all([*shapes, *ends[alone], *run])


def _up_to(end: Polygon, stick: BaseGeometry, others: Sequence[BaseGeometry]) -> BaseGeometry:
    """As much of a stick's lengthening as lies before the nearest other stick."""
    reach = min(other.distance(stick) for other in others) + TOUCH_M
    return end.intersection(stick.buffer(reach, cap_style="square", join_style="mitre"))


def skin_pieces(
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
    for part, bare in panels_of(shape, sheet, upright, level, lap):
        seams.update(dict.fromkeys(bare))
        if part.area < LEAST_SKIN_M2:
            continue
        number = before + len(made) + 1
        key, name = f"{surface.id}/{layer.id}/{number}", f"{surface.id} {number}"
        grain: Grain = "along" if material.bends == "plywood" and surface.swept else "any"
        made.append(flat_piece(key, name, surface.id, "sheet", (material, layer.thickness.si), part, grain))
    return made, [Unbacked(surface.id, layer.id, along, at) for along, at in seams]


def panels_of(
    shape: BaseGeometry, sheet: tuple[float, float], upright: Sequence[float], level: Sequence[float], lap_m: float = 0.0
) -> list[tuple[Polygon, tuple[tuple[str, float], ...]]]:
    """A shape in parts that a sheet holds, laid the way that wants fewer parts; with its seams that no stick backs."""
    if shape.is_empty:
        return []
    s0, t0, s1, t1 = shape.bounds
    if min(s1 - s0, t1 - t0) <= min(sheet) and max(s1 - s0, t1 - t0) <= max(sheet):
        return [(part, ()) for part in polygons_of(shape)]
    ways = []
    for along_s, along_t in ((a - lap_m, b - lap_m) for a, b in (sheet, sheet[::-1])):
        cuts_s, bare_s = stops_of(s0, s1, along_s, upright)
        cuts_t, bare_t = stops_of(t0, t1, along_t, level)
        bare = (*(("s", at) for at in bare_s), *(("t", at) for at in bare_t))
        ways.append((len(cuts_s) * len(cuts_t), len(bare), cuts_s, cuts_t, bare))
    _, _, cuts_s, cuts_t, bare = min(ways, key=lambda way: way[:2])
    out = []
    for a, b in cuts_s:
        for c, d in cuts_t:
            lapped = box(a, c, b + (lap_m if b < s1 - 1e-9 else 0.0), d + (lap_m if d < t1 - 1e-9 else 0.0))
            out += [(part, bare) for part in polygons_of(shape.intersection(lapped))]
    return out


END_LAP_M = 0.15  # of sheets with ribs that are parted along them
MOST_RIBBED = 400  # of one face


def ribbed_pieces(surface: Surface, layer: Layer, material: Material, shape: BaseGeometry, before: int) -> list[Piece]:
    """Sheets with ribs by their own laying width, bought to length: ribs run down a slope, upright on a wall, along a swept skin.

    Where a slope is longer than they come, they are parted and lap. Args: before: how many of this layer there are already.
    """
    cover, longest = (material.cover_mm or 0.0) / 1e3, (material.longest_mm or math.inf) / 1e3
    turned = affinity.rotate(shape, 90, origin=(0, 0)) if surface.swept else shape
    left, _, right, _ = turned.bounds
    if cover <= 0 or (right - left) / cover > MOST_RIBBED:
        return []
    made: list[Piece] = []
    for strip in strips(turned, cover, even=False):
        for part in polygons_of(strip):
            _, y0, _, y1 = part.bounds
            many = max(math.ceil((y1 - y0 - END_LAP_M) / (longest - END_LAP_M) - 1e-9), 1)
            each = (y1 - y0 + END_LAP_M * (many - 1)) / many
            for k in range(many):
                begin = y0 + k * (each - END_LAP_M)
                for piece in polygons_of(part.intersection(box(left - 1, begin, right + 1, begin + each))):
                    if piece.area < LEAST_SKIN_M2:
                        continue
                    at = affinity.rotate(piece, -90, origin=(0, 0)) if surface.swept else piece
                    number = before + len(made) + 1
                    key, name = f"{surface.id}/{layer.id}/{number}", f"{surface.id} ribbed sheet {number}"
                    cut = flat_piece(key, name, surface.id, "sheet", (material, layer.thickness.si), piece, "any", ring_of(at))
                    long = math.ceil((piece.bounds[3] - piece.bounds[1]) * 100 - 1e-6) / 100
                    size = (max(long, cover), min(long, cover))
                    made.append(msgspec.structs.replace(cut, sold_m=size))
    return made


def panels_one_way(shape: BaseGeometry, along_s: float, along_t: float, upright: Sequence[float], level: Sequence[float]) -> list[Polygon]:
    """A shape in parts no longer than so along s and t [m]: where the grain leaves a sheet one way to lie."""
    s0, t0, s1, t1 = shape.bounds
    cuts_s, _ = stops_of(s0, s1, along_s, upright)
    cuts_t, _ = stops_of(t0, t1, along_t, level)
    return [part for a, b in cuts_s for c, d in cuts_t for part in polygons_of(shape.intersection(box(a, c, b, d)))]


def stops_of(low: float, high: float, most: float, lines: Sequence[float]) -> tuple[list[tuple[float, float]], list[float]]:
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
