"""Three builds from nothing through the real window, with the number of things that the builder does.

One action is a click, a choice, a number or word typed and entered, or a drag; the finder counts two, its key and its words.
"""

from collections import Counter

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QFileDialog, QPushButton

from tests.desk.driving import named
from tests.judging import judged_once
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.drawing.cut.templates import templates_of
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.leaf import leaf_in
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.cut.take_off import take_off
from uncle_sled.core.studies.stow.hinged import hinged
from uncle_sled.desk.frame.new_build import NewBuild
from uncle_sled.desk.kit.table import Table
from uncle_sled.exchange.export import export_bytes


class Builder:
    """Hands that only use what is in sight, and are counted."""

    def __init__(self, window):
        self.window, self.actions, self.did = window, 0, Counter()

    def _count(self, what, many=1):
        QApplication.processEvents()
        self.actions += many
        self.did[what] += many

    def key(self, id):
        """A key of the window, by the action that it stands for."""
        act = self.window.acts.acts[id]
        assert self.window.acts.key_of(id), f"{act.title} has no key"
        act.run()
        self._count("keys")

    def menu(self, id):
        """A menu and its entry."""
        self.window.acts.acts[id].run()
        self._count("menus", 2)

    def click(self, button):
        assert button.isVisible() and button.isEnabled(), button.text()
        QTest.mouseClick(button, Qt.MouseButton.LeftButton)
        self._count("clicks")

    def view(self, stop, view=""):
        """The trail and a view's button, so far as one is not there yet."""
        if self.window.session.stop != stop:
            self.key(f"stop-{stop.lower()}")
        if view and self.window.bench(stop).view != view:
            self.click(self.window.bench(stop).view_buttons[view])

    def button(self, words):
        """A button of the open bench."""
        bench = self.window.bench(self.window.session.stop)
        self.click(next(one for one in bench.findChildren(QPushButton) if one.text() == words and one.isVisible()))

    def choose(self, field, words):
        assert field.isVisible(), field.accessibleName()
        at = next(k for k, (_, said) in enumerate(field.choices) if said == words)
        field.setCurrentIndex(at)
        field.activated.emit(at)
        self._count("choices")

    def enter(self, field, text):
        assert field.isVisible() and field.isEnabled(), field.accessibleName()
        field.setFocus()
        field.selectAll()
        QTest.keyClicks(field, text)
        QTest.keyClick(field, Qt.Key.Key_Return)
        assert field.property("wrong") != "true", field.accessibleName()
        self._count("entries")

    def measure(self, name, text):
        """A tag of the drawing: clicked, and typed into."""
        sheet = self.window.bench(self.window.session.stop).sheet
        tag = next(tag for tag in sheet.tags() if tag.measure.name == name)
        QTest.mouseClick(sheet, Qt.MouseButton.LeftButton, pos=sheet.tag_box(tag).center().toPoint())
        QTest.keyClicks(sheet.field, text)
        QTest.keyClick(sheet.field, Qt.Key.Key_Return)
        self._count("entries")

    def row(self, title):
        """A field of the open bench by what stands before it."""
        from uncle_sled.desk.kit.form import Form

        bench = self.window.bench(self.window.session.stop)
        return next(field for form in bench.findChildren(Form) for row, _, field in form.rows if row.title == title and field.isVisible())

    def pick(self, table, at):
        """A row of a table."""
        table.selectRow(at)
        self._count("clicks")

    def find(self, words):
        self.window.find_anything()
        finder = self.window.finder
        finder.line.setText(words)
        assert finder.found, words
        QTest.keyClick(finder.line, Qt.Key.Key_Return)
        self._count("finds", 2)

    def cut(self, kind):
        """The menu of what can be cut in, and one of it."""
        bench = self.window.bench("Shell")
        assert bench.cut_button.isVisible()
        bench.cut_in(kind)
        self._count("menus", 2)

    def in_hand(self, title):
        """A button In hand."""
        form = self.window.in_hand.form
        button = next(field for row, _, field in form.rows if row.title == title)
        self.click(button)

    def hand(self, title, text):
        """A field In hand."""
        form = self.window.in_hand.form
        self.enter(next(field for row, _, field in form.rows if row.title == title), text)

    def settle(self, most):
        """Try and keep what helps the worst, again while there is something worse than a note."""
        session = self.window.session
        for _ in range(most):
            session.judge_now()
            session.judge(judged_once(session.studied))
            QApplication.processEvents()
            if not any(one.remedy is not None and one.severity != "note" for one in session.findings):
                return
            self.key("try-worst")
            self.key("keep")


@pytest.fixture
def builder(open_on, tmp_path, monkeypatch):
    window = open_on(Project("Nothing yet", (Build("a", "as drawn"),), "a", Facts()), judged=False)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "sheet.pdf"), ""))
    return Builder(window)


def _begin(builder):
    builder.key("new")
    return next(one for one in builder.window.findChildren(NewBuild) if one.isVisible())


def _judged(window):
    window.session.judge_now()
    return {one.code: one.severity for one in window.session.findings}


def _in_band(session):
    b, s = session.studied.readings, session.studied
    return [s.table.cases[row].name for row in s.towing_rows if not b.band_kg[row, 0] <= b.tongue_kg[row] <= b.band_kg[row, 1]]


def test_a_bought_trailer_is_relined_from_nothing_to_its_sheet(builder, tmp_path):
    window = builder.window
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["bought trailer"])
    for field, text in zip(dialog.fields, ("3.6 m", "1.9 m", "2.0 m", "3.25 m", "780 kg", "52 kg"), strict=True):
        builder.enter(field, text)
    builder.click(dialog.begin_button)
    assert window.session.stop == "Rig"  # what was bought begins with its weighing
    for title, text in (("Whole trailer", "1500 kg"), ("Tyre index", "98"), ("Coupler", "100 kg")):
        builder.enter(builder.row(title), text)
    builder.view("Brief")
    builder.button("Add a tow vehicle")
    for title, text in (("On the ball", "100 kg"), ("May tow", "1600 kg")):
        builder.enter(builder.row(title), text)
    builder.view("Shell", "Reline")
    builder.button("Line them so")
    builder.view("Shell", "Openings")
    builder.cut("window")
    builder.in_hand("Same on the other side")
    for thing in ("bench that pulls", "lithium 100", "sink and tap"):
        builder.find(thing)
    builder.in_hand("Add what goes with it")
    builder.find("cooker two")
    builder.in_hand("Add what goes with it")
    builder.view("Stow", "Held")
    builder.button("Strap what is loose")
    builder.settle(2)
    builder.menu("sheet-pdf")

    session, codes = window.session, _judged(window)
    assert builder.actions <= 40, builder.did
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    assert session.studied.support is not None and _in_band(session) == []
    assert "stop" not in codes.values(), codes
    assert len(session.build.stow.things) >= 9 and len(session.build.shell.openings) == 4 and session.build.shell.relined
    assert any(piece.lining for piece in take_off(session.build, session.facts).pieces)
    assert not any(code.startswith("clash") or code == "held-loose" for code in codes), codes


def test_an_own_teardrop_in_feet_from_nothing_to_its_sheet(builder, tmp_path):
    window = builder.window
    dialog = _begin(builder)
    builder.choose(dialog.where, "North American")
    for field, text in zip(dialog.fields[:3], ("9' 6\"", "5'", "4'"), strict=True):
        builder.enter(field, text)
    builder.click(dialog.begin_button)
    builder.view("Shell", "Openings")
    builder.cut("hatch")
    builder.find("slatted")
    builder.hand("Underside", "38 in")  # what is stowed goes under it
    for thing in ("water jug 5 gal", "lithium 100", "cooker two"):
        builder.find(thing)
    builder.in_hand("Add what goes with it")
    builder.view("Stow", "Held")
    builder.button("Strap what is loose")
    builder.view("Balance", "Axle")
    builder.button("Best place")
    builder.button("Keep")
    builder.menu("sheet-pdf")

    session, codes = window.session, _judged(window)
    assert builder.actions <= 30, builder.did
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    assert session.studied.framed.members and _in_band(session) == []
    assert "stop" not in codes.values(), codes
    assert session.shown.imperial and len(take_off(session.build, session.facts).pieces) > 50


def test_a_house_with_a_ticket_from_nothing(builder):
    window = builder.window
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["gable house"])
    for field, text in zip(dialog.fields[:3], ("6.2 m", "2.5 m", "3.3 m"), strict=True):
        builder.enter(field, text)
    builder.click(dialog.begin_button)
    builder.view("Brief")
    builder.button("Add a tow vehicle")
    for title, text in (("On the ball", "350 kg"), ("May tow", "3500 kg")):
        builder.enter(builder.row(title), text)
    for thing in ("mattress two", "loo", "log burner"):
        builder.find(thing)
    builder.in_hand("Add what goes with it")
    builder.settle(1)
    builder.key("stop-road")
    builder.key("new-ticket")
    builder.choose(builder.row("Way"), "in all, and the ball")
    for title, text in (("In all", "3250 kg"), ("On the ball", "215 kg")):
        builder.enter(builder.row(title), text)
    panel = window.bench("Road").panel("Weigh")
    builder.pick(named(panel, Table, "What was aboard: the cases, and what the ticket has more"), 0)

    session, codes = window.session, _judged(window)
    assert builder.actions <= 25, builder.did
    assert len(session.build.rig.axles) == 2 and session.build.road.tickets[-1].case
    assert "stop" not in codes.values(), codes


def test_a_camper_box_on_a_truck_from_nothing_to_its_sheet(builder, tmp_path):
    window = builder.window
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["box on a bed"])
    for field, text in zip(dialog.fields[3:], ("3.3 m", "1350 kg", "950 kg"), strict=True):
        builder.enter(field, text)
    builder.click(dialog.begin_button)
    builder.view("Rig")
    for title, text in (("Front axle", "1600 kg"), ("Rear axle", "1900 kg"), ("Whole vehicle", "3200 kg")):
        builder.enter(builder.row(title), text)
    for thing in ("add: bench that pulls", "add: water jug 20", "add: lithium 100", "add: stove two", "add: co alarm"):
        builder.find(thing)
    builder.find("view: stow, held")
    builder.button("Strap what is loose")
    builder.menu("sheet-pdf")

    session, codes = window.session, _judged(window)
    assert builder.actions <= 25, builder.did
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    assert session.studied.support is not None and "stop" not in codes.values(), codes


def _papers(window, *kinds):
    """Kinds of paper of what is open now, as bytes."""
    project = window.session.project
    return {kind: export_bytes(kind, project.name, study(project.build, project.facts), ()) for kind in kinds}


def test_a_teardrop_with_a_hatch_over_its_curve_from_nothing_to_papers(builder):
    window, session = builder.window, builder.window.session
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["teardrop"])
    builder.click(dialog.begin_button)
    builder.view("Shell", "Profile")
    window.bench("Shell").take_profile("classic round nose")
    for opening in [one for one in session.build.shell.openings if one.face == "rear"]:
        session.select((opening.id,))
        window.bench("Shell").close_up()
    builder.view("Shell", "Openings")
    window.bench("Shell").cut_in_over_curve()
    (id,) = session.selection
    builder.view("Stow", "Lids")
    builder.button("Find struts")
    hatch = next(one for one in hinged(session.studied) if one.id == id)
    leaf = leaf_in(session.studied.framed, next(o for o in session.build.shell.openings if o.id == id), library_of(()))

    assert leaf.bent is not None and not leaf.fault and hatch.strut is not None and hatch.turning.mass_kg == pytest.approx(leaf.mass_kg)
    assert not {"leaf-wrong", "hinge-bends", "tail-nowhere"} & _judged(window).keys()
    made = _papers(window, "framing-pdf", "templates-pdf", "set-pdf", "buy-csv")
    assert all(len(paper) > 500 for paper in made.values())
    names = [template.title for template in templates_of(session.studied)]
    assert any("rib" in name and "Birch" in name for name in names)


def test_a_panel_box_with_its_corner_off_from_nothing_to_papers(builder):
    window, session = builder.window, builder.window.session
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["box on a bed"])
    builder.click(dialog.begin_button)
    builder.view("Shell", "Framing")
    builder.button("Take the body's sizes from the panel")
    assert session.build.shell.length.si == 3.0 and session.build.shell.width.si == 1.25
    session.undo()
    builder.view("Shell", "Profile")
    window.bench("Shell").take_profile("square, tail corner off")
    door = next(one for one in session.build.shell.openings if one.kind == "door")
    session.select((door.id,))
    builder.hand("Sill", "700 mm")  # over the corner that is gone
    builder.hand("Height", "1.0 m")
    s = session.studied

    assert s.framed.faults == () and {"rear", "rear below"} <= {surface.id for surface in s.framed.body.surfaces}
    pieces = [piece for piece in take_off(session.build, session.project.facts).pieces if piece.kind == "sheet"]
    assert {piece.of for piece in pieces} == {surface.id for surface in s.framed.body.surfaces} and all("panel" in p.name for p in pieces)
    made = _papers(window, "framing-pdf", "cut-pdf", "set-pdf", "buy-csv")
    assert all(len(paper) > 500 for paper in made.values()) and b"PIR foam with foil panel" in made["buy-csv"]
