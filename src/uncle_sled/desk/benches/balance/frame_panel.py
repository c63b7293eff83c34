"""Frame: what the rails feel under the trailer as it is, in every case and way; and which section would do."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.drawing.balance.frame_drawn import frame_drawn
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.studies.balance.frame_beam import CAUTION, HOWS, LABEL, LEFT_OUT, ROAD, Beam, Choice, FrameUnder, choices, frame_under
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.benches.balance.panels import try_edit, worst_row
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

WAYS: list[tuple[object, str]] = [("worst", "the worst of all"), *((how, LABEL[how]) for how in HOWS)]
SIDE_PX = 344


class FramePanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.how: str = "worst"
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(5)
        top = QHBoxLayout()
        self.ways = ChoiceField("How it stands", WAYS)
        self.ways.setMinimumContentsLength(20)
        self.ways.setToolTip("On the road in the case that is shown, parked or lifted; or whichever is worst")
        self.ways.entered.connect(lambda value: self.show_how(str(value)))
        top.addWidget(self.ways)
        self.says = label("", "", "ink", wrap=True)
        top.addWidget(self.says, 1)
        rows.addLayout(top)
        across = QHBoxLayout()
        across.setSpacing(8)
        self.chart = Chart(session, "Shear, moment, stress and sinking of the rails", self._shapes, "", self._why)
        self.chart.setMinimumWidth(220)
        across.addWidget(self.chart, 1)
        self.side = QWidget()
        side = QVBoxLayout(self.side)
        side.setContentsMargins(0, 0, 0, 0)
        side.setSpacing(5)
        self.model = TableModel[Choice](
            (
                Column("Rails of", lambda one: one.section.says(session.shown)),
                Column(
                    "More",
                    lambda one: self._words().kg(one.more_kg),
                    right=True,
                    sort=lambda one: one.more_kg,
                    tip="What the frame would weigh more",
                ),
                Column(
                    "Ball",
                    lambda one: self._words().kg(one.ball_kg),
                    right=True,
                    sort=lambda one: one.ball_kg,
                    tip="What it puts on the ball",
                ),
                Column(
                    "Yield",
                    lambda one: f"{one.utilisation * 100:.0f} %",
                    right=True,
                    sort=lambda one: one.utilisation,
                    ink=lambda one: "primer" if one.utilisation > 1 else "",
                ),
                Column(
                    "Sinks",
                    lambda one: self._sinks(one),
                    right=True,
                    sort=lambda one: one.sinks_m,
                    ink=lambda one: "ochre word" if one.sinks_m > one.sinks_limit_m else "",
                ),
            )
        )
        self.table = Table(self.model, "Sections for the rails, lightest first")
        side.addWidget(self.table, 1)
        self.try_button = QPushButton("Try this section")
        self.try_button.setToolTip("See the ball and every limit with it before you keep it")
        self.try_button.clicked.connect(lambda _=False: self.try_section())
        side.addWidget(self.try_button)
        self.side.setFixedWidth(SIDE_PX)
        across.addWidget(self.side)
        rows.addLayout(across, 1)
        rows.addWidget(label(f"{LEFT_OUT} On the road {ROAD:g} times the static load. {CAUTION}", "small", "pencil", wrap=True))

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _sinks(self, one: Choice) -> str:
        return (
            self._words().thick(round(one.sinks_m, 3))
            if one.sinks_m < 0.1
            else "over 0.1 m"
            if not self.session.shown.imperial
            else 'over 4"'
        )

    def made(self) -> FrameUnder:
        return frame_under(self.session.studied)

    def beam(self) -> Beam | None:
        made = self.made()
        if self.how == "worst" or not made.beams:
            return made.worst
        if self.how == "road":
            s = self.session.studied
            id = s.table.cases[worst_row(self.session)].id
            return next((one for one in made.beams if one.how == "road" and one.case_id == id), made.worst)
        return next((one for one in made.beams if one.how == self.how), None)

    def show_how(self, how: str) -> None:
        self.how = how
        self.refresh()

    def try_section(self) -> None:
        at = self.table.marked()
        if at >= 0:
            section = self.model.rows[at].section
            try_edit(self.session, f"Rails of {section.says(self.session.shown)}", (set_to("rig.rail", section.id),))

    def _why(self) -> str:
        made = self.made()
        if made.why:
            return f"It cannot be answered because {made.why}."
        return "It cannot stand so: the jack's place is not said (Rig)."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        one, made = self.beam(), self.made()
        return frame_drawn(self.session.studied, made, one, self._words(), width, height) if one is not None else ()

    def refresh(self) -> None:
        made = self.made()
        inches = self.session.build.brief.region == "North American"
        rows = [one for one in choices(self.session.studied) if one.section.inches == inches]
        self.model.set_rows(rows, lambda a, b: a.section.id == b.section.id)
        at = next((k for k, one in enumerate(rows) if made.rail is not None and one.section.id == made.rail.id), -1)
        if at >= 0 and self.table.marked() < 0:
            self.table.selectRow(at)
        self.side.setVisible(not made.why)
        self.ways.setVisible(not made.why)
        self.ways.show_value(self.how)
        self.says.setText(self._told())
        self.chart.update()

    def _told(self) -> str:
        made, one, words = self.made(), self.beam(), self._words()
        if one is None or made.rail is None:
            return ""
        use = one.worst_pa / made.yield_pa * 100
        weld = " beside a weld" if made.rail.metal == "aluminium" else ""
        return (
            f"{one.name}, {LABEL[one.how]}: {use:.0f} % of yield{weld}, {words.m(one.worst_m)} behind the ball; "
            f"drawbar's foot {one.tongue_pa / made.yield_pa * 100:.0f} %; sinks {words.thick(one.sinks_most_m)} of {words.thick(one.sinks_limit_m)}. "
            f"Rails: {lower_first(made.rail.says(self.session.shown))}."
        )
