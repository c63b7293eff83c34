"""Full-size templates and papers: tiles read back from the file and measured, router files, the drawing set, model, card, STL."""

from __future__ import annotations

import base64
import io
import re
import struct
import zlib
from xml.etree import ElementTree

import ezdxf
import msgspec
import numpy as np
import pytest
from shapely.geometry import Polygon

from tests.builders import a_body, a_build, a_hole, a_rig, a_thing
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts, Project, empty_project
from uncle_sled.core.drawing.cut.templates import FIT_M, templates_of
from uncle_sled.core.drawing.cut.tiles import MARGIN_M, PAPERS, Drawn, Paper, map_shapes, name_of, signed_off, tile_pages, tiling
from uncle_sled.core.drawing.page import POINTS_PER_M
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.shell.paper_model import model_faces, paper_model, scale_of
from uncle_sled.core.drawing.shop_card import card_lines, shop_card
from uncle_sled.core.errors import FileError, GeometryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.frame_body import SCHOOLS
from uncle_sled.core.parts.inside import inside_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.slow import nobody
from uncle_sled.core.trail import TRAIL
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.drawing_set import drawing_set, mark_of, printed_ops, sheets_of
from uncle_sled.exchange.export import export_bytes, export_job
from uncle_sled.exchange.exports import EXPORTS, template_pages
from uncle_sled.exchange.pdf import pdf_bytes
from uncle_sled.exchange.router import LAYERS, router_dxf, router_svg
from uncle_sled.exchange.solid_stl import stl_bytes


def studied(name, *ops):  # type: ignore[no-untyped-def]
    project = demo(name)
    return study(apply(project.build, list(ops)), project.facts)


def line_of(long: float) -> Drawn:
    """One level edge."""
    return Drawn(long, 0.1, ((((0.0, 0.05), (long, 0.05)), "ink", ()),), ())


def streams(pdf: bytes) -> list[bytes]:
    """The pages' own instructions, as a reader of the file sees them."""
    made = []
    for found in re.finditer(rb"stream\r?\n(.*?)endstream", pdf, re.S):
        body = found[1].strip()
        try:
            if body.endswith(b"~>"):
                body = (
                    base64.a85decode(body, adobe=not body.startswith(b"<~") and False, ignorechars=b" \n\r\t")
                    if False
                    else base64.a85decode(body[:-2])
                )
            made.append(zlib.decompress(body))
        except (ValueError, zlib.error):
            continue
    return [one for one in made if b" l" in one and b" m" in one]


def lengths_in(page: bytes) -> list[float]:
    """Lengths of the straight lines of a page [points]."""
    number = rb"(-?[\d.]+)"
    found = re.findall(number + rb" " + number + rb" m\s+" + number + rb" " + number + rb" l", page)
    return [float(np.hypot(float(c) - float(a), float(d) - float(b))) for a, b, c, d in found]


# tiles
def test_the_notes_case_takes_the_fewer_sheets() -> None:
    plan = tiling(3.0, 1.5, PAPERS["A4"])
    assert (plan.across, plan.up, plan.many) == (17, 6, 102)
    assert plan.step_x == pytest.approx(0.180) and plan.step_y == pytest.approx(0.267)
    assert tiling(0.15, 0.1, PAPERS["A4"]).many == 1
    assert tiling(3.0, 1.5, PAPERS["A3"]).many < 60 and tiling(3.0, 0.5, PAPERS["roll 610 mm"]).many == 1


@pytest.mark.parametrize("paper", ["A4", "Letter", "A3"])
def test_an_edge_over_its_tiles_is_as_long_in_the_file_as_on_the_drawing(paper) -> None:  # type: ignore[no-untyped-def]
    """2,440 mm read back from the PDF: what every tile holds, less what the overlaps hold twice, within 0.3 mm."""
    drawn = line_of(2.44)
    plan = tiling(drawn.wide, drawn.high, PAPERS[paper])
    pages = tile_pages(drawn, "Edge", "", PAPERS[paper])
    read = streams(pdf_bytes(*pages[1:]))
    assert len(read) == len(pages) - 1 == plan.across
    room = plan.wide - 2 * MARGIN_M
    whole = 0.0
    for k, page in enumerate(read):
        left, right = k * plan.step_x, min(k * plan.step_x + room, 2.44)
        wanted = (right - left) * POINTS_PER_M
        assert min(abs(one - wanted) for one in lengths_in(page)) < 0.3 / 1000 * POINTS_PER_M
        whole += right - left
        assert min(abs(one - 0.1 * POINTS_PER_M) for one in lengths_in(page)) < 0.01  # its 100 mm bar
    overlaps = sum(room - plan.step_x for _ in range(plan.across - 1))
    assert whole - overlaps == pytest.approx(2.44, abs=3e-4)


def test_neighbours_share_their_crosses() -> None:
    drawn = line_of(0.9)
    plan = tiling(drawn.wide, drawn.high, PAPERS["A4"])
    assert plan.step_x + 0.010 == pytest.approx(plan.wide - 2 * MARGIN_M)
    names = [name_of(column, row) for row in range(2) for column in range(28)]
    assert names[:2] == ["A1", "B1"] and names[26] == "AA1" and len(set(names)) == len(names)


@pytest.mark.parametrize(
    ("wide", "high", "paper", "words"),
    [
        (0.0, 1.0, PAPERS["A4"], "without a size"),
        (1.0, 1.0, Paper("stamp", 0.03, 0.04), "smaller than its margins"),
        (40.0, 20.0, PAPERS["A4"], "a roll"),
    ],
)
def test_paper_that_does_not_do_is_said(wide, high, paper, words) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(GeometryError, match=words):
        tiling(wide, high, paper)


def test_a_print_that_is_off_is_not_signed_off() -> None:
    assert "98.7 mm" in signed_off(0.0987) and "27 mm short" in signed_off(0.0987)
    assert signed_off(0.1002) == "" == signed_off(0.0998) and signed_off(0.1003) and signed_off(0.0997)
    assert "nobody measured" in signed_off(None) and "nothing" in signed_off(0.0)


# templates
@pytest.mark.parametrize("name", list(DEMOS))
def test_every_template_is_of_its_true_size(name) -> None:  # type: ignore[no-untyped-def]
    s = studied(name)
    made = templates_of(s)
    assert made and len({one.id for one in made}) == len(made)
    for one in made:
        points = np.array([p for line, *_ in one.drawn.lines for p in line])
        assert points.min() > -1e-9 and points[:, 0].max() == pytest.approx(one.drawn.wide)
        assert points[:, 1].max() == pytest.approx(one.drawn.high)
    side = next(one for one in made if one.id == "side/left side")
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


def test_pieces_of_a_pair_have_one_template_with_both_numbers() -> None:
    s = studied("dark-sky")
    ends = [one for one in templates_of(s) if one.id.startswith("board/t6/left end")]
    assert ends and (len(ends[0].numbers) in (1, 2))
    assert not [one for one in templates_of(s) if one.id.startswith("board/t6/right end") and "pair" in ends[0].side]


# router files
def test_the_router_has_a_layer_a_tool_and_true_sizes() -> None:
    heron = demo("marsh-heron")
    tube = study(next(v for v in heron.variants if v.id == "welded-tube"), heron.facts)
    made = templates_of(tube)
    drawing = ezdxf.read(io.StringIO(router_dxf(made).decode()))
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
def test_an_empty_build_is_told_what_is_wanted_and_a_demo_is_written(kind) -> None:  # type: ignore[no-untyped-def]
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
    plan = tiling(*(templates_of(s)[2].drawn.wide, templates_of(s)[2].drawn.high), PAPERS["A3"])
    assert 2 <= len(few) <= plan.many + 1
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
    with pytest.raises(FileError):
        export_job(Project("x", (a_build(),), "as-drawn"), nobody, "templates-pdf", (), "A4")


# the set
@pytest.mark.parametrize("name", list(DEMOS))
def test_the_set_numbers_its_pages_and_lists_them(name) -> None:  # type: ignore[no-untyped-def]
    s = studied(name)
    pages = drawing_set(s, name, "today")
    assert "contents" in pages[0].title
    titles = [page.title for page in pages[1:]]
    assert len(set(titles)) == len(titles)
    listed = [shape.text for shape in pages[0].shapes if isinstance(shape, Text)]
    for k, page in enumerate(pages[1:], 2):
        foot = page.shapes[-1]
        assert isinstance(foot, Text) and foot.text.startswith(f"{k} of {len(pages)}, revision A")
    assert str(len(pages)) in listed and sum(text == "new" for text in listed) == len(pages) - 1


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
@pytest.mark.parametrize("letter", [False, True])
def test_the_paper_model_has_the_bodys_areas_and_stays_on_its_paper(name, letter) -> None:  # type: ignore[no-untyped-def]
    s = studied(name)
    pages = paper_model(s, name, "today", letter)
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
        for shape in page.shapes:
            for x, y in shape.points if isinstance(shape, Poly) else ():
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


def test_boxes_in_the_stl_have_their_volume_and_the_body_its_areas() -> None:
    build = a_build((a_thing("t", size=(0.5, 0.4, 0.3)),), a_rig())
    assert volume_of(stl_bytes(study(build, Facts()))) == pytest.approx(0.06, rel=1e-5)
    s = study(a_build((), a_rig(), a_body("box")), Facts())
    data = np.frombuffer(stl_bytes(s)[84:], dtype=[("n", "<f4", 3), ("c", "<f4", (3, 3)), ("r", "<u2")])
    c = data["c"].astype(float) / 1000
    area = np.linalg.norm(np.cross(c[:, 1] - c[:, 0], c[:, 2] - c[:, 0]), axis=1).sum() / 2
    assert area == pytest.approx(sum(x.area_m2 for x in s.framed.body.surfaces), rel=1e-5)
    round_nose = studied("marsh-heron")
    assert len(stl_bytes(round_nose)) > 10_000


# shop card
@pytest.mark.parametrize("stop", TRAIL)
def test_the_shop_card_is_large_and_says_its_answer(stop) -> None:  # type: ignore[no-untyped-def]
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
    drawn = line_of(1.0)
    plan = tiling(1.0, 0.1, PAPERS["A4"])
    shapes = map_shapes(drawn, plan, 300.0, 0.0, 0.0)
    boxes = [shape for shape in shapes if isinstance(shape, Poly) and shape.closed]
    assert len(boxes) == plan.many and SCHOOLS
