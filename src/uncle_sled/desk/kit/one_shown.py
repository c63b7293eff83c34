"""Widgets that stand in each other's place, one of them seen; asked by the names that the toolkit's own stack has.

Only the one that is seen is asked how much room it wants. The toolkit's own stack asks every page it holds, with every line of
text in it, whenever one of them changes: half of the time that it takes to go from view to view.
"""

from __future__ import annotations

from PySide6.QtCore import QEvent, QSize, Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QWidget

from uncle_sled.desk.kit.dress import Pages, put_on
from uncle_sled.desk.kit.guarded import Guarded


class OneShown(Guarded, Pages):
    """Pages, the first of them seen until another is shown."""

    shown = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._current: QWidget | None = None

    def addWidget(self, page: QWidget) -> None:
        """A page more; the first one is seen."""
        page.hide()
        page.setParent(self)
        if self._current is None:
            self.setCurrentWidget(page)

    def currentWidget(self) -> QWidget | None:
        return self._current

    def setCurrentWidget(self, page: QWidget) -> None:
        """See this one. Where what one typed into goes with the page before, the new one is typed into."""
        if page is self._current:
            return
        before, window = self._current, self.window()
        typed_into = window.focusWidget()
        was_here = before is not None and typed_into is not None and before.isAncestorOf(typed_into)
        paints = self.updatesEnabled()
        self.setUpdatesEnabled(False)
        try:
            self._current = page
            page.setGeometry(self.rect())
            put_on(page)
            page.show()
            if before is not None:
                before.hide()
            page.raise_()
        finally:
            self.setUpdatesEnabled(paints)
        if was_here:
            (page.focusWidget() or _first_to_type_into(page)).setFocus()
        self.updateGeometry()
        self.shown.emit()

    def resizeEvent(self, event: QResizeEvent) -> None:
        if self._current is not None:
            self._current.setGeometry(self.rect())
        super().resizeEvent(event)

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.LayoutRequest:  # the page wants more room, or less
            self.updateGeometry()
        return super().event(event)

    def sizeHint(self) -> QSize:
        if self._current is None:
            return QSize(0, 0)
        return self._current.sizeHint().expandedTo(self.minimumSizeHint())

    def minimumSizeHint(self) -> QSize:
        if self._current is None:
            return QSize(0, 0)
        return self._current.minimumSizeHint().expandedTo(self._current.minimumSize())


def _first_to_type_into(page: QWidget) -> QWidget:
    """The first on a page that the tab key comes to; the page, where there is none."""
    found = page.nextInFocusChain()
    while found is not None and found is not page:
        if page.isAncestorOf(found) and found.isVisible() and found.isEnabled() and found.focusPolicy() & Qt.FocusPolicy.TabFocus:
            return found
        found = found.nextInFocusChain()
    return page
