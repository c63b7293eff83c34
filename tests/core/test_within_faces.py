"""The line that sheds water within each face: seams, laps, screws and flanges; by hand, made, bought, drawn and mended."""

import json
import math

import pytest
from msgspec.structs import replace
from shapely.geometry import LineString, box

from tests.builders import METRIC, a_body, a_build, a_hole
from tests.judging import settled_one
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Framing, Layer, SeamMade
from uncle_sled.core.drawing.cut.water_line import rows_of, water_line, water_pages
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.consumables import bases, counted, sealed_m, used_up
from uncle_sled.core.studies.cut.sheet_seams import long_m, runs_between, without_stick
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.cut.within_faces import usual_within, within_faces
from uncle_sled.core.studies.shell.screws import screw_joints_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.shell_report import shell_report

F = Facts()


def layer(id, material, mm, **more):
    return Layer(id, material, Length(mm / 1000), **more)


PLY = (layer("o", "birch-ply", 6), layer("s", "xps", 70, framing=0.15), layer("i", "light-ply", 4))
CLOTH = (layer("c", "glass-epoxy", 0), *PLY)
CLAD = (layer("b", "board-siding", 18), layer("g", "gap-vented", 22, battens="level"), layer("m", "membrane", 0), *PLY)


def a_roofed(*layers, seams=(), **changes):
    """A box 4.0 x 2.0 whose roof alone is made of something; sheets 2.44 x 1.22, sticks at 400 mm."""
    faces = (Face("roof", "roof", "Roof", layers=layers),)
    return a_build(shell=a_body("box", framing=Framing("stick timber", pitch=Length(0.4)), faces=faces, seams=tuple(seams), **changes))


def within(build):
    return {seam.id: seam for seam in within_faces(build, F)}


def test_seams_are_the_edges_that_sheets_share():
    """Three sheets of 1.0 x 2.0 side by side and one over the first two: 2.0 + 2.0 upright, 2.0 level."""
    sheets = [box(0, 0, 1, 2), box(1, 0, 2, 2), box(2, 0, 3, 2), box(0, 2, 2, 3)]
    runs = runs_between(sheets)
    assert long_m(runs) == pytest.approx(6.0)
    assert runs_between(sheets[:1]) == () and runs_between([box(0, 0, 1, 1), box(1.2, 0, 2, 1)]) == ()


def test_a_seam_is_bare_where_no_stick_lies_behind():
    build = a_roofed(*PLY)
    s = study(build, F)
    seam = within(build)["roof|within"]
    stick = s.framed.on("roof")
    assert 0 <= seam.bare_m < seam.length_m
    free = without_stick(seam.runs, ())
    assert long_m(free) == pytest.approx(seam.length_m) and long_m(without_stick(seam.runs, stick)) == pytest.approx(seam.bare_m)
    for run in seam.bare:
        assert all(LineString(run).intersection(m.shape).length < 1e-6 for m in stick)


def test_screws_of_a_face_are_shared_out_over_its_slopes_by_their_sticks():
    faces = (Face("roof", "roof", "Roof", layers=PLY),)
    build = a_build(shell=a_body("gable", framing=Framing("stick timber", pitch=Length(0.4)), faces=faces, height=Length(2.4)))
    (joint,) = [one for one in screw_joints_of(build, F, study(build, F).framed) if one.id.startswith("roof/outer")]
    rows = [seam for seam in within(build).values() if seam.what == "screws"]
    assert len(rows) == 2 and rows[0].many == rows[1].many
    assert joint.many <= sum(row.many for row in rows) <= joint.many + 1


def test_a_roof_by_hand():
    """4.0 x 2.0 of sheets 2.44 x 1.22: pieces of every seam lie on both sheets, as long as what they share."""
    build = a_roofed(*PLY)
    s, off = study(build, F), take_off(build, F)
    sheets = [piece for piece in off.pieces if piece.key.startswith("roof/o/")]
    outline = 2 * (4.0 + 2.0)
    around = sum(2 * (piece.length_m + piece.width_m) for piece in sheets)
    seam, screws = within(build)["roof|within"], within(build)["roof|screws"]
    assert seam.length_m == pytest.approx((around - outline) / 2)  # each seam has two edges
    run = sum(member.length_m for member in s.framed.on("roof"))
    assert (screws.length_m, screws.many) == (pytest.approx(run), math.ceil(run / 0.15))
    assert not seam.water and not seam.whole and not screws.water


@pytest.mark.parametrize(
    ("layers", "id", "water", "says"),
    [
        (PLY, "roof|within", False, "sheets of birch plywood"),
        (CLOTH, "roof|within", True, "under glass cloth 200 g and epoxy"),
        (CLOTH, "roof|screws", True, "under glass cloth 200 g and epoxy"),
        (CLAD, "roof|within", False, "laps of polyester membrane, from rolls {1.5 m} wide"),
        (CLAD, "roof|screws", True, "behind boards and a gap"),
    ],
)
def test_what_lies_over_it_keeps_a_seam_dry(layers, id, water, says):
    found = within(a_roofed(*layers)).get(id)
    if id == "roof|screws" and layers is CLAD:
        assert found is None  # the line runs in the membrane, which nothing is screwed through
        return
    assert (found.water, found.says) == (water, says)


def test_laps_are_as_long_as_the_area_over_the_width_of_a_roll():
    assert within(a_roofed(*CLAD))["roof|within"].length_m == pytest.approx(4.0 * 2.0 / 1.5)


def test_scarfed_sheets_are_one():
    build = a_roofed(*PLY)
    glued = replace(build, cut=replace(build.cut, joint="scarf"))
    assert "roof|within" not in within(glued) or within(glued)["roof|within"].water


@pytest.mark.parametrize(
    ("made", "water"),
    [({"trim": "strip"}, False), ({"tape": "butyl"}, True), ({"sealant": "bead"}, True), ({"tape": "cloth and resin"}, True), ({}, False)],
)
def test_it_is_tight_when_it_is_bedded(made, water):
    seam = within(a_roofed(*PLY, seams=[SeamMade("roof|within", **made)]))["roof|within"]
    assert (seam.water, seam.air) == (water, water) and seam.made is not None


def test_flanges_go_by_the_seal_of_their_opening():
    holes = (a_hole("w", "roof", 1.0, 0.6, 0.4, 0.4, seal="none"), a_hole("v", "roof", 2.6, 0.6, 0.4, 0.4, kind="vent", seal="tape"))
    found = within(a_roofed(*PLY, openings=holes))
    assert (found["w|flange"].water, found["v|flange"].water) == (False, True)
    assert found["w|flange"].length_m == pytest.approx(1.6) and usual_within(found["w|flange"]) is None


def test_uncle_minds_and_the_usual_settles_it():
    s = study(a_roofed(*PLY), F)
    found = settled_one(s, "face-seams-unsaid")
    seam, screws = within(s.build)["roof|within"], within(s.build)["roof|screws"]
    words = Words(METRIC)
    assert found.says == f"{words.m(seam.length_m)} of seams of sheets, {words.m(screws.length_m)} of rows of screws; most on the roof."
    mended = apply(s.build, found.remedy.ops)
    assert all(row.water for row in within_faces(mended, F))
    assert not {"face-seams-unsaid", "face-seam-open"} & {one.code for one in findings(study(mended, F))}
    half = study(a_roofed(*PLY, seams=[SeamMade("roof|within", trim="strip")]), F)
    assert {"face-seams-unsaid", "face-seam-open"} <= {one.code for one in findings(half)}
    bought = replace(s.build.shell, framing=Framing("bought shell"))
    assert not [one for one in findings(study(replace(s.build, shell=bought), F)) if one.code.startswith("face-seam")]


def test_tape_sealant_and_strips_are_bought_by_the_metre():
    """A seam taped with butyl and stripped, screws bedded, a door on a bulb: each with its own metres."""
    door = a_hole("d", "roof", 1.0, 0.6, 0.5, 0.4, kind="hatch", seal="two lines")
    build = a_roofed(*PLY, seams=[SeamMade("roof|within", "strip", "butyl", ""), SeamMade("roof|screws", "", "", "bead")], openings=(door,))
    seam, screws = within(build)["roof|within"], within(build)["roof|screws"]
    long = sealed_m(build, F, study(build, F).framed)
    assert long["butyl_m"] == pytest.approx(seam.length_m) and long["joint_bead_m"] == pytest.approx(screws.length_m)
    assert long["bulb_m"] == pytest.approx(2 * 2 * (0.5 + 0.4)) and long["acrylic_m"] == 0.0
    off = take_off(build, F)
    used = {used.rule.id: used for used in used_up(build, F, off)}
    assert used["butyl"].need == pytest.approx(1.1 * seam.length_m) and bases(build, F, off)["bulb_m"] == pytest.approx(3.6)
    assert "joints taped with butyl" in counted(used["butyl"], Words(METRIC))
    strips = [piece for piece in off.pieces if "/trim/strip" in piece.key]
    assert sum(piece.length_m for piece in strips) == pytest.approx(seam.length_m)
    assert not [piece for piece in take_off(a_roofed(*PLY), F).pieces if "/trim/strip" in piece.key]


def test_gaps_in_the_line_are_red_on_the_screen_and_on_paper():
    build = a_roofed(*PLY, seams=[SeamMade("roof|within", "strip", "butyl", "")])
    s = study(build, F)
    red = {shape.id for shape in water_line(s, "", 420.0, 300.0) if isinstance(shape, Poly) and shape.stroke == "primer"}
    assert red == {row.id for row in rows_of(s) if not row.water} and "roof|screws" in red and "roof|within" not in red
    pages = water_pages(s, "Box", "today")
    told = [shape.text for page in pages for shape in page.shapes if isinstance(shape, Text)]
    assert "Roof, screws" in told and "WATER GETS IN" in told and any("strip, butyl" in text for text in told)
    assert water_pages(study(a_roofed(*PLY), F), "Box", "today") == ()
    assert water_line(study(a_build(), F), "", 420.0, 300.0) == () and within_faces(a_build(), F) == ()
    told_json = json.loads(json.dumps(shell_report(s)["seams_within"]))
    assert {row["id"]: row["water"] for row in told_json} == {seam.id: seam.water for seam in within_faces(build, F)}
