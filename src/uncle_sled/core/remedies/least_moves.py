"""The least total movement that puts every case right, as a mixed-integer linear program.

The ball, the axles and the lean are linear in every shift; free lanes keep a thing out of walls and neighbours.
Source: mixed-integer linear programming (any operations research text); HiGHS.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.solver import Line
from uncle_sled.core.solver import least as cheapest

Floats = NDArray[np.float64]
FIXED_COST = 0.15  # of taking hold of one more thing, in metres
NODES = 2000  # of the search tree: a bound that is the same on every machine


class Lane(msgspec.Struct, frozen=True):
    """Free stations of a thing's front edge [m] with its middle at one side place."""

    y_m: float
    low_m: float
    high_m: float


class Mover(msgspec.Struct, frozen=True):
    """One thing that may move: front edge and middle now [m], mass by case [kg] shape (c,), trouble a metre."""

    x_m: float
    y_m: float
    mass_kg: Floats
    lanes: tuple[Lane, ...]
    hard: float

    @property
    def reach_m(self) -> float:
        """The furthest that it can slide either way [m]."""
        return max(max(abs(lane.low_m - self.x_m), abs(lane.high_m - self.x_m)) for lane in self.lanes)


class Allowed(msgspec.Struct, frozen=True):
    """What every case leaves for shifts, each shape (c,).

    low, high: moment that may be added aft [kg m]. roll: moment to the right now [kg m]; it may be ``arm_m`` times
    what the wheels carry, wheels_kg now and wheels_per_kg_m more for each kg m added aft. An infinite arm asks nothing.
    """

    low: Floats
    high: Floats
    roll: Floats
    arm_m: Floats
    wheels_kg: Floats
    wheels_per_kg_m: Floats

    def holds(self, along: Floats, across: Floats, slack: float = 1e-9) -> bool:
        """Whether moments added aft and to the right [kg m] leave every case within its limits."""
        return bool(self.held(along, across, slack))

    def held(self, along: Floats, across: Floats, slack: float = 1e-9) -> NDArray[np.bool_]:
        """The same of many at a time, shape (..., c) to (...)."""
        right = self.arm_m * (self.wheels_kg + self.wheels_per_kg_m * along)
        leans = np.abs(self.roll + across) > right + slack
        good = ((along >= self.low - slack) & (along <= self.high + slack) & ~leans).all(axis=-1)
        return np.asarray(good)


def nearest_shift(mover: Mover, lane: Lane, allowed: Allowed) -> float | None:
    """The least shift along one lane that puts every case right [m], or None where there is none.

    Each case gives one interval, and they are intersected with the lane. A case in which the thing weighs nothing is
    skipped if it is right already and empties the answer if it is not.
    """
    low, high = lane.low_m - mover.x_m, lane.high_m - mover.x_m
    across = mover.mass_kg * (lane.y_m - mover.y_m)
    for j, mass in enumerate(mover.mass_kg):
        # mass dx >= low, -mass dx >= -high, arm slope mass dx >= |roll| - arm wheels
        lines = [(mass, allowed.low[j]), (-mass, -allowed.high[j])]
        if np.isfinite(allowed.arm_m[j]):
            over = abs(allowed.roll[j] + across[j]) - allowed.arm_m[j] * allowed.wheels_kg[j]
            lines.append((allowed.arm_m[j] * allowed.wheels_per_kg_m[j] * mass, over))
        for rate, least in lines:
            if abs(rate) < 1e-9:
                if least > 1e-9:
                    return None
            elif rate > 0:
                low = max(low, least / rate)
            else:
                high = min(high, least / rate)
    return float(min(max(0.0, low), high)) if low <= high else None


def solve_least(
    movers: list[Mover],
    allowed: Allowed,
    most: int,
    rows: list[tuple[int, int, float]] = [],  # noqa: B006 (never changed)
    barred: list[tuple[tuple[int, int], tuple[int, int]]] = [],  # noqa: B006
    elastic: bool = False,
) -> tuple[list[tuple[float, int]] | None, Floats]:
    """Shifts of least sum of trouble times metres that bring every case within its limits.

    Args:
        most: How many things may move.
        rows: Pairs in one row that keep their order while both stay in it: ahead, behind, length of the one ahead [m].
        barred: Pairs of (mover, lane) that must not be taken together; twice the same: not at all.
        elastic: Ask only for the excess of each case that no shift can take away.
    Returns: Shift aft [m] and lane of each mover, or None where no shifts do (and when elastic); excess [kg m], (c,).
    """
    n, cases = len(movers), len(allowed.low)
    spots = [(i, k) for i, mover in enumerate(movers) for k in range(len(mover.lanes))]
    at_of = {spot: at for at, spot in enumerate(spots)}
    # columns: aft and forward parts of each shift, whether it moves, the lane that it stands in, slack of each case
    aft, fore, used, stands, slack = 0, n, 2 * n, 3 * n, 3 * n + len(spots)
    width = slack + cases
    lines: list[Line] = []

    def side(i: int, k: int) -> float:
        return movers[i].lanes[k].y_m - movers[i].y_m

    for j in range(cases):
        along = {aft + i: float(m.mass_kg[j]) for i, m in enumerate(movers)}
        along |= {fore + i: -float(m.mass_kg[j]) for i, m in enumerate(movers)}
        if np.isfinite(allowed.low[j]):
            lines.append((along | {slack + j: 1.0}, float(allowed.low[j]), np.inf))
        if np.isfinite(allowed.high[j]):
            lines.append((along | {slack + j: -1.0}, -np.inf, float(allowed.high[j])))
        if np.isfinite(allowed.arm_m[j]) and not elastic:
            arm = float(allowed.arm_m[j])
            carried = {c: arm * float(allowed.wheels_per_kg_m[j]) * v for c, v in along.items()}
            for sign in (1.0, -1.0):
                lean = {stands + at: -sign * float(movers[i].mass_kg[j]) * side(i, k) for (i, k), at in at_of.items()}
                lines.append((carried | lean, sign * float(allowed.roll[j]) - arm * float(allowed.wheels_kg[j]), np.inf))
    for i, mover in enumerate(movers):
        mine = [(k, stands + at_of[i, k]) for k in range(len(mover.lanes))]
        shift = {aft + i: 1.0, fore + i: -1.0}
        lines.append(({aft + i: 1.0, fore + i: 1.0, used + i: -mover.reach_m}, -np.inf, 0.0))
        lines.append(({column: 1.0 for _, column in mine}, 1.0, 1.0))
        # x lies between the ends of the lane that it stands in
        lines.append((shift | {c: mover.x_m - mover.lanes[k].low_m for k, c in mine}, 0.0, np.inf))
        lines.append((shift | {c: mover.x_m - mover.lanes[k].high_m for k, c in mine}, -np.inf, 0.0))
        lines += [({c: 1.0, used + i: -1.0}, -np.inf, 0.0) for k, c in mine if abs(side(i, k)) > 1e-6]
    lines.append(({used + i: 1.0 for i in range(n)}, 0.0, float(most)))
    for i, j, long in rows:
        line = {aft + i: 1.0, fore + i: -1.0, aft + j: -1.0, fore + j: 1.0}
        apart = movers[i].reach_m + movers[j].reach_m
        line |= {stands + at: -apart for (one, k), at in at_of.items() if one in (i, j) and abs(side(one, k)) > 1e-6}
        lines.append((line, -np.inf, max(movers[j].x_m - movers[i].x_m - long, 0.0)))
    for one, other in barred:
        both = {stands + at_of[one]: 1.0} if one == other else {stands + at_of[one]: 1.0, stands + at_of[other]: 1.0}
        lines.append((both, -np.inf, len(both) - 1.0))
    cost = np.zeros(width)
    if elastic:
        cost[slack:] = 1.0
    else:
        cost[aft:fore] = cost[fore:used] = [mover.hard for mover in movers]
        cost[used:stands] = FIXED_COST
        cost[stands:slack] = [movers[i].hard * abs(side(i, k)) for i, k in spots]
    top = np.ones(width)
    top[aft:fore] = top[fore:used] = [mover.reach_m for mover in movers]
    top[slack:] = np.inf if elastic else 0.0
    whole = np.zeros(width, dtype=bool)
    whole[used:slack] = True
    found = cheapest(cost, lines, top, whole, NODES)
    if found is None:
        return None, np.full(cases, np.inf)
    if elastic:
        return None, np.asarray(found[slack:])
    chosen = []
    for i, mover in enumerate(movers):
        lane = max(range(len(mover.lanes)), key=lambda k: found[stands + at_of[i, k]])
        chosen.append((float(found[aft + i] - found[fore + i]), lane))
    return chosen, np.zeros(cases)
