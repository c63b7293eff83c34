"""Stow: real-size things in side view and plan, dragged until it tows right."""

from __future__ import annotations

from typing import TYPE_CHECKING

import msgspec
from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from uncle_sled.catalogue.things import Entry, entries
from uncle_sled.core.document.edits import Op, add_to, fresh_id
from uncle_sled.core.document.placing import delete_ops, place_ops, spot_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.findings.words import lower_first
from uncle_sled.core.units import weight
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet_view import SheetView

if TYPE_CHECKING:
    from uncle_sled.desk.thing_table import ThingTable


class Shelf(QFrame):
    """The catalogue to choose from, with a search; Enter takes the first."""

    chosen = Signal(object)

    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.session = session
        self.setObjectName("popup")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(8, 8, 8, 8)
        self.search = QLineEdit()
        self.search.setPlaceholderText("Search: jug, battery, bed…")
        self.search.setAccessibleName("Search the catalogue")
        self.list = QListWidget()
        self.list.setAccessibleName("Catalogue of things")
        rows.addWidget(self.search)
        rows.addWidget(self.list)
        self.setFixedSize(330, 380)
        self.search.textChanged.connect(self._fill)
        self.search.returnPressed.connect(lambda: self._take(self.list.item(0)))
        self.list.itemClicked.connect(self._take)
        self.list.itemActivated.connect(self._take)
        self._fill("")

    def _fill(self, text: str) -> None:
        self.list.clear()
        words = text.lower().split()
        for entry in entries():
            if all(word in f"{entry.name} {entry.kind} {entry.contents}".lower() for word in words):
                size = (
                    " × ".join(f"{side * 1000:.0f}" for side in entry.size_m)
                    if self.session.shown.length in ("mm", "m")
                    else " × ".join(f"{side / 0.0254:.0f}" for side in entry.size_m)
                )
                unit = "mm" if self.session.shown.length in ("mm", "m") else "in"
                item = QListWidgetItem(f"{entry.name}   {weight(entry.mass_kg, self.session.shown)}   {size} {unit}")
                item.setData(Qt.ItemDataRole.UserRole, entry.id)
                self.list.addItem(item)
        if not self.list.count():
            item = QListWidgetItem("Nothing of that name. Take something near and rename it.")
            item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addItem(item)

    def _take(self, item: QListWidgetItem | None) -> None:
        id = item.data(Qt.ItemDataRole.UserRole) if item is not None else None
        entry = next((e for e in entries() if e.id == id), None)
        if entry is not None:
            self.hide()
            self.chosen.emit(entry)


class StowBench(Bench):
    stop = "Stow"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.modes: dict[str, QPushButton] = {}
        self.mode_at = self.top.count()
        self.add_button, self.measure_button = QPushButton("Add"), QPushButton("Measure")
        self.turn_button, self.copy_button, self.delete_button = (
            QPushButton("Turn"),
            QPushButton("Copy"),
            QPushButton("Delete"),
        )
        self.fit_button, self.table_button = QPushButton("Fit"), QPushButton("Table")
        self.table_button.setCheckable(True)
        self.measure_button.setCheckable(True)
        tips = {
            self.add_button: "Add a thing from the catalogue (A)",
            self.measure_button: "Tape between two points (M)",
            self.turn_button: "A quarter turn (T)",
            self.copy_button: "Ctrl+D",
            self.delete_button: "Del",
            self.fit_button: "Show all (F)",
            self.table_button: "All things as a table (L)",
        }
        for button, tip in tips.items():
            button.setToolTip(tip)
            self.top.addWidget(button)
        self.end_top("")
        self.sheet = SheetView(session, plan=True, things=True, axle=True)
        self.table: ThingTable | None = None
        self.rows.addWidget(self.sheet, 1)
        self.table_button.clicked.connect(self.show_table)
        self.add_button.clicked.connect(self.open_shelf)
        self.measure_button.clicked.connect(self.measure)
        self.turn_button.clicked.connect(self.turn)
        self.copy_button.clicked.connect(self.copy)
        self.delete_button.clicked.connect(self.delete)
        self.fit_button.clicked.connect(self.sheet.fit)
        self.shelf: Shelf | None = None
        for signal in (session.changed, session.case_changed, session.selected):
            signal.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        build, session = self.session.build, self.session
        if list(self.modes) != [mode.id for mode in build.stow.modes]:
            for button in self.modes.values():
                self.top.removeWidget(button)
                button.deleteLater()
            self.modes = {}
            for at, mode in enumerate(build.stow.modes):
                button = QPushButton(mode.name)
                button.setCheckable(True)
                button.setToolTip(f"{mode.name} mode: {'on the road' if mode.towing else 'standing'}")
                button.clicked.connect(lambda _=False, id=mode.id: self.show_mode(id))
                self.top.insertWidget(self.mode_at + at, button)
                self.modes[mode.id] = button
        cases = session.studied.table.cases
        current = cases[session.row].mode.id if cases else ""
        for id, button in self.modes.items():
            button.setChecked(id == current)
        chosen = any(t.id in session.selection for t in build.stow.things)
        for button in (self.turn_button, self.copy_button, self.delete_button):
            button.setEnabled(chosen)
        if self.sheet is not None:
            self.measure_button.setChecked(self.sheet.measuring)

    def show_mode(self, id: str) -> None:
        case = next((case for case in self.session.studied.table.cases if case.mode.id == id), None)
        if case is not None:
            self.session.show_case(case.id)
        else:
            self.session.said.emit("No load case of its own in this mode: it weighs as another one does.", "note")
        self.refresh()

    def show_table(self) -> None:
        """The drawing or its twin, the table."""
        assert self.sheet is not None
        if self.table is None:
            from uncle_sled.desk.thing_table import ThingTable  # at start nobody waits for a table that is not shown

            self.table = ThingTable(self.session)
            self.table.hide()
            self.rows.addWidget(self.table, 1)
        table = not self.table.isVisible()
        self.sheet.setVisible(not table)
        self.table.setVisible(table)
        self.table_button.setChecked(table)
        for button in (self.measure_button, self.fit_button):
            button.setEnabled(not table)
        (self.table.view if table else self.sheet).setFocus()
        self.sheet.view_changed.emit()

    def measure(self) -> None:
        assert self.sheet is not None
        self.sheet.measuring = not self.sheet.measuring
        self.sheet.tape = None
        self.sheet.update()
        self.refresh()

    def open_shelf(self) -> None:
        if self.shelf is not None:
            self.shelf.deleteLater()
        self.shelf = Shelf(self.session, self)
        self.shelf.chosen.connect(self.add)
        self.shelf.move(self.add_button.mapToGlobal(QPoint(0, self.add_button.height() + 2)))
        self.shelf.show()
        self.shelf.search.setFocus()

    def add(self, entry: Entry) -> None:
        """Put a catalogue thing into the body near the axle, or outside on the drawbar, and take it in hand."""
        build = self.session.build
        shell, rig = build.shell, build.rig
        id = fresh_id("t", [t.id for t in build.stow.things])
        floor = (shell.floor.si if shell.floor else 0.5) + (shell.wall.si if shell.wall else 0.0)
        if entry.outside:
            top = rig.frame_top.si if rig.frame_top else floor
            x, z = (
                (0.6, top)
                if entry.kind != "solar"
                else (
                    self._middle() - entry.size_m[0] / 2,
                    (shell.height.si if shell.height else 1.2) + (shell.floor.si if shell.floor else 0.5),
                )
            )
        else:
            x, z = self._middle() - entry.size_m[0] / 2, floor
        thing = entry.thing(id, round(x, 3), 0.0, round(z, 3))
        if self.session.edit(
            f"Add {lower_first(entry.name)}", [add_to("stow.things", msgspec.to_builtins(thing))], "Stow", (id,)
        ):
            self.session.select((id,))
            if self.sheet is not None:
                self.sheet.setFocus()

    def _middle(self) -> float:
        shell, axles = self.session.build.shell, self.session.build.rig.axles
        if shell.form != "none" and shell.front and shell.length:
            return shell.front.si + shell.length.si / 2
        return axles[0].station.si if axles else 2.0

    def _chosen(self) -> list[str]:
        return [t.id for t in self.session.build.stow.things if t.id in self.session.selection]

    def turn(self) -> None:
        session = self.session
        mode = session.studied.table.cases[session.row].mode
        ops: list[Op] = []
        for thing in session.build.stow.things:
            if thing.id in session.selection:
                (x, y, z), turn = spot_of(thing, mode)
                # about its middle, so that it stays where it was
                now = thing.length.si if turn % 180 == 0 else thing.width.si
                then = thing.width.si if turn % 180 == 0 else thing.length.si
                ops += place_ops(session.build, mode, thing, (x + (now - then) / 2, y, z), (turn + 90) % 360)
        if ops:
            session.edit("Turn " + self._name(), ops, "Stow", tuple(self._chosen()))

    def _name(self) -> str:
        chosen = self._chosen()
        thing = next((t for t in self.session.build.stow.things if t.id in chosen), None)
        return f"{len(chosen)} things" if len(chosen) != 1 or thing is None else f"the {lower_first(thing.name)}"

    def copy(self) -> None:
        build = self.session.build
        ops, made = [], []
        taken = [t.id for t in build.stow.things]
        for thing in build.stow.things:
            if thing.id in self.session.selection:
                id = fresh_id("t", [*taken, *made])
                made.append(id)
                twin = msgspec.structs.replace(
                    thing,
                    id=id,
                    name=f"{thing.name} copy",
                    x=Length(round(thing.x.si + 0.05, 4)),
                    y=Length(round(thing.y.si + 0.05, 4)),
                )
                ops.append(add_to("stow.things", msgspec.to_builtins(twin)))
        if ops:
            self.session.edit("Copy " + self._name(), ops, "Stow", tuple(made))
            self.session.select(tuple(made))

    def delete(self) -> None:
        chosen = tuple(self._chosen())
        if chosen:
            self.session.edit("Delete " + self._name(), delete_ops(self.session.build, chosen), "Stow", chosen)
