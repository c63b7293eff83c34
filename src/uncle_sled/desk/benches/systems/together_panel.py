"""What may run together: a matrix to click, and why."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.systems.together_chart import together_chart
from uncle_sled.core.studies.systems.systems_as_built import stay_mode
from uncle_sled.core.studies.systems.together import Meeting, Together, together_of
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.systems.clicked import ClickedWires
from uncle_sled.desk.kit.panel import Group, Panel, rows
from uncle_sled.desk.kit.parts import DrawingOf, Says

GO_TOGETHER = {True: "run together", False: "do not run together", None: "not known"}


class TogetherPanel(Panel):
    chosen: tuple[str, str] | None = None

    def laid(self) -> Group:
        self.chart = self.put(
            DrawingOf("Which loads go together", self._shapes, "Together or not: click a square", self._why, kind=ClickedWires, share=1)
        )
        self.chart.picked.connect(self._pick)
        return rows(self.chart, Says(self._told))

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

    def _told(self) -> str:
        together = self._together()
        names = {load.id: load.name for load in together.loads}
        pair = together.of(*self.chosen) if self.chosen is not None and set(self.chosen) <= set(names) else None
        if pair is not None:
            runs = {True: "runs", False: "does not run", None: "not known"} if pair.one == pair.other else GO_TOGETHER
            return f"{_both(pair, names)}: {runs[pair.fits]}, {pair.why}."
        bad = [meeting for meeting in together.pairs if meeting.fits is False]
        if not together.pairs:
            return ""
        if not bad:
            return f"Every pair goes together, by the {together.source or 'battery'}."
        return f"{len(bad)} that do not go: {_both(bad[0], names)}, {bad[0].why}."


def _both(pair: Meeting, names: dict[str, str]) -> str:
    return names[pair.one] if pair.one == pair.other else f"{names[pair.one]} and {lower_first(names[pair.other])}"
