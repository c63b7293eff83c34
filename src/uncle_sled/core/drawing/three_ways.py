"""Space on paper to scale in three directions, from behind the left shoulder; the ball is at the left, as in the side view.

A point (x, y, z) falls on ((x + y) / sqrt 2, z sqrt(2/3) + (y - x) / sqrt 6). Source: isometric projection (any drawing text).
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.drawing.primitives import Point

VIEWER = np.array([1.0, -1.0, 1.0]) / math.sqrt(3)


def flat(at: tuple[float, float, float] | NDArray[np.float64]) -> Point:
    """A point of space on the sheet [m]."""
    x, y, z = float(at[0]), float(at[1]), float(at[2])
    return (x + y) / math.sqrt(2), z * math.sqrt(2 / 3) + (y - x) / math.sqrt(6)


def depth(at: tuple[float, float, float] | NDArray[np.float64]) -> float:
    """How near to the viewer a point is [m]; larger is nearer."""
    return float(np.dot(np.array(at), VIEWER))
