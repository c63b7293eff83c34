"""The body: its form, what is cut into it, what each face is made of and how it is framed."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Ratio, Share, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import SOURCE_WORDS, Source

# one field a line, as a table
# fmt: off
Form = Literal["none", "profile", "box", "flat", "shed", "gable", "butterfly", "bevelled"]
FaceKind = Literal["floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other"]
CutFace = Literal["left side", "right side", "roof", "front", "rear", "floor"]
OpeningKind = Literal["door", "hatch", "window", "vent", "light", "gland", "screw row"]
Seal = Literal["none", "bulb", "two lines", "tape", "sealant"]
School = Literal[
    "none", "stick timber", "light steel", "cut plywood sides", "welded tube", "strip ribs", "sandwich panels", "stitched ply", "foam and cloth", "bought shell"
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
    thickness: Annotated[Length, about("Thickness", "Of this layer", thin=True)]
    framing: Annotated[Share, about("Sticks in it", "Share of the layer that is timber")] = 0.0
    battens: Annotated[Literal["", "level", "upright"], about("Battens", "Of a gap: how they run; boards that stand want them level", words={"": "no battens", "level": "level battens", "upright": "upright battens"})] = ""
    batten_wide: Annotated[Length | None, about("Batten wide", "As it shows; as thick as the gap is. Empty: {45 mm}", least=0.005, blank=Length(0.045))] = None
    batten_pitch: Annotated[Length | None, about("Battens apart", "Middle to middle; empty: {400 mm}", least=0.05, blank=Length(0.4))] = None
    steel_share: Annotated[Share, about("Frame's steel in it", "Share of it that the trailer's own steel goes through; that weighs with the frame")] = 0.0
    open_mm2_m: Annotated[Figure | None, about("Gap open", "Of a ventilated gap: above and below, a metre of its width", unit="mm²/m")] = None


class Face(msgspec.Struct, frozen=True):
    """One face of the body: what it weighs as typed, or the layers that it is worked out from."""

    id: Word
    kind: FaceKind
    name: Word
    mass: Annotated[Mass | None, about("Weight", "With its fittings and fasteners")] = None
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "estimated"
    weight_at: Length | None = None  # station, where the drawing's own centre is not right
    made_of: Annotated[Word, about("Floor", "Layers from outside in; its weight follows the drawing")] = ""
    layers: tuple[Layer, ...] = ()
    doorway: Annotated[bool, about("Doorway", "A bulkhead that air goes through")] = False
    u_w_m2k: Annotated[Figure | None, about("U", "Of a bought panel whose layers nobody knows; Systems reckons warmth and sweat with it", unit="W/m2K")] = None


class Section(msgspec.Struct, frozen=True):
    """A stick as bought: ``thick`` shows in the face, ``deep`` goes through the wall."""

    thick: Annotated[Length, about("Thick", "As it shows in the face", least=0.001, thin=True)]
    deep: Annotated[Length, about("Deep", "Through the wall", least=0.001, thin=True)]


class Leaf(msgspec.Struct, frozen=True):
    """A door or hatch of one's own: sticks between two skins, foam, perhaps a window in it. coat: paint on one surface."""

    stick: Section
    skin: Annotated[Word, about("Leaf skin", "On both sides")] = "light-ply"
    skin_thick: Annotated[Length, about("Leaf skin thick", "Of one skin", least=0.0005)] = Length(0.004)
    foam: Annotated[Word, about("Leaf foam", "Between the sticks")] = "xps"
    window_width: Annotated[Length | None, about("Window in it wide", "Empty: none", least=0.05, blank="none")] = None
    window_height: Annotated[Length | None, about("Window in it high", "Empty: none", least=0.05, blank="none")] = None
    window_mass: Annotated[Mass | None, about("Its window weighs", "Of the window in the leaf; by its size where nobody said")] = None
    coat: Annotated[Length, about("Coats", "Paint and varnish on one surface; thick")] = Length(0.0003)
    hinge_spacing: Annotated[Length | None, about("Hinges apart", "Between the outermost two", least=0.05)] = None
    hangs_on: Annotated[Mass | None, about("Fixed to it", "A table, a rack, cladding")] = None
    rib: Annotated[Word, about("Ribs of", "Over a curve: what its ribs are sawn from, as thick as its sticks are seen")] = "birch-ply"
    rib_pitch: Annotated[Length | None, about("Ribs apart", "Over a curve: middle to middle, and so far apart the cross-bars at the most; empty: {400 mm}", least=0.05, blank=Length(0.4))] = None


HUNG = {"": "fixed", "front": "at its front", "rear": "at its rear", "top": "at its top", "bottom": "at its bottom", "pair": "as a pair"}


class Opening(msgspec.Struct, frozen=True):
    """A hole in a face that is measured from the body, so that it moves with it.

    ``along`` is from the body's front (sides, roof, floor) or from its left edge (front, rear); ``up``
    from the body's underside, or from the left edge (roof, floor). Both to the near edge of the clear opening.
    """

    id: Word
    kind: Annotated[OpeningKind, about("Kind", "Doors and hatches are ways in and out; vents air; glands and screws are holes that leak.", words={"gland": "cable gland", "screw row": "row of screws"})]
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    face: Annotated[CutFace, about("Face", "The side of the body that it is cut into.")]
    along: Annotated[Length, about("Along", "From the body's front, or the left edge of front and rear, to its near edge")]
    up: Annotated[Length, about("Sill", "From the body's underside, or the left edge of roof and floor")]
    width: Annotated[Length, about("Width", "Clear opening", least=0.001)]
    height: Annotated[Length, about("Height", "Clear opening", least=0.001)]
    corner: Annotated[Length | None, about("Corners", "Radius of its corners")] = None
    hung: Annotated[Literal["", "front", "rear", "top", "bottom", "pair"], about("Hung", "The edge that its hinges are on.", words={**HUNG, "pair": "as a pair, one leaf at each side"})] = ""
    seal: Annotated[Seal, about("Seal", "What keeps rain and dust out; without one Uncle minds.", words={"none": "none yet", "bulb": "bulb seal", "two lines": "two lines of seal", "tape": "butyl tape"})] = "none"
    drip: Annotated[bool, about("Drip edge over it", "A small roof over it that sheds the water before it reaches the seal.")] = False
    mass: Annotated[Mass | None, about("Weight", "Of the door, window or vent itself; a guess by its size until you say")] = None
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "estimated"
    opens: Annotated[bool, about("Can be opened", "A window that cannot is no way out")] = True
    stays_open: Annotated[bool, about("Stays open", "A vent that nobody can shut: what a flame needs")] = False
    open_deg: Annotated[Count | None, about("Opens to", "Degrees from shut; 90 where nothing is typed", unit="°")] = None
    glazing: Annotated[Literal["", "single", "double"], about("Glass", "Single is taken where nobody said")] = ""
    u_w_m2k: Annotated[Figure | None, about("U", "Of its data sheet; a door or hatch counts as bare {18 mm} plywood else", unit="W/m2K")] = None
    leaf: Annotated[Leaf | None, about("Made by yourself", "Sticks between two skins: its weight, gaps and pieces are worked out")] = None
    latch_n: Annotated[Figure | None, about("Latches hold", "All of them together, by their data sheet; the hinges hold the other half", unit="N")] = None
    strut: Strut | None = None  # gas struts of a hatch
    cut_since: Annotated[bool, about("Cut in since it was weighed", "Unticked it was there when the bought shell was weighed, and weighs nothing more")] = False


class WheelBoxes(msgspec.Struct, frozen=True):
    """Boxes over the wheels inside the body, one a side; they stay over the axles."""

    length: Annotated[Length, about("Wheel, long", "Over the axles, which it follows", least=0.001)]
    width: Annotated[Length, about("Wheel, wide", "Into the body", least=0.001)]
    height: Annotated[Length, about("Wheel, high", "Above the underside", least=0.001)]


class NoseBox(msgspec.Struct, frozen=True):
    """A locker ahead of the body on the drawbar."""

    length: Annotated[Length, about("Nose, long", "Of the box ahead of the body, along the drawbar.", least=0.001)]
    width: Annotated[Length, about("Nose, wide", "Of the box ahead of the body, across.", least=0.001)]
    height: Annotated[Length, about("Nose, high", "Of the box ahead of the body, upward from the body's underside.", least=0.001)]
    mass: Annotated[Mass | None, about("Nose weight", "Empty; a guess by its size until you say")] = None
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "estimated"


class SeamMade(msgspec.Struct, frozen=True):
    """How one joint of two faces is made, or the seams or rows of screws within one. id: of the surfaces, as the body names them."""

    id: Word
    trim: Annotated[Literal["", "angle", "drip edge", "cap", "strip"], about("Trim", "Of the chosen joint", words={"": "no trim", "strip": "joint strip"})] = ""
    tape: Annotated[Literal["", "butyl", "foam", "acrylic", "cloth and resin"], about("Tape", "Of the chosen joint", words={"": "no tape", "cloth and resin": "cloth, resin"})] = ""
    sealant: Annotated[Literal["", "bead", "fillet"], about("Sealant", "Of the chosen joint", words={"": "no sealant"})] = ""


class Split(msgspec.Struct, frozen=True):
    """Where a face is parted into sections that are built apart. at: along it, from its front or left end."""

    id: Word
    face: Word  # the surface
    at: Annotated[Length, about("Parted at", "Along the face, from its front or left end")]


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

    school: Annotated[School, about("School", "How the body is built; sticks, sheets and joints follow from it.", words={"none": "not framed yet"})] = "none"
    pitch: Annotated[Length | None, about("Pitch", "Middle to middle; empty: the school's own", least=0.001, blank="the school's own")] = None
    stick: Section | None = None
    rib: Section | None = None  # rafters or spars
    joist: Section | None = None
    sheet_width: Annotated[Length | None, about("Sheet wide", "As bought", least=0.001)] = None
    sheet_length: Annotated[Length | None, about("Sheet long", "As bought; its grain runs this way", least=0.001)] = None
    material: Word = "softwood"
    tube_wall: Annotated[Length | None, about("Tube wall", "Of welded tube; empty: the school's own", least=0.0005, blank="the school's own")] = None
    fillet: Annotated[Length | None, about("Fillet", "Radius of the fillet in each joint of a body without sticks; empty: {25 mm}", least=0.003, blank=Length(0.025))] = None
    fold_tolerance: Annotated[Length | None, about("Folds proud", "By how much folded corners may stand outside of the curve; empty: {1 mm}", least=0.0002, blank=Length(0.001))] = None
    saw_kerf: Annotated[Length | None, about("Saw cuts", "How wide the saw cuts: plain cuts are told beside the pies; empty: {2 mm}", least=0.0005, blank=Length(0.002))] = None
    strip: Annotated[Length | None, about("Strip", "Thickness of what ribs are glued up of; empty: the thickest that bends", least=0.0005, blank="what bends")] = None
    screw: Annotated[Length | None, about("Screws long", "Those that go through skin and stick", least=0.005)] = None
    screw_pitch: Annotated[Length | None, about("Screws every", "Along sticks and edges; empty: {150 mm}", least=0.02, blank=Length(0.15))] = None
    bolt_pitch: Annotated[Length | None, about("Bolts every", "Body to frame, along each rail; empty: as many as are wanted, {600 mm} at most", least=0.05, blank="as wanted")] = None
    panels: Annotated[Literal["bought", "own"], about("Panels", "Bought as they are, or glued up by yourself of skins and a core under a press", words={"bought": "bought", "own": "glued up by yourself"})] = "bought"
    glue_line_g_m2: Annotated[Figure | None, about("A glue line takes", "Of panels glued up by yourself, between two layers; empty: {250 g/m2}", unit="g/m2", least=1.0, blank="250 g/m²")] = None
    changes: tuple[HandChange, ...] = ()


class Survey(msgspec.Struct, frozen=True):
    """What was measured on a bought frame and shell before anybody cuts; what is empty was not measured.

    Diagonals run from the named front corner to the other side's rear corner; corners are heights above one level.
    Stations are from the body's front to the middle of a post or bow.
    """

    date: Annotated[Word, about("Looked at on", "Year, month, day: 2026-05-31")] = ""
    length: Annotated[Length | None, about("Length", "Outside, along the floor; it takes the place of the planned one")] = None
    width_front: Annotated[Length | None, about("Width, front", "Outside, at the nose")] = None
    width_middle: Annotated[Length | None, about("Width, middle", "Outside, half way; this one takes the place of the planned one")] = None
    width_rear: Annotated[Length | None, about("Width, rear", "Outside, at the tail")] = None
    diagonal_left: Annotated[Length | None, about("From left front", "Diagonal from the left front corner to the right rear one")] = None
    diagonal_right: Annotated[Length | None, about("From right front", "Diagonal from the right front corner to the left rear one")] = None
    left_front: Annotated[Length | None, about("Left front", "Height of this corner over one level, say a water hose")] = None
    right_front: Annotated[Length | None, about("Right front", "Height of this corner over the same level")] = None
    left_rear: Annotated[Length | None, about("Left rear", "Height of this corner over the same level")] = None
    right_rear: Annotated[Length | None, about("Right rear", "Height of this corner over the same level")] = None
    post_first: Annotated[Length | None, about("First post", "From the body's front to the middle of the first post behind the corner")] = None
    post_pitch: Annotated[Length | None, about("Post to post", "Middle to middle, as the maker set them")] = None
    post_width: Annotated[Length | None, about("Post wide", "As it shows in the wall", thin=True)] = None
    post_depth: Annotated[Length | None, about("Post deep", "Through the wall; so thick may the foam be", thin=True)] = None
    bow_first: Annotated[Length | None, about("First bow", "From the body's front to the middle of the first roof bow")] = None
    bow_pitch: Annotated[Length | None, about("Bow to bow", "Middle to middle")] = None
    bow_depth: Annotated[Length | None, about("Bow deep", "Through the roof", thin=True)] = None
    bow_crown: Annotated[Length | None, about("Crown", "How much higher the roof is in the middle than at its sides")] = None
    floor: Annotated[Length | None, about("Floor", "Its thickness, through a screw hole", thin=True)] = None
    floor_state: Annotated[Literal["", "sound", "soft", "rotten"], about("Floor is", "Push a knife into it along the walls", words={"": "not looked at"})] = ""
    rust: Annotated[Literal["", "none", "on the surface", "through"], about("Rust", "At the hangers, the cross-members, the coupler", words={"": "not looked at"})] = ""
    bearings: Annotated[Literal["", "sound", "worn"], about("Bearings", "Spin each wheel, rock it top and bottom", words={"": "not looked at"})] = ""
    papers: Annotated[Literal["", "there", "missing"], about("Papers", "Title, plate, number on the frame: all three the same", words={"": "not looked at"})] = ""
    tyre_date: Annotated[Word, about("Tyres made", "Week and year on the sidewall, such as 2319")] = ""
    toe_front: Annotated[Length | None, about("Toe, ahead", "Between the tyres at axle height, ahead of the axle, by a string")] = None
    toe_rear: Annotated[Length | None, about("Toe, behind", "The same behind the axle")] = None
    planned_length: Length | None = None  # what the plan went by before
    planned_width: Length | None = None


class Relining(msgspec.Struct, frozen=True):
    """One face of a bought shell stripped and lined again: what goes off, and what comes between and over the posts."""

    id: Word
    face: CutFace
    out_mass: Annotated[Mass | None, about("Heap weighed", "What came off the face, on a scale")] = None
    out_material: Word = ""  # else by what it was
    out_thickness: Annotated[Length | None, about("Old liner thick", "Of what comes off", thin=True)] = None
    foam: Word = ""
    foam_thickness: Annotated[Length | None, about("Foam thick", "Between and over the posts", thin=True)] = None
    furring: Section | None = None  # ``thick`` shows, ``deep`` stands over the posts
    furring_pitch: Annotated[Length | None, about("Furring apart", "Middle to middle")] = None
    liner: Word = ""
    liner_thickness: Annotated[Length | None, about("New liner thick", "Of what comes on", thin=True)] = None


class Partition(msgspec.Struct, frozen=True):
    """A wall inside the body. ``across`` it stands at a station, ``along`` at a distance from the left wall.

    ``at``: its front face from the body's front, or its left face from the left wall inside. ``start`` and ``end`` along it,
    from the left wall or from the inside of the nose; empty: from wall to wall.
    """

    id: Word
    name: Annotated[Word, about("Name", "What it is called on drawings and lists")]
    way: Literal["across", "along"]
    at: Annotated[Length, about("Stands at", "Its front face from the body's front, or its left face from the left wall inside")]
    thick: Annotated[Length, about("Thick", "Over both skins", least=0.001)]
    start: Annotated[Length | None, about("Begins", "Along it, from the left wall or the inside of the nose; empty: there")] = None
    end: Annotated[Length | None, about("Ends", "Along it, measured as its beginning; empty: at the other wall", blank="at the other wall")] = None
    height: Annotated[Length | None, about("High", "Over the floor; empty: to the ceiling", blank="to the ceiling")] = None
    made: Annotated[Literal["sticks", "panel"], about("Made of", "Sticks between two skins, or one board", words={"sticks": "sticks and skins", "panel": "one panel"})] = "sticks"
    pitch: Annotated[Length | None, about("Pitch", "Of its uprights; {400 mm} where nothing is typed", least=0.05)] = None
    skin: Annotated[Word, about("Skin", "On both sides; of a panel what it is made of")] = "light-ply"
    skin_thickness: Annotated[Length | None, about("Skin thick", "Of one skin; {4 mm} where nothing is typed", least=0.0001)] = None
    mass: Annotated[Mass | None, about("Weight", "With its door; worked out from sticks and skins until you say")] = None
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "estimated"
    door: Annotated[Literal["none", "opening", "hinged", "sliding", "pocket"], about("Door", "A pocket door goes between the skins: no stud and no screw there", words={"none": "no door", "opening": "an opening without a leaf", "sliding": "sliding on the wall", "pocket": "into a pocket", })] = "none"
    door_from: Annotated[Length | None, about("Door from", "Along the wall from its start; empty: in the middle", blank="in the middle")] = None
    door_width: Annotated[Length | None, about("Door wide", "Clear opening", least=0.05)] = None
    door_height: Annotated[Length | None, about("Door high", "Clear opening, from the floor", least=0.05)] = None
    hung: Annotated[Literal["start", "end"], about("Hung", "Where its hinges are, or where it slides to", words={"start": "at its start", "end": "at its end"})] = "start"
    opens: Annotated[Literal["front or left", "rear or right"], about("Opens", "To which side the leaf swings, or on which it slides", words={"front or left": "to front or left", "rear or right": "to rear or right"})] = "rear or right"


class Loft(msgspec.Struct, frozen=True):
    """A floor under the roof, from wall to wall between two stations from the body's front."""

    id: Word
    name: Annotated[Word, about("Name", "What it is called on drawings and lists")]
    front: Annotated[Length, about("Front edge", "From the body's front", least=0.0)]
    rear: Annotated[Length, about("Rear edge", "From the body's front")]
    top: Annotated[Length, about("Top", "Of its floor, over the floor below", least=0.001)]
    thick: Annotated[Length, about("Thick", "Joists, floor and ceiling under it", least=0.001)]
    mass: Annotated[Mass | None, about("Weight", "A guess by its size until you say")] = None
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "estimated"
    climb: Annotated[Literal["", "ladder", "stair"], about("Way up", "How one gets up", words={"ladder": "a ladder", "stair": "a stair"})] = ""
    guard: Annotated[Length | None, about("Guard", "Height over the loft's floor, along its open edge")] = None
    joist: Section | None = None
    joist_pitch: Annotated[Length | None, about("Joists every", "Middle to middle", least=0.05)] = None
    rung: Section | None = None  # of its ladder: as one sees it, and its depth to step on


class Ridge(msgspec.Struct, frozen=True):
    """What holds a pitched roof at its ridge, or a butterfly at its valley; nobody said: nothing."""

    held_by: Annotated[Literal["", "beam", "ties", "collars"], about("Held by", "A beam on posts or walls, ties at the plates, or collars over them; rafters that only lean on each other push the walls apart", words={"": "nobody said", "beam": "a beam"})] = ""
    beam: Section | None = None  # of softwood, on edge
    span: Annotated[Length | None, about("Longest span", "Between what carries the beam; empty: the body's length", least=0.1, blank="body length")] = None
    tie_pitch: Annotated[Length | None, about("One every", "Empty: {1.2 m}", least=0.1, blank=Length(1.2))] = None
    tie_holds_n: Annotated[Figure | None, about("Each holds", "One with its joints, by its maker or its bolts", unit="N")] = None
    tie: Section | None = None  # of one tie or collar, of softwood, on edge
    collar_up: Annotated[Length | None, about("Collar up", "Over the plates; the higher, the more it pulls")] = None


class Rising(msgspec.Struct, frozen=True):
    """A roof, or a part of it, that goes up where one camps, or a side that folds down, closed by cloth. On the road all is shut."""

    way: Annotated[Literal["lifts", "front", "rear", "left", "right", "fold left", "fold right"], about("Opens", "The roof, straight or turned about the edge that stays; or a side, folded down about its foot until it lies level", words={"lifts": "straight up", "front": "front hinged", "rear": "rear hinged", "left": "left hinged", "right": "right hinged", "fold left": "left side folds", "fold right": "right side folds"})] = "lifts"
    rise: Annotated[Length, about("By", "Straight up, or at the edge that goes up; a side that folds down lies as far out as it is high", least=0.01)] = Length(0.45)
    part_from: Annotated[Length | None, about("From", "Where the part that goes up begins, from the body's front; empty: the whole roof", least=0.0, blank="the whole roof")] = None
    part_to: Annotated[Length | None, about("To", "Where it ends, from the body's front; empty: the whole roof", blank="the whole roof")] = None
    strut: Strut | None = None  # straight up: mounts seen from its side, level and up, the leaf's as it is down
    cloth: Annotated[Word, about("Sides of", "What closes it all round while it is up")] = "tent-cloth"
    second: Annotated[Literal["", "none", "pin", "prop", "strap"], about("When a strut gives way", "What holds the roof up then", words={"": "nobody said", "none": "nothing", "pin": "pins", "prop": "props", "strap": "straps"})] = ""
    fittings: Annotated[Mass | None, about("Fittings weigh", "Struts or scissors, hinges, rails and frames; by its size where nobody said")] = None
    guys: Annotated[Count, about("Guys", "Ropes to the ground or to the body, of which the half pulls against a wind")] = 0
    guy_n: Annotated[Figure | None, about("A guy holds", "With its peg or eye", unit="N")] = None


class Sketch(msgspec.Struct, frozen=True):
    """A picture that lies under the profile to be traced: a file beside the build, its lower left corner and scale."""

    picture: str = ""  # PNG or JPEG in base64: of files of before; nothing is put inside a build any more
    x: Length = Length(0.0)
    z: Length = Length(0.0)
    m_per_px: Figure = 0.002
    file: Annotated[Word, about("Picture", "Its path beside the build's file, such as sketches/side.jpg")] = ""
    corners: tuple[Ratio, ...] = ()  # of a true rectangle seen aslant: four points from its upper left on, clockwise, as shares of the picture across and down
    true_wide: Annotated[Length | None, about("Rectangle wide", "Of what is a rectangle in truth, in the picture", least=0.01)] = None
    true_high: Annotated[Length | None, about("Rectangle high", "The same, its height", least=0.01)] = None


class Shell(msgspec.Struct, frozen=True):
    """A body standing on the frame or bed, or none yet."""

    form: Annotated[Form, about("Body", "The outline that everything else of the body follows: seen from its left, or from behind.", words={"none": "no body yet", "profile": "drawn profile", "flat": "flat roof with a fall", "shed": "shed roof", "gable": "gable roof", "butterfly": "butterfly roof", "bevelled": "bevelled box", })] = "none"
    front: Annotated[Length | None, about("Front", "Body's front, from the ball (or the front axle of a bed)")] = None
    length: Annotated[Length | None, about("Length", "Outside of the body, front to rear.")] = None
    width: Annotated[Length | None, about("Width", "Outside of the body, left to right.")] = None
    height: Annotated[Length | None, about("Height", "Floor underside to roof top")] = None
    floor: Annotated[Length | None, about("Underside", "Above ground")] = None
    wall: Annotated[Length | None, about("Wall", "Thickness where faces have no layers")] = None
    profile: tuple[ProfileNode, ...] = ()
    faces: tuple[Face, ...] = ()
    eaves: Annotated[Length | None, about("Low edge", "Height of the eaves, or of a butterfly's valley, above the underside")] = None
    low_side: Annotated[Literal["rear", "front", "left", "right"], about("Falls to", "Which edge of the roof is the low one; water runs there.")] = "rear"
    bevel: Annotated[Length | None, about("Bevel", "Along the edge of wall and roof")] = None
    roof_overhang: Annotated[Length | None, about("Roof past wall", "Overhang of the roof")] = None
    mattress: Annotated[Length | None, about("Mattress top", "Above the underside; the inside length is taken there")] = None
    openings: tuple[Opening, ...] = ()
    wheel_boxes: WheelBoxes | None = None
    nose_box: NoseBox | None = None
    framing: Framing = Framing()
    sketch: Sketch | None = None
    survey: Survey | None = None
    relined: tuple[Relining, ...] = ()
    nose_point: Annotated[Length | None, about("Nose point", "In plan: how far a pointed nose stands ahead of where the sides begin; empty: square", blank="square")] = None
    tail_clip: Annotated[Length | None, about("Tail corner off", "A corner cut off at the tail, along the body; empty: square", blank="square")] = None
    tail_clip_across: Annotated[Length | None, about("Off across", "The same across the body; as much as along where nothing is typed")] = None
    tail_from: Annotated[Length | None, about("Tail begins", "From the body's front to where the roof's skin ends and that of the tail begins: the hinge of a hatch over the curve. Empty: where it turns down steeply", least=0.0, blank="where it turns down")] = None
    clipped: Annotated[Literal["left", "right"], about("Which corner", "The corner that is cut off", words={"left": "the left one", "right": "the right one"})] = "right"
    partitions: tuple[Partition, ...] = ()
    lofts: tuple[Loft, ...] = ()
    seams: tuple[SeamMade, ...] = ()
    splits: tuple[Split, ...] = ()
    joint_gap: Annotated[Length | None, about("Slack of a joint", "Of one bolted joint between sections", thin=True)] = None
    ridge: Ridge | None = None
    rising: Rising | None = None

    @property
    def inner(self) -> tuple[Partition | Loft, ...]:
        """Walls and lofts inside, in the order of the file."""
        made: tuple[Partition | Loft, ...] = self.partitions
        return made + self.lofts
