"""What nobody gave, and what therefore cannot be told: an unknown weight or place never stands in as nothing."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.engine import keep_last
from uncle_sled.core.parts.frame_steel import frame_kg
from uncle_sled.core.words import lower_first

Hides = Literal["reading", "total"]


class Unknown(msgspec.Struct, frozen=True):
    """One field that is empty: ``hides`` the reading (the whole is still known), or a weight that the total lacks.

    says: what is missing, as the middle of a sentence; ask: what to do about it.
    """

    field: str
    says: str
    ask: str
    hides: Hides
    short: str = ""  # for where there is room for a few words only


@keep_last(8)
def _of_rig(rig: Rig) -> tuple[Unknown, ...]:
    return tuple(_bed(rig) if rig.carrier == "vehicle bed" else _trailer(rig))


def unknowns_of(build: Build) -> tuple[Unknown, ...]:
    """Everything empty that a reading needs, what hides the reading first. Nothing at all given is no unknown."""
    return (*_of_rig(build.rig), *_of_shell(build.shell, build.rig.carrier == "ball" and build.rig.base == "as bought"))


@keep_last(8)
def _of_shell(shell: Shell, weighed_whole: bool) -> tuple[Unknown, ...]:
    """Faces of an own body that have neither layers nor a weight; those of a bought shell were weighed with it."""
    if shell.form == "none" or weighed_whole:
        return ()
    return tuple(
        Unknown(
            f"shell.faces.{face.id}.mass",
            f"what the {lower_first(face.name)} weighs",
            "Give it layers on Shell, or type its weight.",
            "total",
        )
        for face in shell.faces
        if face.mass is None and not face.layers
    )


def _trailer(rig: Rig) -> list[Unknown]:
    found = []
    if rig.base == "as bought":
        if rig.bought_total is None or rig.bought_total.si <= 0:
            if rig.axles:
                found.append(
                    Unknown(
                        "rig.bought_total",
                        "what the bought trailer weighs",
                        "Weigh it, or type what its papers say.",
                        "reading",
                    )
                )
        elif rig.bought_ball is None:
            found.append(
                Unknown(
                    "rig.bought_ball",
                    "what stood on the ball when the trailer was weighed",
                    "Weigh its ball on a bathroom scale at the height it is towed at, and type it on Rig.",
                    "reading",
                    "ball not weighed",
                )
            )
        return found
    if frame_kg(rig) and not rig.frame_length and not rig.frame_cg:
        found.append(
            Unknown(
                "rig.frame_length",
                "where the frame's weight is",
                "Type the frame's length, or where its weight is, on Rig.",
                "reading",
                "frame without place",
            )
        )
    if frame_kg(rig) is None and rig.axles:
        found.append(
            Unknown(
                "rig.frame_mass",
                "what the frame weighs",
                "Type it on Rig, or the section of its rails; 0 where there is none.",
                "total",
            )
        )
    found += [
        Unknown(
            f"rig.axles.{axle.id}.mass",
            "what the axle with its wheels weighs" if len(rig.axles) == 1 else f"what axle {at} with its wheels weighs",
            "Type it on Rig; the maker's sheet has it.",
            "total",
        )
        for at, axle in enumerate(rig.axles, 1)
        if axle.mass is None
    ]
    return sorted(found, key=lambda one: one.hides != "reading")


def _bed(rig: Rig) -> list[Unknown]:
    bed = rig.bed
    return [
        Unknown(
            f"rig.bed.{field}",
            f"what stands on the vehicle's {name} axle while it is empty",
            "Its papers say so, or one axle at a time on a public scale does.",
            "reading",
            f"{name} axle not weighed",
        )
        for field, name, mass in (("front_empty", "front", bed.front_empty), ("rear_empty", "rear", bed.rear_empty))
        if bed.wheelbase and mass is None
    ]
