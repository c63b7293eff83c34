"""Solids that are turned by the hand: drawn in large pixels while they turn, in fine ones when they rest, picked under the pointer."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from time import perf_counter

import msgspec
import numpy as np
from numpy.typing import NDArray
from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QImage, QKeyEvent, QMouseEvent, QPaintEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from uncle_sled.core.drawing.text_width import wrapped
from uncle_sled.core.round.mesh import Floats
from uncle_sled.core.round.seen import Picture, Scene, Sight, fitting, painting, seen
from uncle_sled.core.round.shaded import Tones, halved, shaded
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Written, canvas, focus_ring, lay_paper, said_if_it_fails, write
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import theme_name

REST_MS = 140  # after the last turn, until it is drawn fine
COARSEST = 6  # pixels a side, at most, of what is drawn while it turns: as large as keeps twenty pictures a second
SLOW_S, QUICK_S = 0.045, 0.018  # of a picture: slower, and its pixels grow; quicker, and they shrink
FINE = 2  # and how many each pixel is made of when it rests
TURN_DEG_PX, KEY_DEG, ZOOM = 0.5, 15.0, 1.15
STEEPEST_DEG, FAR, NEAR = 89.0, 0.3, 12.0
FIRST = Sight(35.0, 22.0)


class Shown(msgspec.Struct, frozen=True, eq=False):
    """What is to be seen. visible: (n,) of its pieces; moved: (n, 3) or None; tones: by theme; empty: what to say where nothing is."""

    scene: Scene
    visible: NDArray[np.bool_]
    moved: Floats | None
    tones: Callable[[str], Tones]
    tells: Callable[[int], str]
    empty: str


class RoundView(Guarded, QWidget):
    """``picked`` carries the number of the piece under a click, -1 for none."""

    picked = Signal(int)

    def __init__(self, session: Session, name: str, make: Callable[[], Shown]) -> None:
        super().__init__()
        self.session, self.make = session, make
        self.shown: Shown | None = None
        self.sight = FIRST
        self.coarse = 2
        self.zoom, self.off = 1.0, (0.0, 0.0)  # over what fits; aside [share of the picture]
        self.picture: Picture | None = None
        self.image: QImage | None = None
        self.fine = False
        self.written: list[Written] = []
        self._steps: Iterator[Picture] | None = None
        self._hand: tuple[QPointF, Qt.MouseButton, bool] | None = None
        self._went = 0.0
        self._toned: tuple[str, Tones] | None = None
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.timeout.connect(self._refine)
        self._step = QTimer(self)
        self._step.setInterval(0)
        self._step.timeout.connect(self._go_on)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAccessibleName(name)

    def sizeHint(self) -> QSize:
        return QSize(640, 420)

    def minimumSizeHint(self) -> QSize:
        return QSize(280, 200)

    # what is seen
    def renew(self) -> None:
        """Something of what it shows is another one."""
        self.shown, self._toned = self.make(), None
        self._draw()

    def turn(self, around_deg: float, over_deg: float) -> None:
        """Turn it by so much."""
        over = min(max(self.sight.over_deg + over_deg, -STEEPEST_DEG), STEEPEST_DEG)
        self.sight = msgspec.structs.replace(self.sight, around_deg=(self.sight.around_deg + around_deg) % 360.0, over_deg=over)
        self._draw()

    def look_from(self, around_deg: float, over_deg: float) -> None:
        """Look from a side, all of it in the picture."""
        self.sight = msgspec.structs.replace(self.sight, around_deg=around_deg, over_deg=over_deg)
        self.zoom, self.off = 1.0, (0.0, 0.0)
        self._draw()

    def nearer(self, by: float) -> None:
        """Larger, or smaller."""
        self.zoom = min(max(self.zoom * by, FAR), NEAR)
        self._draw()

    def _size(self, fine: bool) -> tuple[int, int]:
        ratio = self.devicePixelRatioF() * (FINE if fine else 1 / self.coarse)
        return max(round(self.width() * ratio), 1), max(round(self.height() * ratio), 1)

    def sight_for(self, size: tuple[int, int]) -> Sight:
        """Where one looks from, for a picture of so many pixels."""
        assert self.shown is not None
        whole = fitting(self.shown.scene, self.sight, size, self.shown.visible, self.shown.moved)
        scale = whole.scale * self.zoom
        right, up, _ = whole.axes
        at = np.array(whole.at) - right * self.off[0] * size[0] / scale + up * self.off[1] * size[1] / scale
        return msgspec.structs.replace(whole, scale=scale, at=(float(at[0]), float(at[1]), float(at[2])))

    def _draw(self) -> None:
        """At once in large pixels; fine when the hand rests."""
        self._steps = None
        self._step.stop()
        self.fine = False
        if self.shown is not None and self.shown.visible.any():
            begun = perf_counter()
            size = self._size(fine=False)
            self._take(seen(self.shown.scene, self.sight_for(size), size, self.shown.visible, self.shown.moved), fine=False)
            took = perf_counter() - begun
            self.coarse = min(self.coarse + 1, COARSEST) if took > SLOW_S else max(self.coarse - 1, 1) if took < QUICK_S else self.coarse
            self._rest.start(REST_MS)
        else:
            self.picture = self.image = None
        self.update()

    def _refine(self) -> None:
        if self.shown is not None and self._hand is None and self.isVisible():
            size = self._size(fine=True)
            self._steps = painting(self.shown.scene, self.sight_for(size), size, self.shown.visible, self.shown.moved)
            self._step.start()

    def _go_on(self) -> None:
        """One portion of the fine picture; then whatever else waits has its turn."""
        if self._steps is None:
            self._step.stop()
            return
        for picture in self._steps:
            if picture.done:
                self._steps = None
                self._step.stop()
                self._take(picture, fine=True)
                self.update()
            return
        self._steps = None

    def finish(self) -> None:
        """The fine picture now, for whoever takes one of it."""
        if self.shown is not None and self.shown.visible.any():
            size = self._size(fine=True)
            self._rest.stop()
            self._steps = None
            self._take(seen(self.shown.scene, self.sight_for(size), size, self.shown.visible, self.shown.moved), fine=True)
            self.update()

    def _take(self, picture: Picture, fine: bool) -> None:
        assert self.shown is not None
        if self._toned is None or self._toned[0] != theme_name():  # once for all turns
            self._toned = (theme_name(), self.shown.tones(theme_name()))
        rgb = shaded(self.shown.scene, picture, self._toned[1])
        if fine:
            rgb = halved(rgb, FINE)
        rgb = np.ascontiguousarray(rgb)
        high, wide, _ = rgb.shape
        self.picture, self.fine = picture, fine
        self.image = QImage(rgb.tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888).copy()

    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        with canvas(self) as painter:
            lay_paper(painter, self)
            self.written = []
            if self.image is not None:
                painter.drawImage(QRectF(1, 1, self.width() - 2, self.height() - 2), self.image)
            elif self.shown is not None:
                for at, says in enumerate(wrapped(self.session.told(self.shown.empty), 13, self.width() - 28)):
                    write(painter, QPointF(14, 22 + 18 * at), says, 13, "pencil", kept=self.written)
            focus_ring(painter, self)

    def resizeEvent(self, _event: QResizeEvent) -> None:
        if self.shown is not None:
            self._draw()

    def changeEvent(self, event: QEvent) -> None:
        if event.type() in (QEvent.Type.PaletteChange, QEvent.Type.StyleChange) and self.shown is not None:
            self._draw()
        super().changeEvent(event)

    # the hand
    def piece_at(self, at: QPointF) -> int:
        """Number of the piece under a place of the widget, -1 for none."""
        if self.picture is None or self.shown is None:
            return -1
        high, wide = self.picture.face.shape
        face = self.picture.at(at.x() / self.width() * wide, at.y() / self.height() * high)
        return int(self.shown.scene.solid[face]) if face >= 0 else -1

    def mousePressEvent(self, event: QMouseEvent) -> None:
        aside = event.button() != Qt.MouseButton.LeftButton or bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        self._hand, self._went = (event.position(), event.button(), aside), 0.0
        self.setFocus(Qt.FocusReason.MouseFocusReason)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        at = event.position()
        if self._hand is None:
            number = self.piece_at(at)
            if number >= 0 and self.shown is not None:
                QToolTip.showText(event.globalPosition().toPoint(), self.shown.tells(number), self)
            else:
                QToolTip.hideText()
            return
        was, button, aside = self._hand
        step = at - was
        self._went += abs(step.x()) + abs(step.y())
        self._hand = (at, button, aside)
        if self._went < 3:
            return
        if aside:
            self.off = (self.off[0] + step.x() / self.width(), self.off[1] + step.y() / self.height())
            self._draw()
        else:
            self.turn(-step.x() * TURN_DEG_PX, step.y() * TURN_DEG_PX)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._hand is not None and self._went < 3 and event.button() == Qt.MouseButton.LeftButton:
            self.picked.emit(self.piece_at(event.position()))
        self._hand = None
        self._rest.start(REST_MS)

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.nearer(ZOOM ** (event.angleDelta().y() / 120.0))
        event.accept()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        ways = {
            Qt.Key.Key_Left: (KEY_DEG, 0.0),
            Qt.Key.Key_Right: (-KEY_DEG, 0.0),
            Qt.Key.Key_Up: (0.0, KEY_DEG),
            Qt.Key.Key_Down: (0.0, -KEY_DEG),
        }
        if event.key() in ways:
            self.turn(*ways[Qt.Key(event.key())])
        elif event.key() in (Qt.Key.Key_Plus, Qt.Key.Key_Equal, Qt.Key.Key_Minus):
            self.nearer(1 / ZOOM if event.key() == Qt.Key.Key_Minus else ZOOM)
        elif event.key() == Qt.Key.Key_Home:
            self.look_from(FIRST.around_deg, FIRST.over_deg)
        else:
            super().keyPressEvent(event)
