"""Panels in rows: one case by hand, the best of a row against a sweep of its current, unlike ones by the hour, what is said of banks."""

import random

import numpy as np
import pytest
from msgspec.structs import replace

from tests.builders import a_build
from tests.core.test_systems import unit
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length, Temperature
from uncle_sled.core.document.systems import Device, Shaded, Systems, Wire
from uncle_sled.core.drawing.primitives import Text
from uncle_sled.core.drawing.systems.strings_chart import strings_chart, strung_words
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.panel_strings import best_w, strung
from uncle_sled.core.studies.systems.stay import shade_on, stay_of
from uncle_sled.core.words import Words

BRIEF = Brief(latitude_deg=50.0, months=(6,), nights_off=2, coldest=Temperature(-10.0), hottest=Temperature(35.0))


def panel(id, watts=100.0, voc_v=22.5, **more):
    return unit(id, "panel", solar_wp=watts, voc_v=voc_v, beta_pct_k=0.30, **more)


def controller(most_v=75.0, id="c1"):
    return unit(id, "solar charger", charge_w=2000.0, most_v=most_v)


BATTERY = unit("b1", "battery", chemistry="LFP", amp_hours=200.0, volts=12.8)


def built(*things, series=1, brief=BRIEF, **systems):
    return a_build(things, brief=brief, systems=Systems(panels_in_series=series, **systems))


def codes(build):
    return {one.code for one in findings(study(build, Facts()))}


def test_four_panels_in_two_rows_by_hand() -> None:
    """Open 2 x 22.5 (1 + 0.3 % x 35) = 49.7 V; hot, cells at 65: 2 x 0.82 x 22.5 (1 - 0.3 % x 40) = 32.5 V; 100 W / 18.45 V = 5.42 A."""
    build = built(BATTERY, controller(), *(panel(f"p{k}") for k in range(4)), series=2)
    (one,) = strung(build)
    assert [row.panels for row in one.rows] == [("p0", "p1"), ("p2", "p3")]
    assert one.open_v == pytest.approx(49.725, abs=1e-3) and one.rows[0].runs_v == pytest.approx(32.472, abs=1e-3)
    assert one.rows[0].amps == pytest.approx(5.420, abs=1e-3) and one.needs_v == pytest.approx(15.4)
    assert one.fits is True and one.charges is True and one.lost_w == pytest.approx(0.0, abs=1e-9)
    words = Words(build.brief.reading.shown())
    assert strung_words((one,), words)[0].startswith("2 × Panel: 49.7 V open at −10 °C, 52.2 V with 5 % in hand; solar charger takes 75 V.")
    assert [shape.text for shape in strings_chart((one,), 260, 140) if isinstance(shape, Text)] == [
        "2 × Panel",
        "50 V",
        "15 wanted",
        "75 at most",
    ] * 2
    # 52.2 V with a twentieth in hand are too many for 52 V, and a 24 V bank wants 29.8 V: 2 in a row do, one does not
    assert strung(apply(build, [set_to("stow.things.c1.figures.most_v", 52.0)]))[0].fits is False
    bank_24 = apply(build, [set_to("systems.volts", 24)])
    assert strung(bank_24)[0].charges is True and strung(apply(bank_24, [set_to("systems.panels_in_series", 1)]))[0].charges is False


def test_the_best_of_a_row_is_what_a_sweep_of_its_current_finds() -> None:
    """V(I) of the row is the sum of the panels that still carry I; I V(I) at a thousand currents and at each panel's own."""
    for seed in range(40):
        rng = random.Random(seed)
        amps = np.array([rng.uniform(0.0, 12.0) for _ in range(rng.randint(1, 6))])
        volts = np.array([rng.uniform(5.0, 40.0) for _ in amps])
        tried = [i * sum(v for a, v in zip(amps, volts, strict=True) if a >= i) for i in (*np.linspace(0, 12, 1001), *amps)]
        assert best_w(amps[:, None], volts)[0] == pytest.approx(max(tried))


def test_unlike_panels_in_a_row_and_unlike_rows_lose() -> None:
    """100 W and 200 W of the same volts: 5.42 A through both, or 10.84 A past the small one: 200 W of 300 either way."""
    row = strung(built(controller(), panel("a"), panel("b", 200.0), series=2))[0]
    assert row.gives_w == pytest.approx(200.0) and row.lost_w == pytest.approx(100.0)
    beside = strung(built(controller(), panel("a"), panel("b", 200.0)))[0]
    assert beside.lost_w == pytest.approx(0.0, abs=1e-9), "side by side with the same volts nothing is lost"
    # 100 W at 18.45 V and 100 W at 36.9 V side by side: 18.45 V x (5.42 + 2.71) A = 150 W, or 36.9 V x 2.71 A = 100 W
    volts = strung(built(controller(), panel("a"), panel("b", 100.0, 45.0)))[0]
    assert volts.gives_w == pytest.approx(150.0) and volts.lost_w == pytest.approx(50.0)


def sun_wh(build):
    return float(stay_of(build, "camp").of("clear").sun_wh.sum())


def test_by_the_hour_a_row_gives_what_its_least_lit_panel_lets_through() -> None:
    lamp = unit("l1", "", power_w=20.0, hours_day=10.0)
    alike = [BATTERY, lamp, controller(), panel("a"), panel("b")]
    flat = sun_wh(built(*alike))
    assert sun_wh(built(*alike, series=2)) == pytest.approx(flat), "alike ones lose nothing by standing in a row"
    turned = [BATTERY, lamp, controller(), panel("a", tilt_deg=45.0, azimuth_deg=-90.0), panel("b", tilt_deg=45.0, azimuth_deg=90.0)]
    beside, row = sun_wh(built(*turned)), sun_wh(built(*turned, series=2))
    assert row < 0.85 * beside and row > 0.5 * beside - 1e-9, "morning and evening are not lost whole: the shaded one is stepped round"


def test_shade_on_one_panel_costs_that_one_beside_others_and_the_row_what_it_lets_through() -> None:
    """Two alike. One dark all day: half the sun beside each other. In a row it is stepped round: half as well. One half dark: three
    quarters beside each other; in a row the larger of one whole panel and two at half current, which is one half. Own goes before all.
    """
    lamp = unit("l1", "", power_w=20.0, hours_day=10.0)

    def sun(own=(), common=(), series=1):
        shaded = (Shaded("b", own),) if own else ()
        return sun_wh(built(BATTERY, lamp, controller(), panel("a"), panel("b"), series=series, shade=common, shaded=shaded))

    whole, dark, half = sun(), (1.0,) * 24, (0.5,) * 24
    assert sun(dark) == pytest.approx(whole / 2) and sun(dark, series=2) == pytest.approx(whole / 2)
    assert sun(half) == pytest.approx(0.75 * whole) and sun(half, series=2) == pytest.approx(whole / 2)
    assert sun((), half) == pytest.approx(whole / 2) and sun((0.0,) * 24, half) == pytest.approx(0.75 * whole)
    noon = tuple(0.4 if hour == 12 else 0.0 for hour in range(24))
    assert sun(noon) < whole and sun(noon) > 0.9 * whole
    found = findings(study(built(BATTERY, lamp, controller(), panel("a"), panel("b"), shaded=(Shaded("b", dark),)), Facts()))
    assert next(one for one in found if one.code == "panel-shaded").where == ("power", "b")
    assert shade_on(built(shaded=(Shaded("x", (0.5,) * 3),)), panel("x")).sum() == 0.0, "a strip that is no day counts for nothing"


def test_drawn_rows_are_taken_as_they_are_drawn() -> None:
    things = [BATTERY, controller(60.0, "c1"), controller(100.0, "c2"), panel("a"), panel("b"), panel("c", 300.0, 45.0)]
    wires = (
        Wire("w1", "a", "b", "panel"),
        Wire("w2", "b", "c1", "panel"),
        Wire("w3", "c", "c2", "panel"),
        Wire("w4", "c1", "b1", "DC"),
        Wire("w5", "c2", "b1", "DC"),
    )
    made = {one.controllers: one for one in strung(built(*things, wires=wires))}
    assert {ids: [set(row.panels) for row in one.rows] for ids, one in made.items()} == {("c1",): [{"a", "b"}], ("c2",): [{"c"}]}
    assert made["c1",].most_v == 60.0 and made["c2",].most_v == 100.0, "each by its own controller"
    joined = (*wires[:1], Wire("w2", "b", "d1", "panel"), Wire("w6", "d1", "c1", "panel"), *wires[2:])
    box = Device("d1", "Combiner", "bus bar", Length(2.0), Length(0.0), Length(0.8))
    through = {one.controllers: one for one in strung(built(*things, wires=joined, devices=(box,)))}
    assert {id for row in through["c1",].rows for id in row.panels} == {"a", "b"}


def test_what_is_said_of_rows_and_of_banks() -> None:
    fit = built(BATTERY, controller(), panel("a"), panel("b"), series=2)
    new = {"panel-volts", "panel-volts-low", "panels-unlike", "panel-volts-unsaid", "battery-ages", "bank-odd"}
    assert codes(fit) & new == set()
    said = {
        "panel-volts": [set_to("stow.things.c1.figures.most_v", 50.0)],
        "panel-volts-low": [
            set_to("stow.things.b.figures.voc_v", 22.5),
            set_to("systems.volts", 24),
            set_to("systems.panels_in_series", 1),
        ],
        "panels-unlike": [set_to("stow.things.b.figures.solar_wp", 200.0)],
        "panel-volts-unsaid": [set_to("stow.things.b.figures.voc_v", None)],
    }
    for code, ops in said.items():
        assert code in codes(apply(fit, ops)), code
    low = next(f for f in findings(study(apply(fit, said["panel-volts-low"]), Facts())) if f.code == "panel-volts-low")
    assert low.remedy is None or "2 panels in a row" in low.remedy.says
    assert "panel-volts-unsaid" in codes(apply(fit, [set_to("stow.things.c1.figures.most_v", None)]))

    def bank(**more):
        since = more.pop("since", None)
        other = {"chemistry": "LFP", "amp_hours": 200.0, "volts": 12.8, **more}
        first = unit("b1", "battery", chemistry="LFP", amp_hours=200.0, volts=12.8)
        return codes(built(replace(first, since=2020), replace(unit("b2", "battery", **other), since=since)))

    assert bank(since=2021) & new == set() and "battery-ages" in bank(since=2022)
    assert "bank-odd" in bank(chemistry="AGM") and "bank-odd" in bank(volts=25.6) and "bank-odd" in bank(amp_hours=100.0)
    assert strung(built(BATTERY)) == () and strings_chart((), 200, 100) == ()
