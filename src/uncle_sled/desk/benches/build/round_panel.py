"""The body in the round on any day of the work: turned, taken apart, coloured; what stands there then and how it stands."""

from __future__ import annotations

from functools import partial
from typing import Any

from msgspec.structs import replace
from PySide6.QtCore import QSignalBlocker, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QSlider

from uncle_sled.core.document.edits import Op, add_to, set_to
from uncle_sled.core.drawing.build.day_strip import HIGH, StripScale, day_strip, last_day
from uncle_sled.core.drawing.build.plan_chart import day_of
from uncle_sled.core.drawing.build.round_legend import Line, legend, legend_drawn
from uncle_sled.core.drawing.build.round_look import OFF, Colours, RoundLook, moved_of, shown_of, tones_of
from uncle_sled.core.drawing.build.standing_words import there_words
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.round.piece_words import piece_name
from uncle_sled.core.round.round_piece import RoundPiece
from uncle_sled.core.round.round_pieces import round_pieces, scene
from uncle_sled.core.studies.build.schedule import best_schedule
from uncle_sled.core.studies.build.standing import Standing, done_by, on_day, order_of, standing, states_of
from uncle_sled.core.studies.build.tasks import tasks_of
from uncle_sled.core.studies.build.what_it_is import START
from uncle_sled.desk.benches.build.bench import BuildBench
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.panel import Gap, Group, PanelOf, across, card, rows, tools
from uncle_sled.desk.kit.parts import Act, Busy, Choice, DrawingOf, Menu, Own, Says, one_of
from uncle_sled.desk.kit.round_view import FIRST, RoundView, Shown
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import theme_name

SIDE_PX = 232
NOTHING = "Nothing is drawn yet: give the body a form and a size on Shell, or put something in on Stow."
WAYS: tuple[tuple[str, float, float], ...] = (
    ("from behind, left", FIRST.around_deg, FIRST.over_deg),
    ("from the front, left", 145.0, 22.0),
    ("from the front, right", 215.0, 22.0),
    ("from behind, right", 325.0, 22.0),
    ("left side", 90.0, 0.0),
    ("right side", 270.0, 0.0),
    ("from above", 90.0, 89.0),
    ("from below", 35.0, -35.0),
)


class DayStrip(Chart):
    """``moved`` carries the day that the pointer was put on."""

    moved = Signal(float)

    def __init__(self, *args: Any) -> None:
        super().__init__(*args)
        self.scale: StripScale | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFixedHeight(HIGH)
        self.held = False

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.scale is not None and event.button() == Qt.MouseButton.LeftButton:
            self.held = True
            self.moved.emit(self.scale.day(event.position().x()))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.held and self.scale is not None:
            self.moved.emit(self.scale.day(event.position().x()))

    def mouseReleaseEvent(self, _event: QMouseEvent) -> None:
        self.held = False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Left: -1.0, Qt.Key.Key_Right: 1.0, Qt.Key.Key_PageUp: 7.0, Qt.Key.Key_PageDown: -7.0}.get(Qt.Key(event.key()))
        if step is None or self.scale is None:
            super().keyPressEvent(event)
            return
        day = self.scale.days if self.session.day is None else self.session.day
        self.moved.emit(min(max(day + step, 0.0), self.scale.days))


class RoundPanel(PanelOf[BuildBench]):
    seen_as = RoundLook()
    picked: RoundPiece | None = None

    def laid(self) -> Group:
        colours: tuple[tuple[Colours, str, str], ...] = (
            ("stuff", "Stuff", "Coloured by what it is made of"),
            ("task", "Task", "Coloured by the task that brings it"),
            ("stop", "Stop", "Coloured by the stop where it is worked on"),
            ("mass", "Mass", "Coloured by what each piece weighs"),
        )
        self.view = self.put(Own(self._made_view, RoundView.renew, share=1))
        self.strip = self.put(DrawingOf("Days of the work", self._strip, "", "No tasks yet.", kind=DayStrip))
        self.strip.moved.connect(self.to_day)
        self.legend = self.put(DrawingOf("What the colours mean", self._legend, "", "Nothing is drawn yet.", kind=Chart, share=1))
        piece = card(
            lambda: "Piece" if self.picked is None else piece_name(self.picked, self.session.build, self.session.facts),
            Says(self._told_piece, "pencil", "small"),
            Choice(
                "Comes with", self._tasks, self.comes_with, self._comes, "The task that brings it", 12, when=lambda: self.picked is not None
            ),
            gap=4,
        )
        return rows(
            Busy(best_schedule),
            tools(
                *one_of(colours, lambda: self.seen_as.colours, self.colour),
                Says("Without", "pencil", "small", one_line=True),
                *(
                    Act(text, f"{text} on or off: what lies under it is seen", partial(self.turn_off, kind), down=partial(self._off, kind))
                    for kind, text in OFF
                ),
                Gap(4),
                Own(self._slider, self._keep_slider, wide=72),
                Choice(
                    "Look", [("", "look …"), *((name, name) for name, _, _ in WAYS)], self.look_from, lambda: "", "Where one looks from", 8
                ),
                Menu(
                    "Save",
                    (
                        ("As it is seen, PNG…", self.save_picture),
                        ("Every piece, STL…", lambda: self.export("pieces-stl")),
                        ("The book, step by step, PDF…", lambda: self.export("book-pdf")),
                    ),
                ),
                gap=4,
            ),
            across(self.view, rows(piece, self.legend, gap=4, wide=SIDE_PX), gap=8, share=1),
            self.strip,
            across(
                Says(self._told, face="small", share=1),
                Act("Whole", "The whole build again (Esc)", partial(self.session.show_day, None), lambda: self.session.day is not None),
            ),
            gap=5,
        )

    def __init__(self, session: Session, bench: BuildBench) -> None:
        super().__init__(session, bench)
        session.day_changed.connect(self._again)
        session.selected.connect(self._again)

    def _again(self) -> None:
        if self.isVisible():
            self.refresh()

    # what is there
    def pieces(self) -> tuple[RoundPiece, ...]:
        return round_pieces(self.session.build, self.session.facts)

    def _made_view(self) -> RoundView:
        made = RoundView(self.session, "The body in the round", self._shown)
        made.picked.connect(self.pick)
        return made

    def _slider(self) -> QSlider:
        made = QSlider(Qt.Orientation.Horizontal)
        made.setRange(0, 100)
        made.setAccessibleName("Drawn apart")
        made.setToolTip("How far its pieces are drawn apart")
        made.valueChanged.connect(self.draw_apart)
        return made

    def _keep_slider(self, slider: QSlider) -> None:
        with QSignalBlocker(slider):
            slider.setValue(round(self.seen_as.apart * 100))

    def done(self) -> frozenset[str] | None:
        """Tasks that are done on the day that is looked at; None: all of them."""
        return None if self.session.day is None else done_by(self.session.schedule(), self.session.day)

    def _shown(self) -> Shown:
        pieces = self.pieces()
        look = replace(self.seen_as, done=self.done())
        order = order_of(self.session.schedule())
        chosen = self.session.selection

        return Shown(
            scene(pieces),
            shown_of(pieces, look),
            moved_of(pieces, look),
            lambda theme: tones_of(pieces, look, order, theme, chosen),
            partial(self._hover, pieces),
            NOTHING if not pieces else "Nothing stands there on that day.",
        )

    def _hover(self, pieces: tuple[RoundPiece, ...], number: int) -> str:
        piece = pieces[number]
        kg = f", {self.words.fine_kg(piece.mass_kg)}" if piece.mass_kg is not None else ""
        return f"{piece_name(piece, self.session.build, self.session.facts)}{kg}"

    def _strip(self, width: float, height: float) -> tuple[Primitive, ...]:
        schedule = self.session.schedule()
        self.strip.scale = StripScale(schedule, width) if schedule.placed else None
        return day_strip(schedule, states_of(self.session.studied, schedule), self.session.day, width, height)

    def _lines(self) -> tuple[Line, ...]:
        names = {task.id: task.name for task in tasks_of(self.session.build, self.session.facts)}
        order = order_of(self.session.schedule())
        return legend(self.pieces(), self.seen_as, names, order, self.words, theme_name())

    def _legend(self, width: float, height: float) -> tuple[Primitive, ...]:
        return legend_drawn(self._lines(), width, height)

    def _standing(self) -> Standing | None:
        session = self.session
        schedule = session.schedule()
        if session.day is not None:
            return on_day(session.studied, schedule, session.day)
        after = standing(session.studied, schedule)
        return after[-1] if after else None

    def _told(self) -> str:
        one = self._standing()
        if one is None:
            return "No day is planned: Calendar says what keeps it from beginning." if self.pieces() else ""
        session = self.session
        words = there_words(one, self.words, session.build.rig.carrier == "vehicle bed")
        if session.day is None:
            return f"When all is done, tanks empty: {words}"
        schedule = session.schedule()
        when = day_of(schedule.begin, session.day)
        return f"On {when}, tanks empty: {words}"

    # the piece
    def pick(self, number: int) -> None:
        pieces = self.pieces()
        self.picked = pieces[number] if 0 <= number < len(pieces) else None
        self.session.select((self.picked.id,) if self.picked is not None else ())
        self.refresh()

    def _told_piece(self) -> str:
        piece = self.picked
        if piece is None:
            return "Click a piece: what it is, what it weighs, which task brings it. Drag turns it, Shift drags it aside."
        kg = self.words.fine_kg(piece.mass_kg) if piece.mass_kg is not None else "known with others only"
        return f"{piece.what.capitalize()}. Weight: {kg}."

    def _tasks(self) -> list[tuple[object, str]]:
        made: list[tuple[object, str]] = [(START, "there from the start")]
        return [*made, *((task.id, task.name) for task in tasks_of(self.session.build, self.session.facts))]

    def _comes(self) -> object:
        return self.picked.by if self.picked is not None else START

    def comes_with(self, task: object) -> None:
        """The chosen piece, and all of its kind that are reckoned with it, comes with another task."""
        piece = self.picked
        if piece is None or task == piece.by:
            return
        name = next((told for id, told in self._tasks() if id == task), "")
        part = piece.part or piece.id
        if self.session.edit(
            f"{piece.what.capitalize()} comes with: {name.lower()}", brings_ops(self.session, part, piece.what, str(task)), "Build"
        ):
            self.picked = next(
                (other for other in self.pieces() if (other.id, other.key, other.what) == (piece.id, piece.key, piece.what)), None
            )
            self.refresh()

    # how it is seen
    def colour(self, colours: Colours) -> None:
        self.seen_as = replace(self.seen_as, colours=colours)
        self.refresh()

    def _off(self, kind: str) -> bool:
        return kind in self.seen_as.off

    def turn_off(self, kind: str) -> None:
        off = tuple(each for each in self.seen_as.off if each != kind) if kind in self.seen_as.off else (*self.seen_as.off, kind)
        self.seen_as = replace(self.seen_as, off=off)
        self.refresh()

    def draw_apart(self, percent: int) -> None:
        self.seen_as = replace(self.seen_as, apart=percent / 100.0)
        self.view.renew()

    def look_from(self, name: object) -> None:
        found = next((way for way in WAYS if way[0] == name), None)
        if found is not None:
            self.view.look_from(*found[1:])

    def as_a_picture(self) -> None:
        """Half built, its roof off, in fine pixels: for a picture of this view."""
        self.to_day(0.8 * last_day(self.session.schedule()))
        self.seen_as = replace(self.seen_as, off=("roof",))
        self.refresh()
        self.view.finish()

    def to_day(self, day: float) -> None:
        schedule = self.session.schedule()
        self.session.show_day(None if day >= last_day(schedule) - 1e-6 else day)

    def save_picture(self) -> None:
        sight = self.view.sight
        asked = (
            f"around {sight.around_deg:.1f}",
            f"over {sight.over_deg:.1f}",
            f"colours {self.seen_as.colours}",
            f"apart {self.seen_as.apart:.2f}",
        )
        off = tuple(f"off {kind}" for kind in self.seen_as.off)
        day = (f"day {self.session.day:.2f}",) if self.session.day is not None else ()
        self.export("round-png", ((*asked, *off, *day), ""))


def brings_ops(session: Session, part: str, what: str, task: str) -> list[Op]:
    """Ops that let a task bring a part; nothing is written down where it is the usual one."""
    id = f"{part} {what}"
    known = any(own.id == id for own in session.build.work.brings)
    if known:
        return [set_to(f"work.brings.{id}.task", task)]
    return [add_to("work.brings", {"id": id, "part": part, "what": what, "task": task})]
