"""The file is a Project: facts that hold whatever is built, and the variants of the build."""

from typing import Annotated, Self

import msgspec

from uncle_sled.core.document.bounds import Figure, Number, Story, Word
from uncle_sled.core.document.brief import Brief, Person, Vehicle
from uncle_sled.core.document.cut import Cut
from uncle_sled.core.document.field import about
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.document.road import Road
from uncle_sled.core.document.shell import Layer, Shell
from uncle_sled.core.document.stow import Stow, Thing
from uncle_sled.core.document.systems import Systems
from uncle_sled.core.document.work import Work
from uncle_sled.core.material_words import Family, Form

# one field a line, as a table
# fmt: off
FORMAT = "uncle-sled"
VERSION = 2  # since 2 a thing says what it does


class OwnMaterial(msgspec.Struct, frozen=True):
    """A material of one's own, beside the shipped ones: per m3 and its conductivity, or per m2 with its R."""

    id: Word
    name: Annotated[Word, about("Name", "What it is called on lists and drawings")]
    density_kg_m3: Annotated[Figure | None, about("Density", "By this, or by a weight over an area", unit="kg/m3", least=0.1, most=25000)] = None
    conductivity_w_mk: Annotated[Figure | None, about("Conducts", "Of its data sheet", unit="W/mK", least=0.001, most=500)] = None
    mu: Annotated[Figure | None, about("Vapour resistance, mu", "Times that of still air", least=0.5, most=1e7)] = None
    kg_m2: Annotated[Figure | None, about("or weight", "Of sheets that are sold by one thickness", unit="kg/m2", least=0.001, most=500)] = None
    r_m2k_w: Annotated[Figure | None, about("and its R", "Of the whole sheet", unit="m2K/W", least=0.0, most=50)] = None
    money_m3: Annotated[Figure | None, about("Money a space", "What a cube of it costs")] = None
    money_m2: Annotated[Figure | None, about("Money an area", "What a square of it costs", unit="money/m2", least=0.0, most=1e5)] = None
    hours_m2: Annotated[Figure, about("Hours an area", "To put it on", unit="h/m2", least=0.0, most=100)] = 0.3
    bends: Word = ""
    source: Annotated[Word, about("Source", "Where its figures are from")] = ""
    family: Family = ""  # what kind of stuff it is
    form: Form = ""  # as what it is bought and cut
    heat_j_kgk: Annotated[Figure | None, about("Holds heat", "Its specific heat", unit="J/kgK", least=100, most=10000)] = None
    date: Word = ""


class OwnWay(msgspec.Struct, frozen=True):
    """Layers that a builder keeps by a name, to make other faces and other builds of."""

    id: Word
    name: Annotated[Word, about("Name", "What you call this way of making a face")]
    layers: tuple[Layer, ...] = ()
    floor: bool = False  # it is for floors


class Facts(msgspec.Struct, frozen=True):
    """People, vehicles, materials of one's own and what else does not change with a variant."""

    people: tuple[Person, ...] = ()
    vehicles: tuple[Vehicle, ...] = ()
    materials: tuple[OwnMaterial, ...] = ()
    things: tuple[Thing, ...] = ()  # a catalogue of one's own, at no place
    ways: tuple[OwnWay, ...] = ()


class SetAside(msgspec.Struct, frozen=True):
    """A finding that the builder has set aside, with the number it had then."""

    id: Story  # code and places of the finding
    reason: Story
    date: Word
    number: Number | None = None


class Build(msgspec.Struct, frozen=True):
    """One variant: a whole build with the id of the one it was made from."""

    id: Word
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    parent: Word | None = None
    brief: Brief = Brief()
    rig: Rig = Rig()
    shell: Shell = Shell()
    stow: Stow = Stow()
    systems: Systems = Systems()
    cut: Cut = Cut()
    work: Work = Work()
    road: Road = Road()
    set_aside: tuple[SetAside, ...] = ()


class Project(msgspec.Struct, frozen=True):
    """Everything that is saved."""

    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    variants: tuple[Build, ...]
    open_variant: Word
    facts: Facts = Facts()
    # keys of a file that this version does not know, by their place, written back on saving
    unknown: dict[str, msgspec.Raw] = {}

    @property
    def build(self) -> Build:
        """The open variant."""
        for build in self.variants:
            if build.id == self.open_variant:
                return build
        return self.variants[0]

    def with_build(self, build: Build) -> Self:
        """The same project with its open variant replaced; untouched variants stay the same objects."""
        if build is self.build:
            return self
        variants = tuple(build if old.id == build.id else old for old in self.variants)
        return msgspec.structs.replace(self, variants=variants)


def empty_project(name: str = "New build") -> Project:
    """A project of one variant in which nothing is decided."""
    return Project(name, (Build("as-drawn", "as drawn"),), "as-drawn")
