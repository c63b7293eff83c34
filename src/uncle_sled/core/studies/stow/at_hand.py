"""What can be got at, got in and got past: arrival kit from outside, doors, aisle, seats, counter, open hatch.

Source: layout practice (docs/methods.md): an arm reaches 0.60 m into an opening; aisle 500 mm least, 600 good;
seat 430 to 480, counter 850 to 950 mm.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely import box, unary_union
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.placing import gone_in, is_bed
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.geometry.vessel import vessel_of
from uncle_sled.core.studies.stow.room import Hole, Room, room_of
from uncle_sled.core.studies.stow.solids import Solid, corners_of, solids_in

ARM_M = 0.60
AISLE_M, GOOD_AISLE_M, TALL_M = 0.50, 0.60, 1.60
SEAT_M, COUNTER_M = (0.43, 0.48), (0.85, 0.95)
WALK_IN_M = 1.50  # lower bodies have no aisle: one crawls in
SHARE_UNDER = 0.6  # of a hatch's leaf: where the cook's head is
TOL = 1e-4


class InReach(msgspec.Struct, frozen=True):
    """Whether a thing of the arrival kit is got at from outside without moving anything."""

    id: str
    name: str
    good: bool
    why: str
    behind: str | None = None  # what would have to be moved
    far_m: float | None = None  # in from the nearest opening, where that is too far
    opening: str = ""  # its name


class Passing(msgspec.Struct, frozen=True):
    """Whether a thing goes through an opening: the best one, and its clear size against the thing's."""

    id: str
    name: str
    good: bool
    opening: str | None
    why: str
    need_m: tuple[float, float] = (0.0, 0.0)
    clear_m: tuple[float, float] = (0.0, 0.0)
    opening_name: str = ""


class Height(msgspec.Struct, frozen=True):
    """A seat's or a counter's top above where its user stands [m], with the usual span."""

    id: str
    name: str
    role: str
    height_m: float
    span_m: tuple[float, float]

    @property
    def good(self) -> bool:
        """Whether it stands within reach of a standing person."""
        return self.span_m[0] - TOL <= self.height_m <= self.span_m[1] + TOL


def arrival_kit(build: Build, facts: Facts, mode: Mode) -> tuple[InReach, ...]:
    """Each thing that is wanted first, as it lies on the road."""
    room = room_of(build, facts, mode)
    solids = solids_in(build.stow, mode)
    wanted = {t.id for t in build.stow.things if t.arrival}
    return tuple(_in_reach(solid, room, solids) for solid in solids if solid.id in wanted)


def _in_reach(solid: Solid, room: Room | None, solids: tuple[Solid, ...]) -> InReach:
    if solid.outside or room is None:
        return InReach(solid.id, solid.name, good=True, why="outside")
    nearest: tuple[float, Hole] | None = None
    behind: Solid | None = None
    for hole in room.holes:
        if hole.opening.kind not in ("door", "hatch"):
            continue
        far = depth_in_m(solid, hole)
        if far is None:
            continue
        block = _between(solid, hole, solids)
        if far <= ARM_M and block is None:
            return InReach(solid.id, solid.name, good=True, why=f"through {hole.opening.name}")
        if far <= ARM_M and block is not None:
            behind = behind or block
        if nearest is None or far < nearest[0]:
            nearest = (far, hole)
    if behind is not None:
        return InReach(solid.id, solid.name, good=False, why=f"behind {behind.name}", behind=behind.id)
    if nearest is None:
        return InReach(solid.id, solid.name, good=False, why="no door or hatch is drawn that it could be reached through")
    far, hole = nearest
    why = f"{{{far:.2f} m}} in from {hole.opening.name}; an arm reaches {{{ARM_M:.2f} m}}"
    return InReach(solid.id, solid.name, good=False, why=why, behind=None, far_m=far, opening=hole.opening.name)


def depth_in_m(solid: Solid, hole: Hole) -> float | None:
    """How far a hand goes in, from the opening's nearest edge to the thing's nearest face [m]."""
    gaps = []
    for k in range(3):
        low, high = (
            (hole.mid[k], hole.mid[k])
            if k == hole.normal
            else ((hole.low[k], hole.high[k]) if k < 2 else (hole.low[k] - ARM_M / 2, hole.high[k]))
        )
        gaps.append(max(solid.low[k] - high, low - solid.high[k], 0.0))
    return math.hypot(*gaps)


def _between(solid: Solid, hole: Hole, solids: tuple[Solid, ...]) -> Solid | None:
    """What stands on the straight way from the opening to the thing's nearest face."""
    target = [min(max(hole.mid[k], solid.low[k]), solid.high[k]) for k in range(3)]
    start = [hole.mid[k] if k == hole.normal else min(max(target[k], hole.low[k] + 0.02), hole.high[k] - 0.02) for k in range(3)]
    for at in np.flatnonzero(on_the_way(start, target, solids)).tolist():
        other = solids[at]
        if other.id in (solid.id, solid.inside) or other.inside == solid.id or other.outside:
            continue
        return other
    return None


def on_the_way(a: list[float], b: list[float], solids: tuple[Solid, ...]) -> NDArray[np.bool_]:
    """Through which boxes the straight line between two points passes (slab method, any graphics text)."""
    corners = corners_of(solids)
    low, high = corners[:, 0] + 0.004, corners[:, 1] - 0.004
    first, last = np.zeros(len(solids)), np.ones(len(solids))
    for k in range(3):
        run = b[k] - a[k]
        if abs(run) < 1e-9:
            last[(a[k] < low[:, k]) | (a[k] > high[:, k])] = -1.0
            continue
        point, other = (low[:, k] - a[k]) / run, (high[:, k] - a[k]) / run
        first, last = np.maximum(first, np.minimum(point, other)), np.minimum(last, np.maximum(point, other))
    through: NDArray[np.bool_] = first < last - 1e-6
    return through


def passing(build: Build, facts: Facts) -> tuple[Passing, ...]:
    """Everything that comes and goes (cargo, vehicles aboard) against the doors and hatches."""
    room = room_of(build, facts)
    if room is None:
        return ()
    doors = [hole for hole in room.holes if hole.opening.kind in ("door", "hatch")]
    if not doors:
        return ()
    goes = [t for t in build.stow.things if (t.cargo or t.kind == "vehicle aboard") and not t.outside]
    return tuple(_passes(thing, doors) for thing in goes if min(thing.length.si, thing.width.si, thing.height.si) > 0)


def _turned_sides(thing: Thing) -> tuple[float, float, float]:
    """Sides of the least box around its true shape, turned as it goes best: of a tank with an outline less than as it stands."""
    sizes = {"x": thing.length.si, "y": thing.width.si, "z": thing.height.si}
    vessel = vessel_of(thing) if thing.tank is not None else None
    if vessel is None or not vessel.sound:
        return sizes["x"], sizes["y"], sizes["z"]
    around = Polygon(vessel.outline).minimum_rotated_rectangle
    if not isinstance(around, Polygon):
        return sizes["x"], sizes["y"], sizes["z"]
    corners = list(around.exterior.coords)
    third = ({"x", "y", "z"} - set(vessel.plane)).pop()
    return math.dist(corners[0], corners[1]), math.dist(corners[1], corners[2]), sizes[third]


def _passes(thing: Thing, doors: list[Hole]) -> Passing:
    sides = sorted(_turned_sides(thing))
    upright = thing.kind == "vehicle aboard"  # it is wheeled in, not tipped over
    need = (min(thing.length.si, thing.width.si), thing.height.si) if upright else (sides[0], sides[1])
    best: tuple[float, Hole] | None = None
    for hole in doors:
        wide, high = hole.clear_m
        spare = min(wide - need[0], high - need[1])
        if not upright:
            spare = max(spare, min(wide - need[1], high - need[0]))
        if best is None or spare > best[0]:
            best = (spare, hole)
    assert best is not None
    spare, hole = best
    wide, high = hole.clear_m
    size = f"{{{need[0]:.2f} × {need[1]:.2f} m}}"
    why = f"wants {size}; {hole.opening.name} is {{{wide:.2f} × {high:.2f} m}} clear"
    name = hole.opening.name
    return Passing(
        thing.id, thing.name, good=spare >= -TOL, opening=hole.opening.id, why=why, need_m=need, clear_m=hole.clear_m, opening_name=name
    )


def aisle_m(build: Build, facts: Facts, mode: Mode) -> float | None:
    """The widest person-wide strip of floor that leads from a door to every bed and counter [m].

    None where one cannot walk, or no door is drawn, or there is nothing to walk to. Found by shrinking the free
    floor by half the width and asking whether it still hangs together (Minkowski erosion).
    """
    found = walkway(build, facts, mode)
    return found[0] if found is not None else None


class Floor(msgspec.Struct, frozen=True, eq=False):
    """The floor in plan that is free at a body's height, where one comes in, and what one walks to."""

    free: BaseGeometry
    starts: list[Polygon]
    targets: list[Polygon]


def _floor(build: Build, facts: Facts, mode: Mode) -> Floor | None:
    """None where one cannot walk, or no door is drawn, or there is nothing to walk to."""
    room = room_of(build, facts, mode)
    if room is None:
        return None
    left, right = room.span_m
    top = room.ceiling_m((left + right) / 2)
    if top is None or top - room.floor_m < WALK_IN_M:
        return None
    low, high = room.floor_m + 0.05, room.floor_m + TALL_M
    solids = [s for s in solids_in(build.stow, mode) if not s.outside and s.low[2] < high and s.high[2] > low]
    doors = [h for h in room.holes if h.opening.kind == "door"]
    kinds = {t.id: t for t in build.stow.things}
    targets = [_plan(s) for s in solids if is_bed(kinds[s.id], mode) or "counter" in kinds[s.id].roles]
    if not doors or not targets:
        return None
    walls = [s for s in room.walls if s.low[2] < high and s.high[2] > low]
    free = room.floor_plan.difference(unary_union([_plan(s) for s in (*solids, *room.wheel_boxes, *walls)]))
    return Floor(free, [box(h.low[0], h.low[1], h.high[0], h.high[1]) for h in doors], targets)


def walks(build: Build, facts: Facts, mode: Mode, wide_m: float) -> bool:
    """Whether a body so wide gets from a door to every bed and counter, or has none to get to."""
    floor = _floor(build, facts, mode)
    return floor is None or _leads(floor.free, floor.starts, floor.targets, wide_m) is not None


@keep(room_of, "build.stow", "mode", most=8)
def walkway(build: Build, facts: Facts, mode: Mode) -> tuple[float, BaseGeometry] | None:
    """That width [m], and the floor in plan that a body of it walks over; empty where there is no way."""
    floor = _floor(build, facts, mode)
    if floor is None:
        return None
    narrow, wide = 0.0, 1.2
    way = _leads(floor.free, floor.starts, floor.targets, 0.02)
    if way is None:
        return 0.0, Polygon()
    for _ in range(8):
        middle = (narrow + wide) / 2
        leads = _leads(floor.free, floor.starts, floor.targets, middle)
        narrow, wide, way = (middle, wide, leads) if leads is not None else (narrow, middle, way)
    return narrow, way.buffer(max(narrow, 0.02) / 2, join_style="mitre")


def _plan(solid: Solid) -> Polygon:
    return box(solid.low[0], solid.low[1], solid.high[0], solid.high[1])


def _leads(free: BaseGeometry, starts: list[Polygon], targets: list[Polygon], wide: float) -> BaseGeometry | None:
    """The part of the floor that the middle of a body so wide can reach, where it leads from a start to every target."""
    left = free.buffer(-wide / 2, join_style="mitre")
    parts = [g for g in getattr(left, "geoms", [left]) if not g.is_empty]
    near = wide / 2 + 0.25
    for part in parts:
        if any(part.distance(start) <= near for start in starts) and all(part.distance(t) <= near for t in targets):
            return part
    return None


def heights(build: Build, facts: Facts, mode: Mode) -> tuple[Height, ...]:
    """Seats and counters in a mode, each above the floor, or above the ground where the cook stands outside."""
    room = room_of(build, facts, mode)
    roles = {t.id: role for t in build.stow.things for role in ("seat", "counter") if role in t.roles}
    made = []
    for solid in solids_in(build.stow, mode):
        role = roles.get(solid.id)
        if role is None:
            continue
        ground = 0.0 if solid.outside or room is None or _served_from_outside(solid, room) else room.floor_m
        made.append(Height(solid.id, solid.name, role, solid.high[2] - ground, SEAT_M if role == "seat" else COUNTER_M))
    return tuple(made)


def _served_from_outside(solid: Solid, room: Room) -> bool:
    """A counter under a hatch of a body that is too low to stand in."""
    left, right = room.span_m
    top = room.ceiling_m((left + right) / 2)
    low = top is not None and top - room.floor_m < WALK_IN_M
    return low and any(hole.opening.kind == "hatch" and abs((solid.low[0] + solid.high[0]) / 2 - hole.mid[0]) < 0.9 for hole in room.holes)


def hatch_head_m(build: Build, facts: Facts) -> tuple[tuple[str, str, float], ...]:
    """Height over the ground under the open leaf of every hatch hung at its top: (id, name, height [m])."""
    room = room_of(build, facts)
    if room is None:
        return ()
    made = []
    for hole in room.holes:
        opening = hole.opening
        if opening.kind != "hatch" or opening.hung not in ("", "top") or hole.normal == 2:
            continue
        leaf = hole.clear_m[1]
        angle = math.radians((opening.open_deg if opening.open_deg is not None else 90) - 90)
        made.append((opening.id, opening.name, hole.high[2] + SHARE_UNDER * leaf * math.sin(angle)))
    return tuple(made)


def seats(build: Build, mode: Mode) -> int:
    """How many can sit down in a mode: places of seats, and of tables that have their chairs with them."""
    absent = gone_in(build.stow, mode) | {thing.id for thing in build.stow.things if thing.taken_out}
    return sum(
        t.places or (1 if "seat" in t.roles else 0) for t in build.stow.things if {"seat", "table"} & set(t.roles) and t.id not in absent
    )
