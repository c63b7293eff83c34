"""Which task brings which mass: every part, a layered face layer by layer, with the task after which it stands there.

What a piece is comes from what made it, its layer and its school; ``catalogue/brings.csv`` says which task brings such a piece: the
first of its list that this build has. With none of them it is there from the start. All of it is the whole build, without what
tanks hold. Source: first principles; the table names its own.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.all_parts import framed_of, parts_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums, layers_kg_m2
from uncle_sled.core.parts.part import Part
from uncle_sled.core.studies.build.what_it_is import Bringing, bringing_of, kind_of_sticks, kind_of_thing, kinds_of_layers


class Brought(msgspec.Struct, frozen=True):
    """A mass and the task that brings it. part: its id; what: its kind by the table; by: a task, ``START`` or ``TRIP``.

    share: of the part's mass, for what is known of the part as a whole.
    """

    part: Part
    what: str
    by: str
    share: float = 1.0

    @property
    def mass_kg(self) -> float:
        """Of this piece, empty [kg]."""
        return self.part.mass_kg * self.share


@keep(most=4)
def brought(build: Build, facts: Facts) -> tuple[Brought, ...]:
    """Every part of a build with the task that brings it; the masses of one part add up to its own."""
    here = bringing_of(build, facts)
    framed, library = framed_of(build, facts), library_of(facts.materials)
    things = {thing.id: thing for thing in build.stow.things}
    faces = {face.id: face for face in build.shell.faces}
    made: list[Brought] = []
    for part in parts_of(build, facts):
        root, *rest = part.made_by.split(".", 2)
        face = faces[rest[1]] if (root, rest[0]) == ("shell", "faces") else None
        sums = face_sums(face, build.shell, framed, library) if face is not None else None
        if face is not None and sums is not None and sums.build is not None:
            made += _layers(part, layers_kg_m2(face, sums, framed, library), kinds_of_layers(face, build.shell, library), here)
        else:
            what = _kind(part, root, rest, things, build.shell)
            made.append(Brought(part, what, here.by(part.id, what)))
    return tuple(made)


def _kind(part: Part, root: str, rest: list[str], things: dict[str, Thing], shell: Shell) -> str:
    """What a part is that comes in one piece."""
    if root == "systems":
        return "wiring"
    if root == "stow":
        return kind_of_thing(things[rest[1]]) if part.id == rest[1] else "rails"
    if root == "rig":
        return {"frame_mass": "frame", "axles": "axle"}.get(rest[0], "start")
    if rest[0] == "framing":
        return kind_of_sticks(part.id, shell)
    if rest[0] == "openings":
        return "opening" if part.mass_kg >= 0 else "cut out"
    if rest[0] == "relined":
        return "new lining" if part.mass_kg >= 0 else "old lining"
    of = {
        "faces": "sheathing",
        "ridge": "roof sticks",
        "rising": "roof that rises",
        "partitions": "inner wall",
        "lofts": "loft",
        "wheel_boxes": "wheel box",
        "nose_box": "nose box",
    }
    return of[rest[0]]


def _layers(part: Part, masses: list[float], kinds: list[str], here: Bringing) -> Iterator[Brought]:
    """A face layer by layer; glue and fasteners go with the layers by their mass. Args: masses, kinds: of its layers."""
    whole = sum(masses)
    if whole <= 0:  # nothing but glue
        yield Brought(part, "sheathing", here.by(part.id, "sheathing"))
        return
    gathered: dict[str, float] = {}
    for what, mass in zip(kinds, masses, strict=True):
        gathered[what] = gathered.get(what, 0.0) + mass / whole
    for what, share in gathered.items():
        yield Brought(part, what, here.by(part.id, what), share)
