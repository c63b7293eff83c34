import msgspec
import pytest

from tests.builders import a_bed, a_build, a_rig, a_shell, a_tank, a_thing
from tests.judging import judged_once, settled_one
from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Axle, Rig, Tyre
from uncle_sled.core.document.stow import LoadCase, Mode
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import RANK, to_settle
from uncle_sled.core.reading.limits import tyre_capacity_kg, use
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.exchange.demos import DEMOS, demo


def found(build, facts=None):
    return {f.code: f for f in findings(study(build, facts or Facts()))}


DEMO_BUILDS = {name: demo(name) for name in DEMOS}


@pytest.mark.parametrize("name", DEMOS)
def test_every_remedy_of_a_demo_does_what_it_says(name):
    """Applying clears (code, where), adds no stop, makes nothing worse; undoing gives an equal build."""
    project = DEMO_BUILDS[name]
    s = study(project.build, project.facts)
    before = judged_once(s)
    for one in before:
        assert (one.remedy is None) != (one.why_none is None), one.code
        if one.remedy is None:
            continue
        tried = study(apply(project.build, one.remedy.ops), project.facts)
        after = {f.key: f for f in findings(tried)}

        assert one.key not in after
        for key, f in after.items():
            was = next((old for old in before if old.key == key), None)
            assert f.severity == "note" or was is not None, f"{one.remedy.says} brings {f.title}"
            assert was is None or RANK[f.severity] >= RANK[was.severity]
        places = [op.path.rpartition(".")[0] if op.op == "remove" else op.path for op in one.remedy.ops]
        lists = {op.path for op in one.remedy.ops if op.op == "add"} | {"systems.wires"}
        places = sorted(set(places), key=lambda path: path not in lists)  # whole lists first, then what is in them
        undone = [set_to(path, msgspec.to_builtins(_at(project.build, path))) for path in places]
        assert apply(tried.build, undone) == project.build
        assert dict(one.remedy.after).keys() == {case.id for case in tried.table.cases}


def _at(build, path):
    from uncle_sled.core.document.edits import get

    return get(build, path)


def test_marsh_heron_goes_light_coming_home_and_the_grey_jug_settles_it():
    project = DEMO_BUILDS["marsh-heron"]
    one = settled_one(study(project.build, project.facts), "ball-light")

    assert one.case_id == "coming-home"
    assert one.remedy is not None and "grey jug beside the fresh jug" in one.remedy.says
    settled = study(apply(project.build, one.remedy.ops), project.facts)
    assert to_settle(findings(settled), "Balance") == 0


def test_an_axle_that_is_not_welded_may_be_the_remedy():
    build = a_build(
        [a_thing("t1", 100.0, x=2.45, stays=True)], rig=a_rig(axle=3.4, axle_place="to be placed", stabiliser_station=Length(4.0))
    )
    one = settled_one(study(build, Facts()), "ball-heavy")

    assert one.remedy is not None and one.remedy.ops[0].path == "rig.axles.a1.station"
    assert "Weld the axle" in one.remedy.says and "forward" in one.remedy.says


def test_a_welded_axle_is_never_moved():
    build = a_build([a_thing("t1", 100.0, x=1.6, stays=True)], rig=a_rig(axle=3.4))
    one = settled_one(study(build, Facts()), "ball-heavy")

    assert one.remedy is None and one.why_none


@pytest.mark.parametrize(
    ("region", "axle", "code", "severity"),
    [
        ("European", 2.20, "ball-light", "stop"),
        ("European", 2.66, "ball-light", "mind"),
        ("European", 3.20, "ball-heavy", "mind"),
        ("North American", 2.70, "ball-light", "stop"),
        ("Australian/New Zealand", 2.79, "ball-light", "mind"),
    ],
)
def test_severity_by_practice(region, axle, code, severity):
    rig = a_rig(axle=axle, axles=(Axle("a1", Length(axle)),), frame=500.0, frame_cg=2.54)

    assert found(a_build(rig=rig, brief=Brief(region)))[code].severity == severity


def test_more_on_the_ball_than_the_car_may_carry_is_a_stop():
    facts = Facts(vehicles=(Vehicle("v1", "Small car", Mass(30.0)),))
    f = found(a_build(rig=a_rig(axle=3.2)), facts)["ball-heavy"]

    assert f.severity == "stop" and "Small car" in f.why


def test_cg_behind_the_axle_is_a_stop_that_also_tips_it():
    codes = found(a_build([a_thing(mass=300.0, x=3.6)], rig=a_rig(axle=2.7)))

    assert codes["ball-light"].severity == "stop" and "lifts" in codes["ball-light"].title
    assert codes["jack-lifts"].severity == "stop"


@pytest.mark.parametrize(
    ("rig", "code"),
    [
        (a_rig(gross_total=Mass(100.0)), "over-gross"),
        (a_rig(axle_group=Mass(100.0)), "over-axle-group"),
        (a_rig(axles=(Axle("a1", Length(3.0), Mass(60.0), Mass(100.0)),)), "over-axle"),
        (a_rig(tyre=Tyre(62), frame=700.0), "over-tyre"),
        (a_rig(coupler_rating=Mass(5.0)), "over-coupler"),
        (a_rig(jack_rating=Mass(5.0)), "over-jack"),
        (a_rig(jack_rating=Mass(60.0)), "over-jack"),
        (a_bed(rear_rating=Mass(900.0)), "over-rear-axle"),
        (a_bed(gross_rating=Mass(900.0)), "over-gross"),
    ],
)
def test_ratings_exceeded(rig, code):
    assert found(a_build([a_thing(mass=50.0)], rig=rig))[code].severity == ("mind" if rig.jack_rating == Mass(60.0) else "stop")


def test_a_body_behind_the_rear_axle_lightens_the_front():
    codes = found(a_build([a_thing(mass=700.0, x=4.6)], rig=a_bed()))

    assert codes["over-least-front"].severity == "mind"


@pytest.mark.parametrize(
    ("thing", "code"),
    [
        (a_thing(size=(0.0, 0.4, 0.3)), "no-size"),
        (a_tank(litres=0.0), "tank-no-volume"),
        (a_tank(litres=500.0), "tank-too-small"),
        (a_thing(mass=0.0), "no-weight"),
        (a_thing(size=(9.0, 0.4, 0.3)), "too-big"),
        (a_tank(litres=45.0, x=1.3, size=(0.5, 0.5, 0.4)), "tank-far"),
    ],
)
def test_single_things_that_are_wrong(thing, code):
    assert code in found(a_build([thing], shell=a_shell()))


def test_a_guess_that_owns_the_doubt_is_named():
    assert found(a_build([a_thing("t1", 150.0, x=0.4, source="guessed")]))["guess-matters"].where == ("t1",)


def test_an_empty_build_says_what_is_missing_and_a_build_without_mass_too():
    assert set(found(a_build(rig=Rig()))) == {"no-axle"}
    assert "no-mass" in found(a_build(rig=a_rig(frame_mass=None, axles=(Axle("a1", Length(3.0)),))))
    assert found(a_build(rig=a_rig(axle=-1.0)))["no-statics"].severity == "stop"


def test_equal_cases_are_kept_once_and_say_so():
    s = study(a_build([a_thing()]), Facts())

    assert [case.id for case in s.table.cases] == ["going-out", "bare-shell", "camp"]
    assert s.table.cases[0].same_as == ("Coming home", "All full", "All empty", "Gas low", "For sale")


def test_a_case_of_ones_own_takes_the_place_of_a_standing_one():
    build = a_build([a_tank()])
    case = {"id": "going-out", "name": "Half full", "mode": "road", "levels": [{"id": "w1", "level": 0.5}]}
    s = study(apply(build, [set_to("stow.cases", [case])]), Facts())

    assert s.table.cases[0].name == "Half full"
    assert s.readings.total_kg[0] == pytest.approx(260 + 4 + 20)


def test_cargo_goes_home_and_absent_things_stay_behind():
    mode = Mode("road", "Road", True, (), ("t2",))
    build = a_build([a_thing("t1", cargo=True), a_thing("t2", mass=7.0), a_thing("t3", mass=5.0)])
    s = study(apply(build, [set_to("stow.modes", msgspec.to_builtins((mode,)))]), Facts())

    assert s.readings.total_kg[s.table.row("going-out")] == pytest.approx(285.0)
    assert s.readings.total_kg[s.table.row("for-sale")] == pytest.approx(265.0)


def test_no_towing_mode_gives_no_ball_case():
    build = apply(a_build([a_thing()]), [remove("stow.modes.road")])
    s = study(build, Facts())

    assert s.towing_rows == [] and [c.id for c in s.table.cases] == ["camp"]
    assert LoadCase("x", "x", "camp").stage == "loaded"


def test_limits_come_nearest_first_and_tyres_are_never_rounded_up():
    s = study(a_build([a_thing()], rig=a_rig(gross_total=Mass(750.0), tyre=Tyre(85))), Facts())
    shares = [use(limit) for limit in s.limits]

    assert shares == sorted(shares, reverse=True)
    assert tyre_capacity_kg(85) == 515.0 and tyre_capacity_kg(91) == 615.0
    assert tyre_capacity_kg(40) is None and tyre_capacity_kg(127) is None, "never the nearest"


def test_results_of_untouched_parts_are_kept():
    build = a_build([a_thing("t1"), a_thing("t2", x=3.0)], shell=a_shell())
    before = study(build, Facts())
    after = study(apply(build, [set_to("stow.things.t1.x", {"si": 2.4, "typed": None})]), before.facts)
    of = {p.id: p for p in before.parts}

    assert all(p is of[p.id] for p in after.parts if p.id != "t1")
    assert study(build, before.facts) is before


def test_absurd_sizes_and_many_things_do_not_hang_the_search():
    """A body of a thousand kilometres, an axle at the horizon, two hundred things: an answer after so many tries."""
    told = []
    things = [a_thing(f"t{at}", 5.0, x=1.3 + at % 20 / 10, y=at % 7 / 10, z=0.6) for at in range(200)]
    for build in (
        a_build([a_thing("t1", 200.0)], shell=a_shell(length=Length(1e6))),
        a_build([a_thing("t1", 200.0)], rig=a_rig(axle=1e6, axle_place="to be placed"), shell=a_shell()),
        a_build(things, shell=a_shell()),
    ):
        for one in with_remedies(study(build, Facts()), lambda share, words: told.append(words)):
            assert one.remedy or one.why_none

    assert 0 < len(told) < 1500
