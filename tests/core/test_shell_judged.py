"""What Uncle says of a body, its measures, its variants: closed forms, and remedies that settle what they name."""

import math

import msgspec
import pytest

from tests.builders import a_body, a_build, a_hole, a_project, a_rig
from uncle_sled.core.document import variants
from uncle_sled.core.document.cutting_in import KINDS, first_opening
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, Framing, HandChange, Layer
from uncle_sled.core.errors import EditError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.core.studies.compare_variants import compare_variants, same_stops
from uncle_sled.core.studies.shell.bends import sheet_bends
from uncle_sled.core.studies.shell.holes import holes
from uncle_sled.core.studies.shell.seams import usual_seams
from uncle_sled.core.studies.shell.shell_measures import bolts, measures

ROOF = Face("roof", "roof", "Roof", layers=(Layer("l1", "birch-ply", Length(0.006)),))


def judged(shell, **changes):
    return with_remedies(study(a_build(shell=shell, rig=a_rig(stabiliser_station=Length(4.0)), **changes), Facts()))


def shell_codes(found):
    return {f.code for f in found if f.stop == "Shell"}


CASES = [
    (a_body("box", openings=(a_hole("w", "left side", 1, 0.8, 0.6, 0.4, drip=True),)), "no-seal", "with butyl tape"),
    (a_body("box", openings=(a_hole("w", "left side", 1, 0.8, 0.6, 0.4, seal="tape"),)), "no-drip", "drip edge"),
    (
        a_body("box", openings=(a_hole("w", "rear", 0.4, 0.4, 1.0, 0.9, kind="hatch", seal="bulb", drip=True),)),
        "hatch-one-line",
        "two lines",
    ),
    (a_body("box", faces=(ROOF,)), "roof-level", "1 in 40"),
    (
        a_body(
            "box",
            framing=Framing("stick timber", changes=(HandChange("h1", "stick timber", "left side", "king", "gone/front", "leave out"),)),
        ),
        "loose-change",
        "Drop the change",
    ),
]


@pytest.mark.parametrize(("shell", "code", "says"), CASES)
def test_one_plain_edit_settles_it(shell, code, says):
    build = a_build(shell=shell, rig=a_rig(stabiliser_station=Length(4.0)))
    found = {f.code: f for f in with_remedies(study(build, Facts()))}
    one = found[code]
    assert one.remedy is not None and says in one.remedy.says, one.why_none
    after = apply(build, one.remedy.ops)

    assert code not in {f.code for f in findings(study(after, Facts()))}


def test_what_no_edit_settles_says_why():
    butterfly = {f.code: f for f in judged(a_body("butterfly", faces=(ROOF,)))}
    assert "gable" in butterfly["butterfly"].why_none and "double" in butterfly["butterfly"].why
    thin = Face("l", "left side", "Left", layers=(Layer("l1", "xps", Length(0.0)), Layer("l2", "moon", Length(0.01))))
    assert "layers-wrong" in shell_codes(judged(a_body("box", faces=(thin,))))
    none = Face("l", "left side", "Left", layers=(Layer("l1", "xps", Length(0.0)),))
    assert "layer-no-thickness" in shell_codes(judged(a_body("box", faces=(none,))))
    tall = a_body("box", "stick timber", openings=(a_hole("w", "left side", 1, 0.6, 1.4, 1.3, seal="tape", drip=True),))
    assert "header-no-room" in shell_codes(judged(tall))
    over = a_body("box", openings=(a_hole("w", "left side", 3.9, 0.6, 1.4, 1.0),))
    one = next(f for f in judged(over) if f.code == "opening-over-edge")
    assert one.where == ("w",) and one.why_none


def test_a_good_body_says_nothing():
    hole = a_hole("w", "left side", 1, 0.8, 0.6, 0.4, seal="tape", drip=True)
    body = a_build(shell=a_body("gable", "stick timber", openings=(hole,)), rig=a_rig(stabiliser_station=Length(4.0)))
    # on a short frame, and empty it is light for its height
    spoken = {"past-frame", "tips-in-wind", "ridge-unsaid"}
    assert shell_codes(judged(body.shell)) - spoken == {"seams-unsaid"}
    dry = msgspec.structs.replace(body, shell=msgspec.structs.replace(body.shell, seams=usual_seams(study(body, Facts()))))
    assert shell_codes(judged(dry.shell)) <= spoken


def test_two_holes_in_the_roof_are_spoken_of():
    vents = tuple(a_hole(f"v{k}", "roof", 0.5 + k, 0.8, 0.4, 0.4, kind="vent", seal="tape") for k in (0, 1))
    row = a_hole("s", "roof", 2.8, 0.3, 0.9, 0.01, kind="screw row", seal="sealant")
    shell = a_body("gable", openings=(*vents, row))
    s = study(a_build(shell=shell), Facts())
    one = next(f for f in findings(s) if f.code == "roof-holes")

    assert "9 holes" in one.title and one.number == 9.0
    assert [h.on_roof for h in holes(s)] == [True, True, True] and holes(s)[0].seam_m == pytest.approx(1.6)


def test_room_inside_a_box_by_hand():
    shell = a_body("box", mattress=Length(0.5))
    m = measures(study(a_build(shell=shell), Facts()))

    assert m.inside_length_m == pytest.approx(4.0 - 2 * 0.12) and m.inside_width_m == pytest.approx(2.0 - 0.24)
    assert m.inside_height_m == pytest.approx(2.1 - 0.24) and m.mattress_m == pytest.approx(1.0)
    assert m.overhang_m == pytest.approx(5.2 - 4.2)


def test_departure_past_the_tyre_by_hand():
    """Tail corner at 5.2, 0.5 high; axle at 3.0 with a 0.3 m wheel: tangent from the corner under the tyre."""
    m = measures(study(a_build(shell=a_body("box"), rig=a_rig(axle=3.0, frame_length=None)), Facts()))
    x, z, r = 2.2, 0.5 - 0.3, 0.3
    angle = math.radians(m.departure_deg)

    assert abs(x * math.sin(angle) - z * math.cos(angle)) == pytest.approx(r)


def test_bolts_carry_braking_and_wind_beside_the_joists():
    s = study(a_build(shell=a_body("box", "stick timber")), Facts())
    down = bolts(s)
    mass = float(s.readings.total_kg.max()) - 260.0

    assert down.shear_n == pytest.approx(mass * 9.80665) and down.uplift_n == pytest.approx(735 * 1.2 * 8.0)
    assert down.many * 2500 >= down.uplift_n and down.pitch_m <= 0.6 + 1e-9
    joists = [m.at_m[0] for m in s.framed.on("floor") if m.role == "joist"]
    assert min(abs(x - j) for x in down.stations_m for j in joists) >= 0.05 - 1e-3


def test_glued_layers_are_formed_tighter_than_they_end():
    faces = (Face("n", "front", "Nose", layers=tuple(Layer(f"l{k}", "light-ply", Length(0.003)) for k in range(2))),)
    bends = sheet_bends(study(a_build(shell=a_body("profile", faces=faces)), Facts()))

    assert len(bends) == 2 and bends[0].formed_m == pytest.approx(bends[0].radius_m * (1 - 1 / 4))


def test_first_openings_of_every_kind_fit_bodies_of_every_form():
    for form in ("profile", "box", "gable", "shed", "bevelled", "butterfly", "flat"):
        for kind in KINDS:
            build = a_build(shell=a_body(form))
            build = apply(build, [add_to("shell.openings", first_opening(build.shell, kind))])
            codes = {f.code for f in study(build, Facts()).framed.faults}
            assert not codes, (form, kind, codes)


def test_variants_share_what_they_have_alike_and_stand_side_by_side():
    project = a_project(shell=a_body("box", "stick timber"))
    kept = variants.keep_as(project, "  with a   gable ")
    assert kept.build.name == "with a gable" and kept.build.parent == project.build.id
    assert kept.build.shell is project.build.shell and kept.variants[0] is project.variants[0]
    changed = kept.with_build(apply(kept.build, [set_to("shell.form", "gable")]))
    first, second = compare_variants(changed)

    assert (first.form, second.form) == ("box", "gable")
    same = same_stops(changed.variants[1], changed.variants[0])
    assert "Shell" not in same and {"Brief", "Rig", "Stow", "Systems", "Road"} <= set(same)
    assert second.body_kg != first.body_kg and second.sticks != first.sticks
    assert variants.opened(changed, project.build.id).build is project.build


def test_variants_that_cannot_be_are_refused():
    project = a_project()
    for bad, says in (("", "needs a name"), (project.build.name, "already"), ("x" * 80, "60 at most")):
        with pytest.raises(EditError, match=says):
            variants.keep_as(project, bad)
    with pytest.raises(EditError, match="only variant"):
        variants.without(project, project.build.id)
    with pytest.raises(EditError, match="no variant"):
        variants.opened(project, "moon")
    chain = variants.keep_as(variants.keep_as(project, "one"), "two")
    middle = chain.variants[1].id
    left = variants.without(chain, middle)
    assert left.build.parent == project.build.id and len(left.variants) == 2
    assert variants.renamed(left, "three").build.name == "three"
    assert msgspec.structs.replace(left, open_variant="gone").build is left.variants[0]
