"""How does a sleeper get out: which openings are large enough, free, on their side, and not past stove or garage?

Source: 430 x 610 mm clear at least, or the local rule; two ways, one of them not through the galley or the
garage (docs/methods.md).
"""

from __future__ import annotations

import math

import msgspec
import numpy as np

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.studies.stow.beds import beds_in
from uncle_sled.core.studies.stow.room import Hole, Room, room_of
from uncle_sled.core.studies.stow.rooms import rooms_of
from uncle_sled.core.studies.stow.solids import Solid, solids_in, within

LEAST_M = (0.43, 0.61)
HOUSE_M, HOUSE_M2 = (0.508, 0.61), 0.53  # where it is lived in: a common house code's sides and clear area
BESIDE_M = 0.8  # an opening nearer than this to a stove or a vehicle goes through the galley or garage
CLIMB_M = 0.30  # how deep the way inside of an opening must be free
GRID = 24


class WayOut(msgspec.Struct, frozen=True):
    """One opening as a way out in a mode; ``why`` says what is wrong where it is none."""

    id: str
    name: str
    clear_m: tuple[float, float]
    good: bool
    through: str  # "", "galley" or "garage"
    why: str
    small: bool = False  # whether it is its size
    least_m: tuple[float, float] = LEAST_M
    least_m2: float | None = None  # clear area that a house asks for


@keep(most=12)
def ways_out(build: Build, facts: Facts, mode: Mode) -> tuple[WayOut, ...]:
    """Every opening of the body judged as a way out in a mode, good ones first."""
    room = room_of(build, facts, mode)
    if room is None:
        return ()
    solids = solids_in(build.stow, mode)
    bulkheads = [f.weight_at.si for f in build.shell.faces if f.kind == "bulkhead" and f.weight_at]
    sleepers = [bed.solid for bed in beds_in(build, facts, mode)]
    beds = [(bed.low[0] + bed.high[0]) / 2 for bed in sleepers]
    body = framed_of(build, facts).body
    rooms = rooms_of(build.shell, body, shut=False) if body is not None and build.shell.partitions else None
    shut_off = {
        hole.opening.id
        for hole in room.holes
        if rooms is not None
        and sleepers
        # just inside of the opening
        and rooms.of(*_inside_of(hole)) not in {rooms.of_solid(bed) for bed in sleepers}
    }
    things = {thing.id: thing for thing in build.stow.things}
    house = build.brief.lived_in
    made = [_judged(hole, room, solids, things, beds, bulkheads, house, hole.opening.id in shut_off) for hole in room.holes]
    return tuple(sorted(made, key=lambda way: (not way.good, way.through)))


def least_m(house: bool) -> tuple[float, float]:
    """Least sides of a way out [m]: of a camper, or of a house where it is lived in as one."""
    return HOUSE_M if house else LEAST_M


def _judged(
    hole: Hole,
    _room: Room,
    solids: tuple[Solid, ...],
    things: dict[str, Thing],
    beds: list[float],
    walls: list[float],
    house: bool = False,
    shut_off: bool = False,
) -> WayOut:
    opening = hole.opening
    wide, high = hole.clear_m
    why = ""
    least = least_m(house)
    small = min(wide, high) < least[0] - 1e-6 or max(wide, high) < least[1] - 1e-6
    low_area = house and wide * high < HOUSE_M2 - 1e-6
    if not opening.opens:
        why = "does not open"
    elif small:
        why = f"is {{{wide:.2f} × {high:.2f} m}}, and {{{least[0]:.2f} × {least[1]:.2f} m}} is the least"
    elif low_area:
        why = f"has {{{wide * high:.2f} m2}} clear, and {{{HOUSE_M2:.2f} m2}} is the least of a house"
    elif any(min(beds) < wall < hole.mid[0] or hole.mid[0] < wall < max(beds) for wall in walls) if beds else False:
        why = "lies behind the bulkhead"
    elif shut_off:
        why = "lies behind a wall without a door"
    else:
        before = _in_front(hole, solids)
        if not _climbs(hole, before):
            why = f"is blocked by {before[0].name}"
    through = "" if why else _through(hole, solids, things)
    area = HOUSE_M2 if house else None
    tight = (small or low_area) and opening.opens
    return WayOut(
        opening.id, opening.name, clear_m=hole.clear_m, good=not why, through=through, why=why, small=tight, least_m=least, least_m2=area
    )


def _inside_of(hole: Hole) -> tuple[float, float]:
    """A place in plan just inside of an opening [m]."""
    at = list(hole.mid)
    at[hole.normal] -= hole.out * CLIMB_M
    return at[0], at[1]


def _in_front(hole: Hole, solids: tuple[Solid, ...]) -> list[Solid]:
    """Things in the way right inside of an opening, nearest the middle first."""
    low, high = list(hole.low), list(hole.high)
    face = hole.mid[hole.normal]
    inner = face - hole.out * CLIMB_M
    low[hole.normal], high[hole.normal] = min(face, inner), max(face, inner)
    found = [s for s in within(solids, (low[0], low[1], low[2]), (high[0], high[1], high[2])) if not s.outside]
    return sorted(found, key=lambda s: -math.prod(min(s.high[k], high[k]) - max(s.low[k], low[k]) for k in range(3)))


def _climbs(hole: Hole, before: list[Solid]) -> bool:
    """Whether a clear 430 x 610 mm is left of an opening, upright or lying."""
    if not before:
        return True
    a, b = (k for k in range(3) if k != hole.normal)
    free = np.ones((GRID, GRID), dtype=bool)
    spans = (hole.high[a] - hole.low[a], hole.high[b] - hole.low[b])
    at = [hole.low[k] + (np.arange(GRID) + 0.5) / GRID * span for k, span in zip((a, b), spans, strict=True)]
    for solid in before:
        inside = [(x > solid.low[k]) & (x < solid.high[k]) for k, x in zip((a, b), at, strict=True)]
        free &= ~(inside[0][:, None] & inside[1][None, :])
    for sides in (LEAST_M, LEAST_M[::-1]):
        cells = [max(math.ceil(side / span * GRID - 0.5), 1) for side, span in zip(sides, spans, strict=True)]
        if cells[0] > GRID or cells[1] > GRID:
            continue
        windows = np.lib.stride_tricks.sliding_window_view(free, cells)
        if windows.all(axis=(2, 3)).any():
            return True
    return False


def is_galley(thing: Thing) -> bool:
    """A flame in the room: whatever burns and is not room-sealed."""
    return thing.burns != "none" and not thing.room_sealed


def _through(hole: Hole, solids: tuple[Solid, ...], things: dict[str, Thing]) -> str:
    for solid in solids:
        thing = things[solid.id]
        word = "garage" if thing.kind == "vehicle aboard" else "galley" if is_galley(thing) else ""
        if not word or solid.outside:
            continue
        gap = [max(solid.low[k] - hole.mid[k], hole.mid[k] - solid.high[k], 0.0) for k in (0, 1)]
        if math.hypot(*gap) < BESIDE_M:
            return word
    return ""


def second_way_missing(ways: tuple[WayOut, ...]) -> str | None:
    """What is missing of two ways out, in words; None where all is well."""
    good = [way for way in ways if way.good]
    if not good:
        return "no way out"
    if len(good) == 1:
        return f"one way out only, {good[0].name}"
    if all(way.through for way in good):
        return f"every way out goes past the {good[0].through}"
    return None
