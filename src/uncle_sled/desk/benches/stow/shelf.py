"""The catalogue to choose from: the shipped things and one's own, by kind or by search; CSV in and out."""

from __future__ import annotations

from pathlib import Path

import msgspec
from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QComboBox,
    QFileDialog,
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from uncle_sled.catalogue.search import nearest
from uncle_sled.catalogue.things import entries, matches, told_of
from uncle_sled.core.document.catalogue_line import csv_text
from uncle_sled.core.document.edits import add_to, fresh_id, remove
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.errors import SledError
from uncle_sled.core.studies.stow.adding import own_thing
from uncle_sled.core.units import INCH_M, Shown, name_in_units, show, volume
from uncle_sled.core.words import count_of, lower_first
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session
from uncle_sled.exchange.export import write_file

SHELVES: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("Everything", ()),
    ("My own", ()),
    ("Tanks and jugs", ("tank",)),
    ("Batteries, chargers, solar", ("battery", "charger", "solar")),
    ("Appliances", ("appliance",)),
    ("Beds", ("bed",)),
    ("Seats, tables, cabinets", ("furniture", "cabinet")),
    ("Gear", ("gear", "kit")),
    ("Vehicles aboard", ("vehicle aboard",)),
    ("Outside, racks, awnings, wheels", ("outside carrier", "spare wheel")),
)


OWN = "a thing of one's own"


class Shelf(Guarded, QFrame):
    """Enter takes the first; a thing that is chosen goes into the drawing."""

    chosen = Signal(object)

    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.session = session
        self.near = False  # nothing is called so: what is listed is near to it
        self.setObjectName("popup")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(8, 8, 8, 8)
        rows.setSpacing(6)
        top = QHBoxLayout()
        self.search = QLineEdit()
        self.search.setPlaceholderText("Search: jug, battery, bed…")
        self.search.setAccessibleName("Search the catalogue")
        self.kind = QComboBox()
        self.kind.setAccessibleName("Shelf of the catalogue")
        for name, _ in SHELVES:
            self.kind.addItem(name)
        top.addWidget(self.search, 1)
        top.addWidget(self.kind, 1)
        rows.addLayout(top)
        self.list = QListWidget()
        self.list.setAccessibleName("Catalogue of things")
        rows.addWidget(self.list, 1)
        self.count = label("", "small", "pencil")
        rows.addWidget(self.count)
        under = QHBoxLayout()
        under.setSpacing(6)
        self.buttons: dict[str, QPushButton] = {}
        for text, run, tip in (
            ("Keep mine", self.keep, "Put what is selected in the drawing on my own shelf"),
            ("Drop mine", self.drop, "Take the chosen one off my own shelf"),
            ("Bring in…", self.ask_bring, "Things of your own from a CSV or XLSX file"),
            ("Write out…", self.ask_write, "Everything that is listed now, as CSV"),
        ):
            button = QPushButton(text)
            button.setToolTip(tip)
            button.clicked.connect(lambda _=False, run=run: run())
            under.addWidget(button)
            self.buttons[text] = button
        rows.addLayout(under)
        self.setFixedSize(440, 460)
        self.search.textChanged.connect(self.fill)
        self.kind.currentIndexChanged.connect(self.fill)
        self.search.returnPressed.connect(lambda: self._take(self._first()))
        self.list.itemClicked.connect(self._take)
        self.list.itemActivated.connect(self._take)
        self.fill()

    def shown(self) -> list[Thing]:
        """What the shelf lists now, one's own first."""
        name, kinds = SHELVES[self.kind.currentIndex()]
        own = list(self.session.facts.things)
        there = own if name == "My own" else [*own, *self.entries()]
        on_it = [e for e in there if not kinds or e.kind in kinds]
        fitting = [e for e in on_it if matches(e, self.search.text())]
        self.near = not fitting and bool(self.search.text().strip())
        return nearest(on_it, self.search.text(), told_of) if self.near else fitting

    def entries(self) -> tuple[Thing, ...]:
        """The shipped things under names in the units of the build."""
        shown = self.session.shown
        return tuple(msgspec.structs.replace(e, name=name_in_units(e.name, shown)) for e in entries())

    def fill(self, *_: object) -> None:
        self.list.clear()
        own = {thing.id for thing in self.session.facts.things}
        metric = self.session.shown.length in ("mm", "m")
        listed = self.shown()
        if self.near:
            self._say("Nothing is called so. Nearest to it:" if listed else "Nothing is called so.")
        for entry in listed:
            sides = (entry.length.si, entry.width.si, entry.height.si)
            size = " × ".join(f"{side * 1000:.0f}" if metric else f"{side / INCH_M:.0f}" for side in sides)
            mine = "mine   " if entry.id in own else ""
            words = f"{mine}{entry.name}   {show(entry.mass.si, 'mass', self.session.shown.mass, 1 if entry.mass.si < 10 else 0)}   {size} {'mm' if metric else 'in'}"
            item = QListWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, entry.id)
            item.setToolTip(figures_words(entry, self.session.shown) or "no figures of its kind")
            self.list.addItem(item)
        if self.near:
            own_item = QListWidgetItem(f"Make my own: {self.search.text().strip()}")
            own_item.setData(Qt.ItemDataRole.UserRole, OWN)
            self.list.addItem(own_item)
        self.count.setText(f"{count_of(len(listed), 'thing')}; sizes and weights are estimates, to be replaced by your own.")
        self.buttons["Keep mine"].setEnabled(any(t.id in self.session.selection for t in self.session.build.stow.things))
        self.buttons["Drop mine"].setEnabled(bool(own))

    def _say(self, words: str) -> None:
        said = QListWidgetItem(words)
        said.setFlags(Qt.ItemFlag.NoItemFlags)
        self.list.addItem(said)

    def _first(self) -> QListWidgetItem | None:
        """The first that can be taken."""
        items = (self.list.item(at) for at in range(self.list.count()))
        return next((item for item in items if item.data(Qt.ItemDataRole.UserRole) is not None), None)

    def _take(self, item: QListWidgetItem | None) -> None:
        id = item.data(Qt.ItemDataRole.UserRole) if item is not None else None
        if id == OWN:
            self.hide()
            self.chosen.emit(own_thing(self.search.text().strip()))
            return
        entry = next((e for e in (*self.session.facts.things, *self.entries()) if e.id == id), None)
        if entry is not None:
            self.hide()
            self.chosen.emit(entry)

    # one's own
    def keep(self) -> None:
        """The selected things onto one's own shelf, as they are, at no place."""
        taken = [t.id for t in (*self.session.facts.things, *entries())]
        ops = []
        for thing in self.session.build.stow.things:
            if thing.id in self.session.selection:
                id = fresh_id("own", taken)
                taken.append(id)
                nowhere = msgspec.structs.replace(thing, id=id, x=Length(0.0), y=Length(0.0), z=Length(0.0), inside=None, turn=0)
                ops.append(add_to("facts.things", msgspec.to_builtins(nowhere)))
        if ops:
            self.session.edit("Keep on my own shelf", ops, "Stow", whole_project=True)
            self.fill()

    def drop(self) -> None:
        item = self.list.currentItem()
        id = item.data(Qt.ItemDataRole.UserRole) if item is not None else None
        own = next((t for t in self.session.facts.things if t.id == id), None)
        if own is None:
            self.session.said.emit("Choose one of your own first; the shipped ones stay.", "note")
            return
        says = f"Take {lower_first(own.name)} off my own shelf"
        self.session.edit(says, [remove(f"facts.things.{own.id}")], "Stow", whole_project=True)
        self.fill()

    def ask_bring(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Bring in things of your own", "", "Tables (*.csv *.xlsx)")
        if name:
            self.bring(Path(name))

    def bring(self, path: Path) -> None:
        """Things of a file onto one's own shelf; faulty lines are named and left out."""
        from uncle_sled.exchange.catalogue_csv import read_catalogue  # a spreadsheet reader is not needed at start

        taken = tuple(t.id for t in (*self.session.facts.things, *entries()))
        try:
            read = read_catalogue(path, taken)
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        if read.things:
            ops = [add_to("facts.things", msgspec.to_builtins(thing)) for thing in read.things]
            self.session.edit(f"Bring in {count_of(len(ops), 'thing')} of my own", ops, "Stow", whole_project=True)
        says = f"{count_of(len(read.things), 'thing')} came in."
        if read.left_out:
            says += f" Columns left out: {', '.join(read.left_out[:4])}."
        if read.faults:
            told = "; ".join(f"line {fault.line}, {fault.says}" for fault in read.faults[:3])
            more = f" and {len(read.faults) - 3} more" if len(read.faults) > 3 else ""
            says += f" Not taken: {told}{more}"
        self.session.said.emit(says, "stop" if read.faults else "note")
        self.fill()

    def ask_write(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Write out what is listed", "things.csv", "CSV (*.csv)")
        if name:
            self.write(Path(name))

    def write(self, path: Path) -> None:
        try:
            write_file(path, csv_text(tuple(self.shown())).encode())
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")
            return
        self.session.said.emit(f"{count_of(len(self.shown()), 'thing')} written to {path.name}.", "note")


def figures_words(thing: Thing, shown: Shown) -> str:
    """The figures of a thing's kind in words."""
    f = thing.figures
    if f is None:
        return ""
    units = (
        ("power_w", "W"),
        ("hours_day", "h a day"),
        ("store_wh", "Wh stored"),
        ("solar_wp", "Wp"),
        ("charge_w", "W charging"),
        ("volts", "V"),
        ("gas_g_h", "g of gas an hour"),
    )
    told = [f"{getattr(f, name):g} {unit}" for name, unit in units if getattr(f, name) is not None]
    if f.water_l_day is not None:
        told.append(f"{volume(f.water_l_day / 1000, shown)} of water a day")
    return ", ".join(told)
