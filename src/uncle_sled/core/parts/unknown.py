"""What nobody gave, and what therefore cannot be told: an unknown weight or place never stands in as nothing."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.project import Build, Facts, OwnMaterial
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Stow
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.frame_steel import frame_kg
from uncle_sled.core.words import lower_first

Hides = Literal["reading", "total", "axles"]


class Unknown(msgspec.Struct, frozen=True):
    """One field that is empty: ``hides`` the reading (the whole is still known), a weight that the total lacks, or how
    independent axles share what stands on them.

    says: what is missing, as the middle of a sentence; ask: what to do about it.
    """

    field: str
    says: str
    ask: str
    hides: Hides
    short: str = ""  # for where there is room for a few words only


@keep(most=8)
def _of_rig(rig: Rig) -> tuple[Unknown, ...]:
    return tuple(_bed(rig) if rig.carrier == "vehicle bed" else _trailer(rig))


def unknowns_of(build: Build, facts: Facts) -> tuple[Unknown, ...]:
    """Everything empty that a reading needs, what hides the reading first. Nothing at all given is no unknown."""
    weighed = build.rig.carrier == "ball" and build.rig.base == "as bought"
    return (
        *_of_rig(build.rig),
        *_of_shell(build.shell, weighed),
        *_of_materials(build.shell, facts.materials),
        *_of_linings(build.shell),
        *_of_tanks(build.stow),
    )


@keep(most=8)
def _of_materials(shell: Shell, own: tuple[OwnMaterial, ...]) -> tuple[Unknown, ...]:
    """Materials of one's own in the body, of which nobody said what they weigh."""
    blank = {material.id: material for material in own if material.density_kg_m3 is None and material.kg_m2 is None}
    if not blank:
        return ()
    used = {layer.material for face in shell.faces if face.mass is None for layer in face.layers}
    used |= {id for relining in shell.relined for id in (relining.foam, relining.liner) if id}
    used |= {shell.framing.material}
    return tuple(
        Unknown(
            f"facts.materials.{id}.density_kg_m3",
            f"what {blank[id].name} weighs",
            "Type its weight for each m3 or m2 under Materials, from its data sheet.",
            "total",
            "material without weight",
        )
        for id in sorted(used & blank.keys())
    )


@keep(most=8)
def _of_linings(shell: Shell) -> tuple[Unknown, ...]:
    """Linings that come out of a bought shell and that nobody weighed."""
    return tuple(
        Unknown(
            f"shell.relined.{relining.id}.out_mass",
            f"what came off the {relining.face} weighs",
            "Weigh the old lining, or type its material and thickness on Shell.",
            "total",
            "old lining not weighed",
        )
        for relining in shell.relined
        if relining.out_mass is None and bool(relining.out_material) != bool(relining.out_thickness and relining.out_thickness.si > 0)
    )


@keep(most=8)
def _of_tanks(stow: Stow) -> tuple[Unknown, ...]:
    """Tanks that ride along and of which nobody said how much they hold."""
    return tuple(
        Unknown(
            f"stow.things.{thing.id}.tank.volume",
            f"how much {lower_first(thing.name)} holds",
            "Type its volume In hand, as it stands on it or by its inside.",
            "total",
            "tank without volume",
        )
        for thing in stow.things
        if thing.tank is not None and not thing.taken_out and not thing.rides and (thing.tank.volume is None or thing.tank.volume.si <= 0)
    )


@keep(most=8)
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
                    Unknown("rig.bought_total", "what the bought trailer weighs", "Weigh it, or type what its papers say.", "reading")
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
        return [*found, *_height(rig)]
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
                "Weigh it or type it on Rig, or the section of its rails; no frame weighs 0.",
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
    found += _height(rig)
    return sorted(found, key=lambda unknown: unknown.hides != "reading")


def _height(rig: Rig) -> list[Unknown]:
    """Independent axles share by the height of the nose; level is a guess that two axles do not forgive."""
    if rig.suspension != "independent" or len(rig.axles) < 2 or rig.ball_height is not None:
        return []
    return [
        Unknown(
            "rig.ball_height",
            "how high the ball rides",
            "Measure the car's ball over the ground and type it on Rig: independent axles share by the height of the nose.",
            "axles",
            "ball height not given",
        )
    ]


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
