"""New things and openings go where nothing is yet."""

import pytest
from msgspec import to_builtins
from msgspec.structs import replace

from tests.builders import a_body, a_build, a_shell, a_thing
from uncle_sled.catalogue.things import entries, placed
from uncle_sled.core.document.cutting_in import KINDS, first_opening, on_the_other_side
from uncle_sled.core.document.edits import add_to, apply, set_to
from uncle_sled.core.document.placing import rolled_out, stand_of
from uncle_sled.core.document.project import Facts
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.drawing.stow.swings import swings_view
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.stow.clashes import clashes
from uncle_sled.core.studies.stow.next_place import next_place
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.exchange.demos import demo


def put(build, thing):
    s = study(build, Facts())
    x, y, z = next_place(build, Facts(), s.framed, thing)
    there = placed(thing, thing.id, x, y, z)
    return replace(build, stow=replace(build.stow, things=(*build.stow.things, there))), there


def test_twelve_things_one_after_the_other_stand_in_nobodys_way():
    build = a_build(shell=a_body())
    kinds = ("cabinet", "gear", "tank", "bed", "appliance", "gear") * 2
    for at, kind in enumerate(kinds):
        build, there = put(build, a_thing(f"n{at}", 12.0, kind=kind, size=(0.5, 0.45, 0.4)))
        assert there.z.si == pytest.approx(0.62, abs=0.03), "on the floor"

    found = [clash for of in clashes(build, Facts()).values() for clash in of if clash.solid]
    assert found == []
    cabinets = [t.y.si for t in build.stow.things if t.kind != "gear"]
    assert min(abs(y) for y in cabinets) > 0.3, "along the walls"
    assert {y > 0 for y in cabinets} == {True, False}, "the emptier one each time"


def test_panels_go_one_behind_the_other_on_the_roof():
    panel = next(e for e in entries() if e.kind == "solar" and e.outside)
    build, tops = a_build(shell=a_body()), []
    for at in range(2):
        build, there = put(build, replace(panel, id=f"s{at}"))
        tops.append(there)

    assert all(one.z.si == pytest.approx(0.5 + 2.1) for one in tops)
    a, b = sorted(tops, key=lambda one: one.x.si)
    assert a.x.si + a.length.si <= b.x.si + 1e-6


def test_what_stands_outside_goes_on_the_drawbar():
    build, first = put(a_build(shell=a_body()), a_thing("a", 10.0, size=(0.3, 0.3, 0.4), outside=True))
    build, second = put(build, a_thing("b", 10.0, size=(0.3, 0.3, 0.4), outside=True))

    assert 0.3 <= first.x.si <= 0.9 and 0.3 <= second.x.si <= 0.9
    assert abs(first.x.si - second.x.si) >= 0.3 - 1e-6


def test_without_a_body_things_stand_behind_each_other():
    build, first = put(a_build(), a_thing("a", 10.0))
    build, second = put(build, a_thing("b", 10.0))

    assert abs(first.x.si - second.x.si) >= 0.4 - 1e-6


def test_a_full_body_gives_the_usual_place():
    full = a_thing("full", 100.0, x=1.32, z=0.62, size=(3.7, 1.74, 1.8))
    _, there = put(a_build([full], shell=a_body()), a_thing("b", 10.0))

    assert there.z.si == pytest.approx(0.62, abs=0.03)


@pytest.mark.parametrize("kind", [kind for kind in KINDS if kind != "screw row"])
def test_a_second_opening_lands_beside_the_first(kind):
    build = a_build(shell=a_body())
    for _ in range(2):
        build = apply(build, [add_to("shell.openings", first_opening(build.shell, kind))])
    a, b = sorted(build.shell.openings, key=lambda o: o.along.si)

    room = {"rear": 2.0}.get(a.face, 4.0)
    if a.width.si * 2 + 0.16 <= room:
        assert a.along.si + a.width.si <= b.along.si, "beside it"
    assert b.along.si + b.width.si <= room


def test_the_same_on_the_other_side():
    build = demo("marsh-heron").build
    window = next(o for o in build.shell.openings if o.face == "left side" and o.kind == "window")
    alone = replace(build.shell, openings=(window,))
    twin = on_the_other_side(alone, window.id)
    after = apply(build, [set_to("shell.openings", [*to_builtins(alone.openings), twin])])

    other = next(o for o in after.shell.openings if o.id == twin["id"])
    assert (other.face, other.along, other.up, other.width) == ("right side", window.along, window.up, window.width)
    beside = on_the_other_side(build.shell, window.id)  # a door stands across from it
    door = next(o for o in build.shell.openings if o.face == "right side" and o.kind == "door")
    left = beside["along"]["si"]
    assert left >= door.along.si + door.width.si or left + window.width.si <= door.along.si
    roof = next(o for o in build.shell.openings if o.face == "roof")
    assert on_the_other_side(build.shell, roof.id) is None and on_the_other_side(build.shell, "nobody") is None


def test_water_goes_by_the_axle_and_the_stove_of_a_low_body_to_its_tail():
    build = a_build(shell=a_shell())
    facts = Facts()
    framed = study(build, facts).framed
    by_id = {entry.id: entry for entry in entries()}
    axle = build.rig.axles[0].station.si
    jug = placed(by_id["water-jug-20"], "t1", 0.0, 0.0, 0.0)
    x, _, _ = next_place(build, facts, framed, jug)
    assert abs(x + jug.length.si / 2 - axle) < 0.1
    stove = placed(by_id["stove-2"], "t2", 0.0, 0.0, 0.0)
    x, _, _ = next_place(build, facts, framed, stove)
    assert x + stove.length.si > room_of(build, facts).span_m[1] - 0.3


def test_an_awning_hangs_on_its_wall_and_rolls_out_where_one_camps_only():
    build, facts = demo("orchard-keeper").build, demo("orchard-keeper").facts
    awning = placed({entry.id: entry for entry in entries()}["awning-side"], "t99", 0.0, 0.0, 0.0)
    x, y, z = next_place(build, facts, study(build, facts).framed, awning)
    assert y == pytest.approx(-(build.shell.width.si + awning.width.si) / 2)
    assert z + awning.height.si <= build.shell.floor.si + build.shell.height.si + 1e-9
    spot = {"x": Length(x), "y": Length(y), "z": Length(z)}
    after = apply(build, [add_to("stow.things", to_builtins(replace(awning, **spot))), *rolled_out(build, awning)])
    for mode in after.stow.modes:
        stand = stand_of(after.stow.things[-1], mode)
        assert (stand.state is None) is mode.towing
        assert stand.size[1] == pytest.approx(awning.width.si if mode.towing else 2.0)


def test_a_pair_of_doors_has_two_leaves_that_meet_in_the_middle():
    build = a_build(shell=a_body("box"))
    build = apply(build, [add_to("shell.openings", first_opening(build.shell, "barn doors"))])
    hole = room_of(build, Facts()).holes[0]
    (a, mid), (b, other) = hole.leaves
    assert hole.opening.kind == "door" and mid == other
    assert mid[1] == pytest.approx((a[1] + b[1]) / 2) and abs(a[1] - b[1]) == pytest.approx(hole.opening.width.si)
    shapes = swings_view(build, Facts(), next(m for m in build.stow.modes if not m.towing), "plan")
    assert len([s for s in shapes if s.id == hole.opening.id]) == 4  # a leaf and an arc each
