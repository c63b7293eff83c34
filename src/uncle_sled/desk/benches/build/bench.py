"""Build: the plan of work, lift day, glue, checklists and the log."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import msgspec
from PySide6.QtWidgets import QFileDialog

from uncle_sled.core.document.edits import Op, add_to, fresh_id, set_to
from uncle_sled.core.document.work import LogEntry, TaskChange
from uncle_sled.core.errors import FileError
from uncle_sled.core.studies.build.lifting import liftable
from uncle_sled.core.studies.build.log import photo_fault
from uncle_sled.core.studies.build.schedule import Schedule, best_schedule
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.desk.benches.bench import PanelBench
from uncle_sled.desk.session import Session
from uncle_sled.exchange.clock import today
from uncle_sled.exchange.laid_beside import PHOTOS, laid_beside

CAUTION = (
    "Screening only: lifting, towing, mains and gas are for qualified people; makers' papers decide. Resin and dust: mask, gloves, air."
)
PLANNED = ("Calendar", "Today", "Chance")  # views of the plan, which is made in the background


class BuildBench(PanelBench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop, CAUTION)
        self.chosen = ""  # id of a task
        session.answers.changed.connect(self._answered)
        self.show_view("Calendar")

    def refresh(self) -> None:
        if self.view in PLANNED and self.isVisible() and not self.session.answers.of(best_schedule).fresh:
            self.session.answers.ask(best_schedule)
        super().refresh()

    def _answered(self, study: object) -> None:
        if study is best_schedule and self.isVisible() and self.view in PLANNED:
            self.made[self.view].refresh()

    def schedule(self) -> Schedule:
        """The best calendar there is for the build as it is."""
        return self.session.schedule()

    # what can be done
    def change_op(self, id: str, **fields: Any) -> Op:
        """An op that writes fields of a task, whether it was changed before or not."""
        known = next((change for change in self.session.build.work.changes if change.id == id), None)
        after = msgspec.to_builtins(msgspec.structs.replace(known or TaskChange(id), **fields))
        return set_to(f"work.changes.{id}", after) if known is not None else add_to("work.changes", after)

    def change(self, id: str, says: str, **fields: Any) -> bool:
        return bool(self.session.edit(says, [self.change_op(id, **fields)], "Build"))

    def name_of(self, id: str) -> str:
        return next((task.name for task in tasks_of(self.session.build, self.session.project.facts) if task.id == id), id)

    def add_task(self) -> None:
        self.show_view("Calendar")
        id = fresh_id("own", [change.id for change in self.session.build.work.changes])
        record = TaskChange(id, own=True, name="New task", kind="else", low=1.0, likely=2.0, high=4.0)
        if self.session.edit("Add a task", [add_to("work.changes", msgspec.to_builtins(record))], "Build"):
            self.chosen = id
            self.refresh()

    def turn_done(self) -> None:
        if not self.chosen:
            self.session.said.emit("Click a task first.", "note")
            return
        known = next((change for change in self.session.build.work.changes if change.id == self.chosen), None)
        done = "" if known is not None and known.done else today()
        name = self.name_of(self.chosen)
        self.change(self.chosen, f"{name}: {'done' if done else 'not done'}", done=done)

    def keep(self) -> None:
        if self.view == "Calendar":
            self.made["Calendar"].keep()

    def add_lift(self) -> None:
        self.show_view("Lift")
        what = liftable(self.session.studied)
        if not what:
            self.session.said.emit("There is nothing to lift yet: draw a body on Shell or a frame on Rig.", "note")
            return
        id = fresh_id("lf", [lift.id for lift in self.session.build.work.lifts])
        if self.session.edit("Plan a lift", [add_to("work.lifts", {"id": id, "what": what[0][0]})], "Build"):
            self.made["Lift"].choose(id)

    def choose_photo(self) -> None:
        """A picture for the chosen task, or for none."""
        if self.session.path is None:
            self.session.said.emit("Save the build first: photos lie beside its file.", "stop")
            return
        word, _ = QFileDialog.getOpenFileName(self, "A photo of the work", "", "Pictures (*.jpg *.jpeg *.png *.webp *.gif)")
        if word:
            self.add_photo(Path(word))

    def add_photo(self, path: Path) -> bool:
        """Put a picture to the chosen task: a file beside the build, named in its log. What cannot be kept is said."""
        if self.session.path is None:
            self.session.said.emit("Save the build first: photos lie beside its file.", "stop")
            return False
        try:
            at = laid_beside(path, Path(self.session.path), PHOTOS, photo_fault)
        except FileError as fault:
            self.session.said.emit(str(fault), "stop")
            return False
        id = fresh_id("lg", [entry.id for entry in self.session.build.work.log])
        record = LogEntry(id, today(), "photo", of=self.chosen, photo=at)
        says = f"Photo of {self.name_of(self.chosen).lower()}" if self.chosen else "Photo"
        return bool(self.session.edit(says, [add_to("work.log", msgspec.to_builtins(record))], "Build"))

    def write_log(self) -> None:
        self.show_view("Log")
        id = fresh_id("lg", [entry.id for entry in self.session.build.work.log])
        record = LogEntry(id, today(), of=self.chosen)
        if self.session.edit("Write into the log", [add_to("work.log", msgspec.to_builtins(record))], "Build"):
            self.made["Log"].choose(id)
