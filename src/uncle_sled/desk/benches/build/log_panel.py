"""The log: entries in a table, the chosen one in fields, and plan against fact drawn under it."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import Op, remove, set_to
from uncle_sled.core.document.work import LogEntry
from uncle_sled.core.drawing.build.paper import pairs_chart
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.errors import EntryError
from uncle_sled.core.studies.build.log import MOST_PHOTO_BYTES, measurable, pairs_of, photo_fault
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, Row
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.refocus import focus_kept
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.kit.taken_away import take_away
from uncle_sled.desk.kit.typed import day, number
from uncle_sled.desk.session import Session

SIDE_PX = 272


class LogPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self.chosen = ""
        self._form_of: object = None
        self._filling = False
        self.form: Form | None = None
        self.cards: Columns | None = None
        across = QHBoxLayout(self)
        across.setContentsMargins(0, 0, 0, 0)
        across.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        for text, tip, does in (("Write", "A new entry of today (W)", bench.write_log), ("Take it off", "The chosen entry", self.take_off)):
            tools.addWidget(act_button(text, tip, does))
        self.says = label("", "small", "pencil", wrap=True)
        tools.addWidget(self.says, 1)
        left.addLayout(tools)
        self.model = TableModel[LogEntry](
            (
                Column("Day", lambda one: one.on),
                Column("Kind", lambda one: one.kind),
                Column("Of", lambda one: self._of(one.of)),
                Column("Hours", lambda one: "" if one.hours is None else f"{one.hours:g}", right=True),
                Column("Money", lambda one: "" if one.money is None else f"{one.money:.2f}", right=True),
                Column("What", lambda one: one.says or one.photo, ink=lambda one: "primer" if self._missing(one) else ""),
            )
        )
        self.table = Table(self.model, "The log")
        self.table.selectionModel().selectionChanged.connect(self._picked)
        left.addWidget(self.table, 3)
        self.chart = Chart(session, "Plan against fact", self._shapes, "Plan against fact: to the right took more", self._why)
        left.addWidget(self.chart, 2)
        across.addLayout(left, 1)
        self.side = QVBoxLayout()
        self.side.setSpacing(6)
        holder = QWidget()
        holder.setLayout(self.side)
        holder.setFixedWidth(SIDE_PX)
        across.addWidget(holder)

    def _of(self, id: str) -> str:
        measures = measurable(self.session.studied)
        return measures[id][0] if id in measures else self.bench.name_of(id)

    def _missing(self, one: LogEntry) -> bool:
        return bool(one.photo) and self._photo_told(one) != ""

    def _photo_told(self, one: LogEntry) -> str:
        """What is wrong with a photo: its path, or that it is not there."""
        fault = photo_fault(one.photo)
        if fault is not None:
            return fault
        path = self.session.path
        if path is None:
            return "Save the build first: photos lie beside its file."
        at = Path(path).parent / one.photo
        try:
            if not at.is_file():
                return f"{one.photo} is not there."
            if at.stat().st_size > MOST_PHOTO_BYTES:
                return f"{one.photo} is over 20 MB; a smaller one would be right."
        except OSError as fault_:
            return f"{one.photo} cannot be read: {fault_.strerror}."
        return ""

    def _why(self) -> str:
        return "Nothing was measured beside a plan yet: log hours and mark tasks done, pay what was quoted, or log a measure."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return pairs_chart(pairs_of(self.session.studied), Words(self.session.shown), width, height)

    def entry(self) -> LogEntry | None:
        return next((one for one in self.session.build.work.log if one.id == self.chosen), None)

    def choose(self, id: str) -> None:
        self.chosen = id
        self.refresh()

    def _picked(self) -> None:
        at = self.table.marked()
        if at >= 0 and not self._filling:
            self.chosen = self.model.rows[at].id
            self.refresh()

    def take_off(self) -> None:
        one = self.entry()
        if one is not None:
            self.session.edit("Take an entry out of the log", [remove(f"work.log.{one.id}")], "Build")

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

    def _build_form(self) -> None:
        one = self.entry()
        tasks = tasks_of(self.session.build, self.session.project.facts)
        choices: list[tuple[object, str]] = [("", "nothing of the plan")]
        if one is not None and one.kind == "measure":
            choices += [(id, name) for id, (name, _, _) in measurable(self.session.studied).items()]
        else:
            choices += [(task.id, task.name) for task in tasks]
        shape = (one.id, one.kind, tuple(choices)) if one is not None else None
        if shape == self._form_of:
            return
        self._form_of = shape
        take_away(self.side, self.cards)
        self.cards, self.form = None, None
        if one is None:
            return
        path, kind = f"work.log.{one.id}", one.kind
        rows = [Row(f"{path}.on", ops=self._ops("on", self._day)), Row(f"{path}.kind"), Row(f"{path}.of", kind=choices, ops=self._of_ops)]
        if kind in ("work", "trip"):
            rows.append(Row(f"{path}.hours"))
        if kind in ("money", "work"):
            rows.append(Row(f"{path}.money"))
        if kind in ("measure", "trip"):
            rows.append(
                Row(
                    f"{path}.value",
                    kind=str,
                    ops=self._ops("value", lambda t: number(t, "a number", 1e8, -1e8)),
                    read=_shown(path, "value"),
                )
            )
        if kind in ("measure", "money"):
            rows.append(
                Row(f"{path}.plan", kind=str, ops=self._ops("plan", lambda t: number(t, "a number", 1e8, -1e8)), read=_shown(path, "plan"))
            )
        rows.append(Row(f"{path}.says"))
        if kind in ("problem", "decision"):
            rows.append(Row(f"{path}.cure", title="Helped" if kind == "problem" else "Chosen"))
        if kind == "decision":
            rows.append(Row(f"{path}.others"))
        if kind in ("photo", "problem", "work", "measure"):
            rows.append(Row(f"{path}.photo", ops=self._ops("photo", self._photo)))
        self.form = Form(self.session, "This entry", rows, "Build", label_px=76)
        self.cards = Columns([self.form])
        self.side.addWidget(self.cards, 1)

    def refresh(self) -> None:
        log = sorted(self.session.build.work.log, key=lambda one: (one.on, one.id), reverse=True)
        self._filling = True
        self.model.set_rows(log, lambda a, b: a.id == b.id)
        at = next((k for k, one in enumerate(self.model.rows) if one.id == self.chosen), -1)
        if at >= 0:
            self.table.selectRow(at)
        else:
            self.chosen = ""
            self.table.clearSelection()
        self._filling = False
        with focus_kept(self):
            self._build_form()
        if self.form is not None:
            self.form.refresh()
        one = self.entry()
        told = self._photo_told(one) if one is not None and one.photo else ""
        hours = sum(entry.hours or 0.0 for entry in log)
        missing = sum(1 for entry in log if self._missing(entry))
        if not told:
            told = f"{len(log)} entries, {hours:g} h." if log else "Nothing is written yet."
            told += f" {missing} photos are not there." if missing else ""
        self.says.setText(told)
        self.chart.update()


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
