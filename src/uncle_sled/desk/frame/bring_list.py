"""Bring in a list of weights: match its columns, look at what it gives, take all of it or nothing."""

from __future__ import annotations

from pathlib import Path

import msgspec
from PySide6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QHeaderView,
    QListWidget,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from uncle_sled.core.document.edits import add_to
from uncle_sled.core.studies.stow.room import floor_m
from uncle_sled.core.units import distance, weight
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.session import Session
from uncle_sled.exchange.weight_list import FIELDS, Sheet, Taken, guess_columns, guess_units, take

PREVIEW = 60
LENGTH_UNITS: list[tuple[object, str]] = [(u, u) for u in ("mm", "cm", "m", "in", "ft")]
MASS_UNITS: list[tuple[object, str]] = [(u, u) for u in ("kg", "g", "lb", "oz")]


class BringList(Dialog):
    def __init__(self, session: Session, path: Path, sheet: Sheet, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session, self.sheet = session, sheet
        self.setWindowTitle(f"Bring in {path.name}")
        self.resize(940, 600)
        self.columns = guess_columns(sheet)
        self.bare = guess_units(sheet, self.columns, session.shown)
        self.taken = Taken((), ())
        choices: list[tuple[object, str]] = [(None, "not in the list"), *((at, head[:24]) for at, head in enumerate(sheet.headings))]
        self.pickers = {field: ChoiceField(title, choices) for field, (title, _) in FIELDS.items()}
        self.length_unit, self.mass_unit = (
            ChoiceField("Bare lengths are in", LENGTH_UNITS),
            ChoiceField("Bare weights are in", MASS_UNITS),
        )
        self.table = QTableWidget()
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setAccessibleName("What the list gives")
        self.table.verticalHeader().hide()
        self.faults = QListWidget()
        self.faults.setAccessibleName("Lines that could not be understood")
        self.faults.setMaximumHeight(110)
        self.fault_head = label("", "title", "primer")
        self.leave_out = QCheckBox("Leave these lines out and bring in the rest")
        self.count = label("", "head")
        self.note = label(sheet.note, "small", "ochre word", wrap=True)
        self.note.setVisible(bool(sheet.note))
        self.bring = QPushButton("Bring them in")
        self._lay()
        for field, picker in self.pickers.items():
            picker.show_value(self.columns[field])
            picker.entered.connect(lambda at, field=field: self.match(field, at))
        for picker, key in ((self.length_unit, "length"), (self.mass_unit, "mass")):
            picker.show_value(self.bare[key])
            picker.entered.connect(lambda unit, key=key: self.unit(key, unit))
        self.leave_out.toggled.connect(self._may)
        self.bring.clicked.connect(self._bring)
        self.refresh()

    def _lay(self) -> None:
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        for at, (field, picker) in enumerate(self.pickers.items()):
            grid.addWidget(label(FIELDS[field][0], "", "pencil"), at % 4, 2 * (at // 4))
            grid.addWidget(picker, at % 4, 2 * (at // 4) + 1)
        for at, picker in enumerate((self.length_unit, self.mass_unit)):
            grid.addWidget(label(picker.accessibleName(), "", "pencil"), at, 4)
            grid.addWidget(picker, at, 5)
        for column in (1, 3):
            grid.setColumnStretch(column, 1)
        keys = QHBoxLayout()
        cancel = QPushButton("Bring in nothing")
        cancel.clicked.connect(self.reject)
        self.bring.setProperty("kind", "main")
        keys.addWidget(self.count)
        keys.addStretch(1)
        keys.addWidget(cancel)
        keys.addWidget(self.bring)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        rows.addWidget(label("Which column is which?", "title"))
        rows.addLayout(grid)
        rows.addWidget(self.note)
        rows.addWidget(self.table, 1)
        rows.addWidget(self.fault_head)
        rows.addWidget(self.faults)
        rows.addWidget(self.leave_out)
        rows.addLayout(keys)

    def match(self, field: str, at: object) -> None:
        self.columns[field] = at if isinstance(at, int) else None
        self.refresh()

    def unit(self, key: str, unit: object) -> None:
        self.bare[key] = str(unit)
        self.refresh()

    def refresh(self) -> None:
        build = self.session.build
        floor = floor_m(build)
        self.taken = take(self.sheet, self.columns, self.bare, [t.id for t in build.stow.things], floor)
        shown = self.session.shown
        self.table.setColumnCount(5)
        self.table.setHorizontalHeaderLabels(["Name", "Weight", "Front edge", "Right of middle", "Size"])
        self.table.setRowCount(min(len(self.taken.things), PREVIEW))
        for row, thing in enumerate(self.taken.things[:PREVIEW]):
            size = " × ".join(distance(q.si, shown) for q in (thing.length, thing.width, thing.height))
            for column, text in enumerate(
                (thing.name, thing.mass.text(shown), distance(thing.x.si, shown), distance(thing.y.si, shown), size)
            ):
                self.table.setItem(row, column, QTableWidgetItem(text))
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        self.table.horizontalHeader().setStretchLastSection(True)
        faults = self.taken.faults
        self.faults.clear()
        self.faults.addItems([f"Line {fault.line}: {fault.says}" for fault in faults[:200]])
        n = len(faults)
        self.fault_head.setText(f"{n} line{'s' if n != 1 else ''} could not be understood")
        for widget in (self.fault_head, self.faults, self.leave_out):
            widget.setVisible(bool(faults))
        total = sum(t.mass.si for t in self.taken.things)
        things = len(self.taken.things)
        self.count.setText(
            f"{things} thing{'s' if things != 1 else ''}, {weight(total, shown)}"
            + (f", the first {PREVIEW} shown" if things > PREVIEW else "")
        )
        self._may()

    def _may(self) -> None:
        self.bring.setEnabled(bool(self.taken.things) and (not self.taken.faults or self.leave_out.isChecked()))

    def _bring(self) -> None:
        """All of it as one step that can be undone."""
        ops = [add_to("stow.things", msgspec.to_builtins(thing)) for thing in self.taken.things]
        n = len(ops)
        if self.session.edit(f"Bring in {n} thing{'s' if n != 1 else ''} from a list", ops, "Stow", tuple(t.id for t in self.taken.things)):
            self.accept()
