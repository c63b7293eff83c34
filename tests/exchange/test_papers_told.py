"""Papers read as somebody with paper alone would: every piece is found with its number, size, place and work, and once."""

from __future__ import annotations

import io
import random
import re

import msgspec
import pytest
from pypdf import PdfReader

from tests.builders import METRIC, a_body, a_build, a_hole, a_rig
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.cut.cut_sheets import cut_sheets
from uncle_sled.core.drawing.cut.face_page import view_of
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.cut.work_words import ends_words, outline_words, work_words
from uncle_sled.core.drawing.paper import PAPERS
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.sheets import Column, Sheets
from uncle_sled.core.framing.worked import worked
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.as_sold import as_sold
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.piece import Piece
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.drawing_set import drawing_set
from uncle_sled.exchange.pdf import pdf_bytes


def studied(name: str):
    project = demo(name)
    return study(project.build, project.facts)


def read(pages) -> list[list[tuple[float, float, str]]]:
    """Words of every page of the written file with where they begin."""
    made = []
    for page in PdfReader(io.BytesIO(pdf_bytes(*pages))).pages:
        words: list[tuple[float, float, str]] = []

        def heard(t, _c, tm, _f, _s, w=words):
            if t.strip():
                w.append((tm[4], tm[5], t.strip()))

        page.extract_text(visitor_text=heard)
        made.append(words)
    return made


def row_of(pages, label: str) -> list[str]:
    """What stands beside a number in the tables, left to right."""
    for words in pages:
        for x, y, text in words:
            if text == label and x < 40:
                return [t for _, _, t in sorted((a, b, t) for a, b, t in words if abs(b - y) < 1.0)]
    return []


@pytest.mark.parametrize("name", list(DEMOS))
def test_of_twelve_pieces_number_size_place_and_cuts_are_on_paper(name) -> None:
    s = studied(name)
    words = Words(s.build.brief.reading.shown())
    faces = {surface.id: surface for surface in s.framed.body.surfaces}
    members = {member.id: member for member in s.framed.members}
    pieces = [one for one in numbers_of(s.build, s.facts).named if one.piece.of in faces and len(one.piece.place) > 2]
    pages = read(framing_sheets(s, name, "today"))
    for one in random.Random(7).sample(pieces, min(12, len(pieces))):
        told = row_of(pages, one.label)
        assert told, one.label
        piece = one.piece
        assert any(words.cut(piece.length_m) in text for text in told), (one.label, told)
        member = members.get(piece.key.partition("/part ")[0].partition("/strip ")[0])
        for at in view_of(faces[piece.of]).measured(member.outline if member is not None else piece.place):
            assert words.cut(at) in told, (one.label, told)
        if piece.kind == "bar" and ends_words(piece.ends_deg):
            assert any(ends_words(piece.ends_deg) in text for text in told), (one.label, told)


@pytest.mark.parametrize("name", list(DEMOS))
def test_every_number_of_the_plan_is_on_the_saws_papers_once(name) -> None:
    s = studied(name)
    pages = cut_sheets(s, name, "today")
    if not pages:
        assert name == "rosin-box" or not take_off(s.build, s.facts).pieces
        return
    tables = []
    for words in read(pages):
        tables += [t for _, _, text in words for t in re.findall(r"\b[A-Z]+\d*-\d+(?: left| right)?", text.replace("\u00a0", " "))]
    named = numbers_of(s.build, s.facts).named
    sheets = [one.label for one in named if one.piece.kind == "sheet"]
    assert set(sheets) <= set(tables) and {one.label for one in named if one.piece.kind == "bar"} <= set(tables)
    assert set(tables) <= {one.label for one in named} | {one.label.split(" ")[0] for one in named}


def test_nothing_on_paper_is_cut_short_that_is_a_number() -> None:
    for name in DEMOS:
        s = studied(name)
        for page in (*cut_sheets(s, name, "today"), *framing_sheets(s, name, "today")):
            short = [shape.text for shape in page.shapes if isinstance(shape, Text) and "…" in shape.text]
            assert not [text for text in short if re.search(r"\d", text)], (page.title, short)


# how a stick is worked
def test_a_notch_is_no_slant_and_a_rip_no_notch() -> None:
    """A plate of 3.0 m with a notch of 810 x 14 mm at 544; a stud with a step at its end; one ripped to 24.9 of 38.1."""
    plate = worked([(0, 0), (3.0, 0), (3.0, 0.045), (1.354, 0.045), (1.354, 0.031), (0.544, 0.031), (0.544, 0.045), (0, 0.045)], (1.0, 0.0))
    assert plate.ends_deg == (0.0, 0.0) and [(n.at_m, n.long_m, n.deep_m, n.side) for n in plate.notches] == [(0.544, 0.81, 0.014, 1)]
    step = worked([(0, 0), (2.0, 0), (2.0, 0.02), (1.9, 0.02), (1.9, 0.04), (0, 0.04)], (1.0, 0.0))
    assert step.ends_deg == (0.0, 0.0) and [(n.at_m, n.long_m, n.deep_m) for n in step.notches] == [(1.9, 0.1, 0.02)]
    ripped = worked(
        [(0, 0), (1.0, 0), (1.0, 0.0249), (0.99, 0.0249), (0.99, 0.0381), (0.985, 0.0381), (0.985, 0.0249), (0, 0.0249)], (1.0, 0.0)
    )
    assert ripped.length_m == 1.0 and ripped.wide_m in (0.0249, 0.0381)


@pytest.mark.parametrize("angle", [12.0, 30.1, 59.9, 70.0])
def test_a_slant_with_a_notch_keeps_its_angle(angle) -> None:
    import math

    lean = 0.045 * math.tan(math.radians(angle))
    ring = [(0, 0), (1.0, 0), (1.0 + lean, 0.045), (0.6, 0.045), (0.6, 0.03), (0.4, 0.03), (0.4, 0.045), (0, 0.045)]
    made = worked(ring, (1.0, 0.0))
    assert made.ends_deg == (0.0, pytest.approx(angle, abs=0.05)) and len(made.notches) == 1


def test_an_end_of_two_cuts_is_told_by_its_corners() -> None:
    made = worked([(0.03, 0), (1.0, 0), (1.0, 0.045), (0.01, 0.045), (0.0, 0.02)], (1.0, 0.0))
    assert len(made.corners) == 5 and not made.notches
    piece = Piece("k", "stud", "left side", "bar", "Softwood", 0.025, 1.0, 0.045, "any", 0.045, corners=made.corners)
    assert work_words(piece, Words(METRIC)) == "shaped, corners along and across: 30, 0; 1000, 0; 1000, 45; 10, 45; 0, 20"


def test_a_board_has_its_holes_and_its_corners() -> None:
    """A side of one sheet with a window whose corners are round: the hole is sawn out of the piece, round."""
    from uncle_sled.core.document.shell import Face, Layer

    hole = msgspec.structs.replace(a_hole("w", "left side", 0.5, 0.6, 0.6, 0.4), corner=Length(0.06))
    side = Face("s", "left side", "Left side", layers=(Layer("l", "birch-ply", Length(0.006)),))
    shell = a_body(length=Length(2.0), height=Length(1.2), openings=(hole,), faces=(side,))
    build = a_build((), a_rig(), shell)
    (board,) = [piece for piece in take_off(build, Facts()).pieces if piece.of == "left side" and piece.kind == "sheet"]
    assert len(board.holes) == 1 and len(board.holes[0]) > 12  # no four points
    xs, ys = zip(*board.holes[0], strict=True)
    assert max(xs) - min(xs) == pytest.approx(0.6) and max(ys) - min(ys) == pytest.approx(0.4)
    corner = min(((x - min(xs)) ** 2 + (y - min(ys)) ** 2) ** 0.5 for x, y in board.holes[0])
    assert corner == pytest.approx(0.06 * (2**0.5 - 1), abs=2e-4)
    shaped = msgspec.structs.replace(board, outline=((0.0, 0.0), (0.5, 0.0), (0.5, 0.3), (0.0, 0.2)))
    assert outline_words(shaped, Words(METRIC)) == "corners 0, 0; 500, 0; 500, 300; 0, 200"


# paper
@pytest.mark.parametrize("paper", list(PAPERS))
def test_the_builders_paper_decides_for_all_and_the_diagram_takes_the_next_size(paper) -> None:
    project = demo("marsh-heron")
    s = study(apply(project.build, [set_to("brief.paper", paper)]), project.facts)
    sizes = {tuple(sorted((round(page.width), round(page.height)))) for page in drawing_set(s, "Heron", "today")}
    mine = tuple(sorted((round(PAPERS[paper].wide), round(PAPERS[paper].high))))
    assert mine in sizes and len(sizes) <= 2


def test_sheets_flow_on_and_keep_their_heads() -> None:
    sheets = Sheets((400.0, 300.0), "A title of " + "many words " * 20, "today")
    rows = [(str(k), "a cell that goes on in the next line because it is long " * 3, "12 mm") for k in range(30)]
    sheets.table(
        (Column("No.", right=True), Column("What", wraps=True), Column("Long", right=True), Column("Never")), [(*row, "") for row in rows]
    )
    sheets.stops(["a danger told " * 30])
    sheets.words("x" * 400)
    pages = sheets.done()
    assert len(pages) > 3 and pages[1].title.endswith("(2)")
    texts = [[shape for shape in page.shapes if isinstance(shape, Text)] for page in pages]
    assert sum(shape.text == "12 mm" for page in texts for shape in page) == 30
    assert not any(shape.text == "Never" for page in texts for shape in page)
    for page in texts:
        for shape in page:
            left = shape.at[0] - shape.width * {"left": 0, "middle": 0.5, "right": 1}[shape.anchor]
            assert left >= -1 and left + shape.width <= 401 and shape.at[1] >= 0, shape.text


def test_a_body_of_nothing_still_has_its_pages() -> None:
    s = study(a_build((), a_rig(), a_body("box")), Facts())
    pages = framing_sheets(s, "n" * 200, "today")
    assert any(isinstance(shape, Text) and "No sticks in this face" in shape.text for page in pages for shape in page.shapes)


# the router's sheets
def test_every_sheet_of_the_plan_is_a_file_with_its_pieces_in_their_places() -> None:
    import zipfile

    import ezdxf
    from ezdxf.filemanagement import read as read_dxf

    from uncle_sled.core.studies.cut.cut_from_stock import plan_of
    from uncle_sled.core.studies.cut.handed import handed
    from uncle_sled.exchange.router_sheets import LAYERS, sheets_zip

    s = studied("marsh-heron")
    plan = plan_of(s.build, s.facts)
    hand, written = handed(plan, s.build, s.facts), sheets_zip(s, plan)
    with zipfile.ZipFile(io.BytesIO(written)) as packed:
        assert len(packed.namelist()) == len(hand.sheets)
        for on, name in zip(hand.sheets, packed.namelist(), strict=True):
            drawing = read_dxf(io.StringIO(packed.read(name).decode()))
            assert drawing.audit().errors == [] and drawing.units == ezdxf.units.MM
            space = drawing.modelspace()
            assert {one.dxf.layer for one in space} <= set(LAYERS)
            outside = list(space.query('LWPOLYLINE[layer=="CUT_OUTSIDE"]'))
            assert len(outside) == len(on.layout.pieces)
            for ring, lying in zip(outside, on.layout.pieces, strict=True):
                xs, ys = [p[0] for p in ring.get_points()], [p[1] for p in ring.get_points()]
                assert min(xs) == pytest.approx(lying.x_m * 1000, abs=0.2) and max(ys) - min(ys) == pytest.approx(lying.h_m * 1000, abs=0.2)
            holes = [one for named in on.named for one in named.piece.holes]
            inside = [one for one in space if one.dxf.layer == "CUT_INSIDE"]
            assert len(inside) == len(holes)


def test_a_round_hole_is_a_circle_and_turns_with_its_piece() -> None:
    import math

    from uncle_sled.core.drawing.cut.sheet_drawn import hole_on
    from uncle_sled.core.studies.cut.layouts import Lies
    from uncle_sled.exchange.router_sheets import _circle

    ring = tuple((0.2 + 0.05 * math.cos(k / 40 * math.tau), 0.1 + 0.05 * math.sin(k / 40 * math.tau)) for k in range(40))
    piece = Piece("k", "board", "t", "sheet", "Ply", 0.012, 0.8, 0.4, "any", 0.3, holes=(ring,))
    for deg, (x, y) in ((0, (0.2, 0.1)), (90, (0.3, 0.2)), (180, (0.6, 0.3)), (270, (0.1, 0.6))):
        wide, high = (0.8, 0.4) if deg in (0, 180) else (0.4, 0.8)
        lying = Lies("k", 1.0, 0.5, wide, high, turned=deg in (90, 270), ring=((0.0, 0.0),), deg=deg)
        (cx, cy), r = _circle(hole_on(ring, piece, lying))  # type: ignore[misc]
        assert (cx - 1.0, cy - 0.5, r) == pytest.approx((x, y, 0.05), abs=1e-6)
    assert _circle(((0, 0), (1, 0), (1, 1), (0, 1))) is None


# the frame
def test_the_frames_bars_close_and_its_diagonals_are_alike() -> None:
    """A leg from the ball to the outer corner of the rails: its angle by the tangent, its sawn length by the mitre."""
    import math

    from uncle_sled.core.drawing.cut.frame_page import frame_pages
    from uncle_sled.core.parts.frame_steel import bars_of

    s = studied("marsh-heron")
    rig = s.build.rig
    bars = {bar.role: bar for bar in bars_of(rig)}
    leg, nose, half = bars["drawbar leg"], rig.drawbar_length.si, rig.frame_width.si / 2
    assert leg.ends_deg[1] == pytest.approx(math.degrees(math.atan2(half, nose)))
    assert leg.ends_deg[0] == pytest.approx(-math.degrees(math.atan2(nose, half)))  # along the middle: both mitres make a quarter turn
    assert leg.cut_m == pytest.approx(math.hypot(nose, half) + leg.section.wide / 2 * (half / nose + nose / half))
    words = Words(s.build.brief.reading.shown())
    pages = read(frame_pages(s, "Heron", "today"))
    told = {text for page in pages for _, _, text in page}
    labels = [one.label for one in numbers_of(s.build, s.facts).named if one.piece.of == "frame"]
    assert labels and set(labels) <= told
    rail = bars["rail"]
    long = rail.length_m
    assert words.cut(math.hypot(long, rig.frame_width.si)) in told and words.cut(leg.cut_m) in told
    runs = sum(1 for page in pages for _, _, text in page if "all round" in text or text.endswith("above and below"))
    assert runs == 2 * bars["cross-member"].many + 3
    assert frame_pages(studied("dark-sky"), "Sky", "today") == ()


# timber as it is sold
@pytest.mark.parametrize(
    ("section", "imperial", "told"),
    [
        ((0.045, 0.070), False, "sold"),
        ((0.0381, 0.0889), True, "sold"),
        ((0.032, 0.045), False, "ripped"),
        ((0.0889, 0.170), True, "glued up"),
        ((0.30, 0.40), False, "not sold"),
    ],
)
def test_a_stick_comes_out_of_what_is_sold(section, imperial, told) -> None:
    assert as_sold(section, imperial, 0.0032).how == told


def test_what_is_ripped_and_what_is_glued_up_by_hand() -> None:
    """20 x 45 mm out of 45 x 70: (70 + 3.2) / 23.2 = 3 from each; out of 22 x 45 one: 990 mm2 against 1,050 a stick.

    170 x 88.9 out of two of 184.2 x 38.1, 88.9 - 76.2 = 12.7 mm of plywood between.
    """
    rip = as_sold((0.045, 0.020), False, 0.0032)
    assert rip.from_m == (0.045, 0.022) and rip.many == 1
    glued = as_sold((0.170, 0.0889), True, 0.0032)
    assert glued.from_m == (pytest.approx(0.1842), 0.0381) and glued.plies == 2 and glued.between_m == pytest.approx(0.0127)
    thin = as_sold((0.045, 0.0125), False, 0.0032)
    assert thin.many * 0.0125 + (thin.many - 1) * 0.0032 <= max(thin.from_m) and thin.many >= 2
    pages = cut_sheets(studied("orchard-keeper"), "Keeper", "today")
    said = " ".join(shape.text for page in pages for shape in page.shapes if isinstance(shape, Text))
    assert "glued up of 2 of" in said and "of plywood between them" in said


# cabinets
def test_a_cabinet_says_its_boards_their_places_and_its_hardware() -> None:
    """The galley of boards: every one with its number once, its box from left, front and foot, hinges and slides as parted."""
    from uncle_sled.core.drawing.cut.built_pages import built_pages
    from uncle_sled.core.parts.all_parts import cabinets_of

    s = studied("dark-sky")
    words = Words(s.build.brief.reading.shown())
    fitted = cabinets_of(s.build, s.facts)["t6"]
    pages = [page for page in built_pages(s, "Sky", "today") if "Galley" in page.title]
    told = read(pages)
    texts = [text for page in told for _, _, text in page]
    labels = [one.label for one in numbers_of(s.build, s.facts).named if one.piece.of == "t6"]
    assert labels and all(texts.count(label) >= 1 for label in labels)
    assert any(text.startswith(f"Hardware: {fitted.carcass.hinges} hinges, 3 pairs of slides") for text in texts)
    rows = [[t for _, b, t in page if abs(b - y) < 1.0] for page in told for _, y, text in page if text in labels]
    for board in fitted.boards:
        low, high = board.box
        places = {words.cut(v) for v in (*low, *high)}
        assert any(board.kind in row and places <= set(row) for row in rows), board.id
