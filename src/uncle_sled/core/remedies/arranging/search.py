"""Arrangements found by chance and cooling: every piece in turn goes to a place that the others leave it, the cheaper the likelier.

Source: heat bath of simulated annealing (Geman and Geman 1984; any text of optimisation). The chances come from one seed and
the number of rounds is fixed, so that the same build has the same answer on any machine.
"""

from __future__ import annotations

import msgspec
import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.reading.load_cases import Floats
from uncle_sled.core.remedies.arranging.places import Ints
from uncle_sled.core.remedies.arranging.program import Choice, Program
from uncle_sled.core.remedies.least_moves import Allowed

ROUNDS, RUNS = 45, 6
MORE, WARM = 10, 0.25  # times that each end is shaken for another one, and how hard [m]
HOT, COLD = 3.0, 0.02  # metres
CLASH_M, KG_M = 4.0, 6.0  # what a clash costs, and how many kilogram metres out of a limit cost one metre


class Asked(msgspec.Struct, frozen=True, eq=False):
    """What is asked of a search. may: places that the wishes leave, (places,); apart: signs of arrangements of which no more
    than ``most_same`` key pieces may stand in the same part of the room; barred: places that go together in none of them."""

    may: NDArray[np.bool_]
    allowed: Allowed | None
    battery_m: float | None
    part: Ints  # of the room, of every place, -1 for what is no key piece
    apart: tuple[tuple[int, ...], ...] = ()
    most_same: int = 0
    barred: tuple[tuple[Ints, ...], ...] = ()


class _Ends(msgspec.Struct, frozen=True, eq=False):
    """Joins of one piece: middles of its ends by place, and where the other ends are or which piece has them."""

    mine: tuple[Floats, ...]  # of each, (n, 2)
    other: Ints  # (joins,) piece, -1: it stays
    theirs: tuple[Floats, ...]  # of the other piece by place, (n, 2), or where it is, (1, 2)
    battery: NDArray[np.bool_]


def found(program: Program, clash: NDArray[np.bool_], asked: Asked, seed: int) -> tuple[Choice, ...]:
    """Arrangements that keep to everything, the cheapest first; none where the search met none, which proves nothing.

    Args: clash: whether two places shut each other out, (places, places).
    """
    random = np.random.default_rng(seed)
    pool: dict[Choice, float] = {}
    if any(not asked.may[a:b].any() for a, b in zip(program.first[:-1], program.first[1:], strict=True)):
        return ()
    walk = _Walk(program, clash.astype(np.float64), asked)
    for run in range(RUNS):
        walk.begin(random, as_it_is=run == 0)
        for heat in np.geomspace(HOT, COLD, ROUNDS) if run else ():  # the first only shakes what is drawn
            for k in random.permutation(len(program.spots)):
                walk.step(int(k), float(heat), random)
        for _ in range(1 + MORE):
            for choice, cost in walk.settled():
                pool[choice] = cost
            for heat in (WARM, WARM / 2, WARM / 4):
                for k in random.permutation(len(program.spots)):
                    walk.step(int(k), heat, random)
    return tuple(sorted(pool, key=lambda choice: (pool[choice], choice)))


class _Walk:
    """Where every piece stands at the moment."""

    def __init__(self, program: Program, clash: Floats, asked: Asked) -> None:
        self.program, self.clash, self.asked = program, clash, asked
        self.first = program.first.tolist()
        self.ends = [_ends(program, k) for k in range(len(program.spots))]
        self.choices = [np.flatnonzero(asked.may[a:b]) + a for a, b in zip(self.first[:-1], self.first[1:], strict=True)]
        self.at: list[int] = []

    def begin(self, random: np.random.Generator, as_it_is: bool) -> None:
        """Every piece as it is drawn, or anywhere."""
        self.at = []
        for k, of in enumerate(self.program.spots):
            now = self.first[k] + of.now
            kept = as_it_is and of.now >= 0 and self.asked.may[now]
            self.at.append(int(now if kept else random.choice(self.choices[k])))
        self._sum()

    def _sum(self) -> None:
        self.meet = self.clash[:, self.at].sum(axis=1)
        self.along = self.program.along[self.at].sum(axis=0)
        self.across = self.program.across[self.at].sum(axis=0)

    def costs(self, k: int, at: Ints) -> tuple[Floats, Floats]:
        """What places of a piece cost while all others stay: faults, which may not be, and metres, each (n,)."""
        mine = self.at[k]
        fault = CLASH_M * (self.meet[at] - self.clash[at, mine])
        allowed, asked = self.asked.allowed, self.asked
        if allowed is not None:
            along = self.along - self.program.along[mine] + self.program.along[at]
            across = self.across - self.program.across[mine] + self.program.across[at]
            out = np.maximum(allowed.low - along, 0.0) + np.maximum(along - allowed.high, 0.0)
            lean = np.abs(allowed.roll + across) - np.where(
                np.isfinite(allowed.arm_m), allowed.arm_m * (allowed.wheels_kg + allowed.wheels_per_kg_m * along), np.inf
            )
            fault = fault + (out + np.maximum(lean, 0.0)).sum(axis=1) / KG_M
        for barred in asked.barred:
            fault = fault + CLASH_M * self._barred(barred, k, at)
        for sign in asked.apart:
            same = sum(
                self.asked.part[other] == part for j, (other, part) in enumerate(zip(self.at, sign, strict=True)) if j != k and part >= 0
            )
            fault = fault + CLASH_M * np.maximum(same + ((asked.part[at] == sign[k]) & (sign[k] >= 0)) - asked.most_same, 0)
        metres = self.program.cost[at].copy()
        ends = self.ends[k]
        for j, other in enumerate(ends.other.tolist()):
            theirs = ends.theirs[j][self.at[other] - self.first[other] if other >= 0 else 0]
            way = np.abs(ends.mine[j][at - self.first[k]] - theirs).sum(axis=1)
            metres += way
            if asked.battery_m is not None and ends.battery[j]:
                fault = fault + np.maximum(way - asked.battery_m, 0.0) * 2
        return fault, metres

    def _barred(self, barred: tuple[Ints, ...], k: int, at: Ints) -> Floats:
        """Where all other pieces of what is barred stand in their places: which places of this one would make it whole."""
        mine = np.zeros(len(at), dtype=bool)
        for places in barred:
            of = int(np.searchsorted(self.first, places[0], "right")) - 1
            if of == k:
                mine = np.isin(at, places)
            elif self.at[of] not in places:
                return np.zeros(len(at))
        return mine.astype(float)

    def step(self, k: int, heat: float, random: np.random.Generator) -> None:
        """One piece goes to a place by its chance."""
        at = self.choices[k]
        if len(at) < 2:
            return
        fault, metres = self.costs(k, at)
        energy = fault + metres
        chance = np.exp(-(energy - energy.min()) / heat)
        total = np.cumsum(chance)
        new = int(at[min(int(np.searchsorted(total, random.random() * total[-1])), len(at) - 1)])
        old = self.at[k]
        if new != old:
            self.meet += self.clash[:, new] - self.clash[:, old]
            self.along = self.along + self.program.along[new] - self.program.along[old]
            self.across = self.across + self.program.across[new] - self.program.across[old]
            self.at[k] = new

    def settled(self) -> list[tuple[Choice, float]]:
        """The arrangement at its end, each piece at the best of its places until none gets better; nothing where faults are left."""
        for _ in range(20):
            before = list(self.at)
            for k in range(len(self.at)):
                at = self.choices[k]
                fault, metres = self.costs(k, at)
                new = int(at[np.lexsort((at, np.round(metres, 9), np.round(fault, 9)))[0]])
                if new != self.at[k]:
                    self.at[k] = new
                    self._sum()
            if before == self.at:
                break
        faults = [float(self.costs(k, np.array([self.at[k]]))[0][0]) for k in range(len(self.at))]
        if max(faults, default=0.0) > 1e-6:
            return []
        return [(tuple(at - self.first[k] for k, at in enumerate(self.at)), cost_of(self.program, self.at))]


def cost_of(program: Program, at: list[int]) -> float:
    """Metres of an arrangement: wires, hoses and pipes, and a little for what moves. Args: at: the place of every piece among all."""
    total = float(program.cost[at].sum())
    for end in program.ends:
        a, b = (middle[at[k] - int(program.first[k]) if k >= 0 else 0] for k, middle in zip(end.piece, end.middle_m, strict=True))
        total += float(np.abs(a - b).sum())
    return total


def _ends(program: Program, k: int) -> _Ends:
    mine, other, theirs, battery = [], [], [], []
    for end in program.ends:
        for a, b in ((0, 1), (1, 0)):
            if end.piece[a] == k:
                mine.append(end.middle_m[a])
                other.append(end.piece[b])
                theirs.append(end.middle_m[b])
                battery.append(end.join.battery)
    return _Ends(tuple(mine), np.array(other, dtype=np.int64), tuple(theirs), np.array(battery, dtype=bool))


def signs(program: Program, part: Ints, choice: Choice) -> tuple[int, ...]:
    """In which part of the room every key piece stands, -1 for the others."""
    return tuple(int(part[program.first[k] + at]) for k, at in enumerate(choice))
