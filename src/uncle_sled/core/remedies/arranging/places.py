"""Every place on a grid where a piece could stand, whatever else moves: within the room, clear of what stays, of doors and windows.

Places are judged by boxes, which is safe and at times too careful; a whole arrangement is judged again as a build.
"""

from __future__ import annotations

import msgspec
import numpy as np
from msgspec.structs import replace
from numpy.typing import NDArray

from uncle_sled.core.document.placing import gone_in, stand_of
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Mode, Place, Thing
from uncle_sled.core.parts.from_stow import home_of, part_of_thing, standing_size_m
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.remedies.arranging.pieces import Piece
from uncle_sled.core.studies.stow.clashes import COVERED, modes_in_use
from uncle_sled.core.studies.stow.free_places import heat_m, stands_in
from uncle_sled.core.studies.stow.room import Hole, Room, room_of
from uncle_sled.core.studies.stow.solids import TOUCH_M, box_solid, zone_of

GRIDS_M = (0.10, 0.15, 0.20, 0.30, 0.50)
MOST_PLACES = 3600  # of all pieces together: the finest grid that has no more
LOW_M = 0.03  # so near to the floor it stands on it
SAME_M = 1e-4

Ints = NDArray[np.int64]
Turn = int
OF_EACH = ("x_m", "y_m", "z_m", "turn", "boxes", "rooms", "middles_m", "shifts_m")  # what Spots have of each place


class Spots(msgspec.Struct, frozen=True, eq=False):
    """Places of one piece, all (n,): front edge, middle, underside [m] and turn of what bears the others.

    boxes: of its things in every mode, (n, modes, things, 2, 3) [m]; NaN where one is not there, or stands elsewhere by itself.
    rooms: what it needs beside it, (n, r, 2, 3) [m]. middles_m, shifts_m: of its things at home, (n, things, 3): their middles, and
    how far their weight goes. now: the place where it stands, -1 where that is none of them.
    """

    piece: Piece
    x_m: Floats
    y_m: Floats
    z_m: Floats
    turn: Ints
    boxes: Floats
    rooms: Floats
    middles_m: Floats
    shifts_m: Floats
    now: int

    def __len__(self) -> int:
        return len(self.x_m)

    def only(self, chosen: NDArray[np.bool_]) -> Spots:
        """Some of them."""
        at = np.flatnonzero(chosen)
        now = int(np.searchsorted(at, self.now)) if self.now >= 0 and chosen[self.now] else -1
        return replace(self, now=now, **{name: getattr(self, name)[at] for name in OF_EACH})


def meets(a: Floats, b: Floats) -> NDArray[np.bool_]:
    """Whether boxes share more than a touch, each (..., 2, 3) [m] and broadcast; a box of NaN meets nothing."""
    lows, highs = np.maximum(a[..., 0, :], b[..., 0, :]), np.minimum(a[..., 1, :], b[..., 1, :])
    return np.asarray((highs - lows > TOUCH_M).all(axis=-1))


def moved_things(build: Build, piece: Piece, spot: tuple[float, float, float], turn: Turn) -> tuple[Thing, ...]:
    """The things of a piece with that which bears the others at a spot (front edge, middle, underside [m]) and turned so."""
    things = {thing.id: thing for thing in build.stow.things}
    base = things[piece.ids[0]]
    old = home_of(base)
    quarter = (turn - base.turn) // 90 % 4
    cos, sin = ((1, 0), (0, 1), (-1, 0), (0, -1))[quarter]  # a quarter takes the front to the left: x to y, y to -x
    size = standing_size_m(base, turn)
    here = np.array([spot[0] + size[0] / 2, spot[1], spot[2]])
    there = np.array([old.x + old.size[0] / 2, old.y, old.z])
    made = []
    for id in piece.ids:
        thing = things[id]
        stand = home_of(thing)
        off = np.array([stand.x + stand.size[0] / 2, stand.y, stand.z]) - there
        turned = (thing.turn + 90 * quarter) % 360
        middle = here + [cos * off[0] + sin * off[1], -sin * off[0] + cos * off[1], off[2]]
        long = standing_size_m(thing, turned)[0]
        x, y, z = (Length(round(float(value), 4)) for value in (middle[0] - long / 2, middle[1], middle[2]))
        made.append(replace(thing, x=x, y=y, z=z, turn=turned))
    return tuple(made)


def spots_of(
    build: Build, facts: Facts, pieces: tuple[Piece, ...], down_kg: float = np.inf, grids_m: tuple[float, ...] = GRIDS_M
) -> tuple[Spots, ...]:
    """The places of every piece that may move, in their order.

    Args: down_kg: what hangs and weighs so much is offered the floor too; grids_m: from fine to coarse.
    """
    room = room_of(build, facts)
    if room is None:
        return ()
    movers = {id for piece in pieces if not piece.stays for id in piece.ids}
    still = [_in_the_way(build, mode, movers, room) for mode in build.stow.modes]
    made: tuple[Spots, ...] = ()
    for grid in grids_m:
        made = tuple(_spots(build, piece, room, still, grid, piece.kg >= down_kg) for piece in pieces if not piece.stays)
        if sum(map(len, made)) <= MOST_PLACES:
            break
    return made


def _in_the_way(build: Build, mode: Mode, movers: set[str], room: Room) -> Floats:
    """Boxes that stay in a mode, (n, 2, 3) [m]: of what does not move, of what stands elsewhere in it, of the body."""
    gone = gone_in(build.stow, mode)
    elsewhere = {place.id for place in mode.places}
    boxes = [
        stand_of(thing, mode).corners
        for thing in build.stow.things
        if thing.id not in gone and not thing.taken_out and (thing.id not in movers or thing.id in elsewhere)
    ]
    boxes += [(solid.low, solid.high) for solid in (*room.wheel_boxes, *room.walls, *room.leaves, *room.sticks)]
    return np.array(boxes, dtype=float).reshape(-1, 2, 3)


def _spots(build: Build, piece: Piece, room: Room, still: list[Floats], grid_m: float, down: bool) -> Spots:
    things = {thing.id: thing for thing in build.stow.things}
    base = things[piece.ids[0]]
    parts = [_turned(build, piece, base, turn, room, grid_m, down) for turn in _turns(base)]
    spots = _joined(parts)  # the first is the turn that it has now
    return spots.only(_clear(build, spots, room, still) | (np.arange(len(spots)) == spots.now))


def _turns(base: Thing) -> tuple[Turn, ...]:
    """Turns that make a difference: what needs room on one side is tried all four ways, a square of no front one."""
    if any(clear.side != "top" for clear in base.clear) or base.cg_dx is not None or base.cg_dy is not None:
        return (base.turn, *((base.turn + k) % 360 for k in (90, 180, 270)))
    return (base.turn,) if abs(base.length.si - base.width.si) < SAME_M else (base.turn, (base.turn + 90) % 360)


def _turned(build: Build, piece: Piece, base: Thing, turn: Turn, room: Room, grid_m: float, down: bool) -> Spots:
    """A piece turned one way, wherever it lies within the room."""
    long, wide, _ = standing_size_m(base, turn)
    front, rear = room.span_m
    hot = heat_m(replace(base, turn=turn))
    xs = _along(front + hot.get("front", 0.0), rear - hot.get("rear", 0.0) - long, front, grid_m, base.x.si)
    left, right = -room.half_m + hot.get("left", 0.0), room.half_m - hot.get("right", 0.0) - wide
    ys = _along(left, right, -room.half_m, grid_m, base.y.si - wide / 2, -wide / 2) + wide / 2
    zs = np.unique(np.round([base.z.si, room.floor_m] if down and base.z.si - room.floor_m > LOW_M else [base.z.si], 4))
    spots = np.array([(x, y, z) for z in zs for y in ys for x in xs]).reshape(-1, 3)
    home = [base.x.si, base.y.si, base.z.si]
    if turn == base.turn:
        spots = np.concatenate([spots[np.abs(spots - home).max(axis=1, initial=1.0) > SAME_M] if len(spots) else spots, [home]])
    lie = np.ones(len(spots), dtype=bool)
    for thing in moved_things(build, piece, (0.0, 0.0, 0.0), turn):
        stand = home_of(thing)
        lie &= stands_in(room, spots + stand.corners[0], stand.size, hot if thing.id == base.id else None)
    if turn == base.turn:
        lie[-1] = True  # where it stands it may stand
    return _standing(build, piece, turn, spots[lie], now=int(lie.sum()) - 1 if turn == base.turn else -1)


def _standing(build: Build, piece: Piece, turn: Turn, spots: Floats, now: int) -> Spots:
    """A piece turned one way at some spots, (n, 3) [m]."""
    at = moved_things(build, piece, (0.0, 0.0, 0.0), turn)
    things = {thing.id: thing for thing in build.stow.things}
    weight = np.array([_weight(moved) - _weight(things[moved.id]) for moved in at])
    middles = np.array([np.mean(home_of(moved).corners, axis=0) for moved in at])
    return Spots(
        piece,
        spots[:, 0],
        spots[:, 1],
        spots[:, 2],
        np.full(len(spots), turn, dtype=np.int64),
        boxes=_boxes(build, at)[None] + spots[:, None, None, None, :],
        rooms=_rooms(at)[None] + spots[:, None, None, :],
        middles_m=middles[None] + spots[:, None, :],
        shifts_m=weight[None] + spots[:, None, :],
        now=now,
    )


def with_place(build: Build, of: Spots, place: Place) -> Spots:
    """The places of a piece with one more, where it is not among them."""
    spot = np.array([[place.x.si, place.y.si, place.z.si]])
    there = np.stack([of.x_m, of.y_m, of.z_m], axis=1)
    if ((np.abs(there - spot).max(axis=1) < SAME_M) & (of.turn == place.turn)).any():
        return of
    return _joined([of, _standing(build, of.piece, place.turn, spot, now=-1)])


def _weight(thing: Thing) -> Floats:
    """Where the weight of a thing sits at home [m]."""
    part = part_of_thing(thing)
    return np.array([part.x_m, part.y_m, part.z_m])


def _along(first: float, last: float, origin: float, step: float, *more: float) -> Floats:
    """Places between two ends [m]: both ends, a grid that is the same for all pieces, and some more where they lie between."""
    if last < first - TOUCH_M:
        return np.array([])
    run = origin + step * np.arange(np.ceil((first - origin) / step - 1e-9), np.floor((last - origin) / step + 1e-9) + 1)
    return np.unique(np.round([first, max(last, first), *run, *(value for value in more if first <= value <= last)], 4))


def _boxes(build: Build, things: tuple[Thing, ...]) -> Floats:
    """Boxes of things in every mode, (modes, things, 2, 3) [m]."""
    made = np.full((len(build.stow.modes), len(things), 2, 3), np.nan)
    for k, mode in enumerate(build.stow.modes):
        gone, elsewhere = gone_in(build.stow, mode), {place.id for place in mode.places}
        for j, thing in enumerate(things):
            if thing.id not in gone and thing.id not in elsewhere:
                made[k, j] = stand_of(thing, mode).corners
    return made


def _rooms(things: tuple[Thing, ...]) -> Floats:
    """Room that things need beside them, (r, 2, 3) [m]."""
    made = []
    for thing in things:
        low, high = home_of(thing).corners
        solid = box_solid(thing.id, thing.name, low, high)
        zones = [zone_of(solid, clear, thing.turn) for clear in thing.clear if clear.deep.si > TOUCH_M]
        made += [(zone.low, zone.high) for zone in zones]
    return np.array(made, dtype=float).reshape(-1, 2, 3)


def _joined(parts: list[Spots]) -> Spots:
    """The places of a piece in all its turns."""
    return replace(parts[0], **{name: np.concatenate([getattr(part, name) for part in parts]) for name in OF_EACH})


def _clear(build: Build, spots: Spots, room: Room, still: list[Floats]) -> NDArray[np.bool_]:
    """Which places are clear of what stays and of what is opened, and have their own room beside them."""
    good = np.ones(len(spots), dtype=bool)
    used = modes_in_use(build)
    for k, mode in enumerate(build.stow.modes):
        boxes = spots.boxes[:, k]
        good &= ~meets(boxes[:, :, None], still[k][None, None]).any(axis=(1, 2))
        if mode.id in used:
            good &= ~meets(spots.rooms[:, :, None], still[k][None, None]).any(axis=(1, 2))
            good &= ~_beyond(spots.rooms, room).any(axis=1)
            for hole in room.holes:
                if hole.opening.id not in mode.shut:
                    good &= ~_covers(boxes, hole).any(axis=1)
    return good


def _beyond(rooms: Floats, room: Room) -> NDArray[np.bool_]:
    """Which rooms that things need lie for the most part behind a wall and in no open door, (n, r)."""
    front, rear = room.span_m
    low, high = np.array([front, -room.half_m]), np.array([rear, room.half_m])
    inside = (np.minimum(rooms[..., 1, :2], high) - np.maximum(rooms[..., 0, :2], low)).clip(min=0.0).prod(axis=-1)
    whole = (rooms[..., 1, :2] - rooms[..., 0, :2]).prod(axis=-1)
    through = np.zeros(rooms.shape[:2], dtype=bool)
    for hole in room.holes:
        if hole.opening.kind in ("door", "hatch"):
            through |= meets(rooms, np.array([hole.low, hole.high]))
    return np.asarray((inside < 0.7 * whole) & ~through)


def _covers(boxes: Floats, hole: Hole) -> NDArray[np.bool_]:
    """Which boxes hide too much of an opening, (n, things)."""
    low, high = np.array(hole.low), np.array(hole.high)
    shared = np.minimum(boxes[:, :, 1], high) - np.maximum(boxes[:, :, 0], low)
    a, b = (k for k in range(3) if k != hole.normal)
    area = (high[a] - low[a]) * (high[b] - low[b])
    return np.asarray((shared > TOUCH_M).all(axis=-1) & (shared[..., a] * shared[..., b] > COVERED[hole.opening.kind] * area))
