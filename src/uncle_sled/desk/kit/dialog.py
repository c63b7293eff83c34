"""Dialogs and menus that are gone when they are closed, with all that hung on them."""

from __future__ import annotations

from PySide6.QtWidgets import QDialog, QMenu, QWidget

from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.theme.theme import dress


class Dialog(Guarded, QDialog):
    """A dialog that is opened, done with, and deleted; whoever needs its answer takes it from its signals."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.finished.connect(self.deleteLater)
        if parent is None:
            dress(self)


def popup_menu(parent: QWidget) -> QMenu:
    """A menu made anew each time it is wanted."""
    menu = QMenu(parent)
    menu.aboutToHide.connect(menu.deleteLater)
    return menu
