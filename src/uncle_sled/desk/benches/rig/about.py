"""Rig, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Shot


def standing(project: Project, s: Studied) -> tuple[str, str]:
    rig = project.build.rig
    if rig.carrier == "vehicle bed":
        return ("vehicle's bed", "good") if rig.bed.wheelbase else ("not begun", "none")
    if any(unknown.field.startswith("rig") for unknown in s.unknown):
        return "not all known", "none"
    return (rig.base, "good") if rig.axles else ("not begun", "none")


WORDS = ("ball", "jack", "rig", "wheels", "tyre", "front-axle", "rear-axle")


def shows(s: Studied, id: str) -> str | None:
    return "" if id in WORDS or any(axle.id == id for axle in s.build.rig.axles) else None


ABOUT = About(
    "Rig",
    "uncle_sled.desk.benches.rig.bench:RigBench",
    standing,
    mouse=("Drag the wheel while it is not welded", "Click a measure and type; Tab goes to the next"),
    shots=(Shot("2-rig"),),
    drawn=True,
    shows=shows,
)
