"""On the road: tickets of the scale, what they taught, trips, wishes of the customer, and how it stands for good."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Number, Share, Story, Word
from uncle_sled.core.document.field import SOME, about
from uncle_sled.core.document.quantity import Length, Mass, Stiffness

# one field a line, as a table
# fmt: off
WeighWay = Literal["platform with the car", "trailer on its jack", "plank", "tongue scale", "wheel pads", "tilted", "total and ball", "ruler", "vehicle axles"]

# What each way is called by whoever stands at the scale.
WAYS_SAID = {
    "platform with the car": "public scale, two trips",
    "trailer on its jack": "public scale, on its jack",
    "total and ball": "in all, and the ball",
    "plank": "bathroom scale, plank",
    "tongue scale": "scale under the ball",
    "wheel pads": "a pad under each wheel",
    "tilted": "nose raised",
    "ruler": "ruler, and a bathroom scale",
    "vehicle axles": "public scale, each axle",
}


class Reading(msgspec.Struct, frozen=True):
    """One number read off a scale. id: where the wheels stood or what was on it, by the way of weighing."""

    id: Word
    kg: Annotated[Number, about("Reads", "As the scale showed it", unit="kg")]


class Modelled(msgspec.Struct, frozen=True):
    """What the model said of a load case on the day of a ticket."""

    case: Word
    total_kg: Figure
    tongue_kg: Number | None = None


class Ticket(msgspec.Struct, frozen=True):
    """One weigh-in. step_kg: of the scale; grade: share that its class leaves open; case: the load case that it was like.

    model: what the build said of every case that day, by which it is known later whether it is still that trailer.

    Lengths as the way of weighing asks for them: jack from the ball, plank pivot to scale and to coupler; angle of tilting.
    """

    id: Word
    on: Annotated[Word, about("Day", "Year-month-day")]
    way: Annotated[WeighWay, about("Way", "How it is weighed", words=WAYS_SAID)] = "platform with the car"
    readings: tuple[Reading, ...] = ()
    step_kg: Annotated[Figure, about("Steps of", "{20 kg} on a public platform, {0.1 kg} on a bathroom scale", unit="kg")] = 20.0
    grade: Annotated[Share, about("Class leaves open", "Share of a reading that its class leaves open")] = 0.0005
    case: Annotated[Word, about("What was aboard", "The load case that it was like; until it is said the ticket teaches nothing")] = ""
    jack: Annotated[Length | None, about("Jack from ball", "Where the jack stands")] = None
    plank_scale: Annotated[Length | None, about("Pivot to scale", "Along the plank, from the pipe it turns on to the middle of the scale")] = None
    plank_coupler: Annotated[Length | None, about("Pivot to ball", "Along the plank, from the pipe it turns on to under the coupler")] = None
    coupler_height: Annotated[Length | None, about("Coupler height", "Level")] = None
    wheel_radius: Annotated[Length | None, about("Wheel radius", "Of the loaded axle's centre")] = None
    tilt_deg: Annotated[Figure | None, about("Angle", "Ten or more", unit="°")] = None
    # by a ruler: how far springs gave from hanging free, and the prints of the tyres
    sag_left: Annotated[Length | None, about("Sag left", "From hanging free to standing, at the wheel; of two axles the mean", thin=True)] = None
    sag_right: Annotated[Length | None, about("Sag right", "From hanging free to standing, at the wheel; of two axles the mean", thin=True)] = None
    rate: Annotated[Stiffness | None, about("Spring rate", "Of one wheel; nothing: the rig's own")] = None
    unsprung: Annotated[Mass | None, about("Under the springs", "Axles, hubs and wheels together; nothing: the axles as they weigh")] = None
    pressure_kpa: Annotated[Figure | None, about("Tyre pressure", "Cold, by a gauge; {100 kPa} is one bar", unit="kPa")] = None
    print_left: Annotated[Length | None, about("Print left, long", "Of the left tyre's print on paper; of two axles the mean", thin=True)] = None
    print_right: Annotated[Length | None, about("Print right, long", "Of the right tyre's print on paper; of two axles the mean", thin=True)] = None
    print_wide: Annotated[Length | None, about("Prints wide", "Across the tread", thin=True)] = None
    car_kg: Annotated[Figure | None, about("Less in the car", "People or luggage that left the car before the second ticket", unit="kg")] = None
    model: tuple[Modelled, ...] = ()
    note: Story = ""


class GroupFactor(msgspec.Struct, frozen=True):
    """By how much a group of masses is heavier than it was thought."""

    id: Word
    factor: Figure


class Seen(msgspec.Struct, frozen=True):
    """A load case as it stood on a scale. model: what the corrected build says of its total and ball; the others as read."""

    case: Word
    model_kg: Figure
    model_tongue_kg: Number | None = None
    total_kg: Figure | None = None
    tongue_kg: Number | None = None


class Correction(msgspec.Struct, frozen=True):
    """What tickets taught: a factor for each group, and how sure they are together.

    cov: covariance of the factors, row by row in the order of the groups. The last correction counts; it holds all before it.
    seen: the cases that its tickets weighed.
    """

    id: Word
    tickets: tuple[str, ...]
    groups: tuple[GroupFactor, ...]
    cov: tuple[Number, ...]
    seen: tuple[Seen, ...] = ()


class HourDrawn(msgspec.Struct, frozen=True):
    """What a record of the battery says of one hour of the day. hour: 0 to 23 by its clock; hours: of which it has a record."""

    hour: Annotated[int, msgspec.Meta(ge=0, le=23)]
    watts: Figure
    hours: Figure


class Trip(msgspec.Struct, frozen=True):
    """Nights away and what they took."""

    id: Word
    name: Word
    on: Word = ""
    nights: Annotated[Count, about("Nights", "Away")] = 1
    planned_nights: Annotated[Count | None, about("Nights planned", "Before it began")] = None
    people: Annotated[Count, about("People", "Aboard")] = 1
    water_l: Annotated[Figure | None, about("Water used", "In all", unit="L")] = None
    power_wh: Annotated[Figure | None, about("Power used", "In all", unit="Wh")] = None
    gas_kg: Annotated[Figure | None, about("Gas used", "In all", unit="kg")] = None
    coldest_c: Annotated[Number | None, about("Coldest outside", "Of its nights", unit="degC")] = None
    inside_c: Annotated[Number | None, about("Coldest inside", "Of its nights", unit="degC")] = None
    wet_mornings: Annotated[Count | None, about("Wet mornings", "On which something dripped inside")] = None
    drawn: tuple[HourDrawn, ...] = ()  # by the hour of the day, where nothing charged meanwhile
    says: Story = ""


class Wish(msgspec.Struct, frozen=True):
    """Something that was asked for. where: id of the thing, face or opening that meets it; nothing: it is not met yet."""

    id: Word
    says: Story
    where: Word = ""
    agreed: Story = ""  # what was changed of it, and agreed


class Standing(msgspec.Struct, frozen=True):
    """How it stands for good. blocks: from the ball [m each]; fall: of the ground over the body, low at the rear above 0."""

    blocks: Annotated[tuple[Length, ...], about("Blocks from front", "Places from the body's front, parted by ;")] = ()
    fall: Annotated[Length | None, about("Ground falls", "Over the length of the body, towards the rear")] = None
    bearing_kpa: Annotated[Figure | None, about("Bearing", "{75 kPa} is soft, {150 kPa} firm; ask about yours", unit="kPa", least=SOME)] = None
    snow_kpa: Annotated[Figure | None, about("Snow", "On the roof, by the place", unit="kPa")] = None
    wind_pa: Annotated[Figure | None, about("Wind", "Pressure by the place", unit="Pa")] = None


class Road(msgspec.Struct, frozen=True):
    """What the road taught."""

    tickets: tuple[Ticket, ...] = ()
    corrections: tuple[Correction, ...] = ()
    trips: tuple[Trip, ...] = ()
    wishes: tuple[Wish, ...] = ()
    standing: Standing = Standing()
    frame_number: Annotated[Word, about("Frame number", "As it is stamped")] = ""
    builder: Annotated[Word, about("Builder", "Who built it")] = ""
    owner: Annotated[Word, about("Owner", "Whose it is")] = ""
    lights: Annotated[Story, about("Lights", "Lamps and reflectors: height, distance from the side, mark")] = ""
    best_drill: Figure = 0.0
