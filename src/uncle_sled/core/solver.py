"""The one solver of linear programs with whole numbers: HiGHS, quiet, on one core and with one seed, so that it answers alike.

Source: HiGHS (Huangfu and Hall 2018). It is loaded when it is first asked: the first reading does not wait for it.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import msgspec
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Line = tuple[dict[int, float], float, float]  # what stands in a row by its column, and between what it lies


def quiet_solver() -> Any:
    """A solver that says nothing and answers the same everywhere."""
    import highspy

    class Quiet(highspy.Highs):  # type: ignore[misc]
        """WORKAROUND: highspy 1.16 prints its name where it begins to listen for callbacks; none are wanted here."""

        def enableCallbacks(self) -> None:
            """Asked for by the library; nothing is told."""

    solver: Any = Quiet()  # type: ignore[no-untyped-call]
    for option, value in (("log_to_console", False), ("output_flag", False), ("threads", 1), ("random_seed", 1), ("mip_rel_gap", 1e-9)):
        solver.setOptionValue(option, value)
    return solver


class Rows:
    """Rows of a program as they are added one after another: which columns, how much of each, and between what their sum lies."""

    def __init__(self) -> None:
        self.start: list[int] = [0]
        self.index: list[NDArray[np.int32]] = []
        self.value: list[Floats] = []
        self.low: list[float] = []
        self.high: list[float] = []

    def add(self, columns: Any, values: Any, low: float, high: float) -> None:
        """One row. Args: columns, values: (k,) each, or one value for all columns; low, high: infinity where there is no bound."""
        at = np.asarray(columns, dtype=np.int32)
        self.index.append(at)
        self.value.append(np.broadcast_to(np.asarray(values, dtype=float), at.shape))
        self.start.append(self.start[-1] + len(at))
        self.low.append(float(low))
        self.high.append(float(high))

    def joined(self, other: Rows) -> Rows:
        """These and those of another, as new rows."""
        made = Rows()
        made.start = self.start + [self.start[-1] + at for at in other.start[1:]]
        made.index, made.value = self.index + other.index, self.value + other.value
        made.low, made.high = self.low + other.low, self.high + other.high
        return made


class Solved(msgspec.Struct, frozen=True):
    """What a program has: the values found, (n,), or None; the least that any values could cost; whether it is proved that there are none."""

    values: Floats | None
    bound: float
    none: bool


def solved(cost: Floats, rows: Rows, top: Floats, whole: NDArray[np.bool_], nodes: int, gap: float = 1e-9) -> Solved:
    """Values from 0 up that cost least.

    Args: cost, top, whole: of each value, (n,): its price, the most it may be, whether it is a whole number; nodes: of the
    search tree, a bound that is the same on every machine; gap: the share by which the values may cost more than the least.
    """
    import highspy

    solver, n = quiet_solver(), len(cost)
    solver.setOptionValue("mip_max_nodes", nodes)
    solver.setOptionValue("mip_rel_gap", gap)
    program = highspy.HighsLp()
    program.num_col_, program.num_row_ = n, len(rows.low)
    program.col_cost_, program.col_lower_, program.col_upper_ = cost, np.zeros(n), top
    program.row_lower_, program.row_upper_ = np.array(rows.low), np.array(rows.high)
    program.a_matrix_.format_ = highspy.MatrixFormat.kRowwise
    program.a_matrix_.start_ = np.array(rows.start, dtype=np.int32)
    program.a_matrix_.index_ = np.concatenate(rows.index) if rows.index else np.array([], dtype=np.int32)
    program.a_matrix_.value_ = np.concatenate(rows.value) if rows.value else np.array([], dtype=float)
    program.integrality_ = [highspy.HighsVarType.kInteger if each else highspy.HighsVarType.kContinuous for each in whole]
    solver.passModel(program)
    solver.run()
    info = solver.getInfo()
    found = np.array(solver.getSolution().col_value)
    feasible = info.primal_solution_status == highspy.SolutionStatus.kSolutionStatusFeasible and len(found) == n
    none = solver.getModelStatus() in (highspy.HighsModelStatus.kInfeasible, highspy.HighsModelStatus.kUnboundedOrInfeasible)
    bound = info.mip_dual_bound if whole.any() else info.objective_function_value
    return Solved(found if feasible else None, float(bound), none)


def least(cost: Floats, lines: Sequence[Line], top: Floats, whole: NDArray[np.bool_], nodes: int) -> Floats | None:
    """Values from 0 up that cost least, (n,).

    Args: cost, top, whole: of each value, (n,): its price, the most it may be, whether it is a whole number; lines: each a
    sum of values that lies between two bounds (infinity where there is none, never a large number); nodes: of the search tree, a bound that is the same on every machine.
    Returns: None where nothing was found.
    """
    rows = Rows()
    for line, low, high in lines:
        rows.add(list(line), list(line.values()), low, high)
    return solved(cost, rows, top, whole, nodes).values
