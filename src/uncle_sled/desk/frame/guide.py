"""The guide inside the application: the part of the stop one is at, and a list of the others."""

from __future__ import annotations

import re

from PySide6.QtWidgets import QHBoxLayout, QListWidget, QTextBrowser, QVBoxLayout, QWidget

from uncle_sled.desk.frame.dialogs import close_row
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.shipped import shipped, shipped_folder


def parts() -> dict[str, str]:
    """The guide's parts by heading, in Markdown; what stands before the first heading under its title."""
    text = shipped("guide/guide.md").decode()
    made: dict[str, str] = {}
    title = "Guide"
    for block in re.split(r"(?m)^## ", text):
        name, _, body = block.partition("\n")
        if not made:
            title = name.lstrip("# ").strip() or "Guide"
            made[title] = body
        else:
            made[name.strip()] = body
    return {name: f"## {name}\n{body}" for name, body in made.items()}


class Guide(Dialog):
    def __init__(self, stop: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Guide")
        self.resize(860, 600)
        self.parts = parts()
        rows = QVBoxLayout(self)
        rows.setContentsMargins(14, 12, 14, 12)
        across = QHBoxLayout()
        self.list = QListWidget()
        self.list.setAccessibleName("Parts of the guide")
        self.list.setFixedWidth(210)
        self.list.addItems([name.partition(":")[0] for name in self.parts])
        self.text = QTextBrowser()
        self.text.setAccessibleName("The part that is chosen")
        self.text.setOpenLinks(False)
        self.text.setSearchPaths([str(shipped_folder("guide"))])  # its pictures
        across.addWidget(self.list)
        across.addWidget(self.text, 1)
        rows.addLayout(across, 1)
        rows.addLayout(close_row(self))
        self.list.currentRowChanged.connect(self.show_part)
        names = list(self.parts)
        at = next((k for k, name in enumerate(names) if name.lower().startswith(stop.lower())), 0)
        self.list.setCurrentRow(at)

    def show_part(self, row: int) -> None:
        self.text.setMarkdown(list(self.parts.values())[row] if row >= 0 else "")
