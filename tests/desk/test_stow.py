import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtWidgets import QLineEdit

from tests.builders import a_project, a_rig, a_shell, a_tank, a_thing
from tests.desk.driving import drag, key, middle_of, move, press, release, type_words, wheel
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.exchange.demos import demo

CTRL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier


@pytest.fixture
def stow(open_on):
    things = [a_thing("t1", x=1.6, z=0.59), a_thing("t2", x=3.0, z=0.59, size=(0.3, 0.3, 0.3)), a_tank("w1", x=2.3, y=0.4, z=0.59)]
    window = open_on(a_project(things, shell=a_shell(), rig=a_rig(axle_place="to be placed")), judged=False)
    return window.session, window.bench("Stow").sheet, window


def thing(session, id="t1"):
    return next(t for t in session.build.stow.things if t.id == id)


def test_a_drag_moves_the_thing_as_one_step_and_undo_takes_it_back(stow):
    session, sheet, _ = stow
    before, tongue = session.build, session.studied.readings.tongue_kg[0]

    drag(sheet, middle_of(sheet, "t1"), (0.5 * sheet.scale, 0), CTRL)

    assert thing(session).x.si == pytest.approx(2.1, abs=0.01)
    assert session.studied.readings.tongue_kg[0] < tongue
    assert len(session.history.done) == 1 and session.history.done[0].says == "Move the box t1"
    session.undo()
    assert session.build == before


def test_side_and_plan_move_different_axes(stow):
    session, sheet, _ = stow

    drag(sheet, middle_of(sheet, "t1", "plan"), (0, -0.2 * sheet.scale), CTRL)
    assert thing(session).y.si == pytest.approx(0.2, abs=0.01) and thing(session).z.si == pytest.approx(0.59)

    drag(sheet, middle_of(sheet, "t1", "side"), (0, -0.3 * sheet.scale), CTRL)
    assert thing(session).z.si == pytest.approx(0.89, abs=0.01)


def test_edges_snap_to_faces_unless_ctrl_is_held(stow):
    session, sheet, _ = stow
    by = (3.0 - 0.4 - 1.6) * sheet.scale + 3

    drag(sheet, middle_of(sheet, "t1"), (by, 0))

    assert thing(session).x.si == pytest.approx(2.6, abs=1e-6)


def test_a_tremble_does_not_lift_a_thing_off_the_floor(stow):
    session, sheet, _ = stow

    drag(sheet, middle_of(sheet, "t1"), (60, 5))

    assert thing(session).z.si == pytest.approx(0.59)


def test_a_number_typed_while_dragging_places_exactly(stow):
    session, sheet, _ = stow
    start = middle_of(sheet, "t1")
    press(sheet, start)
    move(sheet, start + QPointF(30, 0))
    type_words(sheet, "1850")
    key(sheet, Qt.Key.Key_Return)

    assert thing(session).x.si == pytest.approx(1.85)
    assert len(session.history.done) == 1 and sheet.gesture is None


def test_escape_during_a_drag_leaves_no_step(stow):
    session, sheet, _ = stow
    before = session.project
    start = middle_of(sheet, "t1")
    press(sheet, start)
    move(sheet, start + QPointF(80, 0))
    assert session.project != before
    key(sheet, Qt.Key.Key_Escape)

    assert session.project == before and session.history.done == ()


def test_a_drag_that_returns_keeps_what_was_typed(stow):
    session, sheet, _ = stow
    session.edit("x", [set_to("stow.things.t1.x", {"si": 1.6, "typed": "1600 mm"})])
    steps = len(session.history.done)
    start = middle_of(sheet, "t1")
    press(sheet, start)
    for x in (40, 80, 0):
        move(sheet, start + QPointF(x, 0), keys=CTRL)
    release(sheet, start)

    assert thing(session).x.typed == "1600 mm" and len(session.history.done) == steps


def test_many_things_move_together(stow):
    session, sheet, _ = stow
    press(sheet, middle_of(sheet, "t1"))
    release(sheet, middle_of(sheet, "t1"))
    press(sheet, middle_of(sheet, "t2"), keys=SHIFT)
    release(sheet, middle_of(sheet, "t2"))
    assert session.selection == ("t1", "t2")

    drag(sheet, middle_of(sheet, "t1"), (0.2 * sheet.scale, 0), CTRL)

    assert thing(session, "t2").x.si == pytest.approx(3.2, abs=0.01) and thing(session, "t1").x.si == pytest.approx(1.8, abs=0.01)


def test_a_rectangle_picks_things(stow):
    session, sheet, _ = stow
    corner = sheet.frame("side").point((1.5, 1.6))
    end = sheet.frame("side").point((3.5, 0.52))

    drag(sheet, corner, (end.x() - corner.x(), end.y() - corner.y()))

    assert set(session.selection) == {"t1", "t2", "w1"}


@pytest.mark.parametrize(("imperial", "step"), [(False, 0.01), (True, 0.0127)])
def test_arrows_nudge(stow, imperial, step):
    session, sheet, _ = stow
    if imperial:
        session.edit("units", [set_to("brief.reading.length", "ft-in")])
    session.select(("t1",))
    key(sheet, Qt.Key.Key_Right)
    key(sheet, Qt.Key.Key_Right, keys=SHIFT)

    assert thing(session).x.si == pytest.approx(1.6 + 11 * step)
    assert session.history.done[-1].says == "Nudge a thing"


def test_turn_copy_delete(stow):
    session, _, window = stow
    bench = window.bench("Stow")
    session.select(("w1",))
    session.edit("long", [set_to("stow.things.w1.length", {"si": 0.8})])
    bench.turn()
    assert thing(session, "w1").turn == 90
    assert thing(session, "w1").x.si == pytest.approx(2.5)

    bench.copy()
    assert session.selection == ("t3",) and thing(session, "t3").name.endswith("copy")
    bench.delete()
    assert [t.id for t in session.build.stow.things] == ["t1", "t2", "w1"]
    for _ in range(4):
        session.undo()
    assert session.history.done == ()


def test_adding_from_the_catalogue(stow):
    session, _, window = stow
    bench = window.bench("Stow")
    bench.open_shelf()
    bench.shelf.search.setText("fresh 70")
    assert bench.shelf.list.count() == 1
    bench.shelf.search.returnPressed.emit()

    made = thing(session, "t3")
    assert made.tank.volume.si == pytest.approx(0.07) and session.selection == ("t3",)
    bench.shelf.search.setText("xqzvw")
    assert "Nothing is called so" in bench.shelf.list.item(0).text() and "Make my own: xqzvw" in bench.shelf.list.item(1).text()
    bench.shelf.search.returnPressed.emit()
    own = session.build.stow.things[-1]
    assert (own.name, own.source) == ("xqzvw", "guessed") and session.selection == (own.id,)


def test_every_catalogue_thing_can_be_added(stow):
    session, _, window = stow
    for entry in entries()[::16]:
        window.bench("Stow").add(entry)

    assert len(entries()) >= 150
    assert len(session.build.stow.things) == 3 + len(entries()[::16])
    assert len({e.id for e in entries()}) == len(entries())


def test_zoom_keeps_the_point_under_the_hand_and_fit_comes_back(stow):
    _, sheet, _ = stow
    at = QPointF(300, 200)
    here, scale = sheet.frame("side").metres(at), sheet.scale
    wheel(sheet, at, 3)

    assert sheet.scale > scale
    assert sheet.frame("side").metres(at) == pytest.approx(here)
    drag(sheet, QPointF(300, 200), (40, 10), button=Qt.MouseButton.MiddleButton)
    assert sheet.frame("side").metres(at + QPointF(40, 10)) == pytest.approx(here)
    sheet.fit()
    assert sheet.scale == pytest.approx(scale)


def test_the_tape_measures(stow):
    session, sheet, window = stow
    window.bench("Stow").measure()
    frame = sheet.frame("side")
    a, b = frame.point((1.0, 0.5)), frame.point((2.0, 0.5))
    drag(sheet, a, (b.x() - a.x(), b.y() - a.y()))
    sheet.grab()

    assert any(w.text == "1000 mm" for w in sheet.written)
    key(sheet, Qt.Key.Key_Escape)
    assert sheet.tape is None and not sheet.measuring and session.history.done == ()


def test_the_axle_is_dragged_while_it_is_not_welded(stow):
    session, sheet, _ = stow
    wheel_at = sheet.frame("side").point((3.0, 0.25))

    drag(sheet, wheel_at, (0.2 * sheet.scale, 0))
    assert session.build.rig.axles[0].station.si == pytest.approx(3.2, abs=0.01)

    session.edit("weld", [set_to("rig.axle_place", "fixed")])
    drag(sheet, sheet.frame("side").point((3.2, 0.25)), (0.2 * sheet.scale, 0))
    assert session.build.rig.axles[0].station.si == pytest.approx(3.2, abs=0.01)


def test_in_camp_a_drag_changes_the_place_in_camp_only(stow):
    session, sheet, window = stow
    session.edit("away", [set_to("stow.modes.camp.places", [{"id": "t2", "x": {"si": 3.2}, "y": {"si": 0.0}, "z": {"si": 0.59}}])])
    window.bench("Stow").show_mode("camp")
    drag(sheet, middle_of(sheet, "t1"), (0.3 * sheet.scale, 0), CTRL)

    assert thing(session).x.si == pytest.approx(1.6)
    assert session.build.stow.modes[1].places[-1].x.si == pytest.approx(1.9, abs=0.01)


def test_a_bob_can_be_dragged_and_picked(stow):
    session, _, window = stow
    line = window.sled_line
    line.grab()
    hung = next(h for h in line.hung if h.bob.ids == ("t1",))
    at = QPointF(hung.x, 30 + hung.drop)
    drag(line, at, (0.4 * line.axis[1], 0))

    assert thing(session).x.si == pytest.approx(2.0, abs=0.02)
    assert session.selection == ("t1",) and len(session.history.done) == 1


def test_bobs_hang_straight_under_their_things(stow):
    _, sheet, window = stow
    window.sled_line.grab()
    hung = next(h for h in window.sled_line.hung if h.bob.ids == ("t1",))

    on_sheet = sheet.mapTo(window, middle_of(sheet, "t1").toPoint()).x()
    assert window.sled_line.mapTo(window, QPointF(hung.x, 0).toPoint()).x() == pytest.approx(on_sheet, abs=1.5)


def test_at_most_fourteen_bobs(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    window.sled_line.grab()

    assert 8 <= len(window.sled_line.hung) <= 14
    assert sum(h.bob.mass_kg for h in window.sled_line.hung) == pytest.approx(window.session.studied.readings.total_kg[0])


def test_crowded_bobs_merge_by_group_and_keep_the_heavy_ones_single(open_on):
    for name in ("marsh-heron", "rosin-box", "orchard-keeper", "dark-sky"):
        window = open_on(demo(name), size=(1100, 700), judged=False)
        for stop in ("Rig", "Shell", "Stow"):
            window.session.go_to(stop)
            window.grab()

            assert 8 <= len(window.sled_line.hung) <= 14
            assert sum(h.crowded for h in window.sled_line.hung) <= 2
            assert max(len(h.bob.ids) for h in window.sled_line.hung if h.bob.group != "shell") < 12


def test_an_odd_build_is_drawn_without_complaint(open_on):
    """No size, huge, far away, negative place, no track, nothing at all."""
    odd = [
        a_thing("t1", size=(0, 0, 0)),
        a_thing("t2", size=(30, 8, 9)),
        a_thing("t3", x=-40),
        a_tank("w1", litres=0),
        a_thing("t4", mass=9e5, x=900),
    ]
    for project in (a_project(odd, shell=a_shell()), a_project(), a_project(odd, rig=a_rig(axle=-1)), a_project(rig=a_rig(track=None))):
        window = open_on(project, judged=False)
        for stop in ("Brief", "Rig", "Shell", "Stow", "Balance"):
            window.session.go_to(stop)
            window.grab()

    assert apply(project.build, []) is project.build


@pytest.mark.parametrize(
    ("id", "first"),
    [
        ("t1", ["Name", "Holds", "What"]),
        ("t3", ["Name", "Holds", "Stores"]),
        ("t7", ["Name", "Takes", "Hours a day"]),
        ("t5", ["Name", "Weight", "Known by"]),
    ],
)
def test_what_one_came_for_stands_first_in_hand(open_on, id, first):
    window = open_on(demo("marsh-heron"), judged=False)
    hand = window.in_hand
    window.session.select((id,))
    titles = [row.title for row, _, _ in hand.form.rows]
    assert titles[:3] == first
    everywhere = [row.path for form in (hand.form, *hand.sections) for row, _, _ in form.rows if row.path.count(".") > 2]
    assert len([path for path in everywhere if path.endswith((".power_w", ".amp_hours"))]) == 2  # moved, not told twice
    hand.area.verticalScrollBar().setRange(0, 400)
    hand.area.verticalScrollBar().setValue(300)
    window.session.select(("t8",))
    assert hand.area.verticalScrollBar().value() == 0


def test_what_is_typed_goes_with_the_thing_it_belongs_to(open_on):
    """A hand types, takes the thing out, and only then leaves the field."""
    window = open_on(demo("rosin-box"))
    session, said = window.session, []
    session.said.connect(lambda words, kind: said.append((words, kind)))
    session.go_to("Stow")
    id = session.build.stow.things[0].id
    session.select((id,))
    form = window.in_hand.form
    typed = 0
    lines = [field for _, _, field in form.rows if isinstance(field, QLineEdit) and not field.isHidden()]
    for field in lines:
        field.setText("1")
        field.setModified(True)
    session.edit("Take it out", [remove(f"stow.things.{id}")], "Stow")
    after = session.project
    for field in lines:
        field.commit()  # type: ignore[attr-defined]
        typed += 1
    assert typed >= 6 and session.project is after
    assert not [words for words, kind in said if kind == "stop"]
