"""How loud is it at a head while fans, heaters and fridges run by night?

From the level that a data sheet gives at 1 m in the open: Lw = L1 + 11. In the room L = Lw + 10 lg(1/(4 pi r2) + 4/R), with R = S a/(1 - a)
over the room's inside S and a = 0.25 (beds and cloth). From outside L1 - 20 lg r less what the lightest face keeps out by its weight, 25 dB
at the most (seams and windows). A wall inside between them takes off its own by weight; a door in it leaves 15, a doorway nothing.
Several add as powers. Source: room acoustics, mass law; give or take 4 dB.
"""

from __future__ import annotations

import math

import msgspec

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.from_shell import face_sums
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.parts.partitions import Wall, quieter_db, walls_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.stow.beds import Bed, beds_in
from uncle_sled.core.studies.stow.room import Room, room_of
from uncle_sled.core.studies.systems.bank import stands_outside
from uncle_sled.core.wiring.appliances import figures_of, left_off

BY_NIGHT = frozenset({"airs", "warms the room", "cools the room", "keeps food cold"})
SOFT = 0.25
FACE_MOST_DB, DOOR_DB = 25.0, 15.0
HEAD_IN_M, EAR_OVER_M, LEAST_M = 0.25, 0.10, 0.2
SLEEPS_DB, LIGHT_DB = 35.0, 30.0  # most sleep through; light sleepers do not over this
DOUBT_DB = 4.0


class Heard(msgspec.Struct, frozen=True):
    """One source at a head. db: at it, None where its data sheet's level is not known; far_m: from its middle; through: names of walls between."""

    id: str
    name: str
    db: float | None
    far_m: float
    through: tuple[str, ...]


class AtHead(msgspec.Struct, frozen=True):
    """A head. end: at which end of the bed, front or rear, left or right; db: of all that is known together, None where nothing is."""

    bed: str
    name: str
    end: str
    heard: tuple[Heard, ...]
    db: float | None

    @property
    def unknown(self) -> tuple[str, ...]:
        """Names of what runs by night and nobody gave a level of."""
        return tuple([each.name for each in self.heard if each.db is None])

    @property
    def loudest(self) -> Heard | None:
        """What is heard most of all; None where no level is known."""
        return max((each for each in self.heard if each.db is not None), key=lambda each: each.db or 0.0, default=None)


def room_constant_m2(inside_m2: float) -> float:
    """R of a room by its inside. Check 40 m2: 13.3 m2."""
    return inside_m2 * SOFT / (1 - SOFT)


def in_room_db(at_1m_db: float, far_m: float, constant_m2: float | None) -> float:
    """At a distance in a room; in the open without one. Check 50 dB, 1.5 m, R 13.3 m2: 61 + 10 lg(0.0354 + 0.3008) = 56.3 dB."""
    direct = 1 / (4 * math.pi * max(far_m, LEAST_M) ** 2)
    return at_1m_db + 11 + 10 * math.log10(direct + (4 / constant_m2 if constant_m2 else 0.0))


def together_db(levels: list[float]) -> float | None:
    """Of several at once. Check 30 and 30: 33 dB."""
    return 10 * math.log10(sum(10 ** (level / 10) for level in levels)) if levels else None


@keep("s.build.shell", "s.build.stow", "s.build.systems.off", "s.parts", "s.facts", most=3)
def noise_at_heads(s: Studied) -> tuple[AtHead, ...]:
    """Both ends of every bed in the first mode that is slept in, loudest first; none without a bed or anything that runs by night."""
    build = s.build
    mode = next((mode for mode in build.stow.modes if not mode.towing), None)
    sources = _sources(s, mode.id if mode is not None else "")
    if mode is None or not sources:
        return ()
    about = _about(s, room_of(build, s.facts, mode))
    made = [_at(s, bed, end, ear, sources, about) for bed in beds_in(build, s.facts, mode) for end, ear in _ears(bed)]
    return tuple(sorted(made, key=lambda head: -(head.db if head.db is not None else 1e9)))


class _About(msgspec.Struct, frozen=True, eq=False):
    """What is the same for every head. constant_m2: None without a body; face_db: None where no face's weight is known.

    walls: those inside, each with what it takes off.
    """

    constant_m2: float | None
    face_db: float | None
    walls: tuple[tuple[Wall, float], ...]


def _about(s: Studied, room: Room | None) -> _About:
    body = s.framed.body
    doors = {inner.id: inner.door for inner in s.build.shell.partitions}
    walls = walls_of(s.build.shell, body, library_of(s.facts.materials)) if body is not None and room is not None else ()
    return _About(
        room_constant_m2(inside_m2(room)) if room is not None else None,
        _face_db(s),
        tuple([(wall, _taken_off(wall, doors.get(wall.id, "none"))) for wall in walls if not wall.fault]),
    )


def _taken_off(wall: Wall, door: str) -> float:
    """By its weight [dB]; a door in it leaves so much at the most, a doorway nothing."""
    less = quieter_db(wall.kg_m2)
    return 0.0 if door == "opening" else less if door == "none" else min(less, DOOR_DB)


def _sources(s: Studied, mode: str) -> list[Thing]:
    """What is heard by night: fans, heaters, coolers, fridges that are not by day only and not left off, and all else with a level."""
    off = left_off(s.build.systems, mode, stay=True)
    made = []
    for thing in s.build.stow.things:
        f = figures_of(thing)
        runs = f.power_w is not None or f.amps is not None or thing.burns in ("gas", "diesel")
        by_night = runs and f.when != "day" and not BY_NIGHT.isdisjoint(thing.roles) and thing.burns != "wood"
        if (by_night or (f.noise_db is not None and f.when != "day")) and thing.id not in off and not thing.taken_out:
            made.append(thing)
    return made


def _ears(bed: Bed) -> list[tuple[str, tuple[float, float, float]]]:
    low, high = bed.solid.low, bed.solid.high
    z = high[2] + EAR_OVER_M
    if bed.lengthways:
        y = (low[1] + high[1]) / 2
        return [("front", (low[0] + HEAD_IN_M, y, z)), ("rear", (high[0] - HEAD_IN_M, y, z))]
    x = (low[0] + high[0]) / 2
    return [("left", (x, low[1] + HEAD_IN_M, z)), ("right", (x, high[1] - HEAD_IN_M, z))]


def _at(s: Studied, bed: Bed, end: str, ear: tuple[float, float, float], sources: list[Thing], about: _About) -> AtHead:
    heard = tuple([_heard(s, thing, ear, about) for thing in sources])
    return AtHead(bed.id, bed.name, end, heard, together_db([each.db for each in heard if each.db is not None]))


def _heard(s: Studied, thing: Thing, ear: tuple[float, float, float], about: _About) -> Heard:
    low, high = home_of(thing).corners
    at = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2)
    far = math.dist(at, ear)
    level = figures_of(thing).noise_db
    if stands_outside(s.build, thing):
        known = level is not None and about.face_db is not None
        db = (level or 0.0) - 20 * math.log10(max(far, LEAST_M)) - (about.face_db or 0.0) if known else None
        return Heard(thing.id, thing.name, db, far, ("the body",))
    walls = [(wall, less) for wall, less in about.walls if _between(wall, at, ear)]
    db = None if level is None else in_room_db(level, far, about.constant_m2) - sum(less for _, less in walls)
    return Heard(thing.id, thing.name, db, far, tuple([wall.name for wall, _ in walls]))


def inside_m2(room: Room) -> float:
    """All of the room's inside: both sides, and its outline times its width [m2]."""
    return float(2 * room.side.area + room.side.length * 2 * room.half_m)


def _face_db(s: Studied) -> float | None:
    """What the lightest face keeps out; None where no face's weight is known."""
    parts, library = {part.id: part for part in s.parts}, library_of(s.facts.materials)
    told = []
    for face in s.build.shell.faces:
        part, area = parts.get(face.id), face_sums(face, s.build.shell, s.framed, library).area_m2
        if part is not None and part.mass_kg > 0 and area > 0:
            told.append(quieter_db(part.mass_kg / area))
    return min(min(told), FACE_MOST_DB) if told else None


def _between(wall: Wall, at: tuple[float, float, float], ear: tuple[float, float, float]) -> bool:
    """Whether a wall inside stands on the straight way, by the station or the side at which it stands."""
    axis = 0 if wall.way == "across" else 1
    plane = (wall.low[axis] + wall.high[axis]) / 2
    if (at[axis] - plane) * (ear[axis] - plane) >= 0:
        return False
    share = (plane - at[axis]) / (ear[axis] - at[axis])
    along, up = (at[k] + share * (ear[k] - at[k]) for k in (1 - axis, 2))
    left, low, right, top = wall.outline.bounds
    return bool(left <= along <= right and low <= up <= top)
