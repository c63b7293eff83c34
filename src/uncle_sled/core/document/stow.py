"""Things of real size in the body or on the rig, and the modes they are put in."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Angle, Count, Figure, Hours, Ratio, Share, Turn, Word
from uncle_sled.core.document.joinery import BedBase, Cabinet, Lid, PullOut, Winch
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.rig import Source
from uncle_sled.core.document.roles import Role

Kind = Literal[
    "tank",
    "battery",
    "solar",
    "charger",
    "appliance",
    "cabinet",
    "bed",
    "furniture",
    "gear",
    "outside carrier",
    "vehicle aboard",
    "kit",
    "spare wheel",
]
Contents = Literal["fresh", "grey", "black", "gas", "petrol", "diesel"]


TankShape = Literal["box", "cylinder", "wedge", "jug", "outline"]
Side = Literal["front", "rear", "left", "right", "top"]


class TankPoint(msgspec.Struct, frozen=True):
    """A corner of a tank's own outline, seen from its left: shares of its length (from its front) and height."""

    u: Ratio
    v: Ratio


class Tank(msgspec.Struct, frozen=True):
    """What a tank holds and its true shape inside the box of its thing."""

    volume: Volume | None = None
    contents: Contents = "fresh"
    shape: TankShape = "box"
    axis: Literal["along", "across", "upright"] = "along"  # of a cylinder
    thin: Literal["front", "rear"] = "front"  # of a wedge: its low end
    thin_height: Length | None = None  # there; half of the height where nobody said
    slant: Literal["top", "bottom"] = "top"  # which face of a wedge slants
    outline: tuple[TankPoint, ...] = ()  # own outline, swept over the width


class State(msgspec.Struct, frozen=True):
    """Another form of a thing: a bed folded, a table dropped, an awning out. ``d`` moves it from its place."""

    id: Word
    name: Word
    length: Length
    width: Length
    height: Length
    dx: Length | None = None
    dy: Length | None = None
    dz: Length | None = None
    minutes: Count | None = None  # to change into it
    hands: Count | None = None  # that it takes
    bed: bool = False  # one sleeps on it so


class Clear(msgspec.Struct, frozen=True):
    """Room that a thing needs beside it when it is used: its door's swing, its drawer's travel, air, heat."""

    id: Word
    kind: Literal["door", "drawer", "lid", "service", "air", "heat"]
    side: Side  # of the unturned thing
    deep: Length


class Hold(msgspec.Struct, frozen=True):
    """What holds a thing on the road; ``rated`` is the working load of one."""

    kind: Literal["strap", "bolt", "latch", "lip", "rail", "built in"] = "strap"
    many: Count = 1
    rated: Mass | None = None
    into: Literal["frame", "framing", "skin"] = "framing"
    # of straps: over the floor, and in plan from the trailer's axis; 45 where nobody measured
    elevation_deg: Angle | None = None
    plan_deg: Angle | None = None
    leads: Literal["both ways", "fore", "aft"] = "both ways"  # from the thing; both ways: half of them each


class Latch(msgspec.Struct, frozen=True):
    """What keeps a cupboard's door shut on the road, and what leans on it from behind."""

    kind: Literal["none", "push", "turn", "bolt", "lip", "sliding"] = "push"
    rated_n: Figure | None = None
    leans: Mass | None = None
    opens: Literal["front", "rear", "left", "right"] = "rear"  # the side of the unturned thing that it opens to


Unit = Literal[
    "",
    "battery",
    "station",
    "panel",
    "solar charger",
    "mains charger",
    "car charger",
    "inverter",
    "inverter charger",
    "fuse box",
    "inlet",
    "generator",
]


class Figures(msgspec.Struct, frozen=True):
    """Figures of a thing's kind that power, gas and water are reckoned from; what is not known stays empty.

    ``unit``: what it is in the wiring; nothing for what only runs.
    """

    power_w: Figure | None = None  # while it runs
    hours_day: Hours | None = None
    store_wh: Figure | None = None  # of a battery, usable
    solar_wp: Figure | None = None
    charge_w: Figure | None = None
    volts: Figure | None = None
    gas_g_h: Figure | None = None
    water_l_day: Figure | None = None
    unit: Unit = ""
    amps: Figure | None = None  # what runs: instead of watts
    current: Literal["", "DC", "AC"] = ""  # by its volts where nobody said
    duty: Share | None = None  # of its hours that it really draws
    surge: Figure | None = None  # when it starts, as a multiple
    start_s: Figure | None = None  # how long it draws that
    when: Literal["any", "day", "night"] = "any"
    must_run: bool = False
    chemistry: Literal["", "LFP", "AGM", "lead"] = ""
    amp_hours: Figure | None = None  # of a battery as sold, at its volts
    depth: Share | None = None  # how much of it is used; by its chemistry where nobody said
    cold_cut: bool = False  # it keeps itself from charging in frost, or warms itself
    limit_a: Figure | None = None  # of a battery, steady; of a station's 12 V socket
    idle_w: Figure | None = None  # of an inverter, while it is on
    voc_v: Figure | None = None  # of a panel, open, at 25 degrees
    beta_pct_k: Figure | None = None  # how much of that a degree takes away [%/K]
    most_v: Figure | None = None  # of a charge controller
    heat_w: Figure | None = None  # what a heater gives
    cool_w: Figure | None = None  # what a cooler takes away
    flow_l_min: Figure | None = None  # of a pump
    tilt_deg: Angle | None = None  # of a panel over level; flat where nobody said
    azimuth_deg: Turn | None = None  # the way it slopes: 0 to the midday sun, positive to the afternoon's


class Thing(msgspec.Struct, frozen=True):
    """A box of real size: ``x`` its front edge, ``y`` its middle, ``z`` its underside."""

    id: Word
    name: Word
    kind: Kind
    length: Length
    width: Length
    height: Length
    x: Length
    y: Length
    z: Length
    mass: Mass
    source: Source = "estimated"
    turn: Literal[0, 90, 180, 270] = 0
    # weight at: offset of the centre of gravity from the middle of the unturned box
    cg_dx: Length | None = None
    cg_dy: Length | None = None
    cg_dz: Length | None = None
    tank: Tank | None = None
    cargo: bool = False
    outside: bool = False
    stays: bool = False
    taken_out: bool = False  # was weighed with the bought shell and is gone: counts negative
    held_by: Word = ""
    hold: Hold | None = None
    latch: Latch | None = None
    floor: Literal["", "wood", "metal", "rubber"] = ""  # what it stands on, for friction
    rides: Literal["", "front", "rear", "boot", "roof"] = ""  # in the car, and not in the trailer
    inside: Word | None = None  # id of the thing that it is built into or stands in
    states: tuple[State, ...] = ()
    clear: tuple[Clear, ...] = ()
    roles: tuple[Role, ...] = ()  # what it does
    places: Count = 0  # how many sit at or on it
    arrival: bool = False  # wanted first on arrival: blocks, cord, hose, gloves
    figures: Figures | None = None
    burns: Literal["none", "gas", "spirit", "wood", "diesel"] = "none"
    room_sealed: bool = False  # takes its air from outside and gives its smoke there
    flued: bool = False  # takes its air from the room and gives its smoke up a flue
    vents_gas: bool = False  # as a lead battery does while it charges
    fumes: bool = False  # petrol, a generator
    near: Literal["", "mains", "cloth"] = ""  # what of it must not lie beside water or flames
    cabinet: Cabinet | None = None  # made of boards, whose weight counts where the thing's own is computed
    base: BedBase | None = None  # of a bed
    lid: Lid | None = None
    winch: Winch | None = None  # of a lifting bed
    pull_out: PullOut | None = None
    figure: Word = ""  # what it is drawn as; empty: by what it holds, does and is


class Place(msgspec.Struct, frozen=True):
    """Where a thing is in one mode, when not at home."""

    id: Word  # the thing's
    x: Length
    y: Length
    z: Length
    turn: Literal[0, 90, 180, 270] = 0


class InState(msgspec.Struct, frozen=True):
    """Which of its states a thing is in."""

    id: Word  # the thing's
    state: Word


class Mode(msgspec.Struct, frozen=True):
    """Road, camp or cargo: which things are elsewhere or in another state, and which are not aboard."""

    id: Word
    name: Word
    towing: bool = True
    places: tuple[Place, ...] = ()
    absent: tuple[str, ...] = ()
    states: tuple[InState, ...] = ()
    shut: tuple[str, ...] = ()  # doors and hatches that stay shut; on the road all are

    @property
    def touched(self) -> frozenset[str]:
        """Things that do not stand at home, or not as they are."""
        return frozenset([place.id for place in self.places] + [one.id for one in self.states])


class Level(msgspec.Struct, frozen=True):
    """How full a tank is in one load case, 0 to 1."""

    id: Word  # the tank's thing
    level: Share


class Aboard(msgspec.Struct, frozen=True):
    """Whether a thing rides along in one load case."""

    id: Word
    aboard: bool


class LoadCase(msgspec.Struct, frozen=True):
    """One named state of tanks and cargo."""

    id: Word
    name: Word
    mode: Word
    stage: Literal["bare shell", "as built", "loaded"] = "loaded"
    levels: tuple[Level, ...] = ()
    aboard: tuple[Aboard, ...] = ()


class Stow(msgspec.Struct, frozen=True):
    things: tuple[Thing, ...] = ()
    # one at least: everything stands in some mode
    modes: Annotated[tuple[Mode, ...], msgspec.Meta(min_length=1)] = (
        Mode("road", "Road", True),
        Mode("camp", "Camp", False),
    )
    cases: tuple[LoadCase, ...] = ()  # the builder's own; the standing ones are made
