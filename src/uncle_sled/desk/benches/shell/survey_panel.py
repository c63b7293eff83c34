"""The survey of what was bought: fields for the tape, and the plan drawn with what is off."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.surveying import survey_ops
from uncle_sled.core.drawing.shell.survey_plan import survey_plan
from uncle_sled.core.studies.shell.survey import planned_on_old, surveyed_of
from uncle_sled.core.words import upper_first
from uncle_sled.desk.kit.form import Row
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Cards, Drawing, Fields, Says

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


class SurveyPanel(Panel):
    def laid(self) -> Group:
        cards = (
            Fields("Is it square?", [self._row(size) for size in SIZES], "Shell"),
            Fields("Posts and bows", [self._row(post) for post in POSTS], "Shell"),
            Fields("Its state", [self._row(one) for one in ("date", *STATES, "tyre_date", "toe_front", "toe_rear")], "Shell"),
        )
        plan = Drawing(
            "The survey from above",
            lambda w, h: survey_plan(self.studied, self.words, w, h),
            empty="There is no body to survey yet: take a form and its sizes on Profile.",
            share=1,
        )
        return across(Cards(cards, share=3), rows(plan, Says(self._told, face="small", hides=True, joined=" "), share=2), gap=8)

    def _row(self, field: str) -> Row:
        return Row(f"shell.survey.{field}", ops=self._write(field), read=self._read(field))

    def _write(self, field: str) -> Callable[[Any], list[Op]]:
        return lambda value: survey_ops(self.session.build.shell, field, value)

    @staticmethod
    def _read(field: str) -> Callable[[Any], Any]:
        empty = "" if field in ("date", "tyre_date", *STATES) else None
        return lambda build: getattr(build.shell.survey, field) if build.shell.survey is not None else empty

    def _told(self) -> list[str]:
        words, build = self.words, self.session.build
        found = surveyed_of(build.shell, words)
        told = []
        if found is not None and found.bow_radius_m is not None and found.bow_arc_m is not None:
            told.append(f"Bows: radius {words.m(found.bow_radius_m)}, {words.cut(found.bow_arc_m)} along the curve.")
        planned = planned_on_old(build, words)
        if planned:
            told.append(f"Planned on the old size: {upper_first('; '.join(each_planned.says for each_planned in planned))}.")
        return told
