"""The frame to weld, the trailer that was bought, or the vehicle whose bed carries the body."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.quantity import Length, Mass, Stiffness

# one field a line, as a table
# fmt: off
Source = Literal["weighed", "data_sheet", "computed", "estimated", "guessed"]
SOURCE_WORDS = {"data_sheet": "data sheet"}
Carrier = Literal["ball", "vehicle bed"]
Suspension = Literal["single", "equalised", "independent"]


class Axle(msgspec.Struct, frozen=True):
    """One axle: its tube, wheels and springs weigh ``mass`` together and move with it."""

    id: Word
    station: Annotated[Length, about("From the ball", least=0.0)]
    mass: Annotated[Mass | None, about("Weight", "Axle, wheels and springs together")] = None
    rating: Annotated[Mass | None, about("Rated")] = None
    source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, an estimate 15 %, a guess 30 %.", words=SOURCE_WORDS)] = "data_sheet"
    altered: Annotated[bool, about("Altered", "Cut, widened or welded on since it was made: no plate holds")] = False


class Tyre(msgspec.Struct, frozen=True):
    """The tyre on every wheel of the rig."""

    load_index: Annotated[Count | None, about("Tyre index", "Load index on the sidewall, such as 84")] = None
    speed_symbol: Annotated[Word, about("Speed symbol", "The letter after the load index, such as N")] = ""
    diameter: Annotated[Length | None, about("Tyre height", "Ground to the top of the tyre, standing loaded; on the sidewall as width, share and rim.")] = None
    width: Annotated[Length | None, about("Tyre width", "Across the tyre at its widest; for the room in its wheel box.")] = None
    grip: Annotated[Figure | None, about("Cornering, times", "Of what is usual: 0.7 soft or worn, 1.2 hard and new; empty: 1. Sway reads it", unit="×", blank="1")] = None
    rated_kpa: Annotated[Figure | None, about("Rated pressure", "Cold, at its full load; on the sidewall or in the maker's table", unit="kPa cold")] = None
    least_kpa: Annotated[Figure | None, about("Least pressure", "Cold; never under this", unit="kPa cold")] = None
    gap_left: Annotated[Length | None, about("Gap left", "Measured between tyre and fender or wheel box")] = None
    gap_right: Annotated[Length | None, about("Gap right", "Fenders get welded off centre: measure both")] = None


class BedVehicle(msgspec.Struct, frozen=True):
    """The vehicle under a camper box; x runs aft from its front axle."""

    name: Word = ""
    wheelbase: Annotated[Length | None, about("Wheelbase", "Front wheel's middle to rear wheel's middle of the vehicle; nothing is read before it is known.")] = None
    front_empty: Annotated[Mass | None, about("Front empty", "On the front axle with the bed bare and one driver or none, as weighed; without it no axle is read.")] = None
    rear_empty: Annotated[Mass | None, about("Rear empty", "On the rear axle with the bed bare, as weighed; without it no axle is read.")] = None
    front_rating: Annotated[Mass | None, about("Front axle", "On the vehicle's plate or in its papers: what the front axle may carry.")] = None
    rear_rating: Annotated[Mass | None, about("Rear axle", "On the vehicle's plate or in its papers: what the rear axle may carry.")] = None
    gross_rating: Annotated[Mass | None, about("Whole vehicle", "On the vehicle's plate or in its papers: the vehicle with everything on and in it.")] = None
    track: Annotated[Length | None, about("Track", "Middle of the left rear tyre to middle of the right one; without it left and right cannot be told.")] = None
    bed_front: Annotated[Length | None, about("Bed front", "From the front axle")] = None
    bed_length: Annotated[Length | None, about("Bed length", "Inside of the bed, headboard to tailgate.")] = None
    bed_width: Annotated[Length | None, about("Bed width", "Between the bed's sides, or over them where the box stands on top.")] = None
    bed_top: Annotated[Length | None, about("Bed top", "Above ground", least=0.0)] = None


class Threshold(msgspec.Struct, frozen=True):
    """A class of registration as the builder's own authority has it: up to what it goes, and what it costs."""

    id: Word
    name: Annotated[Word, about("Called", "As your authority calls it")]
    gross: Annotated[Mass | None, about("Gross up to", "The plate's weight where there is one, else the heaviest case")] = None
    length: Annotated[Length | None, about("Long up to", "On the road, with everything that stands out")] = None
    width: Annotated[Length | None, about("Wide up to", "On the road, mirrors aside")] = None
    height: Annotated[Length | None, about("High up to", "On the road, with what is on the roof")] = None
    fee: Annotated[Figure | None, about("Costs a year", "In your own money")] = None
    wanted: Annotated[bool, about("I want to stay under it", "Then Uncle minds when it is passed")] = True


class Offer(msgspec.Struct, frozen=True):
    """One way to come by the trailer under it: bought, from a kit, welded by oneself."""

    id: Word
    name: Annotated[Word, about("Called", "Whose it is, or what")]
    way: Annotated[Literal["buy", "kit", "weld"], about("Way", "How one comes by it", words={"buy": "bought", "kit": "from a kit", "weld": "welded oneself"})] = "buy"
    money: Annotated[Figure | None, about("Costs", "All of it, in your own money")] = None
    hours: Annotated[Figure | None, about("Own hours", "Of one's own work on it", unit="h")] = None
    rating: Annotated[Mass | None, about("Rated", "What it may weigh altogether, by its plate")] = None
    papers: Annotated[Literal["", "yes", "no"], about("Papers", "Whether it comes with what registration asks for", words={"": "not said", "yes": "with it", "no": "none: they are for you to get"})] = ""


class Rig(msgspec.Struct, frozen=True):
    """What carries the body. x runs aft from the ball (or from a bed vehicle's front axle)."""

    carrier: Annotated[Carrier, about("Stands on", "A trailer stands on a coupler and its wheels; a camper box on the two axles of its vehicle.", words={"ball": "a coupler and ball", "vehicle bed": "a vehicle's bed"})] = "ball"
    base: Annotated[Literal["own frame", "as bought"], about("Base", "An own frame is the sum of its parts; a bought one is one weighing of the whole with what stood on the ball.", words={"as bought": "bought, weighed"})] = "own frame"
    # own frame
    frame_length: Annotated[Length | None, about("Length", "Ball to tail end")] = None
    drawbar_length: Annotated[Length | None, about("Drawbar", "Ball to first cross-member")] = None
    frame_width: Annotated[Length | None, about("Frame width", "Outside to outside of the long rails; the bolts and the axle's order read it.")] = None
    frame_top: Annotated[Length | None, about("Frame top", "Above ground")] = None
    frame_mass: Annotated[Mass | None, about("Frame weight", "Without axle and wheels; empty: by its sections", blank="by its sections")] = None
    frame_source: Annotated[Source, about("Known by", "How sure the weight is: a scale leaves 1 % of doubt, a data sheet 3 %, a sum 6 %, a guess 30 %.", words=SOURCE_WORDS)] = "computed"
    frame_cg: Annotated[Length | None, about("Weight at", "Station of the frame's own weight, if known; else from its steel", least=0.0)] = None
    rail: Annotated[Word, about("Rails", "Section of the two rails; the frame's weight follows where it is not typed")] = ""
    cross: Annotated[Word, about("Cross-members", "Section of what lies between the rails")] = ""
    drawbar: Annotated[Word, about("Drawbar legs", "Section of the two legs to the ball")] = ""
    cross_pitch: Annotated[Length | None, about("Cross every", "Middle to middle at most; empty: {0.6 m}", least=0.1, blank=Length(0.6))] = None
    # as bought: one weighing of the whole thing, and what it put on the ball
    bought_total: Annotated[Mass | None, about("Weighed total", "The whole trailer as it was bought, unhitched on a public scale or from its papers.")] = None
    bought_ball: Annotated[Mass | None, about("On the ball", "Ball weight as weighed or from the papers")] = None
    bought_source: Annotated[Source, about("Known by", "Weighed is best; without a scale the papers, and the doubt in the reading grows.", words=SOURCE_WORDS)] = "weighed"
    bought_hitch: Annotated[Length | None, about("Ball was at", "Height of the ball when it was weighed; empty: level", blank="level")] = None
    bought_axle: Annotated[Length | None, about("Axle was at", "Middle of the axles when it was weighed; empty: where they stand", blank="where they stand")] = None
    frame_altered: Annotated[bool, about("Frame or axles altered", "Cut, widened or welded on since it was made: its plates hold no more")] = False
    frame_mended: Annotated[Length | None, about("Mended a crack at", "Behind the ball, where it cracked and was reinforced; empty: nowhere", blank="nowhere")] = None
    # axles
    axles: tuple[Axle, ...] = ()
    suspension: Annotated[Suspension, about("Axles", "Equalised leaf springs share evenly; independent torsion arms share by how high the ball is.", words={"single": "one axle", "equalised": "leaf, equalised", "independent": "torsion arms"})] = "single"
    axle_place: Annotated[Literal["fixed", "to be placed"], about("Place", "While it is still to be placed, drag the wheel", words={"to be placed": "still to be placed"})] = "fixed"
    track: Annotated[Length | None, about("Track", "Between tyre centre lines")] = None
    spring_rate: Annotated[Stiffness | None, about("Spring rate", "Per wheel")] = None
    level_load: Annotated[Mass | None, about("Rides level at", "Axle load at which the frame rides level")] = None
    spring_side: Annotated[Literal["", "over", "under"], about("Springs", "Leaf over the axle rides higher than leaf under it.", words={"over": "over the axle", "under": "under the axle"})] = ""
    ball_height: Annotated[Length | None, about("Ball height", "Ground to the middle of the car's ball with both standing loaded.")] = None
    reference_height: Annotated[Length | None, about("Level height", "Ball height with the frame level")] = None
    tyre: Tyre = Tyre()
    # plates and ratings
    gross_total: Annotated[Mass | None, about("Whole trailer", "On the plate: trailer with everything, hitched or not")] = None
    axle_group: Annotated[Mass | None, about("Axle group", "On the plate: on the wheels when coupled")] = None
    coupler_rating: Annotated[Mass | None, about("Coupler", "Vertical load")] = None
    hitch_rating: Annotated[Mass | None, about("Hitch", "Vertical load")] = None
    weight_distributing: Annotated[bool, about("Weight-distributing hitch", "The reading is without its bars")] = False
    # parked
    jack_station: Annotated[Length | None, about("Jack at", "From the ball", least=0.0)] = None
    jack_rating: Annotated[Mass | None, about("Jack rated", "On the jack's plate: what it lifts at the nose. One and a half times what stands on it is wanted.")] = None
    stabiliser_station: Annotated[Length | None, about("Stabilisers at", "From the ball; empty: none", least=0.0, blank="none")] = None
    stabiliser_rating: Annotated[Mass | None, about("Stabiliser rated", "One of them")] = None
    chain_rating: Annotated[Mass | None, about("Chain rated", "One chain; each has to hold the whole trailer")] = None
    thresholds: tuple[Threshold, ...] = ()
    offers: tuple[Offer, ...] = ()
    other_tyre: Annotated[Length | None, about("Other tyres, high", "Of wheels that you think of: what they would change is told, nothing is changed", least=0.05)] = None
    brakes: Annotated[Literal["", "none", "overrun", "electric", "hydraulic"], about("Brakes", "Which are asked for is a local rule")] = ""
    bed: BedVehicle = BedVehicle()
