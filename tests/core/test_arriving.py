"""Charges are reckoned by what arrives, and a panel without a controller gets one when it is wired."""

import msgspec
import numpy as np
import pytest

from tests.core.test_systems import a_plant, codes, unit, wire_between, wired_plant
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.systems import Systems, Wire
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.systems.arriving import by_mains_ids, charging_ids, strings_arriving
from uncle_sled.core.studies.systems.stay import stay_of
from uncle_sled.core.studies.systems.wire_whole import controller_for, wire_whole_ops
from uncle_sled.core.wiring.appliances import units_of


def comes(build):
    string = stay_of(build, "").of("clear")
    return {name: float(getattr(string, f"{name}_wh").sum()) for name in ("sun", "car", "mains")}


def without(build, *pairs):
    return apply(build, [remove(f"systems.wires.{wire_between(build, a, b).id}") for a, b in pairs])


def hub(build):
    return next(d.id for d in build.systems.devices if d.kind == "bus bar")


def test_what_is_not_wired_yet_counts_as_joined_in_the_usual_way():
    loose, wired = a_plant(), wired_plant()
    assert comes(loose)["sun"] > 0 and comes(wired) == comes(loose)
    assert charging_ids(loose, ("solar charger",)) == charging_ids(wired, ("solar charger",)) == ("con",)


@pytest.mark.parametrize("cut", [("pan", "con"), ("con", None)])
def test_a_panel_whose_way_is_cut_brings_nothing(cut):
    build = wired_plant()
    start, end = cut
    build = without(build, (start, end or hub(build)))
    assert comes(build)["sun"] == 0.0 and strings_arriving(build) == ()


def test_each_controller_holds_back_its_own_panels_alone():
    """1,000 W of panels on the small controller, 100 W on the large one: the large one has nothing to spare for the small."""
    both = a_plant(
        unit("pa2", "panel", x=2.2, y=0.4, z=2.6, solar_wp=1000.0, voc_v=22.5),
        unit("co2", "solar charger", x=2.6, charge_w=900.0, most_v=75.0),
    )
    both = apply(both, [set_to("stow.things.pan.figures.solar_wp", 100.0)])
    crossed = (Wire("w1", "pa2", "con", "panel"), Wire("w2", "pan", "co2", "panel"), Wire("w3", "con", "bat"), Wire("w4", "co2", "bat"))
    straight = (Wire("w1", "pa2", "co2", "panel"), Wire("w2", "pan", "con", "panel"), Wire("w3", "con", "bat"), Wire("w4", "co2", "bat"))
    held = [
        stay_of(msgspec.structs.replace(both, systems=Systems(wires=wires)), "").of("clear").held_back_wh for wires in (crossed, straight)
    ]
    assert held[0] > held[1] >= 0.0
    limits = {s.panels[0].id: s.limit_w for s in strings_arriving(msgspec.structs.replace(both, systems=Systems(wires=crossed)))}
    assert limits == {"pa2": 260.0, "pan": 900.0}


def test_a_mains_charger_wants_its_way_in_and_its_way_out():
    build = apply(wired_plant(), [set_to("systems.plugged", True)])
    full = comes(build)["mains"]
    assert by_mains_ids(build) == ("sho",) and full == pytest.approx(360.0 * len(stay_of(build, "").of("clear").mains_wh))
    cut_out = without(build, ("sho", hub(build)))
    board = next(w.start for w in build.systems.wires if w.end == "sho" and w.kind == "AC")
    for cut in (cut_out, without(build, (board, "sho"))):
        assert by_mains_ids(cut) == () and comes(cut)["mains"] == 0.0


def test_a_charger_from_the_car_gives_only_where_it_is_fed():
    build = a_plant(unit("car", "car charger", x=3.1, charge_w=240.0), systems=Systems(drive_hours=2.0))
    wired = apply(build, wire_whole_ops(build, Facts(), study(build, Facts()).framed, ())[0])
    assert comes(wired)["car"] == comes(build)["car"] > 0
    plug = next(w.start for w in wired.systems.wires if w.end == "car")
    assert comes(without(wired, (plug, "car")))["car"] == comes(without(wired, ("car", hub(wired))))["car"] == 0.0


def test_wiring_up_puts_a_controller_aboard_that_takes_the_panels():
    build = apply(a_plant(), [remove("stow.things.con")])
    framed = study(build, Facts()).framed
    ops, controller = wire_whole_ops(build, Facts(), framed, entries())
    whole = apply(build, ops)
    assert controller is not None and controller.id == "charger-solar-20"  # 200 W at 22.5 V: 260 W and 75 V take them
    assert len(units_of(whole, "solar charger")) == 1 and codes(whole) == [] and comes(whole)["sun"] > 0
    more = apply(build, [set_to("stow.things.pan.figures.solar_wp", 380.0)])
    assert controller_for(more, entries()).id == "charger-solar"
    assert controller_for(apply(build, [remove("stow.things.pan")]), entries()) is None
    assert controller_for(a_plant(), entries()) is None and controller_for(build, ()) is None
    assert np.isfinite(sum(comes(whole).values()))
