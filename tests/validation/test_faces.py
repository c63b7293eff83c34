"""Faces by their layers and bends: worked cases and closed forms.

Sources: U by parallel paths (any building-physics text); radius table for cold, dry sheets; spring-back 1 / (1 - 1/n^2).
"""

import json
from typing import Any

import msgspec
import numpy as np
import pytest

from tests.builders import a_build, a_rig, a_shell
from tests.judging import settled_one
from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Facts, Project
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.errors import FileError, GeometryError
from uncle_sled.core.framing.frame_body import FASTENERS
from uncle_sled.core.geometry.bend_radius import judge, least_radius_m, sprung_radius_m, tightest_radius_m
from uncle_sled.core.geometry.profile import outline
from uncle_sled.core.materials import materials
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.face_build import face_build, library_of
from uncle_sled.core.parts.from_shell import parts_of_shell
from uncle_sled.core.parts.wall_warmth import Slice, tube_m2k_w, warmth
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.core.studies.shell.compare_ways import compare_ways, way_ops
from uncle_sled.exchange import sled_file


def layer(material, mm, framing=0.0, id="l1"):
    return Layer(id, material, Length(mm / 1000), framing)


def test_check_case_1_u_by_both_bounds():
    """PIR 50 between softwood 50, f 0.15, 9 mm ply outside and 6 mm inside: R between 1.6478 and 1.8317."""
    made = face_build((layer("softwood-ply", 9), layer("pir", 50, 0.15), layer("softwood-ply", 6)), "left side")

    assert made.warmth.upper_m2k_w == pytest.approx(1.8317, abs=2e-4)
    assert made.warmth.lower_m2k_w == pytest.approx(1.6478, abs=2e-4)
    assert made.r_m2k_w == pytest.approx(1.7397, abs=2e-4) and made.u_w_m2k == pytest.approx(0.5748, abs=1e-4)
    assert made.warmth.trusted
    assert made.thickness_m == pytest.approx(0.065)


def test_steel_through_foam_is_no_number_to_trust():
    """Tube 25 x 25 x 1.5 at 400 mm through 25 mm XPS, ply 6 outside and 3 inside: 0.835 over 0.300."""
    share = 0.025 / 0.400
    steel = Slice(0.025 / 0.033, tube_m2k_w(0.025, 0.025, 0.0015), share)
    assert tube_m2k_w(0.025, 0.025, 0.0015) == pytest.approx(0.0041, abs=1e-4)
    made = warmth((Slice(0.006 / 0.13), steel, Slice(0.003 / 0.13)), 0.17)
    assert made.upper_m2k_w == pytest.approx(0.835, abs=1e-3) and made.lower_m2k_w == pytest.approx(0.300, abs=1e-3)
    assert not made.trusted


def test_sticks_that_cross_part_the_heat_four_ways():
    """By hand: two crossing layers, each a tenth sticks."""
    made = warmth((Slice(1.0, 0.2, 0.1),), 0.17, (Slice(0.5, 0.1, 0.1),))
    u = 0.01 / 0.47 + 0.09 / 0.87 + 0.09 / 1.27 + 0.81 / 1.67
    assert made.upper_m2k_w == pytest.approx(1 / u)
    assert made.lower_m2k_w == pytest.approx(0.17 + 1 / (0.1 / 0.2 + 0.9) + 1 / (0.1 / 0.1 + 0.9 / 0.5))
    with pytest.raises(GeometryError, match="0 to 1"):
        warmth((Slice(1.0, 0.2, 1.4),), 0.17)


def test_weight_of_a_framed_layer_by_hand():
    made = face_build((layer("birch-ply", 6), layer("xps", 25, 0.2)), "roof")

    assert made.kg_m2 == pytest.approx((680 * 0.006 + 0.8 * 32 * 0.025 + 0.2 * 450 * 0.025) * (1 + FASTENERS))


def test_what_comes_by_the_square_metre_weighs_that():
    made = face_build((layer("aluminium-composite", 3), layer("paint", 0)), "roof")

    assert made.kg_m2 == pytest.approx(4.2 * (1 + FASTENERS))


@pytest.mark.parametrize(
    ("layers", "says"),
    [
        ((), "one layer"),
        ((layer("moonstone", 3),), "moonstone"),
        ((layer("xps", -3),), "0 or more"),
        ((layer("xps", 3, 1.4),), "between 0 and 1"),
    ],
)
def test_layers_nobody_can_make(layers, says):
    with pytest.raises(GeometryError, match=says):
        face_build(layers, "roof")


def test_check_case_3_half_round_nose():
    """Radius 0.6 m: 6 mm ply across the grain refused (0.61), 3 mm allowed."""
    assert judge("plywood", 0.006, 0.6).verdict == "refused"
    assert judge("plywood", 0.003, 0.6).verdict == "allowed"
    assert judge("plywood", 0.006, 0.61).verdict == "warned"
    assert judge("plywood", 0.006, 1.6, along_grain=True).verdict == "warned"


def test_radii_between_the_listed_thicknesses_and_of_other_sheets():
    assert tightest_radius_m("plywood", 0.0105) == pytest.approx((0.91 + 1.83) / 2)
    assert tightest_radius_m("plywood", 0.0015) == pytest.approx(0.15)
    assert tightest_radius_m("polycarbonate", 0.004) == pytest.approx(0.4)
    assert tightest_radius_m("aluminium", 0.001) == pytest.approx(0.05)
    assert tightest_radius_m("", 0.02) == float("inf")


def test_spring_back():
    assert sprung_radius_m(0.6, 2) == pytest.approx(0.8)
    assert sprung_radius_m(0.6, 3) == pytest.approx(0.675)
    assert sprung_radius_m(0.6, 1) == float("inf")


def test_the_radius_along_a_circle_is_its_radius_and_corners_are_joints():
    t = np.linspace(0, np.pi / 2, 40)
    arc = np.stack([0.75 * np.cos(t), 0.75 * np.sin(t)], axis=1)

    assert least_radius_m(arc) == pytest.approx(0.75, rel=1e-6)
    assert least_radius_m(np.array([[0.0, 0.0], [0.0, 1.0], [1.0, 1.0]])) == float("inf")


def test_a_layered_face_weighs_its_area():
    face = Face("f1", "left side", "Left", Mass(99.0), "guessed", made_of="x", layers=WAYS["laminate sandwich"])
    shell = a_shell(faces=(face, Face("f2", "floor", "Floor", layers=WAYS["floor of ply and foam"])))
    build = a_build(shell=shell)
    side, floor = parts_of_shell(shell, framed_of(build, Facts()), library_of(()), None)

    assert side.mass_kg == pytest.approx(outline(shell).area_m2 * face_build(face.layers, "left side").kg_m2)
    assert side.source == "computed" and side.bias_group == "shell"
    assert floor.mass_kg == pytest.approx(3.0 * 1.6 * face_build(shell.faces[1].layers, "floor").kg_m2)


def curved_build(way="ply and foam"):
    kinds: list[Any] = ["front", "roof", "left side", "right side"]
    faces = tuple(Face(f"f{at}", kind, kind.capitalize(), Mass(15.0), "computed") for at, kind in enumerate(kinds))
    build = a_build(rig=a_rig(stabiliser_station=Length(4.0)), shell=a_shell(length=Length(1.7), height=Length(0.85), faces=faces))
    return apply(build, way_ops(("f0",), way, WAYS[way]))


def test_a_sheet_that_will_not_bend_is_told_and_two_thin_ones_settle_it():
    build = curved_build()
    found = {f.code: f for f in with_remedies(study(build, Facts()))}
    one = found["will-not-bend"]

    assert one.where == ("f0",) and "0.61 m" in one.says
    assert one.remedy is not None and "two thin sheets" in one.remedy.says
    after = apply(build, one.remedy.ops)
    assert [la.thickness.si for la in after.shell.faces[0].layers][:2] == [0.003, 0.003]
    assert "will-not-bend" not in {f.code for f in with_remedies(study(after, Facts()))}


def test_a_sheet_too_thick_even_in_three_says_so():
    one = settled_one(study(curved_build("bare 18 mm ply"), Facts()), "will-not-bend")

    assert one.remedy is None and "larger radius" in one.why_none


def test_comparing_changes_nothing_and_agrees_with_keeping():
    build, facts = curved_build(), Facts()
    ways = compare_ways(build, facts, ("f1", "f2", "f3"))

    assert len(ways) >= 4 and compare_ways(build, facts, ()) == ()
    for way in ways:
        kept = study(apply(build, way.ops), facts)
        assert sum(p.mass_kg for p in kept.parts if p.made_by.startswith("shell.")) == pytest.approx(way.body_kg)
    heavy = {way.name: way.body_kg for way in ways}
    assert heavy["siding on studs"] > heavy["laminate sandwich"]
    assert build == curved_build()


def test_a_file_with_layers_comes_back_and_an_unknown_material_is_refused():
    project = Project("x", (curved_build(),), "as-drawn")
    data = sled_file.to_bytes(project)
    assert sled_file.read_bytes(data, "x") == project

    raw = json.loads(data)
    raw["variants"][0]["shell"]["faces"][0]["layers"][0]["material"] = "moonstone"
    with pytest.raises(FileError, match="no material “moonstone”"):
        sled_file.read_bytes(json.dumps(raw).encode(), "x")


def test_the_library_is_whole():
    for material in materials().values():
        assert material.source and (material.density_kg_m3 is not None) != (material.kg_m2 is not None), material.id
        assert material.kg_m2 is not None or material.conductivity_w_mk or material.air, material.id
    assert all(la.material in materials() for layers in WAYS.values() for la in layers)
    assert msgspec.to_builtins(WAYS)
