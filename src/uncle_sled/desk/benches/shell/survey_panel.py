"""The survey of what was bought: fields for the tape, and the plan drawn with what is off."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.surveying import survey_ops
from uncle_sled.core.drawing.shell.survey_plan import survey_plan
from uncle_sled.core.studies.shell.survey import planned_on_old, surveyed_of
from uncle_sled.core.words import Words, upper_first
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

SIZES = (
    "length",
    "width_front",
    "width_middle",
    "width_rear",
    "diagonal_left",
    "diagonal_right",
    "left_front",
    "right_front",
    "left_rear",
    "right_rear",
)
POSTS = ("post_first", "post_pitch", "post_width", "post_depth", "bow_first", "bow_pitch", "bow_depth", "bow_crown", "floor")
STATES = ("floor_state", "rust", "bearings", "papers")


class SurveyPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.forms = [
            Form(session, "Is it square?", [self._row(one) for one in SIZES], "Shell"),
            Form(session, "Posts and bows", [self._row(one) for one in POSTS], "Shell"),
            Form(session, "Its state", [*(self._row(one) for one in ("date", *STATES, "tyre_date", "toe_front", "toe_rear"))], "Shell"),
        ]
        self.columns = Columns(list[QWidget](self.forms))
        self.plan = Chart(
            session,
            "The survey from above",
            lambda w, h: survey_plan(session.studied, Words(session.shown), w, h),
            empty=lambda: "There is no body to survey yet: take a form and its sizes on Profile.",
        )
        self.says = label("", "small", wrap=True)
        right = QVBoxLayout()
        right.addWidget(self.plan, 1)
        right.addWidget(self.says)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(self.columns, 3)
        row.addLayout(right, 2)

    def _row(self, field: str) -> Row:
        return Row(f"shell.survey.{field}", ops=self._write(field), read=self._read(field))

    def _write(self, field: str) -> Callable[[Any], list[Op]]:
        return lambda value: survey_ops(self.session.build.shell, field, value)

    @staticmethod
    def _read(field: str) -> Callable[[Any], Any]:
        empty = "" if field in ("date", "tyre_date", *STATES) else None
        return lambda build: getattr(build.shell.survey, field) if build.shell.survey is not None else empty

    def refresh(self) -> None:
        for form in self.forms:
            form.refresh()
        self.columns.settle()
        words, build = Words(self.session.shown), self.session.build
        found = surveyed_of(build.shell, words)
        told = []
        if found is not None and found.bow_radius_m is not None and found.bow_arc_m is not None:
            told.append(f"Bows: radius {words.m(found.bow_radius_m)}, {words.cut(found.bow_arc_m)} along the curve.")
        planned = planned_on_old(build, words)
        if planned:
            told.append(f"Planned on the old size: {upper_first('; '.join(one.says for one in planned))}.")
        self.says.setText(" ".join(told))
        self.says.setVisible(bool(told))
        self.plan.update()
