"""The faces of one kind laid flat, to scale, with sticks and openings; openings can be dragged, sticks picked."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen, QPolygonF
from PySide6.QtWidgets import QToolTip

from uncle_sled.core.drawing.shell.shell_views import flat_face
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.geometry.laid import Edge, Laid, laid, laid_title
from uncle_sled.core.geometry.surfaces import Surface
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.opening_drag import CURSORS, DragOpening, StretchOpening, edge_near
from uncle_sled.desk.kit.painting import Frame, paint, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.drag_paper import DragPaper
from uncle_sled.desk.theme.theme import colour

LEFT_PX, RIGHT_PX, TOP_PX, LOW_PX, GAP_PX = 18, 66, 26, 26, 34


class FlatView(DragPaper):
    """Shows every surface of ``kind``, one above the other; its pane is the surface's id."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Face laid flat")
        self.kind = "left side"
        self.frames: dict[str, Frame] = {}

    def show_kind(self, kind: str) -> None:
        if kind != self.kind:
            self.kind = kind
            self.fit()

    def surfaces(self) -> tuple[Surface, ...]:
        body = self.session.studied.framed.body
        return body.of(self.kind) if body is not None else ()

    # what a gesture asks of its view
    def frame(self, pane: str) -> Frame:
        return self.frames.get(pane) or Frame(self.scale, LEFT_PX, self.height() - LOW_PX)

    def laid_of(self, surface: Surface) -> Laid:
        return laid(surface)

    def fit(self) -> None:
        surfaces = self.surfaces()
        self.frames = {}
        if surfaces:
            bounds = [laid(surface).bounds(surface.polygon.bounds) for surface in surfaces]
            wide = max(b[2] - b[0] for b in bounds)
            tall = sum(b[3] - b[1] for b in bounds)
            room = (
                max(self.width() - LEFT_PX - RIGHT_PX, 40),
                max(self.height() - TOP_PX - LOW_PX * len(bounds) - GAP_PX * (len(bounds) - 1), 30),
            )
            self.scale = max(min(room[0] / max(wide, 0.01), room[1] / max(tall, 0.01)), 2.0)
            y = TOP_PX + max(room[1] - tall * self.scale, 0.0) / 2
            spare = (room[0] - wide * self.scale) / 2
            for face, (left, low, _, high) in zip(surfaces, bounds, strict=True):
                y += (high - low) * self.scale
                self.frames[face.id] = Frame(self.scale, LEFT_PX + spare - left * self.scale, y + low * self.scale)
                y += LOW_PX + GAP_PX
        self.update()

    def draw(self, painter: QPainter) -> None:
        s, words = self.session.studied, Words(self.session.shown)
        surfaces = self.surfaces()
        if not surfaces:
            write(painter, QPointF(16, 24), f"There is no {self.kind} to lay flat yet.", 13, "pencil", kept=self.written)
        for face in surfaces:
            frame = self.frames.get(face.id)
            if frame is None:
                continue
            left, _, _, high = laid(face).bounds(face.polygon.bounds)
            corner = frame.point((left, high))
            title = elided(laid_title(face), 11, self.width() - 16)
            spot = QPointF(max(min(corner.x(), self.width() - text_width(title, 11) - 8), 8), corner.y() - 11)
            write(painter, spot, title, 11, "pencil", kept=self.written)
            paint(painter, flat_face(s, face, words, self.scale), frame, self.written)
        self._chosen(painter)

    def _chosen(self, painter: QPainter) -> None:
        chosen = set(self.session.selection)
        s = self.session.studied
        painter.setPen(QPen(colour("chalk"), 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for face in self.surfaces():
            frame = self.frames.get(face.id)
            if frame is None:
                continue
            for member in s.framed.on(face.id):
                if member.id in chosen:
                    painter.drawPolygon(QPolygonF([frame.point(p) for p in laid(face).points(member.outline)]))
            for cut in s.framed.cuts:
                if cut.surface == face.id and cut.id in chosen:
                    left, low, right, high = laid(face).bounds(cut.shape.bounds)
                    painter.drawRect(QRectF(frame.point((left, high)), frame.point((right, low))))

    def at(self, spot: QPointF) -> tuple[Surface, str, bool] | None:
        """The surface under a point with the id of its opening or stick there, and whether it is an opening."""
        s = self.session.studied
        for face in self.surfaces():
            frame = self.frames.get(face.id)
            if frame is None:
                continue
            x, y = laid(face).back(frame.metres(spot))
            reach = 3 / self.scale
            for cut in s.framed.cuts:
                left, low, right, high = cut.shape.bounds
                if (
                    cut.surface == face.id
                    and cut.kind != "wheel box"
                    and left - reach <= x <= right + reach
                    and low - reach <= y <= high + reach
                ):
                    return face, cut.id, True
            for member in s.framed.on(face.id):
                xs, ys = [p[0] for p in member.outline], [p[1] for p in member.outline]
                if min(xs) - reach <= x <= max(xs) + reach and min(ys) - reach <= y <= max(ys) + reach:
                    return face, member.id, False
        return None

    def _edge_at(self, spot: QPointF) -> tuple[str, Surface, Edge] | None:
        """The edge of the chosen opening under a point: its id, surface, and which edge."""
        surfaces = {face.id: face for face in self.surfaces()}
        for cut in self.session.studied.framed.cuts:
            frame = self.frames.get(cut.surface)
            if cut.id in self.session.selection and cut.surface in surfaces and frame and cut.kind != "wheel box":
                side = edge_near(cut.shape.bounds, spot, frame, laid(surfaces[cut.surface]))
                if side is not None:
                    return cut.id, surfaces[cut.surface], side
        return None

    def pressed(self, at: QPointF) -> None:
        edge = self._edge_at(at)
        if edge is not None:
            self.gesture = StretchOpening(self, edge[1].id, at, *edge)
            return
        found = self.at(at)
        if found is None:
            self.session.select(())
            return
        surface, id, opening = found
        self.session.select((id,))
        if opening:
            self.gesture = DragOpening(self, surface.id, at, id, surface)

    def hovered(self, event: QMouseEvent) -> None:
        found, edge = self.at(event.position()), self._edge_at(event.position())
        self.setCursor(
            CURSORS[edge[2]] if edge is not None else Qt.CursorShape.SizeAllCursor if found and found[2] else Qt.CursorShape.ArrowCursor
        )
        member = next((m for m in self.session.studied.framed.members if found and m.id == found[1]), None)
        if member is not None:
            words = Words(self.session.shown)
            QToolTip.showText(
                event.globalPosition().toPoint(),
                f"{member.kind}, {words.section(member.section_m)}, {words.cut(member.length_m)} long, {words.kg(member.mass_kg)}",
                self,
            )
        else:
            QToolTip.hideText()

    def rest_key(self, event: QKeyEvent) -> None:
        """Left and right step through the sticks of the faces shown; the list of openings is their own table."""
        ids = [m.id for face in self.surfaces() for m in self.session.studied.framed.on(face.id)]
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right) and ids:
            now = next((at for at, id in enumerate(ids) if id in self.session.selection), -1)
            self.session.select((ids[(now + (1 if event.key() == Qt.Key.Key_Right else -1)) % len(ids)],))
        else:
            super().rest_key(event)
