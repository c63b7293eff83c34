"""The finder: actions, views, things aboard and of the catalogue, findings, limits and load cases by a few letters."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from uncle_sled.catalogue.search import nearest, ranked
from uncle_sled.core.document.stow import Thing
from uncle_sled.core.findings.finding import Finding
from uncle_sled.core.trail import stop_of
from uncle_sled.core.units import name_in_units, weight
from uncle_sled.desk.actions import Actions
from uncle_sled.desk.benches.about import abouts
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

MOST = 40
NOTHING = "Nothing is called so. Try “held”, “tank”, “axle”, or the name of a thing."
NEAR = "Nothing is called so. Nearest to it:"


class Finder(Guarded, QFrame):
    def __init__(
        self,
        session: Session,
        actions: Actions,
        parent: QWidget,
        adds: Callable[[Thing], object] = lambda _: None,
        makes: Callable[[str], object] | None = None,
    ) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self.session, self.acts, self.adds, self.makes = session, actions, adds, makes
        self.near = False
        self.setObjectName("popup")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(8, 8, 8, 8)
        self.line = QLineEdit()
        self.line.setAccessibleName("Find anything")
        self.line.setPlaceholderText("An action, a view, a thing, a finding, a case…")
        self.list = QListWidget()
        self.list.setAccessibleName("Found")
        rows.addWidget(self.line)
        rows.addWidget(self.list)
        self.setFixedSize(420, 360)
        self.line.textChanged.connect(self.fill)
        self.line.returnPressed.connect(lambda: self.take(self.list.currentItem() or self.list.item(0)))
        self.list.itemClicked.connect(self.take)
        self.list.itemActivated.connect(self.take)
        self.found: list[tuple[str, Callable[[], object]]] = []
        self.fill("")

    def everything(self) -> list[tuple[str, Callable[[], object]]]:
        session = self.session
        made: list[tuple[str, Callable[[], object]]] = []
        views = {f"{said.stop.lower()}-{view.name.lower()}" for said in abouts() for view in said.views}
        for act in self.acts.acts.values():
            if act.id in views:
                continue  # told as a view, with what it shows
            key = f"   {self.acts.key_of(act.id).split(', ')[0]}" if self.acts.key_of(act.id) else ""
            made.append((f"{act.title}{key}", act.run))
        for case in session.studied.table.cases:
            made.append((f"Case: {case.name}, {case.says}", partial(session.show_case, case.id)))
        for part in session.studied.parts:
            made.append((f"{part.name}, {weight(part.mass_kg, session.shown)}", partial(self._thing, part.id)))
        for limit in session.studied.limits:
            number = f"{weight(limit.value, session.shown)} of {weight(limit.limit, session.shown)}"
            made.append((f"Limit: {limit.name}, {number}", partial(session.show_case, limit.case_id)))
        for finding in session.findings:
            made.append((f"Uncle: {finding.title}. {finding.says}", partial(self._point, finding)))
        return made

    def _point(self, finding: Finding) -> None:
        self.session.pointed.emit(finding)

    def _thing(self, id: str) -> None:
        part = next((p for p in self.session.studied.parts if p.id == id), None)
        stop = stop_of([part.made_by]) if part is not None else None
        if stop is not None:
            self.session.go_to(stop)
        self.session.select((id,))

    def _views(self) -> list[tuple[str, Callable[[], object]]]:
        """Every view of every stop by its own name."""
        made: list[tuple[str, Callable[[], object]]] = []
        for said in abouts():
            for view in said.views:
                title = f"View: {said.stop}, {view.name}" + (f". {view.tip}" if view.tip else f": {view.words}")
                run = self.acts.acts.get(f"{said.stop.lower()}-{view.name.lower()}")
                if run is not None:
                    made.append((title, run.run))
        return made

    def _catalogue(self) -> list[tuple[str, Callable[[], object]]]:
        """Everything on the shelves, to be added."""
        from uncle_sled.catalogue.things import entries  # only who looks for something reads the shelves

        shown = self.session.shown
        made: list[tuple[str, Callable[[], object]]] = []
        for entry in (*self.session.facts.things, *entries()):
            named = msgspec.structs.replace(entry, name=name_in_units(entry.name, shown))
            made.append((f"Add: {named.name}, {weight(entry.mass.si, shown)}", partial(self.adds, named)))
        return made

    def fill(self, text: str) -> None:
        pool = [*self.everything(), *self._views()] + (self._catalogue() if len(text.strip()) > 1 else [])
        self.found = ranked(pool, text, lambda one: one[0])[:MOST]
        self.near = not self.found
        if self.near:  # the nearest, and a thing of one's own by that name
            self.found = nearest(pool, text, lambda one: one[0])
            if self.makes is not None and len(text.strip()) > 1:
                self.found.append((f"Make my own thing: {text.strip()}", partial(self.makes, text.strip())))
        self.list.clear()
        if self.near and text.strip():
            self._say(NOTHING if not self.found else NEAR)
        for title, _ in self.found:
            self.list.addItem(QListWidgetItem(title))
        if self.found:
            self.list.setCurrentRow(self.list.count() - len(self.found))

    def _say(self, words: str) -> None:
        said = QListWidgetItem(words)
        said.setFlags(Qt.ItemFlag.NoItemFlags)
        self.list.addItem(said)

    def take(self, item: QListWidgetItem | None) -> None:
        at = self.list.row(item) - (self.list.count() - len(self.found)) if item is not None else -1
        if 0 <= at < len(self.found):
            self.hide()
            self.found[at][1]()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            self.list.setCurrentRow(
                max(
                    self.list.count() - len(self.found),
                    min(self.list.count() - 1, self.list.currentRow() + (1 if event.key() == Qt.Key.Key_Down else -1)),
                )
            )
        else:
            super().keyPressEvent(event)
