"""The survey of what was bought: fields for the tape, and the plan drawn with what is off."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op
from uncle_sled.core.document.quantity import Length
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

Choices = list[tuple[object, str]]
NOT_SAID = ("", "not looked at")
SIZES = (
    ("length", "Length", "Outside, along the floor; it takes the place of the planned one"),
    ("width_front", "Width, front", "Outside, at the nose"),
    ("width_middle", "Width, middle", "Outside, half way; this one takes the place of the planned one"),
    ("width_rear", "Width, rear", "Outside, at the tail"),
    ("diagonal_left", "From left front", "Diagonal from the left front corner to the right rear one"),
    ("diagonal_right", "From right front", "Diagonal from the right front corner to the left rear one"),
    ("left_front", "Left front", "Height of this corner over one level, say a water hose"),
    ("right_front", "Right front", "Height of this corner over the same level"),
    ("left_rear", "Left rear", "Height of this corner over the same level"),
    ("right_rear", "Right rear", "Height of this corner over the same level"),
)
POSTS = (
    ("post_first", "First post", "From the body's front to the middle of the first post behind the corner"),
    ("post_pitch", "Post to post", "Middle to middle, as the maker set them"),
    ("post_width", "Post wide", "As it shows in the wall"),
    ("post_depth", "Post deep", "Through the wall; so thick may the foam be"),
    ("bow_first", "First bow", "From the body's front to the middle of the first roof bow"),
    ("bow_pitch", "Bow to bow", "Middle to middle"),
    ("bow_depth", "Bow deep", "Through the roof"),
    ("bow_crown", "Crown", "How much higher the roof is in the middle than at its sides"),
    ("floor", "Floor", "Its thickness, through a screw hole"),
)
STATES: tuple[tuple[str, str, str, Choices], ...] = (
    ("floor_state", "Floor is", "Push a knife into it along the walls", [NOT_SAID, ("sound", "sound"), ("soft", "soft"), ("rotten", "rotten")]),
    ("rust", "Rust", "At the hangers, the cross-members, the coupler", [NOT_SAID, ("none", "none"), ("on the surface", "on the surface"), ("through", "through")]),
    ("bearings", "Bearings", "Spin each wheel, rock it top and bottom", [NOT_SAID, ("sound", "sound"), ("worn", "worn")]),
    ("papers", "Papers", "Title, plate, number on the frame: all three the same", [NOT_SAID, ("there", "there"), ("missing", "missing")]),
)  # fmt: skip


class SurveyPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.forms = [
            Form(session, "Is it square?", [self._row(*one) for one in SIZES], "Shell"),
            Form(session, "Posts and bows", [self._row(*one) for one in POSTS], "Shell"),
            Form(
                session,
                "Its state",
                [
                    Row("Looked at on", "shell.survey.date", str, "Year, month, day: 2026-05-31", ops=self._write("date"), read=self._read("date")),
                    *(Row(title, f"shell.survey.{key}", choices, tip, ops=self._write(key), read=self._read(key)) for key, title, tip, choices in STATES),
                    Row("Tyres made", "shell.survey.tyre_date", str, "Week and year on the sidewall, such as 2319", ops=self._write("tyre_date"), read=self._read("tyre_date")),
                    self._row("toe_front", "Toe, ahead", "Between the tyres at axle height, ahead of the axle, by a string"),
                    self._row("toe_rear", "Toe, behind", "The same behind the axle"),
                ],
                "Shell",
            ),
        ]  # fmt: skip
        self.columns = Columns(list[QWidget](self.forms))
        self.plan = Chart(session, "The survey from above", lambda w, h: survey_plan(session.studied, Words(session.shown), w, h), empty=lambda: "There is no body to survey yet: take a form and its sizes on Profile.")  # fmt: skip
        self.says = label("", "small", wrap=True)
        right = QVBoxLayout()
        right.addWidget(self.plan, 1)
        right.addWidget(self.says)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(self.columns, 3)
        row.addLayout(right, 2)

    def _row(self, field: str, title: str, tip: str) -> Row:
        return Row(title, f"shell.survey.{field}", Length, tip, 0.0, ops=self._write(field), read=self._read(field))

    def _write(self, field: str) -> Callable[[Any], list[Op]]:
        return lambda value: survey_ops(self.session.build.shell, field, value)

    @staticmethod
    def _read(field: str) -> Callable[[Any], Any]:
        empty = "" if field in ("date", "tyre_date", *(key for key, *_ in STATES)) else None
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
