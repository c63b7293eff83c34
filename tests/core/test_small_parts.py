"""What wires, pipes and gas want besides themselves: one wiring counted by hand, poles, glands, conduit, and Buy."""

import pytest
from msgspec import to_builtins

from tests.builders import a_body, a_build, a_tank, a_thing
from tests.core.test_systems import load, unit
from uncle_sled.core.document.brief import Brief
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.systems import Device, Systems, Wire
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.buying import lines_of, slug
from uncle_sled.core.studies.cut.cut_from_stock import QUICK, plan_of
from uncle_sled.core.studies.cut.small_parts import MORE, small_parts, under_floor_m
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.exchange.demos import DEMOS, demo


def device(id, kind, x=2.5):
    return Device(id, kind.capitalize(), kind, Length(x), Length(0.0), Length(0.8))


THINGS = (unit("b1", "battery", chemistry="LFP", amp_hours=100.0, volts=12.8), load("l1", 24.0), load("l2", 24.0, x=3.8))
DEVICES = (device("m1", "main switch"), device("f1", "fuse box", 3.0))
WIRES = (
    Wire("w1", "b1", "m1", fused="start", fuse_a=100.0, area_mm2=16.0),
    Wire("w2", "m1", "f1", fused="start", fuse_a=30.0, area_mm2=6.0),
    Wire("w3", "f1", "l1", fused="start", fuse_a=5.0, area_mm2=1.5),
    Wire("w4", "f1", "l2", fused="start", fuse_a=5.0, area_mm2=1.5),
)


def built(things=THINGS, devices=DEVICES, wires=WIRES, region="European", **changes):
    return a_build(
        things, shell=a_body(), systems=Systems(devices=tuple(devices), wires=tuple(wires)), brief=Brief(region=region), **changes
    )


def parts(build):
    return {one.id: one for one in small_parts(build, wired_of(build, study(build, Facts()).framed))}


def test_a_battery_a_switch_a_fuse_box_and_two_lamps_by_hand() -> None:
    """Two 5 A fuses in the box and a spare, a 30 A one with a holder and a spare, a bolted 100 A one; two cores a wire."""
    build = built()
    made = parts(build)
    assert {id: one.need for id, one in made.items() if "fuse" in id} == {
        "fuse 5": 3,
        "fuse 30": 2,
        "fuse holders": 1,
        "fuse bolted 100": 1,
        "fuse holders bolted": 1,
    }
    # 16 mm2: two cores, both ends on bolts: 4. 6 mm2: 2 on the switch, 2 in the box. 1.5 mm2: 2 wires x 2 ends x 2 cores
    ends = {one.name: one.need for id, one in made.items() if id.startswith(("lugs", "sleeves"))}
    assert sorted(ends.items()) == [("Ring lugs 16 mm²", 4), ("Ring lugs 6 mm²", 2), ("Sleeves 1.5 mm²", 8), ("Sleeves 6 mm²", 2)]
    assert made["shrink"].need == pytest.approx(6 * 0.04 * MORE)
    long = sum(wire.length_m for wire in wired_of(build, study(build, Facts()).framed).wires)
    assert long / 0.30 <= made["clips"].need < long / 0.30 + 1


def test_breakers_part_both_wires_of_230_volts_and_the_hot_one_of_120() -> None:
    mains = (device("i1", "inlet"), device("a1", "AC board", 3.0), device("s1", "AC socket", 3.5))
    wires = (Wire("w1", "i1", "a1", "AC", fused="end", fuse_a=16.0), Wire("w2", "a1", "s1", "AC", fused="start", fuse_a=16.0))
    europe = parts(built((), mains, wires))
    assert europe["breaker 16 2"].need == 2 and europe["breaker 16 2"].name == "Breaker 16 A, 2 poles"
    assert parts(built((), mains, wires, "North American"))["breaker 16 1"].name == "Breaker 16 A, 1 pole"


def test_a_wire_that_goes_out_wants_a_gland_and_one_under_the_floor_conduit() -> None:
    assert "glands" not in parts(built()) and "conduit" not in parts(built())
    out = [to_builtins(t) for t in THINGS]
    out[2] |= {"outside": True}
    build = apply(built(), [set_to("stow.things", out)])
    assert parts(build)["glands"].need == 1
    low = apply(
        built(),
        [
            set_to(
                "systems.wires.w4.bends",
                [
                    {"id": "k1", "x": {"si": 3.0}, "y": {"si": 0.0}, "z": {"si": 0.3}},
                    {"id": "k2", "x": {"si": 3.6}, "y": {"si": 0.0}, "z": {"si": 0.3}},
                ],
            )
        ],
    )
    wire = wired_of(low, study(low, Facts()).framed).wire("w4")
    assert wire is not None and under_floor_m(wire, 0.5) > 0.55
    assert parts(low)["conduit"].need == pytest.approx(under_floor_m(wire, 0.5) * MORE)


def test_water_and_gas_by_what_is_aboard() -> None:
    tank, tap = a_tank("w1", 40.0), a_thing("k1", 5.0, x=3.0, roles=("tap or sink",))
    pump = a_thing("p1", 2.0, x=2.6, roles=("pumps water",))
    assert parts(built((tank, pump, tap), (), ()))["hose clamps"].need == 4, "tank to pump, pump to tap"
    bottle, stove = a_tank("g1", 26.0, "gas", x=1.4, y=0.0, z=0.7), a_thing("s1", 4.0, x=3.0, y=0.5, z=0.9, burns="gas")
    made = parts(built((bottle, stove), (), ()))
    assert {id: one.need for id, one in made.items() if id in ("gas regulator", "gas valves")} == {"gas regulator": 1, "gas valves": 1}
    assert made["gas pipe"].need == pytest.approx((1.6 + 0.5 + 0.2) * MORE) and "licensed" in made["gas pipe"].why
    assert parts(built((bottle,), (), ())) == {} and parts(built((), (), ())) == {}


@pytest.mark.parametrize("name", DEMOS)
def test_all_of_it_stands_in_buy_by_its_shop(name) -> None:
    p = demo(name)
    s = study(p.build, p.facts)
    lines = {line.id: line for line in lines_of(s, plan_of(s.build, s.facts, QUICK))}
    for part in small_parts(s.build, wired_of(s.build, s.framed)):
        line = lines[slug(part.id)]
        assert line.packs * line.pack >= part.need - 1e-9 and line.likely is not None
        assert line.shop in ("electrical supplier", "camping supplier", "gas fitter")
