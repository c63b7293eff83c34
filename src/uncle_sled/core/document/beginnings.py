"""A first build from a few answers, so that there is a drawing and a reading within minutes.

Everything it sets can be changed later; what nobody said is a marked guess or estimate.
"""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.brief import Brief, Person, Reading, Region
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Axle, BedVehicle, Rig
from uncle_sled.core.document.shell import Face, Shell
from uncle_sled.core.document.stow import Stow
from uncle_sled.core.errors import EntryError

Have = Literal["a bought shell", "a bare trailer", "a vehicle with a bed", "nothing yet"]
HAVES: tuple[Have, ...] = ("a bought shell", "a bare trailer", "a vehicle with a bed", "nothing yet")
# Light sandwich and timber bodies weigh about this per m2 of face, fittings and fasteners with it.
FACE_KG_M2 = 11.0
FRAME_KG_M = 24.0  # a light welded frame per metre of length
DRAWBAR_M = 1.2


class Answers(msgspec.Struct, frozen=True):
    """What was answered; sizes are the body's outside. For a bed ``axle`` is the wheelbase."""

    have: Have
    region: Region
    reading: Reading
    sleepers: int = 2
    length: Length | None = None
    width: Length | None = None
    height: Length | None = None
    axle: Length | None = None
    total: Mass | None = None  # bought shell: weighed total; vehicle: front axle, empty
    ball: Mass | None = None  # bought shell: on the ball; vehicle: rear axle, empty


def begin(name: str, answers: Answers) -> Project:
    """The project that the answers describe. Raises: EntryError: names the answer that cannot be."""
    a = answers
    for what, value, most in (("length", a.length, 15.0), ("width", a.width, 3.5), ("height", a.height, 4.5), ("axle", a.axle, 12.0)):
        if value is not None and not 0 < value.si <= most:
            raise EntryError(f"The {what} is {value.si:.2f} m; more than 0 and up to {most:g} m would be right.")
    if a.total and a.ball and a.have == "a bought shell" and a.ball.si >= a.total.si:
        raise EntryError("The ball cannot carry more than the whole trailer weighs; the two weights may be swapped.")
    length = a.length or Length(3.0 if a.have != "a vehicle with a bed" else 2.6)
    width, height = (a.width or Length(1.8), a.height or Length(1.9 if a.have in ("a bought shell", "a vehicle with a bed") else 1.3))
    rig, front, floor = _bed(a, length, width) if a.have == "a vehicle with a bed" else _trailer(a, length, width)
    shell = _shell(a, length, width, height, front, floor)
    people = tuple(
        Person(f"p{at + 1}", "Sleeper" if a.sleepers == 1 else f"Sleeper {at + 1}", Length(1.75))
        for at in range(min(max(a.sleepers, 0), 8))
    )
    return Project(
        name,
        (Build("as-drawn", "as drawn", parent=None, brief=Brief(a.region, a.reading), rig=rig, shell=shell, stow=Stow()),),
        "as-drawn",
        Facts(people),
    )


def _trailer(a: Answers, length: Length, width: Length) -> tuple[Rig, float, float]:
    reach = DRAWBAR_M + length.si
    bought = a.have == "a bought shell"
    # a first place for the axle: a little behind the middle of the body
    axle = a.axle or Length(round(DRAWBAR_M + length.si * 0.56, 2))
    rig = Rig(
        base="as bought" if bought else "own frame",
        frame_length=Length(round(reach, 3)),
        drawbar_length=Length(DRAWBAR_M),
        frame_width=Length(round(width.si - 0.2, 3)),
        frame_top=Length(0.5),
        frame_mass=None if bought else (a.total or Mass(round(FRAME_KG_M * reach))),
        frame_source="weighed" if a.total and not bought else "estimated",
        bought_total=(a.total or Mass(round(95 * reach))) if bought else None,
        bought_ball=(a.ball or Mass(round(0.1 * (a.total.si if a.total else 95 * reach)))) if bought else None,
        bought_source="weighed" if a.total and a.ball else "guessed",
        axles=(Axle("a1", axle, None if bought else Mass(60.0), None, "estimated"),),
        axle_place="to be placed" if a.have == "nothing yet" else "fixed",
        track=Length(round(width.si + 0.05, 3)),
        jack_station=Length(0.4),
    )
    return rig, DRAWBAR_M, 0.52


def _bed(a: Answers, length: Length, width: Length) -> tuple[Rig, float, float]:
    base = a.axle or Length(3.2)
    bed = BedVehicle(
        "Vehicle",
        base,
        a.total or Mass(1300.0),
        a.ball or Mass(900.0),
        track=Length(1.6),
        bed_front=Length(1.2),
        bed_length=Length(round(max(length.si, 2.0), 3)),
        bed_width=width,
        bed_top=Length(0.95),
    )
    return Rig(carrier="vehicle bed", bed=bed), 1.25, 0.97


def _shell(a: Answers, length: Length, width: Length, height: Length, front: float, floor: float) -> Shell:
    long, wide, high = length.si, width.si, height.si
    areas = (
        ("floor", "Floor", long * wide),
        ("left side", "Left side", long * high),
        ("right side", "Right side", long * high),
        ("roof", "Roof", long * wide),
        ("front", "Front", wide * high),
        ("rear", "Rear", wide * high),
    )
    faces = (
        ()
        if a.have == "a bought shell"
        else tuple(
            Face(f"f{at + 1}", kind, name, Mass(round(area * FACE_KG_M2, 1)), "guessed")  # type: ignore[arg-type]
            for at, (kind, name, area) in enumerate(areas)  # type: ignore[arg-type]
        )
    )
    form: Literal["profile", "box"] = "profile" if a.have == "nothing yet" and high < 1.7 else "box"
    profile = PRESETS["round nose, straight tail"] if form == "profile" else ()
    return Shell(
        form, Length(front), length=length, width=width, height=height, floor=Length(floor), wall=Length(0.04), profile=profile, faces=faces
    )
