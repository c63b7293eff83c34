"""How far the reading can be trusted, and what to weigh first."""

from __future__ import annotations

from PySide6.QtWidgets import QVBoxLayout, QWidget

from uncle_sled.core.drawing.balance import bars
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.balance.sureness import doubt_of_all_weighed_kg, load_kg, load_sigma_kg, owners
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.balance.panels import worst_row
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

MOST_OWNERS = 6


class SurePanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        self.sure_chart = Chart(
            self.session,
            "Every case with its doubt",
            lambda w, h: bars.sure_bars(self.session.studied, worst_row(self.session), self.words, w, h),
            "Give or take",
            lambda: "There is no reading yet to be sure of.",
        )
        self.owner_chart = Chart(
            self.session, "What owns the doubt", self._owner_shapes, "Weigh these first", lambda: "Nothing stands out."
        )
        rows.addWidget(self.sure_chart, 3)
        rows.addWidget(self.owner_chart, 2)
        self.sure_says = label("", wrap=True)
        rows.addWidget(self.sure_says)

    @property
    def words(self) -> Words:
        return Words(self.session.shown)

    def _owner_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, row = self.session.studied, worst_row(self.session)
        found = owners(s, row, MOST_OWNERS) if s.towing_rows else ()
        return bars.owner_bars(found, float(load_sigma_kg(s)[row]), self.words, width, height) if found else ()

    def refresh(self) -> None:
        s, row, words = self.session.studied, worst_row(self.session), self.words
        bed = s.build.rig.carrier == "vehicle bed"
        self.sure_chart.title = "The rear axle, give or take" if bed else "The ball, give or take"
        self.sure_chart.update()
        self.owner_chart.update()
        found = owners(s, row, MOST_OWNERS) if s.towing_rows else ()
        if not found:
            self.sure_says.setText("")
            return
        sigma, load = float(load_sigma_kg(s)[row]), float(load_kg(s)[row])
        left = doubt_of_all_weighed_kg(s, row, found)
        where = "rear axle " if bed else ""
        self.sure_says.setText(
            f"{s.table.cases[row].name}: {where}{words.kg(load)} give or take {words.fine_kg(sigma)} (one sigma). With all of these weighed {words.fine_kg(left)} would be left: places and the rest."
        )
