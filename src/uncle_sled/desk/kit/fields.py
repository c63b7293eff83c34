"""Fields that take any unit, say what they understood, and never lose what was typed."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QWidget

from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.errors import EntryError
from uncle_sled.core.units import INCH_M, POUND_KG, Shown
from uncle_sled.desk.kit.guarded import Guarded


def label(text: str, face: str = "", ink: str = "", wrap: bool = False, parent: QWidget | None = None) -> QLabel:
    made = QLabel(text, parent)
    if face:
        made.setProperty("face", face)
    if ink:
        made.setProperty("ink", ink)
    made.setWordWrap(wrap)
    made.setTextFormat(Qt.TextFormat.PlainText)
    return made


# What one press of an arrow key is worth: metric and imperial, in the shown unit's SI.
STEPS = {
    "length": (0.01, INCH_M / 2),
    "mass": (0.5, POUND_KG),
    "volume": (0.001, 0.003785411784),
    "stiffness": (1000.0, 1751.268),
    "temperature": (1.0, 5 / 9),
}


class QuantityField(Guarded, QLineEdit):
    """A typed value of one dimension. ``entered`` carries the Quantity, or None where it was emptied."""

    entered = Signal(object)
    wrong = Signal(str)

    def __init__(
        self,
        kind: type[Quantity],
        name: str,
        shown: Callable[[], Shown],
        may_be_empty: bool = True,
        least: float | None = 0.0,
    ) -> None:
        super().__init__()
        self.kind, self.name, self.shown, self.may_be_empty, self.least = kind, name, shown, may_be_empty, least
        self.value: Quantity | None = None
        self.setAccessibleName(name)
        self.editingFinished.connect(self._commit)
        self.textEdited.connect(self._understood)

    def show_value(self, value: Quantity | None) -> None:
        """Show the document's value; what is being typed is left alone."""
        was, self.value = self.value, value
        if self.hasFocus() and self.isModified():
            return
        now = (value, self.shown())
        if value is not was or now != self._restored or self.isModified():
            self._restored = now
            self._restore()

    tip = ""  # what the field is, said before how to type it

    def explain(self, tip: str) -> None:
        self.tip = tip
        self._restored = ()
        self._say_how()

    def _say_how(self) -> None:
        unit = self.shown().unit(self.kind.dimension)
        asked = f"{self.tip.rstrip('.')}. " if self.tip else ""
        self.setToolTip(
            f"{asked}A bare number is in {'inches' if unit == 'ft-in' else unit}; any other unit may be typed."
        )

    _restored: tuple[object, ...] = ()
    blank: str | Quantity = "not known"  # what stands in an empty field

    def _restore(self) -> None:
        text = self.value.text(self.shown()) if self.value is not None else ""
        if text != self.text():
            self.setText(text)
            self.setCursorPosition(0)
        blank = self.blank if isinstance(self.blank, str) else self.blank.text(self.shown())
        self.setPlaceholderText("" if self.value is not None else blank)
        self._say_how()
        self.setModified(False)
        self._mark("")

    def _mark(self, says: str) -> None:
        wrong = "true" if says else "false"
        if self.property("wrong") != wrong:
            self.setProperty("wrong", wrong)
            self.style().unpolish(self)
            self.style().polish(self)
        self.wrong.emit(says)

    def _read(self) -> Quantity | None:
        text = self.text().strip()
        if not text:
            if self.may_be_empty:
                return None
            raise EntryError(f"{self.name} cannot be empty.")
        value = self.kind.read(text, self.shown())
        if self.least is not None and value.si < self.least:
            raise EntryError(
                f"{self.name}: “{text}” is less than nothing; 0 or more would be right."
                if self.least <= 0
                else f"{self.name}: “{text}” is none; more than 0 would be right, or nothing where it is not known."
            )
        return value

    def _understood(self) -> None:
        try:
            value = self._read()
        except EntryError:
            return
        self._mark("")
        if value is not None:
            self.setToolTip(f"Understood: {type(value)(value.si).text(self.shown())}")

    def _commit(self) -> None:
        if not self.isModified():
            return
        try:
            value = self._read()
        except EntryError as fault:
            self._mark(str(fault))
            return
        self.setModified(False)
        self._mark("")
        self.value = value
        self.entered.emit(value)
        self._restore()

    def step(self, times: float) -> None:
        """Arrow keys: a sensible amount up or down."""
        imperial = self.shown().imperial
        by = STEPS[self.kind.dimension][1 if imperial else 0] * times
        now = self.value.si if self.value is not None else 0.0
        after = now + by
        if self.least is not None:
            after = max(after, self.least)
        self.setModified(False)
        self.entered.emit(self.kind(round(after, 9)))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            times = (
                10.0
                if event.modifiers() & Qt.KeyboardModifier.ShiftModifier
                else 0.1
                if event.modifiers() & Qt.KeyboardModifier.AltModifier
                else 1.0
            )
            self.step(times if event.key() == Qt.Key.Key_Up else -times)
        elif event.key() == Qt.Key.Key_Escape:
            self._restore()
            self.selectAll()
        else:
            super().keyPressEvent(event)


class TextField(Guarded, QLineEdit):
    """A line of words; ``entered`` carries them."""

    entered = Signal(str)

    def __init__(self, name: str, may_be_empty: bool = False) -> None:
        super().__init__()
        self.name, self.may_be_empty = name, may_be_empty
        self.value = ""
        self.setAccessibleName(name)
        self.setMaxLength(120)
        self.editingFinished.connect(self._commit)

    def show_value(self, value: str) -> None:
        self.value = value
        if not (self.hasFocus() and self.isModified()) and self.text() != value:
            self.setText(value)
            self.setCursorPosition(0)

    def _commit(self) -> None:
        text = self.text().strip()
        if not text and not self.may_be_empty:
            self.setText(self.value)
        elif text != self.value:
            self.value = text
            self.entered.emit(text)
        self.setModified(False)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.setText(self.value)
            self.setModified(False)
        else:
            super().keyPressEvent(event)


class ChoiceField(Guarded, QComboBox):
    """One of a few; ``entered`` carries the value behind the words."""

    entered = Signal(object)

    def __init__(self, name: str, choices: list[tuple[object, str]]) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.choices = choices
        for value, words in choices:
            self.addItem(words, value)
        self.activated.connect(lambda at: self.entered.emit(self.choices[at][0]))
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(4)
        self.setMaxVisibleItems(max(len(choices), 10))  # the last entry shows as well
        self.installEventFilter(self)

    def offer(self, choices: list[tuple[object, str]]) -> None:
        """Other choices; what was chosen stays where it is among them."""
        kept = self.currentData()
        self.clear()
        self.choices = choices
        for value, words in choices:
            self.addItem(words, value)
        self.setMaxVisibleItems(max(len(choices), 10))
        self.setEnabled(bool(choices))
        self.show_value(kept)

    def show_value(self, value: object) -> None:
        for at, (have, _) in enumerate(self.choices):
            if have == value and at != self.currentIndex():
                self.setCurrentIndex(at)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        # a wheel that scrolls the form must not change what it passes over
        if event.type() == QEvent.Type.Wheel and not self.hasFocus():
            event.ignore()
            return True
        return super().eventFilter(watched, event)
