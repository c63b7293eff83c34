"""Does it hold? What the place asks of the body, and every screening check as a bar with its sum."""

from __future__ import annotations

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell.holds_chart import holds_chart, holds_high
from uncle_sled.core.studies.shell.check import Check
from uncle_sled.core.studies.shell.screening import screening
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.ridge_rows import is_pitched, ridge_rows
from uncle_sled.desk.kit.form import plain
from uncle_sled.desk.kit.panel import Group, Panel, across, rows
from uncle_sled.desk.kit.parts import Cards, Drawing, Fields, Says, Scrolled, note

CAUTION = "Screening only: sticks alone, skins help none; local code and a licensed engineer decide."
SIDE_PX = 262


class HoldsPanel(Panel):
    def laid(self) -> Group:
        self.chart = self.put(
            Drawing(
                "What holds, and how near to its limit",
                self._shapes,
                "",
                "Nothing to hold yet: draw a body with its width on Profile.",
                high=lambda: holds_high(self.checks()),
            )
        )
        cards = (
            Fields("What the place asks", plain("brief", "ground_snow_kpa parked_wind_m_s nobody_on_roof"), "Shell", 112),
            Fields("What holds the ridge", ridge_rows(self.session), "Shell", 112, when=lambda: is_pitched(self.session.build)),
            Fields("What holds the skins", plain("shell.framing", "screw screw_pitch bolt_pitch"), "Shell", 112),
        )
        left = rows(Says(self._told), Scrolled(self.chart, sideways=True, share=1), note(CAUTION), gap=4, share=1)
        return across(left, Cards(cards, wide=SIDE_PX), gap=8)

    def checks(self) -> tuple[Check, ...]:
        return screening(self.session.studied)

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return holds_chart(self.checks(), Words(self.session.shown), width, height)

    def _told(self) -> str:
        checks = self.checks()
        if not checks:
            return ""
        known = [check for check in checks if check.use is not None]
        over = [check for check in known if (check.use or 0) > 1]
        told = f"{len(known)} of {len(checks)} checked, {len(over)} over their limit."
        if over:
            told += f" Worst: {over[0].name[:1].lower()}{over[0].name[1:]}, {(over[0].use or 0) * 100:.0f} %."
        return told
