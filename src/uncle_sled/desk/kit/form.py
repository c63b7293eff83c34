"""Forms declared as rows: a label, a path into the build, and what kind of value stands there."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec
from PySide6.QtWidgets import QCheckBox, QFrame, QGridLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.document.bounds import RATINGS
from uncle_sled.core.document.edits import Op, get, set_to
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.errors import EditError, EntryError
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.fields import ChoiceField, QuantityField, TextField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.tips import tip_of
from uncle_sled.desk.session import Session

SOURCES: list[tuple[object, str]] = [
    ("weighed", "weighed"),
    ("data_sheet", "data sheet"),
    ("computed", "computed"),
    ("estimated", "estimated"),
    ("guessed", "guessed"),
]


NO_LIMIT = 1e-9  # a limit of 0 is none
UNKNOWN = "not known"
NUMBER = "a plain number"
VERB = "a button that does what the row's ops say"


class Row(msgspec.Struct, frozen=True):
    """One row of a form.

    ``kind`` is a Quantity class, a list of choices, str, bool, int, float (a share in %), NUMBER or VERB.
    """

    title: str
    path: str
    kind: Any
    tip: str = ""
    least: float | None = 0.0
    empty: bool = True
    when: Callable[[Any], bool] | None = None
    ops: Callable[[Any], list[Op]] | None = None
    read: Callable[[Any], Any] | None = None  # what stands there, where no single path says it
    blank: str | Quantity = UNKNOWN  # what an empty field stands for


class Form(Guarded, QFrame):
    """A card of rows bound to the build, or to the whole project where ``facts`` is set."""

    def __init__(
        self,
        session: Session,
        title: str,
        rows: list[Row],
        stop: str,
        facts: bool = False,
        card: bool = True,
        label_px: int = 104,
    ) -> None:
        super().__init__()
        self.session, self.stop, self.facts = session, stop, facts
        if card:
            self.setObjectName("card")
        self.whole = outer = QVBoxLayout(self)
        outer.setContentsMargins(*((12, 8, 12, 10) if card else (0, 0, 0, 0)))
        outer.setSpacing(5)
        if title:
            outer.addWidget(label(title, "title"))
        self.grid = QGridLayout()
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setHorizontalSpacing(8)
        self.grid.setVerticalSpacing(4)
        self.grid.setColumnMinimumWidth(0, label_px)
        self.grid.setColumnStretch(1, 1)
        outer.addLayout(self.grid)
        self.complaint = label("", "small", "primer", wrap=True)
        self.complaint.hide()
        outer.addWidget(self.complaint)
        outer.addStretch(1)
        self.rows: list[tuple[Row, QWidget, QWidget]] = []
        for row in rows:
            self._add(row)
        self.setSizePolicy(
            QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Maximum if card else QSizePolicy.Policy.Preferred
        )

    def _add(self, row: Row) -> None:
        field = self._field(row)
        tip = row.tip or tip_of(row.path)
        words = label(row.title, "", "pencil")
        if tip:
            words.setToolTip(tip)
            if isinstance(field, QuantityField):
                field.explain(tip)
            else:
                field.setToolTip(tip)
        words.setBuddy(field)
        at = len(self.rows)
        if isinstance(field, QCheckBox | QPushButton):
            self.grid.addWidget(field, at, 0, 1, 2)
            words.hide()
        else:
            self.grid.addWidget(words, at, 0)
            self.grid.addWidget(field, at, 1)
        self.rows.append((row, words, field))

    def _field(self, row: Row) -> QWidget:
        if isinstance(row.kind, list):
            choice = ChoiceField(row.title, row.kind)
            choice.entered.connect(lambda value, r=row: self._take(r, value))
            return choice
        if row.kind == VERB:
            button = QPushButton(row.title)
            button.setProperty("kind", "link")
            button.clicked.connect(lambda _=False, r=row: self._take(r, None))
            return button
        if row.kind is str:
            text = TextField(row.title, may_be_empty=row.empty)
            text.entered.connect(lambda value, r=row: self._take(r, value))
            return text
        if row.kind is bool:
            box = QCheckBox(row.title)
            box.clicked.connect(lambda on, r=row: self._take(r, on))
            return box
        if row.kind in (int, float, NUMBER):
            number = TextField(row.title, may_be_empty=True)
            number.setPlaceholderText(row.blank if isinstance(row.blank, str) and row.blank != UNKNOWN else "")
            number.entered.connect(lambda value, r=row: self._take_number(r, value))
            return number
        least = NO_LIMIT if row.path.rpartition(".")[2] in RATINGS else row.least
        field = QuantityField(row.kind, row.title, lambda: self.session.shown, row.empty, least)
        field.blank = row.blank
        field.entered.connect(lambda value, r=row: self._take(r, value))
        field.wrong.connect(self._complain)
        return field

    def _complain(self, says: str) -> None:
        if self.complaint.text() != says:
            self.complaint.setText(says)
        if self.complaint.isHidden() == bool(says):
            self.complaint.setVisible(bool(says))

    def _take_number(self, row: Row, text: str) -> None:
        body = text.replace("%", "").replace(",", ".").strip()
        try:
            value: Any = None if not body else int(body) if row.kind is int else float(body)
            if row.kind is NUMBER and value is not None and not 0 <= value < 1e7:
                raise ValueError
            if row.kind is float and value is not None:
                value = value / 100
            if row.kind is float and value is not None and not 0 <= value <= 1:
                raise ValueError
            if row.kind is int and value is not None and not 0 <= value <= 300:
                raise ValueError
        except ValueError:
            right = {int: "a whole number such as 84", NUMBER: "a number, 0 or more"}.get(
                row.kind, "a share from 0 to 100 %"
            )
            self._complain(f"{row.title}: “{text}” cannot be taken; {right} would be right.")
            return
        self._complain("")
        self._take(row, value)

    def _take(self, row: Row, value: Any) -> None:
        try:
            ops = row.ops(value) if row.ops else [set_to(row.path, msgspec.to_builtins(value))]
        except EntryError as fault:  # words that mean nothing stay in their field, with what would be right
            self._complain(f"{row.title}: {fault}")
            return
        self._complain("")
        ids = tuple(segment for segment in row.path.split(".")[2:3])
        shown = (
            value.text(self.session.shown)
            if isinstance(value, Quantity)
            else "nothing"
            if value is None
            else str(value)
        )
        self.session.edit(
            row.title
            if row.kind == VERB
            else f"{row.title}: {shown}"
            if len(shown) < 40
            else f"Change the {lower_first(row.title)}",
            ops,
            self.stop,
            ids,
            whole_project=self.facts,
        )
        self.refresh()

    def refresh(self) -> None:
        """Show the document's values; rows that do not apply are hidden."""
        root = self.session.project if self.facts else self.session.build
        for row, words, field in self.rows:
            visible = row.when is None or row.when(root)
            if field.isHidden() == visible:
                field.setVisible(visible)
                words.setVisible(visible and not isinstance(field, QCheckBox | QPushButton))
            if not visible or row.kind == VERB:
                continue
            try:
                value = row.read(root) if row.read else get(root, row.path)
            except EditError:
                continue
            if isinstance(field, QCheckBox):
                field.setChecked(bool(value))
            elif row.kind in (int, NUMBER):
                field.show_value("" if value is None else f"{value:g}")  # type: ignore[attr-defined]
            elif row.kind is float:
                field.show_value("" if value is None else f"{value * 100:g} %")  # type: ignore[attr-defined]
            else:
                field.show_value(value)  # type: ignore[attr-defined]
