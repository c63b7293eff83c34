"""Dialogs and menus that are gone when they are closed, with all that hung on them."""

from __future__ import annotations

from typing import Generic, TypeVar

from PySide6.QtWidgets import QDialog, QMenu, QVBoxLayout, QWidget

from uncle_sled.desk.kit.dress import dress
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.panel import Panel


class Dialog(Guarded, QDialog):
    """A dialog that is opened, done with, and deleted; whoever needs its answer takes it from its signals."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.finished.connect(self.deleteLater)
        dress(self)


EDGES_PX = (18, 14, 18, 14)


P = TypeVar("P", bound=Panel)


class PanelDialog(Dialog, Generic[P]):
    """A dialog that is a panel in a window of its own; the panel's ``done`` closes it."""

    def __init__(self, title: str, panel: P, size: tuple[int, int] = (0, 0), parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        if size[0]:
            self.resize(*size)
        self.panel = panel
        box = QVBoxLayout(self)
        box.setContentsMargins(*EDGES_PX)
        box.addWidget(panel)
        panel.refresh()


def popup_menu(parent: QWidget) -> QMenu:
    """A menu made anew each time it is wanted."""
    menu = QMenu(parent)
    menu.aboutToHide.connect(menu.deleteLater)
    return menu
