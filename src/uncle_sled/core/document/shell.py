"""The body: its form, what is cut into it, what each face is made of and how it is framed."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Ratio
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Source

Form = Literal["none", "profile", "box", "flat", "shed", "gable", "butterfly", "bevelled"]
FaceKind = Literal["floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other"]
CutFace = Literal["left side", "right side", "roof", "front", "rear", "floor"]
OpeningKind = Literal["door", "hatch", "window", "vent", "light", "gland", "screw row"]
Seal = Literal["none", "bulb", "two lines", "tape", "sealant"]
School = Literal["none", "stick timber", "cut plywood sides"]


class ProfileNode(msgspec.Struct, frozen=True):
    """A corner or a smooth point of the profile, as shares of the body's length and height.

    u runs aft from the front, v up from the floor; the handles are where the cubic
    curves before and after the node aim, in the same shares.
    """

    u: Ratio
    v: Ratio
    in_u: Ratio
    in_v: Ratio
    out_u: Ratio
    out_v: Ratio


class Layer(msgspec.Struct, frozen=True):
    """One layer of a face, outside first; ``framing`` is the share of it that is timber."""

    id: str
    material: str
    thickness: Length
    framing: Figure = 0.0


class Face(msgspec.Struct, frozen=True):
    """One face of the body: what it weighs as typed, or the layers that it is worked out from."""

    id: str
    kind: FaceKind
    name: str
    mass: Mass | None = None
    source: Source = "estimated"
    weight_at: Length | None = None  # station, where the drawing's own centre is not right
    made_of: str = ""  # name of the way it is made, where its mass is worked out from layers
    layers: tuple[Layer, ...] = ()


class Opening(msgspec.Struct, frozen=True):
    """A hole in a face that is measured from the body, so that it moves with it.

    ``along`` is from the body's front (sides, roof, floor) or from its left edge (front, rear); ``up``
    from the body's underside, or from the left edge (roof, floor). Both to the near edge of the clear opening.
    """

    id: str
    kind: OpeningKind
    name: str
    face: CutFace
    along: Length
    up: Length
    width: Length
    height: Length
    corner: Length | None = None
    hung: Literal["", "front", "rear", "top", "bottom"] = ""
    seal: Seal = "none"
    drip: bool = False
    mass: Mass | None = None  # of the door, window or vent itself
    source: Source = "estimated"
    opens: bool = True  # a window or vent that cannot be opened is no way out
    open_deg: Count | None = None  # how far a hatch opens from shut; 90 where nobody said


class WheelBoxes(msgspec.Struct, frozen=True):
    """Boxes over the wheels inside the body, one a side; they stay over the axles."""

    length: Length
    width: Length
    height: Length  # above the body's underside


class NoseBox(msgspec.Struct, frozen=True):
    """A locker ahead of the body on the drawbar."""

    length: Length
    width: Length
    height: Length
    mass: Mass | None = None
    source: Source = "estimated"


class Section(msgspec.Struct, frozen=True):
    """A stick as bought: ``thick`` shows in the face, ``deep`` goes through the wall."""

    thick: Length
    deep: Length


class HandChange(msgspec.Struct, frozen=True):
    """What a hand changed in the generated framing, kept by the member's key through every regeneration."""

    id: str
    school: School
    face: str
    role: str
    anchor: str  # opening id with its place, or the station on the face in metres
    op: Literal["leave out", "move", "section", "add"]
    by: Length | None = None  # move: along the face
    section: Section | None = None


class Framing(msgspec.Struct, frozen=True):
    """How the body is framed; sizes left open are the school's own."""

    school: School = "none"
    pitch: Length | None = None
    stick: Section | None = None
    rib: Section | None = None  # rafters or spars
    joist: Section | None = None
    sheet_width: Length | None = None
    sheet_length: Length | None = None
    material: str = "softwood"
    bolt_pitch: Length | None = None
    changes: tuple[HandChange, ...] = ()


class Sketch(msgspec.Struct, frozen=True):
    """A picture that lies under the profile to be traced: PNG or JPEG in base64, its lower left corner and scale."""

    picture: str
    x: Length
    z: Length
    m_per_px: Figure


class Shell(msgspec.Struct, frozen=True):
    """A body standing on the frame or bed, or none yet."""

    form: Form = "none"
    front: Length | None = None
    length: Length | None = None
    width: Length | None = None
    height: Length | None = None
    floor: Length | None = None
    wall: Length | None = None
    profile: tuple[ProfileNode, ...] = ()
    faces: tuple[Face, ...] = ()
    eaves: Length | None = None  # height of the low edge above the underside: shed, gable, flat, butterfly valley
    low_side: Literal["rear", "front", "left", "right"] = "rear"  # where a shed or flat roof falls to
    bevel: Length | None = None
    roof_overhang: Length | None = None
    mattress: Length | None = None  # height of its top above the underside
    openings: tuple[Opening, ...] = ()
    wheel_boxes: WheelBoxes | None = None
    nose_box: NoseBox | None = None
    framing: Framing = Framing()
    sketch: Sketch | None = None
