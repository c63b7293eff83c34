"""The chosen task: its hours, hands, days and what it waits for."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from uncle_sled.core.document.edits import remove
from uncle_sled.core.drawing.build.standing_words import standing_words
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.build.days import parsed
from uncle_sled.core.studies.build.standing import standing
from uncle_sled.core.studies.build.tasks import Task, shipped_tasks, tasks_of
from uncle_sled.core.words import Words, count_of
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.panel import Group, PanelOf, across, card
from uncle_sled.desk.kit.parts import Act, Choice, Complaint, Entry, Says
from uncle_sled.desk.kit.typed import day, number


class TaskCard(PanelOf[BuildBench]):
    def laid(self) -> Group:
        hours = (self._field("low"), self._field("likely"), self._field("high"))
        self.least = {
            "roll": self.put(self._least("To roll", "roll", "It must be done before it rolls: the least set on Today")),
            "sleep": self.put(self._least("To sleep", "sleep", "It must be done before one sleeps in it")),
        }
        return card(
            lambda: task.name if (task := self.task()) else "Task: click a bar",
            Says(self._what, "pencil", "small"),
            self._titled("Name", self._field("name", "Of a task of your own", self._own)),
            self._titled("Hours", *hours),
            self._titled("Hands", self._field("hands", "How many pairs")),
            self._titled("Not before", self._field("not_before", "Year-month-day")),
            self._titled("Done on", self._field("done", "Year-month-day; nothing: not yet")),
            Says(self._stands, face="small", hides=True),
            Says(self._waits, face="small"),
            Choice("Waits for", self._others, self.turn_wait, lambda: "", "Choose a task: it is waited for, or no longer", when=self._on),
            across(
                Act(
                    "Booked",
                    "It happens on the day it is not before: a crane, a visit",
                    self.turn_fixed,
                    self._on,
                    lambda: (task := self.task()) is not None and task.fixed,
                ),
                Act("Done", "Today; again: not done (D)", self.bench.turn_done, self._on),
                Act("Leave out", "It is not done in this build, or goes where it is your own", self.leave_out, self._on),
                gap=4,
            ),
            across(
                *self.least.values(),
                Act("Photo…", "Put a picture to this task: it lies beside the build as a file", self.bench.choose_photo, self._on),
                gap=4,
            ),
            Says(self._photos, "pencil", "small", hides=True),
            Act("Add a task of my own", "Something the drawing does not know (A)", self.bench.add_task),
            Choice(
                "Left out",
                self._left_out,
                self.take_in,
                lambda: "",
                "A task that was left out, to be taken in again",
                when=lambda: len(self._left_out()) > 1,
            ),
            Complaint(),
            gap=4,
        )

    def _titled(self, title: str, *fields: Entry) -> Group:
        return across(Says(title, "pencil", wide=74), *fields, gap=4)

    def _field(self, name: str, tip: str = "Low, likely and high, in hours of work", may: Callable[[], bool] | None = None) -> Entry:
        return Entry(
            f"Task {name}", partial(self._enter, name), tip=tip, reads=partial(self._reads, name), may=may or self._on, least=38, share=1
        )

    def _least(self, text: str, mark: str, tip: str) -> Act:
        down = lambda: (task := self.task()) is not None and mark in task.least
        return Act(text, tip, partial(self._turn_least, mark), self._on, down)

    def _on(self) -> bool:
        return self.task() is not None

    def _own(self) -> bool:
        task = self.task()
        return task is not None and task.own

    def _reads(self, name: str) -> str:
        task = self.task()
        if task is None:
            return ""
        if name in ("low", "likely", "high"):
            return f"{getattr(task, name):.1f}"
        return {"name": task.name, "hands": str(task.hands), "not_before": task.ready, "done": task.done}[name]

    def task(self) -> Task | None:
        return next((task for task in self._tasks() if task.id == self.bench.chosen), None)

    def _tasks(self) -> tuple[Task, ...]:
        return tasks_of(self.session.build, self.session.facts)

    def _enter(self, name: str, text: str) -> None:
        task = self.task()
        if task is None:
            return
        try:
            fields = self._fields(task, name, text)
        except EntryError as fault:
            self.complain(str(fault))
            self.refresh()
            return
        self.complain("")
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
        return next((change for change in self.session.build.work.changes if change.id == id), None)

    def turn_wait(self, id: object) -> None:
        task = self.task()
        if task is None or not id:
            return
        after = [one for one in task.after if one != id] if id in task.after else [*task.after, str(id)]
        verb = "no longer waits for" if id in task.after else "waits for"
        self.bench.change(task.id, f"{task.name} {verb} {self.bench.name_of(str(id)).lower()}", after=tuple(after))

    def turn_fixed(self) -> None:
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

    def leave_out(self) -> None:
        task = self.task()
        if task is None:
            self.session.said.emit("Click a task first.", "note")
        elif task.own:
            self.session.edit(f"Take off {task.name}", [remove(f"work.changes.{task.id}")], "Build")
        else:
            self.bench.change(task.id, f"Leave out {task.name.lower()}", off=True)

    def take_in(self, id: object) -> None:
        if id:
            self.bench.change(str(id), "Take a task in again", off=False)

    def _what(self) -> str:
        task = self.task()
        if task is None:
            return ""
        change = self._change(task.id)
        told = [task.quantity] if task.quantity else []
        told.append("your own hours" if change is not None and change.likely is not None else task.source)
        if task.logged:
            told.append(f"{task.logged:.1f} h logged")
        if task.because:
            told.append(task.because)
        return "; ".join(told)

    def _stands(self) -> str:
        """What stands there when the calendar has it done, tanks empty."""
        session, chosen = self.session, self.bench.chosen
        after = standing(session.studied, self.bench.schedule()) if chosen else ()
        one = next((one for one in after if one.task == chosen), None)
        if one is None:
            return ""
        return standing_words(one, Words(session.shown), session.build.rig.carrier == "vehicle bed")

    def _photos(self) -> str:
        """How many pictures there are of it; Log shows them."""
        mine = [entry for entry in self.session.build.work.log if entry.photo and entry.of and entry.of == self.bench.chosen]
        return f"{count_of(len(mine), 'photo')}, the last of {max(entry.on for entry in mine)}; on Log." if mine else ""

    def _waits(self) -> str:
        task = self.task()
        if task is None:
            return ""
        after = ", ".join(self.bench.name_of(id) for id in task.after)
        return f"Waits for: {after}" if after else "Waits for nothing."

    def _others(self) -> list[tuple[object, str]]:
        """Tasks that it may wait for."""
        task = self.task()
        if task is None:
            return []
        others = [
            (each_task.id, ("not: " if each_task.id in task.after else "") + each_task.name)
            for each_task in self._tasks()
            if each_task.id != task.id
        ]
        return [("", "wait for …"), *others]

    def _left_out(self) -> list[tuple[object, str]]:
        table = {shipped.id: shipped.name for shipped in shipped_tasks()}
        return [
            ("", "left out …"),
            *((change.id, table.get(change.id, change.id)) for change in self.session.build.work.changes if change.off),
        ]
