"""Does the leaf of a door inside swing into something?

A hinged leaf turns a quarter about its hinge to the side that it opens to; whatever stands in that quarter, over the floor and
under the door's head, is hit. Source: plane geometry; the quarter that the drawing shows.
"""

from __future__ import annotations

import msgspec
from shapely.geometry import Polygon, box

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.partitions import leaf_arc, walls_of
from uncle_sled.core.studies.stow.solids import Solid, solids_in

OVERLAP_M2 = 0.002  # a corner that is brushed
CLEAR_M = 0.01  # what lies flatter on the floor than that is passed over


class LeafHits(msgspec.Struct, frozen=True):
    """A wall's leaf and what it swings into in a mode; opens_deg: how far it comes before that [degrees], 0 to 90."""

    wall: str
    wall_name: str
    thing: str
    thing_name: str
    mode: str
    opens_deg: float


def leaves_hit(build: Build, facts: Facts, body: Body | None, modes: tuple[Mode, ...]) -> tuple[LeafHits, ...]:
    """Every hinged inner door that something stands in the way of, once a wall and thing, in the first mode it is so."""
    if body is None:
        return ()
    walls = walls_of(build.shell, body, library_of(facts.materials))
    found: dict[tuple[str, str], LeafHits] = {}
    for wall, partition in zip(walls, build.shell.partitions, strict=True):
        arc = leaf_arc(wall, partition)
        if arc is None or wall.door is None or wall.fault:
            continue
        quarter = Polygon(arc)
        _, foot, _, head = wall.door.bounds
        for mode in modes:
            for solid in solids_in(build.stow, mode):
                if (wall.id, solid.id) in found or solid.outside or not _in_the_way(solid, quarter, foot, head):
                    continue
                found[wall.id, solid.id] = LeafHits(wall.id, wall.name, solid.id, solid.name, mode.id, _opens_deg(arc, solid))
    return tuple(found.values())


def _in_the_way(solid: Solid, quarter: Polygon, foot: float, head: float) -> bool:
    if solid.low[2] >= head - CLEAR_M or solid.high[2] <= foot + CLEAR_M:
        return False
    return bool(box(solid.low[0], solid.low[1], solid.high[0], solid.high[1]).intersection(quarter).area > OVERLAP_M2)


def _opens_deg(arc: list[tuple[float, float]], solid: Solid) -> float:
    """How far the leaf turns before it meets a box [degrees], to a twelfth of its swing."""
    hinge, *edge = arc
    plan = box(solid.low[0], solid.low[1], solid.high[0], solid.high[1])
    for k in range(1, len(edge)):
        if Polygon([hinge, *edge[: k + 1]]).intersection(plan).area > OVERLAP_M2 / 4:
            return 90.0 * (k - 1) / (len(edge) - 1)
    return 90.0
