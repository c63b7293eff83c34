"""Take-off: what the body is made of comes back as pieces, to the square millimetre."""

from __future__ import annotations

import random
import re
from collections import Counter, defaultdict
from itertools import combinations
from typing import Any

import msgspec
import pytest
from shapely import MultiPoint, box
from shapely.geometry import Polygon
from shapely.ops import unary_union

from tests.builders import a_body, a_build, a_hole, a_project, a_thing
from tests.cutting import wrong_with
from uncle_sled.cli import main
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.joinery import BedBase
from uncle_sled.core.document.project import Build, Facts, OwnMaterial, empty_project
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer, Relining, Section, Split
from uncle_sled.core.drawing.cut.cut_sheets import cut_sheets
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.engine import forget
from uncle_sled.core.geometry.surfaces import net
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.cut.cut_from_stock import Patience, plan_of, sizes_sold
from uncle_sled.core.studies.cut.handed import handed
from uncle_sled.core.studies.cut.lots import wanted_of
from uncle_sled.core.studies.cut.piece import Piece, polygons_of
from uncle_sled.core.studies.cut.skins import panels_of, stops_of
from uncle_sled.core.studies.cut.take_off import SHEET_M, take_off
from uncle_sled.core.studies.cut.wanted import Wanted
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.cut_lists import read_lists
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.pieces_list import pieces_csv

BUILT = ("marsh-heron", "orchard-keeper")


def taken(name: str) -> tuple[Build, Facts, dict[str, Piece]]:
    project = demo(name)
    off = take_off(project.build, project.facts)
    return project.build, project.facts, {piece.key: piece for piece in off.pieces}


@pytest.mark.parametrize("name", BUILT)
def test_every_stick_is_a_bar_of_its_length(name: str) -> None:
    build, facts, pieces = taken(name)
    members = framed_of(build, facts).members
    faces = {member.face for member in members}  # the frame's bars and those of a bed are by themselves
    bars = {key: one for key, one in pieces.items() if one.kind == "bar" and one.name != "board" and not one.joined and one.of in faces}
    parted = {key.rpartition("/part ")[0] for key, one in pieces.items() if one.kind == "bar" and one.joined and one.name != "board"}
    assert set(bars) | parted == {member.id for member in members}
    for member in members:
        one = bars.get(member.id)
        if one is None:
            parts = [p for key, p in pieces.items() if key.startswith(f"{member.id}/part ")]
            assert sum(p.length_m for p in parts) == pytest.approx(member.length_m) and len(parts) > 1
            continue
        assert one.length_m == member.length_m and one.ends_deg == member.ends_deg
        assert f"{max(member.section_m) * 1e3:.4g} x" in one.material


@pytest.mark.parametrize("name", BUILT)
def test_skins_cover_their_faces_and_no_panel_is_larger_than_a_sheet(name: str) -> None:
    build, facts, pieces = taken(name)
    framed = framed_of(build, facts)
    long, short = SHEET_M[build.brief.region == "North American"]
    assert framed.body is not None
    for face in build.shell.faces:
        for surface in framed.body.of(face.kind):
            whole = net(surface.polygon, framed.sawn_in(surface.id)).area
            for layer in face.layers:
                mine = [one for key, one in pieces.items() if key.startswith(f"{surface.id}/{layer.id}/") and one.kind == "sheet"]
                if mine:
                    assert sum(one.area_m2 for one in mine) == pytest.approx(whole, abs=1e-3)
                for one in mine:
                    assert one.length_m >= one.width_m
                    most = one.sold_m or (long, short)  # ribbed sheets come to length
                    assert one.length_m <= most[0] + 1e-6 and one.width_m <= most[1] + 1e-6
                    assert not one.outline or Polygon(one.outline).is_valid


@pytest.mark.parametrize("name", BUILT)
def test_fill_and_sticks_share_the_face(name: str) -> None:
    build, facts, pieces = taken(name)
    framed = framed_of(build, facts)
    fills: dict[str, float] = defaultdict(float)
    for one in pieces.values():
        if one.kind == "fill":
            fills[one.of] += one.area_m2
    assert fills
    for surface in framed.body.surfaces:  # type: ignore[union-attr]
        if fills[surface.id]:
            sticks = [member.shape for member in framed.on(surface.id)]
            ring = unary_union([Polygon(part.exterior) for part in polygons_of(unary_union(sticks).buffer(0.001))])
            whole = net(surface.polygon, framed.holes_in(surface.id))
            within = whole.intersection(ring) if ring.area > 0.5 * whole.area else whole  # past the ring stands the next face
            assert fills[surface.id] + sum(stick.area for stick in sticks) == pytest.approx(
                within.area, rel=0.12
            )  # 3 mm over, thin headers


def test_fill_is_cut_bay_by_bay_and_no_comb() -> None:
    _, _, pieces = taken("orchard-keeper")
    fills = [one for one in pieces.values() if one.kind == "fill"]
    assert len(fills) > 100 and max(len(one.outline) for one in fills) <= 12
    for one in fills:
        if one.of in ("left side", "right side", "floor"):  # square frames: every bay is a rectangle
            assert one.area_m2 == pytest.approx(one.length_m * one.width_m, abs=2e-4), one.key


@pytest.mark.parametrize("name", BUILT)
def test_left_and_right_are_each_others_mirror(name: str) -> None:
    _, _, pieces = taken(name)
    paired = [one for one in pieces.values() if one.of == "left side" and one.pair]
    assert paired
    for one in paired:
        other = pieces[one.pair or ""]
        assert other.of == "right side" and other.pair == one.key and other.material == one.material
        assert (other.length_m, other.width_m) == pytest.approx((one.length_m, one.width_m), abs=2e-3)


def test_a_bare_teardrop_has_its_skins_in_pairs() -> None:
    layers = (Layer("l1", "birch-ply", Length(0.009)),)
    faces = (Face("l", "left side", "Left", layers=layers), Face("r", "right side", "Right", layers=layers))
    build = a_build(shell=a_body("profile", "stick timber", faces=faces))
    pieces = {one.key: one for one in take_off(build, Facts()).pieces if one.kind == "sheet"}
    assert len(pieces) > 4 and any(one.outline for one in pieces.values())
    assert all(one.pair is not None and pieces[one.pair].pair == one.key for one in pieces.values())


def test_a_seam_without_a_stick_is_said_and_one_with_is_on_its_middle() -> None:
    project = demo("orchard-keeper")
    off = take_off(project.build, project.facts)
    framed = framed_of(project.build, project.facts)
    assert {(one.surface, one.along) for one in off.unbacked} == {("floor", "t")}
    walls = {m.shape.centroid.x for m in framed.on("left side") if not m.along_s}
    panels = [one for one in off.pieces if one.key.startswith("left side/l3/")]
    assert len(panels) > 4
    seams = [one for one in off.unbacked if one.surface == "left side"]
    assert walls and not seams


def test_rolls_are_areas_boards_are_counted_and_what_nobody_said_is_told() -> None:
    project = demo("orchard-keeper")
    off = take_off(project.build, project.facts)
    forms = {(one.material, one.form) for one in off.spreads}
    assert ("Polyester membrane", "roll") in forms
    sided = [one for one in off.pieces if one.name == "board" and one.of == "left side"]
    framed = framed_of(project.build, project.facts)
    wall = next(one for one in framed.body.surfaces if one.id == "left side")  # type: ignore[union-attr]
    assert sum(one.area_m2 for one in sided) == pytest.approx(net(wall.polygon, framed.sawn_in("left side")).area)
    assert max(one.width_m for one in sided) <= 0.135 + 1e-9
    assert not off.unsaid
    own = OwnMaterial("hemp", "Hemp board", density_kg_m3=300.0)
    facts = msgspec.structs.replace(project.facts, materials=(own,))
    layer = project.build.shell.faces[1].layers[0]
    told = set_to(f"shell.faces.{project.build.shell.faces[1].id}.layers.{layer.id}.material", "hemp")
    build = apply(project.build, [told])
    assert any("Hemp board: nobody said" in one for one in take_off(build, facts).unsaid)


def test_a_bought_shell_gives_only_what_comes_in_and_a_bare_bed_nothing() -> None:
    _, _, pieces = taken("rosin-box")
    beds = {thing.id for thing in demo("rosin-box").build.stow.things if thing.base is not None}
    came_in = {key: piece for key, piece in pieces.items() if key.split("/")[0] not in beds and not piece.lining}
    assert came_in and all(key.split("/")[1] in ("header", "bridge", "jamb") for key in came_in)
    build, facts, boxed = taken("dark-sky")  # each face is one bought panel; its galley is of boards, its bed on bearers
    things = {thing.id for thing in build.stow.things}
    of_body = {key: piece for key, piece in boxed.items() if key.split("/")[0] not in things and piece.name != "corner profile"}
    assert {key.split("/")[1] for key in of_body} == {"panel"} and len(of_body) == len(framed_of(build, facts).body.surfaces)
    assert any(key.startswith("t6/") for key in boxed)
    assert take_off(empty_project().build, Facts()).pieces == ()


@pytest.mark.parametrize("name", BUILT)
def test_the_list_holds_every_piece_and_can_be_cut(name: str, tmp_path) -> None:
    project = demo(name)
    off = take_off(project.build, project.facts)
    wanted = wanted_of(off)
    assert sum(one.qty for one in wanted) == sum(one.kind != "fill" for one in off.pieces)
    assert len({one.id for one in wanted}) == len(wanted)
    stocks = sizes_sold(wanted, project.build.brief.region == "North American")
    assert wrong_with(wanted, stocks, 0.0032) == ()
    # written as a list it is read as the same
    (tmp_path / "p.csv").write_text(pieces_csv(study(project.build, project.facts)))
    (tmp_path / "s.csv").write_text("id,kind,material,length_mm,width_mm\ns,bar,x,1000,\n")
    back, _ = read_lists(tmp_path / "p.csv", tmp_path / "s.csv", 0.0032, 0.0)
    assert [(one.id, one.qty, one.grain, len(one.outline)) for one in back] == [
        (one.id, one.qty, one.grain, len(one.outline)) for one in wanted
    ]
    assert all(a.length_m == pytest.approx(b.length_m, abs=1e-5) for a, b in zip(back, wanted, strict=True))


def test_the_pages_for_the_saw_hold_every_piece_and_say_what_does_not_fit() -> None:
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    made = plan_of(project.build, project.facts)
    plan, pieces = made.plan, made.pieces
    forget()
    assert plan_of(project.build, project.facts) == made  # the same again
    cut = Counter(dict(plan.unplaced))
    for sheets in plan.sheets:
        for layout in sheets.layouts:
            cut.update(one.piece for one in layout.pieces)
    for bars in plan.bars:
        for pattern in bars.patterns:
            for name in pattern.pieces:
                cut[name] += pattern.times
    assert cut == Counter({one.id: one.qty for one in pieces})
    pages = cut_sheets(s, "Heron", "today")
    drawn = {shape.id for page in pages for shape in page.shapes if isinstance(shape, Poly) and shape.id}
    hand = handed(made, project.build, project.facts)
    first_of = {one.piece.key for on in hand.sheets for one in on.named} | {some[0].piece.key for on in hand.bars for some in on.named}
    assert drawn == first_of
    first = [shape.text for shape in pages[0].shapes if isinstance(shape, Text)]
    for name, many in plan.unplaced:
        assert any(f"Not placed: {many} of {name}" in text for text in first)
    for page in pages:
        for shape in page.shapes:
            points = shape.points if isinstance(shape, Poly) else ()
            assert all(0 <= x <= page.width and 0 <= y <= page.height for x, y in points)
    assert cut_sheets(study(empty_project().build, Facts()), "Empty", "today") == ()


# how a face is parted


def test_a_length_is_parted_at_the_furthest_line_that_a_sheet_reaches() -> None:
    lines = (0.4, 0.8, 1.2, 1.6, 2.0, 2.4)
    assert stops_of(0.0, 1.0, 1.22, lines) == ([(0.0, 1.0)], [])
    parts, bare = stops_of(0.0, 3.0, 1.22, lines)
    assert parts == [(0.0, 1.2), (1.2, 2.4), (2.4, 3.0)] and not bare
    parts, bare = stops_of(0.0, 3.0, 1.22, (1.3, 2.6))
    assert parts == [(0.0, 1.22), (1.22, 2.44), (2.44, 3.0)] and bare == [1.22, 2.44]
    assert sum(b - a for a, b in parts) == pytest.approx(3.0)
    parts, bare = stops_of(-0.04, 2.5, 1.22, ())
    assert bare == [1.18, 2.4] and parts[-1] == (2.4, 2.5)


@pytest.mark.parametrize("seed", range(15))
def test_panels_are_the_shape_again_and_fit_a_sheet(seed: int) -> None:
    rng = random.Random(seed)
    corners = [(rng.uniform(0, 7), rng.uniform(0, 3)) for _ in range(9)]
    shape = MultiPoint(corners).convex_hull.difference(box(2.0, 0.5, 2.8, 1.5))
    upright = tuple(0.4 * k for k in range(20)) if rng.random() < 0.7 else ()
    panels = panels_of(shape, (2.44, 1.22), upright, ())
    assert sum(part.area for part, _ in panels) == pytest.approx(shape.area)
    for part, _ in panels:
        x0, y0, x1, y1 = part.bounds
        assert min(x1 - x0, y1 - y0) <= 1.22 + 1e-6 and max(x1 - x0, y1 - y0) <= 2.44 + 1e-6
    for (one, _), (other, _) in combinations(panels, 2):
        assert one.intersection(other).area < 1e-9


def test_a_small_face_is_one_piece_whichever_way_it_lies() -> None:
    assert len(panels_of(box(0, 0, 1.2, 2.4), (2.44, 1.22), (), ())) == 1
    assert len(panels_of(box(0, 0, 2.4, 1.2), (2.44, 1.22), (), ())) == 1
    assert panels_of(Polygon(), (2.44, 1.22), (), ()) == []


def test_what_is_kept_is_what_is_fresh_after_edits() -> None:
    project = demo("marsh-heron")
    build, facts = project.build, project.facts
    before = take_off(build, facts)
    assert take_off(build, facts) is before
    layer = build.shell.faces[0].layers[-1]
    path = f"shell.faces.{build.shell.faces[0].id}.layers.{layer.id}.thickness"
    thicker = apply(build, [set_to(path, {"si": 0.012})])
    changed = take_off(thicker, facts)
    forget()
    assert take_off(thicker, facts) == changed != before
    assert {one.material for one in changed.pieces} - {one.material for one in before.pieces} == {"Light hardwood plywood 12 mm"}


@pytest.mark.parametrize("name", BUILT)
def test_fill_is_a_little_larger_than_its_bay_and_skins_keep_their_grain(name: str) -> None:
    build, facts, pieces = taken(name)
    framed = framed_of(build, facts)
    swept = {surface.id for surface in framed.body.surfaces if surface.swept}  # type: ignore[union-attr]
    for one in pieces.values():
        if one.kind == "sheet" and one.of in swept and "plywood" in one.material:
            assert one.grain == "along"
        if one.kind == "fill":
            assert one.area_m2 >= 0.0009 and one.thickness_m > 0.01


def test_a_drawn_body_goes_to_the_saw_as_a_file(tmp_path) -> None:
    """From a new body over its frame and layers to pages for the saw, and as a list that the command cuts."""
    layers = (Layer("l1", "softwood-ply", Length(0.009)), Layer("l2", "xps", Length(0.045), 0.12))
    kinds: list[Any] = ["floor", "left side", "right side", "roof", "front", "rear"]
    faces = tuple(Face(f"f{k}", kind, kind, layers=layers) for k, kind in enumerate(kinds))
    project = a_project()
    project = msgspec.structs.replace(
        project,
        variants=(
            a_build(shell=a_body("box", "stick timber", faces=faces, openings=(a_hole("d", "left side", 2.0, 0.3, 0.7, 1.5, "door"),))),
        ),
    )
    sled_file.save(project, tmp_path / "van.sled")
    assert main(["export", str(tmp_path / "van.sled"), "--to", "cut-pdf"]) == 0
    assert main(["export", str(tmp_path / "van.sled"), "--to", "pieces"]) == 0
    data = (tmp_path / "van-cut.pdf").read_bytes()
    s = study(project.build, project.facts)
    assert data.startswith(b"%PDF") and data.count(b"/Type /Page\n") == len(cut_sheets(s, "x", "today"))
    (tmp_path / "stock.csv").write_text(
        "id,kind,material,length_mm,width_mm\n"
        + "".join(
            f"{k},{one.kind},{one.material},{'2440,1220' if one.kind == 'sheet' else '4800,'}\n"
            for k, one in enumerate({one.material: one for one in wanted_of(take_off(project.build, project.facts))}.values())
        )
    )
    pieces = next(tmp_path.glob("van-pieces*.csv"))
    assert main(["cut", str(pieces), "--stock", str(tmp_path / "stock.csv"), "--seconds", "0.5"]) == 0


def test_pages_in_feet_say_which_sheets_are_cut_alike() -> None:
    project = demo("orchard-keeper")
    s = study(project.build, project.facts)
    plan = plan_of(project.build, project.facts).plan
    pages = cut_sheets(s, "Keeper", "today")
    assert {(page.width, page.height) for page in pages} == {(792.0, 612.0)}
    words = [shape.text for page in pages for shape in page.shapes if isinstance(shape, Text)]
    assert any("8' x 4'" in text for text in words) and not any(" mm x" in text for text in words)
    told = {page.title for page in pages if re.search(r"sheet \d+ of \d+$", page.title)}
    assert len(told) == sum(sheets.used for sheets in plan.sheets) and any("cut like sheet" in text for text in words)
    first = [shape.text for shape in pages[0].shapes if isinstance(shape, Text)]
    assert any("no stick behind" in text for text in first) and any("bays by knife" in text for text in first)
    shown = Words(project.build.brief.reading.shown())
    for sheets in plan.sheets:
        assert any(text.startswith(f"{shown.material(sheets.material)}: {sheets.used} sheet") for text in first)


def test_patience_ends_after_its_questions_whatever_it_is_asked() -> None:
    patience = Patience(2)
    assert [patience(share) for share in (0.1, 1.0, 0.5)] == [False, False, True]
    assert sizes_sold((), True) == ()


def test_usual_sizes_are_those_of_the_practice() -> None:
    pieces = (Wanted("a", "sheet", "ply", 1.0, 0.5), Wanted("b", "bar", "pine", 1.0), Wanted("c", "bar", "pine", 2.0))
    metric, imperial = sizes_sold(pieces, False), sizes_sold(pieces, True)
    assert len(metric) == len(imperial) == 5 and len({one.id for one in metric}) == 5
    assert (metric[0].length_m, metric[0].width_m) == (2.44, 1.22)
    assert imperial[0].length_m == pytest.approx(8 * 0.3048) and imperial[-1].length_m == pytest.approx(16 * 0.3048)
    assert all(one.price is None and one.qty is None for one in (*metric, *imperial))


def test_a_bed_of_slats_and_one_of_a_board_are_cut_as_they_are_drawn() -> None:
    """1.9 x 1.3 m: slats of 70 with gaps of 60 across 1.3: (1300 + 60) / 130 = 10; a board of that is parted, no sheet is so wide."""
    bearers: dict[str, Any] = {"bearer_thick": Length(0.038), "bearer_deep": Length(0.09), "bearers": 3}
    bed = a_thing("b", size=(1.9, 1.3, 0.3), kind="bed", base=BedBase("slats", **bearers))
    pieces = take_off(a_build([bed], shell=a_body()), Facts()).pieces
    slats, under = ([one for one in pieces if one.name.endswith(role)] for role in ("slat", "bearer"))
    assert len(slats) == 10 and {(one.length_m, one.width_m, one.thickness_m) for one in slats} == {(1.9, 0.07, 0.012)}
    assert len(under) == 3 and {(one.length_m, one.width_m, one.thickness_m) for one in under} == {(1.3, 0.09, 0.038)}
    board = msgspec.structs.replace(bed, base=BedBase("board"))
    parts = [one for one in take_off(a_build([board], shell=a_body()), Facts()).pieces if one.kind == "sheet"]
    assert len(parts) == 2 and sum(one.area_m2 for one in parts) == pytest.approx(1.9 * 1.3)
    assert take_off(a_build([msgspec.structs.replace(board, taken_out=True)], shell=a_body()), Facts()).pieces == ()


def test_a_face_is_parted_where_its_sections_are_drawn_and_nowhere_else() -> None:
    """4 m with lines at 1.0, 2.2 (through a window from 2.0 to 2.8) and 3.9 (0.1 m from the end): two sections, and so is all that is cut."""
    layers = (Layer("l1", "birch-ply", Length(0.009)), Layer("l2", "xps", Length(0.07), framing=0.1))
    faces = (Face("l", "left side", "Left", layers=layers),)
    splits = tuple(Split(f"s{k}", "left side", Length(at)) for k, at in enumerate((1.0, 2.2, 3.9)))
    window = (a_hole("w", "left side", 2.0, 0.8, 0.8, 0.6),)
    build = a_build(shell=a_body("box", "stick timber", faces=faces, splits=splits, openings=window))
    s = study(build, Facts())
    made = sections_of(s)
    left = [section for section in made.sections if section.face == "left side"]
    edge = left[0].shape.bounds[2]
    assert len(left) == 2 and edge == pytest.approx(left[0].shape.bounds[0] + 1.0) and len(made.faults) == 2
    pieces = [piece for piece in take_off(build, Facts()).pieces if piece.of == "left side" and piece.kind in ("sheet", "fill")]
    assert pieces
    for piece in pieces:
        low, high = (f(x for x, _ in piece.place) for f in (min, max))
        assert high <= edge + 0.004 or low >= edge - 0.004, piece.key
    plates = [piece.length_m for piece in take_off(build, Facts()).pieces if "/part " in piece.key and piece.of == "left side"]
    assert plates and min(plates) == pytest.approx(1.0, abs=0.15)


def test_a_kept_lining_is_cut_bought_and_planned_by_hand() -> None:
    """A side of 4.0 x 2.1 m: rows at 0.0225 + k 0.4 up to 2.0775 are six of 4.0 m; 8.4 m2 of liner in sheets; foam between the posts."""
    old = Relining(
        "n1",
        "left side",
        out_material="light-ply",
        out_thickness=Length(0.006),
        foam="xps",
        foam_thickness=Length(0.025),
        furring=Section(Length(0.045), Length(0.02)),
        furring_pitch=Length(0.4),
        liner="birch-ply",
        liner_thickness=Length(0.006),
    )
    build = a_build(shell=a_body("box", "bought shell", relined=(old,)))
    lined = [piece for piece in take_off(build, Facts()).pieces if piece.lining]
    rows = [piece for piece in lined if piece.name == "furring"]
    assert len(rows) == 6 and all(piece.length_m == pytest.approx(4.0) and piece.width_m == pytest.approx(0.045) for piece in rows)
    liner = [piece for piece in lined if piece.kind == "sheet"]
    assert sum(piece.area_m2 for piece in liner) == pytest.approx(8.4) and all(piece.length_m <= 2.44 + 1e-9 for piece in liner)
    posts = unary_union([member.shape for member in framed_of(build, Facts()).on("left side")])
    foam = [piece for piece in lined if piece.kind == "fill"]
    assert len(foam) > 4 and all(Polygon(piece.place).buffer(-0.005).intersection(posts).area < 1e-6 for piece in foam)
    tasks = {task.id: task for task in tasks_of(build, Facts())}
    assert tasks["strip"].quantity.startswith("8 m², a heap of ") and tasks["furring"].quantity == "6 rows"
    assert set(tasks["liner"].after) >= {"foam", "furring"} and "sheathing" not in tasks and "frame-walls" not in tasks
    assert tasks["strip"].quantity.endswith(Words(Shown()).kg(8.4 * 0.006 * 540))
    gone = a_build(shell=a_body("box", "bought shell"))
    assert not any(piece.lining for piece in take_off(gone, Facts()).pieces) and "strip" not in {
        task.id for task in tasks_of(gone, Facts())
    }
