"""Words and numbers of a file that disagree: which of each pair is meant, asked before anything is opened."""

from __future__ import annotations

from typing import Literal

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from uncle_sled.core import units
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.exchange.typed_pairs import Pair

Takes = list[tuple[Pair, Literal["typed", "number"]]]
UNIT = {"length": "mm", "mass": "kg", "volume": "L", "stiffness": "N/mm", "temperature": "degC"}
WORDS: tuple[tuple[str, Literal["typed", "number"]], ...] = (("the words", "typed"), ("the number", "number"))


class WhichToTake(Dialog):
    """One line a pair: where it stands, what was typed, the number beside it, and which counts."""

    def __init__(self, name: str, pairs: tuple[Pair, ...], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle("Two that do not agree")
        self.pairs = pairs
        self.choices: list[QComboBox] = []
        many = "one place" if len(pairs) == 1 else f"{len(pairs)} places"
        said = QLabel(
            f"{name} says two things in {many}: what was typed, and the number it was read as. Which is meant? The file stays as it is until you save."
        )
        said.setWordWrap(True)
        said.setTextFormat(Qt.TextFormat.PlainText)
        rows = QWidget()
        grid = QGridLayout(rows)
        for at, head in enumerate(("Where", "Typed", "Number", "Take")):
            grid.addWidget(QLabel(head), 0, at)
        for at, pair in enumerate(pairs, 1):
            number = units.show(pair.si, pair.dimension, UNIT[pair.dimension])  # type: ignore[arg-type]
            for column, text in enumerate((pair.place.removeprefix("variants."), pair.typed[:60], number)):
                cell = QLabel(text)
                cell.setTextFormat(Qt.TextFormat.PlainText)
                grid.addWidget(cell, at, column)
            choice = QComboBox()
            choice.setAccessibleName(f"Which to take for {pair.place}")
            for words, key in WORDS if pair.said_si is not None else WORDS[1:]:
                choice.addItem(words, key)
            grid.addWidget(choice, at, 3)
            self.choices.append(choice)
        grid.setColumnStretch(0, 1)
        grid.setRowStretch(len(pairs) + 1, 1)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setWidget(rows)
        buttons = QHBoxLayout()
        for words, key in WORDS:
            every = QPushButton(f"All: {words}")
            every.setAutoDefault(False)
            every.clicked.connect(lambda _=False, key=key: self.take_all(key))
            buttons.addWidget(every)
        buttons.addStretch(1)
        leave, go_on = QPushButton("Do not open"), QPushButton("Open so")
        leave.setAutoDefault(False)
        leave.clicked.connect(self.reject)
        go_on.clicked.connect(self.accept)
        go_on.setDefault(True)
        buttons.addWidget(leave)
        buttons.addWidget(go_on)
        whole = QVBoxLayout(self)
        whole.addWidget(said)
        whole.addWidget(area, 1)
        whole.addLayout(buttons)
        self.resize(760, min(190 + 34 * len(pairs), 560))

    def take_all(self, key: Literal["typed", "number"]) -> None:
        for choice in self.choices:
            choice.setCurrentIndex(max(choice.findData(key), 0))

    def takes(self) -> Takes:
        return [(pair, choice.currentData()) for pair, choice in zip(self.pairs, self.choices, strict=True)]


def which_to_take(parent: QWidget, name: str, pairs: tuple[Pair, ...]) -> Takes | None:
    """What is meant in each pair; None where the file is not to be opened."""
    dialog = WhichToTake(name, pairs, parent)
    return dialog.takes() if dialog.exec() == WhichToTake.DialogCode.Accepted else None
