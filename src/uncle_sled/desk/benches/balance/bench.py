"""Balance: where the axle goes, what to move, how sure it is, and what is near its limit."""

from __future__ import annotations

from typing import Any

from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QStackedWidget

from uncle_sled.desk.benches.about import about
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.session import Session


class BalanceBench(Bench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.view = "Axle"
        self.add_views()
        self.end_top("")
        self.panels = QStackedWidget()
        self.by_view: dict[str, Any] = {view.name: self.make(view.name) for view in about(stop).views}
        self.axle, self.moves, self.sure, self.limits, self.sway, self.frame, self.driving = self.by_view.values()
        for panel in self.by_view.values():
            self.panels.addWidget(panel)
        self.rows.addWidget(self.panels, 1)
        for signal in (session.changed, session.case_changed, session.judged):
            signal.connect(self.refresh)
        self.refresh()

    def showEvent(self, event: QShowEvent) -> None:
        self.refresh()

    def show_view(self, name: str) -> None:
        self.view = name
        self.view_buttons[name].setChecked(True)
        self.panels.setCurrentWidget(self.by_view[name])
        self.refresh()

    def refresh(self) -> None:
        if self.isVisible():
            self.by_view[self.view].refresh()

    def find_moves(self) -> None:
        self.show_view("Moves")
        self.moves.find_moves()
