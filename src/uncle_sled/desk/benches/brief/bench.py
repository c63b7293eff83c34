"""Brief: who sleeps in it, what tows it, by which practice and in which units it is judged and read."""

from __future__ import annotations

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import add_to, fresh_id
from uncle_sled.core.drawing.rig.people import standing_people
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.benches.brief.brief_panel import BriefPanel
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.measured_sheet import MeasuredSheet


class BriefBench(Bench):
    strip = True

    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        for text, tip, run in (
            ("Add a sleeper", "Somebody who sleeps in it", self.add_person),
            ("Add a tow vehicle", "With the limits in its papers", self.add_vehicle),
        ):
            button = QPushButton(text)
            button.setToolTip(tip)
            button.clicked.connect(run)
            self.top.addWidget(button)
        self.view = "Asked"
        self.add_views()
        self.end_top("")
        self.stack_views()
        asked = QWidget()
        under = QVBoxLayout(asked)
        under.setContentsMargins(0, 0, 0, 0)
        self.sheet = MeasuredSheet(session, "car")
        under.addWidget(self.sheet, 4)
        self.cards = BriefPanel(session)
        under.addWidget(self.cards, 6)
        self.panels.addWidget(asked)
        self.made["Asked"] = asked
        session.changed.connect(self.refresh)

    def show_view(self, name: str) -> None:
        self.view = name
        self.press(name)
        self.panels.setCurrentWidget(self.panel(name))
        self.refresh()

    def showEvent(self, _event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible():
            return
        facts = self.session.facts
        if self.view != "Asked":
            self.made[self.view].refresh()
            return
        self.cards.refresh()
        extra = standing_people(self.session.build, facts)
        if self.sheet is not None:
            self.sheet.set_extra(extra)

    def add_person(self) -> None:
        id = fresh_id("p", [p.id for p in self.session.facts.people])
        self.session.edit("Add a sleeper", [add_to("facts.people", {"id": id, "name": "Somebody"})], "Brief", (id,), whole_project=True)

    def add_vehicle(self) -> None:
        id = fresh_id("v", [v.id for v in self.session.facts.vehicles])
        self.session.edit(
            "Add a tow vehicle", [add_to("facts.vehicles", {"id": id, "name": "Tow vehicle"})], "Brief", (id,), whole_project=True
        )
