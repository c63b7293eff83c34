"""Lays sticks on a face one after another; each new one is cut back by what is there already.

So members never overlap openings, wheel boxes or each other, whatever shape the face has.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping

import msgspec
from shapely import affinity, bounds, box, centroid, get_coordinates, get_exterior_ring, get_parts, prepare
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.shell import HandChange
from uncle_sled.core.framing.member import Member, Point2, stick_mass_kg
from uncle_sled.core.framing.pie_cuts import PieCut
from uncle_sled.core.framing.worked import worked
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.materials import Material

SHORTEST_M = 0.04  # shorter pieces are left out: nobody screws them
Bounds = tuple[float, float, float, float]
NARROW = 0.45  # of a stick's thickness; narrower rips are left out
RIPPED_M = 0.001  # narrower by that is ripped, not planed
TRUE_M2 = 2e-6
MOST_STICKS = 500  # in one face; more is a pitch typed wrong


class Cutter(msgspec.Struct, eq=False):
    """The bench for one face. ``blocked`` holds openings and wheel boxes, ``region`` where sticks may lie."""

    surface: Surface
    region: BaseGeometry
    blocked: list[Polygon]
    material: Material
    skin_m: float  # what lies outside of the sticks
    fasteners: float
    changes: Mapping[str, list[HandChange]] = msgspec.field(default_factory=dict)
    members: list[Member] = msgspec.field(default_factory=list)
    shapes: list[Polygon] = msgspec.field(default_factory=list)
    bounds: list[Bounds] = msgspec.field(default_factory=list)
    wall_m: float = 0.0  # of tubes; 0: solid sticks
    channel: bool = False
    faults: list[str] = msgspec.field(default_factory=list)  # what could not be laid, in words
    keys: dict[str, int] = msgspec.field(default_factory=dict)
    blocked_bounds: list[Bounds] = msgspec.field(default_factory=list)

    def __post_init__(self) -> None:
        prepare(self.region)
        self.blocked_bounds = [bounds_of(hole) for hole in self.blocked]

    def key(self, role: str, anchor: str) -> str:
        """The key of a stick: face, role and what it hangs on."""
        return f"{self.surface.id}/{role}/{anchor}"

    def upright(self, s: float, role: str, anchor: str, section: Point2, low: float, high: float, joint: bool = False) -> list[Member]:
        """A stick along t with its middle at s."""
        b = section[0]
        return self.lay(
            box(s - b / 2, low, s + b / 2, high), role, anchor, section, (0.0, 1.0), whole_width=not joint, through=s if joint else None
        )

    def level(self, t: float, role: str, anchor: str, section: Point2, left: float, right: float) -> list[Member]:
        """A stick along s with its middle at t."""
        b = section[0]
        return self.lay(box(left, t - b / 2, right, t + b / 2), role, anchor, section, (1.0, 0.0))

    def lay(
        self,
        shape: Polygon,
        role: str,
        anchor: str,
        section: Point2,
        direction: Point2,
        whole_width: bool = False,
        through: float | None = None,
        by_hand: bool = False,
    ) -> list[Member]:
        """Lay a stick; what is left of it after cutting comes back, in pieces where something parts it.

        whole_width: pieces ripped narrower than the stick are left out. through: a piece that holds this
        s is kept although it is ripped, because a sheet's edge lies there.
        """
        if len(self.members) >= MOST_STICKS:
            return []
        for change in self.changes.get(self.key(role, anchor), ()):
            by_hand = True
            if change.op == "leave out":
                return []
            shape, section, through = self._changed(change, shape, section, direction, through)
        free = shape.intersection(self.region)
        if free.is_empty:
            return []
        box_of = bounds_of(free)
        for at, bound in enumerate(self.bounds):
            if _meet(bound, box_of):
                free = free.difference(self.shapes[at])
        for hole, of in zip(self.blocked, self.blocked_bounds, strict=True):
            if _meet(of, box_of):
                free = free.difference(hole)
        made = []
        for piece, ring in pieces(free):
            wide = _width(ring, direction)
            if through is not None:
                xs = [x for x, _ in ring]
                kept = min(xs) - 1e-6 <= through <= max(xs) + 1e-6
            else:
                kept = False
            if wide < section[0] * (0.98 if whole_width and not kept else NARROW):
                continue
            one_made = self._member(piece, ring, role, anchor, section, direction, by_hand)
            if one_made is not None:
                made.append(one_made)
        return made

    def bent(
        self, shape: Polygon, role: str, anchor: str, section: Point2, length_m: float, cuts: tuple[PieCut, ...], strips: int = 0
    ) -> list[Member]:
        """Lay something bent: its length is that along its outer face, shared by what an opening leaves of it."""
        if any(change.op == "leave out" for change in self.changes.get(self.key(role, anchor), ())):
            return []
        free = shape.intersection(self.region.buffer(2e-3, join_style="mitre"))  # folds stand proud of the curve
        for other in (*self.shapes, *self.blocked):
            free = free.difference(other)
        made = []
        for piece, ring in pieces(free):
            share = piece.area / max(shape.area, 1e-12)
            if share * length_m < SHORTEST_M or (share < 0.98 and piece.area < NARROW * section[0] * SHORTEST_M):
                continue
            member = self._member(piece, ring, role, anchor, section, (1.0, 0.0), by_hand=False)
            if member is not None:
                member = msgspec.structs.replace(
                    member, length_m=share * length_m, ends_deg=(0.0, 0.0), cuts=cuts, strips=strips, notches=(), corners=(), rip_m=None
                )
                self.members[-1] = member
                made.append(member)
        return made

    def _changed(
        self, change: HandChange, shape: Polygon, section: Point2, direction: Point2, through: float | None
    ) -> tuple[Polygon, Point2, float | None]:
        if change.op == "section" and change.section is not None:
            new = (change.section.thick.si, change.section.deep.si)
            grow = new[0] / section[0]
            shape = affinity.scale(shape, *((1.0, grow) if direction[0] else (grow, 1.0)))
            section = new
        if change.by is not None and change.op == "move":
            by = change.by.si
            shape = affinity.translate(shape, *((0.0, by) if direction[0] else (by, 0.0)))
            through = None
        return shape, section, through

    def _member(
        self, piece: Polygon, ring: list[Point2], role: str, anchor: str, section: Point2, direction: Point2, by_hand: bool
    ) -> Member | None:
        made_to = worked(ring, direction)
        long = made_to.length_m
        if long < SHORTEST_M:
            return None
        key = self.key(role, anchor)
        self.keys[key] = self.keys.get(key, 0) + 1
        id = key if self.keys[key] == 1 else f"{key}/{self.keys[key]}"
        middle = get_coordinates(centroid(piece))[0].tolist()
        made = Member(
            id,
            self.surface.id,
            face_kind=self.surface.kind,
            kind=role,
            role=role,
            anchor=anchor,
            section_m=section,
            material=self.material.id,
            outline=tuple(ring),
            length_m=long,
            ends_deg=made_to.ends_deg,
            mass_kg=stick_mass_kg(piece, section, self.material, self.fasteners, self.wall_m, channel=self.channel),
            at_m=self.surface.place(middle[0], middle[1], self.skin_m + section[1] / 2),
            along_s=bool(abs(direction[0]) > abs(direction[1])),
            by_hand=by_hand,
            wall_m=self.wall_m,
            channel=self.channel,
            notches=made_to.notches,
            corners=made_to.corners,
            rip_m=made_to.wide_m if made_to.wide_m < section[0] - RIPPED_M else None,
        )
        self.members.append(made)
        self.shapes.append(piece)
        self.bounds.append(bounds_of(piece))
        return made


def bounds_of(shape: BaseGeometry) -> Bounds:
    """Left, low, right, high of a shape [m]."""
    left, low, right, high = bounds(shape).tolist()
    return left, low, right, high


def _meet(a: Bounds, b: Bounds) -> bool:
    return a[0] < b[2] and a[2] > b[0] and a[1] < b[3] and a[3] > b[1]


def pieces(shape: BaseGeometry) -> list[tuple[Polygon, list[Point2]]]:
    """The polygons of a shape with their rings, from left to right and low to high."""
    found = []
    for part in get_parts(shape).tolist():
        if part.geom_type == "Polygon" and part.area > TRUE_M2:
            ring = [(x, y) for x, y in get_coordinates(get_exterior_ring(part)).tolist()[:-1]]
            found.append((part, ring))
    if len(found) > 1:
        found.sort(key=lambda one: (min(x for x, _ in one[1]), min(y for _, y in one[1])))
    return found


def _width(ring: list[Point2], direction: Point2) -> float:
    """How wide a stick is across its run [m]."""
    across = [y * direction[0] - x * direction[1] for x, y in ring]
    return max(across) - min(across)


def edge_strips(shape: Polygon, thick: float, wanted: Iterable[bool]) -> list[tuple[Polygon, Point2, Point2, Point2]]:
    """Strips inside a polygon's edges, mitred where two wanted edges meet, else run out to the neighbour.

    Returns: (strip, start, end, direction) of each wanted edge; the polygon must run counter-clockwise.
    """
    ring = [(float(x), float(y)) for x, y in list(shape.exterior.coords)[:-1]]
    n, use = len(ring), list(wanted)
    directions: list[Point2] = []
    for at in range(n):
        (x0, y0), (x1, y1) = ring[at], ring[(at + 1) % n]
        long = max(math.hypot(x1 - x0, y1 - y0), 1e-12)
        directions.append(((x1 - x0) / long, (y1 - y0) / long))
    strips = []
    for at in range(n):
        if not use[at]:
            continue
        d = directions[at]
        inward = (-d[1], d[0])
        corners = []
        for end, other, start in ((at, (at - 1) % n, True), ((at + 1) % n, (at + 1) % n, False)):
            o = directions[other]
            if use[other]:
                normal = (-o[1], o[0])
                dot = 1 + inward[0] * normal[0] + inward[1] * normal[1]
                shift = ((inward[0] + normal[0]) * thick / max(dot, 0.15), (inward[1] + normal[1]) * thick / max(dot, 0.15))
            else:
                # along the neighbour, so that this stick runs out to it
                way = (-o[0], -o[1]) if start else o
                rise = way[0] * inward[0] + way[1] * inward[1]
                far = thick / rise if rise > 0.2 else 0.0
                shift = (way[0] * far, way[1] * far) if far else (inward[0] * thick, inward[1] * thick)
            corners.append((ring[end], shift))
        (p, a), (q, b) = corners
        strip = Polygon([p, q, (q[0] + b[0], q[1] + b[1]), (p[0] + a[0], p[1] + a[1])])
        if strip.is_valid and strip.area > TRUE_M2:
            strips.append((strip, p, q, d))
    return strips
