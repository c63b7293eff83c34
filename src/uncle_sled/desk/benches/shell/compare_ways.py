"""The same faces made in other ways, side by side over this very body; nothing changes until one is kept."""

from __future__ import annotations

from PySide6.QtWidgets import (
    QHBoxLayout,
    QHeaderView,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from uncle_sled.core.document.assemblies import WAYS
from uncle_sled.core.studies.shell.compare_ways import Way, compare_ways
from uncle_sled.core.units import show
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.kit.dialog import Dialog
from uncle_sled.desk.kit.fields import ChoiceField, label
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

HEADS = ("Made of", "Body", "Ball, worst case", "Inside width", "Warmth R", "Money", "Hours", "Goes round")


def _thick(name: str) -> str:
    """The layers' thicknesses from outside in, in millimetres."""
    return " + ".join(f"{layer.thickness.si * 1000:g}" for layer in WAYS[name] if layer.thickness.si > 0) + " mm"


class CompareWays(Dialog):
    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle("Compare ways of making it")
        self.resize(900, 420)
        faces = session.build.shell.faces
        groups: list[tuple[object, str]] = []
        skin = tuple(f.id for f in faces if f.kind in ("left side", "right side", "roof", "front", "rear"))
        sides = tuple(f.id for f in faces if f.kind in ("left side", "right side"))
        over = tuple(f.id for f in faces if f.kind in ("roof", "front"))
        groups += [
            (ids, words)
            for ids, words in ((skin, "sides, roof, nose and tail"), (sides, "both sides"), (over, "roof and nose"))
            if len(ids) > 1
        ]
        groups += [((face.id,), lower_first(face.name)) for face in faces]
        self.which = ChoiceField("Which faces", groups)
        self.which.setMinimumWidth(190)
        self.which.entered.connect(lambda _: self.refresh())
        self.table = QTableWidget()
        self.table.setAccessibleName("Ways side by side")
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
        self.table.setSelectionMode(QTableWidget.SelectionMode.SingleSelection)
        self.table.verticalHeader().hide()
        self.table.itemSelectionChanged.connect(self._may)
        self.keep = QPushButton("Keep this way")
        self.keep.setProperty("kind", "main")
        self.keep.clicked.connect(self._keep)
        close = QPushButton("Leave it as it is")
        close.clicked.connect(self.reject)
        top = QHBoxLayout()
        top.addWidget(label("Faces", "", "pencil"))
        top.addWidget(self.which)
        self.now = label("", "", "pencil")
        top.addWidget(self.now, 1)
        keys = QHBoxLayout()
        keys.addWidget(
            label(
                "Weights by the drawing without openings; money and hours only compare. Dust and resin: mask and gloves.",
                "small",
                "pencil",
            )
        )
        keys.addStretch(1)
        keys.addWidget(close)
        keys.addWidget(self.keep)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        rows.addLayout(top)
        rows.addWidget(self.table, 1)
        rows.addLayout(keys)
        self.ways: tuple[Way, ...] = ()
        self.refresh()

    def refresh(self) -> None:
        session, shown = self.session, self.session.shown
        words = Words(shown)
        self.ways = compare_ways(session.build, session.facts, self.which.currentData())
        body = sum(part.mass_kg for part in session.studied.parts if part.made_by.startswith("shell."))
        self.now.setText(f"the body as it stands weighs {words.kg(body)}")
        self.table.setColumnCount(len(HEADS))
        self.table.setHorizontalHeaderLabels(list(HEADS))
        self.table.setRowCount(len(self.ways))
        for row, way in enumerate(self.ways):
            ball = (
                ""
                if way.worst_ball_kg is None
                else f"{words.kg(way.worst_ball_kg)}, {words.share(way.worst_share or 0)} {lower_first(way.worst_case)}"
            )
            cells = (
                f"{way.name}: {_thick(way.name)}", words.kg(way.body_kg), ball, words.m(way.inside_width_m) if way.inside_width_m is not None else "as it is",
                show(way.r_m2k_w, "resistance", shown.unit("resistance"), 1), f"{way.money:.0f}", f"{way.hours:.0f} h", "yes" if way.bends else "no",
            )  # fmt: skip
            for column, text in enumerate(cells):
                item = QTableWidgetItem(text)
                if not way.bends and column in (0, len(HEADS) - 1):
                    item.setForeground(colour("primer"))
                self.table.setItem(row, column, item)
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        self.table.horizontalHeader().setStretchLastSection(True)
        self._may()

    def _row(self) -> int:
        rows = self.table.selectionModel().selectedRows() if self.table.selectionModel() is not None else []
        return rows[0].row() if rows else -1

    def _may(self) -> None:
        self.keep.setEnabled(self._row() >= 0)

    def _keep(self) -> None:
        way = self.ways[self._row()]
        if self.session.edit(f"Made of: {way.name}", way.ops, "Shell", tuple(self.which.currentData())):
            self.accept()
