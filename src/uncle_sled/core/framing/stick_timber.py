"""Stick timber: plates, studs, headers over openings on jacks beside kings, sills, cripples; joists and rafters.

Source: platform framing as in any carpentry text, in light sections.
"""

from __future__ import annotations

import itertools

from shapely import box
from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from uncle_sled.core.framing import laying
from uncle_sled.core.framing.cutter import Cutter, edge_strips, pieces
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes

# Depth of a header by its span [m]: light roofs; the screening check says more.
HEADERS = ((0.9, 0.09), (1.2, 0.12), (1.8, 0.17), (99.0, 0.22))
CHORD_M = 0.004  # plates under a curve are cut in straight pieces this true to it


def header_depth_m(span_m: float) -> float:
    """Depth of a header over a span [m]. Source: platform framing practice for light walls."""
    return next(deep for most, deep in HEADERS if span_m <= most)


def wall(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """A wall standing on its sole plate."""
    b = sizes.stick[0]
    left, low, right, high = cut.region.bounds
    cut.lay(box(left, low, right, low + b), "sole", "foot", sizes.stick, (1.0, 0.0))
    _top_plates(cut, sizes)
    for hole in holes:
        # over a wheel box the frame carries: one stick closes the wall
        deep = header_depth_m(hole.right - hole.left) if hole.kind != "wheel box" else HEADERS[0][1]
        cut.lay(box(hole.left - b, hole.high, hole.right + b, hole.high + deep), "header", hole.id, (deep, sizes.stick[1]), (1.0, 0.0))
        if hole.low > low + b:
            cut.lay(box(hole.left, hole.low - b, hole.right, hole.low), "sill", hole.id, sizes.stick, (1.0, 0.0))
    for hole in holes:
        for side, s in (("front", hole.left - b / 2), ("rear", hole.right + b / 2)):
            cut.upright(s, "jack", f"{hole.id}/{side}", sizes.stick, low, hole.high)
    for hole in holes:
        for side, s in (("front", hole.left - 1.5 * b), ("rear", hole.right + 1.5 * b)):
            cut.upright(s, "king", f"{hole.id}/{side}", sizes.stick, low, high)
    laying.uprights(cut, sizes.stick, sizes.pitch, sizes.sheet_width, "stud")
    laying.blocking(cut, sizes.stick, sizes.sheet_length)
    laying.name_cripples(cut, "stud", holes)


def _top_plates(cut: Cutter, sizes: Sizes) -> None:
    for shape, _ in pieces(cut.region):
        shape = orient(Polygon(shape.exterior).simplify(CHORD_M))
        left, low, right, _ = shape.bounds
        ring = list(shape.exterior.coords)
        wanted = []
        for (x0, y0), (x1, y1) in itertools.pairwise(ring):
            foot = max(y0, y1) < low + 1e-3
            plumb = abs(x1 - x0) < 1e-3 and (abs(x0 - left) < 1e-3 or abs(x0 - right) < 1e-3)
            wanted.append(not foot and not plumb)
        for at, (strip, _, _, direction) in enumerate(edge_strips(shape, sizes.stick[0], wanted)):
            cut.lay(strip, "plate", str(at + 1), sizes.stick, direction)


def ribs(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Joists of a floor, rafters of a roof, with rims along their ends."""
    floor = cut.surface.kind == "floor"
    laying.ribs(
        cut,
        sizes.joist if floor else sizes.rib,
        sizes.rib_pitch,
        (sizes.sheet_width, sizes.sheet_length),
        holes,
        "joist" if floor else "spar" if cut.surface.swept else "rafter",
        rims=True,
    )


STICK = SchoolOf(
    "stick timber",
    "Studs, plates and rafters of sawn timber under sheets",
    sizes=Sizes(
        0.40, 0.40, stick=(0.045, 0.070), rib=(0.045, 0.070), joist=(0.045, 0.070), sheet_width=1.22, sheet_length=2.44, side_thick=0.0
    ),
    imperial=Sizes(
        0.4064,
        0.4064,
        stick=(0.0381, 0.0889),
        rib=(0.0381, 0.0889),
        joist=(0.0381, 0.0889),
        sheet_width=1.2192,
        sheet_length=2.4384,
        side_thick=0.0,
    ),
    wall=wall,
    ribs=ribs,
    forms=("profile", "box", "flat", "shed", "gable", "butterfly", "bevelled"),
    feet=True,
)
