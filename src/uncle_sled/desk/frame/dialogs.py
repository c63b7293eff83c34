"""The small dialogs: this bench's keys, the settings, and the reason for setting a finding aside."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence
from PySide6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QKeySequenceEdit, QLineEdit, QPushButton, QScrollArea, QVBoxLayout, QWidget

from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.finding import Finding
from uncle_sled.desk.actions import Actions
from uncle_sled.desk.benches.about import about
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.settings import SETTINGS, Settings


def close_row(dialog: QDialog) -> QHBoxLayout:
    row = QHBoxLayout()
    close = QPushButton("Done")
    close.clicked.connect(dialog.accept)
    row.addStretch(1)
    row.addWidget(close)
    return row


class Keys(Dialog):
    """Every action of the bench with its key; a key can be changed by typing another."""

    def __init__(self, actions: Actions, settings: Settings, stop: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.acts, self.settings = actions, settings
        self.setWindowTitle(f"Keys on {stop}")
        self.resize(560, 560)
        self.complaint = label("", "", "primer", wrap=True)
        inside = QWidget()
        grid = QGridLayout(inside)
        grid.setColumnStretch(0, 1)
        at = 0
        for line in about(stop).mouse:
            grid.addWidget(label(line, "", "pencil", wrap=True), at, 0, 1, 2)
            at += 1
        self.edits: dict[str, QKeySequenceEdit] = {}
        for act in actions.acts.values():
            if act.bench and stop not in act.bench.split(","):
                continue
            grid.addWidget(label(act.title), at, 0)
            if act.key == "Escape":
                grid.addWidget(label("Esc", "", "pencil"), at, 1)
            else:
                edit = QKeySequenceEdit(QKeySequence(actions.key_of(act.id).split(", ")[0]))
                edit.setMaximumSequenceLength(1)
                edit.setMaximumWidth(150)
                edit.setAccessibleName(f"Key for {act.title}")
                edit.editingFinished.connect(lambda id=act.id: self._changed(id))
                self.edits[act.id] = edit
                grid.addWidget(edit, at, 1)
            at += 1
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(inside)
        rows = QVBoxLayout(self)
        rows.addWidget(label("Click a key and press another to change it.", "small", "pencil"))
        rows.addWidget(scroll, 1)
        rows.addWidget(self.complaint)
        rows.addLayout(close_row(self))

    def _changed(self, id: str) -> None:
        key = self.edits[id].keySequence().toString()
        other = self.acts.holder(key, id)
        if other is not None:
            self.complaint.setText(f"{key} is the key of “{self.acts.acts[other].title}”. Give that one another key first.")
            self.edits[id].setKeySequence(QKeySequence(self.acts.key_of(id).split(", ")[0]))
            return
        self.complaint.setText("")
        self.acts.set_key(id, key)
        try:
            self.settings.set_key(id, key)
        except SledError as fault:
            self.complaint.setText(str(fault))


class SettingsDialog(Dialog):
    def __init__(self, settings: Settings, changed: Callable[[str, str], object], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.settings, self.changed = settings, changed
        self.setWindowTitle("Settings")
        self.complaint = label("", "", "primer", wrap=True)
        grid = QGridLayout()
        self.fields: dict[str, ChoiceField] = {}
        for at, setting in enumerate(SETTINGS):
            field = ChoiceField(setting.title, [(value, words) for value, words in setting.choices])
            field.setMinimumWidth(190)
            field.show_value(settings.get(setting.key))
            field.setToolTip(setting.tip)
            field.entered.connect(lambda value, key=setting.key: self._set(key, str(value)))
            grid.addWidget(label(setting.title, "", "pencil"), 2 * at, 0)
            grid.addWidget(field, 2 * at, 1)
            if setting.tip:
                grid.addWidget(label(setting.tip, "small", "pencil"), 2 * at + 1, 1)
            self.fields[setting.key] = field
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 16, 18, 14)
        rows.addLayout(grid)
        rows.addWidget(self.complaint)
        rows.addLayout(close_row(self))

    def _set(self, key: str, value: str) -> None:
        try:
            self.settings.set(key, value)
        except SledError as fault:
            self.complaint.setText(str(fault))
        self.changed(key, value)


class AsideDialog(Dialog):
    """Why a finding is set aside; it comes back when its number worsens by a tenth."""

    def __init__(self, finding: Finding, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle("Set aside")
        self.resize(440, 190)
        self.reason = QLineEdit()
        self.reason.setMaxLength(200)
        self.reason.setAccessibleName("Reason")
        self.reason.setPlaceholderText("Why is it all right for now?")
        self.aside = QPushButton("Set aside")
        self.aside.setProperty("kind", "main")
        self.aside.setEnabled(False)
        self.reason.textChanged.connect(lambda text: self.aside.setEnabled(bool(text.strip())))
        self.aside.clicked.connect(self.accept)
        cancel = QPushButton("Leave it")
        cancel.clicked.connect(self.reject)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(cancel)
        row.addWidget(self.aside)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 16, 18, 14)
        rows.addWidget(label(finding.title, "title", wrap=True))
        text = "It returns when its number worsens by a tenth."
        rows.addWidget(label(f"{text} It still stops the check." if finding.severity == "stop" else text, "", "pencil", wrap=True))
        rows.addWidget(self.reason)
        rows.addStretch(1)
        rows.addLayout(row)
        self.setWindowModality(Qt.WindowModality.WindowModal)
