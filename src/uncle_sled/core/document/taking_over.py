"""Something of another build taken into this one: a stop, a face's layers, a thing, a school with its changes by hand.

Ids are renewed where they are taken already, what comes along with it (people, cars, materials of one's own) comes too, and
what would lead nowhere is left out and said.
"""

from __future__ import annotations

from typing import Any, Literal

import msgspec
from msgspec.structs import replace

from uncle_sled.core.document.edits import fresh_id
from uncle_sled.core.document.project import Build, Facts, OwnMaterial, Project
from uncle_sled.core.document.references import referring_right
from uncle_sled.core.document.shell import Face, HandChange, Layer
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.words import lower_first, upper_first

Kind = Literal["stop", "layers", "thing", "school"]
STOPS = ("brief", "rig", "shell", "stow", "systems", "cut", "work", "road")


class Take(msgspec.Struct, frozen=True):
    """One thing that can be taken: of which kind, its id (a root's name for a stop), and what it is called."""

    kind: Kind
    id: str
    says: str


def takeable(build: Build) -> tuple[Take, ...]:
    """Everything that another build can take of this one, in the order of the trail."""
    made = [Take("stop", name, f"Stop: {name.capitalize()}") for name in STOPS]
    framing = build.shell.framing
    if framing.school != "none":
        many = len(framing.changes)
        hand = f", {many} {'change' if many == 1 else 'changes'} by hand" if many else ""
        made.append(Take("school", "framing", f"School: {framing.school}{hand}"))
    made += [Take("layers", face.id, f"Layers: {face.name}, {face.made_of or 'own'}") for face in build.shell.faces if face.layers]
    made += [Take("thing", thing.id, f"Thing: {thing.name}") for thing in build.stow.things]
    return tuple(made)


def taken_over(project: Project, source: Project, takes: tuple[Take, ...]) -> tuple[Project, tuple[str, ...]]:
    """The project with all of it taken into its open variant, and the loose ends in words."""
    said: list[str] = []
    for take in sorted(takes, key=lambda take: ("stop", "school", "layers", "thing").index(take.kind)):
        if take.kind == "stop":
            project = _stop(project, source, take.id, said)
        elif take.kind == "school":
            project = _school(project, source.build, said)
        elif take.kind == "layers":
            project = _layers(project, source, take.id, said)
        else:
            project = _thing(project, source.build, take.id, said)
    whole = {take.id for take in takes if take.kind == "stop"}
    if ("stow" in whole) != ("systems" in whole):
        project = _unwired(project, said)
    after, loose = referring_right(project)
    return after, (*said, *loose)


def _unwired(project: Project, said: list[str]) -> Project:
    """Things and wires of two builds: a wire must not end at another thing that only has the same id."""
    build = project.build
    systems = build.systems
    own = {load.id for load in systems.loads} | {device.id for device in systems.devices}
    wires = tuple(wire for wire in systems.wires if wire.start in own and wire.end in own)
    off, bonds = tuple(off_ for off_ in systems.off if off_.id in own), tuple(id for id in systems.bonds if id in own)
    gone = len(systems.wires) - len(wires)
    if gone:
        said.append(f"{gone} wires ended at things of the other build and were left out; Wire it up on Systems joins what is here.")
    return project.with_build(replace(build, systems=replace(systems, wires=wires, off=off, bonds=bonds, shaded=())))


def _stop(project: Project, source: Project, name: str, said: list[str]) -> Project:
    root = getattr(source.build, name)
    facts = project.facts
    if name == "brief":
        people, renamed = _added(facts.people, source.facts.people, "p")
        cars, cars_renamed = _added(facts.vehicles, source.facts.vehicles, "v")
        facts = replace(facts, people=people, vehicles=cars)
        root = replace(
            root,
            sleepers=tuple(renamed.get(id, id) for id in root.sleepers),
            vehicles=tuple(cars_renamed.get(id, id) for id in root.vehicles),
        )
    if name == "shell":
        facts, names = _materials(facts, source.facts, [layer.material for face in root.faces for layer in face.layers])
        root = replace(root, faces=tuple(_with_materials(face, names) for face in root.faces))
    build = replace(project.build, **{name: root})
    gone = [aside for aside in build.set_aside if name in ("shell", "stow", "rig")]
    if gone:
        said.append(f"{len(gone)} findings set aside may be of what is gone with the old {name}; look them over.")
    return replace(project, facts=facts).with_build(build)


def _added(own: tuple[Any, ...], others: tuple[Any, ...], letter: str) -> tuple[tuple[Any, ...], dict[str, str]]:
    """Others beside one's own, each once, and the new ids of those whose id was taken by somebody else."""
    made, renamed = list(own), dict[str, str]()
    for other in others:
        same = next((mine for mine in made if replace(mine, id="") == replace(other, id="")), None)
        if same is not None:
            renamed[other.id] = same.id
            continue
        id = other.id if all(mine.id != other.id for mine in made) else fresh_id(letter, [mine.id for mine in made])
        renamed[other.id] = id
        made.append(replace(other, id=id))
    return tuple(made), renamed


def _materials(facts: Facts, others: Facts, wanted: list[str]) -> tuple[Facts, dict[str, str]]:
    """The own materials that layers use, brought along under an id that is free here."""
    theirs = {each_material.id: each_material for each_material in others.materials}
    made, names = list[OwnMaterial](facts.materials), dict[str, str]()
    for id in dict.fromkeys(wanted):
        material = theirs.get(id)
        if material is None or any(mine == material for mine in made):
            continue
        free = id if all(mine.id != id for mine in made) else fresh_id("own", [mine.id for mine in made])
        names[id] = free
        made.append(replace(material, id=free))
    return replace(facts, materials=tuple(made)), names


def _with_materials(face: Face, names: dict[str, str]) -> Face:
    def named(layer: Layer) -> Layer:
        return replace(layer, material=names[layer.material]) if layer.material in names else layer

    return replace(face, layers=tuple(named(layer) for layer in face.layers)) if names else face


def _layers(project: Project, source: Project, id: str, said: list[str]) -> Project:
    theirs = next(face for face in source.build.shell.faces if face.id == id)
    build = project.build
    mine = [face for face in build.shell.faces if face.kind == theirs.kind]
    if not mine:
        said.append(f"There is no {theirs.kind} here to be made as the {lower_first(theirs.name)}; nothing was taken of it.")
        return project
    facts, names = _materials(project.facts, source.facts, [layer.material for layer in theirs.layers])
    theirs = _with_materials(theirs, names)
    faces = tuple(
        replace(face, layers=theirs.layers, made_of=theirs.made_of) if face.kind == theirs.kind else face for face in build.shell.faces
    )
    return replace(project, facts=facts).with_build(replace(build, shell=replace(build.shell, faces=faces)))


def _school(project: Project, source: Build, said: list[str]) -> Project:
    build = project.build
    theirs = source.shell.framing
    taken: list[str] = []
    changes: list[HandChange] = []
    for change in theirs.changes:
        id = fresh_id("h", taken)
        taken.append(id)
        changes.append(replace(change, id=id))
    if changes:
        said.append(f"{len(changes)} changes by hand came along; those whose stick is not here wait as findings until you drop them.")
    framing = replace(theirs, changes=tuple(changes))
    return project.with_build(replace(build, shell=replace(build.shell, framing=framing)))


def _thing(project: Project, source: Build, id: str, said: list[str]) -> Project:
    build = project.build
    theirs: Thing = next(thing for thing in source.stow.things if thing.id == id)
    fresh = fresh_id("t", [thing.id for thing in build.stow.things])
    if theirs.inside is not None:
        within = next((thing.name for thing in source.stow.things if thing.id == theirs.inside), theirs.inside)
        said.append(f"{upper_first(theirs.name)} stood in {lower_first(within)}; here it stands by itself.")
    states = [mode.name for mode in source.stow.modes if any(state.id == id for state in mode.states)]
    if states:
        said.append(f"{upper_first(theirs.name)} has another form in {', '.join(states)} there; say In hand where it has it here.")
    thing = replace(theirs, id=fresh, inside=None)
    return project.with_build(replace(build, stow=replace(build.stow, things=(*build.stow.things, thing))))
