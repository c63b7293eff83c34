"""What to move: offers found in the worker, tried as ghosts, seen case by case and from above."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QListWidget, QListWidgetItem

from uncle_sled.core.drawing.balance import balance_bars
from uncle_sled.core.drawing.balance.moves_plan import moves_plan
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.remedies.move_sets import Move, MoveSets, Shift, move_sets
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.balance.limits_and_driving import try_edit
from uncle_sled.desk.kit.panel import Group, Panel, rows, tools
from uncle_sled.desk.kit.parts import Act, Busy, Drawing, Own, Says
from uncle_sled.desk.session import Session

LOOKS_FOR = (
    "Looks for the easiest slides, swaps of two, and the least total movement that put every case right. Nothing moves until you keep it."
)


class MovesPanel(Panel):
    _listed: MoveSets | None = None

    def laid(self) -> Group:
        tried = lambda: self.session.ghost is not None
        self.offers = self.put(Own(self._listing, self._list, share=1))
        self.ghost_chart = self.put(
            Drawing(
                "Every case before and after",
                self._ghost_shapes,
                "Every case, as it is and as it would be",
                "Standing modes and beds have no ball to show.",
                share=4,
            )
        )
        return rows(
            tools(
                Act(
                    "Find moves",
                    "Slides, swaps and the least movement that put every case right",
                    self.find_moves,
                    lambda: not self.session.answers.of(move_sets).working,
                    plain=True,
                ),
                Act("Keep", "What is tried stays (Ctrl+Enter)", self.session.keep, tried, plain=True),
                Act("Put back", "It stays as it was (Esc)", self.session.put_back, tried, plain=True),
                Busy(move_sets, share=8),
            ),
            Says(self._told),
            self.offers,
            self.ghost_chart,
            Drawing("Where things would go, from above", self._from_above, empty="Nothing is aboard yet.", share=3),
        )

    def _listing(self) -> QListWidget:
        made = QListWidget()
        made.setAccessibleName("Moves that were found, the easiest first")
        made.itemClicked.connect(self.offer)
        made.itemActivated.connect(self.offer)
        made.setMinimumHeight(96)  # four rows
        return made

    def _from_above(self, width: float, height: float) -> tuple[Primitive, ...]:
        return moves_plan(self.studied, self.session.ghost_studied, self.session.row, width, height)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        for signal in (session.answers.changed, session.answers.told):  # what is being tried stands where the offers will
            signal.connect(lambda study: self.refresh() if study is move_sets else None)

    def find_moves(self) -> None:
        """Ask; the desk goes on meanwhile."""
        self.session.put_back(because="moves were looked for")
        self.session.answers.ask(move_sets)

    @property
    def found(self) -> MoveSets | None:
        """The offers for the build as it is."""
        answer = self.session.answers.of(move_sets)
        return answer.value if answer.fresh else None

    def _told(self) -> str:
        answer, found = self.session.answers.of(move_sets), self.found
        if found is not None:
            return self._summary(found)
        if answer.working:
            return "Looking for slides, swaps and the least total movement…"
        return f"The search stopped: {answer.words}" if answer.fault else answer.words or LOOKS_FOR

    def _list(self, offers: QListWidget) -> None:
        found = self.found
        if found is self._listed:
            return
        self._listed = found
        offers.clear()
        for at, move in enumerate(found.moves if found is not None else ()):
            item = QListWidgetItem(self._move_words(move))
            item.setData(Qt.ItemDataRole.UserRole, at)
            offers.addItem(item)

    def _summary(self, found: MoveSets) -> str:
        names = {case.id: lower_first(case.name) for case in self.session.studied.table.cases}
        fights = [names.get(id, id) for id in found.fights]
        if found.moves and found.moves[0].feasible:
            return "Each of these settles every case. Click one to try it; what is marked as staying is left alone."
        if len(fights) > 1:
            return (
                f"No move settles every case: {fights[0]} and {fights[1]} pull against each other. "
                "Bring the tanks nearer the axle, or another load."
            )
        if fights:
            return f"No move settles every case: {fights[0]} stays out of its limits."
        return found.why or "These help, but not every case is settled."

    def _move_words(self, move: Move) -> str:
        if move.kind == "swap":
            a, b = move.items
            text = f"Swap the {lower_first(a.name)} and the {lower_first(b.name)}"
        else:
            text = "; ".join(f"{lower_first(i.name)} {' and '.join(self._ways(i))}" for i in move.items)
            text = text[:1].upper() + text[1:]
        return text + ("" if move.feasible else "   (helps, does not settle all)")

    def _ways(self, shift: Shift) -> list[str]:
        """How far a thing goes along and across, in words."""
        ways = [(shift.to_m - shift.from_m, "back", "forward")]
        ways.append((shift.to_y_m - shift.from_y_m, "to the right", "to the left"))
        return [f"{self.words.m(abs(by))} {more if by > 0 else less}" for by, more, less in ways if abs(by) > 0.004]

    def offer(self, item: QListWidgetItem) -> None:
        """Try what was clicked."""
        at, found = item.data(Qt.ItemDataRole.UserRole), self.found
        if found is None or at is None:
            self.session.said.emit("The build has changed since; look for moves again.", "note")
            return
        move = found.moves[at]
        try_edit(self.session, self._move_words(move), move.ops)

    def try_first(self) -> None:
        """Find moves and try the easiest."""
        self.find_moves()
        if self.offers.count():
            self.offers.setCurrentRow(0)
            self.offer(self.offers.item(0))

    def _ghost_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        session = self.session
        s, tried = session.studied, session.ghost_studied
        if s.build.rig.carrier == "vehicle bed":
            return balance_bars.bed_bars(tried or s, self.words, width, height)
        before = tuple(
            (s.table.cases[row].name, float(s.readings.tongue_kg[row])) for row in s.towing_rows if math.isfinite(s.readings.tongue_kg[row])
        )
        later = tried or s
        after = {
            later.table.cases[r].name: float(later.readings.tongue_kg[r])
            for r in later.towing_rows
            if math.isfinite(later.readings.tongue_kg[r])
        }
        bands = {
            later.table.cases[r].name: (float(later.readings.band_kg[r, 0]), float(later.readings.band_kg[r, 1]))
            for r in later.towing_rows
            if np.isfinite(later.readings.band_kg[r]).all()
        }
        return balance_bars.ghost_rows(before, after, bands, self.words, width, height)
