"""Where else could a thing stand: inside the body, on the floor or at its height, in nobody's way?

Elevation by Shapely (the box must lie within the inner profile), plan and height by boxes.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely import box, contains

from uncle_sled.core.document.placing import Stand, gone_in, stand_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Side, Thing
from uncle_sled.core.parts.from_stow import home_of, standing_size_m
from uncle_sled.core.parts.heights import frame_top_m
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.studies.stow.clashes import related
from uncle_sled.core.studies.stow.room import Room, floor_m
from uncle_sled.core.studies.stow.solids import TOUCH_M, side_of

STEP_M, HUNG_STEP_M = 0.02, 0.005
LONGEST_M = 30.0  # nothing on the road is longer; a body typed larger is not searched
MOST_THINGS = 600  # beyond, the search would take minutes and gigabytes


class Places(msgspec.Struct, frozen=True):
    """Candidate places of one thing: front edge, middle and underside [m], each shape (k,), and whom each stands beside."""

    thing: Thing
    x_m: Floats
    y_m: Floats
    z_m: Floats
    beside: tuple[str | None, ...]


def box_at(stand: Stand) -> Floats:
    """Lower and upper corner of a thing as it stands [m], shape (2, 3)."""
    low = np.array([stand.x, stand.y - stand.size[1] / 2, stand.z])
    return np.stack([low, low + stand.size])


def neighbours(build: Build, thing: Thing) -> list[tuple[str, Floats]]:
    """Boxes of all other things, wherever they stand in the modes in which this one stands at home.

    What is built into the thing goes along with it, and what it is built into does not stand in its way.
    """
    holder = {other.id: other.inside for other in build.stow.things}
    found: dict[tuple[str, bytes], tuple[str, Floats]] = {}
    for mode in build.stow.modes:
        if thing.id in mode.absent or thing.id in mode.touched:
            continue
        gone = gone_in(build.stow, mode)
        for other in build.stow.things:
            if other.id in gone or other.taken_out or other.id == thing.id:
                continue  # what is not there takes no room
            if not related(thing.id, other.id, holder):
                box_ = box_at(stand_of(other, mode))
                found[other.id, box_.tobytes()] = (other.id, box_)
    return list(found.values())


HEAT_MORE_M = 0.005  # over what its papers ask, so that a wall a little out is none


def heat_m(thing: Thing) -> dict[Side, float]:
    """How far a thing's sides keep off a wall for their heat, by the side of the rig that they look to [m]."""
    made: dict[Side, float] = {}
    for clear in thing.clear:
        if clear.kind == "heat":
            side = side_of(clear.side, thing.turn)
            made[side] = max(made.get(side, 0.0), clear.deep.si + HEAT_MORE_M)
    return made


def free_places(build: Build, thing: Thing, room: Room | None, keeps_clear: bool = False) -> Places:
    """Every place on a grid, and beside every other thing, where the thing stands free in every mode that has it at home.

    A thing outside stays on the drawbar, between the coupler and the body. ``keeps_clear``: also of what it stands
    in now; else that is taken as meant.
    """
    lx, ly, lz = standing_size_m(thing, thing.turn)
    own = box_at(home_of(thing))
    shell = build.shell
    inner = room.side if room else None
    floor = floor_m(build)
    front = shell.front.si if shell.front else 0.0
    others = [(id, b) for id, b in neighbours(build, thing) if keeps_clear or not boxes_meet(b, own)]
    if room is not None and not thing.outside:
        others += [(arch.id, np.array([arch.low, arch.high])) for arch in (*room.wheel_boxes, *room.walls, *room.leaves)]
    corners = np.array([b for _, b in others]).reshape(-1, 2, 3)
    hot: dict[Side, float] = {}
    if thing.outside or inner is None:
        nose = min(front if shell.form != "none" else own[1][0] + 1.0, LONGEST_M)
        xs = np.arange(max(0.35, 0.0), max(nose - lx, 0.35) + 1e-9, STEP_M) if own[0][0] < nose else np.array([thing.x.si])
        ys, zs = [thing.y.si], [thing.z.si]
        if _on_the_tail(build, own) and nose - lx > 0.35:
            # what hangs on the tail is offered the drawbar
            xs, ys, zs = np.arange(0.35, nose - lx + 1e-9, STEP_M), [0.0], [frame_top_m(build)]
    else:
        assert room is not None
        half = room.half_m
        hot = heat_m(thing)
        low, high = inner.bounds[0], inner.bounds[2]
        if high - low > LONGEST_M or max(lx, ly, lz) > LONGEST_M or len(build.stow.things) > MOST_THINGS:
            return Places(thing, np.empty(0), np.empty(0), np.empty(0), ())
        xs = np.unique(np.round(np.concatenate([np.arange(np.ceil(low / STEP_M) * STEP_M, high - lx, STEP_M), [thing.x.si]]), 4))
        ys = sorted(
            {
                round(y, 4)
                for y in (
                    thing.y.si,
                    -thing.y.si,
                    0.0,
                    -half + ly / 2,
                    half - ly / 2,
                    half - ly / 2 - hot.get("right", 0.0),
                    -half + ly / 2 + hot.get("left", 0.0),
                    *(b[0][1] - ly / 2 for _, b in others),
                    *(b[1][1] + ly / 2 for _, b in others),
                )
                if abs(y) + ly / 2 <= half + 1e-9
            }
        )
        resting = _rests(own, floor, corners)
        zs = sorted(
            {round(thing.z.si, 4)} | ({round(max(floor, thing.z.si if abs(thing.z.si - floor) < 0.03 else floor), 4)} if resting else set())
        )
        zs = sorted({*zs, *_under_the_ceiling(room, own)})
    grid = np.array([(x, y, z) for z in zs for y in ys for x in xs]).reshape(-1, 3)
    if not len(grid):
        return Places(thing, np.empty(0), np.empty(0), np.empty(0), ())
    lows = grid - [0, ly / 2, 0]
    highs = lows + [lx, ly, lz]
    both = (lows[:, None] < corners[None, :, 1] - TOUCH_M) & (highs[:, None] > corners[None, :, 0] + TOUCH_M)
    clash = np.all(both, axis=2).any(axis=1)
    good = ~clash
    if room is not None and inner is not None and not thing.outside:
        fits = stands_in(room, lows, (lx, ly, lz), hot)
        if not keeps_clear:
            fits |= np.abs(grid - [thing.x.si, thing.y.si, thing.z.si]).max(axis=1) < 1e-6
        good &= fits
        if _rests(own, floor, corners):
            good &= _rest(lows, highs, floor, corners)
    grid, lows, highs = grid[good], lows[good], highs[good]
    return Places(thing, grid[:, 0], grid[:, 1], grid[:, 2], _beside(lows, highs, others))


def stands_in(room: Room, lows: Floats, size_m: tuple[float, float, float], hot: dict[Side, float] | None = None) -> NDArray[np.bool_]:
    """Which boxes of one size lie within a room, (k,). Args: lows: their low corners [m], (k, 3); hot: what they keep off the walls [m].

    Each outline is asked once for every place along it: a grid has few of those.
    """
    hot = hot or {}
    long, wide, high = size_m
    reach, (front, rear) = room.half_m + TOUCH_M, room.span_m
    fits = (lows[:, 1] - hot.get("left", 0.0) >= -reach) & (lows[:, 1] + wide + hot.get("right", 0.0) <= reach)
    fits &= (lows[:, 0] - hot.get("front", 0.0) >= front - TOUCH_M) & (lows[:, 0] + long + hot.get("rear", 0.0) <= rear + TOUCH_M)
    for shape, a, b, run, up in ((room.side, 0, 2, long, high), (room.section, 1, 2, wide, high), (room.plan, 0, 1, long, wide)):
        if shape is None:
            continue
        places, which = np.unique(np.round(lows[:, a], 5) + 1j * np.round(lows[:, b], 5), return_inverse=True)
        left, low = places.real, places.imag
        fits &= contains(shape, box(left, low, left + run, low + up))[which]
    return np.asarray(fits)


def _under_the_ceiling(room: Room, own: Floats) -> set[float]:
    """The height at which something that stands too high would hang just under the ceiling of the road [m]; none where it does not."""
    middle, high = own.mean(axis=0), float(own[1][2] - own[0][2])
    ceiling = room.ceiling_m(float(middle[0]), float(middle[1]))
    if ceiling is None or own[1][2] <= ceiling + TOUCH_M or own[0][2] <= room.floor_m + TOUCH_M:
        return set()
    hung = np.floor((ceiling - TOUCH_M - high) / HUNG_STEP_M) * HUNG_STEP_M
    return {round(float(hung), 4)} if hung > room.floor_m else set()


def _on_the_tail(build: Build, own: Floats) -> bool:
    """Whether a box hangs behind the body's rear."""
    shell = build.shell
    if shell.form == "none" or not shell.front or not shell.length or build.rig.carrier != "ball":
        return False
    return bool(own[0][0] >= shell.front.si + shell.length.si - 0.15)


def boxes_meet(a: Floats, b: Floats) -> bool:
    """Whether two boxes, each lower and upper corner (2, 3) [m], share more than a touch."""
    return bool(((a[0] < b[1] - TOUCH_M) & (a[1] > b[0] + TOUCH_M)).all())


def _rests(own: Floats, floor_m: float, corners: Floats) -> bool:
    """Whether a box stands on the floor or with its middle on top of another thing."""
    return bool(_rest(own[:1], own[1:], floor_m, corners)[0])


def _rest(lows: Floats, highs: Floats, floor_m: float, corners: Floats) -> NDArray[np.bool_]:
    """The same of many boxes, shape (k,)."""
    on_floor = np.abs(lows[:, 2] - floor_m) < 0.03
    if not len(corners):
        return np.asarray(on_floor)
    middle = ((lows + highs) / 2)[:, None, :2]
    level = np.abs(corners[None, :, 1, 2] - lows[:, None, 2]) < 0.03
    over = (corners[None, :, 0, :2] <= middle).all(axis=2) & (corners[None, :, 1, :2] >= middle).all(axis=2)
    return np.asarray(on_floor | (level & over).any(axis=1))


def _beside(lows: Floats, highs: Floats, others: list[tuple[str, Floats]]) -> tuple[str | None, ...]:
    """The thing whose side each box touches, if any."""
    if not others or not len(lows):
        return (None,) * len(lows)
    corners = np.array([b for _, b in others])
    gap = np.maximum(corners[None, :, 0] - highs[:, None], lows[:, None] - corners[None, :, 1])
    across = (np.abs(gap[..., 1]) < 0.06) & (gap[..., 0] < -0.05)
    along = (np.abs(gap[..., 0]) < 0.06) & (gap[..., 1] < -0.05)
    touch = (gap[..., 2] < 0) & (across | along)
    first = touch.argmax(axis=1)
    return tuple(others[int(at)][0] if touch[k, at] else None for k, at in enumerate(first))
