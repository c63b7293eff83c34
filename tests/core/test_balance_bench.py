"""Axle placing, moves, sureness and road checks against closed forms, brute force and enumeration."""

import itertools

import msgspec
import numpy as np
import pytest

from tests.builders import a_bed, a_body, a_build, a_hole, a_rig, a_shell, a_tank, a_thing
from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.placing import axle_shift_ops
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass, Stiffness
from uncle_sled.core.document.rig import Axle, Tyre
from uncle_sled.core.document.shell import WheelBoxes
from uncle_sled.core.drawing.balance.axle_chart import axle_chart, field_of, hitch_chart
from uncle_sled.core.drawing.balance.axle_order import axle_order
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.least_moves import Allowed, Lane, Mover, nearest_shift, solve_least
from uncle_sled.core.remedies.move_sets import move_sets, runs_of
from uncle_sled.core.remedies.spans import allowed_of, spans_of
from uncle_sled.core.studies.balance import road_checks
from uncle_sled.core.studies.balance.axle_conflicts import clear_best_m, conflicts, tyre_gap
from uncle_sled.core.studies.balance.axle_placing import AxlePlacing, axle_placing, balance_points
from uncle_sled.core.studies.balance.hitch_height import hitch_curve
from uncle_sled.core.studies.balance.sureness import chances, doubt_of_all_weighed_kg, load_sigma_kg, owners
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

NA = Brief(region="North American")
SPRUNG = {
    "axles": (Axle("a1", Length(2.8), Mass(60.0), Mass(900.0)), Axle("a2", Length(3.6), Mass(60.0), Mass(900.0))),
    "suspension": "independent",
    "spring_rate": Stiffness(5e4),
    "level_load": Mass(900.0),
    "ball_height": Length(0.5),
    "reference_height": Length(0.45),
}


def studied(*things, facts=None, **changes):
    return study(a_build(things, shell=changes.pop("shell", a_body()), **changes), facts or Facts())


# axle
def test_the_balance_point_way_is_the_closed_form():
    """Check case: axle for 12 % with the weight at 2.75 m: 3.125 m."""
    s = studied(a_thing("t", 100, x=2.0), brief=msgspec.structs.replace(NA, band_low=0.12, band_high=0.12))
    point, place, _ = balance_points(s)[0]

    assert place == pytest.approx(point / 0.88) and pytest.approx(3.125) == 2.75 / (1 - 0.12)


def test_the_window_is_that_of_shifting_the_axle_and_judging_again():
    s = studied(a_tank("w", 60, x=2.7, z=0.62), brief=NA)
    placing = axle_placing(s)
    low, high = placing.window_m
    for station, good in ((low + 0.004, True), (high - 0.004, True), (low - 0.03, False), (high + 0.03, False)):
        moved = study(apply(s.build, axle_shift_ops(s.build, station - 3.0)), Facts())
        inside = [moved.readings.band_kg[r, 0] <= moved.readings.tongue_kg[r] <= moved.readings.band_kg[r, 1] for r in moved.towing_rows]
        assert all(inside) is good


def test_conflicts_are_where_boxes_would_meet():
    shell = a_body(
        wheel_boxes=WheelBoxes(Length(0.8), Length(0.3), Length(0.4)), openings=(a_hole("door", "right side", 2.6, 0.1, 0.7, 1.6, "door"),)
    )
    chest = a_thing("c", x=4.2, y=-0.75, z=0.62, size=(0.4, 0.24, 0.5))
    shelf = a_thing("s", x=2.0, y=-0.75, z=1.4, size=(0.4, 0.24, 0.5))
    found = {one.id: (one.low_m, one.high_m) for one in conflicts(studied(chest, shelf, shell=shell)) if one.id != "frame"}

    assert found.keys() == {"c", "door"}
    assert found["c"] == (pytest.approx(3.8), pytest.approx(5.0))
    assert found["door"] == (pytest.approx(1.2 + 2.6 - 0.4), pytest.approx(1.2 + 3.3 + 0.4))
    placing = AxlePlacing((3.5, 4.1), 3.9, 0.0, None)
    assert clear_best_m(placing, conflicts(studied(chest, shell=a_body(wheel_boxes=shell.wheel_boxes)))) == pytest.approx(3.8, abs=0.006)


def test_tyre_gap_and_its_missing_parts():
    shell = a_body(wheel_boxes=WheelBoxes(Length(0.8), Length(0.3), Length(0.5)))
    rig = a_rig(tyre=Tyre(diameter=Length(0.6), width=Length(0.18)), track=Length(1.75))
    gap = tyre_gap(studied(shell=shell, rig=rig))

    assert gap.left_m == gap.right_m == pytest.approx(0.875 - 0.09 - 0.7) and gap.along_m == pytest.approx(0.1)
    assert gap.over_m == pytest.approx(0.5 + 0.5 - 0.6 - 0.06)
    assert tyre_gap(studied()) is None and tyre_gap(studied(rig=a_bed())) is None


def test_an_independent_tandem_by_hand():
    """Both axles and the ball against a solution of the two equations by hand."""
    s = studied(a_thing("t", 500, x=2.9), rig=a_rig(**SPRUNG))
    curve = hitch_curve(s, 0)
    moment, total = float((s.table.mass_kg[0] * s.table.x_m[0]).sum()), float(s.table.mass_kg[0].sum())
    k = 2 * 5e4 / 9.80665
    for h, tongue, axles in zip(curve.height_m, curve.tongue_kg, curve.axle_kg, strict=True):
        c = 900 / (2 * k) - (h - 0.45)
        theta = (moment / k - c * (2.8 + 3.6)) / (2.8**2 + 3.6**2)
        wanted = [k * (c + theta * x) for x in (2.8, 3.6)]
        assert axles == pytest.approx(wanted) and tongue == pytest.approx(total - sum(wanted))
    assert curve.axle_kg[-1, 1] > curve.axle_kg[0, 1] and curve.tongue_kg[-1] > curve.tongue_kg[0]
    assert hitch_curve(studied(), 0) is None
    shapes = hitch_chart(curve, (900.0, 900.0), Words(s.build.brief.reading.shown()), 500, 240)
    assert any(isinstance(one, Text) and "hitch" in one.text for one in shapes)


@pytest.mark.parametrize("name", DEMOS)
def test_charts_and_order_sheets_are_drawn_or_say_none(name):
    project = demo(name)
    s = study(project.build, project.facts)
    words = Words(project.build.brief.reading.shown())
    page = axle_order(s, project.name, "today")
    if project.build.rig.carrier == "vehicle bed":
        assert page is None and axle_placing(s) is None
        return
    field = field_of(s, axle_placing(s), s.support.mean_axle_m, 800, 320)
    texts = [one for one in axle_chart(s, axle_placing(s), conflicts(s), field, words) if isinstance(one, Text)]
    assert any(one.text.startswith("axle") for one in texts)
    assert field.value(field.x(2.9)) == pytest.approx(2.9)
    assert all(48 - 1 <= one.at[0] <= page.width for one in page.shapes if isinstance(one, Text))


@pytest.mark.parametrize(
    "rig",
    [
        a_rig(axles=()),
        a_rig(axles=(Axle("a1", Length(-0.5)),)),
        a_rig(track=Length(0.0)),
        a_rig(axle=0.3),
        a_rig(axles=(Axle("a1", Length(3.0), None, Mass(0.0)),)),
    ],
)
def test_impossible_rigs_are_said_not_raised(rig):
    s = studied(a_thing("t", 50, x=4.0), rig=rig)

    (
        axle_placing(s),
        conflicts(s),
        tyre_gap(s),
        road_checks.statics_of(s, 0),
        road_checks.rides(s, 0),
        move_sets(s),
        axle_order(s, "x", "y"),
    )
    assert owners(s, 0, 4) == () or s.support is not None


# moves
def allowed(low, high, roll=0.0, share=None, wheels=500.0, slope=0.3, track=1.6):
    """Limits of as many cases as low has; share: of the wheels' load that may be more on one side."""
    low = np.asarray(low, float)
    arm = np.inf if share is None else share * track / 2
    fill = [np.full(len(low), float(v)) for v in (roll, arm, wheels, slope)]
    return Allowed(low, np.asarray(high, float), *fill)


def test_a_single_shift_is_that_of_brute_force_with_and_without_the_lean():
    rng = np.random.default_rng(3)
    found_some = 0
    for at in range(120):
        mass = rng.choice([0.0, 20.0, 50.0], 4)
        low, high = rng.uniform(-40, 10, 4), rng.uniform(-5, 60, 4)
        low, high = np.minimum(low, high), np.maximum(low, high)
        room = allowed(low, high, rng.uniform(-30, 30), 0.05 if at % 2 else None)
        lane = Lane(rng.choice([0.0, 0.4]), 0.0, 6.0)
        shifts = np.linspace(-3, 3, 6001)
        good = room.held(np.outer(shifts, mass), mass * lane.y_m)
        found = nearest_shift(Mover(3.0, 0.0, mass, (lane,), 1.0), lane, room)
        if found is None:
            assert not good.any()
        else:
            found_some += 1
            assert good.any() and abs(found) <= np.abs(shifts[good]).min() + 1e-9
            assert room.holds(mass * found, mass * lane.y_m, 1e-6)
    assert found_some > 20


def test_the_program_finds_what_enumeration_finds():
    rng = np.random.default_rng(11)
    solved = 0
    for _ in range(25):
        now, n, most = [1.0, 2.0, 3.0], 3, 2
        movers = [
            Mover(
                x,
                0.0,
                rng.uniform(10, 60, 3),
                (Lane(0.0, x - 0.4, x + 0.1), Lane(0.0, x + 0.3, x + 0.6), Lane(0.5, x - 0.2, x + 0.2)),
                rng.uniform(1, 3),
            )
            for x in now
        ]
        target = rng.uniform(-25, 25)
        room = allowed(np.full(3, target - 6.0), np.full(3, target + 6.0), rng.uniform(-45, -15), 0.05)
        along = [(d, 0.0) for d in np.concatenate([np.linspace(-0.4, 0.1, 11), np.linspace(0.3, 0.6, 7)])]
        spots = [along + [(d, 0.5) for d in np.linspace(-0.2, 0.2, 9)]] * n
        every = np.array(list(itertools.product(*spots)))  # (ways, things, along and across)
        moved_in = (np.abs(every[:, :, 0]) > 1e-9) | (every[:, :, 1] > 0)
        weighs, hard = np.array([m.mass_kg for m in movers]), np.array([m.hard for m in movers])
        good = room.held(every[:, :, 0] @ weighs, every[:, :, 1] @ weighs) & (moved_in.sum(axis=1) <= most)
        costs = (hard * (np.abs(every[:, :, 0]) + every[:, :, 1]) + 0.15 * moved_in).sum(axis=1)
        best = costs[good].min() if good.any() else np.inf
        found, _ = solve_least(movers, room, most)
        if not np.isfinite(best):
            continue
        solved += 1
        assert found is not None
        sides = [m.lanes[k].y_m for m, (_, k) in zip(movers, found, strict=True)]
        moved = [abs(d) > 1e-6 or y > 0 for (d, _), y in zip(found, sides, strict=True)]
        assert sum(moved) <= most
        cost = sum(m.hard * (abs(d) + y) + 0.15 * go for m, (d, _), y, go in zip(movers, found, sides, moved, strict=True))
        assert cost <= best + 1e-6  # the grid can only be worse
        aft = sum(m.mass_kg * d for m, (d, _) in zip(movers, found, strict=True))
        assert room.holds(aft, sum(m.mass_kg * y for m, y in zip(movers, sides, strict=True)), 1e-5)
        for mover, (d, k) in zip(movers, found, strict=True):
            assert mover.lanes[k].low_m - 1e-6 <= mover.x_m + d <= mover.lanes[k].high_m + 1e-6
    assert solved > 8


def only_ball(low, high):
    """Limits on the moment aft alone; the lean is not asked."""
    none = np.zeros(1)
    return Allowed(np.array([low]), np.array([high]), none, np.full(1, np.inf), none, none)


def test_things_in_one_row_keep_their_order_until_one_leaves_it():
    movers = [Mover(x, 0.0, np.array([50.0]), (Lane(0.0, 0.5, 4.0),), 1.0) for x in (1.0, 2.0)]
    ball = only_ball(80.0, 90.0)
    found, _ = solve_least(movers, ball, 2, [(0, 1, 0.8)])

    assert 1.0 + found[0][0] + 0.8 <= 2.0 + found[1][0] + 1e-6
    aside = [Mover(1.0, 0.0, np.array([50.0]), (Lane(0.0, 0.5, 4.0), Lane(0.6, 0.5, 4.0)), 0.1), movers[1]]
    (first, lane), (second, _) = solve_least(aside, ball, 2, [(0, 1, 0.8)])[0]
    assert lane == 1 and 1.0 + first > 2.0 + second


def test_pairs_that_would_meet_are_not_taken_together():
    movers = [Mover(1.0, 0.0, np.array([50.0]), (Lane(0.0, 1.0, 1.0), Lane(0.3, 1.4, 1.6)), 1.0) for _ in range(2)]
    ball = only_ball(40.0, 70.0)

    assert [k for _, k in solve_least(movers, ball, 2)[0]] == [1, 1]
    assert solve_least(movers, ball, 2, barred=[((0, 1), (1, 1))])[0] is None
    _, excess = solve_least(movers, only_ball(90.0, 99.0), 2, elastic=True)
    assert excess == pytest.approx([90 - 60])


def test_runs_are_split_where_the_grid_has_gaps():
    assert runs_of(np.array([1.0, 1.02, 1.04, 1.2, 1.22])) == ((1.0, 1.04), (1.2, 1.22)) and runs_of(np.empty(0)) == ()


@pytest.mark.parametrize("name", DEMOS)
def test_each_demo_is_settled_by_a_move_or_by_its_axle(name):
    project = demo(name)
    s = study(project.build, project.facts)
    found = move_sets(s)
    good = [move for move in found.moves if move.feasible]
    if name == "orchard-keeper":  # its rear axle stays over until the hitch is lowered
        assert not good and found.moves and axle_placing(s).window_m is not None
    elif name == "ferry-bell":  # its ball is right in every case
        assert not good and "nothing has to move" in found.why
    else:
        assert good, found.why
    for move in good:
        after = study(apply(project.build, move.ops), project.facts)
        low, high = spans_of(after)
        assert ((low <= 0.02) & (high >= -0.02)).all()
        group = after.readings.axle_kg.sum(axis=1)
        lean = np.abs(after.readings.right_kg - after.readings.left_kg) / group
        assert (lean[after.towing_rows] <= 0.05 + 1e-6).all()
        assert not [one for one in findings(after) if one.severity == "stop" and one.stop != "Systems"]
        told = dict(move.after)
        for row, case in enumerate(after.table.cases):
            kg = after.readings.tongue_kg[row]
            assert told[case.id] == (None if np.isnan(kg) else pytest.approx(float(kg)))


def test_two_slides_are_offered_where_no_single_one_is_enough():
    things = [a_thing(id, 25, x=1.4, y=y, z=0.62) for id, y in (("a", -0.5), ("b", 0.0), ("c", 0.5))]
    s = studied(*things, brief=NA, rig=a_rig(axle=3.2))
    (move,) = move_sets(s).moves
    assert move.kind == "set" and move.feasible and len(move.items) == 2

    room = allowed_of(s, sure=True)
    furthest = 1.2 + 4.0 - 0.12 - 0.4 - 1.4  # to the inside of the rear wall
    loads = np.array([25.0 if case.mode.towing and case.case.stage != "bare shell" else 0.0 for case in s.table.cases])[s.towed_rows]
    across = np.zeros(len(loads))
    assert not any(room.holds(loads * dx, across) for dx in np.arange(0, furthest + 0.01, 0.01))
    pairs = [(a, b) for a in np.arange(0, furthest + 0.01, 0.04) for b in np.arange(0, a + 0.01, 0.04)]
    best = min(a + b for a, b in pairs if room.holds(loads * (a + b), across))
    assert sum(abs(i.to_m - i.from_m) for i in move.items) == pytest.approx(best, abs=0.09)


def test_a_move_that_spoils_something_else_is_not_offered():
    project = demo("marsh-heron")
    s = study(project.build, project.facts)
    kit = next(t for t in project.build.stow.things if t.arrival)
    offered = move_sets(s).moves
    assert offered and kit.id not in {i.id for move in offered for i in move.items}
    for move in offered:
        after = study(apply(project.build, move.ops), project.facts)
        assert {f.key for f in findings(after) if f.severity != "note"} <= {f.key for f in findings(s)}
        assert float(after.readings.chance[after.towing_rows].min()) >= 0.8


def test_what_stays_is_left_alone_and_what_cannot_be_is_named():
    pinned = studied(a_thing("t", 200, x=1.6, stays=True), brief=NA)
    assert move_sets(pinned).moves == () and "nothing aboard that may move" in move_sets(pinned).why
    fine = studied(brief=NA, rig=a_rig(axle=axle_placing(studied(brief=NA)).best_m))
    assert "nothing has to move" in move_sets(fine).why
    apart = studied(
        a_tank("f", 300, x=1.4, z=0.62, size=(0.5, 1.2, 0.6)),
        a_tank("g", 300, contents="grey", x=4.4, z=0.62, size=(0.5, 1.2, 0.6), stays=True),
        brief=NA,
    )
    found = move_sets(apart)
    assert any(move.feasible for move in found.moves) or len(found.fights) >= 1


# sureness and road
def test_weighing_narrows_as_a_draw_of_twenty_thousand_says():
    things = [a_thing("t", 120, x=1.5, source="guessed", size=(1.2, 0.4, 0.3)), a_thing("u", 60, x=4.0, source="estimated")]
    s = studied(*things, brief=NA)
    first = owners(s, 0, 5)
    assert first[0].id == "t" and first[0].left_kg <= first[0].left_weighed_kg < float(s.readings.tongue_sigma_kg[0])
    known = [msgspec.structs.replace(things[0], source="weighed", cg_dx=Length(0.0)), things[1]]
    again = studied(*known, brief=NA)
    assert first[0].left_kg == pytest.approx(float(again.readings.tongue_sigma_kg[0]), rel=0.02)

    rng, n = np.random.default_rng(5), 20_000
    t = s.table
    mass = t.mass_kg[0] + rng.normal(size=(n, len(t.ids))) * t.sigma_kg[0]
    x = t.x_m[0] + rng.normal(size=(n, len(t.ids))) * t.sigma_x_m
    axle = float(s.readings.effective_axle_m[0]) + rng.normal(size=n) * 0.005
    tongue = mass.sum(axis=1) - (mass * x).sum(axis=1) / axle
    assert tongue.std() == pytest.approx(float(s.readings.tongue_sigma_kg[0]), rel=0.05)
    assert doubt_of_all_weighed_kg(s, 0, first) < first[0].left_kg


def test_a_bed_s_doubt_and_chance_are_those_of_twenty_thousand_draws():
    rig = a_bed(rear_rating=Mass(1560.0), front_rating=Mass(1500.0))
    things = [a_thing("t", 330, x=3.3, z=1.2, source="guessed", size=(1.0, 1.0, 0.5)), a_thing("u", 250, x=2.0, z=1.2, source="estimated")]
    s = study(a_build(things, rig=rig, shell=a_body(front=Length(1.4))), Facts())
    row = s.towing_rows[0]
    rng, n, t = np.random.default_rng(8), 20_000, s.table
    mass = t.mass_kg[row] + rng.normal(size=(n, len(t.ids))) * t.sigma_kg[row]
    for _, columns in t.bias:
        mass[:, list(columns)] += 0.04 * t.mass_kg[row, list(columns)] * rng.normal(size=(n, 1))
    x = t.x_m[row] + rng.normal(size=(n, len(t.ids))) * t.sigma_x_m
    rear, total = (mass * x).sum(axis=1) / 3.4, mass.sum(axis=1)
    front = total - rear
    good = (rear <= 1560) & (front <= 1500) & (front >= 0.3 * total) & (front >= 0.9 * 1400) & (total <= 4000)

    assert rear.std() == pytest.approx(float(load_sigma_kg(s)[row]), rel=0.03)
    assert 0.2 < float(chances(s)[row]) < 0.98 and float(chances(s)[row]) == pytest.approx(good.mean(), abs=0.015)
    first = owners(s, row, 4)
    assert first[0].id == "t" and first[0].left_kg < float(load_sigma_kg(s)[row])
    known = [msgspec.structs.replace(things[0], source="weighed", cg_dx=Length(0.0)), things[1]]
    again = study(a_build(known, rig=rig, shell=a_body(front=Length(1.4))), Facts())
    assert first[0].left_kg == pytest.approx(float(load_sigma_kg(again)[row]), rel=1e-6)


def test_axles_that_keep_their_limits_by_chance_only_are_told_with_what_to_weigh():
    things = [a_thing("t", 300, x=3.2, z=1.2, source="guessed", size=(1.0, 1.0, 0.5))]
    open_ = study(a_build(things, rig=a_bed(), shell=a_body(front=Length(1.4))), Facts())
    most = float(open_.readings.axle_kg[open_.towing_rows, 1].max())
    s = study(a_build(things, rig=a_bed(rear_rating=Mass(most + 5)), shell=a_body(front=Length(1.4))), Facts())
    found = {one.code: one for one in findings(s)}

    assert "Weigh first: box t" in found["axles-unsure"].says and found["axles-unsure"].why_none
    sure = study(a_build(things, rig=a_bed(rear_rating=Mass(2600.0)), shell=a_body(front=Length(1.4))), Facts())
    assert "axles-unsure" not in {one.code for one in findings(sure)}


def test_braking_grade_and_roll_by_hand():
    s = studied(a_thing("t", 300, x=2.8, z=0.9), rig=a_rig(ball_height=Length(0.45)), brief=NA)
    one = road_checks.statics_of(s, 0)
    w, z, a = float(s.readings.total_kg[0]), float(s.readings.cg_m[0, 2]), 3.0

    assert one.stopping_kg(0.4, False) == pytest.approx(one.tongue_kg + w * 0.4 * (z - 0.45) / a)
    assert one.stopping_kg(0.4, True) == pytest.approx(one.tongue_kg + w * 0.4 * z / a)
    p = one.tongue_kg / w
    assert road_checks.roll_g(s, 0) == pytest.approx(1.6 * (1 - p) / (2 * (z - p * 0.45)))
    slope = np.arctan(0.15)
    assert one.on_grade_kg(0.15) == pytest.approx(one.tongue_kg * np.cos(slope) + w * np.sin(slope) * (z - 0.45) / a)
    under, over = road_checks.rides(s, 0)
    assert over.cg_m - under.cg_m == pytest.approx(0.10) and over.roll_g < under.roll_g
    assert over.departure_deg > under.departure_deg


def test_turning_room_is_the_corner_s_way_round_the_ball():
    car = Vehicle("v", "Car", width=Length(1.8), bumper=Length(0.25))

    def nose(behind, half, y=0.0):
        return road_checks.Nose("n", "the box", behind, half, 0.5, y)

    free, angle = road_checks.nearest_m(nose(2.0, 0.5), car)
    tight, _ = road_checks.nearest_m(nose(0.5, 1.1), car)

    assert free > 0.5 and 0 < angle <= 90 and tight < 0
    # straight behind, a narrow nose is its distance and the bumper's away
    assert road_checks.gap_m(nose(3.0, 0.01), car, 0.0) == pytest.approx(3.25, abs=1e-3)
    # at a right angle its corner lies half its width ahead of the ball: 0.4 - 0.25 into the tail
    assert road_checks.gap_m(nose(0.5, 0.4), car, 90.0) == pytest.approx(0.25 - 0.4)
    assert road_checks.nearest_m(nose(0.5, 0.2, 0.3), car) == road_checks.nearest_m(nose(0.5, 0.2, -0.3), car)
    s = studied(a_thing("t", 50), facts=Facts(vehicles=(car,)))
    assert [(one.name, one.nose) for one in road_checks.turning(s)] == [("Car", "the body")]
    assert road_checks.turning(studied(shell=a_shell())) == ()
    near = studied(a_thing("g", 12, x=0.2, size=(0.3, 0.9, 0.5), outside=True), facts=Facts(vehicles=(car,)))
    met = next(one for one in findings(near) if one.code == "nose-meets-car")
    assert met.where == ("g", "v") and "the box g" in met.says and met.severity == "mind"


def test_chains_stabilisers_and_tyres_are_limits_of_their_own():
    rig = a_rig(
        chain_rating=Mass(400.0),
        stabiliser_station=Length(4.2),
        stabiliser_rating=Mass(10.0),
        tyre=Tyre(84, "N", Length(0.6), Length(0.18), 300.0, 180.0),
    )
    s = studied(a_thing("t", 200, x=4.4), rig=rig)
    found = {limit.id: limit for limit in s.limits}

    assert found["chains"].value == pytest.approx(float(s.readings.total_kg[s.towing_rows].max()))
    assert found["chains"].severity == "stop"
    jack = float(s.at_rest.jack_tail_loaded_kg.min())
    row = int(np.argmin(s.at_rest.jack_tail_loaded_kg))
    axle = float(s.readings.effective_axle_m[row])
    assert jack < 0 and found["stabiliser"].value == pytest.approx(-jack * (axle - 0.5) / (4.2 - axle) / 2)
    use = road_checks.tyre_use(s)
    assert use.speed_kmh == 140 and use.rated_kg == 500.0
    assert use.pressure_kpa == pytest.approx(min(max(300 * use.load_kg / 500, 180), 300))
    slow = studied(rig=a_rig(tyre=Tyre(speed_symbol="F")))
    assert road_checks.tyre_use(slow).speed_kmh == 80 and road_checks.tyre_use(studied()) is None


def test_a_move_never_makes_it_lean_over_the_limit():
    left = a_thing("l", 120, x=1.5, y=-0.55, z=0.62, size=(0.4, 0.4, 0.4))
    right = a_thing("r", 120, x=4.3, y=0.55, z=0.62, size=(0.4, 0.4, 0.4))
    s = studied(left, right, a_thing("m", 20, x=2.6, y=0.55, z=0.62), brief=NA)
    for move in move_sets(s).moves:
        after = study(apply(s.build, move.ops), Facts())
        group = after.readings.total_kg - after.readings.tongue_kg
        lean = np.abs(after.readings.right_kg - after.readings.left_kg) / group
        before = np.abs(s.readings.right_kg - s.readings.left_kg) / (s.readings.total_kg - s.readings.tongue_kg)
        assert (lean[after.towing_rows] <= np.maximum(0.05, before[s.towing_rows].max()) + 1e-6).all()
