"""Three builds from nothing through the real window, with the number of things that the builder does.

One action is a click, a choice, a number or word typed and entered, or a drag; the finder counts two, its key and its words.
"""

from collections import Counter

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QFileDialog, QPushButton

from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.desk.frame.new_build import NewBuild


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
            session.judge(with_remedies(session.studied))
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


def test_a_bought_shell_from_nothing_to_its_sheet(builder, tmp_path):
    window = builder.window
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["bought trailer"])
    for field, text in zip(dialog.fields, ("3.6 m", "1.9 m", "2.0 m", "3.25 m", "780 kg", "52 kg"), strict=True):
        builder.enter(field, text)
    builder.click(dialog.begin_button)
    builder.view("Rig")
    for title, text in (("Whole trailer", "1500 kg"), ("Tyre index", "98"), ("Coupler", "100 kg")):
        builder.enter(builder.row(title), text)
    builder.view("Brief")
    builder.button("Add a tow vehicle")
    for title, text in (("On the ball", "100 kg"), ("May tow", "1600 kg")):
        builder.enter(builder.row(title), text)
    for thing in (
        "add: bench that pulls",
        "add: fresh tank 55",
        "add: grey tank 40",
        "add: lithium 100",
        "add: stove two",
        "add: gas cylinder 5",
    ):
        builder.find(thing)
    builder.find("view: shell, openings")
    builder.cut("door")
    builder.cut("window")
    builder.hand("Height", "650 mm")
    builder.in_hand("Same on the other side")
    builder.cut("vent")
    builder.find("view: stow, held")
    builder.button("Strap what is loose")
    builder.settle(2)  # the ball, and the alarm that a stove beside beds wants
    builder.menu("sheet-pdf")

    session, codes = window.session, _judged(window)
    assert builder.actions <= 47, builder.did
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    assert session.studied.support is not None and _in_band(session) == []
    assert "stop" not in codes.values(), codes
    assert len(session.build.stow.things) == 7 and len(session.build.shell.openings) == 4
    assert not any(code.startswith("clash") or code == "held-loose" for code in codes), codes


def test_an_own_teardrop_from_nothing_to_its_sheet(builder, tmp_path):
    window = builder.window
    dialog = _begin(builder)
    builder.click(dialog.bodies.buttons["teardrop"])
    for field, text in zip(dialog.fields[:3], ("2.9 m", "1.5 m", "1.25 m"), strict=True):
        builder.enter(field, text)
    builder.click(dialog.begin_button)
    builder.view("Shell", "Framing")
    builder.choose(builder.row("School"), "cut plywood sides")
    builder.view("Shell", "Openings")
    for kind in ("door", "hatch", "vent"):
        builder.cut(kind)
    builder.find("add: slatted")
    builder.hand("Underside", "0.95 m")  # what is stowed goes under it
    for thing in ("add: water jug 20", "add: lithium 100", "add: stove two", "add: gas cylinder 2.5"):
        builder.find(thing)
    builder.find("view: stow, held")
    builder.button("Strap what is loose")
    builder.view("Balance", "Axle")
    builder.button("Best place")
    builder.button("Keep")
    builder.menu("sheet-pdf")

    session, codes = window.session, _judged(window)
    assert builder.actions <= 35, builder.did
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")
    assert session.studied.framed.members and _in_band(session) == []
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
