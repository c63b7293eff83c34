"""What comes off a trailer that was weighed with it: tailgate, ramps, shelves. It goes on counting, negative, where it was."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.edits import fresh_id, next_name, untyped_length
from uncle_sled.core.document.project import Build

# Kind: name, along, across, high [m] (0: as wide as the trailer), usual weight [kg], where: at the tail, under it, or inside.
USUAL: dict[str, tuple[str, tuple[float, float, float], float, str]] = {
    "tailgate": ("Tailgate", (0.05, 0.0, 0.6), 20.0, "tail"),
    "ramp": ("Ramp door", (0.06, 0.0, 1.7), 45.0, "tail"),
    "shelves": ("Shelves", (1.2, 0.4, 0.3), 15.0, "inside"),
    "rack": ("Roof rack", (1.5, 1.2, 0.1), 18.0, "over"),
    "other": ("What came off", (0.5, 0.5, 0.3), 10.0, "inside"),
}
WORDS = {"tailgate": "a tailgate", "ramp": "a ramp door", "shelves": "shelves", "rack": "a roof rack", "other": "something else"}
INSIDE_M = 1.0  # of height, where no body is drawn yet


def came_off(build: Build, kind: str) -> dict[str, Any]:
    """A thing that was weighed with the trailer and is gone, as plain data: usual size and weight, where such a thing is."""
    name, (long, wide, high), mass, where = USUAL[kind]
    rig, shell = build.rig, build.shell
    front = shell.front.si if shell.front else 1.2
    length = shell.length.si if shell.length else rig.frame_length.si - front if rig.frame_length else 3.0
    width = shell.width.si if shell.width else rig.frame_width.si if rig.frame_width else 1.6
    low = shell.floor.si if shell.floor else rig.frame_top.si if rig.frame_top else 0.5
    tall = shell.height.si if shell.height else INSIDE_M
    x = front + length - long if where == "tail" else front + (length - long) / 2
    z = low + tall if where == "over" else low + (tall - high) / 2 if where == "inside" else low

    return {
        "id": fresh_id("off", [thing.id for thing in build.stow.things]),
        "name": next_name(name, [thing.name for thing in build.stow.things]),
        "kind": "gear",
        "length": untyped_length(long),
        "width": untyped_length(wide or width),
        "height": untyped_length(min(high, tall) if where != "over" else high),
        "x": untyped_length(x),
        "y": untyped_length(0.0),
        "z": untyped_length(max(z, 0.0)),
        "mass": {"si": mass, "typed": None},
        "source": "guessed",
        "stays": True,
        "outside": where != "inside",
        "taken_out": True,
    }
