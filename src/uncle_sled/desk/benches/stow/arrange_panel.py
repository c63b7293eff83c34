"""Arrange: what must be so, three arrangements that keep to it, each tried as a ghost, locked piece by piece and looked for again."""

from __future__ import annotations

from uncle_sled.core.document.edits import add_to, apply, remove
from uncle_sled.core.document.project import Build
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.stow import Place
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.arranged_plans import arranged_plans
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.reading.studied import Studied, study
from uncle_sled.core.remedies.arranging import told
from uncle_sled.core.remedies.arranging.arrange import Arranged, Put, arrangements
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.clicked import Clicked
from uncle_sled.desk.kit.form import Row
from uncle_sled.desk.kit.panel import Group, Panel, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Busy, DrawingOf, Fields, Listed, Remade, Says, note
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session

FORM_PX = 250


class ArrangePanel(Panel):
    follows = ("changed", "case_changed", "selected")

    def __init__(self, session: Session) -> None:
        self.picked = 0  # 0: as it is drawn
        self._tried: tuple[tuple[object, ...], Arranged, tuple[Studied, ...]] | None = None
        super().__init__(session)
        for signal in (session.answers.changed, session.answers.told):
            signal.connect(lambda study: self.refresh() if study is arrangements else None)
        self.plans.picked.connect(self._clicked)

    def laid(self) -> Group:
        tried = lambda: self.session.ghost is not None
        self.plans = self.put(
            DrawingOf(
                "Arrangements from above",
                self._shapes,
                "",
                "Nothing is aboard yet: add things on Drawing.",
                least=(0, 150),
                kind=Clicked,
                share=4,
            )
        )
        columns: tuple[Column[Put], ...] = (
            Column("Piece", lambda put: put.name),
            Column("Goes", lambda put: told.moved_words(put, self.words), sort=lambda put: not put.moved),
            Column("Stays there", lambda _: "", ticked=self._locked, tick=self._lock, tip="It is looked for again around what stays"),
        )
        self.table = self.put(
            Listed[Put](
                "Where the pieces of this arrangement go",
                columns,
                self._puts,
                lambda put: put.id,
                lambda put: self.session.select((put.id,)),
                lambda put: put.id in self.session.selection,
                turns=True,
                share=2,
            )
        )
        return rows(
            tools(
                Act("Arrange it", told.LOOKS_FOR, self.arrange, lambda: not self.session.answers.of(arrangements).working, plain=True),
                Act("Keep", "What is tried stays (Ctrl+Enter)", self.session.keep, tried, plain=True),
                Act("Put back", "It stays as it was (Esc)", self.session.put_back, tried, plain=True),
                Act(
                    "Unlock all",
                    "Nothing is locked any more",
                    self.unlock,
                    lambda: bool(self.session.build.stow.arranging.locked),
                    plain=True,
                ),
                Busy(arrangements, share=8),
            ),
            Says(self._told),
            self.plans,
            across(
                rows(Remade(self._doors, lambda: Fields("It must be so", self._wishes(), "Stow", 104), wide=FORM_PX)),
                rows(self.table, Says(self._stay, "pencil", "small", hides=True), share=1),
                gap=8,
                share=2,
            ),
            note(told.CAUTION),
        )

    # what was found
    def arrange(self) -> None:
        """Ask; the desk goes on meanwhile."""
        self.session.put_back(because="arrangements were looked for")
        self.picked = 0
        self.session.answers.ask(arrangements)

    @property
    def found(self) -> Arranged | None:
        """The newest answer while the things and the room that it was found for are the same; wishes may have changed since."""
        return self._both[0] if self._both is not None else None

    @property
    def _both(self) -> tuple[Arranged, tuple[Studied, ...]] | None:
        """The answer and each arrangement as a build."""
        answer, build = self.session.answers.of(arrangements), self.session.build
        of = (build.stow.things, build.stow.modes, build.shell, build.rig)
        if answer.fresh and answer.value is not None and (self._tried is None or self._tried[1] is not answer.value):
            facts = self.session.facts
            made = tuple(study(apply(build, one.ops), facts) for one in answer.value.found)
            self._tried, self.picked = (of, answer.value, made), 0
        if self._tried is None or any(a is not b for a, b in zip(self._tried[0], of, strict=True)):
            return None
        return self._tried[1:]

    def _told(self) -> str:
        answer, found = self.session.answers.of(arrangements), self.found
        if answer.working:
            return "Looking for places, arrangements and what each of them spoils…"
        if answer.fault:
            return f"The search stopped: {answer.words}"
        if found is None:
            return answer.words or told.LOOKS_FOR
        again = "" if answer.fresh else "What must be so has changed since: look again. "
        return again + told.summary(found, self.words)

    def _stay(self) -> str:
        found = self.found
        said = told.stays_words(found, self.studied) if found is not None else ""
        return f"Left where they are: {said}." if said else ""

    # the pictures
    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, both = self.studied, self._both
        tried = [("As it is drawn", s, self._now())]
        if both is not None:
            for at, (one, after) in enumerate(zip(both[0].found, both[1], strict=True), 1):
                tried.append((told.heading(at, one), after, told.lines(one, self.words)))
        return arranged_plans(s, tried, self.session.row, self.picked, width, height)

    def _now(self) -> tuple[str, ...]:
        found = self.found
        return (f"Wire, hose, pipe {self.words.m(found.found[0].run_before_m)}",) if found is not None and found.found else ()

    def _clicked(self, id: str) -> None:
        if id.isdigit():
            self.try_it(int(id))

    def try_it(self, at: int) -> None:
        """Try an arrangement as a ghost, by its number; 0 puts back what is tried."""
        found = self.found
        self.session.put_back()
        self.picked = at if found is not None and at <= len(found.found) else 0
        if found is not None and self.picked:
            one = found.found[self.picked - 1]
            says = told.offer(self.picked, one)
            self.session.try_it(Remedy(says, one.ops, ()))
            self.session.said.emit(f"Trying: {says}. Ctrl+Enter keeps it, Esc puts it back.", "note")
        self.refresh()

    def try_first(self) -> None:
        """Find arrangements and try the first."""
        self.arrange()
        if self.found is not None and self.found.found:
            self.try_it(1)

    # its pieces
    def _puts(self) -> tuple[Put, ...]:
        found = self.found
        if found is None or not self.picked:
            return ()
        return tuple(sorted(found.found[self.picked - 1].puts, key=lambda put: not put.moved))

    def _locked(self, put: Put) -> bool:
        return any(place.id == put.id for place in self.session.build.stow.arranging.locked)

    def _lock(self, put: Put, on: bool) -> bool:
        """A piece stays where this arrangement puts it, or does not any more; what was found stays on the screen."""
        path = "stow.arranging.locked"
        ops = [remove(f"{path}.{put.id}")] if self._locked(put) else []
        if on:
            x, y, z, turn = put.now
            record = Place(put.id, Length(x), Length(y), Length(z), turn)  # type: ignore[arg-type]
            ops.append(add_to(path, record))
        picked = self.picked
        done = self.session.edit(f"{'Lock' if on else 'Unlock'} the {lower_first(put.name)}", ops, "Stow", (put.id,))
        self.picked = picked
        self.refresh()
        return done

    def unlock(self) -> None:
        """Nothing is locked any more."""
        locked = self.session.build.stow.arranging.locked
        self.session.edit("Unlock all pieces", [remove(f"stow.arranging.locked.{place.id}") for place in locked], "Stow")

    # what must be so
    def _doors(self) -> tuple[tuple[str, str], ...]:
        return doors_of(self.session.build)

    def _wishes(self) -> list[Row]:
        path = "stow.arranging"
        names = [("", "anywhere"), *self._doors()]
        return [Row(f"{path}.beds"), Row(f"{path}.kitchen", kind=names), Row(f"{path}.toilet"), Row(f"{path}.battery"), Row(f"{path}.low")]


def doors_of(build: Build) -> tuple[tuple[str, str], ...]:
    """Doors and hatches that a kitchen can stand at."""
    return tuple((opening.id, opening.name) for opening in build.shell.openings if opening.kind in ("door", "hatch"))
