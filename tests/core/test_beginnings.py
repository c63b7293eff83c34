from typing import Any

import pytest

from uncle_sled.core.document.beginnings import HAVES, Answers, begin
from uncle_sled.core.document.bodies import BODIES
from uncle_sled.core.document.brief import Reading
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.errors import EntryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.exchange import sled_file


@pytest.mark.parametrize("have", HAVES)
@pytest.mark.parametrize("region", ["European", "North American", "Australian/New Zealand"])
def test_every_beginning_gives_a_reading_and_a_file(have, region):
    project = begin("New", Answers(have, region, Reading()))
    s = study(project.build, project.facts)

    assert s.trouble is None and s.support is not None
    assert s.readings.total_kg[0] > 100
    assert not {"no-axle", "no-mass", "no-statics"} & {f.code for f in findings(s)}
    assert sled_file.read_bytes(sled_file.to_bytes(project), "x") == project


def test_a_bought_shell_starts_from_its_weighing():
    answers = Answers("a bought shell", "European", Reading(), axle=Length(3.1), total=Mass(640.0), ball=Mass(52.0))
    s = study(begin("New", answers).build, begin("New", answers).facts)

    assert s.readings.total_kg[0] == 640.0
    assert s.readings.tongue_kg[0] == pytest.approx(52.0)


def test_a_vehicle_bed_starts_from_its_axles():
    answers = Answers("a vehicle with a bed", "European", Reading(), total=Mass(1500.0), ball=Mass(1000.0), axle=Length(3.4))
    rig = begin("New", answers).build.rig

    assert (rig.bed.front_empty.si, rig.bed.rear_empty.si, rig.bed.wheelbase.si) == (1500.0, 1000.0, 3.4)


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"length": Length(-3.0)}, "length"),
        ({"length": Length(900.0)}, "up to 15 m"),
        ({"axle": Length(0.0)}, "axle"),
        ({"total": Mass(50.0), "ball": Mass(60.0)}, "swapped"),
    ],
)
def test_answers_that_cannot_be_are_named(changes, says):
    with pytest.raises(EntryError, match=says):
        begin("New", Answers("a bought shell", "European", Reading(), **changes))


@pytest.mark.parametrize("body", BODIES, ids=lambda body: body.kind)
@pytest.mark.parametrize("region", ["European", "North American"])
def test_every_body_is_framed_cut_and_stands_as_it_is_proposed(body, region):
    """Nothing that we propose is a fault of its own: sticks fill their walls, openings have room, and what is framed is cut."""
    have: Any = {"bought trailer": "a bought shell", "box on a bed": "a vehicle with a bed"}.get(body.kind, "nothing yet")
    project = begin("New", Answers(have, region, Reading(), body=body.kind))
    s = study(project.build, project.facts)
    found = {finding.code for finding in findings(s)}
    off = take_off(project.build, project.facts)

    assert s.trouble is None and s.framed.members and not s.framed.faults
    assert bool(off.pieces) is (body.kind != "bought trailer") and not off.unsaid
    assert not {"stick-too-deep", "opening-over-edge", "no-seal", "no-drip", "header-no-room", "low-tail"} & found
    assert len(project.build.rig.axles) == (0 if have == "a vehicle with a bed" else 2 if "house" in body.kind else 1)
    sheet = 1.2192 if region == "North American" else 1.22
    shell = project.build.shell
    if body.kind in ("teardrop", "gable house", "shed house"):  # a wall that a sheet gives, whole
        assert ((shell.eaves or shell.height).si / sheet) % 1 == pytest.approx(0.0, abs=1e-3)


def test_sizes_that_are_typed_win_and_openings_without_room_are_left_out():
    small = begin("New", Answers("nothing yet", "European", Reading(), body="gable house", length=Length(2.0), height=Length(2.15))).build
    assert small.shell.length.si == 2.0 and len(small.rig.axles) == 1 and small.shell.eaves is None
    assert {hole.kind for hole in small.shell.openings} == {"window"} and study(small, Facts()).trouble is None
