import pytest

from uncle_sled.core.document.beginnings import HAVES, Answers, begin
from uncle_sled.core.document.brief import Reading
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.errors import EntryError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
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
