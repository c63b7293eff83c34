"""Looking for things by other names, and what goes with them."""

from __future__ import annotations

import pytest
from msgspec.structs import replace

from tests.builders import a_build, a_thing
from uncle_sled.catalogue.search import fits, nearest, ranked, sayings
from uncle_sled.catalogue.things import entries, told_of
from uncle_sled.core.document.edits import apply
from uncle_sled.core.document.project import Facts
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.adding import add_ops, goes_with, own_thing
from uncle_sled.exchange.demos import DEMOS, demo

BY_ID = {entry.id: entry for entry in entries()}


@pytest.mark.parametrize(
    ("typed", "wanted"),
    [
        ("diesel heater", "heater-diesel"),
        ("roof vent", "fan-roof"),
        ("propane", "gas-2-5"),
        ("gas bottle 11", "gas-11"),
        ("loo", "toilet-portable"),
        ("mppt", "charger-solar-20"),
        ("esky", "cool-box"),
        ("genset", "pump-generator"),
        ("spare tire 15", "spare-15"),
        ("log burner", "stove-wood-small"),
        ("carbon monoxide", "co-alarm"),
        ("cooktop", "stove-3"),
    ],
)
def test_the_shelf_knows_other_names(typed, wanted):
    found = [entry.id for entry in ranked(entries(), typed, told_of)]
    assert any(id.startswith(wanted) for id in found[:6]), (typed, found[:6])


def test_the_table_of_words_says_each_once_and_none_means_nothing():
    assert len(sayings()) > 150
    for said, ways in sayings().items():
        assert ways and all(way for way in ways), said


def test_numbers_are_not_read_into_others_and_every_part_is_asked_for():
    names = [entry.name for entry in ranked(entries(), "fresh 60", lambda e: e.name)]
    assert all("60" in name for name in names)
    assert fits("Gas cylinder 5 kg", "propane 5") and not fits("Gas cylinder 5 kg", "propane 8")


def test_what_is_written_wrong_leads_to_the_nearest_and_nonsense_to_none():
    assert any("fridge" in entry.name.lower() for entry in nearest(entries(), "frigde", lambda e: e.name))
    assert any("Kayak" in entry.name for entry in nearest(entries(), "kayk", lambda e: e.name))
    assert nearest(entries(), "xqzvw", lambda e: e.name) == [] == nearest(entries(), "", lambda e: e.name)


# what goes with it
def brought(id, *aboard):
    return {entry.id for entry in goes_with(BY_ID[id], aboard, entries())}


def test_what_was_added_asks_for_what_it_wants_and_not_for_what_is_there():
    assert brought("stove-2") == {"gas-5", "gas-alarm", "co-alarm", "extinguisher"}
    assert brought("stove-2", BY_ID["gas-11"], BY_ID["co-alarm"]) == {"gas-alarm", "extinguisher"}
    assert brought("heater-diesel") == {"co-alarm", "diesel-can-10"}
    assert brought("solar-100") == {"charger-solar-20", "lfp-100"} and brought("solar-100", BY_ID["power-station-1"]) == set()
    assert brought("lfp-100") == {"fuse-board"} and brought("charger-shore") == {"hookup-inlet"}
    assert brought("mattress-1") == set()
    # what it is called decides nothing
    renamed = replace(BY_ID["stove-2"], name="Lamp")
    assert {entry.id for entry in goes_with(renamed, (), entries())} == brought("stove-2")


def test_a_thing_of_ones_own_is_a_guess():
    made = own_thing("Ship's bell")
    assert (made.name, made.source, made.kind) == ("Ship's bell", "guessed", "gear") and len(own_thing("x" * 300).name) == 80


# places
@pytest.mark.parametrize("name", DEMOS)
def test_every_thing_of_the_shelf_finds_a_place_where_such_things_stand(name):
    """Inside what belongs inside, the roof's on the roof, the floor's under it, the tail's behind; on the drawbar only what is small."""
    project = demo(name)
    s = study(project.build, project.facts)
    body, wall = s.framed.body, project.build.shell.wall.si
    at = DEMOS.index(name)
    shelf = [entry for k, entry in enumerate(entries()) if k % len(DEMOS) == at or "hangs" in " ".join(entry.roles)]
    for entry in shelf:  # all of the shelf over the demos, in each what hangs outside
        ops, (id,) = add_ops(project.build, project.facts, s.framed, (entry,))
        thing = next(t for t in apply(project.build, ops).stow.things if t.id == id)
        ends = (thing.x.si, thing.x.si + thing.length.si)
        if "rides on the roof" in thing.roles or (thing.kind == "solar" and thing.outside):
            assert thing.z.si >= body.under + body.height - 1e-3, thing.name
        elif "hangs under the floor" in thing.roles:
            assert thing.z.si + thing.height.si <= body.under + 1e-3 and thing.z.si >= 0, thing.name
        elif "hangs at the tail" in thing.roles:
            assert ends[0] >= body.front + body.length - 1e-3, thing.name
        elif not thing.outside:
            lies_in = ends[0] >= body.front + wall - 0.06 and ends[1] <= body.front + body.length - wall + 0.06
            fits_in = thing.length.si < body.length - 2 * wall - 0.3 and thing.width.si < body.width - 2 * wall - 0.1
            assert lies_in or not fits_in, (thing.name, ends)
            assert abs(thing.y.si) + thing.width.si / 2 <= body.width / 2 + 1e-6 or not fits_in, thing.name
        elif project.build.rig.carrier == "ball" and ends[0] < body.front - 1e-6 and not thing.states:
            assert thing.length.si < 1.0, thing.name  # on the drawbar


def test_a_mattress_lies_on_its_bed_once():
    bed = a_thing("b", 20.0, size=(2.0, 1.4, 0.4), kind="bed")
    build = a_build([bed])
    s = study(build, Facts())
    ops, (first, second) = add_ops(build, Facts(), s.framed, (BY_ID["mattress-2"], BY_ID["mattress-2"]))
    things = {t.id: t for t in apply(build, ops).stow.things}
    assert things[first].z.si == pytest.approx(bed.z.si + 0.4) and things[first].y == bed.y
    assert things[second].z.si < bed.z.si + 0.4
