"""The room inside a body as things see it: its inner outline, floor, width, wheel boxes, sticks and openings."""

from __future__ import annotations

from functools import cached_property

import msgspec
import numpy as np
import shapely
from shapely import box, prepare
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.document.shell import Opening, Shell
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Cut, Framed, face_of, skin_m, wheel_box_spans
from uncle_sled.core.framing.member import Member
from uncle_sled.core.geometry.footprint import plan_of
from uncle_sled.core.geometry.surfaces import UNCUT, Body, Surface, section_points, sectioned
from uncle_sled.core.geometry.tops import edges_of, top_m
from uncle_sled.core.parts.all_parts import axle_middle_m, framed_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inner_doors import leaf_room
from uncle_sled.core.parts.inside import inside_of, thickness_m
from uncle_sled.core.parts.partitions import decks_of, inner_shape, walls_of
from uncle_sled.core.parts.rising import Risen, raised_section, raised_side, risen_of, up_in
from uncle_sled.core.studies.stow.solids import TOUCH_M, Floats, Solid, box_solid, corners_in
from uncle_sled.core.words import lower_first

NO_BODY_FLOOR_M = 0.5  # where things are set down before there is a frame or a body
STAND_BEFORE_M = {"door": 0.30, "window": 0.03, "vent": 0.05, "hatch": 0.0}  # what is kept free inside an opening
STAND_OVER_M = 0.12  # and outside of it


Point3 = tuple[float, float, float]


class Hole(msgspec.Struct, frozen=True, eq=False):
    """An opening where it is in space: the box that must stay free for it to be used."""

    opening: Opening
    surface: str
    low: tuple[float, float, float]
    high: tuple[float, float, float]
    normal: int  # axis that it faces along
    out: int  # which way is outside, -1 or 1
    clear_m: tuple[float, float]  # width and height of the clear opening
    mid: tuple[float, float, float]  # on the outside
    # each leaf: the middle of the edge that it is hung by, on the outside, and of the edge that swings
    leaves: tuple[tuple[Point3, Point3], ...]


class Room(msgspec.Struct, frozen=True, eq=False, dict=True):
    """What a thing may stand in. ``side`` is (station, height), ``section`` (across, height) where the roof is cut by one."""

    side: BaseGeometry
    outer: Polygon
    section: BaseGeometry | None
    outer_section: Polygon | None
    floor_m: float
    half_m: float
    outer_half_m: float
    plan: BaseGeometry | None  # inside and outside in plan, where the footprint is no rectangle
    outer_plan: Polygon | None
    wheel_boxes: tuple[Solid, ...]
    walls: tuple[Solid, ...]  # partitions beside and over their doors, and lofts
    leaves: tuple[Solid, ...]  # boxes round what the leaves of doors inside sweep
    sticks: tuple[Solid, ...]
    holes: tuple[Hole, ...]
    risen: Risen | None = None  # its roof is up: what lies on the roof goes up with it, and its outside is as on the road

    @cached_property
    def stick_corners(self) -> Floats:
        """Low and high corners of the sticks [m], shape (n, 2, 3)."""
        return corners_in(self.sticks)

    @cached_property
    def wheel_corners(self) -> Floats:
        """The same of the wheel boxes."""
        return corners_in(self.wheel_boxes)

    @cached_property
    def wall_corners(self) -> Floats:
        """The same of the walls."""
        return corners_in(self.walls)

    @cached_property
    def _side_edges(self) -> Floats:
        return edges_of(self.side)

    @cached_property
    def _section_edges(self) -> Floats | None:
        return edges_of(self.section) if self.section is not None else None

    @cached_property
    def _outer_edges(self) -> Floats:
        return edges_of(self.outer)

    @property
    def floor_plan(self) -> BaseGeometry:
        """The floor inside, (station, side) [m]."""
        left, right = self.span_m
        return self.plan if self.plan is not None else box(left, -self.half_m, right, self.half_m)

    @property
    def span_m(self) -> tuple[float, float]:
        """Front and rear end of the room [m]."""
        left, _, right, _ = self.side.bounds
        return left, right

    def ceiling_m(self, x: float, y: float = 0.0) -> float | None:
        """Height of the ceiling above the ground at a place [m], or None outside."""
        along = top_m(self._side_edges, x)
        if along is None or abs(y) > self.half_m:
            return None
        if self._section_edges is None:
            return along
        across = top_m(self._section_edges, y)
        return min(along, across) if across is not None else None

    def roof_m(self, x: float) -> float | None:
        """Height of the roof's outside above the ground over a station [m], or None where there is none."""
        left, _, right, _ = self.outer.bounds
        return top_m(self._outer_edges, x) if left <= x <= right else None


def floor_m(build: Build) -> float:
    """Height of the floor that things are set down on [m]: the body's inside, the frame, or a first guess."""
    shell = build.shell
    if shell.form != "none" and shell.floor:
        return shell.floor.si + thickness_m(shell, "floor")
    return build.rig.frame_top.si if build.rig.frame_top else NO_BODY_FLOOR_M


def room_of(build: Build, facts: Facts, mode: Mode | None = None) -> Room | None:
    """The room of a build's body, kept while rig and shell stay the same objects; None without a body.

    Args: mode: its roof is up where it goes up in that mode; None: as on the road.
    """
    framed = framed_of(build, facts)
    room = _room(build.rig, build.shell, framed)
    if room is None or mode is None or not up_in(build.shell, mode):
        return room
    risen = risen_of(build.shell, framed.body)
    return room if risen is None or risen.fault else _with_roof_up(room, risen)


@keep(most=4)
def _with_roof_up(room: Room, risen: Risen) -> Room:
    """The same room with what the roof opens over it."""
    section = room.section
    if section is None and (risen.way in ("left", "right") or risen.folds):
        _, low, _, high = room.side.bounds
        section = box(-room.half_m - TOUCH_M, low, room.half_m + TOUCH_M, high)
    side = raised_side(room.side, risen)
    prepare(side)
    return msgspec.structs.replace(
        room,
        side=side,
        risen=risen,
        half_m=room.half_m + (risen.rise_m if risen.folds else 0.0),
        section=raised_section(section, risen) if section is not None else None,
    )


@keep(most=4)
def _room(rig: Rig, shell: Shell, framed: Framed) -> Room | None:
    room = _empty_room(rig, shell, framed.body) if framed.body is not None else None
    if room is None or framed.body is None:
        return None
    sticks, holes = tuple(_sticks(shell, framed, framed.body)), tuple(_holes(shell, framed, framed.body))
    return msgspec.structs.replace(room, sticks=sticks, holes=holes)


@keep("rig", "body", *UNCUT, most=4)
def _empty_room(rig: Rig, shell: Shell, body: Body) -> Room | None:
    """A room by its body alone, however it is framed and opened."""
    if body.width <= 0:
        return None
    inner = inside_of(shell, body)
    if inner.is_empty or inner.area <= 0:
        return None
    side = inner.buffer(TOUCH_M, join_style="mitre")  # what stands on the floor touches it
    section = outer_section = None
    if sectioned(shell):
        points = [(y - body.width / 2, body.under + z) for y, z in section_points(shell, body)]
        outer_section = Polygon(points)
        roof = LineString(points[1:-1]).buffer(thickness_m(shell, "roof"), cap_style="square", join_style="mitre")
        half = body.width / 2 - max(thickness_m(shell, "left side"), thickness_m(shell, "right side"))
        _, low, _, high = outer_section.bounds
        inner = outer_section.difference(roof).intersection(box(-half, low, half, high))
        section = inner.buffer(TOUCH_M, join_style="mitre") if not inner.is_empty else None
    prepare(side)
    inner_plan = inner_shape(shell, body)
    return Room(
        side,
        Polygon(body.side.polygon).buffer(0),
        section=section,
        outer_section=outer_section,
        floor_m=body.under + thickness_m(shell, "floor"),
        half_m=max(body.width / 2 - max(thickness_m(shell, "left side"), thickness_m(shell, "right side")), 0.01),
        outer_half_m=body.width / 2,
        plan=inner_plan.buffer(TOUCH_M, join_style="mitre") if inner_plan is not None else None,
        outer_plan=plan_of(shell),
        wheel_boxes=tuple(_wheel_boxes(rig, shell, body)),
        walls=tuple(_inner_walls(shell, body)),
        leaves=tuple(_leaf_boxes(shell, body)),
        sticks=(),
        holes=(),
    )


def _wheel_boxes(rig: Rig, shell: Shell, body: Body) -> list[Solid]:
    spans = wheel_box_spans(shell, body, axle_middle_m(rig))
    if spans is None:
        return []
    a, b, wide, high = spans
    made = []
    for side, sign in (("left", -1), ("right", 1)):
        outer, inner = sign * body.width / 2, sign * (body.width / 2 - wide)
        low = (body.front + a, min(outer, inner), body.under)
        corner = (body.front + b, max(outer, inner), body.under + high)
        made.append(box_solid(f"wheel-box-{side}", f"the {side} wheel box", low, corner))
    return made


def _inner_walls(shell: Shell, body: Body) -> list[Solid]:
    """Partitions as boxes beside and over their doors, and lofts; those that cannot be built are not there."""
    made = []
    for wall in walls_of(shell, body, library_of(())) if shell.partitions else ():
        made += [box_solid(wall.id, f"the {lower_first(wall.name)}", *corners) for corners in wall.boxes] if not wall.fault else []
    for deck in decks_of(shell, body) if shell.lofts else ():
        if not deck.fault:
            made.append(box_solid(deck.id, f"the {lower_first(deck.name)}", deck.low, deck.high))
    return made


def _leaf_boxes(shell: Shell, body: Body) -> list[Solid]:
    """Where a leaf swings, slides or parks, nothing is proposed to stand."""
    made = []
    for wall, partition in zip(walls_of(shell, body, library_of(())), shell.partitions, strict=True) if shell.partitions else ():
        wanted = leaf_room(wall, partition)
        if wanted is not None:
            left, low, right, high = wanted.shape.bounds
            made.append(
                box_solid(wall.id, f"the door of {lower_first(wall.name)}", (left, low, wanted.foot_m), (right, high, wanted.head_m))
            )
    return made


def _square(surface: Surface) -> int | None:
    """The axis that a surface faces along, or None where it leans or curves."""
    if surface.swept:
        return None
    axis = int(np.argmax(np.abs(surface.inward)))
    return axis if abs(surface.inward[axis]) > 0.999 else None


def _reach(surface: Surface, bounds: tuple[float, ...], depths: tuple[float, float]) -> tuple[np.ndarray, np.ndarray]:
    left, low, right, high = bounds
    places = np.array([surface.place(s, t, d) for s in (left, right) for t in (low, high) for d in depths])
    return places.min(axis=0), places.max(axis=0)


def _sticks(shell: Shell, framed: Framed, body: Body) -> list[Solid]:
    """Sticks of plumb and level faces as boxes; those of slopes and curves lie within the room's outline."""
    made: list[Solid] = []
    for surface in body.surfaces:
        if _square(surface) is not None:
            members, skin = framed.on(surface.id), skin_m(face_of(shell, surface.kind))
            made += _sticks_of(surface, members, skin)
    return made


def _of_sticks(surface: Surface, members: tuple[Member, ...], skin: float) -> tuple[object, ...]:
    return (surface.origin, surface.along, surface.up, surface.inward, skin, members)


@keep(_of_sticks, most=24)  # a dragged opening reframes its own face only: the others keep their members
def _sticks_of(surface: Surface, members: tuple[Member, ...], skin: float) -> list[Solid]:
    """The sticks of one face, from its skin inward; a flat face takes the corners of its shapes straight."""
    shapes = [m.shape for m in members]
    bounds, area = shapely.bounds(shapes).reshape(-1, 4), shapely.area(shapes)
    deep = np.array([m.section_m[1] for m in members])
    straight = area >= 0.85 * (bounds[:, 2] - bounds[:, 0]) * (bounds[:, 3] - bounds[:, 1])
    origin, along, up, inward = (np.array(v) for v in (surface.origin, surface.along, surface.up, surface.inward))
    corners = np.array(
        [
            origin + bounds[:, [s]] * along + bounds[:, [t]] * up + (skin + depth)[:, None] * inward
            for s in (0, 2)
            for t in (1, 3)
            for depth in (np.zeros(len(members)), deep)
        ]
    ).reshape(8, -1, 3)
    lows, highs = corners.min(axis=0).tolist(), corners.max(axis=0).tolist()
    return [
        box_solid(m.id, f"the {m.kind} in the {m.face}", tuple(low), tuple(high))
        for m, low, high, whole in zip(members, lows, highs, straight, strict=True)
        if whole
    ]


def _holes(shell: Shell, framed: Framed, body: Body) -> list[Hole]:
    surfaces = {face.id: face for face in body.surfaces}
    openings = {opening.id: opening for opening in shell.openings}
    made = []
    for cut in framed.cuts:
        opening = openings.get(cut.id)
        if opening is None or not cut.good or opening.kind not in STAND_BEFORE_M:
            continue
        made.append(_hole(shell, opening, cut, surfaces[cut.surface]))
    return made


def _hole(shell: Shell, opening: Opening, cut: Cut, surface: Surface) -> Hole:
    thick = thickness_m(shell, surface.kind)
    low, high = _reach(surface, cut.shape.bounds, (-STAND_OVER_M, thick + STAND_BEFORE_M[opening.kind]))
    left, below, right, above = cut.shape.bounds
    s, t = (left + right) / 2, (below + above) / 2
    mid, deep = np.array(surface.place(s, t)), np.array(surface.place(s, t, 0.1))
    axis = int(np.argmax(np.abs(deep - mid)))
    return Hole(
        opening,
        surface.id,
        low=tuple(map(float, low)),  # type: ignore[arg-type]
        high=tuple(map(float, high)),  # type: ignore[arg-type]
        normal=axis,
        out=-1 if deep[axis] > mid[axis] else 1,
        clear_m=(round(above - below, 6), round(right - left, 6)) if surface.swept else (round(right - left, 6), round(above - below, 6)),
        mid=tuple(map(float, mid)),  # type: ignore[arg-type]
        leaves=_leaves(opening, surface, (left, below, right, above)),
    )


def _leaves(opening: Opening, surface: Surface, bounds: tuple[float, ...]) -> tuple[tuple[Point3, Point3], ...]:
    """Hung and free edge of each leaf; a hatch is hung at its top where nobody said, and a pair at its uprights."""
    left, low, right, high = bounds
    edges = {
        "s0": (left, (low + high) / 2),
        "s1": (right, (low + high) / 2),
        "t0": ((left + right) / 2, low),
        "t1": ((left + right) / 2, high),
    }
    at = {key: _place(surface, *spot) for key, spot in edges.items()}
    if opening.hung == "pair":
        rise = {pair: abs(at[pair + "0"][2] - at[pair + "1"][2]) for pair in ("s", "t")}
        pair = "s" if rise["s"] <= rise["t"] else "t"
        middle = _place(surface, (left + right) / 2, (low + high) / 2)
        return (at[pair + "0"], middle), (at[pair + "1"], middle)
    hung = opening.hung or ("top" if opening.kind != "door" else "front")
    axis, most = {"front": (0, min), "rear": (0, max), "top": (2, max), "bottom": (2, min)}[hung]
    spread = {pair: abs(at[pair + "0"][axis] - at[pair + "1"][axis]) for pair in ("s", "t")}
    pair = "s" if spread["s"] >= spread["t"] else "t"
    if max(spread.values()) < 1e-6:  # hung at an edge that this face has not: a rear door's front
        pair = "s"
    first = most((pair + "0", pair + "1"), key=lambda key: at[key][axis])
    other = pair + ("1" if first.endswith("0") else "0")
    return ((at[first], at[other]),)


def _place(surface: Surface, s: float, t: float) -> Point3:
    x, y, z = surface.place(s, t)
    return float(x), float(y), float(z)
