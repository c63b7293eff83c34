"""The one-line diagram: click a wire and it lights up in the body too; printed with its lists and labels."""

from __future__ import annotations

from typing import Literal

from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent

from uncle_sled.core.drawing.primitives import Poly, Primitive, Text, placed
from uncle_sled.core.drawing.systems.one_line import Diagram, as_live, one_line
from uncle_sled.core.drawing.systems.supply_words import supply_words
from uncle_sled.core.studies.systems.supply import Supply, supplies
from uncle_sled.core.wiring.supply_states import STATES, StateId
from uncle_sled.core.wiring.wired import wired_of
from uncle_sled.desk.benches.systems.acts import Acts
from uncle_sled.desk.benches.systems.clicked import ClickedWires
from uncle_sled.desk.kit.panel import Group, PanelOf, rows, tools
from uncle_sled.desk.kit.parts import Act, DrawingOf, Says, Scrolled, note, one_of
from uncle_sled.desk.session import Session

STATE_BUTTONS: tuple[tuple[StateId | Literal[""], str, str], ...] = (
    ("", "All", "The whole diagram, whatever is on"),
    *((state.id, state.name, f"What is live then: {state.name.lower()}") for state in STATES),
)
LEAST, MOST, LARGEST = 0.78, 1.25, 3.0  # of its own size: smaller the words are not read


class DiagramPanel(PanelOf[Acts]):
    zoom = 1.0
    state: StateId | Literal[""] = ""

    def laid(self) -> Group:
        self.chart = self.put(DrawingOf("One-line diagram", self._shapes, "", self._why, kind=ClickedWires))
        self.chart.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.chart.picked.connect(lambda id: self.session.select((id,) if id else ()))
        self.area = self.put(Scrolled(self.chart, sideways=True, share=1))
        return rows(
            tools(
                Act("Wire it up", "Join whatever has no wire yet, in the usual way (W)", self.bench.wire_up),
                Act("In the body", "Show the chosen wire in the body", lambda: self.bench.show_view("Wires")),
                Act("Take it off", "The chosen wire or device (Delete)", self.bench.take_off),
                Act("Diagram, list and labels…", "As PDF", lambda: self.export("wiring-pdf")),
                Act("Larger", "Zoom in", lambda: self.zoom_by(1.25)),
                Act("Fit", "As large as fits", lambda: self.zoom_by(0.0)),
            ),
            tools(Says("Live", "pencil", "small", one_line=True), *one_of(STATE_BUTTONS, lambda: self.state, self.show_state), gap=4),
            self.area,
            Says(self._supply_told, face="small", hides=True),
            note(
                "On a wire: its number and size, under it its length one way and fuse (the small box). Thick grey is mains, ochre comes from panels, red dashes have no size yet."
            ),
        )

    def __init__(self, session: Session, bench: Acts) -> None:
        super().__init__(session, bench)
        session.selected.connect(self.chart.update)

    def diagram(self) -> Diagram | None:
        s = self.session.studied
        wired = wired_of(s.build, s.framed)
        return one_line(wired, self.words) if wired.wires else None

    def _why(self) -> str:
        return "Nothing is wired yet. Wire it up joins what is aboard in the usual way: battery, main switch, fuses, loads."

    def show_state(self, state: StateId | Literal[""]) -> None:
        self.state = state
        self.refresh()

    def supply(self) -> Supply | None:
        """The state that is shown, where this wiring can be in it."""
        return next((supply for supply in supplies(self.studied) if supply.live.state.id == self.state), None) if self.state else None

    def _supply_told(self) -> list[str]:
        supply = self.supply()
        if supply is None:
            return (
                [f"{next(text for id, text, _ in STATE_BUTTONS if id == self.state)}: nothing is wired that this would need."]
                if self.state
                else []
            )
        return list(supply_words(supply, wired_of(self.studied.build, self.studied.framed).net))

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
        made = self.diagram()
        if made is None:
            return ()
        scale = self.scale(made)
        x, y = max((width - made.width * scale) / 2, 0.0), max((height - made.height * scale) / 2, 0.0)
        chosen = set(self.session.selection)
        shapes = []
        supply = self.supply()
        drawn = as_live(made.shapes, supply.live) if supply is not None else made.shapes
        for shape in placed(drawn, scale, x, y):
            if isinstance(shape, Text):
                shape = replace(shape, size=shape.size * scale, ink="chalk" if shape.id in chosen else shape.ink)
            elif isinstance(shape, Poly) and shape.id in chosen:
                shape = replace(shape, stroke="chalk", width=shape.width * 1.8)
            shapes.append(shape)
        return tuple(shapes)

    def resizeEvent(self, _event: QResizeEvent) -> None:
        self._size()

    def _size(self) -> None:
        made = self.diagram()
        if made is None:
            self.chart.setMinimumSize(200, 120)
            return
        scale = self.scale(made)
        self.chart.setMinimumSize(int(made.width * scale) + 2, int(made.height * scale) + 2)

    def refreshed(self) -> None:
        self._size()
