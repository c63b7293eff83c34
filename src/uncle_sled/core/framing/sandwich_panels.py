"""Bought sandwich panels without a frame: corner profiles along every joint, bonded and riveted; the panels are the faces' layers.

The profile is an aluminium angle outside, 40 x 40 x 2 mm where nobody said otherwise (Stick thick and deep are its legs).
"""

from __future__ import annotations

import numpy as np
from shapely.geometry import LineString, Polygon

from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.member import Member
from uncle_sled.core.framing.school import Hole, SchoolOf, Sizes
from uncle_sled.core.geometry.body_joints import joints_of
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.materials import Material

ALUMINIUM = Material(
    "aluminium-angle",
    "Aluminium angle",
    density_kg_m3=2700.0,
    conductivity_w_mk=160.0,
    mu=1e6,
    kg_m2=None,
    r_m2k_w=None,
    money_m3=30000.0,
    money_m2=None,
    hours_m2=0.2,
    bends="",
    source="estimated",
    family="metal",
)
LEAST_TURN_DEG = 12.0
RIVETS = 0.06  # of the profile's mass: rivets and adhesive


def angle_kg_m(legs_m: tuple[float, float], wall_m: float) -> float:
    """Check 40 x 40 x 2: 0.42 kg/m."""
    return 2700.0 * wall_m * (legs_m[0] + legs_m[1] - wall_m)


def profiles(body: Body, sizes: Sizes) -> tuple[Member, ...]:
    """A corner profile along every joint that turns."""
    made = []
    of = {face.id: face for face in body.surfaces}
    legs, wall = sizes.stick, sizes.wall or 0.002
    for joint in joints_of(body):
        if not joint.b or joint.turn_deg < LEAST_TURN_DEG:
            continue
        surface = of[joint.a]
        for k, run in enumerate(joint.on_a, 1):
            line = LineString(run)
            shape = line.buffer(legs[0], single_sided=True, join_style="mitre").intersection(surface.polygon)
            if shape.area < 0.3 * line.length * legs[0]:  # the run goes the other way round
                shape = line.buffer(-legs[0], single_sided=True, join_style="mitre").intersection(surface.polygon)
            if shape.geom_type == "MultiPolygon":
                shape = max(shape.geoms, key=lambda g: g.area)
            if not isinstance(shape, Polygon) or shape.is_empty or line.length < 0.04:
                continue
            middle = line.interpolate(0.5, normalized=True)
            long = joint.length_m * line.length / max(sum(LineString(r).length for r in joint.on_a), 1e-9)
            ends = np.abs(np.array(run[-1]) - np.array(run[0]))
            made.append(
                Member(
                    f"{joint.a}/corner profile/{joint.b}" + (f"/{k}" if k > 1 else ""),
                    joint.a,
                    face_kind=joint.kinds[0],
                    kind="corner profile",
                    role="corner profile",
                    anchor=joint.b,
                    section_m=legs,
                    material=ALUMINIUM.id,
                    outline=tuple((float(x), float(y)) for x, y in shape.exterior.coords[:-1]),
                    length_m=long,
                    ends_deg=(0.0, 0.0),
                    mass_kg=angle_kg_m(legs, wall) * long * (1 + RIVETS),
                    at_m=surface.place(middle.x, middle.y, 0.0),
                    along_s=bool(ends[0] >= ends[1]),
                    wall_m=wall,
                )
            )
    return tuple(made)


def _nothing(cut: Cutter, sizes: Sizes, holes: list[Hole]) -> None:
    """The panel itself carries."""


PANELS = SchoolOf(
    "sandwich panels",
    "Bought panels bonded and riveted at corner profiles, no frame; a joist, where one is typed, makes a sub-frame of steel tube under them",
    sizes=Sizes(
        0.60,
        0.60,
        stick=(0.040, 0.040),
        rib=(0.040, 0.040),
        joist=(0.040, 0.040),
        sheet_width=1.25,
        sheet_length=3.0,
        side_thick=0.0,
        wall=0.002,
    ),
    imperial=Sizes(
        0.6096,
        0.6096,
        stick=(0.0381, 0.0381),
        rib=(0.0381, 0.0381),
        joist=(0.0381, 0.0381),
        sheet_width=1.2192,
        sheet_length=3.048,
        side_thick=0.0,
        wall=0.0015875,
    ),
    wall=_nothing,
    ribs=_nothing,
    forms=("profile", "box", "flat", "shed", "gable", "butterfly", "bevelled"),
    feet=True,
    material=ALUMINIUM,
)
