"""Gas struts, winches, slides, beds: the trade's check cases, and what is physically so."""

from __future__ import annotations

import math

import msgspec
import numpy as np
import pytest

from uncle_sled.core.document.joinery import Strut, Winch
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.studies.stow.carries import (
    bearer,
    board_under_a_knee,
    corners_n,
    crank_n,
    line_pull_n,
    pulled_out_nm,
    slat_under_a_knee,
)
from uncle_sled.core.studies.stow.struts import (
    CLOSE_N,
    COLD_C,
    FORCES_N,
    HOLD_SHARE,
    HOT_C,
    RAISE_N,
    SIZES_M,
    Turning,
    force_n,
    search,
    strut_fault,
    swing,
    verdict,
)

HATCH = Turning(14.0, 0.480, -60.0, 100.0, 0.95)
LEAN = math.radians(-80.0)
STRUT = Strut(
    Length(0.290),
    Length(0.485),
    Length(0.195),
    300.0,
    2,
    Length(0.190),
    Length(-0.408),
    Length(0.1 * math.cos(LEAN)),
    Length(0.1 * math.sin(LEAN)),
)
# beta, T, L, e, F, gas, gravity: the table of the notes
TABLE = (
    (0, 20, 0.354, -0.033, 350.2, -23.0, 32.9),
    (50, -10, 0.373, 0.069, 308.1, 42.7, 64.9),
    (50, 20, 0.373, 0.069, 343.2, 47.6, 64.9),
    (100, -10, 0.453, 0.099, 280.5, 55.6, 50.5),
    (100, 40, 0.453, 0.099, 333.8, 66.2, 50.5),
)
HANDS = ((50, -10, 29.2, -17.5), (50, 20, 24.1, -12.4), (100, -10, 3.0, 13.7), (100, 40, -8.2, 24.8))


def at(beta: float, t_c: float, turning: Turning = HATCH, strut: Strut = STRUT):
    return swing(turning, strut, t_c, np.array([float(beta)]))


@pytest.mark.parametrize("row", TABLE)
def test_levers_and_forces_are_those_of_the_notes(row) -> None:
    beta, t_c, long, lever, force, gas, gravity = row
    got = at(beta, t_c)
    assert got.length_m[0] == pytest.approx(long, abs=6e-4) and got.lever_m[0] == pytest.approx(lever, abs=6e-4)
    assert got.force_n[0] == pytest.approx(force, abs=0.1)
    assert got.gas_nm[0] == pytest.approx(gas, abs=0.06) and got.gravity_nm[0] == pytest.approx(gravity, abs=0.06)


@pytest.mark.parametrize("row", HANDS)
def test_hands_are_those_of_the_notes_where_the_strut_opens(row) -> None:
    beta, t_c, up, down = row
    got = at(beta, t_c)
    assert got.raise_n[0] == pytest.approx(up, abs=0.06) and got.close_n[0] == pytest.approx(down, abs=0.06)


def test_friction_hinders_both_ways_where_the_strut_pushes_shut() -> None:
    """At the first degrees the lever is negative: raising pushes the rod in, so friction adds to what the hand lifts."""
    got = at(0, 20)
    bare = (got.gravity_nm[0] - got.gas_nm[0]) / HATCH.hand_m
    rub = 2 * 40.0 * abs(got.lever_m[0]) / HATCH.hand_m
    assert got.raise_n[0] == pytest.approx(bare + rub) and got.close_n[0] == pytest.approx(-bare + rub)
    free = at(0, 20, strut=msgspec.structs.replace(STRUT, friction_n=0.0))
    assert free.raise_n[0] == pytest.approx(-free.close_n[0])


def test_it_holds_as_built_and_falls_with_cladding_added() -> None:
    good = verdict(HATCH, STRUT)
    assert good.hold_share == pytest.approx(1.101, abs=1e-3) and good.good
    clad = (14 * 0.48 + 2.5 * 0.55) / 16.5
    heavy = verdict(Turning(16.5, clad, -60.0, 100.0, 0.95), STRUT)
    assert heavy.hold_share == pytest.approx(0.914, abs=1e-3) and heavy.fails == ("hold",)
    next_force = msgspec.structs.replace(STRUT, force_n=400.0)
    assert "hold" not in verdict(Turning(16.5, clad, -60.0, 100.0, 0.95), next_force).fails


def test_gravity_and_gas_are_the_work_that_is_done() -> None:
    """Gravity's torque over the angle is the rise of the centre; the gas's is the force over the stroke."""
    betas = np.linspace(0.0, 100.0, 2001)
    got = swing(HATCH, STRUT, 20.0, betas)
    turn = np.radians(betas)
    rise = HATCH.r_m * (math.sin(math.radians(40.0)) - math.sin(math.radians(-60.0)))
    assert np.trapezoid(got.gravity_nm, turn) == pytest.approx(14 * 9.80665 * rise, rel=1e-4)
    gas = np.trapezoid(2 * got.force_n, got.length_m)
    assert np.trapezoid(got.gas_nm, turn) == pytest.approx(gas, rel=1e-3)


def test_frost_and_pushing_in_change_the_force_as_said() -> None:
    assert force_n(STRUT, 0.485, 20.0) == pytest.approx(300.0)
    assert force_n(STRUT, 0.290, 20.0) == pytest.approx(375.0)
    cold = 1 - force_n(STRUT, 0.485, 19.0) / force_n(STRUT, 0.485, 20.0)
    assert cold == pytest.approx(0.0034, abs=1e-4)
    assert force_n(STRUT, 0.485, -10.0) == pytest.approx(269.3, abs=0.05)


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"open": Length(0.2)}, "longer open than shut"),
        ({"stroke": Length(0.3)}, "stroke"),
        ({"body_x": Length(0.0), "body_z": Length(0.0)}, "hinge"),
        ({"lid_x": Length(0.001), "lid_z": Length(0.0)}, "hinge"),
        ({"many": 0}, "no strut"),
        ({"force_n": 0.0}, "without force"),
    ],
)
def test_a_strut_that_cannot_be_is_refused_in_words(changes, words) -> None:
    one = msgspec.structs.replace(STRUT, **changes)
    assert words in strut_fault(one, HATCH)
    with pytest.raises(GeometryError, match=words):
        swing(HATCH, one, 20.0)


def test_a_lid_on_its_hinge_or_without_weight_is_refused() -> None:
    assert "centre lies on the hinge" in strut_fault(STRUT, Turning(14.0, 0.001, -60.0, 100.0, 0.95))
    assert "weighs" in strut_fault(STRUT, Turning(0.0, 0.48, -60.0, 100.0, 0.95))
    assert search(Turning(0.0, 0.48, -60.0, 100.0, 0.95)) is None


@pytest.mark.parametrize("mass", [4.0, 9.0, 14.0, 16.5, 22.0, 30.0])
@pytest.mark.parametrize("opens", [70.0, 90.0, 110.0])
def test_what_is_found_is_sold_fits_and_holds(mass, opens) -> None:
    turning = Turning(mass, 0.45, -75.0, opens, 0.9)
    found = search(turning)
    assert found is not None and found.tried > 1000
    one = found.strut
    assert (one.shut.si, one.open.si, one.stroke.si) in SIZES_M and one.force_n in FORCES_N
    assert found.verdict == verdict(turning, one) and found.verdict.fits
    cold, hot = swing(turning, one, COLD_C), swing(turning, one, HOT_C)
    lengths = np.concatenate([cold.length_m, hot.length_m])
    assert lengths.min() >= one.open.si - one.stroke.si + 0.005 - 1e-9 and lengths.max() <= one.open.si - 0.003 + 1e-9
    if found.verdict.good:
        assert cold.gas_nm[-1] >= HOLD_SHARE * cold.gravity_nm[-1] - 1e-9
        assert cold.raise_n.max() <= RAISE_N and hot.close_n.max() <= CLOSE_N


def test_nothing_sold_lifts_a_door_of_stone() -> None:
    found = search(Turning(400.0, 0.45, -75.0, 100.0, 0.9))
    assert found is not None and "hold" in found.verdict.fails


# winch, slides, boards
def test_winch_and_corners_are_those_of_the_notes() -> None:
    winch = Winch(1, 3, Length(0.022), Length(0.180), 3.1)
    pull = line_pull_n(75.0, winch)
    assert pull == pytest.approx(1009, abs=1) and crank_n(pull, winch) == pytest.approx(53, abs=0.5)
    corners = corners_n(75.0, 1.9, 1.3, 1.05, 0.70)
    assert sorted(corners) == pytest.approx([152, 188, 177, 219], abs=1) or sorted(corners) == pytest.approx(
        sorted([152, 188, 177, 219]), abs=1
    )
    assert sum(corners) == pytest.approx(75 * 9.80665) and 5 * max(corners) == pytest.approx(1094, abs=3)


def test_a_tray_pulled_out_is_a_lever() -> None:
    bare, leaning = pulled_out_nm(38.0, 0.60, 0.30)
    assert bare == pytest.approx(111.8, abs=0.05) and leaning == pytest.approx(231.8, abs=0.05)
    assert leaning / 0.45 == pytest.approx(515, abs=0.5)


def test_boards_slats_and_bearers_are_those_of_the_notes() -> None:
    thin, thick = board_under_a_knee(0.015, 0.60), board_under_a_knee(0.018, 0.60)
    assert (thin.stress_pa, thin.sinks_m) == pytest.approx((16.0e6, 0.0071), rel=0.01)
    assert (thick.stress_pa, thick.sinks_m) == pytest.approx((11.1e6, 0.0041), rel=0.01) and thick.sinks_m > 0.6 / 150
    alone, three = slat_under_a_knee(0.07, 0.02, 0.65, 1), slat_under_a_knee(0.07, 0.02, 0.65, 3)
    assert alone.stress_pa == pytest.approx(41.8e6, rel=2e-3) and three.stress_pa == pytest.approx(13.9e6, rel=3e-3)
    beam = bearer(0.045, 0.070, 1.35, 180.0, 1.9)
    assert beam.moment_nm == pytest.approx(697 * 1.35**2 / 8, rel=2e-3)
    assert beam.stress_pa == pytest.approx(4.3e6, rel=0.01) and beam.sinks_m == pytest.approx(0.0026, abs=5e-5)
