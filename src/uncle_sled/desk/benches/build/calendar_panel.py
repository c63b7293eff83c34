"""The working calendar: bars that are dragged, the chosen task beside it, and whose days they are."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from PySide6.QtCore import QPointF, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.edits import apply, set_to
from uncle_sled.core.drawing.build.day_strip import last_day
from uncle_sled.core.drawing.build.plan_chart import ROW, TOP, Scale, chart_high, day_of, day_pointer, day_words, plan_chart, rows_of
from uncle_sled.core.drawing.build.standing_words import there_words
from uncle_sled.core.drawing.pick import id_at
from uncle_sled.core.drawing.primitives import Primitive, rect
from uncle_sled.core.studies.build.days import parsed
from uncle_sled.core.studies.build.schedule import Schedule, best_schedule, schedule_of
from uncle_sled.core.studies.build.standing import on_day
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.benches.build.task_card import TaskCard
from uncle_sled.desk.benches.build.week_card import WeekCard
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.panel import Group, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Busy, Cards, DrawingOf, Fields, Own, Says, Scrolled
from uncle_sled.desk.kit.typed import day
from uncle_sled.desk.session import Session

SIDE_PX = 262
GHOST_MS = 90


class PlanChart(Chart):
    """``picked`` carries a task; ``dragged`` a task and how many days it was moved; ``dropped`` ends that."""

    picked = Signal(str)
    dragged = Signal(str, float)
    dropped = Signal()
    day_at = Signal(float)  # over the rows: the day that is looked at

    def __init__(self, *args: Any) -> None:
        super().__init__(*args)
        self.hand: tuple[str, QPointF] | None = None
        self.off = 0.0
        self.over = False
        self.per_day = 1.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        at = event.position()
        if at.y() < TOP:
            self.over = True
            self.day_at.emit(at.x())
            return
        id = id_at(self.make(float(self.width()), float(self.height())), (at.x(), self.height() - at.y()))
        self.picked.emit(id)
        self.hand, self.off = ((id, at) if id else None), 0.0

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.over:
            self.day_at.emit(event.position().x())
        if self.hand is not None:
            self.off = event.position().x() - self.hand[1].x()
            self.update()
            self.dragged.emit(self.hand[0], self.off / max(self.per_day, 1e-6))

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        self.over = False
        if self.hand is not None:
            self.hand, self.off = None, 0.0
            self.update()
            self.dropped.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.hand is not None:
            self.hand, self.off = None, 0.0
            self.dragged.emit("", 0.0)
        else:
            super().keyPressEvent(event)


class CalendarPanel(PanelOf[BuildBench]):
    tried: tuple[str, str] | None = None  # a task and the day that it would not begin before
    ghost: Schedule | None = None

    def laid(self) -> Group:
        tried = lambda: self.ghost is not None
        self.chart = self.put(
            DrawingOf("The working calendar", self._shapes, "", self._why, high=lambda: chart_high(self.bench.schedule()), kind=PlanChart)
        )
        self.chart.picked.connect(self.pick)
        self.chart.dragged.connect(self._dragged)
        self.chart.dropped.connect(self._dropped)
        self.chart.day_at.connect(self._to_day)
        self.session.day_changed.connect(self._day_changed)
        self.roll = self.put(Scrolled(self.chart, share=1))
        plan = [
            Row("work.begin", ops=lambda text: [set_to("work.begin", day(text or ""))]),
            Row("work.deadline", ops=lambda text: [set_to("work.deadline", day(text or ""))]),
            Row("work.first_trip", ops=lambda text: [set_to("work.first_trip", day(text or ""))]),
            *plain("work", "hours_day first_timer shop"),
        ]
        self.task_card = self.put(Own(lambda: TaskCard(self.session, self.bench), TaskCard.refresh))
        week = Own(lambda: WeekCard(self.session), WeekCard.refresh)
        says = across(
            Says(self._told, share=1),
            Act("Keep", "Make it so (K)", self.keep, when=tried),
            Act("Give back", "Leave it as it was", self.give_back, when=tried),
        )
        side = Cards((self.task_card, Fields("The plan", plan, "Build", 88), week), wide=SIDE_PX)
        return across(rows(Busy(best_schedule), says, self.roll, share=1), side, gap=8)

    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__(session, bench)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(GHOST_MS)
        self._soon.timeout.connect(self._show_ghost)

    def _why(self) -> str:
        schedule = self.bench.schedule()
        if schedule.loop:
            names = " waits for ".join(self.bench.name_of(id) for id in schedule.loop)
            return f"Nothing can begin: {names}. Take one of the waits out."
        if schedule.never:
            return f"No day is found: {self.bench.name_of(schedule.never[0][0])}, {schedule.never[0][1]}."
        return "Nothing to do yet: draw a frame, a body or its layers, or add a task of your own (A)."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        schedule = self.bench.schedule()
        deadline = parsed(self.session.build.work.deadline)
        shapes = plan_chart(schedule, deadline, width, height, (self.bench.chosen,), self.ghost)
        if shapes:
            scale = Scale(schedule, deadline, width)
            self.chart.per_day = scale.per_day
            if self.session.day is not None:
                shapes = (*shapes, *day_pointer(scale, self.session.day, height))
            if self.chart.hand is not None and abs(self.chart.off) > 2:
                for k, placed in enumerate(rows_of(schedule)):
                    if placed.task.id == self.chart.hand[0]:
                        y = height - TOP - (k + 1) * ROW
                        long = max((placed.end - placed.begin) * scale.per_day, 3.0)
                        shapes = (
                            *shapes,
                            rect(
                                scale.x(placed.begin) + self.chart.off, y + 3, long, 14, stroke="chalk", fill="chalk", width=2.0, tint=0.3
                            ),
                        )
        return shapes

    def _to_day(self, x: float) -> None:
        """The day over which the hand stands; past the end the whole build again."""
        schedule = self.bench.schedule()
        if schedule.placed:
            day = max(Scale(schedule, parsed(self.session.build.work.deadline), float(self.chart.width())).day(x), 0.0)
            self.session.show_day(None if day >= last_day(schedule) else day)

    def _day_changed(self) -> None:
        if self.isVisible():
            self.refresh()

    # the hand
    def pick(self, id: str) -> None:
        if id and id != self.bench.chosen:
            self.bench.chosen = id
        elif not id:
            self.bench.chosen = ""
            self.tried, self.ghost = None, None
        self.refresh()

    def _dragged(self, id: str, days: float) -> None:
        if not id:
            self.give_back()
            return
        placed = self.bench.schedule().of(id)
        if placed is None or placed.task.done or abs(days) < 0.4:
            return
        when = self.bench.schedule().begin + timedelta(days=max(round(placed.days[0] + days), 0))
        self.tried = (id, when.isoformat())
        self._soon.start()

    def _dropped(self) -> None:
        if self.tried is not None:
            self._soon.stop()
            self._show_ghost()

    def _show_ghost(self) -> None:
        """What would follow, dashed, and in words."""
        if self.tried is None:
            return
        id, when = self.tried
        build = apply(self.session.build, [self.bench.change_op(id, not_before=when)])
        self.ghost = schedule_of(build, self.session.project.facts)
        self.refresh()

    def _told_ghost(self, id: str, when: str, after: Schedule) -> str:
        before = self.bench.schedule()
        moved = sum(1 for placed in after.placed if (old := before.of(placed.task.id)) is not None and abs(old.begin - placed.begin) > 0.2)
        ends = [
            schedule.begin + timedelta(days=schedule.finish_day) if schedule.finish_day is not None else None
            for schedule in (before, after)
        ]
        finish = f"{day_words(ends[0])} becomes {day_words(ends[1])}" if ends[0] and ends[1] else "the finish is not known"
        return f"{self.bench.name_of(id)} not before {when}: {moved} tasks move; {finish}."

    def keep(self) -> None:
        if self.tried is None:
            self.session.said.emit("Drag a bar first: what it would do is shown before it is kept.", "note")
            return
        id, when = self.tried
        self.tried, self.ghost = None, None
        self.bench.change(id, f"{self.bench.name_of(id)} not before {when}", not_before=when)
        self.refresh()

    def give_back(self) -> None:
        self.tried, self.ghost = None, None
        self._soon.stop()
        self.refresh()

    def _told(self) -> str:
        schedule = self.bench.schedule()
        if self.tried is not None and self.ghost is not None:
            return self._told_ghost(*self.tried, self.ghost)
        if not schedule.placed:
            return ""
        if self.session.day is not None and (one := on_day(self.session.studied, schedule, self.session.day)) is not None:
            when = day_of(schedule.begin, self.session.day)
            return f"On {when}: {there_words(one, self.words, self.session.build.rig.carrier == 'vehicle bed')}"
        if schedule.never:
            return f"{len(schedule.never)} tasks find no day: {self.bench.name_of(schedule.never[0][0])}, {schedule.never[0][1]}."
        assert schedule.finish_day is not None
        finish = schedule.begin + timedelta(days=schedule.finish_day)
        hours = sum(placed.task.left_h for placed in schedule.placed)
        return f"Finished {day_words(finish)}, {hours:.0f} h of work to come. Ochre: a day more moves the end; hatched is waiting."
