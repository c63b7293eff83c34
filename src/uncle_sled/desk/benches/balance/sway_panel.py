"""Sway: how fast before it wags, the swing after a gust to be stepped and paused, what each mass costs, what would help."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QSignalBlocker, Qt, QTimer
from PySide6.QtWidgets import QSlider

from uncle_sled.core.drawing.balance.sway_drawn import critical_words, sway_chart, swing_plan, trace_chart
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.engine import keep
from uncle_sled.core.reading.studied import Studied, tail_m
from uncle_sled.core.studies.balance.sway import (
    CAUTION,
    GOOD,
    LEFT_OUT,
    Cost,
    Swaying,
    Trace,
    WhatIf,
    costs,
    gust_n,
    settles_s,
    sway,
    trace,
    tyre_band,
    what_ifs,
)
from uncle_sled.desk.benches.balance.limits_and_driving import TRY_TIP, try_edit, worst_row
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Drawing, Listed, Own, Says, note
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session

TICK_MS, STEPS_A_TICK = 40, 2
MOST_COSTS = 12


@keep("s.readings", "s.table", "s.build.brief", "s.build.rig", "s.build.shell", "s.facts", "row", most=4)
def _swing(s: Studied, row: int) -> tuple[Swaying, Trace, tuple[float, float]] | None:
    """The case of a row, what a gust does to it at the speed asked, and its damping over untested tyres."""
    made = sway(s)
    swaying = next((c for c in made.cases if c.case_id == s.table.cases[row].id), None) if s.table.cases else None
    if swaying is None:
        return None
    body = s.framed.body
    force, at = (gust_n(body.side.area_m2), float(body.side.centroid[0])) if body is not None else (None, 0.0)
    return swaying, trace(swaying.train, made.at_kmh, force, at), tyre_band(swaying.train, made.at_kmh)


class SwayPanel(Panel):
    at = 0

    def laid(self) -> Group:
        there = lambda: self.swing() is not None
        what_if: tuple[Column[WhatIf], ...] = (
            Column("What if", lambda what_if: what_if.says),
            Column(
                "Damping",
                lambda what_if: f"{what_if.damping:.2f}",
                right=True,
                ink=lambda what_if: "primer" if what_if.damping < GOOD else "",
            ),
            Column(
                "Grows from",
                lambda what_if: self.words.kmh(what_if.critical_kmh) if what_if.critical_kmh else "none",
                right=True,
                tip="The speed from which swings grow; none: not up to the fastest that is looked at, which makes no speed safe",
            ),
        )
        cost: tuple[Column[Cost], ...] = (
            Column("Costs most", lambda cost: cost.name),
            Column("Weighs", lambda cost: self.words.kg(cost.kg), right=True, sort=lambda cost: cost.kg),
            Column(
                "Behind",
                lambda cost: self.words.m(cost.behind_axle_m),
                right=True,
                sort=lambda cost: cost.behind_axle_m,
                tip="Behind the axle; less than nothing: ahead of it",
            ),
            Column(
                "Gain",
                lambda cost: f"{cost.gain:+.3f}",
                right=True,
                sort=lambda cost: cost.gain,
                tip="What damping gains when it is taken out",
            ),
        )
        self.ifs = self.put(
            Listed[WhatIf](
                "What would change it", what_if, self._ifs, lambda what_if: what_if.says, lambda _: self._may(), when=there, share=1
            )
        )
        self.try_button = self.put(Act("Try it", TRY_TIP, self.try_it, plain=True, when=there))
        self.table = self.put(
            Listed[Cost]("What each mass costs of the damping", cost, self._costs, lambda cost: cost.id, self._picked, when=there, share=2)
        )
        self.plan = self.put(Drawing("Car and trailer from above after a gust", self._plan, when=there, share=4))
        self.trace = self.put(Drawing("The bend at the ball after a gust", self._trace, when=there, share=3))
        self.play = self.put(Act("Play", "Let the swing run, as fast as it would", self.toggle, plain=True, when=there))
        self.slider = self.put(Own(self._moment, when=there, share=1))
        step = Act("Step", "A tenth of a second on", lambda: self.show_at(self.at + 5), plain=True, when=there)
        self.curve = self.put(Drawing("Damping of the swing over the speed, a line a case", self._curve, "", self._why, share=3))
        return rows(
            Says(self._told),
            across(self.curve, rows(self.ifs, self.try_button, gap=4, share=2), gap=8, share=6),
            across(rows(self.plan, self.trace, across(self.play, step, self.slider), gap=4, share=3), self.table, gap=8, share=5),
            note(f"{LEFT_OUT} {CAUTION}"),
            gap=5,
        )

    def _moment(self) -> QSlider:
        made = QSlider(Qt.Orientation.Horizontal)
        made.setAccessibleName("Moment of the swing")
        made.setToolTip("The moment that is drawn")
        made.valueChanged.connect(self.show_at)
        return made

    def _ifs(self) -> Sequence[WhatIf]:
        return what_ifs(self.studied, self._row()) if self.swing() is not None else ()

    def _costs(self) -> Sequence[Cost]:
        return costs(self.studied, self._row())[:MOST_COSTS] if self.swing() is not None else ()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.timer = QTimer(self)
        self.timer.setInterval(TICK_MS)
        self.timer.timeout.connect(self.tick)

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
        return sway_chart(sway(s), chosen, self.words, width, height)

    def _plan(self, width: float, height: float) -> tuple[Primitive, ...]:
        got, s = self.swing(), self.session.studied
        if got is None:
            return ()
        tail = max(tail_m(s.build) or 0.0, got[0].train.l + 0.5)
        return swing_plan(got[0].train, got[1], self.at, tail, self.words, width, height)

    def _trace(self, width: float, height: float) -> tuple[Primitive, ...]:
        got = self.swing()
        return trace_chart(got[1], self.at, self.words, width, height) if got is not None else ()

    # what is tried
    def what_if(self) -> WhatIf | None:
        return self.ifs.row()

    def _may(self) -> None:
        what_if = self.what_if()
        self.try_button.setEnabled(what_if is not None and bool(what_if.ops))

    def try_it(self) -> None:
        what_if = self.what_if()
        if what_if is not None and what_if.ops:
            try_edit(self.session, what_if.says, what_if.ops)

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

    def tick(self) -> None:
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
        with QSignalBlocker(self.slider):
            self.slider.setRange(0, max(last, 0))
            self.slider.setValue(self.at)
        self.plan.update()
        self.trace.update()

    def _picked(self, cost: Cost) -> None:
        self.session.select((cost.id.split("/")[0],))

    def refreshed(self) -> None:
        self._may()
        self.show_at(self.at)

    def _told(self) -> str:
        got, words = self.swing(), self.words
        if got is None:
            return ""
        swaying, bent, (low, high) = got
        made = sway(self.session.studied)
        whose = "" if made.said else " (the fastest speed is not said, Brief)"
        settles = settles_s(bent)
        told = f"{swaying.name} at {words.kmh(made.at_kmh)}{whose}: damping {swaying.damping_at:.2f}, by the tyres {low:.2f} to {high:.2f}; {critical_words(swaying, words)}."
        if swaying.oversteer_kmh is not None:
            told += f" The car itself turns away from {words.kmh(swaying.oversteer_kmh)}."
        return told + (
            f" After the gust it is still in {settles:.1f} s." if settles is not None else " After the gust it does not come to rest."
        )
