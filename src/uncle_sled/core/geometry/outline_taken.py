"""A profile from an outline that was drawn elsewhere, simplified to a tolerance.

The outline is closed; its foot is its lowest edge. What is left from the foot's front end over the top to its rear end becomes
the profile's corners, so few that none of the outline lies further from it than the tolerance. Source: Douglas and Peucker.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray
from shapely.geometry import LineString, Polygon

from uncle_sled.core.document.shell import ProfileNode
from uncle_sled.core.errors import GeometryError

Floats = NDArray[np.float64]
MOST_NODES = 80
LEAST_M, MOST_M = 0.3, 30.0
LEVEL_SHARE = 0.02  # of the height, within which the foot lies


class OutlineTaken(msgspec.Struct, frozen=True):
    """What became of it. length_m, height_m: of its box; off_m: furthest that the outline lies from the profile; many: corners before."""

    nodes: tuple[ProfileNode, ...]
    length_m: float
    height_m: float
    off_m: float
    many: int


def taken_from(points_m: Floats, tolerance_m: float) -> OutlineTaken:
    """The profile of a closed outline, shape (n, 2), x aft and z up [m].

    Raises: GeometryError: no outline, one of no size or one that crosses itself, or too many corners are left at the tolerance.
    """
    if tolerance_m <= 0:
        raise GeometryError("A tolerance must be more than nothing; {5 mm} would be right.")
    if len(points_m) < 3 or not np.isfinite(points_m).all():
        raise GeometryError("An outline needs three points at least.")
    shape = Polygon(points_m)
    if not shape.is_valid or shape.area <= 0:
        raise GeometryError("The outline crosses itself; one closed line round the body would be right.")
    left, low, right, high = shape.bounds
    long, tall = right - left, high - low
    if not (LEAST_M <= long <= MOST_M and LEAST_M <= tall <= MOST_M):
        raise GeometryError(f"The outline is {{{long:.2f} m}} long and {{{tall:.2f} m}} high; is it drawn in other units?")
    chain = _over_the_top(np.array(shape.exterior.coords)[:-1], low + LEVEL_SHARE * tall)
    line = LineString(chain)
    simple = line.simplify(tolerance_m, preserve_topology=True)
    corners = np.array(simple.coords)
    if len(corners) > MOST_NODES:
        raise GeometryError(f"{len(corners)} corners are left; {MOST_NODES} are the most. A larger tolerance would be right.")
    off = float(max(simple.hausdorff_distance(line), 0.0))
    shares = (corners - [left, low]) / [long, tall]
    shares[0, 1] = shares[-1, 1] = 0.0  # both feet on the floor
    nodes = tuple([_corner(round(float(u), 6), round(float(v), 6)) for u, v in shares])
    return OutlineTaken(nodes, long, tall, off_m=off, many=len(chain))


def _corner(u: float, v: float) -> ProfileNode:
    return ProfileNode(u, v, in_u=u, in_v=v, out_u=u, out_v=v)


def _over_the_top(ring: Floats, foot: float) -> Floats:
    """The ring from the foot's front end over the top to its rear end. Args: foot: height under which its foot lies."""
    if Polygon(ring).exterior.is_ccw:
        ring = ring[::-1]  # clockwise, x aft and z up: over the top it runs aft
    down = np.flatnonzero(ring[:, 1] <= foot)
    front, rear = down[np.argmin(ring[down, 0])], down[np.argmax(ring[down, 0])]
    if front == rear:
        raise GeometryError("The outline stands on one point; a body has a foot.")
    turned = np.roll(ring, -int(front), axis=0)
    end = (int(rear) - int(front)) % len(ring)
    return turned[: end + 1]
