"""How far the reading can be trusted, and what to weigh first."""

from __future__ import annotations

from uncle_sled.core.drawing.balance import balance_bars
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.balance.sureness import doubt_of_all_weighed_kg, load_kg, load_sigma_kg, owners
from uncle_sled.desk.benches.balance.limits_and_driving import worst_row
from uncle_sled.desk.kit.panel import Group, Panel, rows
from uncle_sled.desk.kit.parts import Drawing, Says

MOST_OWNERS = 6


class SurePanel(Panel):
    def laid(self) -> Group:
        return rows(
            Drawing("Every case with its doubt", self._cases, self._title, "There is no reading yet to be sure of.", share=3),
            Drawing("What owns the doubt", self._owner_shapes, "Weigh these first", "Nothing stands out.", share=2),
            Says(self._told),
        )

    def _title(self) -> str:
        bed = self.studied.build.rig.carrier == "vehicle bed"
        return "The rear axle, give or take" if bed else "The ball, give or take"

    def _cases(self, width: float, height: float) -> tuple[Primitive, ...]:
        return balance_bars.sure_bars(self.studied, worst_row(self.session), self.words, width, height)

    def _told(self) -> str:
        s, row, words = self.studied, worst_row(self.session), self.words
        found = owners(s, row, MOST_OWNERS) if s.towing_rows else ()
        if not found:
            return ""
        sigma, load = float(load_sigma_kg(s)[row]), float(load_kg(s)[row])
        left = doubt_of_all_weighed_kg(s, row, found)
        where = "rear axle " if s.build.rig.carrier == "vehicle bed" else ""
        return f"{s.table.cases[row].name}: {where}{words.kg(load)} give or take {words.fine_kg(sigma)} (one sigma). With all of these weighed {words.fine_kg(left)} would be left: places and the rest."

    def _owner_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, row = self.session.studied, worst_row(self.session)
        found = owners(s, row, MOST_OWNERS) if s.towing_rows else ()
        return balance_bars.owner_bars(found, float(load_sigma_kg(s)[row]), self.words, width, height) if found else ()
