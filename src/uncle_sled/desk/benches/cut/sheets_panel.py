"""One sheet large, its cuts step by step beside it, and the body to find a piece on; pieces are dragged and held."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from uncle_sled.core.document.edits import remove, set_to
from uncle_sled.core.drawing.cut.cut_sheets import step_words, told
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.cut.sheet_drawn import sheet_drawn
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.cut.handed import OnSheet
from uncle_sled.core.studies.cut.held import Held, faults_of
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.of_the_build import RACK, laid_out
from uncle_sled.core.studies.cut.sawing import Step, offcuts_of, steps_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.cut.bench import CutBench
from uncle_sled.desk.benches.cut.piece_chart import NO_CUTS, NOT_PLACED, PieceChart
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.working import Working
from uncle_sled.desk.session import Session

SNAP_PX = 10.0
EDGE = 12.0
ROW = 17.0


class SheetChart(PieceChart):
    """The sheet; ``put_down`` carries a piece's place in the layout and how far it was dragged, in points."""

    put_down = Signal(str, float, float)

    def __init__(self, *args: Any) -> None:
        super().__init__(*args)
        self.taken: tuple[str, QPointF, QPointF] | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        super().mousePressEvent(event)
        if event.button() == Qt.MouseButton.LeftButton:
            key = self.key_at(event)
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.taken = (key, event.position(), event.position()) if key else None

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.taken is None:
            super().mouseMoveEvent(event)
            return
        self.taken = (self.taken[0], self.taken[1], event.position())
        self.renew()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self.taken is not None:
            (key, start, _), self.taken = self.taken, None
            off = event.position() - start
            self.renew()
            if off.manhattanLength() > 4:
                self.put_down.emit(key, off.x(), -off.y())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.taken is not None:
            self.taken = None
            self.renew()
        else:
            super().keyPressEvent(event)


class SheetsPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: CutBench) -> None:
        super().__init__()
        self.session, self.bench = session, bench
        self.at = 0  # sheet, among all
        self.cut = 0  # cuts made so far; 0: all are shown as laid out
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        self.before = act_button("‹", "The sheet before", lambda: self.turn(-1))
        self.after = act_button("›", "The next sheet", lambda: self.turn(1))
        self.which = ChoiceField("Material", [])
        self.which.setMinimumContentsLength(14)
        self.number = label("", "", "ink")
        self.which.entered.connect(self._choose)
        self.saw = ChoiceField("Saw", [("edge to edge", "edge to edge"), ("free", "along outlines")])
        self.saw.setToolTip("Track or table saw: every cut runs from edge to edge; router or jigsaw: along the outlines")
        self.saw.setMinimumContentsLength(10)
        self.saw.entered.connect(lambda value: session.edit(f"Saw: {value}", [set_to("cut.saw", value)], "Cut"))
        self.back = act_button("Cut before", "Take the last cut back (,)", lambda: self.step(-1))
        self.next = act_button("Next cut", "Where fence and stop stand, and what falls off (.)", lambda: self.step(1))
        self.holding = act_button("Hold", "Hold the lit piece in its place, or let it go (H); dragging holds it too", self.hold)
        self.loose = act_button("Let all go", "No piece is held any more", self.let_all_go)
        for widget in (self.which, self.before, self.number, self.after, self.back, self.next, self.holding, self.loose):
            tools.addWidget(widget, 1 if widget is self.which else 0)
        rows.addLayout(tools)
        self.working = Working(session.answers, laid_out)
        rows.addWidget(self.working)
        told = QHBoxLayout()
        told.setSpacing(6)
        self.says = label("", "", "ink", wrap=True)
        told.addWidget(self.says, 1)
        told.addWidget(self.saw)
        rows.addLayout(told)
        self.chart = SheetChart(session, "The sheet with its pieces", self._sheet, "", self._why)
        self.map = PieceChart(session, "The body with its pieces", self._map, "Where it is", lambda: NOT_PLACED)
        self.list = PieceChart(session, "Cuts in their order", self._cuts, "Cuts, in this order", lambda: NO_CUTS)
        for chart in (self.chart, self.map):
            chart.over.connect(self._over)
            chart.picked.connect(self._picked)
        self.chart.put_down.connect(self._put_down)
        rows.addWidget(self.chart, 5)
        low = QHBoxLayout()
        low.setSpacing(6)
        low.addWidget(self.list, 4)
        low.addWidget(self.map, 5)
        rows.addLayout(low, 4)
        self._told_for: object = None
        self._follow = ""  # a piece that was held: its sheet is shown when it is laid out again

    # what is shown
    def sheets(self) -> tuple[OnSheet, ...]:
        hand = self.bench.hand_out()
        return hand.sheets if hand is not None else ()

    def on(self) -> OnSheet | None:
        sheets = self.sheets()
        return sheets[min(self.at, len(sheets) - 1)] if sheets else None

    def steps(self) -> tuple[Step, ...]:
        on, cut = self.on(), self.session.build.cut
        if on is None:
            return ()
        kg_m2 = next((one.piece.kg_m2 for one in on.named if one.piece.kg_m2), None)
        return steps_of(on.layout, cut.kerf.si, cut.carry_m2, cut.carry.si, kg_m2)

    def _why(self) -> str:
        if self.bench.plan() is None:
            return self.bench.still()
        return "No sheets are cut for this build: give faces layers of sheets on Shell."

    def _scale(self, width: float, height: float) -> tuple[float, float, float]:
        on = self.on()
        assert on is not None
        scale = min((width - 2 * EDGE) / on.layout.length_m, (height - 2 * EDGE - 16) / on.layout.width_m)
        return scale, (width - on.layout.length_m * scale) / 2, (height - 16 - on.layout.width_m * scale) / 2

    def _sheet(self, width: float, height: float) -> tuple[Primitive, ...]:
        hand, on = self.bench.hand_out(), self.on()
        if hand is None or on is None:
            return ()
        words, cut = Words(self.session.shown), self.session.build.cut
        scale, left, low = self._scale(width, height)
        keep = offcuts_of(on.layout, cut.kerf.si, cut.keep_m2)
        done = self.steps()[: self.cut] if self.cut else None
        shapes = sheet_drawn(on, hand.wanted, words, scale, left, low, self.bench.marked, done, keep)
        source = ", from the rack" if on.layout.stock.startswith(RACK) else ""
        title = f"{words.material(on.plan.material)}: {words.cut(on.layout.length_m)} x {words.cut(on.layout.width_m)}, sheet {on.number} of {on.plan.used}{source}; white is left over"
        shapes.append(Text((left, height - 10), elided(title, 11, width - 2 * EDGE), 11, "pencil", anchor="left"))
        if self.chart.taken is not None:
            key, start, now = self.chart.taken
            dx, dy = now.x() - start.x(), start.y() - now.y()
            shapes += [
                Poly(tuple((x + dx, y + dy) for x, y in one.points), "chalk", "chalk wash", 2.0, dash=(4.0, 3.0), tint=0.6)
                for one in shapes
                if isinstance(one, Poly) and one.id == key
            ]
        return tuple(shapes)

    def _cuts(self, width: float, height: float) -> tuple[Primitive, ...]:
        words, steps = Words(self.session.shown), self.steps()
        if self.on() is None:
            return ()
        if not steps:
            return (
                Text((12, height - 40), "Along the outlines: inner cut-outs first, then", 11, anchor="left"),
                Text((12, height - 56), "the small pieces, the outer ones last.", 11, anchor="left"),
            )
        room = max(int((height - 34) // ROW), 1)
        begin = min(max(self.cut - room + 2, 0), max(len(steps) - room, 0))
        shapes: list[Primitive] = []
        for k, step in enumerate(steps[begin : begin + room], begin):
            y = height - 36 - (k - begin) * ROW
            ink = "chalk" if k == self.cut - 1 else "pencil" if k < self.cut else "ink"
            face = "strong" if k == self.cut - 1 else "text"
            text = elided(f"{k + 1}  {step_words(step, words)}", 11, width - 24, face)
            shapes.append(Text((12, y), text, 11, ink, face, "left"))  # type: ignore[arg-type]
        return tuple(shapes)

    def _map(self, width: float, height: float) -> tuple[Primitive, ...]:
        numbers = numbers_of(self.session.build, self.session.project.facts)
        on = self.on()
        if on is None:
            return ()
        return piece_map(self.session.studied.framed, numbers, self.bench.marked, width, height - 16, ("sheet",))

    def _told(self) -> str:
        on, made = self.on(), self.bench.plan()
        if on is None or made is None:
            return ""
        words, cut = Words(self.session.shown), self.session.build.cut
        steps = self.steps()
        if self.cut and steps:
            step = steps[self.cut - 1]
            off = f"{words.cut(step.off[0])} x {words.cut(step.off[1])}"
            mind = (
                " Two carry it, or saw it where it lies."
                if step.heavy
                else " Short against the fence: not on a table saw."
                if step.short
                else ""
            )
            return f"Cut {self.cut} of {len(steps)}: {step_words(step, words).split(';')[0]}; past the blade falls {off}.{mind}"
        text = f"{words.material(on.plan.material)}: {told(on.plan, words, cut.kerf.si)}."
        if made.let_go:
            text += f" Not held any more: {made.let_go[0][0]}, {made.let_go[0][1]}."
        short = [name for name, _ in on.plan.unplaced]
        return text + (f" NOT PLACED: {', '.join(short)}." if short else "")

    # what is done
    def turn(self, by: int) -> None:
        many = len(self.sheets())
        if many:
            self.at, self.cut = (self.at + by) % many, 0
            self.refresh()

    def _choose(self, value: object) -> None:
        """The first sheet of a material."""
        self.at = next((k for k, on in enumerate(self.sheets()) if on.plan.material == value), self.at)
        self.cut = 0
        self.refresh()

    def step(self, by: int) -> None:
        many = len(self.steps())
        if many:
            self.cut = min(max(self.cut + by, 0), many)
            self.refresh()

    def _over(self, key: str) -> None:
        if key and not self.session.selection:
            self.bench.mark((key,))

    def _picked(self, key: str) -> None:
        self.bench.mark((key,) if key else ())
        found = next((k for k, on in enumerate(self.sheets()) if any(one.piece.key == key for one in on.named)), None)
        if found is not None and found != min(self.at, len(self.sheets()) - 1):
            self.at, self.cut = found, 0
            self.refresh()

    def hold(self) -> None:
        """Hold the lit piece where it lies, or let it go."""
        on = self.on()
        key = next(iter(self.bench.marked), None)
        at = next((k for k, one in enumerate(on.named) if one.piece.key == key), None) if on is not None else None
        if on is None or at is None or key is None:
            self.session.said.emit("Click a piece of this sheet first.", "note")
            return
        pin = next((one for one in self.session.build.cut.pins if one.piece == key), None)
        if pin is not None:
            self.session.edit(f"Let go {on.named[at].label}", [remove(f"cut.pins.{pin.id}")], "Cut")
            return
        lies = on.layout.pieces[at]
        self._follow = key
        self.bench.pin(key, on.layout.stock, self._pin_sheet(on), lies.x_m, lies.y_m, lies.turned)

    def let_all_go(self) -> None:
        if self.session.build.cut.pins:
            self.session.edit("Let all pieces go", [set_to("cut.pins", [])], "Cut")

    def _pin_sheet(self, on: OnSheet) -> int:
        """The number that held pieces of this sheet share, or a new one."""
        pins = self.session.build.cut.pins
        here = {one.piece.key for one in on.named}
        mine = [pin.sheet for pin in pins if pin.piece in here and pin.stock == on.layout.stock]
        return mine[0] if mine else max((pin.sheet for pin in pins), default=0) + 1

    def _put_down(self, key: str, dx: float, dy: float) -> None:
        """A piece is dragged: it is held where it was put, if it can be cut there."""
        on, made = self.on(), self.bench.plan()
        if on is None or made is None:
            return
        at = next((k for k, one in enumerate(on.named) if one.piece.key == key), None)
        if at is None:
            return
        cut = self.session.build.cut
        scale, _, _ = self._scale(float(self.chart.width()), float(self.chart.height()))
        lies = on.layout.pieces[at]
        x, y = self._snapped(on, at, lies.x_m + dx / scale, lies.y_m + dy / scale, SNAP_PX / scale)
        pins = cut.pins
        lines = {piece.key: lot.wanted.id for lot in made.lots for piece in lot.pieces}
        sheet = self._pin_sheet(on)
        others = [
            Held(lines[pin.piece], pin.stock, pin.sheet, pin.x.si, pin.y.si, pin.turned)
            for pin in pins
            if pin.piece in lines and pin.piece != key and pin.sheet == sheet
        ]
        held = [*others, Held(lies.piece, on.layout.stock, sheet, x, y, lies.turned)]
        free = cut.saw == "free"
        faults = [why for name, why in faults_of(made.pieces, made.stocks, cut.kerf.si, cut.trim.si, free, held) if name == lies.piece]
        if faults:
            self.session.said.emit(f"{on.named[at].label} stays where it was: {faults[0]}.", "note")
            return
        self.bench.mark((key,))
        self._follow = key
        self.bench.pin(key, on.layout.stock, sheet, x, y, lies.turned)

    def _snapped(self, on: OnSheet, at: int, x: float, y: float, reach: float) -> tuple[float, float]:
        """To the sheet's edges, and a kerf beside other held pieces."""
        cut, layout, lies = self.session.build.cut, on.layout, on.layout.pieces[at]
        kerf, trim = cut.kerf.si, cut.trim.si
        xs = [trim, layout.length_m - trim - lies.w_m]
        ys = [trim, layout.width_m - trim - lies.h_m]
        for k, other in enumerate(layout.pieces):
            if k != at and other.pinned:
                xs += [other.x_m + other.w_m + kerf, other.x_m - kerf - lies.w_m, other.x_m]
                ys += [other.y_m + other.h_m + kerf, other.y_m - kerf - lies.h_m, other.y_m]
        near_x = min(xs, key=lambda one: abs(one - x))
        near_y = min(ys, key=lambda one: abs(one - y))
        x = near_x if abs(near_x - x) < reach else x
        y = near_y if abs(near_y - y) < reach else y
        x = min(max(x, trim), max(layout.length_m - trim - lies.w_m, trim))
        y = min(max(y, trim), max(layout.width_m - trim - lies.h_m, trim))
        return round(x, 5), round(y, 5)

    def marked(self) -> None:
        self.chart.renew()
        self.map.renew()

    def refresh(self) -> None:
        sheets = self.sheets()
        found = next((k for k, on in enumerate(sheets) if any(one.piece.key == self._follow for one in on.named)), None)
        if found is not None:
            self.at, self._follow = found, ""
        self.at = min(self.at, max(len(sheets) - 1, 0))
        self.cut = min(self.cut, len(self.steps()))
        names = tuple(dict.fromkeys(on.plan.material for on in sheets))
        if names != self._told_for:
            self._told_for = names
            words = Words(self.session.shown)
            self.which.offer([(one, words.material(one)) for one in names])
        on_sheet = self.on()
        self.which.show_value(on_sheet.plan.material if on_sheet is not None else "")
        self.number.setText(f"{on_sheet.number} of {on_sheet.plan.used}" if on_sheet is not None else "")
        self.which.setEnabled(bool(sheets))
        self.saw.show_value(self.session.build.cut.saw)
        steps = self.steps()
        for button, on in (
            (self.before, len(sheets) > 1),
            (self.after, len(sheets) > 1),
            (self.back, self.cut > 0),
            (self.next, self.cut < len(steps)),
            (self.holding, bool(sheets)),
            (self.loose, bool(self.session.build.cut.pins)),
        ):
            button.setEnabled(on)
        self.says.setText(self._told())
        for chart in (self.chart, self.map, self.list):
            chart.renew()
