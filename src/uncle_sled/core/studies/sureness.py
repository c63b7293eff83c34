"""Which few masses own the doubt on the ball, and how much would weighing each of them narrow it?

First order: a weighing leaves 1 % of the mass as doubt, its balance point 15 mm of place. Source: propagation of errors.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from uncle_sled.core.parts.part import AXLE_M, PLACED_M, SHARED_BIAS, SURENESS
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
    made = []
    for id, name, share in weigh_first(s, row, most):
        column = [s.table.ids.index(id)]
        weighed, balanced = (_left_kg(s, row, column, found) for found in (False, True))
        made.append(Owner(id, name, share, min(weighed, sigma), min(balanced, sigma)))
    return tuple(made)


def _left_kg(s: Studied, row: int, weighed: list[int], balanced: bool) -> float:
    """Doubt on the ball once some columns are weighed, and their balance points found too [kg].

    A weighed mass has no part in its group's shared bias any more.
    """
    table, axle = s.table, float(s.readings.effective_axle_m[row])
    arm = 1 - table.x_m[row] / axle
    sigma, place = table.sigma_kg[row].copy(), table.sigma_x_m.copy()
    biased = SHARED_BIAS * table.mass_kg[row]
    sigma[weighed] = np.minimum(sigma[weighed], SURENESS["weighed"] * np.abs(table.mass_kg[row, weighed]))
    biased[weighed] = 0.0
    if balanced:
        place[weighed] = np.minimum(place[weighed], PLACED_M)
    group = float(s.readings.total_kg[row] - s.readings.tongue_kg[row])
    variance = float(((arm * sigma) ** 2).sum() + ((table.mass_kg[row] / axle * place) ** 2).sum())
    variance += (group / axle * AXLE_M) ** 2
    variance += sum(float((arm[list(columns)] * biased[list(columns)]).sum()) ** 2 for _, columns in table.bias)
    return math.sqrt(variance)


def doubt_of_all_weighed_kg(s: Studied, row: int, first: tuple[Owner, ...]) -> float:
    """The doubt that is left once all of those are weighed, and their balance points found [kg]."""
    columns = [s.table.ids.index(one.id) for one in first]
    return min(_left_kg(s, row, columns, True), float(s.readings.tongue_sigma_kg[row]))
