"""What a screen reader says: every control of every view has a name and a role, and can be reached by key."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QAccessible
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QAbstractScrollArea,
    QAbstractSlider,
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QLineEdit,
    QScrollBar,
)

from tests.desk.walk import every_view
from uncle_sled.exchange.demos import demo

CONTROLS = (QAbstractButton, QLineEdit, QComboBox, QAbstractItemView, QAbstractSlider, QAbstractSpinBox)
SILENT = (QAccessible.Role.NoRole, QAccessible.Role.Client, QAccessible.Role.Pane)


def controls(window):
    for widget in (found for kind in CONTROLS for found in window.findChildren(kind)):
        inner = isinstance(widget.parentWidget(), QComboBox | QAbstractSpinBox | QAbstractScrollArea) or isinstance(widget, QScrollBar)
        if widget.isVisible() and not inner and widget.objectName() not in ("qt_toolbar_ext_button",):
            yield widget


def test_every_control_of_every_view_has_a_name_a_role_and_a_key_to_it(open_on):
    window = open_on(demo("marsh-heron"), judged=False)
    nameless, seen = set(), 0
    for where in every_view(window):
        QApplication.processEvents()
        for widget in controls(window):
            told = QAccessible.queryAccessibleInterface(widget)
            seen += 1
            if told is None or not told.text(QAccessible.Text.Name).strip() or told.role() in SILENT:
                nameless.add((where, type(widget).__name__, widget.objectName() or widget.toolTip()[:40]))
            if widget.isEnabled() and widget.focusPolicy() == Qt.FocusPolicy.NoFocus and not isinstance(widget, QAbstractItemView):
                by_key = isinstance(widget, QAbstractButton) and (widget.shortcut().toString() or "(" in widget.toolTip())
                if not by_key:
                    nameless.add((where, type(widget).__name__, f"no way by key to “{told.text(QAccessible.Text.Name) if told else ''}”"))
    assert seen > 1000 and sorted(nameless) == []
