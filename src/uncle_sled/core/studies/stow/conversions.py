"""Changing from one mode into another: which things change their form or place, what stands in the way first, how long it takes.

What in the old mode stands where a changed thing will be, and is not itself built into it, has to be moved first.
"""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.stow import Mode, Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.studies.stow.solids import Solid, solids_in

LEAST_M3 = 2e-4  # less than a cup is not in the way
MOVE_MINUTES = 1  # to carry something elsewhere, where nobody said


class Change(msgspec.Struct, frozen=True):
    """One thing that changes: both boxes (low, high corner), the share of the smaller that lies in both, and what is first.

    first: ids to be moved before; blocked: of those, what stays there in the new mode and so cannot be.
    """

    id: str
    name: str
    before: tuple[tuple[float, float, float], tuple[float, float, float]] | None
    after: tuple[tuple[float, float, float], tuple[float, float, float]] | None
    state: str
    overlap: float
    first: tuple[str, ...]
    blocked: tuple[str, ...]
    minutes: int | None
    hands: int | None


class Conversion(msgspec.Struct, frozen=True):
    """Everything that changes between two modes, in an order in which nothing stands in the way. minutes: None where one is unsaid."""

    a: str
    b: str
    changes: tuple[Change, ...]
    minutes: int | None
    hands: int
    unsaid: int  # changes of form whose time nobody said


@keep("build.stow", "a", "b", most=12)
def conversion(build: Build, a: Mode, b: Mode) -> Conversion:
    """What is done to get from one mode to another: each change, its order, minutes and hands."""
    old = {solid.id: solid for solid in solids_in(build.stow, a)}
    new = {solid.id: solid for solid in solids_in(build.stow, b)}
    made = [one for thing in build.stow.things if (one := _change(thing, a, b, old, new)) is not None]
    ordered = _ordered(made)
    known = [change.minutes for change in ordered]
    unsaid = sum(1 for change in ordered if change.minutes is None)
    total = sum(m for m in known if m is not None) if not unsaid else None
    return Conversion(a.id, b.id, ordered, total, max((change.hands or 1 for change in ordered), default=0), unsaid)


def _change(thing: Thing, a: Mode, b: Mode, old: dict[str, Solid], new: dict[str, Solid]) -> Change | None:
    before, after = old.get(thing.id), new.get(thing.id)
    if before is None and after is None:
        return None
    if before is not None and after is not None and before.low == after.low and before.high == after.high:
        return None
    was = stand_of(thing, a) if thing.id in a.touched else home_of(thing)
    will = stand_of(thing, b) if thing.id in b.touched else home_of(thing)
    state = next((state for state in thing.states if state.id == (will.state or was.state)), None)
    formed = will.state != was.state
    first, blocked = [], []
    if after is not None:
        for other in old.values():
            if other.id == thing.id or other.inside == thing.id or thing.inside == other.id:
                continue
            if _shared(after, other) > LEAST_M3 and (before is None or _shared(before, other) <= LEAST_M3):
                first.append(other.id)
                stays = new.get(other.id)
                if stays is not None and _shared(after, stays) > LEAST_M3:
                    blocked.append(other.id)
    overlap = 0.0
    if before is not None and after is not None:
        overlap = _shared(before, after) / max(min(_volume(before), _volume(after)), 1e-9)
    minutes = state.minutes if formed and state is not None else MOVE_MINUTES
    hands = state.hands if formed and state is not None else None
    words = state.name if formed and state is not None and will.state else "as it is" if formed else "elsewhere"
    if before is None or after is None:
        words = "taken out" if after is None else "brought in"
    return Change(
        thing.id,
        thing.name,
        before=_corners(before),
        after=_corners(after),
        state=words,
        overlap=overlap,
        first=tuple(first),
        blocked=tuple(blocked),
        minutes=minutes,
        hands=hands,
    )


def _ordered(made: list[Change]) -> tuple[Change, ...]:
    """What stands in another's way goes first; a ring of them stays in the order of the build."""
    left, done = list(made), []
    changing = {change.id for change in made}
    while left:
        ready = [change for change in left if not any(f in changing and f in {x.id for x in left} for f in change.first)] or left
        done.append(ready[0])
        left.remove(ready[0])
    return tuple(done)


def _corners(solid: Solid | None) -> tuple[tuple[float, float, float], tuple[float, float, float]] | None:
    return None if solid is None else (solid.low, solid.high)


def _volume(solid: Solid) -> float:
    return max((solid.high[0] - solid.low[0]) * (solid.high[1] - solid.low[1]) * (solid.high[2] - solid.low[2]), 0.0)


def _shared(a: Solid, b: Solid) -> float:
    sides = [min(a.high[k], b.high[k]) - max(a.low[k], b.low[k]) for k in range(3)]
    return sides[0] * sides[1] * sides[2] if min(sides) > 0 else 0.0
