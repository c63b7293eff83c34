"""The Shell stop's sheet: the body from its left with sticks and openings, its profile's handles, its room."""

from __future__ import annotations

import math
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from msgspec.structs import replace
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QImage, QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPen, QPolygonF

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.shell import ProfileNode
from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, dimension
from uncle_sled.core.drawing.rig import rig_views
from uncle_sled.core.drawing.shell import shell_views
from uncle_sled.core.drawing.shell.holds_chart import holds_marks
from uncle_sled.core.drawing.shell.inner_views import inner_view
from uncle_sled.core.drawing.shell.openings_seen import skin_openings
from uncle_sled.core.drawing.stow.rising_drawn import roof_outline
from uncle_sled.core.engine import Same
from uncle_sled.core.errors import GeometryError
from uncle_sled.core.framing.frame_body import Framed
from uncle_sled.core.geometry.laid import Edge, Laid
from uncle_sled.core.geometry.profile_edit import NO_CURVE, Part, profile_ops, smoothed, with_point, without_point
from uncle_sled.core.geometry.surfaces import SIDES, Surface
from uncle_sled.core.reading.studied import Studied
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.studies.shell.shell_measures import measures
from uncle_sled.core.units import distance
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.opening_drag import CURSORS, DragOpening, StretchOpening, edge_near
from uncle_sled.desk.benches.shell.profile_drag import DragNode, MoveSketch, SetTwoPoints
from uncle_sled.desk.benches.shell.sketch import read_sketch, straightened
from uncle_sled.desk.kit.painting import canvas, paint, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.gestures import Gesture
from uncle_sled.desk.sheet.layer import Leaf
from uncle_sled.desk.sheet.sheet_view import SheetView
from uncle_sled.desk.theme.theme import colour

HANDLE_PX = 9.0


class ShellSheet(SheetView):
    """Shows what the open view of the bench is about: ``view`` is its name."""

    above_px = 12
    node_chosen = Signal()
    scaled = Signal(float)  # two points of the sketch were set, so many metres apart as drawn now
    cornered = Signal(object)  # four corners of the picture were set, as shares of it

    def __init__(self, session: Session) -> None:
        super().__init__(session, plan=False)
        self.view = "Profile"
        self.node: int | None = None
        self.sketching = ""  # "scale" or "move" while the sketch is in hand
        self._sketch: tuple[object, QImage, float, str] | None = (
            None  # as it was read: of what, the picture, metres a pixel, why there is none
        )
        self.corners: list[float] = []
        self._good: Framed | None = None
        self.setAccessibleName("Body from its left side")

    def show_view(self, view: str) -> None:
        self.view = view
        self.sketching, self.corners = "", []
        self.update()

    def placed(self) -> Any:
        """No things here: the body alone."""
        return ()

    def fit_again(self) -> None:
        if self._fitted:
            self.fit()

    # what is drawn
    def _shown(self) -> object:
        drawn = self.good_framed()
        return self.session.shown, Same(drawn), self._picture_laid(), Same(self.session.studied.framed)

    def _picture_laid(self) -> tuple[object, ...]:
        """All that says how the picture under the profile lies and shows."""
        return self.view, Same(self.session.build.shell.sketch), self.sketching, len(self.corners), self.session.path

    def leaves(self) -> Iterator[Leaf]:
        s = self.session.studied
        frame, words, drawn = self.frame("side"), Words(self.session.shown), self.good_framed()
        yield Leaf(rig_views.side_rig(s.build), frame)
        yield Leaf((), frame, by_hand=self._paint_sketch, token=self._picture_laid())
        traced = self.view == "Profile" and s.build.shell.sketch is not None
        yield Leaf(shell_views.body_line(s, filled=not traced), frame)
        if self.view != "Profile" and drawn is not None:
            yield Leaf(shell_views.side_sticks(_with(s, drawn), faint=self.view != "Framing"), frame)
        if self.view != "Reline":
            yield Leaf(inner_view(s, "side", named=False), frame, told=False)
            yield Leaf(roof_outline(s), frame, told=False)
        yield Leaf(rig_views.side_wheels(s.build), frame, told=False)
        if self.view == "Holds":
            yield Leaf(holds_marks(screening(s), self.scale), frame)
        if self.view not in ("Faces", "Reline", "Holds", "Joints"):
            named = self.scale if self.view != "Profile" else 0.0  # there the room's own words stand inside
            yield Leaf(shell_views.side_openings(s, words, named), frame, "body")
            yield Leaf(skin_openings(s), frame, told=False)
        yield Leaf(shell_views.bend_marks(s, words), frame)
        m = measures(s)
        if m is not None and self.view == "Profile":
            yield Leaf(shell_views.departure_mark(s, m, words), frame)
            yield Leaf(shell_views.room_marks(s, m, words), frame)
        yield Leaf(self._outside(words), frame)
        if drawn is not s.framed and s.framed.faults:
            stale = Text(frame.metres(QPointF(16, 22)), "framing as it was last good", 11.0, "primer", "strong", "left")
            yield Leaf((stale,), frame)
        yield Leaf(self._ball_to_axle(), frame)

    def _outside(self, words: Words) -> tuple[Primitive, ...]:
        """Outside length over the roof and height behind the tail."""
        body = self.session.studied.framed.body
        if body is None:
            return ()
        top = body.under + body.height
        high = top + 26 / self.scale
        end = body.front + body.length
        x, tick = end + 16 / self.scale, 3.5 / self.scale
        over = dimension((body.front, high), (end, high), f"outside {words.m(body.length)}", tick)
        return (
            *(over if self.view != "Holds" else ()),  # there the marks stand on the roof
            Poly(((x, body.under), (x, top)), "pencil", closed=False),
            Poly(((x - tick, body.under - tick), (x + tick, body.under + tick)), "pencil", closed=False),
            Poly(((x - tick, top - tick), (x + tick, top + tick)), "pencil", closed=False),
            Text((x + 5 / self.scale, body.under + body.height * 0.62), words.m(body.height), 11.0, "ink", anchor="left", ground="paper"),
        )

    def good_framed(self) -> Framed | None:
        """The framing as it is, or as it was when it could last be built."""
        framed = self.session.studied.framed
        if framed.members or not framed.faults:
            self._good = framed
        elif self._good is not None and not self._good.members:
            self._good = None
        return self._good

    @said_if_it_fails
    def paintEvent(self, event: object) -> None:
        super().paintEvent(event)  # type: ignore[arg-type]
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setClipRect(QRectF(1, 1, self.width() - 2, self.height() - 24))
            self._paint_chosen(painter)
            if self.view == "Profile" and self.session.build.shell.form == "profile":
                self._paint_handles(painter)

    def _paint_chosen(self, painter: QPainter) -> None:
        chosen = set(self.session.selection) | set(self._flashing)
        s = self.session.studied
        if not chosen or s.framed.body is None:
            return
        body = s.framed.body
        frame = self.frame("side")
        painter.setPen(QPen(colour("chalk"), 2.6))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for cut in s.framed.cuts:
            if cut.id in chosen and cut.surface in ("left side", "right side"):
                left, low, right, high = cut.shape.bounds
                painter.drawRect(
                    QRectF(frame.point((body.front + left, body.under + high)), frame.point((body.front + right, body.under + low)))
                )
        for face in s.build.shell.faces:
            if face.id in chosen and face.kind in (*SIDES, "front", "roof", "rear", "floor"):
                chain = (
                    body.side.polygon
                    if face.kind in SIDES
                    else body.side.chain(face.kind)
                    if face.kind != "floor"
                    else ((body.front, body.under), (body.front + body.length, body.under))
                )
                painter.drawPolyline(QPolygonF([frame.point((float(x), float(z))) for x, z in chain]))
        for shape in skin_openings(s):
            if isinstance(shape, Poly) and shape.id in chosen:
                painter.drawPolyline(QPolygonF([frame.point(p) for p in shape.points]))
        for shape in shell_views.side_sticks(s):
            if isinstance(shape, Poly) and shape.id in chosen and shape.closed:
                path = QPainterPath()
                path.moveTo(frame.point(shape.points[0]))
                for p in shape.points[1:]:
                    path.lineTo(frame.point(p))
                path.closeSubpath()
                painter.drawPath(path)

    def _paint_ghost(self, painter: QPainter) -> None:
        tried = self.session.ghost_studied
        if tried is None:
            return
        words = Words(self.session.shown)
        frame = self.frame("side")
        if tried.build.rig.axles != self.session.build.rig.axles:
            paint(painter, rig_views.side_wheels(tried.build), frame, stroke="chalk")
        if tried.build.shell is not self.session.build.shell:
            paint(painter, shell_views.body_line(tried), frame, stroke="chalk")
            paint(painter, shell_views.side_openings(tried, words, 0.001), frame, stroke="chalk")

    # profile handles
    def spot(self, u: float, v: float) -> QPointF:
        shell = self.session.build.shell
        front, under = (shell.front.si if shell.front else 0.0), (shell.floor.si if shell.floor else 0.0)
        assert shell.length is not None and shell.height is not None
        return self.frame("side").point((front + u * shell.length.si, under + v * shell.height.si))

    def handles(self) -> list[tuple[int, Part, QPointF]]:
        """Points and the handles of the chosen one, with where they are."""
        shell = self.session.build.shell
        if shell.form != "profile" or not (shell.length and shell.height):
            return []
        made: list[tuple[int, Part, QPointF]] = []
        for at, n in enumerate(shell.profile):
            made.append((at, "node", self.spot(n.u, n.v)))
            if at == self.node:
                for part, u, v in (("in", n.in_u, n.in_v), ("out", n.out_u, n.out_v)):
                    if math.hypot(u - n.u, v - n.v) > 1e-6:
                        made.append((at, part, self.spot(u, v)))  # type: ignore[arg-type]
        return made

    def _paint_handles(self, painter: QPainter) -> None:
        for at, part, spot in self.handles():
            chosen = at == self.node
            painter.setPen(QPen(colour("chalk"), 1.6))
            if part == "node":
                painter.setBrush(colour("chalk") if chosen else colour("field"))
                painter.drawPolygon([spot + QPointF(0, -5.5), spot + QPointF(5.5, 0), spot + QPointF(0, 5.5), spot + QPointF(-5.5, 0)])
            else:
                n = self.session.build.shell.profile[at]
                painter.setPen(QPen(colour("chalk"), 1.0, Qt.PenStyle.DotLine))
                painter.drawLine(self.spot(n.u, n.v), spot)
                painter.setPen(QPen(colour("chalk"), 1.6))
                painter.setBrush(colour("field"))
                painter.drawLine(spot + QPointF(-4, -4), spot + QPointF(4, 4))
                painter.drawLine(spot + QPointF(-4, 4), spot + QPointF(4, -4))

    def _handle_at(self, at: QPointF) -> tuple[int, Part] | None:
        if self.view != "Profile":
            return None
        near = [(math.hypot(at.x() - spot.x(), at.y() - spot.y()), part == "node", node, part) for node, part, spot in self.handles()]
        near = [one for one in near if one[0] <= HANDLE_PX]
        if not near:
            return None
        _, _, node, part = min(near)
        return node, part

    def choose_node(self, node: int | None) -> None:
        if node != self.node:
            self.node = node
            self.node_chosen.emit()
            self.update()

    @property
    def nodes(self) -> tuple[ProfileNode, ...]:
        return self.session.build.shell.profile

    def edit_profile(self, says: str, nodes: tuple[ProfileNode, ...]) -> bool:
        try:
            ops = profile_ops(self.session.build.shell, nodes)
        except GeometryError as fault:
            self.session.said.emit(str(fault), "stop")
            return False
        return self.session.edit(says, ops, "Shell")

    def add_point(self, at: QPointF | None = None) -> None:
        """One more point where the curve is nearest; without a place, on the longest stretch behind the chosen point."""
        shell = self.session.build.shell
        if shell.form != "profile" or not (shell.length and shell.height):
            self.session.said.emit("Only a drawn profile has points; take one of the silhouettes first.", "note")
            return
        if len(self.nodes) < 2:
            self.session.said.emit(NO_CURVE, "note")
            return
        if at is None:
            n = self.node if self.node is not None and self.node < len(self.nodes) - 1 else 0
            a, b = self.nodes[n], self.nodes[n + 1]
            u, v = (a.u + b.u) / 2, (a.v + b.v) / 2
        else:
            x, z = self.frame("side").metres(at)
            u = (x - (shell.front.si if shell.front else 0.0)) / shell.length.si
            v = (z - (shell.floor.si if shell.floor else 0.0)) / shell.height.si
        nodes, made = with_point(self.nodes, u, v)
        if self.edit_profile("Add a point to the profile", nodes):
            self.choose_node(made)

    def take_point(self) -> None:
        if self.node is None:
            self.session.said.emit("Choose a point first: click one of the blue diamonds.", "note")
            return
        try:
            nodes = without_point(self.nodes, self.node)
        except GeometryError as fault:
            self.session.said.emit(str(fault), "note")
            return
        if self.edit_profile("Take a point out of the profile", nodes):
            self.choose_node(None)

    def round_point(self) -> None:
        if self.node is None:
            self.session.said.emit("Choose a point first: click one of the blue diamonds.", "note")
            return
        try:
            self.edit_profile("Round or crease a point", smoothed(self.nodes, self.node))
        except GeometryError as fault:
            self.session.said.emit(str(fault), "note")

    # sketch
    def sketch_image(self) -> tuple[QImage, float, str] | None:
        """The picture, metres a pixel, and why there is none; as it was taken while its corners are set."""
        sketch, raw = self.session.build.shell.sketch, self.sketching == "corners"
        if sketch is None:
            return None
        of = (sketch.file, sketch.corners, sketch.true_wide, sketch.true_high, self.session.path, raw)
        whole = (*of, sketch.m_per_px)
        if self._sketch is None or self._sketch[0] != whole or sketch.picture:
            image, why = read_sketch(sketch, Path(self.session.path) if self.session.path is not None else None)
            true: float | None = None
            if not image.isNull() and not raw:
                image, true = straightened(image, sketch)
            m_per_px = sketch.m_per_px if true is None else true * sketch.m_per_px
            if raw and sketch.corners and not image.isNull():  # its scale is that of the straightened one
                length = self.session.build.shell.length
                m_per_px = (length.si if length is not None else 3.0) / image.width()
            self._sketch = (whole, image, m_per_px, why)
        return self._sketch[1:]

    def _paint_sketch(self, painter: QPainter) -> None:
        sketch, found = self.session.build.shell.sketch, self.sketch_image() if self.view == "Profile" else None
        if sketch is None or found is None:
            return
        image, m_per_px, why = found
        if image.isNull():
            write(painter, QPointF(16, 40), why, 12, "primer", kept=self.written)
            return
        frame = self.frame("side")
        wide, high = image.width() * m_per_px, image.height() * m_per_px
        box = QRectF(frame.point((sketch.x.si, sketch.z.si + high)), frame.point((sketch.x.si + wide, sketch.z.si)))
        painter.setOpacity(0.55)
        painter.drawImage(box, image)
        painter.setOpacity(1.0)
        painter.setPen(QPen(colour("primer"), 2.0))
        for k in range(0, len(self.corners), 2):
            at = QPointF(box.left() + self.corners[k] * box.width(), box.top() + self.corners[k + 1] * box.height())
            painter.drawEllipse(at, 5.0, 5.0)

    def set_corner(self, at: QPointF) -> None:
        """One more corner of what is a rectangle in truth, of four."""
        sketch, found = self.session.build.shell.sketch, self.sketch_image()
        if sketch is None or found is None or found[0].isNull():
            return
        x, z = self.frame("side").metres(at)
        wide, high = found[0].width() * found[1], found[0].height() * found[1]
        self.corners += [(x - sketch.x.si) / wide, 1 - (z - sketch.z.si) / high]
        if len(self.corners) == 8:
            set_so, self.corners, self.sketching = tuple(self.corners), [], ""
            self.cornered.emit(set_so)
        self.update()

    def two_points(self, a: tuple[float, float], b: tuple[float, float]) -> None:
        self.sketching = ""
        far = math.dist(a, b)
        if far < 0.02:
            self.session.said.emit("Pull from one point of the sketch to the other; those two lay on one spot.", "note")
            return
        self.scaled.emit(far)

    def move_sketch(self, dx: float, dz: float) -> None:
        sketch = self.session.build.shell.sketch
        if sketch is not None:
            self.session.edit(
                "Slide the sketch",
                [
                    set_to("shell.sketch.x", {"si": round(sketch.x.si + dx, 4), "typed": None}),
                    set_to("shell.sketch.z", {"si": round(sketch.z.si + dz, 4), "typed": None}),
                ],
                "Shell",
                (),
                "slide-sketch",
            )

    # mouse and keys
    def laid_of(self, surface: Surface) -> Laid:
        """A side lies in this view where it is on the rig."""
        return Laid(dx=surface.origin[0], dy=surface.origin[2])

    def opening_at(self, at: QPointF) -> str | None:
        """The opening under a point: of the left side first, the smaller first."""
        s = self.session.studied
        if s.framed.body is None or self.view in ("Faces", "Reline"):
            return None
        x, z = self.frame("side").metres(at)
        s_at, t_at = x - s.framed.body.front, z - s.framed.body.under
        reach = 4 / self.scale
        found = []
        for cut in s.framed.cuts:
            if cut.surface in ("left side", "right side") and cut.kind != "wheel box":
                left, low, right, high = cut.shape.bounds
                if left - reach <= s_at <= right + reach and low - reach <= t_at <= high + reach:
                    found.append((cut.surface != "left side", cut.shape.area, cut.id))
        return min(found)[2] if found else None

    def _edge_at(self, at: QPointF) -> tuple[str, Surface, Edge] | None:
        """The edge of the chosen opening under a point: its id, surface, and which edge."""
        s = self.session.studied
        if s.framed.body is None or self.view in ("Faces", "Reline"):
            return None
        for cut in s.framed.cuts:
            if cut.id in self.session.selection and cut.surface in SIDES and cut.kind != "wheel box":
                surface = next(face for face in s.framed.body.surfaces if face.id == cut.surface)
                side = edge_near(cut.shape.bounds, at, self.frame("side"), self.laid_of(surface))
                if side is not None:
                    return cut.id, surface, side
        return None

    def member_at(self, at: QPointF) -> str | None:
        if self.view != "Framing":
            return None
        x, z = self.frame("side").metres(at)
        for shape in reversed(shell_views.side_sticks(self.session.studied)):
            if isinstance(shape, Poly) and shape.closed and _inside(shape.points, x, z):
                return shape.id
        return None

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if event.button() == Qt.MouseButton.LeftButton and not self._space:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.point(())
            made = self._taken(at)
            if made is not None:
                self.gesture = made if isinstance(made, Gesture) else None
                return
        super().mousePressEvent(event)

    def _taken(self, at: QPointF) -> Gesture[Any] | bool | None:
        """The gesture that begins here, True where something was only picked, None where nothing of ours is."""
        if self.sketching == "scale":
            return SetTwoPoints(self, "side", at)
        if self.sketching == "move":
            return MoveSketch(self, "side", at)
        if self.sketching == "corners":
            self.set_corner(at)
            return True
        handle = self._handle_at(at)
        if handle is not None:
            self.choose_node(handle[0])
            return DragNode(self, "side", at, *handle)
        if self.node is not None:
            self.choose_node(None)
        edge = self._edge_at(at)
        if edge is not None:
            return StretchOpening(self, "side", at, *edge)
        id = self.opening_at(at)
        if id is not None:
            self.session.select((id,))
            s = self.session.studied
            cut = next(c for c in s.framed.cuts if c.id == id)
            surface = next(surface for surface in s.framed.body.surfaces if surface.id == cut.surface)  # type: ignore[union-attr]
            return DragOpening(self, "side", at, id, surface)
        member = self.member_at(at)
        if member is not None:
            self.session.select((member,))
            return True
        return None

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if self.view == "Profile" and self._handle_at(event.position()) is None:
            self.add_point(event.position())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        super().mouseMoveEvent(event)
        if self.gesture is None:
            at = event.position()
            edge = self._edge_at(at)
            if edge is not None and self._handle_at(at) is None:
                self.setCursor(CURSORS[edge[2]])
            elif self._handle_at(at) is not None or self.opening_at(at) is not None:
                self.setCursor(Qt.CursorShape.SizeAllCursor)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}
        if event.key() in steps and self.gesture is None and self._nudged(*steps[Qt.Key(event.key())], event):
            return
        if event.key() == Qt.Key.Key_Delete and self.view == "Profile" and self.node is not None:
            self.take_point()
            return
        super().keyPressEvent(event)

    def _nudged(self, along: int, up: int, event: QKeyEvent) -> bool:
        """Arrow keys move the chosen opening or profile point by 10 mm or half an inch; Shift ten times."""
        by = self.session.shown.step_m * (10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
        shell = self.session.build.shell
        if self.view == "Profile" and self.node is not None and shell.length and shell.height:
            from uncle_sled.core.geometry.profile_edit import moved

            n = self.nodes[self.node]
            nodes = moved(self.nodes, self.node, "node", n.u + along * by / shell.length.si, n.v + up * by / shell.height.si)
            self.edit_profile("Nudge a point of the profile", nodes)
            return True
        opening = next((o for o in shell.openings if o.id in self.session.selection), None)
        if opening is None:
            return False
        nudge_opening(self.session, opening.id, along * by, up * by)
        return True


def nudge_opening(session: Session, id: str, along: float, up: float) -> None:
    opening = next(o for o in session.build.shell.openings if o.id == id)
    path = f"shell.openings.{id}"
    session.edit(
        f"Nudge the {opening.name.lower()}, now {distance(opening.along.si + along, session.shown)} from the front",
        [
            set_to(f"{path}.along", {"si": round(opening.along.si + along, 4), "typed": None}),
            set_to(f"{path}.up", {"si": round(opening.up.si + up, 4), "typed": None}),
        ],
        "Shell",
        (id,),
        f"nudge-{id}",
    )


def _inside(points: tuple[tuple[float, float], ...], x: float, y: float) -> bool:
    """Whether a point lies in a polygon. Source: crossing number, any graphics text."""
    hit = False
    for (x0, y0), (x1, y1) in zip(points, points[1:] + points[:1], strict=True):
        if (y0 > y) != (y1 > y) and x < (x1 - x0) * (y - y0) / (y1 - y0) + x0:
            hit = not hit
    return hit


def _with(s: Studied, framed: Framed) -> Studied:
    """The study with another framing, to draw the last good one."""
    return s if s.framed is framed else replace(s, framed=framed)
