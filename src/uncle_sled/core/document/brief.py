"""Who it is for and how it is read: the first stop of the trail."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Latitude, Month, Share, Story, Word
from uncle_sled.core.document.quantity import Length, Mass, Temperature
from uncle_sled.core.units import Shown

Region = Literal["European", "North American", "Australian/New Zealand"]
LengthUnit = Literal["mm", "m", "ft-in", "in"]
MassUnit = Literal["kg", "lb"]
VolumeUnit = Literal["L", "gal"]


class Person(msgspec.Struct, frozen=True, forbid_unknown_fields=False):
    """Somebody who sleeps in it."""

    id: Word
    name: Word
    height: Length | None = None
    mass: Mass | None = None


Row = Literal["front", "rear", "boot", "roof"]


class CarLoad(msgspec.Struct, frozen=True):
    """People and luggage in one row of a car; ``at`` is aft of its front axle."""

    id: Row
    at: Length | None = None
    mass: Mass | None = None


class Vehicle(msgspec.Struct, frozen=True):
    """A tow vehicle and the limits in its papers; what is not known stays empty."""

    id: Word
    name: Word
    tongue_limit: Mass | None = None
    tow_limit: Mass | None = None
    train_limit: Mass | None = None
    rear_axle_rating: Mass | None = None
    front_empty: Mass | None = None
    rear_empty: Mass | None = None
    wheelbase: Length | None = None
    ball_overhang: Length | None = None
    width: Length | None = None
    bumper: Length | None = None  # from the ball forward to the tail of the car
    front_axle_rating: Mass | None = None
    unbraked_limit: Mass | None = None  # may tow without brakes of the trailer's own
    driver_counted: bool = False  # the empty weights are with a driver of 75 kg in it
    hook: Mass | None = None  # the tow bar's own, where the empty weights are without it
    loads: tuple[CarLoad, ...] = ()


class Reading(msgspec.Struct, frozen=True):
    """The units that this build is read in."""

    length: LengthUnit = "mm"
    mass: MassUnit = "kg"
    volume: VolumeUnit = "L"

    def shown(self) -> Shown:
        return Shown(self.length, self.mass, self.volume)


class Brief(msgspec.Struct, frozen=True):
    """What is asked of this build."""

    region: Region = "European"
    reading: Reading = Reading()
    sleepers: tuple[str, ...] = ()
    vehicles: tuple[str, ...] = ()
    band_low: Figure | None = None
    band_high: Figure | None = None
    band_reason: Story = ""
    sits_up: bool = False  # in bed, upright
    stands: bool = False  # somewhere inside, upright
    eats_inside: Count = 0  # how many sit down to eat inside
    pets: Count = 0
    lived_in: bool = False  # as a house: the ways out are judged by house figures
    fastest_kmh: Figure | None = None
    road_height: Length | None = None
    road_width: Length | None = None
    road_length: Length | None = None
    place: Word = ""  # of the shipped list, or in one's own words
    latitude_deg: Latitude | None = None  # south is negative
    months: tuple[Month, ...] = ()
    nights_off: Count | None = None  # without a hookup
    coldest: Temperature | None = None  # of a night
    hottest: Temperature | None = None  # of a day
    inside: Temperature | None = None  # as it is wished on the coldest night
    humidity_out: Share | None = None  # of the air outside on that night
    wet_gear_g_h: Figure | None = None  # what wet clothes and gear give off inside
    ground_snow_kpa: Figure | None = None  # of the place, by its code
    parked_wind_m_s: Figure | None = None  # gust where it stands
    nobody_on_roof: bool = False  # nobody goes on this roof: not asked of it, and printed on its papers
    mains: Literal["", "120", "230"] = ""  # by the practice where nobody said
    budget: Figure | None = None  # for all of it, in one's own money
    notes: Story = ""
