"""Pulling the profile's points and handles on the side view."""

from __future__ import annotations

from typing import Protocol

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen

from uncle_sled.core.errors import GeometryError
from uncle_sled.core.geometry.profile_edit import Part, moved, profile_ops
from uncle_sled.core.units import distance
from uncle_sled.desk.kit.painting import write
from uncle_sled.desk.sheet.gestures import Gesture, Paper, Stretch
from uncle_sled.desk.theme.theme import colour

SNAP_PX = 6.0


class ProfilePaper(Paper, Protocol):
    """The sheet that the profile and the sketch under it lie on."""

    def fit_again(self) -> None: ...
    def two_points(self, a: tuple[float, float], b: tuple[float, float]) -> None: ...
    def move_sketch(self, dx: float, dz: float) -> None: ...


class DragNode(Gesture[ProfilePaper]):
    """Moves a point or a handle; what would cross itself stays where it last was good, and says so."""

    def __init__(self, view: ProfilePaper, pane: str, at: QPointF, node: int, part: Part) -> None:
        super().__init__(view, pane, at)
        self.node, self.part = node, part
        self.hand = view.session.take_up("Pull the profile")
        self.says = ""
        self.at = at

    def moved(self, at: QPointF, keys: Qt.KeyboardModifier) -> None:
        session, shell = self.view.session, self.hand.build.shell
        if shell.length is None or shell.height is None:
            return
        self.at = at
        x, z = self.view.frame("side").metres(at)
        front, under = (shell.front.si if shell.front else 0.0), (shell.floor.si if shell.floor else 0.0)
        u, v = (x - front) / shell.length.si, (z - under) / shell.height.si
        if not keys & Qt.KeyboardModifier.ControlModifier:
            u, v = self._snapped(u, v)
        broken = bool(keys & Qt.KeyboardModifier.ShiftModifier)
        try:
            ops = profile_ops(shell, moved(shell.profile, self.node, self.part, u, v, broken))
            self.says = f"{distance(u * shell.length.si, session.shown)} from the front, {distance(v * shell.height.si, session.shown)} up"
        except GeometryError as fault:
            self.says = str(fault)
            self.view.update()
            return
        self.hand.put(ops)

    def _snapped(self, u: float, v: float) -> tuple[float, float]:
        """Round numbers, the ends, and level or plumb with the point itself or its neighbours."""
        shell = self.hand.build.shell
        assert shell.length is not None and shell.height is not None
        step = self.view.session.shown.step_m
        long, high = shell.length.si, shell.height.si
        near = [shell.profile[k] for k in (self.node - 1, self.node, self.node + 1) if 0 <= k < len(shell.profile)]
        if self.part == "node":
            near = [n for n in near if n is not shell.profile[self.node]]

        def hold(value: float, lines: list[float], size: float) -> float:
            best = min(lines, key=lambda line: abs(line - value))
            if abs(best - value) * size * self.view.scale < SNAP_PX:
                return best
            return round(value * size / step) * step / size

        return hold(u, [0.0, 1.0, *(n.u for n in near)], long), hold(v, [0.0, 1.0, *(n.v for n in near)], high)

    def finished(self) -> None:
        self.hand.let_go()
        self.view.fit_again()

    def cancelled(self) -> None:
        self.hand.give_back()
        self.view.fit_again()

    def paint(self, painter: QPainter) -> None:
        if self.says:
            spot = QRectF(self.view.width() / 2 - 190, 8, 380, 24)
            painter.setPen(QPen(colour("chalk"), 1.2))
            painter.setBrush(colour("field"))
            painter.drawRoundedRect(spot, 4, 4)
            write(painter, spot.center(), self.says, 13, "ink", "text", "middle", self.view.written, "field")


class SetTwoPoints(Stretch[ProfilePaper]):
    """Two clicks on the sketch whose distance is then typed, so that the picture gets its scale."""

    def finished(self) -> None:
        frame = self.view.frame("side")
        self.view.two_points(frame.metres(self.start), frame.metres(self.now))

    def paint(self, painter: QPainter) -> None:
        painter.setPen(QPen(colour("primer"), 1.6))
        painter.drawLine(self.start, self.now)
        for end in (self.start, self.now):
            painter.drawEllipse(end, 4.0, 4.0)


class MoveSketch(Gesture[ProfilePaper]):
    """Slides the picture under the profile."""

    def __init__(self, view: ProfilePaper, pane: str, at: QPointF) -> None:
        super().__init__(view, pane, at)
        self.last = at

    def moved(self, at: QPointF, _keys: Qt.KeyboardModifier) -> None:
        by = at - self.last
        self.last = at
        self.view.move_sketch(by.x() / self.view.scale, -by.y() / self.view.scale)

    def finished(self) -> None:
        self.view.session.let_go()
