"""Joints of the faces, how they are kept dry, panels with bevels, and sections that are built apart."""

from __future__ import annotations

import math

import pytest

from tests.builders import a_build
from tests.judging import settled_one
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts, empty_project
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.shell import unfolded
from uncle_sled.core.drawing.shell.school_pages import school_pages
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.sandwich_panels import angle_kg_m
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.bought_panels import bevel, joined, panels
from uncle_sled.core.studies.shell.built_sections import GAP_M, sections_of, usual_splits
from uncle_sled.core.studies.shell.seams import joints, runs_over, seams, usual_seams
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

SMALL = {"thick": {"si": 0.025}, "deep": {"si": 0.025}}


def studied(name: str, *ops):
    project = demo(name)
    return study(apply(project.build, ops), project.facts)


def sandwich(name: str = "dark-sky", skin: float = 0.001, core: float = 0.028):
    faces = demo(name).build.shell.faces
    layers = [
        {"id": "a", "material": "aluminium", "thickness": {"si": skin}},
        {"id": "b", "material": "xps", "thickness": {"si": core}},
        {"id": "c", "material": "aluminium", "thickness": {"si": skin}},
    ]
    return [
        set_to("shell.framing.school", "sandwich panels"),
        *(op for f in faces for op in (set_to(f"shell.faces.{f.id}.layers", layers), set_to(f"shell.faces.{f.id}.made_of", "sandwich"))),
    ]


# joints
@pytest.mark.parametrize("name", DEMOS)
def test_joints_are_as_long_as_the_edges_that_meet(name) -> None:
    s = studied(name)
    made = joints(s)
    body = s.framed.body
    around = sum(float(one.polygon.length) for one in body.surfaces)
    counted = sum(j.length_m * (2 if j.on_b else 1) for j in made)
    assert counted == pytest.approx(around, rel=0.01)
    assert all(j.length_m > 0 and 0 <= j.turn_deg <= 180 for j in made) and len({j.id for j in made}) == len(made)


def test_a_box_has_twelve_square_joints_and_a_bevelled_one_the_turns_of_the_notes() -> None:
    box = {j.id: j for j in joints(studied("rosin-box"))}
    assert len(box) == 12 and all(j.turn_deg == pytest.approx(90, abs=0.1) for j in box.values())
    body = studied("rosin-box").framed.body
    assert sum(j.length_m for j in box.values()) == pytest.approx(4 * (body.length + body.width + body.height), rel=1e-3)
    sky = {frozenset((j.a, j.b)): j for j in joints(studied("dark-sky"))}
    assert sky[frozenset(("left side", "bevel left"))].turn_deg == pytest.approx(45, abs=0.1)
    assert sky[frozenset(("bevel left", "bevel front"))].turn_deg == pytest.approx(60, abs=0.1)  # meet at 120 degrees


# seams
def test_seams_leak_until_they_are_made_and_the_usual_ones_hold() -> None:
    s = studied("marsh-heron", set_to("shell.seams", []))
    bare = seams(s)
    over = [one for one in bare if runs_over(one.joint)]
    assert over and all(one.water and one.air for one in over)
    assert all(not one.water and not one.air for one in bare if one not in over)
    assert "seams-unsaid" in {one.code for one in findings(s)}
    usual = [{"id": one.id, "trim": one.trim, "tape": one.tape, "sealant": one.sealant} for one in usual_seams(s)]
    assert all(one.water and one.air for one in seams(studied("marsh-heron", set_to("shell.seams", usual))))
    roof = next(one for one in usual if "roof" in one["id"] and "left" in one["id"])
    for change, water, air in (
        ({"tape": "", "sealant": ""}, False, False),
        ({"trim": ""}, False, True),
        ({"trim": "", "tape": "cloth and resin", "sealant": ""}, True, True),
    ):
        changed = [{**one, **change} if one is roof else one for one in usual]
        s = studied("marsh-heron", set_to("shell.seams", changed))
        one = next(x for x in seams(s) if x.id == roof["id"])
        assert (one.water, one.air) == (water, air), change
    s = studied("marsh-heron", set_to("shell.seams", [{**one, "trim": ""} if one is roof else one for one in usual]))
    found = settled_one(s, "seam-open")
    assert found.remedy is not None
    assert "seam-open" not in {one.code for one in findings(study(apply(s.build, found.remedy.ops), s.facts))}


# panels
def test_bevels_are_those_of_the_notes() -> None:
    assert [round(v, 4) for v in bevel(0.25, 0.25, 0.03)] == [0.3536, 0.3287, 22.5, 22.5]
    outside, inside, roof, wall = bevel(0.25, 0.18, 0.03)
    assert (outside, inside) == pytest.approx((0.3081, 0.2830), abs=1e-4)
    assert (roof, wall) == pytest.approx((17.88, 27.12), abs=0.01)
    with pytest.raises(GeometryError, match="leaves nothing inside"):
        bevel(0.03, 0.03, 0.08)


def test_panels_of_a_bevelled_body_by_hand() -> None:
    s = studied("dark-sky", *sandwich())
    made = {one.id: one for one in panels(s)}
    b = s.build.shell.bevel.si
    left = made["bevel left"]
    assert left.outside_m[1] == pytest.approx(b * math.sqrt(2), abs=1e-3)
    assert left.inside_m[1] == pytest.approx(bevel(b, b, 0.03)[1], abs=1e-3)
    assert {round(e.tilt_deg, 1) for e in left.edges} == {22.5, 30.0}
    front, body = made["front"], s.framed.body
    assert front.inside_m[0] == pytest.approx(body.width - 2 * 0.03, abs=1e-3)  # it stands between the sides
    assert made["floor"].inside_m == pytest.approx(made["floor"].outside_m)
    assert not any(one.fault for one in made.values())
    members = s.framed.members
    assert {m.role for m in members} == {"corner profile"}
    held = joined(s)
    assert sum(m.length_m for m in members) == pytest.approx(held.profile_m, rel=0.01)
    assert angle_kg_m((0.04, 0.04), 0.002) == pytest.approx(0.421, abs=1e-3)
    assert sum(m.mass_kg for m in members) == pytest.approx(held.profile_m * 0.421 * 1.06, rel=0.02)
    bars = [one for one in take_off(s.build, s.facts).pieces if one.kind == "bar" and one.name == "corner profile"]
    assert bars and all(one.material.startswith("Aluminium angle") and one.kg_m for one in bars)
    thick = studied("dark-sky", *sandwich(core=0.8))
    assert any("nothing inside" in one.fault for one in panels(thick))
    assert "panel-wrong" in {one.code for one in findings(thick)}
    bent = studied("marsh-heron", *sandwich("marsh-heron"))
    assert "do not bend" in bent.framed.faults[0].says and any("does not bend" in one.fault for one in panels(bent))


# sections
def test_sections_weigh_what_the_faces_do_and_stand_clear_of_openings() -> None:
    s = studied("orchard-keeper", set_to("shell.splits", []))
    whole = sections_of(s)
    assert not whole.faults and len(whole.sections) == len(s.framed.body.surfaces) and whole.joints == 0
    wanted = usual_splits(s, 3.0)
    splits = [{"id": f"sp{k}", "face": face, "at": {"si": at}} for k, (face, at) in enumerate(wanted)]
    s = studied("orchard-keeper", set_to("shell.splits", splits))
    made = sections_of(s)
    assert not made.faults and made.joints == 2
    assert sum(o.mass_kg for o in made.sections) == pytest.approx(sum(o.mass_kg for o in whole.sections), rel=1e-6)
    assert max(o.size_m[0] for o in made.sections if o.face == "left side") < 3.6
    for face in ("left side", "roof left", "floor"):
        area = sum(o.shape.area for o in made.sections if o.face == face)
        assert area == pytest.approx(next(x.area_m2 for x in s.framed.body.surfaces if x.id == face))
    for one in made.sections:  # picks stand as far from the centre on both sides
        a, b = one.picks
        assert one.centre[0] - a[0] == pytest.approx(b[0] - one.centre[0], abs=1e-6) and a[0] < b[0]
        assert one.shape.buffer(1e-6).contains(one.shape.centroid) and one.order == made.sections.index(one) + 1
    assert made.sections[0].face == "floor" and made.sections[-1].face.startswith("roof")
    assert made.stacked == tuple(o.id for o in reversed(made.sections))
    assert made.worst_m == pytest.approx(2 * GAP_M) and made.likely_m == pytest.approx(math.sqrt(2) * GAP_M)
    names = {name for name, _ in made.true_sizes}
    assert {"length of the floor", "diagonal of the floor, both", "width over the rails"} <= names


def test_a_line_through_an_opening_and_one_at_the_edge_are_refused() -> None:
    s = studied("orchard-keeper")
    window = next(c for c in s.framed.cuts if c.surface == "left side" and c.good and c.kind == "window")
    through = (window.shape.bounds[0] + window.shape.bounds[2]) / 2
    splits = [
        {"id": "a", "face": "left side", "at": {"si": through}},
        {"id": "b", "face": "floor", "at": {"si": 0.1}},
        {"id": "c", "face": "moon", "at": {"si": 1.0}},
    ]
    s = studied("orchard-keeper", set_to("shell.splits", splits))
    told = " ".join(sections_of(s).faults)
    assert "goes through" in told and window.kind == "window" and "leaves a section under" in told and "no moon" in told
    assert len(sections_of(s).sections) == len(s.framed.body.surfaces)
    assert [one.code for one in findings(s)].count("split-wrong") == 3


# drawings
def test_the_body_unfolds_within_its_paper_and_leaks_are_red() -> None:
    s, words = studied("marsh-heron", set_to("shell.seams", [])), Words(demo("marsh-heron").build.brief.reading.shown())
    for wide, high in ((300.0, 180.0), (700.0, 400.0), (420.0, 900.0)):
        drawn = unfolded.seams_drawn(s, seams(s), seams(s)[0].id, wide, high)
        xs = [p for one in drawn if isinstance(one, Poly) for p in one.points]
        assert xs and all(-1 <= x <= wide + 1 and -1 <= y <= high + 1 for x, y in xs)
        reds = {one.id for one in drawn if isinstance(one, Poly) and one.stroke == "primer"}
        assert reds == {one.id for one in seams(s) if not one.water}
    sky = studied("dark-sky", *sandwich())
    tilts = [one.text for one in unfolded.panels_drawn(sky, panels(sky), "roof", words, 900, 600) if isinstance(one, Text)]
    assert "22.5°" in tilts
    assert unfolded.sections_drawn(s, sections_of(s), "", words, 600, 400)
    empty = study(empty_project().build, Facts())
    assert unfolded.unfold(empty, 600, 400) is None and seams(empty) == () and panels(empty) == ()
    assert sections_of(empty).sections == () and school_pages(study(a_build(), Facts()), "x", "day") == ()


def test_pages_of_the_schools_carry_their_numbers() -> None:
    tube = studied(
        "marsh-heron",
        set_to("shell.framing", {"school": "welded tube", "stick": SMALL, "rib": SMALL, "joist": SMALL, "tube_wall": {"si": 0.0015}}),
    )
    hoop = next(m for m in tube.framed.members if m.cuts)
    pages = school_pages(tube, "Heron", "day")
    hoops = [page for page in pages if "hoop" in page.title]
    tapes = [page for page in hoops if any(isinstance(one, Poly) and one.stroke == "primer" for one in page.shapes)]
    first = [one.text for page in hoops for one in page.shapes if isinstance(one, Text)]
    assert sum(text in ("inner", "outer") for text in first) == len(hoop.cuts)
    numbers = [one.text for page in tapes for one in page.shapes if isinstance(one, Text) and one.text.isdigit() and one.size == 8]
    assert sorted(map(int, numbers)) == list(range(1, len(hoop.cuts) + 1))
    bar = next(one for one in tapes[0].shapes if isinstance(one, Poly) and not one.closed and one.width == 1.4)
    assert bar.points[1][0] - bar.points[0][0] == pytest.approx(0.1 * 72 / 0.0254, abs=1e-6)  # 100 mm on paper
    strips = studied("marsh-heron", set_to("shell.framing", {"school": "strip ribs"}))
    assert any("glued ribs" in page.title for page in school_pages(strips, "Heron", "day"))
    sky = studied("dark-sky", *sandwich())
    assert any(page.title.endswith("panels") for page in framing_sheets(sky, "Sky", "day"))
