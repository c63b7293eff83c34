"""Nonsense in a file that says nothing about the build: taken out when it is read, each with its place, and said."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Collection, Iterable
from typing import Any, TypeVar

import msgspec

from uncle_sled.core.document.bounds import STRANGE
from uncle_sled.core.document.edits import field_types
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.stow import LoadCase, Mode, Stow, Thing

S = TypeVar("S", bound=msgspec.Struct)
# Signs that no name holds, as they are written in a file: escaped, or the two that are no characters.
STRANGE_SIGNS = re.compile(rb"\\[bfr]|\\u00[01]|\x7f|\\u(?i:fffe|ffff)|\xef\xbf[\xbe\xbf]")


def mended(project: Project, strange_signs: bool) -> tuple[Project, tuple[str, ...]]:
    """The project without references to what is not there, words told twice and signs that no name holds.

    Args: strange_signs: whether the file holds any such sign; looking for their place takes a walk.
    """
    said: list[str] = []
    if strange_signs:
        project = _plain(project, "", said)
    ids = [build.id for build in project.variants]
    people, vehicles = {one.id for one in project.facts.people}, {one.id for one in project.facts.vehicles}
    parents = {build.id: build.parent for build in project.variants}
    builds = []
    for build in project.variants:
        where = f"variants.{build.id}"
        brief = _changed(
            build.brief,
            sleepers=_known(build.brief.sleepers, people, f"{where}.brief.sleepers", "person", said),
            vehicles=_known(build.brief.vehicles, vehicles, f"{where}.brief.vehicles", "vehicle", said),
        )
        parent = build.parent
        if parent is not None and (parent not in ids or _in_ring(build.id, parents)):
            why = "there is no such variant" if parent not in ids else "it comes from itself by that"
            said.append(f"{where}.parent: “{parent[:60]}” was left out, {why}.")
            parent = parents[build.id] = None
        builds.append(_changed(build, brief=brief, parent=parent, stow=_stow(build, f"{where}.stow", said)))
    return (_changed(project, variants=tuple(builds)), tuple(said))


def _stow(build: Build, where: str, said: list[str]) -> Stow:
    stow = build.stow
    things = {one.id: one for one in stow.things}
    inside = {one.id: one.inside for one in stow.things}
    kept = []
    for thing in stow.things:
        within = thing.inside
        if within is not None and (within not in things or _in_ring(thing.id, inside)):
            why = "there is no such thing" if within not in things else "the two would stand inside each other"
            said.append(f"{where}.things.{thing.id}.inside: “{within[:60]}” was left out, {why}.")
            within = inside[thing.id] = None
        kept.append(_changed(thing, inside=within))
    doors = {one.id for one in build.shell.openings}
    modes = tuple(_mode(mode, things, doors, f"{where}.modes.{mode.id}", said) for mode in stow.modes)
    cases = tuple(_case(case, things, f"{where}.cases.{case.id}", said) for case in stow.cases)
    return _changed(stow, things=tuple(kept), modes=modes, cases=cases)


def _mode(mode: Mode, things: dict[str, Thing], doors: set[str], where: str, said: list[str]) -> Mode:
    states = []
    for one in _of(mode.states, things, f"{where}.states", said):
        if one.state in {state.id for state in things[one.id].states}:
            states.append(one)
        else:
            said.append(f"{where}.states.{one.id}: “{one.state[:60]}” was left out, the thing has no such form.")
    return _changed(
        mode,
        places=_of(mode.places, things, f"{where}.places", said),
        absent=_known(mode.absent, things, f"{where}.absent", "thing", said),
        states=tuple(states),
        shut=_known(mode.shut, doors, f"{where}.shut", "door or hatch", said),
    )


def _case(case: LoadCase, things: Collection[str], where: str, said: list[str]) -> LoadCase:
    levels, aboard = (_of(getattr(case, name), things, f"{where}.{name}", said) for name in ("levels", "aboard"))
    return _changed(case, levels=levels, aboard=aboard)


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
    said += [f"{where}.{one.id[:60]} was left out, there is no such thing." for one in items if one.id not in things]
    kept = tuple(one for one in items if one.id in things)
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


def _changed(node: S, **fields: Any) -> S:
    """The node with other fields; the same object where they are the same."""
    new = {
        name: value
        for name, value in fields.items()
        if value is not getattr(node, name) and value != getattr(node, name)
    }
    return msgspec.structs.replace(node, **new) if new else node


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
        return _changed(
            node, **{name: _plain(getattr(node, name), f"{place}.{name}".lstrip("."), said) for name in names}
        )
    return node
