"""A roof that goes up: room, cloth, weight, struts, wind and warmth by hand; what meets it on the road; what is said."""

import math
import random

import numpy as np
import pytest
from msgspec.structs import replace
from shapely.geometry import Polygon, box

from tests.builders import METRIC, a_body, a_build, a_rig, a_thing
from tests.judging import settled_one
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.joinery import Strut
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Face, Rising
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.stow.rising_drawn import lift_chart, rising_view, roof_drawn, roof_outline
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.parts.all_parts import framed_of
from uncle_sled.core.parts.rising import guys_hold_n, raised_section, raised_side, risen_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.shell.wind_holds import pushed_n
from uncle_sled.core.studies.stow.beds import standing_room_m
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.core.studies.stow.hinged import hinged
from uncle_sled.core.studies.stow.rising_roof import lift_curve, lift_fault, lift_verdict, meets_when_down, roof_up, search_lift
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.struts import force_n
from uncle_sled.core.studies.systems.heat import paths_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

F = Facts()
ROOF = Face("roof", "roof", "Roof", Mass(40.0), "weighed")


def L(metres):
    return Length(metres)


def a_camper(things=(), rising=None, **changes):
    """A box 4.0 x 2.0 x 2.1 in walls 120 mm thick, 0.5 up, its roof of 40 kg; inside 1.86 high."""
    rising = rising if rising is not None else Rising(rise=L(0.4))
    return a_build(things, rig=a_rig(), shell=a_body("box", faces=(ROOF,), rising=rising), **changes)


def risen(build):
    return risen_of(build.shell, framed_of(build, F).body)


def by_name(build, code):
    return {one.code: one for one in findings(study(build, F))}.get(code)


def test_straight_up_the_room_the_cloth_and_the_heights_by_hand():
    build = a_camper()
    road, camp = build.stow.modes
    made = risen(build)
    assert made.cloth_m2 == pytest.approx(2 * 0.4 * (4.0 + 2.0)) and (made.top_down_m, made.top_up_m) == pytest.approx((2.6, 3.0))
    assert standing_room_m(build, F, road) == pytest.approx(1.86, abs=0.003)
    assert standing_room_m(build, F, camp) == pytest.approx(2.26, abs=0.003)
    assert standing_room_m(build, F) == pytest.approx(1.86, abs=0.003)
    down = replace(camp, roof_down=True)
    assert standing_room_m(build, F, down) == pytest.approx(1.86, abs=0.003)
    parts = {part.id: part for part in study(build, F).parts}
    assert parts["rising-cloth"].mass_kg == pytest.approx(4.8 * 0.42) and parts["rising-fittings"].mass_kg == pytest.approx(1.4 * 12.0)
    assert parts["rising-fittings"].source == "guessed"
    spread = next(spread for spread in take_off(build, F).spreads if spread.of == "rising")
    assert spread.area_m2 == pytest.approx(4.8)
    own = a_camper(rising=Rising(rise=L(0.4), fittings=Mass(9.0), part_from=L(1.0), part_to=L(3.0)))
    assert {part.id: part.mass_kg for part in study(own, F).parts}["rising-fittings"] == 9.0
    assert risen(own).cloth_m2 == pytest.approx(2 * 0.4 * (2.0 + 2.0))


@pytest.mark.parametrize(("way", "run", "other"), [("front", 4.0, 2.0), ("rear", 4.0, 2.0), ("left", 2.0, 4.0), ("right", 2.0, 4.0)])
def test_about_an_edge_it_turns_until_the_other_is_up(way, run, other):
    build = a_camper(rising=Rising(way, L(0.5)))
    made = risen(build)
    turn = math.asin(0.5 / run)
    assert made.turn_deg == pytest.approx(math.degrees(turn))
    assert made.cloth_m2 == pytest.approx(other * 0.5 + run * math.cos(turn) * 0.5)
    room = room_of(build, F, build.stow.modes[1])
    flat = room_of(build, F)
    if way in ("front", "rear"):
        inner = run - 0.24
        more = room.side.area - flat.side.area
        assert more == pytest.approx(inner**2 / 2 * math.sin(turn), rel=0.02)  # the triangle under the turned roof
        high, low = (4.9, 1.4) if way == "front" else (1.4, 4.9)
        assert room.ceiling_m(high) > flat.ceiling_m(high) + 0.4 and room.ceiling_m(low) < flat.ceiling_m(low) + 0.05
    else:
        far = 0.8 if way == "left" else -0.8
        assert room.ceiling_m(3.0, far) > flat.ceiling_m(3.0, far) + 0.4 and room.ceiling_m(3.0, -far) < flat.ceiling_m(3.0, -far) + 0.08


def test_what_the_roof_sweeps_is_what_lies_within_its_rise_of_it():
    """Points under a profile's curve, moved down by no more than the rise, lie inside: by brute force."""
    rng = random.Random(7)
    shape = Polygon([(0, 0), (3, 0), (3, 0.9), (2.2, 1.3), (1.0, 1.4), (0.2, 0.9)])
    for _ in range(60):
        a, b, rise = rng.uniform(0, 1.2), rng.uniform(1.8, 3.0), rng.uniform(0.05, 0.6)
        made = risen(a_camper(rising=Rising(rise=L(rise))))
        made = replace(made, a_m=a, b_m=b)
        up = raised_side(shape, made)
        for _ in range(40):
            x, z = rng.uniform(0, 3), rng.uniform(0, 2.2)
            inside = shape.contains(box(x, z, x + 1e-6, z + 1e-6))
            swept = a <= x <= b and any(shape.contains(box(x, z - d, x + 1e-6, z - d + 1e-6)) for d in np.linspace(0, rise, 200))
            near = shape.exterior.distance(Polygon([(x, z), (x + 1e-6, z), (x, z + 1e-6)])) < 0.02 or abs(x - a) < 0.01 or abs(x - b) < 0.01
            edge = up.boundary.distance(Polygon([(x, z), (x + 1e-6, z), (x, z + 1e-6)])) < 0.02
            if not near and not edge:
                assert up.contains(box(x, z, x + 1e-6, z + 1e-6)) == (inside or swept), (x, z, a, b, rise)
    assert raised_section(box(-1, 0, 1, 2), replace(made, way="lifts", rise_m=0.3)).area == pytest.approx(2 * 2.3)


def test_lifting_straight_by_hand():
    """60 kg on four struts of 300 N, k 1: dx 0.30, from 0.05 to 0.45 up: 4 x 300 x 0.45 / 0.5408 = 998 N, 588 weigh."""
    strut = Strut(
        L(0.29),
        L(0.56),
        stroke=L(0.26),
        force_n=300.0,
        many=4,
        body_x=L(0.0),
        body_z=L(0.0),
        lid_x=L(0.3),
        lid_z=L(0.05),
        rise=1.0,
        friction_n=20.0,
    )
    curve = lift_curve(60.0, strut, 0.4, 20.0)
    assert curve.gas_n[-1] == pytest.approx(4 * 300 * 0.45 / math.hypot(0.3, 0.45))
    assert curve.raise_n[-1] == pytest.approx(60 * 9.80665 - 4 * (300 - 20) * 0.45 / math.hypot(0.3, 0.45))
    assert curve.close_n[-1] == pytest.approx(4 * (300 + 20) * 0.45 / math.hypot(0.3, 0.45) - 60 * 9.80665)
    assert curve.length_m[0] == pytest.approx(math.hypot(0.3, 0.05))
    cold = lift_verdict(60.0, strut, 0.4)
    assert cold.hold_share == pytest.approx(998.4 / 588.4 * 263.15 / 293.15, rel=1e-3)
    # an independent force sum: work of the gas over the way equals the strut's own work, F dL
    work = float(np.sum((curve.gas_n[1:] + curve.gas_n[:-1]) / 2 * np.diff(curve.up_m)))
    own = 4 * np.sum(np.asarray(force_n(strut, (curve.length_m[1:] + curve.length_m[:-1]) / 2, 20.0)) * np.diff(curve.length_m))
    assert work == pytest.approx(own, rel=1e-3)


def test_the_search_finds_struts_that_meet_every_limit_where_there_are_any():
    found = search_lift(38.0, 0.3)
    assert found is not None and lift_verdict(38.0, found, 0.3).good and not lift_fault(found)
    assert search_lift(38.0, 3.0) is None
    weaker = replace(found, force_n=found.force_n - 50.0)  # the weakest was found
    assert not lift_verdict(38.0, weaker, 0.3).good


def test_what_rises_weighs_what_is_on_it():
    """Roof 40 kg, half of 16.8 kg of fittings, half of 2.0 of cloth, a panel of 12 kg on it; not what stands inside or beside."""
    panel = a_thing("sun", 12.0, x=2.5, z=2.6, size=(1.0, 0.6, 0.03), kind="solar", outside=True)
    inside, beside = a_thing("in", 30.0, x=2.0, z=0.62), a_thing("jug", 9.0, x=0.4, z=0.6, outside=True)
    roof = roof_up(study(a_camper([panel, inside, beside]), F))
    assert roof.mass_kg == pytest.approx(40.0 + 16.8 / 2 + 4.8 * 0.42 / 2 + 12.0) and roof.unknown == ()
    assert roof.by_hand_n == pytest.approx(roof.mass_kg * 9.80665)
    bare = roof_up(study(replace(a_camper(), shell=replace(a_camper().shell, faces=())), F))
    assert bare.mass_kg is None and "not known" in bare.why


def test_it_is_told_when_nothing_holds_it_and_a_pin_settles_it():
    s = study(a_camper(), F)
    found = settled_one(s, "roof-up-second")
    assert found.caution and "not checked" in found.says
    pinned = apply(s.build, found.remedy.ops)
    assert by_name(pinned, "roof-up-second") is None
    assert "Nothing holds" in by_name(a_camper(rising=Rising(rise=L(0.4), second="none")), "roof-up-second").says
    heavy = settled_one(s, "roof-up-heavy")
    assert heavy.remedy is not None and by_name(apply(s.build, heavy.remedy.ops), "roof-up-heavy") is None
    turned = {leaf.id: leaf for leaf in hinged(study(a_camper(rising=Rising("front", L(0.5), strut=Strut(), second="prop")), F))}
    assert turned["rising"].turning.hand_m == pytest.approx(4.0) and turned["rising"].propped


@pytest.mark.parametrize(
    ("rising", "says"),
    [
        (Rising(rise=L(0.4), part_from=L(3.0), part_to=L(3.1)), "100 mm long"),
        (Rising(rise=L(0.4), part_to=L(4.5)), "500 mm past the body"),
        (Rising("left", L(1.99)), "would turn 84"),
        (Rising(rise=L(0.4), strut=Strut(shut=L(0.5), open=L(0.4))), "longer open than shut"),
        (Rising(rise=L(0.4), strut=Strut(lid_z=L(-0.5), body_z=L(0.0))), "pull the roof down"),
    ],
)
def test_what_cannot_be_is_said_in_words(rising, says):
    s = study(a_camper(rising=rising), F)
    told = " ".join(Words(METRIC).told(one.says) for one in findings(s) if one.code in ("roof-up-wrong", "roof-up-strut"))
    assert says in told
    roof_drawn(s, roof_up(s), Words(METRIC), 400, 300)


def test_a_shelf_that_stands_too_high_meets_the_roof_on_the_road_only():
    """The ceiling is at 2.48 on the road and 2.88 in camp: a shelf up to 2.54 is 60 mm too high."""
    shelf = a_thing("shelf", x=2.0, z=2.24, size=(0.3, 0.5, 0.3))
    build = a_camper([shelf])
    found = clashes(build, F)
    assert [clash.kind for clash in found["road"] if clash.a == "shelf"] == ["body"] and not [
        c for c in found["camp"] if c.a == "shelf" and c.kind == "body"
    ]
    (meets,) = meets_when_down(study(build, F))
    assert meets.a == "shelf" and meets.by_m == pytest.approx(0.06, abs=0.003)
    panel = a_thing("sun", 12.0, x=2.5, z=2.6, size=(1.0, 0.6, 0.03), kind="solar", outside=True)
    assert not [c for c in clashes(a_camper([panel]), F)["camp"] if c.a == "sun"]  # it goes up with the roof


def test_wind_from_the_side_by_hand():
    """4.0 x 0.4 m of cloth at 20 m/s: 0.6 x 400 x 1.3 x 1.6 / 2 = 249.6 N; four guys of 300 N: two of them at 45 degrees, 424 N."""
    build = a_camper(rising=Rising(rise=L(0.4), guys=4, guy_n=300.0), brief=Brief(parked_wind_m_s=20.0))
    assert pushed_n(risen(build), 20.0) == pytest.approx(249.6)
    assert guys_hold_n(build.shell.rising) == pytest.approx(2 * 300 * math.sqrt(0.5))
    checks = {check.id: check for check in screening(study(build, F))}
    assert checks["risen-push"].use == pytest.approx(249.6 / (600 * math.sqrt(0.5)))
    assert checks["wind-risen"].limit < checks["wind-parked"].limit
    bare = apply(build, [set_to("shell.rising.guys", 0)])
    found = settled_one(study(bare, F), "roof-up-guys")
    assert "250 N" in found.says and found.remedy is not None
    mended = apply(bare, found.remedy.ops)
    assert by_name(mended, "roof-up-guys") is None and mended.shell.rising.guys == 4  # two pairs of 212 N
    unsaid = {check.id: check for check in screening(study(apply(build, [set_to("shell.rising.guy_n", None)]), F))}
    assert unsaid["risen-push"].use is None and "not said" in unsaid["risen-push"].why
    down = replace(build, stow=replace(build.stow, modes=(build.stow.modes[0], replace(build.stow.modes[1], roof_down=True))))
    assert "risen-push" not in {check.id for check in screening(study(down, F))}


def test_cloth_lets_warmth_out_where_one_stands_so():
    build = a_camper()
    path = {path.id: path for path in paths_of(build, F, framed_of(build, F))}["rising"]
    assert path.area_m2 == pytest.approx(4.8) and path.u_w_m2k == pytest.approx(1 / 0.17)
    down = replace(build, stow=replace(build.stow, modes=(build.stow.modes[0], replace(build.stow.modes[1], roof_down=True))))
    assert "rising" not in {path.id for path in paths_of(down, F, framed_of(down, F))}


def test_it_is_drawn_up_where_it_is_up():
    build = a_camper(rising=Rising(rise=L(0.4), strut=search_lift(51.0, 0.4)))
    s, (road, camp) = study(build, F), build.stow.modes
    assert rising_view(build, F, road, "side") == () and len(rising_view(build, F, camp, "plan")) == 1
    (side,) = rising_view(build, F, camp, "side")
    assert Polygon(side.points).area == pytest.approx(0.4 * 4.0)
    (rear,) = rising_view(build, F, camp, "rear")
    assert Polygon(rear.points).area == pytest.approx(0.4 * 2.0)
    assert len(roof_outline(s)) == 1
    told = [shape.text for shape in roof_drawn(s, roof_up(s), Words(METRIC), 400.0, 300.0) if isinstance(shape, Text)]
    assert "2.60 m" in told and "3.00 m" in told
    chart = lift_chart(roof_up(s), Words(METRIC), 300.0, 240.0)
    assert sum(isinstance(shape, Poly) for shape in chart) >= 6 and lift_chart(roof_up(s), Words(METRIC), 60.0, 60.0) == ()
    still = study(replace(build, shell=replace(build.shell, rising=None)), F)
    assert roof_up(still) is None and roof_outline(still) == () and meets_when_down(still) == ()


def test_a_side_that_folds_down_is_a_floor_under_cloth():
    """The right side, 2.1 m high, from 1.0 to 3.0 along: level 2.1 m out; cloth 2.0 x 2.1 sqrt 2 and two triangles, 10.35 m2."""
    side = Face("right", "right side", "Right", Mass(60.0), "weighed")
    folded = Rising("fold right", part_from=L(1.0), part_to=L(3.0))
    build = a_build(rig=a_rig(), shell=a_body("box", faces=(ROOF, side), rising=folded))
    made = risen(build)
    assert made.folds and made.rise_m == pytest.approx(2.1) and made.cloth_m2 == pytest.approx(2.0 * 2.1 * math.sqrt(2) + 2.1**2)
    roof = roof_up(study(build, F))
    assert roof.mass_kg == pytest.approx(60.0 / 2 + 1.4 * 2 * (2.0 + 2.1) / 2 + made.cloth_m2 * 0.42 / 2)
    assert roof.by_hand_n == pytest.approx(roof.mass_kg * 9.80665 / 2) and roof.curves == ()
    road, camp = build.stow.modes
    room, shut = room_of(build, F, camp), room_of(build, F, road)
    assert room.ceiling_m(3.0, 1.5) is not None and shut.ceiling_m(3.0, 1.5) is None
    cot = a_thing("cot", x=2.4, y=1.3, z=0.62, size=(1.8, 0.7, 0.4))  # out on the folded side
    told = clashes(replace(build, stow=replace(build.stow, things=(cot,))), F)
    assert [c for c in told["road"] if c.kind == "body"] and not [c for c in told["camp"] if c.kind == "body"]
    assert "level" in by_name(build, "roof-up-second").says
    plan = rising_view(build, F, camp, "plan")
    assert Polygon(plan[0].points).area == pytest.approx(2.0 * 2.1)
    assert Polygon(rising_view(build, F, camp, "rear")[0].points).area == pytest.approx(2.1**2 / 2, rel=0.01)
    assert roof_drawn(study(build, F), roof, Words(METRIC), 400.0, 300.0)
    long = apply(build, [set_to("shell.rising.part_to", {"si": 5.0, "typed": None})])
    assert "past the body" in Words(METRIC).told(by_name(long, "roof-up-wrong").says)


def test_the_demo_whose_roof_goes_up_has_its_problems_and_what_settles_them():
    """Guys, the hatch's struts in frost, a shelf under the roof; its ball is right in every case, and it goes into its garage."""
    project = demo("ferry-bell")
    s = study(project.build, project.facts)
    codes = {one.code for one in findings(s)}
    assert {"roof-up-guys", "hatch-falls", "clash-body"} <= codes and not [code for code in codes if code.startswith("ball-")]
    assert roof_up(s).verdict.good and risen_of(s.build.shell, s.framed.body).top_down_m < 1.95 - 0.1
    for code in ("roof-up-guys", "hatch-falls", "clash-body"):
        found = settled_one(s, code)
        assert found.remedy is not None, code
        after = study(apply(s.build, found.remedy.ops), project.facts)
        assert code not in {one.code for one in findings(after)}, code
    (meets,) = meets_when_down(s)
    assert meets.a_name == "Kettle shelf"
