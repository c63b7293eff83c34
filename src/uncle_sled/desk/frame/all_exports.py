"""Every file that can be written, in one list, with what it is for; a double click writes it."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.desk.frame.dialogs import close_row
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.exchange.exports import EXPORTS


class AllExports(Dialog):
    def __init__(self, write: Callable[[str], object], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("All exports")
        self.resize(860, 560)
        self.write = write
        rows = QVBoxLayout(self)
        rows.setContentsMargins(14, 12, 14, 12)
        self.model = TableModel[str](
            (
                Column("File", lambda kind: EXPORTS[kind].what, 380),
                Column("Ending", lambda kind: f".{EXPORTS[kind].ending}", 60),
                Column("For", lambda kind: EXPORTS[kind].what_for, 320),
            )
        )
        self.model.set_rows(tuple(EXPORTS))
        self.table = Table(self.model, "Every file that can be written")
        self.table.doubleClicked.connect(lambda _: self.take())
        self.table.selectRow(0)
        rows.addWidget(self.table, 1)
        keys = QHBoxLayout()
        self.write_button = QPushButton("Write it…")
        self.write_button.setToolTip("Choose where it goes")
        self.write_button.clicked.connect(lambda _=False: self.take())
        keys.addWidget(self.write_button)
        keys.addLayout(close_row(self), 1)
        rows.addLayout(keys)

    def take(self) -> None:
        at = self.table.marked()
        if at >= 0:
            kind = self.model.rows[at]
            self.accept()
            self.write(kind)
