"""Looks over a window for text that is cut off, things that lie on each other, and pale words.

Run as a program it walks every bench once at a scale factor set from outside.
"""

from __future__ import annotations

import itertools
import os
import re
import sys
from collections.abc import Iterator
from pathlib import Path

import msgspec
from PySide6.QtCore import QPoint, QRect, QRectF, Qt
from PySide6.QtGui import QAccessible, QFontMetrics
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QAbstractScrollArea,
    QAbstractSlider,
    QAbstractSpinBox,
    QApplication,
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollBar,
    QTableView,
    QWidget,
)

from tests import judging
from tests.other_units import METRIC, foreign, names_of, read_in
from uncle_sled.core.drawing.inks import THEMES, contrast
from uncle_sled.core.trail import HOME
from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.kit.form import Form
from uncle_sled.desk.kit.one_shown import OneShown
from uncle_sled.desk.theme.theme import theme_name
from uncle_sled.exchange.demos import demo

LONG_NAME = "Marsh Heron with the long name of forty ch"


ROLES = (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.ToolTipRole)


def texts(window):
    """Everything that can be read at this moment, tips and what stands in empty fields with it."""
    for widget in window.findChildren(QWidget):
        if not widget.isVisible():
            continue
        yield widget.toolTip()
        if isinstance(widget, QLabel | QLineEdit | QAbstractButton):
            yield widget.text()
        if isinstance(widget, QLineEdit) and not widget.text():
            yield widget.placeholderText()
        if isinstance(widget, QComboBox):
            yield from (widget.itemText(at) for at in range(widget.count()))
        if isinstance(widget, QTableView):
            model = widget.model()
            for column in range(model.columnCount()):
                yield from (str(model.headerData(column, Qt.Orientation.Horizontal, role) or "") for role in ROLES)
                for row in range(model.rowCount()):
                    yield from (str(model.index(row, column).data(role) or "") for role in ROLES)
        yield from (one.text for one in getattr(widget, "written", []))


def read_words(window, wrong, names, seen, abroad, where) -> None:
    """What of all that can be read now is said in the other units, or in no units yet: into ``abroad``, once a text."""
    for text in set(texts(window)) - seen:
        seen.add(text)
        said = foreign(text, wrong, names)
        if said is not None or re.search(r"\{[\d.]+ \w", text):
            abroad.setdefault(text, (where, said))


def with_long_name(project):
    """A project whose name is as long as a hurried hand makes it."""
    return msgspec.structs.replace(project, name=LONG_NAME)


def faults_of(window) -> list[str]:
    """Everything that is wrong with what a window shows now."""
    QApplication.processEvents()
    window.grab()
    found = []
    for widget in window.findChildren(QWidget):
        if widget.isVisible() and widget.window() is window:
            found += _clipped(widget)
            found += _lapped(widget)
            found += _written(widget) + _tips(widget)
    return found


def _tips(widget) -> list[str]:
    """Every row of a form is explained, and no tip only says its label again."""
    found = []
    for row, words, field in widget.rows if isinstance(widget, Form) else ():
        if not field.isHidden() and not isinstance(field, QPushButton) and not (field.toolTip() and (words.isHidden() or words.toolTip())):
            found.append(f"“{row.title}” of {row.path} has no tip")
    text = str(getattr(widget, "text", lambda: "")() or "") if not isinstance(widget, QLineEdit) else widget.accessibleName()
    if text and _bare(widget.toolTip()) == _bare(text):
        found.append(f"{_name(widget)}: its tip only repeats it")
    if isinstance(widget, QComboBox):
        found += _drops(widget)
    return found


def _bare(text: str) -> str:
    return text.strip().rstrip(".…").lower()


def _drops(combo: QComboBox) -> list[str]:
    """Its list shows the last entry, where it is not one to be scrolled."""
    if combo.count() > combo.maxVisibleItems():
        return [f"{_name(combo)}: {combo.count()} entries, {combo.maxVisibleItems()} shown"]
    return []


def _name(widget) -> str:
    text = getattr(widget, "text", lambda: "")() or widget.accessibleName()
    return f"{type(widget).__name__} “{str(text)[:40]}”"


def _clipped(widget) -> list[str]:
    metrics = QFontMetrics(widget.font())
    if isinstance(widget, QLabel) and widget.text():
        if widget.wordWrap():
            need = metrics.boundingRect(QRect(0, 0, widget.contentsRect().width(), 4000), 0x1000, widget.text()).height()
            return [f"{_name(widget)}: {widget.height()} px high, needs {need}"] if need > widget.height() + 2 else []
        need = metrics.horizontalAdvance(widget.text())
        return [f"{_name(widget)}: {widget.width()} px wide, needs {need}"] if need > widget.width() + 1 else []
    if isinstance(widget, QPushButton):
        need = metrics.horizontalAdvance(widget.text()) + 6
        return [f"{_name(widget)}: {widget.width()} px wide, needs {need}"] if need > widget.width() else []
    if isinstance(widget, QComboBox):
        need = metrics.horizontalAdvance(widget.currentText()) + 26
        return [f"{_name(widget)}: “{widget.currentText()}” needs {need} px of {widget.width()}"] if need > widget.width() else []
    if isinstance(widget, QLineEdit) and len(widget.text()) < 20:
        need = metrics.horizontalAdvance(widget.text()) + 14
        return [f"{_name(widget)}: needs {need} px of {widget.width()}"] if need > widget.width() else []
    if isinstance(widget, QCheckBox):
        need = metrics.horizontalAdvance(widget.text()) + 20
        return [f"{_name(widget)}: needs {need} px of {widget.width()}"] if need > widget.width() else []
    return []


def _lapped(widget) -> list[str]:
    if isinstance(widget, (OneShown, QAbstractScrollArea, QComboBox, QLineEdit)):
        return []
    children = [
        c for c in widget.children() if isinstance(c, QWidget) and c.isVisible() and not c.isWindow() and c.objectName() != "notice"
    ]
    found = []
    for a, b in itertools.combinations(children, 2):
        lap = a.geometry().intersected(b.geometry())
        if lap.width() > 2 and lap.height() > 2 and not a.property("floats") and not b.property("floats"):
            found.append(f"{_name(a)} and {_name(b)} lie on each other by {lap.width()} x {lap.height()} px")
    for child in children:
        inside = QRect(QPoint(0, 0), widget.size())
        if (
            not inside.adjusted(-2, -2, 2, 2).contains(child.geometry())
            and child.width() > 0
            and not isinstance(widget.parent(), QAbstractScrollArea)
        ):
            found.append(f"{_name(child)} sticks out of {_name(widget)}")
    return found


def _written(widget) -> list[str]:
    texts = getattr(widget, "written", None)
    if not texts:
        return []
    found = []
    room = QRectF(0, 0, widget.width(), widget.height()).adjusted(-1, -2, 1, 2)
    inks = THEMES[theme_name()]
    for one in texts:
        if not room.contains(one.rect):
            found.append(f"{type(widget).__name__} “{one.text}” is cut off at its edge")
        if contrast(inks[one.ink], inks[one.ground]) < 4.5:
            found.append(f"{type(widget).__name__} “{one.text}” {one.ink} on {one.ground} is too pale")
    for a, b in itertools.combinations(texts, 2):
        lap = a.rect.intersected(b.rect)
        if lap.width() > 2 and lap.height() > 3:
            found.append(f"{type(widget).__name__} “{a.text}” and “{b.text}” are written over each other")
    return found


CONTROLS = (QAbstractButton, QLineEdit, QComboBox, QAbstractItemView, QAbstractSlider, QAbstractSpinBox)
SILENT = (QAccessible.Role.NoRole, QAccessible.Role.Client, QAccessible.Role.Pane)


def controls(window):
    """All that can be worked, so far as it is in sight."""
    for widget in (found for kind in CONTROLS for found in window.findChildren(kind)):
        inner = isinstance(widget.parentWidget(), QComboBox | QAbstractSpinBox | QAbstractScrollArea) or isinstance(widget, QScrollBar)
        if widget.isVisible() and not inner and widget.objectName() not in ("qt_toolbar_ext_button",):
            yield widget


def silent(window) -> set[tuple[str, str]]:
    """Controls in sight that a screen reader has no name or role for, or that no key leads to."""
    found = set()
    for widget in controls(window):
        told = QAccessible.queryAccessibleInterface(widget)
        name = told.text(QAccessible.Text.Name).strip() if told is not None else ""
        if told is None or not name or told.role() in SILENT:
            found.add((type(widget).__name__, widget.objectName() or widget.toolTip()[:40]))
        if widget.isEnabled() and widget.focusPolicy() == Qt.FocusPolicy.NoFocus and not isinstance(widget, QAbstractItemView):
            by_key = isinstance(widget, QAbstractButton) and (widget.shortcut().toString() or "(" in widget.toolTip())
            if not by_key:
                found.add((type(widget).__name__, f"no way by key to “{name}”"))
    return found


def every_view(window, stops=()) -> Iterator[str]:
    """Shows every view of every stop, or of some, with what is worth having in hand on it; says which."""
    session = window.session
    window.in_hand.open = {"Shape of the tank", "In this mode", "Held down", "Use", "Room beside it", "Power, gas, water"}
    for said in abouts():
        if stops and said.stop not in stops:
            continue
        session.go_to(said.stop)
        bench = window.bench(said.stop)
        for view in said.views or (None,):
            if view is not None:
                bench.show_view(view.name)
            session.select(view.picks(session.build, session.studied) if view is not None and view.picks else ())
            yield f"{said.stop}, {view.name if view else ''}"
        if said.views:
            bench.show_view(said.views[0].name)


def walk(window, read=lambda where: None, stops=()) -> list[str]:
    """Every stop with every view it says it has, something in hand on each, every load case, and a remedy tried.

    Args: read: is called on every view, to look at something else as well.
    """
    session, found = window.session, []
    for where in every_view(window, stops):
        QApplication.processEvents()
        found += [f"{where}: {fault}" for fault in faults_of(window)]
        read(where)
    session.go_to(HOME)
    for case in session.studied.table.cases:
        session.show_case(case.id)
        found += [f"{HOME}, {case.name}: {fault}" for fault in faults_of(window)]
    window.try_worst()
    window.notice.hide()
    found += [f"Trying: {fault}" for fault in faults_of(window)]
    session.put_back()
    window.notice.hide()
    return found


def main() -> int:
    from uncle_sled.desk.app import application, open_window

    application()
    scale = float(os.environ["QT_SCALE_FACTOR"])
    name, units = ("marsh-heron", "inches") if scale < 2 else ("orchard-keeper", "feet")  # the fullest where least room is
    if os.environ.get("JUDGED_BESIDE"):
        judging.SHARED[:] = [Path(os.environ["JUDGED_BESIDE"])]
    project = with_long_name(read_in(demo(name), units))
    names, seen, abroad = names_of(project), set(), {}
    window = open_window(project)
    window.resize(min(window.width(), int(1920 / scale)), min(window.height(), int(1200 / scale)))
    window.show()
    QApplication.processEvents()
    assert abs(window.devicePixelRatioF() - scale) < 0.01
    window.session.judge(judging.judged_once(window.session.studied))
    found = walk(window, lambda where: read_words(window, METRIC, names, seen, abroad, where))
    found += [f"{where}: “{text}” says {said}" for text, (where, said) in abroad.items()]
    window.session.history = window.session.history.was_saved()
    window.close()
    print("\n".join(found))
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
