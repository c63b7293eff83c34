"""A school of framing: its usual sizes as data, and the module that frames a face by it."""

from __future__ import annotations

from collections.abc import Callable

import msgspec
from msgspec.structs import replace
from shapely.geometry import Polygon

from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Framing, Section, Survey
from uncle_sled.core.framing.cutter import Cutter
from uncle_sled.core.framing.member import Point2
from uncle_sled.core.materials import Material


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
    wall: float = 0.0  # of a tube; 0: solid
    channel: bool = False  # open at one side: a C and no tube
    tolerance: float = 0.001  # folds of a tube stand proud of their curve by no more
    strip: float = 0.0  # thickness of the strips that a rib is glued up of; 0: by its tightest radius
    first: float = 0.0  # middle of the first upright and the first rib from the front end, as surveyed; 0: by the pitch
    rib_first: float = 0.0


class Hole(msgspec.Struct, frozen=True):
    """What a face is framed around: an opening or a wheel box, with its rectangle [m]."""

    id: str
    kind: str
    left: float
    low: float
    right: float
    high: float


FaceFramer = Callable[[Cutter, Sizes, list[Hole]], None]
# Why an opening cannot be cut into a wall, given the wall, the sizes and the other openings in it; nothing where it can.
Refuser = Callable[[Polygon, Polygon, Sizes, list[Polygon]], str]


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
    material: Material | None = None  # of the maker's own; else as chosen
    refuses: Refuser | None = None
    whole_sides: bool = False  # the frames of the sides reach to the skins, and ribs lie between them


def sizes_for(school: SchoolOf, framing: Framing, imperial: bool) -> Sizes:
    """The school's sizes with what was typed in their place."""
    usual = school.imperial if imperial else school.sizes

    def pair(section: Section | None, other: Point2) -> Point2:
        return (section.thick.si, section.deep.si) if section else other

    stick = pair(framing.stick, usual.stick)
    return Sizes(
        framing.pitch.si if framing.pitch else usual.pitch,
        framing.pitch.si if framing.pitch else usual.rib_pitch,
        stick=stick,
        rib=pair(framing.rib, usual.rib),
        joist=pair(framing.joist, usual.joist),
        sheet_width=framing.sheet_width.si if framing.sheet_width else usual.sheet_width,
        sheet_length=framing.sheet_length.si if framing.sheet_length else usual.sheet_length,
        side_thick=stick[1] if school.whole_sides else usual.side_thick,
        channel=usual.channel,
        wall=(framing.tube_wall.si if framing.tube_wall else usual.wall) if usual.wall else 0.0,
        tolerance=framing.fold_tolerance.si if framing.fold_tolerance else usual.tolerance,
        strip=framing.strip.si if framing.strip else 0.0,
    )


def surveyed(sizes: Sizes, framing: Framing, survey: Survey | None) -> Sizes:
    """The sizes of a bought shell as measured; what was typed in the framing still wins."""
    if survey is None:
        return sizes

    def si(value: Length | None, other: float) -> float:
        return value.si if value is not None and value.si > 0 else other

    stick = (si(survey.post_width, sizes.stick[0]), si(survey.post_depth, sizes.stick[1]))
    rib = (si(survey.post_width, sizes.rib[0]), si(survey.bow_depth, sizes.rib[1]))
    return replace(
        sizes,
        pitch=sizes.pitch if framing.pitch else si(survey.post_pitch, sizes.pitch),
        rib_pitch=sizes.rib_pitch if framing.pitch else si(survey.bow_pitch, sizes.rib_pitch),
        stick=sizes.stick if framing.stick else stick,
        rib=sizes.rib if framing.rib else rib,
        first=si(survey.post_first, 0.0),
        rib_first=si(survey.bow_first, 0.0),
    )
