"""Which faces of the body a thing stands against: measured from the inside of each to the thing's box as it is turned."""

from __future__ import annotations

from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.parts.from_stow import standing_size_m
from uncle_sled.core.parts.inside import thickness_m

AGAINST_M = 0.06  # nearer to a wall than this it lies against it


def gaps_m(shell: Shell, framed: Framed, thing: Thing) -> dict[str, float]:
    """How far a thing's box is from the inside of each upright face, by the face's kind [m]; none without a body."""
    body = framed.body
    if body is None:
        return {}
    half = body.width / 2
    along, across, _ = standing_size_m(thing, thing.turn)
    return {
        "left side": half - thickness_m(shell, "left side") + (thing.y.si - across / 2),
        "right side": half - thickness_m(shell, "right side") - (thing.y.si + across / 2),
        "front": thing.x.si - body.front - thickness_m(shell, "front"),
        "rear": body.front + body.length - thickness_m(shell, "rear") - thing.x.si - along,
    }


def faces_by(shell: Shell, framed: Framed, thing: Thing) -> tuple[str, ...]:
    """Kinds of the faces that a thing's box is within 60 mm of; none without a body."""
    return tuple(face for face, gap in gaps_m(shell, framed, thing).items() if gap < AGAINST_M)
