"""The body: its side profile swept over a width, with a mass for each face."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Source

FaceKind = Literal["floor", "left side", "right side", "roof", "front", "rear", "bulkhead", "other"]


class ProfileNode(msgspec.Struct, frozen=True):
    """A corner or a smooth point of the profile, as shares of the body's length and height.

    u runs aft from the front, v up from the floor; the handles are where the cubic
    curves before and after the node aim, in the same shares.
    """

    u: float
    v: float
    in_u: float
    in_v: float
    out_u: float
    out_v: float


class Layer(msgspec.Struct, frozen=True):
    """One layer of a face, outside first; ``framing`` is the share of it that is timber."""

    id: str
    material: str
    thickness: Length
    framing: float = 0.0


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


class Shell(msgspec.Struct, frozen=True):
    """A body standing on the frame or bed, or none yet."""

    form: Literal["none", "profile", "box"] = "none"
    front: Length | None = None
    length: Length | None = None
    width: Length | None = None
    height: Length | None = None
    floor: Length | None = None
    wall: Length | None = None
    profile: tuple[ProfileNode, ...] = ()
    faces: tuple[Face, ...] = ()
