"""One plain question with worded answers; what would be lost stands in the text."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QInputDialog, QLineEdit, QMessageBox, QWidget


def ask(parent: QWidget | None, title: str, text: str, answers: list[tuple[str, str]]) -> str:
    """The key of the answer chosen; the last one (nothing happens) where the window is closed.

    Args: answers: (key, words), the advised one first, the harmless one last.
    """
    box = QMessageBox(parent)
    box.setWindowTitle(title)
    box.setTextFormat(Qt.TextFormat.PlainText)
    box.setText(text)
    buttons = {}
    for at, (key, words) in enumerate(answers):
        last = at == len(answers) - 1
        role = QMessageBox.ButtonRole.RejectRole if last else QMessageBox.ButtonRole.AcceptRole
        buttons[key] = box.addButton(words, role)
    box.setDefaultButton(buttons[answers[0][0]])
    box.setEscapeButton(buttons[answers[-1][0]])
    box.exec()
    chosen = box.clickedButton()
    return next((key for key, button in buttons.items() if button == chosen), answers[-1][0])


def ask_text(parent: QWidget | None, title: str, text: str, first: str = "") -> str:
    """A line of words, or nothing where it was left."""
    said, given = QInputDialog.getText(parent, title, text, QLineEdit.EchoMode.Normal, first)
    return said.strip() if given else ""
