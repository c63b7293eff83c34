"""Where alarms hang: by the floor, under the ceiling, no lower than those who sleep; mended at once."""

import pytest
from msgspec.structs import replace

from tests.builders import a_body, a_build, a_thing
from uncle_sled.catalogue.things import entries, placed
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import settled
from uncle_sled.core.studies.stow.alarm_places import HIGH_M, misplaced
from uncle_sled.core.studies.stow.next_place import next_place
from uncle_sled.core.studies.stow.room import room_of

BED = a_thing("b1", 20.0, x=2.0, z=0.9, size=(1.9, 0.9, 0.15), kind="bed", name="Bed", roles=("mattress",))
CODES = {"gas alarm": "gas-alarm-high", "smoke alarm": "smoke-alarm-low", "CO alarm": "co-alarm-low"}


def built(role, z):
    """A box 2.1 m high from 0.5 m up in a wall of 120 mm: floor at 0.62 m, ceiling at 2.48 m; the alarm is 80 mm high."""
    alarm = a_thing("a1", 0.2, x=4.4, y=0.3, z=z, size=(0.1, 0.1, 0.08), name="Alarm", roles=(role,))
    return a_build((BED, alarm), shell=a_body())


@pytest.mark.parametrize(
    ("role", "right", "amiss", "off_m"),
    [("gas alarm", 0.84, 0.90, 0.06), ("smoke alarm", 2.10, 2.04, 0.06), ("CO alarm", 0.98, 0.90, 0.07)],
)
def test_by_hand_and_mended(role, right, amiss, off_m) -> None:
    """Gas: top at 0.92 is 300 mm over 0.62. Smoke: top at 2.18 is 300 mm under 2.48. CO: its top against the bed's at 1.05."""
    assert misplaced(study(built(role, right), Facts())) == ()
    s = study(built(role, amiss), Facts())
    (place,) = misplaced(s)
    assert place.role == role and place.off_m == pytest.approx(off_m)
    found = next(one for one in findings(s) if one.code == CODES[role])
    (done,) = settled(s, [found])
    assert done.remedy is not None
    assert misplaced(study(apply(s.build, done.remedy.ops), Facts())) == ()


def test_what_hangs_outside_and_what_is_no_alarm_is_not_judged() -> None:
    high = built("gas alarm", 2.0)
    assert len(misplaced(study(high, Facts()))) == 1
    assert misplaced(study(apply(high, [set_to("stow.things.a1.outside", value=True)]), Facts())) == ()
    assert misplaced(study(built("lights", 2.0), Facts())) == ()
    assert misplaced(study(a_build((a_thing("a1", roles=("gas alarm",), z=2.0),)), Facts())) == (), "no body, no floor"


def test_one_from_the_catalogue_hangs_where_it_is_right() -> None:
    for entry in ("gas-alarm", "smoke-alarm", "co-alarm"):
        build = a_build((BED,), shell=a_body())
        made = next(one for one in entries() if one.id == entry)
        s = study(build, Facts())
        x, y, z = next_place(build, Facts(), s.framed, made)
        hung = placed(made, "a1", x, y, z)
        there = replace(build, stow=replace(build.stow, things=(BED, hung)))
        assert misplaced(study(there, Facts())) == (), entry
        assert abs(y) > 0.7, "at a wall, not in the middle of the room"


def test_under_a_slope_the_ceiling_is_the_one_over_the_alarm() -> None:
    """The roof falls to the walls: close under the slope beside a wall it hangs right, though the ridge is far over it."""
    sloped = a_build((BED,), shell=a_body("gable"))
    room = room_of(sloped, Facts())
    assert room is not None
    ceiling, ridge = room.ceiling_m(4.45, 0.8), room.ceiling_m(4.45, 0.0)
    assert ceiling is not None and ridge is not None and ridge - ceiling > HIGH_M
    alarm = a_thing("a1", 0.2, x=4.4, y=0.8, z=ceiling - 0.10, size=(0.1, 0.1, 0.08), roles=("smoke alarm",))
    assert misplaced(study(replace(sloped, stow=replace(sloped.stow, things=(BED, alarm))), Facts())) == ()
    low = replace(alarm, z=Length(ceiling - 0.45))
    assert len(misplaced(study(replace(sloped, stow=replace(sloped.stow, things=(BED, low))), Facts()))) == 1
