"""Rig, as window, trail and finder see it."""

from __future__ import annotations

from uncle_sled.core.document.project import Project
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.benches.about import About, Shot


def standing(project: Project, s: Studied) -> tuple[str, str]:
    rig = project.build.rig
    if rig.carrier == "vehicle bed":
        return ("vehicle's bed", "good") if rig.bed.wheelbase else ("not begun", "none")
    return (rig.base, "good") if rig.axles else ("not begun", "none")


ABOUT = About(
    "Rig",
    "uncle_sled.desk.benches.rig.bench:RigBench",
    standing,
    mouse=("Drag the wheel while it is not welded",),
    shots=(Shot("2-rig"),),
    drawn=True,
)
