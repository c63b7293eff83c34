"""Keeps the open project safe: its lock, its autosave, and whether another program changed its file."""

from __future__ import annotations

from pathlib import Path

import msgspec
from PySide6.QtCore import QObject, QTimer
from PySide6.QtWidgets import QWidget

from uncle_sled.core.errors import SledError
from uncle_sled.desk.ask import ask
from uncle_sled.desk.session import Session
from uncle_sled.exchange import file_guard, sled_file
from uncle_sled.exchange.process_mark import me
from uncle_sled.exchange.recovery import Autosave, NotWritten, drop_autosave, new_autosave, write_autosave

AUTOSAVE_MS = 3000
WRITING_S = 2.0
AUTOSAVE_JOB = "uncle_sled.exchange.recovery:autosave_job"


class Keeper(QObject):
    def __init__(self, session: Session, window: QWidget) -> None:
        super().__init__(window)
        self.session, self.window = session, window
        self.autosave: Autosave | None = None
        self.stamp: str | None = None
        self.locked: Path | None = None
        self._trouble = ""
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(AUTOSAVE_MS)
        self._timer.timeout.connect(self.keep)
        session.changed.connect(self._changed)
        if session.worker is not None:
            session.worker.answered.connect(self._written)
        if session.path is not None:
            self.begin(session.path)

    # autosave
    def _changed(self) -> None:
        if self.session.history.modified and not self._timer.isActive():
            self._timer.start()

    def keep(self) -> None:
        """Write an autosave, in the worker where there is one."""
        session = self.session
        if not session.history.modified:
            return
        if session.dragging:
            self._timer.start()
            return
        if self.autosave is None:
            self.autosave = new_autosave(session.path, session.project.name)
        if session.worker is not None:
            session.worker.ask("autosave", AUTOSAVE_JOB, session.project, (self.autosave,), job=True, urgent=True)
            return
        try:
            write_autosave(self.autosave, sled_file.to_bytes(session.project))
            self._trouble = ""
        except SledError as fault:
            self._say(str(fault))

    def _written(self, _number: int, value: object, _fault: str) -> None:
        if isinstance(value, NotWritten):
            self._say(value.says)

    def _say(self, trouble: str) -> None:
        """What keeps autosaves from being written, said when it begins and when it is another one."""
        if trouble != self._trouble:
            self._trouble = trouble
            self.session.said.emit(trouble, "stop")

    def drop(self) -> None:
        """The project was saved or let go: its autosave is not needed any more."""
        self._timer.stop()
        if self.autosave is not None:
            worker = self.session.worker
            if worker is not None:  # one that is on its way must not appear after its project was saved
                worker.drop("autosave")
                if worker.running is not None and worker.running.lane == "autosave":
                    worker.settle(WRITING_S)
            drop_autosave(self.autosave)
            self.autosave = None

    def adopt(self, old: Autosave) -> None:
        """Go on with an autosave that a crash left behind."""
        self.autosave = msgspec.structs.replace(old, by=me())
        try:
            write_autosave(self.autosave, sled_file.to_bytes(self.session.project))
        except SledError as fault:
            self.session.said.emit(str(fault), "stop")

    # the file
    def begin(self, path: Path | None) -> None:
        """A project of this file was opened or saved here."""
        if self.locked is not None and self.locked != path:
            file_guard.release(self.locked)
            self.locked = None
        self.stamp = file_guard.stamp(path) if path is not None else None
        if path is not None and not self.session.read_only and file_guard.take(path):
            self.locked = path

    def may_open(self, path: Path) -> str:
        """How a file may be opened: "write", "read" or "" (not at all), asking where another window has it."""
        if file_guard.take(path):
            return "write"
        holder = file_guard.holder_of(path)
        if holder is None:  # it was given back while this window looked
            return "write" if file_guard.take(path) else "read"
        text = (
            f"{path.name} is open elsewhere: {holder.says()}. Two windows that save it overwrite each other. "
            "Taking it over leaves the other window unable to save under this name."
        )
        answer = ask(self.window, "Open elsewhere", text, [("read", "Open to read only"), ("over", "Take it over"), ("", "Do not open")])
        if answer == "over":
            return "write" if file_guard.take(path, over=True) else ""
        return answer

    def may_save(self, path: Path) -> str:
        """Whether a file may be written: "yes", "as" (choose another name) or ""."""
        session = self.session
        same = session.path is not None and path == session.path
        if same and session.read_only:
            answers = [("as", "Save under another name"), ("", "Do not save")]
            return ask(self.window, "Read only", f"{path.name} was opened to read only, because another window holds it.", answers)
        if not file_guard.still_mine(path):
            holder = file_guard.holder_of(path)
            text = f"{path.name} was taken over: {holder.says() if holder else 'somebody'}. Saving now would overwrite what is done there."
            return ask(self.window, "Taken over", text, [("as", "Save under another name"), ("yes", "Overwrite it"), ("", "Do not save")])
        if same and self.stamp is not None and path.exists() and file_guard.stamp(path) != self.stamp:
            text = (
                f"Another program changed {path.name} since it was opened here. Saving puts this window's build in its place; "
                "what stands there now is kept beside it, ending in .bak."
            )
            return ask(
                self.window, "Changed on disk", text, [("as", "Save under another name"), ("yes", "Save in its place"), ("", "Do not save")]
            )
        return "yes"

    def saved(self, path: Path) -> None:
        self.session.read_only = False
        self.drop()
        self.begin(path)

    def close(self) -> None:
        """Everything is let go in good order."""
        self.drop()
        if self.locked is not None:
            file_guard.release(self.locked)
            self.locked = None
