"""Fields that are made anew keep the keyboard where it was: a choice that changes its own form leaves nobody outside."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QWidget


@contextmanager
def focus_kept(inside: QWidget) -> Iterator[None]:
    """Where the focus stood in ``inside`` before, the field of the same name and kind gets it after."""
    had = QApplication.focusWidget()
    name, kind = ("", QWidget) if had is None or not inside.isAncestorOf(had) else (had.accessibleName(), type(had))
    yield
    now = QApplication.focusWidget()
    if not name or (now is not None and inside.isAncestorOf(now) and not now.isHidden() and now.accessibleName() == name):
        return
    for widget in inside.findChildren(kind):
        if widget.accessibleName() == name and not widget.isHidden() and widget.isEnabled():
            widget.setFocus(Qt.FocusReason.OtherFocusReason)
            return
