"""Nonsense in a file that says nothing about the build: taken out when it is read, each with its place, and said."""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Any

import msgspec

from uncle_sled.core.document.bounds import NEVER_NONE, NEVER_NOTHING, RATINGS, STRANGE, inner_fields
from uncle_sled.core.document.edits import field_types
from uncle_sled.core.document.project import Project
from uncle_sled.core.document.references import S, changed, referring_right

# Signs that no name holds, as they are written in a file: escaped, or the two that are no characters.
STRANGE_SIGNS = re.compile(rb"\\[bfr]|\\u00[01]|\x7f|\\u(?i:fffe|ffff)|\xef\xbf[\xbe\xbf]")


def mended(project: Project, strange_signs: bool) -> tuple[Project, tuple[str, ...]]:
    """The project without references to what is not there, words told twice and signs that no name holds.

    Args: strange_signs: whether the file holds any such sign; looking for their place takes a walk.
    """
    said: list[str] = []
    if strange_signs:
        project = _plain(project, "", said)
    project, loose = referring_right(project)
    return project, (*said, *loose)


def with_limits_given(project: Project) -> tuple[Project, tuple[str, ...]]:
    """The project without limits of 0, which older versions let in: not given is what they are."""
    said: list[str] = []
    facts = changed(project.facts, vehicles=tuple(_given(car, f"facts.vehicles.{car.id}", said) for car in project.facts.vehicles))
    builds = []
    for build in project.variants:
        where = f"variants.{build.id}"
        rig = _given(build.rig, f"{where}.rig", said)
        axles = tuple(_given(axle, f"{where}.rig.axles.{axle.id}", said) for axle in rig.axles)
        rig = changed(rig, axles=axles, bed=_given(rig.bed, f"{where}.rig.bed", said))
        things = []
        for thing in build.stow.things:
            hold = thing.hold and _given(thing.hold, f"{where}.stow.things.{thing.id}.hold", said)
            things.append(changed(thing, hold=hold) if hold is not thing.hold else thing)
        stow = changed(build.stow, things=tuple(things))
        wires = tuple(_given(wire, f"{where}.systems.wires.{wire.id}", said) for wire in build.systems.wires)
        systems = changed(build.systems, wires=wires) if wires != build.systems.wires else build.systems
        builds.append(changed(build, rig=rig, stow=stow, systems=systems, brief=_given(build.brief, f"{where}.brief", said)))
    return changed(project, facts=facts, variants=tuple(builds)), tuple(said)


def _given(node: S, place: str, said: list[str]) -> S:
    """The node with each limit of 0 left empty."""
    none: dict[str, None] = {}
    for name, what, _ in inner_fields(type(node)):
        never = name in RATINGS or (type(node).__name__, name) in NEVER_NOTHING
        if what == "quantity" and never and (value := getattr(node, name)) is not None and value.si == 0:
            said.append(f"{place}.{name}: 0 is no {'limit' if name in RATINGS else name}; it was read as not given.")
            none[name] = None
    for name in NEVER_NONE.get(type(node).__name__, ()):
        if getattr(node, name) == 0:
            said.append(f"{place}.{name}: 0 is none; it was read as not given.")
            none[name] = None
    return changed(node, **none) if none else node


def with_flames_said(body: dict[str, Any]) -> tuple[str, ...]:
    """Things of older files that burn gas by their figure, told in the file itself; changes ``body``."""
    said = []
    variants = body.get("variants")
    for build in variants if isinstance(variants, list) else ():
        stow = build.get("stow") if isinstance(build, dict) else None
        things = stow.get("things") if isinstance(stow, dict) else None
        for thing in things if isinstance(things, list) else ():
            figures = thing.get("figures") if isinstance(thing, dict) else None
            if isinstance(figures, dict) and figures.get("gas_g_h") and "burns" not in thing:
                thing["burns"] = "gas"
                said.append(f"{str(thing.get('name', ''))[:60]}: it uses gas, so it was read as a gas flame; say so if it is room-sealed.")
    return tuple(said)


def _plain(node: Any, place: str, said: list[str]) -> Any:
    """The node with a space for each sign that no name holds."""
    if isinstance(node, str):
        if not STRANGE.search(node):
            return node
        said.append(f"{place}: a sign that cannot be read was taken out of it.")
        return STRANGE.sub(" ", node)
    if isinstance(node, tuple):
        return tuple(_plain(one, f"{place}.{getattr(one, 'id', at)}", said) for at, one in enumerate(node))
    if isinstance(node, msgspec.Struct):
        names: Iterable[str] = (name for name in field_types(type(node)) if name != "unknown")
        return changed(node, **{name: _plain(getattr(node, name), f"{place}.{name}".lstrip("."), said) for name in names})
    return node
