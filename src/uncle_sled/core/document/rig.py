"""The frame to weld, the trailer that was bought, or the vehicle whose bed carries the body."""

from __future__ import annotations

from typing import Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Word
from uncle_sled.core.document.quantity import Length, Mass, Stiffness

Source = Literal["weighed", "data_sheet", "computed", "estimated", "guessed"]
Carrier = Literal["ball", "vehicle bed"]
Suspension = Literal["single", "equalised", "independent"]


class Axle(msgspec.Struct, frozen=True):
    """One axle: its tube, wheels and springs weigh ``mass`` together and move with it."""

    id: Word
    station: Length
    mass: Mass | None = None
    rating: Mass | None = None
    source: Source = "data_sheet"
    altered: bool = False  # cut, widened or welded on since it was made: no plate holds


class Tyre(msgspec.Struct, frozen=True):
    """The tyre on every wheel of the rig."""

    load_index: Count | None = None
    speed_symbol: Word = ""
    diameter: Length | None = None
    width: Length | None = None
    grip: Figure | None = None  # cornering of what is usual: 0.7 soft or worn, 1.2 hard and new
    rated_kpa: Figure | None = None  # cold, at its full load
    least_kpa: Figure | None = None
    gap_left: Length | None = None  # measured to fender or wheel box, beside the left tyres
    gap_right: Length | None = None


class BedVehicle(msgspec.Struct, frozen=True):
    """The vehicle under a camper box; x runs aft from its front axle."""

    name: Word = ""
    wheelbase: Length | None = None
    front_empty: Mass | None = None
    rear_empty: Mass | None = None
    front_rating: Mass | None = None
    rear_rating: Mass | None = None
    gross_rating: Mass | None = None
    track: Length | None = None
    bed_front: Length | None = None
    bed_length: Length | None = None
    bed_width: Length | None = None
    bed_top: Length | None = None


class Rig(msgspec.Struct, frozen=True):
    """What carries the body. x runs aft from the ball (or from a bed vehicle's front axle)."""

    carrier: Carrier = "ball"
    base: Literal["own frame", "as bought"] = "own frame"
    # own frame
    frame_length: Length | None = None
    drawbar_length: Length | None = None
    frame_width: Length | None = None
    frame_top: Length | None = None
    frame_mass: Mass | None = None
    frame_source: Source = "computed"
    frame_cg: Length | None = None
    rail: Word = ""  # ids of sections; the others are as the rails where they are not said
    cross: Word = ""
    drawbar: Word = ""
    cross_pitch: Length | None = None
    # as bought: one weighing of the whole thing, and what it put on the ball
    bought_total: Mass | None = None
    bought_ball: Mass | None = None
    bought_source: Source = "weighed"
    bought_hitch: Length | None = None  # height of the ball at that weighing; level where nobody said
    bought_axle: Length | None = None  # middle of the axles at that weighing; where they stand, while nobody moved them
    frame_altered: bool = False  # the same of the frame and its plates
    frame_mended: Length | None = None  # station where it cracked and was reinforced
    # axles
    axles: tuple[Axle, ...] = ()
    suspension: Suspension = "single"
    axle_place: Literal["fixed", "to be placed"] = "fixed"
    track: Length | None = None
    spring_rate: Stiffness | None = None
    level_load: Mass | None = None
    spring_side: Literal["", "over", "under"] = ""
    ball_height: Length | None = None
    reference_height: Length | None = None
    tyre: Tyre = Tyre()
    # plates and ratings
    gross_total: Mass | None = None
    axle_group: Mass | None = None
    coupler_rating: Mass | None = None
    hitch_rating: Mass | None = None
    weight_distributing: bool = False
    # parked
    jack_station: Length | None = None
    jack_rating: Mass | None = None
    stabiliser_station: Length | None = None
    stabiliser_rating: Mass | None = None  # of one
    chain_rating: Mass | None = None  # of one; each has to hold the whole trailer
    brakes: Literal["", "none", "overrun", "electric", "hydraulic"] = ""
    bed: BedVehicle = BedVehicle()
