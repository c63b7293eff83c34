"""Framing drawings in every format, from the same faces; what the demos' shells hold."""

import io
import json
from typing import cast

import ezdxf
import pytest
from ezdxf.entities.lwpolyline import LWPolyline
from ezdxf.filemanagement import read as read_dxf

from tests.builders import a_body, a_build, a_hole
from uncle_sled.cli import main
from uncle_sled.core.document.project import Facts, empty_project
from uncle_sled.core.drawing.cut.framing_sheets import framing_sheets
from uncle_sled.core.drawing.cut.water_line import water_pages
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.shell.school_pages import school_pages
from uncle_sled.core.drawing.shell.shell_views import flat_face, side_sticks
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.shell.bought_panels import panels
from uncle_sled.core.studies.shell.built_sections import sections_of
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words, upper_first
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.dxf import dxf_bytes
from uncle_sled.exchange.export import export_bytes
from uncle_sled.exchange.exports import EXPORTS
from uncle_sled.exchange.report import report


def studied(name):
    project = demo(name)
    return study(project.build, project.facts)


@pytest.mark.parametrize("name", ["marsh-heron", "orchard-keeper"])
def test_every_stick_is_on_its_page_and_in_its_list(name):
    s = studied(name)
    pages = framing_sheets(s, name, "today")

    own = (*school_pages(s, name, "today"), *water_pages(s, name, "today"))
    assert len(own) > 0 and pages[-len(own) :] == own
    for surface in s.framed.body.surfaces:
        page = next(page for page in pages if page.title == f"{name}: {upper_first(surface.id)}")
        ids = {shape.id for shape in page.shapes if isinstance(shape, Poly)}
        assert {m.id for m in s.framed.on(surface.id)} <= ids
        rows = [p for p in pages if p.title.startswith(page.title)]
        words = [shape.text for one in rows for shape in one.shapes if isinstance(shape, Text)]
        mine = [one for one in numbers_of(s.build, s.facts).named if one.piece.of == surface.id and one.piece.place]
        assert all(one.label in words for one in mine)
        for text in (shape for shape in page.shapes if isinstance(shape, Text)):
            assert -1 <= text.at[0] <= page.width and -1 <= text.at[1] <= page.height, text.text


def test_the_dxf_is_at_full_size_and_sound():
    s = studied("orchard-keeper")
    drawing = read_dxf(io.StringIO(dxf_bytes(s).decode()))
    outlines = list(drawing.modelspace().query('LWPOLYLINE[layer=="OUTLINE"]'))
    sticks = list(drawing.modelspace().query('LWPOLYLINE[layer=="STICKS"]'))

    assert drawing.audit().errors == [] and drawing.units == ezdxf.units.MM
    assert len(outlines) == len(s.framed.body.surfaces) and len(sticks) == len(s.framed.members)
    left = next(o for o, one in zip(outlines, s.framed.body.surfaces, strict=True) if one.id == "left side")
    xs = [p[0] for p in left.get_points()]
    assert max(xs) - min(xs) == pytest.approx(6908.8)


def test_round_corners_are_round_in_the_dxf():
    """A window of 640 x 450 with corners of 60: more than four points, none in the corner itself."""
    s = studied("marsh-heron")
    space = read_dxf(io.StringIO(dxf_bytes(s).decode())).modelspace()
    rings = [list(cast(LWPolyline, line).get_points()) for line in space.query('LWPOLYLINE[layer=="OPENINGS"]')]
    window = next(ring for ring in rings if abs(max(p[0] for p in ring) - min(p[0] for p in ring) - 640) < 0.1)
    left, low = min(p[0] for p in window), min(p[1] for p in window)
    nearest = min(((p[0] - left) ** 2 + (p[1] - low) ** 2) ** 0.5 for p in window)
    assert len(window) > 20 and abs(nearest - 60 * (2**0.5 - 1)) < 0.3


def test_a_school_has_its_own_layers_in_the_dxf():
    """Folds of tube, inside edges of panels, sections: measured in the file that goes to the saw."""
    heron = demo("marsh-heron")
    tube = next(one for one in heron.variants if one.id == "welded-tube")
    s = study(tube, heron.facts)
    space = read_dxf(io.StringIO(dxf_bytes(s).decode())).modelspace()
    (bar,) = {one.cuts: one for one in s.framed.members if one.cuts}.values()
    folds = list(space.query('LWPOLYLINE[layer=="FOLDS"]'))
    tape = next(one for one in folds if one.closed)
    assert len(folds) == 1 + 2 * len(bar.cuts)
    xs = [p[0] for p in tape.get_points()]
    assert max(xs) - min(xs) == pytest.approx(bar.length_m * 1000, abs=0.01)
    marks = sorted(one.get_points()[0][0] for one in folds if not one.closed)
    assert marks[1] - marks[0] == pytest.approx(bar.cuts[0].width_mid_m * 1000, abs=0.01)

    sky = demo("dark-sky")
    made = study(next(one for one in sky.variants if one.id == "panels"), sky.facts)
    space = read_dxf(io.StringIO(dxf_bytes(made).decode())).modelspace()
    cut_back = sum(edge.tilt_deg > 0.5 or edge.narrower_m > 0 for one in panels(made) for edge in one.edges)
    assert len(space.query('LWPOLYLINE[layer=="TILTS"]')) >= cut_back > 4

    orchard = studied("orchard-keeper")
    space = read_dxf(io.StringIO(dxf_bytes(orchard).decode())).modelspace()
    assert len(space.query('LWPOLYLINE[layer=="SECTIONS"]')) == len(sections_of(orchard).sections) > 7


@pytest.mark.parametrize("kind", list(EXPORTS))
def test_every_kind_is_written_and_a_body_is_asked_for(kind, tmp_path, capsys):
    out = tmp_path / f"x.{EXPORTS[kind].ending}"
    assert main(["export", "marsh-heron", "--to", kind, "--out", str(out)]) == 0 and out.stat().st_size > 500
    sled_file.save(empty_project(), tmp_path / "e.sled")
    code = main(["export", str(tmp_path / "e.sled"), "--to", kind, "--out", str(tmp_path / "e")])
    needs = kind in ("dxf", "stl", "model-pdf") or kind.startswith("framing")
    said = capsys.readouterr().err
    told_of_nothing = {"pdf", "svg", "csv", "things", "data-sheet", "hand-over", "card-pdf"}  # they say what is missing
    assert code == (0 if kind in told_of_nothing else 2)
    assert bool(said.strip()) is (code == 2)
    assert ("no body to draw" in said) is needs and ("No tank" in said) is (kind == "gauges")


def test_the_framing_pdf_has_a_page_a_face():
    s = studied("marsh-heron")
    data = export_bytes("framing-pdf", "Heron", s, ())
    assert data.startswith(b"%PDF") and data.count(b"/Type /Page\n") == len(framing_sheets(s, "Heron", "today"))


def test_openings_that_cannot_be_are_drawn_apart():
    shell = a_body("box", "stick timber", openings=(a_hole("w", "left side", 3.8, 0.6, 0.9, 0.8),))
    s = study(a_build(shell=shell), Facts())
    surface = s.framed.body.of("left side")[0]
    drawn = {p.id: p for p in flat_face(s, surface, Words(Shown()), 100.0) if isinstance(p, Poly)}

    assert drawn["w"].stroke == "primer" and drawn["w"].dash
    assert any(p.id.startswith("left side/stud") for p in side_sticks(s))


def reported(name):
    project = demo(name)
    return json.loads(json.dumps(report(study(project.build, project.facts), (), project)))


def test_the_report_of_the_body_adds_up():
    for name, school in (("marsh-heron", "cut plywood sides"), ("orchard-keeper", "stick timber")):
        got = reported(name)
        shell, parts = got["shell"], got["parts"]
        assert shell["school"] == school and len(shell["members"]) >= 75 and shell["bolts"]["many"] >= 8
        sticks = sum(p["mass_kg"] for p in parts if p["id"].startswith("sticks-"))
        assert sticks == pytest.approx(sum(m["mass_kg"] for m in shell["members"]))
        faces = {f["id"]: f for f in shell["faces"]}
        for part in parts:
            if part["id"] in faces and faces[part["id"]]["kg_m2"] is not None:
                face = faces[part["id"]]
                assert part["mass_kg"] == pytest.approx(face["kg_m2"] * face["area_m2"])
    got = reported("rosin-box")
    posts = [m for m in got["shell"]["members"] if m["kind"] == "post"]
    assert got["shell"]["school"] == "bought shell" and len(posts) > 20
    # the posts were weighed with the shell: only what carries the window that was cut counts for itself
    sticks = sum(p["mass_kg"] for p in got["parts"] if p["id"].startswith("sticks-"))
    added = [m for m in got["shell"]["members"] if m["face"] == "left side" and m["kind"] in ("header", "bridge", "jamb")]
    assert sticks == pytest.approx(sum(m["mass_kg"] for m in added)) and added
    assert got["shell"]["survey"]["racked_m"] is not None and {face["face"] for face in got["shell"]["relined"]} == {
        "left side",
        "right side",
        "roof",
        "front",
    }


def test_a_file_with_an_opening_of_no_size_is_told_with_its_place(tmp_path):
    project = demo("marsh-heron")
    text = sled_file.to_bytes(project).decode()
    raw = json.loads(text)
    raw["variants"][0]["shell"]["openings"][0]["width"] = {"si": -0.2, "typed": None}
    from uncle_sled.core.errors import FileError

    with pytest.raises(FileError) as told:
        sled_file.read_bytes(json.dumps(raw).encode(), "x.sled")
    assert any("shell.openings.door.width" in fault for fault in told.value.faults)
