"""Balance: where the axle goes, what to move, how sure it is, and what is near its limit."""

from __future__ import annotations

from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QStackedWidget

from uncle_sled.desk.benches.balance.axle_panel import AxlePanel
from uncle_sled.desk.benches.balance.frame_panel import FramePanel
from uncle_sled.desk.benches.balance.moves_panel import MovesPanel
from uncle_sled.desk.benches.balance.panels import DrivingPanel, LimitsPanel
from uncle_sled.desk.benches.balance.sure_panel import SurePanel
from uncle_sled.desk.benches.balance.sway_panel import SwayPanel
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.session import Session

Panel = AxlePanel | MovesPanel | SurePanel | LimitsPanel | SwayPanel | FramePanel | DrivingPanel


class BalanceBench(Bench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.view = "Axle"
        self.add_views()
        self.end_top("")
        self.panels = QStackedWidget()
        self.axle, self.moves, self.sure = AxlePanel(session), MovesPanel(session), SurePanel(session)
        self.limits, self.driving = LimitsPanel(session), DrivingPanel(session)
        self.sway, self.frame = SwayPanel(session), FramePanel(session)
        self.by_view: dict[str, Panel] = {
            "Axle": self.axle,
            "Moves": self.moves,
            "Sure": self.sure,
            "Limits": self.limits,
            "Sway": self.sway,
            "Frame": self.frame,
            "Driving": self.driving,
        }
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
