"""Small builds with one fault each: it is found, and its remedy clears it; sound ones have nothing to stop for or mind."""

import pytest
from msgspec.structs import replace

from tests.builders import a_thing
from tests.core.planted import FACTS, a_sound_bed, a_sound_frame, a_sound_trailer, plant, with_
from tests.judging import settled_one
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.document.stow import Hold
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import RANK
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.core.studies.balance.road_size import every_limit

PLANTED = dict(plant())
NO_EDIT_HELPS = {"over-gross", "over-jack", "too-large", "too-fast", "floats", "latch-opens", "not-known"}


@pytest.mark.parametrize(("build", "facts"), [(a_sound_trailer(), FACTS), (a_sound_bed(), Facts()), (a_sound_frame(), Facts())])
def test_a_sound_build_has_nothing_to_stop_for_or_mind(build, facts):
    assert [(one.code, one.says) for one in findings(study(build, facts)) if one.severity != "note"] == []


def test_every_limit_of_the_sound_trailer_was_checked():
    held = every_limit(study(a_sound_trailer(), FACTS))

    assert not held.unchecked and len(held.limits) > 14
    assert all(one.severity is None for one in held.limits)


def test_there_are_enough_of_them():
    assert len(PLANTED) >= 12


@pytest.mark.parametrize("code", PLANTED)
def test_a_planted_fault_is_found_and_its_remedy_clears_it(code):
    build = PLANTED[code]
    found = with_remedies(study(build, FACTS), lambda *a: None)
    mine = [one for one in found if one.code == code]

    assert mine, f"{[one.code for one in found]}"
    one = mine[0]
    if code in NO_EDIT_HELPS:
        assert one.remedy is None and one.why_none
        return
    assert one.remedy is not None, one.why_none
    after = findings(study(apply(build, one.remedy.ops), FACTS))
    assert all(other.key != one.key for other in after)
    before = {other.key: RANK[other.severity] for other in found}
    for other in after:
        assert other.severity == "note" or before.get(other.key, 99) <= RANK[other.severity] or other.code == "ball-unsure"


@pytest.mark.parametrize("code", PLANTED)
def test_the_remedy_is_the_same_again(code):
    first, again = (with_remedies(study(PLANTED[code], FACTS), lambda *a: None) for _ in range(2))

    assert [(one.key, one.remedy and one.remedy.says) for one in first] == [(one.key, one.remedy and one.remedy.says) for one in again]


def test_a_negative_ball_gets_the_place_of_an_axle_that_is_not_welded_yet():
    build = with_(
        a_sound_trailer(),
        ("rig.axles.a1.station", {"si": 2.6, "typed": None}),
        ("rig.axle_place", "to be placed"),
        ("stow.things.box.stays", True),
        ("stow.things.bed.stays", True),
    )
    one = settled_one(study(build, FACTS), "ball-light")

    assert one.severity == "stop" and "lifts" in one.title
    assert one.remedy is not None and one.remedy.says.startswith("Weld the axle")


def test_what_hangs_on_the_tail_is_offered_the_drawbar():
    wheel = a_thing(
        "wheel",
        6.0,
        name="Spare wheel",
        kind="spare wheel",
        x=5.2,
        z=0.9,
        size=(0.2, 0.62, 0.62),
        outside=True,
        hold=Hold("bolt", 3, Mass(200.0), "frame"),
        source="weighed",
    )
    build = a_sound_trailer()
    build = replace(build, stow=replace(build.stow, things=(*build.stow.things, wheel)))
    build = with_(
        build, ("rig.axles.a1.station", {"si": 3.175, "typed": None}), ("stow.things.box.stays", True), ("stow.things.bed.stays", True)
    )
    one = settled_one(study(build, FACTS), "ball-light")

    assert one.remedy is not None and "spare wheel" in one.remedy.says.lower() and "forward" in one.remedy.says
    to = next(op.value["si"] for op in one.remedy.ops if op.path.endswith("wheel.x"))
    assert to + 0.2 <= 1.2, "between coupler and body"
