"""Schools beside each other on one body, and a hatch over its tail; hours by end and fold, by stick, by metre of bond and fillet."""

import pytest
from msgspec.structs import replace

from tests.builders import a_body, a_build
from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.shell import Face, FaceKind, Framing
from uncle_sled.core.parts.fillets import filleted
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.shell.compare_ways import AS_IT_STANDS, compare_schools
from uncle_sled.core.studies.shell.frame_hours import frame_hours
from uncle_sled.core.studies.shell.seams import joints
from uncle_sled.core.studies.shell.welds import welds
from uncle_sled.exchange.demos import demo

F = Facts()
KINDS: tuple[FaceKind, ...] = ("floor", "left side", "right side", "front", "rear", "roof")


def a_box(school):
    outer, foam, inner = WAYS["ply and foam"]
    deep = () if school in ("sandwich panels", "stitched ply") else (0.15,)
    layers = (outer, replace(foam, thickness=Length(0.07), framing=deep[0] if deep else 0.0), inner)
    faces = tuple(Face(kind, kind, kind, layers=layers) for kind in KINDS)
    return a_build(shell=a_body("box", framing=Framing(school), faces=faces))


def test_hours_of_a_frame_by_hand():
    """Sticks 0.25 h; a tube two ends of 0.20 and 0.25 a fold; a metre of bond 0.15, of fillet 0.45."""
    sticks, tubes, panels, glued = (
        study(a_box(school), F) for school in ("stick timber", "welded tube", "sandwich panels", "stitched ply")
    )
    assert frame_hours(sticks) == pytest.approx(0.25 * len(sticks.framed.members))
    made = welds(tubes)
    assert frame_hours(tubes) == pytest.approx(0.20 * made.ends + 0.25 * made.folds)
    assert frame_hours(tubes) / len(tubes.framed.members) > 0.25  # a tube does not come out faster than a stick
    bond = sum(member.length_m for member in panels.framed.members)
    assert frame_hours(panels) == pytest.approx(0.15 * bond)
    assert frame_hours(glued) == pytest.approx(0.45 * filleted(glued.build.shell, joints(glued)).length_m)
    assert frame_hours(study(a_box("none"), F)) == 0.0


def test_tasks_weld_fold_and_bond_by_what_there_is():
    tube, panels = a_box("welded tube"), a_box("sandwich panels")
    made, hours = welds(study(tube, F)), {task.id: task for task in tasks_of(tube, F)}
    assert hours["weld-ends"].likely == pytest.approx(0.15 * made.ends * 1.6)
    assert ("weld-folds" in hours) == (made.folds > 0) and "bond-panels" not in hours
    hours = {task.id: task for task in tasks_of(panels, F)}
    bond = sum(member.length_m for member in study(panels, F).framed.members)
    assert hours["bond-panels"].likely == pytest.approx(0.15 * bond * 1.6) and "weld-ends" not in hours
    wood = {task.id: task for task in tasks_of(a_box("stick timber"), F)}
    assert hours.keys() >= {"bond-panels"} and "weld-ends" not in wood


def test_a_body_is_compared_by_every_school_that_can_make_it():
    project = demo("marsh-heron")
    made = {way.name: way for way in compare_schools(project.build, project.facts)}
    assert next(iter(made)) == AS_IT_STANDS and "cut plywood sides" not in made and "bought shell" not in made
    assert {"stick timber", "welded tube", "strip ribs", "stitched ply", "foam and cloth", "sandwich panels"} <= made.keys()
    assert "light steel" not in made  # it goes round no curve
    for name, way in made.items():
        after = study(apply(project.build, way.ops), project.facts)
        assert way.body_kg == pytest.approx(sum(part.mass_kg for part in after.parts if part.made_by.startswith("shell."))), name
        assert way.hours is not None and way.hours > frame_hours(after) - 1e-9
    assert dict(made["stick timber"].wishes)["goes round"] and not dict(made["sandwich panels"].wishes)["goes round"]
    assert made["foam and cloth"].body_kg < made["stitched ply"].body_kg < made[AS_IT_STANDS].body_kg


def test_a_hatch_over_the_tail_has_its_row_until_there_is_one():
    project = demo("marsh-heron")
    way = next(way for way in compare_schools(project.build, project.facts) if way.name == "a hatch over the tail")
    with_it = apply(project.build, way.ops)
    assert way.body_kg > next(iter(compare_schools(project.build, project.facts))).body_kg
    assert "a hatch over the tail" not in {each.name for each in compare_schools(with_it, project.facts)}
    assert compare_schools(a_build(), F) == ()
