import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.builders import a_build, a_project, a_shell, a_tank, a_thing
from uncle_sled.core.document import catalogue_line, edits
from uncle_sled.core.document.edits import add_to, apply, fresh_id, get, remove, set_to
from uncle_sled.core.document.history import History
from uncle_sled.core.document.placing import delete_ops, place_ops, spot_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Mode, Place
from uncle_sled.core.errors import EditError


def test_what_an_edit_does_not_name_stays_the_same_object():
    before = a_build([a_thing("t1"), a_thing("t2", x=3.0)], shell=a_shell())

    after = apply(before, [set_to("stow.things.t1.x", {"si": 2.5, "typed": None})])

    assert after.shell is before.shell
    assert after.rig is before.rig
    assert after.stow.things[1] is before.stow.things[1]
    assert after.stow.things[0].x.si == 2.5


def test_an_edit_that_changes_nothing_gives_the_same_object():
    build = a_build([a_thing("t1", x=2.0)])

    assert apply(build, [set_to("stow.things.t1.x", {"si": 2.0, "typed": None})]) is build


@pytest.mark.parametrize(
    ("op", "says"),
    [
        (set_to("stow.things.t9.x", {"si": 1.0}), "no “t9”"),
        (set_to("stow.thing.t1.x", {"si": 1.0}), "no “thing”"),
        (set_to("stow.things.t1.x", "far"), "stow.things.t1.x"),
        (set_to("rig.carrier", "sky"), "rig.carrier"),
        (set_to("stow.things.t1.tank.volume", {"si": 1.0}), "nothing is set at “tank”"),
        (set_to("stow.things.t1.name.first", "x"), "no parts of its own"),
        (add_to("rig.track", {"si": 1.0}), "not a list"),
        (remove("rig.track"), "cannot be removed"),
        (remove("stow.things.t7"), "no “t7”"),
    ],
)
def test_a_wrong_edit_names_its_place(op, says):
    with pytest.raises(EditError, match=says):
        apply(a_build([a_thing("t1")]), [op])


def test_an_id_is_used_once():
    with pytest.raises(EditError, match="used once"):
        apply(a_build([a_thing("t1")]), [add_to("stow.things", msgspec.to_builtins(a_thing("t1")))])


def test_get_and_fresh_ids():
    build = a_build([a_thing("t1"), a_thing("t12")])

    assert get(build, "stow.things.t12.name") == "Box t12"
    assert fresh_id("t", [t.id for t in build.stow.things]) == "t13"
    with pytest.raises(EditError):
        get(build, "stow.things.t3.name")


def test_a_place_in_another_mode_leaves_home_alone_and_goes_when_it_is_home_again():
    build = a_build([a_thing("t1", x=2.0)])
    camp = build.stow.modes[1]

    moved = apply(build, place_ops(build, camp, build.stow.things[0], (3.0, 0.0, 0.6)))
    back = apply(moved, place_ops(moved, moved.stow.modes[1], moved.stow.things[0], (2.0, 0.0, 0.6)))

    assert moved.stow.things[0] is build.stow.things[0]
    assert spot_of(moved.stow.things[0], moved.stow.modes[1])[0] == (3.0, 0.0, 0.6)
    assert back.stow.modes[1].places == ()


def test_deleting_a_thing_takes_it_out_of_every_mode():
    camp = Mode("camp", "Camp", False, (Place("t1", Length(1.0), Length(0.0), Length(0.6)),), ("t1",))
    build = a_build([a_thing("t1"), a_thing("t2")])
    build = apply(build, [set_to("stow.modes", msgspec.to_builtins((build.stow.modes[0], camp)))])

    after = apply(build, delete_ops(build, ("t1",)))

    assert [t.id for t in after.stow.things] == ["t2"]
    assert after.stow.modes[1].places == () and after.stow.modes[1].absent == ()


_edits = st.one_of(
    st.builds(lambda x: [set_to("stow.things.t1.x", {"si": x, "typed": None})], st.floats(-5, 9)),
    st.builds(lambda m: [set_to("stow.things.w1.mass", {"si": m, "typed": None})], st.floats(0, 90)),
    st.builds(lambda n: [set_to("rig.axles.a1.station", {"si": n, "typed": None})], st.floats(0.5, 6)),
    st.builds(lambda n: [add_to("stow.things", msgspec.to_builtins(a_thing(f"n{n}")))], st.integers(0, 10**6)),
    st.just([set_to("rig.suspension", "equalised")]),
    st.just([set_to("shell.form", "none")]),
)


@settings(max_examples=60)
@given(st.lists(st.tuples(_edits, st.sampled_from([None, "drag-1", "drag-2"])), max_size=12))
def test_undo_of_all_restores_the_start_and_redo_the_end(steps):
    start = a_project([a_thing("t1"), a_tank("w1")], shell=a_shell())
    history = History(start, saved=start)
    for ops, merge in steps:
        try:
            history = history.took("step", "Stow", (), history.project.with_build(apply(history.project.build, ops)), merge)
        except EditError:
            continue
    end = history.project
    while history.done:
        history = history.undo()

    assert history.project == start
    assert not history.modified
    while history.undone:
        history = history.redo()
    assert history.project == end


def test_a_drag_is_one_step_and_vanishes_when_it_comes_back():
    start = a_project([a_thing("t1", x=2.0)])

    def at(x):
        return start.with_build(apply(start.build, [set_to("stow.things.t1.x", {"si": x, "typed": None})]))

    history = History(start).took("Move", "Stow", ("t1",), at(2.1), "d").took("Move", "Stow", ("t1",), at(2.2), "d")

    assert len(history.done) == 1 and history.done[0].before is start
    assert history.took("Move", "Stow", ("t1",), at(2.0), "d").done == ()
    assert len(history.sealed().took("Move", "Stow", ("t1",), at(2.3), "d").done) == 2


def test_the_last_mode_stays_and_an_empty_list_of_modes_is_refused():
    build = a_build()
    one = apply(build, [remove("stow.modes.camp")])

    assert [mode.id for mode in one.stow.modes] == ["road"]
    for ops in ([remove("stow.modes.road")], [set_to("stow.modes", [])]):
        with pytest.raises(EditError):
            apply(one, ops)
    assert len(apply(one, [add_to("stow.modes", {"id": "m1", "name": "Ferry"})]).stow.modes) == 2


def test_many_added_in_a_row_are_those_added_one_by_one():
    start = a_build([a_thing("t1")], shell=a_shell())
    things = [add_to("stow.things", msgspec.to_builtins(a_thing(f"n{k}", x=2.0 + k / 100))) for k in range(30)]
    ops = [*things[:10], set_to("stow.things.n3.x", {"si": 9.0, "typed": None}), *things[10:], remove("stow.things.n4"), things[4]]
    slow = start
    for op in ops:
        slow = apply(slow, [op])
    assert apply(start, iter(ops)) == slow and len(slow.stow.things) == 31
    assert slow.stow.things[-1].id == "n4" and apply(start, things).stow.things[0] is start.stow.things[0]
    with pytest.raises(EditError, match="holds “n7” already"):
        apply(start, [*things, things[7]])
    with pytest.raises(EditError, match="There is no “n4”"):
        apply(start, [things[4], remove("stow.things.n4"), remove("stow.things.n4")])


def test_a_list_is_looked_through_once_for_all_that_is_added(monkeypatch):
    """A list of things that is brought in takes its length in steps, not its square."""
    looked = []
    monkeypatch.setattr(
        edits, "_items_added", lambda old, added, *more, go=edits._items_added: looked.append(len(added)) or go(old, added, *more)
    )
    apply(a_build([a_thing("t1")]), [add_to("stow.things", msgspec.to_builtins(a_thing(f"n{k}"))) for k in range(200)])
    assert looked == [200]


def test_the_table_of_things_makes_each_line_once(monkeypatch):
    made = []
    monkeypatch.setattr(catalogue_line, "line_of", lambda thing, go=catalogue_line.line_of: made.append(thing.id) or go(thing))
    text = catalogue_line.csv_text(tuple(a_thing(f"t{k}") for k in range(5)))
    assert made == ["t0", "t1", "t2", "t3", "t4"] and text.count("\n") == 6
