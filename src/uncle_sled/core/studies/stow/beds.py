"""Who sleeps where, lying, sitting up and standing: the brief's people against the beds of a mode.

Source: layout practice: tallest sleeper + 100 mm long, 600 mm wide each (550 least), 900 mm to sit up,
standing height tallest + 50 mm (docs/methods.md).
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.brief import Person
from uncle_sled.core.document.placing import is_bed
from uncle_sled.core.document.project import Build, Facts
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.engine import keep
from uncle_sled.core.studies.stow.room import Room, room_of
from uncle_sled.core.studies.stow.solids import Solid, solids_in

LONGER_M, WIDE_M, LEAST_WIDE_M = 0.10, 0.60, 0.55
SIT_UP_M, STAND_OVER_M, FEET_M = 0.90, 0.05, 0.28
TOL = 1e-6
LIES_ON_M = 0.10  # what lies nearer over a bed lies on it: a mattress, bedding
LEAST_OVER_M = 0.50  # over a bed in which somebody turns over
SMALL_M = 0.25  # one turns past what is no longer and no wider: an alarm, a lamp


class Sleeper(msgspec.Struct, frozen=True):
    """One person in one mode: the bed they lie on, and why it fits or does not."""

    id: str
    name: str
    tall_m: float | None
    bed: str | None
    fits: bool
    why: str
    spot: int = 0  # which place across the bed, from its left


class Bed(msgspec.Struct, frozen=True):
    """A bed as it stands: its long side, its places across, and the room over it [m]."""

    id: str
    name: str
    solid: Solid
    long_m: float
    wide_m: float
    lengthways: bool
    places: int
    head_room_m: float | None  # where it is most
    least_over_m: float | None = None  # where it is least
    under: tuple[str, ...] = ()  # ids of what is over it


def people_of(build: Build, facts: Facts) -> tuple[Person, ...]:
    """Those who sleep in it: the brief's own, or everybody."""
    wanted = set(build.brief.sleepers)
    return tuple(p for p in facts.people if not wanted or p.id in wanted)


def tallest_m(build: Build, facts: Facts) -> float | None:
    """Height of the tallest who sleeps here [m]; None where nobody's is known."""
    return max((p.height.si for p in people_of(build, facts) if p.height and p.height.si > 0), default=None)


def beds_in(build: Build, facts: Facts, mode: Mode) -> tuple[Bed, ...]:
    """The beds of a mode, longest first."""
    room = room_of(build, facts, mode)
    slept_on = {thing.id for thing in build.stow.things if is_bed(thing, mode)}
    solids = solids_in(build.stow, mode)
    inner = {thing.id: thing.inside for thing in build.stow.things}
    made = [_bed(solid, room, _over(solid, solids, inner)) for solid in solids if solid.id in slept_on]
    return tuple(sorted(made, key=lambda bed: -bed.long_m))


def _over(bed: Solid, solids: tuple[Solid, ...], inner: dict[str, str | None]) -> list[Solid]:
    """What hangs or stands over a bed inside the body: another bed, a locker; no lamp, and not what is built into it or it into."""
    middle = (bed.low[1] + bed.high[1]) / 2
    return [
        solid
        for solid in solids
        if solid.id != bed.id
        and not solid.outside
        and inner.get(solid.id) != bed.id
        and inner.get(bed.id) != solid.id
        and solid.low[2] >= bed.high[2] - TOL
        and solid.low[2] - bed.high[2] > LIES_ON_M
        and solid.low[1] < middle < solid.high[1]
        and solid.low[0] < bed.high[0]
        and solid.high[0] > bed.low[0]
        and max(solid.high[0] - solid.low[0], solid.high[1] - solid.low[1]) > SMALL_M
    ]


def _bed(solid: Solid, room: Room | None, over: list[Solid]) -> Bed:
    along, across = solid.high[0] - solid.low[0], solid.high[1] - solid.low[1]
    long, wide = max(along, across), min(along, across)
    tops = []
    if room is not None and not solid.outside:
        middle = (solid.low[1] + solid.high[1]) / 2
        for share in (0.12, 0.3, 0.5, 0.7, 0.88):
            at = solid.low[0] + share * along
            top = room.ceiling_m(at, middle)
            if top is not None:
                tops.append(min([top, *(solid.low[2] for solid in over if solid.low[0] <= at <= solid.high[0])]) - solid.high[2])
    return Bed(
        solid.id,
        solid.name,
        solid=solid,
        long_m=long,
        wide_m=wide,
        lengthways=along >= across,
        places=math.floor(wide / LEAST_WIDE_M + TOL),
        head_room_m=max(tops, default=None),
        least_over_m=min(tops, default=None),
        under=tuple(solid.id for solid in over),
    )


@keep(most=12)
def sleepers_in(build: Build, facts: Facts, mode: Mode) -> tuple[Sleeper, ...]:
    """Everybody's bed in a mode: the tallest gets the longest place that is left."""
    beds = beds_in(build, facts, mode)
    left = [(bed, spot) for bed in beds for spot in range(bed.places)]
    shared = {bed.id: 0 for bed in beds}
    people = sorted(people_of(build, facts), key=lambda p: -(p.height.si if p.height else 0.0))
    found: dict[str, Sleeper] = {}
    for person in people:
        tall = person.height.si if person.height and person.height.si > 0 else None
        if not left:
            why = "there is no bed in this mode" if not beds else "the beds are taken; each place wants {550 mm} at least"
            found[person.id] = Sleeper(person.id, person.name, tall, None, fits=False, why=why)
            continue
        bed, spot = left[0]
        shared[bed.id] += 1
        if tall is None:
            left.pop(0)
            found[person.id] = Sleeper(person.id, person.name, None, bed.id, fits=False, why="no height is known yet", spot=spot)
        elif bed.long_m + TOL < tall + LONGER_M:
            why = f"wants {{{tall + LONGER_M:.2f} m}} to lie; the longest place left is {{{bed.long_m:.2f} m}}"
            found[person.id] = Sleeper(person.id, person.name, tall, None, fits=False, why=why)
        else:
            left.pop(0)
            why = f"lies in {{{bed.long_m:.2f} m}} on {bed.name}"
            found[person.id] = Sleeper(person.id, person.name, tall, bed.id, fits=True, why=why, spot=spot)
    return tuple(found[p.id] for p in people_of(build, facts))


def narrow(bed: Bed, sleepers: tuple[Sleeper, ...]) -> float | None:
    """Width for each of those who share a bed [m] where it is less than 600 mm, else None."""
    many = sum(1 for sleeper in sleepers if sleeper.bed == bed.id)
    return bed.wide_m / many if many and bed.wide_m / many + TOL < WIDE_M else None


def standing_room_m(build: Build, facts: Facts, mode: Mode | None = None) -> float | None:
    """The greatest height over the floor [m] on the middle line, or None without a body. Args: mode: its roof may be up in it."""
    room = room_of(build, facts, mode)
    if room is None:
        return None
    left, right = room.span_m
    tops = [room.ceiling_m(left + (right - left) * k / 24) for k in range(1, 24)]
    return max((top - room.floor_m for top in tops if top is not None), default=None)
