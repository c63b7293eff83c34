"""Which hot things does a wire pass, and over how much of its way?

Hot is what cooks, warms the room or warms water, inside. Near is within 150 mm of the box of a flame and 50 mm of one that warms by
500 W of current or more; what a wire ends at is left out, since it has to get there. In that warmth a wire carries as little as beside
an engine. Source: practice of derating by the air round a cable.
"""

from __future__ import annotations

import itertools
import math

from uncle_sled.core.document.stow import Thing
from uncle_sled.core.engine import keep
from uncle_sled.core.wiring.appliances import figures_of
from uncle_sled.core.wiring.route import Spot

HOT = frozenset({"cooks", "warms the room", "warms water"})
NEAR_M, NEAR_ELECTRIC_M = 0.15, 0.05
HOT_W = 500.0  # of what warms by current: under this it is lukewarm; nobody said: it counts
LEAST_M = 0.02  # of a way: a corner that is cut counts for nothing
HotBox = tuple[str, Spot, Spot]


@keep("things", most=3)
def hot_boxes(things: tuple[Thing, ...]) -> tuple[HotBox, ...]:
    """Id and corners of what is hot [m], grown by what counts as near."""
    made = []
    for thing in things:
        if HOT.isdisjoint(thing.roles) or thing.taken_out or thing.outside or thing.cargo or _lukewarm(thing):
            continue
        high, near = thing.height.si, near_m(thing)
        along, across = (thing.length.si, thing.width.si) if thing.turn % 180 == 0 else (thing.width.si, thing.length.si)
        low = (thing.x.si - near, thing.y.si - across / 2 - near, thing.z.si - near)
        top = (thing.x.si + along + near, thing.y.si + across / 2 + near, thing.z.si + high + near)
        made.append((thing.id, low, top))
    return tuple(made)


def _lukewarm(thing: Thing) -> bool:
    f = figures_of(thing)
    watts = max(f.power_w or 0.0, f.heat_w or 0.0)
    return thing.burns == "none" and 0 < watts < HOT_W


def near_m(thing: Thing) -> float:
    """How near to its box a wire is in its warmth [m]."""
    return NEAR_ELECTRIC_M if thing.burns == "none" else NEAR_M


def near_heat(points: tuple[Spot, ...], ends: tuple[str, str], boxes: tuple[HotBox, ...]) -> tuple[tuple[str, float], ...]:
    """Ids of the hot things that a way passes, each with the length that lies near it [m]; in the order of the file."""
    made = []
    for id, low, high in boxes:
        if id in ends:
            continue
        long = sum(_within(a, b, low, high) for a, b in itertools.pairwise(points))
        if long > LEAST_M:
            made.append((id, round(long, 3)))
    return tuple(made)


def _within(a: Spot, b: Spot, low: Spot, high: Spot) -> float:
    """How much of a straight run lies in a box [m]."""
    first, last = 0.0, 1.0
    for p, q, least, most in zip(a, b, low, high, strict=True):
        if p == q:
            if not least <= p <= most:
                return 0.0
            continue
        enters, leaves = sorted(((least - p) / (q - p), (most - p) / (q - p)))
        first, last = max(first, enters), min(last, leaves)
    return max(last - first, 0.0) * math.dist(a, b)
