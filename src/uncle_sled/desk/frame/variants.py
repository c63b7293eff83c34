"""Variants in the window: keep the open build as one, open another, see them side by side."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QMenu,
    QPushButton,
    QSplitter,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from uncle_sled.core.document import variants
from uncle_sled.core.document.project import Project
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.rig.variants_over import variants_over
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.all_findings import findings
from uncle_sled.core.findings.finding import to_settle
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.compare_variants import Standing, compare_variants
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.ask import ask, ask_text
from uncle_sled.desk.kit.chart import Chart
from uncle_sled.desk.kit.dialog import Dialog, popup_menu
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour


def _take(session: Session, says: str, change: Callable[[Project], Project]) -> bool:
    session.put_back(because=f"{lower_first(says)} came first")
    try:
        after = change(session.project)
    except SledError as fault:
        session.said.emit(str(fault), "stop")
        return False
    return session.take(says, after)


def keep_as_variant(session: Session, name: str) -> bool:
    """Keep the open build under a new name and go on in it."""
    done = _take(session, f"Keep as a variant: {name}", lambda p: variants.keep_as(p, name))
    if done:
        session.said.emit(f"You are now in “{name}”; what it was made from stays as it is.", "note")
    return done


def open_variant(session: Session, id: str) -> bool:
    name = next((b.name for b in session.project.variants if b.id == id), id)
    return _take(session, f"Open the variant {name}", lambda p: variants.opened(p, id))


def throw_away(session: Session, id: str) -> bool:
    name = next((b.name for b in session.project.variants if b.id == id), id)
    return _take(session, f"Throw away the variant {name}", lambda p: variants.without(p, id))


def variant_menu(session: Session, parent: QWidget) -> QMenu:
    """Everything about variants, from the header."""
    menu = popup_menu(parent)
    for build in session.project.variants:
        act = menu.addAction(build.name)
        act.setCheckable(True)
        act.setChecked(build.id == session.build.id)
        act.triggered.connect(lambda _=False, id=build.id: open_variant(session, id))
    menu.addSeparator()
    menu.addAction("Keep as a variant…").triggered.connect(lambda: ask_keep(session, parent))
    menu.addAction("Another name…").triggered.connect(lambda: _rename(session, parent))
    menu.addAction("Variants side by side…").triggered.connect(lambda: SideBySide(session, parent).open())
    gone = menu.addAction("Throw this variant away…")
    gone.setEnabled(len(session.project.variants) > 1)
    gone.triggered.connect(lambda: _ask_away(session, parent))
    return menu


def ask_keep(session: Session, parent: QWidget) -> None:
    name = ask_text(
        parent, "Keep as a variant", "The build as it stands is kept under a name of its own:", "Another way"
    )
    if name:
        keep_as_variant(session, name)


def _rename(session: Session, parent: QWidget) -> None:
    name = ask_text(parent, "Another name", "This variant is called:", session.build.name)
    if name and name != session.build.name:
        _take(session, f"Call the variant {name}", lambda p: variants.renamed(p, name))


def _ask_away(session: Session, parent: QWidget) -> None:
    build = session.build
    things = len(build.stow.things)
    text = f"“{build.name}” goes: its rig, its body with {len(build.shell.openings)} openings, and {things} things. Undo brings it back until the file is closed."
    if ask(parent, "Throw a variant away", text, [("go", "Throw it away"), ("", "Keep it")]) == "go":
        throw_away(session, build.id)


# Row title, value of a standing in words.
ROWS: tuple[tuple[str, Callable[[Standing, Words], str]], ...] = (
    ("Body", lambda v, w: f"{v.form}, {v.school}" if v.school != "none" else v.form),
    ("Body weighs", lambda v, w: w.kg(v.body_kg)),
    ("Heaviest on the road", lambda v, w: w.kg(v.total_kg) if v.total_kg is not None else ""),
    (
        "Ball, worst case",
        lambda v, w: (
            f"{w.kg(v.worst_ball_kg)}, {w.share(v.worst_share or 0)} {lower_first(v.worst_case)}"
            if v.worst_ball_kg is not None
            else ""
        ),
    ),
    ("Least chance in band", lambda v, w: w.share(v.least_chance, 0) if v.least_chance is not None else ""),
    ("Inside, long at mattress", lambda v, w: w.m(v.inside_length_m) if v.inside_length_m is not None else ""),
    ("Inside, wide", lambda v, w: w.m(v.inside_width_m) if v.inside_width_m is not None else ""),
    ("Sticks", lambda v, w: str(v.sticks)),
    (
        "Warmth R, layered faces",
        lambda v, w: w.resistance(v.r_m2k_w) if v.r_m2k_w is not None else "no layers",
    ),
    ("Money, to compare", lambda v, w: f"{v.money:.0f}" if v.money else ""),
    ("Hours, to compare", lambda v, w: f"{v.hours:.0f} h" if v.hours else ""),
)


class SideBySide(Dialog):
    """Variants as columns, what counts as rows; what differs from the first is marked."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle("Variants side by side")
        self.resize(900, 640)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        self.table = QTableWidget()
        self.table.setAccessibleName("Variants side by side")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectColumns)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.drawing = Chart(
            session,
            "The chosen variant over the first",
            self._drawn,
            empty=lambda: "Choose a column to see it over the first.",
        )
        self.drawing.setMinimumHeight(200)
        split = QSplitter(Qt.Orientation.Vertical)
        split.setChildrenCollapsible(False)
        split.addWidget(self.table)
        split.addWidget(self.drawing)
        split.setSizes([300, 260])
        rows.addWidget(split, 1)
        keys = QHBoxLayout()
        keys.addWidget(
            label(
                "Marked: other than in the first. Money and hours only compare; weigh before you tow.",
                "small",
                "pencil",
            )
        )
        keys.addStretch(1)
        close = QPushButton("Close")
        close.clicked.connect(self.reject)
        self.open_button = QPushButton("Open this one")
        self.open_button.setProperty("kind", "main")
        self.open_button.clicked.connect(self._open)
        keys.addWidget(close)
        keys.addWidget(self.open_button)
        rows.addLayout(keys)
        self.standings: tuple[Standing, ...] = ()
        self.table.itemSelectionChanged.connect(self._may)
        self.refresh()

    def refresh(self) -> None:
        project, words = self.session.project, Words(self.session.shown)
        self.standings = compare_variants(project)
        titles = [title for title, _ in ROWS]
        self.table.setColumnCount(len(self.standings))
        self.table.setRowCount(len(titles) + 2)
        self.table.setVerticalHeaderLabels([*titles, "To settle", "Same as the first"])
        self.table.setHorizontalHeaderLabels(
            [v.name + (" (open)" if v.id == self.session.build.id else "") for v in self.standings]
        )
        for column, (build, standing) in enumerate(zip(project.variants, self.standings, strict=True)):
            settle = to_settle(findings(study(build, project.facts)))
            cells = [say(standing, words) for _, say in ROWS]
            cells += [str(settle) if settle else "nothing", ", ".join(standing.same) if column else ""]
            for row, text in enumerate(cells):
                item = QTableWidgetItem(text)
                first = self.table.item(row, 0)
                if column and row < len(cells) - 1 and first is not None and first.text() != text:
                    item.setForeground(colour("chalk"))
                    face = item.font()
                    face.setBold(True)
                    item.setFont(face)
                self.table.setItem(row, column, item)
        header = self.table.horizontalHeader()
        header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        header.setMinimumSectionSize(150)
        if len(self.standings) > 1:
            self.table.selectColumn(1)
        self._may()

    def _drawn(self, width: float, height: float) -> tuple[Primitive, ...]:
        """The chosen variant over the first; the first over the one that follows it, where it is chosen itself."""
        project, at = self.session.project, self._column()
        if at < 0 or len(project.variants) < 2:
            return ()
        under = project.variants[0 if at else 1]
        a, b = (study(build, project.facts) for build in (under, project.variants[at]))
        return variants_over(a, b, Words(self.session.shown), width, height)

    def _column(self) -> int:
        columns = self.table.selectionModel().selectedColumns() if self.table.selectionModel() is not None else []
        return columns[0].column() if columns else -1

    def _may(self) -> None:
        at = self._column()
        self.drawing.update()
        self.open_button.setEnabled(at >= 0 and self.standings[at].id != self.session.build.id)

    def _open(self) -> None:
        if open_variant(self.session, self.standings[self._column()].id):
            self.accept()
