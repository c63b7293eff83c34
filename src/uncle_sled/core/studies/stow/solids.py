"""Everything aboard as solids in one mode: boxes, with a tank's true outline where it has one.

Coordinates as everywhere: x aft of the ball, y to the right, z above the ground [m].
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely import box
from shapely.affinity import affine_transform
from shapely.geometry import Polygon

from uncle_sled.core.document.placing import Stand, gone_in, stand_of
from uncle_sled.core.document.stow import Clear, Mode, Side, Stow, Thing
from uncle_sled.core.engine import by_value, from_last, keep, keep_each
from uncle_sled.core.geometry.vessel import Plane, vessel_of
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.sameness import places_changed

Floats = NDArray[np.float64]
Corner = tuple[float, float, float]
TOUCH_M = 0.002  # what overlaps less than this touches
AXES: dict[str, tuple[int, int, int]] = {"xz": (0, 2, 1), "yz": (1, 2, 0), "xy": (0, 1, 2)}
SLICES = 40
MOST_KEPT = 32768


class Solid(msgspec.Struct, frozen=True, eq=False):
    """A box, or a prism in it: ``shape`` is its outline in ``plane``. Found by identity."""

    id: str
    name: str
    low: Corner
    high: Corner
    outside: bool = False
    inside: str | None = None  # what it is built into
    plane: Plane | None = None
    shape: Polygon | None = None
    boards: bool = False  # made of boards that are cut to the body's curve and around wheel boxes

    @property
    def volume_m3(self) -> float:
        """Of its box, or of its outline over its width."""
        whole = (self.high[0] - self.low[0]) * (self.high[1] - self.low[1]) * (self.high[2] - self.low[2])
        if self.shape is None or self.plane is None:
            return whole
        a, b, _ = AXES[self.plane]
        return float(whole * self.shape.area / ((self.high[a] - self.low[a]) * (self.high[b] - self.low[b])))

    def seen(self, plane: Plane) -> Polygon:
        """Its outline in a plane."""
        if self.shape is not None and self.plane == plane:
            return self.shape
        a, b, _ = AXES[plane]
        return box(self.low[a], self.low[b], self.high[a], self.high[b])


def box_solid(id: str, name: str, low: Corner, high: Corner, outside: bool = False) -> Solid:
    """A plain box as a solid, by its low and high corners [m]."""
    return Solid(id, name, low, high, outside)


@keep("thing", by_value("stand"), most=MOST_KEPT, of="thing.id")
def _solid(thing: Thing, stand: Stand) -> Solid:
    low, high = stand.corners
    plane, shape = outline_of(thing, stand)
    return Solid(
        thing.id,
        thing.name,
        low=low,
        high=high,
        outside=thing.outside,
        inside=thing.inside,
        plane=plane,
        shape=shape,
        boards=thing.cabinet is not None,
    )


def outline_of(thing: Thing, stand: Stand) -> tuple[Plane | None, Polygon | None]:
    """A tank's outline where it stands; a box needs none."""
    return (None, None) if thing.tank is None or stand.state is not None else _outline(thing, stand)


@keep("thing", by_value("stand"), most=MOST_KEPT, of="thing.id")
def _outline(thing: Thing, stand: Stand) -> tuple[Plane | None, Polygon | None]:
    vessel = vessel_of(thing)
    if vessel is None or not vessel.sound:
        return None, None
    if len(vessel.outline) == 4 and vessel.linear:
        return None, None
    middle = (stand.x + stand.size[0] / 2, stand.y)
    quarter, half = stand.turn % 180 == 90, stand.turn in (180, 270)
    # in plan a quarter turn takes x to y and y to -x
    sign = -1.0 if half else 1.0
    shape = Polygon(vessel.outline)
    if vessel.plane == "xy":
        turned = [0.0, -sign, sign, 0.0] if quarter else [sign, 0.0, 0.0, sign]
        return "xy", affine_transform(shape, [*turned, *middle])
    if vessel.plane == "xz":
        plane: Plane = "yz" if quarter else "xz"
        along = middle[1] if quarter else middle[0]
    else:
        plane = "xz" if quarter else "yz"
        along = middle[0] if quarter else middle[1]
        sign = -sign if quarter else sign
    return plane, affine_transform(shape, [sign, 0.0, 0.0, 1.0, along, stand.z])


def sized(thing: Thing) -> bool:
    """Whether a thing takes up room."""
    return min(thing.length.si, thing.width.si, thing.height.si) > 0


def _home_solid(thing: Thing) -> Solid | None:
    return None if thing.taken_out or not sized(thing) else _solid(thing, home_of(thing))


_home_solids = keep_each(_home_solid)


@keep(most=16)
def solids_in(stow: Stow, mode: Mode) -> tuple[Solid, ...]:
    """Every thing that is there in a mode and has a size; an untouched thing keeps its solid."""
    absent, touched = gone_in(stow, mode), mode.touched
    made = list(_home_solids(stow.things))
    if touched or absent:
        for at, thing in enumerate(stow.things):
            if thing.id in absent:
                made[at] = None
            elif thing.id in touched and not thing.taken_out:
                stand = stand_of(thing, mode)
                made[at] = _solid(thing, stand) if min(stand.size) > 0 else None
    return tuple([solid for solid in made if solid is not None])


def corners_in(solids: tuple[Solid, ...]) -> Floats:
    """Lower and upper corner of each [m], shape (n, 2, 3)."""
    return np.array([(s.low, s.high) for s in solids], dtype=float).reshape(-1, 2, 3)


Cornered = tuple[tuple[Solid, ...], Floats]


def _corners_again(old: Cornered, solids: tuple[Solid, ...]) -> Cornered | None:
    """The corners with the rows of what moved laid anew; None where there are more or fewer, or most of it moved."""
    before, corners = old
    if len(before) != len(solids):
        return None
    moved = places_changed(before, solids)
    if 2 * len(moved) > len(solids):
        return None
    corners = corners.copy()
    for at in moved:
        corners[at] = solids[at].low, solids[at].high
    return solids, corners


@from_last(_corners_again)
def _cornered(solids: tuple[Solid, ...]) -> Cornered:
    return solids, corners_in(solids)


@keep(most=16)
def corners_of(solids: tuple[Solid, ...]) -> Floats:
    """The same of a mode's solids, kept."""
    return _cornered(solids)[1]


def within(solids: tuple[Solid, ...], low: Corner, high: Corner) -> list[Solid]:
    """Those whose boxes reach into a box by more than a touch."""
    corners = corners_of(solids)
    shared = np.minimum(corners[:, 1], high) - np.maximum(corners[:, 0], low)
    return [solids[int(k)] for k in np.flatnonzero((shared > TOUCH_M).all(axis=1))]


def overlap_m3(a: Solid, b: Solid) -> float:
    """Volume that two solids share [m3], 0 where they only touch.

    Exact for boxes and for two outlines in one plane; outlines in crossing planes are summed in slices.
    """
    shared = [min(a.high[k], b.high[k]) - max(a.low[k], b.low[k]) for k in range(3)]
    if min(shared) <= TOUCH_M:
        return 0.0
    if a.shape is None and b.shape is None:
        return shared[0] * shared[1] * shared[2]
    planes = {solid.plane for solid in (a, b) if solid.plane}
    if len(planes) == 1:
        plane = planes.pop()
        assert plane is not None
        return float(a.seen(plane).intersection(b.seen(plane)).area) * shared[AXES[plane][2]]
    return _crossing(a, b)


def _crossing(a: Solid, b: Solid) -> float:
    """Two prisms in different planes share one axis; their widths across it are multiplied slice by slice."""
    assert a.plane and b.plane
    axis = next(k for k in AXES[a.plane][:2] if k in AXES[b.plane][:2])
    low, high = max(a.low[axis], b.low[axis]), min(a.high[axis], b.high[axis])
    step = (high - low) / SLICES
    volume = 0.0
    for k in range(SLICES):
        at = low + (k + 0.5) * step
        widths = []
        for solid, other in ((a, b), (b, a)):
            assert solid.plane
            across = next(n for n in AXES[solid.plane][:2] if n != axis)
            widths.append(_run(solid, axis, at, across, other.low[across], other.high[across]))
        volume += widths[0] * widths[1] * step
    return volume


def _run(solid: Solid, axis: int, at: float, _across: int, low: float, high: float) -> float:
    """Length of a prism's outline at a level of an axis, within a span [m]."""
    assert solid.plane and solid.shape is not None
    first = AXES[solid.plane][0] == axis
    thin = 1e-7
    strip = box(at - thin, low, at + thin, high) if first else box(low, at - thin, high, at + thin)
    return float(solid.shape.intersection(strip).area) / (2 * thin)


_OUT: dict[Side, tuple[int, int]] = {"front": (0, -1), "rear": (0, 1), "left": (1, -1), "right": (1, 1), "top": (2, 1)}
_ROUND: tuple[Side, ...] = ("front", "left", "rear", "right")


def side_of(side: Side, turn: int) -> Side:
    """The side of the rig that a thing's side looks to after its turn: a quarter takes the front to the left."""
    return side if side == "top" else _ROUND[(_ROUND.index(side) + turn // 90) % 4]


def zone_of(solid: Solid, clear: Clear, turn: int) -> Solid:
    """The room that a thing needs beside it, as a box."""
    axis, way = _OUT[side_of(clear.side, turn)]
    low, high = list(solid.low), list(solid.high)
    if way > 0:
        low[axis], high[axis] = high[axis], high[axis] + clear.deep.si
    else:
        low[axis], high[axis] = low[axis] - clear.deep.si, low[axis]
    return box_solid(solid.id, solid.name, (low[0], low[1], low[2]), (high[0], high[1], high[2]), solid.outside)
