"""Where every thing stands in a load case or a mode, with its level and its weight: what all drawings of what is aboard begin with."""

from __future__ import annotations

from collections.abc import Iterable

import msgspec
import numpy as np

from uncle_sled.core.document.placing import Stand, stand_of
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.engine import by_value, from_last, keep
from uncle_sled.core.parts.from_stow import homes_of
from uncle_sled.core.reading.load_cases import ON_GROUND_M, Floats, columns_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.sameness import places_changed

FEW = 50  # things that are put anew beside all that stayed
MOST_KEPT = 32768  # of what is drawn of single things, a thing in a view: two of each of 10,000 and some


class Placed(msgspec.Struct, frozen=True):
    """A thing where one mode puts it: corner and size of its box [m], and its level if it is a tank."""

    thing: Thing
    x: float
    y: float  # middle
    z: float
    size: tuple[float, float, float]
    turn: int
    level: float | None
    mass_kg: float
    aboard: bool
    state: str | None = None


@keep("thing", by_value("stand"), "level", "mass", most=MOST_KEPT, of="thing.id")
def _placed(thing: Thing, stand: Stand, level: float | None, mass: float) -> Placed:
    """An untouched thing keeps it, and with it what was drawn of it."""
    return Placed(
        thing,
        stand.x,
        y=stand.y,
        z=stand.z,
        size=stand.size,
        turn=stand.turn,
        level=level,
        mass_kg=mass,
        aboard=not thing.taken_out and (mass != 0.0 or thing.mass.si == 0.0),
        state=stand.state,
    )


Levels = tuple[tuple[str, float], ...]


class _In(msgspec.Struct, frozen=True):
    """A mode and how full and heavy everything is in it. kg: of each column of a table of masses, whose ids are beside."""

    mode: Mode
    levels: Levels
    ids: tuple[str, ...]
    kg: Floats | None

    def puts(self, thing: Thing, home: Stand) -> Placed | None:
        """Where a thing stands; None where it is not there."""
        mode = self.mode
        if thing.id in mode.absent or (mode.towing and thing.rides):
            return None
        stand = stand_of(thing, mode) if thing.id in mode.touched else home
        columns = columns_of(self.ids).get(thing.id)
        set_out = not mode.towing and stand.z < ON_GROUND_M
        weighs = self.kg is not None and columns is not None and not set_out
        mass = float(self.kg[list(columns)].sum()) if weighs and self.kg is not None and columns is not None else thing.mass.si
        level = next((level for id, level in self.levels if id == thing.id), 0.0) if thing.tank else None
        return _placed(thing, stand, level, mass)


class _AllIn(msgspec.Struct, frozen=True, eq=False):
    """placed: of every thing, None where it is not there; order: those that are, largest first."""

    things: tuple[Thing, ...]
    way: _In
    placed: tuple[Placed | None, ...]
    order: tuple[Placed, ...]


def _all_again(old: _AllIn, things: tuple[Thing, ...], way: _In) -> _AllIn | None:
    """The same with what changed put anew; None where more than a few did."""
    was = old.way
    if len(things) != len(old.things) or was.mode is not way.mode or was.levels != way.levels or was.ids != way.ids:
        return None
    if (was.kg is None) != (way.kg is None):
        return None
    heavier = {way.ids[at].split("/", 1)[0] for at in np.flatnonzero(was.kg != way.kg)} if was.kg is not None else ()
    if len(heavier) > FEW:
        return None
    new = places_changed(old.things, things)
    if heavier:
        new = sorted({*new, *[at for at, thing in enumerate(things) if thing.id in heavier]})
    if len(new) > FEW:
        return None
    placed, homes = list(old.placed), homes_of(things)
    for at in new:
        placed[at] = way.puts(things[at], homes[at])
    before, after = [old.placed[at] for at in new], [placed[at] for at in new]
    if any(a is None or b is None or a.size != b.size for a, b in zip(before, after, strict=True)):
        return _AllIn(things, way, tuple(placed), _largest_first(placed))
    instead = {id(a): b for a, b in zip(before, after, strict=True) if b is not None}
    return _AllIn(things, way, tuple(placed), tuple([instead.get(id(each), each) for each in old.order]))


def _largest_first(placed: Iterable[Placed | None]) -> tuple[Placed, ...]:
    return tuple(sorted([p for p in placed if p is not None], key=lambda p: -p.size[0] * p.size[2]))


@from_last(_all_again, lambda _things, way: way.mode.id, most=6)
def _all_in(things: tuple[Thing, ...], way: _In) -> _AllIn:
    placed = tuple([way.puts(thing, home) for thing, home in zip(things, homes_of(things), strict=True)])
    return _AllIn(things, way, placed, _largest_first(placed))


def things_in(s: Studied, row: int, mode: Mode | None = None, only: frozenset[str] | None = None) -> tuple[Placed, ...]:
    """Every thing (or only some) as it stands in a case (or another mode), largest first."""
    build, case = s.build, s.table.cases[row] if s.table.cases else None
    mode = mode or (case.mode if case else build.stow.modes[0])
    levels = tuple([(lv.id, lv.level) for lv in case.case.levels]) if case else ()
    way = _In(mode, levels, s.table.ids, s.table.mass_kg[row] if case else None)
    if only is None:
        return _all_in(build.stow.things, way).order
    pairs = [(thing, home) for thing, home in zip(build.stow.things, homes_of(build.stow.things), strict=True) if thing.id in only]
    return _largest_first([way.puts(thing, home) for thing, home in pairs])
