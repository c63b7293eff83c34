"""Power and wiring on their own: routes, flows, sizes, hazards, what is tried, and the diagram's layout."""

import itertools
import random

import msgspec
import pytest

from tests.builders import IMPERIAL, METRIC, a_body, a_build, a_thing
from tests.judging import settled_one
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.core.document.project import Facts, Project
from uncle_sled.core.document.quantity import Length, Temperature
from uncle_sled.core.document.references import referring_right
from uncle_sled.core.document.stow import Figures
from uncle_sled.core.document.systems import Bend, Device, Off, Systems, Tray, Wire
from uncle_sled.core.drawing.primitives import Poly, Text
from uncle_sled.core.drawing.systems.one_line import one_line, wire_at
from uncle_sled.core.drawing.systems.one_line_layout import Wants, laid_out
from uncle_sled.core.drawing.systems.stay_chart import stay_chart, stay_words
from uncle_sled.core.drawing.systems.wiring_sheets import wiring_sheets
from uncle_sled.core.errors import EditError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.systems.wiring import BY_CODE
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.hazards import hazards_of
from uncle_sled.core.studies.systems.sizing import needs_of, ways_of
from uncle_sled.core.studies.systems.stay import stay_of
from uncle_sled.core.studies.systems.supply import supplies
from uncle_sled.core.studies.systems.together import together_of
from uncle_sled.core.wiring.network import network_of
from uncle_sled.core.wiring.route import length_m, route
from uncle_sled.core.wiring.route import ways_of as ways_for_wires
from uncle_sled.core.wiring.wire_up import loose_of, wire_up_ops
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words
from uncle_sled.exchange.demos import DEMOS, demo

EU = Brief(latitude_deg=52.0, months=(4,), nights_off=3, coldest=Temperature(5.0))
F = Figures


def unit(id, kind, x=2.0, y=0.5, z=0.7, **figures):
    return a_thing(id, 5.0, x=x, y=y, z=z, size=(0.2, 0.2, 0.2), name=kind.capitalize(), figures=F(unit=kind, **figures))


def load(id, watts=50.0, x=3.5, y=-0.5, name="Lamp", roles=(), **figures):
    told = F(power_w=watts, hours_day=4.0, **figures)
    return a_thing(id, 1.0, x=x, y=y, z=1.0, size=(0.1, 0.1, 0.1), name=name, roles=roles, figures=told)


def a_plant(*more, brief=EU, systems=None):
    """A battery, panel, controller, fuse box, pump, lamp, inverter, shore charger and a kettle on mains."""
    things = (
        unit("bat", "battery", chemistry="LFP", amp_hours=200.0, volts=12.8, limit_a=200.0, cold_cut=True),
        unit("pan", "panel", x=2.2, y=0.0, z=2.6, solar_wp=200.0, voc_v=22.5, beta_pct_k=0.29),
        unit("con", "solar charger", x=2.4, charge_w=260.0, most_v=75.0),
        unit("inv", "inverter", x=2.8, power_w=1000.0, idle_w=12.0, surge=2.0),
        unit("sho", "mains charger", x=3.0, charge_w=360.0),
        load("lam"),
        load("pum", 60.0, name="Water pump", roles=("pumps water",), surge=3.0),
        load("ket", 900.0, name="Kettle", current="AC"),
        *more,
    )
    return a_build(things, shell=a_body("box", "stick timber"), brief=brief, systems=systems or Systems())


def wired_plant(**changes):
    build = a_plant(**changes)
    return apply(build, wire_up_ops(build))


def codes(build):
    s = study(build, Facts())
    return [one.code for one in hazards_of(build, wired_of(build, s.framed))]


def wire_between(build, start, end):
    return next(w for w in build.systems.wires if (w.start, w.end) == (start, end))


def device(build, kind, at=0):
    return [d.id for d in build.systems.devices if d.kind == kind][at]


# wiring up
def test_what_is_wired_up_is_sound_and_whole():
    build = wired_plant()

    assert codes(build) == [] and loose_of(build) == () and wire_up_ops(build) == []
    found = {f.code for f in findings(study(build, Facts())) if f.stop == "Systems"}
    assert found <= {"goes-dark"}


def test_a_thing_that_comes_later_is_joined_to_what_is_there():
    build = wired_plant()
    more = msgspec.structs.replace(build.stow, things=(*build.stow.things, load("fan", name="Fan")))
    build = msgspec.structs.replace(build, stow=more)
    assert loose_of(build) == ("fan",)
    ops = wire_up_ops(build)
    assert [op.path for op in ops] == ["systems.wires"] and ops[0].value["start"] == device(build, "fuse box")
    assert codes(apply(build, ops)) == []


def test_nothing_to_give_power_is_nothing_to_wire():
    assert wire_up_ops(a_build([load("lam")])) == [] and wire_up_ops(a_build()) == []


def test_stations_hookups_and_two_batteries_are_wired_up_soundly():
    station = unit("sta", "station", chemistry="LFP", store_wh=1000.0, power_w=1000.0, limit_a=10.0, charge_w=400.0)
    one = a_build([station, load("lam"), load("ket", 600.0, current="AC")], brief=EU)
    assert codes(apply(one, wire_up_ops(one))) == []
    shore = a_build([load("ket", 600.0, current="AC")], brief=EU, systems=Systems(plugged=True))
    assert codes(apply(shore, wire_up_ops(shore))) == []
    two = a_plant(unit("ba2", "battery", x=2.1, chemistry="LFP", amp_hours=200.0, volts=12.8, cold_cut=True))
    assert codes(apply(two, wire_up_ops(two))) == []
    both = a_plant(unit("ic", "inverter charger", x=3.2, power_w=2000.0, charge_w=900.0))
    assert "charger-loop" not in codes(apply(both, wire_up_ops(both)))


# hazards, one planted at a time
def _ac_meet(b):
    return [set_to(f"systems.devices.{device(b, 'transfer switch')}.kind", "AC board")]


def _live_pins(b):
    return [set_to(f"systems.devices.{device(b, 'transfer switch')}.kind", "AC board"), *_add(b, "inv", device(b, "inlet"), "AC")]


def _add(b, start, end, kind="DC", **more):
    from uncle_sled.core.document.edits import add_to

    return [add_to("systems.wires", {"id": "wr99", "start": start, "end": end, "kind": kind, **more})]


PLANTED = {
    "ac-meet": _ac_meet,
    "live-pins": _live_pins,
    "charger-loop": lambda b: [set_to(f"systems.wires.{_into(b, 'sho', 'AC').id}.start", device(b, "AC board", 1))],
    "unfused": lambda b: [set_to(f"systems.wires.{_into(b, 'lam').id}.fused", "none")],
    "fuse-over-wire": lambda b: [set_to(f"systems.wires.{_into(b, 'lam').id}.{k}", v) for k, v in (("fuse_a", 40.0), ("area_mm2", 1.5))],
    "fuse-far": lambda b: [set_to(f"systems.wires.{b.systems.wires[_first(b, 'bat')].id}.fuse_from", {"si": 0.5, "typed": None})],
    "no-main-disconnect": lambda b: _add(b, "bat", "lam"),
    "no-rcd": lambda b: [set_to(f"systems.devices.{device(b, 'RCD', 1)}.kind", "AC board")],
    "no-earth": lambda b: [remove(f"systems.wires.{w.id}") for w in b.systems.wires if w.kind == "earth"],
    "neutral-bond": lambda b: [set_to("systems.bonds", [])],
    "pump-no-switch": lambda b: [set_to(f"systems.wires.{_into(b, 'pum').id}.switched", False)],
    "shunt-bypassed": lambda b: _add(b, "con", "bat", fused="both"),
    "polarity-switch": lambda b: [set_to(f"systems.devices.{device(b, 'main switch')}.breaks", "minus")],
    "lfp-cold-charge": lambda b: [set_to("stow.things.bat.figures.cold_cut", False), set_to("brief.coldest", {"si": -12.0, "typed": None})],
}


def _into(b, end, kind="DC"):
    return next(w for w in b.systems.wires if w.end == end and w.kind == kind)


def _first(b, start):
    return next(k for k, w in enumerate(b.systems.wires) if w.start == start)


@pytest.mark.parametrize("code", PLANTED)
def test_a_planted_hazard_is_found(code):
    clean = wired_plant()
    assert code not in codes(clean)
    assert code in codes(apply(clean, PLANTED[code](clean)))


def test_hazards_of_outlets_and_batteries_side_by_side():
    station = unit("sta", "station", chemistry="LFP", store_wh=1000.0, power_w=1000.0, limit_a=10.0)
    box = Device("dv1", "Fuse box", "fuse box", Length(2.5), Length(0.0), Length(0.8))
    wires = (Wire("wr1", "sta", "dv1"), Wire("wr2", "sta", "dv1"), Wire("wr3", "dv1", "lam"))
    joined = a_build([station, load("lam", 240.0)], systems=Systems(devices=(box,), wires=wires))
    assert {"outputs-joined", "socket-over"} <= set(codes(joined))
    assert "socket-over" not in codes(apply(joined, [set_to("stow.things.lam.figures.power_w", 50.0)]))
    two = a_plant(unit("ba2", "battery", x=3.4, chemistry="LFP", amp_hours=200.0, volts=12.8, cold_cut=True))
    two = apply(two, wire_up_ops(two))
    link = wire_between(two, "bat", "ba2")
    assert "parallel-uneven" in codes(apply(two, [set_to(f"systems.wires.{link.id}.far_minus", False)]))
    assert "unfused" in codes(apply(two, [set_to(f"systems.wires.{link.id}.fused", "start")]))
    star = apply(two, [set_to(f"systems.wires.{link.id}.start", "ba2"), set_to(f"systems.wires.{link.id}.end", device(two, "main switch"))])
    assert "parallel-uneven" in codes(star)


@pytest.mark.parametrize("code", [c for c in PLANTED if c not in ("lfp-cold-charge", "live-pins")])
def test_what_is_tried_for_a_planted_hazard_clears_it_and_spoils_nothing(code):
    clean = wired_plant()
    build = apply(clean, PLANTED[code](clean))
    s = study(build, Facts())
    one = settled_one(s, code)

    assert one.remedy is not None, one.why_none
    after = {f.key for f in findings(study(apply(build, one.remedy.ops), Facts()))}
    assert one.key not in after and all(f.caution for f in findings(s) if f.code in BY_CODE)


@pytest.mark.parametrize("feeds", [1, 3])
def test_where_no_main_switch_is_one_is_put_behind_the_battery(feeds):
    clean = wired_plant()
    build = apply(clean, [set_to(f"systems.devices.{device(clean, 'main switch')}.kind", "bus bar")])
    for k in range(feeds - 1):
        build = apply(build, _add(build, "bat", ("lam", "pum")[k], id=f"wr{90 + k}"))
    s = study(build, Facts())
    one = settled_one(s, "no-main-disconnect")

    assert one.remedy is not None and "behind the battery" in one.remedy.says, one.why_none
    after = apply(build, one.remedy.ops)
    assert "no-main-disconnect" not in codes(after)
    assert [d.kind for d in after.systems.devices].count("main switch") == 1


# flows, sizes
def test_currents_add_up_towards_the_source():
    build = wired_plant()
    s = study(build, Facts())
    wired, net = wired_of(build, s.framed), network_of(build)
    box = device(build, "fuse box")
    into_box = next(w for w in wired.wires if w.end == box)
    behind = sum(w.current_a for w in wired.wires if w.start == box)
    assert into_box.current_a == pytest.approx(behind) == pytest.approx((50 + 60) / 12)
    assert net.flows[_into(build, "inv").id].current_a == pytest.approx(1000 / (0.88 * 11.0))
    assert net.flows[_into(build, "pum").id].hard and not net.flows[_into(build, "lam").id].hard
    for wire in wired.wires:
        if wire.kind != "earth":
            assert wire.mm2 and wire.drop_share <= wire.allowed + 1e-9 and wire.current_a <= wire.ampacity_a + 1e-9
            assert wire.fuse_a is None or wire.current_a <= wire.fuse_a <= wire.ampacity_a
            assert wire.guard_a is None or wire.guard_a <= wire.ampacity_a + 1e-9


def test_unknown_watts_leave_the_wires_before_it_unknown_and_never_zero():
    build = apply(wired_plant(), [set_to("stow.things.lam.figures.power_w", None), set_to("stow.things.lam.figures.amps", None)])
    build = apply(build, [set_to("systems.loads", [{"id": "ld1", "name": "Radio"}])])
    build = apply(build, wire_up_ops(build))
    wired = wired_of(build, study(build, Facts()).framed)
    radio = wired.wire(_into(build, "ld1").id)
    assert radio.current_a is None and radio.mm2 is None and radio.mass_kg == 0.0 and "Radio" in radio.why
    assert wired.wire(_into(build, device(build, "fuse box")).id).current_a is None
    stay = stay_of(build, "camp")
    assert stay.demand.unknown == ("Lamp", "Radio") and not stay.strings and stay.why  # no day is told from it
    assert {"load-unknown"} <= {f.code for f in findings(study(build, Facts()))}


def test_more_load_never_takes_thinner_wire_nor_a_longer_one_loses_less():
    sizes = []
    for watts in (20, 60, 120, 240, 300):
        build = apply(wired_plant(), [set_to("stow.things.lam.figures.power_w", float(watts))])
        sizes.append(wired_of(build, study(build, Facts()).framed).wire(_into(build, "lam").id).mm2)
    assert sizes == sorted(sizes) and sizes[0] < sizes[-1]


def test_foam_bundles_and_classes_change_what_a_wire_carries():
    build = wired_plant()
    id = _into(build, "inv").id

    def carries(**fields):
        made = apply(build, [set_to(f"systems.wires.{id}.{k}", v) for k, v in fields.items()])
        return wired_of(made, study(made, Facts()).framed).wire(id)

    assert carries(insulation="vehicle").mm2 < carries().mm2 < carries(in_foam={"si": 0.2, "typed": None}).mm2
    assert carries(bundle=8).derating == 0.6 and carries(area_mm2=2.5).ampacity_a == 21.0
    thin = {f.code for f in findings(study(apply(build, [set_to(f"systems.wires.{id}.area_mm2", 2.5)]), Facts()))}
    assert {"wire-thin", "fuse-over-wire"} <= thin


# routes
def test_routes_are_as_long_as_their_points_and_never_shorter_than_straight():
    build = wired_plant()
    wired = wired_of(build, study(build, Facts()).framed)
    for wire in wired.wires:
        a, b = wire.points[0], wire.points[-1]
        straight = sum((p - q) ** 2 for p, q in zip(a, b, strict=True)) ** 0.5
        assert wire.length_m == pytest.approx(length_m(wire.points)) and wire.length_m >= straight - 1e-9


def test_bends_trays_and_tape_decide_over_the_shortest_way():
    build = wired_plant()
    framed = study(build, Facts()).framed
    ways = ways_for_wires(build, framed)
    start, end = (1.5, 0.4, 0.8), (4.8, -0.6, 1.4)
    shortest = length_m(route(start, end, (), ways.inside, ways.rises(start, end)))
    bent = route(start, end, (Bend("b1", Length(3.0), Length(0.0), Length(2.0)),), ways.inside, ways.rises(start, end))
    assert bent[1] == (3.0, 0.0, 2.0) and len(bent) == 3
    tray = Tray("tr1", "Tray", Length(1.4), Length(5.0), Length(0.1), Length(1.0))
    through = ways_for_wires(apply(build, [set_to("systems.trays", [msgspec.to_builtins(tray)])]), framed)
    assert length_m(route(start, end, (), through.inside, through.rises(start, end))) < shortest
    id = build.systems.wires[0].id
    taped = apply(build, [set_to(f"systems.wires.{id}.length", {"si": 7.5, "typed": "7.5 m"})])
    wire = wired_of(taped, framed).wire(id)
    assert wire.length_m == 7.5 and wire.length_face == "measured"


def test_wires_weigh_and_follow_what_they_join():
    build = wired_plant()
    s = study(build, Facts())
    wired = wired_of(build, s.framed)
    parts = {p.id: p for p in s.parts}
    for wire in wired.wires:
        assert parts[f"wiring/{wire.id}"].mass_kg == pytest.approx(wire.mass_kg)
    bare = study(a_plant(), Facts())
    more = sum(p.mass_kg for p in s.parts) - sum(p.mass_kg for p in bare.parts)
    assert more == pytest.approx(sum(p.mass_kg for p in s.parts if p.id.startswith("wiring/"))) and more > 1
    far = study(apply(build, [set_to("stow.things.lam.x", {"si": 4.9, "typed": None})]), Facts())
    id = _into(build, "lam").id
    assert wired_of(far.build, far.framed).wire(id).length_m > wired.wire(id).length_m + 0.5
    assert wired_of(far.build, far.framed).wire(_into(build, "pum").id) is wired.wire(_into(build, "pum").id)


# the stay
def test_what_is_off_or_on_a_hookup_costs_no_battery():
    build = a_plant()
    whole = stay_of(build, "camp").demand.daily_wh
    off = apply(build, [set_to("systems.off", [{"id": "lam", "modes": ["camp"]}])])
    assert stay_of(off, "camp").demand.daily_wh == pytest.approx(whole - 200) and stay_of(off, "road").demand.daily_wh == whole
    assert stay_of(apply(build, [set_to("systems.plugged", True)]), "camp").demand.daily_wh < whole - 900 * 4


def test_must_run_has_a_reserve_and_lasts_longer():
    build = a_plant(brief=msgspec.structs.replace(EU, nights_off=10, months=(12,)))
    build = apply(build, [set_to("stow.things.ket.taken_out", True), set_to("stow.things.pum.figures.must_run", True)])
    stay = stay_of(build, "camp")
    dull = stay.of("dull")
    assert stay.reserve_wh == pytest.approx(240) and dull.first_dark != "Water pump" and dull.first_dark_h is not None
    assert dull.hours_to_empty is None or dull.hours_to_empty > dull.first_dark_h


def test_what_nobody_said_leaves_the_stay_unknown_with_the_reason():
    assert "battery" in stay_of(a_build([load("lam")]), "camp").why[0]
    nowhere = stay_of(a_plant(brief=Brief(nights_off=3)), "camp")
    assert not nowhere.strings and "Brief" in nowhere.why[0]
    found = {f.code for f in findings(study(a_plant(brief=Brief()), Facts()))}
    assert "stay-unknown" in found and "goes-dark" not in found


def test_shade_frost_and_lead_take_their_share():
    build = a_plant()
    sunny = float(stay_of(build, "camp").of("clear").sun_wh.sum())
    half = apply(build, [set_to("systems.shade", [0.5] * 24)])
    assert float(stay_of(half, "camp").of("clear").sun_wh.sum()) == pytest.approx(sunny / 2)
    night = [set_to("brief.coldest", {"si": -20.0, "typed": None}), set_to("stow.things.bat.outside", True)]
    cold = apply(build, [*night, set_to("systems.off", [{"id": "ket", "stay": True}])])
    frozen = stay_of(cold, "camp").of("clear")
    assert frozen.frost_wh > 0 and stay_of(cold, "camp").bank.cold == pytest.approx(0.6)
    dark = apply(build, [set_to("systems.shade", [1.0] * 24)])
    assert "panel-shaded" in {f.code for f in findings(study(dark, Facts()))}


def test_the_least_sizes_carry_the_stay_and_a_little_less_does_not():
    build = a_plant(brief=msgspec.structs.replace(EU, nights_off=5, months=(10,)))
    needs = {one.sky: one for one in needs_of(build, "camp")}
    wanted = needs["dull"].battery_wh

    def lasts(wh):
        made = apply(build, [set_to("stow.things.bat.figures.amp_hours", None), set_to("stow.things.bat.figures.store_wh", wh)])
        return stay_of(made, "camp").of("dull").first_dark_h is None

    assert lasts(wanted) and not lasts(wanted * 0.97)
    assert needs["clear"].battery_wh <= needs["mixed"].battery_wh <= wanted
    ways = ways_of(build, stay_of(build, "camp"), wanted, 0.4)
    assert [way.school.id for way in ways] == ["lead", "agm", "lfp", "station"]
    assert all(way.usable_wh >= wanted - 1 for way in ways) and ways[0].mass_kg > 2 * ways[2].mass_kg


def test_two_loads_against_inverter_start_battery_and_hookup():
    build = a_plant(load("oven", 700.0, name="Oven", current="AC"), load("saw", 400.0, name="Saw", current="AC", surge=6.0))
    together = together_of(build, "camp")
    assert together.of("ket", "ket").fits and together.of("ket", "oven").fits is False
    assert "1600 W of the inverter's 1000 W" in together.of("ket", "oven").why
    assert together.of("saw", "saw").fits is False and "starts" in together.of("saw", "saw").why
    plugged = together_of(apply(build, [set_to("systems.plugged", True), set_to("systems.hookup_a", 16.0)]), "camp")
    assert plugged.of("ket", "oven").fits and plugged.source == "hookup"
    unknown = together_of(
        apply(
            build,
            [
                set_to("stow.things.oven.figures.power_w", None),
                set_to("stow.things.oven.figures.amps", None),
                set_to("systems.loads", [{"id": "ld1", "name": "Iron", "current": "AC"}]),
            ],
        ),
        "camp",
    )
    assert unknown.of("ld1", "ket").fits is None and "Iron" in unknown.of("ld1", "ket").why


# what cannot be
@pytest.mark.parametrize(
    ("path", "value"),
    [
        ("stow.things.lam.figures.power_w", -5.0),
        ("stow.things.lam.figures.hours_day", 25.0),
        ("stow.things.bat.figures.depth", 1.2),
        ("brief.latitude_deg", 95.0),
        ("brief.months", [13]),
        ("systems.shade", [1.5] * 24),
        ("systems.volts", 36),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(path, value):
    with pytest.raises(EditError, match=path.rpartition(".")[2]):
        apply(a_plant(), [set_to(path, value)])


def test_a_wire_goes_with_what_it_ended_at_and_one_without_a_source_is_said():
    build = wired_plant()
    gone = msgspec.structs.replace(
        build, stow=msgspec.structs.replace(build.stow, things=tuple(t for t in build.stow.things if t.id != "lam"))
    )
    after, said = referring_right(Project("P", (gone,), "as-drawn"))
    assert all("lam" not in (w.start, w.end) for w in after.build.systems.wires) and any("lam" in one for one in said)
    lost = apply(build, [remove(f"systems.wires.{_into(build, device(build, 'fuse box')).id}")])
    found = [f for f in findings(study(lost, Facts())) if f.code == "no-source"]
    assert len(found) == 2 and found[0].where[0].startswith("wr")
    off = Systems(off=(Off("nobody"),), bonds=("nobody",))
    after, said = referring_right(Project("P", (a_build(systems=off),), "as-drawn"))
    assert after.build.systems.off == () and after.build.systems.bonds == () and len(said) == 2


def test_a_ring_and_an_empty_battery_end_nothing():
    box = Device("dv1", "Bus", "bus bar", Length(2.5), Length(0.0), Length(0.8))
    other = Device("dv2", "Bus 2", "bus bar", Length(2.7), Length(0.0), Length(0.8))
    wires = (Wire("wr1", "dv1", "dv2"), Wire("wr2", "dv2", "dv1"), Wire("wr3", "bat", "dv1"), Wire("wr4", "dv1", "dv1"))
    empty = unit("bat", "battery", chemistry="LFP", amp_hours=0.0, volts=12.8)
    build = a_build([empty, load("lam")], brief=EU, systems=Systems(devices=(box, other), wires=wires))
    s = study(build, Facts())
    assert findings(s) and one_line(wired_of(build, s.framed), Words(METRIC)).shapes
    dark = stay_of(build, "camp").of("clear")
    assert dark.first_dark_h == 0 and dark.first_dark == "Lamp"


# drawings
def _random_graph(seed):
    draw = random.Random(seed)
    many = draw.randint(2, 26)
    ids = [f"n{k}" for k in range(many)]
    pairs = {(ids[draw.randrange(k)], ids[k]) for k in range(1, many)}
    for _ in range(draw.randint(0, many // 2)):
        first, second = draw.sample(ids, 2)
        pairs.add((first, second))
    return ids, [Wants(f"w{k}", a, b) for k, (a, b) in enumerate(sorted(pairs))]


@pytest.mark.parametrize("seed", range(60))
def test_boxes_of_random_diagrams_never_overlap_and_every_wire_ends_at_its_boxes(seed):
    ids, wires = _random_graph(seed)
    layout = laid_out(ids, wires, ids[-2:])
    boxes = {box.id: box for box in layout.boxes}
    assert set(boxes) == set(ids) and {at.id for at in layout.lines} == {w.id for w in wires}
    for a, b in itertools.combinations(layout.boxes, 2):
        apart = abs(a.x - b.x) >= (a.width + b.width) / 2 - 1e-6 or abs(a.y - b.y) >= (a.height + b.height) / 2 + 4
        assert apart, (a, b)
    for wire, at in zip(wires, layout.lines, strict=True):
        start, end = boxes[wire.start], boxes[wire.end]
        assert at.points[0][0] == pytest.approx(start.x + start.width / 2) and abs(at.points[0][1] - start.y) <= start.height / 2
        assert at.points[-1][0] == pytest.approx(end.x - end.width / 2) and abs(at.points[-1][1] - end.y) <= end.height / 2 + 1e-6
        if not at.back:  # no wire runs through a box that is not its own
            for box in layout.boxes:
                if box.id not in (wire.start, wire.end):
                    assert not any(_through(a, b, box) for a, b in itertools.pairwise(at.points)), (at.id, box.id)


def _through(a, b, box):
    low_x, high_x = sorted((a[0], b[0]))
    low_y, high_y = sorted((a[1], b[1]))
    left, right = box.x - box.width / 2 + 1, box.x + box.width / 2 - 1
    low, high = box.y - box.height / 2 + 1, box.y + box.height / 2 - 1
    return low_x < right and high_x > left and low_y < high and high_y > low


@pytest.mark.parametrize("seed", range(20))
def test_a_tree_is_drawn_without_a_crossing(seed):
    draw = random.Random(seed)
    ids = [f"n{k}" for k in range(draw.randint(3, 30))]
    wires = [Wants(f"w{k}", ids[draw.randrange(k)], ids[k]) for k in range(1, len(ids))]
    layout = laid_out(ids, wires, [id for id in ids if all(w.start != id for w in wires)])
    for one, other in itertools.combinations(layout.lines, 2):
        for a, b in itertools.pairwise(one.points):
            for c, d in itertools.pairwise(other.points):
                assert not _cross(a, b, c, d), (one.id, other.id)


def _cross(a, b, c, d):
    """Whether an upright and a level part cross inside both; parts of one trunk lie on each other and do not."""
    if abs(a[0] - b[0]) < 1e-9 and abs(c[1] - d[1]) < 1e-9:
        (x, y0, y1), (y, x0, x1) = (a[0], *sorted((a[1], b[1]))), (c[1], *sorted((c[0], d[0])))
    elif abs(c[0] - d[0]) < 1e-9 and abs(a[1] - b[1]) < 1e-9:
        (x, y0, y1), (y, x0, x1) = (c[0], *sorted((c[1], d[1]))), (a[1], *sorted((a[0], b[0])))
    else:
        return False
    return x0 + 1e-6 < x < x1 - 1e-6 and y0 + 1e-6 < y < y1 - 1e-6


@pytest.mark.parametrize("name", DEMOS)
def test_every_demo_has_a_diagram_whose_words_stand_apart_and_whose_wires_can_be_picked(name):
    project = demo(name)
    s = study(project.build, project.facts)
    wired = wired_of(project.build, s.framed)
    made = one_line(wired, Words(project.build.brief.reading.shown()))
    texts = [shape for shape in made.shapes if isinstance(shape, Text)]
    for a, b in itertools.combinations(texts, 2):
        assert not _touch(a, b), (a.text, b.text)
    drawn = {shape.id for shape in made.shapes if shape.id}
    assert {w.id for w in wired.wires} <= drawn
    for wire in wired.wires:
        label = next(t for t in texts if t.id == wire.id)
        middle = label.at[0] + {"left": 1, "middle": 0, "right": -1}[label.anchor] * label.width / 2
        assert wire_at(made.shapes, (middle, label.at[1])) == wire.id
    pages = wiring_sheets(s, project.name, "2026-01-01")
    titles = [page.title for page in pages]
    assert (
        titles[0] == "wiring"
        and titles[-1] == "labels"
        and {f"wiring {one.live.state.id}" for one in supplies(s)} == set(titles) - {"wiring", "connections", "labels"}
    )
    for page in pages:
        for shape in page.shapes:
            if isinstance(shape, Poly):
                assert all(-1 <= x <= page.width + 1 and -1 <= y <= page.height + 1 for x, y in shape.points)


def _touch(a, b):
    def box(t):
        left = t.at[0] - {"left": 0, "middle": 0.5, "right": 1}[t.anchor] * t.width
        return left, left + t.width, t.at[1] - t.size * 0.45, t.at[1] + t.size * 0.45

    (l1, r1, b1, t1), (l2, r2, b2, t2) = box(a), box(b)
    return l1 < r2 - 0.5 and l2 < r1 - 0.5 and b1 < t2 - 0.5 and b2 < t1 - 0.5


def test_the_charge_chart_reads_off_and_names_what_goes_dark():
    build = a_plant(brief=msgspec.structs.replace(EU, nights_off=6, months=(12,)))
    stay = stay_of(build, "camp")
    for shown in (METRIC, IMPERIAL):
        shapes = stay_chart(stay, "dull", Words(shown), 600.0, 400.0)
        said = [t.text for t in shapes if isinstance(t, Text)]
        assert any("dark" in one for one in said) and "dull" in said and "day 6" in said
    assert "Day 3" in stay_words(stay, 62 + (600 - 62 - 104) * 0.45, Words(METRIC), 600.0, 400.0)
    assert stay_words(stay, 10.0, Words(METRIC), 600.0, 400.0) == ""
    assert stay_chart(stay_of(a_build(), "camp"), "dull", Words(METRIC), 600.0, 400.0) == ()
