"""What every bench has: a title row, and perhaps a sheet that the Sled line stands under."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session
from uncle_sled.desk.sheet.sheet_view import SheetView

EDGE_PX = 14


class Bench(QWidget):
    """One stop of the trail. ``sheet`` is its drawing, if it has one to scale."""

    stop = ""
    strip = False  # whether the Sled line shows as a strip here
    sheet: SheetView | None = None

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(EDGE_PX, 6, 12, 10)
        self.rows.setSpacing(6)
        self.top = QHBoxLayout()
        self.top.setSpacing(6)
        self.title = label(self.stop, "head")
        self.title.setMinimumHeight(30)
        self.top.addWidget(self.title)
        self.top.addSpacing(8)
        self.hint = QLabel()
        self.hint.setProperty("ink", "pencil")
        self.hint.setProperty("face", "small")
        self.hint.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.rows.addLayout(self.top)

    def add_views(
        self, names: Iterable[str], show: Callable[[str], object], tips: Mapping[str, str] | None = None
    ) -> dict[str, QPushButton]:
        """A button for each view of the stop in its title row, one of them down; the first for a start."""
        group = QButtonGroup(self)
        made: dict[str, QPushButton] = {}
        for name in names:
            made[name] = button = QPushButton(name)
            button.setCheckable(True)
            button.setChecked(len(made) == 1)
            button.setToolTip((tips or {}).get(name, ""))
            button.clicked.connect(lambda _=False, name=name: show(name))
            group.addButton(button)
            self.top.addWidget(button)
        return made

    def end_top(self, hint: str) -> None:
        self.top.addStretch(1)
        self.hint.setText(hint)
        self.top.addWidget(self.hint)

    def refresh(self) -> None: ...


class NotYet(Bench):
    """A stop that does not exist yet says in one honest line what it will add."""

    WILL = {
        "Systems": "Will add power, water, gas, warmth and air as drawings with findings.",
        "Cut": "Will turn the drawing into pieces, sheets, bars, templates, a buy list and a budget.",
        "Build": "Will add the plan of work, lift day, glue and resin, checklists and the log.",
        "Road": "Will take scale tickets and what they teach, the papers, trips and drills.",
    }

    def __init__(self, session: Session, stop: str) -> None:
        self.stop = stop
        self.strip = True
        super().__init__(session)
        self.end_top("not built yet")
        says = label(self.WILL[stop], wrap=True)
        says.setMaximumWidth(560)
        self.rows.addSpacing(20)
        self.rows.addWidget(says)
        self.rows.addStretch(1)
