"""Ids that name what is not there, or lead round in a ring: taken out, each with its place, and said.

What is deleted takes along what was said of it; a file is read the same way.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection
from typing import Any, TypeVar

import msgspec

from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.stow import LoadCase, Mode, Stow, Thing
from uncle_sled.core.document.systems import Systems
from uncle_sled.core.sameness import places_changed

S = TypeVar("S", bound=msgspec.Struct)


def referring_right(project: Project, before: Project | None = None) -> tuple[Project, tuple[str, ...]]:
    """The project without references to what is not there, in a ring or told twice; and what was left out, in words.

    Args: before: a project that refers right already; what is the same object in it is not looked at again.
    """
    said: list[str] = []
    ids = [build.id for build in project.variants]
    people, vehicles = {person.id for person in project.facts.people}, {vehicle.id for vehicle in project.facts.vehicles}
    parents = {build.id: build.parent for build in project.variants}
    builds = []
    right = _right_before(project, before)
    for build in project.variants:
        if id(build) in right:
            builds.append(build)
            continue
        where = f"variants.{build.id}"
        brief = changed(
            build.brief,
            sleepers=_known(build.brief.sleepers, people, f"{where}.brief.sleepers", "person", said),
            vehicles=_known(build.brief.vehicles, vehicles, f"{where}.brief.vehicles", "vehicle", said),
        )
        parent = build.parent
        if parent is not None and (parent not in ids or _in_ring(build.id, parents)):
            why = "there is no such variant" if parent not in ids else "it comes from itself by that"
            said.append(f"{where}.parent: “{parent[:60]}” was left out, {why}.")
            parent = parents[build.id] = None
        stow = _stow(build, f"{where}.stow", said)
        systems = _systems(build, f"{where}.systems", said)
        builds.append(changed(build, brief=brief, parent=parent, stow=stow, systems=systems))
    return (changed(project, variants=tuple(builds)), tuple(said))


def _right_before(project: Project, before: Project | None) -> set[int]:
    """Which builds need no look: they were looked at, with the people, vehicles and variants that there are."""
    if before is None or [build.id for build in before.variants] != [build.id for build in project.variants]:
        return set()
    if before.facts.people != project.facts.people or before.facts.vehicles != project.facts.vehicles:
        return set()
    return {id(build) for was, build in zip(before.variants, project.variants, strict=True) if build is was or _as_right(build, was)}


def _as_right(build: Build, was: Build) -> bool:
    """Whether a build differs from one that refers right in nothing that refers or is referred to."""
    now, before = build.stow, was.stow
    if now.modes is not before.modes or now.cases is not before.cases or len(now.things) != len(before.things):
        return False
    if now.arranging is not before.arranging:
        return False
    if build.parent != was.parent or build.brief is not was.brief or build.systems is not was.systems:
        return False
    if build.shell is not was.shell and [o.id for o in build.shell.openings] != [o.id for o in was.shell.openings]:
        return False
    pairs = ((now.things[at], before.things[at]) for at in places_changed(before.things, now.things))
    return all(a.id == b.id and a.inside == b.inside and a.states == b.states for a, b in pairs)


def _stow(build: Build, where: str, said: list[str]) -> Stow:
    stow = build.stow
    things = {thing.id: thing for thing in stow.things}
    inside = {thing.id: thing.inside for thing in stow.things}
    kept = list(stow.things)
    for at, thing in enumerate(kept):
        within = thing.inside
        if within is not None and (within not in things or _in_ring(thing.id, inside)):
            why = "there is no such thing" if within not in things else "the two would stand inside each other"
            said.append(f"{where}.things.{thing.id}.inside: “{within[:60]}” was left out, {why}.")
            inside[thing.id] = None
            kept[at] = changed(thing, inside=None)
    doors = {opening.id for opening in build.shell.openings}
    modes = tuple(_mode(mode, things, doors, f"{where}.modes.{mode.id}", said) for mode in stow.modes)
    known = {mode.id for mode in modes}
    said += [f"{where}.cases.{case.id[:60]} was left out, there is no such mode." for case in stow.cases if case.mode not in known]
    cases = tuple(_case(case, things, f"{where}.cases.{case.id}", said) for case in stow.cases if case.mode in known)
    arranging = stow.arranging
    kitchen = _known((arranging.kitchen,) if arranging.kitchen else (), doors, f"{where}.arranging.kitchen", "door or hatch", said)
    locked = _of(arranging.locked, things, f"{where}.arranging.locked", said)
    arranging = changed(arranging, kitchen=next(iter(kitchen), ""), locked=locked)
    return changed(stow, things=tuple(kept), modes=modes, cases=cases, arranging=arranging)


def _mode(mode: Mode, things: dict[str, Thing], doors: set[str], where: str, said: list[str]) -> Mode:
    states = []
    for one in _of(mode.states, things, f"{where}.states", said):
        if one.state in {state.id for state in things[one.id].states}:
            states.append(one)
        else:
            said.append(f"{where}.states.{one.id}: “{one.state[:60]}” was left out, the thing has no such form.")
    return changed(
        mode,
        places=_of(mode.places, things, f"{where}.places", said),
        absent=_known(mode.absent, things, f"{where}.absent", "thing", said),
        states=tuple(states),
        shut=_known(mode.shut, doors, f"{where}.shut", "door or hatch", said),
    )


def _case(case: LoadCase, things: Collection[str], where: str, said: list[str]) -> LoadCase:
    levels, aboard = (_of(getattr(case, name), things, f"{where}.{name}", said) for name in ("levels", "aboard"))
    return changed(case, levels=levels, aboard=aboard)


def _systems(build: Build, where: str, said: list[str]) -> Systems:
    """Wires that end at something, and loads left off that there are."""
    systems = build.systems
    things, loads = {thing.id for thing in build.stow.things}, {load.id for load in systems.loads}
    ends = things | loads | {device.id for device in systems.devices}
    modes = {mode.id for mode in build.stow.modes}
    wires = []
    for wire in systems.wires:
        lost = next((end for end in (wire.start, wire.end) if end not in ends), None)
        if lost is None:
            wires.append(wire)
        else:
            said.append(f"{where}.wires.{wire.id[:60]} was left out, there is nothing “{lost[:60]}” that it could end at.")
    off = tuple(
        changed(one, modes=_known(one.modes, modes, f"{where}.off.{one.id}.modes", "mode", said))
        for one in _of(systems.off, things | loads, f"{where}.off", said)
    )
    bonds = _known(systems.bonds, ends, f"{where}.bonds", "thing or device", said)
    kept = systems.wires if len(wires) == len(systems.wires) else tuple(wires)
    return changed(systems, wires=kept, off=off, bonds=bonds, shaded=_of(systems.shaded, things, f"{where}.shaded", said))


def _known(words: tuple[str, ...], ids: Collection[str], where: str, what: str, said: list[str]) -> tuple[str, ...]:
    """The ids that name something, each once."""
    kept = tuple(dict.fromkeys(word for word in words if word in ids))
    for word, times in Counter(words).items():
        if word not in ids:
            said.append(f"{where}: “{word[:60]}” was left out, there is no such {what}.")
        elif times > 1:
            said.append(f"{where}: “{word[:60]}” stands there more than once and was kept once.")
    return words if kept == words else kept


def _of(items: tuple[Any, ...], things: Collection[str], where: str, said: list[str]) -> tuple[Any, ...]:
    """The items that are of a thing there is."""
    said += [f"{where}.{item.id[:60]} was left out, there is no such thing." for item in items if item.id not in things]
    kept = tuple(item for item in items if item.id in things)
    return items if len(kept) == len(items) else kept


def _in_ring(id: str, up: dict[str, str | None]) -> bool:
    """Whether going up from an id leads back to it."""
    seen: set[str] = set()
    now = up[id]
    while now is not None and now in up and now not in seen:
        if now == id:
            return True
        seen.add(now)
        now = up[now]
    return False


def changed(node: S, **fields: Any) -> S:
    """The node with other fields; the same object where they are the same."""
    new = {name: value for name, value in fields.items() if value is not getattr(node, name) and value != getattr(node, name)}
    return msgspec.structs.replace(node, **new) if new else node
