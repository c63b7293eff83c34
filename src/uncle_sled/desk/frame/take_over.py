"""Take over from another build: what of it, side by side with what stands here; one step that can be undone."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QListWidget, QListWidgetItem, QPlainTextEdit, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.project import Project
from uncle_sled.core.document.taking_over import Take, takeable, taken_over
from uncle_sled.core.reading.studied import study
from uncle_sled.desk.frame.sled_reading import reading
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session


class TakeOver(Dialog):
    """A list to tick, what follows from it as it is ticked, and the button that does it."""

    def __init__(self, session: Session, source: Project, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session, self.source = session, source
        self.setWindowTitle("Take over from another build")
        self.resize(760, 520)
        self.takes = takeable(source.build)
        self.search = QLineEdit()
        self.search.setPlaceholderText("Show only: layers, roof, tank…")
        self.search.setAccessibleName("Filter what can be taken")
        self.list = QListWidget()
        self.list.setAccessibleName("What can be taken over")
        for take in self.takes:
            item = QListWidgetItem(take.says)
            item.setFlags(Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsSelectable)
            item.setCheckState(Qt.CheckState.Unchecked)
            self.list.addItem(item)
        self.follows = QPlainTextEdit()
        self.follows.setReadOnly(True)
        self.follows.setAccessibleName("What follows")
        self.button = QPushButton("Take it over")
        self.button.setProperty("kind", "main")
        self.button.clicked.connect(lambda _=False: self.take())
        close = QPushButton("Leave it")
        close.clicked.connect(self.reject)
        left, right = QVBoxLayout(), QVBoxLayout()
        left.addWidget(label(f"Of {source.name}", "title"))
        left.addWidget(self.search)
        left.addWidget(self.list, 1)
        right.addWidget(label("What follows", "title"))
        right.addWidget(self.follows, 1)
        body = QHBoxLayout()
        body.addLayout(left, 3)
        body.addSpacing(8)
        body.addLayout(right, 2)
        keys = QHBoxLayout()
        keys.addWidget(label("A stop takes the place of the one here; layers, things and the school come in beside.", "small", "pencil"))
        keys.addStretch(1)
        keys.addWidget(close)
        keys.addWidget(self.button)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        rows.addLayout(body, 1)
        rows.addLayout(keys)
        self.list.itemChanged.connect(lambda _: self.refresh())
        self.search.textChanged.connect(self._filter)
        self.refresh()

    def chosen(self) -> tuple[Take, ...]:
        return tuple(take for at, take in enumerate(self.takes) if self.list.item(at).checkState() == Qt.CheckState.Checked)

    def _filter(self, text: str) -> None:
        for at, take in enumerate(self.takes):
            hidden = not all(word in take.says.lower() for word in text.lower().split())
            self.list.setRowHidden(at, hidden)

    def refresh(self) -> None:
        """What stands here and what would, before anything is taken."""
        chosen = self.chosen()
        self.button.setEnabled(bool(chosen))
        here = self.session.studied
        lines = [f"Now: {_said(here)}"]
        if chosen:
            after, loose = taken_over(self.session.project, self.source, chosen)
            lines += [f"Then: {_said(study(after.build, after.facts))}", ""]
            lines += [f"• {one}" for one in loose] or ["No loose ends."]
        else:
            lines.append("Tick what you want to have here.")
        self.follows.setPlainText("\n".join(lines))

    def take(self) -> None:
        chosen = self.chosen()
        after, _ = taken_over(self.session.project, self.source, chosen)
        what = chosen[0].says if len(chosen) == 1 else f"{len(chosen)} of them"
        if self.session.take(f"Take over from {self.source.name}: {what}", after):
            self.accept()
        else:
            self.session.said.emit("It is all here already.", "note")


def _said(s: Any) -> str:
    said = reading(s, 0) if s.table.cases else None
    if said is None or said.kg is None:
        return "no reading"
    return f"{said.title.lower()} {said.big}, {said.beside[0]}"
