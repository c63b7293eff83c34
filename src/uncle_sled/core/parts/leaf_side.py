"""A door or hatch as it is cut into its face, seen from its side: from its hinge to its free edge, and whether it goes round a curve.

On a face that bends, hinges at its top or foot lie straight across the body; at its front or rear they would lie on the curve.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.engine import by_value, keep
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.profile import turns_along_deg
from uncle_sled.core.geometry.surfaces import Surface, lengths

SLOPING = 0.3  # outward share of x over which a hatch opens fore or aft and not over its hinge
STRAIGHT_DEG = 3.0  # a leaf that turns by less over its whole length is made flat
Point = tuple[float, float]


class LeafSide(msgspec.Struct, frozen=True):
    """outline: the shut leaf's outside from its hinge, x the way it opens, z up [m]; turn_deg: by how much it bends in all.

    hinge_bends: its hinges would lie along the curve.
    """

    outline: tuple[Point, ...]
    turn_deg: float = 0.0
    hinge_bends: bool = False

    @property
    def bent(self) -> bool:
        """Whether it has to be made round."""
        return self.turn_deg > STRAIGHT_DEG


@keep("framed.body", "framed.cuts", by_value("opening"), most=24)
def leaf_side(framed: Framed, opening: Opening) -> LeafSide | None:
    """The side of an opening's leaf; None where it is not cut into any face."""
    cut = next((c for c in framed.cuts if c.id == opening.id and c.good), None)
    if cut is None or framed.body is None:
        return None
    surface = next(face for face in framed.body.surfaces if face.id == cut.surface)
    s0, t0, s1, t1 = cut.shape.bounds
    if surface.chain is None:
        foot, head = surface.place((s0 + s1) / 2, t0), surface.place((s0 + s1) / 2, t1)
        long = math.dist(foot, head)
        slope = math.asin(min(max((head[2] - foot[2]) / max(long, 1e-9), -1.0), 1.0))
        out = math.copysign(1.0, -surface.inward[2]) if abs(surface.inward[2]) > 1e-6 else 1.0
        return LeafSide(((0.0, 0.0), (long * math.cos(slope) * out if out > 0 else 0.0, -long * math.sin(slope))))
    points = _chain(surface, s0, s1)
    if points[0][1] < points[-1][1]:
        points.reverse()  # its hinge is at the higher end
    hinge = points[0]
    outer, inner = (surface.place((s0 + s1) / 2, (t0 + t1) / 2, deep) for deep in (0.0, 0.01))
    outward = (outer[0] - inner[0]) / 0.01
    sign = math.copysign(1.0, outward) if abs(outward) > SLOPING else math.copysign(1.0, points[-1][0] - hinge[0])
    outline = tuple(((x - hinge[0]) * sign, z - hinge[1]) for x, z in points)
    return LeafSide(outline, float(turns_along_deg(np.array(outline)).sum()), opening.hung in ("front", "rear", "pair"))


def _chain(surface: Surface, s0: float, s1: float) -> list[Point]:
    assert surface.chain is not None
    runs = lengths(surface.chain)
    at = [s0, *(float(r) for r in runs if s0 + 1e-9 < r < s1 - 1e-9), s1]
    return [(float(np.interp(r, runs, surface.chain[:, 0])), float(np.interp(r, runs, surface.chain[:, 1]))) for r in at]
