"""What the tickets taught: groups before and after, tickets beside the model, and accepting it."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.road.taught_chart import groups_chart, tickets_chart
from uncle_sled.core.reading.learnt import GROUP_WORDS
from uncle_sled.core.studies.road.reconcile import Reconciled, accepted, reconcile
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

NO_TICKET = "A weighed case stands here beside what the model said of it."


class TaughtPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: RoadBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.accept = act_button("Accept", "Later load cases carry it; a correction that scales with later edits (C)", bench.accept)
        self.forget = act_button("Take it back", "The last correction; its tickets stay as a record", bench.forget)
        tools.addWidget(self.accept)
        tools.addWidget(self.forget)
        self.says = label("", "", "ink", wrap=True)
        tools.addWidget(self.says, 1)
        rows.addLayout(tools)
        self.fights = label("", "", "primer", wrap=True)
        rows.addWidget(self.fights)
        self.groups = Chart(
            session, "Groups before and after", self._groups, "Pencil: as thought. Blue: by the tickets. Bars: two sigmas", self._why
        )
        rows.addWidget(self.groups, 3)
        self.tickets = Chart(
            session, "Estimate against ticket", self._tickets, "On the ball: dot the ticket, line the model", lambda: NO_TICKET
        )
        rows.addWidget(self.tickets, 2)
        self._made: tuple[object, Reconciled | None] | None = None

    def made(self) -> Reconciled | None:
        """Open tickets together; where all are accepted, all of them once more for looking at."""
        s = self.session.studied
        if self._made is None or self._made[0] is not s:
            made = reconcile(s)
            if made is None and s.build.road.tickets:
                made = reconcile(s, s.build.road.tickets)
            self._made = s, made
        return self._made[1]

    def open(self) -> bool:
        known = accepted(self.session.studied)
        return any(one.id not in known for one in self.session.build.road.tickets)

    def _why(self) -> str:
        if not self.session.build.road.tickets:
            return "No ticket yet: weigh it first (Weigh). A ticket corrects the model group by group, as far as it can tell."
        return "The tickets say nothing yet: Weigh says what is still wanted. On a vehicle's bed there is no ball to reconcile."

    def _groups(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.made()
        return groups_chart(made, Words(self.session.shown), width, height) if made is not None else ()

    def _tickets(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.made()
        return tickets_chart(made, Words(self.session.shown), width, height) if made is not None else ()

    def refresh(self) -> None:
        made = self.made()
        open_ = self.open()
        self.accept.setEnabled(made is not None and open_)
        known = self.session.build.road.corrections
        self.forget.setEnabled(bool(known))
        told = []
        if made is not None and open_:
            told += list(made.says)
            if len(made.tickets) > 1:
                told.append(f"All together {made.surprise:.1f} sigmas.")
        elif known:
            last = known[-1]
            some = ", ".join(
                f"{GROUP_WORDS.get(one.id, one.id)} {(one.factor - 1) * 100:+.0f} %" for one in last.groups if abs(one.factor - 1) > 0.005
            )
            told.append(
                f"Accepted from {len(last.tickets)} ticket{'s' if len(last.tickets) > 1 else ''}: {some or 'nothing changed'}. Every case carries it.".replace(
                    "-", "−"
                )
            )
        self.says.setText(" ".join(told))
        self.fights.setText(" ".join(made.fights) if made is not None else "")
        self.fights.setVisible(bool(self.fights.text()))
        self.groups.update()
        self.tickets.update()
