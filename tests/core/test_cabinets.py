"""Cabinets: boards by hand, cut to the body, weighed, to the saw; what cannot be built is said and nothing else changes."""

from __future__ import annotations

import math
from typing import Any

import msgspec
import numpy as np
import pytest
from shapely.geometry import Polygon

from tests.builders import a_body, a_build, a_rig, a_thing
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.joinery import Bay, BoardHole, Cabinet
from uncle_sled.core.document.placing import place_ops
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import WheelBoxes
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.frame_body import FASTENERS
from uncle_sled.core.parts.all_parts import cabinets_of
from uncle_sled.core.parts.cabinet import DRAWER_SIDE_M, carcass, polygons
from uncle_sled.core.parts.cabinet_edges import band_m, seen_edges
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.built_report import built_report
from uncle_sled.exchange.demos import demo

PLAIN = Cabinet(opens="rear", bays=(Bay("b1"),))

METRIC = Words(Shown())


def a_cabinet(cabinet=PLAIN, size=(0.5, 1.0, 0.8), **changes):
    return a_thing("c1", 20.0, 2.0, 0.0, 0.62, size, kind="cabinet", name="Cupboard", cabinet=cabinet, source="computed", **changes)


def by_name(thing, name):
    return [board for board in carcass(thing).boards if board.kind == name]


def studied(name):
    project = demo(name)
    return study(project.build, project.facts)


def a_home(*things, **shell):
    return a_build(things, a_rig(), a_body(**shell))


def test_a_plain_carcass_by_hand() -> None:
    """1.0 wide, 0.5 deep, 0.8 high of 12 mm with a 4 mm back planted on."""
    made = carcass(a_cabinet())
    sizes = {board.id: board.box for board in made.boards}
    assert not made.faults and made.size == (1.0, 0.5, 0.8) and len(made.boards) == 5
    assert sizes["left end"] == ((0.0, 0.0, 0.0), (0.012, 0.496, 0.8))
    assert sizes["right end"] == ((0.988, 0.0, 0.0), (1.0, 0.496, 0.8))
    assert sizes["bottom"] == ((0.012, 0.0, 0.0), (0.988, 0.496, 0.012))
    assert sizes["top"][0][2] == pytest.approx(0.788) and sizes["back"] == ((0.0, 0.496, 0.0), (1.0, 0.5, 0.8))
    assert sum(board.shape.area for board in made.boards) == pytest.approx(2 * 0.496 * 0.8 + 2 * 0.976 * 0.496 + 0.8)


def test_no_two_fixed_boards_share_wood() -> None:
    full = Cabinet(
        "rear",
        plinth=Length(0.08),
        top="worktop",
        bays=(Bay("b1", "pair", shelves=2), Bay("b2", "drawers", Length(0.4)), Bay("b3", "sliding", shelves=1)),
    )
    made = carcass(a_cabinet(full, (0.6, 1.6, 0.9)))
    for at, one in enumerate(made.boards):
        for other in made.boards[at + 1 :]:
            (a0, a1), (b0, b1) = one.box, other.box
            shared = [min(a1[k], b1[k]) - max(a0[k], b0[k]) for k in range(3)]
            assert min(shared) < 1e-9, (one.id, other.id)
    for board in made.boards:
        low, high = board.box
        assert min(low) > -1e-9 and all(high[k] <= made.size[k] + 1e-9 for k in range(3)), board.id


def test_rebates_let_boards_in_and_pockets_are_counted() -> None:
    let_in = carcass(a_cabinet(Cabinet("rear", joint="rebate", bays=(Bay("b1", shelves=1),))))
    bottom = next(board for board in let_in.boards if board.id == "bottom")
    assert bottom.box[0][0] == pytest.approx(0.006) and bottom.box[1][0] == pytest.approx(0.994)
    back = next(board for board in let_in.boards if board.id == "back")
    assert back.box[1][0] - back.box[0][0] == pytest.approx(0.988)  # half a board into each end
    pockets = carcass(a_cabinet(Cabinet("rear", joint="pocket holes", bays=(Bay("b1", shelves=1),))))
    assert pockets.pockets == 3 * 2 * 3 and carcass(a_cabinet()).pockets == 0


def test_drawers_are_those_of_the_notes() -> None:
    """400 clear on side slides: 374.6 outside, 350.6 inside; 358 and 334 with slides underneath."""
    wide = 0.4 + 2 * 0.012
    slides: list[tuple[Any, float]] = [("side", 0.3746), ("under-mount", 0.358)]
    for slide, outside in slides:
        thing = a_cabinet(Cabinet("rear", slide=slide, bays=(Bay("b1", "drawers", drawers=2),)), (0.5, wide, 0.6))
        sides = by_name(thing, "drawer side")
        left, right = min(b.box[0][0] for b in sides), max(b.box[1][0] for b in sides)
        assert right - left == pytest.approx(outside)
        ends = by_name(thing, "drawer end")
        assert ends[0].box[1][0] - ends[0].box[0][0] == pytest.approx(outside - 2 * DRAWER_SIDE_M)
        assert len(sides) == 4 and len(by_name(thing, "drawer face")) == 2 and len(by_name(thing, "drawer bottom")) == 2
        assert carcass(thing).slides_m == (0.45, 0.45)  # 500 less face, back and 10 mm
        faces = by_name(thing, "drawer face")
        gap = max(f.box[0][2] for f in faces) - min(f.box[1][2] for f in faces)
        assert gap == pytest.approx(0.002)


@pytest.mark.parametrize(
    ("cabinet", "size", "words"),
    [
        (Cabinet("rear", thick=Length(0.0)), (0.5, 1.0, 0.8), "no thickness"),
        (Cabinet("rear", thick=Length(0.3)), (0.5, 1.0, 0.8), "leave no room"),
        (Cabinet("rear", bays=(Bay("a", width=Length(0.7)), Bay("b", width=Length(0.7)))), (0.5, 1.0, 0.8), "want 1.40 m"),
        (Cabinet("rear", bays=(Bay("a", shelves=20),)), (0.5, 1.0, 0.8), "stand outside"),
        (Cabinet("rear", bays=(Bay("a", "drawers", drawers=12),)), (0.5, 1.0, 0.8), "no room for a box"),
        (Cabinet("rear", bays=(Bay("a", "drawers"),)), (0.2, 1.0, 0.8), "drawers want 250 mm"),
        (Cabinet("rear", bays=(Bay("a", "drawers", Length(0.06)), Bay("b"))), (0.5, 1.0, 0.8), "no room for a drawer"),
        (Cabinet("rear", plinth=Length(0.05), plinth_back=Length(0.6)), (0.5, 1.0, 0.8), "behind its back"),
        (PLAIN, (0.5, 0.0, 0.8), "side of nothing"),
    ],
)
def test_what_cannot_be_built_is_said_and_nothing_goes_to_the_saw(cabinet, size, words) -> None:
    thing = a_cabinet(cabinet, size)
    assert words in METRIC.told(carcass(thing).faults[0]) and carcass(thing).boards == ()
    build = a_home(thing)
    s = study(build, Facts())
    assert "cabinet-wrong" in {one.code for one in findings(s)} or min(size) == 0
    assert not [piece for piece in take_off(build, Facts()).pieces if piece.of == "c1"]
    part = next(p for p in s.parts if p.id == "c1")
    assert part.mass_kg == 20.0  # as typed


def test_an_unknown_board_is_said() -> None:
    s = study(a_home(a_cabinet(Cabinet("rear", board="moonwood"))), Facts())
    wrong = next(one for one in findings(s) if one.code == "cabinet-wrong")
    assert "moonwood" in wrong.says


@pytest.mark.parametrize("opens", ["front", "rear", "left", "right"])
@pytest.mark.parametrize("turn", [0, 90, 180, 270])
def test_boards_stand_in_their_box_whichever_way_it_turns(opens, turn) -> None:
    """Every board's corners fall inside of the standing box, and the door is on the side that it opens to."""
    thing = a_cabinet(Cabinet(opens, bays=(Bay("b1", "hinged left", shelves=1),)), (0.5, 0.9, 0.7), turn=turn)
    build = a_home(thing)
    one = cabinets_of(build, Facts())["c1"]
    assert one.good and not one.by
    lx, ly = (0.5, 0.9) if turn % 180 == 0 else (0.9, 0.5)
    low, high = np.array([2.0, -ly / 2, 0.62]), np.array([2.0 + lx, ly / 2, 0.62 + 0.7])
    for board in one.boards:
        for corner in board.box:
            p = np.array(one.placing.world(corner))
            assert (p >= low - 1e-9).all() and (p <= high + 1e-9).all()
    door = next(board for board in one.boards if board.kind == "door")
    low_corner, high_corner = door.box
    x, y, z = ((a + b) / 2 for a, b in zip(low_corner, high_corner, strict=True))
    middle = np.array(one.placing.world((x, y, z)))
    out = middle - (low + high) / 2
    sides = {"front": (-1, 0), "rear": (1, 0), "left": (0, -1), "right": (0, 1)}
    way = np.array(sides[opens], dtype=float)
    turned = math.radians(turn)
    way = np.array([way[0] * math.cos(turned) - way[1] * math.sin(turned), way[0] * math.sin(turned) + way[1] * math.cos(turned)])
    assert float(np.dot(out[:2], way)) > 0.2


def test_its_weight_and_centre_are_those_of_its_boards() -> None:
    build = a_home(a_cabinet(Cabinet("rear", bays=(Bay("b1", shelves=1),))))
    s = study(build, Facts())
    part = next(p for p in s.parts if p.id == "c1")
    library = library_of(())
    made = carcass(build.stow.things[0])
    bare = sum(b.shape.area * library[b.material].weight_kg_m2(b.thick) for b in made.boards)
    assert part.mass_kg == pytest.approx(bare * (1 + FASTENERS)) and part.source == "computed"
    assert part.y_m == pytest.approx(0.0, abs=1e-9) and 2.0 < part.x_m < 2.5
    assert part.x_m < 2.25  # its back is heavier than its open front
    guessed = apply(build, [set_to("stow.things.c1.source", "weighed")])
    assert next(p for p in study(guessed, Facts()).parts if p.id == "c1").mass_kg == 20.0
    column = s.table.ids.index("c1")
    assert s.table.mass_kg[-1, column] == pytest.approx(part.mass_kg)


def test_in_another_mode_its_centre_goes_with_it() -> None:
    build = a_home(a_cabinet(Cabinet("rear", bays=(Bay("b1", shelves=1),))))
    camp = next(mode for mode in build.stow.modes if not mode.towing)
    moved = apply(build, place_ops(build, camp, build.stow.things[0], (3.0, 0.2, 0.62), 180))
    s = study(moved, Facts())
    home = next(p for p in s.parts if p.id == "c1")
    row = next(k for k, case in enumerate(s.table.cases) if case.mode.id == camp.id)
    at = s.table.ids.index("c1")
    off = home.x_m - 2.25
    assert s.table.x_m[row, at] == pytest.approx(3.25 - off) and s.table.y_m[row, at] == pytest.approx(0.2)


# cut to fit
def test_a_cupboard_under_the_roof_is_cut_to_the_curve() -> None:
    project = demo("marsh-heron")
    cabinet = msgspec.to_builtins(Cabinet("left", bays=(Bay("b1", "open", shelves=1),)))
    body = study(project.build, project.facts).framed.body
    high = body.under + body.height
    spot = {axis: {"si": value, "typed": None} for axis, value in (("x", 3.3), ("y", 0.5), ("z", high - 0.45))}
    thing = {
        "id": "nose",
        "name": "Locker",
        "kind": "cabinet",
        "length": {"si": 0.9},
        "width": {"si": 0.3},
        "height": {"si": 0.4},
        **spot,
        "mass": {"si": 9.0},
        "source": "computed",
        "cabinet": cabinet,
    }
    build = apply(project.build, [add_to("stow.things", thing)])
    one = cabinets_of(build, project.facts)["nose"]
    whole = carcass(next(t for t in build.stow.things if t.id == "nose"))
    assert {what for _, what in one.by} == {"curve"} and one.good
    assert sum(b.shape.area for b in one.boards) < sum(b.shape.area for b in whole.boards) - 1e-3
    # every corner of every board lies inside of the silhouette
    outer = Polygon(body.side.polygon)
    for board in one.boards:
        for corner in board.box:
            x, _, z = one.placing.world(corner)
            assert outer.buffer(1e-6).contains(Polygon([(x, z), (x + 1e-7, z), (x, z + 1e-7)]).centroid) or board.id in dict(one.by)
    hits = [c for c in clashes(build, project.facts, "road")["road"] if c.a == "nose" and c.b == "shell"]
    assert not hits  # its boards are cut; a box of the same size would stand in the roof
    box = apply(build, [set_to("stow.things.nose.cabinet", None)])
    assert [c for c in clashes(box, project.facts, "road")["road"] if c.a == "nose" and c.b == "shell"]


def test_a_wheel_box_takes_its_notch_and_a_cut_drawer_is_spoken_of() -> None:
    wheels = WheelBoxes(Length(0.8), Length(0.3), Length(0.25))
    plain = Cabinet("left", bays=(Bay("b1", "open", shelves=1),))
    thing = a_thing("c1", 20.0, 2.6, 0.6, 0.62, (0.8, 0.5, 0.7), kind="cabinet", cabinet=plain, source="computed")
    build = a_home(thing, wheel_boxes=wheels, wall=Length(0.04))
    one = cabinets_of(build, Facts())["c1"]
    notched = {id for id, what in one.by if what == "wheel box"}
    assert {"left end", "right end", "bottom"} & notched and "top" not in notched
    whole = {b.id: b.shape.area for b in carcass(thing).boards}
    for board in one.boards:
        if board.id in notched:
            assert board.shape.area < whole[board.id]
    drawers = msgspec.structs.replace(thing, cabinet=Cabinet("left", bays=(Bay("b1", "drawers", drawers=3),)))
    s = study(a_home(drawers, wheel_boxes=wheels, wall=Length(0.04)), Facts())
    cut = [one for one in findings(s) if one.code == "front-cut"]
    assert cut and cut[0].where == ("c1",) and "wheel box" in cut[0].says
    clear = msgspec.structs.replace(drawers, y=Length(-0.2))
    s = study(a_home(clear, wheel_boxes=wheels, wall=Length(0.04)), Facts())
    assert "front-cut" not in {one.code for one in findings(s)}


def test_a_gable_slants_what_stands_under_it() -> None:
    tall = a_thing(
        "c1", 20.0, 2.0, 0.55, 0.62, (0.8, 0.6, 1.7), kind="cabinet", cabinet=Cabinet("left", bays=(Bay("b1"),)), source="computed"
    )
    build = a_home(tall, form="gable", wall=Length(0.04))
    one = cabinets_of(build, Facts())["c1"]
    ends = [b for b in one.boards if b.kind == "end"]
    assert ends and all(len(polygons(b.shape)[0].exterior.coords) >= 5 for b in ends)


# to the saw and the report
def test_every_board_goes_to_the_saw_with_its_outline() -> None:
    hole = BoardHole("h1", "sink", "worktop", Length(0.1), Length(0.1), Length(0.35), Length(0.3))
    wires = BoardHole("h2", "wires", "back", Length(0.05), Length(0.4), Length(0.04), Length(0.04), True)
    thing = a_cabinet(Cabinet("rear", plinth=Length(0.06), top="worktop", bays=(Bay("b1", "pair"),), holes=(hole, wires)))
    build = a_home(thing)
    one = cabinets_of(build, Facts())["c1"]
    pieces = {piece.key: piece for piece in take_off(build, Facts()).pieces if piece.of == "c1"}
    assert set(pieces) == {f"c1/{board.id}" for board in one.boards}
    top = pieces["c1/worktop"]
    assert (top.length_m, top.width_m, top.thickness_m) == pytest.approx((1.0, 0.5, 0.018))
    assert top.area_m2 == pytest.approx(0.5 - 0.35 * 0.3) and "Birch" in top.material
    back = next(b for b in one.boards if b.id == "back")
    assert back.shape.area == pytest.approx(1.0 * 0.782 - math.pi * 0.02**2, abs=2e-5)
    end = pieces["c1/left end"]
    assert len(end.outline) == 6  # the plinth's notch
    assert {pieces["c1/left end"].pair, pieces["c1/right end"].pair} & {"c1/left end", "c1/right end", None}


def test_the_report_says_pieces_hatches_strength_and_reach() -> None:
    project = demo("dark-sky")
    s = study(project.build, project.facts)
    told = built_report(s)
    (galley,) = told["cabinets"]
    assert galley["id"] == "t6" and len(galley["pieces"]) > 20 and not galley["faults"]
    assert any(piece["holes_m"] for piece in galley["pieces"] if piece["name"] == "worktop")
    assert {one["id"].split("/")[1] for one in told["strength"]} >= {"base", "bearer", "crank", "rope", "pins"}
    assert all(one["face"] in ("computed", "not checked") for one in told["strength"])
    camp = next(one for one in told["reach"] if one["mode"] != "road")
    assert {one["how"] for one in camp["things"]} <= {"outside", "at once", "after moving", "out of reach"}
    heron = built_report(studied("marsh-heron"))["hatches"][0]
    assert heron["holds"] is False and 0.9 < heron["hold_share"] < 1.0
    assert set(heron["hand_force_n"]) == {"-10", "20", "40"} and len(heron["angles"]) == len(heron["hand_force_n"]["20"])


def test_edges_that_are_seen_by_hand() -> None:
    """1.0 x 0.5 x 0.8 open: two ends of 0.8, bottom and top between them of 0.976 show at the front; the back shows nothing."""
    boards = carcass(a_cabinet()).boards
    seen = {board.id: [(edge.side, round(edge.long_m, 3)) for edge in seen_edges(board, boards)] for board in boards}
    assert seen["left end"] == seen["right end"] == [("front", 0.8)] and seen["back"] == []
    assert seen["bottom"] == [("front", 0.976)] and band_m(boards) == pytest.approx(2 * 0.8 + 2 * 0.976)
    doors = carcass(a_cabinet(Cabinet("rear", bays=(Bay("b1", "hinged left"),)))).boards
    door = next(board for board in doors if board.kind == "door")
    assert {edge.side for edge in seen_edges(door, doors)} == {"top", "bottom", "left", "right"}
