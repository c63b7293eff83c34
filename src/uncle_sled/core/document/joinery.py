"""What is made of boards: carcasses with bays and fronts, bed bases, struts, winches, slides. Sizes are those of the thing."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Word
from uncle_sled.core.document.quantity import Length, Mass

Front = Literal["open", "hinged left", "hinged right", "pair", "sliding", "lift-up", "drop-down", "drawers"]
CutBoard = Literal["worktop", "back", "left end", "right end", "bottom"]


class Bay(msgspec.Struct, frozen=True):
    """One bay of a carcass, from the left as one stands before it. width: clear; empty, it shares what is left."""

    id: Word
    front: Front = "open"
    width: Length | None = None
    shelves: Count = 0
    drawers: Count = 3  # where its front is drawers


class BoardHole(msgspec.Struct, frozen=True):
    """What is cut out of a board: sink, stove, vent, wires. along, up: its near corner from the board's left, low (front) edge."""

    id: Word
    name: Word
    board: CutBoard
    along: Length
    up: Length
    width: Length
    height: Length
    round: bool = False


class Cabinet(msgspec.Struct, frozen=True):
    """A carcass in the box of its thing. opens: the side of the unturned thing that one stands before.

    top: a board between the ends, a worktop over it, a lid (of a bench or bed box), or nothing.
    joint: boards butted, or let into rebates half as deep as they are thick.
    """

    opens: Literal["front", "rear", "left", "right"] = "rear"
    board: Word = "light-ply"
    thick: Length = Length(0.012)
    back: Word = "light-ply"
    back_thick: Length = Length(0.004)  # 0: no back
    joint: Literal["butt", "rebate", "pocket holes"] = "butt"
    plinth: Length | None = None
    plinth_back: Length = Length(0.05)
    top: Literal["board", "worktop", "lid", "none"] = "board"
    worktop: Word = "birch-ply"
    worktop_thick: Length = Length(0.018)
    slide: Literal["side", "under-mount"] = "side"
    slide_rated: Mass | None = None  # of a pair, pulled out
    bays: tuple[Bay, ...] = ()
    holes: tuple[BoardHole, ...] = ()


class BedBase(msgspec.Struct, frozen=True):
    """What carries a mattress. span: of boards or slats between bearers; bearers run over ``bearer_span``."""

    kind: Literal["board", "slats"] = "board"
    material: Word = "light-ply"  # of the board
    thick: Length = Length(0.012)  # of board or slat
    slat: Length = Length(0.070)  # wide
    gap: Length = Length(0.060)  # between slats
    tied: bool = True  # by a mattress, so that neighbours share
    span: Length | None = None
    bearer_thick: Length | None = None
    bearer_deep: Length | None = None
    bearer_span: Length | None = None
    bearers: Count = 2


class Strut(msgspec.Struct, frozen=True):
    """Gas struts of a hatch or lid. Mounts in its side plane from the hinge [m]: x to its free end when level, z up.

    body_x, body_z stay; lid_x, lid_z are those of the shut lid.
    """

    shut: Length = Length(0.290)
    open: Length = Length(0.485)
    stroke: Length = Length(0.195)
    force_n: Figure = 300.0
    many: Count = 2
    body_x: Length = Length(0.19)
    body_z: Length = Length(-0.40)
    lid_x: Length = Length(0.017)
    lid_z: Length = Length(-0.098)
    rise: Figure = 1.25  # of the force, pushed right in
    friction_n: Figure = 40.0
    second: Literal["", "prop", "pin", "catch", "ledge", "chain"] = ""  # what holds it when a strut gives way


class Winch(msgspec.Struct, frozen=True):
    """Of a bed that is lifted. parts: of the rope; pins that hold it while somebody lies on it."""

    parts: Count = 1
    sheaves: Count = 2
    drum: Length = Length(0.022)  # radius, with its layers
    crank: Length = Length(0.180)
    gear: Figure = 3.1
    rope_n: Figure | None = None  # breaks at
    pin_n: Figure | None = None  # one carries
    brake: bool = False  # holds by itself without a hand
    second: Literal["", "prop", "pin", "ledge", "chain"] = ""  # what holds the bed up when a rope gives way


class PullOut(msgspec.Struct, frozen=True):
    """A kitchen, fridge or tray on slides. travel: how far out; rated: the pair at full travel; rows of screws apart."""

    travel: Length
    side: Literal["front", "rear", "left", "right"] = "rear"
    rated: Mass | None = None
    rows: Length = Length(0.45)
    latch_n: Figure | None = None
    screwed: bool = False  # its cabinet to the body


class Lid(msgspec.Struct, frozen=True):
    """A lid or lifting bed that turns on a hinge along one side of its thing's top. angle: how far it opens."""

    hinge: Literal["front", "rear", "left", "right"] = "front"
    opens_deg: Count = 80
    mass: Mass | None = None  # with what lies on it; empty: of its boards
    strut: Strut | None = None
