"""A first plan at once: piece after piece into the part of a sheet that it fills best, each part sawn edge to edge.

Method: guillotine best-area fit with the shorter leftover parted first (Jylanki 2010), over a few orders of the pieces.
Never far off and never late, it is what better plans are measured against.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.studies.cut.choose import Floats, Ints
from uncle_sled.core.studies.cut.cut_tree import Block, Leaf, joined

OPEN = 160  # parts that are looked through: the last ones, so that a long list stays quick


class _Part:
    """A part of a sheet: still free, or holding a piece in its corner and two smaller parts."""

    def __init__(self, w: int, h: int) -> None:
        self.w, self.h = w, h
        self.leaf: Leaf | None = None
        self.beside: _Part | None = None
        self.above: _Part | None = None
        self.upright = False

    def fill(self, leaf: Leaf, kerf: int, short_first: bool) -> list[_Part]:
        self.leaf = leaf
        right, up = self.w - leaf.w - kerf, self.h - leaf.h - kerf
        self.upright = (right > up) == short_first  # the first cut runs along y over the whole height
        self.beside = _Part(right, self.h if self.upright else leaf.h)
        self.above = _Part(leaf.w if self.upright else self.w, up)
        return [part for part in (self.beside, self.above) if part.w > 0 and part.h > 0]

    def block(self, kerf: int) -> Block | None:
        if self.leaf is None:
            return None
        block: Block = self.leaf
        order = ((self.above, "y"), (self.beside, "x")) if self.upright else ((self.beside, "x"), (self.above, "y"))
        for part, along in order:
            other = part.block(kerf) if part is not None else None
            if other is not None:
                block = joined(block, other, along, kerf)
        return block


class Stocked(NamedTuple):
    """Sheets that there are. rooms: (s, 2) usable sizes; costs: (s,); limits: how many of each, None where there are enough."""

    rooms: Ints
    costs: Floats
    limits: Sequence[int | None]


def first_fit(
    sizes: Ints, turns: NDArray[np.bool_], want: Ints, from_: Stocked, kerf: int, order: Ints, short_first: bool
) -> list[tuple[int, Block]]:
    """Sheets as (stock, block). Args: as in `blocks`; order: pieces, the first first."""
    rooms, costs, limits = from_
    left = list(limits)
    by_price = sorted(range(len(rooms)), key=lambda s: float(costs[s]) / max(float(rooms[s].prod()), 1.0))
    sheets: list[tuple[int, _Part]] = []
    free: list[_Part] = []
    for k in order:
        a, b = int(sizes[k, 0]), int(sizes[k, 1])
        ways = [(a, b, False)] + ([(b, a, True)] if turns[k] and a != b else [])
        for _ in range(int(want[k])):
            best = _best(free[-OPEN:], ways)
            if best is None:
                stock = next((s for s in by_price if left[s] != 0 and _fits(rooms[s], ways)), None)
                if stock is None:
                    break
                limit = left[stock]
                left[stock] = None if limit is None else limit - 1
                part = _Part(int(rooms[stock, 0]), int(rooms[stock, 1]))
                sheets.append((stock, part))
                free.append(part)
                best = _best([part], ways)
                assert best is not None
            part, (w, h, turned) = best
            free.remove(part)
            free += part.fill(Leaf(int(k), w, h, turned), kerf, short_first)
    made = [(stock, part.block(kerf)) for stock, part in sheets]
    return [(stock, block) for stock, block in made if block is not None]


def _fits(room: Ints, ways: list[tuple[int, int, bool]]) -> bool:
    return any(w <= room[0] and h <= room[1] for w, h, _ in ways)


def _best(free: list[_Part], ways: list[tuple[int, int, bool]]) -> tuple[_Part, tuple[int, int, bool]] | None:
    """The smallest free part that holds a piece, laid so that the narrower strip beside it is narrowest."""
    found: tuple[tuple[int, int], _Part, tuple[int, int, bool]] | None = None
    for part in free:
        for way in ways:
            if way[0] <= part.w and way[1] <= part.h:
                key = (part.w * part.h, min(part.w - way[0], part.h - way[1]))
                if found is None or key < found[0]:
                    found = (key, part, way)
    return None if found is None else found[1:]
