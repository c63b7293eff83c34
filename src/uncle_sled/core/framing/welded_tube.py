"""Welded square tube: a base, side hoops that pie cuts fold round the profile, uprights, cross-tubes, frames around openings.

The frames of the sides reach from skin to skin; tubes of floor, roof and nose lie between them. Source: shop notes, schools
and pie cuts. Fasteners' share stands for weld metal and brackets.
"""

from __future__ import annotations

import numpy as np
from msgspec.structs import replace
from shapely import box, get_parts, make_valid
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing import laying
from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.member import steel_share
from uncle_sled.core.framing.pie_cuts import hoops
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes
from uncle_sled.core.materials import Material

STEEL_W_MK, HOLLOW_M2K_W = 50.0, 0.18
STEEL = Material(
    "steel-tube",
    "Steel tube",
    density_kg_m3=7850.0,
    conductivity_w_mk=50.0,
    mu=1e6,
    kg_m2=None,
    r_m2k_w=None,
    money_m3=9000.0,
    money_m2=None,
    hours_m2=0.4,
    bends="",
    source="estimated",
    family="metal",
)


def tube_in_wall(sizes: Sizes | None) -> Material | None:
    """A tube as heat sees it going through a wall: webs of steel beside still air. None where the sticks are solid.

    Source: shell notes; 30 x 30 x 2: R 0.0044 m2K/W.
    """
    if sizes is None or sizes.wall <= 0:
        return None
    wide, deep = sizes.stick
    share = min((1 if sizes.channel else 2) * sizes.wall / wide, 1.0)  # a C has one web
    through = 1 / (share / (deep / STEEL_W_MK) + (1 - share) / HOLLOW_M2K_W)
    return replace(
        STEEL, density_kg_m3=7850.0 * steel_share(sizes.stick, sizes.wall, channel=sizes.channel), conductivity_w_mk=deep / through
    )


def contour(region: BaseGeometry) -> np.ndarray:
    """The outer edge of a wall without its foot, from the front over the top to the rear; the wall on the right hand."""
    shape = max(region.geoms, key=lambda g: g.area) if region.geom_type == "MultiPolygon" else region
    assert isinstance(shape, Polygon)
    ring = np.array(shape.exterior.coords)[:-1]
    if shape.exterior.is_ccw:
        ring = ring[::-1]
    low = ring[:, 1].min() + 1e-3
    foot = ring[:, 1] <= low
    if foot.all() or not foot.any():
        return ring
    # begin at the foot's front end: the last foot point before the edge rises
    start = next(k for k in range(len(ring)) if foot[k] and not foot[(k + 1) % len(ring)])
    ring = np.roll(ring, -start, axis=0)
    end = next(k for k in range(1, len(ring)) if ring[k, 1] <= low)
    return ring[: end + 1]


def band(points: np.ndarray, deep_m: float) -> Polygon | None:
    """What a bar of a depth covers inside of its outer face."""
    line = LineString(points)
    made = make_valid(line.buffer(-deep_m, single_sided=True, join_style="mitre"))
    whole = [part for part in get_parts(made).tolist() if isinstance(part, Polygon)]
    return max(whole, key=lambda one: one.area, default=None)


def wall(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """A side or a plumb end: its base, its hoop, frames around openings, uprights between."""
    b = sizes.stick[0]
    left, low, right, _high = cut.region.bounds
    cut.lay(box(left, low, right, low + b), "base", "foot", sizes.stick, (1.0, 0.0))
    try:
        bars = hoops(contour(cut.region), b, sizes.wall, sizes.tolerance)
    except GeometryError as fault:
        cut.faults.append(f"The hoop of the {cut.surface.id} cannot be folded. {fault}")
        return
    for at, bar in enumerate(bars, 1):
        shape = band(np.array(bar.points), b)
        if shape is not None:
            cut.bent(shape, "hoop", str(at), sizes.stick, bar.length_m, bar.cuts)
    for hole in holes:
        for side, t in (("over", hole.high + b / 2), ("under", hole.low - b / 2)):
            if t > low + b:
                cut.level(t, "frame", f"{hole.id}/{side}", sizes.stick, hole.left - b, hole.right + b)
    for hole in holes:
        for side, s in (("front", hole.left - b / 2), ("rear", hole.right + b / 2)):
            cut.upright(s, "frame", f"{hole.id}/{side}", sizes.stick, max(hole.low - b, low), hole.high)
    laying.uprights(cut, sizes.stick, sizes.pitch, sizes.sheet_width, "upright", ends=False)
    laying.blocking(cut, sizes.stick, sizes.sheet_length)
    laying.name_cripples(cut, "upright", holes)


def ribs(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Tubes across floor, roof and nose between the frames of the sides."""
    floor = cut.surface.kind == "floor"
    laying.ribs(
        cut,
        sizes.joist if floor else sizes.rib,
        sizes.rib_pitch,
        (sizes.sheet_width, sizes.sheet_length),
        holes,
        "floor tube" if floor else "cross-tube",
        rims=False,
    )


TUBE = SchoolOf(
    "welded tube",
    "Base, side hoops folded by pie cuts, uprights and cross-tubes of square tube",
    sizes=Sizes(
        0.40,
        0.50,
        stick=(0.030, 0.030),
        rib=(0.030, 0.030),
        joist=(0.030, 0.030),
        sheet_width=1.22,
        sheet_length=2.44,
        side_thick=0.030,
        wall=0.002,
    ),
    imperial=Sizes(
        0.4064,
        0.508,
        stick=(0.03175, 0.03175),
        rib=(0.03175, 0.03175),
        joist=(0.03175, 0.03175),
        sheet_width=1.2192,
        sheet_length=2.4384,
        side_thick=0.03175,
        wall=0.0021082,
    ),
    wall=wall,
    ribs=ribs,
    forms=("profile", "box", "flat", "shed"),
    feet=False,
    material=STEEL,
    refuses=None,
    whole_sides=True,
)
