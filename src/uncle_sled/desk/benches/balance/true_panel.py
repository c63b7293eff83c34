"""How true each measure must be so that ball, squareness and doors come right nine times of ten."""

from __future__ import annotations

from uncle_sled.core.drawing.balance.true_rows import fair_m, short_words, true_rows
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.balance.tolerances import Tolerances, tolerances
from uncle_sled.desk.kit.panel import Group, Panel, rows
from uncle_sled.desk.kit.parts import Busy, Drawing, Says, note
from uncle_sled.desk.session import Session

CAUTION = (
    "Of measures alone, with weights as they are said (Sure has their doubt). Doors and corners by shop practice: the papers of what is "
    "bought decide. Printed small beside the measures of the order sheet and of the faces."
)


class TruePanel(Panel):
    follows = ("changed",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        session.answers.changed.connect(lambda study: self.show_again() if study is tolerances else None)

    def laid(self) -> Group:
        self.chart = self.put(
            Drawing(
                "How true each measure must be",
                self._shapes,
                "Either way, nine times of ten",
                "Nothing is drawn yet that a measure could spoil: axle, body, doors, things.",
                share=1,
            )
        )
        return rows(Says(self._told), self.chart, Says(self._short, "pencil", "small", hides=True), Busy(tolerances), note(CAUTION))

    def prepared(self) -> None:
        """It takes less than a second in the worker: looking at it asks."""
        if self.isVisible() or self.session.answers.in_place:
            self.session.answers.ask(tolerances)

    @property
    def found(self) -> Tolerances | None:
        """Of the build as it is, or while that is worked out, as it was."""
        return self.session.answers.of(tolerances).value

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return true_rows(self.found, self.words, width, height) if self.found is not None else ()

    def _told(self) -> str:
        found = self.found
        if found is None or not found.dimensions:
            return ""
        if not found.reached:
            return f"Not even {self._tape(0.001)} everywhere is enough for {'; '.join(found.narrow)}: there is too little room for it as drawn."
        fine = sum(one.tolerance_m <= 0.005 for one in found.dimensions)
        loose = sum(one.tolerance_m >= 0.03 for one in found.dimensions)
        much = found.bound / found.cost if found.cost > 0 else 1.0
        return (
            f"Of {len(found.dimensions)} measures {fine} must hold to {self._tape(0.005)} or better, {loose} need no more than "
            f"{self._tape(0.03)}. So {found.chance * 100:.0f} of 100 come right. That was loosened step by step; "
            f"at best {much * 100:.0f} % of this measuring would do, which nobody proved possible."
        )

    def _tape(self, metres: float) -> str:
        return self.words.thick(fair_m(metres, self.words))

    def _short(self) -> str:
        return short_words(self.found.outcomes) if self.found is not None else ""
