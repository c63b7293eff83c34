"""An engineer with the report and a pencil: every demo's sums made again from the numbers beside them, by other code."""

from __future__ import annotations

import itertools
import json
import math
from datetime import date

import pytest
from shapely.geometry import box

from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.exchange.demos import DEMOS, demo
from uncle_sled.exchange.report import report

COPPER_COLD, COPPER_WARM = 0.0175, 0.0203  # [ohm mm2/m] at 20 degrees, and loaded over half
AIR_WH_M3K = 0.335
FUSE_KG = 0.25  # the heaviest, with its holder
COPPER_KG_M3, JACKET = 8960.0, 1.35
DENSITY_KG_L = {"fresh": 1.0, "grey": 1.0, "black": 1.0, "gas": 0.51, "diesel": 0.84}


@pytest.fixture(scope="module", params=DEMOS)
def told(request):
    """The report as a program reads it, from its JSON."""
    project = demo(request.param)
    s = study(project.build, project.facts)
    return json.loads(json.dumps(report(s, findings(s), project), allow_nan=False))


def test_a_case_is_carried_by_what_stands_on_the_ground(told) -> None:
    """The axles, and the ball where there is one, carry the whole; left and right together what is on the wheels."""
    assert told["cases"]
    for case in told["cases"]:
        wheels = sum(case["axle_kg"])
        assert wheels + (case["tongue_kg"] or 0.0) == pytest.approx(case["total_kg"], rel=1e-9), case["id"]
        assert case["left_kg"] + case["right_kg"] == pytest.approx(wheels, rel=1e-6), case["id"]
        if case["tongue_kg"] is not None:
            assert case["tongue_share"] == pytest.approx(case["tongue_kg"] / case["total_kg"])


def test_moments_of_all_parts_give_the_ball(told) -> None:
    """What a full case differs from an empty one by: contents at their place, by the lever to the axle."""
    if told["build"]["carrier"] != "ball" or told["rig"]["effective_axle_m"] is None:
        return  # a vehicle's bed, or axles that share by their springs
    axle = told["rig"]["effective_axle_m"]
    cases = {case["id"]: case for case in told["cases"]}
    # the parts have no contents: the lightest case with all aboard lies over them by what was left in
    parts = sum(part["mass_kg"] for part in told["parts"])
    moment = sum(part["mass_kg"] * (axle - part["x_m"]) for part in told["parts"])
    for tank in told["tanks"]:
        case = cases[tank["case_id"]]
        parts += tank["mass_kg"]
        moment += tank["mass_kg"] * (axle - tank["cg_m"][0])
    assert moment / axle == pytest.approx(case["tongue_kg"], abs=0.1 + 0.2 * abs(parts - case["total_kg"]))


def test_tanks_weigh_what_is_in_them(told) -> None:
    for tank in told["tanks"]:
        if tank["mass_kg"] and tank["contents"] in DENSITY_KG_L:
            wanted = tank["volume_l"] * tank["level"] * DENSITY_KG_L[tank["contents"]]
            assert tank["mass_kg"] == pytest.approx(wanted, rel=1e-6), tank
        assert 0.0 <= tank["level"] <= 1.0
        assert tank["outside_l"] is None or tank["outside_l"] >= tank["volume_l"] * 0.999


def test_the_sweep_holds_every_case_between_its_worst(told) -> None:
    sweep = told["sweep"]
    if sweep is None or sweep["worst_low"]["tongue_kg"] is None:
        return
    low, high = sweep["worst_low"]["tongue_share"], sweep["worst_high"]["tongue_share"]
    case = next(one for one in told["cases"] if one["id"] == sweep["case_id"])
    assert low <= case["tongue_share"] + 1e-9 and case["tongue_share"] <= high + 1e-9
    assert sweep["combinations"] >= 2 ** len(sweep["worst_low"]["levels"])


def test_what_holds_is_value_over_limit(told) -> None:
    """In every bar: its share is the value over its limit, and what was not checked says why and has no share."""
    checks = [*told["shell"]["checks"], *told["strength"]]
    for one in checks:
        if one["utilisation"] is None:
            assert one["why"] and one["face"] == "not checked", one["id"]
        elif one["limit"]:
            shares = (one["value"] / one["limit"], one["limit"] / one["value"] if one["value"] else math.inf)
            assert any(one["utilisation"] == pytest.approx(share, rel=1e-6) for share in shares), one["id"]


def test_wires_drop_what_copper_drops(told) -> None:
    if told["wiring"] is None:
        return
    for wire in told["wiring"]["circuits"]:
        if wire["drop_share"] is None or not wire["area_mm2"]:
            continue
        per_ohm = 2 * wire["length_m"] * wire["current_a"] / wire["area_mm2"] / wire["volts"]
        cold, warm = per_ohm * COPPER_COLD, per_ohm * COPPER_WARM
        assert any(wire["drop_share"] == pytest.approx(one, rel=1e-6) for one in (cold, warm)), wire["id"]
        conductors = 3 if wire["kind"] == "AC" else 2
        copper = conductors * wire["length_m"] * wire["area_mm2"] * 1e-6 * COPPER_KG_M3
        assert copper < wire["mass_kg"] <= copper * JACKET * 1.001 + 2 * FUSE_KG, wire["id"]


def test_days_are_what_there_is_over_what_is_used(told) -> None:
    water = told["water"]
    if water["fresh_l"] and water["need_l_day"]:
        assert water["days_fresh"] == pytest.approx(water["fresh_l"] / water["need_l_day"])
        assert water["days_grey"] == pytest.approx(water["grey_l"] / water["grey_l_day"])
    for fuel, days in (told["gas"]["days"] or {}).items():
        burnt = sum(one["kg_day"] for one in told["gas"]["burners"] if one["fuel"] == fuel)
        there = told["gas"]["kg"].get(fuel, 0.0)
        assert days == pytest.approx(there / burnt if burnt else math.inf), fuel


def test_warmth_adds_up_over_its_paths(told) -> None:
    warmth = told["warmth"]
    if warmth["ua_w_k"] is None:
        assert warmth["loss_w"] is None and warmth["why"]
        return
    surfaces = [one for one in warmth["paths"] if one["area_m2"] and one["u_w_m2k"]]
    assert sum(one["area_m2"] * one["u_w_m2k"] for one in surfaces) == pytest.approx(warmth["ua_w_k"], rel=0.02)
    through = sum(one["loss_w"] for one in warmth["paths"])
    kelvin = through / warmth["ua_w_k"]
    assert warmth["loss_w"] - through == pytest.approx(AIR_WH_M3K * warmth["air_m3h"] * kelvin, rel=0.01)
    assert warmth["heater_w"] == pytest.approx(1.25 * warmth["loss_w"], rel=1e-6)


def test_the_dew_point_is_that_of_the_air(told) -> None:
    """Magnus over water, 17.62 and 243.12, from the relative humidity inside and the warmth on Brief."""
    damp = told["moisture"]
    inside = demo(told["build"]["name"].lower().replace(" ", "-")).build.brief.inside
    if damp["inside_rh"] is None or inside is None:
        return
    celsius = inside.si
    drawn = math.log(damp["inside_rh"]) + 17.62 * celsius / (243.12 + celsius)
    assert damp["dew_c"] == pytest.approx(243.12 * drawn / (17.62 - drawn), abs=0.15)
    for surface in damp["surfaces"]:
        if surface["t_c"] is not None:
            assert surface["sweats"] is (surface["t_c"] < damp["dew_c"]), surface["name"]


def test_sheets_hold_their_pieces_apart_and_bars_add_up(told) -> None:
    pieces = {piece["key"]: piece for piece in told["pieces"]}
    assert told["sheets"]["used"] == len(told["sheets"]["layouts"]) >= told["sheets"]["bound"]
    for layout in told["sheets"]["layouts"]:
        assert layout["pieces"] and layout["stock"], layout
        corners = [(one["x_m"], one["y_m"]) for one in layout["pieces"]]
        assert len(corners) == len(set(corners)) and all(min(corner) >= -1e-9 for corner in corners)
    bars = told["bars"]
    assert bars["used"] == sum(pattern["times"] for pattern in bars["patterns"]) >= bars["bound"]
    assert bars["gap"] == bars["used"] - bars["bound"]
    assert all(pattern["left_m"] >= -1e-9 and pattern["pieces"] for pattern in bars["patterns"])
    assert told["unplaced"] == [] and all(piece["length_m"] > 0 and piece["qty"] > 0 for piece in pieces.values())


def test_what_is_bought_is_enough_and_the_sum_is_of_its_lines(told) -> None:
    lines = told["buy"]
    likely = 0.0
    for one in lines:
        if one["pack"] and one["packs"] is not None:
            assert one["packs"] * one["pack"] + one["at_hand"] >= one["need"] - 1e-6, one["id"]
            assert one["packs"] == 0 or (one["packs"] - 1) * one["pack"] + one["at_hand"] < one["need"] + 1e-6, one["id"]
        if one["likely"] is not None:
            assert one["low"] <= one["likely"] + 1e-9 and one["likely"] <= one["high"] + 1e-9, one["id"]
            likely += one["likely"]
    money = told["money"]
    assert money["low"] <= money["likely"] <= money["high"] and money["likely"] <= money["p80"] <= money["high"]
    unpriced = sum(one["likely"] is None for one in lines)
    assert unpriced == money["unknown_lines"]
    assert money["spent"] + money["committed"] + money["to_come"] == pytest.approx(money["likely"], abs=0.05)


def test_nothing_begins_before_it_may_and_dates_follow_the_chance(told) -> None:
    plan = told["schedule"]
    days = {task["id"]: (date.fromisoformat(task["start"]), date.fromisoformat(task["end"])) for task in plan["tasks"]}
    assert all(begin <= end for begin, end in days.values())
    assert date.fromisoformat(plan["finish_date"]) >= max(end for _, end in days.values())
    assert plan["p50"] <= plan["p80"] and plan["loop"] == []
    entries = told["log"]["entries"]
    for pair in told["log"]["pairs"]:
        if pair["unit"] == "h":
            task = next(one["id"] for one in plan["tasks"] if one["name"] == pair["name"])
            worked = sum(one["hours"] or 0.0 for one in entries if one["of"] == task and one["kind"] == "work")
            assert pair["fact"] == pytest.approx(worked)


def test_a_ticket_is_ball_and_axles_together(told) -> None:
    for ticket in told["weigh_ins"]:
        assert ticket["sigma_kg"] is None or ticket["sigma_kg"] > 0
        if ticket["axle_kg"] is None:
            assert ticket["total_kg"] is None  # a tongue alone
            continue
        assert ticket["total_kg"] == pytest.approx(ticket["tongue_kg"] + ticket["axle_kg"])
        assert ticket["faults"] == []


def test_swing_is_damped_less_the_faster_and_worst_is_what_the_sheet_says(told) -> None:
    for one in told["sway"] or ():
        damping = [one["damping"][speed] for speed in ("80", "100", "120")]
        assert damping == sorted(damping, reverse=True), one["case_id"]
        assert one["critical_kmh"] is None or (one["critical_kmh"] > 80) is (damping[0] > 0)
    assert told["sway"] or told["sway_why"]
    assert told["frame"] or told["frame_why"]


def test_bolts_and_seams_lie_on_the_body(told) -> None:
    shell = told["shell"]
    assert all(one["length_m"] > 0 and 0 <= one["turn_deg"] <= 180 for one in shell["seams"])
    pairs = {frozenset((one["a"], one["b"])) for one in shell["seams"]}
    assert len(pairs) == len(shell["seams"])
    bolts = shell["bolts"]
    if bolts and len(bolts["stations_m"]) > 1:
        gaps = [b - a for a, b in itertools.pairwise(bolts["stations_m"])]
        assert max(gaps) == pytest.approx(bolts["pitch_m"], abs=1e-6) and min(gaps) > 0


def test_charge_stays_between_empty_and_full_and_goes_dark_when_it_says(told) -> None:
    for one in told["power"]["strings"]:
        assert all(-1e-9 <= share <= 1 + 1e-9 for share in one["soc"])
        if one["first_dark"] is None and one["hours_to_empty"] is None:
            assert min(one["soc"]) > 0.0, one["id"]
    assert told["power"]["usable_wh"] is None or told["power"]["usable_wh"] >= (told["power"]["reserve_wh"] or 0.0)


def test_layouts_never_lap_where_pieces_are_rectangles(told) -> None:
    """By Shapely: pieces of a sheet by their sizes, turned as said, do not share wood."""
    sizes: dict[tuple[str, str], set[tuple[float, float]]] = {}
    for piece in told["pieces"]:
        if piece["kind"] == "sheet":
            sizes.setdefault((piece["material"], piece["name"]), set()).add((piece["length_m"], piece["width_m"]))
    seen = 0
    for layout in told["sheets"]["layouts"]:
        known = [sizes.get((layout["material"], one["piece"]), set()) for one in layout["pieces"]]
        if any(len(one) != 1 for one in known):
            continue  # a name that several sizes have
        boxes = []
        for one, (size,) in zip(layout["pieces"], map(tuple, known), strict=True):
            long, wide = size[::-1] if one["turned"] else size
            boxes.append(box(one["x_m"], one["y_m"], one["x_m"] + long, one["y_m"] + wide))
        seen += 1
        for a, b in itertools.combinations(boxes, 2):
            assert a.intersection(b).area < 1e-6, layout["stock"]
    assert seen >= min(3, len(told["sheets"]["layouts"]))


@pytest.mark.parametrize("name", ["marsh-heron", "orchard-keeper"])
def test_going_out_is_all_parts_and_what_is_in_the_tanks(name) -> None:
    project = demo(name)
    got = report(study(project.build, project.facts), (), project)
    whole = sum(part["mass_kg"] for part in got["parts"]) + sum(tank["mass_kg"] for tank in got["tanks"])
    assert whole == pytest.approx(next(case["total_kg"] for case in got["cases"] if case["id"] == "going-out"))
