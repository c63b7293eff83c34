"""What the tickets taught: groups before and after, tickets beside the model, and accepting it."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.road.taught_chart import groups_chart, tickets_chart
from uncle_sled.core.reading.learnt import GROUP_WORDS
from uncle_sled.core.studies.road.reconcile import Reconciled, accepted, reconcile
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.kit.panel import Group, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Drawing, Says

NO_TICKET = "A weighed case stands here beside what the model said of it."


class TaughtPanel(PanelOf[RoadBench]):
    def laid(self) -> Group:
        return rows(
            across(
                Act(
                    "Accept",
                    "Later load cases carry it; a correction that scales with later edits (C)",
                    self.bench.accept,
                    lambda: self.made() is not None and self.open(),
                ),
                Act(
                    "Take it back",
                    "The last correction; its tickets stay as a record",
                    self.bench.forget,
                    lambda: bool(self.session.build.road.corrections),
                ),
                Says(self._told, share=1, joined=" "),
            ),
            Says(self._fights, "primer", hides=True, joined=" "),
            Drawing(
                "Groups before and after", self._groups, "Pencil: as thought. Blue: by the tickets. Bars: two sigmas", self._why, share=3
            ),
            Drawing("Estimate against ticket", self._tickets, "On the ball: dot the ticket, line the model", NO_TICKET, share=2),
        )

    def made(self) -> Reconciled | None:
        """Open tickets together; where all are accepted, all of them once more for looking at."""
        s = self.studied
        made = reconcile(s)
        return reconcile(s, s.build.road.tickets) if made is None and s.build.road.tickets else made

    def _told(self) -> list[str]:
        made, known = self.made(), self.session.build.road.corrections
        if made is not None and self.open():
            return [*made.says, f"All together {made.surprise:.1f} sigmas."] if len(made.tickets) > 1 else list(made.says)
        if not known:
            return []
        last = known[-1]
        some = ", ".join(
            f"{GROUP_WORDS.get(factor.id, factor.id)} {(factor.factor - 1) * 100:+.0f} %"
            for factor in last.groups
            if abs(factor.factor - 1) > 0.005
        )
        told = f"Accepted from {len(last.tickets)} ticket{'s' if len(last.tickets) > 1 else ''}: {some or 'nothing changed'}. Every case carries it."
        return [told.replace("-", "−")]

    def _fights(self) -> tuple[str, ...]:
        made = self.made()
        return made.fights if made is not None else ()

    def open(self) -> bool:
        known = accepted(self.session.studied)
        return any(ticket.id not in known for ticket in self.session.build.road.tickets)

    def _why(self) -> str:
        if not self.session.build.road.tickets:
            return "No ticket yet: weigh it first (Weigh). A ticket corrects the model group by group, as far as it can tell."
        return "The tickets say nothing yet: Weigh says what is still wanted. On a vehicle's bed there is no ball to reconcile."

    def _groups(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.made()
        return groups_chart(made, self.words, width, height) if made is not None else ()

    def _tickets(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self.made()
        return tickets_chart(made, self.words, width, height) if made is not None else ()
