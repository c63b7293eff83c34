"""One stick of the frame: what it is, where it stands, how it is cut at its ends and what it weighs."""

from __future__ import annotations

from functools import cached_property

import msgspec
from shapely.geometry import Polygon

from uncle_sled.core.framing.pie_cuts import PieCut
from uncle_sled.core.framing.worked import Notch
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
    wall_m: float = 0.0  # of a tube; 0: solid
    channel: bool = False  # open at one side: a C and no tube
    cuts: tuple[PieCut, ...] = ()  # where a tube is sawn and folded
    notches: tuple[Notch, ...] = ()  # sawn out of it
    corners: tuple[Point2, ...] = ()  # along and across it, where an end is no straight cut
    rip_m: float | None = None  # what is left of its width, where it is ripped narrower
    strips: int = 0  # of how many strips it is glued up; 0: one stick

    @cached_property
    def shape(self) -> Polygon:
        """Its outline as a polygon of its face [m]."""
        return Polygon(self.outline)


def stick_mass_kg(
    shape: Polygon, section_m: Point2, material: Material, fasteners: float, wall_m: float = 0.0, *, channel: bool = False
) -> float:
    """Mass of a stick cut to a shape [kg], with its share of screws and glue. Args: wall_m: of a tube; 0: solid."""
    return float(shape.area) * material.weight_kg_m2(section_m[1]) * steel_share(section_m, wall_m, channel=channel) * (1 + fasteners)


def steel_share(section_m: Point2, wall_m: float, *, channel: bool = False) -> float:
    """Share of a section that is not hollow. Check a C of 40 x 100 x 1: (100 + 2 x 39) / 4000 = 0.0445."""
    wide, deep = section_m
    if wall_m <= 0 or wide <= 0 or deep <= 0:
        return 1.0
    return 1.0 - max(wide - (1 if channel else 2) * wall_m, 0.0) * max(deep - 2 * wall_m, 0.0) / (wide * deep)
