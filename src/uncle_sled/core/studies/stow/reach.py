"""What must be moved to get at each thing, what the cook reaches without a step, and how many litres of kit lie how near.

An arm reaches 0.60 m: through an open door or hatch from outside, or from the floor one walks on. What stands on the straight
way, or on top of what opens upward, has to be moved first. Source: layout practice (docs/methods.md).
"""

from __future__ import annotations

import math
from typing import Literal

import msgspec
import numpy as np
from shapely import Point, box
from shapely.geometry.base import BaseGeometry
from shapely.ops import nearest_points, unary_union

from uncle_sled.core.document.joinery import Cabinet
from uncle_sled.core.document.placing import is_bed
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet import DRAWER_SIDE_M
from uncle_sled.core.studies.stow.at_hand import ARM_M, depth_in_m, on_the_way, walkway
from uncle_sled.core.studies.stow.room import Hole, Room, room_of
from uncle_sled.core.studies.stow.solids import Solid, solids_in

KITCHEN = frozenset({"cooks", "tap or sink", "keeps food cold", "counter"})
COOK_M = 0.90  # from the middle of where the cook stands
HAND_M = (0.20, 1.60)  # over the floor, between which a hand works
OUT_M = 0.30  # before a hatch one stands
COVERS = 0.2  # share of a top that something on it covers
MOST_MOVED = 4
How = Literal["outside", "at once", "after moving", "out of reach"]
HOWS: tuple[How, ...] = ("outside", "at once", "after moving", "out of reach")
# Boxes as shops sell them: name, long, wide, high [m]
SOLD = (
    ("small box", 0.30, 0.20, 0.12),
    ("shoe box", 0.33, 0.20, 0.13),
    ("flat crate", 0.40, 0.30, 0.12),
    ("crate", 0.40, 0.30, 0.22),
    ("big crate", 0.60, 0.40, 0.22),
    ("deep crate", 0.60, 0.40, 0.32),
)


class Access(msgspec.Struct, frozen=True):
    """How one gets at a thing in a mode: from where, how far in [m], and what has to be moved first, nearest first."""

    id: str
    name: str
    how: How
    through: str
    far_m: float | None
    first: tuple[str, ...]  # ids


class CookReach(msgspec.Struct, frozen=True):
    """One thing of the kitchen: how far from where the cook stands [m]."""

    id: str
    name: str
    far_m: float

    @property
    def good(self) -> bool:
        """Whether the cook reaches it without a step."""
        return self.far_m <= COOK_M + 1e-6


class Cook(msgspec.Struct, frozen=True):
    """Where the cook stands (x, y) and what of the kitchen is at hand; why: what keeps it from being said."""

    stands: tuple[float, float] | None
    where: str
    things: tuple[CookReach, ...]
    why: str = ""


class Holds(msgspec.Struct, frozen=True):
    """One bay of a cabinet: clear size between its shelves [m] and how many of which box go in."""

    cabinet: str
    bay: str
    size_m: tuple[float, float, float]
    many: int  # compartments alike
    boxes: tuple[tuple[str, int], ...]


@keep("build.rig", "build.shell", "build.stow", "build.brief", "facts.materials", "mode", most=8)
def accesses(build: Build, facts: Facts, mode: Mode) -> tuple[Access, ...]:
    """Every thing that has a size and is aboard in a mode, in the order of the build. On the road doors count as open: one stops."""
    room = room_of(build, facts, mode)
    solids = solids_in(build.stow, mode)
    things = {thing.id: thing for thing in build.stow.things}
    walk = walkway(build, facts, mode) if room is not None else None
    floor = walk[1] if walk is not None else None
    level = None
    if room is not None and (floor is None or floor.is_empty):  # too low to walk in: one reaches from the bed
        beds = [solid for solid in solids if is_bed(things[solid.id], mode)]
        if beds:
            floor = unary_union([box(solid.low[0], solid.low[1], solid.high[0], solid.high[1]) for solid in beds])
            level = max(solid.high[2] for solid in beds)
    return tuple(_access(things[solid.id], solid, solids, room, floor, mode, level) for solid in solids)


def _access(
    thing: Thing, solid: Solid, solids: tuple[Solid, ...], room: Room | None, floor: BaseGeometry | None, mode: Mode, level: float | None
) -> Access:
    if solid.outside or room is None:
        return Access(solid.id, solid.name, "outside", "", 0.0, ())
    on_top = _on_top(thing, solid, solids)
    best: Access | None = None
    nearest: tuple[float, str] | None = None
    for far, start, name in _hands(solid, room, floor, mode, level):
        if nearest is None or far < nearest[0]:
            nearest = far, name
        if far > ARM_M + 1e-6:
            continue
        goal = [min(max(start[k], solid.low[k]), solid.high[k]) for k in range(3)]
        way = [solids[at] for at in np.flatnonzero(on_the_way(start, goal, solids)).tolist()]
        blocks = [box.id for box in way if box.id not in (solid.id, solid.inside) and box.inside != solid.id and not box.outside]
        first = tuple(dict.fromkeys([*blocks, *on_top]))[:MOST_MOVED]
        made = Access(solid.id, solid.name, "after moving" if first else "at once", name, far, first)
        if best is None or (len(made.first), far) < (len(best.first), best.far_m or 0.0):
            best = made
    if best is not None:
        return best
    far, name = nearest if nearest is not None else (None, "")  # type: ignore[assignment]
    return Access(solid.id, solid.name, "out of reach", name, far, ())


def _hands(solid: Solid, room: Room, floor: BaseGeometry | None, mode: Mode, level: float | None) -> list[tuple[float, list[float], str]]:
    """Where a hand could start: distance to the thing, the place, and its name."""
    made = []
    for hole in room.holes:
        if hole.opening.kind not in ("door", "hatch") or not hole.opening.opens or hole.opening.id in mode.shut:
            continue
        far = depth_in_m(solid, hole)
        if far is not None:
            made.append((far, _at_hole(solid, hole), hole.opening.name))
    if floor is not None and not floor.is_empty:
        plan = box(solid.low[0], solid.low[1], solid.high[0], solid.high[1])
        here, there = nearest_points(floor, plan)
        low, high = (room.floor_m + HAND_M[0], room.floor_m + HAND_M[1]) if level is None else (level + 0.05, level + 0.6)
        z = min(max((solid.low[2] + solid.high[2]) / 2, low), high)
        up = max(solid.low[2] - z, z - solid.high[2], 0.0)
        made.append((math.hypot(here.distance(there), up), [here.x, here.y, z], "the floor" if level is None else "the bed"))
    return made


def _at_hole(solid: Solid, hole: Hole) -> list[float]:
    return [
        hole.mid[k]
        if k == hole.normal
        else min(max((solid.low[k] + solid.high[k]) / 2, hole.low[k] + 0.02), max(hole.high[k] - 0.02, hole.low[k]))
        for k in range(3)
    ]


def _on_top(thing: Thing, solid: Solid, solids: tuple[Solid, ...]) -> list[str]:
    """What lies on a thing that opens upward: a lid, a top that is lifted."""
    up = (
        thing.lid is not None
        or (thing.cabinet is not None and thing.cabinet.top == "lid")
        or any(c.kind == "lid" and c.side == "top" for c in thing.clear)
    )
    if not up:
        return []
    area = max((solid.high[0] - solid.low[0]) * (solid.high[1] - solid.low[1]), 1e-9)
    found = []
    for other in solids:
        if other.id == solid.id or other.inside == solid.id or abs(other.low[2] - solid.high[2]) > 0.03:
            continue
        wide = min(solid.high[0], other.high[0]) - max(solid.low[0], other.low[0])
        deep = min(solid.high[1], other.high[1]) - max(solid.low[1], other.low[1])
        if wide > 0 and deep > 0 and wide * deep / area > COVERS:
            found.append(other.id)
    return found


def litres_by_reach(build: Build, facts: Facts, mode: Mode) -> dict[How, float]:
    """Litres of kit and gear (their boxes) by how one gets at them."""
    things = {thing.id: thing for thing in build.stow.things}
    sums: dict[How, float] = dict.fromkeys(HOWS, 0.0)
    for access in accesses(build, facts, mode):
        thing = things[access.id]
        if thing.kind in ("kit", "gear"):
            sums[access.how] += thing.length.si * thing.width.si * thing.height.si * 1000
    return sums


def cook(build: Build, facts: Facts, mode: Mode) -> Cook:
    """From one standing place: before the hatch over the kitchen, or where on the floor the kitchen is nearest."""
    room = room_of(build, facts, mode)
    wanted = {
        thing.id
        for thing in build.stow.things
        if KITCHEN & set(thing.roles) or (thing.tank is not None and thing.tank.contents == "fresh" and thing.tank.shape == "jug")
    }
    solids = [solid for solid in solids_in(build.stow, mode) if solid.id in wanted]
    if not solids:
        return Cook(None, "", (), "no stove, sink, fridge or worktop is aboard")
    if room is None:
        return Cook(None, "", (), "no body is drawn")
    plans = [box(solid.low[0], solid.low[1], solid.high[0], solid.high[1]) for solid in solids]
    places: list[tuple[Point, str]] = []
    walk = walkway(build, facts, mode)
    if walk is not None and not walk[1].is_empty:
        for plan in plans:
            places.append((nearest_points(walk[1], plan)[0], "the floor"))
        places.append((nearest_points(walk[1], unary_union(plans).centroid)[0], "the floor"))
    for hole in room.holes:
        if hole.opening.kind == "hatch" and hole.opening.id not in mode.shut and hole.normal != 2:
            at = [hole.mid[0], hole.mid[1]]
            at[hole.normal] += hole.out * OUT_M
            places.append((Point(at), f"behind {hole.opening.name}" if hole.normal == 0 else f"beside {hole.opening.name}"))
    if not places:
        return Cook(None, "", (), "neither a hatch nor a floor to stand on leads to it")
    place, where = min(
        places, key=lambda place: sum(max(plan.distance(place[0]) - COOK_M, 0.0) * 10 + plan.distance(place[0]) for plan in plans)
    )
    made = [CookReach(solid.id, solid.name, float(plan.distance(place))) for solid, plan in zip(solids, plans, strict=True)]
    return Cook((place.x, place.y), where, tuple(sorted(made, key=lambda cook: cook.far_m)))


def bays_hold(build: Build, facts: Facts) -> tuple[Holds, ...]:
    """Every bay of every cabinet with the boxes that go in; drawers by their inside."""
    made = []
    for id, board in cabinets_of(build, facts).items():
        thing = next(t for t in build.stow.things if t.id == id)
        cabinet = thing.cabinet
        if not board.good or cabinet is None:
            continue
        for bay, (bay_id, a, b) in zip(cabinet.bays or (None,), board.carcass.clear, strict=False):
            size, many = _inside(
                cabinet, board.carcass.size, bay.shelves if bay else 0, bay.drawers if bay and bay.front == "drawers" else 0, b - a
            )
            fits = tuple((name, count) for name, *dims in SOLD if (count := fits_in((dims[0], dims[1], dims[2]), size)) > 0)
            made.append(Holds(id, bay_id, size, many, fits))
    return tuple(made)


def _inside(
    cabinet: Cabinet, size: tuple[float, float, float], shelves: int, drawers: int, wide: float
) -> tuple[tuple[float, float, float], int]:
    t, plinth = cabinet.thick.si, cabinet.plinth.si if cabinet.plinth else 0.0
    high = size[2] - plinth - 2 * t
    deep = size[1] - t - cabinet.back_thick.si
    if drawers:
        side = 0.0127 if cabinet.slide == "side" else 0.021
        return (wide - 2 * side - 2 * DRAWER_SIDE_M, deep - 0.05, high / drawers - 0.05), drawers
    return (wide, deep, (high - shelves * t) / (shelves + 1)), shelves + 1


def fits_in(box_m: tuple[float, float, float], room_m: tuple[float, float, float]) -> int:
    """How many upright boxes stand in a compartment, all turned the same way, stacked where there is height."""
    best = 0
    for long, wide in ((box_m[0], box_m[1]), (box_m[1], box_m[0])):
        counts = [math.floor(room / size + 1e-6) for room, size in zip(room_m, (long, wide, box_m[2]), strict=True)]
        best = max(best, counts[0] * counts[1] * counts[2])
    return best
