"""The body: its form, what is cut into it, what each face is made of and how it is framed."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Ratio, Share, Word
from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Source

Form = Literal["none", "profile", "box", "flat", "shed", "gable", "butterfly", "bevelled"]
FaceKind = Literal["floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other"]
CutFace = Literal["left side", "right side", "roof", "front", "rear", "floor"]
OpeningKind = Literal["door", "hatch", "window", "vent", "light", "gland", "screw row"]
Seal = Literal["none", "bulb", "two lines", "tape", "sealant"]
School = Literal[
    "none", "stick timber", "cut plywood sides", "bought shell", "welded tube", "strip ribs", "sandwich panels"
]


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

    id: Word
    material: Word
    thickness: Length
    framing: Share = 0.0


class Face(msgspec.Struct, frozen=True):
    """One face of the body: what it weighs as typed, or the layers that it is worked out from."""

    id: Word
    kind: FaceKind
    name: Word
    mass: Mass | None = None
    source: Source = "estimated"
    weight_at: Length | None = None  # station, where the drawing's own centre is not right
    made_of: Word = ""  # name of the way it is made, where its mass is worked out from layers
    layers: tuple[Layer, ...] = ()
    doorway: bool = False  # a bulkhead that air goes through
    u_w_m2k: Figure | None = None  # of its data sheet, where its layers are not known


class Section(msgspec.Struct, frozen=True):
    """A stick as bought: ``thick`` shows in the face, ``deep`` goes through the wall."""

    thick: Length
    deep: Length


class Leaf(msgspec.Struct, frozen=True):
    """A door or hatch of one's own: sticks between two skins, foam, perhaps a window in it. coat: paint on one surface."""

    stick: Section
    skin: Word = "light-ply"
    skin_thick: Length = Length(0.004)
    foam: Word = "xps"
    window_width: Length | None = None
    window_height: Length | None = None
    window_mass: Mass | None = None
    coat: Length = Length(0.0003)
    hinge_spacing: Length | None = None  # between the outermost hinges
    hangs_on: Mass | None = None  # what is fixed to it: a table, bottles


class Opening(msgspec.Struct, frozen=True):
    """A hole in a face that is measured from the body, so that it moves with it.

    ``along`` is from the body's front (sides, roof, floor) or from its left edge (front, rear); ``up``
    from the body's underside, or from the left edge (roof, floor). Both to the near edge of the clear opening.
    """

    id: Word
    kind: OpeningKind
    name: Word
    face: CutFace
    along: Length
    up: Length
    width: Length
    height: Length
    corner: Length | None = None
    hung: Literal["", "front", "rear", "top", "bottom", "pair"] = ""  # pair: two leaves, one at each upright edge
    seal: Seal = "none"
    drip: bool = False
    mass: Mass | None = None  # of the door, window or vent itself
    source: Source = "estimated"
    opens: bool = True  # a window or vent that cannot be opened is no way out
    stays_open: bool = False  # a vent that nobody can shut; one that shuts is no opening for a flame
    open_deg: Count | None = None  # how far a hatch opens from shut; 90 where nobody said
    glazing: Literal["", "single", "double"] = ""  # of a window; single where nobody said
    u_w_m2k: Figure | None = None  # of its data sheet
    leaf: Leaf | None = None  # of one's own; its weight is worked out where none was typed
    latch_n: Figure | None = None  # what its latches hold together [N]
    strut: Strut | None = None  # gas struts of a hatch
    cut_since: bool = False  # into a bought shell, after it was weighed: the leaf comes on, what was cut goes off


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


class SeamMade(msgspec.Struct, frozen=True):
    """How one joint of two faces is made. id: of the two surfaces, as the body names them."""

    id: Word
    trim: Literal["", "angle", "drip edge", "cap"] = ""
    tape: Literal["", "butyl", "foam", "acrylic", "cloth and resin"] = ""
    sealant: Literal["", "bead", "fillet"] = ""


class Split(msgspec.Struct, frozen=True):
    """Where a face is parted into sections that are built apart. at: along it, from its front or left end."""

    id: Word
    face: Word  # the surface
    at: Length


class HandChange(msgspec.Struct, frozen=True):
    """What a hand changed in the generated framing, kept by the member's key through every regeneration."""

    id: Word
    school: School
    face: Word
    role: Word
    anchor: Word  # opening id with its place, or the station on the face in metres
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
    material: Word = "softwood"
    tube_wall: Length | None = None  # of a welded tube
    fold_tolerance: Length | None = None  # by how much folds of a tube may stand proud of their curve
    saw_kerf: Length | None = None  # of the saw that cuts tubes
    strip: Length | None = None  # thickness of what ribs are glued up of
    screw: Length | None = None  # how long those are that hold the skins
    screw_pitch: Length | None = None
    bolt_pitch: Length | None = None
    changes: tuple[HandChange, ...] = ()


class Survey(msgspec.Struct, frozen=True):
    """What was measured on a bought frame and shell before anybody cuts; what is empty was not measured.

    Diagonals run from the named front corner to the other side's rear corner; corners are heights above one level.
    Stations are from the body's front to the middle of a post or bow.
    """

    date: Word = ""
    length: Length | None = None
    width_front: Length | None = None
    width_middle: Length | None = None
    width_rear: Length | None = None
    diagonal_left: Length | None = None
    diagonal_right: Length | None = None
    left_front: Length | None = None
    right_front: Length | None = None
    left_rear: Length | None = None
    right_rear: Length | None = None
    post_first: Length | None = None
    post_pitch: Length | None = None
    post_width: Length | None = None  # seen in the wall
    post_depth: Length | None = None  # through it
    bow_first: Length | None = None
    bow_pitch: Length | None = None
    bow_depth: Length | None = None
    bow_crown: Length | None = None  # rise over the width
    floor: Length | None = None  # thickness
    floor_state: Literal["", "sound", "soft", "rotten"] = ""
    rust: Literal["", "none", "on the surface", "through"] = ""
    bearings: Literal["", "sound", "worn"] = ""
    papers: Literal["", "there", "missing"] = ""
    tyre_date: Word = ""  # week and year on the sidewall, such as 2319
    toe_front: Length | None = None  # between the tyres at axle height, ahead of the axle
    toe_rear: Length | None = None  # and behind it
    planned_length: Length | None = None  # what the plan went by before
    planned_width: Length | None = None


class Relining(msgspec.Struct, frozen=True):
    """One face of a bought shell stripped and lined again: what goes off, and what comes between and over the posts."""

    id: Word
    face: CutFace
    out_mass: Mass | None = None  # the heap, weighed
    out_material: Word = ""  # else by what it was
    out_thickness: Length | None = None
    foam: Word = ""
    foam_thickness: Length | None = None
    furring: Section | None = None  # ``thick`` shows, ``deep`` stands over the posts
    furring_pitch: Length | None = None
    liner: Word = ""
    liner_thickness: Length | None = None


class Partition(msgspec.Struct, frozen=True):
    """A wall inside the body. ``across`` it stands at a station, ``along`` at a distance from the left wall.

    ``at``: its front face from the body's front, or its left face from the left wall inside. ``start`` and ``end`` along it,
    from the left wall or from the inside of the nose; empty: from wall to wall.
    """

    id: Word
    name: Word
    way: Literal["across", "along"]
    at: Length
    thick: Length
    start: Length | None = None
    end: Length | None = None
    height: Length | None = None  # over the floor; to the ceiling where nobody said
    made: Literal["sticks", "panel"] = "sticks"
    pitch: Length | None = None
    skin: Word = "light-ply"  # on both sides; of a panel what it is made of
    skin_thickness: Length | None = None
    mass: Mass | None = None
    source: Source = "estimated"
    door: Literal["none", "opening", "hinged", "sliding", "pocket"] = "none"
    door_from: Length | None = None  # along it, from its start
    door_width: Length | None = None
    door_height: Length | None = None
    hung: Literal["start", "end"] = "start"  # or where a pocket or sliding door goes
    opens: Literal["front or left", "rear or right"] = "rear or right"


class Loft(msgspec.Struct, frozen=True):
    """A floor under the roof, from wall to wall between two stations from the body's front."""

    id: Word
    name: Word
    front: Length
    rear: Length
    top: Length  # above the body's floor inside
    thick: Length
    mass: Mass | None = None
    source: Source = "estimated"
    climb: Literal["", "ladder", "stair"] = ""
    guard: Length | None = None  # height over the loft's floor, along its open edge
    joist: Section | None = None
    joist_pitch: Length | None = None
    rung: Section | None = None  # of its ladder: as one sees it, and its depth to step on


class Ridge(msgspec.Struct, frozen=True):
    """What holds a pitched roof at its ridge, or a butterfly at its valley; nobody said: nothing."""

    held_by: Literal["", "beam", "ties", "collars"] = ""
    beam: Section | None = None  # of softwood, on edge
    span: Length | None = None  # the longest between what carries it; the body's length where nobody said
    tie_pitch: Length | None = None
    tie_holds_n: Figure | None = None  # what one tie or collar holds with its joints
    collar_up: Length | None = None  # over the plates


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
    survey: Survey | None = None
    relined: tuple[Relining, ...] = ()
    nose_point: Length | None = None  # in plan: how far its point stands ahead of where the sides begin
    tail_clip: Length | None = None  # a corner cut off at the tail, along the body
    tail_clip_across: Length | None = None  # and across it; as much as along where nobody said
    clipped: Literal["left", "right"] = "right"
    partitions: tuple[Partition, ...] = ()
    lofts: tuple[Loft, ...] = ()
    seams: tuple[SeamMade, ...] = ()
    splits: tuple[Split, ...] = ()
    joint_gap: Length | None = None  # slack of one bolted joint between sections
    ridge: Ridge | None = None

    @property
    def inner(self) -> tuple[Partition | Loft, ...]:
        """Walls and lofts inside, in the order of the file."""
        made: tuple[Partition | Loft, ...] = self.partitions
        return made + self.lofts
