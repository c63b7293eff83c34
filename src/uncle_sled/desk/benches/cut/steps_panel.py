"""Steps: the stair of sheets under each edge of the body and each thing of boards, with the money; the edge is dragged on it."""

from __future__ import annotations

from typing import Any

from uncle_sled.core.drawing.cut.stair_chart import step_words
from uncle_sled.core.slow import Slow
from uncle_sled.core.studies.cut.stairs import EDGES, STAIRS, Stair, boards_stairs, of_boards
from uncle_sled.desk.benches.cut.bench import CutBench, CutPanel
from uncle_sled.desk.benches.cut.stair_sheet import StairSheet
from uncle_sled.desk.kit.panel import Group, rows, tools
from uncle_sled.desk.kit.parts import Act, Busy, Choice, Own, Says, note
from uncle_sled.desk.session import Session

BOARDS = "boards"
LOOKS_FOR = "Lays everything out anew at other sizes, {300 mm} less to {90 mm} more, and finds to {2 mm} where a sheet is saved. Nothing changes until you drag."
CAUTION = "As good as the plans of Sheets and no better; beside each stands the least that no plan undercuts. Look at room, beds and ways before you cut."


class StepsPanel(CutPanel):
    def __init__(self, session: Session, bench: CutBench) -> None:
        self.edge = EDGES[0][0]
        self.stairs: dict[str, Stair] = {}  # by path, also those whose size was dragged since
        super().__init__(session, bench)
        for signal in (session.answers.changed, session.answers.told):
            signal.connect(lambda study: self.refresh() if study in (*STAIRS.values(), boards_stairs) else None)

    def laid(self) -> Group:
        self.sheet = self.put(Own(lambda: StairSheet(self.session), self._show, share=1))
        return rows(
            tools(
                Choice("Edge", self._edges, self._choose, lambda: self.edge, letters=26),
                Act(
                    "Find the steps",
                    "Lay everything out anew at other sizes; nothing changes until you drag",
                    self.find_steps,
                    lambda: not self.session.answers.of(self.study).working,
                    plain=True,
                ),
                Act(
                    "Step down",
                    "To the next smaller size that takes fewer sheets (Left)",
                    lambda: self.sheet.to_step(-1),
                    self._there,
                    plain=True,
                ),
                Act(
                    "Step up",
                    "To the next larger size before one more sheet (Right)",
                    lambda: self.sheet.to_step(1),
                    self._there,
                    plain=True,
                ),
                *(Busy(study) for study in STAIRS.values()),
                Busy(boards_stairs),
            ),
            Says(self._told),
            self.sheet,
            note(CAUTION),
        )

    @property
    def study(self) -> Slow[Any, Any]:
        """What lays out the chosen edge."""
        return STAIRS.get(self.edge, boards_stairs)

    def _edges(self) -> list[tuple[object, str]]:
        build = self.session.build
        body = [(path, name) for path, name in EDGES] if build.shell.form != "none" else []
        found = [(path, stair.name) for path, stair in self.stairs.items() if path not in STAIRS and stair.holds_for(build)]
        more = [(BOARDS, "things made of boards")] if of_boards(build.stow.things) and not found else []
        return [*body, *found, *more]

    def _choose(self, edge: str) -> None:
        self.edge = edge
        self.refresh()

    def find_steps(self) -> None:
        """Ask; the desk goes on meanwhile."""
        self.session.put_back(because="steps were looked for")
        self.session.answers.ask(self.study)

    def prepared(self) -> None:
        """What was found since is kept while nothing but its size changes."""
        for path, study in STAIRS.items():
            one = self.session.answers.of(study)
            if one.fresh and one.value is not None:
                self.stairs[path] = one.value
        several = self.session.answers.of(boards_stairs)
        if several.fresh and several.value:
            self.stairs |= {stair.path: stair for stair in several.value}
            if self.edge == BOARDS:
                self.edge = several.value[0].path

    @property
    def stair(self) -> Stair | None:
        """The stair of the chosen edge, where it still holds."""
        stair = self.stairs.get(self.edge)
        if stair is None or (self.session.dragging and self.sheet.grabbed is not None):
            return stair
        return stair if stair.holds_for(self.session.build) else None

    def _there(self) -> bool:
        return self.stair is not None

    def _show(self, sheet: StairSheet) -> None:
        sheet.stair = self.stair
        sheet.why = "No body and nothing of boards is drawn yet." if not self._edges() else "Press “Find the steps”."
        sheet.update()

    def _told(self) -> str:
        answer, stair = self.session.answers.of(self.study), self.stair
        if answer.working:
            return "Laying everything out at other sizes…"
        if answer.fault:
            return f"That could not be laid out: {answer.words}"
        if stair is None:
            if answer.fresh and self.edge == BOARDS:
                return self.session.told("No size of what is made of boards saves or costs a sheet, {90 mm} less to {60 mm} more.")
            if answer.fresh:
                return "This size is not typed yet: give it on Shell."
            return answer.words or self.session.told(LOOKS_FOR)
        if len(stair.at) < 2:
            return "It cannot be drawn at other sizes."
        less = [one for one in stair.steps if one.size_m < self.sheet.size_m(stair) - 0.0015]
        failed = f" At {len(stair.failed)} sizes it cannot be drawn." if stair.failed else ""
        if not less:
            return f"No size down to {self.words.m(stair.at[0].size_m)} takes fewer sheets.{failed}"
        return "Fewer sheets: " + "; ".join(step_words(stair, one, self.words) for one in reversed(less)) + "." + failed
