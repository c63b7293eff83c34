"""Forms declared as rows: a label, a path into the build, and what kind of value stands there."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any, get_origin

import msgspec
from PySide6.QtWidgets import QCheckBox, QFrame, QGridLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, get, set_to
from uncle_sled.core.document.field import About, Field, described_of, field_at
from uncle_sled.core.document.project import Build, Project
from uncle_sled.core.document.quantity import Quantity
from uncle_sled.core.errors import EditError, EntryError
from uncle_sled.core.units import Shown, in_units
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.fields import ChoiceField, TextField, TypedField, label, say_or_hide
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

NUMBER = "a plain number"
VERB = "a button that does what the row's ops say"
KEPT = msgspec.UNSET  # as the field says


class Row(msgspec.Struct, frozen=True):
    """One row of a form: a place in the build, whose field says what it is, and what is the row's own.

    ``kind`` where the field does not say it: choices that depend on the build, bool, str, int, float (a share), NUMBER, a
    Quantity class, or VERB. ``title``, ``tip``, ``least``, ``empty`` and ``blank`` likewise.
    """

    path: str
    title: str = ""
    kind: Any = None
    tip: str = ""
    least: float | msgspec.UnsetType | None = KEPT
    empty: bool | None = None
    when: Callable[[Any], bool] | None = None
    ops: Callable[[Any], list[Op]] | None = None
    read: Callable[[Any], Any] | None = None  # what stands there, where no single path says it
    blank: str | Quantity = ""  # what an empty field stands for


def plain(place: str, names: str = "", when: Callable[[Any], bool] | None = None) -> list[Row]:
    """Rows of some fields of one place, in their order, with nothing of their own; of all that say what they are else."""
    return [Row(f"{place}.{name}", when=when) for name in names.split() or described_of(field_at(Build, place).kind)]


def described(root: Any, row: Row) -> Field:
    """What a row's field is: what stands at the field in the document, and over it what the row says itself."""
    try:
        made = field_at(root, row.path)
    except EditError:  # a row that is no field: a button, what several fields say together
        made = Field(root, row.path.rpartition(".")[2], str, may_be_empty=True, usual=None, low=None, high=None, about=About(row.title))
    said = made.about
    if row.kind is not None and row.kind != VERB and not isinstance(row.kind, list):
        plain = row.kind in (int, float, NUMBER)
        share = (0.0, 1.0) if row.kind is float else (0.0, made.high)
        made = made._replace(
            kind=float if row.kind in (float, NUMBER) else row.kind,
            low=share[0] if plain else made.low,
            high=share[1] if plain else made.high,
            may_be_empty=True,
        )
    new = msgspec.structs.replace(
        said,
        title=row.title or said.title,
        tip=row.tip or said.tip,
        least=said.least if row.least is KEPT else -math.inf if row.least is None else row.least,  # type: ignore[arg-type]
        blank=row.blank or said.blank,
    )
    return made._replace(about=new, may_be_empty=made.may_be_empty if row.empty is None else row.empty)


class Form(Guarded, QFrame):
    """A card of rows bound to the build, or to the whole project where ``facts`` is set."""

    def __init__(
        self, session: Session, title: str, rows: list[Row], stop: str, facts: bool = False, card: bool = True, label_px: int = 104
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
        self.said: list[Field] = []  # what each row's field is
        self._told_in: dict[QWidget, Shown] = {}  # the units that each field's tip was told in
        self.root = Project if facts else Build
        for row in rows:
            self._add(row)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Maximum if card else QSizePolicy.Policy.Minimum)

    def _add(self, row: Row) -> None:
        about = described(self.root, row)
        title = about.about.title
        row = msgspec.structs.replace(row, title=title)
        field = self._field(row, about)
        words = label(title, "", "pencil")
        words.setBuddy(field)
        at = len(self.rows)
        if isinstance(field, QCheckBox | QPushButton):
            self.grid.addWidget(field, at, 0, 1, 2)
            words.hide()
        else:
            self.grid.addWidget(words, at, 0)
            self.grid.addWidget(field, at, 1)
        self.rows.append((row, words, field))
        self.said.append(about)

    def _explain(self, about: Field, words: QWidget, field: QWidget) -> None:
        """The tip, in the units of the build; with what is usual."""
        tip = in_units(about.about.tip, self.session.shown)
        if (about.usual not in (None, "", False, msgspec.NODEFAULT) and about.kind in (int, float)) or (
            isinstance(about.usual, Quantity) and not about.choices
        ):
            tip = f"{tip.rstrip('.')}. Usual: {about.text(about.usual, self.session.shown)}".removeprefix(". ")
        if isinstance(field, TypedField):
            field.explain(tip)
        elif field.toolTip() != tip:
            field.setToolTip(tip)
        if words.toolTip() != tip:
            words.setToolTip(tip)

    def _field(self, row: Row, about: Field) -> QWidget:
        title = about.about.title
        choices = row.kind if isinstance(row.kind, list) else list(about.choices)
        if row.kind == VERB:
            button = QPushButton(title)
            button.setProperty("kind", "link")
            button.clicked.connect(lambda _=False, r=row: self.take(r, None))
            return button
        if choices:
            choice = ChoiceField(title, choices)
            choice.entered.connect(lambda value, r=row: self.take(r, value))
            return choice
        if about.kind is bool:
            box = QCheckBox(title)
            box.clicked.connect(lambda on, r=row: self.take(r, on))
            return box
        if about.kind is str or get_origin(about.kind) is tuple:
            text = TextField(title, may_be_empty=about.may_be_empty or about.usual == "")
            text.entered.connect(lambda value, r=row: self.take(r, value))
            return text
        field = TypedField(about, lambda: self.session.shown)
        field.entered.connect(lambda value, r=row: self.take(r, value))
        field.wrong.connect(self._complain)
        return field

    def _complain(self, says: str) -> None:
        say_or_hide(self.complaint, says)

    def _gone(self, row: Row) -> bool:
        """Whether the item of a list that a row's place lies in is there no more."""
        root, parts = self._root(), row.path.split(".")
        for many in range(1, len(parts)):
            try:
                held = get(root, ".".join(parts[:many]))
            except EditError:
                return False  # no place of the document
            if isinstance(held, tuple) and not any(getattr(one, "id", None) == parts[many] for one in held):
                return True
        return False

    def _put(self, row: Row, value: Any) -> list[Op]:
        """Ops that set a row's place; what it stands in is made where it is not there yet."""
        place, _, name = row.path.rpartition(".")
        plain = msgspec.to_builtins(value)
        if not place or get(self._root(), place) is not None:
            return [set_to(row.path, plain)]
        return [set_to(place, {name: plain})] if value is not None else []

    def _root(self) -> Any:
        return self.session.project if self.facts else self.session.build

    def take(self, row: Row, value: Any) -> None:
        if self._gone(row):  # what it belongs to was taken out while something was typed: that goes with it
            return
        title = row.title
        about = next(said for (each_row, *_), said in zip(self.rows, self.said, strict=True) if each_row is row)
        try:
            ops = row.ops(value) if row.ops else self._put(row, value)
        except EntryError as fault:  # words that mean nothing stay in their field, with what would be right
            self._complain(f"{title}: {fault}")
            return
        self._complain("")
        ids = tuple(segment for segment in row.path.split(".")[2:3])
        shown = "nothing" if value is None else about.text(value, self.session.shown)
        if isinstance(row.kind, list):
            shown = dict(row.kind).get(value, shown)
        self.session.edit(
            title if row.kind == VERB else f"{title}: {shown}" if len(shown) < 40 else f"Change the {lower_first(title)}",
            ops,
            self.stop,
            ids,
            whole_project=self.facts,
        )
        self.refresh()

    def refresh(self) -> None:
        """Show the document's values; rows that do not apply are hidden."""
        root = self._root()
        for (row, words, field), about in zip(self.rows, self.said, strict=True):
            visible = row.when is None or row.when(root)
            if field.isHidden() == visible:
                field.setVisible(visible)
                words.setVisible(visible and not isinstance(field, QCheckBox | QPushButton))
            if not visible:
                continue
            if self._told_in.get(field) != self.session.shown:
                self._told_in[field] = self.session.shown
                self._explain(about, words, field)
            if row.kind == VERB:
                continue
            try:
                value = row.read(root) if row.read else self._stands(root, row, about)
            except EditError:
                continue
            if isinstance(field, QCheckBox):
                field.setChecked(bool(value))
            else:
                field.show_value(value)  # type: ignore[attr-defined]

    @staticmethod
    def _stands(root: Any, row: Row, about: Field) -> Any:
        """What stands at a row's place; what nobody said where that which it stands in is not there yet."""
        place = row.path.rpartition(".")[0]
        if place and get(root, place) is None:
            return None if about.usual is msgspec.NODEFAULT else about.usual
        return get(root, row.path)
