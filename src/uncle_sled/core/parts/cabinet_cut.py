"""A cabinet where it stands: its boards in the rig's coordinates, cut to the body's curve and around the wheel boxes.

x aft of the ball, y to the right, z up [m]. A board is cut where either of its faces would leave the body's inside, so that
what is left fits. Source: first principles; play around a wheel box is a shop rule.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

import msgspec
import numpy as np
from shapely import box, prepare
from shapely.affinity import affine_transform
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.joinery import Cabinet
from uncle_sled.core.document.placing import Stand
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.frame_body import Framed, wheel_box_spans
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.cabinet import ACROSS, FASTENERS, HINGE_KG, SLIDE_KG_M, Board, Carcass, carcass, polygons
from uncle_sled.core.parts.inside import inside_of, thickness_m

PLAY_M = 0.005  # beside a wheel box
FAR = 50.0
Corner = tuple[float, float, float]
# right hand, inward and up of whoever stands before it, by the side that it opens to
AXES: dict[str, tuple[Corner, Corner, Corner]] = {
    "rear": ((0, 1, 0), (-1, 0, 0), (0, 0, 1)),
    "front": ((0, -1, 0), (1, 0, 0), (0, 0, 1)),
    "left": ((1, 0, 0), (0, 1, 0), (0, 0, 1)),
    "right": ((-1, 0, 0), (0, -1, 0), (0, 0, 1)),
}
TURNED = {"rear": "right", "right": "front", "front": "left", "left": "rear"}


class Placing(msgspec.Struct, frozen=True):
    """How own coordinates go to the rig's: p = origin + w right + d inward + h up."""

    origin: Corner
    axes: tuple[Corner, Corner, Corner]
    opens: str

    def world(self, p: Corner) -> Corner:
        """A place of the cabinet in the rig's coordinates [m]."""
        x, y, z = (self.origin[k] + sum(p[i] * self.axes[i][k] for i in range(3)) for k in range(3))
        return x, y, z

    def across(self, normal: int) -> tuple[int, int]:
        """Along which of the rig's axes one of the cabinet's own runs, and which way."""
        axis = max(range(3), key=lambda k: abs(self.axes[normal][k]))
        return axis, 1 if self.axes[normal][axis] > 0 else -1


class Fitted(msgspec.Struct, frozen=True):
    """A cabinet as it is built in: boards cut, their mass, centre [m] and what was cut. centre: of the rig's coordinates.

    by: of every board that something cut, what: "curve" or "wheel box". faults as of the carcass; lost: boards cut to nothing.
    """

    id: str
    name: str
    carcass: Carcass
    placing: Placing
    boards: tuple[Board, ...]
    by: tuple[tuple[str, str], ...]
    lost: tuple[str, ...]
    mass_kg: float
    centre: Corner
    faults: tuple[str, ...]

    @property
    def good(self) -> bool:
        """Whether it can be built as it is."""
        return not self.faults and bool(self.boards)


def placing_of(_thing: Thing, cabinet: Cabinet, stand: Stand) -> Placing:
    """Before which side one stands after the thing's turn, and where the cabinet's left foot is."""
    opens = cabinet.opens
    for _ in range(stand.turn // 90):
        opens = TURNED[opens]  # type: ignore[assignment]
    right, inward, up = AXES[opens]
    low = np.array([stand.x, stand.y - stand.size[1] / 2, stand.z])
    high = low + np.array(stand.size)
    origin = [low[k] if right[k] + inward[k] + up[k] > 0 else high[k] for k in range(3)]
    return Placing((float(origin[0]), float(origin[1]), float(origin[2])), AXES[opens], opens)


class Around(msgspec.Struct, frozen=True, eq=False):
    """What a body leaves: its inside seen from the side, half width inside, slanting flat roofs as half-spaces, wheel boxes."""

    side: BaseGeometry
    half_m: float
    slants: tuple[tuple[Corner, Corner], ...]  # a point and the way inward
    boxes: tuple[tuple[Corner, Corner], ...]


@keep("shell", "framed", "axle_m", most=4)
def around(shell: Shell, framed: Framed, axle_m: float | None) -> Around | None:
    """None without a body."""
    body = framed.body
    if body is None or body.width <= 0:
        return None
    side = inside_of(shell, body)
    prepare(side)
    slants = []
    for surface in body.surfaces if shell.form != "butterfly" else ():
        if surface.chain is None and (surface.kind == "roof" or surface.id.startswith("bevel")):
            thick = thickness_m(shell, surface.kind)
            slants.append((surface.place(0.0, 0.0, thick), tuple(float(v) for v in surface.inward)))
    spans = wheel_box_spans(shell, body, axle_m)
    boxes = []
    if spans is not None:
        a, b, wide, high = spans
        for y0, y1 in ((-body.width / 2, -body.width / 2 + wide), (body.width / 2 - wide, body.width / 2)):
            boxes.append(((body.front + a, y0, body.under), (body.front + b, y1, body.under + high)))
    left = thickness_m(shell, "left side")
    return Around(side, body.width / 2 - left, tuple(slants), tuple(boxes))  # type: ignore[arg-type]


@keep("thing", by_value("stand"), "around", "library", most=512)
def fitted_in(thing: Thing, stand: Stand, around: Around | None, library: Mapping[str, Material]) -> Fitted | None:
    """A thing's cabinet where it stands; None where the thing has none. Args: around: what the body leaves, None without one."""
    made, cabinet = carcass(thing), thing.cabinet
    if made is None or cabinet is None:
        return None
    at = placing_of(thing, cabinet, stand)
    unknown = [id for id in dict.fromkeys(board.material for board in made.boards) if id not in library]
    faults = (*made.faults, *(f"there is no material “{id}”" for id in unknown))
    if faults:
        return Fitted(
            thing.id, thing.name, carcass=made, placing=at, boards=(), by=(), lost=(), mass_kg=0.0, centre=(0.0, 0.0, 0.0), faults=faults
        )
    boards, by, lost = [], [], []
    mass, moment = 0.0, np.zeros(3)
    for board in made.boards:
        shape = board.shape
        if around is not None and not thing.outside:
            shape, cut = _cut(board, at, around)
            if cut:
                by.append((board.id, cut))
        left = polygons(shape)
        if not left:
            lost.append(board.id)
            continue
        kept = msgspec.structs.replace(board, shape=left[0] if len(left) == 1 else shape)
        boards.append(kept)
        kg = kept.shape.area * library[board.material].weight_kg_m2(board.thick)
        mass, moment = mass + kg, moment + kg * np.array(at.world(_centre(kept)))
    mass *= 1 + FASTENERS
    hardware = made.hinges * HINGE_KG + sum(made.slides_m) * SLIDE_KG_M
    centre = moment / max(mass / (1 + FASTENERS), 1e-9)
    return Fitted(
        thing.id,
        thing.name,
        carcass=made,
        placing=at,
        boards=tuple(boards),
        by=tuple(by),
        lost=tuple(lost),
        mass_kg=mass + hardware,
        centre=(float(centre[0]), float(centre[1]), float(centre[2])),
        faults=(),
    )


def _centre(board: Board) -> Corner:
    a, b = ACROSS[board.normal]
    middle = board.shape.centroid
    p = [0.0, 0.0, 0.0]
    p[board.normal], p[a], p[b] = board.at + board.thick / 2, middle.x, middle.y
    return p[0], p[1], p[2]


def _cut(board: Board, at: Placing, around: Around) -> tuple[BaseGeometry, str]:
    """What the body leaves of a board, in the board's own plane; and what cut most of it."""
    shape = board.shape
    axis, _ = at.across(board.normal)
    a, b = ACROSS[board.normal]
    faces = sorted(at.world(_point(board.normal, n))[axis] for n in (board.at, board.at + board.thick))
    room = _room(axis, faces, around)
    # from the rig's plane into the board's: both run along axes, so a quarter turn and a flip at most
    (au, su), (bv, sv) = at.across(a), at.across(b)
    u_axis, v_axis = (k for k in range(3) if k != axis)
    if au == u_axis:
        matrix = [su, 0.0, 0.0, sv, -su * at.origin[au], -sv * at.origin[bv]]
    else:
        matrix = [0.0, su, sv, 0.0, -su * at.origin[au], -sv * at.origin[bv]]
    kept = shape.intersection(affine_transform(room, matrix)) if room is not None else shape
    cut = "curve" if kept.area < shape.area - 1e-6 else ""
    for low, high in around.boxes:
        if faces[1] <= low[axis] - PLAY_M or faces[0] >= high[axis] + PLAY_M:
            continue
        notch = box(low[u_axis] - PLAY_M, low[v_axis] - PLAY_M, high[u_axis] + PLAY_M, high[v_axis] + PLAY_M)
        left = kept.difference(affine_transform(notch, matrix))
        if left.area < kept.area - 1e-6:
            kept, cut = left, "wheel box"
    return kept, cut


def _point(normal: int, at: float) -> Corner:
    p = [0.0, 0.0, 0.0]
    p[normal] = at
    return p[0], p[1], p[2]


def _room(axis: int, faces: list[float], around: Around) -> BaseGeometry | None:
    """Where both faces of a board are inside of the body, in the rig's plane across an axis; None: nothing is known."""
    half = around.half_m
    room: BaseGeometry
    if axis == 1:
        if max(abs(face) for face in faces) > half + 0.05:
            return Polygon()
        room = around.side
    elif axis == 0:
        spans = [_span(around.side, upright=True, at=x) for x in faces]
        if any(span is None for span in spans):
            return Polygon()
        low, high = max(s[0] for s in spans if s), min(s[1] for s in spans if s)
        room = box(-half, low, half, high) if high > low else Polygon()
    else:
        spans = [_span(around.side, upright=False, at=z) for z in faces]
        if any(span is None for span in spans):
            return Polygon()
        low, high = max(s[0] for s in spans if s), min(s[1] for s in spans if s)
        room = box(low, -half, high, half) if high > low else Polygon()
    u_axis, v_axis = (k for k in range(3) if k != axis)
    for point, inward in around.slants:
        for at in faces:
            # inward . (p - point) >= 0 with p[axis] = at
            a, b = inward[u_axis], inward[v_axis]
            rest = inward[axis] * (at - point[axis])
            if math.hypot(a, b) < 1e-9:
                if rest < 0:
                    return Polygon()
                continue
            room = room.intersection(_half(a, b, a * point[u_axis] + b * point[v_axis] - rest))
    return room


def _half(a: float, b: float, least: float) -> Polygon:
    """Points (u, v) with a u + b v >= least, as far as anything goes."""
    n = np.array([a, b]) / math.hypot(a, b)
    t = np.array([-n[1], n[0]])
    foot = n * least / math.hypot(a, b)
    return Polygon([foot - FAR * t, foot + FAR * t, foot + FAR * t + FAR * n, foot - FAR * t + FAR * n])


def _span(side: BaseGeometry, upright: bool, at: float) -> tuple[float, float] | None:
    """The longest run of a silhouette on an upright or level line."""
    line = LineString([(at, -FAR), (at, FAR)] if upright else [(-FAR, at), (FAR, at)])
    cut = side.intersection(line)
    runs = [part for part in getattr(cut, "geoms", [cut]) if part.geom_type == "LineString" and part.length > 0]
    if not runs:
        return None
    x0, y0, x1, y1 = max(runs, key=lambda run: run.length).bounds
    return (y0, y1) if upright else (x0, x1)
