"""What a hand meets: edges, tags, the selection that keeps the drag, where, Tab, tables, lists that drop down."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QComboBox

from tests.builders import a_project, a_shell, a_thing
from tests.desk.driving import bench_on, drag, middle_of, press, release
from tests.desk.walk import every_view
from uncle_sled.core.document.edits import set_to
from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.kit.columns import split
from uncle_sled.desk.kit.fields import ChoiceField
from uncle_sled.desk.kit.table import Table
from uncle_sled.desk.worker import Worker
from uncle_sled.exchange.demos import demo


def _edge(sheet, id, side, surface):
    cut = next(c for c in sheet.session.studied.framed.cuts if c.id == id)
    left, low, right, high = sheet.laid_of(surface).bounds(cut.shape.bounds)
    frame = sheet.frame("side" if hasattr(sheet, "fit") and hasattr(sheet, "view") else surface.id)
    spots = {
        "left": (left, (low + high) / 2),
        "right": (right, (low + high) / 2),
        "low": ((left + right) / 2, low),
        "high": ((left + right) / 2, high),
    }
    return frame.point(spots[side])


@pytest.mark.parametrize("side", ["left", "right", "low", "high"])
def test_an_opening_is_sized_by_each_of_its_edges(open_on, side):
    _, session, bench = bench_on(open_on, "marsh-heron", "Shell", "Openings")
    opening = next(o for o in session.build.shell.openings if o.face == "left side" and o.kind == "window")
    session.select((opening.id,))
    surface = next(one for one in session.studied.framed.body.surfaces if one.id == "left side")
    by = {"left": (-30, 0), "right": (30, 0), "low": (0, 30), "high": (0, -30)}[side]
    drag(bench.sheet, QPointF(_edge(bench.sheet, opening.id, side, surface)), by)
    now = next(o for o in session.build.shell.openings if o.id == opening.id)
    grown, still = ("width", "height") if side in ("left", "right") else ("height", "width")
    assert getattr(now, grown).si > getattr(opening, grown).si + 0.03
    assert getattr(now, still) == getattr(opening, still)
    # the edge across from it stays where it was
    far = {"left": now.along.si + now.width.si, "right": now.along.si, "low": now.up.si + now.height.si, "high": now.up.si}
    was = {
        "left": opening.along.si + opening.width.si,
        "right": opening.along.si,
        "low": opening.up.si + opening.height.si,
        "high": opening.up.si,
    }
    assert far[side] == pytest.approx(was[side], abs=2e-4)
    session.undo()
    assert next(o for o in session.build.shell.openings if o.id == opening.id) == opening


@pytest.mark.parametrize("side", ["left", "right", "low", "high"])
def test_a_tail_hatch_is_sized_on_the_bent_skin_that_stands_upright(open_on, side):
    _, session, bench = bench_on(open_on, "marsh-heron", "Shell", "Openings")
    hatch = next(o for o in session.build.shell.openings if o.face == "rear")
    session.select((hatch.id,))
    QApplication.processEvents()
    flat = bench.panel("Openings").flat
    surface = flat.surfaces()[0]
    by = {"left": (20, 0), "right": (-20, 0), "low": (0, -14), "high": (0, 14)}[side]
    cut = next(c for c in session.studied.framed.cuts if c.id == hatch.id)
    left, low, right, high = flat.laid_of(surface).bounds(cut.shape.bounds)
    spot = {
        "left": (left, (low + high) / 2),
        "right": (right, (low + high) / 2),
        "low": ((left + right) / 2, low),
        "high": ((left + right) / 2, high),
    }[side]
    drag(flat, QPointF(flat.frame(surface.id).point(spot)), by)
    now = next(o for o in session.build.shell.openings if o.id == hatch.id)
    field = "width" if side in ("left", "right") else "height"
    assert getattr(now, field).si < getattr(hatch, field).si - 0.01
    after = next(c for c in session.studied.framed.cuts if c.id == hatch.id)
    edges = dict(zip(("left", "low", "right", "high"), flat.laid_of(surface).bounds(after.shape.bounds), strict=True))
    across = {"left": "right", "right": "left", "low": "high", "high": "low"}[side]
    assert edges[across] == pytest.approx({"left": left, "low": low, "right": right, "high": high}[across], abs=2e-3)


def test_a_number_typed_while_an_edge_is_pulled_is_the_size(open_on):
    _, session, bench = bench_on(open_on, "marsh-heron", "Shell", "Openings")
    opening = next(o for o in session.build.shell.openings if o.face == "left side" and o.kind == "window")
    session.select((opening.id,))
    surface = next(one for one in session.studied.framed.body.surfaces if one.id == "left side")
    press(bench.sheet, QPointF(_edge(bench.sheet, opening.id, "right", surface)))
    QTest.keyClicks(bench.sheet, "0.5")
    bench.sheet.grab()
    assert any("width 0.5" in one.text for one in bench.sheet.written)
    QTest.keyClick(bench.sheet, Qt.Key.Key_Return)
    assert next(o for o in session.build.shell.openings if o.id == opening.id).width.si == pytest.approx(0.5)


def test_what_is_selected_keeps_the_drag_and_a_click_takes_what_lies_over_it(open_on):
    things = [a_thing("bed", x=1.6, size=(1.9, 1.2, 0.4)), a_thing("box", x=2.3, size=(0.4, 0.4, 0.3))]
    window = open_on(a_project(things, shell=a_shell()), judged=False)
    session = window.session
    session.go_to("Stow")
    sheet = window.bench("Stow").sheet
    session.select(("bed",))
    spot = QPointF(middle_of(sheet, "box"))
    drag(sheet, spot, (40, 0))
    at = {t.id: t.x.si for t in session.build.stow.things}
    assert at["bed"] > 1.65 and at["box"] == 2.3 and session.selection == ("bed",)
    press(sheet, QPointF(middle_of(sheet, "box")))
    release(sheet, QPointF(middle_of(sheet, "box")))
    assert session.selection == ("box",)


def test_things_meet_ceiling_roof_walls_and_frame(open_on):
    window = open_on(a_project([a_thing("box", x=2.0, size=(0.4, 0.4, 0.3))], shell=a_shell()), judged=False)
    session = window.session
    session.go_to("Stow")
    sheet = window.bench("Stow").sheet
    from uncle_sled.core.studies.stow.room import room_of

    room = room_of(session.build, session.facts)
    ceiling = min(room.ceiling_m(x) for x in (2.0, 2.4))
    up = (ceiling - 0.3 - session.build.stow.things[0].z.si) * sheet.scale
    drag(sheet, QPointF(middle_of(sheet, "box")), (0, -up + 3), steps=12)
    assert session.build.stow.things[0].z.si + 0.3 == pytest.approx(ceiling, abs=2e-3)
    snaps = __import__("uncle_sled.desk.sheet.snapping", fromlist=["snaps_for"]).snaps_for(session.build, session.facts, [], session.shown)
    shell, rig = session.build.shell, session.build.rig
    assert {shell.front.si, shell.front.si + shell.length.si} <= set(snaps.edges["x"])
    assert {-shell.width.si / 2, shell.width.si / 2} <= set(snaps.edges["y"])
    assert rig.frame_top is None or rig.frame_top.si in snaps.edges["z"]


def test_where_always_points_and_holds_until_the_next_click(open_on):
    for name in ("orchard-keeper", "dark-sky", "rosin-box"):
        window = open_on(demo(name))
        session = window.session
        for one in [one for one in session.findings if one.key in window.says.cards]:  # the others are counted only
            session.go_to("Balance")
            if one.key not in window.says.cards:
                continue  # there are twelve cards, and which depends on where one stands
            window.says.cards[one.key].point_button.click()
            QApplication.processEvents()
            bench = window.bench(session.stop)
            if one.stop in ("Cut", "Build", "Road"):  # shown by the view that it is of
                assert session.stop == one.stop and bench.view in bench.view_buttons, one.code
                continue
            if one.stop == "Systems":  # shown on a chart or the diagram, with what it is in hand
                assert session.stop == "Systems" and (session.selection or bench.view in ("Charge", "Water", "Gas", "Warmth", "Sweat")), (
                    one.code
                )
                continue
            assert bench.sheet is not None and bench.sheet.isVisible(), one.code
            assert bench.sheet._flashing or session.selection, one.code
            QTest.qWait(0)
            bench.sheet._flashed()  # the moment of an undo is over: it stays
            assert bench.sheet._flashing
            bench.sheet.grab()
            press(bench.sheet, QPointF(3, 3))
            release(bench.sheet, QPointF(3, 3))
            assert not bench.sheet._flashing


def test_where_of_what_is_missing_is_its_field(open_on):
    project = demo("rosin-box")
    window = open_on(project, judged=False)
    session = window.session
    session.edit("Forget", [set_to("rig.frame_length", None), set_to("rig.bought_ball", None)])
    session.judge_now()
    one = next(f for f in session.findings if f.code == "not-known")
    window.says.refresh()
    window.says.cards[one.key].point_button.click()
    QApplication.processEvents()
    field = QApplication.focusWidget()
    assert session.stop == "Rig" and field.accessibleName() in ("On the ball", "Length", "Frame weight"), one.where


def test_tab_goes_from_the_drawing_through_in_hand_to_uncle_and_back(open_on):
    window = open_on(demo("orchard-keeper"))
    session = window.session
    session.go_to("Stow")
    session.select((session.build.stow.things[0].id,))
    sheet = window.bench("Stow").sheet
    sheet.setFocus()
    QTest.keyClick(sheet, Qt.Key.Key_Tab)
    first = QApplication.focusWidget()
    assert window.in_hand.isAncestorOf(first) and first.accessibleName() == "Name"
    seen = []
    for _ in range(80):
        now = QApplication.focusWidget()
        if window.says.isAncestorOf(now):
            break
        assert window.in_hand.isAncestorOf(now)
        seen.append(now)
        QTest.keyClick(now, Qt.Key.Key_Tab)
    assert len(seen) > 4 and window.says.isAncestorOf(QApplication.focusWidget())
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Backtab, Qt.KeyboardModifier.ShiftModifier)
    assert window.in_hand.isAncestorOf(QApplication.focusWidget())
    first.setFocus()
    QTest.keyClick(first, Qt.Key.Key_Backtab, Qt.KeyboardModifier.ShiftModifier)
    assert QApplication.focusWidget() is sheet


class Idle(Worker):
    """A worker that is asked and never answers: what it would say is not looked at."""

    def ask(self, lane, name, project, args=(), job=False, urgent=False):
        return 0

    def start(self): ...


MOST_OF_A_VIEW = 1  # of its choices, those not met before


def test_focus_stays_where_one_chose(open_on):
    window = open_on(demo("marsh-heron"), judged=False, worker=Idle())
    session = window.session
    tried = set()  # a field that stands on several views of its stop once
    for said in abouts():
        session.go_to(said.stop)
        bench = window.bench(said.stop)
        for view in said.views or (None,):
            if view is not None:
                bench.show_view(view.name)
                session.select(view.picks(session.build, session.studied) if view.picks else ())
            QApplication.processEvents()
            names = [
                f.accessibleName() for f in window.findChildren(ChoiceField) if f.isVisible() and f.isEnabled() and f.window() is window
            ]
            fresh = [name for name in dict.fromkeys(names) if (said.stop, name) not in tried]
            for name in fresh[:MOST_OF_A_VIEW]:
                tried.add((said.stop, name))
                field = next((f for f in window.findChildren(ChoiceField) if f.isVisible() and f.accessibleName() == name), None)
                if field is None:
                    continue
                before = session.project
                field.setFocus()
                field.setCurrentIndex((field.currentIndex() + 1) % field.count())
                field.activated.emit(field.currentIndex())
                QApplication.processEvents()
                now = QApplication.focusWidget()
                assert now is not None and now.accessibleName() == name, (said.stop, view and view.name, name)
                if session.project is not before:
                    session.undo()
                    session.go_to(said.stop)
                    QApplication.processEvents()


def test_measures_are_typed_on_the_drawing(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    session = window.session
    session.go_to("Rig")
    sheet = window.bench("Rig").sheet
    tag = next(t for t in sheet.tags() if t.measure.name == "drawbar")
    QTest.mouseClick(sheet, Qt.MouseButton.LeftButton, pos=sheet.tag_box(tag).center().toPoint())
    QTest.keyClicks(sheet.field, "wide")
    QTest.keyClick(sheet.field, Qt.Key.Key_Return)
    assert sheet.field is not None and session.build.rig.drawbar_length.si == pytest.approx(1.25)  # what is wrong stays to be mended
    sheet.field.selectAll()
    QTest.keyClicks(sheet.field, "4 ft")
    QTest.keyClick(sheet.field, Qt.Key.Key_Tab)
    assert session.build.rig.drawbar_length.typed == "4 ft"
    assert sheet.field is not None and sheet.field.measure.name == "ball to axle"  # Tab goes on to the next
    QTest.keyClick(sheet.field, Qt.Key.Key_Escape)
    assert sheet.field is None and sheet.hasFocus()
    session.go_to("Brief")
    sheet = window.bench("Brief").sheet
    tag = next(t for t in sheet.tags() if t.measure.name == "wheelbase")
    sheet.type_into(tag)
    sheet.field.selectAll()
    QTest.keyClicks(sheet.field, "2.81 m")
    QTest.keyClick(sheet.field, Qt.Key.Key_Return)
    assert session.facts.vehicles[0].wheelbase.si == pytest.approx(2.81)
    session.undo()
    assert session.facts.vehicles[0].wheelbase.si == pytest.approx(2.70)


@pytest.mark.parametrize("name", ["orchard-keeper", "marsh-heron"])
def test_numbers_in_tables_are_never_cut_off_and_the_width_is_used(open_on, name):
    window = open_on(demo(name), judged=False)
    session = window.session
    for stop, view in (("Stow", "Table"), ("Stow", "Held"), ("Shell", "Openings")):
        session.go_to(stop)
        window.bench(stop).show_view(view)
        QApplication.processEvents()
        table = next(t for t in window.findChildren(Table) if t.isVisible())
        metrics, model = table.fontMetrics(), table.model()
        for at, column in enumerate(table.columns):
            if column.right and not table.isColumnHidden(at):
                widest = max(metrics.horizontalAdvance(str(model.index(r, at).data())) for r in range(model.rowCount()))
                assert table.columnWidth(at) >= widest + 6, column.title
        used = sum(table.columnWidth(at) for at in range(len(table.columns)) if not table.isColumnHidden(at))
        assert used >= table.viewport().width() - 2, (stop, view)


def test_lists_that_drop_down_show_their_last_entry(open_on):
    window = open_on(demo("rosin-box"), judged=False)
    seen = 0
    for _where in every_view(window):
        QApplication.processEvents()
        for combo in [c for c in window.findChildren(QComboBox) if c.isVisible() and c.window() is window]:
            combo.showPopup()
            QApplication.processEvents()
            listed = combo.view()
            last = listed.visualRect(listed.model().index(combo.count() - 1, 0))
            assert last.bottom() <= listed.viewport().height(), combo.accessibleName()
            combo.hidePopup()
            seen += 1
    assert seen > 10


def test_cards_keep_their_order_from_column_to_column():
    assert split([10, 10, 10, 10], 2) == (2, 4)
    assert split([100, 10, 10, 10], 2) == (1, 4)
    assert split([10], 3) == (1,) and split([], 2)[-1] == 0
    for heights in ([30, 80, 20, 60, 40], [500, 20, 20, 20, 20, 300]):
        ends = split(heights, 3)
        assert list(ends) == sorted(ends) and ends[-1] == len(heights)


def test_a_view_found_from_another_stop_is_gone_to(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    window.session.go_to("Brief")
    window.acts.acts["shell-openings"].run()
    assert window.session.stop == "Shell" and window.bench("Shell").view == "Openings"
    window.find_anything()
    window.finder.line.setText("add: fresh tank 55")
    assert "Fresh tank 55" in window.finder.found[0][0]
