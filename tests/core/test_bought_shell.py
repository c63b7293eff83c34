"""A bought shell: its survey, its posts, what is cut between them, and faces stripped and lined again."""

import math

import pytest
from msgspec import to_builtins
from msgspec.structs import replace

from tests.builders import a_body, a_build, a_rig, a_thing
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.project import Facts, Project
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.shell import Opening, Relining, Section, Survey
from uncle_sled.core.document.surveying import survey_ops
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.framing.bought_shell import BOUGHT, HAT, bridged, cut_posts, posts_of
from uncle_sled.core.framing.school import Hole
from uncle_sled.core.materials import materials
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.inside import thickness_m
from uncle_sled.core.parts.relining import added_m, relined
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.shell.survey import planned_on_old, surveyed_of, tyre_years
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange import sled_file

WORDS = Words(Shown("m", "kg", "L"))


def L(metres):
    return Length(metres)


def bought(things=(), openings=(), relining=(), survey=None, **shell):
    """A box 4.0 x 2.0 x 2.1 in a wall 40 mm thick, posts at 0.5 m, bought and weighed at 800 kg."""
    rig = replace(a_rig(), base="as bought", bought_total=Mass(800.0), bought_ball=Mass(70.0), frame_mass=None)
    rig = replace(rig, axles=tuple(replace(axle, mass=None) for axle in rig.axles))
    body = a_body("box", "bought shell", wall=L(0.040), faces=(), openings=tuple(openings), relined=tuple(relining), survey=survey, **shell)
    return a_build(things, rig=rig, shell=body)


def a_window(along, wide=0.4, up=0.8, high=0.5, **more):
    return Opening("w", "window", "Window", "left side", L(along), L(up), L(wide), L(high), cut_since=True, **more)


# survey
def test_check_case_racked_by_the_diagonals():
    survey = Survey(diagonal_left=L(3.372), diagonal_right=L(3.338))
    shell = replace(a_body("box", survey=survey), length=L(3.0), width=L(1.5))
    assert surveyed_of(shell, WORDS).racked_m == pytest.approx(0.0190, abs=5e-5)


@pytest.mark.parametrize("off", [0.0, 0.004, 0.02, -0.03])
def test_racked_agrees_with_a_drawn_parallelogram(off):
    """A body 3.0 x 1.5 whose rear is pushed aside: its diagonals give the push back."""
    d1, d2 = math.hypot(3.0, 1.5 + off), math.hypot(3.0, 1.5 - off)
    shell = replace(a_body("box", survey=Survey(diagonal_left=L(d1), diagonal_right=L(d2))), length=L(3.0), width=L(1.5))
    # (d1^2 - d2^2) / 4L = 2 * 1.5 * 2 off / (4 * 3.0)
    assert surveyed_of(shell, WORDS).racked_m == pytest.approx(1.5 * off / 3.0)


@pytest.mark.parametrize("d", [5.0, 0.4])
def test_diagonals_that_no_body_has_are_refused_in_words(d):
    shell = replace(a_body("box", survey=Survey(diagonal_left=L(d), diagonal_right=L(3.35))), length=L(3.0), width=L(1.5))
    found = surveyed_of(shell, WORDS)
    assert found.racked_m is None and "left front" in found.impossible
    s = study(a_build(shell=shell), Facts())
    assert "survey-impossible" in {f.code for f in findings(s)}


def test_twist_bow_and_toe_by_hand():
    survey = Survey(
        left_front=L(0.500),
        right_front=L(0.503),
        left_rear=L(0.498),
        right_rear=L(0.515),
        bow_crown=L(0.050),
        toe_front=L(1.700),
        toe_rear=L(1.706),
    )
    found = surveyed_of(replace(a_body("box", survey=survey), width=L(1.80)), WORDS)
    assert found.twist_m == pytest.approx(0.014)
    assert (found.bow_radius_m, found.bow_arc_m) == (pytest.approx(8.125), pytest.approx(1.8037, abs=5e-5))
    assert found.toe_m == pytest.approx(0.006)
    assert found.racked_m is None and found.tyre_years is None


@pytest.mark.parametrize(
    ("tyre", "day", "years", "fault"),
    [
        ("2319", "2026-11-25", 7.5, ""),
        ("5399", "2026-11-25", None, "younger"),
        ("0026", "2026-11-25", None, "no date of a tyre"),
        ("week 3", "2026-11-25", None, "no date of a tyre"),
        ("2319", "", None, ""),
        ("2319", "last May", None, "no date"),
    ],
)
def test_tyres_age_on_the_day_of_the_survey(tyre, day, years, fault):
    found, says = tyre_years(Survey(date=day, tyre_date=tyre))
    assert (found is None) if years is None else found == pytest.approx(years, abs=0.1)
    assert fault in says and bool(fault) == bool(says)


def test_what_was_measured_takes_the_place_of_what_was_planned_and_the_rest_is_listed():
    thing = a_thing("box", x=2.0, y=1.0 - 0.04 - 0.2, size=(0.5, 0.4, 0.3))  # against the right wall
    far = a_thing("far", x=3.0, y=0.0, size=(0.5, 0.4, 0.3))
    build = bought([thing, far])
    after = apply(build, survey_ops(build.shell, "width_middle", L(1.98)))
    assert after.shell.width.si == 1.98 and after.shell.survey.planned_width.si == 2.0
    again = apply(after, survey_ops(after.shell, "width_front", L(1.985)))
    assert again.shell.survey.planned_width.si == 2.0 and again.shell.width.si == 1.98  # the middle one counts
    planned = planned_on_old(after, WORDS)
    assert [one.id for one in planned] == ["box"] and planned[0].dy_m == pytest.approx(-0.01)
    s = study(after, Facts())
    one = next(f for f in findings(s) if f.code == "planned-on-old")
    from uncle_sled.core.findings.all_findings import RULES

    ops, _ = RULES[one.code].cure(s, one)
    mended = apply(after, ops)
    assert mended.stow.things[0].y.si == pytest.approx(thing.y.si - 0.01)
    assert not planned_on_old(mended, WORDS)


def test_a_state_that_nobody_should_build_on_is_said():
    build = bought(survey=Survey(rust="through", floor_state="soft", bearings="worn", papers="missing"))
    found = {(f.where[1], f.severity) for f in findings(study(build, Facts())) if f.code == "survey-state"}
    assert found == {("rust", "stop"), ("floor", "mind"), ("bearings", "mind"), ("papers", "mind")}
    sound = bought(survey=Survey(rust="none", floor_state="sound", bearings="sound", papers="there"))
    assert not [f for f in findings(study(sound, Facts())) if f.code.startswith("survey")]


# posts
def test_posts_stand_where_they_were_measured():
    survey = Survey(post_first=L(0.30), post_pitch=L(0.60), post_width=L(0.05), post_depth=L(0.030))
    s = study(bought(survey=survey), Facts())
    posts = sorted(m.at_m[0] - 1.2 for m in s.framed.on("left side") if m.kind == "post")
    assert posts == pytest.approx([0.025, *(0.30 + 0.60 * k for k in range(7)), 3.975], abs=1e-6)
    assert all(m.section_m == (0.05, 0.030) and m.material == HAT.id for m in s.framed.on("left side") if m.kind == "post")
    assert not s.framed.faults


def test_a_post_as_wide_as_its_pitch_is_refused():
    s = study(bought(survey=Survey(post_pitch=L(0.3), post_width=L(0.35))), Facts())
    assert [f.code for f in s.framed.faults] == ["no-pitch"] and not s.framed.members


def test_the_weighed_total_stays_the_truth():
    """Posts and bows were weighed with the trailer; only what came in since counts."""
    s = study(bought(), Facts())
    assert s.framed.members and s.readings.total_kg[0] == pytest.approx(800.0)


def test_an_opening_between_posts_wants_no_header_and_one_over_a_post_does():
    between = study(bought(openings=[a_window(1.55, 0.4)]), Facts())
    assert not {m.kind for m in between.framed.on("left side")} & {"header", "bridge", "jamb"}
    over = study(bought(openings=[a_window(1.30, 0.5)]), Facts())
    made = {m.kind: m for m in over.framed.on("left side")}
    assert {"header", "bridge", "jamb"} <= made.keys() and not over.framed.faults
    header = made["header"]
    left, _, right, _ = header.shape.bounds
    assert (left, right) == (pytest.approx(1.0 + 0.019), pytest.approx(2.0 - 0.019))  # from post to post
    weights = {p.id: p.mass_kg for p in over.parts}
    added = sum(m.mass_kg for m in over.framed.members if m.kind in ("header", "bridge", "jamb"))
    assert weights["sticks-left-side"] == pytest.approx(added)
    assert weights["w"] > 0 > weights["cut-w"]


@pytest.mark.parametrize(
    ("window", "says"), [(a_window(0.01, 0.5), "corner post"), (a_window(1.30, 0.5, up=1.3, high=0.78), "header wants")]
)
def test_what_cannot_be_carried_over_is_refused(window, says):
    s = study(bought(openings=[window]), Facts())
    assert [f.code for f in s.framed.faults] == ["post-cut"] and says in s.framed.faults[0].says
    assert not [c for c in s.framed.cuts if c.id == "w" and c.good]
    assert "post-cut" in {f.code for f in findings(s)}


def test_a_header_does_not_run_through_another_opening():
    low = replace(a_window(1.30, 0.5, up=0.4, high=0.4), id="a", name="Low")
    high = replace(a_window(1.30, 0.5, up=0.82, high=0.4), id="b", name="High")
    s = study(bought(openings=[low, high]), Facts())
    assert any("another opening" in f.says for f in s.framed.faults)


def test_what_the_maker_cut_is_not_judged():
    s = study(bought(openings=[replace(a_window(0.01, 0.5), cut_since=False)]), Facts())
    assert not s.framed.faults


def test_bridged_by_brute_force():
    sizes = BOUGHT.sizes
    posts, b = posts_of(0.0, 4.0, sizes), sizes.stick[0]
    for k in range(200):
        left = 0.02 * k
        for wide in (0.1, 0.45, 0.9):
            hole = Hole("h", "window", left, 0.8, left + wide, 1.2)
            hit = [p for p in posts if not (p + b / 2 <= left + 1e-6 or p - b / 2 >= left + wide - 1e-6)]
            assert cut_posts(posts, b, left, left + wide) == pytest.approx(hit)
            span = bridged(posts, b, hole)
            if hit and span is not None:
                assert span[0] + b / 2 <= left + 1e-6 and span[1] - b / 2 >= left + wide - 1e-6
                assert not [p for p in posts if span[0] < p < span[1] and p not in hit]


# relining
RELINING = Relining(
    "r1", "left side", None, "light-ply", L(0.006), "xps", L(0.025), Section(L(0.045), L(0.020)), L(0.40), "birch-ply", L(0.006)
)


def test_mass_out_and_in_closes_and_stands_where_its_face_is():
    plain, s = study(bought(), Facts()), study(bought(relining=[RELINING]), Facts())
    found = relined(RELINING, s.build.shell, s.framed, library_of(()))
    lib = materials()
    area = 4.0 * 2.1
    assert found.area_m2 == pytest.approx(area)
    assert found.out_kg == pytest.approx(area * lib["light-ply"].weight_kg_m2(0.006))
    rows = [4.0] * 6  # at 22 mm, then every 400, in 2.1 m of height
    assert found.furring_m == pytest.approx(rows)
    between = sum(bay.area_m2 * bay.many for bay in found.bays)
    inside = (between * 0.025 * 32 + sum(rows) * 0.045 * 0.020 * 450 + area * 0.006 * 680) * 1.04
    assert found.in_kg == pytest.approx(inside)
    gained = float(s.readings.total_kg[0] - plain.readings.total_kg[0])
    assert gained == pytest.approx(found.in_kg - found.out_kg)
    at = next(p for p in s.parts if p.id == "relined-r1")
    assert (at.x_m, at.y_m) == (pytest.approx(1.2 + 2.0), pytest.approx(-0.96))
    ball = float(s.readings.tongue_kg[0] - plain.readings.tongue_kg[0])
    axle = s.support.mean_axle_m
    assert ball == pytest.approx(gained * (axle - 3.2) / axle)


def test_room_follows_the_lining_on_its_side_only():
    s = study(bought(relining=[RELINING]), Facts())
    assert added_m(RELINING) == pytest.approx(0.020 + 0.006 - 0.006)
    assert thickness_m(s.build.shell, "left side") == pytest.approx(0.060)
    assert thickness_m(s.build.shell, "right side") == pytest.approx(0.040)
    ceiling = replace(RELINING, id="r2", face="roof")
    low = study(bought(relining=[ceiling]), Facts())
    assert room_of(low.build, Facts()).ceiling_m(3.0) == pytest.approx(room_of(s.build, Facts()).ceiling_m(3.0) - 0.020, abs=1e-6)


def test_bays_to_cut_cover_what_is_between_the_sticks():
    s = study(bought(relining=[RELINING], openings=[a_window(1.30, 0.5)]), Facts())
    found = relined(RELINING, s.build.shell, s.framed, library_of(()))
    sticks = sum(m.shape.area for m in s.framed.on("left side"))
    free = sum(bay.area_m2 * bay.many for bay in found.bays)
    strips = 2 * 4.0 * 0.025  # over the floor and under the roof, narrower than anybody foams
    assert found.area_m2 - sticks - strips - 0.02 < free <= found.area_m2 - sticks
    assert found.after.lower_m2k_w < found.after.upper_m2k_w and found.after.upper_m2k_w > found.before.upper_m2k_w


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"foam": "moon dust"}, "no material"),
        ({"foam_thickness": L(0.2)}, "does not go"),
        ({"out_mass": Mass(2000.0)}, "whole trailer"),
        ({"out_mass": Mass(-5.0)}, "0 or more"),
        ({"furring": Section(L(0.0), L(0.02))}, "side of nothing"),
        ({"liner_thickness": L(-0.01)}, "0 or more"),
    ],
)
def test_a_lining_that_cannot_be_is_said_and_left_out(change, says):
    s = study(bought(relining=[replace(RELINING, **change)]), Facts())
    one = next(f for f in findings(s) if f.code == "relined-wrong")
    assert says in one.says
    assert s.readings.total_kg[0] == pytest.approx(800.0)


def test_a_lining_goes_into_the_file_and_comes_back():
    build = bought(relining=[RELINING], survey=Survey(date="2026-05-01", width_middle=L(1.98)))
    build = apply(
        build, [add_to("shell.relined", to_builtins(replace(RELINING, id="r9", face="roof"))), set_to("shell.survey.papers", "there")]
    )
    project = Project("Bought", (build,), build.id, Facts())
    assert sled_file.read_bytes(sled_file.to_bytes(project), "bought.sled") == project
