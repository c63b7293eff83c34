"""Things of real size in the body or on the rig, and the modes they are put in."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Angle, Count, Figure, Hours, Ratio, Share, Turn, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.joinery import BedBase, Cabinet, Lid, PullOut, Winch
from uncle_sled.core.document.quantity import Length, Mass, Volume
from uncle_sled.core.document.rig import SOURCE_WORDS, Source
from uncle_sled.core.document.roles import Role

# one field a line, as a table
# fmt: off
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
Contents = Literal["fresh", "grey", "black", "urine", "solids", "gas", "petrol", "diesel"]


TankShape = Literal["box", "cylinder", "wedge", "jug", "outline"]
Side = Literal["front", "rear", "left", "right", "top"]


class TankPoint(msgspec.Struct, frozen=True):
    """A corner of a tank's own outline, seen from its left: shares of its length (from its front) and height."""

    u: Ratio
    v: Ratio


class Tank(msgspec.Struct, frozen=True):
    """What a tank holds and its true shape inside the box of its thing."""

    volume: Annotated[Volume | None, about("Holds", "What it holds to the brim, as its maker says")] = None
    contents: Annotated[Contents, about("What", "What is in it: its weight and what is judged beside it follow", words={"fresh": "fresh water", "grey": "grey water", "black": "black water", "urine": "urine, kept apart", "solids": "solids with their cover"})] = "fresh"
    shape: Annotated[TankShape, about("Shape", "Its outside; where the liquid's weight goes with its level follows from it.", words={"outline": "own outline"})] = "box"
    axis: Annotated[Literal["along", "across", "upright"], about("Lies", "The way that a cylinder's length points.", words={"along": "lying along", "across": "lying across"})] = "along"
    thin: Annotated[Literal["front", "rear"], about("Low end", "Which end of a wedge is the low one.")] = "front"
    thin_height: Annotated[Length | None, about("Height there", "Half of the height where nothing is typed")] = None
    slant: Annotated[Literal["top", "bottom"], about("Slants", "Which of a wedge's faces slants.", words={"top": "its top", "bottom": "its bottom"})] = "top"
    outline: Annotated[tuple[TankPoint, ...], about("Corners", "Seen from the left, in hundredths of its length and height, once round: 0,0 100,0 100,60 0,100")] = ()
    carried: Annotated[bool, about("Carried out", "It is taken out by hand to be filled or emptied, as a jug is")] = False


class State(msgspec.Struct, frozen=True):
    """Another form of a thing: a bed folded, a table dropped, an awning out. ``d`` moves it from its place."""

    id: Word
    name: Annotated[Word, about("Called", "What this form is called: folded, let down, slid out.")]
    length: Annotated[Length, about("Length", "In this form, along the trailer while it is not turned")]
    width: Annotated[Length, about("Width", "In this form, across the trailer while it is not turned")]
    height: Annotated[Length, about("Height", "In this form, from its underside to its top")]
    dx: Annotated[Length | None, about("Aft", "How far aft of its place it goes; minus forward")] = None
    dy: Annotated[Length | None, about("Right", "How far right of its place it goes; minus left")] = None
    dz: Annotated[Length | None, about("Up", "How far up from its place it goes; minus down")] = None
    minutes: Annotated[Count | None, about("Minutes", "To change into it; Reach adds them up", unit="min")] = None
    hands: Annotated[Count | None, about("Hands", "How many people it takes")] = None
    bed: Annotated[bool, about("A bed", "One sleeps on it so")] = False


class Clear(msgspec.Struct, frozen=True):
    """Room that a thing needs beside it when it is used: its door's swing, its drawer's travel, air, heat."""

    id: Word
    kind: Annotated[Literal["door", "drawer", "lid", "service", "air", "heat"], about("Room for", "What wants the room: a door's swing, a drawer, a lid, a hand, air, heat", words={"door": "a door's swing", "drawer": "a drawer", "lid": "a lid"})]
    side: Annotated[Side, about("At its", "Of the thing before it is turned")]
    deep: Annotated[Length, about("Deep", "How far its door swings, its drawer comes out, its heat reaches")]


class Hold(msgspec.Struct, frozen=True):
    """What holds a thing on the road; ``rated`` is the working load of one."""

    kind: Annotated[Literal["strap", "bolt", "latch", "lip", "rail", "built in"], about("Held by", "What keeps it in place in a stop; nothing said counts as loose.", words={"strap": "straps", "bolt": "bolts", "latch": "latches", "lip": "a lip", "rail": "a rail"})] = "strap"
    many: Annotated[Count, about("Many", "How many of them; straps that lead both ways hold by half of them each way", least=1)] = 1
    rated: Annotated[Mass | None, about("Each good for", "Working load, as it stands on strap, ring or latch")] = None
    into: Annotated[Literal["framing", "frame", "skin"], about("Goes into", "Where rings and bolts end: the frame holds most, a skin alone little.", words={"framing": "the framing", "frame": "the frame", "skin": "the skin"})] = "framing"
    # of straps: over the floor, and in plan from the trailer's axis; 45 where nobody measured
    elevation_deg: Annotated[Angle | None, about("Steep by", "Degrees over the floor, 0 to 90; 45 is taken where nobody measured", unit="°")] = None
    plan_deg: Annotated[Angle | None, about("Aside by", "Degrees from the trailer's axis, seen from above, 0 to 90; 45 is taken where nobody measured", unit="°")] = None
    leads: Annotated[Literal["both ways", "aft", "fore"], about("They lead", "Seen from the thing; both ways: half of them each", words={"both ways": "fore and aft", "aft": "all aft", "fore": "all forward"})] = "both ways"


class Latch(msgspec.Struct, frozen=True):
    """What keeps a cupboard's door shut on the road, and what leans on it from behind."""

    kind: Annotated[Literal["none", "push", "turn", "bolt", "lip", "sliding"], about("Door", "What keeps its door shut in a stop.", words={"none": "nothing", "push": "a push latch", "turn": "a turn catch", "bolt": "a bolt", "lip": "a shelf's lip", "sliding": "sliding doors"})] = "push"
    rated_n: Annotated[Figure | None, about("Holds", "As its maker says; {10 N} holds a kilogram or two pounds", unit="N")] = None
    leans: Annotated[Mass | None, about("Leans on it", "What lies behind the door")] = None
    opens: Annotated[Literal["front", "rear", "left", "right"], about("Opens to", "Of the thing unturned")] = "rear"


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


Filled = Literal["day", "night", "driving", "home"]
FILLED_WORDS = {"day": "by day", "night": "by night", "driving": "while driving", "home": "not aboard"}


class Figures(msgspec.Struct, frozen=True):
    """Figures of a thing's kind that power, gas and water are reckoned from; what is not known stays empty.

    ``unit``: what it is in the wiring; nothing for what only runs.
    """

    power_w: Annotated[Figure | None, about("Takes", "While it runs", unit="W")] = None
    hours_day: Annotated[Hours | None, about("Hours a day", "That it runs", unit="h")] = None
    store_wh: Annotated[Figure | None, about("Stores", "That can be used: of a battery, or of one that a thing has of its own", unit="Wh")] = None
    solar_wp: Annotated[Figure | None, about("Solar", "At its peak, by its plate", unit="W")] = None
    charge_w: Annotated[Figure | None, about("Charges", "At the most", unit="W")] = None
    volts: Annotated[Figure | None, about("Volts", "By its plate", unit="V")] = None
    gas_g_h: Annotated[Figure | None, about("Gas", "While it burns", unit="g/h")] = None
    water_l_day: Annotated[Figure | None, about("Water", "A day", unit="L")] = None
    unit: Annotated[Unit, about("In the wiring", "What it is on the diagram of Systems", words={"": "what runs, or nothing", "battery": "a battery", "station": "a power station", "panel": "a solar panel", "solar charger": "a solar charge controller", "mains charger": "a charger from the mains", "car charger": "a charger from the car", "inverter": "an inverter", "inverter charger": "inverter and charger", "fuse box": "a fuse box", "inlet": "a hookup inlet", "generator": "a generator"})] = ""
    filled: Annotated[Filled, about("Filled", "Of what has a battery of its own: when its charger runs", words=FILLED_WORDS)] = "day"
    amps: Annotated[Figure | None, about("Amps", "Instead of watts", unit="A")] = None
    current: Annotated[Literal["", "DC", "AC"], about("Runs on", "What its plug wants", words={"": "by its volts", "DC": "the battery", "AC": "mains"})] = ""
    duty: Annotated[Share | None, about("Duty", "Of its hours that it really draws")] = None
    surge: Annotated[Figure | None, about("Starts with", "Times what it runs on", unit="×")] = None
    start_s: Annotated[Figure | None, about("Start lasts", "How long it draws so much; nothing: over a second", unit="s")] = None
    when: Annotated[Literal["any", "day", "night"], about("Runs", "By day is 8 to 20 by the sun", words={"any": "any time", "day": "by day", "night": "by night"})] = "any"
    must_run: Annotated[bool, about("Must run", "It has a reserve of its own in the battery")] = False
    chemistry: Annotated[Literal["", "LFP", "AGM", "lead"], about("Kind", "How much of it may be used, and what it does in the cold", words={"lead": "lead, flooded"})] = ""
    amp_hours: Annotated[Figure | None, about("Holds", "As sold, of a battery", unit="Ah")] = None
    depth: Annotated[Share | None, about("Used of it", "How much of a battery is used; by its chemistry where nobody said")] = None
    cold_cut: Annotated[bool, about("Keeps itself from frost", "It stops charging below freezing, or warms itself")] = False
    limit_a: Annotated[Figure | None, about("Gives", "At most, of a battery or of a station's 12 V outlet", unit="A")] = None
    idle_w: Annotated[Figure | None, about("Idles at", "While an inverter is on", unit="W")] = None
    voc_v: Annotated[Figure | None, about("Open", "Of a panel, from its plate", unit="V")] = None
    beta_pct_k: Annotated[Figure | None, about("Cold adds", "Of its volts a degree, of a panel", unit="%/K")] = None
    most_v: Annotated[Figure | None, about("Takes", "At most, of a charge controller", unit="V")] = None
    heat_w: Annotated[Figure | None, about("Warms", "What a heater gives", unit="W heat")] = None
    cool_w: Annotated[Figure | None, about("Cools", "What a cooler takes away", unit="W heat")] = None
    flow_l_min: Annotated[Figure | None, about("Pumps", "With the tap open", unit="L/min")] = None
    slot_cm2: Annotated[Figure | None, about("Free air", "Of a fridge that is built in: of each of two openings, low and high", unit="cm2")] = None
    noise_db: Annotated[Figure | None, about("Noise", "At {1 m} in the open, by its data sheet", unit="dB")] = None
    tilt_deg: Annotated[Angle | None, about("Tilted", "Over level, of a panel", unit="°")] = None
    azimuth_deg: Annotated[Turn | None, about("Slopes to", "From the midday sun, the afternoon's side positive, of a panel", unit="°")] = None


class Thing(msgspec.Struct, frozen=True):
    """A box of real size: ``x`` its front edge, ``y`` its middle, ``z`` its underside."""

    id: Word
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    kind: Annotated[Kind, about("Kind", "What it is for; catalogue, colours and checks read it.")]
    length: Annotated[Length, about("Length", "Along the trailer while it is not turned.")]
    width: Annotated[Length, about("Width", "Across the trailer while it is not turned.")]
    height: Annotated[Length, about("Height", "From its underside to its top.")]
    x: Annotated[Length, about("Front edge", "From the ball, or from the front axle of a bed")]
    y: Annotated[Length, about("Middle", "Right of the middle line; left is minus")]
    z: Annotated[Length, about("Underside", "Above the ground", least=0.0)]
    mass: Annotated[Mass, about("Weight", "Empty, as it stands; what a tank holds comes on top.")]
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "estimated"
    turn: Annotated[Literal[0, 90, 180, 270], about("Turned", "Seen from above, in quarter turns; a quarter takes its front to the left.", words={0: "as it is", 90: "quarter turn", 180: "half turn", 270: "three quarters"})] = 0
    # weight at: offset of the centre of gravity from the middle of the unturned box
    cg_dx: Annotated[Length | None, about("Weight off", "How far aft of its middle its weight sits")] = None
    cg_dy: Annotated[Length | None, about("Weight beside", "How far right of its middle its weight sits")] = None
    cg_dz: Annotated[Length | None, about("Weight over", "How far over its middle its weight sits")] = None
    tank: Tank | None = None
    cargo: Annotated[bool, about("Goes home with the people", "It leaves with its people: not aboard for sale or as built.")] = False
    outside: Annotated[bool, about("Stands outside the body", "On drawbar, roof or tail; then the body's walls are not in its way.")] = False
    stays: Annotated[bool, about("Stays where it is", "Uncle leaves it where it is when he looks for what to move.")] = False
    taken_out: Annotated[bool, about("Taken out", "It was weighed with the bought shell and is gone: it counts negative")] = False
    held_by: Annotated[Word, about("In words", "In your own words; it stands on the list and is not reckoned with.")] = ""
    hold: Annotated[Hold | None, about("Held by", "What keeps it in place in a stop; nothing said counts as loose.")] = None
    latch: Annotated[Latch | None, about("Door shut by", "What keeps a cupboard's door shut on the road")] = None
    floor: Annotated[Literal["", "wood", "metal", "rubber"], about("Stands on", "Friction helps the straps; not said, it counts for nothing", words={"wood": "dry wood", "metal": "metal, or wet", "rubber": "a rubber mat"})] = ""
    rides: Annotated[Literal["", "front", "rear", "boot", "roof"], about("Rides in the car", "Then it weighs on the car and not on the trailer", words={"": "no", "front": "in front", "rear": "behind", "boot": "in the boot", "roof": "on its roof"})] = ""
    inside: Annotated[Word | None, about("Built into", "It goes where that goes, and does not clash with it")] = None
    states: Annotated[tuple[State, ...], about("It is", "Its form in this mode: folded, let down, slid out.")] = ()
    clear: tuple[Clear, ...] = ()
    roles: Annotated[tuple[Role, ...], about("Does", "What it is there for: alarms, flames, water and power are judged by this, never by its name")] = ()
    places: Annotated[Count, about("Places", "How many sit there")] = 0
    since: Annotated[Annotated[int, msgspec.Meta(ge=1980, le=2200)] | None, about("In use since", "The year, of a battery: unlike ages in one bank are told")] = None
    arrival: Annotated[bool, about("Wanted first on arrival", "Blocks, cord, hose: it should be reached from outside first of all.")] = False
    figures: Figures | None = None
    burns: Annotated[Literal["none", "gas", "spirit", "wood", "diesel"], about("Burns", "A flame inside is judged with alarms, vents and ways out, whatever it burns.", words={"none": "nothing"})] = "none"
    room_sealed: Annotated[bool, about("Room-sealed", "Air from outside and smoke to outside; a cylinder: in a locker that drains outside")] = False
    flued: Annotated[bool, about("Smoke up a flue", "Its air comes from the room, its smoke goes up a pipe")] = False
    shielded: Annotated[bool, about("A shield beside it", "A sheet between it and the wall, with {25 mm} of air behind and open low and high")] = False
    vents_gas: Annotated[bool, about("Gives off gas", "As a lead battery does while it charges")] = False
    fumes: Annotated[bool, about("Gives off fumes", "Petrol, a generator")] = False
    near: Annotated[Literal["", "mains", "cloth"], about("Keep it from", "Mains equipment from water, cloth from flames", words={"": "nothing", "mains": "water: it is mains", "cloth": "flames: it is cloth"})] = ""
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
    towing: Annotated[bool, about("On the road", "It is towed or driven so")] = True
    places: tuple[Place, ...] = ()
    absent: tuple[str, ...] = ()
    states: tuple[InState, ...] = ()
    shut: tuple[str, ...] = ()  # doors and hatches that stay shut; on the road all are
    roof_down: Annotated[bool, about("Roof stays down", "Of a body whose roof goes up: not in this mode")] = False

    @property
    def touched(self) -> frozenset[str]:
        """Things that do not stand at home, or not as they are."""
        return frozenset([place.id for place in self.places] + [state.id for state in self.states])


class Level(msgspec.Struct, frozen=True):
    """How full a tank is in one load case, 0 to 1."""

    id: Word  # the tank's thing
    level: Annotated[Share, about("Full", "How full it is")]


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


class Arranging(msgspec.Struct, frozen=True):
    """What must be so where other arrangements are looked for; ``locked``: things that stay where one of those put them."""

    beds: Annotated[Literal["", "along", "across"], about("Beds lie", "Which way their long side points.", words={"": "either way", "along": "lengthwise", "across": "crosswise"})] = ""
    kitchen: Annotated[Word, about("Kitchen at", "The door or hatch beside which all stands that cooks or has a tap")] = ""
    toilet: Annotated[bool, about("Toilet behind a door", "In another room than the largest, parted from it by a partition with a door")] = False
    battery: Annotated[Length | None, about("Battery within", "Of what its wires go to, along the axes; nothing: as short as comes out", blank="no wish")] = None
    low: Annotated[Mass | None, about("On the floor from", "What weighs so much or more stands no higher than {350 mm} over the floor", blank="no wish")] = None
    locked: tuple[Place, ...] = ()


class Stow(msgspec.Struct, frozen=True):
    """Everything that rides along, the modes it stands in, and the load cases of one's own."""

    things: tuple[Thing, ...] = ()
    # one at least: everything stands in some mode
    modes: Annotated[tuple[Mode, ...], msgspec.Meta(min_length=1)] = (
        Mode("road", "Road", towing=True),
        Mode("camp", "Camp", towing=False),
    )
    cases: tuple[LoadCase, ...] = ()  # the builder's own; the standing ones are made
    arranging: Arranging = Arranging()
