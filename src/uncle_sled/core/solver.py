"""The one solver of linear programs with whole numbers: HiGHS, quiet, on one core and with one seed, so that it answers alike.

Source: HiGHS (Huangfu and Hall 2018). It is loaded when it is first asked: the first reading does not wait for it.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

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


def least(cost: Floats, lines: Sequence[Line], top: Floats, whole: NDArray[np.bool_], nodes: int) -> Floats | None:
    """Values from 0 up that cost least, (n,).

    Args: cost, top, whole: of each value, (n,): its price, the most it may be, whether it is a whole number; lines: each a
    sum of values that lies between two bounds (infinity where there is none, never a large number); nodes: of the search tree, a bound that is the same on every machine.
    Returns: None where nothing was found.
    """
    import highspy

    solver, n = quiet_solver(), len(cost)
    solver.setOptionValue("mip_max_nodes", nodes)
    none = np.array([], dtype=np.int32), np.array([], dtype=np.float64)
    for price, most in zip(cost, top, strict=True):
        solver.addCol(float(price), 0.0, float(most), 0, *none)
    for line, low, high in lines:
        columns = np.fromiter(line, dtype=np.int32, count=len(line))
        solver.addRow(float(low), float(high), len(line), columns, np.fromiter(line.values(), dtype=np.float64, count=len(line)))
    at = np.flatnonzero(whole).astype(np.int32)
    if len(at):
        solver.changeColsIntegrality(len(at), at, np.full(len(at), highspy.HighsVarType.kInteger))
    solver.run()
    found = np.array(solver.getSolution().col_value)
    infeasible = solver.getInfo().primal_solution_status != highspy.SolutionStatus.kSolutionStatusFeasible
    return None if infeasible or len(found) != n else found
