"""The body and what is in it as STL (binary, millimetres), for those who look in three dimensions elsewhere.

The body as one closed skin, openings let in; things as boxes, cabinets board by board. One shell after another.
"""

from __future__ import annotations

import itertools
import math
import struct

import numpy as np
from numpy.typing import NDArray
from shapely import box, constrained_delaunay_triangles
from shapely.geometry import LineString, Point, Polygon

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.geometry.surfaces import SIDES, Body, Surface, lengths, net
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.round.round_pieces import round_pieces

Floats = NDArray[np.float64]
MM = 1000.0
SAME_M = 1e-6
RECESS_M = 0.01  # that openings are let in, so that they are seen
CUBE = ((0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (0, 4, 6, 2), (1, 3, 7, 5))


def stl_bytes(s: Studied, mode: Mode | None = None) -> bytes:
    """Everything in a mode, the first where none is named. An empty solid where nothing is drawn."""
    return _written(np.array([*_body(s), *_things(s, mode or s.build.stow.modes[0])], dtype=float), b"body and things")


def pieces_stl(s: Studied) -> bytes:
    """Every piece of the build as a closed solid, one after another; nothing where there is none."""
    meshes = [piece.mesh for piece in round_pieces(s.build, s.facts)]
    if not meshes:
        return b""
    return _written(np.concatenate([mesh.points[mesh.triangles] for mesh in meshes]), b"all pieces")


def _written(corners: Floats, what: bytes) -> bytes:
    """Args: corners: (n, 3, 3) of triangles that look outward [m]."""
    triangles = corners.reshape(-1, 3, 3)
    normals = np.cross(triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0])
    long = np.linalg.norm(normals, axis=1, keepdims=True)
    normals = np.where(long > 1e-12, normals / np.maximum(long, 1e-12), 0.0)
    record = np.zeros(len(triangles), dtype=[("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("rest", "<u2")])
    record["normal"], record["corners"] = normals, triangles * MM
    head = (what + b", millimetres, x aft, y right, z up").ljust(80, b" ")
    return head + struct.pack("<I", len(triangles)) + record.tobytes()


def _body(s: Studied) -> list[Floats]:
    """The outside of the body as one closed skin that looks outward; openings of flat faces are let in; without what hangs over."""
    made: list[Floats] = []
    for surface in s.framed.body.surfaces if s.framed.body is not None else ():
        # a hole through a skin would leave it open: what is flat is let in, what is bent stays shut
        holes = [hole for hole in s.framed.sawn_in(surface.id) if surface.chain is None and surface.polygon.contains(hole)]
        shape = net(_over_the_walls(surface, s.framed.body), tuple(holes))
        for part in _strips(surface, _meeting(surface, shape, s.framed.body)):
            made += _outward(surface, _flat_triangles(part), 0.0)
        for hole in holes:
            made += _outward(surface, _flat_triangles(hole), RECESS_M)
            made += _reveal(surface, hole)
    return made


def _meeting(surface: Surface, shape: Polygon, body: Body | None) -> Polygon:
    """A flat side with a corner wherever a bent skin beside it begins or ends, so that both meet point on point."""
    if body is None or surface.chain is not None or surface.kind not in SIDES or not isinstance(shape, Polygon):
        return shape
    origin, along, up = (np.array(v) for v in (surface.origin, surface.along, surface.up))
    ring = [(float(x), float(y)) for x, y in shape.exterior.coords]
    for chain in (other.chain for other in body.surfaces if other.chain is not None):
        for x, z in (chain[0], chain[-1]):
            off = np.array([float(x), origin[1], float(z)]) - origin
            at = (float(off @ along), float(off @ up))
            for k, (a, b) in enumerate(itertools.pairwise(ring)):
                ends = min(math.dist(at, a), math.dist(at, b))
                if ends > SAME_M and LineString([a, b]).distance(Point(at)) < SAME_M:
                    ring.insert(k + 1, at)
                    break
    return Polygon(ring, [list(hole.coords) for hole in shape.interiors])


def _over_the_walls(surface: Surface, body: Body | None) -> Polygon:
    """What of a face closes the body: a roof that hangs over its walls is cut off there."""
    if body is None or surface.chain is not None or surface.kind != "roof":
        return surface.polygon
    _, low, _, high = surface.polygon.bounds
    if abs(surface.up[1]) > 1e-6:
        low, high = sorted((side - surface.origin[1]) / surface.up[1] for side in (-body.width / 2, body.width / 2))
    begin = body.front - surface.origin[0]
    cut = surface.polygon.intersection(box(begin, low, begin + body.length, high)) if abs(surface.along[0]) > 1 - 1e-6 else surface.polygon
    return cut if isinstance(cut, Polygon) and not cut.is_empty else surface.polygon


def _flat_triangles(part: Polygon) -> list[Floats]:
    triangles = getattr(constrained_delaunay_triangles(part), "geoms", ())
    return [np.array(triangle.exterior.coords)[:3, :2] for triangle in triangles]


def _outward(surface: Surface, flats: list[Floats], depth_m: float) -> list[Floats]:
    """Triangles of a face laid flat as they stand, turned so that they look out of the body."""
    made = []
    for flat in flats:
        there = np.array([surface.place(float(x), float(y), depth_m) for x, y in flat])
        x, y = flat.mean(axis=0)
        inward = np.array(surface.place(float(x), float(y), 0.01)) - np.array(surface.place(float(x), float(y), 0.0))
        out = np.cross(there[1] - there[0], there[2] - there[0])
        made.append(there[::-1] if float(out @ inward) > 0 else there)
    return made


def _reveal(surface: Surface, hole: Polygon) -> list[Floats]:
    """The little walls about an opening that is let in, looking into it."""
    middle = np.array(surface.place(hole.centroid.x, hole.centroid.y, RECESS_M / 2))
    made = []
    for (x0, y0), (x1, y1) in itertools.pairwise([(float(x), float(y)) for x, y in hole.exterior.coords]):
        a, b = np.array(surface.place(x0, y0, 0.0)), np.array(surface.place(x1, y1, 0.0))
        c, d = np.array(surface.place(x1, y1, RECESS_M)), np.array(surface.place(x0, y0, RECESS_M))
        for triangle in (np.array([a, b, c]), np.array([a, c, d])):
            out = np.cross(triangle[1] - triangle[0], triangle[2] - triangle[0])
            made.append(triangle if float(out @ (middle - triangle.mean(axis=0))) > 0 else triangle[::-1])
    return made


def _strips(surface: Surface, shape: Polygon) -> list[Polygon]:
    """Flat parts of a surface: of a swept one a strip between its corners."""
    parts = [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and part.area > 1e-9]
    if surface.chain is None:
        return parts
    _, low, _, high = surface.polygon.bounds
    found = []
    for a, b in itertools.pairwise(lengths(surface.chain)):
        band = Polygon([(a, low - 1), (b, low - 1), (b, high + 1), (a, high + 1)])
        for part in parts:
            cut = part.intersection(band)
            found += [part for part in getattr(cut, "geoms", [cut]) if isinstance(part, Polygon) and part.area > 1e-9]
    return found


def _things(s: Studied, mode: Mode) -> list[Floats]:
    made: list[Floats] = []
    cabinets = cabinets_of(s.build, s.facts)
    for thing in s.build.stow.things:
        if thing.id in mode.absent or thing.taken_out or (mode.towing and thing.rides):
            continue
        fitted = cabinets.get(thing.id)
        if fitted is not None and fitted.good and thing.id not in mode.touched:
            for board in fitted.boards:
                a, b = (np.array(fitted.placing.world(corner)) for corner in board.box)
                made += _box(np.minimum(a, b), np.maximum(a, b))
            continue
        stand = stand_of(thing, mode)
        if min(stand.size) > 0:
            low = np.array([stand.x, stand.y - stand.size[1] / 2, stand.z])
            made += _box(low, low + np.array(stand.size))
    return made


def _box(low: Floats, high: Floats) -> list[Floats]:
    corners = np.array([[(low, high)[i][0], (low, high)[j][1], (low, high)[k][2]] for i in (0, 1) for j in (0, 1) for k in (0, 1)])
    made: list[Floats] = []
    middle = (low + high) / 2
    for face in CUBE:
        quad = corners[list(face)]
        for triangle in (quad[[0, 1, 2]], quad[[0, 2, 3]]):
            out = np.cross(triangle[1] - triangle[0], triangle[2] - triangle[0])
            made.append(triangle if np.dot(out, triangle.mean(axis=0) - middle) > 0 else triangle[::-1])
    return made
