"""Every hole in the skin as a table: what it is, where, how it is sealed; the accessible twin of the drawing."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QTableWidget, QTableWidgetItem

from uncle_sled.core.studies.shell.holes import SEALS, holes
from uncle_sled.core.words import Words
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

HEADS = ("Opening", "Face", "From front", "Sill", "Clear opening", "Seal", "Drip edge")


class OpeningsTable(QTableWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.ids: list[str] = []
        self._filling = False
        self.setAccessibleName("Openings and holes")
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setColumnCount(len(HEADS))
        self.setHorizontalHeaderLabels(list(HEADS))
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(24)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        header = self.horizontalHeader()
        header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        header.setMinimumSectionSize(44)
        header.setHighlightSections(False)
        self.itemSelectionChanged.connect(self._picked)
        session.selected.connect(self._follow)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Where there is little room, places are read In hand and on the drawing."""
        super().resizeEvent(event)
        for column, least in ((2, 520), (3, 520), (6, 400)):
            self.setColumnHidden(column, self.width() < least)

    def refresh(self) -> None:
        s = self.session.studied
        words = Words(self.session.shown)
        bad = {id for fault in s.framed.faults for id in fault.where}
        self._filling = True
        found = holes(s)
        self.ids = [hole.opening.id for hole in found]
        self.setRowCount(len(found))
        for row, hole in enumerate(found):
            one = hole.opening
            drip = ("yes" if one.drip else "none yet") if hole.wants_drip else "not needed"
            cells = (
                one.name,
                one.face,
                words.m(one.along.si),
                words.m(one.up.si),
                f"{words.m(one.width.si)} × {words.m(one.height.si)}",
                SEALS[one.seal],
                drip,
            )
            for column, text in enumerate(cells):
                item = QTableWidgetItem(text)
                if (one.id in bad and column == 0) or text == "none yet":
                    item.setForeground(colour("primer"))
                self.setItem(row, column, item)
        self._filling = False
        self._follow()

    def _picked(self) -> None:
        if not self._filling and self.selectedIndexes():
            self.session.select((self.ids[self.selectedIndexes()[0].row()],))

    def _follow(self) -> None:
        """Show the selection of the drawing."""
        self._filling = True
        row = next((at for at, id in enumerate(self.ids) if id in self.session.selection), -1)
        if row >= 0:
            self.selectRow(row)
        else:
            self.clearSelection()
        self._filling = False
