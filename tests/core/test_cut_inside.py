"""What the searches for cuts are made of: trees of cuts, blocks, bounds, exact covers; each beside something slower and plainer."""

from __future__ import annotations

import random
from itertools import combinations, permutations, product

import numpy as np
import pytest
from benchmarks.cut_up import HARDNESS, cut_up

from tests.cutting import wrong_with
from uncle_sled.core.studies.cut.blocks import Fields, Growing, grown
from uncle_sled.core.studies.cut.choose import Choice, Chosen
from uncle_sled.core.studies.cut.cover import exact_cover
from uncle_sled.core.studies.cut.cut_tree import Block, Leaf, Node, joined, leaves, placed, saw_cuts
from uncle_sled.core.studies.cut.first_fit import Stocked, first_fit
from uncle_sled.core.studies.cut.sheet_bounds import area_bound, pairs_bound
from uncle_sled.core.studies.cut.wanted import ring_area_m2, units_up


def never() -> bool:
    return False


# trees of cuts


def a_tree(rng: random.Random, depth: int, kerf: int) -> Block:
    if depth == 0 or rng.random() < 0.25:
        return Leaf(rng.randint(0, 9), rng.randint(50, 400), rng.randint(50, 400), rng.random() < 0.5)
    return joined(a_tree(rng, depth - 1, kerf), a_tree(rng, depth - 1, kerf), rng.choice("xy"), kerf)


@pytest.mark.parametrize("seed", range(30))
def test_sawing_a_tree_leaves_its_pieces(seed: int) -> None:
    rng = random.Random(seed)
    kerf = rng.choice([0, 3])
    tree = a_tree(rng, 4, kerf)
    w, h = tree.w + rng.choice([0, 200]), tree.h + rng.choice([0, 150])
    parts = {(0, 0, w, h)}
    for cut in saw_cuts(tree, w, h, kerf):
        part = (cut.x, cut.y, cut.w, cut.h)
        assert part in parts and 0 < cut.fence < (cut.w if cut.along == "x" else cut.h)
        parts.remove(part)
        x, y, pw, ph = part
        if cut.along == "x":
            parts |= {(x, y, cut.fence, ph), (x + cut.fence + kerf, y, pw - cut.fence - kerf, ph)}
        else:
            parts |= {(x, y, pw, cut.fence), (x, y + cut.fence + kerf, pw, ph - cut.fence - kerf)}
    where = list(placed(tree, kerf))
    assert all((one.x, one.y, one.w, one.h) in parts for one in where)
    assert sorted(one.piece for one in where) == sorted(leaf.piece for leaf in leaves(tree))
    for a, b in combinations(where, 2):
        assert max(a.x - b.x - b.w, b.x - a.x - a.w, a.y - b.y - b.h, b.y - a.y - a.h) >= kerf


def test_the_first_cut_parts_the_whole_and_larger_parts_come_first() -> None:
    tree = joined(Leaf(0, 300, 400, False), joined(Leaf(1, 900, 190, False), Leaf(2, 900, 200, False), "y", 10), "x", 10)
    cuts = list(saw_cuts(tree, 1210, 400, 10))
    assert [(one.along, one.fence, one.level) for one in cuts] == [("x", 300, 0), ("y", 190, 1)]
    assert cuts[1].x == 310 and cuts[1].w == 900
    assert isinstance(tree, Node) and (tree.w, tree.h) == (1210, 400)


# blocks


def test_counts_in_bit_fields_come_back_and_too_many_are_seen() -> None:
    want = np.array([1, 3, 7, 2] * 9, dtype=np.int64)
    fields = Fields(want)
    assert fields.words > 1
    block = sum((fields.one(k) for k in (0, 1, 1, 6, 6, 6, 35)), np.zeros(fields.words, dtype=np.uint64))
    counts = fields.counts(block[None])[0]
    assert counts[0] == 1 and counts[1] == 2 and counts[6] == 3 and counts[35] == 1 and counts.sum() == 7
    for k, most in enumerate(want):
        full = sum((fields.one(k) for _ in range(int(most))), np.zeros(fields.words, dtype=np.uint64))
        over = full + fields.one(k)
        assert (((fields.full - full) & fields.guard) == fields.guard).all()
        assert not (((fields.full - over) & fields.guard) == fields.guard).all()


def fits_sawn(sizes: list[tuple[int, int]], turns: list[bool], w: int, h: int, kerf: int) -> bool:
    """Can all of these be sawn from one sheet edge to edge? Every way of parting them, every line: for few pieces."""
    if len(sizes) == 1:
        (a, b), turn = sizes[0], turns[0]
        return (a <= w and b <= h) or (turn and b <= w and a <= h)
    n = len(sizes)
    for m in range(1, (1 << n) - 1):
        one = [k for k in range(n) if m >> k & 1]
        other = [k for k in range(n) if not m >> k & 1]
        for along in (0, 1):
            reach = w if along == 0 else h
            places = {
                sum(way) + kerf * (len(way) - 1)
                for k in range(1, len(one) + 1)
                for group in combinations(one, k)
                for way in product(*[sizes[g] for g in group])
            }
            for at in sorted(places):
                if at + kerf >= reach:
                    continue
                first = (at, h) if along == 0 else (w, at)
                second = (w - at - kerf, h) if along == 0 else (w, h - at - kerf)
                if fits_sawn([sizes[k] for k in one], [turns[k] for k in one], *first, kerf) and fits_sawn(
                    [sizes[k] for k in other], [turns[k] for k in other], *second, kerf
                ):
                    return True
    return False


@pytest.mark.parametrize("seed", range(24))
def test_one_sheet_holds_what_trying_everything_says(seed: int) -> None:
    rng = random.Random(seed)
    kerf = rng.choice([0, 4])
    sizes = [(rng.randint(20, 75), rng.randint(20, 60)) for _ in range(4)]
    turns = [rng.random() < 0.5 for _ in sizes]
    blocks = grown(
        np.array(sizes), np.array(turns), np.ones(4, dtype=np.int64), Growing((110, 90), kerf, 1.0, 5000), np.random.default_rng(1), never
    )
    held = bool((blocks.counts() == 1).all(axis=1).any())
    assert held == fits_sawn(sizes, turns, 110, 90, kerf)
    for at in range(0, len(blocks), max(len(blocks) // 40, 1)):
        block = blocks.block(at)
        assert block.w <= 110 and block.h <= 90
        assert (block.w + kerf, block.h + kerf) == (blocks.w[at], blocks.h[at])
        given = np.bincount([leaf.piece for leaf in leaves(block)], minlength=4)
        assert (given == blocks.counts()[at]).all()
        for leaf in leaves(block):
            assert (leaf.w, leaf.h) == (sizes[leaf.piece][::-1] if leaf.turned else sizes[leaf.piece])
            assert turns[leaf.piece] or not leaf.turned


def test_blocks_lose_no_more_than_they_may() -> None:
    rng = np.random.default_rng(3)
    sizes = rng.integers(100, 600, size=(14, 2))
    blocks = grown(sizes, np.ones(14, bool), np.ones(14, dtype=np.int64), Growing((2440, 1220), 3, 0.02, 300), rng, never)
    lost = blocks.w * blocks.h - blocks.area
    assert lost.max() <= 0.02 * 2443 * 1223 and len(blocks) > 100
    none = grown(sizes * 100, np.ones(14, bool), np.ones(14, dtype=np.int64), Growing((2440, 1220), 3, 0.02, 300), rng, never)
    assert len(none) == 0


# exact covers


@pytest.mark.parametrize("many", [1, 2, 3, 4])
def test_a_cover_that_is_there_is_found_and_none_is_made_up(many: int) -> None:
    rng = np.random.default_rng(many)
    counts = rng.integers(0, 2, size=(60, 12)).astype(np.int64)
    counts = np.concatenate([counts, np.eye(12, dtype=np.int64)])
    size = rng.integers(50, 100, size=12)
    picked = rng.choice(60, size=many, replace=False)
    left = counts[picked].sum(axis=0)
    area = counts @ size
    found = exact_cover(counts, area, left, int(area.max()), many, rng)
    assert found is not None and len(found) == many and (counts[found].sum(axis=0) == left).all()
    left = left.copy()
    left[0] += 50
    assert exact_cover(counts, area, left, int(area.max()), many, rng) is None


# bounds


def test_bounds_of_area_and_of_pairs() -> None:
    sheets = np.array([[2440, 1220]])
    five = np.array([[1300, 700]])
    assert area_bound(five, np.array([5]), sheets, 0) == 2
    assert pairs_bound(five, np.array([True]), np.array([5]), sheets, 0) == 5
    assert pairs_bound(np.array([[1220, 610]]), np.array([True]), np.array([4]), sheets, 0) == 1
    assert pairs_bound(np.array([[1220, 1220]]), np.array([True]), np.array([4]), sheets, 1) == 4
    assert area_bound(five, np.array([0]), sheets, 3) == 0
    assert area_bound(five, np.array([5]), np.zeros((0, 2), dtype=np.int64), 3) == 0


@pytest.mark.parametrize("seed", range(8))
def test_no_bound_is_over_what_can_be_sawn(seed: int) -> None:
    rng = random.Random(seed)
    sizes = [(rng.randint(20, 80), rng.randint(20, 60)) for _ in range(4)]
    turns = [rng.random() < 0.5 for _ in sizes]
    sheet = (110, 90)

    def sheets_for(left: tuple[int, ...]) -> int:
        if not left:
            return 0
        first, rest = left[0], left[1:]
        best = len(left)
        for m in range(1 << len(rest)):
            group = [first, *(k for at, k in enumerate(rest) if m >> at & 1)]
            if fits_sawn([sizes[k] for k in group], [turns[k] for k in group], *sheet, 2):
                best = min(best, 1 + sheets_for(tuple(k for k in rest if k not in group)))
        return best

    least = sheets_for(tuple(range(4)))
    ones, held = np.ones(4, dtype=np.int64), np.array([sheet])
    assert area_bound(np.array(sizes), ones, held, 2) <= least
    assert pairs_bound(np.array(sizes), np.array(turns), ones, held, 2) <= least


# the program


@pytest.mark.parametrize("seed", range(10))
def test_whole_patterns_cost_what_trying_all_of_them_costs(seed: int) -> None:
    rng = random.Random(seed)
    patterns = [np.array([rng.randint(0, 2) for _ in range(3)]) for _ in range(5)]
    want, costs = np.array([2, 3, 2]), np.array([1.0, 1.7])
    choice = Choice(costs, want, [None, 2], np.full(3, 30.0))
    of = []
    for pattern in patterns:
        stock = rng.randint(0, 1)
        if choice.add(stock, pattern):
            of.append((stock, pattern))
    choice.ask(want, [None, 2])
    usable = [(s, p) for s, p in of if (p <= want).all()]
    best = float(30.0 * want.sum())
    for times in product(range(4), repeat=len(usable)):
        if sum(t for t, (s, _) in zip(times, usable, strict=True) if s == 1) > 2:
            continue
        given = sum((t * p for t, (_, p) in zip(times, usable, strict=True)), np.zeros(3, dtype=np.int64))
        cost = sum(t * costs[s] for t, (s, _) in zip(times, usable, strict=True)) + 30.0 * np.maximum(want - given, 0).sum()
        best = min(best, float(cost))
    whole = choice.whole()
    assert whole is not None and whole.proven
    cost = sum(t * costs[s] for t, (s, _) in zip(whole.times, of, strict=True)) + 30.0 * whole.short.sum()
    assert cost == pytest.approx(best)
    assert choice.relaxed().cost <= best + 1e-9
    again = choice.whole(Chosen(whole.times, whole.short, True))
    assert again is not None and (again.times @ np.array([costs[s] for s, _ in of])) + 30.0 * again.short.sum() == pytest.approx(best)


def test_the_area_of_a_ring_does_not_ask_which_way_round() -> None:
    ring = ((0.0, 0.0), (4.0, 0.0), (4.0, 3.0))
    assert all(ring_area_m2(tuple(way)) == pytest.approx(6.0) for way in permutations(ring))


# instances whose answer is known


@pytest.mark.parametrize(("waste", "seed"), [(waste, seed) for waste in HARDNESS for seed in range(6)])
def test_what_is_cut_up_came_from_so_many_sheets(waste: float, seed: int) -> None:
    pieces, (stock,) = cut_up(seed, waste, 3, 8)
    assert wrong_with(pieces, [stock], 0.0032) == ()
    by_sheet: dict[str, float] = {}
    for one in pieces:
        assert one.length_m >= one.width_m > 0 and one.length_m <= 2.44 and one.width_m <= 1.22
        sheet = one.id.split("p")[0]
        by_sheet[sheet] = by_sheet.get(sheet, 0.0) + one.length_m * one.width_m
    whole = stock.length_m * stock.width_m
    assert len(by_sheet) == 3
    for area in by_sheet.values():
        assert (1 - waste) * whole * 0.93 <= area <= (1 - waste) * whole + 1e-6  # the rest is kerf
    assert cut_up(seed, waste, 3, 8)[0] == pieces


def test_with_nothing_thrown_away_the_area_bound_is_the_answer() -> None:
    for seed in range(5):
        pieces, _ = cut_up(seed, 0.0, 4, 9)
        sizes = np.array([(units_up(one.length_m), units_up(one.width_m)) for one in pieces])
        assert area_bound(sizes, np.ones(len(pieces), dtype=np.int64), np.array([[244000, 122000]]), 320) == 4


# the plan at once


@pytest.mark.parametrize("seed", range(12))
def test_the_plan_at_once_keeps_the_rules_and_never_wastes_half(seed: int) -> None:
    rng = random.Random(seed)
    kerf = rng.choice([0, 3])
    sizes = np.array([(rng.randint(100, 900), rng.randint(80, 600)) for _ in range(30)])
    turns = np.array([rng.random() < 0.7 for _ in range(30)])
    want = np.array([rng.randint(1, 3) for _ in range(30)])
    rooms, costs = np.array([[2440, 1220], [1000, 700]]), np.array([40.0, 0.0])
    order = np.argsort(-sizes.prod(axis=1), kind="stable")
    sheets = first_fit(sizes, turns, want, Stocked(rooms, costs, [None, 2]), kerf, order, seed % 2 == 0)
    given = np.zeros(30, dtype=np.int64)
    for stock, block in sheets:
        assert block.w <= rooms[stock, 0] and block.h <= rooms[stock, 1]
        for leaf in leaves(block):
            given[leaf.piece] += 1
            assert (leaf.w, leaf.h) == (tuple(sizes[leaf.piece][::-1]) if leaf.turned else tuple(sizes[leaf.piece]))
            assert turns[leaf.piece] or not leaf.turned
        where = list(placed(block, kerf))
        for a, b in combinations(where, 2):
            assert max(a.x - b.x - b.w, b.x - a.x - a.w, a.y - b.y - b.h, b.y - a.y - a.h) >= kerf
    assert (given == want).all()
    assert sum(stock == 1 for stock, _ in sheets) == 2  # the rack is emptied first
    whole = sum(int(rooms[stock].prod()) for stock, _ in sheets)
    assert int(sizes.prod(axis=1) @ want) > 0.5 * whole


def test_a_long_list_has_a_plan_without_any_time() -> None:
    sizes, want = np.array([[600, 400]]), np.array([600])
    rooms = np.array([[2440, 1220]])
    sheets = first_fit(sizes, np.array([True]), want, Stocked(rooms, np.array([1.0]), [None]), 3, np.array([0]), True)
    assert sum(1 for _, block in sheets for _ in leaves(block)) == 600 and len(sheets) <= 55
