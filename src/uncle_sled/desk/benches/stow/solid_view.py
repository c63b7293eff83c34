"""The rig from behind and in three directions at once, linked with every other view."""

from __future__ import annotations

from PySide6.QtCore import QRectF

from uncle_sled.core.drawing.rig.things_placed import Placed, things_in
from uncle_sled.core.drawing.stow.isometric import PEELS, Peel, bounds_of, isometric
from uncle_sled.core.drawing.stow.people import people_view
from uncle_sled.core.drawing.stow.rear_view import rear_size_m, rear_view
from uncle_sled.core.drawing.stow.rising_drawn import rising_view
from uncle_sled.core.drawing.stow.swings import clash_view, swings_view
from uncle_sled.desk.kit.drawn import Drawn, Pane
from uncle_sled.desk.kit.painting import Frame
from uncle_sled.desk.kit.panel import Gap, Panel, across
from uncle_sled.desk.kit.parts import Own, Says, one_of
from uncle_sled.desk.session import Session

EDGE_PX, TITLE_PX = 16, 22
REAR_SHARE = 0.36


class SolidSheet(Drawn):
    """From behind at the left, in three directions at the right."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Drawing from behind and in three directions")
        self.peel: Peel = "near side off"

    def things(self) -> tuple[Placed, ...]:
        session = self.session
        return things_in(session.studied, session.row, session.mode) if session.studied.table.cases else ()

    def make_panes(self) -> tuple[Pane, ...]:
        session, things = self.session, self.things()
        wide, high = max(self.width(), 80), max(self.height(), 80)
        part = wide * REAR_SHARE
        half, top = rear_size_m(session.studied, things)
        scale = max(min((part - 2 * EDGE_PX) / (2 * half), (high - 2 * EDGE_PX - TITLE_PX) / top), 4.0)
        rear = Frame(scale, part / 2, TITLE_PX + EDGE_PX + (high - TITLE_PX - 2 * EDGE_PX + top * scale) / 2)
        build, facts, mode = session.build, session.facts, session.mode
        behind = (
            *rear_view(session.studied, session.row, things, scale),
            *rising_view(build, facts, mode, "rear"),
            *swings_view(build, facts, mode, "rear"),
            *people_view(build, facts, mode, "rear"),
            *clash_view(build, facts, mode, "rear"),
        )
        solid = isometric(session.studied, things, self.peel)
        left, low, right, up = bounds_of(solid)
        room = QRectF(part, 0, wide - part, high)
        size = max(min((room.width() - 2 * EDGE_PX) / max(right - left, 0.1), (high - TITLE_PX - 2 * EDGE_PX) / max(up - low, 0.1)), 4.0)
        x0 = room.left() + (room.width() - (left + right) * size) / 2
        y0 = TITLE_PX / 2 + (high + (up + low) * size) / 2
        return (
            Pane(rear, QRectF(1, 1, part - 1, high - 2), behind, "from behind: left, right"),
            Pane(Frame(size, x0, y0), room.adjusted(0, 1, -1, -1), solid, "from behind the left shoulder"),
        )


class SolidView(Panel):
    """The sheet with what is peeled off chosen above it."""

    def laid(self) -> Own[SolidSheet]:
        self.sheet = SolidSheet(self.session)
        peels = tuple((peel, peel.capitalize(), "") for peel in PEELS)
        # it stands in the row of tools of the bench
        self.bar = self.put(
            across(Gap(10), Says("Body", "pencil"), *one_of(peels, lambda: self.sheet.peel, self.show_peel), when=lambda: True)
        )
        return Own(lambda: self.sheet, share=1)

    def show_peel(self, peel: Peel) -> None:
        self.sheet.peel = peel
        self.refresh()
        self.sheet.renew()
