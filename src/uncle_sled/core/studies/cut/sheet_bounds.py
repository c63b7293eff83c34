"""The least number of sheets there can be: by area with kerf, and by pieces of which no two share a sheet.

Source: shop notes; the area of a piece with its kerf against the sheet's with one kerf more is exact for edge-to-edge and
free layouts alike. Check: five of 1,300 x 700 on 2,440 x 1,220: by area 2, by pairs 5.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]


def area_bound(sizes: Ints, want: Ints, sheets: Ints, kerf: int) -> int:
    """Sheets at least by area. Args: sizes: (n, 2); want: (n,); sheets: (s, 2) usable; one unit."""
    need = int(((sizes + kerf).prod(axis=1) * want).sum())
    most = int((sheets + kerf).prod(axis=1).max(initial=0))
    return -(-need // most) if most else 0


def pairs_bound(sizes: Ints, turns: NDArray[np.bool_], want: Ints, sheets: Ints, kerf: int) -> int:
    """Sheets at least because pieces fit none two together: the best of greedy sets from each piece, so maybe too low."""
    n = len(sizes)
    laid = [[(int(w), int(h))] + ([(int(h), int(w))] if turns[k] and w != h else []) for k, (w, h) in enumerate(sizes)]
    apart = np.zeros((n, n), dtype=bool)
    for i in range(n):
        for j in range(i, n):
            apart[i, j] = apart[j, i] = not _together(laid[i], laid[j], sheets, kerf)
    order = np.argsort(-sizes.prod(axis=1), kind="stable")
    best = 0
    for first in order:
        if not want[first]:
            continue
        chosen = [first]
        for k in order:
            if k != first and want[k] and apart[k, chosen].all():
                chosen.append(k)
        best = max(best, sum(int(want[k]) if apart[k, k] else 1 for k in chosen))
    return best


def _together(one: list[tuple[int, int]], other: list[tuple[int, int]], sheets: Ints, kerf: int) -> bool:
    for w, h in one:
        for x, y in other:
            for width, height in sheets:
                if w + kerf + x <= width and max(h, y) <= height:
                    return True
                if h + kerf + y <= height and max(w, x) <= width:
                    return True
    return False
