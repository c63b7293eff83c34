"""What fits its field but makes no sense beside the rest of the build; neither a file nor an edit may bring it in."""

from __future__ import annotations

from collections.abc import Container

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.roles import at_odds
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.sameness import places_anew
from uncle_sled.core.sections import sections


def of_no_sense(project: Project, shipped: Container[str], before: Project | None = None) -> list[str]:
    """Each with its place, in words; nothing where all is well.

    Args:
        shipped: Ids of the materials that come with the program.
        before: A project without such faults; what is the same object in it is not looked at again.
    """
    faults = [] if project.variants else ["variants: there is none; a project holds at least one."]
    if project.variants and project.open_variant not in {b.id for b in project.variants}:
        faults.append(f"open_variant: there is no variant “{project.open_variant}”.")
    own = {material.id for material in project.facts.materials}
    same = before is not None and before.facts.materials == project.facts.materials
    known = {build.id: build for build in before.variants} if before is not None and same else {}
    for build in project.variants:
        if build is not (was := known.get(build.id)):
            faults += _wrong_build(build, was, shipped, own)
    return faults


def _wrong_build(build: Build, before: Build | None, shipped: Container[str], own: Container[str]) -> list[str]:
    where = f"variants.{build.id}"
    modes = {mode.id for mode in build.stow.modes}
    snow = build.brief.ground_snow_kpa
    faults = [f"{where}.brief.ground_snow_kpa: {snow:g} kPa is no snow; 0 to 25 would be right."] if snow is not None and snow > 25 else []
    faults += [
        f"{where}.rig.{name}: there is no section “{id}”."
        for name in ("rail", "cross", "drawbar")
        if (id := getattr(build.rig, name)) and id not in sections()
    ]
    faults += [
        f"{where}.{place}.{load.id}.roles: one thing cannot be “{odd[0]}” and “{odd[1]}”; one of the two would be right."
        for place, several, were in (
            ("stow.things", build.stow.things, before.stow.things if before else ()),
            ("systems.loads", build.systems.loads, before.systems.loads if before else ()),
        )
        for load in [several[at] for at in places_anew(were, several)]
        if (odd := at_odds(load.roles)) is not None
    ]
    return (
        faults
        + _wrong_shell(build.shell, f"{where}.shell", shipped, own)
        + [f"{where}.stow.cases.{case.id}.mode: there is no mode “{case.mode}”." for case in build.stow.cases if case.mode not in modes]
    )


def _wrong_shell(shell: Shell, where: str, shipped: Container[str], own: Container[str]) -> list[str]:
    faults = []
    for opening in shell.openings:
        for name in ("width", "height"):
            si = getattr(opening, name).si
            if si <= 0:
                faults.append(f"{where}.openings.{opening.id}.{name}: {si} cannot be cut; it must be more than 0.")
    for face in shell.faces:
        for layer in face.layers:
            if layer.material not in shipped and layer.material not in own:
                faults.append(f"{where}.faces.{face.id}.layers.{layer.id}.material: there is no material “{layer.material}”.")
    return faults
