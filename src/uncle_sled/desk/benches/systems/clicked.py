"""A chart of boxes and wires that can be clicked by their id: a box lies over the wires."""

from __future__ import annotations

from uncle_sled.core.drawing.systems.one_line import wire_at
from uncle_sled.desk.kit.clicked import Clicked


class ClickedWires(Clicked):
    def id_at(self, x: float, up: float) -> str:
        return wire_at(self.make(float(self.width()), float(self.height())), (x, up))
