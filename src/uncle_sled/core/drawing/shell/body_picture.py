"""A body on its wheels in three directions, small: what it is to be recognised by. Points, y up."""

from __future__ import annotations

import math

from uncle_sled.core.document.project import Build
from uncle_sled.core.drawing.primitives import Poly, Primitive
from uncle_sled.core.drawing.shell.skeleton import fitted, near_faces, ring_of
from uncle_sled.core.drawing.three_ways import flat
from uncle_sled.core.reading.studied import Studied

TYRE_M, ROUND = 0.32, 28
TINTS = (0.55, 0.35, 0.8)  # of the faces that are seen, the nearest first


def body_picture(s: Studied, wide: float, high: float) -> tuple[Primitive, ...]:
    """The faces that are seen with what is cut into them, over wheels and drawbar or a vehicle's bed; nothing without a body."""
    near = near_faces(s)
    if not near:
        return ()
    build = s.build
    track = build.rig.track.si if build.rig.track is not None else 0.0
    outside = build.shell.width is not None and track > build.shell.width.si - 0.05
    wheels, bars = _wheels(build, track), _drawbar(build)
    shapes: list[Primitive] = [*bars, *([] if outside else wheels)]
    for k, face in reversed(list(enumerate(near))):
        shapes.append(Poly(tuple(flat(p) for p in ring_of(face, 0.0)), "ink", "kraft", 1.2, tint=TINTS[k % len(TINTS)]))
        for hole in s.framed.holes_in(face.id):
            ring = [face.place(float(x), float(y)) for x, y in hole.exterior.coords]
            shapes.append(Poly(tuple(flat(p) for p in ring), "ink", "paper", 0.9))
    return fitted([*shapes, *(wheels if outside else [])], wide, high)


def _wheels(build: Build, track_m: float) -> list[Primitive]:
    """Of the side that is seen."""
    bed = build.rig.bed
    stations = [axle.station.si for axle in build.rig.axles]
    if build.rig.carrier == "vehicle bed" and bed.wheelbase is not None:
        stations, track_m = [bed.wheelbase.si], bed.track.si if bed.track is not None else 1.6
    radius = build.rig.tyre.diameter.si / 2 if build.rig.tyre.diameter is not None else TYRE_M
    turns = [2 * math.pi * k / ROUND for k in range(ROUND)]
    return [
        Poly(tuple(flat((x + radius * math.cos(a), -track_m / 2, radius + radius * math.sin(a))) for a in turns), "ink", "tyre", 1.0)
        for x in stations
    ]


def _drawbar(build: Build) -> list[Primitive]:
    rig, shell = build.rig, build.shell
    if rig.carrier != "ball" or shell.front is None or rig.frame_top is None or shell.width is None:
        return []
    half, z = shell.width.si / 2, rig.frame_top.si - 0.05
    ball, corners = flat((0.0, 0.0, z)), [flat((shell.front.si, side * half, z)) for side in (-1, 1)]
    return [Poly((ball, corner), "ink", "", 2.0, closed=False) for corner in corners]
