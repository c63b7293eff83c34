"""Nothing that goes wrong in an override of Qt's methods, or in a model that was left alone, takes the program down."""

import faulthandler
import importlib
import inspect
import os
import pkgutil
import re
import sys
from pathlib import Path
from typing import Any

import pytest
from msgspec.structs import replace
from PySide6.QtCore import QObject, QSize
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QStackedWidget, QWidget

import uncle_sled.desk
from tests.desk.driving import double_click
from uncle_sled.core.document.edits import apply, remove, set_to
from uncle_sled.core.reading.studied import study
from uncle_sled.core.remedies.remedies import with_remedies
from uncle_sled.desk import troubles
from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.kit import painting
from uncle_sled.desk.kit.guarded import Guarded, is_override
from uncle_sled.desk.kit.panel import Panel
from uncle_sled.exchange.demos import demo


def classes_of_the_desk():
    for module in pkgutil.walk_packages(uncle_sled.desk.__path__, "uncle_sled.desk."):
        for _, kind in inspect.getmembers(importlib.import_module(module.name), inspect.isclass):
            if kind.__module__ == module.name and issubclass(kind, QObject):
                yield kind


def test_every_override_in_the_desk_is_guarded(qapp):
    bare, seen = [], 0
    for kind in classes_of_the_desk():
        for name, method in vars(kind).items():
            if inspect.isfunction(method) and is_override(kind, name):
                seen += 1
                if not hasattr(method, "guards"):
                    bare.append(f"{kind.__qualname__}.{name}")

    assert not bare, "let it be Guarded first: " + ", ".join(bare)
    assert seen > 80


def test_a_fault_in_an_override_under_a_call_of_ours_is_told(qapp, qtbot, monkeypatch):
    told = []
    monkeypatch.setattr(sys, "excepthook", lambda kind, fault, where: told.append((kind, str(fault))))

    class Faulty(Guarded, QWidget):
        def showEvent(self, event):
            return tuple[Any, ...]()[3]  # raised in C: only such a fault took the binding down

        def sizeHint(self):
            return dict[str, Any]()["none"]

    stack = QStackedWidget()
    qtbot.addWidget(stack)
    one, other = QWidget(), Faulty()
    stack.addWidget(one)
    stack.addWidget(other)
    stack.show()
    stack.setCurrentWidget(other)

    assert other.sizeHint() == QSize()
    assert {kind for kind, _ in told} == {IndexError, KeyError}


def test_axles_that_went_while_nobody_looked(open_on):
    window = open_on(demo("orchard-keeper"))
    window.show_stop("Stow")
    stow = window.bench("Stow")
    stow.show_view("Cases")
    table = stow.panel("Cases").table.model()
    window.session.go_to("Rig")
    window.session.edit("no axles", [set_to("rig.axles", [])], "Rig")
    told = [str(table.index(row, 1).data() or "") for row in range(table.rowCount())]
    assert told.count("–") >= 2
    window.session.go_to("Stow")
    stow.show_view("Cases")
    window.grab()


def test_cases_that_went_while_nobody_looked(open_on):
    window = open_on(demo("orchard-keeper"))
    window.show_stop("Stow")
    stow = window.bench("Stow")
    stow.show_view("Cases")
    bench = stow.panel("Cases")
    many = bench.table.model().columnCount()
    stow.show_view("Drawing")
    window.session.edit("no cases", [set_to("stow.modes", [window.session.build.stow.modes[0]])], "Stow")

    # asked while it is hidden, it answers of what it showed last
    assert bench.table.model().columnCount() == many
    assert bench.table.model().headerData(many - 1, bench.table.horizontalHeader().orientation())
    window.grab()
    stow.show_view("Cases")

    assert bench.table.model().columnCount() == 1 + len(window.session.studied.table.cases) < many  # the lines, and a column a case


def test_a_point_on_a_profile_that_is_not_there_is_said(open_on, qtbot):
    window = open_on(demo("rosin-box"))
    window.session.edit("a bare profile", [set_to("shell.form", "profile"), set_to("shell.profile", [])], "Shell")
    window.session.go_to("Shell")
    bench = window.bench("Shell")
    bench.show_view("Profile")
    before = window.session.project
    said = []
    window.session.said.connect(lambda text, how: said.append(text))

    double_click(bench.sheet, bench.sheet.rect().center())
    bench.sheet.add_point()

    assert window.session.project is before
    assert len(said) == 2 and all("no curve yet" in one for one in said)


def test_what_an_edit_leaves_without_its_thing_is_said(open_on):
    session = open_on(demo("marsh-heron")).session
    mode = next(m for m in session.build.stow.modes if m.places)
    said = []
    session.said.connect(lambda text, how: said.append(text))

    session.edit("gone", [remove(f"stow.things.{mode.places[0].id}")], "Stow")

    assert any("no such thing" in one for one in said)
    assert all(one.id != mode.places[0].id for m in session.build.stow.modes for one in m.places)
    session.undo()
    assert session.project == demo("marsh-heron")


def test_a_remedy_for_a_bed_that_no_vehicle_carries_says_so():
    project = demo("marsh-heron")
    build = apply(
        project.build, [set_to("rig.carrier", "vehicle bed"), set_to("rig.axles", []), set_to("shell.openings.door.seal", "none")]
    )
    read = study(build, replace(project.facts, vehicles=()))

    assert read.readings.axle_kg.shape[1] == 0
    says = [one.remedy.says for one in with_remedies(read, lambda *a: None) if one.remedy]

    assert any("that settles it" in one for one in says)


def test_a_hard_stop_is_said_at_the_next_start(tmp_path, monkeypatch):
    monkeypatch.setattr(faulthandler, "enable", lambda file: None)
    monkeypatch.setattr(faulthandler, "disable", lambda: None)
    (tmp_path / "running-999999999.txt").write_text("Fatal Python error: Segmentation fault")
    (tmp_path / "running-999999998.txt").write_text("")
    (tmp_path / f"running-{os.getppid()}.txt").write_text("still running")
    said = []

    watching = troubles.Troubles(tmp_path)
    watching.watch(lambda text, how: said.append(text))

    assert watching.last == tmp_path / "last-hard-stop.txt" and "stopped hard" in said[0]
    assert {p.name for p in tmp_path.iterdir()} == {"last-hard-stop.txt", f"running-{os.getppid()}.txt", f"running-{os.getpid()}.txt"}
    watching.end()
    assert sys.excepthook is sys.__excepthook__
    assert troubles.Troubles(tmp_path).last is None, "it is said once"


def test_a_fault_is_said_and_kept(tmp_path, monkeypatch, capsys):
    monkeypatch.setattr(faulthandler, "enable", lambda file: None)
    monkeypatch.setattr(faulthandler, "disable", lambda: None)
    said = []
    watching = troubles.Troubles(tmp_path)
    watching.watch(lambda text, how: said.append((text, how)))
    try:
        raise ValueError("a wrong turn")
    except ValueError:
        sys.excepthook(*sys.exc_info())
    watching.end()

    assert said[0][1] == "stop" and "ValueError: a wrong turn" in said[0][0]
    assert "test_a_fault_is_said_and_kept" in (tmp_path / "faults.txt").read_text()
    assert "a wrong turn" in capsys.readouterr().err


@pytest.mark.parametrize("folder", ["file", "none/below"])
def test_no_place_for_traces_is_no_trouble(tmp_path, folder, monkeypatch):
    monkeypatch.setattr(faulthandler, "enable", lambda file: None)
    (tmp_path / "file").write_text("a file where the folder would be")

    watching = troubles.Troubles(tmp_path / folder)
    watching.watch(lambda text, how: None)
    watching.end()


def test_only_one_place_makes_painters_and_each_ends_whatever_happens(qapp):
    """A painter that outlives what it paints on takes the program down: all of them are contexts."""
    root = Path(painting.__file__).parents[1]
    makers = [path.name for path in root.rglob("*.py") if re.search(r"\bQPainter\(", path.read_text())]
    assert makers == ["painting.py"]
    picture = QPixmap(20, 20)
    with pytest.raises(KeyError), painting.canvas(picture) as painter:
        raise KeyError("a group that has no hatch")
    assert not painter.isActive()


def planted_fault(*_args, **_named):
    raise ZeroDivisionError("planted in a study")


def test_a_panel_that_falls_says_so_and_all_others_go_on(open_on, monkeypatch):
    window = open_on(demo("marsh-heron"), judged=False)
    monkeypatch.setattr(painting, "STRICT", False)
    heard = []
    monkeypatch.setattr(sys, "excepthook", lambda kind, fault, where: heard.append(str(fault)))
    session, tried, told = window.session, 0, 0
    for said in abouts():
        session.go_to(said.stop)
        bench = window.bench(said.stop)
        for view in said.views:
            bench.show_view(view.name)
            panel = bench.made.get(view.name)
            if not isinstance(panel, Panel):
                continue
            assert "refresh" not in vars(type(panel)), view.name  # what falls there would take the stop along
            tried += 1

            def falls(panel=panel):
                raise ZeroDivisionError(f"planted in {type(panel).__name__}")

            with monkeypatch.context() as planted:
                planted.setattr(panel, "refreshed", falls)
                session.edit("Track", [set_to("rig.track", {"si": 1.5 + tried / 1000})])
                panel.refresh()
                assert "could not be worked out" in panel.complaint.text() and not panel.complaint.isHidden(), view.name
                assert session.build.rig.track.si == 1.5 + tried / 1000  # the edit is kept, and the reading follows it
            panel.refresh()
            assert "could not" not in panel.complaint.text()
            # and each study that the panel asks
            module = sys.modules[type(panel).__module__]
            for name, asked in list(vars(module).items()):
                if callable(asked) and not isinstance(asked, type) and "core.studies" in (getattr(asked, "__module__", "") or ""):
                    with monkeypatch.context() as planted:
                        planted.setattr(module, name, planted_fault)
                        panel.refresh()
                        told += "could not be worked out" in panel.complaint.text()
                    panel.refresh()
                    assert "could not" not in panel.complaint.text(), (view.name, name)
    assert tried > 30 and len(heard) >= tried and told > 25, told
    assert all("planted" in one for one in heard)
