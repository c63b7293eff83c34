"""How true a measure must be: by hand, against 20,000 draws, against whole builds, and against every set of levels."""

import itertools

import numpy as np
import pytest

from tests.builders import a_body, a_build, a_hole, a_rig, a_thing
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Mass
from uncle_sled.core.drawing.balance.axle_order import axle_order
from uncle_sled.core.drawing.balance.true_rows import true_rows, true_words
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance import tolerances as own
from uncle_sled.core.studies.balance.tolerances import LEVELS_M, Dimension, Outcome, chance_of, outcomes_of, sigma_within, tolerances
from uncle_sled.core.units import Shown
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import demo

WORDS = Words(Shown("mm", "kg", "L"))


def plain(**changes):
    """A frame of 300 kg whose middle is at 2.9 m, an axle of 60 kg at 3.1, a chest of 90 kg, a door of 600 by 1,700 mm in a box."""
    shell = changes.pop("shell", a_body(openings=(a_hole("door", "right side", 1.0, 0.0, 0.6, 1.7, "door", mass=Mass(16.0)),)))
    chest = a_thing("chest", 90.0, x=2.5, z=0.62, size=(0.8, 0.5, 0.5))
    brief = changes.pop("brief", Brief(region="European"))
    return a_build([chest], rig=a_rig(axle=3.1, frame=300.0, frame_cg=2.9), shell=shell, brief=brief, **changes)


def test_what_a_measure_does_by_hand():
    s = study(plain(), Facts())
    outcomes, dimensions = outcomes_of(s)
    by = {one.id: dict(one.does) for one in dimensions}
    rooms = {outcome.id: outcome for outcome in outcomes}
    row = s.towed_rows[0]
    ball = f"ball/{s.table.cases[row].id}"
    # the frame at 2.9, the axle's own 60 at 3.1, the chest's middle at 2.9, the door's at 2.5: 300, 60, 90 and 16 kg
    moment = 300 * 2.9 + 60 * 3.1 + 90 * 2.9 + 16 * 2.5
    tongue = 466 - moment / 3.1
    assert s.readings.tongue_kg[row] == pytest.approx(tongue)
    assert not rooms[ball].short
    assert by["stow.things.chest.x"][ball] == pytest.approx(-90 / 3.1)
    assert by["axle"][ball] == pytest.approx(moment / 3.1**2)
    assert rooms[ball].room == pytest.approx((tongue - 0.05 * 466, 0.07 * 466 - tongue))
    assert rooms["square"].room[0] == pytest.approx(0.001 * np.hypot(4.0, 2.0))
    assert by["diagonal 1"] == {"square": 1.0} and by["diagonal 2"] == {"square": -1.0}
    assert rooms["door/width"].room == (0.003, 0.003)


def test_half_the_tolerance_is_a_sigma_and_nine_of_ten_lie_within_1_645_of_them():
    assert sigma_within(1.645, 1.645, 0.90) == pytest.approx(1.0, abs=2e-3)
    assert sigma_within(1.2816, 1e3, 0.90) == pytest.approx(1.0, abs=2e-3)  # one side alone


def test_a_measure_that_holds_to_its_room_comes_right_19_times_of_20():
    """A tolerance is two sigmas: within twice a sigma lie 95.4 of 100."""
    one = Dimension("m", "Measure", 1.0, (("o", 1.0),), 0.010)
    outcome = Outcome("o", "Outcome", (0.010, 0.010), "m")
    assert chance_of((outcome,), (one,), 40_000, seed=3) == pytest.approx(0.9545, abs=0.005)


@pytest.mark.parametrize("name", ["ferry-bell", "dark-sky", "marsh-heron"])
def test_nine_of_ten_of_20000_draws_come_right(name):
    project = demo(name)
    found = tolerances(study(project.build, project.facts))

    assert found.reached
    assert chance_of(found.outcomes, found.dimensions, 20_000, seed=77) >= 0.895
    assert found.chance == pytest.approx(chance_of(found.outcomes, found.dimensions, 20_000, seed=78), abs=0.01)
    assert 0.0 < found.bound <= found.cost
    assert {one.tolerance_m for one in found.dimensions} <= set(LEVELS_M)


def test_whole_builds_with_their_measures_off_come_right_as_often():
    build = plain()
    found = tolerances(study(build, Facts()))
    at = {one.id: one.tolerance_m for one in found.dimensions}
    random, right, many = np.random.default_rng(5), 0, 150
    good = [outcome.id for outcome in found.outcomes if outcome.id.startswith("ball/") and not outcome.short]
    assert good
    for _ in range(many):
        off = {id: float(random.normal(0, t / 2)) for id, t in at.items()}
        ops = [
            set_to("rig.axles.a1.station", {"si": 3.1 + off["axle"]}),
            set_to("stow.things.chest.x", {"si": 2.5 + off["stow.things.chest.x"]}),
        ]
        ops += [set_to("shell.front", {"si": 1.2 + off["shell.front"]})] if "shell.front" in off else []
        there = study(apply(build, ops), Facts())
        low, high = there.readings.band_kg.T
        rows = [there.table.row(id.removeprefix("ball/")) for id in good]
        right += bool(((there.readings.tongue_kg >= low - 1e-9) & (there.readings.tongue_kg <= high + 1e-9))[rows].all())
    assert right / many >= 0.9 - 0.06


def test_against_every_set_of_levels(monkeypatch):
    """Three measures of one outcome: the cheapest of 729 sets that comes right as often on the same draws."""
    pull = np.array([[40.0], [-25.0], [8.0]])
    drawn = np.random.default_rng(1).standard_normal((4000, 3))
    low, high = np.array([0.35]), np.array([0.5])
    levels = own._loosened(pull, low, high, drawn)
    cost = float(sum(0.001 / LEVELS_M[k] for k in levels))

    def right(chosen):
        off = (drawn * np.array([LEVELS_M[k] / 2 for k in chosen])) @ pull
        return float(((off >= -low) & (off <= high)).all(axis=1).mean())

    every = {chosen: sum(0.001 / LEVELS_M[k] for k in chosen) for chosen in itertools.product(range(9), repeat=3)}
    best = min(cost for chosen, cost in every.items() if right(chosen) >= 0.91)
    assert right(levels) >= 0.91
    assert best <= cost <= 1.2 * best
    assert own._least_cost(pull, [(0.35, 0.5)]) <= best


def test_what_no_measuring_mends_is_named_and_what_is_too_narrow_as_well():
    narrow = tolerances(study(plain(brief=Brief(region="European", band_low=0.0606, band_high=0.0607)), Facts()))
    heavy = tolerances(study(plain(brief=Brief(region="European", band_low=0.01, band_high=0.011)), Facts()))

    shorts = [outcome for outcome in heavy.outcomes if outcome.short]
    assert shorts and all(outcome.id.startswith("ball/") for outcome in shorts)
    assert heavy.reached and heavy.of("axle") is None
    assert not narrow.reached and narrow.narrow == ("Going out, on the ball",) and narrow.of("axle") is None
    empty = tolerances(study(a_build(), Facts()))
    assert empty.dimensions == () and empty.chance == 1.0
    assert true_rows(empty, WORDS, 600.0, 300.0) == ()


def test_it_stands_small_beside_the_axles_place_on_the_order_sheet_and_in_rows():
    build = apply(plain(), [set_to("rig.axle_place", "to be placed")])
    s = study(build, Facts())
    found = tolerances(s)
    words = " ".join(getattr(shape, "text", "") for shape in axle_order(s, "Plain", "today").shapes)

    assert found.of("axle") is not None
    assert f"3100 mm behind the ball, {true_words(found.of('axle'), Words(build.brief.reading.shown()))}" in words.replace(
        "\u202f", ""
    ).replace(" 100", "100")
    rows = [getattr(shape, "text", "") for shape in true_rows(found, WORDS, 800.0, 400.0)]
    assert "±2 mm" in rows or "±3 mm" in rows
    assert sum("and" in row and "more" in row for row in (getattr(x, "text", "") for x in true_rows(found, WORDS, 800.0, 100.0))) == 1


def test_in_inches_it_is_a_fraction_that_a_tape_has_and_never_looser():
    inches = Words(Shown("ft-in", "lb", "gal"))
    told = [true_words(level, inches) for level in LEVELS_M]

    assert told == ['±1/32"', '±1/16"', '±3/32"', '±3/16"', '±3/8"', '±3/4"', '±1 1/8"', '±1 7/8"', '±3 7/8"']
    assert true_words(0.003, WORDS) == "±3 mm"
