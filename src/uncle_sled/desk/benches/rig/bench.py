"""Rig: the frame to weld, the trailer as bought, or the vehicle under a bed, beside its drawing."""

from __future__ import annotations

from msgspec import to_builtins
from msgspec.structs import replace
from PySide6.QtWidgets import QPushButton

from uncle_sled.core.document.edits import Op, add_to, fresh_id, remove, set_to
from uncle_sled.core.document.quantity import Length
from uncle_sled.core.document.rig import Axle, Source
from uncle_sled.desk.benches.bench import Bench
from uncle_sled.desk.benches.rig.rig_panel import RigPanel
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.measured_sheet import MeasuredSheet


class RigBench(Bench):
    def __init__(self, session: Session, stop: str) -> None:
        super().__init__(session, stop)
        self.axle_button = QPushButton("Add an axle")
        self.axle_button.clicked.connect(self.add_axle)
        self.less_button = QPushButton("Take one off")
        self.less_button.setToolTip("Take the last axle off")
        self.less_button.clicked.connect(self.take_axle)
        self.top.addWidget(self.axle_button)
        self.top.addWidget(self.less_button)
        self.end_top("left side, to scale; click a measure and type")
        self.sheet = MeasuredSheet(session, "rig", axle=True)
        self.rows.addWidget(self.sheet, 6)
        self.cards = RigPanel(session)
        self.rows.addWidget(self.cards, 5)
        session.changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible():
            return  # showEvent brings it up to date
        self.cards.refresh()
        rig = self.session.build.rig
        self.axle_button.setVisible(rig.carrier == "ball")
        self.less_button.setVisible(rig.carrier == "ball" and bool(rig.axles))

    def showEvent(self, _event: object) -> None:
        self.refresh()

    def add_axle(self) -> None:
        rig = self.session.build.rig
        axles = rig.axles
        at = axles[-1].station.si + 0.86 if axles else 0.62 * (rig.frame_length.si if rig.frame_length else 4.0)
        id = fresh_id("a", [axle.id for axle in axles])
        # one more is one more of the same: it weighs and bears what the last does; weighed it was not itself
        like = axles[-1] if axles else Axle(id, Length(at))
        source: Source = "estimated" if like.source == "weighed" else like.source
        made = replace(like, id=id, station=Length(round(at, 3)), source=source, altered=False)
        ops: list[Op] = [add_to("rig.axles", to_builtins(made))]
        if axles and rig.suspension == "single":
            ops.append(set_to("rig.suspension", "equalised"))
        self.session.edit("Add an axle", ops, "Rig", (id,))
        self.session.select((id,))

    def take_axle(self) -> None:
        axles = self.session.build.rig.axles
        if axles:
            ops = [remove(f"rig.axles.{axles[-1].id}")] + ([set_to("rig.suspension", "single")] if len(axles) == 2 else [])
            self.session.edit("Take an axle off", ops, "Rig")
