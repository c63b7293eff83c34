"""What the window is working on: the history, what is selected and shown, and the one door for edits.

It holds no domain logic: it applies ops, keeps the history, and asks the core for results.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal

from uncle_sled.core.document.edits import Op, add_to, apply, remove
from uncle_sled.core.document.history import History, Step
from uncle_sled.core.document.project import Build, Facts, Project
from uncle_sled.core.document.references import referring_right
from uncle_sled.core.document.sense import of_no_sense
from uncle_sled.core.document.sized_names import with_sized_names
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.engine import forget
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.finding import Finding, Remedy
from uncle_sled.core.materials import materials
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.trail import HOME, TRAIL, stop_of
from uncle_sled.core.units import Shown, in_units
from uncle_sled.core.words import lower_first
from uncle_sled.desk.answers import Answers
from uncle_sled.desk.hand import Hand
from uncle_sled.desk.worker import Worker
from uncle_sled.exchange import sled_file
from uncle_sled.exchange.clock import today

if TYPE_CHECKING:  # at the start of the window no calendar is wanted
    from uncle_sled.core.studies.build.schedule import Schedule

REST_MS = 150


class Session(QObject):
    """One open project."""

    changed = Signal()  # the build that is shown, or what it says
    selected = Signal()
    case_changed = Signal()
    stop_changed = Signal(str)
    judged = Signal()  # findings with remedies arrived or went stale
    said = Signal(str, str)  # a sentence for the user, and how bad: note, stop
    flash = Signal(tuple)  # ids to point at for a moment
    pointed = Signal(object)  # a finding, to be shown where it is
    file_changed = Signal()
    day_changed = Signal()  # another day of the build is looked at, or the whole again
    opened = Signal()  # another project

    def __init__(self, project: Project, path: Path | None = None, worker: Worker | None = None) -> None:
        super().__init__()
        self.history = History(project, saved=project)
        self.path = path
        self.read_only = False
        self.selection: tuple[str, ...] = ()
        self.case_id = ""
        self._mode_id = ""  # shown beside a case of another mode that weighs the same
        self.stop = HOME
        self.ghost: tuple[Remedy, Project] | None = None
        self.hand: Hand | None = None
        self._hands = 0
        self._studied: tuple[Project, Studied] | None = None  # of the project that is open
        self._row: tuple[object, str, int] | None = None  # the shown case among these
        self.reading_first = False  # nothing is judged until the first reading is painted
        self._rested: Studied | None = None  # results of the build when a hand began to drag
        self.day: float | None = None  # days since the first of the work, whose half-built thing is looked at; None: the whole build
        self.ticks = 0  # goes on with whatever a panel may show: what was hidden meanwhile need not look again where it did not
        self.worker = worker
        self.answers = Answers(worker, lambda: self.project, lambda: self.studied, self)
        for signal in (
            self.changed,
            self.selected,
            self.case_changed,
            self.judged,
            self.file_changed,
            self.day_changed,
            self.answers.changed,
            self.answers.told,
        ):
            signal.connect(self._tick)  # the first that hears of it
        self.answers.changed.connect(self._answer)
        if worker is not None:
            worker.replaced.connect(lambda says: self.said.emit(says, "note"))
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST_MS)
        self._rest.timeout.connect(self.ask_at_rest)

    def _tick(self, *_of: object) -> None:
        self.ticks += 1

    # what is there
    @property
    def project(self) -> Project:
        return self.history.project

    @property
    def build(self) -> Build:
        return self.project.build

    @property
    def facts(self) -> Facts:
        return self.project.facts

    @property
    def shown(self) -> Shown:
        return self.build.brief.reading.shown()

    def told(self, text: str) -> str:
        """A sentence with its marked figures in the build's units."""
        return in_units(text, self.shown)

    @property
    def studied(self) -> Studied:
        """Results of the build as it is, without the ghost."""
        project = self.history.project
        if self._studied is None or self._studied[0] is not project:
            self._studied = (project, study(project.build, project.facts))
        return self._studied[1]

    @property
    def ghost_studied(self) -> Studied | None:
        return study(self.ghost[1].build, self.ghost[1].facts) if self.ghost else None

    @property
    def row(self) -> int:
        """The row of the load case that is shown."""
        cases = self.studied.table.cases
        if self._row is None or self._row[0] is not cases or self._row[1] != self.case_id:
            found = next((row for row, case in enumerate(cases) if case.id == self.case_id), 0)
            self._row = (cases, self.case_id, found)
        return self._row[2]

    @property
    def mode(self) -> Mode:
        """The mode that is shown: the load case's, or one that has no case of its own."""
        modes, cases = self.build.stow.modes, self.studied.table.cases
        shown = next((mode for mode in modes if mode.id == self._mode_id), None) if self._mode_id else None
        return shown or (cases[self.row].mode if cases else modes[0])

    def show_mode(self, mode_id: str) -> None:
        """Go into a mode: by a case of its own, or with the present case where it weighs as another mode does."""
        case = next((case for case in self.studied.table.cases if case.mode.id == mode_id), None)
        before = self.mode.id
        self._mode_id = ""
        if case is None:
            self._mode_id = mode_id
        elif self.studied.table.cases[self.row].mode.id != mode_id:
            self.case_id = case.id
        if self.mode.id != before:
            self.case_changed.emit()

    @property
    def findings(self) -> tuple[Finding, ...]:
        """All findings; each with the remedy that was found for it while it still says the same."""
        if self.reading_first:
            return ()
        from uncle_sled.core.findings.all_findings import at_rest, findings_in_hand, findings_now, with_answers  # not for the start

        if self.dragging and self._rested is not None:
            rested = self.answers.of(at_rest).value or ()
            return findings_in_hand(self.studied, self._rested, self.mode.id, rested)
        now = findings_now(self.studied, self.answers.now(at_rest) or ())
        settled = self._settled()
        return with_answers(now, settled) if settled is not None else now

    def _settled(self) -> tuple[Finding, ...] | None:
        """Findings with their remedies, where they were looked for in the build as it is."""
        if self.reading_first:
            return None  # the search is not loaded before the first reading
        from uncle_sled.core.remedies.remedies import with_remedies

        answer = self.answers.of(with_remedies)
        return answer.value if answer.fresh else None

    def judge_now(self) -> None:
        """The first reading is on the screen: what is said about it follows."""
        if self.reading_first:
            self.reading_first = False
            self.ask_at_rest()
            self.judged.emit()

    @property
    def remedies_pending(self) -> bool:
        return self._settled() is None

    # edits
    def edit(
        self,
        says: str,
        ops: Iterable[Op],
        stop: str | None = None,
        ids: tuple[str, ...] = (),
        merge: str | None = None,
        whole_project: bool = False,
    ) -> bool:
        """Apply an edit to the open variant (or the project); what cannot be is said and nothing changes."""
        ops = tuple(ops)
        self.let_go()
        self.put_back(because=f"{says} came first")
        try:
            after = apply(self.project, ops) if whole_project else self.project.with_build(apply(self.build, ops))
        except SledError as fault:
            self.said.emit(str(fault), "stop")
            return False
        return self.take(says, after, stop or stop_of((op.path for op in ops), self.stop), ids, merge)

    def take(self, says: str, after: Project, stop: str | None = None, ids: tuple[str, ...] = (), merge: str | None = None) -> bool:
        """Make a project the present one as a named step; False where it changes nothing."""
        before = self.history
        if not self.dragging and after.open_variant == self.project.open_variant:
            after = after.with_build(with_sized_names(after.build, self.build))
        after, said = referring_right(after, self.project)
        if after is not self.project:
            faults = of_no_sense(after, materials(), self.project)
            if faults:
                self.said.emit(faults[0].split(".", 2)[-1], "stop")  # without the variant, which is the open one
                return False
        self.history = before.took(says, stop or self.stop, ids, after, merge)
        if self.history is before:
            return False
        self._changed()
        if said and not self.dragging:
            self.said.emit(said[0] if len(said) == 1 else f"{said[0]} And {len(said) - 1} more of the kind.", "note")
        return True

    # a hand
    @property
    def dragging(self) -> bool:
        """Whether a hand moves something: until it lets go, only what fits a frame is judged anew."""
        return self.hand is not None and self.hand.moved

    def take_up(self, says: str, ids: tuple[str, ...] = ()) -> Hand:
        """Something is in a hand from now on; what was tried is put back, and what was in a hand before is let go."""
        self.let_go()
        self.put_back(because=f"{lower_first(says)} came first")
        self._hands += 1
        self.hand = Hand(self, self._hands, says, ids)
        return self.hand

    def hand_moves(self, _hand: Hand) -> None:
        self._rested = self.studied

    def hand_rests(self, hand: Hand) -> None:
        """The hand let go: the next drag is a step of its own."""
        if self.hand is hand:
            self.hand = None
        self._rested = None
        self.history = self.history.sealed()
        if hand.moved:
            self._rest.start()
            self.judged.emit()

    def let_go(self) -> None:
        """Whatever is in a hand is put down where it is."""
        if self.hand is not None:
            self.hand.let_go()

    def undo(self) -> None:
        self._step(lambda h: h.done[-1:], "Undone", lambda: self.history.undo())

    def redo(self) -> None:
        self._step(lambda h: h.undone[:1], "Done again", lambda: self.history.redo())

    def show_step(self, step: Step) -> None:
        """Go to where a step changed something and point at it."""
        if step.stop in TRAIL:
            self.go_to(step.stop)
        self.flash.emit(step.ids)

    def _step(self, find: Callable[[History], tuple[Step, ...]], word: str, go: Callable[[], History]) -> None:
        self.let_go()
        self.put_back()
        step = next(iter(find(self.history)), None)
        if step is None:
            self.said.emit("Nothing to undo." if word == "Undone" else "Nothing to do again.", "note")
            return
        self.history = go()
        if step.stop in TRAIL:
            self.go_to(step.stop)
        self._changed()
        self.said.emit(f"{word}: {step.says}.", "note")
        self.flash.emit(step.ids)

    def _changed(self) -> None:
        if self.dragging:  # nothing comes or goes under a hand
            self.changed.emit()
            return
        there = self._there() if self.selection else ()
        kept = tuple(id for id in self.selection if id in there)
        if kept != self.selection:
            self.selection = kept
            self.selected.emit()
        self.answers.build_changed()
        self._rest.start()
        self.changed.emit()

    def _there(self) -> set[str]:
        """Ids of all that can be chosen."""
        there = (
            {thing.id for thing in self.build.stow.things}
            | {axle.id for axle in self.build.rig.axles}
            | {face.id for face in self.build.shell.faces}
            | {opening.id for opening in self.build.shell.openings}
            | {inner.id for inner in self.build.shell.inner}
            | self.build.systems.ids
        )
        if any("/" in id for id in self.selection):  # a stick of the frame
            there |= {member.id for member in self.studied.framed.members}
        return there

    # the build on a day
    def schedule(self) -> Schedule:
        """The best calendar there is for the build as it is."""
        from uncle_sled.core.studies.build.schedule import best_schedule, schedule_of

        answer = self.answers.of(best_schedule)
        if answer.fresh and answer.value is not None:
            return answer.value
        return schedule_of(self.build, self.facts)

    def show_day(self, day: float | None) -> None:
        """Look at what stands there when so many days have gone by; None: at the whole build."""
        if day != self.day:
            self.day = day
            self.day_changed.emit()

    # remedies
    def ask_at_rest(self) -> None:
        """The hand rests: what takes longer than a frame is judged, and what helps is looked for in the worker."""
        if self.dragging or self.reading_first:
            return
        from uncle_sled.core.findings.all_findings import at_rest

        self.answers.ask(at_rest)
        if not self.answers.in_place:
            from uncle_sled.core.remedies.remedies import with_remedies

            self.answers.ask(with_remedies)

    def _answer(self, study: object) -> None:
        from uncle_sled.core.findings.all_findings import at_rest
        from uncle_sled.core.remedies.remedies import with_remedies

        if study is with_remedies:
            answer = self.answers.of(with_remedies)
            if answer.fault:
                self.said.emit(f"The search for remedies stopped: {answer.words}", "stop")
            elif answer.working and answer.value is not None and not answer.fresh:
                return  # it was asked; nothing new is said yet
        if study in (at_rest, with_remedies):
            self.judged.emit()

    def judge(self, answer: tuple[Finding, ...]) -> None:
        """Take findings with remedies for the build as it is."""
        from uncle_sled.core.remedies.remedies import with_remedies

        self.judge_now()
        self.answers.take(with_remedies, answer)

    # ghost
    def try_it(self, remedy: Remedy) -> None:
        """Show what a remedy would do, before anything changes."""
        try:
            self.ghost = (remedy, self.project.with_build(apply(self.build, remedy.ops)))
        except SledError as fault:
            self.said.emit(str(fault), "stop")
            return
        self.changed.emit()
        self.judged.emit()

    def keep(self) -> None:
        if self.ghost is None:
            return
        remedy, after = self.ghost
        self.ghost = None
        ids = tuple(op.path.split(".")[2] for op in remedy.ops if op.path.count(".") >= 2)
        self.take(remedy.says.split(":")[0], after, stop_of((op.path for op in remedy.ops), self.stop), ids)
        self.history = self.history.sealed()
        self.judged.emit()
        self.said.emit(f"Kept: {remedy.says}", "note")

    def put_back(self, because: str = "") -> None:
        if self.ghost is None:
            return
        self.ghost = None
        self.changed.emit()
        self.judged.emit()
        self.said.emit(f"Put back what was tried: {because}." if because else "Put back.", "note")

    # setting aside
    def set_aside(self, finding: Finding, reason: str) -> None:
        """A finding set aside with its reason and today's date; it returns when it worsens by a tenth."""
        record = {"id": finding.id, "reason": reason.strip() or "no reason given", "date": today(), "number": finding.number}
        ops = [remove(f"set_aside.{finding.id}")] if any(old.id == finding.id for old in self.build.set_aside) else []
        self.edit(f"Set aside: {finding.title}", [*ops, add_to("set_aside", record)], finding.stop, finding.where)

    def no_more_aside(self, finding: Finding) -> None:
        self.edit(f"Take up again: {finding.title}", [remove(f"set_aside.{finding.id}")], finding.stop, finding.where)

    # what is shown
    def select(self, ids: tuple[str, ...]) -> None:
        if ids != self.selection:
            self.selection = ids
            self.selected.emit()

    def show_case(self, case_id: str) -> None:
        if case_id != self.case_id or self._mode_id:
            self.case_id, self._mode_id = case_id, ""
            self.case_changed.emit()

    def step_case(self, by: int) -> None:
        cases = self.studied.table.cases
        if cases:
            self.show_case(cases[(self.row + by) % len(cases)].id)

    def go_to(self, stop: str) -> None:
        if stop != self.stop:
            self.let_go()
            self.put_back(because="another stop was opened")
            self.show_day(None)  # what other stops draw is the whole build
            self.stop = stop
            self.stop_changed.emit(stop)

    # file
    def save(self, path: Path) -> bool:
        self.let_go()
        self.put_back(because="it was saved as it stood")
        try:
            sled_file.save(self.project, path)
        except SledError as fault:
            self.said.emit(str(fault), "stop")
            return False
        self.path = path
        self.history = self.history.was_saved()
        self.said.emit(f"Saved {path.name}.", "note")
        self.file_changed.emit()
        return True

    def open(self, project: Project, path: Path | None, unsaved: bool = False, read_only: bool = False) -> None:
        """Begin with another project; what was open is let go. ``unsaved``: it came back from an autosave."""
        self.let_go()
        self.ghost = None
        self.history = History(project, saved=None if unsaved else project)
        self.path, self.read_only = path, read_only
        self.selection = ()
        self.case_id = ""
        self.day = None
        self.answers.forget()
        self._studied = self._row = None
        forget()
        self.selected.emit()
        self._changed()
        self.case_changed.emit()
        self.file_changed.emit()
        self.opened.emit()
