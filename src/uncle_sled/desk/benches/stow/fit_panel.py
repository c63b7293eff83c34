"""Who fits, who gets out, what is at hand: one line each with its number, limit and verdict, beside the drawing's modes."""

from __future__ import annotations

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.fit_plan import fit_plan
from uncle_sled.core.findings.stow import fit_lines
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.desk.benches.stow.verdict_card import Verdicts
from uncle_sled.desk.kit.panel import Group, Panel, rows
from uncle_sled.desk.kit.parts import Cards, Drawing, Says

PLAN_PX = 170


class FitPanel(Panel):
    """Cards in as many columns as there is room for."""

    follows = ("changed", "case_changed", "selected")

    def laid(self) -> Group:
        mode = self._standing
        cards = (
            Verdicts("In bed", lambda: fit_lines.beds_lines(self.studied, mode(), self.words)),
            Verdicts("Ways out", lambda: fit_lines.ways_lines(self.studied, mode(), self.words)),
            Verdicts("On arrival", lambda: fit_lines.arrival_lines(self.studied, self.words)),
            Verdicts("Through the doors", lambda: fit_lines.doors_lines(self.studied, mode(), self.words)),
            Verdicts("Sitting, standing, cooking", lambda: fit_lines.upright_lines(self.studied, mode(), self.words)),
            Verdicts("Left and right", lambda: fit_lines.sides_lines(self.studied, self.session.row, self.words)),
        )
        self.plan = self.put(
            Drawing("Who fits, seen from above", self._plan, empty="No body yet: draw it on the Shell stop.", least=(0, PLAN_PX), share=2)
        )
        return rows(Says(self._head, "pencil", "small"), Cards(cards, share=3), self.plan)

    def _head(self) -> str:
        return f"Judged in {self._standing().name}. Screening only: local rules on escape, gas and fire, and those who apply them, decide."

    def _plan(self, width: float, height: float) -> tuple[Primitive, ...]:
        return fit_plan(self.studied, self._standing(), self.session.selection, self.words, width, height)

    def _standing(self) -> Mode:
        """The shown mode where it stands, else the first one that does."""
        build, now = self.session.build, self.session.mode
        used = modes_in_use(build)
        return now if now.id in used else next(mode for mode in build.stow.modes if mode.id in used)
