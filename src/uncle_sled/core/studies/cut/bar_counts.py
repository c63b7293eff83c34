"""How many bars of each length are bought: the cheapest whole numbers that no reckoning by worth rules out.

Method: Benders 1962 on the covering by patterns. A worth of each piece says how much worth one bar of a stock can hold at
most (its best pattern, an exact knapsack); bars that together hold less than all pieces are worth cannot be enough. Each
such line is true of every plan, so the cheapest numbers that keep all lines cost no more than the cheapest plan. Those
numbers are few: their sums lie between what the relaxed answer and the best plan cost.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from uncle_sled.core.studies.cut.choose import HAIR, Floats, Ints

MOST_GRID = 3_000_000  # numbers of bars that are looked through at once; more stocks at a time are left to the relaxed answer


class Line(NamedTuple):
    """Bars that are enough hold at least ``need``. holds: (s,) the most that one bar of each stock holds."""

    holds: Floats
    need: float

    def met(self, counts: Ints) -> bool:
        return float(self.holds @ counts) >= self.need - HAIR * (1 + abs(self.need))


class Counts:
    """Numbers of bars that cost less than a plan that is known.

    Args: costs: (s,) of one bar of each stock; limits: of each stock, None where there are enough; below: what the plan costs;
    first: a line to begin with, by which nearly all numbers there are fall out at once.
    """

    def __init__(self, costs: Floats, limits: Sequence[int | None], below: float, first: Line) -> None:
        self.costs, self.limits, self.below = costs, limits, below
        self.tried: set[tuple[int, ...]] = set()
        most = [
            int(min(limit if limit is not None else np.inf, below // cost)) if cost > 0 else int(limit or 0)
            for cost, limit in zip(costs, limits, strict=True)
        ]
        self.most = np.array(most, dtype=np.int64)
        self.counts = np.zeros((0, len(costs)), dtype=np.int64)
        free = any(cost <= 0 and limit is None for cost, limit in zip(costs, limits, strict=True))
        priced = sorted((k for k in range(len(costs)) if costs[k] > 0 and most[k] > 0), key=lambda k: most[k])
        self.known = not free and bool(priced) and float(np.prod([most[k] + 1.0 for k in priced[:-1]])) <= MOST_GRID
        if not self.known:
            return
        self.last, *others = reversed(priced)
        outer, inner = others[:1], others[1:]
        kept = []
        for many in range(most[outer[0]] + 1) if outer else (0,):
            axes = np.meshgrid(*[np.arange(most[k] + 1) for k in inner], indexing="ij")
            self.counts = np.zeros((axes[0].size if axes else 1, len(costs)), dtype=np.int64)
            self.counts[:] = np.where(costs > 0, 0, self.most)  # what costs nothing is taken
            for k, axis in zip(inner, axes, strict=True):
                self.counts[:, k] = axis.ravel()
            for k in outer:
                self.counts[:, k] = many
            self.keep(first)
            kept.append(self.counts)
        self.counts = np.concatenate(kept)

    def keep(self, line: Line) -> None:
        """From now on only numbers that keep the line as well: of the last stock as many more as that takes."""
        short = line.need - HAIR * (1 + abs(line.need)) - self.counts @ line.holds
        one = float(line.holds[self.last])
        more = np.ceil(np.maximum(short, 0.0) / one) if one > 0 else np.where(short > 0, np.inf, 0.0)
        fits = self.counts[:, self.last] + more <= self.most[self.last]
        self.counts = self.counts[fits]
        self.counts[:, self.last] += more[fits].astype(np.int64)
        self.counts = self.counts[self.counts @ self.costs < self.below - HAIR * (1 + self.below)]

    def cheapest(self) -> Ints | None:
        """The cheapest numbers that keep all lines and were not tried; None where there are none."""
        sums = self.counts @ self.costs
        for at in np.argsort(sums, kind="stable"):
            if tuple(self.counts[at].tolist()) not in self.tried:
                found: Ints = self.counts[at].copy()
                return found
        return None

    def try_no_more(self, counts: Ints) -> None:
        """They may be enough, but no plan was found with them."""
        self.tried.add(tuple(counts.tolist()))
