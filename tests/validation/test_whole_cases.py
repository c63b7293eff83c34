"""Whole cases by hand, from what somebody types to the number that is shown: the way through, where a formula alone is not enough.

Each says its sum beside it; every figure in it is typed here or is a piece that the build gives out by itself.
"""

from __future__ import annotations

import math

import msgspec
import numpy as np
import pytest

from tests.builders import a_body, a_build, a_hole, a_rig, a_tank, a_thing
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts, Project
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.road import Reading, Standing, Ticket
from uncle_sled.core.document.shell import Face, Layer
from uncle_sled.core.document.work import Glue, Lift, Work
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.sureness import load_sigma_kg
from uncle_sled.core.studies.balance.tow_vehicle import payload_left_kg
from uncle_sled.core.studies.build.chance import COMMON, common_of
from uncle_sled.core.studies.build.days import days_of
from uncle_sled.core.studies.build.gluing import bead_of, resin_for
from uncle_sled.core.studies.build.lifting import lifted
from uncle_sled.core.studies.build.schedule import allowed_slots
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.cut.consumables import bases, used_up
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.road.standing import stands
from uncle_sled.core.studies.road.weighing import cases_like, ways_for, weighed
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.systems.gas import gas_of
from uncle_sled.exchange.demos import demo
from uncle_sled.exchange.report import report

G = 9.80665


# on the ball


def test_what_may_still_be_loaded_is_held_against_the_wheels_and_the_whole_each_by_its_own_plate() -> None:
    """200 kg of frame at 2.6, 60 of axle at 3.0, 240 at 2.9: 500 kg, (520 + 180 + 696) / 3 = 465.3 on the wheels, 34.7 on the ball."""
    box = a_thing("t", 240.0, 2.7)
    wheels = (200 * 2.6 + 60 * 3.0 + 240 * 2.9) / 3.0
    ball = 500 - wheels
    assert ball == pytest.approx(34.667, abs=0.001)

    def left(**plates):
        s = study(a_build([box], a_rig(axles=a_rig().axles, **plates)), Facts())
        row = s.towing_rows[0]
        assert float(s.readings.tongue_kg[row]) == pytest.approx(ball)
        return payload_left_kg(s, row)

    assert left() == pytest.approx(1300 - wheels)  # its axle alone
    assert left(gross_total=Mass(750.0)) == pytest.approx(750 - 500)  # the plate of the trailer counts the ball too
    assert left(axle_group=Mass(740.0)) == pytest.approx(740 - wheels)  # that of the axles does not


def test_the_doubt_of_what_is_in_a_tank_reaches_the_ball() -> None:
    """50 L of water: 3 % of 50 kg are 1.5 kg one sigma; 1.0 m ahead of an axle at 3.0 a third of it comes on the ball."""
    tank = a_tank("w", 50.0, x=1.8, mass=0.0)
    s = study(a_build([tank]), Facts())
    rows = [s.table.row(id) for id in ("going-out", "coming-home")]  # full of fresh water, and with none
    doubt = [float(load_sigma_kg(s)[row]) ** 2 for row in rows]
    at = s.table.ids.index("w/contents")
    place = float(s.table.sigma_x_m[at])
    group = [float(s.readings.total_kg[row] - s.readings.tongue_kg[row]) for row in rows]
    axle = ((group[0] / 3.0) ** 2 - (group[1] / 3.0) ** 2) * 0.005**2  # the axle's own place, 5 mm one sigma
    arm = 1 - float(s.table.x_m[rows[0], at]) / 3.0
    by_hand = (arm * 0.03 * 50) ** 2 + (50 / 3.0 * place) ** 2 + axle
    assert doubt[0] - doubt[1] == pytest.approx(by_hand, rel=1e-6)


def test_a_ticket_of_a_trailer_on_its_jack_moves_ball_and_total_together() -> None:
    """Jack at 0.5, axle at 3.0: 5/6 of the jack's load is the ball's. Steps of 20 kg: 5.77 kg a reading.

    The whole is in both: cov = 5/6 x 5.77^2 = 27.8 kg2; with the car on the scale it is all of the ball's variance.
    """
    s = study(a_build([a_thing("t", 240.0, 2.7)]), Facts())
    step = 20 / math.sqrt(12)
    ticket = Ticket(
        "t",
        "2027-01-01",
        "trailer on its jack",
        (Reading("whole", 500.0), Reading("axles", 460.0)),
        step_kg=20.0,
        grade=0.0,
        jack=Length(0.5),
    )
    told = weighed(ticket, s)
    assert (told.tongue_kg, told.total_kg) == (pytest.approx(40 * 2.5 / 3.0), 500.0)
    assert told.sigma_total_kg == pytest.approx(step)
    assert told.sigma_tongue_kg == pytest.approx(step * math.sqrt(2) * 2.5 / 3.0)
    assert told.cov_kg2 == pytest.approx(2.5 / 3.0 * step**2) == pytest.approx(27.78, abs=0.01)
    readings = (("steer", 1180.0), ("drive", 1420.0), ("trailer", 760.0), ("steer alone", 1225.0), ("drive alone", 1290.0))
    over = Ticket("t", "2027-01-01", "platform with the car", tuple(Reading(id, kg) for id, kg in readings), step_kg=20.0, grade=0.0)
    told = weighed(over, s)
    assert told.cov_kg2 == pytest.approx(4 * step**2)
    assert told.sigma_total_kg == pytest.approx(math.sqrt(5) * step)


# lifting and standing


def test_a_lift_is_reckoned_by_the_mean_and_two_sigma_to_the_pull_of_its_legs() -> None:
    """A face of 60 kg, weighed: its own 1 % and the 3 % that all share. Picks 1.0 and 1.0 from its middle, hook 2.0 over them."""
    faces = (Face("side", "left side", "Side", Mass(60.0), "weighed"),)
    s = study(a_build(shell=a_body("box", faces=faces)), Facts())
    lift = Lift("x", "left side", pick_front=Length(1.0), pick_rear=Length(1.0), hook=Length(2.0))
    told = lifted(s, lift)
    part = next(p for p in s.parts if p.made_by == "shell.faces.side")
    assert told.mass_kg == pytest.approx(60.0) and told.sigma_kg >= part.sigma_kg > 0
    taken = 60.0 + 2 * told.sigma_kg
    assert told.taken_kg == pytest.approx(taken)
    up = taken * G / 2
    pull = next(one for one in told.said if one.name == "pull of a leg")
    assert pull.value == pytest.approx(up / math.cos(math.atan2(1.0, 2.0)))


def test_anchors_hold_what_turns_it_about_the_ground_and_not_about_its_floor() -> None:
    """A wall of 4.0 x 2.1 m with its foot 0.5 m up, 900 Pa: F = 1.3 x 900 x 8.4; it turns by 1.05 + 0.5 m."""
    build = a_build([a_thing("t", 240.0, 2.7)], shell=a_body("box"))
    build = apply(build, [set_to("road.standing", Standing(wind_pa=900.0))])
    s = study(build, Facts())
    told = stands(s)
    wall = next(one for one in s.framed.body.surfaces if one.kind == "left side").polygon.bounds  # type: ignore[union-attr]
    high = wall[3]
    force = told.wind_n
    assert force == pytest.approx(1.3 * 900 * 4.0 * high)
    mass = float(s.table.mass_kg.sum(axis=1).max())
    turn, hold = force * (high / 2 + 0.5), mass * G * 2.0 / 2 * 0.6
    assert turn > hold
    assert told.anchor_n == pytest.approx((turn - hold) / 2.0 / 2)


# the roof


def test_a_rafter_of_a_slope_spans_its_plan_and_three_together_may_take_more() -> None:
    """Snow of 0.7 x 1.5 kPa lies on the plan: M = w L^2 / 8 with L on plan; 6 MPa, x 1.5 or 1.3 by depth, x 1.15 x 1.15."""
    project = demo("orchard-keeper")
    beam = {"held_by": "beam", "beam": {"thick": {"si": 0.09}, "deep": {"si": 0.295}}}
    s = study(apply(project.build, [set_to("shell.ridge", beam), set_to("brief.ground_snow_kpa", 1.5)]), project.facts)
    found = {one.id: one for one in screening(s)}
    check = found["roof-snow"]
    rafter = next(m for m in s.framed.members if m.id == check.where[1])
    surface = next(one for one in s.framed.body.surfaces if one.id == check.where[0])  # type: ignore[union-attr]
    slope = math.acos(abs(surface.inward[2]))
    assert math.degrees(slope) > 10.0
    thick, deep = rafter.section_m
    stations = sorted(m.at_m[0] for m in s.framed.on(surface.id) if m.role == rafter.role)
    pitch = max(np.diff(stations))
    assert len(stations) >= 3 and pitch <= 0.61
    span = (rafter.length_m - 2 * s.framed.sizes.stick[1]) * math.cos(slope)  # type: ignore[union-attr]
    face = next(one for one in s.build.shell.faces if one.kind == surface.kind)
    library = library_of(project.facts.materials)
    layers = sum(library[one.material].weight_kg_m2(one.thickness.si) for one in face.layers if one.material in library)
    sticks = sum(m.mass_kg for m in s.framed.on(surface.id)) / surface.area_m2
    even = (0.7 * 1500 + (layers + sticks) * G) * pitch
    assert check.value == pytest.approx(even * span**2 / 8 / (thick * deep**2 / 6), rel=0.01)
    assert check.limit == pytest.approx(6.0e6 * (1.5 if deep <= 0.102 else 1.3) * 1.15 * 1.15)


# the shop


def test_glue_goes_on_the_narrow_side_of_a_stick_and_tape_along_the_seams_of_a_roll() -> None:
    """Every stick by its length and its thickness; a membrane of 1.5 m wide rolls has its area over 1.5 in seams."""
    layers = (Layer("l1", "birch-ply", Length(0.009)), Layer("l2", "membrane", Length(0.0003)))
    library = library_of(())
    roll = next((id for id, one in library.items() if one.form == "roll"), "")
    assert roll
    layers = (layers[0], Layer("l2", roll, Length(0.0003)))
    build = a_build(
        shell=a_body(
            "box", "stick timber", faces=(Face("f", "floor", "Floor", layers=layers), Face("l", "left side", "Left", layers=layers))
        )
    )
    off = take_off(build, Facts())
    base = bases(build, Facts(), off)
    bars = [one for one in off.pieces if one.kind == "bar" and not one.cladding]
    assert bars and any(one.width_m != one.thickness_m for one in bars)
    assert base["glue_m2"] == pytest.approx(sum(one.length_m * one.thickness_m for one in bars))
    rolls = [one.area_m2 for one in off.spreads if one.form == "roll"]
    assert max(rolls) > 1.5
    assert base["seam_m"] == pytest.approx(sum(area / 1.5 for area in rolls if area > 1.5))
    used = {one.rule.per: one for one in used_up(build, Facts(), off)}
    if "glue_m2" in used:
        assert used["glue_m2"].need == pytest.approx(base["glue_m2"] * used["glue_m2"].rule.rate)


def test_every_fill_coat_is_mixed_in_pots_of_its_own() -> None:
    """12 m2 at 20 degC: a pot lives 25 x 2^0.5 = 35.4 min, 70 % of it usable at 0.09 m2/min; the cloth's pots three times over."""
    glue = Glue()
    pot = 25.0 * 2**0.5
    told = resin_for(glue, 12.0, 20.0)
    assert told.pot_min == pytest.approx(pot)
    share = told.batch_m2 / (pot * 0.09)
    assert 0.3 < share < 1.0
    assert told.pots == math.ceil(12.0 / told.batch_m2) * 3
    assert resin_for(msgspec.structs.replace(glue, coats=0), 12.0, 20.0).pots == math.ceil(12.0 / told.batch_m2)
    bead = bead_of(glue, "Side", 8.0, 20.0)
    assert bead.cartridges == pytest.approx(8.0 * math.pi * 9.0 / 600.0)  # 6 mm round: 28.3 mm2, so 226 ml of 600


def test_in_a_wet_month_every_other_day_is_dry_enough_to_work_outside() -> None:
    """March wet, April dry as typed: 31 days of which half, then all 30; inside every day."""
    work = Work(begin="2027-03-01", days=(0, 1, 2, 3, 4, 5, 6), wet_months=(3,))
    days = days_of(a_build(work=work, brief=Brief(latitude_deg=50.0)))
    assert days.wet[:31].all() and not days.wet[31:61].any()
    build = apply(demo("marsh-heron").build, [])
    any_task = tasks_of(build, Facts())[0]
    outside = msgspec.structs.replace(any_task, space="outside", dry=True, least_c=None, hands=1)
    inside = msgspec.structs.replace(outside, space="shop")
    allowed = allowed_slots(outside, days).reshape(-1, days.slots)
    assert allowed[:31].all(axis=1).sum() in (15, 16) and allowed[:31].any(axis=1).sum() in (15, 16)
    assert allowed[31:61].all() and allowed_slots(inside, days)[: 61 * days.slots].all()


def test_what_all_tasks_are_late_by_together_is_one_on_the_mean() -> None:
    """A log-normal with mu = -s^2/2 has the mean 1: nobody is late on the mean only because all is uncertain."""
    many = common_of(400_000)
    assert float(many.mean()) == pytest.approx(1.0, abs=4 * float(many.std()) / math.sqrt(400_000))
    assert float(np.log(many).std()) == pytest.approx(COMMON, rel=0.01)
    assert float(np.log(many).mean()) == pytest.approx(-(COMMON**2) / 2, abs=4 * COMMON / math.sqrt(400_000))


# gas


def test_the_liquid_in_a_cylinder_stands_in_three_quarters_of_its_height() -> None:
    """0.30 wide, 0.60 high: 80 % of 0.45 m when full. At 0 degC and half full 8 W/m2K over 42 K gap from -42 (as the notes: 35)."""
    bottle = a_tank("g", 27.0, "gas", size=(0.30, 0.30, 0.60), outside=True)
    told = gas_of(a_build([bottle]))
    at = dict(told.boil_off_kw)
    full = 0.60 * 0.75 * 0.8
    levels = [full * level for level in _levels()]
    for t, by_level in at.items():
        for liquid, kw in zip(levels, by_level, strict=True):
            area = math.pi * 0.30 * liquid + math.pi * 0.30**2 / 4
            grams = max(8.0 * area * (t + 35), 0.0) / 1000 / 400 * 3600
            assert kw == pytest.approx(grams * 12.87, rel=1e-6)
    s = study(a_build([bottle]), Facts())
    shown = report(s, findings(s), Project("x", (s.build,), s.build.id))["gas"]["boil_off_kw"]
    assert dict(map(tuple, shown))[0] == pytest.approx(at[0][_levels().index(0.5)])


def _levels() -> list[float]:
    from uncle_sled.core.studies.systems.gas import LEVELS

    return list(LEVELS)


def test_a_leaf_pulled_open_is_held_by_half_its_gust() -> None:
    """A roof hatch of 0.6 x 0.6: 735 Pa x 1.2 over it, half of it on its latches."""
    hole = a_hole("h", "roof", 1.0, 0.5, 0.6, 0.6, kind="hatch", latch_n=500.0)
    s = study(a_build(shell=a_body("box", openings=(hole,))), Facts())
    check = next((one for one in screening(s) if one.id == "uplift/h"), None)
    assert check is not None and check.value == pytest.approx(735 * 1.2 * 0.36 / 2)


def test_a_box_on_a_bed_is_weighed_by_its_vehicles_axles_and_stands_without_it() -> None:
    """Dark Sky: 1,430 kg under the front wheels and 2,210 under the rear ones on a scale of 20 kg steps; then the box alone on six blocks."""
    project = demo("dark-sky")
    s = study(project.build, project.facts)
    assert ways_for(s) == ("vehicle axles",) and "vehicle axles" not in ways_for(
        study(demo("marsh-heron").build, demo("marsh-heron").facts)
    )
    ticket = Ticket("t", "2027-05-01", "vehicle axles", (Reading("steer", 1430.0), Reading("drive", 2210.0)), step_kg=20.0, grade=0.0)
    said = weighed(ticket, s)
    assert (said.total_kg, said.axle_kg, said.tongue_kg) == (3640.0, 2210.0, None)
    assert said.sigma_total_kg == pytest.approx(20 / 12**0.5 * 2**0.5)
    best = cases_like(s, said)[0]
    row = best.row
    assert best.more_kg == pytest.approx(3640.0 - float(s.readings.total_kg[row]))
    assert best.rear_more_kg == pytest.approx(2210.0 - float(s.readings.axle_kg[row, 1])) and best.ball_more_kg is None
    other = weighed(msgspec.structs.replace(ticket, way="total and ball", readings=(Reading("total", 3640.0), Reading("ball", 90.0))), s)
    assert other.faults == ("this way weighs a trailer on its ball; choose another",) and other.total_kg is None

    vehicle = sum(part.mass_kg for part in s.parts if part.made_by.startswith("rig"))
    made = stands(s)
    assert vehicle == 2500.0 and made.mass_kg == pytest.approx(float(s.table.mass_kg.sum(axis=1).max()) - vehicle)
    assert 2 * sum(block.load_n for block in made.blocks) == pytest.approx(made.mass_kg * 9.80665)
    assert min(block.load_n for block in made.blocks) > 0  # it stands on all of them
