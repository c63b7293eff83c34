"""Balance: where the axle goes, what to move, how sure it is, and what is near its limit."""

from __future__ import annotations

import math

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from uncle_sled.core.document.placing import axle_shift_ops
from uncle_sled.core.drawing.balance import bars
from uncle_sled.core.drawing.balance.axle_chart import hitch_chart, hitch_words
from uncle_sled.core.drawing.balance.moves_plan import moves_plan
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.findings.finding import Remedy
from uncle_sled.core.reading.limits import axle_ratings_kg
from uncle_sled.core.remedies.move_sets import Move, MoveSets, Shift
from uncle_sled.core.studies.balance.axle_conflicts import TyreGap, clear_best_m, conflicts, tyre_gap
from uncle_sled.core.studies.balance.axle_placing import axle_placing, axles_over, balance_points, own_limits
from uncle_sled.core.studies.balance.hitch_height import hitch_curve
from uncle_sled.core.studies.balance.sureness import doubt_of_all_weighed_kg, load_kg, load_sigma_kg, owners
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.benches.balance.axle_sheet import AxleSheet
from uncle_sled.desk.benches.balance.panels import DrivingPanel, LimitsPanel, Lines, worst_row
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session

VIEWS = ("Axle", "Moves", "Sure", "Limits", "Driving")
TIPS = {
    "Axle": "The ball over the axle's place, drawn (1)",
    "Moves": "What to slide or swap so that every case is right (2)",
    "Sure": "How far the ball can be trusted, and what to weigh first (3)",
    "Limits": "Every rating with its worst case, the cars side by side (4)",
    "Driving": "What a stop, a grade, a lean, a person on the tail and a tight bend do (5)",
}
MOST_OWNERS = 6


class BalanceBench(Bench):
    stop = "Balance"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.view = "Axle"
        self.view_buttons = self.add_views(VIEWS, self.show_view, TIPS)
        self.end_top("")
        self.panels = QStackedWidget()
        self.limits, self.driving = LimitsPanel(session), DrivingPanel(session)
        for panel in (self._axle_panel(), self._moves_panel(), self._sure_panel(), self.limits, self.driving):
            self.panels.addWidget(panel)
        self.rows.addWidget(self.panels, 1)
        for signal in (session.changed, session.case_changed, session.judged):
            signal.connect(self.refresh)
        if session.worker is not None:
            session.worker.moved.connect(self._take_moves)
        self.refresh()

    def showEvent(self, event: object) -> None:
        self.refresh()

    def show_view(self, name: str) -> None:
        self.view = name
        self.view_buttons[name].setChecked(True)
        self.panels.setCurrentIndex(VIEWS.index(name))
        self.refresh()

    @property
    def words(self) -> Words:
        return Words(self.session.shown)

    def refresh(self) -> None:
        if not self.isVisible():
            return
        {
            "Axle": self._show_axle,
            "Moves": self._show_moves,
            "Sure": self._show_sure,
            "Limits": self.limits.refresh,
            "Driving": self.driving.refresh,
        }[self.view]()

    # axle ----------------------------------------------------------------------------------------------
    def _axle_panel(self) -> QWidget:
        panel = QWidget()
        rows = QVBoxLayout(panel)
        rows.setContentsMargins(0, 0, 0, 0)
        self.axle_sheet = AxleSheet(self.session)
        self.bed_chart = Chart(
            self.session,
            "Front and rear axle by case",
            lambda w, h: bars.bed_bars(self.session.studied, self.words, w, h),
            empty=lambda: "The vehicle's wheelbase and empty axle loads are still to be typed on the Rig stop.",
        )
        rows.addWidget(self.axle_sheet, 3)
        rows.addWidget(self.bed_chart, 3)
        low = QHBoxLayout()
        low.setSpacing(8)
        self.axle_lines = Lines("Where it goes")
        buttons = QHBoxLayout()
        self.best_button = QPushButton("Best place")
        self.best_button.setToolTip("The best place that nothing forbids, tried as a ghost")
        self.best_button.clicked.connect(lambda _=False: self.try_best())
        self.point_button = QPushButton("By balance point")
        self.point_button.setToolTip("The old way: the shown load's balance point, and the axle so far behind it")
        self.point_button.clicked.connect(lambda _=False: self.try_balance_point())
        self.sheet_button = QPushButton("Order sheet…")
        self.sheet_button.setToolTip("What the axle maker has to know, as PDF")
        self.sheet_button.clicked.connect(lambda _=False: self.window().export("axle-order"))  # type: ignore[attr-defined]
        buttons.addWidget(self.best_button)
        buttons.addWidget(self.point_button)
        buttons.addWidget(self.sheet_button)
        buttons.addStretch(1)
        self.axle_lines.rows.addLayout(buttons)
        self.hitch = Chart(self.session, "Axles and ball over the hitch's height", self._hitch_shapes)
        self.hitch.reads(self._hitch_read)
        low.addWidget(self.axle_lines, 3)
        low.addWidget(self.hitch, 4)
        rows.addLayout(low, 2)
        return panel

    def _hitch_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        curve = hitch_curve(s, worst_row(self.session))
        if curve is None:
            return ()
        return hitch_chart(curve, axle_ratings_kg(s.build.rig), self.words, width, height)

    def _hitch_read(self, x: float, y: float, width: float, height: float) -> str:
        curve = hitch_curve(self.session.studied, worst_row(self.session))
        return hitch_words(curve, x, self.words, width) if curve is not None else ""

    def _show_axle(self) -> None:
        s = self.session.studied
        bed = s.build.rig.carrier == "vehicle bed"
        self.axle_sheet.setVisible(not bed)
        self.bed_chart.setVisible(bed)
        self.hitch.setVisible(hitch_curve(s, worst_row(self.session)) is not None)
        placing = axle_placing(s)
        loose = s.build.rig.axle_place == "to be placed"
        self.best_button.setVisible(not bed)
        self.point_button.setVisible(not bed)
        self.point_button.setEnabled(placing is not None and loose and bool(balance_points(s)))
        self.sheet_button.setVisible(not bed)
        self.best_button.setEnabled(placing is not None and loose and s.support is not None and abs(placing.best_m - s.support.mean_axle_m) > 0.004)  # fmt: skip
        self.axle_lines.show_lines(self._bed_lines() if bed else self._axle_words())
        self.axle_sheet.update()

    def _axle_words(self) -> list[str]:
        s, words = self.session.studied, self.words
        placing = axle_placing(s)
        if placing is None or s.support is None:
            return [s.trouble or "There is no reading yet: an axle and something to carry are still missing."]
        names = {case.id: lower_first(case.name) for case in s.table.cases}
        lines = []
        if placing.window_m is not None:
            low, high = placing.window_m
            span = f"{words.m(low)} to {words.m(high)} serves" if high - low > 0.008 else f"Only {words.m(low)} serves"
            lines.append(f"{span} every case; the best is {words.m(placing.best_m)}.")
        elif placing.fighting_cases is not None:
            a, b = (names[id] for id in placing.fighting_cases)
            apart = f"{a} and {b} pull against each other"
            if a == b:
                least, most = own_limits(s, placing.fighting_cases[0])
                apart = f"{a} wants {words.kg(least.kg)} at least ({least.says}) and may have {words.kg(most.kg)} at most ({most.says})"
            lines.append(f"No place serves every case: {apart}. The least bad is {words.m(placing.best_m)}, {words.fine_kg(placing.worst_violation_kg)} out.")  # fmt: skip
        for over in axles_over(s, placing):
            kept = "" if over.kept_from_m is None else f" before {words.m(over.kept_from_m)}"
            by = f", {words.kg(over.least_over_kg)} at least" if over.kept_from_m is None else ""
            hitch = " The hitch's height shares it out." if s.support.independent else ""
            lines.append(f"Axle {over.number} is over its rating{kept or ' wherever it stands'} ({names[over.case_id]}{by}).{hitch}")  # fmt: skip
        if s.build.rig.axle_place == "fixed":
            lines.append(
                "The axle is fixed; move things instead, or say on the Rig stop that it is still to be placed."
            )
        shown = self._balance_point()
        if shown is not None:
            point, place, name = shown
            lines.append(f"By hand: load it as {lower_first(name)}, find the point where it balances, {words.m(point)} from the ball, and put the axle {words.m(place - point)} behind it.")  # fmt: skip
        axles = {a.id for a in s.build.rig.axles}
        along = sum(p.mass_kg for p in s.parts if p.id in axles)
        if along:
            lines.append(f"{words.kg(along)} of axle, wheels and springs move with it.")
        gap = tyre_gap(s)
        if gap is not None:
            lines.append(self._tyre_words(gap))
        if s.band.limit_kg is not None:
            lines.append(
                f"Whatever the share, never over {words.kg(s.band.limit_kg)} on the ball: the lowest rating holds."
            )
        lines.append("Screening only: axle maker, plates and local law decide.")
        return lines

    def _tyre_words(self, gap: TyreGap) -> str:
        sides = [(gap.left_m, "left"), (gap.right_m, "right")]
        if gap.left_m == gap.right_m:
            sides = [(gap.left_m, "beside")]
        sides += [(gap.over_m, "over it at full travel"), (gap.along_m, "ahead and behind")]
        told = [f"{self.words.thick(max(v, -9.0))} {where}" for v, where in sides if v is not None]
        return "Room round the tyre: " + ", ".join(told) + ("." if gap.measured else "; measure both sides.")

    def _bed_lines(self) -> list[str]:
        s, words = self.session.studied, self.words
        b = s.readings
        if b.axle_kg.shape[1] != 2 or not len(b.total_kg):
            return ["No wheelbase yet, so no axle loads."]
        row = self.session.row
        front, rear, total = (float(v) for v in (b.axle_kg[row, 0], b.axle_kg[row, 1], b.total_kg[row]))
        bed = s.build.rig.bed
        lines = [
            f"{s.table.cases[row].name}: front {words.kg(front)}, {words.share(front / total) if total else '–'} of the whole; rear {words.kg(rear)}."
        ]
        if bed.front_empty:
            lines.append(
                f"The front was lightened from {words.kg(bed.front_empty.si)} empty; 90 % of that and 30 % of the whole should stay."
            )
        if bed.wheelbase:
            lines.append(
                f"What stands behind the rear axle, {words.m(bed.wheelbase.si)} from the front one, counts more than it weighs."
            )
        return [*lines, "Not in scope: gooseneck, fifth wheel and drawbar trailers with a steered axle.", "Screening only: plates, papers and local law decide."]  # fmt: skip

    def _balance_point(self) -> tuple[float, float, str] | None:
        """Balance point and axle place [m] of the shown case, or of the first on the road."""
        s = self.session.studied
        points = balance_points(s)
        name = s.table.cases[worst_row(self.session)].name if s.table.cases else ""
        return next((one for one in points if one[2] == name), points[0] if points else None)

    def try_balance_point(self) -> None:
        """The axle as far behind the shown load's balance point as the band wants, as a ghost."""
        s, shown = self.session.studied, self._balance_point()
        if shown is not None and s.support is not None:
            ops = tuple(axle_shift_ops(s.build, shown[1] - s.support.mean_axle_m))
            self._try(f"Put the axle {self.words.m(shown[1] - shown[0])} behind the balance point", ops)

    def try_best(self) -> None:
        """The best place as a ghost; Ctrl+Enter keeps it."""
        s = self.session.studied
        placing = axle_placing(s)
        if placing is None or s.support is None:
            return
        best = clear_best_m(placing, conflicts(s))
        if best is None:
            self.session.said.emit("Every place in the window is forbidden by what is marked in it; move that first.", "note")  # fmt: skip
            return
        ops = tuple(axle_shift_ops(s.build, best - s.support.mean_axle_m))
        self._try(f"Put the axle at {self.words.m(best)}", ops)

    def _try(self, says: str, ops: tuple) -> None:  # type: ignore[type-arg]
        if ops:
            self.session.try_it(Remedy(says, ops, ()))
            self.session.said.emit(f"Trying: {says}. Ctrl+Enter keeps it, Esc puts it back.", "note")

    # moves ---------------------------------------------------------------------------------------------
    def _moves_panel(self) -> QWidget:
        panel = QWidget()
        rows = QVBoxLayout(panel)
        rows.setContentsMargins(0, 0, 0, 0)
        top = QHBoxLayout()
        self.find_button, self.stop_button = QPushButton("Find moves"), QPushButton("Stop")
        self.keep_button, self.back_button = QPushButton("Keep"), QPushButton("Put back")
        self.stop_button.setEnabled(False)
        for button, run in (
            (self.find_button, self.find_moves),
            (self.stop_button, self.stop_moves),
            (self.keep_button, self.session.keep),
            (self.back_button, self.session.put_back),
        ):
            button.clicked.connect(lambda _=False, run=run: run())
            top.addWidget(button)
        top.addStretch(1)
        rows.addLayout(top)
        self.moves_says = label("", wrap=True)
        rows.addWidget(self.moves_says)
        self.offers = QListWidget()
        self.offers.setAccessibleName("Moves that were found, the easiest first")
        self.offers.itemClicked.connect(self._offer)
        self.offers.itemActivated.connect(self._offer)
        self.offers.setMinimumHeight(96)  # four rows
        rows.addWidget(self.offers, 1)
        self.ghost_chart = Chart(self.session, "Every case before and after", self._ghost_shapes, "Every case, as it is and as it would be", lambda: "Standing modes and beds have no ball to show.")  # fmt: skip
        rows.addWidget(self.ghost_chart, 4)
        self.moves_plan = Chart(
            self.session,
            "Where things would go, from above",
            lambda w, h: moves_plan(self.session.studied, self.session.ghost_studied, self.session.row, w, h),
            empty=lambda: "Nothing is aboard yet.",
        )
        rows.addWidget(self.moves_plan, 3)
        self.found: MoveSets | None = None
        self.found_for: object = None
        self.asked_for: object = None
        return panel

    def find_moves(self) -> None:
        """Ask the worker; the desk goes on meanwhile. Without one it is worked out here."""
        session = self.session
        session.put_back(because="moves were looked for")
        self.asked_for = session.build
        if session.worker is not None:
            self.stop_button.setEnabled(True)
            self.moves_says.setText("Looking for slides, swaps and the least total movement…")
            session.worker.ask_moves(session.build, session.facts)
        else:
            from uncle_sled.core.remedies.move_sets import move_sets

            self._take_moves(move_sets(session.studied), "")

    def stop_moves(self) -> None:
        if self.session.worker is not None:
            self.session.worker.cancel()
        self.asked_for = None
        self.stop_button.setEnabled(False)
        self.moves_says.setText("Stopped. Nothing was changed.")

    def _take_moves(self, found: MoveSets | None, fault: str) -> None:
        self.stop_button.setEnabled(False)
        if found is None:
            self.moves_says.setText(f"The search stopped: {fault}")
            return
        if self.asked_for is not self.session.build:
            self.moves_says.setText("Something changed meanwhile; look again.")
            return
        self.found, self.found_for = found, self.session.build
        self._list_moves()

    def _list_moves(self) -> None:
        self.offers.clear()
        if self.found is None:
            return
        for at, move in enumerate(self.found.moves):
            item = QListWidgetItem(self._move_words(move))
            item.setData(Qt.ItemDataRole.UserRole, at)
            self.offers.addItem(item)
        names = {case.id: lower_first(case.name) for case in self.session.studied.table.cases}
        fights = [names.get(id, id) for id in self.found.fights]
        if self.found.moves and self.found.moves[0].feasible:
            text = "Each of these settles every case. Click one to try it; what is marked as staying is left alone."
        elif len(fights) > 1:
            text = f"No move settles every case: {fights[0]} and {fights[1]} pull against each other. Bring the tanks nearer the axle, or another load."  # fmt: skip
        elif fights:
            text = f"No move settles every case: {fights[0]} stays out of its limits."
        else:
            text = self.found.why or "These help, but not every case is settled."
        self.moves_says.setText(text)

    def _move_words(self, move: Move) -> str:
        if move.kind == "swap":
            a, b = move.items
            text = f"Swap the {lower_first(a.name)} and the {lower_first(b.name)}"
        else:
            text = "; ".join(f"{lower_first(i.name)} {' and '.join(self._ways(i))}" for i in move.items)
            text = text[:1].upper() + text[1:]
        return text + ("" if move.feasible else "   (helps, does not settle all)")

    def _ways(self, shift: Shift) -> list[str]:
        """How far a thing goes along and across, in words."""
        ways = [(shift.to_m - shift.from_m, "back", "forward")]
        ways.append((shift.to_y_m - shift.from_y_m, "to the right", "to the left"))
        return [f"{self.words.m(abs(by))} {more if by > 0 else less}" for by, more, less in ways if abs(by) > 0.004]

    def _offer(self, item: QListWidgetItem) -> None:
        at = item.data(Qt.ItemDataRole.UserRole)
        if self.found is None or at is None or self.found_for is not self.session.build:
            self.session.said.emit("The build has changed since; look for moves again.", "note")
            return
        move = self.found.moves[at]
        self._try(self._move_words(move), move.ops)

    def _ghost_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        session = self.session
        s, tried = session.studied, session.ghost_studied
        if s.build.rig.carrier == "vehicle bed":
            return bars.bed_bars(tried or s, self.words, width, height)
        before = tuple(
            (s.table.cases[row].name, float(s.readings.tongue_kg[row]))
            for row in s.towing_rows
            if math.isfinite(s.readings.tongue_kg[row])
        )
        later = tried or s
        after = {later.table.cases[r].name: float(later.readings.tongue_kg[r]) for r in later.towing_rows if math.isfinite(later.readings.tongue_kg[r])}  # fmt: skip
        bands = {later.table.cases[r].name: (float(later.readings.band_kg[r, 0]), float(later.readings.band_kg[r, 1])) for r in later.towing_rows if np.isfinite(later.readings.band_kg[r]).all()}  # fmt: skip
        return bars.ghost_rows(before, after, bands, self.words, width, height)

    def _show_moves(self) -> None:
        tried = self.session.ghost is not None
        self.keep_button.setEnabled(tried)
        self.back_button.setEnabled(tried)
        if self.found is not None and self.found_for is not self.session.build and not tried:
            self.found = None
            self.offers.clear()
        if self.found is None and not self.stop_button.isEnabled():
            self.moves_says.setText("Looks for the easiest slides, swaps of two, and the least total movement that put every case right. Nothing moves until you keep it.")  # fmt: skip
        self.ghost_chart.update()
        self.moves_plan.update()

    # sureness ------------------------------------------------------------------------------------------
    def _sure_panel(self) -> QWidget:
        panel = QWidget()
        rows = QVBoxLayout(panel)
        rows.setContentsMargins(0, 0, 0, 0)
        self.sure_chart = Chart(
            self.session,
            "Every case with its doubt",
            lambda w, h: bars.sure_bars(self.session.studied, worst_row(self.session), self.words, w, h),
            "Give or take",
            lambda: "There is no reading yet to be sure of.",
        )
        self.owner_chart = Chart(self.session, "What owns the doubt", self._owner_shapes, "Weigh these first", lambda: "Nothing stands out.")  # fmt: skip
        rows.addWidget(self.sure_chart, 3)
        rows.addWidget(self.owner_chart, 2)
        self.sure_says = label("", wrap=True)
        rows.addWidget(self.sure_says)
        return panel

    def _owner_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, row = self.session.studied, worst_row(self.session)
        found = owners(s, row, MOST_OWNERS) if s.towing_rows else ()
        return bars.owner_bars(found, float(load_sigma_kg(s)[row]), self.words, width, height) if found else ()

    def _show_sure(self) -> None:
        s, row, words = self.session.studied, worst_row(self.session), self.words
        bed = s.build.rig.carrier == "vehicle bed"
        self.sure_chart.title = "The rear axle, give or take" if bed else "The ball, give or take"
        self.sure_chart.update()
        self.owner_chart.update()
        found = owners(s, row, MOST_OWNERS) if s.towing_rows else ()
        if not found:
            self.sure_says.setText("")
            return
        sigma, load = float(load_sigma_kg(s)[row]), float(load_kg(s)[row])
        left = doubt_of_all_weighed_kg(s, row, found)
        where = "rear axle " if bed else ""
        self.sure_says.setText(f"{s.table.cases[row].name}: {where}{words.kg(load)} give or take {words.fine_kg(sigma)} (one sigma). With all of these weighed {words.fine_kg(left)} would be left: places and the rest.")  # fmt: skip
