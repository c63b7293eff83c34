"""Bars and sheets against what is known to be least: how many reach it, how far the others are, how long each took.

Run: .venv/bin/python -m benchmarks.cutting [--seconds 5]"""

from __future__ import annotations

import argparse
import random
import time
from collections.abc import Callable

from benchmarks.cut_free import cut_up_free
from benchmarks.cut_up import HARDNESS, cut_up
from uncle_sled.core.studies.cut.bars import bar_plan
from uncle_sled.core.studies.cut.nest import nest
from uncle_sled.core.studies.cut.sheets import sheet_plan
from uncle_sled.core.studies.cut.wanted import Stock, Wanted, ring_area_m2

NOTES = "22x1380 25x1520 12x1560 14x1710 18x1820 18x1880 20x1930 10x2000 12x2050 14x2100 16x2140 18x2150 20x2200"
KERF_M = 0.0032
EACH = 10


def after(seconds: float) -> Callable[[], bool]:
    """Asked whether it is enough, from now on."""
    begin = time.perf_counter()
    return lambda: time.perf_counter() - begin > seconds


def a_bar(id: str, mm: float, qty: int) -> Wanted:
    return Wanted(id, "bar", "pine", mm / 1e3, qty=qty)


def a_board(id: str, mm: float, price: float, qty: int | None = None) -> Stock:
    return Stock(id, "bar", "pine", mm / 1e3, qty=qty, price=price)


def bars(seconds: float) -> None:
    jobs = [
        ([a_bar(f"p{k}", int(w.split("x")[1]), int(w.split("x")[0])) for k, w in enumerate(NOTES.split())], [a_board("s", 5600, 1.0)], 0.0)
    ]
    for seed in range(30):
        rng = random.Random(100 + seed)
        pieces = [a_bar(f"p{k}", rng.randint(150, 2300), rng.randint(1, 20)) for k in range(rng.randint(5, 60))]
        stocks = rng.sample([a_board("a", 2400, 9.5), a_board("b", 3600, 13.9), a_board("c", 6000, 22.0)], rng.randint(1, 3))
        jobs.append((pieces, stocks + ([a_board("rack", 1900, 0.0, 2)] if rng.random() < 0.5 else []), KERF_M))
    proven, took, over = 0, [], []
    for pieces, stocks, kerf_m in jobs:
        begin = time.perf_counter()
        plan = bar_plan(pieces, stocks, kerf_m, enough=after(seconds))
        took.append(time.perf_counter() - begin)
        assert plan.cost is not None and plan.cost_bound is not None
        proven += plan.cost <= plan.cost_bound + 1e-6
        over.append(plan.cost / plan.cost_bound - 1)
    print(f"bars: {proven} of {len(jobs)} proven least money; at most {max(over):.2%} over the bound, mean {sum(over) / len(over):.2%};")
    print(f"      median {sorted(took)[len(took) // 2]:.2f} s, longest {max(took):.2f} s; target: all, each under 1 s")


def sheets(seconds: float) -> None:
    for waste in HARDNESS:
        reached, took, over = 0, [], 0
        for seed in range(EACH):
            known = 3 + seed % 5 * 2
            pieces, stocks = cut_up(seed, waste, known, 7 + seed % 3 * 3)
            begin = time.perf_counter()
            plan = sheet_plan(pieces, stocks, KERF_M, 0.0, after(seconds))
            took.append(time.perf_counter() - begin)
            reached += plan.used <= known
            over = max(over, plan.used - known)
        print(
            f"sheets, {waste:.0%} thrown away: {reached} of {EACH} as few as were cut up, at most {over} over;"
            f" median {sorted(took)[EACH // 2]:.2f} s, longest {max(took):.2f} s"
        )
    print("        target: 27 of 30, never two over, 5 s each")


def free(seconds: float) -> None:
    """By outline: waste against that of the cutting up, the last sheet counted as far as it is used."""
    worst, took = [], []
    for seed in range(6):
        known = 2 + seed % 3 * 2
        pieces, stocks = cut_up_free(seed, 0.08, known, 7 + seed % 3 * 2)
        begin = time.perf_counter()
        sheets, left = nest(pieces, stocks, KERF_M, 0.0, after(seconds))
        took.append(time.perf_counter() - begin)
        assert not left
        area = sum(ring_area_m2(piece.outline) for piece in pieces)
        long, wide = stocks[0].length_m, stocks[0].width_m
        reach = [max(x for spot in one.spots for x, _ in spot.ring) for one in sheets]
        used = (len(sheets) - 1) * long * wide + min(reach) * wide
        worst.append((1 - area / used) - (1 - area / (known * long * wide)))
    print(
        f"outlines: waste over that of the cutting up by {max(worst):.0%} at most, mean {sum(worst) / len(worst):.0%}; longest {max(took):.1f} s"
    )
    print("        target: 15 points over, 20 s each")


def beside(seconds: float) -> None:
    """The same rectangles by the best of all guillotine methods of a packing library, where it is installed (development only)."""
    try:
        import rectpack
    except ImportError:
        print("packing library: not installed; pip install rectpack for the comparison")
        return
    methods = [getattr(rectpack, name) for name in dir(rectpack) if name.startswith("Guillotine")]
    for waste in HARDNESS:
        ours = theirs = known_all = 0
        for seed in range(EACH):
            known = 3 + seed % 5 * 2
            pieces, stocks = cut_up(seed, waste, known, 7 + seed % 3 * 3)
            ours += sheet_plan(pieces, stocks, KERF_M, 0.0, after(seconds)).used
            kerf = round(KERF_M * 1e5)
            best = None
            for method in methods:
                for sort in (rectpack.SORT_AREA, rectpack.SORT_LSIDE, rectpack.SORT_SSIDE):
                    packer = rectpack.newPacker(rectpack.PackingMode.Offline, rectpack.PackingBin.Global, method, sort, True)
                    for piece in pieces:
                        for _ in range(piece.qty):
                            packer.add_rect(round(piece.length_m * 1e5) + kerf, round(piece.width_m * 1e5) + kerf)
                    packer.add_bin(round(stocks[0].length_m * 1e5) + kerf, round(stocks[0].width_m * 1e5) + kerf, 200)
                    packer.pack()
                    best = len(packer) if best is None else min(best, len(packer))
                if best is not None and best <= known:
                    break
            theirs += best or 0
            known_all += known
        print(f"beside, {waste:.0%} thrown away: {known_all} sheets were cut up, {ours} here, {theirs} by the library's best")


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--seconds", type=float, default=5.0)
    args = parser.parse_args()
    bars(min(args.seconds, 1.0))
    sheets(args.seconds)
    free(4 * args.seconds)
    beside(args.seconds)


if __name__ == "__main__":
    main()
