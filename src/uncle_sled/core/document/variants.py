"""Variants: whole builds side by side in one project. What two of them have alike is the same object in memory."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.edits import fresh_id
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.errors import EditError

LONGEST_NAME = 60


def keep_as(project: Project, name: str) -> Project:
    """The open build kept under a new name and opened; what it was made from stays as it is. Raises: EditError."""
    name = _free_name(project, name)
    id = fresh_id("v", [b.id for b in project.variants])
    made = msgspec.structs.replace(project.build, id=id, name=name, parent=project.build.id)
    return msgspec.structs.replace(project, variants=(*project.variants, made), open_variant=id)


def opened(project: Project, id: str) -> Project:
    """The project with another variant open. Raises: EditError: there is none of that id."""
    if id not in {b.id for b in project.variants}:
        raise EditError(f"There is no variant “{id}”.")
    return msgspec.structs.replace(project, open_variant=id)


def renamed(project: Project, name: str) -> Project:
    """The open variant under another name. Raises: EditError."""
    return project.with_build(msgspec.structs.replace(project.build, name=_free_name(project, name)))


def without(project: Project, id: str) -> Project:
    """The project without a variant; its children become its parent's. Raises: EditError: the last one stays."""
    gone = next((b for b in project.variants if b.id == id), None)
    if gone is None:
        raise EditError(f"There is no variant “{id}”.")
    if len(project.variants) == 1:
        raise EditError("This is the only variant; a project keeps one at least.")

    def adopted(build: Build) -> Build:
        return msgspec.structs.replace(build, parent=gone.parent) if build.parent == id else build

    left = tuple(adopted(b) for b in project.variants if b.id != id)
    now = project.open_variant if project.open_variant != id else (gone.parent or left[0].id)
    if now not in {b.id for b in left}:
        now = left[0].id
    return msgspec.structs.replace(project, variants=left, open_variant=now)


def _free_name(project: Project, name: str) -> str:
    name = " ".join(name.split())
    if not name:
        raise EditError("A variant needs a name.")
    if len(name) > LONGEST_NAME:
        raise EditError(f"That name is {len(name)} letters long; {LONGEST_NAME} at most would be right.")
    if name in {b.name for b in project.variants}:
        raise EditError(f"There is a variant “{name}” already; give this one another name.")
    return name
