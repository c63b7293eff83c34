"""Sway against closed forms and energy; the frame as a beam against the tables of statics; what cannot be answered."""

from __future__ import annotations

import itertools
import math

import msgspec
import numpy as np
import pytest

from tests.builders import a_build, a_rig, a_shell, a_thing
from tests.judging import settled_one
from uncle_sled.core.document.brief import Brief, Vehicle
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.document.rig import Axle
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.sections import sections
from uncle_sled.core.studies.balance.frame_beam import LEAF_M, ROAD, beam_of, choices, frame_under, hangers_m, sinking
from uncle_sled.core.studies.balance.sway import (
    GOOD,
    SPEEDS_KMH,
    TYRE,
    Train,
    costs,
    damping,
    damping_of,
    falls_to,
    gust_n,
    inertia_kgm2,
    state_matrix,
    sway,
    trace,
    train_of,
    tyre_band,
    what_ifs,
    worst,
)
from uncle_sled.core.units import GRAVITY
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.towing_report import towing_report

CAR = Vehicle("car", "Estate", front_empty=Mass(850.0), rear_empty=Mass(700.0), wheelbase=Length(2.7), ball_overhang=Length(0.95))
FACTS = Facts(vehicles=(CAR,))


def a_train(**changes):
    one = Train(1550.0, 1550 * 1.22 * 1.48, 1.22, 1.48, 1.48 + 0.95, 700.0, 1100.0, 2.7, 2.9, 0.0, 0.0, 0.0)
    one = msgspec.structs.replace(one, **changes)
    tongue = one.m2 * (1 - one.e / one.l)
    base = one.a1 + one.b1
    over = one.d - one.b1
    front, rear = one.m1 * one.b1 / base - tongue * over / base, one.m1 * one.a1 / base + tongue * (base + over) / base
    c = TYRE * GRAVITY
    return msgspec.structs.replace(one, cf=c * front, cr=c * rear, ct=c * (one.m2 - tongue))


def a_trailer(*things, **rig):
    return a_build(things, a_rig(**rig), a_shell())


# sway
@pytest.mark.parametrize("kmh", [40.0, 80.0, 120.0])
def test_behind_a_ball_that_stands_still_it_is_one_degree_of_freedom(kmh) -> None:
    """I_b psi'' + C l^2/V psi' + C l psi = 0, I_b = I2 + m2 e^2: damping C l^2 / V over twice the root of C l I_b."""
    one = a_train(m1=1e10, i1=1e10)
    one = msgspec.structs.replace(one, cf=0.0, cr=0.0)
    v, ib = kmh / 3.6, one.i2 + one.m2 * one.e**2
    wanted = (one.ct * one.l**2 / v) / (2 * math.sqrt(one.ct * one.l * ib))
    assert damping(one, kmh) == pytest.approx(min(wanted, 1.0), rel=1e-4)
    roots = np.linalg.eigvals(state_matrix([one], np.array([v]))[0, 0])
    swings = roots[np.abs(roots.imag) > 1e-3]
    if wanted < 1:
        assert np.abs(swings).max() == pytest.approx(math.sqrt(one.ct * one.l / ib), rel=1e-4)


def test_the_mass_matrix_is_symmetric_and_holds_all_of_both() -> None:
    one = a_train()
    m = one.mass
    assert np.allclose(m, m.T) and (np.linalg.eigvalsh(m) > 0).all()
    assert m[0, 0] == pytest.approx(one.m1 + one.m2)  # sideways all of it goes
    assert m[2, 2] == pytest.approx(one.i2 + one.m2 * one.e**2)  # about the ball


def test_energy_is_only_lost_in_the_tyres_when_it_stands_nearly_still() -> None:
    """At a crawl the slip forces can only take energy away: every root lies left of nought."""
    roots = np.linalg.eigvals(state_matrix([a_train()], np.array([2.0]))[0, 0])
    assert (roots.real < 0).all()


def test_energy_of_the_motion_never_grows_without_tyres() -> None:
    """Without tyres nothing pushes: momentum sideways and about the car stay, in the frame that turns with the car."""
    free = msgspec.structs.replace(a_train(), cf=0.0, cr=0.0, ct=0.0)
    a = state_matrix([free], np.array([25.0]))[0, 0]
    # x' = A x moves only the lateral speed, by -V r, and the bend
    assert np.allclose(a[1:3], 0.0, atol=1e-12) and a[0, 1] == pytest.approx(-25.0)
    assert np.allclose(a[3], [0, 1, -1, 0])


def test_masses_moved_aft_or_out_cost_damping() -> None:
    gains = [damping(a_train(e=e), 100.0) for e in (2.3, 2.5, 2.7, 2.85)]
    assert all(a > b for a, b in itertools.pairwise(gains))
    spread = [damping(a_train(i2=i), 100.0) for i in (700.0, 1100.0, 1600.0, 2500.0)]
    assert all(a > b for a, b in itertools.pairwise(spread))
    faster = [damping(a_train(), kmh) for kmh in (60.0, 90.0, 120.0)]
    assert faster[0] > faster[1] > faster[2]
    longer = damping(a_train(e=3.2, l=3.4), 100.0)
    assert longer > damping(a_train(), 100.0)


def test_the_critical_speed_is_where_a_swing_neither_grows_nor_dies() -> None:
    bad = a_train(e=3.05, i2=2400.0, m2=1100.0)
    critical = falls_to(bad, 0.0)
    assert critical is not None and 30 < critical < 190
    assert damping(bad, critical - 0.6) > 0 > damping(bad, critical + 0.6)
    assert abs(damping(bad, critical)) < 5e-4
    first = falls_to(bad, GOOD)
    assert first is not None and first < critical
    assert falls_to(a_train(e=2.4, i2=500.0), 0.0) is None  # none under 200


def test_all_at_once_is_each_by_itself() -> None:
    trains = [a_train(e=e) for e in (2.4, 2.6, 2.8)]
    table, away = damping_of(state_matrix(trains, SPEEDS_KMH / 3.6))
    for k, one in enumerate(trains):
        assert table[k, 7] == pytest.approx(damping(one, float(SPEEDS_KMH[7])))
    assert not away.any()


def test_a_light_front_turns_away_without_swinging() -> None:
    """A car with its weight far aft oversteers: a real root grows; it is told from a swing."""
    one = a_train()
    tail = msgspec.structs.replace(one, cf=one.cf * 1.6, cr=one.cr * 0.5, ct=0.0, m2=1e-6, i2=1e-6)
    _, away = damping_of(state_matrix([tail], np.array([35.0])))
    assert away[0, 0]


def test_a_gust_is_the_force_of_the_notes_and_its_trace_dies_with_its_damping() -> None:
    assert gust_n(4.2) == pytest.approx(567.0)
    one = a_train()
    got = trace(one, 90.0, 500.0, 3.0)
    assert got.t_s[1] == pytest.approx(0.02) and got.bend_rad[0] == 0.0 and np.abs(got.bend_rad).max() > 1e-4
    assert np.abs(got.bend_rad[-50:]).max() < 0.05 * np.abs(got.bend_rad).max()
    twice = trace(one, 90.0, 1000.0, 3.0)
    assert np.allclose(twice.bend_rad, 2 * got.bend_rad)  # it is linear
    kicked = trace(one, 90.0, None, 0.0)
    assert math.degrees(kicked.bend_rad[0]) == pytest.approx(2.0)
    wild = trace(a_train(e=3.1, i2=4000.0, m2=1500.0), 190.0, 500.0, 3.0)
    assert np.isfinite(wild.bend_rad).all()


def test_tyres_nobody_tested_make_a_band_and_the_same_every_time() -> None:
    one = a_train()
    low, high = tyre_band(one, 100.0)
    assert low < damping(one, 100.0) < high and (low, high) == tyre_band(one, 100.0)
    narrow = np.ptp(tyre_band(one, 60.0, many=50))
    assert narrow > 0


# a build's sway
def test_the_inertia_is_that_of_masses_and_their_boxes_by_hand() -> None:
    s = study(a_trailer(a_thing("t", 100.0, 3.5, 0.5, 0.62, (0.4, 0.6, 0.3))), FACTS)
    row = s.towing_rows[0]
    table, cg = s.table, s.readings.cg_m[row]
    by_hand = 0.0
    sizes = {p.id: p.size_m for p in s.parts}
    for k, id in enumerate(table.ids):
        lx, ly, _ = sizes.get(id.split("/")[0], (0.0, 0.0, 0.0))
        by_hand += table.mass_kg[row, k] * ((table.x_m[row, k] - cg[0]) ** 2 + (table.y_m[row, k] - cg[1]) ** 2 + (lx**2 + ly**2) / 12)
    assert inertia_kgm2(s, row) == pytest.approx(by_hand)


def test_the_car_stands_on_its_axles_with_the_ball() -> None:
    s = study(a_trailer(), FACTS)
    row = s.towing_rows[0]
    train, why = train_of(s, row, CAR)
    assert not why and train.m1 == pytest.approx(1550) and train.a1 == pytest.approx(2.7 * 700 / 1550)
    tongue = float(s.readings.tongue_kg[row])
    assert train.cf + train.cr == pytest.approx(TYRE * GRAVITY * (1550 + tongue))
    assert train.ct == pytest.approx(TYRE * GRAVITY * (float(s.readings.total_kg[row]) - tongue))
    assert train.d == pytest.approx(train.b1 + 0.95) and train.l == pytest.approx(3.0)


def test_taking_a_mass_out_is_the_trailer_without_it() -> None:
    heavy = a_thing("t", 90.0, 4.0, 0.0, 0.62, (0.3, 0.4, 0.3), name="Box")
    s, bare = study(a_trailer(heavy), FACTS), study(a_trailer(), FACTS)
    row = s.table.row("going-out")
    (one,) = [cost for cost in costs(s, row) if cost.id == "t"]
    assert one.behind_axle_m == pytest.approx(4.15 - 3.0) and one.gain > 0
    with_it = next(c for c in sway(s).cases if c.case_id == "going-out")
    without = next(c for c in sway(bare).cases if c.case_id == "going-out")
    # its box's own inertia is not taken out with it: a third of a millimetre of damping at most
    assert one.gain == pytest.approx(without.damping_at - with_it.damping_at, abs=4e-4)
    tried = {what.says: what for what in what_ifs(s, row)}
    assert tried["as it is"].damping == pytest.approx(with_it.damping_at)
    assert tried["Box left at home"].damping > tried["as it is"].damping
    assert tried["tyres soft or worn"].damping < tried["tyres hard and new"].damping


def test_what_is_tried_is_what_the_trailer_then_is() -> None:
    """A mass over the axle, a longer drawbar, other tyres: the number told is that of the build with the ops in it."""
    heavy = a_thing("t", 90.0, 4.0, 0.0, 0.62, (0.3, 0.4, 0.3), name="Box")
    s = study(a_trailer(heavy), FACTS)
    row = s.table.row("going-out")
    tried = {what.says: what for what in what_ifs(s, row) if what.ops}
    assert set(tried) >= {"Box over the axle", "drawbar half a metre longer", "tyres soft or worn", "tyres hard and new"}
    for says, what in tried.items():
        after = study(apply(s.build, list(what.ops)), FACTS)
        now = next(c for c in sway(after).cases if c.case_id == "going-out")
        assert now.damping_at == pytest.approx(what.damping, abs=3e-3), says
    longer = study(apply(s.build, list(tried["drawbar half a metre longer"].ops)), FACTS)
    assert longer.build.rig.axles[0].station.si == pytest.approx(3.5)
    assert longer.build.stow.things[0].x.si == pytest.approx(4.5)
    assert longer.readings.cg_m[row, 0] == pytest.approx(s.readings.cg_m[row, 0] + 0.5, abs=1e-6)


@pytest.mark.parametrize(
    ("facts", "rig", "words"),
    [
        (Facts(), {}, "no car is said"),
        (Facts(vehicles=(msgspec.structs.replace(CAR, wheelbase=None),)), {}, "are not all said"),
        (Facts(vehicles=(msgspec.structs.replace(CAR, rear_empty=None),)), {}, "are not all said"),
        (Facts(vehicles=(msgspec.structs.replace(CAR, rear_empty=Mass(1.0)),)), {}, ""),
        (FACTS, {"axles": ()}, "no axle"),
        (FACTS, {"axles": (Axle("a1", Length(-1.0)),)}, "ahead of the ball"),
    ],
)
def test_what_cannot_be_answered_says_why(facts, rig, words) -> None:
    s = study(msgspec.structs.replace(a_trailer(), rig=msgspec.structs.replace(a_rig(), **rig)), facts)
    made = sway(s)
    if words:
        assert not made.cases and words in made.why
    told = towing_report(s)
    assert (told["sway"] == []) == (not made.cases)


def test_a_bed_does_not_sway_and_its_maker_built_the_frame() -> None:
    project = demo("dark-sky")
    s = study(project.build, project.facts)
    assert "bed" in sway(s).why and "maker" in frame_under(s).why and choices(s) == ()


def test_findings_of_sway_and_the_remedy_that_helps() -> None:
    box = a_thing("t", 260.0, 4.0, 0.0, 0.62, (0.3, 0.4, 0.3), name="Anvil")
    light = a_thing("u", 200.0, 0.3, 0.0, 0.62, (0.3, 0.4, 0.3), name="Sand")
    build = msgspec.structs.replace(a_trailer(box, light), brief=Brief(fastest_kmh=None))
    s = study(build, FACTS)
    codes = {one.code for one in findings(s)}
    assert not {"sway-low", "sway-critical"} & codes  # nobody said how fast
    fast = study(apply(build, [set_to("brief.fastest_kmh", 130.0)]), FACTS)
    worst_case = worst(sway(fast))
    found = [one for one in findings(fast) if one.code in ("sway-low", "sway-critical")]
    assert (worst_case.damping_at < GOOD) == bool(found)
    if found:
        settled = settled_one(fast, found[0].code)
        if settled.remedy is not None:
            after = study(apply(fast.build, settled.remedy.ops), FACTS)
            assert worst(sway(after)).damping_at > worst_case.damping_at


# the frame as a beam
X = np.linspace(0.0, 4.0, 401)


def test_a_point_load_in_the_middle_and_an_even_load_by_the_tables() -> None:
    ends = [(0.0, 500.0), (4.0, 500.0)]
    shear, moment = beam_of(X, (np.array([1000.0]), np.array([2.0]), np.array([0.0])), ends)
    assert moment.max() == pytest.approx(1000.0, rel=1e-3) and abs(moment[-1]) < 1e-6
    assert shear[100] == pytest.approx(500.0) and shear[300] == pytest.approx(-500.0)
    even = [(0.0, 2000.0), (4.0, 2000.0)]
    _, moment = beam_of(X, (np.array([4000.0]), np.array([2.0]), np.array([2.0])), even)
    assert moment.max() == pytest.approx(1000 * 16 / 8, rel=1e-6)
    ei = np.full_like(X, 2.0e5)
    down = sinking(X, moment, ei, [[(0.0, 1.0)], [(4.0, 1.0)]])
    assert down.max() == pytest.approx(5 * 1000 * 4**4 / (384 * 2.0e5), rel=1e-3)


def test_many_loads_add_up_one_by_one() -> None:
    """Points and even loads anywhere, against each by itself: left of a place lies a share of it, with its arm."""
    rng = np.random.default_rng(3)
    weight, at = rng.uniform(10, 500, 60), rng.uniform(0.5, 3.5, 60)
    half = np.where(rng.random(60) < 0.3, 0.0, rng.uniform(0.001, 0.5, 60))
    x = np.unique(np.concatenate([X, at + half, at - half + 1e-9]))
    shear, moment = beam_of(x, (weight, at, half), [(0.0, 900.0)])
    for k in range(0, len(x), 7):
        left = np.where(half > 0, np.clip((x[k] - at + half) / np.maximum(2 * half, 1e-9), 0, 1), x[k] > at)
        arm = np.where(x[k] >= at + half, x[k] - at, np.where(x[k] <= at - half, 0.0, left * (x[k] - at + half) / 2))
        assert shear[k] == pytest.approx(900.0 - (weight * left).sum(), abs=1e-6)
        assert moment[k] == pytest.approx(900.0 * x[k] - (weight * arm).sum(), abs=1e-6)


def test_an_overhang_by_the_tables() -> None:
    """Even w over L and an overhang a: moment over the support w a^2/2, in the span w (L^2-a^2)^2 / (8 L^2)."""
    long, over, w = 3.0, 1.0, 800.0
    x = np.linspace(0.0, 4.0, 1601)
    right = w * 4.0 * 2.0 / long
    _, moment = beam_of(x, (np.array([w * 4.0]), np.array([2.0]), np.array([2.0])), [(0.0, w * 4.0 - right), (3.0, right)])
    assert moment.min() == pytest.approx(-w * over**2 / 2, rel=1e-3)
    assert moment.max() == pytest.approx(w * (long**2 - over**2) ** 2 / (8 * long**2), rel=1e-3)
    _, moment = beam_of(x, (np.array([500.0]), np.array([4.0]), np.array([0.0])), [(0.0, -500.0 / 3), (3.0, 2000.0 / 3)])
    down = sinking(x, moment, np.full_like(x, 1.0e5), [[(0.0, 1.0)], [(3.0, 1.0)]])
    assert down[-1] == pytest.approx(500 * over**2 * (long + over) / (3 * 1.0e5), rel=2e-3)


def a_frame(**rig):
    rig = {"rail": "tube-80x40x3", **rig}
    return study(a_trailer(a_thing("t", 150.0, 3.6, 0.0, 0.62, (0.6, 0.6, 0.4)), **rig), FACTS)


def test_hangers_share_equally_or_one_two_one() -> None:
    single = hangers_m(a_frame())
    assert single == [[(3.0 - LEAF_M / 2, 0.5), (3.0 + LEAF_M / 2, 0.5)]]
    two = (Axle("a1", Length(2.6), Mass(60.0)), Axle("a2", Length(3.4), Mass(60.0)))
    s = study(msgspec.structs.replace(a_trailer(), rig=a_rig(axles=two, suspension="equalised", rail="tube-80x40x3")), FACTS)
    (group,) = hangers_m(s)
    assert [share for _, share in group] == [0.25, 0.5, 0.25] and group[1][0] == pytest.approx(3.0)
    made = frame_under(s)
    road = next(one for one in made.beams if one.how == "road")
    forces = [force for _, force in road.supports[1:]]
    assert forces[1] == pytest.approx(2 * forces[0]) == pytest.approx(2 * forces[2])
    torsion = study(msgspec.structs.replace(a_trailer(), rig=a_rig(axles=two, suspension="independent", rail="tube-80x40x3")), FACTS)
    assert [len(group) for group in hangers_m(torsion)] == [1, 1]


def test_reactions_carry_everything_and_the_ball_is_the_reading() -> None:
    s = a_frame()
    made = frame_under(s)
    for one in made.beams:
        assert (one.moment_nm[-1] == pytest.approx(0.0, abs=0.5) and abs(one.shear_n[-1]) < 1e-6) or one.how.startswith("lifted")
        row = s.table.row(one.case_id)
        axles = sum(p.mass_kg for p in s.parts if p.id in {a.id for a in s.build.rig.axles})
        hung = axles if one.how.startswith("lifted") else 0.0  # off the ground the axles hang on the frame
        on_frame = (float(s.readings.total_kg[row]) - axles + hung) * GRAVITY
        assert sum(force for _, force in one.supports) == pytest.approx(on_frame)
        if one.how == "road":
            assert one.supports[0][1] == pytest.approx(float(s.readings.tongue_kg[row]) * GRAVITY, rel=1e-6)


def test_stress_is_moment_over_both_rails_times_the_road() -> None:
    s = a_frame()
    made = frame_under(s)
    one = next(b for b in made.beams if b.how == "road")
    k = int(np.argmin(np.abs(one.x_m - 2.5)))
    z = sections()["tube-80x40x3"].modulus_m3
    assert one.stress_pa[k] == pytest.approx(abs(one.moment_nm[k]) / (2 * z) * ROAD)
    parked = next(b for b in made.beams if b.how == "parked")
    k = int(np.argmin(np.abs(parked.x_m - 2.5)))
    assert parked.stress_pa[k] == pytest.approx(abs(parked.moment_nm[k]) / (2 * z))
    assert made.utilisation == pytest.approx(max(b.worst_pa for b in made.beams) / 235e6)
    told = towing_report(s)["frame"]
    assert told["utilisation"] == pytest.approx(made.utilisation) and told["case_id"] == made.worst.case_id


def test_a_choice_is_what_the_frame_would_be_with_it() -> None:
    s = a_frame(frame_mass=None)
    heavier = next(one for one in choices(s) if one.section.id == "tube-100x50x4")
    other = a_frame(frame_mass=None, rail="tube-100x50x4")
    assert heavier.more_kg == pytest.approx(float(other.readings.total_kg[0] - s.readings.total_kg[0]), rel=1e-6)
    assert heavier.ball_kg == pytest.approx(float(other.readings.tongue_kg[0] - s.readings.tongue_kg[0]), abs=0.6)
    assert heavier.utilisation == pytest.approx(frame_under(other).utilisation, rel=0.06)
    weights = [one.section.kg_m for one in choices(s)]
    assert weights == sorted(weights)


def test_a_weak_frame_is_found_its_remedy_holds_and_a_mended_crack_is_spoken_of() -> None:
    weak = a_frame(rail="tube-25x25x1.5")
    codes = {one.code for one in findings(weak)}
    assert {"frame-weak", "tongue-slender"} & codes
    settled = settled_one(weak, "frame-weak")
    assert settled.remedy is not None and settled.remedy.ops[0].path == "rig.rail"
    after = study(apply(weak.build, settled.remedy.ops), FACTS)
    assert frame_under(after).utilisation <= 1 and "frame-weak" not in {one.code for one in findings(after)}
    mended = a_frame(frame_mended=Length(2.2))
    one = next(f for f in findings(mended) if f.code == "frame-mended")
    assert "of its yield there" in one.says
    alu = a_frame(rail="alu-tube-80x40x4")
    assert frame_under(alu).yield_pa == pytest.approx(115e6)  # beside a weld


@pytest.mark.parametrize(
    ("rig", "words"),
    [
        ({"rail": ""}, "no section"),
        ({"rail": "unobtainium"}, "no section"),
        ({"axles": ()}, "no axle"),
        ({"frame_length": None}, "not said"),
        ({"drawbar_length": Length(9.0)}, "longer"),
        ({"base": "as bought", "bought_total": Mass(500.0), "bought_ball": Mass(40.0)}, "bought"),
    ],
)
def test_a_frame_that_cannot_be_reckoned_says_why(rig, words) -> None:
    made = frame_under(study(msgspec.structs.replace(a_trailer(), rig=a_rig(**{"rail": "tube-80x40x3", **rig})), FACTS))
    assert words in made.why and made.beams == () and made.worst is None and made.utilisation is None


@pytest.mark.parametrize("name", list(DEMOS))
def test_every_demo_is_answered_or_says_why(name) -> None:
    project = demo(name)
    s = study(project.build, project.facts)
    made, under = sway(s), frame_under(s)
    assert bool(made.cases) != bool(made.why) and bool(under.beams) != bool(under.why)
    assert {one.case_id for one in made.cases} <= {s.table.cases[row].id for row in s.towing_rows}
    for one in made.cases:
        assert one.damping[0] > one.damping[-1]  # the faster, the worse
