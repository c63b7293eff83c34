"""Strength against the trade's check cases, and the screening of whole bodies against sums by hand."""

from __future__ import annotations

import msgspec
import pytest

from tests.judging import settled_one
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.project import Facts, empty_project
from uncle_sled.core.document.sense import of_no_sense
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.materials import materials
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.shell.seams import joints
from uncle_sled.core.studies.shell.shell_measures import bolts
from uncle_sled.exchange.demos import DEMOS, demo


def checks(name: str, *ops):
    project = demo(name)
    s = study(apply(project.build, ops), project.facts)
    return {one.id: one for one in screening(s)}, s


def test_rafters_are_those_of_the_notes() -> None:
    stick = st.solid(0.045, 0.07)
    snow = st.beam(stick, 2.2, 1300 * 0.4)
    assert snow.moment_nm == pytest.approx(314.6, abs=0.1) and snow.stress_pa == pytest.approx(8.56e6, rel=1e-3)
    assert snow.sinks_m == pytest.approx(0.0137, abs=1e-4) and pytest.approx(0.0092, abs=1e-4) == 2.2 / st.SOFT
    assert st.softwood_pa(0.07, st.SNOW, True) == pytest.approx(11.90e6, rel=1e-3)
    bare = st.beam(stick, 2.2, 250 * 0.4, st.PERSON_N)
    assert bare.moment_nm == pytest.approx(720.5) and bare.stress_pa == pytest.approx(19.6e6, rel=1e-3)
    assert st.softwood_pa(0.07, st.MINUTES, False) == pytest.approx(11.25e6)
    shared = st.beam(stick, 2.2, 250 * 0.4, 0.6 * st.PERSON_N)
    assert shared.moment_nm == pytest.approx(456.5) and shared.stress_pa == pytest.approx(12.4e6, rel=2e-3)


def test_headers_snow_panels_walls_and_wind_are_those_of_the_notes() -> None:
    header = st.beam(st.solid(0.045, 0.12), 1.2, 1300 * 1.1 + 80)
    assert header.moment_nm == pytest.approx(271.8) and header.stress_pa == pytest.approx(2.52e6, rel=2e-3)
    assert header.sinks_m == pytest.approx(0.0007, abs=5e-5)
    assert [st.snow_pa(1500, 0, True, True), st.snow_pa(1500, 0, True, False)] == pytest.approx([1050, 1260])
    assert [st.snow_pa(1500, 0, False, True), st.snow_pa(1500, 45, False, True)] == pytest.approx([1200, 600])
    assert st.snow_pa(1500, 70, False, True) == 0 and st.snow_pa(1500, 0, False, True, True) == 2400
    panel = st.sandwich(0.0015, 0.03, 10e9, 80e6, 8e6, 3e6, 0.2e6, 0.2e6)
    assert panel.d_nm2 == pytest.approx(7442, abs=1) and panel.s_n == pytest.approx(99.2e3, rel=1e-3)
    # wrinkling 0.5 (10e9 x 8e6 x 3e6)^(1/3) = 31.1 MPa is less than the 80 of the face; half of it is allowed
    assert panel.face_pa == pytest.approx(15.54e6, rel=1e-3)
    sinks, stress, shear = st.panel_even(panel, 1.6, 1050)
    assert (sinks, stress, shear) == pytest.approx((0.0154, 7.1e6, 0.027e6), rel=0.02)
    sinks, stress, _ = st.panel_point(panel, 1.6, 1200)
    assert (sinks, stress) == pytest.approx((0.031, 16.9e6), rel=0.01)
    assert st.racking_n_m(900, 5.2) == pytest.approx(1358, abs=1)
    assert st.tips_at_m_s(900, 1.7, 10.08, 1.8) == pytest.approx(23.0, abs=0.05)
    assert st.uplift_n(2.4 * 1.8) == pytest.approx(3810, abs=1)
    assert st.tube(0.05, 0.1, 0.004).inertia_m4 == pytest.approx(144.1e-8, rel=1e-3)


def test_a_whole_roof_by_hand_and_nothing_unsaid_is_checked() -> None:
    ridge = set_to("shell.ridge", {"held_by": "beam", "beam": {"thick": {"si": 0.09}, "deep": {"si": 0.295}}})
    found, s = checks("orchard-keeper", ridge, set_to("brief.ground_snow_kpa", 1.5))
    snow = found["roof-snow"]
    rafters = [m for m in s.framed.members if m.id == snow.where[1]]
    assert rafters and snow.face == "computed" and "21.9 psf" in snow.how  # 0.7 of 1.5 kPa: 1.05 kPa
    _wide, deep = rafters[0].section_m
    assert snow.limit == pytest.approx(6e6 * (1.5 if deep < 0.102 else 1.3) * 1.15 * 1.15)
    without, _ = checks("orchard-keeper", ridge, set_to("brief.ground_snow_kpa", None))
    assert without["roof-snow"].face == "not checked" and "Brief" in without["roof-snow"].why
    assert without["roof-snow"].use is None and without["roof-person"].use is not None
    twice, _ = checks("orchard-keeper", ridge, set_to("brief.ground_snow_kpa", 3.0))
    dead = 0.33
    assert twice["roof-snow"].value / snow.value == pytest.approx((2.1 + dead) / (1.05 + dead), rel=0.02)
    assert found["racking-along"].limit == 2500.0
    assert found["racking-along"].value == pytest.approx(
        st.racking_n_m(s.readings.total_kg.max() - sum(p.mass_kg for p in s.parts if p.made_by.startswith("rig")), 5.02), rel=0.02
    )


def test_a_header_carries_half_the_roof_over_it() -> None:
    """Snow of 20 kPa, beside which a roof weighs little: 0.7 x 20 kPa on half the width, w L2 / 8 over b d2 / 6."""
    found, s = checks("orchard-keeper", set_to("brief.ground_snow_kpa", 20.0))
    one = next(m for m in s.framed.members if m.id == found["headers"].where[1])
    deep, thick = one.section_m
    moment = 0.7 * 20e3 * s.framed.body.width / 2 * one.length_m**2 / 8
    assert found["headers"].value == pytest.approx(moment / (thick * deep**2 / 6), rel=0.08)


def test_thin_sheets_brace_less() -> None:
    """2500 N/m with 9 mm of wood; with 6 mm two thirds of it."""
    thin = [{"id": "a", "material": "softwood-ply", "thickness": {"si": 0.006}}]
    sides = [set_to(f"shell.faces.{face.id}.layers", thin) for face in demo("orchard-keeper").build.shell.faces if "side" in face.kind]
    found, _ = checks("orchard-keeper", *sides)
    assert found["racking-along"].limit == pytest.approx(2500 * 6 / 9)


@pytest.mark.parametrize("name", DEMOS)
def test_every_check_of_every_demo_says_its_sum_or_why_not(name) -> None:
    found, _ = checks(name, set_to("brief.ground_snow_kpa", 1.0))
    assert len(found) >= 5
    for one in found.values():
        assert (one.use is None) == bool(one.why) and (one.use is None) != bool(one.how), one.id
        assert one.face == ("computed" if one.use is not None else "not checked")


def test_a_screw_that_comes_through_and_a_loft_and_their_remedies() -> None:
    found, s = checks("marsh-heron", set_to("shell.framing.screw", {"si": 0.05}))
    screw = found["screw"]
    assert screw.value == 0.05 and screw.limit == pytest.approx(0.028, abs=2e-3)
    made = settled_one(s, "screw-through")
    assert made.remedy is not None and "25 mm" in made.remedy.says
    after = study(apply(s.build, made.remedy.ops), s.facts)
    assert "screw-through" not in {one.code for one in findings(after)}
    loft = {"id": "lf1", "name": "Loft", "front": {"si": 0.1}, "rear": {"si": 2.0}, "top": {"si": 1.6}, "thick": {"si": 0.1}}
    said, _ = checks("orchard-keeper", set_to("shell.lofts", [loft]))
    assert said["loft"].face == "not checked" and "joists" in said["loft"].why
    strong = {**loft, "joist": {"thick": {"si": 0.045}, "deep": {"si": 0.12}}, "joist_pitch": {"si": 0.4}}
    said, s = checks("orchard-keeper", set_to("shell.lofts", [strong]))
    span = s.framed.body.width
    assert said["loft"].value == pytest.approx(1900 * 0.4 * span**2 / 8 / (0.045 * 0.12**2 / 6))


def test_a_weak_roof_is_found_with_a_remedy_that_clears_it() -> None:
    ops = [set_to("brief.ground_snow_kpa", 1.0), set_to("shell.framing.pitch", {"si": 0.9})]
    _, s = checks("marsh-heron", *ops)
    weak = settled_one(s, "roof-weak-snow")
    assert weak.severity == "mind" and "licensed engineer" in weak.caution
    if weak.remedy is not None:
        after = study(apply(s.build, weak.remedy.ops), s.facts)
        assert "roof-weak-snow" not in {one.code for one in findings(after)}
    else:
        assert weak.why_none


def test_sandwich_roofs_are_reckoned_as_panels() -> None:
    layers = [
        {"id": "a", "material": "aluminium", "thickness": {"si": 0.001}},
        {"id": "b", "material": "xps", "thickness": {"si": 0.03}},
        {"id": "c", "material": "aluminium", "thickness": {"si": 0.001}},
    ]
    found, s = checks(
        "dark-sky",
        set_to("brief.ground_snow_kpa", 1.0),
        set_to("shell.faces.roof.layers", layers),
        set_to("shell.faces.roof.made_of", "sandwich"),
    )
    snow = found["roof-snow"]
    assert snow.use is not None and "panel" in snow.name
    body = s.framed.body
    roof = next(one for one in body.surfaces if one.id == snow.where[0])
    left, low, right, high = roof.polygon.bounds
    panel = st.sandwich(0.001, 0.03, 69e9, 115e6, 15e6, 5e6, 0.2e6, 0.25e6)
    sinks, _, _ = st.panel_even(panel, min(right - left, high - low), 800 + (2 * 0.001 * 2700 + 0.03 * 32) * 1.04 * 9.80665)
    assert found["roof-sinks"].value == pytest.approx(sinks, rel=0.05)


def test_snow_beyond_any_and_unknown_sections_are_refused_in_words() -> None:
    project = demo("marsh-heron")
    deep = project.with_build(apply(project.build, [set_to("brief.ground_snow_kpa", 40.0)]))
    assert any("0 to 25" in fault for fault in of_no_sense(deep, materials()))
    odd = project.with_build(apply(project.build, [set_to("rig.rail", "unobtainium")]))
    assert any("no section" in fault for fault in of_no_sense(odd, materials()))
    assert screening(study(empty_project().build, Facts())) == ()
    flat = apply(empty_project().build, [set_to("shell.form", "box"), add_to("shell.faces", {"id": "f", "kind": "roof", "name": "Roof"})])
    assert screening(study(flat, Facts())) == ()


def test_a_hatch_pulls_at_its_latches_and_unsaid_it_is_not_checked() -> None:
    found, s = checks("marsh-heron")
    hatch = next(o for o in s.build.shell.openings if o.kind == "hatch" and o.opens)
    unsaid = found[f"uplift/{hatch.id}"]
    assert unsaid.face == "not checked" and "latches" in unsaid.why
    pull = 735 * 1.2 * hatch.width.si * hatch.height.si / 2
    weak, judged = checks("marsh-heron", set_to(f"shell.openings.{hatch.id}.latch_n", 0.8 * pull))
    one = weak[f"uplift/{hatch.id}"]
    assert one.value == pytest.approx(pull) and one.use == pytest.approx(1.25)
    assert "hatch-latch-weak" in {f.code for f in findings(judged)}
    strong, judged = checks("marsh-heron", set_to(f"shell.openings.{hatch.id}.latch_n", 1.3 * pull))
    assert strong[f"uplift/{hatch.id}"].use < 1 and "hatch-latch-weak" not in {f.code for f in findings(judged)}


def test_what_lies_on_the_roof_is_pulled_up_against_its_holding() -> None:
    """A rack of 1.2 x 0.9 m and 12 kg: 735 x 1.2 x 1.08 - 117.7 = 834.9 N."""
    found, s = checks("marsh-heron")
    body = s.framed.body
    rack = {
        "id": "rack",
        "name": "Rack",
        "kind": "outside carrier",
        "length": {"si": 1.2},
        "width": {"si": 0.9},
        "height": {"si": 0.1},
        "x": {"si": body.front + 1.0},
        "y": {"si": 0.0},
        "z": {"si": body.under + body.height},
        "mass": {"si": 12.0},
        "outside": True,
    }
    assert "uplift/rack" not in found
    unsaid, _ = checks("marsh-heron", add_to("stow.things", rack))
    assert unsaid["uplift/rack"].face == "not checked" and "Held" in unsaid["uplift/rack"].why
    bolts = {"kind": "bolt", "many": 4, "rated": {"si": 25.0}, "into": "framing"}
    held, judged = checks("marsh-heron", add_to("stow.things", {**rack, "hold": bolts}))
    one = held["uplift/rack"]
    assert one.value == pytest.approx(735 * 1.2 * 1.08 - 12 * 9.80665) and one.limit == pytest.approx(4 * 25 * 9.80665)
    assert "roof-load-lifts" not in {f.code for f in findings(judged)}
    weak, judged = checks("marsh-heron", add_to("stow.things", {**rack, "hold": {**bolts, "many": 3}}))
    assert weak["uplift/rack"].use > 1 and "roof-load-lifts" in {f.code for f in findings(judged)}


def test_bolts_and_bond_and_ribs_by_hand() -> None:
    found, s = checks("marsh-heron")
    made = bolts(s)
    one = found["body-bolts"]
    assert one.value == pytest.approx(max(made.shear_n / made.many, one.value if one.limit == 2500 else 0))
    assert one.use == pytest.approx(max(made.shear_n / made.many / 1600, made.uplift_n / made.many / 2500))
    few, judged = checks("marsh-heron", set_to("shell.framing.bolt_pitch", {"si": 1.6}))
    assert bolts(judged).many < made.many and few["body-bolts"].use > one.use
    # empty it weighs under 57 kg/m2 of its plan: 35 m/s under its edge are nearer to a bolt's limit than a stop of 1 g
    empty = (set_to("stow.things", []), set_to("systems.wires", []), set_to("systems.devices", []))
    bare, judged = checks("marsh-heron", *empty)
    light, made = bare["body-bolts"], bolts(judged)
    assert (light.limit, light.value) == (2500, pytest.approx(735 * 1.2 * 3.05 * 1.62 / made.many))
    # with a box of 120 kg the stop is, though its newtons are the fewer: 3,377 of 1,600 a bolt against 4,358 of 2,500
    box = demo("marsh-heron").build.stow.things[0]
    held, judged = checks("marsh-heron", *empty, add_to("stow.things", {**msgspec.to_builtins(box), "mass": {"si": 120.0}, "tank": None}))
    made = bolts(judged)
    assert made.uplift_n * 1600 / 2500 < made.shear_n < made.uplift_n
    assert (held["body-bolts"].limit, held["body-bolts"].value) == (1600, pytest.approx(made.shear_n / made.many))

    sky = demo("dark-sky")
    s = study(next(v for v in sky.variants if v.id == "panels"), sky.facts)
    bond = {c.id: c for c in screening(s)}["roof-uplift"]
    roofs = [x for x in s.framed.body.surfaces if x.kind == "roof"]
    long = sum(j.length_m for j in joints(s) if j.b and "roof" in j.kinds)
    assert bond.value == pytest.approx(735 * 1.2 * sum(x.area_m2 for x in roofs) / (long * 0.03)) and bond.use < 1
    # its front, 2.1 wide and 1.83 high, on laps of 30 mm all round: 2,258 N on 7.86 m
    front = {c.id: c for c in screening(s)}["front-pushed"]
    assert front.value == pytest.approx(735 * 0.8 * 2.1 * 1.83 / (2 * (2.1 + 1.83) * 0.03), rel=1e-3) and front.limit == 150e3

    heron = demo("marsh-heron")
    strips = next(v for v in heron.variants if v.id == "strip-ribs")
    s = study(apply(strips, [set_to("brief.ground_snow_kpa", 0.75)]), heron.facts)
    ribs = {c.id: c for c in screening(s)}
    assert ribs["roof-snow"].name == "Snow on the rafters" and ribs["roof-snow"].use > 0
    rib = next(m for m in s.framed.members if m.id == ribs["roof-snow"].where[1])
    assert rib.strips and ribs["roof-person"].limit == pytest.approx(st.softwood_pa(rib.section_m[1], st.MINUTES, False))
