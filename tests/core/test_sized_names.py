"""A changed size changes the name that tells it, and no other name."""

import pytest

from tests.builders import a_build, a_thing
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.document.sized_names import sizes_told, with_sized_names


def renamed(id, *changes):
    thing = next(entry for entry in entries() if entry.id == id)
    before = a_build([thing])
    after = apply(before, [set_to(f"stow.things.{id}.{field}", value) for field, value in changes])
    return with_sized_names(after, before).stow.things[0].name


def si(value):
    return {"si": value, "typed": None}


@pytest.mark.parametrize(
    ("id", "changes", "name"),
    [
        ("water-tank-70", [("tank.volume", si(0.080))], "Fresh tank 80 L"),
        ("water-tank-70", [("tank.volume", si(0.0757))], "Fresh tank 75.7 L"),
        ("water-tank-70", [("mass", si(9.0))], "Fresh tank 70 L"),
        ("water-tank-70", [("tank.volume", si(0.080)), ("name", "Under the bed 70 L")], "Under the bed 70 L"),
        ("lfp-100", [("figures.amp_hours", 120.0)], "Battery 120 Ah LFP"),
        ("solar-100", [("figures.solar_wp", 1200.0)], "Solar panel 1200 W"),
    ],
)
def test_the_number_in_a_name_goes_with_its_figure(id, changes, name):
    assert renamed(id, *changes) == name


def test_a_number_that_is_another_one_stays():
    before = a_build([a_thing("t", 5.0, name="Box 170 L, 70 Lamps, 70 L")])
    thing = before.stow.things[0]
    assert all(value is None or unit == "m" for unit, value in sizes_told(thing))
    assert with_sized_names(apply(before, [set_to("stow.things.t.mass", si(6.0))]), before).stow.things[0].name == thing.name
    told = apply(before, [set_to("stow.things.t.tank", {"volume": si(0.070)})])
    more = with_sized_names(apply(told, [set_to("stow.things.t.tank.volume", si(0.090))]), told)
    assert more.stow.things[0].name == "Box 170 L, 70 Lamps, 90 L"
    assert with_sized_names(told, told) is told and with_sized_names(told, before) is told
