"""Who it is for and how it is read: the first stop of the trail."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Latitude, Month, Share, Story, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.quantity import Length, Mass, Temperature
from uncle_sled.core.units import Shown

# one field a line, as a table
# fmt: off
Region = Literal["European", "North American", "Australian/New Zealand"]
LengthUnit = Literal["mm", "m", "ft-in", "in"]
MassUnit = Literal["kg", "lb"]
VolumeUnit = Literal["L", "gal"]


class Person(msgspec.Struct, frozen=True, forbid_unknown_fields=False):
    """Somebody who sleeps in it."""

    id: Word
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    height: Annotated[Length | None, about("Tall", "Body height; the bed wants {100 mm} more. Left empty, no bed is judged too short.")] = None
    mass: Annotated[Mass | None, about("Weighs", "Counts on the bed and beside the door in camp; left empty, nobody is weighed.")] = None


Row = Literal["front", "rear", "boot", "roof"]


class CarLoad(msgspec.Struct, frozen=True):
    """People and luggage in one row of a car; ``at`` is aft of its front axle."""

    id: Row
    at: Annotated[Length | None, about("Row at", "From the front axle back to the middle of that row")] = None
    mass: Annotated[Mass | None, about("Weight", "People and what lies with them in this row")] = None


class Vehicle(msgspec.Struct, frozen=True):
    """A tow vehicle and the limits in its papers; what is not known stays empty."""

    id: Word
    name: Annotated[Word, about("Name", "What you call it; it stands on drawings, lists and in what Uncle says.")]
    tongue_limit: Annotated[Mass | None, about("On the ball", "Vertical limit in its papers or on the hitch")] = None
    tow_limit: Annotated[Mass | None, about("May tow", "The heaviest trailer with brakes in the car's papers; left empty, it is not checked.")] = None
    train_limit: Annotated[Mass | None, about("Train", "Vehicle and trailer together")] = None
    rear_axle_rating: Annotated[Mass | None, about("Rear axle", "Rating")] = None
    front_empty: Annotated[Mass | None, about("Front empty", "On the front axle with nobody and nothing in it, from the papers or a scale, one axle at a time.")] = None
    rear_empty: Annotated[Mass | None, about("Rear empty", "On the rear axle with nobody and nothing in it, from the papers or a scale, one axle at a time.")] = None
    wheelbase: Annotated[Length | None, about("Wheelbase", "Front wheel's middle to rear wheel's middle; in the papers, or a tape along the sill.")] = None
    ball_overhang: Annotated[Length | None, about("Ball behind", "Ball behind the rear axle", least=0.0)] = None
    width: Annotated[Length | None, about("Wide", "For the room in a tight bend")] = None
    bumper: Annotated[Length | None, about("Tail to ball", "From the car's tail or open tailgate back to the ball", least=0.0)] = None
    front_axle_rating: Annotated[Mass | None, about("Front axle", "Rating")] = None
    unbraked_limit: Annotated[Mass | None, about("Without brakes", "May tow where the trailer has no brakes")] = None
    driver_counted: Annotated[bool, about("A driver is in that", "The empty weights count a driver of {75 kg}")] = False
    hook: Annotated[Mass | None, about("Hook weighs", "The tow bar's own weight, where the empty weights are without it")] = None
    loads: tuple[CarLoad, ...] = ()


class Reading(msgspec.Struct, frozen=True):
    """The units that this build is read in."""

    length: Annotated[LengthUnit, about("Lengths in", "Every length of this build is shown so; any other unit may still be typed.", words={"mm": "millimetres", "m": "metres", "ft-in": "feet and inches", "in": "inches"})] = "mm"
    mass: Annotated[MassUnit, about("Weights in", "Every weight of this build is shown so; any other unit may still be typed.", words={"kg": "kilograms", "lb": "pounds"})] = "kg"
    volume: Annotated[VolumeUnit, about("Volumes in", "What tanks hold is shown so; any other unit may still be typed.", words={"L": "litres", "gal": "gallons (US)"})] = "L"

    def shown(self) -> Shown:
        """The units that every figure is shown in."""
        return Shown(self.length, self.mass, self.volume)


class Brief(msgspec.Struct, frozen=True):
    """What is asked of this build."""

    region: Annotated[Region, about("Practice", "Sets the band on the ball and what is asked; your own numbers win", words={"Australian/New Zealand": "Australian, NZ"})] = "European"
    reading: Reading = Reading()
    sleepers: tuple[str, ...] = ()
    vehicles: tuple[str, ...] = ()
    band_low: Annotated[Figure | None, about("Band from", "Share of the whole on the ball; empty: by practice", blank="by practice")] = None
    band_high: Annotated[Figure | None, about("Band to", "Share of the whole on the ball; empty: by practice", blank="by practice")] = None
    band_reason: Story = ""
    sits_up: Annotated[bool, about("Sit up in bed", "Then {0.9 m} over the mattress is asked for.")] = False
    stands: Annotated[bool, about("Stand up inside", "Then the tallest sleeper and {50 mm} is asked for between floor and ceiling.")] = False
    eats_inside: Annotated[Count, about("Eat inside", "How many sit down to eat inside")] = 0
    pets: Annotated[Count, about("Pets", "How many pets come along")] = 0
    lived_in: Annotated[bool, about("Lived in as a house", "Then the ways out are judged by house figures")] = False
    fastest_kmh: Annotated[Figure | None, about("Fastest", "How fast it is towed at the most; held against the tyres' letter", unit="km/h", least=5, most=300)] = None
    road_height: Annotated[Length | None, about("No higher", "Of the rig on the road; often {4.0 m} by law, less by bridges and garages")] = None
    road_width: Annotated[Length | None, about("No wider", "Often {2.55 m} in Europe, {2.59 m} in North America, {2.5 m} in Australia and New Zealand")] = None
    road_length: Annotated[Length | None, about("No longer", "Trailer with its drawbar, or the vehicle under a bed; by the rule where you drive")] = None
    place: Annotated[Word, about("Region", "Sets the latitude; type your own under it")] = ""
    latitude_deg: Annotated[Latitude | None, about("Latitude", "Degrees, such as 54 N or 36 S; it tells how much sun there is", unit="°")] = None
    months: tuple[Month, ...] = ()
    nights_off: Annotated[Count | None, about("Nights off grid", "Without a hookup, 1 to 14", least=1, most=14)] = None
    coldest: Annotated[Temperature | None, about("Coldest night", "Outside; batteries give less then, and panels more volts")] = None
    hottest: Annotated[Temperature | None, about("Hottest day", "Outside")] = None
    inside: Annotated[Temperature | None, about("Wished inside", "On the coldest night")] = None
    humidity_out: Annotated[Share | None, about("Damp outside", "Relative humidity of the air outside, 0 to 100 %")] = None
    wet_gear_g_h: Annotated[Figure | None, about("Wet gear", "Vapour that wet clothes and gear give off inside; {100 g/h} is much", unit="g/h")] = None
    ground_snow_kpa: Annotated[Figure | None, about("Ground snow", "Of the place, by its code: {1 kPa} is usual where it snows", unit="kPa")] = None
    parked_wind_m_s: Annotated[Figure | None, about("Gusts", "Where it stands; empty: {25 m/s}", unit="m/s", blank="{25 m/s}")] = None
    nobody_on_roof: Annotated[bool, about("Nobody on the roof", "Not asked of it then, and printed on its papers")] = False
    mains: Annotated[Literal["", "230", "120"], about("Mains", "Of the hookup and of what runs on it", words={"": "by the practice", "230": "230 V", "120": "120 V"})] = ""
    budget: Annotated[Figure | None, about("Budget", "For all of it, in your own money; nothing: none is kept")] = None
    notes: Annotated[Story, about("Notes", "Anything worth remembering; nothing is reckoned from it.")] = ""
    paper: Annotated[Literal["", "A4", "Letter", "A3", "Tabloid"], about("Paper", "That all drawings and lists are printed on; A4, or Letter in North America, where nothing is said", words={"": "as sold there"})] = ""
