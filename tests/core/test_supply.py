"""States of supply: what is live in each against brute force, what charges what, what meets, the car's thin wire, the store."""

import itertools
import random

import msgspec
import pytest

from tests.builders import a_build
from tests.core.test_systems import load, unit
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.systems import Device, Systems, Wire
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.systems.one_line import as_live, one_line
from uncle_sled.core.drawing.systems.supply_words import stop_words_of, supply_words
from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.supply import CAR_V, amps_for, supplies
from uncle_sled.core.wiring.conductors import RHO_60
from uncle_sled.core.wiring.network import PASSES, network_of
from uncle_sled.core.wiring.supply_states import STATES, SWITCHES, live_in, states_here
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

BY_ID = {state.id: state for state in STATES}


def device(id, kind, **more):
    return Device(id, kind.capitalize(), kind, Length(2.0), Length(0.0), Length(0.8), **more)


def built(things, devices, wires):
    return a_build(things, systems=Systems(devices=tuple(devices), wires=tuple(wires)))


def wire(start, end, kind="DC", **more):
    return Wire(f"{start}-{end}", start, end, kind, **more)


def live(build, state):
    return live_in(network_of(build), BY_ID[state])


def test_a_graph_of_sixty_devices_is_live_where_brute_force_says():
    """Only what passes current both ways, batteries and loads: a wire is live where an end of it hangs together with a battery."""
    kinds = [kind for kind in PASSES if kind not in ("transfer switch", "inlet", "AC board", "RCD", "AC socket")]
    for seed in range(25):
        rng = random.Random(seed)
        devices = [device(f"d{k}", rng.choice(kinds)) for k in range(48)]
        things = [unit(f"b{k}", "battery", volts=12.8, amp_hours=100.0, chemistry="LFP") for k in range(3)]
        things += [load(f"l{k}") for k in range(9)]
        ids = [*[d.id for d in devices], *[t.id for t in things]]
        pairs = {tuple(rng.sample(ids, 2)) for _ in range(70)}
        wires = [Wire(f"w{k}", a, b) for k, (a, b) in enumerate(sorted(pairs))]
        build = built(things, devices, wires)
        kind_of = {d.id: d.kind for d in devices} | {t.id: t.figures.unit or "load" for t in things}
        for state in ("night", "stored"):
            passes = {id for id, kind in kind_of.items() if kind in PASSES and not (state == "stored" and kind in SWITCHES)}
            reach = {id: {id} for id in ids if kind_of[id] == "battery"}
            for found in reach.values():
                grown = True
                while grown:
                    grown = False
                    for one in wires:
                        for a, b in ((one.start, one.end), (one.end, one.start)):
                            if a in found and b not in found and (a in passes or kind_of[a] == "battery"):
                                found.add(b)
                                grown = True
            want = {id: frozenset(b for b, found in reach.items() if id in found) for id in ids}
            made = live(build, state)
            assert {id: of for id, of in made.ends.items() if of} == {id: of for id, of in want.items() if of}
            for one in wires:
                gives = set()
                for b, found in reach.items():
                    for end in (one.start, one.end):
                        if end in found and (end in passes or kind_of[end] == "battery"):
                            gives.add(b)
                assert made.wires.get(one.id, frozenset()) == gives


def a_plant(*more_wires, switch="main switch"):
    """Battery, main switch, bus; panel and its controller; inlet, charger; inverter with a board; a car's plug with a booster."""
    things = [
        unit("bat", "battery", volts=12.8, amp_hours=100.0, chemistry="LFP"),
        unit("pan", "panel", solar_wp=200.0, voc_v=22.0),
        unit("sun", "solar charger", charge_w=260.0, most_v=100.0),
        unit("chg", "mains charger", charge_w=300.0),
        unit("inv", "inverter", power_w=1000.0),
        unit("boo", "car charger", charge_w=240.0),
        load("lamp", 20.0),
    ]
    devices = [
        device("sw", switch),
        device("bus", "bus bar"),
        device("in", "inlet"),
        device("plug", "car plug"),
        device("ts", "transfer switch"),
        device("board", "AC board"),
    ]
    wires = [
        wire("bat", "sw"),
        wire("sw", "bus"),
        wire("bus", "lamp"),
        wire("pan", "sun", "panel"),
        wire("sun", "bus"),
        wire("in", "ts", "AC"),
        wire("in", "chg", "AC"),
        wire("chg", "bus"),
        wire("bus", "inv"),
        wire("inv", "ts", "AC"),
        wire("ts", "board", "AC"),
        wire("plug", "boo", area_mm2=4.0, length=Length(5.0)),
        wire("boo", "bus"),
        *more_wires,
    ]
    return built(things, devices, wires)


def test_each_state_of_a_whole_plant():
    build = a_plant()
    assert [state.id for state in states_here(network_of(build))] == ["hookup", "driving", "day", "night", "stored"]
    hookup, driving, day, night, stored = (live(build, id) for id in ("hookup", "driving", "day", "night", "stored"))
    assert hookup.ends["board"] == {"in"} and "inv" in hookup.ends and not hookup.meets
    assert set(hookup.charges) == {("chg", "bat"), ("sun", "bat")}
    assert day.ends["board"] == {"inv"} and day.charges == (("sun", "bat"),)
    assert night.charges == () and "pan" not in night.ends and "chg" not in {s for of in night.ends.values() for s in of}
    assert set(driving.charges) == {("boo", "bat"), ("sun", "bat")} and "bat" not in driving.ends.get("plug", set())
    assert stored.ends["lamp"] == {"sun"} and "inv" in stored.ends and stored.charges == ()
    assert night.pins == hookup.pins == ()


def test_what_meets_and_pins_that_are_live():
    straight = a_plant(wire("in", "board", "AC"))  # past the transfer switch
    night = live(straight, "night")
    assert night.pins == ("in",) and not night.meets and live(straight, "hookup").ends["board"] == {"in"}
    things = [unit("bat", "battery", volts=12.8, amp_hours=100.0), unit("inv", "inverter", power_w=500.0)]
    devices = [device("in", "inlet"), device("board", "AC board"), device("plug", "car plug"), device("bus", "bus bar")]
    wires = [wire("bat", "bus"), wire("bus", "inv"), wire("inv", "board", "AC"), wire("in", "board", "AC"), wire("plug", "bus")]
    build = built(things, devices, wires)
    hookup, night = live(build, "hookup"), live(build, "night")
    assert ("board", ("in", "inv")) in hookup.meets
    assert set(night.pins) == {"in", "plug"}
    s = study(build, Facts())
    told = {supply.live.state.id: stop_words_of(supply, network_of(build)) for supply in supplies(s)}
    assert any("must never meet" in text for text in told["hookup"]) and any("pins are live" in text for text in told["night"])


def test_an_inverter_with_a_charger_stands_at_the_shore_while_it_is_there():
    things = [
        unit("bat", "battery", volts=12.8, amp_hours=100.0),
        unit("ic", "inverter charger", power_w=1000.0, charge_w=500.0),
        unit("gen", "generator", power_w=2000.0),
    ]
    devices = [device("in", "inlet"), device("board", "AC board"), device("ts", "transfer switch")]
    wires = [wire("in", "ts", "AC"), wire("gen", "ts", "AC"), wire("ts", "ic", "AC"), wire("bat", "ic"), wire("ic", "board", "AC")]
    build = built(things, devices, wires)
    for state, source in (("hookup", "in"), ("generator", "gen"), ("night", "ic")):
        made = live(build, state)
        assert made.ends["board"] == {source} and not made.meets
        assert made.charges == ((("ic", "bat"),) if state != "night" else ())


def test_the_cars_thin_wire_by_hand():
    """13.8 V; 2 x 6 m of 2.5 and 2 x 5 m of 4 mm2: 0.0974 + 0.0508 ohm. 240 W out of 0.92 are 260.9 W in: 24.8 A, over 15."""
    build = a_plant()
    s = study(build, Facts())
    driving = next(supply for supply in supplies(s) if supply.live.state.id == "driving")
    ohm = 12 * RHO_60 / 2.5 + 10 * RHO_60 / 4.0
    amps = amps_for(CAR_V, ohm, 240 / 0.92)
    assert driving.arrives.ohm == pytest.approx(ohm) and driving.arrives.amps == pytest.approx(amps)
    assert amps * (CAR_V - amps * ohm) == pytest.approx(240 / 0.92) and driving.arrives.over
    assert driving.arrives.watts == pytest.approx(240.0) and driving.charge_w == pytest.approx(240.0 + 200.0)
    assert amps_for(13.8, 0.1, 240.0) == pytest.approx(20.41, abs=0.01) and amps_for(12.0, 0.5, 100.0) is None
    assert amps_for(12.0, 0.0, 24.0) == 2.0
    assert [finding.number for finding in findings(s) if finding.code == "car-plug-over"] == [pytest.approx(amps)]
    thin = a_plant()
    thin = msgspec.structs.replace(
        thin,
        systems=msgspec.structs.replace(
            thin.systems, wires=tuple(msgspec.structs.replace(w, area_mm2=0.75) if w.start == "plug" else w for w in thin.systems.wires)
        ),
    )
    weak = next(supply for supply in supplies(study(thin, Facts())) if supply.live.state.id == "driving")
    assert weak.arrives.falls and weak.charge_w is None
    assert any(finding.code == "car-wire-thin" for finding in findings(study(thin, Facts())))


def test_what_empties_the_battery_in_the_store():
    """A lamp that must run, 20 W for 4 of 24 h, before the switch: 3.33 W; 12.8 x 100 x 0.9 Wh last 14.4 days."""
    things = [unit("bat", "battery", volts=12.8, amp_hours=100.0, chemistry="LFP"), load("lamp", 20.0, must_run=True), load("other", 30.0)]
    devices = [device("sw", "main switch"), device("bus", "bus bar")]
    build = built(things, devices, [wire("bat", "lamp"), wire("bat", "sw"), wire("sw", "bus"), wire("bus", "other")])
    s = study(build, Facts())
    stored = next(supply for supply in supplies(s) if supply.live.state.id == "stored")
    assert [(draw.id, draw.always, draw.stored) for draw in stored.draws] == [("lamp", True, True)]
    assert stored.days == pytest.approx(12.8 * 100 * 0.9 / (20 * 4 / 24) / 24)
    found = next(finding for finding in findings(s) if finding.code == "store-drains")
    assert found.where == ("stored", "lamp") and found.number == pytest.approx(stored.days)
    words = " ".join(supply_words(stored, network_of(build)))
    assert "still draws" in words and "Dead: " in words


@pytest.mark.parametrize("name", DEMOS)
def test_every_state_of_a_demo_is_drawn_told_and_printed(name):
    project = demo(name)
    s = study(project.build, project.facts)
    wired = wired_of(s.build, s.framed)
    made = one_line(wired, Words(s.build.brief.reading.shown()))
    for supply in supplies(s):
        shapes = as_live(made.shapes, supply.live)
        assert len(shapes) == len(made.shapes)
        dead = {w.id for w in wired.wires} - set(supply.live.wires)
        faint = {shape.id for shape in shapes if isinstance(shape, Poly) and not shape.closed and shape.stroke == "rule"}
        assert (
            faint <= dead | {""}
            and {id for id in dead if any(isinstance(p, Poly) and p.id == id and not p.closed for p in shapes)} <= faint
        )
        assert all(text.endswith(".") for text in supply_words(supply, wired.net))
    pages = wiring_sheets(s, "n", "d")
    assert sum(
        1
        for page in pages
        if any(isinstance(t, Text) and t.text.startswith("Wiring, ") and t.text != "Wiring, one line" for t in page.shapes)
    ) == len(supplies(s))
    assert list(itertools.chain(supplies(study(a_build(), Facts())))) == []


INLET = (device("in", "inlet"), device("board", "AC board"), device("plug", "car plug"), device("bus", "bus bar"))
BAT, LAMP = unit("bat", "battery", volts=12.8, amp_hours=100.0, chemistry="LFP"), load("lamp", 20.0)
MAINS_LOAD = load("kettle", 900.0, current="AC")
PLANTED = {
    "hooked up, past any transfer switch": (
        (BAT, unit("inv", "inverter", power_w=500.0), MAINS_LOAD),
        [wire("bat", "inv"), wire("inv", "board", "AC"), wire("in", "board", "AC"), wire("board", "kettle", "AC")],
        "ac-meet",
    ),
    "hooked up, to a board with nothing behind": ((BAT, LAMP), [wire("bat", "lamp"), wire("in", "board", "AC")], "supply-nowhere"),
    "driving, over a wire that is too thin": (
        (BAT, unit("boo", "car charger", charge_w=300.0)),
        [wire("plug", "boo", area_mm2=0.75, length=Length(8.0)), wire("boo", "bat")],
        "car-wire-thin",
    ),
    "driving, into a charger that leads nowhere": (
        (BAT, LAMP, unit("boo", "car charger", charge_w=120.0)),
        [wire("bat", "lamp"), wire("plug", "boo", area_mm2=10.0)],
        "supply-nowhere",
    ),
    "by day, a panel without a way to a battery": (
        (BAT, LAMP, unit("pan", "panel", solar_wp=100.0, voc_v=22.0), unit("sun", "solar charger", charge_w=260.0, most_v=60.0)),
        [wire("bat", "lamp"), wire("pan", "sun", "panel")],
        "supply-nowhere",
    ),
    "by night, a charger on its own inverter": (
        (BAT, unit("inv", "inverter", power_w=500.0), unit("chg", "mains charger", charge_w=200.0)),
        [wire("bat", "inv"), wire("inv", "chg", "AC"), wire("chg", "bat")],
        "charger-loop",
    ),
    "by night, pins that stick out live": (
        (BAT, unit("inv", "inverter", power_w=500.0), MAINS_LOAD),
        [wire("bat", "inv"), wire("inv", "board", "AC"), wire("in", "board", "AC"), wire("board", "kettle", "AC")],
        "live-pins",
    ),
    "on a generator, beside the hookup": (
        (unit("gen", "generator", power_w=2000.0), MAINS_LOAD),
        [wire("gen", "board", "AC"), wire("in", "board", "AC"), wire("board", "kettle", "AC")],
        "ac-meet",
    ),
    "on a generator, that is wired to nothing that runs": (
        (BAT, LAMP, unit("gen", "generator", power_w=2000.0)),
        [wire("bat", "lamp"), wire("gen", "board", "AC")],
        "supply-nowhere",
    ),
    "stored, with something that always draws": ((BAT, load("fr", 45.0, must_run=True)), [wire("bat", "fr")], "store-drains"),
    "round in a ring, the battery's charger fed by the battery": (
        (BAT, unit("boo", "car charger", charge_w=200.0)),
        [wire("bat", "boo"), wire("boo", "bat")],
        "booster-loop",
    ),
}


@pytest.mark.parametrize("state", PLANTED)
def test_one_thing_planted_in_each_state_is_said(state):
    things, wires, code = PLANTED[state]
    named = {end for one in wires for end in (one.start, one.end)}
    s = study(built(things, [one for one in INLET if one.id in named], wires), Facts())
    assert code in {finding.code for finding in findings(s)}


def test_a_sound_plant_feeds_something_in_every_state_and_a_lone_source_is_named_once():
    sound = study(a_plant(wire("board", "kettle", "AC")), Facts())
    assert not {"supply-nowhere", "booster-loop"} & {finding.code for finding in findings(sound)}
    things, wires, _ = PLANTED["by day, a panel without a way to a battery"]
    found = [one for one in findings(study(built(things, [], wires), Facts())) if one.code == "supply-nowhere"]
    assert [one.where for one in found] == [("pan",)]
    assert found[0].says.startswith("Alone by day")
