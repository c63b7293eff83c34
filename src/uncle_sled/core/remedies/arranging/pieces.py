"""What is moved as one when a build is arranged anew, and what stays where it is, and why.

A piece is a thing with all that is built into it or stands on it. What stays is in the way of the others like a wall.
"""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
import numpy as np

from uncle_sled.core.document.project import Build
from uncle_sled.core.document.roles import ALARMS
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.parts.from_stow import home_of
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.remedies.linear_moves import LEAST_KG
from uncle_sled.core.studies.stow.solids import sized

ON_M = 0.03  # so near to the top of another it stands on it
BEARS = ("cabinet", "bed", "furniture", "appliance")  # kinds that others are set upon
STAYS = {
    "outside": "outside the body",
    "marked": "marked as staying",
    "taken out": "taken out",
    "car": "riding in the car",
    "no size": "without a size yet",
    "small": "an alarm, or next to no weight",
    "more": "more than can be arranged at a time",
}


class Piece(msgspec.Struct, frozen=True):
    """``ids``: its things, that which bears the others first. ``stays``: why it stays, a key of ``STAYS``; "" it may move."""

    id: str
    name: str
    ids: tuple[str, ...]
    stays: str
    kg: float  # the most that all of it weighs in any case


def pieces_of(s: Studied, most: int) -> tuple[Piece, ...]:
    """Every piece aboard, the heaviest first. Args: most: how many may move; the lightest beyond stay."""
    build = s.build
    groups = _groups(build)
    things = {thing.id: thing for thing in build.stow.things}
    made = []
    for ids in groups:
        columns = [at for at, id in enumerate(s.table.ids) if id.split("/")[0] in ids]
        kg = float(s.table.mass_kg[:, columns].sum(axis=1).max(initial=0.0))
        stays = next(_stays([things[id] for id in ids], kg), "")
        made.append(Piece(ids[0], things[ids[0]].name, ids, stays, kg))
    made.sort(key=lambda piece: -piece.kg)
    moving = [piece.id for piece in made if not piece.stays]
    over = set(moving[most:])
    return tuple(msgspec.structs.replace(piece, stays="more") if piece.id in over else piece for piece in made)


def _stays(things: list[Thing], kg: float) -> Iterator[str]:
    """Why a piece stays, by the first of its things that has a reason."""
    for thing in things:
        if thing.stays:
            yield "marked"
        if thing.outside:
            yield "outside"
        if thing.taken_out:
            yield "taken out"
        if thing.rides:
            yield "car"
        if not sized(thing):
            yield "no size"
        if not ALARMS.isdisjoint(thing.roles):
            yield "small"
    if kg < LEAST_KG:
        yield "small"


def _groups(build: Build) -> list[tuple[str, ...]]:
    """Ids of what goes together, the bearer first, in the order of the file."""
    things = build.stow.things
    under: dict[str, str] = {}
    there = {thing.id for thing in things}
    for thing in things:
        if thing.inside in there and thing.inside != thing.id:
            under[thing.id] = thing.inside  # type: ignore[assignment]
            continue
        bearer = _bearer(thing, things)
        if bearer is not None:
            under[thing.id] = bearer
    roots = {thing.id: _root(thing.id, under) for thing in things}
    return [(root, *(t.id for t in things if roots[t.id] == root and t.id != root)) for root in dict.fromkeys(roots.values())]


def _root(id: str, under: dict[str, str]) -> str:
    seen = {id}
    while id in under and under[id] not in seen:
        id = under[id]
        seen.add(id)
    return id


def _bearer(thing: Thing, things: tuple[Thing, ...]) -> str | None:
    """What a thing stands on: its middle over another's top."""
    if thing.outside or not sized(thing):
        return None
    stand = home_of(thing)
    low, high = (np.array(corner) for corner in stand.corners)
    middle = (low + high)[:2] / 2
    for other in things:
        if other.id == thing.id or other.outside or other.kind not in BEARS or other.tank is not None or not sized(other):
            continue
        under, top = home_of(other).corners
        if abs(top[2] - low[2]) < ON_M and all(under[k] <= middle[k] <= top[k] for k in range(2)):
            return other.id
    return None
