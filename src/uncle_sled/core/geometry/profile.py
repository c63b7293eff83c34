"""The side profile as a polygon, with the areas, lengths and centres that weights hang on.

Source: shoelace formula and centroids of polylines (any geometry text). Curves are cubic
Bezier spans flattened to as many chords as keep within 0.2 mm of them: n = sqrt(|B''| / (8 t)), the usual bound of a chord.
"""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.document.presets import BOX
from uncle_sled.core.document.shell import ProfileNode, Shell
from uncle_sled.core.errors import GeometryError

CHORDS = 24  # of a span in shares, where no size is known
TRUE_M = 0.0002  # how far a chord may stand off its curve
MOST_CHORDS = 200
HAIR_M = 1e-6
CORNER_DEG = 30.0  # a chain that turns by more at one point has a corner there: no sheet goes round it
# A skin piece faces forward or aft when its outward normal is within about 37 degrees of level.
FACING = 0.8


Points = NDArray[np.float64]


class Outline(msgspec.Struct, frozen=True):
    """The body's silhouette: closed polygon [m], shape (n, 2) as (station, height), and the skin's chain.

    tail_m: station at which the roof's skin ends and that of the tail begins; None: where it turns down steeply.
    """

    polygon: Points
    skin: Points
    tail_m: float | None = None

    @property
    def area_m2(self) -> float:
        """Area of the silhouette by the shoelace formula."""
        return abs(_shoelace(self.polygon))

    @property
    def centroid(self) -> tuple[float, float]:
        """Station and height of the side's centre of area [m]."""
        p, q = self.polygon, np.roll(self.polygon, -1, axis=0)
        cross = p[:, 0] * q[:, 1] - q[:, 0] * p[:, 1]
        six_area = 3.0 * cross.sum()
        return (float(((p[:, 0] + q[:, 0]) * cross).sum() / six_area), float(((p[:, 1] + q[:, 1]) * cross).sum() / six_area))

    def chain(self, facing: str) -> Points:
        """The points of the skin that face front, rear or up, shape (n, 2); the run with most of them.

        What is cut in under the nose or tail belongs to the front or rear: walking over the roof, the skin goes forward there.
        """
        step = np.diff(self.skin, axis=0)
        length = np.hypot(step[:, 0], step[:, 1])
        forward = np.divide(step[:, 1], length, out=np.zeros_like(length), where=length > 0)
        under = step[:, 0] < -HAIR_M
        front, rear = (forward > FACING) | (under & (step[:, 1] > 0)), (forward < -FACING) | (under & (step[:, 1] <= 0))
        at = np.flatnonzero({"front": front, "rear": rear, "roof": ~(front | rear)}[facing])
        begins = self._tail() if facing != "front" else None
        if begins is not None:
            after, point = begins
            if facing == "rear":
                return np.concatenate([point, self.skin[after:]])
            return np.concatenate([self.skin[at[0] : after], point]) if len(at) else self.skin[:0]
        return self.skin[at[0] : at[-1] + 2] if len(at) else self.skin[:0]

    def _tail(self) -> tuple[int, Points] | None:
        """Where the tail was said to begin: the index of the next point of the skin, and the place, shape (1, 2)."""
        if self.tail_m is None:
            return None
        x, z = self.skin.T
        front = self.chain("front")
        begin = int(np.flatnonzero((self.skin == front[-1]).all(axis=1))[0]) if len(front) else 0
        for at in range(begin, len(x) - 1):
            if x[at] + HAIR_M < self.tail_m < x[at + 1] - HAIR_M:  # the first time the skin comes over it, walking aft
                share = (self.tail_m - x[at]) / (x[at + 1] - x[at])
                return at + 1, np.array([[self.tail_m, z[at] + share * (z[at + 1] - z[at])]])
            if at > begin and abs(x[at] - self.tail_m) <= HAIR_M:
                return at + 1, self.skin[at : at + 1]
        return None

    @property
    def tail_found(self) -> bool:
        """Whether the tail begins where it was said, or nobody said."""
        return self.tail_m is None or self._tail() is not None


def turns_along_deg(chain: Points) -> Points:
    """By how much an open chain turns at each of its inner points [deg], shape (n - 2,)."""
    ways = np.diff(chain, axis=0)
    return np.degrees(np.abs(np.diff(np.unwrap(np.arctan2(ways[:, 1], ways[:, 0])))))


def parted_at_corners(chain: Points) -> list[Points]:
    """An open chain in the runs between its corners, each with both of its ends."""
    stops = [0, *(int(at) + 1 for at in np.flatnonzero(turns_along_deg(chain) > CORNER_DEG)), len(chain) - 1]
    return [chain[a : b + 1] for a, b in itertools.pairwise(stops)]


def _shoelace(points: Points) -> float:
    nxt = np.roll(points, -1, axis=0)
    return float((points[:, 0] * nxt[:, 1] - nxt[:, 0] * points[:, 1]).sum() / 2)


def flatten(nodes: tuple[ProfileNode, ...], size_m: tuple[float, float] | None = None) -> Points:
    """The skin's chain in shares of length and height, shape (m, 2), front foot to rear foot.

    Args: size_m: length and height, so that chords keep within ``TRUE_M`` of the curve; None: 24 chords a span.
    """
    if len(nodes) < 3:
        raise GeometryError("A profile needs at least three nodes.")
    points = [np.array([[nodes[0].u, nodes[0].v]])]
    for a, b in itertools.pairwise(nodes):
        p0, p1 = np.array([a.u, a.v]), np.array([a.out_u, a.out_v])
        p2, p3 = np.array([b.in_u, b.in_v]), np.array([b.u, b.v])
        if np.allclose(p0, p1) and np.allclose(p2, p3):
            points.append(p3[None, :])
            continue
        t = np.linspace(0, 1, _chords(np.stack([p0, p1, p2, p3]), size_m) + 1)[1:, None]
        points.append((1 - t) ** 3 * p0 + 3 * (1 - t) ** 2 * t * p1 + 3 * (1 - t) * t**2 * p2 + t**3 * p3)
    return np.concatenate(points)


def _chords(of: Points, size_m: tuple[float, float] | None) -> int:
    """Chords of one span, by its greatest second derivative."""
    if size_m is None:
        return CHORDS
    bends = 6 * np.hypot(*((of[2:] - 2 * of[1:-1] + of[:-2]) * size_m).T).max()
    return min(max(math.ceil(math.sqrt(float(bends) / (8 * TRUE_M))), 2), MOST_CHORDS)


def outline(shell: Shell) -> Outline | None:
    """The silhouette of a body in metres, or None where there is none to draw yet."""
    if shell.form == "none" or not (shell.length and shell.height) or shell.length.si <= 0 or shell.height.si <= 0:
        return None
    nodes = shell.profile if shell.form == "profile" and len(shell.profile) >= 3 else BOX
    share = flatten(nodes, (shell.length.si, shell.height.si))
    front = shell.front.si if shell.front else 0.0
    floor = shell.floor.si if shell.floor else 0.0
    skin = share * [shell.length.si, shell.height.si] + [front, floor]
    tail = front + shell.tail_from.si if shell.form == "profile" and shell.tail_from is not None else None
    made = Outline(skin.copy(), skin, tail)
    return made if made.area_m2 > 1e-6 else None
