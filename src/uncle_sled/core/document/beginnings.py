"""A first build from a few answers, so that there is a drawing and a reading within minutes.

Everything it sets can be changed later; what nobody said is a marked guess or estimate.
"""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.bodies import (
    BY_KIND,
    BodyKind,
    StartBody,
    faces_of,
    framing_of,
    openings_of,
    sizes_of,
    wall_of,
    wheel_boxes_of,
)
from uncle_sled.core.document.brief import Brief, Person, Reading, Region
from uncle_sled.core.document.presets import PRESETS
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Axle, BedVehicle, Rig
from uncle_sled.core.document.shell import Shell
from uncle_sled.core.document.stow import Stow
from uncle_sled.core.errors import EntryError

Have = Literal["a bought shell", "a bare trailer", "a vehicle with a bed", "nothing yet"]
HAVES: tuple[Have, ...] = ("a bought shell", "a bare trailer", "a vehicle with a bed", "nothing yet")
DRAWBAR_M = 1.2
BOUGHT_KG_M = 95.0  # an empty cargo trailer per metre of its length, drawbar and all
TWO_AXLES_M = 4.4  # a body longer than that stands on two
APART_M = 0.86  # between the middles of two axles: a tyre and room to change it
AXLE_KG = {1: 60.0, 2: 110.0}  # each, with its wheels

# The body that goes with what one has, where nobody chose one.
USUAL: dict[Have, BodyKind] = {
    "a bought shell": "bought trailer",
    "a bare trailer": "square-fronted",
    "a vehicle with a bed": "box on a bed",
    "nothing yet": "teardrop",
}


class Answers(msgspec.Struct, frozen=True):
    """What was answered; sizes are the body's outside. For a bed ``axle`` is the wheelbase."""

    have: Have
    region: Region
    reading: Reading
    sleepers: int = 2
    body: BodyKind | None = None  # None: what goes with what one has
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
    body, imperial = BY_KIND[a.body or USUAL[a.have]], a.region == "North American"
    usual = sizes_of(body, imperial)
    length, width, height = a.length or usual[0], a.width or usual[1], a.height or usual[2]
    rig, front, floor = _bed(a, length, width) if a.have == "a vehicle with a bed" else _trailer(a, body, length, width)
    shell = _shell(body, imperial, (length, width, height), front, floor)
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


def _trailer(a: Answers, body: StartBody, length: Length, width: Length) -> tuple[Rig, float, float]:
    reach = DRAWBAR_M + length.si
    bought = a.have == "a bought shell"
    # a first place for the axle: a little behind the middle of the body
    axle = a.axle or Length(round(DRAWBAR_M + length.si * 0.56, 2))
    many = 2 if length.si > TWO_AXLES_M else 1
    stations = [axle.si + (k - (many - 1) / 2) * APART_M for k in range(many)]
    rig = Rig(
        base="as bought" if bought else "own frame",
        frame_length=Length(round(reach, 3)),
        drawbar_length=Length(DRAWBAR_M),
        frame_width=Length(round(width.si - 0.2, 3)),
        frame_top=Length(body.deck_m),
        frame_mass=None if bought else (a.total or Mass(round(body.frame_kg_m * reach))),
        frame_source="weighed" if a.total and not bought else "estimated",
        bought_total=(a.total or Mass(round(BOUGHT_KG_M * reach))) if bought else None,
        bought_ball=(a.ball or Mass(round(0.1 * (a.total.si if a.total else BOUGHT_KG_M * reach)))) if bought else None,
        bought_source="weighed" if a.total and a.ball else "guessed",
        axles=tuple(
            Axle(f"a{k}", axle if many == 1 else Length(round(x, 3)), None if bought else Mass(AXLE_KG[many]), None, "estimated")
            for k, x in enumerate(stations, 1)
        ),
        axle_place="to be placed" if a.have == "nothing yet" else "fixed",
        track=Length(round(width.si + 0.05, 3)),
        jack_station=Length(0.4),
    )
    return rig, DRAWBAR_M, round(body.deck_m + 0.02, 3)


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


def _shell(body: StartBody, imperial: bool, sizes: tuple[Length, Length, Length], front: float, floor: float) -> Shell:
    length, width, height = sizes
    low = sizes_of(body, imperial)[3]
    return Shell(
        body.form,
        Length(front),
        length=length,
        width=width,
        height=height,
        floor=Length(floor),
        wall=wall_of(body, imperial),
        profile=PRESETS[body.preset] if body.preset else (),
        faces=faces_of(body, imperial),
        eaves=low if low is not None and low.si < height.si else None,
        low_side="rear",
        openings=openings_of(body, length.si, width.si, height.si),
        wheel_boxes=wheel_boxes_of(body, imperial),
        framing=framing_of(body, imperial),
    )
