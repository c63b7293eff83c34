"""The log: entries in a table, the chosen one in fields, and plan against fact drawn under it."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from pathlib import Path
from typing import Any

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.work import LogEntry
from uncle_sled.core.drawing.build.hours_chart import hours_chart
from uncle_sled.core.drawing.build.paper import pairs_chart
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.build.log import MOST_PHOTO_BYTES, measurable, pairs_of, photo_fault
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.benches.build.photo_view import PhotoView
from uncle_sled.desk.kit.form import Row
from uncle_sled.desk.kit.panel import Group, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Cards, Drawing, Fields, Listed, Own, Remade, Says
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.kit.typed import day, number

SIDE_PX = 272


class LogPanel(PanelOf[BuildBench]):
    chosen = ""

    def laid(self) -> Group:
        columns: tuple[Column[LogEntry], ...] = (
            Column("Day", lambda entry: entry.on),
            Column("Kind", lambda entry: entry.kind),
            Column("Of", lambda entry: self._of(entry.of)),
            Column("Hours", lambda entry: "" if entry.hours is None else f"{entry.hours:g}", right=True),
            Column("Money", lambda entry: "" if entry.money is None else f"{entry.money:.2f}", right=True),
            Column("What", lambda entry: entry.says or entry.photo, ink=lambda entry: "primer" if self._missing(entry) else ""),
        )
        self.table = self.put(
            Listed[LogEntry](
                "The log",
                columns,
                self._log,
                lambda entry: entry.id,
                lambda entry: self.choose(entry.id),
                lambda entry: entry.id == self.chosen,
                share=3,
            )
        )
        left = rows(
            across(
                Act("Write", "A new entry of today (W)", self.bench.write_log),
                Act("Photo…", "A picture, put to the task that is chosen on Calendar", self.bench.choose_photo),
                Act("Take it off", "The chosen entry", self.take_off),
                Says(self._told, "pencil", "small", share=1),
            ),
            self.table,
            Drawing(
                "Plan against fact",
                self._shapes,
                "Plan against fact: to the right took more",
                "Nothing was measured beside a plan yet: log hours and mark tasks done, pay what was quoted, or log a measure.",
                share=2,
            ),
            share=1,
        )
        hours = Drawing("Hours, planned and written down", self._hours, "Hours, added up", "No hours are planned or written yet.", share=1)
        self.photo = self.put(Own(lambda: PhotoView(self._photo_path), PhotoView.renew, share=1))
        return across(left, rows(Remade(self._shape, self._form), self.photo, hours, wide=SIDE_PX), gap=8)

    def _photo_path(self) -> Path | None:
        entry = self.entry()
        if entry is None or not entry.photo or self._photo_told(entry) or self.session.path is None:
            return None
        return Path(self.session.path).parent / entry.photo

    def _log(self) -> list[LogEntry]:
        return sorted(self.session.build.work.log, key=lambda entry: (entry.on, entry.id), reverse=True)

    def _choices(self) -> tuple[tuple[object, str], ...]:
        """What the chosen entry may be about."""
        entry = self.entry()
        if entry is not None and entry.kind == "measure":
            about = [(id, name) for id, (name, _, _) in measurable(self.studied).items()]
        else:
            about = [(task.id, task.name) for task in tasks_of(self.session.build, self.session.facts)]
        return (("", "nothing of the plan"), *about)

    def _shape(self) -> Hashable | None:
        entry = self.entry()
        return (entry.id, entry.kind, self._choices()) if entry is not None else None

    def _of(self, id: str) -> str:
        measures = measurable(self.session.studied)
        return measures[id][0] if id in measures else self.bench.name_of(id)

    def _missing(self, entry: LogEntry) -> bool:
        return bool(entry.photo) and self._photo_told(entry) != ""

    def _photo_told(self, entry: LogEntry) -> str:
        """What is wrong with a photo: its path, or that it is not there."""
        fault = photo_fault(entry.photo)
        if fault is not None:
            return fault
        path = self.session.path
        if path is None:
            return "Save the build first: photos lie beside its file."
        at = Path(path).parent / entry.photo
        try:
            if not at.is_file():
                return f"{entry.photo} is not there."
            if at.stat().st_size > MOST_PHOTO_BYTES:
                return f"{entry.photo} is over 20 MB; a smaller one would be right."
        except OSError as fault_:
            return f"{entry.photo} cannot be read: {fault_.strerror}."
        return ""

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return pairs_chart(pairs_of(self.session.studied), Words(self.session.shown), width, height)

    def _hours(self, width: float, height: float) -> tuple[Primitive, ...]:
        return hours_chart(self.bench.schedule(), self.session.build.work.log, width, height)

    def entry(self) -> LogEntry | None:
        return next((entry for entry in self.session.build.work.log if entry.id == self.chosen), None)

    def choose(self, id: str) -> None:
        self.chosen = id
        self.refresh()

    def take_off(self) -> None:
        entry = self.entry()
        if entry is not None:
            self.session.edit("Take an entry out of the log", [remove(f"work.log.{entry.id}")], "Build")

    def _ops(self, field: str, read: Callable[[str], Any]) -> Callable[[Any], list[Op]]:
        return lambda text: [set_to(f"work.log.{self.chosen}.{field}", read(text or ""))]

    def _day(self, text: str) -> str:
        when = day(text)
        if not when:
            raise EntryError("an entry has its day; year-month-day such as 2027-03-31 would be right.")
        return when

    def _photo(self, text: str) -> str:
        fault = photo_fault(text.strip())
        if fault is not None:
            raise EntryError(fault)
        return text.strip()

    def _of_ops(self, value: object) -> list[Op]:
        """What it is about; a measure keeps what the plan says now."""
        plan = measurable(self.session.studied).get(str(value), ("", "", None))[2]
        return [set_to(f"work.log.{self.chosen}.of", value), set_to(f"work.log.{self.chosen}.plan", plan)]

    def _form(self) -> Cards:
        entry = self.entry()
        assert entry is not None
        path, kind = f"work.log.{entry.id}", entry.kind
        figure = lambda text: number(text, "a number", 1e8, -1e8)
        fields = [
            Row(f"{path}.on", ops=self._ops("on", self._day)),
            Row(f"{path}.kind"),
            Row(f"{path}.of", kind=list(self._choices()), ops=self._of_ops),
        ]
        if kind in ("work", "trip"):
            fields.append(Row(f"{path}.hours"))
        if kind in ("money", "work"):
            fields.append(Row(f"{path}.money"))
        if kind in ("measure", "trip"):
            fields.append(Row(f"{path}.value", kind=str, ops=self._ops("value", figure), read=_shown(path, "value")))
        if kind in ("measure", "money"):
            fields.append(Row(f"{path}.plan", kind=str, ops=self._ops("plan", figure), read=_shown(path, "plan")))
        fields.append(Row(f"{path}.says"))
        if kind in ("problem", "decision"):
            fields.append(Row(f"{path}.cure", title="Helped" if kind == "problem" else "Chosen"))
        if kind == "decision":
            fields.append(Row(f"{path}.others"))
        if kind in ("photo", "problem", "work", "measure"):
            fields.append(Row(f"{path}.photo", ops=self._ops("photo", self._photo)))
        return Cards([Fields("This entry", fields, "Build", 76)])

    def _told(self) -> str:
        each_entry, log = self.entry(), self.session.build.work.log
        told = self._photo_told(each_entry) if each_entry is not None and each_entry.photo else ""
        if told:
            return told
        missing = sum(1 for entry in log if self._missing(entry))
        hours = sum(entry.hours or 0.0 for entry in log)
        return (f"{len(log)} entries, {hours:g} h." if log else "Nothing is written yet.") + (
            f" {missing} photos are not there." if missing else ""
        )


def _shown(path: str, field: str) -> Callable[[Any], str]:
    """A number as the text of its field."""
    from uncle_sled.core.document.edits import get
    from uncle_sled.core.errors import EditError

    def read(root: Any) -> str:
        try:
            value = get(root, f"{path}.{field}")
        except EditError:
            return ""
        return "" if value is None else f"{value:g}"

    return read
