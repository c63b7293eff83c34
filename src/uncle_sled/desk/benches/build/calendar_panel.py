"""The working calendar: bars that are dragged, the chosen task beside it, and whose days they are."""

from __future__ import annotations

from datetime import timedelta
from functools import partial
from typing import Any

from PySide6.QtCore import QPointF, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import add_to, apply, fresh_id, remove, set_to
from uncle_sled.core.drawing.build.plan_chart import ROW, TOP, Scale, chart_high, day_words, plan_chart, rows_of
from uncle_sled.core.drawing.pick import id_at
from uncle_sled.core.drawing.primitives import Primitive, rect
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.build.days import parsed
from uncle_sled.core.studies.build.schedule import Schedule, best_schedule, schedule_of
from uncle_sled.core.studies.build.tasks import Task
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import ChoiceField, TextField, label
from uncle_sled.desk.kit.form import Row, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Busy, Cards, DrawingOf, Fields, Own, Says, Scrolled
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.kit.typed import day, number
from uncle_sled.desk.session import Session

SIDE_PX = 262
GHOST_MS = 90
WEEK = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class PlanChart(Chart):
    """``picked`` carries a task; ``dragged`` a task and how many days it was moved; ``dropped`` ends that."""

    picked = Signal(str)
    dragged = Signal(str, float)
    dropped = Signal()

    def __init__(self, *args: Any) -> None:
        super().__init__(*args)
        self.hand: tuple[str, QPointF] | None = None
        self.off = 0.0
        self.per_day = 1.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        at = event.position()
        id = id_at(self.make(float(self.width()), float(self.height())), (at.x(), self.height() - at.y()))
        self.picked.emit(id)
        self.hand, self.off = ((id, at) if id else None), 0.0

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.hand is not None:
            self.off = event.position().x() - self.hand[1].x()
            self.update()
            self.dragged.emit(self.hand[0], self.off / max(self.per_day, 1e-6))

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
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


class CalendarPanel(Panel):
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
        self.roll = self.put(Scrolled(self.chart, share=1))
        plan = [
            Row("work.begin", ops=lambda text: [set_to("work.begin", day(text or ""))]),
            Row("work.deadline", ops=lambda text: [set_to("work.deadline", day(text or ""))]),
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
        self.bench = bench
        super().__init__(session)
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
            if self.chart.hand is not None and abs(self.chart.off) > 2:
                for k, one in enumerate(rows_of(schedule)):
                    if one.task.id == self.chart.hand[0]:
                        y = height - TOP - (k + 1) * ROW
                        long = max((one.end - one.begin) * scale.per_day, 3.0)
                        shapes = (
                            *shapes,
                            rect(scale.x(one.begin) + self.chart.off, y + 3, long, 14, stroke="chalk", fill="chalk", width=2.0, tint=0.3),
                        )
        return shapes

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
        moved = sum(1 for one in after.placed if (old := before.of(one.task.id)) is not None and abs(old.begin - one.begin) > 0.2)
        ends = [one.begin + timedelta(days=one.finish_day) if one.finish_day is not None else None for one in (before, after)]
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
        if schedule.never:
            return f"{len(schedule.never)} tasks find no day: {self.bench.name_of(schedule.never[0][0])}, {schedule.never[0][1]}."
        assert schedule.finish_day is not None
        finish = schedule.begin + timedelta(days=schedule.finish_day)
        hours = sum(one.task.left_h for one in schedule.placed)
        return f"Finished {day_words(finish)}, {hours:.0f} h of work to come. Ochre: a day more moves the end; hatched is waiting."


class Card(Guarded, QFrame):
    """A card with a title, as the forms have it."""

    def __init__(self, title: str) -> None:
        super().__init__()
        self.setObjectName("card")
        self.box = QVBoxLayout(self)
        self.box.setContentsMargins(12, 8, 12, 10)
        self.box.setSpacing(4)
        self.title = label(title, "title")
        self.box.addWidget(self.title)

    def row(self, *widgets: QWidget) -> None:
        line = QHBoxLayout()
        line.setSpacing(4)
        for widget in widgets:
            line.addWidget(widget, 1 if isinstance(widget, TextField | ChoiceField) else 0)
        self.box.addLayout(line)


class TaskCard(Card):
    """The chosen task: its hours, hands, days and what it waits for."""

    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__("Task")
        self.session, self.bench = session, bench
        self.what = label("", "small", "pencil", wrap=True)
        self.box.addWidget(self.what)
        self.fields: dict[str, TextField] = {}
        for name, title, tip in (
            ("name", "Name", "Of a task of your own"),
            ("low", "Hours", "Low, likely and high, in hours of work"),
            ("hands", "Hands", "How many pairs"),
            ("not_before", "Not before", "Year-month-day"),
            ("done", "Done on", "Year-month-day; nothing: not yet"),
        ):
            words = label(title, "", "pencil")
            words.setFixedWidth(74)
            row: list[QWidget] = [words]
            names = ("low", "likely", "high") if name == "low" else (name,)
            for one in names:
                field = TextField(f"Task {one}", may_be_empty=True)
                field.setToolTip(tip)
                field.setMinimumWidth(38)
                field.entered.connect(lambda text, one=one: self._enter(one, text))
                self.fields[one] = field
                row.append(field)
            self.row(*row)
        self.waits = label("", "small", "ink", wrap=True)
        self.box.addWidget(self.waits)
        self.wait_for = ChoiceField("Waits for", [])
        self.wait_for.setToolTip("Choose a task: it is waited for, or no longer")
        self.wait_for.entered.connect(self._turn_wait)
        self.box.addWidget(self.wait_for)
        line = QHBoxLayout()
        line.setSpacing(4)
        self.fixed = act_button("Booked", "It happens on the day it is not before: a crane, a visit", self._turn_fixed)
        self.fixed.setCheckable(True)
        self.done = act_button("Done", "Today; again: not done (D)", bench.turn_done)
        self.off = act_button("Leave out", "It is not done in this build, or goes where it is your own", self._leave_out)
        for button in (self.fixed, self.done, self.off):
            line.addWidget(button)
        self.box.addLayout(line)
        marks = QHBoxLayout()
        marks.setSpacing(4)
        self.least = {
            "roll": act_button("To roll", "It must be done before it rolls: the least set on Today", lambda: self._turn_least("roll")),
            "sleep": act_button("To sleep", "It must be done before one sleeps in it", lambda: self._turn_least("sleep")),
        }
        for button in self.least.values():
            button.setCheckable(True)
            marks.addWidget(button)
        self.box.addLayout(marks)
        self.add = act_button("Add a task of my own", "Something the drawing does not know (A)", bench.add_task)
        self.box.addWidget(self.add)
        self.left_out = ChoiceField("Left out", [])
        self.left_out.setToolTip("A task that was left out, to be taken in again")
        self.left_out.entered.connect(self._take_in)
        self.box.addWidget(self.left_out)
        self.complaint = label("", "small", "primer", wrap=True)
        self.complaint.hide()
        self.box.addWidget(self.complaint)

    def task(self) -> Task | None:
        from uncle_sled.core.studies.build.tasks import tasks_of

        tasks = tasks_of(self.session.build, self.session.project.facts)
        return next((one for one in tasks if one.id == self.bench.chosen), None)

    def _enter(self, name: str, text: str) -> None:
        task = self.task()
        if task is None:
            return
        try:
            fields = self._fields(task, name, text)
        except EntryError as fault:
            self.complaint.setText(str(fault))
            self.complaint.show()
            self.refresh()
            return
        self.complaint.hide()
        self.bench.change(task.id, f"{task.name}: {name.replace('_', ' ')} {text}", **fields)

    def _fields(self, task: Task, name: str, text: str) -> dict[str, Any]:
        if name == "name":
            if not task.own or not text.strip():
                raise EntryError("Tasks of the drawing are named there; tasks of your own can be renamed.")
            return {"name": text.strip()[:120]}
        if name in ("not_before", "done"):
            when = day(text)
            begin = parsed(self.session.build.work.begin)
            if when and begin is not None and when < begin.isoformat():
                raise EntryError(f"{when} is before the first day, {begin.isoformat()}.")
            return {name: when}
        if name == "hands":
            many = number(text, "a number of hands", 20, 1)
            return {"hands": None if many is None else int(many)}
        value = number(text, "hours", 5000, 0)
        hours = {"low": task.low, "likely": task.likely, "high": task.high, name: value}
        if value is None:
            return {"low": None, "likely": None, "high": None}
        if (
            name == "likely"
            and not task.own
            and all(getattr(self._change(task.id), one, None) is None for one in ("low", "likely", "high"))
        ):
            hours = {"low": value * task.low / task.likely, "likely": value, "high": value * task.high / task.likely}
        if not hours["low"] <= hours["likely"] <= hours["high"]:  # type: ignore[operator]
            raise EntryError(
                f"Low {hours['low']:g}, likely {hours['likely']:g}, high {hours['high']:g}: low must not be over likely, nor likely over high."
            )
        return {one: round(float(hours[one]), 2) for one in ("low", "likely", "high")}  # type: ignore[arg-type]

    def _change(self, id: str) -> Any:
        return next((one for one in self.session.build.work.changes if one.id == id), None)

    def _turn_wait(self, id: object) -> None:
        task = self.task()
        if task is None or not id:
            return
        after = [one for one in task.after if one != id] if id in task.after else [*task.after, str(id)]
        verb = "no longer waits for" if id in task.after else "waits for"
        self.bench.change(task.id, f"{task.name} {verb} {self.bench.name_of(str(id)).lower()}", after=tuple(after))

    def _turn_fixed(self) -> None:
        task = self.task()
        if task is None or not task.ready:
            self.session.said.emit("Type the day under Not before first.", "note")
            self.refresh()
            return
        self.bench.change(
            task.id, f"{task.name}: {'not ' if task.fixed else ''}booked for {task.ready}", fixed=not task.fixed, not_before=task.ready
        )

    def _turn_least(self, mark: str) -> None:
        task = self.task()
        if task is None:
            return
        least = tuple(one for one in task.least if one != mark) if mark in task.least else (*task.least, mark)
        verb = "is not of" if mark in task.least else "is of"
        self.bench.change(task.id, f"{task.name} {verb} the least to {mark}", least=least)

    def _leave_out(self) -> None:
        task = self.task()
        if task is None:
            self.session.said.emit("Click a task first.", "note")
        elif task.own:
            self.session.edit(f"Take off {task.name}", [remove(f"work.changes.{task.id}")], "Build")
        else:
            self.bench.change(task.id, f"Leave out {task.name.lower()}", off=True)

    def _take_in(self, id: object) -> None:
        if id:
            self.bench.change(str(id), "Take a task in again", off=False)

    def refresh(self) -> None:
        from uncle_sled.core.studies.build.tasks import shipped_tasks, tasks_of

        task = self.task()
        tasks = tasks_of(self.session.build, self.session.project.facts)
        names = {one.id: one.name for one in tasks}
        on = task is not None
        self.title.setText(task.name if task is not None else "Task: click a bar")
        table = {one.id: one.name for one in shipped_tasks()}
        out = [(one.id, table.get(one.id, one.id)) for one in self.session.build.work.changes if one.off]
        self.left_out.offer([("", "left out …"), *out])
        self.left_out.show_value("")
        self.left_out.setVisible(bool(out))
        for widget in (*self.fields.values(), self.wait_for, self.fixed, self.done, self.off, *self.least.values()):
            widget.setEnabled(on)
        self.fields["name"].setEnabled(task is not None and task.own)
        if task is None:
            for field in self.fields.values():
                field.show_value("")
            self.what.setText("")
            self.waits.setText("")
            return
        for name in ("low", "likely", "high"):
            self.fields[name].show_value(f"{getattr(task, name):.1f}")
        self.fields["name"].show_value(task.name)
        self.fields["hands"].show_value(str(task.hands))
        self.fields["not_before"].show_value(task.ready)
        self.fields["done"].show_value(task.done)
        self.fixed.setChecked(task.fixed)
        for mark, button in self.least.items():
            button.setChecked(mark in task.least)
        self.done.setText("Not done" if task.done else "Done")
        told = [task.quantity] if task.quantity else []
        told.append("your own hours" if _own_hours(self._change(task.id)) else task.source)
        if task.logged:
            told.append(f"{task.logged:.1f} h logged")
        if task.because:
            told.append(task.because)
        self.what.setText("; ".join(told))
        after = ", ".join(names.get(id, id) for id in task.after)
        self.waits.setText(f"Waits for: {after}" if after else "Waits for nothing.")
        others = [
            ("", "wait for …"),
            *((one.id, ("not: " if one.id in task.after else "") + one.name) for one in tasks if one.id != task.id),
        ]
        self.wait_for.offer(others)  # type: ignore[arg-type]
        self.wait_for.show_value("")


def _own_hours(change: Any) -> bool:
    return change is not None and change.likely is not None


class WeekCard(Card):
    """Whose days are working days: yours, and those of each helper."""

    def __init__(self, session: Session) -> None:
        super().__init__("Whose days")
        self.session = session
        self.lines: list[QWidget] = []
        self.rows = QVBoxLayout()
        self.rows.setSpacing(3)
        self.box.addLayout(self.rows)
        self.box.addWidget(act_button("Add a helper", "", self.add))
        self._shown: object = None

    def add(self) -> None:
        work = self.session.build.work
        id = fresh_id("h", [one.id for one in work.helpers])
        self.session.edit("Add a helper", [add_to("work.helpers", {"id": id, "name": f"Helper {len(work.helpers) + 1}"})], "Build")

    def _no_more(self, id: str) -> None:
        self.session.edit("A helper less", [remove(f"work.helpers.{id}")], "Build")

    def _turn(self, id: str, weekday: int) -> None:
        work = self.session.build.work
        days = work.days if not id else next(one.days for one in work.helpers if one.id == id)
        after = tuple(sorted(set(days) ^ {weekday}))
        path = "work.days" if not id else f"work.helpers.{id}.days"
        self.session.edit(f"{WEEK[weekday]}: {'works' if weekday in after else 'free'}", [set_to(path, list(after))], "Build")

    def refresh(self) -> None:
        work = self.session.build.work
        shown = (work.days, work.helpers)
        if shown == self._shown:
            return
        self._shown = shown
        for old in self.lines:
            take_away(self.rows, old)
        self.lines = []
        for id, name, days in (("", "You", work.days), *((one.id, one.name, one.days) for one in work.helpers)):
            holder = QWidget()
            box = QVBoxLayout(holder)
            box.setContentsMargins(0, 0, 0, 0)
            box.setSpacing(2)
            head = QHBoxLayout()
            if id:
                field = TextField(f"Name of helper {id}")
                field.show_value(name)
                field.entered.connect(
                    lambda text, id=id: self.session.edit(
                        f"Helper: {text[:40]}", [set_to(f"work.helpers.{id}.name", text.strip()[:80])], "Build"
                    )
                )
                head.addWidget(field, 1)
                head.addWidget(act_button("Off", "This helper comes no more", partial(self._no_more, id)))
            else:
                head.addWidget(label(name, "", "pencil"), 1)
            box.addLayout(head)
            line = QHBoxLayout()
            line.setSpacing(2)
            line.addStretch(1)
            for at, word in enumerate(WEEK):
                button = act_button(word[0], word, partial(self._turn, id, at), down=at in days)
                button.setAccessibleName(f"{name}, {word}")
                button.setFixedWidth(29)
                line.addWidget(button)
            box.addLayout(line)
            self.rows.addWidget(holder)
            self.lines.append(holder)
