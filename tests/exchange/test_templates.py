"""Full-size templates and papers: tiles read back from the file and measured, router files, the drawing set, model, card, STL."""

from __future__ import annotations

import io
import itertools
import math
import re
import struct
from collections import Counter
from xml.etree import ElementTree

import ezdxf
import msgspec
import numpy as np
import pytest
from ezdxf.filemanagement import read as read_dxf
from pypdf import PdfReader
from shapely.geometry import LineString, MultiLineString, Polygon, box

from tests.builders import METRIC, a_body, a_build, a_hole, a_rig, a_thing
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts, Project, empty_project
from uncle_sled.core.document.stow import Stow
from uncle_sled.core.drawing.cut.templates import FIT_M, _boards, _jig, templates_of
from uncle_sled.core.drawing.cut.tiles import CROSS_M, LABEL, PAPERS, Drawn, map_shapes, name_of, ring_lines, signed_off, tile_pages, tiling
from uncle_sled.core.drawing.page import POINTS_PER_M
from uncle_sled.core.drawing.paper import PAPERS as SHEETS
from uncle_sled.core.drawing.paper import Paper
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.shell.paper_model import model_faces, paper_model, scale_of
from uncle_sled.core.drawing.shop_card import card_lines, shop_card
from uncle_sled.core.errors import FileError, GeometryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.geometry.surfaces import rounded
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.slow import nobody
from uncle_sled.core.studies.cut.numbers import Named
from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.trail import TRAIL
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.drawing_set import drawing_set, mark_of, printed_ops, sheets_of
from uncle_sled.exchange.export import export_bytes, export_job, pages_job
from uncle_sled.exchange.exports import EXPORTS, template_pages
from uncle_sled.exchange.pdf import pdf_bytes
from uncle_sled.exchange.router import LAYERS, router_dxf, router_svg
from uncle_sled.exchange.solid_stl import stl_bytes


def studied(name, *ops):
    project = demo(name)
    return study(apply(project.build, list(ops)), project.facts)


def sheets_read(pdf: bytes) -> list[tuple[dict[str, np.ndarray], list[np.ndarray]]]:
    """Of every page what somebody sees: the crosses by their names, and the chains of the outline [mm]."""
    made = []
    for page in PdfReader(io.BytesIO(pdf)).pages:
        words: list[tuple[str, float, float]] = []

        def heard(t, _c, tm, _f, _s, w=words):
            if t.strip():
                w.append((t.strip(), tm[4], tm[5]))

        page.extract_text(visitor_text=heard)
        chains, arms = [], []
        for dash, path in re.findall(r"\[([\d. ]*)\] 0 d\n[\d. ]+RG\nn ([^S]*?)S", page.get_contents().get_data().decode("latin-1")):
            points = np.array([[float(v) for v in pair] for pair in re.findall(r"(-?[\d.]+) (-?[\d.]+) [ml]", path)])
            long = np.ptp(points, axis=0).max() / POINTS_PER_M
            is_arm = len(points) == 2 and abs(long - 2 * CROSS_M) < 1e-5
            (arms if is_arm else chains if not dash else []).append(points)
        named = {}
        for level in (arm for arm in arms if arm[0, 1] == arm[1, 1]):
            centre = level.mean(axis=0)
            assert any(np.allclose(arm.mean(axis=0), centre, atol=0.01) for arm in arms if arm[0, 0] == arm[1, 0])
            name = min(words, key=lambda word: math.hypot(word[1] - centre[0] - 2, word[2] - centre[1] - 2))
            named[name[0]] = centre / POINTS_PER_M * 1000
        made.append((named, [chain / POINTS_PER_M * 1000 for chain in chains]))
    return made


def taped(sheets: list[tuple[dict[str, np.ndarray], list[np.ndarray]]]) -> list[np.ndarray]:
    """The chains of all sheets as they lie when every cross is laid on that of its name; all of them hang together."""
    at = {0: np.zeros(2)}
    while len(at) < len(sheets):
        k, shift = next(
            (k, at[j] + np.mean([sheets[j][0][name] - sheets[k][0][name] for name in shared], axis=0))
            for k in range(len(sheets))
            if k not in at
            for j in at
            if (shared := sorted(sheets[j][0].keys() & sheets[k][0].keys()))
        )
        at[k] = shift
    for j, k in itertools.combinations(range(len(sheets)), 2):  # they agree all round, and not with one neighbour only
        for name in sheets[j][0].keys() & sheets[k][0].keys():
            assert np.allclose(sheets[j][0][name] + at[j], sheets[k][0][name] + at[k], atol=0.05)
    return [chain + at[k] for k, (_, chains) in enumerate(sheets) for chain in chains]


# tiles
def a_sheet(wide: float, high: float) -> Drawn:
    return Drawn(wide, high, tuple(ring_lines(box(0, 0, wide, high))), ())


def test_the_notes_case_takes_the_fewer_sheets() -> None:
    plan = tiling(Drawn(3.0, 1.5, (), ()), PAPERS["A4"])
    assert (plan.across, plan.up, plan.many) == (17, 6, 102)
    assert plan.step_x == pytest.approx(0.180) and plan.step_y == pytest.approx(0.267)
    assert tiling(a_sheet(0.15, 0.1), PAPERS["A4"]).many == 1
    assert tiling(a_sheet(3.0, 1.5), PAPERS["A3"]).many < 60 and tiling(a_sheet(3.0, 0.5), PAPERS["roll 610 mm"]).many == 1


@pytest.mark.parametrize("paper", PAPERS)
def test_sheets_taped_by_their_crosses_give_the_outline(paper) -> None:
    """Read back from the PDF, laid cross on cross: nothing of a curved side is more than 0.3 mm off, and nothing is missing."""
    side = next(one for one in templates_of(studied("marsh-heron")) if one.id == "side/left side")
    lines = tuple(line for line in side.drawn.lines if line[1] == "ink")
    drawn = Drawn(side.drawn.wide, side.drawn.high, lines, ())
    plan = tiling(drawn, PAPERS[paper])
    pages = tile_pages(drawn, "Side", "", PAPERS[paper], Words(METRIC))
    assert len(pages) == plan.many + 1
    outline = MultiLineString([np.array(points) * 1000 for points, *_ in lines])
    sheets = sheets_read(pdf_bytes(*pages[1:]))
    chains = [chain for chain in taped(sheets) if len(chain) > 2 or abs(np.ptp(chain, axis=0).max() - 100) > 0.01]  # but the bars
    chains = [chain for chain in chains if np.ptp(chain, axis=0).max() > 3]
    left, low, _, _ = MultiLineString(chains).bounds
    laid = MultiLineString([chain - [left, low] for chain in chains])
    assert laid.hausdorff_distance(outline) < 0.3
    for sheet in plan.cells:
        assert all(side > 0 for side in (plan.window(sheet)[2] - plan.window(sheet)[0], plan.window(sheet)[3] - plan.window(sheet)[1]))


def test_only_curves_and_corners_off_square_want_paper() -> None:
    square = msgspec.structs.replace(a_sheet(2.0, 1.0), curves_only=True)
    assert tiling(square, PAPERS["A4"]).many == 0
    slanted = Drawn(2.0, 1.0, tuple(ring_lines(Polygon([(0, 0), (2, 0), (1.5, 1), (0, 1)]))), (), curves_only=True)
    cells = tiling(slanted, PAPERS["A4"]).cells
    assert 2 <= len(cells) <= 4 and all(column >= 5 for column, _ in cells)  # the two corners of the slant, and not its run
    round_hole = rounded(box(0.6, 0.3, 1.4, 0.8), 0.06)
    holed = Drawn(2.0, 1.0, tuple(ring_lines(box(0, 0, 2, 1).difference(round_hole))), (), curves_only=True)
    assert 4 <= tiling(holed, PAPERS["A4"]).many <= 8


def test_sheets_that_stand_alone_say_where_they_lie_and_nothing_stands_on_the_outline() -> None:
    side = next(one for one in templates_of(studied("marsh-heron")) if one.id == "side/left side")
    plan = tiling(side.drawn, PAPERS["A4"])
    assert plan.many < plan.across * plan.up / 2
    pages = tile_pages(side.drawn, side.title, "", PAPERS["A4"], Words(METRIC))
    for cell, page in zip(plan.cells, pages[1:], strict=True):
        left, low, *_ = plan.window(cell)
        texts = [shape for shape in page.shapes if isinstance(shape, Text)]
        assert any(f"{left * 1000:.0f} mm along, {low * 1000:.0f} mm up" in shape.text for shape in texts)
        assert not any(shape.ground for shape in texts)
        outline = [
            LineString(shape.points) for shape in page.shapes if isinstance(shape, Poly) and shape.stroke == "ink" and not shape.dash
        ]
        curves = [one for one in outline if len(one.coords) > 2]
        for text in (shape for shape in texts if shape.size == LABEL):
            half = text.width / 2
            stands = box(text.at[0] - half, text.at[1] - 4, text.at[0] + half, text.at[1] + 4)
            assert not any(stands.intersects(one) for one in curves)


def test_sheets_have_names_of_their_own() -> None:
    names = [name_of(column, row) for row in range(2) for column in range(28)]
    assert names[:2] == ["A1", "B1"] and names[26] == "AA1" and len(set(names)) == len(names)


@pytest.mark.parametrize(
    ("wide", "high", "paper", "words"),
    [
        (0.0, 1.0, PAPERS["A4"], "without a size"),
        (1.0, 1.0, Paper("stamp", 0.03 * POINTS_PER_M, 0.04 * POINTS_PER_M), "smaller than its margins"),
        (1.0, 1.0, Paper("ribbon", 0.03 * POINTS_PER_M, 0.0, roll=True), "narrower than its margins"),
        (40.0, 60.0, PAPERS["A4"], "a roll"),
    ],
)
def test_paper_that_does_not_do_is_said(wide, high, paper, words) -> None:
    with pytest.raises(GeometryError, match=words):
        tiling(a_sheet(wide, high), paper)


@pytest.mark.parametrize("angle", [12.5, 30.1, 63.2, 80.0])
def test_a_jig_stands_off_square_by_its_angle_and_says_both(angle) -> None:
    jig = _jig("j", "Jig", angle, ("1",))
    (_, right, over, _, _) = jig.drawn.lines[0][0]
    assert math.degrees(math.atan2(over[0] - right[0], over[1] - right[1])) == pytest.approx(angle)
    assert jig.drawn.words[0][1] == f"{angle:g}° off square, {90 - angle:g}° to the edge" and jig.drawn.wide < 0.45


def test_a_print_that_is_off_is_not_signed_off() -> None:
    assert "98.7 mm" in signed_off(0.0987) and "27 mm short" in signed_off(0.0987)
    assert signed_off(0.1002) == "" == signed_off(0.0998) and signed_off(0.1003) and signed_off(0.0997)
    assert "nobody measured" in signed_off(None) and "nothing" in signed_off(0.0)


# templates
@pytest.mark.parametrize("name", list(DEMOS))
def test_every_template_is_of_its_true_size(name) -> None:
    s = studied(name)
    made = templates_of(s)
    assert len({one.id for one in made}) == len(made)
    for one in made:
        points = np.array([p for line, *_ in one.drawn.lines for p in line])
        assert points.min() > -1e-9 and points[:, 0].max() == pytest.approx(one.drawn.wide)
        assert points[:, 1].max() == pytest.approx(one.drawn.high)
    side = next((one for one in made if one.id == "side/left side"), None)
    if side is None:  # a side of straight edges and square corners is set out by its page
        assert name != "marsh-heron"
        return
    surface = next(x for x in s.framed.body.surfaces if x.id == "left side")
    left, low, right, high = surface.polygon.bounds
    if "turn it over" in side.side or not s.framed.holes_in("left side"):
        assert side.drawn.wide == pytest.approx(right - left, abs=1e-6)
    assert side.drawn.high == pytest.approx(high - low, abs=0.35)


def test_an_inner_panel_is_the_outline_less_the_build_up_and_its_fit() -> None:
    s = studied("marsh-heron")
    (inner,) = [one for one in templates_of(s) if one.kind == "inner"]
    whole = inside_of(s.build.shell, s.framed.body)
    left, low, right, high = whole.bounds
    assert inner.drawn.wide == pytest.approx(right - left - 2 * FIT_M, abs=2e-3)
    assert inner.drawn.high == pytest.approx(high - low - 2 * FIT_M, abs=2e-3)


def test_left_and_right_are_one_where_they_are_alike_and_two_where_not() -> None:
    alike = study(a_build((), a_rig(), a_body("profile", school="stick timber")), Facts())
    sides = [one for one in templates_of(alike) if one.kind == "side"]
    assert [one.side for one in sides if "side" in one.id] == ["left; turn it over for the right"]
    hole = a_hole("d", "left side", 1.0, 0.3, 0.6, 0.9, kind="door")
    differ = study(a_build((), a_rig(), a_body("profile", school="stick timber", openings=(hole,))), Facts())
    assert {one.side for one in templates_of(differ) if one.id.endswith(" side")} >= {"left", "right"}


def test_tube_tapes_and_jigs_come_from_the_schools() -> None:
    heron = demo("marsh-heron")
    tube = study(next(v for v in heron.variants if v.id == "welded-tube"), heron.facts)
    (tape,) = [one for one in templates_of(tube) if one.kind == "tube"]
    (hoop,) = {m.cuts: m for m in tube.framed.members if m.cuts}.values()
    assert tape.drawn.wide == pytest.approx(hoop.length_m) and len(tape.drawn.lines) == 1 + 2 * len(hoop.cuts)
    sky = demo("dark-sky")
    panels = study(next(v for v in sky.variants if v.id == "panels"), sky.facts)
    jigs = [one for one in templates_of(panels) if one.id.startswith("jig/bevel")]
    assert jigs and all(one.numbers for one in jigs)
    angle = float(jigs[0].id.rpartition("/")[2])
    outline = Polygon(jigs[0].drawn.lines[0][0])
    xs = sorted(x for x, y in outline.exterior.coords if y > 0.05)
    assert xs[-1] - 0.20 == pytest.approx(0.06 * np.tan(np.radians(angle)), abs=1e-9)


def test_pieces_alike_are_one_template_and_a_pair_is_one_turned_over() -> None:
    ring = ((0.0, 0.0), (0.6, 0.0), (0.6, 0.2), (0.2, 0.4), (0.0, 0.4))
    hole = ((0.2, 0.1), (0.3, 0.1), (0.3, 0.2), (0.2, 0.2))

    def a_piece(key: str, pair: str | None = None, holes: tuple = ()) -> Named:  # type: ignore[type-arg]
        return Named(
            Piece(key, "end", "t", "sheet", "Ply 12 mm", 0.012, 0.6, 0.4, "any", 0.2, ring, holes=holes, pair=pair), None, key, "draft"
        )

    named = (a_piece("a", "b"), a_piece("b", "a"), a_piece("c"), a_piece("d"), a_piece("e", holes=(hole,)))
    made = _boards(named, Words(METRIC), set())
    assert [one.numbers for one in made] == [("a", "b"), ("c", "d"), ("e",)] and "pair" in made[0].side
    assert len(made[2].drawn.lines) == 2 and [one.numbers for one in _boards(named, Words(METRIC), {"e"})] == [("a", "b"), ("c", "d")]


# router files
def test_the_router_has_a_layer_a_tool_and_true_sizes() -> None:
    heron = demo("marsh-heron")
    tube = study(next(v for v in heron.variants if v.id == "welded-tube"), heron.facts)
    made = templates_of(tube)
    drawing = read_dxf(io.StringIO(router_dxf(made).decode()))
    assert drawing.audit().errors == [] and drawing.units == ezdxf.units.MM
    space = drawing.modelspace()
    assert {one.dxf.layer for one in space} <= set(LAYERS)
    outside = space.query('LWPOLYLINE[layer=="CUT_OUTSIDE"]')
    assert len(outside) == len(made)
    assert space.query('LWPOLYLINE[layer=="FOLD"]') and space.query('LWPOLYLINE[layer=="CUT_INSIDE"]')
    for one, line in zip(made, outside, strict=True):
        xs = [p[0] for p in line.get_points()]
        assert max(xs) - min(xs) == pytest.approx(one.drawn.wide * 1000, abs=0.5) or one.kind == "side"
    root = ElementTree.fromstring(router_svg(made))
    assert root.get("width", "").endswith("mm") and len(root.findall(".//{*}text")) == len(made)
    assert {group.get("id") for group in root.findall("{*}g")} == {"CUT_OUTSIDE", "CUT_INSIDE", "MARK", "FOLD"}


# exports
@pytest.mark.parametrize("kind", ["templates-pdf", "router-dxf", "router-svg", "set-pdf", "model-pdf", "stl", "card-pdf"])
def test_an_empty_build_is_told_what_is_wanted_and_a_demo_is_written(kind) -> None:
    project = empty_project()
    s = study(project.build, project.facts)
    if kind != "card-pdf":
        with pytest.raises(FileError) as fault:
            export_bytes(kind, "x", s, ())
        assert len(str(fault.value)) > 25
    written = export_bytes(kind, "Dark Sky", studied("dark-sky"), ())
    assert len(written) > 500 and written[:4] in (b"%PDF", b"  0\n", b"<?xm", b"body")
    assert EXPORTS[kind].what_for


def test_what_each_export_is_for_is_said() -> None:
    assert all(one.what and one.what_for and one.ending for one in EXPORTS.values())


def test_one_template_on_other_paper_and_a_job_that_can_be_stopped() -> None:
    s = studied("marsh-heron")
    few = template_pages(s, "Heron", "today", ("inner/side",), "A3")
    inner = next(one for one in templates_of(s) if one.id == "inner/side")
    assert len(few) == tiling(inner.drawn, PAPERS["A3"]).many + 1
    with pytest.raises(FileError, match="no paper"):
        template_pages(s, "Heron", "today", (), "napkin")
    with pytest.raises(FileError, match="nothing to make a template of"):
        template_pages(s, "Heron", "today", ("moon",))
    told = []
    project = demo("marsh-heron")
    made = export_job(project, lambda share, words: told.append(words), "templates-pdf", ("inner/side",), "A3")
    assert made.startswith(b"%PDF") and any("Inside of the side" in words for words in told)
    whole = export_job(project, nobody, "set-pdf", (), "")
    assert whole.startswith(b"%PDF")
    pages = pages_job(project, nobody, "set-pdf", (), "")
    bookmarks = PdfReader(io.BytesIO(whole))
    assert len(pages) == len(bookmarks.pages) == len(bookmarks.outline) and bookmarks.metadata.title.startswith("Marsh Heron: ")
    assert [mark.title for mark in bookmarks.outline] == [page.title for page in pages]
    assert pages_job(project, nobody, "stl", (), "") == ()  # a file without pages has none to look at
    with pytest.raises(FileError):
        export_job(Project("x", (a_build(),), "as-drawn"), nobody, "templates-pdf", (), "A4")


# the set
@pytest.mark.parametrize("name", list(DEMOS))
def test_the_set_numbers_its_pages_and_lists_them(name) -> None:
    s = studied(name)
    pages = drawing_set(s, name, "today")
    first = sum("contents" in page.title for page in pages)
    assert first and all("contents" in page.title for page in pages[:first])
    titles = [page.title for page in pages[first:]]
    assert len(set(titles)) == len(titles)
    listed = [shape.text for page in pages[:first] for shape in page.shapes if isinstance(shape, Text)]
    for k, page in enumerate(pages[first:], first + 1):
        foot = page.shapes[-1]
        assert isinstance(foot, Text) and foot.text.startswith(f"{k} of {len(pages)}, revision A")
    assert str(len(pages)) in listed and sum(text == "new" for text in listed) == len(pages) - first


def test_what_changed_since_it_was_written_down_is_marked_and_nothing_else() -> None:
    s = studied("marsh-heron")
    down = study(apply(s.build, list(printed_ops(s, "Heron"))), s.facts)
    assert {sheet.standing for sheet in sheets_of(down, "Heron", "another day")} == {""}
    moved = study(apply(down.build, [set_to("shell.openings.hatch.strut.force_n", 350.0)]), down.facts)
    changed = [sheet.page.title for sheet in sheets_of(moved, "Heron", "today") if sheet.standing]
    assert changed == ["Heron: Tail hatch on its struts"]
    pages = drawing_set(moved, "Heron", "today")
    feet = [page.shapes[-1].text for page in pages[1:]]
    assert sum("changed" in text for text in feet) == 1 and all("revision B" in text for text in feet)
    plain = pages[1]
    assert mark_of(plain) == mark_of(plain) != mark_of(msgspec.structs.replace(plain, shapes=plain.shapes[:-1]))


# paper model
@pytest.mark.parametrize("name", list(DEMOS))
@pytest.mark.parametrize("letter", ["A4", "Letter"])
def test_the_paper_model_has_the_bodys_areas_and_stays_on_its_paper(name, letter) -> None:
    s = studied(name)
    pages = paper_model(s, name, "today", SHEETS[letter])
    n = int(pages[0].title.rpartition("1 : ")[2].split(",")[0])
    faces = model_faces(s, n)
    areas = {surface.id: surface.polygon.area for surface in s.framed.body.surfaces}
    assert {face.id for face in faces} == set(areas)
    for face in faces:
        assert face.outline.area * n * n == pytest.approx(areas[face.id], rel=1e-9)
        for tab, other in face.tabs:
            assert other in areas and tab.intersection(face.outline).area < 0.05 * tab.area
    drawn = [shape for page in pages for shape in page.shapes if isinstance(shape, Poly) and shape.id in areas]
    assert {shape.id for shape in drawn} == set(areas)
    for shape in drawn:
        assert Polygon(shape.points).area / POINTS_PER_M**2 * n * n == pytest.approx(areas[shape.id], rel=1e-6)
    for page in pages:
        for mark in page.shapes:
            for x, y in mark.points if isinstance(mark, Poly) else ():
                assert -0.5 <= x <= page.width + 0.5 and -0.5 <= y <= page.height + 0.5
    assert scale_of(s.framed.body, 0.01, 0.01) is None


# STL
def volume_of(stl: bytes) -> float:
    """By the divergence theorem, of a closed solid [m3]."""
    many = struct.unpack("<I", stl[80:84])[0]
    data = np.frombuffer(stl[84:], dtype=[("n", "<f4", 3), ("c", "<f4", (3, 3)), ("r", "<u2")])
    assert len(data) == many
    c = data["c"].astype(float) / 1000
    return float(np.einsum("ij,ij->i", c[:, 0], np.cross(c[:, 1], c[:, 2])).sum() / 6)


def edges_that_gape(stl: bytes) -> int:
    """Edges of the file that have no other one the other way: none in a closed skin that looks outward."""
    data = np.frombuffer(stl[84:], dtype=[("n", "<f4", 3), ("c", "<f4", (3, 3)), ("r", "<u2")])
    seen: Counter[tuple[tuple[int, ...], tuple[int, ...]]] = Counter()
    for triangle in np.round(data["c"].astype(float) * 100).astype(int).tolist():
        for k in range(3):
            seen[tuple(triangle[k]), tuple(triangle[(k + 1) % 3])] += 1
    return sum(1 for (a, b), many in seen.items() if seen.get((b, a), 0) != many)


def test_boxes_in_the_stl_have_their_volume_and_the_body_its_own() -> None:
    build = a_build((a_thing("t", size=(0.5, 0.4, 0.3)),), a_rig())
    assert volume_of(stl_bytes(study(build, Facts()))) == pytest.approx(0.06, rel=1e-5)
    empty = stl_bytes(study(a_build((), a_rig(), a_body("box")), Facts()))
    assert volume_of(empty) == pytest.approx(4.0 * 2.0 * 2.1, rel=1e-6) and edges_that_gape(empty) == 0
    window = stl_bytes(study(a_build((), a_rig(), a_body("box", openings=(a_hole("w", "left side", 1.0, 0.8, 0.6, 0.5),))), Facts()))
    assert volume_of(window) == pytest.approx(16.8 - 0.6 * 0.5 * 0.01, rel=1e-6) and edges_that_gape(window) == 0


@pytest.mark.parametrize("name", list(DEMOS))
def test_the_body_of_every_demo_is_a_closed_solid_of_its_volume(name) -> None:
    s = studied(name)
    bare = study(msgspec.structs.replace(s.build, stow=Stow(modes=s.build.stow.modes)), s.facts)
    written, body = stl_bytes(bare), bare.framed.body
    assert edges_that_gape(written) == 0
    whole = body.side.area_m2 * body.width
    if s.build.shell.form == "gable":  # the side is as high as its ridge: take off what the slopes do
        eaves = next(one for one in body.surfaces if one.id == "left side").polygon.bounds[3]
        whole -= (body.height - eaves) * body.width / 2 * body.length
    assert volume_of(written) == pytest.approx(whole, rel=0.02)
    assert volume_of(written) < whole  # its openings are let in


# shop card
@pytest.mark.parametrize("stop", TRAIL)
def test_the_shop_card_is_large_and_says_its_answer(stop) -> None:
    for name in DEMOS:
        s = studied(name)
        found = findings(s)
        page = shop_card(stop, s, found, name, "today")
        lines = card_lines(stop, s, found)
        assert 2 <= len(lines) <= 5 and lines[-1].name == "To settle"
        sizes = [shape.size for shape in page.shapes if isinstance(shape, Text)]
        assert min(sizes) >= 14 and sorted(sizes)[-2] >= 26
        for shape in page.shapes:
            if isinstance(shape, Text):
                reach = shape.at[0] + (shape.width if shape.anchor == "left" else 0.0)
                assert reach <= page.width + 1 and 0 < shape.at[1] < page.height
    empty = empty_project()
    assert shop_card("Nowhere", study(empty.build, empty.facts), (), "x", "today").title.endswith(TRAIL[0])


def test_the_map_draws_every_tile_once() -> None:
    drawn = a_sheet(1.0, 0.1)
    plan = tiling(drawn, PAPERS["A4"])
    shapes = map_shapes(drawn, plan, 300.0, 0.0, 0.0)
    boxes = [shape for shape in shapes if isinstance(shape, Poly) and shape.closed]
    assert len(boxes) == plan.many and SCHOOLS


@pytest.mark.parametrize("paper", PAPERS)
def test_the_map_of_the_sheets_is_one_sheet_of_that_paper(paper) -> None:
    """All of it within the edge: a map that is larger than its paper is an empty page."""
    side = next(one for one in templates_of(studied("marsh-heron")) if one.id == "side/left side")
    page = tile_pages(side.drawn, side.title, "", PAPERS[paper], Words(METRIC))[0]
    sheet = PAPERS["A4"] if PAPERS[paper].roll else PAPERS[paper]
    assert (page.width, page.height) == (max(sheet.wide, sheet.high), min(sheet.wide, sheet.high))
    assert page.width < 1300, "points: no page of a printer is half a metre wide"
    for shape in page.shapes:
        at = [shape.at] if isinstance(shape, Text) else shape.points if isinstance(shape, Poly) else [shape.centre]
        assert all(0 <= x <= page.width and 0 <= y <= page.height for x, y in at)
