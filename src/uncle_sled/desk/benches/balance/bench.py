"""Balance: where the axle goes, what to move, how sure it is, and what is near its limit."""

from __future__ import annotations

from uncle_sled.desk.benches.bench import PanelBench
from uncle_sled.desk.session import Session


class BalanceBench(PanelBench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        session.case_changed.connect(self.refresh)
        self.show_view("Axle")

    def find_moves(self) -> None:
        self.show_view("Moves")
        self.panel("Moves").find_moves()
