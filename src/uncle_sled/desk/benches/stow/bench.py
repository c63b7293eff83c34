"""Stow: real-size things in side view and plan, dragged until it tows right."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import msgspec
from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from uncle_sled.core.document.edits import Op, add_to, fresh_id
from uncle_sled.core.document.placing import delete_ops, place_ops, spot_of
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.sheet_view import SheetView

if TYPE_CHECKING:
    from uncle_sled.desk.benches.stow.shelf import Shelf
    from uncle_sled.desk.benches.stow.thing_table import ThingTable


class StowBench(Bench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.view = "Drawing"
        self.add_views()
        self.end_top("")
        self.modes: dict[str, QPushButton] = {}
        self.tools = QWidget()
        self.tool_row = QHBoxLayout(self.tools)
        self.tool_row.setContentsMargins(0, 0, 0, 0)
        self.tool_row.setSpacing(6)
        self.gap = QWidget()
        self.gap.setFixedWidth(8)
        self.tool_row.addWidget(self.gap)
        self.add_button = self._tool("Add", self.open_shelf, "Add a thing from the catalogue (A)")
        self.measure_button = self._tool("Measure", self.measure, "Tape between two points (M)")
        self.people_button = self._tool("People", self.show_people, "Who lies, sits and stands in it (P)")
        self.turn_button = self._tool("Turn", self.turn, "A quarter turn (T)")
        self.copy_button = self._tool("Copy", self.copy, "Ctrl+D")
        self.delete_button = self._tool("Delete", self.delete, "Del")
        self.fit_button = self._tool("Fit", lambda: self.sheet.fit() if self.sheet else None, "Show all (F)")
        for button in (self.measure_button, self.people_button):
            button.setCheckable(True)
        self.people_button.setChecked(True)
        self.tool_row.addStretch(1)
        self.rows.addWidget(self.tools)
        self.sheet = SheetView(session, plan=True, things=True, axle=True)
        self.stack_views()
        self.panels.addWidget(self.sheet)
        self.made["Drawing"] = self.sheet
        self.shelf: Shelf | None = None
        self.solid_bar: QWidget | None = None
        for signal in (session.changed, session.case_changed, session.selected):
            signal.connect(self.refresh)
        self.refresh()

    def _tool(self, text: str, does: Callable[[], object], tip: str) -> QPushButton:
        button = QPushButton(text)
        button.setToolTip(tip)
        button.clicked.connect(lambda _=False: does())
        self.tool_row.addWidget(button)
        return button

    # views
    def make(self, name: str) -> Any:
        made = super().make(name)
        if name == "Solid":  # its peel and its views stand in the row of tools
            self.solid_bar = made.bar
            self.tool_row.insertWidget(self.tool_row.count() - 1, made.bar)
        return made

    def show_view(self, name: str) -> None:
        assert self.sheet is not None
        self.view = name
        panel = self.panel(name)
        self.panels.setCurrentWidget(panel)
        self.press(name)
        drawing = name == "Drawing"
        self.tools.setVisible(name in ("Drawing", "Solid", "Fits", "Reach", "Table"))
        for button in (self.measure_button, self.people_button, self.fit_button):
            button.setVisible(drawing)
        for button in (self.add_button, self.turn_button, self.copy_button, self.delete_button):
            button.setVisible(name in ("Drawing", "Table"))
        if self.solid_bar is not None:
            self.solid_bar.setVisible(name == "Solid")
        (getattr(panel, "view", None) or getattr(panel, "sheet", None) or panel).setFocus()
        self.refresh()
        self.sheet.view_changed.emit()

    @property
    def table(self) -> ThingTable | None:
        return self.made.get("Table")

    def show_people(self) -> None:
        assert self.sheet is not None
        self.sheet.people = not self.sheet.people
        self.people_button.setChecked(self.sheet.people)
        self.sheet.update()

    def refresh(self) -> None:
        build, session = self.session.build, self.session
        if list(self.modes) != [mode.id for mode in build.stow.modes]:
            for button in self.modes.values():
                self.tool_row.removeWidget(button)
                button.deleteLater()
            self.modes = {}
            for at, mode in enumerate(build.stow.modes):
                button = QPushButton(mode.name)
                button.setCheckable(True)
                button.setToolTip(f"{mode.name} mode: {'on the road' if mode.towing else 'standing'}")
                button.clicked.connect(lambda _=False, id=mode.id: self.show_mode(id))
                self.tool_row.insertWidget(at, button)
                self.modes[mode.id] = button
        current = session.mode.id
        for id, button in self.modes.items():
            button.setChecked(id == current)
        chosen = bool(session.selection) and any(t.id in session.selection for t in build.stow.things)
        for button in (self.turn_button, self.copy_button, self.delete_button):
            button.setEnabled(chosen)
        if self.sheet is not None:
            self.measure_button.setChecked(self.sheet.measuring)

    def show_mode(self, id: str) -> None:
        self.session.show_mode(id)
        self.refresh()

    def show_table(self) -> None:
        """The drawing or its twin, the table."""
        self.show_view("Drawing" if self.view == "Table" else "Table")

    def measure(self) -> None:
        assert self.sheet is not None
        self.sheet.measuring = not self.sheet.measuring
        self.sheet.tape = None
        self.sheet.update()
        self.refresh()

    def open_shelf(self) -> None:
        from uncle_sled.desk.benches.stow.shelf import Shelf  # at start nobody waits for the catalogue

        if self.shelf is not None:
            self.shelf.deleteLater()
        self.shelf = Shelf(self.session, self)
        self.shelf.chosen.connect(self.add)
        self.shelf.move(self.add_button.mapToGlobal(QPoint(0, self.add_button.height() + 2)))
        self.shelf.show()
        self.shelf.search.setFocus()

    def add(self, entry: Thing) -> None:
        """Put a catalogue thing on its next free place, and take it in hand."""
        from uncle_sled.core.studies.stow.adding import add_ops

        ops, ids = add_ops(self.session.build, self.session.facts, self.session.studied.framed, (entry,))
        if self.session.edit(f"Add {lower_first(entry.name)}", ops, "Stow", ids):
            self.session.select(ids)
            if self.sheet is not None:
                self.sheet.setFocus()

    def make_own(self, name: str) -> None:
        """A thing that no shelf has: a box by that name, its size and weight guessed until they are typed."""
        from uncle_sled.core.studies.stow.adding import own_thing

        self.add(own_thing(name))
        self.session.said.emit(f"{name} is a box of a guessed size and weight: measure and weigh it, and type both.", "note")

    def _chosen(self) -> list[str]:
        return [t.id for t in self.session.build.stow.things if t.id in self.session.selection]

    def turn(self) -> None:
        session = self.session
        mode = session.mode
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
        from uncle_sled.core.studies.stow.next_place import next_place

        build = self.session.build
        ops: list[Op] = []
        made: list[str] = []
        taken = [t.id for t in build.stow.things]
        for thing in build.stow.things:
            if thing.id in self.session.selection:
                id = fresh_id("t", [*taken, *made])
                made.append(id)
                twin = msgspec.structs.replace(
                    thing, id=id, name=f"{thing.name} copy", x=Length(round(thing.x.si + 0.05, 4)), y=Length(round(thing.y.si + 0.05, 4))
                )
                ops.append(add_to("stow.things", msgspec.to_builtins(twin)))
        if len(ops) == 1:  # one by itself goes to the next free place
            twin = msgspec.structs.replace(twin, turn=thing.turn)
            x, y, z = next_place(build, self.session.facts, self.session.studied.framed, twin)
            spot = {"x": Length(round(x, 4)), "y": Length(round(y, 4)), "z": Length(round(z, 4))}
            ops = [add_to("stow.things", msgspec.to_builtins(msgspec.structs.replace(twin, **spot)))]
        if ops:
            self.session.edit("Copy " + self._name(), ops, "Stow", tuple(made))
            self.session.select(tuple(made))

    def delete(self) -> None:
        chosen = tuple(self._chosen())
        if chosen:
            self.session.edit("Delete " + self._name(), delete_ops(self.session.build, chosen), "Stow", chosen)
