"""The work: its calendar, tasks as the builder changed them, lifts, glue, ticks of the checklists and the log."""

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Hours, Number, Story, Word
from uncle_sled.core.document.field import about
from uncle_sled.core.document.quantity import Length, Mass, Temperature

# one field a line, as a table
# fmt: off
Weekday = Annotated[int, msgspec.Meta(ge=0, le=6)]  # 0: Monday
Space = Literal["shop", "outside"]
Entry = Literal["work", "money", "measure", "photo", "problem", "decision", "wish", "trip"]
LiftWay = Literal["crane", "tilt up", "by hand", "turn over"]


class Helper(msgspec.Struct, frozen=True):
    """Somebody who lends a hand on some days of the week."""

    id: Word
    name: Word
    days: tuple[Weekday, ...] = (5,)


class TaskChange(msgspec.Struct, frozen=True):
    """A task as the builder has it. id: of the proposed one, or of one's own (``own``); what is empty stays as proposed.

    Hours are the builder's own then: the first-timer's factor is not put on them. ``not_before`` and ``done``:
    year-month-day; fixed: it happens on that day (a crane that is booked).
    """

    id: Word
    own: bool = False
    name: Word = ""
    kind: Word = ""
    off: Annotated[bool, about("Left out", "It is not done here")] = False
    low: Annotated[Figure | None, about("Hours, at best", "If all goes well", unit="h")] = None
    likely: Annotated[Figure | None, about("Hours, likely", "As you think", unit="h")] = None
    high: Annotated[Figure | None, about("Hours, at worst", "If all goes wrong", unit="h")] = None
    hands: Annotated[Count | None, about("Hands", "How many it takes")] = None
    space: Space | None = None
    least_c: Annotated[Number | None, about("Not under", "Colder it is not done", unit="degC")] = None
    cure_h: Annotated[Figure | None, about("Cures", "At {20 degC}", unit="h")] = None
    floor_c: Annotated[Number | None, about("Does not cure under", "Colder it does not cure", unit="degC")] = None
    after: tuple[str, ...] | None = None
    not_before: Word = ""
    fixed: Annotated[bool, about("Booked", "It happens on that day")] = False
    done: Word = ""
    least: tuple[Literal["roll", "sleep"], ...] | None = None  # what it must be done for at the least


class BroughtBy(msgspec.Struct, frozen=True):
    """A task that brings a part, where it is not the usual one. part: its id; what: its kind by the table; task: "": there from the start."""

    id: Word
    part: Word
    what: Word
    task: Annotated[Word, about("Comes with", "The task that brings it")] = ""


class ReachLine(msgspec.Struct, frozen=True):
    """A line of a machine's chart, as its plate has it."""

    id: Word
    reach: Length
    load: Mass


class Lift(msgspec.Struct, frozen=True):
    """Something to be lifted. what: id of a surface, a thing, "body" or "frame"; sizes that are empty are worked out."""

    id: Word
    what: Annotated[Word, about("What", "A face, the body, the frame")]
    way: Annotated[LiftWay, about("How", "By crane, tilted up by hand, carried, turned over", words={"crane": "by crane", "tilt up": "tilt up by hand", "by hand": "carry"})] = "crane"
    pick_front: Annotated[Length | None, about("Front pick", "From the centre of gravity forward", blank="worked out")] = None
    pick_rear: Annotated[Length | None, about("Rear pick", "From the centre of gravity aft", blank="worked out")] = None
    hook: Annotated[Length | None, about("Hook over", "Of the picks; turning over: the centre over the rail")] = None
    spreader: Annotated[bool, about("Spreader", "A beam that takes what squeezes")] = False
    wind_m_s: Annotated[Figure | None, about("Mean wind", "As it is forecast; gusts are half as much again", unit="m/s")] = None
    people: Annotated[Count, about("People", "Who are there")] = 4
    sling_n: Annotated[Figure | None, about("Sling holds", "By its mark", unit="N")] = None
    choked: Annotated[bool, about("Choked", "Slings through themselves hold 0.8")] = False
    hands_at: Annotated[Length | None, about("Hands at", "How high it is held")] = None
    after: Annotated[Word, about("As it is after", "Only what the calendar has put on by then is lifted: bare, sheathed, with or without windows", blank="all of it")] = ""
    machine: Annotated[Literal["", "loader", "telehandler", "mobile"], about("Machine", "A usual one; its own plate decides", words={"": "not said", "loader": "loader crane", "telehandler": "telehandler", "mobile": "mobile crane"})] = ""
    reach: Annotated[Length | None, about("Its reach", "From its slewing middle to the hook, at the farthest of the lift", least=0.0)] = None
    chart: tuple[ReachLine, ...] = ()  # of one's own machine, typed from its plate
    done: Word = ""


class Tick(msgspec.Struct, frozen=True):
    """A line of a checklist that was done. id: list/line."""

    id: Word
    on: Word
    who: Word = ""


class OwnLine(msgspec.Struct, frozen=True):
    """A line of one's own on a checklist."""

    id: Word
    list: Word
    says: Word


class LogEntry(msgspec.Struct, frozen=True):
    """What happened on a day. of: the task, line to buy or number that it is about; value: what was measured, in SI.

    plan: what the plan said when it was written down. photo: path beside the file. cure: what helped, or what was chosen.
    others: Annotated[alternatives that were compared., about("Against", "The alternatives that were compared")]
    """

    id: Word
    on: Annotated[Word, about("Day", "Year-month-day")]
    kind: Annotated[Entry, about("Kind", "What this line is about: work, money, a measure, a photo, a problem, a decision or a wish", words={"measure": "a measure", "photo": "a photo", "problem": "a problem", "decision": "a decision", "wish": "a wish", "trip": "a trip", })] = "work"
    of: Annotated[Word, about("Of", "The task or the number that it is about")] = ""
    hours: Annotated[Figure | None, about("Hours", "That it took", unit="h")] = None
    money: Annotated[Figure | None, about("Money", "In your own")] = None
    value: Annotated[Number | None, about("Measured", "In kg, litres, Wh or degrees, as its name says")] = None
    plan: Annotated[Number | None, about("Planned", "What the plan said")] = None
    says: Annotated[Story, about("What", "In your own words")] = ""
    cure: Annotated[Story, about("Helped", "What helped, or what was chosen")] = ""
    others: Story = ""
    photo: Annotated[Word, about("Photo", "Its path beside the file, such as photos/day-3.jpg")] = ""


class Glue(msgspec.Struct, frozen=True):
    """What the maker's papers say of resin, bead and coating."""

    pot_min: Annotated[Figure, about("Pot life", "At {25 degC}, for the maker's batch", unit="min")] = 25.0
    resin_parts: Annotated[Figure, about("Parts of resin", "By volume, to one of hardener")] = 5.0
    resin_density: Annotated[Figure, about("Resin", "Density", unit="kg/L")] = 1.15
    hardener_density: Annotated[Figure, about("Hardener", "Density", unit="kg/L")] = 0.97
    pace_m2_min: Annotated[Figure, about("Pace", "What you lay up", unit="m2/min")] = 0.09
    cloth_g_m2: Annotated[Figure, about("Cloth", "As much resin is taken", unit="g/m2")] = 200.0
    coats: Annotated[Count, about("Fill coats", "Of {120 g/m2} each")] = 2
    coat_g_m2: Annotated[Figure, about("A coat takes", "Of resin, over the cloth", unit="g/m2")] = 120.0
    floor_c: Annotated[Number, about("Does not cure under", "Colder it does not cure", unit="degC")] = 10.0
    cure_h: Annotated[Figure, about("Cure", "At {20 degC}", unit="h")] = 24.0
    bead_open_min: Annotated[Figure, about("Open", "Until a skin forms, at {20 degC}", unit="min")] = 15.0
    bead_mm: Annotated[Figure, about("Bead", "Round section", unit="mm")] = 6.0
    rivet_pitch: Annotated[Length, about("Rivet every", "Along the edge", least=0.01)] = Length(0.1, "100 mm")
    cartridge_ml: Annotated[Figure, about("Cartridge", "As it is sold", unit="ml")] = 600.0
    panel_open_min: Annotated[Figure, about("Panel glue open", "From the first of it spread until the press is shut, at {20 degC}", unit="min")] = 40.0
    panel_pace_m2_min: Annotated[Figure, about("Spread", "One person with a toothed spreader, of one glue line", unit="m2/min")] = 0.35
    panel_hands: Annotated[Count, about("Spreading", "How many spread it together")] = 2
    press_kpa: Annotated[Figure, about("Press", "What the glue's papers want on the panel", unit="kPa")] = 10.0
    press_by: Annotated[Literal["weights", "vacuum"], about("Pressed by", "Weights on a flat bed, or a vacuum bag", words={"weights": "weights", "vacuum": "a vacuum bag"})] = "weights"
    press_h: Annotated[Figure, about("In the press", "At {20 degC}; longer where it is colder", unit="h")] = 8.0


class Work(msgspec.Struct, frozen=True):
    """How the work is planned and what was done of it. Dates are year-month-day."""

    begin: Annotated[Word, about("Begin", "The first day: year-month-day")] = ""
    deadline: Annotated[Word, about("Deadline", "The day it must be done: year-month-day")] = ""
    first_trip: Annotated[Word, about("First trip", "The day by which the least must be done: year-month-day", blank="none")] = ""
    days: tuple[Weekday, ...] = (4, 5, 6)
    hours_day: Annotated[Hours, about("Hours a day", "On a working day", unit="h")] = 6.0
    free_days: tuple[str, ...] = ()  # dates on which nobody works
    helpers: tuple[Helper, ...] = (Helper("h1", "A friend"),)
    first_timer: Annotated[Figure, about("First-timer", "Hours of the table times this; the log replaces it when three tasks of a kind are done", unit="×")] = 1.6
    shop: Annotated[Temperature | None, about("Shop kept at", "Heated to; nothing: a little over outside")] = None
    wet_months: tuple[int, ...] | None = None
    changes: tuple[TaskChange, ...] = ()
    brings: tuple[BroughtBy, ...] = ()
    lifts: tuple[Lift, ...] = ()
    glue: Glue = Glue()
    ticks: tuple[Tick, ...] = ()
    lines: tuple[OwnLine, ...] = ()
    log: tuple[LogEntry, ...] = ()
