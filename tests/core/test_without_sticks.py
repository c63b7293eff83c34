"""Bodies without sticks, studs of light steel, and floors between a frame's steel: weights, warmth and strength by hand."""

import math

import pytest
from msgspec.structs import replace

from tests.builders import METRIC, a_body, a_build, a_hole, a_shell
from uncle_sled.core.document.assemblies import FLOORS, WAYS, ways_for
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, FaceKind, Framing, Layer, Section
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.member import steel_share
from uncle_sled.core.parts.face_build import face_build
from uncle_sled.core.parts.fillets import filleted
from uncle_sled.core.parts.wall_warmth import tube_m2k_w
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.cut.consumables import used_up
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell import strength as st
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.shell.screws import screw_joints
from uncle_sled.core.studies.shell.seams import joints, seams, usual_seams
from uncle_sled.core.words import Words

F = Facts()
KINDS: tuple[FaceKind, ...] = ("floor", "left side", "right side", "front", "rear", "roof")


def L(metres):
    return Length(metres)


def a_box(school, way, **framing):
    faces = tuple(Face(kind, kind, kind, layers=WAYS[way]) for kind in KINDS)
    return a_build(shell=a_body("box", framing=Framing(school, **framing), faces=faces))


def test_fillets_and_strips_weigh_what_their_joints_are_long():
    """A box 4.0 x 2.0 x 2.1 has 4 (4.0 + 2.0 + 2.1) = 32.4 m of joints; 0.1341 kg of resin and 0.060 of strips a metre."""
    build = a_box("stitched ply", "stitched ply and foam")
    s = study(build, F)
    made = filleted(build.shell, joints(s))
    assert made.length_m == pytest.approx(32.4, rel=1e-3)
    assert made.resin_kg == pytest.approx(32.4 * (1 - math.pi / 4) * 0.025**2 * 1000, rel=1e-3)
    assert made.strips_kg == pytest.approx(32.4 * 2 * 0.075 * 0.4, rel=1e-3)
    part = next(part for part in s.parts if part.id == "fillets")
    assert part.mass_kg == pytest.approx(made.mass_kg) and part.z_m == pytest.approx(0.5 + 2.1 / 2)
    thick = filleted(a_box("stitched ply", "stitched ply and foam", fillet=L(0.05)).shell, joints(s))
    assert thick.resin_kg == pytest.approx(4 * made.resin_kg)
    assert filleted(a_box("stick timber", "ply and foam").shell, joints(s)) is None


@pytest.mark.parametrize(("school", "way"), [("stitched ply", "stitched ply and foam"), ("foam and cloth", "foam and cloth")])
def test_a_body_without_sticks_is_cut_glued_planned_and_dry(school, way):
    build = a_box(school, way)
    s, off = study(build, F), take_off(build, F)
    assert not s.framed.members and not s.framed.faults
    assert not [piece for piece in off.pieces if piece.kind in ("bar", "trim")]
    foam = sum(piece.area_m2 for piece in off.pieces if piece.kind == "fill")
    assert foam == pytest.approx(2 * (4 * 2 + 4 * 2.1 + 2 * 2.1), rel=1e-3)
    used = {used.rule.id: used.need for used in used_up(build, F, off)}
    made = filleted(build.shell, joints(s))
    assert used["fillet-resin"] == pytest.approx(1.2 * made.resin_kg) and used["fillet-strip"] == pytest.approx(1.1 * 2 * made.length_m)
    hours = {task.id: task for task in tasks_of(build, F)}
    assert hours["fillets"].likely == pytest.approx(0.45 * made.length_m * 1.6, rel=1e-3) and "frame-walls" not in hours
    dry = replace(build, shell=replace(build.shell, seams=usual_seams(s)))
    assert all(seam.water and seam.air for seam in seams(study(dry, F)))
    assert {seam.tape for seam in usual_seams(s)} == {"cloth and resin"}


def test_what_cloth_on_foam_carries_stands_as_not_checked():
    checks = {check.id: check for check in screening(study(a_box("foam and cloth", "foam and cloth"), F))}
    roof = [check for id, check in checks.items() if id.startswith("roof-")]
    assert roof and all(check.use is None and check.why for check in roof)


def test_a_curved_body_may_be_without_sticks_and_light_steel_may_not():
    curved = a_shell(framing=Framing("stitched ply"))
    assert not study(a_build(shell=curved), F).framed.faults
    steel = study(a_build(shell=replace(curved, framing=Framing("light steel"))), F)
    assert steel.framed.faults and not steel.framed.members


def test_a_c_of_light_steel_by_hand():
    """C 40 x 100 x 1.2: 1.2 (100 + 2 x 38.8) = 213.1 mm2 of 4000; (40 x 100^3 - 38.8 x 97.6^3) / 12 = 32.7 cm4; a tube has two webs."""
    assert steel_share((0.040, 0.100), 0.0012, channel=True) == pytest.approx(213.12 / 4000, rel=1e-3)
    made = st.channel(0.040, 0.100, 0.0012)
    assert made.inertia_m4 == pytest.approx(32.7e-8, rel=2e-3) and made.modulus_m3 == pytest.approx(0.7 * made.inertia_m4 / 0.05)
    assert st.tube(0.040, 0.100, 0.0012).inertia_m4 > made.inertia_m4
    assert st.of_sheet(0.04, 0.1, 0.0012, open_c=True) == made


def test_studs_of_light_steel_weigh_lead_warmth_and_take_other_screws():
    face = Face(
        "f",
        "left side",
        "Left",
        layers=(Layer("o", "birch-ply", L(0.006)), Layer("s", "xps", L(0.07), 0.15), Layer("i", "light-ply", L(0.004))),
    )
    build = a_build(shell=a_body("box", framing=Framing("light steel", screw=L(0.025)), faces=(face,)))
    s = study(build, F)
    stud = next(member for member in s.framed.members if member.kind == "stud")
    steel = 0.0012 * (0.070 + 2 * (0.040 - 0.0012)) * 7850
    assert stud.channel and stud.mass_kg == pytest.approx(steel * stud.length_m * 1.04, rel=0.02)
    piece = next(piece for piece in take_off(build, F).pieces if piece.key == stud.id)
    assert piece.kg_m == pytest.approx(steel) and piece.material.startswith("Light steel C 70 x 40 x 1.2")
    warm = face_build(face.layers, "left side", sticks=0.1)
    outer, inner = screw_joints(s)
    # 6 mm held, a wall of 1.2 mm and three turns: 13.2 mm; wood would want 21
    assert outer.least_m == pytest.approx(0.0132) and outer.long_m == 0.016 and outer.bites and outer.layers[-1][0] == "light steel C"
    assert inner.least_m == pytest.approx(0.0112) and warm.r_m2k_w > 0
    wood = screw_joints(study(a_build(shell=replace(build.shell, framing=Framing("stick timber"))), F))[0]
    assert wood.least_m == pytest.approx(0.021)


def test_steel_between_the_insulation_of_a_floor_by_both_bounds():
    """80 mm of XPS, a tenth of it cross-members 45 wide with walls of 4 mm: 2.424 beside 0.0090; ply 15 mm 0.115; films 0.17 + 0.17.

    Upper: 1 / (0.1 / 0.4689 + 0.9 / 2.884) = 1.903; lower: 0.4598 + 1 / (0.1 / 0.009 + 0.9 / 2.424) = 0.547.
    """
    layers = WAYS["floor between the frame's steel"]
    made = face_build(layers, "floor")
    through = tube_m2k_w(0.08, 0.045, 0.004)
    rest = 0.17 + 0.17 + 0.015 / 0.13 + 0.001 / 160
    foam = 0.08 / 0.033
    assert made.warmth.upper_m2k_w == pytest.approx(1 / (0.1 / (rest + through) + 0.9 / (rest + foam)), rel=1e-6)
    assert made.warmth.lower_m2k_w == pytest.approx(rest + 1 / (0.1 / through + 0.9 / foam), rel=1e-6)
    assert not made.warmth.trusted  # metal through foam: the lower one is gone by
    plain = face_build(tuple(replace(layer, steel_share=0.0) for layer in layers), "floor")
    assert plain.kg_m2 - made.kg_m2 == pytest.approx(
        0.1 * 0.08 * 32 * 1.04, rel=1e-6
    )  # foam that is not there; the steel weighs with the frame
    both = (layers[0], replace(layers[1], framing=0.1), layers[2])
    with pytest.raises(GeometryError, match="sticks and the frame's steel"):
        face_build(both, "floor")
    assert "floor between the frame's steel" in FLOORS and "stitched ply and foam" in ways_for((), floor=False)


def test_screws_and_words_of_a_body_without_sticks():
    build = a_box("stitched ply", "stitched ply and foam")
    holed = replace(build, shell=replace(build.shell, openings=(a_hole("w", "left side", 1.0, 0.8, 0.5, 0.4),)))
    assert screw_joints(study(holed, F)) == ()
    told = [Words(METRIC).told(one.says) for one in findings(study(holed, F)) if one.stop == "Shell"]
    assert all("{" not in says for says in told)
    sized = replace(build.shell, framing=Framing("stitched ply", stick=Section(L(0.0), L(0.0))))
    assert not study(a_build(shell=sized), F).framed.faults
