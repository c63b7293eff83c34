"""Every hole in the skin as a table: what it is, where, how it is sealed; the accessible twin of the drawing."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent

from uncle_sled.core.studies.shell.holes import SEALS, Hole, holes
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

# Columns that give way where there is little room, and the width [px] under which they do.
GIVE_WAY = {"From front": 520, "Sill": 520, "Drip edge": 400}


class OpeningsTable(Table):
    def __init__(self, session: Session) -> None:
        self.session = session
        self._filling = False
        self.holes = TableModel[Hole](
            (
                Column("Opening", lambda hole: hole.opening.name, ink=self._bad),
                Column("Face", lambda hole: hole.opening.face),
                Column("From front", lambda hole: self._m(hole.opening.along.si), right=True),
                Column("Sill", lambda hole: self._m(hole.opening.up.si), right=True),
                Column("Clear opening", self._clear),
                Column("Seal", lambda hole: SEALS[hole.opening.seal]),
                Column("Drip edge", _drip, ink=lambda hole: "primer" if _drip(hole) == "none yet" else ""),
            )
        )
        super().__init__(self.holes, "Openings and holes")
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.selectionModel().selectionChanged.connect(self._picked)
        session.selected.connect(self._follow)

    @property
    def ids(self) -> list[str]:
        return [hole.opening.id for hole in self.holes.rows]

    def _m(self, metres: float) -> str:
        return Words(self.session.shown).cut(metres)

    def _clear(self, hole: Hole) -> str:
        return f"{self._m(hole.opening.width.si)} × {self._m(hole.opening.height.si)}"

    def _bad(self, hole: Hole) -> str:
        faults = self.session.studied.framed.faults
        return "primer" if any(hole.opening.id in fault.where for fault in faults) else ""

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Where there is little room, places are read In hand and on the drawing."""
        self.give_way({at: self.width() < GIVE_WAY.get(column.title, 0) for at, column in enumerate(self.columns)})
        super().resizeEvent(event)

    def refresh(self) -> None:
        self._filling = True
        self.holes.set_rows(holes(self.session.studied))
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


def _drip(hole: Hole) -> str:
    return ("yes" if hole.opening.drip else "none yet") if hole.wants_drip else "not needed"
