"""What is made of boards: carcasses with bays and fronts, bed bases, struts, winches, slides. Sizes are those of the thing."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Few, Figure, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.quantity import Length, Mass

# one field a line, as a table
# fmt: off
Front = Literal["open", "hinged left", "hinged right", "pair", "sliding", "lift-up", "drop-down", "drawers"]
CutBoard = Literal["worktop", "back", "left end", "right end", "bottom"]


class Bay(msgspec.Struct, frozen=True):
    """One bay of a carcass, from the left as one stands before it. width: clear; empty, it shares what is left."""

    id: Word
    front: Annotated[Front, about("Bay", "From the left, as one stands before it", words={"hinged left": "door, left", "hinged right": "door, right", "pair": "two doors", "sliding": "sliding doors", "lift-up": "flap, lifts", "drop-down": "flap, drops"})] = "open"
    width: Annotated[Length | None, about("Wide", "Clear; empty: it shares what is left", least=0.02, blank="what is left")] = None
    shelves: Annotated[Count, about("Shelves", "Evenly apart")] = 0
    drawers: Annotated[Count, about("Drawers", "One over the other")] = 3


class BoardHole(msgspec.Struct, frozen=True):
    """What is cut out of a board: sink, stove, vent, wires. along, up: its near corner from the board's left, low (front) edge."""

    id: Word
    name: Annotated[Word, about("Hole", "What goes through")]
    board: Annotated[CutBoard, about("In", "Which board")]
    along: Annotated[Length, about("From left", "From the board's left, or front, edge", least=0.0)]
    up: Annotated[Length, about("Up", "From its low, or front, edge", least=0.0)]
    width: Annotated[Length, about("Wide", "Across, or its diameter", least=0.005)]
    height: Annotated[Length, about("High", "Up, or into the depth", least=0.005)]
    round: Annotated[bool, about("Round", "For wires and pipes")] = False


class Cabinet(msgspec.Struct, frozen=True):
    """A carcass in the box of its thing. opens: the side of the unturned thing that one stands before.

    top: a board between the ends, a worktop over it, a lid (of a bench or bed box), or nothing.
    joint: boards butted, or let into rebates half as deep as they are thick.
    """

    opens: Annotated[Literal["front", "rear", "left", "right"], about("One stands at", "The side of the thing, before its turn, that its fronts are on")] = "rear"
    board: Annotated[Word, about("Boards", "Of carcass, shelves, doors and drawers")] = "light-ply"
    thick: Annotated[Length, about("Boards thick", "What is towed keeps to thin ones", least=0.003)] = Length(0.012)
    back: Annotated[Word, about("Back", "Its sheet")] = "light-ply"
    back_thick: Annotated[Length, about("Back thick", "0: no back")] = Length(0.004)
    joint: Annotated[Literal["butt", "rebate", "pocket holes"], about("Joints", "Butted, let in half their thickness, or screwed through pockets", words={"butt": "butted", "rebate": "let in", "pocket holes": "pockets"})] = "butt"
    plinth: Annotated[Length | None, about("Plinth high", "Toes go under it; empty: none", least=0.01, blank="none")] = None
    plinth_back: Annotated[Length, about("Plinth back", "How far behind the front")] = Length(0.05)
    top: Annotated[Literal["board", "worktop", "lid", "none"], about("Top", "A lid is for benches and beds", words={"board": "a board", "worktop": "a worktop", "lid": "a lid", "none": "nothing"})] = "board"
    worktop: Annotated[Word, about("Worktop of", "Its sheet")] = "birch-ply"
    worktop_thick: Annotated[Length, about("Worktop thick", "It carries the sink", least=0.003)] = Length(0.018)
    slide: Annotated[Literal["side", "under-mount"], about("Slides", "Of drawers: their boxes are narrower by {12.7 mm} or {21 mm} a side", words={"side": "at the sides", "under-mount": "underneath"})] = "side"
    slide_rated: Annotated[Mass | None, about("Slides rated", "Of a pair, pulled out, by its data sheet")] = None
    bays: tuple[Bay, ...] = ()
    holes: tuple[BoardHole, ...] = ()


class BedBase(msgspec.Struct, frozen=True):
    """What carries a mattress. span: of boards or slats between bearers; bearers run over ``bearer_span``."""

    kind: Annotated[Literal["board", "slats"], about("Lies on", "One board, or slats", words={"board": "a board"})] = ("board")
    material: Annotated[Word, about("Of", "The board's sheet")] = "light-ply"
    thick: Annotated[Length, about("Thick", "Of board or slat", least=0.003)] = Length(0.012)
    slat: Annotated[Length, about("Slat wide", "Of one", least=0.02)] = Length(0.070)
    gap: Annotated[Length, about("Gaps", "Between slats; over {60 mm} each carries alone")] = Length(0.060)
    tied: Annotated[bool, about("Neighbours share", "Tied by the mattress over them")] = True
    span: Annotated[Length | None, about("Spans", "From bearer to bearer", least=0.05)] = None
    bearer_thick: Annotated[Length | None, about("Bearer thick", "Upright stick, seen", least=0.01)] = None
    bearer_deep: Annotated[Length | None, about("Bearer deep", "Upright stick, its height", least=0.01)] = None
    bearer_span: Annotated[Length | None, about("Bearer spans", "From support to support", least=0.05)] = None
    bearers: Annotated[Count, about("Bearers", "How many")] = 2


class Strut(msgspec.Struct, frozen=True):
    """Gas struts of a hatch or lid. Mounts in its side plane from the hinge [m]: x to its free end when level, z up.

    body_x, body_z stay; lid_x, lid_z are those of the shut lid.
    """

    shut: Annotated[Length, about("Long shut", "Eye to eye", least=0.05)] = Length(0.290)
    open: Annotated[Length, about("Long open", "Eye to eye", least=0.05)] = Length(0.485)
    stroke: Annotated[Length, about("Stroke", "Of its rod", least=0.02)] = Length(0.195)
    force_n: Annotated[Figure, about("Force each", "Nearly open, at {20 degC}, as printed on it", unit="N")] = 300.0
    many: Annotated[Count, about("Many", "Two share, and one holds for a moment when the other gives way")] = 2
    body_x: Annotated[Length, about("On the body, out", "From the hinge, toward the way it opens")] = Length(0.19)
    body_z: Annotated[Length, about("On the body, up", "From the hinge; under it is less than 0")] = Length(-0.40)
    lid_x: Annotated[Length, about("On the leaf, out", "From the hinge, shut")] = Length(0.017)
    lid_z: Annotated[Length, about("On the leaf, up", "From the hinge, shut; under it is less than 0")] = Length(-0.098)
    rise: Annotated[Figure, about("Grows by", "Times its force when pushed right in; 1.25 is usual", unit="×")] = 1.25
    friction_n: Annotated[Figure, about("Rubs", "Friction of one; {30 N} to {50 N}", unit="N")] = 40.0
    second: Annotated[Literal["", "prop", "pin", "ledge", "chain", "catch"], about("When one gives way", "What holds it then", words={"": "nobody said", "prop": "a prop", "pin": "a pin", "ledge": "a ledge", "chain": "a chain", "catch": "a catch", })] = ""


class Winch(msgspec.Struct, frozen=True):
    """Of a bed that is lifted. parts: of the rope; pins that hold it while somebody lies on it."""

    parts: Annotated[Few, about("Parts of rope", "That carry the load", least=1)] = 1
    sheaves: Annotated[Few, about("Sheaves", "A tenth of the pull is lost at each")] = 2
    drum: Annotated[Length, about("Drum radius", "With the rope's layers on it", least=0.005)] = Length(0.022)
    crank: Annotated[Length, about("Crank", "From its middle to the hand", least=0.05)] = Length(0.180)
    gear: Annotated[Figure, about("Gear", "Turns of the crank to one of the drum")] = 3.1
    rope_n: Annotated[Figure | None, about("Rope breaks at", "By its data sheet", unit="N")] = None
    pin_n: Annotated[Figure | None, about("A pin carries", "Four hold the bed while somebody lies on it", unit="N")] = None
    brake: Annotated[bool, about("Holds without a hand", "A brake, not a ratchet alone")] = False
    second: Annotated[Literal["", "prop", "pin", "ledge", "chain"], about("When a rope gives way", "What holds the bed up then", words={"": "nobody said", "prop": "a prop", "pin": "a pin", "ledge": "a ledge", "chain": "a chain"})] = ""


class PullOut(msgspec.Struct, frozen=True):
    """A kitchen, fridge or tray on slides. travel: how far out; rated: the pair at full travel; rows of screws apart."""

    travel: Annotated[Length, about("Comes out", "At full travel", least=0.05)]
    side: Annotated[Literal["front", "rear", "left", "right"], about("To the", "Of the unturned thing")] = "rear"
    rated: Annotated[Mass | None, about("Pair rated", "At full travel, by its data sheet")] = None
    rows: Annotated[Length, about("Screws apart", "Front row to rear row", least=0.05)] = Length(0.45)
    latch_n: Annotated[Figure | None, about("Latch holds", "What keeps it in on the road", unit="N")] = None
    screwed: Annotated[bool, about("Its cabinet is screwed down", "To the body, not only standing")] = False


class Lid(msgspec.Struct, frozen=True):
    """A lid or lifting bed that turns on a hinge along one side of its thing's top. angle: how far it opens."""

    hinge: Annotated[Literal["front", "rear", "left", "right"], about("Hinge at", "Which side of the thing's top")] = "front"
    opens_deg: Annotated[Count, about("Opens", "From shut", unit="°")] = 80
    mass: Annotated[Mass | None, about("Weighs", "With what lies on it; empty: its board", blank="its board")] = None
    strut: Strut | None = None
