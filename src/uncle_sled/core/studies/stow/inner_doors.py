"""Does the leaf of a door inside swing or slide into something, and what stands where it goes into its wall?

A hinged leaf turns a quarter about its hinge to the side that it opens to, one that slides wants a strip along its wall and the
place where it parks; whatever stands there, over the floor and under the door's head, is hit: things, the body's walls, other
walls, other leaves. A pocket takes no screw longer than its skin and the air behind it. Source: plane geometry.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations

import msgspec
from shapely import STRtree, box
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Partition, Shell
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.geometry.surfaces import Body
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inner_doors import LeafRoom, leaf_room
from uncle_sled.core.parts.inner_leaf import skin_m
from uncle_sled.core.parts.partitions import PLAY_M, Wall, inner_plan_m, inner_shape, walls_of
from uncle_sled.core.studies.shell.screws import most_m
from uncle_sled.core.studies.stow.solids import Solid, solids_in

OVERLAP_M2 = 0.002  # a corner that is brushed
CLEAR_M = 0.01  # what lies flatter on the floor than that is passed over
BESIDE_M = 0.03  # so near to a pocket's skin a thing is fixed to it


class LeafHits(msgspec.Struct, frozen=True):
    """A wall's leaf and what it meets in a mode ("" where it is so in all). free: how far it opens before that, 0 to 1 of its way."""

    wall: str
    wall_name: str
    thing: str
    thing_name: str
    mode: str
    turns: bool
    free: float


class AtPocket(msgspec.Struct, frozen=True):
    """A thing that stands against the skin of a pocket; longest_m: of a screw that stays off the leaf [m]."""

    wall: str
    wall_name: str
    thing: str
    thing_name: str
    longest_m: float


def rooms_wanted(shell: Shell, walls: Sequence[Wall]) -> tuple[LeafRoom, ...]:
    """What every leaf that moves outside of its wall wants."""
    made = (leaf_room(wall, partition) for wall, partition in zip(walls, shell.partitions, strict=True))
    return tuple([room for room in made if room is not None])


def leaves_hit(build: Build, facts: Facts, body: Body | None, modes: tuple[Mode, ...]) -> tuple[LeafHits, ...]:
    """Every inner door that something is in the way of, once a wall and thing, in the first mode it is so."""
    if body is None or not build.shell.partitions:
        return ()
    walls = walls_of(build.shell, body, library_of(facts.materials))
    wanted = rooms_wanted(build.shell, walls)
    found = [*_fixed(build.shell, body, walls, wanted), *_leaf_on_leaf(wanted)]
    met: set[tuple[str, str]] = set()
    for mode in modes if wanted else ():
        solids = [solid for solid in solids_in(build.stow, mode) if not solid.outside]
        tree = STRtree([_plan_of(solid) for solid in solids])
        for room in wanted:
            for k in sorted(tree.query(room.shape)):
                solid = solids[k]
                if (room.wall, solid.id) in met or not _between(solid, room.foot_m, room.head_m):
                    continue
                if room.shape.intersection(_plan_of(solid)).area > OVERLAP_M2 / (1 if room.turns else 4):
                    met.add((room.wall, solid.id))
                    found.append(_hit(room, solid.id, solid.name, mode.id, _plan_of(solid)))
    return tuple(found)


def at_pockets(build: Build, facts: Facts, body: Body | None, modes: tuple[Mode, ...]) -> tuple[AtPocket, ...]:
    """Every thing that stands against a pocket's skin where its screws would meet the leaf, once."""
    if body is None:
        return ()
    walls = walls_of(build.shell, body, library_of(facts.materials)) if build.shell.partitions else ()
    found: dict[tuple[str, str], AtPocket] = {}
    for wall, partition in zip(walls, build.shell.partitions, strict=True):
        if wall.pocket is None or wall.door is None:
            continue
        _, foot, _, head = wall.door.bounds
        zone = _pocket_zone(wall)
        for mode in modes:
            for solid in solids_in(build.stow, mode):
                if (wall.id, solid.id) in found or solid.outside or not _between(solid, foot, head):
                    continue
                if _plan_of(solid).intersection(zone).area > OVERLAP_M2 / 4:
                    found[wall.id, solid.id] = AtPocket(wall.id, wall.name, solid.id, solid.name, longest_in_pocket_m(partition))
    return tuple(found.values())


def _pocket_zone(wall: Wall) -> Polygon:
    assert wall.pocket is not None
    a, b = wall.pocket
    if wall.way == "across":
        return box(wall.low[0] - BESIDE_M, a, wall.high[0] + BESIDE_M, b)
    return box(a, wall.low[1] - BESIDE_M, b, wall.high[1] + BESIDE_M)


def _fixed(shell: Shell, body: Body, walls: Sequence[Wall], wanted: Sequence[LeafRoom]) -> Iterator[LeafHits]:
    """Leaves against the walls of the body and against other walls inside."""
    shape = inner_shape(shell, body)
    room: BaseGeometry = shape if shape is not None else box(*inner_plan_m(shell, body))
    for leaf in wanted:
        if leaf.shape.difference(room).area > OVERLAP_M2:
            yield _hit(leaf, "", "the body's own wall", "", leaf.shape.difference(room))
        for wall in walls:
            if wall.id == leaf.wall or wall.fault:
                continue
            for low, high in wall.boxes:
                plan = box(low[0], low[1], high[0], high[1])
                if low[2] < leaf.head_m - CLEAR_M and high[2] > leaf.foot_m + CLEAR_M and leaf.shape.intersection(plan).area > OVERLAP_M2:
                    yield _hit(leaf, wall.id, wall.name, "", plan)
                    break


def _leaf_on_leaf(wanted: Sequence[LeafRoom]) -> Iterator[LeafHits]:
    """Two leaves of which one sweeps where the other stands open."""
    for a, b in combinations(wanted, 2):
        if a.shape.intersection(b.parks).area > OVERLAP_M2:
            yield _hit(a, b.wall, f"the open door of {b.wall_name}", "", b.parks)
        elif b.shape.intersection(a.parks).area > OVERLAP_M2:
            yield _hit(b, a.wall, f"the open door of {a.wall_name}", "", a.parks)


def longest_in_pocket_m(partition: Partition) -> float:
    """The longest screw over a pocket whose point stays off the leaf [m]: skin and air less 3 mm. Check 4 and 8 mm: 9 mm."""
    return most_m(skin_m(partition), PLAY_M)


def _hit(room: LeafRoom, id: str, name: str, mode: str, plan: BaseGeometry) -> LeafHits:
    return LeafHits(room.wall, room.wall_name, thing=id, thing_name=name, mode=mode, turns=room.turns, free=_free(room, plan))


def _plan_of(solid: Solid) -> Polygon:
    return box(solid.low[0], solid.low[1], solid.high[0], solid.high[1])


def _between(solid: Solid, foot: float, head: float) -> bool:
    return bool(solid.low[2] < head - CLEAR_M and solid.high[2] > foot + CLEAR_M)


def _free(room: LeafRoom, plan: BaseGeometry) -> float:
    """How far the leaf gets before it meets a shape, 0 to 1 of its way, to a twelfth."""
    for k, swept in enumerate(room.steps):
        if swept.intersection(plan).area > OVERLAP_M2 / 8:
            return k / len(room.steps)
    return 1.0
