"""The table of all things: the accessible twin of the drawing, with the same selection and the same edits."""

from __future__ import annotations

from typing import Any

import msgspec
from PySide6.QtCore import (
    QAbstractTableModel,
    QItemSelection,
    QItemSelectionModel,
    QModelIndex,
    QPersistentModelIndex,
    QSortFilterProxyModel,
    Qt,
)
from PySide6.QtWidgets import QAbstractItemView, QHBoxLayout, QHeaderView, QLineEdit, QTableView, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.quantity import Length, Mass, Quantity
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.rig.bobs import GROUP_NAMES
from uncle_sled.core.errors import EntryError
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.units import weight
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import SOURCES
from uncle_sled.desk.session import Session

Index = QModelIndex | QPersistentModelIndex
SORT = Qt.ItemDataRole.UserRole


class Column(msgspec.Struct, frozen=True):
    """One column: its heading, the field behind it, and what kind of value stands there."""

    title: str
    field: str
    kind: Any


COLUMNS = (
    Column("Name", "name", str), Column("Group", "", None), Column("Weight", "mass", Mass), Column("Known by", "source", "source"), Column("Front edge", "x", Length),
    Column("Middle", "y", Length), Column("Underside", "z", Length), Column("Length", "length", Length), Column("Width", "width", Length), Column("Height", "height", Length),
    Column("Held by", "held_by", str),
)  # fmt: skip
SOURCE_WORDS = {str(value): words for value, words in SOURCES}


class ThingModel(QAbstractTableModel):
    """The things of the build. An entry edits every selected row of its column, as one step."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.things: tuple[Thing, ...] = session.build.stow.things
        self.chosen: tuple[str, ...] = ()

    def refresh(self) -> None:
        before, self.things = self.things, self.session.build.stow.things
        if [t.id for t in before] != [t.id for t in self.things]:
            self.beginResetModel()
            self.endResetModel()
        elif self.things:
            self.dataChanged.emit(self.index(0, 0), self.index(len(self.things) - 1, len(COLUMNS) - 1))

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.things)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(COLUMNS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role == Qt.ItemDataRole.DisplayRole and orientation == Qt.Orientation.Horizontal:
            return COLUMNS[section].title
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        thing, column = self.things[index.row()], COLUMNS[index.column()]
        value = getattr(thing, column.field) if column.field else GROUP_NAMES[group_of(thing)]
        if role == SORT:
            return value.si if isinstance(value, Quantity) else str(value).lower()
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            if isinstance(value, Quantity):
                return value.text(self.session.shown)
            return SOURCE_WORDS[value] if column.kind == "source" else str(value)
        if role == Qt.ItemDataRole.TextAlignmentRole and isinstance(value, Quantity):
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        return None

    def flags(self, index: Index) -> Qt.ItemFlag:
        made = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return made | Qt.ItemFlag.ItemIsEditable if COLUMNS[index.column()].field else made

    def setData(self, index: Index, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        thing, column = self.things[index.row()], COLUMNS[index.column()]
        if not column.field or value == self.data(index):
            return False
        try:
            entered = self._entered(column, str(value))
        except EntryError as fault:
            self.session.said.emit(f"{column.title}: {fault}", "stop")
            return False
        ids = self.chosen if thing.id in self.chosen else (thing.id,)
        if column.field == "name":
            ids = (thing.id,)  # one name for many helps nobody
        what = f"of {len(ids)} things" if len(ids) > 1 else f"of {thing.name}"
        return self.session.edit(
            f"{column.title} {what}", [set_to(f"stow.things.{id}.{column.field}", entered) for id in ids], "Stow", ids
        )

    def _entered(self, column: Column, text: str) -> Any:
        if column.kind == "source":
            key = next(
                (key for key, words in SOURCE_WORDS.items() if words.startswith(text.strip().lower()) and text.strip()),
                None,
            )
            if key is None:
                raise EntryError(f"“{text}” is none of {', '.join(SOURCE_WORDS.values())}.")
            return key
        if column.kind is str:
            if column.field == "name" and not text.strip():
                raise EntryError("a name cannot be empty.")
            return text.strip()[:120]
        entered = column.kind.read(text, self.session.shown)
        if column.field in ("mass", "length", "width", "height") and entered.si < 0:
            raise EntryError(f"“{text}” is less than nothing; 0 or more would be right.")
        return msgspec.to_builtins(entered)


class ThingTable(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.model = ThingModel(session)
        self.proxy = QSortFilterProxyModel()
        self.proxy.setSourceModel(self.model)
        self.proxy.setSortRole(SORT)
        self.proxy.setFilterKeyColumn(-1)
        self.proxy.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("Show only: jug, cargo, guessed…")
        self.filter.setAccessibleName("Filter the table")
        self.filter.setFixedWidth(230)
        self.filter.textChanged.connect(self.proxy.setFilterFixedString)
        self.view = QTableView()
        self.view.setModel(self.proxy)
        self.view.setSortingEnabled(True)
        self.view.sortByColumn(4, Qt.SortOrder.AscendingOrder)
        self.view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.view.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.view.setAlternatingRowColors(True)
        self.view.verticalHeader().hide()
        self.view.verticalHeader().setDefaultSectionSize(26)
        self.view.setAccessibleName("All things")
        header = self.view.horizontalHeader()
        header.setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        for at, wide in enumerate((158, 62, 70, 84, 80, 70, 76, 66, 62, 62, 60)):
            self.view.setColumnWidth(at, wide)
        header.setStretchLastSection(True)
        self.totals = label("", "small", "pencil", wrap=True)
        top = QHBoxLayout()
        top.addWidget(self.filter)
        top.addWidget(label("What you type into one selected row goes into all of them.", "small", "pencil"))
        top.addStretch(1)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.addLayout(top)
        rows.addWidget(self.view, 1)
        rows.addWidget(self.totals)
        self._showing = False
        self.view.selectionModel().selectionChanged.connect(self._chosen)
        session.changed.connect(self.refresh)
        session.selected.connect(self._show_selection)
        self.refresh()

    def showEvent(self, event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible() and self.totals.text():
            return  # showEvent brings it up to date
        self.model.refresh()
        sums: dict[str, float] = {}
        for thing in self.session.build.stow.things:
            name = GROUP_NAMES[group_of(thing)]
            sums[name] = sums.get(name, 0.0) + thing.mass.si
        shown = self.session.shown
        parts = [f"{name} {weight(kg, shown)}" for name, kg in sorted(sums.items(), key=lambda pair: -pair[1])]
        self.totals.setText(
            f"Empty, by group: {', '.join(parts)}; together {weight(sum(sums.values()), shown)}"
            if parts
            else "Nothing is aboard yet."
        )
        self._show_selection()

    def _chosen(self, *_: object) -> None:
        if self._showing:
            return
        rows = {self.proxy.mapToSource(index).row() for index in self.view.selectionModel().selectedRows()}
        ids = tuple(thing.id for at, thing in enumerate(self.model.things) if at in rows)
        self.model.chosen = ids
        self.session.select(ids)

    def _show_selection(self) -> None:
        """The rows of what is selected in the drawing."""
        if self._showing or not self.isVisible():
            return
        chosen = set(self.session.selection)
        self.model.chosen = tuple(t.id for t in self.model.things if t.id in chosen)
        picked = QItemSelection()
        for at, thing in enumerate(self.model.things):
            if thing.id in chosen:
                index = self.proxy.mapFromSource(self.model.index(at, 0))
                if index.isValid():
                    picked.select(index, index)
        self._showing = True
        self.view.selectionModel().select(
            picked, QItemSelectionModel.SelectionFlag.ClearAndSelect | QItemSelectionModel.SelectionFlag.Rows
        )
        self._showing = False
