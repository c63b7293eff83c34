"""From pieces to the shop: numbers that stay, boards, slanted ends, held pieces, outlines, steps of sawing, buying and money."""

from __future__ import annotations

import math
import random
import re
from typing import Any

import msgspec
import pytest
from benchmarks.cut_free import cut_up_free
from shapely.geometry import Polygon

from tests.builders import a_body, a_build
from tests.core.test_cut import bar, board
from tests.judging import settled_one
from uncle_sled.core.document.cut import Bought, Cut, RuleChange, StockSize
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.drawing.cut.buy_pages import buy_pages
from uncle_sled.core.drawing.cut.cut_sheets import _alike
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.bars import bar_plan
from uncle_sled.core.studies.cut.boards import board_ends, edges_m, strips
from uncle_sled.core.studies.cut.bought_line import Line
from uncle_sled.core.studies.cut.buying import lines_of
from uncle_sled.core.studies.cut.consumables import bases, rules_of, used_up
from uncle_sled.core.studies.cut.cut_from_stock import QUICK, plan_of
from uncle_sled.core.studies.cut.handed import OnSheet, handed
from uncle_sled.core.studies.cut.held_pieces import Held, faults_of, plan_around
from uncle_sled.core.studies.cut.layouts import Layout
from uncle_sled.core.studies.cut.lots import lots_of
from uncle_sled.core.studies.cut.mitres import Slanted, mitred_plan, overlap_m
from uncle_sled.core.studies.cut.money import money_of, summed
from uncle_sled.core.studies.cut.nest import Spot, nest, overlaps
from uncle_sled.core.studies.cut.numbers import numbers_of, print_ops
from uncle_sled.core.studies.cut.sawing import offcuts_of, steps_of
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.cut.wanted import Stock, Wanted
from uncle_sled.exchange.buy_list import buy_csv, buy_xlsx, read_prices
from uncle_sled.exchange.demos import demo

SHEET = (2.44, 1.22)


def panel(id: str, mm: float, wide: float, qty: int = 1, grain: str = "any", outline=()) -> Wanted:
    return Wanted(id, "sheet", "ply", mm / 1e3, wide / 1e3, qty, grain, outline)  # type: ignore[arg-type]


def sheet(id: str = "s", price: float | None = 1.0, qty: int | None = None) -> Stock:
    return Stock(id, "sheet", "ply", *SHEET, qty=qty, price=price)


# cladding


def test_boards_under_a_slope_are_those_of_the_notes() -> None:
    boards = strips(Polygon([(0, 0), (3, 0), (3, 2.45), (0, 2)]), 0.135)
    long, wide = ([one.bounds[k + 2] - one.bounds[k] for one in boards] for k in (1, 0))
    assert len(boards) == 23 and all(board_ends(one) == (0.0, 8.5) for one in boards)
    # 3.000 is 22 boards of 0.135 and 0.030: under a third, so that the first and the last have 0.0825 each
    assert wide == pytest.approx([0.0825, *[0.135] * 21, 0.0825]) and sum(wide) == pytest.approx(3.0)
    assert long[0] == pytest.approx(2 + 0.0825 * 0.15) and long[-1] == pytest.approx(2.45)


def test_a_last_strip_too_narrow_is_shared_with_the_first() -> None:
    at = edges_m(3.0, 0.135)
    assert len(at) == 24 and at[1] == pytest.approx(0.0825) and at[-1] - at[-2] == pytest.approx(0.0825)
    assert edges_m(0.27, 0.135) == (0.0, 0.135, 0.27) and edges_m(0.1, 0.135) == (0.0, 0.1)


@pytest.mark.parametrize("seed", range(8))
def test_strips_are_the_face_again(seed: int) -> None:
    rng = random.Random(seed)
    wall = Polygon([(0, 0), (rng.uniform(1, 6), 0), (rng.uniform(1, 6), rng.uniform(1, 3)), (0, rng.uniform(1, 3))]).convex_hull
    made = strips(wall, rng.uniform(0.05, 0.3))
    assert sum(one.area for one in made) == pytest.approx(wall.area)


# slanted ends


def test_two_of_one_slant_come_out_of_a_bar_that_square_ones_would_not_fit() -> None:
    pieces = [bar("r", 1210, 2)]
    slant = [Slanted("r", 0.090, 30.0)]
    saved = overlap_m(0.090, 30.0, 0.0032)
    assert saved == pytest.approx(0.090 * math.tan(math.radians(30)) - 0.0032 / math.cos(math.radians(30)) + 0.0032)
    plain = bar_plan(pieces, [board("b", 2400)], 0.0032)
    nested = mitred_plan(pieces, slant, [board("b", 2400)], 0.0032, 0.0)
    assert plain.used == 2 and nested.used == 1 and nested.tied
    only = nested.patterns[0]
    assert only.pieces == ("r", "r") and only.overlaps[0][0] == 1 and only.overlaps[0][1] == pytest.approx(saved)
    assert 2.420 + 0.0032 - saved + only.left_m == pytest.approx(2.4)


@pytest.mark.parametrize("seed", range(10))
def test_slants_never_cost_more_and_lose_no_piece(seed: int) -> None:
    rng = random.Random(seed)
    pieces = [bar(f"p{k}", rng.randint(300, 2200), rng.randint(1, 4)) for k in range(8)]
    slants = [Slanted(f"p{k}", 0.09, 20.0) for k in range(5)]
    stocks = [board("a", 2400), board("b", 4800)]
    plain, nested = bar_plan(pieces, stocks, 0.0032), mitred_plan(pieces, slants, stocks, 0.0032, 0.0)
    metres = {"a": 2.4, "b": 4.8}

    def bought(plan) -> float:
        return float(sum(one.times * metres[one.stock] for one in plan.patterns))

    assert bought(nested) <= bought(plain) + 1e-9
    got = {piece.id: 0 for piece in pieces}
    for one in nested.patterns:
        for name in one.pieces:
            got[name] += one.times
    assert got == {piece.id: piece.qty for piece in pieces} and not nested.unplaced


# outlines


@pytest.mark.parametrize("seed", range(4))
def test_outlines_lie_a_kerf_apart_inside_their_sheets_and_all_are_there(seed: int) -> None:
    pieces, stocks = cut_up_free(seed, 0.08, 2, 6)
    asked = [0]

    def enough() -> bool:
        asked[0] += 1
        return asked[0] > 3

    sheets, left = nest(pieces, stocks, 0.0032, 0.0, enough)
    assert not left
    names = sorted(spot.piece for one in sheets for spot in one.spots)
    assert names == sorted(piece.id for piece in pieces)
    for one in sheets:
        assert not overlaps(one.spots, 0.0032)
        for spot in one.spots:
            x0, y0, x1, y1 = Polygon(spot.ring).bounds
            assert min(x0, y0) >= -1e-6 and x1 <= SHEET[0] + 1e-6 and y1 <= SHEET[1] + 1e-6


def test_two_triangles_come_out_of_one_rectangle_and_a_hollow_takes_a_piece() -> None:
    triangle = ((0.0, 0.0), (2.4, 0.0), (0.0, 1.2))
    plan = plan_around([panel("t", 2400, 1200, 2, outline=triangle)], [sheet()], 0.0, 0.0, True)
    assert plan.used == 1 and plan.bound == 1
    angle = ((0.0, 0.0), (2.4, 0.0), (2.4, 0.2), (0.2, 0.2), (0.2, 1.2), (0.0, 1.2))
    plan = plan_around([panel("u", 2400, 1200, 1, outline=angle), panel("i", 2000, 900)], [sheet()], 0.0032, 0.0, True)
    assert plan.used == 1
    assert plan_around([panel("u", 2400, 1200, 1, outline=angle), panel("i", 2000, 900)], [sheet()], 0.0032, 0.0, False).used == 2


def test_grain_keeps_an_outline_from_being_turned() -> None:
    plan = plan_around([panel("p", 1200, 600, 8, "along")], [sheet()], 0.0, 0.0, True)
    assert all(not one.turned for layout in plan.layouts for one in layout.pieces)
    plan = plan_around([panel("p", 1200, 600, 2, "across")], [sheet()], 0.0, 0.0, True)
    assert all(one.turned for layout in plan.layouts for one in layout.pieces)


def test_pieces_nearer_than_the_saw_takes_are_found() -> None:
    square = ((0.0, 0.0), (0.1, 0.0), (0.1, 0.1), (0.0, 0.1))
    one = Spot("a", 0.0, 0.0, 0.1, 0.1, 0, square)
    near = Spot("b", 0.102, 0.0, 0.1, 0.1, 0, tuple((x + 0.102, y) for x, y in square))
    assert overlaps((one, near), 0.0032) == [("a", "b")] and not overlaps((one, near), 0.002)


# held pieces


def cut_apart(layout: Layout, kerf: float) -> bool:
    """Whether some line crosses no piece, and so on in each half: an independent check of edge-to-edge cutting."""

    def apart(boxes: list[tuple[float, float, float, float]]) -> bool:
        if len(boxes) < 2:
            return True
        for axis in (0, 1):
            for edge in {box[axis + 2] for box in boxes}:
                low = [box for box in boxes if box[axis + 2] <= edge + 1e-9]
                high = [box for box in boxes if box[axis] >= edge + kerf - 1e-7]
                if low and high and len(low) + len(high) == len(boxes):
                    return apart(low) and apart(high)
        return False

    return apart([(one.x_m, one.y_m, one.x_m + one.w_m, one.y_m + one.h_m) for one in layout.pieces])


@pytest.mark.parametrize("free", [False, True])
def test_the_rest_is_laid_out_around_a_held_piece(free: bool) -> None:
    pieces = [panel("a", 900, 500, 3), panel("b", 600, 400, 4), panel("c", 300, 300, 3)]
    held = [Held("a", "s", 1, 0.7, 0.35, False), Held("b", "s", 1, 0.0, 0.0, True)]
    plan = plan_around(pieces, [sheet()], 0.0032, 0.0, free, held)
    first = plan.layouts[0]
    pinned = {(one.piece, round(one.x_m, 4), round(one.y_m, 4)) for one in first.pieces if one.pinned}
    assert pinned == {("a", 0.7, 0.35), ("b", 0.0, 0.0)}
    assert len(first.pieces) > 2 and not plan.unplaced
    counts = {id: sum(one.piece == id for layout in plan.layouts for one in layout.pieces) for id in "abc"}
    assert counts == {"a": 3, "b": 4, "c": 3}
    for layout in plan.layouts:
        spots = [
            Spot(
                str(k),
                0,
                0,
                0,
                0,
                0,
                one.ring
                or ((one.x_m, one.y_m), (one.x_m + one.w_m, one.y_m), (one.x_m + one.w_m, one.y_m + one.h_m), (one.x_m, one.y_m + one.h_m)),
            )
            for k, one in enumerate(layout.pieces)
        ]
        assert not overlaps(spots, 0.0032)
        assert free or cut_apart(layout, 0.0032)


def test_a_piece_cannot_be_held_where_it_cannot_be_cut_and_it_is_said_why() -> None:
    pieces = [panel("a", 900, 500, 2), panel("g", 900, 500, 1, "along")]
    stocks = [sheet()]

    def why(*held: Held) -> dict[str, str]:
        return dict(faults_of(pieces, stocks, 0.0032, 0.0, False, held))

    assert "edge" in why(Held("a", "s", 1, 1.6, 0.0, False))["a"]
    assert "grain" in why(Held("g", "s", 1, 0.0, 0.0, True))["g"]
    assert "another" in why(Held("a", "s", 1, 0.0, 0.0, False), Held("g", "s", 1, 0.901, 0.0, False))["g"]
    assert "no such" in why(Held("a", "gone", 1, 0.0, 0.0, False))["a"]
    wheel = [Held("p", "s", 1, x, y, turn) for x, y, turn in ((0, 0, False), (1.0, 0, True), (0.4, 1.0, False), (0, 0.4, True))]
    round_ = [panel("p", 1000, 400, 4)]
    told = faults_of(round_, [Stock("s", "sheet", "ply", 1.4, 1.4)], 0.0, 0.0, False, wheel)
    assert [one for _, one in told] == ["the sheet cannot be cut apart edge to edge with it there"]
    assert not faults_of(round_, [Stock("s", "sheet", "ply", 1.4, 1.4)], 0.0, 0.0, True, wheel)


def test_upright_stock_holds_a_piece_where_it_was_put() -> None:
    upright = Stock("s", "sheet", "ply", 1.22, 2.44, price=1.0)
    for free in (False, True):
        plan = plan_around([panel("a", 900, 500, 3)], [upright], 0.0032, 0.0, free, [Held("a", "s", 1, 0.2, 0.1, False)])
        mine = [one for one in plan.layouts[0].pieces if one.pinned]
        assert [(round(one.x_m, 4), round(one.y_m, 4), round(one.w_m, 4), one.turned) for one in mine] == [(0.2, 0.1, 0.9, False)]
        for one in plan.layouts[0].pieces:
            assert one.x_m + one.w_m <= 1.2201 and one.y_m + one.h_m <= 2.4401


# sawing


def test_what_is_too_large_to_carry_is_parted_first_and_short_runs_are_marked() -> None:
    plan = plan_around([panel("a", 700, 560, 4), panel("b", 300, 120, 3)], [sheet()], 0.0032, 0.0, False)
    steps = steps_of(plan.layouts[0], 0.0032, 1.5, 25.0, 9.0)
    heavy = [one.heavy for one in steps]
    assert heavy[0] and heavy == sorted(heavy, reverse=True)
    assert any(one.short for one in steps)
    for one in steps:
        area = one.cut.part[2] * one.cut.part[3]
        assert one.heavy == (area > 1.5 or area * 9.0 > 25.0)
        assert one.keeps[0] * one.keeps[1] + one.off[0] * one.off[1] < area + 1e-9


@pytest.mark.parametrize("seed", range(6))
def test_offcuts_are_empty_lie_apart_and_with_the_pieces_are_no_more_than_the_sheet(seed: int) -> None:
    rng = random.Random(seed)
    pieces = [panel(f"p{k}", rng.randint(200, 1100), rng.randint(200, 700)) for k in range(6)]
    for layout in plan_around(pieces, [sheet()], 0.0032, 0.0, False).layouts:
        kept = offcuts_of(layout, 0.0032, 0.05)
        lying: list[Any] = [*layout.pieces, *kept]
        boxes = [(lies.x_m, lies.y_m, lies.w_m, lies.h_m) for lies in lying]
        for i, a in enumerate(boxes):
            assert a[0] >= -1e-9 and a[1] >= -1e-9 and a[0] + a[2] <= SHEET[0] + 1e-9 and a[1] + a[3] <= SHEET[1] + 1e-9
            for b in boxes[i + 1 :]:
                apart = a[0] + a[2] <= b[0] + 1e-9 or b[0] + b[2] <= a[0] + 1e-9 or a[1] + a[3] <= b[1] + 1e-9 or b[1] + b[3] <= a[1] + 1e-9
                assert apart
        assert sum(one.w_m * one.h_m for one in kept) >= 0 and all(one.w_m * one.h_m >= 0.05 for one in kept)


def test_the_same_pieces_on_the_same_sheet_want_as_few_cuts_as_are_found() -> None:
    plan = plan_around([panel("a", 1200, 600, 8)], [sheet()], 0.0, 0.0, False)
    assert plan.used == 2
    for number, layout in enumerate(plan.layouts, 1):
        assert len(layout.cuts) <= 8
        on = OnSheet(plan, number, layout, ())
        assert _alike(on) == ("" if number == 1 else ", cut like sheet 1")


# numbers


def built() -> tuple:  # type: ignore[type-arg]
    """The teardrop with nothing of its cutting decided yet."""
    project = demo("marsh-heron")
    return apply(project.build, [set_to("cut", Cut()), set_to("brief.budget", None)]), project.facts


def test_numbers_are_drafts_until_printed_and_then_stay() -> None:
    build, facts = built()
    before = numbers_of(build, facts)
    assert all(one.number is None and one.standing == "draft" for one in before.named)
    printed = apply(build, print_ops(build, facts))
    after = numbers_of(printed, facts)
    assert printed.cut.prints == build.cut.prints + 1
    assert [one.label for one in after.named] == [one.label for one in before.named]
    assert all(one.standing == "as printed" for one in after.named) and not after.gone
    labels = [one.label for one in after.named]
    assert len(labels) == len(set(labels))
    by_key = after.of
    for one in after.named:
        if one.piece.pair:
            other = by_key[one.piece.pair]
            assert other.number == one.number and {one.label[-4:], other.label[-4:]} <= {"left", "ight"}


def test_what_changes_keeps_its_number_what_is_new_gets_a_new_one_and_none_is_given_twice() -> None:
    build, facts = built()
    build = apply(build, print_ops(build, facts))
    door = next(one for one in build.shell.openings if one.id == "window")
    moved = apply(build, [set_to(f"shell.openings.{door.id}.width", {"si": door.width.si + 0.11})])
    numbers = numbers_of(moved, facts)
    used = {one.id for one in build.cut.numbers}
    assert numbers.changed and all(one.number in used for one in numbers.changed)
    assert all(_count(one.label) > max(_count(id) for id in used if id.split("-")[0] == one.label.split("-")[0]) for one in numbers.drafts)
    again = apply(moved, print_ops(moved, facts))
    assert not numbers_of(again, facts).changed and not numbers_of(again, facts).drafts
    assert used <= {one.id for one in again.cut.numbers}
    gone = {one.id for one in again.cut.numbers if one.gone}
    assert gone == set(numbers.gone)
    assert not gone & {one.number for one in numbers_of(again, facts).named}
    bare = apply(again, [set_to("shell.openings", [])])
    third = apply(bare, print_ops(bare, facts))
    assert len({one.id for one in third.cut.numbers}) == len(third.cut.numbers)
    assert {one.id for one in again.cut.numbers} <= {one.id for one in third.cut.numbers}


def _count(label: str) -> int:
    return int(label.split("-")[1].split(" ")[0])


def test_a_plan_hands_every_piece_out_once_and_a_held_one_where_it_is_held() -> None:
    build, facts = built()
    made = plan_of(build, facts, QUICK)
    hand = handed(made, build, facts)
    keys = [one.piece.key for on in hand.sheets for one in on.named] + [
        one.piece.key for on in hand.bars for some in on.named for one in some
    ]
    sawn = [piece.key for lot in made.lots for piece in lot.pieces]
    assert sorted(keys) == sorted(sawn)
    on = next(one for one in hand.sheets if len(one.layout.pieces) > 1)
    at = len(on.named) - 1
    key, lies = on.named[at].piece.key, on.layout.pieces[at]
    pin = {
        "id": "pn1",
        "piece": key,
        "stock": on.layout.stock,
        "sheet": 1,
        "x": {"si": round(lies.x_m, 5)},
        "y": {"si": round(lies.y_m, 5)},
        "turned": lies.turned,
    }
    held = apply(build, [add_to("cut.pins", pin)])
    made = plan_of(held, facts, QUICK)
    assert not made.let_go
    there = [
        (one.piece.key, lies.pinned)
        for on in handed(made, held, facts).sheets
        for one, lies in zip(on.named, on.layout.pieces, strict=True)
        if lies.pinned
    ]
    assert there == [(key, True)]


# a longer stick, a cabinet


def test_a_stick_longer_than_any_bar_is_parted_and_a_scarf_laps_by_eight_times_its_thickness() -> None:
    build = a_build(shell=a_body("box", "stick timber", length=Length(6.0)))
    whole = take_off(build, Facts()).pieces
    parts = [one for one in whole if one.joined]
    assert parts and all(one.kind in ("bar", "trim") for one in parts)
    scarfed = take_off(apply(build, [set_to("cut.joint", "scarf")]), Facts())
    for one in scarfed.pieces:
        if one.joined.startswith("scarf"):
            plain = next(p for p in whole if p.key == one.key)
            assert one.length_m == pytest.approx(plain.length_m + 4 * one.thickness_m)


def test_a_cabinet_made_here_comes_as_panels_and_is_not_bought() -> None:
    build, facts = built()
    thing = next(one for one in build.stow.things if one.name == "Galley cupboards")
    mine = apply(build, [set_to("cut.made", [thing.id])])
    panels = [one for one in take_off(mine, facts).pieces if one.of == thing.id]
    assert [one.name.removeprefix(thing.name + " ") for one in panels] == ["end", "end", "bottom", "top", "back", "front"]
    inner = thing.length.si - 2 * 0.012
    assert sorted((panels[2].length_m, panels[2].width_m)) == pytest.approx(sorted((inner, thing.width.si)))
    before = {one.id for one in lines_of(study(build, facts), plan_of(build, facts, QUICK))}
    after = {one.id for one in lines_of(study(mine, facts), plan_of(mine, facts, QUICK))}
    assert f"thing {thing.id}" in before - after


# stock, buying, money


def test_the_rack_is_used_first_and_is_not_bought() -> None:
    build, facts = built()
    material = next(one.material for one in (lot.wanted for lot in lots_of(take_off(build, facts))) if one.kind == "sheet")
    rack = StockSize("rk1", "sheet", material, Length(2.44), Length(1.22), 2, None, True)
    mine = apply(build, [add_to("cut.sizes", rack)])
    made = plan_of(mine, facts, QUICK)
    plan = next(one for one in made.plan.sheets if one.material == material)
    assert sum(layout.stock == "rack: rk1" for layout in plan.layouts) == 2
    bought = {one.name: one.packs for one in lines_of(study(mine, facts), made)}
    before = {one.name: one.packs for one in lines_of(study(build, facts), plan_of(build, facts, QUICK))}
    name = next(one for one in before if one.startswith(material))
    assert bought.get(name, 0) == before[name] - 2


def a_line(low: float, likely: float, high: float, **more: object) -> Line:
    base = {
        "id": "x",
        "name": "x",
        "heading": "h",
        "stage": "skins",
        "shop": "s",
        "unit": "pieces",
        "need": 1.0,
        "pack": 1.0,
        "packs": 1,
        "at_hand": 0.0,
        "each": likely,
        "low": low,
        "likely": likely,
        "high": high,
        "sure": "guessed",
        "lead_days": None,
    }
    return Line(**(base | more))  # type: ignore[arg-type]


def test_money_is_summed_as_lines_that_move_together() -> None:
    lines = (a_line(400, 450, 600), a_line(900, 1000, 1500), a_line(300, 350, 700))
    made = summed(lines)
    assert made.mean == pytest.approx(1933.3, abs=0.1) and made.sd == pytest.approx(151, abs=1)
    assert made.p80 == pytest.approx(2061, abs=1)
    unknown = msgspec.structs.replace(lines[0], low=None, likely=None, high=None)
    assert summed((*lines, unknown)).unknown == 1 and summed((*lines, unknown)).mean == made.mean


def test_packs_are_whole_after_summing_and_after_what_is_at_hand() -> None:
    build, facts = built()
    made = plan_of(build, facts, QUICK)
    screws = next(one for one in lines_of(study(build, facts), made) if one.id == "rule screws-frame")
    assert screws.packs == math.ceil(screws.need / 100) and screws.likely == pytest.approx(screws.packs * 16)
    mine = apply(build, [add_to("cut.bought", Bought("rule screws-frame", at_hand=screws.need - 50))])
    assert next(one for one in lines_of(study(mine, facts), plan_of(mine, facts, QUICK)) if one.id == screws.id).packs == 1
    enough = apply(build, [add_to("cut.bought", Bought("rule screws-frame", at_hand=1e5))])
    line = next(one for one in lines_of(study(enough, facts), plan_of(enough, facts, QUICK)) if one.id == screws.id)
    assert line.packs == 0 and line.likely == 0.0


def test_a_price_has_its_face_and_what_nobody_knows_is_never_nothing() -> None:
    build, facts = built()
    known = [
        Bought("rig axle a1", quote=410.0, quote_until="2027-01-31"),
        Bought("rig coupling", likely=100.0),
        Bought("rig jack", spent=61.5),
        Bought("own1", own=True, name="Paint brush", heading="consumables"),
    ]
    mine = apply(build, [add_to("cut.bought", one) for one in known])
    lines = {one.id: one for one in lines_of(study(mine, facts), plan_of(mine, facts, QUICK))}
    assert (lines["rig axle a1"].sure, lines["rig axle a1"].low) == ("quoted", 410.0)
    assert (lines["rig coupling"].low, lines["rig coupling"].high) == (90.0, 125.0)
    assert lines["rig jack"].sure == "spent" and lines["rig jack"].high == 61.5
    assert lines["own1"].sure == "not known" and lines["own1"].likely is None
    money = money_of(mine, facts, tuple(lines.values()), take_off(mine, facts))
    assert money.spent == 61.5 and money.total.unknown == 1
    assert money.spent + money.committed + money.to_come == pytest.approx(money.total.mean)
    assert money.price is None
    priced = apply(mine, [set_to("cut.hours", 100.0), set_to("cut.hour_price", 30.0), set_to("cut.margin", 0.2)])
    sold = money_of(priced, facts, tuple(lines.values()), take_off(priced, facts))
    assert sold.price == pytest.approx((money.total.mean + 3000) / 0.8)
    risen = apply(mine, [set_to("cut.rise", 0.01), set_to("cut.months", 12.0)])
    later = money_of(risen, facts, tuple(lines.values()), take_off(risen, facts))
    assert later.forecast == pytest.approx(money.spent + money.committed + money.to_come * 1.01**12)


def test_rules_of_consumption_are_the_notes_and_can_be_changed() -> None:
    layers = (Layer("l1", "birch-ply", Length(0.009)), Layer("l2", "paint", Length(0.0001)))
    faces = (Face("f", "floor", "Floor", layers=layers),)
    build = a_build(shell=a_body("box", "stick timber", faces=faces))
    off = take_off(build, Facts())
    base = bases(build, Facts(), off)
    used = {one.rule.id: one for one in used_up(build, Facts(), off)}
    edges = sum(2 * (one.length_m + one.width_m) for one in off.pieces if one.kind == "sheet")
    assert used["screws-edge"].need == pytest.approx(edges / 0.150, rel=1e-3)
    assert base["paint_m2"] > 0 and used["paint"].need == pytest.approx(base["paint_m2"] * 2 / 10 * 1.1)
    assert 14 * next(one for one in rules_of(build.cut) if one.id == "paint").rate == pytest.approx(3.08)
    bead = next(one for one in rules_of(build.cut) if one.id == "bead")
    assert 1 / bead.rate == pytest.approx(21.2, abs=0.05)
    own = apply(build, [add_to("cut.rules", RuleChange("paint", rate=0.5)), add_to("cut.rules", RuleChange("screws-edge", off=True))])
    mine = {one.rule.id: one for one in used_up(own, Facts(), off)}
    assert mine["paint"].need == pytest.approx(base["paint_m2"] * 0.5) and mine["paint"].rule.changed
    assert "screws-edge" not in mine


# lists in and out


def test_the_list_goes_out_safe_and_prices_come_in_by_line(tmp_path) -> None:
    build, facts = built()
    evil = apply(build, [add_to("cut.bought", Bought("own1", own=True, name="=1+1", shop="@shop"))])
    lines = lines_of(study(evil, facts), plan_of(evil, facts, QUICK))
    text = buy_csv(lines)
    assert "\n" in text and "'=1+1" in text and "'@shop" in text
    import io

    from openpyxl import load_workbook

    book = load_workbook(io.BytesIO(buy_xlsx(lines)))
    shops = [sheet for sheet in book if sheet.title != "All shops"]
    rows = [row for sheet in shops for row in sheet.iter_rows(min_row=2, max_row=sheet.max_row - 2)]
    names = [row[1].value for row in rows]
    assert len(names) == len(lines) and "'=1+1" in names
    own = {"Sum", "Spent"}  # nothing that somebody typed is a formula
    heads = [cell.value for cell in shops[0][1]]
    assert all(cell.data_type != "f" for row in rows for cell, head in zip(row, heads, strict=True) if head not in own)
    path = tmp_path / "prices.csv"
    path.write_text(
        "name;price;quote_until\nAxle 1;399,50;2027-02-28\nCoupling;cheap;\nMoon rock;1;\nJack;-5;\nLights and reflectors;70;tomorrow\n"
    )
    read = read_prices(path, lines, evil.cut.bought)
    assert read.taken == 1 and [one.line for one in read.faults] == [3, 5, 6] and read.strangers == ("Moon rock",)
    after = apply(evil, read.ops)
    axle = next(one for one in lines_of(study(after, facts), plan_of(after, facts, QUICK)) if one.name == "Axle 1")
    assert (axle.sure, axle.each, axle.quote_until) == ("quoted", 399.5, "2027-02-28")


def test_what_is_cut_is_not_bought_beside_its_boards() -> None:
    for name, thing in (("marsh-heron", "t6"), ("dark-sky", "t6")):  # bed boards, a galley of boards
        project = demo(name)
        lines = lines_of(study(project.build, project.facts), plan_of(project.build, project.facts, QUICK))
        assert lines and not any(line.id == f"thing {thing}" for line in lines)


def test_the_workbook_sums_what_the_list_says() -> None:
    """Every formula of the book worked out by itself, against the lines: what has no price is counted and not nought."""
    import io

    from openpyxl import load_workbook

    build, facts = built()
    lines = lines_of(study(build, facts), plan_of(build, facts, QUICK))
    book = load_workbook(io.BytesIO(buy_xlsx(lines)))
    sums: dict[str, float] = {}
    for shop in dict.fromkeys(line.shop for line in lines):
        sheet = next(s for s in book if s.title == re.sub(r"[\[\]:*?/\\']", " ", shop)[:27].strip())
        column = {cell.value: cell.column for cell in sheet[1]}
        letter = {name: sheet.cell(1, at).column_letter for name, at in column.items()}
        mine = [line for line in lines if line.shop == shop]
        total, blank = 0.0, 0
        for row, line in enumerate(mine, 2):
            packs, each = sheet.cell(row, column["Packs"]).value, sheet.cell(row, column["Price each"]).value
            formula = sheet.cell(row, column["Sum"]).value
            assert formula == f'=IF({letter["Price each"]}{row}="","",{letter["Packs"]}{row}*{letter["Price each"]}{row})'
            assert packs == line.packs and (each is None) is (line.each is None)
            total += packs * each if each is not None else 0.0
            blank += each is None
        last = len(mine) + 1
        assert sheet.cell(last + 1, column["Sum"]).value == f"=SUM({letter['Sum']}2:{letter['Sum']}{last})"
        assert sheet.cell(last + 2, column["Sum"]).value.startswith("=COUNTIF(")
        assert total == pytest.approx(sum(line.packs * round(line.each, 2) for line in mine if line.each is not None))
        assert blank == sum(line.each is None for line in mine)
        assert sheet.print_title_rows and sheet.page_setup.orientation == "landscape" and sheet.sheet_properties.pageSetUpPr.fitToPage
        sums[sheet.title] = total
    whole = book["All shops"]
    assert [row[0].value for row in whole.iter_rows(min_row=2, max_row=len(sums) + 1)] == list(sums)
    assert whole.cell(len(sums) + 2, 2).value == f"=SUM(B2:B{len(sums) + 1})"
    listed = [
        shape.text for page in buy_pages(study(build, facts), lines, "Heron", "today") for shape in page.shapes if isinstance(shape, Text)
    ]
    assert f"{sum(line.packs * line.each for line in lines if line.each is not None):,.2f}" in " ".join(listed)


# findings


def test_findings_of_the_shop_are_silent_until_it_was_begun() -> None:
    for name in ("marsh-heron", "orchard-keeper"):
        project = demo(name)
        build = apply(project.build, [set_to("cut", Cut()), set_to("brief.budget", None)])
        assert not [one for one in findings(study(build, project.facts)) if one.stop == "Cut"]


def codes(build, facts) -> dict:  # type: ignore[no-untyped-def,type-arg]
    return {one.code: one for one in findings(study(build, facts)) if one.stop == "Cut"}


def test_every_finding_of_the_shop_is_found() -> None:
    build, facts = built()
    material = "Light hardwood plywood 15 mm"
    assert codes(apply(build, [set_to("brief.budget", 100.0)]), facts)["budget-over"].severity == "mind"
    assert "budget-over" not in codes(apply(build, [set_to("brief.budget", 1e6)]), facts)
    small = StockSize("sz1", "sheet", material, Length(0.5), Length(0.5))
    assert "piece-fits-no-stock" in codes(apply(build, [add_to("cut.sizes", small)]), facts)
    assert "piece-too-heavy" in codes(apply(build, [set_to("cut.carry", {"si": 3.0})]), facts)
    line = next(one for one in lines_of(study(build, facts), plan_of(build, facts, QUICK)) if one.one_batch)
    assert "veneer-two-batches" in codes(apply(build, [add_to("cut.bought", Bought(line.id, batch="A7, B2"))]), facts)
    assert "veneer-two-batches" not in codes(apply(build, [add_to("cut.bought", Bought(line.id, batch="A7"))]), facts)
    other = StockSize("rk1", "sheet", "Old shelf board 15 mm", Length(2.4), Length(1.2), 1, None, True)
    assert "rack-would-do" in codes(apply(build, [add_to("cut.sizes", other)]), facts)
    late = Bought("rig axle a1", quote=400.0, quote_until="2026-01-31", ordered="2026-02-02")
    found = codes(apply(build, [add_to("cut.bought", late)]), facts)
    assert "quote-lapsed" in found and "long-lead-not-ordered" in found
    assert "Axle" not in found["long-lead-not-ordered"].says
    printed = apply(build, print_ops(build, facts))
    window = next(one for one in printed.shell.openings if one.id == "window")
    moved = apply(printed, [set_to("shell.openings.window.width", {"si": window.width.si + 0.1})])
    assert "print-out-of-date" in codes(moved, facts) and "print-out-of-date" not in codes(printed, facts)


def test_cutting_along_outlines_settles_what_boxes_waste() -> None:
    build, facts = built()
    build = apply(build, [set_to("brief.budget", 1e6)])
    s = study(build, facts)
    found = settled_one(s, "waste-by-boxes")
    assert found.remedy is not None
    after = apply(build, found.remedy.ops)
    assert not [one for one in findings(study(after, facts)) if one.code == "waste-by-boxes"]


def test_a_stick_that_no_yard_has_is_bought_as_what_it_is_ripped_from() -> None:
    """30 x 25 out of 195 x 34: (195 + 3.2) / (25 + 3.2) = 7 of them; 0.195 x 0.034 x 2.4 m at 700 a cubic metre are 11.14."""
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    made = plan_of(project.build, project.facts)
    stock = next(one for one in made.stocks if one.material == "Softwood 30 x 25 mm" and one.length_m == pytest.approx(2.4))
    boards = sum(p.times for bars in made.plan.bars for p in bars.patterns if p.stock == stock.id)
    line = next(one for one in lines_of(s, made) if "30 × 25" in one.name and "2400 mm" in one.name)
    assert boards and line.need == math.ceil(boards / 7) and line.each == pytest.approx(0.195 * 0.034 * 2.4 * 700)
    assert "195 × 34" in line.name and "7 from each" in line.why
    said = apply(
        project.build, [add_to("cut.sizes", {"id": "own", "kind": "bar", "material": stock.material, "length": {"si": 2.4}, "price": 5.0})]
    )
    own = next(one for one in lines_of(study(said, project.facts), plan_of(said, project.facts)) if one.sure == "typed")
    assert own.each == 5.0 and own.why == "by the cutting plan"  # whoever said a size buys that
