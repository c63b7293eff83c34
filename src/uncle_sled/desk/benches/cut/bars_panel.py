"""Bars to scale, one row for all that are cut alike: the stop is moved inwards only."""

from __future__ import annotations

from uncle_sled.core.drawing.cut.cut_sheets import told
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.cut.sheet_drawn import bar_drawn, bar_long_m
from uncle_sled.core.drawing.cut.work_words import sold_words
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.cut.bars import BarPlan
from uncle_sled.core.studies.cut.cut_from_stock import laid_out
from uncle_sled.core.studies.cut.handed import OnBars
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.desk.benches.cut.bench import CutPanel
from uncle_sled.desk.benches.cut.piece_chart import NOT_PLACED, PieceChart
from uncle_sled.desk.kit.panel import Group, across, rows
from uncle_sled.desk.kit.parts import Busy, Choice, DrawingOf, Says, Scrolled, Split

BAR_HIGH, ROW, NAME = 18.0, 42.0, 96.0


class BarsPanel(CutPanel):
    material = ""

    def laid(self) -> Group:
        self.chart = self.put(
            DrawingOf(
                "Bars with their pieces", self._bars, "", self._why, high=lambda: 30 + ROW * max(len(self.bars()), 1), kind=PieceChart
            )
        )
        self.map = self.put(DrawingOf("The body with its pieces", self._map, "Where it is", NOT_PLACED, kind=PieceChart))
        for chart in (self.chart, self.map):
            chart.over.connect(lambda key: self.bench.mark((key,)) if key else None)
        self.chart.picked.connect(lambda key: self.bench.mark((key,) if key else ()))
        self.map.picked.connect(self.find_piece)
        return rows(
            across(Choice("Material", self._materials, self._choose, lambda: self.material, letters=33), Says(self._told, share=1)),
            Busy(laid_out),
            Split((Scrolled(self.chart), self.map), (340, 210), share=1),
        )

    def plans(self) -> tuple[BarPlan, ...]:
        made = self.bench.plan()
        return made.plan.bars if made is not None else ()

    def _materials(self) -> list[tuple[object, str]]:
        return [(plan.material, f"{self.words.material(plan.material)}: {plan.used}") for plan in self.plans()]

    def prepared(self) -> None:
        plans = self.plans()
        if self.material not in {plan.material for plan in plans}:
            self.material = plans[0].material if plans else ""

    def _told(self) -> str:
        plan = next((plan for plan in self.plans() if plan.material == self.material), None)
        if plan is None:
            return ""
        lost = f" NOT PLACED: {', '.join(name for name, _ in plan.unplaced)}." if plan.unplaced else ""
        piece = next(
            (n.piece for n in numbers_of(self.session.build, self.session.project.facts).named if n.piece.material == plan.material), None
        )
        sold = sold_words(piece, self.session.build, self.words) if piece is not None else ""
        return told(plan, self.words, self.session.build.cut.kerf.si) + "." + lost + (f" {sold}." if sold else "")

    def bars(self) -> list[OnBars]:
        hand = self.bench.hand_out()
        if hand is None:
            return []
        return [on_bars for on_bars in hand.bars if on_bars.plan.material == self.material]

    def _why(self) -> str:
        if self.bench.plan() is None:
            return self.bench.still()
        return "No bars are cut for this build: choose a school of framing on Shell."

    def _bars(self, width: float, height: float) -> tuple[Primitive, ...]:
        hand, mine = self.bench.hand_out(), self.bars()
        if hand is None or not mine:
            return ()
        words, kerf = self.words, self.session.build.cut.kerf.si
        longest = max(bar_long_m(on, hand.wanted, kerf) for on in mine)
        scale = (width - NAME - 24) / longest
        shapes: list[Primitive] = []
        y = height - 26
        for on in mine:
            text = f"{on.pattern.times} x {words.cut(bar_long_m(on, hand.wanted, kerf))}"
            shapes.append(Text((12, y), text, 11, "ink", "strong", "left"))
            source = "rack" if on.pattern.stock.startswith("rack: ") else ""
            left = f"{words.cut(on.pattern.left_m)} left" + (f", {source}" if source else "")
            shapes.append(Text((12, y - 15), elided(left, 9, NAME - 8), 9, "pencil", anchor="left"))
            shapes += bar_drawn(on, hand.wanted, words, scale, (NAME + 8, y), BAR_HIGH, kerf, self.bench.marked)
            y -= ROW
        return tuple(shapes)

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        numbers = numbers_of(self.session.build, self.session.project.facts)
        if not self.bars():
            return ()
        lit = {
            numbered.piece.key
            for on in self.bars()
            for some in on.named
            if any(n.piece.key in self.bench.marked for n in some)
            for numbered in some
        }
        return piece_map(self.session.studied.framed, numbers, lit or self.bench.marked, width, height - 16, ("bar", "trim"))

    def find_piece(self, key: str) -> None:
        """A piece of another material: its bars are shown."""
        self.bench.mark((key,) if key else ())
        hand = self.bench.hand_out()
        if hand is not None and key:
            found = next((on for on in hand.bars for some in on.named for numbered in some if numbered.piece.key == key), None)
            if found is not None and found.plan.material != self.material:
                self.material = found.plan.material
                self.refresh()

    def _choose(self, value: object) -> None:
        self.material = str(value)
        self.refresh()

    def marked(self) -> None:
        self.chart.renew()
        self.map.renew()
