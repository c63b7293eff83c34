import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QFileDialog, QMessageBox

from tests.builders import IMPERIAL, METRIC, a_project, a_shell, a_thing
from tests.desk.driving import drag, forms_on, key, middle_of
from tests.judging import judged_once
from uncle_sled.catalogue.search import sayings
from uncle_sled.catalogue.things import entries
from uncle_sled.core.document import variants
from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Length, Mass
from uncle_sled.core.findings.finding import to_settle
from uncle_sled.core.trail import TRAIL
from uncle_sled.desk.frame.sled_reading import reading
from uncle_sled.desk.kit.fields import QuantityField
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.demos import demo

CTRL = Qt.KeyboardModifier.ControlModifier


def card(window):
    """The ball's card, where there is one."""
    cards = window.says.cards
    return next((one for key, one in cards.items() if key[0].startswith("ball-")), None) or next(iter(cards.values()))


def test_journey_open_drag_read_try_keep_undo_save_reopen(open_on, tmp_path):
    path = tmp_path / "heron.sled"
    sled_file.save(demo("marsh-heron"), path)
    window = open_on(sled_file.read(path), path)
    session, sheet = window.session, window.bench("Stow").sheet
    start = session.project
    session.show_case("coming-home")
    assert reading(session.studied, session.row).state == "mind"
    assert window.says.count.text() == f"{to_settle(session.findings)} to settle"

    drag(sheet, middle_of(sheet, "t2"), (-0.3 * sheet.scale, 0), CTRL)
    assert session.studied.readings.tongue_kg[session.row] > 28.3
    session.undo()
    session.judge(judged_once(session.studied))

    card(window).try_button.click()
    tried = session.ghost_studied.readings.tongue_kg[session.row]
    assert session.project == start and tried > 30
    window.sled_line.grab()
    was = f"was {session.studied.readings.tongue_kg[session.row]:.0f}"
    assert any(was in w.text for w in window.sled_line.written)
    card(window).keep_button.click()
    assert session.ghost is None and session.studied.readings.tongue_kg[session.row] == tried
    assert not [key for key in window.says.cards if key[0].startswith("ball-")]
    assert window.says.count.text() == f"{to_settle(session.findings)} to settle"

    session.undo()
    assert session.project == start
    session.redo()
    assert window.save() and not session.history.modified
    again = open_on(sled_file.read(path), path)
    assert again.session.project == session.project
    assert {one.stop for one in again.session.findings} == {"Shell", "Stow", "Systems", "Cut", "Build", "Road"}


def test_what_is_tried_is_put_back_before_any_other_edit(open_on):
    window = open_on(demo("marsh-heron"))
    session, said = window.session, []
    session.said.connect(lambda text, _: said.append(text))
    for act in (
        lambda: session.edit("other", [set_to("rig.track", {"si": 1.7})]),
        lambda: session.go_to("Rig" if session.stop != "Rig" else "Stow"),
        lambda: session.undo(),
        lambda: window.escape(),
    ):
        session.judge(judged_once(session.studied))
        window.try_worst()
        assert session.ghost is not None
        act()
        assert session.ghost is None

    assert sum("Put back" in text for text in said) >= 4
    assert [t.x.si for t in session.build.stow.things if t.id == "t2"] == [3.8]


def test_undo_goes_to_the_stop_of_the_step(open_on):
    window = open_on(a_project([a_thing()], shell=a_shell()), judged=False)
    session = window.session
    session.go_to("Rig")
    session.edit("Track: 1.7 m", [set_to("rig.track", {"si": 1.7})])
    session.go_to("Shell")
    session.undo()

    assert session.stop == "Rig" and window.stack.currentWidget() is window.benches["Rig"]


def test_every_stop_opens_by_its_key_and_says_its_state(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    for stop in TRAIL:
        window.acts.qt[f"stop-{stop.lower()}"].trigger()
        words, _ = window.trail.states[stop]

        assert window.session.stop == stop and 0 < len(words) <= 16


def test_cases_step_and_wrap(open_on):
    session = open_on(demo("marsh-heron"), judged=False).session
    session.step_case(-1)
    assert session.case_id == "camp"
    session.step_case(1)

    assert session.case_id == "going-out"


def test_camp_shows_the_jack_and_keeps_the_towing_reading(open_on):
    session = open_on(demo("marsh-heron"), judged=False).session
    session.show_case("camp")
    said = reading(session.studied, session.row)

    assert said.title == "On the jack" and "39 kg" in said.last


def test_a_bed_shows_two_axles_and_no_ball(open_on):
    session = open_on(demo("dark-sky"), judged=False).session
    said = reading(session.studied, 0)

    assert said.title == "Rear axle" and said.beside[0].startswith("front ") and said.beside[1].endswith(" left")


def test_the_finder_finds_actions_things_and_cases(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    window.find_anything()
    for words, seen in (
        ("grey jug", "Grey jug"),
        ("coming home", "Case: Coming home"),
        ("measure", "Measure"),
        ("nose light", "Uncle: Nose"),
    ):
        window.finder.fill(words)
        assert seen in window.finder.list.item(0).text()
    window.finder.fill("grey jug")
    window.finder.take(window.finder.list.item(0))

    assert window.session.selection == ("t2",)


def test_a_field_takes_any_unit_and_keeps_what_was_wrong(open_on, qtbot):
    window = open_on(a_project([a_thing()], shell=a_shell()), judged=False)
    session = window.session
    session.go_to("Rig")
    form = next(one for one in forms_on(window.bench("Rig")) if any(row.path == "rig.track" for row, _, _ in one.rows))
    field = next(f for row, _, f in form.rows if row.path == "rig.track")
    before = session.project

    def enter(words):
        field.setFocus()
        field.selectAll()
        field.insert(words)
        field.setModified(True)
        key(field, Qt.Key.Key_Return)

    enter("5 ft 6")
    assert session.build.rig.track == Length(1.6764, "5 ft 6")
    for wrong, says in (("3 kg", "is a weight"), ("-2", "less than nothing"), ("wide", "cannot be read")):
        enter(wrong)
        assert field.text() == wrong and field.property("wrong") == "true"
        assert says in form.complaint.text() and session.build.rig.track.typed == "5 ft 6"
    key(field, Qt.Key.Key_Escape)
    assert field.property("wrong") == "false" and form.complaint.text() == ""
    enter("")
    assert session.build.rig.track is None
    while session.history.done:
        session.undo()
    assert session.project == before


def test_arrow_keys_step_a_field(qapp):
    took = []
    field = QuantityField(Mass, "Weight", lambda: METRIC)
    field.entered.connect(took.append)
    field.show_value(Mass(10.0, "10 kg"))
    key(field, Qt.Key.Key_Up)
    key(field, Qt.Key.Key_Down, keys=Qt.KeyboardModifier.ShiftModifier)
    field.show_value(Mass(0.2))
    key(field, Qt.Key.Key_Down)
    imperial = QuantityField(Length, "Long", lambda: IMPERIAL)
    imperial.entered.connect(took.append)
    imperial.show_value(Length(0.3048))
    key(imperial, Qt.Key.Key_Up)

    assert [q.si for q in took] == pytest.approx([10.5, 5.0, 0.0, 0.3175])


def test_the_forms_edit_people_vehicles_faces_and_profile(open_on):
    window = open_on(a_project(shell=a_shell()), judged=False)
    session = window.session
    session.go_to("Brief")
    window.bench("Brief").add_person()
    window.bench("Brief").add_vehicle()
    assert session.facts.people[0].id == "p1" and session.facts.vehicles[0].id == "v1"
    session.go_to("Shell")
    window.bench("Shell").take_profile("wedge")
    window.bench("Shell").add_face("bulkhead")
    assert session.build.shell.faces[-1].kind == "bulkhead" and len(session.build.shell.profile) == 5
    session.go_to("Rig")
    window.bench("Rig").add_axle()
    first, second = session.build.rig.axles
    assert session.build.rig.suspension == "equalised" and second.mass == first.mass and second.rating == first.rating
    assert second.station.si == pytest.approx(first.station.si + 0.86) and second.id != first.id
    window.bench("Rig").take_axle()
    assert session.build.rig.suspension == "single"
    window.grab()
    while session.history.done:
        session.undo()
        window.grab()
    assert session.project == a_project(shell=a_shell())


def test_a_damaged_file_is_said_and_nothing_changes(open_on, tmp_path):
    window = open_on(a_project([a_thing()]), judged=False)
    (tmp_path / "bad.sled").write_text('{"format": "uncle-sled", "version": 1, "name": 4}')
    before = window.session.project

    assert window.open_path(tmp_path / "bad.sled") is False
    assert "name: 4 is not of type" in window.notice.text() and window.notice.isVisible()
    assert window.session.project is before


def test_saving_where_nothing_can_be_saved_is_said(open_on, tmp_path):
    window = open_on(a_project([a_thing()]), judged=False)
    window.session.edit("x", [set_to("rig.track", {"si": 1.7})])

    assert window.session.save(tmp_path / "no" / "x.sled") is False
    assert "could not be saved" in window.notice.text() and window.session.history.modified


def test_leaving_unsaved_work_asks_and_stays(open_on, monkeypatch):
    window = open_on(a_project([a_thing()]), judged=False)
    window.session.edit("x", [set_to("rig.track", {"si": 1.7})])
    monkeypatch.setattr(QMessageBox, "exec", lambda self: 0)
    monkeypatch.setattr(QMessageBox, "clickedButton", lambda self: next(b for b in self.buttons() if b.text() == "Stay here"))
    window.open_demo("dark-sky")

    assert window.session.project.name == "Test sled"


def test_save_as_and_export_through_the_dialogs(open_on, tmp_path, monkeypatch):
    window = open_on(demo("rosin-box"))
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a: (str(tmp_path / "box"), ""))
    assert window.save_as() and (tmp_path / "box.sled").exists()
    for kind in ("pdf", "svg", "csv"):
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a, k=kind: (str(tmp_path / f"s.{k}"), ""))
        window.export(kind)
        assert (tmp_path / f"s.{kind}").stat().st_size > 500
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *a: (str(tmp_path), ""))
    window.export("csv")
    assert "is a folder" in window.notice.text()


def test_small_windows_fold_and_the_drawer_opens(open_on, qapp):
    window = open_on(demo("marsh-heron"), size=(900, 640), judged=False)

    assert window.trail.width() == 48 and not window.right.isVisible() and window.sled_line.height() == 44
    window.drawer_button.click()
    assert window.right.isVisible() and str(to_settle(window.session.findings)) in window.drawer_button.text()
    window.resize(1280, 800)
    qapp.processEvents()
    assert window.trail.width() == 132 and window.right.isVisible() and window.sled_line.height() == 150


def test_an_empty_build_is_shown_and_grows_by_its_first_entries(open_on):
    from uncle_sled.core.document.project import empty_project

    window = open_on(empty_project(), judged=False)
    session = window.session
    window.grab()
    assert reading(session.studied, 0).big == "–"
    session.go_to("Rig")
    window.bench("Rig").add_axle()
    session.edit("frame", [set_to("rig.frame_mass", {"si": 100.0}), set_to("rig.frame_length", {"si": 4.0})])
    window.grab()

    assert reading(session.studied, 0).kg is not None


def titles_in(window, words):
    window.find_anything()
    window.finder.line.setText(words)
    made = [window.finder.list.item(at).text() for at in range(window.finder.list.count())]
    window.finder.hide()
    return made


@pytest.mark.parametrize(
    ("words", "wanted"),
    [
        ("held", "View: Stow, Held"),
        ("lithium", "Add: Battery"),
        ("fridge", "Add: Cupboard fridge"),
        ("limits", "View: Balance, Limits"),
        ("propane cylinder", "Gas cylinder"),
        ("strap", "View: Stow, Held"),
        ("diesel heater", "Add: Air heater 2 kW"),
        ("roof vent", "Add: Roof fan"),
        ("window", "Cut in an opening"),
        ("tv", "Add a thing from the catalogue"),
        ("mppt", "Add: Solar charge controller"),
        ("weighbridge", "A new weigh-in"),
        ("units", "Settings"),
        ("feet", "Settings"),
        ("liner", "View: Shell, Reline"),
        ("gas bottle", "Add: Gas cylinder"),
        ("loo", "Add: Portable toilet"),
    ],
)
def test_the_finder_knows_views_shelves_and_what_people_say(open_on, words, wanted):
    window = open_on(demo("marsh-heron"))

    assert any(wanted in title for title in titles_in(window, words))


def test_the_finder_says_so_when_it_finds_nothing(open_on):
    window = open_on(demo("marsh-heron"))

    assert titles_in(window, "xqzvw")[-1] == "Make my own thing: xqzvw" and "Nothing is called so" in titles_in(window, "xqzvw")[0]
    window.finder.take(window.finder.list.item(0))
    assert window.session.project == demo("marsh-heron")
    window.finder.take(window.finder.list.item(window.finder.list.count() - 1))
    assert window.session.build.stow.things[-1].name == "xqzvw"
    assert any("fridge" in title.lower() for title in titles_in(window, "frigde"))


def test_every_word_that_people_say_leads_somewhere(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    window.find_anything()
    lost = []
    for said in sayings():
        window.finder.line.setText(" ".join(said))
        if window.finder.near:
            lost.append(" ".join(said))
    assert lost == []


def test_what_goes_with_a_thing_is_added_in_one_step(open_on):
    window = open_on(demo("dark-sky"), judged=False)
    session = window.session
    window._add_thing(next(entry for entry in entries() if entry.id == "heater-diesel"))
    QApplication.processEvents()
    many = len(session.build.stow.things)
    verb = next(field for row, _, field in window.in_hand.form.rows if "goes with it" in row.title or row.title.startswith("Add "))
    verb.click()
    assert len(session.build.stow.things) > many
    session.undo()
    assert len(session.build.stow.things) == many


def test_a_thing_found_on_the_shelf_is_added(open_on):
    window = open_on(demo("rosin-box"))
    many = len(window.session.build.stow.things)
    window.find_anything()
    window.finder.line.setText("co alarm")
    window.finder.take(window.finder.list.item(0))

    assert window.session.stop == "Stow" and len(window.session.build.stow.things) == many + 1
    assert window.session.build.stow.things[-1].roles == ("CO alarm",)
    assert not any(unit in title for title in titles_in(window, "fresh tank") for unit in (" L,", " kg,"))


def test_keys_lead_to_what_is_in_hand_and_to_uncle(open_on, qapp):
    window = open_on(demo("marsh-heron"))
    window.session.select((window.session.build.stow.things[0].id,))
    qapp.processEvents()
    window.acts.qt["to-hand"].trigger()
    assert window.in_hand.isAncestorOf(qapp.focusWidget())
    window.acts.qt["to-uncle"].trigger()
    assert window.says.isAncestorOf(qapp.focusWidget())


def test_the_toast_stands_at_the_foot_and_lets_clicks_through(open_on):
    window = open_on(demo("marsh-heron"))
    window.say("Something that was done.", "note")

    assert window.notice.testAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
    foot = window.stack.mapTo(window, window.stack.rect().bottomLeft()).y()
    assert foot - 120 < window.notice.geometry().bottom() <= foot


def test_looking_at_another_variant_changes_nothing_to_save(open_on):
    window = open_on(demo("marsh-heron"))
    session = window.session
    session.take("keep", variants.keep_as(session.project, "another"))
    session.history = session.history.was_saved()
    first = session.project.variants[0].id
    session.take("open", variants.opened(session.project, first))

    assert session.project.open_variant == first and not session.history.modified
    session.edit("a change", [set_to("brief.pets", 2)], "Brief")
    assert session.history.modified


def test_another_build_begins_on_first_views(open_on):
    window = open_on(demo("marsh-heron"))
    window.session.go_to("Stow")
    window.bench("Stow").show_view("Held")
    window.session.history = window.session.history.was_saved()
    window.open_demo("rosin-box")

    assert window.bench("Stow").view == "Drawing"


def test_an_axle_moved_on_balance_is_undone_there(open_on):
    window = open_on(demo("marsh-heron"))
    session = window.session
    session.go_to("Balance")
    session.select((session.build.rig.axles[0].id,))
    field = next(field for row, _, field in window.in_hand.form.rows if row.path.endswith("station"))
    field.setText("2.80 m")
    field.setModified(True)
    field.editingFinished.emit()
    assert session.build.rig.axles[0].station.si == 2.80
    session.undo()

    assert session.stop == "Balance"
