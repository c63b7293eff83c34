"""Power and wiring: what runs, what charges, and how one is joined to the other."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Hours, Share, Word
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.roles import Role

When = Literal["any", "day", "night"]
DeviceKind = Literal[
    "bus bar",
    "fuse box",
    "main switch",
    "switch",
    "shunt",
    "AC board",
    "RCD",
    "transfer switch",
    "inlet",
    "AC socket",
    "DC socket",
    "car plug",
    "earth stud",
]
WireKind = Literal["DC", "AC", "panel", "earth"]
Insulation = Literal["building", "vehicle"]
Fused = Literal["none", "start", "end", "both"]


class Load(msgspec.Struct, frozen=True):
    """What runs and is no thing of Stow: lamps, telephones, a radio. Watts, or amps at its volts."""

    id: Word
    name: Word
    power_w: Figure | None = None
    amps: Figure | None = None
    volts: Figure | None = None
    current: Literal["DC", "AC"] = "DC"
    hours_day: Hours | None = None
    duty: Share = 1.0
    surge: Figure | None = None  # what it draws when it starts, as a multiple
    start_s: Figure | None = None  # how long it draws that
    when: When = "any"
    must_run: bool = False
    roles: tuple[Role, ...] = ()  # what it does
    # where its wire ends; beside the fuse box where nobody said
    x: Length | None = None
    y: Length | None = None
    z: Length | None = None


class Off(msgspec.Struct, frozen=True):
    """A load left off without being deleted: in some modes, or for the stay that is reckoned."""

    id: Word  # of the load: a thing or a line of its own
    modes: tuple[str, ...] = ()
    stay: bool = False


class Device(msgspec.Struct, frozen=True):
    """What current passes through and is no thing of Stow."""

    id: Word
    name: Word
    kind: DeviceKind
    x: Length
    y: Length
    z: Length
    rating_a: Figure | None = None
    breaks: Literal["both", "plus", "minus"] = "both"  # of a switch: which wires it parts
    mass: Mass | None = None


class Bend(msgspec.Struct, frozen=True):
    """A point that a wire was pulled to by hand."""

    id: Word
    x: Length
    y: Length
    z: Length


class Wire(msgspec.Struct, frozen=True):
    """One run of cable from ``start`` (towards the source) to ``end``, both ids of things, own loads or devices.

    ``fuse_from``: how far along the wire its fuse sits from the end it guards. ``length``: measured one way, where somebody
    laid a tape. What is empty is worked out.
    """

    id: Word
    start: Word
    end: Word
    kind: WireKind = "DC"
    name: Word = ""
    amps: Figure | None = None
    length: Length | None = None
    bends: tuple[Bend, ...] = ()
    area_mm2: Figure | None = None
    insulation: Insulation = "building"
    drop: Share | None = None  # allowed; 3 % where nobody said
    fused: Fused = "start"
    fuse_a: Figure | None = None
    fuse_from: Length | None = None
    bundle: Count = 1  # how many loaded ones lie together
    in_foam: Length | None = None
    near_engine: bool = False
    switched: bool = False
    far_minus: bool = False  # of a link between batteries: plus is taken from one, minus from the other
    colour: Word = ""


class Tray(msgspec.Struct, frozen=True):
    """A duct or tray along the body that wires may lie in, from its front end to its rear end."""

    id: Word
    name: Word
    front: Length
    rear: Length
    y: Length
    z: Length


Told = Literal["", "yes", "no"]  # nobody said


class Water(msgspec.Struct, frozen=True):
    """What water is used for, a person and day where nothing else is said, and how it runs."""

    drink_l: Figure = 6.0  # drinking and cooking
    dishes_l: Figure = 4.0
    shower_l: Figure = 10.0  # each
    showers_day: Figure = 0.0  # of all together
    days: Figure | None = None  # between two fillings; the nights of the brief where nobody said
    hose_bore: Length | None = None
    hose_length: Length | None = None
    tap_height: Length | None = None  # over the tank's outlet
    fall: Length | None = None  # of the drain over its length
    drain_length: Length | None = None
    trap: Length | None = None  # depth of its water
    vented: Told = ""  # the tank lets air in and out
    overflow: Told = ""
    low_drain: Told = ""  # all of it runs out by itself before a frost
    fill_lockable: Told = ""


class Air(msgspec.Struct, frozen=True):
    """How the air is changed and the warmth led about."""

    vent_m3h: Figure | None = None  # that is open all night
    high_cm2: Figure | None = None  # fixed openings that cannot be shut, high and low
    low_cm2: Figure | None = None
    fan_m3h: Figure | None = None  # of a roof fan at full speed
    inlet_cm2: Figure | None = None  # free area that its air comes in by
    recovery: Share | None = None  # of a ventilator with heat recovery
    recovery_w: Figure | None = None  # what that one draws
    heater_m3h: Figure | None = None  # air that a heater blows
    ducts: Count = 0
    duct_bore: Length | None = None
    return_cm2: Figure | None = None  # opening by which the air comes back to it
    locker_drains: Told = ""  # the cylinder's locker: tight to the inside, a hole in its floor
    gas_detector: Told = ""  # low down, where gas would lie


class Systems(msgspec.Struct, frozen=True):
    """How the build is run and wired; sizes left open are worked out or taken from the brief."""

    volts: Literal[12, 24, 48] = 12
    panels_in_series: Annotated[int, msgspec.Meta(ge=1, le=12)] = 1
    gauge: Literal["", "mm2", "AWG"] = ""  # by the practice of the brief where nobody said
    loads: tuple[Load, ...] = ()
    off: tuple[Off, ...] = ()
    shade: tuple[Share, ...] = ()  # of the panels, by the hour of the sun, 24 of them
    drive_hours: Hours = 0.0  # a day, with the car's charger on
    generator_w: Figure | None = None
    generator_hours: Hours = 0.0
    plugged: bool = False  # the stay is on a hookup
    hookup_a: Figure | None = None
    devices: tuple[Device, ...] = ()
    wires: tuple[Wire, ...] = ()
    trays: tuple[Tray, ...] = ()
    water: Water = Water()
    air: Air = Air()
    bonds: tuple[str, ...] = ()  # ids of what joins neutral and earth

    @property
    def ids(self) -> frozenset[str]:
        """Of own loads, devices and wires: what can be picked."""
        return frozenset(one.id for some in (self.loads, self.devices, self.wires) for one in some)
