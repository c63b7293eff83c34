"""Tables declared by their columns: what stands in a cell, how it is sorted, in which ink, and what an entry does.

One model for all of them; a table of things, of openings or of straps is its columns and nothing else.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any, Generic, TypeVar

import msgspec
from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, Qt
from PySide6.QtGui import QBrush
from PySide6.QtWidgets import QAbstractItemView, QHeaderView, QTableView

from uncle_sled.desk.theme.theme import colour

R = TypeVar("R")
Index = QModelIndex | QPersistentModelIndex
SORT = Qt.ItemDataRole.UserRole
ROW_PX = 26


class Column(msgspec.Struct, Generic[R], frozen=True):
    """One column. ``wide`` in pixels, 0: as its words want; ``enter`` takes what was typed and says whether it was taken."""

    title: str
    text: Callable[[R], str]
    wide: int = 0
    right: bool = False  # numbers stand at the right
    sort: Callable[[R], Any] | None = None  # else by its words
    ink: Callable[[R], str] | None = None  # nothing: as the table's
    enter: Callable[[R, str], bool] | None = None
    tip: str = ""


class TableModel(QAbstractTableModel, Generic[R]):
    """Rows of one kind under declared columns."""

    def __init__(self, columns: Sequence[Column[R]]) -> None:
        super().__init__()
        self.columns = tuple(columns)
        self.rows: tuple[R, ...] = ()

    def set_rows(self, rows: Sequence[R], same: Callable[[R, R], bool] | None = None) -> None:
        """Show other rows. Args: same: whether two rows are one in two states; then what is edited or chosen stays."""
        before, self.rows = self.rows, tuple(rows)
        if same is None or len(before) != len(rows) or not all(same(a, b) for a, b in zip(before, rows, strict=True)):
            self.beginResetModel()
            self.endResetModel()
        elif self.rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(self.rows) - 1, len(self.columns) - 1))

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.rows)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.columns)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if orientation == Qt.Orientation.Horizontal and 0 <= section < len(self.columns):
            if role == Qt.ItemDataRole.DisplayRole:
                return self.columns[section].title
            if role == Qt.ItemDataRole.ToolTipRole:
                return self.columns[section].tip or None
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not 0 <= index.row() < len(self.rows):
            return None
        row, column = self.rows[index.row()], self.columns[index.column()]
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return column.text(row)
        if role == SORT:
            return column.sort(row) if column.sort is not None else column.text(row).lower()
        if role == Qt.ItemDataRole.TextAlignmentRole and column.right:
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        if role == Qt.ItemDataRole.ForegroundRole and column.ink is not None:
            ink = column.ink(row)
            return QBrush(colour(ink)) if ink else None
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        made = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return made | Qt.ItemFlag.ItemIsEditable if self.columns[index.column()].enter is not None else made

    def setData(self, index: Index, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        row, column = self.rows[index.row()], self.columns[index.column()]
        if column.enter is None or str(value) == column.text(row):
            return False
        return column.enter(row, str(value))


class Table(QTableView):
    """A view of such a model that picks whole rows."""

    def __init__(self, model: TableModel[Any], name: str, several: bool = False) -> None:
        super().__init__()
        self.columns = model.columns
        self.setModel(model)
        self.setAccessibleName(name)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        modes = QAbstractItemView.SelectionMode
        self.setSelectionMode(modes.ExtendedSelection if several else modes.SingleSelection)
        self.setAlternatingRowColors(True)
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.horizontalHeader().setStretchLastSection(True)
        self.lay_columns()

    def lay_columns(self) -> None:
        """The columns as wide as they say; a model between this and the rows keeps them."""
        last = len(self.columns) - 1
        for at, column in enumerate(self.columns):
            if at == last and column.wide:
                continue  # it takes what is left
            if column.wide:
                self.setColumnWidth(at, column.wide)
            else:
                self.horizontalHeader().setSectionResizeMode(at, QHeaderView.ResizeMode.ResizeToContents)
