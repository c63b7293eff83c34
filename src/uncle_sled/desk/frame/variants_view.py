"""Variants in the window: keep the open build as one, open another, see them side by side."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QMenu,
    QPlainTextEdit,
    QPushButton,
    QSplitter,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from uncle_sled.core.document import variants
from uncle_sled.core.document.differences import differences, in_words
from uncle_sled.core.document.project import Project
from uncle_sled.core.drawing.primitives import Primitive
from uncle_sled.core.drawing.rig.variants_over import variants_over
from uncle_sled.core.errors import SledError
from uncle_sled.core.findings.beside import Beside, beside
from uncle_sled.core.reading.studied import study
from uncle_sled.core.studies.compare_variants import Standing
from uncle_sled.core.words import Words, lower_first
from uncle_sled.desk.ask import ask, ask_text
from uncle_sled.desk.frame.take_over import TakeOver
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
    name = ask_text(parent, "Keep as a variant", "The build as it stands is kept under a name of its own:", "Another way")
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
    ("Body", lambda v, _w: f"{v.form}, {v.school}" if v.school != "none" else v.form),
    ("Body weighs", lambda v, w: w.kg(v.body_kg)),
    ("Heaviest on the road", lambda v, w: UNKNOWN if v.total_kg is None else w.kg(v.total_kg) + (", weighed" if v.total_measured else "")),
    (
        "Ball, worst case",
        lambda v, w: (
            f"{w.kg(v.worst_ball_kg)}, {w.share(v.worst_share or 0)} {lower_first(v.worst_case)}"
            if v.worst_ball_kg is not None
            else UNKNOWN
        ),
    ),
    ("Least chance in band", lambda v, w: w.share(v.least_chance, 0) if v.least_chance is not None else UNKNOWN),
    (
        "Axle nearest its rating",
        lambda v, w: f"{w.kg(v.axle_kg)}, {w.share(v.axle_share or 0, 0)}" if v.axle_kg is not None else "not checked",
    ),
    ("Its swing, damping", lambda v, w: _swing(v, w)),
    ("Rails, of their yield", lambda v, w: w.share(v.frame_use, 0) if v.frame_use is not None else "not checked"),
    ("Inside, long at mattress", lambda v, w: w.m(v.inside_length_m) if v.inside_length_m is not None else UNKNOWN),
    ("Inside, wide", lambda v, w: w.m(v.inside_width_m) if v.inside_width_m is not None else UNKNOWN),
    ("Inside, high", lambda v, w: w.m(v.inside_height_m) if v.inside_height_m is not None else UNKNOWN),
    ("Sticks", lambda v, _w: str(v.sticks)),
    ("Warmth of the layers", lambda v, w: w.resistance(v.r_m2k_w) if v.r_m2k_w is not None else "no layers"),
    ("Heat for the coldest night", lambda v, _w: f"{v.loss_w:.0f} W" if v.loss_w is not None else "not known"),
    ("Off the grid", lambda v, _w: f"{v.days_off_grid:.1f} days" if v.days_off_grid is not None else v.off_grid_says),
    ("Water lasts", lambda v, _w: f"{v.days_of_water:.1f} days" if v.days_of_water is not None else UNKNOWN),
    ("Money, likely", lambda v, _w: _money(v)),
    ("Hours of work", lambda v, _w: f"{v.hours:.0f} h" if v.hours is not None else UNKNOWN),
    ("Done by", lambda v, _w: v.finish.isoformat() if v.finish is not None else UNKNOWN),
)
UNKNOWN = "not known"
JOB = "uncle_sled.core.findings.beside:beside"
LANE = "variants"
MOST_TOLD = 60
ROW_PX = 24


def _swing(v: Standing, words: Words) -> str:
    if v.sway_damping is None or v.sway_kmh is None:
        return "not checked"
    grows = f"; grows from {words.kmh(v.critical_kmh)}" if v.critical_kmh is not None else ""
    return f"{v.sway_damping:.2f} at {words.kmh(v.sway_kmh)}{grows}"


def _money(v: Standing) -> str:
    if v.money is None:
        return UNKNOWN
    lacks = f", {v.unpriced} without a price" if v.unpriced else ""
    return f"{v.money:.0f}{lacks}"


class SideBySide(Dialog):
    """Variants as columns, what counts as rows; what differs from the first is marked, and told field by field."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        self.setWindowTitle("Variants side by side")
        self.resize(1000, 760)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(18, 14, 18, 14)
        self.table = QTableWidget()
        self.table.setAccessibleName("Variants side by side")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectColumns)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.drawing = Chart(
            session, "The chosen variant over the first", self._drawn, empty=lambda: "Choose a column to see it over the first."
        )
        self.drawing.setMinimumHeight(150)
        self.others = QPlainTextEdit()
        self.others.setReadOnly(True)
        self.others.setAccessibleName("What the chosen variant says otherwise")
        below = QSplitter(Qt.Orientation.Horizontal)
        below.setChildrenCollapsible(False)
        below.addWidget(self.drawing)
        below.addWidget(self.others)
        below.setSizes([600, 340])
        split = QSplitter(Qt.Orientation.Vertical)
        split.setChildrenCollapsible(False)
        split.addWidget(self.table)
        split.addWidget(below)
        split.setSizes([520, 180])
        rows.addWidget(split, 1)
        keys = QHBoxLayout()
        self.told = label("", "small", "pencil")
        keys.addWidget(self.told)
        keys.addStretch(1)
        close = QPushButton("Close")
        close.clicked.connect(self.reject)
        self.over_button = QPushButton("Take over from it…")
        self.over_button.setToolTip("A stop, layers, things or the school of the chosen variant into the open one")
        self.over_button.clicked.connect(lambda _=False: self._take_over())
        self.open_button = QPushButton("Open this one")
        self.open_button.setProperty("kind", "main")
        self.open_button.clicked.connect(self._open)
        for button in (close, self.over_button, self.open_button):
            keys.addWidget(button)
        rows.addLayout(keys)
        self.beside: tuple[Beside, ...] = ()
        self._number = 0
        self.table.itemSelectionChanged.connect(self._may)
        self.finished.connect(lambda _: self._leave())
        if session.worker is not None:
            session.worker.answered.connect(self._came)
            session.worker.told.connect(self._going)
        self.refresh()

    @property
    def standings(self) -> tuple[Standing, ...]:
        return tuple(beside_.standing for beside_ in self.beside)

    def refresh(self) -> None:
        """Ask for it, in the worker where there is one; names stand there at once."""
        project = self.session.project
        titles = [*(title for title, _ in ROWS), "To settle", "Same as the first"]
        self.table.setColumnCount(len(project.variants))
        self.table.setRowCount(len(titles))
        self.table.setVerticalHeaderLabels(titles)
        self.table.setHorizontalHeaderLabels([v.name + (" (open)" if v.id == self.session.build.id else "") for v in project.variants])
        header = self.table.horizontalHeader()
        few = len(project.variants) <= 4
        header.setSectionResizeMode(QHeaderView.ResizeMode.Stretch if few else QHeaderView.ResizeMode.ResizeToContents)
        header.setMinimumSectionSize(150)
        self.table.verticalHeader().setDefaultSectionSize(ROW_PX)
        self.table.verticalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
        if len(project.variants) > 1:
            self.table.selectColumn(1)
        if self.session.worker is None:
            self._fill(beside(project))
        else:
            self.told.setText("Reckoning …")
            self._number = self.session.worker.ask(LANE, JOB, project, job=True)
        self._may()

    def _going(self, number: int, _share: float | None, words: str) -> None:
        if number == self._number:
            self.told.setText(f"Reckoning {words} …")

    def _came(self, number: int, value: object, fault: str) -> None:
        if number != self._number:
            return
        if fault or not isinstance(value, tuple):
            self.told.setText(f"It could not be reckoned: {fault}")
        else:
            self._fill(value)

    def _leave(self) -> None:
        worker = self.session.worker
        if worker is not None:
            worker.drop(LANE)
            worker.answered.disconnect(self._came)
            worker.told.disconnect(self._going)

    def _fill(self, made: tuple[Beside, ...]) -> None:
        self.beside = made
        words = Words(self.session.shown)
        self.told.setText("Marked: other than in the first. Money by usual prices and quotes; weigh before you tow.")
        for column, beside_ in enumerate(made):
            cells = [say(beside_.standing, words) for _, say in ROWS]
            stops = f", {beside_.stops} to stop for" if beside_.stops else ""
            cells += [f"{beside_.settle}{stops}" if beside_.settle else "nothing", ", ".join(beside_.same) if column else ""]
            for row, text in enumerate(cells):
                item = QTableWidgetItem(text)
                first = self.table.item(row, 0)
                if column and row < len(cells) - 1 and first is not None and first.text() != text:
                    item.setForeground(colour("chalk"))
                    face = item.font()
                    face.setBold(True)
                    item.setFont(face)
                self.table.setItem(row, column, item)
        self._may()

    def _differences(self) -> str:
        """What the chosen one says otherwise than the first, stop by stop."""
        project, at = self.session.project, self._column()
        if at < 0 or len(project.variants) < 2:
            return "Keep the build as a variant, change what you like, and see here what differs."
        if at == 0:
            return "The first: the others are told against it."
        told: list[str] = []
        made = differences(project.variants[0], project.variants[at])
        for stop in dict.fromkeys(difference.stop for difference in made):
            told += [stop, *(f"  {in_words(difference, self.session.shown)}" for difference in made if difference.stop == stop)]
        if len(told) > MOST_TOLD:
            told = [*told[:MOST_TOLD], f"and {len(told) - MOST_TOLD} more"]
        return "\n".join(told) or "Nothing: it says what the first says."

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
        self.others.setPlainText(self._differences())
        other = at >= 0 and self.session.project.variants[at].id != self.session.build.id
        self.open_button.setEnabled(other)
        self.over_button.setEnabled(other)

    def _open(self) -> None:
        if open_variant(self.session, self.session.project.variants[self._column()].id):
            self.accept()

    def _take_over(self) -> None:
        """Of the chosen variant into the open one; what was taken is reckoned anew."""
        project = self.session.project
        source = variants.opened(project, project.variants[self._column()].id)
        if TakeOver(self.session, source, self).exec() == Dialog.DialogCode.Accepted:
            self.refresh()
