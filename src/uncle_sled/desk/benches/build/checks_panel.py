"""Checklists made of what this build has, ticked with date and who."""

from __future__ import annotations

from collections.abc import Hashable
from functools import partial

from PySide6.QtWidgets import QCheckBox, QLabel

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.studies.build.checklists import Check, Checklist, checklists
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.panel import Group, Panel, across, card, rows
from uncle_sled.desk.kit.parts import Act, Cards, Choice, Entry, Own, Remade, Says
from uncle_sled.exchange.clock import today


class ChecksPanel(Panel):
    def laid(self) -> Group:
        self.boxes: dict[str, tuple[QCheckBox, QLabel]] = {}
        self.who = self.put(Entry("Who ticks", faint="who", tip="Written beside what is ticked from now on", wide=120))
        self.list = self.put(Choice("List", lambda: [(checklist.name, checklist.name) for checklist in self.lists()], letters=10))
        self.line = self.put(Entry("A line of my own", self.add, "a line of my own for this list", share=1))
        return rows(
            across(self.who, self.list, self.line, Act("Untick the list", "Before the next departure, arrival or winter", self.clear)),
            Says(lambda: "" if self.lists() else "No list has a line for this build yet: nothing is drawn.", "pencil", "small", hides=True),
            Remade(self._shape, self._cards, share=1),
        )

    def _shape(self) -> Hashable | None:
        return tuple((checklist.name, tuple((c.id, c.says, c.own) for c in checklist.lines)) for checklist in self.lists()) or None

    def _cards(self) -> Cards:
        self.boxes = {}
        return Cards([card(checklist.name, *(self._check(check) for check in checklist.lines)) for checklist in self.lists()])

    def _check(self, check: Check) -> Group:
        """A line to tick, what it says with who ticked it, and a way out where it is one's own."""
        box = QCheckBox()
        box.setAccessibleName(self.session.told(check.says))
        box.clicked.connect(lambda on, id=check.id: self.tick(id, on))
        words = label("", "small", "ink", wrap=True)
        self.boxes[check.id] = box, words
        off = (Act("Off", "", partial(self._drop, check.id.partition("/")[2])),) if check.own else ()
        return across(box, Own(lambda: words, share=1), *off)

    def refreshed(self) -> None:
        for checklist in self.lists():
            for check in checklist.lines:
                box, words = self.boxes[check.id]
                box.setChecked(check.tick is not None)
                told = f" ({check.tick.on} {check.tick.who})".replace(" )", ")") if check.tick is not None else ""
                says = self.session.told(check.says) + told
                box.setToolTip(says)
                words.setText(says)

    def lists(self) -> tuple[Checklist, ...]:
        return checklists(self.session.build, self.session.project.facts)

    def tick(self, id: str, on: bool) -> None:
        known = any(tick.id == id for tick in self.session.build.work.ticks)
        record = {"id": id, "on": today(), "who": self.who.text().strip()[:60]}
        op: Op | None = None
        if on:
            op = set_to(f"work.ticks.{id}", record) if known else add_to("work.ticks", record)
        elif known:
            op = remove(f"work.ticks.{id}")
        if op is not None:
            self.session.edit(f"{'Tick' if on else 'Untick'} {id.partition('/')[2]}", [op], "Build")

    def add(self, text: str) -> None:
        name = self.list.currentData()
        if text.strip() and name:
            id = fresh_id("ln", [line.id for line in self.session.build.work.lines])
            self.session.edit(f"A line for {name}", [add_to("work.lines", {"id": id, "list": name, "says": text.strip()[:300]})], "Build")
            self.line.show_value("")

    def clear(self) -> None:
        name = self.list.currentData()
        ops = [remove(f"work.ticks.{tick.id}") for tick in self.session.build.work.ticks if tick.id.startswith(f"{name}/")]
        if ops:
            self.session.edit(f"Untick {name}", ops, "Build")

    def _drop(self, id: str) -> None:
        self.session.edit("A line less", [remove(f"work.lines.{id}")], "Build")
