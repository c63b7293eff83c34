"""A carcass as its boards: ends, bottom, top, back, dividers, shelves, plinth, worktop, doors, drawers.

Own coordinates, as one stands before it [m]: w from the left end, d from the front inward, h up from the foot. Doors and
drawer faces lie over the front edges; a worktop lies over all. Source: shop rules; drawer boxes by their slides, stow notes
(check: 400 clear, side slides: 374.6 outside, 350.6 inside of 12 mm sides).
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from typing import Literal

import msgspec
from shapely import box
from shapely.geometry import Point, Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.joinery import Bay, BoardHole, Cabinet
from uncle_sled.core.document.stow import Thing

W, D, H = 0, 1, 2
FRONT_GAP_M = 0.002  # around doors and drawer faces
SLIDE_SIDE_M, SLIDE_UNDER_M = 0.0127, 0.021
DRAWER_SIDE_M, DRAWER_BOTTOM_M = 0.012, 0.006
SLIDES_M = tuple(round(0.25 + 0.05 * k, 2) for k in range(12))  # lengths that are sold
FACE_OVER_BOX_M = 0.040  # a drawer's face is higher than its box by that
SHELF_BACK_M = 0.010  # a shelf ends that far behind the front edge
RAIL_M = 0.080  # stretchers under a worktop
LAPS_M = 0.020  # sliding doors overlap
HINGE_KG, SLIDE_KG_M, FASTENERS = 0.09, 1.1, 0.04
POCKETS_PITCH_M = 0.15
MOST_BAYS, MOST_SHELVES, MOST_DRAWERS = 12, 20, 12
ACROSS = {W: (D, H), D: (W, H), H: (W, D)}  # the two directions that a board lies in


BoardKind = Literal[
    "end",
    "bottom",
    "top",
    "rail",
    "worktop",
    "lid",
    "back",
    "plinth",
    "divider",
    "shelf",
    "door",
    "sliding door",
    "drawer face",
    "drawer side",
    "drawer end",
    "drawer bottom",
    "slat",
    "bearer",
    "board",
]


class Board(msgspec.Struct, frozen=True):
    """One board. normal: across its thickness (w, d or h), ``at`` its lower face there [m]; shape in the other two, holes and all.

    moves: a door, a drawer's part, a lid: not fixed to the carcass.
    """

    id: str
    kind: BoardKind
    normal: int
    at: float
    thick: float
    shape: BaseGeometry
    material: str
    moves: bool = False
    bay: str = ""

    @property
    def box(self) -> tuple[tuple[float, float, float], tuple[float, float, float]]:
        """Low and high corner in the cabinet's own coordinates."""
        a, b = ACROSS[self.normal]
        u0, v0, u1, v1 = self.shape.bounds
        low, high = [0.0] * 3, [0.0] * 3
        low[self.normal], high[self.normal] = self.at, self.at + self.thick
        low[a], high[a], low[b], high[b] = u0, u1, v0, v1
        return (low[0], low[1], low[2]), (high[0], high[1], high[2])


class Carcass(msgspec.Struct, frozen=True):
    """All boards of a cabinet before anything of the body cuts them. faults: what cannot be, in words; then there are none."""

    size: tuple[float, float, float]  # w, d, h
    boards: tuple[Board, ...]
    clear: tuple[tuple[str, float, float], ...]  # of each bay: id, left and right inner face
    hinges: int
    slides_m: tuple[float, ...]  # length of each pair
    pockets: int
    faults: tuple[str, ...]


def size_of(thing: Thing, cabinet: Cabinet) -> tuple[float, float, float]:
    """Run along its front, depth and height [m]."""
    long, wide, high = thing.length.si, thing.width.si, thing.height.si
    return (wide, long, high) if cabinet.opens in ("front", "rear") else (long, wide, high)


def carcass(thing: Thing) -> Carcass | None:
    """The boards of a thing's cabinet, or what is wrong with it; None where it has none."""
    cabinet = thing.cabinet
    if cabinet is None:
        return None
    size = size_of(thing, cabinet)
    faults = tuple(_faults(cabinet, size))
    if faults:
        return Carcass(size, (), clear=(), hinges=0, slides_m=(), pockets=0, faults=faults)
    made = _Maker(cabinet, size)
    boards = [*made.body(), *made.inner(), *made.fronts()]
    if made.faults:
        return Carcass(size, (), clear=(), hinges=0, slides_m=(), pockets=0, faults=tuple(made.faults))
    bored = [_bored(board, cabinet.holes) for board in boards]
    joints = sum(1 for b in bored if b.kind in ("bottom", "top", "shelf", "rail", "divider")) * 2
    pockets = joints * max(round(made.deep / POCKETS_PITCH_M), 2) if cabinet.joint == "pocket holes" else 0
    return Carcass(size, tuple(bored), clear=made.clear, hinges=made.hinges, slides_m=tuple(made.slides), pockets=pockets, faults=())


def _faults(cabinet: Cabinet, size: tuple[float, float, float]) -> Iterator[str]:
    wide, deep, high = size
    t = cabinet.thick.si
    plinth = cabinet.plinth.si if cabinet.plinth else 0.0
    if min(size) <= 0:
        yield "the cabinet has a side of nothing"
        return
    if t <= 0:
        yield "its boards have no thickness"
        return
    if cabinet.back_thick.si < 0 or cabinet.worktop_thick.si <= 0:
        yield "back or worktop have no thickness"
        return
    if wide <= 2 * t + 0.05 or deep <= 3 * t + cabinet.back_thick.si or high <= plinth + 3 * t:
        yield f"boards of {{{t * 1000:.0f} mm}} leave no room in a cabinet of {{{wide:.2f} × {deep:.2f} × {high:.2f} m}}"
        return
    if cabinet.plinth and not 0 <= cabinet.plinth_back.si < deep - t:
        yield "its plinth stands behind its back"
    if len(cabinet.bays) > MOST_BAYS:
        yield f"{len(cabinet.bays)} bays; {MOST_BAYS} or fewer are drawn"
        return
    clear = wide - 2 * t - (max(len(cabinet.bays), 1) - 1) * t
    typed = sum(bay.width.si for bay in cabinet.bays if bay.width is not None)
    free = [bay for bay in cabinet.bays if bay.width is None]
    if any(bay.width is not None and bay.width.si <= 0 for bay in cabinet.bays):
        yield "a bay has no width"
    if clear - typed < (0.05 * len(free) if free else -0.002):
        yield f"its bays want {{{typed:.2f} m}} of the {{{max(clear, 0):.2f} m}} that are clear"
    room = high - plinth - 2 * t
    for bay in cabinet.bays:
        if bay.shelves > MOST_SHELVES or bay.drawers > MOST_DRAWERS:
            yield f"{max(bay.shelves, bay.drawers)} shelves or drawers in one bay; {MOST_DRAWERS} or fewer would be right"
        elif bay.shelves * (t + 0.05) > room:
            yield f"{bay.shelves} shelves do not fit in {{{room:.2f} m}}: the highest would stand outside"
        elif bay.front == "drawers" and (bay.drawers < 1 or room / bay.drawers < 0.07):
            yield f"{bay.drawers} drawers in {{{room:.2f} m}} leave no room for a box"


class _Maker:
    """Boards one after another; what is shared by them."""

    def __init__(self, cabinet: Cabinet, size: tuple[float, float, float]) -> None:
        self.one, self.size = cabinet, size
        self.t, self.back = cabinet.thick.si, cabinet.back_thick.si
        self.plinth = cabinet.plinth.si if cabinet.plinth else 0.0
        self.let = self.t / 2 if cabinet.joint == "rebate" else 0.0
        fronted = any(bay.front not in ("open", "sliding") for bay in cabinet.bays)
        self.front = self.t if fronted else 0.0  # where the carcass begins behind its doors
        self.top = {"worktop": cabinet.worktop_thick.si, "lid": self.t}.get(cabinet.top, 0.0)
        self.high = size[H] - self.top  # of the carcass
        self.deep = size[D] - self.front
        self.inner_top = self.high - (self.t if cabinet.top in ("board", "worktop") else 0.0)  # rails lie over dividers
        self.faults: list[str] = []
        self.hinges, self.slides = 0, list[float]()
        self.clear: tuple[tuple[str, float, float], ...] = ()
        self.ends_back = size[D] - (self.back if self.let == 0 else 0.0)  # a back is planted on, or let in

    def board(
        self, id: str, kind: BoardKind, normal: int, at: float, u: tuple[float, float], v: tuple[float, float], **rest: object
    ) -> Board:
        thick = float(rest.pop("thick", self.t))  # type: ignore[arg-type]
        material = str(rest.pop("material", self.one.board))
        return Board(id, kind, normal=normal, at=at, thick=thick, shape=box(u[0], v[0], u[1], v[1]), material=material, **rest)  # type: ignore[arg-type]

    def body(self) -> Iterator[Board]:
        cabinet, t, (wide, deep, _) = self.one, self.t, self.size
        end: BaseGeometry = box(self.front, 0.0, self.ends_back, self.high)
        if self.plinth:  # toes go under
            end = end.difference(box(self.front, 0.0, self.front + cabinet.plinth_back.si, self.plinth))
        yield Board("left end", "end", normal=W, at=0.0, thick=t, shape=end, material=cabinet.board)
        yield Board("right end", "end", normal=W, at=wide - t, thick=t, shape=end, material=cabinet.board)
        across = (t - self.let, wide - t + self.let)
        inner = (self.front, deep - self.back)
        yield self.board("bottom", "bottom", H, self.plinth, across, inner)
        if cabinet.top == "board":
            yield self.board("top", "top", H, self.high - t, across, inner)
        elif cabinet.top == "worktop":
            yield self.board("rail front", "rail", H, self.high - t, across, (self.front, self.front + RAIL_M))
            yield self.board("rail back", "rail", H, self.high - t, across, (deep - self.back - RAIL_M, deep - self.back))
            yield self.board(
                "worktop", "worktop", H, self.high, (0.0, wide), (0.0, deep), thick=cabinet.worktop_thick.si, material=cabinet.worktop
            )
        elif cabinet.top == "lid":
            yield self.board("lid", "lid", H, self.high, (0.0, wide), (0.0, deep), moves=True)
        if self.back > 0:
            run = (t - self.let, wide - t + self.let) if self.let else (0.0, wide)
            yield self.board(
                "back",
                "back",
                D,
                deep - self.back,
                run,
                (self.plinth if self.let else 0.0, self.high),
                thick=self.back,
                material=cabinet.back,
            )
        if self.plinth:
            yield self.board("plinth", "plinth", D, self.front + cabinet.plinth_back.si, (t, wide - t), (0.0, self.plinth))

    def bays(self) -> list[tuple[Bay, float, float]]:
        """Each bay with its clear left and right."""
        bays = self.one.bays or (Bay("whole"),)
        t, wide = self.t, self.size[W]
        clear = wide - 2 * t - (len(bays) - 1) * t
        free = [bay for bay in bays if bay.width is None]
        left_over = clear - sum(bay.width.si for bay in bays if bay.width is not None)
        made, at = [], t
        for bay in bays:
            long = bay.width.si if bay.width is not None else left_over / len(free)
            made.append((bay, at, at + long))
            at += long + t
        if not free and left_over > 0.002:  # the last takes what nobody asked for
            bay, a, b = made[-1]
            made[-1] = (bay, a, b + left_over)
        return made

    def inner(self) -> Iterator[Board]:
        made = self.bays()
        self.clear = tuple((bay.id, a, b) for bay, a, b in made)
        low, deep = self.plinth + self.t, self.size[D] - self.back
        for (_, _, b), (after, _, _) in itertools.pairwise(made):
            yield self.board(f"divider before {after.id}", "divider", W, b, (self.front, deep), (low, self.inner_top))
        for bay, a, b in made:
            step = (self.inner_top - low + self.t) / (bay.shelves + 1)
            behind = 2 * (self.t + FRONT_GAP_M) if bay.front == "sliding" else 0.0
            for k in range(bay.shelves):
                at = low + (k + 1) * step - self.t
                yield self.board(
                    f"shelf {bay.id} {k + 1}",
                    "shelf",
                    H,
                    at,
                    (a - self.let, b + self.let),
                    (self.front + behind + SHELF_BACK_M, deep),
                    bay=bay.id,
                )

    def fronts(self) -> Iterator[Board]:
        for bay, a, b in self.bays():
            first, last = a <= self.t + 1e-9, b >= self.size[W] - self.t - 1e-9
            u = (a - (self.t if first else self.t / 2) + FRONT_GAP_M, b + (self.t if last else self.t / 2) - FRONT_GAP_M)
            v = (self.plinth + FRONT_GAP_M, self.high - FRONT_GAP_M)
            if bay.front in ("hinged left", "hinged right", "lift-up", "drop-down"):
                self.hinges += 2
                yield self.board(f"door {bay.id}", "door", D, 0.0, u, v, moves=True, bay=bay.id)
            elif bay.front == "pair":
                middle = (u[0] + u[1]) / 2
                self.hinges += 4
                for side, run in (("left", (u[0], middle - FRONT_GAP_M / 2)), ("right", (middle + FRONT_GAP_M / 2, u[1]))):
                    yield self.board(f"door {bay.id} {side}", "door", D, 0.0, run, v, moves=True, bay=bay.id)
            elif bay.front == "sliding":
                middle = (a + b) / 2
                inside = (self.plinth + self.t, self.inner_top)
                for k, run in enumerate(((a, middle + LAPS_M), (middle - LAPS_M, b))):
                    at = self.front + k * (self.t + FRONT_GAP_M)
                    yield self.board(f"sliding door {bay.id} {k + 1}", "sliding door", D, at, run, inside, moves=True, bay=bay.id)
            elif bay.front == "drawers":
                yield from self.drawers(bay, a, b, u, v)

    def drawers(self, bay: Bay, a: float, b: float, u: tuple[float, float], v: tuple[float, float]) -> Iterator[Board]:
        room = self.size[D] - self.front - self.back - 0.010
        long = max((one for one in SLIDES_M if one <= room + 1e-9), default=None)
        side = SLIDE_SIDE_M if self.one.slide == "side" else SLIDE_UNDER_M
        outside = b - a - 2 * side
        if long is None:
            self.faults.append(
                f"drawers want {{{SLIDES_M[0] * 1000:.0f} mm}} behind their face; bay {bay.id} has {max(room, 0) * 1000:.0f}"
            )
            return
        if outside < 2 * DRAWER_SIDE_M + 0.05:
            self.faults.append(f"bay {bay.id} is {{{(b - a) * 1000:.0f} mm}} wide: slides leave no room for a drawer")
            return
        step = (v[1] - v[0] + FRONT_GAP_M) / bay.drawers
        for k in range(bay.drawers):
            low = v[0] + k * step
            top = low + step - FRONT_GAP_M
            name = f"{bay.id} {k + 1}"
            yield self.board(f"drawer face {name}", "drawer face", D, 0.0, u, (low, top), moves=True, bay=bay.id)
            foot, head = low + FACE_OVER_BOX_M / 2, top - FACE_OVER_BOX_M / 2
            left, right = a + side, b - side
            front = self.front
            thin = DRAWER_SIDE_M
            rest: dict[str, object] = {"thick": thin, "moves": True, "bay": bay.id}
            for at, which in ((left, "left"), (right - thin, "right")):
                yield self.board(f"drawer side {name} {which}", "drawer side", W, at, (front, front + long), (foot, head), **rest)
            for at, which in ((front, "front"), (front + long - thin, "back")):
                yield self.board(f"drawer end {name} {which}", "drawer end", D, at, (left + thin, right - thin), (foot, head), **rest)
            bottom = {**rest, "thick": DRAWER_BOTTOM_M}
            yield self.board(
                f"drawer bottom {name}",
                "drawer bottom",
                H,
                foot,
                (left + thin, right - thin),
                (front + thin, front + long - thin),
                **bottom,
            )
            self.slides.append(long)


def _bored(board: Board, holes: tuple[BoardHole, ...]) -> Board:
    """With its holes cut out; what reaches over its edge is cut as far as the board goes."""
    shape = board.shape
    u0, v0, _, _ = board.shape.bounds
    for hole in holes:
        if hole.board != board.id or min(hole.width.si, hole.height.si) <= 0:
            continue
        a, b = u0 + hole.along.si, v0 + hole.up.si
        if hole.round:
            middle = Point(a + hole.width.si / 2, b + hole.width.si / 2)
            shape = shape.difference(middle.buffer(hole.width.si / 2, 24))
        else:
            shape = shape.difference(box(a, b, a + hole.width.si, b + hole.height.si))
    return board if shape is board.shape else msgspec.structs.replace(board, shape=shape)


def polygons(shape: BaseGeometry) -> list[Polygon]:
    """The whole pieces that a cut left of a board, largest first."""
    parts = [part for part in getattr(shape, "geoms", [shape]) if isinstance(part, Polygon) and part.area > 1e-6]
    return sorted(parts, key=lambda part: -part.area)
