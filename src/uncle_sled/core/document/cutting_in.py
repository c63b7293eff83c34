"""First sizes and places of what is cut into a body, so that it lands where one would begin to draw it."""

from __future__ import annotations

from typing import Any

import msgspec

from uncle_sled.core.document.edits import fresh_id, next_name, untyped_length
from uncle_sled.core.document.shell import Shell

# Kind: name, face, width, height [m].
FIRST: dict[str, tuple[str, str, float, float]] = {
    "door": ("Door", "right side", 0.70, 0.95),
    "barn doors": ("Barn doors", "rear", 1.40, 1.70),
    "hatch": ("Tail hatch", "rear", 1.20, 0.70),
    "window": ("Window", "left side", 0.55, 0.40),
    "vent": ("Roof vent", "roof", 0.40, 0.40),
    "light": ("Outside light", "left side", 0.08, 0.08),
    "gland": ("Cable gland", "left side", 0.03, 0.03),
    "screw row": ("Screw row", "roof", 1.00, 0.01),
}
CURVED_NAME = "Tail hatch"
CURVED = "hatch over the curve"
KINDS = tuple(FIRST)
# How each is usually closed against rain, for a first plan; it is changed In hand.
SEALED = {
    "door": "bulb",
    "hatch": "two lines",
    "window": "tape",
    "vent": "tape",
    "light": "sealant",
    "gland": "sealant",
    "screw row": "sealant",
}
PAIRS = {"barn doors": "door"}  # two leaves, each half as wide
STEP_M, EDGE_M, BESIDE_M = 0.05, 0.03, 0.10


def first_opening(shell: Shell, kind: str) -> dict[str, Any]:
    """A new opening of a kind as plain data: in the middle of its usual face, no larger than that has room for."""
    name, face, wide, high = FIRST[kind]
    long = shell.length.si if shell.length else 3.0
    tall = shell.height.si if shell.height else 1.2
    if shell.form in ("gable", "shed", "butterfly", "bevelled", "flat"):
        # the walls are lower than the ridge
        tall = min(shell.eaves.si, tall) if shell.eaves else tall * 0.7
    across = shell.width.si if shell.width else 1.6
    if kind == "door" and tall > 1.8:
        wide, high = 0.75, 1.75
    run, rise = (across, tall) if face in ("front", "rear") else (long, across if face == "roof" else tall)
    most = (0.9 if kind in PAIRS else 0.6, 0.7)
    wide, high = min(wide, run * most[0]), min(high, rise * most[1])
    if face == "rear":
        up = min(0.15, rise * 0.1)
    elif kind == "door":
        up = min(0.1, rise * 0.1)
    else:
        up = (rise - high) / 2 if face == "roof" else rise * 0.45
    if face == "roof" and shell.form in ("gable", "butterfly"):
        up = max(across / 4 - high / 2, 0.05)  # on the left slope, clear of ridge and valley

    return {
        "id": fresh_id("o", [o.id for o in shell.openings]),
        "kind": PAIRS.get(kind, kind),
        "name": next_name(name, [o.name for o in shell.openings]),
        "face": face,
        "along": untyped_length(_free_along(shell, face, (wide, high), up, run)),
        "up": untyped_length(up),
        "width": untyped_length(wide),
        "height": untyped_length(high),
        "seal": SEALED[PAIRS.get(kind, kind)],
        "drip": kind in ("door", "barn doors", "window", "hatch"),  # over what stands in a wall
        **({"hung": "pair"} if kind in PAIRS else {}),
    }


def hatch_over_curve(shell: Shell, hinge: float, foot: float, long: float) -> tuple[dict[str, Any], dict[str, Any]]:
    """Where the tail begins, and a hatch of one's own from there down over the curve, as plain data.

    Args: hinge: its station from the body's front; foot: its lower edge over the underside; long: along the skin [m].
    """
    wide = (shell.width.si if shell.width else 1.6) - 2 * EDGE_M
    begins = untyped_length(hinge)
    taken = [o.id for o in shell.openings]

    hatch = {
        "id": fresh_id("o", taken),
        "kind": "hatch",
        "name": next_name(CURVED_NAME, [o.name for o in shell.openings]),
        "face": "rear",
        "along": untyped_length(EDGE_M),
        "up": untyped_length(foot),
        "width": untyped_length(wide),
        "height": untyped_length(long),
        "hung": "top",
        "seal": SEALED["hatch"],
        "drip": True,
        "leaf": {"stick": {"thick": {"si": 0.018}, "deep": {"si": 0.025}}, "skin_thick": {"si": 0.003}},
    }
    return begins, hatch


def _free_along(shell: Shell, face: str, size: tuple[float, float], up: float, run: float, wanted: float | None = None) -> float:
    """What is wanted, or the middle of the face, or the nearest place to it that no other opening takes [m]."""
    wide, high = size
    others = [(o.along.si, o.up.si, o.along.si + o.width.si, o.up.si + o.height.si) for o in shell.openings if o.face == face]
    middle = (run - wide) / 2 if wanted is None else wanted
    steps = [k * STEP_M * sign for k in range(int(run / STEP_M) + 1) for sign in (1, -1)]
    for by in steps:
        along = middle + by
        if EDGE_M <= along <= run - wide - EDGE_M and not any(
            along < right + BESIDE_M and along + wide > left - BESIDE_M and up < top and up + high > low for left, low, right, top in others
        ):
            return along
    return middle


def on_the_other_side(shell: Shell, id: str) -> dict[str, Any] | None:
    """The twin of an opening across from it, or beside what is there, as plain data; None for what is in no side wall."""
    opening = next((o for o in shell.openings if o.id == id), None)
    sides = {"left side": "right side", "right side": "left side"}
    if opening is None or opening.face not in sides:
        return None
    face, run = sides[opening.face], shell.length.si if shell.length else opening.along.si + opening.width.si
    along = _free_along(shell, face, (opening.width.si, opening.height.si), opening.up.si, run, opening.along.si)
    moved = {} if along == opening.along.si else {"along": {"si": round(along, 4), "typed": None}}
    return {
        **msgspec.to_builtins(opening),
        **moved,
        "id": fresh_id("o", [o.id for o in shell.openings]),
        "name": f"{opening.name}, {sides[opening.face].removesuffix(' side')}",
        "face": sides[opening.face],
    }
