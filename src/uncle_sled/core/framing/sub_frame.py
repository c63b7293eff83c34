"""A sub-frame of steel tube under a floor of bonded panels: two rails along, cross-tubes between them at the pitch.

It is wanted where a joist was typed in the school of sandwich panels; the tube is of that section and of 2 mm wall where
nobody said. Its tubes lie under the floor's underside, on the frame or the vehicle's bed.
"""

from __future__ import annotations

import math

from shapely.geometry import Polygon, box

from uncle_sled.core.framing.member import Member, stick_mass_kg
from uncle_sled.core.framing.school import Sizes
from uncle_sled.core.framing.welded_tube import STEEL
from uncle_sled.core.geometry.surfaces import Body, Surface

WELDS = 0.04  # of the tubes' mass: weld metal and plates


def sub_frame(body: Body, sizes: Sizes) -> tuple[Member, ...]:
    """Its tubes; none where there is no flat floor, or it is narrower than two rails."""
    floor = next((face for face in body.surfaces if face.kind == "floor"), None)
    wide, _deep = sizes.joist
    if floor is None:
        return ()
    left, low, right, high = floor.polygon.bounds
    if high - low <= 2 * wide or right - left <= 2 * wide:
        return ()
    made = [
        _tube(floor, sizes, box(left, low, right, low + wide), "rail", "left", along_s=True),
        _tube(floor, sizes, box(left, high - wide, right, high), "rail", "right", along_s=True),
    ]
    many = math.ceil((right - left - wide) / sizes.rib_pitch - 1e-9) + 1
    step = (right - left - wide) / (many - 1)
    for k in range(many):
        at = left + k * step
        made.append(_tube(floor, sizes, box(at, low + wide, at + wide, high - wide), "cross-tube", str(k + 1), along_s=False))
    return tuple(made)


def _tube(floor: Surface, sizes: Sizes, shape: Polygon, kind: str, anchor: str, along_s: bool) -> Member:
    a, b, c, d = shape.bounds
    middle = shape.centroid
    wall = sizes.wall or 0.002
    return Member(
        f"floor/sub-frame/{kind} {anchor}",
        floor.id,
        face_kind="floor",
        kind=f"sub-frame {kind}",
        role="sub-frame",
        anchor=f"{kind} {anchor}",
        section_m=sizes.joist,
        material=STEEL.id,
        outline=tuple((float(x), float(y)) for x, y in shape.exterior.coords[:-1]),
        length_m=c - a if along_s else d - b,
        ends_deg=(0.0, 0.0),
        mass_kg=stick_mass_kg(shape, sizes.joist, STEEL, WELDS, wall),
        at_m=floor.place(middle.x, middle.y, -sizes.joist[1] / 2),
        along_s=along_s,
        wall_m=wall,
    )
