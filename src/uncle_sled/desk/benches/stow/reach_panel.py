"""Reach: what has to be moved to get at each thing, the cook's place, litres by reach, boxes for every bay, changing over."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.reach_plan import reach_plan
from uncle_sled.core.studies.stow.conversions import conversion
from uncle_sled.core.studies.stow.reach import COOK_M, HOWS, Access, accesses, bays_hold, cook, litres_by_reach
from uncle_sled.core.units import show
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.benches.stow.fit_panel import Card, Said
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

INKS = {"outside": "", "at once": "", "after moving": "ochre word", "out of reach": "primer"}
ORDER = {how: k for k, how in enumerate(reversed(HOWS))}
TITLES = ("The cook", "Room for kit", "Boxes for the bays", "Changing over")


class ReachPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._filling = False
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(5)
        self.plan = Chart(session, "From above: who reaches what", self._shapes, "", lambda: "Nothing aboard yet: add things on Drawing.")
        left.addWidget(self.plan, 3)
        self.model = TableModel[Access](
            (
                Column("Thing", lambda one: one.name),
                Column("Got at", lambda one: one.how, ink=lambda one: INKS[one.how], sort=lambda one: ORDER[one.how]),
                Column("From", lambda one: one.through),
                Column(
                    "In", lambda one: Words(session.shown).m(one.far_m) if one.far_m else "", right=True, sort=lambda one: one.far_m or 0.0
                ),
                Column("Moved first", self._first),
            )
        )
        self.table = Table(self.model, "How one gets at each thing")
        self.table.selectionModel().selectionChanged.connect(lambda *_: self._picked())
        left.addWidget(self.table, 4)
        across.addLayout(left, 3)
        self.cards = {title: Card(session, title) for title in TITLES}
        self.columns = Columns(list(self.cards.values()))
        self.columns.setFixedWidth(276)
        across.addWidget(self.columns)
        session.selected.connect(self._follow)
        session.changed.connect(self._follow)
        session.case_changed.connect(self._follow)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _first(self, one: Access) -> str:
        names = {t.id: t.name for t in self.session.build.stow.things}
        return ", ".join(lower_first(names.get(id, id)) for id in one.first)

    def _mode(self) -> Mode:
        return self.session.mode

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        return reach_plan(s, self._mode(), self.session.selection, Words(self.session.shown), width, height)

    def _picked(self) -> None:
        at = self.table.marked()
        if not self._filling and at >= 0:
            self.session.select((self.model.rows[at].id,))

    def _follow(self) -> None:
        if self.isVisible():
            self.refresh()

    def _show_chosen(self) -> None:
        self._filling = True
        at = next((k for k, row in enumerate(self.model.rows) if row.id in self.session.selection), -1)
        self.table.mark(at)
        self._filling = False

    def refresh(self) -> None:
        build, facts, mode = self.session.build, self.session.project.facts, self._mode()
        self._filling = True
        made = accesses(build, facts, mode)
        self.model.set_rows(sorted(made, key=lambda one: (ORDER[one.how], one.name)), lambda a, b: a.id == b.id)
        self._filling = False
        self._show_chosen()
        changed = [
            self.cards["The cook"].show_lines(self._cook()),
            self.cards["Room for kit"].show_lines(self._litres()),
            self.cards["Boxes for the bays"].show_lines(self._boxes()),
            self.cards["Changing over"].show_lines(self._changes()),
        ]
        if any(changed):
            self.columns.settle()
        self.plan.update()

    def _cook(self) -> list[Said]:
        got, words = cook(self.session.build, self.session.project.facts, self._mode()), Words(self.session.shown)
        if got.stands is None:
            return [Said("none", words.told(f"Not said: {got.why}."))]
        lines = [Said("none", f"Stands {'on ' if got.where == 'the floor' else ''}{got.where}; {words.m(COOK_M)} is in reach.")]
        return lines + [Said("good" if one.good else "mind", f"{one.name}: {words.m(one.far_m)}", (one.id,)) for one in got.things[:7]]

    def _litres(self) -> list[Said]:
        words = Words(self.session.shown)
        sums = litres_by_reach(self.session.build, self.session.project.facts, self._mode())
        if not any(sums.values()):
            return [Said("none", "No kit or gear is aboard.")]
        return [
            Said("none" if how != "out of reach" else "mind", f"{show(sums[how] / 1000, 'volume', words.shown.volume, 0)} {how}")
            for how in HOWS
            if sums[how] > 0
        ]

    def _boxes(self) -> list[Said]:
        words = Words(self.session.shown)
        names = {t.id: t.name for t in self.session.build.stow.things}
        lines = []
        for one in bays_hold(self.session.build, self.session.project.facts):
            size = " × ".join(words.cut(v) for v in one.size_m)
            fits = ", ".join(f"{many * one.many} × {name}" for name, many in one.boxes) or "none of those that are sold"
            lines.append(
                Said("none" if one.boxes else "mind", f"{names[one.cabinet]}, bay {one.bay}: {one.many} of {size}: {fits}", (one.cabinet,))
            )
        return lines[:9] or [Said("none", "No cabinet is made of boards yet (Built).")]

    def _changes(self) -> list[Said]:
        build, mode = self.session.build, self._mode()
        other = next((m for m in build.stow.modes if m.towing != mode.towing), None)
        if other is None:
            return [Said("none", "There is one mode only.")]
        a, b = (other, mode) if other.towing else (mode, other)
        made = conversion(build, a, b)
        if not made.changes:
            return [Said("none", f"Nothing changes from {a.name.lower()} to {b.name.lower()}.")]
        names = {t.id: lower_first(t.name) for t in build.stow.things}
        time = (
            f"{made.minutes} {'minute' if made.minutes == 1 else 'minutes'}, {made.hands or 1} {'person' if (made.hands or 1) == 1 else 'people'}"
            if made.minutes is not None
            else f"time not said of {made.unsaid} (In hand, Forms)"
        )
        lines = [Said("none", f"{a.name} to {b.name}: {time}.")]
        for one in made.changes[:8]:
            first = f"; first: {', '.join(names[id] for id in one.first)}" if one.first else ""
            shared = f", {one.overlap * 100:.0f} % in the same place" if 0.005 < one.overlap < 0.995 else ""
            lines.append(Said("mind" if one.blocked else "none", f"{one.name}: {one.state}{shared}{first}", (one.id, *one.first)))
        return lines
