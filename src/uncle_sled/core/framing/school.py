"""A school of framing: its usual sizes as data, and the module that frames a face by it."""

from __future__ import annotations

from collections.abc import Callable

import msgspec

from uncle_sled.core.document.shell import Framing, Section
from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.member import Point2


class Sizes(msgspec.Struct, frozen=True):
    """Everything that a school asks for [m]: pitches, sections (seen, through the wall), sheets."""

    pitch: float
    rib_pitch: float
    stick: Point2
    rib: Point2
    joist: Point2
    sheet_width: float
    sheet_length: float
    side_thick: float  # of a cut side that the ribs stand between; 0 where they lie over the walls


class Hole(msgspec.Struct, frozen=True):
    """What a face is framed around: an opening or a wheel box, with its rectangle [m]."""

    id: str
    kind: str
    left: float
    low: float
    right: float
    high: float


FaceFramer = Callable[[Cutter, Sizes, list[Hole]], None]


class SchoolOf(msgspec.Struct, frozen=True):
    """One school. ``wall`` frames sides and plumb ends, ``ribs`` floors, roofs and swept skins."""

    name: str
    says: str
    sizes: Sizes
    imperial: Sizes
    wall: FaceFramer
    ribs: FaceFramer
    forms: tuple[str, ...]  # of the body, that can be built in it
    feet: bool  # whether walls stand on the floor's edge, else beside it


def sizes_for(school: SchoolOf, framing: Framing, imperial: bool) -> Sizes:
    """The school's sizes with what was typed in their place."""
    usual = school.imperial if imperial else school.sizes

    def pair(section: Section | None, other: Point2) -> Point2:
        return (section.thick.si, section.deep.si) if section else other

    return Sizes(
        framing.pitch.si if framing.pitch else usual.pitch,
        framing.pitch.si if framing.pitch else usual.rib_pitch,
        pair(framing.stick, usual.stick),
        pair(framing.rib, usual.rib),
        pair(framing.joist, usual.joist),
        framing.sheet_width.si if framing.sheet_width else usual.sheet_width,
        framing.sheet_length.si if framing.sheet_length else usual.sheet_length,
        usual.side_thick,
    )
