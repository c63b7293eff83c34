"""Every part of a build, front half of the house to the studies."""

from __future__ import annotations

from msgspec.structs import replace

from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.project import Build, Facts, OwnMaterial
from uncle_sled.core.document.rig import Rig
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.framing.frame_body import Framed, frame_body
from uncle_sled.core.parts.cabinet_cut import Fitted, around, fitted_in
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_rig import parts_of_rig
from uncle_sled.core.parts.from_shell import parts_of_shell
from uncle_sled.core.parts.from_stow import home_of, parts_of_things
from uncle_sled.core.parts.from_wiring import parts_of_wiring
from uncle_sled.core.parts.panel_rails import rails_of
from uncle_sled.core.parts.part import Part
from uncle_sled.core.words import lower_first


def axle_middle_m(rig: Rig) -> float | None:
    """Middle of the wheels under the body [m]: the axle group, or a bed vehicle's rear axle."""
    if rig.carrier == "vehicle bed":
        return rig.bed.wheelbase.si if rig.bed.wheelbase else None
    return sum(a.station.si for a in rig.axles) / len(rig.axles) if rig.axles else None


@keep(axle_middle_m, "shell", "own", "brief.region", most=8)
def _framed(rig: Rig, shell: Shell, own: tuple[OwnMaterial, ...], brief: Brief) -> Framed:
    return frame_body(shell, axle_middle_m(rig), brief.region == "North American", library_of(own))


def framed_of(build: Build, facts: Facts) -> Framed:
    """The body framed, kept while the shell stays the same object and the wheels under it stay where they are."""
    return _framed(build.rig, build.shell, facts.materials, build.brief)


@keep(most=8)
def _base(rig: Rig, shell: Shell, own: tuple[OwnMaterial, ...], framed: Framed) -> tuple[Part, ...]:
    bought = rig.carrier == "ball" and rig.base == "as bought"
    whole = rig.bought_total.si if bought and rig.bought_total is not None else None
    return parts_of_rig(rig) + parts_of_shell(shell, framed, library_of(own), axle_middle_m(rig), bought, whole)


def parts_of(build: Build, facts: Facts) -> tuple[Part, ...]:
    """Rig, shell, wiring and things as parts, in that order: things stand last, where a drag looks for them."""
    framed = framed_of(build, facts)
    base = _base(build.rig, build.shell, facts.materials, framed)
    things = parts_of_things(build.stow.things)
    if any(thing.cabinet is not None for thing in build.stow.things):
        made = cabinets_of(build, facts)
        things = tuple([_of_boards(thing, part, made) for thing, part in zip(build.stow.things, things, strict=True)])
    return base + _rails(build, facts) + parts_of_wiring(build, framed) + things


def _rails(build: Build, facts: Facts) -> tuple[Part, ...]:
    """Rails under panels on a roof of ribbed sheets."""
    return tuple(
        [
            Part(
                f"rails-{rails.thing}",
                f"Rails of {lower_first(rails.name)}",
                group="shell",
                made_by=f"stow.things.{rails.thing}",
                source="guessed",
                mass_kg=rails.mass_kg,
                x_m=rails.at_m[0],
                y_m=rails.at_m[1],
                z_m=rails.at_m[2],
            )
            for rails in rails_of(build.shell, build.stow, library_of(facts.materials))
        ]
    )


def _cabinets(build: Build) -> tuple[Thing, ...]:
    return tuple([thing for thing in build.stow.things if thing.cabinet is not None])


def _axle_m(build: Build) -> float | None:
    return axle_middle_m(build.rig)


@keep("build.shell", "facts.materials", framed_of, _axle_m, _cabinets, most=4)
def cabinets_of(build: Build, facts: Facts) -> dict[str, Fitted]:
    """Every thing that is made of boards, by id, as it is built in at home."""
    left = around(build.shell, framed_of(build, facts), axle_middle_m(build.rig))
    library = library_of(facts.materials)
    made = {}
    for thing in build.stow.things:
        if thing.cabinet is not None and not thing.taken_out:
            board = fitted_in(thing, home_of(thing), left, library)
            if board is not None:
                made[thing.id] = board
    return made


def _of_boards(thing: Thing, part: Part, made: dict[str, Fitted]) -> Part:
    """A thing whose weight is that of its boards, where nobody weighed or guessed it."""
    board = made.get(thing.id)
    if board is None or not board.good or thing.source != "computed":
        return part
    return _weighed(part, board)


@keep("part", "board", most=512)
def _weighed(part: Part, board: Fitted) -> Part:
    x, y, z = board.centre
    return replace(part, mass_kg=board.mass_kg, x_m=x, y_m=y, z_m=z)
