"""A hurried hand at any field: whatever a build holds, it is judged, drawn and reported, or said; nothing falls over."""

import json
import random

import msgspec
import pytest

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.drawing.balance import axle_chart, balance_bars, moves_plan, road_cards
from uncle_sled.core.drawing.stow import fan, fit_plan
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.balance.axle_conflicts import conflicts
from uncle_sled.core.studies.balance.axle_placing import axle_placing
from uncle_sled.core.studies.balance.sweep import sweep
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.report import report

LENGTHS = (0.0, -1.0, -0.3, 1e-9, 0.05, 50.0, 1e4, 1e6, None)


def fields(node, path=""):
    """Every place in a build that holds a quantity, a number, a switch or a list."""
    if isinstance(node, msgspec.Struct):
        if {"si", "typed"} <= set(node.__struct_fields__):
            yield path, "quantity"
            return
        for name in node.__struct_fields__:
            yield from fields(getattr(node, name), f"{path}.{name}" if path else name)
    elif isinstance(node, tuple):
        yield path, "list"
        for one in node:
            if isinstance(one, msgspec.Struct) and hasattr(one, "id"):
                yield from fields(one, f"{path}.{one.id}")
    elif isinstance(node, bool):
        yield path, "switch"
    elif isinstance(node, int | float):
        yield path, "number"


def spoilt(build, rng, many):
    places = [one for one in fields(build) if one[0].split(".")[0] in ("rig", "stow", "shell", "brief")]
    for path, kind in rng.choices(places, k=many):
        value = rng.choice(LENGTHS)
        new = {
            "list": [],
            "switch": rng.random() < 0.5,
            "number": 0 if value is None else value,
            "quantity": None if value is None else {"si": value, "typed": None},
        }[kind]
        try:
            build = apply(build, [set_to(path, new)])
        except SledError as fault:  # refused with its place: that is an answer too
            assert str(fault)
    return build


@pytest.mark.parametrize("seed", range(10))
def test_a_spoilt_build_is_judged_drawn_and_reported(seed):
    judge_and_draw_spoilt(seed)


def judge_and_draw_spoilt(seed):
    """A demo with some fields put to anything. Raises: AssertionError, or whatever falls over."""
    rng = random.Random(seed)
    project = demo(DEMOS[seed % len(DEMOS)])
    build = spoilt(project.build, rng, rng.choice([1, 3, 8, 20]))
    s, words = study(build, project.facts), Words(build.brief.reading.shown())
    found = findings(s)

    assert all(one.says and one.title and one.stop for one in found)
    json.dumps(report(s, found, project.with_build(build)), allow_nan=False)
    drawn = [balance_bars.limit_bars(s, s.limits, s.unchecked, words, 800, 300), balance_bars.car_bars(s, words, 800, 200)]
    for row in range(len(s.table.cases)):
        for card in ("stop", "grade", "lean", "tail", "rides"):
            drawn.append(getattr(road_cards, f"{card}_card")(s, row, words, 260, 240))
        drawn.append(moves_plan.moves_plan(s, None, row, 800, 200))
    drawn.append(road_cards.bend_card(s, words, 260, 240))
    drawn += [fit_plan.fit_plan(s, mode, (), words, 800, 200) for mode in build.stow.modes]
    if s.support is not None and s.support.carrier == "ball" and s.towing_rows:
        placing = axle_placing(s)
        if placing is not None:
            field = axle_chart.field_of(s, placing, s.support.mean_axle_m, 800, 300)
            drawn.append(axle_chart.axle_chart(s, placing, conflicts(s), field, words))
    swept = sweep(s, 0)
    if swept is not None:
        drawn.append(fan.fan(s, swept, words, 800, 200))
    assert all(isinstance(shapes, tuple) for shapes in drawn)
