"""One table of everything that can be done: menus, the finder and the key sheet read it."""

from __future__ import annotations

from collections.abc import Callable

import msgspec
from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QWidget


class Act(msgspec.Struct, frozen=True):
    """One action: what it is called, its key, the bench it belongs to (empty: everywhere), and what it does."""

    id: str
    title: str
    group: str
    key: str
    run: Callable[[], object]
    bench: str = ""


class Actions:
    """The registry of one window, with a QAction for every act."""

    def __init__(self, owner: QWidget, changed: dict[str, str] | None = None) -> None:
        self.owner = owner
        self.changed = dict(changed or {})  # keys that the user chose, by action
        self.acts: dict[str, Act] = {}
        self.qt: dict[str, QAction] = {}

    def add(self, act: Act) -> None:
        assert act.id not in self.acts, f"action {act.id} is there twice"
        self.acts[act.id] = act
        made = QAction(act.title, self.owner)
        # Escape belongs first to whatever has the focus (a field, a drag); the window takes what is left
        if self.key_of(act.id) and act.key != "Escape":
            made.setShortcuts([QKeySequence(key) for key in self.key_of(act.id).split(", ")])
        made.triggered.connect(lambda _=False, run=act.run: run())
        self.qt[act.id] = made
        self.owner.addAction(made)

    def key_of(self, id: str) -> str:
        """The key of an action: the user's, else its own."""
        return self.changed.get(id, self.acts[id].key)

    def holder(self, key: str, besides: str) -> str | None:
        """The action on whose key another would land, where the two can meet on one bench."""
        mine = self.acts[besides]
        for id, act in self.acts.items():
            meet = not act.bench or not mine.bench or set(act.bench.split(",")) & set(mine.bench.split(","))
            if id != besides and key and meet and key in self.key_of(id).split(", "):
                return id
        return None

    def set_key(self, id: str, key: str) -> None:
        self.changed[id] = key
        self.qt[id].setShortcuts([QKeySequence(key)] if key else [])

    def show_bench(self, stop: str) -> None:
        """Actions of other benches rest."""
        for act in self.acts.values():
            self.qt[act.id].setEnabled(not act.bench or stop in act.bench.split(","))
