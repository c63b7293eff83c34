"""Who wears the sheet of the theme. What is not seen is dressed when it is shown: day turns to night in what one looks at.

A sheet that is set on a window restyles everything that hangs on it, seen or not. So it is worn by the largest widgets that
have no pages under them, and of pages by the one that is seen.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from weakref import WeakSet

from PySide6.QtCore import QChildEvent, QEvent, QObject
from PySide6.QtWidgets import QApplication, QWidget
from shiboken6 import isValid

from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.theme.theme import style_sheet, theme_name, use_theme

WORN = "dressed"  # of whoever wears a sheet: that of which theme
_tops: WeakSet[QWidget] = WeakSet()
_pages: WeakSet[QWidget] = WeakSet()


class Pages(QWidget):
    """Widgets that stand in each other's place, one of them seen."""

    def __init__(self) -> None:
        super().__init__()
        _pages.add(self)

    def currentWidget(self) -> QWidget | None:
        raise NotImplementedError


class _Come(Guarded, QObject):
    """Sees who comes to hang on a widget that wears none itself: buttons, menus, dialogs of the toolkit."""

    def eventFilter(self, _of: QObject, event: QEvent) -> bool:
        if isinstance(event, QChildEvent) and event.type() == QEvent.Type.ChildPolished:
            child = event.child()
            if isinstance(child, QWidget):
                put_on(child)
        return False


@cache
def _come() -> _Come:
    return _Come()


def dress(top: QWidget) -> None:
    """Give a window of its own the sheet of the theme, and of each theme that follows."""
    _tops.add(top)
    put_on(top)


def put_on(widget: QWidget) -> None:
    """The sheet of the theme for whatever is seen of a widget, where it is not worn already."""
    holders = _holders()
    waiting = [widget]
    while waiting:
        one = waiting.pop()
        if one in holders:
            _watch(one)
            waiting += _below(one)
        elif one.property(WORN) != theme_name() and not _worn_above(one):
            one.setProperty(WORN, theme_name())
            one.setStyleSheet(style_sheet())


def wear(app: QApplication, name: str) -> None:
    """Put a theme in force for the whole application."""
    use_theme(app, name)
    for top in [*_tops]:
        if isValid(top):
            put_on(top)


def _holders() -> set[QWidget]:
    """Whoever has pages under it, and those that hold them."""
    found: set[QWidget] = set()
    for pages in [*_pages]:
        if not isValid(pages):
            continue
        at: QWidget | None = pages
        while at is not None and at not in found:
            found.add(at)
            at = at.parentWidget()
    return found


def _below(holder: QWidget) -> Iterator[QWidget]:
    if isinstance(holder, Pages):
        page = holder.currentWidget()
        if page is not None:
            yield page
    else:
        yield from (child for child in holder.children() if isinstance(child, QWidget))


def _worn_above(widget: QWidget) -> bool:
    """Whether somebody that it hangs on wears a sheet, which is that of the theme or will be."""
    at = widget.parentWidget()
    while at is not None:
        if at.property(WORN) is not None:
            return True
        at = at.parentWidget()
    return False


def _watch(holder: QWidget) -> None:
    if not isinstance(holder, Pages):  # a page is dressed when it is shown
        holder.installEventFilter(_come())  # once, however often it is asked for
    if holder.property(WORN) is not None:  # it had no pages yet when it was dressed
        holder.setProperty(WORN, None)
        holder.setStyleSheet("")
