"""The finder: actions, things, findings, load cases by a few letters."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.trail import stop_of
from uncle_sled.core.units import weight
from uncle_sled.desk.actions import Actions
from uncle_sled.desk.session import Session

MOST = 40


class Finder(QFrame):
    def __init__(self, session: Session, actions: Actions, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.session, self.acts = session, actions
        self.setObjectName("popup")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(8, 8, 8, 8)
        self.line = QLineEdit()
        self.line.setAccessibleName("Find anything")
        self.line.setPlaceholderText("An action, a thing, a finding, a case…")
        self.list = QListWidget()
        self.list.setAccessibleName("Found")
        rows.addWidget(self.line)
        rows.addWidget(self.list)
        self.setFixedSize(420, 360)
        self.line.textChanged.connect(self.fill)
        self.line.returnPressed.connect(lambda: self.take(self.list.currentItem() or self.list.item(0)))
        self.list.itemClicked.connect(self.take)
        self.list.itemActivated.connect(self.take)
        self.found: list[tuple[str, Callable[[], object]]] = []
        self.fill("")

    def everything(self) -> list[tuple[str, Callable[[], object]]]:
        session = self.session
        made: list[tuple[str, Callable[[], object]]] = []
        for act in self.acts.acts.values():
            key = f"   {self.acts.key_of(act.id).split(', ')[0]}" if self.acts.key_of(act.id) else ""
            made.append((f"{act.title}{key}", act.run))
        for case in session.studied.table.cases:
            made.append((f"Case: {case.name}, {case.says}", partial(session.show_case, case.id)))
        for part in session.studied.parts:
            made.append((f"{part.name}, {weight(part.mass_kg, session.shown)}", partial(self._thing, part.id)))
        for limit in session.studied.limits:
            number = f"{weight(limit.value, session.shown)} of {weight(limit.limit, session.shown)}"
            made.append((f"Limit: {limit.name}, {number}", partial(session.show_case, limit.case_id)))
        for one in session.findings:
            made.append((f"Uncle: {one.title}. {one.says}", partial(self._point, one)))
        return made

    def _point(self, one: Finding) -> None:
        self.session.go_to(one.stop)
        self.session.flash.emit(one.where)

    def _thing(self, id: str) -> None:
        part = next((p for p in self.session.studied.parts if p.id == id), None)
        stop = stop_of([part.made_by]) if part is not None else None
        if stop is not None:
            self.session.go_to(stop)
        self.session.select((id,))

    def fill(self, text: str) -> None:
        words = text.lower().split()
        self.found = [(title, run) for title, run in self.everything() if all(word in title.lower() for word in words)][
            :MOST
        ]
        self.list.clear()
        for title, _ in self.found:
            self.list.addItem(QListWidgetItem(title))
        if self.found:
            self.list.setCurrentRow(0)

    def take(self, item: QListWidgetItem | None) -> None:
        at = self.list.row(item) if item is not None else -1
        if 0 <= at < len(self.found):
            self.hide()
            self.found[at][1]()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            self.list.setCurrentRow(
                max(
                    0,
                    min(self.list.count() - 1, self.list.currentRow() + (1 if event.key() == Qt.Key.Key_Down else -1)),
                )
            )
        else:
            super().keyPressEvent(event)
