"""The wires to scale in side view and plan: picked, bent, and their devices moved."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QToolTip

from uncle_sled.core.document.edits import set_to
from uncle_sled.core.document.systems import Device
from uncle_sled.core.drawing.systems.wire_views import devices_view, flat, labels_view, wires_view
from uncle_sled.core.engine import Same
from uncle_sled.core.wiring.wired import Laid, Wired, wired_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.systems.wire_gestures import NEAR_PX, BendWire, MoveDevice, bends_of, nearest
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.layer import Leaf
from uncle_sled.desk.sheet.sheet_view import SheetView


class WireSheet(SheetView):
    def __init__(self, session: Session) -> None:
        super().__init__(session, plan=True)
        self.setAccessibleName("Wires in the body, left side and plan from above")

    def wired(self) -> Wired:
        s = self.session.studied
        return wired_of(s.build, s.framed)

    def _shown(self) -> object:
        return super()._shown(), Same(self.session.studied), self.session.selection

    def leaves(self) -> Iterator[Leaf]:
        yield from super().leaves()
        wired, chosen = self.wired(), frozenset(self.session.selection)
        for pane in self.panes():
            frame = self.frame(pane)
            yield Leaf(wires_view(wired, pane, chosen), frame, told=False)
            yield Leaf(devices_view(wired, pane, self.scale, chosen), frame, told=False)
            yield Leaf(labels_view(wired, pane, self.scale), frame, told=False)

    # picking
    def wire_near(self, at: QPointF) -> Laid | None:
        pane = self.pane_at(at)
        place = self.frame(pane).metres(at)
        best, found = NEAR_PX / self.scale, None
        order = sorted(self.wired().wires, key=lambda wire: wire.id not in self.session.selection)
        for wire in order:  # what is chosen keeps the hand
            gap = nearest(wire.points, pane, place)[0]
            if gap < best - 1e-9:
                best, found = gap, wire
        return found

    def device_near(self, at: QPointF) -> Device | None:
        pane = self.pane_at(at)
        x, up = self.frame(pane).metres(at)
        reach = max(NEAR_PX / self.scale, 0.04)
        near = [
            (abs(px - x) + abs(pu - up), device)
            for device in self.session.build.systems.devices
            for px, pu in (flat((device.x.si, device.y.si, device.z.si), pane),)
            if abs(px - x) <= reach and abs(pu - up) <= reach
        ]
        return min(near, key=lambda pair: pair[0])[1] if near else None

    def name_of(self, wire: Laid) -> str:
        ends = self.wired().net.ends
        return f"Wire {wire.number}, {ends[wire.start].name} to {ends[wire.end].name}"

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if event.button() == Qt.MouseButton.LeftButton and not self._space:
            pane, step = self.pane_at(at), self.session.shown.step_m
            device = self.device_near(at)
            wire = self.wire_near(at) if device is None else None
            if device is not None or wire is not None:
                self.point(())
                self.setFocus(Qt.FocusReason.MouseFocusReason)
                self.last_pane = pane
                if device is not None:
                    self.session.select((device.id,))
                    self.gesture = MoveDevice(self, pane, at, device, step)
                elif wire is not None:
                    self.session.select((wire.id,))
                    self.gesture = BendWire(self, pane, at, wire, f"wire {wire.number}", step)
                return
        super().mousePressEvent(event)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """A bend under the pointer goes."""
        at = event.position()
        wire = self.wire_near(at)
        told = next((each_wire for each_wire in self.session.build.systems.wires if wire is not None and each_wire.id == wire.id), None)
        if wire is None or told is None or not told.bends:
            return
        pane = self.pane_at(at)
        place = self.frame(pane).metres(at)
        spots = [(b.x.si, b.y.si, b.z.si) for b in told.bends]
        gaps = [abs(flat(s, pane)[0] - place[0]) + abs(flat(s, pane)[1] - place[1]) for s in spots]
        k = min(range(len(gaps)), key=lambda j: gaps[j])
        if gaps[k] * self.scale <= 2 * NEAR_PX:
            rest = bends_of(spots[:k] + spots[k + 1 :])
            self.session.edit(
                f"Take a bend out of wire {wire.number}", [set_to(f"systems.wires.{wire.id}.bends", rest)], "Systems", (wire.id,)
            )

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.gesture is None:
            at = event.position()
            device = self.device_near(at)
            wire = self.wire_near(at) if device is None else None
            if device is not None or wire is not None:
                self.setCursor(Qt.CursorShape.SizeAllCursor)
                words = Words(self.session.shown)
                says = device.name if device is not None else f"{self.name_of(wire)}, {words.m(wire.length_m)}" if wire else ""
                QToolTip.showText(event.globalPosition().toPoint() + QPoint(12, 12), says, self)
                return
        super().mouseMoveEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape and self.gesture is not None:
            gesture, self.gesture = self.gesture, None
            gesture.cancelled()
            return
        super().keyPressEvent(event)
