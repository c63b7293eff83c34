"""One sheet large, its cuts step by step beside it, and the body to find a piece on; pieces are dragged and held."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.edits import remove, set_to
from uncle_sled.core.drawing.cut.cut_sheets import step_words, told
from uncle_sled.core.drawing.cut.piece_map import piece_map
from uncle_sled.core.drawing.cut.sheet_drawn import sheet_drawn
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.cut.cut_from_stock import RACK, laid_out
from uncle_sled.core.studies.cut.handed import OnSheet
from uncle_sled.core.studies.cut.held_pieces import Held, faults_of
from uncle_sled.core.studies.cut.numbers import numbers_of
from uncle_sled.core.studies.cut.sawing import Step, offcuts_of, steps_of
from uncle_sled.desk.benches.cut.bench import CutPanel
from uncle_sled.desk.benches.cut.piece_chart import NO_CUTS, NOT_PLACED, PieceChart
from uncle_sled.desk.kit.panel import Group, across, rows
from uncle_sled.desk.kit.parts import Act, Busy, Choice, DrawingOf, Says

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


class SheetsPanel(CutPanel):
    at = 0  # sheet, among all
    cut = 0  # cuts made so far; 0: all are shown as laid out
    _follow = ""  # a piece that was held: its sheet is shown when it is laid out again

    # what is shown
    def laid(self) -> Group:
        self.chart = self.put(DrawingOf("The sheet with its pieces", self._sheet, "", self._why, kind=SheetChart, share=5))
        self.map = self.put(DrawingOf("The body with its pieces", self._map, "Where it is", NOT_PLACED, kind=PieceChart, share=5))
        self.list = self.put(DrawingOf("Cuts in their order", self._cuts, "Cuts, in this order", NO_CUTS, kind=PieceChart, share=4))
        for chart in (self.chart, self.map):
            chart.over.connect(self._over)
            chart.picked.connect(self.picked)
        self.chart.put_down.connect(self.drop)
        several = lambda: len(self.sheets()) > 1
        saws = (("edge to edge", "edge to edge"), ("free", "along outlines"))
        saw_tip = "Track or table saw: every cut runs from edge to edge; router or jigsaw: along the outlines"
        return rows(
            across(
                Choice(
                    "Material", self._materials, self._choose, lambda: on.plan.material if (on := self.on()) else "", letters=14, share=1
                ),
                Act("‹", "The sheet before", lambda: self.turn(-1), several),
                Says(lambda: f"{on.number} of {on.plan.used}" if (on := self.on()) else ""),
                Act("›", "The next sheet", lambda: self.turn(1), several),
                Act("Cut before", "Take the last cut back (,)", lambda: self.step(-1), lambda: self.cut > 0),
                Act(
                    "Next cut",
                    "Where fence and stop stand, and what falls off (.)",
                    lambda: self.step(1),
                    lambda: self.cut < len(self.steps()),
                ),
                Act(
                    "Hold",
                    "Hold the lit piece in its place, or let it go (H); dragging holds it too",
                    self.hold,
                    lambda: bool(self.sheets()),
                ),
                Act("Let all go", "No piece is held any more", self.let_all_go, lambda: bool(self.session.build.cut.pins)),
            ),
            Busy(laid_out),
            across(Says(self._told, share=1), Choice("Saw", saws, self._take_saw, lambda: self.session.build.cut.saw, saw_tip, 10)),
            self.chart,
            across(self.list, self.map, share=4),
        )

    def _take_saw(self, saw: str) -> None:
        self.session.edit(f"Saw: {saw}", [set_to("cut.saw", saw)], "Cut")

    def _materials(self) -> list[tuple[object, str]]:
        return [(material, self.words.material(material)) for material in dict.fromkeys(on.plan.material for on in self.sheets())]

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
        kg_m2 = next((numbered.piece.kg_m2 for numbered in on.named if numbered.piece.kg_m2), None)
        return steps_of(on.layout, cut.kerf.si, cut.carry_m2, cut.carry.si, kg_m2)

    def _why(self) -> str:
        if self.bench.plan() is None:
            return self.bench.still()
        return "No sheets are cut for this build: give faces layers of sheets on Shell."

    def scale(self, width: float, height: float) -> tuple[float, float, float]:
        on = self.on()
        assert on is not None
        scale = min((width - 2 * EDGE) / on.layout.length_m, (height - 2 * EDGE - 16) / on.layout.width_m)
        return scale, (width - on.layout.length_m * scale) / 2, (height - 16 - on.layout.width_m * scale) / 2

    def _sheet(self, width: float, height: float) -> tuple[Primitive, ...]:
        hand, on = self.bench.hand_out(), self.on()
        if hand is None or on is None:
            return ()
        words, cut = self.words, self.session.build.cut
        scale, left, low = self.scale(width, height)
        keep = offcuts_of(on.layout, cut.kerf.si, cut.keep_m2)
        done = self.steps()[: self.cut] if self.cut else None
        shapes = sheet_drawn(on, hand.wanted, words, scale, (left, low), self.bench.marked, done, keep)
        source = ", from the rack" if on.layout.stock.startswith(RACK) else ""
        title = f"{words.material(on.plan.material)}: {words.cut(on.layout.length_m)} x {words.cut(on.layout.width_m)}, sheet {on.number} of {on.plan.used}{source}; white is left over"
        shapes.append(Text((left, height - 10), elided(title, 11, width - 2 * EDGE), 11, "pencil", anchor="left"))
        if self.chart.taken is not None:
            key, start, now = self.chart.taken
            dx, dy = now.x() - start.x(), start.y() - now.y()
            shapes += [
                Poly(tuple((x + dx, y + dy) for x, y in shape.points), "chalk", "chalk wash", 2.0, dash=(4.0, 3.0), tint=0.6)
                for shape in shapes
                if isinstance(shape, Poly) and shape.id == key
            ]
        return tuple(shapes)

    def _cuts(self, width: float, height: float) -> tuple[Primitive, ...]:
        words, steps = self.words, self.steps()
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
        words, cut = self.words, self.session.build.cut
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

    def picked(self, key: str) -> None:
        self.bench.mark((key,) if key else ())
        found = next((k for k, on in enumerate(self.sheets()) if any(numbered.piece.key == key for numbered in on.named)), None)
        if found is not None and found != min(self.at, len(self.sheets()) - 1):
            self.at, self.cut = found, 0
            self.refresh()

    def hold(self) -> None:
        """Hold the lit piece where it lies, or let it go."""
        on = self.on()
        key = next(iter(self.bench.marked), None)
        at = next((k for k, numbered in enumerate(on.named) if numbered.piece.key == key), None) if on is not None else None
        if on is None or at is None or key is None:
            self.session.said.emit("Click a piece of this sheet first.", "note")
            return
        pin = next((pin for pin in self.session.build.cut.pins if pin.piece == key), None)
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
        here = {numbered.piece.key for numbered in on.named}
        mine = [pin.sheet for pin in pins if pin.piece in here and pin.stock == on.layout.stock]
        return mine[0] if mine else max((pin.sheet for pin in pins), default=0) + 1

    def drop(self, key: str, dx: float, dy: float) -> None:
        """A piece is dragged: it is held where it was put, if it can be cut there."""
        on, made = self.on(), self.bench.plan()
        if on is None or made is None:
            return
        at = next((k for k, numbered in enumerate(on.named) if numbered.piece.key == key), None)
        if at is None:
            return
        cut = self.session.build.cut
        scale, _, _ = self.scale(float(self.chart.width()), float(self.chart.height()))
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
        near_x = min(xs, key=lambda each_x: abs(each_x - x))
        near_y = min(ys, key=lambda each_y: abs(each_y - y))
        x = near_x if abs(near_x - x) < reach else x
        y = near_y if abs(near_y - y) < reach else y
        x = min(max(x, trim), max(layout.length_m - trim - lies.w_m, trim))
        y = min(max(y, trim), max(layout.width_m - trim - lies.h_m, trim))
        return round(x, 5), round(y, 5)

    def marked(self) -> None:
        self.chart.renew()
        self.map.renew()

    def prepared(self) -> None:
        sheets = self.sheets()
        found = next((k for k, on in enumerate(sheets) if any(numbered.piece.key == self._follow for numbered in on.named)), None)
        if found is not None:
            self.at, self._follow = found, ""
        self.at = min(self.at, max(len(sheets) - 1, 0))
        self.cut = min(self.cut, len(self.steps()))
