"""First sizes and places of what is cut into a body, so that it lands where one would begin to draw it."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.edits import fresh_id
from uncle_sled.core.document.shell import Shell

# Kind: name, face, width, height [m].
FIRST: dict[str, tuple[str, str, float, float]] = {
    "door": ("Door", "right side", 0.70, 0.95),
    "hatch": ("Tail hatch", "rear", 1.20, 0.70),
    "window": ("Window", "left side", 0.55, 0.40),
    "vent": ("Roof vent", "roof", 0.40, 0.40),
    "light": ("Outside light", "left side", 0.08, 0.08),
    "gland": ("Cable gland", "left side", 0.03, 0.03),
    "screw row": ("Screw row", "roof", 1.00, 0.01),
}
KINDS = tuple(FIRST)


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
    wide, high = min(wide, run * 0.6), min(high, rise * 0.7)
    if face == "rear":
        up = min(0.15, rise * 0.1)
    elif kind == "door":
        up = min(0.1, rise * 0.1)
    else:
        up = (rise - high) / 2 if face == "roof" else rise * 0.45
    if face == "roof" and shell.form in ("gable", "butterfly"):
        up = max(across / 4 - high / 2, 0.05)  # on the left slope, clear of ridge and valley
    same = [o.name for o in shell.openings]
    many = sum(1 for one in same if one.startswith(name))

    def length(si: float) -> dict[str, Any]:
        return {"si": round(si, 3), "typed": None}

    return {
        "id": fresh_id("o", [o.id for o in shell.openings]),
        "kind": kind,
        "name": name if not many else f"{name} {many + 1}",
        "face": face,
        "along": length((run - wide) / 2),
        "up": length(up),
        "width": length(wide),
        "height": length(high),
    }
