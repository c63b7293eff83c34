"""Cutting and buying: the saw, the stock, numbers that stay, pieces held in their place, and what a purchase is known to be."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Share, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.quantity import Length, Mass

# one field a line, as a table
# fmt: off
Saw = Literal["edge to edge", "free"]
Joint = Literal["butt", "scarf"]
Days = Annotated[int, msgspec.Meta(ge=0, le=2000)]


class StockSize(msgspec.Struct, frozen=True):
    """A size that a shop sells, or a board of one's own rack. material: as the pieces called it when it was put in.

    stuff: what the pieces of it are made of, by the material's id and its section; where it is said the words do not count.

    qty: Annotated[how many there are; nothing: as many as are wanted. price: of one; a board of the rack costs nothing more., about("How many", "There are; nothing: as many as are wanted")]
    """

    id: Word
    kind: Literal["sheet", "bar"]
    material: Word
    length: Annotated[Length, about("Long", "Of one")]
    width: Annotated[Length | None, about("Wide", "Of a sheet")] = None
    qty: Count | None = None
    price: Annotated[Figure | None, about("Price", "Of one, in your own money")] = None
    rack: Annotated[bool, about("On the rack", "It is there already and costs nothing more")] = False
    stuff: Word = ""


class Numbered(msgspec.Struct, frozen=True):
    """A number that was printed. key: of its piece as drawn; other: of its mirror image, which has the same number.

    made: what it was cut from and how large when it was last printed. gone: printed once, and no longer drawn.
    """

    id: Word  # the number
    key: Word
    other: Word = ""
    made: Word = ""
    gone: bool = False


class Sawn(msgspec.Struct, frozen=True):
    """A piece that is cut already, as large as it was cut. piece: its key as drawn."""

    id: Word
    piece: Word
    on: Word
    length: Length
    width: Length


class Pin(msgspec.Struct, frozen=True):
    """A piece held in its place on a sheet: sheets of one material that hold such pieces come first, by ``sheet``."""

    id: Word
    piece: Word  # its key as drawn
    stock: Word  # what the sheet is called
    sheet: Count
    x: Length
    y: Length
    turned: bool = False


class PrintedPage(msgspec.Struct, frozen=True):
    """A drawing as it was when the set was last printed. id: its title; mark: a digest of all that was drawn."""

    id: Word
    mark: Word


class Bought(msgspec.Struct, frozen=True):
    """What is known of one line of the shopping list. id: of the line, or of one's own.

    low, likely, high: for one pack or piece; quote: what a shop said for one, good until ``quote_until``. Dates are
    year-month-day. own: a line that nothing in the drawing asks for; then name, heading, qty and unit say what it is.
    """

    id: Word
    own: bool = False
    name: Word = ""
    heading: Word = ""
    shop: Word = ""
    unit: Word = ""
    qty: Annotated[Figure | None, about("Wanted", "As you have it; as the drawing has it where nothing is said")] = None
    at_hand: Annotated[Figure, about("At hand", "So much is there already")] = 0.0
    pack: Annotated[Figure | None, about("In a pack", "What one pack holds")] = None
    low: Annotated[Figure | None, about("Cheap", "For one pack or piece")] = None
    likely: Annotated[Figure | None, about("Likely", "For one pack or piece")] = None
    high: Annotated[Figure | None, about("Dear", "For one pack or piece")] = None
    quote: Annotated[Figure | None, about("Quoted", "What a shop said for one")] = None
    quote_until: Word = ""
    lead_days: Annotated[Days | None, about("Comes in", "After it is ordered", unit="days")] = None
    ordered: Word = ""
    arrived: Word = ""
    spent: Annotated[Figure | None, about("Paid", "For all of it")] = None
    batch: Word = ""


class RuleChange(msgspec.Struct, frozen=True):
    """A rule of consumption as this builder has it. id: of the shipped rule; what is empty stays as shipped."""

    id: Word
    rate: Annotated[Figure | None, about("Rate", "So much for each of what it counts by")] = None
    pack: Annotated[Figure | None, about("In a pack", "What one pack holds")] = None
    price: Annotated[Figure | None, about("Price", "Of a pack")] = None
    off: Annotated[bool, about("Left off", "It is not used here")] = False


class Cut(msgspec.Struct, frozen=True):
    """How this build is cut and bought."""

    kerf: Annotated[Length, about("Kerf", "What the blade takes")] = Length(0.0032, "3.2 mm")
    trim: Annotated[Length, about("Trim", "Cut off every edge and end of stock first")] = Length(0.0, "0 mm")
    saw: Saw = "edge to edge"
    joint: Annotated[Joint, about("Joint", "Of skins and sticks longer than what is sold; at a stick", words={"butt": "butt, backed", "scarf": "scarf, 8 to 1"})] = "butt"
    board: Annotated[Length, about("Board covers", "Of cladding boards, from edge to edge", least=0.02)] = Length(0.135, "135 mm")
    made: tuple[str, ...] = ()  # ids of things that are made here out of sheets, and not bought
    made_of: Word = "light-ply"
    made_thick: Annotated[Length, about("Thickness", "Of their panels", least=0.002)] = Length(0.012, "12 mm")
    carry: Annotated[Mass, about("Weight", "Parts are sawn under this before anything is cut to size")] = Mass(25.0)
    carry_m2: Annotated[Figure, about("Area", "{1.5 m2} is what one can hold", unit="m2")] = 1.5
    keep_m2: Annotated[Figure, about("Keep from", "Offcuts from this on go to the rack", unit="m2")] = 0.1
    sizes: tuple[StockSize, ...] = ()
    numbers: tuple[Numbered, ...] = ()
    sawn: tuple[Sawn, ...] = ()
    prints: Count = 0
    printed: tuple[PrintedPage, ...] = ()  # drawings as they were in the last set that was written down
    revision: Count = 0  # sets that were written down
    bar_measured: Annotated[Length | None, about("Bar measured", "Of the 100 mm bar on a print of your own printer", thin=True)] = None
    pins: tuple[Pin, ...] = ()
    bought: tuple[Bought, ...] = ()
    rules: tuple[RuleChange, ...] = ()
    hours: Annotated[Figure | None, about("Hours", "Of work on it; by area of the faces where nothing is said, which leaves much out", unit="h")] = None
    hour_price: Annotated[Figure | None, about("An hour costs", "What an hour must bring in")] = None
    margin: Annotated[Share | None, about("Margin", "Share of the price that stays")] = None
    rise: Annotated[Share, about("A month", "Share that prices rise by until it is bought", unit="×")] = 0.0
    months: Annotated[Figure, about("Months", "Until all of it is bought")] = 0.0
