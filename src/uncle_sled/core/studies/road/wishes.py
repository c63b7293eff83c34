"""Wishes of the brief: where each is in the build, what that weighs and costs; an unmet one is a finding."""

from __future__ import annotations

import msgspec

from uncle_sled.core.document.road import Wish
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.cut.bought_line import prices


class Traced(msgspec.Struct, frozen=True):
    """A wish and what meets it. met: what it points at is there; mass, money: None where nobody knows."""

    wish: Wish
    met: bool
    where_name: str
    mass_kg: float | None
    money: float | None


def places(s: Studied) -> dict[str, str]:
    """What a wish can point at: things, openings and faces, by id."""
    made = {thing.id: thing.name for thing in s.build.stow.things}
    made |= {opening.id: opening.name for opening in s.build.shell.openings}
    return made | {face.id: face.name for face in s.build.shell.faces}


def traced(s: Studied) -> tuple[Traced, ...]:
    """Every wish with what of the build answers it."""
    names = places(s)
    mass = {part.id: part.mass_kg for part in s.parts}
    bought = {bought.id: bought for bought in s.build.cut.bought}
    kinds = {thing.id: f"thing {thing.kind}" for thing in s.build.stow.things}
    kinds |= {opening.id: f"opening {opening.kind}" for opening in s.build.shell.openings}
    made = []
    for wish in s.build.road.wishes:
        met = bool(wish.where) and wish.where in names
        said = bought.get(f"thing {wish.where}") or bought.get(f"opening {wish.where}")
        money = None
        if said is not None:
            money = said.spent if said.spent is not None else said.quote if said.quote is not None else said.likely
        if money is None and met and kinds.get(wish.where) in prices():
            money = prices()[kinds[wish.where]].likely
        made.append(Traced(wish, met, names.get(wish.where, ""), mass.get(wish.where) if met else None, money if met else None))
    return tuple(made)
