"""Does it hold? What the place asks of the body, and every screening check as a bar with its sum."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.shell.holds_chart import holds_chart, holds_high
from uncle_sled.core.studies.shell.screening import Check, screening
from uncle_sled.core.words import Words
from uncle_sled.desk.benches.shell.ridge_rows import is_pitched, ridge_rows
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.columns import Columns
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.form import Form, plain
from uncle_sled.desk.kit.guarded import Guarded
from uncle_sled.desk.session import Session

CAUTION = "Screening only: sticks alone, skins help none; local code and a licensed engineer decide."
SIDE_PX = 262


class HoldsPanel(Guarded, QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        left = QVBoxLayout()
        left.setSpacing(4)
        self.says = label("", "", "ink", wrap=True)
        left.addWidget(self.says)
        self.chart = Chart(session, "What holds, and how near to its limit", self._shapes, "", self._why)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(self.chart)
        left.addWidget(scroll, 1)
        self.caution = label(CAUTION, "small", "pencil", wrap=True)
        left.addWidget(self.caution)
        row.addLayout(left, 1)
        self.forms = [
            Form(session, "What the place asks", plain("brief", "ground_snow_kpa parked_wind_m_s nobody_on_roof"), "Shell", label_px=112),
            Form(session, "What holds the ridge", ridge_rows(session), "Shell", label_px=112),
            Form(session, "What holds the skins", plain("shell.framing", "screw screw_pitch bolt_pitch"), "Shell", label_px=112),
        ]
        side = Columns(list(self.forms))
        side.setFixedWidth(SIDE_PX)
        row.addWidget(side)

    def checks(self) -> tuple[Check, ...]:
        return screening(self.session.studied)

    def _why(self) -> str:
        return "Nothing to hold yet: draw a body with its width on Profile."

    def _shapes(self, width: float, height: float) -> tuple[Primitive, ...]:
        return holds_chart(self.checks(), Words(self.session.shown), width, height)

    def refresh(self) -> None:
        for form in self.forms:
            form.refresh()
        self.forms[1].setVisible(is_pitched(self.session.build))
        checks = self.checks()
        self.chart.setMinimumHeight(int(holds_high(checks)))
        known = [one for one in checks if one.use is not None]
        over = [one for one in known if (one.use or 0) > 1]
        told = f"{len(known)} of {len(checks)} checked, {len(over)} over their limit." if checks else ""
        if over:
            told += f" Worst: {over[0].name[:1].lower()}{over[0].name[1:]}, {(over[0].use or 0) * 100:.0f} %."
        self.says.setText(told)
        self.chart.update()
