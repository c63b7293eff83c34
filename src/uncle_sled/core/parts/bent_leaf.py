"""A hatch of one's own that goes round a curve: ribs sawn along it, cross-bars between them, skins bent over, foam in the bays.

A line with corners has a skin for each run between them. Ribs stand a skin inside of the outline and are as deep as the leaf's sticks; their neutral lengths are those of parallel
curves (a curve d inside of one that turns by a is a d shorter). The gap at the free edge is the most that its end comes
toward the jamb as it swings about the hinge at its outer face. Checks: quarter circle of 0.60, skins 4, sticks 25 deep:
outer skin 942.5 mm, inner 896.9; a flat one of 0.60 by 0.04 sweeps 1.33 mm, a quarter circle nothing.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
from shapely import affinity
from shapely.geometry import LineString, Polygon
from shapely.ops import substring

from uncle_sled.core.document.shell import Leaf
from uncle_sled.core.geometry.bend_radius import least_radius_m
from uncle_sled.core.geometry.profile import Points, parted_at_corners
from uncle_sled.core.geometry.ring import corners_of
from uncle_sled.core.materials import TIMBER

SWING_STEPS = 180
PITCH_M = 0.4
Ring = tuple[tuple[float, float], ...]


class LeafPiece(msgspec.Struct, frozen=True):
    """kind: bar, sheet or fill; sizes [m], the section of a bar as (seen, through); many alike. outline: where it is no rectangle.

    backed_m: where sticks stand behind a bent sheet: along its length, and across it; it may be parted there.
    """

    name: str
    kind: str
    material: str
    length_m: float
    width_m: float
    thick_m: float
    many: int
    outline: Ring = ()
    backed_m: tuple[tuple[float, ...], tuple[float, ...]] | None = None


class Bent(msgspec.Struct, frozen=True):
    """The pieces of a round leaf; its lines from the hinge on: outside, rib's outer and inner edge, inside (n, 2) [m].

    bars_at: of its cross-bars, the middle and the way along (x, z, dx, dz); tightest radii of its skins [m].
    """

    pieces: tuple[LeafPiece, ...]
    lines: tuple[Ring, ...]
    bars_at: tuple[tuple[float, float, float, float], ...]
    outer_radius_m: float
    inner_radius_m: float


def swing_gap_m(outline: Points, thick_m: float, opens_deg: float) -> float:
    """How far the free end of a leaf comes toward its jamb as it opens [m].

    Args: outline: (n, 2) from the hinge at 0, 0 to the free edge, outside face; thick_m: of the leaf; opens_deg: from shut.
    """
    along = outline[-1] - outline[-2]
    along = along / max(float(np.hypot(*along)), 1e-12)
    inward = np.array([along[1], -along[0]])
    ends = np.stack([outline[-1], outline[-1] + inward * thick_m])
    turn = np.radians(np.linspace(0.0, max(opens_deg, 0.0), SWING_STEPS + 1))
    c, s = np.cos(turn)[:, None], np.sin(turn)[:, None]
    moved = [np.stack([c[:, 0] * x - s[:, 0] * z - x, s[:, 0] * x + c[:, 0] * z - z], axis=1) @ along for x, z in ends]
    return max(float(np.max(moved)), 0.0)


def inside_of(outline: LineString, depth_m: float) -> LineString | None:
    """The curve so deep inside of the outline, as long as it has one."""
    if depth_m <= 1e-9:
        return outline
    made = outline.offset_curve(-depth_m, join_style="mitre", mitre_limit=4.0)
    return made if isinstance(made, LineString) and not made.is_empty else None


def bent_leaf(leaf: Leaf, wide_m: float, outline: Points, gaps_m: tuple[float, float]) -> Bent | str:
    """The pieces, or why it cannot be made. Args: wide_m: of the leaf; outline: (n, 2); gaps_m: at the hinge, at the free edge."""
    seen, deep, skin = leaf.stick.thick.si, leaf.stick.deep.si, leaf.skin_thick.si
    whole = LineString(outline)
    outer = substring(whole, gaps_m[0], whole.length - gaps_m[1])
    lines = [inside_of(outer, depth) for depth in (skin, skin + deep, 2 * skin + deep)]
    if any(line is None for line in lines) or outer.length < 4 * seen:
        return "its curve is tighter than it is thick"
    under, over, inner = (line for line in lines if line is not None)
    rib = Polygon([*under.coords, *reversed(over.coords)])
    if not rib.is_valid or rib.area < 0.5 * outer.length * deep:
        return "its curve is tighter than it is thick"
    if leaf.window_width is not None or leaf.window_height is not None:
        return "a window does not go into a leaf that is bent"
    pitch = leaf.rib_pitch.si if leaf.rib_pitch is not None else PITCH_M
    many = max(2, math.ceil((wide_m - seen) / pitch - 1e-6) + 1)
    clear = (wide_m - many * seen) / (many - 1)
    if clear <= 0.01:
        return "its ribs leave nothing between them"
    length, high, ring = _laid(rib)
    pieces = [LeafPiece("rib", "sheet", material=leaf.rib, length_m=length, width_m=high, thick_m=seen, many=many, outline=ring)]
    outside, middle, inside = (_runs(line) for line in (outer, inside_of(outer, skin + deep / 2) or under, inner))
    if not len(outside) == len(middle) == len(inside):
        return "its curve is tighter than it is thick"
    bars_at: list[tuple[float, float, float, float]] = []
    backed: list[tuple[float, ...]] = []  # of each run, as shares of it
    for run in middle:
        here = max(2, math.ceil((run.length - seen) / pitch - 1e-6) + 1)
        bay = (run.length - here * seen) / (here - 1)
        if bay <= 0:
            return "a part of its line is too short for two cross-bars"
        pieces.append(LeafPiece("cross-bar", "bar", material=TIMBER, length_m=clear, width_m=seen, thick_m=deep, many=here * (many - 1)))
        if leaf.foam:
            fill = LeafPiece("foam", "fill", material=leaf.foam, length_m=bay, width_m=clear, thick_m=deep, many=(here - 1) * (many - 1))
            pieces.append(fill)
        stand = [seen / 2 + k * (run.length - seen) / (here - 1) for k in range(here)]
        backed.append(tuple(at / run.length for at in stand))
        bars_at += [_placed(run, at) for at in stand]
    across = tuple(seen / 2 + k * (wide_m - seen) / (many - 1) for k in range(many))
    for name, runs in (("outer skin", outside), ("inner skin", inside)):
        for run, shares in zip(runs, backed, strict=True):
            size = {"length_m": run.length, "width_m": wide_m, "thick_m": skin, "many": 1}
            behind = (tuple(share * run.length for share in shares), across)
            pieces.append(LeafPiece(name, "sheet", material=leaf.skin, **size, backed_m=behind))
    radius = min(least_radius_m(np.array(run.coords)) for run in outside)
    return Bent(
        tuple(_named_apart(pieces)),
        lines=tuple(tuple((float(x), float(z)) for x, z in line.coords) for line in (outer, under, over, inner)),
        bars_at=tuple(bars_at),
        outer_radius_m=radius,
        inner_radius_m=radius - skin - deep,
    )


def _placed(line: LineString, at_m: float) -> tuple[float, float, float, float]:
    """A point so far along a line, and the way the line goes there."""
    a, b = line.interpolate(max(at_m - 1e-4, 0.0)), line.interpolate(min(at_m + 1e-4, line.length))
    long = max(math.hypot(b.x - a.x, b.y - a.y), 1e-12)
    return (a.x + b.x) / 2, (a.y + b.y) / 2, (b.x - a.x) / long, (b.y - a.y) / long


def _runs(line: LineString) -> list[LineString]:
    """A line parted at its corners, since no sheet goes round one."""
    return [LineString(run) for run in parted_at_corners(np.array(line.coords))]


def _named_apart(pieces: list[LeafPiece]) -> list[LeafPiece]:
    """Pieces of one name get a number each where there are several kinds of them."""
    names = [piece.name for piece in pieces]
    many = dict.fromkeys(names, 0)
    made = []
    for piece in pieces:
        many[piece.name] += 1
        name = f"{piece.name} {many[piece.name]}" if names.count(piece.name) > 1 else piece.name
        made.append(msgspec.structs.replace(piece, name=name))
    return made


def _laid(shape: Polygon) -> tuple[float, float, Ring]:
    """A shape turned so that its box is narrowest, its corner at 0, 0: its length, width and outline [m]."""
    corners = np.array(shape.minimum_rotated_rectangle.exterior.coords)
    sides = np.hypot(*np.diff(corners, axis=0).T)
    way = np.diff(corners, axis=0)[int(np.argmax(sides[:2]))]
    turned = affinity.rotate(shape, -math.degrees(math.atan2(way[1], way[0])), origin=(0, 0))
    left, low, right, high = turned.bounds
    placed = affinity.translate(turned, -left, -low)
    return right - left, high - low, tuple((round(x, 6), round(y, 6)) for x, y in corners_of(placed.exterior))
