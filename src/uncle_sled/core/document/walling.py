"""First sizes and places of walls, lofts and boxes inside a body, so that they stand where one would begin to draw them."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.document.edits import fresh_id, untyped_length
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.shell import Shell

USUAL_WHEEL_M, BESIDE_WHEEL_M = 0.6, 0.1  # of a tyre that nobody measured; of a box before and behind it
THICK_M, DOOR_M, HEAD_M, SILL_M = 0.045, 0.55, 1.80, 0.06
BUILT_M = 0.35  # floor, roof and a header over the door
LOW_EDGE = {"gable": 0.7, "shed": 0.7, "butterfly": 0.85, "profile": 0.8}  # of the height, where nobody said


def _taken(shell: Shell) -> list[str]:
    return [inner.id for inner in shell.inner] + [face.id for face in shell.faces] + [opening.id for opening in shell.openings]


def first_partition(shell: Shell, way: str) -> dict[str, Any]:
    """A wall across the body two thirds back, with a doorway; or one along it, beside the middle, in the rear third."""
    long = shell.length.si if shell.length else 3.0
    wide = shell.width.si if shell.width else 1.8
    tall = shell.height.si if shell.height else 1.9
    low = min(shell.eaves.si, tall) if shell.eaves else tall * LOW_EDGE.get(shell.form, 1.0)
    ids = _taken(shell)
    many = sum(1 for partition in shell.partitions if partition.way == way)
    record = {
        "id": fresh_id("i", ids),
        "name": f"Wall {way}" + (f" {many + 1}" if many else ""),
        "way": way,
        "thick": untyped_length(THICK_M),
    }
    if way == "across":
        door = min(DOOR_M, wide * 0.4)
        return {
            **record,
            "at": untyped_length(long * (0.66 + 0.08 * many) if many < 3 else long * 0.3),
            "door": "hinged",
            "door_width": untyped_length(door),
            "door_height": untyped_length(max(min(HEAD_M, low - BUILT_M), 0.3)),
        }
    return {**record, "at": untyped_length(wide * 0.5 + 0.1 * many), "start": untyped_length(long * 0.6)}


def first_loft(shell: Shell) -> dict[str, Any]:
    """A loft over the front, high enough to walk under where the body lets it."""
    long = shell.length.si if shell.length else 3.0
    tall = shell.height.si if shell.height else 2.0
    ids = _taken(shell)
    return {
        "id": fresh_id("i", ids),
        "name": "Loft" + (f" {len(shell.lofts) + 1}" if shell.lofts else ""),
        "front": untyped_length(long * 0.3 if shell.form == "profile" else SILL_M * 3),
        "rear": untyped_length(long * (0.6 if shell.form == "profile" else 0.4)),
        "top": untyped_length(min(1.9, tall * 0.55)),
        "thick": untyped_length(0.09),
    }


def first_wheel_boxes(build: Build) -> dict[str, Any] | None:
    """Boxes over all wheels with a hand's breadth before and behind; None where a trailer has no axle yet."""
    if not build.rig.axles and build.rig.carrier == "ball":
        return None
    stations = [axle.station.si for axle in build.rig.axles] or [0.0]
    wheel = build.rig.tyre.diameter.si if build.rig.tyre.diameter else USUAL_WHEEL_M
    long = max(stations) - min(stations) + wheel + 2 * BESIDE_WHEEL_M
    return {"length": {"si": round(long, 3)}, "width": {"si": 0.22}, "height": {"si": 0.22}}


def first_nose_box() -> dict[str, Any]:
    """A box on the drawbar of a usual size."""
    return {"length": {"si": 0.4}, "width": {"si": 0.9}, "height": {"si": 0.45}}
