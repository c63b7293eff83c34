"""The true shape of a tank inside its box: how high it stands and where its weight sits at every level.

Every shape is a prism: an outline seen from the left (wedge, jug, own outline, cylinder across), from the
front (cylinder along) or from above (cylinder upright), swept through the box. Source: area and centroid of
a polygon below a level line (any geometry text); a circle is a polygon of 120 corners of the circle's area.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Literal

import msgspec
import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import contains_xy
from shapely.geometry import Polygon

from uncle_sled.core.document.stow import Tank, TankPoint, Thing
from uncle_sled.core.units import FIRM_STOP_G

Floats = NDArray[np.float64]
Plane = Literal["xz", "yz", "xy"]
STEPS = 96  # heights that the level is tabled at
CORNERS = 120
SHOULDER, NECK = 0.80, 0.42  # of a jug: where its shoulder begins, and how much of its length the top keeps


class Fill(msgspec.Struct, frozen=True):
    """Liquid at one level [m]: height of its surface and its centre, from the middle of the box's underside, unturned."""

    height_m: float
    dx_m: float
    dy_m: float
    dz_m: float


FLAT_M = 1e-6  # what is thinner has no inside


class Vessel(msgspec.Struct, frozen=True):
    """A tank's outside. ``outline`` [m]: across from the middle, up from the underside (or both from the middle, plane xy)."""

    plane: Plane
    outline: tuple[tuple[float, float], ...]
    size: tuple[float, float, float]
    volume_m3: float
    shares: tuple[float, ...]  # of the volume, at each tabled height
    heights: tuple[float, ...]
    along: tuple[float, ...]  # centre across the outline
    up: tuple[float, ...]

    @property
    def linear(self) -> bool:
        """Whether the centre only rises, by half the level: a box or an upright cylinder."""
        whole = self.volume_m3 >= 0.999999 * math.prod(self.size)
        return self.plane == "xy" or (len(self.outline) == 4 and whole)

    def fill(self, level: float) -> Fill:
        """Where the liquid is at a level, 0 to 1 of what the tank holds."""
        share = min(max(level, 0.0), 1.0)
        height = float(np.interp(share, self.shares, self.heights))
        off = float(np.interp(share, self.shares, self.along))
        up = float(np.interp(share, self.shares, self.up))
        return Fill(height, off if self.plane == "xz" else 0.0, off if self.plane == "yz" else 0.0, up)

    @property
    def sound(self) -> bool:
        """Whether it holds anything."""
        return self.volume_m3 > 0


def vessel_of(thing: Thing) -> Vessel | None:
    """The true shape of a tank, or None for what is none or has no size."""
    if thing.tank is None or min(thing.length.si, thing.width.si, thing.height.si) < FLAT_M:
        return None
    tank = thing.tank
    thin = tank.thin_height.si / thing.height.si if tank.thin_height else 0.5
    return _vessel(
        tank.shape,
        tank.axis,
        (tank.thin, min(max(thin, 0.0), 1.0), tank.slant),
        tank.outline,
        (thing.length.si, thing.width.si, thing.height.si),
    )


def outline_fault(tank: Tank) -> str | None:
    """What is wrong with a tank's own outline, if anything."""
    if tank.shape != "outline":
        return None
    if len(tank.outline) < 3:
        return "has fewer than three corners"
    if any(not (0 <= p.u <= 1 and 0 <= p.v <= 1) for p in tank.outline):
        return "reaches out of its own box"
    shape = Polygon([(p.u, p.v) for p in tank.outline])
    if shape.convex_hull.area < 1e-4:
        return "has no area"
    return None if shape.is_valid else "crosses itself"


@lru_cache(maxsize=512)
def _vessel(shape: str, axis: str, wedge: tuple[str, float, str], own: tuple[TankPoint, ...], size: tuple[float, float, float]) -> Vessel:
    plane, outline = _outline(shape, axis, wedge, own)
    across, high = {"xz": (size[0], size[2]), "yz": (size[1], size[2]), "xy": (size[0], size[1])}[plane]
    depth = math.prod(size) / (across * high)
    down = 0.5 if plane == "xy" else 0.0
    points = np.array([((u - 0.5) * across, (v - down) * high) for u, v in outline])
    area = Polygon(points).area
    if plane == "xy":
        shares, heights, along, up = _evenly(size[2])
    else:
        shares, heights, along, up = _tabled(points)
    return Vessel(
        plane,
        tuple((float(x), float(y)) for x, y in points),
        size=size,
        volume_m3=area * depth,
        shares=tuple(shares),
        heights=tuple(heights),
        along=tuple(along),
        up=tuple(up),
    )


def _outline(shape: str, axis: str, wedge: tuple[str, float, str], own: tuple[TankPoint, ...]) -> tuple[Plane, list[tuple[float, float]]]:
    """The outline in shares of its box, and the plane it is seen in."""
    square = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]
    if shape == "cylinder":
        turn = 2 * math.pi / CORNERS
        # a polygon of the circle's area, so that the volume is right and not a little small
        radius = 0.5 * math.sqrt(2 * math.pi / (CORNERS * math.sin(turn)))
        round_ = [(0.5 + radius * math.cos((k + 0.5) * turn), 0.5 + radius * math.sin((k + 0.5) * turn)) for k in range(CORNERS)]
        planes: dict[str, Plane] = {"along": "yz", "across": "xz", "upright": "xy"}
        return planes[axis], round_
    if shape == "wedge":
        thin, share, slant = wedge
        front, rear = (share, 1.0) if thin == "front" else (1.0, share)
        if slant == "top":
            return "xz", [(0.0, 0.0), (1.0, 0.0), (1.0, rear), (0.0, front)]
        return "xz", [(0.0, 1.0 - front), (1.0, 1.0 - rear), (1.0, 1.0), (0.0, 1.0)]
    if shape == "jug":
        side = (1 - NECK) / 2
        return "xz", [(0.0, 0.0), (1.0, 0.0), (1.0, SHOULDER), (1 - side, 1.0), (side, 1.0), (0.0, SHOULDER)]
    if shape == "outline" and len(own) >= 3:
        corners = [(p.u, p.v) for p in own]
        shape_ = Polygon(corners)
        if shape_.is_valid and shape_.area >= 1e-4:
            return "xz", corners
    return "xz", square


def _evenly(high: float) -> tuple[list[float], ...]:
    return [0.0, 1.0], [0.0, high], [0.0, 0.0], [0.0, high / 2]


def _tabled(points: Floats) -> tuple[list[float], ...]:
    """Share of the area, height, centre across and centre up, from empty to full."""
    whole = Polygon(points)
    left, low, right, high = whole.bounds
    every = np.round(np.concatenate([np.linspace(low, high, STEPS + 1), points[:, 1]]), 9)
    steps = np.array(sorted(set(every.tolist())))  # np.unique would load numpy.ma before the first reading
    parts = shapely.intersection(whole, shapely.box(left - 1, low - 1, right + 1, steps[1:]))
    share = shapely.area(parts) / whole.area
    centre = shapely.centroid(parts)
    # what adds nothing (a step within rounding) would make the table ambiguous
    rising = np.concatenate([[True], np.diff(share) > 1e-12]) & (share > 1e-12)
    along, up = shapely.get_x(centre)[rising].tolist(), shapely.get_y(centre)[rising].tolist()
    first = float(steps[0])
    return [0.0, *share[rising].tolist()], [first, *steps[1:][rising].tolist()], [along[0], *along], [first, *up]


def surge_m(vessel: Vessel, level: float, tilt: float = FIRM_STOP_G, turn: int = 0) -> float:
    """How far forward the liquid's centre goes in a stop of ``tilt`` g [m], at least 0, along the rig.

    The surface leans by the angle whose tangent is ``tilt``: of the points inside, the share that lies lowest
    under the leaning surface is wet. Source: hydrostatics under steady acceleration (any fluids text).
    """
    if not 0.0 < level < 1.0:
        return 0.0
    points = _points(vessel)
    # a quarter turn lays the width along the rig; half a turn lets the rear lead
    ahead = {0: points[:, 0], 90: -points[:, 1], 180: -points[:, 0], 270: points[:, 1]}[turn % 360]
    many = max(round(level * len(points)), 1)
    still = np.argpartition(points[:, 2], many - 1)[:many]
    leaning = np.argpartition(points[:, 2] + tilt * ahead, many - 1)[:many]
    return max(float(ahead[still].mean() - ahead[leaning].mean()), 0.0)


@lru_cache(maxsize=64)
def _points(vessel: Vessel) -> Floats:
    """Points spread evenly inside, shape (n, 3), from the middle of the underside."""
    share = (np.arange(20) + 0.5) / 20
    grid = [(share - from_) * side for from_, side in zip((0.5, 0.5, 0.0), vessel.size, strict=True)]
    x, y, z = (axis.ravel() for axis in np.meshgrid(*grid, indexing="ij"))
    flat = {"xz": (x, z), "yz": (y, z), "xy": (x, y)}[vessel.plane]
    inside = contains_xy(Polygon(vessel.outline), *flat)
    return np.asarray(np.stack([x, y, z], axis=1)[inside])


def gauge_marks(vessel: Vessel, volume_m3: float, step_m3: float) -> tuple[tuple[float, float], ...]:
    """Marks for a gauge stuck to the tank: (volume [m3], height above its underside [m]), up to full."""
    if volume_m3 <= 0 or step_m3 <= 0 or volume_m3 / step_m3 > 500:
        return ()
    marks = [k * step_m3 for k in range(1, math.floor(volume_m3 / step_m3 + 1e-9) + 1)]
    if not marks or marks[-1] < volume_m3 - 1e-9:
        marks.append(volume_m3)
    return tuple((mark, vessel.fill(mark / volume_m3).height_m) for mark in marks)
