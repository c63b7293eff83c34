"""What driving does, against hand sums; its drawings keep their words apart and inside; ticks and fields of plots."""

import math

import msgspec
import numpy as np
import pytest

from tests.builders import IMPERIAL, METRIC, a_body, a_build, a_rig, a_thing
from tests.core.test_stow_drawings import texts_apart
from uncle_sled.core.document.brief import Vehicle
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.drawing.balance import balance_bars, road_cards
from uncle_sled.core.drawing.balance.moves_plan import moves_plan
from uncle_sled.core.drawing.plot import Plot, axes, ticks
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.stow.fit_plan import fit_plan
from uncle_sled.core.reading.parked import jack_with_person_kg, parked
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.road_checks import GRIP, Statics, noses, rides, roll_g, statics_of, turning
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

CARDS = (road_cards.stop_card, road_cards.grade_card, road_cards.lean_card, road_cards.tail_card, road_cards.rides_card)


def of_demo(name):
    project = demo(name)
    return study(project.build, project.facts), Words(project.build.brief.reading.shown())


def said(shapes):
    return " ".join(shape.text for shape in shapes if isinstance(shape, Text))


# sums
def test_a_stop_is_the_moment_sum_until_the_wheels_slide():
    one = Statics(tongue_kg=80.0, total_kg=1000.0, axle_m=3.0, cg_height_m=0.9, hitch_m=0.45)

    assert one.stopping_kg(0.0, True) == one.stopping_kg(0.0, False) == 80.0
    assert one.stopping_kg(0.4, True) == pytest.approx(80 + 1000 * 0.4 * 0.9 / 3)
    assert one.stopping_kg(0.4, False) == pytest.approx(80 + 1000 * 0.4 * (0.9 - 0.45) / 3)
    hard = one.stopping_kg(0.9, True)
    brakes = GRIP * (1000 - hard)  # all that the tyres hold, at the load that they have then
    push = 1000 * 0.9 - brakes
    assert hard == pytest.approx(80 + (1000 * 0.9 * 0.9 - push * 0.45) / 3)
    assert one.stopping_kg(0.9, False) < hard < 80 + 1000 * 0.9 * 0.9 / 3


def test_grip_sets_in_without_a_step():
    one = Statics(80.0, 1000.0, 3.0, 0.9, 0.45)
    curve = [one.stopping_kg(float(d), True) for d in np.linspace(0.4, 0.9, 501)]

    assert max(np.abs(np.diff(curve))) < 0.5 and (np.diff(curve) > 0).all()


def test_a_grade_turns_the_weight():
    one = Statics(80.0, 1000.0, 3.0, 0.9, 0.45)
    slope = math.atan(0.15)

    assert one.on_grade_kg(0.15) == pytest.approx(80 * math.cos(slope) + 1000 * math.sin(slope) * 0.45 / 3)
    assert one.on_grade_kg(-0.15) < 80 < one.on_grade_kg(0.15) and one.on_grade_kg(0.0) == 80.0


def test_somebody_walks_to_the_tail():
    s = study(a_build([a_thing("t", 100, x=2.0)], shell=a_body()), Facts())
    axle = float(s.readings.effective_axle_m[0])
    spots = np.array([axle, axle + 1.0])
    loads = jack_with_person_kg(s.build.rig, s.readings, 0, spots)
    at_rest = float(parked(s.build.rig, s.readings, None).jack_kg[0])

    assert loads[0] == pytest.approx(at_rest) and loads[1] == pytest.approx(at_rest - 100 / (axle - 0.5))
    assert jack_with_person_kg(msgspec.structs.replace(s.build.rig, jack_station=None), s.readings, 0, spots) is None


def test_springs_over_the_axle_raise_all_and_tip_earlier_and_torsion_arms_have_none():
    under = study(a_build([a_thing("t", 100)], shell=a_body(), rig=a_rig(spring_side="under")), Facts())
    below, above = rides(under, 0)

    assert above.floor_m == pytest.approx(below.floor_m + 0.10) and above.coupler_m == pytest.approx(below.coupler_m + 0.10)
    assert above.roll_g < below.roll_g == pytest.approx(roll_g(under, 0)) and above.departure_deg > below.departure_deg
    loose = study(a_build(shell=a_body(), rig=a_rig(suspension="independent")), Facts())
    assert rides(loose, 0) == () and statics_of(loose, 99) is None


def test_what_stands_foremost_is_body_box_and_what_hangs_outside():
    build = a_build([a_thing("g", 10, x=0.4, size=(0.3, 0.5, 0.4), outside=True), a_thing("in", 5)], shell=a_body())
    found = {nose.id: nose for nose in noses(study(build, Facts()))}

    assert found.keys() == {"shell", "g"} and found["g"].behind_m == 0.4 and found["g"].half_m == 0.25
    turned = apply(build, [set_to("stow.things.g.turn", 90)])
    assert {n.id: n.half_m for n in noses(study(turned, Facts()))}["g"] == pytest.approx(0.15)


def test_what_stands_foremost_is_judged_anew_when_the_carrier_changes():
    car = Vehicle("v", "Car", width=Length(1.8), bumper=Length(0.2))
    build = a_build([a_thing("g", 10, x=0.4, size=(0.3, 0.5, 0.4), outside=True)])
    facts = Facts(vehicles=(car,))
    assert [one.nose_id for one in turning(study(build, facts))] == ["g"]

    assert turning(study(apply(build, [set_to("rig.carrier", "vehicle bed")]), facts)) == ()


# drawings
@pytest.mark.parametrize("name", DEMOS)
@pytest.mark.parametrize("size", [(262, 262), (238, 214)])
def test_cards_keep_their_words_apart_and_inside(name, size):
    s, words = of_demo(name)
    drawn = [card(s, row, words, *size) for row in s.towing_rows for card in CARDS] + [road_cards.bend_card(s, words, *size)]
    if s.build.rig.carrier != "ball":
        assert not any(drawn)
        return
    assert all(drawn[:4]) and drawn[-1]
    for shapes in drawn:
        assert texts_apart(shapes) == []
        for text in (shape for shape in shapes if isinstance(shape, Text)):
            left = text.at[0] - text.width * {"left": 0.0, "middle": 0.5, "right": 1.0}[text.anchor]
            assert left >= -1 and left + text.width <= size[0] + 1 and 0 <= text.at[1] <= size[1], text.text


def test_cards_say_their_sums_in_the_build_s_units():
    s, words = of_demo("marsh-heron")
    one = statics_of(s, 0)

    assert words.kg(one.stopping_kg(0.4, True)) in said(road_cards.stop_card(s, 0, words, 262, 262))
    assert words.kg(one.on_grade_kg(0.15)) in said(road_cards.grade_card(s, 0, words, 262, 262))
    assert f"{roll_g(s, 0):.2f} g" in said(road_cards.lean_card(s, 0, words, 262, 262))
    assert "stabilisers first" in said(road_cards.tail_card(s, 0, words, 262, 262))
    rosin, in_pounds = of_demo("rosin-box")
    assert "lb" in said(road_cards.stop_card(rosin, 0, in_pounds, 262, 262))


def test_the_car_that_comes_nearest_is_drawn_and_the_others_told():
    widths = (1.6, 2.2, 1.8)
    cars = tuple(Vehicle(f"v{k}", f"Car {k}", width=Length(w), bumper=Length(0.2)) for k, w in enumerate(widths))
    s = study(a_build([a_thing("t", 50)], shell=a_body()), Facts(vehicles=cars))
    text = said(road_cards.bend_card(s, Words(METRIC), 262, 262))

    assert text.startswith("Car 1 at") and "Car 0" in text and "Car 2" in text
    assert road_cards.bend_card(study(s.build, Facts()), Words(METRIC), 262, 262) == ()


def test_cars_stand_side_by_side_with_what_their_papers_allow():
    full = Vehicle("a", "Estate", Mass(75.0), Mass(1500.0))
    s = study(a_build([a_thing("t", 400)], shell=a_body()), Facts(vehicles=(full, Vehicle("b", "Van", Mass(50.0)))))
    shapes = balance_bars.car_bars(s, Words(METRIC), 820, 200)
    heads = {shape.text: shape.at[0] for shape in shapes if isinstance(shape, Text)}

    assert heads["Estate, car empty"] < heads["Van, car empty"] and "of 75 kg" in said(shapes) and "of 1500 kg" in said(shapes)
    assert said(shapes).count("not checked") >= 6
    assert balance_bars.car_bars(study(s.build, Facts()), Words(METRIC), 820, 200) == ()


@pytest.mark.parametrize("name", DEMOS)
def test_the_fit_from_above_shows_who_lies_and_how_they_get_out(name):
    s, words = of_demo(name)
    for mode in s.build.stow.modes:
        shapes = fit_plan(s, mode, (s.build.stow.things[0].id,), words, 820, 200)
        assert shapes and texts_apart(shapes) == []
        if not mode.towing:
            assert any(isinstance(shape, Poly) and shape.fill == "spruce" for shape in shapes)  # an arrow's head
        chosen = [shape for shape in shapes if isinstance(shape, Poly) and shape.stroke == "chalk"]
        assert len(chosen) == (s.build.stow.things[0].id not in mode.absent)
    assert fit_plan(study(a_build(), Facts()), a_build().stow.modes[0], (), words, 820, 200) == ()


def test_a_tried_move_is_drawn_from_where_to_where():
    build = a_build([a_thing("t", 50, x=2.0), a_thing("u", 20, x=3.0)], shell=a_body())
    s = study(build, Facts())
    tried = study(apply(build, [set_to("stow.things.t.x", {"si": 2.6, "typed": None})]), Facts())
    shapes = moves_plan(s, tried, 0, 800, 200)

    assert [shape.id for shape in shapes if isinstance(shape, Poly) and shape.stroke == "chalk" and shape.closed] == ["t"]
    assert not any(isinstance(shape, Poly) and shape.stroke == "chalk" for shape in moves_plan(s, None, 0, 800, 200))
    assert moves_plan(study(a_build(), Facts()), None, 0, 800, 200) == ()


# plots
@pytest.mark.parametrize(
    ("low", "high", "per", "wanted"),
    [(0, 100, 1.0, [0, 20, 40, 60, 80, 100]), (-3, 4, 1.0, [-2, 0, 2, 4]), (0, 45.36, 0.4536, [0, 9.072, 18.144, 27.216, 36.288, 45.36])],
)
def test_ticks_are_round_in_the_shown_unit(low, high, per, wanted):
    assert ticks(low, high, 5, per) == pytest.approx(wanted)


def test_ticks_of_nothing_are_none_and_never_leave_their_span():
    assert ticks(1.0, 1.0) == [] and ticks(0.0, math.inf) == []
    for low, high in ((0.013, 0.0192), (-1234.0, 987654.0)):
        made = ticks(low, high, 6)
        assert 1 < len(made) <= 8 and low - 1e-9 <= made[0] and made[-1] <= high + 1e-9


def test_a_plot_clips_its_lines_and_parts_the_words_of_its_axis():
    plot = Plot(0.0, 10.0, 0.0, 5.0, 50.0, 40.0, 150.0, 140.0)

    assert plot.at(5.0, 2.5) == (100.0, 90.0)
    (curve,) = plot.curve(np.arange(11.0), np.arange(11.0), "ink")
    assert len(curve.points) == 6 and plot.curve(np.arange(3.0), np.full(3, 9.0), "ink") == []
    shapes = axes(plot, np.linspace(0, 10, 40).tolist(), [0.0, 5.0], lambda x: f"{x:.3f}", str)
    assert texts_apart(shapes) == [] and len([1 for shape in shapes if isinstance(shape, Text)]) < 12


def test_volumes_are_told_in_the_build_s_unit():
    assert Words(METRIC).m3(0.2271) == "227 L" and Words(IMPERIAL).m3(0.2271) == "60 gal" and Words(METRIC).m3(0.0041) == "4.1 L"
    assert Words(METRIC).thick(0.0449999) == "45 mm"
