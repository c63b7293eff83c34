"""Blocks of pieces that a saw parts edge to edge, built up from pieces by joining what loses little.

Method: joining upwards (Wang 1983) with a limit on loss and a beam, over arrays: how many of each piece a block holds
stands in bit fields of a few 64-bit words, so that a million pairs are tried at once. Sizes are those of a grid in which
every piece carries its kerf, and the sheet too; then joined sizes simply add.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.studies.cut.cut_tree import Block, Leaf, joined

Ints = NDArray[np.int64]
Words = NDArray[np.uint64]


class Fields:
    """Counts of pieces packed into words: a field for each piece wide enough for twice what is wanted."""

    def __init__(self, want: Ints) -> None:
        self.want = want
        self.word: list[int] = []
        self.shift: list[int] = []
        word = used = 0
        for count in want:
            bits = int(count).bit_length() + 1
            if used + bits > 64:
                word, used = word + 1, 0
            self.word.append(word)
            self.shift.append(used)
            used += bits
        self.words = word + 1
        self.full = np.zeros(self.words, dtype=np.uint64)
        self.guard = np.zeros(self.words, dtype=np.uint64)
        for k, count in enumerate(want):
            guard = np.uint64(1) << np.uint64(self.shift[k] + int(count).bit_length())
            self.guard[self.word[k]] |= guard
            self.full[self.word[k]] |= guard | np.uint64(int(count) << self.shift[k])

    def one(self, piece: int) -> Words:
        """A block of one piece alone."""
        field = np.zeros(self.words, dtype=np.uint64)
        field[self.word[piece]] = np.uint64(1) << np.uint64(self.shift[piece])
        return field

    def counts(self, fields: Words) -> Ints:
        """(m, words) as (m, pieces)."""
        out = np.zeros((len(fields), len(self.want)), dtype=np.int64)
        for k, count in enumerate(self.want):
            mask = np.uint64((1 << int(count).bit_length()) - 1)
            out[:, k] = (fields[:, self.word[k]] >> np.uint64(self.shift[k])) & mask
        return out


class Blocks:
    """Blocks of one sheet size, the least loss first."""

    def __init__(self, w: Ints, h: Ints, area: Ints, fields: Words, made: Callable[[int], Block], names: Fields) -> None:
        self.w, self.h, self.area, self.fields, self._made, self.names = w, h, area, fields, made, names

    def __len__(self) -> int:
        return len(self.w)

    def counts(self) -> Ints:
        """How many of every piece each block holds, shape (blocks, pieces)."""
        return self.names.counts(self.fields)

    def block(self, at: int) -> Block:
        """One of them as a tree of cuts."""
        return self._made(at)


class Growing(NamedTuple):
    """What blocks grow on. sheet: usable sizes; kerf; both in one unit. loss: share of the sheet that a block may lose inside.

    beam: how many are carried on.
    """

    sheet: tuple[int, int]
    kerf: int
    loss: float
    beam: int


def grown(
    sizes: Ints,
    turns: NDArray[np.bool_],
    want: Ints,
    on: Growing,
    rng: np.random.Generator,
    enough: Callable[[], bool],
    worth: NDArray[np.float64] | None = None,
) -> Blocks:
    """Blocks that fit a sheet and lose no more than a share of it.

    Args: sizes: (n, 2) along x and y as first laid; turns: (n,) may be turned; want: (n,) how many of each.
    rng: gives ties their order. enough: True ends it; worth: (n,) which pieces blocks are wanted with, 1 for an ordinary one.
    """
    sheet, kerf, loss, beam = on
    width, height = sheet[0] + kerf, sheet[1] + kerf
    fields = Fields(want)
    w: list[int] = []
    h: list[int] = []
    area: list[int] = []
    held: list[Words] = []
    parents: list[tuple[int, int, int]] = []  # (-1 or -2, piece, 0) for a piece; (first, second, axis) for a join
    for k in range(len(want)):
        if want[k] < 1:
            continue
        laid = [(int(sizes[k, 0]), int(sizes[k, 1]), -1)]
        if turns[k] and sizes[k, 0] != sizes[k, 1]:
            laid.append((int(sizes[k, 1]), int(sizes[k, 0]), -2))
        for x, y, turned in laid:
            if x + kerf <= width and y + kerf <= height:
                w.append(x + kerf)
                h.append(y + kerf)
                area.append((x + kerf) * (y + kerf))
                held.append(fields.one(k))
                parents.append((turned, k, 0))
    if not w:
        empty = np.zeros(0, dtype=np.int64)
        return Blocks(empty, empty, empty, np.zeros((0, fields.words), dtype=np.uint64), lambda _at: Leaf(0, 0, 0, turned=False), fields)
    most_loss = loss * width * height
    W, H, A = (np.array(one, dtype=np.int64) for one in (w, h, area))
    F = np.array(held, dtype=np.uint64)
    origin = np.array(parents, dtype=np.int64)
    salt = rng.integers(1, 2**61, size=fields.words, dtype=np.uint64) | np.uint64(1)
    known = np.zeros(0, dtype=np.uint64)
    fresh = np.arange(len(W))
    liking = np.ones(len(want)) if worth is None else worth
    V = A * liking[[k for _, k, _ in parents]]
    for _ in range(24):
        if not len(fresh) or enough():
            break
        found = [_joins((W, H, A, F), fresh, axis, (width, height), most_loss, fields) for axis in (0, 1)]
        i, j, axis, nw, nh, na = (np.concatenate([f[k] for f in found]) for k in range(6))
        if not len(i):
            break
        nf = F[i] + F[j]
        mixed = (nf * salt).sum(axis=1, dtype=np.uint64) ^ (nw.astype(np.uint64) << np.uint64(21)) ^ nh.astype(np.uint64)
        _, first = np.unique(mixed, return_index=True)
        new = first[~np.isin(mixed[first], known)]
        if not len(new):
            break
        lost = nw[new] * nh[new] - na[new]
        gain = V[i[new]] + V[j[new]]
        score = (lost + 0.02 * loss * na[new] * rng.random(len(new))) / gain - 1e-3 * gain / na[new]
        keep = new[np.argsort(score, kind="stable")[:beam]]
        known = np.concatenate([known, mixed[keep]])
        fresh = np.arange(len(W), len(W) + len(keep))
        W, H, A = (np.concatenate([old, point[keep]]) for old, point in ((W, nw), (H, nh), (A, na)))
        F, V = np.concatenate([F, nf[keep]]), np.concatenate([V, V[i[keep]] + V[j[keep]]])
        origin = np.concatenate([origin, np.stack([i[keep], j[keep], axis[keep]], axis=1)])

    def made(at: int) -> Block:
        first, second, along = (int(v) for v in origin[at])
        if first < 0:
            turned = first == -2
            x, y = (int(v) for v in (sizes[second, ::-1] if turned else sizes[second]))
            return Leaf(second, x, y, turned)
        return joined(made(first), made(second), "xy"[along], kerf)

    return Blocks(W, H, A, F, made, fields)


def _joins(
    made: tuple[Ints, Ints, Ints, Words], fresh: Ints, axis: int, size: tuple[int, int], most_loss: float, fields: Fields
) -> tuple[Ints, ...]:
    """Pairs with at least one of the fresh blocks that fit the sheet beside (0) or above (1) each other and lose little."""
    (W, H, A, F), (width, height) = made, size
    # singles first: half the memory to pass over, a little generous; what they let through is tried exactly
    w, h, area = (point.astype(np.float32) for point in (W, H, A))
    along, across, most = (w, h, np.float32(width)) if axis == 0 else (h, w, np.float32(height))
    order = np.argsort(along, kind="stable")
    sorted_along = along[order]
    out: list[list[Ints]] = [[] for _ in range(6)]
    step = max(1, 1_000_000 // len(W))
    rows_by_size = fresh[np.argsort(-along[fresh], kind="stable")]
    for begin in range(0, len(rows_by_size), step):
        rows = rows_by_size[begin : begin + step]
        reach = int(np.searchsorted(sorted_along, most - along[rows[-1]], side="right"))
        columns = order[:reach]  # longer ones pass the sheet with every row of these
        high = np.maximum(across[rows, None], across[None, columns])
        loss = along[rows, None] + along[None, columns]
        fits = loss <= most
        loss *= high
        loss -= area[rows, None]
        loss -= area[None, columns]
        fits &= loss <= most_loss + 1e-6 * width * height
        a, b = np.nonzero(fits)
        i, j = rows[a], columns[b]
        once = (j < fresh[0]) | (j <= i)
        i, j = i[once], j[once]
        nw, nh = (W[i] + W[j], np.maximum(H[i], H[j])) if axis == 0 else (np.maximum(W[i], W[j]), H[i] + H[j])
        na = A[i] + A[j]
        room = (nw <= width) & (nh <= height) & (nw * nh - na <= most_loss)
        for k in range(fields.words):
            room &= ((fields.full[k] - (F[i, k] + F[j, k])) & fields.guard[k]) == fields.guard[k]
        for at, one in enumerate((i, j, np.full(len(i), axis), nw, nh, na)):
            out[at].append(one[room])
    return tuple(np.concatenate(one) if one else np.zeros(0, dtype=np.int64) for one in out)
