"""Sway: how fast before it wags, the swing after a gust to be stepped and paused, what each mass costs, what would help."""

from __future__ import annotations

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSlider, QVBoxLayout, QWidget

from uncle_sled.core.drawing.balance.sway_drawn import critical_words, sway_chart, swing_plan, trace_chart
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.engine import keep_by
from uncle_sled.core.reading.studied import Studied, tail_m
from uncle_sled.core.studies.balance.sway import (
    CAUTION,
    GOOD,
    LEFT_OUT,
    STEP_S,
    Cost,
    Swaying,
    Trace,
    WhatIf,
    costs,
    gust_n,
    sway,
    trace,
    tyre_band,
    what_ifs,
)
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.balance.panels import try_edit, worst_row
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

TICK_MS, STEPS_A_TICK = 40, 2
MOST_COSTS = 12


@keep_by(lambda s, row: (s.readings, s.table, s.build.brief, s.build.rig, s.build.shell, s.facts, row), 4)
def _swing(s: Studied, row: int) -> tuple[Swaying, Trace, tuple[float, float]] | None:
    """The case of a row, what a gust does to it at the speed asked, and its damping over untested tyres."""
    made = sway(s)
    one = next((c for c in made.cases if c.case_id == s.table.cases[row].id), None) if s.table.cases else None
    if one is None:
        return None
    body = s.framed.body
    force, at = (gust_n(body.side.area_m2), float(body.side.centroid[0])) if body is not None else (None, 0.0)
    return one, trace(one.train, made.at_kmh, force, at), tyre_band(one.train, made.at_kmh)


class SwayPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.at = 0
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(5)
        self.says = label("", "", "ink", wrap=True)
        rows.addWidget(self.says)
        top = QHBoxLayout()
        top.setSpacing(8)
        self.curve = Chart(session, "Damping of the swing over the speed, a line a case", self._curve, "", self._why)
        top.addWidget(self.curve, 3)
        self.if_model = TableModel[WhatIf](
            (
                Column("What if", lambda one: one.says),
                Column("Damping", lambda one: f"{one.damping:.2f}", right=True, ink=lambda one: "primer" if one.damping < GOOD else ""),
                Column(
                    "Grows from",
                    lambda one: self._words().kmh(one.critical_kmh) if one.critical_kmh else "none",
                    right=True,
                    tip="The speed from which swings grow; none: not up to the fastest that is looked at, which makes no speed safe",
                ),
            )
        )
        self.ifs = Table(self.if_model, "What would change it")
        self.ifs.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        beside = QVBoxLayout()
        beside.setSpacing(4)
        beside.addWidget(self.ifs, 1)
        self.try_button = QPushButton("Try it")
        self.try_button.setToolTip("See the ball and every limit with it before you keep it")
        self.try_button.clicked.connect(lambda _=False: self.try_it())
        beside.addWidget(self.try_button)
        self.ifs.selectionModel().selectionChanged.connect(lambda *_: self._may())
        top.addLayout(beside, 2)
        rows.addLayout(top, 6)
        under = QHBoxLayout()
        under.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(4)
        self.plan = Chart(session, "Car and trailer from above after a gust", self._plan, "", lambda: "")
        left.addWidget(self.plan, 4)
        self.trace = Chart(session, "The bend at the ball after a gust", self._trace, "", lambda: "")
        left.addWidget(self.trace, 3)
        bar = QHBoxLayout()
        self.play = QPushButton("Play")
        self.play.setToolTip("Let the swing run, as fast as it would")
        self.play.clicked.connect(lambda _=False: self.toggle())
        self.step = QPushButton("Step")
        self.step.setToolTip("A tenth of a second on")
        self.step.clicked.connect(lambda _=False: self.show_at(self.at + 5))
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setAccessibleName("Moment of the swing")
        self.slider.setToolTip("The moment that is drawn")
        self.slider.valueChanged.connect(self.show_at)
        for widget in (self.play, self.step):
            bar.addWidget(widget)
        bar.addWidget(self.slider, 1)
        left.addLayout(bar)
        under.addLayout(left, 3)
        self.cost_model = TableModel[Cost](
            (
                Column("Costs most", lambda one: one.name),
                Column("Weighs", lambda one: self._words().kg(one.kg), right=True, sort=lambda one: one.kg),
                Column(
                    "Behind",
                    lambda one: self._words().m(one.behind_axle_m),
                    right=True,
                    sort=lambda one: one.behind_axle_m,
                    tip="Behind the axle; less than nothing: ahead of it",
                ),
                Column(
                    "Gain",
                    lambda one: f"{one.gain:+.3f}",
                    right=True,
                    sort=lambda one: one.gain,
                    tip="What damping gains when it is taken out",
                ),
            )
        )
        self.table = Table(self.cost_model, "What each mass costs of the damping")
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.table.selectionModel().selectionChanged.connect(lambda *_: self._picked())
        under.addWidget(self.table, 2)
        rows.addLayout(under, 5)
        rows.addWidget(label(f"{LEFT_OUT} {CAUTION}", "small", "pencil", wrap=True))
        self.timer = QTimer(self)
        self.timer.setInterval(TICK_MS)
        self.timer.timeout.connect(self._tick)

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _row(self) -> int:
        return worst_row(self.session)

    def swing(self) -> tuple[Swaying, Trace, tuple[float, float]] | None:
        s = self.session.studied
        return _swing(s, self._row()) if s.table.cases else None

    def _why(self) -> str:
        return f"It cannot be answered because {sway(self.session.studied).why}."

    # drawings
    def _curve(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        chosen = s.table.cases[self._row()].id if s.table.cases else ""
        return sway_chart(sway(s), chosen, self._words(), width, height)

    def _plan(self, width: float, height: float) -> tuple[Primitive, ...]:
        got, s = self.swing(), self.session.studied
        if got is None:
            return ()
        tail = max(tail_m(s.build) or 0.0, got[0].train.l + 0.5)
        return swing_plan(got[0].train, got[1], self.at, tail, self._words(), width, height)

    def _trace(self, width: float, height: float) -> tuple[Primitive, ...]:
        got = self.swing()
        return trace_chart(got[1], self.at, self._words(), width, height) if got is not None else ()

    # what is tried
    def what_if(self) -> WhatIf | None:
        at = self.ifs.marked()
        return self.if_model.rows[at] if at >= 0 else None

    def _may(self) -> None:
        one = self.what_if()
        self.try_button.setEnabled(one is not None and bool(one.ops))

    def try_it(self) -> None:
        one = self.what_if()
        if one is not None and one.ops:
            try_edit(self.session, one.says, one.ops)

    # the moment
    def toggle(self) -> None:
        if self.timer.isActive():
            self.timer.stop()
        else:
            got = self.swing()
            if got is not None and self.at >= len(got[1].t_s) - 1:
                self.show_at(0)
            self.timer.start()
        self.play.setText("Pause" if self.timer.isActive() else "Play")

    def _tick(self) -> None:
        got = self.swing()
        if got is None or not self.isVisible() or self.at >= len(got[1].t_s) - 1:
            self.timer.stop()
            self.play.setText("Play")
            return
        self.show_at(self.at + STEPS_A_TICK)

    def show_at(self, at: int) -> None:
        """Draw another moment, in steps of 20 ms."""
        got = self.swing()
        last = len(got[1].t_s) - 1 if got is not None else 0
        self.at = min(max(at, 0), last)
        self.slider.blockSignals(True)
        self.slider.setRange(0, max(last, 0))
        self.slider.setValue(self.at)
        self.slider.blockSignals(False)
        self.plan.update()
        self.trace.update()

    def _picked(self) -> None:
        at = self.table.marked()
        if at >= 0:
            self.session.select((self.cost_model.rows[at].id.split("/")[0],))

    def refresh(self) -> None:
        s = self.session.studied
        got = self.swing()
        row = self._row() if s.table.cases else 0
        self.if_model.set_rows(what_ifs(s, row) if got is not None else (), lambda a, b: a.says == b.says)
        self._may()
        self.cost_model.set_rows(costs(s, row)[:MOST_COSTS] if got is not None else (), lambda a, b: a.id == b.id)
        for widget in (self.try_button, self.plan, self.trace, self.play, self.step, self.slider, self.ifs, self.table):
            widget.setVisible(got is not None)
        self.says.setText(self._told())
        self.show_at(self.at)
        self.curve.update()

    def _told(self) -> str:
        got, words = self.swing(), self._words()
        if got is None:
            return ""
        one, bent, (low, high) = got
        made = sway(self.session.studied)
        whose = "" if made.said else " (the fastest speed is not said, Brief)"
        settles = _settles_s(bent)
        told = f"{one.name} at {words.kmh(made.at_kmh)}{whose}: damping {one.damping_at:.2f}, by the tyres {low:.2f} to {high:.2f}; {critical_words(one, words)}."
        if one.oversteer_kmh is not None:
            told += f" The car itself turns away from {words.kmh(one.oversteer_kmh)}."
        return told + (
            f" After the gust it is still in {settles:.1f} s." if settles is not None else " After the gust it does not come to rest."
        )


def _settles_s(got: Trace) -> float | None:
    """When the bend stays under a tenth of its most [s]; None: not within the trace."""
    size = abs(got.bend_rad)
    most = float(size.max(initial=0.0))
    over = [k for k, value in enumerate(size.tolist()) if value > 0.1 * most]
    last = over[-1] if over else 0
    return None if last >= len(size) - 2 else last * STEP_S
