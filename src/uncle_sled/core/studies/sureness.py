"""Which few masses own the doubt on the ball, and how much would weighing each of them narrow it?

First order: a weighing leaves 1 % of the mass as doubt, its balance point 15 mm of place. Source: propagation of errors.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from uncle_sled.core.parts.part import PLACED_M, SURENESS
from uncle_sled.core.studies.balance import doubt_shares
from uncle_sled.core.studies.reading import Studied


@dataclass(frozen=True)
class Owner:
    """One mass: its share of the ball's variance, and the doubt left once it is weighed, and balanced too [kg]."""

    id: str
    name: str
    share: float
    left_weighed_kg: float
    left_kg: float


def weigh_first(s: Studied, row: int, most: int) -> list[tuple[str, str, float]]:
    """Ids, names and shares of the masses that own the ball's doubt in one case, largest first."""
    shares = doubt_shares(s.table, row, float(s.readings.effective_axle_m[row]))
    order = [int(at) for at in np.argsort(-shares)[:most] if shares[at] > 0.01]
    return [(s.table.ids[at].split("/")[0], s.table.names[at], float(shares[at])) for at in order]


def owners(s: Studied, row: int, most: int) -> tuple[Owner, ...]:
    """The masses that own the doubt of one towing case, each with what weighing it would leave."""
    sigma, axle = float(s.readings.tongue_sigma_kg[row]), float(s.readings.effective_axle_m[row])
    if not math.isfinite(sigma) or not math.isfinite(axle) or axle <= 0:
        return ()
    table = s.table
    made = []
    for id, name, share in weigh_first(s, row, most):
        at = table.ids.index(id)
        mass, arm = float(table.mass_kg[row, at]), 1 - float(table.x_m[row, at]) / axle
        placed = mass / axle * float(table.sigma_x_m[at])
        weighed = (arm * SURENESS["weighed"] * mass) ** 2 + placed**2
        balanced = weighed - placed**2 + (mass / axle * PLACED_M) ** 2
        others, mine = sigma**2 * (1 - share), sigma**2 * share
        made.append(
            Owner(id, name, share, math.sqrt(others + min(weighed, mine)), math.sqrt(others + min(balanced, mine)))
        )
    return tuple(made)


def doubt_of_all_weighed_kg(s: Studied, row: int, first: tuple[Owner, ...]) -> float:
    """The doubt that is left once all of those are weighed [kg]."""
    sigma = float(s.readings.tongue_sigma_kg[row])
    taken = sum(sigma**2 - one.left_kg**2 for one in first)
    return math.sqrt(max(sigma**2 - taken, 0.0))
