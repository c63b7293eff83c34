"""Bars to scale, one row for all that are cut alike: the stop is moved inwards only."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QSplitter, QVBoxLayout, QWidget

from uncle_sled.core.drawing.cut.cut_sheets import told
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.cut.sheet_drawn import bar_drawn, bar_long_m
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.cut.handed import OnBars
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.of_the_build import laid_out
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.cut.bench import CutBench
from uncle_sled.desk.benches.cut.piece_chart import NOT_PLACED, PieceChart
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.working import Working
from uncle_sled.desk.session import Session

BAR_HIGH, ROW, NAME = 18.0, 42.0, 96.0


class BarsPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: CutBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self.material = ""
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.which = ChoiceField("Material", [])
        self.which.setMinimumContentsLength(26)
        self.which.entered.connect(self._choose)
        tools.addWidget(self.which)
        self.says = label("", "", "ink", wrap=True)
        tools.addWidget(self.says, 1)
        rows.addLayout(tools)
        self.working = Working(session.answers, laid_out)
        rows.addWidget(self.working)
        self.chart = PieceChart(session, "Bars with their pieces", self._bars, "", self._why)
        self.chart.over.connect(lambda key: bench.mark((key,)) if key else None)
        self.chart.picked.connect(lambda key: bench.mark((key,) if key else ()))
        self.roll = QScrollArea()
        self.roll.setWidgetResizable(True)
        self.roll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.roll.setWidget(self.chart)
        self.map = PieceChart(session, "The body with its pieces", self._map, "Where it is", lambda: NOT_PLACED)
        self.map.over.connect(lambda key: bench.mark((key,)) if key else None)
        self.map.picked.connect(self._find)
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(self.roll)
        split.addWidget(self.map)
        split.setChildrenCollapsible(False)
        split.setSizes([340, 210])
        rows.addWidget(split, 1)
        self._told_for: object = None

    def bars(self) -> list[OnBars]:
        hand = self.bench.hand_out()
        if hand is None:
            return []
        return [one for one in hand.bars if one.plan.material == self.material]

    def _why(self) -> str:
        if self.bench.plan() is None:
            return self.bench.still()
        return "No bars are cut for this build: choose a school of framing on Shell."

    def _bars(self, width: float, height: float) -> tuple[Primitive, ...]:
        hand, mine = self.bench.hand_out(), self.bars()
        if hand is None or not mine:
            return ()
        words, kerf = Words(self.session.shown), self.session.build.cut.kerf.si
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
            shapes += bar_drawn(on, hand.wanted, words, scale, NAME + 8, y, BAR_HIGH, kerf, self.bench.marked)
            y -= ROW
        return tuple(shapes)

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        numbers = numbers_of(self.session.build, self.session.project.facts)
        if not self.bars():
            return ()
        lit = {
            one.piece.key for on in self.bars() for some in on.named if any(n.piece.key in self.bench.marked for n in some) for one in some
        }
        return piece_map(self.session.studied.framed, numbers, lit or self.bench.marked, width, height - 16, ("bar", "trim"))

    def _find(self, key: str) -> None:
        """A piece of another material: its bars are shown."""
        self.bench.mark((key,) if key else ())
        hand = self.bench.hand_out()
        if hand is not None and key:
            found = next((on for on in hand.bars for some in on.named for one in some if one.piece.key == key), None)
            if found is not None and found.plan.material != self.material:
                self.material = found.plan.material
                self.refresh()

    def _choose(self, value: object) -> None:
        self.material = str(value)
        self.refresh()

    def marked(self) -> None:
        self.chart.renew()
        self.map.renew()

    def refresh(self) -> None:
        made = self.bench.plan()
        plans = made.plan.bars if made is not None else ()
        words = Words(self.session.shown)
        names = [(one.material, f"{words.material(one.material)}: {one.used}") for one in plans]
        if self.material not in {one.material for one in plans}:
            self.material = plans[0].material if plans else ""
        if names != self._told_for:
            self._told_for = names
            self.which.offer(list(names))  # type: ignore[arg-type]
        self.which.show_value(self.material)
        self.which.setEnabled(bool(names))
        plan = next((one for one in plans if one.material == self.material), None)
        text = ""
        if plan is not None:
            text = told(plan, words, self.session.build.cut.kerf.si) + "."
            if plan.unplaced:
                text += f" NOT PLACED: {', '.join(name for name, _ in plan.unplaced)}."
        self.says.setText(text)
        self.chart.setMinimumHeight(int(30 + ROW * max(len(self.bars()), 1)))
        self.chart.renew()
        self.map.renew()
