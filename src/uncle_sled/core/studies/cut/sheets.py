"""Sheets cut edge to edge: several sizes of stock, kerf, trim and grain, at least money, with bound and gap.

Method: patterns of single sheets built up with little loss (`blocks`), chosen as columns of a covering program
(`choose`): the relaxed answer tells what each piece is worth, which picks the next patterns out of thousands of blocks;
then whole sheets by HiGHS. Worst sheets are taken apart and built again with what they held until the bound is reached
or nobody waits any longer. Objective: money of stock (area where a price is not known), then fewest cuts.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

import numpy as np
from numpy.typing import NDArray

from uncle_sled.core.studies.cut.bars import never
from uncle_sled.core.studies.cut.blocks import Blocks, Growing, grown
from uncle_sled.core.studies.cut.choose import HAIR, Choice, Chosen, Floats, Ints
from uncle_sled.core.studies.cut.cover import exact_cover
from uncle_sled.core.studies.cut.cut_tree import Block, Leaf, Placed, Saw, joined, leaves, placed, saw_cuts
from uncle_sled.core.studies.cut.first_fit import Stocked, first_fit
from uncle_sled.core.studies.cut.layouts import Cut, Layout, Lies, SheetPlan, plan_with
from uncle_sled.core.studies.cut.sheet_bounds import area_bound, pairs_bound
from uncle_sled.core.studies.cut.wanted import UNIT_M, Stock, Wanted, costs_of, qty_by_id, units_down, units_up

ROUNDS = 40
NEW_PATTERNS = 60
QUICK_BEAM, WIDE_BEAM = 60, 700
LOSSES = (0.02, 0.06, 0.004, 0.12)
SLACKS = (1.0, 0.0, 2.0, 0.5, 1.5, 0.7)  # of the loss there is to share out
TRIES = 4
NODES = 12
MANY_PIECES = 1500
RARE = 0.02  # of full sheets: a piece in fewer is hard to place
LAST = 3  # sheets that are met exactly


def sheet_plan(
    pieces: Sequence[Wanted], stocks: Sequence[Stock], kerf_m: float = 0.0, trim_m: float = 0.0, enough: Callable[[], bool] = never
) -> SheetPlan:
    """Sheets of one material at least money, parted edge to edge; an outline counts as its box.

    Args: pieces, stocks: of that material and without faults; kerf_m; trim_m: cut off every edge first [m]; enough: asked
    between rounds; True ends the search with what is there.
    """
    job = _Job(pieces, stocks, units_up(kerf_m), trim_m)
    search = _Search(job, enough)
    sheets = search.run()
    left = job.want.copy()
    layouts: list[Layout] = []
    for stock, block in sheets:
        kept = _kept(block, left, job.kerf)
        if kept is not None:
            layouts.append(job.layout(stock, kept if enough() else _tidied(job, stock, kept)))
    cost = None
    if job.priced:
        cost = float(sum(job.prices[stock] for stock, _ in sheets))
    cut = job.want - left
    bound = 0
    if cut.any():
        bound = max(area_bound(job.sizes, cut, job.rooms, job.kerf), pairs_bound(job.sizes, job.turns, cut, job.rooms, job.kerf))
    short = tuple((name, int(left[k])) for k, name in enumerate(job.names) if left[k])
    return plan_with(pieces, layouts, bound, cost, short)


def _tidied(job: _Job, stock: int, block: Block) -> Block:
    """The same pieces on the same sheet with fewer cuts, and of as many cuts the one that leaves the largest offcut."""
    room = job.rooms[stock]
    want = np.bincount([leaf.piece for leaf in leaves(block)], minlength=len(job.want)).astype(np.int64)

    def worth(block: Block) -> tuple[int, float]:
        parts = [(cut.w, cut.h, cut) for cut in saw_cuts(block, int(room[0]), int(room[1]), job.kerf)]
        falls = [(w - cut.fence - job.kerf) * h if cut.along == "x" else w * (h - cut.fence - job.kerf) for w, h, cut in parts]
        return len(parts), -float(max(falls, default=0))

    best, score = block, worth(block)
    long, short = job.sizes.max(axis=1), job.sizes.min(axis=1)
    for key in (job.sizes.prod(axis=1), long, short):
        order = np.argsort(-key, kind="stable")
        for short_first in (True, False):
            made = first_fit(job.sizes, job.turns, want, Stocked(room[None, :], np.ones(1), [1]), job.kerf, order, short_first)
            if len(made) == 1 and sum(1 for _ in leaves(made[0][1])) == int(want.sum()) and worth(made[0][1]) < score:
                best, score = made[0][1], worth(made[0][1])
    return best


def _kept(block: Block, left: Ints, kerf: int) -> Block | None:
    """The block without pieces that are no longer wanted; `left` is what is wanted, and is counted down."""
    if isinstance(block, Leaf):
        if left[block.piece] < 1:
            return None
        left[block.piece] -= 1
        return block
    first, second = _kept(block.first, left, kerf), _kept(block.second, left, kerf)
    if first is None or second is None:
        return second if first is None else first
    return joined(first, second, block.along, kerf)


def _as_it_is(block: Block) -> Block:
    return block


class _Job:
    """Pieces and stock as arrays, the sheet's long side along x."""

    def __init__(self, pieces: Sequence[Wanted], stocks: Sequence[Stock], kerf: int, trim_m: float) -> None:
        want_of = qty_by_id(pieces)
        self.names = tuple(want_of)
        by_id = {piece.id: piece for piece in pieces}
        self.kerf, self.trim_m, self.stocks = kerf, trim_m, stocks
        self.want = np.array(list(want_of.values()), dtype=np.int64)
        laid = []
        for name in self.names:
            piece = by_id[name]
            size = (units_up(piece.length_m), units_up(piece.width_m))
            laid.append(size[::-1] if piece.grain == "across" else size)
        self.sizes = np.array(laid, dtype=np.int64).reshape(-1, 2)
        self.turns = np.array([by_id[name].grain == "any" for name in self.names], dtype=bool)
        self.across = np.array([by_id[name].grain == "across" for name in self.names], dtype=bool)
        rooms = [sorted((units_down(s.length_m - 2 * trim_m), units_down(s.width_m - 2 * trim_m)))[::-1] for s in stocks]
        self.rooms = np.array(rooms, dtype=np.int64).reshape(-1, 2)
        self.priced, counted = costs_of(stocks)
        self.prices = np.array(counted)
        self.limits = [stock.qty for stock in stocks]

    def layout(self, stock: int, block: Block) -> Layout:
        """What was found as the build sees it: metres from the stock's corner, its own length along x."""
        source = self.stocks[stock]
        w, h = (int(v) for v in self.rooms[stock])
        upright = source.width_m > source.length_m  # its long side is its width: what was found is laid over
        lies = tuple(self._lies(task, upright) for task in placed(block, self.kerf))
        cuts = tuple(self._cut(saw, upright) for saw in saw_cuts(block, w, h, self.kerf))
        return Layout(source.id, source.length_m, source.width_m, lies, cuts)

    def _lies(self, placed: Placed, upright: bool) -> Lies:
        x, y, w, h = (v * UNIT_M for v in (placed.x, placed.y, placed.w, placed.h))
        turned = placed.turned != bool(self.across[placed.piece])
        if upright:
            x, y, w, h, turned = y, x, h, w, not turned
        return Lies(self.names[placed.piece], x + self.trim_m, y + self.trim_m, w, h, turned)

    def _cut(self, saw: Saw, upright: bool) -> Cut:
        part = tuple(v * UNIT_M for v in ((saw.y, saw.x, saw.h, saw.w) if upright else (saw.x, saw.y, saw.w, saw.h)))
        along = {"x": "y", "y": "x"}[saw.along] if upright else saw.along
        return Cut(along, saw.fence * UNIT_M, (part[0] + self.trim_m, part[1] + self.trim_m, part[2], part[3]), saw.level)


class _Search:
    """Patterns of sheets until the bound is reached, the rounds are over, or nobody waits any longer."""

    def __init__(self, job: _Job, enough: Callable[[], bool]) -> None:
        self.job, self.enough = job, enough
        self.costs = job.prices + 1e-4 * max(float(job.prices.max(initial=0.0)), 1e-3)
        fits = [
            any(
                (size <= room).all() or (job.turns[k] and (size[::-1] <= room).all())
                for s, room in enumerate(job.rooms)
                if job.limits[s] != 0
            )
            for k, size in enumerate(job.sizes)
        ]
        self.want = np.where(fits, job.want, 0) if fits else job.want
        self.dear = job.sizes.prod(axis=1) / max(float(job.rooms.prod(axis=1).max(initial=1)), 1.0)
        self.dear = (self.dear + 1) * 20 * float(self.costs.max(initial=1.0))
        self.choice = Choice(self.costs, self.want, job.limits, self.dear)
        self.made: list[Callable[[], Block]] = []
        self.rng = np.random.default_rng(20)
        self.liking = np.ones(len(job.want))
        self.best: list[tuple[int, Block]] = []
        self.best_cost = np.inf
        self.short = False

    def run(self) -> list[tuple[int, Block]]:
        job = self.job
        if not self.want.any() or not len(job.rooms):
            return []
        bound = self._least_cost()
        self._at_once(bound)
        if self.best_cost > bound * (1 + 1e-9) and not self.enough():
            self._offer(self._one_by_one(self.want, job.limits, QUICK_BEAM, 0.3))
        for turn in range(ROUNDS):
            if self.best_cost <= bound * (1 + 1e-9) or self.enough():
                break
            if turn != 1 and self._target() > 0:
                self._one_fewer(turn)
            elif turn % 3 == 2:
                self._again(LOSSES[turn % len(LOSSES)])
                self._whole()
            else:
                self._columns(self.want, LOSSES[turn % len(LOSSES)], WIDE_BEAM)
                self._whole()
        return self.best

    def _at_once(self, bound: float) -> None:
        """A plan however little time there is, and better ones by other orders of the pieces, down to the least cost there is."""
        job = self.job
        long, short = job.sizes.max(axis=1), job.sizes.min(axis=1)
        for turn, key in enumerate((job.sizes.prod(axis=1), long, short, long + short)):
            order = np.argsort(-key, kind="stable")
            for short_first in (True, False):
                if self.best and (self.best_cost <= bound * (1 + 1e-9) or self.enough()):
                    return
                self._offer(
                    first_fit(job.sizes, job.turns, self.want, Stocked(job.rooms, self.costs, job.limits), job.kerf, order, short_first)
                )
            if turn and int(self.want.sum()) > MANY_PIECES:
                return

    def _target(self) -> int:
        """With one size of stock: how many sheets would be better than what there is; 0 where that is no question of number."""
        limit = self.job.limits[0]
        if len(self.job.limits) != 1:
            return 0
        if self.short:  # what is there does not hold everything: as many as there are might
            return limit or 0
        return len(self.best) - 1

    def _one_fewer(self, turn: int) -> None:
        """With one size of stock: sheets picked from many blocks by worth, and the last few met exactly.

        What was left over in a try is worth more in the next (sequential value correction, Mukhacheva 2000).
        """
        job, target = self.job, self._target()
        sheet = int((job.rooms[0] + job.kerf).prod())
        size = (job.sizes + job.kerf).prod(axis=1)
        spare_all = target * sheet - int(size @ self.want)
        if spare_all < 0:
            return
        share = max(spare_all / (target * sheet) * SLACKS[turn % len(SLACKS)], 0.0002)
        blocks = self._grown(self.want, 0, share, WIDE_BEAM, self.liking)
        counts = blocks.counts()
        # pieces that few full sheets hold are asked for more loudly when blocks are grown again
        full = counts[sheet - blocks.area <= 1.5 * spare_all / target]
        rare = full.sum(axis=0) < RARE * max(len(full), 1)
        self._ask(rare & (self.want > 0), 0.6)
        for _ in range(TRIES):
            if self.enough():
                return
            picked: list[int] = []
            left, spare = self.want.copy(), spare_all
            while target - len(picked) > LAST:
                lost = sheet - blocks.area
                may = 1.5 * spare / (target - len(picked))
                fits = np.flatnonzero((counts <= left).all(axis=1) & (lost <= may))
                if not len(fits):
                    break
                value = (counts[fits] @ (self.liking * size)) * (1 + 0.05 * self.rng.random(len(fits)))
                at = int(fits[np.argmax(value)])
                picked.append(at)
                left, spare = left - counts[at], spare - int(lost[at])
            many = target - len(picked)
            source = blocks
            found = exact_cover(counts, blocks.area, left, sheet, many, self.rng) if many <= LAST else None
            if found is None:
                loss = max(spare / (many * sheet) * SLACKS[int(self.rng.integers(len(SLACKS)))], 0.0002)
                source = self._grown(left, 0, loss, WIDE_BEAM, self.liking)
                found = self._met(source, left, many)
            if found is not None:
                self._offer([(0, blocks.block(k)) for k in picked] + [(0, source.block(k)) for k in found])
                return
            self._ask(left > 0, 0.3)

    def _ask(self, pieces: NDArray[np.bool_], more: float) -> None:
        """Blocks with these pieces are liked better from now on, the others a little less."""
        self.liking = np.clip(self.liking * (1 + more * pieces * self.rng.random(len(pieces))), 0.2, 5.0)
        self.liking /= self.liking.mean()

    def _met(self, blocks: Blocks, left: Ints, many: int) -> list[int] | None:
        """So many blocks that hold all that is left: the first by worth while there are many, the last few exactly."""
        counts, size = blocks.counts(), (self.job.sizes + self.job.kerf).prod(axis=1)
        sheet = int((self.job.rooms[0] + self.job.kerf).prod())
        picked: list[int] = []
        spare = many * sheet - int(size @ left)
        while many - len(picked) > LAST:
            lost = sheet - blocks.area
            fits = np.flatnonzero((counts <= left).all(axis=1) & (lost <= 2 * spare / (many - len(picked))))
            if not len(fits):
                return None
            at = int(fits[np.argmax((counts[fits] @ (self.liking * size)) * (1 + 0.05 * self.rng.random(len(fits))))])
            picked.append(at)
            left, spare = left - counts[at], spare - int(lost[at])
        found = exact_cover(counts, blocks.area, left, sheet, many - len(picked), self.rng)
        return None if found is None else picked + found

    def _least_cost(self) -> float:
        """No plan that cuts everything costs less: by area at the best price of area, and by sheets where there is one size."""
        job = self.job
        need = float(((job.sizes + job.kerf).prod(axis=1) * self.want).sum())
        bound = need * float((self.costs / (job.rooms + job.kerf).prod(axis=1)).min())
        if len(self.costs) == 1:
            sheets = max(
                area_bound(job.sizes, self.want, job.rooms, job.kerf), pairs_bound(job.sizes, job.turns, self.want, job.rooms, job.kerf)
            )
            bound = max(bound, sheets * float(self.costs[0]))
        return bound

    def _grown(self, want: Ints, stock: int, loss: float, beam: int, worth: Floats | None = None) -> Blocks:
        room = self.job.rooms[stock]
        sheet = (int(room[0]), int(room[1]))
        job = self.job
        return grown(job.sizes, job.turns, want, Growing(sheet, job.kerf, loss, beam), self.rng, self.enough, worth)

    def _one_by_one(self, want: Ints, limits: Sequence[int | None], beam: int, loss: float) -> list[tuple[int, Block]]:
        """Sheet after sheet, each the fullest for its money that is found, large pieces counting for more."""
        left, limits = want.copy(), list(limits)
        out: list[tuple[int, Block]] = []
        size = self.job.sizes.prod(axis=1).astype(float)
        worth = size**1.1
        while left.any():
            best: tuple[float, int, Block] | None = None
            for stock, limit in enumerate(limits):
                if limit == 0:
                    continue
                blocks = self._grown(left, stock, loss, beam)
                if self.enough():
                    return []  # half-grown blocks are worth nothing; there is a plan already
                if not len(blocks):
                    continue
                value = (blocks.counts() @ worth) / float(self.costs[stock])
                at = int(np.argmax(value))
                if best is None or value[at] > best[0]:
                    best = (float(value[at]), stock, blocks.block(at))
            if best is None:
                break
            _, stock, block = best
            given = np.bincount([leaf.piece for leaf in leaves(block)], minlength=len(left))
            times = int((left[given > 0] // given[given > 0]).min())
            limit = limits[stock]
            if limit is not None:
                times = min(times, limit)
                limits[stock] = limit - times
            left = left - times * given
            out += [(stock, block)] * times
            self._add(stock, given, partial(_as_it_is, block))
        return out

    def _add(self, stock: int, pattern: Ints, made: Callable[[], Block]) -> bool:
        if self.choice.add(stock, pattern):
            self.made.append(made)
            return True
        return False

    def _columns(self, want: Ints, loss: float, beam: int) -> None:
        """Blocks that are worth more than their sheet go into the program, until none is."""
        kept: list[tuple[int, Blocks, Floats]] = []
        for stock, limit in enumerate(self.job.limits):
            if limit != 0 and not self.enough():
                blocks = self._grown(want, stock, loss, beam)
                if len(blocks):
                    kept.append((stock, blocks, blocks.counts().astype(float)))
        self.choice.ask(self.want, self.job.limits)
        for _ in range(60):
            now = self.choice.relaxed()
            added = False
            for stock, blocks, counts in kept:
                gain = counts @ now.worth + now.room[stock] - self.costs[stock]
                for at in np.argsort(-gain, kind="stable")[:NEW_PATTERNS]:
                    if gain[at] <= HAIR * (1 + self.costs[stock]):
                        break
                    k = int(at)
                    pattern = counts[k].astype(np.int64)
                    added |= self._add(stock, pattern, partial(blocks.block, k))
            if not added or self.enough():
                break
        # near misses too: whole sheets are not made of what is best in parts alone
        for stock, blocks, counts in kept:
            fill = blocks.area / float((self.job.rooms[stock] + self.job.kerf).prod())
            for at in np.argsort(-fill, kind="stable")[: 2 * NEW_PATTERNS]:
                k = int(at)
                self._add(stock, counts[k].astype(np.int64), partial(blocks.block, k))

    def _whole(self) -> None:
        begin = None
        if self.best:
            times, short = np.zeros(len(self.made), dtype=np.int64), self.want.copy()
            for stock, block in self.best:
                given = np.bincount([leaf.piece for leaf in leaves(block)], minlength=len(self.want))
                at = self.choice.at(stock, given)
                if at is None:
                    break
                times[at] += 1
                short = np.maximum(short - given, 0)
            else:
                begin = Chosen(times, short, proven=False)
        best = self.choice.whole(begin, NODES)
        if best is None:
            return
        sheets = []
        for k in np.flatnonzero(best.times):
            sheets += [(self.choice.of[k], self.made[k]())] * int(best.times[k])
        self._offer(sheets)

    def _again(self, loss: float) -> None:
        """Some sheets of the best, the emptiest among them, are taken apart, and what they held is laid again."""
        if len(self.best) < 2:
            return
        fill = [sum(leaf.w * leaf.h for leaf in leaves(block)) / float(self.job.rooms[stock].prod()) for stock, block in self.best]
        order = np.argsort(np.array(fill) + 0.08 * self.rng.random(len(fill)), kind="stable")
        many = min(len(order), 2 + int(self.rng.integers(0, 3)))
        left = self.want.copy()
        for at in order[many:]:
            left -= np.bincount([leaf.piece for leaf in leaves(self.best[at][1])], minlength=len(left))
        left = np.maximum(left, 0)
        self._columns(left, max(loss, 0.03), WIDE_BEAM)

    def _offer(self, sheets: list[tuple[int, Block]]) -> None:
        """Keep sheets if they are better than what is kept."""
        left = self.want.copy()
        used = []
        for stock, block in sheets:
            kept = _kept(block, left, self.job.kerf)
            if kept is not None:
                used.append((stock, kept))
        cost = float(sum(self.costs[stock] for stock, _ in used) + self.dear @ left)
        if cost < self.best_cost - 1e-9:
            self.best, self.best_cost, self.short = used, cost, bool(left.any())
            for stock, block in used:
                given = np.bincount([leaf.piece for leaf in leaves(block)], minlength=len(left))
                self._add(stock, given, partial(_as_it_is, block))
