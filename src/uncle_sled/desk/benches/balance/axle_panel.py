"""The axle's place: the chart to drag in, the hitch's height, and the places that are tried as ghosts."""

from __future__ import annotations

from PySide6.QtCore import Qt

from uncle_sled.core.document.placing import axle_shift_ops
from uncle_sled.core.drawing.balance import balance_bars
from uncle_sled.core.drawing.balance.axle_chart import hitch_chart, hitch_words
from uncle_sled.core.drawing.balance.axle_over import axle_over
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.reading.limits import axle_ratings_kg
from uncle_sled.core.studies.balance.axle_conflicts import TyreGap, clear_best_m, conflicts, tyre_gap
from uncle_sled.core.studies.balance.axle_placing import axle_placing, axles_over, balance_points, own_limits
from uncle_sled.core.studies.balance.hitch_height import hitch_curve
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.balance.axle_sheet import AxleSheet
from uncle_sled.desk.benches.balance.limits_and_driving import try_edit, worst_row
from uncle_sled.desk.kit.panel import Group, Panel, across, card, rows, tools
from uncle_sled.desk.kit.parts import Act, Drawing, Own, Says, Scrolled


class AxlePanel(Panel):
    def laid(self) -> Group:
        towed, tried = (lambda: not self._bed()), self._tried
        self.axle_sheet = self.put(Own(lambda: AxleSheet(self.session), AxleSheet.update, when=towed, share=3))
        self.lines = self.put(Says(lambda: self._bed_lines() if self._bed() else self._axle_words()))
        self.lines.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.best_button = self.put(
            Act(
                "Best place",
                "The best place that nothing forbids, tried as a ghost",
                self.try_best,
                self._can_be_better,
                plain=True,
                when=towed,
            )
        )
        self.point_button = self.put(
            Act(
                "By balance point",
                "The old way: the shown load's balance point, and the axle so far behind it",
                self.try_balance_point,
                lambda: self._placed() and bool(balance_points(self.studied)),
                plain=True,
                when=towed,
            )
        )
        self.hitch = self.put(
            Drawing(
                "Axles and ball over the hitch's height",
                self._hitch_shapes,
                reads=self._hitch_read,
                when=lambda: hitch_curve(self.studied, worst_row(self.session)) is not None,
                share=4,
            )
        )
        where = card(
            "Where it goes",
            Scrolled(self.lines, share=1),
            tools(
                Act("Keep", "The axle stays where it is tried (Ctrl+Enter)", self.session.keep, plain=True, when=tried),
                Act("Put back", "The axle stays where it was (Esc)", self.session.put_back, plain=True, when=tried),
                self.best_button,
                self.point_button,
                Act("Order sheet…", "What the axle maker has to know, as PDF", lambda: self.export("axle-order"), plain=True, when=towed),
            ),
            gap=4,
            share=3,
        )
        return rows(
            Drawing(
                "The trailer over the chart",
                self._over,
                least=(0, 96),
                when=lambda: not self._bed() and bool(self.studied.build.rig.axles),
                share=2,
            ),
            self.axle_sheet,
            Drawing(
                "Front and rear axle by case",
                lambda w, h: balance_bars.bed_bars(self.studied, self.words, w, h),
                empty="The vehicle's wheelbase and empty axle loads are still to be typed on the Rig stop.",
                when=self._bed,
                share=3,
            ),
            across(where, self.hitch, gap=8, share=2),
        )

    def _bed(self) -> bool:
        return self.studied.build.rig.carrier == "vehicle bed"

    def _tried(self) -> bool:
        """Whether another place of the axle is tried."""
        ghost = self.session.ghost
        return ghost is not None and ghost[1].build.rig.axles != self.studied.build.rig.axles

    def _placed(self) -> bool:
        """Whether there is a best place, and the axle may still be put there."""
        return axle_placing(self.studied) is not None and self.studied.build.rig.axle_place == "to be placed"

    def _can_be_better(self) -> bool:
        placing, support = axle_placing(self.studied), self.studied.support
        return self._placed() and placing is not None and support is not None and abs(placing.best_m - support.mean_axle_m) > 0.004

    def _over(self, width: float, height: float) -> tuple[Primitive, ...]:
        tried = self.session.ghost[1].build if self.session.ghost is not None else None
        return axle_over(self.session.studied, tried, self.words, width, height)

    def _hitch_shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s = self.session.studied
        curve = hitch_curve(s, worst_row(self.session))
        if curve is None:
            return ()
        return hitch_chart(curve, axle_ratings_kg(s.build.rig), self.words, width, height)

    def _hitch_read(self, x: float, _y: float, width: float, _height: float) -> str:
        curve = hitch_curve(self.session.studied, worst_row(self.session))
        return hitch_words(curve, x, self.words, width) if curve is not None else ""

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
            lines.append(
                f"No place serves every case: {apart}. The least bad is {words.m(placing.best_m)}, {words.fine_kg(placing.worst_violation_kg)} out."
            )
        for over in axles_over(s, placing):
            kept = "" if over.kept_from_m is None else f" before {words.m(over.kept_from_m)}"
            by = f", {words.kg(over.least_over_kg)} at least" if over.kept_from_m is None else ""
            hitch = " The hitch's height shares it out." if s.support.independent else ""
            lines.append(f"Axle {over.number} is over its rating{kept or ' wherever it stands'} ({names[over.case_id]}{by}).{hitch}")
        if s.support.independent:
            lines.append("Rubber arms creep and stick; the doubt does not count that. Weigh it loaded.")
        if s.build.rig.axle_place == "fixed":
            lines.append("The axle is fixed; move things instead, or say on the Rig stop that it is still to be placed.")
        shown = self._balance_point()
        if shown is not None:
            point, place, name = shown
            lines.append(
                f"By hand: load it as {lower_first(name)}, find the point where it balances, {words.m(point)} from the ball, and put the axle {words.m(place - point)} behind it."
            )
        axles = {a.id for a in s.build.rig.axles}
        along = sum(p.mass_kg for p in s.parts if p.id in axles)
        if along:
            lines.append(f"{words.kg(along)} of axle, wheels and springs move with it.")
        gap = tyre_gap(s)
        if gap is not None:
            lines.append(self._tyre_words(gap))
        if s.band.limit_kg is not None:
            lines.append(f"Whatever the share, never over {words.kg(s.band.limit_kg)} on the ball: the lowest rating holds.")
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
            lines.append(f"What stands behind the rear axle, {words.m(bed.wheelbase.si)} from the front one, counts more than it weighs.")
        return [
            *lines,
            "Not in scope: gooseneck, fifth wheel and drawbar trailers with a steered axle.",
            "Screening only: plates, papers and local law decide.",
        ]

    def _balance_point(self) -> tuple[float, float, str] | None:
        """Balance point and axle place [m] of the shown case, or of the first on the road."""
        s = self.session.studied
        points = balance_points(s)
        name = s.table.cases[worst_row(self.session)].name if s.table.cases else ""
        return next((point for point in points if point[2] == name), points[0] if points else None)

    def try_balance_point(self) -> None:
        """The axle as far behind the shown load's balance point as the band wants, as a ghost."""
        s, shown = self.session.studied, self._balance_point()
        if shown is not None and s.support is not None:
            ops = tuple(axle_shift_ops(s.build, shown[1] - s.support.mean_axle_m))
            try_edit(self.session, f"Put the axle {self.words.m(shown[1] - shown[0])} behind the balance point", ops)

    def try_best(self) -> None:
        """The best place as a ghost; Ctrl+Enter keeps it."""
        s = self.session.studied
        placing = axle_placing(s)
        if placing is None or s.support is None:
            return
        best = clear_best_m(placing, conflicts(s))
        if best is None:
            self.session.said.emit("Every place in the window is forbidden by what is marked in it; move that first.", "note")
            return
        ops = tuple(axle_shift_ops(s.build, best - s.support.mean_axle_m))
        try_edit(self.session, f"Put the axle at {self.words.m(best)}", ops)
