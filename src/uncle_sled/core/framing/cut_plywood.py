"""Cut plywood sides with spars: the sides carry, spars between them carry floor and skins, furring holds the foam.

The side sheets themselves are layers of the side faces; this lays the sticks on and between them.
"""

from __future__ import annotations

from shapely import box
from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from uncle_sled.core.framing import laying
from uncle_sled.core.framing.cutter import Cutter, edge_strips, pieces
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes

CHORD_M = 0.010  # furring round a curve is cut in straight pieces this true to it; the spars back the skin itself


def wall(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Furring on the inside of a side or end: around its edge, around each hole, upright between."""
    b = sizes.stick[0]
    for hole in holes:
        cut.lay(box(hole.left - b, hole.high, hole.right + b, hole.high + b), "header", hole.id, sizes.stick, (1.0, 0.0))
        cut.lay(box(hole.left - b, hole.low - b, hole.right + b, hole.low), "sill", hole.id, sizes.stick, (1.0, 0.0))
    for shape, _ in pieces(cut.region):
        shape = orient(Polygon(shape.exterior).simplify(CHORD_M))
        edges = edge_strips(shape, b, [True] * (len(shape.exterior.coords) - 1))
        for at, (strip, _, _, direction) in enumerate(edges):
            cut.lay(strip, "edge furring", str(at + 1), sizes.stick, direction)
    for hole in holes:
        for side, s in (("front", hole.left - b / 2), ("rear", hole.right + b / 2)):
            cut.upright(s, "jamb", f"{hole.id}/{side}", sizes.stick, hole.low, hole.high)
    laying.uprights(cut, sizes.stick, sizes.pitch, sizes.sheet_length, "furring", ends=False)
    laying.blocking(cut, sizes.stick, sizes.sheet_width)


def ribs(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Spars between the sides under roof, nose and tail; cleats across under the floor."""
    floor = cut.surface.kind == "floor"
    laying.ribs(
        cut,
        sizes.joist if floor else sizes.rib,
        sizes.rib_pitch if not floor else max(sizes.rib_pitch, 0.4),
        (sizes.sheet_width, sizes.sheet_length),
        holes,
        "joist" if floor else "spar",
        rims=False,
    )


PLYWOOD = SchoolOf(
    "cut plywood sides",
    "Two sides cut from sheets, spars between them, furring for the foam",
    sizes=Sizes(
        0.60, 0.30, stick=(0.045, 0.025), rib=(0.030, 0.025), joist=(0.045, 0.030), sheet_width=1.22, sheet_length=2.44, side_thick=0.018
    ),
    imperial=Sizes(
        0.6096,
        0.3048,
        stick=(0.0381, 0.0254),
        rib=(0.0381, 0.0254),
        joist=(0.0381, 0.0381),
        sheet_width=1.2192,
        sheet_length=2.4384,
        side_thick=0.01905,
    ),
    wall=wall,
    ribs=ribs,
    forms=("profile", "box", "flat", "shed"),
    feet=False,
)
