"""What kind of piece something is, by what made it, its layer and its school: the kinds of ``catalogue/brings.csv``.

One question for masses, for pieces that are cut and for what is drawn in the round; the table says which task brings such a kind.
"""

from __future__ import annotations

from functools import lru_cache

import msgspec

from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.shell import Face, Layer, Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.framing.cut_plywood import PLYWOOD
from uncle_sled.core.framing.sandwich_panels import PANELS
from uncle_sled.core.materials import Material
from uncle_sled.core.parts.face_build import Library
from uncle_sled.core.parts.from_shell import SUB_FRAME
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.tables import table

START, TRIP = "", "trip"  # no task: there on the first day; rides along only
CONTENTS = {"fresh": "water", "grey": "water", "black": "water", "urine": "water", "solids": "water", "gas": "gas"}
BUILT_IN = ("cabinet", "bed", "furniture")
SIDES = ("left side", "right side")


class Bringer(msgspec.Struct, frozen=True):
    """A line of the table. what: a kind of piece; tasks: which of them brings it, the first that there is.

    made: in which it is put together before, the first that there is; none: in that which brings it.
    """

    what: str
    tasks: tuple[str, ...]
    made: tuple[str, ...]
    source: str


@lru_cache(maxsize=1)
def bringers() -> dict[str, Bringer]:
    """The shipped table by kind of piece."""
    return {line.what: line for line in table("catalogue/brings.csv", Bringer)}


class Bringing(msgspec.Struct, frozen=True):
    """Which task brings what. here: tasks that this build has; said: (id of a part, kind) as the builder changed it."""

    here: frozenset[str]
    said: dict[tuple[str, str], str]

    def by(self, part: str, what: str) -> str:
        """The task, ``START`` where none of its tasks is done here, ``TRIP``. Args: part: id; what: its kind."""
        if what == TRIP:
            return TRIP
        said = self.said.get((part, what))
        if said is not None and (said in self.here or said == START):
            return said
        return next((task for task in bringers()[what].tasks if task in self.here), START)

    def made(self, part: str, what: str) -> str:
        """The task in which it is put together; that which brings it where there is none before."""
        if (part, what) in self.said or what == TRIP:
            return self.by(part, what)
        return next((task for task in bringers()[what].made if task in self.here), self.by(part, what))


def bringing_of(build: Build, facts: Facts) -> Bringing:
    """By the table and the builder's own word; one who names a task that is not there is not heard, and told so."""
    said = {(own.part, own.what): own.task for own in build.work.brings}
    return Bringing(frozenset(task.id for task in tasks_of(build, facts)), said)


def kind_of_thing(thing: Thing) -> str:
    if thing.cargo:
        return TRIP
    if thing.taken_out:
        return "start"  # it went before the first day, out of what was weighed
    if thing.tank is not None:
        return CONTENTS.get(thing.tank.contents, "equipment")
    return "built in" if thing.kind in BUILT_IN else "equipment"


def kind_of_sticks(id: str, shell: Shell) -> str:
    """The sticks of a kind of face, or what joins panels. Args: id: of the part that holds them."""
    if id == "fillets":
        return "fillet"
    of = id.removeprefix("sticks-")
    if of == SUB_FRAME:
        return "sub-frame"
    if shell.framing.school == PANELS.name:
        return "panel edge"
    return {"floor": "floor sticks", "roof": "roof sticks"}.get(of, "wall sticks")


def kinds_of_layers(face: Face, shell: Shell, library: Library) -> list[str]:
    """What each layer of a face is, from outside in."""
    stuff = [library[layer.material] for layer in face.layers]
    solid = [k for k, material in enumerate(stuff) if material.form in ("sheet", "roll", "board") and material.family != "membrane"]
    thickest = max(solid, key=lambda k: face.layers[k].thickness.si, default=-1)
    made = []
    for k, (layer, material) in enumerate(zip(face.layers, stuff, strict=True)):
        inside = bool(solid) and k == solid[-1] and len(solid) > 1
        made.append(_kind_of_layer(face, shell, layer, material, inside, k == thickest))
    return made


def _kind_of_layer(face: Face, shell: Shell, layer: Layer, material: Material, inside: bool, thickest: bool) -> str:
    floor = face.kind == "floor"
    if material.family == "paint":
        return "paint"
    if material.family == "cloth":
        return "cloth"
    if shell.framing.school == PANELS.name:
        return "panel"
    if material.air or (material.form == "board" and not floor and not inside):
        return "boards"
    if material.form in ("fill", "coat"):
        return "insulation"
    if floor:
        return "floor finish" if material.family == "covering" else "floor sheet"
    if shell.framing.school == PLYWOOD.name and face.kind in SIDES and thickest:
        return "plywood side"
    if inside or material.family == "membrane":
        return "lining" if inside or layer is not face.layers[0] else "sheathing"
    return "roof sheet" if face.kind == "roof" else "sheathing"
