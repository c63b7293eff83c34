"""Gaps in a wall: what a ventilated one takes from its warmth, what a still one adds, its battens, and whether it is open."""

import msgspec
import pytest

from tests.builders import a_body, a_build, a_hole, a_rig
from uncle_sled.core.document.assemblies import EVERYWHERE, FLOORS, WAYS, ways_for
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Facts, OwnMaterial, OwnWay
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.parts.face_build import face_build, gap_m2k_w, library_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.systems.glaser import layers_of


def layer(id, material, mm, **more):
    return Layer(id, material, Length(mm / 1000), **more)


WOOL = OwnMaterial("wool-36", "Wool 0.036", density_kg_m3=45.0, conductivity_w_mk=0.036, mu=1.0, form="fill", family="wool")
BOARDS, PLY, FILL = layer("boards", "softwood", 18), layer("ply", "softwood-ply", 9), layer("wool", "wool-36", 95)


def wall(gap):
    return (BOARDS, gap, PLY, FILL)


def built(gap, kind="left side"):
    return face_build(wall(gap), kind, library_of((WOOL,)))


def test_a_ventilated_gap_ends_the_sum_and_a_still_one_adds_to_it():
    vented, still = built(layer("gap", "gap-vented", 25)), built(layer("gap", "gap-still", 25))

    # inside 0.13, wool 0.095 / 0.036, ply 0.009 / 0.13, behind the gap 0.13
    assert vented.r_m2k_w == pytest.approx(0.13 + 0.095 / 0.036 + 0.009 / 0.13 + 0.13) == pytest.approx(2.968, abs=5e-4)
    assert still.r_m2k_w == pytest.approx(2.838 + 0.18 + 0.018 / 0.12 + 0.04, abs=5e-4) == pytest.approx(3.208, abs=5e-4)
    # nobody said: as open; barely open too; as good as shut: it is still
    open_to = {mm2: built(layer("gap", "gap-vented", 25, open_mm2_m=mm2)).r_m2k_w for mm2 in (None, 1500.0, 500.0, 499.0, 0.0)}
    assert [r == pytest.approx(vented.r_m2k_w) for r in open_to.values()] == [True, True, True, False, False]
    assert open_to[0.0] == pytest.approx(still.r_m2k_w)
    assert (vented.thickness_m, vented.kg_m2) == (pytest.approx(0.147), pytest.approx(still.kg_m2))


@pytest.mark.parametrize(
    ("kind", "mm", "r"), [("left side", 25, 0.18), ("left side", 10, 0.15), ("roof", 25, 0.16), ("floor", 25, 0.19), ("roof", 5, 0.11)]
)
def test_a_still_gap_by_its_thickness_and_the_way_of_heat(kind, mm, r):
    assert gap_m2k_w(mm / 1000, kind) == pytest.approx(r)


def test_battens_weigh_and_lead_heat_by_their_share():
    bare, with_battens = built(layer("gap", "gap-still", 25)), built(layer("gap", "gap-still", 25, battens="upright"))
    share = 0.045 / 0.40

    assert with_battens.kg_m2 - bare.kg_m2 == pytest.approx(share * 0.025 * 450 * 1.04)
    others = bare.r_m2k_w - 0.18
    upper = 1 / (share / (others + 0.025 / 0.12) + (1 - share) / (others + 0.18))
    lower = others + 1 / (share / (0.025 / 0.12) + (1 - share) / 0.18)
    assert with_battens.r_m2k_w == pytest.approx((upper + lower) / 2)


def a_clad_build(battens="level", **more):
    gap = layer("gap", "gap-vented", 22, battens=battens, **more)
    side = Face("side", "left side", "Left side", layers=(layer("b", "board-siding", 18), gap, PLY))
    return a_build(rig=a_rig(), shell=a_body("box", faces=(side,), openings=(a_hole("w", "left side", 1.0, 0.8, 0.6, 0.5),)))


def test_battens_are_cut_round_the_window():
    build = a_clad_build()
    long, high = build.shell.length.si, build.shell.height.si
    battens = [piece for piece in take_off(build, Facts()).pieces if piece.name == "batten"]
    rows = {round(sum(y for _, y in piece.place) / len(piece.place), 3) for piece in battens}

    # from the low edge on every 400 mm, one at the top
    wanted = {round(0.0225 + 0.4 * k, 3) for k in range(int((high - 0.045) / 0.4) + 1)} | {round(high - 0.0225, 3)}
    assert rows == wanted and all((piece.width_m, piece.thickness_m) == pytest.approx((0.045, 0.022)) for piece in battens)
    by_hand = sum(long - (0.6 if 0.8 - 0.0225 < at < 1.3 + 0.0225 else 0.0) for at in rows)
    cut = sum(piece.length_m for piece in battens)
    assert cut == pytest.approx(by_hand, abs=0.05)
    upright = [piece for piece in take_off(a_clad_build("upright"), Facts()).pieces if piece.name == "batten"]
    assert max(piece.length_m for piece in upright) == pytest.approx(high)
    assert not [piece for piece in take_off(a_clad_build(""), Facts()).pieces if piece.name == "batten"]


def test_vapour_is_led_as_far_as_the_gap_only():
    face = Face("side", "left side", "Side", layers=WAYS["boards on a ventilated gap"])
    names = [one.name for one in layers_of(face, library_of(()))]

    assert "Board siding 18 mm" not in names and "Ventilated gap" not in names and names[0] == "Softwood plywood"


def test_a_gap_that_nobody_said_is_open_is_asked_for_and_a_shut_one_minded():
    facts = Facts()
    unsaid = study(a_clad_build(), facts)
    found = {finding.code: finding for finding in with_remedies(unsaid)}
    assert "gap-unsaid" in found and "gap-shut" not in found
    settled = study(apply(unsaid.build, found["gap-unsaid"].remedy.ops), facts)
    assert not {"gap-unsaid", "gap-shut"} & {finding.code for finding in findings(settled)}
    shut = {finding.code: finding for finding in findings(study(a_clad_build(open_mm2_m=800.0), facts))}
    assert shut["gap-shut"].severity == "mind" and "800" in shut["gap-shut"].says and "{" not in shut["gap-shut"].says


def test_a_way_ready_to_take_has_it():
    made = face_build(WAYS["boards on a ventilated gap"], "left side")
    without = face_build(tuple(one for one in WAYS["boards on a ventilated gap"][2:]), "left side")

    assert made.r_m2k_w == pytest.approx(without.r_m2k_w - 0.04 + 0.13, abs=0.02)
    assert msgspec.structs.replace(WAYS["boards on a ventilated gap"][1], battens="").battens == ""


def test_ways_of_ones_own_stand_beside_the_shipped_ones_floors_with_floors():
    own = (OwnWay("way1", "my wall", (PLY, FILL)), OwnWay("way2", "my floor", (PLY,), floor=True), OwnWay("way3", "ply and foam", (PLY,)))

    walls, floors = ways_for(own, floor=False), ways_for(own, floor=True)
    assert walls["my wall"] == (PLY, FILL) and walls["ply and foam"] == (PLY,) and "my floor" not in walls
    assert set(floors) == {"floor of ply and foam", "bought floor panel", "bare 18 mm ply", "floor between the frame's steel", "my floor"}
    assert (
        not FLOORS & walls.keys() and walls.keys() >= EVERYWHERE and set(WAYS) == (walls.keys() | floors.keys()) - {"my wall", "my floor"}
    )
