"""Things with a battery of their own: hours alone, what filling takes and when, whether it lasts; one whole case by hand."""

import msgspec
import numpy as np
import pytest

from tests.builders import METRIC, a_build
from tests.core.test_systems import EU, a_plant, load, unit
from tests.judging import settled_one
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.systems import Load, Systems
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.comfort_sheets import comfort_sheets
from uncle_sled.core.drawing.systems.own_battery_rows import bank_words, own_battery_rows, own_words
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.bank import bank_of
from uncle_sled.core.studies.systems.own_batteries import from_empty_h, own_batteries
from uncle_sled.core.studies.systems.stay import demand_of, stay_of
from uncle_sled.core.wiring.appliances import all_that_runs, loads_of
from uncle_sled.core.wiring.network import network_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.systems_report import power_report

MODE = "road"
LAMP = Load("lamp", "Lantern", power_w=5.0, hours_day=3.0, store_wh=18.0, charge_w=10.0)


def with_lines(*loads, **systems):
    return a_plant(systems=Systems(loads=loads, **systems))


def mode_of(build):
    return build.stow.modes[0].id


def alone(build):
    return own_batteries(build, mode_of(build), "mixed").things


def codes(build):
    return {found.code: found for found in findings(study(build, Facts())) if found.code.startswith("own-")}


def test_a_lantern_by_hand_from_its_plate_to_the_shown_words():
    """5 W for 3 h a day on 18 Wh, filled at 10 W by day: 18 / 5 = 3.6 h alone, 18 / 15 = 1.2 days of its use.

    From empty 18 / 0.85 = 21.18 Wh in 2.12 h; a day's 15 Wh take 15 / 0.85 / 10 = 1.76 h, of 12 that there are: it never runs empty.
    At the battery 17.65 Wh a day, spread over the twelve hours from 8 to 20: 1.4706 W in each.
    """
    build = with_lines(LAMP)
    (thing,) = alone(build)
    assert thing.alone_h == pytest.approx(3.6)
    assert thing.fill_wh == pytest.approx(21.176, abs=1e-3) == thing.bank_wh
    assert thing.fill_h == pytest.approx(2.1176, abs=1e-4)
    assert thing.day_fill_h == pytest.approx(1.7647, abs=1e-4)
    assert thing.there_h == 12.0
    assert thing.empty_days is None
    made = demand_of(build, mode_of(build), mains=False)
    row = made.wh[[run.id for run in made.loads].index("lamp")]
    assert row.sum() == pytest.approx(15 / 0.85)
    assert row[8:20] == pytest.approx(np.full(12, 15 / 0.85 / 12))
    assert not row[:8].any()
    assert not row[20:].any()
    told = [text for text, _ in own_words(thing, Words(METRIC))]
    assert told == [
        "runs 3.6 h alone, 1.2 days of its use",
        "from empty 21 Wh of the battery in 2.1 h, by day",
        "a day’s use goes in within 1.8 h",
    ]


def test_the_bank_from_empty_by_hand():
    """200 Ah LFP at 12.8 V, 0.9 of it: 2304 Wh; coldest 5 degrees, inside 9: 0.945 of it, 2177 Wh; 360 W store 0.95 of them: 6.37 h."""
    build = a_plant()
    made = own_batteries(build, mode_of(build), "mixed").bank
    assert dict(made.from_empty_h) == {"the hookup": pytest.approx(2304 * 0.945 / 0.95 / 360, rel=1e-6)}
    daily = stay_of(build, mode_of(build)).demand.daily_wh
    assert made.alone_days == pytest.approx(2304 * 0.945 / daily)
    assert "6.4 h by the hookup" in bank_words(made)
    agm = msgspec.structs.replace(bank_of(build), usable_wh=600.0, cold=1.0, chemistry="AGM", charge_w=240.0)
    assert from_empty_h(agm, 1000.0) == pytest.approx(600 * (0.8 + 0.2 / 0.2) / 0.85 / 240)
    assert from_empty_h(agm, 0.0) is None


def test_mains_chargers_ask_the_inverter_and_driving_is_only_as_long_as_it_is():
    pack = Load("pack", "Tool pack", power_w=200.0, hours_day=0.3, store_wh=90.0, charge_w=60.0, current="AC", filled="driving")
    driven = with_lines(pack, drive_hours=1.0)
    (thing,) = alone(driven)
    assert thing.bank_wh == pytest.approx(90 / 0.85 / 0.88)
    made = demand_of(driven, mode_of(driven), mains=False)
    row = made.wh[[run.id for run in made.loads].index("pack")]
    assert row.sum() == pytest.approx(60.0 / 0.88)  # one hour of 60 W: its day wants 60 / 0.85 / 60 = 1.18 h
    assert np.flatnonzero(row).tolist() == [10]
    assert thing.empty_days == pytest.approx(90 / (60 - 60 * 0.85))
    (still,) = alone(with_lines(pack))
    assert still.empty_days == pytest.approx(1.5)
    (by_night,) = alone(with_lines(msgspec.structs.replace(pack, filled="night")))
    assert by_night.empty_days is None


def test_what_is_never_filled_aboard_draws_nothing_and_is_no_end_of_wires():
    build = with_lines(msgspec.structs.replace(LAMP, filled="home"))
    assert "lamp" not in {run.id for run in loads_of(build)}
    assert "lamp" in {run.id for run in all_that_runs(build)}
    assert "lamp" not in network_of(build).ends
    found = codes(build)["own-empty"]  # 18 / 15 = 1.2 days of three nights
    assert found.number == pytest.approx(1.8)
    assert found.severity == "mind"
    assert "never filled aboard" in found.says


def test_more_than_one_filling_a_day_is_mild_where_it_can_be_filled_twice():
    build = with_lines(msgspec.structs.replace(LAMP, hours_day=5.0))
    assert codes(build)["own-empty"].severity == "note"
    assert codes(with_lines(msgspec.structs.replace(LAMP, hours_day=9.0)))["own-empty"].severity == "mind"


def test_filling_by_night_is_told_with_its_caution_and_cured():
    build = with_lines(msgspec.structs.replace(LAMP, filled="night"))
    s = study(build, Facts())
    told = settled_one(s, "own-by-night")
    assert "awake" in told.caution
    after = apply(build, told.remedy.ops)
    assert after.systems.loads[0].filled == "day"
    assert not codes(after)


def test_nobody_said_is_not_checked_and_never_silent():
    for blank, says in (("power_w", "its watts"), ("hours_day", "its hours a day"), ("charge_w", "what its charger takes")):
        build = with_lines(msgspec.structs.replace(LAMP, **{blank: None}))
        found = codes(build)["own-unsaid"]
        assert says in found.says
        (thing,) = alone(build)
        assert thing.empty_days is None
        assert any(ink == "ochre word" for _, ink in own_words(thing, Words(METRIC)))
        assert says in stay_of(build, mode_of(build)).why[0]


def test_a_charger_of_no_watts_fills_nothing_and_huge_figures_do_not_break():
    (none,) = alone(with_lines(msgspec.structs.replace(LAMP, charge_w=0.0)))
    assert none.fill_h is None
    assert none.empty_days == pytest.approx(1.2)
    (huge,) = alone(with_lines(msgspec.structs.replace(LAMP, store_wh=1e7, power_w=1e7, hours_day=24.0, charge_w=1e7)))
    assert huge.empty_days == pytest.approx(1e7 / 2.4e8)
    (empty,) = alone(with_lines(msgspec.structs.replace(LAMP, store_wh=0.0)))
    assert empty.alone_h == 0.0


def test_a_thing_of_the_catalogue_is_one_too_and_a_battery_is_none():
    lantern = next(entry for entry in entries() if entry.id == "lantern-own")
    build = a_build((msgspec.structs.replace(lantern, id="l1"), unit("bat", "battery", store_wh=500.0, volts=12.8), load("l2")), brief=EU)
    assert [thing.id for thing in alone(build)] == ["l1"]
    assert lantern.figures.filled == "day"
    off = apply(build, [set_to("stow.things.l1.figures.store_wh", None)])
    assert not alone(off)


def test_rows_paper_and_report_say_the_same():
    build = with_lines(LAMP, msgspec.structs.replace(LAMP, id="two", name="Lantern two", filled="home"))
    made = own_batteries(build, mode_of(build), "mixed")
    shapes = own_battery_rows(made, Words(METRIC), 500, 300)
    assert {"lamp", "two"} <= {shape.id for shape in shapes if isinstance(shape, Text)}
    small = own_battery_rows(made, Words(METRIC), 240, 100)
    assert any(isinstance(shape, Text) and "more" in shape.text for shape in small)
    assert own_battery_rows(own_batteries(a_plant(), MODE, "mixed"), Words(METRIC), 500, 300) == ()
    s = study(build, Facts())
    page = next(page for page in comfort_sheets(s, "Test", "2026-01-01") if page.title.startswith("On a battery"))
    words = " ".join(shape.text for shape in page.shapes if isinstance(shape, Text))
    assert "runs 3.6 h alone" in words
    assert "Lithium packs burn" in words
    told = {each["id"]: each for each in power_report(s)["own_batteries"]}
    assert told["lamp"]["fill_h"] == pytest.approx(18 / 0.85 / 10)
    assert told["two"]["empty_days"] == pytest.approx(1.2)
