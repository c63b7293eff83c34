"""What may run together: a matrix to click, and why."""

from __future__ import annotations

from PySide6.QtWidgets import QVBoxLayout, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.together_chart import together_chart
from uncle_sled.core.studies.systems.of_the_build import stay_mode
from uncle_sled.core.studies.systems.together import Together, together_of
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.systems.clicked import Clicked
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session


class TogetherPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.chosen: tuple[str, str] | None = None
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        self.chart = Clicked(session, "Which loads go together", self._shapes, "Together or not: click a square", self._why)
        self.chart.picked.connect(self._pick)
        rows.addWidget(self.chart, 1)
        self.says = label("", wrap=True)
        rows.addWidget(self.says)

    def _together(self) -> Together:
        mode = self.session.mode
        return together_of(self.session.build, mode.id if not mode.towing else stay_mode(self.session.build))

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return together_chart(self._together(), self.chosen, width, height)

    def _why(self) -> str:
        return "Nothing here runs on mains, or draws over 100 W: small loads of the battery go together."

    def _pick(self, id: str) -> None:
        one, _, other = id.partition("\n")
        self.chosen = (one, other) if other else None
        if other:
            self.session.select(tuple(dict.fromkeys((one, other))))
        self.refresh()

    def refresh(self) -> None:
        self.chart.update()
        together = self._together()
        names = {load.id: load.name for load in together.loads}
        pair = together.of(*self.chosen) if self.chosen is not None and set(self.chosen) <= set(names) else None
        if pair is not None:
            alone = pair.one == pair.other
            both = names[pair.one] if alone else f"{names[pair.one]} and {lower_first(names[pair.other])}"
            word = {
                True: "runs" if alone else "run together",
                False: "does not run" if alone else "do not run together",
                None: "not known",
            }[pair.fits]
            self.says.setText(f"{both}: {word}, {pair.why}.")
            return
        bad = [one for one in together.pairs if one.fits is False]
        if not together.pairs:
            self.says.setText("")
        elif not bad:
            self.says.setText(f"Every pair goes together, by the {together.source or 'battery'}.")
        else:
            first = bad[0]
            both = names[first.one] if first.one == first.other else f"{names[first.one]} and {lower_first(names[first.other])}"
            self.says.setText(f"{len(bad)} that do not go: {both}, {first.why}.")
