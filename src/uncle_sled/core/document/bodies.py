"""Bodies that a build may begin as: their form, how they are usually built and sized, and what is usually cut into them.

Each size is one that sheets give where it is sold: 1.22 m or 4 ft and their multiples. Layers and sections are those of the
schools' notes. All of it can be changed later.
"""

from __future__ import annotations

from typing import Literal

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Form, Framing, Layer, Opening, OpeningKind, School, Seal, Section, WheelBoxes
from uncle_sled.core.units import FOOT_M, INCH_M

BodyKind = Literal["teardrop", "bought trailer", "gable house", "shed house", "box on a bed", "square-fronted", "strip-ribbed"]
Rows = tuple[tuple[str, float, float, float], ...]  # material, thickness [mm], the same in inches, share of sticks in it


class Hole(msgspec.Struct, frozen=True):
    """What is usually cut in. share: where along its face its middle stands; up_m, wide_m, high_m: as an opening's."""

    kind: OpeningKind
    name: str
    face: Literal["left side", "right side", "roof", "front", "rear"]
    share: float
    up_m: float
    wide_m: float
    high_m: float
    hung: Literal["", "front", "rear", "top", "bottom", "pair"] = ""


class StartBody(msgspec.Struct, frozen=True):
    """One of them. sizes_m: length, width, height, and the height of its low edge (0: none); feet: the same [ft].

    sticks_mm, sticks_in: section of stick, rafter and joist; none: the school's own.
    """

    kind: BodyKind
    says: str
    about: str
    form: Form
    school: School
    sizes_m: tuple[float, float, float, float]
    feet: tuple[float, float, float, float]
    frame_kg_m: float  # of its chassis, per metre of its length: a guess
    preset: str = ""
    floor: Rows = ()
    walls: Rows = ()
    roof: Rows = ()
    sticks_mm: tuple[tuple[float, float], ...] = ()
    sticks_in: tuple[tuple[float, float], ...] = ()
    holes: tuple[Hole, ...] = ()
    wheel_boxes: bool = False
    deck_m: float = 0.5  # top of its frame over the ground


PLY_FLOOR: Rows = (("light-ply", 4, 0.16, 0), ("xps", 30, 1.5, 0.12), ("light-ply", 9, 0.375, 0))
CUT_SIDE: Rows = (("light-ply", 15, 0.625, 0), ("xps", 25, 1.0, 0.15), ("light-ply", 3, 0.125, 0))
CURVED: Rows = (("light-ply", 3, 0.125, 0), ("light-ply", 3, 0.125, 0), ("xps", 25, 1.0, 0.15), ("light-ply", 3, 0.125, 0))
RIBBED: Rows = (("light-ply", 3, 0.125, 0), ("light-ply", 3, 0.125, 0), ("xps", 40, 1.5, 0.15), ("light-ply", 3, 0.125, 0))
ALU_WALL: Rows = (("aluminium", 1, 0.04, 0), ("xps", 45, 1.5, 0.15), ("light-ply", 4, 0.16, 0))
BOX_FLOOR: Rows = (("softwood-ply", 9, 0.375, 0), ("xps", 45, 1.5, 0.12), ("softwood-ply", 12, 0.5, 0))
LAMINATE: Rows = (("grp", 1.5, 0.06, 0), ("pir", 30, 1.18, 0), ("grp", 1.5, 0.06, 0))
LAMINATE_FLOOR: Rows = (("grp", 1.5, 0.06, 0), ("pir", 40, 1.575, 0), ("birch-ply", 9, 0.375, 0))
HOUSE_FLOOR: Rows = (("profiled-steel", 0.5, 0.02, 0), ("pir", 95, 3.5, 0.12), ("softwood-ply", 18, 0.75, 0))
HOUSE_WALL: Rows = (
    ("board-siding", 18, 0.75, 0),
    ("membrane", 0, 0, 0),
    ("softwood-ply", 9, 0.375, 0),
    ("mineral-wool", 95, 3.5, 0.15),
    ("softwood-ply", 9, 0.375, 0),
)
HOUSE_ROOF: Rows = (
    ("profiled-steel", 0.5, 0.02, 0),
    ("membrane", 0, 0, 0),
    ("softwood-ply", 12, 0.5, 0),
    ("mineral-wool", 145, 5.5, 0.12),
    ("softwood-ply", 9, 0.375, 0),
)
HOUSE_MM, HOUSE_IN = ((45.0, 95.0), (45.0, 145.0), (45.0, 95.0)), ((1.5, 3.5), (1.5, 5.5), (1.5, 3.5))
BOX_MM, BOX_IN = ((45.0, 45.0),) * 3, ((1.5, 1.5),) * 3
DOOR, WIDE_WINDOW, WINDOW, VENT = (0.62, 1.05), (0.9, 0.6), (0.6, 0.4), (0.4, 0.4)

GABLE_HOUSE = StartBody(
    "gable house",
    "House, two slopes",
    "stands on two axles or three, with a loft under its ridge",
    "gable",
    "stick timber",
    (6.0, 2.44, 3.2, 2.44),
    (20.0, 8.0, 10.5, 8.0),
    frame_kg_m=95.0,
    floor=HOUSE_FLOOR,
    walls=HOUSE_WALL,
    roof=HOUSE_ROOF,
    sticks_mm=HOUSE_MM,
    sticks_in=HOUSE_IN,
    wheel_boxes=True,
    deck_m=0.6,
    holes=(
        Hole("door", "Front door", "left side", 0.3, 0.14, 0.82, 1.95, "front"),
        Hole("window", "Kitchen window", "right side", 0.3, 1.1, 1.2, 0.9),
        Hole("window", "Table window", "left side", 0.8, 0.9, 0.9, 1.05),
        Hole("window", "Loft window", "rear", 0.5, 2.2, 0.7, 0.5),
    ),
)
SHED_HOUSE = replace(  # the same house under another roof
    GABLE_HOUSE,
    kind="shed house",
    says="House, one slope",
    about="one roof that falls to its rear, or to a side",
    form="shed",
    sizes_m=(6.0, 2.44, 3.05, 2.44),
    feet=(20.0, 8.0, 10.0, 8.0),
    holes=(*GABLE_HOUSE.holes[:-1], Hole("window", "Bed window", "rear", 0.5, 1.0, 0.9, 0.6)),
)

BODIES: tuple[StartBody, ...] = (
    StartBody(
        "teardrop",
        "Teardrop",
        "low and round, a kitchen under a lid at its tail",
        "profile",
        "cut plywood sides",
        (3.05, 1.6, 1.22, 0.0),
        (10.0, 5.0, 4.0, 0.0),
        frame_kg_m=24.0,
        preset="round nose, straight tail",
        floor=PLY_FLOOR,
        walls=CUT_SIDE,
        roof=CURVED,
        holes=(
            Hole("door", "Door", "left side", 0.42, 0.12, 0.65, 0.85, "front"),
            Hole("door", "Other door", "right side", 0.42, 0.12, 0.65, 0.85, "front"),
            Hole("vent", "Roof vent", "roof", 0.45, 0.6, *VENT),
        ),
    ),
    StartBody(
        "bought trailer",
        "Bought trailer",
        "a cargo trailer that is there, relined and fitted out; it starts from its weighing",
        "box",
        "bought shell",
        (3.6, 1.8, 1.9, 0.0),
        (12.0, 6.0, 6.25, 0.0),
        frame_kg_m=0.0,
        holes=(
            Hole("door", "Side door", "right side", 0.2, 0.05, 0.75, 1.65, "front"),
            Hole("door", "Rear doors", "rear", 0.5, 0.05, 1.5, 1.65, "pair"),
        ),
    ),
    GABLE_HOUSE,
    SHED_HOUSE,
    StartBody(
        "box on a bed",
        "Box on a truck",
        "stands on a bed or a frame of a vehicle and can come off",
        "box",
        "sandwich panels",
        (2.44, 1.83, 1.83, 0.0),
        (8.0, 6.0, 6.0, 0.0),
        frame_kg_m=0.0,
        floor=LAMINATE_FLOOR,
        walls=LAMINATE,
        roof=LAMINATE,
        holes=(
            Hole("door", "Door", "rear", 0.5, 0.08, 0.65, 1.6, "front"),
            Hole("window", "Window", "left side", 0.6, 0.9, *WIDE_WINDOW),
            Hole("vent", "Roof vent", "roof", 0.5, 0.7, *VENT),
        ),
    ),
    StartBody(
        "square-fronted",
        "Square-fronted",
        "a box of sticks and sheet on an own frame, high enough to stand in",
        "box",
        "stick timber",
        (3.66, 1.83, 1.95, 0.0),
        (12.0, 6.0, 6.5, 0.0),
        frame_kg_m=28.0,
        floor=BOX_FLOOR,
        walls=ALU_WALL,
        roof=ALU_WALL,
        sticks_mm=BOX_MM,
        sticks_in=BOX_IN,
        holes=(
            Hole("door", "Door", "left side", 0.3, 0.08, 0.65, 1.65, "front"),
            Hole("window", "Window", "right side", 0.6, 0.9, *WIDE_WINDOW),
            Hole("window", "Other window", "left side", 0.75, 0.9, *WIDE_WINDOW),
            Hole("vent", "Roof vent", "roof", 0.5, 0.7, *VENT),
        ),
    ),
    StartBody(
        "strip-ribbed",
        "Strip-ribbed",
        "ribs glued up of strips round a jig, a skin over them",
        "profile",
        "strip ribs",
        (3.66, 1.83, 1.83, 0.0),
        (12.0, 6.0, 6.0, 0.0),
        frame_kg_m=26.0,
        preset="long and low",
        floor=PLY_FLOOR,
        walls=RIBBED,
        roof=RIBBED,
        holes=(
            Hole("door", "Door", "left side", 0.45, 0.12, 0.65, 1.3, "front"),
            Hole("window", "Window", "right side", 0.5, 0.8, *WINDOW),
            Hole("vent", "Roof vent", "roof", 0.5, 0.7, *VENT),
        ),
    ),
)
BY_KIND = {body.kind: body for body in BODIES}
FACES: tuple[tuple[str, str], ...] = (
    ("floor", "Floor"),
    ("left side", "Left side"),
    ("right side", "Right side"),
    ("roof", "Roof"),
    ("front", "Front"),
    ("rear", "Rear"),
)


def sizes_of(body: StartBody, imperial: bool) -> tuple[Length, Length, Length, Length | None]:
    """Length, width, height and low edge of a body that nobody gave a size."""
    long, wide, high, low = (Length(round(feet * FOOT_M, 6)) for feet in body.feet) if imperial else (Length(v) for v in body.sizes_m)
    return long, wide, high, low if low.si > 0 else None


def layers_of(rows: Rows, imperial: bool) -> tuple[Layer, ...]:
    """Layers from outside in."""
    return tuple(
        Layer(f"l{at}", material, Length(round(inches * INCH_M, 6) if imperial else mm / 1000), share)
        for at, (material, mm, inches, share) in enumerate(rows, 1)
    )


def faces_of(body: StartBody, imperial: bool) -> tuple[Face, ...]:
    """Its faces by their layers; a front and a rear that the roof bends down to are made as the roof is."""
    ends = body.roof if body.form == "profile" else body.walls
    rows = {"floor": body.floor, "roof": body.roof, "front": ends, "rear": ends}
    return tuple(
        Face(f"f{at}", kind, name, layers=layers_of(rows.get(kind, body.walls), imperial))  # type: ignore[arg-type]
        for at, (kind, name) in enumerate(FACES, 1)
        if rows.get(kind, body.walls)
    )


def wall_of(body: StartBody, imperial: bool) -> Length:
    """Thickness of its walls: of their layers, of thin sheet and posts where they were bought."""
    made = layers_of(body.walls, imperial)
    return Length(round(sum(layer.thickness.si for layer in made), 6)) if made else Length(0.04)


def framing_of(body: StartBody, imperial: bool) -> Framing:
    """Its school, with sections that fill its walls."""
    sections = [
        Section(Length(round(thick * (INCH_M if imperial else 0.001), 6)), Length(round(deep * (INCH_M if imperial else 0.001), 6)))
        for thick, deep in (body.sticks_in if imperial else body.sticks_mm)
    ]
    stick, rib, joist = sections or (None, None, None)
    return Framing(body.school, stick=stick, rib=rib, joist=joist)


def openings_of(body: StartBody, long_m: float, wide_m: float, high_m: float) -> tuple[Opening, ...]:
    """What is usually cut in, so far as a body of these sizes has room for it [m]."""
    made = []
    for at, hole in enumerate(body.holes, 1):
        face_m = wide_m if hole.face in ("front", "rear") else long_m
        up_most = wide_m if hole.face == "roof" else high_m
        along = round(min(max(hole.share * face_m - hole.wide_m / 2, 0.15), face_m - hole.wide_m - 0.15), 3)
        up = round((wide_m - hole.high_m) / 2, 3) if hole.face == "roof" else hole.up_m
        if along < 0.1 or up + hole.high_m > up_most - 0.1:
            continue
        sizes = (Length(v) for v in (along, up, hole.wide_m, hole.high_m))
        a, b, c, d = sizes
        seal: Seal = "bulb" if hole.kind in ("door", "hatch") else "tape"
        drip = hole.face != "roof"
        made.append(Opening(f"o{at}", hole.kind, hole.name, hole.face, a, b, c, d, hung=hole.hung, seal=seal, drip=drip))
    return tuple(made)


def wheel_boxes_of(body: StartBody, imperial: bool) -> WheelBoxes | None:
    """Boxes over the wheels of a body that is as wide as the road allows."""
    if not body.wheel_boxes:
        return None
    return WheelBoxes(*(Length(round(v, 6)) for v in ((74 * INCH_M, 9 * INCH_M, 10.5 * INCH_M) if imperial else (1.88, 0.23, 0.27))))
