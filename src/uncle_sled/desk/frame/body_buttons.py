"""The bodies that a build may begin as, each a button with its picture; one is chosen."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QAbstractButton, QButtonGroup, QHBoxLayout, QSizePolicy, QWidget

from uncle_sled.core.document.bodies import BODIES, BodyKind, StartBody
from uncle_sled.core.drawing.shell.body_picture import body_picture
from uncle_sled.core.drawing.text_width import elided, text_width
from uncle_sled.core.reading.studied import Studied
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.kit.painting import Frame, canvas, paint, said_if_it_fails, write
from uncle_sled.desk.theme.theme import colour

WORDS_PX, NAME_PT, BUTTON_PX = 20, 12.0, (92, 96)


class BodyButton(Guarded, QAbstractButton):
    """One body; checked where it is the one that was chosen."""

    def __init__(self, body: StartBody, s: Studied) -> None:
        super().__init__()
        self.body, self.s = body, s
        self.setCheckable(True)
        self.setText(body.says)
        self.setAccessibleName(body.says)
        self.setAccessibleDescription(body.about)
        self.setToolTip(f"{body.says}: {body.about}")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(*BUTTON_PX)

    def minimumSizeHint(self) -> QSize:
        return QSize(*BUTTON_PX)

    @said_if_it_fails
    def paintEvent(self, _event: QPaintEvent) -> None:
        wide, high = float(self.width()), float(self.height())
        with canvas(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            chosen = self.isChecked()
            thick = 3.0 if chosen else 1.0
            painter.setPen(QPen(colour("chalk" if chosen or self.hasFocus() else "rule"), thick))
            painter.setBrush(colour("body"))
            painter.drawRoundedRect(QRectF(thick / 2, thick / 2, wide - thick, high - thick), 4, 4)
            paint(painter, body_picture(self.s, wide, high - WORDS_PX), Frame(1.0, 0.0, high - WORDS_PX), None, "body")
            name = elided(self.body.says, NAME_PT, wide - 8, "strong" if chosen else "text")
            left = (wide - text_width(name, NAME_PT, "strong" if chosen else "text")) / 2
            write(painter, QPointF(left, high - WORDS_PX / 2 - 2), name, NAME_PT, "ink", "strong" if chosen else "text", ground="body")


class BodyButtons(Guarded, QWidget):
    """All of them in a row."""

    chosen = Signal(str)

    def __init__(self, studied: dict[BodyKind, Studied]) -> None:
        super().__init__()
        self.group = QButtonGroup(self)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(6)
        self.buttons: dict[BodyKind, BodyButton] = {}
        for body in BODIES:
            self.buttons[body.kind] = button = BodyButton(body, studied[body.kind])
            self.group.addButton(button)
            row.addWidget(button)
            button.clicked.connect(lambda _=False, kind=body.kind: self.chosen.emit(kind))

    def show_value(self, kind: BodyKind) -> None:
        """Mark the one that is chosen; no signal."""
        self.buttons[kind].setChecked(True)
