"""One stick of the frame: what it is, where it stands, how it is cut at its ends and what it weighs."""

from __future__ import annotations

import math
from functools import cached_property

import msgspec
import numpy as np
from shapely.geometry import Polygon

from uncle_sled.core.materials import Material

Point2 = tuple[float, float]


class Member(msgspec.Struct, frozen=True, dict=True):
    """A stick in its face's flat coordinates [m]. ``id`` is its key: face / role / anchor."""

    id: str
    face: str  # id of the surface
    face_kind: str
    kind: str  # what a carpenter calls it here: a stud cut short by an opening is a cripple
    role: str  # in its key, the same whatever it was cut to
    anchor: str
    section_m: tuple[float, float]  # seen in the face, through the wall
    material: str
    outline: tuple[Point2, ...]
    length_m: float  # longest edge to longest edge, as it is cut from the bar
    ends_deg: tuple[float, float]  # saw turned off square
    mass_kg: float
    at_m: tuple[float, float, float]
    along_s: bool  # whether it runs along s
    by_hand: bool = False

    @cached_property
    def shape(self) -> Polygon:
        return Polygon(self.outline)


def run_of(shape: Polygon, direction: Point2) -> tuple[float, tuple[float, float]]:
    """Length along a direction [m] and how far each end is off square [degrees, signed]."""
    points = np.asarray(shape.exterior.coords)[:-1]
    long, across = points @ np.array(direction), points @ np.array([-direction[1], direction[0]])
    low, high = across.min(), across.max()
    wide = max(high - low, 1e-9)
    on_low, on_high = long[across < low + 0.25 * wide], long[across > high - 0.25 * wide]
    ends = (
        math.degrees(math.atan2(on_high.min() - on_low.min(), wide)),
        math.degrees(math.atan2(on_high.max() - on_low.max(), wide)),
    )
    return float(np.ptp(long)), (round(ends[0], 1) + 0.0, round(ends[1], 1) + 0.0)


def stick_mass_kg(shape: Polygon, deep_m: float, material: Material, fasteners: float) -> float:
    """Mass of a stick cut to a shape [kg], with its share of screws and glue."""
    return float(shape.area) * material.weight_kg_m2(deep_m) * (1 + fasteners)
