"""Bars and sheets: check cases of the shop, and properties that an independent checker looks after."""

from __future__ import annotations

import math
import random
from collections import Counter
from itertools import combinations

import numpy as np
import pytest
from benchmarks.cut_up import HARDNESS, cut_up

from tests.cutting import wrong_with
from uncle_sled.core.solver import Line as Row
from uncle_sled.core.solver import least
from uncle_sled.core.studies.cut.bar_counts import Counts, Line
from uncle_sled.core.studies.cut.bars import BarPlan, bar_plan
from uncle_sled.core.studies.cut.choose import Choice
from uncle_sled.core.studies.cut.cut_plan import cut_plan
from uncle_sled.core.studies.cut.layouts import Layout, SheetPlan
from uncle_sled.core.studies.cut.sheets import sheet_plan
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, units_down, units_up

HAIR = 2e-5  # a piece is rounded up to the hundredth of a millimetre


def bar(id: str, mm: float, qty: int = 1) -> Wanted:
    return Wanted(id, "bar", "pine", mm / 1e3, qty=qty)


def board(id: str, mm: float, qty: int | None = None, price: float | None = 1.0) -> Stock:
    return Stock(id, "bar", "pine", mm / 1e3, qty=qty, price=price)


def flat(id: str, length: float, width: float, qty: int = 1, grain: str = "any") -> Wanted:
    return Wanted(id, "sheet", "ply", length / 1e3, width / 1e3, qty, grain)  # type: ignore[arg-type]


def sheet(id: str, length: float, width: float, qty: int | None = None, price: float | None = 1.0) -> Stock:
    return Stock(id, "sheet", "ply", length / 1e3, width / 1e3, qty, price)


class Rounds:
    """Had enough after so many questions: the same search on any machine."""

    def __init__(self, many: int) -> None:
        self.left = many

    def __call__(self) -> bool:
        self.left -= 1
        return self.left < 0


# bars


def look_at_bars(plan: BarPlan, pieces: list[Wanted], stocks: list[Stock], kerf_m: float, trim_m: float = 0.0) -> None:
    """Every piece once or said to be unplaced, nothing over its bar, no more stock than is there."""
    long = {one.id: one.length_m for one in pieces}
    stock = {one.id: one for one in stocks}
    cut: Counter[str] = Counter()
    taken: Counter[str] = Counter()
    for pattern in plan.patterns:
        room = stock[pattern.stock].length_m - 2 * trim_m
        used = sum(long[name] for name in pattern.pieces) + kerf_m * (len(pattern.pieces) - 1)
        assert used <= room + 1e-9
        assert pattern.left_m == pytest.approx(room - used, abs=1e-9)
        assert [long[name] for name in pattern.pieces] == sorted((long[name] for name in pattern.pieces), reverse=True)
        taken[pattern.stock] += pattern.times
        for name in pattern.pieces:
            cut[name] += pattern.times
    cut.update(dict(plan.unplaced))
    want = Counter()
    for one in pieces:
        want[one.id] += one.qty
    assert cut == want
    assert all(one.qty is None or taken[one.id] <= one.qty for one in stocks)
    assert plan.used == sum(taken.values()) >= plan.bound
    if plan.cost is not None:
        assert plan.cost == pytest.approx(sum((stock[id].price or 0) * many for id, many in taken.items()))
        assert plan.cost_bound is not None and plan.cost_bound <= plan.cost + 1e-9


def test_the_notes_bars() -> None:
    text = "22x1380 25x1520 12x1560 14x1710 18x1820 18x1880 20x1930 10x2000 12x2050 14x2100 16x2140 18x2150 20x2200"
    pieces = [bar(f"p{k}", int(word.split("x")[1]), int(word.split("x")[0])) for k, word in enumerate(text.split())]
    plan = bar_plan(pieces, [board("s", 5600)])
    look_at_bars(plan, pieces, [board("s", 5600)], 0.0)
    assert (plan.used, plan.bound, plan.gap) == (73, 73, 0)


def test_kerfs_between_pieces_alone() -> None:
    pieces = [bar("a", 1195, 4), bar("b", 595, 4)]
    plan = bar_plan(pieces, [board("s", 2400)], 0.003)
    look_at_bars(plan, pieces, [board("s", 2400)], 0.003)
    assert (plan.used, plan.bound) == (3, 3)
    # with ends squared by 4 mm each, neither pair nor four fit any more
    plan = bar_plan(pieces, [board("s", 2400)], 0.003, 0.004)
    look_at_bars(plan, pieces, [board("s", 2400)], 0.003, 0.004)
    assert plan.used == 4


def test_the_rack_goes_first_and_money_decides() -> None:
    stocks = [board("new", 2400, None, 6.0), board("rack", 1300, 2, 0.0), board("long", 4800, None, 13.0)]
    plan = bar_plan([bar("a", 1200, 4)], stocks, 0.003)
    look_at_bars(plan, [bar("a", 1200, 4)], stocks, 0.003)
    assert plan.cost == 12.0  # two off the rack; 1,200 twice and a kerf is over 2,400
    assert Counter(p.stock for p in plan.patterns for _ in range(p.times)) == {"rack": 2, "new": 2}


def test_without_a_price_the_least_length_is_sought_and_no_sum_is_made() -> None:
    plan = bar_plan([bar("a", 1000, 2)], [board("s", 2400, price=None), board("t", 2100, price=3.0)])
    assert plan.cost is None and plan.cost_bound is None
    assert [p.stock for p in plan.patterns] == ["t"]


def test_what_fits_nowhere_and_what_runs_short_is_said() -> None:
    pieces = [bar("a", 1195, 4), bar("b", 5000, 4)]
    plan = bar_plan(pieces, [board("s", 2400, 1)], 0.003)
    look_at_bars(plan, pieces, [board("s", 2400, 1)], 0.003)
    assert dict(plan.unplaced) == {"a": 2, "b": 4} and plan.used == 1 == plan.bound
    nothing = bar_plan([bar("a", 100)], [])
    assert dict(nothing.unplaced) == {"a": 1} and nothing.used == 0 == nothing.bound


@pytest.mark.parametrize("seed", range(12))
def test_random_bars_keep_the_rules(seed: int) -> None:
    rng = random.Random(seed)
    pieces = [bar(f"p{k}", rng.randint(1500, 21000) / 10, rng.randint(1, 9)) for k in range(rng.randint(1, 14))]
    stocks = [board("a", 2400, None, 9.5), board("b", 3600, rng.choice([None, 3]), 13.9), board("c", 1900, 2, 0.0)]
    kerf_m = rng.choice([0.0, 0.003, 0.0032])
    plan = bar_plan(pieces, stocks, kerf_m, rng.choice([0.0, 0.005]) * 0, Rounds(60))
    look_at_bars(plan, pieces, stocks, kerf_m)


def every_way(pieces: list[int], room: int, kerf: int) -> int:
    """Least bars by trying everything: for few pieces."""
    n = len(pieces)
    fits = [sum(pieces[k] + kerf for k in range(n) if m >> k & 1) <= room + kerf for m in range(1 << n)]
    least = [0] + [n] * ((1 << n) - 1)
    for m in range(1, 1 << n):
        sub = m
        while sub:
            if fits[sub]:
                least[m] = min(least[m], least[m ^ sub] + 1)
            sub = (sub - 1) & m
    return least[-1]


@pytest.mark.parametrize("questions", range(12))
def test_a_search_that_is_stopped_early_still_cuts_everything(questions: int) -> None:
    rng = random.Random(questions)
    pieces = [bar(f"p{k}", rng.randint(300, 4700), 2) for k in range(12)]
    stocks = [board("a", 2400, price=None), board("b", 4800, price=None)]
    plan = bar_plan(pieces, stocks, 0.0032, 0.0, Rounds(questions))
    look_at_bars(plan, pieces, stocks, 0.0032)
    flats = [flat(f"f{k}", rng.randint(300, 2400), rng.randint(200, 1200), 2) for k in range(8)]
    laid = sheet_plan(flats, [sheet("s", 2440, 1220)], 0.0032, 0.0, Rounds(questions))
    look_at_sheets(laid, flats, [sheet("s", 2440, 1220)], 0.0032)
    assert not plan.unplaced and not laid.unplaced


@pytest.mark.parametrize("seed", range(15))
def test_few_bars_are_as_few_as_trying_everything_finds(seed: int) -> None:
    rng = random.Random(seed)
    lengths = [rng.randint(300, 1500) for _ in range(9)]
    plan = bar_plan([bar(f"p{k}", mm) for k, mm in enumerate(lengths)], [board("s", 2400)], 0.003)
    assert plan.used == every_way(lengths, 2400, 3) and plan.bound <= plan.used


def least_by_arcs(pieces: list[tuple[int, int]], stocks: list[tuple[int, float]]) -> float:
    """Least money by whole flows over every length of a bar: another model than patterns, and exact.

    Source: arc flow (Valerio de Carvalho 1999). pieces: length and how many; stocks: length and price; no kerf.
    """
    top = max(room for room, _ in stocks)
    arcs = [(at, at + long, k) for k, (long, _) in enumerate(pieces) for at in range(0, top - long + 1)]
    arcs += [(at, at + 1, -1) for at in range(top)]
    ends = [(room, price) for room, price in stocks]
    cost = np.array([0.0] * len(arcs) + [price for _, price in ends])
    lines: list[Row] = []
    for node in range(1, top + 1):  # what comes in goes on, or is the end of a bar
        row = {i: 1.0 for i, (_, b, _k) in enumerate(arcs) if b == node} | {i: -1.0 for i, (a, _, _k) in enumerate(arcs) if a == node}
        row |= {len(arcs) + j: -1.0 for j, (room, _) in enumerate(ends) if room == node}
        lines.append((row, 0.0, 0.0))
    lines += [({i: 1.0 for i, (_, _, of) in enumerate(arcs) if of == k}, float(many), math.inf) for k, (_, many) in enumerate(pieces)]
    values = least(cost, lines, np.full(len(cost), 1e4), np.full(len(cost), True), 20_000)
    assert values is not None
    return float(cost @ np.rint(values))


@pytest.mark.parametrize("seed", range(10))
def test_several_lengths_of_stock_cost_what_an_exact_model_of_another_kind_says(seed: int) -> None:
    """Where the relaxed answer lies far under the least, it is the numbers of bars that prove it."""
    rng = random.Random(seed)
    units = [(rng.randint(5, 19), rng.randint(1, 9)) for _ in range(5)]
    stocks = [(24, 9.5), (36, 13.9), (60, 22.0)][seed % 2 :]
    plan = bar_plan(
        [bar(f"p{k}", 100 * long, many) for k, (long, many) in enumerate(units)], [board(f"s{r}", 100 * r, price=p) for r, p in stocks]
    )

    exact = least_by_arcs(units, stocks)

    assert plan.cost == pytest.approx(exact) and plan.cost_bound == pytest.approx(exact) and plan.over == 0


def test_numbers_of_bars_keep_every_line_and_the_cheapest_come_first() -> None:
    """Two lines over three stocks of which one costs nothing, against all numbers there are."""
    costs, limits = np.array([9.5, 0.0, 22.0]), [None, 2, None]
    lines = [Line(np.array([1.0, 0.8, 2.6]), 9.1), Line(np.array([1.0, 0.5, 2.1]), 8.0)]
    counts = Counts(costs, limits, 100.0, lines[0])
    counts.keep(lines[1])
    ways = [np.array((a, 2, b)) for a in range(12) for b in range(6) if all(line.met(np.array((a, 2, b))) for line in lines)]
    by_hand = sorted({round(float(costs @ way), 6) for way in ways if costs @ way < 100})
    found = []
    while (now := counts.cheapest()) is not None:
        assert all(line.met(now) for line in lines)
        found.append(round(float(costs @ now), 6))
        counts.try_no_more(now)

    assert found[0] == by_hand[0] and found == sorted(found) and set(found) <= set(by_hand)


@pytest.mark.parametrize("seed", range(8))
def test_no_line_rules_out_a_plan_that_is_there(seed: int, monkeypatch: pytest.MonkeyPatch) -> None:
    """Every line is true of every plan: so of the one that is found, with lengths on the scale and off it."""
    lines: list[Line] = []
    keep = Counts.keep
    monkeypatch.setattr(Counts, "keep", lambda self, line: (lines.append(line), keep(self, line))[1])
    rng = random.Random(seed)
    tenths = 1.0 if seed % 2 else 0.137
    pieces = [bar(f"p{k}", rng.randint(300, 2300) + tenths * rng.random(), rng.randint(1, 9)) for k in range(rng.randint(6, 18))]
    stocks = [board("a", 2400, None, 9.5), board("b", 3600, None, 13.9), board("c", 6000, None, 22.0)]
    plan = bar_plan(pieces, stocks, 0.0032)
    bought = Counter(pattern.stock for pattern in plan.patterns for _ in range(pattern.times))
    counts = np.array([bought[stock.id] for stock in stocks])

    assert all(line.met(counts) for line in lines) and (lines or plan.over == 0)
    assert not any(line.met(counts // 2) for line in lines[:1])


def test_more_stocks_than_can_be_looked_through_are_left_alone() -> None:
    assert not Counts(np.full(12, 1.0), [None] * 12, 1000.0, Line(np.full(12, 1.0), 900.0)).known
    assert not Counts(np.array([0.0, 1.0]), [None, None], 10.0, Line(np.array([1.0, 1.0]), 9.0)).known  # what costs nothing is enough


def test_an_answer_by_parts_prices_its_pieces() -> None:
    import numpy as np

    choice = Choice(np.array([1.0]), np.array([3]), [None], np.array([50.0]))
    assert choice.add(0, np.array([2])) and not choice.add(0, np.array([2]))
    assert choice.relaxed().cost == pytest.approx(1.5) and choice.relaxed().worth[0] == pytest.approx(0.5)
    whole = choice.whole()
    assert whole is not None and whole.times[0] == 2 and whole.proven
    choice.ask(np.array([3]), [1])
    whole = choice.whole()
    assert whole is not None and whole.times[0] == 1 and whole.short[0] == 1


# sheets


def parts_by_cutting(rects: list[tuple[float, float, float, float]]) -> bool:
    """Can these be parted edge to edge? Any line that crosses none of them, and so on in both halves."""
    if len(rects) < 2:
        return True
    for axis in (0, 1):
        for line in sorted({one[axis] + one[axis + 2] for one in rects}):
            low = [one for one in rects if one[axis] + one[axis + 2] <= line + 1e-9]
            high = [one for one in rects if one[axis] >= line - 1e-9]
            if low and high and len(low) + len(high) == len(rects):
                return parts_by_cutting(low) and parts_by_cutting(high)
    return False


def look_at_layout(layout: Layout, by_id: dict[str, Wanted], stock: Stock, kerf_m: float, trim_m: float) -> None:
    rects = [(one.x_m, one.y_m, one.w_m, one.h_m) for one in layout.pieces]
    for one in layout.pieces:
        piece = by_id[one.piece]
        sizes = (one.h_m, one.w_m) if one.turned else (one.w_m, one.h_m)
        assert sizes == pytest.approx((piece.length_m, piece.width_m), abs=HAIR)
        long_side_x = stock.length_m >= stock.width_m
        if piece.grain != "any":
            assert one.turned == ((piece.grain == "across") == long_side_x)
        assert one.x_m >= trim_m - HAIR and one.x_m + one.w_m <= stock.length_m - trim_m + HAIR
        assert one.y_m >= trim_m - HAIR and one.y_m + one.h_m <= stock.width_m - trim_m + HAIR
    for a, b in combinations(rects, 2):
        apart = max(a[0] - b[0] - b[2], b[0] - a[0] - a[2], a[1] - b[1] - b[3], b[1] - a[1] - a[3])
        assert apart >= kerf_m - HAIR
    assert parts_by_cutting([(x - kerf_m / 2, y - kerf_m / 2, w + kerf_m, h + kerf_m) for x, y, w, h in rects])
    replay_cuts(layout, stock, kerf_m, trim_m)


def replay_cuts(layout: Layout, stock: Stock, kerf_m: float, trim_m: float) -> None:
    """Saw as it is told: every part is one that an earlier cut left, and every piece lies there in the end by itself."""
    parts = [(trim_m, trim_m, stock.length_m - 2 * trim_m, stock.width_m - 2 * trim_m)]
    for cut in layout.cuts:
        at = next(k for k, one in enumerate(parts) if one == pytest.approx(cut.part, abs=HAIR))
        x, y, w, h = parts.pop(at)
        f = cut.fence_m
        if cut.along == "x":
            assert 0 < f < w + HAIR
            parts += [(x, y, f, h), (x + f + kerf_m, y, w - f - kerf_m, h)]
        else:
            assert 0 < f < h + HAIR
            parts += [(x, y, w, f), (x, y + f + kerf_m, w, h - f - kerf_m)]
    for one in layout.pieces:
        assert any(p == pytest.approx((one.x_m, one.y_m, one.w_m, one.h_m), abs=HAIR) for p in parts)


def look_at_sheets(plan: SheetPlan, pieces: list[Wanted], stocks: list[Stock], kerf_m: float = 0.0, trim_m: float = 0.0) -> None:
    by_id, stock = {one.id: one for one in pieces}, {one.id: one for one in stocks}
    cut: Counter[str] = Counter()
    for layout in plan.layouts:
        look_at_layout(layout, by_id, stock[layout.stock], kerf_m, trim_m)
        cut.update(one.piece for one in layout.pieces)
        assert layout.pieces
    cut.update(dict(plan.unplaced))
    want: Counter[str] = Counter()
    for one in pieces:
        want[one.id] += one.qty
    assert cut == want
    taken = Counter(layout.stock for layout in plan.layouts)
    assert all(one.qty is None or taken[one.id] <= one.qty for one in stocks)
    assert plan.bound <= plan.used == len(plan.layouts)
    whole = sum(stock[id].length_m * stock[id].width_m * many for id, many in taken.items())
    filled = sum(by_id[one.piece].length_m * by_id[one.piece].width_m for lay in plan.layouts for one in lay.pieces)
    if whole:
        assert plan.waste_share == pytest.approx(1 - filled / whole, abs=1e-9)


def test_kerf_decides_how_often_a_width_fits() -> None:
    for width, times in ((1220.0, 1), (1218.4, 2)):
        plan = sheet_plan([flat("a", 1220, width, 4, "across")], [sheet("s", 2440, 1220)], 0.0032)
        assert plan.used == math.ceil(4 / times)
    for width, times in ((404.0, 3), (405.0, 2)):
        plan = sheet_plan([flat("a", 2440, width, 6, "along")], [sheet("s", 2440, 1220)], 0.0032)
        assert plan.used == 6 / times


def test_a_pinwheel_cannot_be_sawn_and_is_not_drawn() -> None:
    pieces, stocks = [flat("a", 3000, 2000, 4), flat("b", 1000, 1000)], [sheet("s", 5000, 5000)]
    plan = sheet_plan(pieces, stocks, enough=Rounds(400))
    look_at_sheets(plan, pieces, stocks)
    assert (plan.used, plan.bound, plan.gap) == (2, 1, 1)
    assert not parts_by_cutting([(0, 0, 3, 2), (3, 0, 2, 3), (2, 3, 3, 2), (0, 2, 2, 3), (2, 2, 1, 1)])


def test_the_bound_sees_what_cannot_share_a_sheet() -> None:
    pieces, stocks = [flat("a", 1300, 700, 5)], [sheet("s", 2440, 1220)]
    plan = sheet_plan(pieces, stocks)
    look_at_sheets(plan, pieces, stocks)
    assert (plan.used, plan.bound) == (5, 5)


def test_grain_upright_stock_and_trim() -> None:
    stocks = [sheet("tall", 1220, 2440)]
    pieces = [flat("a", 2400, 590, 2, "along"), flat("b", 1180, 600, 2, "across"), flat("c", 500, 300, 3)]
    plan = sheet_plan(pieces, stocks, 0.0032, 0.005, Rounds(300))
    look_at_sheets(plan, pieces, stocks, 0.0032, 0.005)
    assert not plan.unplaced
    assert sheet_plan([flat("a", 1300, 300, 1, "across")], [sheet("s", 2440, 1220)]).unplaced == (("a", 1),)


def test_the_rack_first_then_the_cheapest_that_does() -> None:
    stocks = [sheet("new", 2440, 1220, None, 48.0), sheet("rack", 700, 620, 1, 0.0), sheet("small", 1220, 1220, None, 26.0)]
    pieces = [flat("door", 690, 600)]
    plan = sheet_plan(pieces, stocks, 0.0032)
    look_at_sheets(plan, pieces, stocks, 0.0032)
    assert plan.cost == 0.0 and plan.layouts[0].stock == "rack"
    more = [flat("door", 690, 600, 2)]
    plan = sheet_plan(more, stocks, 0.0032)
    look_at_sheets(plan, more, stocks, 0.0032)
    assert plan.cost == 26.0


def test_an_outline_counts_by_its_own_area() -> None:
    gusset = Wanted("g", "sheet", "ply", 1.0, 1.0, outline=((0, 0), (1, 0), (0, 1)))
    plan = sheet_plan([gusset], [sheet("s", 1000, 1000)])
    assert plan.waste_share == pytest.approx(0.5)


@pytest.mark.parametrize("seed", range(10))
def test_random_sheets_keep_the_rules(seed: int) -> None:
    rng = random.Random(seed)
    pieces = [
        flat(
            f"p{k}", rng.randint(1000, 16000) / 10, rng.randint(800, 12000) / 10, rng.randint(1, 4), rng.choice(["any", "along", "across"])
        )
        for k in range(rng.randint(1, 9))
    ]
    stocks = [sheet("full", 2440, 1220, rng.choice([None, 2]), 48.0), sheet("off", 900, 640, 2, 0.0)]
    trim_m = rng.choice([0.0, 0.004])
    plan = sheet_plan(pieces, stocks, 0.0032, trim_m, Rounds(60))
    look_at_sheets(plan, pieces, stocks, 0.0032, trim_m)


@pytest.mark.parametrize("waste", HARDNESS)
def test_cut_up_sheets_are_put_together_again(waste: float) -> None:
    pieces, stocks = cut_up(0, waste, 3, 7)
    plan = sheet_plan(pieces, stocks, 0.0032, 0.0, Rounds(3000))
    look_at_sheets(plan, pieces, stocks, 0.0032)
    assert plan.used <= 3


def test_sheets_that_are_counted_are_used_as_well() -> None:
    pieces, _ = cut_up(0, 0.0, 3, 7)
    counted = [Stock("full", "sheet", "ply", 2.44, 1.22, 3, 40.0)]
    plan = sheet_plan(pieces, counted, 0.0032, 0.0, Rounds(3000))
    look_at_sheets(plan, pieces, counted, 0.0032)
    assert plan.used == 3 and not plan.unplaced
    two = [Stock("full", "sheet", "ply", 2.44, 1.22, 2, 40.0)]
    plan = sheet_plan(pieces, two, 0.0032, 0.0, Rounds(60))
    look_at_sheets(plan, pieces, two, 0.0032)
    assert plan.used == 2 and plan.unplaced


def test_the_same_list_gives_the_same_plan() -> None:
    pieces, stocks = cut_up(3, 0.08, 3, 6)
    assert sheet_plan(pieces, stocks, 0.0032, 0.0, Rounds(40)) == sheet_plan(pieces, stocks, 0.0032, 0.0, Rounds(40))


# both, and what cannot be cut


def test_materials_are_cut_each_from_its_own() -> None:
    pieces = [flat("a", 600, 600), bar("r", 1000), Wanted("o", "bar", "oak", 1.0)]
    plan = cut_plan(pieces, [sheet("s", 1220, 1220, None, 9.0), board("b", 2400, None, 2.0)], 0.003)
    assert plan.unplaced == (("o", 1),) and plan.cost == 11.0
    assert cut_plan(pieces[:1], [sheet("s", 1220, 1220, price=None)]).cost is None


def test_what_is_wrong_is_said_with_what_would_be_right() -> None:
    bow = ((0.0, 0.0), (1.0, 1.0), (1.0, 0.0), (0.0, 1.0))
    line = ((0.0, 0.0), (0.5, 0.0), (1.0, 0.0))
    cases = [
        (flat("a", 0, 100), "over 0"),
        (flat("a", 100, -1), "over 0"),
        (flat("a", 100, 100, 0), "whole number from 1"),
        (flat("a", 3, 100), "saw takes more"),
        (Wanted("a", "bar", "pine", 1.0, grain="along"), "for sheets"),
        (Wanted("a", "bar", "pine", 1.0, 0.1), "no width"),
        (Wanted("a", "sheet", "ply", 1.0, 1.0, outline=bow), "crosses"),
        (Wanted("a", "sheet", "ply", 1.0, 1.0, outline=line), "encloses nothing|crosses"),
        (Wanted("a", "sheet", "ply", 2.0, 1.0, outline=((0, 0), (1, 0), (0, 1))), "must agree"),
        (Wanted("a", "sheet", "ply", 2.0, 1.0, outline=((0, 0), (1, 0))), "fewer than three"),
    ]
    import re

    for piece, words in cases:
        found = wrong_with([piece], [board("s", 2400)], 0.0032)
        assert found and re.search(words, " ".join(one.says for one in found)), (piece, found)
    assert "other sizes" in wrong_with([bar("a", 100), bar("a", 200)], [board("s", 2400)])[0].says
    assert not wrong_with([bar("a", 100, 2), bar("a", 100, 3)], [board("s", 2400)])
    stock_cases = [
        (board("s", 0), "over 0"),
        (board("s", 2400, -1), "below 0"),
        (board("s", 2400, None, -3.0), "price is below 0"),
        (board("s", 8), "trim takes all"),
    ]
    for stock, words in stock_cases:
        assert words in wrong_with([bar("a", 100)], [stock], 0.0, 0.005)[0].says
    assert "stands twice" in wrong_with([bar("a", 100)], [board("s", 1000), board("s", 1000)])[0].says
    assert "nothing in stock" in wrong_with([bar("a", 100)], [])[0].says
    assert "kerf is below" in wrong_with([bar("a", 100)], [board("s", 1000)], -1.0)[0].says
    assert "over 5000" in wrong_with([bar("a", 100, 5001)], [board("s", 1000)])[0].says


def test_pieces_round_up_and_stock_down() -> None:
    assert units_up(1.2192) == units_down(1.2192) == 121920
    assert units_up(0.0000101) == 2 and units_down(0.0000199) == 1
    assert units_up(25.4e-3 / 16) == 159


@pytest.mark.parametrize("seed", range(6))
def test_money_is_never_over_what_one_length_alone_costs(seed: int) -> None:
    """With several lengths to choose from, no plan is dearer than the best from any one of them."""
    rng = random.Random(seed)
    pieces = [bar(f"p{k}", rng.randint(300, 2300), rng.randint(1, 5)) for k in range(8)]
    stocks = [board("a", 2400, price=9.5), board("b", 3600, price=13.9), board("c", 6000, price=22.0)]
    whole = bar_plan(pieces, stocks, 0.0032)
    look_at_bars(whole, pieces, stocks, 0.0032)
    for stock in stocks:
        alone = bar_plan(pieces, [stock], 0.0032)
        assert whole.cost is not None and alone.cost is not None and whole.cost <= alone.cost + 1e-9
        assert alone.gap == 0 and alone.over == 0
    assert whole.over <= 0.03


def test_a_search_that_was_stopped_never_claims_more_than_a_full_one_shows() -> None:
    for seed in range(8):
        rng = random.Random(seed)
        pieces = [bar(f"p{k}", rng.randint(300, 2300), rng.randint(1, 5)) for k in range(12)]
        stocks = [board("a", 2400, price=9.5), board("c", 6000, price=22.0)]
        full, cut_off = bar_plan(pieces, stocks, 0.0032), bar_plan(pieces, stocks, 0.0032, 0.0, lambda: True)
        assert full.cost is not None and cut_off.cost_bound is not None
        assert cut_off.cost_bound <= full.cost + 1e-6
        one, one_cut_off = bar_plan(pieces, stocks[1:], 0.0032), bar_plan(pieces, stocks[1:], 0.0032, 0.0, lambda: True)
        assert one_cut_off.bound <= one.used
