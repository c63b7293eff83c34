"""Power and wiring: what runs, what charges, and how one is joined to the other."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Hours, Share, Word
from uncle_sled.core.document.field import SOME, about
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.roles import Role
from uncle_sled.core.document.stow import FILLED_WORDS, Filled

# one field a line, as a table
# fmt: off
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
Fused = Literal["start", "end", "both", "none"]


class Load(msgspec.Struct, frozen=True):
    """What runs and is no thing of Stow: lamps, telephones, a radio. Watts, or amps at its volts."""

    id: Word
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    power_w: Annotated[Figure | None, about("Watts", "While it runs", unit="W")] = None
    amps: Annotated[Figure | None, about("or amps", "At its volts; counts where no watts are said", unit="A")] = None
    volts: Annotated[Figure | None, about("Volts", "That its amps are at", unit="V")] = None
    current: Annotated[Literal["DC", "AC"], about("Runs on", "What its plug wants", words={"DC": "the battery", "AC": "mains"})] = "DC"
    hours_day: Annotated[Hours | None, about("Hours a day", "0 to 24", unit="h")] = None
    duty: Annotated[Share, about("Duty", "Of its hours that it really draws")] = 1.0
    surge: Annotated[Figure | None, about("Starts with", "Times what it runs on", unit="×")] = None
    start_s: Annotated[Figure | None, about("Start lasts", "How long it draws so much", unit="s")] = None
    when: Annotated[When, about("Runs", "By day is 8 to 20 by the sun", words={"any": "any time", "day": "by day", "night": "by night"})] = "any"
    must_run: Annotated[bool, about("Must run", "It has a reserve of its own in the battery")] = False
    roles: tuple[Role, ...] = ()  # what it does
    store_wh: Annotated[Figure | None, about("Stores", "In a battery of its own, that it runs on", unit="Wh")] = None
    charge_w: Annotated[Figure | None, about("Charges", "What its charger takes at its plug", unit="W")] = None
    filled: Annotated[Filled, about("Filled", "Of what has a battery of its own: when its charger runs", words=FILLED_WORDS)] = "day"
    # where its wire ends; beside the fuse box where nobody said
    x: Annotated[Length | None, about("Station", "Where its wire ends, from the ball")] = None
    y: Annotated[Length | None, about("Side", "Right of the middle; left is negative")] = None
    z: Annotated[Length | None, about("Height", "Over the ground", least=0.0)] = None


class Off(msgspec.Struct, frozen=True):
    """A load left off without being deleted: in some modes, or for the stay that is reckoned."""

    id: Word  # of the load: a thing or a line of its own
    modes: tuple[str, ...] = ()
    stay: bool = False


class Shaded(msgspec.Struct, frozen=True):
    """Shade on one panel alone, by the hour of the sun, 24 of them."""

    id: Word  # the panel's
    shade: tuple[Share, ...]


class Device(msgspec.Struct, frozen=True):
    """What current passes through and is no thing of Stow."""

    id: Word
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    kind: Annotated[DeviceKind, about("Kind", "What the current passes through", words={
        "bus bar": "Bus bar", "fuse box": "Fuse box", "main switch": "Main switch", "switch": "Switch", "shunt": "Battery monitor shunt",
        "AC board": "Board of breakers", "RCD": "RCD (GFCI)", "transfer switch": "Transfer switch", "inlet": "Hookup inlet",
        "AC socket": "Mains socket", "DC socket": "12 V socket", "car plug": "Car plug", "earth stud": "Earth stud on the frame",
    })]
    x: Annotated[Length, about("Station", "From the ball")]
    y: Annotated[Length, about("Side", "Right of the middle; left is negative")]
    z: Annotated[Length, about("Height", "Over the ground", least=0.0)]
    rating_a: Annotated[Figure | None, about("Good for", "What stands on it", unit="A")] = None
    breaks: Annotated[Literal["both", "plus", "minus"], about("Parts", "Which wires it opens; a switch in the minus leaves plus on what is off", words={"both": "both wires", "minus": "minus only"})] = "both"
    mass: Annotated[Mass | None, about("Weighs", "Of the device alone")] = None


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
    kind: Annotated[WireKind, about("Carries", "What runs in it; earths carry nothing but faults", words={"DC": "battery (DC)", "AC": "mains (AC)", "panel": "panels"})] = "DC"
    name: Word = ""
    amps: Annotated[Figure | None, about("Amps", "Worked out from all that runs behind it where it is left empty", unit="A", least=SOME, blank="worked out")] = None
    length: Annotated[Length | None, about("Measured", "One way, by tape; its route where it is left empty", least=0.01, blank="its route")] = None
    bends: tuple[Bend, ...] = ()
    area_mm2: Annotated[Figure | None, about("Copper", "Worked out where it is left empty", unit="mm2 copper", least=SOME, blank="worked out")] = None
    insulation: Annotated[Insulation, about("Class", "As printed on the wire; mains stays on the cautious class", words={"building": "building, cautious", "vehicle": "vehicle, marked 105"})] = "building"
    drop: Annotated[Share | None, about("May lose", "Of its volts; 3 % for what matters, 10 % for lamps")] = None
    fused: Annotated[Fused, about("Fuse", "At each end that a battery can feed", words={"start": "at its beginning", "end": "at its end", "both": "at both ends", "none": "no fuse of its own", })] = "start"
    fuse_a: Annotated[Figure | None, about("Fuse size", "Worked out where it is left empty", unit="A", least=SOME, blank="worked out")] = None
    fuse_from: Annotated[Length | None, about("It sits at", "How far along the wire, from the end it guards")] = None
    bundle: Annotated[Count, about("In a bundle of", "How many loaded ones lie together: from four on each carries less", least=1)] = 1
    in_foam: Annotated[Length | None, about("In foam for", "Wholly in insulation over so much: it carries less")] = None
    near_engine: Annotated[bool, about("Near an engine", "In its warmth a wire carries less")] = False
    switched: Annotated[bool, about("A switch of its own", "Pumps want one")] = False
    far_minus: Annotated[bool, about("Plus and minus at far ends", "Of a row of batteries: plus from one end, minus from the other")] = False
    colour: Annotated[Word, about("Colours", "As you lay it; by the practice where it is left empty")] = ""


class Tray(msgspec.Struct, frozen=True):
    """A duct or tray along the body that wires may lie in, from its front end to its rear end."""

    id: Word
    name: Word
    front: Annotated[Length, about("Front end", "Station")]
    rear: Annotated[Length, about("Rear end", "Station")]
    y: Annotated[Length, about("Side", "Right of the middle; left is negative")]
    z: Annotated[Length, about("Height", "Over the ground", least=0.0)]


Told = Literal["", "yes", "no"]  # nobody said


class Water(msgspec.Struct, frozen=True):
    """What water is used for, a person and day where nothing else is said, and how it runs."""

    drink_l: Annotated[Figure, about("Drink, cook", "A person and day", unit="L")] = 6.0
    dishes_l: Annotated[Figure, about("Dishes", "A person and day", unit="L")] = 4.0
    shower_l: Annotated[Figure, about("A shower", "Each; {8 L} to {15 L}", unit="L")] = 10.0
    showers_day: Annotated[Figure, about("Showers a day", "Of all together")] = 0.0
    basin_l: Annotated[Figure | None, about("At the basin", "Washing, teeth, hands: a person and day; {6 L} to {15 L} with a tap that is shut", unit="L", blank="not counted")] = None
    laundry_l: Annotated[Figure | None, about("Clothes", "A week, washed by hand; a machine aboard has its own litres", unit="L", blank="not counted")] = None
    flush_l: Annotated[Figure | None, about("A flush", "Of a toilet that is rinsed; {0.4 L} where nobody said", unit="L", blank="usual")] = None
    flush_from: Annotated[Literal["own", "tank"], about("Rinsed from", "Where the toilet takes its water", words={"own": "its own tank", "tank": "the fresh tank"})] = "own"
    toilet_share: Annotated[Share, about("Used aboard", "How much of it goes into the toilet aboard; less where there are others")] = 1.0
    days: Annotated[Figure | None, about("Days wanted", "Between two fillings; the nights off grid where nothing is said")] = None
    hose_bore: Annotated[Length | None, about("Hose inside", "Its bore; {10 mm} where nothing is said", thin=True)] = None
    hose_length: Annotated[Length | None, about("Hose long", "From tank to the farthest tap")] = None
    tap_height: Annotated[Length | None, about("Tap over tank", "How high the water is lifted")] = None
    fall: Annotated[Length | None, about("Drain falls", "Over its length; 1 in 50 at the least")] = None
    drain_length: Annotated[Length | None, about("Drain long", "From the sink to the grey tank")] = None
    trap: Annotated[Length | None, about("Trap deep", "Of water that stands in it; {50 mm} at the least")] = None
    vented: Annotated[Told, about("Tank is vented", "As wide as the air of the filler, {12 mm} at the least")] = ""
    overflow: Annotated[Told, about("Has an overflow", "So that a full tank does not lift its lid")] = ""
    low_drain: Annotated[Told, about("Low drain", "All of it runs out by itself before a frost")] = ""
    fill_lockable: Annotated[Told, about("Fill point locks", "Nobody fills it with something else")] = ""


class Air(msgspec.Struct, frozen=True):
    """How the air is changed and the warmth led about."""

    vent_m3h: Annotated[Figure | None, about("Through", "Air that is let through all night; {20 m3/h} is taken where nobody said", unit="m3/h")] = None
    high_cm2: Annotated[Figure | None, about("Open high", "Fixed openings that cannot be shut, as papers and rules ask", unit="cm2")] = None
    low_cm2: Annotated[Figure | None, about("Open low", "Low down, where gas would lie", unit="cm2")] = None
    fan_m3h: Annotated[Figure | None, about("Roof fan", "At full speed", unit="m3/h")] = None
    inlet_cm2: Annotated[Figure | None, about("Its inlet", "Free area where that air comes in", unit="cm2")] = None
    recovery: Annotated[Share | None, about("Heat kept", "Of a ventilator with heat recovery")] = None
    recovery_w: Annotated[Figure | None, about("It draws", "Of a ventilator with heat recovery", unit="W")] = None
    heater_m3h: Annotated[Figure | None, about("Heater blows", "By its data sheet", unit="m3/h")] = None
    ducts: Annotated[Count, about("Ducts", "How many lead away from it")] = 0
    duct_bore: Annotated[Length | None, about("Duct inside", "Its bore")] = None
    return_cm2: Annotated[Figure | None, about("Return", "Opening by which its air comes back", unit="cm2")] = None
    locker_drains: Annotated[Told, about("Locker drains", "The cylinder's locker is tight to the inside and has a hole in its floor")] = ""
    gas_detector: Annotated[Told, about("Gas detector", "Low down, where gas would lie")] = ""


class Systems(msgspec.Struct, frozen=True):
    """How the build is run and wired; sizes left open are worked out or taken from the brief."""

    volts: Annotated[Literal[12, 24, 48], about("Volts", "Of the battery bank; batteries of 12 V stand in rows for more", words={12: "12 V", 24: "24 V", 48: "48 V"})] = 12
    panels_in_series: Annotated[Annotated[int, msgspec.Meta(ge=1, le=12)], about("Panels in a row", "In series to one controller")] = 1
    gauge: Annotated[Literal["", "mm2", "AWG"], about("Wires in", "Sizes as they are sold where you buy", words={"": "by the practice", "mm2": "mm²"})] = ""
    loads: tuple[Load, ...] = ()
    off: tuple[Off, ...] = ()
    shade: tuple[Share, ...] = ()  # of the panels, by the hour of the sun, 24 of them
    shaded: tuple[Shaded, ...] = ()  # panels that have a shade of their own
    drive_hours: Annotated[Hours, about("Driven a day", "With the car's charger on", unit="h")] = 0.0
    generator_w: Annotated[Figure | None, about("Generator", "At its socket", unit="W")] = None
    generator_hours: Annotated[Hours, about("It runs a day", "The generator", unit="h")] = 0.0
    plugged: Annotated[bool, about("On a hookup", "Then what runs on mains costs no battery")] = False
    hookup_a: Annotated[Figure | None, about("Hookup", "Of its breaker; 16 A or 30 A by the practice where nobody said", unit="A")] = None
    devices: tuple[Device, ...] = ()
    wires: tuple[Wire, ...] = ()
    trays: tuple[Tray, ...] = ()
    water: Water = Water()
    air: Air = Air()
    bonds: tuple[str, ...] = ()  # ids of what joins neutral and earth

    @property
    def ids(self) -> frozenset[str]:
        """Of own loads, devices and wires: what can be picked."""
        return frozenset(part.id for some in (self.loads, self.devices, self.wires) for part in some)
