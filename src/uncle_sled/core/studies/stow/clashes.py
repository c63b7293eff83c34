"""What stands in what, mode by mode: things, the body's walls and curve, wheel boxes, sticks, openings, swings.

Pairs are found by their boxes and measured by their true outlines; an STRtree over the plan keeps thousands
of things quick, and a mode of which one thing moved is only searched again around that thing.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely import STRtree, area, bounds, box, contains, difference, intersection
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Stow
from uncle_sled.core.engine import from_last, keep
from uncle_sled.core.geometry.vessel import Plane
from uncle_sled.core.sameness import places_changed
from uncle_sled.core.studies.stow.room import Hole, Room, room_of
from uncle_sled.core.studies.stow.solids import AXES, TOUCH_M, Floats, Solid, corners_of, overlap_m3, solids_in, within, zone_of

Kind = Literal["things", "body", "outside", "wheel box", "wall", "stick", "opening", "swing"]
CUT_AWAY = 0.5  # of what is made of boards the body may take no more
ON_TOP_M = 0.05  # so near to the roof's top what is outside lies on it
LEAST_M3 = 1e-6
COVERED = {"door": 0.35, "window": 0.2, "vent": 0.2, "hatch": 0.35}  # share of an opening that may be hidden
POKES = 0.15  # of what stands outside: a flat panel may lie on a curved roof
MOST_MEASURED = 20_000  # pairs of boxes that meet in one mode; of a heap beyond that, those that share most
MOST_AT_ONCE = 4_000_000  # pairs that are looked at together
AROUND = 6  # moved things up to which only their surroundings are searched again
IN_THE_WAY = 0.05  # of a swing's room


class Clash(msgspec.Struct, frozen=True):
    """Two parties that want the same room in one mode, worst first by volume; ``by_m`` is the least shift that parts them."""

    mode: str
    kind: Kind
    a: str
    b: str
    a_name: str
    b_name: str
    overlap_m3: float
    by_m: float = 0.0

    @property
    def solid(self) -> bool:
        """Whether matter meets matter, and not the room that something needs."""
        return self.kind not in ("opening", "swing")


def clashes(build: Build, facts: Facts, only: str | None = None) -> dict[str, tuple[Clash, ...]]:
    """The clashes of every mode, or of one, by mode id."""
    used = modes_in_use(build)
    return {
        mode.id: _in_mode(build.stow, mode, room_of(build, facts, mode), mode.id in used)
        for mode in build.stow.modes
        if only in (None, mode.id)
    }


def modes_in_use(build: Build) -> frozenset[str]:
    """Modes in which doors are opened and drawers pulled: the standing ones, or the first where there is none."""
    standing = frozenset(mode.id for mode in build.stow.modes if not mode.towing)
    return standing or frozenset(mode.id for mode in build.stow.modes[:1])


@keep(most=24)
def _in_mode(stow: Stow, mode: Mode, room: Room | None, in_use: bool) -> tuple[Clash, ...]:
    solids = _with_the_roof(solids_in(stow, mode), room)
    memo = _searched(mode, solids, room)
    found = [*memo.pairs.values(), *(clash for of in memo.walls.values() for clash in of)]
    if in_use:
        found += _swings(stow, mode, solids, room)
        for hole in room.holes if room is not None else ():
            found += _before(hole, solids, mode)
    return tuple(sorted(found, key=lambda c: (not c.solid, -round(c.overlap_m3, 9), c.a, c.b)))


@keep(most=8)
def _with_the_roof(solids: tuple[Solid, ...], room: Room | None) -> tuple[Solid, ...]:
    """Everything where it is while the roof is up: what lies on it as it does on the road goes up with it."""
    risen = room.risen if room is not None else None
    if risen is None or risen.folds:
        return solids
    top, up = risen.top_down_m, risen.rise_m if risen.lifts else risen.rise_m / 2

    def lifted(solid: Solid) -> Solid:
        on = solid.outside and top - ON_TOP_M <= solid.low[2] <= top + ON_TOP_M
        if not on or not risen.a_m <= (solid.low[0] + solid.high[0]) / 2 <= risen.b_m:
            return solid
        low, high = ((at[0], at[1], at[2] + up) for at in (solid.low, solid.high))
        return msgspec.structs.replace(solid, low=low, high=high, plane=None, shape=None)

    return tuple([lifted(solid) for solid in solids])


# things against things and walls, searched again only around what moved
Pairs = dict[tuple[int, int], Clash]


class _Memo(msgspec.Struct, frozen=True):
    """What the last search of a mode found, by the places of the solids in their list."""

    solids: tuple[Solid, ...]
    room: Room | None
    towing: bool
    pairs: Pairs
    walls: dict[int, tuple[Clash, ...]]


def _around(old: _Memo, mode: Mode, solids: tuple[Solid, ...], room: Room | None) -> _Memo | None:
    """The last search of a mode with the surroundings of what moved searched again; None where more has changed."""
    if len(old.solids) != len(solids) or old.room is not room or old.towing != mode.towing:
        return None
    moved = places_changed(old.solids, solids)
    if len(moved) > AROUND or any(_linked(old.solids[k]) != _linked(solids[k]) for k in moved):
        return None
    gone = set(moved)
    pairs = {key: clash for key, clash in old.pairs.items() if key[0] not in gone and key[1] not in gone}
    corners = corners_of(solids)
    for k in moved:
        near = (corners[:, 1] > corners[k, 0] + TOUCH_M) & (corners[:, 0] < corners[k, 1] - TOUCH_M)
        _measure(mode.id, solids, [(min(k, j), max(k, j)) for j in np.flatnonzero(near.all(axis=1)).tolist() if j != k], pairs)
    walls = {k: of for k, of in old.walls.items() if k not in gone} | _walls(mode, solids, room, moved)
    return _Memo(solids, room, mode.towing, pairs, walls)


def _linked(solid: Solid) -> tuple[str, str | None]:
    """What says which others a thing may stand in; a change of it reaches further than its own surroundings."""
    return solid.id, solid.inside


@from_last(_around, lambda mode, _solids, _room: mode.id, 16)
def _searched(mode: Mode, solids: tuple[Solid, ...], room: Room | None) -> _Memo:
    return _Memo(solids, room, mode.towing, _pairs(mode.id, solids), _walls(mode, solids, room, range(len(solids))))


def _walls(mode: Mode, solids: tuple[Solid, ...], room: Room | None, which: Iterable[int]) -> dict[int, tuple[Clash, ...]]:
    return {} if room is None else _in_body(mode, solids, room, list(which))


def _pairs(mode: str, solids: tuple[Solid, ...]) -> Pairs:
    """Every pair whose boxes overlap, measured; of more than can be measured those that share most."""
    hits: Pairs = {}
    if len(solids) > 1:
        _measure(mode, solids, list(zip(*(part.tolist() for part in _overlapping(corners_of(solids))), strict=True)), hits)
    return hits


def _overlapping(corners: Floats) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """First and second of each pair of boxes that overlap. Args: corners: low and high, shape (n, 2, 3) [m].

    Looked for some boxes at a time: thousands on one spot are millions of pairs, of which only the largest are kept.
    """
    plan = box(corners[:, 0, 0], corners[:, 0, 1], corners[:, 1, 0], corners[:, 1, 1])
    tree, step = STRtree(plan), max(MOST_AT_ONCE // len(corners), 1)
    kept = (np.zeros(0, np.int64), np.zeros(0, np.int64))
    for begin in range(0, len(corners), step):
        one, other = tree.query(plan[begin : begin + step])
        one = one + begin
        first = one < other
        one, other = one[first], other[first]
        shared = np.minimum(corners[one, 1], corners[other, 1]) - np.maximum(corners[one, 0], corners[other, 0])
        both = (shared > TOUCH_M).all(axis=1)
        kept = (np.concatenate([kept[0], one[both]]), np.concatenate([kept[1], other[both]]))
        if len(kept[0]) > 2 * MOST_MEASURED:
            kept = _largest(corners, *kept)
    return kept


def _largest(corners: Floats, one: NDArray[np.int64], other: NDArray[np.int64]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """The pairs that share most, as many as are measured, in their order."""
    shared = np.minimum(corners[one, 1], corners[other, 1]) - np.maximum(corners[one, 0], corners[other, 0])
    most = np.sort(np.argsort(-shared.prod(axis=1), kind="stable")[:MOST_MEASURED])
    return one[most], other[most]


def _measure(mode: str, solids: tuple[Solid, ...], pairs: list[tuple[int, int]], hits: Pairs) -> None:
    holder = {s.id: s.inside for s in solids} if pairs else {}
    if len(pairs) > MOST_MEASURED:
        one, other = np.array(pairs).T
        pairs = list(zip(*(part.tolist() for part in _largest(corners_of(solids), one, other)), strict=True))
    for i, j in pairs:
        a, b = solids[i], solids[j]
        if (i, j) in hits or related(a.id, b.id, holder):
            continue
        volume = overlap_m3(a, b)
        if volume > LEAST_M3:
            hits[i, j] = Clash(mode, "things", a=a.id, b=b.id, a_name=a.name, b_name=b.name, overlap_m3=volume, by_m=_apart_m(a, b))


def related(a: str, b: str, holder: dict[str, str | None]) -> bool:
    """Whether one is built into the other, at whatever depth."""
    for one, other in ((a, b), (b, a)):
        at, seen = holder.get(one), {one}
        while at is not None and at not in seen:
            if at == other:
                return True
            seen.add(at)
            at = holder.get(at)
    return False


def _apart_m(a: Solid, b: Solid) -> float:
    """Least straight shift that parts two boxes [m]."""
    return min(min(a.high[k] - b.low[k], b.high[k] - a.low[k]) for k in range(3))


# things against the body
def _in_body(mode: Mode, solids: tuple[Solid, ...], room: Room, which: list[int]) -> dict[int, tuple[Clash, ...]]:
    """What solids meet of the body: wall and curve, wheel boxes, sticks; from outside, the body itself.

    While it stands, things are set up around the body. All at once: GEOS takes arrays, and most meet nothing.
    """
    some = [solids[k] for k in which]
    low, high = corners_of(solids)[which, 0], corners_of(solids)[which, 1]
    volume = np.array([solid.volume_m3 for solid in some])
    elevation, across = _seen(some, low, high, "xz"), _seen(some, low, high, "yz")
    above = _seen(some, low, high, "xy") if room.plan is not None else None
    outside = np.array([solid.outside for solid in some], dtype=bool)
    buried = low[:, 2] < -TOUCH_M
    standing = not mode.towing
    outer = np.zeros(len(some))
    asks = outside | standing
    if asks.any():
        outer[asks] = _within(volume[asks], elevation[asks], across[asks], room.outer, room.outer_section, room.outer_half_m)
        if above is not None:
            outer[asks] *= _share(above[asks], room.outer_plan)
    inside = ~outside & ~buried
    if standing:
        within = area(intersection(elevation, room.side)) > TOUCH_M * area(elevation) if room.risen is not None else False
        inside &= (outer >= TOUCH_M * volume) | within
    reach = room.half_m + TOUCH_M
    over = inside & ~(
        (np.abs(low[:, 1]) <= reach)
        & (np.abs(high[:, 1]) <= reach)
        & contains(room.side, elevation)
        & (True if room.section is None else contains(room.section, across))
        & (True if above is None else contains(room.plan, above))
    )
    out = np.zeros(len(some))
    if over.any():
        left = _within(volume[over], elevation[over], across[over], room.side, room.section, reach)
        if above is not None:
            # the silhouette's ends are the nose's point and the tail: the plan has them already
            left = np.minimum(left, volume[over] * _share(above[over], room.plan))
        out[over] = volume[over] - left
    found: dict[int, list[Clash]] = {}

    def meets(at: int, kind: Kind, id: str, name: str, m3: float, by: float = 0.0) -> None:
        found.setdefault(at, []).append(
            Clash(mode.id, kind, a=some[at].id, b=id, a_name=some[at].name, b_name=name, overlap_m3=m3, by_m=by)
        )

    for at in np.flatnonzero(buried).tolist():
        meets(at, "body", "ground", "the ground", some[at].volume_m3, -some[at].low[2])
    for at in np.flatnonzero(outside & ~buried & (outer > POKES * volume)).tolist():
        meets(at, "outside", "shell", "the body", float(outer[at]))
    boards = np.array([solid.boards for solid in some], dtype=bool)
    out[boards & (out < CUT_AWAY * volume)] = 0.0  # its boards are cut to the curve
    much = np.flatnonzero(out > LEAST_M3)
    if len(much):
        seen = above[much] if above is not None else None
        by = _out_by_m(low[much], high[much], elevation[much], across[much], seen, room)
        for at, far in zip(much.tolist(), by.tolist(), strict=True):
            meets(at, "body", "shell", "the wall or roof", float(out[at]), far)
    rows = np.flatnonzero(inside)
    for kind, others, corners in (
        ("wheel box", room.wheel_boxes, room.wheel_corners),
        ("wall", room.walls, room.wall_corners),
        ("stick", room.sticks, room.stick_corners),
    ):
        shared = np.minimum(high[rows, None], corners[:, 1]) - np.maximum(low[rows, None], corners[:, 0])
        for row, other in np.argwhere((shared > TOUCH_M).all(axis=2)).tolist():
            at, box = int(rows[row]), others[other]
            if kind == "wheel box" and boards[at]:
                continue  # they are cut around it
            m3 = overlap_m3(some[at], box)
            if m3 > LEAST_M3:
                meets(at, kind, box.id, box.name, m3, _apart_m(some[at], box))  # type: ignore[arg-type]
    return {which[at]: tuple(of) for at, of in sorted(found.items()) if not (standing and inside[at] and _drawn_out(some[at], room))}


def _seen(solids: list[Solid], low: Floats, high: Floats, plane: Plane) -> NDArray[np.object_]:
    """Outlines of solids in a plane."""
    a, b, _ = AXES[plane]
    made = np.asarray(box(low[:, a], low[:, b], high[:, a], high[:, b]), dtype=object)
    for at, solid in enumerate(solids):
        if solid.shape is not None and solid.plane == plane:
            made[at] = solid.shape
    return made


def _drawn_out(solid: Solid, room: Room) -> bool:
    """Whether it stands in an open door or hatch with room all round: a slide pulled out."""
    return any(
        hole.opening.kind in ("door", "hatch")
        and solid.low[hole.normal] < hole.high[hole.normal]
        and solid.high[hole.normal] > hole.low[hole.normal]
        and all(solid.low[k] >= hole.low[k] - TOUCH_M and solid.high[k] <= hole.high[k] + TOUCH_M for k in range(3) if k != hole.normal)
        for hole in room.holes
    )


def _within(
    volume: Floats,
    elevation: NDArray[np.object_],
    across: NDArray[np.object_],
    side: BaseGeometry,
    section: BaseGeometry | None,
    half_m: float,
) -> Floats:
    """Volume of each solid that lies within an outline seen from the side, and in a section or between two walls [m3].

    Exact unless it crosses both outlines at once; there the two shares are multiplied.
    """
    wall = section if section is not None else box(-half_m, -1e3, half_m, 1e3)
    share = area(intersection(elevation, side)) / np.maximum(area(elevation), 1e-12)
    found: Floats = volume * share * area(intersection(across, wall)) / np.maximum(area(across), 1e-12)
    return found


def _share(above: NDArray[np.object_], plan: BaseGeometry | None) -> Floats:
    """Which share of each outline in plan lies over a plan."""
    found: Floats = area(intersection(above, plan)) / np.maximum(area(above), 1e-12)
    return found


def _zone_within(zone: Solid, room: Room) -> float:
    low, high = np.array([zone.low]), np.array([zone.high])
    seen = (_seen([zone], low, high, "xz"), _seen([zone], low, high, "yz"))
    return float(_within(np.array([zone.volume_m3]), *seen, room.side, room.section, room.half_m + TOUCH_M)[0])


def _out_by_m(
    low: Floats, high: Floats, elevation: NDArray[np.object_], across: NDArray[np.object_], above: NDArray[np.object_] | None, room: Room
) -> Floats:
    """How far each solid reaches over the inside at most, by its own box [m]."""
    sides = [np.zeros(len(low)), np.maximum(np.abs(low[:, 1]), np.abs(high[:, 1])) - room.half_m]
    for seen, shape in ((elevation, room.side), (across, room.section), (above, room.plan)):
        if shape is not None and seen is not None:
            left, under, right, top = bounds(difference(seen, shape)).T
            sides.append(np.fmin(right - left, top - under))
    return np.asarray(np.fmax.reduce(sides))


def _before(hole: Hole, solids: tuple[Solid, ...], mode: Mode) -> list[Clash]:
    """What covers a door, window or vent, from within or from outside."""
    if hole.opening.id in mode.shut:
        return []
    a, b = (k for k in range(3) if k != hole.normal)
    area = (hole.high[a] - hole.low[a]) * (hole.high[b] - hole.low[b])
    found = []
    for solid in within(solids, hole.low, hole.high):
        shared = [min(solid.high[k], hole.high[k]) - max(solid.low[k], hole.low[k]) for k in range(3)]
        if shared[a] * shared[b] > COVERED[hole.opening.kind] * area:
            volume = shared[0] * shared[1] * shared[2]
            name = hole.opening.name
            found.append(
                Clash(
                    mode.id, "opening", a=solid.id, b=hole.opening.id, a_name=solid.name, b_name=name, overlap_m3=volume, by_m=min(shared)
                )
            )
    return found


def _swings(stow: Stow, mode: Mode, solids: tuple[Solid, ...], room: Room | None) -> list[Clash]:
    """Doors, drawers, lids, air and heat of things that have no room beside them."""
    by_id = {solid.id: solid for solid in solids}
    users = [t for t in stow.things if t.clear and t.id in by_id]
    if not users:
        return []
    holder = {solid.id: solid.inside for solid in solids}
    found = []
    for thing in users:
        turn = stand_of(thing, mode).turn
        for clear in thing.clear:
            if clear.deep.si <= TOUCH_M:
                continue
            zone = zone_of(by_id[thing.id], clear, turn)
            for other in within(solids, zone.low, zone.high):
                volume = overlap_m3(zone, other)
                if other.id != thing.id and not related(thing.id, other.id, holder) and volume > IN_THE_WAY * zone.volume_m3:
                    found.append(_swing(mode, clear.kind, thing.id, other.id, thing.name, other.name, volume))
            if room is not None and not zone.outside:
                out = zone.volume_m3 - _zone_within(zone, room)
                if out > 0.3 * zone.volume_m3 and not _through(zone, room, mode):
                    found.append(_swing(mode, clear.kind, thing.id, "shell", thing.name, "the wall", out))
    return found


def _swing(mode: Mode, kind: str, a: str, b: str, name: str, other: str, volume: float) -> Clash:
    return Clash(mode.id, "swing", a=a, b=b, a_name=f"{name} ({kind})", b_name=other, overlap_m3=volume)


def _through(zone: Solid, room: Room, mode: Mode) -> bool:
    """Whether the room that something needs lies in an open door or hatch."""
    return any(
        hole.opening.kind in ("door", "hatch")
        and hole.opening.id not in mode.shut
        and all(zone.low[k] < hole.high[k] and zone.high[k] > hole.low[k] for k in range(3))
        for hole in room.holes
    )
