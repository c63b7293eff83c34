"""What opens and travels in a mode: doors and hatches of the body, doors and drawers of things, slides, and clashes."""

from __future__ import annotations

import math

from shapely import box
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.drawing.primitives import Point, Poly, Primitive, line, rect
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.vessel import Plane
from uncle_sled.core.studies.stow.clashes import Clash, clashes
from uncle_sled.core.studies.stow.room import Hole, Point3, Room, room_of
from uncle_sled.core.studies.stow.solids import AXES, Solid, side_of, solids_in, zone_of

PLANE: dict[str, Plane] = {"side": "xz", "plan": "xy", "rear": "yz"}
ARC_STEPS = 14
MOST_MARKED, MOST_HATCHED = 40, 8  # more than that is a blur
INK_OF = {"heat": "gas", "air": "fresh"}


def swings_view(build: Build, facts: Facts, mode: Mode, view: str) -> tuple[Primitive, ...]:
    """Open leaves with their arcs, and the room that things want beside them; nothing opens on the road."""
    if mode.towing:
        return ()
    shapes: list[Primitive] = []
    room = room_of(build, facts, mode)
    for hole in room.holes if room else ():
        if hole.opening.kind in ("door", "hatch") and hole.opening.id not in mode.shut:
            for leaf in hole.leaves:
                shapes += _leaf(hole, leaf, view)
    solids = {solid.id: solid for solid in solids_in(build.stow, mode)}
    for thing in build.stow.things:
        solid = solids.get(thing.id)
        if solid is None:
            continue
        stand = stand_of(thing, mode)
        for clear in thing.clear:
            zone = zone_of(solid, clear, stand.turn)
            ink = INK_OF.get(clear.kind, "pencil")
            swung = clear.kind == "door" and view == "plan" and clear.side != "top"
            shapes += _quarter(solid, zone, side_of(clear.side, stand.turn), thing.id) if swung else _dashed(zone, view, ink)
        if stand.state is not None:
            shapes += _travel(solid, thing, mode, view)
    return tuple(shapes)


def _flat(at: tuple[float, float, float], view: str) -> Point:
    a, b, _ = AXES[PLANE[view]]
    return at[a], at[b]


def _leaf(hole: Hole, leaf_edges: tuple[Point3, Point3], view: str) -> list[Primitive]:
    """The open leaf and the arc that its free edge goes, in the view that shows the hinge as a point."""
    hinge, free = leaf_edges
    across = max(range(3), key=lambda k: abs(free[k] - hinge[k]))  # the way the leaf lies when shut
    plane = {frozenset((0, 2)): "side", frozenset((0, 1)): "plan", frozenset((1, 2)): "rear"}[
        frozenset((across, hole.normal)) if across != hole.normal else frozenset((0, 2))
    ]
    if plane != view:
        return []
    start, edge = _flat(hinge, view), _flat(free, view)
    leaf = (edge[0] - start[0], edge[1] - start[1])
    turn = math.radians(hole.opening.open_deg if hole.opening.open_deg is not None else 90)
    first = AXES[PLANE[view]][0]
    outward = (float(hole.out), 0.0) if hole.normal == first else (0.0, float(hole.out))
    # turn the way that brings the free edge outside
    way = 1.0 if leaf[0] * outward[1] - leaf[1] * outward[0] > 0 else -1.0
    points = []
    for k in range(ARC_STEPS + 1):
        angle = way * turn * k / ARC_STEPS
        points.append(
            (
                start[0] + leaf[0] * math.cos(angle) - leaf[1] * math.sin(angle),
                start[1] + leaf[0] * math.sin(angle) + leaf[1] * math.cos(angle),
            )
        )
    id = hole.opening.id
    return [Poly(tuple(points), "pencil", "", 0.9, closed=False, dash=(3, 3), id=id), line(start, points[-1], "ink", 2.4, id=id)]


def _quarter(solid: Solid, zone: Solid, side: str, id: str) -> list[Primitive]:
    """A small door's swing in plan: a quarter round its hinge at one end of the side."""
    if side in ("front", "rear"):
        hinge = (solid.low[0] if side == "front" else solid.high[0], solid.low[1])
        deep = zone.high[0] - zone.low[0]
        way = -1.0 if side == "front" else 1.0
        ends = [(hinge[0] + way * deep * math.sin(t), hinge[1] + deep * math.cos(t)) for t in _quarters()]
    else:
        hinge = (solid.low[0], solid.low[1] if side == "left" else solid.high[1])
        deep = zone.high[1] - zone.low[1]
        way = -1.0 if side == "left" else 1.0
        ends = [(hinge[0] + deep * math.cos(t), hinge[1] + way * deep * math.sin(t)) for t in _quarters()]
    return [Poly(tuple(ends), "pencil", "", 0.9, closed=False, dash=(3, 3), id=id), line(hinge, ends[-1], "pencil", 1.6, id=id)]


def _quarters() -> list[float]:
    return [math.pi / 2 * k / ARC_STEPS for k in range(ARC_STEPS + 1)]


def _dashed(zone: Solid, view: str, ink: str) -> list[Primitive]:
    a, b, _ = AXES[PLANE[view]]
    size = (zone.high[a] - zone.low[a], zone.high[b] - zone.low[b])
    return [rect(zone.low[a], zone.low[b], *size, stroke=ink, fill="", width=0.9, dash=(3, 3), id=zone.id)]


def _travel(solid: Solid, thing: Thing, mode: Mode, view: str) -> list[Primitive]:
    """Where a thing comes from that is in another state: its shape as it is, dotted, and an arrow to where it goes."""
    rest = Mode(mode.id, mode.name, mode.towing, mode.places)
    stand = stand_of(thing, rest)
    a, b, _axis = AXES[PLANE[view]]
    low = (stand.x, stand.y - stand.size[1] / 2, stand.z)
    was = (low[a] + stand.size[a] / 2, low[b] + stand.size[b] / 2)
    now = ((solid.low[a] + solid.high[a]) / 2, (solid.low[b] + solid.high[b]) / 2)
    id = solid.id
    shapes: list[Primitive] = [
        rect(low[a], low[b], stand.size[a], stand.size[b], stroke="pencil", fill="", width=0.8, dash=(1.5, 3), id=id)
    ]
    far = math.dist(was, now)
    if far > 0.05:
        u = ((now[0] - was[0]) / far, (now[1] - was[1]) / far)
        tip = min(0.08, far / 3)
        wings = [(now[0] - tip * (u[0] * 0.9 - u[1] * w), now[1] - tip * (u[1] * 0.9 + u[0] * w)) for w in (0.5, -0.5)]
        shapes += [line(was, now, "pencil", 1.0, id=id), Poly((wings[0], now, wings[1]), "pencil", "", 1.0, closed=False, id=id)]
    return shapes


# clashes
@keep("build", "facts", "mode", "view", most=4)
def clash_view(build: Build, facts: Facts, mode: Mode, view: str) -> tuple[Primitive, ...]:
    """What stands in what, marked where it does."""
    found = clashes(build, facts, mode.id)[mode.id]
    if not found:
        return ()
    solids = {solid.id: solid for solid in solids_in(build.stow, mode)}
    room = room_of(build, facts, mode)
    shapes: list[Primitive] = []
    for clash in found[:MOST_MARKED]:
        for polygon in _where(clash, solids, room, view):
            points = tuple((float(x), float(y)) for x, y in polygon.exterior.coords)[:-1]
            shapes.append(Poly(points, "primer", "primer", 1.6, hatch="metal" if len(found) <= MOST_HATCHED else "", tint=0.35, id=clash.a))
    return tuple(shapes)


def _where(clash: Clash, solids: dict[str, Solid], room: Room | None, view: str) -> list[Polygon]:
    plane = PLANE[view]
    a = solids.get(clash.a)
    if a is None:
        return []
    if clash.kind == "things" and clash.b in solids:
        return _polygons(a.seen(plane).intersection(solids[clash.b].seen(plane)))
    if clash.kind in ("wheel box", "wall") and room is not None:
        fixed = [solid for solid in (*room.wheel_boxes, *room.walls) if solid.id == clash.b]
        return [part for solid in fixed for part in _polygons(a.seen(plane).intersection(solid.seen(plane)))]
    if clash.kind == "body" and room is not None:
        return _polygons(a.seen(plane).difference(_inside(room, view)))
    if clash.kind == "opening" and room is not None:
        hole = next((hole for hole in room.holes if hole.opening.id == clash.b), None)
        if hole is None:
            return []
        i, j, _ = AXES[plane]
        return _polygons(a.seen(plane).intersection(box(hole.low[i], hole.low[j], hole.high[i], hole.high[j])))
    return []


def _inside(room: Room, view: str) -> BaseGeometry:
    if view == "side":
        return room.side
    if view == "plan":
        return room.floor_plan
    _, low, _, high = room.side.bounds
    return room.section if room.section is not None else box(-room.half_m, low, room.half_m, high)


def _polygons(shape: BaseGeometry) -> list[Polygon]:
    return [g for g in getattr(shape, "geoms", [shape]) if isinstance(g, Polygon) and g.area > 1e-6]
