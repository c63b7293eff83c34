"""What holds every thing on the road: its pull in a stop, what it hangs on, and whether that is enough."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, Qt
from PySide6.QtGui import QBrush
from PySide6.QtWidgets import QAbstractItemView, QHBoxLayout, QPushButton, QTableView, QVBoxLayout, QWidget

from uncle_sled.core.document.stow import Hold
from uncle_sled.core.findings.stow.held import CAUTION
from uncle_sled.core.studies.stow.restraints import LEAST_KG, Restraint, restraints
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.session import Session
from uncle_sled.desk.theme.theme import colour

Index = QModelIndex | QPersistentModelIndex
HEADS = ("Thing", "Verdict", "Fore and aft", "Sideways", "Up", "Good for", "Held by")
WIDTHS = (146, 92, 80, 66, 56, 66, 150)
VERDICTS = {
    "": ("enough", "spruce"),
    "loose": ("loose", "primer"),
    "weak": ("too weak", "primer"),
    "jumps": ("can jump out", "ochre word"),
    "skin": ("tied to the skin", "primer"),
    "unrated": ("not rated", "pencil"),
}
WHERE = {"frame": "to the frame", "framing": "to framing", "skin": "to the skin"}


class HeldModel(QAbstractTableModel):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.held: tuple[Restraint, ...] = ()

    def refresh(self) -> None:
        self.beginResetModel()
        s = self.session.studied
        order = {"loose": 0, "weak": 1, "skin": 2, "jumps": 3, "unrated": 4, "": 5}
        self.held = tuple(sorted(restraints(s.build, s.table), key=lambda one: (order[one.fault], -one.along_n)))
        self.endResetModel()

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.held)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(HEADS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role == Qt.ItemDataRole.DisplayRole and orientation == Qt.Orientation.Horizontal:
            return HEADS[section]
        return None

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        one, column = self.held[index.row()], index.column()
        if role == Qt.ItemDataRole.DisplayRole:
            return self._cells(one)[column]
        if role == Qt.ItemDataRole.TextAlignmentRole and column in (2, 3, 4, 5):
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        if role == Qt.ItemDataRole.ForegroundRole and column == 1:
            return QBrush(colour(self._verdict(one)[1]))
        return None

    def _verdict(self, one: Restraint) -> tuple[str, str]:
        said = next((t.held_by for t in self.session.build.stow.things if t.id == one.id), "")
        return VERDICTS["unrated"] if one.fault == "loose" and said else VERDICTS[one.fault]

    def _cells(self, one: Restraint) -> tuple[str, ...]:
        words = Words(self.session.shown)
        things = {t.id: t for t in self.session.build.stow.things}
        hold = one.hold
        said = things[one.id].held_by if one.id in things else ""
        if hold is not None:
            each = f", {words.kg(hold.rated.si)} each," if hold.rated else ""
            held = f"{hold.many} {_kinds(hold)}{each} {WHERE[hold.into]}" if hold.kind != "built in" else "built in"
        elif one.in_thing is not None:
            held = f"in {things[one.in_thing].name}"
        else:
            held = said or "nothing"
        pulls = [words.kg(newton / GRAVITY) for newton in (one.along_n, one.across_n, one.up_n)]
        good = "–" if one.capacity_n is None else words.kg(one.capacity_n / GRAVITY)
        return (one.name, self._verdict(one)[0], *pulls, good, held)


def _kinds(hold: Hold) -> str:
    return hold.kind if hold.many == 1 else {"latch": "latches"}.get(hold.kind, f"{hold.kind}s")


class HeldTable(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.model = HeldModel(session)
        self.view = QTableView()
        self.view.setModel(self.model)
        self.view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.view.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.view.setAlternatingRowColors(True)
        self.view.verticalHeader().hide()
        self.view.verticalHeader().setDefaultSectionSize(26)
        self.view.horizontalHeader().setStretchLastSection(True)
        self.view.setAccessibleName("What holds every thing on the road")
        for at, wide in enumerate(WIDTHS):
            self.view.setColumnWidth(at, wide)
        self.view.clicked.connect(self._chosen)
        self.strap_button = QPushButton("Strap what is loose")
        self.strap_button.setToolTip("Two rated straps over each thing that nothing holds")
        self.strap_button.clicked.connect(lambda _=False: self.strap())
        self.says = label("", wrap=True)
        top = QHBoxLayout()
        top.addWidget(self.says, 1)
        top.addWidget(self.strap_button)
        rows = QVBoxLayout(self)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.addLayout(top)
        rows.addWidget(self.view, 1)
        rows.addWidget(
            label(f"Pulls are written as the weight that pulls as much. {CAUTION}", "small", "pencil", wrap=True)
        )
        session.changed.connect(self.refresh)

    def showEvent(self, event: object) -> None:
        self.refresh()

    def refresh(self) -> None:
        if not self.isVisible():
            return
        self.model.refresh()
        words = Words(self.session.shown)
        bad = [one for one in self.model.held if one.fault not in ("", "unrated")]
        said = {t.id for t in self.session.build.stow.things if t.held_by}
        loose = [one for one in bad if one.fault == "loose" and one.id not in said]
        self.strap_button.setEnabled(bool(loose))
        if not self.model.held:
            self.says.setText(f"Nothing over {words.kg(LEAST_KG)} is aboard, so there is nothing to hold yet.")
        else:
            wrong = len([one for one in bad if one.fault != "loose" or one.id not in said])
            self.says.setText(
                f"{len(self.model.held)} things over {words.kg(LEAST_KG)} ride along; "
                + (f"{wrong} are not held as they should be." if wrong else "all of them are held.")
            )

    def _chosen(self, index: QModelIndex) -> None:
        self.session.select((self.model.held[index.row()].id,))

    def strap(self) -> None:
        """The remedy of the loose things, kept at once; undo takes it back."""
        from uncle_sled.core.findings.all_findings import findings
        from uncle_sled.core.findings.stow.held import hold_remedy

        one = next((f for f in findings(self.session.studied) if f.code == "held-loose"), None)
        made = hold_remedy(self.session.studied, one) if one is not None else None
        if made is not None and one is not None:
            self.session.edit("Strap what is loose", made[0], "Stow", one.where)
