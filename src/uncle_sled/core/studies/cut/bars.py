"""Bars: several lengths of stock, kerf, boards of the rack, at least money, with the bound that says how good it is.

Method: column generation (Gilmore and Gomory 1961, 1963): HiGHS prices the patterns, an exact knapsack over the length
finds a better one until there is none; then whole patterns by rounding down and pricing again. Where those do not reach
the bound, the cheapest numbers of bars that may be enough raise it and are cut from (`bar_counts`); then HiGHS. A row of n pieces needs n - 1 kerfs, as both ends of stock
are taken for square (one more cut, given as trim, where they are not). Check: shop notes, 73 bars of 5,600.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import msgspec
import numpy as np

from uncle_sled.core.studies.cut.bar_counts import Counts, Line
from uncle_sled.core.studies.cut.choose import HAIR, Choice, Chosen, Floats, Ints, Relaxed
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, costs_of, qty_by_id, units_down, units_up

A_QUESTION = 8  # rounds of pricing, which are much quicker than those of sheets
ROUNDS = 400  # of pricing: more than any list of a build has needed
MOST_CELLS = 40_000  # of the knapsack's length
NODES = 8
ROUGH_CELLS = 1500
MOST_COINS = 200_000  # of the bound by length alone
DIVES = (0.999, 0.6)
MOST_TRIES = 12  # numbers of bars for which a plan is sought


class BarPattern(msgspec.Struct, frozen=True):
    """One way to cut a bar and how often. pieces: ids, longest first, so that a stop is moved inwards only.

    overlaps: (which piece, by how much [m]) lies with its slanted end into the one before it.
    """

    stock: str
    times: int
    pieces: tuple[str, ...]
    left_m: float
    overlaps: tuple[tuple[int, float], ...] = ()


class BarPlan(msgspec.Struct, frozen=True):
    """Bars of one material. used: bars taken from stock; bound: the least number there can be; gap: used less bound.

    cost: None where some stock has no price (then the least length is sought); cost_bound: the least it can be.
    over: by what share of it what was sought, money or length, may lie over the least there can be; 0: proven least.
    tied: slanted ends lie into each other by pairs; the bound is that of these pairs then.
    """

    material: str
    patterns: tuple[BarPattern, ...]
    used: int
    bound: int
    cost: float | None
    cost_bound: float | None
    waste_share: float
    over: float
    unplaced: tuple[tuple[str, int], ...]
    tied: bool = False

    @property
    def gap(self) -> int:
        """How many bars lie between it and the least there can be."""
        return self.used - self.bound


def never() -> bool:
    """Nobody has had enough: the search ends by itself."""
    return False


def bar_plan(
    pieces: Sequence[Wanted], stocks: Sequence[Stock], kerf_m: float = 0.0, trim_m: float = 0.0, enough: Callable[[], bool] = never
) -> BarPlan:
    """Bars of one material at least money (least length where a price is not known).

    Args: pieces, stocks: of that material and without faults; kerf_m, trim_m: of the saw, and at each end of stock [m];
    enough: asked between rounds; True ends the search with what is there.
    """
    want_of = qty_by_id(pieces)
    long_of = {piece.id: piece.length_m for piece in pieces}
    order = sorted(want_of, key=lambda name: -long_of[name])
    kerf = units_up(kerf_m)
    lengths = np.array([units_up(long_of[name]) + kerf for name in order], dtype=np.int64)
    rooms = np.array([units_down(s.length_m - 2 * trim_m) + kerf for s in stocks], dtype=np.int64)
    want = np.array([want_of[name] for name in order], dtype=np.int64)
    priced, counted = costs_of(stocks)
    costs = np.round(np.array(counted), 4)
    if not costs.any():
        costs = costs + 1.0  # all of it is there: as few as can be
    limits = [stock.qty for stock in stocks]
    search = _Search(lengths, rooms, want, costs, limits, enough)
    plan = search.run()
    patterns: list[BarPattern] = []
    left = want.copy()
    for row in sorted(np.flatnonzero(plan.times).tolist(), key=lambda k: tuple(-plan.patterns[k])):
        for _ in range(int(plan.times[row])):
            give = np.minimum(plan.patterns[row], left)
            if not give.any():
                continue
            left -= give
            stock = stocks[int(plan.of[row])]
            cut = tuple(order[k] for k in range(len(order)) for _ in range(int(give[k])))
            over = stock.length_m - 2 * trim_m - sum(long_of[name] for name in cut) - kerf_m * (len(cut) - 1)
            last = patterns[-1] if patterns else None
            if last is not None and (last.stock, last.pieces) == (stock.id, cut):
                patterns[-1] = msgspec.structs.replace(last, times=last.times + 1)
            else:
                patterns.append(BarPattern(stock.id, 1, cut, max(over, 0.0)))
    by_id = {stock.id: stock for stock in stocks}
    used = sum(p.times for p in patterns)
    metres = sum(p.times * by_id[p.stock].length_m for p in patterns)
    placed = sum(p.times * sum(long_of[name] for name in p.pieces) for p in patterns)
    cost_of = {stock.id: float(cost) for stock, cost in zip(stocks, costs, strict=True)}
    price = sum(p.times * (by_id[p.stock].price or 0.0) for p in patterns) if priced else None
    return BarPlan(
        pieces[0].material if pieces else "",
        tuple(patterns),
        used=used,
        bound=min(plan.least_count, used),
        cost=price,
        cost_bound=min(plan.least_cost, price) if price is not None else None,
        waste_share=1 - placed / metres if metres else 0.0,
        over=_over(sum(p.times * cost_of[p.stock] for p in patterns), plan.least_cost),
        unplaced=tuple((order[k], int(left[k])) for k in range(len(order)) if left[k]),
    )


def _over(sought: float, least: float) -> float:
    over = sought / least - 1 if least > 0 else 0.0
    return over if over > 1e-6 else 0.0


class _Answer(msgspec.Struct, frozen=True):
    patterns: Ints
    of: Ints
    times: Ints
    least_cost: float
    least_count: int


class _Search:
    """Patterns of one material, grown until none is better."""

    def __init__(self, lengths: Ints, rooms: Ints, want: Ints, costs: Floats, limits: list[int | None], enough: Callable[[], bool]) -> None:
        self.true_lengths, self.true_rooms = lengths, rooms
        step = max(math.gcd(*(int(v) for v in lengths), *(int(v) for v in rooms)), 1)
        self.coarse = bool(len(rooms)) and int(rooms.max()) // step > MOST_CELLS
        if self.coarse:  # pieces up, stock down: what is found can be cut, but its price is no bound
            step = math.ceil(int(rooms.max()) / MOST_CELLS)
        self.lengths, self.rooms = -(-lengths // step), rooms // step
        self.at_least, self.at_most = lengths // step, -(-rooms // step)  # pieces down, stock up: what a bar holds at the very most
        rough = max(int(self.rooms.max(initial=0)) // ROUGH_CELLS, 1)
        self.rough = (-(-self.lengths // rough), self.rooms // rough)
        self.want = np.where(self.lengths <= self.rooms.max(initial=0), want, 0)
        self.costs, self.limits, self.enough = costs, limits, enough
        self.coin = math.gcd(*(round(float(c) * 1e4) for c in costs)) * 1e-4
        self.dear = np.full(len(want), 10 * (float(costs.max(initial=0.0)) + 1.0))
        self.choice = Choice(costs, self.want, limits, self.dear)
        self._known_need = (0, 0)
        self.counted = 0  # the least by numbers of bars [coins]

    def run(self) -> _Answer:
        """The answer; where the stock runs short, that of what can be cut, as bounds speak of that alone."""
        for stock in range(len(self.rooms)):
            self._first_fit(stock, self.want)
        if not self.choice.patterns:
            none = np.zeros(0, dtype=np.int64)
            return _Answer(np.zeros((0, len(self.want)), dtype=np.int64), none, none, 0.0, 0)
        base = self._grow(self.want, self.limits)
        best = self._dive(DIVES[0], self.limits)
        if best.short.any():
            best = self._whole(self._dived_again(best))
            self.want = self.want - best.short
            base = self._grow(self.want, self.limits)
            best = self._dive(DIVES[0], self.limits)
        if not self._reached(best, base):
            best = self._by_counts(best, base)
        for better in (self._dived_again, self._whole, self._plain):
            if not self._reached(best, base):
                best = better(best)
        count = -(-int(self.true_lengths @ self.want) // int(self.true_rooms.max()))
        if base.least and len({float(c) for c in self.costs}) == 1:  # else the fewest bars are not what is sought
            count = max(count, math.ceil(base.cost / float(self.costs[0]) - 1e-6))
        patterns, of = np.array(self.choice.patterns, dtype=np.int64), np.array(self.choice.of, dtype=np.int64)
        times = np.pad(best.times, (0, len(patterns) - len(best.times)))
        return _Answer(patterns, of, times, self._next(base), count)

    def _dived_again(self, best: Chosen) -> Chosen:
        """By rounding on the way down, more at a time."""
        if self.enough():
            return best
        dived = self._dive(DIVES[1], self.limits)
        return dived if self._cost(dived) < self._cost(best) - HAIR else best

    def _whole(self, best: Chosen) -> Chosen:
        """By the whole-number program over the patterns that are known."""
        if self.enough():
            return best
        self.choice.ask(self.want, self.limits)
        return self.choice.whole(best, NODES) or best

    def _by_counts(self, best: Chosen, base: Relaxed) -> Chosen:
        """Numbers of bars from the cheapest on, each held against what is wanted, until a plan is found that needs no more.

        The first numbers that are not ruled out say what any plan costs at least.
        """
        if self.enough():
            return best
        counts = Counts(self.costs, self.limits, self._cost(best), self.line_of(base.worth))
        if not counts.known:
            return best
        enough_of = _Enough(self)
        for tried in range(MOST_TRIES):
            now = counts.cheapest()
            while now is not None and (line := enough_of.ruled_out(now)) is not None:
                counts.keep(line)
                now = counts.cheapest()
            if not tried:  # nothing cheaper is left, or these are the cheapest that may be enough
                self.counted = round((self._cost(best) if now is None else float(self.costs @ now)) / self.coin)
            if now is None or self.enough():
                break
            found = self._with_no_more(now)
            if found is not None:
                return found
            counts.try_no_more(now)
        return best

    def line_of(self, worth: Floats) -> Line:
        """What bars hold by a worth of the pieces, and what all of them are worth."""
        value, _ = _knapsack(self.at_least, int(self.at_most.max()), worth, self.want)
        return Line(value[self.at_most], float(worth @ self.want))

    def _with_no_more(self, counts: Ints) -> Chosen | None:
        """A plan from so many bars of each stock; None where none was found."""
        limits: list[int | None] = counts.tolist()
        dived = None
        for share in DIVES:
            dived = self._dive(share, limits)
            if not dived.short.any():
                return dived
            if self.enough():
                return None
        self.choice.ask(self.want, limits)
        whole = self.choice.whole(dived, NODES)
        return whole if whole is not None and not whole.short.any() else None

    def _plain(self, best: Chosen) -> Chosen:
        """What was found, or longest first into the fullest bar of one stock where that is cheaper: a search that was
        cut short is never worse than a hand with a saw. Each bar then of the cheapest stock that holds it."""
        for stock, limit in enumerate(self.limits):
            bars = self._into_bars(int(self.rooms[stock])) if limit is None else None
            if bars is None:
                continue
            left, taken = list(self.limits), []
            for cut in sorted(bars, key=lambda point: -int(self.lengths @ point)):
                long = int(self.lengths @ cut)
                fits = [k for k in range(len(self.rooms)) if self.rooms[k] >= long and left[k] != 0]
                k = min(fits, key=lambda fit: (self.costs[fit], self.rooms[fit]))
                limit_k = left[k]
                left[k] = None if limit_k is None else limit_k - 1
                taken.append((k, cut))
            if sum(float(self.costs[k]) for k, _ in taken) < self._cost(best) - HAIR:
                for k, cut in taken:
                    self.choice.add(k, cut)
                counts = np.zeros(len(self.choice.patterns), dtype=np.int64)
                for k, cut in taken:
                    at = self.choice.at(k, cut)
                    assert at is not None
                    counts[at] += 1
                best = Chosen(counts, np.zeros(len(self.want), dtype=np.int64), proven=False)
        return best

    def _into_bars(self, room: int) -> list[Ints] | None:
        """Longest first into the fullest bar with room; None where a piece is longer than the bar."""
        left: list[int] = []
        cut: list[Ints] = []
        for k, length in enumerate(int(length) for length in self.lengths):
            for _ in range(int(self.want[k])):
                if length > room:
                    return None
                at = min((b for b in range(len(left)) if left[b] >= length), key=lambda b: left[b], default=len(left))
                if at == len(left):
                    left.append(room)
                    cut.append(np.zeros(len(self.want), dtype=np.int64))
                left[at] -= length
                cut[at][k] += 1
        return cut

    def _reached(self, best: Chosen, base: Relaxed) -> bool:
        return not best.short.any() and self._cost(best) <= self._next(base) * (1 + 1e-9)

    def _next(self, base: Relaxed) -> float:
        """The least sum of prices there can be: prices are whole ten-thousandths, and so are their sums.

        The relaxed answer says so only where no better pattern was left unpriced; by length it holds always.
        """
        priced = math.ceil(base.cost / self.coin - 1e-6) if base.least else 0
        return max(priced, self._by_length(), self.counted) * self.coin

    def _by_length(self) -> int:
        """The least money, in coins, for which stock of enough length is had, as whole bars; what costs nothing comes first.

        Source: covering by length; no cutting is asked, so no plan is cheaper.
        """
        need = int(self.true_lengths @ self.want)
        coins = [round(float(cost) / self.coin) for cost in self.costs]
        for room, coin, limit in zip(self.true_rooms, coins, self.limits, strict=True):
            if coin == 0:
                if limit is None:
                    return 0
                need -= int(room) * limit
        sold = [(coin, int(room)) for coin, room, limit in zip(coins, self.true_rooms, self.limits, strict=True) if coin and limit != 0]
        if need <= 0 or not sold:
            return 0
        dearest = max(coin * -(-need // max(room, 1)) for coin, room in sold)
        if self._known_need[0] == need or dearest > MOST_COINS:
            return self._known_need[1] if self._known_need[0] == need else 0
        most = [0] * (dearest + 1)
        for money in range(1, dearest + 1):
            most[money] = max([most[money - 1], *(most[money - coin] + room for coin, room in sold if coin <= money)])
            if most[money] >= need:
                self._known_need = (need, money)
                return money
        return 0

    def _cost(self, best: Chosen) -> float:
        of = np.array(self.choice.of[: len(best.times)], dtype=np.int64)
        return float(self.costs[of] @ best.times + self.dear @ best.short)

    def _grow(self, want: Ints, limits: list[int | None], exact: bool = True) -> Relaxed:
        """Price patterns and add better ones until there is none; the cost in parts of patterns, the least where `least` says so.

        Patterns are sought on a rough scale first, where every piece is a little longer, and exactly to end with.
        """
        self.choice.ask(want, limits)
        fine, now = False, self.choice.relaxed()
        for at in range(ROUNDS):
            now = self.choice.relaxed() if at else now
            if at % A_QUESTION == 0 and self.enough():
                break
            costs = self.choice.costs
            lengths, rooms = (self.lengths, self.rooms) if fine else self.rough
            # an unit of length is worth this at most; what wastes more of it than a better pattern can spare is in none
            spare = float((now.worth / lengths).max()) * rooms - (costs - now.room)
            spare_most = float(spare[[limit != 0 for limit in limits]].max(initial=0.0))
            value, pattern_at = _knapsack(lengths, int(rooms.max()), now.worth, want, spare_most)
            added = False
            for stock, room in enumerate(rooms):
                good = value[room] > costs[stock] - now.room[stock] + HAIR * (1 + costs[stock])
                if room > 0 and limits[stock] != 0 and good:
                    added |= self.choice.add(stock, pattern_at(int(room)))
            if fine and not added:
                return now._replace(least=not self.coarse)
            if not added and not exact:
                break
            fine = fine or not added
        return now

    def _dive(self, share: float, limits: list[int | None]) -> Chosen:
        """Keep the whole parts of the relaxed answer and what is nearly whole, price again for what is left, until nothing is.

        Args: share: from which part on a pattern is cut once more; limits: of each stock.
        """
        left, limits = self.want.copy(), list(limits)
        times: dict[int, int] = {}
        while left.any():
            now = self._grow(left, limits, exact=False)
            cut = np.floor(now.share + 1.0 - share)
            order = np.argsort(-now.share, kind="stable")
            if not cut.any():
                if now.share[order[0]] < HAIR:
                    break  # what is left is left for want of stock
                cut[order[0]] = 1
            before = left
            for k in order[cut[order] > 0]:
                stock, limit = self.choice.of[k], limits[self.choice.of[k]]
                pattern = np.array(self.choice.patterns[k])
                for _ in range(int(cut[k]) if limit is None else min(int(cut[k]), limit)):
                    if not (np.minimum(pattern, left) == pattern).all():
                        break
                    left = left - pattern
                    times[int(k)] = times.get(int(k), 0) + 1
                    if limit is not None:
                        limit -= 1
                limits[stock] = limit
            if left is before:  # every pattern holds more than is wanted: the fullest, once
                k = int(order[0])
                limit = limits[self.choice.of[k]]
                if limit == 0:
                    break
                left = np.maximum(left - np.array(self.choice.patterns[k]), 0)
                times[k] = times.get(k, 0) + 1
                if limit is not None:
                    limits[self.choice.of[k]] = limit - 1
        counts = np.zeros(len(self.choice.patterns), dtype=np.int64)
        for k, many in times.items():
            counts[k] = many
        return Chosen(counts, left, proven=False)

    def _first_fit(self, stock: int, want: Ints) -> None:
        """Longest first into the first bar with room: patterns to begin with."""
        room = int(self.rooms[stock])
        lefts: list[int] = []
        cuts: list[list[int]] = []
        for k in range(len(self.lengths)):
            length = int(self.lengths[k])
            if length > room:
                continue
            single = np.zeros(len(want), dtype=np.int64)
            single[k] = min(room // length, int(want[k]))
            self.choice.add(stock, single)
            self.choice.add(stock, np.minimum(single, 1))  # so that there is always a way to cut the last one
            at = 0
            for _ in range(int(min(want[k], 200))):
                while at < len(lefts) and lefts[at] < length:  # those before had no room for the last one like it either
                    at += 1
                if at == len(lefts):
                    lefts.append(room)
                    cuts.append([])
                lefts[at] -= length
                cuts[at].append(k)
        for cut in cuts:
            self.choice.add(stock, np.bincount(cut, minlength=len(want)))


class _Enough:
    """Whether so many bars may be enough: pieces left uncut are least where bars cost nothing."""

    def __init__(self, search: _Search) -> None:
        self.of = search
        self.choice = Choice(np.zeros(len(search.costs)), search.want, search.limits, search.lengths / search.lengths.max())
        self.seen = 0

    def ruled_out(self, counts: Ints) -> Line | None:
        """A line that says so many are not enough; None where none is found."""
        of, choice = self.of, self.choice
        choice.ask(of.want, counts.tolist())
        for _ in range(ROUNDS):
            for stock, pattern in zip(of.choice.of[self.seen :], of.choice.patterns[self.seen :], strict=True):
                choice.add(stock, np.array(pattern))
            self.seen = len(of.choice.of)
            now = choice.relaxed()
            if now.cost < 1e-6 or of.enough():
                return None
            line = of.line_of(now.worth)
            if not line.met(counts):
                return line
            value, pattern_at = _knapsack(of.lengths, int(of.rooms.max()), now.worth, of.want)
            added = False
            for stock, room in enumerate(of.rooms):
                if room > 0 and counts[stock] and value[room] > -now.room[stock] + HAIR:
                    added |= choice.add(stock, pattern_at(int(room)))
            if not added:
                return None
        return None


def _knapsack(lengths: Ints, top: int, worth: Floats, want: Ints, spare: float = math.inf) -> tuple[Floats, Callable[[int], Ints]]:
    """Most worth in each length of bar [units], and what is in it. No more of a piece than is wanted (exact).

    Args: spare: patterns that lose more than this beside a bar full of what is worth most by length are not sought.
    """
    density = float((worth / lengths).max(initial=0.0))
    best, room = np.zeros(top + 1), np.empty(top + 1)
    chunks: list[tuple[int, int, int]] = []
    taken: list[np.ndarray] = []
    for k in np.argsort(-worth / lengths):
        length = int(lengths[k])
        if worth[k] <= HAIR or length > top:
            continue
        copies, loss = min(int(want[k]), top // length), density * length - float(worth[k])
        if loss > HAIR and copies * loss > spare:
            copies = int(spare / loss + HAIR)
        size = 1
        while copies > 0:
            many = min(size, copies)
            copies, size = copies - many, size * 2
            span = many * length
            here = best[span:]
            with_it = np.add(best[: top + 1 - span], many * float(worth[k]), out=room[: top + 1 - span])
            taken.append(with_it > here)
            np.maximum(here, with_it, out=here)
            chunks.append((int(k), many, span))

    def pattern_at(at: int) -> Ints:
        pattern = np.zeros(len(worth), dtype=np.int64)
        for (k, many, span), better in zip(reversed(chunks), reversed(taken), strict=True):
            if at >= span and better[at - span]:
                pattern[k] += many
                at -= span
        return pattern

    return best, pattern_at
