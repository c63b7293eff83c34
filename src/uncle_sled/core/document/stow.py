"""Things of real size in the body or on the rig, and the modes they are put in."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.rig import Source

Kind = Literal[
    "tank",
    "battery",
    "solar",
    "charger",
    "appliance",
    "cabinet",
    "bed",
    "furniture",
    "gear",
    "outside carrier",
    "vehicle aboard",
    "kit",
    "spare wheel",
]
Contents = Literal["fresh", "grey", "black", "gas", "petrol", "diesel"]


class Tank(msgspec.Struct, frozen=True):
    """What a tank holds; its outside is the box of its thing."""

    volume: Volume | None = None
    contents: Contents = "fresh"


class Thing(msgspec.Struct, frozen=True):
    """A box of real size: ``x`` its front edge, ``y`` its middle, ``z`` its underside."""

    id: str
    name: str
    kind: Kind
    length: Length
    width: Length
    height: Length
    x: Length
    y: Length
    z: Length
    mass: Mass
    source: Source = "estimated"
    turn: Literal[0, 90, 180, 270] = 0
    # weight at: offset of the centre of gravity from the middle of the unturned box
    cg_dx: Length | None = None
    cg_dy: Length | None = None
    cg_dz: Length | None = None
    tank: Tank | None = None
    cargo: bool = False
    outside: bool = False
    stays: bool = False
    taken_out: bool = False  # was weighed with the bought shell and is gone: counts negative
    held_by: str = ""


class Place(msgspec.Struct, frozen=True):
    """Where a thing is in one mode, when not at home."""

    id: str  # the thing's
    x: Length
    y: Length
    z: Length
    turn: Literal[0, 90, 180, 270] = 0


class Mode(msgspec.Struct, frozen=True):
    """Road, camp or cargo: which things are elsewhere, and which are not aboard."""

    id: str
    name: str
    towing: bool = True
    places: tuple[Place, ...] = ()
    absent: tuple[str, ...] = ()


class Level(msgspec.Struct, frozen=True):
    """How full a tank is in one load case, 0 to 1."""

    id: str  # the tank's thing
    level: float


class Aboard(msgspec.Struct, frozen=True):
    """Whether a thing rides along in one load case."""

    id: str
    aboard: bool


class LoadCase(msgspec.Struct, frozen=True):
    """One named state of tanks and cargo."""

    id: str
    name: str
    mode: str
    stage: Literal["bare shell", "as built", "loaded"] = "loaded"
    levels: tuple[Level, ...] = ()
    aboard: tuple[Aboard, ...] = ()


class Stow(msgspec.Struct, frozen=True):
    things: tuple[Thing, ...] = ()
    modes: tuple[Mode, ...] = (Mode("road", "Road", True), Mode("camp", "Camp", False))
    cases: tuple[LoadCase, ...] = ()  # the builder's own; the standing ones are made
