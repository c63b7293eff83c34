"""Tables declared by their columns: what stands in a cell, how it is sorted, in which ink, and what an entry does.

One model for all of them; a table of things, of openings or of straps is its columns and nothing else.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from typing import Any, Generic, TypeVar

import msgspec
from PySide6.QtCore import (
    QAbstractItemModel,
    QAbstractTableModel,
    QEvent,
    QItemSelection,
    QItemSelectionModel,
    QModelIndex,
    QPersistentModelIndex,
    QSortFilterProxyModel,
    Qt,
    Signal,
)
from PySide6.QtGui import QBrush, QFont, QFontMetrics, QResizeEvent
from PySide6.QtWidgets import QAbstractItemView, QTableView

from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.theme.theme import colour

R = TypeVar("R")
Index = QModelIndex | QPersistentModelIndex
SORT = Qt.ItemDataRole.UserRole
ROW_PX = 26
PADDING_PX, ARROW_PX = 14, 16  # about the words of a cell, and for the mark of a sorted column
LOOKED_AT = 200  # rows that tell how wide a column wants to be
LEAST_PX = 70  # words give way down to this, numbers never
SIDES = {True: Qt.AlignmentFlag.AlignRight, False: Qt.AlignmentFlag.AlignLeft}


class Column(msgspec.Struct, Generic[R], frozen=True):
    """One column. ``wide`` is the least in pixels, 0: none; ``enter`` takes what was typed and says whether it was taken.

    ``from_px``: the table's width from which it is shown; where there is less room it gives way to the others.
    """

    title: str
    text: Callable[[R], str]
    wide: int = 0
    right: bool = False  # numbers stand at the right
    sort: Callable[[R], Any] | None = None  # else by its words
    ink: Callable[[R], str] | None = None  # nothing: as the table's
    enter: Callable[[R, str], bool] | None = None
    tip: str = ""
    from_px: int = 0
    may: Callable[[R], bool] | None = None  # whether this cell may be typed into, where not all of the column may
    ticked: Callable[[R], bool | None] | None = None  # a box in the cell; None: no box
    tick: Callable[[R, bool], bool] | None = None
    ground: Callable[[R], str] | None = None
    plain: Callable[[R], bool] | None = None  # a heading between rows: nothing to choose


class TableModel(Guarded, QAbstractTableModel, Generic[R]):
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
            if role == Qt.ItemDataRole.TextAlignmentRole:
                return int(SIDES[self.columns[section].right] | Qt.AlignmentFlag.AlignVCenter)
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
        if role == Qt.ItemDataRole.BackgroundRole and column.ground is not None:
            ground = column.ground(row)
            return QBrush(colour(ground)) if ground else None
        if role == Qt.ItemDataRole.CheckStateRole and column.ticked is not None:
            on = column.ticked(row)
            return None if on is None else Qt.CheckState.Checked if on else Qt.CheckState.Unchecked
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        row, column = self.rows[index.row()], self.columns[index.column()]
        if column.plain is not None and column.plain(row):
            return Qt.ItemFlag.NoItemFlags
        made = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        if column.enter is not None and (column.may is None or column.may(row)):
            made |= Qt.ItemFlag.ItemIsEditable
        if column.ticked is not None and column.ticked(row) is not None:
            made |= Qt.ItemFlag.ItemIsUserCheckable
        return made

    def setData(self, index: Index, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        row, column = self.rows[index.row()], self.columns[index.column()]
        if role == Qt.ItemDataRole.CheckStateRole and column.tick is not None:
            return column.tick(row, Qt.CheckState(value) == Qt.CheckState.Checked)
        if column.enter is None or (column.may is not None and not column.may(row)) or str(value) == column.text(row):
            return False
        return column.enter(row, str(value))


class Table(Guarded, QTableView, Generic[R]):
    """A view of such a model that picks whole rows. ``picked`` carries a row that a hand chose."""

    picked = Signal(object)

    def __init__(self, model: TableModel[R], name: str, several: bool = False) -> None:
        super().__init__()
        self._filling = False
        self.columns = model.columns
        self.setModel(model)
        self.setAccessibleName(name)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        modes = QAbstractItemView.SelectionMode
        self.setSelectionMode(modes.ExtendedSelection if several else modes.SingleSelection)
        self.setAlternatingRowColors(True)
        self.verticalHeader().hide()
        self.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.horizontalHeader().setStretchLastSection(False)
        self.horizontalHeader().setMinimumSectionSize(44)
        self.horizontalHeader().setHighlightSections(False)
        self.horizontalHeader().sectionResized.connect(self._by_hand)
        self.horizontalHeader().sortIndicatorChanged.connect(lambda *_: self._told_anew())
        self._laying = False
        self._wants: dict[int, int] = {}  # how wide each column wants to be, until there are other words in it
        self._own = False  # a hand has set the columns: they stay
        self._watch(model)

    @property
    def rows(self) -> tuple[R, ...]:
        """What it shows, as it stands there."""
        return tuple(self._shown(self.model().rowCount()))

    @contextmanager
    def _by_itself(self) -> Iterator[None]:
        """Within this no change of the selection is a hand's."""
        self._filling = True
        try:
            yield
        finally:
            self._filling = False

    def show_rows(self, rows: Sequence[R], same: Callable[[R, R], bool] | None = None) -> None:
        """Show other rows; nothing counts as chosen by that."""
        model = self.model()
        source = model.sourceModel() if isinstance(model, QSortFilterProxyModel) else model
        assert isinstance(source, TableModel)
        with self._by_itself():
            source.set_rows(rows, same)

    def mark_only(self, at: int) -> None:
        """Choose this row and no other, none where it is less than 0; that is no hand either."""
        if at == self.marked() and len(self.selectionModel().selectedRows()) == (at >= 0):
            return
        with self._by_itself():
            self.selectRow(at) if at >= 0 else self.clearSelection()

    def mark_all(self, rows: Sequence[int]) -> None:
        """Choose these rows and no others; that is no hand either."""
        if rows == sorted(index.row() for index in self.selectionModel().selectedRows()):
            return
        picked = QItemSelection()
        for at in rows:
            picked.select(self.model().index(at, 0), self.model().index(at, 0))
        flags = QItemSelectionModel.SelectionFlag
        with self._by_itself():
            self.selectionModel().select(picked, flags.ClearAndSelect | flags.Rows)

    def _chosen(self) -> None:
        row = self.row()
        if row is not None and not self._filling:
            self.picked.emit(row)

    def row(self) -> R | None:
        """The first chosen row."""
        at = self.marked()
        return self.rows[at] if at >= 0 else None

    def chosen_rows(self) -> list[R]:
        """All chosen rows, from the top."""
        rows = self.rows
        return [rows[at] for at in sorted(index.row() for index in self.selectionModel().selectedRows())]

    def mark(self, at: int) -> None:
        """Choose a row where there is such a one; what was chosen stays where there is none."""
        if at >= 0:
            flags = QItemSelectionModel.SelectionFlag.ClearAndSelect | QItemSelectionModel.SelectionFlag.Rows
            self.selectionModel().select(self.model().index(at, 0), flags)

    def marked(self) -> int:
        """The first chosen row; -1 where none is."""
        rows = self.selectionModel().selectedRows()
        return rows[0].row() if rows and rows[0].row() < self.model().rowCount() else -1

    def setModel(self, model: QAbstractItemModel | None) -> None:
        super().setModel(model)
        if hasattr(self, "_own") and model is not None:
            self._watch(model)

    def _watch(self, model: QAbstractItemModel) -> None:
        for signal in (model.modelReset, model.dataChanged, model.layoutChanged):
            signal.connect(self._told_anew)
        self.selectionModel().selectionChanged.connect(lambda *_: self._chosen())
        self._told_anew()

    def _told_anew(self) -> None:
        self._wants.clear()
        self.lay_columns()

    def changeEvent(self, event: QEvent) -> None:
        super().changeEvent(event)
        if event.type() == QEvent.Type.FontChange and hasattr(self, "_wants"):
            self._wants.clear()

    def _by_hand(self) -> None:
        self._own = self._own or not self._laying

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.give_way({at: self.width() < column.from_px for at, column in enumerate(self.columns) if column.from_px})
        self.lay_columns()

    def give_way(self, hidden: dict[int, bool]) -> None:
        """Hide columns where there is little room, and show them again; that is no hand on the columns."""
        if all(self.isColumnHidden(at) == off for at, off in hidden.items()):
            return
        self._laying = True
        for at, off in hidden.items():
            self.setColumnHidden(at, off)
        self._laying = False
        self.lay_columns()

    def lay_columns(self) -> None:
        """Every column as wide as its words want, and what is left over shared out, most of it to words."""
        model = self.model()
        if self._own or model is None:
            return
        shown = [at for at in range(len(self.columns)) if not self.isColumnHidden(at)]
        if missing := [at for at in shown if at not in self._wants]:
            self._wants |= self._wanted(missing)
        wants = {at: self._wants[at] for at in shown}
        spare = self.viewport().width() - sum(wants.values())
        words = [at for at in shown if not self.columns[at].right]
        if spare < 0:
            self._give_way(wants, words, -spare)
        elif shown:
            some = words or shown
            for at in some:
                wants[at] += spare // len(some)
            wants[some[-1]] += spare % len(some)
        self._laying = True
        for at, wide in wants.items():
            self.setColumnWidth(at, wide)
        self._laying = False

    def _give_way(self, wants: dict[int, int], words: list[int], lacking: int) -> None:
        """The widest words give way first, all to the same width at the most."""
        room = sum(wants[at] for at in words) - lacking
        order = sorted(words, key=lambda at: wants[at])
        for left, at in zip(range(len(order), 0, -1), order, strict=True):
            wants[at] = max(min(wants[at], room // left), min(wants[at], max(self.columns[at].wide, LEAST_PX)))
            room -= wants[at]

    def _shown(self, many: int) -> Sequence[R]:
        """The first so many rows as they are shown."""
        model = self.model()
        if isinstance(model, QSortFilterProxyModel):
            source = model.sourceModel()
            assert isinstance(source, TableModel)
            return [source.rows[model.mapToSource(model.index(row, 0)).row()] for row in range(many)]
        assert isinstance(model, TableModel)
        return model.rows[:many]

    def _wanted(self, some: Sequence[int]) -> dict[int, int]:
        font, rows = self.font(), self._shown(min(self.model().rowCount(), LOOKED_AT))
        bold, metrics = QFont(font), QFontMetrics(font)
        bold.setWeight(QFont.Weight.DemiBold)
        heads = QFontMetrics(bold)
        sorted_by = self.horizontalHeader().sortIndicatorSection() if self.isSortingEnabled() else -1
        made = {}
        for at in some:
            column = self.columns[at]
            widest = heads.horizontalAdvance(column.title) + ARROW_PX * (sorted_by == at)
            for text in {column.text(row) for row in rows}:  # what stands there twice is measured once
                widest = max(widest, metrics.horizontalAdvance(text))
            made[at] = max(widest + PADDING_PX, column.wide)
        return made
