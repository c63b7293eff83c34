"""The rig from behind its left shoulder, to scale in three directions, with the body peeled as far as one likes.

Boxes are painted from the far ones to the near ones.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.primitives import Poly, Primitive, line
from uncle_sled.core.drawing.rig.things_placed import Placed
from uncle_sled.core.drawing.three_ways import VIEWER, flat
from uncle_sled.core.geometry.surfaces import Surface, lengths
from uncle_sled.core.parts.from_rig import wheel_radius_m
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.parts.heights import frame_top_m
from uncle_sled.core.reading.studied import Studied, length_m
from uncle_sled.core.studies.stow.room import Hole, room_of
from uncle_sled.core.studies.stow.solids import Solid

Peel = Literal["closed", "roof off", "near side off", "bare"]
PEELS: tuple[Peel, ...] = ("closed", "roof off", "near side off", "bare")
MOST_SORTED = 160
WHEEL_CORNERS = 28
Floats = NDArray[np.float64]


def isometric(s: Studied, things: Sequence[Placed], peel: Peel) -> tuple[Primitive, ...]:
    """Frame and wheels, the far faces of the body, everything in it, and the near faces that are not peeled off."""
    shapes: list[Primitive] = [*_frame(s), *_wheels(s, near=False)]
    far, near = _faces(s, peel)
    shapes += far
    inner = {p.thing.id for p in things if not p.thing.outside}
    placed = {p.thing.id: p for p in things}
    solids = [_solid_of(p) for p in placed.values() if min(p.size) > 0]
    room = room_of(s.build, s.facts) if peel != "closed" else None
    walls = {id(solid) for solid in room.walls} if room is not None else set()
    shown = [solid for solid in solids if peel != "closed" or solid.id not in inner]
    for solid in _far_to_near([*shown, *(room.walls if room is not None else ())]):
        if id(solid) in walls:
            shapes += _box(solid, "wood", aboard=True)
            continue
        shapes += _box(solid, group_of(placed[solid.id].thing), placed[solid.id].aboard)
    return (*shapes, *_wheels(s, near=True), *near)


def _solid_of(p: Placed) -> Solid:
    return Solid(
        p.thing.id, p.thing.name, (p.x, p.y - p.size[1] / 2, p.z), (p.x + p.size[0], p.y + p.size[1] / 2, p.z + p.size[2]), p.thing.outside
    )


def _far_to_near(solids: list[Solid]) -> list[Solid]:
    """An order in which no box is painted over one that stands before it; by depth where they stand in each other."""
    if len(solids) > MOST_SORTED:
        return sorted(solids, key=_depth)
    n = len(solids)
    low = np.array([s.low for s in solids]).reshape(n, 3)
    high = np.array([s.high for s in solids]).reshape(n, 3)
    tol = 1e-6
    behind = (
        (high[:, None, 0] <= low[None, :, 0] + tol)
        | (low[:, None, 1] >= high[None, :, 1] - tol)
        | (high[:, None, 2] <= low[None, :, 2] + tol)
    )
    behind &= ~behind.T  # one before the other in one direction and behind in another: depth decides
    left = set(range(n))
    order: list[Solid] = []
    waits = behind.copy()
    while left:
        ready = [k for k in left if not waits[list(left), k].any()] or list(left)
        first = min(ready, key=lambda k: _depth(solids[k]))
        order.append(solids[first])
        left.remove(first)
        waits[first, :] = False
    return order


def _depth(solid: Solid) -> float:
    return float(np.dot((np.array(solid.low) + np.array(solid.high)) / 2, VIEWER))


def _box(solid: Solid, group: str, aboard: bool) -> list[Primitive]:
    """The three sides that are seen: rear, left and top, each in its own shade."""
    (x0, y0, z0), (x1, y1, z1) = solid.low, solid.high
    sides = (
        ([(x1, y0, z0), (x1, y1, z0), (x1, y1, z1), (x1, y0, z1)], 0.62),
        ([(x0, y0, z0), (x1, y0, z0), (x1, y0, z1), (x0, y0, z1)], 0.46),
        ([(x0, y0, z1), (x1, y0, z1), (x1, y1, z1), (x0, y1, z1)], 0.28),
    )
    dash: tuple[float, ...] = () if aboard else (4, 3)
    return [
        Poly(tuple(flat(p) for p in points), group, group if aboard else "", 1.0, dash=dash, tint=tint, id=solid.id)
        for points, tint in sides
    ]


# body
def _faces(s: Studied, peel: Peel) -> tuple[list[Primitive], list[Primitive]]:
    """Far faces, and near ones that are not taken off."""
    body = s.framed.body
    if body is None:
        return [], []
    gone = {
        "closed": set[str](),
        "roof off": {"roof"},
        "near side off": {"roof", "left side", "rear"},
        "bare": {"roof", "left side", "right side", "front", "rear"},
    }[peel]
    far: list[tuple[float, Primitive]] = []
    near: list[tuple[float, Primitive]] = []
    for surface in body.surfaces:
        for points, outward in _pieces(surface):
            toward = float(np.dot(outward, VIEWER))
            seen = toward > 0.02 and surface.kind != "floor"
            if surface.kind in gone and (seen or peel == "bare"):
                continue
            ink = "wood" if not seen else "shell"
            depth = float(np.dot(points.mean(axis=0), VIEWER))
            shape = Poly(
                tuple(flat(p) for p in points),
                "ink" if not surface.swept else ink,
                "body" if not seen else "shell",
                1.1 if not surface.swept else 0.5,
                tint=1.0 if not seen else 0.35 + 0.25 * (1 - toward),
                id=surface.id,
            )
            (near if seen else far).append((depth, shape))
    holes = room_of(s.build, s.facts)
    opened = [_hole(hole) for hole in (holes.holes if holes else ()) if hole.opening.face not in gone and _shows(hole)]
    return [shape for _, shape in sorted(far, key=lambda d: d[0])], [*(shape for _, shape in sorted(near, key=lambda d: d[0])), *opened]


def _pieces(surface: Surface) -> list[tuple[Floats, Floats]]:
    """A surface as flat polygons in space with their outward normals; a swept one in strips."""
    if surface.chain is None:
        ring = np.array([surface.place(s, t) for s, t in list(surface.polygon.exterior.coords)[:-1]])
        return [(ring, -np.array(surface.inward))]
    _, low, _, high = surface.polygon.bounds
    runs = lengths(surface.chain)
    made = []
    for a, b in itertools.pairwise(runs):
        ring = np.array([surface.place(s, t) for s, t in ((a, low), (b, low), (b, high), (a, high))])
        along = ring[1] - ring[0]
        # the inside is on the right hand of the chain, so the outside is on its left
        made.append((ring, np.array([-along[2], 0.0, along[0]]) / max(float(np.hypot(along[0], along[2])), 1e-9)))
    return made


def _shows(hole: Hole) -> bool:
    outward = np.zeros(3)
    outward[hole.normal] = hole.out
    return float(np.dot(outward, VIEWER)) > 0.02


def _hole(hole: Hole) -> Primitive:
    a, b = (k for k in range(3) if k != hole.normal)
    corners = []
    for u, v in ((0, 0), (1, 0), (1, 1), (0, 1)):
        at = list(hole.mid)
        at[a] = hole.high[a] if u else hole.low[a]
        at[b] = hole.high[b] if v else hole.low[b]
        corners.append(flat((at[0], at[1], at[2])))
    return Poly(tuple(corners), "ink", "body", 1.2, tint=0.9, id=hole.opening.id)


# frame and wheels
def _frame(s: Studied) -> list[Primitive]:
    rig, top = s.build.rig, frame_top_m(s.build)
    if rig.carrier == "vehicle bed":
        bed = rig.bed
        front = bed.bed_front.si if bed.bed_front else 0.8
        end = front + (bed.bed_length.si if bed.bed_length else 3.0)
        half, high = (bed.bed_width.si if bed.bed_width else 2.0) / 2, bed.bed_top.si if bed.bed_top else 0.95
        ring = [(front, -half, high), (end, -half, high), (end, half, high), (front, half, high)]
        return [
            Poly(tuple(flat(p) for p in ring), "zinc", "zinc", 1.4, tint=0.3, id="bed"),
            *(line(flat((-0.8, y, high)), flat((front, y, high)), "zinc", 2.0, id="vehicle") for y in (-half, half)),
        ]
    end = rig.frame_length.si if rig.frame_length else length_m(s.build)
    nose = rig.drawbar_length.si if rig.drawbar_length else 0.3 * end
    half = (rig.frame_width.si if rig.frame_width else 1.4) / 2
    lines = [((0.0, 0.0), (nose, y)) for y in (-half, half)] + [((nose, y), (end, y)) for y in (-half, half)]
    lines += [((x, -half), (x, half)) for x in (nose, end)]
    return [line(flat((*a, top)), flat((*b, top)), "zinc", 2.4, id="frame") for a, b in lines]


def _wheels(s: Studied, near: bool) -> list[Primitive]:
    rig = s.build.rig
    if rig.carrier == "vehicle bed":
        track = rig.bed.track.si if rig.bed.track else 1.6
        stations = [0.0] + ([rig.bed.wheelbase.si] if rig.bed.wheelbase else [])
    else:
        track = rig.track.si if rig.track else 1.6
        stations = [axle.station.si for axle in rig.axles]
    radius, y = wheel_radius_m(rig), (-track / 2 if near else track / 2)
    shapes: list[Primitive] = []
    for x in stations:
        for share, fill in ((1.0, "tyre"), (0.56, "hub")):
            ring = tuple(
                flat((x + share * radius * math.cos(t), y, radius + share * radius * math.sin(t)))
                for t in np.linspace(0, 2 * math.pi, WHEEL_CORNERS, endpoint=False)
            )
            shapes.append(Poly(ring, "ink", fill, 1.0, id="wheels"))
    return shapes


def bounds_of(shapes: Sequence[Primitive]) -> tuple[float, float, float, float]:
    """Left, low, right and high of what is drawn [m]."""
    points = np.array([p for shape in shapes if isinstance(shape, Poly) for p in shape.points] or [(0.0, 0.0)])
    low, high = points.min(axis=0), points.max(axis=0)
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])
