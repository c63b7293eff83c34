"""Ribs glued up of thin strips round a jig, along the profile, under thin skins; sides of furring.

A strip is at most R/200 thick for dry softwood, R/125 for straight-grained ash; what comes off the jig springs back, so the
jig is rounder: R (1 - 1/n^2). Source: shop notes, strips. Check R 0.60: 4.8 and 3.0 mm; six strips on 0.583, three on 0.533.
"""

from __future__ import annotations

import math

import numpy as np
from shapely import box

from uncle_sled.core.framing import cut_plywood, laying
from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes
from uncle_sled.core.framing.welded_tube import band, contour
from uncle_sled.core.geometry.bend_radius import least_radius_m

PER_RADIUS = {"softwood": 200.0, "light hardwood": 125.0}
LEAST_STRIP_M, MOST_STRIPS = 0.0015, 16


def strip_m(radius_m: float, material: str = "softwood") -> float:
    """The thickest strip that goes round a radius cold and dry [m]. Check 0.60: 3.0 mm softwood, 4.8 ash."""
    return radius_m / PER_RADIUS.get(material, 200.0)


def jig_m(radius_m: float, strips: int) -> float:
    """Radius of the jig, from which the rib springs back to its own [m]. Check 0.60: 0.583 of six, 0.533 of three."""
    return radius_m * (1 - 1 / strips**2) if strips > 1 else 0.0


def strips_in(deep_m: float, radius_m: float, strip: float, material: str = "softwood") -> int:
    """Of how many strips a rib is made. Args: strip: thickness that was typed; 0: the thickest that bends."""
    if math.isinf(radius_m):
        return 1
    thick = strip or strip_m(radius_m, material)
    return max(math.ceil(deep_m / max(thick, 1e-6) - 1e-9), 2)


def ribs(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """Along a swept skin glued ribs at their pitch with stringers at sheet joints; floors and flat roofs as joists."""
    if not cut.surface.swept or cut.surface.kind == "floor":
        laying.ribs(
            cut,
            sizes.joist if cut.surface.kind == "floor" else sizes.rib,
            sizes.rib_pitch,
            (sizes.sheet_width, sizes.sheet_length),
            holes,
            "joist" if cut.surface.kind == "floor" else "rafter",
            rims=True,
        )
        return
    left, low, right, high = cut.region.bounds
    b, deep = sizes.rib
    assert cut.surface.chain is not None
    radius = least_radius_m(cut.surface.chain)
    many = strips_in(deep, radius, sizes.strip, cut.material.id)
    if many > MOST_STRIPS:
        cut.faults.append(
            f"The {cut.surface.id} turns on {{{radius * 1000:.0f} mm}}: a rib {{{deep * 1000:.0f} mm}} deep would want {many} strips of {{{deep / many * 1000:.1f} mm}}; a rounder profile or a shallower rib would be right."
        )
        return
    thick = sizes.strip
    if thick and thick > strip_m(radius, cut.material.id) + 1e-9:
        cut.faults.append(
            f"Strips {{{thick * 1000:.1f} mm}} thick break on the {{{radius * 1000:.0f} mm}} of the {cut.surface.id}; {{{strip_m(radius, cut.material.id) * 1000:.1f} mm}} or less would be right."
        )
        return
    for hole in holes:
        for side, s in (("front", hole.left - b / 2), ("rear", hole.right + b / 2)):
            cut.upright(s, "trimmer", f"{hole.id}/{side}", sizes.rib, hole.low - b, hole.high + b)
    for t in laying.rib_stations(low, high, b, sizes.rib_pitch):
        shape = box(left, t - b / 2, right, t + b / 2)
        if many > 1:
            cut.bent(shape, "glued rib", laying.name_at(t), sizes.rib, right - left, (), many)
        else:
            cut.level(t, "rib", laying.name_at(t), sizes.rib, left, right)
    for s in laying.stations(left, right, sizes.sheet_width):
        cut.upright(s, "stringer", laying.name_at(s), sizes.rib, low, high, joint=True)
    for s in (left + b / 2, right - b / 2):
        cut.upright(s, "stringer", laying.name_at(s), sizes.rib, low, high)


def wall(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """A side: a glued rib round its curve, then furring as on a cut side."""
    side = cut.surface.kind in ("left side", "right side")
    if side:
        points = contour(cut.region)
        radius = least_radius_m(points)
        many = strips_in(sizes.stick[0], radius, sizes.strip, cut.material.id)
        shape = band(points, sizes.stick[0])
        long = float(np.hypot(*np.diff(points, axis=0).T).sum())
        if shape is not None and 1 < many <= MOST_STRIPS:
            cut.bent(shape, "glued rib", "edge", sizes.stick, long, (), many)
    cut_plywood.wall(cut, sizes, holes)


STRIPS = SchoolOf(
    "strip ribs",
    "Ribs glued up of strips round a jig, stringers across, thin skins",
    sizes=Sizes(
        0.60, 0.40, stick=(0.030, 0.025), rib=(0.030, 0.025), joist=(0.045, 0.030), sheet_width=1.22, sheet_length=2.44, side_thick=0.0
    ),
    imperial=Sizes(
        0.6096,
        0.4064,
        stick=(0.0318, 0.0254),
        rib=(0.0318, 0.0254),
        joist=(0.0381, 0.0381),
        sheet_width=1.2192,
        sheet_length=2.4384,
        side_thick=0.0,
    ),
    wall=wall,
    ribs=ribs,
    forms=("profile", "box", "flat", "shed"),
    feet=False,
)
