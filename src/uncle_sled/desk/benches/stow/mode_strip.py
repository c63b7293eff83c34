"""All modes side by side, each drawn as it stands, with what is wrong in it; a click goes there."""

from __future__ import annotations

import msgspec
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.stow import Mode
from uncle_sled.core.drawing.primitives import Primitive, Text
from uncle_sled.core.drawing.rig import rig_views
from uncle_sled.core.drawing.rig.things_placed import things_in
from uncle_sled.core.drawing.stow.people import people_view, under_sleepers
from uncle_sled.core.drawing.stow.rising_drawn import rising_view
from uncle_sled.core.drawing.stow.swings import clash_view, swings_view
from uncle_sled.core.drawing.text_width import elided
from uncle_sled.core.studies.stow.beds import beds_in, sleepers_in
from uncle_sled.core.studies.stow.clashes import clashes, modes_in_use
from uncle_sled.core.studies.stow.ways_out import second_way_missing, ways_out
from uncle_sled.core.words import Words
from uncle_sled.desk.ask import ask, ask_text
from uncle_sled.desk.kit.drawn import Drawn, Pane
from uncle_sled.desk.kit.painting import Frame, canvas, said_if_it_fails, write
from uncle_sled.desk.kit.panel import Gap, Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Act, Own, hint
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

GAP_PX, EDGE_PX, HEAD_PX, LINE_PX, LINES = 10, 12, 46, 17, 4
LEAST_PX = 250


class StripSheet(Drawn):
    """One card a mode, in as many rows as they need."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "All modes side by side")
        self.cards: dict[str, QRectF] = {}

    def make_panes(self) -> tuple[Pane, ...]:
        modes = self.session.build.stow.modes
        across = max(min(len(modes), int((self.width() - GAP_PX) // (LEAST_PX + GAP_PX))), 1)
        down = -(-len(modes) // across)
        wide = (self.width() - GAP_PX * (across + 1)) / across
        high = (self.height() - GAP_PX * (down + 1)) / down
        self.cards = {}
        made: list[Pane] = []
        for at, mode in enumerate(modes):
            card = QRectF(GAP_PX + (wide + GAP_PX) * (at % across), GAP_PX + (high + GAP_PX) * (at // across), wide, high)
            self.cards[mode.id] = card
            made += self._card(mode, card)
        return tuple(made)

    def _card(self, mode: Mode, card: QRectF) -> list[Pane]:
        """Side view over plan at one scale, as large as the card has room for."""
        session = self.session
        build = session.build
        room = card.adjusted(EDGE_PX, HEAD_PX, -EDGE_PX, -LINE_PX * LINES - 6)
        top, half = rig_views.heights_m(build, mode)
        left = -0.95 if build.rig.carrier == "vehicle bed" else -0.1
        reach = rig_views.reach_m(build, mode) + (0.15 if mode.towing else 0.75)  # an open hatch stands out
        scale = max(min(room.width() / (reach - left), (room.height() - 10) / (top + 2 * half)), 2.0)
        x0 = room.left() - left * scale + (room.width() - scale * (reach - left)) / 2
        slack = max(room.height() - 10 - scale * (top + 2 * half), 0) / 2
        side = Frame(scale, x0, room.top() + slack + top * scale)
        plan = Frame(scale, x0, side.y0 + 10 + half * scale)
        return [Pane(side, card, self._view(mode, "side")), Pane(plan, card, self._view(mode, "plan"))]

    def _view(self, mode: Mode, view: str) -> tuple[Primitive, ...]:
        session = self.session
        s, build, facts = session.studied, session.build, session.facts
        row = next((at for at, case in enumerate(s.table.cases) if case.mode.id == mode.id), session.row)
        things = things_in(s, row, mode) if s.table.cases else ()
        under = under_sleepers(build, facts, mode) if view == "plan" else frozenset()
        boxes = [shape for p in things if p.thing.id not in under for shape in rig_views.thing_shapes(p, view, hatched=False)]
        use = (*rising_view(build, facts, mode, view), *swings_view(build, facts, mode, view), *people_view(build, facts, mode, view))
        marks = clash_view(build, facts, mode, view)
        if view == "side":
            rig = (*rig_views.side_rig(build), *rig_views.side_body(build))
            shapes = (*rig, *boxes, *use, *rig_views.side_wheels(build), *marks)
        else:
            rig = (*rig_views.plan_rig(build), *rig_views.plan_wheels(build), *rig_views.plan_body(build))
            shapes = (*rig, *boxes, *use, *marks)
        return tuple(shape for shape in shapes if not isinstance(shape, Text))

    def lines_of(self, mode: Mode) -> list[tuple[str, str]]:
        """What is to be known of a mode, each with its ink."""
        session = self.session
        build, facts, words = session.build, session.facts, Words(session.shown)
        found = clashes(build, facts)[mode.id]
        hard = [clash for clash in found if clash.solid]
        made = [
            (f"{len(hard)} stand in each other: {hard[0].a_name} in {hard[0].b_name}", "primer")
            if hard
            else ("nothing stands in anything", "spruce")
        ]
        soft = len(found) - len(hard)
        if soft:
            made.append((f"{soft} without room to open or covered", "ochre word"))
        s = session.studied
        row = next((at for at, case in enumerate(s.table.cases) if case.mode.id == mode.id), None)
        tongue = s.readings.tongue_kg[row] if row is not None else float("nan")
        if mode.towing and row is not None and tongue == tongue:
            made.append((f"{words.kg(float(tongue))} on the ball, {words.share(float(s.readings.share[row]))}", "ink"))
        if build.rig.carrier == "vehicle bed" and row is not None and s.readings.axle_kg.shape[1] == 2:
            front, rear = (words.kg(float(kg)) for kg in s.readings.axle_kg[row])
            made.append((f"front axle {front}, rear {rear}", "ink"))
        if mode.id in modes_in_use(build) and beds_in(build, facts, mode):
            sleepers = sleepers_in(build, facts, mode)
            good = sum(1 for sleeper in sleepers if sleeper.fits)
            made.append((f"{good} of {len(sleepers)} fit in bed", "spruce" if good == len(sleepers) else "ochre word"))
            missing = second_way_missing(ways_out(build, facts, mode)) if build.shell.openings else "ways out not drawn"
            made.append((missing or "two ways out", "primer" if missing else "spruce"))
        return made[:LINES]

    @said_if_it_fails
    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            now = self.session.mode.id
            for mode in self.session.build.stow.modes:
                card = self.cards.get(mode.id)
                if card is None:
                    continue
                painter.setPen(QPen(colour("chalk" if mode.id == now else "rule"), 2.2 if mode.id == now else 1.0))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRoundedRect(card, 5, 5)
                room = card.width() - 2 * EDGE_PX
                write(
                    painter,
                    QPointF(card.left() + EDGE_PX, card.top() + 16),
                    elided(mode.name, 15, room, "strong"),
                    15,
                    "ink",
                    "strong",
                    kept=self.written,
                )
                gone = sum(1 for t in self.session.build.stow.things if t.id in mode.absent)
                kind = "on the road" if mode.towing else "standing"
                moved = len(mode.touched)
                says = f"{kind}; {moved} elsewhere or changed, {gone} left out"
                write(painter, QPointF(card.left() + EDGE_PX, card.top() + 34), elided(says, 11, room), 11, "pencil", kept=self.written)
                lines = self.lines_of(mode)
                for at, (text, ink) in enumerate(lines):
                    y = card.bottom() - LINE_PX * (len(lines) - at) + 4
                    write(painter, QPointF(card.left() + EDGE_PX, y), elided(text, 13, room), 13, ink, kept=self.written)

    def mode_at(self, at: QPointF) -> str | None:
        self.panes()
        return next((id for id, card in self.cards.items() if card.contains(at)), None)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        mode = self.mode_at(event.position())
        if mode is not None:
            self.session.show_mode(mode)
        super().mousePressEvent(event)


class ModeStrip(Panel):
    """The strip with what can be done to modes above it."""

    def laid(self) -> Group:
        self.sheet = StripSheet(self.session)
        return rows(
            across(
                Act("Add a mode…", "A copy of the one that is shown, to be changed", self.add, plain=True),
                Act("Rename…", "Give the shown mode another name", self.rename, plain=True),
                Act("Stands / drives", "Whether the shown mode is on the road or standing", self.turn, plain=True),
                Act(
                    "Roof up / down",
                    "Whether the roof goes up in the shown mode; on the road it is down",
                    self.turn_roof,
                    lambda: not self.session.mode.towing,
                    when=lambda: self.session.build.shell.rising is not None,
                    plain=True,
                ),
                Act("Take away", "Take the shown mode away, with the places it keeps", self.take_away, plain=True),
                Gap(),
                hint("Click a mode to work in it."),
            ),
            Own(lambda: self.sheet, share=1),
        )

    def add(self) -> None:
        name = ask_text(self, "A new mode", "What is it called?", "Cargo")
        if name:
            self.make(name)

    def make(self, name: str) -> None:
        """A copy of the shown mode under another name."""
        build, now = self.session.build, self.session.mode
        taken = [mode.id for mode in build.stow.modes]
        id = name.strip().lower().replace(" ", "-").replace(".", "")
        if not id or id in taken or not id.replace("-", "").isalnum():
            id = fresh_id("m", taken)
        record = msgspec.to_builtins(msgspec.structs.replace(now, id=id, name=name.strip()[:40]))
        if self.session.edit(f"Add the mode {name.strip()[:40]}", [add_to("stow.modes", record)], "Stow"):
            self.session.show_mode(id)

    def rename(self) -> None:
        mode = self.session.mode
        name = ask_text(self, "Rename the mode", "What is it called?", mode.name)
        if name:
            self.session.edit(f"Call the mode {name[:40]}", [set_to(f"stow.modes.{mode.id}.name", name[:40])], "Stow")

    def turn(self) -> None:
        mode, modes = self.session.mode, self.session.build.stow.modes
        if mode.towing and sum(1 for mode in modes if mode.towing) == 1:
            self.session.said.emit("One mode has to drive; make another one drive first.", "stop")
            return
        word = "standing" if mode.towing else "on the road"
        self.session.edit(f"{mode.name} is {word}", [set_to(f"stow.modes.{mode.id}.towing", not mode.towing)], "Stow")

    def turn_roof(self) -> None:
        mode = self.session.mode
        word = "up" if mode.roof_down else "down"
        self.session.edit(f"The roof is {word} in {mode.name}", [set_to(f"stow.modes.{mode.id}.roof_down", not mode.roof_down)], "Stow")

    def take_away(self) -> None:
        session, mode = self.session, self.session.mode
        modes = session.build.stow.modes
        if len(modes) == 1 or (mode.towing and sum(1 for mode in modes if mode.towing) == 1):
            session.said.emit("One mode that drives has to stay.", "stop")
            return
        lost = f"{len(mode.touched)} places or states and {sum(c.mode == mode.id for c in session.build.stow.cases)} load cases of its own go with it. Undo brings them back."
        if ask(self, f"Take {mode.name} away", lost, [("away", "Take it away"), ("", "Leave it")]) == "away":
            self.drop(mode)

    def drop(self, mode: Mode) -> None:
        ops: list[Op] = [remove(f"stow.cases.{case.id}") for case in self.session.build.stow.cases if case.mode == mode.id]
        self.session.edit(f"Take the mode {mode.name} away", [*ops, remove(f"stow.modes.{mode.id}")], "Stow")
