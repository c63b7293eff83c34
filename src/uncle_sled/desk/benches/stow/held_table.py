"""What holds every thing on the road: its pull in a stop, what it hangs on, and whether that is enough."""

from __future__ import annotations

from PySide6.QtCore import QModelIndex
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from uncle_sled.core.document.stow import Hold
from uncle_sled.core.findings.stow.held import CAUTION
from uncle_sled.core.studies.stow.restraints import LEAST_KG, Restraint, restraints
from uncle_sled.core.units import GRAVITY
from uncle_sled.core.words import Words
from uncle_sled.desk.kit.fields import label
from uncle_sled.desk.kit.table import Column, Table, TableModel
from uncle_sled.desk.session import Session

VERDICTS = {
    "": ("enough", "spruce"),
    "loose": ("loose", "primer"),
    "weak": ("too weak", "primer"),
    "jumps": ("can jump out", "ochre word"),
    "skin": ("tied to the skin", "primer"),
    "unrated": ("not rated", "pencil"),
}
WHERE = {"frame": "to the frame", "framing": "to framing", "skin": "to the skin"}


ORDER = {"loose": 0, "weak": 1, "skin": 2, "jumps": 3, "unrated": 4, "": 5}


class HeldModel(TableModel[Restraint]):
    def __init__(self, session: Session) -> None:
        self.session = session
        super().__init__(
            (
                Column("Thing", lambda one: one.name, 146),
                Column("Verdict", lambda one: self._verdict(one)[0], 92, ink=lambda one: self._verdict(one)[1]),
                Column("Fore and aft", lambda one: self._pull(one.along_n), 80, right=True),
                Column("Sideways", lambda one: self._pull(one.across_n), 66, right=True),
                Column("Up", lambda one: self._pull(one.up_n), 56, right=True),
                Column("Good for", lambda one: self._pull(one.capacity_n), 66, right=True),
                Column("Held by", self._held_by, 150),
            )
        )

    @property
    def held(self) -> tuple[Restraint, ...]:
        return self.rows

    def refresh(self) -> None:
        s = self.session.studied
        self.set_rows(sorted(restraints(s.build, s.table), key=lambda one: (ORDER[one.fault], -one.along_n)))

    def _pull(self, newton: float | None) -> str:
        return "–" if newton is None else Words(self.session.shown).kg(newton / GRAVITY)

    def _verdict(self, one: Restraint) -> tuple[str, str]:
        said = next((t.held_by for t in self.session.build.stow.things if t.id == one.id), "")
        return VERDICTS["unrated"] if one.fault == "loose" and said else VERDICTS[one.fault]

    def _held_by(self, one: Restraint) -> str:
        words, hold = Words(self.session.shown), one.hold
        things = {t.id: t for t in self.session.build.stow.things}
        if hold is not None:
            each = f", {words.kg(hold.rated.si)} each," if hold.rated else ""
            return f"{hold.many} {_kinds(hold)}{each} {WHERE[hold.into]}" if hold.kind != "built in" else "built in"
        if one.in_thing is not None:
            return f"in {things[one.in_thing].name}"
        return (things[one.id].held_by if one.id in things else "") or "nothing"


def _kinds(hold: Hold) -> str:
    return hold.kind if hold.many == 1 else {"latch": "latches"}.get(hold.kind, f"{hold.kind}s")


class HeldTable(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.model = HeldModel(session)
        self.view = Table(self.model, "What holds every thing on the road")
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
