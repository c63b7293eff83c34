"""Checklists made of what this build has, ticked with date and who."""

from __future__ import annotations

from datetime import date
from functools import partial

from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.studies.build.checklists import Checklist, checklists
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.benches.build.calendar_panel import Card
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import ChoiceField, TextField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.session import Session


class ChecksPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__()
        self.session = session
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(0, 0, 0, 0)
        self.rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.who = TextField("Who ticks", may_be_empty=True)
        self.who.setPlaceholderText("who")
        self.who.setToolTip("Written beside what is ticked from now on")
        self.who.setFixedWidth(120)
        tools.addWidget(self.who)
        self.list = ChoiceField("List", [])
        self.list.setMinimumContentsLength(10)
        tools.addWidget(self.list)
        self.line = TextField("A line of my own", may_be_empty=True)
        self.line.setPlaceholderText("a line of my own for this list")
        self.line.entered.connect(self.add)
        tools.addWidget(self.line, 1)
        tools.addWidget(act_button("Untick the list", "Before the next departure, arrival or winter", self.clear))
        self.rows.addLayout(tools)
        self.says = label("", "small", "pencil", wrap=True)
        self.rows.addWidget(self.says)
        self.cards: Columns | None = None
        self.boxes: dict[str, QCheckBox] = {}
        self._shown: object = None

    def lists(self) -> tuple[Checklist, ...]:
        return checklists(self.session.build, self.session.project.facts)

    def tick(self, id: str, on: bool) -> None:
        known = any(one.id == id for one in self.session.build.work.ticks)
        record = {"id": id, "on": date.today().isoformat(), "who": self.who.text().strip()[:60]}
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
            id = fresh_id("ln", [one.id for one in self.session.build.work.lines])
            self.session.edit(f"A line for {name}", [add_to("work.lines", {"id": id, "list": name, "says": text.strip()[:300]})], "Build")
            self.line.show_value("")

    def clear(self) -> None:
        name = self.list.currentData()
        ops = [remove(f"work.ticks.{one.id}") for one in self.session.build.work.ticks if one.id.startswith(f"{name}/")]
        if ops:
            self.session.edit(f"Untick {name}", ops, "Build")

    def _drop(self, id: str) -> None:
        self.session.edit("A line less", [remove(f"work.lines.{id}")], "Build")

    def refresh(self) -> None:
        lists = self.lists()
        self.list.offer([(one.name, one.name) for one in lists])
        if self.list.currentIndex() < 0 and lists:
            self.list.setCurrentIndex(0)
        self.says.setText("" if lists else "No list has a line for this build yet: nothing is drawn.")
        shown = tuple((one.name, tuple((c.id, c.says) for c in one.lines)) for one in lists)
        if shown != self._shown:
            self._shown = shown
            self._build(lists)
        for one in lists:
            for check in one.lines:
                box = self.boxes[check.id]
                box.setChecked(check.tick is not None)
                told = f" ({check.tick.on} {check.tick.who})".replace(" )", ")") if check.tick is not None else ""
                says = self.session.told(check.says)
                box.setToolTip(f"{says}{told}")
                self.told[check.id].setText(says + told)

    def _build(self, lists: tuple[Checklist, ...]) -> None:
        take_away(self.rows, self.cards)
        cards: list[QWidget] = []
        self.boxes, self.told = {}, {}
        for one in lists:
            card = Card(one.name)
            for check in one.lines:
                line = QHBoxLayout()
                line.setSpacing(6)
                box = QCheckBox()
                box.setAccessibleName(self.session.told(check.says))
                box.clicked.connect(lambda on, id=check.id: self.tick(id, on))
                words = label(self.session.told(check.says), "small", "ink", wrap=True)
                line.addWidget(box)
                line.addWidget(words, 1)
                if check.own:
                    line.addWidget(act_button("Off", "", partial(self._drop, check.id.partition("/")[2])))
                card.box.addLayout(line)
                self.boxes[check.id], self.told[check.id] = box, words
            cards.append(card)
        self.cards = Columns(cards) if cards else None
        if self.cards is not None:
            self.rows.addWidget(self.cards, 1)
