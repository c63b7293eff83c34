"""What stands in what, mode by mode: things, the body's walls and curve, wheel boxes, sticks, openings, swings.

Pairs are found by their boxes and measured by their true outlines; an STRtree over the plan keeps thousands
of things quick, and a mode of which one thing moved is only searched again around that thing.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from shapely import STRtree, box, contains
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Stow
from uncle_sled.core.engine import keep_last
from uncle_sled.core.studies.room import Hole, Room, room_of
from uncle_sled.core.studies.solids import TOUCH_M, Solid, corners_of, overlap_m3, solids_in, within, zone_of

Kind = Literal["things", "body", "outside", "wheel box", "stick", "opening", "swing"]
LEAST_M3 = 1e-6
COVERED = {"door": 0.35, "window": 0.2, "vent": 0.2, "hatch": 0.35}  # share of an opening that may be hidden
POKES = 0.15  # of what stands outside: a flat panel may lie on a curved roof
AROUND = 6  # moved things up to which only their surroundings are searched again
IN_THE_WAY = 0.05  # of a swing's room


@dataclass(frozen=True, slots=True)
class Clash:
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
    room = room_of(build, facts)
    used = modes_in_use(build)
    return {
        mode.id: _in_mode(build.stow, mode, room, mode.id in used)
        for mode in build.stow.modes
        if only in (None, mode.id)
    }


def modes_in_use(build: Build) -> frozenset[str]:
    """Modes in which doors are opened and drawers pulled: the standing ones, or the first where there is none."""
    standing = frozenset(mode.id for mode in build.stow.modes if not mode.towing)
    return standing or frozenset(mode.id for mode in build.stow.modes[:1])


@keep_last(24)
def _in_mode(stow: Stow, mode: Mode, room: Room | None, in_use: bool) -> tuple[Clash, ...]:
    solids = solids_in(stow, mode)
    memo = _searched(mode, solids, room)
    found = [*memo.pairs.values(), *(one for of in memo.walls.values() for one in of)]
    if in_use:
        found += _swings(stow, mode, solids, room)
        for hole in room.holes if room is not None else ():
            found += _before(hole, solids, mode)
    return tuple(sorted(found, key=lambda c: (not c.solid, -round(c.overlap_m3, 9), c.a, c.b)))


# things against things and walls, searched again only around what moved --------------------------------------
Pairs = dict[tuple[int, int], Clash]


@dataclass(frozen=True)
class _Memo:
    """What the last search of a mode found, by the places of the solids in their list."""

    solids: tuple[Solid, ...]
    room: Room | None
    towing: bool
    pairs: Pairs
    walls: dict[int, tuple[Clash, ...]]


_LAST: dict[str, _Memo] = {}


def _searched(mode: Mode, solids: tuple[Solid, ...], room: Room | None) -> _Memo:
    old = _LAST.get(mode.id)
    moved = None
    if old is not None and len(old.solids) == len(solids) and old.room is room and old.towing == mode.towing:
        moved = [k for k, (a, b) in enumerate(zip(old.solids, solids, strict=True)) if a is not b]
    if old is not None and moved is not None and len(moved) <= AROUND:
        made = _around(old, mode, solids, room, moved)
    else:
        made = _Memo(solids, room, mode.towing, _pairs(mode.id, solids), _walls(mode, solids, room, range(len(solids))))
    _LAST.pop(mode.id, None)
    _LAST[mode.id] = made
    while len(_LAST) > 16:
        del _LAST[next(iter(_LAST))]
    return made


def _around(old: _Memo, mode: Mode, solids: tuple[Solid, ...], room: Room | None, moved: list[int]) -> _Memo:
    gone = set(moved)
    pairs = {key: one for key, one in old.pairs.items() if not gone & set(key)}
    corners = corners_of(solids)
    for k in moved:
        near = (corners[:, 1] > corners[k, 0] + TOUCH_M) & (corners[:, 0] < corners[k, 1] - TOUCH_M)
        _measure(
            mode.id,
            solids,
            [(min(k, j), max(k, j)) for j in np.flatnonzero(near.all(axis=1)).tolist() if j != k],
            pairs,
        )
    walls = {k: of for k, of in old.walls.items() if k not in gone} | _walls(mode, solids, room, moved)
    return _Memo(solids, room, mode.towing, pairs, walls)


def _walls(
    mode: Mode, solids: tuple[Solid, ...], room: Room | None, which: Iterable[int]
) -> dict[int, tuple[Clash, ...]]:
    if room is None:
        return {}
    found = {k: _in_body(solids[k], room, not mode.towing) for k in which}
    return {k: tuple(replace(one, mode=mode.id) for one in of) for k, of in found.items() if of}


def _pairs(mode: str, solids: tuple[Solid, ...]) -> Pairs:
    """Every pair whose boxes overlap, measured."""
    corners = corners_of(solids)
    hits: Pairs = {}
    if len(solids) > 1:
        plan = box(corners[:, 0, 0], corners[:, 0, 1], corners[:, 1, 0], corners[:, 1, 1])
        one, other = STRtree(plan).query(plan)
        both = (one < other) & (
            np.minimum(corners[one, 1], corners[other, 1]) - np.maximum(corners[one, 0], corners[other, 0]) > TOUCH_M
        ).all(axis=1)
        _measure(mode, solids, list(zip(one[both].tolist(), other[both].tolist(), strict=True)), hits)
    return hits


def _measure(mode: str, solids: tuple[Solid, ...], pairs: list[tuple[int, int]], hits: Pairs) -> None:
    holder = {s.id: s.inside for s in solids} if pairs else {}
    for i, j in pairs:
        a, b = solids[i], solids[j]
        if (i, j) in hits or related(a.id, b.id, holder):
            continue
        volume = overlap_m3(a, b)
        if volume > LEAST_M3:
            hits[i, j] = Clash(mode, "things", a.id, b.id, a.name, b.name, volume, _apart_m(a, b))


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


# things against the body ---------------------------------------------------------------------------------
def _in_body(solid: Solid, room: Room, standing: bool) -> tuple[Clash, ...]:
    """What one solid meets of the body: wall and curve, wheel boxes, sticks; from outside, the body itself.

    While it stands, things are set up around the body.
    """
    if solid.low[2] < -TOUCH_M:
        return (Clash("", "body", solid.id, "ground", solid.name, "the ground", solid.volume_m3, -solid.low[2]),)
    if solid.outside:
        inside = _within(solid, room.outer, room.outer_section, room.outer_half_m)
        if inside > POKES * solid.volume_m3:
            return (Clash("", "outside", solid.id, "shell", solid.name, "the body", inside),)
        return ()
    if standing and _drawn_out(solid, room):
        return ()
    if standing and _within(solid, room.outer, room.outer_section, room.outer_half_m) < TOUCH_M * solid.volume_m3:
        return ()
    found = []
    low, high = solid.low, solid.high
    clear = (
        abs(low[1]) <= room.half_m + TOUCH_M
        and abs(high[1]) <= room.half_m + TOUCH_M
        and contains(room.side, solid.seen("xz"))
        and (room.section is None or contains(room.section, solid.seen("yz")))
    )
    if not clear:
        out = solid.volume_m3 - _within(solid, room.side, room.section, room.half_m + TOUCH_M)
        if out > LEAST_M3:
            by = _out_by_m(solid, room)
            found.append(Clash("", "body", solid.id, "shell", solid.name, "the wall or roof", out, by))
    for wheel in room.wheel_boxes:
        volume = overlap_m3(solid, wheel)
        if volume > LEAST_M3:
            found.append(
                Clash("", "wheel box", solid.id, wheel.id, solid.name, wheel.name, volume, _apart_m(solid, wheel))
            )
    for at in room.stick_tree.query(box(low[0], low[1], high[0], high[1])) if room.sticks else ():
        stick = room.sticks[int(at)]
        volume = overlap_m3(solid, stick)
        if volume > LEAST_M3:
            found.append(Clash("", "stick", solid.id, stick.id, solid.name, stick.name, volume, _apart_m(solid, stick)))
    return tuple(found)


def _drawn_out(solid: Solid, room: Room) -> bool:
    """Whether it stands in an open door or hatch with room all round: a slide pulled out."""
    return any(
        hole.opening.kind in ("door", "hatch")
        and solid.low[hole.normal] < hole.high[hole.normal]
        and solid.high[hole.normal] > hole.low[hole.normal]
        and all(
            solid.low[k] >= hole.low[k] - TOUCH_M and solid.high[k] <= hole.high[k] + TOUCH_M
            for k in range(3)
            if k != hole.normal
        )
        for hole in room.holes
    )


def _within(solid: Solid, side: BaseGeometry, section: BaseGeometry | None, half_m: float) -> float:
    """Volume of a solid that lies within an outline seen from the side, and in a section or between two walls [m3].

    Exact unless it crosses both outlines at once; there the two shares are multiplied.
    """
    volume = solid.volume_m3
    elevation = solid.seen("xz")
    share = elevation.intersection(side).area / max(elevation.area, 1e-12)
    across: Polygon = solid.seen("yz")
    wall = section if section is not None else box(-half_m, -1e3, half_m, 1e3)
    return float(volume * share * across.intersection(wall).area / max(across.area, 1e-12))


def _out_by_m(solid: Solid, room: Room) -> float:
    """How far a solid reaches over the inside at most, by its own box [m]."""
    over = solid.seen("xz").difference(room.side)
    sides = [0.0] if over.is_empty else [min(over.bounds[2] - over.bounds[0], over.bounds[3] - over.bounds[1])]
    sides.append(max(abs(solid.low[1]), abs(solid.high[1])) - room.half_m)
    if room.section is not None:
        over = solid.seen("yz").difference(room.section)
        if not over.is_empty:
            sides.append(min(over.bounds[2] - over.bounds[0], over.bounds[3] - over.bounds[1]))
    return max(sides)


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
            found.append(Clash(mode.id, "opening", solid.id, hole.opening.id, solid.name, name, volume, min(shared)))
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
                if (
                    other.id != thing.id
                    and not related(thing.id, other.id, holder)
                    and volume > IN_THE_WAY * zone.volume_m3
                ):
                    found.append(_swing(mode, clear.kind, thing.id, other.id, thing.name, other.name, volume))
            if room is not None and not zone.outside:
                out = zone.volume_m3 - _within(zone, room.side, room.section, room.half_m + TOUCH_M)
                if out > 0.3 * zone.volume_m3 and not _through(zone, room, mode):
                    found.append(_swing(mode, clear.kind, thing.id, "shell", thing.name, "the wall", out))
    return found


def _swing(mode: Mode, kind: str, a: str, b: str, name: str, other: str, volume: float) -> Clash:
    return Clash(mode.id, "swing", a, b, f"{name} ({kind})", other, volume)


def _through(zone: Solid, room: Room, mode: Mode) -> bool:
    """Whether the room that something needs lies in an open door or hatch."""
    return any(
        hole.opening.kind in ("door", "hatch")
        and hole.opening.id not in mode.shut
        and all(zone.low[k] < hole.high[k] and zone.high[k] > hole.low[k] for k in range(3))
        for hole in room.holes
    )
