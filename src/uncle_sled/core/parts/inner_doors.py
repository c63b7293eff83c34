"""The room that the leaf of a door inside wants: the quarter it swings through, or the strip along the wall it slides in and parks."""

from __future__ import annotations

import math

import msgspec
from shapely.geometry import Polygon

from uncle_sled.core.document.shell import Partition
from uncle_sled.core.parts.partitions import Wall

ARC = 12  # steps of a leaf's swing
OFF_M = 0.010  # air between a wall and the leaf that slides along it
Point = tuple[float, float]


class LeafRoom(msgspec.Struct, frozen=True, eq=False):
    """Of one leaf. shape: in plan [m]; foot, head: heights over the ground [m]; parks: the strip where it stands open.

    steps: what the leaf sweeps from shut to ever more open, the last is shape.
    """

    wall: str
    wall_name: str
    shape: Polygon
    foot_m: float
    head_m: float
    parks: Polygon
    steps: tuple[Polygon, ...]
    turns: bool


def place_in_plan(wall: Wall, u: float, v: float) -> Point:
    """A place in plan [m] from along the wall, and off its middle line towards rear or right."""
    if wall.way == "across":
        return (wall.low[0] + wall.high[0]) / 2 + v, u
    return u, (wall.low[1] + wall.high[1]) / 2 + v


def leaf_arc(wall: Wall, partition: Partition) -> list[Point] | None:
    """The hinge of a hinged leaf, then its free edge from shut to open, in plan [m]; None where no leaf turns."""
    if wall.door is None or partition.door != "hinged":
        return None
    left, _, right, _ = wall.door.bounds
    wide = right - left
    hinge, free = (left, right) if partition.hung == "start" else (right, left)
    sign, way = (1.0 if partition.opens == "rear or right" else -1.0), (1.0 if free > hinge else -1.0)
    turned = (math.pi / 2 * k / ARC for k in range(ARC + 1))
    return [
        place_in_plan(wall, hinge, 0.0),
        *(place_in_plan(wall, hinge + way * wide * math.cos(t), sign * wide * math.sin(t)) for t in turned),
    ]


def leaf_room(wall: Wall, partition: Partition) -> LeafRoom | None:
    """What must stay free for a leaf; None where none moves outside of its wall: an opening, a pocket."""
    if wall.fault or wall.door is None or wall.leaf is None or partition.door == "pocket":
        return None
    left, foot, right, head = wall.door.bounds
    arc = leaf_arc(wall, partition)
    if arc is not None:
        hinge, *edge = arc
        swept = [Polygon([hinge, *edge[: k + 1]]) for k in range(1, len(edge))]
        thick = wall.leaf.thick_m
        parks = Polygon([hinge, edge[-1]] + [(x, y) for x, y in _beside(edge[-1], hinge, thick)])
        return LeafRoom(wall.id, wall.name, swept[-1], foot_m=foot, head_m=head, parks=parks, steps=tuple(swept), turns=True)
    sign = 1.0 if partition.opens == "rear or right" else -1.0
    near = sign * (partition.thick.si / 2 + OFF_M)
    far = near + sign * wall.leaf.thick_m
    wide = right - left
    way = -1.0 if partition.hung == "start" else 1.0

    def strip(begin: float, end: float) -> Polygon:
        return Polygon([place_in_plan(wall, u, v) for u, v in ((begin, near), (end, near), (end, far), (begin, far))])

    swept = [strip(left, right + wide * k / ARC) if way > 0 else strip(left - wide * k / ARC, right) for k in range(1, ARC + 1)]
    parks = strip(right, right + wide) if way > 0 else strip(left - wide, left)
    return LeafRoom(wall.id, wall.name, swept[-1], foot_m=foot, head_m=head, parks=parks, steps=tuple(swept), turns=False)


def _beside(a: Point, b: Point, thick_m: float) -> tuple[Point, Point]:
    """Two corners that make a line from b to a as thick as a leaf."""
    long = max(math.hypot(b[0] - a[0], b[1] - a[1]), 1e-9)
    off = ((a[1] - b[1]) / long * thick_m, (b[0] - a[0]) / long * thick_m)
    return (a[0] + off[0], a[1] + off[1]), (b[0] + off[0], b[1] + off[1])
