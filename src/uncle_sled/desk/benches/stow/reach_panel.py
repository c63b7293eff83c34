"""Reach: what has to be moved to get at each thing, the cook's place, litres by reach, boxes for every bay, changing over."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.reach_plan import reach_plan
from uncle_sled.core.findings.stow import reach_lines
from uncle_sled.core.studies.stow.reach import HOWS, Access, accesses
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.stow.verdict_card import Verdicts
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Cards, Drawing, Listed
from uncle_sled.desk.kit.table import Column

INKS = {"outside": "", "at once": "", "after moving": "ochre word", "out of reach": "primer"}
ORDER = {how: k for k, how in enumerate(reversed(HOWS))}


class ReachPanel(Panel):
    follows = ("selected", "changed", "case_changed")

    def laid(self) -> Group:
        columns: tuple[Column[Access], ...] = (
            Column("Thing", lambda access: access.name),
            Column("Got at", lambda access: access.how, ink=lambda access: INKS[access.how], sort=lambda access: ORDER[access.how]),
            Column("From", lambda access: access.through),
            Column(
                "In", lambda access: self.words.m(access.far_m) if access.far_m else "", right=True, sort=lambda access: access.far_m or 0.0
            ),
            Column("Moved first", self.first),
        )
        session = self.session
        self.table = self.put(
            Listed[Access](
                "How one gets at each thing",
                columns,
                self._accesses,
                lambda access: access.id,
                lambda access: session.select((access.id,)),
                lambda access: access.id in session.selection,
                turns=True,
                share=4,
            )
        )
        self.plan = self.put(
            Drawing("From above: who reaches what", self._shapes, "", "Nothing aboard yet: add things on Drawing.", share=3)
        )
        cards = (
            Verdicts("The cook", lambda: reach_lines.cook_lines(self.studied, session.mode, self.words)),
            Verdicts("Room for kit", lambda: reach_lines.litres_lines(self.studied, session.mode, self.words)),
            Verdicts("Boxes for the bays", lambda: reach_lines.boxes_lines(self.studied, self.words)),
            Verdicts("Changing over", lambda: reach_lines.changes_lines(self.studied, session.mode)),
        )
        return across(rows(self.plan, self.table, gap=5, share=3), Cards(cards, wide=276), gap=8)

    def _accesses(self) -> list[Access]:
        made = accesses(self.session.build, self.session.facts, self.session.mode)
        return sorted(made, key=lambda access: (ORDER[access.how], access.name))

    def first(self, access: Access) -> str:
        names = {t.id: t.name for t in self.session.build.stow.things}
        return ", ".join(lower_first(names.get(id, id)) for id in access.first)

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return reach_plan(self.studied, self.session.mode, self.session.selection, self.words, width, height)
