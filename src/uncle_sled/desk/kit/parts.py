"""What panels are made of: sentences, drawings, tables, buttons, choices, cards of fields, work in progress."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from functools import partial
from typing import Any, Generic, TypeVar

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QMenu, QPushButton, QScrollArea, QSplitter, QVBoxLayout, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.slow import Slow
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart, Reader
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, TextField, label, say_or_hide
from uncle_sled.desk.kit.form import Form, Row
from uncle_sled.desk.kit.panel import Panel, Part
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.kit.working import Working

R = TypeVar("R")
V = TypeVar("V")
W = TypeVar("W", bound=QWidget)
C = TypeVar("C", bound=Chart)
Told = Callable[[], str | Sequence[str]] | str
Offers = Callable[[], Sequence[tuple[object, str]]] | Sequence[tuple[object, str]]


class Says(Part[QLabel], frozen=True):
    """Sentences. told: a text that stays, or what gives it, lines or one text; hides: it takes no room while it says nothing."""

    told: Told = ""
    ink: str = "ink"
    face: str = ""
    hides: bool = False
    joined: str = "\n"
    one_line: bool = False

    def made(self, _panel: Panel) -> QLabel:
        made = label(self.told if isinstance(self.told, str) else "", self.face, self.ink, wrap=not self.one_line)
        if self.share and not self.hides:
            made.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        return made

    def keep(self, _panel: Panel, widget: QLabel) -> None:
        if isinstance(self.told, str):
            return
        told = self.told()
        text = told if isinstance(told, str) else self.joined.join(told)
        if self.hides:
            say_or_hide(widget, text)
        elif widget.text() != text:
            widget.setText(text)


def note(text: str) -> Says:
    """A caution or a remark under a panel, small and in pencil."""
    return Says(text, "pencil", "small")


def hint(text: str) -> Says:
    """A few words in a row of tools."""
    return Says(text, "pencil", "small", one_line=True)


class Complaint(Part[QLabel], frozen=True):
    """Where the panel says what is wrong with something typed."""

    def made(self, panel: Panel) -> QLabel:
        return panel.complaint


class _Drawn(Part[C], Generic[C], frozen=True, kw_only=True):
    kind: type[C]


class DrawingOf(_Drawn[C], Generic[C], frozen=True):
    """A drawing by its size. make: its shapes; title, empty: a text or what gives it; high: the least [px] at every refresh."""

    name: str
    make: Callable[[float, float], tuple[Primitive, ...]]
    title: Callable[[], str] | str = ""
    empty: Callable[[], str] | str = ""
    least: tuple[int, int] = (0, 0)
    high: Callable[[], float] | None = None
    reads: Reader | None = None

    def made(self, panel: Panel) -> C:
        said, empty = self.title, self.empty
        title = said if isinstance(said, str) else ""
        made = self.kind(panel.session, self.name, self.make, title, (lambda: empty) if isinstance(empty, str) else empty)
        if self.least[0]:
            made.setMinimumWidth(self.least[0])
        if self.least[1]:
            made.setMinimumHeight(self.least[1])
        if self.reads is not None:
            made.reads(self.reads)
        return made

    def keep(self, _panel: Panel, widget: C) -> None:
        if not isinstance(self.title, str):
            widget.title = self.title()
        if self.high is not None:
            widget.setMinimumHeight(int(self.high()))
        widget.renew()


class Drawing(DrawingOf[Chart], frozen=True, kw_only=True):
    """One that is only looked at."""

    kind: type[Chart] = Chart


class Listed(Part[Table[R]], Generic[R], frozen=True):
    """A table. same: what tells one row from another; picked: gets a row that was clicked; marks: whether a row is the chosen one.

    turns: where it may be moved sideways because its columns have no room.
    """

    name: str
    columns: Sequence[Column[R]]
    rows: Callable[[], Sequence[R]]
    same: Callable[[R], Hashable] | None = None
    picked: Callable[[R], object] | None = None
    marks: Callable[[R], bool] | None = None
    several: bool = False
    turns: bool = False

    def made(self, _panel: Panel) -> Table[R]:
        made: Table[R] = Table(TableModel(self.columns), self.name, self.several)
        if not self.turns:
            made.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        if self.picked is not None:
            made.picked.connect(self.picked)
        return made

    def keep(self, _panel: Panel, widget: Table[R]) -> None:
        same, marks = self.same, self.marks
        fresh = tuple(self.rows())
        widget.show_rows(fresh, None if same is None else lambda a, b: same(a) == same(b))
        if marks is not None:
            widget.mark_only(next((at for at, row in enumerate(widget.rows) if marks(row)), -1))


class Act(Part[QPushButton], frozen=True):
    """A button. may: whether it can be pressed now; down: whether a choice is made; plain: as large as others of the desk."""

    text: str
    tip: str
    does: Callable[[], object]
    may: Callable[[], bool] | None = None
    down: Callable[[], bool] | None = None
    plain: bool = False
    main: bool = False
    link: bool = False
    name: str = ""  # for who cannot see it, where the text does not say it

    def made(self, _panel: Panel) -> QPushButton:
        made = act_button(self.text, self.tip, self.does, None if self.down is None else False)
        if self.name:
            made.setAccessibleName(self.name)
        if self.plain or self.main or self.link:
            made.setProperty("kind", "main" if self.main else "link" if self.link else None)
        return made

    def keep(self, _panel: Panel, widget: QPushButton) -> None:
        if self.may is not None:
            widget.setEnabled(bool(self.may()))
        if self.down is not None:
            widget.setChecked(bool(self.down()))


class Menu(Part[QPushButton], frozen=True):
    """A button with several things to do under it."""

    text: str
    deeds: Sequence[tuple[str, Callable[[], object]]]

    def made(self, _panel: Panel) -> QPushButton:
        made = QPushButton(self.text)
        made.setProperty("kind", "view")
        menu = QMenu(made)
        for name, does in self.deeds:
            menu.addAction(name, does)
        made.setMenu(menu)
        return made


def one_of(choices: Sequence[tuple[V, str, str]], reads: Callable[[], V], takes: Callable[[V], object]) -> list[Act]:
    """Buttons of which one is down: value, words and tip of each."""
    return [Act(text, tip, partial(takes, value), down=partial(_is, reads, value)) for value, text, tip in choices]


def _is(reads: Callable[[], V], value: V) -> bool:
    return reads() == value


class Choice(Part[ChoiceField], frozen=True):
    """One of a few. offers: the choices, or what gives them; takes: gets what was chosen; reads: what stands there."""

    name: str
    offers: Offers
    takes: Callable[[Any], object] | None = None
    reads: Callable[[], object] | None = None
    tip: str = ""
    letters: int = 0  # of which there is always room
    may: Callable[[], bool] | None = None

    def made(self, _panel: Panel) -> ChoiceField:
        made = ChoiceField(self.name, [] if callable(self.offers) else list(self.offers))
        if self.letters:
            made.setMinimumContentsLength(self.letters)
        made.setToolTip(self.tip)
        if self.takes is not None:
            made.entered.connect(self.takes)
        return made

    def keep(self, _panel: Panel, widget: ChoiceField) -> None:
        if callable(self.offers):
            offered = list(self.offers())
            if offered != widget.choices:
                widget.offer(offered)
            widget.setEnabled(bool(offered))
        if self.may is not None:
            widget.setEnabled(bool(self.may()))
        if self.reads is not None:
            widget.show_value(self.reads())


class Entry(Part[TextField], frozen=True):
    """A line to type into."""

    name: str
    takes: Callable[[str], object] | None = None
    faint: str = ""  # what stands in it while it is empty
    tip: str = ""
    reads: Callable[[], str] | None = None
    may: Callable[[], bool] | None = None
    least: int = 0  # of its width [px]

    def made(self, _panel: Panel) -> TextField:
        made = TextField(self.name, may_be_empty=True)
        if self.least:
            made.setMinimumWidth(self.least)
        made.setPlaceholderText(self.faint)
        made.setToolTip(self.tip)
        if self.takes is not None:
            made.entered.connect(self.takes)
        return made

    def keep(self, _panel: Panel, widget: TextField) -> None:
        if self.may is not None:
            widget.setEnabled(bool(self.may()))
        if self.reads is not None:
            widget.show_value(self.reads())


class Fields(Part[Form], frozen=True):
    """A card of rows bound to the build."""

    title: str
    rows: Sequence[Row]
    stop: str
    label_px: int = 104
    facts: bool = False
    bare: bool = False  # it stands on a card already

    def made(self, panel: Panel) -> Form:
        return Form(panel.session, self.title, list(self.rows), self.stop, self.facts, not self.bare, self.label_px)

    def keep(self, _panel: Panel, widget: Form) -> None:
        widget.refresh()


class Cards(Part[Columns], frozen=True):
    """Cards in as many columns as have room, scrolling by themselves."""

    cards: Sequence[Part[Any] | QWidget]

    def made(self, panel: Panel) -> Columns:
        return Columns([panel.put(card) for card in self.cards])

    def keep(self, _panel: Panel, widget: Columns) -> None:
        widget.settle_soon()


class Busy(Part[Working], frozen=True):
    """Slow work in progress, while there is some."""

    study: Slow[Studied, Any]

    def made(self, panel: Panel) -> Working:
        return Working(panel.session.answers, self.study)


class Own(Part[W], Generic[W], frozen=True):
    """A widget of another kind. kept: what is done with it at every refresh."""

    make: Callable[[], W]
    kept: Callable[[W], object] | None = None

    def made(self, _panel: Panel) -> W:
        return self.make()

    def keep(self, _panel: Panel, widget: W) -> None:
        if self.kept is not None:
            self.kept(widget)


class Scrolled(Part[QScrollArea], frozen=True):
    """A part that scrolls up and down where it has no room."""

    inner: Part[Any] | QWidget
    sideways: bool = False

    def made(self, panel: Panel) -> QScrollArea:
        area = QScrollArea()
        area.setWidgetResizable(True)
        if not self.sideways:
            area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setWidget(panel.put(self.inner))
        return area


class Split(Part[QSplitter], frozen=True):
    """Parts with a line between them that can be dragged."""

    parts: Sequence[Part[Any] | QWidget]
    sizes: Sequence[int]
    upright: bool = True

    def made(self, panel: Panel) -> QSplitter:
        made = QSplitter(Qt.Orientation.Vertical if self.upright else Qt.Orientation.Horizontal)
        for at, part in enumerate(self.parts):
            made.addWidget(panel.put(part))
            made.setStretchFactor(at, self.sizes[at])
        made.setChildrenCollapsible(False)
        made.setSizes(list(self.sizes))
        return made


class Remade(Part[QWidget], frozen=True):
    """A part that is made anew where its shape is another one: the fields of what is chosen. shape: None: nothing stands there."""

    shape: Callable[[], Hashable | None]
    inner: Callable[[], Part[Any]]

    def made(self, _panel: Panel) -> QWidget:
        holder = QWidget()
        box = QVBoxLayout(holder)
        box.setContentsMargins(0, 0, 0, 0)
        holder.shape = None  # type: ignore[attr-defined]
        return holder

    def keep(self, panel: Panel, widget: QWidget) -> None:
        shape = self.shape()
        if shape == widget.shape:  # type: ignore[attr-defined]
            return
        box = widget.layout()
        assert isinstance(box, QVBoxLayout)
        with focus_kept(widget):
            while box.count():
                item = box.itemAt(0)
                old = item.widget() if item is not None else None
                if old is not None:
                    panel.forget(old)
                    take_away(box, old)
            widget.shape = shape  # type: ignore[attr-defined]
            if shape is not None:
                inner = panel.put(self.inner())
                box.addWidget(inner, 1)
                inner.show()
                panel.freshen(inner)
