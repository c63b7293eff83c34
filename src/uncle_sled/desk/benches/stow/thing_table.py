"""The table of all things: the accessible twin of the drawing, with the same selection and the same edits."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

import msgspec
from PySide6.QtCore import QSortFilterProxyModel, Qt
from PySide6.QtWidgets import QLineEdit

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.field import field_of
from uncle_sled.core.document.quantity import Length, Mass, Quantity
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.drawing.rig.bobs import GROUP_NAMES
from uncle_sled.core.errors import EntryError
from uncle_sled.core.parts.from_stow import group_of
from uncle_sled.core.studies.stow.restraints import held_words
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.panel import Group, Panel, rows, tools
from uncle_sled.desk.kit.parts import Own, Says, hint
from uncle_sled.desk.kit.table import SORT, Column, Table, TableModel
from uncle_sled.desk.session import Session

KNOWN_BY = dict(field_of(Thing, "source").choices)


class ThingModel(TableModel[Thing]):
    """The things of the build. An entry edits every selected row of its column, as one step."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.chosen: tuple[str, ...] = ()
        super().__init__(
            (
                Column("Name", lambda t: t.name, 140, enter=partial(self._enter, "Name", "name", self._name)),
                Column("Group", lambda t: GROUP_NAMES[group_of(t)], 62),
                self._number("Weight", "mass", Mass, 66, least=True),
                Column("Known by", lambda t: KNOWN_BY[t.source], 80, enter=partial(self._enter, "Known by", "source", self._source)),
                self._number("Front edge", "x", Length, 82),
                self._number("Middle", "y", Length, 62),
                self._number("Underside", "z", Length, 74),
                self._number("Length", "length", Length, 66, least=True),
                self._number("Width", "width", Length, 62, least=True),
                self._number("Height", "height", Length, 62, least=True),
                Column("Held by", self._held_by, tip="As Held has it; change it there or In hand"),
            )
        )

    def _held_by(self, thing: Thing) -> str:
        return held_words(thing, {t.id: t for t in self.session.build.stow.things}, Words(self.session.shown))

    def _number(self, title: str, field: str, kind: type[Quantity], wide: int, least: bool = False) -> Column[Thing]:
        """A column of lengths or weights in the build's units. Args: least: nothing below 0 is taken."""

        def read(text: str) -> Any:
            entered = kind.read(text, self.session.shown)
            if least and entered.si < 0:
                raise EntryError(f"“{text}” is less than nothing; 0 or more would be right.")
            return msgspec.to_builtins(entered)

        return Column(
            title,
            lambda t: getattr(t, field).text(self.session.shown),
            wide,
            right=True,
            sort=lambda t: getattr(t, field).si,
            enter=partial(self._enter, title, field, read),
        )

    def _enter(self, title: str, field: str, read: Callable[[str], Any], thing: Thing, text: str) -> bool:
        try:
            entered = read(text)
        except EntryError as fault:
            self.session.said.emit(f"{title}: {fault}", "stop")
            return False
        ids = self.chosen if thing.id in self.chosen and field != "name" else (thing.id,)  # one name helps one thing
        what = f"of {len(ids)} things" if len(ids) > 1 else f"of {thing.name}"
        return self.session.edit(f"{title} {what}", [set_to(f"stow.things.{id}.{field}", entered) for id in ids], ids=ids)

    @staticmethod
    def _name(text: str) -> str:
        if not text.strip():
            raise EntryError("a name cannot be empty.")
        return _plain(text)

    @staticmethod
    def _source(text: str) -> str:
        typed = text.strip().lower()
        key = next((str(key) for key, words in KNOWN_BY.items() if typed and words.startswith(typed)), None)
        if key is None:
            raise EntryError(f"“{text}” is none of {', '.join(KNOWN_BY.values())}.")
        return key


def _plain(text: str) -> str:
    return text.strip()[:120]


class ThingTable(Panel):
    follows = ("changed", "selected")

    def laid(self) -> Group:
        self.model = ThingModel(self.session)
        self.proxy = QSortFilterProxyModel()
        self.proxy.setSourceModel(self.model)
        self.proxy.setSortRole(SORT)
        self.proxy.setFilterKeyColumn(-1)
        self.proxy.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("Show only: jug, cargo, guessed…")
        self.filter.setAccessibleName("Filter the table")
        self.filter.setFixedWidth(230)
        self.filter.textChanged.connect(self.proxy.setFilterFixedString)
        self.table = self.put(Own(self._sorted, self._show_things, share=1))
        return rows(
            tools(self.filter, hint("What you type into one selected row goes into all of them.")),
            self.table,
            Says(self._totals, "pencil", "small"),
        )

    def _sorted(self) -> Table[Thing]:
        made = Table(self.model, "All things", several=True)
        made.setModel(self.proxy)
        made.setSortingEnabled(True)
        made.sortByColumn(4, Qt.SortOrder.AscendingOrder)
        made.picked.connect(lambda _: self._choose())
        return made

    def _show_things(self, table: Table[Thing]) -> None:
        chosen = frozenset(self.session.selection)
        table.show_rows(self.session.build.stow.things, lambda a, b: a.id == b.id)
        self.model.chosen = tuple(thing.id for thing in self.model.rows if thing.id in chosen)
        table.mark_all([at for at, thing in enumerate(table.rows) if thing.id in chosen])

    def _choose(self) -> None:
        self.model.chosen = tuple(thing.id for thing in self.table.chosen_rows())
        self.session.select(self.model.chosen)

    def _totals(self) -> str:
        sums: dict[str, float] = {}
        for thing in self.session.build.stow.things:
            name = GROUP_NAMES[group_of(thing)]
            sums[name] = sums.get(name, 0.0) + thing.mass.si
        if not sums:
            return "Nothing is aboard yet."
        groups = [f"{name} {self.words.kg(kg)}" for name, kg in sorted(sums.items(), key=lambda pair: -pair[1])]
        return f"Empty, by group: {', '.join(groups)}; together {self.words.kg(sum(sums.values()))}"
