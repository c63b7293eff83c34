"""Walls and lofts inside: a plan to pick and drag them in, and the list beside it."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QMouseEvent, QPainter, QPen

from uncle_sled.core.document.edits import add_to, remove, set_to
from uncle_sled.core.document.shell import Loft, Partition
from uncle_sled.core.document.walling import first_loft, first_partition
from uncle_sled.core.drawing.rig import rig_views
from uncle_sled.core.drawing.shell.inner_views import inner_view
from uncle_sled.core.drawing.shell.openings_seen import openings_seen
from uncle_sled.core.parts.face_build import library_of
from uncle_sled.core.parts.partitions import Deck, Wall, decks_of, inner_of, quieter_db, walls_of
from uncle_sled.core.words import lower_first
from uncle_sled.desk.kit.painting import Frame, paint, write
from uncle_sled.desk.kit.panel import Group, Panel, across, rows, tools
from uncle_sled.desk.kit.parts import Act, Listed, Own, Says, note
from uncle_sled.desk.kit.table import Column
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.drag_paper import DragPaper
from uncle_sled.desk.sheet.gestures import Paper, TypedDrag
from uncle_sled.desk.theme.theme import colour

CAUTION = "A wall carries the loft or the roof only where somebody reckoned it: local code and a licensed engineer decide."
Inner = Partition | Loft


class DragWall(TypedDrag[Paper]):
    """Slides a wall to another station (or a loft's rear edge); a typed number is where it stands."""

    typed_is = "stands at"

    def __init__(self, view: Paper, pane: str, at: QPointF, inner: Inner) -> None:
        super().__init__(view, pane, at, view.session.take_up(f"Move the {lower_first(inner.name)}", (inner.id,)))
        self.one = inner
        across = isinstance(inner, Loft) or inner.way == "across"
        self.axis = "x" if across else "y"
        self.now = inner.rear.si if isinstance(inner, Loft) else inner.at.si

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        if self.words or not self.begins(at):
            return
        off = at.x() - self.start.x() if self.axis == "x" else self.start.y() - at.y()
        new = self.now + off / self.view.scale
        if not keys & Qt.KeyboardModifier.ControlModifier:
            step = self.session.shown.step_m
            new = round(new / step) * step
        self.place(max(new, 0.0))

    def place(self, si: float) -> None:
        field = f"shell.lofts.{self.one.id}.rear" if isinstance(self.one, Loft) else f"shell.partitions.{self.one.id}.at"
        self.hand.put([set_to(field, {"si": round(si, 4), "typed": None})] if abs(si - self.now) > 1e-6 else [])


class WallPlan(DragPaper):
    """The body from above with its walls; front at the left, the right side up."""

    least_px = (240, 130)

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Walls from above")
        self.x0, self.y0 = 20.0, 100.0

    # what a gesture asks of its view
    def frame(self, _pane: str) -> Frame:
        return Frame(self.scale, self.x0, self.y0)

    def fit(self) -> None:
        body = self.session.studied.framed.body
        if body is not None and body.width > 0:
            self.scale = max(min((self.width() - 60) / body.length, (self.height() - 50) / body.width), 4.0)
            self.x0 = (self.width() - body.length * self.scale) / 2 - body.front * self.scale
            self.y0 = self.height() / 2
        self.update()

    def boxes(self) -> list[tuple[QRectF, Inner]]:
        """Where each wall and loft is [px], walls first."""
        s = self.session.studied
        body, shell, frame = s.framed.body, s.build.shell, self.frame("plan")
        if body is None:
            return []
        made: list[tuple[QRectF, Inner]] = []
        for wall, partition in zip(walls_of(shell, body, library_of(s.facts.materials)), shell.partitions, strict=True):
            made.append((QRectF(frame.point((wall.low[0], wall.high[1])), frame.point((wall.high[0], wall.low[1]))), partition))
        for deck, loft in zip(decks_of(shell, body), shell.lofts, strict=True):
            made.append((QRectF(frame.point((deck.low[0], deck.high[1])), frame.point((deck.high[0], deck.low[1]))), loft))
        return made

    def draw(self, painter: QPainter) -> None:
        s = self.session.studied
        if s.framed.body is None:
            write(painter, QPointF(14, 22), "There is no body yet: take a form and its sizes on Profile.", 13, "pencil", kept=self.written)
        else:
            frame = self.frame("plan")
            paint(painter, (*rig_views.plan_body(s.build), *openings_seen(s, "plan")), frame, self.written)
            paint(painter, inner_view(s, "plan", named=True), frame, self.written)
            painter.setPen(QPen(colour("chalk"), 2.4))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            for box, inner in self.boxes():
                if inner.id in self.session.selection:
                    painter.drawRect(box.adjusted(-2, -2, 2, 2))
            if not (s.build.shell.partitions or s.build.shell.lofts):
                write(painter, QPointF(14, 16), "No wall inside yet: add one across or along.", 12, "pencil", kept=self.written)

    def at(self, spot: QPointF) -> Inner | None:
        for box, inner in self.boxes():
            if box.adjusted(-4, -4, 4, 4).contains(spot):
                return inner
        return None

    def pressed(self, at: QPointF) -> None:
        inner = self.at(at)
        self.session.select((inner.id,) if inner is not None else ())
        if inner is not None:
            self.gesture = DragWall(self, "plan", at, inner)

    def hovered(self, event: QMouseEvent) -> None:
        over = self.at(event.position()) is not None
        self.setCursor(Qt.CursorShape.SizeAllCursor if over else Qt.CursorShape.ArrowCursor)


class WallsPanel(Panel):
    follows = ("selected",)

    def laid(self) -> Group:
        columns: tuple[Column[Inner], ...] = (
            Column("Wall or loft", lambda inner: inner.name, ink=self._bad),
            Column("At", self._place, right=True),
            Column("Thick", lambda inner: self.words.cut(inner.thick.si), right=True),
            Column("Door", lambda inner: inner.door if isinstance(inner, Partition) else inner.climb or "no way up"),
            Column("Weight", self._weight, right=True),
        )
        session = self.session
        self.table = self.put(
            Listed[Inner](
                "Walls and lofts",
                columns,
                lambda: session.build.shell.inner,
                lambda inner: inner.id,
                lambda inner: session.select((inner.id,)),
                lambda inner: inner.id in session.selection,
                share=1,
            )
        )
        self.plan = self.put(Own(lambda: WallPlan(session), WallPlan.fit, share=1))
        left = rows(
            tools(
                Act("Wall across", "A wall from side to side, with a door", lambda: self.add("across"), plain=True),
                Act("Wall along", "A wall that runs with the body", lambda: self.add("along"), plain=True),
                Act("Loft", "A floor under the roof", lambda: self.add("loft"), plain=True),
                Act("Take it out", "The chosen wall or loft goes", self.take_out, lambda: self.table.row() is not None, plain=True),
            ),
            self.table,
            Says(self._sticks, face="small", hides=True),
            note(CAUTION),
            share=1,
        )
        return across(left, self.plan, gap=8)

    def _wall(self, id: str) -> Wall | Deck | None:
        s = self.session.studied
        body = s.framed.body
        if body is None:
            return None
        made = inner_of(s.build.shell, body, library_of(s.facts.materials))
        return next((inner for inner in made if inner.id == id), None)

    def _bad(self, inner: Inner) -> str:
        wall = self._wall(inner.id)
        return "primer" if wall is not None and wall.fault else ""

    def _place(self, inner: Inner) -> str:
        words = self.words
        return f"{words.cut(inner.front.si)} to {words.cut(inner.rear.si)}" if isinstance(inner, Loft) else words.cut(inner.at.si)

    def _weight(self, inner: Inner) -> str:
        wall = self._wall(inner.id)
        return self.words.kg(wall.mass_kg) if wall is not None and not wall.fault else "not built"

    def add(self, what: str) -> None:
        shell = self.session.build.shell
        if self.session.studied.framed.body is None:
            self.session.said.emit("There is no body yet: take a form and its sizes on Profile.", "note")
            return
        record = first_loft(shell) if what == "loft" else first_partition(shell, what)
        path = "shell.lofts" if what == "loft" else "shell.partitions"
        if self.session.edit(f"Add a {lower_first(record['name'])}", [add_to(path, record)], "Shell", (record["id"],)):
            self.session.select((record["id"],))

    def take_out(self) -> None:
        shell = self.session.build.shell
        for path, of in (("shell.partitions", shell.partitions), ("shell.lofts", shell.lofts)):
            for inner in of:
                if inner.id in self.session.selection:
                    self.session.edit(f"Take out the {lower_first(inner.name)}", [remove(f"{path}.{inner.id}")], "Shell")
                    return

    def _sticks(self) -> str:
        """What a wall is made of, and what it keeps out of sound by its weight alone."""
        inner = self.table.row()
        wall, words = self._wall(inner.id) if inner is not None else None, self.words
        if not isinstance(wall, Wall) or wall.fault or not wall.sticks:
            return words.told(wall.fault) if wall is not None else ""
        kinds: dict[str, list[float]] = {}
        for stick in wall.sticks:
            kinds.setdefault(stick.kind, []).append(stick.length_m)
        said = ", ".join(f"{len(of)} {kind}{'s' if len(of) > 1 else ''} {words.cut(sum(of))}" for kind, of in kinds.items())
        pocket = " No stud or screw in the pocket." if wall.pocket is not None else ""
        return f"{said}. By its weight about {quieter_db(wall.kg_m2):.0f} dB quieter behind it (mass law, 500 Hz); its door less.{pocket}"
