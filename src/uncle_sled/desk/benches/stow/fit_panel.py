"""Who fits, who gets out, what is at hand: one line each with its number, limit and verdict, beside the drawing's modes."""

from __future__ import annotations

from collections.abc import Iterator

import msgspec
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QGridLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.stow.fit_plan import fit_plan
from uncle_sled.core.findings.stow.fit_words import kit_words, passing_words, size_words
from uncle_sled.core.parts.part import Part
from uncle_sled.core.studies.stow import at_hand
from uncle_sled.core.studies.stow.beds import STAND_OVER_M, beds_in, narrow, sleepers_in, standing_room_m, tallest_m
from uncle_sled.core.studies.stow.clashes import modes_in_use
from uncle_sled.core.studies.stow.room import room_of
from uncle_sled.core.studies.stow.ways_out import least_m, ways_out
from uncle_sled.core.words import Words, lower_first, upper_first
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

MARKS = {"good": ("✓", "spruce"), "mind": ("!", "ochre word"), "bad": ("✗", "primer"), "none": ("–", "pencil")}
MOST_LINES = 9


class Said(msgspec.Struct, frozen=True):
    """One line: its verdict, what it says, and what it points at."""

    verdict: str
    text: str
    ids: tuple[str, ...] = ()


PLAN_PX = 170


class Card(Guarded, QFrame):
    """A heading and its lines; a line that points at something is a link."""

    def __init__(self, session: Session, title: str) -> None:
        super().__init__()
        self.session, self.title = session, title
        self.setObjectName("card")
        rows = QVBoxLayout(self)
        rows.setContentsMargins(12, 8, 12, 10)
        rows.setSpacing(4)
        rows.addWidget(label(title, "title"))
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(8)
        self.grid.setVerticalSpacing(3)
        self.grid.setColumnStretch(1, 1)
        rows.addLayout(self.grid)
        self.lines: list[tuple[QLabel, QLabel, QPushButton]] = []
        for at in range(MOST_LINES):
            mark, text, show = label("", "strong"), label("", wrap=True), QPushButton("show")
            show.setProperty("kind", "link")
            mark.setAlignment(Qt.AlignmentFlag.AlignTop)
            text.setAlignment(Qt.AlignmentFlag.AlignTop)
            show.clicked.connect(lambda _=False, at=at: self._show(at))
            for column, widget in enumerate((mark, text, show)):
                self.grid.addWidget(widget, at, column, Qt.AlignmentFlag.AlignTop)
                widget.hide()
            self.lines.append((mark, text, show))
        self.said: list[Said] = []

    def show_lines(self, said: list[Said]) -> bool:
        """Returns whether anything changed."""
        if said == self.said:
            return False
        self.said = said
        for (mark, text, show), one in zip(self.lines, [*said[:MOST_LINES], *[None] * MOST_LINES], strict=False):
            for widget in (mark, text, show):
                widget.setVisible(one is not None)
            if one is None:
                continue
            sign, ink = MARKS[one.verdict]
            mark.setText(sign)
            if mark.property("ink") != ink:
                mark.setProperty("ink", ink)
                mark.style().unpolish(mark)
                mark.style().polish(mark)
            text.setText(one.text)
            show.setVisible(bool(one.ids))
        return True

    def _show(self, at: int) -> None:
        ids = self.said[at].ids if at < len(self.said) else ()
        self.session.select(ids)
        self.session.flash.emit(ids)

    def fit_width(self, wide: int) -> None:
        """Give every line the height that its words want at a width."""
        room = wide - 24 - 22 - (56 if any(one.ids for one in self.said) else 0)
        for _, (_, text, _show) in zip(self.said, self.lines, strict=False):
            high = text.heightForWidth(max(room, 80))
            if high > 0 and high != text.minimumHeight():
                text.setFixedHeight(high)


class FitPanel(Guarded, QWidget):
    """Cards in as many columns as there is room for."""

    TITLES = ("In bed", "Ways out", "On arrival", "Through the doors", "Sitting, standing, cooking", "Left and right")

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.cards = {title: Card(session, title) for title in self.TITLES}
        self.columns = Columns(list(self.cards.values()))
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        self.head = label("", "small", "pencil", wrap=True)
        rows.addWidget(self.head)
        rows.addWidget(self.columns, 3)
        self.plan = Chart(session, "Who fits, seen from above", self._plan, empty=lambda: "No body yet: draw it on the Shell stop.")
        self.plan.setMinimumHeight(PLAN_PX)
        session.selected.connect(self.plan.update)
        rows.addWidget(self.plan, 2)
        session.changed.connect(self.refresh)
        session.case_changed.connect(self.refresh)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def _plan(self, width: float, height: float) -> tuple[Primitive, ...]:
        session = self.session
        return fit_plan(session.studied, self._standing(), session.selection, self._words(), width, height)

    def _standing(self) -> Mode:
        """The shown mode where it stands, else the first one that does."""
        build, now = self.session.build, self.session.mode
        used = modes_in_use(build)
        return now if now.id in used else next(mode for mode in build.stow.modes if mode.id in used)

    def refresh(self) -> None:
        if not self.isVisible():
            return
        mode = self._standing()
        self.head.setText(f"Judged in {mode.name}. Screening only: local rules on escape, gas and fire, and those who apply them, decide.")
        made = {
            "In bed": list(self._beds(mode)),
            "Ways out": list(self._ways(mode)),
            "On arrival": list(self._arrival()),
            "Through the doors": list(self._doors(mode)),
            "Sitting, standing, cooking": list(self._upright(mode)),
            "Left and right": list(self._sides()),
        }
        changed = [self.cards[title].show_lines(said) for title, said in made.items()]
        if any(changed):
            self.columns.settle()

    def _words(self) -> Words:
        return Words(self.session.shown)

    def _beds(self, mode: Mode) -> Iterator[Said]:
        build, facts, words = self.session.build, self.session.facts, self._words()
        sleepers, beds = sleepers_in(build, facts, mode), beds_in(build, facts, mode)
        names = {bed.id: bed for bed in beds}
        for one in sleepers:
            if one.fits and one.bed:
                bed = names[one.bed]
                yield Said(
                    "good", f"{one.name}, {words.m(one.tall_m or 0)}: {lower_first(bed.name)}, {words.m(bed.long_m)} long", (bed.id,)
                )
            elif one.tall_m is None:
                yield Said("none", f"{one.name}: no height yet; type it on the Brief")
            else:
                longest = max((bed.long_m for bed in beds), default=0.0)
                why = (
                    f"the longest bed is {words.m(longest)}, {words.m(one.tall_m + 0.1)} is wanted"
                    if beds and longest < one.tall_m + 0.1
                    else one.why
                )
                yield Said("bad", f"{one.name}: {why}")
        if not sleepers:
            yield Said("none", "Nobody sleeps in it yet; add them on the Brief.")
        for bed in beds:
            each = narrow(bed, sleepers)
            if each is not None:
                yield Said("mind", f"{bed.name}: {words.m(each)} each; {words.m(0.6)} is good", (bed.id,))
            if bed.head_room_m is not None:
                fits = bed.head_room_m >= 0.9
                verdict = "good" if fits else "mind" if build.brief.sits_up else "none"
                yield Said(verdict, f"{words.m(bed.head_room_m)} over the {lower_first(bed.name)}; {words.m(0.9)} to sit up", (bed.id,))

    def _ways(self, mode: Mode) -> Iterator[Said]:
        build, facts, words = self.session.build, self.session.facts, self._words()
        ways = ways_out(build, facts, mode)
        if not ways:
            yield Said("none", "No door, hatch or window is drawn yet; cut them in on the Shell stop.")
        for way in ways[: MOST_LINES - 1]:
            size = f"{words.m(way.clear_m[0])} × {words.m(way.clear_m[1])}"
            if way.good:
                past = f", past the {way.through}" if way.through else ""
                yield Said("mind" if way.through else "good", f"{way.name}, {size}{past}")
            else:
                why = f"too small, {size}" if way.small else way.why
                yield Said("none", words.told(f"{way.name}: {why}"))
        if ways:
            yield Said("none", f"Two are wanted, {size_words(least_m(self.session.build.brief.lived_in), words)} clear at least.")

    def _arrival(self) -> Iterator[Said]:
        build, facts, words = self.session.build, self.session.facts, self._words()
        road = next((mode for mode in build.stow.modes if mode.towing), build.stow.modes[0])
        kit = at_hand.arrival_kit(build, facts, road)
        for one in kit[: MOST_LINES - 1]:
            yield Said(
                "good" if one.good else "bad", f"{one.name}: {kit_words(one, words)}", (one.id, *([one.behind] if one.behind else []))
            )
        if not kit:
            yield Said("none", "Nothing is marked as wanted first: blocks, cord, hose, gloves.")

    def _doors(self, mode: Mode) -> Iterator[Said]:
        build, facts, words = self.session.build, self.session.facts, self._words()
        going = sorted(at_hand.passing(build, facts), key=lambda one: one.good)
        for one in going[: MOST_LINES - 1]:
            yield Said(
                "good" if one.good else "bad",
                f"{one.name} {passing_words(one, words)}" if not one.good else f"{one.name} goes through",
                (one.id,),
            )
        if not going:
            yield Said("none", "Nothing that comes and goes is aboard, or no door is drawn.")
        wide = at_hand.aisle_m(build, facts, mode)
        if wide is not None:
            verdict = "good" if wide >= at_hand.GOOD_AISLE_M - 0.005 else "mind" if wide >= at_hand.AISLE_M - 0.005 else "bad"
            yield Said(verdict, f"Way from door to bed {words.m(wide)} wide; {words.m(0.5)} least, {words.m(0.6)} good")

    def _upright(self, mode: Mode) -> Iterator[Said]:
        build, facts, words = self.session.build, self.session.facts, self._words()
        tallest, room = tallest_m(build, facts), standing_room_m(build, facts)
        if room is not None and tallest is not None:
            want = tallest + STAND_OVER_M
            verdict = "good" if room >= want else "bad" if build.brief.stands else "none"
            yield Said(verdict, f"{words.m(room)} to stand in; the tallest wants {words.m(want)}")
        elif room is None and room_of(build, facts) is None:
            yield Said("none", "There is no body yet to stand in.")
        sit, want_seats = at_hand.seats(build, mode), build.brief.eats_inside
        if sit or want_seats:
            yield Said("good" if sit >= want_seats else "bad", f"{sit} can sit; {want_seats} eat inside")
        for one in at_hand.heights(build, facts, mode):
            low, high = one.span_m
            yield Said(
                "good" if one.good else "mind",
                f"{upper_first(one.name)}, {one.role}: {words.m(one.height_m)} up; {words.m(low)} to {words.m(high)}",
                (one.id,),
            )
        for id, name, height in at_hand.hatch_head_m(build, facts):
            if tallest is not None:
                yield Said(
                    "good" if height >= tallest else "mind",
                    f"{words.m(height)} under the open {lower_first(name)}; the tallest is {words.m(tallest)}",
                    (id,),
                )

    def _sides(self) -> Iterator[Said]:
        s, words, row = self.session.studied, self._words(), self.session.row
        left, right = float(s.readings.left_kg[row]), float(s.readings.right_kg[row])
        if left != left or left + right <= 0:
            yield Said("none", "No wheels or track yet, so no left and right.")
            return
        lean = (right - left) / (left + right)
        side = "right" if lean > 0 else "left"
        verdict = "good" if abs(lean) <= 0.05 else "mind"
        yield Said(verdict, f"{words.kg(left)} left, {words.kg(right)} right: {words.share(abs(lean))} heavy {side}; 5 % is the most")
        track = s.support.track_m if s.support else None
        if track:
            yield from self._owners(row, track, 1.0 if lean > 0 else -1.0)

    def _owners(self, row: int, track: float, sign: float) -> Iterator[Said]:
        """What pulls to the heavier side most, by its difference between the wheels."""
        table = self.session.studied.table
        sums: dict[str, float] = {}
        for at, id in enumerate(table.ids):
            sums[id.split("/")[0]] = sums.get(id.split("/")[0], 0.0) + float(table.mass_kg[row, at] * table.y_m[row, at])
        parts: dict[str, Part] = {part.id: part for part in self.session.studied.parts}
        words = self._words()
        for id, moment in sorted(sums.items(), key=lambda pair: -sign * pair[1])[:3]:
            if sign * moment > 0.5 and id in parts:
                yield Said(
                    "none",
                    f"{parts[id].name} puts {words.kg(2 * sign * moment / track)} more on the {'right' if sign > 0 else 'left'}",
                    (id,),
                )
