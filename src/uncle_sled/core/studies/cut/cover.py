"""Do so many of these blocks hold exactly what is left? Sums of keys met in the middle, up to four sheets at once.

Every block's pieces are one number, a sum of random keys; so are those of two blocks. What completes them is looked up in
the sorted numbers, and counted through, as two different sums might agree by chance.
"""

from __future__ import annotations

import numpy as np

from uncle_sled.core.studies.cut.choose import Ints

MOST_PAIRS = 1_200_000


def exact_cover(counts: Ints, area: Ints, left: Ints, sheet_area: int, many: int, rng: np.random.Generator) -> list[int] | None:
    """Rows of `counts` (m, n) whose sum is `left` (n,), `many` of them (1 to 4); None where none were found.

    Args: area: (m,) of the blocks' pieces; sheet_area: the most one sheet holds, in the same unit.
    """
    need = _need(counts, area)
    least = int(left @ need) - (many - 1) * sheet_area
    rows = np.flatnonzero((counts <= left).all(axis=1) & (area >= least))
    rows = rows[np.argsort(-area[rows], kind="stable")]
    if not len(rows):
        return None
    keys = rng.integers(1, 2**63 - 1, size=counts.shape[1]).astype(np.uint64)
    key = (counts[rows].astype(np.uint64) * keys).sum(axis=1, dtype=np.uint64)
    goal = (left.astype(np.uint64) * keys).sum(dtype=np.uint64)
    singles = [np.arange(len(rows))[:, None]]
    one = (key, singles[0])
    if many == 1:
        return _met((key * np.uint64(0), np.zeros((len(rows), 0), dtype=np.int64)), one, goal, rows, counts, left)
    if many == 2:
        return _met(one, one, goal, rows, counts, left)
    i, j = np.triu_indices(min(len(rows), int((2 * MOST_PAIRS) ** 0.5)))  # of the fullest; a third may be any
    fits = ((counts[rows[i]] + counts[rows[j]]) <= left).all(axis=1) if len(i) * counts.shape[1] < 4e7 else np.ones(len(i), bool)
    fits &= area[rows[i]] + area[rows[j]] >= int(left @ need) - (many - 2) * sheet_area
    i, j = i[fits], j[fits]
    two = (key[i] + key[j], np.stack([i, j], axis=1))
    return _met(two, one if many == 3 else two, goal, rows, counts, left)


def _need(counts: Ints, area: Ints) -> Ints:
    """Area of one of each piece, from blocks of one piece alone."""
    need = np.zeros(counts.shape[1], dtype=np.int64)
    alone = np.flatnonzero(counts.sum(axis=1) == 1)
    need[counts[alone].argmax(axis=1)] = area[alone]
    return need


def _met(
    some: tuple[np.ndarray, Ints], others: tuple[np.ndarray, Ints], goal: np.uint64, rows: Ints, counts: Ints, left: Ints
) -> list[int] | None:
    if not len(some[0]) or not len(others[0]):
        return None
    order = np.argsort(others[0], kind="stable")
    wanted = goal - some[0]
    at = np.searchsorted(others[0][order], wanted)
    at[at == len(order)] = 0
    for k in np.flatnonzero(others[0][order][at] == wanted):
        found = [int(rows[v]) for v in (*some[1][k], *others[1][order[at[k]]])]
        if (counts[found].sum(axis=0) == left).all():
            return found
    return None
