"""Fields that take any unit, say what they understood, and never lose what was typed."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from msgspec import NODEFAULT
from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QWidget

from uncle_sled.core.document.field import About, Field
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.errors import EntryError
from uncle_sled.core.units import Shown, in_units
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


def say_or_hide(words: QLabel, says: str) -> None:
    """Show a sentence, or take the label's room away where there is none; what is so already is left alone."""
    if words.text() != says:
        words.setText(says)
    if words.isHidden() == bool(says):
        words.setVisible(bool(says))


class TypedField(Guarded, QLineEdit):
    """A typed value of one field. ``entered`` carries it, or None (its usual value) where it was emptied."""

    entered = Signal(object)
    wrong = Signal(str)
    blank: str | Quantity | None = None  # what stands in an empty field, where its description does not say it

    def __init__(self, about: Field, shown: Callable[[], Shown]) -> None:
        super().__init__()
        self.about, self.shown, self.name = about, shown, about.about.title
        self.value: Any = None
        self.tip = in_units(about.about.tip, shown())  # what the field is, said before how to type it
        self.setAccessibleName(self.name)
        self.editingFinished.connect(self.commit)
        self.textEdited.connect(self._understood)

    def show_value(self, value: Any) -> None:
        """Show the document's value; what is being typed is left alone."""
        was, self.value = self.value, value
        if self.hasFocus() and self.isModified():
            return
        now = (value, self.shown(), self.blank)
        if value is not was or now != self._restored or self.isModified():
            self._restored = now
            self._restore()

    def explain(self, tip: str) -> None:
        if tip != self.tip:
            self.tip = tip
            self._say_how()

    def _say_how(self) -> None:
        asked = f"{self.tip.rstrip('.')}. " if self.tip else ""
        unit = self.about.bare_unit(self.shown())
        how = f"A bare number is in {'inches' if unit == 'ft-in' else unit}; any other unit may be typed." if unit else ""
        self.setToolTip(f"{asked}{how}".strip())

    _restored: tuple[object, ...] = ()

    def _restore(self) -> None:
        shown = self.shown()
        text = self.about.text(self.value, shown)
        if text != self.text():
            self.setText(text)
            self.setCursorPosition(0)
        blank = self.about.blank_text(shown) if self.blank is None else self.blank
        if isinstance(blank, Quantity):
            blank = blank.text(shown)
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

    def _understood(self) -> None:
        try:
            value = self.about.read(self.text(), self.shown())
        except EntryError:
            return
        self._mark("")
        if value is not None:
            plain = type(value)(value.si) if isinstance(value, Quantity) else value
            self.setToolTip(f"Understood: {self.about.text(plain, self.shown())}")

    def commit(self) -> None:
        if not self.isModified():
            return
        try:
            value = self.about.read(self.text(), self.shown())
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
        self.setModified(False)
        self.entered.emit(self.about.stepped(self.value, times, self.shown()))

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


class QuantityField(TypedField):
    """A typed quantity that is no field of the document: of a dialog, or of several fields together."""

    def __init__(
        self,
        kind: type[Quantity],
        name: str,
        shown: Callable[[], Shown],
        may_be_empty: bool = True,
        least: float | None = 0.0,
        thin: bool = False,
    ) -> None:
        about = About(name, least=-math.inf if least is None else least, thin=thin)
        super().__init__(Field(None, "", kind=kind, may_be_empty=may_be_empty, usual=NODEFAULT, low=None, high=None, about=about), shown)


class TextField(Guarded, QLineEdit):
    """A line of words; ``entered`` carries them."""

    entered = Signal(str)

    def __init__(self, name: str, may_be_empty: bool = False) -> None:
        super().__init__()
        self.name, self.may_be_empty = name, may_be_empty
        self.value = ""
        self.setAccessibleName(name)
        self.setMaxLength(120)
        self.editingFinished.connect(self.commit)

    def show_value(self, value: str) -> None:
        self.value = value
        if not (self.hasFocus() and self.isModified()) and self.text() != value:
            self.setText(value)
            self.setCursorPosition(0)

    def commit(self) -> None:
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
