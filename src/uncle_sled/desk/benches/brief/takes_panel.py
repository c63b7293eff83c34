"""What it would take: a wish typed in words, the cheapest changes that get there, each tried as a ghost, or why none does."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.takes_chart import takes_chart
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.remedies.deciding.points import BY_ID, told
from uncle_sled.core.remedies.deciding.takes import Taken, Takes, wanted
from uncle_sled.core.words import count_of, lower_first, upper_first
from uncle_sled.desk.kit.job import Job
from uncle_sled.desk.kit.panel import Group, Panel, rows, tools
from uncle_sled.desk.kit.parts import Act, Drawing, Entry, Listed, Says, note
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session

JOB = "uncle_sled.core.remedies.deciding.takes:what_it_takes"
ASKS = "Ask in your own words: 10 nights; {200 kg} less; a second battery; 500 less money; 100 W warmer; rolls by May."
TIP = "A wish in your own words, and what would get there"
CAUTION = "Cheapest of the sets that were reckoned whole, up to three changes of one step; not proven least, and not all there could be."


class TakesPanel(Panel):
    follows = ("changed",)

    def __init__(self, session: Session) -> None:
        self.wish = ""
        self.job = Job(session, JOB, "takes")
        super().__init__(session)
        self.job.changed.connect(self.refresh)

    def laid(self) -> Group:
        tried = lambda: self.session.ghost is not None
        columns: tuple[Column[Taken], ...] = (
            Column("What it would take", lambda one: "; ".join((one.says[0], *(lower_first(said) for said in one.says[1:])))),
            Column("Gets to", self._value, right=True),
            Column(
                "Money more",
                lambda one: "?" if one.costs is None else f"{one.costs:+,.0f}".replace(",", "\u00a0").replace("-", "−"),
                right=True,
            ),
            Column(
                "New to mind",
                lambda one: str(one.stops + one.minds) if one.stops + one.minds else "",
                right=True,
                ink=lambda one: "primer" if one.stops else "ochre word",
            ),
            Column("Weight more", lambda one: "?" if one.kg is None else self.words.signed_kg(one.kg), right=True),
        )
        self.table = self.put(
            Listed[Taken](
                "Sets of changes, the cheapest first", columns, self._sets, lambda one: one.says, self.try_it, turns=True, share=1
            )
        )
        return rows(
            tools(
                Entry("What do you want", self.ask, "10 nights", TIP, lambda: self.wish, least=260),
                Act("What it would take", TIP, self._again, lambda: not self.job.working, plain=True),
                Act("Stop", "Leave off; nothing is changed", self.job.stop, lambda: self.job.working, plain=True),
                Act("Keep", "What is tried stays (Ctrl+Enter)", self.session.keep, tried, plain=True),
                Act("Put back", "It stays as it was (Esc)", self.session.put_back, tried, plain=True),
            ),
            Says(self._told),
            self.table,
            Drawing("From now to what is wanted", self._shapes, "", "Here the wish and what gets to it will stand, once you ask.", share=2),
            note(CAUTION),
        )

    def ask(self, text: str) -> None:
        """A wish was typed."""
        self.wish = text
        self.session.put_back(because="something else was asked")
        self.job.ask(text)

    def _again(self) -> None:
        self.ask(self.wish)

    @property
    def takes(self) -> Takes | None:
        return self.job.value if self.job.fresh and not self.job.fault else None

    def _told(self) -> str:
        if self.job.doing:
            return self.job.doing
        takes = self.takes
        if takes is None:
            return self.job.words or self.session.told(ASKS)
        now = f" Now {told(takes.goal.measure, takes.now, self.words)}." if takes.now is not None and takes.goal.measure in BY_ID else ""
        if takes.found:
            much = f"out of {count_of(takes.reckoned, 'set')} reckoned whole and {takes.sets} ranked"
            return f"{upper_first(takes.goal.says)}.{now} {count_of(len(takes.found), 'way')} to it {much}; click one to try it."
        return f"{upper_first(takes.goal.says)}.{now} {takes.why}"

    def _sets(self) -> tuple[Taken, ...]:
        takes = self.takes
        if takes is None:
            return ()
        return takes.found or ((takes.best,) if takes.best is not None else ())

    def _value(self, one: Taken) -> str:
        takes = self.takes
        return told(takes.goal.measure, one.value, self.words) if takes is not None and takes.goal.measure in BY_ID else ""

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        takes = self.takes
        if takes is None or takes.now is None or not takes.goal.measure:
            return ()
        sets = [("; ".join(one.says), one.value, one.reaches) for one in self._sets() if one.value is not None]
        says = lambda value: told(takes.goal.measure, value, self.words)
        return takes_chart(sets, takes.now, wanted(takes.goal, takes.now), says, width, height)

    def try_it(self, one: Taken) -> None:
        """A set as a ghost."""
        self.session.put_back()
        says = "; ".join(one.says)
        self.session.try_it(Remedy(says, one.ops, ()))
        self.session.said.emit(f"Trying: {says}. Ctrl+Enter keeps it, Esc puts it back.", "note")
        self.refresh()
