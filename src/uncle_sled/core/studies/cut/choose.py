"""Which patterns, how often, so that everything wanted is cut at least cost: the one program of bars and sheets.

Method: covering by patterns (Gilmore and Gomory 1961), solved by HiGHS and kept warm while patterns are added. A pattern
says how many of each piece one bar or sheet of a stock gives; more than is wanted may come of it, which is left uncut.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.solver import quiet_solver

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]

HAIR = 1e-7  # of worth and money: less is none
ENDLESS = math.inf  # a large number instead is taken for one, and answers that are none come of it


class Relaxed(NamedTuple):
    """The answer in parts of patterns. worth: (n,) of one more of each piece; room: (s,) of one more of each stock, <= 0;
    share: (p,) how often each pattern is cut; least: no pattern is left that could make it cheaper."""

    cost: float
    worth: Floats
    room: Floats
    share: Floats
    least: bool = False


class Chosen(NamedTuple):
    """How often each pattern is cut (p,), how many of each piece are left uncut (n,), whether it is proven least of these."""

    times: Ints
    short: Ints
    proven: bool


class Choice:
    """Patterns of the stocks for what is wanted; patterns are added, wishes change, and the last answer is begun from.

    Args: costs: (s,) of a bar or sheet of each stock; want: (n,); limits: of each stock, None where there are enough;
    dear: (n,) what leaving one of each piece uncut costs.
    """

    def __init__(self, costs: Floats, want: Ints, limits: Sequence[int | None], dear: Floats) -> None:
        import highspy

        self._solver: Any = quiet_solver()
        self._whole_kind = highspy.HighsVarType.kInteger
        self._part_kind = highspy.HighsVarType.kContinuous
        self._optimal = highspy.HighsModelStatus.kOptimal
        self._solution = highspy.HighsSolution
        self.n, self.costs = len(want), costs
        self.patterns: list[tuple[int, ...]] = []
        self.of: list[int] = []
        self._open: list[bool] = []
        self._known: dict[tuple[int, tuple[int, ...]], int] = {}
        self._handed = np.zeros((0, self.n), dtype=np.int64)  # the patterns that the solver has; the rest wait for its next answer
        none = np.array([], dtype=np.int32), np.array([], dtype=np.float64)
        for k in range(self.n):
            self._solver.addRow(float(want[k]), ENDLESS, 0, *none)
        for limit in limits:
            self._solver.addRow(-ENDLESS, ENDLESS if limit is None else float(limit), 0, *none)
        for k in range(self.n):
            self._solver.addCol(float(dear[k]), 0.0, ENDLESS, 1, np.array([k], dtype=np.int32), np.array([1.0]))

    def add(self, stock: int, pattern: Ints) -> bool:
        """A pattern of a stock; False where it is known or gives nothing."""
        key = (stock, tuple(pattern.tolist()))
        if key in self._known or not pattern.any():
            return False
        self._known[key] = len(self.patterns)
        self.patterns.append(key[1])
        self.of.append(stock)
        self._open.append(True)
        return True

    def _hand_over(self) -> None:
        """All patterns that came since its last answer at once: one by one costs as much as the search."""
        first, last = len(self._handed), len(self.patterns)
        if first == last:
            return
        many, fresh, of = last - first, np.array(self.patterns[first:], dtype=np.int64), self.of[first:]
        gives = np.hstack([fresh, np.eye(len(self.costs), dtype=np.int64)[of]])  # pieces, and one of its stock
        column, row = np.nonzero(gives)
        starts, values = np.searchsorted(column, np.arange(many)).astype(np.int32), gives[column, row].astype(np.float64)
        costs = self.costs[of].astype(np.float64)
        self._solver.addCols(many, costs, np.zeros(many), np.full(many, ENDLESS), len(row), starts, row.astype(np.int32), values)
        self._handed = np.concatenate([self._handed, fresh])

    def at(self, stock: int, pattern: Ints) -> int | None:
        """Where a pattern of a stock stands; None where it was never added."""
        return self._known.get((stock, tuple(int(v) for v in pattern)))

    def ask(self, want: Ints, limits: Sequence[int | None]) -> None:
        """Other wishes and other stock; a pattern that gives more of a piece than is wanted is set aside."""
        self._hand_over()
        for k in range(self.n):
            self._solver.changeRowBounds(k, float(want[k]), ENDLESS)
        for k, limit in enumerate(limits):
            self._solver.changeRowBounds(self.n + k, -ENDLESS, ENDLESS if limit is None else float(limit))
        fits: NDArray[np.bool_] = np.all(self._handed <= want, axis=1)
        for k, (fit, was) in enumerate(zip(fits, self._open, strict=True)):
            if fit != was:
                self._solver.changeColBounds(self.n + k, 0.0, ENDLESS if fit else 0.0)
                self._open[k] = bool(fit)

    def relaxed(self) -> Relaxed:
        """Least cost in parts of patterns."""
        self._hand_over()
        self._solver.run()
        answer = self._solver.getSolution()
        duals, values = np.array(answer.row_dual), np.array(answer.col_value)
        return Relaxed(float(self._solver.getInfo().objective_function_value), duals[: self.n], duals[self.n :], values[self.n :])

    def whole(self, begin: Chosen | None = None, nodes: int = 300, most_s: float = 4.0) -> Chosen | None:
        """Least cost in whole patterns, or the best found in so many nodes of the search; None where nothing was.

        Args: begin: an answer that is already known; nodes: the same on any machine, where seconds are not; most_s: a
        belt beside, for what even few nodes would take too long over.
        """
        self._hand_over()
        self._solver.setOptionValue("mip_max_nodes", nodes)
        columns = self.n + len(self.patterns)
        at = np.arange(columns, dtype=np.int32)
        self._solver.changeColsIntegrality(columns, at, np.full(columns, self._whole_kind))
        if begin is not None:
            known = self._solution()
            known.col_value = [float(v) for v in begin.short] + [
                float(v) for v in np.pad(begin.times, (0, len(self.patterns) - len(begin.times)))
            ]
            self._solver.setSolution(known)
        self._solver.setOptionValue("time_limit", self._solver.getRunTime() + most_s)
        self._solver.run()
        values = np.array(self._solver.getSolution().col_value)
        cost = float(self._solver.getInfo().objective_function_value)
        proven = self._solver.getModelStatus() == self._optimal
        self._solver.setOptionValue("time_limit", ENDLESS)
        self._solver.changeColsIntegrality(columns, at, np.full(columns, self._part_kind))
        self._solver.clearSolver()
        if len(values) != columns or not np.isfinite(cost):
            return begin
        counts = np.rint(values).astype(np.int64)
        return Chosen(counts[self.n :], counts[: self.n], proven)
