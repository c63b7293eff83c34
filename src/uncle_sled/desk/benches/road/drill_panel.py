"""Drills: point at where the ball will fall, find the thin wire, put five things. Short, scored, with the reason."""

from __future__ import annotations

from typing import Literal

from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.road import drill_sheet
from uncle_sled.core.engine import Same
from uncle_sled.core.studies.road import drills
from uncle_sled.core.words import lower_first
from uncle_sled.desk.benches.road.bench import RoadBench
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.panel import Gap, Group, PanelOf, across, rows
from uncle_sled.desk.kit.parts import Act, Own, Says, one_of
from uncle_sled.desk.session import Session

Kind = Literal["ball", "wire", "five"]
KINDS: tuple[tuple[Kind, str, str], ...] = (
    ("ball", "Where the ball falls", "A tank is filled or a thing moved: point at what the ball will say"),
    ("wire", "The thin wire", "One of your wires was made too thin: which?"),
    ("five", "Five in their places", "Put five things so that every case is in its band"),
)
NONE = {
    "ball": "Wants a ball, an axle and something that moves it: a tank, or a thing that stands loose.",
    "wire": "Wants three wires of known length and load: Wire it up on Systems.",
    "five": "Wants a ball and at least two loose things inside: Stow has them.",
}


class DrillSheet(Chart):
    """The drill's drawing, to point at with the pointer or the arrow keys."""

    def __init__(self, panel: DrillPanel) -> None:
        super().__init__(panel.session, "The drill", panel.shapes, "", panel.why_none)
        self.panel = panel
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def _at(self, event: QMouseEvent) -> QPointF:
        return QPointF(event.position().x(), self.height() - event.position().y())

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self.panel.press(self._at(event).x(), self._at(event).y())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if event.buttons() & Qt.MouseButton.LeftButton:
            self.panel.drag(self._at(event).x(), self._at(event).y())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        if step is not None:
            self.panel.nudge(step)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.panel.answer()
        else:
            super().keyPressEvent(event)


class DrillPanel(PanelOf[RoadBench]):
    kind: Kind = "ball"
    seed = 1
    answered = False
    guess_kg = 0.0
    chosen = ""
    held, grip_m = "", 0.0
    at_m: tuple[float, ...] = ()
    _made: tuple[object, ...] = ()
    ball: drills.BallDrill | None = None
    wire: drills.WireDrill | None = None
    five: drills.FiveDrill | None = None

    def laid(self) -> Group:
        self.go = self.put(
            Act("Answer", "See what it says, and why (Enter)", self.answer, lambda: self.drill is not None and not self.answered, main=True)
        )
        self.sheet = self.put(Own(lambda: DrillSheet(self), DrillSheet.update, share=1))
        self.says = self.put(Says(self._said))
        another = Act("Another", "Another drill of this kind, from this build", self.another, lambda: self.drill is not None)
        return rows(
            across(*one_of(KINDS, lambda: self.kind, self.take), Gap(), another, self.go),
            Says(self._question, face="title"),
            self.sheet,
            self.says,
        )

    def __init__(self, session: Session, bench: RoadBench) -> None:
        self.scores: dict[Kind, int] = {}
        super().__init__(session, bench)

    # which
    def take(self, kind: Kind) -> None:
        self.kind = kind
        self.refresh()

    def another(self) -> None:
        self.seed += 1
        self.refresh()

    def _make(self) -> None:
        """The drill of this kind and number, of the build as it is."""
        s, build = self.session.studied, self.session.build
        asked = (build.brief, build.rig, build.shell, build.stow, build.systems, build.road.corrections, self.session.facts)
        key = (self.kind, self.seed, *(Same(one) for one in asked))
        if self._made == key:  # what is kept of the best asks nothing anew
            return
        self._made = key
        self.answered, self.chosen, self.held = False, "", ""
        if self.kind == "ball":
            self.ball = drills.ball_drill(s, self.seed)
            self.guess_kg = self.ball.before_kg if self.ball is not None else 0.0
        elif self.kind == "wire":
            self.wire = drills.wire_drill(s, self.seed)
        else:
            self.five = drills.five_drill(s, self.seed)
            self.at_m = self.five.begin_m if self.five is not None else ()

    @property
    def drill(self) -> object:
        return {"ball": self.ball, "wire": self.wire, "five": self.five}[self.kind]

    def why_none(self) -> str:
        return NONE[self.kind]

    # the hand
    def press(self, x: float, y: float) -> None:
        wide, high = float(self.sheet.width()), float(self.sheet.height())
        if self.answered:
            return
        if self.kind == "wire" and self.wire is not None:
            self.chosen = drill_sheet.wire_at(self.wire, y, high) or self.chosen
        elif self.kind == "five" and self.five is not None:
            s = drills.put(self.session.studied, self.five.ids, self.at_m)
            self.held = drill_sheet.thing_at(self.five, s, self.at_m, x, y, wide, high) or ""
            if self.held:
                at = self.at_m[self.five.ids.index(self.held)]
                self.grip_m = drill_sheet.frame_of(s, wide, high, 150.0).metres(x) - at
        self.drag(x, y)

    def drag(self, x: float, _y: float) -> None:
        wide, high = float(self.sheet.width()), float(self.sheet.height())
        if self.answered:
            return
        if self.kind == "ball" and self.ball is not None:
            self.guess_kg = drill_sheet.gauge_kg(self.ball, x, wide)
        elif self.kind == "five" and self.five is not None and self.held:
            frame = drill_sheet.frame_of(self.session.studied, wide, high, 150.0)
            self.place(self.held, frame.metres(x) - self.grip_m)
        self._show()

    def place(self, id: str, at_m: float) -> None:
        """One of the five with its front edge there, within the body."""
        assert self.five is not None
        k = self.five.ids.index(id)
        low, high = self.five.spans_m[k]
        self.at_m = (*self.at_m[:k], min(max(at_m, low), high), *self.at_m[k + 1 :])

    def nudge(self, step: int) -> None:
        if self.answered:
            return
        if self.kind == "ball" and self.ball is not None:
            reach = (self.ball.high - self.ball.low) / 100
            self.guess_kg = min(max(self.guess_kg + step * reach, self.ball.low), self.ball.high)
        elif self.kind == "wire" and self.wire is not None:
            ids = [wire.id for wire in self.wire.wires]
            self.chosen = ids[(ids.index(self.chosen) + step) % len(ids)] if self.chosen in ids else ids[0]
        elif self.kind == "five" and self.five is not None:
            self.held = self.held or self.five.ids[0]
            self.place(self.held, self.at_m[self.five.ids.index(self.held)] + 0.05 * step)
        self._show()

    # the answer
    def answer(self) -> None:
        if self.answered or self.drill is None or (self.kind == "wire" and not self.chosen):
            if self.kind == "wire" and self.wire is not None and not self.answered:
                self.says.setText("Choose a wire first.")
            return
        self.answered = True
        s = self.session.studied
        if self.ball is not None and self.kind == "ball":
            self.scores["ball"] = drills.ball_score(self.ball, self.guess_kg)
        elif self.wire is not None and self.kind == "wire":
            self.scores["wire"] = 100 if self.chosen == self.wire.thin else 0
        elif self.five is not None:
            self.scores["five"] = drills.five_score(s, self.five, self.at_m)
        self._keep_best()
        self._show()

    def _keep_best(self) -> None:
        """The mean of one of each kind that the build has; the best is written into the file, as a step."""
        has = [kind for kind, _, _ in KINDS if kind in self.scores or self._can(kind)]
        if any(kind not in self.scores for kind in has):
            return
        mean = round(sum(self.scores[kind] for kind in has) / len(has), 1)
        if mean > self.session.build.road.best_drill:
            self.session.edit(f"Best of the drills: {mean:.0f}", [set_to("road.best_drill", mean)], "Road")

    def _can(self, kind: Kind) -> bool:
        s = self.session.studied
        made = {"ball": drills.ball_drill, "wire": drills.wire_drill, "five": drills.five_drill}[kind]
        return made(s, 1) is not None

    # what is seen
    def shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        s, words = self.session.studied, self.words
        if self.kind == "ball" and self.ball is not None:
            return drill_sheet.ball_drawn(self.ball, s, self.guess_kg, self.answered, words, width, height)
        if self.kind == "wire" and self.wire is not None:
            return drill_sheet.wires_drawn(self.wire, self.chosen, self.answered, words, width, height)
        if self.kind == "five" and self.five is not None:
            there = drills.put(s, self.five.ids, self.at_m)
            return drill_sheet.five_drawn(self.five, there, self.at_m, self.answered, self.held, words, width, height)
        return ()

    def prepared(self) -> None:
        self._make()

    def _show(self) -> None:
        """The same drill after a hand or an answer."""
        self.show_again()

    def _question(self) -> str:
        words, s = self.words, self.session.studied
        if self.kind == "ball" and self.ball is not None:
            drill = self.ball
            case = s.table.cases[drill.row].name
            name, kg = lower_first(drill.name), words.fine_kg(drill.kg)
            if drill.change == "moved":
                way = "aft" if drill.to_m > drill.at_m else "forward"
                what = f"the {name} ({kg}) goes {words.m(abs(drill.to_m - drill.at_m))} {way}"
            else:
                what = f"the {name} is {drill.change} ({kg})"
            return f"{case}: {what}. What does the ball say?"
        if self.kind == "wire" and self.wire is not None:
            return f"One of these {len(self.wire.wires)} was made too thin. Which?"
        if self.kind == "five" and self.five is not None:
            most = (
                "every case"
                if self.five.best == self.five.cases
                else f"{self.five.best} of {self.five.cases} cases, which is the most they can,"
            )
            return f"Put these {len(self.five.ids)} so that {most} has its ball in the band."
        return next(tip for kind, _, tip in KINDS if kind == self.kind) + "."

    def _said(self) -> str:
        best = self.session.build.road.best_drill
        kept = f" Best of all three {best:.0f}." if best else ""
        if not self.answered:
            return f"Nothing of the build is changed by a drill.{kept}"
        score, words = self.scores[self.kind], self.words
        if self.kind == "ball" and self.ball is not None:
            return f"{score} of 100. {drill_sheet.ball_why(self.ball, words)}{kept}"
        if self.kind == "wire" and self.wire is not None:
            thin = next(wire for wire in self.wire.wires if wire.id == self.wire.thin)
            return f"{score} of 100. {thin.name}: {thin.current_a:.1f} A over {words.m(thin.length_m)} there and {words.m(thin.length_m)} back in {thin.size} drops {thin.drop * 100:.1f} % of {thin.volts:.0f} V.{kept}"
        assert self.five is not None
        got = drills.in_band(self.session.studied, self.five.ids, self.at_m)
        return f"{score} of 100: {got} of {self.five.cases} cases are in the band. Only weight and place are judged here, not whether they fit.{kept}"
