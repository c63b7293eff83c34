"""Two tanks of one kind, used up one after the other: which order keeps the ball in its band all the way?

Every order of the tanks is walked from full to empty, the others as the case has them. Source: statics, enumerated.
"""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence

import msgspec
import numpy as np

from uncle_sled.core.document.placing import stand_of
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.parts.from_stow import contents_of
from uncle_sled.core.parts.part import Contents
from uncle_sled.core.parts.support import independent_axle_loads_kg
from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.balance.sweep import span_kg

MOST_TANKS, STEPS = 4, 9
USED_UP = ("fresh", "gas", "petrol", "diesel")


class Order(msgspec.Struct, frozen=True):
    """Tanks in the order they are emptied, how far out of the band that gets at its worst [kg], and the ball there [kg]."""

    tanks: tuple[str, ...]
    out_kg: float  # negative: it stays inside
    load_kg: float


class Emptying(msgspec.Struct, frozen=True):
    """One kind of tank in one case: the order that keeps best to the band, and the one that keeps worst."""

    kind: str
    case_id: str
    best: Order
    worst: Order


@keep(most=4)
def emptying(s: Studied) -> tuple[Emptying, ...]:
    """Every kind of which two tanks or more ride, in the first case on the road that has them full."""
    if s.support is None or not s.towing_rows:
        return ()
    made = []
    contents = {id: at for at, id in enumerate(s.table.ids) if id.endswith("/contents")}
    for kind in USED_UP:
        things = [thing for thing in s.build.stow.things if thing.tank is not None and thing.tank.contents == kind]
        for row in s.towing_rows if len(things) > 1 else ():
            tanks = _tanks(s, row, things, contents)
            if 2 <= len(tanks) <= MOST_TANKS:
                orders = [_walked(s, row, dict(order)) for order in itertools.permutations(tanks.items())]
                best, worst = (pick(orders, key=lambda order: (order.out_kg, order.tanks)) for pick in (min, max))
                made.append(Emptying(kind, s.table.cases[row].id, best, worst))
                break
    return tuple(made)


def _tanks(s: Studied, row: int, things: Sequence[Thing], columns: Mapping[str, int]) -> dict[str, Contents]:
    """Those of some tanks that are full in a case, with what they hold there. Args: columns: of what tanks hold, by its id."""
    case = s.table.cases[row]
    full = {level.id for level in case.case.levels if level.level > 0.99}
    kg = s.table.mass_kg[row]
    wet = [thing for thing in things if thing.id in full and (at := columns.get(f"{thing.id}/contents")) is not None and kg[at] > 0]
    if len(wet) > MOST_TANKS:
        return {}  # nobody empties so many by an order
    found = {thing.id: contents_of(thing, stand_of(thing, case.mode)) for thing in wet}
    return {id: contents for id, contents in found.items() if contents is not None}


def _walked(s: Studied, row: int, order: dict[str, Contents]) -> Order:
    rest = np.array([id.removesuffix("/contents") not in order or "/" not in id for id in s.table.ids], dtype=bool)
    mass, x = s.table.mass_kg[row, rest], s.table.x_m[row, rest]
    total, moment = [], []
    emptied: list[str] = []
    for id in order:
        for level in np.linspace(1.0, 0.0, STEPS):
            held = {one: 0.0 if one in emptied else float(level) if one == id else 1.0 for one in order}
            kg = {one: order[one].full_kg * at for one, at in held.items()}
            total.append(float(mass.sum()) + sum(kg.values()))
            shift = sum(kg[one] * float(order[one].centres_m(at)[0]) for one, at in held.items())
            moment.append(float((mass * x).sum()) + shift)
        emptied.append(id)
    totals, moments = np.array(total), np.array(moment)
    load = _load_kg(s, totals, moments)
    low, high = span_kg(s, totals)
    out = np.maximum(low - load, load - high)
    at = int(np.argmax(out))
    return Order(tuple(order), float(out[at]), float(load[at]))


def _load_kg(s: Studied, total: Floats, moment: Floats) -> Floats:
    assert s.support is not None
    if s.support.carrier == "vehicle bed":
        return moment / s.support.axles_m[1]
    if s.support.independent:
        return np.asarray(total - independent_axle_loads_kg(moment, s.support).sum(axis=1))
    return total - moment / s.support.mean_axle_m
