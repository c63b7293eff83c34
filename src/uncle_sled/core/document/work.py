"""The work: its calendar, tasks as the builder changed them, lifts, glue, ticks of the checklists and the log."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from uncle_sled.core.document.bounds import Count, Figure, Hours, Number, Story, Word
from uncle_sled.core.document.quantity import Length, Temperature

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
    off: bool = False
    low: Figure | None = None
    likely: Figure | None = None
    high: Figure | None = None
    hands: Count | None = None
    space: Space | None = None
    least_c: Number | None = None
    cure_h: Figure | None = None
    floor_c: Number | None = None
    after: tuple[str, ...] | None = None
    not_before: Word = ""
    fixed: bool = False
    done: Word = ""
    least: tuple[Literal["roll", "sleep"], ...] | None = None  # what it must be done for at the least


class Lift(msgspec.Struct, frozen=True):
    """Something to be lifted. what: id of a surface, a thing, "body" or "frame"; sizes that are empty are worked out."""

    id: Word
    what: Word
    way: LiftWay = "crane"
    pick_front: Length | None = None  # of the centre of gravity, towards the front
    pick_rear: Length | None = None
    hook: Length | None = None  # over the picks
    spreader: bool = False
    wind_m_s: Figure | None = None  # mean, as it is forecast
    people: Count = 4
    sling_n: Figure | None = None  # mark of one sling or shackle
    choked: bool = False
    hands_at: Length | None = None  # of a wall that is tilted up: how high it is held
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
    others: alternatives that were compared.
    """

    id: Word
    on: Word
    kind: Entry = "work"
    of: Word = ""
    hours: Figure | None = None
    money: Figure | None = None
    value: Number | None = None
    plan: Number | None = None
    says: Story = ""
    cure: Story = ""
    others: Story = ""
    photo: Word = ""


class Glue(msgspec.Struct, frozen=True):
    """What the maker's papers say of resin, bead and coating."""

    pot_min: Figure = 25.0  # at 25 degrees, for the maker's batch
    resin_parts: Figure = 5.0  # by volume, of resin to one of hardener
    resin_density: Figure = 1.15
    hardener_density: Figure = 0.97
    pace_m2_min: Figure = 0.09  # what one lays up
    cloth_g_m2: Figure = 200.0
    coats: Count = 2
    coat_g_m2: Figure = 120.0
    floor_c: Number = 10.0  # under which it does not cure
    cure_h: Figure = 24.0  # at 20 degrees
    bead_open_min: Figure = 15.0
    bead_mm: Figure = 6.0
    rivet_pitch: Length = Length(0.1, "100 mm")
    cartridge_ml: Figure = 600.0


class Work(msgspec.Struct, frozen=True):
    """How the work is planned and what was done of it. Dates are year-month-day."""

    begin: Word = ""
    deadline: Word = ""
    days: tuple[Weekday, ...] = (4, 5, 6)
    hours_day: Hours = 6.0
    free_days: tuple[str, ...] = ()  # dates on which nobody works
    helpers: tuple[Helper, ...] = (Helper("h1", "A friend"),)
    first_timer: Figure = 1.6
    shop: Temperature | None = None  # kept at; as outside and a little more where nobody said
    wet_months: tuple[int, ...] | None = None
    changes: tuple[TaskChange, ...] = ()
    lifts: tuple[Lift, ...] = ()
    glue: Glue = Glue()
    ticks: tuple[Tick, ...] = ()
    lines: tuple[OwnLine, ...] = ()
    log: tuple[LogEntry, ...] = ()
