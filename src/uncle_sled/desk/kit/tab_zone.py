"""A part of the window that Tab walks through as it stands, top to bottom, and leaves to where it is told.

Forms and cards come and go while the window stands, and Qt's own chain keeps the order in which they were made.
"""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QWidget

Leave = Callable[[bool], bool]  # forward or back; whether somebody else took the focus


def stops_of(zone: QWidget) -> list[QWidget]:
    """What Tab can reach in a zone, as one reads it."""
    found = [
        widget
        for widget in zone.findChildren(QWidget)
        if widget.isVisible() and widget.isEnabled() and widget.focusPolicy() & Qt.FocusPolicy.TabFocus
    ]
    return sorted(found, key=lambda widget: _place(widget, zone))


def _place(widget: QWidget, zone: QWidget) -> tuple[int, int]:
    corner = widget.mapTo(zone, QPoint(0, widget.height() // 2))
    return corner.y(), corner.x()


def enter(zone: QWidget, forward: bool = True) -> bool:
    """The keyboard to the first (or last) of a zone; whether there was one."""
    stops = stops_of(zone)
    if stops:
        stops[0 if forward else -1].setFocus(Qt.FocusReason.TabFocusReason)
    return bool(stops)


def step(zone: QWidget, forward: bool, leave: Leave | None) -> bool:
    """One Tab within a zone. Returns: whether the focus went anywhere; where not, Qt goes on by its own chain."""
    stops, now = stops_of(zone), QApplication.focusWidget()
    at = stops.index(now) if now in stops else -1
    if at >= 0 and 0 <= at + (1 if forward else -1) < len(stops):
        stops[at + (1 if forward else -1)].setFocus(Qt.FocusReason.TabFocusReason)
        return True
    return leave(forward) if leave is not None else False
