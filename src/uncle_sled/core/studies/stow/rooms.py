"""Which rooms do partitions and bulkheads make, and in which of them does something stand?

In plan: the floor inside less the walls that reach from wall to wall, or that close a corner. A low wall parts nothing; an
opening without a leaf never does; a door does where it is shut.
"""

from __future__ import annotations

import math

import msgspec
from shapely import box
from shapely.geometry import Point, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.parts.partitions import inner_plan_m, inner_shape, walls_of
from uncle_sled.core.studies.stow.solids import Solid

LOW_SHARE = 0.7  # of the room's height: a lower wall is furniture
THIN_M = 0.01


class Rooms(msgspec.Struct, frozen=True, eq=False):
    """The rooms in plan, from front to rear and left to right."""

    plans: tuple[Polygon, ...]

    def of(self, x: float, y: float) -> int:
        """The room that a place is in, or the nearest to it; 0 where there is one only."""
        if len(self.plans) < 2:
            return 0
        here = Point(x, y)
        return min(range(len(self.plans)), key=lambda k: self.plans[k].distance(here))

    def of_solid(self, solid: Solid) -> int:
        """The room that the middle of a thing stands in."""
        return self.of((solid.low[0] + solid.high[0]) / 2, (solid.low[1] + solid.high[1]) / 2)


@keep("shell", "body", "shut", most=6)
def rooms_of(shell: Shell, body: Body, shut: bool) -> Rooms:
    """The rooms of a body with its inner doors shut, or open."""
    front, left, rear, right = inner_plan_m(shell, body)
    if not (front < rear and left < right and all(map(math.isfinite, (front, left, rear, right)))):
        return Rooms(())  # its walls leave nothing inside
    floor: BaseGeometry = inner_shape(shell, body) or box(front, left, rear, right)
    cuts = []
    for face in shell.faces:
        if face.kind == "bulkhead" and face.weight_at and not face.doorway:
            x = face.weight_at.si
            cuts.append(box(x - THIN_M / 2, left - 1, x + THIN_M / 2, right + 1))
    _, low, _, high = inside_of(shell, body).bounds
    for wall, partition in zip(walls_of(shell, body, library_of(())), shell.partitions, strict=True):
        if wall.fault or wall.outline.is_empty:
            continue
        _, foot, _, top = wall.outline.bounds
        if partition.height is not None and top - foot < LOW_SHARE * (high - low):
            continue
        for corners in wall.boxes:
            if corners[0][2] > foot + 0.05 and (partition.door == "opening" or not shut):
                continue  # what is over a door parts nothing
            cuts.append(box(corners[0][0], corners[0][1], corners[1][0], corners[1][1]))
    free = floor.difference(unary_union(cuts)) if cuts else floor
    parts = [part for part in getattr(free, "geoms", [free]) if isinstance(part, Polygon) and part.area > 0.02]
    return Rooms(tuple(sorted(parts, key=lambda part: (round(part.bounds[0], 3), part.bounds[1]))))
