"""The trade drawn: for two wishes that fight, what is known to be best, and the open build on it; a click takes a step as a ghost."""

from __future__ import annotations

from functools import partial

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.trade_chart import Dot, trade_chart
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.remedies.deciding.points import BY_ID, MEASURES, TRADES, Known, Point, front, told
from uncle_sled.core.words import count_of, lower_first, upper_first
from uncle_sled.desk.kit.clicked import Clicked
from uncle_sled.desk.kit.job import Job
from uncle_sled.desk.kit.panel import Group, Panel, rows, tools
from uncle_sled.desk.kit.parts import Act, Choice, DrawingOf, Says, note
from uncle_sled.desk.session import Session

JOB = "uncle_sled.core.remedies.deciding.points:known_builds"
LOOKS_FOR = "Reckons the variants and every change of one step that is known, each over everything. Nothing changes until you keep one."
CAUTION = "Best of what was tried, and no more: there may be better builds that nobody drew. Ochre brings something new to stop for."


class TradePanel(Panel):
    follows = ("changed",)

    def __init__(self, session: Session) -> None:
        self.a, self.b = TRADES[0]
        self.picked = ""
        self.job = Job(session, JOB, "trade")
        super().__init__(session)
        self.job.changed.connect(self.refresh)
        self.chart.picked.connect(self.pick)

    def laid(self) -> Group:
        tried = lambda: self.session.ghost is not None
        self.chart = self.put(
            DrawingOf(
                "Two wishes against each other",
                self._shapes,
                "",
                lambda: "Press “Reckon them”." if self.known is None else "Too little is known of these two.",
                kind=Clicked,
                share=1,
            )
        )
        measures = [(measure.id, measure.name) for measure in MEASURES]
        return rows(
            tools(
                Act("Reckon them", LOOKS_FOR, self.reckon, lambda: not self.job.working, plain=True),
                Act("Stop", "Leave off; nothing is changed", self.job.stop, lambda: self.job.working, plain=True),
                Choice("Across", measures, partial(self._choose, "a"), lambda: self.a, letters=18),
                Choice("Up", measures, partial(self._choose, "b"), lambda: self.b, letters=18),
                Act("Keep", "What is tried stays (Ctrl+Enter)", self.session.keep, tried, plain=True),
                Act("Put back", "It stays as it was (Esc)", self.session.put_back, tried, plain=True),
            ),
            Says(self._told),
            self.chart,
            Says(self._of_picked, hides=True),
            note(CAUTION),
        )

    def reckon(self) -> None:
        """Ask; the desk goes on meanwhile."""
        self.session.put_back(because="builds were reckoned")
        self.picked = ""
        self.job.ask()

    def _choose(self, which: str, measure: str) -> None:
        setattr(self, which, measure)
        self.refresh()

    @property
    def known(self) -> Known | None:
        return self.job.value if self.job.fresh else None

    def _told(self) -> str:
        if self.job.doing:
            return self.job.doing
        known = self.known
        if known is None:
            return self.job.words or LOOKS_FOR
        best = front(known.points, self.a, self.b)
        here = any(point.id == "" for point in best)
        names = f"{BY_ID[self.a].name.lower()} and {BY_ID[self.b].name.lower()}"
        where = (
            "It is among the best of them as it is."
            if here
            else "None is better in both than these, and the open build is not one of them."
        )
        failed = f" {len(known.failed)} cannot be drawn." if known.failed else ""
        return f"{count_of(len(known.points), 'build')} by {names}; {len(best)} of them the best. {where}{failed}"

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        known = self.known
        if known is None:
            return ()
        best = {point.id for point in front(known.points, self.a, self.b)}
        dots = []
        for point in known.points:
            x, y = point.value(self.a), point.value(self.b)
            if x is not None and y is not None:
                dots.append(Dot(point.id, point.says, x, y, point.id == "", point.id in best, not point.stops))
        says = (lambda v: told(self.a, v, self.words), lambda v: told(self.b, v, self.words))
        return trade_chart(dots, (BY_ID[self.a].name, BY_ID[self.b].name), says, self.picked, width, height)

    def _point(self, id: str) -> Point | None:
        known = self.known
        return next((point for point in known.points if point.id == id), None) if known is not None else None

    def pick(self, id: str) -> None:
        """A step is tried as a ghost; a variant is named, to be opened from the header."""
        point = self._point("" if id == "now" else id) if id else None
        self.session.put_back()
        self.picked = point.id if point is not None else ""
        if point is not None and point.ops:
            self.session.try_it(Remedy(point.says, point.ops, ()))
        elif point is not None and point.variant:
            self.session.said.emit(f"That is the variant “{point.says}”: open it under the build's name above.", "note")
        self.refresh()

    def _of_picked(self) -> str:
        point = self._point(self.picked) if self.picked else None
        now = self._point("")
        if point is None or now is None:
            return ""
        parts = []
        for measure in MEASURES:
            was, value = now.value(measure.id), point.value(measure.id)
            if was is not None and value is not None and abs(was - value) > 1e-3:
                parts.append(f"{lower_first(measure.name)} {told(measure.id, value, self.words)}, now {told(measure.id, was, self.words)}")
        stops = f" {count_of(point.stops, 'new thing')} to stop for." if point.stops else ""
        stops += f" {count_of(point.minds, 'new thing')} to mind." if point.minds else ""
        return f"{upper_first(point.says)}: {'; '.join(parts) or 'nothing of these changes'}.{stops}"
