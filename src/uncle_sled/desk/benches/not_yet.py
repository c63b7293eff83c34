"""A stop that does not exist yet says in one honest line what it will add."""

from __future__ import annotations

from uncle_sled.core.trail import STOPS
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session


class NotYet(Bench):
    strip = True

    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.end_top("not built yet")
        says = label(next(each_stop.will for each_stop in STOPS if each_stop.name == stop), wrap=True)
        says.setMaximumWidth(560)
        self.rows.addSpacing(20)
        self.rows.addWidget(says)
        self.rows.addStretch(1)
