"""The one-line diagram: click a wire and it lights up in the body too; printed with its lists and labels."""

from __future__ import annotations

from functools import partial

from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, placed
from uncle_sled.core.drawing.systems.one_line import Diagram, one_line
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.systems.acts import Acts
from uncle_sled.desk.benches.systems.clicked import Clicked
from uncle_sled.desk.kit.buttons import act_button
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

LEAST, MOST, LARGEST = 0.78, 1.25, 3.0  # of its own size: smaller the words are not read


class DiagramPanel(Guarded, QWidget):
    def __init__(self, session: Session, bench: Acts) -> None:
        super().__init__()
        self.session = session
        self.zoom = 1.0
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(6)
        tools = QHBoxLayout()
        tools.setSpacing(6)
        for text, tip, does in (
            ("Wire it up", "Join whatever has no wire yet, in the usual way (W)", bench.wire_up),
            ("In the body", "Show the chosen wire in the body", lambda: bench.show_view("Wires")),
            ("Take it off", "The chosen wire or device (Delete)", bench.take_off),
            ("Diagram, list and labels…", "As PDF", lambda: self.window().export("wiring-pdf")),  # type: ignore[attr-defined]
        ):
            tools.addWidget(act_button(text, tip, does))
        for text, tip, factor in (("Larger", "Zoom in", 1.25), ("Fit", "As large as fits", 0.0)):
            tools.addWidget(act_button(text, tip, partial(self.zoom_by, factor)))
        tools.addStretch(1)
        rows.addLayout(tools)
        self.chart = Clicked(session, "One-line diagram", self._shapes, "", self._why)
        self.chart.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.chart.picked.connect(lambda id: session.select((id,) if id else ()))
        self.area = QScrollArea()
        self.area.setWidgetResizable(True)
        self.area.setWidget(self.chart)
        self.area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        rows.addWidget(self.area, 1)
        key = "On a wire: its number and size, under it its length one way and fuse (the small box). Thick grey is mains, ochre comes from panels, red dashes have no size yet."
        rows.addWidget(label(key, "small", "pencil", wrap=True))
        session.selected.connect(self.chart.update)

    def _diagram(self) -> Diagram | None:
        s = self.session.studied
        wired = wired_of(s.build, s.framed)
        return one_line(wired, Words(self.session.shown)) if wired.wires else None

    def _why(self) -> str:
        return "Nothing is wired yet. Wire it up joins what is aboard in the usual way: battery, main switch, fuses, loads."

    def scale(self, made: Diagram) -> float:
        """As large as fits, and as a hand has zoomed it."""
        room = self.area.viewport()
        fits = min(max(min((room.width() - 6) / made.width, (room.height() - 6) / made.height), LEAST), MOST)
        return min(fits * self.zoom, LARGEST)

    def zoom_by(self, factor: float) -> None:
        """Larger or smaller; never smaller than it fits."""
        self.zoom = max(self.zoom * factor, 1.0) if factor else 1.0
        self.refresh()

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        made = self._diagram()
        if made is None:
            return ()
        scale = self.scale(made)
        x, y = max((width - made.width * scale) / 2, 0.0), max((height - made.height * scale) / 2, 0.0)
        chosen = set(self.session.selection)
        shapes = []
        for shape in placed(made.shapes, scale, x, y):
            if isinstance(shape, Text):
                shape = replace(shape, size=shape.size * scale, ink="chalk" if shape.id in chosen else shape.ink)
            elif isinstance(shape, Poly) and shape.id in chosen:
                shape = replace(shape, stroke="chalk", width=shape.width * 1.8)
            shapes.append(shape)
        return tuple(shapes)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._size()

    def _size(self) -> None:
        made = self._diagram()
        if made is None:
            self.chart.setMinimumSize(200, 120)
            return
        scale = self.scale(made)
        self.chart.setMinimumSize(int(made.width * scale) + 2, int(made.height * scale) + 2)

    def refresh(self) -> None:
        self._size()
        self.chart.update()
