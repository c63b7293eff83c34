"""What came off a trailer since it was weighed: the reading follows by statics, and what cannot be is said."""

import pytest

from uncle_sled.core.document.edits import add_to, apply, remove, set_to
from uncle_sled.core.document.taking_off import USUAL, came_off
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange.demos import demo


def with_off(name, *kinds):
    project = demo(name)
    build = project.build
    for kind in kinds:
        build = apply(build, [add_to("stow.things", came_off(build, kind))])
    return build, project.facts


@pytest.mark.parametrize("kind", USUAL)
def test_ball_and_total_follow_by_moments_about_the_wheels(kind):
    before = study(*with_off("rosin-box"))
    build, facts = with_off("rosin-box", kind)
    s = study(build, facts)
    gone = build.stow.things[-1]
    wheels = sum(axle.station.si for axle in build.rig.axles) / len(build.rig.axles)
    middle = gone.x.si + gone.length.si / 2
    lighter, less = gone.mass.si, gone.mass.si * (1 - middle / wheels)

    going_out = 0  # the bare shell, as it was bought, still has it
    assert s.readings.total_kg[going_out] - before.readings.total_kg[going_out] == pytest.approx(-lighter)
    assert s.readings.tongue_kg[going_out] - before.readings.tongue_kg[going_out] == pytest.approx(-less, abs=1e-6)
    placed = next(p for p in things_in(s, 0) if p.thing.id == gone.id)
    assert not placed.aboard
    assert apply(build, [remove(f"stow.things.{gone.id}")]) == demo("rosin-box").build


def test_names_count_on_and_sizes_stay_on_the_trailer():
    build, _ = with_off("rosin-box", "shelves", "shelves", "tailgate")
    first, second, gate = build.stow.things[-3:]

    assert (first.name, second.name, gate.name) == ("Shelves", "Shelves 2", "Tailgate") and first.id != second.id
    end = build.shell.front.si + build.shell.length.si
    assert gate.x.si + gate.length.si == pytest.approx(end, abs=2e-3) and gate.width.si == pytest.approx(build.shell.width.si, abs=2e-3)


def test_more_than_it_weighed_and_off_of_what_was_never_weighed_are_said():
    build, facts = with_off("rosin-box", "ramp")
    assert not {"off-too-much", "off-nothing-weighed"} & {finding.code for finding in findings(study(build, facts))}
    heavy = apply(build, [set_to(f"stow.things.{build.stow.things[-1].id}.mass", {"si": 600.0, "typed": None})])
    found = next(finding for finding in findings(study(heavy, facts)) if finding.code == "off-too-much")
    assert found.severity == "stop" and "more than half" in found.says

    own, facts = with_off("marsh-heron", "tailgate")
    found = next(finding for finding in findings(study(own, facts)) if finding.code == "off-nothing-weighed")
    assert found.where == (own.stow.things[-1].id,)
