"""Every hole in the skin: where it is, how it is sealed, how long its seam is. Water finds the one that is left out."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.shell import Opening
from uncle_sled.core.reading.studied import Studied

# The seal that is usual for what is put into a hole.
USUAL_SEAL = {
    "door": "bulb",
    "hatch": "two lines",
    "window": "tape",
    "vent": "tape",
    "light": "sealant",
    "gland": "sealant",
    "screw row": "sealant",
}
SEALS = {"none": "none yet", "bulb": "bulb seal", "two lines": "two lines of seal", "tape": "butyl tape", "sealant": "sealant"}
DRIPS = ("door", "hatch", "window")  # what wants a drip edge over it on a wall
SCREW_PITCH_M = 0.15


class Hole(msgspec.Struct, frozen=True):
    """One hole with its seam [m]; ``many`` counts screws of a row."""

    opening: Opening
    seam_m: float
    on_roof: bool
    many: int
    wants_drip: bool


def holes(s: Studied) -> tuple[Hole, ...]:
    """All holes in the skin, those in the roof first."""
    made = []
    for opening in s.build.shell.openings:
        long = max(opening.width.si, opening.height.si)
        many = int(long / SCREW_PITCH_M) + 1 if opening.kind == "screw row" else 1
        made.append(
            Hole(
                opening,
                2 * (opening.width.si + opening.height.si),
                opening.face == "roof",
                many,
                opening.kind in DRIPS and opening.face not in ("roof", "floor"),
            )
        )
    return tuple(sorted(made, key=lambda h: not h.on_roof))
